using System.Globalization;
using System.Text;
using Formatum.Core.Composing;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Output;
using Formatum.Web.Links;

namespace Formatum.Web.Desk;

/// <summary>A frame into whose picture somebody has gone: the picture whole, what the frame hides of it ghosted, with its edge and corners.</summary>
public static class PictureView
{
    /// <summary>What the Desk draws over the frames while somebody is inside a picture. Empty where the frame has none.</summary>
    public static string Inside(Publication publication, Frame frame, Box box)
    {
        var scene = Composer.Compose(publication, frame, box, Typefaces.All);
        if (scene.Image is not { } image) return "";
        string address = Previews.Placed(image.Source, publication.Setup, image.Matrix), matrix = SvgWriter.Matrix(image.Matrix);
        var svg = new StringBuilder();
        svg.Append(CultureInfo.InvariantCulture, $"<g data-inside-frame=\"{frame.Id}\" data-corners=\"{Corners(scene)}\" " +
            $"data-middle=\"{Middle(publication, frame, scene)}\"><g class=\"inside-frame\" transform=\"{SvgWriter.Matrix(scene.ToSpread)}\">");
        svg.Append(CultureInfo.InvariantCulture, $"<image class=\"ghosted\" width=\"1\" height=\"1\" preserveAspectRatio=\"none\" transform=\"{matrix}\" " +
            $"href=\"{address}\"/>");
        SvgWriter.Content(svg, scene, "inside-clip", _ => address);
        svg.Append(CultureInfo.InvariantCulture, $"<polygon class=\"picture-edge\" points=\"{Edge(image.Matrix)}\"/>");
        SvgWriter.Shape(svg, publication.ShapeOf(frame), box.Width, box.Height, " class=\"inside-outline\"");
        return svg.Append("</g></g>").ToString();
    }

    /// <summary>What changes of it while the picture is under the hand.</summary>
    public static InsidePatch? Patch(Publication publication, Frame frame, Box box)
    {
        var scene = Composer.Compose(publication, frame, box, Typefaces.All);
        return scene.Image is not { } image ? null : new(SvgWriter.Matrix(image.Matrix), Edge(image.Matrix), Corners(scene), Middle(publication, frame, scene),
            SvgWriter.Matrix(scene.ToSpread), SpreadView.ShapeAttributes(publication.ShapeOf(frame), box));
    }

    /// <summary>The slider runs in powers of two from the scale that just fills the fit box.</summary>
    public const double SlideLeast = -3, SlideMost = 4;

    public static double ScaleAt(in PictureFit fitting, double slide) => FillScale(fitting) * Math.Pow(2, Math.Clamp(slide, SlideLeast, SlideMost));

    public static double SlideOf(in PictureFit fitting, double scale) => Math.Clamp(Math.Log2(scale / FillScale(fitting)), SlideLeast, SlideMost);

    private static double FillScale(in PictureFit fitting) =>
        (fitting with { Rule = fitting.Rule with { Fit = FitKind.Fill, SmallestPpi = 0, LargestEnlargement = 0 } }).Place(Recrop.None).ScaleX;

    private static readonly Vec[] Unit = [new(0, 0), new(1, 0), new(1, 1), new(0, 1)];

    private static string Edge(Affine matrix) => Points(Unit.Select(matrix.Apply));

    /// <summary>The picture's upper left, upper right, lower right and lower left, in points of the spread.</summary>
    private static string Corners(SceneFrame scene) => Points(Unit.Select(c => scene.ToSpread.Apply(scene.Image!.Matrix.Apply(c))));

    /// <summary>What a turn goes about, in points of the spread.</summary>
    private static string Middle(Publication publication, Frame frame, SceneFrame scene) =>
        Points([scene.ToSpread.Apply(publication.FitOf(frame).FitBox(scene.Width, scene.Height).Centre)]);

    private static string Points(IEnumerable<Vec> points) => string.Join(' ', points.Select(p => $"{SvgWriter.Number(p.X)},{SvgWriter.Number(p.Y)}"));
}

/// <summary>A picture under the hand, as the page's script shows it.</summary>
/// <param name="Matrix">From its unit square to the frame.</param>
/// <param name="Edge">Its edge, in points of the frame.</param>
/// <param name="Corners">Its corners, in points of the spread.</param>
/// <param name="Middle">What a turn goes about, in points of the spread.</param>
/// <param name="ToSpread">From the frame to the spread.</param>
/// <param name="Shape">The attributes of the frame's outline.</param>
public sealed record InsidePatch(string Matrix, string Edge, string Corners, string Middle, string ToSpread, Dictionary<string, string> Shape);

using System.Globalization;
using System.Text;
using Formatum.Core.Arranging;
using Formatum.Core.Composing;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Imaging;
using Formatum.Output;
using Formatum.Web.Links;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk;

/// <summary>Spreads as they are seen on the Desk and in miniature: what prints, drawn from the scene, between the zones below and the outlines above.</summary>
public static class SpreadView
{
    /// <summary>Room around the bleed, in points, where frames may be laid aside.</summary>
    private const double Surround = 60;

    public static Box Visible(Publication publication, Spread spread) => spread.Trim.Grown(publication.Setup.Bleed + Surround);

    /// <summary>All that the Desk's drawing of a spread holds.</summary>
    public static string Inside(Publication publication, Spread spread)
    {
        var svg = new StringBuilder();
        svg.Append(Hatches);
        svg.Append("<g id=\"zones\" aria-hidden=\"true\">");
        Zones(svg, publication, spread);
        var trim = spread.Trim;
        svg.Append(CultureInfo.InvariantCulture, $"</g><clipPath id=\"trim-clip\"><rect x=\"{N(trim.X)}\" y=\"{N(trim.Y)}\" width=\"{N(trim.Width)}\" " +
            $"height=\"{N(trim.Height)}\"/></clipPath>");
        svg.Append("<g id=\"from-masters\" aria-hidden=\"true\">").Append(FromMasters(publication, spread)).Append("</g><g id=\"frames\">");
        svg.Append(Frames(publication, spread));
        return svg.Append("</g>").ToString();
    }

    /// <summary>The frames of a spread that are not hidden, from the lowest to the topmost.</summary>
    public static string Frames(Publication publication, Spread spread)
    {
        var svg = new StringBuilder();
        foreach (var (frame, box) in spread.FramesOf(publication).Where(f => !f.Frame.Hidden)) Frame(svg, publication, frame, box);
        return svg.ToString();
    }

    /// <summary>What the masters of a spread's pages have printed on it. It is changed on the master alone, and not to be taken hold of here.</summary>
    public static string FromMasters(Publication publication, Spread spread)
    {
        var svg = new StringBuilder();
        foreach (var scene in Composer.FromMasters(publication, spread, Typefaces.All))
        {
            svg.Append(CultureInfo.InvariantCulture, $"<g transform=\"{SvgWriter.Matrix(scene.ToSpread)}\">");
            SvgWriter.Content(svg, scene, "from-master-", image => Previews.Placed(image, publication.Setup, scene.Image!.Matrix));
            svg.Append("</g>");
        }
        return svg.ToString();
    }

    /// <summary>The guides of a spread, each with a wider line around it to take hold of.</summary>
    public static string Guides(Publication publication, Spread spread)
    {
        var svg = new StringBuilder();
        var seen = Visible(publication, spread);
        foreach (var guide in Guide.On(publication, spread))
        {
            var page = spread.Pages.First(p => p.Number == guide.PageNumber);
            string line = guide.Upright ? $"M{N(guide.At)} {N(seen.Y)}V{N(seen.Bottom)}"
                : $"M{N(guide.AcrossSpread ? seen.X : page.Trim.X)} {N(guide.At)}H{N(guide.AcrossSpread ? seen.Right : page.Trim.Right)}";
            svg.Append(CultureInfo.InvariantCulture, $"<g class=\"guide\" data-guide=\"{guide.PageNumber},{guide.Index}\" " +
                $"data-upright=\"{(guide.Upright ? "yes" : "no")}\" " +
                $"data-words=\"{Units.Text(guide.At - (guide.Upright ? page.Trim.X : page.Trim.Y), publication.Setup.Unit)}\"><path class=\"guide-line\" " +
                $"d=\"{line}\"/><path class=\"guide-reach\" d=\"{line}\"/></g>");
        }
        return svg.ToString();
    }

    /// <summary>The zones of a spread alone, with its measures beneath.</summary>
    public static string Plan(Publication publication, Spread spread)
    {
        var setup = publication.Setup;
        var seen = spread.Trim.Grown(setup.Bleed + 0.04 * spread.Trim.Width);
        var svg = new StringBuilder();
        svg.Append(CultureInfo.InvariantCulture, $"<svg class=\"plan-drawing\" hx-disable viewBox=\"{BoxText(seen)}\" role=\"img\" " +
            $"aria-label=\"How a spread will look\">")
            .Append(Hatches);
        Zones(svg, publication, spread);
        svg.Append("</svg><p class=\"plan-words\">");
        svg.Append(SvgWriter.Escape($"{Words.Size(setup.PageWidth, setup.PageHeight, setup.Unit)} \u00b7 " + (setup.Folding is null
            ? $"type area {Words.Size(setup.TypeArea(true).Width, setup.TypeArea(true).Height, setup.Unit)}"
            : $"{(spread.Pages[0].Number % 2 != 0 ? "outside" : "inside")}, panels of " +
                string.Join(", ", setup.PanelsOf(spread.Pages[0]).Select(p => Units.Text(p.Width, setup.Unit))))));
        return svg.Append("</p>").ToString();
    }

    /// <summary>Trim and fold, over the pictures that hide them.</summary>
    public static string Edges(Publication publication, Spread spread)
    {
        var svg = new StringBuilder();
        foreach (var page in spread.Pages)
        {
            Rect(svg, page.Trim, "sheet-edge");
            foreach (double fold in publication.Setup.FoldsOf(page))
                svg.Append(CultureInfo.InvariantCulture, $"<path class=\"sheet-edge\" d=\"M{N(page.Trim.X + fold)} {N(page.Trim.Y)}v{N(page.Trim.Height)}\"/>");
        }
        return svg.ToString();
    }

    private const string Hatches = """
            <defs>
            <pattern id="bleed-hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <rect width="5" height="5" class="bleed-ground"/><path d="M0 0V5" class="bleed-line"/>
            </pattern>
            <pattern id="empty-hatch" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <rect width="9" height="9" class="empty-ground"/><path d="M0 0V9" class="empty-line"/>
            </pattern>
            </defs>
            """;

    /// <summary>How wide a fold is shown, in points: nothing that matters should lie in it.</summary>
    private const double FoldZone = 2 * Units.PointsPerMillimetre;

    private static void Zones(StringBuilder svg, Publication publication, Spread spread)
    {
        var setup = publication.Setup;
        if (setup.Bleed > 0) Rect(svg, spread.Trim.Grown(setup.Bleed), "zone-bleed", "fill=\"url(#bleed-hatch)\"");
        foreach (var page in spread.Pages)
        {
            Rect(svg, page.Trim, "zone-page");
            var areas = setup.TypeAreas(page).Select(a => a.Moved(page.Trim.X, page.Trim.Y)).ToList();
            svg.Append(CultureInfo.InvariantCulture, $"<path class=\"zone-margin\" fill-rule=\"evenodd\" d=\"{Path(page.Trim)}")
                .Append(string.Concat(areas.Select(Path))).Append("\"/>");
            foreach (double fold in setup.FoldsOf(page))
                Rect(svg, new(page.Trim.X + fold - FoldZone / 2, page.Trim.Y, FoldZone, page.Trim.Height), "zone-fold");
            if (setup.Columns.Count > 1)
                foreach (var column in setup.ColumnBoxes(page)) Rect(svg, column.Moved(page.Trim.X, page.Trim.Y), "zone-column");
            if (setup.BaselineStep > 0)
                svg.Append("<path class=\"zone-baselines\" d=\"").Append(Baselines(setup, areas[0].Union(areas[^1]), page.Trim.Y)).Append("\"/>");
        }
        if (spread.Pages.Length == 2)
            svg.Append(CultureInfo.InvariantCulture, $"<path class=\"fold\" d=\"M{N(spread.Pages[1].Trim.X)} {N(spread.Trim.Y)}v{N(spread.Trim.Height)}\"/>");
    }

    /// <summary>The lines of the baseline grid across a page's type area.</summary>
    private static string Baselines(Setup setup, Box area, double top)
    {
        var path = new StringBuilder();
        double first = setup.BaselineStart + Math.Ceiling((area.Y - top - setup.BaselineStart) / setup.BaselineStep) * setup.BaselineStep;
        for (double y = Math.Max(setup.BaselineStart, first); y <= area.Bottom - top; y += setup.BaselineStep)
            path.Append(CultureInfo.InvariantCulture, $"M{N(area.X)} {N(top + y)}h{N(area.Width)}");
        return path.ToString();
    }

    /// <summary>A frame as the Desk shows it, with its handle for pointer, keyboard and assistive technology.</summary>
    public static string Frame(Publication publication, Frame frame, Box box)
    {
        var svg = new StringBuilder();
        Frame(svg, publication, frame, box);
        return svg.ToString();
    }

    private static void Frame(StringBuilder svg, Publication publication, Frame frame, Box box)
    {
        var scene = Composer.Compose(publication, frame, box, Typefaces.All);
        string kind = (frame.IsPlaceholder ? "frame frame-empty" : frame.IsText ? "frame frame-text" : "frame") + (frame.Locked ? " frame-locked" : "");
        string group = frame.GroupId is { } g ? $" data-group=\"{g}\"" : "";
        svg.Append(CultureInfo.InvariantCulture, $"<g id=\"frame-{frame.Id}\" class=\"{kind}\" data-frame=\"{frame.Id}\" data-box=\"{BoxText(box)}\" " +
            $"data-angle=\"{N(frame.Angle)}\"{group} transform=\"{SvgWriter.Matrix(scene.ToSpread)}\" tabindex=\"0\" role=\"button\" " +
            $"aria-label=\"{SvgWriter.Escape(Spoken(publication, frame))}\">");
        if (frame.IsPlaceholder)
        {
            SvgWriter.Shape(svg, publication.ShapeOf(frame), box.Width, box.Height, " class=\"shape empty\" fill=\"url(#empty-hatch)\"");
            svg.Append("<g class=\"look-holder\">");
            SvgWriter.Content(svg, scene, "clip", _ => "");
            svg.Append("</g>");
            var label = LabelOf(publication, frame);
            svg.Append(CultureInfo.InvariantCulture, $"<text class=\"empty-label\" y=\"{N(label.Y)}\" style=\"--largest:{N(label.Largest)}px\">");
            for (int i = 0; i < label.Lines.Count; i++)
                svg.Append(CultureInfo.InvariantCulture, $"<tspan x=\"{N(label.X)}\" " +
                    $"dy=\"{(i == 0 ? "-0.6em" : "1.2em")}\">{SvgWriter.Escape(label.Lines[i])}{(i < label.Lines.Count - 1 ? " " : "")}</tspan>");
            svg.Append("</text>");
        }
        // Over its outline, so that what is left over can be taken hold of.
        else if (frame.IsText)
        {
            SvgWriter.Shape(svg, publication.ShapeOf(frame), box.Width, box.Height, " class=\"shape outline\"");
            svg.Append("<g class=\"text-holder\">").Append(TextOf(publication, frame, scene)).Append("</g></g>");
            return;
        }
        else
        {
            SvgWriter.Content(svg, scene, "clip", image => Previews.Placed(image, publication.Setup, scene.Image!.Matrix));
            if (FiguresOf(publication, frame) is { } figures) Overlays(svg, publication.ShapeOf(frame), box, figures);
            svg.Append(CultureInfo.InvariantCulture, $"<path class=\"contour\" d=\"{ContourPath(publication, frame, box)}\"/>");
        }
        SvgWriter.Shape(svg, publication.ShapeOf(frame), box.Width, box.Height, " class=\"shape outline\"");
        svg.Append("</g>");
    }

    /// <summary>The contour that text keeps clear of, as a path in the unturned frame; empty where it does not.</summary>
    private static string ContourPath(Publication publication, Frame frame, Box box) => publication.WrapOf(frame).Around != WrapAround.Contour ? ""
        : string.Concat((Wraps.ContourOf(publication, frame, publication.ShapeOf(frame).Flatten(box.Width, box.Height)) ?? [])
            .Select(ring => $"M{string.Join('L', ring.Select(p => $"{N(p.X)} {N(p.Y)}"))}Z"));

    private static string TextOf(Publication publication, Frame frame, SceneFrame scene)
    {
        var svg = new StringBuilder();
        SvgWriter.Content(svg, scene, "", _ => "");
        return svg.Append(TextView.Marks(frame, publication.IsEmpty(frame), scene.Text!)).ToString();
    }

    /// <summary>A frame with a picture it does not have yet, drawn over what it shows now.</summary>
    public static string Preview(Publication publication, Frame frame, Box box, string idPrefix = "in-hand")
    {
        var scene = Composer.Compose(publication, frame, box, Typefaces.All);
        var svg = new StringBuilder();
        svg.Append(CultureInfo.InvariantCulture, $"<g class=\"tray-preview\" transform=\"{SvgWriter.Matrix(scene.ToSpread)}\">");
        SvgWriter.Shape(svg, publication.ShapeOf(frame), box.Width, box.Height, " class=\"tray-ground\"");
        SvgWriter.Content(svg, scene, idPrefix, image => Previews.Placed(image, publication.Setup, scene.Image!.Matrix));
        SvgWriter.Shape(svg, publication.ShapeOf(frame), box.Width, box.Height, " class=\"tray-edge\"");
        return svg.Append("</g>").ToString();
    }

    /// <summary>The numbers of a frame written over it, and how sharp it is: shown when asked for.</summary>
    private static void Overlays(StringBuilder svg, Outline shape, Box box, FrameFigures figures)
    {
        string size = $"style=\"--largest:{N(Math.Min(box.Width / 9, box.Height / 5.6))}px\"";
        svg.Append("<g class=\"figures\" aria-hidden=\"true\"><text y=\"0.3em\" ").Append(size).Append('>');
        foreach (string line in figures.Lines) svg.Append("<tspan x=\"0.5em\" dy=\"1.15em\">").Append(SvgWriter.Escape(line)).Append("</tspan>");
        svg.Append(CultureInfo.InvariantCulture, $"</text></g><g class=\"sharpness\" data-sharpness=\"{figures.Sharpness}\" aria-hidden=\"true\">");
        SvgWriter.Shape(svg, shape, box.Width, box.Height, " class=\"shape wash\"");
        svg.Append(CultureInfo.InvariantCulture, $"<text class=\"centred\" x=\"{N(box.Width / 2)}\" y=\"{N(box.Height / 2)}\" " +
            $"style=\"--largest:{N(Math.Min(box.Width / 10, box.Height / 2))}px\">{SvgWriter.Escape(figures.Resolution)}</text></g>");
    }

    private static FrameFigures? FiguresOf(Publication publication, Frame frame)
    {
        if (publication.FittedOf(frame) is not { } fitted) return null;
        var (placement, coverage) = fitted;
        var sharpness = publication.Setup.SharpnessOf(coverage.Ppi);
        return new(
            [
                Words.Scale(placement, coverage), Words.Ppi(coverage.PpiX, coverage.PpiY), $"crop {Words.Percent(coverage.CropLoss)}",
                    $"bare {Words.Percent(coverage.BareArea)}",
            ],
            sharpness.ToString(), $"{Words.Mark(sharpness)} {Words.Ppi(coverage.Ppi)} {Words.Name(sharpness)}", FactsOf(publication.Setup, fitted));
    }

    /// <summary>The figures of a picture as the inspector tells them, each under the id of its place there.</summary>
    public static Dictionary<string, string> FactsOf(Setup setup, in Fitted fitted)
    {
        var (placement, coverage) = fitted;
        return new()
        {
            ["figure-scale"] = placement.Flags.HasFlag(FitFlags.Stretched) ? $"{Words.Percent(placement.ScaleX)} \u00d7 {Words.Percent(placement.ScaleY)}"
                : Words.Percent(placement.ScaleX),
            ["figure-ppi"] = $"{Words.Ppi(coverage.PpiX, coverage.PpiY)}, {Words.Name(setup.SharpnessOf(coverage.Ppi))}",
            ["figure-crop"] = Words.Percent(coverage.CropLoss),
            ["figure-bare"] = Words.Percent(coverage.BareArea),
        };
    }

    /// <summary>A spread in small, without the marks of the Desk.</summary>
    /// <param name="publication">The publication.</param>
    /// <param name="spread">The spread.</param>
    /// <param name="idPrefix">Sets its element ids apart from others in the same document.</param>
    public static string Miniature(Publication publication, Spread spread, string idPrefix)
    {
        var svg = new StringBuilder();
        var trim = spread.Trim;
        svg.Append(CultureInfo.InvariantCulture, $"<svg class=\"miniature\" viewBox=\"{N(trim.X)} {N(trim.Y)} {N(trim.Width)} {N(trim.Height)}\" " +
            $"role=\"img\" hx-disable aria-label=\"{SvgWriter.Escape(spread.Label)}\">");
        foreach (var page in spread.Pages) Rect(svg, page.Trim, "zone-page");
        foreach (var frame in Composer.Compose(publication, spread, Typefaces.All).Items)
        {
            svg.Append(CultureInfo.InvariantCulture, $"<g transform=\"{SvgWriter.Matrix(frame.ToSpread)}\">");
            if (frame.Image is null && frame.Text is null) SvgWriter.Shape(svg, frame.Outline, frame.Width, frame.Height, " class=\"empty\"");
            SvgWriter.Content(svg, frame, idPrefix, image => Previews.Smallest(image, publication.Setup));
            svg.Append("</g>");
        }
        if (spread.Pages.Length == 2)
            svg.Append(CultureInfo.InvariantCulture, $"<path class=\"fold\" d=\"M{N(spread.Pages[1].Trim.X)} 0v{N(trim.Height)}\"/>");
        return svg.Append("</svg>").ToString();
    }

    /// <summary>What changes about a frame while it is dragged: values for attributes that the page's script sets as they are.</summary>
    /// <param name="publication">The publication as it would be.</param>
    /// <param name="frame">The frame as it would be.</param>
    /// <param name="box">Its box on the spread.</param>
    /// <param name="onlyPlaced">Whether it lies elsewhere, and nothing else about it changes.</param>
    public static FramePatch Patch(Publication publication, Frame frame, Box box, bool onlyPlaced = false)
    {
        if (onlyPlaced)
            return new(frame.Id, BoxText(box), N(frame.Angle), SvgWriter.Matrix(new Pose(box, frame.Angle).ToPage), null, null, null, null, null, null);
        var scene = Composer.Compose(publication, frame, box, Typefaces.All);
        var shape = ShapeAttributes(publication.ShapeOf(frame), box);
        var label = frame.IsPlaceholder ? LabelOf(publication, frame) : null;
        return new(frame.Id, BoxText(box), N(frame.Angle), SvgWriter.Matrix(scene.ToSpread), shape, scene.Image is { } image ? SvgWriter.Matrix(image.Matrix)
            : null, label, FiguresOf(publication, frame), frame.IsText ? TextOf(publication, frame, scene) : null,
            !frame.IsText && SvgWriter.BorderLines(scene) is { Length: > 0 } border ? border : null);
    }

    /// <summary>The attributes of the element that draws an outline.</summary>
    public static Dictionary<string, string> ShapeAttributes(Outline outline, Box box) => outline switch
    {
        EllipseOutline => new Dictionary<string, string>
        {
            ["cx"] = N(box.Width / 2),
            ["cy"] = N(box.Height / 2),
            ["rx"] = N(box.Width / 2),
            ["ry"] = N(box.Height / 2)
        },
        PolygonOutline => new Dictionary<string, string>
        {
            ["points"] = string.Join(' ', outline.Flatten(box.Width, box.Height)
            .Select(p => $"{N(p.X)},{N(p.Y)}"))
        },
        CorneredOutline cornered => new Dictionary<string, string>
        {
            ["d"] = SvgWriter.PathData(cornered.At(box.Width, box.Height), box.Width, box.Height)
        },
        PathOutline path => new Dictionary<string, string> { ["d"] = SvgWriter.PathData(path, box.Width, box.Height) },
        _ => new Dictionary<string, string> { ["width"] = N(box.Width), ["height"] = N(box.Height) },
    };

    /// <summary>The points of a frame's outline on the spread: "x,y" with blanks between, and after a slash each the controls where it bends; an empty one
    /// where it does not.</summary>
    public static string PointsText(Frame frame, Box box)
    {
        static string At(Vec? p) => p is { } at ? $"{N(at.X)},{N(at.Y)}" : "";
        return string.Join(' ', OutlinePoints.Of(new(box, frame.Angle), frame.Outline).Select(p => p.Before is null && p.After is null ? At(p.At)
            : $"{At(p.At)}/{At(p.Before)}/{At(p.After)}"));
    }

    private static EmptyLabel LabelOf(Publication publication, Frame frame)
    {
        var (width, height) = (frame.Box.Width, frame.Box.Height);
        string size = Words.Size(width, height, publication.Setup.Unit), ratio = Words.Ratio(width, height);
        string rule = frame.RuleId is { } id ? publication.Rules[id].Name : Words.Name(publication.FitOf(frame).Fit);
        string[] lines = [$"{size} \u00b7 {ratio}", rule];
        // About half an em to a character: the label stays inside all but the smallest frames.
        return new(width / 2, height / 2, Math.Min(width * 0.92 / (0.5 * lines.Max(l => l.Length)), height * 0.38), lines);
    }

    private static string Spoken(Publication publication, Frame frame) =>
        frame.IsPlaceholder ? $"{frame.Label}, placeholder, {string.Join(' ', LabelOf(publication, frame).Lines)}"
            : publication.StoryOf(frame) is { Text: var text } ? $"{frame.Label}, text: {(text.Plain.Length > 80 ? text.Plain[..80] : text.Plain)}"
            : $"{frame.Label}, {publication.ImageOf(frame)?.Name}, {Words.Size(frame.Box.Width, frame.Box.Height, publication.Setup.Unit)}";

    public static string Ratio(Spread spread) => $"{N(spread.Trim.Width)}/{N(spread.Trim.Height)}";

    public static string BoxText(Box box) => $"{N(box.X)} {N(box.Y)} {N(box.Width)} {N(box.Height)}";

    private static void Rect(StringBuilder svg, Box box, string css, string more = "") =>
        svg.Append(CultureInfo.InvariantCulture, $"<rect class=\"{css}\" x=\"{N(box.X)}\" y=\"{N(box.Y)}\" width=\"{N(box.Width)}\" " +
            $"height=\"{N(box.Height)}\" {more}/>");

    private static string Path(Box box) => $"M{N(box.X)} {N(box.Y)}h{N(box.Width)}v{N(box.Height)}h{N(-box.Width)}z";

    private static string N(double value) => SvgWriter.Number(value);
}

/// <summary>The words in a placeholder, line by line, where their middle stands, and the largest size in points at which they stay inside.</summary>
public sealed record EmptyLabel(double X, double Y, double Largest, IReadOnlyList<string> Lines);

/// <summary>The numbers of a frame in words: a line each, and its resolution with how that stands against the publication's limits.</summary>
public sealed record FrameFigures(IReadOnlyList<string> Lines, string Sharpness, string Resolution, IReadOnlyDictionary<string, string> Facts);

/// <summary>A frame under way, as the page's script shows it. What is null stays as it is.</summary>
public sealed record FramePatch(int Id, string Box, string Angle, string Transform, Dictionary<string, string>? Shape, string? Image, EmptyLabel? Label,
    FrameFigures? Figures, string? Text, string? Border, string? Points = null);

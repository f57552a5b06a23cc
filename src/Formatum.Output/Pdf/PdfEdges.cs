using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using SkiaSharp;

namespace Formatum.Output.Pdf;

/// <summary>What falls along the outline of a frame: shadows as a colour through a mask of bounded size, soft edges as a mask of what they fade.</summary>
internal sealed class PdfEdges(PdfFile file, PdfColours colours, PdfPictures pictures, PdfStates states)
{
    public void Shadow(PdfContent content, SceneFrame frame, SKPath outline, Shadow shadow)
    {
        var falls = frame.ShadowFalls(shadow);
        content.Save().Concat(Affine.Translation(falls.X, falls.Y));
        if (shadow.Blur > 0)
        {
            using var picture = CanvasEdges.ShadowPicture(outline, shadow);
            Show(content, picture, shadow);
        }
        else
        {
            content.State(states.Opacity(shadow.Strength));
            colours.Fill(content, shadow.Colour);
            PdfPaths.Add(content, frame.Outline, frame.Width, frame.Height);
            content.Add("f");
        }
        content.Restore();
    }

    public void InnerShadow(PdfContent content, SceneFrame frame, SKPath outline, Shadow shadow)
    {
        var falls = frame.ShadowFalls(shadow);
        content.Save();
        PdfPaths.Add(content, frame.Outline, frame.Width, frame.Height);
        content.Add("W n");
        if (shadow.Blur > 0)
        {
            using var picture = CanvasEdges.InnerPicture(outline, shadow, falls, CanvasInk.Screen);
            Show(content, picture, shadow);
        }
        else
        {
            content.State(states.Opacity(shadow.Strength));
            colours.Fill(content, shadow.Colour);
            // All but what fell: beyond the box around, where this says too much, nothing is drawn.
            content.Add("re", 0, 0, frame.Width, frame.Height);
            using var fallen = new SKPath(outline);
            fallen.Transform(SKMatrix.CreateTranslation((float)falls.X, (float)falls.Y));
            PdfPaths.Add(content, fallen);
            content.Add("f*");
        }
        content.Restore();
    }

    private void Show(PdfContent content, EdgePicture picture, Shadow shadow)
    {
        int mask = pictures.AddMask(picture.Cover(), picture.Image.Width, picture.Image.Height, isSoft: true);
        content.Save().Concat(Placed(picture.Bounds)).Show(pictures.AddPixel(shadow.Colour, mask)).Restore();
    }

    /// <summary>A state in which what is drawn fades out along the outline (ISO 32000-1, 11.6.5.2).</summary>
    public int Fading(SKPath outline, double deviation)
    {
        using var picture = CanvasEdges.FadingPicture(outline, deviation);
        int kept = pictures.AddMask(picture.Cover(), picture.Image.Width, picture.Image.Height, isSoft: true);
        var content = new PdfContent().Save().Concat(Placed(picture.Bounds)).Show(kept).Restore();
        var bounds = new Box(picture.Bounds.Left, picture.Bounds.Top, picture.Bounds.Width, picture.Bounds.Height);
        int group = PdfForms.Add(file, content, bounds, "/DeviceGray");
        return file.Add($"<</Type/ExtGState/SMask<</Type/Mask/S/Luminosity/G {PdfSyntax.Reference(group)}>>>>");
    }

    /// <summary>From a picture's unit square, which counts from below, to where it lies.</summary>
    private static Affine Placed(SKRect bounds) => new(bounds.Width, 0, 0, -bounds.Height, bounds.Left, bounds.Bottom);
}

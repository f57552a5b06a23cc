using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using SkiaSharp;

namespace Formatum.Output.Pdf;

/// <summary>Draws scenes into a PDF.</summary>
internal sealed class PdfScene(PdfFile file, PdfColours colours, PdfPictures pictures, PdfText texts, PdfStates states, PdfTags? tags)
{
    private readonly PdfEdges _edges = new(file, colours, pictures, states);

    /// <param name="content">Takes the operators; its axes are the spread's, y down.</param>
    /// <param name="frames">What to draw, from the lowest to the topmost.</param>
    /// <param name="within">What is seen of the spread.</param>
    public void Draw(PdfContent content, IEnumerable<SceneFrame> frames, Box within)
    {
        foreach (var frame in frames)
        {
            var look = frame.Look;
            tags?.Frame(frame);
            content.Save().Concat(frame.ToSpread);
            if (look.Opacity < 1 || look.Blend != Blend.Normal)
            {
                var layer = new PdfContent();
                DrawFrame(layer, frame, within, isTagged: false);
                int form = Form(layer, frame, look.Reach);
                Tagged(content, tags?.OpenWhole(frame), () => content.State(states.Layer(look.Opacity, ModeOf(look.Blend))).Show(form));
            }
            else DrawFrame(content, frame, within, isTagged: tags is not null);
            content.Restore();
        }
    }

    private int Form(PdfContent content, SceneFrame frame, double around) =>
        PdfForms.Add(file, content, new Box(0, 0, frame.Width, frame.Height).Grown(around + Beyond), colours.Blending);

    /// <summary>Letters and lines reach beyond their frame at most so far, in points.</summary>
    private const double Beyond = 1000;

    private static void Tagged(PdfContent content, string? opening, Action draw)
    {
        if (opening is not null) content.Add(opening);
        draw();
        if (opening is not null) content.Add("EMC");
    }

    private void DrawFrame(PdfContent content, SceneFrame frame, Box within, bool isTagged)
    {
        var look = frame.Look;
        string? aside = isTagged ? PdfTags.Artifact : null;
        using var outline = SceneCanvas.PathOf(frame.Outline, frame.Width, frame.Height);
        if (look.Shadow is { } shadow) Tagged(content, aside, () => _edges.Shadow(content, frame, outline, shadow));
        if (look.SoftEdge > 0 && (look.Background is not null || frame.Image is not null))
        {
            var fading = new PdfContent();
            DrawFilling(fading, frame, within, isTagged: false);
            Tagged(content, isTagged ? frame.Image is null ? aside : tags!.OpenPicture(frame.Image.Source) : null,
                () => content.Save().State(_edges.Fading(outline, look.EdgeDeviation)).Show(Form(fading, frame, 0)).Restore());
        }
        else DrawFilling(content, frame, within, isTagged);
        if (look.InnerShadow is { } inner) Tagged(content, aside, () => _edges.InnerShadow(content, frame, outline, inner));
        if (frame.Text is { } text) texts.Draw(content, text, isTagged ? tags : null);
        if (look.Border is not null) Tagged(content, aside, () => DrawBorder(content, frame));
    }

    /// <summary>What a soft edge fades: background and picture.</summary>
    private void DrawFilling(PdfContent content, SceneFrame frame, Box within, bool isTagged)
    {
        if (frame.Look.Background is { } background) Tagged(content, isTagged ? PdfTags.Artifact : null, () =>
            InOpacity(content, frame.Look.BackgroundOpacity, () =>
            {
                colours.Fill(content, background);
                PdfPaths.Add(content, frame.Outline, frame.Width, frame.Height);
                content.Add("f");
            }));
        if (frame.Image is { } shown) Tagged(content, isTagged ? tags!.OpenPicture(shown.Source) : null, () =>
            InOpacity(content, frame.Look.PictureOpacity, () => DrawPicture(content, frame, shown, within)));
    }

    private void InOpacity(PdfContent content, double opacity, Action draw)
    {
        if (opacity < 1) content.Save().State(states.Opacity(opacity));
        draw();
        if (opacity < 1) content.Restore();
    }

    /// <summary>From a picture's unit square, which counts from below, to one that counts from above.</summary>
    private static readonly Affine FromBelow = new(1, 0, 0, -1, 0, 1);

    private void DrawPicture(PdfContent content, SceneFrame frame, SceneImage shown, Box within)
    {
        var picture = pictures.Take(shown, frame.ToSpread.After(shown.Matrix), SceneCanvas.Seen(frame, shown, within));
        content.Save();
        PdfPaths.Add(content, frame.Outline, frame.Width, frame.Height);
        content.Add("W n").Concat(shown.Matrix.After(picture.ToUpright).After(FromBelow)).Show(picture.XObject).Restore();
    }

    private void DrawBorder(PdfContent content, SceneFrame frame)
    {
        foreach (var stroke in BorderStrokes.Of(frame))
        {
            using var done = stroke;
            content.Save();
            colours.Stroke(content, stroke.Stripe.Colour);
            content.Add("w", stroke.Stripe.Width).Add("M", Border.MiterLimit).Add("j", (int)frame.Look.Border!.Join).Add("J", (int)stroke.End);
            if (stroke.Dashes.Length > 0) content.Add($"[{PdfSyntax.Numbers(stroke.Dashes)}] 0 d");
            PdfPaths.Add(content, stroke.Path);
            content.Add("S").Restore();
        }
    }

    /// <summary>The modes are named as those of CSS, but without hyphens and with capitals (11.3.5).</summary>
    private static string ModeOf(Blend blend) => blend.ToString();
}

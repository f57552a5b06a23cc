using System.Globalization;
using System.Text;
using System.Text.Json;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;

namespace Formatum.Output;

/// <summary>Scenes as SVG.</summary>
public static class SvgWriter
{
    /// <summary>A page with its bleed cut off, as a document of its own.</summary>
    /// <param name="scene">The scene of the page's spread.</param>
    /// <param name="page">The page.</param>
    /// <param name="title">For people and for screen readers.</param>
    /// <param name="reference">What an image element refers to.</param>
    public static string Page(Scene scene, PlacedPage page, string title, Func<LinkedImage, string> reference) => Page(scene, page.Trim, title, reference);

    /// <summary>What a scene shows within a box, in the spread's points, as a document of its own.</summary>
    public static string Page(Scene scene, Box trim, string title, Func<LinkedImage, string> reference)
    {
        var svg = new StringBuilder();
        svg.Append(CultureInfo.InvariantCulture, $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{Number(trim.Width)}pt\" " +
            $"height=\"{Number(trim.Height)}pt\" viewBox=\"{Number(trim.X)} {Number(trim.Y)} {Number(trim.Width)} {Number(trim.Height)}\">\n<title>");
        svg.Append(Escape(title)).Append("</title>\n");
        Fonts(svg, scene);
        svg.Append(CultureInfo.InvariantCulture, $"<rect x=\"{Number(trim.X)}\" y=\"{Number(trim.Y)}\" width=\"{Number(trim.Width)}\" " +
            $"height=\"{Number(trim.Height)}\" fill=\"#fff\"/>\n");
        var pictures = Pictures(svg, scene, reference);
        foreach (var frame in scene.Items)
        {
            if (!frame.Prints) continue;
            svg.Append(CultureInfo.InvariantCulture, $"<g transform=\"{Matrix(frame.ToSpread)}\">");
            Content(svg, frame, "clip", image => pictures[image.Id]);
            svg.Append("</g>\n");
        }
        return svg.Append("</svg>\n").ToString();
    }

    /// <summary>What a frame shows, in frame-local points. The prefix sets element ids apart within a document; outlines are of the class "shape".</summary>
    public static void Content(StringBuilder svg, SceneFrame frame, string idPrefix, Func<LinkedImage, string> reference)
    {
        var look = frame.Look;
        void Drawn(string attributes) => Shape(svg, frame.Outline, frame.Width, frame.Height, $" class=\"shape\" {attributes}");
        bool layered = look.Opacity < 1 || look.Blend != Blend.Normal;
        if (layered) svg.Append("<g").Append(Opacity(look.Opacity)).Append(Mixed(look.Blend)).Append('>');
        if (look.Shadow is { } shadow)
        {
            var falls = frame.ShadowFalls(shadow);
            double room = 3 * shadow.Deviation;
            // The region is given in the outline's own measures, with room for the softened edge, and grows with it.
            string soft = shadow.Blur > 0 ? $" filter=\"url(#{idPrefix}shadow{frame.FrameId})\"" : "";
            if (soft.Length > 0)
                svg.Append(CultureInfo.InvariantCulture, $"<filter id=\"{idPrefix}shadow{frame.FrameId}\" filterUnits=\"userSpaceOnUse\" " +
                    $"x=\"{Number(-room - frame.Width)}\" y=\"{Number(-room - frame.Height)}\" width=\"{Number(3 * frame.Width + 2 * room)}\" " +
                    $"height=\"{Number(3 * frame.Height + 2 * room)}\" color-interpolation-filters=\"sRGB\"><feGaussianBlur " +
                    $"stdDeviation=\"{Number(shadow.Deviation)}\"/></filter>");
            svg.Append(CultureInfo.InvariantCulture, $"<g transform=\"translate({Number(falls.X)} {Number(falls.Y)})\"{soft}>");
            Drawn(string.Create(CultureInfo.InvariantCulture, $"fill=\"{shadow.Colour.Hex}\" fill-opacity=\"{Number(shadow.Strength)}\""));
            svg.Append("</g>");
        }
        if (look.SoftEdge > 0) SvgEdges.OpenSoft(svg, frame, idPrefix);
        if (look.Background is { } background)
            Drawn($"fill=\"{background.Hex}\"" + (look.BackgroundOpacity < 1 ? $" fill-opacity=\"{Number(look.BackgroundOpacity)}\"" : ""));
        Image(svg, frame, idPrefix, reference);
        if (look.SoftEdge > 0) svg.Append("</g>");
        if (look.InnerShadow is { } inner) SvgEdges.InnerShadow(svg, frame, inner, idPrefix);
        if (frame.Text is { } text) Text(svg, text);
        if (look.Border is { } border)
        {
            if (BorderStrokes.IsPlain(frame))
                Drawn($"fill=\"none\" stroke=\"{border.Colour.Hex}\" stroke-width=\"{Number(border.Width)}\"{JoinAttribute(border)}");
            else svg.Append("<g class=\"border\">").Append(BorderLines(frame)).Append("</g>");
        }
        if (layered) svg.Append("</g>");
    }

    private static string Opacity(double opacity) => opacity < 1 ? $" opacity=\"{Number(opacity)}\"" : "";

    /// <summary>The names are those of Compositing and Blending 1.</summary>
    private static string Mixed(Blend blend) => blend == Blend.Normal ? ""
        : $" style=\"mix-blend-mode:{JsonNamingPolicy.KebabCaseLower.ConvertName(blend.ToString())}\"";

    /// <summary>The lines of a border that need paths of their own, as elements; empty where it needs none.</summary>
    public static string BorderLines(SceneFrame frame)
    {
        if (frame.Look.Border is not { } border || BorderStrokes.IsPlain(frame)) return "";
        var svg = new StringBuilder();
        foreach (var stroke in BorderStrokes.Of(frame))
        {
            svg.Append(CultureInfo.InvariantCulture, $"<path fill=\"none\" stroke=\"{stroke.Stripe.Colour.Hex}\" " +
                $"stroke-width=\"{Number(stroke.Stripe.Width)}\"{JoinAttribute(border)}");
            if (stroke.End != LineEnd.Butt) svg.Append(CultureInfo.InvariantCulture, $" stroke-linecap=\"{stroke.End.ToString().ToLowerInvariant()}\"");
            if (stroke.Dashes.Length > 0) svg.Append(" stroke-dasharray=\"").AppendJoin(' ', stroke.Dashes.Select(Number)).Append('"');
            svg.Append(CultureInfo.InvariantCulture, $" d=\"{stroke.Path.ToSvgPathData()}\"/>");
            stroke.Dispose();
        }
        return svg.ToString();
    }

    private static string JoinAttribute(Border border) => border.Join == LineJoin.Miter ? ""
        : $" stroke-linejoin=\"{border.Join.ToString().ToLowerInvariant()}\"";

    private static void Image(StringBuilder svg, SceneFrame frame, string idPrefix, Func<LinkedImage, string> reference)
    {
        if (frame.Image is not { } image) return;
        svg.Append(CultureInfo.InvariantCulture, $"<clipPath id=\"{idPrefix}{frame.FrameId}\">");
        Shape(svg, frame.Outline, frame.Width, frame.Height, "");
        svg.Append(CultureInfo.InvariantCulture, $"</clipPath><g clip-path=\"url(#{idPrefix}{frame.FrameId})\"{Opacity(frame.Look.PictureOpacity)}>");
        string id = string.Create(CultureInfo.InvariantCulture, $"{idPrefix}treatment{frame.FrameId}");
        if (image.Treatment is { } treatment)
        {
            svg.Append(CultureInfo.InvariantCulture, $"<filter id=\"{id}\" {TreatmentFilter.Region}>");
            TreatmentFilter.Append(svg, treatment);
            svg.Append("</filter>");
        }
        // The filter is that of a group in the frame's own points, so that its lengths are as they are given.
        svg.Append(CultureInfo.InvariantCulture, $"<g class=\"treated\"{(image.Treatment is null ? "" : $" filter=\"url(#{id})\"")}>");
        Showing(svg, Escape(reference(image.Source)), $" transform=\"{Matrix(image.Matrix)}\"");
        svg.Append("</g></g>");
    }

    private static void Showing(StringBuilder svg, string address, string more)
    {
        if (address.StartsWith('#')) svg.Append(CultureInfo.InvariantCulture, $"<use{more} href=\"{address}\"/>");
        else svg.Append(CultureInfo.InvariantCulture, $"<image width=\"1\" height=\"1\" preserveAspectRatio=\"none\"{more} href=\"{address}\"/>");
    }

    /// <summary>The images of a page, each written once however often it is shown, and how each is then referred to.</summary>
    private static Dictionary<int, string> Pictures(StringBuilder svg, Scene scene, Func<LinkedImage, string> reference)
    {
        var images = scene.Items.Where(f => f.Prints).Select(f => f.Image?.Source).OfType<LinkedImage>().DistinctBy(i => i.Id).ToList();
        if (images.Count == 0) return [];
        svg.Append("<defs>\n");
        foreach (var image in images) Showing(svg, Escape(reference(image)), $" id=\"picture{image.Id}\"");
        svg.Append("\n</defs>\n");
        return images.ToDictionary(i => i.Id, i => $"#picture{i.Id}");
    }

    /// <summary>The fonts a page shows, in the document itself: it may refer to nothing outside.</summary>
    private static void Fonts(StringBuilder svg, Scene scene)
    {
        var faces = scene.Items.SelectMany(f => f.Text?.Lines ?? []).SelectMany(l => l.Runs).Select(r => r.Style)
            .Where(s => !Typefaces.All.IsDrawnAsShapes(s)).DistinctBy(s => (FontName(s), s.Bold, s.Italic)).ToList();
        if (faces.Count == 0) return;
        svg.Append("<style>");
        foreach (var style in faces)
            svg.Append(FontFace(style, $"data:font/{(style.Files is null ? "ttf" : "sfnt")};base64,{Convert.ToBase64String(Typefaces.All.FileOf(style))}"));
        svg.Append("</style>\n");
    }

    /// <summary>The style rule that makes a shipped face known. The name sets our own faces apart from what else the machine may have.</summary>
    public static string FontFace(string family, bool bold, bool italic, string address) =>
        $"@font-face{{font-family:'{FontName(family)}';font-weight:{(bold ? 700 : 400)};font-style:{(italic ? "italic" : "normal")};src:url('{address}')}}";

    /// <summary>The style rule that makes a publication's own face known.</summary>
    public static string FontFace(string contentHash, string address) => $"@font-face{{font-family:'{OwnFontName(contentHash)}';src:url('{address}')}}";

    /// <summary>The style rule that makes a style's face known.</summary>
    public static string FontFace(TextStyle style, string address) => style.Files is { } files && Typefaces.All.IsOwn(style)
        ? FontFace(files.Of(style.Bold, style.Italic), address) : FontFace(FontName(style)[FontPrefix.Length..], style.Bold, style.Italic, address);

    private const string FontPrefix = "Set ";

    /// <summary>What a style's face is called in a document.</summary>
    public static string FontName(TextStyle style) => style.Files is { } files && Typefaces.All.IsOwn(style)
        ? OwnFontName(files.Of(style.Bold, style.Italic)) : FontName(TextStyle.Families.Contains(style.Family) ? style.Family : TextStyle.Families[0]);

    public static string FontName(string family) => FontPrefix + family;

    private static string OwnFontName(string contentHash) => FontPrefix + contentHash[..32];

    /// <summary>The declarations of a style's face in a style sheet. A face that a publication brought bears a name of its own, not a weight.</summary>
    public static string FaceDeclarations(TextStyle style)
    {
        bool own = Typefaces.All.IsOwn(style);
        return $"font-family:'{FontName(style)}';font-weight:{(style.Bold && !own ? 700 : 400)};font-style:{(style.Italic && !own ? "italic" : "normal")}";
    }

    /// <summary>Set text in frame-local points: each word where it was set, so that it stands there whatever shows it.</summary>
    private static void Text(StringBuilder svg, SetText text)
    {
        svg.Append("<g class=\"set-text\">");
        foreach (var line in text.Lines) Line(svg, line);
        svg.Append("</g>");
    }

    /// <summary>A line of set text in frame-local points.</summary>
    public static void Line(StringBuilder svg, SetLine line)
    {
        // As they are read, not as they stand: whoever copies them, or has them read aloud, gets them in their order.
        foreach (var run in line.Runs.Where(r => r.Text.Length > 0).OrderBy(r => r.Start)) Run(svg, line, run);
        foreach (var stroke in line.Strokes)
            svg.Append(CultureInfo.InvariantCulture, $"<rect x=\"{Number(stroke.X)}\" y=\"{Number(line.Baseline + stroke.Below - stroke.Thickness / 2)}\" " +
                $"width=\"{Number(stroke.Width)}\" height=\"{Number(stroke.Thickness)}\" fill=\"{stroke.Ink.Hex}\"/>");
    }

    private static void Run(StringBuilder svg, SetLine line, SetRun run)
    {
        var style = run.Style;
        if (Typefaces.All.IsDrawnAsShapes(style))
        {
            Shapes(svg, line, run);
            return;
        }
        bool own = Typefaces.All.IsOwn(style);
        svg.Append(CultureInfo.InvariantCulture, $"<text y=\"{Number(line.Baseline - run.Raise)}\" font-family=\"'{FontName(style)}'\" " +
            $"font-size=\"{Number(run.Size)}\" fill=\"{style.Ink.Hex}\" text-rendering=\"geometricPrecision\" xml:space=\"preserve\"");
        if (style.Bold && !own) svg.Append(" font-weight=\"700\"");
        if (style.Italic && !own) svg.Append(" font-style=\"italic\"");
        if (style.Tracking != 0) svg.Append(CultureInfo.InvariantCulture, $" letter-spacing=\"{Number(style.Tracking / 1000 * style.Size)}\"");
        if (Typefaces.Features(style).ToList() is { Count: > 0 } features)
            svg.Append(" style=\"font-feature-settings:").AppendJoin(',', features.Select(f => $"'{f.Tag}' {f.Value}")).Append('"');
        svg.Append('>');
        var words = (run.RightToLeft ? WordsFromRight(run) : Words(run)).ToList();
        foreach (var word in words.Where(w => !w.Missing))
            svg.Append(CultureInfo.InvariantCulture, $"<tspan x=\"{Number(run.X + word.X)}\">{Escape(word.Text)}</tspan>");
        svg.Append("</text>");
        foreach (var word in words.Where(w => w.Missing)) MissingGlyph(svg, line, run, run.X + word.X);
    }

    /// <summary>The glyphs of a font that may go into no document.</summary>
    private static void Shapes(StringBuilder svg, SetLine line, SetRun run)
    {
        using var font = Typefaces.All.FontOf(run.Style, run.Size);
        double x = run.X;
        svg.Append(CultureInfo.InvariantCulture, $"<g fill=\"{run.Style.Ink.Hex}\">");
        foreach (var glyph in run.Glyphs)
        {
            using var path = font.GetGlyphPath(glyph.Id);
            if (path is { IsEmpty: false })
                svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{path.ToSvgPathData()}\" " +
                    $"transform=\"translate({Number(x + glyph.OffsetX)} {Number(line.Baseline - run.Raise + glyph.OffsetY)})\"/>");
            x += glyph.Advance;
        }
        svg.Append("</g>");
    }

    /// <summary>What the face shows for a character it does not have, as it prints: a browser would take one from another font.</summary>
    private static void MissingGlyph(StringBuilder svg, SetLine line, SetRun run, double x)
    {
        using var font = Typefaces.All.FontOf(run.Style, run.Size);
        using var path = font.GetGlyphPath(0);
        if (path is null || path.IsEmpty) return;
        svg.Append(CultureInfo.InvariantCulture, $"<path class=\"no-glyph\" d=\"{path.ToSvgPathData()}\" " +
            $"transform=\"translate({Number(x)} {Number(line.Baseline - run.Raise)})\" fill=\"{run.Style.Ink.Hex}\"/>");
    }

    /// <summary>A piece of a line, and how far from the run's beginning it stands: a word with the blanks behind it, or a character without a glyph.</summary>
    private readonly record struct Word(string Text, double X, bool Missing);

    /// <summary>The words of a run from right to left, each held to that: a browser would order them by what stands in the element. The blank behind
    /// one goes along, for whoever copies them.</summary>
    private static IEnumerable<Word> WordsFromRight(SetRun run)
    {
        var clusters = new SortedDictionary<int, (double X, bool Missing)>();
        double x = 0;
        foreach (var glyph in run.Glyphs)
        {
            var known = clusters.TryGetValue(glyph.Cluster, out var found) ? found : (X: x, Missing: false);
            clusters[glyph.Cluster] = (Math.Min(known.X, x), known.Missing || glyph.Id == 0);
            x += glyph.Advance;
        }
        int[] starts = [.. clusters.Keys];
        for (int i = 0; i < starts.Length; i++)
        {
            if (run.Text[starts[i]] == ' ') continue;
            int first = i;
            bool missing = clusters[starts[i]].Missing;
            if (!missing)
                while (i + 1 < starts.Length && run.Text[starts[i + 1]] != ' ' && !clusters[starts[i + 1]].Missing) i++;
            string text = run.Text[starts[first]..(i + 1 < starts.Length ? starts[i + 1] : run.Text.Length)];
            string blank = i + 1 < starts.Length && run.Text[starts[i + 1]] == ' ' ? " " : "";
            yield return new(missing ? text : $"\u202e{text}\u202c{blank}", starts[first..(i + 1)].Min(s => clusters[s].X), missing);
        }
    }

    private static IEnumerable<Word> Words(SetRun run)
    {
        int start = 0;
        double x = 0, at = 0;
        bool missing = false;
        foreach (var glyph in run.Glyphs)
        {
            int cluster = glyph.Cluster;
            bool begins = cluster > start && ((run.Text[cluster - 1] == ' ' && run.Text[cluster] != ' ') || missing || glyph.Id == 0);
            if (begins)
            {
                yield return new(run.Text[start..cluster], x, missing);
                (start, x) = (cluster, at);
            }
            if (begins || cluster == start) missing = glyph.Id == 0;
            at += glyph.Advance;
        }
        yield return new(run.Text[start..], x, missing);
    }

    /// <summary>The element that draws an outline of the given size.</summary>
    public static void Shape(StringBuilder svg, Outline outline, double width, double height, string attributes)
    {
        switch (outline)
        {
            case EllipseOutline:
                svg.Append(CultureInfo.InvariantCulture, $"<ellipse cx=\"{Number(width / 2)}\" cy=\"{Number(height / 2)}\" rx=\"{Number(width / 2)}\" " +
                    $"ry=\"{Number(height / 2)}\"{attributes}/>");
                break;
            case PolygonOutline:
                svg.Append("<polygon points=\"").AppendJoin(' ', outline.Flatten(width, height).Select(p => $"{Number(p.X)},{Number(p.Y)}")).Append('"')
                    .Append(attributes).Append("/>");
                break;
            case PathOutline path:
                svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{PathData(path, width, height)}\"{attributes}/>");
                break;
            case CorneredOutline cornered: Shape(svg, cornered.At(width, height), width, height, attributes); break;
            default:
                svg.Append(CultureInfo.InvariantCulture, $"<rect width=\"{Number(width)}\" height=\"{Number(height)}\"{attributes}/>");
                break;
        }
    }

    /// <summary>A free outline as SVG path data, in frame-local points.</summary>
    public static string PathData(PathOutline outline, double width, double height)
    {
        string At(Vec p) => $"{Number(p.X * width)} {Number(p.Y * height)}";
        var data = new StringBuilder("M").Append(At(outline.Points[0].At));
        foreach (var (from, to) in outline.Legs())
        {
            if (from.After is null && to.Before is null) data.Append('L').Append(At(to.At));
            else data.Append('C').Append(At(from.After ?? from.At)).Append(' ').Append(At(to.Before ?? to.At)).Append(' ').Append(At(to.At));
        }
        return data.Append('Z').ToString();
    }

    public static string Matrix(Affine m) => $"matrix({Number(m.A)} {Number(m.B)} {Number(m.C)} {Number(m.D)} {Number(m.E)} {Number(m.F)})";

    /// <summary>A number to a millionth of a point.</summary>
    public static string Number(double value) => (Math.Abs(value) < 5e-7 ? 0 : value).ToString("0.######", CultureInfo.InvariantCulture);

    /// <summary>Text as it stands in XML and HTML: marks escaped, and characters that XML 1.0 allows nowhere (2.2) left out.</summary>
    public static string Escape(string text) => System.Net.WebUtility.HtmlEncode(text.All(System.Xml.XmlConvert.IsXmlChar) ? text
        : string.Concat(text.EnumerateRunes().Where(IsXml)));

    private static bool IsXml(System.Text.Rune rune) => rune.Value > 0xFFFF || (System.Xml.XmlConvert.IsXmlChar((char)rune.Value) && rune.Value != 0xFFFD);
}

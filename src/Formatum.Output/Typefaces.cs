using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Runtime.InteropServices;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Output.Fonts;
using HarfBuzzSharp;
using SkiaSharp;

namespace Formatum.Output;

/// <summary>All fonts, those that are shipped and those that publications brought, shaped by HarfBuzz and drawn by Skia.</summary>
public sealed class Typefaces : ITypefaces
{
    public static readonly Typefaces All = new();

    private readonly ConcurrentDictionary<string, Lazy<LoadedFace>> _faces = new();
    private readonly OwnFaces _own = new();

    private Typefaces()
    {
    }

    public (double Ascent, double Descent) ReachOf(TextStyle style)
    {
        var face = FaceOf(style);
        return (face.Ascent * style.Size, face.Descent * style.Size);
    }

    public bool Has(TextStyle style, int codePoint) => FaceOf(style).Font.TryGetNominalGlyph((uint)codePoint, out uint glyph) && glyph != 0;

    public ImmutableArray<Glyph> Shape(string text, TextStyle style, bool rightToLeft = false)
    {
        Feature[] features = [.. Features(style).Select(f => new Feature(Tag.Parse(f.Tag), f.Value))];
        if (ScriptRun.IsPlain(text)) return ImmutableCollectionsMarshal.AsImmutableArray(Shaped(text, style, rightToLeft, features));
        var runs = ScriptRun.In(text);
        if (rightToLeft) runs.Reverse();
        return [.. runs.SelectMany(run => Shaped(text, style, rightToLeft, features, run))];
    }

    /// <summary>The glyphs of a text, or of a stretch of it as it stands there.</summary>
    private Glyph[] Shaped(string text, TextStyle style, bool rightToLeft, Feature[] features, ScriptRun? run = null)
    {
        var face = FaceOf(style);
        var buffer = Buffer.Value!;
        buffer.ClearContents();
        if (run is var (from, to, script))
        {
            buffer.AddUtf16(text, from, to - from);
            if (script != Script.Common) buffer.Script = script;
        }
        else buffer.AddUtf16(text);
        buffer.GuessSegmentProperties();
        buffer.Direction = rightToLeft ? Direction.RightToLeft : Direction.LeftToRight;
        face.Font.Shape(buffer, features);
        double scale = MeasuresOf(style).Size / face.UnitsPerEm, tracking = style.Tracking / 1000 * style.Size;
        var infos = buffer.GetGlyphInfoSpan();
        var positions = buffer.GetGlyphPositionSpan();
        var glyphs = new Glyph[infos.Length];
        for (int i = 0; i < glyphs.Length; i++)
        {
            // Room is added behind characters, not within one that several glyphs show.
            bool last = i == infos.Length - 1 || infos[i + 1].Cluster != infos[i].Cluster;
            glyphs[i] = new((ushort)infos[i].Codepoint, (int)infos[i].Cluster, positions[i].XAdvance * scale + (last ? tracking : 0),
                positions[i].XOffset * scale, -positions[i].YOffset * scale)
            {
                IsBound = (infos[i].Mask & (uint)GlyphFlags.UnsafeToBreak) != 0,
            };
        }
        return glyphs;
    }

    /// <summary>One for each thread, used again and again.</summary>
    private static readonly ThreadLocal<HarfBuzzSharp.Buffer> Buffer = new(() => new());

    /// <summary>The OpenType features that a style switches, on or off.</summary>
    public static IEnumerable<(string Tag, uint Value)> Features(TextStyle style)
    {
        if (style.Figures != FigureStyle.Usual) yield return (style.Figures == FigureStyle.Lining ? "lnum" : "onum", 1);
        if (style.TabularFigures) yield return ("tnum", 1);
        if (style.Fractions) yield return ("frac", 1);
        // Characters that are moved apart do not join: CSS Text 3, 8.2.
        if (style.Ligatures && style.Tracking == 0) yield break;
        yield return ("liga", 0);
        yield return ("clig", 0);
    }

    public FaceMeasures MeasuresOf(TextStyle style)
    {
        var face = FaceOf(style);
        var (scale, raise) = style.Position switch
        {
            TextPosition.Superscript => (face.Measure(OpenTypeMetricsTag.SuperScriptEmYSize, 0.65), face.Measure(OpenTypeMetricsTag.SuperScriptEmYOffset,
                0.35)),
            TextPosition.Subscript => (face.Measure(OpenTypeMetricsTag.SubScriptEmYSize, 0.65), -face.Measure(OpenTypeMetricsTag.SubScriptEmYOffset, 0.15)),
            _ => (1.0, 0.0),
        };
        double size = style.Size * scale;
        return new(size, raise * style.Size + style.Shift, size * face.Measure(OpenTypeMetricsTag.UnderlineOffset, 0.1),
            size * face.Measure(OpenTypeMetricsTag.StrikeoutOffset, 0.3), size * face.Measure(OpenTypeMetricsTag.UnderlineSize, 0.05),
            size * face.Measure(OpenTypeMetricsTag.CapHeight, 0.7));
    }

    /// <summary>The face of a style in a size, for drawing: unhinted, so that it lies as it was measured.</summary>
    public SKFont FontOf(TextStyle style, double size) => new(FaceOf(style).Typeface, (float)size)
    {
        Hinting = SKFontHinting.None,
        Subpixel = true,
        LinearMetrics = true,
        Edging = SKFontEdging.Antialias,
        BaselineSnap = false
    };

    /// <summary>The name of a style's face: "regular", "bold", "italic" or "bold-italic".</summary>
    public static string FaceName(TextStyle style) => (style.Bold, style.Italic) switch
    {
        (true, true) => "bold-italic",
        (true, false) => "bold",
        (false, true) => "italic",
        _ => "regular",
    };

    /// <summary>The font file of a face; null where there is none. Hebrew and Arabic have no slanted faces: the upright ones stand in.</summary>
    public static Stream? File(string family, string face) => Resource(family, face) ?? Resource(family, face switch
    {
        "italic" => "regular",
        "bold-italic" => "bold",
        _ => face,
    });

    private static Stream? Resource(string family, string face) => typeof(Typefaces).Assembly.GetManifestResourceStream($"fonts/{family}/{face}.ttf");

    internal LoadedFace FaceOf(TextStyle style) => Own(style) ?? Shipped(style);

    private LoadedFace? Own(TextStyle style) => style.Files is { } files ? _own.Find(files.Of(style.Bold, style.Italic)) : null;

    private LoadedFace Shipped(TextStyle style)
    {
        // A family that has gone, or that another version knew, is set in the first.
        string family = TextStyle.Families.Contains(style.Family) ? style.Family : TextStyle.Families[0];
        string name = FaceName(style);
        return _faces.GetOrAdd($"{family}/{name}", _ => new(() => LoadedFace.Of(ShippedFile(family, name)))).Value;
    }

    private static byte[] ShippedFile(string family, string name)
    {
        using var stream = File(family, name) ?? throw new InvalidOperationException($"The font {family} {name} was not built in.");
        byte[] bytes = new byte[stream.Length];
        stream.ReadExactly(bytes);
        return bytes;
    }

    /// <summary>Takes fonts that publications brought from a folder too, until it is let go.</summary>
    public IDisposable LookIn(FontStore store) => _own.LookIn(store);

    /// <summary>Whether a style is set in a face of the publication's own. It is not where the face's file has gone.</summary>
    public bool IsOwn(TextStyle style) => Own(style) is not null;

    /// <summary>Whether the face's maker allows it in no document: its glyphs are then drawn as shapes, and its file leaves the server nowhere.</summary>
    public bool IsDrawnAsShapes(TextStyle style) => Own(style) is { IsRestricted: true };

    /// <summary>The file of a style's face.</summary>
    public byte[] FileOf(TextStyle style) => Own(style)?.File ?? ShippedFile(TextStyle.Families.Contains(style.Family) ? style.Family : TextStyle.Families[0],
        FaceName(style));

    /// <summary>The file of a face that a publication brought, by its content; null where it is not here, or leaves the server nowhere.</summary>
    public byte[]? OwnFile(string contentHash) => _own.Find(contentHash) is { IsRestricted: false } face ? face.File : null;
}

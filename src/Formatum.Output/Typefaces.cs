using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Runtime.InteropServices;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using HarfBuzzSharp;
using SkiaSharp;

namespace Formatum.Output;

/// <summary>The shipped fonts, shaped by HarfBuzz and drawn by Skia.</summary>
public sealed class Typefaces : ITypefaces
{
    public static readonly Typefaces Shipped = new();

    private readonly ConcurrentDictionary<string, Lazy<Face>> _faces = new();

    private Typefaces()
    {
    }

    /// <summary>A face, read once and kept for good.</summary>
    /// <param name="Font">For shaping; its scale is the face's own units.</param>
    /// <param name="Typeface">For drawing.</param>
    /// <param name="UnitsPerEm">The face's own units to an em.</param>
    /// <param name="Ascent">How far it reaches above the baseline, in ems.</param>
    /// <param name="Descent">How far it reaches below the baseline, in ems.</param>
    private sealed record Face(Font Font, SKTypeface Typeface, int UnitsPerEm, double Ascent, double Descent)
    {
        /// <summary>A measure the font gives, in ems; what is common practice (no source) where it gives none.</summary>
        public double Measure(OpenTypeMetricsTag tag, double usual) =>
            Font.OpenTypeMetrics.TryGetPosition(tag, out int units) && units != 0 ? Math.Abs((double)units / UnitsPerEm) : usual;
    }

    public (double Ascent, double Descent) ReachOf(TextStyle style)
    {
        var face = FaceOf(style);
        return (face.Ascent * style.Size, face.Descent * style.Size);
    }

    public bool Has(TextStyle style, int codePoint) => FaceOf(style).Font.TryGetNominalGlyph((uint)codePoint, out uint glyph) && glyph != 0;

    public ImmutableArray<Glyph> Shape(string text, TextStyle style, bool rightToLeft = false)
    {
        var face = FaceOf(style);
        using var buffer = new HarfBuzzSharp.Buffer();
        buffer.AddUtf16(text);
        buffer.GuessSegmentProperties();
        buffer.Direction = rightToLeft ? Direction.RightToLeft : Direction.LeftToRight;
        face.Font.Shape(buffer, [.. Features(style).Select(f => new Feature(Tag.Parse(f.Tag), f.Value))]);
        double scale = MeasuresOf(style).Size / face.UnitsPerEm, tracking = style.Tracking / 1000 * style.Size;
        var (infos, positions) = (buffer.GlyphInfos, buffer.GlyphPositions);
        // Room is added behind characters, not within one that several glyphs show.
        double Room(int i) => tracking != 0 && (i == infos.Length - 1 || infos[i + 1].Cluster != infos[i].Cluster) ? tracking : 0;
        return [.. infos.Select((info, i) => new Glyph((ushort)info.Codepoint, (int)info.Cluster, positions[i].XAdvance * scale + Room(i),
            positions[i].XOffset * scale, -positions[i].YOffset * scale))];
    }

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

    private Face FaceOf(TextStyle style)
    {
        // What an older or newer version knew and this one does not is set in the first family.
        string family = TextStyle.Families.Contains(style.Family) ? style.Family : TextStyle.Families[0];
        string name = FaceName(style);
        return _faces.GetOrAdd($"{family}/{name}", _ => new(() => Load(family, name))).Value;
    }

    private static Face Load(string family, string name)
    {
        using var stream = File(family, name) ?? throw new InvalidOperationException($"The font {family} {name} was not built in.");
        byte[] bytes = new byte[stream.Length];
        stream.ReadExactly(bytes);
        using var data = SKData.CreateCopy(bytes);
        var typeface = SKTypeface.FromData(data);
        // HarfBuzz reads from the memory for as long as the face lives, which is for good.
        var pinned = GCHandle.Alloc(bytes, GCHandleType.Pinned);
        var face = new HarfBuzzSharp.Face(new Blob(pinned.AddrOfPinnedObject(), bytes.Length, MemoryMode.ReadOnly), 0);
        int unitsPerEm = face.UnitsPerEm;
        var font = new Font(face);
        font.SetScale(unitsPerEm, unitsPerEm);
        font.SetFunctionsOpenType();
        var extents = font.GetFontExtentsForDirection(Direction.LeftToRight);
        return new(font, typeface, unitsPerEm, (double)extents.Ascender / unitsPerEm, -(double)extents.Descender / unitsPerEm);
    }
}

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
    private sealed record Face(Font Font, SKTypeface Typeface, int UnitsPerEm, double Ascent, double Descent);

    public (double Ascent, double Descent) ReachOf(TextStyle style)
    {
        var face = FaceOf(style);
        return (face.Ascent * style.Size, face.Descent * style.Size);
    }

    public ImmutableArray<Glyph> Shape(string text, TextStyle style)
    {
        var face = FaceOf(style);
        using var buffer = new HarfBuzzSharp.Buffer();
        buffer.AddUtf16(text);
        buffer.GuessSegmentProperties();
        face.Font.Shape(buffer);
        double scale = style.Size / face.UnitsPerEm;
        var (infos, positions) = (buffer.GlyphInfos, buffer.GlyphPositions);
        return [.. infos.Select((info, i) => new Glyph((ushort)info.Codepoint, (int)info.Cluster, positions[i].XAdvance * scale, positions[i].XOffset * scale,
            -positions[i].YOffset * scale))];
    }

    /// <summary>The face of a style in a size, for drawing: unhinted, so that it lies as it was measured.</summary>
    public SKFont FontOf(TextStyle style) => new(FaceOf(style).Typeface, (float)style.Size)
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

    /// <summary>The font file of a face; null where there is none.</summary>
    public static Stream? File(string family, string face) => typeof(Typefaces).Assembly.GetManifestResourceStream($"fonts/{family}/{face}.ttf");

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

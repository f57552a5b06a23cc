using System.Buffers.Binary;
using System.Runtime.InteropServices;
using HarfBuzzSharp;
using SkiaSharp;

namespace Formatum.Output.Fonts;

/// <summary>A face, read once.</summary>
/// <param name="File">The font file.</param>
/// <param name="Font">For shaping; its scale is the face's own units.</param>
/// <param name="Typeface">For drawing.</param>
/// <param name="UnitsPerEm">The face's own units to an em.</param>
/// <param name="Ascent">How far it reaches above the baseline, in ems.</param>
/// <param name="Descent">How far it reaches below the baseline, in ems.</param>
/// <param name="IsRestricted">Whether its maker allows it in no document.</param>
internal sealed record LoadedFace(byte[] File, Font Font, SKTypeface Typeface, int UnitsPerEm, double Ascent, double Descent, bool IsRestricted)
{
    public static LoadedFace Of(byte[] file)
    {
        using var data = SKData.CreateCopy(file);
        var typeface = SKTypeface.FromData(data);
        // HarfBuzz reads from the memory for as long as its face lives.
        var pinned = GCHandle.Alloc(file, GCHandleType.Pinned);
        var face = new Face(new Blob(pinned.AddrOfPinnedObject(), file.Length, MemoryMode.ReadOnly, pinned.Free), 0);
        int unitsPerEm = face.UnitsPerEm;
        var font = new Font(face);
        font.SetScale(unitsPerEm, unitsPerEm);
        font.SetFunctionsOpenType();
        var extents = font.GetFontExtentsForDirection(Direction.LeftToRight);
        return new(file, font, typeface, unitsPerEm, (double)extents.Ascender / unitsPerEm, -(double)extents.Descender / unitsPerEm, Restricted(file));
    }

    private static bool Restricted(byte[] file) => Sfnt.Read(file).Find("OS/2") is { Length: >= 10 } style
        && FontReader.EmbeddingOf(BinaryPrimitives.ReadUInt16BigEndian(style.AsSpan(8))) == Core.Publications.FontEmbedding.Restricted;

    /// <summary>How wide a text is, in ems; below 0 where it cannot be set at all.</summary>
    public double WidthOf(string text)
    {
        using var buffer = new HarfBuzzSharp.Buffer();
        buffer.AddUtf16(text);
        buffer.GuessSegmentProperties();
        Font.Shape(buffer);
        return buffer.GlyphPositions.Sum(p => (double)p.XAdvance) / UnitsPerEm;
    }

    /// <summary>A measure the font gives, in ems; what is common practice (no source) where it gives none.</summary>
    public double Measure(OpenTypeMetricsTag tag, double usual) =>
        Font.OpenTypeMetrics.TryGetPosition(tag, out int units) && units != 0 ? Math.Abs((double)units / UnitsPerEm) : usual;
}

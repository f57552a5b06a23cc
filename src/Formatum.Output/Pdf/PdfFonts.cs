using System.Globalization;
using System.IO.Hashing;
using System.Runtime.InteropServices;
using System.Text;
using Formatum.Output.Fonts;
using HarfBuzzSharp;
using SkiaSharp;

namespace Formatum.Output.Pdf;

/// <summary>A font of the file while it is written: which of its glyphs are shown, and for which characters each stands.</summary>
internal sealed class PdfFont(LoadedFace face, int number)
{
    private readonly SortedDictionary<ushort, string?> _glyphs = [];
    private readonly Dictionary<ushort, double> _widths = [];

    public LoadedFace Face => face;

    public int Number => number;

    public IEnumerable<KeyValuePair<ushort, string?>> Glyphs => _glyphs;

    /// <summary>How wide a glyph is by itself, in ems.</summary>
    public double Width(ushort glyph) => _widths.TryGetValue(glyph, out double known) ? known
        : _widths[glyph] = Math.Round((double)face.Font.GetHorizontalGlyphAdvance(glyph) / face.UnitsPerEm, 6);

    /// <summary>Takes a glyph in.</summary>
    /// <returns>Whether it stands for these characters wherever it is shown, and for no others.</returns>
    public bool Take(ushort glyph, string? characters)
    {
        if (_glyphs.TryGetValue(glyph, out string? known) && known is not null) return known == characters;
        _glyphs[glyph] = characters;
        return characters is not null;
    }
}

/// <summary>The fonts of a file: each goes in once, with the glyphs that are shown of it (ISO 32000-1, 9.7).</summary>
internal sealed class PdfFonts(PdfFile file)
{
    private const int Symbolic = 4, Slanted = 64, TagLetters = 6;

    private readonly Dictionary<LoadedFace, PdfFont> _fonts = new(ReferenceEqualityComparer.Instance);

    public PdfFont Of(LoadedFace face) => _fonts.TryGetValue(face, out var known) ? known : _fonts[face] = new(face, file.Reserve());

    /// <summary>Writes them all, now that it is known which glyphs they need.</summary>
    public void Write()
    {
        foreach (var font in _fonts.Values) Write(font);
    }

    private void Write(PdfFont font)
    {
        var (program, isCff) = FontSubset.Of(font.Face.File, font.Glyphs.Select(g => g.Key));
        string name = PdfSyntax.Name($"{TagOf(program)}+{NameOf(font.Face)}");
        int data = isCff ? file.AddPacked("/Subtype/CIDFontType0C", program)
            : file.AddPacked(string.Create(CultureInfo.InvariantCulture, $"/Length1 {program.Length}"), program);
        int descriptor = file.Add(Descriptor(font.Face, name, $"/FontFile{(isCff ? "3" : "2")} {PdfSyntax.Reference(data)}"));
        int descendant = file.Add($"<</Type/Font/Subtype/CIDFontType{(isCff ? 0 : 2)}/BaseFont{name}/CIDSystemInfo<</Registry(Adobe)/Ordering(Identity)" +
            $"/Supplement 0>>/FontDescriptor {PdfSyntax.Reference(descriptor)}/DW 0/W[{Widths(font)}]{(isCff ? "" : "/CIDToGIDMap/Identity")}>>");
        int unicode = file.AddPacked("", ToUnicode(font));
        file.Write(font.Number, $"<</Type/Font/Subtype/Type0/BaseFont{name}/Encoding/Identity-H/DescendantFonts[{PdfSyntax.Reference(descendant)}]" +
            $"/ToUnicode {PdfSyntax.Reference(unicode)}>>");
    }

    /// <summary>Six letters that tell one subset from another (9.6.4), by what is in it.</summary>
    private static string TagOf(byte[] program)
    {
        ulong hash = XxHash3.HashToUInt64(program);
        return new([.. Enumerable.Range(0, TagLetters).Select(_ =>
        {
            char letter = (char)('A' + hash % 26);
            hash /= 26;
            return letter;
        })]);
    }

    private static string NameOf(LoadedFace face)
    {
        string name = new([.. (face.Typeface.PostScriptName ?? face.Typeface.FamilyName).Where(c => char.IsAsciiLetterOrDigit(c) || c == '-')]);
        return name.Length > 0 ? name : "Font";
    }

    /// <summary>What is said of a font besides its glyphs (9.8), in thousandths of an em.</summary>
    private static string Descriptor(LoadedFace face, string name, string data)
    {
        using var font = new SKFont(face.Typeface, 1000);
        var metrics = font.Metrics;
        var box = new[] { metrics.XMin, -metrics.Bottom, metrics.XMax, -metrics.Top };
        double angle = face.Font.OpenTypeMetrics.TryGetPosition(OpenTypeMetricsTag.HorizontalCaretRise, out int rise)
            && face.Font.OpenTypeMetrics.TryGetPosition(OpenTypeMetricsTag.HorizontalCaretRun, out int run) && rise != 0
            ? -Math.Atan2(run, rise) * 180 / Math.PI : 0;
        // No font says how thick its stems are; 80 is what readers take for a text face. Common practice, no source.
        return string.Create(CultureInfo.InvariantCulture, $"<</Type/FontDescriptor/FontName{name}/Flags {Symbolic + (angle != 0 ? Slanted : 0)}" +
            $"/FontBBox[{string.Join(' ', box.Select(v => Math.Round(v)))}]/ItalicAngle {PdfSyntax.Number(Math.Round(angle, 2))}/Ascent " +
            $"{Math.Round(face.Ascent * 1000)}/Descent {-Math.Round(face.Descent * 1000)}/CapHeight " +
            $"{Math.Round(face.Measure(OpenTypeMetricsTag.CapHeight, 0.7) * 1000)}/StemV 80{data}>>");
    }

    private static string Widths(PdfFont font) => string.Join(' ', font.Glyphs.Select(g => string.Create(CultureInfo.InvariantCulture,
        $"{g.Key}[{PdfSyntax.Number(Math.Round(font.Width(g.Key) * 1000, 3))}]")));

    /// <summary>Which characters each glyph stands for (9.10.3).</summary>
    private static byte[] ToUnicode(PdfFont font)
    {
        const int MostInBlock = 100;
        var map = new StringBuilder("/CIDInit /ProcSet findresource begin\n12 dict begin\nbegincmap\n/CIDSystemInfo <</Registry (Adobe)/Ordering (UCS)" +
            "/Supplement 0>> def\n/CMapName /Adobe-Identity-UCS def\n/CMapType 2 def\n1 begincodespacerange\n<0000><FFFF>\nendcodespacerange\n");
        foreach (var block in font.Glyphs.Where(g => g.Value is not null).Chunk(MostInBlock))
        {
            map.Append(CultureInfo.InvariantCulture, $"{block.Length} beginbfchar\n");
            foreach (var (glyph, characters) in block)
                map.Append(CultureInfo.InvariantCulture, $"<{glyph:X4}>{PdfSyntax.Hex(Encoding.BigEndianUnicode.GetBytes(characters!))}\n");
            map.Append("endbfchar\n");
        }
        return Encoding.ASCII.GetBytes(map.Append("endcmap\nCMapName currentdict /CMap defineresource pop\nend\nend\n").ToString());
    }
}

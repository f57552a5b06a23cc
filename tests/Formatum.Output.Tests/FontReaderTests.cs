using System.Buffers.Binary;
using Formatum.Core.Publications;
using Formatum.Output.Fonts;
using Formatum.Testing;
using SkiaSharp;

namespace Formatum.Output.Tests;

/// <summary>Font files read, held against fontTools, which wrote them, and against FreeType, which draws both.</summary>
public sealed class FontReaderTests
{
    internal static string PathOf(string name) => TestFonts.Find(name, () => Typefaces.File("Spectral", "regular")!);

    private static IReadOnlyList<ReadFont> Read(string name) => FontReader.Read(File.ReadAllBytes(PathOf(name)), name);

    /// <summary>Every glyph's outline and advance.</summary>
    private static List<(string Outline, float Advance)> Drawn(byte[] file)
    {
        using var data = SKData.CreateCopy(file);
        using var typeface = SKTypeface.FromData(data);
        using var font = new SKFont(typeface, typeface.UnitsPerEm) { Hinting = SKFontHinting.None, LinearMetrics = true };
        return [.. Enumerable.Range(0, typeface.GlyphCount).Select(glyph =>
        {
            using var path = font.GetGlyphPath((ushort)glyph);
            return (path?.ToSvgPathData() ?? "", font.GetGlyphWidths([(ushort)glyph])[0]);
        })];
    }

    private static void ShouldDrawAlike(byte[] ours, byte[] theirs)
    {
        var (a, b) = (Drawn(ours), Drawn(theirs));
        a.Count.ShouldBe(b.Count);
        for (int glyph = 0; glyph < a.Count; glyph++) a[glyph].ShouldBe(b[glyph], $"glyph {glyph}");
        a.Count(g => g.Outline.Length > 0).ShouldBeGreaterThan(2);
    }

    [Theory]
    [InlineData("plain.woff2")]
    [InlineData("outlines.woff2")]
    [InlineData("bearings.woff2")]
    [InlineData("plain.woff")]
    public void Compressed_fonts_draw_as_they_were(string name)
    {
        var read = Read(name).ShouldHaveSingleItem();
        ShouldDrawAlike(read.File, File.ReadAllBytes(PathOf("given.ttf")));
        read.Font.Family.ShouldBe("Squeezed");
        read.Font.Format.ShouldBe("ttf");
        read.Font.Glyphs.ShouldBe(1446);
        // Another program reads what came of it, checksums and all.
        Tool.Run("/usr/bin/python3", "-c",
            "import sys\nfrom fontTools.ttLib import TTFont\nTTFont(sys.argv[1], checkChecksums=2, lazy=False).ensureDecompiled()",
            Saved(read.File));
    }

    private static string Saved(byte[] file)
    {
        string path = PathOf($"{Guid.NewGuid():n}.ttf");
        File.WriteAllBytes(path, file);
        return path;
    }

    /// <summary>The bits of fsType as OpenType 1.9 gives them, "OS/2".</summary>
    [Theory]
    [InlineData("installable", FontEmbedding.Installable, false)]
    [InlineData("restricted", FontEmbedding.Restricted, false)]
    [InlineData("preview", FontEmbedding.PreviewAndPrint, false)]
    [InlineData("editable", FontEmbedding.Editable, false)]
    [InlineData("whole", FontEmbedding.PreviewAndPrint, true)]
    [InlineData("pictures", FontEmbedding.Restricted, false)]
    public void A_font_says_what_its_maker_allows(string name, FontEmbedding embedding, bool whole)
    {
        var font = Read(name + ".ttf").ShouldHaveSingleItem().Font;
        (font.Embedding, font.WholeOnly, font.Family).ShouldBe((embedding, whole, $"Type {name}"));
        (font.Bold, font.Italic).ShouldBe((false, false));
        font.Licence.ShouldNotBeNull().ShouldContain("Open Font License");
    }

    [Fact]
    public void Bold_and_italic_are_as_the_font_says() => (Read("slanted.ttf")[0].Font is { Bold: true, Italic: true }).ShouldBeTrue();

    [Fact]
    public void Cubic_outlines_are_taken_too()
    {
        var read = Read("cubic.otf").ShouldHaveSingleItem();
        (read.Font.Format, read.Font.Family).ShouldBe(("otf", "Cubic"));
        ShouldDrawAlike(read.File, File.ReadAllBytes(PathOf("cubic.otf")));
    }

    /// <summary>Held still by fontTools' own instancer.</summary>
    [Fact]
    public void A_font_whose_weight_varies_gives_a_regular_and_a_bold_face()
    {
        var faces = Read("varying.ttf");
        faces.Select(f => (f.Font.Family, f.Font.Bold)).ShouldBe([("Varying", false), ("Varying", true)]);
        ShouldDrawAlike(faces[0].File, File.ReadAllBytes(PathOf("held-400.ttf")));
        ShouldDrawAlike(faces[1].File, File.ReadAllBytes(PathOf("held-700.ttf")));
        Sfnt.Read(faces[1].File).Find("fvar").ShouldBeNull();
    }

    /// <summary>Kept by its content, and read once more where a bundle brings it.</summary>
    [Theory]
    [InlineData("bearings.woff2")]
    [InlineData("plain.woff")]
    [InlineData("cubic.otf")]
    [InlineData("varying.ttf")]
    [InlineData("whole.ttf")]
    public void What_was_kept_is_read_again_as_the_same(string name)
    {
        foreach (var face in Read(name)) FontReader.Read(face.File, name).ShouldHaveSingleItem().Font.ContentHash.ShouldBe(face.Font.ContentHash);
    }

    public static TheoryData<string, byte[]> NoFonts() => new()
    {
        { "empty", [] },
        { "short", [0, 1, 0, 0] },
        { "text", "This is a letter, not a font."u8.ToArray() },
        { "collection", [.. "ttcf"u8, .. new byte[64]] },
        { "no tables", [0, 1, 0, 0, 0, 0, .. new byte[40]] },
        { "tables cut", [0, 1, 0, 0, 0, 9, .. new byte[40]] },
        { "woff2 header", [.. "wOF2"u8, .. new byte[20]] },
        { "woff2 without tables", [.. "wOF2"u8, 0, 1, 0, 0, .. new byte[80]] },
    };

    [Theory]
    [MemberData(nameof(NoFonts))]
    public void What_is_no_font_is_refused_in_words(string name, byte[] file) =>
        Should.Throw<BadFont>(() => FontReader.Read(file, name)).Message.ShouldNotBeEmpty();

    [Fact]
    public void What_swells_is_refused()
    {
        byte[] file = File.ReadAllBytes(PathOf("plain.woff"));
        // The first table says that it becomes 4 GB.
        BinaryPrimitives.WriteUInt32BigEndian(file.AsSpan(44 + 12), uint.MaxValue);
        Should.Throw<BadFont>(() => FontReader.Read(file, "x")).Message.ShouldContain("swell");
        Should.Throw<BadFont>(() => FontReader.Read(new byte[OwnFont.MostBytes + 1], "x")).Message.ShouldContain("32 MB is the most");
    }

    /// <summary>Damaged everywhere, it is read or refused, and nothing else: in this process, where the other would hide a crash.</summary>
    [Fact]
    public void Damaged_fonts_are_read_or_refused()
    {
        var random = new Random(20261126);
        int refused = 0, rounds = int.Parse(Environment.GetEnvironmentVariable("FORMATUM_FUZZ") ?? "25", System.Globalization.CultureInfo.InvariantCulture);
        foreach (string name in new[] { "bearings.woff2", "plain.woff", "cubic.otf", "varying.ttf" })
        {
            byte[] whole = File.ReadAllBytes(PathOf(name));
            for (int round = 0; round < rounds; round++)
            {
                byte[] file = random.Next(4) == 0 ? whole[..random.Next(whole.Length)] : [.. whole];
                for (int hit = random.Next(1, 30); hit > 0 && file.Length > 0; hit--)
                    file[random.Next(random.Next(2) == 0 ? file.Length : Math.Min(file.Length, 400))] = (byte)random.Next(256);
                try
                {
                    FontReader.Read(file, name).Count.ShouldBeInRange(1, 2);
                }
                catch (BadFont)
                {
                    refused++;
                }
            }
        }
        refused.ShouldBeGreaterThan(rounds);
    }
}

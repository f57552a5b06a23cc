using System.Globalization;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Testing;

namespace Formatum.Output.Tests;

/// <summary>Text in scripts that a family does not have, and what people see as one character.</summary>
public sealed class FallbackFontTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private static (string Text, string Family)[] Runs(string text, string family)
    {
        var styled = FallbackFonts.Applied(StyledText.Of(new([new(text, new TextStyle { Family = family })])), Typefaces.All);
        return [.. styled.Paragraphs[0].Runs.Select(r => (text.Substring(r.Start, r.Length), r.Style.Family))];
    }

    [Fact]
    public void What_a_family_lacks_is_set_in_the_first_that_has_it()
    {
        Runs("Kiln, \u201cquoted\u201d \u2013 100 \u20ac", "Cabin").ShouldBe([("Kiln, \u201cquoted\u201d \u2013 100 \u20ac", "Cabin")]);
        Runs("Kiln \u03ba\u03b5\u03c1\u03b1\u03bc\u03af\u03b4\u03b1 end", "Fraunces").ShouldBe(
            [("Kiln ", "Fraunces"), ("\u03ba\u03b5\u03c1\u03b1\u03bc\u03af\u03b4\u03b1", "Noto Serif"),
            (" end", "Fraunces")]);
        Runs("\u041f\u0435\u0447\u044c", "Courier Prime").ShouldBe([("\u041f\u0435\u0447\u044c", "Noto Sans")]);
        // A letter goes with its accent, and what nobody has stays where it was, to be told as missing.
        Runs("a\u0328\u0301b", "Courier Prime").ShouldBe([("a\u0328\u0301", "Noto Sans"), ("b", "Courier Prime")]);
        Runs("a \u6f22 b", "Cabin").ShouldBe([("a \u6f22 b", "Cabin")]);
    }

    [Fact]
    public void Latin_Greek_and_Cyrillic_are_all_there_in_every_face()
    {
        int[] points = [.. Enumerable.Range(0x21, 0x5e), .. Enumerable.Range(0xa1, 0xdf), .. Enumerable.Range(0x100, 0x80), .. Enumerable.Range(0x391, 0x11),
            .. Enumerable.Range(0x3a3, 0x27), .. Enumerable.Range(0x400, 0x60)];
        foreach (string family in new[] { "Noto Sans", "Noto Serif" })
            foreach (bool bold in new[] { false, true })
                foreach (bool italic in new[] { false, true })
                    foreach (int point in points)
                        Typefaces.All.Has(new() { Family = family, Bold = bold, Italic = italic }, point).ShouldBeTrue($"{family} U+{point:X4}");
    }

    [Fact]
    public void It_reads_the_same_from_the_PDF_and_nothing_is_missing()
    {
        const string words = "Kiln \u043f\u0435\u0447\u044c \u03ba\u03bb\u03af\u03b2\u03b1\u03bd\u03bf\u03c2 \u0142\u00f3d\u017a end";
        var p = Publication.Create(new() { Name = "F", PageWidth = 400, PageHeight = 100 }, 1);
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(20, 20, 360, 60), Text = new([new(words, new TextStyle { Family = "Spectral", Size = 14 })]) });
        var set = Composition.TextOf(p, p.Frames.Values.Single(), Typefaces.All)!;
        set.Missing.ShouldBe(0);
        set.Lines.Single().Text.ShouldBe(words);
        PdfWriter.Write(p, new(_shop.Previews), new(), _shop.Folder["f.pdf"]);
        Tool.Run("pdftotext", "-raw", _shop.Folder["f.pdf"], "-").Trim().ShouldBe(words);
        Tool.Run("pdffonts", _shop.Folder["f.pdf"]).ShouldContain("NotoSerif");
    }

    [Fact]
    public void Right_to_left_words_read_in_their_order_from_the_PDF()
    {
        const string words = "Kiln and clay and water \u05db\u05d1\u05e9\u05df \u05d7\u05d3\u05e9 fire and glaze";
        var p = Publication.Create(new() { Name = "R", PageWidth = 600, PageHeight = 60, Bleed = 0 }, 1);
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(10, 10, 580, 40), Text = new([new(words, new TextStyle { Family = "Cabin", Size = 20 })]) });
        PdfWriter.Write(p, new(_shop.Previews), new(), _shop.Folder["r.pdf"]);
        // Poppler puts marks of direction about what runs from right to left, and guesses its blanks from where the glyphs stand.
        string read = string.Concat(Tool.Run("pdftotext", _shop.Folder["r.pdf"], "-").Where(c => !char.IsWhiteSpace(c)
            && !char.IsControl(c) && char.GetUnicodeCategory(c) != UnicodeCategory.Format));
        read.ShouldBe(words.Replace(" ", "", StringComparison.Ordinal));
    }

    /// <summary>Unicode's own cases for UAX #29 (Debian's unicode-data), against what .NET tells: characters as people see them are never set in two
    /// fonts.</summary>
    [Fact]
    public void Characters_as_people_see_them_are_those_of_Unicode()
    {
        var apart = new List<string>();
        int cases = 0;
        foreach (string line in File.ReadLines("/usr/share/unicode/auxiliary/GraphemeBreakTest.txt"))
        {
            string test = line.Split('#')[0].Trim();
            if (test.Length == 0) continue;
            cases++;
            var expected = test.Trim('\u00f7', ' ').Split('\u00f7').Select(part => string.Concat(part.Split('\u00d7', StringSplitOptions.TrimEntries
                | StringSplitOptions.RemoveEmptyEntries).Select(hex => char.ConvertFromUtf32(
                int.Parse(hex, NumberStyles.HexNumber, CultureInfo.InvariantCulture)))))
                .ToList();
            var found = new List<string>();
            string text = string.Concat(expected);
            for (int at = 0; at < text.Length; at += found[^1].Length) found.Add(text.Substring(at, StringInfo.GetNextTextElementLength(text, at)));
            if (!found.SequenceEqual(expected)) apart.Add(line);
        }
        cases.ShouldBeGreaterThan(500);
        apart.ShouldBeEmpty();
    }
}

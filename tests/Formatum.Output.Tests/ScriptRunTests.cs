using System.Globalization;
using System.Text.Json;
using Formatum.Core.Stories;
using Formatum.Output.Fonts;
using Formatum.Testing;
using HarfBuzzSharp;

namespace Formatum.Output.Tests;

/// <summary>Text in several scripts (UAX #24), held against Unicode's data and Debian's hb-shape.</summary>
public sealed class ScriptRunTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private const string Unicode = "/usr/share/unicode/";

    private static IEnumerable<string[]> Fields(string file) => File.ReadLines(Unicode + file).Select(line => line.Split('#')[0])
        .Where(line => line.Contains(';', StringComparison.Ordinal)).Select(line => line.Split(';', StringSplitOptions.TrimEntries));

    /// <summary>Unicode's Scripts.txt, every character; its names as codes by PropertyValueAliases.txt.</summary>
    [Fact]
    public void Each_character_is_of_the_script_that_Unicode_gives_it()
    {
        var codes = Fields("PropertyValueAliases.txt").Where(f => f[0] == "sc").ToDictionary(f => f[2], f => f[1]);
        int seen = 0;
        foreach (string[] fields in Fields("Scripts.txt").Where(f => f[1] is not ("Common" or "Inherited")))
        {
            int[] ends = [.. fields[0].Split("..").Select(hex => int.Parse(hex, NumberStyles.HexNumber, CultureInfo.InvariantCulture))];
            for (int point = ends[0]; point <= ends[^1]; point++, seen++)
            {
                var run = ScriptRun.In(char.ConvertFromUtf32(point)).ShouldHaveSingleItem();
                run.Script.ToString().ShouldBe(codes[fields[1]], $"U+{point:X4}");
                if (ScriptRun.IsPlain(char.ConvertFromUtf32(point))) run.Script.ShouldBe(Script.Latin, $"U+{point:X4}");
            }
        }
        seen.ShouldBeGreaterThan(140_000);
    }

    /// <summary>UAX #24, 5.1 and 5.2: what is common goes with what stands before it, at the beginning with what follows; brackets in pairs.</summary>
    [Theory]
    [InlineData("", "")]
    [InlineData("12.50 \u2013", "12.50 \u2013")]
    [InlineData("\u201cKiln\u201d, 12", "\u201cKiln\u201d, 12")]
    [InlineData("12 \u043f\u0435\u0447\u044c, kiln!", "12 \u043f\u0435\u0447\u044c, |kiln!")]
    [InlineData("kiln (\u0915\u093f) 2", "kiln (|\u0915\u093f|) 2")]
    [InlineData("(kiln [\u03ba\u03bb\u03af] \u03b2\u03b1\u03bd)", "(kiln [|\u03ba\u03bb\u03af|] |\u03b2\u03b1\u03bd|)")]
    [InlineData("\u03ba) kiln", "\u03ba) |kiln")]
    [InlineData("e\u0301\u03b1\u0301", "e\u0301|\u03b1\u0301")]
    [InlineData("a\ud801\udc00\ud801\udc01b", "a|\ud801\udc00\ud801\udc01|b")]
    public void Text_is_parted_where_its_script_changes(string text, string parted) =>
        string.Join('|', ScriptRun.In(text).Select(run => text[run.From..run.To])).ShouldBe(parted);

    /// <summary>Debian's hb-shape, of each part alone with its script named: the vowel sign that stands before its consonant among them.</summary>
    [Theory]
    [InlineData("kiln ", "\u0915\u093f\u0932\u094d\u0928 ", "kiln")]
    [InlineData("\u041f\u0415\u0427\u042c \u0413\u0410\u0422\u0410 ", "AVATAR (", "\u03a4\u03c1\u03ce", ") To. ", "\u0413\u0410\u0422\u0410")]
    public void Each_part_shows_the_glyphs_of_its_script(params string[] parts)
    {
        var style = new TextStyle { Family = "Noto Sans", Size = 1000 };
        string path = _shop.Folder["face.ttf"], text = string.Concat(parts);
        File.WriteAllBytes(path, Typefaces.All.FileOf(style));
        var theirs = new List<(int, int)>();
        foreach (string part in parts)
        {
            string script = ScriptRun.In(part.Trim(' ', '(', ')')).Single().Script.ToString();
            using var json = JsonDocument.Parse(Tool.Run("hb-shape", "--output-format=json", "--no-glyph-names", "--font-size=1000",
                $"--script={script}", path, part));
            theirs.AddRange(json.RootElement.EnumerateArray().Select(g => (g.GetProperty("g").GetInt32(), g.GetProperty("ax").GetInt32())));
        }
        var ours = Typefaces.All.Shape(text, style);
        ours.Select(g => (int)g.Id).ShouldBe(theirs.Select(g => g.Item1));
        for (int i = 0; i < ours.Length; i++) ours[i].Advance.ShouldBe(theirs[i].Item2, 1.01);
    }
}

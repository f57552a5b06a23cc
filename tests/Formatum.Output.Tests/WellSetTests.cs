using System.Text.Json;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Testing;

namespace Formatum.Output.Tests;

/// <summary>Division of words and choice of lines, held against the npm packages hyphen and tex-linebreak, run by Node.</summary>
public sealed class WellSetTests : IDisposable
{
    private const int Seed = 20_261_126;

    private readonly TempFolder _folder = new();

    public void Dispose() => _folder.Dispose();

    private static string Root
    {
        get
        {
            string root = AppContext.BaseDirectory;
            while (!File.Exists(Path.Combine(root, "Formatum.slnx"))) root = Path.GetDirectoryName(root)!;
            return root;
        }
    }

    private T Asked<T>(string script, object given)
    {
        File.WriteAllText(_folder["given.json"], JsonSerializer.Serialize(given));
        return JsonSerializer.Deserialize<T>(Tool.Run("node", "-e", script, Root, _folder["given.json"]))!;
    }

    public static TheoryData<string, string, string> Words() => new()
    {
        { "en-GB", "en-gb", "typography hyphenation publication catalogue earthenware photograph manuscript university throughout something weatherproof" },
        { "en-US", "en-us", "typography hyphenation publication present project associate obligatory stoneware temperature brackenfold" },
        { "de", "de-1996", "silbentrennung keramikwerkstatt donaudampfschifffahrt geschwindigkeit \u00f6lgem\u00e4lde stra\u00dfenbahn brennofen glasur" },
        { "fr", "fr", "typographie c\u00e9ramique extraordinaire imprimerie d\u00e9veloppement g\u00e9n\u00e9ration po\u00e8te constitutionnel" },
        { "es", "es", "tipograf\u00eda cer\u00e1mica extraordinario imprenta publicaci\u00f3n ping\u00fcino transformador" },
        { "it", "it", "tipografia ceramica straordinario stamperia pubblicazione ventilatore dell'opera" },
        { "nl", "nl", "aandachtstrekker woordafbreking aardewerk pottenbakkerij tijdschriften geschiedenis" },
    };

    [Theory]
    [MemberData(nameof(Words))]
    public void Words_are_divided_where_the_package_divides_them(string language, string patterns, string words)
    {
        var random = new Random(Seed);
        string letters = string.Concat(words.Where(char.IsLetter));
        // Besides words, letters as they come: they meet patterns that few words do.
        string[] all = [.. words.Split(' ').Where(w => w.All(char.IsLetter)), .. Enumerable.Range(0, 2000)
            .Select(_ => string.Concat(Enumerable.Range(0, random.Next(4, 16)).Select(_ => letters[random.Next(letters.Length)])))];
        var theirs = Asked<string[]>("""
            const { language, words } = JSON.parse(require('fs').readFileSync(process.argv[2], 'utf8'));
            const hyphenate = require(process.argv[1] + '/node_modules/hyphen')(require(`${process.argv[1]}/node_modules/hyphen/patterns/${language}.js`),
              { hyphenChar: '-', html: false });
            console.log(JSON.stringify(words.map(word => hyphenate(word))));
            """, new { language = patterns, words = all });
        var ours = all.Select(word => Hyphenation.Of(language)!.PlacesIn(word).Reverse().Aggregate(word, (divided, place) => divided.Insert(place, "-")));
        ours.ShouldBe(theirs);
        theirs.Count(w => w.Contains('-', StringComparison.Ordinal)).ShouldBeGreaterThan(500);
    }

    private const string Text = "Every kiln has its own weather and the people who fire it learn to read the colour of the flame before they trust any " +
        "cone so a shelf "
        + "near the door comes out quiet while the one beneath the flue takes ash and turns to honey or to iron red when the wind is in the east and the " +
            "damper stands "
        + "half open through the night as extraordinary temperatures gradually differentiate neighbouring stoneware";

    private sealed record Item(string Type, double Width, double Stretch, double Shrink, double Cost, bool Flagged);

    /// <summary>Over random stretches of text and line lengths, those of each line their own, ours never cost more than theirs.</summary>
    [Fact]
    public void Lines_chosen_together_cost_no_more_than_those_of_tex_linebreak()
    {
        var random = new Random(Seed);
        string[] words = Text.Split(' ');
        var cases = Enumerable.Range(0, 100).Select(_ =>
        {
            string text = string.Join(' ', words.Skip(random.Next(20)).Take(random.Next(15, 60)));
            var measured = MeasuredOf(text);
            double[] widths = [.. Enumerable.Range(0, 60).Select(_ => (double)random.Next(140, 300))];
            var (items, places) = ItemsOf(text, measured);
            return (Measured: measured, Widths: widths, Items: items, Places: places);
        }).ToList();
        var theirs = Asked<int[][]>("""
            const { breakLines } = require(process.argv[1] + '/node_modules/tex-linebreak');
            const plain = items => items.map(i => i.Type === 'box' ? { type: 'box', width: i.Width }
              : i.Type === 'glue' ? { type: 'glue', width: i.Width, stretch: i.Stretch, shrink: i.Shrink }
              : { type: 'penalty', width: i.Width, cost: i.Cost, flagged: i.Flagged });
            console.log(JSON.stringify(JSON.parse(require('fs').readFileSync(process.argv[2], 'utf8')).map(({ Items, Widths }) => {
              try {
                return breakLines(plain(Items), Widths, { maxAdjustmentRatio: 10, initialMaxAdjustmentRatio: 1.26, doubleHyphenPenalty: 10000,
                  adjacentLooseTightPenalty: 10000 }).slice(1);
              } catch { return []; }
            })));
            """, cases.Select(c => new { c.Items, c.Widths }));
        int compared = 0, hyphened = 0;
        for (int i = 0; i < cases.Count; i++)
        {
            var (measured, widths, _, places) = cases[i];
            double Width(int line) => widths[Math.Min(line, widths.Length - 1)];
            if (theirs[i].Length == 0 || WholeParagraph.Ends(measured, Width) is not { } ours) continue;
            double theirCost = WholeParagraph.Demerits(measured, Width, [.. theirs[i].Select(item => places[item])]);
            WholeParagraph.Demerits(measured, Width, ours).ShouldBeLessThanOrEqualTo(theirCost * (1 + 1e-9), $"case {i}");
            compared++;
            hyphened += ours.Count(e => measured.Breaks[e] == LineBreak.Hyphen);
        }
        compared.ShouldBeGreaterThan(70);
        hyphened.ShouldBeGreaterThan(8);
    }

    private static WholeParagraph.Measured MeasuredOf(string text)
    {
        var style = new TextStyle { Family = "Spectral", Size = 10.5 };
        var breaks = LineBreaking.In(text);
        Hyphenation.Of("en-GB")!.Mark(text, breaks);
        var upTo = new double[text.Length + 1];
        foreach (var glyph in Typefaces.All.Shape(text, style)) upTo[glyph.Cluster + 1] += glyph.Advance;
        for (int i = 1; i <= text.Length; i++) upTo[i] += upTo[i - 1];
        var blanks = new int[text.Length + 1];
        for (int i = 0; i < text.Length; i++) blanks[i + 1] = blanks[i] + (text[i] == ' ' ? 1 : 0);
        double Advance(string one) => Typefaces.All.Shape(one, style).Sum(g => g.Advance);
        return new(breaks, upTo, (start, end) => end > start && text[end - 1] == ' ' ? end - 1 : end, blanks, Advance(" "), Advance("-"));
    }

    /// <summary>The same paragraph as boxes, glue and penalties; and for each item where a line that ends there ends in the text.</summary>
    private static (List<Item> Items, List<int> Places) ItemsOf(string text, WholeParagraph.Measured measured)
    {
        var items = new List<Item>();
        var places = new List<int>();
        int start = 0;
        void Add(Item item, int place)
        {
            items.Add(item);
            places.Add(place);
        }
        for (int at = 1; at <= text.Length; at++)
        {
            if (measured.Breaks[at] == LineBreak.Prohibited) continue;
            int shown = measured.TrimmedEnd(start, at);
            Add(new("box", measured.UpTo[shown] - measured.UpTo[start], 0, 0, 0, false), at);
            double blank = measured.UpTo[at] - measured.UpTo[shown];
            if (measured.Breaks[at] == LineBreak.Hyphen) Add(new("penalty", measured.Hyphen, 0, 0, WholeParagraph.HyphenPenalty, true), at);
            else if (measured.Breaks[at] == LineBreak.Allowed)
                Add(new("glue", blank, measured.Blank * WholeParagraph.Stretch, measured.Blank * WholeParagraph.Shrink, 0, false), at);
            start = at;
        }
        Add(new("glue", 0, 100_000, 0, 0, false), text.Length);
        Add(new("penalty", 0, 0, 0, -1000, false), text.Length);
        return (items, places);
    }

    [Fact]
    public void A_justified_paragraph_is_evener_than_line_by_line_and_a_divided_word_reads_whole_again()
    {
        var style = new TextStyle { Family = "Spectral", Size = 10.5, Alignment = TextAlignment.Justified, Hyphenate = true };
        var set = TextSetter.Set(StyledText.Of(new([new(Text, style)])), 150, 1000, Typefaces.All);
        set.LeftOut.ShouldBe(0);
        double blank = Typefaces.All.Shape(" ", style).Sum(g => g.Advance);
        // No blank is narrowed below two thirds, nor widened beyond what a line of so few words has to be.
        set.Lines.SkipLast(1).ShouldAllBe(l => l.Blank >= -blank * WholeParagraph.Shrink - 1e-6);
        set.Lines.SkipLast(1).ShouldAllBe(l => Math.Abs(l.Width - 150) < 0.01);
        double Unevenness(SetText text) => text.Lines.SkipLast(1).Sum(l => Math.Pow(l.Blank / blank, 2));
        var ragged = TextSetter.Set(StyledText.Of(new([new(Text, style with { Alignment = TextAlignment.Left })])), 150, 1000, Typefaces.All);
        // Set line by line, each would have been filled up by what it lacks.
        double greedy = ragged.Lines.SkipLast(1).Sum(l => Math.Pow((150 - l.Width) / Math.Max(1, l.Text.Count(c => c == ' ')) / blank, 2));
        Unevenness(set).ShouldBeLessThan(greedy);
        string joined = string.Concat(set.Lines.Select(l => l.Text.EndsWith('-') ? l.Text[..^1] : l.Text + " ")).TrimEnd();
        joined.ShouldBe(Text);
        set.Lines.Count(l => l.Text.EndsWith('-')).ShouldBeGreaterThan(0);
    }
}

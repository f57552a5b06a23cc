using System.Collections.Immutable;
using CsCheck;
using Formatum.Core.Comparing;
using Formatum.Core.Geometry;

namespace Formatum.Core.Tests.Checking;

/// <summary>What is told to differ between two finished files is what was done to one of them, and nothing else.</summary>
public sealed class FileComparisonTests
{
    private static double Mm(double mm) => Units.Millimetres(mm);

    private static readonly ImmutableArray<byte> Vase = [.. Enumerable.Range(0, 64).Select(i => (byte)(i * 4))], Jug = [.. Enumerable.Range(0, 64)
        .Select(i => (byte)(i % 8 * 30))];

    /// <summary>Words set in lines of ten, 12 points apart.</summary>
    private static ImmutableArray<PlacedWord> Set(string text, double x = 50, double y = 50) =>
        [.. text.Split(' ').Select((word, i) => new PlacedWord(word, new(x + i % 10 * 30, y + i / 10 * 12, 28, 8)))];

    private static PageContents Page(string text, params PlacedPicture[] pictures) => new(400, 600, Set(text), [.. pictures], []);

    private static string[] Told(PageContents before, PageContents after) => Told([before], [after]);

    private static string[] Told(PageContents[] before, PageContents[] after) => [.. FileComparison.Of(before, after, LengthUnit.Millimetre).Differences
        .Select(d => $"{d.Kind}: {d.Subject} {d.Detail}".Trim())];

    private const string Text = "a vase of blue clay stands by the long window and the light falls on it from the left all day";

    [Fact]
    public void The_same_does_not_differ() => Told(Page(Text, new PlacedPicture(new(10, 10, 90, 90), Vase)),
        Page(Text, new PlacedPicture(new(10.1, 10, 90, 90.1), Vase))).ShouldBeEmpty();

    [Fact]
    public void Words_that_went_came_or_became_others_are_told_as_they_stand()
    {
        PageContents With(string text) => Page(text) with { Words = [.. text.Split(' ').Select((w, i) => new PlacedWord(w, new(50, 50, 9, 8)))] };
        Told(With(Text), With(Text.Replace("blue", "pale red", StringComparison.Ordinal))).ShouldBe(["Words: \u201cblue\u201d Became \u201cpale red\u201d."]);
        Told(With(Text), With(Text.Replace(" long", "", StringComparison.Ordinal))).ShouldBe(["Words: \u201clong\u201d Went."]);
        Told(With(Text), With("see " + Text)).ShouldBe(["Words: \u201csee\u201d Came."]);
        var words = With(Text).Words;
        var moved = words[10..14].Select(w => w with { Box = w.Box.Moved(0, 300) });
        Told(With(Text), Page(Text) with { Words = [.. words[..10], .. words[14..], .. moved] })
            .ShouldBe(["Moved: \u201cand the light falls\u201d To another place in the text."]);
    }

    [Fact]
    public void Words_that_stand_elsewhere_are_told_together_by_how_they_moved()
    {
        var moved = Page(Text) with { Words = Set(Text, 50 + Mm(3), 50) };
        Told(Page(Text), moved).ShouldBe(["Moved: 21 words from \u201ca vase of\u201d 3 mm to the right."]);
        var larger = Page(Text) with { Words = [.. Set(Text).Select(w => w with { Box = w.Box with { Width = 34, Height = 10 } })] };
        Told(Page(Text), larger).ShouldBe(["Setting: 21 words from \u201ca vase of\u201d Larger or smaller, or in another font."]);
        var wider = Page(Text) with { Words = [.. Text.Split(' ').Select((w, i) => new PlacedWord(w, new(50 + i % 7 * 30, 50 + i / 7 * 12, 28, 8)))] };
        Told(Page(Text), wider).ShouldHaveSingleItem().ShouldContain("Lines run otherwise.");
    }

    /// <summary>A frame that went behind another is drawn first: its words come in another order, and stand where they stood.</summary>
    [Fact]
    public void The_order_in_which_words_are_drawn_is_no_difference()
    {
        var words = Set(Text);
        Told(Page(Text), Page(Text) with { Words = [.. words[9..], .. words[..9]] }).ShouldBeEmpty();
    }

    [Fact]
    public void Pictures_are_known_again_by_what_they_show()
    {
        var at = new Box(50, 100, 200, 150);
        PageContents With(Box box, ImmutableArray<byte> greys) => Page(Text, new PlacedPicture(box, greys));
        var before = With(at, Vase);
        Told(before, With(at, Jug)).ShouldBe(["Picture: A picture"]);
        Told(before, With(at.Moved(Mm(2), 0), Vase)).ShouldBe(["Moved: A picture 2 mm to the right."]);
        Told(before, With(at with { Width = 200 + Mm(10) }, Vase)).ShouldHaveSingleItem().ShouldStartWith("Sized: A picture From 70.6 mm x 52.9 mm to 80.6 mm");
        Told(before, Page(Text)).ShouldBe(["FrameWent: A picture"]);
        Told(Page(Text), before).ShouldBe(["FrameCame: A picture"]);
        // Darker and flatter, as inks show it: the same picture.
        Told(before, With(at, [.. Vase.Select(g => (byte)(20 + g * 0.6))])).ShouldBeEmpty();
        Told(before, With(at.Moved(0, 300), Jug)).ShouldBe(
        [
            "FrameWent: A picture",
            "FrameCame: A picture",
        ]);
    }

    [Fact]
    public void Lines_and_areas_are_counted()
    {
        var before = Page(Text) with { Drawn = [new(10, 10, 100, 0), new(10, 30, 100, 0), new(10, 30, 100, 0)] };
        Told(before, before with { Drawn = [new(10, 30, 100, 0), new(10, 10, 100, 0.2), new(10, 30, 100, 0)] }).ShouldBeEmpty();
        Told(before, before with { Drawn = [new(10, 30, 100, 0), new(10, 10, 120, 0), new(5, 5, 5, 5)] }).ShouldBe(["Drawn: Lines and areas 2 came, 2 went."]);
    }

    [Fact]
    public void Pages_that_came_or_went_do_not_push_the_others_apart()
    {
        string[] texts = ["one clay pot", "two tall jars", "three red bowls", "four thin cups", "five old plates"];
        PageContents[] before = [.. texts.Select(t => Page(t))], after = [before[0], Page("all new here"), .. before[1..3], before[4]];
        Told(before, after).ShouldBe(["PageCame: Page 2", "PageWent: Page 4 of the file"]);
        // A page of which nothing is left is the same page with other words, where none came or went.
        Told(before, [.. before[..2], Page("wholly other words"), .. before[3..]])
            .ShouldBe(["Words: \u201cthree red bowls\u201d Became \u201cwholly other words\u201d."]);
        Told([before[0]], [before[0] with { Width = 420 }]).ShouldHaveSingleItem().ShouldStartWith("Sized: The page From 141.1 mm");
    }

    /// <summary>Held against the plain definition, by trying all subsequences of the shorter.</summary>
    [Fact]
    public void What_is_common_is_as_long_as_it_can_be()
    {
        var letters = Gen.Int[0, 3].Select(i => ((char)('a' + i)).ToString()).List[0, 9];
        Gen.Select(letters, letters).Sample((p, q) =>
        {
            var pairs = CommonOrder.Of(p, q);
            for (int i = 0; i < pairs.Count; i++)
            {
                if (p[pairs[i].Before] != q[pairs[i].After]) return false;
                if (i > 0 && (pairs[i].Before <= pairs[i - 1].Before || pairs[i].After <= pairs[i - 1].After)) return false;
            }
            return pairs.Count == Enumerable.Range(0, 1 << p.Count).Select(mask => Enumerable.Range(0, p.Count).Where(i => (mask >> i & 1) == 1).ToList())
                .Where(some => IsWithin([.. some.Select(i => p[i])], q)).Max(some => some.Count);
        }, seed: "0N0XIzNsQ0O2", iter: 300);
    }

    private static bool IsWithin(List<string> some, List<string> all)
    {
        int found = 0;
        foreach (string one in all) if (found < some.Count && some[found] == one) found++;
        return found == some.Count;
    }

    /// <summary>Whatever is taken out of words and put into them, everything is accounted for: what is left is paired, in words that read the same.</summary>
    [Fact]
    public void The_same_pages_in_any_number_pair_up_with_themselves() => Gen.Int[0, 40].List[1, 30].Sample(numbers =>
    {
        PageContents[] pages = [.. numbers.Select((n, i) => Page($"page {i} says {n} and {n * 7} of clay"))];
        var pairs = PagePairs.Of(pages, pages);
        return pairs.Select(p => (p.Before, p.After)).SequenceEqual(Enumerable.Range(0, pages.Length).Select(i => ((int?)i, (int?)i)));
    }, seed: "0N0XIzNsQ0O2", iter: 100);
}

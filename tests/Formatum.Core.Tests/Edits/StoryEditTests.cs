using CsCheck;
using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Tests.Typesetting;

namespace Formatum.Core.Tests.Edits;

/// <summary>Text that runs through frames.</summary>
public sealed class StoryEditTests
{
    private static readonly TextStyle Ten = new() { Size = 10, Leading = 12 };

    private static readonly FrameText Words = new([new("one two three four five six seven eight nine ten", Ten)]);

    private static readonly HalfWide Fonts = new();

    private static Publication Do(Publication p, Edit edit) => p.With(edit.On(p));

    private static (Publication, int Id) Framed(Publication p, int page, double y, FrameText? text = null, double height = 24)
    {
        var after = Do(p, new MakeFrame { Page = page, Box = new(20, y, 50, height), Text = text ?? FrameText.Empty(Ten) });
        return (after, after.Frames.Keys.Except(p.Frames.Keys).Single());
    }

    private static Publication Begun(int pages = 4) => Publication.Create(new()
    {
        Name = "S",
        PageWidth = 300,
        PageHeight = 400,
        Facing = true,
        Margins = new(10, 10, 30, 10)
    },
        pages);

    private static string Set(Publication p, int frame) => string.Join('|', Composition.TextOf(p, p.Frames[frame], Fonts)!.Lines.Select(l => l.Text));

    private static (int Characters, int Words) Left(Publication p, int frame) => Composition.TextOf(p, p.Frames[frame], Fonts) is { } set
        ? (set.LeftOut, set.WordsLeftOver) : default;

    [Fact]
    public void A_text_runs_on_through_frames_and_what_is_left_over_counts_in_the_last()
    {
        var (p, a) = Framed(Begun(), 1, 20, Words);
        (p, int b) = Framed(p, 2, 20);
        Left(p, a).Words.ShouldBe(6);
        p = Do(p, new RunOn(a, b));
        (Set(p, a), Set(p, b)).ShouldBe(("one two|three four", "five six|seven"));
        Left(p, a).ShouldBe((0, 0));
        Left(p, b).Words.ShouldBe(3);
        p.Stories.Count.ShouldBe(1, "the empty one of the second frame went");
        // Broken behind the first, the words stay its, and the second is empty.
        var broken = Do(p, new BreakChain(a));
        Left(broken, a).Words.ShouldBe(6);
        broken.IsEmpty(broken.Frames[b]).ShouldBeTrue();
        // A frame that goes leaves its words to the others.
        var removed = Do(p, new RemoveFrames([a]));
        Set(removed, b).ShouldBe("one two|three four");
        removed.Stories.Values.Single().Text.ShouldBe(Words);
        Do(removed, new RemoveFrames([b])).Stories.ShouldBeEmpty();
    }

    [Fact]
    public void It_runs_on_only_into_what_is_empty_and_never_into_itself()
    {
        var (p, a) = Framed(Begun(), 1, 20, Words);
        (p, int b) = Framed(p, 1, 120, new([new("other", Ten)]));
        Should.Throw<EditRefused>(() => Do(p, new RunOn(a, b))).Message.ShouldContain("words of its own");
        Should.Throw<EditRefused>(() => Do(p, new RunOn(a, a))).Message.ShouldContain("already");
        Should.Throw<EditRefused>(() => Do(p, new BreakChain(a))).Message.ShouldContain("no chain behind");
        p = Do(p, new MakeFrame { Page = 2, Box = new(0, 0, 90, 90) });
        int placeholder = p.Frames.Keys.Max();
        p = Do(p, new RunOn(a, placeholder));
        p.Frames[placeholder].IsText.ShouldBeTrue("a placeholder becomes a text frame");
    }

    [Fact]
    public void It_runs_on_to_following_pages_laid_for_their_side_and_onto_new_ones()
    {
        var (p, a) = Framed(Begun(3), 2, 20, Words);
        var next = Do(p, new RunOnPages(a, 1, OnNewPages: false));
        next.PageCount.ShouldBe(3);
        int made = next.Frames.Keys.Max();
        (next.NumberOf(next.Frames[made].PageId), next.Frames[made].Box.X).ShouldBe((3, 40), "as far from the inner margin");
        var more = Do(p, new RunOnPages(a, 2, OnNewPages: true));
        more.PageCount.ShouldBe(4, "the blank page behind it comes first");
        more.Stories.Values.Single().FrameIds.Select(id => more.NumberOf(more.Frames[id].PageId)).ShouldBe([2, 3, 4]);
        Left(more, more.Stories.Values.Single().FrameIds[^1]).ShouldBe((0, 0));
        // A page with something on it is left alone.
        var (taken, _) = Framed(p, 3, 20, Words);
        var around = Do(taken, new RunOnPages(a, 2, OnNewPages: true));
        around.PageCount.ShouldBe(5);
        around.FramesOnPage(taken.Order.Ids[2]).Count().ShouldBe(1);
    }

    [Fact]
    public void A_choice_that_there_is_not_is_refused_wherever_it_stands()
    {
        var (p, a) = Framed(Begun(), 1, 20, Words);
        foreach (var edit in new ChangeFrames[] { new() { FrameIds = [a], Set = new() { Fit = (FitKind)99 } },
            new() { FrameIds = [a], Area = new() { Vertical = (VerticalPlace)99 } }, new() { FrameIds = [a], Wrap = new() { Around = (WrapAround)99 } },
            new() { FrameIds = [a], Wrap = new() { Sides = (WrapSides)99 } },
            new() { FrameIds = [a], Text = new([new("x", Ten with { Alignment = (TextAlignment)99 })]) } })
            Should.Throw<EditRefused>(() => Do(p, edit)).Message.ShouldContain("Choose one of");
    }

    [Fact]
    public void Copies_of_a_whole_chain_are_chained_with_their_words_and_of_a_part_are_empty()
    {
        var (p, a) = Framed(Begun(), 1, 20, Words);
        (p, int b) = Framed(p, 1, 120);
        (p, int c) = Framed(p, 2, 20);
        p = Do(Do(p, new RunOn(a, b)), new RunOn(b, c));
        var apart = Do(p, new DuplicatePages([1], 5));
        var copied = apart.Stories.Values.MaxBy(s => s.Id)!;
        (copied.FrameIds.Length, copied.Text.IsEmpty).ShouldBe((2, true));
        p = Do(p, new BreakChain(b));
        var whole = Do(p, new DuplicatePages([1], 5));
        copied = whole.Stories.Values.MaxBy(s => s.Id)!;
        (copied.FrameIds.Length, copied.Text).ShouldBe((2, Words));
        whole.Frames[copied.FrameIds[0]].Box.Y.ShouldBe(20, "in the order of the originals");
        EditionMaker.Make(p, "Next", "2", new(Pictures: false, Texts: false)).Stories.Values.ShouldAllBe(s => s.Text.IsEmpty);
    }

    /// <summary>Whatever is done to chains: every text frame is in the chain of its story and no other, no story is without frames, and a check of the whole
    /// finds nothing.</summary>
    [Fact]
    public void Chains_stay_whole_over_any_sequence_of_edits_and_undo() => Gen.Int[0, 7].Array[1, 40].Select(Gen.Int[0, 1000]).Sample((does, seed) =>
    {
        var random = new Random(seed);
        var p = Framed(Begun(), 1, 20, Words).Item1;
        foreach (int what in does)
        {
            int Any() => p.Frames.Keys.Order().ElementAtOrDefault(random.Next(Math.Max(1, p.Frames.Count)));
            Edit edit = what switch
            {
                0 => new MakeFrame
                {
                    Page = 1 + random.Next(p.PageCount),
                    Box = new(random.Next(200), random.Next(300), 50, 24),
                    Text = random.Next(2) == 0
                    ? Words
                    : FrameText.Empty(Ten)
                },
                1 => new RunOn(Any(), Any()),
                2 => new BreakChain(Any()),
                3 => new RemoveFrames([Any()]),
                4 => new RepeatFrames([.. p.Frames.Values.Where(f => f.PageId == p.Order.Ids[0]).Select(f => f.Id)], 0, new(5, 5), 1),
                5 => new DuplicatePages([1 + random.Next(p.PageCount)], 1),
                6 => new RunOnPages(Any(), 1 + random.Next(2), random.Next(2) == 0),
                _ => new WriteText(Any(), "other words"),
            };
            if (p.PageCount > 30 || p.Frames.Count > 60) break;
            try
            {
                var changes = edit.On(p);
                var after = p.With(changes);
                after.With(changes.Inverse()).Stories.ShouldBe(p.Stories, ignoreOrder: true);
                p = after;
            }
            catch (EditRefused)
            {
                continue;
            }
            foreach (var frame in p.Frames.Values.Where(f => f.IsText))
                p.Stories.Values.Where(s => s.FrameIds.Contains(frame.Id)).Select(s => s.Id).ShouldBe([frame.StoryId!.Value]);
            p.Stories.Values.ShouldAllBe(s => s.FrameIds.Length > 0 && s.FrameIds.All(p.Frames.ContainsKey));
            PublicationCheck.Assemble(p.NextId, [.. p.Parts]);
        }
    }, iter: 200);
}

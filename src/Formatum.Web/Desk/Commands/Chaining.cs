using Formatum.Core.Checking;
using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Output;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk.Commands;

/// <summary>Text is let run on from a frame.</summary>
public sealed record RunTextOn : Gesture, IUnderHand
{
    /// <summary>Into what: a frame by its id, "next" for a like frame on the next page, "pages" for as many new pages as it takes.</summary>
    public string? Into { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var frame = FirstFrame(ground);
        return Into switch
        {
            "next" => new RunOnPages(frame.Id, 1, OnNewPages: false),
            "pages" => TextRoom.UntilItEnds(ground.Publication, frame, Typefaces.All),
            not null when int.TryParse(Into, System.Globalization.CultureInfo.InvariantCulture, out int id) => new RunOn(frame.Id, id),
            _ => throw new EditRefused("into", "Choose a frame for the text to run on into."),
        };
    }

    /// <summary>The text as it would stand in its frames on this spread, and in words how much of it goes where.</summary>
    public UnderWay UnderWay(Ground ground, bool inside)
    {
        var after = ground.Publication.With(ToEdit(ground).On(ground.Publication));
        var story = after.StoryOf(after.Frames[FirstFrame(ground).Id])!;
        int from = story.FrameIds.IndexOf(FirstFrame(ground).Id);
        var drawn = Spread.At(after, ground.Spread.Index).FramesOf(after).Where(f => story.FrameIds.IndexOf(f.Frame.Id) >= from && !f.Frame.Hidden);
        var end = Composition.TextOf(after, after.Frames[story.FrameIds[^1]], Typefaces.All)!;
        int pages = after.PageCount - ground.Publication.PageCount;
        string[] words =
        [
            Into == "next" ? $"on page {after.Setup.FirstFolio + after.Order.IndexOf(after.Frames[story.FrameIds[^1]].PageId)}" : "",
            pages > 0 ? $"{Words.Count(pages, "page")} added" : "",
            end.Overflows ? TextView.Lost(end.WordsLeftOver, 0) : "all words have their place",
        ];
        return Desk.UnderWay.Nothing with
        {
            Preview = string.Concat(drawn.Select((f, i) => SpreadView.Preview(after, f.Frame, f.Box, $"running{i}-"))),
            Words = string.Join(", ", words.Where(w => w.Length > 0)),
        };
    }
}

/// <summary>A chain is broken behind a frame.</summary>
public sealed record BreakTextChain : Gesture
{
    public override Edit ToEdit(Ground ground) => new BreakChain(FirstFrame(ground).Id);
}

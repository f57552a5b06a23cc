using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Edits;

/// <summary>Makes a story that runs through frames in which nothing is yet.</summary>
/// <param name="FrameIds">The frames, in the order it runs through them.</param>
/// <param name="Text">Its words.</param>
public sealed record MakeStory(ImmutableArray<int> FrameIds, FrameText Text) : Edit
{
    public override string Words => "Make story";

    protected override void Make(Draft draft)
    {
        if (FrameIds.IsDefaultOrEmpty || FrameIds.Distinct().Count() != FrameIds.Length)
            throw new EditRefused("frames", "Name the frames that the text runs through, each once.");
        var story = new Story { Id = draft.NewId(), FrameIds = FrameIds, Text = Text };
        foreach (var frame in FrameIds.Select(id => FrameOf(draft, id)).ToList()) RunOn.Take(draft, frame, story.Id);
        Chains.Put(draft, story);
    }
}

/// <summary>Puts other words in the place of a story's, or has it run through other frames, or both; what is null stays.</summary>
/// <param name="StoryId">The story.</param>
/// <param name="FrameIds">The frames, in the order it runs through them.</param>
/// <param name="Text">Its words with their styles.</param>
/// <param name="Plain">Its words alone: each paragraph keeps its style, as <see cref="WriteText"/> says.</param>
public sealed record ChangeStory(int StoryId, ImmutableArray<int>? FrameIds, FrameText? Text, string? Plain = null) : Edit
{
    public override string Words => FrameIds is null ? "Replace text" : "Change chain";

    protected override void Make(Draft draft)
    {
        if (draft.Find(new(PartKind.Story, StoryId)) is not Story story) throw new NoSuchPart("story", $"There is no story {StoryId}.");
        if (FrameIds is { } frames)
        {
            if (frames.IsEmpty || frames.Distinct().Count() != frames.Length)
                throw new EditRefused("frames", "Name the frames that the text runs through, each once.");
            foreach (var added in frames.Except(story.FrameIds).Select(id => FrameOf(draft, id)).ToList()) RunOn.Take(draft, added, StoryId);
            foreach (var left in story.FrameIds.Except(frames).Select(id => FrameOf(draft, id)).ToList())
            {
                int own = draft.NewId();
                Chains.Put(draft, new() { Id = own, FrameIds = [left.Id], Text = FrameText.EmptyLike(story.Text.Paragraphs[^1]) });
                draft.Put(left with { StoryId = own });
            }
            story = story with { FrameIds = frames };
        }
        Chains.Put(draft, story with { Text = Text ?? (Plain is null ? story.Text : story.Text.Worded(Plain)) });
    }
}

/// <summary>Lets a story run on from one of its frames into another in which nothing is yet, before it goes on as it did.</summary>
public sealed record RunOn(int FrameId, int IntoFrameId) : Edit
{
    public override string Words => "Run text on";

    protected override void Make(Draft draft)
    {
        var from = FrameOf(draft, FrameId);
        var story = draft.StoryOf(from) ?? throw new EditRefused("text", $"{from.Label} holds no text. Choose a text frame.");
        var into = FrameOf(draft, IntoFrameId);
        if (into.StoryId == story.Id) throw new EditRefused("into", $"The text runs through {into.Label} already. Choose another frame.");
        Take(draft, into, story.Id);
        Chains.Put(draft, story with { FrameIds = story.FrameIds.Insert(story.FrameIds.IndexOf(FrameId) + 1, IntoFrameId) });
    }

    /// <summary>Makes a frame one of a story's.</summary>
    /// <exception cref="EditRefused">Something is in it, or it is locked, or on a master.</exception>
    internal static void Take(Draft draft, Frame frame, int storyId)
    {
        FrameChecks.Unlocked(frame);
        if (!Chains.IsEmpty(draft, frame))
            throw new EditRefused("into", $"{frame.Label} holds {(frame.IsText ? "words" : "a picture")} of its own. Choose an empty frame, or empty it " +
                $"first.");
        if (draft.Origin.MasterWith(frame.PageId) is not null)
            throw new EditRefused("into", "Text of a page does not run on into a master. Choose a frame of a page.");
        draft.Put(frame with { StoryId = storyId, MasterFrameId = frame.IsText ? frame.MasterFrameId : null });
    }
}

/// <summary>Breaks a story's chain behind one of its frames: the words end there, and the frames behind are empty.</summary>
public sealed record BreakChain(int FrameId) : Edit
{
    public override string Words => "Break chain";

    protected override void Make(Draft draft)
    {
        var frame = FrameOf(draft, FrameId);
        var story = draft.StoryOf(frame) ?? throw new EditRefused("text", $"{frame.Label} holds no text. Choose a text frame.");
        int behind = story.FrameIds.IndexOf(FrameId) + 1;
        if (behind == story.FrameIds.Length) throw new EditRefused("text", $"The text ends with {frame.Label}: there is no chain behind it to break.");
        var rest = story.FrameIds[behind..];
        var own = Chains.Put(draft, new() { Id = draft.NewId(), FrameIds = rest, Text = FrameText.EmptyLike(story.Text.Paragraphs[^1]) });
        Chains.Put(draft, story with { FrameIds = story.FrameIds[..behind] });
        foreach (int id in rest) draft.Put(FrameOf(draft, id) with { StoryId = own.Id });
    }
}

/// <summary>Lets a story run on from its last frame into frames like that on the pages that follow.</summary>
/// <param name="FrameId">The last frame of the story.</param>
/// <param name="Count">How many frames, each on a page of its own.</param>
/// <param name="OnNewPages">Whether they come onto the blank pages right behind its page, and onto new ones behind those; else onto the pages there are, and
/// pages are added where these end.</param>
public sealed record RunOnPages(int FrameId, int Count, bool OnNewPages) : Edit
{
    public const int Most = 500;

    public override string Words => Count == 1 ? "Run text on to the next page" : $"Run text on over {Count} pages";

    protected override void Make(Draft draft)
    {
        var origin = draft.Origin;
        var frame = FrameOf(draft, FrameId);
        var story = draft.StoryOf(frame) ?? throw new EditRefused("text", $"{frame.Label} holds no text. Choose a text frame.");
        if (story.FrameIds[^1] != FrameId) throw new EditRefused("text", $"The text does not end with {frame.Label}. Go on from the last frame of its chain.");
        if (Count is < 1 or > Most) throw new EditRefused("count", $"Let it run on over 1 to {Most} pages.");
        int at = origin.Order.IndexOf(frame.PageId);
        if (at < 0) throw new EditRefused("text", "On a master, text does not run on from page to page. Choose a frame of a page.");
        var pages = Pages(draft, at);
        if (frame is { MasterFrameId: not null, Area.RunsOn: true }) Following.LayNew(draft, pages.Where(p => !origin.Pages.ContainsKey(p)));
        var after = origin.With(draft.Changes());
        var made = pages.Select(page => Like(draft, after, story, frame, page)).ToImmutableArray();
        Chains.Put(draft, story with { FrameIds = [.. story.FrameIds, .. made] });
    }

    /// <summary>The pages it runs on over; those that are added are based on the same master as its own.</summary>
    private ImmutableArray<int> Pages(Draft draft, int at)
    {
        var order = draft.Origin.Order.Ids;
        var behind = order.Skip(at + 1);
        ImmutableArray<int> there = [.. (OnNewPages ? behind.TakeWhile(page => IsBlank(draft.Origin, page)) : behind).Take(Count)];
        int more = Count - there.Length;
        if (more == 0) return there;
        if (order.Length + more > Setup.MostPages)
            throw new EditRefused("count", $"That would make {order.Length + more} pages; {Setup.MostPages} is the most. Set the text smaller, or in " +
                $"larger frames.");
        int? master = draft.Origin.Pages[order[at]].MasterId;
        ImmutableArray<int> made = [.. Enumerable.Range(0, more).Select(_ => PageRuns.Blank(draft, master))];
        // An odd number of pages in the middle would bring all behind to the other side of their spreads.
        int place = !OnNewPages || (draft.Origin.Setup.Facing && more % 2 != 0) ? order.Length : at + 1 + there.Length;
        PageRuns.Order(draft, order.InsertRange(place, made));
        return [.. there, .. made];
    }

    /// <summary>Whether nothing was put on a page: what is to be filled on it, as its master has it, is empty.</summary>
    private static bool IsBlank(Publication publication, int page) =>
        publication.FramesOnPage(page).All(f => f.MasterFrameId is not null && publication.IsEmpty(f));

    private static int Like(Draft draft, Publication after, Story story, Frame frame, int page)
    {
        // Where the page has such a frame from its master already, that is the one.
        if (frame is { MasterFrameId: not null, Area.RunsOn: true } && RunningOn.Partner(draft, after.FramesOnPage(page), frame) is { } there
            && Chains.IsEmpty(draft, there))
        {
            RunOn.Take(draft, there, story.Id);
            return there.Id;
        }
        var sides = new Sides(after.Setup, after.IsRecto(frame.PageId), after.IsRecto(page));
        var like = frame with { Id = draft.NewId(), PageId = page, Box = sides.Box(frame), GroupId = null, MasterFrameId = null, Locked = false };
        draft.Put(like);
        return like.Id;
    }
}

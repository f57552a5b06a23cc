using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>
/// Makes a master page: blank, or like pages that are there. Of their frames, what is locked, and text that says of each page what it is, is then the same on
/// every page; all else is to be filled.
/// </summary>
/// <param name="Name">What it is called.</param>
/// <param name="LikePages">A page, or two that face each other, by their numbers from 1; null for a blank master. Of a page alone, both sides are made.</param>
/// <param name="BaseThem">Whether those pages are then based on it: their frames follow the master's with all that is in them, and what it now prints for
/// them they let go.</param>
public sealed record MakeMaster(string Name, ImmutableArray<int>? LikePages = null, bool BaseThem = false) : Edit
{
    public override string Words => $"Make master {Name.Trim()}";

    protected override void Make(Draft draft)
    {
        var origin = draft.Origin;
        MasterNames.Check(draft, Name, null);
        if (origin.Masters.Count >= MasterPage.Most)
            throw new EditRefused("name", $"A publication has {MasterPage.Most} masters at most. Remove one that is no longer used.");
        var master = new MasterPage { Id = draft.NewId(), Name = Name.Trim(), VersoId = PageRuns.Blank(draft), RectoId = PageRuns.Blank(draft) };
        draft.Put(master);
        if (LikePages is not { } numbers) return;

        var stories = new StoryCopies(draft, origin.Stories);
        var pages = PageRuns.Ids(draft, numbers).Select(id => Placed(origin, id)).ToList();
        if (pages.Count > 2 || (pages.Count == 2 && (!origin.Setup.Facing || pages[0].Recto == pages[1].Recto)))
            throw new EditRefused("pages", "A master is made like one page, or like the left-hand and the right-hand page of a spread. Choose those.");
        foreach (bool recto in new[] { false, true })
        {
            var like = pages.FirstOrDefault(p => p.Recto == recto) ?? pages[0];
            var sides = new Sides(origin.Setup, like.Recto, recto);
            draft.Put(new Page(master.Side(recto)) { Guides = [.. like.Page.Guides.Select(sides.Guide)] });
            foreach (var frame in origin.FramesOnPage(like.Page.Id).OrderBy(f => f.Depth).ThenBy(f => f.Id))
            {
                int id = draft.NewId();
                var copy = LayoutCopies.Unpictured(frame) with
                {
                    Id = id,
                    StoryId = stories.For(frame, id, LayoutCopies.KeepsWords(origin, frame)),
                    PageId = master.Side(recto),
                    Box = sides.Box(frame),
                    GroupId = null,
                    MasterFrameId = null
                };
                draft.Put(copy);
                stories.Finish();
                if (!BaseThem || like.Recto != recto) continue;
                if (Chains.IsEmpty(draft, copy)) draft.Put(frame with { MasterFrameId = copy.Id });
                else draft.Remove(frame.Key);
            }
        }
        if (BaseThem) foreach (var page in pages) draft.Put(page.Page with { MasterId = master.Id });
    }

    private static PlacedPage Placed(Publication publication, int pageId)
    {
        int number = publication.NumberOf(pageId);
        return Spread.At(publication, Spread.IndexOfPage(publication, number)).Pages.First(p => p.Number == number);
    }
}

/// <summary>Gives a master another name.</summary>
public sealed record RenameMaster(int MasterId, string Name) : Edit
{
    public override string Words => "Rename master";

    protected override void Make(Draft draft)
    {
        var master = MasterOf(draft, MasterId);
        MasterNames.Check(draft, Name, MasterId);
        draft.Put(master with { Name = Name.Trim() });
    }
}

/// <summary>Removes a master. Pages based on it take another instead, or none: pictures placed on them stay.</summary>
/// <param name="MasterId">The master.</param>
/// <param name="InsteadId">The master they take instead; null for none.</param>
public sealed record RemoveMaster(int MasterId, int? InsteadId = null) : Edit
{
    public override string Words => "Remove master";

    protected override void Make(Draft draft)
    {
        var master = MasterOf(draft, MasterId);
        if (InsteadId == MasterId) throw new EditRefused("instead", "A removed master cannot stand in for itself. Choose another, or none.");
        if (InsteadId is { } instead) MasterOf(draft, instead, "instead");
        foreach (var page in draft.Origin.Pages.Values.Where(p => p.MasterId == MasterId)) draft.Put(page with { MasterId = InsteadId });
        Clear(draft, master);
        draft.Remove(master.Key);
    }

    /// <summary>Removes the pages of a master with all that is on them.</summary>
    internal static void Clear(Draft draft, MasterPage master)
    {
        foreach (int side in new[] { master.VersoId, master.RectoId })
        {
            foreach (var frame in draft.Origin.FramesOnPage(side)) draft.Remove(frame.Key);
            draft.Remove(new(PartKind.Page, side));
        }
    }
}

/// <summary>
/// Bases pages on a master, or on none. What they have from another master takes the places of this one, first for first in reading order; what is left over
/// stays where somebody did something to it, and else goes.
/// </summary>
/// <param name="Numbers">The pages, by their numbers from 1.</param>
/// <param name="MasterId">The master; null for none.</param>
public sealed record BasePages(ImmutableArray<int> Numbers, int? MasterId) : Edit
{
    public override string Words => MasterId is null ? "Take off master" : "Base on master";

    protected override void Make(Draft draft)
    {
        if (MasterId is { } id) MasterOf(draft, id);
        foreach (int page in PageRuns.Ids(draft, Numbers)) draft.Put(draft.Origin.Pages[page] with { MasterId = MasterId });
    }
}

/// <summary>Lets frames follow their master again, in all that was done to them on their pages; what is in them stays.</summary>
public sealed record FollowMaster(ImmutableArray<int> FrameIds) : Edit
{
    public override string Words => "Follow the master";

    protected override void Make(Draft draft)
    {
        var following = FrameIds.Select(id => FrameOf(draft, id)).Where(f => f.MasterFrameId is not null).ToList();
        if (following.Count == 0) throw new EditRefused("frame", "No frame that came from a master is chosen. Choose one first.");
        foreach (var frame in following)
        {
            FrameChecks.Unlocked(frame);
            draft.Put(Following.AsOn(FrameOf(draft, frame.MasterFrameId!.Value), frame));
        }
    }
}

internal static class MasterNames
{
    /// <exception cref="EditRefused">The name is empty, too long, or taken.</exception>
    public static void Check(Draft draft, string name, int? id)
    {
        var errors = new FieldErrors();
        CheckLength(name, errors);
        if (draft.Origin.Masters.Values.Any(m => m.Id != id && RuleChecks.SameName.Equals(m.Name, name.Trim())))
            errors.Add("name", $"There is a master named {name.Trim()} already. Take another name.");
        errors.ThrowIfAny();
    }

    public static void CheckLength(string name, FieldErrors errors)
    {
        if (string.IsNullOrWhiteSpace(name)) errors.Add("name", "Give the master a name.");
        errors.Name(name.Trim(), MasterPage.LongestName);
    }
}

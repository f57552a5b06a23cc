using Formatum.Core.Checks;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>
/// Something a person does to a publication. Whatever is dragged, typed or sent through the automation interface becomes one of these; each
/// checks what it is given and changes nothing where it refuses.
/// </summary>
public abstract record Edit
{
    /// <summary>What was done, in words, for the history: "Move frame".</summary>
    public abstract string Words { get; }

    /// <exception cref="EditRefused">The edit cannot be made; the message says what, why and what to do instead.</exception>
    public virtual Changes On(Publication publication)
    {
        var draft = new Draft(publication);
        Make(draft);
        Settle(draft);
        return draft.Changes();
    }

    /// <summary>Parts without which, as they were seen, it cannot be made: whoever changed one of them meanwhile is named before anything else.</summary>
    public virtual IEnumerable<PartKey> RestsOn(Publication publication) => [];

    /// <summary>Whether what others changed of a part meanwhile stays beside what this changes of it.</summary>
    public virtual bool Merges(Publication publication, PartKey key) => false;

    /// <summary>What follows from an edit by itself, once it is made.</summary>
    internal static void Settle(Draft draft)
    {
        Following.Settle(draft);
        Chains.Settle(draft);
        RunningOn.Settle(draft);
        Holding.Settle(draft);
    }

    protected abstract void Make(Draft draft);

    /// <exception cref="EditRefused">There is no such frame.</exception>
    protected static Frame FrameOf(Draft draft, int id) =>
        draft.Frame(id) ?? throw new NoSuchPart("frame", $"There is no frame {id}. It may have been removed in another window; look at the spread again.");

    /// <exception cref="EditRefused">There is no such rule.</exception>
    protected static FittingRule RuleOf(Draft draft, int id, string field = "ruleId") =>
        draft.Find(new(PartKind.Rule, id)) as FittingRule ?? throw new EditRefused(field,
            $"There is no rule {id} in this publication. It may have been removed in another window.");

    /// <exception cref="EditRefused">There is no such image.</exception>
    protected static LinkedImage ImageOf(Draft draft, int id) =>
        draft.Find(new(PartKind.Image, id)) as LinkedImage ?? throw new EditRefused("imageId",
            $"There is no image {id} in this publication. It may have been removed in another window.");

    /// <exception cref="EditRefused">There is no such master.</exception>
    protected static MasterPage MasterOf(Draft draft, int id, string field = "master") =>
        draft.Find(new(PartKind.Master, id)) as MasterPage ?? throw new EditRefused(field,
            $"There is no master {id} in this publication. It may have been removed in another window.");

    /// <param name="draft">The publication under way.</param>
    /// <param name="number">A page's number: from 1, or below 0 for one of a master.</param>
    /// <exception cref="EditRefused">There is no such page.</exception>
    protected static int PageIdOf(Draft draft, int number) =>
        draft.Origin.PageIdAt(number) ?? throw new EditRefused("page", $"There is no page {number}; the publication has pages 1 to {draft.Origin.PageCount}.");
}

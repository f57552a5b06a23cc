using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>Makes a check profile, or puts another in the place of one.</summary>
/// <param name="Profile">The profile; its id is given anew where it is a new one.</param>
/// <param name="ProfileId">The one to replace; null for a new one.</param>
/// <param name="Choose">Whether the publication is checked by it from then on.</param>
public sealed record DefineCheckProfile(CheckProfile Profile, int? ProfileId = null, bool Choose = false) : Edit
{
    public override string Words => ProfileId is null ? $"Make check profile {Profile.Name.Trim()}" : $"Change check profile {Profile.Name.Trim()}";

    protected override void Make(Draft draft)
    {
        if (ProfileId is { } id) ProfileOf(draft, id);
        var made = Profile with { Id = ProfileId ?? draft.NewId(), Name = Profile.Name.Trim() };
        var errors = new FieldErrors();
        made.Check(errors);
        if (draft.Origin.CheckProfiles.Values.Where(p => p.Id != ProfileId).Concat(CheckProfile.Usual).Any(p => RuleChecks.SameName.Equals(p.Name, made.Name)))
            errors.Add("name", $"There is a profile named {made.Name} already. Take another name.");
        if (ProfileId is null && draft.Origin.CheckProfiles.Count >= CheckProfile.Most)
            errors.Add("name", $"A publication has {CheckProfile.Most} profiles of its own at most.");
        errors.ThrowIfAny();
        draft.Put(made);
        if (Choose) draft.Put(draft.Origin.Setup with { CheckProfileId = made.Id });
    }

    /// <exception cref="NoSuchPart">There is no such profile among the publication's own.</exception>
    internal static CheckProfile ProfileOf(Draft draft, int id) => draft.Find(new(PartKind.CheckProfile, id)) as CheckProfile
        ?? throw new NoSuchPart("profile", $"There is no check profile {id} in this publication. It may have been removed in another window.");
}

/// <summary>Removes a check profile; a publication that was checked by it is checked by Offset.</summary>
public sealed record RemoveCheckProfile(int ProfileId) : Edit
{
    public override string Words => "Remove check profile";

    protected override void Make(Draft draft)
    {
        draft.Remove(DefineCheckProfile.ProfileOf(draft, ProfileId).Key);
        if (draft.Origin.Setup.CheckProfileId == ProfileId) draft.Put(draft.Origin.Setup with { CheckProfileId = null });
    }
}

/// <summary>Chooses what the publication is checked by.</summary>
public sealed record ChooseCheckProfile(int ProfileId) : Edit
{
    public override string Words => $"Check by {CheckProfile.Usual.FirstOrDefault(p => p.Id == ProfileId)?.Name ?? "a profile of its own"}";

    protected override void Make(Draft draft)
    {
        if (CheckProfile.Usual.All(p => p.Id != ProfileId)) DefineCheckProfile.ProfileOf(draft, ProfileId);
        draft.Put(draft.Origin.Setup with { CheckProfileId = ProfileId });
    }
}

/// <summary>Lets findings be: they are meant so.</summary>
/// <param name="Findings">What was found, each with who lets it be and why; ids are given anew. One that was let be before is let be anew.</param>
public sealed record AcceptFindings(ImmutableArray<AcceptedFinding> Findings) : Edit
{
    public override string Words => Findings.Length == 1 ? "Accept finding" : $"Accept {Findings.Length} findings";

    protected override void Make(Draft draft)
    {
        if (Findings.IsDefaultOrEmpty) throw new EditRefused("ids", "No finding is meant. Choose one first.");
        var there = draft.Origin.Accepted.Values.ToDictionary(a => (a.Kind, a.On), a => a.Id);
        var errors = new FieldErrors();
        foreach (var finding in Findings)
        {
            finding.Check(errors);
            if (draft.Find(finding.On) is null) errors.Add("ids", "What was found is there no longer. Look at the list again.");
            errors.ThrowIfAny();
            draft.Put(finding with { Id = there.TryGetValue((finding.Kind, finding.On), out int id) ? id : draft.NewId() });
        }
        int added = Findings.Count(f => !there.ContainsKey((f.Kind, f.On)));
        if (draft.Origin.Accepted.Count + added > AcceptedFinding.Most)
            throw new EditRefused("ids", $"{AcceptedFinding.Most:#,0} findings are accepted at most. Mend some, or let the profile leave out their kind.");
    }
}

/// <summary>Lets accepted findings count again.</summary>
public sealed record UnacceptFindings(ImmutableArray<int> Ids) : Edit
{
    public override string Words => Ids.Length == 1 ? "Take up accepted finding" : $"Take up {Ids.Length} accepted findings";

    protected override void Make(Draft draft)
    {
        if (Ids.IsDefaultOrEmpty) throw new EditRefused("ids", "No finding is meant. Choose one first.");
        foreach (int id in Ids)
            draft.Remove((draft.Find(new(PartKind.Accepted, id))
                ?? throw new NoSuchPart("ids", "That finding counts already. Look at the list again.")).Key);
    }
}

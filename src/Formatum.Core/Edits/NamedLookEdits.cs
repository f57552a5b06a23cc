using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Core.Settings;

namespace Formatum.Core.Edits;

/// <summary>Makes a named look, or puts another in the place of one: all frames that have it follow.</summary>
public sealed record DefineLook : Edit
{
    /// <summary>The look to replace; null for a new one.</summary>
    public int? LookId { get; init; }

    public required string Name { get; init; }
    public int? BasedOnId { get; init; }
    public LookSettings Settings { get; init; } = LookSettings.Open;

    /// <summary>The frame whose look went into it: it takes the look, and lets go of what that says now.</summary>
    public int? LikeFrameId { get; init; }

    public override string Words => LookId is null ? $"Make look {Name.Trim()}" : $"Change look {Name.Trim()}";

    protected override void Make(Draft draft)
    {
        if (LookId is { } id) LookChecks.LookOf(draft, id);
        var made = new NamedLook { Id = LookId ?? draft.NewId(), Name = Name.Trim(), BasedOnId = BasedOnId, Settings = Settings };
        var errors = new FieldErrors();
        LookChecks.Check(draft.Origin, made, errors);
        ColourChecks.CheckNamed(draft, Settings.AllColours(), errors, "look");
        if (draft.Origin.Looks.Values.Any(l => l.Id != LookId && RuleChecks.SameName.Equals(l.Name, made.Name)))
            errors.Add("name", $"There is a look named {made.Name} already. Take another name.");
        if (LookId is null && draft.Origin.Looks.Count >= NamedLook.Most) errors.Add("name", $"A publication has {NamedLook.Most} looks at most.");
        errors.ThrowIfAny();
        draft.Put(made);
        if (LikeFrameId is { } frameId)
        {
            var frame = FrameOf(draft, frameId);
            draft.Put(frame with
            {
                LookId = made.Id,
                Look = frame.Look.Kept(s => !s.IsSet(Settings)),
                Wrap = Settings.Wrap is null ? frame.Wrap : null,
            });
        }
    }
}

/// <summary>Removes a named look. Frames that have it, and looks based on it, take another instead.</summary>
/// <param name="LookId">The look.</param>
/// <param name="InsteadId">What they take instead; null for none.</param>
/// <param name="KeepSettings">Whether they keep, as set on themselves, what they had from it, so that nothing looks different.</param>
public sealed record RemoveLook(int LookId, int? InsteadId = null, bool KeepSettings = false) : Edit
{
    public override string Words => "Remove look";

    protected override void Make(Draft draft)
    {
        var gone = LookChecks.LookOf(draft, LookId);
        if (InsteadId == LookId) throw new EditRefused("instead", "A removed look cannot stand in for itself. Choose another, or none.");
        if (InsteadId is { } instead) LookChecks.LookOf(draft, instead, "instead");
        var before = draft.Origin;
        foreach (var child in before.Looks.Values.Where(l => l.BasedOnId == LookId))
        {
            if (LookCascade.WouldLoop(before, child.Id, InsteadId))
                throw new EditRefused("instead", $"{child.Name} is based on {gone.Name}, and would then be based on itself. Choose another look, or none.");
            draft.Put(child with { BasedOnId = InsteadId, Settings = KeepSettings ? Kept(before, child.Settings) : child.Settings });
        }
        foreach (var frame in before.Frames.Values.Where(f => f.LookId == LookId))
            draft.Put(frame with { LookId = InsteadId, Look = KeepSettings ? Kept(before, frame.Look) : frame.Look });
        foreach (var rule in before.Rules.Values.Where(r => r.LookId == LookId)) draft.Put(rule with { LookId = InsteadId });
        draft.Remove(gone.Key);
    }

    /// <summary>Settings over all that the look said, and over what its stand-in would say otherwise.</summary>
    private LookSettings Kept(Publication before, LookSettings own)
    {
        Look was = own.Over(LookCascade.SettingsOf(before, LookId)).Resolve(), will = own.Over(LookCascade.SettingsOf(before, InsteadId)).Resolve();
        return LookSettings.Between(will, was).Over(own);
    }
}

/// <summary>Gives frames a named look, or takes it from them.</summary>
/// <param name="FrameIds">The frames.</param>
/// <param name="LookId">The look; null for none.</param>
/// <param name="ClearSet">Whether what was set on the frames themselves goes, so that the look has its way.</param>
public sealed record PutLook(ImmutableArray<int> FrameIds, int? LookId, bool ClearSet = false) : Edit
{
    public override string Words => (LookId is null ? "Take look off" : "Put on look") + (FrameIds.Length > 1 ? $", {FrameIds.Length} frames" : "");

    protected override void Make(Draft draft)
    {
        if (FrameIds.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        if (LookId is { } id) LookChecks.LookOf(draft, id);
        foreach (int frameId in FrameIds)
        {
            var frame = FrameOf(draft, frameId);
            draft.Put(frame with { LookId = LookId, Look = ClearSet ? LookSettings.Open : frame.Look });
        }
    }
}

/// <summary>Lets go of parts of a look that were set on frames themselves: what their named look says shows again.</summary>
/// <param name="FrameIds">The frames.</param>
/// <param name="Parts">The parts, by name; all where there are none.</param>
public sealed record OpenLook(ImmutableArray<int> FrameIds, ImmutableArray<string> Parts) : Edit
{
    public override string Words => "Clear what was set of the look" + (FrameIds.Length > 1 ? $", {FrameIds.Length} frames" : "");

    protected override void Make(Draft draft)
    {
        if (FrameIds.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        if (Parts.FirstOrDefault(p => !LookSettings.All.Any(s => s.Name == p)) is { } unknown) throw new EditRefused("look", $"A look has no part {unknown}.");
        foreach (int id in FrameIds)
        {
            var frame = FrameOf(draft, id);
            // How it keeps text away is set beside its look; it goes where the look says something in its place.
            bool wrap = Parts.Contains("Wrap") || (Parts.IsEmpty && draft.Origin.LookOf(frame).Wrap != Stories.Wrap.Off);
            draft.Put(frame with
            {
                Look = frame.Look.Kept(s => !Parts.IsEmpty && !Parts.Contains(s.Name)),
                Wrap = wrap ? null : frame.Wrap,
            });
        }
    }
}

/// <summary>What every named look must keep to.</summary>
internal static class LookChecks
{
    /// <exception cref="EditRefused">There is no such look.</exception>
    public static NamedLook LookOf(Draft draft, int id, string field = "lookId") => draft.Find(new(PartKind.Look, id)) as NamedLook
        ?? throw new NoSuchPart(field, $"There is no look {id} in this publication. It may have been removed in another window.");

    public static void Check(Publication publication, NamedLook look, FieldErrors errors)
    {
        if (string.IsNullOrWhiteSpace(look.Name)) errors.Add("name", "A look needs a name. Type one, such as \"Framed\".");
        errors.Name(look.Name, NamedLook.LongestName);
        if (look.BasedOnId is { } basis)
        {
            if (!publication.Looks.ContainsKey(basis)) errors.Add("basedOnId", $"There is no look {basis} to base this one on.");
            else if (LookCascade.WouldLoop(publication, look.Id, basis))
                errors.Add("basedOnId", "That look is itself based on this one, directly or through others. Base this one on another.");
            else if (LookCascade.Chain(publication, basis).Count() >= Layers.LongestChain)
                errors.Add("basedOnId", $"That look stands at the end of a chain of {Layers.LongestChain}; no chain may be longer.");
        }
        look.Settings.Check(errors);
    }
}

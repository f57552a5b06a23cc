using Formatum.Core.Checks;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>Makes a fitting rule, or puts another in the place of one.</summary>
public sealed record DefineRule : Edit
{
    /// <summary>The rule to replace; null for a new one.</summary>
    public int? RuleId { get; init; }

    public required string Name { get; init; }
    public string Description { get; init; } = "";
    public int? BasedOnId { get; init; }
    public FitSettings Settings { get; init; } = FitSettings.Open;

    /// <summary>The look its frames usually take; null for none.</summary>
    public int? LookId { get; init; }

    /// <summary>The frame whose settings went into the rule: it takes the rule, and lets go of what the rule says now.</summary>
    public int? LikeFrameId { get; init; }

    /// <summary>Makes it the publication's default rule, or no longer so; null leaves that as it is.</summary>
    public bool? Default { get; init; }

    public override string Words => RuleId is null ? $"Make rule {Name.Trim()}" : $"Change rule {Name.Trim()}";

    protected override void Make(Draft draft)
    {
        if (RuleId is { } id) RuleOf(draft, id);
        var errors = new FieldErrors();
        string name = Name.Trim();
        var asked = new FittingRule { Id = RuleId ?? 0, Name = name, Description = Description, BasedOnId = BasedOnId, Settings = Settings, LookId = LookId };
        RuleChecks.Check(draft.Origin, asked, errors);
        if (draft.Origin.Rules.Values.Any(r => r.Id != RuleId && RuleChecks.SameName.Equals(r.Name, name)))
            errors.Add("name", $"There is a rule named {name} already. Take another name.");
        errors.ThrowIfAny();
        var rule = asked with { Id = RuleId ?? draft.NewId(), Description = Description.Trim() };
        draft.Put(rule);
        UsualLooks.Follow(draft);
        if (LikeFrameId is { } frameId)
        {
            var frame = FrameOf(draft, frameId);
            draft.Put(UsualLooks.With(draft, frame with { RuleId = rule.Id, Own = frame.Own.Where(setting => !Settings.IsSet(setting)) }));
        }
        var setup = draft.Origin.Setup;
        if (Default == true) draft.Put(setup with { DefaultRuleId = rule.Id });
        else if (Default == false && setup.DefaultRuleId == rule.Id) draft.Put(setup with { DefaultRuleId = null });
    }
}

/// <summary>Removes a rule. Its frames, the rules based on it, and the publication where it was the default take something else instead.</summary>
/// <param name="RuleId">The rule.</param>
/// <param name="InsteadId">The rule they take instead; null for none.</param>
/// <param name="KeepSettings">Whatever would then be fitted otherwise keeps, as settings of its own, what it had from the rule and all that was beneath it,
/// so that nothing looks different.</param>
public sealed record RemoveRule(int RuleId, int? InsteadId = null, bool KeepSettings = false) : Edit
{
    public override string Words => "Remove rule";

    protected override void Make(Draft draft)
    {
        var rule = RuleOf(draft, RuleId);
        if (InsteadId == RuleId) throw new EditRefused("instead", "A removed rule cannot stand in for itself. Choose another, or none.");
        if (InsteadId is { } instead) RuleOf(draft, instead, "instead");
        foreach (var child in draft.Origin.Rules.Values.Where(r => r.BasedOnId == RuleId))
        {
            if (Cascade.WouldLoop(draft.Origin, child.Id, InsteadId))
                throw new EditRefused("instead", $"{child.Name} is based on {rule.Name}, and would then be based on itself. Choose another rule, or none.");
            draft.Put(child with { BasedOnId = InsteadId });
        }
        foreach (var frame in draft.Origin.Frames.Values.Where(f => f.RuleId == RuleId)) draft.Put(frame with { RuleId = InsteadId });
        if (draft.Origin.Setup.DefaultRuleId == RuleId) draft.Put(draft.Origin.Setup with { DefaultRuleId = InsteadId });
        draft.Remove(rule.Key);
        if (KeepSettings) Keep(draft);
    }

    /// <summary>Gives the rules that were based on it, and then every frame, what would otherwise be different.</summary>
    private void Keep(Draft draft)
    {
        var before = draft.Origin;
        var after = before.With(draft.Changes());
        foreach (var child in before.Rules.Values.Where(r => r.BasedOnId == RuleId))
        {
            var lost = Lost(before.FitOfRule(child.Id), after.FitOfRule(child.Id));
            draft.Put(after.Rules[child.Id] with { Settings = lost.Over(child.Settings) });
        }
        after = before.With(draft.Changes());
        foreach (var frame in after.Frames.Values)
        {
            var lost = Lost(before.FitOf(before.Frames[frame.Id]), after.FitOf(frame));
            if (!lost.IsOpen) draft.Put(frame with { Own = lost.Over(frame.Own) });
        }
    }

    /// <summary>What held before and no longer does.</summary>
    private static FitSettings Lost(in ResolvedFit was, in ResolvedFit will) => was == will ? FitSettings.Open : was.ToSettings().Except(will.ToSettings());
}

/// <summary>Chooses the rule that everything else in the publication rests on; null for the built-in settings alone.</summary>
public sealed record ChooseDefaultRule(int? RuleId) : Edit
{
    public override string Words => RuleId is null ? "Drop the default rule" : "Choose the default rule";

    protected override void Make(Draft draft)
    {
        if (RuleId is { } id) RuleOf(draft, id);
        draft.Put(draft.Origin.Setup with { DefaultRuleId = RuleId });
    }
}

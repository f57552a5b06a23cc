using Formatum.Core.Publications;
using Formatum.Core.Settings;

namespace Formatum.Core.Edits;

/// <summary>The look that a rule names as usual: a frame that gets the rule takes it, where it has no look yet.</summary>
internal static class UsualLooks
{
    /// <summary>The frame with the usual look of its rule, where it has none.</summary>
    public static Frame With(Draft draft, Frame frame) => frame.LookId is null ? frame with { LookId = Of(draft, frame.RuleId) } : frame;

    /// <summary>Gives every frame that has its rule's usual look, or none where the rule named none, what the rules name now.</summary>
    public static void Follow(Draft draft)
    {
        var before = new Draft(draft.Origin);
        var changed = draft.Origin.Rules.Keys.Select(id => (Id: id, Was: Of(before, id), Now: Of(draft, id))).Where(r => r.Was != r.Now)
            .ToDictionary(r => r.Id);
        if (changed.Count == 0) return;
        foreach (var frame in draft.Origin.Frames.Values)
        {
            if (frame.RuleId is not { } rule || !changed.TryGetValue(rule, out var looks)) continue;
            if (draft.Frame(frame.Id) is { } there && there.LookId == looks.Was) draft.Put(there with { LookId = looks.Now });
        }
    }

    private static int? Of(Draft draft, int? ruleId) => Layers.Chain(ruleId, id => draft.Find(new(PartKind.Rule, id)) as FittingRule, rule => rule.BasedOnId)
        .Select(rule => rule.LookId).FirstOrDefault(id => id is not null);
}

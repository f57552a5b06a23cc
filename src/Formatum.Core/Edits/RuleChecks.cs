using Formatum.Core.Checks;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>What every rule must keep to, however it came about.</summary>
internal static class RuleChecks
{
    /// <summary>No two rules of a publication have the same name.</summary>
    public static readonly StringComparer SameName = StringComparer.OrdinalIgnoreCase;

    /// <summary>Everything wrong with a rule; its name against others is left to the caller.</summary>
    /// <param name="publication">Where it is, or is to be.</param>
    /// <param name="rule">The rule; its id is 0 where it is new.</param>
    /// <param name="errors">Gathers what is wrong.</param>
    public static void Check(Publication publication, FittingRule rule, FieldErrors errors)
    {
        if (string.IsNullOrWhiteSpace(rule.Name)) errors.Add("name", "A rule needs a name. Type one, such as \"Product shot\".");
        errors.Name(rule.Name, FittingRule.LongestName);
        if (rule.Description.Length > FittingRule.LongestDescription)
            errors.Add("description", $"The description has {rule.Description.Length} characters; {FittingRule.LongestDescription} is the most. Shorten it.");
        if (rule.BasedOnId is { } basis)
        {
            if (!publication.Rules.ContainsKey(basis)) errors.Add("basedOnId", $"There is no rule {basis} to base this one on.");
            else if (Cascade.WouldLoop(publication, rule.Id, basis))
                errors.Add("basedOnId", "That rule is itself based on this one, directly or through others. Base this one on another.");
            else if (Cascade.Chain(publication, basis).Count() >= Cascade.LongestChain)
                errors.Add("basedOnId", $"That rule stands at the end of a chain of {Cascade.LongestChain}; no chain may be longer. Base this one on a " +
                    $"rule nearer its root.");
        }
        if (rule.LookId is { } look && !publication.Looks.ContainsKey(look))
            errors.Add("lookId", $"There is no look {look} for its frames to take. It may have been removed in another window.");
        FitSettingsCheck.Check(rule.Settings, errors);
    }
}

using Formatum.Core.Fitting;
using Formatum.Core.Settings;

namespace Formatum.Core.Publications;

/// <summary>Where a setting's value comes from.</summary>
/// <param name="Rule">The rule that says it; null where none does.</param>
/// <param name="SetHere">Whether it was set on the frame itself.</param>
public readonly record struct SettingSource(FittingRule? Rule, bool SetHere);

/// <summary>
/// How fitting settings are inherited, weakest first: the publication's default rule, the chain of rules from the root to the frame's own
/// rule, what was set on the frame itself.
/// </summary>
public static class Cascade
{
    /// <summary>A chain of rules is never longer.</summary>
    public const int LongestChain = Layers.LongestChain;

    /// <summary>The settings of a rule over all it is based on, over the publication's default. Some may be left open.</summary>
    public static FitSettings SettingsOf(Publication publication, int? ruleId) => Together(Sources(publication, ruleId));

    /// <summary>What rules say together, the strongest first. Some settings may be left open.</summary>
    public static FitSettings Together(IEnumerable<FittingRule> rules)
    {
        var settings = FitSettings.Open;
        foreach (var rule in rules) settings = settings.Over(rule.Settings);
        return settings;
    }

    /// <summary>The rules that speak for a frame with the given rule, strongest first: its chain, then the default's.</summary>
    public static IEnumerable<FittingRule> Sources(Publication publication, int? ruleId) =>
        Chain(publication, ruleId).Concat(Chain(publication, publication.Setup.DefaultRuleId));

    /// <summary>The rule and those it is based on, strongest first.</summary>
    public static IEnumerable<FittingRule> Chain(Publication publication, int? ruleId) =>
        Layers.Chain(ruleId, id => publication.Rules.GetValueOrDefault(id), rule => rule.BasedOnId);

    /// <summary>Where a frame's setting comes from.</summary>
    public static SettingSource SourceOf(Publication publication, Frame frame, FitSetting setting) =>
        frame.Own.IsSet(setting) ? new(null, true) : new(RuleSaying(publication, frame.RuleId, setting), false);

    /// <summary>The strongest rule, of those that speak for a frame with the given rule, that says something about a setting.</summary>
    public static FittingRule? RuleSaying(Publication publication, int? ruleId, FitSetting setting) =>
        Sources(publication, ruleId).FirstOrDefault(rule => rule.Settings.IsSet(setting));

    /// <summary>Whether basing a rule on another would make a chain that comes back to itself.</summary>
    public static bool WouldLoop(Publication publication, int ruleId, int? basedOnId) => Layers.WouldLoop(ruleId, basedOnId,
        id => publication.Rules.GetValueOrDefault(id)?.BasedOnId);

    /// <summary>The rules that a change of this one reaches: itself, and all based on it, directly or through others.</summary>
    public static IReadOnlySet<int> Reach(Publication publication, int ruleId) =>
        publication.Rules.Keys.Where(id => Chain(publication, id).Any(rule => rule.Id == ruleId)).ToHashSet();

    /// <summary>The frames that follow a rule: those that have it or one based on it, and every frame where the default rests on it.</summary>
    public static IEnumerable<Frame> Followers(Publication publication, int ruleId)
    {
        var reach = Reach(publication, ruleId);
        bool all = publication.Setup.DefaultRuleId is { } start && reach.Contains(start);
        return publication.Frames.Values.Where(frame => all || (frame.RuleId is { } id && reach.Contains(id)));
    }
}

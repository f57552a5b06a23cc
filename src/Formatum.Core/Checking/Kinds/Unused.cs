using System.Globalization;
using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class StyleUnused : KindCheck
{
    public override FindingKind Kind => FindingKind.StyleUnused;
    public override string Title => "Style unused";
    public override string Mark => "unused";
    public override string Why => "No text has it, and no style that is used is based on it.";

    internal override IEnumerable<Finding> OfWhole(CheckedWhole whole)
    {
        var styles = whole.Publication.Styles;
        var used = whole.Styles.Append(whole.Publication.Setup.DefaultStyleId ?? 0).SelectMany(id => TextCascade.Chain(whole.Publication, id)).ToHashSet();
        // Lists of contents take styles by their names: "Contents 2" beside "Contents".
        bool IsRankOf(NamedStyle style) => style.Name is [.. var name, ' ', >= '1' and <= '9'] && used.Any(u => u.Name.Equals(name,
            StringComparison.OrdinalIgnoreCase));
        return styles.Values.Where(s => !used.Contains(s) && !IsRankOf(s)).OrderBy(s => s.Id).Select(s => On(s.Key, s.Name, "", 1));
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
    [
        new("removeUnused", "Remove the style", publication => publication.Styles.GetValueOrDefault(finding.Part.Id) is { } style
            ? new RemoveStyle(style.Id, style.BasedOnId, AsItLooks: true) : null),
    ];
}

internal sealed class RuleUnused : KindCheck
{
    public override FindingKind Kind => FindingKind.RuleUnused;
    public override string Title => "Rule unused";
    public override string Mark => "unused";
    public override string Why => "No frame has it, and no rule that is used is based on it.";

    internal override IEnumerable<Finding> OfWhole(CheckedWhole whole)
    {
        var used = whole.Frames.Select(f => f.RuleId).OfType<int>().Distinct()
            .Append(whole.Publication.Setup.DefaultRuleId ?? 0).SelectMany(id => Cascade.Chain(whole.Publication, id)).ToHashSet();
        return whole.Publication.Rules.Values.Where(r => !used.Contains(r)).OrderBy(r => r.Id).Select(r => On(r.Key, r.Name, "", 1));
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
    [
        new("removeUnused", "Remove the rule", publication => publication.Rules.GetValueOrDefault(finding.Part.Id) is { } rule
            ? new RemoveRule(rule.Id, rule.BasedOnId, KeepSettings: true) : null),
    ];
}

internal sealed class LookUnused : KindCheck
{
    public override FindingKind Kind => FindingKind.LookUnused;
    public override string Title => "Look unused";
    public override string Mark => "unused";
    public override string Why => "No frame has it, no rule names it, and no look that is used is based on it.";

    internal override IEnumerable<Finding> OfWhole(CheckedWhole whole)
    {
        var named = whole.Frames.Select(f => f.LookId).OfType<int>().Distinct().Concat(whole.Publication.Rules.Values.Select(r => r.LookId).OfType<int>());
        var used = named.SelectMany(id => LookCascade.Chain(whole.Publication, id)).ToHashSet();
        return whole.Publication.Looks.Values.Where(l => !used.Contains(l)).OrderBy(l => l.Id).Select(l => On(l.Key, l.Name, "", 1));
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
    [
        new("removeUnused", "Remove the look", publication => publication.Looks.GetValueOrDefault(finding.Part.Id) is { } look
            ? new RemoveLook(look.Id, look.BasedOnId, KeepSettings: true) : null),
    ];
}

using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;
using Formatum.Web.Desk;
using Formatum.Web.Wording;

namespace Formatum.Web.Rules;

/// <summary>A fitting rule as it is typed: text, so that nothing typed is lost however wrong it is. An empty setting is one left open.</summary>
public sealed class RuleForm
{
    public string? Name { get; set; }
    public string? Description { get; set; }
    public int? BasedOn { get; set; }

    /// <summary>The look its frames usually take; null for none.</summary>
    public int? Look { get; set; }

    /// <summary>Whether it is the publication's default rule.</summary>
    public bool Default { get; set; }

    /// <summary>The frame whose settings are pushed back into the rule; null for none.</summary>
    public int? Like { get; set; }

    /// <summary>The publication's revision when the form was made.</summary>
    public long Seen { get; set; }

    public Dictionary<string, string?> Set { get; set; } = [];

    public string? this[FitSetting setting] => Set.GetValueOrDefault(setting.ToString());

    /// <param name="publication">The publication.</param>
    /// <param name="rule">The rule; null for a new one.</param>
    /// <param name="like">A frame whose own settings are to go into the rule; null for none.</param>
    public static RuleForm Of(Publication publication, FittingRule? rule, Frame? like = null)
    {
        var settings = (like?.Own ?? FitSettings.Open).Over(rule?.Settings ?? FitSettings.Open);
        return new()
        {
            Name = rule?.Name,
            Description = rule?.Description,
            BasedOn = rule?.BasedOnId,
            Look = rule?.LookId,
            Default = rule is not null && publication.Setup.DefaultRuleId == rule.Id,
            Like = like?.Id,
            Set = SettingText.All.Where(settings.IsSet).ToDictionary(s => s.ToString(), s => (string?)SettingText.Value(s, settings.Resolve(),
                publication.Setup.Unit)),
        };
    }

    /// <summary>The edit that the form asks for; what cannot be read goes to <paramref name="errors"/>.</summary>
    public DefineRule Read(Publication publication, int? ruleId, FieldErrors errors)
    {
        var settings = FitSettings.Open;
        var now = publication.FitOfRule(ruleId ?? BasedOn);
        foreach (var setting in SettingText.All)
        {
            if (!string.IsNullOrWhiteSpace(this[setting]))
                settings = settings.Over(SettingText.Read(setting, this[setting], publication.Setup.Unit, now, errors));
        }
        bool wasDefault = ruleId is not null && publication.Setup.DefaultRuleId == ruleId;
        return new()
        {
            RuleId = ruleId,
            Name = Name ?? "",
            Description = Description ?? "",
            BasedOnId = BasedOn,
            LookId = Look,
            Settings = settings,
            LikeFrameId = Like,
            Default = Default == wasDefault ? null : Default,
        };
    }
}

using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Desk;
using Formatum.Web.Wording;

namespace Formatum.Web.Rules;

/// <summary>A rule under the hands: as it is stored, as it is typed, and what that would come to.</summary>
public sealed class RuleSheet
{
    public Standing Standing { get; }

    /// <summary>The rule as it is stored; null for a new one.</summary>
    public FittingRule? Rule { get; }

    public RuleForm Form { get; }

    /// <summary>What is wrong, by the field's name on the sheet.</summary>
    public IReadOnlyDictionary<string, string> Errors { get; }

    /// <summary>The publication as it would be; as it is where nothing is changed, or what is typed cannot be.</summary>
    public Publication After { get; }

    /// <summary>Whether anything typed differs from what is stored.</summary>
    public bool Changed { get; }

    public Impact Impact { get; }

    /// <summary>The edit that would be made.</summary>
    public DefineRule Edit { get; }

    public RuleSheet(Standing standing, FittingRule? rule, RuleForm form)
    {
        Standing = standing;
        Rule = rule;
        Form = form;
        var errors = new FieldErrors();
        Edit = form.Read(Before, rule?.Id, errors);
        After = Before;
        try
        {
            errors.ThrowIfAny();
            var changes = Edit.On(Before);
            Changed = !changes.IsEmpty;
            After = Before.With(changes);
        }
        catch (EditRefused refused)
        {
            Changed = true;
            // A rule not begun yet has no name, and nobody need be told.
            Errors = refused.Errors.Where(e => rule is not null || e.Field != "name" || !string.IsNullOrWhiteSpace(form.Name))
                .GroupBy(e => FieldOf(e.Field)).ToDictionary(g => g.Key, g => string.Join(' ', g.Select(e => e.Message)));
        }
        Errors ??= new Dictionary<string, string>();
        Impact = Impact.Of(Before, After);
    }

    public Publication Before => Standing.Publication;

    /// <summary>The rule's id in <see cref="After"/>; null where there is none yet.</summary>
    public int? ShownId => Rule?.Id ?? (ReferenceEquals(After, Before) ? null : After.Rules.Keys.Except(Before.Rules.Keys).SingleOrDefault());

    public bool IsDefault => Rule is not null && Before.Setup.DefaultRuleId == Rule.Id;

    /// <summary>The frames that follow the rule as it is stored.</summary>
    public IReadOnlyList<Frame> Followers => Rule is null ? [] : field ??= [.. Cascade.Followers(Before, Rule.Id)];

    /// <summary>The rules based on it, directly or through others.</summary>
    public IReadOnlyList<FittingRule> Children => Rule is null ? [] : [.. Cascade.Reach(Before, Rule.Id).Where(id => id != Rule.Id)
        .Select(id => Before.Rules[id]).OrderBy(r => r.Name)];

    /// <summary>Where a setting comes from, in words: for one that is set, what it is set over.</summary>
    public string SourceOf(FitSetting setting)
    {
        bool set = !string.IsNullOrWhiteSpace(Form[setting]);
        var beneath = After.Rules.ContainsKey(Form.BasedOn ?? 0) && Form.BasedOn != Rule?.Id ? Form.BasedOn : null;
        // The default rule's own settings are not beneath themselves.
        bool ownDefault = ShownId is { } own && After.Setup.DefaultRuleId == own;
        var weaker = (ownDefault ? Cascade.Chain(After, beneath) : Cascade.Sources(After, beneath)).ToList();
        var source = weaker.Find(r => r.Settings.IsSet(setting));
        string value = SettingText.Words(setting, Cascade.Together(weaker).Resolve(), After.Setup.Unit);
        return set ? $"set here, over {value}" : $"open: {value}, {source?.Name ?? "built in"}";
    }

    /// <summary>"inset.top" and "align" of the automation interface are the fields insetTop and alignX here.</summary>
    private static string FieldOf(string name)
    {
        if (name == "align") return "alignX";
        int dot = name.IndexOf('.', StringComparison.Ordinal);
        return dot < 0 ? name : name[..dot] + char.ToUpperInvariant(name[dot + 1]) + name[(dot + 2)..];
    }
}

/// <summary>A change and the frames it would touch, with the button that makes it.</summary>
/// <param name="Standing">The publication as it is.</param>
/// <param name="After">As it would be.</param>
/// <param name="Impact">What that does.</param>
/// <param name="Title">What is to be done, in words.</param>
/// <param name="Handler">The handler that does it.</param>
/// <param name="Values">What that handler is to be sent; null for the rule's own form.</param>
/// <param name="Notes">What else there is to know.</param>
/// <param name="BlockedBy">Why it cannot be done as it stands; null where it can.</param>
public sealed record ImpactView(
    Standing Standing, Publication After, Impact Impact, string Title, string Handler, IReadOnlyDictionary<string, string>? Values,
        IReadOnlyList<string> Notes, string? BlockedBy = null)
{
    public bool Blocked => BlockedBy is not null;

    /// <summary>So many frames are shown; those after them get worse less.</summary>
    public const int Shown = 40;
}

using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Settings;
using Formatum.Core.Stories;
using Formatum.Output;
using Formatum.Storage;
using Formatum.Web.Wording;

namespace Formatum.Web.Styles;

/// <summary>A style under the hands: as it is stored, as it is typed, and what that would come to.</summary>
public sealed class StyleSheet
{
    public Standing Standing { get; }

    /// <summary>The style as it is stored; null for a new one.</summary>
    public NamedStyle? Style { get; }

    public StyleForm Form { get; }

    /// <summary>What is wrong, by the setting's name in the automation interface.</summary>
    public IReadOnlyDictionary<string, string> Errors { get; }

    /// <summary>The publication as it would be; as it is where nothing is changed, or what is typed cannot be.</summary>
    public Publication After { get; }

    /// <summary>Whether anything typed differs from what is stored.</summary>
    public bool Changed { get; }

    public TextImpact Impact { get; }

    public StyleSheet(Standing standing, NamedStyle? style, StyleForm form)
    {
        (Standing, Style, Form) = (standing, style, form);
        var errors = new FieldErrors();
        var edit = form.Read(Before, style?.Id, errors);
        After = Before;
        try
        {
            errors.ThrowIfAny();
            var changes = edit.On(Before);
            Changed = !changes.IsEmpty;
            After = Before.With(changes);
        }
        catch (EditRefused refused)
        {
            Changed = true;
            // A style not begun yet has no name, and nobody need be told.
            Errors = refused.Errors.Where(e => style is not null || e.Field != "name" || !string.IsNullOrWhiteSpace(form.Name))
                .GroupBy(e => e.Field.Replace("settings.", "", StringComparison.Ordinal)).ToDictionary(g => g.Key, g => string.Join(' ', g.Select(e =>
                    e.Message)));
        }
        Errors ??= new Dictionary<string, string>();
        Impact = TextImpact.Of(Before, After, Typefaces.All);
    }

    public Publication Before => Standing.Publication;

    /// <summary>The style's id in <see cref="After"/>; null where there is none yet.</summary>
    public int? ShownId => Style?.Id ?? (ReferenceEquals(After, Before) ? null : After.Styles.Keys.Except(Before.Styles.Keys).SingleOrDefault());

    /// <summary>The styles based on it, directly or through others.</summary>
    public IReadOnlyList<NamedStyle> Children => Style is null ? [] : [.. TextCascade.Reach(Before, Style.Id).Where(id => id != Style.Id)
        .Select(id => Before.Styles[id]).OrderBy(s => s.Name, StringComparer.OrdinalIgnoreCase)];

    /// <summary>In how many texts it says something.</summary>
    public int Texts => Style is null ? 0 : TextCascade.Followers(Before, Style.Id).Count();

    /// <summary>Where a setting comes from, in words: for one that is set, what it is set over.</summary>
    public string SourceOf(Setting<TextSettings> setting)
    {
        var beneath = After.Styles.ContainsKey(Form.BasedOn ?? 0) && Form.BasedOn != Style?.Id ? Form.BasedOn : null;
        bool ownDefault = ShownId is { } own && After.Setup.DefaultStyleId == own;
        var weaker = (Form.Kind == StyleKind.Character || ownDefault ? TextCascade.Chain(After, beneath) : TextCascade.ParagraphSources(After, beneath))
            .ToList();
        var source = weaker.Find(s => setting.IsSet(s.Settings));
        bool set = !string.IsNullOrWhiteSpace(Form[setting]);
        if (source is null && Form.Kind == StyleKind.Character) return set ? "set here" : "as its paragraph has it";
        string value = TextSettingText.Words(setting, source?.Settings ?? TextStyle.Usual.ToSettings(), After);
        return set ? $"set here, over {value}" : $"open: {value}, {source?.Name ?? "built in"}";
    }
}

/// <summary>A change of styles and the text frames it would touch, with the button that makes it.</summary>
/// <param name="Standing">The publication as it is.</param>
/// <param name="After">As it would be.</param>
/// <param name="Impact">What that does.</param>
/// <param name="Title">What is to be done, in words.</param>
/// <param name="Act">The handler that does it.</param>
/// <param name="Values">What that handler is to be sent; null for the style's own form.</param>
/// <param name="Notes">What else there is to know.</param>
/// <param name="BlockedBy">Why it cannot be done as it stands; null where it can.</param>
public sealed record TextImpactView(Standing Standing, Publication After, TextImpact Impact, string Title, string Act,
    IReadOnlyDictionary<string, string>? Values, IReadOnlyList<string> Notes, string? BlockedBy = null)
{
    /// <summary>So many frames are shown.</summary>
    public const int Shown = 30;
}

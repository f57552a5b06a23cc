using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Settings;
using Formatum.Core.Stories;
using Formatum.Web.Wording;

namespace Formatum.Web.Styles;

/// <summary>A style as it is typed: text, so that nothing typed is lost however wrong it is. An empty setting is one left open.</summary>
public sealed class StyleForm
{
    public string? Name { get; set; }
    public StyleKind Kind { get; set; }
    public int? BasedOn { get; set; }

    /// <summary>Whether all text of the publication rests on it.</summary>
    public bool Default { get; set; }

    /// <summary>The publication's revision when the form was made.</summary>
    public long Seen { get; set; }

    public Dictionary<string, string?> Set { get; set; } = [];

    public string? this[Setting<TextSettings> setting] => Set.GetValueOrDefault(setting.Name);

    /// <summary>The settings that a style of this kind has.</summary>
    public IReadOnlyList<Setting<TextSettings>> Settings => Kind == StyleKind.Paragraph ? TextSettings.All : TextSettings.OfCharacters;

    public static StyleForm Of(Publication publication, NamedStyle? style, StyleKind kind) => new()
    {
        Name = style?.Name,
        Kind = style?.Kind ?? kind,
        BasedOn = style?.BasedOnId,
        Default = style is not null && publication.Setup.DefaultStyleId == style.Id,
        Set = style is null ? [] : TextSettings.All.Where(s => s.IsSet(style.Settings))
            .ToDictionary(s => s.Name, s => (string?)TextSettingText.Value(s, style.Settings, publication)),
    };

    /// <summary>The edit that the form asks for; what cannot be read goes to <paramref name="errors"/>.</summary>
    public DefineStyle Read(Publication publication, int? styleId, FieldErrors errors)
    {
        var settings = TextSettings.Open;
        var now = TextStyle.Of(Kind == StyleKind.Paragraph ? TextCascade.OfParagraphs(publication, styleId ?? BasedOn)
            : TextCascade.OfCharacters(publication, styleId ?? BasedOn));
        var stored = (styleId is { } id ? publication.Styles.GetValueOrDefault(id) : null)?.Settings ?? TextSettings.Open;
        foreach (var setting in Settings.Where(s => !string.IsNullOrWhiteSpace(this[s])))
        {
            // What was not typed over stays to the last digit, of which the field shows three.
            bool untouched = setting.IsSet(stored) && this[setting] == TextSettingText.Value(setting, stored, publication);
            settings = untouched ? setting.Taken(settings, stored) : settings.Over(TextSettingText.Read(setting, this[setting]!, now, publication, errors));
        }
        bool wasDefault = styleId is not null && publication.Setup.DefaultStyleId == styleId;
        return new()
        {
            StyleId = styleId,
            Kind = Kind,
            Name = Name ?? "",
            BasedOnId = BasedOn,
            Settings = settings,
            Default = Default == wasDefault ? null : Default,
        };
    }
}

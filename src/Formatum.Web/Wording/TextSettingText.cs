using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Settings;
using Formatum.Core.Stories;

namespace Formatum.Web.Wording;

/// <summary>Settings of text as text: shown in fields, read back from what is typed. Type is measured in points.</summary>
public static partial class TextSettingText
{
    private const string Auto = "auto", None = "none";

    /// <summary>The value as a field shows it: what <see cref="Read"/> reads.</summary>
    public static string Value(Setting<TextSettings> setting, TextSettings settings, Publication publication) => setting.ValueOf(settings) switch
    {
        null => "",
        Colour colour => ColourText.Value(publication, colour),
        0.0 when setting.Name == nameof(TextSettings.Leading) => Auto,
        double number => Math.Round(number, 3).ToString("0.###", CultureInfo.InvariantCulture),
        bool yes => yes ? "true" : "false",
        TabStops { Stops.Length: 0 } => None,
        TabStops tabs => string.Join("; ", tabs.Stops.Select(Stop)),
        var other => other.ToString()!,
    };

    private static string Stop(TabStop stop) => string.Create(CultureInfo.InvariantCulture,
        $"{Math.Round(stop.At, 3):0.###}{(stop.Alignment == TabAlignment.Left ? "" : " " + stop.Alignment.ToString().ToLowerInvariant())}" +
        $"{(stop.Leader.Length == 0 ? "" : stop.Leader.AsSpan().ContainsAny(' ', ';') ? $" \"{stop.Leader}\"" : " " + stop.Leader)}");

    /// <summary>The value in words.</summary>
    public static string Words(Setting<TextSettings> setting, TextSettings settings, Publication publication) => (setting.Kind,
        setting.ValueOf(settings)) switch
    {
        (_, bool yes) => yes ? "yes" : "no",
        (_, Enum choice) => Choice(choice),
        (SettingKind.Choice, string language) when setting.Name == nameof(TextSettings.Language) => LanguageNames.Name(language),
        (SettingKind.Length, double) when Value(setting, settings, publication) is not Auto and var points => points + " pt",
        _ => Value(setting, settings, publication),
    };

    /// <summary>What a choice is called.</summary>
    public static string Choice(Enum choice) => choice switch
    {
        TextCase.AsTyped => "as typed",
        FigureStyle.OldStyle => "old style",
        BreakBefore.None => "the same place",
        ListKind.None or TextPosition.Normal => choice is ListKind ? "no list" : "on the line",
        _ => choice.ToString().ToLowerInvariant(),
    };

    /// <summary>What a setting can be chosen among; nothing where it is typed.</summary>
    /// <param name="setting">Which.</param>
    /// <param name="families">The font families that there are.</param>
    public static IEnumerable<(string Value, string Words)> Choices(Setting<TextSettings> setting, IEnumerable<string> families) => setting.Name switch
    {
        nameof(TextSettings.Family) => families.Select(f => (f, f)),
        nameof(TextSettings.Language) => LanguageNames.Known.Select(l => (l, LanguageNames.Name(l))),
        nameof(TextSettings.Position) => Of<TextPosition>(),
        nameof(TextSettings.Case) => Of<TextCase>(),
        nameof(TextSettings.Figures) => Of<FigureStyle>(),
        nameof(TextSettings.Alignment) => Of<TextAlignment>(),
        nameof(TextSettings.List) => Of<ListKind>(),
        nameof(TextSettings.BreakBefore) => Of<BreakBefore>(),
        _ => [],
    };

    private static IEnumerable<(string, string)> Of<T>() where T : struct, Enum => Enum.GetValues<T>().Select(v => (v.ToString(), Choice(v)));

    /// <summary>Settings of which just this one is set, to what was typed; none is where that is no value.</summary>
    /// <param name="setting">Which.</param>
    /// <param name="text">What was typed.</param>
    /// <param name="now">What holds now: "+2" goes on from there.</param>
    /// <param name="publication">Whose palette is meant.</param>
    /// <param name="errors">Takes what is wrong, under the setting's name.</param>
    public static TextSettings Read(Setting<TextSettings> setting, string text, TextStyle now, Publication publication, FieldErrors errors)
    {
        string typed = text.Trim(), field = setting.Path;
        double current = setting.ValueOf(now.ToSettings()) as double? ?? 0;
        if (setting.Name == nameof(TextSettings.Leading)) current = now.LineHeight;
        object? value = setting.Kind switch
        {
            SettingKind.YesNo => typed is "true" or "on",
            SettingKind.Number => FigureText.Read(typed, current, setting.Range?.Least < 0),
            SettingKind.Length when setting.Name == nameof(TextSettings.Leading) && typed is Auto => 0.0,
            SettingKind.Length => SettingText.Length(field, typed, LengthUnit.Point, current, setting.Range?.Least < 0, errors),
            SettingKind.Tabs => Tabs(field, typed, errors),
            SettingKind.Colour => ColourText.Read(publication, field, typed, errors),
            _ => Chosen(setting, typed, errors),
        };
        if (value is null && setting.Kind == SettingKind.Number) errors.Add(field, $"\u201c{text}\u201d is not a number. Type one, such as 2.");
        return value is null ? TextSettings.Open : setting.Set(TextSettings.Open, value);
    }

    private static object? Chosen(Setting<TextSettings> setting, string typed, FieldErrors errors) => setting.Name switch
    {
        nameof(TextSettings.Position) => SettingText.Choice<TextPosition>(setting.Path, typed, errors),
        nameof(TextSettings.Case) => SettingText.Choice<TextCase>(setting.Path, typed, errors),
        nameof(TextSettings.Figures) => SettingText.Choice<FigureStyle>(setting.Path, typed, errors),
        nameof(TextSettings.Alignment) => SettingText.Choice<TextAlignment>(setting.Path, typed, errors),
        nameof(TextSettings.List) => SettingText.Choice<ListKind>(setting.Path, typed, errors),
        nameof(TextSettings.BreakBefore) => SettingText.Choice<BreakBefore>(setting.Path, typed, errors),
        _ => typed,
    };

    /// <summary>A stop, of which a leader with blanks stands between quotation marks.</summary>
    [System.Text.RegularExpressions.GeneratedRegex("(?<stop>[^;\"]+)(\"(?<leader>[^\"]*)\")?\\s*(;|$)")]
    private static partial System.Text.RegularExpressions.Regex StopTyped();

    /// <summary>Tab stops as they are typed: "40 right .; 25 mm; 120 decimal; 160 right " ."".</summary>
    private static TabStops? Tabs(string field, string typed, FieldErrors errors)
    {
        if (typed is None) return TabStops.None;
        var stops = new List<TabStop>();
        foreach (System.Text.RegularExpressions.Match match in StopTyped().Matches(typed))
        {
            string one = match.Groups["stop"].Value.Trim();
            if (one.Length == 0) continue;
            string[] parts = one.Split(' ', StringSplitOptions.RemoveEmptyEntries);
            int named = Array.FindIndex(parts, p => Enum.TryParse<TabAlignment>(p, true, out _) && !char.IsDigit(p[0]));
            int length = named > 0 ? named : parts.Length > 1 && char.IsLetter(parts[1][0]) && Units.TryParse(parts[0] + parts[1], LengthUnit.Point, out _)
                ? 2 : 1;
            if (!Units.TryParse(string.Concat(parts[..length]), LengthUnit.Point, out double at))
            {
                errors.Add(field, $"\u201c{one}\u201d is not a tab stop. Type where it is, what stands there and what leads to it, such as " +
                    "\u201c40 right .\u201d.");
                return null;
            }
            var alignment = named > 0 ? Enum.Parse<TabAlignment>(parts[named], ignoreCase: true) : TabAlignment.Left;
            string leader = match.Groups["leader"] is { Success: true } quoted ? quoted.Value : string.Join(' ', parts[(named > 0 ? named + 1 : length)..]);
            stops.Add(new(at, alignment, leader));
        }
        return new([.. stops.OrderBy(s => s.At)]);
    }
}

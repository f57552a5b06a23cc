using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Settings;

namespace Formatum.Web.Wording;

/// <summary>Fitting settings as text: shown in fields, read back from what is typed.</summary>
public static class SettingText
{
    public static readonly IReadOnlyList<FitSetting> All = Enum.GetValues<FitSetting>();

    public static string Label(FitSetting setting) => FitSettings.Of(setting).Label;

    /// <summary>The value as a field shows it: what <see cref="Read"/> reads.</summary>
    public static string Value(FitSetting setting, in ResolvedFit fit, LengthUnit unit)
    {
        object value = ValueOf(setting, fit);
        return FitSettings.Of(setting).Kind switch
        {
            SettingKind.Share => Share((double)value),
            SettingKind.Length => Length((double)value, unit),
            SettingKind.Angle => Number((double)value),
            SettingKind.YesNo => (bool)value ? "true" : "false",
            SettingKind.Resolution => (double)value > 0 ? Number((double)value) : "none",
            SettingKind.Scale => (double)value > 0 ? Share((double)value) : "none",
            _ => value.ToString()!,
        };
    }

    /// <summary>The value in words, with its unit.</summary>
    public static string Words(FitSetting setting, in ResolvedFit fit, LengthUnit unit)
    {
        object value = ValueOf(setting, fit);
        return (FitSettings.Of(setting).Kind, value) switch
        {
            (SettingKind.Length, double points) => Units.Text(points, unit),
            (SettingKind.Angle, double degrees) => Number(degrees) + "\u00b0",
            (SettingKind.Resolution, > 0.0) => Number((double)value) + " ppi",
            (SettingKind.YesNo, false) when setting == FitSetting.StaysFitted => "no, it holds",
            (SettingKind.YesNo, bool yes) => yes ? "yes" : "no",
            (_, FitKind kind) => Wording.Words.Name(kind),
            (_, LimitAction action) => action == LimitAction.Hold ? "hold the scale back" : "only flag it",
            _ => Value(setting, fit, unit),
        };
    }

    private static object ValueOf(FitSetting setting, in ResolvedFit fit) => FitSettings.Of(setting).ValueOf(fit.ToSettings())!;

    /// <summary>Settings of which just this one is set, to what was typed; none is where that is no value.</summary>
    /// <param name="setting">Which.</param>
    /// <param name="text">What was typed.</param>
    /// <param name="unit">The unit of lengths that name none.</param>
    /// <param name="now">What holds now: "+2mm" goes on from there.</param>
    /// <param name="errors">Takes what is wrong, under the setting's name.</param>
    public static FitSettings Read(FitSetting setting, string? text, LengthUnit unit, in ResolvedFit now, FieldErrors errors)
    {
        string typed = (text ?? "").Trim();
        object? value = FitSettings.Of(setting).Kind switch
        {
            SettingKind.Choice => setting == FitSetting.Fit ? Choice<FitKind>(Field(setting), typed, errors) : Choice<LimitAction>(Field(setting), typed,
                errors),
            SettingKind.Length => Length(Field(setting), typed, unit, (double)ValueOf(setting, now), true, errors),
            SettingKind.Share => Figure(setting, typed, now, "%", "a percentage. Type one, such as 50 or 50 %.", errors) / 100,
            SettingKind.Angle => Figure(setting, typed, now, "\u00b0", "an angle. Type degrees, such as 15 or -90.", errors),
            SettingKind.Resolution => IsNone(typed) ? 0.0 : Figure(setting, typed, now, "ppi", "a number. Type a resolution such as 300, or none.", errors),
            SettingKind.Scale => IsNone(typed) ? 0.0 : Figure(setting, typed, now, "%", "a percentage. Type one, such as 50 or 50 %.", errors) / 100,
            _ => typed is "true" or "on",
        };
        return value is null ? FitSettings.Open : FitSettings.Of(setting).Set(FitSettings.Open, value);
    }

    /// <summary>The setting's name in forms and messages: "insetTop".</summary>
    public static string Field(FitSetting setting) => char.ToLowerInvariant(setting.ToString()[0]) + setting.ToString()[1..];

    /// <summary>A number typed by people: a decimal comma counts as a point.</summary>
    public static double? Number(string? text) =>
        double.TryParse((text ?? "").Trim().Replace(',', '.').Replace('\u2212', '-'), NumberStyles.Float, CultureInfo.InvariantCulture, out double value)
            && double.IsFinite(value) ? value : null;

    /// <summary>An angle typed in degrees; null where it is none, which is told under the field's name.</summary>
    public static double? Angle(string field, string text, double current, FieldErrors errors)
    {
        if (FigureText.Degrees(text, current) is { } angle) return angle;
        errors.Add(field, $"\u201c{text}\u201d is not an angle. Type degrees, such as 3 or -90.");
        return null;
    }

    private static bool IsNone(string text) => text.Length == 0 || string.Equals(text, "none", StringComparison.OrdinalIgnoreCase);

    /// <summary>To a thousandth.</summary>
    public static string Number(double value) => value.ToString("0.###", CultureInfo.InvariantCulture);

    private static string Share(double share) => Number(share * 100) + " %";

    private static string Length(double points, LengthUnit unit) => unit == LengthUnit.Pica ? Units.Text(points, unit) : Units.Number(points, unit);

    /// <summary>One of a list, by its name; null where it is none of them.</summary>
    public static T? Choice<T>(string field, string text, FieldErrors errors) where T : struct, Enum
    {
        if (Enum.TryParse(text, ignoreCase: true, out T value) && Enum.IsDefined(value)) return value;
        errors.Add(field, "Choose one of the list.");
        return null;
    }

    private static double? Figure(FitSetting setting, string text, in ResolvedFit now, string sign, string remedy, FieldErrors errors)
    {
        var of = FitSettings.Of(setting);
        double current = (double)ValueOf(setting, now) * (sign == "%" ? 100 : 1);
        if (FigureText.Read(text, current, of.Kind == SettingKind.Angle || of.Range?.Least < 0, sign) is { } value) return value;
        errors.Add(Field(setting), $"\u201c{text}\u201d is not {remedy}");
        return null;
    }

    /// <summary>A length typed by people in any field: a number, with a unit or arithmetic if they like. What is none is told under the field's name.</summary>
    /// <param name="field">The field.</param>
    /// <param name="text">What was typed.</param>
    /// <param name="unit">The unit of numbers that name none.</param>
    /// <param name="current">The current value, in points: "+2mm" and "50%" are meant of it.</param>
    /// <param name="mayBeNegative">Whether "-2mm" is a length, rather than two less than there is.</param>
    /// <param name="errors">Takes what is wrong.</param>
    public static double? Length(string field, string? text, LengthUnit unit, double current, bool mayBeNegative, FieldErrors errors)
    {
        if (LengthExpression.TryRead(text, unit, current, mayBeNegative, out double points)) return points;
        errors.Add(field, string.IsNullOrWhiteSpace(text) ? "Type a length, such as 15 mm."
            : $"\u201c{text}\u201d is not a length. Type a number, with a unit or arithmetic if you like: 84, 84mm, 3p6, 210mm/3, +5mm, 50%.");
        return null;
    }
}

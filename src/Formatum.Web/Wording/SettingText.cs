using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Web.Wording;

/// <summary>Fitting settings as text: shown in fields, read back from what is typed.</summary>
public static class SettingText
{
    public static readonly IReadOnlyList<FitSetting> All = Enum.GetValues<FitSetting>();

    public static string Label(FitSetting setting) => setting switch
    {
        FitSetting.AlignX => "Alignment across",
        FitSetting.AlignY => "Alignment down",
        FitSetting.InsetTop => "Inset, top",
        FitSetting.InsetRight => "Inset, right",
        FitSetting.InsetBottom => "Inset, bottom",
        FitSetting.InsetLeft => "Inset, left",
        FitSetting.Rotation => "Rotation",
        FitSetting.FlipX => "Flip left to right",
        FitSetting.FlipY => "Flip top to bottom",
        FitSetting.SmallestPpi => "Smallest effective ppi",
        FitSetting.LargestEnlargement => "Largest enlargement",
        FitSetting.Limits => "Beyond a limit",
        FitSetting.LargestCrop => "Largest crop",
        FitSetting.StaysFitted => "Stays fitted",
        _ => setting.ToString(),
    };

    /// <summary>The value as a field shows it: what <see cref="Read"/> reads.</summary>
    public static string Value(FitSetting setting, in ResolvedFit fit, LengthUnit unit) => setting switch
    {
        FitSetting.Fit => fit.Fit.ToString(),
        FitSetting.AlignX => Share(fit.AlignX),
        FitSetting.AlignY => Share(fit.AlignY),
        FitSetting.InsetTop => Length(fit.Inset.Top, unit),
        FitSetting.InsetRight => Length(fit.Inset.Right, unit),
        FitSetting.InsetBottom => Length(fit.Inset.Bottom, unit),
        FitSetting.InsetLeft => Length(fit.Inset.Left, unit),
        FitSetting.Rotation => Number(fit.Rotation),
        FitSetting.FlipX => fit.FlipX ? "true" : "false",
        FitSetting.FlipY => fit.FlipY ? "true" : "false",
        FitSetting.SmallestPpi => fit.SmallestPpi > 0 ? Number(fit.SmallestPpi) : "none",
        FitSetting.LargestEnlargement => fit.LargestEnlargement > 0 ? Share(fit.LargestEnlargement) : "none",
        FitSetting.Limits => fit.Limits.ToString(),
        FitSetting.LargestCrop => Share(fit.LargestCrop),
        _ => fit.StaysFitted ? "true" : "false",
    };

    /// <summary>The value in words, with its unit.</summary>
    public static string Words(FitSetting setting, in ResolvedFit fit, LengthUnit unit) => setting switch
    {
        FitSetting.Fit => Wording.Words.Name(fit.Fit),
        FitSetting.InsetTop => Units.Text(fit.Inset.Top, unit),
        FitSetting.InsetRight => Units.Text(fit.Inset.Right, unit),
        FitSetting.InsetBottom => Units.Text(fit.Inset.Bottom, unit),
        FitSetting.InsetLeft => Units.Text(fit.Inset.Left, unit),
        FitSetting.Rotation => Number(fit.Rotation) + "\u00b0",
        FitSetting.FlipX => fit.FlipX ? "yes" : "no",
        FitSetting.FlipY => fit.FlipY ? "yes" : "no",
        FitSetting.SmallestPpi => fit.SmallestPpi > 0 ? Number(fit.SmallestPpi) + " ppi" : "none",
        FitSetting.Limits => fit.Limits == LimitAction.Hold ? "hold the scale back" : "only flag it",
        FitSetting.StaysFitted => fit.StaysFitted ? "yes" : "no, it holds",
        _ => Value(setting, fit, unit),
    };

    /// <summary>Settings of which just this one is set, to what was typed.</summary>
    /// <param name="setting">Which.</param>
    /// <param name="text">What was typed.</param>
    /// <param name="unit">The unit of lengths that name none.</param>
    /// <param name="now">What holds now: "+2mm" goes on from there.</param>
    /// <param name="errors">Takes what is wrong, under the setting's name.</param>
    public static FitSettings Read(FitSetting setting, string? text, LengthUnit unit, in ResolvedFit now, FieldErrors errors)
    {
        string typed = (text ?? "").Trim();
        double? ReadLength(double current) => Length(Field(setting), typed, unit, current, true, errors);
        var inset = now.Inset;
        return setting switch
        {
            FitSetting.Fit => new() { Fit = Named<FitKind>(setting, typed, errors) },
            FitSetting.AlignX => new() { AlignX = ReadShare(setting, typed, errors) },
            FitSetting.AlignY => new() { AlignY = ReadShare(setting, typed, errors) },
            FitSetting.InsetTop => new() { InsetTop = ReadLength(inset.Top) },
            FitSetting.InsetRight => new() { InsetRight = ReadLength(inset.Right) },
            FitSetting.InsetBottom => new() { InsetBottom = ReadLength(inset.Bottom) },
            FitSetting.InsetLeft => new() { InsetLeft = ReadLength(inset.Left) },
            FitSetting.Rotation => new() { Rotation = ReadNumber(setting, typed.TrimEnd('\u00b0'), "Type degrees, such as 15 or -90.", errors) },
            FitSetting.FlipX => new() { FlipX = typed is "true" or "on" },
            FitSetting.FlipY => new() { FlipY = typed is "true" or "on" },
            FitSetting.SmallestPpi => new() { SmallestPpi = IsNone(typed) ? 0 : ReadNumber(setting, Without(typed, "ppi"), "Type a resolution such as 300, or none.", errors) },
            FitSetting.LargestEnlargement => new() { LargestEnlargement = IsNone(typed) ? 0 : ReadShare(setting, typed, errors) },
            FitSetting.Limits => new() { Limits = Named<LimitAction>(setting, typed, errors) },
            FitSetting.LargestCrop => new() { LargestCrop = ReadShare(setting, typed, errors) },
            _ => new() { StaysFitted = typed is "true" or "on" },
        };
    }

    /// <summary>The setting's name in forms and messages: "insetTop".</summary>
    public static string Field(FitSetting setting) => char.ToLowerInvariant(setting.ToString()[0]) + setting.ToString()[1..];

    /// <summary>A number typed by people: a decimal comma counts as a point.</summary>
    public static double? Number(string? text) =>
        double.TryParse((text ?? "").Trim().Replace(',', '.').Replace('\u2212', '-'), NumberStyles.Float, CultureInfo.InvariantCulture, out double value) && double.IsFinite(value) ? value : null;

    /// <summary>A share typed as a percentage, with or without its sign.</summary>
    public static double? Percentage(string? text) => Number(Without((text ?? "").Trim(), "%")) / 100;

    private static string Without(string text, string unit) => text.EndsWith(unit, StringComparison.OrdinalIgnoreCase) ? text[..^unit.Length] : text;

    private static bool IsNone(string text) => text.Length == 0 || string.Equals(text, "none", StringComparison.OrdinalIgnoreCase);

    private static string Number(double value) => value.ToString("0.###", CultureInfo.InvariantCulture);

    private static string Share(double share) => Number(share * 100) + " %";

    private static string Length(double points, LengthUnit unit) => unit == LengthUnit.Pica ? Units.Text(points, unit) : Units.Number(points, unit);

    private static T? Named<T>(FitSetting setting, string text, FieldErrors errors) where T : struct, Enum
    {
        if (Enum.TryParse(text, ignoreCase: true, out T value) && Enum.IsDefined(value)) return value;
        errors.Add(Field(setting), "Choose one of the list.");
        return null;
    }

    private static double? ReadShare(FitSetting setting, string text, FieldErrors errors)
    {
        if (Percentage(text) is { } share) return share;
        errors.Add(Field(setting), $"\u201c{text}\u201d is not a percentage. Type one, such as 50 or 50 %.");
        return null;
    }

    private static double? ReadNumber(FitSetting setting, string text, string remedy, FieldErrors errors)
    {
        if (Number(text) is { } value) return value;
        errors.Add(Field(setting), $"\u201c{text}\u201d is not a number. {remedy}");
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
        errors.Add(field, string.IsNullOrWhiteSpace(text) ? "Type a length, such as 15 mm." : $"\u201c{text}\u201d is not a length. Type a number, with a unit or arithmetic if you like: 84, 84mm, 3p6, 210mm/3, +5mm, 50%.");
        return null;
    }
}

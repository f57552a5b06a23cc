using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Web.Wording;

namespace Formatum.Web.Checking;

/// <summary>A check profile as it is typed.</summary>
public sealed class ProfileForm
{
    public string? Name { get; set; }
    public string? LeastPpi { get; set; }
    public string? WantedPpi { get; set; }
    public string? MostInk { get; set; }
    public string? Bleed { get; set; }
    public string? SafeDistance { get; set; }
    public string? ThinnestLine { get; set; }
    public string? SmallestType { get; set; }

    /// <summary>How much each kind counts, by its name.</summary>
    public Dictionary<string, Severity> Kinds { get; set; } = [];

    public static ProfileForm Of(CheckProfile p, LengthUnit unit) => new()
    {
        Name = p.Name,
        LeastPpi = Number(p.LeastPpi),
        WantedPpi = Number(p.WantedPpi),
        MostInk = Number(p.MostInk),
        Bleed = Units.Text(p.Bleed, unit),
        SafeDistance = Units.Text(p.SafeDistance, unit),
        ThinnestLine = Units.Text(p.ThinnestLine, LengthUnit.Point),
        SmallestType = Units.Text(p.SmallestType, LengthUnit.Point),
        Kinds = Enum.GetValues<FindingKind>().ToDictionary(k => k.ToString(), p.SeverityOf),
    };

    private static string Number(double? value) => value?.ToString("0.##", CultureInfo.InvariantCulture) ?? "";

    /// <summary>The profile that was typed.</summary>
    /// <param name="basis">The one that the form began with: "+1" goes on from it.</param>
    /// <param name="unit">The unit of lengths that name none.</param>
    /// <exception cref="EditRefused">Something is no number, or impossible.</exception>
    public CheckProfile Read(CheckProfile basis, LengthUnit unit)
    {
        var errors = new FieldErrors();
        double Length(string field, string? text, LengthUnit bare, double current) => SettingText.Length(field, text, bare, current, false, errors) ?? 0;
        double? Figure(string field, string? text, string sign, double? current)
        {
            if (string.IsNullOrWhiteSpace(text)) return null;
            if (FigureText.Read(text, current ?? 0, sign: sign) is { } number) return number;
            errors.Add(field, $"\u201c{text}\u201d is no number. Type one, such as 300.");
            return null;
        }
        var profile = new CheckProfile
        {
            Id = 0,
            Name = Name?.Trim() ?? "",
            LeastPpi = Figure("leastPpi", LeastPpi, "ppi", basis.LeastPpi),
            WantedPpi = Figure("wantedPpi", WantedPpi, "ppi", basis.WantedPpi),
            MostInk = Figure("mostInk", MostInk, "%", basis.MostInk) ?? 400,
            Bleed = Length("bleed", Bleed, unit, basis.Bleed),
            SafeDistance = Length("safeDistance", SafeDistance, unit, basis.SafeDistance),
            ThinnestLine = Length("thinnestLine", ThinnestLine, LengthUnit.Point, basis.ThinnestLine),
            SmallestType = Length("smallestType", SmallestType, LengthUnit.Point, basis.SmallestType),
            Kinds = [.. Enum.GetValues<FindingKind>().Where(k => Kinds.ContainsKey(k.ToString())).Select(k => new KindSeverity(k, Kinds[k.ToString()]))],
        };
        profile.Check(errors);
        errors.ThrowIfAny();
        return profile;
    }
}

using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

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
    /// <exception cref="EditRefused">Something is no number, or impossible.</exception>
    public CheckProfile Read(LengthUnit unit)
    {
        var errors = new FieldErrors();
        double Length(string field, string? text, LengthUnit bare)
        {
            if (Units.TryParse(text, bare, out double points)) return points;
            errors.Add(field, $"\u201c{text}\u201d is no length. Type one, such as 3 mm.");
            return 0;
        }
        double? Figure(string field, string? text)
        {
            if (string.IsNullOrWhiteSpace(text)) return null;
            string digits = text.Replace("ppi", "", StringComparison.OrdinalIgnoreCase).Replace("%", "", StringComparison.Ordinal).Replace(',', '.').Trim();
            if (double.TryParse(digits, NumberStyles.Float, CultureInfo.InvariantCulture, out double number) && double.IsFinite(number)) return number;
            errors.Add(field, $"\u201c{text}\u201d is no number. Type one, such as 300.");
            return null;
        }
        var profile = new CheckProfile
        {
            Id = 0,
            Name = Name?.Trim() ?? "",
            LeastPpi = Figure("leastPpi", LeastPpi),
            WantedPpi = Figure("wantedPpi", WantedPpi),
            MostInk = Figure("mostInk", MostInk) ?? 400,
            Bleed = Length("bleed", Bleed, unit),
            SafeDistance = Length("safeDistance", SafeDistance, unit),
            ThinnestLine = Length("thinnestLine", ThinnestLine, LengthUnit.Point),
            SmallestType = Length("smallestType", SmallestType, LengthUnit.Point),
            Kinds = [.. Enum.GetValues<FindingKind>().Where(k => Kinds.ContainsKey(k.ToString())).Select(k => new KindSeverity(k, Kinds[k.ToString()]))],
        };
        profile.Check(errors);
        errors.ThrowIfAny();
        return profile;
    }
}

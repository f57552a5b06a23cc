using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Geometry;

namespace Formatum.Core.Publications;

/// <summary>How much one kind of finding counts.</summary>
public readonly record struct KindSeverity(FindingKind Kind, Severity Severity);

/// <summary>What a publication is checked for, and by which figures.</summary>
public sealed record CheckProfile : Part
{
    public const int LongestName = 100, Most = 50;

    public required int Id { get; init; }
    public required string Name { get; init; }

    /// <summary>How much each kind counts; one that is not named counts as it does under Offset.</summary>
    public ImmutableArray<KindSeverity> Kinds { get; init => field = value.IsDefault ? [] : value; } = [];

    /// <summary>The least effective resolution of pictures, in ppi; null for that of the set-up.</summary>
    public double? LeastPpi { get; init; }

    /// <summary>The wanted effective resolution of pictures, in ppi; null for that of the set-up.</summary>
    public double? WantedPpi { get; init; }

    /// <summary>The most ink that may come together at a place, in per cent of one ink in full: up to 400.</summary>
    public double MostInk { get; init; } = 320;

    /// <summary>How far what touches the trim has to reach beyond it, in points.</summary>
    public double Bleed { get; init; } = Units.Millimetres(3);

    /// <summary>How far from the trim what does not touch it has to stay, in points.</summary>
    public double SafeDistance { get; init; } = Units.Millimetres(3);

    /// <summary>The thinnest line, in points.</summary>
    public double ThinnestLine { get; init; } = 0.25;

    /// <summary>The smallest type, in points.</summary>
    public double SmallestType { get; init; } = 5;

    public override PartKey Key => new(PartKind.CheckProfile, Id);

    public Severity SeverityOf(FindingKind kind)
    {
        foreach (var named in Kinds)
            if (named.Kind == kind) return named.Severity;
        return UsualSeverity(kind);
    }

    /// <summary>The least resolution in a publication, in ppi.</summary>
    public double LeastPpiIn(Setup setup) => LeastPpi ?? setup.FloorPpi;

    /// <summary>The wanted resolution in a publication, in ppi; never below the least.</summary>
    public double WantedPpiIn(Setup setup) => Math.Max(WantedPpi ?? setup.PrintPpi, LeastPpiIn(setup));

    private static Severity UsualSeverity(FindingKind kind) => kind switch
    {
        FindingKind.LinkMissing or FindingKind.BelowLeastPpi or FindingKind.TextLeftOver or FindingKind.GlyphsMissing or FindingKind.NoBleed
            or FindingKind.TooMuchInk => Severity.Fault,
        FindingKind.HiddenContent or FindingKind.FontNotEmbeddable or FindingKind.PageBlank or FindingKind.BelowWantedPpi => Severity.Note,
        // What does no harm in print.
        FindingKind.RuleUnused or FindingKind.StyleUnused or FindingKind.LookUnused or FindingKind.PictureTwice or FindingKind.LockedContent => Severity.Off,
        _ => Severity.Warning,
    };

    private static readonly FindingKind[] OfInk = [FindingKind.TooMuchInk, FindingKind.ColourNotOfIntent, FindingKind.BlackOfManyInks,
        FindingKind.Blended];

    private static readonly FindingKind[] OfSheets = [FindingKind.NoBleed, FindingKind.NearTrim, FindingKind.AcrossFold, FindingKind.PagesNotInFours];

    private static ImmutableArray<KindSeverity> With(Severity severity, params IEnumerable<FindingKind> kinds) => [.. kinds.Select(k => new KindSeverity(k,
        severity))];

    /// <summary>The id of the one that holds where none was chosen.</summary>
    public const int OffsetId = -3;

    /// <summary>Profiles that every publication has; their ids are below 0. All figures are common practice, no source.</summary>
    public static readonly ImmutableArray<CheckProfile> Usual =
    [
        new()
        {
            Id = -1, Name = "Draft", LeastPpi = 72, WantedPpi = 72, SmallestType = 4,
            Kinds =
            [
                .. With(Severity.Warning, FindingKind.LinkMissing, FindingKind.BelowLeastPpi, FindingKind.TextLeftOver, FindingKind.GlyphsMissing),
                .. With(Severity.Note, FindingKind.LinkChanged, FindingKind.EmptyPlaceholder, FindingKind.RuleUnused, FindingKind.StyleUnused,
                    FindingKind.LookUnused, FindingKind.PictureTwice),
                .. With(Severity.Off, [.. OfInk, .. OfSheets, FindingKind.BelowWantedPpi, FindingKind.PageBlank]),
            ],
        },
        new()
        {
            Id = -2, Name = "Office printer", LeastPpi = 100, WantedPpi = 200, Bleed = 0, SafeDistance = Units.Millimetres(5), SmallestType = 6,
            Kinds = [.. With(Severity.Off, [.. OfInk, FindingKind.NoBleed, FindingKind.PagesNotInFours])],
        },
        new() { Id = OffsetId, Name = "Offset" },
        new()
        {
            Id = -4, Name = "Newspaper", LeastPpi = 100, WantedPpi = 200, MostInk = 240, ThinnestLine = 0.5, SmallestType = 7,
        },
        new()
        {
            Id = -5, Name = "Screen", LeastPpi = 72, WantedPpi = 144, SmallestType = 7,
            Kinds = [.. With(Severity.Off, [.. OfInk, .. OfSheets, FindingKind.ThinLine])],
        },
    ];

    /// <summary>The profile of an id: one of the publication's own, or a usual one; Offset where there is none.</summary>
    public static CheckProfile Of(Publication publication, int? id) => publication.CheckProfiles.GetValueOrDefault(id ?? OffsetId)
        ?? Usual.FirstOrDefault(p => p.Id == id) ?? Usual.Single(p => p.Id == OffsetId);

    /// <summary>The usual profiles and the publication's own, in the order they are listed in.</summary>
    public static IEnumerable<CheckProfile> All(Publication publication) => Usual.Concat(publication.CheckProfiles.Values
        .OrderBy(p => p.Name, StringComparer.OrdinalIgnoreCase));

    /// <summary>The profile of a name, in whichever letters; null where there is none. A usual one is also found by its first word.</summary>
    public static CheckProfile? Named(Publication publication, string name) => All(publication).FirstOrDefault(p => string.Equals(p.Name, name.Trim(),
        StringComparison.OrdinalIgnoreCase)) ?? Usual.FirstOrDefault(p => string.Equals(p.Name.Split(' ')[0], name.Trim(), StringComparison.OrdinalIgnoreCase));

    /// <summary>Whether it is one that every publication has.</summary>
    public bool IsUsual => Id < 0;

    public void Check(FieldErrors errors)
    {
        if (string.IsNullOrWhiteSpace(Name)) errors.Add("name", "A profile needs a name. Type one, such as \"Our printer\".");
        errors.Name(Name, LongestName);
        foreach (var (kind, severity) in Kinds)
        {
            errors.Choice("kinds", kind);
            errors.Choice("kinds", severity);
        }
        if (Kinds.DistinctBy(k => k.Kind).Count() != Kinds.Length) errors.Add("kinds", "A kind is named twice. Name each once.");
        errors.Range("leastPpi", LeastPpi, 1, 10_000, "Give a resolution between 1 and 10,000 ppi; 150 is a usual least.");
        errors.Range("wantedPpi", WantedPpi, 1, 10_000, "Give a resolution between 1 and 10,000 ppi; 300 is usual for print.");
        if (LeastPpi > WantedPpi) errors.Add("leastPpi", "The least resolution lies above the wanted one. Make it lower.");
        errors.Range("mostInk", MostInk, 100, 400, "Ink comes from 100 to 400 %; 300 to 330 % are usual for coated paper.");
        errors.Length("bleed", Bleed, 0, Setup.LargestBleed, "Bleed lies between 0 and 100 mm; printers usually ask for 3 mm.");
        errors.Length("safeDistance", SafeDistance, 0, Setup.LargestBleed, "A safe distance lies between 0 and 100 mm; 3 to 5 mm are usual.");
        errors.Length("thinnestLine", ThinnestLine, 0, 72, "The thinnest line lies between 0 and 72 pt; 0.25 pt is usual.");
        errors.Length("smallestType", SmallestType, 0, 72, "The smallest type lies between 0 and 72 pt; 5 to 7 pt are usual.");
    }

    public bool Equals(CheckProfile? other) => other is not null && Id == other.Id && Name == other.Name && Kinds.AsSpan().SequenceEqual(other.Kinds.AsSpan())
        && LeastPpi == other.LeastPpi && WantedPpi == other.WantedPpi && MostInk == other.MostInk && Bleed == other.Bleed
        && SafeDistance == other.SafeDistance && ThinnestLine == other.ThinnestLine && SmallestType == other.SmallestType;

    public override int GetHashCode() => HashCode.Combine(Id, Name, Kinds.Length, LeastPpi, WantedPpi);
}

using Formatum.Core.Fitting;

namespace Formatum.Core.Publications;

/// <summary>A named, reusable set of fitting settings, based on another rule or on the publication's default.</summary>
public sealed record FittingRule : Part
{
    public const int LongestName = 100, LongestDescription = 1000;

    public required int Id { get; init; }
    public required string Name { get; init; }
    public string Description { get; init; } = "";
    public int? BasedOnId { get; init; }
    public FitSettings Settings { get; init; } = FitSettings.Open;

    /// <summary>The look its frames usually take; null for none.</summary>
    public int? LookId { get; init; }

    public override PartKey Key => new(PartKind.Rule, Id);
}

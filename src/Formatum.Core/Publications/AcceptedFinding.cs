using Formatum.Core.Checks;

namespace Formatum.Core.Publications;

/// <summary>A finding that somebody let be: it is meant so. It comes back if it gets worse.</summary>
public sealed record AcceptedFinding : Part
{
    public const int LongestReason = 500, LongestName = 200, Most = 10_000;

    public required int Id { get; init; }
    public required FindingKind Kind { get; init; }

    /// <summary>What it was found on.</summary>
    public required PartKind OnKind { get; init; }
    public required int OnId { get; init; }

    /// <summary>How bad it was then, as the finding itself tells.</summary>
    public required double Badness { get; init; }

    /// <summary>Who let it be.</summary>
    public string By { get; init; } = "";

    /// <summary>Why.</summary>
    public string Reason { get; init; } = "";

    public DateTimeOffset At { get; init; }

    public override PartKey Key => new(PartKind.Accepted, Id);

    public PartKey On => new(OnKind, OnId);

    public void Check(FieldErrors errors)
    {
        errors.Choice("kind", Kind);
        errors.Choice("onKind", OnKind);
        if (!double.IsFinite(Badness)) errors.Add("badness", "How bad a finding was is a number.");
        if (By.Length > LongestName || By.Any(char.IsControl)) errors.Add("by", $"A name has {LongestName} characters at most, and no line ends.");
        if (Reason.Length > LongestReason || Reason.Any(c => char.IsControl(c) && c != '\n'))
            errors.Add("reason", $"A reason has {LongestReason} characters at most. Shorten it.");
    }
}

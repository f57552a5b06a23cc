using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking;

/// <summary>Where a finding lies.</summary>
/// <param name="PageId">The page.</param>
/// <param name="FrameId">The frame; null where it is the page itself.</param>
/// <param name="Box">What is meant, in points from the upper left of the page's trim.</param>
public readonly record struct FindingPlace(int PageId, int? FrameId, Box Box);

/// <summary>What a figure counts in.</summary>
public enum FigureUnit { Ppi, Percent, Length, TypeSize, Count, Words, Times }

/// <summary>A figure of a finding against the one that is asked for.</summary>
/// <param name="Name">What it measures: "Effective resolution".</param>
/// <param name="Value">How much there is; lengths in points.</param>
/// <param name="Asked">How much the profile asks for; null where it asks for nothing.</param>
/// <param name="Unit">What both count in.</param>
public readonly record struct Figure(string Name, double Value, double? Asked, FigureUnit Unit)
{
    public string Text(LengthUnit unit) => Written(Value, unit);

    public string? AskedText(LengthUnit unit) => Asked is { } asked ? Written(asked, unit) : null;

    private string Written(double value, LengthUnit unit) => Unit switch
    {
        FigureUnit.Ppi => string.Create(CultureInfo.InvariantCulture, $"{value:0.#} ppi"),
        FigureUnit.Percent => string.Create(CultureInfo.InvariantCulture, $"{value:0.#} %"),
        FigureUnit.Length => Units.Text(value, unit),
        FigureUnit.TypeSize => string.Create(CultureInfo.InvariantCulture, $"{value:0.##} pt"),
        FigureUnit.Times => string.Create(CultureInfo.InvariantCulture, $"{value:0.##} times"),
        FigureUnit.Words => string.Create(CultureInfo.InvariantCulture, $"{value:0} {(value == 1 ? "word" : "words")}"),
        _ => value.ToString("0.##", CultureInfo.InvariantCulture),
    };
}

/// <summary>Something the check of a publication reports. There is one of a kind on a part.</summary>
/// <param name="Kind">What kind.</param>
/// <param name="Part">What it was found on.</param>
/// <param name="Subject">What that is called: "Picture 3", "vase.jpg".</param>
/// <param name="Detail">What is to be said of it besides the figures, as a sentence; empty for nothing.</param>
/// <param name="Badness">How bad it is; of a kind the greater is the worse.</param>
public sealed record Finding(FindingKind Kind, PartKey Part, string Subject, string Detail, double Badness)
{
    public ImmutableArray<FindingPlace> Places { get; init; } = [];
    public ImmutableArray<Figure> Figures { get; init; } = [];

    /// <summary>How much it counts.</summary>
    public Severity Severity { get; init; }

    /// <summary>Who let it be and why; null where nobody did, or where it got worse since.</summary>
    public AcceptedFinding? Accepted { get; init; }

    /// <summary>Whether it counts: nobody let it be.</summary>
    public bool IsOpen => Accepted is null;

    /// <summary>What it is called by, the same for as long as the part has it: "textLeftOver-frame-12".</summary>
    public string Id => IdOf(Kind, Part);

    public static string IdOf(FindingKind kind, PartKey part) => string.Create(CultureInfo.InvariantCulture, $"{Lower(kind)}-{Lower(part.Kind)}-{part.Id}");

    private static string Lower<T>(T value) where T : struct, Enum => char.ToLowerInvariant(value.ToString()[0]) + value.ToString()[1..];

    public bool Equals(Finding? other) => other is not null && Kind == other.Kind && Part == other.Part && Subject == other.Subject && Detail == other.Detail
        && Badness == other.Badness && Severity == other.Severity && Accepted == other.Accepted && Places.AsSpan().SequenceEqual(other.Places.AsSpan())
        && Figures.AsSpan().SequenceEqual(other.Figures.AsSpan());

    public override int GetHashCode() => HashCode.Combine(Kind, Part, Badness);
}

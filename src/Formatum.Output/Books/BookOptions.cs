namespace Formatum.Output.Books;

/// <summary>What is wanted of a book.</summary>
/// <param name="Pages">Where its pages stand in the publication, from 1, in order.</param>
/// <param name="Time">When it is made, as it says.</param>
public sealed record BookOptions(IReadOnlyList<int> Pages, DateTimeOffset Time)
{
    /// <summary>Pictures with a higher effective resolution than this, in ppi, are reduced to it; null for none.</summary>
    public double? MostPpi { get; init; }

    /// <summary>How good pictures are that are compressed anew, 1 to 100; null leaves them as they are wherever they can be.</summary>
    public int? Quality { get; init; }

    /// <summary>Whether previews stand in for pictures whose files are missing.</summary>
    public bool Proof { get; init; }
}

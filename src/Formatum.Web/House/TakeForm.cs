using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Web.House;

/// <summary>What is to be taken over from another publication, as it is chosen.</summary>
public sealed class TakeForm
{
    /// <summary>The publication it comes from.</summary>
    public int From { get; set; }

    /// <summary>The publication's revision when the page was opened.</summary>
    public long Seen { get; set; }

    /// <summary>The revision of the publication it comes from when the page was opened.</summary>
    public long FromSeen { get; set; }

    /// <summary>What becomes of each part, by <see cref="Key"/>: a <see cref="Namesake"/>, or nothing where it is left.</summary>
    public Dictionary<string, string?> Parts { get; set; } = [];

    public static string Key(Part part) => string.Create(CultureInfo.InvariantCulture, $"{part.Key.Kind}-{part.Key.Id}");

    /// <summary>What is chosen of the parts that are there.</summary>
    public TakeHouseStyle Read(Publication source, IEnumerable<HousePart> parts) => new(source, [.. Chosen(parts)]);

    private IEnumerable<TakenPart> Chosen(IEnumerable<HousePart> parts)
    {
        foreach (var part in parts)
            if (Parts.GetValueOrDefault(Key(part.Part)) is { Length: > 0 } chosen && Enum.TryParse<Namesake>(chosen, out var namesake))
                yield return new(part.Part.Key, namesake);
    }
}

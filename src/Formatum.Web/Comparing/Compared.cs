using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Comparing;
using Formatum.Core.Publications;
using Formatum.Storage;

namespace Formatum.Web.Comparing;

/// <summary>What a publication is compared with: "publication-3", or "step-120" of its own history.</summary>
public static class Compared
{
    private const string Step = "step-", Other = "publication-";

    public static string Of(HistoryEntry entry) => string.Create(CultureInfo.InvariantCulture, $"{Step}{entry.Sequence}");

    public static string Of(ShelfEntry entry) => string.Create(CultureInfo.InvariantCulture, $"{Other}{entry.Id}");

    /// <exception cref="EditRefused">It names nothing, or something that is not there.</exception>
    public static async Task<Comparison> WithAsync(PublicationStore store, Standing standing, string? with)
    {
        if (with?.StartsWith(Step, StringComparison.Ordinal) == true
            && long.TryParse(with[Step.Length..], NumberStyles.None, CultureInfo.InvariantCulture, out long sequence))
            return Comparison.Of(await store.StoodAfterAsync(standing.Id, sequence), standing.Publication);
        if (with?.StartsWith(Other, StringComparison.Ordinal) == true
            && int.TryParse(with[Other.Length..], NumberStyles.None, CultureInfo.InvariantCulture, out int id))
            return Comparison.Of((await store.OpenAsync(id)).Publication, standing.Publication);
        throw new EditRefused("with", "Say what to compare with: \"step-120\" for a step of its history, \"publication-3\" for another publication, "
            + "or a PDF made before, by the name it was given.");
    }
}

using System.Collections.Immutable;
using Formatum.Core.Checking;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Checking;

namespace Formatum.Web.Outputs;

/// <summary>What is open on the pages of an output, by the profile that its recipe asks for.</summary>
/// <param name="Findings">The findings on the whole publication.</param>
/// <param name="All">Those on its pages, worst first, what was accepted among them.</param>
public sealed record BeforeOutput(PublicationFindings Findings, ImmutableArray<Finding> All)
{
    public CheckProfile Profile => Findings.Profile;

    /// <summary>What counts.</summary>
    public ImmutableArray<Finding> Open => [.. All.Where(f => f.IsOpen)];

    /// <summary>How much counts: "2 faults, 1 warning".</summary>
    public string Words => new[] { Severity.Fault, Severity.Warning, Severity.Note }.Select(s => (Severity: s, Count: Open.Count(f => f.Severity == s)))
        .Where(s => s.Count > 0).Select(s => FindingText.Count(s.Severity, s.Count)).ToList() is { Count: > 0 } counts ? string.Join(", ", counts)
            : "Nothing was found";

    public ImmutableArray<Finding> Faults => [.. Open.Where(f => f.Severity == Severity.Fault)];

    /// <param name="checker">Who checks.</param>
    /// <param name="standing">The publication.</param>
    /// <param name="recipe">The recipe; null for all pages by the publication's own profile.</param>
    /// <param name="pages">The pages that are made, by their ids; null for all.</param>
    /// <param name="withInk">Whether ink that was not measured yet is measured first.</param>
    public static async Task<BeforeOutput> OfAsync(Checker checker, Standing standing, Recipe? recipe, IReadOnlySet<int>? pages, bool withInk = false)
    {
        var publication = standing.Publication;
        // A profile that was removed since, or is another publication's, leaves the publication's own.
        var profile = recipe?.Profile is { } name ? CheckProfile.Named(publication, name) : null;
        var findings = withInk ? await checker.WithAllInkAsync(standing, profile, pages) : await checker.OfAsync(standing, profile);
        return new(findings, [.. findings.All.Where(f => pages is null || IsOn(publication, f, pages))]);
    }

    /// <summary>Whether a finding lies on one of some pages, or on a master, or on none at all.</summary>
    private static bool IsOn(Publication publication, Finding finding, IReadOnlySet<int> pages) => finding.Places.IsEmpty
        || finding.Places.Any(p => pages.Contains(p.PageId) || publication.Order.IndexOf(p.PageId) < 0);

    /// <exception cref="EditRefused">There are faults, and nobody said to go on.</exception>
    public void Ask(bool sure)
    {
        if (sure || Faults.IsEmpty) return;
        throw new EditRefused("sure", $"The profile {Profile.Name} lets nothing leave with faults, and there are {Faults.Length}: "
            + $"{string.Join(", ", FindingText.Summary(Faults).Select(s => s.Words).Take(4))}. Mend them on Check, or say that it shall be made all the same.");
    }
}

using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checking;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Output;
using Formatum.Storage;

namespace Formatum.Web.Checking;

public enum CheckOrder { Page, Kind }

public enum CheckShow { Open, Accepted, All }

/// <summary>What is asked of the list of findings.</summary>
public sealed record CheckQuery
{
    public CheckOrder By { get; init; }
    public CheckShow Show { get; init; }

    /// <summary>Only of this severity; null for all.</summary>
    public Severity? Severity { get; init; }

    /// <summary>Only of this kind; null for all.</summary>
    public FindingKind? Kind { get; init; }

    /// <summary>Only on these pages, by the numbers they bear: "4-5"; nothing for all.</summary>
    public string? Pages { get; init; }

    /// <summary>The one that is looked at, by its id.</summary>
    public string? Finding { get; init; }

    /// <exception cref="EditRefused">There are no such pages.</exception>
    public IEnumerable<Finding> Of(PublicationFindings findings)
    {
        var publication = findings.Publication;
        var pages = string.IsNullOrWhiteSpace(Pages) ? null : PageRange.Of(Pages, publication).ToHashSet();
        return findings.All.Where(f => Show switch
        {
            CheckShow.Open => f.IsOpen,
            CheckShow.Accepted => !f.IsOpen,
            _ => true,
        } && (Severity is null || f.Severity == Severity) && (Kind is null || f.Kind == Kind)
            && (pages is null || f.Places.Any(p => pages.Contains(publication.NumberOf(p.PageId)))));
    }

    /// <summary>The same as the end of an address.</summary>
    public string Address(string? finding) => "?" + string.Join('&', new[]
    {
        By == CheckOrder.Page ? "" : $"by={By}", Show == CheckShow.Open ? "" : $"show={Show}", Severity is null ? "" : $"severity={Severity}",
        Kind is null ? "" : $"kind={Kind}", string.IsNullOrWhiteSpace(Pages) ? "" : $"pages={Uri.EscapeDataString(Pages)}",
        finding is null ? "" : $"finding={finding}",
    }.Where(part => part.Length > 0));
}

/// <summary>Findings that stand together in the list.</summary>
/// <param name="Title">What they have in common.</param>
/// <param name="Kind">Their kind, where they are of one.</param>
/// <param name="Findings">The findings.</param>
public sealed record FindingGroup(string Title, FindingKind? Kind, ImmutableArray<Finding> Findings);

/// <summary>The findings on a publication, as they are listed.</summary>
public sealed record CheckView(Standing Standing, PublicationFindings Findings, CheckQuery Query)
{
    /// <summary>No more rows are shown at once.</summary>
    public const int MostShown = 400;

    private ImmutableArray<Finding>? _listed;

    /// <summary>On so many pages the ink is not measured yet, so that more may be found.</summary>
    public int InkNotMeasured { get; init; }

    public Publication Publication => Standing.Publication;

    /// <summary>All that the query asks for, in the order they are stepped through.</summary>
    public ImmutableArray<Finding> Listed => _listed ??= [.. Groups(Query.Of(Findings)).SelectMany(g => g.Findings)];

    public IEnumerable<FindingGroup> Shown => Groups(Listed.Take(MostShown));

    /// <summary>The one that is looked at: the one that is asked for, or the first.</summary>
    public Finding? Chosen => Listed.FirstOrDefault(f => f.Id == Query.Finding) ?? Listed.FirstOrDefault();

    private IEnumerable<FindingGroup> Groups(IEnumerable<Finding> findings)
    {
        if (Query.By == CheckOrder.Kind)
            return findings.GroupBy(f => f.Kind).OrderByDescending(g => g.First().Severity).ThenBy(g => g.Key)
                .Select(g => new FindingGroup(CheckKinds.Of(g.Key).Title, g.Key, [.. g]));
        return findings.GroupBy(PageOf).OrderBy(g => g.Key is { } page ? Place(page) : int.MaxValue)
            .Select(g => new FindingGroup(g.Key is { } page ? Kinds.Capital(Publication.WordsOf(page)) : "The publication as a whole", null, [.. g]));
    }

    private int Place(int page) => Publication.Order.IndexOf(page) is >= 0 and var at ? at : int.MinValue;

    private int? PageOf(Finding finding) => finding.Places.IsEmpty || !Publication.Pages.ContainsKey(finding.Places[0].PageId) ? null
        : finding.Places[0].PageId;

    /// <summary>The kinds there are findings of, with how many count.</summary>
    public IEnumerable<(FindingKind Kind, int Count)> KindsFound => Findings.Open.GroupBy(f => f.Kind).OrderBy(g => g.Key).Select(g => (g.Key, g.Count()));

    public IReadOnlyList<Remedy> RemediesOf(Finding finding) => [.. CheckKinds.Of(finding.Kind).Remedies(new(Publication, Findings.Profile, Typefaces.All),
        finding)];
}

internal static class Kinds
{
    public static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}

/// <summary>One finding, with all that is known of it.</summary>
public sealed record FindingView(CheckView List, Finding Finding);

/// <summary>What a remedy would do, before it is done.</summary>
/// <param name="Standing">The publication as it is.</param>
/// <param name="Before">The findings as they are.</param>
/// <param name="After">As they would be; null where nothing would change.</param>
/// <param name="Plan">What would be mended.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Values">What to send to have it done.</param>
public sealed record RemedyView(Standing Standing, PublicationFindings Before, PublicationFindings? After, MendPlan Plan, string Title,
    IReadOnlyDictionary<string, string> Values)
{
    public const int MostShown = 30;

    /// <summary>What would be gone.</summary>
    public int Gone => After is null ? 0 : Before.Open.ExceptBy(After.Open.Select(f => f.Id), f => f.Id).Count();

    /// <summary>What would be there that was not.</summary>
    public ImmutableArray<Finding> Come => After is null ? [] : [.. After.Open.ExceptBy(Before.Open.Select(f => f.Id), f => f.Id)];

    public IEnumerable<Finding> Shown => Plan.Findings.Where(f => !f.Places.IsEmpty && Plan.Mending.Left.All(l => l.Finding.Id != f.Id)).Take(MostShown);
}

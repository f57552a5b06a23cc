using System.Collections.Immutable;
using Formatum.Core.Checking;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Output;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Hosting;

namespace Formatum.Web.Api;

/// <summary>A figure of a finding; lengths in points.</summary>
public sealed record FigureAnswer(string Name, double Value, double? Asked, FigureUnit Unit);

/// <summary>Where a finding lies: the page by its number, and a box in points from the upper left of its trim.</summary>
public sealed record PlaceAnswer(int Page, int? FrameId, double X, double Y, double Width, double Height);

/// <summary>Who let a finding be, why and when.</summary>
public sealed record AcceptanceAnswer(string By, string Reason, DateTimeOffset At);

/// <summary>A finding. The page by its number; null for what lies on none.</summary>
public sealed record FindingAnswer(string Id, FindingKind Kind, Severity Severity, int? Page, int? FrameId, string Words, IEnumerable<FigureAnswer> Figures,
    string? Remedy, IEnumerable<PlaceAnswer> Places, AcceptanceAnswer? Accepted)
{
    public static FindingAnswer Of(Publication publication, Finding finding, RemedyContext context) => new(finding.Id, finding.Kind, finding.Severity,
        finding.Places.IsEmpty ? null : publication.NumberOf(finding.Places[0].PageId), finding.Places.Select(p => p.FrameId).FirstOrDefault(),
        finding.Sentence(publication.Setup.Unit), finding.Figures.Select(f => new FigureAnswer(f.Name, f.Value, f.Asked, f.Unit)),
        Mending.RemedyOf(finding, null, context)?.Words,
        finding.Places.Select(p => new PlaceAnswer(publication.NumberOf(p.PageId), p.FrameId, p.Box.X, p.Box.Y, p.Box.Width, p.Box.Height)),
        finding.Accepted is { } a ? new(a.By, a.Reason, a.At) : null);
}

/// <summary>All findings, those that somebody let be among them; how many count of each severity; and the pages whose ink was not measured yet.</summary>
public sealed record CheckAnswer(string Profile, int Faults, int Warnings, int Notes, IEnumerable<FindingAnswer> Findings, IEnumerable<int> InkNotMeasured);

/// <summary>Which findings to mend, and how.</summary>
public sealed record RemediesBody
{
    public required string[] Ids { get; init; }

    /// <summary>Which of their remedies, by its key; left out for the likeliest of each.</summary>
    public string? Remedy { get; init; }

    /// <summary>Where missing files are looked for.</summary>
    public string? Folder { get; init; }

    /// <summary>The profile they were found by; left out for the publication's own.</summary>
    public string? Profile { get; init; }

    public long? Seen { get; init; }
}

/// <summary>What came of mending: what was mended, and what could not be, with the reason.</summary>
public sealed record RemediesAnswer(IEnumerable<string> Mended, IEnumerable<LeftAnswer> Left, long Revision);

public sealed record LeftAnswer(string Id, string Why);

/// <summary>Which findings are let be, or taken up again.</summary>
public sealed record AcceptBody
{
    public required string[] Ids { get; init; }
    public string? Reason { get; init; }
    public string? Profile { get; init; }
    public long? Seen { get; init; }
}

/// <summary>The check of a publication, in the automation interface.</summary>
internal static class CheckEndpoints
{
    public static void Map(RouteGroupBuilder publication)
    {
        publication.MapGet("/check", async (int id, PublicationStore store, Checker checker, HeavyWork heavy, string? profile, bool? ink) =>
        {
            var standing = await store.OpenAsync(id);
            var by = ProfileNamed(standing.Publication, profile);
            bool measures = ink ?? standing.Publication.PageCount <= MostMeasured;
            var findings = measures ? await checker.WithAllInkAsync(standing, by) : await checker.OfAsync(standing, by);
            return await heavy.RunAsync(_ => Answer(standing.Publication, findings, checker.WithoutInk(findings)), CancellationToken.None);
        }).WithSummary("All findings by a profile: draft, office, offset, newspaper, screen, or an own one's name; left out, the publication's own. Ink is " +
            "measured first (ink=true), or only told where it is known (ink=false); left out, it is measured of up to 40 pages.");
        publication.MapGet("/check/report.{kind}", ReportAsync)
            .WithSummary("The report of a check, as html, pdf or json; like the check itself, by a profile.").Produces(200, contentType: "application/pdf");
        publication.MapPost("/check/remedies", MendAsync).WithSummary("Mends findings, all as one step of the history.");
        publication.MapPost("/check/accepted", AcceptAsync).WithSummary("Lets findings be: they count no longer, unless they get worse.");
        CheckProfileEndpoints.Map(publication);
        publication.MapPost("/check/unaccepted", UnacceptAsync).WithSummary("Lets findings count again that somebody let be.");
    }

    /// <summary>The ink of so many pages is measured while somebody waits.</summary>
    private const int MostMeasured = 40;

    /// <exception cref="EditRefused">There is no such profile.</exception>
    public static CheckProfile? ProfileNamed(Publication publication, string? name) => string.IsNullOrWhiteSpace(name) ? null
        : CheckProfile.Named(publication, name) ?? throw new EditRefused("profile", $"There is no check profile \u201c{name}\u201d. There are "
            + $"{string.Join(", ", CheckProfile.All(publication).Select(p => p.Name))}.");

    /// <exception cref="EditRefused">There is no such kind of report.</exception>
    public static ReportKind KindOf(string kind) => Enum.TryParse<ReportKind>(kind, ignoreCase: true, out var wanted) && Enum.IsDefined(wanted) ? wanted
        : throw new EditRefused("kind", "A report is html, pdf or json.");

    private static async Task<IResult> ReportAsync(int id, string kind, PublicationStore store, Checker checker, Reporter reporter, HttpContext context,
        TimeProvider clock, string? profile)
    {
        var wanted = KindOf(kind);
        var standing = await store.OpenAsync(id);
        var findings = await checker.OfAsync(standing, ProfileNamed(standing.Publication, profile));
        return Results.Bytes(await reporter.MadeAsync(findings, findings.All, wanted, context.RequestAborted), Reporter.TypeOf(wanted),
            FileNames.Of("{publication} {edition} check", standing.Publication.Setup, "", "", "", clock.GetUtcNow()) + $".{kind.ToLowerInvariant()}");
    }

    internal static CheckAnswer Answer(Publication publication, PublicationFindings findings, IEnumerable<int> inkNotMeasured)
    {
        var context = new RemedyContext(publication, findings.Profile, Typefaces.All);
        return new(findings.Profile.Name, findings.Count(Severity.Fault), findings.Count(Severity.Warning), findings.Count(Severity.Note),
            [.. findings.All.Select(f => FindingAnswer.Of(publication, f, context))], inkNotMeasured);
    }

    private static async Task<RemediesAnswer> MendAsync(int id, RemediesBody body, HttpContext context, PublicationStore store, Mender mender)
    {
        var standing = await store.OpenAsync(id);
        var plan = await mender.PlanAsync(standing, new(body.Ids, body.Remedy, body.Folder), ProfileNamed(standing.Publication, body.Profile));
        var left = plan.Mending.Left.Select(l => new LeftAnswer(l.Finding.Id, l.Why))
            .Concat(body.Ids.Except(plan.Findings.Select(f => f.Id)).Select(gone => new LeftAnswer(gone, "There is no such finding, or no longer."))).ToList();
        var mended = plan.Findings.Select(f => f.Id).Except(left.Select(l => l.Id)).ToList();
        if (plan.Mending.Edit is not { } edit) return new([], left, standing.Revision);
        var outcome = context.Told(await store.EditAsync(id, edit, context.Seen(body.Seen)));
        return new(mended, left, outcome.Standing.Revision);
    }

    private static async Task<CheckAnswer> AcceptAsync(int id, AcceptBody body, HttpContext context, PublicationStore store, Checker checker,
        TimeProvider clock)
    {
        var standing = await store.OpenAsync(id);
        var findings = await checker.OfAsync(standing, ProfileNamed(standing.Publication, body.Profile));
        var outcome = context.Told(await store.EditAsync(id, Acceptance.Of(findings, body.Ids, context.Maker().Name, body.Reason, clock.GetUtcNow()),
            context.Seen(body.Seen)));
        var after = await checker.OfAsync(outcome.Standing, findings.Profile);
        return Answer(outcome.Standing.Publication, after, checker.WithoutInk(after));
    }

    private static async Task<CheckAnswer> UnacceptAsync(int id, AcceptBody body, HttpContext context, PublicationStore store, Checker checker)
    {
        var standing = await store.OpenAsync(id);
        var findings = await checker.OfAsync(standing, ProfileNamed(standing.Publication, body.Profile));
        var outcome = context.Told(await store.EditAsync(id, Acceptance.Undone(findings, body.Ids), context.Seen(body.Seen)));
        var after = await checker.OfAsync(outcome.Standing, findings.Profile);
        return Answer(outcome.Standing.Publication, after, checker.WithoutInk(after));
    }
}

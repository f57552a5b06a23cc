using System.Collections.Immutable;
using Formatum.Core.Checking;
using Formatum.Core.Checks;
using Formatum.Core.Edits;

namespace Formatum.Web.Checking;

/// <summary>Findings that somebody lets be, by their ids.</summary>
public static class Acceptance
{
    /// <exception cref="EditRefused">One of them is not there.</exception>
    public static AcceptFindings Of(PublicationFindings findings, IReadOnlyCollection<string> ids, string by, string? reason, DateTimeOffset at) =>
        new([.. Meant(findings, ids).Select(f => new Core.Publications.AcceptedFinding
        {
            Id = 0,
            Kind = f.Kind,
            OnKind = f.Part.Kind,
            OnId = f.Part.Id,
            Badness = f.Badness,
            By = by,
            Reason = reason?.ReplaceLineEndings("\n").Trim() ?? "",
            At = at,
        })]);

    /// <exception cref="EditRefused">One of them is not there, or was not let be.</exception>
    public static UnacceptFindings Undone(PublicationFindings findings, IReadOnlyCollection<string> ids) =>
        new([.. Meant(findings, ids).Select(f => f.Accepted?.Id ?? throw new EditRefused("ids", $"{f.Title()} counts already. Nothing was changed."))]);

    private static ImmutableArray<Finding> Meant(PublicationFindings findings, IReadOnlyCollection<string> ids)
    {
        var known = findings.All.ToDictionary(f => f.Id);
        // What comes as JSON may name nothing.
        return [.. ids.Distinct().Select(id => known.GetValueOrDefault(id ?? "")
            ?? throw new EditRefused("ids", $"There is no finding \u201c{id}\u201d, or no longer. Look at the list again."))];
    }
}

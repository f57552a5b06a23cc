using System.Globalization;
using Formatum.Core.Checking;
using Formatum.Core.Publications;

namespace Formatum.Output.Reports;

/// <summary>What reports say, in whichever form they come.</summary>
internal static class ReportText
{
    public static string Title(CheckReport report) =>
        $"{report.Publication.Setup.Name}{(report.Publication.Setup.Edition.Length > 0 ? ", " + report.Publication.Setup.Edition : "")}";

    public static string Sum(CheckReport report)
    {
        var counts = new[] { Severity.Fault, Severity.Warning, Severity.Note }.Where(s => report.Count(s) > 0)
            .Select(s => FindingText.Count(s, report.Count(s))).ToList();
        string found = counts.Count == 0 ? "nothing was found" : string.Join(", ", counts);
        string accepted = report.Accepted.IsEmpty ? "" : string.Create(CultureInfo.InvariantCulture, $"; {report.Accepted.Length} accepted");
        return string.Create(CultureInfo.InvariantCulture,
            $"Checked by the profile {report.Profile.Name} on {report.At.UtcDateTime:d MMMM yyyy, HH:mm} UTC: {found}{accepted}.");
    }

    public static string Said(Finding finding, Publication publication)
    {
        string said = finding.Sentence(publication.Setup.Unit);
        return finding.Accepted is not { } accepted ? said
            : $"{said} Accepted by {accepted.By}{(accepted.Reason.Length > 0 ? ": " + accepted.Reason : "")}.";
    }
}

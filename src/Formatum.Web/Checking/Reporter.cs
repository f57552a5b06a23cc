using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using Formatum.Core.Checking;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output.Reports;
using Formatum.Web.Hosting;
using Formatum.Web.Links;

namespace Formatum.Web.Checking;

/// <summary>What a report is kept as.</summary>
public enum ReportKind { Html, Pdf, Json }

/// <summary>Makes reports of what was found.</summary>
public sealed class Reporter(PicturePixels pixels, HeavyWork heavy, TimeProvider clock)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower) },
    };

    public static string TypeOf(ReportKind kind) => kind switch
    {
        ReportKind.Html => "text/html; charset=utf-8",
        ReportKind.Pdf => "application/pdf",
        _ => "application/json",
    };

    /// <param name="findings">What was found.</param>
    /// <param name="meant">Which of it is reported.</param>
    /// <param name="kind">What it is kept as.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    public Task<byte[]> MadeAsync(PublicationFindings findings, IEnumerable<Finding> meant, ReportKind kind, CancellationToken cancel) =>
        heavy.RunAsync(token => Made(Gathered(findings, meant, token), kind, token), cancel);

    /// <summary>What all reports of a check are made from.</summary>
    public CheckReport Gathered(PublicationFindings findings, IEnumerable<Finding> meant, CancellationToken cancel) =>
        CheckReport.Of(findings, meant, clock.GetUtcNow(), pixels.Quick(findings.Publication), cancel);

    public static byte[] Made(CheckReport report, ReportKind kind, CancellationToken cancel)
    {
        if (kind == ReportKind.Html) return Encoding.UTF8.GetBytes(HtmlReport.Of(report));
        if (kind == ReportKind.Json) return JsonSerializer.SerializeToUtf8Bytes(Plain(report), Json);
        string file = Path.GetTempFileName();
        try
        {
            PdfReport.Write(report, file, cancel);
            return File.ReadAllBytes(file);
        }
        finally
        {
            File.Delete(file);
        }
    }

    private static object Plain(CheckReport report)
    {
        var publication = report.Publication;
        object One(NumberedFinding n) => new
        {
            n.Number,
            n.Finding.Id,
            n.Finding.Kind,
            n.Finding.Severity,
            Page = n.Finding.Places.IsEmpty ? (int?)null : publication.NumberOf(n.Finding.Places[0].PageId),
            Words = n.Finding.Sentence(publication.Setup.Unit),
            Figures = n.Finding.Figures.Select(f => new { f.Name, f.Value, f.Asked, f.Unit }),
            Accepted = n.Finding.Accepted is { } a ? new { a.By, a.Reason, a.At } : null,
        };
        return new
        {
            Publication = publication.Setup.Name,
            publication.Setup.Edition,
            Profile = report.Profile.Name,
            report.At,
            Faults = report.Count(Severity.Fault),
            Warnings = report.Count(Severity.Warning),
            Notes = report.Count(Severity.Note),
            Findings = report.Open.Concat(report.Accepted).Select(One),
        };
    }
}

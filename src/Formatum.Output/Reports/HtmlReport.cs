using System.Globalization;
using System.Text;
using Formatum.Core.Checking;
using Formatum.Core.Publications;

namespace Formatum.Output.Reports;

/// <summary>A report as one HTML file that needs nothing else.</summary>
public static class HtmlReport
{
    private const string Style = """
        body{font:15px/1.45 Cabin,sans-serif;color:#1f2723;background:#eef1ea;margin:0 auto;max-width:900px;padding:24px}
        h1{font-size:24px;margin:0 0 4px}h2{font-size:18px;margin:28px 0 8px}table{border-collapse:collapse;width:100%;background:#fff}
        th,td{text-align:left;vertical-align:top;padding:5px 9px;border:1px solid #c9d1c0;font-size:14px}
        .fault{color:#9a3b1f}.warning{color:#7a3b69}.note{color:#55615a}.severity{white-space:nowrap;font-weight:600}
        .pages{display:flex;flex-wrap:wrap;gap:20px}figure{margin:0;width:420px}.sheet{position:relative;background:#fff;box-shadow:0 1px 4px rgb(31 39 35/30%)}
        .sheet img{width:100%;display:block}.mark{position:absolute;border:2px dashed #7a3b69;box-sizing:border-box}
        .mark span{position:absolute;top:-1px;left:-1px;background:#7a3b69;color:#fff;font-size:12px;font-weight:600;padding:0 5px}
        figcaption{font-size:13px;color:#55615a;text-align:center;margin-top:4px}
        """;

    public static string Of(CheckReport report)
    {
        var publication = report.Publication;
        var html = new StringBuilder();
        html.Append("<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>").Append(E($"Check of {publication.Setup.Name}"))
            .Append("</title><style>").Append(Style).Append("</style></head><body><h1>").Append(E(ReportText.Title(report))).Append("</h1><p>")
            .Append(E(ReportText.Sum(report))).Append("</p>");
        Table(html, "What counts", publication, report.Open);
        Table(html, "Accepted", publication, report.Accepted);
        if (!report.Pages.IsEmpty) html.Append("<h2>Where it lies</h2><div class=\"pages\">");
        foreach (var page in report.Pages) Page(html, page);
        if (!report.Pages.IsEmpty) html.Append("</div>");
        return html.Append("</body></html>\n").ToString();
    }

    private static void Table(StringBuilder html, string title, Publication publication, IReadOnlyCollection<NumberedFinding> findings)
    {
        if (findings.Count == 0) return;
        html.Append("<h2>").Append(title).Append("</h2><table><thead><tr><th>No.</th><th>Severity</th><th>Where</th><th>What</th></tr></thead><tbody>");
        foreach (var (number, finding) in findings)
        {
            html.Append(CultureInfo.InvariantCulture, $"<tr><td>{number}</td><td class=\"severity {FindingText.Name(finding.Severity).ToLowerInvariant()}\">")
                .Append(E($"{FindingText.Sign(finding.Severity)} {FindingText.Name(finding.Severity)}")).Append("</td><td>")
                .Append(E(finding.Where(publication))).Append("</td><td>").Append(E(ReportText.Said(finding, publication))).Append("</td></tr>");
        }
        html.Append("</tbody></table>");
    }

    private static void Page(StringBuilder html, ReportedPage page)
    {
        html.Append("<figure><div class=\"sheet\"><img alt=\"").Append(E(page.Words)).Append("\" src=\"data:image/jpeg;base64,")
            .Append(Convert.ToBase64String(page.Jpeg)).Append("\">");
        foreach (var (number, _, box) in page.Marks)
            html.Append(CultureInfo.InvariantCulture, $"<div class=\"mark\" style=\"left:{100 * box.X / page.Width:0.##}%;")
                .Append(CultureInfo.InvariantCulture, $"top:{100 * box.Y / page.Height:0.##}%;")
                .Append(CultureInfo.InvariantCulture, $"width:{100 * box.Width / page.Width:0.##}%;height:{100 * box.Height / page.Height:0.##}%\">")
                .Append(CultureInfo.InvariantCulture, $"<span>{number}</span></div>");
        html.Append("</div><figcaption>").Append(E(page.Words)).Append("</figcaption></figure>");
    }

    private static string E(string text) => SvgWriter.Escape(text);
}

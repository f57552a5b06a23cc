using System.Globalization;
using System.Net;
using System.Text;

namespace Formatum.PrintShop;

/// <summary>The answer to a job, as docs/handover.md says.</summary>
public sealed record JobAnswer(bool Accepted, string Job, IReadOnlyList<string> Reasons, IReadOnlyList<string> Remarks);

/// <summary>The jobs that came, the newest first; none is kept longer than the program runs.</summary>
public sealed class JobBook(Demands demands)
{
    private const int MostKept = 50;

    private readonly Lock _gate = new();
    private readonly LinkedList<(DateTime At, string Title, JobAnswer Answer)> _jobs = new();
    private int _number;

    /// <summary>Looks a job over.</summary>
    public JobAnswer Take(Stream ticket, Stream file)
    {
        string title = "a job that cannot be read";
        IReadOnlyList<string> reasons, remarks = [];
        try
        {
            var asked = Ticket.Read(ticket);
            title = string.Create(CultureInfo.InvariantCulture, $"{asked.Title}: {asked.Copies} of {asked.Pages} pages");
            var found = new Inspection(asked, file, demands);
            (reasons, remarks) = (found.Reasons, found.Remarks);
        }
        catch (BadJob e)
        {
            reasons = [e.Message];
        }
        lock (_gate)
        {
            var answer = new JobAnswer(reasons.Count == 0, FormattableString.Invariant($"S-{++_number:0000}"), reasons, remarks);
            _jobs.AddFirst((DateTime.Now, title, answer));
            if (_jobs.Count > MostKept) _jobs.RemoveLast();
            return answer;
        }
    }

    public string Page()
    {
        var html = new StringBuilder("""
            <!doctype html><html lang="en"><meta charset="utf-8"><title>Print shop stand-in</title>
            <style>body{font:16px/1.5 sans-serif;max-width:48rem;margin:2rem auto;padding:0 1rem}li{margin:.6rem 0}li li{margin:0}</style>
            <h1>Print shop stand-in</h1><p>It takes jobs, looks them over as a print shop would, and prints nothing.</p><ul>
            """);
        lock (_gate)
        {
            foreach (var (at, title, answer) in _jobs)
            {
                html.Append(CultureInfo.InvariantCulture, $"<li>{at:HH:mm} {answer.Job}, {WebUtility.HtmlEncode(title)}: ")
                    .Append(answer.Accepted ? "accepted" : "refused").Append("<ul>");
                foreach (string words in answer.Reasons.Concat(answer.Remarks))
                    html.Append(CultureInfo.InvariantCulture, $"<li>{WebUtility.HtmlEncode(words)}</li>");
                html.Append("</ul></li>");
            }
            if (_jobs.Count == 0) html.Append("<li>No job yet.</li>");
        }
        return html.Append("</ul></html>").ToString();
    }
}

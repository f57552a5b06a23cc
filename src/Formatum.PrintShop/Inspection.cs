using System.Globalization;
using System.Text;
using UglyToad.PdfPig.Tokens;

namespace Formatum.PrintShop;

/// <summary>What this shop asks of a file.</summary>
/// <param name="LeastPpi">Pictures below it are not printed. 150 is common practice, no source.</param>
/// <param name="WantedPpi">Pictures below it are remarked on. 250 is common practice, no source.</param>
/// <param name="Bleed">What has to stand beyond the trim, in points. 3 mm is common practice, no source.</param>
public sealed record Demands(double LeastPpi = 150, double WantedPpi = 250, double Bleed = 3 * Demands.Millimetre)
{
    public const double Millimetre = 72 / 25.4;
}

/// <summary>Holds a file to its ticket, and to what a press needs.</summary>
public sealed class Inspection
{
    /// <summary>Sizes may differ by so much, in points: no knife is finer.</summary>
    private const double Slack = 0.5;

    private readonly SortedDictionary<string, List<int>> _refused = new(StringComparer.Ordinal), _remarked = new(StringComparer.Ordinal);
    private readonly Ticket _ticket;
    private readonly Demands _demands;

    /// <exception cref="BadJob">The file cannot be read.</exception>
    public Inspection(Ticket ticket, Stream file, Demands demands)
    {
        (_ticket, _demands) = (ticket, demands);
        using var pdf = new PdfFile(file);
        try
        {
            Document(pdf);
            var pages = pdf.Pages().ToList();
            if (pages.Count != ticket.Pages || pages.Count != ticket.FilePages)
                Refuse(0, $"The ticket says {ticket.Pages} pages, the file has {pages.Count}. Send single pages: sheets are laid out here.");
            for (int i = 0; i < pages.Count; i++) Page(pdf, pages[i], i + 1);
        }
        catch (Exception e) when (e is not (BadJob or OutOfMemoryException))
        {
            throw new BadJob($"The file is damaged ({e.Message.TrimEnd('.')}). Make it anew.");
        }
    }

    /// <summary>Why it cannot be printed; empty where it can.</summary>
    public IReadOnlyList<string> Reasons => Told(_refused);

    public IReadOnlyList<string> Remarks => Told(_remarked);

    private static string[] Told(SortedDictionary<string, List<int>> found) => [.. found.OrderBy(f => f.Value[0]).Select(f => Where(f.Value) + f.Key)];

    private static string Where(List<int> pages)
    {
        const int Most = 8;
        var named = pages.Where(p => p > 0).Distinct().ToList();
        if (named.Count == 0) return "";
        string list = string.Join(", ", named.Take(Most)) + (named.Count > Most ? $" and {named.Count - Most} more" : "");
        return $"{(named.Count == 1 ? "Page" : "Pages")} {list}: ";
    }

    private void Refuse(int page, string words) => Note(_refused, page, words);

    private void Remark(int page, string words) => Note(_remarked, page, words);

    private static void Note(SortedDictionary<string, List<int>> into, int page, string words)
    {
        if (!into.TryGetValue(words, out var pages)) into[words] = pages = [];
        pages.Add(page);
    }

    /// <summary>ISO 15930-7: what the file says it is made for.</summary>
    private void Document(PdfFile pdf)
    {
        var intents = pdf.Get<ArrayToken>(pdf.Catalog, "OutputIntents");
        var intent = intents?.Data.Select(pdf.Direct).OfType<DictionaryToken>().FirstOrDefault(i => pdf.NameOf(i, "S") == "GTS_PDFX");
        if (intent is null) Refuse(0, "The file names no output intent: nobody knows for which press its colours are. Send PDF/X-4.");
        else if (pdf.DictionaryOf(intent, "DestOutputProfile") is { } profile && pdf.NumberOf(profile, "N") != 4)
            Refuse(0, "The output intent is no press with four inks. Send PDF/X-4 for this press.");
        var metadata = pdf.Get<StreamToken>(pdf.Catalog, "Metadata");
        if (metadata is null || !Encoding.UTF8.GetString(pdf.Decoded(metadata).Span).Contains("PDF/X-4", StringComparison.Ordinal))
            Refuse(0, "The file does not say that it is PDF/X-4. Send one that is.");
    }

    private void Page(PdfFile pdf, DictionaryToken page, int number)
    {
        Boxes(pdf, page, number);
        var survey = new PageSurvey(pdf, page);
        foreach (string font in survey.LooseFonts) Refuse(number, $"The font {font} is not in the file. Embed it.");
        if (survey.HasDeviceRgb) Refuse(number, "There is RGB without a profile: its colour is anyone's guess. Send inks, or RGB with its profile.");
        if (survey.RgbPictures > 0) Remark(number, "Pictures are in RGB; they become inks here, by their profiles.");
        foreach (string ink in survey.Spots.Where(s => !_ticket.Inks.Contains(s.Replace(' ', '_'))))
            Refuse(number, $"The ink \u201c{ink}\u201d is in the file and not on the ticket. Say it there, or print it with the four.");
        string Ppi() => string.Create(CultureInfo.InvariantCulture, $"A picture has {survey.LowestPpi:0} ppi");
        if (survey.LowestPpi < _demands.LeastPpi - Slack)
            Refuse(number, $"{Ppi()}; below {_demands.LeastPpi:0} its pixels show. Take a larger file, or show it smaller.");
        else if (survey.LowestPpi < _demands.WantedPpi - Slack) Remark(number, $"{Ppi()}; it will look soft.");
    }

    private void Boxes(PdfFile pdf, DictionaryToken page, int number)
    {
        if (pdf.NumbersOf(page, "TrimBox") is not { Length: 4 } trim)
        {
            Refuse(number, "There is no trim box: nobody knows where to cut. Set one.");
            return;
        }
        double width = trim[2] - trim[0], height = trim[3] - trim[1];
        if (Math.Abs(width - _ticket.Width) > Slack || Math.Abs(height - _ticket.Height) > Slack)
            Refuse(number, $"The page is {Size(width, height)}; the ticket says {Size(_ticket.Width, _ticket.Height)}. Make them agree.");
        double[] bleed = pdf.NumbersOf(page, "BleedBox") is { Length: 4 } box ? box : trim;
        double least = new[] { trim[0] - bleed[0], trim[1] - bleed[1], bleed[2] - trim[2], bleed[3] - trim[3] }.Min();
        if (least < _demands.Bleed - Slack)
            Refuse(number, $"There is {Millimetres(least)} mm of bleed; {Millimetres(_demands.Bleed)} mm is needed. Keep the bleed.");
    }

    private static string Size(double width, double height) => $"{Millimetres(width)} x {Millimetres(height)} mm";

    private static string Millimetres(double points) => (points / Demands.Millimetre).ToString("0.#", CultureInfo.InvariantCulture);
}

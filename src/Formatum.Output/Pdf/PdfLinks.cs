using System.Globalization;
using System.Text.RegularExpressions;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

namespace Formatum.Output.Pdf;

/// <summary>What leads on from a sheet: addresses in texts, and lists of contents (ISO 32000-1, 12.5.6.5).</summary>
internal sealed partial class PdfLinks(PdfFile file, Publication publication)
{
    /// <summary>How far letters reach above and below their baseline, in sizes: common practice, no source.</summary>
    private const double Above = 0.8, Below = 0.25;

    /// <summary>The annotations of a sheet.</summary>
    /// <param name="frames">What it shows.</param>
    /// <param name="toSheet">From the spread's points to the sheet's.</param>
    /// <param name="pageOf">The object of the sheet that shows a page, by its place in the publication from 0; 0 where none does.</param>
    public IEnumerable<int> Of(IEnumerable<SceneFrame> frames, Affine toSheet, Func<int, int> pageOf)
    {
        foreach (var frame in frames)
        {
            if (frame.Text is not { } text) continue;
            var map = toSheet.After(frame.ToSpread);
            foreach (var line in text.Lines)
                foreach (var (from, to, address) in Addresses(line))
                    yield return Add(map, line, from, to, $"/A<</S/URI/URI {PdfSyntax.Text(address)}>>", address);
            if (!ListsContents(frame)) continue;
            foreach (var paragraph in text.Lines.GroupBy(l => l.Paragraph))
                if (HeadingOf(string.Concat(paragraph.Select(l => l.Text))) is { } heading && pageOf(heading.PageIndex) is > 0 and var page)
                    foreach (var line in paragraph)
                        yield return Add(map, line, line.X, line.X + line.Width, $"/Dest[{PdfSyntax.Reference(page)} /Fit]", heading.Words);
        }
    }

    private int Add(Affine map, SetLine line, double from, double to, string target, string words)
    {
        double size = line.Runs.Select(r => r.Size).DefaultIfEmpty(10).Max();
        double upper = line.Baseline - Above * size, lower = line.Baseline + Below * size;
        Vec[] corners = [map.Apply(new(from, upper)), map.Apply(new(to, upper)), map.Apply(new(from, lower)), map.Apply(new(to, lower))];
        double left = corners.Min(c => c.X), bottom = corners.Min(c => c.Y), right = corners.Max(c => c.X), top = corners.Max(c => c.Y);
        return file.Add($"<</Type/Annot/Subtype/Link/Rect[{PdfSyntax.Numbers(left, bottom, right, top)}]/Border[0 0 0]/F 4" +
            $"/Contents {PdfSyntax.Text(words)}{target}>>");
    }

    /// <summary>Addresses in a line, each within characters that are set alike.</summary>
    private static IEnumerable<(double From, double To, string Address)> Addresses(SetLine line)
    {
        foreach (var run in line.Runs.Where(r => r.IsTyped && !r.RightToLeft))
            foreach (Match match in Address().Matches(run.Text))
            {
                string words = match.Value.TrimEnd('.', ',', ';', ':', '!', '?', ')');
                double At(int index) => run.X + run.Glyphs.Where(g => g.Cluster < index).Sum(g => g.Advance);
                string address = words.Contains("://", StringComparison.Ordinal) ? words : words.Contains('@', StringComparison.Ordinal) ? $"mailto:{words}"
                    : $"https://{words}";
                if (Uri.TryCreate(address, UriKind.Absolute, out var uri)) yield return (At(match.Index), At(match.Index + words.Length), uri.AbsoluteUri);
            }
    }

    private bool ListsContents(SceneFrame frame) => publication.Frames.TryGetValue(frame.FrameId, out var own) && own.StoryId is { } story
        && publication.Stories[story].Text.Paragraphs.Any(p => Core.Publications.TextFields.Alone(p) is { Name: Core.Publications.TextFields.Contents });

    /// <summary>The heading that an entry of a list names: its words, and behind them the number of its page.</summary>
    private Heading? HeadingOf(string entry) => Headings.Of(publication, Typefaces.All).FirstOrDefault(h => entry.StartsWith(h.Words, StringComparison.Ordinal)
        && entry.EndsWith((publication.Setup.FirstFolio + h.PageIndex).ToString(CultureInfo.InvariantCulture), StringComparison.Ordinal));

    [GeneratedRegex(@"https?://[^\s<>\u201c\u201d""]+|www\.[^\s<>\u201c\u201d""]+\.[^\s<>\u201c\u201d""]+|[\w.+-]+@[\w-]+\.[\w.-]+")]
    private static partial Regex Address();
}

using Formatum.Core.Edits;
using Formatum.Core.Stories;

namespace Formatum.Documents;

/// <summary>Plain text: each line is a paragraph; where empty lines part them and the lines between are short, lines belong together.</summary>
internal static class PlainDocument
{
    /// <summary>Lines that were broken by hand are at most so long. Common practice, no source.</summary>
    private const int LongestBroken = 82;

    public static BroughtDocument Read(string text)
    {
        string[] lines = FrameText.Clean(text).Split('\n');
        bool broken = lines.Any(l => l.Trim().Length == 0) && lines.All(l => l.Length <= LongestBroken) && lines.Count(l => l.Length > 50) > lines.Length / 3;
        var paragraphs = broken ? Joined(lines) : lines.Reverse().SkipWhile(l => l.Trim().Length == 0).Reverse();
        return new([.. paragraphs.Select(p => new BroughtParagraph(null, TextSettings.Open, TextSettings.Open, [new(p, TextSettings.Open)]))], []);
    }

    private static IEnumerable<string> Joined(string[] lines)
    {
        var paragraph = new List<string>();
        foreach (string line in lines.Append(""))
        {
            if (line.Trim().Length > 0) paragraph.Add(line.Trim());
            else if (paragraph.Count > 0)
            {
                yield return string.Join(' ', paragraph);
                paragraph.Clear();
            }
        }
    }
}

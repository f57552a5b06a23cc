using System.Text.RegularExpressions;
using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed partial class UnknownField : KindCheck
{
    public override FindingKind Kind => FindingKind.UnknownField;
    public override string Title => "Field that does not exist";
    public override string Mark => "no such field";
    public override string Why => "What stands in braces would be printed as it is typed.";

    [GeneratedRegex(@"\{\s*(?<name>\p{L}{2,20})(?<level> \d)?\s*\}", RegexOptions.CultureInvariant)]
    private static partial Regex InBraces();

    private static IEnumerable<Match> Unknown(string text) => InBraces().Matches(text).Where(m => !TextFields.IsField(m.Value[1..^1]));

    internal override IEnumerable<Finding> OfText(CheckedText text)
    {
        if (!text.IsFirst) yield break;
        var unknown = text.Story.Text.Paragraphs.SelectMany(p => Unknown(p.Text)).Select(m => m.Value).ToList();
        if (unknown.Count == 0) yield break;
        yield return On(text, $"{string.Join(", ", unknown.Distinct())} stands there as it is typed.", unknown.Count);
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding)
    {
        if (FrameOf(context.Publication, finding) is not { } frame || context.Publication.StoryOf(frame) is not { } told
            || Mended(told) == told.Text) yield break;
        yield return new("field", "Take the field it is meant for", publication => FrameOf(publication, finding) is { } f && publication.StoryOf(f) is { } story
            && Mended(story) is var text && text != story.Text ? new ChangeStory(story.Id, null, text) : null);
    }

    private static Stories.FrameText Mended(Story story) => story.Text.Restyled(p => p, r => r with
    {
        Text = InBraces().Replace(r.Text, m => TextFields.IsField(m.Value[1..^1]) || Nearest(m.Groups["name"].Value) is not { } name ? m.Value
            : $"{{{name}{m.Groups["level"].Value}}}"),
    });

    /// <summary>The field whose name is typed with two slips at most; null where there is none.</summary>
    private static string? Nearest(string typed)
    {
        const int mostSlips = 2;
        var best = TextFields.Names.Select(name => (name, Slips: Slips(typed.ToLowerInvariant(), name))).OrderBy(n => n.Slips).First();
        return best.Slips <= mostSlips && 2 * best.Slips <= typed.Length ? best.name : null;
    }

    /// <summary>How many letters have to be put in, left out or changed (Levenshtein 1966).</summary>
    private static int Slips(string one, string other)
    {
        int[] row = [.. Enumerable.Range(0, other.Length + 1)];
        for (int i = 1; i <= one.Length; i++)
        {
            int diagonal = row[0];
            row[0] = i;
            for (int j = 1; j <= other.Length; j++)
            {
                int above = row[j];
                row[j] = Math.Min(Math.Min(row[j - 1], above) + 1, diagonal + (one[i - 1] == other[j - 1] ? 0 : 1));
                diagonal = above;
            }
        }
        return row[^1];
    }
}

using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.CompilerServices;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Composing;

/// <summary>A paragraph that heads what follows.</summary>
/// <param name="Words">Its words, in one line.</param>
/// <param name="Level">Its rank, from 1.</param>
/// <param name="PageIndex">On which page it stands, from 0.</param>
/// <param name="StoryId">Its story.</param>
/// <param name="Paragraph">Its place in that, from 0.</param>
public sealed record Heading(string Words, int Level, int PageIndex, int StoryId, int Paragraph);

/// <summary>A heading, and those of lower rank that stand beneath it.</summary>
public sealed record HeadingTree(Heading Heading, List<HeadingTree> Within);

/// <summary>The headings of a publication, in the order in which they are read.</summary>
public static class Headings
{
    private sealed record Known(ITypefaces Typefaces, ImmutableArray<Heading> Headings);

    private static readonly ConditionalWeakTable<Publication, Known> Kept = [];

    public static ImmutableArray<Heading> Of(Publication publication, ITypefaces typefaces)
    {
        if (Kept.TryGetValue(publication, out var known) && ReferenceEquals(known.Typefaces, typefaces)) return known.Headings;
        var styles = new Dictionary<int, int>();
        int LevelOf(Paragraph p) => p.Set.Heading is { } own ? (int)own : styles.TryGetValue(p.StyleId ?? 0, out int level) ? level
            : styles[p.StyleId ?? 0] = (int)(TextCascade.OfParagraphs(publication, p.StyleId).Heading ?? 0);
        var headed = publication.Stories.Values.Where(s => s.Text.Paragraphs.Any(p => LevelOf(p) > 0)).ToList();
        var places = headed.SelectMany(s => Places(publication, s, Listed(publication, s, []), LevelOf, typefaces)).ToList();
        var found = InOrder(publication, places);
        // A list of contents moves what stands behind it in its own story.
        foreach (var story in headed.Where(s => s.Text.Paragraphs.Any(IsContents)))
        {
            places.RemoveAll(p => p.Heading.StoryId == story.Id);
            places.AddRange(Places(publication, story, Listed(publication, story, found), LevelOf, typefaces));
        }
        found = InOrder(publication, places);
        Kept.AddOrUpdate(publication, new(typefaces, found));
        return found;
    }

    /// <summary>Headings as they stand beneath each other; one that skips a rank stands beneath the nearest higher one.</summary>
    public static List<HeadingTree> Nested(IEnumerable<Heading> headings)
    {
        var top = new List<HeadingTree>();
        var path = new Stack<HeadingTree>();
        foreach (var heading in headings)
        {
            while (path.Count > 0 && path.Peek().Heading.Level >= heading.Level) path.Pop();
            var item = new HeadingTree(heading, []);
            (path.Count > 0 ? path.Peek().Within : top).Add(item);
            path.Push(item);
        }
        return top;
    }

    /// <summary>The words of the last heading of a rank up to a page; nothing where there is none.</summary>
    public static string Running(Publication publication, ITypefaces typefaces, int pageIndex, int level) =>
        Of(publication, typefaces).LastOrDefault(h => h.Level == level && h.PageIndex <= pageIndex)?.Words ?? "";

    private static bool IsContents(Paragraph paragraph) => TextFields.Alone(paragraph) is { Name: TextFields.Contents };

    /// <summary>A story with its lists of contents written out: a paragraph for each heading, its page behind a tab.</summary>
    /// <returns>The text, and for each of its paragraphs the one of the story that it comes from.</returns>
    internal static (FrameText Text, ImmutableArray<int> Origins) Listed(Publication publication, Story story, ImmutableArray<Heading> headings)
    {
        var written = new List<(Paragraph Paragraph, int Origin)>();
        for (int i = 0; i < story.Text.Paragraphs.Length; i++)
        {
            var paragraph = story.Text.Paragraphs[i];
            // What heads the list itself is not in it.
            var listed = TextFields.Alone(paragraph) is { Name: TextFields.Contents } field ? headings.Where(h => h.Level <= (field.Level ?? int.MaxValue)
                && (h.StoryId != story.Id || h.Paragraph > i)).ToList() : [];
            if (listed.Count == 0) written.Add((paragraph, i));
            else written.AddRange(listed.Select(h => (Entry(publication, paragraph, h), i)));
        }
        return (new([.. written.Select(w => w.Paragraph)]), [.. written.Select(w => w.Origin)]);
    }

    /// <summary>What each further rank of a list is set in by, in points, where no style of its own says otherwise.</summary>
    private const double StepIn = 12;

    private static Paragraph Entry(Publication publication, Paragraph list, Heading heading)
    {
        string words = $"{heading.Words}\t{Folio(publication, heading.PageIndex)}";
        var entry = list with { Runs = [list.Runs[0] with { Text = words }] };
        if (heading.Level == 1) return entry;
        string? name = list.StyleId is { } id ? publication.Styles.GetValueOrDefault(id)?.Name : null;
        if (name is not null && publication.Styles.Values.FirstOrDefault(s => s.Kind == StyleKind.Paragraph
            && string.Equals(s.Name, FormattableString.Invariant($"{name} {heading.Level}"), StringComparison.OrdinalIgnoreCase)) is { } own)
            return entry with { StyleId = own.Id };
        double left = list.Set.IndentLeft ?? TextCascade.OfParagraphs(publication, list.StyleId).IndentLeft ?? 0;
        return entry with { Set = entry.Set with { IndentLeft = left + (heading.Level - 1) * StepIn } };
    }

    private sealed record Place(Heading Heading, Frame Frame, int Line);

    private static ImmutableArray<Heading> InOrder(Publication publication, IEnumerable<Place> places) => [.. places.OrderBy(p => p.Heading.PageIndex)
        .ThenBy(p => p.Frame.Box.Y).ThenBy(p => publication.Setup.BindsRight ? -p.Frame.Box.X : p.Frame.Box.X).ThenBy(p => p.Frame.Id).ThenBy(p => p.Line)
        .Select(p => p.Heading)];

    private static IEnumerable<Place> Places(Publication publication, Story story, (FrameText Text, ImmutableArray<int> Origins) listed,
        Func<Paragraph, int> levelOf, ITypefaces typefaces)
    {
        var set = Composition.SetAs(publication, story, listed.Text, typefaces);
        var seen = new HashSet<int>();
        for (int f = 0; f < set.Length; f++)
        {
            var frame = publication.Frames[story.FrameIds[f]];
            if (publication.Order.IndexOf(frame.PageId) is not (>= 0 and var page) || frame.Hidden) continue;
            for (int i = 0; i < set[f].Lines.Length; i++)
            {
                int at = set[f].Lines[i].Paragraph;
                var paragraph = listed.Text.Paragraphs[at];
                if (!seen.Add(at) || levelOf(paragraph) is not (> 0 and var level)) continue;
                string words = string.Join(' ', paragraph.Text.Split(['\t', FrameText.LineSeparator],
                    StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries));
                if (words.Length > 0) yield return new(new(words, level, page, story.Id, listed.Origins[at]), frame, i);
            }
        }
    }

    /// <summary>The number a page bears, by its place from 0.</summary>
    internal static string Folio(Publication publication, int pageIndex) =>
        (publication.Setup.FirstFolio + pageIndex).ToString(CultureInfo.InvariantCulture);
}

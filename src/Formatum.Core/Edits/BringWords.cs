using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Edits;

/// <summary>Characters of a document that are set alike.</summary>
public sealed record BroughtRun(string Text, TextSettings Set);

/// <summary>A paragraph of a document.</summary>
/// <param name="Style">The style it names; null for none.</param>
/// <param name="Usual">What a style of that name says where the publication has none yet.</param>
/// <param name="Set">What is set on it besides.</param>
/// <param name="Runs">Its words.</param>
public sealed record BroughtParagraph(string? Style, TextSettings Usual, TextSettings Set, ImmutableArray<BroughtRun> Runs);

/// <summary>A document as it was read.</summary>
/// <param name="Paragraphs">Its words.</param>
/// <param name="LeftAside">What of it does not come along, in words.</param>
public sealed record BroughtDocument(ImmutableArray<BroughtParagraph> Paragraphs, ImmutableArray<string> LeftAside);

/// <summary>Brings the words of a document in: behind those of a text frame, or into a frame of their own.</summary>
/// <param name="Paragraphs">The words; styles are those of the same name, which are made where they are missing.</param>
/// <param name="FrameId">The frame; null to make one.</param>
/// <param name="Page">For a new frame: its page, by number.</param>
/// <param name="Box">For a new frame: where it lies, in points from the upper left of the page's trim.</param>
/// <param name="File">The document's name, for the history.</param>
public sealed record BringWords(ImmutableArray<BroughtParagraph> Paragraphs, int? FrameId, int Page, Box Box, string File) : Edit
{
    public override string Words => $"Bring in the words of {File}";

    protected override void Make(Draft draft)
    {
        if (Paragraphs.IsEmpty) throw new EditRefused("file", $"There are no words in {File}.");
        var styles = new Dictionary<string, int>(RuleChecks.SameName);
        var brought = Paragraphs.Select(p => new Paragraph { StyleId = StyleOf(draft, p, styles), Set = p.Set }.Of(p.Runs.Select(r =>
            new Run(r.Text) { Set = r.Set })))
            .ToImmutableArray();
        if (FrameId is not { } id)
        {
            new MakeFrame { Page = Page, Box = Box, Text = new(brought) }.MakeWithin(draft);
            return;
        }
        var frame = FrameOf(draft, id);
        if (draft.StoryOf(frame) is { } story)
        {
            Chains.Put(draft, story with { Text = story.Text.IsEmpty ? new(brought) : new([.. story.Text.Paragraphs, .. brought]) });
            FrameChecks.Unlocked(frame);
            return;
        }
        var made = new Story { Id = draft.NewId(), FrameIds = [id], Text = new(brought) };
        RunOn.Take(draft, frame, made.Id);
        Chains.Put(draft, made);
    }

    private static int? StyleOf(Draft draft, BroughtParagraph paragraph, Dictionary<string, int> styles)
    {
        if (paragraph.Style is not { Length: > 0 and <= NamedStyle.LongestName } name || name.Any(char.IsControl)) return null;
        if (styles.TryGetValue(name, out int known)) return known;
        var there = draft.Origin.Styles.Values.FirstOrDefault(s => RuleChecks.SameName.Equals(s.Name, name));
        if (there?.Kind == StyleKind.Paragraph) return styles[name] = there.Id;
        if (there is not null || draft.Origin.Styles.Count + styles.Count >= NamedStyle.Most) return null;
        var made = new NamedStyle { Id = draft.NewId(), Kind = StyleKind.Paragraph, Name = name, Settings = paragraph.Usual };
        draft.Put(made);
        return styles[name] = made.Id;
    }
}

using Formatum.Core.Publications;
using Formatum.Core.Settings;
using Formatum.Core.Stories;

namespace Formatum.Web.Desk;

/// <summary>What the characters that are meant have in common: those of a stretch of a text, those typed next at a caret, or all of the chosen texts.</summary>
public sealed class TextSelection
{
    private readonly (Paragraph Paragraph, Run Run)[] _pieces;
    private readonly TextSettings[] _resolved;

    /// <param name="publication">The publication.</param>
    /// <param name="frames">The chosen text frames.</param>
    /// <param name="range">The stretch of their one text; empty for what is typed at its place, null for all.</param>
    public TextSelection(Publication publication, IReadOnlyList<Frame> frames, TextRange? range = null)
    {
        Publication = publication;
        var stories = frames.Select(publication.StoryOf).OfType<Story>().Distinct().ToList();
        _pieces = [.. stories.SelectMany(story => PiecesOf(story.Text, stories.Count == 1 ? range : null))];
        _resolved = [.. _pieces.Select(p => TextCascade.StyleOf(publication, p.Paragraph, p.Run)).Distinct().Select(s => s.ToSettings())];
    }

    private static IEnumerable<(Paragraph, Run)> PiecesOf(FrameText text, TextRange? range)
    {
        if (range is { IsEmpty: true } caret) return [text.TypedAt(caret.From)];
        var paragraphs = range is { } stretch ? text.Slice(stretch) : text.Paragraphs;
        return paragraphs.SelectMany(p => p.Runs.Select(r => (p, r)));
    }

    public Publication Publication { get; }

    /// <summary>The font families that there are.</summary>
    public IEnumerable<string> Families => Publication.FontFamilies;

    /// <summary>The settings they share; null where they differ in this one.</summary>
    public TextSettings? Shared(Setting<TextSettings> setting) =>
        _resolved.Select(setting.ValueOf).Distinct().Take(2).Count() == 1 ? _resolved[0] : null;

    /// <summary>Whether something is set on one of them, or on a paragraph they stand in.</summary>
    public bool IsSetHere(Setting<TextSettings> setting) => _pieces.Any(p => setting.IsSet(p.Paragraph.Set) || setting.IsSet(p.Run.Set));

    /// <summary>The paragraph style they share: its id, 0 for none; null where they differ.</summary>
    public int? Style => Only(_pieces.Select(p => p.Paragraph.StyleId ?? 0));

    /// <summary>The character style they share: its id, 0 for none; null where they differ.</summary>
    public int? CharacterStyle => Only(_pieces.Select(p => p.Run.StyleId ?? 0));

    private static int? Only(IEnumerable<int> ids) => ids.Distinct().Take(2).ToList() is [var only] ? only : null;

    /// <summary>What the styles that speak for them say, each with its settings, the nearest first; what is set here or comes from different styles is left
    /// out.</summary>
    public IEnumerable<(NamedStyle Style, Setting<TextSettings>[] Settings)> FromStyles => TextSettings.All
        .Select(setting => (Setting: setting, Sources: _pieces.Select(p => TextCascade.SourceOf(Publication, p.Paragraph, p.Run, setting)).Distinct().Take(2)
            .ToList()))
        .Where(s => s.Sources is [{ Style: not null }]).GroupBy(s => s.Sources[0].Style!).Select(g => (g.Key, g.Select(s => s.Setting).ToArray()))
        .OrderBy(g => _pieces.Length == 0 ? 0 : TextCascade.Sources(Publication, _pieces[0].Paragraph, _pieces[0].Run).ToList().IndexOf(g.Key));
}

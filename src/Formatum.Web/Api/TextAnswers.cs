using Formatum.Core.Colours;
using Formatum.Core.Composing;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Web.Api;

/// <summary>The story of a frame with all its words, the lines of it that stand in this frame, and how many of its characters do not fit or have no
/// glyph.</summary>
public sealed record TextAnswer(int StoryId, string[] Lines, ParagraphAnswer[] Paragraphs, int LeftOut, int Missing)
{
    public static TextAnswer Of(Publication publication, Frame frame, Story story)
    {
        var set = Composition.TextOf(publication, frame, Output.Typefaces.All)!;
        return new(story.Id, [.. set.Lines.Select(l => l.Text)], ParagraphAnswer.Of(publication, story), set.LeftOut, set.Missing);
    }
}

/// <summary>Settings of text as they are set somewhere; what is left open is left out. Lengths in points.</summary>
internal static class TextSettingsAnswer
{
    /// <summary>By their names in the interface.</summary>
    public static Dictionary<string, object> Of(Publication publication, TextSettings settings) => TextSettings.All.Where(s => s.IsSet(settings))
        .ToDictionary(s => s.Path, s =>
        s.ValueOf(settings) switch
        {
            TabStops tabs => tabs.Stops.Select(t => new { t.At, t.Alignment, t.Leader }).ToArray(),
            Colour colour => ColourBody.Answer(publication, colour),
            var value => value!
        });
}

/// <summary>Characters that are set alike; their style by name, and what is set on them.</summary>
public sealed record RunAnswer(string Text, string? Style, Dictionary<string, object> Settings)
{
    public static RunAnswer Of(Publication publication, Run run) =>
        new(run.Text, run.StyleId is { } id ? publication.Styles[id].Name : null, TextSettingsAnswer.Of(publication, run.Set));
}

/// <summary>A paragraph: how it comes to be set, its style by name, what is set on it, and its runs; lengths in points.</summary>
public sealed record ParagraphAnswer(string Text, string Family, bool Bold, bool Italic, double Size, double? Leading, object Colour, TextAlignment Alignment,
    double SpaceBefore, double SpaceAfter, double Indent, bool Hyphenate, string Language, string? Style, Dictionary<string, object> Settings, RunAnswer[] Runs)
{
    public static ParagraphAnswer[] Of(Publication publication, Story story) => [.. story.Text.Paragraphs.Select(p => Of(publication, p))];

    private static ParagraphAnswer Of(Publication publication, Paragraph p)
    {
        var style = TextCascade.StyleOf(publication, p);
        return new(p.Text, style.Family, style.Bold, style.Italic, style.Size, style.Leading, ColourBody.Answer(publication, style.Colour), style.Alignment,
            style.SpaceBefore,
            style.SpaceAfter,
            style.Indent, style.Hyphenate, style.Language, p.StyleId is { } id ? publication.Styles[id].Name : null, TextSettingsAnswer.Of(publication, p.Set),
            [.. p.Runs.Select(r => RunAnswer.Of(publication, r))]);
    }
}

/// <summary>A style: what it says, and what it comes to over all it is based on.</summary>
public sealed record StyleAnswer(int Id, StyleKind Kind, string Name, string? BasedOn, bool Default, Dictionary<string, object> Settings,
    Dictionary<string, object> ComesTo)
{
    public static StyleAnswer Of(Publication publication, NamedStyle style) => new(style.Id, style.Kind, style.Name,
        style.BasedOnId is { } id ? publication.Styles[id].Name : null, publication.Setup.DefaultStyleId == style.Id, TextSettingsAnswer.Of(publication,
            style.Settings),
        TextSettingsAnswer.Of(publication, TextCascade.Of(publication, style)));
}

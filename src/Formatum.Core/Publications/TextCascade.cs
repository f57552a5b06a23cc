using Formatum.Core.Settings;
using Formatum.Core.Stories;

namespace Formatum.Core.Publications;

/// <summary>Where a setting of text comes from: the style that says it, or what was set on the text itself. Neither: it is built in.</summary>
public readonly record struct TextSource(NamedStyle? Style, bool SetHere);

/// <summary>
/// How settings of text are inherited, weakest first: built in, the publication's default style, the chain of the paragraph's style from the root, what was
/// set on the paragraph, the chain of the characters' style, what was set on the characters.
/// </summary>
public static class TextCascade
{
    /// <summary>The style and those it is based on, strongest first.</summary>
    public static IEnumerable<NamedStyle> Chain(Publication publication, int? styleId) =>
        Layers.Chain(styleId, id => publication.Styles.GetValueOrDefault(id), style => style.BasedOnId);

    /// <summary>The styles that speak for a paragraph of a style, strongest first.</summary>
    public static IEnumerable<NamedStyle> ParagraphSources(Publication publication, int? styleId) =>
        Chain(publication, styleId).Concat(Chain(publication, publication.Setup.DefaultStyleId));

    /// <summary>What a paragraph style comes to over all it is based on and the default; of none, what the default does.</summary>
    public static TextSettings OfParagraphs(Publication publication, int? styleId) => Together(ParagraphSources(publication, styleId));

    /// <summary>The language of a publication: that of its text where nothing says otherwise.</summary>
    public static string LanguageOf(Publication publication) => OfParagraphs(publication, null).Language ?? TextStyle.Usual.Language;

    /// <summary>What a character style comes to over all it is based on.</summary>
    public static TextSettings OfCharacters(Publication publication, int? styleId) => Together(Chain(publication, styleId));

    /// <summary>What a style comes to, whatever its kind.</summary>
    public static TextSettings Of(Publication publication, NamedStyle style) =>
        style.Kind == StyleKind.Paragraph ? OfParagraphs(publication, style.Id) : OfCharacters(publication, style.Id);

    private static TextSettings Together(IEnumerable<NamedStyle> styles) =>
        styles.Aggregate(TextSettings.Open, (settings, style) => settings.Over(style.Settings));

    /// <summary>How text would be set of which only the style speaks.</summary>
    public static TextStyle StyleOf(Publication publication, NamedStyle style) => TextStyle.Of(Of(publication, style), publication);

    /// <summary>How a paragraph is set as a whole.</summary>
    public static TextStyle StyleOf(Publication publication, Paragraph paragraph) =>
        TextStyle.Of(paragraph.Set.Over(OfParagraphs(publication, paragraph.StyleId)), publication);

    /// <summary>How some of its characters are set.</summary>
    public static TextStyle StyleOf(Publication publication, Paragraph paragraph, Run run) => TextStyle.Of(run.Set
        .Over(OfCharacters(publication, run.StyleId)).Over(paragraph.Set).Over(OfParagraphs(publication, paragraph.StyleId)), publication);

    /// <summary>A text with every setting resolved.</summary>
    public static StyledText Styled(Publication publication, FrameText text)
    {
        // Each style is worked out once for all of a text.
        var (paragraphs, characters) = (new Dictionary<int, TextSettings>(), new Dictionary<int, TextSettings>());
        return StyledText.Of(text,
            id => paragraphs.TryGetValue(id ?? 0, out var known) ? known : paragraphs[id ?? 0] = OfParagraphs(publication, id),
            id => characters.TryGetValue(id, out var known) ? known : characters[id] = OfCharacters(publication, id), publication);
    }

    /// <summary>The styles that speak for some characters of a paragraph, strongest first.</summary>
    public static IEnumerable<NamedStyle> Sources(Publication publication, Paragraph paragraph, Run run) =>
        Chain(publication, run.StyleId).Concat(ParagraphSources(publication, paragraph.StyleId));

    /// <summary>Where a setting of some characters of a paragraph comes from.</summary>
    public static TextSource SourceOf(Publication publication, Paragraph paragraph, Run run, Setting<TextSettings> setting)
    {
        if (setting.IsSet(run.Set)) return new(null, true);
        // What is set on a paragraph is weaker than the style of its characters, and stronger than its own.
        var said = Chain(publication, run.StyleId).FirstOrDefault(s => setting.IsSet(s.Settings));
        if (said is null && setting.IsSet(paragraph.Set)) return new(null, true);
        return new(said ?? ParagraphSources(publication, paragraph.StyleId).FirstOrDefault(s => setting.IsSet(s.Settings)), false);
    }

    /// <summary>Whether basing a style on another would make a chain that comes back to itself.</summary>
    public static bool WouldLoop(Publication publication, int styleId, int? basedOnId) =>
        Layers.WouldLoop(styleId, basedOnId, id => publication.Styles.GetValueOrDefault(id)?.BasedOnId);

    /// <summary>The style and all that are based on it, directly or through others.</summary>
    public static IReadOnlySet<int> Reach(Publication publication, int styleId) =>
        publication.Styles.Keys.Where(id => Chain(publication, id).Any(style => style.Id == styleId)).ToHashSet();

    /// <summary>The stories in which a style says something, by the paragraphs or characters that have it or one based on it.</summary>
    public static IEnumerable<Story> Followers(Publication publication, int styleId)
    {
        var reach = Reach(publication, styleId);
        bool all = publication.Setup.DefaultStyleId is { } start && reach.Contains(start);
        return publication.Stories.Values.Where(story => all || story.Text.Paragraphs.Any(p => (p.StyleId is { } id && reach.Contains(id))
            || p.Runs.Any(r => r.StyleId is { } own && reach.Contains(own))));
    }
}

using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Storage;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk.Commands;

/// <summary>Text is typed: words in the place of a stretch.</summary>
public sealed record Write : Gesture, IUnderHand
{
    /// <summary>The words; all of the text, with line ends between paragraphs, where no stretch is given.</summary>
    public string? Text { get; init; }

    public int? From { get; init; }
    public int? To { get; init; }

    /// <summary>The paragraphs that the stretch reaches into, whole, as they were seen, and where they began.</summary>
    public string? Within { get; init; }
    public int Begin { get; init; }

    /// <summary>Where the caret stands then; the page is told where that is.</summary>
    public int Caret { get; init; }

    /// <summary>Settings that are switched for what is typed, by their names in the automation interface.</summary>
    public string[] Switched { get; init; } = [];

    public override Edit ToEdit(Ground ground) => From is { } from ? new TypeText(FirstFrame(ground).Id, new(from, To ?? from), Text ?? "", Within ?? "", Begin,
            Switched.Length == 0 ? null : Set(ground, from))
        : new WriteText(FirstFrame(ground).Id, Text ?? "");

    /// <summary>What is on for the character before is off for what is typed, and the other way round.</summary>
    private TextSettings Set(Ground ground, int from)
    {
        var story = ground.Publication.StoryOf(FirstFrame(ground));
        if (story is null) return TextSettings.Open;
        var (paragraph, run) = story.Text.TypedAt(from);
        var now = TextCascade.StyleOf(ground.Publication, paragraph, run).ToSettings();
        return TextSettings.OfCharacters.Where(s => s.Kind == Core.Settings.SettingKind.YesNo && Switched.Contains(s.Path))
            .Aggregate(TextSettings.Open, (set, setting) => setting.Set(set, setting.ValueOf(now) is not true));
    }

    public UnderWay UnderWay(Ground ground, bool inside)
    {
        var after = ground.Publication.With(ToEdit(ground).On(ground.Publication));
        var story = after.StoryOf(after.Frames[FirstFrame(ground).Id])!;
        var places = TextPlaces.Of(after, ground.Spread, story, Caret);
        return Desk.UnderWay.Nothing with { Writing = places };
    }
}

/// <summary>Empty text frames are filled with words to see how a text will look.</summary>
public sealed record FillWithSample : Gesture
{
    /// <summary>No frame takes more paragraphs.</summary>
    private const int Most = 200;

    public override Edit ToEdit(Ground ground)
    {
        var publication = ground.Publication;
        var empty = FramesOf(ground).Where(f => f.IsText && publication.IsEmpty(f)).ToList();
        if (empty.Count == 0) throw new EditRefused("text", "No empty text frame is chosen. Sample words are never put over yours.");
        return new Together([.. empty.DistinctBy(f => f.StoryId).Select(f => new WriteText(f.Id, Filling(publication, f)))], "Fill with sample words");
    }

    private static string Filling(Publication publication, Frame frame)
    {
        var story = publication.StoryOf(frame)!;
        var text = new List<string>();
        foreach (string paragraph in SampleText.Paragraphs(TextCascade.StyleOf(publication, story.Text.Paragraphs[0]).Language).Take(Most))
        {
            text.Add(paragraph);
            var after = publication.With(new WriteText(frame.Id, string.Join('\n', text)).On(publication));
            if (Core.Composing.Composition.TextOf(after, after.Frames[story.FrameIds[^1]], Output.Typefaces.All) is not { Overflows: true }) continue;
            if (text.Count > 1) text.RemoveAt(text.Count - 1);
            break;
        }
        return string.Join('\n', text);
    }
}

/// <summary>Something done to a stretch of text, or to all of it.</summary>
public abstract record OfText : Gesture
{
    /// <summary>Where the stretch begins and ends, in UTF-16 units with one for each line end between paragraphs; all where left out.</summary>
    public int? From { get; init; }
    public int? To { get; init; }

    protected TextRange? Range => From is { } from ? new(from, To ?? from) : null;

    /// <exception cref="EditRefused">There is no text among what is chosen.</exception>
    protected IReadOnlyList<Frame> Texts(Ground ground) => FramesOf(ground).Where(f => f.IsText).ToList() is { Count: > 0 } texts ? texts
        : throw new EditRefused("text", "No text is chosen. Click a text frame first.");

    /// <summary>The first of the characters that are meant.</summary>
    protected (Paragraph Paragraph, Run Run) First(Ground ground)
    {
        var text = ground.Publication.StoryOf(Texts(ground)[0])!.Text;
        if (Range is { IsEmpty: true } caret) return text.TypedAt(caret.From);
        var (number, at) = text.PlaceOf(From ?? 0);
        int end = 0;
        return (text.Paragraphs[number], text.Paragraphs[number].Runs.FirstOrDefault(r => (end += r.Text.Length) > at) ?? text.Paragraphs[number].Runs[^1]);
    }

    /// <summary>What holds for the first of the characters that are meant.</summary>
    protected TextStyle Now(Ground ground)
    {
        var (paragraph, run) = First(ground);
        return TextCascade.StyleOf(ground.Publication, paragraph, run);
    }
}

/// <summary>A setting of text is changed, or left open again.</summary>
public sealed record StyleWords : OfText
{
    /// <summary>Which, by its name in the automation interface.</summary>
    public string? Setting { get; init; }

    /// <summary>As it is typed; null leaves it open again, and "switch" turns what is a yes to a no.</summary>
    public string? Value { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var texts = Texts(ground);
        var setting = TextSettings.All.FirstOrDefault(s => s.Path == Setting) ?? throw new EditRefused("setting", $"There is no setting {Setting} of text.");
        var errors = new FieldErrors();
        if (Value == "switch") return new StyleText([.. texts.Select(f => f.Id)], SettingsChange.Setting(setting.Set(TextSettings.Open, !IsSet(ground,
            setting))), Range);
        var set = Value is null ? TextSettings.Open : TextSettingText.Read(setting, Value, Now(ground), ground.Publication, errors);
        errors.ThrowIfAny();
        return new StyleText([.. texts.Select(f => f.Id)], new(set, Value is null ? [setting] : []), Range);
    }

    /// <summary>Whether the first of the characters that are meant has it.</summary>
    private bool IsSet(Ground ground, Core.Settings.Setting<TextSettings> setting)
    {
        var (paragraph, run) = First(ground);
        return setting.ValueOf(TextCascade.StyleOf(ground.Publication, paragraph, run).ToSettings()) is true;
    }
}

/// <summary>A named style is put on text, or taken off.</summary>
public sealed record PutWordsStyle : OfText
{
    /// <summary>Its id; empty for none.</summary>
    public string? Style { get; init; }

    public StyleKind Kind { get; init; }

    /// <summary>Whether what was set on the text goes.</summary>
    public bool Clear { get; init; }

    public override Edit ToEdit(Ground ground) => new PutStyle([.. Texts(ground).Select(f => f.Id)],
        int.TryParse(Style, System.Globalization.CultureInfo.InvariantCulture, out int id) ? id : null, Kind, Range, Clear);
}

/// <summary>A style is made of how text is set, and put on it.</summary>
public sealed record MakeWordsStyle : OfText
{
    public string? Name { get; init; }
    public StyleKind Kind { get; init; }

    /// <summary>The settings that go into it, by their names in the automation interface.</summary>
    public string[] Settings { get; init; } = [];

    public override Edit ToEdit(Ground ground)
    {
        var frame = Texts(ground)[0];
        var text = ground.Publication.StoryOf(frame)!.Text;
        var paragraph = text.Paragraphs[text.PlaceOf(From ?? 0).Paragraph];
        var chosen = TextSettings.All.Where(s => Settings.Contains(s.Path)).ToList();
        if (chosen.Count == 0) throw new EditRefused("settings", "A style of nothing would do nothing. Choose what goes into it.");
        return new DefineStyle
        {
            Kind = Kind,
            Name = Name ?? "",
            BasedOnId = Kind == StyleKind.Paragraph ? paragraph.StyleId : null,
            Settings = Now(ground).ToSettings().Only(chosen),
            Like = (frame.Id, Range),
        };
    }
}

/// <summary>Words are pasted into a text as they are set: copied here before, or from another program as HTML.</summary>
public sealed record PasteStyledWords : OfText
{
    public string? Html { get; init; }

    /// <summary>What was copied here: the moment, the publication, the frame, and the stretch.</summary>
    public string? Token { get; init; }
    public int Source { get; init; }
    public int SourceFrom { get; init; }
    public int SourceTo { get; init; }

    /// <summary>No more is read of another program's.</summary>
    private const int LongestHtml = 4_000_000;

    /// <summary>Set by the server: the publication as it was when words were copied.</summary>
    private Publication? _copied;

    public override Task<EditOutcome> DoAsync(Hand hand)
    {
        _copied = hand.Copied.Find(Token);
        return base.DoAsync(hand);
    }

    public override Edit ToEdit(Ground ground)
    {
        var range = Range ?? throw new EditRefused("text", "Open the text first, and paste where the caret stands.");
        return new PasteWords(Texts(ground)[0].Id, range, Html is null ? Copied() : Read(ground.Publication, Html));
    }

    private ImmutableArray<Paragraph> Copied() =>
        _copied?.Frames.GetValueOrDefault(Source) is { } frame && _copied.StoryOf(frame) is { } story ? story.Text.Slice(new(SourceFrom, SourceTo))
            : throw new EditRefused("text", "What was copied is no longer known here. Paste it as plain text (Ctrl Shift V).");

    /// <summary>What styles of the same name, bold, italic and the like can say; no style is made for it.</summary>
    private static ImmutableArray<Paragraph> Read(Publication publication, string html)
    {
        if (html.Length > LongestHtml) throw new EditRefused("text", "That is too much to paste at once. Bring it in as a file, or paste it as plain text.");
        int? Named(string? name) => name is null ? null : publication.Styles.Values.FirstOrDefault(s => s.Kind == StyleKind.Paragraph
            && string.Equals(s.Name, name, StringComparison.OrdinalIgnoreCase))?.Id;
        return [.. Documents.DocumentReader.ReadHtml(html).Paragraphs.Select(p => new Paragraph { StyleId = Named(p.Style), Set = p.Set }
            .Of(p.Runs.Select(r => new Run(r.Text) { Set = r.Set })))];
    }
}

using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk.Commands;

/// <summary>Text is typed.</summary>
public sealed record Write : Gesture
{
    /// <summary>All of it, with line ends between paragraphs.</summary>
    public string? Text { get; init; }

    public override Edit ToEdit(Ground ground) => new WriteText(FirstFrame(ground).Id, Text ?? "");
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

    /// <summary>What holds for the characters that the stretch begins with.</summary>
    protected TextStyle Now(Ground ground)
    {
        var text = ground.Publication.StoryOf(Texts(ground)[0])!.Text;
        var (paragraph, _) = text.PlaceOf(From ?? 0);
        return TextCascade.StyleOf(ground.Publication, text.Paragraphs[paragraph]);
    }
}

/// <summary>A setting of text is changed, or left open again.</summary>
public sealed record StyleWords : OfText
{
    /// <summary>Which, by its name in the automation interface.</summary>
    public string? Setting { get; init; }

    /// <summary>As it is typed; null leaves it open again.</summary>
    public string? Value { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var texts = Texts(ground);
        var setting = TextSettings.All.FirstOrDefault(s => s.Path == Setting) ?? throw new EditRefused("setting", $"There is no setting {Setting} of text.");
        var errors = new FieldErrors();
        var set = Value is null ? TextSettings.Open : TextSettingText.Read(setting, Value, Now(ground), errors);
        errors.ThrowIfAny();
        return new StyleText([.. texts.Select(f => f.Id)], new(set, Value is null ? [setting] : []), Range);
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

using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk.Commands;

/// <summary>Text is typed.</summary>
public sealed record Write : Gesture
{
    /// <summary>All of it, with line ends between paragraphs.</summary>
    public string? Text { get; init; }

    public override Edit ToEdit(Ground ground) => new WriteText(FirstFrame(ground).Id, Text ?? "");
}

/// <summary>Paragraphs are styled.</summary>
public sealed record StyleWords : Gesture
{
    public string? Family { get; init; }
    public bool? Bold { get; init; }
    public bool? Italic { get; init; }
    public string? Size { get; init; }
    public string? Leading { get; init; }
    public string? Colour { get; init; }
    public TextAlignment? TextAlign { get; init; }
    public string? SpaceBefore { get; init; }
    public string? SpaceAfter { get; init; }
    public string? Indent { get; init; }
    public bool? Hyphenate { get; init; }
    public string? Language { get; init; }

    /// <summary>The paragraphs that are meant, counted from 0; all where left out.</summary>
    public int? FirstParagraph { get; init; }
    public int? LastParagraph { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var errors = new FieldErrors();
        var texts = FramesOf(ground).Where(f => f.IsText).ToList();
        var now = (texts.FirstOrDefault() is { } first ? ground.Publication.StoryOf(first) : null)?.Text.Paragraphs.ElementAtOrDefault(FirstParagraph
            ?? 0)?.Style ?? TextStyle.Usual;
        double? Points(string field, string? text, double current, bool negative = false) => string.IsNullOrWhiteSpace(text) ? null
            : SettingText.Length(field, text, LengthUnit.Point, current, negative, errors);
        var change = new StyleChange
        {
            Family = Family,
            Bold = Bold,
            Italic = Italic,
            Size = Points("size", Size, now.Size),
            Leading = Leading is "auto" ? 0 : Points("leading", Leading, now.LineHeight),
            Colour = Colour,
            Alignment = TextAlign,
            SpaceBefore = Points("spaceBefore", SpaceBefore, now.SpaceBefore),
            SpaceAfter = Points("spaceAfter", SpaceAfter, now.SpaceAfter),
            Indent = Points("indent", Indent, now.Indent, negative: true),
            Hyphenate = Hyphenate,
            Language = Language,
        };
        errors.ThrowIfAny();
        return new StyleText([.. texts.Select(f => f.Id)], change, FirstParagraph ?? 0, LastParagraph ?? int.MaxValue);
    }
}

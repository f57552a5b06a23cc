using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk;

/// <summary>Text typed and styled.</summary>
public sealed partial record DeskCommand
{
    /// <summary>What was typed, with line ends between paragraphs.</summary>
    public string? Text { get; init; }

    public string? Family { get; init; }
    public bool? Bold { get; init; }
    public bool? Italic { get; init; }
    public string? Size { get; init; }
    public string? Leading { get; init; }
    public string? Colour { get; init; }
    public TextAlignment? TextAlign { get; init; }
    public string? SpaceAfter { get; init; }

    /// <summary>The paragraphs that are meant, counted from 0; all where left out.</summary>
    public int? FirstParagraph { get; init; }
    public int? LastParagraph { get; init; }

    private WriteText Write(Publication publication) => new(Only(publication).Id, Text ?? "");

    private StyleText StyleText(Publication publication)
    {
        var errors = new FieldErrors();
        var now = FramesOf(publication).FirstOrDefault(f => f.IsText)?.Text!.Paragraphs.ElementAtOrDefault(FirstParagraph ?? 0)?.Style ?? TextStyle.Usual;
        double? Points(string field, string? text, double current) => string.IsNullOrWhiteSpace(text) ? null
            : SettingText.Length(field, text, LengthUnit.Point, current, false, errors);
        var change = new StyleChange
        {
            Family = Family,
            Bold = Bold,
            Italic = Italic,
            Size = Points("size", Size, now.Size),
            Leading = Leading is "auto" ? 0 : Points("leading", Leading, now.LineHeight),
            Colour = Colour,
            Alignment = TextAlign,
            SpaceAfter = Points("spaceAfter", SpaceAfter, now.SpaceAfter),
        };
        errors.ThrowIfAny();
        return new([.. FramesOf(publication).Where(f => f.IsText).Select(f => f.Id)], change, FirstParagraph ?? 0, LastParagraph ?? int.MaxValue);
    }

    /// <summary>New text takes on the style of the text that was made last.</summary>
    private static FrameText NewText(Publication publication) =>
        FrameText.Empty(publication.Frames.Values.Where(f => f.IsText).MaxBy(f => f.Id)?.Text!.Paragraphs[0].Style ?? TextStyle.Usual);
}

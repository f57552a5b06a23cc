using System.Text.Json;
using System.Text.Json.Serialization;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Web.Api;

/// <summary>A tab stop: how far from the left edge of the column, what stands there, and what fills the room before it.</summary>
public sealed record TabStopBody(Length At, TabAlignment? Alignment = null, string? Leader = null);

/// <summary>
/// Settings of text; what is left out is open. Lengths in points; leading 0 follows the size; colour as "#rrggbb", {"cmyk"}, {"grey"} or a name of the palette;
/// tracking in thousandths of the size;
/// language as in "en-GB". Characters have the first of them, up to the language; paragraphs all.
/// </summary>
public record TextSettingsBody
{
    public string? Family { get; init; }
    public bool? Bold { get; init; }
    public bool? Italic { get; init; }
    public Length? Size { get; init; }
    public Length? Leading { get; init; }
    public ColourBody? Colour { get; init; }
    public double? Tracking { get; init; }
    public Length? Shift { get; init; }
    public TextPosition? Position { get; init; }
    public TextCase? Case { get; init; }
    public bool? Underline { get; init; }
    public bool? StrikeThrough { get; init; }
    public FigureStyle? Figures { get; init; }
    public bool? TabularFigures { get; init; }
    public bool? Fractions { get; init; }
    public bool? Ligatures { get; init; }
    public string? Language { get; init; }
    public TextAlignment? Alignment { get; init; }

    /// <summary>How much later the first line begins.</summary>
    public Length? Indent { get; init; }

    public Length? IndentLeft { get; init; }
    public Length? IndentRight { get; init; }
    public Length? SpaceBefore { get; init; }
    public Length? SpaceAfter { get; init; }

    /// <summary>Whether words may be divided at the ends of lines, as their language does.</summary>
    public bool? Hyphenate { get; init; }

    public TabStopBody[]? Tabs { get; init; }
    public ListKind? List { get; init; }
    public bool? KeepWithNext { get; init; }
    public bool? KeepTogether { get; init; }
    public int? Orphans { get; init; }
    public int? Widows { get; init; }
    public BreakBefore? BreakBefore { get; init; }
    public int? InitialLines { get; init; }
    public Length? LineAbove { get; init; }
    public Length? LineBelow { get; init; }

    /// <summary>Whether its baselines stand on the publication's baseline grid.</summary>
    public bool? OnGrid { get; init; }

    /// <summary>Its rank as a heading, 1 to 6; 0 for none.</summary>
    public int? Heading { get; init; }

    /// <summary>How small its type may be set where text has to fit; 0 for four fifths of its size.</summary>
    public Length? SmallestSize { get; init; }

    public TextSettings ToSettings(Publication publication) => new()
    {
        Family = Family,
        Bold = Bold,
        Italic = Italic,
        Size = Size?.Points,
        Leading = Leading?.Points,
        Colour = Colour?.In(publication),
        Tracking = Tracking,
        Shift = Shift?.Points,
        Position = Position,
        Case = Case,
        Underline = Underline,
        StrikeThrough = StrikeThrough,
        Figures = Figures,
        TabularFigures = TabularFigures,
        Fractions = Fractions,
        Ligatures = Ligatures,
        Language = Language,
        Alignment = Alignment,
        Indent = Indent?.Points,
        IndentLeft = IndentLeft?.Points,
        IndentRight = IndentRight?.Points,
        SpaceBefore = SpaceBefore?.Points,
        SpaceAfter = SpaceAfter?.Points,
        Hyphenate = Hyphenate,
        Tabs = Tabs is null ? null : Tabs.Any(t => t is null) ? throw new EditRefused("tabs", "A tab stop says where it is.")
            : new([.. Tabs.OrderBy(t => t.At.Points).Select(t => new TabStop(t.At.Points, t.Alignment ?? TabAlignment.Left, t.Leader ?? ""))]),
        List = List,
        KeepWithNext = KeepWithNext,
        KeepTogether = KeepTogether,
        Orphans = Orphans,
        Widows = Widows,
        BreakBefore = BreakBefore,
        InitialLines = InitialLines,
        LineAbove = LineAbove?.Points,
        LineBelow = LineBelow?.Points,
        OnGrid = OnGrid,
        Heading = Heading,
        SmallestSize = SmallestSize?.Points,
    };
}

/// <summary>A style by its name, or by its id as a number.</summary>
[JsonConverter(typeof(Converter))]
public readonly record struct StyleReference(string? Name, int? Id)
{
    /// <exception cref="EditRefused">There is no such style, or it is of the other kind.</exception>
    public int In(Publication publication, StyleKind kind)
    {
        var (name, id) = (Name, Id);
        var style = id is { } known ? publication.Styles.GetValueOrDefault(known)
            : publication.Styles.Values.FirstOrDefault(s => string.Equals(s.Name, name, StringComparison.OrdinalIgnoreCase));
        return style?.Kind == kind ? style.Id : throw new EditRefused("style", $"There is no {kind.ToString().ToLowerInvariant()} style {name ?? $"{id}"} in " +
            $"this publication. Make it first, or take one of those there are.");
    }

    private sealed class Converter : JsonConverter<StyleReference>
    {
        public override StyleReference Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) => reader.TokenType switch
        {
            JsonTokenType.String => new(reader.GetString(), null),
            JsonTokenType.Number when reader.TryGetInt32(out int id) => new(null, id),
            _ => throw new JsonException("Name a style by its name, or by its id as a number."),
        };

        public override void Write(Utf8JsonWriter writer, StyleReference value, JsonSerializerOptions options) => writer.WriteStringValue(value.Name);
    }
}

/// <summary>Characters of a paragraph that are set alike.</summary>
public sealed record RunBody
{
    public string Text { get; init; } = "";
    public StyleReference? Style { get; init; }
    public TextSettingsBody? Settings { get; init; }

    public Run ToRun(Publication publication) => new(FrameText.Clean(Text ?? "").Replace('\n', FrameText.LineSeparator),
        Style?.In(publication, StyleKind.Character))
    { Set = Settings?.ToSettings(publication) ?? TextSettings.Open };
}

/// <summary>
/// A paragraph: its words plain or in runs, its style, and what is set on it, beneath "settings" or beside its text. U+2028, or a line end, ends a line within
/// it.
/// </summary>
public sealed record ParagraphBody : TextSettingsBody
{
    public string? Text { get; init; }
    public RunBody[]? Runs { get; init; }
    public StyleReference? Style { get; init; }
    public TextSettingsBody? Settings { get; init; }

    public Paragraph ToParagraph(Publication publication)
    {
        if (Text is not null && Runs is not null) throw new EditRefused("runs", "Give a paragraph's words as text or as runs, not both.");
        if (Runs is not null && Runs.Any(r => r is null)) throw new EditRefused("runs", "A run has text, which may be empty.");
        var set = Settings is { } settings ? settings.ToSettings(publication).Over(ToSettings(publication)) : ToSettings(publication);
        var paragraph = new Paragraph { StyleId = Style?.In(publication, StyleKind.Paragraph), Set = set };
        return paragraph.Of((Runs ?? [new() { Text = Text ?? "" }]).Select(r => r.ToRun(publication)));
    }
}

/// <summary>The text of a frame, paragraph by paragraph.</summary>
public sealed record TextBody(ParagraphBody[] Paragraphs)
{
    /// <exception cref="EditRefused">A paragraph is missing, or a style is not there.</exception>
    public FrameText ToText(Publication publication) => Paragraphs is null || Paragraphs.Any(p => p is null) ? throw new EditRefused("text",
        "A text has at least one paragraph, which may be empty, each with a style.") : new([.. Paragraphs.Select(p => p.ToParagraph(publication))]);
}

/// <summary>A paragraph or character style.</summary>
public sealed record StyleBody
{
    public StyleKind? Kind { get; init; }
    public string? Name { get; init; }

    /// <summary>The style it is based on, by name or id.</summary>
    public StyleReference? BasedOn { get; init; }

    /// <summary>Whether all text of the publication rests on it.</summary>
    public bool? Default { get; init; }

    public TextSettingsBody? Settings { get; init; }
    public long? Seen { get; init; }

    public DefineStyle ToEdit(Publication publication, NamedStyle? now)
    {
        var kind = Kind ?? now?.Kind ?? StyleKind.Paragraph;
        return new()
        {
            StyleId = now?.Id,
            Kind = kind,
            Name = Name ?? now?.Name ?? "",
            BasedOnId = BasedOn?.In(publication, kind),
            Default = Default,
            Settings = Settings?.ToSettings(publication) ?? TextSettings.Open,
        };
    }
}

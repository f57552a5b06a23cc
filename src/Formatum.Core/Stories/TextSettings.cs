using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Settings;

namespace Formatum.Core.Stories;

/// <summary>Where characters stand against the baseline. Size and height of raised and lowered ones are those that the font gives.</summary>
public enum TextPosition { Normal, Superscript, Subscript }

/// <summary>Whether letters are shown as typed, or all as capitals.</summary>
public enum TextCase { AsTyped, Capitals }

/// <summary>Which of its figures a font shows (OpenType "lnum", "onum").</summary>
public enum FigureStyle { Usual, Lining, OldStyle }

/// <summary>Where a paragraph begins.</summary>
public enum BreakBefore { None, Column, Frame }

/// <summary>What stands before each paragraph of a list.</summary>
public enum ListKind { None, Bullet, Number }

/// <summary>
/// Settings of text of which any may be left open (null): a style's, or what was set on a paragraph or on some of its characters. An open setting is taken
/// from the next weaker place in the cascade. Lengths in points.
/// </summary>
public sealed record TextSettings
{
    public static readonly TextSettings Open = new();

    public const int LongestFamily = 100;

    public string? Family { get; init; }
    public bool? Bold { get; init; }
    public bool? Italic { get; init; }
    public double? Size { get; init; }

    /// <summary>From one baseline to the next; 0 lets it follow the size.</summary>
    public double? Leading { get; init; }

    public Colour? Colour { get; init; }

    /// <summary>Room added between characters, in thousandths of the size.</summary>
    public double? Tracking { get; init; }

    /// <summary>How far characters stand above the baseline; below it where under 0.</summary>
    public double? Shift { get; init; }

    public TextPosition? Position { get; init; }
    public TextCase? Case { get; init; }
    public bool? Underline { get; init; }
    public bool? StrikeThrough { get; init; }
    public FigureStyle? Figures { get; init; }

    /// <summary>Whether all figures are equally wide (OpenType "tnum").</summary>
    public bool? TabularFigures { get; init; }

    /// <summary>Whether "1/2" shows as a fraction (OpenType "frac").</summary>
    public bool? Fractions { get; init; }

    public bool? Ligatures { get; init; }

    /// <summary>BCP 47.</summary>
    public string? Language { get; init; }

    public TextAlignment? Alignment { get; init; }

    /// <summary>How much later than its other lines the first begins; earlier where below 0.</summary>
    public double? Indent { get; init; }

    public double? IndentLeft { get; init; }
    public double? IndentRight { get; init; }
    public double? SpaceBefore { get; init; }
    public double? SpaceAfter { get; init; }
    public bool? Hyphenate { get; init; }
    public TabStops? Tabs { get; init; }
    public ListKind? List { get; init; }

    /// <summary>Whether its last line stays in the column of the next paragraph's first.</summary>
    public bool? KeepWithNext { get; init; }

    /// <summary>Whether all its lines stay in one column.</summary>
    public bool? KeepTogether { get; init; }

    /// <summary>So many of its lines at least stand at the foot of a column (CSS Fragmentation 3, 3.3).</summary>
    public double? Orphans { get; init; }

    /// <summary>So many of its lines at least stand at the head of a column.</summary>
    public double? Widows { get; init; }

    public BreakBefore? BreakBefore { get; init; }

    /// <summary>Over how many lines its first character reaches down; 1 for none.</summary>
    public double? InitialLines { get; init; }

    /// <summary>How thick a line above the paragraph is; 0 for none.</summary>
    public double? LineAbove { get; init; }

    /// <summary>How thick a line below the paragraph is; 0 for none.</summary>
    public double? LineBelow { get; init; }

    /// <summary>Whether its baselines stand on the publication's baseline grid.</summary>
    public bool? OnGrid { get; init; }

    /// <summary>How small its type may be set where text has to fit; 0 for four fifths of its size.</summary>
    public double? SmallestSize { get; init; }

    /// <summary>Its rank as a heading, from 1; 0 for none. Lists of contents, running heads and bookmarks are made of headings.</summary>
    public double? Heading { get; init; }

    public bool IsOpen => ReferenceEquals(this, Open) || this == Open;

    /// <summary>Those that characters may have: of a character style, and on some of a paragraph's.</summary>
    public static readonly ImmutableArray<Setting<TextSettings>> OfCharacters =
    [
        new WordSetting<TextSettings, string>("Family", "family", "Font", SettingKind.Choice, s => s.Family, (s, v) => s with { Family = v }),
        YesNo("Bold", "Bold", s => s.Bold, (s, v) => s with { Bold = v }),
        YesNo("Italic", "Italic", s => s.Italic, (s, v) => s with { Italic = v }),
        Number("Size", "Size", 1, 1000, "Type is from 1 to 1000 points high.", s => s.Size, (s, v) => s with { Size = v }),
        Number("Leading", "Leading", 0, 2000, "Leading is from 0.5 to 2000 points, or auto.", s => s.Leading, (s, v) => s with { Leading = v }),
        new WordSetting<TextSettings, Colour>("Colour", "colour", "Colour", SettingKind.Colour, s => s.Colour, (s, v) => s with { Colour = v }),
        Number("Tracking", "Tracking", -500, 2000, "Tracking is from -500 to 2000 thousandths of the size.", s => s.Tracking,
            (s, v) => s with { Tracking = v }, SettingKind.Number),
        Number("Shift", "Shift", -1000, 1000, "Characters are raised or lowered by 1000 points at most.", s => s.Shift, (s, v) => s with { Shift = v }),
        Choice<TextPosition>("Position", "Position", s => s.Position, (s, v) => s with { Position = v }),
        Choice<TextCase>("Case", "Capitals", s => s.Case, (s, v) => s with { Case = v }),
        YesNo("Underline", "Underline", s => s.Underline, (s, v) => s with { Underline = v }),
        YesNo("StrikeThrough", "Strike through", s => s.StrikeThrough, (s, v) => s with { StrikeThrough = v }),
        Choice<FigureStyle>("Figures", "Figures", s => s.Figures, (s, v) => s with { Figures = v }),
        YesNo("TabularFigures", "Figures of one width", s => s.TabularFigures, (s, v) => s with { TabularFigures = v }),
        YesNo("Fractions", "Fractions", s => s.Fractions, (s, v) => s with { Fractions = v }),
        YesNo("Ligatures", "Ligatures", s => s.Ligatures, (s, v) => s with { Ligatures = v }),
        new WordSetting<TextSettings, string>("Language", "language", "Language", SettingKind.Choice, s => s.Language, (s, v) => s with { Language = v }),
    ];

    /// <summary>Those that only whole paragraphs have.</summary>
    public static readonly ImmutableArray<Setting<TextSettings>> OfParagraphs =
    [
        Choice<TextAlignment>("Alignment", "Alignment", s => s.Alignment, (s, v) => s with { Alignment = v }),
        Number("Indent", "First line", -5000, 5000, "A first line begins within 5000 points of the others.", s => s.Indent, (s, v) => s with { Indent = v }),
        Number("IndentLeft", "Indent, left", 0, 5000, "An indent is 0 or more.", s => s.IndentLeft, (s, v) => s with { IndentLeft = v }),
        Number("IndentRight", "Indent, right", 0, 5000, "An indent is 0 or more.", s => s.IndentRight, (s, v) => s with { IndentRight = v }),
        Number("SpaceBefore", "Space above", 0, 5000, "The space above a paragraph is 0 or more.", s => s.SpaceBefore, (s, v) => s with { SpaceBefore = v }),
        Number("SpaceAfter", "Space below", 0, 5000, "The space below a paragraph is 0 or more.", s => s.SpaceAfter, (s, v) => s with { SpaceAfter = v }),
        YesNo("Hyphenate", "Hyphenate", s => s.Hyphenate, (s, v) => s with { Hyphenate = v }),
        new WordSetting<TextSettings, TabStops>("Tabs", "tabs", "Tab stops", SettingKind.Tabs, s => s.Tabs, (s, v) => s with { Tabs = v }),
        Choice<ListKind>("List", "List", s => s.List, (s, v) => s with { List = v }),
        YesNo("KeepWithNext", "Keep with next", s => s.KeepWithNext, (s, v) => s with { KeepWithNext = v }),
        YesNo("KeepTogether", "Keep together", s => s.KeepTogether, (s, v) => s with { KeepTogether = v }),
        Number("Orphans", "Lines at the foot", 1, 100, "1 to 100 lines stand together.", s => s.Orphans, (s, v) => s with { Orphans = v }, SettingKind.Number),
        Number("Widows", "Lines at the head", 1, 100, "1 to 100 lines stand together.", s => s.Widows, (s, v) => s with { Widows = v }, SettingKind.Number),
        Choice<BreakBefore>("BreakBefore", "Begins in a new", s => s.BreakBefore, (s, v) => s with { BreakBefore = v }),
        Number("InitialLines", "Initial, lines", 1, 20, "An initial reaches over 1 to 20 lines.", s => s.InitialLines,
            (s, v) => s with { InitialLines = v }, SettingKind.Number),
        Number("LineAbove", "Line above", 0, 100, "A line is up to 100 points thick; 0 for none.", s => s.LineAbove, (s, v) => s with { LineAbove = v }),
        Number("LineBelow", "Line below", 0, 100, "A line is up to 100 points thick; 0 for none.", s => s.LineBelow, (s, v) => s with { LineBelow = v }),
        YesNo("OnGrid", "On the baseline grid", s => s.OnGrid, (s, v) => s with { OnGrid = v }),
        Number("SmallestSize", "Never smaller than", 0, 1000, "Type is from 1 to 1000 points high; 0 for four fifths of its size.", s => s.SmallestSize,
            (s, v) => s with { SmallestSize = v }),
        Number("Heading", "Heading, rank", 0, 6, "A heading has a rank from 1 to 6; 0 for none.", s => s.Heading, (s, v) => s with { Heading = v },
            SettingKind.Number),
    ];

    public static readonly ImmutableArray<Setting<TextSettings>> All = [.. OfCharacters, .. OfParagraphs];

    private static string PathOf(string name) => char.ToLowerInvariant(name[0]) + name[1..];

    private static Setting<TextSettings> YesNo(string name, string label, Func<TextSettings, bool?> read, Func<TextSettings, bool?, TextSettings> write) =>
        new Setting<TextSettings, bool>(name, PathOf(name), label, SettingKind.YesNo, read, write);

    private static Setting<TextSettings> Choice<T>(string name, string label, Func<TextSettings, T?> read, Func<TextSettings, T?, TextSettings> write)
        where T : struct, Enum => new Setting<TextSettings, T>(name, PathOf(name), label, SettingKind.Choice, read, write);

    private static Setting<TextSettings> Number(string name, string label, double least, double most, string remedy, Func<TextSettings, double?> read,
        Func<TextSettings, double?, TextSettings> write, SettingKind kind = SettingKind.Length) =>
        new Setting<TextSettings, double>(name, PathOf(name), label, kind, read, write) { Range = (least, most, remedy) };

    /// <summary>These settings, with what they leave open taken from <paramref name="weaker"/>.</summary>
    public TextSettings Over(TextSettings weaker) => IsOpen ? weaker : weaker.IsOpen ? this : Layers.Over(All, this, weaker);

    /// <summary>These, with all left open that are not among some.</summary>
    public TextSettings Only(IReadOnlyList<Setting<TextSettings>> some) => IsOpen ? this : Layers.Kept(All, this, some.Contains);

    /// <summary>These, with all left open that others set.</summary>
    public TextSettings Without(TextSettings others) => IsOpen || others.IsOpen ? this : Layers.Kept(All, this, setting => !setting.IsSet(others));

    /// <summary>What of these differs from others, and is set here.</summary>
    public TextSettings Except(TextSettings others) => Layers.Kept(All, this, setting => !Equals(setting.ValueOf(this), setting.ValueOf(others)));

    /// <summary>What is set, by name.</summary>
    public override string ToString() => string.Join(", ", All.Where(s => s.IsSet(this)).Select(s => $"{s.Name} {s.ValueOf(this)}"));

    public void Check(FieldErrors errors, string prefix = "")
    {
        foreach (var setting in All) setting.Check(this, errors, prefix);
        if (Family is { Length: 0 or > LongestFamily }) errors.Add(prefix + "family", $"A font family's name has 1 to {LongestFamily} characters.");
        if (Leading is > 0 and < 0.5) errors.Add(prefix + "leading", "Leading is from 0.5 to 2000 points, or auto.");
        Colour?.Check(prefix + "colour", errors);
        if (Language is not null && (Language.Length is 0 or > TextStyle.LongestLanguage || !Language.All(c => char.IsAsciiLetterOrDigit(c) || c == '-')))
            errors.Add(prefix + "language", "Name the language as in \"en-GB\", \"de\" or \"fr\".");
        Tabs?.Check(prefix + "tabs", errors);
    }
}

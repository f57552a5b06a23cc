using System.Collections.Immutable;
using Formatum.Core.Colours;

namespace Formatum.Core.Stories;

/// <summary>Where the lines of a paragraph stand between the sides of their column.</summary>
public enum TextAlignment { Left, Centre, Right, Justified }

/// <summary>How text is set, with nothing left open. Units as in <see cref="TextSettings"/>.</summary>
public sealed record TextStyle
{
    /// <summary>The families that are shipped, each regular and bold, and but for Hebrew and Arabic slanted too.</summary>
    public static readonly ImmutableArray<string> Families = ["Cabin", "Spectral", "Fraunces", "Courier Prime", "Noto Sans", "Noto Serif", "Noto Sans Hebrew",
        "Noto Sans Arabic"];

    /// <summary>What an open leading comes to, in sizes. 1.2 is common practice, no source.</summary>
    public const double UsualLeading = 1.2;

    public const int LongestLanguage = 35;

    /// <summary>What holds where nobody said anything.</summary>
    public static readonly TextStyle Usual = new();

    public string Family { get; init; } = Families[0];

    /// <summary>The files of the family where a publication brought it itself; null where it is shipped.</summary>
    public FontFiles? Files { get; init; }

    public bool Bold { get; init; }
    public bool Italic { get; init; }
    public double Size { get; init; } = 10;

    /// <summary>From one baseline to the next, in points; null for 1.2 of the size.</summary>
    public double? Leading { get; init; }

    public Colour Colour { get; init; } = Colour.Black;

    /// <summary>Its colour looked up in the palette, as the press prints it; null where none is looked up.</summary>
    public Colour? Printed { get; init; }

    /// <summary>The colour it is printed in.</summary>
    public Colour Ink => Printed ?? Colour;
    public double Tracking { get; init; }
    public double Shift { get; init; }
    public TextPosition Position { get; init; }
    public TextCase Case { get; init; }
    public bool Underline { get; init; }
    public bool StrikeThrough { get; init; }
    public FigureStyle Figures { get; init; }
    public bool TabularFigures { get; init; }
    public bool Fractions { get; init; }
    public bool Ligatures { get; init; } = true;
    public string Language { get; init; } = "en-GB";
    public TextAlignment Alignment { get; init; }
    public double Indent { get; init; }
    public double IndentLeft { get; init; }
    public double IndentRight { get; init; }

    /// <summary>Room above the paragraph; none where it stands at the head of a column.</summary>
    public double SpaceBefore { get; init; }

    public double SpaceAfter { get; init; }
    public bool Hyphenate { get; init; }
    public TabStops Tabs { get; init; } = TabStops.None;
    public ListKind List { get; init; }
    public bool KeepWithNext { get; init; }
    public bool KeepTogether { get; init; }
    public int Orphans { get; init; } = 1;
    public int Widows { get; init; } = 1;
    public BreakBefore BreakBefore { get; init; }
    public int InitialLines { get; init; } = 1;
    public double LineAbove { get; init; }
    public double LineBelow { get; init; }
    public bool OnGrid { get; init; }
    public int Heading { get; init; }

    /// <summary>How small it may be set where text has to fit, in points; 0 for <see cref="UsualSmallest"/> of its size.</summary>
    public double SmallestSize { get; init; }

    /// <summary>The share of its size down to which type may be set smaller where nothing else is said. Our own measure, no source.</summary>
    public const double UsualSmallest = 0.8;

    public double LineHeight => Leading ?? Size * UsualLeading;

    /// <summary>The settings with all that is open taken from <see cref="Usual"/>.</summary>
    /// <param name="s">The settings.</param>
    /// <param name="names">What names in them stand for; null where none are looked up.</param>
    public static TextStyle Of(TextSettings s, ITextNames? names = null) => s.IsOpen ? Usual : new()
    {
        Family = s.Family ?? Usual.Family,
        Files = s.Family is null ? null : names?.FilesOf(s.Family),
        Bold = s.Bold ?? Usual.Bold,
        Italic = s.Italic ?? Usual.Italic,
        Size = s.Size ?? Usual.Size,
        Leading = s.Leading is > 0 ? s.Leading : null,
        Colour = s.Colour ?? Usual.Colour,
        Printed = s.Colour is null or RgbColour ? null : names?.ColourOf(s.Colour),
        Tracking = s.Tracking ?? Usual.Tracking,
        Shift = s.Shift ?? Usual.Shift,
        Position = s.Position ?? Usual.Position,
        Case = s.Case ?? Usual.Case,
        Underline = s.Underline ?? Usual.Underline,
        StrikeThrough = s.StrikeThrough ?? Usual.StrikeThrough,
        Figures = s.Figures ?? Usual.Figures,
        TabularFigures = s.TabularFigures ?? Usual.TabularFigures,
        Fractions = s.Fractions ?? Usual.Fractions,
        Ligatures = s.Ligatures ?? Usual.Ligatures,
        Language = s.Language ?? Usual.Language,
        Alignment = s.Alignment ?? Usual.Alignment,
        Indent = s.Indent ?? Usual.Indent,
        IndentLeft = s.IndentLeft ?? Usual.IndentLeft,
        IndentRight = s.IndentRight ?? Usual.IndentRight,
        SpaceBefore = s.SpaceBefore ?? Usual.SpaceBefore,
        SpaceAfter = s.SpaceAfter ?? Usual.SpaceAfter,
        Hyphenate = s.Hyphenate ?? Usual.Hyphenate,
        Tabs = s.Tabs ?? Usual.Tabs,
        List = s.List ?? Usual.List,
        KeepWithNext = s.KeepWithNext ?? Usual.KeepWithNext,
        KeepTogether = s.KeepTogether ?? Usual.KeepTogether,
        Orphans = (int)(s.Orphans ?? Usual.Orphans),
        Widows = (int)(s.Widows ?? Usual.Widows),
        BreakBefore = s.BreakBefore ?? Usual.BreakBefore,
        InitialLines = (int)(s.InitialLines ?? Usual.InitialLines),
        LineAbove = s.LineAbove ?? Usual.LineAbove,
        LineBelow = s.LineBelow ?? Usual.LineBelow,
        OnGrid = s.OnGrid ?? Usual.OnGrid,
        Heading = (int)(s.Heading ?? Usual.Heading),
        SmallestSize = s.SmallestSize ?? Usual.SmallestSize,
    };

    /// <summary>The same as settings, all of them set.</summary>
    public TextSettings ToSettings() => new()
    {
        Family = Family,
        Bold = Bold,
        Italic = Italic,
        Size = Size,
        Leading = Leading ?? 0,
        Colour = Colour,
        Tracking = Tracking,
        Shift = Shift,
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
        Indent = Indent,
        IndentLeft = IndentLeft,
        IndentRight = IndentRight,
        SpaceBefore = SpaceBefore,
        SpaceAfter = SpaceAfter,
        Hyphenate = Hyphenate,
        Tabs = Tabs,
        List = List,
        KeepWithNext = KeepWithNext,
        KeepTogether = KeepTogether,
        Orphans = Orphans,
        Widows = Widows,
        BreakBefore = BreakBefore,
        InitialLines = InitialLines,
        LineAbove = LineAbove,
        LineBelow = LineBelow,
        OnGrid = OnGrid,
        Heading = Heading,
        SmallestSize = SmallestSize,
    };

    /// <summary>What has to be set where nothing else is, for text to be set so.</summary>
    public TextSettings Unusual => ToSettings().Except(Usual.ToSettings());
}

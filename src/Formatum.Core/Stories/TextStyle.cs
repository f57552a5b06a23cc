using System.Collections.Immutable;
using Formatum.Core.Checks;

namespace Formatum.Core.Stories;

/// <summary>Where the lines of a paragraph stand between the sides of their frame.</summary>
public enum TextAlignment { Left, Centre, Right, Justified }

/// <summary>How a paragraph is set.</summary>
public sealed record TextStyle
{
    /// <summary>The families that are shipped, each regular, bold, italic and both.</summary>
    public static readonly ImmutableArray<string> Families = ["Cabin", "Spectral", "Fraunces", "Courier Prime"];

    /// <summary>What an open leading comes to, in sizes. 1.2 is common practice, no source.</summary>
    public const double UsualLeading = 1.2;

    public static readonly TextStyle Usual = new();

    public string Family { get; init; } = Families[0];
    public bool Bold { get; init; }
    public bool Italic { get; init; }

    /// <summary>Size of the type in points, 1 to 1000.</summary>
    public double Size { get; init; } = 10;

    /// <summary>From one baseline to the next, in points; null for 1.2 of the size.</summary>
    public double? Leading { get; init; }

    /// <summary>"#rrggbb", as sRGB.</summary>
    public string Colour { get; init; } = "#000000";

    public TextAlignment Alignment { get; init; }

    /// <summary>Room above the paragraph, in points; none where it stands at the head of a column.</summary>
    public double SpaceBefore { get; init; }

    /// <summary>Room below the paragraph, in points.</summary>
    public double SpaceAfter { get; init; }

    /// <summary>How much later its first line begins, in points; earlier where below 0.</summary>
    public double Indent { get; init; }

    /// <summary>Whether words may be divided at the ends of lines.</summary>
    public bool Hyphenate { get; init; }

    /// <summary>The language by which they are (BCP 47).</summary>
    public string Language { get; init; } = "en-GB";

    public const int LongestLanguage = 35;

    public double LineHeight => Leading ?? Size * UsualLeading;

    public void Check(FieldErrors errors)
    {
        if (!Families.Contains(Family)) errors.Add("family", $"There is no font family \"{Family}\" here. Take one of {string.Join(", ", Families)}.");
        errors.Choice("alignment", Alignment);
        errors.Range("size", Size, 1, 1000, "Type is from 1 to 1000 points high.");
        errors.Range("leading", Leading, 0.5, 2000, "Leading is from 0.5 to 2000 points.");
        errors.Range("spaceBefore", SpaceBefore, 0, 5000, "The space above a paragraph is 0 or more.");
        errors.Range("indent", Indent, -5000, 5000, "A first line begins within 5000 points of the others.");
        if (Language is not { Length: > 0 and <= LongestLanguage } || !Language.All(c => char.IsAsciiLetterOrDigit(c) || c == '-'))
            errors.Add("language", "Name the language as in \"en-GB\", \"de\" or \"fr\".");
        errors.Range("spaceAfter", SpaceAfter, 0, 5000, "The space below a paragraph is 0 or more.");
        errors.Colour("colour", Colour);
    }
}

/// <summary>Changes to a style; what is null stays.</summary>
public sealed record StyleChange
{
    public string? Family { get; init; }
    public bool? Bold { get; init; }
    public bool? Italic { get; init; }
    public double? Size { get; init; }

    /// <summary>In points; 0 lets it follow the size again.</summary>
    public double? Leading { get; init; }

    public string? Colour { get; init; }
    public TextAlignment? Alignment { get; init; }
    public double? SpaceBefore { get; init; }
    public double? SpaceAfter { get; init; }
    public double? Indent { get; init; }
    public bool? Hyphenate { get; init; }
    public string? Language { get; init; }

    public TextStyle On(TextStyle style) => style with
    {
        Family = Family ?? style.Family,
        Bold = Bold ?? style.Bold,
        Italic = Italic ?? style.Italic,
        Size = Size ?? style.Size,
        Leading = Leading switch { null => style.Leading, 0 => null, var set => set },
        Colour = Colour?.ToLowerInvariant() ?? style.Colour,
        Alignment = Alignment ?? style.Alignment,
        SpaceBefore = SpaceBefore ?? style.SpaceBefore,
        SpaceAfter = SpaceAfter ?? style.SpaceAfter,
        Indent = Indent ?? style.Indent,
        Hyphenate = Hyphenate ?? style.Hyphenate,
        Language = Language ?? style.Language,
    };
}

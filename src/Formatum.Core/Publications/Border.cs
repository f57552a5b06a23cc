using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Geometry;

namespace Formatum.Core.Publications;

/// <summary>How a border is drawn; the first four as CSS Backgrounds and Borders 3 names them.</summary>
public enum BorderKind
{
    Solid,
    Dashed,

    /// <summary>Round dots.</summary>
    Dotted,

    /// <summary>Two lines and what is between them, each a third of the width.</summary>
    Double,

    /// <summary>A line of half the width, a gap of a quarter, and within it a line of a quarter.</summary>
    ThickThin,

    /// <summary>The same the other way round.</summary>
    ThinThick,
}

/// <summary>Where a border lies.</summary>
public enum BorderPlace
{
    /// <summary>Half within the outline and half without.</summary>
    On,
    Inside,
    Outside,
}

/// <summary>How lines meet at a corner (SVG 2, stroke-linejoin).</summary>
public enum LineJoin
{
    Miter,
    Round,
    Bevel,
}

/// <summary>How a line or a dash ends (SVG 2, stroke-linecap).</summary>
public enum LineEnd
{
    Butt,
    Round,
    Square,
}

/// <summary>Sides of a rectangle.</summary>
[Flags]
public enum Sides
{
    None = 0,
    Top = 1,
    Right = 2,
    Bottom = 4,
    Left = 8,
    All = Top | Right | Bottom | Left,
}

/// <summary>A further line of a border, within the one before.</summary>
/// <param name="Gap">How far from it, in points.</param>
/// <param name="Width">How wide, in points.</param>
/// <param name="Colour">Its colour; null for the border's.</param>
public sealed record BorderLine(double Gap, double Width, Colour? Colour = null);

/// <summary>A line of a border as it is drawn: from its outer edge to its inner one, in points from the outline, inwards being positive.</summary>
public readonly record struct Stripe(double From, double To, Colour Colour, bool IsFirst)
{
    public double Width => To - From;
    public double Middle => (From + To) / 2;
}

/// <summary>One to three lines along a frame's outline.</summary>
/// <param name="Width">Of the first and outermost line, in points, above 0.</param>
/// <param name="Colour">Its colour.</param>
public sealed record Border(double Width, Colour Colour)
{
    public const double Widest = 720;

    /// <summary>Longest of a dash and of a gap between lines, in points.</summary>
    public const double Longest = 720;

    /// <summary>A new border; its width is common practice, no source.</summary>
    public static readonly Border Usual = new(0.5, Colour.Black);

    public BorderKind Kind { get; init; }
    public BorderPlace Place { get; init; }

    /// <summary>For a dashed border: the dashes and the gaps between them; null for the usual ones.</summary>
    public Dashes? Dashes { get; init; }

    public LineJoin Join { get; init; }

    /// <summary>How dashes end, and lines along single sides.</summary>
    public LineEnd End { get; init; }

    /// <summary>Which sides of a rectangle with sharp corners; other frames have it all around.</summary>
    public Sides Sides { get; init; } = Sides.All;

    /// <summary>A second line; null for none.</summary>
    public BorderLine? Second { get; init; }

    /// <summary>A third; null for none. There is none without a second.</summary>
    public BorderLine? Third { get; init; }

    private IEnumerable<BorderLine> Further => new[] { Second, Third }.OfType<BorderLine>();

    /// <summary>From the outer edge of the first line to the inner edge of the last, in points.</summary>
    public double TotalWidth => Width + Further.Sum(l => l.Gap + l.Width);

    /// <summary>Where its outer edge lies, in points from the outline; negative outside.</summary>
    private double OuterEdge => Place switch { BorderPlace.On => -TotalWidth / 2, BorderPlace.Inside => 0, _ => -TotalWidth };

    /// <summary>Where lines meet at a sharp corner they reach out at most four times their width (SVG 2, stroke-miterlimit).</summary>
    public const double MiterLimit = 4;

    /// <summary>How far beyond the outline it may reach, in points.</summary>
    public double Reach => -OuterEdge * (Join == LineJoin.Miter ? MiterLimit : 1);

    /// <summary>Its lines, the outermost first.</summary>
    public IEnumerable<Stripe> Stripes()
    {
        double at = OuterEdge;
        foreach (var (from, to) in OfFirst()) yield return new(at + from * Width, at + to * Width, Colour, true);
        at += Width;
        foreach (var line in Further)
        {
            at += line.Gap;
            yield return new(at, at + line.Width, line.Colour ?? Colour, false);
            at += line.Width;
        }
    }

    /// <summary>What the first line consists of, in shares of its width.</summary>
    private (double From, double To)[] OfFirst() => Kind switch
    {
        BorderKind.Double => [(0, 1.0 / 3), (2.0 / 3, 1)],
        BorderKind.ThickThin => [(0, 0.5), (0.75, 1)],
        BorderKind.ThinThick => [(0, 0.25), (0.5, 1)],
        _ => [(0, 1)],
    };

    /// <summary>
    /// Dashes and gaps of a line of the border in turn, in points; none where it is whole. Usual dashes are three widths long and two apart, dots one width
    /// apart; on a closed line they are stretched or shortened a little to come out even.
    /// </summary>
    /// <param name="stripe">The line.</param>
    /// <param name="length">How long it is all around, in points; null where it is not closed.</param>
    public double[] DashesOf(Stripe stripe, double? length)
    {
        if (!stripe.IsFirst) return [];
        double[] dashes = Kind switch
        {
            BorderKind.Dotted => [0, 2 * Width],
            BorderKind.Dashed => Dashes?.Lengths.ToArray() ?? [3 * Width, 2 * Width],
            _ => [],
        };
        // Of an odd number, what was a dash is a gap the second time around (SVG 2, stroke-dasharray).
        if (dashes.Length % 2 == 1) dashes = [.. dashes, .. dashes];
        double period = dashes.Sum();
        if (length is not { } around || period == 0) return dashes;
        double stretch = around / Math.Max(1, Math.Round(around / period)) / period;
        return [.. dashes.Select(d => d * stretch)];
    }

    /// <summary>The border with every colour put in another's place.</summary>
    public Border Recoloured(Func<Colour, Colour> colour)
    {
        BorderLine? Line(BorderLine? line) => line?.Colour is { } own ? line with { Colour = colour(own) } : line;
        return this with { Colour = colour(Colour), Second = Line(Second), Third = Line(Third) };
    }

    public void Check(FieldErrors errors)
    {
        errors.Length("look.border.width", Width, 0.001, Widest, "A border is wider than 0 and at most 720 points.");
        Colour.Check("look.border.colour", errors);
        Dashes?.Check(errors);
        if (Sides == Sides.None || (Sides & ~Sides.All) != 0)
            errors.Add("look.border.sides", "A border lies along one side at least. Take it away by a width of 0.");
        if (Third is not null && Second is null) errors.Add("look.border.third", "A third line comes after a second. Give the second its width first.");
        foreach (var (name, line) in new[] { ("second", Second), ("third", Third) })
        {
            errors.Length($"look.border.{name}.width", line?.Width, 0.001, Widest, "A line is wider than 0 and at most 720 points.");
            errors.Length($"look.border.{name}.gap", line?.Gap, 0, Longest, "A gap is from 0 to 720 points.");
            line?.Colour?.Check($"look.border.{name}.colour", errors);
        }
    }
}

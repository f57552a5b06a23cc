using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Web.Wording;

namespace Formatum.Web.Api;

/// <summary>One to three lines along a frame's outline; lengths in points where they name no unit. What is left out is usual: one black, solid line on the
/// outline.</summary>
public sealed record BorderBody
{
    /// <summary>Of the first and outermost line.</summary>
    public required Length Width { get; init; }

    public ColourBody? Colour { get; init; }
    public BorderKind Kind { get; init; }
    public BorderPlace Place { get; init; }

    /// <summary>For a dashed border: dashes and the gaps after them, in turn.</summary>
    public Length[]? Dashes { get; init; }

    public LineJoin Join { get; init; }

    /// <summary>How dashes and lines along single sides end.</summary>
    public LineEnd End { get; init; }

    /// <summary>For a rectangle with sharp corners: the sides that have it; all where left out.</summary>
    public Sides[]? Sides { get; init; }

    /// <summary>A second line within the first.</summary>
    public BorderLineBody? Second { get; init; }

    /// <summary>A third within the second.</summary>
    public BorderLineBody? Third { get; init; }

    public Border ToBorder(Publication publication) => new(Width.Points, Colour?.In(publication, "look.border.colour") ?? Core.Colours.Colour.Black)
    {
        Kind = Kind,
        Place = Place,
        Dashes = Dashes is null ? null : new([.. Dashes.Select(d => d.Points)]),
        Join = Join,
        End = End,
        Sides = Sides is null ? Core.Publications.Sides.All : Sides.Aggregate(Core.Publications.Sides.None, (all, side) => all | side),
        Second = Second?.ToLine(publication, "look.border.second.colour"),
        Third = Third?.ToLine(publication, "look.border.third.colour"),
    };
}

/// <summary>A further line of a border: how far within the one before, how wide, and its colour where it is not the border's.</summary>
public sealed record BorderLineBody
{
    public required Length Gap { get; init; }
    public required Length Width { get; init; }
    public ColourBody? Colour { get; init; }

    public BorderLine ToLine(Publication publication, string field) => new(Gap.Points, Width.Points, Colour?.In(publication, field));
}

/// <summary>How corners are shaped, and how far: one radius for all, or up to four from the upper left on clockwise. A polygon's all have the first.</summary>
public sealed record CornersBody
{
    public CornerKind Kind { get; init; }
    public required Radii Radius { get; init; }

    /// <exception cref="EditRefused">There are more radii than corners, or none.</exception>
    public Corners? ToCorners() => Radius.All is not { Length: >= 1 and <= 4 } radii
        ? throw new EditRefused("look.corners.radius", "Give one radius for all corners, or up to four from the upper left on clockwise.")
        : BorderText.Of(Kind, [.. radii.Select(r => r.Points)]) is { IsSharp: false } shaped ? shaped : null;
}

public sealed record BorderAnswer(double Width, object Colour, BorderKind Kind, BorderPlace Place, double[]? Dashes, LineJoin Join, LineEnd End, Sides[] Sides,
    BorderLineAnswer? Second, BorderLineAnswer? Third)
{
    public static BorderAnswer? Of(Publication publication, Border? border) => border is null ? null : new(border.Width,
        ColourBody.Answer(publication, border.Colour), border.Kind, border.Place, border.Dashes?.Lengths.ToArray(), border.Join, border.End,
        [.. BorderText.EachSide.Select(s => s.Side).Where(s => border.Sides.HasFlag(s))], BorderLineAnswer.Of(publication, border.Second),
        BorderLineAnswer.Of(publication, border.Third));
}

public sealed record BorderLineAnswer(double Gap, double Width, object? Colour)
{
    public static BorderLineAnswer? Of(Publication publication, BorderLine? line) => line is null ? null
        : new(line.Gap, line.Width, line.Colour is { } colour ? ColourBody.Answer(publication, colour) : null);
}

/// <summary>The radii in points, from the upper left on clockwise.</summary>
public sealed record CornersAnswer(CornerKind Kind, double[] Radius)
{
    public static CornersAnswer? Of(Corners? corners) => corners is null ? null : new(corners.Kind, corners.Radii());
}

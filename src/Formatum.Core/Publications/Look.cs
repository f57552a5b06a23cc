using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;

namespace Formatum.Core.Publications;

/// <summary>The shadow of a frame's outline on the page beneath.</summary>
/// <param name="Across">How far it falls to the right, in points of the page, however the frame is turned.</param>
/// <param name="Down">How far it falls downwards.</param>
/// <param name="Blur">How far its edge is softened, in points: a Gaussian blur whose standard deviation is half of it (CSS Backgrounds and Borders 3, section
/// 6.1.1).</param>
/// <param name="Colour">Its colour.</param>
/// <param name="Strength">Its opacity, 0 to 1.</param>
public sealed record Shadow(double Across, double Down, double Blur, Colour Colour, double Strength)
{
    public static readonly Shadow Usual = new(Units.Millimetres(1), Units.Millimetres(1), Units.Millimetres(2), Colour.Black, 0.35);

    public const double Farthest = 720;

    public double Deviation => Blur / 2;

    /// <summary>How far around the outline it can be seen, in points: beyond three deviations a Gaussian has nothing left to see.</summary>
    public double Reach => Math.Max(Math.Abs(Across), Math.Abs(Down)) + 3 * Deviation;

    public void Check(string field, FieldErrors errors)
    {
        errors.Length($"{field}.across", Across, -Farthest, Farthest, "A shadow falls 720 points away at most.");
        errors.Length($"{field}.down", Down, -Farthest, Farthest, "A shadow falls 720 points away at most.");
        errors.Length($"{field}.blur", Blur, 0, Farthest, "Blur is from 0 to 720 points.");
        Colour.Check($"{field}.colour", errors);
        errors.Range($"{field}.strength", Strength, 0, 1, "Strength is from 0 to 1, or 0 to 100 %.");
    }
}

/// <summary>A frame's appearance, whatever is in it.</summary>
public sealed record Look
{
    public static readonly Look Plain = new();

    public Border? Border { get; init; }

    /// <summary>How its corners are shaped; null where they are as the outline has them.</summary>
    public Corners? Corners { get; init; }

    /// <summary>What the frame is filled with beneath its picture or text; null for nothing.</summary>
    public Colour? Background { get; init; }

    /// <summary>How much the whole frame covers what lies beneath: 0 to 1.</summary>
    public double Opacity { get; init; } = 1;

    /// <summary>How much its picture covers what lies beneath it, the background too: 0 to 1.</summary>
    public double PictureOpacity { get; init; } = 1;

    /// <summary>How much its background covers what lies beneath: 0 to 1.</summary>
    public double BackgroundOpacity { get; init; } = 1;

    /// <summary>How the whole frame is mixed with what lies beneath.</summary>
    public Blend Blend { get; init; }

    public Shadow? Shadow { get; init; }

    /// <summary>A shadow that the outline throws on what is within it; it falls the same way as one outside.</summary>
    public Shadow? InnerShadow { get; init; }

    /// <summary>How wide its picture and its background fade out along the outline, inwards, in points; 0 for a sharp edge.</summary>
    public double SoftEdge { get; init; }

    /// <summary>How text of other frames keeps clear of it, where nothing is set about that on the frame itself.</summary>
    public Wrap Wrap { get; init; } = Wrap.Off;

    /// <summary>What is done to its picture; null for nothing.</summary>
    public Treatment? Treatment { get; init; }

    /// <summary>Whether there is something to print of it where the frame itself is empty.</summary>
    public bool Prints => Border is not null || Background is not null || Shadow is not null || InnerShadow is not null;

    /// <summary>How far beyond the outline it reaches, in points.</summary>
    public double Reach => Math.Max(Border?.Reach ?? 0, Shadow?.Reach ?? 0);

    /// <summary>The colours in it.</summary>
    public IEnumerable<Colour> AllColours() => new[]
    {
        Border?.Colour, Border?.Second?.Colour, Border?.Third?.Colour, Background, Shadow?.Colour, InnerShadow?.Colour,
        Treatment?.Inks?.Dark, Treatment?.Inks?.Light,
        Treatment?.Tint?.Colour,
    }.OfType<Colour>();

    /// <summary>The look with every colour put in another's place.</summary>
    public Look Recoloured(Func<Colour, Colour> colour) => this with
    {
        Border = Border?.Recoloured(colour),
        Background = Background is { } background ? colour(background) : null,
        Shadow = Shadow is { } shadow ? shadow with { Colour = colour(shadow.Colour) } : null,
        InnerShadow = InnerShadow is { } inner ? inner with { Colour = colour(inner.Colour) } : null,
        Treatment = Treatment?.Recoloured(colour),
    };

    public void Check(FieldErrors errors)
    {
        Border?.Check(errors);
        foreach (double radius in Corners?.Radii() ?? [])
            errors.Length("look.corners.radius", radius, 0, Corners.Largest, $"A radius is from 0 to {Corners.Largest} points.");
        Background?.Check("look.background", errors);
        foreach (var (name, opacity) in new[] { ("opacity", Opacity), ("pictureOpacity", PictureOpacity), ("backgroundOpacity", BackgroundOpacity) })
            errors.Range($"look.{name}", opacity, 0, 1, "Opacity is from 0 to 1, or 0 to 100 %.");
        errors.Choice("look.blend", Blend);
        Shadow?.Check("look.shadow", errors);
        InnerShadow?.Check("look.innerShadow", errors);
        errors.Length("look.softEdge", SoftEdge, 0, WidestEdge, "A soft edge is from 0 to 360 points wide.");
        Treatment?.Check(errors);
        Wrap.Check(errors);
    }

    /// <summary>The widest soft edge, in points.</summary>
    public const double WidestEdge = 360;

    /// <summary>The edge is faded by a Gaussian blur whose standard deviation is half of its width, in points.</summary>
    public double EdgeDeviation => SoftEdge / 2;
}

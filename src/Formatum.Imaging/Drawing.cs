using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Serialization;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Imaging;

/// <summary>A drawing as what it is drawn by, instead of pixels: what of an SVG can be printed as lines and areas. Lengths in the drawing's own units, y
/// down.</summary>
/// <param name="Left">Where it begins.</param>
/// <param name="Top">Where it begins.</param>
/// <param name="Width">How wide it is.</param>
/// <param name="Height">How high it is.</param>
/// <param name="Steps">What is drawn, from the lowest to the topmost.</param>
public sealed record Drawing(double Left, double Top, double Width, double Height, ImmutableArray<DrawingStep> Steps)
{
    public byte[] ToJson() => JsonSerializer.SerializeToUtf8Bytes(this);

    public static Drawing FromJson(byte[] json) => JsonSerializer.Deserialize<Drawing>(json)!;
}

/// <summary>One step of a drawing.</summary>
[JsonDerivedType(typeof(DrawnGroup), "group")]
[JsonDerivedType(typeof(MovedAxes), "axes")]
[JsonDerivedType(typeof(ClippedTo), "clip")]
[JsonDerivedType(typeof(FilledPath), "fill")]
[JsonDerivedType(typeof(StrokedPath), "stroke")]
public abstract record DrawingStep;

/// <summary>Steps that belong together: axes and clips set among them hold no longer than they do.</summary>
/// <param name="Opacity">How much all of them together cover, 0 to 1.</param>
/// <param name="Steps">The steps.</param>
public sealed record DrawnGroup(double Opacity, ImmutableArray<DrawingStep> Steps) : DrawingStep;

/// <summary>What follows is drawn in other axes.</summary>
public sealed record MovedAxes(double A, double B, double C, double D, double E, double F) : DrawingStep
{
    [JsonIgnore]
    public Affine Map => new(A, B, C, D, E, F);
}

/// <summary>What follows is seen only within a path, given as SVG path data.</summary>
public sealed record ClippedTo(string Path, bool EvenOdd) : DrawingStep;

/// <summary>A path that is filled.</summary>
public sealed record FilledPath(string Path, bool EvenOdd, DrawnPaint Paint) : DrawingStep;

/// <summary>A path that is drawn along.</summary>
/// <param name="Path">As SVG path data.</param>
/// <param name="Paint">In what colour.</param>
/// <param name="Width">How wide.</param>
/// <param name="End">How it ends.</param>
/// <param name="Join">How it goes round corners.</param>
/// <param name="Miter">How far a mitre may reach, in times of the width.</param>
/// <param name="Dashes">Dashes and gaps; empty for none.</param>
/// <param name="DashStart">Where in them it begins.</param>
public sealed record StrokedPath(string Path, DrawnPaint Paint, double Width, LineEnd End, LineJoin Join, double Miter, ImmutableArray<double> Dashes,
    double DashStart) : DrawingStep;

/// <summary>What is painted with: a colour, or a run of them.</summary>
/// <param name="Red">0 to 255, sRGB; of a run nothing is said by it.</param>
/// <param name="Green">0 to 255.</param>
/// <param name="Blue">0 to 255.</param>
/// <param name="Opacity">How much covers, 0 to 1.</param>
/// <param name="Run">The run; null for the colour.</param>
public sealed record DrawnPaint(byte Red, byte Green, byte Blue, double Opacity, ColourRun? Run = null);

/// <summary>Colours that run into each other along a line, or from one circle to another.</summary>
/// <param name="IsRound">Whether it runs from circle to circle.</param>
/// <param name="FromX">Where it begins, and for circles their middles.</param>
/// <param name="FromRadius">Of the first circle.</param>
/// <param name="ToRadius">Of the last circle.</param>
/// <param name="Axes">The axes of all that, in those of the drawing.</param>
/// <param name="Stops">The colours, each with its place from 0 to 1, in order.</param>
public sealed record ColourRun(bool IsRound, double FromX, double FromY, double FromRadius, double ToX, double ToY, double ToRadius, MovedAxes Axes,
    ImmutableArray<ColourStop> Stops);

/// <summary>A colour of a run.</summary>
public sealed record ColourStop(double At, byte Red, byte Green, byte Blue);

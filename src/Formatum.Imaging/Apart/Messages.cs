using System.Text.Json;
using Formatum.Core.Geometry;

namespace Formatum.Imaging.Apart;

/// <summary>What a reader apart is asked for.</summary>
internal enum Work
{
    /// <summary>A picture and its previews.</summary>
    Read,

    /// <summary>Previews of a picture that is known.</summary>
    Previews,

    /// <summary>The preview of a picture whose file is not here.</summary>
    Borrow,

    /// <summary>The pixels of a picture, written to a file.</summary>
    Pixels,

    /// <summary>A picture in its own colours, written to a file, and its profile to another.</summary>
    Samples,

    /// <summary>A drawing as lines and areas, written to a file; none where it can only be shown as pixels.</summary>
    Drawing,

    /// <summary>Whether a profile of a press can be used.</summary>
    Profile,
}

/// <summary>A part of the unit square.</summary>
internal readonly record struct UnitPart(double X, double Y, double Width, double Height)
{
    public static UnitPart Of(Box box) => new(box.X, box.Y, box.Width, box.Height);

    public Box ToBox() => new(X, Y, Width, Height);
}

/// <summary>A question to a reader apart: a line of JSON.</summary>
/// <param name="Work">What is to be done.</param>
/// <param name="Path">The file.</param>
/// <param name="Text">For reading what people call it; for a preview the hash of the picture it shows; for pixels the file they go to.</param>
/// <param name="Known">The picture as it is known, as JSON of the part; null where it is to be found out.</param>
/// <param name="Bare">Whether what the file says of itself in words is passed over.</param>
/// <param name="Width">For pixels: most of them across.</param>
/// <param name="Height">And down.</param>
/// <param name="Part">And what will be seen of the picture, in its unit square.</param>
/// <param name="Press">For samples and pixels: <see cref="SampleWish.Press"/>.</param>
internal sealed record Question(Work Work, string Path, string Text, string? Known = null, bool Bare = false, int Width = 0, int Height = 0,
    UnitPart Part = default, string? Press = null)
{
    public string ToLine() => JsonSerializer.Serialize(this);
}

/// <summary>The answer: a line of JSON.</summary>
/// <param name="Image">The picture that was read, as JSON of the part.</param>
/// <param name="Error">Why it could not be read, in words for people.</param>
/// <param name="Unkept">Whether what was made could not be written, which is no fault of the picture.</param>
/// <param name="Width">Of the pixels written.</param>
/// <param name="Height">Of the pixels written.</param>
/// <param name="HasAlpha">Whether they have transparency.</param>
/// <param name="Covers">What of the picture they show.</param>
/// <param name="Kind">What the parts of samples are.</param>
internal sealed record Reply(string? Image = null, string? Error = null, bool Unkept = false, int Width = 0, int Height = 0, bool HasAlpha = false,
    UnitPart Covers = default, SampleKind Kind = default)
{
    public string ToLine() => JsonSerializer.Serialize(this);
}

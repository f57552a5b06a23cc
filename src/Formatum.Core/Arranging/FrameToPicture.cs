using Formatum.Core.Fitting;
using Formatum.Core.Geometry;

namespace Formatum.Core.Arranging;

/// <summary>What of its picture a frame takes on.</summary>
public enum FrameTakes
{
    /// <summary>The size of the picture as it is scaled now.</summary>
    Size,
    /// <summary>The picture's natural size.</summary>
    NaturalSize,
    /// <summary>The picture's ratio; the frame keeps its width.</summary>
    Ratio,
}

/// <summary>Frames made to measure for their pictures.</summary>
public static class FrameToPicture
{
    /// <summary>The frame's box so that its fit box is just as large as the picture lies in it.</summary>
    /// <param name="box">The frame's box.</param>
    /// <param name="fitting">What decides how its picture lies.</param>
    /// <param name="map">How it lies now.</param>
    /// <param name="takes">What the frame takes on.</param>
    /// <param name="reference">The point of the frame, in fractions of its box, that stays where it is.</param>
    /// <returns>The new box, and where the picture should lie in it: whole, in the middle of the fit box.</returns>
    public static (Box Box, Affine Map) Sized(Box box, in PictureFit fitting, in Affine map, FrameTakes takes, Vec reference)
    {
        var (shownX, shownY, angle) = Recropping.Measures(fitting.Rule, map);
        var whole = takes == FrameTakes.NaturalSize
            ? Recropping.Scaled(map, fitting.Picture.NaturalWidth / shownX, fitting.Picture.NaturalHeight / shownY, angle, default)
            : map;
        var (width, height) = Extents(whole);
        var fitBox = fitting.FitBox;
        double roomX = box.Width - fitBox.Width, roomY = box.Height - fitBox.Height;
        if (takes == FrameTakes.Ratio)
        {
            double scale = fitBox.Width / width;
            whole = Recropping.Scaled(whole, scale, scale, angle, default);
            (width, height) = (fitBox.Width, height * scale);
        }
        double newWidth = width + roomX, newHeight = height + roomY;
        var kept = box.At(reference.X, reference.Y);
        var sized = new Box(kept.X - reference.X * newWidth, kept.Y - reference.Y * newHeight, newWidth, newHeight);
        var middle = fitting.Rule.FitBox(newWidth, newHeight).Centre - whole.Apply(new(0.5, 0.5));
        return (sized, Affine.Translation(middle.X, middle.Y).After(whole));
    }

    /// <summary>Width and height of the upright box around the picture.</summary>
    private static (double Width, double Height) Extents(in Affine map) => (Math.Abs(map.A) + Math.Abs(map.C), Math.Abs(map.B) + Math.Abs(map.D));
}

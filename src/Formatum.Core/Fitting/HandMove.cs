using Formatum.Core.Geometry;

namespace Formatum.Core.Fitting;

/// <summary>What a hand does to a picture inside its frame. Points and lengths are frame-local, angles degrees clockwise.</summary>
public abstract record HandMove
{
    /// <summary>The map from the image's unit square to the frame after the move.</summary>
    public abstract Affine On(in PictureFit fitting, in Affine map);

    /// <summary>Drawn along.</summary>
    public sealed record Pan(Vec By) : HandMove
    {
        public override Affine On(in PictureFit fitting, in Affine map) => Affine.Translation(By.X, By.Y).After(map);
    }

    /// <summary>Enlarged by a factor about a point, which stays where it is.</summary>
    public sealed record Zoom(double Factor, Vec About) : HandMove
    {
        public override Affine On(in PictureFit fitting, in Affine map)
        {
            double angle = Recropping.Measures(fitting.Rule, map).Angle;
            return Recropping.Scaled(map, Factor, Factor, angle, About);
        }
    }

    /// <summary>Held by two fingers: enlarged about the point between them, and drawn along as that point goes.</summary>
    public sealed record Pinch(double Factor, Vec From, Vec To) : HandMove
    {
        public override Affine On(in PictureFit fitting, in Affine map) => new Pan(To - From).On(fitting, new Zoom(Factor, From).On(fitting, map));
    }

    /// <summary>Drawn by a corner, named in fractions of the image (0 or 1): the opposite one stays, proportions too.</summary>
    public sealed record Corner(double U, double V, Vec To) : HandMove
    {
        public override Affine On(in PictureFit fitting, in Affine map)
        {
            Vec fixedCorner = map.Apply(new(1 - U, 1 - V)), diagonal = map.Apply(new(U, V)) - fixedCorner, drawn = To - fixedCorner;
            double factor = (drawn.X * diagonal.X + drawn.Y * diagonal.Y) / (diagonal.X * diagonal.X + diagonal.Y * diagonal.Y);
            return new Zoom(Math.Max(factor, Recrop.SmallestZoom), fixedCorner).On(fitting, map);
        }
    }

    /// <summary>Turned by an angle about the middle of the fit box.</summary>
    public sealed record Turn(double Degrees) : HandMove
    {
        public override Affine On(in PictureFit fitting, in Affine map)
        {
            var pivot = fitting.FitBox.Centre;
            return Affine.Translation(pivot.X, pivot.Y).After(Affine.Rotation(Degrees)).After(Affine.Translation(-pivot.X, -pivot.Y)).After(map);
        }
    }

    /// <summary>Given numbers: scales (1 is natural size), how far the image's centre lies from the fit box's, the angle it lies at. What is null
    /// stays.</summary>
    /// <param name="Held">The point of the image, in fractions, that stays where it is when it is scaled; null for what lies on the alignment point.</param>
    public sealed record Figures(double? ScaleX, double? ScaleY, double? OffsetX, double? OffsetY, double? Angle, Vec? Held = null) : HandMove
    {
        public override Affine On(in PictureFit fitting, in Affine map)
        {
            var (shownX, shownY, angle) = Recropping.Measures(fitting.Rule, map);
            var pivot = fitting.FitBox.Centre;
            double across = ScaleX is { } sx ? sx * fitting.Picture.NaturalWidth / shownX : 1, down = ScaleY is { } sy
                ? sy * fitting.Picture.NaturalHeight / shownY : 1;
            var moved = Recropping.Scaled(map, across, down, angle, Held is { } held ? map.Apply(held) : fitting.AlignmentPoint);
            if (Angle is { } wanted) moved = new Turn(wanted - angle).On(fitting, moved);
            var off = moved.Apply(new(0.5, 0.5)) - pivot;
            return Affine.Translation((OffsetX ?? off.X) - off.X, (OffsetY ?? off.Y) - off.Y).After(moved);
        }
    }
}

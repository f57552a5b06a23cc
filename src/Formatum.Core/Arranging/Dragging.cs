using Formatum.Core.Geometry;

namespace Formatum.Core.Arranging;

/// <summary>A grip on the edge of a frame's box, by the sides it moves: -1 left or top, 0 neither, 1 right or bottom.</summary>
public readonly record struct Grip(int X, int Y)
{
    /// <summary>Reads a compass name: "nw", "n", "ne", "e", "se", "s", "sw" or "w".</summary>
    public static Grip? Named(string? name) => name switch
    {
        "nw" => new(-1, -1),
        "n" => new(0, -1),
        "ne" => new(1, -1),
        "e" => new(1, 0),
        "se" => new(1, 1),
        "s" => new(0, 1),
        "sw" => new(-1, 1),
        "w" => new(-1, 0),
        _ => null,
    };
}

/// <summary>What a drag of the pointer comes to. Positions in points of the spread.</summary>
public static class Dragging
{
    /// <summary>No drag makes a frame narrower or lower than this, in points: one could not take hold of it any more.</summary>
    public const double SmallestSide = 6;

    /// <summary>The box drawn from one corner to the pointer; with equal sides, of the longer of the two, where asked; about its middle where asked.</summary>
    public static Box Drawn(Vec from, Vec to, bool even, bool fromCentre = false)
    {
        double dx = to.X - from.X, dy = to.Y - from.Y;
        if (even)
        {
            double side = Math.Max(Math.Abs(dx), Math.Abs(dy));
            dx = dx < 0 ? -side : side;
            dy = dy < 0 ? -side : side;
        }
        return Box.Between(fromCentre ? from - new Vec(dx, dy) : from, from + new Vec(dx, dy));
    }

    /// <summary>The box after one of its grips was moved; the opposite side or corner stays. A drag past it stops short of turning the box over.</summary>
    /// <param name="box">The box before.</param>
    /// <param name="grip">Which grip.</param>
    /// <param name="by">How far it was dragged.</param>
    /// <param name="keepRatio">Whether width and height keep their ratio; a grip on a side then grows the other way about the middle.</param>
    /// <param name="fromCentre">Whether the middle stays, and the opposite side goes as far the other way.</param>
    public static Box Resized(Box box, Grip grip, Vec by, bool keepRatio, bool fromCentre = false)
    {
        double both = fromCentre ? 2 : 1;
        double width = Side(box.Width, both * grip.X * by.X), height = Side(box.Height, both * grip.Y * by.Y);
        if (keepRatio)
        {
            double scale = (grip.X, grip.Y) switch
            {
                (_, 0) => width / box.Width,
                (0, _) => height / box.Height,
                _ => Math.Max(width / box.Width, height / box.Height),
            };
            (width, height) = (box.Width * scale, box.Height * scale);
        }
        double x = Start(box.X, box.Width, width, fromCentre ? 0 : grip.X), y = Start(box.Y, box.Height, height, fromCentre ? 0 : grip.Y);
        return new(x, y, width, height);
    }

    /// <summary>The same for a frame that may be turned: its grips lie and move along its own sides.</summary>
    public static Pose Resized(Pose pose, Grip grip, Vec by, bool keepRatio, bool fromCentre = false)
    {
        var along = Affine.Rotation(-pose.Angle).Apply(by);
        var sized = Resized(pose.Box, grip, along, keepRatio, fromCentre);
        return fromCentre ? pose.Sized(sized.Width, sized.Height, 0.5, 0.5) : pose.Sized(sized.Width, sized.Height, (1 - grip.X) / 2.0, (1 - grip.Y) / 2.0);
    }

    /// <summary>A frame whose edges were dragged by a grip, kept within its picture, where that lies along the frame's sides; a turned one bounds
    /// nothing.</summary>
    /// <param name="before">The frame before.</param>
    /// <param name="sized">The frame as it was dragged.</param>
    /// <param name="grip">Which grip.</param>
    /// <param name="picture">From the image's unit square to the frame as it was before.</param>
    public static Pose Within(Pose before, Pose sized, Grip grip, Affine picture)
    {
        const double Straight = 1e-9;
        bool lies = Math.Abs(picture.B) + Math.Abs(picture.C) < Straight * (Math.Abs(picture.A) + Math.Abs(picture.D));
        bool stands = Math.Abs(picture.A) + Math.Abs(picture.D) < Straight * (Math.Abs(picture.B) + Math.Abs(picture.C));
        if (!lies && !stands) return sized;
        Vec p = picture.Apply(new(0, 0)), q = picture.Apply(new(1, 1));
        double width = Math.Min(sized.Box.Width, grip.X < 0 ? before.Box.Width - Math.Min(p.X, q.X) : grip.X > 0 ? Math.Max(p.X, q.X) : double.MaxValue);
        double height = Math.Min(sized.Box.Height, grip.Y < 0 ? before.Box.Height - Math.Min(p.Y, q.Y) : grip.Y > 0 ? Math.Max(p.Y, q.Y) : double.MaxValue);
        return width == sized.Box.Width && height == sized.Box.Height ? sized
            : before.Sized(width, height, (1 - grip.X) / 2.0, (1 - grip.Y) / 2.0);
    }

    private static double Side(double before, double grown) => Math.Max(before + grown, Math.Min(before, SmallestSide));

    private static double Start(double start, double before, double after, int grip) => grip switch
    {
        < 0 => start + before - after,
        0 => start + (before - after) / 2,
        _ => start,
    };
}

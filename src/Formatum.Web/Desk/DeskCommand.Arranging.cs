using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Arranging;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk;

/// <summary>What several frames are brought into line with.</summary>
public enum LineUpWith { EachOther, Margins, Page, Spread }

/// <summary>Frames made, moved, sized, turned, stacked, lined up, copied.</summary>
public sealed partial record DeskCommand
{
    /// <summary>Screen pixels to a point; 0 where nothing is to catch.</summary>
    public double Scale { get; init; }

    /// <summary>Alt was held: from the middle; a copy, where frames are moved.</summary>
    public bool FromCentre { get; init; }

    /// <summary>Ctrl was held: the picture is scaled with its frame; nothing catches, where frames are moved.</summary>
    public bool WithPicture { get; init; }

    /// <summary>What is made: "rectangle", "ellipse", "polygon", "free" or "text".</summary>
    public string? Outline { get; init; }

    public int Sides { get; init; } = 6;

    /// <summary>A free outline's points, in points of the spread: "x,y" with blanks between, and after a slash each the two controls where it bends.</summary>
    public string? Points { get; init; }

    /// <summary>A point of a frame's outline, from 0, and what of it is meant.</summary>
    public int Point { get; init; }
    public PointPart Part { get; init; }

    /// <summary>Whether it changes the points of an outline.</summary>
    public bool ChangesPoints => Do.StartsWith("shape-", StringComparison.Ordinal);

    /// <summary>For a grid.</summary>
    public int Rows { get; init; } = 1;
    public int Columns { get; init; } = 1;
    public string? GutterX { get; init; }
    public string? GutterY { get; init; }

    /// <summary>What a grid fills: "margins" or "columns" of a page, or what was drawn.</summary>
    public string? Fills { get; init; }

    /// <summary>A page by its number.</summary>
    public int? Page { get; init; }

    public Alignment LineUp { get; init; }
    public LineUpWith With { get; init; }
    public bool Across { get; init; }
    public Sameness Same { get; init; }
    public StackMove Stack { get; init; }
    public string? Gap { get; init; }
    public int Count { get; init; } = 1;
    public string? ByX { get; init; }
    public string? ByY { get; init; }

    /// <summary>For pasting: the publication that frames were copied in, their ids, and whether they go where they were.</summary>
    public int? FromPublication { get; init; }
    public string? Copied { get; init; }
    public bool InPlace { get; init; }

    /// <summary>A guide: its page and which it is, with a comma between.</summary>
    public string? Guide { get; init; }
    public bool Upright { get; init; }
    public bool AcrossSpread { get; init; }

    /// <summary>Poses that frames would take, in points of the spread, and what they caught on.</summary>
    private sealed record Arranged(ImmutableArray<(Frame Frame, Pose Pose)> Poses, ImmutableArray<SnapMark> Marks, string Words);

    private Edit? Arrange(Publication publication, Spread spread) => Do switch
    {
        "draw" => Draw(publication, spread),
        "draw-here" => DrawHere(publication, spread),
        "draw-free" => DrawFree(spread, FreePoints()),
        "draw-stroke" => DrawFree(spread, Strokes.Smoothed([.. StrokePoints()], Snapping.Reach / 4 / Math.Clamp(Scale, 0.05, 20))),
        "grid" => Grid(publication, spread),
        "set-down" => SetDown(publication, spread),
        "move" when FromCentre => new RepeatFrames(FrameIds, spread.Index, Dragged(publication, spread)!.Poses is [var first, ..]
            ? first.Pose.Box.UpperLeft - PoseOn(spread, first.Frame).Box.UpperLeft : default, 1),
        "move" => Placed(spread, Dragged(publication, spread)!.Poses, PictureAtSizing.GoesAlong),
        "resize" => Placed(spread, Dragged(publication, spread)!.Poses, WithPicture ? PictureAtSizing.Scaled : PictureAtSizing.Cropped),
        "turn" => Placed(spread, Dragged(publication, spread)!.Poses, PictureAtSizing.GoesAlong, "Turn"),
        "nudge" => Placed(spread, [.. Poses(publication, spread).Select(p => (p.Frame, p.Pose.Moved(StepsX * Step(publication), StepsY * Step(publication))))],
            PictureAtSizing.GoesAlong),
        "gutter" => Placed(spread, Dragged(publication, spread)!.Poses, PictureAtSizing.Cropped, "Drag gutter,"),
        "flip" => new FlipFrames(FrameIds, spread.Index, Across),
        "line-up" => LinedUp(publication, spread),
        "distribute" => Distribute(publication, spread),
        "same" => SameSizes(publication, spread),
        "to-bleed" => Placed(spread, [.. Poses(publication, spread).Select(p => (p.Frame, p.Pose with { Box = ToBleed(publication, spread, p.Pose.Box) }))],
            PictureAtSizing.Cropped, "Extend to bleed,"),
        "outline" => new ChangeFrames { FrameIds = FrameIds, Outline = OutlineNamed() },
        _ when ChangesPoints => Shaped(publication, spread),
        "stack" => new RestackFrames(FrameIds, Stack),
        "lock" or "unlock" => new ChangeFrames { FrameIds = FrameIds, Locked = Do == "lock" },
        "hide" or "show" => new ChangeFrames { FrameIds = FrameIds, Hidden = Do == "hide" },
        "group" or "ungroup" => new GroupFrames(FrameIds, Do == "group"),
        "repeat" => Repeat(publication, spread),
        "guide" => ChangeGuide(publication, spread),
        _ => null,
    };

    /// <summary>What a drag that is under way caught on; null for one that catches on nothing.</summary>
    public (ImmutableArray<SnapMark> Marks, string Words)? Caught(Publication publication, Spread spread) =>
        Do switch
        {
            "guide" => CaughtGuide(publication, spread),
            "draw" or "grid" when Drawn(publication, spread, DrawnRatio) is var drawn => (drawn.Marks, drawn.Words),
            "move" or "resize" or "turn" or "gutter" when Dragged(publication, spread) is { } dragged => (dragged.Marks, dragged.Words),
            _ => null,
        };

    private Arranged? Dragged(Publication publication, Spread spread)
    {
        if (Do == "gutter") return DraggedGutter(publication, spread);
        var poses = Poses(publication, spread);
        if (poses.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        var around = Around(poses);
        var moving = FrameIds.ToHashSet();
        switch (Do)
        {
            case "move":
                var by = To - From;
                // With Shift, along the page or across it alone.
                if (Even) by = Math.Abs(by.X) >= Math.Abs(by.Y) ? by with { Y = 0 } : by with { X = 0 };
                var moved = around.Moved(by.X, by.Y);
                var snapped = Scale > 0 && !WithPicture ? new Snapping(publication, spread, moving).Moved(moved, Snapping.Reach / Scale) : new(moved, []);
                return new([.. poses.Select(p => (p.Frame, p.Pose.Moved(snapped.Box.X - around.X, snapped.Box.Y - around.Y)))], snapped.Marks, snapped.Words);
            case "resize":
                var grip = Core.Arranging.Grip.Named(Grip) ?? throw new EditRefused("grip", $"A frame has no grip \"{Grip}\".");
                bool keepRatio = Even || WithPicture;
                if (poses is [var only])
                {
                    var sized = Dragging.Resized(only.Pose, grip, To - From, keepRatio, FromCentre);
                    // Turned frames and kept ratios would leave the line they caught on again.
                    if (Scale <= 0 || only.Pose.Angle != 0 || keepRatio || FromCentre) return new([(only.Frame, sized)], [], "");
                    var caught = new Snapping(publication, spread, moving).Sized(sized.Box, grip, Snapping.Reach / Scale);
                    return new([(only.Frame, only.Pose with { Box = caught.Box })], caught.Marks, caught.Words);
                }
                keepRatio |= poses.Any(p => p.Pose.Angle != 0);
                var free = Dragging.Resized(around, grip, To - From, keepRatio, FromCentre);
                var (together, marks) = Scale <= 0 || keepRatio || FromCentre ? new(free, [])
                    : new Snapping(publication, spread, moving).Sized(free, grip, Snapping.Reach / Scale);
                double sx = together.Width / around.Width, sy = together.Height / around.Height;
                return new([.. poses.Select(p =>
                {
                    var b = p.Pose.Box;
                    return (p.Frame, p.Pose with { Box = new(together.X + (b.X - around.X) * sx, together.Y + (b.Y - around.Y) * sy, b.Width * sx,
                        b.Height * sy) });
                })], marks, new Snapped(together, marks).Words);
            case "turn":
                Vec about = poses is [var one] ? one.Pose.At(ReferenceX, ReferenceY) : around.At(ReferenceX, ReferenceY), before = From - about,
                    after = To - about;
                double turn = Math.Atan2(before.Cross(after), before.X * after.X + before.Y * after.Y) * (180 / Math.PI);
                if (Even) turn = Math.Round((poses[0].Pose.Angle + turn) / TurnStep) * TurnStep - poses[0].Pose.Angle;
                var turned = poses.Select(p => (p.Frame, p.Pose.Turned(turn, about))).ToImmutableArray();
                return new(turned, [], $"{Recropping.Turned(turned[0].Item2.Angle).ToString("0.#", CultureInfo.InvariantCulture)}\u00b0");
            default: return null;
        }
    }

    /// <summary>The gap under the place where the drag began, dragged along; with Alt, widened.</summary>
    private Arranged DraggedGutter(Publication publication, Spread spread)
    {
        var (gutter, frames, boxes) = GutterAt(publication, spread, From, Scale) ?? throw new EditRefused("gutter", "There is no gap between frames here.");
        var by = To - From;
        double along = gutter.Upright ? by.X : by.Y;
        var drawn = (Gap is not null ? gutter.Widened(boxes, GapTyped(publication)) : FromCentre ? gutter.Widened(boxes, gutter.Width + 2 * along)
            : gutter.Dragged(boxes, along)).ToList();
        double before = drawn.Where(d => gutter.Before.Contains(d.Index)).Max(d => gutter.Upright ? d.Box.Right : d.Box.Bottom),
            after = drawn.Where(d => gutter.After.Contains(d.Index)).Min(d => gutter.Upright ? d.Box.X : d.Box.Y);
        return new([.. drawn.Select(d => (frames[d.Index], new Pose(d.Box, 0)))], [], $"gap {Units.Text(Math.Max(0, after - before), publication.Setup.Unit)}");
    }

    private double GapTyped(Publication publication)
    {
        var errors = new FieldErrors();
        double gap = Length(publication, "gap", Gap!, errors) ?? 0;
        errors.Range("gap", gap, 0, Setup.LargestSide, "A gap is 0 or wider.");
        errors.ThrowIfAny();
        return gap;
    }

    /// <summary>The gap between frames at a point of the spread; null where there is none.</summary>
    public static (Gutter Gutter, ImmutableArray<Frame> Frames, ImmutableArray<Box> Boxes)? GutterAt(Publication publication, Spread spread, Vec point,
        double scale)
    {
        // Turned frames have no facing edges, and locked ones do not follow.
        var there = spread.FramesOf(publication).Where(f => f.Frame is { Angle: 0, Locked: false, Hidden: false }).ToList();
        ImmutableArray<Box> boxes = [.. there.Select(f => f.Box)];
        return Gutter.At(boxes, point, 4 / Math.Max(scale, 0.01)) is { } gutter ? (gutter, [.. there.Select(f => f.Frame)], boxes) : null;
    }

    private static double Step(Publication publication) =>
        publication.Setup.Unit switch { LengthUnit.Millimetre => Units.Millimetres(1), LengthUnit.Inch => Units.PointsPerInch / 32, _ => 1 };

    private ImmutableArray<(Frame Frame, Pose Pose)> Poses(Publication publication, Spread spread) =>
        [.. FramesOf(publication).Select(frame => (frame, PoseOn(spread, frame)))];

    private static Pose PoseOn(Spread spread, Frame frame)
    {
        var page = spread.Pages.FirstOrDefault(p => p.Page.Id == frame.PageId) ?? throw new EditRefused("frame",
            "That frame is no longer on this spread. Look at the spread again.");
        return frame.Pose.Moved(page.Trim.X, page.Trim.Y);
    }

    private static Box Around(IEnumerable<(Frame Frame, Pose Pose)> poses) => poses.Select(p => p.Pose.Bounds).Aggregate((p, q) => p.Union(q));

    /// <summary>The frames in other poses on the spread; each keeps to the page its middle lies on.</summary>
    private static PlaceFrames Placed(Spread spread, IEnumerable<(Frame Frame, Pose Pose)> poses, PictureAtSizing picture, string? words = null) => new(
        [.. poses.Select(p =>
        {
            var page = spread.PageAt(p.Pose.Box.Centre);
            return new FramePlace(p.Frame.Id, page.Number, p.Pose.Box.Moved(-page.Trim.X, -page.Trim.Y), p.Pose.Angle);
        })], picture, words);

    private Outline OutlineNamed() => Outline switch
    {
        null or "rectangle" or "text" => Core.Geometry.Outline.Rectangle,
        "ellipse" => Core.Geometry.Outline.Ellipse,
        "polygon" => Sides is >= Outlines.FewestSides and <= Outlines.MostSides ? Outlines.Polygon(Sides) :
            throw new EditRefused("sides", $"A polygon has {Outlines.FewestSides} to {Outlines.MostSides} sides here."),
        _ => throw new EditRefused("outline", $"There is no outline \"{Outline}\"."),
    };

    private MakeFrame Draw(Publication publication, Spread spread)
    {
        var box = Drawn(publication, spread, DrawnRatio).Box;
        var page = spread.PageAt(box.Centre);
        return new()
        {
            Page = page.Number,
            Box = box.Moved(-page.Trim.X, -page.Trim.Y),
            Outline = OutlineNamed(),
            Text = Outline == "text"
            ? NewText(publication) : null
        };
    }

    /// <summary>What was drawn, its corners caught on what is near; with Shift, of a given ratio of width to height.</summary>
    private Snapped Drawn(Publication publication, Spread spread, double ratio)
    {
        var (from, to) = (From, To);
        if (Scale > 0)
        {
            double reach = Snapping.Reach / Scale;
            var snapping = new Snapping(publication, spread, new HashSet<int>());
            from = snapping.Point(from, reach);
            if (!Even && !FromCentre) return snapping.Drawn(Dragging.Drawn(from, to, false), new(to.X < from.X ? -1 : 1, to.Y < from.Y ? -1 : 1), reach);
            if (!Even) to = snapping.Point(to, reach);
        }
        if (!Even) return new(Dragging.Drawn(from, to, false, FromCentre), []);
        // Drawn as a square, then narrowed to the ratio.
        var square = Dragging.Drawn(from, to, true, FromCentre);
        double width = Math.Min(square.Width, square.Height * ratio), height = width / ratio;
        return new(FromCentre ? new(square.Centre.X - width / 2, square.Centre.Y - height / 2, width, height)
            : new(to.X < from.X ? square.Right - width : square.X, to.Y < from.Y ? square.Bottom - height : square.Y, width, height), []);
    }

    private double DrawnRatio => Outline == "polygon" ? Outlines.RegularRatio(Sides) : 1;

    /// <summary>A frame of half the type area's width in the middle of the page, for who works by keys: of the chosen frame's page, or the first.</summary>
    private MakeFrame DrawHere(Publication publication, Spread spread)
    {
        var page = spread.Pages.FirstOrDefault(p => FrameIds.Any(id => publication.Frames.GetValueOrDefault(id)?.PageId == p.Page.Id)) ?? spread.Pages[0];
        var area = publication.Setup.TypeArea(page.Recto);
        double width = area.Width / 2, ratio = Outline == "polygon" ? Outlines.RegularRatio(Sides) : Outline == "text" ? 2 : 1.5;
        double height = Math.Min(width / ratio, area.Height / 2);
        return new()
        {
            Page = page.Number,
            Box = new(area.Centre.X - width / 2, area.Centre.Y - height / 2, width, height),
            Outline = OutlineNamed(),
            Text = Outline == "text" ? NewText(publication) : null
        };
    }

    private static MakeFrame DrawFree(Spread spread, ImmutableArray<PathPoint> points)
    {
        if (points.Length < PathOutline.FewestPoints)
            throw new EditRefused("outline", $"A free outline goes through {PathOutline.FewestPoints} points or more. Click some more, then close it; or " +
                $"draw around in one stroke.");
        var (box, outline) = Outlines.Free(points);
        var page = spread.PageAt(box.Centre);
        return new() { Page = page.Number, Box = box.Moved(-page.Trim.X, -page.Trim.Y), Outline = outline };
    }

    /// <summary>More points than a hand makes in a minute.</summary>
    private const int MostStrokePoints = 8000;

    private IEnumerable<Vec> StrokePoints() => (Points ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries).Take(MostStrokePoints).Select(ReadPoint);

    private static Vec ReadPoint(string text)
    {
        var numbers = text.Split(',');
        return numbers.Length == 2 && SettingText.Number(numbers[0]) is { } x && SettingText.Number(numbers[1]) is { } y ? new(x, y)
            : throw new EditRefused("outline", "The outline's points cannot be read. Draw it again.");
    }

    private ImmutableArray<PathPoint> FreePoints()
    {
        return [.. (Points ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries).Take(PathOutline.MostPoints + 1).Select(word =>
        {
            var parts = word.Split('/');
            return parts.Length == 3 ? new PathPoint(ReadPoint(parts[0]), ReadPoint(parts[1]), ReadPoint(parts[2])) : new PathPoint(ReadPoint(parts[0]));
        })];
    }

    /// <summary>The outline changed at one of its points. What is drawn catches; with Alt, a control leaves the one across from it as it is.</summary>
    private PlaceFrames Shaped(Publication publication, Spread spread)
    {
        var frame = Only(publication);
        if (frame.IsText) throw new EditRefused("outline", $"{frame.Label} holds text, and keeps its four sides.");
        var (pose, outline) = (PoseOn(spread, frame), frame.Outline);
        var points = OutlinePoints.Of(pose, outline);
        if (Do != "shape-add" && (Point < 0 || Point >= points.Length))
            throw new EditRefused("outline", "That point is no longer there. Look at the outline again.");
        if (Do == "shape-remove" && points.Length <= PathOutline.FewestPoints)
            throw new EditRefused("outline", $"An outline has at least {PathOutline.FewestPoints} points. Remove the frame instead, or move its points.");
        var to = Scale > 0 && Part == PointPart.At ? new Snapping(publication, spread, new HashSet<int> { frame.Id }).Point(To, Snapping.Reach / Scale) : To;
        var changed = Do switch
        {
            "shape-move" => OutlinePoints.Moved(pose, outline, Point, Part, to, alone: FromCentre),
            "shape-nudge" => OutlinePoints.Moved(pose, outline, Point, PointPart.At, points[Point].At + Step(publication) * new Vec(StepsX, StepsY)),
            "shape-add" => OutlinePoints.Added(pose, outline, To),
            "shape-add-next" => OutlinePoints.Added(pose, outline, 0.5 * (points[Point].At + points[(Point + 1) % points.Length].At)),
            "shape-remove" => OutlinePoints.Removed(pose, outline, Point),
            "shape-bend" => OutlinePoints.Bent(pose, outline, Point),
            _ => throw new EditRefused("do", $"Nothing is done by \"{Do}\"."),
        };
        var placed = Placed(spread, [(frame, changed.Pose)], PictureAtSizing.Cropped, "Change outline");
        return placed with { Places = [placed.Places[0] with { Outline = changed.Outline }] };
    }

    private MakeFrames Grid(Publication publication, Spread spread)
    {
        var errors = new FieldErrors();
        double gutterX = GutterX is null ? publication.Setup.Columns.Gutter : Length(publication, "gutterX", GutterX, errors) ?? 0, gutterY = GutterY is null
            ? gutterX : Length(publication, "gutterY", GutterY, errors) ?? 0;
        if (Rows is < 1 or > FrameGrid.MostInLine) errors.Add("rows", $"Give from 1 to {FrameGrid.MostInLine} rows.");
        if (Columns is < 1 or > FrameGrid.MostInLine) errors.Add("columns", $"Give from 1 to {FrameGrid.MostInLine} columns.");
        errors.ThrowIfAny();
        var grid = new FrameGrid(Rows, Columns, gutterX, gutterY);
        var pages = Page is { } number ? spread.Pages.Where(p => p.Number == number) : spread.Pages;
        var boxes = Fills switch
        {
            "margins" => pages.SelectMany(p => grid.Fill(publication.Setup.TypeArea(p.Recto).Moved(p.Trim.X, p.Trim.Y))),
            "columns" => pages.SelectMany(p => grid.FillColumns([.. publication.Setup.ColumnBoxes(p.Recto).Select(c => c.Moved(p.Trim.X, p.Trim.Y))])),
            _ => grid.Fill(Drawn(publication, spread, DrawnRatio).Box),
        };
        return new(spread.Index, [.. boxes], OutlineNamed(), Rule);
    }

    /// <summary>
    /// A picture that gets a frame of its own: at its natural size about the pointer, or in the column or margins under it where that is too large for them;
    /// or of the size that was dragged.
    /// </summary>
    private MakeFrame SetDown(Publication publication, Spread spread)
    {
        var image = Image is { } id && publication.Images.TryGetValue(id, out var found) ? found : throw new EditRefused("image", "Choose an image.");
        var natural = image.Picture(publication.Setup.AssumedPpi);
        double ratio = natural.NaturalWidth / natural.NaturalHeight;
        Box box;
        if ((To - From).Length * Math.Max(Scale, 1) < 4) box = SetDownAt(publication, spread, natural);
        else if (WithPicture) box = Dragging.Drawn(From, To, false);
        else
        {
            var drawn = Dragging.Drawn(From, To, false);
            double width = Math.Max(drawn.Width, drawn.Height * ratio);
            box = new(To.X < From.X ? From.X - width : From.X, To.Y < From.Y ? From.Y - width / ratio : From.Y, width, width / ratio);
        }
        var page = spread.PageAt(box.Centre);
        return new() { Page = page.Number, Box = box.Moved(-page.Trim.X, -page.Trim.Y), ImageId = image.Id };
    }

    private Box SetDownAt(Publication publication, Spread spread, in Picture natural)
    {
        var page = spread.PageAt(From);
        var area = publication.Setup.TypeArea(page.Recto).Moved(page.Trim.X, page.Trim.Y);
        var about = new Box(From.X - natural.NaturalWidth / 2, From.Y - natural.NaturalHeight / 2, natural.NaturalWidth, natural.NaturalHeight);
        if (about.Width <= area.Width && about.Height <= area.Height) return about;
        var columns = publication.Setup.ColumnBoxes(page.Recto).Select(c => c.Moved(page.Trim.X, page.Trim.Y)).Where(c => From.X >= c.X && From.X <= c.Right)
            .Take(1).ToList();
        var room = columns is [var column] ? column : area;
        double scale = Math.Min(room.Width / about.Width, room.Height / about.Height), width = about.Width * scale, height = about.Height * scale;
        return new(room.X + (room.Width - width) / 2, Math.Clamp(From.Y - height / 2, area.Y, Math.Max(area.Y, area.Bottom - height)), width, height);
    }

    private PlaceFrames LinedUp(Publication publication, Spread spread)
    {
        var poses = Poses(publication, spread);
        if (poses.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        var bounds = poses.Select(p => p.Pose.Bounds).ToList();
        var moves = poses.Select((p, i) =>
        {
            var page = spread.PageAt(p.Pose.Box.Centre);
            var reference = With switch
            {
                LineUpWith.Margins => publication.Setup.TypeArea(page.Recto).Moved(page.Trim.X, page.Trim.Y),
                LineUpWith.Page => page.Trim,
                LineUpWith.Spread => spread.Trim,
                _ => Around(poses),
            };
            return Aligning.Aligned([bounds[i]], LineUp, reference)[0];
        }).ToList();
        return Placed(spread, poses.Select((p, i) => (p.Frame, p.Pose.Moved(moves[i].X, moves[i].Y))), PictureAtSizing.GoesAlong, "Line up");
    }

    private PlaceFrames Distribute(Publication publication, Spread spread)
    {
        var poses = Poses(publication, spread);
        if (poses.Length < 2) throw new EditRefused("frame", "Spreading out takes two frames or more. Choose some more.");
        double? gap = string.IsNullOrWhiteSpace(Gap) ? null : GapTyped(publication);
        var page = spread.PageAt(poses[0].Pose.Box.Centre);
        Box? within = With switch
        {
            LineUpWith.Margins => publication.Setup.TypeArea(page.Recto).Moved(page.Trim.X, page.Trim.Y),
            LineUpWith.Page => page.Trim,
            LineUpWith.Spread => spread.Trim,
            _ => null,
        };
        var moves = Aligning.Distributed([.. poses.Select(p => p.Pose.Bounds)], Across, within, gap);
        return Placed(spread, poses.Select((p, i) => (p.Frame, p.Pose.Moved(moves[i].X, moves[i].Y))), PictureAtSizing.GoesAlong, "Spread out");
    }

    /// <summary>The others take the size of the frame that was chosen first.</summary>
    private PlaceFrames SameSizes(Publication publication, Spread spread)
    {
        var poses = Poses(publication, spread);
        if (poses.Length < 2) throw new EditRefused("frame", "Choose the frame to go by, then the others.");
        var by = poses[0].Pose.Box;
        return Placed(spread, poses.Select(p => (p.Frame, p.Pose.Sized(Same == Sameness.Height ? p.Pose.Box.Width : by.Width, Same == Sameness.Width
            ? p.Pose.Box.Height : by.Height, 0, 0))), PictureAtSizing.Cropped, "Same size,");
    }

    /// <summary>Edges that lie on the trim, or between it and the bleed, go out to the bleed.</summary>
    private static Box ToBleed(Publication publication, Spread spread, Box box)
    {
        const double Touching = 1;
        double bleed = publication.Setup.Bleed;
        var trim = spread.Trim;
        bool Touches(double edge, double line, int outwards) => (edge - line) * outwards > -Touching && (edge - line) * outwards <= bleed + Touching;
        double left = Touches(box.X, trim.X, -1) ? trim.X - bleed : box.X, right = Touches(box.Right, trim.Right, 1) ? trim.Right + bleed : box.Right;
        double top = Touches(box.Y, trim.Y, -1) ? trim.Y - bleed : box.Y, bottom = Touches(box.Bottom, trim.Bottom, 1) ? trim.Bottom + bleed : box.Bottom;
        return new(left, top, right - left, bottom - top);
    }

    private RepeatFrames Repeat(Publication publication, Spread spread)
    {
        var errors = new FieldErrors();
        var around = Around(Poses(publication, spread));
        double gap = publication.Setup.Columns.Gutter;
        double x = string.IsNullOrWhiteSpace(ByX) ? around.Width + gap : Length(publication, "byX", ByX, errors) ?? 0, y = string.IsNullOrWhiteSpace(ByY)
            ? (Rows > 1 ? around.Height + gap : 0) : Length(publication, "byY", ByY, errors) ?? 0;
        errors.ThrowIfAny();
        return new(FrameIds, spread.Index, new(x, y), Count, Rows);
    }

    /// <summary>The guide that is meant, by its page and which of that page's it is; null for a new one.</summary>
    private (int Page, int Index)? GuideNamed() =>
        (Guide ?? "").Split(',') is [var page, var index] && int.TryParse(page, CultureInfo.InvariantCulture, out int p)
            && int.TryParse(index, CultureInfo.InvariantCulture, out int i) ? (p, i) : null;

    /// <summary>Where the guide comes to lie, in points of the spread; null where it was let go outside of what is seen, or asked away.</summary>
    private double? GuideAt(Publication publication, Spread spread, PlacedPage page)
    {
        double origin = Upright ? page.Trim.X : page.Trim.Y;
        if (Value is not null)
        {
            if (Value == "none") return null;
            var errors = new FieldErrors();
            double typed = Length(publication, "at", Value, errors) ?? 0;
            errors.ThrowIfAny();
            return typed + origin;
        }
        var at = Scale > 0 && !WithPicture ? new Snapping(publication, spread, new HashSet<int>()).Point(To, Snapping.Reach / Scale) : To;
        return SpreadView.Visible(publication, spread).Contains(To) ? Upright ? at.X : at.Y : null;
    }

    private ChangeGuide ChangeGuide(Publication publication, Spread spread)
    {
        var named = GuideNamed();
        var page = spread.Pages.FirstOrDefault(p => p.Number == named?.Page) ?? spread.PageAt(To);
        PageGuide? guide = GuideAt(publication, spread, page) is { } at ? new PageGuide(Upright, at - (Upright ? page.Trim.X : page.Trim.Y), AcrossSpread)
            : null;
        return new(page.Number, named?.Index, guide);
    }

    private (ImmutableArray<SnapMark> Marks, string Words)? CaughtGuide(Publication publication, Spread spread)
    {
        var page = spread.Pages.FirstOrDefault(p => p.Number == GuideNamed()?.Page) ?? spread.PageAt(To);
        if (GuideAt(publication, spread, page) is not { } at) return ([], "take it away");
        var seen = SpreadView.Visible(publication, spread);
        string words = Units.Text(at - (Upright ? page.Trim.X : page.Trim.Y), publication.Setup.Unit);
        return ([new SnapMark(Upright, Upright ? new(at, words, seen.Y, seen.Bottom) : new(at, words, seen.X, seen.Right))], words);
    }

    private Edit Typed(Publication publication, Spread spread)
    {
        if (Name is not null) return new ChangeFrames { FrameIds = FrameIds, Name = Name };
        var errors = new FieldErrors();
        double Read(string field, string? text, double current, bool negative) => text is null ? current
            : SettingText.Length(field, text, publication.Setup.Unit, current, negative, errors) ?? current;
        var places = FramesOf(publication).Select(frame =>
        {
            var b = frame.Box;
            var box = new Box(Read("x", X, b.X, true), Read("y", Y, b.Y, true), Read("width", Width, b.Width, false), Read("height", Height, b.Height, false));
            var pose = new Pose(box, frame.Angle);
            if (Angle is not null)
            {
                if (SettingText.Number(Angle.Trim().TrimEnd('\u00b0')) is { } angle)
                    pose = frame.Pose.Turned(angle - frame.Angle, frame.Pose.At(ReferenceX, ReferenceY));
                else errors.Add("angle", $"\u201c{Angle}\u201d is not an angle. Type degrees, such as 3 or -90.");
            }
            return new FramePlace(frame.Id, publication.NumberOf(frame.PageId), pose.Box, pose.Angle);
        }).ToImmutableArray();
        errors.ThrowIfAny();
        return new PlaceFrames(places, PictureAtSizing.GoesAlong, Width is not null || Height is not null ? "Resize" : Angle is not null ? "Turn" : null);
    }
}

using System.Collections.Immutable;
using Formatum.Core.Arranging;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk.Commands;

/// <summary>A kind of frame to make: "rectangle", "ellipse", "polygon" or "text".</summary>
/// <param name="Name">Its name.</param>
/// <param name="Sides">For a polygon, its sides, or its points where it is a star.</param>
/// <param name="Depth">For a star, how deep its points are, in percent of the way to the middle; 0 for a polygon.</param>
internal readonly record struct FrameShape(string? Name, int Sides, double Depth = 0)
{
    public bool IsText => Name == "text";

    /// <summary>Width to height of one that is drawn even.</summary>
    /// <exception cref="EditRefused">There is no such polygon.</exception>
    public double EvenRatio => Name == "polygon" ? Outlines.RegularRatio(PossibleSides, PossibleDepth) : 1;

    private int PossibleSides => Sides is >= Outlines.FewestSides and <= Outlines.MostSides ? Sides
        : throw new EditRefused("sides", $"A polygon has {Outlines.FewestSides} to {Outlines.MostSides} sides here.");

    private double PossibleDepth => Depth is >= 0 and <= 100 * Outlines.DeepestStar ? Depth / 100
        : throw new EditRefused("depth", $"The points of a star are 0 % (none) to {100 * Outlines.DeepestStar} % deep.");

    /// <exception cref="EditRefused">There is no such outline.</exception>
    public Outline Outline => Name switch
    {
        null or "rectangle" or "text" => Outline.Rectangle,
        "ellipse" => Outline.Ellipse,
        "polygon" => Outlines.Polygon(PossibleSides, PossibleDepth),
        _ => throw new EditRefused("outline", $"There is no outline \"{Name}\"."),
    };

    /// <summary>New text is set in the publication's default style.</summary>
    public FrameText? NewText => IsText ? FrameText.Unstyled : null;
}

/// <summary>Something drawn from corner to corner.</summary>
public abstract record Drawing : Drag
{
    public string? Outline { get; init; }
    public int Sides { get; init; } = 6;

    /// <summary>How deep the points of a star are, in percent; 0 for a polygon.</summary>
    public double Depth { get; init; }

    private protected FrameShape Shape => new(Outline, Sides, Depth);

    /// <summary>What was drawn, its corners caught on what is near; with Shift, of the shape's even ratio.</summary>
    protected Snapped Drawn(Ground ground)
    {
        var (from, to) = (From, To);
        if (Scale > 0 && !WithPicture)
        {
            var snapping = new Snapping(ground.Publication, ground.Spread, new HashSet<int>());
            from = snapping.Point(from, Reach);
            if (!Even && !FromCentre) return snapping.Drawn(Dragging.Drawn(from, to, false), new(to.X < from.X ? -1 : 1, to.Y < from.Y ? -1 : 1), Reach);
            if (!Even) to = snapping.Point(to, Reach);
        }
        if (!Even) return new(Dragging.Drawn(from, to, false, FromCentre), []);
        // Drawn as a square, then narrowed to the ratio.
        var square = Dragging.Drawn(from, to, true, FromCentre);
        double width = Math.Min(square.Width, square.Height * Shape.EvenRatio), height = width / Shape.EvenRatio;
        return new(FromCentre ? new(square.Centre.X - width / 2, square.Centre.Y - height / 2, width, height)
            : new(to.X < from.X ? square.Right - width : square.X, to.Y < from.Y ? square.Bottom - height : square.Y, width, height), []);
    }
}

/// <summary>A frame is drawn.</summary>
public sealed record DrawFrame : Drawing
{
    protected override Attempt Attempt(Ground ground)
    {
        var drawn = Drawn(ground);
        var page = ground.Spread.PageAt(drawn.Box.Centre);
        return new(new MakeFrame
        {
            Page = page.Number,
            Box = drawn.Box.Moved(-page.Trim.X, -page.Trim.Y),
            Outline = Shape.Outline,
            Text = Shape.NewText,
        }, drawn.Marks, drawn.Words);
    }
}

/// <summary>A frame of half the type area's width in the middle of the page, for who works by keys: of the chosen frame's page, or the first.</summary>
public sealed record DrawHere : Gesture
{
    public string? Outline { get; init; }
    public int Sides { get; init; } = 6;
    public double Depth { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var (publication, pages, shape) = (ground.Publication, ground.Spread.Pages, new FrameShape(Outline, Sides, Depth));
        var page = pages.FirstOrDefault(p => FrameIds.Any(id => publication.Frames.GetValueOrDefault(id)?.PageId == p.Page.Id)) ?? pages[0];
        var area = publication.Setup.TypeAreas(page).First();
        double width = area.Width / 2, ratio = Outline == "polygon" ? shape.EvenRatio : shape.IsText ? 2 : 1.5,
            height = Math.Min(width / ratio, area.Height / 2);
        return new MakeFrame
        {
            Page = page.Number,
            Box = new(area.Centre.X - width / 2, area.Centre.Y - height / 2, width, height),
            Outline = shape.Outline,
            Text = shape.NewText,
        };
    }
}

/// <summary>A frame with an outline of its own.</summary>
public abstract record DrawOutline : Gesture
{
    /// <summary>The outline's points, in points of the spread: "x,y" with blanks between, and after a slash each the two controls where it bends.</summary>
    public string? Points { get; init; }

    protected IEnumerable<string> Words => (Points ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries);

    protected abstract ImmutableArray<PathPoint> Path();

    public override Edit ToEdit(Ground ground)
    {
        var points = Path();
        if (points.Length < PathOutline.FewestPoints)
            throw new EditRefused("outline", $"A free outline goes through {PathOutline.FewestPoints} points or more. Click some more, then close it; or " +
                "draw around in one stroke.");
        var (box, outline) = Outlines.Free(points);
        var page = ground.Spread.PageAt(box.Centre);
        return new MakeFrame { Page = page.Number, Box = box.Moved(-page.Trim.X, -page.Trim.Y), Outline = outline };
    }

    protected static Vec Read(string text)
    {
        var numbers = text.Split(',');
        return numbers.Length == 2 && SettingText.Number(numbers[0]) is { } x && SettingText.Number(numbers[1]) is { } y ? new(x, y)
            : throw new EditRefused("outline", "The outline's points cannot be read. Draw it again.");
    }
}

/// <summary>A free outline from point to point.</summary>
public sealed record DrawPoints : DrawOutline
{
    protected override ImmutableArray<PathPoint> Path() => [.. Words.Take(PathOutline.MostPoints + 1).Select(word =>
    {
        var parts = word.Split('/');
        return parts.Length == 3 ? new PathPoint(Read(parts[0]), Read(parts[1]), Read(parts[2])) : new PathPoint(Read(parts[0]));
    })];
}

/// <summary>A free outline in one stroke of the hand.</summary>
public sealed record DrawStroke : DrawOutline
{
    /// <summary>More points than a hand makes in a minute.</summary>
    private const int MostPoints = 8000;

    /// <summary>Screen pixels to a point.</summary>
    public double Scale { get; init; }

    protected override ImmutableArray<PathPoint> Path() =>
        Strokes.Smoothed([.. Words.Take(MostPoints).Select(Read)], Snapping.Reach / 4 / Math.Clamp(Scale, 0.05, 20));
}

/// <summary>Several frames in rows and columns.</summary>
public sealed record DrawGrid : Drawing
{
    public int Rows { get; init; } = 1;
    public int Columns { get; init; } = 1;
    public string? GutterX { get; init; }
    public string? GutterY { get; init; }

    /// <summary>What it fills: "margins" or "columns" of a page, or what was drawn.</summary>
    public string? Fills { get; init; }

    /// <summary>The page that is filled; every page of the spread where left out.</summary>
    public int? Page { get; init; }

    /// <summary>The rule of the new frames; null for the publication's own.</summary>
    public int? Rule { get; init; }

    protected override Attempt Attempt(Ground ground)
    {
        var errors = new FieldErrors();
        double gutterX = LengthOr(ground, "gutterX", GutterX, ground.Setup.Columns.Gutter, errors),
            gutterY = LengthOr(ground, "gutterY", GutterY, gutterX, errors);
        if (Rows is < 1 or > FrameGrid.MostInLine) errors.Add("rows", $"Give from 1 to {FrameGrid.MostInLine} rows.");
        if (Columns is < 1 or > FrameGrid.MostInLine) errors.Add("columns", $"Give from 1 to {FrameGrid.MostInLine} columns.");
        errors.ThrowIfAny();
        var grid = new FrameGrid(Rows, Columns, gutterX, gutterY);
        var pages = Page is { } number ? ground.Spread.Pages.Where(p => p.Number == number) : ground.Spread.Pages;
        var drawn = Fills is "margins" or "columns" ? new Snapped(default, []) : Drawn(ground);
        var boxes = Fills switch
        {
            "margins" => pages.SelectMany(ground.TypeAreas).SelectMany(area => grid.Fill(area)),
            "columns" => pages.SelectMany(p => grid.FillColumns(ground.Columns(p))),
            _ => grid.Fill(drawn.Box),
        };
        return new(new MakeFrames(ground.Spread.Index, [.. boxes], Shape.Outline, Rule), drawn.Marks, drawn.Words);
    }

    public override UnderWay UnderWay(Ground ground, bool inside) => string.IsNullOrEmpty(Fills) ? base.UnderWay(ground, inside)
        : Desk.UnderWay.OfNew(ground, Attempt(ground).Edit);

    // Left out, another measure holds; typed and emptied is an error.
    private static double LengthOr(Ground ground, string field, string? text, double otherwise, FieldErrors errors) =>
        text is null ? otherwise : ground.Length(field, text, errors) ?? 0;
}

/// <summary>
/// A picture that gets a frame of its own: about the pointer at its natural size, or in the column under it where that is smaller; or within what was dragged,
/// with Shift just as that is.
/// </summary>
public sealed record SetDownPicture : Drag
{
    public int? Image { get; init; }

    protected override Attempt Attempt(Ground ground)
    {
        var image = ground.Image(Image);
        var natural = image.Picture(ground.Setup.AssumedPpi);
        bool isDragged = (To - From).Length * Math.Max(Scale, 1) >= 4;
        var set = isDragged ? Dragged(ground, natural.NaturalWidth / natural.NaturalHeight) : new(About(ground, natural, From), []);
        return new(Made(ground, image, set.Box), set.Marks, set.Words);
    }

    /// <summary>A frame for a picture, in points of the spread.</summary>
    internal static MakeFrame Made(Ground ground, LinkedImage image, Box box)
    {
        var page = ground.Spread.PageAt(box.Centre);
        return new() { Page = page.Number, Box = box.Moved(-page.Trim.X, -page.Trim.Y), ImageId = image.Id };
    }

    private Snapped Dragged(Ground ground, double ratio)
    {
        if (Scale <= 0 || WithPicture) return new(Drawn(From, To, ratio), []);
        var snapping = new Snapping(ground.Publication, ground.Spread, new HashSet<int>());
        return snapping.LyingOn(Drawn(snapping.Point(From, Reach), snapping.Point(To, Reach), ratio));
    }

    /// <summary>The largest box of the picture's own ratio within what was dragged, from the corner where that began.</summary>
    private Box Drawn(Vec from, Vec to, double ratio)
    {
        var drawn = Dragging.Drawn(from, to, false);
        if (Even) return drawn;
        double width = Math.Min(drawn.Width, drawn.Height * ratio), height = width / ratio;
        return new(to.X < from.X ? from.X - width : from.X, to.Y < from.Y ? from.Y - height : from.Y, width, height);
    }

    /// <summary>Where a picture comes to lie that is set down at a point: on a page it keeps to the margins, beside the pages it stays there.</summary>
    internal static Box About(Ground ground, in Picture natural, Vec at)
    {
        var page = ground.Spread.PageAt(at);
        var area = ground.TypeArea(page, at);
        var room = ground.Columns(page).Where(c => at.X >= c.X && at.X <= c.Right).Append(area).First();
        double scale = Math.Min(1, Math.Min(room.Width / natural.NaturalWidth, room.Height / natural.NaturalHeight));
        double width = natural.NaturalWidth * scale, height = natural.NaturalHeight * scale;
        var about = new Box(at.X - width / 2, at.Y - height / 2, width, height);
        bool isOnPage = ground.Spread.Pages.Any(p => at.X >= p.Trim.X && at.X <= p.Trim.Right && at.Y >= p.Trim.Y && at.Y <= p.Trim.Bottom);
        if (scale == 1 || !isOnPage) return about;
        return new(room.X + (room.Width - width) / 2, Math.Clamp(about.Y, area.Y, Math.Max(area.Y, area.Bottom - height)), width, height);
    }
}

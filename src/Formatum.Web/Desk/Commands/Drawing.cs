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
internal readonly record struct FrameShape(string? Name, int Sides)
{
    public bool IsText => Name == "text";

    /// <summary>Width to height of one that is drawn even.</summary>
    /// <exception cref="EditRefused">There is no such polygon.</exception>
    public double EvenRatio => Name == "polygon" ? Outlines.RegularRatio(PossibleSides) : 1;

    private int PossibleSides => Sides is >= Outlines.FewestSides and <= Outlines.MostSides ? Sides
        : throw new EditRefused("sides", $"A polygon has {Outlines.FewestSides} to {Outlines.MostSides} sides here.");

    /// <exception cref="EditRefused">There is no such outline.</exception>
    public Outline Outline => Name switch
    {
        null or "rectangle" or "text" => Outline.Rectangle,
        "ellipse" => Outline.Ellipse,
        "polygon" => Outlines.Polygon(PossibleSides),
        _ => throw new EditRefused("outline", $"There is no outline \"{Name}\"."),
    };

    /// <summary>New text takes on the style of the text that was made last.</summary>
    public FrameText? NewText(Publication publication) => !IsText ? null
        : publication.Stories.Values.MaxBy(s => s.FrameIds.Max()) is { } last ? FrameText.EmptyLike(last.Text.Paragraphs[0]) : FrameText.Empty(TextStyle.Usual);
}

/// <summary>Something drawn from corner to corner.</summary>
public abstract record Drawing : Drag
{
    public string? Outline { get; init; }
    public int Sides { get; init; } = 6;

    private protected FrameShape Shape => new(Outline, Sides);

    /// <summary>What was drawn, its corners caught on what is near; with Shift, of the shape's even ratio.</summary>
    protected Snapped Drawn(Ground ground)
    {
        var (from, to) = (From, To);
        if (Scale > 0)
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
            Text = Shape.NewText(ground.Publication),
        }, drawn.Marks, drawn.Words);
    }
}

/// <summary>A frame of half the type area's width in the middle of the page, for who works by keys: of the chosen frame's page, or the first.</summary>
public sealed record DrawHere : Gesture
{
    public string? Outline { get; init; }
    public int Sides { get; init; } = 6;

    public override Edit ToEdit(Ground ground)
    {
        var (publication, pages, shape) = (ground.Publication, ground.Spread.Pages, new FrameShape(Outline, Sides));
        var page = pages.FirstOrDefault(p => FrameIds.Any(id => publication.Frames.GetValueOrDefault(id)?.PageId == p.Page.Id)) ?? pages[0];
        var area = publication.Setup.TypeAreas(page).First();
        double width = area.Width / 2, ratio = Outline == "polygon" ? shape.EvenRatio : shape.IsText ? 2 : 1.5,
            height = Math.Min(width / ratio, area.Height / 2);
        return new MakeFrame
        {
            Page = page.Number,
            Box = new(area.Centre.X - width / 2, area.Centre.Y - height / 2, width, height),
            Outline = shape.Outline,
            Text = shape.NewText(publication),
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

    // Left out, another measure holds; typed and emptied is an error.
    private static double LengthOr(Ground ground, string field, string? text, double otherwise, FieldErrors errors) =>
        text is null ? otherwise : ground.Length(field, text, errors) ?? 0;
}

/// <summary>
/// A picture that gets a frame of its own: at its natural size about the pointer, or in the column or margins under it where that is too large for them;
/// or of the size that was dragged.
/// </summary>
public sealed record SetDownPicture : Drag
{
    public int? Image { get; init; }

    protected override Attempt Attempt(Ground ground)
    {
        var image = ground.Image(Image);
        var natural = image.Picture(ground.Setup.AssumedPpi);
        bool isDragged = (To - From).Length * Math.Max(Scale, 1) >= 4;
        var set = isDragged ? Dragged(ground, natural.NaturalWidth / natural.NaturalHeight) : new(About(ground, natural), []);
        var page = ground.Spread.PageAt(set.Box.Centre);
        return new(new MakeFrame { Page = page.Number, Box = set.Box.Moved(-page.Trim.X, -page.Trim.Y), ImageId = image.Id }, set.Marks, set.Words);
    }

    private Snapped Dragged(Ground ground, double ratio)
    {
        if (Scale <= 0) return new(Drawn(From, To, ratio), []);
        var snapping = new Snapping(ground.Publication, ground.Spread, new HashSet<int>());
        return snapping.LyingOn(Drawn(snapping.Point(From, Reach), snapping.Point(To, Reach), ratio));
    }

    private Box Drawn(Vec from, Vec to, double ratio)
    {
        var drawn = Dragging.Drawn(from, to, false);
        if (WithPicture) return drawn;
        double width = Math.Max(drawn.Width, drawn.Height * ratio), height = width / ratio;
        return new(to.X < from.X ? from.X - width : from.X, to.Y < from.Y ? from.Y - height : from.Y, width, height);
    }

    private Box About(Ground ground, in Picture natural)
    {
        var page = ground.Spread.PageAt(From);
        var area = ground.TypeArea(page, From);
        var about = new Box(From.X - natural.NaturalWidth / 2, From.Y - natural.NaturalHeight / 2, natural.NaturalWidth, natural.NaturalHeight);
        if (about.Width <= area.Width && about.Height <= area.Height) return about;
        var room = ground.Columns(page).Where(c => From.X >= c.X && From.X <= c.Right).Append(area).First();
        double scale = Math.Min(room.Width / about.Width, room.Height / about.Height), width = about.Width * scale, height = about.Height * scale;
        return new(room.X + (room.Width - width) / 2, Math.Clamp(From.Y - height / 2, area.Y, Math.Max(area.Y, area.Bottom - height)), width, height);
    }
}

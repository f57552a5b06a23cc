using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;

namespace Formatum.Web.Api;

/// <summary>Outlines that have a name.</summary>
public enum OutlineName { Rectangle, Ellipse, Polygon, Free }

/// <summary>Something that changes a publication.</summary>
public abstract record ChangeBody
{
    /// <summary>The revision last seen: refused where a part it changes was changed since. Left out, the change is meant whatever is there now.</summary>
    public long? Seen { get; init; }
}

public sealed record InsetBody(Length? Top = null, Length? Right = null, Length? Bottom = null, Length? Left = null);

/// <summary>Fitting settings; what is left out stays open.</summary>
public record SettingsBody
{
    public FitKind? Fit { get; init; }

    /// <summary>Horizontal and vertical alignment, 0 to 1.</summary>
    public double[]? Align { get; init; }

    public InsetBody? Inset { get; init; }

    /// <summary>Degrees, clockwise.</summary>
    public double? Rotation { get; init; }

    public bool? FlipX { get; init; }
    public bool? FlipY { get; init; }
    public double? SmallestPpi { get; init; }
    public double? LargestEnlargement { get; init; }
    public LimitAction? Limits { get; init; }

    /// <summary>For fill-or-fit: share of the image, 0 to 1.</summary>
    public double? LargestCrop { get; init; }

    /// <summary>Whether frames keep applying the fit; otherwise they applied it once and hold.</summary>
    public bool? StaysFitted { get; init; }

    /// <exception cref="EditRefused">Something is not shaped as it should be.</exception>
    public FitSettings ToSettings(string prefix = "")
    {
        var align = Pair.From(Align, prefix + "align", "two numbers from 0 to 1, such as [0.5, 0.5]");
        return new()
        {
            Fit = Fit,
            AlignX = align?.X,
            AlignY = align?.Y,
            InsetTop = Inset?.Top?.Points,
            InsetRight = Inset?.Right?.Points,
            InsetBottom = Inset?.Bottom?.Points,
            InsetLeft = Inset?.Left?.Points,
            Rotation = Rotation,
            FlipX = FlipX,
            FlipY = FlipY,
            SmallestPpi = SmallestPpi,
            LargestEnlargement = LargestEnlargement,
            Limits = Limits,
            LargestCrop = LargestCrop,
            StaysFitted = StaysFitted,
        };
    }
}

internal static class Pair
{
    public static Vec? From(double[]? values, string field, string shape)
    {
        if (values is null) return null;
        if (values.Length != 2) throw new EditRefused(field, $"Give {shape}.");
        return new(values[0], values[1]);
    }
}

/// <summary>A hand correction.</summary>
/// <param name="Zoom">Multiplies the scale the rule gives; 1 where left out.</param>
/// <param name="Point">The point of the image, in fractions of it, that is put on the alignment point.</param>
/// <param name="ZoomY">The zoom along the image's vertical axis, where it differs.</param>
/// <param name="Turn">Degrees, clockwise, beyond the rule's rotation.</param>
public sealed record RecropBody(double? Zoom = null, double[]? Point = null, double? ZoomY = null, double? Turn = null)
{
    public Recrop ToRecrop() => new(Zoom ?? 1, Pair.From(Point, "recrop.point", "a point of the image as two fractions, such as [0.5, 0.5]"), ZoomY, Turn ?? 0);
}

public sealed record FitFrameBody
{
    public required Length Width { get; init; }
    public required Length Height { get; init; }
    public OutlineName? Outline { get; init; }
}

public sealed record FitImageBody
{
    public required double WidthPx { get; init; }
    public required double HeightPx { get; init; }

    /// <summary>Stored resolution; 72 where left out.</summary>
    public double? Ppi { get; init; }

    /// <summary>EXIF orientation, 1 to 8.</summary>
    public int? Orientation { get; init; }

    /// <summary>The subject point in fractions of the upright image.</summary>
    public double[]? Subject { get; init; }
}

public sealed record FitRequest
{
    public required FitFrameBody Frame { get; init; }
    public required FitImageBody Image { get; init; }
    public SettingsBody? Rule { get; init; }
    public RecropBody? Recrop { get; init; }
}

/// <summary>Where an image lies in a frame. The matrix maps the image's unit square to frame-local points, in SVG's order.</summary>
public sealed record PlacementAnswer(FitKind Applied, double[] Matrix, double[] Scale, double[] EffectivePpi, double CropLoss, double BareArea, string[] Flags)
{
    public static PlacementAnswer Of(Fitted fitted)
    {
        var (p, c) = fitted;
        var m = p.Matrix;
        return new(p.Applied, [m.A, m.B, m.C, m.D, m.E, m.F], [p.ScaleX, p.ScaleY], [c.PpiX, c.PpiY], c.CropLoss, c.BareArea, FlagNames(p.Flags));
    }

    private static string[] FlagNames(FitFlags flags) =>
        [.. Enum.GetValues<FitFlags>().Where(f => f != FitFlags.None
            && flags.HasFlag(f)).Select(f => System.Text.Json.JsonNamingPolicy.KebabCaseLower.ConvertName(f.ToString()))];
}

public sealed record PageBody(string? Size = null, Length? Width = null, Length? Height = null);

public sealed record MarginsBody(Length? Top = null, Length? Bottom = null, Length? Inside = null, Length? Outside = null);

public sealed record ColumnsBody(int? Count = null, Length? Gutter = null);

/// <summary>The baseline grid: from line to line, and where it begins below the trim's upper edge.</summary>
public sealed record BaselineBody(Length? Step = null, Length? Start = null);

/// <summary>How sheets are folded into panels.</summary>
public sealed record FoldingBody(FoldKind Kind, int? Panels = null, Length? Narrower = null)
{
    public Folding ToFolding()
    {
        var usual = new Folding { Kind = Kind };
        return usual with { Panels = Panels ?? usual.Panels, Narrower = Narrower?.Points ?? usual.Narrower };
    }
}

public sealed record PublicationBody
{
    public required string Name { get; init; }
    public string? Edition { get; init; }

    /// <summary>A named size, or width and height.</summary>
    public PageBody? Page { get; init; }

    public bool? Facing { get; init; }

    /// <summary>Whether it is bound on the right and read from right to left.</summary>
    public bool? BindsRight { get; init; }

    /// <summary>The number that the first page bears; 1 where left out.</summary>
    public int? FirstFolio { get; init; }

    public int? Pages { get; init; }

    /// <summary>The publication, such as the house's library, whose house style it begins with.</summary>
    public int? HouseFrom { get; init; }

    public Length? Bleed { get; init; }
    public MarginsBody? Margins { get; init; }
    public ColumnsBody? Columns { get; init; }
    public BaselineBody? Baseline { get; init; }
    public FoldingBody? Folding { get; init; }
    public LengthUnit? Unit { get; init; }
    public double? AssumedPpi { get; init; }

    /// <summary>A set-up with what was left out at its usual value: A4, single pages, 3 mm bleed, margins of 15 mm, one column.</summary>
    /// <exception cref="EditRefused">The page has no size that could be meant.</exception>
    public Setup ToSetup()
    {
        double width, height;
        if (Page?.Size is { } size)
        {
            var paper = PaperSize.Named(size) ?? throw new EditRefused("page.size",
                $"There is no page size \"{size}\". Known are {string.Join(", ", PaperSize.All.Select(s => s.Name))}; or give width and height.");
            (width, height) = (paper.Width, paper.Height);
        }
        else if (Page is null)
        {
            (width, height) = (PaperSize.Named("A4")!.Width, PaperSize.Named("A4")!.Height);
        }
        else
        {
            width = Page.Width?.Points ?? throw new EditRefused("page.width", "Give the page a size by name, or a width and a height.");
            height = Page.Height?.Points ?? throw new EditRefused("page.height", "Give the page a size by name, or a width and a height.");
        }
        double usual = Math.Min(Units.Millimetres(15), Math.Min(width, height) / 10);
        return new()
        {
            Name = Name?.Trim() ?? "",
            Edition = Edition?.Trim() ?? "",
            PageWidth = width,
            PageHeight = height,
            Facing = Facing ?? false,
            BindsRight = BindsRight ?? false,
            FirstFolio = FirstFolio ?? 1,
            Bleed = Bleed?.Points ?? Units.Millimetres(3),
            Margins = new(Margins?.Top?.Points ?? usual, Margins?.Bottom?.Points ?? usual, Margins?.Inside?.Points ?? usual, Margins?.Outside?.Points ?? usual),
            Columns = new(Columns?.Count ?? 1, Columns?.Gutter?.Points ?? Units.Millimetres(4)),
            Folding = Folding?.ToFolding(),
            BaselineStep = Baseline?.Step?.Points ?? 0,
            BaselineStart = Baseline?.Start?.Points ?? 0,
            Unit = Unit ?? LengthUnit.Millimetre,
            AssumedPpi = AssumedPpi ?? 72,
        };
    }
}

public sealed record RuleBody : SettingsBody
{
    /// <summary>The revision last seen: refused where the rule was changed since.</summary>
    public long? Seen { get; init; }

    public required string Name { get; init; }
    public string? Description { get; init; }
    public int? BasedOnId { get; init; }

    /// <summary>The look its frames usually take.</summary>
    public int? LookId { get; init; }
}

/// <summary>What a frame holds.</summary>
public enum FrameKind { Image, Text }

public sealed record NewFrameBody : ChangeBody
{
    public required int Page { get; init; }
    public required Length X { get; init; }
    public required Length Y { get; init; }
    public required Length Width { get; init; }
    public required Length Height { get; init; }
    public OutlineName? Outline { get; init; }

    /// <summary>For a polygon: how many sides; 6 where left out.</summary>
    public int? Sides { get; init; }

    /// <summary>How far it is turned about its middle, in degrees clockwise.</summary>
    public double? Angle { get; init; }

    public string? Name { get; init; }
    public int? RuleId { get; init; }

    /// <summary>The named look.</summary>
    public int? LookId { get; init; }
    public int? ImageId { get; init; }

    /// <summary>What it is to hold; a picture where left out and no text is given.</summary>
    public FrameKind? Kind { get; init; }

    /// <summary>For a text frame; it then holds no image.</summary>
    public TextBody? Text { get; init; }

    /// <summary>For a text frame: where in it the text is set.</summary>
    public TextColumnsBody? Columns { get; init; }

    /// <summary>How text of other frames keeps clear of it.</summary>
    public WrapBody? Wrap { get; init; }

    /// <summary>Settings set on the frame itself.</summary>
    public SettingsBody? Set { get; init; }

    public LookBody? Look { get; init; }
}

/// <summary>Distances from four edges; what is left out stays, and is 0 at first.</summary>
public sealed record DistancesBody
{
    public Length? Top { get; init; }
    public Length? Right { get; init; }
    public Length? Bottom { get; init; }
    public Length? Left { get; init; }

    public InsetChange ToChange() => new() { Top = Top?.Points, Right = Right?.Points, Bottom = Bottom?.Points, Left = Left?.Points };
}

/// <summary>Where in its frame a text is set. What is left out stays; at first that is one column from the top, 12 pt between columns.</summary>
public sealed record TextColumnsBody
{
    public int? Count { get; init; }
    public Length? Gutter { get; init; }
    public DistancesBody? Inset { get; init; }
    public VerticalPlace? Vertical { get; init; }

    /// <summary>Whether it runs on over what other text keeps clear of.</summary>
    public bool? IgnoresWrap { get; init; }

    /// <summary>Whether the columns come out equally long where the text ends in them.</summary>
    public bool? Balanced { get; init; }

    /// <summary>Whether, from a master, the text of each page runs on into the frame of that name on the next.</summary>
    public bool? RunsOn { get; init; }

    public TextAreaChange ToChange() => new()
    {
        Columns = Count,
        Gutter = Gutter?.Points,
        Inset = Inset?.ToChange(),
        Vertical = Vertical,
        IgnoresWrap = IgnoresWrap,
        Balanced = Balanced,
        RunsOn = RunsOn,
    };
}

/// <summary>How text keeps clear of a frame. What is left out stays; at first that is not at all, on both sides.</summary>
public sealed record WrapBody
{
    public WrapAround? Around { get; init; }
    public DistancesBody? Distance { get; init; }
    public WrapSides? Sides { get; init; }

    public WrapChange ToChange() => new() { Around = Around, Distance = Distance?.ToChange(), Sides = Sides };
}

/// <summary>How a frame looks. What is left out is plain: no border, no background, no shadow, opacity 1.</summary>
public sealed record LookBody
{
    public BorderBody? Border { get; init; }
    public CornersBody? Corners { get; init; }

    /// <summary>What it is filled with beneath its picture or text.</summary>
    public ColourBody? Background { get; init; }

    /// <summary>0 to 1.</summary>
    public double? Opacity { get; init; }

    /// <summary>Of the picture alone, 0 to 1.</summary>
    public double? PictureOpacity { get; init; }

    /// <summary>Of the background alone, 0 to 1.</summary>
    public double? BackgroundOpacity { get; init; }

    /// <summary>How the frame is mixed with what lies beneath: the names of Compositing and Blending 1.</summary>
    public Blend? Blend { get; init; }

    public ShadowBody? Shadow { get; init; }

    /// <summary>A shadow that the outline throws on what is within it.</summary>
    public ShadowBody? InnerShadow { get; init; }

    /// <summary>How wide picture and background fade out along the outline, inwards.</summary>
    public Length? SoftEdge { get; init; }

    public TreatmentBody? Treatment { get; init; }

    /// <summary>How text of other frames keeps clear of it; what is set about that on a frame itself stands over this.</summary>
    public WrapBody? Wrap { get; init; }

    public Look ToLook(Publication publication) => new()
    {
        Border = Border?.ToBorder(publication),
        Corners = Corners?.ToCorners(),
        Background = Background?.In(publication, "look.background"),
        Opacity = Opacity ?? 1,
        PictureOpacity = PictureOpacity ?? 1,
        BackgroundOpacity = BackgroundOpacity ?? 1,
        Blend = Blend ?? Core.Publications.Blend.Normal,
        Treatment = Treatment?.ToTreatment(publication) is { } treatment && treatment != Core.Publications.Treatment.None ? treatment : null,
        Shadow = Shadow?.ToShadow(publication, "look.shadow"),
        InnerShadow = InnerShadow?.ToShadow(publication, "look.innerShadow"),
        SoftEdge = SoftEdge?.Points ?? 0,
        Wrap = Wrap?.ToChange().On(Core.Stories.Wrap.Off, Core.Stories.Wrap.Off) ?? Core.Stories.Wrap.Off,
    };
}

/// <summary>The outline's shadow: how far it falls across and down the page, how far its edge is softened, its colour and its strength from 0 to 1. What is
/// left out is usual: 1 mm, 1 mm, 2 mm, black, 0.35.</summary>
public sealed record ShadowBody
{
    public Length? Across { get; init; }
    public Length? Down { get; init; }
    public Length? Blur { get; init; }
    public ColourBody? Colour { get; init; }
    public double? Strength { get; init; }

    public Shadow ToShadow(Publication publication, string field)
    {
        var usual = Shadow.Usual;
        return new(Across?.Points ?? usual.Across, Down?.Points ?? usual.Down, Blur?.Points ?? usual.Blur,
            Colour?.In(publication, $"{field}.colour") ?? usual.Colour, Strength ?? usual.Strength);
    }
}

public sealed record FrameChangeBody : ChangeBody
{
    public int? Page { get; init; }
    public Length? X { get; init; }
    public Length? Y { get; init; }
    public Length? Width { get; init; }
    public Length? Height { get; init; }
    public OutlineName? Outline { get; init; }

    /// <summary>For a polygon: how many sides; 6 where left out.</summary>
    public int? Sides { get; init; }

    /// <summary>How far it is turned about its middle, in degrees clockwise.</summary>
    public double? Angle { get; init; }

    public bool? Locked { get; init; }
    public bool? Hidden { get; init; }
    public string? Name { get; init; }
    public Optional<int?> RuleId { get; init; }

    /// <summary>The named look; null for none.</summary>
    public Optional<int?> LookId { get; init; }

    public Optional<int?> ImageId { get; init; }

    /// <summary>Another look in place of the one it has.</summary>
    /// <summary>For a text frame: where in it the text is set.</summary>
    public TextColumnsBody? Columns { get; init; }

    /// <summary>How text of other frames keeps clear of it.</summary>
    public WrapBody? Wrap { get; init; }

    public LookBody? Look { get; init; }

    /// <summary>Another text for a text frame.</summary>
    public TextBody? Text { get; init; }

    public SettingsBody? Set { get; init; }

    /// <summary>Clears what was set on the frame before, so that it is inherited again.</summary>
    public bool? ClearSet { get; init; }

    /// <summary>Clears these of the settings set on the frame before.</summary>
    public FitSetting[]? Clear { get; init; }

    /// <summary>Applies the fit anew to a frame that does not stay fitted.</summary>
    public bool? FitOnce { get; init; }

    public RecropBody? Recrop { get; init; }
}

/// <summary>Which frames a rule is put on: some by id, or those of a page or of the whole publication.</summary>
public sealed record PutRuleBody : ChangeBody
{
    /// <summary>Frames by id; left out for all of the page or the publication.</summary>
    public int[]? FrameIds { get; init; }

    /// <summary>A page by its number, below 0 for one of a master; left out for the whole publication.</summary>
    public int? Page { get; init; }

    /// <summary>Empty placeholders, filled frames, or all, which is usual.</summary>
    public FrameFilling? Which { get; init; }
}

public sealed record DefaultRuleBody : ChangeBody
{
    /// <summary>The rule; null for the built-in settings alone.</summary>
    public required int? RuleId { get; init; }
}

public sealed record SubjectBody : ChangeBody
{
    /// <summary>The subject point in fractions of the upright image; null for none.</summary>
    public required double[]? Subject { get; init; }
}

public sealed record FolderBody
{
    /// <summary>A folder on the server, below one of those opened to linking.</summary>
    public required string Folder { get; init; }

    /// <summary>Whether the pictures of the folders in it are linked too.</summary>
    public bool? Within { get; init; }
}

public sealed record NewPagesBody : ChangeBody
{
    public required int Count { get; init; }

    /// <summary>The master they are based on; none where left out.</summary>
    public int? MasterId { get; init; }

    /// <summary>The number that the first of them takes; at the end where left out.</summary>
    public int? Before { get; init; }
}

/// <summary>Pages by their numbers.</summary>
public sealed record PagesBody : ChangeBody
{
    public required int[] Pages { get; init; }

    /// <summary>For moving and copying: the page before which they go, by its number; the end where left out.</summary>
    public int? Before { get; init; }
}

public sealed record MasterBody : ChangeBody
{
    public required string Name { get; init; }

    /// <summary>A page, or the two of a spread, by number, to make it like; left out for a blank master.</summary>
    public int[]? LikePages { get; init; }

    /// <summary>Whether those pages are then based on it.</summary>
    public bool BaseThem { get; init; }
}

public sealed record RenameMasterBody : ChangeBody
{
    public required string Name { get; init; }
}

public sealed record BasePagesBody : ChangeBody
{
    /// <summary>Pages by their numbers.</summary>
    public required int[] Pages { get; init; }

    /// <summary>The master; null for none.</summary>
    public required int? MasterId { get; init; }
}

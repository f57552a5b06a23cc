using Formatum.Core.Composing;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Storage;

namespace Formatum.Web.Api;

public sealed record CreatedAnswer(int Id);

public sealed record ListedAnswer(int Id, string Name, DateTimeOffset Changed, bool PutAway, bool Library);

public sealed record PageSetupAnswer(string? Size, double Width, double Height);

/// <summary>A page: where it stands, the number it bears, its spread.</summary>
public sealed record PageAnswer(int Id, int Number, int Folio, int Spread, bool Recto, int? MasterId);

/// <summary>A master, and the numbers below 0 that its pages are called by. Single pages go by the right-hand one.</summary>
public sealed record MasterAnswer(int Id, string Name, int LeftPage, int RightPage)
{
    public static MasterAnswer Of(Publication publication, MasterPage master) => new(master.Id, master.Name, publication.NumberOf(master.VersoId),
        publication.NumberOf(master.RectoId));
}

public sealed record InsetAnswer(double? Top, double? Right, double? Bottom, double? Left);

/// <summary>Fitting settings; null where open.</summary>
public record SettingsAnswer(
    FitKind? Fit, double?[]? Align, InsetAnswer? Inset, double? Rotation, bool? FlipX, bool? FlipY, double? SmallestPpi, double? LargestEnlargement,
    LimitAction? Limits, double? LargestCrop, bool? StaysFitted)
{
    public static SettingsAnswer Of(FitSettings s) => new(
        s.Fit, s.AlignX is null && s.AlignY is null ? null : [s.AlignX, s.AlignY],
        s.InsetTop is null && s.InsetRight is null && s.InsetBottom is null && s.InsetLeft is null ? null
            : new(s.InsetTop, s.InsetRight, s.InsetBottom, s.InsetLeft),
        s.Rotation, s.FlipX, s.FlipY, s.SmallestPpi, s.LargestEnlargement, s.Limits, s.LargestCrop, s.StaysFitted);
}

public sealed record RuleAnswer(
    int Id, string Name, string Description, int? BasedOnId, int? LookId, FitKind? Fit,
    double?[]? Align, InsetAnswer? Inset, double? Rotation, bool? FlipX, bool? FlipY,
    double? SmallestPpi, double? LargestEnlargement, LimitAction? Limits, double? LargestCrop, bool? StaysFitted)
    : SettingsAnswer(Fit, Align, Inset, Rotation, FlipX, FlipY, SmallestPpi, LargestEnlargement, Limits, LargestCrop, StaysFitted)
{
    public static RuleAnswer Of(FittingRule rule)
    {
        var s = SettingsAnswer.Of(rule.Settings);
        return new(rule.Id, rule.Name, rule.Description, rule.BasedOnId, rule.LookId, s.Fit, s.Align, s.Inset, s.Rotation, s.FlipX, s.FlipY, s.SmallestPpi,
            s.LargestEnlargement, s.Limits, s.LargestCrop, s.StaysFitted);
    }
}

public sealed record RecropAnswer(double Zoom, double[]? Point, double? ZoomY, double Turn);

/// <summary>A frame that a change would touch, or touched: its numbers before and after, and how much worse it gets.</summary>
public sealed record TouchedAnswer(int FrameId, string Name, int Page, PlacementAnswer Before, PlacementAnswer After, double Worse);

/// <summary>What a change would do: the frames it touches, those that get worse first, and how many empty placeholders.</summary>
public sealed record ImpactAnswer(TouchedAnswer[] Frames, int Placeholders, int Worsened)
{
    public static ImpactAnswer Of(Impact impact, Publication after) => new(
        [.. impact.Frames.Select(f => new TouchedAnswer(f.After.Id, f.After.Label, after.NumberOf(f.After.PageId), PlacementAnswer.Of(f.Was),
            PlacementAnswer.Of(f.Will), f.Worse))],
        impact.Placeholders, impact.Worsened);
}

/// <summary>A frame; x and y in points from the upper left of its page's trim.</summary>
public sealed record FrameAnswer(
    int Id, string Name, int Page, double X, double Y, double Width, double Height, double Angle, OutlineName Outline, bool Locked, bool Hidden, int? GroupId,
        int? RuleId, int? LookId, int? ImageId, int? MasterFrameId, SettingsAnswer Set,
    RecropAnswer Recrop, LookAnswer Look, PlacementAnswer? Placement, TextAnswer? Text, ColumnsAnswer? Columns, WrapAnswer Wrap)
{
    public static FrameAnswer Of(Publication publication, Frame frame) => new(
        frame.Id, frame.Name, publication.NumberOf(frame.PageId), frame.Box.X, frame.Box.Y, frame.Box.Width, frame.Box.Height, frame.Angle,
        frame.Outline switch
        {
            EllipseOutline => OutlineName.Ellipse,
            PolygonOutline => OutlineName.Polygon,
            PathOutline => OutlineName.Free,
            _ => OutlineName.Rectangle
        },
        frame.Locked, frame.Hidden, frame.GroupId, frame.RuleId, frame.LookId, frame.ImageId, frame.MasterFrameId, SettingsAnswer.Of(frame.Own),
        new(frame.Recrop.Zoom, frame.Recrop.Point is { } p ? [p.X, p.Y] : null, frame.Recrop.ZoomY, frame.Recrop.Turn), LookAnswer.Of(publication, frame),
        publication.FittedOf(frame) is { } fitted ? PlacementAnswer.Of(fitted) : null,
        publication.StoryOf(frame) is { } story ? TextAnswer.Of(publication, frame, story) : null, frame.IsText
            ? ColumnsAnswer.Of(frame.Area ?? TextArea.Whole) : null,
        WrapAnswer.Of(publication.WrapOf(frame)));
}

/// <summary>Where in its frame a text is set; lengths in points.</summary>
public sealed record ColumnsAnswer(int Count, double Gutter, Inset Inset, VerticalPlace Vertical, bool IgnoresWrap, bool Balanced, bool RunsOn)
{
    public static ColumnsAnswer Of(TextArea area) => new(area.Columns, area.Gutter, area.Inset, area.Vertical, area.IgnoresWrap, area.Balanced,
        area.RunsOn);
}

/// <summary>How text keeps clear of a frame; lengths in points.</summary>
public sealed record WrapAnswer(WrapAround Around, Inset Distance, WrapSides Sides)
{
    public static WrapAnswer Of(Wrap wrap) => new(wrap.Around, wrap.Distance, wrap.Sides);
}

/// <summary>How a frame looks; lengths in points.</summary>
public sealed record LookAnswer(BorderAnswer? Border, CornersAnswer? Corners, object? Background, double Opacity, double PictureOpacity,
    double BackgroundOpacity, Blend Blend, ShadowAnswer? Shadow, ShadowAnswer? InnerShadow, double SoftEdge,
    TreatmentAnswer? Treatment, WrapAnswer Wrap,
    string[]? Set = null)
{
    /// <summary>How a frame looks, and which parts of it were set on the frame itself.</summary>
    public static LookAnswer Of(Publication publication, Frame frame) => Of(publication, publication.LookOf(frame)) with { Set = SetIn(frame.Look) };

    public static string[] SetIn(LookSettings settings) => [.. LookSettings.All.Where(s => s.IsSet(settings)).Select(s => s.Path)];

    public static LookAnswer Of(Publication publication, Look look) => new(
        BorderAnswer.Of(publication, look.Border), CornersAnswer.Of(look.Corners),
        look.Background is { } background ? ColourBody.Answer(publication, background) : null, look.Opacity,
        look.PictureOpacity, look.BackgroundOpacity, look.Blend,
        ShadowAnswer.Of(publication, look.Shadow), ShadowAnswer.Of(publication, look.InnerShadow), look.SoftEdge,
        TreatmentAnswer.Of(publication, look.Treatment), WrapAnswer.Of(look.Wrap));
}

public sealed record ShadowAnswer(double Across, double Down, double Blur, object Colour, double Strength)
{
    public static ShadowAnswer? Of(Publication publication, Shadow? shadow) => shadow is { } s
        ? new(s.Across, s.Down, s.Blur, ColourBody.Answer(publication, s.Colour), s.Strength) : null;
}

/// <summary>The pixels as the file stores them, before orientation.</summary>
public sealed record StoredAnswer(int WidthPx, int HeightPx, int Orientation);

/// <summary>An image; pixels are those of the upright picture.</summary>
public sealed record ImageAnswer(int Id, string Name, IReadOnlyList<string> OtherNames, int WidthPx, int HeightPx, double? Ppi, double[]? Subject,
    double[]? SuggestedSubject, StoredAnswer Stored, string Format, string Colour, long Bytes, string ContentHash, string? Title, string? Caption,
    string? Credit)
{
    public static ImageAnswer Of(LinkedImage i) => new(
        i.Id, i.Name, i.OtherNames, i.WidthPx, i.HeightPx, i.StoredPpiX, i.Subject is { } s ? [s.X, s.Y] : null, i.SuggestedSubject is { } g ? [g.X, g.Y]
            : null, new(i.StoredWidthPx, i.StoredHeightPx, i.Orientation), i.Format, i.Colour, i.Bytes, i.ContentHash, i.Title, i.Caption, i.Credit);
}

/// <summary>A file that came in; pixels are those of the upright picture, ppi null where the file stores none.</summary>
public sealed record ArrivedAnswer(string Name, int Id, int WidthPx, int HeightPx, double? Ppi);

/// <summary>A file that did not come in, and why.</summary>
public sealed record NotArrivedAnswer(string Name, string Error)
{
    /// <summary>An entry for each file, in order: one that came in, or one that did not.</summary>
    public static object[] All(IEnumerable<Pictures.Arrival> arrivals) =>
        [.. arrivals.Select<Pictures.Arrival, object>(a => a.Image is { } i ? new ArrivedAnswer(a.Name, i.Id, i.WidthPx, i.HeightPx, i.StoredPpiX)
            : new NotArrivedAnswer(a.Name, a.Error!))];
}

public sealed record PublicationAnswer(
    int Id, string Name, string Edition, long Revision, PageSetupAnswer Page, bool Facing, double Bleed, Margins Margins, Columns Columns, LengthUnit Unit,
        double AssumedPpi, double PrintPpi, double FloorPpi,
    int? DefaultRuleId, PageAnswer[] Pages, MasterAnswer[] Masters, FrameAnswer[] Frames, RuleAnswer[] Rules, ImageAnswer[] Images)
{
    public static PublicationAnswer Of(Standing standing)
    {
        var p = standing.Publication;
        var setup = p.Setup;
        return new(
            standing.Id, setup.Name, setup.Edition, standing.Revision, new(PaperSize.Of(setup.PageWidth, setup.PageHeight)?.Name, setup.PageWidth,
                setup.PageHeight),
            setup.Facing, setup.Bleed, setup.Margins, setup.Columns, setup.Unit, setup.AssumedPpi, setup.PrintPpi, setup.FloorPpi, setup.DefaultRuleId,
            [.. p.Order.Ids.Select((id, i) => new PageAnswer(id, i + 1, setup.FirstFolio + i, Spread.IndexOfPage(p, i + 1) + 1,
                setup.IsRecto(setup.FirstFolio + i), p.Pages[id].MasterId))],
            [.. p.Masters.Values.Select(m => MasterAnswer.Of(p, m))],
            [.. p.Frames.Values.OrderBy(f => p.Order.IndexOf(f.PageId)).ThenBy(f => f.Depth).ThenBy(f => f.Id).Select(f => FrameAnswer.Of(p, f))],
            [.. p.Rules.Values.OrderBy(r => r.Id).Select(RuleAnswer.Of)],
            [.. p.Images.Values.OrderBy(i => i.Id).Select(ImageAnswer.Of)]);
    }
}

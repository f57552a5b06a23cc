using System.Collections.Immutable;
using Formatum.Core.Checking;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;
using Formatum.Storage;

namespace Formatum.Web.Links;

public enum ImageFilter { All, Unplaced, Placed, Changed, Missing, TooCoarse, Found, Portrait, Landscape, Square }

public enum ImageSort { Added, Name, Pixels, Resolution, CropLoss, Uses, State }

/// <summary>A frame that shows an image.</summary>
public sealed record ImageUse(Frame Frame, int Page, string Where, int Spread, Fitted Fitted);

/// <summary>An image with where it is used and how its file stands.</summary>
/// <param name="Image">The image.</param>
/// <param name="State">How its file stands.</param>
/// <param name="Uses">The frames that show it.</param>
/// <param name="InTray">Whether it waits in the tray.</param>
/// <param name="Found">What the check has found on it, or on frames that show it.</param>
public sealed record ImageRow(LinkedImage Image, LinkState State, ImmutableArray<ImageUse> Uses, bool InTray, ImmutableArray<Finding> Found)
{
    /// <summary>The lowest effective resolution, in ppi; null where it is placed nowhere.</summary>
    public double? Ppi => Uses.IsEmpty ? null : Uses.Min(u => u.Fitted.Coverage.Ppi);

    public double? CropLoss => Uses.IsEmpty ? null : Uses.Max(u => u.Fitted.Coverage.CropLoss);
}

/// <summary>What is asked of the list of images.</summary>
public sealed record ImageQuery
{
    /// <summary>Part of the name, title, caption or credit.</summary>
    public string? Q { get; init; }

    public ImageFilter Show { get; init; }
    public ImageSort Sort { get; init; }

    /// <summary>Only images in frames that have this rule; 0 for all.</summary>
    public int Rule { get; init; }

    /// <summary>Only images on this page, by its number; null for all.</summary>
    public int? Page { get; init; }

    public bool Table { get; init; }

    /// <summary>Sides within this of each other, relative, count as square.</summary>
    private const double NearlySquare = 0.02;

    /// <summary>All images of a publication, and those that are asked for.</summary>
    public (ImmutableArray<ImageRow> All, ImmutableArray<ImageRow> Shown) Of(PublicationFindings findings, LinkStates states)
    {
        var publication = findings.Publication;
        var found = FoundOn(findings);
        var uses = publication.Frames.Values.Where(f => f.ImageId is not null).ToLookup(f => f.ImageId!.Value);
        var tray = publication.Tray.ImageIds.ToHashSet();
        ImmutableArray<ImageRow> all = [.. publication.Images.Values.OrderBy(i => i.Id).Select(i => Row(publication, i, uses[i.Id], tray.Contains(i.Id),
            states, found))];
        var shown = all.Where(row => Matches(publication, row));
        return (all, [.. Sort switch
        {
            ImageSort.Name => shown.OrderBy(r => r.Image.Name, StringComparer.OrdinalIgnoreCase),
            ImageSort.Pixels => shown.OrderBy(r => (long)r.Image.WidthPx * r.Image.HeightPx),
            ImageSort.Resolution => shown.OrderBy(r => r.Ppi ?? double.PositiveInfinity),
            ImageSort.CropLoss => shown.OrderByDescending(r => r.CropLoss ?? -1),
            ImageSort.Uses => shown.OrderByDescending(r => r.Uses.Length),
            ImageSort.State => shown.OrderByDescending(r => r.State),
            _ => shown,
        }]);
    }

    /// <summary>One image, without looking at any other.</summary>
    public static ImageRow Row(PublicationFindings findings, LinkedImage image, LinkStates states) => Row(findings.Publication, image,
        findings.Publication.Frames.Values.Where(f => f.ImageId == image.Id), findings.Publication.Tray.ImageIds.Contains(image.Id), states, FoundOn(findings));

    private static ImageRow Row(Publication publication, LinkedImage image, IEnumerable<Frame> frames, bool inTray, LinkStates states,
        ILookup<int, Finding> found) => new(image, states.Of(image),
            [.. frames.Select(f => UseOf(publication, f)).OrderBy(u => u.Page).ThenBy(u => u.Frame.Id)], inTray, [.. found[image.Id]]);

    /// <summary>What was found on each image: on the image itself, or on a frame that shows it.</summary>
    private static ILookup<int, Finding> FoundOn(PublicationFindings findings)
    {
        int? ImageOf(Finding finding) => finding.Part.Kind == PartKind.Image ? finding.Part.Id
            : finding.Part.Kind == PartKind.Frame ? findings.Publication.Frames.GetValueOrDefault(finding.Part.Id)?.ImageId : null;
        return findings.Open.Select(f => (Finding: f, Image: ImageOf(f))).Where(f => f.Image is not null).ToLookup(f => f.Image!.Value, f => f.Finding);
    }

    private static ImageUse UseOf(Publication publication, Frame frame)
    {
        return new(frame, publication.NumberOf(frame.PageId), publication.WordsOf(frame.PageId), Spread.NumberOfPage(publication, frame.PageId),
            publication.FittedOf(frame)!.Value);
    }

    /// <summary>Whether every word that is searched for stands somewhere in what is known of an image, its other names among it.</summary>
    private bool Says(LinkedImage image)
    {
        string[] words = (Q ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        if (words.Length == 0) return true;
        string said = string.Join('\n', new[] { image.Name, image.Title, image.Caption, image.Credit }.Concat(image.OtherNames));
        return words.All(word => said.Contains(word, StringComparison.OrdinalIgnoreCase));
    }

    private bool Matches(Publication publication, ImageRow row)
    {
        var image = row.Image;
        double ratio = (double)image.WidthPx / image.HeightPx;
        bool square = Math.Abs(ratio - 1) <= NearlySquare;
        if (!Says(image)) return false;
        if (Rule > 0 && !row.Uses.Any(u => u.Frame.RuleId == Rule)) return false;
        if (Page is { } page && !row.Uses.Any(u => u.Page == page)) return false;
        return Show switch
        {
            ImageFilter.Unplaced => row.Uses.IsEmpty,
            ImageFilter.Placed => !row.Uses.IsEmpty,
            ImageFilter.Changed => row.State == LinkState.Changed,
            ImageFilter.Missing => row.State == LinkState.Missing,
            ImageFilter.TooCoarse => row.Found.Any(f => f.Kind == FindingKind.BelowLeastPpi),
            ImageFilter.Found => !row.Found.IsEmpty,
            ImageFilter.Portrait => ratio < 1 && !square,
            ImageFilter.Landscape => ratio > 1 && !square,
            ImageFilter.Square => square,
            _ => true,
        };
    }
}

/// <summary>The images that are shown, out of all.</summary>
public sealed record ImageListView(Standing Standing, Publication Publication, ImageQuery Query, ImmutableArray<ImageRow> All, ImmutableArray<ImageRow> Shown)
{
    public static ImageListView Of(Standing standing, PublicationFindings findings, ImageQuery query, LinkStates states)
    {
        var (all, shown) = query.Of(findings, states);
        return new(standing, standing.Publication, query, all, shown);
    }
}

/// <summary>One image with all that is known of it.</summary>
/// <param name="PublicationId">Its publication's id.</param>
/// <param name="Publication">Its publication.</param>
/// <param name="Row">The image.</param>
/// <param name="LinkedWhereItLies">Whether its file is somebody else's, in an open folder, rather than kept by this program.</param>
public sealed record ImageCardView(int PublicationId, Publication Publication, ImageRow Row, bool LinkedWhereItLies);

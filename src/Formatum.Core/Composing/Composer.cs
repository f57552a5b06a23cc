using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Composing;

/// <summary>Makes the display list of a spread.</summary>
public static class Composer
{
    /// <summary>All that prints on a spread: what its masters say beneath, and its own frames above.</summary>
    public static Scene Compose(Publication publication, Spread spread, ITypefaces typefaces) =>
        new(spread.Trim, [.. FromMasters(publication, spread, typefaces), .. spread.FramesOf(publication).Where(f => !f.Frame.Hidden)
            .Select(f => Compose(publication, f.Frame, f.Box, typefaces))]);

    /// <summary>What the masters of a spread's pages have printed on it, the same on every page, from the lowest to the topmost.</summary>
    public static IEnumerable<SceneFrame> FromMasters(Publication publication, Spread spread, ITypefaces typefaces) =>
        from placed in spread.Pages
        let master = publication.MasterPageOf(placed.Page.Id)
        where master is not null
        from frame in publication.FramesOnPage(master.Value).OrderBy(f => f.Depth).ThenBy(f => f.Id)
        where !frame.Hidden && !publication.IsEmpty(frame)
        select Compose(publication, frame, frame.Box.Moved(placed.Trim.X, placed.Trim.Y), typefaces, placed.Page.Id);

    /// <summary>The images of which something shows on a part of a spread, without setting any text.</summary>
    /// <param name="publication">The publication.</param>
    /// <param name="spread">The spread.</param>
    /// <param name="within">The part, in the spread's points.</param>
    public static IEnumerable<LinkedImage> ImagesOn(Publication publication, Spread spread, Box within)
    {
        return WithImages(publication, spread).Where(f => new Pose(f.Box, f.Frame.Angle).Bounds.Intersect(within) is { Width: > 0, Height: > 0 })
            .Select(f => publication.ImageOf(f.Frame)).OfType<LinkedImage>();
    }

    /// <summary>The images of a spread, each time it is shown, and from its unit square to the frame's points, without setting any text.</summary>
    public static IEnumerable<(LinkedImage Image, Affine Map)> ShowingsOn(Publication publication, Spread spread) =>
        from shown in WithImages(publication, spread)
        let placement = publication.PlacementOf(shown.Frame)
        where placement is not null
        select (publication.Images[shown.Frame.ImageId!.Value], placement.Value.Matrix);

    private static IEnumerable<(Frame Frame, Box Box)> WithImages(Publication publication, Spread spread)
    {
        var masters = from placed in spread.Pages
                      let master = publication.MasterPageOf(placed.Page.Id)
                      where master is not null
                      from frame in publication.FramesOnPage(master.Value)
                      select (Frame: frame, Box: frame.Box.Moved(placed.Trim.X, placed.Trim.Y));
        return masters.Concat(spread.FramesOf(publication).Select(f => (f.Frame, f.Box))).Where(f => !f.Frame.Hidden && f.Frame.ImageId is not null);
    }

    /// <param name="publication">The publication.</param>
    /// <param name="frame">The frame.</param>
    /// <param name="box">Its box in the spread's points.</param>
    /// <param name="typefaces">The fonts to set its text in.</param>
    /// <param name="onPage">The page it is shown on; null for the one it keeps to.</param>
    public static SceneFrame Compose(Publication publication, Frame frame, Box box, ITypefaces typefaces, int? onPage = null)
    {
        var look = publication.LookOf(frame).Recoloured(publication.ColourOf);
        var image = publication.PlacementOf(frame) is { } placement
            ? new SceneImage(publication.Images[frame.ImageId!.Value], placement.Matrix, look.Treatment is { Works: true } treatment ? treatment : null)
            : null;
        return new(frame.Id, new Pose(box, frame.Angle).ToPage, box.Width, box.Height, frame.Outline.With(look.Corners), image,
            Composition.TextOf(publication, frame, typefaces, onPage),
            look);
    }
}

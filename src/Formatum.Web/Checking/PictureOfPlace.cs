using System.Globalization;
using System.Text;
using Formatum.Core.Checking;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output;
using Formatum.Web.Links;

namespace Formatum.Web.Checking;

/// <summary>The place of a finding drawn with what lies around it, and marked.</summary>
public static class PictureOfPlace
{
    /// <summary>How much of its surroundings is shown, as a share of its longer side and at least in points.</summary>
    private const double Around = 0.18, LeastAround = 30;

    /// <param name="publication">The publication.</param>
    /// <param name="place">The place.</param>
    /// <param name="idPrefix">Sets its element ids apart from others in the same document.</param>
    /// <param name="like">A box of the page to show instead of the place's own, so that two pictures can be compared; null for its own.</param>
    /// <returns>The picture; nothing where its page has gone.</returns>
    public static string Draw(Publication publication, FindingPlace place, string idPrefix, Box? like = null)
    {
        if (!publication.Pages.ContainsKey(place.PageId)) return "";
        var spread = Spread.At(publication, Spread.IndexOfPage(publication, publication.NumberOf(place.PageId)));
        var page = spread.Pages.First(p => p.Page.Id == place.PageId);
        var shown = Seen(like ?? place.Box);
        return Draw(publication, spread, page, shown, [place.Box], idPrefix);
    }

    /// <summary>A whole page, with boxes marked on it.</summary>
    /// <returns>The picture; nothing where there is no such page.</returns>
    public static string Page(Publication publication, int pageId, IEnumerable<Box> marks, string idPrefix)
    {
        if (!publication.Pages.ContainsKey(pageId)) return "";
        var spread = Spread.At(publication, Spread.IndexOfPage(publication, publication.NumberOf(pageId)));
        var page = spread.Pages.First(p => p.Page.Id == pageId);
        return Draw(publication, spread, page, new(0, 0, page.Trim.Width, page.Trim.Height), marks, idPrefix);
    }

    private static string Draw(Publication publication, Spread spread, PlacedPage page, Box part, IEnumerable<Box> marks, string idPrefix)
    {
        var shown = part.Moved(page.Trim.X, page.Trim.Y);
        var svg = new StringBuilder();
        svg.Append(CultureInfo.InvariantCulture, $"<svg class=\"place-picture\" hx-disable viewBox=\"{N(shown.X)} {N(shown.Y)} {N(shown.Width)} ")
            .Append(CultureInfo.InvariantCulture, $"{N(shown.Height)}\" aria-hidden=\"true\">");
        Rect(svg, spread.Trim.Grown(publication.Setup.Bleed), "place-bleed");
        foreach (var trim in spread.Pages) Rect(svg, trim.Trim, "place-page");
        foreach (var scene in Scenes(publication, spread, shown))
        {
            svg.Append(CultureInfo.InvariantCulture, $"<g transform=\"{SvgWriter.Matrix(scene.ToSpread)}\">");
            if (!scene.Prints) SvgWriter.Shape(svg, scene.Outline, scene.Width, scene.Height, " class=\"place-empty\"");
            SvgWriter.Content(svg, scene, idPrefix, image => Previews.Smallest(image, publication.Setup));
            svg.Append("</g>");
        }
        foreach (var trim in spread.Pages) Rect(svg, trim.Trim, "place-trim");
        foreach (var mark in marks) Rect(svg, mark.Moved(page.Trim.X, page.Trim.Y), "place-mark");
        return svg.Append("</svg>").ToString();
    }

    /// <summary>A box of a page with its surroundings.</summary>
    private static Box Seen(Box box) => box.Grown(Math.Max(LeastAround, Around * Math.Max(box.Width, box.Height)));

    private static IEnumerable<SceneFrame> Scenes(Publication publication, Spread spread, Box shown) =>
        Composer.FromMasters(publication, spread, Typefaces.All).Concat(spread.FramesOf(publication)
            .Where(f => !f.Frame.Hidden && new Pose(f.Box, f.Frame.Angle).Bounds.Intersect(shown) is { Width: > 0, Height: > 0 })
            .Select(f => Composer.Compose(publication, f.Frame, f.Box, Typefaces.All)));

    private static void Rect(StringBuilder svg, Box box, string kind) => svg.Append(CultureInfo.InvariantCulture,
        $"<rect class=\"{kind}\" x=\"{N(box.X)}\" y=\"{N(box.Y)}\" width=\"{N(box.Width)}\" height=\"{N(box.Height)}\"/>");

    private static string N(double value) => SvgWriter.Number(value);
}

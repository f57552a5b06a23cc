using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Output.Pdf;

/// <summary>What leads on from a sheet (ISO 32000-1, 12.5.6.5).</summary>
internal sealed class PdfLinks(PdfFile file, Publication publication)
{
    /// <summary>The annotations of a sheet.</summary>
    /// <param name="frames">What it shows.</param>
    /// <param name="toSheet">From the spread's points to the sheet's.</param>
    /// <param name="pageOf">The object of the sheet that shows a page, by its place in the publication from 0; 0 where none does.</param>
    public IEnumerable<int> Of(IEnumerable<SceneFrame> frames, Affine toSheet, Func<int, int> pageOf)
    {
        foreach (var link in SceneLinks.Of(publication, frames))
        {
            var map = toSheet.After(link.Frame.ToSpread);
            if (link.Address is { } address) yield return Add(map, link, $"/A<</S/URI/URI {PdfSyntax.Text(address)}>>");
            else if (pageOf(link.PageIndex) is > 0 and var page) yield return Add(map, link, $"/Dest[{PdfSyntax.Reference(page)} /Fit]");
        }
    }

    private int Add(Affine map, SceneLink link, string target)
    {
        var place = map.BoundsOf(link.Place);
        return file.Add($"<</Type/Annot/Subtype/Link/Rect{PdfSyntax.Rectangle(place)}/Border[0 0 0]/F 4" +
            $"/Contents {PdfSyntax.Text(link.Words)}{target}>>");
    }
}

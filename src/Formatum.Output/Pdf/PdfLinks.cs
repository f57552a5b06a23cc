using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Output.Pdf;

/// <summary>What leads on from a sheet, and its annotation (ISO 32000-1, 12.5.6.5).</summary>
/// <param name="Link">What leads on.</param>
/// <param name="Target">Where to, as the annotation says.</param>
/// <param name="Number">The object of the annotation.</param>
internal sealed record PdfLink(SceneLink Link, string Target, int Number);

/// <summary>The links of a file.</summary>
internal sealed class PdfLinks(PdfFile file, Publication publication)
{
    /// <summary>What leads on from a sheet.</summary>
    /// <param name="frames">What it shows.</param>
    /// <param name="pageOf">The object of the sheet that shows a page, by its place in the publication from 0; 0 where none does.</param>
    public IEnumerable<PdfLink> Of(IEnumerable<SceneFrame> frames, Func<int, int> pageOf)
    {
        foreach (var link in SceneLinks.Of(publication, frames))
        {
            if (link.Address is { } address) yield return new(link, $"/A<</S/URI/URI {PdfSyntax.Text(address)}>>", file.Reserve());
            else if (pageOf(link.PageIndex) is > 0 and var page) yield return new(link, $"/Dest[{PdfSyntax.Reference(page)} /Fit]", file.Reserve());
        }
    }

    /// <summary>Writes the annotation of a link.</summary>
    /// <param name="link">The link.</param>
    /// <param name="toSheet">From the spread's points to the sheet's.</param>
    /// <param name="parent">Where it stands in the tree of tags (14.7.4.4).</param>
    public void Write(PdfLink link, Affine toSheet, int parent)
    {
        var place = toSheet.After(link.Link.Frame.ToSpread).BoundsOf(link.Link.Place);
        file.Write(link.Number, $"<</Type/Annot/Subtype/Link/Rect{PdfSyntax.Rectangle(place)}/Border[0 0 0]/F 4/StructParent {parent}" +
            $"/Contents {PdfSyntax.Text(link.Link.Words)}{link.Target}>>");
    }
}

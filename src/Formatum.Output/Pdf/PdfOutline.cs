using System.Globalization;
using Formatum.Core.Composing;

namespace Formatum.Output.Pdf;

/// <summary>The headings of a publication as bookmarks (ISO 32000-1, 12.3.3).</summary>
internal static class PdfOutline
{
    private sealed record Item(int Number, HeadingTree Tree, List<Item> Within);

    /// <param name="file">The file.</param>
    /// <param name="headings">The headings, in order.</param>
    /// <param name="pageOf">The object of the sheet that shows a page, by its place in the publication from 0; 0 where none does.</param>
    /// <returns>The outline; 0 where there are no headings.</returns>
    public static int Write(PdfFile file, IEnumerable<Heading> headings, Func<int, int> pageOf)
    {
        var top = Reserved(file, Headings.Nested(headings.Where(h => pageOf(h.PageIndex) > 0)));
        if (top.Count == 0) return 0;
        int root = file.Reserve();
        file.Write(root, $"<</Type/Outlines{Ends(top)}>>");
        Write(file, top, root, pageOf);
        return root;
    }

    private static List<Item> Reserved(PdfFile file, List<HeadingTree> trees) => [.. trees.Select(t => new Item(file.Reserve(), t, Reserved(file, t.Within)))];

    private static string Ends(List<Item> items) => items.Count == 0 ? "" : string.Create(CultureInfo.InvariantCulture,
        $"/First {items[0].Number} 0 R/Last {items[^1].Number} 0 R/Count {Count(items)}");

    /// <summary>All are open.</summary>
    private static int Count(List<Item> items) => items.Sum(i => 1 + Count(i.Within));

    private static void Write(PdfFile file, List<Item> items, int parent, Func<int, int> pageOf)
    {
        for (int i = 0; i < items.Count; i++)
        {
            var heading = items[i].Tree.Heading;
            string sides = (i > 0 ? $"/Prev {PdfSyntax.Reference(items[i - 1].Number)}" : "") + (i + 1 < items.Count
                ? $"/Next {PdfSyntax.Reference(items[i + 1].Number)}" : "");
            file.Write(items[i].Number, $"<</Title {PdfSyntax.Text(heading.Words)}/Parent {PdfSyntax.Reference(parent)}/Dest" +
                $"[{PdfSyntax.Reference(pageOf(heading.PageIndex))} /Fit]{sides}{Ends(items[i].Within)}>>");
            Write(file, items[i].Within, items[i].Number, pageOf);
        }
    }
}

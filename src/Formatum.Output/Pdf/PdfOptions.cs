using Formatum.Core.Publications;
using Formatum.Imaging;

namespace Formatum.Output.Pdf;

/// <summary>What is wanted of a PDF.</summary>
/// <param name="Bleed">Keep the bleed; without it, pages are cut at their trim.</param>
/// <param name="Proof">Show the preview of an image whose file is missing, for looking at and not for print.</param>
public sealed record PdfOptions(bool Bleed = true, bool Proof = false)
{
    public PrintMarks Marks { get; init; } = PrintMarks.None;

    /// <summary>What the file is printed on, for a file for print (PDF/X-4); null for one for screens, in sRGB.</summary>
    public PressConversion? Press { get; init; }

    /// <summary>Whether light becomes inks here; else it keeps its profile.</summary>
    public bool Convert { get; init; }

    /// <summary>Pictures with a higher effective resolution than this, in ppi, are reduced to it; null for none.</summary>
    public double? MostPpi { get; init; }

    /// <summary>Whether every picture is compressed anew, at a loss.</summary>
    public bool Recompress { get; init; }

    /// <summary>How good pictures are that are compressed at a loss here: 1 to 100. At 92 little is to be seen of it: common practice, no source.</summary>
    public int Quality { get; init; } = 92;

    /// <summary>Whether each sheet shows a spread; else a page.</summary>
    public bool Spreads { get; init; }

    /// <summary>How pages are laid on larger sheets.</summary>
    public Imposition Imposition { get; init; } = Imposition.None;

    /// <summary>Whether it is to be read on a screen: with bookmarks, links, and what is read in which order. A file for print has none of that.</summary>
    public bool Live { get; init; }

    /// <summary>Numbers of the pages, from 1, in the order they are wanted; null for all.</summary>
    public IReadOnlyList<int>? Pages { get; init; }

    /// <summary>When it was made, as the file says.</summary>
    public DateTimeOffset Time { get; init; } = DateTimeOffset.UnixEpoch;

    /// <summary>What made it, by its own name, for the line of information; null for nothing.</summary>
    public string? Recipe { get; init; }
}

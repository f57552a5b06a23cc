using System.Collections.Immutable;
using System.Globalization;
using System.IO.Compression;
using System.Text;
using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Imposing;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output.Books;
using Formatum.Output.Bundles;
using Formatum.Output.Fonts;
using Formatum.Output.Pdf;
using SkiaSharp;

namespace Formatum.Output.Making;

/// <summary>An output to be made.</summary>
/// <param name="Publication">Of what.</param>
/// <param name="Recipe">How.</param>
/// <param name="Press">For which press, where it is for print.</param>
/// <param name="Time">When.</param>
public sealed record OutputWish(Publication Publication, Recipe Recipe, PressConversion Press, DateTimeOffset Time)
{
    /// <summary>Where the pages to be shown stand, from 1.</summary>
    /// <exception cref="EditRefused">The recipe names pages that are not there.</exception>
    public IReadOnlyList<int> Pages => PageRange.Of(Recipe.Kind == OutputKind.Bundle ? "" : Recipe.Pages, Publication);

    /// <summary>The pages of each sheet.</summary>
    public IReadOnlyList<IReadOnlyList<int>> Sheets => !Recipe.Spreads || Recipe.Kind == OutputKind.Book ? [.. Pages.Select(n => new[] { n })]
        : [.. Pages.GroupBy(n => Spread.IndexOfPage(Publication, n)).Select(g => Spread.At(Publication, g.Key).Pages.Select(p => p.Number).Order().ToArray())];

    /// <summary>The sides of the sheets that pages are laid on; none where they are not.</summary>
    /// <exception cref="EditRefused">They do not fit.</exception>
    public ImmutableArray<SheetSide> Sides => PdfWriter.Imposed(Publication, Options, Pages);

    /// <summary>How many pages the file will have, or files the ZIP.</summary>
    public int Count => Recipe.Kind == OutputKind.Bundle ? 1 : Recipe.Imposition.Kind == ImpositionKind.None ? Sheets.Count : Sides.Length;

    /// <summary>Whether it comes to several files, which go into one ZIP.</summary>
    public bool IsZip => Recipe.Kind == OutputKind.Pictures || Recipe.Kind == OutputKind.Bundle || (Recipe.OneFileEach && Recipe.IsPdf);

    /// <summary>What the file is called.</summary>
    public string FileName => Name(IsZip ? Recipe.FilePattern.Replace("{page}", "", StringComparison.Ordinal) : Recipe.FilePattern, "")
        + (IsZip ? ".zip" : Recipe.Kind == OutputKind.Book ? ".epub" : ".pdf");

    internal string Name(string pattern, string page) => FileNames.Of(pattern, Publication.Setup, Recipe.Name, Recipe.Pages, page, Time);

    internal BookOptions BookOptions => new(Pages, Time) { MostPpi = Recipe.MostPpi, Quality = Recipe.Quality, Proof = Recipe.Proof };

    internal PdfOptions Options => new(Recipe.Bleed, Recipe.Proof)
    {
        Marks = Recipe.Marks,
        Press = Recipe.Kind == OutputKind.Print ? Press : null,
        Convert = Recipe.Convert,
        MostPpi = Recipe.MostPpi,
        Recompress = Recipe.Quality is not null,
        Quality = Recipe.Quality ?? new PdfOptions().Quality,
        Spreads = Recipe.Spreads,
        Imposition = Recipe.Imposition,
        Live = Recipe is { Kind: OutputKind.Screen, Proof: false, Imposition.Kind: ImpositionKind.None },
        Pages = Pages,
        Time = Time,
        Recipe = Recipe.Name,
    };
}

/// <summary>Where bundles have their files from.</summary>
/// <param name="Fonts">The publication's own fonts.</param>
/// <param name="Profile">The file of its press's profile; null where it has none.</param>
public sealed record BundleFiles(FontStore Fonts, string? Profile);

/// <summary>Makes outputs.</summary>
/// <param name="wish">What is wanted.</param>
/// <param name="source">Where the pixels of pictures come from, and previews in place of missing ones.</param>
/// <param name="previews">The previews that go into SVGs.</param>
/// <param name="files">What goes into bundles besides pictures.</param>
/// <param name="mostPixels">No picture of a page has more pixels.</param>
/// <param name="done">Told after each sheet how many are made.</param>
/// <param name="cancel">Says that nobody wants it any more.</param>
public sealed class OutputWriter(OutputWish wish, PixelSource source, PreviewStore previews, BundleFiles files, int mostPixels,
    Action<int>? done = null, CancellationToken cancel = default)
{
    private const int PictureQuality = 90;

    /// <param name="path">The file to write; what is there is replaced.</param>
    /// <exception cref="EditRefused">There are no such pages, or they come to too many pixels.</exception>
    /// <exception cref="BadPicture">A linked file is gone or no longer a picture.</exception>
    /// <exception cref="NotWritten">The disk is full.</exception>
    public void Write(string path)
    {
        if (wish.Recipe.Kind == OutputKind.Book) BookWriter.Write(wish.Publication, source, wish.BookOptions, path, done, cancel);
        else if (!wish.IsZip) PdfWriter.Write(wish.Publication, source, wish.Options, path, done, cancel);
        else WriteZip(path);
    }

    private void WriteZip(string path)
    {
        try
        {
            if (wish.Recipe.Kind == OutputKind.Bundle)
            {
                using var bundle = new FileStream(path, FileMode.Create);
                BundleWriter.WriteAsync(wish.Publication, previews, files.Fonts, wish.Time, bundle, files.Profile, cancel).GetAwaiter().GetResult();
                return;
            }
            using var zip = new ZipArchive(new FileStream(path, FileMode.Create), ZipArchiveMode.Create);
            var names = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
            int made = 0;
            foreach (var sheet in wish.Sheets)
            {
                cancel.ThrowIfCancellationRequested();
                if (wish.Recipe.Kind == OutputKind.Pictures) AddPicture(zip, sheet, names);
                else AddPdf(zip, sheet, names, path + ".page");
                done?.Invoke(++made);
            }
        }
        catch (IOException e) when (e is not (NotWritten or FileNotFoundException or DirectoryNotFoundException))
        {
            throw new NotWritten(e);
        }
    }

    /// <summary>What the file of a sheet is called, with as many digits as the last page needs, so that they stand in order.</summary>
    private string NameOf(IReadOnlyList<int> sheet, HashSet<string> names, string ending)
    {
        var setup = wish.Publication.Setup;
        int digits = (setup.FirstFolio + wish.Publication.PageCount - 1).ToString(CultureInfo.InvariantCulture).Length;
        string page = string.Join('-', sheet.Select(n => (setup.FirstFolio + n - 1).ToString(CultureInfo.InvariantCulture).PadLeft(digits, '0')));
        string name = wish.Name(wish.Recipe.FilePattern, page);
        // Without the page in it a pattern gives the same name again.
        return names.Add(name) ? name + ending : wish.Name(wish.Recipe.FilePattern + " {page}", page) + ending;
    }

    private void AddPdf(ZipArchive zip, IReadOnlyList<int> sheet, HashSet<string> names, string aside)
    {
        try
        {
            PdfWriter.Write(wish.Publication, source, wish.Options with { Pages = sheet }, aside, null, cancel);
            zip.CreateEntryFromFile(aside, NameOf(sheet, names, ".pdf"), CompressionLevel.NoCompression);
        }
        finally
        {
            File.Delete(aside);
        }
    }

    private void AddPicture(ZipArchive zip, IReadOnlyList<int> sheet, HashSet<string> names)
    {
        var recipe = wish.Recipe;
        var spread = Spread.At(wish.Publication, Spread.IndexOfPage(wish.Publication, sheet[0]));
        var scene = Composer.Compose(wish.Publication, spread, Typefaces.All);
        var shown = spread.Pages.Where(p => sheet.Contains(p.Number)).Select(p => p.Trim).Aggregate((a, b) => a.Union(b));
        string ending = "." + recipe.File.ToString().ToLowerInvariant();
        using var entry = zip.CreateEntry(NameOf(sheet, names, recipe.File == PictureFileKind.Jpeg ? ".jpg" : ending),
            recipe.File == PictureFileKind.Svg ? CompressionLevel.Optimal : CompressionLevel.NoCompression).Open();
        if (recipe.File == PictureFileKind.Svg)
        {
            string title = $"{wish.Publication.Setup.Name}, {spread.Label}";
            entry.Write(Encoding.UTF8.GetBytes(SvgWriter.Page(scene, shown, title, image => previews.Embedded(image, source.Press))));
            return;
        }
        using var picture = PageRaster.Draw(scene, shown, recipe.Ppi, recipe.Proof ? source : source with { StandIns = null }, mostPixels, cancel);
        using var encoded = picture.Encode(recipe.File switch
        {
            PictureFileKind.Jpeg => SKEncodedImageFormat.Jpeg,
            PictureFileKind.Webp => SKEncodedImageFormat.Webp,
            _ => SKEncodedImageFormat.Png,
        }, recipe.Quality ?? PictureQuality);
        entry.Write(StatedResolution.In(encoded.AsSpan(), recipe.Ppi));
    }
}

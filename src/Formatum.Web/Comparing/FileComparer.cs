using System.Globalization;
using System.Security.Cryptography;
using System.Text.Json;
using Formatum.Core.Checks;
using Formatum.Core.Comparing;
using Formatum.Core.Publications;
using Formatum.Documents;
using Formatum.Imaging;
using Formatum.Output;
using Formatum.Output.Fonts;
using Formatum.Output.Making;
using Formatum.Storage;
using Formatum.Web.Hosting;
using Formatum.Web.Links;
using Formatum.Web.Outputs;

namespace Formatum.Web.Comparing;

/// <summary>A PDF that was made before set against the pages as they are now.</summary>
/// <param name="File">The PDF made before.</param>
/// <param name="Recipe">The recipe by which the pages were made to be set against it.</param>
/// <param name="Sheets">The pages on each sheet now, from 1; none where pages are laid on larger sheets.</param>
/// <param name="Before">What is on its pages.</param>
/// <param name="After">What is on the pages now.</param>
/// <param name="Comparison">What differs.</param>
public sealed record ComparedWithFile(ComparedFile File, Recipe Recipe, IReadOnlyList<IReadOnlyList<int>> Sheets, IReadOnlyList<PdfPage> Before,
    IReadOnlyList<PdfPage> After, FileComparison Comparison);

/// <summary>
/// Compares publications with PDFs made before: the pages are made anew the same way, from previews, and both are read by the same reader, so that what differs
/// differs on the pages and not in the telling.
/// </summary>
public sealed class FileComparer(ComparedFiles files, RecipeShelf shelf, OutputJobs outputs, HeavyWork heavy, PreviewStore previews, PicturePixels pixels,
    DiskRoom room, FontStore fonts)
{
    /// <summary>Pictures are made no finer, in ppi: it is looked at on screens.</summary>
    private const double Ppi = 150;

    private const int Quality = 85;

    /// <summary>By which recipe a PDF can have been made.</summary>
    public async Task<IReadOnlyList<ShelvedRecipe>> RecipesAsync(Standing standing) =>
        [.. (await shelf.ListAsync(standing)).Where(r => r.Recipe is { IsPdf: true, OneFileEach: false })];

    /// <param name="standing">The publication.</param>
    /// <param name="with">The PDF, by its key.</param>
    /// <param name="madeBy">The recipe by which the pages are made, by its key or name; null for the one that fits best.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    /// <exception cref="EditRefused">There is no such PDF or recipe, or the pages cannot be made by it.</exception>
    /// <exception cref="BadPdf">The PDF cannot be read.</exception>
    public async Task<ComparedWithFile> CompareAsync(Standing standing, string with, string? madeBy, CancellationToken cancel)
    {
        var file = files.Find(standing.Id, with);
        var before = await files.ReadAsync(standing.Id, file.Key, file.Path, cancel);
        var recipe = await RecipeAsync(standing, file, before, madeBy);
        var wish = WishOf(standing, recipe);
        var (key, path) = await MadeAsync(standing, wish, cancel);
        var after = await files.ReadAsync(standing.Id, key, path, cancel);
        var comparison = await heavy.RunAsync(_ => FileComparison.Of([.. before.Select(p => p.Contents)], [.. after.Select(p => p.Contents)],
            standing.Publication.Setup.Unit), cancel);
        return new(file, recipe, recipe.Imposition.Kind == ImpositionKind.None ? wish.Sheets : [], before, after, comparison);
    }

    /// <summary>The pages as they are now, as a PDF of the same kind.</summary>
    /// <returns>Where it lies.</returns>
    public async Task<string> NowAsync(Standing standing, string with, string? madeBy, CancellationToken cancel)
    {
        var file = files.Find(standing.Id, with);
        var before = await files.ReadAsync(standing.Id, file.Key, file.Path, cancel);
        return (await MadeAsync(standing, WishOf(standing, await RecipeAsync(standing, file, before, madeBy)), cancel)).Path;
    }

    private async Task<Recipe> RecipeAsync(Standing standing, ComparedFile file, IReadOnlyList<PdfPage> before, string? madeBy)
    {
        if (!string.IsNullOrEmpty(madeBy))
            return (await shelf.FindAsync(standing, madeBy)).Recipe is { IsPdf: true, OneFileEach: false } chosen ? chosen
                : throw new EditRefused("as", "This recipe makes no single PDF. Choose one that does.");
        return file.Recipe ?? Fitting([.. (await RecipesAsync(standing)).Select(r => r.Recipe)], standing.Publication.Setup, before);
    }

    /// <summary>Whoever brings a file does not say how it was made: where its pages are wider than tall as spreads are, it was made of spreads.</summary>
    private static Recipe Fitting(IReadOnlyList<Recipe> recipes, Setup setup, IReadOnlyList<PdfPage> before)
    {
        bool spreads = before.Any(p => p.Trim.Width > 1.5 * setup.PageWidth && p.Trim.Height < 1.2 * setup.PageHeight);
        return recipes.FirstOrDefault(r => r.Spreads == spreads && r.Imposition.Kind == ImpositionKind.None) ?? recipes[0];
    }

    private OutputWish WishOf(Standing standing, Recipe recipe) => outputs.Wish(standing.Publication, recipe with
    {
        MostPpi = Math.Min(Ppi, recipe.MostPpi ?? Ppi),
        Quality = Quality,
        // Missing files are shown by their previews.
        Proof = true,
    });

    private async Task<(string Key, string Path)> MadeAsync(Standing standing, OutputWish wish, CancellationToken cancel)
    {
        string how = Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(wish.Recipe)))[..12];
        string key = string.Create(CultureInfo.InvariantCulture, $"now-{standing.Revision}-{how}");
        string path = Path.Combine(files.MadeFolder(standing.Id), key + ".pdf");
        if (File.Exists(path)) return (key, path);
        if (room.Lacks(0) is { } full) throw full;
        Directory.CreateDirectory(files.MadeFolder(standing.Id));
        string aside = $"{path}.{Guid.NewGuid():n}";
        try
        {
            await heavy.RunAsync(stop =>
            {
                new OutputWriter(wish, pixels.Quick(wish.Publication), previews, new(fonts, null), heavy.MostPixels, cancel: stop).Write(aside);
                return true;
            }, cancel);
            File.Move(aside, path, overwrite: true);
        }
        finally
        {
            File.Delete(aside);
        }
        return (key, path);
    }
}

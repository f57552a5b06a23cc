using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output;
using Formatum.Output.Fonts;
using Formatum.Output.Making;
using Formatum.Storage;
using Formatum.Web.Hosting;
using Formatum.Web.Links;
using Formatum.Web.Outputs;
using Formatum.Web.Pictures;

namespace Formatum.Web.Api;

/// <summary>Pages as SVG and PNG, publications as PDF, and the previews that screens show.</summary>
public static class OutputEndpoints
{
    public static void Map(WebApplication app)
    {
        var api = app.MapGroup("/api/publications/{id:int}").WithTags("Formatum");
        api.MapGet("/pages/{number:int}.svg", PageSvg).WithSummary("A page as SVG, its images embedded at screen resolution.")
            .Produces(StatusCodes.Status200OK, contentType: "image/svg+xml");
        api.MapGet("/pages/{number:int}.png", PagePng).WithSummary("A page as PNG, cut at its trim.")
            .Produces(StatusCodes.Status200OK, contentType: "image/png");
        api.MapGet("/output.pdf", Pdf).WithSummary("The publication as PDF, by a recipe.").Produces(StatusCodes.Status200OK, contentType: "application/pdf");
        app.MapGet("/fonts/{family}/{face}.ttf", Font).ExcludeFromDescription();
        app.MapGet("/fonts.css", () => Results.Text(Desk.TextView.FontFaces(), "text/css")).ExcludeFromDescription();
        app.MapGet("/previews/{hash:length(64)}/{size:int}", Preview).ExcludeFromDescription();
        app.MapGet("/previews/{hash:length(64)}/histogram", HistogramOf).ExcludeFromDescription();
    }

    private static IResult Font(string family, string face, HttpContext context)
    {
        if (Typefaces.File(family, face) is not { } file) return Results.NotFound();
        context.Response.Headers.CacheControl = "private, max-age=86400";
        return Results.Stream(file, "font/ttf");
    }

    private static async Task<IResult> PageSvg(int id, int number, PublicationStore store, PreviewStore previews, ProfileStore profiles, PreviewMaker maker,
        HeavyWork heavy, CancellationToken cancel)
    {
        var publication = await WithPageAsync(store, id, number);
        await maker.MakeMissingAsync(Shown(publication, number));
        var press = profiles.ShownFor(publication.Setup);
        string svg = await heavy.RunAsync(stop =>
        {
            var (scene, page) = Composed(publication, number);
            return SvgWriter.Page(scene, page, $"{publication.Setup.Name}, page {number}", image =>
            {
                stop.ThrowIfCancellationRequested();
                return previews.Embedded(image, press);
            });
        }, cancel);
        return Results.Text(svg, "image/svg+xml");
    }

    private static async Task<IResult> PagePng(int id, int number, PublicationStore store, PicturePixels pixels, HeavyWork heavy,
        CancellationToken cancel, double ppi = 144, bool proof = false)
    {
        var publication = await WithPageAsync(store, id, number);
        return Results.Bytes(await heavy.RunAsync(stop =>
        {
            var (scene, page) = Composed(publication, number);
            using var png = new MemoryStream();
            PngWriter.Page(scene, page, ppi, png, proof ? pixels.Of(publication) : pixels.Of(publication) with { StandIns = null }, heavy.MostPixels, stop);
            return png.ToArray();
        }, cancel), "image/png");
    }

    private static async Task<IResult> Pdf(int id, PublicationStore store, PreviewStore previews, PicturePixels pixels, ServerOptions options,
        HeavyWork heavy, DiskRoom room, FontStore fonts, RecipeShelf shelf, OutputJobs jobs, CancellationToken cancel,
        string recipe = "print", string? pages = null, bool? marks = null, bool? bleed = null, bool? proof = null)
    {
        var standing = await store.OpenAsync(id);
        var chosen = (await shelf.FindAsync(standing, recipe)).Recipe;
        var wish = jobs.Wish(standing.Publication, chosen with
        {
            Pages = pages ?? chosen.Pages,
            Marks = marks switch { null => chosen.Marks, false => PrintMarks.None, true => chosen.Marks.Any ? chosen.Marks : PrintMarks.CropMarks },
            Bleed = bleed ?? chosen.Bleed,
            Proof = proof ?? chosen.Proof,
        });
        if (wish.IsZip || !chosen.IsPdf)
            throw new EditRefused("recipe", $"{chosen.Name} makes no single PDF. Begin an output: POST /api/publications/{id}/outputs, or on Output.");
        if (room.Lacks(0) is { } full) throw full;
        Directory.CreateDirectory(options.IncomingFolder);
        string path = Path.Combine(options.IncomingFolder, $"{Guid.NewGuid():n}.pdf");
        try
        {
            await heavy.RunAsync(stop =>
            {
                new OutputWriter(wish, pixels.Of(wish.Publication), previews, new(fonts, null), heavy.MostPixels, cancel: stop).Write(path);
                return true;
            }, cancel);
            // The open file outlives its name, and goes when the answer has been sent.
            var stream = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.Read | FileShare.Delete, 1 << 16,
                FileOptions.Asynchronous | FileOptions.SequentialScan);
            return Results.Stream(stream, "application/pdf", wish.FileName);
        }
        finally
        {
            File.Delete(path);
        }
    }

    private static async Task<Publication> WithPageAsync(PublicationStore store, int id, int number)
    {
        var publication = (await store.OpenAsync(id)).Publication;
        if (number < 1 || number > publication.PageCount)
            throw new EditRefused("page", $"There is no page {number}; the publication has pages 1 to {publication.PageCount}.");
        return publication;
    }

    private static (Scene Scene, PlacedPage Page) Composed(Publication publication, int number)
    {
        var spread = Spread.At(publication, Spread.IndexOfPage(publication, number));
        return (Composer.Compose(publication, spread, Typefaces.All), spread.Pages.Single(p => p.Number == number));
    }

    /// <summary>The pictures that a page shows.</summary>
    private static IEnumerable<LinkedImage> Shown(Publication publication, int number)
    {
        var spread = Spread.At(publication, Spread.IndexOfPage(publication, number));
        return Composer.ImagesOn(publication, spread, spread.Pages.Single(p => p.Number == number).Trim);
    }

    private static async Task<IResult> Preview(string hash, int size, PreviewMaker previews, HttpContext context, string? press = null)
    {
        if (!PreviewStore.Sizes.Contains(size) || !hash.All(char.IsAsciiHexDigitLower) || await previews.FindAsync(hash, size, press) is not { } path)
            return Results.NotFound();
        // What a hash names never changes.
        context.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return Results.File(path, PreviewStore.TypeOf(path));
    }

    private static async Task<IResult> HistogramOf(string hash, PreviewMaker previews, HttpContext context)
    {
        if (!hash.All(char.IsAsciiHexDigitLower) || await previews.FindAsync(hash, PreviewStore.Sizes[0]) is not { } path) return Results.NotFound();
        context.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return Results.Text(Pictures.HistogramView.Draw(Histogram.Of(path)), "image/svg+xml");
    }

    /// <summary>What a publication's files are called: its name and edition.</summary>
    internal static string FileName(Setup setup) => FileName(setup.Edition.Length == 0 ? setup.Name : $"{setup.Name} - {setup.Edition}");

    /// <summary>A name as a browser may keep it.</summary>
    internal static string FileName(string name) => new([.. name.Select(c => char.IsLetterOrDigit(c) || c is ' ' or '-' or '_' ? c : '-')]);
}

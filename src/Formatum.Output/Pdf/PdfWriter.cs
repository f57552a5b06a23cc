using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Imposing;
using Formatum.Core.Publications;
using Formatum.Imaging;

namespace Formatum.Output.Pdf;

/// <summary>Publications as PDF: for print as ISO 15930-7 asks (PDF/X-4), or for screens.</summary>
public static class PdfWriter
{
    /// <summary>Writes pages of a publication.</summary>
    /// <param name="publication">The publication.</param>
    /// <param name="source">Where the pixels of pictures come from; the stand-ins are for proofs alone.</param>
    /// <param name="options">What is wanted.</param>
    /// <param name="path">The file to write; what is there is replaced.</param>
    /// <param name="done">Told after each sheet how many are written.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    /// <exception cref="EditRefused">There are no such pages.</exception>
    /// <exception cref="BadPicture">A linked file is gone or no longer a picture.</exception>
    /// <exception cref="NotWritten">The disk is full.</exception>
    public static void Write(Publication publication, PixelSource source, PdfOptions options, string path, Action<int>? done = null,
        CancellationToken cancel = default)
    {
        var sheets = SheetsOf(publication, options);
        var imposed = Imposed(publication, options, [.. sheets.SelectMany(s => s.Pages.Select(p => p.Number))]);
        foreach (var size in sheets.Select(s => s.Trim).Select(t => (t.Width, t.Height)).Distinct())
            PdfSheet.Of(publication.Setup, options, size.Width, size.Height);
        if (!options.Proof) ThrowIfMissing(publication, sheets, options, cancel);
        using var file = new PdfFile(path);
        var job = new Job(publication, options.Proof ? source : source with { StandIns = null }, options, file, cancel);
        if (imposed.IsEmpty) job.Write(sheets, done);
        else job.Write(imposed, done);
    }

    /// <summary>What goes on one sheet: a page, or the pages of a spread.</summary>
    internal sealed record Shown(Spread Spread, IReadOnlyList<PlacedPage> Pages)
    {
        public Box Trim => Pages[0].Trim.Union(Pages[^1].Trim);
    }

    private static List<Shown> SheetsOf(Publication publication, PdfOptions options)
    {
        var wanted = options.Pages ?? [.. Enumerable.Range(1, publication.PageCount)];
        if (wanted.Count == 0 || wanted.Any(n => n < 1 || n > publication.PageCount))
            throw new EditRefused("pages", publication.PageCount == 1 ? "The publication has one page, page 1. Ask for that."
                : $"The publication has pages 1 to {publication.PageCount}. Ask for some of these.");
        if (options.Spreads)
            return [.. wanted.Select(n => Spread.IndexOfPage(publication, n)).Distinct().Select(i => Spread.At(publication, i))
                .Select(s => new Shown(s, s.Pages))];
        // The pages of a spread come one after the other: what is composed for one serves the other.
        Spread? last = null;
        return [.. wanted.Select(n =>
        {
            int index = Spread.IndexOfPage(publication, n);
            last = last is not null && last.Index == index ? last : Spread.At(publication, index);
            return new Shown(last, [last.Pages.Single(p => p.Number == n)]);
        })];
    }

    /// <summary>The sides of the sheets that pages are laid on; none where they are not.</summary>
    /// <exception cref="EditRefused">They do not fit.</exception>
    internal static ImmutableArray<SheetSide> Imposed(Publication publication, PdfOptions options, IReadOnlyList<int> pages)
    {
        if (options.Imposition.Kind == ImpositionKind.None) return [];
        var sheet = PdfSheet.Of(publication.Setup, options, publication.Setup.PageWidth, publication.Setup.PageHeight);
        return Imposer.Of(options.Imposition, publication.Setup, pages, sheet.Bleed, sheet.Border);
    }

    /// <summary>Whatever would be missing is told before anything is written.</summary>
    private static void ThrowIfMissing(Publication publication, List<Shown> sheets, PdfOptions options, CancellationToken cancel)
    {
        double bleed = options.Bleed ? publication.Setup.Bleed : 0;
        var images = new Dictionary<int, LinkedImage>();
        foreach (var sheet in sheets)
        {
            cancel.ThrowIfCancellationRequested();
            foreach (var image in Composer.ImagesOn(publication, sheet.Spread, sheet.Trim.Grown(bleed))) images.TryAdd(image.Id, image);
        }
        SceneImages.ThrowIfMissing(images.Values);
    }

    /// <summary>One file while it is written.</summary>
    private sealed class Job
    {
        private readonly Publication _publication;
        private readonly PdfOptions _options;
        private readonly PdfFile _file;
        private readonly PdfColours _colours;
        private readonly PdfFonts _fonts;
        private readonly PdfScene _scene;
        private readonly PdfMarks _marks;
        private readonly CancellationToken _cancel;
        private readonly PdfTags? _tags;
        private (Spread? Spread, Scene? Scene) _composed;

        /// <summary>The object of the sheet that shows each page, by its place from 0.</summary>
        private Dictionary<int, int> _pageOf = [];

        public Job(Publication publication, PixelSource source, PdfOptions options, PdfFile file, CancellationToken cancel)
        {
            (_publication, _options, _file, _cancel) = (publication, options, file, cancel);
            _colours = new(file, options.Press, options.Convert);
            _fonts = new(file);
            var states = new PdfStates(file);
            var texts = new PdfText(_fonts, _colours, _colours.IsPrint ? states.Overprint() : 0);
            _tags = options.Live ? new(file, publication) : null;
            _scene = new(file, _colours, new(file, _colours, new(file, _colours, states), options, source, cancel), texts, states, _tags);
            _marks = new(_colours, texts, options.Marks, options.Proof);
        }

        public void Write(List<Shown> sheets, Action<int>? done)
        {
            int[] pages = [.. sheets.Select(_ => _file.Reserve())];
            _pageOf = sheets.Zip(pages).SelectMany(s => s.First.Pages.Select(p => (p.Number, s.Second))).ToDictionary(p => p.Number - 1, p => p.Second);
            Write(pages, (i, tree) => WriteSheet(sheets[i], pages[i], tree), $"/PageLabels<</Nums[{string.Concat(Labels(sheets))}]>>", done);
        }

        public void Write(ImmutableArray<SheetSide> sides, Action<int>? done)
        {
            int[] pages = [.. sides.Select(_ => _file.Reserve())];
            Write(pages, (i, tree) => WriteSide(sides[i], pages[i], tree), "", done);
        }

        private void Write(int[] pages, Action<int, int> write, string labels, Action<int>? done)
        {
            int tree = _file.Reserve();
            for (int i = 0; i < pages.Length; i++)
            {
                _cancel.ThrowIfCancellationRequested();
                write(i, tree);
                done?.Invoke(i + 1);
            }
            _fonts.Write();
            _file.Write(tree, $"<</Type/Pages/Count {pages.Length}/Kids[{string.Join(' ', pages.Select(PdfSyntax.Reference))}]>>");
            int intent = _options.Press is { } press ? _file.Add(PdfMetadata.OutputIntent(press.Press,
                _colours.ProfileStream(press.Press))) : 0;
            byte[] identity = _file.Identity();
            byte[] xmp = PdfMetadata.Xmp(_publication.Setup, _options, identity);
            int metadata = _file.AddStream("/Type/Metadata/Subtype/XML", xmp), info = _file.Add(PdfMetadata.Info(_publication.Setup, _options));
            int root = _file.Add($"<</Type/Catalog/Pages {PdfSyntax.Reference(tree)}/Metadata {PdfSyntax.Reference(metadata)}{labels}" +
                $"/ViewerPreferences<</DisplayDocTitle true{(_publication.Setup.BindsRight ? "/Direction/R2L" : "")}>>" +
                $"{(intent == 0 ? "" : $"/OutputIntents[{PdfSyntax.Reference(intent)}]")}{Live()}>>");
            _file.End(root, info, identity);
        }

        /// <summary>What a file for screens has for who reads it there: bookmarks, the order of reading, its language.</summary>
        private string Live()
        {
            if (_tags is null) return "";
            int outline = PdfOutline.Write(_file, Headings.Of(_publication, Typefaces.All), PageOf);
            return $"/Lang {PdfSyntax.Text(TextCascade.LanguageOf(_publication))}/MarkInfo<</Marked true>>" +
                $"/StructTreeRoot {PdfSyntax.Reference(_tags.Write())}" +
                (outline == 0 ? "" : $"/Outlines {PdfSyntax.Reference(outline)}/PageMode/UseOutlines");
        }

        private int PageOf(int index) => _pageOf.GetValueOrDefault(index);

        /// <summary>The numbers that pages bear (ISO 32000-1, 12.4.2).</summary>
        private static IEnumerable<string> Labels(List<Shown> sheets)
        {
            int expected = -1;
            for (int i = 0; i < sheets.Count; i++)
            {
                var pages = sheets[i].Pages;
                if (pages.Count > 1) yield return $"{i}<</P {PdfSyntax.Text(sheets[i].Spread.Folios)}>>";
                else if (pages[0].Folio != expected) yield return string.Create(CultureInfo.InvariantCulture, $"{i}<</S/D/St {pages[0].Folio}>>");
                expected = pages.Count > 1 ? -1 : pages[0].Folio + 1;
            }
        }

        private void WriteSheet(Shown shown, int page, int tree)
        {
            var trim = shown.Trim;
            var sheet = PdfSheet.Of(_publication.Setup, _options, trim.Width, trim.Height);
            var visible = trim.Grown(sheet.Bleed);
            if (!ReferenceEquals(_composed.Spread, shown.Spread)) _composed = (shown.Spread, Composer.Compose(_publication, shown.Spread, Typefaces.All));
            var frames = SceneCanvas.Visible(_composed.Scene!, visible).ToList();
            var content = new PdfContent();
            // From the spread's points, which count from the upper left, to the sheet's, which count from the lower left.
            var toSheet = new Affine(1, 0, 0, -1, sheet.Border - trim.X, sheet.Media.Height - sheet.Border + trim.Y);
            var leading = new PdfLinks(_file, _publication);
            List<PdfLink> links = _tags is null ? [] : [.. leading.Of(frames, PageOf)];
            string tagged = _tags is null ? "" : $"/StructParents {_tags.Begin(page, shown.Spread, links)}/Tabs/S";
            content.Save().Concat(toSheet);
            content.Save().Add("re", visible.X, visible.Y, visible.Width, visible.Height).Add("W n");
            if (frames.Any(f => f.Look.Blend != Blend.Normal)) AsArtifact(content, () => LayPaper(content, visible));
            _scene.Draw(content, frames, visible);
            content.Restore();
            AsArtifact(content, () => _marks.Draw(content, trim, sheet, FoldsOf(shown.Pages),
                Information(shown.Pages.Count > 1 ? shown.Spread.Label : $"Page {shown.Pages[0].Folio}")));
            content.Restore();
            int stream = _file.AddPacked("", content.Bytes());
            foreach (var link in links) leading.Write(link, toSheet, _tags!.ParentOf(link));
            _file.Write(page, $"<</Type/Page/Parent {PdfSyntax.Reference(tree)}/MediaBox {PdfSyntax.Rectangle(sheet.Media)}/CropBox " +
                $"{PdfSyntax.Rectangle(sheet.Media)}/BleedBox {PdfSyntax.Rectangle(sheet.Trim.Grown(sheet.Bleed))}/TrimBox {PdfSyntax.Rectangle(sheet.Trim)}" +
                $"/Group<</S/Transparency/CS {_colours.Blending}/I true>>/Resources{content.Resources()}/Contents {PdfSyntax.Reference(stream)}" +
                $"{tagged}{(links.Count == 0 ? "" : $"/Annots[{string.Join(' ', links.Select(l => PdfSyntax.Reference(l.Number)))}]")}>>");
        }

        private IEnumerable<double> FoldsOf(IReadOnlyList<PlacedPage> pages) => pages.Skip(1).Select(p => p.Trim.X)
            .Concat(pages.SelectMany(p => _publication.Setup.FoldsOf(p).Select(x => p.Trim.X + x)));

        /// <summary>A side of a sheet with several pages.</summary>
        private void WriteSide(SheetSide side, int page, int tree)
        {
            var content = new PdfContent();
            var block = side.Block;
            var sheet = PdfSheet.Of(_publication.Setup, _options, block.Width, block.Height, measured: false);
            content.Save().Concat(new(1, 0, 0, -1, 0, side.Height));
            foreach (var imposed in side.Pages)
            {
                if (imposed.Page is not { } number) continue;
                var spread = Spread.At(_publication, Spread.IndexOfPage(_publication, number));
                var trim = spread.Pages.Single(p => p.Number == number).Trim;
                if (_composed.Spread?.Index != spread.Index) _composed = (spread, Composer.Compose(_publication, spread, Typefaces.All));
                var visible = imposed.Shown.Moved(trim.X - imposed.Trim.X, trim.Y - imposed.Trim.Y);
                var frames = SceneCanvas.Visible(_composed.Scene!, visible).ToList();
                content.Save().Concat(Affine.Translation(imposed.Trim.X - trim.X, imposed.Trim.Y - trim.Y));
                content.Add("re", visible.X, visible.Y, visible.Width, visible.Height).Add("W n");
                if (frames.Any(f => f.Look.Blend != Blend.Normal)) LayPaper(content, visible);
                _scene.Draw(content, frames, visible);
                content.Restore();
            }
            string what = $"Sheet {side.Sheet}, {(side.IsBack ? "back" : "front")}";
            _marks.Draw(content, block, sheet, side.Folds, Information(what), [.. side.Pages.Select(p => p.Cell)]);
            content.Restore();
            // PDF counts from the lower left.
            Box media = new(0, 0, side.Width, side.Height), cut = new(block.X, side.Height - block.Bottom, block.Width, block.Height);
            int stream = _file.AddPacked("", content.Bytes());
            _file.Write(page, $"<</Type/Page/Parent {PdfSyntax.Reference(tree)}/MediaBox {PdfSyntax.Rectangle(media)}/CropBox {PdfSyntax.Rectangle(media)}" +
                $"/BleedBox {PdfSyntax.Rectangle(cut.Grown(sheet.Bleed).Intersect(media))}/TrimBox {PdfSyntax.Rectangle(cut)}/Group<</S/Transparency/CS " +
                $"{_colours.Blending}/I true>>/Resources{content.Resources()}/Contents {PdfSyntax.Reference(stream)}>>");
        }

        private void AsArtifact(PdfContent content, Action draw)
        {
            if (_tags is not null) content.Add(PdfTags.Artifact);
            draw();
            if (_tags is not null) content.Add("EMC");
        }

        /// <summary>White beneath it all: frames that are mixed with the bare paper would else be mixed with nothing, which looks otherwise. White prints
        /// no ink.</summary>
        private void LayPaper(PdfContent content, Box page)
        {
            _colours.Fill(content, Colour.White);
            content.Add("re", page.X, page.Y, page.Width, page.Height).Add("f");
        }

        private string Information(string what)
        {
            var setup = _publication.Setup;
            string[] words =
            [
                setup.Name, setup.Edition, what, _options.Recipe ?? "",
                _options.Time.ToString("yyyy-MM-dd HH:mm zzz", CultureInfo.InvariantCulture),
            ];
            return string.Join("  \u00b7  ", words.Where(w => w.Length > 0));
        }
    }
}

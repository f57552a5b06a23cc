using System.Collections.Immutable;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Filling;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;
using Formatum.Imaging;
using Formatum.Storage;

namespace Formatum.Demo;

/// <summary>
/// Makes the demo publications of Brackenfold Kilns, an invented pottery, where they are not there yet. The pictures are drawn by this program,
/// the same each time.
/// </summary>
public static partial class DemoMaker
{
    private const string Catalog = "Brackenfold Kilns: Autumn Catalog", Newsletter = "The Kiln Post", Brochure = "From Clay to Table",
        Faults = "The fault sheet";

    private static readonly DemoPicture[] Pictures = [.. List()];

    private static IEnumerable<DemoPicture> List()
    {
        yield return new("cover-still-life.jpg", Motif.StillLife, 4, 3000, 4200);
        yield return new("kiln-shelf-wide.jpg", Motif.Shelf, 1, 5400, 3600);
        yield return new("kiln-shelf-tall.jpg", Motif.Shelf, 9, 2800, 4200, 300, 6);
        yield return new("evening-table.jpg", Motif.StillLife, 12, 5400, 3600, 240);
        yield return new("window-sill.jpg", Motif.StillLife, 21, 4200, 2800, 300, 3);
        yield return new("glaze-celadon.jpg", Motif.Texture, 8, 3600, 3600);
        yield return new("glaze-tenmoku.jpg", Motif.Texture, 9, 5400, 3600);
        yield return new("glaze-cobalt.tif", Motif.Texture, 11, 1800, 1800);
        (int Width, int Height)[] sizes = [(2400, 3000), (3000, 2000), (2600, 2600), (2200, 3300), (3200, 2400), (2400, 2400)];
        for (int i = 0; i < 22; i++)
        {
            var (width, height) = sizes[i % sizes.Length];
            var motif = i % 5 == 3 ? Motif.Pair : i % 7 == 5 ? Motif.Plate : Motif.Pot;
            int orientation = i switch { 6 => 8, 13 => 6, 17 => 2, _ => 1 };
            int ppi = i switch { 4 => 72, 9 => 0, 15 => 240, _ => 300 };
            string ending = i switch { 7 => "webp", 11 => "png", _ => "jpg" };
            yield return new($"piece-{i + 1:00}.{ending}", motif, 30 + i, width, height, ppi, orientation);
        }
        yield return new("jug-cut-out.png", Motif.CutOut, 33, 1800, 2000);
        yield return new("old-scan-small.jpg", Motif.Pot, 61, 300, 400, 72);
        yield return new("thumbnail-from-shop.jpg", Motif.Pair, 63, 320, 240, 96);
        yield return new("recut-later.jpg", Motif.Pot, 65, 2000, 2400);
        yield return new("gone-missing.jpg", Motif.Plate, 67, 2200, 2200);
    }

    /// <param name="store">Takes the publications.</param>
    /// <param name="reader">Reads the pictures.</param>
    /// <param name="pictureFolder">Where the drawn pictures are kept.</param>
    public static async Task MakeAsync(PublicationStore store, PictureReader reader, string pictureFolder)
    {
        var there = (await store.ListAsync()).Select(p => p.Name).ToHashSet();
        if (there.Contains(Catalog) && there.Contains(Newsletter) && there.Contains(Brochure) && there.Contains(Faults)) return;

        Directory.CreateDirectory(pictureFolder);
        Vips.Prepare();
        var images = new LinkedImage[Pictures.Length];
        await Parallel.ForAsync(0, Pictures.Length, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, (i, _) =>
        {
            string path = Path.Combine(pictureFolder, Pictures[i].File);
            Pictures[i].Write(path);
            images[i] = reader.Read(path, Pictures[i].File);
            return ValueTask.CompletedTask;
        });
        if (!there.Contains(Catalog)) await MakeCatalogAsync(store, images);
        if (!there.Contains(Newsletter)) await MakeNewsletterAsync(store, images);
        if (!there.Contains(Brochure)) await MakeBrochureAsync(store, images);
        if (!there.Contains(Faults)) await MakeFaultsAsync(store, images);

        // So that every state of a link can be seen: one file changed after it was linked, one gone.
        (Pictures[^2] with { Seed = 66 }).Write(Path.Combine(pictureFolder, Pictures[^2].File));
        File.Delete(Path.Combine(pictureFolder, Pictures[^1].File));
    }

    private sealed partial class Table(PublicationStore store, int id, double unit)
    {
        private readonly Seen _demo = Seen.Now(Maker.Server);
        private readonly Dictionary<string, int> _rules = [];
        private readonly Dictionary<string, int> _masters = [];
        private Dictionary<string, int> _images = [];
        private int _next;

        public async Task LinkAsync(IEnumerable<LinkedImage> images)
        {
            var outcome = await store.EditAsync(id, new LinkImages([.. images]), _demo);
            _images = outcome.Standing.Publication.Images.Values.ToDictionary(i => i.Name, i => i.Id);
        }

        public async Task RuleAsync(string name, string description, FitSettings settings, string? basedOn = null, bool isDefault = false)
        {
            var outcome = await store.EditAsync(id, new DefineRule
            {
                Name = name,
                Description = description,
                Settings = settings,
                BasedOnId = basedOn is null
                ? null : _rules[basedOn],
                Default = isDefault ? true : null
            }, _demo);
            _rules[name] = outcome.Changes.Items.Single(c => c.Key.Kind == PartKind.Rule).Key.Id;
        }

        private readonly Dictionary<string, int> _styles = [];

        public async Task StyleAsync(StyleKind kind, string name, string? basedOn, TextSettings settings)
        {
            var outcome = await store.EditAsync(id, new DefineStyle
            {
                Kind = kind,
                Name = name,
                BasedOnId = basedOn is null ? null : _styles[basedOn],
                Settings = settings,
                Default = name == "Text" ? true : null,
            }, _demo);
            _styles[name] = outcome.Changes.Items.Single(c => c.Key.Kind == PartKind.Style).Key.Id;
        }

        /// <summary>A paragraph of a style; words between bars have the character style that is named before a colon: "was |Old price:12| now".</summary>
        public Paragraph Styled(string style, string words) => new Paragraph("", _styles[style]).Of(words.Split('|').Select((part, i) =>
            i % 2 == 0 ? new Run(part) : new Run(part[(part.IndexOf(':', StringComparison.Ordinal) + 1)..], _styles[part[..part.IndexOf(':',
                StringComparison.Ordinal)]])));

        private string Named(string picture) => picture != "piece" ? picture : Pictures.Where(p => p.File.StartsWith("piece", StringComparison.Ordinal))
            .Select(p => p.File).ElementAt(_next++ % 22);

        /// <summary>Makes a frame, measures in the table's unit; with a picture by name, the next piece ("piece"), or none.</summary>
        public async Task FrameAsync(int page, double x, double y, double width, double height, string rule, string? picture = null, Outline? outline = null,
            string name = "", FitSettings? own = null, Look? look = null, string? named = null)
        {
            await store.EditAsync(id, new MakeFrame
            {
                Page = page,
                Box = new(x * unit, y * unit, width * unit, height * unit),
                RuleId = _rules[rule],
                ImageId = picture is null ? null : _images[Named(picture)],
                Outline = outline ?? Outline.Rectangle,
                Name = name,
                Own = own ?? FitSettings.Open,
                Look = look ?? Look.Plain,
                LookId = named is null ? null : _looks[named],
            }, _demo);
        }

        /// <summary>Makes a blank master, on whose pages frames can then be made.</summary>
        /// <returns>The numbers of its left-hand and its right-hand page.</returns>
        public async Task<(int Verso, int Recto)> MasterAsync(string name)
        {
            var outcome = await store.EditAsync(id, new MakeMaster(name), _demo);
            var made = outcome.Changes.Items.Select(c => c.After).OfType<MasterPage>().Single();
            _masters[name] = made.Id;
            var now = outcome.Standing.Publication;
            return (now.NumberOf(made.VersoId), now.NumberOf(made.RectoId));
        }

        public Task<EditOutcome> BaseAsync(string master, params int[] pages) => store.EditAsync(id, new BasePages([.. pages], _masters[master]), _demo);

        /// <summary>Puts a picture into the nth image frame of a page, in reading order, and words into the nth text frame.</summary>
        public async Task FillAsync(int page, int nth, string picture, params string[] words)
        {
            var publication = (await store.OpenAsync(id)).Publication;
            var frames = ReadingOrder.Of(publication, publication.FramesOnPage(publication.PageIdAt(page)!.Value));
            var text = frames.Where(f => f.IsText).ElementAt(nth);
            await store.EditAsync(id, new ChangeFrames { FrameIds = [frames.Where(f => !f.IsText).ElementAt(nth).Id], ImageId = new(_images[Named(picture)]) },
                _demo);
            await store.EditAsync(id, new ChangeFrames
            {
                FrameIds = [text.Id],
                Text = publication.StoryOf(text)!.Text.Worded(string.Join('\n', words))
            }, _demo);
        }

        /// <summary>Makes a text frame, measures in the table's unit.</summary>
        /// <returns>Its id.</returns>
        public async Task<int> TextAsync(int page, double x, double y, double width, double height, string name, params Paragraph[] paragraphs)
        {
            var outcome = await store.EditAsync(id, new MakeFrame
            {
                Page = page,
                Box = new(x * unit, y * unit, width * unit, height * unit),
                Name = name,
                Text = new([.. paragraphs])
            }, _demo);
            return outcome.Changes.Items.First(c => c.Key.Kind == PartKind.Frame).Key.Id;
        }

        /// <summary>Makes a round text frame on white, measures in the table's unit.</summary>
        public Task<EditOutcome> RoundAsync(int page, double x, double y, double across, Paragraph words) => store.EditAsync(id, new MakeFrame
        {
            Page = page,
            Box = new(x * unit, y * unit, across * unit, across * unit),
            Outline = Outline.Ellipse,
            Name = "In a round",
            Text = new([words]),
            Area = new() { Inset = Inset.Even(8 * unit), Vertical = VerticalPlace.Middle },
            Look = new() { Background = Colour.Of("#ffffff") },
        }, _demo);

        public Task<EditOutcome> ColumnsAsync(int frame, int count, bool balanced = false) => store.EditAsync(id,
            new ChangeFrames
            {
                FrameIds = [frame],
                Area = new()
                {
                    Columns = count,
                    Gutter = 5 * unit,
                    Balanced = balanced,
                }
            }, _demo);

        private readonly Dictionary<string, int> _colours = [];
        private readonly Dictionary<string, int> _looks = [];

        public async Task LookAsync(string name, LookSettings settings, string? basedOn = null)
        {
            var edit = new DefineLook { Name = name, Settings = settings, BasedOnId = basedOn is null ? null : _looks[basedOn] };
            _looks[name] = (await store.EditAsync(id, edit, _demo)).Changes.Items.Single(c => c.Key.Kind == PartKind.Look).Key.Id;
        }

        /// <summary>A colour of the palette, by its name.</summary>
        public NamedColour OfPalette(string colour) => new(_colours[colour]);

        public async Task PaletteAsync(params PaletteColour[] colours)
        {
            var made = (await store.EditAsync(id, new TakePalette([.. colours]), _demo)).Standing.Publication.Colours.Values;
            foreach (var colour in made) _colours[colour.Name] = colour.Id;
        }

        /// <summary>Fills what stands in braces on some pages from the rows of a price list.</summary>
        public Task<EditOutcome> PourAsync(Core.Filling.Table rows, int first, int last) => store.EditAsync(id, new PourRows
        {
            Table = rows,
            Targets = [],
            FirstPage = first,
            LastPage = last
        }, _demo);

        public Task<EditOutcome> RunOnAsync(int from, int into) => store.EditAsync(id, new RunOn(from, into), _demo);

        /// <summary>Has text keep clear of the frame that was made last.</summary>
        public async Task WrapAsync(Wrap wrap)
        {
            int last = (await store.OpenAsync(id)).Publication.Frames.Keys.Max();
            var (around, d) = (wrap.Around, wrap.Distance);
            await store.EditAsync(id, new ChangeFrames
            {
                FrameIds = [last],
                Wrap = new()
                {
                    Around = around,
                    Distance = new()
                    {
                        Top = d.Top,
                        Right = d.Right,
                        Bottom = d.Bottom,
                        Left = d.Left
                    }
                }
            }, _demo);
        }
    }

    private static async Task<Table> BeginAsync(PublicationStore store, Setup setup, int pages, IEnumerable<LinkedImage> images)
    {
        var created = await store.CreateAsync(setup, pages);
        var table = new Table(store, created.Id, Units.PointsPerMillimetre);
        // What is broken by design is on the fault sheet alone.
        await table.LinkAsync(images.Where(i => setup.Name == Faults || !Broken.Contains(i.Name)));
        await table.PaletteAsync(DemoStyles.Palette);
        foreach (var (kind, name, basedOn, settings) in DemoStyles.All(table.OfPalette)) await table.StyleAsync(kind, name, basedOn, settings);
        double air = Units.Millimetres(2);
        await table.RuleAsync("House style", "What every picture of ours keeps to", new() { Fit = FitKind.Fill, SmallestPpi = 150, Limits = LimitAction.Flag },
            isDefault: true);
        await table.RuleAsync("Full page", "Fills the frame out to the bleed", new() { Fit = FitKind.Fill, AlignX = 0.5, AlignY = 0.5 });
        await table.RuleAsync("Product shot", "The whole piece, with air around it", new()
        {
            Fit = FitKind.Fit,
            InsetTop = air,
            InsetRight = air,
            InsetBottom = air,
            InsetLeft = air
        });
        await table.RuleAsync("Product, filled", "Fills the frame, the piece's foot kept in",
            new() { Fit = FitKind.Fill, AlignX = 0.5, AlignY = 0.8, InsetTop = 0, InsetRight = 0, InsetBottom = 0, InsetLeft = 0 }, basedOn: "Product shot");
        await table.RuleAsync("Glaze sample", "Never enlarged beyond its natural size", new() { LargestEnlargement = 1, Limits = LimitAction.Hold });
        return table;
    }

    private static Setup SetupOf(string name, string edition, double width, double height, bool facing, double margin, int columns) => new()
    {
        Name = name,
        Edition = edition,
        PageWidth = Units.Millimetres(width),
        PageHeight = Units.Millimetres(height),
        Facing = facing,
        Margins = new(Units.Millimetres(margin), Units.Millimetres(margin + 4), Units.Millimetres(margin + 3), Units.Millimetres(margin)),
        Columns = new(columns, Units.Millimetres(5)),
    };

    private static async Task MakeCatalogAsync(PublicationStore store, LinkedImage[] images)
    {
        var table = await BeginAsync(store, SetupOf(Catalog, "Autumn", 210, 297, true, 14, 3), 24, images);
        await table.FrameAsync(1, -3, -3, 216, 303, "Full page", "cover-still-life.jpg", name: "Cover");
        await table.TextAsync(1, 20, 22, 170, 40, "Title", table.Styled("Title", "Autumn Catalog"),
            table.Styled("Subtitle", "Brackenfold Kilns"));
        await MakeMastersAsync(table);
        var prices = new List<ImmutableArray<string>>();
        string[] features = ["kiln-shelf-tall.jpg", "glaze-celadon.jpg", "evening-table.jpg", "glaze-tenmoku.jpg", "kiln-shelf-wide.jpg"];
        for (int spread = 1; spread <= 11; spread++)
        {
            int verso = 2 * spread, recto = verso + 1;
            if (spread is 6)
            {
                await table.FrameAsync(verso, -3, -3, 426, 190, "Full page", "kiln-shelf-wide.jpg", name: "Across the fold");
                for (int i = 0; i < 3; i++) await table.FrameAsync(verso, 14 + i * 61, 204, 56, 70, "Product shot", "piece");
                for (int i = 0; i < 3; i++) await table.FrameAsync(recto, 17 + i * 61, 204, 56, 70, "Product shot", "piece");
                continue;
            }
            if (spread % 2 == 1) await table.FrameAsync(verso, -3, -3, 213, 303, "Full page", features[spread / 2 % features.Length]);
            else
            {
                await table.FrameAsync(verso, 14, 14, 117, 150, "Product, filled", "piece");
                await table.FrameAsync(verso, 136, 14, 57, 72.5, "Product shot", "piece");
                await table.FrameAsync(verso, 136, 91.5, 57, 72.5, "Product shot", "piece");
                await table.FrameAsync(verso, 14, 169, 179, 110, "Product, filled", spread == 4 ? "window-sill.jpg" : "piece");
                await table.BaseAsync(Folio, verso);
            }
            await table.BaseAsync(SixPieces, recto);
            for (int row = 0; row < 3; row++)
            {
                for (int column = 0; column < 2; column++)
                {
                    await table.FillAsync(recto, 2 * row + column, "piece", "{Piece}", "{Price}");
                    int piece = prices.Count + 1;
                    prices.Add([$"No. {piece:00}, thrown by hand", $"{18 + piece * 7 % 60}.00"]);
                }
            }
        }
        await table.PourAsync(new(["Piece", "Price"], [.. prices]), 2, 23);
        await table.FrameAsync(24, 55, 60, 100, 100, "Glaze sample", "glaze-cobalt.tif", Outline.Ellipse, "Glaze seal",
            look: new() { Border = new(6, Colour.Of("#ffffff")), Shadow = Shadow.Usual with { Down = Units.Millimetres(2), Blur = Units.Millimetres(6) } });
    }

    private const string SixPieces = "Six pieces", Folio = "Folio only";

    /// <summary>A page of six pieces with their captions, and one that bears its number alone.</summary>
    private static async Task MakeMastersAsync(Table table)
    {
        foreach (string name in new[] { SixPieces, Folio })
        {
            var (verso, recto) = await table.MasterAsync(name);
            foreach (var (page, left, right) in new[] { (verso, 14, false), (recto, 17, true) })
            {
                var alignment = right ? TextAlignment.Right : TextAlignment.Left;
                await table.TextAsync(page, left, 285, 179, 6, "Folio", table.Styled("Folio", right ? "Brackenfold Kilns, {edition}   {page}"
                    : "{page}   Brackenfold Kilns, {edition}") with
                { Set = new() { Alignment = alignment } });
                if (name == Folio) continue;
                for (int row = 0; row < 3; row++)
                {
                    for (int column = 0; column < 2; column++)
                    {
                        await table.FrameAsync(page, left + column * 92, 14 + row * 89, 87, 74, "Product shot", name: $"Picture {2 * row + column + 1}");
                        await table.TextAsync(page, left + column * 92, 89 + row * 89, 87, 9, $"Caption {2 * row + column + 1}", table.Styled("Caption", ""),
                            table.Styled("Price", ""));
                    }
                }
            }
        }
    }

    private static async Task MakeNewsletterAsync(PublicationStore store, LinkedImage[] images)
    {
        var table = await BeginAsync(store, SetupOf(Newsletter, "No. 12", 210, 297, true, 15, 3), 4, images);
        await table.TextAsync(1, 15, 15, 177, 22, "Masthead", table.Styled("Masthead", "The Kiln Post"));
        await table.FrameAsync(1, 15, 40, 177, 105, "Full page", "evening-table.jpg", name: "Lead picture");
        int lead = await table.TextAsync(1, 76, 152, 116, 121, "Lead story", NewsletterText.Lead(table.Styled));
        await table.TextAsync(1, 76, 274, 116, 5, "Where it goes on", table.Styled("Folio", "Goes on on page {next}") with
        { Set = new() { Alignment = TextAlignment.Right } });
        await table.FrameAsync(1, 15, 152, 56, 52, "Product, filled", "piece");
        await table.TextAsync(1, 15, 206, 56, 74, "In this number", NewsletterText.Contents(table.Styled));
        await table.FrameAsync(2, 15, 15, 117, 80, "Full page", "kiln-shelf-wide.jpg");
        await table.FrameAsync(2, 137, 15, 55, 80, "Product, filled", "piece");
        int second = await table.TextAsync(2, 15, 102, 177, 176, "Lead story goes on", table.Styled("Running text", ""));
        await table.ColumnsAsync(second, 3);
        await table.RunOnAsync(lead, second);
        // Round, with the text about it.
        await table.FrameAsync(2, 106, 196, 62, 62, "Product, filled", "glaze-celadon.jpg", Outline.Ellipse, "Glaze of the month");
        await table.WrapAsync(new() { Around = WrapAround.Outline, Distance = Inset.Even(Units.Millimetres(4)) });
        int notes = await table.TextAsync(3, 18, 15, 177, 112, "Notes", NewsletterText.Notes(table.Styled));
        await table.ColumnsAsync(notes, 2, balanced: true);
        await table.FrameAsync(3, 74, 46, 70, 78, "Product shot", "jug-cut-out.png", name: "From the shelf");
        await table.WrapAsync(new() { Around = WrapAround.Contour, Distance = Inset.Even(Units.Millimetres(4)) });
        await table.FrameAsync(3, 18, 131, 177, 147, "Full page", "window-sill.jpg", own: new() { AlignY = 1 });
        await table.TextAsync(4, 15, 15, 90, 92, "Firings", NewsletterText.Firings(table.Styled));
        await table.TextAsync(4, 112, 15, 80, 92, "From the shelf, prices", NewsletterText.Prices(table.Styled));
        await table.FrameAsync(4, 15, 110, 177, 126, "Full page", "cover-still-life.jpg", own: new() { AlignY = 0.8 });
        await table.TextAsync(4, 15, 242, 177, 12, "Imprint", NewsletterText.Imprint(table.Styled));
        for (int page = 2; page <= 4; page++)
        {
            bool right = page % 2 != 0;
            await table.TextAsync(page, right ? 18 : 15, 283, 177, 6, "Folio", table.Styled("Folio", right ? "The Kiln Post, {edition}   {page}"
                : "{page}   The Kiln Post, {edition}") with
            { Set = new() { Alignment = right ? TextAlignment.Right : TextAlignment.Left } });
        }
    }

    /// <summary>The house's ink on the colour of clay, with a little more contrast and the reds lightened.</summary>
    private static Treatment InTwoInks(Table table) => new()
    {
        Grey = new(0.5, 0.45, 0.05),
        Contrast = 0.2,
        Inks = new(table.OfPalette("Kiln ink"), table.OfPalette("Cream")),
    };

    /// <summary>Rounded corners for all; small pictures lie on cards with a fine double line; wide ones may be in two inks; one lies softened and
    /// dark-edged under a title, one fades out.</summary>
    private static async Task MakeLooksAsync(Table table)
    {
        await table.LookAsync("Rounded", new() { Corners = Corners.Even(CornerKind.Round, Units.Millimetres(4)) });
        await table.LookAsync("Card", new()
        {
            Background = table.OfPalette("Cream"),
            Border = new Border(2.4, table.OfPalette("Kiln ink")) { Kind = BorderKind.Double, Place = BorderPlace.Inside },
        }, "Rounded");
        await table.LookAsync("Two inks", new() { Treatment = InTwoInks(table) }, "Rounded");
        await table.LookAsync("Under a title", new()
        {
            Treatment = new Treatment { Blur = Units.Millimetres(2), Brightness = -0.05 },
            InnerShadow = new Shadow(0, 0, Units.Millimetres(60), table.OfPalette("Kiln ink"), 0.75),
        });
        await table.LookAsync("Fading out", new() { SoftEdge = Units.Millimetres(16) });
    }

    private static async Task MakeBrochureAsync(PublicationStore store, LinkedImage[] images)
    {
        var table = await BeginAsync(store, SetupOf(Brochure, "", 210, 210, false, 12, 2), 8, images);
        await MakeLooksAsync(table);
        await table.FrameAsync(1, -3, -3, 216, 216, "Full page", "cover-still-life.jpg", own: new() { AlignY = 0.8 }, named: "Under a title");
        await table.TextAsync(1, 20, 24, 160, 46, "Title", table.Styled("Title", "From Clay to Table"), table.Styled("Subtitle", "Brackenfold Kilns"));
        for (int page = 2; page <= 7; page++)
        {
            await table.FrameAsync(page, 15, 12, 88, 88, "Product, filled", "piece", page % 2 == 0 ? Outline.Ellipse : Outline.Rectangle, named: "Card");
            // Of the last, two pictures are still to come.
            await table.FrameAsync(page, 108, 12, 88, 88, "Product shot", page == 7 ? null : "piece", named: "Card");
            await table.FrameAsync(page, 15, 105, 181, 88, "Full page", page == 7 ? null : page % 3 == 0 ? "kiln-shelf-wide.jpg" : "evening-table.jpg",
                named: page % 2 == 0 ? "Two inks" : "Rounded");
        }
        await table.AcceptEmptyAsync("The last two pictures come in October");
        await table.FrameAsync(8, 21, 21, 168, 168, "Glaze sample", "glaze-celadon.jpg", Outline.Ellipse, named: "Fading out");
        await table.RoundAsync(8, 40, 40, 130, table.Styled("Round", NewsletterText.Round));
    }
}

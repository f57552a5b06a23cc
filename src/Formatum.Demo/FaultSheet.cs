using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Imaging;
using Formatum.Storage;

namespace Formatum.Demo;

/// <summary>The fault sheet: one of each thing that the check finds, so that every state of it can be seen.</summary>
public static partial class DemoMaker
{
    /// <summary>Pictures that are there for their faults alone.</summary>
    private static readonly string[] Broken = ["old-scan-small.jpg", "thumbnail-from-shop.jpg", "recut-later.jpg", "gone-missing.jpg"];

    private sealed partial class Table
    {
        public Task<EditOutcome> DoAsync(Edit edit) => store.EditAsync(id, edit, _demo);

        /// <summary>Does something with the frame that was made last.</summary>
        public async Task LastAsync(Func<int, Edit> edit) => await DoAsync(edit((await store.OpenAsync(id)).Publication.Frames.Keys.Max()));

        /// <summary>Lets all empty placeholders be.</summary>
        public async Task AcceptEmptyAsync(string reason)
        {
            var publication = (await store.OpenAsync(id)).Publication;
            await DoAsync(new AcceptFindings([.. publication.PageFrames.Where(f => f.IsPlaceholder).OrderBy(f => f.Id).Select(f => new AcceptedFinding
            {
                Id = 0,
                Kind = FindingKind.EmptyPlaceholder,
                OnKind = PartKind.Frame,
                OnId = f.Id,
                Badness = 1,
                By = "Brackenfold Kilns",
                Reason = reason,
            })]));
        }

        public int ImageNamed(string name) => _images[name];

        /// <summary>A few words beneath what they are about.</summary>
        public Task<int> SaidAsync(int page, double x, double y, string words) => TextAsync(page, x, y, 56, 9, "", Styled("Caption", words));
    }

    private static async Task MakeFaultsAsync(PublicationStore store, LinkedImage[] images)
    {
        // Six pages: not a multiple of four; the last is blank.
        var table = await BeginAsync(store, SetupOf(Faults, "", 210, 297, true, 15, 3), 6, images);
        await MakePictureFaultsAsync(table);
        await MakePlaceFaultsAsync(table);
        await MakeTextFaultsAsync(table);
        await MakeColourFaultsAsync(table);
    }

    /// <summary>Page 1: pictures and their files.</summary>
    private static async Task MakePictureFaultsAsync(Table table)
    {
        async Task ShownAsync(int at, string words, string? picture, string rule = "Product, filled", double width = 54, double height = 62,
            FitSettings? own = null)
        {
            double x = 18 + 60 * (at % 3), y = 20 + 82 * (at / 3);
            await table.SaidAsync(1, x, y + 65, words);
            await table.FrameAsync(1, x, y, width, height, rule, picture, own: own);
        }
        await ShownAsync(0, "The file is missing", "gone-missing.jpg", "Product shot");
        await ShownAsync(1, "The file has changed", "recut-later.jpg", "Product shot");
        await ShownAsync(2, "Too coarse", "thumbnail-from-shop.jpg");
        await ShownAsync(3, "Softer than wanted", "old-scan-small.jpg", width: 36, height: 46);
        await ShownAsync(4, "Out of its proportions", "piece", own: new() { Fit = FitKind.Stretch });
        await ShownAsync(5, "Larger than its rule wants", "piece", own: new() { LargestEnlargement = 0.1, Limits = LimitAction.Flag });
        await ShownAsync(6, "Part of the frame is bare", "piece");
        await table.LastAsync(id => new ChangeFrames { FrameIds = [id], Recrop = new(0.7, null) });
        await ShownAsync(7, "No picture yet", null);
        await ShownAsync(8, "What matters is cut off", "kiln-shelf-wide.jpg");
        await table.DoAsync(new ChangeSubjects([new(table.ImageNamed("kiln-shelf-wide.jpg"), new(0.05, 0.5), null)]));
        await table.LastAsync(id => new ChangeFrames { FrameIds = [id], Recrop = new(1, new(0.9, 0.5)) });
    }

    /// <summary>Page 2: where things lie.</summary>
    private static async Task MakePlaceFaultsAsync(Table table)
    {
        await table.FrameAsync(2, -70, 20, 60, 60, "Product, filled", "piece", name: "Beside the page");
        await table.FrameAsync(2, 0, 20, 60, 50, "Product, filled", "piece", name: "Ends at the trim");
        await table.SaidAsync(2, 15, 73, "Ends at the trim, without bleed");
        await table.FrameAsync(2, 1.5, 95, 60, 50, "Product, filled", "piece", name: "Near the trim");
        await table.SaidAsync(2, 15, 148, "Too near to the trim");
        foreach (double x in new[] { 80.0, 140 }) await table.FrameAsync(2, x, 20, 50, 50, "Product, filled", "glaze-cobalt.tif");
        await table.SaidAsync(2, 80, 73, "The same picture twice");
        await table.FrameAsync(2, 80, 95, 50, 50, "Product, filled", "piece",
            look: new() { Border = new(0.1, table.OfPalette("Black")) });
        await table.SaidAsync(2, 80, 148, "A line too thin to print");
        await table.FrameAsync(2, 15, 180, 60, 50, "Product, filled", "piece", look: new() { Blend = Blend.Multiply });
        await table.SaidAsync(2, 15, 233, "Blended with what lies beneath");
        await table.FrameAsync(2, 140, 95, 50, 50, "Product, filled", "piece", name: "Hidden, and forgotten?");
        await table.LastAsync(id => new ChangeFrames { FrameIds = [id], Hidden = true });
        await table.TextAsync(2, 120, 180, 170, 14, "Across the fold", table.Styled("Text",
            "These words run on over the fold, where nobody can read them, and into the page beside"));
    }

    /// <summary>Page 3: words.</summary>
    private static async Task MakeTextFaultsAsync(Table table)
    {
        await table.TextAsync(3, 20, 20, 70, 30, "More than fits", table.Styled("Running text",
            string.Join(' ', Enumerable.Repeat("Slow wheels and ash from the hearth give each bowl its own skin.", 8))));
        await table.SaidAsync(3, 20, 53, "More words than fit");
        await table.TextAsync(3, 110, 20, 70, 12, "A sign of old", table.Styled("Text", "A sign no font here has: \U00013000"));
        await table.TextAsync(3, 110, 40, 70, 12, "Mistyped", table.Styled("Text", "Goes on on page {pgae}"));
        await table.TextAsync(3, 20, 75, 70, 12, "Small print", table.Styled("Caption", "Too small for most eyes") with { Set = new() { Size = 4 } });
        await table.TextAsync(3, 110, 75, 70, 12, "In four inks", table.Styled("Text", "Black of four inks, in small letters") with
        {
            Set = new() { Colour = new CmykColour(0.6, 0.5, 0.4, 1) },
        });
    }

    /// <summary>Pages 4 and 5: colours and ink. The sixth page stays blank.</summary>
    private static async Task MakeColourFaultsAsync(Table table)
    {
        await table.FrameAsync(4, 20, 20, 60, 60, "Full page", name: "Bright light", look: new() { Background = Colour.Of("#1fd65f") });
        await table.LastAsync(id => new ChangeFrames { FrameIds = [id], RuleId = new(null) });
        await table.SaidAsync(4, 20, 83, "A colour of light, which no inks come near to");
        await table.FrameAsync(4, 110, 20, 60, 60, "Full page", name: "All inks", look: new() { Background = new CmykColour(1, 0.9, 0.9, 0.7) });
        await table.LastAsync(id => new ChangeFrames { FrameIds = [id], RuleId = new(null) });
        await table.SaidAsync(4, 110, 83, "More ink than paper takes");
        await table.TextAsync(5, 20, 20, 120, 40, "What this is", table.Styled("Heading", "The fault sheet"), table.Styled("Text",
            "Each of these pages has what the check finds: look at them there, and try what each remedy does."));
    }
}

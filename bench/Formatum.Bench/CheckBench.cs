using System.Diagnostics;
using System.Globalization;
using Formatum.Core.Checking;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Output;

namespace Formatum.Bench;

/// <summary>The findings on a publication of 500 pages and 6,000 frames: after each edit, against measuring all from new.</summary>
internal static class CheckBench
{
    private const int Pages = 500, PicturesEach = 10, Repeats = 61;

    public static void Run()
    {
        var publication = Made();
        var profile = publication.Profile;
        PublicationFindings Anew(Publication p) => PublicationFindings.Of(p, profile, CheckFacts.None, Typefaces.All);
        Anew(publication);
        double anew = Median(i => Timed(() => Anew(Touch(publication, i)).All.Length));
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"{publication.PageCount} pages, {publication.Frames.Count} frames, {Anew(publication).All.Length} findings, measured from new: {anew:0} ms"));
        var picture = publication.Frames.Values.First(f => f.ImageId is not null && publication.NumberOf(f.PageId) == 250);
        var text = publication.Frames.Values.First(f => f.IsText && publication.NumberOf(f.PageId) == 250);
        Tell("a frame moved", publication, i => new PlaceFrames([new(picture.Id, 250, picture.Box.Moved(i + 1, 0))]), anew);
        Tell("words typed", publication, i => new WriteText(text.Id, publication.StoryOf(text)!.Text.Plain + new string('a', i + 1)), anew);
        Tell("a rule changed", publication, i => new DefineRule
        {
            RuleId = publication.Rules.Keys.Single(),
            Name = "All",
            Settings = new() { AlignX = i / 100.0 },
        }, anew);
        Tell("two pages added", publication, i => new AddPages(101, 2), anew);
    }

    /// <summary>The same publication, with nothing worked out of it yet.</summary>
    private static Publication Touch(Publication p, int i) => p.With(new ChangeSetup(p.Setup with { Edition = $"{i}" }).On(p));

    private static void Tell(string what, Publication publication, Func<int, Edit> edit, double anew)
    {
        var kept = PublicationFindings.Of(publication, publication.Profile, CheckFacts.None, Typefaces.All);
        _ = kept.All;
        double after = Median(i =>
        {
            var next = publication.With(edit(i).On(publication));
            return Timed(() => kept.After(next, CheckFacts.None).All.Length);
        });
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"after {what}: {after:0.0} ms: ratio {after / anew:0.000}"));
    }

    private static double Timed(Func<int> work)
    {
        var watch = Stopwatch.StartNew();
        work();
        return watch.Elapsed.TotalMilliseconds;
    }

    private static double Median(Func<int, double> timed) => Enumerable.Range(0, Repeats).Select(timed).Order().ElementAt(Repeats / 2);

    private static Publication Made()
    {
        Publication Do(Publication p, Edit edit) => p.With(edit.On(p));
        var p = Publication.Create(new() { Name = "Bench", PageWidth = Units.Millimetres(210), PageHeight = Units.Millimetres(297), Facing = true }, Pages);
        p = Do(p, new MakeMaster("Run", null));
        foreach (int side in new[] { -1, -2 })
            p = Do(p, new MakeFrame { Page = side, Box = new(100, 800, 200, 20), Text = new([new("{page} of {publication}", TextStyle.Usual)]) });
        p = Do(p, new BasePages([.. Enumerable.Range(1, Pages)], p.Masters.Keys.Single()));
        p = Do(p, new DefineRule { Name = "All" });
        p = Do(p, new LinkImages([.. Enumerable.Range(1, 1000).Select(Image)]));
        int[] images = [.. p.Images.Keys.Order()];
        string words = string.Join(' ', Enumerable.Repeat("Slow wheels and ash from the hearth give each bowl its own skin.", 12));
        var parts = new List<Part>();
        int id = p.NextId;
        for (int page = 0; page < Pages; page++)
        {
            int pageId = p.Order.Ids[page];
            for (int i = 0; i < PicturesEach; i++)
                parts.Add(new Frame
                {
                    Id = id++,
                    PageId = pageId,
                    Box = new(40 + i % 2 * 260, 40 + i / 2 * 110, 240, 100),
                    RuleId = p.Rules.Keys.Single(),
                    ImageId = images[(page * PicturesEach + i) % images.Length],
                });
            for (int i = 0; i < 2; i++)
            {
                parts.Add(new Frame { Id = id, PageId = pageId, Box = new(40 + i * 260, 600, 240, 180), StoryId = id + 1 });
                parts.Add(new Story { Id = id + 1, FrameIds = [id], Text = new([new(words, TextStyle.Usual)]) });
                id += 2;
            }
        }
        return Publication.FromParts(id, p.Parts.Concat(parts));
    }

    private static LinkedImage Image(int i) => new()
    {
        Id = 0,
        Name = $"{i}.jpg",
        Path = $"/{i}.jpg",
        Bytes = 1,
        Modified = default,
        ContentHash = i.ToString("x64", CultureInfo.InvariantCulture),
        Format = "jpeg",
        StoredWidthPx = i % 10 == 0 ? 300 : 3000,
        StoredHeightPx = 2000,
        StoredPpiX = 300,
        StoredPpiY = 300,
    };
}

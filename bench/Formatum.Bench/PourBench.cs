using System.Diagnostics;
using Formatum.Core.Edits;
using Formatum.Core.Filling;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using QuikGraph.Algorithms.Assignment;

namespace Formatum.Bench;

/// <summary>2,000 pictures poured into 2,000 placeholders; and the assignment alone beside a solver library.</summary>
public static class PourBench
{
    private const int Count = 2000, Compared = 400;

    public static void Run()
    {
        // Sizes that all differ are the hard case; a catalog has a few sizes of frames and of pictures.
        foreach (int kinds in new[] { 12, Count })
        {
            var p = Make(kinds);
            foreach (var order in new[] { PourOrder.Tray, PourOrder.Best })
            {
                var watch = Stopwatch.StartNew();
                var after = p.With(new PourImages { ImageIds = [.. p.Images.Keys.Order()], FrameIds = [.. p.Frames.Keys], Order = order }.On(p));
                double seconds = watch.Elapsed.TotalSeconds;
                double total = after.Frames.Values.Sum(f => Pouring.Cost(after.Setup, after.PictureFitOf(f)!.Value));
                Console.WriteLine($"{Count} pictures of {kinds} sizes into {Count} frames of {kinds} sizes, {order}: {seconds:0.00} s, total cost {total:0.0}");
            }
        }
        var random = new Random(3);
        var whole = new int[Compared, Compared];
        var costs = new double[Compared, Compared];
        for (int r = 0; r < Compared; r++)
            for (int c = 0; c < Compared; c++) costs[r, c] = whole[r, c] = random.Next(10_000);
        Assignment.Solve(new double[,] { { 1, 2 }, { 2, 1 } });
        var ours = Stopwatch.StartNew();
        double found = Assignment.Solve(costs).Total;
        ours.Stop();
        var theirs = Stopwatch.StartNew();
        double same = new HungarianAlgorithm(whole).Compute().Select((c, r) => costs[r, c]).Sum();
        theirs.Stop();
        Console.WriteLine($"assignment of {Compared} x {Compared}: ours {ours.Elapsed.TotalMilliseconds:0} ms, QuikGraph " +
            $"{theirs.Elapsed.TotalMilliseconds:0} ms: ratio {ours.Elapsed / theirs.Elapsed:0.000}; totals {found} and {same}");
    }

    private static Publication Make(int kinds)
    {
        var random = new Random(kinds);
        var parts = new List<Part> { new Setup { Name = "Bench", PageWidth = Units.Millimetres(210), PageHeight = Units.Millimetres(297) } };
        var pages = Enumerable.Range(1, Count / 6 + 1).ToList();
        parts.Add(new PageOrder([.. pages]));
        parts.AddRange(pages.Select(id => new Page(id)));
        (int Width, int Height)[] sizes = [.. Enumerable.Range(0, kinds).Select(_ => (800 + random.Next(4000), 800 + random.Next(4000)))];
        (double Width, double Height)[] boxes = [.. Enumerable.Range(0, kinds).Select(_ => (60 + 200 * random.NextDouble(), 60 + 200 * random.NextDouble()))];
        for (int i = 0; i < Count; i++)
        {
            var (width, height) = boxes[i % kinds];
            parts.Add(new Frame { Id = 10_000 + i, PageId = pages[i / 6], Box = new(20 + i % 2 * 280, 20 + i % 6 / 2 * 270, width, height) });
            int size = random.Next(kinds);
            parts.Add(new LinkedImage
            {
                Id = 20_000 + i,
                Name = $"p{i}.jpg",
                Path = $"/p{i}.jpg",
                Bytes = 1,
                Modified = default,
                ContentHash = $"{i}",
                Format = "jpeg",
                StoredWidthPx = sizes[size].Width,
                StoredHeightPx = sizes[size].Height,
                StoredPpiX = 300,
                StoredPpiY = 300,
            });
        }
        return Publication.FromParts(30_000, parts);
    }
}

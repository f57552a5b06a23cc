using CsCheck;
using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Tests.Edits;
using Formatum.Core.Tests.Typesetting;

namespace Formatum.Core.Tests.Composing;

/// <summary>Text that keeps clear of what a picture shows.</summary>
public sealed class ContourWrapTests
{
    private static readonly HalfWide Fonts = new();

    private static readonly Contour Diamond = new(0.5, [[new(0.5, 0.1), new(0.9, 0.5), new(0.5, 0.9), new(0.1, 0.5)]]);

    private static readonly LinkedImage Picture = new()
    {
        Id = 0,
        Name = "cut.png",
        Path = "/cut.png",
        Bytes = 1,
        Modified = default,
        ContentHash = new('a', 64),
        Format = "png",
        StoredWidthPx = 300,
        StoredHeightPx = 300,
        HasAlpha = true,
        Contour = Diamond,
    };

    /// <summary>A page full of words, and a picture of 100 points in its middle that text keeps clear of.</summary>
    private static (Publication Publication, Frame Text, Frame Image) Begun(FitKind fit = FitKind.Fit, double angle = 0, double distance = 0,
        Outline? outline = null, bool placed = true)
    {
        var p = Publication.Create(new() { Name = "C", PageWidth = 300, PageHeight = 300 }, 1).Do(new LinkImages([Picture]));
        string words = string.Join(' ', Enumerable.Repeat("clay", 900));
        p = p.Do(new MakeFrame { Page = 1, Box = new(0, 0, 300, 300), Text = new([new(words, new TextStyle { Size = 4, Leading = 5 })]) });
        p = p.Do(new MakeFrame { Page = 1, Box = new(100, 100, 100, 100), Outline = outline ?? Outline.Rectangle });
        int image = p.Frames.Values.Single(f => !f.IsText).Id;
        if (placed) p = p.Do(new ChangeFrames { FrameIds = [image], ImageId = new(p.Images.Keys.Single()) });
        p = p.Do(new ChangeFrames
        {
            FrameIds = [image],
            Angle = angle,
            Set = new() { Fit = fit },
            Wrap = new() { Around = WrapAround.Contour, Distance = new() { Top = distance, Right = distance, Bottom = distance, Left = distance } },
        });
        return (p, p.Frames.Values.Single(f => f.IsText), p.Frames[image]);
    }

    /// <summary>How near the middle of the picture text comes at a height, to the left of it.</summary>
    private static double Gap(Publication p, Frame text, double y) => 150 - Composition.TextOf(p, text, Fonts)!.Lines
        .Where(l => l.Bottom - 5 <= y && l.Bottom >= y && l.X < 150).Max(l => l.X + l.Width);

    [Fact]
    public void Text_comes_as_near_as_the_contour_lets_it()
    {
        var (p, text, _) = Begun();
        // The diamond reaches 40 points to the sides at its middle, and half so far a quarter of the way up; words are 8 wide.
        Gap(p, text, 150).ShouldBeInRange(40, 50);
        Gap(p, text, 130).ShouldBeInRange(20, 32.5);
        // Turned by 45 degrees it is a square whose sides lie 28.3 points off.
        var turned = Begun(angle: 45);
        Gap(turned.Publication, turned.Text, 150).ShouldBeInRange(28.2, 39);
        Gap(turned.Publication, turned.Text, 130).ShouldBeInRange(28.2, 39);
        var (kept, keptText, _) = Begun(distance: 10);
        Gap(kept, keptText, 150).ShouldBeInRange(50, 60);
    }

    [Fact]
    public void What_the_frame_hides_of_it_takes_no_room_and_without_a_picture_the_frame_does()
    {
        // Filled at twice the size by hand, the diamond is cut at the frame's edge.
        var (p, text, image) = Begun(FitKind.Fill);
        p = p.Do(new ChangeFrames { FrameIds = [image.Id], Recrop = new Recrop(2, new Vec(0.5, 0.5)) });
        Gap(p, text, 150).ShouldBeInRange(50, 60);
        Gap(p, text, 90).ShouldBeLessThan(10, "above the frame nothing is seen");
        var (empty, words, _) = Begun(placed: false);
        Gap(empty, words, 105).ShouldBeInRange(50, 60);
        var (round, roundWords, _) = Begun(placed: false, outline: Outline.Ellipse);
        Gap(round, roundWords, 105).ShouldBeLessThan(40);
        // Where none was told from the ground, neither when it was read nor at a strength that was asked for since, the frame takes the room too.
        foreach (var none in new[] { null, new Contour(0.9, []) })
        {
            var (plain, plainWords, plainImage) = Begun();
            plain = plain.Do(new ChangeContour(plainImage.ImageId!.Value, none));
            Gap(plain, plainWords, 105).ShouldBeInRange(50, 60);
        }
    }

    [Fact]
    public void No_line_touches_a_contour_however_the_picture_lies() => (from angle in Gen.Double[0, 360]
                                                                         from turn in Gen.Double[0, 360]
                                                                         from zoom in Gen.Double[0.3, 3]
                                                                         from distance in Gen.Double[0, 12]
                                                                         from x in Gen.Double[0, 1]
                                                                         select (angle, turn, zoom, distance, x)).Sample(c =>
        {
            var (p, text, image) = Begun(FitKind.Fill, c.angle, c.distance);
            p = p.Do(new ChangeFrames
            {
                FrameIds = [image.Id],
                Set = new() { Fit = FitKind.Fill, Rotation = c.turn },
                Recrop = new Recrop(c.zoom, new Vec(c.x, 0.5))
            });
            image = p.Frames[image.Id];
            var outline = image.Outline.Flatten(100, 100);
            var rings = Wraps.ContourOf(p, image, outline)!.Value;
            var toPage = image.Pose.ToPage;
            foreach (var line in Composition.TextOf(p, text, Fonts)!.Lines)
            {
                for (int i = 0; i <= 6; i++)
                {
                    var at = new Vec(line.X + line.Width * i / 6, line.Bottom - 2.5);
                    foreach (var ring in rings) IsIn([.. ring.Select(toPage.Apply)], at).ShouldBeFalse($"{line.Text} at {at}");
                }
            }
        }, iter: 60);

    private static bool IsIn(Vec[] ring, Vec p)
    {
        bool inside = false;
        for (int i = 0; i < ring.Length; i++)
        {
            Vec a = ring[i], b = ring[(i + 1) % ring.Length];
            if (a.Y > p.Y != b.Y > p.Y && p.X < a.X + (b.X - a.X) * (p.Y - a.Y) / (b.Y - a.Y)) inside = !inside;
        }
        return inside;
    }

    [Fact]
    public void A_contour_out_of_all_measure_is_refused()
    {
        var (p, _, image) = Begun();
        int id = image.ImageId!.Value;
        foreach (var bad in new Contour[] { new(2, []), new(0.5, [[new(0, 0), new(1, 1)]]), new(0.5, [[new(0, 0), new(1, double.NaN), new(1, 0)]]),
            new(0.5, [[.. Enumerable.Range(0, 700).Select(_ => new Vec(0, 0))]]), new(double.NaN, []) })
            Should.Throw<EditRefused>(() => p.Do(new ChangeContour(id, bad)));
        p.Do(new ChangeContour(id, null)).Images[id].Contour.ShouldBeNull();
    }
}

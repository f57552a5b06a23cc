using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Testing;

namespace Formatum.Output.Tests;

/// <summary>Publications with real picture files in a folder of their own.</summary>
public sealed class Workshop : IDisposable
{
    public TempFolder Folder { get; } = new();
    public PreviewStore Previews { get; }
    public PictureReader Reader { get; }

    public Workshop()
    {
        Previews = new(Folder["previews"]);
        Reader = new(new PictureLimits(), Previews);
    }

    public static Setup A4(bool facing = false) => new()
    {
        Name = "Proof (1) \\ \u201cquoted\u201d",
        PageWidth = PaperSize.Named("A4")!.Width,
        PageHeight = PaperSize.Named("A4")!.Height,
        Facing = facing,
    };

    public LinkedImage Quarters(string name, int width, int height, double ppi = 150, int orientation = 1)
    {
        using var picture = TestPictures.Quarters(width, height);
        return Reader.Read(TestPictures.Save(picture, Folder[name], ppi, orientation), name);
    }

    public static Publication Do(Publication publication, Edit edit) => publication.With(edit.On(publication));

    public static Publication Link(Publication publication, params LinkedImage[] images) => Do(publication, new LinkImages([.. images]));

    public static int IdOf(Publication publication, string name) => publication.Images.Values.First(i => i.Name == name).Id;

    /// <summary>A page that shows every orientation, several fits, a clipped ellipse, an image turned and one flipped.</summary>
    public Publication Sampler()
    {
        var p = Publication.Create(A4(), 1);
        for (int o = 1; o <= 8; o++) p = Link(p, Quarters($"o{o}.jpg", 400, 300, 150, o));
        p = Link(p, Quarters("q.png", 300, 420), Quarters("q.tif", 300, 200), Quarters("q.webp", 300, 200));
        FitKind[] fits = [FitKind.Fill, FitKind.Fit, FitKind.Stretch, FitKind.Natural];
        for (int i = 0; i < 16; i++)
        {
            string name = i < 8 ? $"o{i + 1}.jpg" : new[] { "q.png", "q.tif", "q.webp", "o6.jpg" }[i % 4];
            p = Do(p, new MakeFrame
            {
                Page = 1,
                Box = new(30 + i % 4 * 135, 30 + i / 4 * 190, 120, 160),
                Outline = i % 5 == 3 ? Outline.Ellipse : Outline.Rectangle,
                ImageId = IdOf(p, name),
                Look = Looks[i],
                Angle = i is 6 ? 200 : 0,
                Own = new()
                {
                    Fit = i < 8 ? FitKind.Fit : fits[i % 4],
                    AlignX = i % 3 / 2.0,
                    AlignY = i % 2,
                    Rotation = i is 13 or 10 ? 25 : 0,
                    FlipX = i == 14
                },
            });
        }
        // A placeholder of which only the background and the border print.
        return Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(565, 760, 20, 60),
            Look = new()
            {
                Background = Colour.Of("#2f6f4f"),
                Border = new(4, Colour.Of("#7a3b69")),
                Opacity = 0.5
            }
        });
    }

    /// <summary>Looks for the frames of the sampler, most of them plain.</summary>
    private static readonly Look[] Looks =
    [
        Look.Plain, new() { Border = new(6, Colour.Of("#2f6f4f")) }, new() { Background = Colour.Of("#dfe5d8"), Shadow = new(5, 8, 6, Colour.Of("#000000"),
            0.6) },
            new() { Background = Colour.Of("#dfe5d8"), Border = new(3, Colour.Of("#000000")), Shadow = new(-6, 4, 0, Colour.Of("#7a3b69"), 1) },
        new() { Opacity = 0.4 }, Look.Plain, new() { Background = Colour.Of("#ffffff"), Shadow = new(10, 6, 4, Colour.Of("#1f2723"), 0.8) },
            new() { Background = Colour.Of("#e2ede5"), Border = new(1.5, Colour.Of("#9a3b1f")), Opacity = 0.7, Shadow = Shadow.Usual },
        .. Enumerable.Repeat(Look.Plain, 8),
    ];

    public void Dispose() => Folder.Dispose();
}

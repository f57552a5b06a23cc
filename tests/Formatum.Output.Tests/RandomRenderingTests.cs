using System.Globalization;
using Formatum.Core.Colours;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Testing;
using NetVips;

namespace Formatum.Output.Tests;

/// <summary>
/// Twelve pages of whatever comes, the same every time: as SVG in Chromium, as PNG, and as PDF through poppler and mupdf. Four programs' eyes on one scene.
/// </summary>
public sealed class RandomRenderingTests : IDisposable
{
    private const int Pages = 12, Ppi = 96;

    /// <summary>PDFs and PNGs are read so many times finer and averaged: how a program smooths the edges of letters is not what is compared.</summary>
    private const int Finer = 3;

    /// <summary>On average of all pixels and channels, of 255; and the share of a page where more than edges differ.</summary>
    private const double MostMean = 1, MostThick = 0.005;

    /// <summary>A pixel is apart from here on; what is three pixels thick everywhere is more than an edge that is smoothed otherwise.</summary>
    private const double Apart = 24;

    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private sealed class Chance(int seed)
    {
        private readonly Random _random = new(seed);

        public double Between(double least, double most) => least + _random.NextDouble() * (most - least);

        public int Below(int count) => _random.Next(count);

        public bool OneIn(int count) => _random.Next(count) == 0;

        public T Of<T>(params ReadOnlySpan<T> choices) => choices[_random.Next(choices.Length)];

        public Colour Colour() => OneIn(4) ? new CmykColour(Tenth(), Tenth(), Tenth(), Tenth() / 2) : new RgbColour((byte)Below(256), (byte)Below(256),
            (byte)Below(256));

        private double Tenth() => Below(11) / 10.0;
    }

    private Publication Page(int seed)
    {
        var chance = new Chance(seed);
        var p = Publication.Create(Workshop.A4() with { PageWidth = 400, PageHeight = 300, Bleed = 0 }, 1);
        p = Workshop.Link(p, Photograph(seed),
            _shop.Quarters($"turned{seed}.jpg", 600, 400, 150, chance.Below(8) + 1), Through($"through{seed}.png"), Drawn($"drawn{seed}.svg", chance));
        int[] images = [.. p.Images.Keys];
        for (int i = 0; i < 9; i++) p = Workshop.Do(p, Frame(chance, images));
        return p;
    }

    /// <summary>With about as many pixels as the page shows: of many more each program takes others.</summary>
    private LinkedImage Photograph(int seed)
    {
        string name = $"photo{seed}.jpg";
        using var small = Image.Thumbnail(TestPictures.Photographs[seed % TestPictures.Photographs.Count], 400);
        small.Jpegsave(_shop.Folder[name], q: 92);
        return _shop.Reader.Read(_shop.Folder[name], name);
    }

    private LinkedImage Through(string name)
    {
        using var picture = TestPictures.Quarters(300, 300);
        using var xy = Image.Xyz(300, 300);
        using var cover = xy.ExtractBand(0).Linear([0.8], [10.0]).Cast(Enums.BandFormat.Uchar);
        using var whole = picture.Bandjoin(cover);
        whole.Pngsave(_shop.Folder[name]);
        return _shop.Reader.Read(_shop.Folder[name], name);
    }

    private LinkedImage Drawn(string name, Chance chance)
    {
        File.WriteAllText(_shop.Folder[name],
            string.Create(CultureInfo.InvariantCulture, $"<svg xmlns='http://www.w3.org/2000/svg' width='200' height='120'>") +
            $"<rect width='200' height='120' fill='{chance.Colour().Hex}'/><path d='M20 100L60 20l40 80 40-80' fill='none' stroke='{chance.Colour().Hex}' " +
            "stroke-width='9' stroke-linejoin='round'/></svg>");
        return _shop.Reader.Read(_shop.Folder[name], name);
    }

    private static MakeFrame Frame(Chance chance, int[] images)
    {
        double width = chance.Between(50, 180), height = chance.Between(40, 140);
        bool isText = chance.OneIn(3);
        return new()
        {
            Page = 1,
            Box = new(chance.Between(-20, 400 - width + 20), chance.Between(-20, 300 - height + 20), width, height),
            Angle = chance.OneIn(3) ? chance.Between(0, 360) : 0,
            Outline = chance.OneIn(3) ? Outline.Ellipse : chance.OneIn(3) ? Outlines.Polygon(3 + chance.Below(5)) : Outline.Rectangle,
            ImageId = isText || chance.OneIn(6) ? null : images[chance.Below(images.Length)],
            Own = isText ? new() : new()
            {
                Fit = chance.Of(FitKind.Fill, FitKind.Fit, FitKind.Stretch, FitKind.FillOrFit),
                Rotation = chance.OneIn(4) ? chance.Between(0, 360) : 0,
                FlipX = chance.OneIn(4),
            },
            Text = isText ? Words(chance) : null,
            Look = Look(chance, isText),
        };
    }

    private static FrameText Words(Chance chance)
    {
        var style = TextStyle.Usual with
        {
            Size = chance.Between(8, 22),
            Family = chance.Of([.. TextStyle.Families]),
            Bold = chance.OneIn(3),
            Italic = chance.OneIn(3),
            Colour = chance.Colour(),
            Tracking = chance.OneIn(4) ? chance.Between(-20, 60) : 0,
        };
        return new([new("Bowls that office fi\u0301rings \u2014 \u201cslow\u201d \u2014 leave 12\u00bd mm thick, and \u05e9\u05dc\u05d5\u05dd.", style)]);
    }

    private static Look Look(Chance chance, bool isText) => new()
    {
        Background = isText || chance.OneIn(2) ? chance.Colour() : null,
        Border = chance.OneIn(2) ? new(chance.Between(0.5, 8), chance.Colour())
        {
            Kind = chance.Of(BorderKind.Solid, BorderKind.Dashed, BorderKind.Dotted, BorderKind.Double),
            Join = chance.Of(LineJoin.Miter, LineJoin.Round, LineJoin.Bevel),
        } : null,
        Corners = chance.OneIn(3) ? Corners.Even(chance.Of(CornerKind.Round, CornerKind.Bevel, CornerKind.Scoop), chance.Between(2, 20)) : null,
        Opacity = chance.OneIn(3) ? chance.Between(0.2, 1) : 1,
        Blend = chance.OneIn(4) ? chance.Of(Blend.Multiply, Blend.Screen, Blend.Darken, Blend.Lighten, Blend.Overlay) : Blend.Normal,
        Shadow = chance.OneIn(3) ? new(chance.Between(-8, 8), chance.Between(-8, 8), chance.Between(0, 10), chance.Colour(), chance.Between(0.3, 1)) : null,
        SoftEdge = chance.OneIn(6) ? chance.Between(2, 10) : 0,
        InnerShadow = chance.OneIn(6) ? new(chance.Between(-6, 6), chance.Between(-6, 6), chance.Between(1, 8), chance.Colour(), 0.7) : null,
        Treatment = !isText && chance.OneIn(3) ? new()
        {
            Grey = chance.OneIn(3) ? GreyMix.Usual : null,
            Brightness = chance.Between(-0.2, 0.2),
            Contrast = chance.Between(-0.2, 0.2),
            Blur = chance.OneIn(3) ? chance.Between(1, 5) : 0,
        } : null,
    };

    [Fact]
    public void Whatever_comes_looks_the_same_in_every_output()
    {
        using var browser = new Browser(800, 600);
        var wrong = new List<string>();
        for (int seed = 1; seed <= Pages; seed++)
        {
            var all = Shown(Page(seed), seed, browser);
            foreach (var (name, picture) in all.Skip(1))
            {
                var (mean, thick) = Difference(all[0].Picture, picture);
                if (mean >= MostMean || thick >= MostThick)
                    wrong.Add(string.Create(CultureInfo.InvariantCulture, $"page {seed} as {name}: {mean:0.00} of 255, {thick:0.00%} thick"));
            }
            foreach (var (_, picture) in all) picture.Dispose();
        }
        wrong.ShouldBeEmpty();
    }

    private List<(string Name, Image Picture)> Shown(Publication p, int seed, Browser browser)
    {
        var spread = Spread.At(p, 0);
        var scene = Composer.Compose(p, spread, Typefaces.All);
        using var stream = new MemoryStream();
        PngWriter.Page(scene, spread.Pages[0], Ppi * Finer, stream);
        string pdf = _shop.Folder[$"{seed}.pdf"], html = _shop.Folder[$"{seed}.html"];
        PdfWriter.Write(p, new(_shop.Previews), new(Bleed: false), pdf);
        Tool.Run("pdftoppm", "-r", $"{Ppi * Finer}", "-png", "-singlefile", pdf, _shop.Folder[$"poppler{seed}"]);
        Tool.Run("mutool", "draw", "-q", "-r", $"{Ppi * Finer}", "-o", _shop.Folder[$"mupdf{seed}.png"], pdf);
        string svg = SvgWriter.Page(scene, spread.Pages[0], "Random", image => "file://" + _shop.Previews.Find(image.ContentHash, 1600));
        File.WriteAllText(html, $"<!doctype html><meta charset=\"utf-8\"><style>body{{margin:0}}svg{{display:block}}</style>{svg}");
        browser.Driver.Navigate().GoToUrl("file://" + html);
        static Image Colours(Image image, int finer = Finer) => image.ExtractBand(0, n: 3).Shrink(finer, finer);
        return
        [
            ("PNG", Colours(Image.PngloadBuffer(stream.ToArray()))), ("SVG", Colours(Image.PngloadBuffer(browser.Driver.GetScreenshot().AsByteArray), 1)),
            ("PDF in poppler", Colours(Image.Pngload(_shop.Folder[$"poppler{seed}.png"]))),
                ("PDF in mupdf", Colours(Image.Pngload(_shop.Folder[$"mupdf{seed}.png"]))),
        ];
    }

    private static (double Mean, double Thick) Difference(Image a, Image b)
    {
        int width = Math.Min(a.Width, b.Width), height = Math.Min(a.Height, b.Height);
        using var apart = (a.Crop(0, 0, width, height) - b.Crop(0, 0, width, height)).Abs();
        using var mean = apart.Bandmean();
        using var far = mean > Apart;
        using var square = Image.NewFromArray(new[] { new[] { 255, 255, 255 }, new[] { 255, 255, 255 }, new[] { 255, 255, 255 } });
        using var thick = far.Morph(square, Enums.OperationMorphology.Erode);
        using var grown = thick.Morph(square, Enums.OperationMorphology.Dilate);
        return (apart.Avg(), grown.Avg() / 255);
    }
}

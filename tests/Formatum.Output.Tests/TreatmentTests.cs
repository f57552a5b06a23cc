using Formatum.Core.Colours;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Testing;
using NetVips;

namespace Formatum.Output.Tests;

/// <summary>Pictures treated: as SVG filters in Chromium, as pixels of ours in PNG and PDF, by libvips' own operations, and by figures worked by
/// hand.</summary>
public sealed class TreatmentTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    /// <summary>Every hue, from dark to light and from grey to full, in a picture without loss; with edges where it is to be softened or sharpened.</summary>
    private LinkedImage Rainbow(bool edges)
    {
        const int Side = 240;
        byte[] pixels = new byte[Side * Side * 3];
        for (int y = 0; y < Side; y++)
            for (int x = 0; x < Side; x++)
            {
                bool dark = edges && (x / 12 + y / 12) % 2 == 0;
                var colour = SkiaSharp.SKColor.FromHsv(x * 360f / Side, y < Side / 2 ? y * 200f / Side : 100, y < Side / 2 ? 100 : 200 - y * 200f / Side);
                (pixels[3 * (y * Side + x)], pixels[3 * (y * Side + x) + 1], pixels[3 * (y * Side + x) + 2]) = dark
                    ? ((byte)(colour.Red * 0.8), (byte)(colour.Green * 0.7), (byte)(255 - 0.8 * (255 - colour.Blue)))
                    : (colour.Red, colour.Green, colour.Blue);
            }
        using var picture = Image.NewFromMemoryCopy(pixels, Side, Side, 3, Enums.BandFormat.Uchar).Copy(interpretation: Enums.Interpretation.Srgb);
        return _shop.Reader.Read(TestPictures.Save(picture, _shop.Folder["rainbow.png"], 96), "rainbow.png");
    }

    public static TheoryData<string, Treatment> Treatments() => new()
    {
        { "grey", new() { Grey = GreyMix.Usual } },
        { "grey of red", new() { Grey = new(1.4, -0.2, 0.1) } },
        { "grey of six", new() { Grey = new(0.3, 0.5, 0.2) { Yellow = 1.3, Cyan = 0.2 } } },
        { "grey of six, less", new() { Grey = new(0.6, -0.2, 0.6) { Magenta = -0.8, Cyan = 0.9 }, Contrast = 0.2 } },
        { "saturated", new() { Saturation = 1.8 } },
        { "faded", new() { Saturation = 0.3 } },
        { "brighter", new() { Brightness = 0.2 } },
        { "contrast", new() { Contrast = 0.4 } },
        { "flat", new() { Contrast = -0.5, Brightness = -0.1 } },
        { "gamma", new() { Gamma = 1.8 } },
        { "levels", new() { Black = 0.15, White = 0.7, Brightness = 0.05 } },
        { "warm", new() { Warmth = 0.8 } },
        { "cold grey", new() { Grey = GreyMix.Usual, Warmth = -0.6 } },
        { "tinted", new() { Saturation = 0.5, Tint = new(Colour.Of("#2f6f4f"), 0.4) } },
        { "tinted grey", new() { Grey = GreyMix.Usual, Contrast = 0.2, Tint = new(Colour.Of("#7a3b69"), 0.3) } },
        { "inverted", new() { Invert = true, Gamma = 0.7 } },
        { "blurred", new() { Blur = 12 } },
        { "hardly blurred", new() { Blur = 1.5 } },
        { "sharpened", new() { Sharpen = new(1.5, 3) } },
        { "sharpened, softened, grey", new() { Sharpen = new(1, 6), Blur = 4, Grey = GreyMix.Usual } },
        { "two inks", new() { Inks = new(new CmykColour(0.58, 0, 0.29, 0.56), Colour.Of("#f6eeda")) } },
        { "all", new() { Grey = new(0.5, 0.3, 0.2), Brightness = 0.1, Contrast = 0.25, Gamma = 1.2, Inks = new(Colour.Of("#7a3b69"), Colour.White) } },
    };

    private Publication With(Treatment treatment)
    {
        var p = Workshop.Link(Publication.Create(Workshop.A4(), 1), Rainbow(treatment.Reach > 0));
        // Pixel for pixel at 96 ppi: 180 points are 240 pixels.
        return Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(30, 30, 180, 180),
            ImageId = p.Images.Keys.Single(),
            Own = new() { Fit = FitKind.Natural },
            Look = new() { Treatment = treatment },
        });
    }

    private static Image Cut(Image page) => page.ExtractBand(0, n: 3).Crop(40, 40, 240, 240).CopyMemory();

    private static void ShouldAgree(Image a, Image b, string which, double mostFar = 0.01)
    {
        using var apart = (a.Cast(Enums.BandFormat.Short) - b.Cast(Enums.BandFormat.Short)).Abs();
        apart.Avg().ShouldBeLessThan(1, which);
        ((apart > 3).Avg() / 255).ShouldBeLessThan(mostFar, which);
    }

    [Theory]
    [MemberData(nameof(Treatments))]
    public void Screen_PNG_PDF_and_libvips_show_the_same(string name, Treatment treatment)
    {
        var p = With(treatment);
        var spread = Spread.At(p, 0);
        var scene = Composer.Compose(p, spread, Typefaces.All);
        using var stream = new MemoryStream();
        PngWriter.Page(scene, spread.Pages[0], 96, stream);
        using var png = Cut(Image.PngloadBuffer(stream.ToArray()));
        PdfWriter.Write(p, new(_shop.Previews), new(Bleed: false), _shop.Folder["t.pdf"]);
        // As it lies in the file: drawn on a page, it would fall between pixels.
        Tool.Run("pdfimages", "-png", _shop.Folder["t.pdf"], _shop.Folder["t"]);
        using var pdf = Image.Pngload(_shop.Folder["t-000.png"]).Colourspace(Enums.Interpretation.Srgb).ExtractBand(0, n: 3).CopyMemory();
        File.WriteAllText(_shop.Folder["t.html"],
            "<!doctype html><meta charset=utf-8><style>body{margin:0}svg{display:block}image{image-rendering:pixelated}</style>" +
            SvgWriter.Page(scene, spread.Pages[0], "T", image => "file://" + image.Path));
        using var browser = new Browser(900, 1300);
        browser.Driver.Navigate().GoToUrl("file://" + _shop.Folder["t.html"]);
        using var screen = Cut(Image.PngloadBuffer(browser.Driver.GetScreenshot().AsByteArray));
        using var theirs = ByVips(treatment.Recoloured(p.ColourOf));
        // A blur may be three box blurs (Filter Effects 1, feGaussianBlur), which come near a Gaussian.
        ShouldAgree(png, theirs, $"{name}: PNG and libvips", treatment.Reach > 0 ? 0.03 : 0.01);
        ShouldAgree(png, screen, $"{name}: PNG and screen");
        ShouldAgree(png, pdf, $"{name}: PNG and PDF");
        using var file = Image.Pngload(_shop.Folder["rainbow.png"]);
        (png - file).Abs().Avg().ShouldBeGreaterThan(3, "something was done to it");
    }

    /// <summary>The same steps by operations of libvips on numbers with fractions.</summary>
    private Image ByVips(Treatment t)
    {
        var image = Image.Pngload(_shop.Folder["rainbow.png"]).ExtractBand(0, n: 3).Cast(Enums.BandFormat.Double) / 255;
        Image Held(Image of) => (of < 0).Ifthenelse(0, (of > 1).Ifthenelse(1, of));
        Image Mixed(Image of, double[] m) => Held(of.Recomb(Image.NewFromArray(new[,] { { m[0], m[1], m[2] }, { m[3], m[4], m[5] }, { m[6], m[7], m[8] } })));
        if (t.Sharpen is { } sharpen) image = Held(image * (1 + sharpen.Amount) - Softened(image, sharpen.Radius / 2) * sharpen.Amount);
        if (t.Blur > 0) image = Softened(image, t.Blur / 2);
        if (t.Grey is { IsSum: false } mix) image = Six(image, mix);
        image = Mixed(image, t.Matrix());
        image = Held((image - t.Black) / (t.White - t.Black));
        double k = t.Contrast <= 0 ? 1 + t.Contrast : 1 / (1 - 0.9 * t.Contrast);
        image = Held(image * k + (0.5 * (1 - k) + t.Brightness)).Pow(1 / t.Gamma);
        if (t.Invert) image = 1 - image;
        if (t.Inks is { } inks)
        {
            var tone = image.Recomb(Image.NewFromArray(new[,] { { 0.213, 0.715, 0.072 } }));
            var (dark, light) = (inks.Dark.Shown, inks.Light.Shown);
            Image Part(byte from, byte to) => tone * ((to - from) / 255.0) + from / 255.0;
            image = Part(dark.Red, light.Red).Bandjoin(Part(dark.Green, light.Green), Part(dark.Blue, light.Blue));
        }
        if (t.Tint is { Colour.Shown: var over } tint)
            image = image * (1 - tint.Strength) + new double[] { over.Red, over.Green, over.Blue }.Select(c => c / 255 * tint.Strength).ToArray();
        return (image * 255).Rint().Cast(Enums.BandFormat.Uchar).CopyMemory();
    }

    /// <summary>By hue: what a colour has beyond its white is divided between the two of the six that it stands between.</summary>
    private static Image Six(Image image, GreyMix mix)
    {
        Image Least(Image a, Image b) => (a < b).Ifthenelse(a, b);
        Image Held(Image of) => (of < 0).Ifthenelse(0, (of > 1).Ifthenelse(1, of));
        Image[] of = [image[0], image[1], image[2]];
        var white = Least(Least(of[0], of[1]), of[2]);
        double all = mix.Red + mix.Green + mix.Blue;
        double[] first = [mix.Red, mix.Green, mix.Blue], between = [mix.YellowWeight, mix.CyanWeight, mix.MagentaWeight];
        Image more = white, less = white * 0;
        for (int i = 0; i < 3; i++)
        {
            Image next = of[(i + 1) % 3], last = of[(i + 2) % 3], rest = (next > last).Ifthenelse(next, last);
            var own = (of[i] > rest).Ifthenelse(of[i] - rest, 0);
            foreach (var (weight, part) in new[] { (first[i] / all, own), (between[i] / all, Least(of[i], next) - white) })
            {
                if (weight > 0) more += part * weight;
                else less -= part * weight;
            }
        }
        var grey = Held(Held(more) - less);
        return grey.Bandjoin(grey, grey);
    }

    /// <summary>By a Gaussian mask, divided by what of it lies within the picture. The picture has 96 pixels to 72 points.</summary>
    private static Image Softened(Image image, double points)
    {
        using var mask = Image.Gaussmat(points * 96 / 72, 0.0005, separable: true, precision: Enums.Precision.Float);
        int room = mask.Width;
        Image Blurred(Image of) => of.Embed(room, room, of.Width + 2 * room, of.Height + 2 * room, Enums.Extend.Black)
            .Convsep(mask, precision: Enums.Precision.Float).Crop(room, room, of.Width, of.Height);
        return Blurred(image) / Blurred((image[0] * 0) + 1);
    }

    /// <summary>Worked by hand from the formulas of docs/looks.md.</summary>
    [Theory]
    [InlineData("#c86432", "grey", "#777777")] // 0.213 * 200 + 0.715 * 100 + 0.072 * 50 = 117.7, rounded up by the matrix in sixteenths of a bit: 118 or 119
    [InlineData("#ff0000", "grey of six", "#4d4d4d")] // pure red: 0.3 * 255 = 76.5
    [InlineData("#c0c040", "grey of six", "#e6e6e6")] // white 64, yellow (192 - 64) * 1.3 = 166.4: 230.4
    [InlineData("#808080", "grey of six", "#808080")]
    [InlineData("#804020", "brighter", "#b37353")] // + 0.2 * 255 = 51
    [InlineData("#808080", "contrast", "#808080")]
    [InlineData("#404040", "levels", "#3c3c3c")] // (64 / 255 - 0.15) / 0.55 = 0.1836, + 0.05 = 0.2336; 0.2336 * 255 = 59.6
    [InlineData("#808080", "warm", "#9f8061")] // 128 * 1.24 = 158.7, 128 * 0.76 = 97.3
    [InlineData("#404040", "flat", "#464646")] // 64 * 0.5 + 63.75 - 25.5 = 70.25
    [InlineData("#000000", "two inks", "#2f704f")]
    [InlineData("#ffffff", "two inks", "#f6eeda")]
    public void Figures_worked_by_hand_come_out(string before, string name, string after)
    {
        var treatment = Treatments().Select(r => r.Data).Single(d => d.Item1 == name).Item2;
        var from = Colour.Of(before).Shown;
        byte[] pixel = [from.Red, from.Green, from.Blue, 200];
        new PixelTreatment(treatment).Apply(pixel);
        var to = Colour.Of(after).Shown;
        foreach (var (a, b) in new[] { (pixel[0], to.Red), (pixel[1], to.Green), (pixel[2], to.Blue) }) ((double)a).ShouldBe(b, 1);
        pixel[3].ShouldBe((byte)200);
    }

    [Fact]
    public void A_treatment_put_aside_leaves_the_picture_and_its_file_as_they_are()
    {
        var p = With(new() { Grey = GreyMix.Usual, IsOff = true });
        Composer.Compose(p, Spread.At(p, 0), Typefaces.All).Items[0].Image!.Treatment.ShouldBeNull();
        byte[] before = File.ReadAllBytes(_shop.Folder["rainbow.png"]);
        PdfWriter.Write(With(new() { Invert = true }), new(_shop.Previews), new(), _shop.Folder["t.pdf"]);
        File.ReadAllBytes(_shop.Folder["rainbow.png"]).ShouldBe(before);
    }

    /// <summary>What is transparent stays so, and what shows through nothing colours nothing.</summary>
    [Fact]
    public void Blur_and_sharpening_keep_to_what_shows()
    {
        byte[] pixels = new byte[100 * 100 * 4];
        for (int i = 0; i < 100 * 100; i++) (pixels[4 * i], pixels[4 * i + 1], pixels[4 * i + 3]) = i % 100 < 50 ? ((byte)200, (byte)0, (byte)255) : ((byte)0,
            (byte)255, (byte)0);
        using var half = Image.NewFromMemoryCopy(pixels, 100, 100, 4, Enums.BandFormat.Uchar).Copy(interpretation: Enums.Interpretation.Srgb);
        var p = Workshop.Link(Publication.Create(Workshop.A4(), 1), _shop.Reader.Read(TestPictures.Save(half, _shop.Folder["half.png"], 72), "half.png"));
        p = Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(30, 30, 100, 100),
            ImageId = p.Images.Keys.Single(),
            Look = new() { Treatment = new() { Blur = 20, Sharpen = new(3, 10) } },
        });
        using var stream = new MemoryStream();
        PngWriter.Page(Composer.Compose(p, Spread.At(p, 0), Typefaces.All), Spread.At(p, 0).Pages[0], 72, stream);
        using var page = Image.PngloadBuffer(stream.ToArray()).ExtractBand(0, n: 3);
        void Near(double[] pixel)
        {
            foreach (var (seen, wanted) in pixel.Zip([200.0, 0, 0])) seen.ShouldBe(wanted, 2);
        }
        Near(page.Getpoint(78, 80));
        Near(page.Getpoint(31, 31));
        page.Getpoint(82, 80).ShouldBe([255, 255, 255]);
    }

    /// <summary>Large pictures are worked out in bands: where they meet, nothing is to be seen. One that is the same all down has the same rows
    /// everywhere.</summary>
    [Fact]
    public void Where_bands_of_a_large_picture_meet_nothing_is_to_be_seen()
    {
        byte[] row = [.. Enumerable.Range(0, 90).Select(i => (byte)(i * 37 % 251))];
        using var striped = Image.NewFromMemoryCopy(Enumerable.Repeat(row, 1800).SelectMany(r => r).ToArray(), 30, 1800, 3, Enums.BandFormat.Uchar)
            .Copy(interpretation: Enums.Interpretation.Srgb);
        var p = Workshop.Link(Publication.Create(Workshop.A4(), 1), _shop.Reader.Read(TestPictures.Save(striped, _shop.Folder["striped.png"], 288),
            "striped.png"));
        p = Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(30, 30, 7.5, 450),
            ImageId = p.Images.Keys.Single(),
            Look = new() { Treatment = new() { Blur = 3, Sharpen = new(1, 2) } },
        });
        // Many at once: then bands follow each other on one core, and what the drawing library keeps of one must not serve the next.
        Parallel.For(0, 8, i =>
        {
            string pdf = _shop.Folder[$"striped{i}.pdf"], png = _shop.Folder[$"striped{i}"];
            PdfWriter.Write(p, new(_shop.Previews), new(Bleed: false), pdf);
            Tool.Run("pdfimages", "-png", pdf, png);
            using var seen = Image.Pngload(png + "-000.png").ExtractBand(0, n: 3);
            seen.Height.ShouldBe(1800);
            using var first = seen.Crop(0, 900, 30, 1);
            // Not where the picture ends.
            using var apart = (seen.Crop(0, 60, 30, 1680) - first.Replicate(1, 1680)).Abs();
            apart.Max().ShouldBeLessThan(2);
        });
    }

    /// <summary>A deviation of 20 points, on pixels of 50: across the edge the share that the standard normal distribution has below, in the PDF too.</summary>
    [Fact]
    public void Coarse_pictures_are_softened_between_their_pixels()
    {
        using var coarse = Image.NewFromMemoryCopy<byte>([0, 0, 0, 0, 0, 0, 255, 255, 255, 255, 255, 255], 4, 1, 3, Enums.BandFormat.Uchar)
            .Copy(interpretation: Enums.Interpretation.Srgb);
        var p = Workshop.Link(Publication.Create(Workshop.A4(), 1), _shop.Reader.Read(TestPictures.Save(coarse, _shop.Folder["coarse.png"], 72), "coarse.png"));
        p = Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(30, 30, 200, 50),
            ImageId = p.Images.Keys.Single(),
            Own = new() { Fit = FitKind.Stretch },
            Look = new() { Treatment = new() { Blur = 40 } },
        });
        PdfWriter.Write(p, new(_shop.Previews), new(Bleed: false), _shop.Folder["coarse.pdf"]);
        Tool.Run("pdftoppm", "-r", "72", "-png", _shop.Folder["coarse.pdf"], _shop.Folder["coarse"]);
        using var page = Image.Pngload(_shop.Folder["coarse-1.png"]);
        // Between its pixels it rises evenly before it is softened; halves meet in the middle.
        page.Getpoint(130, 55)[0].ShouldBe(127, 20);
        page.Getpoint(80, 55)[0].ShouldBeLessThan(40);
        page.Getpoint(180, 55)[0].ShouldBeGreaterThan(215);
        double[] row = [.. Enumerable.Range(80, 100).Select(x => page.Getpoint(x, 55)[0])];
        row.Zip(row.Skip(1)).Max(pair => Math.Abs(pair.Second - pair.First)).ShouldBeLessThan(26, "no steps");
    }

    [Fact]
    public void Only_treated_pictures_lose_their_compressed_bytes()
    {
        var p = Workshop.Link(Publication.Create(Workshop.A4(), 1), _shop.Quarters("a.jpg", 400, 300));
        MakeFrame Frame(double x, Treatment? treatment) => new()
        {
            Page = 1,
            Box = new(x, 30, 100, 80),
            ImageId = p.Images.Keys.Single(),
            Look = new() { Treatment = treatment }
        };
        p = Workshop.Do(Workshop.Do(Workshop.Do(p, Frame(30, null)), Frame(150, new() { Grey = GreyMix.Usual })), Frame(270, new() { Grey = GreyMix.Usual }));
        PdfWriter.Write(p, new(_shop.Previews), new(), _shop.Folder["j.pdf"]);
        string[] images = [.. Tool.Run("pdfimages", "-list", _shop.Folder["j.pdf"]).Split('\n').Skip(2).Where(l => l.Length > 0)];
        // One as it came, one grey; shown twice, it is written once.
        images.Count(l => l.Contains(" jpeg ", StringComparison.Ordinal) && l.Contains(" icc ", StringComparison.Ordinal)).ShouldBe(1);
        images.Count(l => l.Contains(" gray ", StringComparison.Ordinal)).ShouldBe(2);
        images.Select(l => l.Split(' ', StringSplitOptions.RemoveEmptyEntries)[10]).Distinct().Count().ShouldBe(2);
    }
}

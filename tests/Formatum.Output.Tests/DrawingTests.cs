using System.Globalization;
using System.Text;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Testing;
using NetVips;

namespace Formatum.Output.Tests;

/// <summary>Drawings (SVG) in outputs: right in every place, and drawn only where they show.</summary>
public sealed class DrawingTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private const int Cells = 20;

    /// <summary>A drawing whose every cell says by its colour where it lies.</summary>
    private LinkedImage Chart()
    {
        var svg = new StringBuilder("<svg xmlns='http://www.w3.org/2000/svg' width='400' height='200' viewBox='0 0 40 20'>");
        for (int x = 0; x < Cells; x++)
            for (int y = 0; y < Cells; y++)
                svg.Append(CultureInfo.InvariantCulture, $"<rect x='{2 * x}' y='{y}' width='2' height='1' fill='rgb({10 * x},{10 * y},128)'/>");
        File.WriteAllText(_shop.Folder["chart.svg"], svg.Append("</svg>").ToString());
        return _shop.Reader.Read(_shop.Folder["chart.svg"], "chart.svg");
    }

    /// <summary>Notes how many pixels were asked for.</summary>
    private sealed class Counting : IPixelReader
    {
        public long Pixels { get; private set; }

        PictureRaster IPixelReader.Pixels(LinkedImage image, int widthPx, int heightPx, Box part, string? press)
        {
            var raster = PictureRaster.Here.Pixels(image, widthPx, heightPx, part, press);
            Pixels += (long)raster.Width * raster.Height;
            return raster;
        }

        PictureSamples IPixelReader.Samples(LinkedImage image, SampleWish wish) => PictureRaster.Here.Samples(image, wish);

        Drawing? IPixelReader.Drawing(LinkedImage image) => PictureRaster.Here.Drawing(image);
    }

    [Theory]
    [InlineData(1, 0, 0)]
    [InlineData(10, 0, 0)]
    [InlineData(10, 0, 30)]
    [InlineData(6, 25, 0)]
    [InlineData(40, 0, 0)]
    public void A_drawing_is_right_wherever_it_shows_however_far_it_is_zoomed(double zoom, double turn, double angle)
    {
        var p = Workshop.Link(Publication.Create(Workshop.A4() with { PageWidth = 400, PageHeight = 300, Bleed = 0 }, 1), Chart());
        // A part of the frame lies off the page.
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(60, -40, 300, 200), ImageId = Workshop.IdOf(p, "chart.svg"), Angle = angle });
        int frame = p.Frames.Keys.Single();
        p = Workshop.Do(p, new ChangeFrames { FrameIds = [frame], Recrop = new(zoom, new(0.33, 0.63), null, turn) });
        var spread = Spread.At(p, 0);
        var scene = Composer.Compose(p, spread, Typefaces.All);
        var counting = new Counting();

        using var stream = new MemoryStream();
        PngWriter.Page(scene, spread.Pages[0], 144, stream, new(Reader: counting));
        using var png = Image.PngloadBuffer(stream.ToArray());
        // Of what is seen, with turns and edges; not of the whole, which has up to 1,600 times as many.
        counting.Pixels.ShouldBeLessThan((long)(3.2 * 800 * 600));
        ShouldShowTheChart(png, scene);

        PdfWriter.Write(p, new(_shop.Previews), new(), _shop.Folder["c.pdf"]);
        Tool.Run("pdftoppm", "-r", "144", "-png", "-singlefile", _shop.Folder["c.pdf"], _shop.Folder["c"]);
        using var paper = Image.Pngload(_shop.Folder["c.png"]);
        ShouldShowTheChart(paper, scene);
    }

    private static void ShouldShowTheChart(Image seen, Scene scene)
    {
        var frame = scene.Items.Single();
        var toUnit = frame.ToSpread.After(frame.Image!.Matrix).Inverse();
        var toFrame = frame.ToSpread.Inverse();
        int looked = 0;
        for (int x = 4; x < seen.Width; x += 9)
        {
            for (int y = 4; y < seen.Height; y += 9)
            {
                var at = new Vec((x + 0.5) / 2, (y + 0.5) / 2);
                Vec inFrame = toFrame.Apply(at), unit = toUnit.Apply(at);
                if (inFrame.X < 2 || inFrame.Y < 2 || inFrame.X > frame.Width - 2 || inFrame.Y > frame.Height - 2) continue;
                double column = unit.X * Cells, row = unit.Y * Cells;
                // Near the edge of a cell two colours are mixed.
                if (Math.Abs(column - Math.Round(column)) < 0.2 || Math.Abs(row - Math.Round(row)) < 0.2 || Math.Min(unit.X, unit.Y) < 0
                    || Math.Max(unit.X, unit.Y) > 1) continue;
                double[] pixel = seen.Getpoint(x, y);
                pixel[0].ShouldBe(10 * Math.Floor(column), 4);
                pixel[1].ShouldBe(10 * Math.Floor(row), 4);
                looked++;
            }
        }
        looked.ShouldBeGreaterThan(200);
    }

    private LinkedImage Svg(string name, string body, string size = "width='200' height='120' viewBox='0 0 200 120'")
    {
        File.WriteAllText(_shop.Folder[name], $"<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' {size}>{body}</svg>");
        return _shop.Reader.Read(_shop.Folder[name], name);
    }

    private static Publication Showing(LinkedImage image)
    {
        var p = Workshop.Link(Publication.Create(Workshop.A4() with { PageWidth = 240, PageHeight = 160, Bleed = 0 }, 1), image);
        return Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(20, 20, 200, 120),
            ImageId = p.Images.Keys.Single(),
            Own = new() { Fit = Core.Fitting.FitKind.Fit }
        });
    }

    private string Print(Publication p, bool convert = false, bool screen = false)
    {
        string path = _shop.Folder[$"{Guid.NewGuid():n}.pdf"];
        PdfWriter.Write(p, new(_shop.Previews), screen ? new() : new() { Press = new(ColourProfile.GeneralPress), Convert = convert }, path);
        Tool.Run("qpdf", "--check", path).ShouldContain("No syntax or stream encoding errors");
        return path;
    }

    private static int PicturesIn(string path) => Tool.Run("pdfimages", "-list", path).Split('\n').Count(l => l.Contains(" image ", StringComparison.Ordinal)
        || l.Contains(" smask ", StringComparison.Ordinal));

    /// <summary>What a logo is made of, each as lines and areas in the PDF, and there as the reader of pixels shows it (librsvg), through poppler and
    /// mupdf.</summary>
    [Theory]
    [InlineData("shapes", "<circle cx='60' cy='60' r='50' fill='#2f6f4f'/><path d='M10 10h60v30a20 20 0 0 1-60 0z' fill='#7a3b69' fill-opacity='.6'/>")]
    [InlineData("strokes", "<path d='M20 100L60 20l40 80 40-80' fill='none' stroke='#aa3311' stroke-width='9' stroke-linejoin='round' " +
        "stroke-linecap='round'/><path d='M10 60h180' stroke='#000' stroke-width='3' stroke-dasharray='12 5 3 5'/>")]
    [InlineData("even-odd", "<path fill-rule='evenodd' d='M10 10h180v100h-180zM60 30h80v60h-80z' fill='#246'/>")]
    [InlineData("groups", "<g opacity='.5' transform='rotate(12 100 60)'><rect x='20' y='20' width='100' height='60' fill='#c33'/><rect x='70' y='40' " +
        "width='100' height='60' fill='#33c'/></g>")]
    [InlineData("clip", "<clipPath id='c'><ellipse cx='100' cy='60' rx='80' ry='40'/></clipPath><g clip-path='url(#c)'><rect width='200' height='60' " +
        "fill='#385'/><rect y='60' width='200' height='60' fill='#853'/></g>")]
    [InlineData("run", "<linearGradient id='g' x1='.1' y1='0' x2='.9' y2='1'><stop offset='0' stop-color='#fc0'/><stop offset='.4' " +
        "stop-color='#c33'/><stop offset='.4' stop-color='#3cc'/><stop offset='1' stop-color='#036'/></linearGradient><rect x='10' y='10' width='180' " +
            "height='100' rx='14' fill='url(#g)'/>")]
    [InlineData("round", "<radialGradient id='g' cx='.4' cy='.4' r='.6' gradientTransform='rotate(20)'><stop offset='.1' stop-color='#fff'/><stop " +
        "offset='1' stop-color='#246'/></radialGradient><ellipse cx='100' cy='60' rx='90' ry='50' fill='url(#g)'/>")]
    [InlineData("use", "<defs><g id='u'><path d='M0 0l30 0 -15 26z' fill='#484'/></g></defs><use href='#u' x='20' y='20'/><use href='#u' " +
        "transform='translate(120 30) scale(2)'/>")]
    public void What_a_logo_is_made_of_prints_as_lines_and_areas(string name, string body)
    {
        var p = Showing(Svg($"{name}.svg", body));
        string screen = Print(p, screen: true);
        PicturesIn(screen).ShouldBe(0);
        PrintFile.Faults(Print(p)).ShouldBeEmpty();
        PrintFile.Faults(Print(p, convert: true)).ShouldBeEmpty();
        using var stream = new MemoryStream();
        var spread = Spread.At(p, 0);
        PngWriter.Page(Composer.Compose(p, spread, Typefaces.All), spread.Pages[0], 144, stream);
        using var seen = Image.PngloadBuffer(stream.ToArray()).ExtractBand(0, n: 3);
        Tool.Run("pdftoppm", "-r", "144", "-png", "-singlefile", screen, _shop.Folder["poppler"]);
        Tool.Run("mutool", "draw", "-q", "-r", "144", "-o", _shop.Folder["mupdf.png"], screen);
        foreach (string by in new[] { "poppler", "mupdf" })
        {
            using var paper = Image.Pngload(_shop.Folder[by + ".png"]).ExtractBand(0, n: 3);
            using var apart = (seen - paper).Abs().Bandmean();
            apart.Avg().ShouldBeLessThan(1.5, by);
            ((apart > 48).Avg() / 255).ShouldBeLessThan(0.01, by);
        }
    }

    /// <summary>The outline of a drawing is that of its largest form: an area, a place, curves that are kept.</summary>
    [Fact]
    public void The_largest_form_of_a_drawing_is_an_outline()
    {
        var image = Svg("forms.svg", "<rect x='10' y='10' width='30' height='30'/><g transform='translate(100 60)'><circle r='50' fill='#248'/></g>");
        var form = DrawingOutline.Largest(PictureRaster.Here.Drawing(image)!).ShouldNotBeNull();
        var (box, outline) = Outlines.Free([.. form.Select(p => p.Mapped(v => new Vec(v.X * 200, v.Y * 120)))]);
        (box.X, box.Y, box.Width, box.Height).ShouldSatisfyAllConditions(b => b.X.ShouldBe(50, 0.1), b => b.Y.ShouldBe(10, 0.1), b => b.Width.ShouldBe(100,
            0.1),
            b => b.Height.ShouldBe(100, 0.1));
        Math.Abs(PolygonMeasure.SignedArea(outline.Flatten(box.Width, box.Height).AsSpan())).ShouldBe(Math.PI * 2500, 15);
        outline.Points.Length.ShouldBeLessThan(200);
        DrawingOutline.Largest(PictureRaster.Here.Drawing(Svg("line.svg", "<path d='M10 10h100' fill='none' stroke='#000'/>"))!).ShouldBeNull();
    }

    /// <summary>Lines alone cannot show these: they are pixels, as they are on the screen.</summary>
    [Theory]
    [InlineData("<filter id='f'><feGaussianBlur stdDeviation='3'/></filter><rect x='40' y='20' width='90' height='70' filter='url(#f)'/>")]
    [InlineData("<text x='20' y='80' font-size='60'>Words</text>")]
    [InlineData("<mask id='m'><rect width='100' height='120' fill='#fff'/></mask><rect width='200' height='120' fill='#246' mask='url(#m)'/>")]
    [InlineData("<pattern id='p' width='9' height='9' patternUnits='userSpaceOnUse'><circle cx='4' cy='4' r='3'/></pattern><rect width='200' height='120' " +
        "fill='url(#p)'/>")]
    [InlineData("<linearGradient id='g'><stop offset='0' stop-color='#f00'/><stop offset='1' stop-color='#f00' stop-opacity='0'/></linearGradient><rect " +
        "width='200' height='120' fill='url(#g)'/>")]
    public void What_lines_cannot_show_is_printed_as_pixels(string body) => PicturesIn(Print(Showing(Svg("pixels.svg", body)))).ShouldBeGreaterThan(0);

    /// <summary>Black lines stand on the plate of black alone, whether colours are converted or keep their profile.</summary>
    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Black_lines_are_ink_black_alone(bool convert)
    {
        string path = Print(Showing(Svg("black.svg", "<rect x='10' y='10' width='180' height='100'/><rect x='60' y='30' width='80' height='60' fill='#fff'/>")),
            convert);
        Tool.Run("gs", "-q", "-dNOPAUSE", "-dBATCH", "-sDEVICE=tiffsep", "-r72", $"-sOutputFile={_shop.Folder["plate%d.tif"]}", path);
        double At(string ink, int x, int y)
        {
            using var plate = Image.Tiffload(_shop.Folder[$"plate1({ink}).tif"]);
            return 255 - plate.Getpoint(x, y)[0];
        }
        At("Black", 40, 40).ShouldBe(255, 1);
        At("Black", 120, 80).ShouldBe(0, 1);
        foreach (string ink in new[] { "Cyan", "Magenta", "Yellow" }) At(ink, 40, 40).ShouldBe(0, ink);
    }

    /// <summary>Without a viewBox nor lengths, a drawing has the default object size (CSS Images 3, section 5.1: 300 by 150 pixels, or that of the two which
    /// is not told), and shows the same of itself however large it is drawn.</summary>
    [Theory]
    [InlineData("", 300, 150)]
    [InlineData("width='100%' height='100%'", 300, 150)]
    [InlineData("width='60'", 60, 150)]
    [InlineData("width='5cm' height='auto'", 189, 150)]
    public void A_drawing_that_does_not_say_its_size_has_the_usual_one_and_is_the_same_at_every_size(string size, int width, int height)
    {
        var image = Svg("sizeless.svg", "<rect width='100%' height='100%' fill='#008080'/><rect width='30' height='40' fill='#f00'/>", size);
        (image.WidthPx, image.HeightPx).ShouldBe((width, height));
        foreach (int times in new[] { 1, 4 })
        {
            var drawn = PictureRaster.Here.Pixels(image, times * width, times * height, new(0, 0, 1, 1));
            byte[] At(int x, int y) => drawn.Rgba[((y * times * drawn.Width + x * times) * 4)..][..4];
            At(27, 37).ShouldBe([255, 0, 0, 255]);
            At(33, 37).ShouldBe([0, 128, 128, 255]);
            At(27, 43).ShouldBe([0, 128, 128, 255]);
            At(width - 2, height - 2).ShouldBe([0, 128, 128, 255]);
        }
        using (var preview = Vips.Reduced(image.Path, "svg", 2 * width, 2 * height))
        {
            (preview.Width, preview.Height).ShouldBe((2 * width, 2 * height));
            preview.Getpoint(2 * 27, 2 * 37)[0].ShouldBe(255);
            preview.Getpoint(2 * 33, 2 * 37)[0].ShouldBe(0);
        }
        // In print it is lines, of the same size.
        PictureRaster.Here.Drawing(image).ShouldNotBeNull().Width.ShouldBe(width, 0.5);
    }

    /// <summary>A drawing that nobody would wait for comes out as pixels, or its publication goes on: from files that people send.</summary>
    [Theory]
    [InlineData("<g id='a'><rect width='9' height='9'/></g><g id='b'><use href='#a'/><use href='#a'/></g><g id='c'><use href='#b'/><use " +
        "href='#b'/></g><use href='#c' x='50'/>")]
    [InlineData("<rect width='1e30' height='9'/><rect width='-4' height='9'/><path d='M0 0L1e38 1e38z'/><path d='M0'/>")]
    [InlineData("<g transform='scale(0)'><rect width='9' height='9'/></g><g transform='matrix(1 0 0 0 0 0)' opacity='.5'><rect width='9' " +
        "height='9'/></g><rect width='20' height='20' fill='#484'/>")]
    [InlineData("<path d='M10 10h90' stroke='#000' stroke-width='0'/><path d='M10 30h90' stroke='#246' stroke-width='4' stroke-dasharray='0 0' " +
        "stroke-dashoffset='-3'/><path d='M10 50h90' stroke='#246' stroke-width='4' stroke-dasharray='7' stroke-dashoffset='-3'/>")]
    [InlineData("")]
    public void Odd_drawings_are_printed_all_the_same(string body) => PrintFile.Faults(Print(Showing(Svg("odd.svg", body)))).ShouldBeEmpty();
}

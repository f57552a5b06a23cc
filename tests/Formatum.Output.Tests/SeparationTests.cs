using Formatum.Core.Colours;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Imaging;
using Formatum.Output.Press;
using Formatum.Testing;
using NetVips;

namespace Formatum.Output.Tests;

/// <summary>A page taken apart into its plates here, against Ghostscript ("tiffsep") taking apart the file for print that was made of the same page.</summary>
public sealed class SeparationTests : IDisposable
{
    private static readonly PressConversion Press = new(ColourProfile.GeneralPress);

    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private static Scene SceneOf(Publication p) => Composer.Compose(p, Spread.At(p, 0), Typefaces.All);

    private static SeparatedPage Page(Publication p, double ppi = 72) => SeparatedPage.Of(SceneOf(p), Spread.At(p, 0).Trim, ppi, Press, PixelSource.Plain);

    private Publication Inked()
    {
        var p = Publication.Create(Workshop.A4() with { PageWidth = 400, PageHeight = 400, Bleed = 0 }, 1);
        p = Workshop.Do(p, new TakePalette([new PaletteColour { Id = 0, Name = "Kiln orange", Colour = new CmykColour(0, 0.6, 0.9, 0), IsSpot = true }]));
        var orange = new NamedColour(p.Colours.Values.Single(c => c.Name == "Kiln orange").Id);
        string cmyk = _shop.Folder["four.tif"], grey = _shop.Folder["grey.png"];
        using (var four = (Image.Black(60, 60, bands: 4) + new double[] { 200, 30, 100, 60 }).Cast(Enums.BandFormat.Uchar)
            .Copy(interpretation: Enums.Interpretation.Cmyk)) four.Tiffsave(cmyk);
        using (var tone = (Image.Black(60, 60) + 90).Cast(Enums.BandFormat.Uchar)) tone.Pngsave(grey);
        p = Workshop.Link(p, _shop.Reader.Read(cmyk, "four.tif"), _shop.Reader.Read(grey, "grey.png"), _shop.Quarters("q.png", 300, 300));
        Look[] looks =
        [
            new() { Background = new CmykColour(0.1, 0.2, 0.3, 0.4) }, new() { Background = orange }, new() { Background = new GreyColour(0.3) },
            new() { Background = Colour.Of("#2f6f4f"), Opacity = 0.5 }, new() { Background = new CmykColour(0, 0.5, 0, 0), Blend = Blend.Multiply },
        ];
        for (int i = 0; i < looks.Length; i++) p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(10 + 75 * i, 10, 60, 60), Look = looks[i] });
        string[] names = ["four.tif", "grey.png", "q.png"];
        for (int i = 0; i < names.Length; i++)
            p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(10 + 75 * i, 100, 60, 60), ImageId = Workshop.IdOf(p, names[i]) });
        // In two inks, one of them with a plate of its own; the other is paper, or black.
        TwoInk[] pairs = [new(orange, Colour.White), new(new CmykColour(0, 0, 0, 1), orange)];
        for (int i = 0; i < pairs.Length; i++)
            p = Workshop.Do(p, new MakeFrame
            {
                Page = 1,
                Box = new(235 + 75 * i, 100, 60, 60),
                ImageId = Workshop.IdOf(p, "q.png"),
                Look = new() { Treatment = new() { Inks = pairs[i] } },
            });
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(10, 200, 380, 60), Look = new() { Background = new CmykColour(1, 0, 0, 0) } });
        return Workshop.Do(p, new MakeFrame { Page = 1, Box = new(10, 190, 380, 100), Text = new([new("\u2588 Over", TextStyle.Usual with { Size = 60 })]) });
    }

    [Fact]
    public void Plates_are_those_of_the_file_for_print()
    {
        var p = Inked();
        var page = Page(p);
        string pdf = _shop.Folder["p.pdf"], plates = _shop.Folder["plates"];
        PdfWriter.Write(p, new(_shop.Previews), new() { Press = Press, Convert = true }, pdf);
        Directory.CreateDirectory(plates);
        Tool.Run("gs", "-q", "-dNOPAUSE", "-dBATCH", "-dSAFER", "-sDEVICE=tiffsep", "-r72", "-dTextAlphaBits=4", "-dGraphicsAlphaBits=4",
            $"-sOutputFile={plates}/p.tif", pdf);
        string[] names = ["Cyan", "Magenta", "Yellow", "Black", "Kiln orange"];
        for (int plate = 0; plate < names.Length; plate++)
        {
            using var theirs = Image.Tiffload(Path.Combine(plates, $"p({names[plate]}).tif"));
            foreach (var (x, y) in new[] { (40, 40), (115, 40), (190, 40), (265, 40), (340, 40), (40, 130), (115, 130), (175, 115), (205, 115), (175, 145),
                (30, 230),
                (250, 115), (280, 115), (250, 145), (280, 145), (325, 115), (355, 115), (325, 145), (355, 145), (300, 240), (390, 390) })
            {
                byte ours = plate < 4 ? page.Inks[(y * page.Width + x) * 4 + plate] : page.Spots.Single().Plate[y * page.Width + x];
                // A hundredth of an ink.
                ((double)ours).ShouldBe(255 - theirs.Getpoint(x, y)[0], 3, $"{names[plate]} at {x}, {y}");
            }
        }
    }

    /// <summary>Ghostscript's own device measures how much of the page each ink covers (inkcov).</summary>
    [Fact]
    public void So_much_ink_as_Ghostscript_finds()
    {
        var p = Workshop.Link(Publication.Create(Workshop.A4() with { PageWidth = 300, PageHeight = 300, Bleed = 0 }, 1), _shop.Quarters("q.png", 300, 300));
        p = Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(30, 30, 200, 240),
            ImageId = Workshop.IdOf(p, "q.png"),
            Own = new() { Fit = Core.Fitting.FitKind.Fill }
        });
        PdfWriter.Write(p, new(_shop.Previews), new() { Press = Press, Convert = true }, _shop.Folder["i.pdf"]);
        string said = Tool.Run("gs", "-q", "-dNOPAUSE", "-dBATCH", "-sDEVICE=ink_cov", "-r72", "-o", "-", _shop.Folder["i.pdf"]);
        double[] theirs = [.. said.Split(' ', StringSplitOptions.RemoveEmptyEntries).Take(4)
            .Select(v => double.Parse(v, System.Globalization.CultureInfo.InvariantCulture))];
        var page = Page(p);
        for (int ink = 0; ink < 4; ink++)
        {
            double ours = Enumerable.Range(0, page.Width * page.Height).Average(i => page.Inks[i * 4 + ink]) / 2.55;
            ours.ShouldBe(theirs[ink], 1, $"ink {ink}: {said}");
        }
    }

    private static Treatment Of(string what) => what switch
    {
        "contrast" => new() { Contrast = 0.1 },
        "brightness" => new() { Brightness = -0.1 },
        "saturation" => new() { Saturation = 2 },
        "blur" => new() { Blur = 2 },
        "sharpen" => new() { Sharpen = Sharpening.Usual },
        "levels" => new() { Black = 0.1, White = 0.9 },
        "gamma" => new() { Gamma = 1.4 },
        "invert" => new() { Invert = true },
        "grey" => new() { Grey = GreyMix.Usual },
        "warmth" => new() { Warmth = 0.4 },
        "tint of a colour" => new() { Tint = new(new CmykColour(0.8, 0.1, 0, 0.2), 0.4) },
        "two inks" => new() { Inks = new(new CmykColour(0.2, 0.7, 0, 0.3), Colour.White) },
        _ => new() { Tint = new(new GreyColour(0.4), 0.3) },
    };

    public static TheoryData<string> Every => [.. Plain.Select(row => row.Data), "warmth", "tint of a colour", "two inks"];

    /// <summary>Greys, light, four inks and two inks under each kind of treatment: the plates here, and Ghostscript's of the file for print.</summary>
    [Theory]
    [MemberData(nameof(Every))]
    public void Under_every_treatment_plates_are_those_of_the_file_for_print(string what)
    {
        string cmyk = _shop.Folder["four.tif"], grey = _shop.Folder["grey.png"];
        using (var four = (Image.Black(60, 60, bands: 4) + new double[] { 200, 30, 100, 60 }).Cast(Enums.BandFormat.Uchar)
            .Copy(interpretation: Enums.Interpretation.Cmyk)) four.Tiffsave(cmyk);
        using (var tone = (Image.Black(60, 60) + 90).Cast(Enums.BandFormat.Uchar)) tone.Pngsave(grey);
        var p = Publication.Create(Workshop.A4() with { PageWidth = 320, PageHeight = 80, Bleed = 0 }, 1);
        p = Workshop.Do(p, new TakePalette([new PaletteColour { Id = 0, Name = "Kiln orange", Colour = new CmykColour(0, 0.6, 0.9, 0), IsSpot = true }]));
        var orange = new NamedColour(p.Colours.Values.Single(c => c.Name == "Kiln orange").Id);
        p = Workshop.Link(p, _shop.Reader.Read(cmyk, "four.tif"), _shop.Reader.Read(grey, "grey.png"), _shop.Quarters("q.png", 300, 300));
        string[] names = ["four.tif", "grey.png", "q.png", "q.png"];
        for (int i = 0; i < names.Length; i++)
        {
            var treatment = i == 3 && what != "two inks" ? Of(what) with { Inks = new(orange, Colour.White) } : Of(what);
            p = Workshop.Do(p, new MakeFrame
            {
                Page = 1,
                Box = new(10 + 75 * i, 10, 60, 60),
                ImageId = Workshop.IdOf(p, names[i]),
                Own = new() { Fit = Core.Fitting.FitKind.Stretch },
                Look = new() { Treatment = treatment },
            });
        }
        string pdf = _shop.Folder["t.pdf"], plates = _shop.Folder["treated"];
        PdfWriter.Write(p, new(_shop.Previews), new() { Press = Press, Convert = true }, pdf);
        Directory.CreateDirectory(plates);
        Tool.Run("gs", "-q", "-dNOPAUSE", "-dBATCH", "-dSAFER", "-sDEVICE=tiffsep", "-r72", $"-sOutputFile={plates}/p.tif", pdf);
        var page = Page(p);
        string[] inks = ["Cyan", "Magenta", "Yellow", "Black", "Kiln orange"];
        for (int plate = 0; plate < inks.Length - (page.Spots.Count == 0 ? 1 : 0); plate++)
        {
            string file = Path.Combine(plates, $"p({inks[plate]}).tif");
            // Ghostscript writes no plate that the file does not name.
            using var theirs = File.Exists(file) ? Image.Tiffload(file) : Image.Black(page.Width, page.Height) + 255;
            foreach (int x in (int[])[40, 115, 175, 205, 250, 280])
            {
                foreach (int y in (int[])[25, 55])
                {
                    byte ours = plate < 4 ? page.Inks[(y * page.Width + x) * 4 + plate] : page.Spots.Single().Plate[y * page.Width + x];
                    // A hundredth of an ink.
                    ((double)ours).ShouldBe(255 - theirs.Getpoint(x, y)[0], 3, $"{what}: {inks[plate]} at {x}, {y}");
                }
            }
        }
    }

    public static TheoryData<string> Plain => ["contrast", "brightness", "saturation", "blur", "sharpen", "levels", "gamma", "invert", "grey", "tint"];

    /// <summary>Ghostscript's own device says which inks a page takes; the plates here say the same.</summary>
    [Theory]
    [MemberData(nameof(Plain))]
    public void A_grey_picture_stays_in_one_ink_under_every_treatment_that_gives_it_no_colour(string what)
    {
        var treatment = Of(what);
        using (var ramp = (Image.Xyz(100, 60).ExtractBand(0) * 2 + 20).Cast(Enums.BandFormat.Uchar)) ramp.Jpegsave(_shop.Folder["ramp.jpg"]);
        var p = Workshop.Link(Publication.Create(Workshop.A4() with { PageWidth = 300, PageHeight = 200, Bleed = 0 }, 1),
            _shop.Reader.Read(_shop.Folder["ramp.jpg"], "ramp.jpg"));
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(0, 0, 300, 200), ImageId = p.Images.Keys.Single(), Look = new() { Treatment = treatment } });
        PdfWriter.Write(p, new(_shop.Previews), new() { Press = Press, Convert = true }, _shop.Folder["g.pdf"]);
        string said = Tool.Run("gs", "-q", "-dNOPAUSE", "-dBATCH", "-sDEVICE=inkcov", "-r36", "-o", "-", _shop.Folder["g.pdf"]);
        double[] inks = [.. said.Split(' ', StringSplitOptions.RemoveEmptyEntries).Take(4)
            .Select(v => double.Parse(v, System.Globalization.CultureInfo.InvariantCulture))];
        inks[..3].ShouldBe([0, 0, 0], said);
        inks[3].ShouldBeGreaterThan(0.9);
        var page = Page(p, 36);
        Enumerable.Range(0, page.Width * page.Height).Max(i => page.Inks[(4 * i)..(4 * i + 3)].Max()).ShouldBe((byte)0);
    }

    [Fact]
    public void The_most_ink_is_found_and_what_the_press_cannot_print()
    {
        var p = Publication.Create(Workshop.A4() with { PageWidth = 200, PageHeight = 200, Bleed = 0 }, 1);
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(0, 0, 50, 50), Look = new() { Background = new CmykColour(0.9, 0.8, 0.7, 0.95) } });
        // The brightest green of a screen: no four inks come near it.
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(100, 100, 100, 100), Look = new() { Background = Colour.Of("#00ff00") } });
        var view = PressView.Of(SceneOf(p), Spread.At(p, 0).Trim, Press, PixelSource.Plain, 1_000_000, default);
        var (percent, index) = view.Page.Most();
        percent.ShouldBe(335, 2);
        (index % view.Page.Width < view.Page.Width / 4, index / view.Page.Width < view.Page.Height / 4).ShouldBe((true, true));
        // But for its edge, a pixel wide.
        view.ShareBeyond.ShouldBe(0.25, 0.02);
        using var gamut = Image.PngloadBuffer(view.Draw(PressShow.Gamut, 300));
        using var ink = Image.PngloadBuffer(view.Draw(PressShow.Ink, 300));
        bool Striped(Image image, double x, double y) => image.Crop((int)(x * image.Width), (int)(y * image.Height), 12, 12).ExtractBand(0).Deviate() > 40;
        (Striped(gamut, 0.7, 0.7), Striped(gamut, 0.1, 0.1), Striped(ink, 0.1, 0.1), Striped(ink, 0.7, 0.7)).ShouldBe((true, false, true, false));
    }

    /// <summary>Inks look as <c>vips icc_transform</c> says that they do.</summary>
    [Fact]
    public void Inks_look_as_their_profile_says()
    {
        CmykColour[] inks = [new(1, 0, 0, 0), new(0, 1, 0, 0), new(0, 0, 1, 0), new(0, 0, 0, 1), new(0.3, 0.2, 0.7, 0.1)];
        foreach (var four in inks)
        {
            double[] parts = [four.Cyan * 255, four.Magenta * 255, four.Yellow * 255, four.Key * 255];
            using (var patch = (Image.Black(8, 8, bands: 4) + parts).Cast(Enums.BandFormat.Uchar).Copy(interpretation: Enums.Interpretation.Cmyk))
                patch.Tiffsave(_shop.Folder["patch.tif"]);
            Tool.Run("vips", "icc_transform", _shop.Folder["patch.tif"], _shop.Folder["seen.png"], "srgb", "--input-profile",
                ColourProfile.GeneralPress.Source, "--intent", "relative",
                "--black-point-compensation");
            using var seen = Image.Pngload(_shop.Folder["seen.png"]);
            var ours = Press.OnScreen(four);
            var theirs = seen.Getpoint(4, 4);
            foreach (var (a, b) in new[] { (ours.Red, theirs[0]), (ours.Green, theirs[1]), (ours.Blue, theirs[2]) }) ((double)a).ShouldBe(b, 2, four.Text);
        }
    }
}

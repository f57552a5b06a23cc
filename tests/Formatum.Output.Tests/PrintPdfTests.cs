using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Imaging;
using Formatum.Testing;
using NetVips;

namespace Formatum.Output.Tests;

/// <summary>Files for print, held to PDF/X-4, and taken apart into plates by Ghostscript ("tiffsep"), which shares nothing with the program.</summary>
public sealed class PrintPdfTests : IDisposable
{
    private static readonly PressConversion Press = new(ColourProfile.GeneralPress);

    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private static PdfOptions Print => new() { Press = Press, Time = new(2026, 5, 4, 12, 0, 0, TimeSpan.FromHours(2)) };

    private string Write(Publication publication, PdfOptions? options = null)
    {
        string path = _shop.Folder[$"{Guid.NewGuid():n}.pdf"];
        PdfWriter.Write(publication, new(_shop.Previews), options ?? Print, path);
        return path;
    }

    private static Publication Square(int pages = 1) => Publication.Create(Workshop.A4() with { PageWidth = 400, PageHeight = 400, Bleed = 0 }, pages);

    private static Publication Colours(Publication p, params PaletteColour[] colours) => Workshop.Do(p, new TakePalette([.. colours]));

    private static NamedColour Named(Publication p, string name) => new(p.Colours.Values.Single(c => c.Name == name).Id);

    private string WithPicture(string file, Func<Image> make, string options = "")
    {
        using var picture = make();
        picture.WriteToFile(_shop.Folder[file] + options);
        return file;
    }

    /// <summary>Everything a scene can hold, in one publication.</summary>
    private Publication Everything()
    {
        var p = Colours(_shop.Sampler(), new PaletteColour { Id = 0, Name = "Kiln orange", Colour = new CmykColour(0, 0.6, 0.9, 0), IsSpot = true });
        p = Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(30, 770, 200, 60),
            Text = new([new("Words in black, and in ", TextStyle.Usual), new("a colour", TextStyle.Usual with { Colour = Colour.Of("#aa3311") })]),
            Look = new() { Background = Named(p, "Kiln orange"), SoftEdge = 4, InnerShadow = new(2, 2, 4, Colour.Black, 0.5) },
        });
        return Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(260, 770, 100, 60),
            Look = new() { Background = new CmykColour(0, 0.5, 0, 0), Blend = Blend.Multiply, Border = new(3, new GreyColour(0.4)) },
        });
    }

    [Theory]
    [InlineData(false, false)]
    [InlineData(true, true)]
    public void A_file_for_print_is_PDF_X_4(bool marks, bool convert)
    {
        string path = Write(Everything(), Print with
        {
            Convert = convert,
            Marks = marks ? new() { Crop = true, Registration = true, Bars = true, Information = true } : PrintMarks.None,
        });
        PrintFile.Faults(path).ShouldBeEmpty();
        Tool.Run("qpdf", "--check", path).ShouldContain("No syntax or stream encoding errors");
    }

    /// <summary>A check that finds nothing where something was spoiled would find nothing at all.</summary>
    [Theory]
    [InlineData("/TrimBox", "/TrimBux", "6.3: a page has a trim box")]
    [InlineData("/FontFile2", "/FontFilx2", "6.4: the font")]
    [InlineData("/DestOutputProfile", "/DestOutputProfilx", "6.2.2: the intent holds its profile")]
    [InlineData("/GTS_PDFX", "/GTS_PDFA", "6.2.2: there is one output intent")]
    [InlineData("/DeviceCMYK", "/DeviceRGB ", "6.2.4: no colours but")]
    [InlineData("/Trapped", "/Trappxd", "6.11")]
    [InlineData("PDF/X-4", "PDF/X-9", "6.15: metadata says PDF/X-4")]
    [InlineData("%PDF-1.6", "%PDF-1.7", "6.1: the file is of version")]
    [InlineData("/ID[", "/IX[", "6.1: the trailer has an ID")]
    [InlineData("/Resources", "/AA       ", "there is no /AA")]
    public void A_file_that_was_spoiled_is_not(string good, string bad, string clause)
    {
        string path = Write(Everything());
        byte[] bytes = File.ReadAllBytes(path);
        byte[] from = System.Text.Encoding.Latin1.GetBytes(good), to = System.Text.Encoding.Latin1.GetBytes(bad[..Math.Min(bad.Length, good.Length)]);
        for (int at; (at = bytes.AsSpan().IndexOf(from)) >= 0;) to.CopyTo(bytes, at);
        File.WriteAllBytes(path, bytes);
        PrintFile.Faults(path).ShouldContain(f => f.Contains(clause, StringComparison.Ordinal));
    }

    [Fact]
    public void The_same_publication_and_time_give_the_same_bytes()
    {
        var p = Everything();
        File.ReadAllBytes(Write(p)).ShouldBe(File.ReadAllBytes(Write(p)));
        File.ReadAllBytes(Write(p)).ShouldNotBe(File.ReadAllBytes(Write(p, Print with { Time = DateTimeOffset.UnixEpoch })));
    }

    /// <summary>How much of each plate prints at a place, 0 to 255, by the name of its ink.</summary>
    private Dictionary<string, Image> Plates(string pdf)
    {
        string folder = Directory.CreateDirectory(_shop.Folder[Guid.NewGuid().ToString("n")]).FullName;
        Tool.Run("gs", "-q", "-dNOPAUSE", "-dBATCH", "-dSAFER", "-sDEVICE=tiffsep", "-r72", $"-sOutputFile={folder}/p.tif", pdf);
        return Directory.GetFiles(folder, "p(*).tif").ToDictionary(f => Path.GetFileNameWithoutExtension(f)[2..^1], f =>
        {
            using var plate = Image.Tiffload(f);
            // A plate shows ink as black.
            return (255 - plate.ExtractBand(0)).Cast(Enums.BandFormat.Uchar).CopyMemory();
        });
    }

    private static void ShouldPrint(Dictionary<string, Image> plates, int x, int y, params (string Ink, double Share)[] inks)
    {
        foreach (var (name, plate) in plates)
            (plate.Getpoint(x, y)[0] / 255).ShouldBe(inks.FirstOrDefault(i => i.Ink == name).Share, 0.012, $"{name} at {x}, {y}");
    }

    [Fact]
    public void Inks_stay_what_they_are()
    {
        var p = Colours(Square(), new PaletteColour { Id = 0, Name = "Full cyan", Colour = new CmykColour(1, 0, 0, 0) },
            new PaletteColour { Id = 0, Name = "Kiln orange", Colour = new CmykColour(0, 0.6, 0.9, 0), IsSpot = true });
        string file = WithPicture("c100.jpg", () => (Image.Black(40, 40, bands: 4) + new double[] { 255, 0, 0, 0 }).Cast(Enums.BandFormat.Uchar)
            .Copy(interpretation: Enums.Interpretation.Cmyk), "[Q=95,strip]");
        string grey = WithPicture("grey.png", () => (Image.Black(40, 40) + 128).Cast(Enums.BandFormat.Uchar));
        p = Workshop.Link(p, _shop.Reader.Read(_shop.Folder[file], file), _shop.Reader.Read(_shop.Folder[grey], grey));
        Look[] looks =
        [
            new() { Background = Named(p, "Full cyan") }, new() { Background = new GreyColour(0.5) }, new() { Background = Named(p, "Kiln orange") },
            new() { Background = new CmykColour(0.1, 0.2, 0.3, 0.4) }, new() { Background = Colour.Black },
                new() { Background = new CmykColour(0, 1, 0, 0), Opacity = 0.5 },
        ];
        for (int i = 0; i < looks.Length; i++) p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(20 + 60 * i, 20, 40, 40), Look = looks[i] });
        foreach (string name in new[] { file, grey })
            p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(name == file ? 20 : 80, 100, 40, 40), ImageId = Workshop.IdOf(p, name) });
        var plates = Plates(Write(p));
        plates.Keys.ShouldBe(["Cyan", "Magenta", "Yellow", "Black", "Kiln orange"], ignoreOrder: true);
        ShouldPrint(plates, 40, 40, ("Cyan", 1));
        ShouldPrint(plates, 100, 40, ("Black", 0.5));
        ShouldPrint(plates, 160, 40, ("Kiln orange", 1));
        ShouldPrint(plates, 220, 40, ("Cyan", 0.1), ("Magenta", 0.2), ("Yellow", 0.3), ("Black", 0.4));
        ShouldPrint(plates, 280, 40, ("Black", 1));
        ShouldPrint(plates, 340, 40, ("Magenta", 0.5));
        ShouldPrint(plates, 40, 120, ("Cyan", 1));
        ShouldPrint(plates, 100, 120, ("Black", 1 - 128 / 255.0));
        ShouldPrint(plates, 200, 300);
    }

    [Fact]
    public void Black_text_is_on_one_plate_and_prints_over_what_lies_beneath()
    {
        var p = Workshop.Do(Square(), new MakeFrame { Page = 1, Box = new(0, 0, 400, 200), Look = new() { Background = new CmykColour(1, 0, 0, 0) } });
        p = Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(20, 20, 360, 340),
            Text = new(
            [new("\u2588\u2588 Black words", TextStyle.Usual with { Size = 60 })])
        });
        var plates = Plates(Write(p));
        plates["Magenta"].Max().ShouldBe(0);
        plates["Yellow"].Max().ShouldBe(0);
        plates["Black"].Max().ShouldBe(255);
        // Beneath the words the cyan has no hole.
        plates["Cyan"].Crop(0, 0, 400, 200).Min().ShouldBe(255);
        plates["Cyan"].Crop(0, 201, 400, 199).Max().ShouldBe(0);
    }

    [Fact]
    public void Marks_are_on_all_plates()
    {
        var p = Colours(Publication.Create(Workshop.A4() with { PageWidth = 300, PageHeight = 300 }, 1),
            new PaletteColour { Id = 0, Name = "Kiln orange", Colour = new CmykColour(0, 0.6, 0.9, 0), IsSpot = true });
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(50, 50, 40, 40), Look = new() { Background = Named(p, "Kiln orange") } });
        var plates = Plates(Write(p, Print with { Marks = PrintMarks.CropMarks }));
        plates.Count.ShouldBe(5);
        // The upper left mark that stands upright, at the trim: from the edge of the sheet to where the bleed begins.
        foreach (var (name, plate) in plates) plate.Crop(20, 0, 5, 14).Max().ShouldBeGreaterThan(40, name);
    }

    [Fact]
    public void A_page_of_text_is_small()
    {
        string words = string.Join(' ', Enumerable.Range(0, 600).Select(i => new[] { "clay", "Glaze", "kiln,", "firing", "ash", "wheel." }[i % 6]));
        var p = Workshop.Do(Publication.Create(Workshop.A4(), 1), new MakeFrame
        {
            Page = 1,
            Box = new(40, 40, 500, 760),
            Text = new([new(words, TextStyle.Usual)])
        });
        string path = Write(p, new PdfOptions());
        new FileInfo(path).Length.ShouldBeLessThan(60_000);
        Tool.Run("pdftotext", path, "-").ShouldContain("Glaze kiln, firing");
    }

    /// <summary>Where light becomes inks here, they are those of <c>vips icc_transform</c> of the picture; where it keeps its profile, Ghostscript makes the
    /// same of it. Held in CIEDE2000 below 1, by the press's own profile.</summary>
    [Theory]
    [InlineData("srgb.png", "", false)]
    [InlineData("srgb.png", "", true)]
    [InlineData("wide.tif", "p3", false)]
    [InlineData("wide.tif", "p3", true)]
    [InlineData("wide.jpg", "p3", false)]
    [InlineData("wide.jpg", "p3", true)]
    [InlineData("deep.png", "16", true)]
    [InlineData("lab.tif", "lab", true)]
    [InlineData("lab.tif", "lab", false)]
    public void Pictures_print_the_colour_their_profile_means(string file, string kind, bool convert)
    {
        byte[][] patches = [[200, 40, 40], [30, 160, 60], [40, 70, 190], [245, 240, 230], [120, 120, 120], [20, 24, 30], [230, 200, 60], [150, 60, 130]];
        var rows = patches.Select(c => (Image.Black(50, 400) + c.Select(v => (double)v).ToArray()).Cast(Enums.BandFormat.Uchar)).ToArray();
        using (var all = Image.Arrayjoin(rows, across: patches.Length).Copy(interpretation: Enums.Interpretation.Srgb)) all.WriteToFile(
            _shop.Folder["patches.png"]);
        switch (kind)
        {
            case "": File.Copy(_shop.Folder["patches.png"], _shop.Folder[file]); break;
            case "16": Tool.Run("vips", "colourspace", _shop.Folder["patches.png"], _shop.Folder[file], "rgb16"); break;
            case "lab": Tool.Run("vips", "colourspace", _shop.Folder["patches.png"], _shop.Folder[file], "lab"); break;
            default:
                Tool.Run("vips", "icc_transform", _shop.Folder["patches.png"], _shop.Folder[file] +
                (file.EndsWith("jpg", StringComparison.Ordinal) ? "[Q=98]" : ""),
                    kind, "--input-profile", "srgb");
                break;
        }
        var p = Workshop.Link(Square(), _shop.Reader.Read(_shop.Folder[file], file));
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(0, 0, 400, 400), ImageId = p.Images.Keys.Single() });
        string pdf = Write(p, Print with { Convert = convert }), inks = _shop.Folder["inks.tif"], press = _shop.Folder["press.icc"];
        File.WriteAllBytes(press, ColourProfile.GeneralPress.Bytes);
        Tool.Run("gs", "-q", "-dNOPAUSE", "-dBATCH", "-sDEVICE=tiff32nc", "-r72", $"-sOutputICCProfile={press}", $"-sDefaultCMYKProfile={press}",
            "-dRenderIntent=1", "-dBlackPtComp=1",
            $"-sOutputFile={inks}", $"--permit-file-read={press}", pdf);
        string[] tool = kind == "lab" ? ["icc_export", _shop.Folder[file], _shop.Folder["meant.tif"], "--output-profile", press]
            : ["icc_transform", _shop.Folder[file], _shop.Folder["meant.tif"], press, .. kind == "p3" ? ["--embedded"] : new[] { "--input-profile", "srgb" }];
        Tool.Run("vips", [.. tool, "--intent", "relative", "--black-point-compensation"]);
        // Debian's release of the tool makes other inks of a Lab picture than that of today does, by little.
        double most = kind == "lab" ? 1.3 : 1;
        using Image printed = Lab(inks), meant = Lab(_shop.Folder["meant.tif"]);
        for (int i = 0; i < patches.Length; i++)
        {
            using Image a = printed.Crop(20 + 50 * i, 200, 4, 4), b = meant.Crop(20 + 50 * i, 200, 4, 4);
            a.DE00(b).Max().ShouldBeLessThan(most, $"patch {i}: {string.Join(' ', a.Getpoint(1, 1))} for {string.Join(' ', b.Getpoint(1, 1))}");
        }
    }

    /// <summary>Where light is turned into inks, a run of colours in a drawing has between its ends the inks of the light that is meant there.</summary>
    [Fact]
    public void Runs_of_colours_in_drawings_keep_to_the_light_they_mean()
    {
        File.WriteAllText(_shop.Folder["run.svg"], "<svg xmlns='http://www.w3.org/2000/svg' width='400' height='400'><linearGradient id='g'><stop offset='0' " +
            "stop-color='#f00'/><stop offset='1' stop-color='#0f0'/></linearGradient><rect width='400' height='400' fill='url(#g)'/></svg>");
        var p = Workshop.Link(Square(), _shop.Reader.Read(_shop.Folder["run.svg"], "run.svg"));
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(0, 0, 400, 400), ImageId = p.Images.Keys.Single() });
        var plates = Plates(Write(p, Print with { Convert = true }));
        for (int x = 10; x < 400; x += 20)
        {
            double share = (x + 0.5) / 400;
            var meant = Press.Inks(new((byte)Math.Round(255 * (1 - share)), (byte)Math.Round(255 * share), 0));
            var printed = new CmykColour(Of("Cyan"), Of("Magenta"), Of("Yellow"), Of("Black"));
            double Of(string ink) => plates[ink].Getpoint(x, 200)[0] / 255;
            Core.Colours.Lab.Of(Press.OnScreen(printed)).DistanceTo(Core.Colours.Lab.Of(Press.OnScreen(meant))).ShouldBeLessThan(3, $"at {x}");
        }
    }

    /// <summary>Words in a drawing, and all in it that is neutral, are ink black alone, in the tone they show.</summary>
    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Words_in_drawings_are_ink_black_alone(bool convert)
    {
        File.WriteAllText(_shop.Folder["words.svg"], "<svg xmlns='http://www.w3.org/2000/svg' width='400' height='400'><text x='10' y='150' " +
            "font-size='140'>Kiln</text><rect y='200' width='200' height='200' fill='#808080'/><rect x='200' y='200' width='200' " +
            "height='200' fill='#c33'/></svg>");
        var p = Workshop.Link(Square(), _shop.Reader.Read(_shop.Folder["words.svg"], "words.svg"));
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(0, 0, 400, 400), ImageId = p.Images.Keys.Single() });
        string pdf = Write(p, Print with { Convert = convert });
        PrintFile.Faults(pdf).ShouldBeEmpty();
        var plates = Plates(pdf);
        foreach (string ink in new[] { "Cyan", "Magenta", "Yellow" })
        {
            using var words = plates[ink].Crop(0, 0, 400, 190);
            words.Max().ShouldBe(0, ink);
            plates[ink].Getpoint(100, 300)[0].ShouldBe(0, ink);
        }
        using (var words = plates["Black"].Crop(0, 0, 400, 190)) words.Max().ShouldBe(255);
        int grey = Press.OnScreen(new(0, 0, 0, plates["Black"].Getpoint(100, 300)[0] / 255)).Green;
        ((double)grey).ShouldBe(128, 2);
        plates["Magenta"].Getpoint(300, 300)[0].ShouldBeGreaterThan(180);
        // As the plates that are made here for the screen show it.
        var spread = Spread.At(p, 0);
        var ours = Output.Press.SeparatedPage.Of(Core.Composing.Composer.Compose(p, spread, Typefaces.All), spread.Trim, 72, Press, PixelSource.Plain,
            1_000_000,
            CancellationToken.None);
        ours.Inks.AsSpan((300 * ours.Width + 100) * 4, 4).ToArray().ShouldBe([0, 0, 0, (byte)plates["Black"].Getpoint(100, 300)[0]]);
    }

    private static Image Lab(string inks)
    {
        using var picture = Image.Tiffload(inks);
        using var meant = picture.Copy(interpretation: Enums.Interpretation.Cmyk);
        return meant.IccImport(inputProfile: ColourProfile.GeneralPress.Source, intent: Enums.Intent.Relative).CopyMemory();
    }
}

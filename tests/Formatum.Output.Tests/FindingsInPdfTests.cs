using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checking;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Imaging;
using Formatum.Output.Fonts;
using Formatum.Output.Pdf;
using Formatum.Output.Press;
using Formatum.Testing;

namespace Formatum.Output.Tests;

/// <summary>What the check finds in a publication is what readers of its PDF find there that know nothing of us.</summary>
public sealed class FindingsInPdfTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private static PublicationFindings Check(Publication p, CheckFacts? facts = null) =>
        PublicationFindings.Of(p, p.Profile, facts ?? CheckFacts.None, Typefaces.All);

    /// <summary>Effective resolution as <c>pdfimages -list</c> (poppler) works it out from pixels and points.</summary>
    [Fact]
    public void Coarse_pictures_are_those_that_poppler_finds_coarse()
    {
        var p = Workshop.Link(Publication.Create(Workshop.A4(), 4), _shop.Quarters("q.png", 300, 300));
        int image = Workshop.IdOf(p, "q.png");
        // 300 pixels over 71.5 to 252 points: 302 down to 86 ppi, none so near to a limit that whole numbers hide it.
        double[] sides = [72, 71.5, 90, 143, 146, 180, 252];
        for (int i = 0; i < sides.Length; i++)
            p = Workshop.Do(p, new MakeFrame
            {
                Page = 1 + i / 2,
                Box = new(40 + i % 2 * 260, 60, sides[i], sides[i]),
                ImageId = image,
                Own = new() { Fit = FitKind.Fill },
            });
        PdfWriter.Write(p, new(_shop.Previews), new(), _shop.Folder["r.pdf"]);
        double[] theirs = [.. Tool.Run("pdfimages", "-list", _shop.Folder["r.pdf"]).Split('\n').Skip(2)
            .Where(l => l.Contains("image", StringComparison.Ordinal))
            .Select(l => double.Parse(l.Split(' ', StringSplitOptions.RemoveEmptyEntries)[12], CultureInfo.InvariantCulture)).Order()];
        double[] ours = [.. p.Frames.Values.Select(f => p.FittedOf(f)!.Value.Coverage.Ppi).Order()];
        // It prints whole numbers.
        for (int i = 0; i < sides.Length; i++) Math.Abs(ours[i] - theirs[i]).ShouldBeLessThan(1, $"{ours[i]} and {theirs[i]}");
        var found = Check(p).All;
        found.Count(f => f.Kind == FindingKind.BelowLeastPpi).ShouldBe(theirs.Count(t => t < 150));
        found.Count(f => f.Kind == FindingKind.BelowWantedPpi).ShouldBe(theirs.Count(t => t is >= 150 and < 300));
    }

    /// <summary>A font that goes into no document is none of those that <c>pdffonts</c> lists; every other one is there, embedded.</summary>
    [Theory]
    [InlineData("restricted.ttf")]
    [InlineData("whole.ttf")]
    public void Fonts_that_may_not_be_embedded_are_not(string name)
    {
        var fonts = new FontStore(_shop.Folder["fonts"]);
        using var looked = Typefaces.All.LookIn(fonts);
        var read = FontReader.Read(File.ReadAllBytes(FontReaderTests.PathOf(name)), name).Single();
        fonts.Keep(read.Font, read.File);
        var p = Workshop.Do(Publication.Create(Workshop.A4(), 1), new AddFonts([read.Font]));
        p = Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(60, 60, 300, 80),
            Text = new([new("Hand", new TextStyle { Family = read.Font.Family, Size = 20 }), new("Press", TextStyle.Usual)]),
        });
        PdfWriter.Write(p, new(_shop.Previews), new(), _shop.Folder["f.pdf"]);
        bool isEmbedded = Tool.Run("pdffonts", _shop.Folder["f.pdf"]).Split('\n').Skip(2)
            .Any(l => l.Length > 0 && !l.Contains("Cabin", StringComparison.Ordinal));
        Check(p).All.Any(f => f.Kind == FindingKind.FontNotEmbeddable).ShouldBe(!isEmbedded);
        isEmbedded.ShouldBe(name == "whole.ttf");
    }

    /// <summary>The ink of a patch, added up from the plates that Ghostscript's tiffsep makes of the file.</summary>
    [Theory]
    [InlineData(0.9, 0.8, 0.7, 0.79, false)]
    [InlineData(0.9, 0.8, 0.7, 0.83, true)]
    public void So_much_ink_as_Ghostscript_prints(double cyan, double magenta, double yellow, double key, bool tooMuch)
    {
        var p = Publication.Create(Workshop.A4() with { PageWidth = 200, PageHeight = 200, Bleed = 0 }, 1);
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(40, 40, 100, 100), Look = new() { Background = new CmykColour(cyan, magenta, yellow, key) } });
        var press = new PressConversion(ColourProfile.GeneralPress);
        PdfWriter.Write(p, new(_shop.Previews), new() { Press = press }, _shop.Folder["i.pdf"]);
        Directory.CreateDirectory(_shop.Folder["plates"]);
        Tool.Run("gs", "-q", "-dNOPAUSE", "-dBATCH", "-dSAFER", "-sDEVICE=tiffsep", "-r72",
            $"-sOutputFile={_shop.Folder["plates/p.tif"]}", _shop.Folder["i.pdf"]);
        double theirs = 0;
        foreach (string plate in new[] { "Cyan", "Magenta", "Yellow", "Black" })
        {
            using var image = NetVips.Image.Tiffload(_shop.Folder[$"plates/p({plate}).tif"]);
            theirs += (255 - image.Getpoint(90, 90)[0]) / 2.55;
        }
        var page = SeparatedPage.Of(Core.Composing.Composer.Compose(p, Spread.At(p, 0), Typefaces.All), Spread.At(p, 0).Trim, 72, press, new(_shop.Previews));
        var (percent, _) = page.Most();
        // A hundredth of each ink is what 8 bits and rounding come to.
        percent.ShouldBe(theirs, 1.6);
        var facts = CheckFacts.None with { Inks = ImmutableDictionary<int, InkFact>.Empty.Add(p.Order.Ids[0], new(percent, default)) };
        Check(p, facts).All.Any(f => f.Kind == FindingKind.TooMuchInk).ShouldBe(tooMuch);
    }

    /// <summary>How much of a page each ink covers, as Ghostscript's device ink_cov tells it of a page with a photograph, words, lines and a wash.</summary>
    [Fact]
    public void Each_ink_covers_as_much_of_a_page_as_Ghostscript_says()
    {
        var photograph = _shop.Reader.Read(TestPictures.Photographs[^1], "p.jpg");
        var p = Workshop.Link(Publication.Create(Workshop.A4() with { PageWidth = 300, PageHeight = 400, Bleed = 0 }, 1), photograph);
        var wash = new Look { Background = new CmykColour(0.6, 0.2, 0.1, 0.05), Opacity = 0.8 };
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(0, 0, 300, 90), Look = wash });
        p = Workshop.Do(p, new MakeFrame { Page = 1, Box = new(40, 60, 200, 150), ImageId = p.Images.Keys.Single(), Own = new() { Fit = FitKind.Fill } });
        p = Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(40, 230, 200, 120),
            Text = new([new(string.Concat(Enumerable.Repeat("Words in ink black. ", 20)), TextStyle.Usual with { Colour = Colour.Black, Size = 12 })]),
            Look = new() { Border = new(3, new CmykColour(0, 1, 1, 0)) },
        });
        var press = new PressConversion(ColourProfile.GeneralPress);
        PdfWriter.Write(p, new(_shop.Previews), new() { Press = press, Convert = true }, _shop.Folder["c.pdf"]);
        double[] theirs = [.. Tool.Run("gs", "-q", "-dNOPAUSE", "-dBATCH", "-dSAFER", "-r72", "-sDEVICE=ink_cov", "-o", "-", _shop.Folder["c.pdf"])
            .Split(' ', StringSplitOptions.RemoveEmptyEntries).Take(4).Select(n => double.Parse(n, CultureInfo.InvariantCulture))];
        var spread = Spread.At(p, 0);
        var page = SeparatedPage.Of(Core.Composing.Composer.Compose(p, spread, Typefaces.All), spread.Trim, 72, press, new(_shop.Previews));
        double[] ours = [.. Enumerable.Range(0, 4).Select(ink => Enumerable.Range(0, page.Width * page.Height)
            .Average(i => page.Inks[i * SeparatedPage.Parts + ink] / 2.55))];
        theirs.Sum().ShouldBeGreaterThan(40);
        for (int ink = 0; ink < 4; ink++) ours[ink].ShouldBe(theirs[ink], 1, $"{string.Join(' ', ours)} and {string.Join(' ', theirs)}");
    }
}

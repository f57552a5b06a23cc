using System.Globalization;
using System.Text;
using System.Xml.Linq;
using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Imaging;
using Formatum.Output.Making;
using Formatum.Output.Tickets;
using Formatum.PrintShop;
using Formatum.Testing;

namespace Formatum.Output.Tests;

/// <summary>Job tickets, and the stand-in for a print shop: what it takes, what it refuses and why.</summary>
public sealed class PrintShopTests : IDisposable
{
    private static readonly PressConversion Press = new(ColourProfile.GeneralPress);
    private static readonly DateTimeOffset Time = new(2026, 11, 3, 9, 30, 0, TimeSpan.FromHours(1));

    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    /// <summary>Two pages with a picture, a spot colour, a soft shadow and words.</summary>
    private Publication Made(double ppi = 300)
    {
        var p = Publication.Create(Workshop.A4(facing: true) with { Edition = "Autumn" }, 2);
        p = Workshop.Link(p, _shop.Quarters($"jug-{ppi:0}.jpg", (int)ppi * 2, (int)ppi, ppi));
        p = Workshop.Do(p, new TakePalette([new PaletteColour { Id = 0, Name = "Kiln orange", Colour = new CmykColour(0, 0.6, 0.9, 0), IsSpot = true }]));
        p = Workshop.Do(p, new MakeFrame
        {
            Page = 1,
            Box = new(60, 60, 144, 72),
            ImageId = p.Images.Keys.Single(),
            Look = new() { Shadow = Shadow.Usual, SoftEdge = 4 },
        });
        return Workshop.Do(p, new MakeFrame
        {
            Page = 2,
            Box = new(60, 60, 200, 100),
            Text = new([new("Words & <more>", TextStyle.Usual)]),
            Look = new() { Background = new NamedColour(p.Colours.Values.Single(c => c.IsSpot).Id) },
        });
    }

    private (byte[] Ticket, string File) Job(Publication publication, Recipe? recipe = null, Func<JobTicket, JobTicket>? change = null)
    {
        var wish = new OutputWish(publication, recipe ?? Recipe.Usual[0], Press, Time);
        string path = _shop.Folder[$"{Guid.NewGuid():n}.pdf"];
        new OutputWriter(wish, new(_shop.Previews), _shop.Previews, new(new(_shop.Folder["fonts"]), null), 50_000_000).Write(path);
        var ticket = new JobTicket("F1-abc", PrintProduct.Of(wish), new(500, Binding.SaddleStitch, "matt, 170 g\nby Friday <please>"),
            new("Kiln #1.pdf", "application/pdf", new FileInfo(path).Length, wish.Count), Time);
        return ((change?.Invoke(ticket) ?? ticket).Write(), path);
    }

    private static JobAnswer Answer((byte[] Ticket, string File) job)
    {
        using var ticket = new MemoryStream(job.Ticket);
        using var file = File.OpenRead(job.File);
        return new JobBook(new()).Take(ticket, file);
    }

    [Fact]
    public void A_ticket_says_what_is_to_be_made()
    {
        var root = XElement.Load(new MemoryStream(Job(Made()).Ticket));
        var names = JobTicket.Names;
        root.Attribute("JobID")!.Value.ShouldBe("F1-abc");
        var product = root.Descendants(names + "Product").Single();
        product.Attribute("Amount")!.Value.ShouldBe("500");
        product.Element(names + "Comment")!.Value.ShouldBe("matt, 170 g\nby Friday <please>");
        double[] size = [.. product.Descendants(names + "LayoutIntent").Single().Attribute("FinishedDimensions")!.Value.Split(' ')
            .Select(n => double.Parse(n, CultureInfo.InvariantCulture))];
        // ISO 216: A4 is 210 mm x 297 mm.
        size[0].ShouldBe(210 / 25.4 * 72, 1e-3);
        size[1].ShouldBe(297 / 25.4 * 72, 1e-3);
        product.Descendants(names + "SurfaceColor").Single().Attribute("ColorsUsed")!.Value.ShouldBe("Cyan Magenta Yellow Black Kiln_orange");
        product.Descendants(names + "BindingIntent").Single().Attribute("BindingType")!.Value.ShouldBe("SaddleStitch");
        root.Descendants(names + "FileSpec").Single().Attribute("URL")!.Value.ShouldBe("Kiln%20%231.pdf");
        root.Descendants(names + "Color").Single().Attribute("CMYK")!.Value.ShouldBe("0 0.6 0.9 0");
    }

    [Fact]
    public void A_file_for_print_is_accepted_and_what_is_soft_remarked_on()
    {
        Answer(Job(Made())).ShouldSatisfyAllConditions(a => a.Reasons.ShouldBeEmpty(), a => a.Accepted.ShouldBeTrue());
        Answer(Job(Made(), Recipe.Usual[0] with { Convert = true, Marks = PrintMarks.CropMarks })).Accepted.ShouldBeTrue();
        Answer(Job(Made(ppi: 200))).Remarks.ShouldContain("Page 1: A picture has 200 ppi; it will look soft.");
    }

    [Theory]
    [InlineData(2, "names no output intent")]
    [InlineData(2, "not say that it is PDF/X-4")]
    public void A_file_for_screens_is_refused(int recipe, string reason) =>
        Answer(Job(Made(), Recipe.Usual[recipe] with { Spreads = false, Bleed = true })).Reasons.ShouldContain(
        r => r.Contains(reason, StringComparison.Ordinal));

    [Fact]
    public void What_differs_from_the_ticket_is_refused()
    {
        void Refused((byte[], string) job, string reason) => Answer(job).Reasons.ShouldContain(r => r.Contains(reason, StringComparison.Ordinal), reason);
        Refused(Job(Made(), change: t => t with { Product = t.Product with { Width = 300 } }),
            "Pages 1, 2: The page is 210 x 297 mm; the ticket says 105.8 x 297 mm");
        Refused(Job(Made(), change: t => t with { Product = t.Product with { Pages = 4 } }), "The ticket says 4 pages, the file has 2");
        Refused(Job(Made(), change: t => t with { Product = t.Product with { Spots = [] } }), "Page 2: The ink \u201cKiln orange\u201d");
        Refused(Job(Made(), Recipe.Usual[0] with { Bleed = false }), "There is 0 mm of bleed; 3 mm is needed");
        Refused(Job(Made(ppi: 90)), "Page 1: A picture has 90 ppi");
        Refused(Job(Made(), Recipe.Usual[0] with { Imposition = new() { Kind = ImpositionKind.Several, Across = 2, Down = 1 } }), "Send single pages");
    }

    /// <summary>A file as other programs may write it: read by this shop too, and refused for all that it lacks.</summary>
    [Fact]
    public void A_foreign_file_is_read_through_and_refused_for_all_it_lacks()
    {
        string page = _shop.Folder["page.html.ps"], path = _shop.Folder["foreign.pdf"];
        File.WriteAllText(page, "%!\n/Helvetica findfont 20 scalefont setfont 1 0 0 setrgbcolor 72 72 moveto (Words) show showpage\n");
        Tool.Run("gs", "-q", "-dNOPAUSE", "-dBATCH", "-sDEVICE=pdfwrite", "-dCompatibilityLevel=1.7", "-dEmbedAllFonts=false", "-dDEVICEWIDTHPOINTS=595",
            "-dDEVICEHEIGHTPOINTS=842", $"-sOutputFile={path}", page);
        var answer = Answer((Job(Made(), change: t => t with { Product = t.Product with { Pages = 1 }, File = t.File with { Sheets = 1 } }).Ticket, path));
        answer.Accepted.ShouldBeFalse();
        foreach (string reason in new[] { "output intent", "PDF/X-4", "trim box", "Helvetica is not in the file", "RGB without a profile" })
            answer.Reasons.ShouldContain(r => r.Contains(reason, StringComparison.Ordinal), reason);
    }

    [Fact]
    public void Rubbish_is_refused_in_words()
    {
        var good = Job(Made());
        string rubbish = _shop.Folder["rubbish.pdf"];
        File.WriteAllText(rubbish, "%PDF-1.6\nno more than that");
        Answer((good.Ticket, rubbish)).Reasons.Single().ShouldContain("cannot be read as a PDF");
        foreach (string ticket in new[] { "",
            "<a", "<a/>", "<!DOCTYPE a [<!ENTITY b \"c\">]><a>&b;</a>", "<XJDF xmlns=\"http://www.CIP4.org/JDFSchema_2_0\"/>" })
            Answer((Encoding.UTF8.GetBytes(ticket), good.File)).Reasons.Single().ShouldContain("ticket", customMessage: ticket);
        byte[] bytes = File.ReadAllBytes(good.File);
        for (int cut = 1; cut < 8; cut++)
        {
            File.WriteAllBytes(rubbish, bytes[..(bytes.Length * cut / 8)]);
            Answer((good.Ticket, rubbish)).Accepted.ShouldBeFalse();
        }
    }

    [Fact]
    public void Operators_are_told_from_strings_and_pictures()
    {
        string content = "q 1 0 0 1 2 -.5 cm % 1 0 0 rg\n(1 0 0 rg \\) (rg)) Tj <3120> Tj [(a)-20(b)] TJ BI /W 1 /H 1 ID 1 0 0 rg\nEI /Fm Do Q";
        ContentOperators.Of(Encoding.Latin1.GetBytes(content)).Select(o => o.Operator).ShouldBe(["q", "cm", "Tj", "Tj", "TJ", "BI", "ID", "EI", "Do", "Q"]);
    }
}

using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Imaging;
using Formatum.Testing;
using Formatum.Web.Colours;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>The palette: on House style's Colours, on the Desk, as files, and through the automation interface.</summary>
public sealed class ColourTests(Workplace place) : InBrowser(place)
{
    private async Task<(int Publication, int Frame)> BeginAsync()
    {
        int id = await Server.NewPublicationAsync("Coloured", pages: 2, facing: false);
        var made = await Server.PostAsync($"/api/publications/{id}/frames", new
        {
            page = 1,
            x = 60,
            y = 60,
            width = 300,
            height = 120,
            text = new { paragraphs = new[] { new { text = "Jugs and bowls", colour = "Magenta" } } },
            look = new { background = "Yellow", border = new { width = 3, colour = new { cmyk = new[] { 0, 0.5, 0, 0.25 } } } },
        });
        return (id, made.GetProperty("id").GetInt32());
    }

    private string Fill(string css) => Browser.Run<string>("return document.querySelector(arguments[0]).getAttribute('fill')", css);

    [Fact]
    public async Task A_colour_is_changed_once_and_everything_follows()
    {
        var (id, frame) = await BeginAsync();
        Go($"/publications/{id}/colours");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".colour-item")).Count == 6, "the palette");
        Browser.Driver.FindElements(By.CssSelector(".colour-item")).First(c => c.Text.Contains("Yellow", StringComparison.Ordinal)).Click();
        Browser.Until(() => Browser.Has("#ink-Cyan") && Browser.Find("#rule-name").GetAttribute("value") == "Yellow", "its figures");
        Type("#ink-Cyan", "100");
        Browser.Until(() => Browser.Has($"[data-touched='{frame}']"), "the frame is shown before and after");
        Browser.Until(() => Browser.Find("#rule-samples").Text.Contains("C 100 M 0 Y 100 K 0", StringComparison.Ordinal), "its figures are shown");
        Browser.Find("#rule-samples").Text.ShouldContain("#009641");
        Type("#rule-name", "Spring");
        Browser.Click("#apply");
        Browser.Until(() => Browser.Find("[aria-current=page] .rule-name").Text is not null && Browser.Driver.FindElements(By.CssSelector(".colour-item"))
            .Any(c => c.Text.Contains("Spring", StringComparison.Ordinal)), "it is renamed");
        OpenDesk(id);
        Browser.Has($"#frame-{frame} rect.shape[fill='#009641']").ShouldBeTrue();
        Fill($"#frame-{frame} .set-text text").ShouldBe("#e6007e");
        var look = (await Server.GetAsync($"/api/publications/{id}")).GetProperty("frames")[0].GetProperty("look");
        look.GetProperty("background").GetString().ShouldBe("Spring");
        look.GetProperty("border").GetProperty("colour").GetProperty("cmyk")[1].GetDouble().ShouldBe(0.5);
        Go($"/publications/{id}/colours");
        Browser.Click("#history [data-do=undo]");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".colour-item")).Any(c => c.Text.Contains("Yellow", StringComparison.Ordinal)),
            "undone");
    }

    /// <summary>A screen's green is no green of four inks: outside the gamut of any offset press (common practice, no source); inks are what they
    /// are.</summary>
    [Fact]
    public async Task A_colour_that_no_inks_come_near_to_is_told_and_shown_as_it_prints()
    {
        var (id, _) = await BeginAsync();
        Go($"/publications/{id}/colours/new");
        Browser.Click("[name=Kind][value=Screen]");
        Type("#hex", "#00ff40");
        Type("#rule-name", "Signal");
        Browser.Until(() => Browser.Find("#rule-samples").Text.Contains("No inks of this press come near to it", StringComparison.Ordinal), "told");
        Browser.Find("#rule-samples").Text.ShouldContain("with four inks in general");
        Type("#hex", "#8a8178");
        Browser.Until(() => Browser.Find("#rule-samples").Text.Contains("#8a8178", StringComparison.Ordinal)
            && !Browser.Find("#rule-samples").Text.Contains("No inks", StringComparison.Ordinal), "a quiet colour prints as it is");
        Type("#hex", "#00ff40");
        Browser.Until(() => Browser.Find("#rule-samples").Text.Contains("No inks", StringComparison.Ordinal), "told again");
        Browser.Click("[data-act=Apply]");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".colour-item .beyond")).Count == 1, "told in the palette");
    }

    [Fact]
    public async Task On_the_Desk_a_colour_is_one_of_the_palette_or_one_of_its_own()
    {
        var (id, frame) = await BeginAsync();
        OpenDesk(id);
        Click(Window(200, 150));
        Browser.Until(() => Browser.Has("#text-colour-name"), "the text's inspector");
        Browser.Find("#text-colour-name option:checked").Text.ShouldBe("Magenta");
        Browser.Driver.FindElements(By.CssSelector("#text-colour-name option")).First(o => o.Text == "Cyan").Click();
        Browser.Until(() => Fill($"#frame-{frame} .set-text text") == "#009fe3", "cyan");
        Browser.Click("#more-look summary");
        Browser.Find("#look-background-colour-name option:checked").Text.ShouldBe("Yellow");
        Browser.Find("#look-border-colour-name option:checked").Text.ShouldBe("own colour");
        Browser.Driver.FindElements(By.CssSelector("#look-border-colour-name option")).First(o => o.Text == "Black").Click();
        Frame(id, frame, f => f.GetProperty("look").GetProperty("border").GetProperty("colour").ValueKind == JsonValueKind.String,
            "the border is the palette's black");
        Settled();
        Browser.Run<object?>("const f = document.getElementById('look-background-colour'); f.value = '#123456'; " +
            "f.dispatchEvent(new Event('change', { bubbles: true }))");
        Frame(id, frame, f => f.GetProperty("look").GetProperty("background").GetString() == "#123456", "a colour of its own");
    }

    [Fact]
    public async Task Removing_a_colour_asks_what_takes_its_place()
    {
        var (id, frame) = await BeginAsync();
        int yellow = (await Server.GetAsync($"/api/publications/{id}/palette")).EnumerateArray().Single(c => c.GetProperty("name").GetString() == "Yellow")
            .GetProperty("id").GetInt32();
        Go($"/publications/{id}/colours/{yellow}");
        Browser.Click("[popovertarget=remove-card]");
        Browser.Driver.FindElements(By.CssSelector("#remove-instead option")).First(o => o.Text == "Grey").Click();
        Browser.Click("#remove-card button.btn-primary");
        Browser.Until(() => Browser.Has($"[data-touched='{frame}']"), "what it does is shown");
        Browser.Click("#apply");
        Frame(id, frame, f => f.GetProperty("look").GetProperty("background").GetString() == "Grey", "another stands in");
    }

    [Fact]
    public async Task Colours_come_from_files_and_pictures()
    {
        var (id, _) = await BeginAsync();
        await File.WriteAllTextAsync(Pictures["spring.gpl"],
            "GIMP Palette\nName: Spring\nColumns: 3\n# by hand\n 47 111  79\tMoss & <b>bark</b>\n122 59 105\tPlum\n");
        Go($"/publications/{id}/colours");
        Browser.Find("#palette-file").SendKeys(Pictures["spring.gpl"]);
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".colour-item .rule-name")).Any(c => c.Text == "Moss & <b>bark</b>"),
            "both are in the palette");
        await File.WriteAllTextAsync(Pictures["bad.gpl"], "GIMP Palette\n47 111\tMoss\n");
        Browser.Find("#palette-file").SendKeys(Pictures["bad.gpl"]);
        Browser.Until(() => Browser.Find("#notices").Text.Contains("Line 2 is no colour", StringComparison.Ordinal), "why it is not taken");

        await Server.UploadAsync(id, ("two.png", TwoColours()));
        Go($"/publications/{id}/colours");
        Browser.Click("#from-picture option:last-child");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".main-colours a")).Count == 2, "its two colours");
        var found = Browser.Driver.FindElements(By.CssSelector(".main-colours a")).Select(a => Core.Colours.Colour.Of(a.GetAttribute("title")!).Shown).ToList();
        foreach (var (told, wanted) in found.Zip([new Core.Colours.RgbColour(0x20, 0x50, 0x80), new(0xe0, 0xa0, 0x30)]))
            foreach (var (a, b) in new[] { (told.Red, wanted.Red), (told.Green, wanted.Green), (told.Blue, wanted.Blue) }) ((double)a).ShouldBe(b, 2);
        Browser.Click(".main-colours a");
        Browser.Until(() => Browser.Has("#hex") && Browser.Find("#hex").GetAttribute("value") == found[0].Text, "a new colour begins with it");
    }

    private static byte[] TwoColours()
    {
        using var bitmap = new SkiaSharp.SKBitmap(300, 200);
        using var canvas = new SkiaSharp.SKCanvas(bitmap);
        canvas.Clear(SkiaSharp.SKColor.Parse("#205080"));
        using var paint = new SkiaSharp.SKPaint { Color = SkiaSharp.SKColor.Parse("#e0a030") };
        canvas.DrawRect(0, 0, 100, 200, paint);
        using var png = bitmap.Encode(SkiaSharp.SKEncodedImageFormat.Png, 100);
        return png.ToArray();
    }

    /// <summary>Read back by Pillow, which knows such files.</summary>
    [Fact]
    public async Task A_palette_that_is_taken_away_is_read_by_another_program_and_comes_back()
    {
        var (id, _) = await BeginAsync();
        using var put = await Server.Client.PutAsJsonAsync($"/api/publications/{id}/palette", new object[]
        {
            new { name = "Moss", cmyk = new[] { 0.5, 0, 0.25, 0.2 } }, new { name = "Plum, dark", rgb = "#7a3b69" }, new { name = "Slate", grey = 0.6 },
            new { name = "Celadon", spot = true, cmyk = new[] { 0.4, 0, 0.2, 0 } },
        });
        put.StatusCode.ShouldBe(HttpStatusCode.OK, await put.Content.ReadAsStringAsync());
        await File.WriteAllBytesAsync(Pictures["out.gpl"], await Server.Client.GetByteArrayAsync($"/api/publications/{id}/palette.gpl"));
        string read = Tool.Run("/usr/bin/python3", "-c",
            "import sys\nfrom PIL.GimpPaletteFile import GimpPaletteFile\np, mode = GimpPaletteFile(open(sys.argv[1], 'rb')).getpalette()\n" +
            "print(mode, list(p[9:21]))", Pictures["out.gpl"]);
        // Inks are there as they print; between the mixtures of a table, about so.
        var press = new PressConversion(ColourProfile.GeneralPress);
        RgbColour[] meant = [press.OnScreen(new(0.5, 0, 0.25, 0.2)), new(122, 59, 105), press.OnScreen(new(0, 0, 0, 0.6)), press.OnScreen(new(0.4, 0, 0.2, 0))];
        int[] there = [.. read.Split('[')[1].Split(']')[0].Split(',').Select(n => int.Parse(n, CultureInfo.InvariantCulture))];
        var asked = meant.SelectMany(c => new int[] { c.Red, c.Green, c.Blue });
        there.Zip(asked).Max(p => Math.Abs(p.First - p.Second)).ShouldBeLessThan(8, $"{read} and {string.Join(' ', asked)}");
        byte[] json = await Server.Client.GetByteArrayAsync($"/api/publications/{id}/palette.json");
        var before = (await Server.GetAsync($"/api/publications/{id}/palette")).ToString();
        using var again = await Server.Client.PutAsync($"/api/publications/{id}/palette",
            new ByteArrayContent(json) { Headers = { ContentType = new("application/json") } });
        (await again.Content.ReadAsStringAsync()).ShouldBe(before);
        // What used a colour that went stays as it looked.
        (await Server.GetAsync($"/api/publications/{id}")).GetProperty("frames")[0].GetProperty("look").GetProperty("background")
            .GetProperty("cmyk")[2].GetDouble()
            .ShouldBe(1);
    }

    [Fact]
    public async Task Impossible_colours_are_refused_with_their_field()
    {
        var (id, frame) = await BeginAsync();
        foreach (object look in new object[] { new { background = "Nowhere" }, new { background = new { cmyk = new[] { 0, 0, 0, 1.5 } } },
            new { background = new { named = 3 } },
            new { background = new { grey = "x" } }, new { border = new { width = 1, colour = "#12345" } } })
        {
            using var answer = await Server.Client.PatchAsJsonAsync($"/api/publications/{id}/frames/{frame}", new { look });
            answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        }
        foreach (object palette in new object[] { new object[] { new { name = "A" } }, new object[] { new { name = "A", rgb = "#112233", grey = 0.5 } },
            new object?[] { null },
            new object[] { new { name = "A", cmyk = new[] { 1 } } }, new object[] { new { name = "A", grey = 0.1 }, new { name = "a", grey = 0.2 } } })
        {
            using var answer = await Server.Client.PutAsJsonAsync($"/api/publications/{id}/palette", palette);
            answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest, JsonSerializer.Serialize(palette));
        }
        (await Server.GetAsync($"/api/publications/{id}/palette")).GetArrayLength().ShouldBe(6);
    }

    [Theory]
    [InlineData("")]
    [InlineData("OTHER-PAL\n0100\n")]
    [InlineData("GIMP Palette\n")]
    [InlineData("GIMP Palette\n256 0 0 Red\n")]
    [InlineData("GIMP Palette\n1 2 x Red\n")]
    [InlineData("[null]")]
    [InlineData("[{\"name\":\"A\"}]")]
    [InlineData("[1,")]
    public void What_is_no_palette_file_is_told(string text) =>
        Should.Throw<EditRefused>(() => PaletteFile.Read(Encoding.UTF8.GetBytes(text))).Message.ShouldNotBeEmpty();

    [Fact]
    public void Palette_files_are_read_as_they_come()
    {
        string many = "GIMP Palette\n" + string.Concat(Enumerable.Range(0, 1001).Select(i => $"1 2 {i % 256}\tC{i}\n"));
        Should.Throw<EditRefused>(() => PaletteFile.Read(Encoding.UTF8.GetBytes(many))).Message.ShouldContain("1,000");
        var read = PaletteFile.Read(Encoding.UTF8.GetBytes(
            "\ufeffGIMP Palette\r\nName: x: y\r\n#\r\n  1   2   3\tUntitled\r\n4 5 6 Untitled\r\n7 8 9\r\n10 11 12 #hash\r\n"));
        read.Select(c => (c.Name, c.Colour.Hex)).ShouldBe([("Untitled", "#010203"), ("Untitled 2", "#040506"), ("070809", "#070809"), ("hash", "#0a0b0c")]);
    }
}

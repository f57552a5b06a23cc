using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Publications set against PDFs that were made before.</summary>
public sealed class CompareFileTests(Workplace place) : InBrowser(place)
{
    private static string At(int id, string what) => $"/api/publications/{id}/{what}";

    /// <summary>Two pages, with a picture and words on the first.</summary>
    private async Task<(int Id, int Picture, int Words)> BeginAsync()
    {
        int id = await Server.NewPublicationAsync(pages: 2, facing: false);
        int image = (await Server.UploadAsync(id, ("vase.jpg", ApiTests.Jpeg(900, 600))))[0].GetProperty("id").GetInt32();
        async Task<int> FrameAsync(object frame) => (await Server.PostAsync(At(id, "frames"), frame)).GetProperty("id").GetInt32();
        int picture = await FrameAsync(new { page = 1, x = 60, y = 60, width = 300, height = 200, imageId = image, name = "Vase" });
        int words = await FrameAsync(new { page = 1, x = 60, y = 300, width = 300, height = 80, text = Text("Blue clay stands by the window") });
        return (id, picture, words);
    }

    private static object Text(string words) => new { paragraphs = new[] { new { text = words } } };

    private async Task ChangeAsync(int id, int frame, object change) =>
        (await Server.Client.PatchAsJsonAsync(At(id, $"frames/{frame}"), change)).EnsureSuccessStatusCode();

    private async Task<string[]> ToldAsync(int id, string with) => [.. (await Server.GetAsync(At(id, $"compare?with={with}"))).EnumerateArray()
        .Select(d => $"{d.GetProperty("kind").GetString()}: {d.GetProperty("subject").GetString()} {d.GetProperty("words").GetString()}")];

    private async Task<HttpResponseMessage> BringAsync(int id, string name, byte[] content)
    {
        using var form = new MultipartFormDataContent { { new ByteArrayContent(content), "files", name } };
        return await Server.Client.PostAsync(At(id, "compare/pdfs"), form);
    }

    private async Task<string> BroughtAsync(int id, string name, byte[] content)
    {
        using var answer = await BringAsync(id, name, content);
        string text = await answer.Content.ReadAsStringAsync();
        answer.StatusCode.ShouldBe(HttpStatusCode.Created, text);
        return JsonDocument.Parse(text).RootElement.GetProperty("with").GetString()!;
    }

    private Task<byte[]> MadeAsync(int id, string recipe = "print") => Server.Client.GetByteArrayAsync(At(id, $"output.pdf?recipe={recipe}"));

    [Fact]
    public async Task A_program_is_told_what_differs_from_a_file_and_from_an_output_that_is_kept()
    {
        var (id, picture, words) = await BeginAsync();
        string output = (await Server.PostAsync(At(id, "outputs"), new { recipe = "screen" })).GetProperty("id").GetString()!;
        string brought = await BroughtAsync(id, "sent to print.pdf", await MadeAsync(id));
        Browser.Until(() => Server.GetAsync(At(id, $"outputs/{output}")).GetAwaiter().GetResult().GetProperty("state").GetString() == "done", "made");
        (await ToldAsync(id, brought)).ShouldBeEmpty();
        (await ToldAsync(id, $"output-{output}")).ShouldBeEmpty();

        await ChangeAsync(id, picture, new { x = "24 mm", y = 60 + 72 });
        await ChangeAsync(id, words, new { text = Text("Red clay stands by the long window") });
        string[] expected =
        [
            "words: \u201cBlue\u201d Words changed. Became \u201cRed\u201d.", "words: \u201clong\u201d Words changed. Came.",
            "moved: A picture Moved. 2.8 mm to the right, 25.4 mm down.",
        ];
        foreach (string with in new[] { brought, $"output-{output}" })
            (await ToldAsync(id, with)).Where(d => !d.Contains("words from", StringComparison.Ordinal)
                && !d.StartsWith("moved: \u201c", StringComparison.Ordinal)).ShouldBe(expected);
        // The same file again is the same.
        (await BroughtAsync(id, "again.pdf", await MadeAsync(id))).ShouldNotBe(brought);
    }

    [Fact]
    public async Task What_is_no_PDF_is_refused_in_words_and_old_ones_make_room()
    {
        var (id, _, _) = await BeginAsync();
        using (var letter = await BringAsync(id, "letter.pdf", Encoding.ASCII.GetBytes("This is a letter.")))
        {
            letter.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            (await letter.Content.ReadAsStringAsync()).ShouldContain("cannot be read as a PDF");
        }
        await ApiTests.RefusedAsync(await Server.Client.GetAsync(At(id, "compare?with=pdf-0000")), HttpStatusCode.NotFound);
        byte[] made = await MadeAsync(id);
        string brought = await BroughtAsync(id, "a.pdf", made);
        await ApiTests.RefusedAsync(await Server.Client.GetAsync(At(id, $"compare?with={brought}&as=book")));
        await ApiTests.RefusedAsync(await Server.Client.GetAsync(At(id, $"compare?with={brought}&as=none")), HttpStatusCode.NotFound);
        // What is behind a PDF's end is no part of it: other files, the same pages.
        for (int i = 0; i < 10; i++) await BroughtAsync(id, $"{i}.pdf", [.. made, .. Encoding.ASCII.GetBytes($"\n% {i}\n")]);
        await ApiTests.RefusedAsync(await Server.Client.GetAsync(At(id, $"compare?with={brought}")), HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_PDF_is_brought_shown_beside_the_pages_and_laid_over_them()
    {
        var (id, picture, _) = await BeginAsync();
        string file = Pictures["made before.pdf"];
        await File.WriteAllBytesAsync(file, await MadeAsync(id));
        await ChangeAsync(id, picture, new { x = 120 });
        Browser.Driver.Navigate().GoToUrl($"{Server.Address}/publications/{id}/compare");
        Browser.Find("#compare[data-ready]");
        Browser.Find("#pdf-file").SendKeys(file);
        bool Says(string css, string words) => Browser.Has(css) && Browser.Find(css).Text.Contains(words, StringComparison.Ordinal);
        Browser.Until(() => Says(".compare-list", "Moved: A picture"), "compared");
        Browser.Until(() => Browser.Driver.FindElements(By.CssSelector(".file-page[data-drawn=yes] canvas")).Count == 2, "both are drawn");
        Browser.Driver.FindElements(By.CssSelector("#with option[selected]")).Single().Text.ShouldContain("made before.pdf (brought)");
        HasInk("before").ShouldBeTrue("the picture lies on the page that was");
        HasInk("now").ShouldBeFalse("and has gone from there now");
        Browser.Click("[name=view][value=over]");
        Browser.Until(() => Browser.Find(".compare-main").GetDomAttribute("data-view") == "over", "laid over");
        Browser.Click("#as option[value=screen]");
        Browser.Until(() => Says(".compare-sum", "by the recipe Screen"), "made otherwise");
        Browser.Find(".compare-list a").Click();
        Browser.Until(() => Browser.Has("#desk[data-ready]"), "where it is");
    }

    /// <summary>Whether something is drawn 80 points from the left and 100 from the top of a page.</summary>
    private bool HasInk(string which) => (bool)Browser.Driver.ExecuteScript("""
        const place = document.querySelector(`.file-page[data-which=${arguments[0]}]`), canvas = place.querySelector('canvas');
        const scale = canvas.width / Number(place.dataset.trim.split(' ')[2]);
        const [r, g, b] = canvas.getContext('2d').getImageData(80 * scale, 100 * scale, 1, 1).data;
        return Math.min(r, g, b) < 250;
        """, which)!;
}

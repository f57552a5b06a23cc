using System.Text.Json;
using Formatum.Testing;

namespace Formatum.Web.Tests;

/// <summary>The demo on the command line: free of findings under Offset, but for the fault sheet, which has them all.</summary>
public sealed class DemoCheckTests(DemoData demo)
{
    /// <summary>What cannot be shown without a font that forbids it, and what Offset does not look for.</summary>
    private static readonly string[] NotThere =
        ["fontNotEmbeddable", "pictureTwice", "styleUnused", "ruleUnused", "lookUnused", "lockedContent"];

    private static (int Exit, string Told) Check(TestServer server, params string[] arguments)
    {
        return Tool.Try("dotnet", [TestServer.Program, "check", .. arguments, "--data", server.DataFolder]);
    }

    [Fact]
    public async Task The_demo_is_clean_and_the_fault_sheet_has_every_fault()
    {
        using var server = demo.Server();
        foreach (string clean in new[] { "The Kiln Post", "From Clay to Table", "Brackenfold Kilns: Autumn Catalog" })
        {
            var (exit, told) = Check(server, clean, "--profile", "offset");
            told.ShouldContain("0 faults, 0 warnings, 0 notes");
            exit.ShouldBe(0, told);
        }
        var (found, listed) = Check(server, "the fault sheet", "--profile=offset");
        found.ShouldBe(1);
        listed.ShouldContain("Fault    Page 4       Too much ink: Page 4. Ink 350");
        Check(server, "No such thing").Exit.ShouldBe(2);
        Check(server, "The Kiln Post", "--profile", "glaze").ShouldSatisfyAllConditions(c => c.Exit.ShouldBe(2), c => c.Told.ShouldContain("Newspaper"));

        int id = (await server.GetAsync("/api/publications")).EnumerateArray().Single(p => p.GetProperty("name").GetString() == "The fault sheet")
            .GetProperty("id").GetInt32();
        var kinds = (await server.GetAsync($"/api/publications/{id}/check?profile=offset")).GetProperty("findings").EnumerateArray()
            .Select(f => f.GetProperty("id").GetString()!.Split('-')[0]).ToHashSet();
        Enum.GetNames<Core.Publications.FindingKind>().Select(k => char.ToLowerInvariant(k[0]) + k[1..]).Except(NotThere).Except(kinds).ShouldBeEmpty();
        await ReportsAsync(server, id);
    }

    /// <summary>The report says the same in all its forms; the PDF is read back by poppler.</summary>
    private static async Task ReportsAsync(TestServer server, int id)
    {
        var json = JsonDocument.Parse(await server.Client.GetStringAsync($"/api/publications/{id}/check/report.json?profile=offset")).RootElement;
        string html = await server.Client.GetStringAsync($"/api/publications/{id}/check/report.html?profile=offset");
        using var folder = new TempFolder();
        File.WriteAllBytes(folder["report.pdf"], await server.Client.GetByteArrayAsync($"/api/publications/{id}/check/report.pdf?profile=offset"));
        string pdf = Tool.Run("pdftotext", "-layout", folder["report.pdf"], "-");
        foreach (string words in new[] { "Text left over: More than fits.", "Edge without bleed: Ends at the trim." })
        {
            json.GetProperty("findings").EnumerateArray().ShouldContain(f => f.GetProperty("words").GetString()!.StartsWith(words, StringComparison.Ordinal));
            html.ShouldContain(words);
            pdf.ShouldContain(words);
        }
        Tool.Run("pdfimages", "-list", folder["report.pdf"]).ShouldContain("jpeg");
        html.ShouldContain("<div class=\"mark\"");
        html.ShouldNotContain("src=\"/");
        await ApiTests.RefusedAsync(await server.Client.GetAsync($"/api/publications/{id}/check/report.doc"));
    }
}

using System.Net;
using Formatum.Testing;

namespace Formatum.Web.Tests;

/// <summary>Publications deleted for good, and the room that their pictures took.</summary>
public sealed class RoomTests(Workplace place) : InBrowser(place)
{
    private async Task<(int Publication, string File)> WithPictureAsync(string name, byte mark)
    {
        int id = await Server.NewPublicationAsync(name);
        byte[] picture = [.. File.ReadAllBytes(TestPictures.Save(TestPictures.Quarters(60, 40), Pictures["plain.jpg"])), mark];
        await Server.UploadAsync(id, ("plain.jpg", picture));
        string hash = Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(picture));
        string file = Path.Combine(Server.DataFolder, "pictures", hash[..2], hash + ".jpeg");
        // What came in just now may be on its way into a publication.
        File.SetLastWriteTimeUtc(file, DateTime.UtcNow.AddDays(-1));
        return (id, file);
    }

    [Fact]
    public async Task What_is_deleted_for_good_is_gone_with_its_pictures_and_what_others_use_stays()
    {
        var (gone, unused) = await WithPictureAsync("To be deleted", 1);
        var (stays, used) = await WithPictureAsync("To be kept", 2);
        // Taken out again, a picture is still in the history.
        int image = (await Server.GetAsync($"/api/publications/{stays}")).GetProperty("images")[0].GetProperty("id").GetInt32();
        (await Server.Client.DeleteAsync($"/api/publications/{stays}/images/{image}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        string output = (await Server.PostAsync($"/api/publications/{gone}/outputs", new { recipe = "print" })).GetProperty("id").GetString()!;
        string made = Path.Combine(Server.DataFolder, "outputs", $"{gone}", $"{output}.out");
        Browser.Until(() => File.Exists(made) && Server.GetAsync($"/api/publications/{gone}/outputs/{output}").Result.GetProperty("state")
            .GetString() == "done",
            "an output is made");
        Go("/");
        Browser.Click("[aria-label='Put away To be deleted']");
        Browser.Click("details.put-away:last-of-type > summary");
        Browser.Click("[aria-label='Delete To be deleted']");
        Browser.Click($"#remove-{gone} .btn-primary");
        Browser.Until(() => Server.Client.GetAsync($"/api/publications/{gone}").Result.StatusCode == HttpStatusCode.NotFound, "it is deleted");
        Browser.Until(() => !File.Exists(made), "and what was made of it");

        Go("/");
        Browser.Click("#room > summary");
        Browser.Find("#unused form").Text.ShouldContain("belongs to no publication");
        Browser.Click("#unused form .btn");
        Browser.Until(() => !File.Exists(unused), "its picture is gone");
        File.Exists(used).ShouldBeTrue();
        await Server.PostAsync($"/api/publications/{stays}/undo", new { });
        using var original = await Server.Client.GetAsync($"/api/publications/{stays}/images/{image}/original");
        original.StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Fonts_that_nothing_uses_are_found_and_removed_too()
    {
        int gone = await Server.NewPublicationAsync("With a font"), stays = await Server.NewPublicationAsync("With another");
        string folder = Path.Combine(Server.DataFolder, "fonts");
        async Task<string> BringAsync(int id, string name)
        {
            var before = Directory.Exists(folder) ? Directory.GetFiles(folder) : [];
            using var form = new MultipartFormDataContent { { new ByteArrayContent(await File.ReadAllBytesAsync(TestFonts.Find(name,
                () => Formatum.Output.Typefaces.File("Spectral", "regular")!))), "files", name } };
            using var answer = await Server.Client.PostAsync($"/api/publications/{id}/fonts", form);
            answer.StatusCode.ShouldBe(HttpStatusCode.Created);
            string made = Directory.GetFiles(folder).Except(before).ShouldHaveSingleItem();
            File.SetLastWriteTimeUtc(made, DateTime.UtcNow.AddDays(-1));
            return made;
        }
        string unused = await BringAsync(gone, "slanted.ttf"), used = await BringAsync(stays, "plain.woff");
        await Server.PostAsync($"/api/publications/{stays}/undo", new { });
        using (var away = await Server.Client.PostAsync($"/api/publications/{gone}/put-away", null)) away.IsSuccessStatusCode.ShouldBeTrue();
        Go("/");
        Browser.Click("details.put-away:last-of-type > summary");
        Browser.Click("[aria-label='Delete With a font']");
        Browser.Click($"#remove-{gone} .btn-primary");
        Browser.Until(() => Server.Client.GetAsync($"/api/publications/{gone}").Result.StatusCode == HttpStatusCode.NotFound, "it is deleted");
        Go("/");
        Browser.Click("#room > summary");
        Browser.Until(() => Browser.Find("#unused form").Text.Contains("1 font,", StringComparison.Ordinal), "found");
        Browser.Click("#unused form .btn");
        Browser.Until(() => !File.Exists(unused), "gone");
        File.Exists(used).ShouldBeTrue("undone, it is still in the history");
    }
}

using System.Net;
using System.Net.Http.Json;
using System.Text.RegularExpressions;
using Formatum.Testing;

namespace Formatum.Web.Tests;

/// <summary>Many who want pages as pictures at once, and one who works.</summary>
public sealed class HeavyWorkTests(Workplace place) : InBrowser(place)
{
    private async Task<int> WithPictureAsync(int frames)
    {
        int id = await Server.NewPublicationAsync(pages: 1, facing: false);
        byte[] picture = File.ReadAllBytes(TestPictures.Save(TestPictures.Quarters(1200, 900), Pictures["large.png"]));
        int image = (await Server.UploadAsync(id, ("large.png", picture)))[0].GetProperty("id").GetInt32();
        for (int i = 0; i < frames; i++)
            await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 10 + i, y = 10 + i, width = 300, height = 200, imageId = image });
        return id;
    }

    [Fact]
    public async Task Edits_do_not_wait_for_those_who_read_and_all_of_them_are_answered()
    {
        int id = await WithPictureAsync(frames: 3);
        var readers = Enumerable.Range(0, 24).Select(i => Server.Client.GetAsync(i % 3 == 0 ? $"/api/publications/{id}/output.pdf"
            : $"/api/publications/{id}/pages/1.{(i % 3 == 1 ? "png?ppi=300" : "svg")}")).ToList();
        int waiting = 0;
        for (int i = 0; i < 10; i++)
        {
            using var edit = await Server.Client.PostAsJsonAsync($"/api/publications/{id}/frames", new { page = 1, x = 1, y = 1, width = 9, height = 9 });
            edit.StatusCode.ShouldBe(HttpStatusCode.Created);
            waiting = readers.Count(r => !r.IsCompleted);
        }
        waiting.ShouldBeGreaterThan(0, "the last edit was answered while readers still waited");
        foreach (var reader in readers) (await reader).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Those_who_leave_give_up_their_places()
    {
        int id = await WithPictureAsync(frames: 40);
        for (int i = 0; i < 30; i++)
        {
            using var leaving = new CancellationTokenSource(TimeSpan.FromMilliseconds(60));
            try
            {
                await Server.Client.GetAsync($"/api/publications/{id}/pages/1.png?ppi=900", leaving.Token);
            }
            catch (OperationCanceledException)
            {
                // Gone before the answer.
            }
        }
        // Thirty of these would take minutes.
        using var soon = new CancellationTokenSource(TimeSpan.FromSeconds(60));
        using var answer = await Server.Client.GetAsync($"/api/publications/{id}/pages/1.svg", soon.Token);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_picture_that_a_page_shows_often_is_in_its_svg_once()
    {
        int id = await WithPictureAsync(frames: 5);
        string svg = await Server.Client.GetStringAsync($"/api/publications/{id}/pages/1.svg");
        Regex.Count(svg, "data:image/").ShouldBe(1);
        Regex.Count(svg, "<use ").ShouldBe(5);
    }
}

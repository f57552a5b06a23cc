using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Publications of hundreds of pages and images: the Desk carries what is in sight, and the rest as it comes there.</summary>
public sealed class LongPublicationTests(Workplace place) : InBrowser(place)
{
    [Fact]
    public async Task The_film_strip_grows_at_its_ends_and_stays_where_it_was()
    {
        int id = await Server.NewPublicationAsync(pages: 300, facing: false);
        string page = await Server.Client.GetStringAsync($"/publications/{id}/desk/150");
        page.Length.ShouldBeLessThan(200_000);
        OpenDesk(id, 150);
        Browser.Find("#strip-150").Displayed.ShouldBeTrue();
        int Left(string css) => (int)Browser.Run<long>("return Math.round(document.querySelector(arguments[0]).getBoundingClientRect().left)", css);
        Browser.Has("#strip-60").ShouldBeFalse();

        Browser.Run<object?>("document.querySelector('.strip').scrollLeft = 0; return null");
        Browser.Until(() => Browser.Has("#strip-126"), "what comes before is there");
        int left = Left("#strip-140");
        left.ShouldBeGreaterThan(0);
        for (int i = 0; i < 20 && !Browser.Has("#strip-300"); i++)
        {
            string last = Browser.Run<string>("const s = document.querySelector('.strip'); s.scrollLeft = s.scrollWidth; " +
                "return [...s.querySelectorAll('.strip-picture')].at(-1).id");
            Browser.Until(() => Browser.Has("#strip-300") || Browser.Run<string>("return [...document.querySelectorAll('.strip-picture')].at(-1).id") != last,
                "more comes behind");
        }
        Browser.Run<object?>("const s = document.querySelector('.strip'); s.scrollLeft = s.scrollWidth; return null");
        Browser.Find("#strip-300 .miniature");
        // In order, each once.
        var ids = Browser.Driver.FindElements(By.CssSelector(".strip-picture")).Select(e => e.GetAttribute("id")!["strip-".Length..]).Select(int.Parse)
            .ToList();
        ids.ShouldBe(ids.Distinct().Order());
    }

    [Fact]
    public async Task The_contact_sheet_grows_at_its_end_and_another_windows_edit_leaves_it_as_it_is()
    {
        int id = await Server.NewPublicationAsync(pages: 1, facing: false);
        byte[] picture = File.ReadAllBytes(TestPictures.Save(TestPictures.Quarters(6, 4), Pictures["small.jpg"]));
        await Server.UploadAsync(id, [.. Enumerable.Range(0, 150).Select(i => ($"p{i:000}.jpg", (byte[])[.. picture, (byte)i]))]);
        OpenDesk(id);
        int Shown() => (int)Browser.Run<long>("return document.querySelectorAll('.contact-sheet > li[id^=image-]').length");
        Shown().ShouldBe(120);
        Browser.Run<object?>("document.querySelector('.sheet-more').scrollIntoView(); return null");
        Browser.Until(() => Shown() == 150, "the rest has come");
        await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 1, y = 1, width = 90, height = 90 });
        Browser.Until(() => Browser.Has("#frames [data-frame]"), "the other's edit is shown");
        Shown().ShouldBe(150);
    }
}

using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Twelve windows of one browser.</summary>
public sealed class ManyWindowsTests(Workplace place) : InBrowser(place)
{
    [Fact]
    public async Task Twelve_windows_of_one_browser_all_work_and_hear_of_changes()
    {
        int[] ids = [await Server.NewPublicationAsync("One"), await Server.NewPublicationAsync("Two"), await Server.NewPublicationAsync("Three")];
        var driver = Browser.Driver;
        string first = driver.CurrentWindowHandle;
        var opened = new List<(string Window, int Id)>();
        try
        {
            for (int i = 0; i < 12; i++)
            {
                driver.SwitchTo().NewWindow(WindowType.Tab);
                opened.Add((driver.CurrentWindowHandle, ids[i % 3]));
                OpenDesk(ids[i % 3]);
            }
            foreach (int id in ids) await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 20, y = 20, width = 90, height = 60 });
            foreach (var (window, id) in opened)
            {
                driver.SwitchTo().Window(window);
                Formatum.Testing.Browser.Until(() => Browser.Has("#frames [data-frame]"), $"the window on {id} shows what was made");
            }
            // A window that goes is no longer listened for, and the others still are.
            driver.Close();
            opened.RemoveAt(11);
            await Server.PostAsync($"/api/publications/{ids[0]}/frames", new { page = 1, x = 200, y = 20, width = 90, height = 60 });
            driver.SwitchTo().Window(opened[0].Window);
            Formatum.Testing.Browser.Until(() => driver.FindElements(By.CssSelector("#frames [data-frame]")).Count == 2, "the second one too");
        }
        finally
        {
            foreach (var (window, _) in opened)
            {
                driver.SwitchTo().Window(window);
                driver.Close();
            }
            driver.SwitchTo().Window(first);
        }
    }
}

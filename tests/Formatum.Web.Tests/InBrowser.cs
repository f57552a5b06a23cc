using System.Globalization;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace Formatum.Web.Tests;

/// <summary>Tests that do in Chromium what a person does.</summary>
public abstract class InBrowser : IClassFixture<Workplace>, IDisposable
{
    protected TestServer Server { get; }
    protected Browser Browser { get; }
    protected TempFolder Pictures { get; }

    protected InBrowser(Workplace place)
    {
        (Server, Browser, Pictures) = (place.Server, place.Browser, place.Pictures);
        Browser.Clear(Server.Address);
        place.Clear();
    }

    /// <summary>Where the test failed, says what the page showed.</summary>
    public void Dispose()
    {
        GC.SuppressFinalize(this);
        var test = TestContext.Current;
        if (test.TestState?.Result == TestResult.Failed) test.TestOutputHelper?.WriteLine(Browser.Describe(test.TestMethod?.MethodName ?? "test"));
    }

    protected void Go(string address) => Browser.Driver.Navigate().GoToUrl(Server.Address + address);

    protected int OpenDesk(int publication, int spread = 1)
    {
        Go($"/publications/{publication}/desk/{spread}");
        Browser.Find("#desk[data-ready]");
        return publication;
    }

    protected void Type(string css, string text)
    {
        // Selected and typed over, as a hand does: clearing a field by script would count as a change of its own.
        Settled();
        Browser.Send(css, Keys.Control + "a" + Keys.Null + text);
    }

    /// <summary>Where a point of the spread is in the window.</summary>
    protected (int X, int Y) Window(double x, double y)
    {
        var at = Browser.Run<IReadOnlyCollection<object>>("const m = document.getElementById('spread').getScreenCTM(); const p = new " +
            "DOMPoint(arguments[0], arguments[1]).matrixTransform(m); return [p.x, p.y];", x, y)
            .Select(v => Convert.ToDouble(v, CultureInfo.InvariantCulture)).ToArray();
        return ((int)Math.Round(at[0]), (int)Math.Round(at[1]));
    }

    protected Actions Actions() => new(Browser.Driver, TimeSpan.FromMilliseconds(30));

    protected void Drag((int X, int Y) from, (int X, int Y) to, bool shift = false)
    {
        var actions = Actions();
        if (shift) actions.KeyDown(Keys.Shift);
        actions.MoveToLocation(from.X, from.Y).ClickAndHold().MoveToLocation((from.X + to.X) / 2, (from.Y + to.Y) / 2).MoveToLocation(to.X, to.Y).Release();
        if (shift) actions.KeyUp(Keys.Shift);
        actions.Perform();
    }

    protected void Press(params string[] keys) => Actions().SendKeys(string.Concat(keys)).Perform();

    protected void Choose(int frame)
    {
        Browser.Click($"#frame-{frame}");
        Browser.Find($"#inspector [data-chosen='{frame}']");
        Settled();
    }

    /// <summary>Where what a page shows and what it shows opened anew part, line by line.</summary>
    protected static string Apart(string one, string other)
    {
        var (was, now) = (one.Split('\n'), other.Split('\n'));
        int first = Enumerable.Range(0, Math.Min(was.Length, now.Length)).FirstOrDefault(i => was[i] != now[i]);
        return $"{string.Join('\n', was.Skip(first).Take(3))}\nopened anew:\n{string.Join('\n', now.Skip(first).Take(3))}";
    }

    protected async Task<JsonElement[]> FramesAsync(int publication) => [.. (await Server.GetAsync($"/api/publications/{publication}")).GetProperty("frames")
        .EnumerateArray()];

    /// <summary>Waits until the page shows what the server has answered.</summary>
    protected void Settled() => Browser.Until(() => !Browser.Has("#desk[aria-busy]"), "the page has settled");

    protected JsonElement Eventually(int publication, Func<JsonElement[], bool> condition, string what)
    {
        JsonElement[] frames = [];
        Browser.Until(() => condition(frames = FramesAsync(publication).Result), what);
        Settled();
        return frames.FirstOrDefault();
    }

    protected static double D(JsonElement frame, string name) => frame.GetProperty(name).GetDouble();

    protected void Draw(int publication, (double X, double Y) from, (double X, double Y) to, bool shift = false)
    {
        int before = FramesAsync(publication).Result.Length;
        Browser.Send("#canvas", "1");
        Browser.Until(() => Browser.Has(".canvas[data-tool='rectangle']"), "the drawing tool");
        Drag(Window(from.X, from.Y), Window(to.X, to.Y), shift);
        Eventually(publication, f => f.Length == before + 1, "a new frame");
        Browser.Until(() => Browser.Has("#inspector [data-chosen]:not([data-chosen=''])"), "the new frame is chosen");
    }

    /// <summary>Uploads pictures of coloured quarters and places each in a frame of page 1; the frames' ids.</summary>
    protected async Task<int[]> FilledAsync(int publication, params (double X, double Y, double Width, double Height)[] boxes)
    {
        using var folder = new TempFolder();
        using var picture = TestPictures.Quarters(600, 400);
        byte[] jpeg = await File.ReadAllBytesAsync(TestPictures.Save(picture, folder["quarters.jpg"], 300));
        int image = (await Server.UploadAsync(publication, ("quarters.jpg", jpeg)))[0].GetProperty("id").GetInt32();
        var ids = new List<int>();
        foreach (var (x, y, width, height) in boxes)
            ids.Add((await Server.PostAsync($"/api/publications/{publication}/frames", new { page = 1, x, y, width, height, imageId = image }))
                .GetProperty("id").GetInt32());
        return [.. ids];
    }

    protected async Task<JsonElement> FrameAsync(int publication, int id) => (await FramesAsync(publication)).Single(f => f.GetProperty("id").GetInt32() == id);

    /// <summary>Waits until a frame is as it should be.</summary>
    protected JsonElement Frame(int publication, int id, Func<JsonElement, bool> condition, string what)
    {
        JsonElement found = default;
        Browser.Until(() => condition(found = FrameAsync(publication, id).Result), what);
        Settled();
        return found;
    }

    protected static JsonElement Placement(JsonElement frame) => frame.GetProperty("placement");

    protected void DoubleClick((int X, int Y) at) => Actions().MoveToLocation(at.X, at.Y).DoubleClick().Perform();

    protected void Click((int X, int Y) at) => Actions().MoveToLocation(at.X, at.Y).Click().Perform();
}

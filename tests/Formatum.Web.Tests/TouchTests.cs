using System.Globalization;
using System.Text.Json;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>The Desk under fingers, and without a pointer at all.</summary>
public sealed class TouchTests(Workplace place) : InBrowser(place)
{
    /// <summary>Fingers as the screen reports them: where each of them is, one step after the other; then all are lifted.</summary>
    private void Touch(params (int X, int Y)[][] steps)
    {
        for (int i = 0; i <= steps.Length; i++)
        {
            var points = i < steps.Length ? steps[i] : [];
            Browser.Driver.ExecuteCdpCommand("Input.dispatchTouchEvent", new Dictionary<string, object?>
            {
                ["type"] = i == 0 ? "touchStart" : i < steps.Length ? "touchMove" : "touchEnd",
                ["touchPoints"] = points.Select((p, id) => new Dictionary<string, object?> { ["x"] = p.X, ["y"] = p.Y, ["id"] = id }).ToArray(),
            });
        }
    }

    /// <summary>Two fingers about a point, moved apart.</summary>
    private void Spread((int X, int Y) about) =>
        Touch([.. new[] { 30, 40, 50, 60, 75, 90 }.Select(half => new[] { (about.X - half, about.Y), (about.X + half, about.Y) })]);

    private double Zoom() => double.Parse(Browser.Find("#zoom-figure").Text.Split(' ')[0], CultureInfo.InvariantCulture);

    private double ScrolledDown() => Convert.ToDouble(Browser.Run<object>("return document.getElementById('canvas').scrollTop"), CultureInfo.InvariantCulture);

    [Fact]
    public async Task Two_fingers_zoom_the_table_and_one_moves_it()
    {
        OpenDesk(await Server.NewPublicationAsync());
        double before = Zoom();
        Spread(Window(300, 400));
        Browser.Until(() => Zoom() > 2 * before, "three times as large, about");
        var (x, y) = Window(300, 400);
        double top = ScrolledDown();
        Touch([(x, y)], [(x, y - 20)], [(x, y - 60)], [(x, y - 100)]);
        Browser.Until(() => Math.Abs(ScrolledDown() - top - 100) < 25, "it goes where the finger goes");
    }

    [Fact]
    public async Task Two_fingers_zoom_a_picture_in_its_frame()
    {
        int id = await Server.NewPublicationAsync();
        int frame = (await FilledAsync(id, (60, 60, 300, 300)))[0];
        Go($"/publications/{id}/desk/1?frame={frame}");
        Browser.Find("#desk[data-ready]");
        Browser.Send("#canvas", Keys.Enter);
        Browser.Find("#inside .picture-edge");
        Spread(Window(210, 210));
        Frame(id, frame, f => f.GetProperty("recrop") is { ValueKind: JsonValueKind.Object } recrop && D(recrop, "zoom") > 2, "zoomed, three times about");
    }

    [Fact]
    public async Task A_frame_is_made_sized_and_moved_by_keys_alone()
    {
        int id = OpenDesk(await Server.NewPublicationAsync());
        Browser.Send("#canvas", "1");
        Press(Keys.Enter);
        Eventually(id, f => f.Length == 1, "a frame in the middle of the page");
        double x = D((await FramesAsync(id))[0], "x");
        Press(Keys.ArrowRight);
        Eventually(id, f => D(f[0], "x") > x, "moved");
        Type("#frame-width", "50 mm" + Keys.Enter);
        Eventually(id, f => Math.Abs(D(f[0], "width") - 50 * 72 / 25.4) < 1e-6, "sized");
    }
}

using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>A day at the Desk: frames drawn, pictures brought in, cropped and replaced, a rule made from an example, and all of it printed as it was
/// seen.</summary>
public sealed partial class DayTests(Workplace place) : InBrowser(place)
{
    private int _id;

    private string Picture(string name, int width, int height)
    {
        using var picture = TestPictures.Quarters(width, height);
        return TestPictures.Save(picture, Pictures[name], 300);
    }

    private void BringIn(params string[] files) => Browser.Driver.FindElement(By.Id("files")).SendKeys(string.Join('\n', files));

    private int[] Ids => [.. FramesAsync(_id).Result.Select(f => f.GetProperty("id").GetInt32())];

    private static bool IsFilled(JsonElement frame) => frame.GetProperty("imageId").ValueKind == JsonValueKind.Number;

    private static bool HasRecrop(JsonElement frame) => frame.GetProperty("recrop").GetProperty("point").ValueKind == JsonValueKind.Array;

    /// <summary>Where the Desk shows the picture of a frame: its left, top, right and bottom in points of the spread.</summary>
    private double[] Seen(int frame) => [.. Browser.Run<IReadOnlyCollection<object>>("""
        const image = document.querySelector(`#frame-${arguments[0]} image`);
        const m = document.getElementById('spread').getScreenCTM().inverse().multiply(image.getScreenCTM());
        const a = new DOMPoint(0, 0).matrixTransform(m), b = new DOMPoint(1, 1).matrixTransform(m);
        return [a.x, a.y, b.x, b.y];
        """, frame).Select(v => Convert.ToDouble(v, CultureInfo.InvariantCulture))];

    private async Task DrawSevenAsync()
    {
        _id = await Server.NewPublicationAsync("A day", pages: 4, facing: true);
        OpenDesk(_id, 2);
        // Six on the left page, and one across the fold.
        for (int i = 0; i < 6; i++)
        {
            double x = 60 + 170 * (i % 3), y = 80 + 200 * (i / 3);
            Draw(_id, (x, y), (x + 140, y + 150));
        }
        Draw(_id, (420, 560), (800, 760));
        BringIn([.. Enumerable.Range(0, 7).Select(i => Picture($"p{i}.jpg", 900 + 60 * i, 600 - 30 * i))]);
        Browser.Until(() => Browser.Find("#arrivals-card").Text.Contains("Into the 7 empty placeholders", StringComparison.Ordinal), "the card");
        Press(Keys.Enter);
        Eventually(_id, f => f.Length == 7 && f.All(IsFilled), "seven pictures in seven frames");
    }

    [Fact]
    public async Task What_was_done_in_a_day_prints_as_it_was_seen()
    {
        await DrawSevenAsync();
        int[] ids = Ids;

        // One is cropped by its edge from outside, one by the edge inside it, one by a pan.
        Choose(ids[0]);
        Browser.Click("[data-grips=crop]");
        Drag(Window(60, 155), Window(90, 155));
        Frame(_id, ids[0], f => Math.Abs(D(f, "x") - 90) < 3 && HasRecrop(f), "cropped from outside");
        Browser.Click("[data-grips=refit]");
        DoubleClick(Window(300, 155));
        Browser.Find("#grips [data-edge=s]");
        Settled();
        Drag(Window(300, 230), Window(300, 200));
        Frame(_id, ids[1], f => D(f, "height") < 125 && HasRecrop(f), "cropped inside");
        Press(Keys.Escape);
        DoubleClick(Window(470, 155));
        Browser.Find("[data-inside=yes]");
        Settled();
        Drag(Window(470, 155), Window(440, 155));
        Frame(_id, ids[2], HasRecrop, "panned");
        Press(Keys.Escape, Keys.Escape);

        // One is replaced: a click on another thumbnail; its crop is its own.
        int other = (await Server.GetAsync($"/api/publications/{_id}")).GetProperty("images").EnumerateArray().Last().GetProperty("id").GetInt32();
        Choose(ids[2]);
        Browser.Click($".thumb[data-image='{other}']");
        Frame(_id, ids[2], f => f.GetProperty("imageId").GetInt32() == other && !HasRecrop(f), "another picture starts fresh");

        // An example becomes a rule, and others take it.
        Choose(ids[3]);
        Browser.Click("[data-fit=Fit]");
        Browser.Click("#more-rule summary");
        Type("#rule-name", "Whole");
        Browser.Click("#make-rule .btn-primary");
        int rule = Frame(_id, ids[3], f => f.GetProperty("ruleId").ValueKind == JsonValueKind.Number, "the rule").GetProperty("ruleId").GetInt32();
        Actions().MoveToElement(Browser.Find($"#frame-{ids[4]}")).Click().KeyDown(Keys.Shift).MoveToElement(Browser.Find($"#frame-{ids[5]}")).Click()
            .KeyUp(Keys.Shift).Perform();
        Settled();
        Browser.Run<object?>("const s = document.getElementById('frame-rule'); s.value = arguments[0]; " +
            "s.dispatchEvent(new Event('change', { bubbles: true })); " +
            "return null", rule.ToString(CultureInfo.InvariantCulture));
        Eventually(_id, f => f.Count(x => x.GetProperty("ruleId").ValueKind == JsonValueKind.Number && x.GetProperty("ruleId").GetInt32() == rule) == 3,
            "on three");

        // The picture across the fold is cropped from its right edge to the other page; nothing jumps.
        Press(Keys.Escape);
        Choose(ids[6]);
        Browser.Click("[data-grips=crop]");
        double[] across = Seen(ids[6]);
        Drag(Window(800, 660), Window(560, 660));
        Eventually(_id, f => D(f[6], "width") < 150, "cropped across the fold");
        Seen(ids[6]).ShouldBe(across, 0.05);
        Browser.Click("[data-grips=refit]");

        await PrintsAsSeenAsync(ids);
    }

    /// <summary>Every picture in the file stands where the Desk shows it, and is clipped as its frame is there: read by mupdf.</summary>
    private async Task PrintsAsSeenAsync(int[] ids)
    {
        double width = (await Server.GetAsync($"/api/publications/{_id}")).GetProperty("page").GetProperty("width").GetDouble();
        await File.WriteAllBytesAsync(Pictures["print.pdf"],
            await Server.Client.GetByteArrayAsync($"/api/publications/{_id}/output.pdf?recipe=print&pages=2-3"));
        double[] trim = [.. TrimBox().Match(Tool.Run("qpdf", "--qdf", "--object-streams=disable", Pictures["print.pdf"], "-")).Groups.Values.Skip(1)
            .Select(g => double.Parse(g.Value, CultureInfo.InvariantCulture))];
        var printed = new[] { 1, 2 }.SelectMany(page => Traced(page).Select(p => (Picture: OnSpread(p.Picture, page), Clip: OnSpread(p.Clip, page)))).ToList();
        foreach (int id in ids)
        {
            double[] picture = Seen(id), clip = Shown(id);
            printed.Any(p => Apart(p.Picture, picture) < 0.1 && Apart(p.Clip, clip) < 0.1).ShouldBeTrue(
                $"{string.Join(' ', picture)} in {string.Join(' ', clip)}, of " +
                string.Join("; ", printed.Select(p => string.Join(' ', [.. p.Picture, .. p.Clip]))));
        }

        // mupdf counts from the upper left of the sheet, which lies as far outside the trim as on the other side.
        double[] OnSpread(double[] box, int page) => [.. box.Select((v, i) => v - trim[0] + (i % 2 == 0 ? (page - 1) * width : 0))];
        static double Apart(double[] one, double[] other) => one.Zip(other, (a, b) => Math.Abs(a - b)).Max();
    }

    /// <summary>Where the Desk shows a frame's outline: left, top, right and bottom in points of the spread.</summary>
    private double[] Shown(int frame) => [.. Browser.Run<IReadOnlyCollection<object>>("""
        const shape = document.querySelector(`#frame-${arguments[0]} .outline`), box = shape.getBBox();
        const m = document.getElementById('spread').getScreenCTM().inverse().multiply(shape.getScreenCTM());
        const a = new DOMPoint(box.x, box.y).matrixTransform(m), b = new DOMPoint(box.x + box.width, box.y + box.height).matrixTransform(m);
        return [a.x, a.y, b.x, b.y];
        """, frame).Select(v => Convert.ToDouble(v, CultureInfo.InvariantCulture))];

    [GeneratedRegex(@"/TrimBox \[\s*([\d.]+)\s+([\d.]+)\s+([\d.]+)\s+([\d.]+)")]
    private static partial Regex TrimBox();

    /// <summary>The pictures of a page, each as a box, with what clips it.</summary>
    private IEnumerable<(double[] Picture, double[] Clip)> Traced(int page)
    {
        var clips = new Stack<double[]>();
        var corners = new List<(double X, double Y)>();
        double[] map = [];
        foreach (string line in Tool.Run("mutool", "trace", Pictures["print.pdf"], $"{page}").Split('\n').Select(l => l.Trim()))
        {
            if (line.StartsWith("<clip_path", StringComparison.Ordinal)) (map, corners) = (Map(line), []);
            else if (line.StartsWith("<moveto", StringComparison.Ordinal) || line.StartsWith("<lineto", StringComparison.Ordinal)) corners.Add((Of(line, "x"),
                Of(line, "y")));
            else if (line == "</clip_path>") clips.Push(Around(map, corners));
            else if (line.StartsWith("<pop_clip", StringComparison.Ordinal)) clips.Pop();
            else if (line.StartsWith("<fill_image", StringComparison.Ordinal)) yield return (Around(Map(line), [(0, 0), (1, 1)]), clips.Peek());
        }
        static double Of(string line, string name) => double.Parse(line.Split($" {name}=\"")[1].Split('"')[0], CultureInfo.InvariantCulture);
        static double[] Map(string line) =>
            [.. line.Split("transform=\"")[1].Split('"')[0].Split(' ').Select(v => double.Parse(v, CultureInfo.InvariantCulture))];
        static double[] Around(double[] m, List<(double X, double Y)> points)
        {
            var there = points.Select(p => (X: m[0] * p.X + m[2] * p.Y + m[4], Y: m[1] * p.X + m[3] * p.Y + m[5])).ToList();
            return [there.Min(p => p.X), there.Min(p => p.Y), there.Max(p => p.X), there.Max(p => p.Y)];
        }
    }
}

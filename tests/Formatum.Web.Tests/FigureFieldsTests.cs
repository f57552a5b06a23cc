using System.Globalization;
using System.Text.RegularExpressions;
using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>Arithmetic means the same in every field of the inspector that holds a figure: "+2" is two more than there is, whatever the figure is of.</summary>
public sealed partial class FigureFieldsTests(Workplace place) : InBrowser(place)
{
    [GeneratedRegex("^-?[0-9.]+")]
    private static partial Regex Leading();

    private static double? FigureOf(string? text) =>
        Leading().Match(text ?? "") is { Success: true } m && double.TryParse(m.Value, CultureInfo.InvariantCulture, out double value) ? value : null;

    private string? ValueOf(string field) => Browser.Run<string?>("return document.getElementById(arguments[0])?.value ?? null", field);

    private void OpenParts() => Browser.Run<object?>("for (const part of document.querySelectorAll('#inspector details')) part.open = true; return null");

    /// <summary>The fields of the inspector that hold a figure now.</summary>
    private string[] Fields()
    {
        OpenParts();
        return [.. Browser.Run<IReadOnlyCollection<object>>("""
            return [...document.querySelectorAll('#inspector input')].filter(f => f.type === 'text' && f.id && !f.disabled && !f.readOnly
                && /^-?[0-9.]/.test(f.value) && f.checkVisibility()).map(f => f.id);
            """).Cast<string>()];
    }

    private void TypeIn(string field, string text)
    {
        OpenParts();
        Type($"[id='{field}']", text + Keys.Enter);
        Settled();
    }

    /// <summary>Types in each field what should give another figure that its kind allows, and takes it back.</summary>
    private List<string> Wrong(string[] fields)
    {
        var wrong = new List<string>();
        foreach (string field in fields)
        {
            if (FigureOf(ValueOf(field)) is not { } now) continue;
            // A figure at its most is made less, and one at nothing more.
            var (typed, expected) = now switch { 0 => ("+2", 2.0), >= 100 => ("*0.5", now / 2), _ => ("*(1+1)", now * 2) };
            if (field.Contains("alignY", StringComparison.Ordinal) || (now is > 50 and < 100)) (typed, expected) = ("/2", now / 2);
            TypeIn(field, typed);
            string? after = ValueOf(field);
            bool isRight = FigureOf(after) is { } made && Math.Abs(made - expected) <= 0.02 + Math.Abs(expected) * 0.001;
            if (!isRight) wrong.Add($"{field}: {now} {typed} gave {after}");
            Browser.Send("#canvas", Keys.Control + "z");
            Browser.Until(() => FigureOf(ValueOf(field)) == now || after is null, $"{field} is taken back");
            Settled();
        }
        return wrong;
    }

    private void AllAreRight(int frame)
    {
        Choose(frame);
        string[] fields = Fields();
        fields.Length.ShouldBeGreaterThan(12);
        Wrong(fields).ShouldBeEmpty();
    }

    [Fact]
    public async Task In_every_field_of_a_frame_with_a_picture()
    {
        int id = await Server.NewPublicationAsync();
        int frame = (await FilledAsync(id, (60, 60, 220, 160)))[0];
        OpenDesk(id);
        AllAreRight(frame);
        Press(Keys.Enter);
        Browser.Find("#inspector [data-inside]");
        // Down, it has no room to move in: it would leave its frame bare.
        Wrong([.. Fields().Except(["picture-offsetY"])]).ShouldBeEmpty();
    }

    [Fact]
    public async Task In_every_field_of_a_text_frame()
    {
        int id = await Server.NewPublicationAsync();
        int frame = (await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 60, y = 60, width = 300, height = 200, kind = "text" }))
            .GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/stories", new { frames = new[] { frame }, text = "A kiln that is opened too early." });
        OpenDesk(id);
        AllAreRight(frame);
    }
}

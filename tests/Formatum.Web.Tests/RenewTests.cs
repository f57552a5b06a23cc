using Formatum.Testing;
using OpenQA.Selenium;

namespace Formatum.Web.Tests;

/// <summary>An answer changes on the Desk what is other than before, leaves the rest alone, and comes to what a page that is opened anew shows.</summary>
public sealed class RenewTests(Workplace place) : InBrowser(place)
{
    /// <summary>What the inspector, its fields, the spread, the tray and the history show, but for what only the window itself knows.</summary>
    private string Shown() => Browser.Run<string>("""
        const parts = ['inspector', 'frames', 'tray', 'history', 'sheet'].map(id => document.getElementById(id).cloneNode(true));
        for (const part of parts) {
          for (const own of part.querySelectorAll('.frame-findings, template')) own.remove();
          for (const name of ['open', 'aria-checked', 'aria-pressed']) for (const e of part.querySelectorAll(`[${name}]`)) e.removeAttribute(name);
        }
        const fields = [...document.querySelectorAll('#inspector input, #inspector select, #inspector textarea')]
          .map(f => `${f.id || f.name}=${f.type === 'checkbox' || f.type === 'radio' ? `${f.checked}${f.indeterminate ? ' mixed' : ''}` : f.value}`);
        return parts.map(p => p.innerHTML.replace(/\s+/g, ' ').replaceAll('><', '>\n<')).concat(fields).join('\n');
        """);

    [Fact]
    public async Task Nudges_make_only_what_they_change_anew()
    {
        int id = OpenDesk(await Server.NewPublicationAsync());
        Draw(id, (60, 60), (200, 160));
        Settled();
        Browser.Run<object?>("for (const e of document.querySelectorAll('#make-rule, #frame-x')) e.mine = true; return null");
        string x = Browser.Find("#frame-x").GetDomProperty("value")!;
        Press(Keys.ArrowRight, Keys.ArrowRight);
        Browser.Until(() => Browser.Find("#frame-x").GetDomProperty("value") != x, "the figure follows");
        Settled();
        Browser.Run<bool>("return [...document.querySelectorAll('#make-rule, #frame-x')].every(e => e.mine)").ShouldBeTrue();
    }

    [Fact]
    public async Task Whatever_was_done_the_page_is_as_if_it_were_opened_anew()
    {
        int id = await Server.NewPublicationAsync();
        int[] frames = await FilledAsync(id, (60, 60, 200, 120), (60, 220, 200, 120), (300, 60, 120, 200));
        OpenDesk(id);
        void IsAsOpenedAnew(string after)
        {
            Settled();
            string chosen = Browser.Find("#inspector [data-chosen]").GetDomAttribute("data-chosen")!, shown = Shown();
            Go($"/publications/{id}/desk/1" + (chosen.Length > 0 ? $"?frame={chosen}" : ""));
            Browser.Find("#desk[data-ready]");
            try
            {
                Browser.Until(() => Shown() == shown, "the same", 10);
            }
            catch (TimeoutException)
            {
                Assert.Fail($"After {after} it shows\n{Apart(shown, Shown())}");
            }
            Browser.Send("#canvas", "");
        }
        (string What, Action Do)[] all =
        [
            ("choosing", () => Choose(frames[0])),
            ("stepping through the fits", () => Press(".", ".")),
            ("a figure", () => Type("#frame-width", "70 mm" + Keys.Enter)),
            ("a figure that is refused, and one that is not", () =>
            {
                Type("#frame-height", "nonsense" + Keys.Enter);
                Browser.Until(() => Browser.Has("#frame-height.is-invalid"), "refused");
                Type("#frame-height", "50 mm" + Keys.Enter);
                Browser.Until(() => !Browser.Has("#frame-height.is-invalid"), "taken");
            }),
            ("another outline", () => Browser.Click("[data-outline] option[value=ellipse]")),
            ("removing", () => Press(Keys.Delete)),
            ("undoing", () => Press(Keys.Control + "z" + Keys.Null)),
            ("another frame", () => Choose(frames[2])),
            ("a switch that differs among several, and then of one alone", () =>
            {
                Browser.Click("#set-staysFitted");
                Settled();
                Browser.Send("#canvas", Keys.Control + "a" + Keys.Null);
                Browser.Until(() => Browser.Run<bool>("return document.getElementById('set-staysFitted')?.indeterminate === true"), "it differs");
                Choose(frames[2]);
            }),
            ("stacking", () => Browser.Click("[data-stack=Back]")),
            ("a picture in the tray", () => Browser.Click("[data-do=tray-add-unplaced], .thumb-tray")),
        ];
        foreach (var (what, act) in all)
        {
            Browser.Run<object?>("for (const more of document.querySelectorAll('#inspector details')) more.open = true; return null");
            act();
            IsAsOpenedAnew(what);
        }
    }

    /// <summary>They wait before they come to the server, or the server's answer does.</summary>
    [Theory]
    [InlineData("asking")]
    [InlineData("answered")]
    public async Task What_is_typed_while_words_are_on_their_way_stays_in_sight(string held)
    {
        int id = await Server.NewPublicationAsync();
        int frame = (await Server.PostAsync($"/api/publications/{id}/frames", new { page = 1, x = 60, y = 60, width = 300, height = 100, kind = "text" }))
            .GetProperty("id").GetInt32();
        await Server.PostAsync($"/api/publications/{id}/stories", new { frames = new[] { frame }, text = "Kiln" });
        OpenDesk(id);
        Choose(frame);
        Browser.Click("#write");
        Browser.Find(".text-caret:not(.is-away)");
        Browser.Run<object?>("""
            const [held] = arguments, plain = window.fetch;
            window.onItsWay = 0;
            const wait = () => {
              window.onItsWay++;
              return new Promise(on => window.addEventListener('arrive', on, { once: true }));
            };
            window.fetch = async (...asked) => {
              const posts = asked[1]?.method === 'POST';
              if (posts && held === 'asking') await wait();
              const answer = await plain(...asked);
              if (posts && held === 'answered') await wait();
              return answer;
            };
            return null;
            """, held);
        string InSight() => Browser.Run<string>("return document.querySelector('#frames .text-holder').textContent");
        Press("s");
        Browser.Until(() => Browser.Run<bool>("return window.onItsWay === 1"), "it is on its way");
        Press("!");
        Browser.Until(() => InSight().Contains("Kilns!", StringComparison.Ordinal), "shown as it is typed");
        long answered = Browser.Run<long>("return Number(document.getElementById('revision').dataset.revision)");
        Browser.Run<object?>("window.dispatchEvent(new Event('arrive')); return null");
        Browser.Until(() => Browser.Run<long>("return Number(document.getElementById('revision').dataset.revision)") > answered, "the answer is shown");
        Browser.Until(() => InSight().Contains("Kilns!", StringComparison.Ordinal), "and stays so");
    }
}

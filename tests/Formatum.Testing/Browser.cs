using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

namespace Formatum.Testing;

/// <summary>A headless Chromium of its own, with an empty profile that goes when it closes.</summary>
public sealed class Browser : IDisposable
{
    /// <summary>A Chromium that does not come up on a machine with much to do says nothing about what is tested: another is started.</summary>
    private const int MostStarts = 3;

    /// <summary>Chromium without a window of its own: a page is the same to it, and takes half of the processor's time.</summary>
    private const string Shell = "/usr/lib/chromium/chromium-headless-shell";

    private readonly string _profile;
    private readonly ChromeDriverService _service;

    public ChromeDriver Driver { get; }

    /// <summary>Where the browser puts what it downloads.</summary>
    public string Downloads { get; } = Directory.CreateTempSubdirectory("formatum-downloads-").FullName;

    public Browser(int width = 1280, int height = 800)
    {
        for (int start = 1; ; start++)
        {
            _profile = Directory.CreateTempSubdirectory("formatum-chromium-").FullName;
            _service = ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver");
            _service.SuppressInitialDiagnosticInformation = true;
            try
            {
                Driver = Started(width, height);
                return;
            }
            catch (WebDriverException) when (start < MostStarts)
            {
                _service.Dispose();
            }
        }
    }

    private ChromeDriver Started(int width, int height)
    {
        var options = File.Exists(Shell) ? new ShellOptions { BinaryLocation = Shell } : new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments("--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
            "--disable-component-update", "--disable-sync", "--disable-dev-shm-usage", "--force-color-profile=srgb", "--force-device-scale-factor=1",
            $"--user-data-dir={_profile}", $"--window-size={width},{height}");
        options.SetLoggingPreference(LogType.Browser, LogLevel.Warning);
        var driver = new ChromeDriver(_service, options, TimeSpan.FromMinutes(2));
        driver.ExecuteCdpCommand("Browser.setDownloadBehavior", new() { ["behavior"] = "allow", ["downloadPath"] = Downloads });
        Resize(driver, width, height);
        return driver;
    }

    /// <summary>Makes the page so large, without the window's own bars.</summary>
    public void Resize(int width, int height) => Resize(Driver, width, height);

    private static void Resize(ChromeDriver driver, int width, int height)
    {
        int Inner(string side) => (int)(long)driver.ExecuteScript($"return inner{side}")!;
        var outer = driver.Manage().Window.Size;
        driver.Manage().Window.Size = new(outer.Width + width - Inner("Width"), outer.Height + height - Inner("Height"));
    }

    public T Run<T>(string script, params object[] arguments) => (T)Driver.ExecuteScript(script, arguments)!;

    /// <summary>Waits until a condition gives something other than null or false. An element that went stale meanwhile counts as not yet.</summary>
    /// <remarks>It waits long: heavy work of the server steps back behind all else that the machine does.</remarks>
    /// <exception cref="TimeoutException">It did not in time.</exception>
    public static T Until<T>(Func<T?> condition, string what, int seconds = 120)
    {
        var until = DateTime.UtcNow.AddSeconds(seconds);
        // Soon after the act, then less and less often: asking without pause keeps the page from answering where there are few cores.
        for (int pause = 5; ; pause = Math.Min(pause * 2, 80))
        {
            try
            {
                if (condition() is { } found && found is not false) return found;
            }
            catch (WebDriverException e) when (e is StaleElementReferenceException or NoSuchElementException or ElementNotInteractableException
                || LeftItsDocument(e))
            {
                // Swapped while it was looked at.
            }
            if (DateTime.UtcNow > until) throw new TimeoutException($"Waited {seconds} s in vain: {what}");
            Thread.Sleep(pause);
        }
    }

    // What the driver says when an element goes while it is being asked about, rather than before.
    private static bool LeftItsDocument(WebDriverException e) => e.Message.Contains("does not belong to the document", StringComparison.Ordinal);

    public IWebElement Find(string css) => Until(() => Driver.FindElements(By.CssSelector(css)).FirstOrDefault(), $"an element {css}");

    /// <summary>Clicks the first element that is there and can be clicked; one that is swapped at that moment is looked up anew.</summary>
    public void Click(string css) => On(css, e => e.Click());

    /// <summary>Sends keys to the first element that is there and takes them.</summary>
    public void Send(string css, string keys) => On(css, e => e.SendKeys(keys));

    private void On(string css, Action<IWebElement> act) => Until(() =>
    {
        if (Driver.FindElements(By.CssSelector(css)).FirstOrDefault() is not { } element) return false;
        act(element);
        return true;
    }, $"an element {css} that takes it");

    public bool Has(string css) => Driver.FindElements(By.CssSelector(css)).Count > 0;

    /// <summary>What the page shows, in words, and a picture of it in the temporary folder.</summary>
    public string Describe(string name)
    {
        try
        {
            string picture = Path.Combine(Path.GetTempPath(), $"failed-{name}.png");
            Driver.GetScreenshot().SaveAsFile(picture);
            string shown = Run<string>("""
                const told = element => element?.outerHTML.slice(0, 300);
                return JSON.stringify({ address: location.href, focus: told(document.activeElement), inert: document.body.inert,
                  notices: [...document.querySelectorAll('.notice')].map(n => n.textContent),
                  busy: told(document.querySelector('[aria-busy], .htmx-request')) });
                """);
            return $"{shown}\n{picture}\n{string.Join('\n', Driver.Manage().Logs.GetLog(LogType.Browser).Select(l => l.Message))}";
        }
        catch (WebDriverException e)
        {
            return $"The page could not be looked at: {e.Message}";
        }
    }

    /// <summary>A page with next to nothing on it, no keys held, nothing stored for an address, nothing in the log or among the downloads.</summary>
    /// <remarks>The page is one of the address itself: from any other, the next is opened by a new process, which takes three times as long.</remarks>
    public void Clear(string origin)
    {
        Driver.ResetInputState();
        Driver.Navigate().GoToUrl(origin + "/health");
        Driver.ExecuteCdpCommand("Storage.clearDataForOrigin", new() { ["origin"] = origin, ["storageTypes"] = "all" });
        Driver.Manage().Logs.GetLog(LogType.Browser);
        foreach (string file in Directory.GetFiles(Downloads)) File.Delete(file);
    }

    public void Dispose()
    {
        Driver.Quit();
        _service.Dispose();
        Directory.Delete(_profile, recursive: true);
        Directory.Delete(Downloads, recursive: true);
    }

    /// <summary>The driver asks for a browser by its kind.</summary>
    private sealed class ShellOptions : ChromeOptions
    {
        public ShellOptions() => BrowserName = "chrome-headless-shell";
    }
}

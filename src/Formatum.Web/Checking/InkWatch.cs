using Formatum.Core.Checking;
using Formatum.Storage;
using Formatum.Web.Hosting;

namespace Formatum.Web.Checking;

/// <summary>Measures the ink on the pages of every publication that somebody has open, one spread at a time and after all that somebody waits for.</summary>
public sealed class InkWatch(PublicationStore store, ChangeEvents events, Activity activity, Checker checker, InkMeasures inks, HeavyWork heavy,
    ILogger<InkWatch> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(1);

    /// <summary>Who types or drags is not measured behind: a publication rests this long before it is looked at.</summary>
    private static readonly TimeSpan Rest = TimeSpan.FromSeconds(2);

    /// <summary>What was measured before, by publication: of its pages those that changed since come first.</summary>
    private readonly Dictionary<int, HashSet<int>> _before = [];

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every);
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            foreach (int id in events.Open)
            {
                try
                {
                    await MeasureOneAsync(id, stoppingToken);
                }
                // Whatever is wrong with one publication, the server goes on.
                catch (Exception e) when (e is not OperationCanceledException)
                {
                    log.LogWarning(e, "Measuring the ink of publication {Id} failed", id);
                }
            }
        }
    }

    /// <summary>Measures spreads of a publication for a while.</summary>
    private async Task MeasureOneAsync(int id, CancellationToken cancel)
    {
        if (activity.RestOf(id) < Rest) return;
        var standing = await store.OpenAsync(id);
        var findings = await checker.OfAsync(standing);
        var before = _before.TryGetValue(id, out var known) ? known : _before[id] = [];
        var spreads = inks.Unmeasured(findings, before).ToList();
        foreach (int index in spreads)
        {
            await heavy.RunAsync(token =>
            {
                inks.Measure(findings, index, token);
                return true;
            }, cancel);
            before.UnionWith(Core.Publications.Spread.At(findings.Publication, index).Pages.Select(p => p.Page.Id));
            // Somebody goes on working: what changes is measured first.
            if (activity.RestOf(id) < Rest) break;
        }
        if (spreads.Count > 0) events.TellFound(id);
    }
}

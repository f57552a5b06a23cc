using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Formatum.Core.Checking;
using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output;
using Formatum.Output.Press;
using Formatum.Web.Links;

namespace Formatum.Web.Checking;

/// <summary>The most ink on each page, measured on its plates, and kept for as long as the page shows the same.</summary>
public sealed class InkMeasures(PicturePixels pixels, ProfileStore profiles)
{
    /// <summary>In ppi: finer than the dots of a newspaper, and coarse enough for many pages.</summary>
    private const double Ppi = 72;

    private const int MostPixels = 8_000_000;

    /// <summary>By what stands for the page; a page that cannot be measured, as a file is missing, is not tried again until it changes.</summary>
    private readonly ConditionalWeakTable<object, Measured> _known = [];

    private sealed record Measured(ImmutableDictionary<int, InkFact> Facts);

    /// <summary>What is known of a publication's pages as they are.</summary>
    public ImmutableDictionary<int, InkFact> Of(PublicationFindings findings)
    {
        var facts = ImmutableDictionary.CreateBuilder<int, InkFact>();
        foreach (int page in findings.Publication.Order.Ids)
            if (findings.StampOf(page) is { } stamp && _known.TryGetValue(stamp, out var known) && known.Facts.TryGetValue(page, out var fact))
                facts[page] = fact;
        return facts.ToImmutable();
    }

    /// <summary>The spreads that were not measured as they are now, by their index; those that were measured before first: they were changed last.</summary>
    public IEnumerable<int> Unmeasured(PublicationFindings findings, IReadOnlySet<int> measuredBefore)
    {
        if (findings.Profile.SeverityOf(FindingKind.TooMuchInk) == Severity.Off) return [];
        var publication = findings.Publication;
        return publication.Order.Ids.Where(page => findings.StampOf(page) is { } stamp && !_known.TryGetValue(stamp, out _))
            .Select(page => Spread.IndexOfPage(publication, publication.NumberOf(page))).Distinct()
            .OrderByDescending(index => Spread.At(publication, index).Pages.Any(p => measuredBefore.Contains(p.Page.Id))).ThenBy(index => index).ToList();
    }

    /// <summary>Measures a spread.</summary>
    public void Measure(PublicationFindings findings, int index, CancellationToken cancel)
    {
        var publication = findings.Publication;
        var spread = Spread.At(publication, index);
        if (findings.StampOf(spread.Pages[0].Page.Id) is not { } stamp) return;
        var facts = ImmutableDictionary<int, InkFact>.Empty;
        try
        {
            var scene = Composer.Compose(publication, spread, Typefaces.All);
            foreach (var page in spread.Pages)
            {
                double ppi = Math.Clamp(Math.Sqrt(MostPixels / page.Trim.Area) * Units.PointsPerInch, PageRaster.SmallestPpi, Ppi);
                var plates = SeparatedPage.Of(scene, page.Trim, ppi, profiles.PressOf(publication.Setup),
                    pixels.Quick(publication), MostPixels, cancel);
                var (percent, at) = plates.Most();
                double points = Units.PointsPerInch / ppi;
                facts = facts.Add(page.Page.Id, new(percent, new((at % plates.Width + 1) * points, (at / plates.Width + 1) * points)));
            }
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            // Tried once, and not again until the page changes. A missing file is a finding of its own; anything else is a fault of ours, and told as one.
            if (e is not (BadPicture or EditRefused or BadProfile)) throw;
        }
        finally
        {
            if (!cancel.IsCancellationRequested) _known.AddOrUpdate(stamp, new(facts));
        }
    }
}

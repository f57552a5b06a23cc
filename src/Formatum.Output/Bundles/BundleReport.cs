using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Formatum.Core.Checking;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Output.Bundles;

/// <summary>What is in a bundle and what deserves a look, for whoever it is handed to.</summary>
internal static class BundleReport
{
    public static string Of(Publication publication, IReadOnlyDictionary<int, BundledAs> states, IReadOnlyList<(string Family, string Face)> fonts,
        IReadOnlyDictionary<int, string> fileOf, DateTimeOffset at)
    {
        var setup = publication.Setup;
        var text = new StringBuilder();
        void Line(FormattableString line) => text.AppendLine(line.ToString(CultureInfo.InvariantCulture));
        void Section(string title, IReadOnlyCollection<string> lines)
        {
            if (lines.Count == 0) return;
            Line($"");
            Line($"{title}: {lines.Count}");
            foreach (string line in lines) Line($"  {line}");
        }

        Line($"{setup.Name}{(setup.Edition.Length > 0 ? ", " + setup.Edition : "")}");
        Line($"Bundle of {at.UtcDateTime:yyyy-MM-dd HH:mm} UTC");
        Line($"");
        string size = $"{Units.Text(setup.PageWidth, setup.Unit)} x {Units.Text(setup.PageHeight, setup.Unit)}";
        Line($"Pages: {publication.PageCount}, {size}, {(setup.Facing ? "facing" : "single")}, bleed {Units.Text(setup.Bleed, setup.Unit)}");
        if (!publication.Masters.IsEmpty) Line($"Masters: {string.Join(", ", publication.Masters.Values.Select(m => m.Name))}");
        Line($"Images: {publication.Images.Count}");
        var own = publication.Fonts.Values.OrderBy(f => f.Family, StringComparer.OrdinalIgnoreCase).ThenBy(f => f.Id).ToLookup(f => fileOf.ContainsKey(f.Id));
        Line($"Fonts: {(fonts.Count == 0 ? "none" : string.Join(", ", fonts.Select(f => $"{f.Family} {f.Face}")))}");

        var images = publication.Images.Values.OrderBy(i => i.Id).ToList();
        List<string> Named(BundledAs state) => [.. images.Where(i => states[i.Id] == state).Select(i => i.Name)];

        var found = PublicationFindings.Of(publication, publication.Profile, CheckFacts.None with { Links = LinksOf(images, states) }, Typefaces.All);
        if (!found.Open.Any()) Line($"Nothing was found by the profile {found.Profile.Name}.");
        Section("The publication's own fonts", [.. own[true].Select(f => $"{f.Family} {f.Face.ToLowerInvariant()}: {f.Name}")]);
        Section("Own fonts not brought along: their makers allow it in no document, or the file has gone. Get a licence where it is opened", [.. own[false]
            .Select(f => $"{f.Family} {f.Face.ToLowerInvariant()}: {f.Name}")]);
        Section("Missing, only the preview is brought along", Named(BundledAs.Missing));
        Section("Changed since they were last updated, brought along as they are now", Named(BundledAs.Changed));
        foreach (var kind in found.Open.GroupBy(f => f.Kind).Where(k => k.Key is not (FindingKind.LinkMissing or FindingKind.LinkChanged)))
            Section(CheckKinds.Of(kind.Key).Title, [.. kind.Select(f => Said(publication, f))]);
        Section("Accepted", [.. found.All.Where(f => !f.IsOpen).Select(f => $"{CheckKinds.Of(f.Kind).Title}: {Said(publication, f)}"
            + $" ({f.Accepted!.By}{(f.Accepted.Reason.Length > 0 ? ": " + f.Accepted.Reason : "")})")]);
        Section("All images", [.. images.Select(i => $"{i.Name}: {i.Format.ToUpperInvariant()}, {i.Colour}, {i.WidthPx} x {i.HeightPx} " +
            $"px{(states[i.Id] == BundledAs.Current ? "" : ", " + states[i.Id].ToString().ToLowerInvariant())}")]);
        return text.ToString();
    }

    private static ImmutableDictionary<int, LinkState> LinksOf(IEnumerable<LinkedImage> images, IReadOnlyDictionary<int, BundledAs> states) => images
        .Where(i => states[i.Id] != BundledAs.Current)
        .ToImmutableDictionary(i => i.Id, i => states[i.Id] == BundledAs.Missing ? LinkState.Missing : LinkState.Changed);

    /// <summary>A finding in a line: "page 3, Picture 5: Shows vase.jpg. 120 ppi".</summary>
    private static string Said(Publication publication, Finding finding)
    {
        string where = finding.Places.Select(p => p.PageId).Where(publication.Pages.ContainsKey)
            .Select(p => publication.WordsOf(p) + ", ").FirstOrDefault() ?? "";
        string figures = string.Join(", ", finding.Figures.Select(f => f.Text(publication.Setup.Unit)));
        return $"{where}{finding.Subject}{(finding.Detail.Length > 0 ? ": " + finding.Detail : "")}{(figures.Length > 0 ? ", " + figures : "")}";
    }
}

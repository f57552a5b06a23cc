using System.Globalization;
using System.Text;
using Formatum.Core.Composing;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

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
        var frames = publication.Frames.Values.OrderBy(f => publication.Order.IndexOf(f.PageId)).ThenBy(f => f.Id).ToList();
        string Where(Frame frame) => $"{publication.WordsOf(frame.PageId)}, {frame.Label}";
        List<string> Named(BundledAs state) => [.. images.Where(i => states[i.Id] == state).Select(i => i.Name)];

        var (missing, changed) = (Named(BundledAs.Missing), Named(BundledAs.Changed));
        List<string> coarse = [.. frames.Select(f => (Frame: f, Fitted: publication.FittedOf(f)))
            .Where(f => f.Fitted is { } fitted && setup.SharpnessOf(fitted.Coverage.Ppi) == Sharpness.TooCoarse)
            .Select(f => string.Create(CultureInfo.InvariantCulture,
                $"{Where(f.Frame)}: {publication.ImageOf(f.Frame)!.Name}, {f.Fitted!.Value.Coverage.Ppi:0.#} ppi"))];
        List<string> empty = [.. frames.Where(f => f.IsPlaceholder && publication.MasterWith(f.PageId) is null).Select(Where)];
        var set = frames.Where(f => f.IsText).Select(f => (Frame: f, Set: Composition.TextOf(publication, f, Typefaces.All)!)).ToList();
        List<string> overset = [.. set.Where(s => s.Set.Overflows).Select(s => $"{Where(s.Frame)}: {s.Set.WordsLeftOver} words")];
        List<string> without = [.. set.Where(s => s.Set.Missing > 0).Select(s => $"{Where(s.Frame)}: {s.Set.Missing} characters")];
        if (missing.Count + changed.Count + coarse.Count + empty.Count + overset.Count + without.Count == 0) Line($"Nothing needs attention.");
        Section("The publication's own fonts", [.. own[true].Select(f => $"{f.Family} {f.Face.ToLowerInvariant()}: {f.Name}")]);
        Section("Own fonts not brought along: their makers allow it in no document, or the file has gone. Get a licence where it is opened", [.. own[false]
            .Select(f => $"{f.Family} {f.Face.ToLowerInvariant()}: {f.Name}")]);
        Section("Missing, only the preview is brought along", missing);
        Section("Changed since they were last updated, brought along as they are now", changed);
        Section(string.Create(CultureInfo.InvariantCulture, $"Below {setup.FloorPpi:0.#} ppi where placed"), coarse);
        Section("Empty placeholders", empty);
        Section("Text that does not fit", overset);
        Section("Text with characters the font does not have", without);
        Section("All images", [.. images.Select(i => $"{i.Name}: {i.Format.ToUpperInvariant()}, {i.Colour}, {i.WidthPx} x {i.HeightPx} " +
            $"px{(states[i.Id] == BundledAs.Current ? "" : ", " + states[i.Id].ToString().ToLowerInvariant())}")]);
        return text.ToString();
    }
}

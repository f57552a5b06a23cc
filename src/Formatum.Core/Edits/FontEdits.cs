using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Edits;

/// <summary>Brings fonts in. A face that a family has already is put in its place; one of the same content is there.</summary>
/// <param name="Fonts">The fonts; their ids are given anew.</param>
public sealed record AddFonts(ImmutableArray<OwnFont> Fonts) : Edit
{
    public override string Words => Fonts.Length == 1 ? "Add font" : $"Add {Fonts.Length} fonts";

    protected override void Make(Draft draft)
    {
        var errors = new FieldErrors();
        foreach (var font in Fonts) FontChecks.Check(font, errors);
        errors.ThrowIfAny();
        var there = draft.Origin.Fonts.Values.ToList();
        foreach (var font in Fonts.Select(FontChecks.OutOfTheWay))
        {
            if (there.Any(f => f.ContentHash == font.ContentHash && f.Family == font.Family)) continue;
            var before = there.FirstOrDefault(f => (f.Family, f.Bold, f.Italic) == (font.Family, font.Bold, font.Italic));
            var added = font with { Id = before?.Id ?? draft.NewId() };
            if (before is not null) there.Remove(before);
            there.Add(added);
            draft.Put(added);
        }
        if (there.Count > OwnFont.Most)
            throw new EditRefused("fonts", $"A publication has {OwnFont.Most} fonts of its own at most. Remove those it does not use first.");
    }
}

/// <summary>Removes fonts. Whatever names a family of which none is left takes another instead.</summary>
/// <param name="Ids">The fonts.</param>
/// <param name="Instead">The family taken instead; null leaves the setting open, so that a style or the default speaks.</param>
public sealed record RemoveFonts(ImmutableArray<int> Ids, string? Instead = null) : Edit
{
    public override string Words => Ids.Length == 1 ? "Remove font" : $"Remove {Ids.Length} fonts";

    protected override void Make(Draft draft)
    {
        var fonts = Ids.Distinct().Select(id => draft.Find(new(PartKind.Font, id)) as OwnFont ?? throw new NoSuchPart("font",
            $"There is no font {id} in this publication. It may have been removed in another window.")).ToList();
        if (fonts.Count == 0) throw new EditRefused("fonts", "No font is named. Choose one first.");
        foreach (var font in fonts) draft.Remove(font.Key);
        var left = draft.Origin.Fonts.Values.Except(fonts).Select(f => f.Family).ToHashSet();
        if (Instead is not null && !TextStyle.Families.Contains(Instead) && !left.Contains(Instead))
            throw new EditRefused("instead", $"There is no font family \u201c{Instead}\u201d that stays. Choose one of the list, or none.");
        var gone = fonts.Select(f => f.Family).Where(f => !left.Contains(f)).ToHashSet();
        if (gone.Count > 0) Replace(draft, gone);
    }

    private void Replace(Draft draft, HashSet<string> gone)
    {
        TextSettings Changed(TextSettings set) => set.Family is { } family && gone.Contains(family) ? set with { Family = Instead } : set;
        foreach (var style in draft.Origin.Styles.Values.Where(s => Changed(s.Settings) != s.Settings))
            draft.Put(style with { Settings = Changed(style.Settings) });
        foreach (var story in draft.Origin.Stories.Values)
        {
            if (!FontChecks.Named(story.Text).Any(gone.Contains)) continue;
            draft.Put(story with { Text = story.Text.Restyled(p => p with { Set = Changed(p.Set) }, r => r with { Set = Changed(r.Set) }) });
        }
    }
}

/// <summary>What every font must keep to, and everything that names one.</summary>
internal static class FontChecks
{
    public static void Check(OwnFont font, FieldErrors errors)
    {
        if (string.IsNullOrWhiteSpace(font.Family) || font.Family.Length > TextSettings.LongestFamily || font.Family.Any(char.IsControl))
            errors.Add("family", $"A font family's name has 1 to {TextSettings.LongestFamily} characters.");
        if (string.IsNullOrWhiteSpace(font.Name) || font.Name.Length > OwnFont.LongestName || font.Name.AsSpan().IndexOfAny('/', '\0') >= 0)
            errors.Add("name", $"A file's name has 1 to {OwnFont.LongestName} characters, and no path.");
        if (font.ContentHash.Length != 64 || !font.ContentHash.All(char.IsAsciiHexDigitLower))
            errors.Add("contentHash", "A content hash is SHA-256 as 64 lower-case hexadecimal digits.");
        if (!OwnFont.Formats.Contains(font.Format)) errors.Add("format", $"There is no font format \"{font.Format}\"; there are ttf and otf.");
        errors.Range("bytes", font.Bytes, 1, OwnFont.MostBytes, $"A font has {OwnFont.MostBytes >> 20} MB at most.");
        errors.Choice("embedding", font.Embedding);
        if (font.Licence?.Length > OwnFont.LongestLicence) errors.Add("licence", $"A licence has {OwnFont.LongestLicence} characters at most.");
    }

    /// <summary>A family that bears the name of a shipped one is set apart from it.</summary>
    public static OwnFont OutOfTheWay(OwnFont font) => TextStyle.Families.Contains(font.Family) ? font with { Family = $"{font.Family} (own)" } : font;

    /// <summary>The families that a text names itself.</summary>
    public static IEnumerable<string> Named(FrameText text) => text.Paragraphs.SelectMany(p => p.Runs.Select(r => r.Set.Family).Append(p.Set.Family))
        .OfType<string>().Distinct();

    /// <summary>Tells of families that are named anew and that are not there. What named one before that has gone keeps it: the font may come back.</summary>
    public static void CheckNamed(Draft draft, IEnumerable<string> named, IEnumerable<string> before, FieldErrors errors, string field = "family")
    {
        var unknown = named.Where(f => !TextStyle.Families.Contains(f)).Except(before).Except(draft.Origin.Fonts.Values
            .Concat(draft.Touched.Select(draft.Find).OfType<OwnFont>()).Select(f => f.Family)).FirstOrDefault();
        if (unknown is not null)
            errors.Add(field, $"There is no font family \u201c{unknown}\u201d here. Take one of {string.Join(", ", draft.Origin.FontFamilies)}, " +
                "or add its font.");
    }
}

using System.Collections.Immutable;
using Formatum.Core.Colours;
using Formatum.Core.Stories;

namespace Formatum.Core.Publications;

/// <summary>Where a colour of the palette is used.</summary>
/// <param name="Styles">The styles that name it, by name.</param>
/// <param name="Looks">The looks that name it, by name.</param>
/// <param name="Frames">The frames that show it, by its name, in reading order of their pages: in their look, or in their text.</param>
public sealed record ColourUse(ImmutableArray<NamedStyle> Styles, ImmutableArray<NamedLook> Looks, ImmutableArray<Frame> Frames)
{
    public bool IsUsed => Styles.Length + Looks.Length + Frames.Length > 0;

    public static ColourUse Of(Publication publication, int id)
    {
        bool Uses(Colour? colour) => colour is NamedColour named && named.Id == id;
        var styles = publication.Styles.Values.Where(s => Uses(s.Settings.Colour)).OrderBy(s => s.Name, StringComparer.OrdinalIgnoreCase);
        var looks = publication.Looks.Values.Where(l => l.Settings.AllColours().Any(Uses)).OrderBy(l => l.Name, StringComparer.OrdinalIgnoreCase);
        var told = publication.Stories.Values.Where(story => TextCascade.Styled(publication, story.Text).Paragraphs.Any(p => Uses(p.Style.Colour)
            || p.Runs.Any(r => Uses(r.Style.Colour)))).SelectMany(s => s.FrameIds).ToHashSet();
        var frames = publication.Frames.Values.Where(f => publication.LookOf(f).AllColours().Any(Uses) || told.Contains(f.Id))
            .OrderBy(f => publication.Order.IndexOf(f.PageId)).ThenBy(f => f.Id);
        return new([.. styles], [.. looks], [.. frames]);
    }

    /// <summary>All that are named somewhere, whether they are there or not.</summary>
    public static IEnumerable<int> Ids(Publication publication) => publication.Styles.Values.Select(s => s.Settings.Colour)
        .Concat(publication.Looks.Values.SelectMany(l => l.Settings.AllColours()))
        .Concat(publication.Frames.Values.SelectMany(f => f.Look.AllColours()))
        .Concat(publication.Stories.Values.SelectMany(s => s.Text.Paragraphs).SelectMany(p => p.Runs.Select(r => r.Set.Colour).Append(p.Set.Colour)))
        .OfType<NamedColour>().Select(c => c.Id).Distinct();
}

using System.Collections.Immutable;
using Formatum.Core.Stories;

namespace Formatum.Core.Publications;

/// <summary>A font family and where it is used.</summary>
/// <param name="Family">Its name.</param>
/// <param name="Faces">Its faces where the publication brought it itself, in the order regular, bold, italic; none where it is shipped.</param>
/// <param name="Styles">The styles that name it, by name.</param>
/// <param name="Stories">The stories of which some characters are set in it.</param>
public sealed record FontUse(string Family, ImmutableArray<OwnFont> Faces, ImmutableArray<NamedStyle> Styles, ImmutableArray<Story> Stories)
{
    public bool IsUsed => Styles.Length + Stories.Length > 0;

    /// <summary>Whether text names it and it is neither shipped nor here: its font was removed, or did not come along.</summary>
    public bool IsGone => Faces.IsEmpty && !TextStyle.Families.Contains(Family);

    /// <summary>All families of a publication: its own and those that have gone first, then those that are shipped.</summary>
    public static ImmutableArray<FontUse> Of(Publication publication)
    {
        var styles = publication.Styles.Values.Where(s => s.Settings.Family is not null).OrderBy(s => s.Name, StringComparer.OrdinalIgnoreCase)
            .ToLookup(s => s.Settings.Family!);
        var stories = publication.Stories.Values.OrderBy(s => s.Id).SelectMany(story => TextCascade.Styled(publication, story.Text).Paragraphs
            .SelectMany(p => p.Runs).Where(r => r.Length > 0).Select(r => r.Style.Family).Distinct().Select(family => (Family: family, Story: story)))
            .ToLookup(u => u.Family, u => u.Story);
        var faces = publication.Fonts.Values.OrderBy(f => f.Italic).ThenBy(f => f.Bold).ToLookup(f => f.Family);
        var all = publication.FontFamilies.Concat(styles.Select(s => s.Key)).Concat(stories.Select(s => s.Key)).Distinct();
        return [.. all.Select(f => new FontUse(f, [.. faces[f]], [.. styles[f]], [.. stories[f]]))
            .OrderBy(u => TextStyle.Families.Contains(u.Family)).ThenBy(u => u.Family, StringComparer.OrdinalIgnoreCase)];
    }
}

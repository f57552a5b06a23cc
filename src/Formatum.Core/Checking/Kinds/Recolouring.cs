using Formatum.Core.Colours;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Checking.Kinds;

/// <summary>Puts other colours in the place of some.</summary>
internal static class Recolouring
{
    /// <summary>A story with other colours; null where nothing changes.</summary>
    /// <param name="publication">The publication.</param>
    /// <param name="story">The story.</param>
    /// <param name="instead">What text of a style takes instead; null to stay as it is.</param>
    public static Edit? OfStory(Publication publication, Story story, Func<TextStyle, Colour?> instead)
    {
        TextSettings Of(TextSettings set, TextStyle style) => instead(style) is { } colour ? set with { Colour = InPalette(publication, colour) } : set;
        var text = new FrameText([.. story.Text.Paragraphs.Select(p => p.Of(p.Runs.Select(r => r with
        {
            Set = Of(r.Set, TextCascade.StyleOf(publication, p, r)),
        }))
            with { Set = Of(p.Set, TextCascade.StyleOf(publication, p)) })]);
        return text == story.Text ? null : new ChangeStory(story.Id, null, text);
    }

    /// <summary>The palette's colour of just these inks, where it has one.</summary>
    private static Colour InPalette(Publication publication, Colour colour) => publication.Colours.Values.Where(c => !c.IsSpot && c.Colour == colour)
        .OrderBy(c => c.Id).Select(c => (Colour)new NamedColour(c.Id)).FirstOrDefault() ?? colour;
}

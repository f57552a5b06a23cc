using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Edits;

/// <summary>What a new edition keeps of the one it comes from, besides its layout, its masters and its rules.</summary>
/// <param name="Pictures">Whether frames keep their pictures, with their recrops; locked frames keep them in any case.</param>
/// <param name="Texts">Whether texts are kept; else they are cleared, each first style staying. Locked frames keep theirs in any case.</param>
public sealed record EditionKeeps(bool Pictures, bool Texts);

/// <summary>Makes the next edition of a publication.</summary>
public static class EditionMaker
{
    /// <exception cref="EditRefused">The name or the edition cannot be used.</exception>
    public static Publication Make(Publication source, string name, string edition, EditionKeeps keeps)
    {
        var setup = source.Setup with { Name = name.Trim(), Edition = edition.Trim() };
        var errors = new FieldErrors();
        setup.Check(errors);
        errors.ThrowIfAny();
        var frames = source.Frames.Values.Select(frame => source.MasterWith(frame.PageId) is null ? Emptied(frame, keeps) : frame).ToList();
        var used = frames.Select(f => f.ImageId).OfType<int>().ToHashSet();
        var images = keeps.Pictures ? source.Images.Values : source.Images.Values.Where(i => used.Contains(i.Id));
        var stories = source.Stories.Values.Select(story => Emptied(source, story, keeps));
        return Publication.FromParts(source.NextId, [setup, source.Order, .. source.Pages.Values, .. frames, .. images, .. source.Rules.Values,
            .. source.Masters.Values, .. stories, .. source.Styles.Values, .. source.Fonts.Values, .. source.Colours.Values, .. source.Looks.Values,
            .. source.Recipes.Values, .. source.CheckProfiles.Values]);
    }

    private static Story Emptied(Publication source, Story story, EditionKeeps keeps)
    {
        var frames = story.FrameIds.Select(id => source.Frames[id]).ToList();
        bool stays = keeps.Texts || frames.Any(f => f.Locked || source.MasterWith(f.PageId) is not null);
        return stays ? story : story with { Text = FrameText.EmptyLike(story.Text.Paragraphs[0]) };
    }

    private static Frame Emptied(Frame frame, EditionKeeps keeps)
    {
        if (frame.Locked) return frame;
        return keeps.Pictures || frame.IsText ? frame : frame with { ImageId = null, Held = null, Recrop = Fitting.Recrop.None, FormerRecrop = null };
    }
}

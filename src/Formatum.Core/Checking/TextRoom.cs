using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Edits;
using Formatum.Core.Filling;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Checking;

/// <summary>Where text that is left over finds room.</summary>
public static class TextRoom
{
    /// <summary>The next empty text frame behind one in reading order; null where there is none.</summary>
    public static Frame? NextEmpty(Publication publication, Frame frame)
    {
        int at = publication.Order.IndexOf(frame.PageId);
        if (at < 0) return null;
        var behind = ReadingOrder.Of(publication, publication.Order.Ids.Skip(at).SelectMany(publication.FramesOnPage)).ToList();
        return behind.Skip(behind.FindIndex(f => f.Id == frame.Id) + 1)
            .FirstOrDefault(f => f is { IsText: true, Hidden: false, Locked: false } && f.StoryId != frame.StoryId && publication.IsEmpty(f));
    }

    /// <summary>The edit that adds as many pages as the text takes to end.</summary>
    /// <exception cref="EditRefused">It ends already, or would not end with as many as can be added.</exception>
    public static RunOnPages UntilItEnds(Publication publication, Frame frame, ITypefaces typefaces)
    {
        int LeftOut(Publication after, int id) => Composition.TextOf(after, after.Frames[id], typefaces)?.LeftOut ?? 0;
        int left = LeftOut(publication, frame.Id);
        if (left == 0) throw new EditRefused("into", "All of the text has its place already.");
        int LeftWith(int count)
        {
            var after = publication.With(new RunOnPages(frame.Id, count, OnNewPages: true).On(publication));
            return LeftOut(after, after.StoryOf(after.Frames[frame.Id])!.FrameIds[^1]);
        }
        int with1 = LeftWith(1), takes = left - with1;
        if (takes <= 0) throw new EditRefused("into", "Not a line of the text fits on such a page. Make the frame larger, or the type smaller.");
        // About as many as one takes into all; then to the exact number.
        int count = Math.Clamp((int)Math.Ceiling((double)left / takes), 1, RunOnPages.Most);
        while (count > 1 && LeftWith(count - 1) == 0) count--;
        while (LeftWith(count) > 0)
            if (++count > RunOnPages.Most) throw new EditRefused("into", $"It would take more than {RunOnPages.Most} pages. Make the frame larger first.");
        return new(frame.Id, count, OnNewPages: true);
    }

    /// <summary>Steps in which type is made smaller, as a share of its size. Our own measure, no source.</summary>
    private const double Step = 0.025;

    /// <summary>The edit that sets a story as little smaller as lets it fit, none of its type below what its style allows.</summary>
    /// <param name="publication">The publication.</param>
    /// <param name="storyId">The story.</param>
    /// <param name="smallest">No type gets smaller than this, in points.</param>
    /// <param name="typefaces">The fonts.</param>
    /// <exception cref="EditRefused">It would have to be set smaller than that, or than its styles allow.</exception>
    public static Edit Smaller(Publication publication, int storyId, double smallest, ITypefaces typefaces)
    {
        var story = publication.Stories[storyId];
        var before = story.Text;
        for (double share = 1 - Step; share > Step; share -= Step)
        {
            double taken = share;
            var text = Sized(publication, story, style => Math.Max(Math.Min(style.Size, LeastOf(style, smallest)), Math.Round(style.Size * taken, 2)));
            // All has come to the smallest that is allowed.
            if (text == before) break;
            before = text;
            var edit = new ChangeStory(storyId, null, text);
            var after = publication.With(edit.On(publication));
            var last = after.Frames[after.Stories[storyId].FrameIds[^1]];
            if (Composition.TextOf(after, last, typefaces) is { Overflows: false }) return edit;
        }
        throw new EditRefused("text", "The text would have to be set smaller than its styles allow, which is four fifths of its size where they say nothing, "
            + "or than the smallest type of the profile. Make room for it, let it run on, or shorten it.");
    }

    /// <summary>Longer texts, in characters, are not set anew to see whether they would fit.</summary>
    private const int MostTried = 20_000;

    /// <summary>Whether a story fits where all its type is as small as is allowed. Of a long one that is seen when it is tried.</summary>
    /// <param name="publication">The publication.</param>
    /// <param name="storyId">The story.</param>
    /// <param name="smallest">No type gets smaller than this, in points.</param>
    /// <param name="typefaces">The fonts.</param>
    public static bool CanBeSmaller(Publication publication, int storyId, double smallest, ITypefaces typefaces)
    {
        var story = publication.Stories[storyId];
        if (story.Text.Plain.Length > MostTried) return true;
        var text = Sized(publication, story, style => Math.Min(style.Size, LeastOf(style, smallest)));
        if (text == story.Text) return false;
        var after = publication.With(new ChangeStory(storyId, null, text).On(publication));
        return Composition.TextOf(after, after.Frames[story.FrameIds[^1]], typefaces) is { Overflows: false };
    }

    private static double LeastOf(TextStyle style, double smallest) =>
        Math.Max(smallest, style.SmallestSize > 0 ? style.SmallestSize : TextStyle.UsualSmallest * style.Size);

    /// <summary>A story's text with the size of all its characters changed; leading that was set follows in proportion.</summary>
    /// <param name="publication">The publication.</param>
    /// <param name="story">The story.</param>
    /// <param name="size">What the size of a style becomes, in points.</param>
    internal static FrameText Sized(Publication publication, Story story, Func<TextStyle, double> size)
    {
        TextSettings At(TextSettings set, TextStyle style) => size(style) is var now && now == style.Size ? set
            : set with { Size = now, Leading = style.Leading is { } leading ? Math.Round(leading * now / style.Size, 2) : set.Leading };
        return new([.. story.Text.Paragraphs.Select(p => p.Of(p.Runs.Select(r => r with { Set = At(r.Set, TextCascade.StyleOf(publication, p, r)) })) with
        {
            Set = At(p.Set, TextCascade.StyleOf(publication, p)),
        })]);
    }
}

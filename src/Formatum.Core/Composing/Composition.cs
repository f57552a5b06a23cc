using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Composing;

/// <summary>Stories set through their chains, each kept until something it rests on changes.</summary>
public static class Composition
{
    /// <summary>All that decides how a story is set in one of its frames.</summary>
    private sealed record Place(double Width, double Height, Outline Outline, TextArea Area, ImmutableArray<Obstacle> Obstacles,
        BaselineGrid? Grid)
    {
        public bool Equals(Place? other) => other is not null && Width == other.Width && Height == other.Height && Outline == other.Outline
            && Area == other.Area && Grid == other.Grid && Obstacles.AsSpan().SequenceEqual(other.Obstacles.AsSpan());

        public override int GetHashCode() => HashCode.Combine(Width, Height, Area, Obstacles.Length);
    }

    /// <summary>A story as it was set, and as it was the times before: before and after a change of a style are looked at in turn.</summary>
    private sealed record Kept(StyledText Text, ImmutableArray<Place> Places, ITypefaces Typefaces, ImmutableArray<SetText> Set, Kept? Before)
    {
        public bool Serves(StyledText text, ImmutableArray<Place> places, ITypefaces typefaces) =>
            ReferenceEquals(Typefaces, typefaces) && Text == text && Places.AsSpan().SequenceEqual(places.AsSpan());

        /// <summary>The newest so many.</summary>
        public Kept Cut(int most) => this with { Before = most > 1 ? Before?.Cut(most - 1) : null };
    }

    /// <summary>As typed, with its fields filled in, and the same before and after a change.</summary>
    private const int MostKept = 4;

    /// <summary>By the words as they are kept: they are the same through all that happens to the rest of a publication.</summary>
    private static readonly ConditionalWeakTable<Story, Kept> Known = [];

    /// <summary>A frame's stretch of its story, set in lines as it reads on a page; null where it holds none.</summary>
    /// <param name="publication">The publication.</param>
    /// <param name="frame">The frame, which may be under way to another place or size.</param>
    /// <param name="typefaces">The fonts.</param>
    /// <param name="onPage">The page it is shown on; null for the one it keeps to.</param>
    public static SetText? TextOf(Publication publication, Frame frame, ITypefaces typefaces, int? onPage = null)
    {
        if (publication.StoryOf(frame) is not { } story) return null;
        int at = story.FrameIds.IndexOf(frame.Id);
        if (at < 0) return null;
        ImmutableArray<Frame> chain = [.. story.FrameIds.Select(id => id == frame.Id ? frame : publication.Frames[id])];
        return TextsOf(publication, story, chain, [.. chain.Select(f => f.Id == frame.Id && onPage is { } shown ? shown : f.PageId)], typefaces)[at];
    }

    /// <summary>A story set in lines in each of its frames, as it reads on their pages.</summary>
    public static ImmutableArray<SetText> TextsOf(Publication publication, Story story, ITypefaces typefaces)
    {
        ImmutableArray<Frame> chain = [.. story.FrameIds.Select(id => publication.Frames[id])];
        return TextsOf(publication, story, chain, [.. chain.Select(f => f.PageId)], typefaces);
    }

    private static ImmutableArray<SetText> TextsOf(Publication publication, Story story, ImmutableArray<Frame> chain, ImmutableArray<int> pages,
        ITypefaces typefaces)
    {
        ImmutableArray<Place> places = [.. chain.Select((f, i) => PlaceOf(publication, f, pages[i]))];
        ImmutableArray<SetText> SetIn(FrameText text) => Set(story, places, TextCascade.Styled(publication, text), typefaces);
        if (!story.Text.HasFields()) return SetIn(story.Text);
        var fields = new FieldWords(publication, typefaces, chain, pages);
        var listed = story.Text.FollowsOthers() ? Headings.Listed(publication, story, Headings.Of(publication, typefaces)).Text : story.Text;
        // In which frame a paragraph begins follows from what its fields say, and what they say from the frame it begins in.
        ImmutableArray<int> begins = [.. listed.Paragraphs.Select(_ => 0)];
        for (int round = 0; ; round++)
        {
            var set = SetIn(listed.Filled((paragraph, field) => fields.Of(field, begins[paragraph])));
            var now = Begins(set, begins.Length);
            if (chain.Length == 1 || round == MostRounds || now.AsSpan().SequenceEqual(begins.AsSpan())) return set;
            begins = now;
        }
    }

    /// <summary>Where a page's number makes a paragraph so long that it goes to another page, this ends it.</summary>
    private const int MostRounds = 3;

    /// <summary>For each paragraph the frame of the chain in which it begins; the last for what is left over.</summary>
    private static ImmutableArray<int> Begins(ImmutableArray<SetText> set, int count)
    {
        int[] begins = [.. Enumerable.Repeat(set.Length - 1, count)];
        for (int f = set.Length - 1; f >= 0; f--)
            foreach (var line in set[f].Lines) begins[line.Paragraph] = f;
        return [.. begins];
    }

    /// <summary>A story in each of its frames with its fields as they are typed: what a place in it is, is one in its words.</summary>
    public static ImmutableArray<SetText> AsTyped(Publication publication, Story story, ITypefaces typefaces) => SetAs(publication, story, story.Text,
        typefaces);

    /// <summary>Some text in the frames of a story.</summary>
    internal static ImmutableArray<SetText> SetAs(Publication publication, Story story, FrameText text, ITypefaces typefaces) => Set(story,
        [.. story.FrameIds.Select(id => PlaceOf(publication, publication.Frames[id], publication.Frames[id].PageId))],
        TextCascade.Styled(publication, text), typefaces);

    private static ImmutableArray<SetText> Set(Story story, ImmutableArray<Place> places, StyledText styled, ITypefaces typefaces)
    {
        var text = FallbackFonts.Applied(styled, typefaces);
        Known.TryGetValue(story, out var kept);
        for (var one = kept; one is not null; one = one.Before)
            if (one.Serves(text, places, typefaces)) return one.Set;
        var set = TextSetter.Set(text, [.. places.Select(p => new TextShape(p.Area, p.Width, p.Height, p.Outline, p.Obstacles, p.Grid))], typefaces, story.Id);
        Known.AddOrUpdate(story, new(text, places, typefaces, set, kept?.Cut(MostKept - 1)));
        return set;
    }

    private static Place PlaceOf(Publication publication, Frame frame, int onPage) => new(frame.Box.Width, frame.Box.Height, publication.ShapeOf(frame),
        frame.Area ?? TextArea.Whole, frame.Area is { IgnoresWrap: true } ? [] : Wraps.Of(publication, frame, onPage),
        publication.Setup.BaselineStep > 0 && frame.Angle == 0 ? new(publication.Setup.BaselineStart - frame.Box.Y, publication.Setup.BaselineStep) : null);
}

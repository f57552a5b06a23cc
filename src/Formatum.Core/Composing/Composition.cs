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
    private sealed record Place(double Width, double Height, Outline Outline, TextArea Area, ImmutableArray<Obstacle> Obstacles)
    {
        public bool Equals(Place? other) => other is not null && Width == other.Width && Height == other.Height && Outline == other.Outline
            && Area == other.Area && Obstacles.AsSpan().SequenceEqual(other.Obstacles.AsSpan());

        public override int GetHashCode() => HashCode.Combine(Width, Height, Area, Obstacles.Length);
    }

    /// <summary>A story as it was set, and as it was the time before: before and after a change of a style are looked at in turn.</summary>
    private sealed record Kept(StyledText Text, ImmutableArray<Place> Places, ITypefaces Typefaces, ImmutableArray<SetText> Set, Kept? Before)
    {
        public bool Serves(StyledText text, ImmutableArray<Place> places, ITypefaces typefaces) =>
            ReferenceEquals(Typefaces, typefaces) && Text == text && Places.AsSpan().SequenceEqual(places.AsSpan());
    }

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
        ImmutableArray<Place> places = [.. story.FrameIds.Select(id => PlaceOf(publication, id == frame.Id ? frame : publication.Frames[id],
            id == frame.Id ? onPage : null))];
        // What it says of pages is that of its first frame.
        var head = at == 0 ? frame : publication.Frames[story.FrameIds[0]];
        return Set(story, places, TextCascade.Styled(publication, story.Text.On(publication, at == 0 ? onPage ?? head.PageId : head.PageId)), typefaces)[at];
    }

    /// <summary>A story in each of its frames with its fields as they are typed: what a place in it is, is one in its words.</summary>
    public static ImmutableArray<SetText> AsTyped(Publication publication, Story story, ITypefaces typefaces) => Set(story,
        [.. story.FrameIds.Select(id => PlaceOf(publication, publication.Frames[id], null))], TextCascade.Styled(publication, story.Text), typefaces);

    private static ImmutableArray<SetText> Set(Story story, ImmutableArray<Place> places, StyledText text, ITypefaces typefaces)
    {
        Known.TryGetValue(story, out var kept);
        for (var one = kept; one is not null; one = one.Before)
            if (one.Serves(text, places, typefaces)) return one.Set;
        var set = TextSetter.Set(text, [.. places.Select(p => new TextShape(p.Area, p.Width, p.Height, p.Outline, p.Obstacles))], typefaces, story.Id);
        Known.AddOrUpdate(story, new(text, places, typefaces, set, kept is null ? null : kept with { Before = null }));
        return set;
    }

    private static Place PlaceOf(Publication publication, Frame frame, int? onPage) => new(frame.Box.Width, frame.Box.Height, frame.Outline,
        frame.Area ?? TextArea.Whole, frame.Area is { IgnoresWrap: true } ? [] : Wraps.Of(publication, frame, onPage ?? frame.PageId));
}

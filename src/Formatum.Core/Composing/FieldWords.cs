using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Composing;

/// <summary>What the fields of a story say in each of its frames.</summary>
/// <param name="publication">The publication.</param>
/// <param name="typefaces">The fonts, by which headings find their pages.</param>
/// <param name="chain">The frames of the story.</param>
/// <param name="pages">The pages they are shown on.</param>
internal sealed class FieldWords(Publication publication, ITypefaces typefaces, ImmutableArray<Frame> chain, ImmutableArray<int> pages)
{
    /// <summary>What a field says in a frame of the chain; null where it stays as it is written, as a page's number does on a master.</summary>
    public string? Of(TextField field, int at) => field.Name switch
    {
        TextFields.Pages => publication.PageCount.ToString(CultureInfo.InvariantCulture),
        TextFields.Edition => publication.Setup.Edition,
        TextFields.Publication => publication.Setup.Name,
        _ => publication.Order.IndexOf(pages[at]) is >= 0 and var page ? OnPage(field, at, page) : null,
    };

    private string? OnPage(TextField field, int at, int page) => field.Name switch
    {
        TextFields.Page => Headings.Folio(publication, page),
        TextFields.Heading => Headings.Running(publication, typefaces, page, field.Level ?? 1),
        TextFields.Next => Jump(at, page, 1),
        TextFields.Before => Jump(at, page, -1),
        _ => null,
    };

    /// <summary>The page that a story goes on to, or came from: this one where it has other pages, else the one whose frame here lies nearest.</summary>
    private string? Jump(int at, int page, int way)
    {
        if (Beyond([.. chain.Select(f => f.Id)], at, page, way) is { } own) return own;
        // On the way between frames of one page the distance of frames that touch is 0: the nearest middle then decides.
        return (from other in publication.FramesOnPage(pages[at])
                where !other.Hidden && publication.StoryOf(other) is { FrameIds.Length: > 1 }
                let ids = publication.StoryOf(other)!.FrameIds
                let beyond = Beyond(ids, ids.IndexOf(other.Id), page, way)
                where beyond is not null
                orderby Gap(other.Pose.Bounds, chain[at].Pose.Bounds), (other.Box.Centre - chain[at].Box.Centre).Length
                select beyond).FirstOrDefault();
    }

    private string? Beyond(ImmutableArray<int> ids, int at, int page, int way)
    {
        for (int i = at + way; i >= 0 && i < ids.Length; i += way)
            if (publication.Order.IndexOf(publication.Frames[ids[i]].PageId) is >= 0 and var there && there != page) return Headings.Folio(publication, there);
        return null;
    }

    private static double Gap(Box a, Box b) => new Vec(Math.Max(0, Math.Max(a.X - b.Right, b.X - a.Right)),
        Math.Max(0, Math.Max(a.Y - b.Bottom, b.Y - a.Bottom))).Length;
}

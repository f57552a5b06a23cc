using System.Collections.Immutable;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>
/// Pages filled with copies of what lies on others: frames that were grouped are grouped anew among themselves, and what comes to the other side of the
/// spread is laid for that side.
/// </summary>
internal sealed class PageCopies(Draft draft)
{
    private int _lastGroup = Copies.LastGroup(draft);

    /// <summary>Fills pages that stand in the draft's order already.</summary>
    /// <param name="originals">The pages to copy.</param>
    /// <param name="onto">The pages that become copies, one for each.</param>
    /// <param name="change">What is done to each frame; null to leave all as they are.</param>
    /// <param name="keepsWords">Whether the words of a text frame come along; null where they all do.</param>
    /// <returns>Each original's id with its copy.</returns>
    public IReadOnlyDictionary<int, Frame> Copy(ImmutableArray<int> originals, ImmutableArray<int> onto, Func<Frame, Frame>? change = null,
        Func<Frame, bool>? keepsWords = null)
    {
        var stories = new StoryCopies(draft, draft.Origin.Stories);
        var (before, after) = (draft.Origin, draft.Origin.With(draft.Changes()));
        var made = new Dictionary<int, Frame>();
        var groups = new Dictionary<int, int>();
        for (int i = 0; i < originals.Length; i++)
        {
            var sides = new Sides(before.Setup, before.IsRecto(originals[i]), after.IsRecto(onto[i]));
            draft.Put(before.Pages[originals[i]] with { Id = onto[i], Guides = [.. before.Pages[originals[i]].Guides.Select(sides.Guide)] });
            foreach (var frame in before.FramesOnPage(originals[i]).OrderBy(f => f.Depth).ThenBy(f => f.Id))
            {
                if (frame.GroupId is { } group && !groups.ContainsKey(group)) groups[group] = ++_lastGroup;
                int id = draft.NewId();
                var copy = (change?.Invoke(frame) ?? frame) with
                {
                    Id = id,
                    StoryId = stories.For(frame, id, keepsWords?.Invoke(frame) != false),
                    PageId = onto[i],
                    Box = GoesByMaster(frame) ? frame.Box : sides.Box(frame),
                    GroupId = frame.GroupId is { } g ? groups[g] : null,
                };
                draft.Put(copy);
                made[frame.Id] = copy;
            }
        }
        stories.Finish();
        return made;
    }

    /// <summary>Whether it lies where its master has it: then it follows that to the other side by itself.</summary>
    private bool GoesByMaster(Frame frame) => frame.MasterFrameId is { } id && draft.Origin.Frames.TryGetValue(id, out var master)
        && master.Box.X == frame.Box.X;
}

/// <summary>
/// How what lies on one side of a spread is laid on the other. What keeps within the margins keeps its place in them; what touches the trim or stands in a
/// margin, such as a folio, keeps its distance from the fold.
/// </summary>
internal readonly record struct Sides(Setup Setup, bool From, bool To)
{
    /// <summary>Within this of a margin, in points, a frame counts as within it.</summary>
    private const double Hair = 0.5;

    private double Across => Setup.TypeArea(To).X - Setup.TypeArea(From).X;

    public Box Box(Frame frame)
    {
        if (From == To || !Setup.Facing) return frame.Box;
        var (area, seen) = (Setup.TypeArea(From), frame.Pose.Bounds);
        if (seen.X >= area.X - Hair && seen.Right <= area.Right + Hair) return frame.Box.Moved(Across, 0);
        return frame.Box.Moved(Setup.PageWidth - seen.Right - seen.X, 0);
    }

    public PageGuide Guide(PageGuide guide) => guide.Upright && From != To && Setup.Facing ? guide with { At = guide.At + Across } : guide;
}

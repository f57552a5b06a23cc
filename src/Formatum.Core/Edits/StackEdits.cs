using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>Where in the stack frames are brought.</summary>
public enum StackMove { Front, Forward, Backward, Back }

/// <summary>Changes which frames lie above which on their spread. Those that are moved keep their order among themselves.</summary>
public sealed record RestackFrames(ImmutableArray<int> FrameIds, StackMove Move) : Edit
{
    public override string Words => Move switch
    {
        StackMove.Front => "Bring to front",
        StackMove.Forward => "Bring forward",
        StackMove.Backward => "Send back",
        _ => "Send to back",
    };

    protected override void Make(Draft draft)
    {
        if (FrameIds.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        var publication = draft.Origin;
        var moved = FrameIds.ToHashSet();
        foreach (int spread in FrameIds.Select(id => Spread.IndexOfPage(publication, publication.NumberOf(FrameOf(draft, id).PageId))).Distinct())
        {
            var stack = Spread.At(publication, spread).FramesOf(publication).Select(f => f.Frame).ToList();
            var after = Restacked(stack, moved);
            for (int depth = 0; depth < after.Count; depth++) draft.Put(after[depth] with { Depth = depth + 1 });
        }
    }

    private List<Frame> Restacked(List<Frame> stack, HashSet<int> moved)
    {
        var (chosen, others) = (stack.Where(f => moved.Contains(f.Id)).ToList(), stack.Where(f => !moved.Contains(f.Id)).ToList());
        int place = Move switch
        {
            StackMove.Front => others.Count,
            StackMove.Back => 0,
            // Past the next of the others above the topmost, or below the lowest.
            StackMove.Forward => Math.Min(others.Count, Below(stack, others, chosen[^1]) + 1),
            _ => Math.Max(0, Below(stack, others, chosen[0]) - 1),
        };
        others.InsertRange(place, chosen);
        return others;
    }

    private static int Below(List<Frame> stack, List<Frame> others, Frame frame) => others.Count(o => stack.IndexOf(o) < stack.IndexOf(frame));
}

/// <summary>Makes frames one group, or frees them from theirs.</summary>
public sealed record GroupFrames(ImmutableArray<int> FrameIds, bool Together) : Edit
{
    public override string Words => Together ? $"Group {FrameIds.Length} frames" : "Ungroup";

    protected override void Make(Draft draft)
    {
        if (FrameIds.Length < (Together ? 2 : 1))
            throw new EditRefused("frame", Together ? "A group needs two frames or more. Choose some more." : "No frame is chosen. Choose one first.");
        int? group = Together ? 1 + Copies.LastGroup(draft) : null;
        foreach (int id in FrameIds) draft.Put(FrameOf(draft, id) with { GroupId = group });
    }
}

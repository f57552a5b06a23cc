using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Web.Desk.Commands;

namespace Formatum.Web.Desk;

/// <summary>What the page asks while the pointer is still down.</summary>
/// <param name="Inside">Whether the hand is inside a picture.</param>
/// <param name="Command">What would be done if the pointer were let go now.</param>
public sealed record HandQuestion(bool Inside, DeskCommand Command);

/// <summary>A line that was caught on, from point to point of the spread.</summary>
public sealed record MarkLine(double X1, double Y1, double X2, double Y2);

/// <summary>A gap between frames that can be dragged, in points of the spread.</summary>
public sealed record GapPatch(double X, double Y, double Width, double Height, bool Upright, string Words);

/// <summary>What a drag would come to: values the page's script sets as they are.</summary>
/// <param name="Frames">The frames that change.</param>
/// <param name="Inside">The picture under the hand; null where somebody is outside.</param>
/// <param name="Marks">What was caught on.</param>
/// <param name="Gap">The gap under the pointer, where that was asked.</param>
/// <param name="Words">What to write beside the pointer.</param>
/// <param name="Preview">A drawing of the picture in hand in the frame under the pointer.</param>
/// <param name="Writing">Text as it is typed, with the places in it.</param>
/// <param name="Filters">Pictures whose treatment changes.</param>
public sealed record UnderWay(IReadOnlyList<FramePatch> Frames, InsidePatch? Inside, IReadOnlyList<MarkLine> Marks, GapPatch? Gap, string Words,
    string? Preview = null, TextPlaces? Writing = null, IReadOnlyList<FilterPatch>? Filters = null)
{
    public static readonly UnderWay Nothing = new([], null, [], null, "");

    /// <summary>How long it took to find out, in milliseconds: what more an answer takes is the line's own delay.</summary>
    public double Took { get; init; }

    /// <summary>Makes the edit on a publication that nobody else sees.</summary>
    /// <param name="ground">Where.</param>
    /// <param name="attempt">The edit, and what it caught on.</param>
    /// <param name="inside">Whether the hand is inside a picture.</param>
    /// <param name="withPoints">Whether the points of the outlines are shown.</param>
    /// <exception cref="Core.Checks.EditRefused">It cannot be made.</exception>
    public static UnderWay Of(Ground ground, Attempt attempt, bool inside, bool withPoints)
    {
        var (publication, spread) = ground;
        var changes = attempt.Edit.On(publication);
        var after = publication.With(changes);
        var changed = changes.Items.Where(c => c.Key.Kind == PartKind.Frame).Select(c => c.Key.Id).ToHashSet();
        var all = Spread.At(after, spread.Index).FramesOf(after).ToList();
        var frames = all.Where(f => changed.Contains(f.Frame.Id)).ToList();
        // Text flows anew around what moves, and on through the chain of what is sized.
        bool around = changes.Items.Any(c => c.Before is Frame { Wrap: not null } || c.After is Frame { Wrap: not null });
        var chained = after.ChainsOf(changed).ToHashSet();
        var flowing = all.Where(f => f.Frame is { IsText: true, Hidden: false } && !changed.Contains(f.Frame.Id) && (around || chained.Contains(f.Frame.Id)));
        string[] words = [frames is [var one] ? WordsFor(after, one.Frame, inside) : "", attempt.Words];
        FramePatch Patch((Frame Frame, Core.Geometry.Box Box) f) => SpreadView.Patch(after, f.Frame, f.Box, OnlyPlaced(publication, f.Frame, after)) with
        {
            Points = withPoints ? SpreadView.PointsText(f.Frame, f.Box) : null
        };
        return new([.. frames.Concat(flowing).Select(f => Patch((f.Frame, f.Box)))],
            inside && frames is [var only] ? PictureView.Patch(after, only.Frame, only.Box) : null,
            [.. attempt.Marks.Select(m => m.Upright ? new MarkLine(m.Line.At, m.Line.From, m.Line.At, m.Line.To)
                : new MarkLine(m.Line.From, m.Line.At, m.Line.To, m.Line.At))],
            null, string.Join(" \u00b7 ", words.Where(w => w.Length > 0)), PreviewOfNew(publication, after, frames));
    }

    /// <summary>What an edit makes anew, as it will lie there: for what is typed, and not drawn.</summary>
    /// <exception cref="Core.Checks.EditRefused">It cannot be made.</exception>
    public static UnderWay OfNew(Ground ground, Edit edit)
    {
        var after = ground.Publication.With(edit.On(ground.Publication));
        var spread = Spread.At(after, ground.Spread.Index);
        var made = spread.FramesOf(after).Where(f => !ground.Publication.Frames.ContainsKey(f.Frame.Id)).ToList();
        var drawn = made.Take(MostShown).Select((f, i) => SpreadView.Preview(after, f.Frame, f.Box, $"coming{i}-"));
        int off = made.Count(f => !spread.Trim.Overlaps((f.Frame.Pose with { Box = f.Box }).Bounds));
        string words = Wording.Words.Count(made.Count, "new frame") + (off > 0 ? $", {off} off the page" : "");
        return Nothing with { Words = words, Preview = string.Concat(drawn) };
    }

    /// <summary>The pictures of frames that are not there yet, as they will be; null where there are none.</summary>
    private static string? PreviewOfNew(Publication before, Publication after, IEnumerable<(Frame Frame, Core.Geometry.Box Box)> frames)
    {
        var drawn = frames.Where(f => f.Frame.ImageId is not null && !before.Frames.ContainsKey(f.Frame.Id)).Take(MostShown)
            .Select((f, i) => SpreadView.Preview(after, f.Frame, f.Box, $"coming{i}-"));
        return string.Concat(drawn) is { Length: > 0 } svg ? svg : null;
    }

    /// <summary>So many pictures are drawn where many would be made.</summary>
    private const int MostShown = 60;

    private static bool OnlyPlaced(Publication before, Frame now, Publication after) =>
        !(now.IsText && after.WrappedFrames.Count > 0) && before.Frames.GetValueOrDefault(now.Id) is { } was && was.Box.Width == now.Box.Width
            && was.Box.Height == now.Box.Height
            && was with { Box = now.Box, PageId = now.PageId, Angle = now.Angle } == now;

    private static string WordsFor(Publication publication, Frame frame, bool inside)
    {
        string size = Wording.Words.Size(frame.Box.Width, frame.Box.Height, publication.Setup.Unit);
        if (publication.FittedOf(frame) is not var (placement, coverage)) return size;
        string crop = $"crop {Wording.Words.Percent(coverage.CropLoss)} \u00b7 {Wording.Words.Ppi(coverage.Ppi)}";
        return inside ? $"{Wording.Words.Scale(placement, coverage)} \u00b7 {crop}" : $"{size} \u00b7 {crop}";
    }

    /// <summary>What fitting a picture came to, with its sharpness.</summary>
    public static string SharpnessOf(Publication publication, Frame frame)
    {
        if (publication.FittedOf(frame) is not { Coverage: var coverage }) return Wording.Words.Size(frame.Box.Width, frame.Box.Height, publication.Setup.Unit);
        return $"crop {Wording.Words.Percent(coverage.CropLoss)} \u00b7 bare {Wording.Words.Percent(coverage.BareArea)} \u00b7 " +
            $"{Wording.Words.Ppi(coverage.Ppi)}, {Wording.Words.Name(publication.Setup.SharpnessOf(coverage.Ppi))}";
    }
}

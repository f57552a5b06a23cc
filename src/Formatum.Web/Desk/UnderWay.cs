using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Wording;

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
public sealed record UnderWay(IReadOnlyList<FramePatch> Frames, InsidePatch? Inside, IReadOnlyList<MarkLine> Marks, GapPatch? Gap, string Words,
    string? Preview = null)
{
    /// <summary>Makes the edit on a publication that nobody else sees.</summary>
    /// <exception cref="EditRefused">It cannot be made.</exception>
    public static UnderWay Of(Standing standing, int spreadNumber, HandQuestion question)
    {
        var (publication, command) = (standing.Publication, question.Command);
        var spread = DeskView.Of(standing, spreadNumber).Spread;
        if (!Dragged.Contains(command.Do)) throw new EditRefused("do", $"\u201c{command.Do}\u201d is nothing that is dragged.");
        if (command.Do == "find-gutter") return new([], null, [], GapAt(publication, spread, command), "");
        if (command.Do == "tray-preview") return InHand(publication, spread, command);
        if (command.Do == "arrive") return Arriving(publication, spread, command);
        var changes = command.ToEdit(publication, spread).On(publication);
        var after = publication.With(changes);
        var changed = changes.Items.Where(c => c.Key.Kind == PartKind.Frame).Select(c => c.Key.Id).ToHashSet();
        var frames = Spread.At(after, spread.Index).FramesOf(after).Where(f => changed.Contains(f.Frame.Id)).ToList();
        var caught = command.Caught(publication, spread);
        string[] words = [frames is [var one] ? WordsFor(after, one.Frame, question.Inside) : "", caught?.Words ?? ""];
        return new(
            [.. frames.Select(f => SpreadView.Patch(after, f.Frame, f.Box, OnlyPlaced(publication, f.Frame)) with { Points = command.ChangesPoints
                ? SpreadView.PointsText(f.Frame, f.Box) : null })],
            question.Inside && frames is [var only] ? PictureView.Patch(after, only.Frame, only.Box) : null,
            [.. (caught?.Marks ?? []).Select(m => m.Upright ? new MarkLine(m.Line.At, m.Line.From, m.Line.At, m.Line.To)
                : new MarkLine(m.Line.From, m.Line.At, m.Line.To, m.Line.At))],
            null, string.Join(" \u00b7 ", words.Where(w => w.Length > 0)));
    }

    /// <summary>What may be asked while a pointer moves: nothing that makes more than it is given.</summary>
    private static readonly System.Collections.Frozen.FrozenSet<string> Dragged = System.Collections.Frozen.FrozenSet.ToFrozenSet(
    [
        "find-gutter", "tray-preview", "arrive", "draw", "grid", "set-down", "move", "resize", "turn", "gutter", "guide", "shape-move",
        "picture-pan", "picture-corner", "picture-turn", "picture-pinch", "picture-zoom", "picture-slide",
    ]);

    /// <summary>So many pictures are drawn where many would be placed.</summary>
    private const int MostShown = 60;

    /// <summary>Every picture that has just come in, where it would be placed on this spread.</summary>
    private static UnderWay Arriving(Publication publication, Spread spread, DeskCommand command)
    {
        if (command.Into == PourInto.Tray) return new([], null, [], null, "", "");
        var changes = command.ToEdit(publication, spread).On(publication);
        var after = publication.With(changes);
        var touched = changes.Items.Where(c => c.Key.Kind == PartKind.Frame).Select(c => c.Key.Id).ToHashSet();
        var drawn = Spread.At(after, spread.Index).FramesOf(after).Where(f => touched.Contains(f.Frame.Id) && f.Frame.ImageId is not null).Take(MostShown);
        return new([], null, [], null, "", string.Concat(drawn.Select((f, i) => SpreadView.Preview(after, f.Frame, f.Box, $"arriving{i}-"))));
    }

    /// <summary>The very picture in that frame, as it would be fitted.</summary>
    private static UnderWay InHand(Publication publication, Spread spread, DeskCommand command)
    {
        var after = publication.With((command with { Do = "tray-place" }).ToEdit(publication, spread).On(publication));
        var ids = DeskView.Ids(command.Frames).ToList();
        if (spread.FramesOf(after).FirstOrDefault(f => ids.Contains(f.Frame.Id)) is not { Frame: { } frame, Box: var box })
            throw new EditRefused("frame", "That frame is not on this spread.");
        return new([], null, [], null, WordsFor(after, frame, inside: false, sharp: true), SpreadView.Preview(after, frame, box));
    }

    private static bool OnlyPlaced(Publication before, Frame now) =>
        before.Frames.GetValueOrDefault(now.Id) is { } was && was.Box.Width == now.Box.Width && was.Box.Height == now.Box.Height
            && was with { Box = now.Box, PageId = now.PageId, Angle = now.Angle } == now;

    private static GapPatch? GapAt(Publication publication, Spread spread, DeskCommand command)
    {
        if (DeskCommand.GutterAt(publication, spread, new(command.FromX, command.FromY), command.Scale) is not var (gutter, _, _)) return null;
        string words = "gap " + Units.Text(Math.Max(0, gutter.Width), publication.Setup.Unit);
        return gutter.Upright ? new(gutter.From, gutter.Start, gutter.Width, gutter.End - gutter.Start, true, words)
            : new(gutter.Start, gutter.From, gutter.End - gutter.Start, gutter.Width, false, words);
    }

    private static string WordsFor(Publication publication, Frame frame, bool inside, bool sharp = false)
    {
        string size = Wording.Words.Size(frame.Box.Width, frame.Box.Height, publication.Setup.Unit);
        if (publication.FittedOf(frame) is not var (placement, coverage)) return size;
        if (sharp)
            return $"crop {Wording.Words.Percent(coverage.CropLoss)} \u00b7 bare {Wording.Words.Percent(coverage.BareArea)} \u00b7 " +
                $"{Wording.Words.Ppi(coverage.Ppi)}, {Wording.Words.Name(publication.Setup.SharpnessOf(coverage.Ppi))}";
        string crop = $"crop {Wording.Words.Percent(coverage.CropLoss)} \u00b7 {Wording.Words.Ppi(coverage.Ppi)}";
        return inside ? $"{Wording.Words.Scale(placement, coverage)} \u00b7 {crop}" : $"{size} \u00b7 {crop}";
    }
}

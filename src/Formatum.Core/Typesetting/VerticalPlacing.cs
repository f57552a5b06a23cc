using System.Collections.Immutable;
using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>Moves the lines of each column down to where they are to stand in it.</summary>
internal static class VerticalPlacing
{
    /// <remarks>Lines that keep to an outline or clear of something stay where they found room.</remarks>
    public static ImmutableArray<SetLine> Of(ImmutableArray<SetLine> lines, TextShape shape)
    {
        if (shape.Vertical == VerticalPlace.Top || shape.IsUneven) return lines;
        return [.. lines.GroupBy(l => l.Column).SelectMany(column => Placed([.. column], shape))];
    }

    private static IEnumerable<SetLine> Placed(SetLine[] lines, TextShape shape)
    {
        var column = shape.Columns[lines[0].Column];
        double room = Math.Max(0, column.Bottom - lines[^1].Bottom);
        return shape.Vertical switch
        {
            VerticalPlace.Middle => lines.Select(l => l with { Baseline = l.Baseline + room / 2, Bottom = l.Bottom + room / 2 }),
            VerticalPlace.Bottom => lines.Select(l => l with { Baseline = l.Baseline + room, Bottom = l.Bottom + room }),
            // The first stays at the top, the last comes to the bottom; with one line alone there is nothing between.
            _ => lines.Length == 1 ? lines : lines.Select((l, i) => l with
            {
                Baseline = l.Baseline + room * i / (lines.Length - 1),
                Bottom = l.Bottom + room * i / (lines.Length - 1),
            }),
        };
    }
}

using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk.Commands;

/// <summary>One thing is set about where text stands in frames, or how the text of others keeps clear of them.</summary>
public sealed record SetTextFlow : Gesture
{
    /// <summary>What, by its name in the automation interface: "columns.count", "wrap.distance.top"; "wrap.distance" for all four sides.</summary>
    public string? What { get; init; }

    /// <summary>What was typed or chosen.</summary>
    public string? Value { get; init; }

    /// <summary>Where text first keeps clear of a frame, it keeps so far away, in millimetres: common practice, no source.</summary>
    private const double UsualDistance = 3;

    public override Edit ToEdit(Ground ground)
    {
        var errors = new FieldErrors();
        var frame = FirstFrame(ground);
        var (area, wrap) = (frame.Area ?? TextArea.Whole, ground.Publication.WrapOf(frame));
        double? Distance(double now) => SettingText.Length(What!, Value ?? "", ground.Setup.Unit, now, false, errors);
        var edit = new ChangeFrames { FrameIds = FrameIds };
        edit = What switch
        {
            "columns.count" => edit with { Area = new() { Columns = Count(area.Columns, errors) } },
            "columns.gutter" => edit with { Area = new() { Gutter = Distance(area.Gutter) } },
            "columns.vertical" => edit with { Area = new() { Vertical = Choice<VerticalPlace>(errors) } },
            "columns.ignoresWrap" => edit with { Area = new() { IgnoresWrap = Value == "true" } },
            "columns.balanced" => edit with { Area = new() { Balanced = Value == "true" } },
            "columns.runsOn" => edit with { Area = new() { RunsOn = Value == "true" } },
            "wrap.around" => edit with { Wrap = Around(wrap, errors) },
            "wrap.sides" => edit with { Wrap = new() { Sides = Choice<WrapSides>(errors) } },
            not null when Side(What, "columns.inset", area.Inset) is var (now, change) => edit with { Area = new() { Inset = change(Distance(now)) } },
            not null when Side(What, "wrap.distance", wrap.Distance) is var (now, change) => edit with { Wrap = new() { Distance = change(Distance(now)) } },
            _ => throw new EditRefused("what", $"There is no \"{What}\" to set."),
        };
        errors.ThrowIfAny();
        return edit;
    }

    private int? Count(int now, FieldErrors errors)
    {
        if (FigureText.Whole(Value, now) is { } count) return count;
        errors.Add("columns.count", $"\u201c{Value}\u201d is no number of columns. Type a whole number from 1 to {TextArea.MostColumns}.");
        return null;
    }

    private T? Choice<T>(FieldErrors errors) where T : struct, Enum => SettingText.Choice<T>(What!, Value ?? "", errors);

    private WrapChange Around(Wrap now, FieldErrors errors)
    {
        var around = Choice<WrapAround>(errors);
        double usual = Units.Millimetres(UsualDistance);
        return now == Wrap.Off ? new() { Around = around, Distance = new() { Top = usual, Right = usual, Bottom = usual, Left = usual } }
            : new() { Around = around };
    }

    /// <summary>The side of an inset that a name ends with, its value now, and what changes it; all four where the name ends before them.</summary>
    private static (double Now, Func<double?, InsetChange> Change)? Side(string what, string prefix, Inset inset) =>
        !what.StartsWith(prefix, StringComparison.Ordinal) ? null : what[prefix.Length..] switch
        {
            "" => (inset.Top, value => new() { Top = value, Right = value, Bottom = value, Left = value }),
            ".top" => (inset.Top, value => new() { Top = value }),
            ".right" => (inset.Right, value => new() { Right = value }),
            ".bottom" => (inset.Bottom, value => new() { Bottom = value }),
            ".left" => (inset.Left, value => new() { Left = value }),
            _ => null,
        };
}

using Formatum.Core.Geometry;
using Formatum.Core.Stories;

namespace Formatum.Core.Edits;

/// <summary>Changes to four distances; what is null stays.</summary>
public sealed record InsetChange
{
    public double? Top { get; init; }
    public double? Right { get; init; }
    public double? Bottom { get; init; }
    public double? Left { get; init; }

    public Inset On(Inset inset) => new(Top ?? inset.Top, Right ?? inset.Right, Bottom ?? inset.Bottom, Left ?? inset.Left);
}

/// <summary>Changes to where text is set in its frame; what is null stays.</summary>
public sealed record TextAreaChange
{
    public int? Columns { get; init; }
    public double? Gutter { get; init; }
    public InsetChange? Inset { get; init; }
    public VerticalPlace? Vertical { get; init; }
    public bool? IgnoresWrap { get; init; }
    public bool? Balanced { get; init; }
    public bool? RunsOn { get; init; }

    public TextArea? On(TextArea? now)
    {
        var area = now ?? TextArea.Whole;
        area = area with
        {
            Columns = Columns ?? area.Columns,
            Gutter = Gutter ?? area.Gutter,
            Inset = Inset?.On(area.Inset) ?? area.Inset,
            Vertical = Vertical ?? area.Vertical,
            IgnoresWrap = IgnoresWrap ?? area.IgnoresWrap,
            Balanced = Balanced ?? area.Balanced,
            RunsOn = RunsOn ?? area.RunsOn,
        };
        return area == TextArea.Whole ? null : area;
    }
}

/// <summary>Changes to how text keeps clear of a frame; what is null stays.</summary>
public sealed record WrapChange
{
    public WrapAround? Around { get; init; }
    public InsetChange? Distance { get; init; }
    public WrapSides? Sides { get; init; }

    /// <summary>What is then set on the frame itself: nothing where that is what holds beneath.</summary>
    /// <param name="wrap">What holds now.</param>
    /// <param name="beneath">What the frame's look says.</param>
    public Wrap? On(Wrap wrap, Wrap beneath)
    {
        var changed = new Wrap { Around = Around ?? wrap.Around, Distance = Distance?.On(wrap.Distance) ?? wrap.Distance, Sides = Sides ?? wrap.Sides };
        return changed == beneath ? null : changed;
    }
}

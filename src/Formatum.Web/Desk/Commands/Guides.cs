using System.Globalization;
using Formatum.Core.Arranging;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Web.Desk.Commands;

/// <summary>A guide is drawn out of a ruler, moved, typed, or taken away.</summary>
public sealed record DragGuide : Drag
{
    /// <summary>Its page and which of that page's it is, with a comma between; left out for a new one.</summary>
    public string? Guide { get; init; }

    public bool Upright { get; init; }
    public bool AcrossSpread { get; init; }

    /// <summary>Where it was typed to lie; "none" takes it away.</summary>
    public string? Value { get; init; }

    protected override Attempt Attempt(Ground ground)
    {
        var named = Named();
        var page = ground.Spread.Pages.FirstOrDefault(p => p.Number == named?.Page) ?? ground.Spread.PageAt(To);
        double origin = Upright ? page.Trim.X : page.Trim.Y;
        if (At(ground, origin) is not { } at) return new(new ChangeGuide(page.Number, named?.Index, null), [], "take it away");
        var seen = SpreadView.Visible(ground.Publication, ground.Spread);
        string words = Units.Text(at - origin, ground.Setup.Unit);
        var line = Upright ? new SnapLine(at, words, seen.Y, seen.Bottom) : new SnapLine(at, words, seen.X, seen.Right);
        return new(new ChangeGuide(page.Number, named?.Index, new PageGuide(Upright, at - origin, AcrossSpread)), [new(Upright, line)], words);
    }

    private (int Page, int Index)? Named() => (Guide ?? "").Split(',') is [var page, var index] && int.TryParse(page, CultureInfo.InvariantCulture, out int p)
        && int.TryParse(index, CultureInfo.InvariantCulture, out int i) ? (p, i) : null;

    /// <summary>Where the guide comes to lie, in points of the spread; null where it was let go outside of what is seen, or asked away.</summary>
    private double? At(Ground ground, double origin)
    {
        if (Value == "none") return null;
        if (Value is not null)
        {
            var errors = new FieldErrors();
            double typed = ground.Length("at", Value, errors) ?? 0;
            errors.ThrowIfAny();
            return typed + origin;
        }
        if (!SpreadView.Visible(ground.Publication, ground.Spread).Contains(To)) return null;
        var at = Scale > 0 && !WithPicture ? new Snapping(ground.Publication, ground.Spread, new HashSet<int>()).Point(To, Reach) : To;
        return Upright ? at.X : at.Y;
    }
}

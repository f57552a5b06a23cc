using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>What frames do when their pages become larger or smaller, or come to the other side of a spread.</summary>
public enum FramesAtResize
{
    /// <summary>They keep their distance from the upper left of their page.</summary>
    Keep,
    /// <summary>They keep their size, and move with the page's proportions.</summary>
    Move,
    /// <summary>They grow and shrink with the page.</summary>
    Scale,
}

/// <summary>Changes how a publication is set up, and how many pages it has.</summary>
/// <param name="Setup">The set-up as it is to be.</param>
/// <param name="Frames">What frames do when pages change their size or side.</param>
/// <param name="Pages">How many pages there are to be: blank ones are added at the end, or the last removed with all that is on them; null leaves them as
/// they are.</param>
public sealed record ChangeSetup(Setup Setup, FramesAtResize Frames = FramesAtResize.Keep, int? Pages = null) : Edit
{
    public override string Words => "Change set-up";

    protected override void Make(Draft draft)
    {
        var errors = new FieldErrors();
        Setup.Check(errors);
        if (Pages is < 1 or > Setup.MostPages) errors.Add("pages", $"{Pages} pages are not possible. Give a number from 1 to {Setup.MostPages}.");
        errors.ThrowIfAny();
        var before = draft.Origin;
        draft.Put(Setup);
        if (Pages is { } count) SetPages(draft, count);
        if (Frames == FramesAtResize.Keep || !ChangesPages(before.Setup, Setup)) return;
        var after = before.With(draft.Changes());
        foreach (var frame in before.Frames.Values.Where(f => after.Frames.ContainsKey(f.Id)))
        {
            var fits = new PageFit(before.Setup, after.Setup, before.IsRecto(frame.PageId), after.IsRecto(frame.PageId), Frames == FramesAtResize.Scale);
            var box = fits.Box(frame.Box);
            if (box != frame.Box) draft.Put(frame with { Box = box });
        }
    }

    /// <summary>Whether pages become others: larger, smaller, or on another side of their spread. New margins alone move nothing.</summary>
    public static bool ChangesPages(Setup was, Setup will) =>
        was.PageWidth != will.PageWidth || was.PageHeight != will.PageHeight || was.Facing != will.Facing || was.BindsRight != will.BindsRight
            || (will.Facing && (was.FirstFolio - will.FirstFolio) % 2 != 0);

    private static void SetPages(Draft draft, int count)
    {
        var order = draft.Origin.Order.Ids;
        foreach (int page in order.Skip(count))
        {
            foreach (var frame in draft.Origin.FramesOnPage(page)) draft.Remove(frame.Key);
            draft.Remove(new(PartKind.Page, page));
        }
        ImmutableArray<int> added = [.. Enumerable.Range(0, Math.Max(0, count - order.Length)).Select(_ => PageRuns.Blank(draft))];
        if (count != order.Length) PageRuns.Order(draft, [.. order.Take(count), .. added]);
    }

    /// <summary>Where a box of a page lies on the same page set up otherwise: its middle keeps its place within the margins, or beyond them within the
    /// page.</summary>
    private readonly record struct PageFit(Setup Was, Setup Will, bool WasRecto, bool WillRecto, bool Scales)
    {
        public Box Box(Box box)
        {
            Box was = Was.TypeArea(WasRecto), will = Will.TypeArea(WillRecto);
            double across = Will.PageWidth / Was.PageWidth, down = Will.PageHeight / Was.PageHeight;
            double width = Scales ? box.Width * across : box.Width, height = Scales ? box.Height * down : box.Height;
            double x = Mapped(box.Centre.X, was.X, was.Right, Was.PageWidth, will.X, will.Right, Will.PageWidth);
            double y = Mapped(box.Centre.Y, was.Y, was.Bottom, Was.PageHeight, will.Y, will.Bottom, Will.PageHeight);
            return new(x - width / 2, y - height / 2, width, height);
        }

        /// <summary>A place along one side: before the margin, between the margins and behind them each stretch alike.</summary>
        private static double Mapped(double at, double from, double to, double side, double newFrom, double newTo, double newSide)
        {
            if (at < from) return from > 0 ? at / from * newFrom : at;
            if (at > to) return side - to > 0 ? newTo + (at - to) / (side - to) * (newSide - newTo) : newSide + at - side;
            return to > from ? newFrom + (at - from) / (to - from) * (newTo - newFrom) : newFrom + at - from;
        }
    }
}

/// <summary>What changing the set-up would do to frames, before it is done.</summary>
/// <param name="After">The publication as it would be.</param>
/// <param name="Off">Frames that would lie off their page, wholly or in part, and do not now.</param>
/// <param name="Gone">Frames that would go with their pages.</param>
/// <param name="PagesGone">How many pages would go.</param>
/// <param name="Resized">How many frames lie on pages that become others.</param>
public sealed record SetupImpact(Publication After, ImmutableArray<Frame> Off, ImmutableArray<Frame> Gone, int PagesGone, int Resized)
{
    /// <summary>Whether there is anything to know before.</summary>
    public bool Matters => Resized > 0 || Gone.Length > 0;

    public static SetupImpact Of(Publication before, ChangeSetup edit)
    {
        var after = before.With(edit.On(before));
        ImmutableArray<Frame> off = [.. after.Frames.Values.Where(f => before.Frames.TryGetValue(f.Id, out var was) && IsOff(after.Setup, f)
            && !IsOff(before.Setup, was)).OrderBy(f => after.NumberOf(f.PageId)).ThenBy(f => f.Id)];
        return new(after, off, [.. before.Frames.Values.Where(f => !after.Frames.ContainsKey(f.Id))], Math.Max(0, before.PageCount - after.PageCount),
            ChangeSetup.ChangesPages(before.Setup, after.Setup) ? after.Frames.Count : 0);
    }

    /// <summary>What hangs over the bleed by more than this, in points, is off its page.</summary>
    private const double Hair = 0.5;

    private static bool IsOff(Setup setup, Frame frame)
    {
        var (seen, page) = (frame.Pose.Bounds, new Box(0, 0, setup.PageWidth, setup.PageHeight).Grown(setup.Bleed + Hair));
        // A frame may lie over the fold; on both sides of single pages, and above and below, nothing prints.
        bool beside = setup.Facing ? seen.Right < page.X || seen.X > page.Right : seen.X < page.X || seen.Right > page.Right;
        return beside || seen.Y < page.Y || seen.Bottom > page.Bottom;
    }
}

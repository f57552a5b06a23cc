using System.Collections.Immutable;
using Formatum.Core.Arranging;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;

namespace Formatum.Web.Desk.Commands;

/// <summary>What may be asked about while a pointer moves: nothing that makes more than it is given.</summary>
public interface IUnderHand
{
    /// <summary>What it would come to if the pointer were let go now.</summary>
    /// <param name="ground">Where the pointer is.</param>
    /// <param name="inside">Whether the hand is inside a picture.</param>
    /// <exception cref="Core.Checks.EditRefused">It cannot be done.</exception>
    UnderWay UnderWay(Ground ground, bool inside);
}

/// <summary>An edit as it stands while something is drawn or dragged, and what was caught on.</summary>
/// <param name="Edit">What it comes to.</param>
/// <param name="Marks">The lines it caught on.</param>
/// <param name="Words">What to say beside the pointer.</param>
public sealed record Attempt(Edit Edit, ImmutableArray<SnapMark> Marks, string Words)
{
    public Attempt(Edit edit) : this(edit, [], "")
    {
    }
}

/// <summary>Something drawn or dragged from one place to another.</summary>
public abstract record Drag : Gesture, IUnderHand
{
    /// <summary>Where the pointer went down and where it is, in points of the spread.</summary>
    public double FromX { get; init; }
    public double FromY { get; init; }
    public double ToX { get; init; }
    public double ToY { get; init; }

    /// <summary>Screen pixels to a point; 0 where nothing is to catch.</summary>
    public double Scale { get; init; }

    /// <summary>Shift was held: equal sides, or the ratio kept, or a turn in steps.</summary>
    public bool Even { get; init; }

    /// <summary>Alt was held: from the middle; a copy, where frames are moved.</summary>
    public bool FromCentre { get; init; }

    /// <summary>Ctrl was held: the picture is scaled with its frame; nothing catches, where frames are moved.</summary>
    public bool WithPicture { get; init; }

    protected Vec From => new(FromX, FromY);
    protected Vec To => new(ToX, ToY);

    /// <summary>How near something has to be to be caught on, in points.</summary>
    protected double Reach => Snapping.Reach / Scale;

    /// <summary>Whether the page is to show the points of the outline as they come to lie.</summary>
    protected virtual bool ShowsPoints => false;

    protected abstract Attempt Attempt(Ground ground);

    public sealed override Edit ToEdit(Ground ground) => Attempt(ground).Edit;

    public virtual UnderWay UnderWay(Ground ground, bool inside) => Desk.UnderWay.Of(ground, Attempt(ground), inside, ShowsPoints);

    /// <summary>A turn with Shift goes in steps of so many degrees.</summary>
    protected const double TurnStep = 15;

    /// <summary>By how many degrees the pointer went around a point.</summary>
    protected static double Turned(Vec about, Vec from, Vec to)
    {
        Vec before = from - about, after = to - about;
        return Math.Atan2(before.Cross(after), before.X * after.X + before.Y * after.Y) * (180 / Math.PI);
    }
}

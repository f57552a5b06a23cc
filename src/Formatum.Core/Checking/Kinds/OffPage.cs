using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class OffPage : KindCheck
{
    public override FindingKind Kind => FindingKind.OffPage;
    public override string Title => "Off the page";
    public override string Mark => "off the page";
    public override string Why => "Nothing of the frame will be seen once the page is trimmed.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        var d = frame.Within(frame.Bounds);
        if (IsOff(d, frame.Bounds)) yield return On(frame, "", 1);
    }

    /// <summary>Whether a box lies outside the trim altogether.</summary>
    internal static bool IsOff(in Distances d, Box box) =>
        d.Left <= -box.Width || d.Right <= -box.Width || d.Top <= -box.Height || d.Bottom <= -box.Height;

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) =>
    [
        new("moveInside", "Move onto the page", publication => FrameOf(publication, finding) is { } frame
            ? Inwards.Moved(publication, frame, frame.Pose.Bounds, context.Profile.SafeDistance, "Move onto the page") : null),
        new("remove", "Remove the frame", _ => new RemoveFrames([finding.Part.Id])),
    ];
}

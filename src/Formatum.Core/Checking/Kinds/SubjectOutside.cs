using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class SubjectOutside : KindCheck
{
    public override FindingKind Kind => FindingKind.SubjectOutside;
    public override string Title => "Subject cropped away";
    public override string Mark => "subject cut off";
    public override string Why => "What matters most in the picture lies outside its frame.";

    internal override IEnumerable<Finding> OfFrame(CheckedFrame frame)
    {
        if (frame.Image?.Subject is not { } subject || frame.Fitted is not { } fitted) yield break;
        var at = fitted.Placement.Matrix.Apply(subject);
        var box = frame.Frame.Box;
        if (new Box(0, 0, box.Width, box.Height).Contains(at) && Holds(frame.Publication.ShapeOf(frame.Frame), box, at)) yield break;
        yield return On(frame, $"The subject point of {frame.Image.Name} is not to be seen.", 1);
    }

    private static bool Holds(Outline outline, Box box, Vec at)
    {
        if (outline is RectangleOutline) return true;
        var corners = outline.Flatten(box.Width, box.Height);
        bool inside = false;
        // Crossings of a ray to the right (even-odd).
        for (int i = 0, j = corners.Length - 1; i < corners.Length; j = i++)
            if (corners[i].Y > at.Y != corners[j].Y > at.Y
                && at.X < (corners[j].X - corners[i].X) * (at.Y - corners[i].Y) / (corners[j].Y - corners[i].Y) + corners[i].X) inside = !inside;
        return inside;
    }

    public override IEnumerable<Remedy> Remedies(RemedyContext context, Finding finding) => [BareArea.FittingAgain("Take the rule's crop", finding.Part.Id)];
}

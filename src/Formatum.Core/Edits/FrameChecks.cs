using Formatum.Core.Checks;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>What every frame must keep to, however it came about.</summary>
internal static class FrameChecks
{
    /// <summary>Frames may hang off the page, but not so far that nobody finds them again.</summary>
    private const double FarthestOff = 2 * Setup.LargestSide;

    /// <exception cref="EditRefused">Something about the frame is impossible.</exception>
    public static void Check(Draft draft, Frame frame)
    {
        var errors = new FieldErrors();
        errors.Length("x", frame.Box.X, -FarthestOff, FarthestOff, "Keep the frame within 10 m of the page.");
        errors.Length("y", frame.Box.Y, -FarthestOff, FarthestOff, "Keep the frame within 10 m of the page.");
        errors.Length("width", frame.Box.Width, Frame.SmallestSide, FarthestOff, "A frame is wider than 0 and narrower than 10 m.");
        errors.Length("height", frame.Box.Height, Frame.SmallestSide, FarthestOff, "A frame is higher than 0 and lower than 10 m.");
        errors.Range("angle", frame.Angle, -3600, 3600, "Give the angle in degrees, between -3600 and 3600.");
        errors.Range("depth", frame.Depth, -Frame.MostDepth, Frame.MostDepth, "The stack is not that deep.");
        OutlineCheck(frame.Outline, errors);
        errors.Name(frame.Name, Frame.LongestName);
        if (frame.ImageId is { } imageId && draft.Find(new(PartKind.Image, imageId)) is null)
            errors.Add("imageId", $"There is no image {imageId} in this publication. Bring it in first.");
        if (frame.RuleId is { } ruleId && draft.Find(new(PartKind.Rule, ruleId)) is null)
            errors.Add("ruleId", $"There is no rule {ruleId} in this publication. Make it first, or leave the rule out.");
        if (frame.StoryId is { } storyId && draft.Find(new(PartKind.Story, storyId)) is null) errors.Add("storyId", $"There is no story {storyId}.");
        if (frame.IsText && frame.ImageId is not null) errors.Add("imageId", $"{frame.Label} holds text. Place the image in a placeholder.");
        frame.Area?.Check(errors);
        frame.Wrap?.Check(errors);
        if (frame.Area is not null && !frame.IsText) errors.Add("columns", $"{frame.Label} holds no text, and has no columns.");
        if (frame.LookId is { } lookId && draft.Find(new(PartKind.Look, lookId)) is null)
            errors.Add("lookId", $"There is no look {lookId} in this publication. Make it first, or leave the look out.");
        frame.Look.Check(errors);
        ColourChecks.CheckNamed(draft, frame.Look.AllColours(), errors, "look");
        FitSettingsCheck.Check(frame.Own, errors);
        FitRequestCheck.RecropCheck(frame.Recrop, errors);
        if (frame.FormerRecrop is { } former) FitRequestCheck.RecropCheck(former.Recrop, errors);
        errors.ThrowIfAny();
    }

    /// <exception cref="EditRefused">The frame is locked, and stays so.</exception>
    public static void Unlocked(Frame frame, bool? after = null)
    {
        if (frame.Locked && after != false) throw new EditRefused("locked", $"{frame.Label} is locked. Unlock it first.");
    }

    private static void OutlineCheck(Outline outline, FieldErrors errors)
    {
        if (outline is PolygonOutline { Corners: var corners } && (corners.Length is < Outlines.FewestSides or > PathOutline.MostPoints
            || !corners.All(IsNear)))
            errors.Add("outline", $"A polygon has {Outlines.FewestSides} to {PathOutline.MostPoints} corners, given in fractions of the frame.");
        if (outline is PathOutline { Points: var points } && (points.Length is < PathOutline.FewestPoints or > PathOutline.MostPoints
            || !points.All(p => IsNear(p.At) && IsNear(p.Before ?? p.At) && IsNear(p.After ?? p.At))))
            errors.Add("outline", $"A free outline goes through {PathOutline.FewestPoints} to {PathOutline.MostPoints} points, given in fractions of the " +
                $"frame.");
    }

    /// <summary>Controls may lie outside the box, but not out of all measure.</summary>
    private static bool IsNear(Vec p) => Math.Abs(p.X) < 1000 && Math.Abs(p.Y) < 1000;
}

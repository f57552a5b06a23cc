using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>Links images. Their ids are given anew, in order. What is there already, by its content, is not linked again, but keeps the other name
/// too.</summary>
public sealed record LinkImages(ImmutableArray<LinkedImage> Images) : Edit
{
    public const int MostImages = 100_000;

    public override string Words => Images.Length == 1 ? "Bring in image" : $"Bring in {Images.Length} images";

    protected override void Make(Draft draft)
    {
        if (draft.Origin.Images.Count + Images.Length > MostImages)
            throw new EditRefused("files", $"A publication links {MostImages} images at most. Remove some that are not placed.");
        var known = new Dictionary<string, LinkedImage>();
        foreach (var image in draft.Origin.Images.Values.OrderBy(i => i.Id)) known.TryAdd(image.ContentHash, image);
        foreach (var image in Images)
        {
            bool isThere = known.TryGetValue(image.ContentHash, out var there);
            if (isThere && (there!.Name == image.Name || there.OtherNames.Contains(image.Name))) continue;
            draft.Put(known[image.ContentHash] = isThere ? there! with { OtherNames = there.OtherNames.Add(image.Name) } : image with { Id = draft.NewId() });
        }
    }
}

/// <summary>
/// Takes over what files are now: those that changed, or others in their place. Ids, subject points and all that frames do with the images stay. A frame that
/// holds its image keeps its proportions: where the new file has another ratio, it covers what the old one did, about the same middle.
/// </summary>
/// <param name="Images">The images as they were read now, each with the id of the one it takes the place of.</param>
/// <param name="As">What it is called in the history.</param>
public sealed record UpdateImages(ImmutableArray<LinkedImage> Images, string As = "Update image") : Edit
{
    public override string Words => As + (Images.Length == 1 ? "" : $"s, {Images.Length}");

    protected override void Make(Draft draft)
    {
        if (Images.IsDefaultOrEmpty) throw new EditRefused("images", "No image is meant. Choose one first.");
        foreach (var now in Images)
        {
            var was = ImageOf(draft, now.Id);
            var taken = now with { OtherNames = was.OtherNames, Subject = was.Subject, SuggestedSubject = was.SuggestedSubject };
            draft.Put(taken);
            Hold(draft, was, taken);
        }
    }

    private static void Hold(Draft draft, LinkedImage was, LinkedImage now)
    {
        double ppi = draft.Origin.Setup.AssumedPpi;
        Picture before = was.Picture(ppi), after = now.Picture(ppi);
        double ratio = after.NaturalHeight / after.NaturalWidth / (before.NaturalHeight / before.NaturalWidth);
        if (Math.Abs(ratio - 1) < 1e-9) return;
        // Higher than before, it keeps its width and grows in height; lower, the other way round.
        double x = Math.Max(1, 1 / ratio), y = Math.Max(1, ratio);
        var wider = Affine.Translation(0.5, 0.5).After(Affine.Scaling(x, y)).After(Affine.Translation(-0.5, -0.5));
        foreach (var frame in draft.Origin.Frames.Values.Where(f => f.ImageId == now.Id && f.Held is not null))
            draft.Put(draft.Frame(frame.Id)! with { Held = frame.Held!.Value with { Matrix = frame.Held.Value.Matrix.After(wider) } });
    }
}

/// <summary>Unlinks images that no frame shows. Their files stay where they are.</summary>
public sealed record UnlinkImages(ImmutableArray<int> ImageIds) : Edit
{
    public override string Words => ImageIds.Length == 1 ? "Remove image" : $"Remove {ImageIds.Length} images";

    protected override void Make(Draft draft)
    {
        foreach (int id in ImageIds)
        {
            var image = ImageOf(draft, id);
            int placed = draft.Origin.Frames.Values.Count(f => f.ImageId == id);
            if (placed > 0)
                throw new EditRefused("imageId", $"{image.Name} is placed in {placed} {(placed == 1 ? "frame" : "frames")}. Take it out there first.");
            draft.Remove(image.Key);
        }
        draft.Put(draft.Tray.Without(ImageIds));
    }
}

/// <summary>Sets how an image's contour was found anew; null where it has none. Text that keeps clear of it follows.</summary>
public sealed record ChangeContour(int ImageId, Contour? Contour) : Edit
{
    public override string Words => "Change contour";

    protected override void Make(Draft draft)
    {
        var errors = new FieldErrors();
        Contour?.Check(errors);
        errors.ThrowIfAny();
        draft.Put(ImageOf(draft, ImageId) with { Contour = Contour });
    }
}

/// <summary>What is known of an image's subject: the point that was set, and one that is suggested. Null for none.</summary>
public readonly record struct SubjectOf(int ImageId, Vec? Subject, Vec? Suggested);

/// <summary>Sets, clears, suggests or accepts subject points, in fractions of the upright image. Every frame that shows such an image follows.</summary>
public sealed record ChangeSubjects(ImmutableArray<SubjectOf> Subjects) : Edit
{
    public override string Words => Subjects.Length == 1 ? "Change subject point" : $"Change {Subjects.Length} subject points";

    protected override void Make(Draft draft)
    {
        var errors = new FieldErrors();
        foreach (var (id, subject, suggested) in Subjects)
        {
            var image = ImageOf(draft, id);
            FitRequestCheck.SubjectCheck(subject, errors);
            FitRequestCheck.SubjectCheck(suggested, errors);
            draft.Put(image with { Subject = subject, SuggestedSubject = suggested });
        }
        errors.ThrowIfAny();
    }
}

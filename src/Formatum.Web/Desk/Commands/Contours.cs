using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Storage;

namespace Formatum.Web.Desk.Commands;

/// <summary>The contour of a frame's picture is told from its ground anew.</summary>
public sealed record FindContour : DeskCommand
{
    /// <summary>How different from the ground a point must be to count, in percent.</summary>
    public double Strength { get; init; } = 100 * Contour.UsualStrength;

    public override async Task<EditOutcome> DoAsync(Hand hand)
    {
        var ground = await hand.GroundAsync();
        var image = ground.Publication.ImageOf(ground.Frames(FrameIds)[0])
            ?? throw new EditRefused("strength", "There is no picture in this frame yet. Place one first.");
        if (Strength is not (>= 0 and <= 100)) throw new EditRefused("strength", "The strength of a contour lies between 0 and 100 %.");
        await hand.Previews.MakeMissingAsync([image]);
        var found = await Task.Run(() => hand.Contours.Find(image.ContentHash, Strength / 100));
        // Where nothing is told from the ground, the strength that was asked for stays, to go on from.
        return await hand.EditAsync(new ChangeContour(image.Id, found ?? new(Strength / 100, [])));
    }
}

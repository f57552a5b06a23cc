using Formatum.Core.Arranging;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Composing;

/// <summary>Makes the display list of a spread.</summary>
public static class Composer
{
    public static Scene Compose(Publication publication, Spread spread, ITypefaces typefaces) =>
        new(spread.Trim, [.. spread.FramesOf(publication).Where(f => !f.Frame.Hidden).Select(f => Compose(publication, f.Frame, f.Box, typefaces))]);

    /// <param name="publication">The publication.</param>
    /// <param name="frame">The frame.</param>
    /// <param name="box">Its box in the spread's points.</param>
    /// <param name="typefaces">The fonts to set its text in.</param>
    public static SceneFrame Compose(Publication publication, Frame frame, Box box, ITypefaces typefaces)
    {
        var image = publication.PlacementOf(frame) is { } placement
            ? new SceneImage(publication.Images[frame.ImageId!.Value], placement.Matrix)
            : null;
        return new(frame.Id, new FramePose(box, frame.Angle).ToPage, box.Width, box.Height, frame.Outline, image,
            frame.Text is { } text ? TextSetter.Set(text, box.Width, box.Height, typefaces) : null);
    }
}

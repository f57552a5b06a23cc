using Formatum.Core.Checks;
using Formatum.Core.Geometry;

namespace Formatum.Core.Fitting;

/// <summary>The ranges that a frame and a picture given from outside must keep to before they are fitted.</summary>
public static class FitRequestCheck
{
    private const double MostPixels = 1_000_000, LargestFrame = 2 * Limits.LargestPageSide;

    public static void Check(double width, double height, double widthPx, double heightPx, double ppi, int orientation, Vec? subject, Recrop recrop,
        FieldErrors errors)
    {
        errors.Length("frame.width", width, Limits.SmallestSide, LargestFrame, "A frame is wider than 0 and narrower than 10 m.");
        errors.Length("frame.height", height, Limits.SmallestSide, LargestFrame, "A frame is higher than 0 and lower than 10 m.");
        errors.Range("image.widthPx", widthPx, 1, MostPixels, "Give the stored width as a number of pixels, 1 to 1,000,000.");
        errors.Range("image.heightPx", heightPx, 1, MostPixels, "Give the stored height as a number of pixels, 1 to 1,000,000.");
        errors.Range("image.ppi", ppi, 1, 100_000, "Give a resolution between 1 and 100,000 ppi, or leave it out.");
        if (!Orientation.IsValid(orientation)) errors.Add("image.orientation", $"{orientation} is no EXIF orientation. Give a number from 1 to 8.");
        SubjectCheck(subject, errors, "image.subject");
        RecropCheck(recrop, errors);
    }

    public static void SubjectCheck(Vec? subject, FieldErrors errors, string field = "subject")
    {
        errors.Range(field, subject?.X, 0, 1, "A subject point is given in fractions of the image, 0 to 1.");
        errors.Range(field, subject?.Y, 0, 1, "A subject point is given in fractions of the image, 0 to 1.");
    }

    public static void RecropCheck(Recrop recrop, FieldErrors errors)
    {
        errors.Range("recrop.zoom", recrop.Zoom, Recrop.SmallestZoom, Recrop.LargestZoom,
            "Zoom lies between 0.01 and 100; 1 leaves the scale as the rule gives it.");
        errors.Range("recrop.zoomY", recrop.ZoomY, Recrop.SmallestZoom, Recrop.LargestZoom,
            "Zoom lies between 0.01 and 100; leave zoomY out to keep proportions.");
        errors.Range("recrop.turn", recrop.Turn, -3600, 3600, "Give the turn in degrees, between -3600 and 3600.");
        if (recrop.Point is { } point && !(Math.Abs(point.X) <= 100 && Math.Abs(point.Y) <= 100))
            errors.Add("recrop.point", "A point of the image is given in fractions of it: 0.5, 0.5 is its centre.");
    }
}

using Formatum.Core.Checks;

namespace Formatum.Core.Geometry;

/// <summary>Tells what is wrong with a length.</summary>
public static class LengthErrors
{
    /// <summary>Adds an error where a length in points is not a number or lies outside the range; an open (null) one passes. It is told in millimetres and in
    /// points, for it may have been typed in either.</summary>
    public static void Length(this FieldErrors errors, string field, double? value, double least, double most, string remedy) => errors.Range(field, value,
        least, most, remedy, v => $"{FieldErrors.Figure(v / Units.PointsPerMillimetre)} mm ({FieldErrors.Figure(v)} pt)");
}

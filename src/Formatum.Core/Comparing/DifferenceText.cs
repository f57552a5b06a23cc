using System.Globalization;
using Formatum.Core.Geometry;

namespace Formatum.Core.Comparing;

/// <summary>Words for what differs.</summary>
internal static class DifferenceText
{
    public static string Title(DifferenceKind kind) => kind switch
    {
        DifferenceKind.PageCame or DifferenceKind.FrameCame => "Came",
        DifferenceKind.PageWent or DifferenceKind.FrameWent => "Went",
        DifferenceKind.PageMoved or DifferenceKind.Moved => "Moved",
        DifferenceKind.Sized => "Sized",
        DifferenceKind.Turned => "Turned",
        DifferenceKind.Outline => "Outline changed",
        DifferenceKind.Picture => "Picture replaced",
        DifferenceKind.Crop => "Picture lies otherwise",
        DifferenceKind.Words => "Words changed",
        DifferenceKind.Setting => "Set otherwise",
        DifferenceKind.Look => "Looks otherwise",
        DifferenceKind.Hidden => "Hidden or shown",
        DifferenceKind.Drawn => "Drawn otherwise",
        _ => "Set-up changed",
    };

    /// <summary>How far something moved: "3 mm to the right, 2 mm down."</summary>
    /// <param name="by">In points.</param>
    /// <param name="unit">In which it is told.</param>
    /// <param name="same">What is less, in points, is left out.</param>
    public static string Moved(Vec by, LengthUnit unit, double same)
    {
        var parts = new List<string>();
        if (Math.Abs(by.X) > same) parts.Add($"{Units.Text(Math.Abs(by.X), unit)} to the {(by.X > 0 ? "right" : "left")}");
        if (Math.Abs(by.Y) > same) parts.Add($"{Units.Text(Math.Abs(by.Y), unit)} {(by.Y > 0 ? "down" : "up")}");
        return $"{string.Join(", ", parts)}.";
    }

    /// <summary>A length, in points, as it can be told of a file that keeps some decimals only: to a tenth of the unit.</summary>
    public static double Roughly(double length, LengthUnit unit) => Math.Round(length / Units.PointsPer(unit), 1) * Units.PointsPer(unit);

    public static Vec Roughly(Vec by, LengthUnit unit) => new(Roughly(by.X, unit), Roughly(by.Y, unit));

    public static string Words(int count) => string.Create(CultureInfo.InvariantCulture, $"{count} {(count == 1 ? "word" : "words")}");
}

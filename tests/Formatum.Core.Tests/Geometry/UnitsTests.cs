using CsCheck;
using Formatum.Core.Geometry;

namespace Formatum.Core.Tests.Geometry;

public class UnitsTests
{
    [Theory]
    [InlineData("12mm", 12 * 72 / 25.4)]
    [InlineData(" 12 mm ", 12 * 72 / 25.4)]
    [InlineData("1,5 cm", 15 * 72 / 25.4)]
    [InlineData("0.5in", 36)]
    [InlineData("0.5\"", 36)]
    [InlineData("3p6", 42)]
    [InlineData("3P", 36)]
    [InlineData("-1p3", -15)]
    [InlineData("2 pica", 24)]
    [InlineData("10pt", 10)]
    [InlineData(".5pt", 0.5)]
    [InlineData("7", 7 * 72 / 25.4)]
    [InlineData("\u22127 pt", -7)]
    public void Lengths_are_read_in_any_unit(string text, double points)
    {
        Units.TryParse(text, LengthUnit.Millimetre, out double read).ShouldBeTrue();
        read.ShouldBe(points, 1e-9);
    }

    [Theory]
    [InlineData("")]
    [InlineData(null)]
    [InlineData("wide")]
    [InlineData("12 km")]
    [InlineData("NaN")]
    [InlineData("1e999")]
    [InlineData("12mm3")]
    [InlineData("--3")]
    [InlineData("999999999999999999999999")]
    public void What_is_no_length_is_refused(string? text) => Units.TryParse(text, LengthUnit.Point, out _).ShouldBeFalse();

    [Fact]
    public void What_is_written_is_read_back() => Gen.Select(Gen.Double[-2000, 2000], Gen.OneOfConst(Enum.GetValues<LengthUnit>())).Sample((points, unit) =>
    {
        Units.TryParse(Units.Text(points, unit), LengthUnit.Point, out double back).ShouldBeTrue();
        back.ShouldBe(points, 0.004);
    });

    /// <summary>PostScript points: 72 to the inch of 25.4 mm; the trade's pica is 12 of them.</summary>
    [Fact]
    public void An_inch_is_72_points_and_25_4_millimetres_and_6_picas()
    {
        Units.Text(72, LengthUnit.Millimetre).ShouldBe("25.4 mm");
        Units.Text(72, LengthUnit.Pica).ShouldBe("6p0");
        Units.Text(-5, LengthUnit.Pica).ShouldBe("-0p5");
        Units.Text(72, LengthUnit.Inch).ShouldBe("1 in");
    }
}

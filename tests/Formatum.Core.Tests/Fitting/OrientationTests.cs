using Formatum.Core.Fitting;
using Formatum.Core.Geometry;

namespace Formatum.Core.Tests.Fitting;

/// <summary>EXIF 2.3 (CIPA DC-008), 4.6.4, tag 274: which visual edge the stored 0th row and 0th column lie at.</summary>
public class OrientationTests
{
    [Theory]
    [InlineData(1, "top", "left")]
    [InlineData(2, "top", "right")]
    [InlineData(3, "bottom", "right")]
    [InlineData(4, "bottom", "left")]
    [InlineData(5, "left", "top")]
    [InlineData(6, "right", "top")]
    [InlineData(7, "right", "bottom")]
    [InlineData(8, "left", "bottom")]
    public void The_0th_row_and_column_lie_where_the_standard_says(int orientation, string row, string column)
    {
        var map = Orientation.ToUpright(orientation);
        EdgeOf(map.Apply(new(0.25, 0)), map.Apply(new(0.75, 0))).ShouldBe(row);
        EdgeOf(map.Apply(new(0, 0.25)), map.Apply(new(0, 0.75))).ShouldBe(column);
    }

    private static string EdgeOf(Vec p, Vec q) => (p, q) switch
    {
        _ when p.Y == 0 && q.Y == 0 => "top",
        _ when p.Y == 1 && q.Y == 1 => "bottom",
        _ when p.X == 0 && q.X == 0 => "left",
        _ when p.X == 1 && q.X == 1 => "right",
        _ => "nowhere",
    };

    [Fact]
    public void The_last_four_swap_the_axes() =>
        Enumerable.Range(1, 8).Select(o => Picture.FromStored(400, 300, 100, 200, o)).ShouldBe(
        [
            .. Enumerable.Repeat(new Picture(400, 300, 100, 200), 4), .. Enumerable.Repeat(new Picture(300, 400, 200, 100), 4),
        ]);
}

using CsCheck;
using Formatum.Core.Geometry;

namespace Formatum.Core.Tests.Geometry;

public sealed class MaskOutlineTests
{
    private static bool[] Mask(int width, int height, Func<int, int, bool> isIn) =>
        [.. Enumerable.Range(0, width * height).Select(i => isIn(i % width, i / width))];

    [Fact]
    public void A_disc_is_followed_within_a_pixel_of_its_circle()
    {
        var rings = MaskOutline.Trace(Mask(200, 160, (x, y) => Math.Sqrt((x + 0.5 - 90) * (x + 0.5 - 90) + (y + 0.5 - 80) * (y + 0.5 - 80)) < 60), 200, 0.5, 4);
        var ring = rings.ShouldHaveSingleItem();
        ring.Length.ShouldBeLessThan(120, "corners along the line go");
        ring.ShouldAllBe(p => Math.Abs((p - new Vec(90, 80)).Length - 60) < 1);
        PolygonMeasure.SignedArea(ring.AsSpan()).ShouldBe(Math.PI * 3600, 0.01 * Math.PI * 3600);
    }

    [Fact]
    public void Holes_are_filled_pieces_come_by_size_and_specks_go()
    {
        bool Within(int x, int y, int left, int top, int size) => x >= left && y >= top && x < left + size && y < top + size;
        var rings = MaskOutline.Trace(Mask(100, 100, (x, y) => (Within(x, y, 10, 10, 50) && !Within(x, y, 20, 20, 20)) || Within(x, y, 70, 70, 20)
            || Within(x, y, 80, 5, 2)), 100, 0.5, 10);
        rings.Length.ShouldBe(2);
        PolygonMeasure.SignedArea(rings[0].AsSpan()).ShouldBe(2500, 60);
        PolygonMeasure.SignedArea(rings[1].AsSpan()).ShouldBe(400, 30);
    }

    /// <summary>Against the pixels themselves: without leaving corners out, each pixel's middle lies inside a ring where it, or a hole it fills, belongs to the
    /// mask.</summary>
    [Fact]
    public void Every_pixel_of_any_mask_lies_within_its_rings() => Gen.Bool.Array[144].Sample(mask =>
    {
        var rings = MaskOutline.Trace(mask, 12, 0, 0);
        for (int i = 0; i < mask.Length; i++)
        {
            // The cut corners pass through the middles of sides, and leave a pixel's own middle inside.
            var middle = new Vec(i % 12 + 0.5, i / 12 + 0.5);
            if (mask[i]) rings.Any(r => Winds(r, middle)).ShouldBeTrue($"pixel {i}");
        }
    }, iter: 400);

    private static bool Winds(IReadOnlyList<Vec> ring, Vec p)
    {
        bool inside = false;
        for (int i = 0; i < ring.Count; i++)
        {
            Vec a = ring[i], b = ring[(i + 1) % ring.Count];
            if (a.Y > p.Y != b.Y > p.Y && p.X < a.X + (b.X - a.X) * (p.Y - a.Y) / (b.Y - a.Y)) inside = !inside;
        }
        return inside;
    }
}

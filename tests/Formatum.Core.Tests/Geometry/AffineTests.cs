using CsCheck;
using Formatum.Core.Geometry;
using Formatum.Core.Tests.Fitting;

namespace Formatum.Core.Tests.Geometry;

public class AffineTests
{
    private static readonly Gen<double> Number = Gen.Double[-50, 50];

    private static readonly Gen<Affine> Any = from a in Number
                                              from b in Number
                                              from c in Number
                                              from d in Number
                                              from e in Number
                                              from f in Number
                                              select new Affine(a, b, c, d, e, f);

    [Fact]
    public void Applying_one_after_the_other_is_their_product() => Gen.Select(Any, Any, Number, Number).Sample((m, n, x, y) =>
    {
        Vec p = m.After(n).Apply(new(x, y)), q = m.Apply(n.Apply(new(x, y)));
        p.X.ShouldBe(q.X, 1e-6);
        p.Y.ShouldBe(q.Y, 1e-6);
    });

    [Fact]
    public void The_inverse_leads_back() => Any.Where(m => Math.Abs(m.Determinant) > 1).Sample(m => FitterPropertyTests.ShouldBeSame(m.Inverse().After(m),
        Affine.Identity));

    [Fact]
    public void A_flat_map_has_no_inverse() => Should.Throw<InvalidOperationException>(() => new Affine(1, 2, 2, 4, 0, 0).Inverse());

    [Fact]
    public void A_quarter_turn_is_clockwise_and_exact()
    {
        Affine.Rotation(90).Apply(new(1, 0)).ShouldBe(new Vec(0, 1));
        Affine.Rotation(-270).ShouldBe(Affine.Rotation(90));
        Affine.Rotation(360).ShouldBe(Affine.Identity);
    }
}

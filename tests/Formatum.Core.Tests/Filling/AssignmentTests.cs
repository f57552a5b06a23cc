using CsCheck;
using Formatum.Core.Filling;
using QuikGraph.Algorithms.Assignment;

namespace Formatum.Core.Tests.Filling;

public sealed class AssignmentTests
{
    private static double[,] Table(int rows, int columns, Func<int, int, double> cost)
    {
        var costs = new double[rows, columns];
        for (int r = 0; r < rows; r++)
            for (int c = 0; c < columns; c++) costs[r, c] = cost(r, c);
        return costs;
    }

    /// <summary>Every way there is.</summary>
    private static double Least(double[,] costs)
    {
        int rows = costs.GetLength(0), columns = costs.GetLength(1);
        double From(int row, int taken, int skips)
        {
            if (row == rows) return 0;
            double least = skips > 0 ? From(row + 1, taken, skips - 1) : double.PositiveInfinity;
            for (int c = 0; c < columns; c++)
                if ((taken & (1 << c)) == 0) least = Math.Min(least, costs[row, c] + From(row + 1, taken | (1 << c), skips));
            return least;
        }
        return From(0, 0, Math.Max(0, rows - columns));
    }

    [Fact]
    public void Nothing_costs_less_as_trying_every_way_up_to_8_by_8_shows() =>
        Gen.Select(Gen.Int[1, 8], Gen.Int[1, 8], Gen.Bool, Gen.Int[0, int.MaxValue]).Sample((rows, columns, ties, seed) =>
        {
            var random = new Random(seed);
            var costs = Table(rows, columns, (_, _) => ties ? random.Next(4) : random.NextDouble() * 10 - 3);
            var found = Assignment.Solve(costs);
            found.Total.ShouldBe(Least(costs), 1e-9);
            var taken = found.ColumnOf.Where(c => c >= 0).ToList();
            taken.Count.ShouldBe(Math.Min(rows, columns));
            taken.ShouldBeUnique();
            found.ColumnOf.Select((c, r) => c < 0 ? 0 : costs[r, c]).Sum().ShouldBe(found.Total, 1e-9);
        }, iter: 400);

    /// <summary>Against QuikGraph's solver, which takes whole costs.</summary>
    [Theory]
    [InlineData(60, 1000)]
    [InlineData(150, 20)]
    public void Larger_ones_come_to_the_total_of_a_solver_library(int size, int most)
    {
        var random = new Random(size);
        var whole = new int[size, size];
        for (int r = 0; r < size; r++)
            for (int c = 0; c < size; c++) whole[r, c] = random.Next(most);
        var costs = Table(size, size, (r, c) => whole[r, c]);
        int[] theirs = new HungarianAlgorithm(whole).Compute();
        var ours = Assignment.Solve(costs);
        ours.Total.ShouldBe(theirs.Select((c, r) => (double)costs[r, c]).Sum());
        ours.IsProved(costs, 1e-9).ShouldBeTrue();
    }

    /// <summary>Linear programming duality: prices that nowhere come to more than the cost, and together come to the total, prove that it is the
    /// least.</summary>
    [Fact]
    public void Every_answer_brings_its_proof() => Gen.Select(Gen.Int[1, 90], Gen.Int[1, 90], Gen.Int[1, 5], Gen.Int[0, int.MaxValue])
        .Sample((rows, columns, kinds, seed) =>
    {
        var random = new Random(seed);
        var some = Table(kinds, kinds, (_, _) => random.NextDouble());
        var costs = Table(rows, columns, (r, c) => some[r % kinds, c * 7 % kinds]);
        var found = Assignment.Solve(costs);
        found.IsProved(costs, 1e-9).ShouldBeTrue();
        (found with { Total = found.Total + 1 }).IsProved(costs, 1e-9).ShouldBeFalse();
    }, iter: 100);
}

namespace Formatum.Core.Filling;

/// <summary>
/// Gives each row a column of its own, or each column a row, whichever are fewer, so that the costs come to the least total. Exact: shortest augmenting
/// paths as in D. F. Crouse, "On implementing 2D rectangular assignment algorithms", IEEE Transactions on Aerospace and Electronic Systems 52 (2016).
/// </summary>
/// <param name="ColumnOf">For each row its column; -1 for none.</param>
/// <param name="Total">What it costs.</param>
/// <param name="RowPrices">With the column prices, the proof that nothing costs less: see <see cref="IsProved"/>.</param>
/// <param name="ColumnPrices">Never above 0; 0 where a column is left over.</param>
public sealed record Assignment(int[] ColumnOf, double Total, double[] RowPrices, double[] ColumnPrices)
{
    /// <param name="costs">Finite costs, rows by columns.</param>
    public static Assignment Solve(double[,] costs)
    {
        int rows = costs.GetLength(0), columns = costs.GetLength(1);
        if (rows <= columns) return SolveWide(costs);
        var turned = new double[columns, rows];
        for (int r = 0; r < rows; r++)
            for (int c = 0; c < columns; c++) turned[c, r] = costs[r, c];
        var found = SolveWide(turned);
        var columnOf = new int[rows];
        Array.Fill(columnOf, -1);
        for (int c = 0; c < columns; c++) columnOf[found.ColumnOf[c]] = c;
        return new(columnOf, found.Total, found.ColumnPrices, found.RowPrices);
    }

    /// <summary>No two prices come to more than the cost where they meet, and all prices together come to the total: by duality no assignment costs
    /// less.</summary>
    public bool IsProved(double[,] costs, double hair)
    {
        for (int r = 0; r < RowPrices.Length; r++)
            for (int c = 0; c < ColumnPrices.Length; c++)
                if (RowPrices[r] + ColumnPrices[c] > costs[r, c] + hair) return false;
        return Math.Abs(RowPrices.Sum() + ColumnPrices.Sum() - Total) <= hair * (RowPrices.Length + ColumnPrices.Length);
    }

    private static Assignment SolveWide(double[,] costs)
    {
        int rows = costs.GetLength(0), columns = costs.GetLength(1);
        var search = new PathSearch(costs);
        for (int row = 0; row < rows; row++) search.Assign(row);
        double total = 0;
        for (int r = 0; r < rows; r++) total += costs[r, search.ColumnOf[r]];
        return new(search.ColumnOf, total, search.RowPrices, search.ColumnPrices);
    }

    /// <summary>One row after the other comes in by the cheapest chain of rows that change their columns, which the prices keep right.</summary>
    private sealed class PathSearch(double[,] costs)
    {
        private readonly double[] _u = new double[costs.GetLength(0)], _v = new double[costs.GetLength(1)], _shortest = new double[costs.GetLength(1)];
        private readonly int[] _rowOf = Filled(costs.GetLength(1)), _path = new int[costs.GetLength(1)], _open = new int[costs.GetLength(1)];
        private readonly List<int> _reachedRows = [], _reachedColumns = [];

        public int[] ColumnOf { get; } = Filled(costs.GetLength(0));
        public double[] RowPrices => _u;
        public double[] ColumnPrices => _v;

        private static int[] Filled(int length)
        {
            int[] none = new int[length];
            Array.Fill(none, -1);
            return none;
        }

        public void Assign(int start)
        {
            var (sink, least) = Reach(start);
            _u[start] += least;
            foreach (int r in _reachedRows)
                if (r != start) _u[r] += least - _shortest[ColumnOf[r]];
            foreach (int c in _reachedColumns) _v[c] -= least - _shortest[c];
            for (int at = sink; ;)
            {
                int r = _path[at];
                _rowOf[at] = r;
                (ColumnOf[r], at) = (at, ColumnOf[r]);
                if (r == start) return;
            }
        }

        /// <summary>The nearest free column, and the cost of getting there.</summary>
        private (int Column, double Cost) Reach(int start)
        {
            int left = _v.Length, row = start;
            Array.Fill(_shortest, double.PositiveInfinity);
            for (int c = 0; c < left; c++) _open[c] = left - 1 - c;
            double least = 0;
            _reachedRows.Clear();
            _reachedColumns.Clear();
            while (true)
            {
                _reachedRows.Add(row);
                int best = Nearest(row, least, left);
                int column = _open[best];
                least = _shortest[column];
                _open[best] = _open[--left];
                _reachedColumns.Add(column);
                if (_rowOf[column] < 0) return (column, least);
                row = _rowOf[column];
            }
        }

        /// <summary>Where, among the columns still open, the one that is nearest stands, after looking from a row that costs so much to reach.</summary>
        private int Nearest(int row, double least, int left)
        {
            int best = -1;
            double lowest = double.PositiveInfinity, offset = least - _u[row];
            for (int k = 0; k < left; k++)
            {
                int c = _open[k];
                double reach = offset + costs[row, c] - _v[c];
                if (reach < _shortest[c])
                {
                    _path[c] = row;
                    _shortest[c] = reach;
                }
                // Of equals, a column that is still free ends the search.
                if (_shortest[c] < lowest || (_shortest[c] == lowest && _rowOf[c] < 0)) (lowest, best) = (_shortest[c], k);
            }
            return best;
        }
    }
}

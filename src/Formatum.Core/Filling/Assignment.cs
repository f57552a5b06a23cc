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
        double[] u = new double[rows], v = new double[columns], shortest = new double[columns];
        int[] columnOf = new int[rows], rowOf = new int[columns], path = new int[columns], open = new int[columns];
        Array.Fill(columnOf, -1);
        Array.Fill(rowOf, -1);
        var reachedRows = new List<int>();
        var reachedColumns = new List<int>();
        for (int start = 0; start < rows; start++)
        {
            Array.Fill(shortest, double.PositiveInfinity);
            for (int c = 0; c < columns; c++) open[c] = columns - 1 - c;
            int left = columns, sink = -1, row = start;
            double least = 0;
            reachedRows.Clear();
            reachedColumns.Clear();
            while (sink < 0)
            {
                reachedRows.Add(row);
                int best = -1;
                double lowest = double.PositiveInfinity, offset = least - u[row];
                for (int k = 0; k < left; k++)
                {
                    int c = open[k];
                    double reach = offset + costs[row, c] - v[c];
                    if (reach < shortest[c])
                    {
                        path[c] = row;
                        shortest[c] = reach;
                    }
                    // Of equals, a column that is still free ends the search.
                    if (shortest[c] < lowest || (shortest[c] == lowest && rowOf[c] < 0))
                    {
                        lowest = shortest[c];
                        best = k;
                    }
                }
                least = lowest;
                int column = open[best];
                open[best] = open[--left];
                reachedColumns.Add(column);
                if (rowOf[column] < 0) sink = column;
                else row = rowOf[column];
            }
            u[start] += least;
            foreach (int r in reachedRows)
                if (r != start) u[r] += least - shortest[columnOf[r]];
            foreach (int c in reachedColumns) v[c] -= least - shortest[c];
            int at = sink;
            while (true)
            {
                int r = path[at];
                rowOf[at] = r;
                (columnOf[r], at) = (at, columnOf[r]);
                if (r == start) break;
            }
        }
        double total = 0;
        for (int r = 0; r < rows; r++) total += costs[r, columnOf[r]];
        return new(columnOf, total, u, v);
    }
}

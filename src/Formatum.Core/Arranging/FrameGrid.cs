using System.Collections.Immutable;
using Formatum.Core.Geometry;

namespace Formatum.Core.Arranging;

/// <summary>Rows and columns of frames.</summary>
/// <param name="Rows">How many rows.</param>
/// <param name="Columns">How many columns.</param>
/// <param name="GutterX">Between columns, in points.</param>
/// <param name="GutterY">Between rows, in points.</param>
public readonly record struct FrameGrid(int Rows, int Columns, double GutterX, double GutterY)
{
    public const int MostInLine = 60;

    /// <summary>The boxes that fill an area, row by row from the upper left. Their sides are 0 or less where the gutters leave no room.</summary>
    public ImmutableArray<Box> Fill(Box area)
    {
        double width = (area.Width - (Columns - 1) * GutterX) / Columns, height = (area.Height - (Rows - 1) * GutterY) / Rows;
        var boxes = ImmutableArray.CreateBuilder<Box>(Rows * Columns);
        for (int row = 0; row < Rows; row++)
            for (int column = 0; column < Columns; column++)
                boxes.Add(new(area.X + column * (width + GutterX), area.Y + row * (height + GutterY), width, height));
        return boxes.MoveToImmutable();
    }

    /// <summary>The grid for so many frames in an area, its cells as near to a ratio as they come, with few of them left empty.</summary>
    /// <param name="count">How many frames, 1 or more.</param>
    /// <param name="area">Where they lie.</param>
    /// <param name="ratio">Width over height that they should have.</param>
    /// <param name="gutter">Between them both ways, in points.</param>
    public static FrameGrid For(int count, Box area, double ratio, double gutter)
    {
        const double EmptyWeighs = 0.7;
        double Strays(FrameGrid grid)
        {
            var cell = grid.Fill(area)[0];
            if (cell.Width <= 0 || cell.Height <= 0) return double.PositiveInfinity;
            return Math.Abs(Math.Log(cell.Width / cell.Height / ratio)) + EmptyWeighs * (grid.Rows * grid.Columns - count) / count;
        }
        return Enumerable.Range(1, Math.Min(count, MostInLine)).Select(columns => new FrameGrid((count + columns - 1) / columns, columns, gutter, gutter))
            .Where(grid => grid.Rows <= MostInLine).DefaultIfEmpty(new(MostInLine, MostInLine, gutter, gutter)).MinBy(Strays);
    }

    /// <summary>The boxes of a grid whose columns are given: each row runs over all of them.</summary>
    public ImmutableArray<Box> FillColumns(IReadOnlyList<Box> columns)
    {
        var rows = this;
        return [.. Enumerable.Range(0, Rows).SelectMany(row => columns.Select(c => (rows with { Columns = 1 }).Fill(c)[row]))];
    }
}

using Formatum.Core.Geometry;

namespace Formatum.Core.Comparing;

/// <summary>Boxes to be found again by where they lie, each once.</summary>
internal sealed class NearBoxes
{
    /// <summary>What lies apart by less, in points, lies at the same place: files keep some decimals only.</summary>
    public const double Near = 0.3;

    private readonly Dictionary<(int, int), List<(int Id, Box Box)>> _cells = [];

    public int Count { get; private set; }

    /// <summary>Those that were not taken.</summary>
    public IEnumerable<(int Id, Box Box)> Left => _cells.Values.SelectMany(c => c);

    public static bool AreSame(Box p, Box q) => Math.Abs(p.X - q.X) < Near && Math.Abs(p.Y - q.Y) < Near && Math.Abs(p.Right - q.Right) < Near
        && Math.Abs(p.Bottom - q.Bottom) < Near;

    public void Add(int id, Box box)
    {
        if (!_cells.TryGetValue(Cell(box), out var cell)) _cells[Cell(box)] = cell = [];
        cell.Add((id, box));
        Count++;
    }

    /// <summary>Takes one that lies where a box lies.</summary>
    /// <param name="box">Where.</param>
    /// <param name="may">Which of those there.</param>
    /// <returns>Its id; null where there is none.</returns>
    public int? Take(Box box, Func<int, bool>? may = null)
    {
        var (column, row) = Cell(box);
        for (int c = column - 1; c <= column + 1; c++)
            for (int r = row - 1; r <= row + 1; r++)
                if (_cells.TryGetValue((c, r), out var cell) && cell.FindIndex(b => AreSame(b.Box, box) && may?.Invoke(b.Id) != false) is >= 0 and var at)
                {
                    int id = cell[at].Id;
                    cell.RemoveAt(at);
                    Count--;
                    return id;
                }
        return null;
    }

    private static (int Column, int Row) Cell(Box box) => ((int)Math.Floor(box.X), (int)Math.Floor(box.Y));
}

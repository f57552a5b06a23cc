using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Web.Desk.Commands;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk;

/// <summary>Where the words of a document that was dropped go, and what is told of them.</summary>
public static class WordsPlace
{
    /// <summary>Below this height, in points, all of the column is taken.</summary>
    private const double Lowest = 60;

    /// <summary>What is left of the column under a point; of the type area where it lies beside.</summary>
    /// <returns>The page by number, and the box from the upper left of its trim.</returns>
    public static (int Page, Box Box) Of(Ground ground, Vec at)
    {
        var page = ground.Spread.PageAt(at);
        var area = ground.TypeArea(page, at);
        var column = ground.Columns(page).FirstOrDefault(c => at.X >= c.X && at.X <= c.Right, area);
        double top = at.Y > column.Y && column.Bottom - at.Y > Lowest ? at.Y : column.Y;
        return (page.Number, new Box(column.X, top, column.Width, column.Bottom - top).Moved(-page.Trim.X, -page.Trim.Y));
    }

    /// <summary>What came in, what was made for it and what was left aside.</summary>
    public static string Report(string file, BroughtDocument read, int stylesMade)
    {
        string styles = stylesMade > 0 ? $", {Words.Count(stylesMade, "style")} made" : "";
        string aside = read.LeftAside.IsEmpty ? "" : $" Left aside: {string.Join("; ", read.LeftAside)}.";
        return $"{Words.Count(read.Paragraphs.Length, "paragraph")} of {file} brought in{styles}.{aside}";
    }
}

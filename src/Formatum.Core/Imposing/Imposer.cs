using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Imposing;

/// <summary>Lays pages on sheets.</summary>
public static class Imposer
{
    /// <summary>A sheet of a booklet is folded once: it has four pages.</summary>
    private const int PagesOfFold = 4;

    /// <param name="imposition">How.</param>
    /// <param name="setup">The publication's.</param>
    /// <param name="pages">Where the pages stand, from 1, in their order.</param>
    /// <param name="bleed">How far beyond the trim is printed, in points.</param>
    /// <param name="border">Room around the pages for marks, in points, the bleed in it.</param>
    /// <returns>Front and back of each sheet, in order.</returns>
    /// <exception cref="EditRefused">The pages do not fit on the sheet, or that is larger than a page of a PDF can be.</exception>
    public static ImmutableArray<SheetSide> Of(Imposition imposition, Setup setup, IReadOnlyList<int> pages, double bleed, double border)
    {
        bool booklet = imposition.Kind == ImpositionKind.Booklet;
        var grid = booklet ? new Grid(imposition, setup, 2, 1, 0, bleed, border)
            : new(imposition, setup, imposition.Across, imposition.Down, imposition.Gutter, bleed, border);
        var sides = imposition.Kind switch
        {
            ImpositionKind.Booklet => Booklet(pages.Count, setup.BindsRight),
            ImpositionKind.CutAndStack => CutAndStack(pages.Count, grid),
            _ => Several(pages.Count, grid.Places),
        };
        int sheets = (sides.Count + 1) / 2;
        return [.. sides.Select((places, i) => grid.Side(i / 2, i % 2 != 0, [.. places.Select(p => p <= pages.Count ? pages[p - 1] : (int?)null)],
            booklet && sheets > 1 ? imposition.Creep * (i / 2) / (sheets - 1) : 0))];
    }

    /// <summary>How many blank pages are added, so that every sheet is whole.</summary>
    public static int BlanksOf(Imposition imposition, int pages) =>
        imposition.Kind == ImpositionKind.Booklet ? (PagesOfFold - pages % PagesOfFold) % PagesOfFold : 0;

    /// <summary>The pages of each side, from left to right, by their place in the order, from 1: the first page lies beside the last, on the outside of the
    /// outermost sheet. The scheme of any handbook of binding, from memory: for 8 pages 8 1, 2 7, 6 3, 4 5.</summary>
    private static List<int[]> Booklet(int count, bool bindsRight)
    {
        int all = count + (PagesOfFold - count % PagesOfFold) % PagesOfFold;
        var sides = new List<int[]>();
        for (int sheet = 0; sheet < all / PagesOfFold; sheet++)
        {
            int[] front = [all - 2 * sheet, 1 + 2 * sheet], back = [2 + 2 * sheet, all - 1 - 2 * sheet];
            if (bindsRight)
            {
                Array.Reverse(front);
                Array.Reverse(back);
            }
            sides.Add(front);
            sides.Add(back);
        }
        return sides;
    }

    private static List<int[]> Several(int count, int places) =>
        [.. Enumerable.Range(0, (count + places - 1) / places).Select(side => Enumerable.Range(side * places + 1, places).ToArray())];

    /// <summary>Each place of the sheet is a stack: what lies on the back of a page is the next one, at the place that the sheet turned over shows
    /// there.</summary>
    private static List<int[]> CutAndStack(int count, Grid grid)
    {
        int sheets = (count + 2 * grid.Places - 1) / (2 * grid.Places);
        var sides = new List<int[]>();
        for (int sheet = 0; sheet < sheets; sheet++)
        {
            int[] front = new int[grid.Places], back = new int[grid.Places];
            for (int place = 0; place < grid.Places; place++)
            {
                int page = place * 2 * sheets + 2 * sheet + 1, row = place / grid.Across, column = place % grid.Across;
                front[place] = page;
                back[row * grid.Across + grid.Across - 1 - column] = page + 1;
            }
            sides.Add(front);
            sides.Add(back);
        }
        return sides;
    }

    /// <summary>Where pages lie on a sheet: rows and columns in its middle.</summary>
    private sealed class Grid
    {
        private readonly Setup _setup;
        private readonly double _width, _height, _left, _top, _gutter, _bleed;
        private readonly bool _isFolded;

        public int Across { get; }
        public int Down { get; }
        public int Places => Across * Down;

        public Grid(Imposition imposition, Setup setup, int across, int down, double gutter, double bleed, double border)
        {
            (_setup, Across, Down, _gutter, _bleed, _isFolded) = (setup, across, down, gutter, bleed, imposition.Kind == ImpositionKind.Booklet);
            double width = across * setup.PageWidth + (across - 1) * gutter, height = down * setup.PageHeight + (down - 1) * gutter;
            _width = imposition.SheetWidth > 0 ? imposition.SheetWidth : width + 2 * border;
            _height = imposition.SheetHeight > 0 ? imposition.SheetHeight : height + 2 * border;
            (_left, _top) = ((_width - width) / 2, (_height - height) / 2);
            string Said(double w, double h) => $"{Units.Text(w, setup.Unit)} x {Units.Text(h, setup.Unit)}";
            // A hair for what is rounded off where lengths are read.
            if (_left < -0.01 || _top < -0.01)
                throw new EditRefused("imposition.sheet", $"The pages need {Said(width, height)}, and the sheet has {Said(_width, _height)}. Take a larger " +
                    $"sheet, or fewer pages on one.");
            if (Math.Max(_width, _height) > Setup.LargestSide)
                throw new EditRefused("imposition.sheet", $"The sheet would be {Said(_width, _height)}; {Units.Text(Setup.LargestSide, setup.Unit)} (200 " +
                    $"inches) is the most a PDF page can have. Lay fewer pages on one.");
        }

        public SheetSide Side(int sheet, bool isBack, int?[] pages, double creep)
        {
            var placed = pages.Select((page, place) => Placed(page, place % Across, place / Across, creep));
            return new(sheet + 1, isBack, _width, _height, [.. placed], _isFolded ? [_left + _setup.PageWidth] : []);
        }

        private ImposedPage Placed(int? page, int column, int row, double creep)
        {
            var trim = new Box(_left + column * (_setup.PageWidth + _gutter), _top + row * (_setup.PageHeight + _gutter), _setup.PageWidth, _setup.PageHeight);
            // Between two pages each has half of the gutter for its bleed; at a fold none.
            double Room(bool isOuter) => isOuter ? _bleed : Math.Min(_bleed, _gutter / 2);
            double left = Room(column == 0), right = Room(column == Across - 1), top = Room(row == 0), bottom = Room(row == Down - 1);
            var shown = new Box(trim.X - left, trim.Y - top, trim.Width + left + right, trim.Height + top + bottom);
            // Towards the fold: what is shown stays, and the page moves beneath it.
            return new(page, trim, trim.Moved(column == 0 ? creep : -creep, 0), shown);
        }
    }
}

using Formatum.Core.Checks;
using Formatum.Core.Geometry;
using Formatum.Core.Imposing;
using Formatum.Core.Publications;

namespace Formatum.Core.Tests.Imposing;

/// <summary>Which page lies where on which sheet. The schemes are those of handbooks of binding, from memory.</summary>
public sealed class ImposerTests
{
    private static Setup A5(bool bindsRight = false) => new()
    {
        Name = "Booklet",
        PageWidth = Units.Millimetres(148),
        PageHeight = Units.Millimetres(210),
        Facing = true,
        BindsRight = bindsRight,
    };

    private static string Scheme(Imposition imposition, int pages, bool bindsRight = false) => string.Join(", ",
        Imposer.Of(imposition, A5(bindsRight), [.. Enumerable.Range(1, pages)], 0, 0)
            .Select(side => string.Join(' ', side.Pages.Select(p => p.Page?.ToString(System.Globalization.CultureInfo.InvariantCulture) ?? "-"))));

    private static readonly Imposition Booklet = new() { Kind = ImpositionKind.Booklet };

    [Theory]
    [InlineData(4, "4 1, 2 3")]
    [InlineData(8, "8 1, 2 7, 6 3, 4 5")]
    [InlineData(16, "16 1, 2 15, 14 3, 4 13, 12 5, 6 11, 10 7, 8 9")]
    [InlineData(20, "20 1, 2 19, 18 3, 4 17, 16 5, 6 15, 14 7, 8 13, 12 9, 10 11")]
    [InlineData(6, "- 1, 2 -, 6 3, 4 5")]
    [InlineData(1, "- 1, - -")]
    public void A_booklet_has_its_pages_where_the_fold_wants_them(int pages, string scheme) => Scheme(Booklet, pages).ShouldBe(scheme);

    [Fact]
    public void Bound_on_the_right_it_is_the_other_way_round() => Scheme(Booklet, 8, bindsRight: true).ShouldBe("1 8, 7 2, 3 6, 5 4");

    [Theory]
    [InlineData(4, 0)]
    [InlineData(5, 3)]
    [InlineData(6, 2)]
    [InlineData(7, 1)]
    public void Blank_pages_make_every_sheet_whole(int pages, int blanks) => Imposer.BlanksOf(Booklet, pages).ShouldBe(blanks);

    [Fact]
    public void Several_pages_lie_in_order() => Scheme(new() { Kind = ImpositionKind.Several, Across = 2, Down = 2 }, 6).ShouldBe("1 2 3 4, 5 6 - -");

    /// <summary>Cut, turned over and stacked place by place, the pages are in order: worked out here by doing just that.</summary>
    [Theory]
    [InlineData(2, 1, 8)]
    [InlineData(2, 2, 16)]
    [InlineData(3, 2, 29)]
    [InlineData(1, 1, 5)]
    public void Stacks_that_were_cut_are_in_order_once_laid_upon_each_other(int across, int down, int pages)
    {
        var sides = Imposer.Of(new() { Kind = ImpositionKind.CutAndStack, Across = across, Down = down }, A5(), [.. Enumerable.Range(1, pages)], 0, 0);
        var read = new List<int?>();
        for (int row = 0; row < down; row++)
            for (int column = 0; column < across; column++)
                for (int sheet = 0; sheet < sides.Length; sheet += 2)
                {
                    read.Add(sides[sheet].Pages[row * across + column].Page);
                    // Turned over, the left is at the right.
                    read.Add(sides[sheet + 1].Pages[row * across + across - 1 - column].Page);
                }
        read.OfType<int>().ShouldBe(Enumerable.Range(1, pages));
        read.SkipWhile(p => p is not null).ShouldAllBe(p => p == null);
    }

    /// <summary>Five sheets and 1 mm in all: the second moves by a quarter, the innermost by all of it, towards the fold.</summary>
    [Fact]
    public void Creep_moves_pages_towards_the_fold_in_equal_steps()
    {
        double creep = Units.Millimetres(1), width = Units.Millimetres(148);
        var sides = Imposer.Of(Booklet with { Creep = creep }, A5(), [.. Enumerable.Range(1, 20)], 0, 0);
        for (int sheet = 0; sheet < 5; sheet++)
            foreach (var side in sides.Skip(2 * sheet).Take(2))
            {
                side.Pages[0].Trim.X.ShouldBe(creep * sheet / 4, 1e-9);
                side.Pages[1].Trim.X.ShouldBe(width - creep * sheet / 4, 1e-9);
                // What is cut off stays where it was.
                side.Pages[0].Shown.X.ShouldBe(0, 1e-9);
                side.Folds.ShouldBe([width]);
            }
    }

    [Fact]
    public void Pages_lie_in_the_middle_with_gutters_and_their_bleed_goes_no_farther_than_half_of_these()
    {
        double sheetWidth = Units.Millimetres(320), sheetHeight = Units.Millimetres(450), gutter = 4, bleed = 8.5;
        var side = Imposer.Of(new()
        {
            Kind = ImpositionKind.Several,
            Across = 2,
            Down = 2,
            SheetWidth = sheetWidth,
            SheetHeight = sheetHeight,
            Gutter = gutter
        },
            A5(), [1, 2, 3, 4], bleed, 20)[0];
        side.Block.Centre.X.ShouldBe(sheetWidth / 2, 1e-9);
        side.Block.Centre.Y.ShouldBe(sheetHeight / 2, 1e-9);
        side.Block.Width.ShouldBe(2 * A5().PageWidth + gutter, 1e-9);
        side.Pages[0].Shown.X.ShouldBe(side.Pages[0].Trim.X - bleed, 1e-9);
        side.Pages[0].Shown.Right.ShouldBe(side.Pages[0].Trim.Right + gutter / 2, 1e-9);
        side.Pages[0].Shown.Right.ShouldBe(side.Pages[1].Shown.X, 1e-9);
    }

    [Fact]
    public void Sheets_that_are_too_small_or_too_large_are_refused_in_words()
    {
        Should.Throw<EditRefused>(() => Imposer.Of(Booklet with { SheetWidth = Units.Millimetres(210), SheetHeight = Units.Millimetres(297) }, A5(), [1, 2], 0,
            0))
            .Message.ShouldContain("The pages need 296 mm x 210 mm");
        Should.Throw<EditRefused>(() => Imposer.Of(new() { Kind = ImpositionKind.Several, Across = 20, Down = 20 },
            A5() with { PageWidth = 1000 }, [1], 0, 0)).Errors[0].Field.ShouldBe("imposition.sheet");
        var errors = new FieldErrors();
        new Imposition { Across = 0, Down = 21, Gutter = -1, Creep = double.NaN, SheetWidth = 10 }.Check(errors);
        errors.ToImmutable().Select(e => e.Field).ShouldBe(["imposition.across", "imposition.down", "imposition.gutter", "imposition.creep",
            "imposition.sheet"]);
    }
}

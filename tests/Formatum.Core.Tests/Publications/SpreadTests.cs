using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Tests.Publications;

public class SpreadTests
{
    [Theory]
    [InlineData(true, 8, "1 | 2 3 | 4 5 | 6 7 | 8")]
    [InlineData(true, 1, "1")]
    [InlineData(true, 3, "1 | 2 3")]
    [InlineData(false, 3, "1 | 2 | 3")]
    public void Facing_pages_open_two_by_two_after_a_first_recto(bool facing, int pages, string expected)
    {
        var publication = Publication.Create(SetupTests.A4(facing), pages);
        var spreads = Enumerable.Range(0, Spread.CountOf(publication)).Select(i => Spread.At(publication, i)).ToList();
        string.Join(" | ", spreads.Select(s => string.Join(' ', s.Pages.Select(p => p.Number)))).ShouldBe(expected);
        foreach (var spread in spreads)
        {
            foreach (var page in spread.Pages) Spread.IndexOfPage(publication, page.Number).ShouldBe(spread.Index);
        }
    }

    /// <summary>Odd page numbers are rectos: custom of the trade wherever books open from the right, no source.</summary>
    [Fact]
    public void Odd_pages_are_rectos()
    {
        var publication = Publication.Create(SetupTests.A4(), 9);
        foreach (var page in Enumerable.Range(0, 5).SelectMany(i => Spread.At(publication, i).Pages)) page.Recto.ShouldBe(page.Number % 2 == 1);
    }

    [Fact]
    public void A_point_belongs_to_the_page_it_lies_on_or_nearest()
    {
        var spread = Spread.At(Publication.Create(SetupTests.A4(), 4), 1);
        spread.PageAt(new(-5, 100)).Number.ShouldBe(2);
        spread.PageAt(new(spread.Pages[1].Trim.X + 1, 100)).Number.ShouldBe(3);
        spread.Trim.ShouldBe(new Box(0, 0, 2 * SetupTests.A4().PageWidth, SetupTests.A4().PageHeight));
    }

    [Fact]
    public void There_is_no_spread_past_the_last() =>
        Should.Throw<ArgumentOutOfRangeException>(() => Spread.At(Publication.Create(SetupTests.A4(), 4), 3));
}

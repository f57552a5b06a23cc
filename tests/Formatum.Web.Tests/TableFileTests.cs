using System.Text;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Web.Desk;

namespace Formatum.Web.Tests;

public sealed class TableFileTests
{
    [Theory]
    [InlineData("Picture,Piece\r\na.jpg,\"Mug, blue\"\r\n", "Mug, blue")]
    [InlineData("Picture;Piece\na.jpg;Mug, blue\n\n", "Mug, blue")]
    [InlineData("Picture\tPiece\na.jpg\t\"Mug \"\"blue\"\"\"\n", "Mug \"blue\"")]
    [InlineData("\ufeffPicture;Piece\na.jpg;Krug f\u00fcr zwei", "Krug f\u00fcr zwei")]
    public void Tables_are_read_whatever_stands_between_their_cells(string text, string cell)
    {
        foreach (var encoding in new[] { new UTF8Encoding(true), Encoding.Unicode, Encoding.Latin1 })
        {
            if (encoding == Encoding.Latin1 && text[0] == '\ufeff') continue;
            byte[] bytes = text[0] == '\ufeff' ? encoding.GetBytes(text) : [.. encoding.GetPreamble(), .. encoding.GetBytes(text)];
            var table = TableFile.Read(new MemoryStream(bytes));
            table.Columns.ShouldBe(["Picture", "Piece"]);
            table.Rows.Single().ShouldBe(["a.jpg", cell]);
        }
    }

    [Theory]
    [InlineData("", "is empty")]
    [InlineData("A,B\n", "no rows")]
    [InlineData("A,a\n1,2\n", "same name")]
    [InlineData("A,B\n1,2,3\n", "Row 1 has 3 cells")]
    public void Wrong_tables_are_refused_in_words(string text, string words) =>
        Should.Throw<EditRefused>(() => TableFile.Read(new MemoryStream(Encoding.UTF8.GetBytes(text)))).Message.ShouldContain(words);

    [Fact]
    public void A_hundred_thousand_rows_are_read()
    {
        string rows = string.Concat(Enumerable.Range(0, 100_000).Select(i => $"p{i}.jpg;Piece {i}\n"));
        TableFile.Read(new MemoryStream(Encoding.UTF8.GetBytes("Picture;Piece\n" + rows))).Rows.Length.ShouldBe(100_000);
        Should.Throw<EditRefused>(() => TableFile.Read(new MemoryStream(Encoding.UTF8.GetBytes("Picture;Piece\n" + rows
            + "one;more\n")))).Message.ShouldContain("100,000 rows");
    }
}

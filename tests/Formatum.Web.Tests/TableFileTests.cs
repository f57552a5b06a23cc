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

    /// <summary>The bytes 80, 96, 93 and 94 of windows-1252: the euro sign, the dash and the quotes (WHATWG Encoding Standard, index windows-1252).</summary>
    [Fact]
    public void Prices_from_Windows_keep_their_signs_and_other_encodings_can_be_chosen()
    {
        byte[] bytes = [.. "P;Price\na;"u8, 0x93, 0x80, (byte)'5', 0x96, (byte)'7', 0x94, (byte)'\n'];
        TableFile.IsUnclear(bytes).ShouldBeTrue();
        TableFile.Read(new MemoryStream(bytes)).Rows.Single()[1].ShouldBe("\u201c\u20ac5\u20137\u201d");
        // In Mac OS Roman, DB is the euro sign (index macintosh of the same).
        TableFile.Read(new MemoryStream([.. "P;Price\na;"u8, 0xDB, (byte)'5']), "macintosh").Rows.Single()[1].ShouldBe("\u20ac5");
    }

    [Fact]
    public void A_character_that_the_encoding_does_not_have_is_told_and_never_dropped() =>
        Should.Throw<EditRefused>(() => TableFile.Read(new MemoryStream([.. "P;Price\na;"u8, 0x81, (byte)'5']))).Message.ShouldContain("no character there");
}

using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using Formatum.Core.Checks;
using Formatum.Core.Filling;
using Formatum.Core.Publications;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk;

/// <summary>Tables as comma-separated values (RFC 4180), or with semicolons or tabs between, as spreadsheets in many countries write them.</summary>
public static class TableFile
{
    public const int MostRows = 100_000, MostColumns = 200, LongestCell = 20_000;

    /// <param name="stream">The file.</param>
    /// <param name="encoding">The encoding to read it in, where it says none itself and is no UTF-8: one of <see cref="Encodings"/>; null for the usual
    /// one.</param>
    /// <exception cref="EditRefused">It cannot be read as a table.</exception>
    public static Table Read(Stream stream, string? encoding = null)
    {
        using var bytes = new MemoryStream();
        stream.CopyTo(bytes);
        using var csv = new CsvReader(new StringReader(Decode(bytes.GetBuffer().AsSpan(0, (int)bytes.Length), encoding)),
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                DetectDelimiter = true,
                DetectDelimiterValues = [",", ";", "\t"],
                BadDataFound = null,
                IgnoreBlankLines = true,
                HasHeaderRecord = true,
            });
        try
        {
            if (!csv.Read() || !csv.ReadHeader() || csv.HeaderRecord is not { } header || header.All(string.IsNullOrWhiteSpace))
                throw new EditRefused("table", "The table is empty. Its first line names the columns.");
            if (header.Length > MostColumns) throw new EditRefused("table", $"The table has {header.Length} columns; {MostColumns} is the most.");
            ImmutableArray<string> columns = [.. header.Select((h, i) => string.IsNullOrWhiteSpace(h) ? $"Column {i + 1}" : h.Trim())];
            if (columns.Distinct(StringComparer.OrdinalIgnoreCase).Count() < columns.Length)
                throw new EditRefused("table", "Two columns have the same name. Give each its own in the first line.");
            var rows = ImmutableArray.CreateBuilder<ImmutableArray<string>>();
            while (csv.Read())
            {
                if (rows.Count == MostRows) throw new EditRefused("table", $"The table has more than {MostRows:#,0} rows. Split it.");
                if (csv.Parser.Count > columns.Length && csv.Parser.Record!.Skip(columns.Length).Any(c => c.Length > 0))
                    throw new EditRefused("table", $"Row {rows.Count + 1} has {csv.Parser.Count} cells, and there are {columns.Length} columns. A cell " +
                        $"with the separator in it stands between quotation marks.");
                ImmutableArray<string> row = [.. Enumerable.Range(0, columns.Length).Select(i => i < csv.Parser.Count ? csv.Parser[i] : "")];
                if (row.Any(c => c.Length > LongestCell))
                    throw new EditRefused("table", $"Row {rows.Count + 1} has a cell of more than {LongestCell:#,0} characters. A quotation mark may be " +
                        $"missing.");
                if (row.Any(c => !string.IsNullOrWhiteSpace(c))) rows.Add(row);
            }
            return rows.Count == 0 ? throw new EditRefused("table", "The table has no rows under the line that names the columns.")
                : new(columns, rows.ToImmutable());
        }
        catch (CsvHelperException e)
        {
            throw new EditRefused("table", $"The table cannot be read: {e.Message.Split('\n')[0]}");
        }
    }

    /// <summary>What old tables are written in, most of all by spreadsheets: the code page, and what people call it.</summary>
    public static readonly IReadOnlyList<(string Name, int CodePage, string Words)> Encodings =
    [
        ("windows-1252", 1252, "Western European (Windows)"), ("macintosh", 10000, "Western European (Macintosh)"),
            ("windows-1250", 1250, "Central European (Windows)"),
        ("windows-1251", 1251, "Cyrillic (Windows)"), ("windows-1253", 1253, "Greek (Windows)"), ("windows-1254", 1254, "Turkish (Windows)"),
    ];

    /// <summary>Whether a file does not say how it is encoded, so that somebody has to look at it.</summary>
    public static bool IsUnclear(ReadOnlySpan<byte> bytes) => !bytes.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE])
        && !bytes.StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF]) && !System.Text.Unicode.Utf8.IsValid(bytes);

    /// <summary>By its byte order mark; without one UTF-8, or the encoding that is asked for where it is no UTF-8.</summary>
    /// <exception cref="EditRefused">It holds bytes that stand for no character there: nothing is dropped unsaid.</exception>
    private static string Decode(ReadOnlySpan<byte> bytes, string? encoding)
    {
        if (bytes.StartsWith((ReadOnlySpan<byte>)[0xEF, 0xBB, 0xBF])) return Encoding.UTF8.GetString(bytes[3..]);
        if (bytes.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE])) return Encoding.Unicode.GetString(bytes[2..]);
        if (bytes.StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF])) return Encoding.BigEndianUnicode.GetString(bytes[2..]);
        if (System.Text.Unicode.Utf8.IsValid(bytes)) return Encoding.UTF8.GetString(bytes);
        var (_, codePage, words) = Encodings.FirstOrDefault(e => e.Name == (encoding ?? Encodings[0].Name));
        if (codePage == 0) throw new EditRefused("encoding", $"There is no encoding \u201c{encoding}\u201d here.");
        string text = CodePagesEncodingProvider.Instance.GetEncoding(codePage)!.GetString(bytes);
        int at = text.AsSpan().IndexOfAny(NoCharacters);
        if (at >= 0)
            throw new EditRefused("encoding", $"Read as {words}, the table holds something that is no character there, behind " +
                $"\u201c{text[Math.Max(0, at - 20)..at]}\u201d. Choose another encoding, or save the table as UTF-8.");
        return text;
    }

    /// <summary>What stands for bytes that a code page gives no character to: C1 controls, and the replacement character.</summary>
    private static readonly System.Buffers.SearchValues<char> NoCharacters = System.Buffers.SearchValues.Create([.. Enumerable.Range(0x80, 0x20)
        .Select(c => (char)c), '\ufffd']);
}

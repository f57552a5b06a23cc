using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using Formatum.Core.Filling;
using Formatum.Core.Publications;

namespace Formatum.Web.Desk;

/// <summary>Tables as comma-separated values (RFC 4180), or with semicolons or tabs between, as spreadsheets in many countries write them.</summary>
public static class TableFile
{
    public const int MostRows = 100_000, MostColumns = 200, LongestCell = 20_000;

    /// <exception cref="EditRefused">It cannot be read as a table.</exception>
    public static Table Read(Stream stream)
    {
        using var bytes = new MemoryStream();
        stream.CopyTo(bytes);
        using var csv = new CsvReader(new StringReader(Decode(bytes.GetBuffer().AsSpan(0, (int)bytes.Length))), new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            DetectDelimiter = true,
            DetectDelimiterValues = [",", ";", "\t"],
            BadDataFound = null,
            IgnoreBlankLines = true,
            HasHeaderRecord = true,
        });
        try
        {
            if (!csv.Read() || !csv.ReadHeader() || csv.HeaderRecord is not { } header || header.All(string.IsNullOrWhiteSpace)) throw new EditRefused("table", "The table is empty. Its first line names the columns.");
            if (header.Length > MostColumns) throw new EditRefused("table", $"The table has {header.Length} columns; {MostColumns} is the most.");
            ImmutableArray<string> columns = [.. header.Select((h, i) => string.IsNullOrWhiteSpace(h) ? $"Column {i + 1}" : h.Trim())];
            if (columns.Distinct(StringComparer.OrdinalIgnoreCase).Count() < columns.Length) throw new EditRefused("table", "Two columns have the same name. Give each its own in the first line.");
            var rows = ImmutableArray.CreateBuilder<ImmutableArray<string>>();
            while (csv.Read())
            {
                if (rows.Count == MostRows) throw new EditRefused("table", $"The table has more than {MostRows:#,0} rows. Split it.");
                if (csv.Parser.Count > columns.Length && csv.Parser.Record!.Skip(columns.Length).Any(c => c.Length > 0))
                    throw new EditRefused("table", $"Row {rows.Count + 1} has {csv.Parser.Count} cells, and there are {columns.Length} columns. A cell with the separator in it stands between quotation marks.");
                ImmutableArray<string> row = [.. Enumerable.Range(0, columns.Length).Select(i => i < csv.Parser.Count ? csv.Parser[i] : "")];
                if (row.Any(c => c.Length > LongestCell)) throw new EditRefused("table", $"Row {rows.Count + 1} has a cell of more than {LongestCell:#,0} characters. A quotation mark may be missing.");
                if (row.Any(c => !string.IsNullOrWhiteSpace(c))) rows.Add(row);
            }
            return rows.Count == 0 ? throw new EditRefused("table", "The table has no rows under the line that names the columns.") : new(columns, rows.ToImmutable());
        }
        catch (CsvHelperException e)
        {
            throw new EditRefused("table", $"The table cannot be read: {e.Message.Split('\n')[0]}");
        }
    }

    /// <summary>By its byte order mark; without one UTF-8, or Latin-1 where it is no UTF-8.</summary>
    private static string Decode(ReadOnlySpan<byte> bytes)
    {
        if (bytes.StartsWith((ReadOnlySpan<byte>)[0xEF, 0xBB, 0xBF])) return Encoding.UTF8.GetString(bytes[3..]);
        if (bytes.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE])) return Encoding.Unicode.GetString(bytes[2..]);
        if (bytes.StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF])) return Encoding.BigEndianUnicode.GetString(bytes[2..]);
        return System.Text.Unicode.Utf8.IsValid(bytes) ? Encoding.UTF8.GetString(bytes) : Encoding.Latin1.GetString(bytes);
    }
}

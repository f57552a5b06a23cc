using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Formatum.Core.Geometry;

namespace Formatum.Output;

/// <summary>
/// Puts exact page boxes into a PDF that the drawing library wrote, by an incremental update (ISO 32000-1, 7.5.6): the page objects are written
/// anew at the end of the file, with a cross-reference section that points back to the one before. Nothing else is touched, so the time it takes
/// does not depend on the pictures.
/// </summary>
internal static partial class PdfBoxes
{
    /// <param name="path">A PDF with a cross-reference table (7.5.4), whose page dictionaries are direct objects with a MediaBox of their own.</param>
    /// <param name="media">The media box of every page, in points from the lower left.</param>
    /// <param name="bleed">The bleed box of every page.</param>
    /// <param name="trim">The trim box of every page.</param>
    /// <exception cref="InvalidDataException">The file is not built that way.</exception>
    public static void Set(string path, Box media, Box bleed, Box trim)
    {
        using var file = new FileStream(path, FileMode.Open, FileAccess.ReadWrite);
        string tail = ReadText(file, Math.Max(0, file.Length - 2048), 2048);
        long xref = long.Parse(Required(StartXref(), tail).Groups[1].Value, CultureInfo.InvariantCulture);
        string table = ReadText(file, xref, (int)(file.Length - xref));
        var offsets = ReadTable(table);
        string trailer = Required(Trailer(), table).Groups[1].Value;

        string boxes = $"/MediaBox {Array(media)}\n/CropBox {Array(media)}\n/BleedBox {Array(bleed)}\n/TrimBox {Array(trim)}";
        var update = new StringBuilder("\n");
        var entries = new StringBuilder("xref\n");
        for (int number = 1; number < offsets.Length; number++)
        {
            if (offsets[number] < 0) continue;
            string start = ReadText(file, offsets[number], 64);
            if (!PageObject().IsMatch(start)) continue;
            string body = ReadObject(file, offsets[number]);
            string mended = MediaBox().Replace(body, boxes.Replace("$", "$$", StringComparison.Ordinal), 1);
            if (mended == body) throw new InvalidDataException($"Page object {number} has no media box of its own.");
            entries.Append(CultureInfo.InvariantCulture, $"{number} 1\n{file.Length + update.Length:0000000000} 00000 n \n");
            update.Append(mended).Append('\n');
        }
        long start2 = file.Length + update.Length;
        update.Append(entries).Append("trailer\n<<").Append(trailer).Append(CultureInfo.InvariantCulture, $"\n/Prev {xref}>>\nstartxref\n{start2}\n%%EOF\n");
        file.Seek(0, SeekOrigin.End);
        file.Write(Encoding.Latin1.GetBytes(update.ToString()));
    }

    private static string Array(Box box) => string.Create(CultureInfo.InvariantCulture,
        $"[{box.X:0.#####} {box.Y:0.#####} {box.Right:0.#####} {box.Bottom:0.#####}]");

    private static long[] ReadTable(string table)
    {
        var head = Required(TableHead(), table);
        int first = int.Parse(head.Groups[1].Value, CultureInfo.InvariantCulture), count = int.Parse(head.Groups[2].Value, CultureInfo.InvariantCulture);
        var offsets = new long[first + count];
        System.Array.Fill(offsets, -1);
        for (int i = 0; i < count; i++)
        {
            // Every entry has 20 bytes: offset, generation, kind, end of line.
            var entry = table.AsSpan(head.Length + i * 20, 20);
            if (entry[17] == 'n') offsets[first + i] = long.Parse(entry[..10], CultureInfo.InvariantCulture);
        }
        return offsets;
    }

    private static string ReadObject(FileStream file, long offset)
    {
        for (int length = 1024; ; length *= 4)
        {
            string text = ReadText(file, offset, length);
            int end = text.IndexOf("endobj", StringComparison.Ordinal);
            if (end >= 0) return text[..(end + "endobj".Length)];
            if (text.Length < length) throw new InvalidDataException("An object does not end.");
        }
    }

    private static string ReadText(FileStream file, long offset, int length)
    {
        file.Position = offset;
        var bytes = new byte[length];
        return Encoding.Latin1.GetString(bytes, 0, file.ReadAtLeast(bytes, length, throwOnEndOfStream: false));
    }

    private static Match Required(Regex pattern, string text) =>
        pattern.Match(text) is { Success: true } match ? match : throw new InvalidDataException($"The PDF has no {pattern}.");

    [GeneratedRegex(@"startxref\s+(\d+)\s+%%EOF\s*$")]
    private static partial Regex StartXref();

    [GeneratedRegex(@"^xref\s+(\d+) (\d+)\r?\n")]
    private static partial Regex TableHead();

    [GeneratedRegex(@"trailer\s*<<(.*)>>\s*startxref", RegexOptions.Singleline)]
    private static partial Regex Trailer();

    [GeneratedRegex(@"^\d+ 0 obj\s*<</Type /Page\s")]
    private static partial Regex PageObject();

    [GeneratedRegex(@"/MediaBox \[[^\]]*\]")]
    private static partial Regex MediaBox();
}

using System.Globalization;
using System.Text;
using Formatum.Core.Geometry;

namespace Formatum.Output.Pdf;

/// <summary>How values are written in a PDF (ISO 32000-1, 7.3).</summary>
internal static class PdfSyntax
{
    /// <summary>A number, to a millionth.</summary>
    public static string Number(double value) => SvgWriter.Number(value);

    public static string Numbers(params ReadOnlySpan<double> values)
    {
        var text = new StringBuilder();
        foreach (double value in values) text.Append(text.Length > 0 ? " " : "").Append(Number(value));
        return text.ToString();
    }

    public static string Reference(int number) => string.Create(CultureInfo.InvariantCulture, $"{number} 0 R");

    /// <summary>A name object: bytes of its UTF-8 that are no regular characters are written by their number (7.3.5).</summary>
    public static string Name(string name)
    {
        var text = new StringBuilder("/");
        foreach (byte b in Encoding.UTF8.GetBytes(name))
        {
            bool regular = b is > (byte)' ' and < 127 && "()<>[]{}/%#".IndexOf((char)b) < 0;
            if (regular) text.Append((char)b);
            else text.Append(CultureInfo.InvariantCulture, $"#{b:X2}");
        }
        return text.ToString();
    }

    /// <summary>A text string (7.9.2.2): as it is where it is plain ASCII, else as UTF-16.</summary>
    public static string Text(string text)
    {
        if (!text.All(c => c is >= ' ' and < (char)127)) return Hex([0xFE, 0xFF, .. Encoding.BigEndianUnicode.GetBytes(text)]);
        var escaped = new StringBuilder("(");
        foreach (char c in text) escaped.Append(c is '(' or ')' or '\\' ? "\\" : "").Append(c);
        return escaped.Append(')').ToString();
    }

    public static string Hex(ReadOnlySpan<byte> bytes) => $"<{Convert.ToHexString(bytes)}>";

    /// <summary>A moment (7.9.4), in the time of its own place.</summary>
    public static string Date(DateTimeOffset time)
    {
        char sign = time.Offset < TimeSpan.Zero ? '-' : '+';
        return string.Create(CultureInfo.InvariantCulture, $"(D:{time:yyyyMMddHHmmss}{sign}{time.Offset.Duration():hh\\'mm}')");
    }

    /// <summary>A rectangle from its lower left to its upper right, to a hundred-thousandth of a point.</summary>
    public static string Rectangle(Box box) => string.Create(CultureInfo.InvariantCulture,
        $"[{box.X:0.#####} {box.Y:0.#####} {box.Right:0.#####} {box.Bottom:0.#####}]");

    public static string Matrix(Affine m) => Numbers(m.A, m.B, m.C, m.D, m.E, m.F);
}

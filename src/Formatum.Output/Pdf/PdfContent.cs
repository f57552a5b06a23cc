using System.Globalization;
using System.Text;
using Formatum.Core.Geometry;

namespace Formatum.Output.Pdf;

/// <summary>A content stream while it is made (ISO 32000-1, 7.8), and the resources that it names.</summary>
internal sealed class PdfContent
{
    private readonly StringBuilder _text = new();
    private readonly SortedDictionary<string, SortedDictionary<string, string>> _resources = new(StringComparer.Ordinal);

    public PdfContent Add(string operators)
    {
        _text.Append(operators).Append('\n');
        return this;
    }

    /// <summary>Numbers and the operator they go with.</summary>
    public PdfContent Add(string operation, params ReadOnlySpan<double> operands)
    {
        foreach (double operand in operands) _text.Append(PdfSyntax.Number(operand)).Append(' ');
        return Add(operation);
    }

    public PdfContent Save() => Add("q");

    public PdfContent Restore() => Add("Q");

    public PdfContent Concat(Affine map) => Add("cm", map.A, map.B, map.C, map.D, map.E, map.F);

    /// <summary>Names an object in the resources; the same object has the same name.</summary>
    /// <param name="category">"Font", "XObject", "ExtGState", "ColorSpace".</param>
    /// <param name="number">The object's number.</param>
    public string Resource(string category, int number)
    {
        string name = string.Create(CultureInfo.InvariantCulture, $"{category[0]}{number}");
        Known(category)[name] = PdfSyntax.Reference(number);
        return $"/{name}";
    }

    private SortedDictionary<string, string> Known(string category) =>
        _resources.TryGetValue(category, out var known) ? known : _resources[category] = new(StringComparer.Ordinal);

    public PdfContent State(int number) => Add($"{Resource("ExtGState", number)} gs");

    public PdfContent Show(int xObject) => Add($"{Resource("XObject", xObject)} Do");

    public string Resources() => $"<<{string.Concat(_resources.Select(c => $"/{c.Key}<<{string.Concat(c.Value.Select(r => $"/{r.Key} {r.Value}"))}>>"))}>>";

    public byte[] Bytes() => Encoding.Latin1.GetBytes(_text.ToString());
}

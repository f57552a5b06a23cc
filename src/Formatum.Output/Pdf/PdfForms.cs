using Formatum.Core.Geometry;

namespace Formatum.Output.Pdf;

/// <summary>Content that is drawn as one (ISO 32000-1, 8.10 and 11.6.6).</summary>
internal static class PdfForms
{
    /// <param name="file">The file.</param>
    /// <param name="content">What it draws.</param>
    /// <param name="bounds">What of it is seen, in its own points.</param>
    /// <param name="blending">The space in which its colours are mixed.</param>
    /// <param name="axes">From its own points to those it is shown in; null where they are the same.</param>
    public static int Add(PdfFile file, PdfContent content, Box bounds, string blending, Affine? axes = null) =>
        file.AddPacked($"/Type/XObject/Subtype/Form/BBox" +
        $"[{PdfSyntax.Numbers(bounds.X, bounds.Y, bounds.Right, bounds.Bottom)}]" +
        (axes is { } m ? $"/Matrix[{PdfSyntax.Numbers(m.A, m.B, m.C, m.D, m.E, m.F)}]" : "") + $"/Group<</S/Transparency/CS {blending}/I true>>/Resources" +
        $"{content.Resources()}", content.Bytes());
}

/// <summary>States of drawing (ISO 32000-1, 8.4.5), each once in a file.</summary>
internal sealed class PdfStates(PdfFile file)
{
    private readonly Dictionary<string, int> _known = [];

    public int Opacity(double opacity) => Of($"/CA {PdfSyntax.Number(opacity)}/ca {PdfSyntax.Number(opacity)}");

    /// <param name="opacity">How much covers, 0 to 1.</param>
    /// <param name="mode">How colours are mixed, by its name in 11.3.5.</param>
    public int Layer(double opacity, string mode) => Of($"/CA {PdfSyntax.Number(opacity)}/ca {PdfSyntax.Number(opacity)}/BM/{mode}");

    /// <summary>Inks print over what lies beneath, where they themselves are none (8.6.7).</summary>
    public int Overprint() => Of("/OP true/op true/OPM 1");

    private int Of(string entries) => _known.TryGetValue(entries, out int known) ? known : _known[entries] = file.Add($"<</Type/ExtGState{entries}>>");
}

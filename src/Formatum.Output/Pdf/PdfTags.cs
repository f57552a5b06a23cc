using System.Globalization;
using Formatum.Core.Composing;
using Formatum.Core.Filling;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

namespace Formatum.Output.Pdf;

/// <summary>What of the content is which part of the text, in the order it is read (ISO 32000-1, 14.7 and 14.8), for who has it read aloud.</summary>
internal sealed class PdfTags(PdfFile file, Publication publication)
{
    private sealed record Element(int Number, string Role, string More, int Page, int Content, int Rank);

    public const string Artifact = "/Artifact BMC";

    private const int DeepestHeading = 6;

    private readonly int _root = file.Reserve(), _document = file.Reserve();
    private readonly List<Element> _elements = [];
    private readonly List<List<int>> _contents = [];
    private Dictionary<int, int> _ranks = [];
    private int _page, _rank;

    /// <summary>Begins a sheet.</summary>
    /// <param name="page">The object of its page.</param>
    /// <param name="spread">What it shows.</param>
    /// <returns>What its page says as StructParents.</returns>
    public int Begin(int page, Spread spread)
    {
        _page = page;
        _contents.Add([]);
        _ranks = ReadingOrder.Of(publication, spread.FramesOf(publication).Select(f => f.Frame)).Select((f, i) => (f.Id, i)).ToDictionary(f => f.Id, f => f.i);
        return _contents.Count - 1;
    }

    /// <summary>Says whose content comes next.</summary>
    public void Frame(SceneFrame frame) => _rank = _ranks.GetValueOrDefault(frame.FrameId, -1);

    /// <summary>What a master prints on every page is no part of the text.</summary>
    private bool IsText => _rank >= 0;

    public string OpenPicture(LinkedImage image) => Open("Figure",
        $"/Alt {PdfSyntax.Text(image.Words)}");

    public string OpenParagraph(SetLine line)
    {
        int heading = line.Runs.FirstOrDefault(r => r.IsTyped)?.Style.Heading ?? 0;
        string? language = line.Runs.FirstOrDefault(r => r.IsTyped)?.Style.Language;
        return Open(heading > 0 ? $"H{Math.Min(heading, DeepestHeading).ToString(CultureInfo.InvariantCulture)}" : "P",
            language is null ? "" : $"/Lang {PdfSyntax.Text(language)}");
    }

    /// <summary>A frame that is drawn as one: its picture, or all of its words together.</summary>
    public string OpenWhole(SceneFrame frame) => frame.Image is { } image ? OpenPicture(image.Source)
        : frame.Text is { } text ? Open("P", $"/ActualText {PdfSyntax.Text(string.Join(' ', text.Lines.Select(l => l.Text)))}") : Artifact;

    private string Open(string role, string more)
    {
        if (!IsText) return Artifact;
        var contents = _contents[^1];
        int number = file.Reserve();
        contents.Add(number);
        _elements.Add(new(number, role, more, _page, contents.Count - 1, _rank));
        return string.Create(CultureInfo.InvariantCulture, $"/{role}<</MCID {contents.Count - 1}>>BDC");
    }

    /// <summary>Writes the tree.</summary>
    /// <returns>Its root.</returns>
    public int Write()
    {
        foreach (var e in _elements)
            file.Write(e.Number, string.Create(CultureInfo.InvariantCulture,
                $"<</Type/StructElem/S/{e.Role}/P {_document} 0 R/Pg {e.Page} 0 R/K {e.Content}{e.More}>>"));
        var inOrder = _elements.Select((e, i) => (Element: e, Index: i)).OrderBy(e => SheetOf(e.Element)).ThenBy(e => e.Element.Rank).ThenBy(e => e.Index);
        file.Write(_document, $"<</Type/StructElem/S/Document/P {PdfSyntax.Reference(_root)}/K[" +
            $"{string.Join(' ', inOrder.Select(e => PdfSyntax.Reference(e.Element.Number)))}]>>");
        string parents = string.Concat(_contents.Select((c, i) => string.Create(CultureInfo.InvariantCulture,
            $"{i}[{string.Join(' ', c.Select(PdfSyntax.Reference))}]")));
        file.Write(_root, $"<</Type/StructTreeRoot/K {PdfSyntax.Reference(_document)}/ParentTree<</Nums[{parents}]>>/ParentTreeNextKey {_contents.Count}>>");
        return _root;
    }

    private readonly Dictionary<int, int> _sheets = [];

    private int SheetOf(Element element) => _sheets.TryGetValue(element.Page, out int sheet) ? sheet : _sheets[element.Page] = _sheets.Count;
}

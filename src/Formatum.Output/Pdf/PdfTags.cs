using System.Globalization;
using Formatum.Core.Composing;
using Formatum.Core.Filling;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

namespace Formatum.Output.Pdf;

/// <summary>What of the content is which part of the text, in the order it is read (ISO 32000-1, 14.7 and 14.8), for who has it read aloud.</summary>
internal sealed class PdfTags(PdfFile file, Publication publication)
{
    /// <summary>A part of the text: its content on the page, and what is linked from it.</summary>
    private sealed record Element(int Number, string Role, string More, int Page, int Parent, int Rank)
    {
        public List<string> Kids { get; } = [];
    }

    public const string Artifact = "/Artifact BMC";

    private const int DeepestHeading = 6;

    private readonly int _root = file.Reserve(), _document = file.Reserve();
    private readonly List<Element> _elements = [];

    /// <summary>Of each sheet the elements of its marked content, and of each link its own (14.7.4.4).</summary>
    private readonly List<object> _parents = [];

    private readonly Dictionary<PdfLink, Element> _linked = new(ReferenceEqualityComparer.Instance);
    private Dictionary<int, int> _ranks = [];
    private ILookup<SetLine, PdfLink> _links = Enumerable.Empty<PdfLink>().ToLookup(l => l.Link.Line);
    private List<int> _contents = [];
    private Element? _paragraph;
    private int _page, _rank;

    /// <summary>Begins a sheet.</summary>
    /// <param name="page">The object of its page.</param>
    /// <param name="spread">What it shows.</param>
    /// <param name="links">What leads on from it.</param>
    /// <returns>What its page says as StructParents.</returns>
    public int Begin(int page, Spread spread, IEnumerable<PdfLink> links)
    {
        _page = page;
        _parents.Add(_contents = []);
        _links = links.ToLookup<PdfLink, SetLine>(l => l.Link.Line, ReferenceEqualityComparer.Instance);
        _ranks = ReadingOrder.Of(publication, spread.FramesOf(publication).Select(f => f.Frame)).Select((f, i) => (f.Id, i)).ToDictionary(f => f.Id, f => f.i);
        return _parents.Count - 1;
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

    /// <summary>What leads on from a line.</summary>
    public IEnumerable<PdfLink> LinksOn(SetLine line) => IsText ? _links[line] : [];

    /// <summary>Opens the words of a link, within the paragraph that was opened last.</summary>
    public string OpenLink(PdfLink link) => Opened(ElementOf(link, _paragraph));

    /// <summary>Opens once more the paragraph that was opened last.</summary>
    public string OpenAgain() => Opened(_paragraph!);

    /// <summary>Where a link stands in the tree, as its annotation says.</summary>
    public int ParentOf(PdfLink link)
    {
        _rank = _ranks.GetValueOrDefault(link.Link.Frame.FrameId, int.MaxValue);
        _parents.Add(ElementOf(link, null).Number);
        return _parents.Count - 1;
    }

    private Element ElementOf(PdfLink link, Element? parent)
    {
        if (_linked.TryGetValue(link, out var known)) return known;
        var element = _linked[link] = Add("Link", "", parent?.Number ?? _document);
        parent?.Kids.Add(PdfSyntax.Reference(element.Number));
        element.Kids.Add($"<</Type/OBJR/Obj {PdfSyntax.Reference(link.Number)}>>");
        return element;
    }

    private string Open(string role, string more) => IsText ? Opened(_paragraph = Add(role, more, _document)) : Artifact;

    private Element Add(string role, string more, int parent)
    {
        var element = new Element(file.Reserve(), role, more, _page, parent, _rank);
        _elements.Add(element);
        return element;
    }

    private string Opened(Element element)
    {
        element.Kids.Add(_contents.Count.ToString(CultureInfo.InvariantCulture));
        _contents.Add(element.Number);
        return string.Create(CultureInfo.InvariantCulture, $"/{element.Role}<</MCID {_contents.Count - 1}>>BDC");
    }

    /// <summary>Writes the tree.</summary>
    /// <returns>Its root.</returns>
    public int Write()
    {
        foreach (var e in _elements)
            file.Write(e.Number, $"<</Type/StructElem/S/{e.Role}/P {PdfSyntax.Reference(e.Parent)}/Pg {PdfSyntax.Reference(e.Page)}" +
                $"/K[{string.Join(' ', e.Kids)}]{e.More}>>");
        var inOrder = _elements.Where(e => e.Parent == _document).Select((e, i) => (Element: e, Index: i)).OrderBy(e => SheetOf(e.Element))
            .ThenBy(e => e.Element.Rank).ThenBy(e => e.Index);
        file.Write(_document, $"<</Type/StructElem/S/Document/P {PdfSyntax.Reference(_root)}/K[" +
            $"{string.Join(' ', inOrder.Select(e => PdfSyntax.Reference(e.Element.Number)))}]>>");
        string parents = string.Concat(_parents.Select((parent, i) => string.Create(CultureInfo.InvariantCulture, $"{i} ")
            + (parent is List<int> contents ? $"[{string.Join(' ', contents.Select(PdfSyntax.Reference))}]" : PdfSyntax.Reference((int)parent) + " ")));
        file.Write(_root, $"<</Type/StructTreeRoot/K {PdfSyntax.Reference(_document)}/ParentTree<</Nums[{parents}]>>/ParentTreeNextKey {_parents.Count}>>");
        return _root;
    }

    private readonly Dictionary<int, int> _sheets = [];

    private int SheetOf(Element element) => _sheets.TryGetValue(element.Page, out int sheet) ? sheet : _sheets[element.Page] = _sheets.Count;
}

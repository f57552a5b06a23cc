using UglyToad.PdfPig;
using UglyToad.PdfPig.Tokens;

namespace Formatum.PrintShop;

/// <summary>The objects of a PDF, looked up.</summary>
public sealed class PdfFile : IDisposable
{
    private const int DeepestTree = 40;

    private readonly PdfDocument _document;

    /// <exception cref="BadJob">It is no PDF, or a locked one.</exception>
    public PdfFile(Stream stream)
    {
        try
        {
            _document = PdfDocument.Open(stream, new ParsingOptions { UseLenientParsing = false });
        }
        catch (Exception e) when (e is not OutOfMemoryException)
        {
            throw new BadJob($"The file cannot be read as a PDF ({e.Message.TrimEnd('.')}). Send a PDF for print.");
        }
        if (_document.IsEncrypted) throw new BadJob("The file is encrypted. Send it open: nothing may stand between it and the press.");
    }

    public DictionaryToken Catalog => _document.Structure.Catalog.CatalogDictionary;

    public void Dispose() => _document.Dispose();

    /// <summary>What a token stands for, whether it is written here or elsewhere.</summary>
    public IToken? Direct(IToken? token) => token is IndirectReferenceToken reference ? Direct(_document.Structure.GetObject(reference.Data)?.Data) : token;

    public T? Get<T>(DictionaryToken? dictionary, string key) where T : class, IToken =>
        dictionary is not null && dictionary.TryGet(NameToken.Create(key), out var token) ? Direct(token) as T : null;

    public DictionaryToken? DictionaryOf(DictionaryToken? within, string key) => Direct(within is not null
        && within.TryGet(NameToken.Create(key), out var token) ? token : null) switch
    {
        DictionaryToken dictionary => dictionary,
        StreamToken stream => stream.StreamDictionary,
        _ => null,
    };

    public string? NameOf(DictionaryToken? within, string key) => Get<NameToken>(within, key)?.Data;

    public double[]? NumbersOf(DictionaryToken? within, string key) => Get<ArrayToken>(within, key) is { } array
        ? [.. array.Data.Select(t => (Direct(t) as NumericToken)?.Double ?? 0)] : null;

    public double NumberOf(DictionaryToken? within, string key) => Get<NumericToken>(within, key)?.Double ?? 0;

    public ReadOnlyMemory<byte> Decoded(StreamToken stream) => stream.Decode(_document.Structure.FilterProvider, _document.Structure.TokenScanner);

    /// <summary>The content of a page, its streams one behind the other.</summary>
    public ReadOnlyMemory<byte> ContentOf(DictionaryToken page)
    {
        var streams = Direct(page.TryGet(NameToken.Create("Contents"), out var token) ? token : null) switch
        {
            StreamToken one => [one],
            ArrayToken many => [.. many.Data.Select(Direct).OfType<StreamToken>()],
            _ => Array.Empty<StreamToken>(),
        };
        return streams.Length == 1 ? Decoded(streams[0]) : streams.SelectMany(s => Decoded(s).ToArray().Append((byte)'\n')).ToArray();
    }

    /// <summary>The pages in order, each with what it has from the tree above it (7.7.3.4).</summary>
    public IEnumerable<DictionaryToken> Pages() => Pages(DictionaryOf(Catalog, "Pages"), DictionaryToken.Empty, DeepestTree);

    private static readonly string[] Inherited = ["Resources", "MediaBox", "CropBox"];

    private IEnumerable<DictionaryToken> Pages(DictionaryToken? node, DictionaryToken above, int deep)
    {
        if (node is null || deep == 0) yield break;
        foreach (string key in Inherited)
            if (node.TryGet(NameToken.Create(key), out var own)) above = above.With(key, own);
        if (Get<ArrayToken>(node, "Kids") is { } kids)
        {
            foreach (var kid in kids.Data)
                foreach (var page in Pages(Direct(kid) as DictionaryToken, above, deep - 1)) yield return page;
        }
        else yield return Inherited.Aggregate(node, (page, key) => above.TryGet(NameToken.Create(key), out var from) ? page.With(key, from) : page);
    }
}

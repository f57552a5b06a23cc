using Formatum.Core.Stories;

namespace Formatum.Core.Typesetting;

/// <summary>
/// Paragraphs as they were measured and broken into lines, kept from one setting of a text to the next: while it is typed, all but one stay as they are. What
/// is kept decides nothing, since it is found by all that it rests on.
/// </summary>
internal sealed class ParagraphCache
{
    /// <summary>So many characters are kept of all texts together: some 100 MB.</summary>
    private const int MostCharacters = 600_000;

    private const int MostTexts = 64;

    private static readonly Lock Gate = new();
    private static readonly LinkedList<ParagraphCache> Idle = new();

    private readonly int _key;
    private readonly ITypefaces _typefaces;
    private Dictionary<StyledParagraph, MeasuredParagraph> _known = [], _used = [];
    private int _characters;

    private ParagraphCache(int key, ITypefaces typefaces) => (_key, _typefaces) = (key, typefaces);

    /// <summary>What is kept of a text, for one to use alone; give it back with <see cref="Return"/>.</summary>
    public static ParagraphCache Take(int key, ITypefaces typefaces)
    {
        lock (Gate)
        {
            for (var node = Idle.First; node is not null; node = node.Next)
            {
                if (node.Value._key != key || !ReferenceEquals(node.Value._typefaces, typefaces)) continue;
                Idle.Remove(node);
                return node.Value;
            }
        }
        return new(key, typefaces);
    }

    /// <summary>Keeps what was used since it was taken; what has not been used longest goes where there is too much.</summary>
    public void Return()
    {
        (_known, _used, _characters) = (_used, [], _used.Keys.Sum(p => p.Text.Length));
        lock (Gate)
        {
            Idle.AddFirst(this);
            for (long all = Idle.Sum(c => (long)c._characters); (all > MostCharacters || Idle.Count > MostTexts)
                && Idle.Last is { } last; Idle.RemoveLast()) all -= last.Value._characters;
        }
    }

    /// <summary>How the text was set the last time; null where it was not.</summary>
    public FlowTrail? Trail { get; set; }

    /// <summary>Keeps a paragraph that was set as before.</summary>
    public void Keep(StyledParagraph paragraph)
    {
        if (_known.TryGetValue(paragraph, out var known)) _used[paragraph] = known;
    }

    public MeasuredParagraph Of(StyledParagraph paragraph)
    {
        if (_used.TryGetValue(paragraph, out var known)) return known;
        if (!_known.TryGetValue(paragraph, out known)) known = new(paragraph, _typefaces);
        return _used[paragraph] = known;
    }
}

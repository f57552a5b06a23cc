namespace Formatum.Core.Stories;

/// <summary>What is looked for in texts.</summary>
/// <param name="Find">The characters, within one paragraph.</param>
/// <param name="MatchCase">Whether capitals and small letters are told apart.</param>
/// <param name="WholeWords">Whether only whole words count.</param>
/// <param name="StyleId">Only in paragraphs of this style, or in characters of it; null for all.</param>
public sealed record WordSearch(string Find, bool MatchCase = false, bool WholeWords = false, int? StyleId = null)
{
    public const int Longest = 1000;

    /// <summary>Where it stands in a text, from the beginning on; none overlap.</summary>
    public IEnumerable<TextRange> In(FrameText text)
    {
        int begin = 0;
        foreach (var paragraph in text.Paragraphs)
        {
            foreach (int at in In(paragraph.Text).Where(at => StyleId is null || paragraph.StyleId == StyleId || AllIn(paragraph, at)))
                yield return new(begin + at, begin + at + Find.Length);
            begin += paragraph.Text.Length + 1;
        }
    }

    private bool AllIn(Paragraph paragraph, int at)
    {
        int start = 0;
        foreach (var run in paragraph.Runs)
        {
            int end = start + run.Text.Length;
            if (start < at + Find.Length && end > at && run.StyleId != StyleId) return false;
            start = end;
        }
        return true;
    }

    private IEnumerable<int> In(string text)
    {
        if (Find.Length == 0) yield break;
        var comparison = MatchCase ? StringComparison.Ordinal : StringComparison.OrdinalIgnoreCase;
        for (int from = 0; from <= text.Length && text.IndexOf(Find, from, comparison) is >= 0 and var at;)
        {
            bool counts = !WholeWords || (IsEdge(text, at - 1) && IsEdge(text, at + Find.Length));
            if (counts) yield return at;
            from = at + (counts ? Find.Length : 1);
        }
    }

    private static bool IsEdge(string text, int at) => at < 0 || at >= text.Length || !char.IsLetterOrDigit(text[at]);
}

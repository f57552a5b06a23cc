using System.Globalization;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Checking.Kinds;

internal sealed class GlyphsMissing : KindCheck
{
    /// <summary>So many of the characters are shown.</summary>
    private const int Shown = 8;

    public override FindingKind Kind => FindingKind.GlyphsMissing;
    public override string Title => "Characters missing in the font";
    public override string Mark => "no glyph";
    public override string Why => "Where a font has no shape for a character, an empty box is printed.";

    internal override IEnumerable<Finding> OfText(CheckedText text)
    {
        if (text.Set.Missing == 0) yield break;
        var characters = text.Runs.SelectMany(Lacking).Distinct().Take(Shown);
        yield return On(text, $"No font has {string.Join(", ", characters)}.", text.Set.Missing,
            new Figure("Characters", text.Set.Missing, 0, FigureUnit.Count));
    }

    private static IEnumerable<string> Lacking(SetRun run) => run.Glyphs.Where(g => g.Id == 0 && g.Cluster < run.Text.Length)
        .Select(g => StringInfo.GetNextTextElement(run.Text, g.Cluster)).Select(c => $"\u201c{c}\u201d (U+{c.EnumerateRunes().First().Value:X4})");
}

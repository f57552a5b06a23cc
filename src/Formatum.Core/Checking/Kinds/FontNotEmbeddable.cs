using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class FontNotEmbeddable : KindCheck
{
    public override FindingKind Kind => FindingKind.FontNotEmbeddable;
    public override string Title => "Font goes into no document";
    public override string Mark => "font as shapes";
    public override string Why => "Its maker does not let it be embedded: its letters are printed as shapes, and cannot be searched or copied.";

    internal override IEnumerable<Finding> OfText(CheckedText text)
    {
        var hashes = text.Runs.Select(r => r.Style).Where(s => s.Files is not null).Select(s => s.Files!.Of(s.Bold, s.Italic)).Distinct();
        foreach (string hash in hashes)
            if (text.Publication.Fonts.Values.FirstOrDefault(f => f.ContentHash == hash) is { Embedding: FontEmbedding.Restricted } font)
                yield return On(font.Key, $"{font.Family} {font.Face.ToLowerInvariant()}", "", 1) with { Places = [text.Place] };
    }
}

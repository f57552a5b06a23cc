namespace Formatum.Core.Stories;

/// <summary>The files of a family that a publication brought itself, by their contents' hashes. A face the family lacks is the nearest it has.</summary>
public sealed record FontFiles(string Regular, string Bold, string Italic, string BoldItalic)
{
    public string Of(bool bold, bool italic) => (bold, italic) switch
    {
        (true, true) => BoldItalic,
        (true, false) => Bold,
        (false, true) => Italic,
        _ => Regular,
    };
}

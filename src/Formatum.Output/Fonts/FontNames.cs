using System.Buffers.Binary;
using System.Text;

namespace Formatum.Output.Fonts;

/// <summary>What a font says of itself (OpenType 1.9, "name").</summary>
internal sealed class FontNames
{
    public const int Family = 1, Licence = 13;

    private const int RecordBytes = 12, Windows = 3, Macintosh = 1, English = 0x409;

    private readonly Dictionary<int, (int Rank, string Text)> _names = [];

    public FontNames(byte[] table)
    {
        if (table.Length < 6) return;
        int count = BinaryPrimitives.ReadUInt16BigEndian(table.AsSpan(2)), strings = BinaryPrimitives.ReadUInt16BigEndian(table.AsSpan(4));
        for (int i = 0; i < count && 6 + (i + 1) * RecordBytes <= table.Length; i++)
        {
            var record = table.AsSpan(6 + i * RecordBytes, RecordBytes);
            int At(int index, ReadOnlySpan<byte> of) => BinaryPrimitives.ReadUInt16BigEndian(of[(index * 2)..]);
            int platform = At(0, record), language = At(2, record), id = At(3, record), length = At(4, record), from = strings + At(5, record);
            if (from + length > table.Length || platform is not (Windows or Macintosh)) continue;
            int rank = platform == Windows ? language == English ? 0 : 1 : 2;
            if (_names.TryGetValue(id, out var known) && known.Rank <= rank) continue;
            string text = (platform == Windows ? Encoding.BigEndianUnicode : Encoding.Latin1).GetString(table.AsSpan(from, length));
            string clean = new([.. text.EnumerateRunes().Where(r => !Rune.IsControl(r)).SelectMany(r => r.ToString())]);
            if (clean.Trim().Length > 0) _names[id] = (rank, clean.Trim());
        }
    }

    /// <summary>The name of an id, in English where it is there; null where there is none.</summary>
    public string? this[int id] => _names.TryGetValue(id, out var name) ? name.Text : null;
}

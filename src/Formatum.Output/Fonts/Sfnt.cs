using System.Buffers.Binary;
using System.Text;

namespace Formatum.Output.Fonts;

/// <summary>The tables of a font file (OpenType 1.9, "Organization of an OpenType font"), each held to lie within the file.</summary>
public sealed class Sfnt
{
    public const uint TrueType = 0x00010000, OpenType = 0x4F54544F, AppleTrue = 0x74727565, Collection = 0x74746366;

    private const int HeaderBytes = 12, RecordBytes = 16, MostTables = 256;

    /// <summary>Where the file's checksum stands in the table "head", and what it completes the sum of all to.</summary>
    private const int ChecksumAt = 8;
    private const uint Whole = 0xB1B0AFBA;

    private readonly SortedDictionary<string, byte[]> _tables;

    public Sfnt(uint flavour, IEnumerable<KeyValuePair<string, byte[]>> tables)
    {
        Flavour = flavour;
        _tables = new(StringComparer.Ordinal);
        foreach (var (tag, table) in tables)
            if (!_tables.TryAdd(tag, table)) throw new BadFont($"It holds the table {tag} twice. Get the font anew from where it came from.");
    }

    public uint Flavour { get; }

    public IReadOnlyCollection<string> Tags => _tables.Keys;

    public byte[]? Find(string tag) => _tables.GetValueOrDefault(tag);

    /// <exception cref="BadFont">There is no such table, or it is shorter.</exception>
    public byte[] Get(string tag, int least)
    {
        if (Find(tag) is not { } table)
            throw new BadFont($"It lacks the table \u201c{tag.Trim()}\u201d, which every font has. Get it anew from where it came from.");
        return table.Length >= least ? table : throw new BadFont($"Its table \u201c{tag.Trim()}\u201d is cut short. Get it anew from where it came from.");
    }

    /// <summary>Reads a font that is not compressed.</summary>
    /// <exception cref="BadFont">It is none, or damaged.</exception>
    public static Sfnt Read(byte[] file)
    {
        if (file.Length < HeaderBytes) throw new BadFont("It is no font: the file is too short for one.");
        int count = BinaryPrimitives.ReadUInt16BigEndian(file.AsSpan(4));
        if (count is 0 or > MostTables || HeaderBytes + count * RecordBytes > file.Length)
            throw new BadFont("It is damaged: its list of tables is cut short. Get it anew from where it came from.");
        var tables = new List<KeyValuePair<string, byte[]>>();
        for (int i = 0; i < count; i++)
        {
            var record = file.AsSpan(HeaderBytes + i * RecordBytes, RecordBytes);
            string tag = Encoding.Latin1.GetString(record[..4]);
            uint at = BinaryPrimitives.ReadUInt32BigEndian(record[8..]), length = BinaryPrimitives.ReadUInt32BigEndian(record[12..]);
            if ((ulong)at + length > (ulong)file.Length)
                throw new BadFont($"It is damaged: its table \u201c{tag.Trim()}\u201d lies outside the file. Get it anew from where it came from.");
            tables.Add(new(tag, file.AsSpan((int)at, (int)length).ToArray()));
        }
        return new(BinaryPrimitives.ReadUInt32BigEndian(file), tables);
    }

    /// <summary>The font as a file, with its checksums.</summary>
    public byte[] ToFile()
    {
        // A signature speaks of another file.
        var tables = _tables.Where(t => t.Key != "DSIG").ToList();
        using var output = new MemoryStream();
        Span<byte> header = stackalloc byte[HeaderBytes];
        int log = (int)Math.Log2(tables.Count), range = (1 << log) * RecordBytes;
        BinaryPrimitives.WriteUInt32BigEndian(header, Flavour);
        BinaryPrimitives.WriteUInt16BigEndian(header[4..], (ushort)tables.Count);
        BinaryPrimitives.WriteUInt16BigEndian(header[6..], (ushort)range);
        BinaryPrimitives.WriteUInt16BigEndian(header[8..], (ushort)log);
        BinaryPrimitives.WriteUInt16BigEndian(header[10..], (ushort)(tables.Count * RecordBytes - range));
        output.Write(header);
        int at = HeaderBytes + tables.Count * RecordBytes, headAt = -1;
        Span<byte> record = stackalloc byte[RecordBytes];
        foreach (var (tag, table) in tables)
        {
            if (tag == "head" && table.Length >= ChecksumAt + 4)
            {
                table.AsSpan(ChecksumAt, 4).Clear();
                headAt = at;
            }
            Encoding.Latin1.GetBytes(tag, record);
            BinaryPrimitives.WriteUInt32BigEndian(record[4..], Sum(table));
            BinaryPrimitives.WriteUInt32BigEndian(record[8..], (uint)at);
            BinaryPrimitives.WriteUInt32BigEndian(record[12..], (uint)table.Length);
            output.Write(record);
            at += Padded(table.Length);
        }
        foreach (var (_, table) in tables)
        {
            output.Write(table);
            for (int i = table.Length; i < Padded(table.Length); i++) output.WriteByte(0);
        }
        byte[] file = output.ToArray();
        if (headAt >= 0) BinaryPrimitives.WriteUInt32BigEndian(file.AsSpan(headAt + ChecksumAt), unchecked(Whole - Sum(file)));
        return file;
    }

    private static int Padded(int length) => (length + 3) & ~3;

    private static uint Sum(ReadOnlySpan<byte> bytes)
    {
        uint sum = 0;
        Span<byte> last = stackalloc byte[4];
        for (; bytes.Length >= 4; bytes = bytes[4..]) sum = unchecked(sum + BinaryPrimitives.ReadUInt32BigEndian(bytes));
        bytes.CopyTo(last);
        return unchecked(sum + BinaryPrimitives.ReadUInt32BigEndian(last));
    }
}

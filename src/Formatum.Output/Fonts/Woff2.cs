using System.Buffers.Binary;
using System.IO.Compression;
using System.Text;

namespace Formatum.Output.Fonts;

/// <summary>Fonts compressed for the web, unpacked: WOFF 2.0 (W3C Recommendation), with section numbers of it.</summary>
internal static class Woff2
{
    public const uint Signature = 0x774F4632;

    /// <summary>5.2: tags that are written as a number.</summary>
    private static readonly string[] KnownTags =
    [
        "cmap", "head", "hhea", "hmtx", "maxp", "name", "OS/2", "post", "cvt ", "fpgm", "glyf", "loca", "prep", "CFF ", "VORG", "EBDT", "EBLC", "gasp", "hdmx",
        "kern", "LTSH", "PCLT", "VDMX", "vhea", "vmtx", "BASE", "GDEF", "GPOS", "GSUB", "EBSC", "JSTF", "MATH", "CBDT", "CBLC", "COLR", "CPAL", "SVG ", "sbix",
        "acnt", "avar", "bdat", "bloc", "bsln", "cvar", "fdsc", "feat", "fmtx", "fvar", "gvar", "hsty", "just", "lcar", "mort", "morx", "opbd", "prop", "trak",
        "Zapf", "Silf", "Glat", "Gloc", "Feat", "Sill",
    ];

    private const int OwnTag = 63, MostTables = 256;

    private sealed record Entry(string Tag, bool Transformed, int Length);

    /// <exception cref="BadFont">It is damaged, or swells beyond measure.</exception>
    public static Sfnt Unpack(byte[] file, long most)
    {
        var reader = new BigEndianReader(file);
        reader.Bytes(4);
        uint flavour = reader.U32();
        if (flavour == Sfnt.Collection) throw new BadFont("It holds several fonts in one file. Bring each in as a file of its own.");
        reader.Bytes(4);
        int count = reader.U16();
        reader.Bytes(6);
        int packed = reader.Length();
        reader.Bytes(24);
        if (count is 0 or > MostTables) throw new BadFont(Woff.Damaged);
        var entries = new List<Entry>();
        for (int i = 0; i < count; i++) entries.Add(EntryFrom(ref reader));
        long all = entries.Sum(e => (long)e.Length);
        if (all > most) throw new BadFont($"It would swell to more than {most >> 20} MB. It was not taken in.");
        byte[] content = new byte[all];
        if (!BrotliDecoder.TryDecompress(reader.Bytes(packed), content, out int written) || written != all) throw new BadFont(Woff.Damaged);
        return Restored(flavour, entries, content);
    }

    /// <summary>4.1, the table directory.</summary>
    private static Entry EntryFrom(ref BigEndianReader reader)
    {
        byte flags = reader.U8();
        int known = flags & 0x3F, version = flags >> 6;
        string tag = known == OwnTag ? Encoding.Latin1.GetString(reader.Bytes(4)) : KnownTags[known];
        uint length = reader.Base128();
        // Outlines are transformed unless said otherwise, and nothing else is.
        bool transformed = tag is "glyf" or "loca" ? version == 0 : version != 0;
        if (transformed && (tag is not ("glyf" or "loca" or "hmtx") || (tag == "hmtx" && version != 1))) throw new BadFont(Woff.Damaged);
        if (transformed) length = reader.Base128();
        return length <= int.MaxValue ? new(tag, transformed, (int)length) : throw new BadFont(Woff.Damaged);
    }

    private static Sfnt Restored(uint flavour, List<Entry> entries, byte[] content)
    {
        var tables = new Dictionary<string, byte[]>();
        int at = 0;
        foreach (var entry in entries)
        {
            if (!tables.TryAdd(entry.Tag, content.AsSpan(at, entry.Length).ToArray())) throw new BadFont(Woff.Damaged);
            at += entry.Length;
        }
        if (entries.Any(e => e is { Tag: "glyf", Transformed: true }))
        {
            var head = tables.GetValueOrDefault("head");
            if (head is not { Length: >= 54 }) throw new BadFont(Woff.Damaged);
            using var outlines = Woff2Outlines.Restore(tables["glyf"]);
            (tables["glyf"], tables["loca"]) = (outlines.Glyphs, outlines.Locations);
            BinaryPrimitives.WriteUInt16BigEndian(head.AsSpan(50), (ushort)(outlines.LongLocations ? 1 : 0));
            if (entries.Any(e => e is { Tag: "hmtx", Transformed: true })) tables["hmtx"] = Metrics(tables, outlines.LeftEdges);
        }
        else if (entries.Any(e => e.Transformed)) throw new BadFont(Woff.Damaged);
        return new(flavour, tables);
    }

    /// <summary>5.4: side bearings that are the left edges of the outlines were left out.</summary>
    private static byte[] Metrics(Dictionary<string, byte[]> tables, IReadOnlyList<short> leftEdges)
    {
        if (tables.GetValueOrDefault("hhea") is not { Length: >= 36 } hhea) throw new BadFont(Woff.Damaged);
        int full = BinaryPrimitives.ReadUInt16BigEndian(hhea.AsSpan(34)), count = leftEdges.Count;
        if (full == 0 || full > count) throw new BadFont(Woff.Damaged);
        var reader = new BigEndianReader(tables["hmtx"]);
        byte flags = reader.U8();
        if ((flags & 0xFC) != 0) throw new BadFont(Woff.Damaged);
        ushort[] advances = new ushort[full];
        for (int i = 0; i < full; i++) advances[i] = reader.U16();
        byte[] metrics = new byte[full * 4 + (count - full) * 2];
        for (int i = 0, at = 0; i < count; i++)
        {
            if (i < full)
            {
                BinaryPrimitives.WriteUInt16BigEndian(metrics.AsSpan(at), advances[i]);
                at += 2;
            }
            bool left = (flags & (i < full ? 1 : 2)) == 0;
            BinaryPrimitives.WriteInt16BigEndian(metrics.AsSpan(at), left ? reader.I16() : leftEdges[i]);
            at += 2;
        }
        return metrics;
    }
}

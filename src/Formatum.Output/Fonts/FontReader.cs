using System.Buffers.Binary;
using System.Security.Cryptography;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using SkiaSharp;

namespace Formatum.Output.Fonts;

/// <summary>A font as it is kept, and what there is to know of it.</summary>
public sealed record ReadFont(OwnFont Font, byte[] File);

/// <summary>
/// Reads font files: TrueType and OpenType, as they are or compressed as WOFF and WOFF2. What comes of one is one face, or two of a font whose weight varies;
/// each was drawn once.
/// </summary>
public static class FontReader
{
    /// <summary>The table "OS/2" up to fsSelection.</summary>
    private const int StyleBytes = 64;

    /// <exception cref="BadFont">It cannot be used; the message says why.</exception>
    public static IReadOnlyList<ReadFont> Read(byte[] file, string name)
    {
        if (file.LongLength > OwnFont.MostBytes) throw new BadFont($"It has {file.LongLength >> 20} MB; {OwnFont.MostBytes >> 20} MB is the most.");
        var font = Unpacked(file);
        if (font.Find("glyf") is null && font.Find("CFF ") is null && font.Find("CFF2") is null)
            throw new BadFont("It holds no outlines, only pictures of letters. Bring in a TrueType or OpenType font.");
        byte[] plain = font.ToFile();
        if (!VariableFont.Is(font)) return [Face(font, plain, name, null)];
        return [.. VariableFont.Faces(plain, font).Select(i => (Font: Sfnt.Read(i.File), i.IsBold)).Select(i => Face(i.Font, i.Font.ToFile(), name, i.IsBold))];
    }

    private static Sfnt Unpacked(byte[] file) => file.Length < 4 ? throw NoFont() : BinaryPrimitives.ReadUInt32BigEndian(file) switch
    {
        Woff2.Signature => Woff2.Unpack(file, OwnFont.MostBytes),
        Woff.Signature => Woff.Unpack(file, OwnFont.MostBytes),
        Sfnt.Collection => throw new BadFont("It holds several fonts in one file. Bring each in as a file of its own."),
        Sfnt.TrueType or Sfnt.OpenType or Sfnt.AppleTrue => Sfnt.Read(file),
        _ => throw NoFont(),
    };

    private static BadFont NoFont() => new("It is no font. TrueType (.ttf), OpenType (.otf), WOFF and WOFF2 are taken.");

    private static ReadFont Face(Sfnt font, byte[] file, string name, bool? bold)
    {
        Draw(file, font);
        var names = new FontNames(font.Find("name") ?? []);
        var style = font.Find("OS/2");
        bool speaks = style is { Length: >= StyleBytes };
        ushort macStyle = BinaryPrimitives.ReadUInt16BigEndian(font.Get("head", 54).AsSpan(44));
        ushort selection = speaks ? BinaryPrimitives.ReadUInt16BigEndian(style.AsSpan(62)) : (ushort)0;
        ushort type = speaks ? BinaryPrimitives.ReadUInt16BigEndian(style.AsSpan(8)) : (ushort)0;
        return new(new()
        {
            Id = 0,
            Family = Cut(names[FontNames.Family] ?? Path.GetFileNameWithoutExtension(name), TextSettings.LongestFamily),
            Bold = bold ?? (speaks ? (selection & 0x20) != 0 : (macStyle & 1) != 0),
            Italic = speaks ? (selection & 0x01) != 0 : (macStyle & 2) != 0,
            Name = Cut(name, OwnFont.LongestName),
            Format = font.Find("glyf") is null ? "otf" : "ttf",
            ContentHash = Convert.ToHexStringLower(SHA256.HashData(file)),
            Bytes = file.Length,
            Embedding = EmbeddingOf(type),
            WholeOnly = (type & 0x100) != 0,
            Glyphs = BinaryPrimitives.ReadUInt16BigEndian(font.Get("maxp", 6).AsSpan(4)),
            Licence = names[FontNames.Licence] is { } licence ? Cut(licence, OwnFont.LongestLicence) : null,
        }, file);
    }

    /// <summary>What fsType allows: the least restrictive of its bits speaks, and where only pictures of letters may go into documents, outlines may not
    /// (OpenType 1.9, "OS/2").</summary>
    internal static FontEmbedding EmbeddingOf(ushort type) => (type & 0x200) != 0 ? FontEmbedding.Restricted
        : (type & 0x8) != 0 ? FontEmbedding.Editable : (type & 0x4) != 0 ? FontEmbedding.PreviewAndPrint : (type & 0x2) != 0 ? FontEmbedding.Restricted
        : FontEmbedding.Installable;

    private static string Cut(string text, int most) => text.Length <= most ? text : text[..(char.IsHighSurrogate(text[most - 1]) ? most - 1 : most)];

    /// <summary>Shapes with it and draws all of it once, as it will be: what fails, fails here.</summary>
    private static void Draw(byte[] file, Sfnt font)
    {
        foreach (var (tag, least) in new[] { ("cmap", 4), ("head", 54), ("hhea", 36), ("hmtx", 4), ("maxp", 6) }) font.Get(tag, least);
        int unitsPerEm = BinaryPrimitives.ReadUInt16BigEndian(font.Get("head", 54).AsSpan(18));
        if (unitsPerEm is < 16 or > 16384) throw new BadFont("It is damaged: its measures are out of all bounds. Get it anew from where it came from.");
        using var data = SKData.CreateCopy(file);
        using var typeface = SKTypeface.FromData(data)
            ?? throw new BadFont("It is damaged: nothing can be drawn with it. Get it anew from where it came from.");
        if (typeface.GlyphCount < 1) throw new BadFont("It holds no glyphs.");
        using var drawn = new SKFont(typeface, 100);
        int outlined = 0;
        for (int glyph = 0; glyph < typeface.GlyphCount; glyph++)
        {
            using var path = drawn.GetGlyphPath((ushort)glyph);
            if (path is { IsEmpty: false }) outlined++;
        }
        if (outlined == 0) throw new BadFont("None of its glyphs has an outline. Bring in a TrueType or OpenType font.");
        if (LoadedFace.Of(file).WidthOf("Hamburgefonts 123") < 0)
            throw new BadFont("It is damaged: no text can be set with it. Get it anew from where it came from.");
    }
}

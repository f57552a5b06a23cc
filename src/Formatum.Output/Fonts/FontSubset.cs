using System.Runtime.InteropServices;
using HarfBuzzSharp;

namespace Formatum.Output.Fonts;

/// <summary>A font with no more glyphs than are shown, each under its own number.</summary>
internal static partial class FontSubset
{
    private const string Library = "libHarfBuzzSharp";

    /// <summary>Numbers of glyphs stay, .notdef keeps its outline, and glyphs that only rules of the font would lead to are left out.</summary>
    private const uint Flags = RetainNumbers | KeepNotdef | NoLayoutClosure;

    private const uint RetainNumbers = 0x2, KeepNotdef = 0x40, NoLayoutClosure = 0x200;
    private const int DropTables = 3, LayoutFeatures = 6;

    /// <summary>What places and joins glyphs has done its work.</summary>
    private static readonly string[] Dropped = ["GSUB", "GPOS", "GDEF", "BASE", "JSTF", "MATH", "STAT", "kern", "morx", "DSIG", "post"];

    /// <summary>Tables that a PDF reads of a TrueType font (ISO 32000-1, 9.9).</summary>
    private static readonly string[] TrueTypeTables = ["glyf", "loca", "head", "hhea", "hmtx", "maxp", "cvt ", "fpgm", "prep"];

    /// <summary>A font file with no more than certain characters need, for who shapes them anew: with all that places and joins their glyphs.</summary>
    /// <param name="file">The font file.</param>
    /// <param name="characters">The code points that are shown.</param>
    /// <exception cref="BadFont">It cannot be reduced.</exception>
    public static byte[] ForCharacters(byte[] file, IEnumerable<int> characters) => Reduced(file, input =>
    {
        hb_subset_input_set_flags(input, KeepNotdef);
        nint kept = hb_subset_input_unicode_set(input), features = hb_subset_input_set(input, LayoutFeatures);
        foreach (int character in characters) hb_set_add(kept, (uint)character);
        // All of them: a style may switch any.
        hb_set_clear(features);
        hb_set_invert(features);
    });

    /// <summary>The font's program as a PDF holds it: a TrueType file, or the table "CFF ".</summary>
    /// <param name="file">The font file.</param>
    /// <param name="glyphs">The glyphs that are shown.</param>
    /// <exception cref="BadFont">It cannot be reduced.</exception>
    public static (byte[] Program, bool IsCff) Of(byte[] file, IEnumerable<ushort> glyphs)
    {
        var font = Sfnt.Read(Reduced(file, input =>
        {
            hb_subset_input_set_flags(input, Flags);
            nint kept = hb_subset_input_glyph_set(input), dropped = hb_subset_input_set(input, DropTables);
            foreach (ushort glyph in glyphs) hb_set_add(kept, glyph);
            foreach (string table in Dropped) hb_set_add(dropped, Tag.Parse(table));
        }));
        if (font.Find("CFF ") is { } compact) return (compact, true);
        return (new Sfnt(Sfnt.TrueType, TrueTypeTables.Where(t => font.Find(t) is not null).Select(t => new KeyValuePair<string, byte[]>(t, font.Find(t)!)))
            .ToFile(), false);
    }

    private static byte[] Reduced(byte[] file, Action<nint> choose)
    {
        var pinned = GCHandle.Alloc(file, GCHandleType.Pinned);
        try
        {
            using var blob = new Blob(pinned.AddrOfPinnedObject(), file.Length, MemoryMode.ReadOnly);
            using var face = new Face(blob, 0);
            nint input = VariableFont.hb_subset_input_create_or_fail(), reduced = 0;
            if (input == 0) throw new BadFont("There is no memory left to read it. Try again later.");
            try
            {
                choose(input);
                reduced = VariableFont.hb_subset_or_fail(face.Handle, input);
                return reduced != 0 ? VariableFont.FileOf(reduced) : throw new BadFont("It could not be reduced to the characters that are shown.");
            }
            finally
            {
                VariableFont.hb_face_destroy(reduced);
                VariableFont.hb_subset_input_destroy(input);
            }
        }
        finally
        {
            pinned.Free();
        }
    }

    [LibraryImport(Library)]
    private static partial void hb_subset_input_set_flags(nint input, uint flags);

    [LibraryImport(Library)]
    private static partial nint hb_subset_input_glyph_set(nint input);

    [LibraryImport(Library)]
    private static partial nint hb_subset_input_set(nint input, int which);

    [LibraryImport(Library)]
    private static partial nint hb_subset_input_unicode_set(nint input);

    [LibraryImport(Library)]
    private static partial void hb_set_clear(nint set);

    [LibraryImport(Library)]
    private static partial void hb_set_invert(nint set);

    [LibraryImport(Library)]
    private static partial void hb_set_add(nint set, uint value);
}

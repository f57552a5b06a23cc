using System.Buffers.Binary;
using System.Runtime.InteropServices;
using System.Text;
using HarfBuzzSharp;

namespace Formatum.Output.Fonts;

/// <summary>Fonts whose outlines vary along axes (OpenType 1.9, "fvar"), held at one place of them, so that screen and print show the same.</summary>
internal static partial class VariableFont
{
    private const string Library = "libHarfBuzzSharp", Weight = "wght";

    private const double Regular = 400, Bold = 700;

    /// <summary>One face of it: the file, and whether it is the bold one; null where the file itself says so.</summary>
    public readonly record struct Instance(byte[] File, bool? IsBold);

    public static bool Is(Sfnt font) => font.Find("fvar") is not null;

    /// <summary>Its regular face and, where its weight goes so far, its bold one.</summary>
    /// <exception cref="BadFont">It cannot be held.</exception>
    public static IEnumerable<Instance> Faces(byte[] file, Sfnt font)
    {
        if (WeightOf(font.Get("fvar", 16)) is not var (least, most))
        {
            yield return new(Held(file, null), null);
            yield break;
        }
        yield return new(Held(file, Math.Clamp(Regular, least, most)), most >= Bold ? false : null);
        if (least < Bold && most >= Bold) yield return new(Held(file, Bold), true);
    }

    /// <summary>How far its weight goes; null where it has no such axis.</summary>
    private static (double Least, double Most)? WeightOf(byte[] table)
    {
        int at = BinaryPrimitives.ReadUInt16BigEndian(table.AsSpan(4)), count = BinaryPrimitives.ReadUInt16BigEndian(table.AsSpan(8));
        int size = BinaryPrimitives.ReadUInt16BigEndian(table.AsSpan(10));
        for (int i = 0; i < count && size >= 20 && at + (i + 1) * size <= table.Length; i++)
        {
            var axis = table.AsSpan(at + i * size, size);
            if (Encoding.Latin1.GetString(axis[..4]) != Weight) continue;
            double Fixed(int offset, ReadOnlySpan<byte> of) => BinaryPrimitives.ReadInt32BigEndian(of[offset..]) / 65536.0;
            return (Fixed(4, axis), Fixed(12, axis));
        }
        return null;
    }

    private static byte[] Held(byte[] file, double? weight)
    {
        var pinned = GCHandle.Alloc(file, GCHandleType.Pinned);
        try
        {
            using var blob = new Blob(pinned.AddrOfPinnedObject(), file.Length, MemoryMode.ReadOnly);
            using var face = new Face(blob, 0);
            nint input = hb_subset_input_create_or_fail(), held = 0;
            if (input == 0) throw new BadFont("There is no memory left to read it. Try again later.");
            try
            {
                hb_subset_input_keep_everything(input);
                bool done = hb_subset_input_pin_all_axes_to_default(input, face.Handle) != 0;
                if (weight is { } chosen) done &= hb_subset_input_pin_axis_location(input, face.Handle, Tag.Parse(Weight), (float)chosen) != 0;
                held = done ? hb_subset_or_fail(face.Handle, input) : 0;
                return held != 0 ? FileOf(held) : throw new BadFont("Its outlines vary, and could not be held still. Save its faces as fonts of their own.");
            }
            finally
            {
                hb_face_destroy(held);
                hb_subset_input_destroy(input);
            }
        }
        finally
        {
            pinned.Free();
        }
    }

    internal static byte[] FileOf(nint face)
    {
        nint blob = hb_face_reference_blob(face);
        try
        {
            nint data = hb_blob_get_data(blob, out uint length);
            byte[] file = new byte[length];
            Marshal.Copy(data, file, 0, file.Length);
            return file;
        }
        finally
        {
            hb_blob_destroy(blob);
        }
    }

    [LibraryImport(Library)]
    internal static partial nint hb_subset_input_create_or_fail();

    [LibraryImport(Library)]
    internal static partial void hb_subset_input_destroy(nint input);

    [LibraryImport(Library)]
    private static partial void hb_subset_input_keep_everything(nint input);

    [LibraryImport(Library)]
    private static partial int hb_subset_input_pin_all_axes_to_default(nint input, nint face);

    [LibraryImport(Library)]
    private static partial int hb_subset_input_pin_axis_location(nint input, nint face, uint axis, float value);

    [LibraryImport(Library)]
    internal static partial nint hb_subset_or_fail(nint face, nint input);

    [LibraryImport(Library)]
    private static partial nint hb_face_reference_blob(nint face);

    [LibraryImport(Library)]
    internal static partial void hb_face_destroy(nint face);

    [LibraryImport(Library)]
    private static partial nint hb_blob_get_data(nint blob, out uint length);

    [LibraryImport(Library)]
    private static partial void hb_blob_destroy(nint blob);
}

using System.Buffers.Binary;

namespace Formatum.Output.Fonts;

/// <summary>Reads numbers one after the other; what reaches beyond the end is refused.</summary>
internal ref struct BigEndianReader(ReadOnlySpan<byte> bytes)
{
    private ReadOnlySpan<byte> _left = bytes;

    public readonly int Left => _left.Length;

    /// <exception cref="BadFont">There are not so many.</exception>
    public ReadOnlySpan<byte> Bytes(int count)
    {
        if (count < 0 || count > _left.Length) throw new BadFont(Woff.Damaged);
        var taken = _left[..count];
        _left = _left[count..];
        return taken;
    }

    public byte U8() => Bytes(1)[0];

    public ushort U16() => BinaryPrimitives.ReadUInt16BigEndian(Bytes(2));

    public short I16() => BinaryPrimitives.ReadInt16BigEndian(Bytes(2));

    public uint U32() => BinaryPrimitives.ReadUInt32BigEndian(Bytes(4));

    /// <summary>A length, which is never beyond what an array holds.</summary>
    public int Length() => U32() is <= int.MaxValue and var length ? (int)length : throw new BadFont(Woff.Damaged);

    /// <summary>UIntBase128 of WOFF2, 4.1: seven bits a byte, the highest first, without zeros before it.</summary>
    public uint Base128()
    {
        uint value = 0;
        for (int i = 0; i < 5; i++)
        {
            byte b = U8();
            if ((i == 0 && b == 0x80) || (value & 0xFE000000) != 0) throw new BadFont(Woff.Damaged);
            value = (value << 7) | (uint)(b & 0x7F);
            if ((b & 0x80) == 0) return value;
        }
        throw new BadFont(Woff.Damaged);
    }

    /// <summary>255UInt16 of WOFF2, 6.1.1: mostly one byte.</summary>
    public int Short255() => U8() switch
    {
        253 => U16(),
        254 => U8() + 506,
        255 => U8() + 253,
        var small => small,
    };
}

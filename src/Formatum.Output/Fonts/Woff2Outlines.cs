using System.Buffers.Binary;

namespace Formatum.Output.Fonts;

/// <summary>The tables "glyf" and "loca", put together again from the streams that WOFF 2.0 takes them apart into (5.1 to 5.3 of it).</summary>
internal sealed class Woff2Outlines : IDisposable
{
    private const ushort Composite = 0xFFFF;

    /// <summary>Flags of a component, and of a point (OpenType 1.9, "glyf").</summary>
    private const int WordArguments = 0x1, Scale = 0x8, More = 0x20, TwoScales = 0x40, FourScales = 0x80, Instructions = 0x100;
    private const byte OnCurve = 1, ShortX = 2, ShortY = 4, SameX = 16, SameY = 32, Overlaps = 64;

    private readonly MemoryStream _glyphs = new();
    private readonly List<int> _locations = [0];
    private readonly List<short> _leftEdges = [];

    public byte[] Glyphs { get; private set; } = [];
    public byte[] Locations { get; private set; } = [];
    public bool LongLocations { get; private set; }

    /// <summary>Where each outline begins from the left.</summary>
    public IReadOnlyList<short> LeftEdges => _leftEdges;

    private readonly record struct Point(int X, int Y, bool OnCurve);

    /// <summary>The streams of a transformed "glyf", each read on from where it was left.</summary>
    private ref struct Streams
    {
        public BigEndianReader Contours, Points, Flags, Glyphs, Components, Boxes, Code;
        public ReadOnlySpan<byte> HasBox, Overlap;
    }

    /// <exception cref="BadFont">It is damaged.</exception>
    public static Woff2Outlines Restore(byte[] transformed)
    {
        var reader = new BigEndianReader(transformed);
        reader.Bytes(2);
        int options = reader.U16(), count = reader.U16(), format = reader.U16();
        Span<int> sizes = stackalloc int[7];
        for (int i = 0; i < sizes.Length; i++) sizes[i] = reader.Length();
        var streams = new Streams
        {
            Contours = new(reader.Bytes(sizes[0])),
            Points = new(reader.Bytes(sizes[1])),
            Flags = new(reader.Bytes(sizes[2])),
            Glyphs = new(reader.Bytes(sizes[3])),
            Components = new(reader.Bytes(sizes[4])),
        };
        var boxes = new BigEndianReader(reader.Bytes(sizes[5]));
        streams.HasBox = boxes.Bytes((count + 31) / 32 * 4);
        streams.Boxes = boxes;
        streams.Code = new(reader.Bytes(sizes[6]));
        if ((options & 1) != 0) streams.Overlap = reader.Bytes((count + 7) / 8);
        var outlines = new Woff2Outlines();
        for (int glyph = 0; glyph < count; glyph++) outlines.Add(glyph, ref streams);
        outlines.Finish(format);
        return outlines;
    }

    private static bool Bit(ReadOnlySpan<byte> map, int index) => !map.IsEmpty && (map[index >> 3] & (0x80 >> (index & 7))) != 0;

    private void Add(int glyph, ref Streams streams)
    {
        int contours = streams.Contours.U16();
        bool hasBox = Bit(streams.HasBox, glyph);
        if (contours == 0)
        {
            if (hasBox) throw new BadFont(Woff.Damaged);
            _leftEdges.Add(0);
        }
        else if (contours == Composite)
        {
            if (!hasBox) throw new BadFont(Woff.Damaged);
            AddComposite(ref streams);
        }
        else AddSimple(contours, hasBox, Bit(streams.Overlap, glyph), ref streams);
        while ((_glyphs.Length & 3) != 0) _glyphs.WriteByte(0);
        _locations.Add((int)_glyphs.Length);
    }

    private void AddComposite(ref Streams streams)
    {
        Put(-1);
        PutBox(streams.Boxes.Bytes(8));
        bool code = false;
        for (int flags = More; (flags & More) != 0;)
        {
            flags = streams.Components.U16();
            code |= (flags & Instructions) != 0;
            Put((short)flags);
            int more = 2 + ((flags & WordArguments) != 0 ? 4 : 2);
            more += (flags & Scale) != 0 ? 2 : (flags & TwoScales) != 0 ? 4 : (flags & FourScales) != 0 ? 8 : 0;
            _glyphs.Write(streams.Components.Bytes(more));
        }
        if (code) AddCode(ref streams);
    }

    private void AddCode(ref Streams streams)
    {
        int length = streams.Glyphs.Short255();
        Put((short)length);
        _glyphs.Write(streams.Code.Bytes(length));
    }

    private void AddSimple(int contours, bool hasBox, bool overlaps, ref Streams streams)
    {
        Span<byte> ends = new byte[contours * 2];
        int count = 0;
        for (int i = 0; i < contours; i++)
        {
            count += streams.Points.Short255();
            if (count is 0 or > ushort.MaxValue) throw new BadFont(Woff.Damaged);
            BinaryPrimitives.WriteUInt16BigEndian(ends[(i * 2)..], (ushort)(count - 1));
        }
        var points = new Point[count];
        int x = 0, y = 0;
        for (int i = 0; i < count; i++)
        {
            var (dx, dy, on) = Step(ref streams);
            points[i] = new(x += dx, y += dy, on);
        }
        Put((short)contours);
        if (hasBox) PutBox(streams.Boxes.Bytes(8));
        else PutBox(points);
        _glyphs.Write(ends);
        AddCode(ref streams);
        PutPoints(points, overlaps);
    }

    /// <summary>5.2: a step from one point to the next, in one of 128 forms.</summary>
    private static (int X, int Y, bool OnCurve) Step(ref Streams streams)
    {
        byte given = streams.Flags.U8();
        int form = given & 0x7F;
        var more = streams.Glyphs.Bytes(form < 84 ? 1 : form < 120 ? 2 : form < 124 ? 3 : 4);
        static int Signed(int sign, int size) => (sign & 1) != 0 ? size : -size;
        var (x, y) = form switch
        {
            < 10 => (0, Signed(form, ((form & 14) << 7) + more[0])),
            < 20 => (Signed(form, (((form - 10) & 14) << 7) + more[0]), 0),
            < 84 => (Signed(form, 1 + ((form - 20) & 0x30) + (more[0] >> 4)), Signed(form >> 1, 1 + (((form - 20) & 0x0C) << 2) + (more[0] & 0x0F))),
            < 120 => (Signed(form, 1 + ((form - 84) / 12 << 8) + more[0]), Signed(form >> 1, 1 + ((form - 84) % 12 >> 2 << 8) + more[1])),
            < 124 => (Signed(form, (more[0] << 4) + (more[1] >> 4)), Signed(form >> 1, ((more[1] & 0x0F) << 8) + more[2])),
            _ => (Signed(form, (more[0] << 8) + more[1]), Signed(form >> 1, (more[2] << 8) + more[3])),
        };
        return (x, y, given < 0x80);
    }

    private void Put(short value)
    {
        Span<byte> bytes = stackalloc byte[2];
        BinaryPrimitives.WriteInt16BigEndian(bytes, value);
        _glyphs.Write(bytes);
    }

    private void PutBox(ReadOnlySpan<byte> box)
    {
        _leftEdges.Add(BinaryPrimitives.ReadInt16BigEndian(box));
        _glyphs.Write(box);
    }

    private void PutBox(Point[] points)
    {
        _leftEdges.Add((short)points.Min(p => p.X));
        foreach (int edge in new[] { points.Min(p => p.X), points.Min(p => p.Y), points.Max(p => p.X), points.Max(p => p.Y) }) Put((short)edge);
    }

    private void PutPoints(Point[] points, bool overlaps)
    {
        using MemoryStream xs = new(), ys = new();
        var from = default(Point);
        for (int i = 0; i < points.Length; i++)
        {
            int flags = (points[i].OnCurve ? OnCurve : 0) | (overlaps && i == 0 ? Overlaps : 0);
            flags |= PutStep(xs, points[i].X - from.X, ShortX, SameX) | PutStep(ys, points[i].Y - from.Y, ShortY, SameY);
            _glyphs.WriteByte((byte)flags);
            from = points[i];
        }
        xs.WriteTo(_glyphs);
        ys.WriteTo(_glyphs);
    }

    /// <returns>The flags that say how the step was written.</returns>
    private static int PutStep(MemoryStream steps, int step, byte small, byte same)
    {
        if (step == 0) return same;
        if (Math.Abs(step) < 256)
        {
            steps.WriteByte((byte)Math.Abs(step));
            return small | (step > 0 ? same : 0);
        }
        steps.WriteByte((byte)(step >> 8));
        steps.WriteByte((byte)step);
        return 0;
    }

    public void Dispose() => _glyphs.Dispose();

    private void Finish(int format)
    {
        Glyphs = _glyphs.ToArray();
        LongLocations = format != 0 || Glyphs.Length > 2 * ushort.MaxValue;
        Locations = new byte[_locations.Count * (LongLocations ? 4 : 2)];
        for (int i = 0; i < _locations.Count; i++)
        {
            if (LongLocations) BinaryPrimitives.WriteInt32BigEndian(Locations.AsSpan(i * 4), _locations[i]);
            else BinaryPrimitives.WriteUInt16BigEndian(Locations.AsSpan(i * 2), (ushort)(_locations[i] / 2));
        }
    }
}

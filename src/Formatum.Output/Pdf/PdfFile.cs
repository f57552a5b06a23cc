using System.Globalization;
using System.IO.Compression;
using System.IO.Hashing;
using System.Text;

namespace Formatum.Output.Pdf;

/// <summary>A PDF while it is written, object by object (ISO 32000-1, 7.5): what was written is let go at once.</summary>
internal sealed class PdfFile : IDisposable
{
    private const int Buffered = 1 << 16, CopiedAtOnce = 1 << 20;

    private readonly FileStream _stream;

    /// <summary>Names the file by its content: the same pages give the same name.</summary>
    private readonly XxHash128 _content = new();

    /// <summary>Where each object begins; below 0 where it is still to be written. The first is never one.</summary>
    private readonly List<long> _offsets = [-1];

    private long _position;

    /// <param name="path">The file; what is there is replaced.</param>
    public PdfFile(string path)
    {
        _stream = new(path, FileMode.Create, FileAccess.Write, FileShare.Read, Buffered);
        // A comment of bytes above 127 says that the file is no text (7.5.2).
        Put("%PDF-1.6\n%"u8);
        Put([0xE2, 0xE3, 0xCF, 0xD3, (byte)'\n']);
    }

    /// <summary>A number for an object that is written later.</summary>
    public int Reserve()
    {
        _offsets.Add(-1);
        return _offsets.Count - 1;
    }

    /// <summary>Writes an object.</summary>
    public int Add(string body)
    {
        int number = Reserve();
        Write(number, body);
        return number;
    }

    /// <summary>Writes an object under a number that was reserved.</summary>
    public void Write(int number, string body)
    {
        Begin(number);
        Put(body);
        Put("\nendobj\n"u8);
    }

    /// <summary>Writes a stream as it is.</summary>
    /// <param name="entries">What its dictionary holds besides its length.</param>
    /// <param name="data">Its bytes, encoded as the dictionary says.</param>
    public int AddStream(string entries, ReadOnlySpan<byte> data)
    {
        int number = Reserve();
        BeginStream(number, entries, data.Length);
        Put(data);
        EndStream();
        return number;
    }

    /// <summary>Writes a stream, compressed.</summary>
    public int AddPacked(string entries, ReadOnlySpan<byte> data)
    {
        int number = Reserve();
        WritePacked(number, entries, data);
        return number;
    }

    /// <summary>Writes a stream, compressed, under a number that was reserved.</summary>
    public void WritePacked(int number, string entries, ReadOnlySpan<byte> data)
    {
        byte[] packed = Packed(data);
        BeginStream(number, $"{entries}/Filter/FlateDecode", packed.Length);
        Put(packed);
        EndStream();
    }

    public static byte[] Packed(ReadOnlySpan<byte> data)
    {
        using var packed = new MemoryStream();
        using (var zlib = new ZLibStream(packed, CompressionLevel.Optimal, leaveOpen: true)) zlib.Write(data);
        return packed.ToArray();
    }

    /// <summary>Writes a stream of so many bytes of another, from where that stands.</summary>
    /// <exception cref="EndOfStreamException">It has fewer.</exception>
    public int AddCopy(string entries, Stream source, long length)
    {
        int number = Reserve();
        BeginStream(number, entries, length);
        var buffer = new byte[(int)Math.Min(length, CopiedAtOnce)];
        for (long left = length; left > 0;)
        {
            int read = source.Read(buffer, 0, (int)Math.Min(left, buffer.Length));
            if (read == 0) throw new EndOfStreamException();
            Put(buffer.AsSpan(0, read));
            left -= read;
        }
        EndStream();
        return number;
    }

    private void BeginStream(int number, string entries, long length)
    {
        Begin(number);
        Put(string.Create(CultureInfo.InvariantCulture, $"<<{entries}/Length {length}>>\nstream\n"));
    }

    private void EndStream() => Put("\nendstream\nendobj\n"u8);

    private void Begin(int number)
    {
        _offsets[number] = _position;
        Put(string.Create(CultureInfo.InvariantCulture, $"{number} 0 obj\n"));
    }

    /// <summary>The file's identity so far (14.4), by what was written.</summary>
    public byte[] Identity() => _content.GetCurrentHash();

    /// <summary>Writes what finds the objects, and ends the file.</summary>
    /// <param name="root">The catalog.</param>
    /// <param name="info">The information dictionary.</param>
    /// <param name="identity">The file's identity.</param>
    public void End(int root, int info, ReadOnlySpan<byte> identity)
    {
        long at = _position;
        var table = new StringBuilder();
        table.Append(CultureInfo.InvariantCulture, $"xref\n0 {_offsets.Count}\n0000000000 65535 f \n");
        if (_offsets.Skip(1).Any(o => o < 0)) throw new InvalidOperationException("An object was not written.");
        foreach (long offset in _offsets.Skip(1)) table.Append(CultureInfo.InvariantCulture, $"{offset:0000000000} 00000 n \n");
        string id = PdfSyntax.Hex(identity);
        table.Append(CultureInfo.InvariantCulture, $"trailer\n<</Size {_offsets.Count}/Root {root} 0 R/Info {info} 0 R/ID[{id}{id}]>>\n" +
            $"startxref\n{at}\n%%EOF\n");
        Put(table.ToString());
        try
        {
            _stream.Flush();
        }
        catch (IOException e)
        {
            throw new NotWritten(e);
        }
    }

    private void Put(string text) => Put(Encoding.Latin1.GetBytes(text));

    /// <exception cref="NotWritten">The disk is full.</exception>
    private void Put(ReadOnlySpan<byte> bytes)
    {
        try
        {
            _stream.Write(bytes);
        }
        catch (IOException e)
        {
            throw new NotWritten(e);
        }
        _content.Append(bytes);
        _position += bytes.Length;
    }

    public void Dispose()
    {
        try
        {
            _stream.Dispose();
        }
        catch (IOException)
        {
            // What could not be flushed was told before.
        }
    }
}

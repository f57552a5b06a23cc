using System.IO.Compression;
using System.Text;

namespace Formatum.Output.Books;

/// <summary>The container of a book while it is written (EPUB 3.2, Open Container Format).</summary>
internal sealed class BookFile : IDisposable
{
    public const string Folder = "EPUB";

    /// <summary>Years that a ZIP can tell (APPNOTE 4.4.6).</summary>
    private const int FirstYear = 1980, LastYear = 2107;

    private readonly ZipArchive _zip;
    private readonly DateTimeOffset _time;

    /// <summary>What the book is made of, as its package lists it.</summary>
    private readonly List<(string Id, string Path, string Type, string Properties)> _items = [];

    /// <param name="path">The file; what is there is replaced.</param>
    /// <param name="time">When it is made.</param>
    public BookFile(string path, DateTimeOffset time)
    {
        _time = time.Year is >= FirstYear and <= LastYear ? time : new(FirstYear, 1, 1, 0, 0, 0, TimeSpan.Zero);
        _zip = new(new FileStream(path, FileMode.Create), ZipArchiveMode.Create);
        // First and as it is, so that the kind of file can be told from its beginning (OCF, 4.3).
        Write("mimetype", "application/epub+zip"u8.ToArray(), CompressionLevel.NoCompression);
        Write("META-INF/container.xml", Encoding.UTF8.GetBytes($"""
            <?xml version="1.0" encoding="UTF-8"?>
            <container version="1.0" xmlns="urn:oasis:names:tc:opendocument:xmlns:container"><rootfiles><rootfile full-path="{Folder}/package.opf"
            media-type="application/oebps-package+xml"/></rootfiles></container>
            """), CompressionLevel.Optimal);
    }

    public IEnumerable<(string Id, string Path, string Type, string Properties)> Items => _items;

    /// <summary>Adds a piece of the book.</summary>
    /// <param name="path">Where it lies in the book's folder.</param>
    /// <param name="type">Its media type.</param>
    /// <param name="content">What is in it.</param>
    /// <param name="properties">What the package says of it besides.</param>
    /// <returns>By what the package calls it.</returns>
    public string Add(string path, string type, byte[] content, string properties = "")
    {
        string id = path.Replace('/', '-');
        _items.Add((id, path, type, properties));
        Write($"{Folder}/{path}", content, type is "image/jpeg" or "image/png" ? CompressionLevel.NoCompression : CompressionLevel.Optimal);
        return id;
    }

    public string Add(string path, string type, string content, string properties = "") => Add(path, type, Encoding.UTF8.GetBytes(content), properties);

    /// <summary>Writes the package, which lists all that was added.</summary>
    public void End(string package) => Write($"{Folder}/package.opf", Encoding.UTF8.GetBytes(package), CompressionLevel.Optimal);

    private void Write(string path, byte[] content, CompressionLevel level)
    {
        var entry = _zip.CreateEntry(path, level);
        entry.LastWriteTime = _time;
        using var into = entry.Open();
        into.Write(content);
    }

    public void Dispose() => _zip.Dispose();
}

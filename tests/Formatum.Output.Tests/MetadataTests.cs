using Formatum.Imaging;
using Formatum.Testing;

namespace Formatum.Output.Tests;

/// <summary>What files say about themselves, against exiftool on the same files; and the formats that are read beside the usual ones.</summary>
public sealed class MetadataTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    [Theory]
    [InlineData("xmp.jpg", "-XMP-dc:Title=Blue mug", "-XMP-dc:Description=A mug, glazed twice: \u201cTwilight\u201d", "-XMP:Credit=Brackenfold Kilns")]
    [InlineData("iptc.jpg", "-IPTC:ObjectName=Blue mug", "-IPTC:Caption-Abstract=A mug glazed twice", "-IPTC:Credit=Brackenfold Kilns")]
    [InlineData("iptc.tif", "-IPTC:ObjectName=Blue mug", "-IPTC:Caption-Abstract=A mug glazed twice", "-IPTC:Credit=Brackenfold Kilns")]
    [InlineData("both.jpg", "-XMP-dc:Title=Newer", "-IPTC:ObjectName=Older", "-EXIF:ImageDescription=From the camera")]
    [InlineData("xmp.png", "-XMP-dc:Title=Blue mug", "-XMP-dc:Description=A mug", "-XMP:Credit=Kilns")]
    public void Title_caption_and_credit_are_those_exiftool_reads(string file, params string[] tags)
    {
        using (var picture = TestPictures.Quarters(60, 40)) TestPictures.Save(picture, _shop.Folder[file], 300);
        Tool.Run("exiftool", ["-q", "-overwrite_original", "-codedcharacterset=utf8", .. tags, _shop.Folder[file]]);
        var image = _shop.Reader.Read(_shop.Folder[file], file);
        string? Theirs(params string[] names) => names.Select(n => Tool.Run("exiftool", "-s3", $"-{n}", _shop.Folder[file]).Trim())
            .FirstOrDefault(t => t.Length > 0);
        image.Title.ShouldBe(Theirs("XMP-dc:Title", "IPTC:ObjectName"));
        image.Caption.ShouldBe(Theirs("XMP-dc:Description", "IPTC:Caption-Abstract", "EXIF:ImageDescription"));
        image.Credit.ShouldBe(Theirs("XMP:Credit", "IPTC:Credit"));
        image.Title.ShouldNotBeNull();
    }

    [Theory]
    [InlineData("gif")]
    [InlineData("avif")]
    public void More_formats_are_read_and_printed(string format)
    {
        string path = _shop.Folder["q." + format];
        using (var picture = TestPictures.Quarters(120, 80))
        {
            if (format == "gif") picture.Gifsave(path);
            else picture.Heifsave(path, compression: NetVips.Enums.ForeignHeifCompression.Av1, lossless: true);
        }
        var image = _shop.Reader.Read(path, "q." + format);
        (image.Format, image.WidthPx, image.HeightPx).ShouldBe((format, 120, 80));
        var p = Workshop.Link(Core.Publications.Publication.Create(Workshop.A4(), 1), image);
        p = Workshop.Do(p, new Core.Edits.MakeFrame { Page = 1, Box = new(0, 0, 120, 80), ImageId = Workshop.IdOf(p, image.Name) });
        PdfWriter.Write(p, new(_shop.Previews), new(Bleed: false), _shop.Folder["q.pdf"]);
        Tool.Run("pdftoppm", "-r", "72", "-png", _shop.Folder["q.pdf"], _shop.Folder["q"]);
        using var paper = NetVips.Image.Pngload(_shop.Folder["q-1.png"]);
        var corner = paper.Getpoint(30, 20);
        (corner[0], corner[1] < 60, corner[2] < 60).ShouldBe((corner[0] > 200 ? corner[0] : 200, true, true));
    }
}

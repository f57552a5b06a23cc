using System.Text;
using Formatum.Imaging;
using Formatum.Testing;
using NetVips;

namespace Formatum.Output.Tests;

public sealed class PictureReaderTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private string Written(string name, byte[] content)
    {
        File.WriteAllBytes(_shop.Folder[name], content);
        return _shop.Folder[name];
    }

    private string Refusal(string name, byte[] content) => Should.Throw<BadPicture>(() => _shop.Reader.Read(Written(name, content), name)).Message;

    private string Refusal(string name, string content) => Refusal(name, Encoding.UTF8.GetBytes(content));

    [Theory]
    [InlineData("a.jpg", "jpeg")]
    [InlineData("a.png", "png")]
    [InlineData("a.tif", "tiff")]
    [InlineData("a.webp", "webp")]
    public void Raster_formats_are_read_with_their_size_and_resolution(string name, string format)
    {
        var image = _shop.Quarters(name, 300, 200, 240);
        (image.Format, image.WidthPx, image.HeightPx, image.Colour).ShouldBe((format, 300, 200, "RGB"));
        // WebP has no place for a resolution but its EXIF block; the library writes it there.
        image.StoredPpiX!.Value.ShouldBe(240, 0.5);
        image.ContentHash.ShouldBe(Tool.Run("sha256sum", _shop.Folder[name]).Split(' ')[0]);
        foreach (int size in PreviewStore.Sizes) File.Exists(_shop.Previews.Find(image.ContentHash, size)).ShouldBeTrue();
    }

    [Theory]
    [InlineData(SkiaSharp.SKEncodedImageFormat.Jpeg)]
    [InlineData(SkiaSharp.SKEncodedImageFormat.Png)]
    [InlineData(SkiaSharp.SKEncodedImageFormat.Webp)]
    public void No_stored_resolution_is_told_apart_from_a_stored_one(SkiaSharp.SKEncodedImageFormat format)
    {
        // This encoder stores none.
        using var bitmap = new SkiaSharp.SKBitmap(30, 20);
        using var encoded = bitmap.Encode(format, 90);
        _shop.Reader.Read(Written("a", encoded.ToArray()), "a").StoredPpiX.ShouldBeNull();
    }

    [Fact]
    public void Millimetres_of_a_drawing_are_millimetres()
    {
        var image = _shop.Reader.Read(Written("mm.svg", Encoding.UTF8.GetBytes("<svg xmlns='http://www.w3.org/2000/svg' width='25.4mm' height='50.8mm' " +
            "viewBox='0 0 1 2'><rect width='1' height='1'/></svg>")), "mm.svg");
        (image.WidthPx, image.HeightPx).ShouldBe((96, 192));
        image.Picture(72).NaturalWidth.ShouldBe(72, 1e-9);
    }

    [Fact]
    public void A_drawing_is_read_at_96_to_the_inch()
    {
        var image = _shop.Reader.Read(Written("a.svg", Encoding.UTF8.GetBytes("<svg xmlns='http://www.w3.org/2000/svg' width='200' height='100'><circle " +
            "r='40' cx='50' cy='50'/></svg>")), "a.svg");
        (image.WidthPx, image.HeightPx, image.StoredPpiX, image.HasAlpha).ShouldBe((200, 100, 96, true));
        using var preview = Image.Pngload(_shop.Previews.Find(image.ContentHash, 1600)!);
        preview.Width.ShouldBe(1600);
    }

    [Fact]
    public void A_picture_under_another_formats_name_is_told_by_its_content()
    {
        using var picture = TestPictures.Quarters(30, 20);
        TestPictures.Save(picture, _shop.Folder["real.jpg"]);
        _shop.Reader.Read(Written("misnamed.png", File.ReadAllBytes(_shop.Folder["real.jpg"])), "misnamed.png").Format.ShouldBe("jpeg");
    }

    [Fact]
    public void CMYK_is_told_and_shown_in_its_colours()
    {
        Vips.Prepare();
        using var cyan = Image.Black(60, 40, bands: 4).Linear([1, 1, 1, 1], [255.0, 0, 0, 0]).Cast(Enums.BandFormat.Uchar)
            .Copy(interpretation: Enums.Interpretation.Cmyk);
        cyan.Jpegsave(_shop.Folder["cmyk.jpg"], q: 95);
        var image = _shop.Reader.Read(_shop.Folder["cmyk.jpg"], "cmyk.jpg");
        image.Colour.ShouldBe("CMYK");
        using var preview = Image.Jpegload(_shop.Previews.Find(image.ContentHash, 240)!);
        var pixel = preview.Getpoint(30, 20);
        pixel[0].ShouldBeLessThan(80);
        pixel[2].ShouldBeGreaterThan(180);
    }

    [Fact]
    public void A_truncated_picture_is_found_out_whatever_its_format()
    {
        foreach (string name in new[] { "t.jpg", "t.png", "t.tif", "t.webp" })
        {
            using var picture = Image.Gaussnoise(600, 400, mean: 128, sigma: 40).Cast(Enums.BandFormat.Uchar)
                .Bandjoin([Image.Black(600, 400), Image.Black(600, 400)]).Copy(interpretation: Enums.Interpretation.Srgb);
            TestPictures.Save(picture, _shop.Folder["whole" + name]);
            var bytes = File.ReadAllBytes(_shop.Folder["whole" + name]);
            string message = Refusal(name, bytes[..(bytes.Length / 2)]);
            message.ShouldContain("broken or cut short");
            message.ShouldNotContain(_shop.Folder.Path);
        }
    }

    [Fact]
    public void What_is_no_picture_is_told_for_what_it_is()
    {
        Refusal("notes.png", "Dear printer, please find enclosed").ShouldContain("it holds text");
        Refusal("nothing.jpg", []).ShouldContain("0 bytes");
        Refusal("paper.png", "%PDF-1.7 ...").ShouldContain("it holds a PDF");
        Refusal("archive.jpg", "PK\x03\x04....").ShouldContain("a ZIP archive");
        Refusal("noise.jpg", [1, 2, 3, 0, 200, 100]).ShouldContain("something else");
    }

    /// <summary>The header alone, as PNG (ISO/IEC 15948, 11.2.2) lays it out, claims 3,600 megapixels: it must be refused unread.</summary>
    [Fact]
    public void An_enormous_picture_is_refused_by_its_header()
    {
        using var small = TestPictures.Quarters(4, 4);
        var bytes = File.ReadAllBytes(TestPictures.Save(small, _shop.Folder["bomb.png"]));
        System.Buffers.Binary.BinaryPrimitives.WriteInt32BigEndian(bytes.AsSpan(16), 60_000);
        System.Buffers.Binary.BinaryPrimitives.WriteInt32BigEndian(bytes.AsSpan(20), 60_000);
        System.Buffers.Binary.BinaryPrimitives.WriteUInt32BigEndian(bytes.AsSpan(29), Crc(bytes.AsSpan(12, 17)));
        Refusal("bomb.png", bytes).ShouldContain("60000 x 60000 pixels, 3600 megapixels");
    }

    private static uint Crc(ReadOnlySpan<byte> bytes)
    {
        uint crc = 0xFFFFFFFF;
        foreach (byte b in bytes)
        {
            crc ^= b;
            for (int k = 0; k < 8; k++) crc = (crc & 1) != 0 ? 0xEDB88320 ^ (crc >> 1) : crc >> 1;
        }
        return ~crc;
    }

    [Theory]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>", "script")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg' onload='x()'/>", "script")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><image href='file:///etc/passwd'/></svg>", "outside itself")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg' xmlns:x='http://www.w3.org/1999/xlink'><image x:href='http://example.org/a.png'/></svg>",
        "outside itself")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><rect fill='url(http://example.org/#p)'/></svg>", "outside itself")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><style>@import 'a.css';</style></svg>", "outside itself")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><foreignObject/></svg>", "embeds other documents")]
    [InlineData("<!DOCTYPE svg [<!ENTITY a 'aaaaaaaaaa'><!ENTITY b '&a;&a;&a;'>]><svg xmlns='http://www.w3.org/2000/svg'><text>&b;</text></svg>", "entities")]
    [InlineData("<?xml-stylesheet href='a.css'?><svg xmlns='http://www.w3.org/2000/svg'/>", "outside itself")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><g>", "not well-formed")]
    [InlineData("<html><svg xmlns='http://www.w3.org/2000/svg'/></html>", "its root is <html>")]
    public void Drawings_that_could_do_harm_are_refused(string svg, string reason) => Refusal("a.svg", svg).ShouldContain(reason);

    [Theory]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'><defs><linearGradient id='g'/></defs><rect width='9' height='9' " +
        "fill='url(#g)'/></svg>")]
    [InlineData("<!DOCTYPE svg PUBLIC '-//W3C//DTD SVG 1.1//EN' 'http://www.w3.org/Graphics/SVG/1.1/DTD/svg11.dtd'><svg " +
        "xmlns='http://www.w3.org/2000/svg' width='9' height='9'><rect width='5' height='5'/></svg>")]
    public void Usual_drawings_come_in(string svg) => _shop.Reader.Read(Written("ok.svg", Encoding.UTF8.GetBytes(svg)), "ok.svg").WidthPx.ShouldBe(9);

    [Fact]
    public void A_file_over_the_limit_is_refused_unread() =>
        Should.Throw<BadPicture>(() => new PictureReader(new PictureLimits(MostBytes: 10 << 20), _shop.Previews)
            .Read(Written("big.jpg", new byte[11 << 20]), "big.jpg")).Message.ShouldContain("10 MB");

    [Fact]
    public void The_original_is_never_altered()
    {
        var image = _shop.Quarters("a.jpg", 3000, 2000, 300, 6);
        (File.GetLastWriteTimeUtc(image.Path), new FileInfo(image.Path).Length).ShouldBe((image.Modified.UtcDateTime, image.Bytes));
        Tool.Run("sha256sum", image.Path).ShouldStartWith(image.ContentHash);
    }
}

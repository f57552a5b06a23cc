using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Testing;
using NetVips;

namespace Formatum.Output.Tests;

/// <summary>
/// Colours of photographs in other than sRGB, against Debian's vips tool (libvips-tools, with Little CMS): <c>vips icc_transform</c> on the same file.
/// </summary>
public sealed class ColourTests : IDisposable
{
    private const string Photograph = "/usr/share/backgrounds/mate/nature/Aqua.jpg";

    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    private LinkedImage Made(string name, string profile, bool tagged = true)
    {
        string small = _shop.Folder["small.png"], made = _shop.Folder[name];
        if (!File.Exists(small)) Tool.Run("vips", "thumbnail", Photograph, small, "400");
        string options = name.EndsWith(".jpg", StringComparison.Ordinal) ? "Q=95" : "compression=none";
        Tool.Run("vips", "icc_transform", small, $"{made}[{options}{(tagged ? "" : ",strip")}]", profile, "--input-profile", "srgb");
        return _shop.Reader.Read(made, name);
    }

    /// <summary>The mean and the largest difference of two pictures' channels, in levels of 255.</summary>
    private static (double Mean, double Most) Difference(Image a, Image b)
    {
        (a.Width, a.Height, a.Bands).ShouldBe((b.Width, b.Height, b.Bands));
        using var apart = (a - b).Abs();
        return (apart.Avg(), apart.Max());
    }

    private static Image Decoded(LinkedImage image)
    {
        var raster = PictureRaster.Here.Pixels(image, image.WidthPx, image.HeightPx, new(0, 0, 1, 1));
        return Image.NewFromMemory(raster.Rgba, raster.Width, raster.Height, 4, Enums.BandFormat.Uchar).ExtractBand(0, n: 3)
            .Copy(interpretation: Enums.Interpretation.Srgb);
    }

    private Image Transformed(string name, params string[] more)
    {
        string path = _shop.Folder[$"{Guid.NewGuid():n}.png"];
        Tool.Run("vips", ["icc_transform", _shop.Folder[name], path, "srgb", .. more]);
        return Image.NewFromFile(path);
    }

    [Theory]
    [InlineData("cmyk.jpg", "cmyk", "CMYK")]
    [InlineData("cmyk.tif", "cmyk", "CMYK")]
    [InlineData("wide.jpg", "p3", "RGB")]
    [InlineData("wide.tif", "p3", "RGB")]
    public void Tagged_pictures_show_the_colours_their_profile_means(string name, string profile, string colour)
    {
        var image = Made(name, profile);
        image.Colour.ShouldBe(colour);
        using var meant = Transformed(name, ["--embedded", .. Deep(profile)]);
        using var shown = Decoded(image);
        var (mean, most) = Difference(shown, meant);
        mean.ShouldBeLessThan(0.5);
        most.ShouldBeLessThanOrEqualTo(6);

        // And so does the preview, which is a JPEG once more.
        using var preview = Image.NewFromFile(_shop.Previews.Find(image.ContentHash, 720)!);
        Difference(preview, meant).Mean.ShouldBeLessThan(3);

        // Without minding the profile they would be told apart: the check can fail.
        if (colour == "CMYK") return;
        using var unminded = Image.NewFromFile(_shop.Folder[name]).Copy();
        Difference(unminded, meant).Mean.ShouldBeGreaterThan(2);
    }

    [Fact]
    public void CMYK_without_a_profile_takes_the_usual_one()
    {
        var image = Made("bare.jpg", "cmyk", tagged: false);
        using var meant = Transformed("bare.jpg", ["--input-profile", ColourProfile.GeneralPress.Source, .. Deep("cmyk")]);
        using var shown = Decoded(image);
        Difference(shown, meant).Mean.ShouldBeLessThan(0.5);
    }

    /// <summary>Inks come to the screen with the darkest of them as black, as light comes to inks.</summary>
    private static string[] Deep(string profile) => profile == "cmyk" ? ["--intent", "relative", "--black-point-compensation"] : [];

    /// <summary>The same numbers look as each press prints them, in previews of every size and in pictures of pages; with a profile of their own, as that
    /// says.</summary>
    [Fact]
    public void Inks_look_as_the_press_of_the_publication_prints_them()
    {
        string other = _shop.Folder["press.icc"];
        File.WriteAllBytes(other, Image.ProfileLoad("cmyk"));
        var press = ColourProfile.ReadPress(other);
        var (bare, own) = (Made("bare.jpg", "cmyk", tagged: false), Made("own.jpg", "cmyk"));
        using var onOther = Transformed("bare.jpg", ["--input-profile", other, .. Deep("cmyk")]);
        using var onGeneral = Transformed("bare.jpg", ["--input-profile", ColourProfile.GeneralPress.Source, .. Deep("cmyk")]);
        using var asSaid = Transformed("own.jpg", ["--embedded", .. Deep("cmyk")]);
        Difference(onOther, onGeneral).Mean.ShouldBeGreaterThan(4, "the two presses can be told apart");
        foreach (var (image, shownFor, meant) in new[] { (bare, press, onOther), (bare, null, onGeneral), (bare, ColourProfile.GeneralPress, onGeneral),
            (own, press, asSaid), (own, null, asSaid) })
        {
            foreach (int size in PreviewStore.Sizes)
            {
                using var preview = Image.NewFromFile(_shop.Previews.Find(image, size, shownFor)!);
                using var small = meant.ThumbnailImage(size, size, size: Enums.Size.Down);
                Difference(preview, small).Mean.ShouldBeLessThan(3.5, $"{image.Name} {size}");
            }
            var raster = PictureRaster.Here.Pixels(image, image.WidthPx, image.HeightPx, new(0, 0, 1, 1), shownFor?.Source);
            using var pixels = Image.NewFromMemory(raster.Rgba, raster.Width, raster.Height, 4, Enums.BandFormat.Uchar);
            Difference(pixels.ExtractBand(0, n: 3), meant).Mean.ShouldBeLessThan(0.5, image.Name);
        }
        _shop.Previews.Remove(bare.ContentHash);
        _shop.Previews.Find(bare, 240, press).ShouldBeNull();
    }

    /// <summary>Until they are, the picture shows as the general press prints it.</summary>
    [Fact]
    public void Kept_inks_that_are_damaged_are_made_anew()
    {
        File.WriteAllBytes(_shop.Folder["press.icc"], Image.ProfileLoad("cmyk"));
        var press = ColourProfile.ReadPress(_shop.Folder["press.icc"]);
        var image = Made("bare.jpg", "cmyk", tagged: false);
        string inks = Directory.EnumerateFiles(_shop.Folder[""], image.ContentHash + "-inks*", SearchOption.AllDirectories).Single();
        File.WriteAllText(inks, "No picture any more.");
        string general = _shop.Previews.Find(image, 240, null)!;
        _shop.Previews.Find(image, 240, press).ShouldBe(general);
        _shop.Previews.HasInks(image.ContentHash).ShouldBeFalse();
        _shop.Previews.Make(image);
        _shop.Previews.Find(image, 240, press).ShouldNotBe(general);
    }

    /// <summary>A picture in inks that lies on its side, is transparent, or has 16 bits: upright, with its transparency, on every press.</summary>
    [Fact]
    public void Pictures_in_inks_of_any_kind_are_shown()
    {
        using var four = (Image.Black(60, 40, bands: 4) + new double[] { 0, 0, 0, 255 }).Cast(Enums.BandFormat.Uchar)
            .Copy(interpretation: Enums.Interpretation.Cmyk);
        using var turned = four.Mutate(m => m.Set(GValue.GIntType, "orientation", 6));
        turned.WriteToFile(_shop.Folder["turned.jpg"]);
        using var half = (Image.Black(60, 40) + 128).Cast(Enums.BandFormat.Uchar);
        using var clear = four.Bandjoin(half).Copy(interpretation: Enums.Interpretation.Cmyk);
        clear.WriteToFile(_shop.Folder["clear.tif"]);
        using var deep = (four.Cast(Enums.BandFormat.Ushort) * 257).Cast(Enums.BandFormat.Ushort).Copy(interpretation: Enums.Interpretation.Cmyk);
        deep.WriteToFile(_shop.Folder["deep.tif"]);
        File.WriteAllBytes(_shop.Folder["press.icc"], Image.ProfileLoad("cmyk"));
        var press = ColourProfile.ReadPress(_shop.Folder["press.icc"]);
        foreach (string name in new[] { "turned.jpg", "clear.tif", "deep.tif" })
        {
            var image = _shop.Reader.Read(_shop.Folder[name], name);
            image.IsInInks.ShouldBeTrue(name);
            foreach (var shownFor in new[] { null, press })
            {
                using var preview = Image.NewFromFile(_shop.Previews.Find(image, 240, shownFor)!);
                (preview.Width, preview.Height).ShouldBe((image.WidthPx, image.HeightPx), name);
                preview.HasAlpha().ShouldBe(name == "clear.tif");
                double[] point = preview.Getpoint(20, 20);
                (point[..3].Max() - point[..3].Min()).ShouldBeLessThan(24, name);
                point[0].ShouldBeLessThan(60, name);
                if (preview.HasAlpha()) point[^1].ShouldBe(128, 1);
            }
        }
    }

    [Fact]
    public void The_file_stays_as_it_is_and_print_shows_the_same_colours()
    {
        foreach (var (name, profile) in new[] { ("cmyk.jpg", "cmyk"), ("wide.jpg", "p3"), ("wide.tif", "p3") })
        {
            var image = Made(name, profile);
            byte[] before = File.ReadAllBytes(image.Path);
            var publication = Workshop.Link(Publication.Create(Workshop.A4(), 1), image);
            publication = Workshop.Do(publication, new MakeFrame
            {
                Page = 1,
                Box = new(0, 0, 288, 288.0 * image.HeightPx / image.WidthPx),
                ImageId = publication.Images.Keys.Single()
            });
            string pdf = _shop.Folder[name + ".pdf"], page = _shop.Folder[name + "-page"];
            PdfWriter.Write(publication, new(_shop.Previews), new(Bleed: false) { Quality = 98 }, pdf);
            File.ReadAllBytes(image.Path).ShouldBe(before);

            // Four times as many pixels as the picture has, 400 over 288 points: poppler makes every picture one larger.
            Tool.Run("pdftoppm", "-r", "400", "-png", "-singlefile", "-x", "0", "-y", "0", "-W", $"{4 * image.WidthPx}", "-H", $"{4 * image.HeightPx}", pdf,
                page);
            using var fine = Image.NewFromFile(page + ".png");
            using var printed = fine.Shrink(4, 4);
            using var meant = Transformed(name, ["--embedded", .. Deep(profile)]);
            Difference(printed, meant).Mean.ShouldBeLessThan(2, name);
        }
    }

    /// <summary>The colorants of the vips tool's own P3 profile, in a profile that names sRGB: a name does not make a space.</summary>
    [Fact]
    public void A_profile_that_only_mentions_sRGB_is_not_taken_for_it()
    {
        var wide = Made("wide.jpg", "p3");
        byte[] bytes = File.ReadAllBytes(wide.Path);
        // Its description, as ASCII or in UTF-16, is overwritten in place: "sRGB" within the text that the tag "desc" points to.
        int profile = bytes.AsSpan().IndexOf("acsp"u8) - 36, tags = profile + 128 + 4;
        while (!bytes.AsSpan(tags, 4).SequenceEqual("desc"u8)) tags += 12;
        int at = profile + System.Buffers.Binary.BinaryPrimitives.ReadInt32BigEndian(bytes.AsSpan(tags + 4));
        bool wideLetters = bytes.AsSpan(at, 4).SequenceEqual("mluc"u8);
        (wideLetters ? "\0s\0R\0G\0B"u8 : "sRGB"u8).CopyTo(bytes.AsSpan(at + (wideLetters ? 28 : 12)));
        File.WriteAllBytes(_shop.Folder["named.jpg"], bytes);
        var named = _shop.Reader.Read(_shop.Folder["named.jpg"], "named.jpg");
        using var shown = Decoded(named);
        using var meant = Transformed("wide.jpg", "--embedded");
        Difference(shown, meant).Mean.ShouldBeLessThan(0.5);
    }
}

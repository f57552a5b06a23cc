using System.Globalization;
using Formatum.Core.Composing;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output.Press;
using SkiaSharp;

namespace Formatum.Output.Pdf;

/// <summary>A picture in the file, and the map from its own unit square to the upright picture's.</summary>
internal readonly record struct PdfPicture(int XObject, Affine ToUpright);

/// <summary>
/// The pictures of a file. Each goes in once, at its first showing, and is let go; of a picture that is altered by its place, as a drawing is, each showing
/// that differs.
/// </summary>
/// <param name="file">The file.</param>
/// <param name="colours">Its colours.</param>
/// <param name="drawings">Writes those that are lines and areas.</param>
/// <param name="options">What is wanted of pictures.</param>
/// <param name="source">Where their pixels come from.</param>
/// <param name="cancel">Says that nobody wants them any more.</param>
internal sealed class PdfPictures(PdfFile file, PdfColours colours, PdfDrawing drawings, PdfOptions options, PixelSource source,
    CancellationToken cancel)
{
    private readonly Dictionary<object, PdfPicture> _known = [];

    /// <param name="image">The picture.</param>
    /// <param name="placed">From its unit square to points.</param>
    /// <param name="part">What is seen of it, in the unit square.</param>
    /// <exception cref="BadPicture">The file is gone, or no longer the picture it was.</exception>
    public PdfPicture Take(SceneImage image, Affine placed, Box part)
    {
        cancel.ThrowIfCancellationRequested();
        if (image.Treatment is null && AsLines(image.Source) is { } lines) return lines;
        // Drawn pictures have the pixels of their place, softened ones go by its size; all others have their own, and are written once.
        var size = placed with { E = 0, F = 0 };
        bool drawn = SceneImages.IsDrawnToSize(image.Source);
        var pixels = drawn ? default : SceneImages.Reduced(image.Source, placed, options.MostPpi) ?? (image.Source.WidthPx, image.Source.HeightPx);
        object key = (image.Source.Id, image.Treatment, drawn || image.Treatment is { Reach: > 0 } ? size : default, drawn ? part : default, pixels);
        return _known.TryGetValue(key, out var known) ? known : _known[key] = Write(image, placed, part, pixels);
    }

    private readonly Dictionary<int, PdfPicture?> _lines = [];

    /// <summary>A drawing as lines and areas, as sharp as the press; null where it has to be pixels.</summary>
    private PdfPicture? AsLines(LinkedImage image)
    {
        if (!SceneImages.IsDrawnToSize(image)) return null;
        if (_lines.TryGetValue(image.Id, out var known)) return known;
        return _lines[image.Id] = SceneImages.AsLines(image, source) is { } drawing ? new(drawings.Add(drawing), Affine.Identity) : null;
    }

    private PdfPicture Write(SceneImage image, Affine placed, Box part, (int Width, int Height) pixels)
    {
        var linked = image.Source;
        bool whole = pixels == (linked.WidthPx, linked.HeightPx), missing = source.StandIns is not null && !PictureFile.IsThere(linked.Path);
        if (image.Treatment is null && !missing)
        {
            if (whole && linked.Format == "jpeg" && !options.Recompress && AsItIs(linked) is { } copied) return copied;
            if (colours.IsPrint && !SceneImages.IsDrawnToSize(linked) && InOwnColours(linked, pixels) is { } own) return own;
        }
        (int, int)? most = SceneImages.IsDrawnToSize(linked) || whole ? null : pixels;
        if (colours.Press is { } press && TwoPlates.Of(image.Treatment, press) is { } plates)
        {
            using var light = SceneImages.Treated(SceneImages.ForPrint(linked, placed, part, source, most), TwoPlates.Lightness(image.Treatment!), placed);
            return new(OnPlates(light.Image, plates), light.ToUpright);
        }
        using var drawable = SceneImages.Treated(SceneImages.ForPrint(linked, placed, part, source, most), image.Treatment, placed);
        if (colours.Press is { } drawnFor && SceneImages.IsDrawnToSize(linked) && image.Treatment is null)
            return new(DrawnInInks(drawable.Image, drawnFor), drawable.ToUpright);
        return new(FromPixels(drawable.Image, SceneImages.IsGrey(image), missing || LossyFile.Is(linked.Path, linked.Format)), drawable.ToUpright);
    }

    /// <summary>A JPEG, byte for byte, where the file's colours let it.</summary>
    private PdfPicture? AsItIs(LinkedImage image)
    {
        try
        {
            if (!PictureFile.IsThere(image.Path)) throw SceneImages.Gone(image);
            using var jpeg = File.OpenRead(image.Path);
            if (JpegHeader.Read(jpeg) is not { } header || (header.Width, header.Height) != (image.StoredWidthPx, image.StoredHeightPx))
                throw SceneImages.Changed(image);
            if (!header.GoesIntoPdf || SpaceOf(header) is not { } space) return null;
            jpeg.Position = 0;
            string entries = Entries(header.Width, header.Height, space, header is { Parts: 4, IsInverted: true } ? "/Decode[1 0 1 0 1 0 1 0]" : "")
                + "/Filter/DCTDecode";
            return new(file.AddCopy(entries, jpeg, jpeg.Length), Orientation.ToUpright(image.Orientation));
        }
        catch (EndOfStreamException)
        {
            throw SceneImages.Changed(image);
        }
        // It went, or its disk did, between one line and the next.
        catch (Exception e) when (e is UnauthorizedAccessException or (IOException and not NotWritten))
        {
            throw SceneImages.Gone(image);
        }
    }

    /// <summary>The space of a JPEG's colours; null where it has to be converted for this file.</summary>
    private string? SpaceOf(JpegHeader header) => header.Parts switch
    {
        1 => header.Profile is { } greys && SceneImages.IsOfGreys(greys) ? null : "/DeviceGray",
        3 when colours is { IsPrint: true, Convert: true } => null,
        3 => Own(header.Profile, 3) ?? colours.Srgb,
        _ when !colours.IsPrint => null,
        _ => Own(header.Profile, 4) ?? "/DeviceCMYK",
    };

    /// <summary>The space of a picture's own profile; null where it has none that fits it.</summary>
    private string? Own(byte[]? bytes, int parts)
    {
        if (bytes is null) return null;
        var profile = new ColourProfile("", bytes);
        // Inks stay the numbers they are wherever light is converted here: what was separated for a press is not separated anew.
        if (parts == 4 && colours.Convert) return null;
        return profile.IsWhole && profile.Parts == parts && profile.Version is 2 or 4 ? colours.Space(profile) : null;
    }

    /// <summary>A picture in the colours of its file; null for greys of a profile, which are brought to those of a screen, still in one channel.</summary>
    private PdfPicture? InOwnColours(LinkedImage image, (int Width, int Height) pixels)
    {
        var samples = SceneImages.Samples(image, new(pixels.Width, pixels.Height, colours.Convert ? colours.Press!.Press.Source : null), source);
        if (SceneImages.HasOwnGreys(samples)) return null;
        string space = samples.Kind switch
        {
            SampleKind.Grey => "/DeviceGray",
            SampleKind.Inks => Own(samples.Profile, 4) ?? "/DeviceCMYK",
            SampleKind.Lab => "[/Lab<</WhitePoint[0.9642 1 0.8249]/Range[-128 127 -128 127]>>]",
            _ => Own(samples.Profile, 3) ?? colours.Srgb,
        };
        var (plain, cover) = PixelParts.Apart(samples.Data, samples.Parts, samples.HasAlpha);
        bool lossy = (LossyFile.Is(image.Path, image.Format) || options.Recompress) && samples.Kind != SampleKind.Lab;
        return new(Add(samples.Width, samples.Height, samples.Kind, space, plain, cover, lossy), Affine.Identity);
    }

    private int FromPixels(SKImage image, bool grey, bool lossy)
    {
        var (rgb, cover) = PixelParts.Of(image);
        lossy |= options.Recompress;
        if (grey) return Add(image.Width, image.Height, SampleKind.Grey, "/DeviceGray", PixelParts.FirstOf(rgb), cover, lossy);
        return colours is { IsPrint: true, Convert: true, Press: { } press }
            ? Add(image.Width, image.Height, SampleKind.Inks, "/DeviceCMYK", PressPixels.ToInks(rgb, image.Width, image.Height, press.Press), cover, lossy)
            : Add(image.Width, image.Height, SampleKind.Rgb, colours.Srgb, rgb, cover, lossy);
    }

    /// <summary>A drawing that has to be pixels: its words and lines are as much in ink black alone as if they were words and lines.</summary>
    private int DrawnInInks(SKImage image, PressConversion press)
    {
        var (rgb, cover) = PixelParts.Of(image);
        return Add(image.Width, image.Height, SampleKind.Inks, "/DeviceCMYK", DrawnInks.Of(rgb, image.Width, image.Height, press), cover, lossy: false);
    }

    /// <summary>A picture on plates of its own, without loss.</summary>
    private int OnPlates(SKImage image, TwoPlates plates)
    {
        var (rgb, cover) = PixelParts.Of(image);
        int parts = plates.Plates.Length;
        string mask = cover is null ? "" : $"/SMask {PdfSyntax.Reference(AddMask(cover, image.Width, image.Height, isSoft: false))}";
        return file.AddStream($"{Entries(image.Width, image.Height, colours.Plates(plates), mask)}/Filter/FlateDecode{Predicted(image.Width, parts)}",
            PngRows.Packed(plates.Samples(PixelParts.FirstOf(rgb)), image.Width, parts));
    }

    private int Add(int width, int height, SampleKind kind, string space, byte[] samples, byte[]? cover, bool lossy)
    {
        string mask = cover is null ? "" : $"/SMask {PdfSyntax.Reference(AddMask(cover, width, height, isSoft: false))}";
        int parts = PictureSamples.PartsOf(kind);
        if (!lossy)
            return file.AddStream($"{Entries(width, height, space, mask)}/Filter/FlateDecode{Predicted(width, parts)}", PngRows.Packed(samples, width, parts));
        string decode = kind == SampleKind.Inks ? "/Decode[1 0 1 0 1 0 1 0]" : "";
        return file.AddStream($"{Entries(width, height, space, mask + decode)}/Filter/DCTDecode",
            PressPixels.Jpeg(samples, width, height, kind, options.Quality));
    }

    /// <summary>How much each pixel covers, as a picture of its own (11.6.5.3).</summary>
    /// <param name="cover">A byte a pixel, rows from the top.</param>
    /// <param name="width">In pixels.</param>
    /// <param name="height">In pixels.</param>
    /// <param name="isSoft">Whether it runs on between its pixels.</param>
    public int AddMask(byte[] cover, int width, int height, bool isSoft) =>
        file.AddStream($"{Entries(width, height, "/DeviceGray", isSoft ? "/Interpolate true" : "")}/Filter/FlateDecode{Predicted(width, 1)}",
            PngRows.Packed(cover, width, 1));

    /// <summary>A picture of one pixel: a colour, to be shown through a mask of any size.</summary>
    public int AddPixel(Core.Colours.Colour colour, int mask)
    {
        var (space, parts) = colours.Sample(colour);
        return file.AddStream(Entries(1, 1, space, $"/SMask {PdfSyntax.Reference(mask)}"), [.. parts.Select(p => (byte)Math.Round(255 * p))]);
    }

    private static string Predicted(int width, int parts) =>
        string.Create(CultureInfo.InvariantCulture, $"/DecodeParms<</Predictor 15/Colors {parts}/Columns {width}>>");

    private static string Entries(int width, int height, string space, string more) => string.Create(CultureInfo.InvariantCulture,
        $"/Type/XObject/Subtype/Image/Width {width}/Height {height}/ColorSpace {space}/BitsPerComponent 8{more}");
}

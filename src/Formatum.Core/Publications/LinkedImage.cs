using System.Collections.Immutable;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;

namespace Formatum.Core.Publications;

/// <summary>A picture file that the publication points at, as it was when it was last read. The file itself is never altered.</summary>
public sealed record LinkedImage : Part
{
    public required int Id { get; init; }

    /// <summary>The file's own name, for people.</summary>
    public required string Name { get; init; }

    /// <summary>Other names under which the same content came.</summary>
    public ImmutableArray<string> OtherNames { get; init => field = value.IsDefault ? [] : value; } = [];

    /// <summary>Where the file is, on the machine that serves.</summary>
    public required string Path { get; init; }

    public required long Bytes { get; init; }
    public required DateTimeOffset Modified { get; init; }

    /// <summary>SHA-256 of the file's content, lower-case hexadecimal.</summary>
    public required string ContentHash { get; init; }

    public static readonly ImmutableArray<string> Formats = ["jpeg", "png", "tiff", "webp", "gif", "avif", "svg"];

    /// <summary>One of <see cref="Formats"/>.</summary>
    public required string Format { get; init; }

    /// <summary>Pixels as stored, before orientation.</summary>
    public required int StoredWidthPx { get; init; }
    public required int StoredHeightPx { get; init; }

    /// <summary>EXIF orientation, 1 to 8.</summary>
    public int Orientation { get; init; } = 1;

    /// <summary>Stored resolution along the stored axes; null where the file gives none.</summary>
    public double? StoredPpiX { get; init; }
    public double? StoredPpiY { get; init; }

    /// <summary>"RGB", "grey", "CMYK" and the like.</summary>
    public string Colour { get; init; } = "RGB";

    /// <summary>Whether its colours are four inks.</summary>
    public bool IsInInks => Colour == "CMYK";

    public bool HasAlpha { get; init; }

    /// <summary>What the file says about itself; null where it does not.</summary>
    public string? Title { get; init; }
    public string? Caption { get; init; }
    public string? Credit { get; init; }

    /// <summary>What it shows, in words, for who cannot see it: as the file says, else by its name.</summary>
    public string Words => Caption ?? Title ?? System.IO.Path.GetFileNameWithoutExtension(Name);

    /// <summary>The point that matters most, in fractions of the upright image.</summary>
    public Vec? Subject { get; init; }

    /// <summary>Where the subject seems to be, as suggested from the picture itself; used only once somebody has accepted it as the subject point.</summary>
    public Vec? SuggestedSubject { get; init; }

    /// <summary>The outline of what it shows; null where none could be told from its ground.</summary>
    public Contour? Contour { get; init; }

    public override PartKey Key => new(PartKind.Image, Id);

    public int WidthPx => Fitting.Orientation.SwapsAxes(Orientation) ? StoredHeightPx : StoredWidthPx;
    public int HeightPx => Fitting.Orientation.SwapsAxes(Orientation) ? StoredWidthPx : StoredHeightPx;

    /// <summary>What fitting needs to know; an image that stores no resolution takes the publication's assumed one.</summary>
    public Picture Picture(double assumedPpi) =>
        Fitting.Picture.FromStored(StoredWidthPx, StoredHeightPx, StoredPpiX ?? assumedPpi, StoredPpiY ?? assumedPpi, Orientation);
}

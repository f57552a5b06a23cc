using System.Collections.Immutable;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Imaging.Apart;
using Formatum.Output.Bundles;
using Formatum.Output.Fonts;
using Formatum.Storage;
using Formatum.Web.Hosting;

namespace Formatum.Web.Pictures;

/// <summary>What came of taking a bundle in.</summary>
/// <param name="Id">The new publication.</param>
/// <param name="Name">Its name.</param>
/// <param name="Images">How many images it links.</param>
/// <param name="Changed">Images that were changed since they were last updated when the bundle was made, by name.</param>
/// <param name="Missing">Images whose files were missing when the bundle was made, by name.</param>
public sealed record BundleTaken(int Id, string Name, int Images, ImmutableArray<string> Changed, ImmutableArray<string> Missing);

/// <summary>Takes bundles in: all of it is unpacked aside and read first, and only what is whole becomes a publication.</summary>
public sealed class BundleIntake(ServerOptions options, ReadersApart reader, PictureIntake pictures, FontsApart fontReader, FontStore fonts,
    PublicationStore store, ProfileStore profiles, DiskRoom room)
{
    /// <param name="path">The bundle; it stays where it is.</param>
    /// <exception cref="BadBundle">It is not taken in; nothing was changed.</exception>
    public async Task<BundleTaken> TakeAsync(string path)
    {
        string aside = Path.Combine(options.IncomingFolder, Guid.NewGuid().ToString("n"));
        Directory.CreateDirectory(aside);
        try
        {
            using var bundle = BundleReader.Open(path, options.Limits);
            if (room.Lacks(bundle.FileBytes) is not null)
                throw new BadBundle($"The bundle's files need {Megabytes(bundle.FileBytes)}, and the server's disk has {Megabytes(room.ForLargeFiles)} " +
                    $"left for pictures. Make room, and take it in again.");
            var read = await ReadAsync(bundle, aside);
            var images = read.Select(r => r.Unpacked is { } unpacked ? Kept(r.Image, unpacked) : r.Image with { Path = pictures.PathOf(r.Image) }).ToList();
            var given = bundle.Publication;
            foreach (var font in given.Fonts.Values.Where(f => bundle.HasFileOf(f.Id))) await KeepAsync(bundle, font, aside);
            await KeepProfileAsync(bundle, Path.Combine(aside, "press.icc"));
            var standing = await store.AddAsync(Publication.FromParts(given.NextId, given.Parts.Where(p => p is not LinkedImage).Concat(images)));
            return new(standing.Id, given.Setup.Name, images.Count, [.. read.Where(r => r.Unpacked is not null && r.Unpacked.ContentHash != r.Image.ContentHash)
                .Select(r => r.Image.Name)], [.. read.Where(r => r.Unpacked is null).Select(r => r.Image.Name)]);
        }
        catch (IOException e)
        {
            throw new BadBundle("The bundle could not be unpacked on the server: its disk may be full, or the folder closed to it. Tell whoever runs it, " +
                "and try again.", e);
        }
        finally
        {
            Directory.Delete(aside, recursive: true);
        }
    }

    /// <summary>Keeps the file of a font, once it has been read and is what the bundle says.</summary>
    /// <exception cref="BadBundle">It is not.</exception>
    private async Task KeepAsync(BundleReader bundle, OwnFont font, string aside)
    {
        string path = Path.Combine(aside, font.ContentHash);
        if (!File.Exists(path)) bundle.UnpackFile(font.Id, path);
        try
        {
            if (await fontReader.ReadAsync(path, font.Name) is not [var read] || read.Font.ContentHash != font.ContentHash
                || read.Font.Embedding != font.Embedding)
                throw new BadBundle($"The bundle describes the font {font.Name} otherwise than its file is. Make it anew where it came from.");
            fonts.Keep(font, read.File);
        }
        catch (BadFont e)
        {
            throw new BadBundle($"The bundle holds something as {font.Name} that cannot be used. {e.Message}", e);
        }
    }

    /// <summary>Keeps the profile of the press, once it has been tried and is what the bundle says.</summary>
    /// <exception cref="BadBundle">It is not.</exception>
    private async Task KeepProfileAsync(BundleReader bundle, string path)
    {
        if (!bundle.TryUnpackProfile(path)) return;
        try
        {
            await reader.TryProfileAsync(path);
        }
        catch (BadProfile e)
        {
            throw new BadBundle($"The bundle holds a profile of the press that cannot be used. {e.Message}", e);
        }
        if (new ColourProfile(path, await File.ReadAllBytesAsync(path)).ContentHash != bundle.Publication.Setup.Press!.ContentHash)
            throw new BadBundle("The bundle holds another profile of the press than it names. Make it anew where it came from.");
        profiles.Keep(path);
    }

    private static string Megabytes(long bytes) => $"{Math.Max(0, bytes >> 20):#,0} MB";

    /// <summary>An image with what its file really is; null where it is not in the bundle.</summary>
    private sealed record ReadImage(LinkedImage Image, LinkedImage? Unpacked);

    private async Task<ImmutableArray<ReadImage>> ReadAsync(BundleReader bundle, string aside)
    {
        var images = bundle.Publication.Images.Values.OrderBy(i => i.Id).ToImmutableArray();
        var read = new ReadImage[images.Length];
        var unpacking = new Lock();
        // Unpacking is one stream; reading what was unpacked takes longer, and goes on beside it.
        await Parallel.ForEachAsync(Enumerable.Range(0, images.Length), new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount },
            async (i, _) => read[i] = await ReadAsync(bundle, images[i], aside, unpacking));
        return [.. read];
    }

    private async Task<ReadImage> ReadAsync(BundleReader bundle, LinkedImage image, string aside, Lock unpacking)
    {
        string path = Path.Combine(aside, image.Id.ToString(System.Globalization.CultureInfo.InvariantCulture));
        LinkedImage? unpacked = null;
        try
        {
            if (bundle.HasFileOf(image.Id))
            {
                lock (unpacking) bundle.UnpackFile(image.Id, path);
                unpacked = await reader.ReadAsync(path, image.Name);
                if (unpacked.ContentHash == image.ContentHash) return SameAsSaid(image, unpacked);
            }
            bool hasPreview;
            string preview = path + "-preview";
            lock (unpacking) hasPreview = bundle.TryUnpackPreview(image, preview);
            if (hasPreview) await reader.BorrowAsync(preview, image.ContentHash);
            return new(image, unpacked);
        }
        catch (BadPicture e)
        {
            throw new BadBundle($"The bundle holds something as {image.Name} that cannot be used. {e.Message}", e);
        }
    }

    /// <exception cref="BadBundle">The bundle says something else of a file than the file itself.</exception>
    private static ReadImage SameAsSaid(LinkedImage said, LinkedImage read)
    {
        bool same = (said.StoredWidthPx, said.StoredHeightPx, said.Orientation, said.Format, said.Bytes) == (read.StoredWidthPx, read.StoredHeightPx,
            read.Orientation, read.Format, read.Bytes);
        return same ? new(said, read) : throw new BadBundle($"The bundle describes {said.Name} otherwise than its file is: {said.StoredWidthPx} x " +
            $"{said.StoredHeightPx} px {said.Format}, and the file has {read.StoredWidthPx} x {read.StoredHeightPx} px {read.Format}. Make it anew where " +
            $"it came from.");
    }

    /// <summary>The image, linked to the file that was unpacked for it.</summary>
    private LinkedImage Kept(LinkedImage image, LinkedImage unpacked)
    {
        var kept = pictures.Keep(unpacked);
        // One that was changed keeps what the publication knows of it, and shows as changed.
        return image with { Path = kept.Path, Modified = kept.ContentHash == image.ContentHash ? kept.Modified : DateTimeOffset.UnixEpoch };
    }
}

using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Imaging.Apart;
using Formatum.Web.Hosting;

namespace Formatum.Web.Outputs;

/// <summary>Takes printers' profiles in: each is tried apart, and kept by its content.</summary>
public sealed class ProfileIntake(ServerOptions options, ReadersApart reader, ProfileStore profiles, DiskRoom room)
{
    /// <summary>Reads a profile that is sent, and keeps it.</summary>
    /// <exception cref="BadProfile">It is no profile of a press.</exception>
    /// <exception cref="IOException">It could not be kept.</exception>
    public async Task<PressProfile> TakeAsync(Stream content, CancellationToken cancel)
    {
        if (room.Lacks(ColourProfile.MostBytes) is { } full) throw full;
        Directory.CreateDirectory(options.IncomingFolder);
        string path = Path.Combine(options.IncomingFolder, $"{Guid.NewGuid():n}.icc");
        try
        {
            await using (var file = new FileStream(path, FileMode.CreateNew)) await CopyAsync(content, file, cancel);
            await reader.TryProfileAsync(path);
            return profiles.Keep(path);
        }
        finally
        {
            File.Delete(path);
        }
    }

    /// <summary>One byte more than a profile may have is enough to see that it has too many.</summary>
    private static async Task CopyAsync(Stream content, FileStream file, CancellationToken cancel)
    {
        byte[] buffer = new byte[1 << 16];
        for (int read; file.Length <= ColourProfile.MostBytes && (read = await content.ReadAsync(buffer, cancel)) > 0;)
            await file.WriteAsync(buffer.AsMemory(0, read), cancel);
    }
}

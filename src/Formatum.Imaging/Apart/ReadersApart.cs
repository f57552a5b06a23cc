using System.Collections.Concurrent;
using System.Text.Json;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Imaging.Apart;

/// <summary>How the program is started once more.</summary>
public sealed record OwnProgram(string File, IReadOnlyList<string> Arguments);

/// <summary>
/// Reads pictures in processes of their own, which the operating system holds to limits of memory and time. A picture that ends its reader, by what is wrong
/// with it or with the libraries that read it, is refused in words; the server never dies of a picture, nor waits for one.
/// </summary>
public sealed class ReadersApart(PictureLimits limits, string previewFolder, string asideFolder, OwnProgram program, int most) : IPixelReader, IDisposable
{
    private const string TooLong = "Reading it takes too long. Simplify it (fewer filters and effects), or save it as PNG or JPEG.";

    private const string Ended = "It could not be read: its file makes the reader of pictures fail. Save it again in the program it was made with, in " +
        "another format.";

    /// <summary>A reader that has read so many is replaced, for what libraries leave lying.</summary>
    private const int MostByOne = 400;

    private readonly SemaphoreSlim _places = new(most);
    private readonly ConcurrentBag<ReaderProcess> _idle = [];

    /// <summary>Reads what is worth knowing about a picture file, and makes its previews.</summary>
    /// <exception cref="BadPicture">It cannot be read as a picture.</exception>
    /// <exception cref="IOException">Its previews could not be written.</exception>
    public async Task<LinkedImage> ReadAsync(string path, string name)
    {
        if (!PictureFile.IsRegular(path))
            throw new BadPicture(File.Exists(path) ? "This is no file, but a pipe, a socket or a device." : "There is no such file.");
        var reply = await AskAsync(new(Work.Read, path, name));
        return PartJson.Read<LinkedImage>(PartKind.Image, reply.Image!);
    }

    /// <summary>Makes the previews of a picture that is known already.</summary>
    /// <exception cref="BadPicture">Its file can no longer be read.</exception>
    /// <exception cref="IOException">They could not be written.</exception>
    public Task MakePreviewsAsync(LinkedImage image) => AskAsync(new(Work.Previews, image.Path, "", PartJson.Write(image)));

    /// <summary>Keeps the largest preview of a picture whose file is not here.</summary>
    /// <exception cref="BadPicture">It is no such preview.</exception>
    /// <exception cref="IOException">It could not be written.</exception>
    public Task BorrowAsync(string path, string contentHash) => AskAsync(new(Work.Borrow, path, contentHash));

    /// <summary>Tries a profile of a press: what is wrong with one, or with the library that reads it, ends no server.</summary>
    /// <exception cref="BadProfile">It cannot be used.</exception>
    public async Task TryProfileAsync(string path)
    {
        try
        {
            await AskAsync(new(Work.Profile, path, ""));
        }
        catch (BadPicture e)
        {
            throw new BadProfile(e.Message == Ended ? "This profile cannot be used: it makes its reader fail. Get it anew from the printer." : e.Message, e);
        }
    }

    /// <inheritdoc/>
    /// <remarks>It waits for a reader: not for threads that others want.</remarks>
    public PictureRaster Pixels(LinkedImage image, int widthPx, int heightPx, Box part, string? press) => Aside(file =>
    {
        var question = new Question(Work.Pixels, image.Path, file, PartJson.Write(image), false, widthPx, heightPx, UnitPart.Of(part), press);
        var reply = AskAsync(question).GetAwaiter().GetResult();
        return new PictureRaster(reply.Width, reply.Height, reply.HasAlpha, reply.Covers.ToBox(), File.ReadAllBytes(file));
    });

    /// <summary>Behind the name of a file of samples: that of the profile that goes with them.</summary>
    internal const string ProfileEnding = ".icc";

    /// <inheritdoc/>
    /// <remarks>It waits for a reader: not for threads that others want.</remarks>
    public PictureSamples Samples(LinkedImage image, SampleWish wish) => Aside(file =>
    {
        var question = new Question(Work.Samples, image.Path, file, PartJson.Write(image), false, wish.WidthPx, wish.HeightPx, Press: wish.Press);
        var reply = AskAsync(question).GetAwaiter().GetResult();
        byte[]? profile = File.Exists(file + ProfileEnding) ? File.ReadAllBytes(file + ProfileEnding) : null;
        return new PictureSamples(reply.Width, reply.Height, reply.Kind, reply.HasAlpha, profile, File.ReadAllBytes(file));
    });

    /// <inheritdoc/>
    /// <remarks>Where its lines take too long or too much, its pixels are there.</remarks>
    public Drawing? Drawing(LinkedImage image) => Aside(file =>
    {
        try
        {
            AskAsync(new(Work.Drawing, image.Path, file, PartJson.Write(image))).GetAwaiter().GetResult();
        }
        catch (BadPicture)
        {
            return null;
        }
        return File.Exists(file) ? Imaging.Drawing.FromJson(File.ReadAllBytes(file)) : null;
    });

    private T Aside<T>(Func<string, T> ask)
    {
        Directory.CreateDirectory(asideFolder);
        string file = Path.Combine(asideFolder, $"{Guid.NewGuid():n}.pixels");
        try
        {
            return ask(file);
        }
        finally
        {
            File.Delete(file);
            File.Delete(file + ProfileEnding);
        }
    }

    /// <exception cref="BadPicture">It cannot be read.</exception>
    private async Task<Reply> AskAsync(Question question)
    {
        await _places.WaitAsync();
        try
        {
            var (reply, ending) = await TryAsync(question);
            // Words about a picture must never keep it out: it is read once more without them.
            if (reply is null && question.Work == Work.Read && (ending != ReaderEnding.Time || !PictureWorker.IsDrawing(question.Path)))
                (reply, ending) = await TryAsync(question with { Bare = true });
            if (reply is null)
                throw new BadPicture(ending switch { ReaderEnding.Time => TooLong, ReaderEnding.Memory => PictureReader.TooMuchMemory, _ => Ended });
            if (reply.Error is not { } error) return reply;
            throw reply.Unkept ? new IOException(error) : new BadPicture(error);
        }
        finally
        {
            _places.Release();
        }
    }

    private async Task<(Reply? Reply, ReaderEnding Ending)> TryAsync(Question question)
    {
        var reader = _idle.TryTake(out var idle) ? idle : ReaderProcess.Start(program, previewFolder, limits);
        string? line = await reader.AskAsync(question.ToLine());
        if (line is null)
        {
            var ending = reader.Ending();
            reader.Dispose();
            return (null, ending);
        }
        if (reader.Asked >= MostByOne) reader.Dispose();
        else _idle.Add(reader);
        return (JsonSerializer.Deserialize<Reply>(line), default);
    }

    public void Dispose()
    {
        while (_idle.TryTake(out var reader)) reader.Dispose();
        _places.Dispose();
    }
}

using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Output.Fonts;
using Formatum.Storage;
using Formatum.Web.Pictures;

namespace Formatum.Web.Fonts;

/// <summary>What became of a font file: its faces, or the reason why there are none.</summary>
public sealed record FontArrival(string Name, IReadOnlyList<OwnFont> Faces, string? Error);

/// <summary>Takes fonts in: each is read apart, kept by its content, and put into a publication by one edit.</summary>
public sealed class FontIntake(PictureIntake files, FontsApart reader, FontStore fonts, PublicationStore store)
{
    /// <summary>Reads a font file that is sent, and keeps it.</summary>
    public async Task<FontArrival> TakeAsync(string name, Stream content, CancellationToken cancel)
    {
        var (path, problem) = await files.TrySaveAsync(name, content, cancel);
        if (path is null) return new(name, [], problem);
        try
        {
            var faces = await reader.ReadAsync(path, name);
            foreach (var face in faces) fonts.Keep(face.Font, face.File);
            return new(name, [.. faces.Select(f => f.Font)], null);
        }
        catch (BadFont e)
        {
            return new(name, [], e.Message);
        }
        catch (IOException)
        {
            return new(name, [], "It could not be kept on the server: its disk may be full, or the folder closed to it. Tell whoever runs it, and try again.");
        }
        finally
        {
            File.Delete(path);
        }
    }

    /// <summary>Puts what arrived into a publication.</summary>
    public async Task<Publication> AddAsync(int id, IReadOnlyList<FontArrival> arrivals, Seen seen)
    {
        var faces = arrivals.SelectMany(a => a.Faces).ToList();
        if (faces.Count == 0) return (await store.OpenAsync(id)).Publication;
        return (await store.EditAsync(id, new AddFonts([.. faces]), seen)).Standing.Publication;
    }
}

using Formatum.Core.Publications;

namespace Formatum.Output.Fonts;

/// <summary>Font files that publications brought, kept by their contents.</summary>
public sealed class FontStore(string folder)
{
    public string Folder => folder;

    public string PathOf(string contentHash) => Path.Combine(folder, contentHash + ".font");

    /// <summary>Keeps a font; one of the same content is kept already.</summary>
    /// <exception cref="IOException">There is no room for it.</exception>
    public void Keep(OwnFont font, byte[] file)
    {
        Directory.CreateDirectory(folder);
        string path = PathOf(font.ContentHash);
        if (File.Exists(path))
        {
            // It is on its way into a publication again: nobody is to take it for unused meanwhile.
            File.SetLastWriteTimeUtc(path, DateTime.UtcNow);
            return;
        }
        string aside = $"{path}.{Guid.NewGuid():n}";
        try
        {
            File.WriteAllBytes(aside, file);
            File.Move(aside, path, overwrite: true);
        }
        catch
        {
            File.Delete(aside);
            throw;
        }
    }

    /// <summary>A font's file; null where it has gone.</summary>
    public byte[]? Find(string contentHash)
    {
        try
        {
            return File.ReadAllBytes(PathOf(contentHash));
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return null;
        }
    }
}

using System.Globalization;
using System.Security.Cryptography;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Documents;
using Formatum.Web.Hosting;
using Formatum.Web.Outputs;
using Formatum.Web.Pictures;

namespace Formatum.Web.Comparing;

/// <summary>A PDF that was made before.</summary>
/// <param name="Key">By which it is chosen: "output-3f2c…" for an output that is kept, "pdf-91ab…" for one that somebody brought.</param>
/// <param name="Name">What it is called.</param>
/// <param name="At">When it was made, or brought.</param>
/// <param name="Path">Where it lies.</param>
/// <param name="Recipe">The recipe it was made by; null where nobody knows.</param>
public sealed record ComparedFile(string Key, string Name, DateTime At, string Path, Recipe? Recipe);

/// <summary>PDFs that publications are compared with: outputs that are kept, and files that people bring, of which the newest are kept.</summary>
public sealed class ComparedFiles(ServerOptions options, OutputJobs outputs, PictureIntake intake, PdfPagesApart reader)
{
    /// <summary>So many that were brought are kept of a publication, and so many files that were made for comparing.</summary>
    public const int MostBrought = 10, MostMade = 24;

    private const string Output = "output-", Brought = "pdf-", NameEnding = ".name";

    /// <summary>Where what is made for comparing lies: it is made anew where it is gone.</summary>
    public string MadeFolder(int publicationId) => Path.Combine(FolderOf(publicationId), "made");

    private string FolderOf(int publicationId) => Path.Combine(options.ComparedFolder, publicationId.ToString(CultureInfo.InvariantCulture));

    /// <summary>Those there are, the newest first.</summary>
    public IReadOnlyList<ComparedFile> Of(int publicationId) => [.. Outputs(publicationId).Concat(BroughtOf(publicationId)).OrderByDescending(f => f.At)];

    /// <exception cref="EditRefused">There is none of this key.</exception>
    public ComparedFile Find(int publicationId, string key) => Of(publicationId).FirstOrDefault(f => f.Key == key)
        ?? throw new NoSuchPart("with", $"This PDF is not there any more: the newest {OutputJobs.MostKept} outputs, and {MostBrought} that were brought, "
            + "are kept. Bring it again.");

    /// <summary>Whether a key is one of a file.</summary>
    public static bool IsFile(string? key) => key is not null
        && (key.StartsWith(Output, StringComparison.Ordinal) || key.StartsWith(Brought, StringComparison.Ordinal));

    private IEnumerable<ComparedFile> Outputs(int publicationId) => outputs.Of(publicationId)
        .Where(n => n.State == OutputState.Done && n.Recipe is { IsPdf: true, OneFileEach: false })
        .Select(n => new ComparedFile(Output + n.Id, n.FileName, n.Begun.LocalDateTime, outputs.FileOf(n), n.Recipe));

    private IEnumerable<ComparedFile> BroughtOf(int publicationId)
    {
        if (!Directory.Exists(FolderOf(publicationId))) return [];
        return new DirectoryInfo(FolderOf(publicationId)).GetFiles("*.pdf").Select(f => (File: f, Note: Path.ChangeExtension(f.FullName, NameEnding)))
            .Where(f => File.Exists(f.Note)).Select(f => new ComparedFile(Brought + Path.GetFileNameWithoutExtension(f.File.Name), File.ReadAllText(f.Note),
                f.File.LastWriteTime, f.File.FullName, null));
    }

    /// <summary>Keeps a PDF that somebody brings, once it has been read.</summary>
    /// <exception cref="EditRefused">It cannot be kept.</exception>
    /// <exception cref="BadPdf">It cannot be read.</exception>
    public async Task<ComparedFile> KeepAsync(int publicationId, string name, Stream content, CancellationToken cancel)
    {
        var (path, problem) = await intake.TrySaveAsync(name, content, cancel, archive: true);
        if (path is null) throw new EditRefused("file", problem!);
        try
        {
            string id;
            await using (var file = File.OpenRead(path)) id = Convert.ToHexStringLower(await SHA256.HashDataAsync(file, cancel))[..24];
            string kept = Path.Combine(FolderOf(publicationId), $"{id}.pdf");
            await ReadAsync(publicationId, Brought + id, path, cancel);
            File.Move(path, kept, overwrite: true);
            File.SetLastWriteTime(kept, DateTime.Now);
            await File.WriteAllTextAsync(Path.ChangeExtension(kept, NameEnding), Path.GetFileName(name), cancel);
            foreach (var old in BroughtOf(publicationId).OrderByDescending(f => f.At).Skip(MostBrought)) Forget(old.Path);
            return Find(publicationId, Brought + id);
        }
        finally
        {
            File.Delete(path);
        }
    }

    private static void Forget(string path)
    {
        File.Delete(path);
        File.Delete(Path.ChangeExtension(path, NameEnding));
    }

    /// <summary>What is on the pages of a PDF; it is read once.</summary>
    /// <param name="publicationId">Whose.</param>
    /// <param name="key">What it is known by.</param>
    /// <param name="path">Where it lies.</param>
    /// <param name="cancel">Says that nobody wants it any more.</param>
    /// <exception cref="BadPdf">It cannot be read.</exception>
    public async Task<IReadOnlyList<PdfPage>> ReadAsync(int publicationId, string key, string path, CancellationToken cancel)
    {
        Directory.CreateDirectory(MadeFolder(publicationId));
        var pages = await reader.ReadAsync(path, Path.Combine(MadeFolder(publicationId), $"{key}.pages"), cancel);
        DropOld(publicationId);
        return pages;
    }

    /// <summary>What was made for comparing and not looked at for longest makes room.</summary>
    private void DropOld(int publicationId)
    {
        foreach (var old in new DirectoryInfo(MadeFolder(publicationId)).GetFiles().OrderByDescending(f => f.LastWriteTimeUtc).Skip(MostMade)) old.Delete();
    }

    /// <summary>Removes all of a publication that is no more.</summary>
    public void DropAll(int publicationId)
    {
        if (Directory.Exists(FolderOf(publicationId))) Directory.Delete(FolderOf(publicationId), recursive: true);
    }
}

using System.Collections.Immutable;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Imaging.Apart;
using Formatum.Web.Pictures;

namespace Formatum.Web.Links;

/// <summary>An image that another file takes the place of.</summary>
public sealed record LinkMatch(LinkedImage Image, string Path);

/// <summary>Reads what changed or moved files hold now, for a proposal or for the edit itself.</summary>
public sealed class LinkUpdates(LinkStates states, ReadersApart reader, ContourFinder contours, PictureIntake intake)
{
    /// <summary>The images meant that changed; all that did where none are named.</summary>
    public ImmutableArray<LinkMatch> Changed(Publication publication, IReadOnlyCollection<int> imageIds) =>
        [.. publication.Images.Values.Where(i => imageIds.Count == 0 || imageIds.Contains(i.Id)).OrderBy(i => i.Id)
            .Where(i => states.Of(i) == LinkState.Changed).Select(i => new LinkMatch(i, i.Path))];

    /// <summary>
    /// Finds images in a folder and those in it: by content first, then by name, where one file alone has it. Those that are named, or all that are missing.
    /// </summary>
    /// <exception cref="EditRefused">The folder is not open to linking.</exception>
    public ImmutableArray<LinkMatch> InFolder(Publication publication, IReadOnlyCollection<int> imageIds, string folder)
    {
        var files = intake.FilesIn(folder, within: true).Select(f => new FileInfo(f)).ToList();
        var byName = files.ToLookup(f => f.Name, StringComparer.OrdinalIgnoreCase);
        var bySize = files.ToLookup(f => f.Length);
        var meant = publication.Images.Values.Where(i => imageIds.Count > 0 ? imageIds.Contains(i.Id) : states.Of(i) == LinkState.Missing).OrderBy(i => i.Id);
        return [.. meant.Select(image => (image, File: bySize[image.Bytes].FirstOrDefault(f => states.HashOf(f) == image.ContentHash)
            ?? (byName[image.Name].Take(2).ToList() is [var only] ? only : null)))
            .Where(m => m.File is not null && m.File.FullName != m.image.Path).Select(m => new LinkMatch(m.image, m.File!.FullName))];
    }

    /// <summary>The images as their files are now; those that cannot be read are told by name.</summary>
    public async Task<(ImmutableArray<LinkedImage> Read, ImmutableArray<string> Problems)> ReadAsync(IEnumerable<LinkMatch> matches)
    {
        var read = ImmutableArray.CreateBuilder<LinkedImage>();
        var problems = ImmutableArray.CreateBuilder<string>();
        foreach (var (image, path) in matches)
        {
            try
            {
                var now = await reader.ReadAsync(path, path == image.Path ? image.Name : Path.GetFileName(path));
                read.Add(contours.AsStrongAs(now, image) with { Id = image.Id });
            }
            catch (BadPicture e)
            {
                problems.Add($"{image.Name}: {e.Message}");
            }
        }
        return (read.ToImmutable(), problems.ToImmutable());
    }
}

/// <summary>What taking over other files would do to every frame that shows them, before it is done.</summary>
/// <param name="Before">The publication as it is.</param>
/// <param name="After">The publication as it would be.</param>
/// <param name="Images">The images that would change.</param>
/// <param name="Problems">Files that cannot be read, and why.</param>
/// <param name="Values">What to send back to make the change.</param>
public sealed record UpdateProposal(Publication Before, Publication After, ImmutableArray<LinkedImage> Images, ImmutableArray<string> Problems,
    IReadOnlyDictionary<string, string> Values)
{
    public const int Shown = 60;

    public static UpdateProposal Of(Publication before, ImmutableArray<LinkedImage> images, ImmutableArray<string> problems, IReadOnlyDictionary<string,
        string> values) =>
        new(before, images.IsEmpty ? before : before.With(new UpdateImages(images).On(before)), images, problems, values);

    /// <summary>The frames that show the images, with how they lie before and after.</summary>
    public ImmutableArray<(Frame Was, Fitted Old, Frame Now, Fitted New)> Frames()
    {
        var changed = Images.Select(i => i.Id).ToHashSet();
        return [.. Before.Frames.Values.Where(f => f.ImageId is { } id && changed.Contains(id)).OrderBy(f => Before.Order.IndexOf(f.PageId)).ThenBy(f => f.Id)
            .Select(f => (f, Before.FittedOf(f)!.Value, After.Frames[f.Id], After.FittedOf(After.Frames[f.Id])!.Value))];
    }
}

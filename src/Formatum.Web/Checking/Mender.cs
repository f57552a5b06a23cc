using System.Collections.Immutable;
using Formatum.Core.Checking;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Output;
using Formatum.Storage;
using Formatum.Web.Hosting;
using Formatum.Web.Links;

namespace Formatum.Web.Checking;

/// <summary>What is to be mended.</summary>
/// <param name="Ids">The findings, by their ids; those that are there no longer are passed over.</param>
/// <param name="Remedy">Which of the remedies; null for the likeliest of each.</param>
/// <param name="Folder">Where missing files are looked for.</param>
public sealed record MendWish(IReadOnlyCollection<string> Ids, string? Remedy, string? Folder = null);

/// <summary>Findings with the one edit that mends them.</summary>
/// <param name="Findings">What was meant.</param>
/// <param name="Mending">The edit, and what it leaves.</param>
public sealed record MendPlan(ImmutableArray<Finding> Findings, Mending Mending);

/// <summary>Plans how findings are mended, files among them: those are read here, where the core cannot.</summary>
public sealed class Mender(Checker checker, LinkUpdates updates, HeavyWork heavy)
{
    /// <exception cref="EditRefused">Nothing is meant, or a folder is missing or closed.</exception>
    public async Task<MendPlan> PlanAsync(Standing standing, MendWish wish, CheckProfile? profile = null)
    {
        if (wish.Ids.Count == 0) throw new EditRefused("ids", "No finding is named. Name those to mend by their ids.");
        if (wish.Ids.Count > Mending.Most) throw new EditRefused("ids", $"{Mending.Most:#,0} findings are mended at once at most. Mend some first.");
        var findings = await checker.OfAsync(standing, profile);
        var ids = wish.Ids.ToHashSet(StringComparer.Ordinal);
        ImmutableArray<Finding> meant = [.. findings.All.Where(f => ids.Contains(f.Id))];
        var publication = standing.Publication;
        var context = new RemedyContext(publication, findings.Profile, Typefaces.All);
        var byFile = meant.ToLookup(f => Mending.RemedyOf(f, wish.Remedy, context)?.File);
        var edits = ImmutableArray.CreateBuilder<Edit>();
        var left = ImmutableArray.CreateBuilder<NotMended>();
        foreach (var file in new[] { FileRemedy.Update, FileRemedy.Find }.Where(f => byFile[f].Any()))
        {
            var (edit, failed) = await ReadAsync(publication, file, [.. byFile[file]], wish.Folder);
            if (edit is not null) edits.Add(edit);
            left.AddRange(failed);
        }
        var rest = await heavy.RunAsync(_ => Mending.Of(publication, [.. byFile[null]], wish.Remedy, findings.Profile, Typefaces.All), CancellationToken.None);
        if (rest.Edit is not null) edits.Add(rest.Edit);
        left.AddRange(rest.Left);
        var all = edits.Count switch { 0 => null, 1 => edits[0], _ => new Together(edits.ToImmutable(), $"Mend {meant.Length - left.Count} findings") };
        return new(meant, new(all, left.ToImmutable()));
    }

    private async Task<(Edit? Edit, IEnumerable<NotMended> Left)> ReadAsync(Publication publication, FileRemedy remedy, ImmutableArray<Finding> findings,
        string? folder)
    {
        List<int> ids = [.. findings.Select(f => f.Part.Id)];
        if (remedy == FileRemedy.Find && string.IsNullOrWhiteSpace(folder))
            return (null, findings.Select(f => new NotMended(f, "Say in which folder on the server to look for its file.")));
        var matches = remedy == FileRemedy.Update ? updates.Changed(publication, ids) : updates.InFolder(publication, ids, folder!);
        var (read, problems) = await updates.ReadAsync(matches);
        var known = read.Select(i => i.Id).ToHashSet();
        var left = findings.Where(f => !known.Contains(f.Part.Id)).Select(f => new NotMended(f,
            problems.FirstOrDefault(p => p.StartsWith($"{f.Subject}:", StringComparison.Ordinal)) ?? (remedy == FileRemedy.Find
                ? "No file of its content or its name lies there. Try another folder." : "The file could not be read as it is now.")));
        return (read.IsEmpty ? null : new UpdateImages(read, remedy == FileRemedy.Find ? "Relink image" : "Update image"), left);
    }
}

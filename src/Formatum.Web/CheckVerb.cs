using System.Globalization;
using Formatum.Core.Checking;
using Formatum.Core.Publications;
using Formatum.Output;
using Formatum.Storage;
using Formatum.Web.Checking;
using Formatum.Web.Hosting;

namespace Formatum.Web;

/// <summary>"formatum check NAME --profile offset": what is open, in lines, for nightly runs. It ends with 1 where something is, and with 2 where it could
/// not be checked.</summary>
internal static class CheckVerb
{
    public const string Name = "check";

    private const string Profile = "--profile";
    private const int Clean = 0, Found = 1;

    /// <exception cref="ArgumentException">It cannot be told what is meant, or there is no such publication or profile.</exception>
    public static async Task<int> RunAsync(string[] args)
    {
        var (name, profile, rest) = Read(args);
        var options = ServerOptions.From(CommandLine.Read(rest));
        if (!File.Exists(options.DatabaseFile)) throw new ArgumentException($"There is no database in {options.DataFolder}. Name the folder with --data.");
        using var held = TakeIfFree(options.DataFolder);
        var store = new PublicationStore(options.DatabaseFile, say: Console.Error.WriteLine);
        using var fonts = Typefaces.All.LookIn(new(options.FontFolder));
        await using var app = Server.Build(options, store);
        var standing = await store.OpenAsync(await IdOfAsync(store, name));
        var by = CheckProfile.Named(standing.Publication, profile ?? standing.Publication.Profile.Name) ?? throw new ArgumentException(
            $"There is no check profile \u201c{profile}\u201d. There are {string.Join(", ", CheckProfile.All(standing.Publication).Select(p => p.Name))}.");
        return Tell(standing.Publication, await app.Services.GetRequiredService<Checker>().WithAllInkAsync(standing, by));
    }

    private static (string Name, string? Profile, string[] Others) Read(string[] args)
    {
        if (args is not [var name, .. var rest] || name.StartsWith("--", StringComparison.Ordinal))
            throw new ArgumentException("Name the publication to check: formatum check \"Autumn catalog\" --profile offset --data DIR.");
        int at = Array.FindIndex(rest, a => a == Profile || a.StartsWith(Profile + "=", StringComparison.Ordinal));
        if (at < 0) return (name, null, rest);
        if (rest[at].Contains('=', StringComparison.Ordinal)) return (name, rest[at][(Profile.Length + 1)..], [.. rest[..at], .. rest[(at + 1)..]]);
        if (at + 1 >= rest.Length) throw new ArgumentException($"{Profile} wants a value: {Profile} offset.");
        return (name, rest[at + 1], [.. rest[..at], .. rest[(at + 2)..]]);
    }

    /// <summary>Nothing is written, so that a server may go on beside; where none runs, none shall begin meanwhile.</summary>
    private static DataFolder? TakeIfFree(string folder)
    {
        try
        {
            return DataFolder.Take(folder, "a check on the command line");
        }
        catch (StartRefused)
        {
            return null;
        }
    }

    /// <exception cref="ArgumentException">There is none of that name, or several.</exception>
    private static async Task<int> IdOfAsync(PublicationStore store, string name)
    {
        var all = (await store.ListAsync()).Where(p => !p.IsLibrary).ToList();
        var meant = all.Where(p => string.Equals(p.Name, name, StringComparison.OrdinalIgnoreCase)).ToList();
        if (meant.Count == 0 && int.TryParse(name, NumberStyles.None, CultureInfo.InvariantCulture, out int id)) meant = [.. all.Where(p => p.Id == id)];
        return meant.Count switch
        {
            1 => meant[0].Id,
            0 => throw new ArgumentException($"There is no publication named \u201c{name}\u201d. There are {string.Join(", ", all.Select(p => p.Name))}."),
            _ => throw new ArgumentException($"Several publications are named \u201c{name}\u201d. Take one by its number: "
                + $"{string.Join(", ", meant.Select(p => p.Id))}."),
        };
    }

    private static int Tell(Publication publication, PublicationFindings findings)
    {
        var unit = publication.Setup.Unit;
        foreach (var finding in findings.Open)
        {
            string where = finding.Where(publication);
            Console.WriteLine($"{FindingText.Name(finding.Severity),-8} {(where.Length > 0 ? where : "-"),-12} {finding.Sentence(unit)}");
        }
        int accepted = findings.All.Length - findings.Open.Count();
        Console.WriteLine($"{publication.Setup.Name}, by the profile {findings.Profile.Name}: "
            + $"{FindingText.Count(Severity.Fault, findings.Count(Severity.Fault))}, "
            + $"{FindingText.Count(Severity.Warning, findings.Count(Severity.Warning))}, {FindingText.Count(Severity.Note, findings.Count(Severity.Note))}"
            + $"{(accepted > 0 ? $", {accepted.ToString(CultureInfo.InvariantCulture)} accepted" : "")}.");
        return findings.Open.Any() ? Found : Clean;
    }
}

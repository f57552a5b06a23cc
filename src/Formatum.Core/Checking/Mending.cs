using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Checking;

/// <summary>A finding that could not be mended, and why.</summary>
public sealed record NotMended(Finding Finding, string Why);

/// <summary>What mends findings, as one step.</summary>
/// <param name="Edit">The edit; null where there is none.</param>
/// <param name="Left">What it leaves as it is.</param>
public sealed record Mending(Edit? Edit, ImmutableArray<NotMended> Left)
{
    /// <summary>So many are mended in one step.</summary>
    public const int Most = 5000;

    /// <summary>The remedies of findings, each made on what those before it leave.</summary>
    /// <param name="publication">The publication.</param>
    /// <param name="findings">What to mend; what comes of files has been done before.</param>
    /// <param name="remedy">Which of the remedies; null for the likeliest of each.</param>
    /// <param name="profile">What they were found by.</param>
    /// <param name="typefaces">The fonts.</param>
    public static Mending Of(Publication publication, IReadOnlyCollection<Finding> findings, string? remedy, CheckProfile profile, ITypefaces typefaces)
    {
        var edits = ImmutableArray.CreateBuilder<Edit>();
        var left = ImmutableArray.CreateBuilder<NotMended>();
        var now = publication;
        foreach (var finding in findings)
        {
            try
            {
                if (RemedyOf(finding, remedy, new(now, profile, typefaces)) is not { File: null } chosen)
                    left.Add(new(finding, "There is nothing the program can do about it by itself. Go there and mend it by hand."));
                else if (chosen.Make(now) is { } edit)
                {
                    now = now.With(edit.On(now));
                    edits.Add(edit);
                }
            }
            catch (EditRefused e)
            {
                left.Add(new(finding, e.Message));
            }
        }
        return new(edits.Count == 0 ? null : edits.Count == 1 ? edits[0] : new Together(edits.ToImmutable(), Words(findings, edits.Count)), left.ToImmutable());
    }

    /// <summary>A finding's remedy of a key, or its likeliest; null where it has none.</summary>
    public static Remedy? RemedyOf(Finding finding, string? key, RemedyContext context) =>
        CheckKinds.Of(finding.Kind).Remedies(context, finding).FirstOrDefault(r => key is null || r.Key == key);

    private static string Words(IReadOnlyCollection<Finding> findings, int count) => findings.Select(f => f.Kind).Distinct().Count() == 1
        ? $"Mend {count} findings: {CheckKinds.Of(findings.First().Kind).Title.ToLowerInvariant()}" : $"Mend {count} findings";
}

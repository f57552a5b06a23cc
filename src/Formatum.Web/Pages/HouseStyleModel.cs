using System.Collections.Immutable;
using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Formatum.Web.Pages;

/// <summary>A leaf of House style: a list of parts that have names, one of which is shown and changed.</summary>
/// <param name="store">Where the publications are.</param>
/// <param name="leaf">The leaf's address, below the publication's.</param>
/// <param name="field">What a part is called where a program is told that there is none.</param>
/// <param name="part">What a part is called.</param>
public abstract class HouseStyleModel<TPart>(PublicationStore store, string leaf, string field, string part) : PageModel where TPart : class
{
    protected PublicationStore Store => store;

    /// <summary>The parts of a publication that the leaf shows, by their ids.</summary>
    protected abstract ImmutableDictionary<int, TPart> PartsOf(Publication publication);

    protected string Address(int id, int? shown) => $"/publications/{id}/{leaf}" + (shown is { } s ? $"/{s}" : "");

    /// <summary>The part that an address names; null for none, or for one that is to be made.</summary>
    /// <exception cref="EditRefused">There is no such part.</exception>
    protected TPart? PartIn(Publication publication, string? named) => named is null or "new" ? null : PartNamed(publication, named);

    /// <exception cref="EditRefused">There is no such part.</exception>
    protected TPart PartNamed(Publication publication, string? named) => Known(publication, named) is { } id ? PartsOf(publication)[id]
        : throw new EditRefused(field, $"There is no such {part} in this publication. It may have been removed in another window; look at the list again.");

    /// <summary>Undoes or does again, and shows the same part, if it is still there.</summary>
    protected async Task<IActionResult> StepAsync(int id, string? named, string @do, long seen)
    {
        var outcome = @do == "redo" ? await store.RedoAsync(id, HttpContext.Seen(seen)) : await store.UndoAsync(id, HttpContext.Seen(seen));
        return this.GoTo(Address(id, Known(outcome.Standing.Publication, named)));
    }

    /// <summary>The name of a part's copy: one that no other has.</summary>
    /// <param name="longest">The most characters of a name.</param>
    protected static string NameOfCopy(string name, IEnumerable<string> taken, int longest)
    {
        var names = taken.ToHashSet(StringComparer.OrdinalIgnoreCase);
        string stem = name[..Math.Min(name.Length, longest - 10)];
        return Enumerable.Range(1, names.Count + 1).Select(n => n == 1 ? $"{stem} copy" : $"{stem} copy {Text(n)}").First(n => !names.Contains(n));
    }

    protected static string Text(int? number) => number?.ToString(CultureInfo.InvariantCulture) ?? "";

    private int? Known(Publication publication, string? named) =>
        int.TryParse(named, CultureInfo.InvariantCulture, out int id) && PartsOf(publication).ContainsKey(id) ? id : null;
}

using System.Globalization;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Storage;

namespace Formatum.Web.Outputs;

/// <summary>Whose a recipe is.</summary>
public enum RecipeOwner
{
    /// <summary>It comes along with the program.</summary>
    Usual,
    Publication,

    /// <summary>The house's, for all publications: it is kept in the library.</summary>
    House,
}

/// <summary>A recipe that a publication can be made by.</summary>
/// <param name="Key">By which it is chosen: "print", "own-12", "house-7".</param>
/// <param name="Recipe">The recipe.</param>
/// <param name="Owner">Whose it is.</param>
public sealed record ShelvedRecipe(string Key, Recipe Recipe, RecipeOwner Owner);

/// <summary>The recipes that a publication has, its own and those of the house.</summary>
public sealed class RecipeShelf(PublicationStore store)
{
    public async Task<IReadOnlyList<ShelvedRecipe>> ListAsync(Standing standing)
    {
        var all = Recipe.Usual.Select(r => new ShelvedRecipe(r.Name.ToLowerInvariant(), r, RecipeOwner.Usual)).ToList();
        all.AddRange(Of(standing.Publication, "own", RecipeOwner.Publication));
        if (await store.LibraryIdAsync() is { } library && library != standing.Id)
            all.AddRange(Of((await store.OpenAsync(library)).Publication, "house", RecipeOwner.House));
        return all;
    }

    private static IEnumerable<ShelvedRecipe> Of(Publication publication, string kind, RecipeOwner owner) => publication.Recipes.Values
        .OrderBy(r => r.Name, StringComparer.OrdinalIgnoreCase)
        .Select(r => new ShelvedRecipe(string.Create(CultureInfo.InvariantCulture, $"{kind}-{r.Id}"), r, owner));

    /// <summary>The one that is chosen by its key, or by its name.</summary>
    /// <exception cref="NoSuchPart">There is none.</exception>
    public async Task<ShelvedRecipe> FindAsync(Standing standing, string key)
    {
        var all = await ListAsync(standing);
        return all.FirstOrDefault(r => r.Key == key) ?? all.FirstOrDefault(r => string.Equals(r.Recipe.Name, key, StringComparison.OrdinalIgnoreCase))
            ?? throw new NoSuchPart("recipe", $"There is no recipe \u201c{key}\u201d. There are {string.Join(", ", all.Select(r => r.Recipe.Name))}.");
    }
}

using Formatum.Core.Checks;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>Makes a recipe, or puts another in the place of one.</summary>
/// <param name="Recipe">The recipe; its id is given anew where it is a new one.</param>
/// <param name="RecipeId">The one to replace; null for a new one.</param>
public sealed record DefineRecipe(Recipe Recipe, int? RecipeId = null) : Edit
{
    public override string Words => RecipeId is null ? $"Make recipe {Recipe.Name.Trim()}" : $"Change recipe {Recipe.Name.Trim()}";

    protected override void Make(Draft draft)
    {
        if (RecipeId is { } id) RecipeChecks.RecipeOf(draft, id);
        var made = Recipe with { Id = RecipeId ?? draft.NewId(), Name = Recipe.Name.Trim() };
        var errors = new FieldErrors();
        made.Check(errors);
        if (draft.Origin.Recipes.Values.Where(r => r.Id != RecipeId).Concat(Recipe.Usual).Any(r => RuleChecks.SameName.Equals(r.Name, made.Name)))
            errors.Add("name", $"There is a recipe named {made.Name} already. Take another name.");
        if (RecipeId is null && draft.Origin.Recipes.Count >= Recipe.Most) errors.Add("name", $"A publication has {Recipe.Most} recipes at most.");
        errors.ThrowIfAny();
        draft.Put(made);
    }
}

/// <summary>Removes a recipe. What was made with it stays.</summary>
public sealed record RemoveRecipe(int RecipeId) : Edit
{
    public override string Words => "Remove recipe";

    protected override void Make(Draft draft) => draft.Remove(RecipeChecks.RecipeOf(draft, RecipeId).Key);
}

internal static class RecipeChecks
{
    /// <exception cref="NoSuchPart">There is no such recipe.</exception>
    public static Recipe RecipeOf(Draft draft, int id) => draft.Find(new(PartKind.Recipe, id)) as Recipe
        ?? throw new NoSuchPart("recipe", $"There is no recipe {id} in this publication. It may have been removed in another window.");
}

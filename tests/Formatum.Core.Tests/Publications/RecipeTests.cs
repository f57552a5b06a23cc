using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;

namespace Formatum.Core.Tests.Publications;

/// <summary>Recipes: which pages, what files are called, and what is refused.</summary>
public sealed class RecipeTests
{
    private static Publication Of(int pages, int firstFolio = 1) => Publication.Create(new Setup
    {
        Name = "The Kiln Post",
        Edition = "No. 12",
        PageWidth = 400,
        PageHeight = 500,
        FirstFolio = firstFolio,
    }, pages);

    [Theory]
    [InlineData("", 1, new[] { 1, 2, 3, 4, 5, 6 })]
    [InlineData("1-4, 6", 1, new[] { 1, 2, 3, 4, 6 })]
    [InlineData(" 3 ; 2\u20133 ", 1, new[] { 3, 2 })]
    [InlineData("33-34", 33, new[] { 1, 2 })]
    public void Pages_are_named_by_the_numbers_they_bear(string text, int firstFolio, int[] places) =>
        PageRange.Of(text, Of(6, firstFolio)).ShouldBe(places);

    [Theory]
    [InlineData("9-2", "Write 2-9")]
    [InlineData("x", "names no pages")]
    [InlineData("1-2-3", "names no pages")]
    [InlineData("-3", "names no pages")]
    [InlineData("1e3", "names no pages")]
    [InlineData("99999999999", "names no pages")]
    [InlineData(",;", "No page is named")]
    [InlineData("5-7", "There is no page 7: the pages bear the numbers 1 to 6")]
    public void Pages_that_are_none_are_refused_in_words(string text, string words)
    {
        var refused = Should.Throw<EditRefused>(() => PageRange.Of(text, Of(6)));
        refused.Errors[0].Field.ShouldBe("pages");
        refused.Message.ShouldContain(words);
    }

    [Theory]
    [InlineData("{publication} {edition}", "The Kiln Post No. 12")]
    [InlineData("{recipe}-{date} {pages}", "Print-2026-05-04 1-4, 9")]
    [InlineData("{publication} {page}", "The Kiln Post")]
    [InlineData("..", "output")]
    public void Files_are_named_by_a_pattern(string pattern, string name) =>
        FileNames.Of(pattern, Of(1).Setup, "Print", "1-4, 9", "", new(2026, 5, 4, 9, 0, 0, TimeSpan.Zero)).ShouldBe(name);

    [Fact]
    public void Nothing_that_is_filled_in_leads_out_of_its_folder()
    {
        var setup = Of(1).Setup with { Name = "../../etc/passwd", Edition = "a\\b:c*" };
        FileNames.Of(FileNames.Usual, setup, "", "", "", default).ShouldBe("etc-passwd a-b-c");
    }

    [Theory]
    [InlineData("../{publication}", "has no / or")]
    [InlineData("a\\b", "has no / or")]
    [InlineData("{publication", "{publication")]
    [InlineData("{price}", "\u201c{price}\u201d is no word")]
    [InlineData("", "from 1 to 200")]
    [InlineData("a\nb", "no line ends")]
    public void Patterns_that_name_no_file_are_refused_in_words(string pattern, string words)
    {
        var errors = new FieldErrors();
        FileNames.Check(pattern, errors);
        errors.ToImmutable().ShouldHaveSingleItem().Message.ShouldContain(words);
    }

    [Fact]
    public void A_recipe_is_made_changed_removed_and_taken_back()
    {
        var p = Of(4);
        var recipe = Recipe.Usual[0] with { Name = "Newspaper", MostPpi = 200 };
        var made = new DefineRecipe(recipe).On(p);
        var after = p.With(made);
        int id = after.Recipes.Keys.Single();
        after.Recipes[id].ShouldBe(recipe with { Id = id });
        after.With(made.Inverse()).Recipes.ShouldBeEmpty();
        Should.Throw<EditRefused>(() => new DefineRecipe(recipe).On(after)).Errors[0].Field.ShouldBe("name");
        Should.Throw<EditRefused>(() => new DefineRecipe(recipe with { Name = "print" }).On(after)).Errors[0].Field.ShouldBe("name");
        after = after.With(new DefineRecipe(recipe with { Quality = 80 }, id).On(after));
        after.Recipes[id].Quality.ShouldBe(80);
        PartJson.Read<Recipe>(PartKind.Recipe, PartJson.Write(after.Recipes[id])).ShouldBe(after.Recipes[id]);
        after.With(new RemoveRecipe(id).On(after)).Recipes.ShouldBeEmpty();
        Should.Throw<NoSuchPart>(() => new RemoveRecipe(99).On(after));
    }

    [Fact]
    public void What_comes_along_is_possible() => Recipe.Usual.ShouldAllBe(r => Allowed(r));

    private static bool Allowed(Recipe recipe)
    {
        var errors = new FieldErrors();
        recipe.Check(errors);
        return !errors.Any;
    }

    [Fact]
    public void Figures_out_of_range_are_refused_each_at_its_field()
    {
        var errors = new FieldErrors();
        (Recipe.Usual[0] with
        {
            Name = " ",
            MostPpi = 3,
            Quality = 101,
            Ppi = double.NaN,
            Pages = "x",
            Marks = new() { Offset = 1000 },
            OneFileEach = true,
            FilePattern = "{publication}"
        }).Check(errors);
        errors.ToImmutable().Select(e => e.Field).ShouldBe(["name", "pages", "marks.offset", "mostPpi", "quality", "ppi", "filePattern"]);
    }
}

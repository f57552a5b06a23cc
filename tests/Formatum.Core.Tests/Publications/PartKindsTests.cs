using Formatum.Core.Publications;

namespace Formatum.Core.Tests.Publications;

public sealed class PartKindsTests
{
    [Fact]
    public void Every_kind_is_entered_once_and_every_part_is_of_one()
    {
        PartKinds.All.Select(k => k.Kind).Order().ShouldBe(Enum.GetValues<PartKind>().Order());
        PartKinds.All.Select(k => k.Type).OrderBy(t => t.Name)
            .ShouldBe(typeof(Part).Assembly.GetTypes().Where(t => t.IsSubclassOf(typeof(Part))).OrderBy(t => t.Name));
    }

    [Fact]
    public void A_publication_made_of_its_parts_again_has_the_same_and_finds_each()
    {
        var publication = Publication.Create(new Setup { Name = "Parts", PageWidth = 400, PageHeight = 600 }, 3, new FittingRule { Id = 1, Name = "Airy" });
        var again = Publication.FromParts(publication.NextId, publication.Parts);
        again.Parts.ShouldBe(publication.Parts);
        foreach (var part in publication.Parts)
        {
            publication.Find(part.Key).ShouldBe(part);
            PartKinds.Of(part.Key.Kind).Title(part).ShouldNotBeNullOrWhiteSpace();
        }
        publication.Find(new(PartKind.Frame, 99)).ShouldBeNull();
    }
}

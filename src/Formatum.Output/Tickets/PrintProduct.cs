using System.Collections.Immutable;
using Formatum.Core.Colours;
using Formatum.Core.Publications;
using Formatum.Output.Making;

namespace Formatum.Output.Tickets;

/// <summary>What is to be printed, as an output was made of it. Lengths in points.</summary>
/// <param name="Name">The publication's name.</param>
/// <param name="Edition">Its edition; empty where it has none.</param>
/// <param name="Width">Of a finished page.</param>
/// <param name="Height">Of a finished page.</param>
/// <param name="Pages">How many pages.</param>
/// <param name="Facing">Whether pages face each other.</param>
/// <param name="BindsRight">Whether it is bound on the right.</param>
/// <param name="Spots">Inks besides the four.</param>
/// <param name="Folded">How sheets are folded, in words; empty where they are not.</param>
public sealed record PrintProduct(string Name, string Edition, double Width, double Height, int Pages, bool Facing, bool BindsRight,
    ImmutableArray<SpotInk> Spots, string Folded = "")
{
    public static PrintProduct Of(OutputWish wish)
    {
        var publication = wish.Publication;
        var setup = publication.Setup;
        var used = ColourUse.Ids(publication).ToHashSet();
        var spots = publication.Colours.Values.Where(c => c.IsSpot && used.Contains(c.Id)).OrderBy(c => c.Name, StringComparer.Ordinal)
            .Select(c => new SpotInk(c.Name, Press.PressInks.Of(c.Colour, wish.Press)));
        return new(setup.Name, setup.Edition, setup.PageWidth, setup.PageHeight, wish.Pages.Count, setup.Facing, setup.BindsRight, [.. spots], FoldedIn(setup));
    }

    /// <summary>The standard's catalog of folds is not at hand: the panels are told one by one.</summary>
    private static string FoldedIn(Setup setup) => setup.Folding is not { } folding ? "" : folding.Kind switch
    {
        FoldKind.Half => "Folded once",
        FoldKind.Roll => "Rolled in",
        FoldKind.Accordion => "Zigzag",
        _ => "Gate",
    } + ", panels on the inside from the left: " + string.Join(", ", folding.PanelsOf(setup, isOutside: false).Select(p =>
        Core.Geometry.Units.Text(p.Width, Core.Geometry.LengthUnit.Millimetre)));
}

/// <summary>An ink besides the four.</summary>
/// <param name="Name">What its plate is called.</param>
/// <param name="StandIn">What comes near to it in four inks.</param>
public sealed record SpotInk(string Name, CmykColour StandIn);

using Formatum.Core.Colours;
using Formatum.Core.Publications;

namespace Formatum.Web.Desk;

/// <summary>A colour as a field of the inspector: one of the palette, or one of its own.</summary>
/// <param name="Publication">Whose palette is meant.</param>
/// <param name="Value">The colour; null where those that are chosen differ, or have none.</param>
/// <param name="Of">What it is a setting of, as the script tells fields apart: "text" or "look".</param>
/// <param name="Name">Which setting: "border.colour".</param>
/// <param name="Label">What people read, or hear.</param>
/// <param name="Id">The id of its picker.</param>
/// <param name="Usual">What the picker shows where there is none.</param>
public sealed record ColourField(Publication Publication, Colour? Value, string Of, string Name, string Label, string Id, string Usual = "#000000")
{
    public string Hex => Value is { } colour ? Publication.ColourOf(colour).Hex : Usual;

    public IEnumerable<PaletteColour> Palette => Publication.Colours.Values.OrderBy(c => c.Name, StringComparer.OrdinalIgnoreCase);

    public bool Is(PaletteColour colour) => Value is NamedColour named && named.Id == colour.Id;
}

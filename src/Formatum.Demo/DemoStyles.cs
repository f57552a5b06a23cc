using Formatum.Core.Colours;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Demo;

/// <summary>The text styles of the pottery, alike in all it prints.</summary>
internal static class DemoStyles
{
    /// <summary>The colours of the house, of which the pottery's green is an ink of its own.</summary>
    public static readonly PaletteColour[] Palette =
    [
        .. PaletteColour.Usual(1), Named("Kiln ink", new CmykColour(0.4, 0.2, 0.4, 0.84)), Named("Moss", new CmykColour(0.65, 0, 0.63, 0.43)),
        Named("Plum", new CmykColour(0.29, 0.75, 0.04, 0.38)), Named("Cream", new CmykColour(0, 0.02, 0.1, 0.04)),
        Named("Celadon", new CmykColour(0.3, 0, 0.32, 0.01)) with { IsSpot = true },
    ];

    private static PaletteColour Named(string name, Colour colour) => new() { Id = 1, Name = name, Colour = colour };

    /// <summary>Each with what it is based on; those come before it.</summary>
    /// <param name="colour">A colour of the palette, by its name.</param>
    public static (StyleKind Kind, string Name, string? BasedOn, TextSettings Settings)[] All(Func<string, Colour> colour) =>
    [
        (StyleKind.Paragraph, "Text", null, new() { Family = "Spectral", Size = 10.5, Leading = 14, Colour = colour("Black") }),
        (StyleKind.Paragraph, "Running text", "Text", new()
        {
            Size = 11, Leading = 15, Alignment = TextAlignment.Justified, Hyphenate = true, Indent = 10, Orphans = 2, Widows = 2,
        }),
        (StyleKind.Paragraph, "First paragraph", "Running text", new() { Indent = 0 }),
        (StyleKind.Paragraph, "Opening", "First paragraph", new() { InitialLines = 3 }),
        (StyleKind.Paragraph, "Heading", "Text", new()
        {
            Family = "Fraunces", Size = 20, Leading = 24, SpaceBefore = 10, SpaceAfter = 4, KeepWithNext = true, Heading = 1,
        }),
        (StyleKind.Paragraph, "Section", "Heading", new() { Size = 14, Leading = 17, SpaceBefore = 7, Heading = 2 }),
        (StyleKind.Paragraph, "Masthead", "Heading", new()
        {
            Size = 52, Leading = 56, SpaceBefore = 0, SpaceAfter = 0, Heading = 0, Colour = colour("Kiln ink"),
        }),
        (StyleKind.Paragraph, "Title", "Heading", new()
        {
            Size = 40, Leading = 44, SpaceBefore = 0, SpaceAfter = 0, Heading = 0, Colour = colour("Kiln ink"),
        }),
        (StyleKind.Paragraph, "Subtitle", "Title", new() { Size = 16, Leading = 22, Colour = colour("Black") }),
        (StyleKind.Paragraph, "Caption", "Text", new() { Family = "Cabin", Size = 8.5, Leading = 11 }),
        (StyleKind.Paragraph, "Price", "Caption", new() { Bold = true, Figures = FigureStyle.Lining }),
        (StyleKind.Paragraph, "Folio", "Caption", new() { Family = "Spectral" }),
        (StyleKind.Paragraph, "Table line", "Caption", new()
        {
            Size = 11, Leading = 19, TabularFigures = true, Figures = FigureStyle.Lining,
            Tabs = new([new(150, TabAlignment.Left), new(252, TabAlignment.Right, " .")]),
        }),
        (StyleKind.Paragraph, "Table head", "Table line", new()
        {
            Bold = true, LineBelow = 0.75, SpaceAfter = 2, Tabs = new([new(150), new(252, TabAlignment.Right)]),
        }),
        (StyleKind.Paragraph, "Contents", "Table line", new() { Size = 9.5, Leading = 12, SpaceAfter = 1, Tabs = new([new(156, TabAlignment.Right, " .")]) }),
        (StyleKind.Paragraph, "Price line", "Table line", new() { Tabs = new([new(176, TabAlignment.Decimal, " ."), new(224, TabAlignment.Right)]) }),
        (StyleKind.Paragraph, "Step", "Text", new() { List = ListKind.Number, IndentLeft = 16, Indent = -16, SpaceAfter = 2 }),
        (StyleKind.Paragraph, "Round", "Text", new() { Alignment = TextAlignment.Justified, Hyphenate = true, Size = 14, Leading = 19.5 }),
        (StyleKind.Paragraph, "Imprint", "Caption", new() { Alignment = TextAlignment.Centre, LineAbove = 0.5 }),
        (StyleKind.Character, "Emphasis", null, new() { Italic = true }),
        (StyleKind.Character, "Lead-in", null, new() { Case = TextCase.Capitals, Tracking = 60, Colour = colour("Moss") }),
        (StyleKind.Character, "Old price", null, new() { StrikeThrough = true, Bold = false }),
        (StyleKind.Character, "New price", null, new() { Colour = colour("Plum"), Bold = true }),
    ];
}

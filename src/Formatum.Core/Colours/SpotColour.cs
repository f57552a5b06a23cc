using Formatum.Core.Checks;

namespace Formatum.Core.Colours;

/// <summary>An ink of its own, as the palette has it, printed from a plate of its own. It is never kept: what is kept names the colour of the
/// palette.</summary>
/// <param name="Name">What its plate is called.</param>
/// <param name="StandIn">What shows in its place where the ink itself cannot.</param>
public sealed record SpotColour(string Name, Colour StandIn) : Colour
{
    public override RgbColour Shown => StandIn.Shown;
    public override Colour On(InkTable press) => this with { StandIn = StandIn.On(press) };
    public override string Text => $"{Name} ({StandIn.Text})";

    public override void Check(string field, FieldErrors errors) => StandIn.Check(field, errors);
}

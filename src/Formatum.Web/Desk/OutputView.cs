using Formatum.Web.Outputs;

namespace Formatum.Web.Desk;

/// <summary>The card on the Desk from which a publication is taken away.</summary>
/// <param name="Desk">The Desk it is asked from.</param>
/// <param name="Findings">What is worth knowing before.</param>
public sealed record OutputView(DeskView Desk, BeforeOutput Findings)
{
    public Core.Publications.Publication Publication => Desk.Publication;
}

using System.Text;
using Formatum.Core.Publications;
using Formatum.Output;

namespace Formatum.Web.Desk;

/// <summary>The treatment of a picture while its figures are under the hand, as the page's script sets it: what stands in its filter; nothing for
/// none.</summary>
public sealed record FilterPatch(int Frame, string Steps)
{
    public static FilterPatch Of(Publication publication, Frame frame)
    {
        var steps = new StringBuilder();
        if (publication.LookOf(frame).Treatment is { Works: true } treatment) TreatmentFilter.Append(steps, treatment.Recoloured(publication.ColourOf));
        return new(frame.Id, steps.ToString());
    }
}

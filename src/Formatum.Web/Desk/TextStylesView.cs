using Formatum.Core.Publications;

namespace Formatum.Web.Desk;

/// <summary>The styles of a publication beside the text that is chosen.</summary>
public sealed record TextStylesView(int PublicationId, Publication Publication, TextSelection Text, int? FrameId)
{
    public IEnumerable<NamedStyle> Of(StyleKind kind) => Publication.Styles.Values.Where(s => s.Kind == kind).OrderBy(s => s.Name,
        StringComparer.OrdinalIgnoreCase);
}

using System.Globalization;
using Formatum.Core.Checking;
using Formatum.Core.Publications;

namespace Formatum.Web.Checking;

/// <summary>Where findings are to be seen.</summary>
public static class FindingAddress
{
    /// <summary>The address on the Desk where it is to be seen; null where it has no place.</summary>
    public static string? DeskAddress(this Finding finding, int id, Publication publication)
    {
        if (finding.Places.IsEmpty || !publication.Pages.ContainsKey(finding.Places[0].PageId)) return null;
        var place = finding.Places[0];
        string frame = place.FrameId is { } frameId && publication.Frames.GetValueOrDefault(frameId)?.PageId == place.PageId
            ? string.Create(CultureInfo.InvariantCulture, $"?frame={frameId}") : "";
        return string.Create(CultureInfo.InvariantCulture, $"/publications/{id}/desk/{Spread.NumberOfPage(publication, place.PageId)}{frame}");
    }
}

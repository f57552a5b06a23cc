using System.Globalization;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Web.Desk;

/// <summary>Where a place in a text stands on a spread, to show it to others.</summary>
/// <param name="Frame">The frame.</param>
/// <param name="Transform">How that lies, as SVG.</param>
/// <param name="X">Where the caret stands, in points of the frame.</param>
/// <param name="Top">Where its line begins.</param>
/// <param name="Bottom">Where that ends.</param>
/// <param name="Beside">A line beside those of its paragraph, as an SVG path.</param>
public sealed record CaretPlace(int Frame, string Transform, double X, double Top, double Bottom, string Beside)
{
    /// <summary>How far beside the lines it is drawn, in points.</summary>
    private const double Off = 3;

    /// <summary>Null where the place stands on another spread, or in what is left over.</summary>
    public static CaretPlace? Of(Publication publication, Spread spread, Story story, int place)
    {
        var places = TextPlaces.Of(publication, spread, story, place);
        var (number, at) = story.Text.PlaceOf(place);
        int caret = story.Text.Paragraphs.Take(number).Sum(p => p.Text.Length + 1) + at, begin = caret - at;
        int end = begin + story.Text.Paragraphs[number].Text.Length;
        var (frame, line) = places.Frames.SelectMany(f => f.Lines.Select(l => (f, l))).LastOrDefault(p => caret >= p.l.Start && caret < p.l.Start
            + p.l.Stops.Length);
        if (line is null) return null;
        var beside = frame.Lines.Where(l => l.Start >= begin && l.Start <= end).Select(l => string.Create(CultureInfo.InvariantCulture,
            $"M{l.Stops[0] - Off:0.##} {l.Top}V{l.Bottom}"));
        return new(frame.Id, frame.Transform, line.Stops[caret - line.Start], line.Top, line.Bottom, string.Concat(beside));
    }
}

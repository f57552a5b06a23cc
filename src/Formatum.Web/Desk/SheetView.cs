using System.Collections.Immutable;
using Formatum.Core.Publications;

namespace Formatum.Web.Desk;

/// <summary>A stretch of the contact sheet; the rest comes as its end comes in sight, for there may be thousands of images.</summary>
public sealed class SheetView
{
    /// <summary>So many images come at once.</summary>
    public const int Stretch = 120;

    /// <param name="publication">The publication.</param>
    /// <param name="after">The id of the image behind which it begins; 0 for the first.</param>
    /// <param name="shown">How many the page shows already: no fewer come, so that nothing moves.</param>
    public SheetView(Publication publication, int after = 0, int shown = 0)
    {
        Publication = publication;
        var counts = publication.PlacedCounts;
        var rest = publication.Images.Values.Where(i => i.Id > after).OrderBy(i => i.Id).ToList();
        int most = Math.Max(Stretch, shown);
        Items = [.. rest.Take(most).Select(i => new SheetItem(i, publication, counts.GetValueOrDefault(i.Id)))];
        HasMore = rest.Count > most;
        Suggested = publication.Images.Values.Count(i => i.Subject is null && i.SuggestedSubject is not null);
        WithoutSubject = publication.Images.Values.Count(i => i.Subject is null);
    }

    public Publication Publication { get; }
    public ImmutableArray<SheetItem> Items { get; }
    public bool HasMore { get; }

    /// <summary>The id of the last image that is in it.</summary>
    public int Last => Items.IsEmpty ? 0 : Items[^1].Image.Id;

    /// <summary>Images whose subject point is suggested and not accepted yet.</summary>
    public int Suggested { get; }

    public int WithoutSubject { get; }
}

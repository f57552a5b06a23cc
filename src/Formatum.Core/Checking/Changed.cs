using System.Collections.Immutable;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking;

/// <summary>Which parts of a publication are others than in the one before it, as far as findings rest on them.</summary>
/// <param name="All">Whether so much may be different that all is measured from new.</param>
/// <param name="Pages">The pages on which something is.</param>
/// <param name="Stories">The stories that are, by themselves.</param>
/// <param name="Order">Whether pages came, went or moved.</param>
/// <param name="AllText">Whether all text may be set otherwise.</param>
internal sealed record Changed(bool All, IReadOnlySet<int> Pages, IReadOnlySet<int> Stories, bool Order, bool AllText)
{
    public bool Any => All || AllText || Order || Pages.Count + Stories.Count > 0;

    public static Changed Between(CheckedPublication was, CheckedPublication now)
    {
        Publication before = was.Publication, after = now.Publication;
        bool all = !ReferenceEquals(before.Colours, after.Colours) || !ReferenceEquals(before.Looks, after.Looks)
            || before.Setup with { CheckProfileId = null, DefaultRuleId = null } != after.Setup with { CheckProfileId = null, DefaultRuleId = null };
        var pages = new HashSet<int>();
        var stories = new HashSet<int>();
        foreach (var (frameWas, frameNow) in Differing(before.Frames, after.Frames))
        {
            if (frameWas is not null) pages.Add(frameWas.PageId);
            if (frameNow is not null) pages.Add(frameNow.PageId);
        }
        foreach (var (pageWas, pageNow) in Differing(before.Pages, after.Pages)) pages.Add((pageWas ?? pageNow)!.Id);
        foreach (var (storyWas, storyNow) in Differing(before.Stories, after.Stories)) stories.Add((storyWas ?? storyNow)!.Id);
        Images(was, now, pages);
        Rules(before, after, pages);
        bool order = !ReferenceEquals(before.Order, after.Order) && before.Order != after.Order;
        bool masters = !ReferenceEquals(before.Masters, after.Masters) && !before.Masters.SequenceEqual(after.Masters);
        return new(all || masters, pages, stories, order, !ReferenceEquals(before.Styles, after.Styles) || !ReferenceEquals(before.Fonts, after.Fonts));
    }

    /// <summary>The parts of a kind that are not the same, before and after.</summary>
    private static IEnumerable<(T? Was, T? Now)> Differing<T>(ImmutableDictionary<int, T> before, ImmutableDictionary<int, T> after) where T : Part
    {
        if (ReferenceEquals(before, after)) yield break;
        int added = 0;
        foreach (var (id, now) in after)
        {
            var was = before.GetValueOrDefault(id);
            if (was is null) added++;
            if (!ReferenceEquals(was, now)) yield return (was, now);
        }
        // Only where some have gone is it worth looking for them.
        if (before.Count == after.Count - added) yield break;
        foreach (var (id, was) in before)
            if (!after.ContainsKey(id)) yield return (was, null);
    }

    /// <summary>Pages that show a picture that is another, or whose file stands otherwise.</summary>
    private static void Images(CheckedPublication was, CheckedPublication now, HashSet<int> pages)
    {
        var images = Differing(was.Publication.Images, now.Publication.Images).Where(i => i.Was is not null).Select(i => i.Was!.Id)
            .Concat(now.Facts.LinksOtherThan(was.Facts)).ToHashSet();
        if (images.Count == 0) return;
        foreach (var frame in now.Publication.Frames.Values)
            if (frame.ImageId is { } id && images.Contains(id)) pages.Add(frame.PageId);
    }

    /// <summary>Pages with frames that a rule fits otherwise.</summary>
    private static void Rules(Publication before, Publication after, HashSet<int> pages)
    {
        if (ReferenceEquals(before.Rules, after.Rules) && before.Setup.DefaultRuleId == after.Setup.DefaultRuleId) return;
        foreach (var frame in after.Frames.Values)
            if (!frame.IsText && (before.Frames.GetValueOrDefault(frame.Id) is not { } was || before.FitOf(was) != after.FitOf(frame))) pages.Add(frame.PageId);
    }
}

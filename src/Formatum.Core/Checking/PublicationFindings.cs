using System.Collections.Immutable;
using Formatum.Core.Composing;
using Formatum.Core.Publications;
using Formatum.Core.Stories;
using Formatum.Core.Typesetting;

namespace Formatum.Core.Checking;

/// <summary>All findings on a publication, kept for each spread and each story; after an edit only what it reached is measured again.</summary>
public sealed class PublicationFindings
{
    /// <summary>What a spread is made of: it is the same one wherever it stands.</summary>
    private readonly record struct SpreadKey(int Left, int Right, bool Recto, bool OddFirst);

    /// <summary>What was found on a spread.</summary>
    /// <param name="Frames">On its frames, and on itself.</param>
    /// <param name="MasterTexts">On text of masters as it is set on its pages.</param>
    /// <param name="Uses">What its frames use.</param>
    private sealed record OfSpread(ImmutableArray<Finding> Frames, ImmutableArray<Finding> MasterTexts, ImmutableArray<FrameUse> Uses);

    /// <summary>What was found on the text of a story.</summary>
    /// <param name="Findings">The findings.</param>
    /// <param name="Styles">The styles it has.</param>
    /// <param name="HasFields">Whether what it says follows from its pages.</param>
    /// <param name="Follows">Whether it follows from where other text stands.</param>
    private sealed record OfStory(ImmutableArray<Finding> Findings, ImmutableArray<int> Styles, bool HasFields, bool Follows);

    private readonly CheckedPublication _in;
    private readonly Dictionary<SpreadKey, OfSpread> _spreads;
    private readonly Dictionary<int, OfStory> _stories;
    private readonly Lazy<ImmutableArray<Finding>> _all;
    private readonly Lazy<Dictionary<int, object>> _stamps;

    private PublicationFindings(CheckedPublication checkedOne, Dictionary<SpreadKey, OfSpread> spreads, Dictionary<int, OfStory> stories)
    {
        (_in, _spreads, _stories) = (checkedOne, spreads, stories);
        _all = new(Gather);
        _stamps = new(() => _spreads.SelectMany(s => new[] { s.Key.Left, s.Key.Right }.Distinct().Select(page => (Page: page, s.Value)))
            .ToDictionary(s => s.Page, s => (object)s.Value));
    }

    public Publication Publication => _in.Publication;
    public CheckProfile Profile => _in.Profile;

    /// <summary>What was known of files and pixels.</summary>
    public CheckFacts Facts => _in.Facts;

    /// <summary>Everything that was found: what counts most first, then in the order of the pages, then by kind; what somebody let be is among it.</summary>
    public ImmutableArray<Finding> All => _all.Value;

    /// <summary>What nobody let be.</summary>
    public IEnumerable<Finding> Open => All.Where(f => f.IsOpen);

    /// <summary>How many of a severity nobody let be.</summary>
    public int Count(Severity severity) => All.Count(f => f.IsOpen && f.Severity == severity);

    /// <summary>Stands for all that a page shows: the same for as long as nothing changed that its spread rests on. Null where there is no such page.</summary>
    public object? StampOf(int pageId) => _stamps.Value.GetValueOrDefault(pageId);

    /// <summary>Measures all of a publication.</summary>
    public static PublicationFindings Of(Publication publication, CheckProfile profile, CheckFacts facts, ITypefaces typefaces)
    {
        var now = new CheckedPublication(publication, profile, facts, typefaces);
        return Measured(now, null, new(All: true, new HashSet<int>(), new HashSet<int>(), Order: true, AllText: true));
    }

    /// <summary>The findings on what came of the publication: measured again only where it changed.</summary>
    public PublicationFindings After(Publication publication, CheckFacts facts)
    {
        var now = _in with { Publication = publication, Facts = facts };
        return Measured(now, this, Changed.Between(_in, now));
    }

    private static PublicationFindings Measured(CheckedPublication now, PublicationFindings? before, Changed changed)
    {
        var measure = new Measure(now);
        var spreads = new Dictionary<SpreadKey, OfSpread>();
        var stories = new Dictionary<int, OfStory>();
        var reached = Reached(now.Publication, changed);
        bool follows = changed.Any && now.Publication.Stories.Values.Any(s => before?._stories.GetValueOrDefault(s.Id) is { } kept
            && !changed.Stories.Contains(s.Id) ? kept.Follows : s.Text.FollowsOthers());
        for (int i = -now.Publication.Masters.Count, n = Spread.CountOf(now.Publication); i < n; i++)
        {
            var spread = Spread.At(now.Publication, i);
            var key = KeyOf(spread);
            var kept = before?._spreads.GetValueOrDefault(key);
            if (kept is null || changed.All || spread.Pages.Any(p => reached.Contains(p.Page.Id)))
            {
                spreads[key] = measure.Spread(spread);
                // Its text may keep clear of what faces it now.
                foreach (var page in spread.Pages) reached.Add(page.Page.Id);
            }
            else spreads[key] = changed.AllText || changed.Order || follows ? kept with { MasterTexts = measure.MasterTexts(spread) } : kept;
        }
        var reachedStories = reached.SelectMany(now.Publication.FramesOnPage).Select(f => f.StoryId).OfType<int>().ToHashSet();
        foreach (var story in now.Publication.Stories.Values)
        {
            var kept = before?._stories.GetValueOrDefault(story.Id);
            bool anew = kept is null || changed.All || changed.AllText || changed.Stories.Contains(story.Id) || (changed.Any && kept.HasFields)
                || reachedStories.Contains(story.Id);
            stories[story.Id] = anew ? measure.Story(story) : kept!;
        }
        return new(now, spreads, stories);
    }

    /// <summary>The pages on which something may lie otherwise: those with a change, those that face them, and those of a master with one.</summary>
    private static HashSet<int> Reached(Publication publication, Changed changed)
    {
        var reached = new HashSet<int>(changed.Pages);
        // Whether a page is blank follows from the words on it.
        reached.UnionWith(changed.Stories.Select(publication.Stories.GetValueOrDefault).OfType<Story>().SelectMany(s => s.FrameIds)
            .Select(id => publication.Frames[id].PageId));
        foreach (int page in reached.ToList())
        {
            if (publication.Order.IndexOf(page) < 0 && publication.MasterWith(page) is null) continue;
            foreach (var beside in Spread.At(publication, Spread.IndexOfPage(publication, publication.NumberOf(page))).Pages) reached.Add(beside.Page.Id);
        }
        var masters = reached.Select(publication.MasterWith).OfType<MasterPage>().Select(m => m.Id).ToHashSet();
        if (masters.Count > 0)
            foreach (var page in publication.Pages.Values)
                if (page.MasterId is { } id && masters.Contains(id)) reached.Add(page.Id);
        return reached;
    }

    private static SpreadKey KeyOf(Spread spread) => new(spread.Pages[0].Page.Id, spread.Pages[^1].Page.Id, spread.Pages[0].Recto,
        spread.Pages[0].Number % 2 != 0);

    /// <summary>All that is kept put together, with what is found on the whole.</summary>
    private ImmutableArray<Finding> Gather()
    {
        var found = _spreads.Values.SelectMany(s => s.Frames.Concat(s.MasterTexts)).Concat(_stories.Values.SelectMany(s => s.Findings))
            .Concat(new Measure(_in).Whole(WholeOf()));
        var merged = new Dictionary<(FindingKind, PartKey), Finding>();
        foreach (var finding in found)
            merged[(finding.Kind, finding.Part)] = merged.TryGetValue((finding.Kind, finding.Part), out var known) ? Together(known, finding) : finding;
        var accepted = _in.Publication.Accepted.Values.ToDictionary(a => (a.Kind, a.On));
        var order = _in.Publication.Order;
        var listed = new (int Severity, int Page, Finding Finding)[merged.Count];
        int i = 0;
        foreach (var finding in merged.Values)
        {
            var severity = _in.Profile.SeverityOf(finding.Kind);
            listed[i++] = (-(int)severity, finding.Places.IsEmpty ? int.MaxValue : order.IndexOf(finding.Places[0].PageId), Named(finding) with
            {
                Severity = severity,
                Accepted = accepted.TryGetValue((finding.Kind, finding.Part), out var let) && finding.Badness <= let.Badness * (1 + 1e-9) ? let : null,
            });
        }
        Array.Sort(listed, static (a, b) => a.Severity != b.Severity ? a.Severity - b.Severity : a.Page != b.Page ? a.Page.CompareTo(b.Page)
            : a.Finding.Kind != b.Finding.Kind ? a.Finding.Kind - b.Finding.Kind : a.Finding.Part.Kind != b.Finding.Part.Kind
                ? a.Finding.Part.Kind - b.Finding.Part.Kind : a.Finding.Part.Id - b.Finding.Part.Id);
        return [.. listed.Select(l => l.Finding)];
    }

    /// <summary>What is found on a part in several places is one finding, as bad as the worst of them.</summary>
    private Finding Together(Finding one, Finding other)
    {
        var order = _in.Publication.Order;
        var worse = one.Badness > other.Badness || (one.Badness == other.Badness && string.CompareOrdinal(one.Detail, other.Detail) <= 0) ? one : other;
        return worse with
        {
            Places = [.. one.Places.Concat(other.Places).Distinct().OrderBy(p => order.IndexOf(p.PageId)).ThenBy(p => p.FrameId)],
        };
    }

    /// <summary>A page is called by its number, which changes with those before it.</summary>
    private Finding Named(Finding finding) => finding.Part.Kind == PartKind.Page && finding.Subject.Length == 0
        ? finding with { Subject = Kinds.TooMuchInk.Capital(_in.Publication.WordsOf(finding.Part.Id)) } : finding;

    private CheckedWhole WholeOf() => new(_in, [.. _spreads.Values.SelectMany(s => s.Uses)], _stories.Values.SelectMany(s => s.Styles).ToHashSet());

    /// <summary>Measures what is to be measured.</summary>
    private sealed class Measure(CheckedPublication now)
    {
        private readonly ImmutableArray<KindCheck> _kinds = [.. CheckKinds.All.Where(k => now.Profile.SeverityOf(k.Kind) != Severity.Off)];

        private Publication Publication => now.Publication;

        public OfSpread Spread(Spread spread)
        {
            var found = ImmutableArray.CreateBuilder<Finding>();
            var uses = ImmutableArray.CreateBuilder<FrameUse>();
            foreach (var page in spread.Pages)
                foreach (var frame in Publication.FramesOnPage(page.Page.Id))
                {
                    var under = new CheckedFrame(now, spread, page, frame);
                    uses.Add(new(spread.Master is null && !frame.Hidden ? frame.ImageId : null, frame.RuleId, frame.LookId, under.Place));
                    foreach (var kind in _kinds)
                        if (!frame.Hidden || kind.Kind == FindingKind.HiddenContent) found.AddRange(kind.OfFrame(under));
                }
            var whole = new CheckedSpread(now, spread);
            foreach (var kind in _kinds) found.AddRange(kind.OfSpread(whole));
            return new(found.ToImmutable(), MasterTexts(spread), uses.ToImmutable());
        }

        public ImmutableArray<Finding> MasterTexts(Spread spread)
        {
            if (Publication.Masters.IsEmpty || spread.Master is not null) return [];
            return [.. from page in spread.Pages
                       let master = Publication.MasterPageOf(page.Page.Id)
                       where master is not null
                       from frame in Publication.FramesOnPage(master.Value)
                       where !frame.Hidden && frame.IsText && !Publication.IsEmpty(frame)
                       let set = Composition.TextOf(Publication, frame, now.Typefaces, page.Page.Id)
                       let text = new CheckedText(now, spread, page, frame, Publication.StoryOf(frame)!, set)
                       from kind in _kinds
                       from finding in kind.OfText(text)
                       select finding];
        }

        public OfStory Story(Story story)
        {
            ImmutableArray<int> styles = [.. story.Text.Paragraphs.Select(p => p.StyleId)
                .Concat(story.Text.Paragraphs.SelectMany(p => p.Runs).Select(r => r.StyleId)).OfType<int>().Distinct()];
            // Text of masters is looked at on the pages that show it.
            if (Publication.Order.IndexOf(Publication.Frames[story.FrameIds[0]].PageId) < 0)
                return new([], styles, story.Text.HasFields(), story.Text.FollowsOthers());
            var found = ImmutableArray.CreateBuilder<Finding>();
            var set = Composition.TextsOf(Publication, story, now.Typefaces);
            for (int i = 0; i < set.Length; i++)
            {
                var frame = Publication.Frames[story.FrameIds[i]];
                if (frame.Hidden || Publication.Order.IndexOf(frame.PageId) < 0) continue;
                var spread = Publications.Spread.At(Publication, Publications.Spread.IndexOfPage(Publication, Publication.NumberOf(frame.PageId)));
                var text = new CheckedText(now, spread, spread.Pages.First(p => p.Page.Id == frame.PageId), frame, story, set[i]);
                foreach (var kind in _kinds) found.AddRange(kind.OfText(text));
            }
            return new(found.ToImmutable(), styles, story.Text.HasFields(), story.Text.FollowsOthers());
        }

        public IEnumerable<Finding> Whole(CheckedWhole whole) => _kinds.SelectMany(k => k.OfWhole(whole));
    }
}

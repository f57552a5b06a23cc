using System.Collections.Concurrent;
using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Stories;

namespace Formatum.Core.Publications;

/// <summary>A publication: its parts, and what follows from them. Immutable; <see cref="With"/> gives the next one.</summary>
public sealed class Publication : ITextNames
{
    private static readonly ImmutableSortedSet<int> NoFrames = [];

    private readonly ImmutableDictionary<int, ImmutableSortedSet<int>> _framesOfPage;

    /// <summary>Each rule's settings, and what they come to, worked out once for all its frames; 0 stands for no rule.</summary>
    private readonly ConcurrentDictionary<int, (FitSettings Settings, ResolvedFit Fit)> _ruleFits;

    private Publication(
        int nextId, Setup setup, PageOrder order, ImmutableDictionary<int, Page> pages, ImmutableDictionary<int, Frame> frames,
        ImmutableDictionary<int, LinkedImage> images, ImmutableDictionary<int, FittingRule> rules, ImmutableSortedDictionary<int, MasterPage> masters,
            ImmutableDictionary<int, Story> stories, ImmutableDictionary<int, NamedStyle> styles, ImmutableDictionary<int, OwnFont> fonts,
        ImmutableDictionary<int, PaletteColour> colours, ImmutableDictionary<int, NamedLook> looks, ImmutableDictionary<int, Recipe> recipes,
        ImmutableDictionary<int, CheckProfile> profiles, ImmutableDictionary<int, AcceptedFinding> accepted, Tray tray,
        ImmutableDictionary<int, ImmutableSortedSet<int>> framesOfPage, ConcurrentDictionary<int, (FitSettings, ResolvedFit)>? ruleFits = null)
    {
        NextId = nextId;
        Setup = setup;
        Order = order;
        Pages = pages;
        Frames = frames;
        Images = images;
        Rules = rules;
        Masters = masters;
        Stories = stories;
        Styles = styles;
        Fonts = fonts;
        Colours = colours;
        Looks = looks;
        Recipes = recipes;
        CheckProfiles = profiles;
        Accepted = accepted;
        Tray = tray;
        _framesOfPage = framesOfPage;
        _ruleFits = ruleFits ?? new();
    }

    /// <summary>An id no part has had yet. It only grows, so that undoing an edit never lets two parts share one.</summary>
    public int NextId { get; }

    public Setup Setup { get; }
    public PageOrder Order { get; }
    public ImmutableDictionary<int, Page> Pages { get; }
    public ImmutableDictionary<int, Frame> Frames { get; }
    public ImmutableDictionary<int, LinkedImage> Images { get; }
    public ImmutableDictionary<int, FittingRule> Rules { get; }
    public ImmutableSortedDictionary<int, MasterPage> Masters { get; }
    public ImmutableDictionary<int, Story> Stories { get; }
    public ImmutableDictionary<int, NamedStyle> Styles { get; }

    /// <summary>The fonts it brought itself.</summary>
    public ImmutableDictionary<int, OwnFont> Fonts { get; }

    /// <summary>Its palette.</summary>
    public ImmutableDictionary<int, PaletteColour> Colours { get; }

    /// <summary>Its named looks.</summary>
    public ImmutableDictionary<int, NamedLook> Looks { get; }

    /// <summary>Its own ways of making outputs.</summary>
    public ImmutableDictionary<int, Recipe> Recipes { get; }

    /// <summary>Its own ways of being checked.</summary>
    public ImmutableDictionary<int, CheckProfile> CheckProfiles { get; }

    /// <summary>The findings that somebody let be.</summary>
    public ImmutableDictionary<int, AcceptedFinding> Accepted { get; }

    public Tray Tray { get; }

    /// <summary>What it is checked by.</summary>
    public CheckProfile Profile => CheckProfile.Of(this, Setup.CheckProfileId);

    public int PageCount => Order.Ids.Length;

    /// <summary>A new publication of blank pages, with the usual colours.</summary>
    /// <param name="setup">How it is set up.</param>
    /// <param name="pages">How many pages, 1 to 2000.</param>
    /// <param name="start">The rule to begin with as the default; its id is given anew. Null for the built-in settings alone.</param>
    /// <exception cref="EditRefused">The set-up is impossible, or the number of pages is.</exception>
    public static Publication Create(Setup setup, int pages, FittingRule? start = null)
    {
        var errors = new FieldErrors();
        setup.Check(errors);
        if (pages is < 1 or > Setup.MostPages) errors.Add("pages", $"{pages} pages cannot be made. Give a number from 1 to {Setup.MostPages}.");
        errors.ThrowIfAny();
        var ids = Enumerable.Range(1, pages).ToImmutableArray();
        var blank = ids.Select(id => new Page(id));
        var colours = PaletteColour.Usual(pages + 2);
        var made = start is null ? [] : new Part[] { start with { Id = pages + 1, BasedOnId = null } };
        return FromParts(pages + 2 + colours.Count(), [start is null ? setup : setup with { DefaultRuleId = pages + 1 }, new PageOrder(ids), .. blank, .. made,
            .. colours]);
    }

    /// <summary>Puts a publication together again from all its parts.</summary>
    public static Publication FromParts(int nextId, IEnumerable<Part> parts)
    {
        Setup? setup = null;
        PageOrder? order = null;
        var tray = Tray.Empty;
        var pages = ImmutableDictionary.CreateBuilder<int, Page>();
        var frames = ImmutableDictionary.CreateBuilder<int, Frame>();
        var images = ImmutableDictionary.CreateBuilder<int, LinkedImage>();
        var rules = ImmutableDictionary.CreateBuilder<int, FittingRule>();
        var masters = ImmutableSortedDictionary.CreateBuilder<int, MasterPage>();
        var stories = ImmutableDictionary.CreateBuilder<int, Story>();
        var styles = ImmutableDictionary.CreateBuilder<int, NamedStyle>();
        var fonts = ImmutableDictionary.CreateBuilder<int, OwnFont>();
        var colours = ImmutableDictionary.CreateBuilder<int, PaletteColour>();
        var looks = ImmutableDictionary.CreateBuilder<int, NamedLook>();
        var recipes = ImmutableDictionary.CreateBuilder<int, Recipe>();
        var profiles = ImmutableDictionary.CreateBuilder<int, CheckProfile>();
        var accepted = ImmutableDictionary.CreateBuilder<int, AcceptedFinding>();
        foreach (var part in parts)
        {
            switch (part)
            {
                case Setup s: setup = s; break;
                case PageOrder o: order = o; break;
                case Page p: pages.Add(p.Id, p); break;
                case Frame f: frames.Add(f.Id, f); break;
                case LinkedImage i: images.Add(i.Id, i); break;
                case FittingRule r: rules.Add(r.Id, r); break;
                case MasterPage m: masters.Add(m.Id, m); break;
                case Story t: stories.Add(t.Id, t); break;
                case NamedStyle n: styles.Add(n.Id, n); break;
                case OwnFont own: fonts.Add(own.Id, own); break;
                case PaletteColour c: colours.Add(c.Id, c); break;
                case NamedLook l: looks.Add(l.Id, l); break;
                case Recipe w: recipes.Add(w.Id, w); break;
                case CheckProfile k: profiles.Add(k.Id, k); break;
                case AcceptedFinding a: accepted.Add(a.Id, a); break;
                case Tray t: tray = t; break;
                default: throw new ArgumentException($"A publication has no parts of the kind {part.Key.Kind}.");
            }
        }
        var byPage = frames.Values.GroupBy(f => f.PageId).ToImmutableDictionary(g => g.Key, g => g.Select(f => f.Id).ToImmutableSortedSet());
        return new(
            nextId, setup ?? throw new ArgumentException("A publication needs a set-up."), order ??
                throw new ArgumentException("A publication needs an order of pages."),
            pages.ToImmutable(), frames.ToImmutable(), images.ToImmutable(), rules.ToImmutable(), masters.ToImmutable(),
            stories.ToImmutable(), styles.ToImmutable(), fonts.ToImmutable(), colours.ToImmutable(), looks.ToImmutable(), recipes.ToImmutable(),
            profiles.ToImmutable(), accepted.ToImmutable(), tray, byPage);
    }

    /// <summary>All its parts; an empty tray is none.</summary>
    public IEnumerable<Part> Parts => PartKinds.All.SelectMany(kind => kind.All(this)).Where(part => part is not Tray { ImageIds.IsEmpty: true });

    /// <summary>The part as it is now; null where there is none.</summary>
    public Part? Find(PartKey key) => PartKinds.Of(key.Kind).Find(this, key.Id);

    /// <summary>The publication after the changes.</summary>
    public Publication With(Changes changes)
    {
        var setup = Setup;
        var order = Order;
        var tray = Tray;
        var pages = Pages.ToBuilder();
        var frames = Frames.ToBuilder();
        var images = Images.ToBuilder();
        var rules = Rules.ToBuilder();
        var masters = Masters.ToBuilder();
        var stories = Stories.ToBuilder();
        var styles = Styles.ToBuilder();
        var fonts = Fonts.ToBuilder();
        var colours = Colours.ToBuilder();
        var looks = Looks.ToBuilder();
        var recipes = Recipes.ToBuilder();
        var profiles = CheckProfiles.ToBuilder();
        var accepted = Accepted.ToBuilder();
        var byPage = _framesOfPage.ToBuilder();
        int nextId = NextId;
        foreach (var (key, before, after) in changes.Items)
        {
            nextId = Math.Max(nextId, key.Id + 1);
            switch (key.Kind)
            {
                case PartKind.Setup: setup = (Setup)after!; break;
                case PartKind.PageOrder: order = (PageOrder)after!; break;
                case PartKind.Page: Put(pages, key.Id, after); break;
                case PartKind.Image: Put(images, key.Id, after); break;
                case PartKind.Rule: Put(rules, key.Id, after); break;
                case PartKind.Master: Put(masters, key.Id, after); break;
                case PartKind.Story: Put(stories, key.Id, after); break;
                case PartKind.Style: Put(styles, key.Id, after); break;
                case PartKind.Font: Put(fonts, key.Id, after); break;
                case PartKind.Colour: Put(colours, key.Id, after); break;
                case PartKind.Look: Put(looks, key.Id, after); break;
                case PartKind.Recipe: Put(recipes, key.Id, after); break;
                case PartKind.CheckProfile: Put(profiles, key.Id, after); break;
                case PartKind.Accepted: Put(accepted, key.Id, after); break;
                case PartKind.Tray: tray = (Tray?)after ?? Tray.Empty; break;
                case PartKind.Frame:
                    Put(frames, key.Id, after);
                    int? was = (before as Frame)?.PageId, now = (after as Frame)?.PageId;
                    if (was == now) break;
                    if (was is { } left) byPage[left] = byPage.GetValueOrDefault(left, NoFrames).Remove(key.Id);
                    if (now is { } reached) byPage[reached] = byPage.GetValueOrDefault(reached, NoFrames).Add(key.Id);
                    break;
            }
        }
        var rulesAfter = rules.ToImmutable();
        bool sameFits = ReferenceEquals(rulesAfter, Rules) && setup.DefaultRuleId == Setup.DefaultRuleId;
        var next = new Publication(nextId, setup, order, pages.ToImmutable(), frames.ToImmutable(), images.ToImmutable(), rulesAfter, masters.ToImmutable(),
            stories.ToImmutable(), styles.ToImmutable(), fonts.ToImmutable(), colours.ToImmutable(), looks.ToImmutable(), recipes.ToImmutable(),
            profiles.ToImmutable(), accepted.ToImmutable(), tray, byPage.ToImmutable(), sameFits ? _ruleFits : null);
        next.TakeOver(this, changes);
        return next;
    }

    /// <summary>What was worked out of all frames before goes on, as far as those that changed left it as it was.</summary>
    private void TakeOver(Publication before, Changes changes)
    {
        var frames = changes.Items.Where(c => c.Key.Kind == PartKind.Frame).Select(c => (Before: c.Before as Frame, After: c.After as Frame)).ToList();
        if (before._placedCounts is { } counts)
        {
            var changed = frames.Where(f => f.Before?.ImageId != f.After?.ImageId).ToList();
            if (changed.Count > 0) counts = new(counts);
            foreach (var (was, now) in changed)
            {
                if (was?.ImageId is { } left && --counts[left] == 0) counts.Remove(left);
                if (now?.ImageId is { } taken) counts[taken] = counts.GetValueOrDefault(taken) + 1;
            }
            _placedCounts = counts;
        }
        bool sameWraps = ReferenceEquals(Looks, before.Looks)
            && !frames.Any(f => (f.Before is { } was && before.KeepsTextClear(was)) || (f.After is { } now && KeepsTextClear(now)));
        if (sameWraps) _wrapped = before._wrapped;
    }

    private bool KeepsTextClear(Frame frame) => !frame.Hidden && WrapOf(frame).Around != WrapAround.None;

    private static void Put<T>(IDictionary<int, T> all, int id, Part? part) where T : Part
    {
        if (part is T kept) all[id] = kept;
        else all.Remove(id);
    }

    /// <summary>
    /// The number a page is called by: from 1 in the order of pages. Master pages lie outside that order and are numbered below 0, from the first master on:
    /// -1 for the right-hand page, -2 for the left-hand one, -3, -4 for the next. 0 where there is no such page.
    /// </summary>
    public int NumberOf(int pageId)
    {
        if (Order.IndexOf(pageId) is >= 0 and var index) return index + 1;
        int number = -1;
        foreach (var master in Masters.Values)
        {
            if (master.RectoId == pageId) return number;
            if (master.VersoId == pageId) return number - 1;
            number -= 2;
        }
        return 0;
    }

    /// <summary>The page of a number, as <see cref="NumberOf"/> gives it; null where there is none.</summary>
    public int? PageIdAt(int number)
    {
        if (number >= 1 && number <= PageCount) return Order.Ids[number - 1];
        if (number >= 0 || number < -2 * Masters.Count) return null;
        return Masters.Values.ElementAt((-number - 1) / 2).Side(number % 2 != 0);
    }

    /// <summary>What a page is called in the middle of a sentence: by the number it bears, or by its master's name.</summary>
    public string WordsOf(int pageId) => MasterWith(pageId) is { } master ? $"master {master.Name}" : $"page {Setup.FirstFolio + Order.IndexOf(pageId)}";

    /// <summary>The master page that a page belongs to as one of its sides; null for all others.</summary>
    public MasterPage? MasterWith(int pageId) => Masters.Values.FirstOrDefault(m => m.RectoId == pageId || m.VersoId == pageId);

    /// <summary>Whether a page lies on the right-hand side of its spread. Pages that do not face each other count as such.</summary>
    public bool IsRecto(int pageId)
    {
        if (MasterWith(pageId) is { } master) return !Setup.Facing || master.RectoId == pageId;
        return !Setup.Facing || Setup.IsRecto(Setup.FirstFolio + Order.IndexOf(pageId));
    }

    /// <summary>The page of a master that a page goes by, on the side it lies on; null where it is based on none.</summary>
    public int? MasterPageOf(int pageId)
    {
        if (Order.IndexOf(pageId) is not (>= 0 and var index) || Pages[pageId].MasterId is not { } id || !Masters.TryGetValue(id, out var master)) return null;
        return master.Side(!Setup.Facing || Setup.IsRecto(Setup.FirstFolio + index));
    }

    /// <summary>The frames of the pages themselves, not those of master pages.</summary>
    public IEnumerable<Frame> PageFrames => Masters.IsEmpty ? Frames.Values : Frames.Values.Where(f => Order.IndexOf(f.PageId) >= 0);

    public IEnumerable<Frame> FramesOnPage(int pageId) => _framesOfPage.GetValueOrDefault(pageId, NoFrames).Select(id => Frames[id]);

    /// <summary>The settings a frame is fitted by, resolved through the cascade.</summary>
    public ResolvedFit FitOf(Frame frame)
    {
        var (settings, fit) = RuleFit(frame.RuleId);
        return frame.Own.IsOpen ? fit : frame.Own.Over(settings).Resolve();
    }

    /// <summary>What a rule comes to over all it is based on and the default; of no rule, what the default alone does.</summary>
    public ResolvedFit FitOfRule(int? ruleId) => RuleFit(ruleId).Fit;

    private (FitSettings Settings, ResolvedFit Fit) RuleFit(int? ruleId) => _ruleFits.GetOrAdd(ruleId ?? 0, static (id, publication) =>
    {
        var settings = Cascade.SettingsOf(publication, id == 0 ? null : id);
        return (settings, settings.Resolve());
    }, this);

    /// <summary>All that decides where the frame's image lies; null for a placeholder.</summary>
    public PictureFit? PictureFitOf(Frame frame) => ImageOf(frame) is not { } image ? null
        : new PictureFit(frame.Box.Width, frame.Box.Height, ShapeOf(frame), image.Picture(Setup.AssumedPpi), FitOf(frame), image.Subject);

    /// <summary>Where the frame's image lies: as its rule fits it, or as the frame holds it; null for a placeholder.</summary>
    public Placement? PlacementOf(Frame frame) => PictureFitOf(frame) is { } fit ? PlacementOf(frame, fit) : null;

    private static Placement PlacementOf(Frame frame, in PictureFit fit) =>
        frame.Held is { } held && !fit.Rule.StaysFitted ? Fitter.Hold(fit.Picture, fit.Rule, held) : fit.Place(frame.Recrop);

    /// <summary>Where the frame's image lies, with its numbers; null for a placeholder.</summary>
    public Fitted? FittedOf(Frame frame) => PictureFitOf(frame) is not { } fit ? null
        : Fitted.Measure(fit.Width, fit.Height, fit.Outline, fit.Picture, PlacementOf(frame, fit), fit.Rule, frame.Recrop != Recrop.None);

    /// <summary>In how many frames each image is placed; those that are in none are left out. Worked out once.</summary>
    public IReadOnlyDictionary<int, int> PlacedCounts => _placedCounts ??= Frames.Values.Where(f => f.ImageId is not null).CountBy(f => f.ImageId!.Value)
        .ToDictionary();

    private Dictionary<int, int>? _placedCounts;

    /// <summary>The files of a family that it brought itself; null for any other. Worked out once.</summary>
    public FontFiles? FilesOf(string family) => (_families ??= OwnFont.Families(Fonts.Values)).GetValueOrDefault(family);

    private IReadOnlyDictionary<string, FontFiles>? _families;

    /// <summary>How a frame looks: what is set on it over what its named look says, with colours of the palette as they are named.</summary>
    public Look LookOf(Frame frame) => (frame.LookId is null ? frame.Look : frame.Look.Over(LookCascade.SettingsOf(this, frame.LookId))).Resolve();

    /// <summary>How text of other frames keeps clear of a frame: as is set on it, or as its look says.</summary>
    public Wrap WrapOf(Frame frame) => frame.Wrap ?? (frame.Look.Wrap is null && (frame.LookId is null || !LooksSayWrap) ? Wrap.Off : LookOf(frame).Wrap);

    private bool LooksSayWrap => _looksSayWrap ??= Looks.Values.Any(l => l.Settings.Wrap is not null);

    private bool? _looksSayWrap;

    /// <summary>A frame's outline with its corners as its look shapes them: what is seen of it.</summary>
    public Outline ShapeOf(Frame frame) => frame.LookId is null ? frame.Outline.With(frame.Look.Corners?.Value) : frame.Outline.With(LookOf(frame).Corners);

    /// <summary>A colour as its press prints it, one of the palette looked up; one that is not there is black.</summary>
    public Colour ColourOf(Colour colour) => FiguresOf(colour).On(_inks ??= InkTable.Of(Setup.Press?.Table));

    /// <summary>Found once: it is looked up by all its text.</summary>
    private InkTable? _inks;

    /// <summary>A colour by its figures alone, whatever prints it, one of the palette looked up.</summary>
    public Colour FiguresOf(Colour colour) => colour is not NamedColour named ? colour : Colours.GetValueOrDefault(named.Id) switch
    {
        null => Colour.Black,
        { IsSpot: true } spot => new SpotColour(spot.Name, spot.Colour),
        var found => found.Colour,
    };

    /// <summary>All families that its text can be set in: those that are shipped, and its own.</summary>
    public IEnumerable<string> FontFamilies => TextStyle.Families.Concat(Fonts.Values.Select(f => f.Family).Distinct().Order(StringComparer.OrdinalIgnoreCase));

    /// <summary>The story that runs through a frame; null for an image frame.</summary>
    public Story? StoryOf(Frame frame) => frame.StoryId is { } id ? Stories.GetValueOrDefault(id) : null;

    /// <summary>All frames of the chains that some frames are in, where there are more than they.</summary>
    public IEnumerable<int> ChainsOf(IEnumerable<int> frameIds) => frameIds.Select(id => Frames.GetValueOrDefault(id)).OfType<Frame>().Select(StoryOf)
        .OfType<Story>().Where(s => s.FrameIds.Length > 1).Distinct().SelectMany(s => s.FrameIds);

    /// <summary>Whether nothing is in it yet: a placeholder, or a text frame of a story without words. On a master, it is then to be filled on each
    /// page.</summary>
    public bool IsEmpty(Frame frame) => frame.IsPlaceholder || StoryOf(frame) is { Text.IsEmpty: true };

    /// <summary>The frames that text keeps clear of. Worked out once.</summary>
    public IReadOnlyList<Frame> WrappedFrames => _wrapped ??= [.. Frames.Values.Where(KeepsTextClear).OrderBy(f => f.Id)];

    private IReadOnlyList<Frame>? _wrapped;

    /// <summary>The images that no frame shows, in the order they came.</summary>
    public IEnumerable<int> UnplacedImages => Images.Keys.Where(id => !PlacedCounts.ContainsKey(id)).Order();

    public LinkedImage? ImageOf(Frame frame) => frame.ImageId is { } id ? Images.GetValueOrDefault(id) : null;
}

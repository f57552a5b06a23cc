using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Edits;

/// <summary>What becomes of a part that comes from another publication where one of its kind and name is here already.</summary>
public enum Namesake
{
    /// <summary>The one that is here is used for it.</summary>
    Kept,

    /// <summary>It takes the place of the one that is here, and whatever goes by that changes.</summary>
    Replaced,

    /// <summary>It comes beside it, under a name of its own.</summary>
    Beside,
}

/// <summary>
/// Parts of another publication as they come to be in this one, each once, with all that they name: rules, looks, styles and colours are the same by
/// name, images by content.
/// </summary>
/// <param name="draft">Where they come to be.</param>
/// <param name="source">Where they are from.</param>
/// <param name="namesake">What becomes of each that has a namesake here; null for using what is here.</param>
/// <param name="flat">Whether rules, looks and styles come by themselves, with what they say through those they are based on; else those come too.</param>
internal sealed class Bringing(Draft draft, Publication source, Func<PartKey, Namesake>? namesake = null, bool flat = false)
{
    private readonly Dictionary<PartKey, int> _brought = [];

    public int? Rule(int? id) => Bring(PartKind.Rule, id, source.Rules.GetValueOrDefault, r => r.Name, (rule, made, name) => rule with
    {
        Id = made,
        Name = name,
        BasedOnId = flat ? null : Rule(rule.BasedOnId),
        Settings = flat ? Cascade.Together(Cascade.Chain(source, rule.Id)) : rule.Settings,
        LookId = Look(rule.LookId),
    });

    public int? Look(int? id) => Bring(PartKind.Look, id, source.Looks.GetValueOrDefault, l => l.Name, (look, made, name) => look with
    {
        Id = made,
        Name = name,
        BasedOnId = flat ? null : Look(look.BasedOnId),
        Settings = Coloured(flat ? LookCascade.SettingsOf(source, look.Id) : look.Settings),
    });

    public int? Style(int? id) => Bring(PartKind.Style, id, source.Styles.GetValueOrDefault, s => s.Name, (style, made, name) =>
    {
        var settings = flat ? TextCascade.Of(source, style) : style.Settings;
        if (settings.Family is { } family) Fonts([family]);
        return style with { Id = made, Name = name, BasedOnId = flat ? null : Style(style.BasedOnId), Settings = Coloured(settings) };
    }, (style, there) => ((NamedStyle)there).Kind == style.Kind);

    public int? Colour(int? id) => Bring(PartKind.Colour, id, source.Colours.GetValueOrDefault, c => c.Name, (colour, made, name) =>
        colour with { Id = made, Name = name });

    /// <summary>A colour, where it is one of the palette as one of this palette; of what is no longer there, black is left.</summary>
    public Colour Coloured(Colour colour) => colour is not NamedColour named ? colour : Colour(named.Id) is { } id ? new NamedColour(id) : Colours.Colour.Black;

    public LookSettings Coloured(LookSettings look) => look.Recoloured(Coloured);

    private TextSettings Coloured(TextSettings set) => set.Colour is { } colour ? set with { Colour = Coloured(colour) } : set;

    public int? Image(int? id)
    {
        if (id is null || !source.Images.TryGetValue(id.Value, out var image)) return null;
        _images ??= Here<LinkedImage>(PartKind.Image).DistinctBy(i => i.ContentHash).ToDictionary(i => i.ContentHash, i => i.Id);
        if (_images.TryGetValue(image.ContentHash, out int there)) return there;
        var brought = image with { Id = draft.NewId() };
        draft.Put(brought);
        return _images[image.ContentHash] = brought.Id;
    }

    /// <summary>The images that are here, by content.</summary>
    private Dictionary<string, int>? _images;

    /// <summary>A text with the styles, colours and fonts that it names.</summary>
    public FrameText Text(FrameText text)
    {
        Fonts(FontChecks.Named(text));
        return text.Restyled(p => p with { StyleId = Style(p.StyleId), Set = Coloured(p.Set) },
            r => r with { StyleId = Style(r.StyleId), Set = Coloured(r.Set) });
    }

    /// <summary>A frame with all that it names.</summary>
    public Frame Frame(Frame frame) => frame with
    {
        ImageId = Image(frame.ImageId),
        RuleId = Rule(frame.RuleId),
        LookId = Look(frame.LookId),
        Look = Coloured(frame.Look),
    };

    /// <summary>A master with all that is on it. Pages that go by one it takes the place of take over what they have, first for first.</summary>
    public int? Master(int? id) => Bring(PartKind.Master, id, source.Masters.GetValueOrDefault, m => m.Name, (master, made, name) =>
    {
        if (draft.Find(new(PartKind.Master, made)) is MasterPage before) RemoveMaster.Clear(draft, before);
        var stories = new StoryCopies(draft, source.Stories, Text);
        int Side(int original)
        {
            int page = PageRuns.Blank(draft);
            draft.Put(new Page(page) { Guides = source.Pages[original].Guides });
            foreach (var frame in source.FramesOnPage(original).OrderBy(f => f.Depth).ThenBy(f => f.Id))
            {
                int copy = draft.NewId();
                draft.Put(Frame(frame) with { Id = copy, StoryId = stories.For(frame, copy), PageId = page, GroupId = null, MasterFrameId = null });
            }
            return page;
        }
        var brought = master with { Id = made, Name = name, VersoId = Side(master.VersoId), RectoId = Side(master.RectoId) };
        stories.Finish();
        return brought;
    });

    /// <summary>The fonts of families that are not here yet.</summary>
    private void Fonts(IEnumerable<string> families)
    {
        foreach (string family in families)
        {
            if (Here<OwnFont>(PartKind.Font).Any(f => f.Family == family)) continue;
            foreach (var font in source.Fonts.Values.Where(f => f.Family == family)) draft.Put(font with { Id = draft.NewId() });
        }
    }

    private List<T> Here<T>(PartKind kind) where T : Part => [.. PartKinds.Of(kind).All(draft.Origin).Select(p => p.Key)
        .Concat(draft.Touched.Where(k => k.Kind == kind)).Distinct().Select(draft.Find).OfType<T>()];

    /// <summary>How many of a kind a publication has at most.</summary>
    private static readonly Dictionary<PartKind, int> Most = new()
    {
        [PartKind.Look] = NamedLook.Most,
        [PartKind.Style] = NamedStyle.Most,
        [PartKind.Colour] = PaletteColour.Most,
        [PartKind.Master] = MasterPage.Most,
    };

    private int? Bring<T>(PartKind kind, int? id, Func<int, T?> find, Func<T, string> nameOf, Func<T, int, string, T> make, Func<T, T, bool>? fits = null)
        where T : Part
    {
        if (id is not { } from || find(from) is not { } part) return null;
        if (_brought.TryGetValue(part.Key, out int known)) return known;
        string name = nameOf(part);
        var here = Here<T>(kind);
        var there = here.FirstOrDefault(p => RuleChecks.SameName.Equals(nameOf(p), name));
        var choice = there is null ? Namesake.Beside : fits?.Invoke(part, there) == false ? Namesake.Beside : namesake?.Invoke(part.Key) ?? Namesake.Kept;
        if (choice == Namesake.Kept) return _brought[part.Key] = there!.Key.Id;
        if (choice == Namesake.Beside && Most.TryGetValue(kind, out int most) && here.Count >= most)
            throw new EditRefused("parts", $"There would be more than {most} {PartKinds.Of(kind).Noun}s here. Remove some that are not used, or bring less.");
        int made = _brought[part.Key] = choice == Namesake.Replaced ? there!.Key.Id : draft.NewId();
        draft.Put(make(part, made, choice == Namesake.Replaced ? nameOf(there!) : Free(name, here.Select(nameOf))));
        return made;
    }

    /// <summary>The name, or where it is taken the next that is free: "Airy 2".</summary>
    private static string Free(string name, IEnumerable<string> taken)
    {
        var names = taken.ToHashSet(RuleChecks.SameName);
        for (int i = 1; ; i++)
        {
            string behind = i == 1 ? "" : $" {i}", free = name[..Math.Min(name.Length, FittingRule.LongestName - behind.Length)] + behind;
            if (!names.Contains(free)) return free;
        }
    }
}

using System.Collections.Immutable;
using Formatum.Core.Colours;
using Formatum.Core.Fitting;
using Formatum.Core.Settings;
using Formatum.Core.Stories;

namespace Formatum.Core.Publications;

/// <summary>A part of one publication's house style, and what another has under its name.</summary>
/// <param name="Part">The part.</param>
/// <param name="Name">Its name.</param>
/// <param name="Here">The other's part of that kind and name; null where it has none.</param>
/// <param name="Differs">In what the two differ, in words; empty where they are the same, or there is only one.</param>
public sealed record HousePart(Part Part, string Name, Part? Here, ImmutableArray<string> Differs)
{
    public bool IsNew => Here is null;
    public bool IsSame => Here is not null && Differs.IsEmpty;
}

/// <summary>The house style of one publication beside that of another: what has the same name is the same part, whatever its id.</summary>
public sealed class HouseComparison(Publication source, Publication here)
{
    private static readonly StringComparer SameName = StringComparer.OrdinalIgnoreCase;

    /// <summary>Rules, looks, styles, colours and masters of the source, each kind by name.</summary>
    public ImmutableArray<HousePart> Parts() =>
    [
        .. Of(source.Rules.Values, here.Rules.Values, r => r.Name, Rules),
        .. Of(source.Looks.Values, here.Looks.Values, l => l.Name, Looks),
        .. Of(source.Styles.Values, here.Styles.Values, s => s.Name, Styles),
        .. Of(source.Colours.Values, here.Colours.Values, c => c.Name, Colours),
        .. Of(source.Masters.Values, here.Masters.Values, m => m.Name, Masters),
    ];

    private static IEnumerable<HousePart> Of<T>(IEnumerable<T> theirs, IEnumerable<T> ours, Func<T, string> nameOf, Func<T, T, IEnumerable<string>> differs)
        where T : Part
    {
        var byName = ours.GroupBy(nameOf, SameName).ToDictionary(g => g.Key, g => g.First(), SameName);
        return theirs.OrderBy(nameOf, SameName).Select(part => byName.TryGetValue(nameOf(part), out var same)
            ? new HousePart(part, nameOf(part), same, [.. differs(part, same)]) : new HousePart(part, nameOf(part), null, []));
    }

    private IEnumerable<string> Rules(FittingRule theirs, FittingRule ours)
    {
        if (!SameName.Equals(NameOf(source.Rules, theirs.BasedOnId, r => r.Name), NameOf(here.Rules, ours.BasedOnId, r => r.Name))) yield return BasedOn;
        if (!SameName.Equals(NameOf(source.Looks, theirs.LookId, l => l.Name), NameOf(here.Looks, ours.LookId, l => l.Name))) yield return "Usual look";
        if (theirs.Description != ours.Description) yield return "Description";
        foreach (string label in Differing(FitSettings.All, theirs.Settings, ours.Settings)) yield return label;
    }

    private IEnumerable<string> Looks(NamedLook theirs, NamedLook ours)
    {
        if (!SameName.Equals(NameOf(source.Looks, theirs.BasedOnId, l => l.Name), NameOf(here.Looks, ours.BasedOnId, l => l.Name))) yield return BasedOn;
        foreach (string label in Differing(LookSettings.All, theirs.Settings.Recoloured(Neutral(source)), ours.Settings.Recoloured(Neutral(here))))
            yield return label;
    }

    private IEnumerable<string> Styles(NamedStyle theirs, NamedStyle ours)
    {
        if (theirs.Kind != ours.Kind) yield return "What it is for";
        if (!SameName.Equals(NameOf(source.Styles, theirs.BasedOnId, s => s.Name), NameOf(here.Styles, ours.BasedOnId, s => s.Name))) yield return BasedOn;
        foreach (string label in Differing(TextSettings.All, Neutral(source, theirs.Settings), Neutral(here, ours.Settings))) yield return label;
    }

    private static IEnumerable<string> Colours(PaletteColour theirs, PaletteColour ours)
    {
        if (theirs.Colour != ours.Colour) yield return "Figures";
        if (theirs.IsSpot != ours.IsSpot) yield return "Whether it is an ink of its own";
    }

    private IEnumerable<string> Masters(MasterPage theirs, MasterPage ours)
    {
        if (!Side(source, theirs.VersoId).SequenceEqual(Side(here, ours.VersoId))) yield return "Left-hand page";
        if (!Side(source, theirs.RectoId).SequenceEqual(Side(here, ours.RectoId))) yield return "Right-hand page";
    }

    private const string BasedOn = "What it is based on";

    private static IEnumerable<string> Differing<T>(IEnumerable<Setting<T>> all, T theirs, T ours) =>
        all.Where(s => !Equals(s.ValueOf(theirs), s.ValueOf(ours))).Select(s => s.Label);

    private static string NameOf<T>(IReadOnlyDictionary<int, T> parts, int? id, Func<T, string> name) =>
        id is { } key && parts.TryGetValue(key, out var part) ? name(part) : "";

    /// <summary>Ids that stand for names, so that what names the same is equal.</summary>
    private readonly Dictionary<string, int> _ids = new(SameName);

    private int IdOf(string kind, string name)
    {
        string key = $"{kind} {name}";
        if (!_ids.TryGetValue(key, out int id)) _ids[key] = id = _ids.Count + 1;
        return id;
    }

    private Func<Colour, Colour> Neutral(Publication publication) => colour =>
        colour is NamedColour named ? new NamedColour(IdOf("colour", NameOf(publication.Colours, named.Id, c => c.Name))) : colour;

    private TextSettings Neutral(Publication publication, TextSettings set) =>
        set.Colour is { } colour ? set with { Colour = Neutral(publication)(colour) } : set;

    private int? Neutral<T>(string kind, IReadOnlyDictionary<int, T> parts, int? id, Func<T, string> name) =>
        id is null ? null : IdOf(kind, NameOf(parts, id, name));

    /// <summary>What is on a side of a master, from the lowest to the topmost, whatever its ids.</summary>
    private IEnumerable<object> Side(Publication publication, int pageId)
    {
        int depth = 0;
        foreach (var guide in publication.Pages[pageId].Guides) yield return guide;
        foreach (var frame in publication.FramesOnPage(pageId).OrderBy(f => f.Depth).ThenBy(f => f.Id))
        {
            yield return frame with
            {
                Id = 0,
                PageId = 0,
                StoryId = null,
                Depth = depth++,
                ImageId = frame.ImageId is { } image ? IdOf("image", publication.Images[image].ContentHash) : null,
                RuleId = Neutral("rule", publication.Rules, frame.RuleId, r => r.Name),
                LookId = Neutral("look", publication.Looks, frame.LookId, l => l.Name),
                Look = frame.Look.Recoloured(Neutral(publication)),
            };
            if (publication.StoryOf(frame) is { } story) yield return Neutral(publication, story.Text);
        }
    }

    private FrameText Neutral(Publication publication, FrameText text) => text.Restyled(
        p => p with { StyleId = Neutral("style", publication.Styles, p.StyleId, s => s.Name), Set = Neutral(publication, p.Set) },
        r => r with { StyleId = Neutral("style", publication.Styles, r.StyleId, s => s.Name), Set = Neutral(publication, r.Set) });
}

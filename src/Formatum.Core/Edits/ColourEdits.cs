using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Edits;

/// <summary>Makes a colour of the palette, or puts another in the place of one: all that use it follow.</summary>
public sealed record DefineColour : Edit
{
    /// <summary>The colour to replace; null for a new one.</summary>
    public int? ColourId { get; init; }

    public required string Name { get; init; }
    public required Colour Colour { get; init; }
    public bool IsSpot { get; init; }

    public override string Words => ColourId is null ? $"Add colour {Name.Trim()}" : $"Change colour {Name.Trim()}";

    protected override void Make(Draft draft)
    {
        if (ColourId is { } id) ColourChecks.ColourOf(draft, id);
        var made = new PaletteColour { Id = ColourId ?? draft.NewId(), Name = Name.Trim(), Colour = Colour, IsSpot = IsSpot };
        var errors = new FieldErrors();
        ColourChecks.Check(made, errors);
        if (draft.Origin.Colours.Values.Any(c => c.Id != ColourId && RuleChecks.SameName.Equals(c.Name, made.Name)))
            errors.Add("name", $"There is a colour named {made.Name} already. Take another name.");
        if (ColourId is null && draft.Origin.Colours.Count >= PaletteColour.Most) errors.Add("name",
            $"A palette has {PaletteColour.Most:#,0} colours at most.");
        errors.ThrowIfAny();
        draft.Put(made);
    }
}

/// <summary>Removes colours of the palette. What uses them takes another instead, or keeps each as it was.</summary>
/// <param name="Ids">The colours.</param>
/// <param name="Instead">What is taken instead; null leaves everything as it looks.</param>
public sealed record RemoveColours(ImmutableArray<int> Ids, Colour? Instead = null) : Edit
{
    public override string Words => Ids.Length == 1 ? "Remove colour" : $"Remove {Ids.Length} colours";

    protected override void Make(Draft draft)
    {
        if (Ids.IsEmpty) throw new EditRefused("colour", "No colour is named. Choose one first.");
        var gone = Ids.Distinct().ToDictionary(id => id, id => ColourChecks.ColourOf(draft, id));
        if (Instead is NamedColour other && (gone.ContainsKey(other.Id) || !draft.Origin.Colours.ContainsKey(other.Id)))
            throw new EditRefused("instead", "A colour that goes, or is not there, cannot stand in. Choose another, or none.");
        ColourChecks.Remove(draft, gone, Instead);
    }
}

/// <summary>Takes colours into the palette: those of a name that is there take its place, others are added.</summary>
/// <param name="Colours">The colours; their ids are given anew.</param>
/// <param name="Whole">Whether colours that are not among them go; what uses those stays as it looks.</param>
public sealed record TakePalette(ImmutableArray<PaletteColour> Colours, bool Whole = false) : Edit
{
    public override string Words => $"Take {Colours.Length} colours into the palette";

    protected override void Make(Draft draft)
    {
        var errors = new FieldErrors();
        foreach (var colour in Colours) ColourChecks.Check(colour, errors);
        if (Colours.GroupBy(c => c.Name.Trim(), RuleChecks.SameName).FirstOrDefault(g => g.Count() > 1) is { } twice)
            errors.Add("name", $"Two of the colours are named {twice.Key}. Give each a name of its own.");
        errors.ThrowIfAny();
        var there = draft.Origin.Colours.Values.ToDictionary(c => c.Name, RuleChecks.SameName);
        var taken = new HashSet<int>();
        foreach (var colour in Colours)
        {
            int id = there.TryGetValue(colour.Name.Trim(), out var known) ? known.Id : draft.NewId();
            taken.Add(id);
            draft.Put(colour with { Id = id, Name = colour.Name.Trim() });
        }
        var gone = Whole ? draft.Origin.Colours.Values.Where(c => !taken.Contains(c.Id)).ToDictionary(c => c.Id) : [];
        if (there.Count - gone.Count + taken.Count(id => !draft.Origin.Colours.ContainsKey(id)) > PaletteColour.Most)
            throw new EditRefused("colours", $"A palette has {PaletteColour.Most:#,0} colours at most. Take fewer, or remove some first.");
        if (gone.Count > 0) ColourChecks.Remove(draft, gone, null);
    }
}

/// <summary>What every colour of the palette must keep to, and all that uses one.</summary>
internal static class ColourChecks
{
    /// <summary>Names of plates that no spot colour has for itself (ISO 32000-1, 8.6.6.4): every plate, none, and those of the four inks.</summary>
    private static readonly HashSet<string> NotOwn = new(["All", "None", "Cyan", "Magenta", "Yellow", "Black"], StringComparer.OrdinalIgnoreCase);

    /// <exception cref="EditRefused">There is no such colour.</exception>
    public static PaletteColour ColourOf(Draft draft, int id) => draft.Find(new(PartKind.Colour, id)) as PaletteColour
        ?? throw new NoSuchPart("colour", $"There is no colour {id} in the palette. It may have been removed in another window.");

    public static void Check(PaletteColour colour, FieldErrors errors)
    {
        if (string.IsNullOrWhiteSpace(colour.Name)) errors.Add("name", "A colour needs a name. Type one, such as \"Moss\".");
        else if (colour.Name.Length > PaletteColour.LongestName || colour.Name.Any(char.IsControl) || colour.Name.StartsWith('#'))
            errors.Add("name", $"A colour's name has up to {PaletteColour.LongestName} characters, and does not begin with #.");
        if (colour.Colour is NamedColour) errors.Add("colour", "A colour of the palette is no other of the palette. Give its figures.");
        else colour.Colour.Check("colour", errors);
        if (colour.IsSpot && NotOwn.Contains(colour.Name.Trim()))
            errors.Add("name", $"On a press {colour.Name.Trim()} means a plate that is there already, or every one. Give the spot colour the name of its ink.");
        if (colour is { IsSpot: true, Colour: RgbColour })
            errors.Add("spot", "A spot colour is an ink: give what stands in for it as grey or in four inks.");
    }

    /// <summary>The colours that a text names itself.</summary>
    public static IEnumerable<Colour> Named(FrameText text) => text.Paragraphs.SelectMany(p => p.Runs.Select(r => r.Set.Colour).Append(p.Set.Colour))
        .OfType<NamedColour>().Distinct();

    /// <summary>Tells of colours of the palette that are not there.</summary>
    public static void CheckNamed(Draft draft, IEnumerable<Colour> colours, FieldErrors errors, string field)
    {
        // What names one that has gone, as undoing its making leaves it, can still be worked on.
        var before = new Lazy<HashSet<int>>(() => [.. ColourUse.Ids(draft.Origin)]);
        foreach (var named in colours.OfType<NamedColour>())
            if (draft.Find(new(PartKind.Colour, named.Id)) is null && !before.Value.Contains(named.Id))
                errors.Add(field, $"There is no colour {named.Id} in the palette. It may have been removed in another window.");
    }

    /// <summary>Removes colours; what uses one takes another instead, or its figures where that is null.</summary>
    public static void Remove(Draft draft, IReadOnlyDictionary<int, PaletteColour> gone, Colour? instead)
    {
        foreach (var colour in gone.Values) draft.Remove(colour.Key);
        Recolour(draft, colour => colour is NamedColour named && gone.TryGetValue(named.Id, out var was) ? instead ?? was.Colour : colour);
    }

    /// <summary>Puts another colour in the place of each, wherever one is used.</summary>
    private static void Recolour(Draft draft, Func<Colour, Colour> colour)
    {
        TextSettings Changed(TextSettings set) => set.Colour is { } was && colour(was) is var now && now != was ? set with { Colour = now } : set;
        foreach (var style in draft.Origin.Styles.Values.Where(s => Changed(s.Settings) != s.Settings))
            draft.Put(style with { Settings = Changed(style.Settings) });
        foreach (var story in draft.Origin.Stories.Values.Where(s => Named(s.Text).Any()))
        {
            var text = story.Text.Restyled(p => p with { Set = Changed(p.Set) }, r => r with { Set = Changed(r.Set) });
            if (text != story.Text) draft.Put(story with { Text = text });
        }
        foreach (var named in draft.Origin.Looks.Values)
        {
            var settings = named.Settings.Recoloured(colour);
            if (settings != named.Settings) draft.Put(named with { Settings = settings });
        }
        foreach (var frame in draft.Origin.Frames.Values.Where(f => f.Look.AllColours().Any(c => c is NamedColour)))
        {
            var look = frame.Look.Recoloured(colour);
            if (look != frame.Look) draft.Put(frame with { Look = look });
        }
    }
}

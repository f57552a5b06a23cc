using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Publications;
using Formatum.Core.Settings;
using Formatum.Core.Stories;

namespace Formatum.Core.Edits;

/// <summary>Makes a paragraph or character style, or puts another in the place of one.</summary>
public sealed record DefineStyle : Edit
{
    /// <summary>The style to replace; null for a new one.</summary>
    public int? StyleId { get; init; }

    public StyleKind Kind { get; init; }
    public required string Name { get; init; }
    public int? BasedOnId { get; init; }
    public TextSettings Settings { get; init; } = TextSettings.Open;

    /// <summary>Makes it the publication's default style, or no longer so; null leaves that as it is.</summary>
    public bool? Default { get; init; }

    /// <summary>The text whose settings went into the style: it takes the style, and lets go of what the style says now.</summary>
    public (int FrameId, TextRange? Range)? Like { get; init; }

    public override string Words => StyleId is null ? $"Make style {Name.Trim()}" : $"Change style {Name.Trim()}";

    protected override void Make(Draft draft)
    {
        var origin = draft.Origin;
        if (StyleId is { } id && StyleChecks.StyleOf(draft, id).Kind != Kind)
            throw new EditRefused("kind", "A style stays one of paragraphs or of characters. Make another for what is wanted.");
        if (StyleId is null && origin.Styles.Count >= NamedStyle.Most) throw new EditRefused("name", $"A publication has {NamedStyle.Most} styles at most.");
        var style = new NamedStyle { Id = StyleId ?? draft.NewId(), Kind = Kind, Name = Name.Trim(), BasedOnId = BasedOnId, Settings = Settings };
        var errors = new FieldErrors();
        StyleChecks.Check(origin, style, errors);
        if (style.Settings.Family is { } family)
            FontChecks.CheckNamed(draft, [family], origin.Styles.GetValueOrDefault(style.Id)?.Settings.Family is { } was ? [was] : [], errors,
                "settings.family");
        if (style.Settings.Colour is { } colour) ColourChecks.CheckNamed(draft, [colour], errors, "settings.colour");
        if (origin.Styles.Values.Any(s => s.Id != StyleId && RuleChecks.SameName.Equals(s.Name, style.Name)))
            errors.Add("name", $"There is a style named {style.Name} already. Take another name.");
        if (Default == true && Kind == StyleKind.Character) errors.Add("default", "Only a paragraph style can be what all others rest on.");
        errors.ThrowIfAny();
        draft.Put(style);
        if (Default == true) draft.Put(origin.Setup with { DefaultStyleId = style.Id });
        else if (Default == false && origin.Setup.DefaultStyleId == style.Id) draft.Put(origin.Setup with { DefaultStyleId = null });
        if (Like is var (frameId, range)) TakeOn(draft, style, WriteText.StoryOf(draft, frameId), range);
    }

    private static void TakeOn(Draft draft, NamedStyle style, Story story, TextRange? range)
    {
        ImmutableArray<Setting<TextSettings>> said = [.. TextSettings.All.Where(setting => setting.IsSet(style.Settings))];
        var change = new SettingsChange(TextSettings.Open, said);
        Chains.Put(draft, story with
        {
            Text = style.Kind == StyleKind.Paragraph ? story.Text.ChangedParagraphs(change, range).InParagraphStyle(style.Id, range, clear: false)
                : story.Text.Changed(change, range).InCharacterStyle(style.Id, range, clear: false),
        });
    }
}

/// <summary>Removes a style. What has it, and the styles based on it, take something else instead.</summary>
/// <param name="StyleId">The style.</param>
/// <param name="InsteadId">The style they take instead; null for none.</param>
/// <param name="AsItLooks">Whatever would then be set otherwise keeps, as settings of its own, what it had from the style and all that was beneath it.</param>
public sealed record RemoveStyle(int StyleId, int? InsteadId = null, bool AsItLooks = false) : Edit
{
    public override string Words => "Remove style";

    protected override void Make(Draft draft)
    {
        var origin = draft.Origin;
        var style = StyleChecks.StyleOf(draft, StyleId);
        if (InsteadId == StyleId) throw new EditRefused("instead", "A removed style cannot stand in for itself. Choose another, or none.");
        if (InsteadId is { } instead && StyleChecks.StyleOf(draft, instead, "instead").Kind != style.Kind)
            throw new EditRefused("instead", "A style of paragraphs and one of characters do not stand in for each other. Choose one of the same kind.");
        foreach (var child in origin.Styles.Values.Where(s => s.BasedOnId == StyleId))
        {
            if (TextCascade.WouldLoop(origin, child.Id, InsteadId))
                throw new EditRefused("instead", $"{child.Name} is based on {style.Name}, and would then be based on itself. Choose another style, or none.");
            draft.Put(child with { BasedOnId = InsteadId });
        }
        if (origin.Setup.DefaultStyleId == StyleId) draft.Put(origin.Setup with { DefaultStyleId = InsteadId });
        draft.Remove(style.Key);
        foreach (var story in origin.Stories.Values) Replace(draft, story);
        if (AsItLooks) Keep(draft);
    }

    private void Replace(Draft draft, Story story)
    {
        var text = story.Text.Restyled(p => p.StyleId == StyleId ? p with { StyleId = InsteadId } : p, r => r.StyleId == StyleId
            ? r with { StyleId = InsteadId } : r);
        if (text != story.Text) Chains.Put(draft, story with { Text = text });
    }

    /// <summary>Gives the styles that were based on it, and then every text, what would otherwise be set differently.</summary>
    private void Keep(Draft draft)
    {
        var before = draft.Origin;
        var after = before.With(draft.Changes());
        foreach (var child in before.Styles.Values.Where(s => s.BasedOnId == StyleId))
        {
            var lost = Lost(TextCascade.Of(before, child), TextCascade.Of(after, after.Styles[child.Id]));
            draft.Put(after.Styles[child.Id] with { Settings = after.Styles[child.Id].Settings.Over(lost) });
        }
        after = before.With(draft.Changes());
        foreach (var story in after.Stories.Values)
        {
            var was = before.Stories[story.Id].Text;
            if (!ReferenceEquals(was, story.Text) || TextCascade.Followers(before, StyleId).Any(s => s.Id == story.Id))
                Chains.Put(draft, story with { Text = Kept(before, after, was) });
        }
    }

    /// <summary>The text as it was, with the other style where it had this one, and what that would change set on it.</summary>
    private FrameText Kept(Publication before, Publication after, FrameText text) => new([.. text.Paragraphs.Select(p =>
    {
        int? styleId = p.StyleId == StyleId ? InsteadId : p.StyleId;
        var lost = Lost(TextCascade.OfParagraphs(before, p.StyleId), TextCascade.OfParagraphs(after, styleId));
        var kept = p with { StyleId = styleId, Set = p.Set.Over(lost) };
        return kept.Of(p.Runs.Select(r =>
        {
            int? own = r.StyleId == StyleId ? InsteadId : r.StyleId;
            TextSettings was = r.Set.Over(TextCascade.OfCharacters(before, r.StyleId)).Over(p.Set).Over(TextCascade.OfParagraphs(before, p.StyleId)),
                will = r.Set.Over(TextCascade.OfCharacters(after, own)).Over(kept.Set).Over(TextCascade.OfParagraphs(after, styleId));
            return r with { StyleId = own, Set = r.Set.Over(Lost(was, will).Only(TextSettings.OfCharacters)) };
        }));
    })]);

    /// <summary>What held before and no longer does.</summary>
    private static TextSettings Lost(TextSettings was, TextSettings will) =>
        was == will ? TextSettings.Open : TextStyle.Of(was).ToSettings().Except(TextStyle.Of(will).ToSettings());
}

/// <summary>Puts a style on text: on the paragraphs that a stretch reaches into, or on its characters; on all where none is given.</summary>
/// <param name="FrameIds">Frames of the stories.</param>
/// <param name="StyleId">The style; null for none.</param>
/// <param name="Kind">Whether it is one of paragraphs or of characters.</param>
/// <param name="Range">The stretch, in the one story; null for all.</param>
/// <param name="Clear">Whether what was set on it goes, so that only the style speaks.</param>
public sealed record PutStyle(ImmutableArray<int> FrameIds, int? StyleId, StyleKind Kind, TextRange? Range = null, bool Clear = false) : Edit
{
    public override string Words => StyleId is null ? "Take style off" : "Put style on";

    protected override void Make(Draft draft)
    {
        if (FrameIds.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        if (StyleId is { } id && StyleChecks.StyleOf(draft, id).Kind != Kind)
            throw new EditRefused("style", "That style is of the other kind: paragraphs take paragraph styles, characters take character styles.");
        foreach (var story in FrameIds.Select(frame => WriteText.StoryOf(draft, frame)).DistinctBy(s => s.Id).ToList())
        {
            var text = Kind == StyleKind.Paragraph ? story.Text.InParagraphStyle(StyleId, Range, Clear) : story.Text.InCharacterStyle(StyleId, Range, Clear);
            Chains.Put(draft, story with { Text = text });
        }
    }
}

/// <summary>What every style must keep to, however it came about.</summary>
internal static class StyleChecks
{
    /// <exception cref="EditRefused">There is no such style.</exception>
    public static NamedStyle StyleOf(Draft draft, int id, string field = "style") => draft.Find(new(PartKind.Style, id)) as NamedStyle
        ?? throw new NoSuchPart(field, $"There is no style {id} in this publication. It may have been removed in another window.");

    /// <summary>Everything wrong with a style; its name against others is left to the caller.</summary>
    public static void Check(Publication publication, NamedStyle style, FieldErrors errors)
    {
        errors.Choice("kind", style.Kind);
        if (string.IsNullOrWhiteSpace(style.Name)) errors.Add("name", "A style needs a name. Type one, such as \"Heading\".");
        errors.Name(style.Name, NamedStyle.LongestName);
        if (style.BasedOnId is { } basis)
        {
            if (publication.Styles.GetValueOrDefault(basis)?.Kind != style.Kind)
                errors.Add("basedOn", "A style is based on another of its kind. Choose one of the list, or none.");
            else if (TextCascade.WouldLoop(publication, style.Id, basis))
                errors.Add("basedOn", "That style is itself based on this one, directly or through others. Base this one on another.");
            else if (TextCascade.Chain(publication, basis).Count() >= Layers.LongestChain)
                errors.Add("basedOn", $"That style stands at the end of a chain of {Layers.LongestChain}; no chain may be longer. Base this one on a style " +
                    $"nearer its root.");
        }
        style.Settings.Check(errors, "settings.");
        if (style.Kind == StyleKind.Character && style.Settings != style.Settings.Only(TextSettings.OfCharacters))
            errors.Add("settings", "A character style has no settings of whole paragraphs, such as an alignment. Put those into a paragraph style.");
    }

    /// <summary>Tells of styles that a text names and that are not there, or of the other kind.</summary>
    public static void CheckNamed(Func<int, NamedStyle?> find, FrameText text, FieldErrors errors)
    {
        bool Bad(int? id, StyleKind kind) => id is { } named && find(named)?.Kind != kind;
        if (text.Paragraphs.Any(p => Bad(p.StyleId, StyleKind.Paragraph)) || text.Paragraphs.SelectMany(p => p.Runs).Any(r => Bad(r.StyleId,
            StyleKind.Character)))
            errors.Add("style", "The text names a style that is not there, or one of the other kind.");
    }
}

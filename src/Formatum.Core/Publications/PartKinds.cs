using System.Collections.Frozen;
using System.Text.Json;

namespace Formatum.Core.Publications;

/// <summary>What there is to know of a kind of parts, wherever parts of every kind are handled alike.</summary>
/// <param name="Kind">The kind; its number is kept in files.</param>
/// <param name="Type">What its parts are, and are written as.</param>
/// <param name="Noun">What one is called: "rule".</param>
/// <param name="All">Those of a publication.</param>
/// <param name="Find">The one of an id; null where there is none.</param>
/// <param name="Title">One by its own name, as a sentence begins with it: "The rule Airy".</param>
public sealed record PartKindInfo(PartKind Kind, Type Type, string Noun, Func<Publication, IEnumerable<Part>> All, Func<Publication, int, Part?> Find,
    Func<Part, string> Title)
{
    /// <summary>A kind of which a publication has as many as it likes.</summary>
    internal static PartKindInfo Many<T>(PartKind kind, string noun, Func<Publication, IEnumerable<T>> all, Func<Publication, int, T?> find,
        Func<T, string> title) where T : Part => new(kind, typeof(T), noun, all, find, part => title((T)part));

    /// <summary>A kind of which a publication has one.</summary>
    internal static PartKindInfo One<T>(PartKind kind, string noun, Func<Publication, T> only) where T : Part =>
        new(kind, typeof(T), noun, publication => [only(publication)], (publication, _) => only(publication), _ => $"The {noun}");
}

/// <summary>The kinds of parts that there are. A new kind is entered here; <see cref="Publication"/> keeps its parts.</summary>
public static class PartKinds
{
    private static readonly FrozenDictionary<PartKind, PartKindInfo> Known = new[]
    {
        PartKindInfo.One(PartKind.Setup, "set-up", p => p.Setup),
        PartKindInfo.One(PartKind.PageOrder, "order of the pages", p => p.Order),
        PartKindInfo.Many(PartKind.Page, "page", p => p.Pages.Values, (p, id) => p.Pages.GetValueOrDefault(id), _ => "The page"),
        PartKindInfo.Many(PartKind.Frame, "frame", p => p.Frames.Values, (p, id) => p.Frames.GetValueOrDefault(id), frame => frame.Label),
        PartKindInfo.Many(PartKind.Image, "image", p => p.Images.Values, (p, id) => p.Images.GetValueOrDefault(id), image => image.Name),
        PartKindInfo.Many(PartKind.Rule, "rule", p => p.Rules.Values, (p, id) => p.Rules.GetValueOrDefault(id), rule => $"The rule {rule.Name}"),
        PartKindInfo.Many(PartKind.Master, "master", p => p.Masters.Values, (p, id) => p.Masters.GetValueOrDefault(id), m => $"The master {m.Name}"),
        PartKindInfo.Many(PartKind.Story, "story", p => p.Stories.Values, (p, id) => p.Stories.GetValueOrDefault(id), _ => "The text"),
        PartKindInfo.Many(PartKind.Style, "style", p => p.Styles.Values, (p, id) => p.Styles.GetValueOrDefault(id), style => $"The style {style.Name}"),
        PartKindInfo.Many(PartKind.Font, "font", p => p.Fonts.Values, (p, id) => p.Fonts.GetValueOrDefault(id), font => $"The font {font.Family}, {font.Face}"),
        PartKindInfo.Many(PartKind.Colour, "colour", p => p.Colours.Values, (p, id) => p.Colours.GetValueOrDefault(id), c => $"The colour {c.Name}"),
        PartKindInfo.Many(PartKind.Look, "look", p => p.Looks.Values, (p, id) => p.Looks.GetValueOrDefault(id), l => $"The look {l.Name}"),
        PartKindInfo.Many(PartKind.Recipe, "recipe", p => p.Recipes.Values, (p, id) => p.Recipes.GetValueOrDefault(id), r => $"The recipe {r.Name}"),
        PartKindInfo.Many(PartKind.CheckProfile, "check profile", p => p.CheckProfiles.Values, (p, id) => p.CheckProfiles.GetValueOrDefault(id),
            c => $"The check profile {c.Name}"),
        PartKindInfo.Many(PartKind.Accepted, "accepted finding", p => p.Accepted.Values, (p, id) => p.Accepted.GetValueOrDefault(id),
            _ => "The accepted finding"),
        PartKindInfo.One(PartKind.Tray, "tray", p => p.Tray),
    }.ToFrozenDictionary(k => k.Kind);

    public static IEnumerable<PartKindInfo> All => Known.Values;

    /// <exception cref="JsonException">This program knows no such kind.</exception>
    public static PartKindInfo Of(PartKind kind) => Known.GetValueOrDefault(kind)
        ?? throw new JsonException($"There are no parts of kind {(int)kind}. The data was written by a newer version.");
}

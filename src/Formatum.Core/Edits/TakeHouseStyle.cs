using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>A part of another publication's house style that is taken over.</summary>
/// <param name="Key">Which part, there.</param>
/// <param name="Namesake">What becomes of it where one of its kind and name is here already.</param>
public readonly record struct TakenPart(PartKey Key, Namesake Namesake);

/// <summary>
/// Takes rules, looks, styles, colours and masters over from another publication, with all that they name. What they are based on or coloured with, and is not
/// named itself, comes only where nothing of its name is here.
/// </summary>
/// <param name="Source">The publication they come from.</param>
/// <param name="Parts">What is taken.</param>
public sealed record TakeHouseStyle(Publication Source, ImmutableArray<TakenPart> Parts) : Edit
{
    public static readonly ImmutableArray<PartKind> Kinds = [PartKind.Rule, PartKind.Look, PartKind.Style, PartKind.Colour, PartKind.Master];

    public override string Words => $"Take {Parts.Length} {(Parts.Length == 1 ? "part" : "parts")} of the house style of {Source.Setup.Name}";

    /// <summary>Everything of a publication's house style.</summary>
    public static TakeHouseStyle All(Publication source, Namesake namesake = Namesake.Kept) =>
        new(source, [.. Kinds.SelectMany(k => PartKinds.Of(k).All(source)).Select(p => new TakenPart(p.Key, namesake))]);

    /// <summary>A publication that was just made, with the house style of another, and resting on what that rests on.</summary>
    /// <exception cref="EditRefused">It cannot be taken over.</exception>
    public static Publication Begin(Publication made, Publication source)
    {
        var all = All(source, Namesake.Replaced);
        if (all.Parts.IsEmpty) return made;
        var begun = made.With(all.On(made));
        int? Same<T>(int? id, IReadOnlyDictionary<int, T> there, IEnumerable<T> here, Func<T, string> name) where T : Part =>
            id is { } of && there.TryGetValue(of, out var part) ? here.FirstOrDefault(p => RuleChecks.SameName.Equals(name(p), name(part)))?.Key.Id : null;
        var setup = begun.Setup with
        {
            DefaultRuleId = Same(source.Setup.DefaultRuleId, source.Rules, begun.Rules.Values, r => r.Name) ?? begun.Setup.DefaultRuleId,
            DefaultStyleId = Same(source.Setup.DefaultStyleId, source.Styles, begun.Styles.Values, s => s.Name) ?? begun.Setup.DefaultStyleId,
        };
        return begun.With(new([new(setup.Key, begun.Setup, setup)]));
    }

    protected override void Make(Draft draft)
    {
        if (Parts.IsEmpty) throw new EditRefused("parts", "Nothing is chosen. Choose what to take over.");
        var chosen = Parts.GroupBy(p => p.Key).ToDictionary(g => g.Key, g => g.Last().Namesake);
        var bringing = new Bringing(draft, Source, key => chosen.GetValueOrDefault(key, Namesake.Kept));
        foreach (var key in chosen.Keys)
        {
            _ = key.Kind switch
            {
                PartKind.Rule => bringing.Rule(key.Id),
                PartKind.Look => bringing.Look(key.Id),
                PartKind.Style => bringing.Style(key.Id),
                PartKind.Colour => bringing.Colour(key.Id),
                PartKind.Master => bringing.Master(key.Id),
                _ => throw new EditRefused("parts", "Only rules, looks, styles, colours and masters are taken over."),
            } ?? throw new EditRefused("parts", "Some of it is no longer there. Look at it again.");
        }
        Check(draft.Origin.With(draft.Changes()), draft);
    }

    private static void Check(Publication after, Draft draft)
    {
        foreach (var part in draft.Touched.Select(after.Find))
        {
            bool loops = part switch
            {
                FittingRule rule => Cascade.WouldLoop(after, rule.Id, rule.BasedOnId) || Cascade.Chain(after, rule.Id).Count() > Cascade.LongestChain,
                NamedLook look => LookCascade.WouldLoop(after, look.Id, look.BasedOnId) || LookCascade.Chain(after, look.Id).Count() > Cascade.LongestChain,
                NamedStyle style => TextCascade.WouldLoop(after, style.Id, style.BasedOnId)
                    || TextCascade.Chain(after, style.Id).Count() > Cascade.LongestChain,
                _ => false,
            };
            if (loops) throw new EditRefused("parts", $"{PartKinds.Of(part!.Key.Kind).Title(part)} would be based on itself, through one of its name that is " +
                "here. Take the place of that one too, or leave this one.");
        }
    }
}

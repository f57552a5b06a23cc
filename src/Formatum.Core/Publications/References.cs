namespace Formatum.Core.Publications;

/// <summary>Which rules, looks and images parts name.</summary>
public static class References
{
    private static IEnumerable<PartKey> Of(Part part)
    {
        (PartKind Kind, int? Id)[] named = part switch
        {
            Frame frame => [(PartKind.Rule, frame.RuleId), (PartKind.Look, frame.LookId), (PartKind.Image, frame.ImageId)],
            Tray tray => [.. tray.ImageIds.Select(id => (PartKind.Image, (int?)id))],
            FittingRule rule => [(PartKind.Rule, rule.BasedOnId), (PartKind.Look, rule.LookId)],
            NamedLook look => [(PartKind.Look, look.BasedOnId)],
            Setup setup => [(PartKind.Rule, setup.DefaultRuleId)],
            _ => [],
        };
        return named.Where(n => n.Id is not null).Select(n => new PartKey(n.Kind, n.Id!.Value));
    }

    /// <summary>A part that would name a rule, look or image that is not there, once changes are made that were right at another time; null where none
    /// does.</summary>
    /// <param name="publication">As it is.</param>
    /// <param name="changes">Steps of the history that are taken back or done again.</param>
    /// <returns>The part, and what it names as it was last known, where that is there now.</returns>
    public static (Part Naming, Part? Missing)? Broken(Publication publication, Changes changes)
    {
        var gone = changes.Items.Where(c => c.After is null && c.Key.Kind is PartKind.Rule or PartKind.Look or PartKind.Image).Select(c => c.Key).ToHashSet();
        var after = publication.With(changes);
        var touched = changes.Items.Select(c => c.After).OfType<Part>();
        var naming = gone.Count == 0 ? touched
            : touched.Concat(after.Frames.Values).Concat(after.Rules.Values).Concat(after.Looks.Values).Append(after.Setup).Append(after.Tray);
        foreach (var part in naming)
            foreach (var key in Of(part))
                if (after.Find(key) is null) return (part, publication.Find(key));
        return null;
    }
}

using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>Several edits made one after the other, as one step of the history.</summary>
/// <param name="Edits">The edits, in their order.</param>
/// <param name="As">What they are called together.</param>
public sealed record Together(ImmutableArray<Edit> Edits, string As) : Edit
{
    public override string Words => As;

    public override IEnumerable<PartKey> RestsOn(Publication publication) => Edits.SelectMany(e => e.RestsOn(publication)).Distinct();

    public override Changes On(Publication publication)
    {
        var after = publication;
        var touched = new List<PartKey>();
        foreach (var edit in Edits)
        {
            var changes = edit.On(after);
            touched.AddRange(changes.Items.Select(c => c.Key));
            after = after.With(changes);
        }
        return Between(publication, after, touched);
    }

    /// <summary>What makes one publication of another, as far as some parts go.</summary>
    public static Changes Between(Publication before, Publication after, IEnumerable<PartKey> touched) => new([.. touched.Distinct()
        .Select(key => new Change(key, before.Find(key), after.Find(key))).Where(c => !Equals(c.Before, c.After))]);

    protected override void Make(Draft draft) => throw new NotSupportedException("Each of the edits is made by itself.");
}

using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>Changes how a publication is set up. Frames keep their places from the upper left of their pages.</summary>
public sealed record ChangeSetup(Setup Setup) : Edit
{
    public override string Words => "Change set-up";

    protected override void Make(Draft draft)
    {
        var errors = new FieldErrors();
        Setup.Check(errors);
        errors.ThrowIfAny();
        draft.Put(Setup);
    }
}

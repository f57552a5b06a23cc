using Formatum.Core.Checks;
using Formatum.Core.Publications;

namespace Formatum.Core.Edits;

/// <summary>Says for which press the publication is made.</summary>
/// <param name="Press">Its profile; null for four inks in general.</param>
public sealed record ChoosePress(PressProfile? Press) : Edit
{
    public override string Words => Press is null ? "Print for four inks in general" : $"Print for {Press.Name}";

    protected override void Make(Draft draft)
    {
        var made = draft.Origin.Setup with { Press = Press };
        var errors = new FieldErrors();
        made.Check(errors);
        errors.ThrowIfAny();
        draft.Put(made);
    }
}

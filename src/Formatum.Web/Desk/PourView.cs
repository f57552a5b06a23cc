using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Filling;
using Formatum.Core.Fitting;
using Formatum.Core.Publications;
using Formatum.Storage;
using Formatum.Web.Desk.Commands;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk;

/// <summary>What a pour would come to, before it is taken.</summary>
/// <param name="Desk">The Desk it is asked from.</param>
/// <param name="Form">What is asked.</param>
/// <param name="After">The publication as it would be; null where it cannot be poured.</param>
/// <param name="Filled">The frames that would be filled, in reading order.</param>
/// <param name="Refusal">Why it cannot be poured; null where it can.</param>
public sealed record PourView(DeskView Desk, PourForm Form, Publication? After, ImmutableArray<(Frame Frame, Fitted Fitted)> Filled, string? Refusal)
{
    /// <summary>So many are shown as pictures.</summary>
    public const int Shown = 48;

    public int Left => After!.Tray.ImageIds.Length;

    public int PagesAdded => After!.PageCount - Desk.Publication.PageCount;

    public double CropLoss => Filled.IsEmpty ? 0 : Filled.Average(f => f.Fitted.Coverage.CropLoss);

    public double BareArea => Filled.IsEmpty ? 0 : Filled.Average(f => f.Fitted.Coverage.BareArea);

    public int Coarse => Filled.Count(f => After!.Setup.SharpnessOf(f.Fitted.Coverage.Ppi) == Sharpness.TooCoarse);

    public static PourView Of(DeskView desk, PourForm form)
    {
        var before = desk.Publication;
        try
        {
            var changes = form.ToEdit(new(before, desk.Spread)).On(before);
            var after = before.With(changes);
            var filled = changes.Items.Select(c => c.After).OfType<Frame>().Where(f => f.ImageId is { } image && before.Tray.ImageIds.Contains(image)
                && before.Frames.GetValueOrDefault(f.Id)?.ImageId != image);
            return new(desk, form, after, [.. ReadingOrder.Of(after, filled).Select(f => (f, after.FittedOf(f)!.Value))], null);
        }
        catch (EditRefused refused)
        {
            return new(desk, form, null, [], refused.Message);
        }
    }
}

/// <summary>What a pour came to.</summary>
public sealed record PourTold(string Words, int Poured, int PagesAdded, int Left)
{
    public static PourTold Of(EditOutcome outcome)
    {
        var (was, now) = (outcome.Before, outcome.Standing.Publication);
        int poured = was.Tray.ImageIds.Length - now.Tray.ImageIds.Length, added = now.PageCount - was.PageCount, left = now.Tray.ImageIds.Length;
        return new($"{Wording.Words.Count(poured, "picture")} " +
            $"poured{(added > 0 ? $", {Wording.Words.Count(added, "page")} added" : "")}{(left > 0 ? $"; {left} left in the tray" : "")}. Undo takes it " +
            $"all back.", poured, added, left);
    }
}

using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Composing;
using Formatum.Core.Publications;
using Formatum.Output;
using Formatum.Storage;
using Formatum.Web.Colours;

namespace Formatum.Web.House;

/// <summary>House style of another publication beside that of this one, what is chosen of it, and what that would come to.</summary>
public sealed class HouseSheet
{
    public Standing Standing { get; }
    public Standing Source { get; }
    public TakeForm Form { get; }
    public ImmutableArray<HousePart> Parts { get; }

    /// <summary>Why what is chosen cannot be taken; null where it can.</summary>
    public string? Problem { get; }

    /// <summary>How many parts are chosen.</summary>
    public int Chosen { get; }

    /// <summary>The frames that would change.</summary>
    public FrameImpact Impact { get; }

    public HouseSheet(Standing standing, Standing source, TakeForm form)
    {
        (Standing, Source, Form) = (standing, source, form);
        var before = standing.Publication;
        Parts = new HouseComparison(source.Publication, before).Parts();
        var edit = form.Read(source.Publication, Parts);
        Chosen = edit.Parts.Length;
        var after = before;
        try
        {
            if (Chosen > 0) after = before.With(edit.On(before));
        }
        catch (EditRefused refused)
        {
            Problem = refused.Message;
        }
        Impact = new(standing, after, Touched(before, after));
    }

    /// <summary>The frames that look, are filled, are placed or are set otherwise after a change, in reading order of their pages.</summary>
    private static ImmutableArray<Frame> Touched(Publication before, Publication after)
    {
        if (ReferenceEquals(before, after)) return [];
        var set = TextImpact.Of(before, after, Typefaces.All).Frames.Select(f => f.Before.Id).ToHashSet();
        bool Changes(Frame was) => after.Frames.TryGetValue(was.Id, out var will) && (set.Contains(was.Id) || was.Pose != will.Pose
            || before.FittedOf(was) != after.FittedOf(will)
            || before.LookOf(was).Recoloured(before.ColourOf) != after.LookOf(will).Recoloured(after.ColourOf));
        return [.. before.Frames.Values.Where(Changes).OrderBy(f => before.Order.IndexOf(f.PageId)).ThenBy(f => f.Id)];
    }
}

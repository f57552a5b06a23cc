using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Publications;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk.Commands;

/// <summary>One thing about how frames look is set.</summary>
public sealed record SetLook : Gesture, IUnderHand
{
    /// <summary>What of the look, such as "border.width".</summary>
    public string? Look { get; init; }

    /// <summary>What was typed or chosen.</summary>
    public string? Value { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var errors = new FieldErrors();
        var change = LookText.Change(ground.Publication, ground.Publication.LookOf(FirstFrame(ground)), Look ?? "", Value?.Trim() ?? "", errors);
        errors.ThrowIfAny();
        return new ChangeLook(FrameIds, change);
    }

    /// <summary>What the treatment of pictures would come to while a slider is moved.</summary>
    public UnderWay UnderWay(Ground ground, bool inside)
    {
        var after = ground.Publication.With(ToEdit(ground).On(ground.Publication));
        return Desk.UnderWay.Nothing with
        {
            Filters = [.. FrameIds.Select(after.Frames.GetValueOrDefault).OfType<Frame>().Where(f => f.ImageId is not null)
            .Select(f => FilterPatch.Of(after, f))]
        };
    }
}

/// <summary>Frames take a named look, or none.</summary>
public sealed record PutNamedLook : Gesture
{
    /// <summary>The look; null for none.</summary>
    public int? Named { get; init; }

    public override Edit ToEdit(Ground ground) => new PutLook(FrameIds, Named);
}

/// <summary>What was set on the frames themselves of their look is cleared.</summary>
public sealed record ClearLook : Gesture
{
    /// <summary>Which parts; all where none is given.</summary>
    public string[] Settings { get; init; } = [];

    public override Edit ToEdit(Ground ground) => new OpenLook(FrameIds, [.. Settings]);
}

/// <summary>A named look is made of how a frame looks.</summary>
public sealed record MakeLook : Gesture
{
    public string? Name { get; init; }

    /// <summary>The parts that go into it.</summary>
    public string[] Settings { get; init; } = [];

    public override Edit ToEdit(Ground ground)
    {
        if (Settings.Length == 0) throw new EditRefused("settings", "A look of nothing would do nothing. Choose what goes into it.");
        var frame = FirstFrame(ground);
        return new DefineLook
        {
            Name = Name ?? "",
            BasedOnId = frame.LookId,
            LikeFrameId = frame.Id,
            Settings = LookSettings.Whole(ground.Publication.LookOf(frame) with { Wrap = ground.Publication.WrapOf(frame) })
                .Kept(s => Settings.Contains(s.Name)),
        };
    }
}

/// <summary>Frames take the look of the one that was given a look last.</summary>
public sealed record LookAgain : Gesture
{
    public int Like { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var like = ground.Publication.Frames.GetValueOrDefault(Like)
            ?? throw new EditRefused("frame", "The frame that was given a look last is gone. Set the look once more, or copy it from another frame.");
        return new GiveLook(FrameIds, like.Look, like.LookId);
    }
}

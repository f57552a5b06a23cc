using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Colours;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Edits;

/// <summary>Changes to a look; what is null stays. A border or a shadow that is changed comes to be where there was none.</summary>
public sealed record LookChange
{
    /// <summary>What comes of the border there is, or of none.</summary>
    public Func<Border?, Border?>? Border { get; init; }

    /// <summary>What comes of the corners there are, or of sharp ones.</summary>
    public Func<Corners, Corners>? Corners { get; init; }

    /// <summary>A colour, or null in it for no background.</summary>
    public Replacement<Colour?>? Background { get; init; }

    public double? Opacity { get; init; }
    public double? PictureOpacity { get; init; }
    public double? BackgroundOpacity { get; init; }
    public Blend? Blend { get; init; }

    /// <summary>What comes of the shadow there is, or of none.</summary>
    public Func<Shadow?, Shadow?>? Shadow { get; init; }

    /// <summary>What comes of the inner shadow there is, or of none.</summary>
    public Func<Shadow?, Shadow?>? InnerShadow { get; init; }

    public double? SoftEdge { get; init; }

    /// <summary>What comes of how text keeps clear.</summary>
    public Func<Wrap, Wrap>? Wrap { get; init; }

    /// <summary>What comes of the treatment there is, or of none.</summary>
    public Func<Treatment, Treatment>? Treatment { get; init; }

    public Look On(Look look) => look with
    {
        Border = Border is null ? look.Border : Border(look.Border),
        Corners = Corners is null ? look.Corners
            : Corners(look.Corners ?? Geometry.Corners.Even(CornerKind.Round, 0)) is { IsSharp: false } shaped ? shaped : null,
        Background = Background is { } background ? background.Value : look.Background,
        Opacity = Opacity ?? look.Opacity,
        PictureOpacity = PictureOpacity ?? look.PictureOpacity,
        BackgroundOpacity = BackgroundOpacity ?? look.BackgroundOpacity,
        Blend = Blend ?? look.Blend,
        Shadow = Shadow is null ? look.Shadow : Shadow(look.Shadow),
        InnerShadow = InnerShadow is null ? look.InnerShadow : InnerShadow(look.InnerShadow),
        SoftEdge = SoftEdge ?? look.SoftEdge,
        Wrap = Wrap is null ? look.Wrap : Wrap(look.Wrap),
        Treatment = Treatment is null ? look.Treatment : Treatment(look.Treatment ?? Publications.Treatment.None) is var treated
            && treated with { IsOff = false } != Publications.Treatment.None ? treated : null,
    };
}

/// <summary>Changes the look of frames, all in the same way. What changes is set on the frames themselves.</summary>
public sealed record ChangeLook(ImmutableArray<int> FrameIds, LookChange Change) : Edit
{
    public override string Words => "Change look" + (FrameIds.Length > 1 ? $", {FrameIds.Length} frames" : "");

    protected override void Make(Draft draft) => GiveLook.Put(draft, FrameIds, frame =>
    {
        var was = draft.Origin.LookOf(frame);
        var will = Change.On(was);
        // Without a named look there is nothing that "none" would have to keep away.
        return frame with { Look = frame.LookId is null ? will : LookSettings.Between(was, will).Over(frame.Look) };
    });
}

/// <summary>Gives frames the look of another, and nothing else of it.</summary>
/// <param name="FrameIds">The frames.</param>
/// <param name="Look">What is set on the other itself.</param>
/// <param name="LookId">The named look it has; null for none.</param>
public sealed record GiveLook(ImmutableArray<int> FrameIds, LookSettings Look, int? LookId = null) : Edit
{
    public override string Words => "Paste look";

    protected override void Make(Draft draft) => Put(draft, FrameIds, frame => frame with { Look = Look, LookId = LookId });

    internal static void Put(Draft draft, ImmutableArray<int> frameIds, Func<Frame, Frame> look)
    {
        if (frameIds.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        foreach (int id in frameIds)
        {
            var changed = look(FrameOf(draft, id));
            FrameChecks.Check(draft, changed);
            draft.Put(changed);
        }
    }
}

/// <summary>Gives frames the look of one in another publication; a named look comes along, or is the one of its name here.</summary>
public sealed record BringLook(ImmutableArray<int> FrameIds, Publication Source, Frame Like) : Edit
{
    public override string Words => "Paste look";

    protected override void Make(Draft draft)
    {
        var bringing = new Bringing(draft, Source, flat: true);
        GiveLook.Put(draft, FrameIds, frame => frame with { Look = bringing.Coloured(Like.Look), LookId = bringing.Look(Like.LookId) });
    }
}

using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Core.Stories;

namespace Formatum.Core.Edits;

/// <summary>Makes a frame; it lies above all others of its page.</summary>
public sealed record MakeFrame : Edit
{
    /// <summary>The page, by its number from 1.</summary>
    public required int Page { get; init; }

    /// <summary>The frame's box, in points from the upper left of that page's trim.</summary>
    public required Box Box { get; init; }

    public Outline Outline { get; init; } = Outline.Rectangle;

    /// <summary>How far it is turned about the middle of its box, in degrees clockwise.</summary>
    public double Angle { get; init; }

    public string Name { get; init; } = "";
    public int? RuleId { get; init; }
    public FitSettings Own { get; init; } = FitSettings.Open;
    public int? ImageId { get; init; }

    public Look Look { get; init; } = Look.Plain;
    public int? LookId { get; init; }

    /// <summary>For a text frame; null for an image frame.</summary>
    public FrameText? Text { get; init; }

    /// <summary>Where in the frame the text is set; null for all of it in one column.</summary>
    public TextArea? Area { get; init; }

    /// <summary>How text of other frames keeps clear of it; null where it does not.</summary>
    public Wrap? Wrap { get; init; }

    public override string Words => Text is not null ? "Make text frame" : ImageId is null ? "Make placeholder" : "Make frame with image";

    /// <summary>Makes it as part of another edit.</summary>
    internal void MakeWithin(Draft draft) => Make(draft);

    protected override void Make(Draft draft)
    {
        var publication = draft.Origin;
        int pageId = PageIdOf(draft, Page);
        var frame = new Frame
        {
            Id = draft.NewId(),
            PageId = pageId,
            Name = Name.Trim(),
            Box = Box,
            Outline = Outline,
            Angle = Geometry.Angle.Normalize(Angle),
            Depth = 1 + Spread.At(publication, Spread.IndexOfPage(publication, Page)).FramesOf(publication).Select(f => f.Frame.Depth).DefaultIfEmpty(0).Max(),
            RuleId = RuleId,
            Own = Own,
            Look = Look,
            LookId = LookId,
            ImageId = ImageId,
            Area = Area,
            Wrap = Wrap,
        };
        frame = UsualLooks.With(draft, frame);
        if (Text is not null) frame = frame with { StoryId = Chains.Put(draft, new() { Id = draft.NewId(), FrameIds = [frame.Id], Text = Text }).Id };
        FrameChecks.Check(draft, frame);
        draft.Put(frame);
        if (ImageId is { } placed) Placing.TakeFromTray(draft, placed);
    }
}

/// <summary>Changes frames, all in the same way. What is null stays as it is.</summary>
public sealed record ChangeFrames : Edit
{
    public required ImmutableArray<int> FrameIds { get; init; }

    /// <summary>The page to move to, by its number from 1; x and y are then that page's.</summary>
    public int? Page { get; init; }

    public double? X { get; init; }
    public double? Y { get; init; }
    public double? Width { get; init; }
    public double? Height { get; init; }

    /// <summary>How far the frame is turned, in degrees clockwise.</summary>
    public double? Angle { get; init; }

    public Outline? Outline { get; init; }
    public string? Name { get; init; }
    public bool? Locked { get; init; }
    public bool? Hidden { get; init; }
    public Replacement<int?>? RuleId { get; init; }
    public Replacement<int?>? ImageId { get; init; }
    public Recrop? Recrop { get; init; }

    /// <summary>What is set of its look on the frame itself.</summary>
    public Look? Look { get; init; }

    /// <summary>The named look, or null in it for none.</summary>
    public Replacement<int?>? LookId { get; init; }

    /// <summary>Another text, for text frames alone.</summary>
    public FrameText? Text { get; init; }

    /// <summary>Where in the frame text is set, for text frames alone.</summary>
    public TextAreaChange? Area { get; init; }

    /// <summary>How text of other frames keeps clear of it.</summary>
    public WrapChange? Wrap { get; init; }

    /// <summary>Settings to set on the frames themselves, over those set there before.</summary>
    public FitSettings? Set { get; init; }

    /// <summary>Clears what was set on the frames before, so that it is inherited again: these settings.</summary>
    public ImmutableArray<FitSetting> Clear { get; init; } = [];

    /// <summary>Clears all that was set on the frames before.</summary>
    public bool ClearSet { get; init; }

    /// <summary>What is set here already is not set again over a rule that says the same.</summary>
    public bool OnlyOverRules { get; init; }

    /// <summary>Lets the fit place the picture by itself: what a hand did to it is let go, and frames that do not stay fitted apply the fit anew.</summary>
    public bool FitOnce { get; init; }

    /// <summary>Takes the hand correction back that was let go last.</summary>
    public bool RecropBack { get; init; }

    public override string Words => Action + (FrameIds.Length > 1 ? $", {FrameIds.Length} frames" : "");

    private string Action => this switch
    {
        { ImageId.Value: null, ImageId: not null } => "Take image out",
        { ImageId: not null } => "Place image",
        { Set.StaysFitted: true } => "Keep fitted",
        { Set.StaysFitted: false } => "Stop fitting",
        { Set: not null } => "Change fit",
        { ClearSet: true } or { Clear.IsEmpty: false } => "Clear what was set here",
        { RuleId: not null } => "Put on rule",
        { Recrop: { } recrop } => recrop == Fitting.Recrop.None ? "Reset recrop" : "Recrop",
        { RecropBack: true } => "Back to the crop",
        { FitOnce: true } => "Fit once",
        { Locked: true } => "Lock",
        { Locked: false } => "Unlock",
        { Hidden: true } => "Hide",
        { Hidden: false } => "Show",
        { Width: not null } or { Height: not null } => "Resize frame",
        { Angle: not null } => "Turn frame",
        { Outline: not null } => "Change outline",
        { X: not null } or { Y: not null } or { Page: not null } => "Move frame",
        { Text: not null } => "Replace text",
        { Area: not null } => "Change columns",
        { Wrap: not null } => "Change wrap",
        { Look: not null } or { LookId: not null } => "Change look",
        { Name: not null } => "Rename frame",
        _ => "Change frame",
    };

    protected override void Make(Draft draft)
    {
        if (FrameIds.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        foreach (int id in FrameIds) Change(draft, FrameOf(draft, id));
    }

    private void Change(Draft draft, Frame frame)
    {
        if (X is not null || Y is not null || Width is not null || Height is not null || Angle is not null || Page is not null || Outline is not null)
            FrameChecks.Unlocked(frame, Locked);
        if (Text is not null)
        {
            var story = draft.StoryOf(frame) ?? throw new EditRefused("text", $"{frame.Label} holds no text. Make a text frame for it.");
            Chains.Put(draft, story with { Text = Text });
        }
        var changed = frame with
        {
            Area = Area is null ? frame.Area : Area.On(frame.Area),
            Wrap = Wrap is null ? frame.Wrap : Wrap.On(draft.Origin.WrapOf(frame), draft.Origin.LookOf(frame).Wrap),
            Look = Look is null ? frame.Look : Look,
            LookId = LookId is { } look ? look.Value : frame.LookId,
            PageId = Page is { } number ? PageIdOf(draft, number) : frame.PageId,
            Box = new(X ?? frame.Box.X, Y ?? frame.Box.Y, Width ?? frame.Box.Width, Height ?? frame.Box.Height),
            Angle = Angle is { } angle ? Geometry.Angle.Normalize(angle) : frame.Angle,
            Locked = Locked ?? frame.Locked,
            Hidden = Hidden ?? frame.Hidden,
            Outline = Outline ?? frame.Outline,
            Name = Name?.Trim() ?? frame.Name,
            RuleId = RuleId is { } rule ? rule.Value : frame.RuleId,
            Own = OwnAfter(draft, frame),
        };
        changed = Recropped(ImageId is { } image && image.Value != frame.ImageId ? changed.Showing(image.Value) : changed);
        if (RuleId is { Value: not null } && LookId is null) changed = UsualLooks.With(draft, changed);
        FrameChecks.Check(draft, changed);
        draft.Put(changed with { Held = HeldAfter(frame, changed) });
        if (ImageId is { Value: { } placed }) Placing.TakeFromTray(draft, placed);
    }

    private FitSettings OwnAfter(Draft draft, Frame frame)
    {
        var kept = ClearSet ? FitSettings.Open : Clear.IsEmpty ? frame.Own : frame.Own.Where(s => !Clear.Contains(s));
        if (Set is null) return kept;
        if (!OnlyOverRules) return Set.Over(kept);
        var over = Set.Except(draft.Origin.FitOfRule(RuleId is { } rule ? rule.Value : frame.RuleId).ToSettings());
        return over.Over(kept.Where(s => !Set.IsSet(s)));
    }

    private Frame Recropped(Frame frame)
    {
        if (Recrop is { } recrop) return recrop == Fitting.Recrop.None ? frame.WithoutRecrop() : frame with { Recrop = recrop, FormerRecrop = null };
        if (RecropBack && frame.FormerRecrop is { } former) return frame with { Recrop = former.Recrop, FormerRecrop = null };
        return FitOnce ? frame.WithoutRecrop() : frame;
    }

    /// <summary>What the frame holds on to: nothing where the fit is to be applied anew.</summary>
    private Held? HeldAfter(Frame before, Frame after)
    {
        bool anew = FitOnce || after.ImageId != before.ImageId || after.RuleId != before.RuleId || after.Recrop != before.Recrop
            || (after.Own with { StaysFitted = null }) != (before.Own with { StaysFitted = null });
        return anew ? null : before.Held;
    }
}

/// <summary>Where a frame is to lie.</summary>
/// <param name="FrameId">The frame.</param>
/// <param name="Page">The page it keeps to, by its number from 1.</param>
/// <param name="Box">Its unturned box, in points from the upper left of that page's trim.</param>
/// <param name="Angle">How far it is turned; null leaves that as it is.</param>
/// <param name="Outline">The outline it takes; null leaves that as it is.</param>
public readonly record struct FramePlace(int FrameId, int Page, Box Box, double? Angle = null, Outline? Outline = null);

/// <summary>What happens to the picture of a frame that is sized by hand.</summary>
public enum PictureAtSizing
{
    /// <summary>The frame is moved, not sized: the picture goes along.</summary>
    GoesAlong,
    /// <summary>One that is held stays where it is on the page, and an edge that is dragged over it crops it; one that stays fitted is fitted anew.</summary>
    Refitted,
    /// <summary>It stays where it is on the page: an edge that is dragged over it crops it, one that is dragged away uncovers it.</summary>
    Cropped,
    /// <summary>It is scaled with the frame.</summary>
    Scaled,
}

/// <summary>Moves frames, turns them, or sizes them by hand.</summary>
public sealed record PlaceFrames(ImmutableArray<FramePlace> Places, PictureAtSizing Picture = PictureAtSizing.GoesAlong, string? As = null) : Edit
{
    public override string Words => (As ?? (Picture == PictureAtSizing.GoesAlong ? "Move" : "Resize") + " frame") + (Places.Length == 1 ? ""
        : $", {Places.Length} frames");

    protected override void Make(Draft draft)
    {
        if (Places.IsEmpty) throw new EditRefused("frame", "No frame is chosen. Choose one first.");
        foreach (var (id, page, box, angle, outline) in Places)
        {
            var frame = FrameOf(draft, id);
            FrameChecks.Unlocked(frame);
            var placed = frame with
            {
                PageId = PageIdOf(draft, page),
                Box = box,
                Angle = angle is { } a ? Geometry.Angle.Normalize(a) : frame.Angle,
                Outline = outline ?? frame.Outline
            };
            FrameChecks.Check(draft, placed);
            if (Picture == PictureAtSizing.Refitted && frame.Held is { } held)
                placed = placed with { Held = held with { Matrix = ToPlaced(draft, frame, placed).After(held.Matrix) } };
            draft.Put(placed);
            if (frame.ImageId is not null && Picture is PictureAtSizing.Scaled or PictureAtSizing.Cropped) PutPicture(draft, frame, placed);
        }
    }

    private void PutPicture(Draft draft, Frame frame, Frame placed)
    {
        var (fitting, map) = Inside.Of(draft, frame);
        var (width, height) = (placed.Box.Width, placed.Box.Height);
        var sized = fitting with { Width = width, Height = height };
        if (Picture == PictureAtSizing.Scaled)
            Inside.Put(draft, placed, sized, Affine.Scaling(width / frame.Box.Width, height / frame.Box.Height).After(map));
        else Inside.PutStill(draft, placed, sized, ToPlaced(draft, frame, placed).After(map));
    }

    /// <summary>From the frame as it was to the frame as it is placed, so that what lies still on the spread is seen from there.</summary>
    private static Affine ToPlaced(Draft draft, Frame frame, Frame placed)
    {
        double across = Spread.AcrossOf(draft.Origin, frame.PageId) - Spread.AcrossOf(draft.Origin, placed.PageId);
        return placed.Pose.ToPage.Inverse().After(Affine.Translation(across, 0)).After(frame.Pose.ToPage);
    }
}

/// <summary>A value to put in place of another, where the value itself may be "none".</summary>
public sealed record Replacement<T>(T Value);

/// <summary>Removes frames. Their images stay in the publication.</summary>
public sealed record RemoveFrames(ImmutableArray<int> FrameIds) : Edit
{
    public override string Words => FrameIds.Length == 1 ? "Remove frame" : $"Remove {FrameIds.Length} frames";

    protected override void Make(Draft draft)
    {
        foreach (int id in FrameIds)
        {
            var frame = FrameOf(draft, id);
            FrameChecks.Unlocked(frame);
            draft.Remove(frame.Key);
        }
    }
}

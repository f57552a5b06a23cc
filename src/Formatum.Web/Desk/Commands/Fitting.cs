using System.Collections.Immutable;
using Formatum.Core.Checks;
using Formatum.Core.Edits;
using Formatum.Core.Fitting;
using Formatum.Web.Wording;

namespace Formatum.Web.Desk.Commands;

/// <summary>Which fits the Desk offers where.</summary>
public static class FitChoice
{
    /// <summary>The fits that have a button of their own on the Desk, and are stepped through, in order.</summary>
    public static readonly ImmutableArray<FitKind> Fits = [FitKind.Fill, FitKind.Fit, FitKind.Stretch, FitKind.Natural];

    /// <summary>The others, in a list.</summary>
    public static readonly ImmutableArray<FitKind> MoreFits = [FitKind.Shrink, FitKind.Width, FitKind.Height, FitKind.FillOrFit];
}

public sealed record ChooseFit : Gesture
{
    public FitKind? Fit { get; init; }

    public override Edit ToEdit(Ground ground) => Pressed(FrameIds, Fit ?? throw new EditRefused("fit", "Choose a fit."));

    /// <summary>A fit that is pressed is a wish to see just that, also where it holds already.</summary>
    internal static Edit Pressed(ImmutableArray<int> frames, FitKind fit) =>
        new ChangeFrames { FrameIds = frames, Set = new() { Fit = fit }, OnlyOverRules = true, FitOnce = true };
}

/// <summary>The next of the fits that have a button.</summary>
public sealed record NextFit : Gesture
{
    public override Edit ToEdit(Ground ground)
    {
        var now = ground.Publication.FitOf(FirstFrame(ground)).Fit;
        return ChooseFit.Pressed(FrameIds, FitChoice.Fits[(FitChoice.Fits.IndexOf(now) + 1) % FitChoice.Fits.Length]);
    }
}

public sealed record AlignPicture : Gesture
{
    public double? AlignX { get; init; }
    public double? AlignY { get; init; }

    public override Edit ToEdit(Ground ground) =>
        new ChangeFrames { FrameIds = FrameIds, Set = new() { AlignX = AlignX, AlignY = AlignY }, OnlyOverRules = true };
}

/// <summary>A setting is typed; several take the same value where their fields are linked.</summary>
public sealed record TypeSetting : Gesture
{
    public FitSetting[] Settings { get; init; } = [];
    public string? Value { get; init; }

    public override Edit ToEdit(Ground ground)
    {
        var errors = new FieldErrors();
        var set = FitSettings.Open;
        var now = ground.Publication.FitOf(FirstFrame(ground));
        foreach (var setting in Settings) set = set.Over(SettingText.Read(setting, Value, ground.Setup.Unit, now, errors));
        errors.ThrowIfAny();
        return new ChangeFrames { FrameIds = FrameIds, Set = set, OnlyOverRules = true };
    }
}

/// <summary>Pictures that hold are fitted anew.</summary>
public sealed record FitOnce : Gesture
{
    public override Edit ToEdit(Ground ground) => new ChangeFrames { FrameIds = FrameIds, FitOnce = true };
}

public sealed record ChooseRule : Gesture
{
    /// <summary>The rule to put on the frames; null for none.</summary>
    public int? Rule { get; init; }

    public override Edit ToEdit(Ground ground) => new ChangeFrames { FrameIds = FrameIds, RuleId = new(Rule) };
}

/// <summary>What was set on the frames themselves is cleared.</summary>
public sealed record ClearSettings : Gesture
{
    /// <summary>Which; all where none is given.</summary>
    public FitSetting[] Settings { get; init; } = [];

    public override Edit ToEdit(Ground ground) => new ChangeFrames { FrameIds = FrameIds, Clear = [.. Settings], ClearSet = Settings.Length == 0 };
}

/// <summary>A rule is made of what holds on a frame.</summary>
public sealed record MakeRule : Gesture
{
    public string? Name { get; init; }
    public FitSetting[] Settings { get; init; } = [];

    public override Edit ToEdit(Ground ground)
    {
        var frame = FirstFrame(ground);
        if (Settings.Length == 0) throw new EditRefused("settings", "A rule of nothing would do nothing. Choose what goes into it.");
        return new DefineRule
        {
            Name = Name ?? "",
            BasedOnId = frame.RuleId,
            LikeFrameId = frame.Id,
            Settings = ground.Publication.FitOf(frame).ToSettings().Where(s => Settings.Contains(s)),
        };
    }
}

using System.Collections.Immutable;
using Formatum.Core.Geometry;
using Formatum.Core.Settings;

namespace Formatum.Core.Fitting;

/// <summary>The settings of which each can be set or left open on its own.</summary>
public enum FitSetting
{
    Fit, AlignX, AlignY, InsetTop, InsetRight, InsetBottom, InsetLeft, Rotation, FlipX, FlipY, SmallestPpi, LargestEnlargement, Limits, LargestCrop,
    StaysFitted,
}

/// <summary>
/// Fitting settings of which any may be left open (null): a rule's, or what was set on one frame. An open setting is taken from the next
/// weaker place in the cascade.
/// </summary>
public sealed record FitSettings
{
    public static readonly FitSettings Open = new();

    public FitKind? Fit { get; init; }

    /// <summary>Where in the fit box the image is held, 0 (left) to 1 (right).</summary>
    public double? AlignX { get; init; }

    /// <summary>Where in the fit box the image is held, 0 (top) to 1 (bottom).</summary>
    public double? AlignY { get; init; }

    public double? InsetTop { get; init; }
    public double? InsetRight { get; init; }
    public double? InsetBottom { get; init; }
    public double? InsetLeft { get; init; }

    /// <summary>Rotation of the image inside the frame, degrees clockwise.</summary>
    public double? Rotation { get; init; }

    public bool? FlipX { get; init; }
    public bool? FlipY { get; init; }

    /// <summary>Smallest effective resolution wanted, in ppi; 0 for none.</summary>
    public double? SmallestPpi { get; init; }

    /// <summary>Largest scale wanted, 1 for natural size; 0 for none.</summary>
    public double? LargestEnlargement { get; init; }

    public LimitAction? Limits { get; init; }

    /// <summary>For <see cref="FitKind.FillOrFit"/>: the largest share of the image, 0 to 1, that Fill may hide.</summary>
    public double? LargestCrop { get; init; }

    /// <summary>Whether the frame keeps applying its rule whenever frame, rule or picture changes. Otherwise it applied it once and then holds.</summary>
    public bool? StaysFitted { get; init; }

    public bool IsOpen => ReferenceEquals(this, Open) || this == Open;

    /// <summary>Every setting, in the order of <see cref="FitSetting"/>.</summary>
    public static readonly ImmutableArray<Setting<FitSettings>> All =
    [
        new Setting<FitSettings, FitKind>("Fit", "fit", "Fit", SettingKind.Choice, s => s.Fit, (s, v) => s with { Fit = v }),
        Number("AlignX", "align", "Alignment across", SettingKind.Share, 0, 1, "An alignment runs from 0 (left) to 1 (right).", s => s.AlignX,
            (s, v) => s with { AlignX = v }),
        Number("AlignY", "align", "Alignment down", SettingKind.Share, 0, 1, "An alignment runs from 0 (top) to 1 (bottom).", s => s.AlignY,
            (s, v) => s with { AlignY = v }),
        Inset("Top", s => s.InsetTop, (s, v) => s with { InsetTop = v }),
        Inset("Right", s => s.InsetRight, (s, v) => s with { InsetRight = v }),
        Inset("Bottom", s => s.InsetBottom, (s, v) => s with { InsetBottom = v }),
        Inset("Left", s => s.InsetLeft, (s, v) => s with { InsetLeft = v }),
        Number("Rotation", "rotation", "Rotation", SettingKind.Angle, -3600, 3600, "Give the rotation in degrees, between -3600 and 3600.", s => s.Rotation,
            (s, v) => s with { Rotation = v }),
        YesNo("FlipX", "flipX", "Flip left to right", s => s.FlipX, (s, v) => s with { FlipX = v }),
        YesNo("FlipY", "flipY", "Flip top to bottom", s => s.FlipY, (s, v) => s with { FlipY = v }),
        Number("SmallestPpi", "smallestPpi", "Least effective ppi", SettingKind.Resolution, 0, 100_000,
            "Give a resolution between 0 (no limit) and 100,000 ppi.", s => s.SmallestPpi, (s, v) => s with { SmallestPpi = v }),
        Number("LargestEnlargement", "largestEnlargement", "Largest enlargement", SettingKind.Scale, 0, 1000,
            "Give a scale between 0 (no limit) and 1000; 1 is natural size.", s => s.LargestEnlargement, (s, v) => s with { LargestEnlargement = v }),
        new Setting<FitSettings, LimitAction>("Limits", "limits", "Beyond a limit", SettingKind.Choice, s => s.Limits, (s, v) => s with { Limits = v }),
        Number("LargestCrop", "largestCrop", "Largest crop", SettingKind.Share, 0, 1, "The largest crop is a share of the image between 0 and 1.",
            s => s.LargestCrop, (s, v) => s with { LargestCrop = v }),
        YesNo("StaysFitted", "staysFitted", "Stays fitted", s => s.StaysFitted, (s, v) => s with { StaysFitted = v }),
    ];

    /// <summary>The largest inset either way, in points: the largest page side a PDF can have.</summary>
    public const double LargestInset = Geometry.Limits.LargestPageSide;

    private static Setting<FitSettings> Number(
        string name, string path, string label, SettingKind kind, double least, double most, string remedy, Func<FitSettings, double?> read, Func<FitSettings,
            double?, FitSettings> write) =>
        new Setting<FitSettings, double>(name, path, label, kind, read, write) { Range = (least, most, remedy) };

    private static Setting<FitSettings> Inset(string side, Func<FitSettings, double?> read, Func<FitSettings, double?, FitSettings> write) =>
        Number("Inset" + side, "inset." + side.ToLowerInvariant(), $"Inset, {side.ToLowerInvariant()}", SettingKind.Length, -LargestInset, LargestInset,
            "An inset may be 5080 mm at most, inwards or outwards.", read, write);

    private static Setting<FitSettings> YesNo(string name, string path, string label, Func<FitSettings, bool?> read, Func<FitSettings, bool?,
        FitSettings> write) =>
        new Setting<FitSettings, bool>(name, path, label, SettingKind.YesNo, read, write);

    public static Setting<FitSettings> Of(FitSetting setting) => All[(int)setting];

    /// <summary>These settings, with what they leave open taken from <paramref name="weaker"/>.</summary>
    public FitSettings Over(FitSettings weaker) => IsOpen ? weaker : weaker.IsOpen ? this : Layers.Over(All, this, weaker);

    /// <summary>These settings, with all left open that are not to be kept.</summary>
    public FitSettings Where(Func<FitSetting, bool> keep) => Layers.Kept(All, this, setting => keep(Enum.Parse<FitSetting>(setting.Name)));

    /// <summary>These settings with others over them, of which only those are set that change something.</summary>
    /// <param name="changed">The others.</param>
    /// <param name="now">What holds now.</param>
    public FitSettings With(FitSettings changed, in ResolvedFit now) => changed.Except(now.ToSettings()).Over(this);

    public bool IsSet(FitSetting setting) => Of(setting).IsSet(this);

    /// <summary>What of these differs from others, and is set here.</summary>
    public FitSettings Except(FitSettings others) => Layers.Kept(All, this, setting => !Equals(setting.ValueOf(this), setting.ValueOf(others)));

    /// <summary>The settings with everything still open taken from <see cref="ResolvedFit.Default"/>.</summary>
    public ResolvedFit Resolve()
    {
        var d = ResolvedFit.Default;
        return new(
            Fit ?? d.Fit,
            AlignX ?? d.AlignX,
            AlignY ?? d.AlignY,
            new(InsetTop ?? d.Inset.Top, InsetRight ?? d.Inset.Right, InsetBottom ?? d.Inset.Bottom, InsetLeft ?? d.Inset.Left),
            Rotation ?? d.Rotation,
            FlipX ?? d.FlipX,
            FlipY ?? d.FlipY,
            SmallestPpi ?? d.SmallestPpi,
            LargestEnlargement ?? d.LargestEnlargement,
            Limits ?? d.Limits,
            LargestCrop ?? d.LargestCrop,
            StaysFitted ?? d.StaysFitted);
    }
}

/// <summary>Fitting settings with nothing left open: what a picture is fitted by. Units and ranges as in <see cref="FitSettings"/>.</summary>
public readonly record struct ResolvedFit(
    FitKind Fit, double AlignX, double AlignY, Inset Inset, double Rotation, bool FlipX, bool FlipY,
    double SmallestPpi, double LargestEnlargement, LimitAction Limits, double LargestCrop, bool StaysFitted)
{
    /// <summary>What holds where nobody said anything: Fill, centred, no limits, staying fitted; Fill or fit hides a quarter of the image at most.</summary>
    public static readonly ResolvedFit Default = new(FitKind.Fill, 0.5, 0.5, default, 0, false, false, 0, 0, LimitAction.Flag, 0.25, true);

    /// <summary>The same, as settings of which every one is set.</summary>
    public FitSettings ToSettings() => new()
    {
        Fit = Fit,
        AlignX = AlignX,
        AlignY = AlignY,
        InsetTop = Inset.Top,
        InsetRight = Inset.Right,
        InsetBottom = Inset.Bottom,
        InsetLeft = Inset.Left,
        Rotation = Rotation,
        FlipX = FlipX,
        FlipY = FlipY,
        SmallestPpi = SmallestPpi,
        LargestEnlargement = LargestEnlargement,
        Limits = Limits,
        LargestCrop = LargestCrop,
        StaysFitted = StaysFitted,
    };

    /// <summary>The box the image is fitted in, in frame-local points. Its sides are 0 or less where the insets leave none.</summary>
    public Geometry.Box FitBox(double width, double height) => new(Inset.Left, Inset.Top, width - Inset.Left - Inset.Right, height - Inset.Top - Inset.Bottom);
}

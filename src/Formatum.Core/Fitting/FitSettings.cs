namespace Formatum.Core.Fitting;

/// <summary>The settings of which each can be set or left open on its own.</summary>
public enum FitSetting
{
    Fit, AlignX, AlignY, InsetTop, InsetRight, InsetBottom, InsetLeft, Rotation, FlipX, FlipY, SmallestPpi, LargestEnlargement, Limits, LargestCrop, StaysFitted,
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

    /// <summary>These settings, with what they leave open taken from <paramref name="weaker"/>.</summary>
    public FitSettings Over(FitSettings weaker) => IsOpen ? weaker : weaker.IsOpen ? this : new()
    {
        Fit = Fit ?? weaker.Fit,
        AlignX = AlignX ?? weaker.AlignX,
        AlignY = AlignY ?? weaker.AlignY,
        InsetTop = InsetTop ?? weaker.InsetTop,
        InsetRight = InsetRight ?? weaker.InsetRight,
        InsetBottom = InsetBottom ?? weaker.InsetBottom,
        InsetLeft = InsetLeft ?? weaker.InsetLeft,
        Rotation = Rotation ?? weaker.Rotation,
        FlipX = FlipX ?? weaker.FlipX,
        FlipY = FlipY ?? weaker.FlipY,
        SmallestPpi = SmallestPpi ?? weaker.SmallestPpi,
        LargestEnlargement = LargestEnlargement ?? weaker.LargestEnlargement,
        Limits = Limits ?? weaker.Limits,
        LargestCrop = LargestCrop ?? weaker.LargestCrop,
        StaysFitted = StaysFitted ?? weaker.StaysFitted,
    };

    /// <summary>These settings, with all left open that are not to be kept.</summary>
    public FitSettings Where(Func<FitSetting, bool> keep) => new()
    {
        Fit = keep(FitSetting.Fit) ? Fit : null,
        AlignX = keep(FitSetting.AlignX) ? AlignX : null,
        AlignY = keep(FitSetting.AlignY) ? AlignY : null,
        InsetTop = keep(FitSetting.InsetTop) ? InsetTop : null,
        InsetRight = keep(FitSetting.InsetRight) ? InsetRight : null,
        InsetBottom = keep(FitSetting.InsetBottom) ? InsetBottom : null,
        InsetLeft = keep(FitSetting.InsetLeft) ? InsetLeft : null,
        Rotation = keep(FitSetting.Rotation) ? Rotation : null,
        FlipX = keep(FitSetting.FlipX) ? FlipX : null,
        FlipY = keep(FitSetting.FlipY) ? FlipY : null,
        SmallestPpi = keep(FitSetting.SmallestPpi) ? SmallestPpi : null,
        LargestEnlargement = keep(FitSetting.LargestEnlargement) ? LargestEnlargement : null,
        Limits = keep(FitSetting.Limits) ? Limits : null,
        LargestCrop = keep(FitSetting.LargestCrop) ? LargestCrop : null,
        StaysFitted = keep(FitSetting.StaysFitted) ? StaysFitted : null,
    };

    /// <summary>These settings with others over them, of which only those are set that change something.</summary>
    /// <param name="changed">The others.</param>
    /// <param name="now">What holds now.</param>
    public FitSettings With(FitSettings changed, in ResolvedFit now)
    {
        var before = now.ToSettings();
        return changed.Where(setting => changed.Where(s => s == setting) != before.Where(s => s == setting)).Over(this);
    }

    public bool IsSet(FitSetting setting) => !Where(s => s == setting).IsOpen;

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

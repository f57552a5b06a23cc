namespace Formatum.Core.Fitting;

/// <summary>The ways an image takes its size in a frame.</summary>
public enum FitKind
{
    /// <summary>The smallest uniform scale that covers the whole fit box.</summary>
    Fill,
    /// <summary>The largest uniform scale at which the whole image is inside the fit box.</summary>
    Fit,
    /// <summary>Each axis of the image scaled on its own until the fit box is just covered.</summary>
    Stretch,
    /// <summary>Scale 1: pixels / stored resolution.</summary>
    Natural,
    /// <summary>Fit, but never larger than natural size.</summary>
    Shrink,
    /// <summary>As wide as the fit box.</summary>
    Width,
    /// <summary>As high as the fit box.</summary>
    Height,
    /// <summary>Fill where that hides no more of the image than the rule's largest crop, else Fit.</summary>
    FillOrFit,
}

/// <summary>What a rule's limits do to a scale beyond them.</summary>
public enum LimitAction { Flag, Hold }

namespace Formatum.Core.Publications;

/// <summary>How a picture's effective resolution stands against the publication's limits.</summary>
public enum Sharpness
{
    /// <summary>At or above what print asks.</summary>
    Sharp,
    /// <summary>Below what print asks, above the floor.</summary>
    Soft,
    /// <summary>Below the floor.</summary>
    TooCoarse,
}

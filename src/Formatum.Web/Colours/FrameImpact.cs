using System.Collections.Immutable;
using Formatum.Core.Publications;
using Formatum.Storage;

namespace Formatum.Web.Colours;

/// <summary>The frames that a change of the palette or of a look touches.</summary>
/// <param name="Standing">The publication as it is.</param>
/// <param name="After">As it would be.</param>
/// <param name="Frames">The frames, as they are.</param>
public sealed record FrameImpact(Standing Standing, Publication After, ImmutableArray<Frame> Frames)
{
    /// <summary>So many frames are shown.</summary>
    public const int MostShown = 30;
}

/// <summary>Such a change with the button that makes it.</summary>
/// <param name="Impact">What it does.</param>
/// <param name="Title">What is to be done, in words.</param>
/// <param name="Act">The handler that does it.</param>
/// <param name="Values">What that handler is to be sent; null for the form it was typed in.</param>
/// <param name="BlockedBy">Why it cannot be done as it stands; null where it can.</param>
public sealed record FrameImpactView(FrameImpact Impact, string Title, string Act, IReadOnlyDictionary<string, string>? Values, string? BlockedBy = null);

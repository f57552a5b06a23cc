using System.Collections.Immutable;
using Formatum.Core.Stories;

namespace Formatum.Core.Publications;

/// <summary>Text that runs through one text frame or several.</summary>
public sealed record Story : Part
{
    /// <summary>No story runs through more frames.</summary>
    public const int MostFrames = 2000;

    public required int Id { get; init; }

    /// <summary>The frames it runs through, in order: its chain.</summary>
    public required ImmutableArray<int> FrameIds { get; init; }

    public required FrameText Text { get; init; }

    public override PartKey Key => new(PartKind.Story, Id);

    public bool Equals(Story? other) => other is not null && Id == other.Id && FrameIds.AsSpan().SequenceEqual(other.FrameIds.AsSpan()) && Text == other.Text;

    public override int GetHashCode() => HashCode.Combine(Id, FrameIds.Length, Text);
}

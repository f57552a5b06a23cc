using System.Collections.Immutable;

namespace Formatum.Core.Publications;

/// <summary>The pictures picked up and waiting to be placed, in order; each once.</summary>
public sealed record Tray(ImmutableArray<int> ImageIds) : Part
{
    public static readonly Tray Empty = new([]);

    public override PartKey Key => new(PartKind.Tray, 0);

    public Tray Without(IEnumerable<int> images)
    {
        var gone = images.ToHashSet();
        return new(ImageIds.RemoveAll(gone.Contains));
    }

    public bool Equals(Tray? other) => other is not null && ImageIds.AsSpan().SequenceEqual(other.ImageIds.AsSpan());

    public override int GetHashCode() => HashCode.Combine(ImageIds.Length, ImageIds.IsEmpty ? 0 : ImageIds[0]);
}

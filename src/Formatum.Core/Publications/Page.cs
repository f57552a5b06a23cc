using System.Collections.Immutable;

namespace Formatum.Core.Publications;

/// <summary>A page. Where it stands is <see cref="PageOrder"/>'s to say, so that frames keep to their page when pages move.</summary>
public sealed record Page(int Id) : Part
{
    public const int MostGuides = 200;

    /// <summary>The master page it is based on; null for none.</summary>
    public int? MasterId { get; init; }

    public ImmutableArray<PageGuide> Guides { get; init => field = value.IsDefault ? [] : value; } = [];

    public override PartKey Key => new(PartKind.Page, Id);

    public bool Equals(Page? other) => other is not null && Id == other.Id && MasterId == other.MasterId && Guides.AsSpan()
        .SequenceEqual(other.Guides.AsSpan());

    public override int GetHashCode() => HashCode.Combine(Id, MasterId, Guides.Length);
}

/// <summary>The pages in order.</summary>
public sealed record PageOrder : Part
{
    private Dictionary<int, int>? _index;

    public PageOrder(ImmutableArray<int> ids) => Ids = ids;

    public ImmutableArray<int> Ids
    {
        get;
        init
        {
            field = value;
            _index = null;
        }
    }

    public override PartKey Key => new(PartKind.PageOrder, 0);

    /// <summary>Where the page stands, from 0; -1 where it is not in the publication.</summary>
    public int IndexOf(int pageId)
    {
        var index = _index ??= Ids.Select((id, i) => (id, i)).ToDictionary(p => p.id, p => p.i);
        return index.GetValueOrDefault(pageId, -1);
    }

    public bool Equals(PageOrder? other) => other is not null && Ids.AsSpan().SequenceEqual(other.Ids.AsSpan());

    public override int GetHashCode() => HashCode.Combine(Ids.Length, Ids.IsEmpty ? 0 : Ids[0]);
}

using System.Collections.Frozen;
using System.Collections.Immutable;
using Formatum.Core.Checking.Kinds;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking;

/// <summary>All kinds of findings, in the order in which they are listed.</summary>
public static class CheckKinds
{
    public static readonly ImmutableArray<KindCheck> All =
    [
        new LinkMissing(), new LinkChanged(), new BelowLeastPpi(), new BelowWantedPpi(), new Stretched(), new Enlarged(), new BareArea(),
        new EmptyPlaceholder(), new SubjectOutside(), new TextLeftOver(), new GlyphsMissing(), new FontNotEmbeddable(), new UnknownField(), new SmallType(),
        new BlackOfManyInks(), new OffPage(), new NoBleed(), new NearTrim(), new AcrossFold(), new ThinLine(), new ColourNotOfIntent(), new Blended(),
        new TooMuchInk(),
        new PictureTwiceOnPage(), new PictureTwice(), new PageBlank(), new PagesNotInFours(), new StyleUnused(), new RuleUnused(), new LookUnused(),
        new HiddenContent(), new LockedContent(),
    ];

    private static readonly FrozenDictionary<FindingKind, KindCheck> ByKind = All.ToFrozenDictionary(k => k.Kind);

    public static KindCheck Of(FindingKind kind) => ByKind[kind];
}

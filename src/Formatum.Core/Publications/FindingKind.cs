namespace Formatum.Core.Publications;

/// <summary>What the check of a publication can find. The names are kept in files: add, never rename.</summary>
public enum FindingKind
{
    LinkMissing, LinkChanged, BelowLeastPpi, BelowWantedPpi, Stretched, Enlarged, BareArea, EmptyPlaceholder, SubjectOutside,
    TextLeftOver, GlyphsMissing, FontNotEmbeddable, UnknownField, SmallType, BlackOfManyInks,
    OffPage, NoBleed, NearTrim, AcrossFold, ThinLine, ColourNotOfIntent, TooMuchInk,
    PictureTwiceOnPage, PictureTwice, PageBlank, PagesNotInFours, StyleUnused, RuleUnused, LookUnused, HiddenContent, LockedContent,
    Blended,
}

/// <summary>How much a finding counts, from the least.</summary>
public enum Severity
{
    /// <summary>It is not looked for.</summary>
    Off,

    /// <summary>Worth knowing.</summary>
    Note,

    /// <summary>Worth a look before anything leaves.</summary>
    Warning,

    /// <summary>Nothing should leave with it.</summary>
    Fault,
}

using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Web.Wording;

/// <summary>Words for folds.</summary>
public static class FoldText
{
    public static string Kind(FoldKind kind) => kind switch
    {
        FoldKind.Half => "folded once",
        FoldKind.Roll => "folded in (letter fold, tri-fold)",
        FoldKind.Accordion => "folded zigzag (accordion)",
        _ => "folded as a gate",
    };
}

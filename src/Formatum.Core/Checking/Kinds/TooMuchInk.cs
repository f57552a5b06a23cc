using Formatum.Core.Geometry;
using Formatum.Core.Publications;

namespace Formatum.Core.Checking.Kinds;

internal sealed class TooMuchInk : KindCheck
{
    /// <summary>What a measure of 8 bits a plate is off by, in per cent.</summary>
    private const double Slack = 1;

    /// <summary>The place of most ink is shown by a box of this side, in points.</summary>
    private const double Side = 24;

    public override FindingKind Kind => FindingKind.TooMuchInk;
    public override string Title => "Too much ink";
    public override string Mark => "much ink";
    public override string Why => "More ink than the paper takes stays wet, smears, and shows on the sheet that lies on it.";

    internal override IEnumerable<Finding> OfWhole(CheckedWhole whole)
    {
        double most = whole.In.Profile.MostInk;
        foreach (int page in whole.Publication.Order.Ids)
        {
            if (whole.In.Facts.Inks.GetValueOrDefault(page) is not { } ink || ink.Percent <= most + Slack) continue;
            yield return On(new(PartKind.Page, page), Capital(whole.Publication.WordsOf(page)), "", ink.Percent,
                new Figure("Ink", ink.Percent, most, FigureUnit.Percent)) with
            {
                Places = [new(page, null, new(ink.At.X - Side / 2, ink.At.Y - Side / 2, Side, Side))],
            };
        }
    }

    internal static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}

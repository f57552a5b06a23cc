using System.Collections.Immutable;
using Formatum.Core.Colours;
using Formatum.Core.Publications;
using Formatum.Imaging;

namespace Formatum.Output.Press;

/// <summary>A plate of a picture in two inks.</summary>
/// <param name="Name">Its ink.</param>
/// <param name="StandIn">What comes near to its ink in four inks.</param>
/// <param name="IsSpot">Whether it is none of the four.</param>
/// <param name="InDark">How much of it there is where the picture is darkest, 0 to 1.</param>
/// <param name="InLight">How much where it is lightest.</param>
internal readonly record struct TwoInkPlate(string Name, CmykColour StandIn, bool IsSpot, double InDark, double InLight);

/// <summary>
/// A picture in two inks of which one at least has a plate of its own: it prints with those inks, and not with what stands in for them. What becomes lighter
/// on the screen has less of the one and more of the other.
/// </summary>
internal sealed class TwoPlates
{
    private readonly byte[] _table;

    private TwoPlates(ImmutableArray<TwoInkPlate> plates)
    {
        Plates = plates;
        _table = new byte[256 * plates.Length];
        for (int v = 0; v < 256; v++)
            for (int i = 0; i < plates.Length; i++)
                _table[v * plates.Length + i] = (byte)Math.Round(255 * (plates[i].InDark + (plates[i].InLight - plates[i].InDark) * (v / 255.0)));
    }

    public ImmutableArray<TwoInkPlate> Plates { get; }

    /// <returns>The plates; null where a treatment takes no ink of its own, or goes on after its inks.</returns>
    public static TwoPlates? Of(Treatment? treatment, PressConversion press)
    {
        if (treatment is not { Inks: { } inks, Tint: null } || (inks.Dark is not SpotColour && inks.Light is not SpotColour)) return null;
        var amounts = Amounts(inks.Dark, press).Select(a => (a.Name, a.StandIn, a.IsSpot, Dark: a.Amount, Light: 0.0))
            .Concat(Amounts(inks.Light, press).Select(a => (a.Name, a.StandIn, a.IsSpot, Dark: 0.0, Light: a.Amount)));
        return new([.. amounts.GroupBy(a => a.Name)
            .Select(g => new TwoInkPlate(g.Key, g.First().StandIn, g.First().IsSpot, g.Sum(a => a.Dark), g.Sum(a => a.Light)))]);
    }

    private static IEnumerable<(string Name, CmykColour StandIn, bool IsSpot, double Amount)> Amounts(Colour colour, PressConversion press)
    {
        if (colour is SpotColour spot) return [(spot.Name, PressInks.Of(spot.StandIn, press), true, 1)];
        var four = PressInks.Of(colour, press);
        return new (string Name, CmykColour Full, bool IsSpot, double Amount)[]
        {
            ("Cyan", new(1, 0, 0, 0), false, four.Cyan), ("Magenta", new(0, 1, 0, 0), false, four.Magenta), ("Yellow", new(0, 0, 1, 0), false, four.Yellow),
            ("Black", new(0, 0, 0, 1), false, four.Key),
        }.Where(a => a.Amount > 0);
    }

    /// <summary>The treatment without its inks: it leaves how light the picture is.</summary>
    public static Treatment Lightness(Treatment treatment) => treatment with { Inks = new(Colour.Black, Colour.White) };

    /// <summary>How much of each plate lies where, a byte for each: 255 is full.</summary>
    /// <param name="lightness">A byte a pixel.</param>
    public byte[] Samples(byte[] lightness)
    {
        int parts = Plates.Length;
        byte[] samples = new byte[lightness.Length * parts];
        for (int i = 0; i < lightness.Length; i++) _table.AsSpan(lightness[i] * parts, parts).CopyTo(samples.AsSpan(i * parts));
        return samples;
    }
}

using System.Runtime.InteropServices;
using Formatum.Core.Colours;
using Formatum.Imaging;
using NetVips;

namespace Formatum.Output.Tests;

/// <summary>Single colours as inks and back, against Little CMS converting all of them at once.</summary>
public sealed class PressConversionTests
{
    private const int Count = 2000;
    private static readonly PressConversion General = new(ColourProfile.GeneralPress);

    [Fact]
    public void A_colour_becomes_the_inks_that_Little_CMS_says()
    {
        var random = new Random(20_261_127);
        RgbColour[] colours = [new(0, 0, 0), new(255, 255, 255), .. Enumerable.Range(0, Count).Select(_ => Any(random))];
        ushort[] theirs = Transformed([.. colours.SelectMany(c => new[] { c.Red, c.Green, c.Blue }).Select(v => (ushort)(v * 257))],
            3, Enums.Interpretation.Rgb16, ColourProfile.Srgb, ColourProfile.GeneralPress);
        double[] apart = [.. colours.Select((c, i) =>
        {
            var inks = General.Inks(c);
            return Most([inks.Cyan, inks.Magenta, inks.Yellow, inks.Key], theirs.AsSpan(4 * i, 4));
        })];
        apart[..2].ShouldAllBe(a => a < 1e-9, "black and white are on the grid");
        // In shares of full ink: a hundredth is what a good press repeats at best (common practice, no source).
        apart.Average().ShouldBeLessThan(0.002);
        apart.Max().ShouldBeLessThan(0.02);
    }

    [Fact]
    public void Inks_show_as_Little_CMS_says()
    {
        var random = new Random(20_261_128);
        CmykColour[] colours = [.. Enumerable.Range(0, Count).Select(i => new CmykColour(random.NextDouble(), random.NextDouble(), random.NextDouble(),
            i % 2 == 0 ? 0 : random.NextDouble()))];
        ushort[] theirs = Transformed([.. colours.SelectMany(c => new[] { c.Cyan, c.Magenta, c.Yellow, c.Key }).Select(v => (ushort)Math.Round(v * 65535))],
            4, Enums.Interpretation.Cmyk, ColourProfile.GeneralPress, ColourProfile.Srgb);
        double[] apart = [.. colours.Select((c, i) =>
        {
            byte Part(int part) => (byte)Math.Round(theirs[3 * i + part] / 257.0);
            return Lab.Of(General.OnScreen(c)).DistanceTo(Lab.Of(new(Part(0), Part(1), Part(2))));
        })];
        // Delta E of 1976; 2.3 is just noticeable side by side (Mahy and others 1994).
        apart.Average().ShouldBeLessThan(0.3);
        apart.Max().ShouldBeLessThan(2);
    }

    /// <summary>
    /// The general press is that of the data it is made from (FOGRA39L, Debian's icc-profiles-free): CIELAB of single patches, read from its file, against
    /// Little
    /// CMS going from the profile to Lab.
    /// </summary>
    [Theory]
    [InlineData(0, 0, 0, 0, 95.00, 0.00, -2.00)]
    [InlineData(100, 0, 0, 0, 55.00, -37.00, -50.00)]
    [InlineData(0, 100, 0, 0, 48.00, 74.00, -3.00)]
    [InlineData(0, 0, 100, 0, 89.00, -5.00, 93.00)]
    [InlineData(0, 0, 0, 100, 16.00, 0.00, 0.00)]
    [InlineData(0, 40, 0, 0, 76.42, 25.78, -6.91)]
    [InlineData(20, 20, 0, 0, 79.43, 5.10, -13.64)]
    public void The_general_press_prints_what_its_data_says(double cyan, double magenta, double yellow, double key, double lightness, double a, double b)
    {
        using var inks = (Image.Black(1, 1, bands: 4) + new[] { cyan, magenta, yellow, key }.Select(i => i * 2.55).ToArray()).Cast(Enums.BandFormat.Float)
            .Cast(Enums.BandFormat.Uchar).Copy(interpretation: Enums.Interpretation.Cmyk);
        using var lab = inks.IccImport(inputProfile: ColourProfile.GeneralPress.Source, intent: Enums.Intent.Relative);
        double[] seen = lab.Getpoint(0, 0), meant = OnPaper([lightness, a, b]);
        Math.Sqrt(seen.Zip(meant, (s, m) => (s - m) * (s - m)).Sum()).ShouldBeLessThan(2, $"{string.Join(' ', seen)} for {string.Join(' ', meant)}");
    }

    /// <summary>CIELAB as it is seen from the paper (ICC.1:2022, 6.3.2.2): each of X, Y and Z in shares of the paper's, which is 95, 0, -2.</summary>
    private static double[] OnPaper(double[] lab)
    {
        static double[] Cubes(double[] lab)
        {
            double y = (lab[0] + 16) / 116;
            return [.. new[] { y + lab[1] / 500, y, y - lab[2] / 200 }.Select(f => f > 6.0 / 29 ? f * f * f : 3 * Math.Pow(6.0 / 29, 2) * (f - 4.0 / 29))];
        }
        double[] f = [.. Cubes(lab).Zip(Cubes([95, 0, -2]), (own, paper) => own / paper)
            .Select(t => t > Math.Pow(6.0 / 29, 3) ? Math.Cbrt(t) : t / (3 * Math.Pow(6.0 / 29, 2)) + 4.0 / 29)];
        return [116 * f[1] - 16, 500 * (f[0] - f[1]), 200 * (f[1] - f[2])];
    }

    /// <summary>Ink black shows neutral and dark, and greys that go to the press and back come evenly, without a tint: plain grounds have no rings.</summary>
    [Fact]
    public void Greys_stay_grey_and_even()
    {
        for (int ink = 0; ink <= 100; ink++)
        {
            var shown = General.OnScreen(new(0, 0, 0, ink / 100.0));
            (Math.Max(shown.Red, Math.Max(shown.Green, shown.Blue)) - Math.Min(shown.Red, Math.Min(shown.Green, shown.Blue))).ShouldBeLessThanOrEqualTo(4,
                $"K {ink}");
        }
        General.OnScreen(new(0, 0, 0, 1)).Green.ShouldBeLessThan((byte)32);
        byte[] greys = [.. Enumerable.Range(0, 256).SelectMany(v => new[] { (byte)v, (byte)v, (byte)v })];
        byte[] printed = PressPixels.OnScreen(PressPixels.ToInks(greys, 256, 1, ColourProfile.GeneralPress), 256, 1, ColourProfile.GeneralPress);
        for (int v = 0; v < 256; v++)
        {
            var lab = Lab.Of(new(printed[3 * v], printed[3 * v + 1], printed[3 * v + 2]));
            Math.Sqrt(lab.A * lab.A + lab.B * lab.B).ShouldBeLessThan(2.3, $"grey {v}");
            if (v > 0) (printed[3 * v + 1] - printed[3 * v - 2]).ShouldBeInRange(-1, 4, $"grey {v}");
        }
    }

    private static RgbColour Any(Random random) => new((byte)random.Next(256), (byte)random.Next(256), (byte)random.Next(256));

    private static double Most(double[] ours, ReadOnlySpan<ushort> theirs)
    {
        double most = 0;
        for (int i = 0; i < ours.Length; i++) most = Math.Max(most, Math.Abs(ours[i] - theirs[i] / 65535.0));
        return most;
    }

    private static ushort[] Transformed(ushort[] parts, int bands, Enums.Interpretation kind, ColourProfile from, ColourProfile to)
    {
        using var all = Image.NewFromMemoryCopy(MemoryMarshal.AsBytes(parts.AsSpan()).ToArray(), parts.Length / bands, 1, bands, Enums.BandFormat.Ushort);
        using var meant = all.Copy(interpretation: kind);
        using var done = meant.IccTransform(to.Source, intent: Enums.Intent.Relative, blackPointCompensation: true, inputProfile: from.Source, depth: 16);
        return done.WriteToMemory<ushort>();
    }
}

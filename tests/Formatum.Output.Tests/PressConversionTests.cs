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

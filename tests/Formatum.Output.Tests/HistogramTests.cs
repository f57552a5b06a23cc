using Formatum.Imaging;
using Formatum.Testing;
using NetVips;

namespace Formatum.Output.Tests;

/// <summary>Histograms against those of libvips.</summary>
public sealed class HistogramTests : IDisposable
{
    private readonly TempFolder _folder = new();

    public void Dispose() => _folder.Dispose();

    [Fact]
    public void Counts_are_those_of_libvips()
    {
        using var quarters = TestPictures.Quarters(300, 200);
        string file = TestPictures.Save(quarters, _folder["q.png"], 72);
        var counted = Histogram.Of(file);
        using var picture = Image.Pngload(file).ExtractBand(0, n: 3).CopyMemory();
        for (int part = 0; part < 3; part++)
        {
            using var theirs = picture[part].HistFind();
            uint[] expected = theirs.WriteToMemory<uint>();
            for (int v = 0; v < expected.Length; v++) counted.Counts[part][v].ShouldBe((int)expected[v], $"part {part}, value {v}");
        }
        using var grey = picture.Recomb(Image.NewFromArray(new[,] { { 0.213, 0.715, 0.072 } })).Rint().Cast(Enums.BandFormat.Uchar);
        using var brightness = grey.HistFind();
        uint[] tones = brightness.WriteToMemory<uint>();
        for (int v = 0; v < tones.Length; v++) counted.Counts[3][v].ShouldBe((int)tones[v], $"brightness {v}");
        counted.Counts.ShouldAllBe(c => c.Sum() == 300 * 200);
    }

    /// <summary>What is transparent counts as the white paper it shows.</summary>
    [Fact]
    public void Transparency_counts_as_paper()
    {
        using var clear = Image.Black(10, 10, bands: 4).Cast(Enums.BandFormat.Uchar).Copy(interpretation: Enums.Interpretation.Srgb);
        clear.WriteToFile(_folder["c.png"]);
        Histogram.Of(_folder["c.png"]).Counts[3][255].ShouldBe(100);
    }
}

using BenchmarkDotNet.Attributes;
using Formatum.Core.Fitting;
using Formatum.Core.Geometry;

namespace Formatum.Bench;

/// <summary>Fitting 100,000 frames: the time and the memory of each.</summary>
[MemoryDiagnoser]
[ShortRunJob]
public class FitBench
{
    private const int Frames = 100_000;

    private readonly (double Width, double Height, Picture Picture, ResolvedFit Rule)[] _cases = new (double, double, Picture, ResolvedFit)[Frames];

    [Params(0, 17)]
    public double Rotation { get; set; }

    [GlobalSetup]
    public void Setup()
    {
        var random = new Random(1);
        FitKind[] fits = [FitKind.Fill, FitKind.Fit, FitKind.Stretch, FitKind.Natural];
        for (int i = 0; i < Frames; i++)
        {
            _cases[i] = (20 + 400 * random.NextDouble(), 20 + 400 * random.NextDouble(), new(500 + random.Next(6000), 500 + random.Next(6000), 300, 300),
                ResolvedFit.Default with { Fit = fits[i % 4], AlignX = random.NextDouble(), AlignY = random.NextDouble(), Rotation = Rotation });
        }
    }

    [Benchmark(OperationsPerInvoke = Frames)]
    public double Place()
    {
        double sum = 0;
        foreach (ref var c in _cases.AsSpan()) sum += Fitter.Place(c.Width, c.Height, Outline.Rectangle, c.Picture, c.Rule, null, Recrop.None).Matrix.E;
        return sum;
    }

    [Benchmark(OperationsPerInvoke = Frames)]
    public double PlaceAndMeasure()
    {
        double sum = 0;
        foreach (ref var c in _cases.AsSpan()) sum += Fitted.Of(c.Width, c.Height, Outline.Rectangle, c.Picture, c.Rule, null, Recrop.None).Coverage.CropLoss;
        return sum;
    }
}

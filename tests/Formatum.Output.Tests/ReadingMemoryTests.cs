using Formatum.Testing;
using NetVips;

namespace Formatum.Output.Tests;

/// <summary>Alone, since what the image library holds is counted for the whole process.</summary>
[CollectionDefinition(nameof(ReadingMemoryTests), DisableParallelization = true)]
[Collection(nameof(ReadingMemoryTests))]
public sealed class ReadingMemoryTests : IDisposable
{
    private readonly Workshop _shop = new();

    public void Dispose() => _shop.Dispose();

    [Fact]
    public void What_a_picture_took_in_memory_is_given_back_at_once_and_not_when_the_collector_comes()
    {
        const int Count = 12;
        var files = Enumerable.Range(0, Count).Select(i =>
        {
            using var picture = TestPictures.Quarters(2400 + i, 1600);
            return TestPictures.Save(picture, _shop.Folder[$"p{i}.jpg"]);
        }).ToArray();
        _shop.Reader.Read(files[0], "p0.jpg");
        GC.Collect();
        GC.WaitForPendingFinalizers();
        int before = Stats.Mem;
        foreach (string file in files[1..]) _shop.Reader.Read(file, Path.GetFileName(file));
        // One picture in memory at 1600 x 1067 pixels has 5 MB.
        (Stats.Mem - before).ShouldBeLessThan(2 << 20);
    }
}

using System.Collections.Concurrent;
using Formatum.Testing;

[assembly: AssemblyFixture(typeof(Formatum.Web.Tests.Workplaces))]

namespace Formatum.Web.Tests;

/// <summary>
/// Servers, and a browser beside each that needs one. Starting both takes longer than most tests, so that whoever is done with them leaves them for the next.
/// Publications stay on the server: each test makes its own.
/// </summary>
public sealed class Workplaces : IDisposable
{
    private readonly ConcurrentBag<Place> _idle = [];

    internal Place Take() => _idle.TryTake(out var place) ? place : new Place();

    internal void Leave(Place place) => _idle.Add(place);

    public void Dispose()
    {
        foreach (var place in _idle) place.Dispose();
    }

    internal sealed class Place : IDisposable
    {
        public TempFolder Pictures { get; } = new();
        public TestServer Server { get; }
        private readonly Lazy<Browser> _browser = new(() => new());

        public Browser Browser => _browser.Value;

        public Place() => Server = new("--pictures", Pictures.Path);

        public void Dispose()
        {
            if (_browser.IsValueCreated) Browser.Dispose();
            Server.Dispose();
            Pictures.Dispose();
        }
    }
}

/// <summary>What the tests of a class use, one test after the other.</summary>
public sealed class Workplace(Workplaces all) : IDisposable
{
    private readonly Workplaces.Place _place = all.Take();

    /// <summary>The folder from which the server may link pictures.</summary>
    public TempFolder Pictures => _place.Pictures;

    public TestServer Server => _place.Server;

    public Browser Browser => _place.Browser;

    /// <summary>Leaves nothing of the last test behind among the pictures.</summary>
    public void Clear()
    {
        foreach (string folder in Directory.GetDirectories(Pictures.Path)) Directory.Delete(folder, recursive: true);
        foreach (string file in Directory.GetFiles(Pictures.Path)) File.Delete(file);
    }

    public void Dispose() => all.Leave(_place);
}

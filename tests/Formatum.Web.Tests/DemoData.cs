[assembly: AssemblyFixture(typeof(Formatum.Web.Tests.DemoData))]

namespace Formatum.Web.Tests;

/// <summary>The demo publications, whose pictures are drawn once for all tests that want them.</summary>
public sealed class DemoData : IDisposable
{
    private readonly Lazy<TestServer> _drawn = new(() =>
    {
        var server = new TestServer("--demo", "true");
        server.End();
        return server;
    });

    /// <summary>A server with the demo publications as they were made.</summary>
    public TestServer Server() => _drawn.Value.Copy();

    public void Dispose()
    {
        if (_drawn.IsValueCreated) _drawn.Value.Dispose();
    }
}

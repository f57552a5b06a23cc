using System.Net;
using System.Net.Sockets;

namespace Formatum.Testing;

/// <summary>A line to a server that takes its time each way, and may be cut: what is sent over it arrives in order, so much later.</summary>
public sealed class SlowLine : IDisposable
{
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private readonly CancellationTokenSource _ends = new();
    private readonly Uri _server;
    private readonly List<TcpClient> _open = [];

    /// <summary>How long each way takes.</summary>
    public TimeSpan Delay { get; set; }

    /// <summary>Where the server is reached over this line.</summary>
    public string Address { get; }

    /// <param name="server">The server's own address.</param>
    /// <param name="thereAndBack">How long it takes there and back.</param>
    public SlowLine(string server, TimeSpan thereAndBack)
    {
        (_server, Delay) = (new(server), thereAndBack / 2);
        _listener.Start();
        Address = $"http://{_server.Host}:{((IPEndPoint)_listener.LocalEndpoint).Port}";
        _ = TakeAsync();
    }

    /// <summary>Ends all that is under way.</summary>
    public void Cut()
    {
        lock (_open)
        {
            foreach (var client in _open) client.Dispose();
            _open.Clear();
        }
    }

    private async Task TakeAsync()
    {
        try
        {
            while (true) _ = JoinAsync(await _listener.AcceptTcpClientAsync(_ends.Token));
        }
        catch (Exception e) when (e is OperationCanceledException or SocketException or ObjectDisposedException)
        {
            // The line is taken away.
        }
    }

    private async Task JoinAsync(TcpClient near)
    {
        var far = new TcpClient { NoDelay = true };
        near.NoDelay = true;
        lock (_open) _open.AddRange([near, far]);
        try
        {
            await far.ConnectAsync(_server.Host, _server.Port, _ends.Token);
            await Task.WhenAny(CarryAsync(near.GetStream(), far.GetStream()), CarryAsync(far.GetStream(), near.GetStream()));
        }
        catch (Exception e) when (IsEnd(e))
        {
            // One side is gone, and the other with it.
        }
        finally
        {
            near.Dispose();
            far.Dispose();
            lock (_open) _open.RemoveAll(c => c == near || c == far);
        }
    }

    /// <summary>What is read is passed on when its time has come, while more is read.</summary>
    private async Task CarryAsync(NetworkStream from, NetworkStream to)
    {
        var last = Task.CompletedTask;
        byte[] buffer = new byte[65536];
        for (int read; (read = await from.ReadAsync(buffer, _ends.Token)) > 0;)
            last = PassAsync(last, Task.Delay(Delay, _ends.Token), to, buffer[..read]);
        await last;
    }

    private async Task PassAsync(Task before, Task time, NetworkStream to, byte[] bytes)
    {
        await before;
        await time;
        await to.WriteAsync(bytes, _ends.Token);
    }

    private static bool IsEnd(Exception e) => e is IOException or SocketException or ObjectDisposedException or OperationCanceledException;

    public void Dispose()
    {
        _ends.Cancel();
        _listener.Dispose();
        Cut();
        _ends.Dispose();
    }
}

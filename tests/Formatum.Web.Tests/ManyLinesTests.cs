using System.Net;

namespace Formatum.Web.Tests;

/// <summary>More lines to the server than any browser has.</summary>
public sealed class ManyLinesTests
{
    [Fact]
    public async Task Lines_from_one_address_are_bounded_and_those_that_are_left_make_room()
    {
        using var server = new TestServer();
        int id = await server.NewPublicationAsync();
        var lines = new List<HttpResponseMessage>();
        HttpStatusCode last = HttpStatusCode.OK;
        while (last == HttpStatusCode.OK && lines.Count < 1000)
        {
            var line = await server.Client.GetAsync($"/events?of={id}", HttpCompletionOption.ResponseHeadersRead);
            last = line.StatusCode;
            lines.Add(line);
        }
        last.ShouldBe(HttpStatusCode.ServiceUnavailable);
        lines[^1].Headers.RetryAfter.ShouldNotBeNull();
        foreach (var line in lines) line.Dispose();
        Formatum.Testing.Browser.Until(() =>
        {
            using var again = server.Client.GetAsync($"/events?of={id}", HttpCompletionOption.ResponseHeadersRead).Result;
            return again.StatusCode == HttpStatusCode.OK;
        }, "there is room again");
    }
}

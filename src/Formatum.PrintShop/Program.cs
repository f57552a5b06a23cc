using System.Globalization;
using System.Net;
using Formatum.PrintShop;
using Microsoft.AspNetCore.Http.Features;

// A stand-in for a print shop: takes a ticket and a file, and answers whether it would print them. It listens on this machine alone.
const int UsualPort = 5481, Refused = 2;
const long MostBytes = 4L << 30;

string? Option(string name) => Array.IndexOf(args, "--" + name) is >= 0 and var i && i + 1 < args.Length ? args[i + 1] : null;
double Number(string name, double usual)
{
    if (Option(name) is not { } text) return usual;
    if (double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out double number) && number >= 0) return number;
    Console.Error.WriteLine($"--{name} {text}: give a number.");
    Environment.Exit(Refused);
    return usual;
}

var demands = new Demands(Number("least-ppi", new Demands().LeastPpi), Number("wanted-ppi", new Demands().WantedPpi),
    Number("bleed-mm", new Demands().Bleed / Demands.Millimetre) * Demands.Millimetre);
var builder = WebApplication.CreateSlimBuilder();
builder.Logging.SetMinimumLevel(LogLevel.Warning);
builder.WebHost.ConfigureKestrel(kestrel =>
{
    kestrel.Listen(IPAddress.Loopback, (int)Number("port", UsualPort));
    kestrel.Limits.MaxRequestBodySize = MostBytes;
});
builder.Services.Configure<FormOptions>(form => form.MultipartBodyLengthLimit = MostBytes);
builder.Services.AddSingleton(new JobBook(demands));
await using var app = builder.Build();
app.MapGet("/", (JobBook jobs) => Results.Content(jobs.Page(), "text/html; charset=utf-8"));
app.MapGet("/health", () => "ok");
app.MapPost("/jobs", async (HttpRequest request, JobBook jobs) =>
{
    if (!request.HasFormContentType) return Answered(new(false, "", ["Send the ticket and the file as parts of a form."], []));
    var form = await request.ReadFormAsync();
    if (form.Files["ticket"] is not { } ticket || form.Files["file"] is not { } file)
        return Answered(new(false, "", ["A job is two parts of a form: ticket and file. Send both."], []));
    await using var asked = ticket.OpenReadStream();
    await using var sent = file.OpenReadStream();
    return Answered(jobs.Take(asked, sent));
});
try
{
    await app.StartAsync();
}
catch (IOException e)
{
    Console.Error.WriteLine($"The print shop stand-in cannot listen: {e.Message} Choose another port with --port.");
    return Refused;
}
Console.WriteLine($"The print shop stand-in is ready: {app.Urls.First()}");
await app.WaitForShutdownAsync();
return 0;

static IResult Answered(JobAnswer answer) => Results.Json(answer, statusCode: answer.Accepted ? 200 : 422);

using System.Text.Json;
using System.Text.Json.Serialization;
using Formatum.Demo;
using Formatum.Imaging;
using Formatum.Storage;
using Formatum.Web.Api;
using Formatum.Web.Desk;
using Formatum.Web.Hosting;
using Formatum.Web.Links;
using Formatum.Web.Pictures;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.HostFiltering;
using Microsoft.AspNetCore.Mvc.ApplicationModels;
using Serilog;

var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = args, ContentRootPath = AppContext.BaseDirectory });
ServerOptions options;
try
{
    options = ServerOptions.From(builder.Configuration);
    Directory.CreateDirectory(options.DataFolder);
}
catch (Exception e) when (e is ArgumentException or IOException or UnauthorizedAccessException)
{
    Console.Error.WriteLine(e.Message);
    return 2;
}

builder.Host.UseSerilog((_, log) => log.MinimumLevel.Warning()
    .MinimumLevel.Override("Microsoft.AspNetCore.DataProtection", Serilog.Events.LogEventLevel.Error)
    .MinimumLevel.Override("Microsoft.AspNetCore.Diagnostics", Serilog.Events.LogEventLevel.Fatal)
    .WriteTo.Console(formatProvider: System.Globalization.CultureInfo.InvariantCulture));
builder.WebHost.UseStaticWebAssets();
builder.WebHost.ConfigureKestrel(kestrel =>
{
    kestrel.Listen(options.Listen, options.Port);
    kestrel.AddServerHeader = false;
});
builder.Services.Configure<HostFilteringOptions>(hosts => hosts.AllowedHosts = ["localhost", "127.0.0.1", "[::1]", options.Listen.ToString(),
    .. options.Hosts]);
builder.Services.AddDataProtection().SetApplicationName("Formatum").PersistKeysToFileSystem(new DirectoryInfo(options.KeyFolder));
builder.Services.AddSingleton(options);
builder.Services.AddSingleton(options.Limits);
builder.Services.AddSingleton(new PreviewStore(options.PreviewFolder));
builder.Services.AddSingleton<PictureReader>();
builder.Services.AddSingleton<SubjectFinder>();
builder.Services.AddSingleton<PictureIntake>();
builder.Services.AddSingleton<BundleIntake>();
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton(_ => new PublicationStore(options.DatabaseFile));
builder.Services.AddSingleton<ChangeEvents>();
builder.Services.AddSingleton<LinkStates>();
builder.Services.AddSingleton<LinkUpdates>();
builder.Services.AddHostedService<LinkWatch>();
builder.Services.AddSingleton<TableShelf>();
builder.Services.AddSingleton<CopiedFrames>();
builder.Services.AddSingleton<PreviewMaker>();
builder.Services.AddSingleton<ShelfCards>();
builder.Services.AddSingleton<Modules>();
builder.Services.AddSingleton<ImportJobs>();
builder.Services.AddHostedService(services => services.GetRequiredService<ImportJobs>());
builder.Services.AddRazorPages(pages => pages.Conventions.AddPageRoute("/Setup", "/publications/{id:int}/setup"))
    .AddJsonOptions(json => DeskJson.Set(json.JsonSerializerOptions));
builder.Services.AddAntiforgery(antiforgery => antiforgery.HeaderName = "RequestVerificationToken");
builder.Services.ConfigureHttpJsonOptions(json =>
{
    json.SerializerOptions.PropertyNamingPolicy = JsonNamingPolicy.CamelCase;
    // Null, or nothing, where something has to be is told like any other value that does not belong.
    json.SerializerOptions.RespectNullableAnnotations = true;
    json.SerializerOptions.RespectRequiredConstructorParameters = true;
    json.SerializerOptions.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false));
});
// What cannot be read is told by our own problem details, in every environment.
builder.Services.Configure<RouteHandlerOptions>(routes => routes.ThrowOnBadRequest = true);
builder.Services.AddExceptionHandler<Problems>();
builder.Services.AddProblemDetails();
builder.Services.AddOpenApi("v1", ApiDescription.Configure);

var app = builder.Build();
var modules = app.Services.GetRequiredService<Modules>();
app.UseExceptionHandler();
app.UseHostFiltering();
app.UseMiddleware<SameSite>();
app.Use(async (context, next) =>
{
    context.Response.Headers.XContentTypeOptions = "nosniff";
    context.Response.Headers.ContentSecurityPolicy = $"default-src 'self'; script-src 'self' {modules.MapHash}; connect-src 'self'; img-src 'self' data: " +
        $"blob:; font-src 'self' data:; style-src 'self' 'unsafe-inline'; frame-ancestors 'none'; form-action 'self'; base-uri 'none'";
    context.Response.Headers["Referrer-Policy"] = "same-origin";
    await next(context);
});
app.UseMakers();
app.UseStatusCodePages();
app.UseStaticFiles(CachedFiles.Options);
app.UseWebSockets();
app.MapRazorPages();
app.MapOpenApi();
ApiEndpoints.Map(app);
OutputEndpoints.Map(app);
HandLine.Map(app);
app.MapMakers();
app.MapGet("/publications/{id:int}/events", async (int id, PublicationStore store, ChangeEvents events, CancellationToken cancel) =>
{
    var standing = await store.OpenAsync(id);
    return TypedResults.ServerSentEvents(events.Of(id, standing.Revision, cancel));
}).ExcludeFromDescription();

if (options.Demo)
{
    Console.WriteLine("Looking for the demo publications; drawing their pictures takes a little while the first time ...");
    await DemoMaker.MakeAsync(app.Services.GetRequiredService<PublicationStore>(), app.Services.GetRequiredService<PictureReader>(),
        Path.Combine(options.DataFolder, "demo-pictures"));
}
try
{
    await app.StartAsync();
}
catch (IOException e)
{
    Console.Error.WriteLine($"Cannot listen on port {options.Port}: {e.Message} Choose another with --port.");
    return 1;
}
Console.WriteLine($"Formatum is ready: {app.Urls.First()}");
await app.WaitForShutdownAsync();
return 0;

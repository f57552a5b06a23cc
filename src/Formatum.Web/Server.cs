using System.Globalization;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using Formatum.Demo;
using Formatum.Documents;
using Formatum.Imaging;
using Formatum.Imaging.Apart;
using Formatum.Output;
using Formatum.Output.Fonts;
using Formatum.Storage;
using Formatum.Web.Api;
using Formatum.Web.Checking;
using Formatum.Web.Comparing;
using Formatum.Web.Desk;
using Formatum.Web.Fonts;
using Formatum.Web.Hosting;
using Formatum.Web.Links;
using Formatum.Web.Outputs;
using Formatum.Web.Pictures;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.HostFiltering;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.Mvc.ApplicationModels;
using Serilog;
using Serilog.Events;

namespace Formatum.Web;

/// <summary>The server, from its start to its end.</summary>
internal static class Server
{
    /// <summary>How long work under way may take to be put aside when the server is told to end.</summary>
    private static readonly TimeSpan Ending = TimeSpan.FromSeconds(8);

    public static string Version
    {
        get;
    } = typeof(Server).Assembly.GetCustomAttribute<AssemblyInformationalVersionAttribute>()!.InformationalVersion.Split('+')[0];

    /// <exception cref="StartRefused">It cannot start; nothing was changed.</exception>
    public static async Task RunAsync(ServerOptions options)
    {
        using var folder = DataFolder.Take(options.DataFolder, $"the server on port {options.Port}");
        var store = new PublicationStore(options.DatabaseFile, say: Console.WriteLine);
        using var fonts = Typefaces.All.LookIn(new(options.FontFolder));
        await using var app = Build(options, store);
        Use(app, options);
        if (options.Demo)
        {
            Console.WriteLine("Looking for the demo publications; drawing their pictures takes a little while the first time ...");
            await DemoMaker.MakeAsync(store, new PictureReader(options.Limits, new(options.PreviewFolder)), Path.Combine(options.DataFolder, "demo-pictures"));
        }
        try
        {
            await app.StartAsync();
        }
        catch (IOException e)
        {
            throw new StartRefused($"Cannot listen on port {options.Port}: {e.Message} Choose another with --port.", e);
        }
        if (!System.Net.IPAddress.IsLoopback(options.Listen))
            Console.WriteLine("Warning: others can reach this server (--open), and whoever does may read and change everything: nobody signs in yet.");
        Console.WriteLine($"Formatum {Version} keeps everything in {options.DataFolder}.");
        // An address that means all of this machine's is none that a browser can open.
        Console.WriteLine($"Formatum is ready: {app.Urls.First().Replace("0.0.0.0", "127.0.0.1", StringComparison.Ordinal)
            .Replace("[::]", "[::1]", StringComparison.Ordinal)}");
        await app.WaitForShutdownAsync();
    }

    internal static WebApplication Build(ServerOptions options, PublicationStore store)
    {
        var builder = WebApplication.CreateBuilder(new WebApplicationOptions { ContentRootPath = AppContext.BaseDirectory });
        builder.Host.UseSerilog((_, log) => Logging(log, options));
        builder.Host.ConfigureHostOptions(host => host.ShutdownTimeout = Ending);
        builder.WebHost.UseStaticWebAssets();
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.Listen(options.Listen, options.Port);
            kestrel.AddServerHeader = false;
        });
        AddHosting(builder.Services, options);
        builder.Services.AddSingleton(store);
        AddWork(builder.Services, options);
        builder.Services.AddRazorPages(pages => pages.Conventions.AddPageRoute("/Setup", "/publications/{id:int}/setup"))
            .AddJsonOptions(json => DeskJson.Set(json.JsonSerializerOptions));
        builder.Services.ConfigureHttpJsonOptions(json => ReadStrictly(json.SerializerOptions));
        // What cannot be read is told by our own problem details, in every environment.
        builder.Services.Configure<RouteHandlerOptions>(routes => routes.ThrowOnBadRequest = true);
        builder.Services.AddExceptionHandler<Problems>();
        builder.Services.AddProblemDetails();
        builder.Services.AddOpenApi("v1", ApiDescription.Configure);
        return builder.Build();
    }

    private static void Logging(LoggerConfiguration log, ServerOptions options) => log.MinimumLevel.Warning()
        .MinimumLevel.Override("Microsoft.AspNetCore.DataProtection", LogEventLevel.Error)
        .MinimumLevel.Override("Microsoft.AspNetCore.Diagnostics", LogEventLevel.Fatal)
        // Why it cannot start is told in a sentence.
        .Filter.ByExcluding(said => said.MessageTemplate.Text == "Hosting failed to start")
        .WriteTo.Console(formatProvider: CultureInfo.InvariantCulture)
        .WriteTo.File(Path.Combine(options.LogFolder, "formatum-.log"), formatProvider: CultureInfo.InvariantCulture, rollingInterval: RollingInterval.Day,
            fileSizeLimitBytes: 10 << 20, rollOnFileSizeLimit: true, retainedFileCountLimit: 14);

    private static void AddHosting(IServiceCollection services, ServerOptions options)
    {
        services.Configure<HostFilteringOptions>(hosts => hosts.AllowedHosts = options.Hosts);
        services.Configure<ForwardedHeadersOptions>(forwarded =>
        {
            forwarded.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
            forwarded.KnownProxies.Clear();
            forwarded.KnownIPNetworks.Clear();
            foreach (var proxy in options.Proxies) forwarded.KnownProxies.Add(proxy);
        });
        services.AddDataProtection().SetApplicationName("Formatum").PersistKeysToFileSystem(new DirectoryInfo(options.KeyFolder));
        services.AddAntiforgery(antiforgery => antiforgery.HeaderName = "RequestVerificationToken");
        services.AddSingleton(options);
        services.AddSingleton(TimeProvider.System);
        services.AddSingleton<HeavyWork>();
        services.AddSingleton<DiskRoom>();
        services.AddSingleton<ChangeEvents>();
        services.AddSingleton<Activity>();
        services.AddSingleton<Modules>();
    }

    private static void AddWork(IServiceCollection services, ServerOptions options)
    {
        services.AddSingleton(options.Limits);
        services.AddSingleton(new PreviewStore(options.PreviewFolder));
        services.AddSingleton<PicturePixels>();
        services.AddSingleton(new ReadersApart(options.Limits, options.PreviewFolder, options.IncomingFolder, OwnProgram(), Environment.ProcessorCount));
        services.AddSingleton(new FontStore(options.FontFolder));
        services.AddSingleton(new FontsApart(options.IncomingFolder, OwnProgram()));
        services.AddSingleton<FontIntake>();
        services.AddSingleton(new ProfileStore(options.ProfileFolder));
        services.AddSingleton<ProfileIntake>();
        services.AddSingleton<RecipeShelf>();
        services.AddSingleton<PressViews>();
        services.AddSingleton<OutputJobs>();
        services.AddHostedService(provider => provider.GetRequiredService<OutputJobs>());
        services.AddSingleton<Handovers>();
        services.AddSingleton<SubjectFinder>();
        services.AddSingleton<ContourFinder>();
        services.AddSingleton<MainColours>();
        services.AddSingleton<PictureIntake>();
        services.AddSingleton<BundleIntake>();
        services.AddSingleton<UnusedFiles>();
        services.AddSingleton<LinkStates>();
        services.AddSingleton<LinkUpdates>();
        services.AddHostedService<LinkWatch>();
        services.AddSingleton<TableShelf>();
        services.AddSingleton<CopiedFrames>();
        services.AddSingleton<PreviewMaker>();
        services.AddSingleton<ShelfCards>();
        services.AddSingleton<InkMeasures>();
        services.AddSingleton<Checker>();
        services.AddHostedService<InkWatch>();
        services.AddSingleton<Mender>();
        services.AddSingleton<Reporter>();
        services.AddSingleton(_ => new PdfPagesApart(OwnProgram()));
        services.AddSingleton(_ => new DocumentsApart(OwnProgram()));
        services.AddSingleton<ComparedFiles>();
        services.AddSingleton<FileComparer>();
        services.AddSingleton<ImportJobs>();
        services.AddHostedService(provider => provider.GetRequiredService<ImportJobs>());
    }

    /// <summary>How this program was started: by its own file, or by the runtime's.</summary>
    private static OwnProgram OwnProgram()
    {
        string self = Environment.ProcessPath!;
        return Path.GetFileNameWithoutExtension(self) == "dotnet" ? new(self, [typeof(Server).Assembly.Location]) : new(self, []);
    }

    private static void ReadStrictly(JsonSerializerOptions json)
    {
        json.PropertyNamingPolicy = JsonNamingPolicy.CamelCase;
        // Null, or nothing, where something has to be is told like any other value that does not belong.
        json.RespectNullableAnnotations = true;
        json.RespectRequiredConstructorParameters = true;
        // What is not known here would be lost without a word.
        json.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
        json.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false));
    }

    private static void Use(WebApplication app, ServerOptions options)
    {
        if (options.Proxies.Length > 0) app.UseForwardedHeaders();
        app.UseSecurityHeaders(app.Services.GetRequiredService<Modules>().MapHash);
        app.UseExceptionHandler();
        app.UseHostFiltering();
        app.UseMiddleware<SameSite>();
        app.UseMakers();
        app.UseStatusCodePages();
        app.UseStaticFiles(CachedFiles.Options);
        app.UseWebSockets();
        app.UseRouting();
        app.UseSizeLimit();
        app.MapRazorPages();
        HouseEndpoints.MapLibrary(app);
        app.MapOpenApi();
        ApiEndpoints.Map(app);
        OutputEndpoints.Map(app);
        FontEndpoints.MapFiles(app);
        HandLine.Map(app);
        app.MapMakers();
        ChangeEvents.Map(app);
    }
}

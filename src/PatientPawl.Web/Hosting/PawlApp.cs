using System.Net;
using System.Net.Sockets;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using PatientPawl.Core.Measuring;
using PatientPawl.Data;
using PatientPawl.Web.Demo;
using PatientPawl.Web.Identification;
using PatientPawl.Web.Jobs;
using PatientPawl.Web.Measuring;
using PatientPawl.Web.Pads;
using PatientPawl.Web.Photos;
using PatientPawl.Web.Retraction;
using PatientPawl.Web.Rotors;
using PatientPawl.Web.Shoes;
using PatientPawl.Web.Torque;
using PatientPawl.Web.Vehicles;
using PatientPawl.Web.Workshop;

namespace PatientPawl.Web.Hosting;

/// <summary>Builds and runs the server.</summary>
public static class PawlApp
{
    public static WebApplication Build(StartOptions options, string[] args)
    {
        ArgumentNullException.ThrowIfNull(options);
        // The built front end lies beside the program, wherever it was started from.
        var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = [], ApplicationName = typeof(PawlApp).Assembly.GetName().Name, ContentRootPath = AppContext.BaseDirectory });
        builder.WebHost.ConfigureKestrel(k =>
        {
            k.AddServerHeader = false;
            k.Limits.MaxRequestBodySize = 8 * 1024 * 1024;
            if (options.Listen is not { } address) k.Listen(IPAddress.Loopback, options.Port);
            else if (options.BehindProxy is not null) k.Listen(address, options.Port);
            else if (options.Certificate is { } own) k.Listen(address, options.Port, l => l.UseHttps(Certificates.Own(own)));
            else
            {
                var certificates = new Certificates(options.DataFolder, TimeProvider.System);
                k.Listen(address, options.Port, l => l.UseHttps(h => h.ServerCertificateSelector = (_, _) => certificates.Serving(address)));
            }
        });
        builder.Logging.ClearProviders().AddSimpleConsole(c => c.SingleLine = true).SetMinimumLevel(LogLevel.Warning);
        Services(builder.Services, options);
        var app = builder.Build();
        Pipeline(app, options);
        return app;
    }

    public static async Task<int> RunAsync(WebApplication app, StartOptions options, TextWriter output, TextWriter errors)
    {
        ArgumentNullException.ThrowIfNull(app);
        ArgumentNullException.ThrowIfNull(options);
        try
        {
            if (Backups.PutBack(options.DataFolder, TimeProvider.System.GetLocalNow()) is { } back) await output.WriteLineAsync(back);
            Prepare(app.Services, options);
            await app.StartAsync();
        }
        catch (FolderException e)
        {
            await errors.WriteLineAsync($"patient-pawl: {e.Message}");
            return 1;
        }
        catch (IOException e) when (e.InnerException is Microsoft.AspNetCore.Connections.AddressInUseException or SocketException)
        {
            await errors.WriteLineAsync($"patient-pawl: port {options.Port} is in use. Choose another with --port.");
            return 1;
        }

        if (options.Demo) app.Services.GetRequiredService<Electric.CarHost>().Start();
        foreach (var at in options.Addresses) await output.WriteLineAsync($"Patient Pawl is at {at} (data in {options.DataFolder}). Ctrl+C stops it.");
        if (options is { Listen: not null, Certificate: null, BehindProxy: null }) await output.WriteLineAsync("Other devices: open /join there once, and trust the workshop's root.");
        await app.WaitForShutdownAsync();
        return 0;
    }

    /// <summary>Seals what is older than seals and, in an empty workshop, puts in the demo. What takes longer is done while it listens.</summary>
    public static void Prepare(IServiceProvider services, StartOptions options)
    {
        ArgumentNullException.ThrowIfNull(options);
        var events = services.GetRequiredService<EventStore>();
        events.SealWhatIsOlder();
        if (options.Demo) services.GetRequiredService<DemoWorkshop>().FillWhenEmpty();
    }

    public static void Services(IServiceCollection services, StartOptions options)
    {
        ArgumentNullException.ThrowIfNull(options);
        services.AddSingleton(options);
        services.AddSingleton(TimeProvider.System);
        services.AddSingleton(_ => new Database(options.DataFolder));
        services.AddSingleton(_ => new Seals(options.DataFolder));
        services.AddSingleton(_ => new Heads(options.DataFolder));
        services.AddSingleton<JobChanges>();
        services.AddSingleton<EventStore>();
        services.AddSingleton<Data.Photos>();
        services.AddSingleton<JobFiles>();
        services.AddSingleton<LaidReady>();
        services.AddSingleton<JobViews>();
        services.AddSingleton<StartChecks>();
        services.AddHostedService(s => s.GetRequiredService<StartChecks>());
        services.AddHostedService<DailyBackup>();
        services.AddSingleton<Library>();
        services.AddSingleton<DemoWorkshop>();
        services.AddSingleton<SignIn>();
        services.AddSingleton<DevicePeople>();
        services.AddSingleton<Gauges>();
        services.AddSingleton<Electric.CarHost>();
        services.AddSingleton<Electric.CarSession>();
        services.AddSingleton<Electric.ElectricRuns>();
        services.AddSingleton<IPasswordHasher<Technician>, PasswordHasher<Technician>>();
        services.AddScoped<JobCommands>();
        services.AddScoped(s => new ToolBoard(s.GetRequiredService<Library>().Instruments(), DateOnly.FromDateTime(s.GetRequiredService<TimeProvider>().GetLocalNow().DateTime)));
        services.ConfigureHttpJsonOptions(o => PawlJson.Configure(o.SerializerOptions));
        services.Configure<RouteHandlerOptions>(o => o.ThrowOnBadRequest = true);
        services.AddProblemDetails();
        // No answer holds both a secret and what a stranger can put into it: cookies are SameSite=Strict, and other origins read nothing.
        services.AddResponseCompression(o => o.EnableForHttps = true);
        services.AddExceptionHandler<ProblemHandler>();
        services.AddOpenApi("v1", ApiDocument.Configure);
        services.AddDataProtection().PersistKeysToFileSystem(new(Path.Combine(options.DataFolder, "keys"))).SetApplicationName("patient-pawl");
        services.AddAuthorization();
        services.AddAuthentication(CookieAuthenticationDefaults.AuthenticationScheme).AddCookie(o =>
        {
            // Off loopback it is HTTPS, here or at the proxy: then no other name and no other scheme can set or take it.
            var secure = options.Listen is not null || options.BehindProxy is not null;
            o.Cookie.Name = secure ? "__Host-pawl" : "pawl";
            o.Cookie.Path = "/";
            o.Cookie.HttpOnly = true;
            o.Cookie.SecurePolicy = secure ? CookieSecurePolicy.Always : CookieSecurePolicy.SameAsRequest;
            o.Cookie.SameSite = SameSiteMode.Strict;
            o.ExpireTimeSpan = TimeSpan.FromHours(12);
            o.SlidingExpiration = true;
            o.Events.OnValidatePrincipal = c =>
            {
                var library = c.HttpContext.RequestServices.GetRequiredService<Library>();
                if (!library.SessionStands(c.Principal?.FindFirst(SignInEndpoints.SessionClaim)?.Value, c.Principal?.FindFirst(System.Security.Claims.ClaimTypes.NameIdentifier)?.Value)) c.RejectPrincipal();
                return Task.CompletedTask;
            };
            o.Events.OnRedirectToLogin = c => Problems.Write(c.HttpContext, StatusCodes.Status401Unauthorized, "Sign in first.");
            o.Events.OnRedirectToAccessDenied = c => Problems.Write(c.HttpContext, StatusCodes.Status403Forbidden, "The lead does this.");
        });
        // The framework makes its own format after this program's options: it is taken up then.
        services.PostConfigureAll<CookieAuthenticationOptions>(o => o.TicketDataFormat = new KnownTickets(o.TicketDataFormat));
    }

    public static void Pipeline(WebApplication app, StartOptions options)
    {
        ArgumentNullException.ThrowIfNull(app);
        ArgumentNullException.ThrowIfNull(options);
        if (options.BehindProxy is { } proxy)
        {
            var forwarded = new ForwardedHeadersOptions { ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto | ForwardedHeaders.XForwardedHost, ForwardLimit = 1 };
            forwarded.KnownIPNetworks.Clear();
            forwarded.KnownProxies.Clear();
            forwarded.KnownProxies.Add(proxy);
            app.UseForwardedHeaders(forwarded);
        }

        // HSTS only with a certificate that does not change with the machine: on a self-made one it would lock people out.
        if (options.Certificate is not null) app.Use((context, next) =>
        {
            context.Response.Headers.StrictTransportSecurity = "max-age=31536000";
            return next(context);
        });
        app.UseResponseCompression();
        app.UseExceptionHandler();
        app.UseStatusCodePages();
        app.Use((context, next) => SameOrigin(context, next, options));
        app.UseAuthentication();
        app.UseAuthorization();
        app.MapOpenApi();
        if (options is { Listen: not null, Certificate: null, BehindProxy: null }) app.MapJoin(options);
        app.MapGet("/healthz", () => TypedResults.Text("ok")).ExcludeFromDescription();

        var api = app.MapGroup("/api");
        api.MapSignIn();
        api.MapWorkshop();
        api.MapBackups();
        api.MapVehicles();
        api.MapIdentification();
        api.MapRetraction();
        Hydraulics.FluidEndpoints.MapFluid(api);
        api.MapShoes();
        api.MapRotors();
        api.MapPads();
        Proving.ProvingEndpoints.MapProving(api);
        Vehicles.FleetEndpoints.MapFleet(api);
        Documents.DocumentEndpoints.MapDocuments(api);
        api.MapMeasuring();
        Electric.ElectricEndpoints.MapElectric(api);
        api.MapTorque();
        api.MapJobs();
        Practice.PracticeEndpoints.MapPractice(api);
        api.MapPhotos();
        // Unknown API paths are a 404, never the page.
        api.Map("/{**rest}", (HttpContext c) => Problems.Write(c, StatusCodes.Status404NotFound, "There is nothing at this address.")).ExcludeFromDescription();

        if (Directory.Exists(Path.Combine(AppContext.BaseDirectory, "wwwroot"))) app.MapPages();
    }

    /// <summary>
    /// Beside SameSite=Strict cookies: a write from another origin is refused outright, and the answer may load nothing
    /// from elsewhere.
    /// </summary>
    private static Task SameOrigin(HttpContext context, RequestDelegate next, StartOptions options)
    {
        context.Response.Headers.ContentSecurityPolicy = "default-src 'self'; img-src 'self' data:; style-src 'self' 'unsafe-inline'; frame-ancestors 'none'; base-uri 'self'; form-action 'self'";
        context.Response.Headers.XContentTypeOptions = "nosniff";
        context.Response.Headers["Referrer-Policy"] = "no-referrer";
        var request = context.Request;
        // A name that points here from elsewhere is not this server's: its pages could read what only this page may.
        if (!options.Answers(request.Host.Host))
            return Problems.Write(context, StatusCodes.Status421MisdirectedRequest, "This server does not answer to that name.");
        // What people wrote is not kept by a browser that somebody else opens next.
        if (request.Path.StartsWithSegments("/api", StringComparison.Ordinal)) context.Response.Headers.CacheControl = "no-store";
        var safe = HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method) || HttpMethods.IsOptions(request.Method);
        var origin = request.Headers.Origin.ToString();
        if (!safe && origin.Length > 0 && !string.Equals(origin, $"{request.Scheme}://{request.Host}", StringComparison.OrdinalIgnoreCase))
            return Problems.Write(context, StatusCodes.Status403Forbidden, "Writes come from this page only.");
        return next(context);
    }
}

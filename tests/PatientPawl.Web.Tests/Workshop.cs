using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Dapper;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;
using PatientPawl.Data;
using PatientPawl.Web.Hosting;

namespace PatientPawl.Web.Tests;

/// <summary>A demo workshop that the tests of a class share: filling one takes seconds.</summary>
public sealed class DemoShop : IAsyncLifetime
{
    public Workshop Shop { get; private set; } = null!;

    public async Task InitializeAsync() => Shop = await Workshop.Open();

    public async Task DisposeAsync() => await Shop.DisposeAsync();
}

/// <summary>A running workshop with a database of its own, thrown away at the end.</summary>
public sealed class Workshop : IAsyncDisposable
{
    private readonly WebApplication _app;

    private Workshop(WebApplication app, string folder, HttpClient client)
    {
        _app = app;
        Folder = folder;
        Client = client;
    }

    public string Folder { get; }
    public HttpClient Client { get; }
    public IServiceProvider Services => _app.Services;

    // The demo is driven through every rule, which takes seconds: it is made once and each workshop starts from a copy of its files.
    private static readonly Lazy<string> Filled = new(() =>
    {
        var folder = Directory.CreateTempSubdirectory("pawl-demo").FullName;
        var options = new StartOptions(0, folder, true);
        using var app = (IDisposable)PawlApp.Build(options, []);
        PawlApp.Prepare(((WebApplication)app).Services, options);
        return folder;
    });

    /// <summary>Puts the demo workshop's files into a folder.</summary>
    public static void Fill(string folder)
    {
        foreach (var file in Directory.GetFiles(Filled.Value)) File.Copy(file, Path.Combine(folder, Path.GetFileName(file)));
    }

    public static async Task<Workshop> Open(bool demo = true, string? folder = null, bool copied = true, Func<StartOptions, StartOptions>? options = null)
    {
        folder ??= Directory.CreateTempSubdirectory("pawl").FullName;
        Directory.CreateDirectory(folder);
        if (demo && copied && Directory.GetFileSystemEntries(folder).Length == 0) Fill(folder);
        var with = options?.Invoke(new(0, folder, demo)) ?? new StartOptions(0, folder, demo);
        var app = PawlApp.Build(with, []);
        PawlApp.Prepare(app.Services, with);
        await app.StartAsync();
        var url = app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First();
        return new(app, folder, new HttpClient(new SocketsHttpHandler { CookieContainer = new CookieContainer(), SslOptions = { RemoteCertificateValidationCallback = (_, _, _, _) => with.Listen is not null } }) { BaseAddress = new Uri(url) });
    }

    public HttpClient Another() => new(new SocketsHttpHandler { CookieContainer = new CookieContainer() }) { BaseAddress = Client.BaseAddress };

    public async Task<JsonNode> SignIn(string name = "Kit Ransome", HttpClient? client = null)
    {
        client ??= Client;
        var session = await client.GetFromJsonAsync<JsonNode>("/api/session");
        var who = session!["technicians"]!.AsArray().First(t => t!["name"]!.ToString() == name)!;
        var answer = await client.PostAsJsonAsync("/api/session", new { technicianId = who["id"]!.ToString(), pin = "2580" });
        answer.EnsureSuccessStatusCode();
        return who;
    }

    public async Task<string> JobInBay(int bay)
    {
        var board = await Client.GetFromJsonAsync<JsonNode>("/api/board");
        return board!.AsArray().First(b => (int)b!["bay"]! == bay)!["jobId"]!.ToString();
    }

    public async Task<JsonNode> Job(string id) => (await Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}"))!;

    public async Task<string> NewJob(string plate = "GNT 077", int bay = 40, HttpClient? client = null)
    {
        client ??= Client;
        var known = (await client.GetFromJsonAsync<JsonNode>("/api/vehicles"))!.AsArray().First(v => v!["vehicle"]!["plate"]!.ToString() == plate)!;
        var id = Guid.NewGuid().ToString();
        var body = Command(0, ("jobId", id), ("bay", bay), ("sheetCode", known["sheetCode"]!.ToString()), ("odometerKm", 10), ("complaint", "test"), ("scope", "pads"), ("anyway", true));
        body["vehicle"] = known["vehicle"]!.DeepClone();
        (await client.PostAsJsonAsync("/api/jobs", body)).EnsureSuccessStatusCode();
        return id;
    }

    public static JsonObject Command(int version, params (string Key, JsonNode? Value)[] more)
    {
        var body = new JsonObject { ["eventId"] = Guid.NewGuid().ToString(), ["expectedVersion"] = version, ["occurredAt"] = "2026-11-25T09:00:00+00:00" };
        foreach (var (key, value) in more) body[key] = value;
        return body;
    }

    public static JsonObject Look(int version, string look = "cabin-control", string seen = "hand-lever") => Command(version, ("side", "left"), ("look", look), ("seen", seen));

    public static async Task<JsonNode> Problem(HttpResponseMessage answer)
    {
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        var text = await answer.Content.ReadAsStringAsync();
        text.ShouldNotContain("   at ");
        text.ShouldNotContain("Exception");
        return JsonNode.Parse(text)!;
    }

    /// <summary>A copy of the workshop's files as they stand: what another start finds.</summary>
    public string Kept()
    {
        Services.GetRequiredService<Heads>().Flush();
        using (var connection = Services.GetRequiredService<Database>().Open()) connection.Execute("pragma wal_checkpoint(truncate)");
        var folder = Directory.CreateTempSubdirectory("pawl").FullName;
        foreach (var file in Directory.GetFiles(Folder).Where(f => !f.EndsWith(".lock", StringComparison.Ordinal)))
            File.Copy(file, Path.Combine(folder, Path.GetFileName(file)));
        return folder;
    }

    /// <summary>Somebody with the database and not with this program.</summary>
    public static void PastTheProgram(string folder, params string[] sql)
    {
        using var connection = new SqliteConnection($"Data Source={Path.Combine(folder, "patient-pawl.db")};Pooling=False");
        connection.Open();
        foreach (var line in (string[])["drop trigger if exists job_event_no_update", "drop trigger if exists job_event_no_delete", .. sql]) connection.Execute(line);
    }

    public static string Repository
    {
        get
        {
            var at = new DirectoryInfo(AppContext.BaseDirectory);
            while (at is not null && !File.Exists(Path.Combine(at.FullName, "PatientPawl.slnx"))) at = at.Parent;
            return at?.FullName ?? throw new DirectoryNotFoundException("The repository's root was not found.");
        }
    }

    public async ValueTask DisposeAsync()
    {
        Client.Dispose();
        await _app.DisposeAsync();
        try
        {
            Directory.Delete(Folder, true);
        }
        catch (IOException)
        {
            // Somebody else still holds the folder: it lies in the temporary directory anyway.
        }
    }
}

using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Dapper;
using Microsoft.Data.Sqlite;

namespace PatientPawl.Bench.Workshop;

/// <summary>The least that could answer the same: bytes from memory, and a row put into SQLite with the same promises (WAL, FULL, one writer).</summary>
internal static class Bare
{
    public static async Task Run(int port, string folder, string file)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.ConfigureKestrel(k => k.Listen(IPAddress.Loopback, port));
        var app = builder.Build();
        var bytes = await File.ReadAllBytesAsync(file);
        var source = new SqliteConnectionStringBuilder { DataSource = Path.Combine(folder, "bare.db"), DefaultTimeout = 10 }.ToString();
        using (var made = Open(source)) made.Execute("pragma journal_mode = wal; create table if not exists row(id text primary key, content blob not null) strict");
        using var writer = new SemaphoreSlim(1, 1);
        app.MapGet("/view", () => TypedResults.Bytes(bytes, "application/json"));
        app.MapPost("/insert", async (HttpRequest request) =>
        {
            var body = (await JsonNode.ParseAsync(request.Body))!;
            await writer.WaitAsync();
            try
            {
                using var c = Open(source);
                using var t = c.BeginTransaction(deferred: false);
                c.Execute("insert into row(id, content) values(@id, @content)", new { id = body["eventId"]!.ToString(), content = Encoding.UTF8.GetBytes(body.ToJsonString()) }, t);
                t.Commit();
            }
            finally
            {
                writer.Release();
            }

            return TypedResults.Ok(new { stored = true });
        });
        await app.RunAsync();
    }

    private static SqliteConnection Open(string source)
    {
        var c = new SqliteConnection(source);
        c.Open();
        c.Execute("pragma synchronous = full");
        return c;
    }
}

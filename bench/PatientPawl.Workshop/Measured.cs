using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using Dapper;

namespace PatientPawl.Bench.Workshop;

/// <summary>Starts what is measured, loads it, and prints the figures.</summary>
internal static class Measured
{
    private sealed record Running(Process Process, HttpClient Client, TimeSpan Start) : IDisposable
    {
        public long Megabytes
        {
            get
            {
                Process.Refresh();
                return Process.WorkingSet64 / 1024 / 1024;
            }
        }

        public double ProcessorSeconds
        {
            get
            {
                Process.Refresh();
                return Process.TotalProcessorTime.TotalSeconds;
            }
        }

        public void Dispose()
        {
            Process.Kill(entireProcessTree: true);
            Process.WaitForExit();
            Client.Dispose();
        }
    }

    public static async Task All(string product)
    {
        var folder = Directory.CreateTempSubdirectory("pawl-bench").FullName;
        using (var first = await Product(product, folder))
        {
            Say("demo filled, first start", first.Start.TotalSeconds, "s");
            await SignIn(first.Client);
            // A card is made when a list first shows it.
            await first.Client.GetStringAsync("/api/jobs/past");
        }

        Filling.To(folder, 100);
        var few = await Lists(product, folder, "100 jobs");
        Filling.To(folder, 10_000);
        Say("the database of 10 000 jobs", new FileInfo(Path.Combine(folder, "patient-pawl.db")).Length / 1048576.0, "MB");
        var many = await Lists(product, folder, "10 000 jobs");
        foreach (var (name, ms) in many) Say($"{name}: 10 000 over 100", ms / few[name], "(at most 1.5)");
        await Ratios(product, folder);
    }

    public static Task Beside(string product) => Ratios(product, Directory.CreateTempSubdirectory("pawl-bench").FullName);

    /// <summary>Reads and writes beside a bare Kestrel, in turns, so that both meet the same machine.</summary>
    private static async Task Ratios(string product, string folder)
    {
        using var app = await Product(product, folder);
        await SignIn(app.Client);
        var job = (await app.Client.GetFromJsonAsync<JsonNode>("/api/board"))!.AsArray().First(c => c!["status"]!.ToString() == "in-hand")!["jobId"]!.ToString();
        var answer = await app.Client.GetAsync($"/api/jobs/{job}");
        var file = Path.Combine(folder, "view.json");
        await File.WriteAllBytesAsync(file, await answer.Content.ReadAsByteArrayAsync());
        using var bare = await BareOne(folder, file);
        var etag = answer.Headers.ETag!.ToString();
        var (whole, same, least, write, raw) = (new List<double>(), new List<double>(), new List<double>(), new List<double>(), new List<double>());
        // Both are measured as they run all day, not while they are still being compiled.
        await Together(8, TimeSpan.FromSeconds(5), () => Post(bare.Client, "/insert"));
        await Together(8, TimeSpan.FromSeconds(30), () => Post(app.Client, $"/api/jobs/{job}/star-wheel"));
        // Eight people at eight cars; and all eight at one of them.
        var cars = await Task.WhenAll(Enumerable.Range(0, 8).Select(i => Open(app.Client, 40 + i)));
        var (next, alone) = (0, new List<double>());
        Task<HttpStatusCode> InTurn() => Post(app.Client, $"/api/jobs/{cars[(Interlocked.Increment(ref next) & int.MaxValue) % cars.Length]}/star-wheel");
        // A machine that lends its processors elsewhere moves what is done in a second, and hardly what one costs.
        var (rawCost, writeCost) = (new List<double>(), new List<double>());
        for (var round = 0; round < 4; round++)
        {
            least.Add(await PerSecond(() => Get(bare.Client, "/view", null)));
            whole.Add(await PerSecond(() => Get(app.Client, $"/api/jobs/{job}", null)));
            same.Add(await PerSecond(() => Get(app.Client, $"/api/jobs/{job}", etag)));
            raw.Add(await PerSecond(() => Post(bare.Client, "/insert"), bare, rawCost));
            write.Add(await PerSecond(InTurn, app, writeCost));
            alone.Add(await PerSecond(() => Post(app.Client, $"/api/jobs/{job}/star-wheel")));
        }

        Say("bare Kestrel, the same bytes", Median(least), "a second");
        Say("job view, cached bytes", Median(whole), "a second");
        Say("job view over bare", Median(whole) / Median(least), "(at least 0.5)");
        Say("job view, not changed", Median(same), "a second");
        Say("not changed over bare", Median(same) / Median(least), "(at least 0.5)");
        Say("bare Kestrel, raw insert", Median(raw), "a second");
        Say("append", Median(write), "a second");
        Say("append over raw insert", Median(write) / Median(raw), "(at least 0.7)");
        Say("append over raw insert, all at one job", Median(alone) / Median(raw), "");
        Say("bare Kestrel, raw insert: processor", Median(rawCost), "µs each");
        Say("append: processor", Median(writeCost), "µs each");
        Say("memory after it", app.Megabytes, "MB (under 250)");
    }

    public static async Task Crowd(string product, int seconds)
    {
        var folder = Directory.CreateTempSubdirectory("pawl-bench").FullName;
        using var app = await Product(product, folder);
        await SignIn(app.Client);
        var job = (await app.Client.GetFromJsonAsync<JsonNode>("/api/board"))!.AsArray().First(c => c!["status"]!.ToString() == "in-hand")!["jobId"]!.ToString();
        var before = (int)(await app.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{job}"))!["version"]!;
        var (times, bad, ok) = await Together(50, TimeSpan.FromSeconds(seconds), () => Post(app.Client, $"/api/jobs/{job}/star-wheel"));
        var after = (int)(await app.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{job}"))!["version"]!;
        Say("50 people on one job: appended", ok, $"in {seconds} s");
        Say("5xx", bad, "(0)");
        Say("lost or doubled", after - before - ok, "(0)");
        Say("append, 99th of a hundred", Percentile(times, 0.99), "ms");
        var file = Path.Combine(folder, "view.json");
        await File.WriteAllTextAsync(file, "{}");
        using var bare = await BareOne(folder, file);
        var (raw, _, _) = await Together(50, TimeSpan.FromSeconds(Math.Min(seconds, 30)), () => Post(bare.Client, "/insert"));
        Say("bare insert, 99th of a hundred", Percentile(raw, 0.99), "ms");
        Say("append over bare, 99th", Percentile(times, 0.99) / Percentile(raw, 0.99), "(at most 3)");
    }

    private static async Task<Dictionary<string, double>> Lists(string product, string folder, string name)
    {
        using var app = await Product(product, folder);
        Say($"{name}: started", app.Start.TotalSeconds, "s (under 5 s at 10 000)");
        await SignIn(app.Client);
        using var c = new SqliteConnection($"Data Source={Path.Combine(folder, "patient-pawl.db")};Pooling=False;Mode=ReadOnly");
        var finished = c.Query<string>("select id from job where finished = 1 order by number limit 60 offset 5").ToArray();
        var plates = c.Query<string>("select distinct plate from job where finished = 1 order by number limit 40 offset 20").ToArray();
        // What is read through after the start is let through first: it is what a workshop waits for once a day, not what its lists cost.
        var reading = Stopwatch.StartNew();
        while ((await app.Client.GetFromJsonAsync<JsonNode>("/api/workshop/logs"))!["at"] is null) await Task.Delay(250);
        Say($"{name}: every log read through after", reading.Elapsed.TotalSeconds, "s");
        var times = new Dictionary<string, double>
        {
            ["board"] = await Time(200, i => Get(app.Client, "/api/board", null)),
            ["opening a job never opened"] = await Time(finished.Length, i => Get(app.Client, $"/api/jobs/{finished[i]}", null)),
            ["search"] = await Time(200, i => Get(app.Client, "/api/jobs/past?search=old%20" + (i % 9 + 1), null)),
            ["the fleet"] = await Time(40, i => Get(app.Client, "/api/fleet", null)),
            ["what comes due"] = await Time(40, i => Get(app.Client, "/api/reminders", null)),
            ["a vehicle"] = await Time(plates.Length, i => Get(app.Client, $"/api/vehicles/{Uri.EscapeDataString(plates[i])}/story", null)),
            ["what finished jobs teach"] = await Time(40, i => Get(app.Client, "/api/workshop/lessons", null)),
            ["past jobs, first page"] = await Time(200, i => Get(app.Client, "/api/jobs/past", null)),
        };
        foreach (var (what, ms) in times) Say($"{name}: {what}", ms, "ms, median");
        Say($"{name}: memory", app.Megabytes, "MB (under 250)");
        return times;
    }

    private static async Task<double> Time(int times, Func<int, Task<HttpStatusCode>> what)
    {
        List<double> all = [];
        for (var i = 0; i < times; i++)
        {
            var one = Stopwatch.StartNew();
            if (await what(i) != HttpStatusCode.OK) throw new InvalidOperationException("not answered");
            all.Add(one.Elapsed.TotalMilliseconds);
        }

        return Median(all);
    }

    private static async Task<double> PerSecond(Func<Task<HttpStatusCode>> what, Running? server = null, List<double>? microseconds = null)
    {
        await Together(8, TimeSpan.FromSeconds(1), what);
        var clock = Stopwatch.StartNew();
        var before = server?.ProcessorSeconds;
        var (_, bad, ok) = await Together(8, TimeSpan.FromSeconds(4), what);
        if (bad > 0) throw new InvalidOperationException($"{bad} failed");
        if (before is { } b) microseconds!.Add((server!.ProcessorSeconds - b) / ok * 1e6);
        return ok / clock.Elapsed.TotalSeconds;
    }

    private static async Task<(List<double> Ms, int Bad, int Ok)> Together(int people, TimeSpan time, Func<Task<HttpStatusCode>> what)
    {
        var until = Stopwatch.StartNew();
        var all = await Task.WhenAll(Enumerable.Range(0, people).Select(_ => Task.Run(async () =>
        {
            List<double> ms = [];
            var bad = 0;
            while (until.Elapsed < time)
            {
                var one = Stopwatch.StartNew();
                if ((int)await what() >= 400) bad++;
                else ms.Add(one.Elapsed.TotalMilliseconds);
            }

            return (ms, bad);
        })));
        var times = all.SelectMany(a => a.ms).ToList();
        return (times, all.Sum(a => a.bad), times.Count);
    }

    private static async Task<HttpStatusCode> Get(HttpClient client, string path, string? known)
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, path);
        if (known is not null) request.Headers.TryAddWithoutValidation("If-None-Match", known);
        using var answer = await client.SendAsync(request);
        await answer.Content.ReadAsByteArrayAsync();
        return answer.StatusCode;
    }

    private static async Task<HttpStatusCode> Post(HttpClient client, string path)
    {
        var body = new JsonObject { ["eventId"] = Guid.NewGuid().ToString(), ["occurredAt"] = DateTimeOffset.Now.ToString("O"), ["side"] = "left", ["loosens"] = "up", ["holeAt"] = 6 };
        using var answer = await client.PostAsJsonAsync(path, body);
        return answer.StatusCode;
    }

    private static async Task<string> Open(HttpClient client, int bay)
    {
        var known = (await client.GetFromJsonAsync<JsonNode>("/api/vehicles"))!.AsArray().First(v => v!["vehicle"]!["plate"]!.ToString() == "GNT 077")!;
        var id = Guid.NewGuid().ToString();
        var body = new
        {
            eventId = Guid.NewGuid(),
            expectedVersion = 0,
            occurredAt = DateTimeOffset.Now,
            jobId = id,
            bay,
            vehicle = known["vehicle"],
            sheetCode = known["sheetCode"],
            odometerKm = 10,
            anyway = true,
            complaint = "bench",
            scope = "pads",
        };
        (await client.PostAsJsonAsync("/api/jobs", body)).EnsureSuccessStatusCode();
        return id;
    }

    private static async Task SignIn(HttpClient client)
    {
        var session = await client.GetFromJsonAsync<JsonNode>("/api/session");
        var lead = session!["technicians"]!.AsArray().First(t => (bool)t!["isLead"]!)!["id"]!.ToString();
        (await client.PostAsJsonAsync("/api/session", new { technicianId = lead, pin = "2580" })).EnsureSuccessStatusCode();
    }

    private static Task<Running> Product(string dll, string folder) => Start("/healthz", port => [dll, "--port", port, "--data", folder]);

    private static Task<Running> BareOne(string folder, string file) => Start("/view", port => [typeof(Measured).Assembly.Location, "bare", port, folder, file]);

    private static async Task<Running> Start(string ready, Func<string, string[]> arguments)
    {
        using var free = new TcpListener(IPAddress.Loopback, 0);
        free.Start();
        var port = ((IPEndPoint)free.LocalEndpoint).Port.ToString(CultureInfo.InvariantCulture);
        free.Stop();
        var clock = Stopwatch.StartNew();
        var process = Process.Start(new ProcessStartInfo("dotnet", arguments(port)) { RedirectStandardOutput = true, RedirectStandardError = true, WorkingDirectory = Path.GetDirectoryName(arguments(port)[0]) })!;
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
        var client = new HttpClient(new SocketsHttpHandler { CookieContainer = new CookieContainer() }) { BaseAddress = new Uri($"http://127.0.0.1:{port}") };
        while (true)
        {
            try
            {
                if ((await client.GetAsync(ready)).IsSuccessStatusCode) return new(process, client, clock.Elapsed);
            }
            catch (HttpRequestException) when (!process.HasExited)
            {
                await Task.Delay(20);
            }
        }
    }

    private static double Median(IEnumerable<double> values) => Percentile([.. values], 0.5);

    private static double Percentile(List<double> values, double at)
    {
        values.Sort();
        return values.Count == 0 ? double.NaN : values[Math.Min((int)(values.Count * at), values.Count - 1)];
    }

    private static void Say(string what, double value, string unit) => Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{what,-46} {value,12:0.###} {unit}"));
}

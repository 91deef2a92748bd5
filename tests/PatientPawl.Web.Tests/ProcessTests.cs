using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text.Json.Nodes;

namespace PatientPawl.Web.Tests;

/// <summary>The server as a process: killed in the middle of work, started on a port in use, started twice.</summary>
public class ProcessTests
{
    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    private static Process Run(params string[] args)
    {
        var info = new ProcessStartInfo("dotnet") { RedirectStandardError = true, RedirectStandardOutput = true };
        info.ArgumentList.Add(Path.Combine(AppContext.BaseDirectory, "PatientPawl.Web.dll"));
        foreach (var arg in args) info.ArgumentList.Add(arg);
        return Process.Start(info)!;
    }

    private static async Task<HttpClient> Ready(int port)
    {
        var client = new HttpClient(new SocketsHttpHandler { CookieContainer = new CookieContainer() }) { BaseAddress = new Uri($"http://127.0.0.1:{port}"), Timeout = TimeSpan.FromSeconds(20) };
        for (var i = 0; i < 300; i++)
        {
            try
            {
                if ((await client.GetAsync("/healthz")).IsSuccessStatusCode) return client;
            }
            catch (HttpRequestException)
            {
                // Not listening yet.
            }

            await Task.Delay(200);
        }

        throw new TimeoutException("The server did not come up.");
    }

    // PAWL_KILLS kills it as often as is asked: five hundred by hand, twenty in the usual run.
    private static readonly int Kills = int.TryParse(Environment.GetEnvironmentVariable("PAWL_KILLS"), out var asked) ? asked : 20;

    [Fact]
    public async Task Killed_in_the_middle_of_work_again_and_again_it_has_every_acknowledged_click_once_and_its_chain_whole()
    {
        // Four people write at once, each on a car of their own: what is stored together is killed together.
        const int People = 4;
        var random = new Random(20261128);
        var folder = Directory.CreateTempSubdirectory("pawl").FullName;
        var port = FreePort();
        var acknowledged = Enumerable.Range(0, People).Select(_ => new List<string>()).ToArray();
        string[]? ids = null;
        for (var round = 0; round < Kills; round++)
        {
            using var server = Run("--port", port.ToString(), "--data", folder);
            using var client = await Ready(port);
            var session = await client.GetFromJsonAsync<JsonNode>("/api/session");
            var lead = session!["technicians"]!.AsArray().First(t => (bool)t!["isLead"]!)!["id"]!.ToString();
            (await client.PostAsJsonAsync("/api/session", new { technicianId = lead, pin = "2580" })).EnsureSuccessStatusCode();
            ids ??= [.. (await client.GetFromJsonAsync<JsonNode>("/api/board"))!.AsArray().Take(People).Select(card => card!["jobId"]!.ToString())];

            // Kill -9 comes from another thread, wherever the writer happens to be; on a slow machine too each has written something by then.
            var number = round;
            var written = ids.Select(_ => new TaskCompletionSource()).ToArray();
            var after = TimeSpan.FromMilliseconds(random.Next(400));
            var killer = Task.WhenAll(written.Select(w => w.Task)).ContinueWith(async _ =>
            {
                await Task.Delay(after);
                server.Kill(entireProcessTree: true);
            }).Unwrap();
            await Task.WhenAll(ids.Select((id, who) => WriteUntilItIsGone(client, id, number, acknowledged[who], written[who])));
            await killer;
            await server.WaitForExitAsync();
        }

        await using var shop = await Workshop.Open(folder: folder);
        await shop.SignIn();
        foreach (var (id, told) in ids!.Zip(acknowledged))
        {
            told.Count.ShouldBeGreaterThan(2 * Kills - 1);
            var file = JsonNode.Parse(await shop.Client.GetStringAsync($"/api/jobs/{id}/file"))!["events"]!.AsArray();
            var notes = file.Select(e => e!["content"]!["event"]!["text"]?.ToString()).OfType<string>().Where(t => t.StartsWith("round ", StringComparison.Ordinal)).ToList();
            told.Except(notes).ShouldBeEmpty();
            // At most the one click in flight at each kill may be there unacknowledged, and none is there twice.
            notes.Except(told).Count().ShouldBeLessThanOrEqualTo(Kills);
            notes.ShouldBeUnique();
            (await shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/verified"))!["firstWrong"].ShouldBeNull();
            file.Select(e => (int)e!["content"]!["seq"]!).ShouldBe(Enumerable.Range(1, file.Count));
        }
    }

    private static async Task WriteUntilItIsGone(HttpClient client, string id, int round, List<string> acknowledged, TaskCompletionSource written)
    {
        try
        {
            for (var i = 0; ; i++)
            {
                var version = (int)(await client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}"))!["version"]!;
                var text = $"round {round} note {i}";
                var answer = await client.PostAsJsonAsync($"/api/jobs/{id}/notes", Workshop.Command(version, ("text", text)));
                if (answer.IsSuccessStatusCode) acknowledged.Add(text);
                if (i >= 2) written.TrySetResult();
            }
        }
        catch (Exception e) when (e is HttpRequestException or IOException or TaskCanceledException or System.Text.Json.JsonException)
        {
            // The server is gone.
            written.TrySetResult();
        }
    }

    [Theory]
    [InlineData("/api/sources")]
    [InlineData("/api/workshop/house-rules")]
    [InlineData("/api/board")]
    [InlineData("/api/jobs/JOB")]
    [InlineData("/api/catalogue")]
    public async Task After_a_restart_any_of_the_planners_questions_may_be_the_first(string first)
    {
        // Data of an earlier run, so that nothing is driven through the rules before the question is asked.
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.JobInBay(6);
        var folder = Directory.CreateTempSubdirectory("pawl").FullName;
        foreach (var file in Directory.GetFiles(shop.Folder).Where(f => !f.EndsWith(".lock", StringComparison.Ordinal))) File.Copy(file, Path.Combine(folder, Path.GetFileName(file)));
        var port = FreePort();
        using var server = Run("--port", port.ToString(), "--data", folder);
        try
        {
            using var client = await Ready(port);
            await shop.SignIn(client: client);
            (await client.GetAsync(first.Replace("JOB", id))).StatusCode.ShouldBe(HttpStatusCode.OK);
            (await client.GetAsync($"/api/jobs/{id}/overnight")).StatusCode.ShouldBe(HttpStatusCode.OK);
        }
        finally
        {
            server.Kill(entireProcessTree: true);
        }
    }

    [Fact]
    public async Task A_port_in_use_is_one_clear_line_and_a_bad_exit_code()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        var port = ((IPEndPoint)listener.LocalEndpoint).Port;
        using var server = Run("--port", port.ToString(), "--no-demo", "--data", Directory.CreateTempSubdirectory("pawl").FullName);
        var said = await server.StandardError.ReadToEndAsync();
        await server.WaitForExitAsync();
        server.ExitCode.ShouldNotBe(0);
        said.Trim().Split('\n').Last().ShouldBe($"patient-pawl: port {port} is in use. Choose another with --port.");
    }

    [Fact]
    public async Task An_option_it_does_not_know_is_one_clear_line()
    {
        using var server = Run("--prot", "1");
        (await server.StandardError.ReadToEndAsync()).Trim().ShouldBe("patient-pawl: '--prot' is not understood. Use --port 1..65535, --data DIR, --no-demo, --listen ADDRESS, --certificate FILE, --behind-proxy ADDRESS, --car HOST:PORT, --car-speed 0.1..100, --verify, --backup FILE, --restore FILE.");
        await server.WaitForExitAsync();
        server.ExitCode.ShouldBe(2);
    }

    [Fact]
    public async Task Demo_data_goes_only_into_a_workshop_with_nobody_and_nothing_in_it()
    {
        var folder = Directory.CreateTempSubdirectory("pawl").FullName;
        await using (var own = await Workshop.Open(demo: false, folder))
        {
            (await own.Client.PostAsJsonAsync("/api/workshop/first-lead", new { workshop = "Own", name = "Una Pike", pin = "4711" })).EnsureSuccessStatusCode();
            var options = new Hosting.StartOptions(0, folder, true);
            Hosting.PawlApp.Prepare(own.Services, options);
            (await own.Client.GetStringAsync("/api/board")).ShouldBe("[]");
            (await own.Client.GetStringAsync("/api/session")).ShouldNotContain("Gannet");
        }
    }
}

using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace PatientPawl.Web.Tests;

/// <summary>The server killed in the middle of work: by itself, for it takes as long as all other tests of the process together.</summary>
public class KilledTests
{
    // PAWL_KILLS kills it as often as is asked: five hundred by hand, twenty in the usual run.
    private static readonly int Kills = int.TryParse(Environment.GetEnvironmentVariable("PAWL_KILLS"), out var asked) ? asked : 20;

    [Fact]
    public async Task Killed_in_the_middle_of_work_again_and_again_it_has_every_acknowledged_click_once_and_its_chain_whole()
    {
        // Four people write at once, each on a car of their own: what is stored together is killed together.
        const int People = 4;
        var random = new Random(20261128);
        var folder = Directory.CreateTempSubdirectory("pawl").FullName;
        Workshop.Fill(folder);
        var port = ServerProcess.FreePort();
        var acknowledged = Enumerable.Range(0, People).Select(_ => new List<string>()).ToArray();
        string[]? ids = null;
        // They signed in once: who was signed in still is when the server comes back.
        var cookies = new CookieContainer();
        for (var round = 0; round < Kills; round++)
        {
            using var server = ServerProcess.Run("--port", port.ToString(), "--data", folder);
            using var client = await ServerProcess.Ready(port, cookies);
            ids ??= await JobsOfTheSignedIn(client, People);

            // Kill -9 comes from another thread, wherever the writer happens to be; on a slow machine too each has written something by then.
            var number = round;
            var written = ids.Select(_ => new TaskCompletionSource()).ToArray();
            var after = TimeSpan.FromMilliseconds(random.Next(100));
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

    /// <summary>Signs in as the lead, and says which jobs are written on.</summary>
    private static async Task<string[]> JobsOfTheSignedIn(HttpClient client, int jobs)
    {
        var session = await client.GetFromJsonAsync<JsonNode>("/api/session");
        var lead = session!["technicians"]!.AsArray().First(t => (bool)t!["isLead"]!)!["id"]!.ToString();
        (await client.PostAsJsonAsync("/api/session", new { technicianId = lead, pin = "2580" })).EnsureSuccessStatusCode();
        return [.. (await client.GetFromJsonAsync<JsonNode>("/api/board"))!.AsArray().Take(jobs).Select(card => card!["jobId"]!.ToString())];
    }

    private static async Task WriteUntilItIsGone(HttpClient client, string id, int round, List<string> acknowledged, TaskCompletionSource written)
    {
        try
        {
            var check = (await client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/verified"))!;
            check["firstWrong"].ShouldBeNull($"round {round}: {check["says"]}");
            var version = (int)check["events"]!;
            for (var i = 0; ; i++)
            {
                var text = $"round {round} note {i}";
                var answer = await client.PostAsJsonAsync($"/api/jobs/{id}/notes", Workshop.Command(version, ("text", text)));
                answer.IsSuccessStatusCode.ShouldBeTrue($"{text}: {answer.StatusCode}");
                version = (int)(await answer.Content.ReadFromJsonAsync<JsonNode>())!["version"]!;
                acknowledged.Add(text);
                if (i >= 2) written.TrySetResult();
            }
        }
        catch (Exception e) when (e is HttpRequestException or IOException or TaskCanceledException or System.Text.Json.JsonException)
        {
            // The server is gone.
            written.TrySetResult();
        }
    }
}

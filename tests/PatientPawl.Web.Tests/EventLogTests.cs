using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Dapper;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Microsoft.Data.Sqlite;
using PatientPawl.Data;

namespace PatientPawl.Web.Tests;

public class EventLogTests
{
    [Fact]
    public async Task The_same_command_twice_is_added_once_and_answered_alike_even_when_stale()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.NewJob();
        var look = Workshop.Look(1);
        var first = await (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/looks", look)).Content.ReadAsStringAsync();
        (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/looks", Workshop.Look(2, "brake-hose", "yes"))).EnsureSuccessStatusCode();
        var again = await (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/looks", look)).Content.ReadAsStringAsync();
        again.ShouldBe(first);
        ((int)(await shop.Job(id))["version"]!).ShouldBe(3);
    }

    [Fact]
    public async Task The_same_id_with_other_contents_is_refused()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.NewJob();
        var look = Workshop.Look(1);
        (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/looks", look)).EnsureSuccessStatusCode();
        look["seen"] = "foot-pedal";
        var answer = await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/looks", look);
        answer.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await Workshop.Problem(answer))["reason"]!.ToString().ShouldBe("reused-id");
    }

    [Fact]
    public async Task One_event_id_sent_for_many_jobs_at_once_is_stored_for_one_of_them()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var jobs = new List<string>();
        for (var bay = 50; bay < 56; bay++) jobs.Add(await shop.NewJob(bay: bay));
        var look = Workshop.Look(1);
        var answers = await Task.WhenAll(jobs.Select(id => shop.Client.PostAsJsonAsync($"/api/jobs/{id}/looks", look)));
        answers.Count(a => a.StatusCode == HttpStatusCode.OK).ShouldBe(1);
        foreach (var refused in answers.Where(a => a.StatusCode != HttpStatusCode.OK)) (await Workshop.Problem(refused))["reason"]!.ToString().ShouldBe("reused-id");
        var versions = await Task.WhenAll(jobs.Select(async id => (int)(await shop.Job(id))["version"]!));
        versions.Sum().ShouldBe(jobs.Count + 1);
    }

    [Fact]
    public async Task A_stale_version_is_told_what_has_happened_since()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.NewJob();
        (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/looks", Workshop.Look(1))).EnsureSuccessStatusCode();
        var answer = await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/looks", Workshop.Look(1, "brake-hose", "yes"));
        answer.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var problem = await Workshop.Problem(answer);
        ((int)problem["version"]!).ShouldBe(2);
        problem["since"]![0]!["by"]!.ToString().ShouldBe("Kit Ransome");
        problem["since"]![0]!["what"]!.ToString().ShouldContain("hand lever");
        ((int)(await shop.Job(id))["version"]!).ShouldBe(2);
    }

    /// <summary>A signature of the torque step that stands in bay 2, as its bench would send it.</summary>
    private static async Task<JsonObject> Signature(Workshop shop, string id, int index, int? version = null, string? after = null)
    {
        var job = await shop.Job(id);
        var now = job["sheet"]!["now"]!;
        now["torque"].ShouldNotBeNull();
        var side = now["step"]!["side"]?.ToString();
        var set = JsonNode.Parse(await (await shop.Client.PostAsJsonAsync("/api/bench/torque-line", new JsonObject { ["line"] = now["torque"]!.DeepClone(), ["wrenchId"] = null, ["crowfoot"] = null })).Content.ReadAsStringAsync())!;
        return Workshop.Command(version ?? (int)job["version"]!, ("stepId", now["step"]!["stepId"]!.ToString()), ("side", side), ("index", index), ("wrenchId", set["wrench"]!["id"]!.ToString()), ("crowfoot", null), ("unit", "nm"),
            ("enteredValue", null), ("enteredPerCorner", null), ("unverifiedReason", null), ("shownNm", (double)set["set"]!["onTheScaleNm"]!), ("after", after));
    }

    [Fact]
    public async Task What_was_done_without_network_names_the_one_before_it_in_place_of_a_version()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.JobInBay(2);
        var first = (int)(await shop.Job(id))["sheet"]!["now"]!["nextIndex"]!;
        var one = await Signature(shop, id, first);
        // Given before the first was answered: it knows no version, only what it comes after.
        var early = await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/torques", await Signature(shop, id, first, version: 1, after: one["eventId"]!.ToString()));
        (await Workshop.Problem(early))["title"]!.ToString().ShouldBe("What came before it was not recorded.");
        (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/torques", one)).EnsureSuccessStatusCode();
        var now = (await shop.Job(id))["sheet"]!["now"]!;
        now["torque"].ShouldBeNull();
        var two = Workshop.Command(1, ("stepId", now["step"]!["stepId"]!.ToString()), ("side", now["step"]!["side"]?.ToString()), ("readings", new JsonArray()), ("outcome", null), ("report", null), ("note", null),
            ("acknowledged", new JsonArray([.. now["cautions"]!.AsArray().Where(c => (bool)c!["mustAcknowledge"]!).Select(c => JsonValue.Create(c!["id"]!.ToString()))])), ("after", one["eventId"]!.ToString()));
        var answer = await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/steps", two);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        // And again, when the answer was lost on the way back.
        (await (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/steps", two)).Content.ReadAsStringAsync()).ShouldBe(await answer.Content.ReadAsStringAsync());
    }

    [Theory]
    [InlineData("notes", true)]
    [InlineData("other corner", true)]
    [InlineData("same corner", false)]
    public async Task A_stale_signature_may_follow_only_what_leaves_its_corner_alone(string happened, bool mayFollow)
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.JobInBay(2);
        var job = await shop.Job(id);
        var (version, first) = ((int)job["version"]!, (int)job["sheet"]!["now"]!["nextIndex"]!);
        var signature = await Signature(shop, id, first);
        var side = signature["side"]!.ToString();
        var at = happened == "same corner" ? side : side == "left" ? "right" : "left";
        (await (happened == "notes" ? shop.Client.PostAsJsonAsync($"/api/jobs/{id}/notes", Workshop.Command(version, ("text", "tyre worn")))
            : shop.Client.PostAsJsonAsync($"/api/jobs/{id}/readings", new JsonObject
            {
                ["eventId"] = Guid.NewGuid().ToString(),
                ["occurredAt"] = "2026-11-25T09:00:00+00:00",
                ["side"] = at,
                ["readings"] = new JsonArray(new JsonObject { ["id"] = Guid.NewGuid().ToString(), ["measurand"] = "pad-lining", ["place"] = "inner-leading", ["directionDeg"] = null, ["valueMm"] = 9.2, ["instrumentId"] = "depth-gauge", ["celsius"] = null, ["at"] = "2026-11-25T09:00:00+00:00" }),
            }))).EnsureSuccessStatusCode();
        var stale = await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/torques", signature);
        ((bool)(await Workshop.Problem(stale))["mayFollow"]!).ShouldBe(mayFollow);
    }

    [Fact]
    public async Task What_one_person_did_is_never_recorded_under_another_who_is_signed_in_when_it_is_sent()
    {
        await using var shop = await Workshop.Open();
        var ines = (await shop.SignIn("Ines Marrow"))["id"]!.ToString();
        await shop.SignIn();
        var id = await shop.NewJob();
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/jobs/{id}/notes") { Content = JsonContent.Create(Workshop.Command(1, ("text", "tyre worn"))) };
        request.Headers.Add("Pawl-Technician", ines);
        var problem = await Workshop.Problem(await shop.Client.SendAsync(request));
        problem["reason"]!.ToString().ShouldBe("another-person");
        ((int)(await shop.Job(id))["version"]!).ShouldBe(1);
    }

    [Fact]
    public async Task Five_people_writing_to_one_job_without_a_pause_are_never_failed_and_lose_nothing()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.NewJob();
        var answers = await Task.WhenAll(Enumerable.Range(0, 5).Select(async n =>
        {
            List<HttpStatusCode> codes = [];
            for (var i = 0; i < 30; i++)
            {
                var body = new JsonObject { ["eventId"] = Guid.NewGuid().ToString(), ["occurredAt"] = "2026-11-25T09:00:00+00:00", ["side"] = "left", ["loosens"] = "up", ["holeAt"] = 1 + i % 12 };
                codes.Add((await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/star-wheel", body)).StatusCode);
            }

            return codes;
        }));
        answers.SelectMany(a => a).ShouldAllBe(c => c == HttpStatusCode.OK);
        ((int)(await shop.Job(id))["version"]!).ShouldBe(1 + 5 * 30);
    }

    [Fact]
    public async Task Many_at_once_on_one_job_leave_an_unbroken_order()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.NewJob();
        // Each keeps trying until its note is in, as a client does.
        await Task.WhenAll(Enumerable.Range(0, 8).Select(async n =>
        {
            for (var sent = false; !sent;)
            {
                var version = (int)(await shop.Job(id))["version"]!;
                var answer = await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/notes", Workshop.Command(version, ("text", $"note {n}")));
                sent = answer.IsSuccessStatusCode;
            }
        }));
        var file = JsonNode.Parse(await shop.Client.GetStringAsync($"/api/jobs/{id}/file"))!["events"]!.AsArray();
        file.Select(e => (int)e!["content"]!["seq"]!).ShouldBe(Enumerable.Range(1, 9));
        file.Skip(1).Select(e => e!["content"]!["event"]!["text"]!.ToString()).Order().ShouldBe(Enumerable.Range(0, 8).Select(n => $"note {n}"));
    }

    [Fact]
    public async Task The_chain_holds_from_the_first_event_to_the_last()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var stored = shop.Services.GetRequiredService<EventStore>().Stored(Guid.Parse(await shop.JobInBay(6)));
        stored.Count.ShouldBeGreaterThan(60);
        var previous = "";
        foreach (var (content, hash) in stored)
        {
            EventStore.Chain(previous, content).ShouldBe(hash);
            previous = hash;
        }

        // SHA-256 of "abc", FIPS 180-4 example B.1, from memory: the chain is the ordinary function over the ordinary bytes.
        EventStore.Chain("", "abc"u8.ToArray()).ShouldBe("ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
        EventStore.Chain("a", "bc"u8.ToArray()).ShouldBe(EventStore.Chain("", "abc"u8.ToArray()));
    }

    [Fact]
    public async Task The_database_itself_refuses_to_change_or_forget_an_event()
    {
        await using var shop = await Workshop.Open();
        using var connection = shop.Services.GetRequiredService<Database>().Open();
        Should.Throw<SqliteException>(() => connection.Execute("update job_event set hash = 'x'")).Message.ShouldContain("only added");
        Should.Throw<SqliteException>(() => connection.Execute("delete from job_event")).Message.ShouldContain("only added");
        connection.ExecuteScalar<string>("pragma journal_mode").ShouldBe("wal");
        connection.ExecuteScalar<long>("pragma foreign_keys").ShouldBe(1);
    }

    [Fact]
    public async Task Projections_of_another_engine_version_are_rebuilt_at_start()
    {
        var folder = Directory.CreateTempSubdirectory("pawl").FullName;
        string before;
        await using (var shop = await Workshop.Open(folder: folder + "/a"))
        {
            await shop.SignIn();
            before = await shop.Client.GetStringAsync("/api/board");
            using var connection = shop.Services.GetRequiredService<Database>().Open();
            connection.Execute("update job set engine_version = '0'; update job_card set card_json = replace(card_json, 'Turnstone', 'Ghost')");
            (await shop.Client.GetStringAsync("/api/board")).ShouldContain("Ghost");
            Core.Jobs.JobState.Fold([]).Version.ShouldBe(0);
            shop.Services.GetRequiredService<EventStore>().RebuildStaleProjections();
            (await shop.Client.GetStringAsync("/api/board")).ShouldBe(before);
        }
    }

    [Fact]
    public async Task What_fails_on_our_side_is_logged_with_the_trace_id_that_the_page_shows()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var logged = new List<string>();
        shop.Services.GetRequiredService<ILoggerFactory>().AddProvider(new Listener(logged));
        await using (var database = new SqliteConnection($"Data Source={Path.Combine(shop.Folder, "patient-pawl.db")}"))
        {
            await database.OpenAsync();
            await database.ExecuteAsync("alter table wrench rename to lost");
        }

        var answer = await shop.Client.GetAsync("/api/workshop/wrenches");
        answer.StatusCode.ShouldBe(HttpStatusCode.InternalServerError);
        var trace = (await Workshop.Problem(answer))["traceId"]!.ToString();
        trace.Length.ShouldBeGreaterThan(5);
        string.Join("\n", logged).ShouldContain(trace);
        string.Join("\n", logged).ShouldContain("no such table");
    }

    private sealed class Listener(List<string> into) : ILoggerProvider, ILogger
    {
        public ILogger CreateLogger(string categoryName) => this;
        public IDisposable? BeginScope<TState>(TState state) where TState : notnull => null;
        public bool IsEnabled(LogLevel logLevel) => true;
        public void Dispose() { }

        public void Log<TState>(LogLevel logLevel, EventId eventId, TState state, Exception? exception, Func<TState, Exception?, string> formatter)
        {
            lock (into) into.Add($"{formatter(state, exception)} {exception}");
        }
    }
}

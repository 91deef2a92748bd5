using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Dapper;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;
using PatientPawl.Data;
using PatientPawl.Web.Hosting;

namespace PatientPawl.Web.Tests;

/// <summary>A workshop that has been going for years: its lists show what is asked for, nothing is read twice, and a shorter log is noticed.</summary>
public class GrowthTests
{
    /// <summary>Finished jobs put into the index only, each a copy of one that is there: what lists cost does not depend on their logs.</summary>
    private static void Behind(string folder, int count) => Workshop.PastTheProgram(folder, $"""
        with recursive n(i) as (values(1) union all select i + 1 from n where i < {count})
        insert into job(id, number, bay, version, finished, engine_version, plate)
        select lower(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-' || hex(randomblob(2)) || '-' || hex(randomblob(2)) || '-' || hex(randomblob(6))), 100000 + i, 1 + i % 9, 1, 1, engine_version,
          'OLD ' || i from job, n where number = 401
        """,
        """
        insert into job_card(job_id, version, card_json) select j.id, 1, json_set(c.card_json, '$.number', j.number, '$.jobId', j.id, '$.vehicle.plate', j.plate) from job j, job_card c
        where j.number > 100000 and c.job_id = (select id from job where number = 401)
        """,
        "insert into job_search(rowid, words) select number, number || ' ' || plate || ' Norrin Coble meals van' from job where number > 100000");

    private static async Task<JsonArray> Board(Workshop shop) => (await shop.Client.GetFromJsonAsync<JsonNode>("/api/board"))!.AsArray();

    [Fact]
    public async Task The_board_holds_what_is_open_what_came_last_in_a_bay_and_nothing_else()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var open = (await Board(shop)).Select(c => (int)c!["number"]!).ToArray();
        // A card is made when it is first asked for.
        (await shop.Client.GetAsync("/api/jobs/past")).EnsureSuccessStatusCode();
        Behind(shop.Folder, 3000);
        var board = await Board(shop);
        var numbers = board.Select(c => (int)c!["number"]!).ToArray();
        board.Where(c => c!["status"]!.ToString() != "finished").Select(c => (int)c!["number"]!).ShouldBe(open.Intersect(numbers.Where(n => n < 100_000)), ignoreOrder: true);
        // The newest in each of nine bays.
        numbers.Where(n => n > 100_000).Order().ShouldBe(Enumerable.Range(102_992, 9));
    }

    [Fact]
    public async Task Past_jobs_are_found_by_how_words_begin_a_page_at_a_time_and_an_odd_search_finds_nothing()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        // A card is made when it is first asked for.
        (await shop.Client.GetAsync("/api/jobs/past")).EnsureSuccessStatusCode();
        Behind(shop.Folder, 3000);
        async Task<(int[] Numbers, int? Before)> Find(string query)
        {
            var page = (await shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/past?{query}"))!;
            return ([.. page["jobs"]!.AsArray().Select(j => (int)j!["number"]!)], (int?)page["before"]);
        }

        (await Find("search=old%2077")).Numbers.ShouldBe([.. Enumerable.Range(770, 10).Reverse().Select(n => 100_000 + n), 100_077]);
        (await Find("search=cob%20MEALS")).Numbers[0].ShouldBe(103_000);
        // What stands between words does not matter.
        (await Find("search=OLD-770")).Numbers.ShouldBe([100_770]);
        (await Find("search=100077")).Numbers.ShouldBe([100_077]);
        var first = await Find("");
        (first.Numbers.Length, first.Before).ShouldBe((25, 102_976));
        (await Find($"before={first.Before}")).Numbers[0].ShouldBe(102_975);
        foreach (var odd in new[] { "%22%2A", "*", "zzz", "' or 1=1", "old AND NEAR(" }) (await Find($"search={Uri.EscapeDataString(odd)}")).Numbers.ShouldBeEmpty(odd);
    }

    [Fact]
    public async Task A_copy_is_found_among_past_jobs_and_stands_on_no_board()
    {
        await using var here = await Workshop.Open();
        await using var there = await Workshop.Open();
        await here.SignIn();
        await there.SignIn();
        var id = await there.NewJob("GNT 077", 39);
        var file = await there.Client.GetStringAsync($"/api/jobs/{id}/file");
        (await here.Client.PostAsync("/api/jobs/import", new StringContent(file, new MediaTypeHeaderValue("application/json")))).EnsureSuccessStatusCode();
        (await Board(here)).ShouldNotContain(c => c!["jobId"]!.ToString() == id);
        (await here.Client.GetFromJsonAsync<JsonNode>("/api/jobs/past?search=GNT%20077"))!["jobs"]!.AsArray().ShouldContain(c => c!["jobId"]!.ToString() == id);
    }

    [Fact]
    public async Task A_job_that_has_not_changed_is_answered_in_a_few_bytes_and_one_that_has_in_full()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.NewJob();
        async Task<HttpResponseMessage> Ask(EntityTagHeaderValue? known)
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, $"/api/jobs/{id}");
            if (known is not null) request.Headers.IfNoneMatch.Add(known);
            return await shop.Client.SendAsync(request);
        }

        var first = await Ask(null);
        var same = await Ask(first.Headers.ETag);
        (same.StatusCode, (await same.Content.ReadAsByteArrayAsync()).Length).ShouldBe((HttpStatusCode.NotModified, 0));
        (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/notes", Workshop.Command(1, ("text", "cap found loose")))).EnsureSuccessStatusCode();
        var changed = await Ask(first.Headers.ETag);
        changed.StatusCode.ShouldBe(HttpStatusCode.OK);
        changed.Headers.ETag.ShouldNotBe(first.Headers.ETag);
        ((int)JsonNode.Parse(await changed.Content.ReadAsStringAsync())!["version"]!).ShouldBe(2);
        (await shop.Another().GetAsync($"/api/jobs/{id}")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized, "what is kept is for those who are signed in");
    }

    [Fact]
    public async Task Answers_are_compressed_for_whoever_takes_it_and_a_job_is_under_25_kB_then()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        foreach (var bay in new[] { 1, 2, 3 })
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, $"/api/jobs/{await shop.JobInBay(bay)}");
            request.Headers.AcceptEncoding.ParseAdd("br");
            var answer = await shop.Client.SendAsync(request);
            answer.Content.Headers.ContentEncoding.ShouldBe(["br"]);
            (await answer.Content.ReadAsByteArrayAsync()).Length.ShouldBeLessThan(25_000);
        }
    }

    [Fact]
    public async Task Who_listens_is_told_of_each_change_as_it_is_stored_and_nobody_else_is()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.NewJob();
        (await shop.Another().GetAsync("/api/changes")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(20));
        using (var answer = await shop.Client.GetAsync("/api/changes", HttpCompletionOption.ResponseHeadersRead, patience.Token))
        {
            answer.Content.Headers.ContentType!.MediaType.ShouldBe("text/event-stream");
            using var reader = new StreamReader(await answer.Content.ReadAsStreamAsync(patience.Token));
            async Task<string> Next(string begins)
            {
                while (true)
                    if ((await reader.ReadLineAsync(patience.Token))! is var line && line.StartsWith(begins, StringComparison.Ordinal)) return line;
            }

            (await Next("event:")).ShouldBe("event: still");
            (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/notes", Workshop.Command(1, ("text", "one")), patience.Token)).EnsureSuccessStatusCode();
            (await Next("event: job")).ShouldNotBeNull();
            JsonNode.Parse((await Next("data:"))[5..])!.ToJsonString().ShouldBe($$"""{"jobId":"{{id}}","version":2}""");
        }

        // A refusal is no change, and who has gone is not kept.
        (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/notes", Workshop.Command(1, ("text", "late")))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var changes = shop.Services.GetRequiredService<JobChanges>();
        for (var i = 0; changes.Listeners > 0 && i < 100; i++) await Task.Delay(50);
        changes.Listeners.ShouldBe(0);
    }

    [Fact]
    public async Task A_log_that_is_cut_with_its_row_on_the_board_is_noticed_and_so_is_a_job_that_is_gone()
    {
        string folder, cut, gone;
        await using (var shop = await Workshop.Open())
        {
            await shop.SignIn();
            (cut, gone) = (await shop.NewJob(), await shop.NewJob("GNT 251", 41));
            (await shop.Client.PostAsJsonAsync($"/api/jobs/{cut}/notes", Workshop.Command(1, ("text", "one")))).EnsureSuccessStatusCode();
            folder = shop.Kept();
        }

        Workshop.PastTheProgram(folder, "pragma foreign_keys = off", $"delete from job_event where job_id = '{cut}' and seq > 1", $"update job set version = 1 where id = '{cut}'",
            $"delete from job_event where job_id = '{gone}'", $"delete from event_seal where job_id = '{gone}'", $"delete from job where id = '{gone}'");
        await File.AppendAllTextAsync(Path.Combine(folder, "heads"), "half a li");
        await using var again = await Workshop.Open(folder: folder, copied: false);
        await again.SignIn();
        var found = await Found(again);
        found.Select(w => w!["says"]!.ToString()).Order(StringComparer.Ordinal).ShouldBe(["A job is gone with its 1 event: it was taken out past this program.", "Event 2 and all after it, up to 2, are missing: the log was cut."]);
        (await again.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{cut}/verified"))!["firstWrong"]!.GetValue<int>().ShouldBe(2);
    }

    [Fact]
    public async Task A_job_that_is_damaged_before_its_card_was_made_takes_nobody_elses_place_on_the_board()
    {
        string folder, id;
        await using (var shop = await Workshop.Open())
        {
            await shop.SignIn();
            (id, folder) = (await shop.NewJob(), shop.Kept());
        }

        Workshop.PastTheProgram(folder, $"update job_event set content = x'7b22' where job_id = '{id}'");
        await using var again = await Workshop.Open(folder: folder, copied: false);
        await again.SignIn();
        var board = await Board(again);
        board.Count.ShouldBeGreaterThan(5);
        board.ShouldNotContain(c => c!["jobId"]!.ToString() == id);
        (await Found(again)).Single()!["jobId"]!.ToString().ShouldBe(id);
    }

    [Fact]
    public async Task Another_engine_brings_the_index_up_to_date_while_the_workshop_is_open()
    {
        string folder;
        await using (var shop = await Workshop.Open()) folder = shop.Kept();
        Workshop.PastTheProgram(folder, "update job set engine_version = 'older'", "update job_card set card_json = '{\"of\":\"another time\"}'");
        await using var again = await Workshop.Open(folder: folder, copied: false);
        await again.SignIn();
        // A card that cannot be read is made anew for whoever asks before its turn comes.
        (await Board(again)).Count.ShouldBeGreaterThan(5);
        (await Found(again)).ShouldBeEmpty();
        using var connection = new SqliteConnection($"Data Source={Path.Combine(folder, "patient-pawl.db")};Pooling=False");
        connection.Query<string>("select distinct engine_version from job").ShouldHaveSingleItem().ShouldNotBe("older");
        connection.ExecuteScalar<long>("select count(*) from job_card where card_json like '%another time%'").ShouldBe(0);
    }

    [Fact]
    public async Task The_record_prints_the_servers_time_and_the_senders_beside_it_only_where_they_differ()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.NewJob();
        async Task Note(int version, DateTimeOffset at)
        {
            var body = Workshop.Command(version, ("text", "looked"));
            body["occurredAt"] = at.ToString("O");
            (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/notes", body)).EnsureSuccessStatusCode();
        }

        await Note(1, new(2150, 1, 1, 8, 0, 0, TimeSpan.FromHours(1)));
        await Note(2, DateTimeOffset.UtcNow.AddMinutes(-4).ToOffset(TimeSpan.FromHours(2)));
        var log = (await shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/record"))!["log"]!.AsArray();
        DateTimeOffset.Parse(log[1]!["at"]!.ToString()).Year.ShouldBe(DateTime.UtcNow.Year);
        log[1]!["clientAt"]!.ToString().ShouldStartWith("2150-01-01T08:00:00");
        log[2]!["clientAt"].ShouldBeNull();
        log[2]!["at"]!.ToString().ShouldEndWith("+02:00");
    }

    private static async Task<JsonArray> Found(Workshop shop)
    {
        for (var i = 0; i < 200; i++)
        {
            var logs = (await shop.Client.GetFromJsonAsync<JsonNode>("/api/workshop/logs"))!;
            if (logs["at"] is not null) return logs["wrong"]!.AsArray();
            await Task.Delay(50);
        }

        throw new TimeoutException("the logs were not read through");
    }
}

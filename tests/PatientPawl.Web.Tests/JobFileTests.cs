using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using NJsonSchema;
using PatientPawl.Data;

namespace PatientPawl.Web.Tests;

public class JobFileTests
{
    private static StringContent Json(string text) => new(text, Encoding.UTF8, "application/json");

    private static async Task<Workshop> EmptyWorkshop()
    {
        var shop = await Workshop.Open(demo: false);
        (await shop.Client.PostAsJsonAsync("/api/workshop/first-lead", new { workshop = "Elsewhere", name = "Una Pike", pin = "4711" })).EnsureSuccessStatusCode();
        return shop;
    }

    private static async Task<string> Export(int bay, bool copied = true)
    {
        await using var shop = await Workshop.Open(copied: copied);
        await shop.SignIn();
        return await shop.Client.GetStringAsync($"/api/jobs/{await shop.JobInBay(bay)}/file");
    }

    /// <summary>What was read in: it stands among past jobs.</summary>
    private static async Task<JsonArray> Copies(Workshop shop) => (await shop.Client.GetFromJsonAsync<JsonNode>("/api/jobs/past"))!["jobs"]!.AsArray();

    [Theory]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(6)]
    public async Task Every_kind_of_job_is_read_back_into_an_empty_workshop_without_loss(int bay)
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.JobInBay(bay);
        var file = await shop.Client.GetStringAsync($"/api/jobs/{id}/file");
        await using var other = await EmptyWorkshop();
        var imported = JsonNode.Parse(await (await other.Client.PostAsync("/api/jobs/import", Json(file))).Content.ReadAsStringAsync())!;
        ((int)imported["added"]!).ShouldBe((int)imported["events"]!);
        (await other.Client.GetStringAsync($"/api/jobs/{id}/file")).ShouldBe(file);
        // The number is the reading workshop's own; everything else of the view is alike.
        var (read, sent) = (await other.Job(id), await shop.Job(id));
        read["number"] = (int)sent["number"]!;
        read["imported"]!["by"]!.ToString().ShouldBe("Una Pike");
        read["imported"] = null;
        // A copy takes nothing more: whoever makes a file makes no record of this workshop.
        var refused = await other.Client.PostAsJsonAsync($"/api/jobs/{id}/notes", Workshop.Command((int)sent["version"]!, ("text", "one more")));
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await Workshop.Problem(refused))["title"]!.ToString().ShouldBe("This is a copy, read in by Una Pike: it takes nothing more here, and goes on where it lives.");
        JsonNode.DeepEquals(read, sent).ShouldBeTrue();
        (await other.Client.GetStringAsync($"/api/jobs/{id}/record")).ShouldBe(await shop.Client.GetStringAsync($"/api/jobs/{id}/record"));
        // Foreign technicians are names without sign-in.
        (await other.Client.GetStringAsync("/api/session")).ShouldNotContain("Ransome");
        // Twice changes nothing.
        var again = JsonNode.Parse(await (await other.Client.PostAsync("/api/jobs/import", Json(file))).Content.ReadAsStringAsync())!;
        ((int)again["added"]!).ShouldBe(0);
        (await Copies(other)).Count.ShouldBe(1);
    }

    [Fact]
    public async Task A_files_number_is_its_own_affair_and_new_jobs_go_on_counting()
    {
        await using var shop = await EmptyWorkshop();
        // Well hashed, and with a number after which there is no other.
        var opened = JsonNode.Parse(await Export(6))!["events"]![0]!["content"]!;
        opened["event"]!["number"] = int.MaxValue;
        var first = opened.ToJsonString();
        var file = $"{{\"format\":\"patient-pawl-job\",\"formatVersion\":1,\"jobId\":\"{JsonNode.Parse(first)!["jobId"]}\",\"events\":[{{\"content\":{first},\"hash\":\"{EventStore.Chain("", Encoding.UTF8.GetBytes(first))}\"}}]}}";
        (await shop.Client.PostAsync("/api/jobs/import", Json(file))).StatusCode.ShouldBe(HttpStatusCode.OK);
        ((int)(await Copies(shop))[0]!["number"]!).ShouldBe(401);
        shop.Services.GetRequiredService<EventStore>().NextNumber().ShouldBe(402);
        // Two files of two workshops never share a number here.
        (await shop.Client.PostAsync("/api/jobs/import", Json(await Export(6, copied: false)))).EnsureSuccessStatusCode();
        (await Copies(shop)).Select(b => (int)b!["number"]!).Order().ShouldBe([401, 402]);
    }

    [Fact]
    public async Task Only_the_lead_reads_a_file_in()
    {
        var file = await Export(6);
        await using var shop = await Workshop.Open();
        await shop.SignIn("Oona Firth");
        (await Workshop.Problem(await shop.Client.PostAsync("/api/jobs/import", Json(file))))["title"]!.ToString().ShouldBe("The lead does this.");
        (await shop.Another().PostAsync("/api/jobs/import", Json(file))).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task A_job_that_lives_here_is_never_extended_by_a_file()
    {
        await using var here = await Workshop.Open();
        await using var there = await Workshop.Open();
        await here.SignIn();
        await there.SignIn();
        var id = await there.JobInBay(6);
        var before = await here.Client.GetStringAsync($"/api/jobs/{id}/file");
        var version = (int)(await there.Job(id))["version"]!;
        (await there.Client.PostAsJsonAsync($"/api/jobs/{id}/notes", Workshop.Command(version, ("text", "written elsewhere")))).EnsureSuccessStatusCode();
        var longer = await there.Client.GetStringAsync($"/api/jobs/{id}/file");
        var refused = await here.Client.PostAsync("/api/jobs/import", Json(longer));
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await Workshop.Problem(refused))["title"]!.ToString().ShouldContain("never adds to a job of this workshop");
        (await here.Client.GetStringAsync($"/api/jobs/{id}/file")).ShouldBe(before);
        // A copy, or an earlier copy, changes nothing and is no mistake.
        JsonNode.Parse(await (await here.Client.PostAsync("/api/jobs/import", Json(before))).Content.ReadAsStringAsync())!["added"]!.ToString().ShouldBe("0");
        JsonNode.Parse(await (await there.Client.PostAsync("/api/jobs/import", Json(before))).Content.ReadAsStringAsync())!["added"]!.ToString().ShouldBe("0");
    }

    [Fact]
    public async Task A_break_in_the_chain_names_the_event_and_nothing_is_stored()
    {
        var file = await Export(6);
        await using var shop = await EmptyWorkshop();
        async Task Refused(string text, string says)
        {
            var answer = await shop.Client.PostAsync("/api/jobs/import", Json(text));
            answer.StatusCode.ShouldBeOneOf(HttpStatusCode.UnprocessableEntity, HttpStatusCode.BadRequest);
            (await Workshop.Problem(answer))["title"]!.ToString().ShouldContain(says);
            (await Copies(shop)).ShouldBeEmpty();
        }

        await Refused(file.Replace("Squeal", "Quiet"), "Event 1 does not match its hash");
        var lines = file.Split('\n');
        await Refused(string.Join('\n', lines.Where((_, i) => i != 10)), "Event 10 does not match its hash");
        (lines[20], lines[21]) = (lines[21], lines[20]);
        await Refused(string.Join('\n', lines), "Event 20 does not match its hash");
        await Refused(file[..(file.Length / 2)], "$");
        await Refused("{\"format\":\"something-else\",\"formatVersion\":1,\"jobId\":\"" + Guid.NewGuid() + "\",\"events\":[]}", "not a job file");
    }

    [Fact]
    public async Task A_well_hashed_file_with_nonsense_inside_is_refused_whole()
    {
        var file = JsonNode.Parse(await Export(4))!;
        await using var shop = await EmptyWorkshop();
        // Whoever knows the format can make a chain: then the contents must still be an order of events that can be shown.
        var first = file["events"]![0]!["content"]!.ToJsonString().Replace("\"diameterMm\":41", "\"diameterMm\":1e12");
        var forged = $"{{\"format\":\"patient-pawl-job\",\"formatVersion\":1,\"jobId\":\"{file["jobId"]}\",\"events\":[{{\"content\":{first},\"hash\":\"{EventStore.Chain("", Encoding.UTF8.GetBytes(first))}\"}},{{\"content\":{first},\"hash\":\"{EventStore.Chain(EventStore.Chain("", Encoding.UTF8.GetBytes(first)), Encoding.UTF8.GetBytes(first))}\"}}]}}";
        var answer = await shop.Client.PostAsync("/api/jobs/import", Json(forged));
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Workshop.Problem(answer))["title"]!.ToString().ShouldContain("Event 2");
    }

    [Theory]
    [InlineData("\"recordedAt\":\"20", "\"recordedAt\":\"39", "has a time that cannot be")]
    [InlineData("\"bay\":6", "\"bay\":-5", "bay is -5: it must be 1 to 99")]
    [InlineData("\"jobId\":\"", "\"jobId\":\"00000000", "belongs to another job")]
    public async Task A_well_hashed_file_with_a_time_a_bay_or_a_job_that_cannot_be_is_refused_whole(string was, string isNow, string says)
    {
        var file = JsonNode.Parse(await Export(6))!;
        var first = file["events"]![0]!["content"]!.ToJsonString();
        var spoilt = first.Contains(was, StringComparison.Ordinal) ? isNow.EndsWith("00000000", StringComparison.Ordinal) ? first.Replace(file["jobId"]!.ToString(), Guid.NewGuid().ToString(), StringComparison.Ordinal) : first.Replace(was, isNow, StringComparison.Ordinal) : throw new InvalidOperationException(first);
        await using var shop = await EmptyWorkshop();
        var forged = $"{{\"format\":\"patient-pawl-job\",\"formatVersion\":1,\"jobId\":\"{file["jobId"]}\",\"events\":[{{\"content\":{spoilt},\"hash\":\"{EventStore.Chain("", Encoding.UTF8.GetBytes(spoilt))}\"}}]}}";
        (await Workshop.Problem(await shop.Client.PostAsync("/api/jobs/import", Json(forged))))["title"]!.ToString().ShouldContain(says);
    }

    [Fact]
    public async Task The_published_schema_is_the_schema_of_what_is_stored_and_every_demo_job_follows_it()
    {
        var path = Path.Combine(Workshop.Repository, "docs", "job.schema.json");
        var made = JobSchema.Make().ToJsonString(new JsonSerializerOptions { WriteIndented = true }) + "\n";
        if (Environment.GetEnvironmentVariable("PAWL_UPDATE") == "1") await File.WriteAllTextAsync(path, made);
        (await File.ReadAllTextAsync(path)).ShouldBe(made, "docs/job.schema.json is stale: run PAWL_UPDATE=1 ./test web");
        var schema = await JsonSchema.FromJsonAsync(made);
        foreach (var bay in new[] { 2, 3, 6 }) schema.Validate(await Export(bay)).Select(e => e.ToString()).ShouldBeEmpty();
        schema.Validate("{\"format\":\"patient-pawl-job\"}").ShouldNotBeEmpty();
    }

    [Fact]
    public async Task A_file_of_format_version_1_is_still_read()
    {
        // A stored sample: whatever later versions do, this must go on being readable.
        var path = Path.Combine(Workshop.Repository, "tests", "PatientPawl.Web.Tests", "Samples", "job-v1.json");
        if (Environment.GetEnvironmentVariable("PAWL_SAMPLE") == "1") await File.WriteAllTextAsync(path, await Export(3));
        await using var shop = await EmptyWorkshop();
        var answer = await shop.Client.PostAsync("/api/jobs/import", Json(await File.ReadAllTextAsync(path)));
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        (await Copies(shop))[0]!["headline"]!.ToString().ShouldBe("a left caliper");
    }
}

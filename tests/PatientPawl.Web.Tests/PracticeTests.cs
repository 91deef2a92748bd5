using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using PatientPawl.Core.Practice;
using PatientPawl.Data;
using UnitsNet;

namespace PatientPawl.Web.Tests;

/// <summary>Practice beside real work: in none of its lists, its learner's alone, and gone when they say so.</summary>
public class PracticeTests(DemoShop demo) : IClassFixture<DemoShop>, IAsyncLifetime
{
    private readonly Workshop _shop = demo.Shop;

    public async Task InitializeAsync() => await _shop.SignIn("Ines Marrow");

    public Task DisposeAsync() => Task.CompletedTask;

    private async Task<JsonNode> Get(string path) => (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/{path}"))!;

    private async Task<string> Run(string scenario = "lever-and-screw", string way = "alone")
    {
        var id = Guid.NewGuid().ToString();
        (await _shop.Client.PostAsJsonAsync("/api/practice/runs",
            Workshop.Command(0, ("jobId", id), ("scenarioId", scenario), ("way", way)))).EnsureSuccessStatusCode();
        return id;
    }

    [Fact]
    public async Task A_run_is_on_no_board_in_no_search_in_no_history_and_takes_no_number()
    {
        var before = (int)(await _shop.Job(await _shop.NewJob(bay: 51)))["number"]!;
        var id = await Run();
        (await Get("board")).AsArray().ShouldNotContain(b => b!["jobId"]!.ToString() == id);
        (await Get("jobs/past?search=Dunlin"))["jobs"]!.AsArray().ShouldNotContain(j => j!["jobId"]!.ToString() == id);
        (await Get("vehicles/GNT 164/story"))["visits"]!.AsArray().ShouldNotContain(v => v!["jobId"]!.ToString() == id);
        ((int)(await _shop.Job(id))["number"]!).ShouldBeLessThan(0);
        ((int)(await _shop.Job(await _shop.NewJob(bay: 52)))["number"]!).ShouldBe(before + 1);
        (await Get("practice"))["runs"]!.AsArray().ShouldContain(r => r!["jobId"]!.ToString() == id);
        (await _shop.Job(id))["opened"]!["purpose"]!.ToString().ShouldBe("practice");
    }

    [Fact]
    public async Task A_step_is_not_done_before_it_was_said_how_and_the_rest_of_the_workshop_is_not_asked()
    {
        var id = await Run(way: "guided");
        var answer = await _shop.Client.PostAsJsonAsync($"/api/jobs/{id}/practice/answer",
            Workshop.Command(1, ("stepId", "piston-home"), ("side", "left"), ("option", "push")));
        answer.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var real = await _shop.NewJob(bay: 53);
        var none = await _shop.Client.GetAsync($"/api/jobs/{real}/practice");
        (await Workshop.Problem(none))["title"]!.ToString().ShouldContain("no practice");
        var tried = await (await _shop.Client.PostAsJsonAsync($"/api/jobs/{id}/practice/pick",
            Workshop.Command(1, ("stepId", "piston-home"), ("side", "left")))).Content.ReadFromJsonAsync<JsonNode>();
        ((bool)tried!["isAllowed"]!).ShouldBeFalse();
        (await Get($"jobs/{id}/practice"))["happened"]!.AsArray()[0]!["happening"]!["trap"]!.ToString().ShouldBe("tight-cable");
    }

    [Fact]
    public async Task A_run_is_deleted_by_its_learner_alone_and_a_real_job_by_nobody()
    {
        var id = await Run();
        using var other = _shop.Another();
        await _shop.SignIn("Tor Aske", other);
        (await other.DeleteAsync($"/api/practice/runs/{id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var real = await _shop.NewJob(bay: 54);
        (await _shop.Client.DeleteAsync($"/api/practice/runs/{real}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        // Its view was made and kept: that goes too.
        _ = await _shop.Job(id);
        (await _shop.Client.DeleteAsync($"/api/practice/runs/{id}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await _shop.Client.GetAsync($"/api/jobs/{id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        _shop.Services.GetRequiredService<EventStore>().VerifyAll().ShouldBeEmpty();
        (await _shop.Client.GetAsync($"/api/jobs/{real}")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task An_answer_to_a_card_counts_once_however_often_it_is_sent()
    {
        var card = (await Get("practice/cards")).AsArray()[0]!["id"]!.ToString();
        var before = (int)(await Get("practice"))["cardsNew"]!;
        var answers = new { answers = new[] { new { cardId = card, isRight = true, at = "2026-11-25T09:00:00+00:00" } } };
        for (var i = 0; i < 3; i++) (await _shop.Client.PostAsJsonAsync("/api/practice/cards",
            answers)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        ((int)(await Get("practice"))["cardsNew"]!).ShouldBe(before - 1);
        var library = _shop.Services.GetRequiredService<Library>();
        var me = library.Technicians().First(t => t.Name == "Ines Marrow");
        library.Boxes(me.Id).Single(b => b.CardId == card).ShouldBe(new CardBox(card, 2, new(2026, 11, 27), 1, 0));
        var unknown = new { answers = new[] { new { cardId = "none", isRight = true, at = "2026-11-25T09:00:00+00:00" } } };
        (await Workshop.Problem(await _shop.Client.PostAsJsonAsync("/api/practice/cards", unknown)))["errors"]!.ToString()
            .ShouldContain("There is no such card");
    }

    [Fact]
    public async Task The_demo_has_a_learner_with_a_history_and_only_the_lead_sees_what_everybody_showed()
    {
        (await Get("practice"))["team"].ShouldBeNull();
        using var lead = _shop.Another();
        await _shop.SignIn("Kit Ransome", lead);
        var team = (await lead.GetFromJsonAsync<JsonNode>("/api/practice"))!["team"]!.AsArray();
        var shown = team.Single(t => t!["name"]!.ToString() == "Oona Firth")!["competences"]!.AsArray().Where(c => (bool)c!["isShown"]!)
            .Select(c => c!["competence"]!.ToString());
        shown.ShouldBe(["retract", "record"]);
        using var learner = _shop.Another();
        await _shop.SignIn("Oona Firth", learner);
        var home = (await learner.GetFromJsonAsync<JsonNode>("/api/practice"))!;
        home["runs"]!.AsArray().Count.ShouldBe(1);
        var debrief = (await learner.GetFromJsonAsync<JsonNode>($"/api/jobs/{home["runs"]![0]!["jobId"]}/debrief"))!;
        ((int)debrief["refused"]!).ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task Where_the_house_asks_for_it_who_has_not_shown_a_step_does_it_once_the_lead_has_put_them_beside_somebody()
    {
        using var lead = _shop.Another();
        await _shop.SignIn("Kit Ransome", lead);
        var rules = (await lead.GetFromJsonAsync<JsonNode>("/api/workshop/house-rules"))!["rules"]!;
        async Task Ask(string whether)
        {
            rules["shownBeforeAlone"] = whether;
            (await lead.PutAsJsonAsync("/api/workshop/house-rules", rules)).EnsureSuccessStatusCode();
        }

        await Ask("asked");
        var id = await _shop.NewJob(bay: 56);
        await Ask("not-asked");
        var job = await _shop.Job(id);
        job["beside"]!.AsArray().ShouldBeEmpty();
        using var tor = _shop.Another();
        await _shop.SignIn("Tor Aske", tor);
        var who = (await tor.GetFromJsonAsync<JsonNode>("/api/session"))!["me"]!["id"]!.ToString();
        Task<HttpResponseMessage> Put(HttpClient by) =>
            by.PostAsJsonAsync($"/api/jobs/{id}/beside", Workshop.Command((int)job["version"]!, ("technicianId", who)));
        (await Put(tor)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await Put(lead)).EnsureSuccessStatusCode();
        (await _shop.Job(id))["beside"]!.AsArray().Select(n => n!.ToString()).ShouldBe(["Tor Aske"]);
        (await _shop.Job(await _shop.NewJob(bay: 57)))["beside"].ShouldBeNull();

        // Work itself is refused before, and not after.
        await Ask("asked");
        var hand = await Hand.Open(_shop, "GNT 077", "pads", EverydayJobsTests.Cable, null, bay: 58);
        await Ask("not-asked");
        var body = Workshop.Command((int)(await _shop.Job(hand.Id))["version"]!, ("stepId", "pedal-proved"), ("side", null), ("note", "early"));
        body["readings"] = new JsonArray();
        var refused = await _shop.Client.PostAsJsonAsync($"/api/jobs/{hand.Id}/out-of-order", body);
        (await Workshop.Problem(refused))["title"]!.ToString().ShouldBe("Not alone yet: “prove the brake” is not shown in practice.");
        var ines = (await _shop.Client.GetFromJsonAsync<JsonNode>("/api/session"))!["me"]!["id"]!.ToString();
        var put = Workshop.Command((int)(await _shop.Job(hand.Id))["version"]!, ("technicianId", ines));
        (await lead.PostAsJsonAsync($"/api/jobs/{hand.Id}/beside", put)).EnsureSuccessStatusCode();
        body["expectedVersion"] = (int)(await _shop.Job(hand.Id))["version"]!;
        body["eventId"] = Guid.NewGuid().ToString();
        (await (await _shop.Client.PostAsJsonAsync($"/api/jobs/{hand.Id}/out-of-order", body)).Content.ReadAsStringAsync()).ShouldNotContain("Not alone");
    }

    [Fact]
    public async Task A_finished_job_becomes_a_scenario_without_plate_names_and_vin_and_is_played_like_the_others()
    {
        var done = await _shop.JobInBay(6);
        var of = new { jobId = done, id = "of-a-job", title = "A car of last week", driverSays = "It squeals." };
        (await _shop.Client.PostAsJsonAsync("/api/practice/scenarios/from-job", of)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        using var lead = _shop.Another();
        await _shop.SignIn("Kit Ransome", lead);
        (await lead.PostAsJsonAsync("/api/practice/scenarios/from-job", of)).EnsureSuccessStatusCode();
        var file = await lead.GetStringAsync("/api/practice/scenarios/of-a-job");
        var job = await _shop.Job(done);
        foreach (var secret in new[] { job["opened"]!["vehicle"]!["plate"]!.ToString(), "11111111111111111",
            job["opened"]!["complaint"]!.ToString(), "Ransome", "Marrow" })
            file.ShouldNotContain(secret);
        (await NJsonSchema.JsonSchema.FromJsonAsync(PublishedSchema.Scenario().ToJsonString())).Validate(file).ShouldBeEmpty();
        // It is read in again byte for byte, under another id too, and its truth is not in the job that is practised.
        var other = file.Replace("of-a-job", "of-another", StringComparison.Ordinal);
        (await lead.PostAsync("/api/practice/scenarios", new StringContent(other, System.Text.Encoding.UTF8, "application/json")))
            .EnsureSuccessStatusCode();
        (await lead.GetStringAsync("/api/practice/scenarios/of-another")).ShouldBe(other);
        var run = await Run("of-another");
        (await Get($"jobs/{run}/practice"))["title"]!.ToString().ShouldBe("A car of last week");
        (await _shop.Job(run))["opened"]!["practice"]!["own"].ShouldBeNull();
        (await lead.DeleteAsync("/api/practice/scenarios/of-another")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await Get($"jobs/{run}/practice"))["title"]!.ToString().ShouldBe("A car of last week");
        var shipped = file.Replace("of-a-job", "two-units", StringComparison.Ordinal);
        var refused = await lead.PostAsync("/api/practice/scenarios",
            new StringContent(shipped, System.Text.Encoding.UTF8, "application/json"));
        (await Workshop.Problem(refused))["errors"]!.ToString().ShouldContain("A scenario that ships has that id");
    }

    [Fact]
    public async Task The_published_schema_of_a_scenario_is_the_schema_of_what_is_read_and_every_one_that_ships_follows_it()
    {
        var path = Path.Combine(Workshop.Repository, "docs", "scenario.schema.json");
        var made = PublishedSchema.Scenario().ToJsonString(new JsonSerializerOptions { WriteIndented = true }) + "\n";
        if (Environment.GetEnvironmentVariable("PAWL_UPDATE") == "1") await File.WriteAllTextAsync(path, made);
        (await File.ReadAllTextAsync(path)).ShouldBe(made, "docs/scenario.schema.json is stale: run PAWL_UPDATE=1 ./test web");
        var schema = await NJsonSchema.JsonSchema.FromJsonAsync(made);
        foreach (var scenario in ScenarioSet.All) schema.Validate(JsonSerializer.Serialize(scenario, PawlJson.Options))
            .Select(e => e.ToString()).ShouldBeEmpty(scenario.Id);
    }

    [Fact]
    public void A_thousand_random_scenarios_round_trip_and_what_no_car_could_be_is_refused_with_its_field()
    {
        var random = new Random(18);
        Length Mm(double low, double high) => Length.FromMillimeters(Math.Round(low + random.NextDouble() * (high - low), 3));
        for (var i = 0; i < 1000; i++)
        {
            var of = ScenarioSet.All[random.Next(ScenarioSet.All.Count)];
            CornerTruth Corner(CornerTruth c) => c with
            {
                InnerPad = Mm(0, 40),
                OuterPad = Mm(0, 40),
                Rotor = Mm(1, 40),
                PistonProud = Mm(0, 60),
                Drum = random.Next(2) == 0 ? null : Mm(50, 500),
                Faults = [.. Enum.GetValues<CornerFault>().Where(_ => random.Next(4) == 0)],
            };
            var made = of with
            {
                Truth = of.Truth with
                {
                    Left = Corner(of.Truth.Left),
                    Right = Corner(of.Truth.Right),
                    LevelPercent = Math.Round(random.NextDouble() * 150, 2),
                    BrakesAt = Temperature.FromDegreesCelsius(random.Next(-30, 400))
                },
            };
            made.Checked();
            var text = JsonSerializer.Serialize(made, PawlJson.Options);
            JsonSerializer.Serialize(JsonSerializer.Deserialize<Scenario>(text, PawlJson.Options), PawlJson.Options).ShouldBe(text);
        }

        var bad = ScenarioSet.All[0];
        var e = Should.Throw<Core.InputException>(() => (bad with
        {
            Truth = bad.Truth with
            {
                LevelPercent = 500,
                Left = bad.Truth.Left with { Rotor = Length.FromMillimeters(900) }
            }
        }).Checked());
        e.Errors.Select(x => x.Field).ShouldBe(["truth.levelPercent", "truth.left.rotorMm"]);
    }
}

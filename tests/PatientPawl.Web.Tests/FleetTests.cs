using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace PatientPawl.Web.Tests;

/// <summary>Vehicles over the years and what comes due, as the API tells it.</summary>
public sealed class FleetTests : IAsyncLifetime
{
    private Workshop _shop = null!;

    public async Task InitializeAsync()
    {
        _shop = await Workshop.Open();
        await _shop.SignIn();
    }

    public async Task DisposeAsync() => await _shop.DisposeAsync();

    private async Task<JsonNode> Get(string path) => (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/{path}"))!;

    private async Task<string[]> Plates() => [.. (await Get("fleet"))["vehicles"]!.AsArray().Select(v => v!["vehicle"]!["plate"]!.ToString())];

    internal static JsonObject BedIn() => new()
    {
        ["series"] = new JsonObject { ["stops"] = 5, ["fromKmh"] = 50, ["toKmh"] = 10, ["gapS"] = 45 },
        ["fromMaker"] = false,
        ["vehicleKg"] = 1500,
        ["rotorKg"] = 5,
        ["ambientCelsius"] = 20,
        ["rearPercent"] = null,
        ["coolingTimeS"] = null,
        ["localLimitKmh"] = null,
        ["regenerates"] = false,
        ["hatShoes"] = false,
    };

    internal static JsonObject Hold(double? left, double? right) => new()
    {
        ["approved"] = "car",
        ["maximumMassKg"] = 1500,
        ["hillPercent"] = null,
        ["massOnHillKg"] = null,
        ["heldUp"] = null,
        ["heldDown"] = null,
        ["leftN"] = left,
        ["rightN"] = right,
        ["sidesPercent"] = null,
        ["leftCelsius"] = null,
        ["rightCelsius"] = null,
        ["airCelsius"] = null,
    };

    [Fact]
    public async Task Minutes_learnt_from_finished_jobs_go_into_the_next_one_as_they_were_known_when_it_was_opened()
    {
        var lessons = await Get("workshop/lessons");
        ((int)lessons["jobs"]!).ShouldBeGreaterThan(10);
        var learnt = lessons["minutes"]!.AsArray().ToDictionary(m => m!["stepId"]!.ToString(), m => (int)m!["minutes"]!);
        learnt.Count.ShouldBeGreaterThan(20);
        var id = await _shop.NewJob(bay: 42);
        var opened = (await _shop.Job(id))["opened"]!;
        opened["minutes"]!.AsArray().ToDictionary(m => m!["stepId"]!.ToString(), m => (int)m!["minutes"]!).ShouldBe(learnt, ignoreOrder: true);
        foreach (var step in (await _shop.Job(id))["sheet"]!["ahead"]!.AsArray())
            if (learnt.TryGetValue(step!["step"]!["stepId"]!.ToString(), out var minutes)) ((int)step["minutes"]!).ShouldBe(minutes);
    }

    [Fact]
    public async Task A_past_job_is_found_by_its_vin()
    {
        var found = (await Get("jobs/past?search=1111111111"))["jobs"]!.AsArray();
        found.Count.ShouldBeGreaterThan(0);
        found.ShouldAllBe(j => j!["vehicle"]!["vin"]!.ToString().StartsWith("1111111111"));
    }

    [Fact]
    public async Task A_database_of_the_version_before_knows_its_vehicles_lessons_and_vins_after_the_start()
    {
        string folder;
        await using (var before = await Workshop.Open()) folder = before.Kept();
        Workshop.PastTheProgram(folder, "drop trigger job_opened_on_vehicle", "drop trigger job_moved_on_vehicle",
            "drop trigger job_imported_on_vehicle",
            "drop table vehicle_card", "drop table vehicle_due", "drop table vehicle_moved", "drop table wrench_certificate",
            "drop table job_lesson",
            "create table vehicle_card (plate text primary key, stamp text not null, card_json text) strict, without rowid",
            "update job_search set words = replace(words, '11111111111111111', '')", "update job set engine_version = '5'",
            "delete from SchemaVersions where ScriptName like '%0008%'");
        await using var after = await Workshop.Open(folder: folder, copied: false);
        await after.SignIn();
        async Task<JsonNode> Told(string path) => (await after.Client.GetFromJsonAsync<JsonNode>($"/api/{path}"))!;
        for (var i = 0; i < 100 && (await Told("workshop/logs"))["at"] is null; i++) await Task.Delay(200);
        (await Told("fleet"))["vehicles"]!.AsArray().Count.ShouldBe((await Plates()).Length);
        ((int)(await Told("workshop/lessons"))["jobs"]!).ShouldBe((int)(await Get("workshop/lessons"))["jobs"]!);
        (await Told("jobs/past?search=1111111111"))["jobs"]!.AsArray().ShouldNotBeEmpty();
    }

    [Fact]
    public async Task A_vehicles_story_holds_its_jobs_newest_first_its_figures_and_what_was_learnt()
    {
        var story = await Get("vehicles/GNT 118/story");
        var visits = story["visits"]!.AsArray().Select(v => (int)v!["odometerKm"]!).ToArray();
        visits.ShouldBe(visits.OrderDescending());
        visits.Length.ShouldBe(4);
        var inner = story["series"]!.AsArray().Single(s => s!["says"]!.ToString() == "Inner lining, left")!["points"]!.AsArray();
        // The pads that came off, the new ones by the sheet, and each look at them since.
        inner.Select(p => (bool)p!["isNew"]!).ShouldBe([false, true, false, false, false]);
        inner.Skip(1).Select(p => (double)p!["valueMm"]!).ShouldBe(inner.Skip(1).Select(p => (double)p!["valueMm"]!).OrderDescending());
        story["learnt"]!.AsArray().ShouldContain(l => l!.ToString().Contains("star wheel loosens upwards"));
        var answer = await _shop.Client.GetAsync("/api/vehicles/NONE 1/story");
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadAsStringAsync()).ShouldContain("No job of this workshop tells of that vehicle");
    }

    [Fact]
    public async Task A_practice_job_tells_nothing_of_its_vehicle_and_a_real_one_brings_it_in_at_once()
    {
        (await Plates()).ShouldNotContain("GNT 233");
        await Hand.Open(_shop, "GNT 233", "pads", EverydayJobsTests.Motor, "scan-tool", purpose: "practice");
        (await Plates()).ShouldNotContain("GNT 233");
        await Hand.Open(_shop, "GNT 233", "pads", EverydayJobsTests.Motor, "scan-tool", bay: 31);
        (await Plates()).ShouldContain("GNT 233");
    }

    [Fact]
    public async Task The_chances_never_fall_with_the_days_and_the_soonest_stands_first()
    {
        var page = await Get("fleet");
        var fleet = page["vehicles"]!.AsArray();
        ((bool)page["more"]!).ShouldBeFalse();
        ((int)page["unread"]!).ShouldBe(0);
        fleet.Select(v => v!["padsDue"]?.ToString() ?? "9999").ShouldBeInOrder();
        foreach (var v in fleet.Where(v => v!["within30"] is not null))
            new[] { (double)v!["within30"]!, (double)v["within60"]!, (double)v["within90"]! }.ShouldBeInOrder();
        var csv = await _shop.Client.GetStringAsync("/api/fleet/csv");
        csv.Split("\r\n", StringSplitOptions.RemoveEmptyEntries).Length.ShouldBe(fleet.Count + 1);
    }

    [Fact]
    public async Task A_vehicle_is_found_by_words_of_it_and_a_page_that_cannot_be_is_refused()
    {
        async Task<string[]> Found(string words) =>
            [.. (await Get($"fleet?search={Uri.EscapeDataString(words)}"))["vehicles"]!.AsArray().Select(v => v!["vehicle"]!["plate"]!.ToString())];
        (await Found("gnt118")).ShouldBe(["GNT 118"]);
        (await Found("coble gnt")).ShouldContain("GNT 118");
        (await Found("coble gnt")).ShouldNotContain("GNT 420");
        (await Found("%_' or 1=1")).ShouldBeEmpty();
        (await Found(" ")).ShouldBe(await Plates());
        (await _shop.Client.GetAsync($"/api/fleet?search={new string('x', 101)}")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Get($"fleet?skip={(await Plates()).Length}"))["vehicles"]!.AsArray().ShouldBeEmpty();
        (await _shop.Client.GetAsync("/api/fleet?skip=-1")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task A_reminder_is_ticked_off_once_and_one_that_is_none_is_refused()
    {
        var first = (await Get("reminders"))["reminders"]!.AsArray().First()!["id"]!.ToString();
        (await _shop.Client.PostAsJsonAsync("/api/reminders/done", new JsonObject { ["id"] = first })).EnsureSuccessStatusCode();
        (await Get("reminders"))["reminders"]!.AsArray().ShouldNotContain(r => r!["id"]!.ToString() == first);
        (await _shop.Client.PostAsJsonAsync("/api/reminders/done",
            new JsonObject { ["id"] = "made up" })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task The_calendars_address_is_the_leads_and_nobody_guesses_it()
    {
        var address = (await Get("reminders/calendar"))["address"]!.ToString();
        using var stranger = _shop.Another();
        (await stranger.GetStringAsync(address)).ShouldStartWith("BEGIN:VCALENDAR");
        (await stranger.GetAsync("/api/reminders.ics")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await stranger.GetAsync(address[..^1])).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        await _shop.SignIn("Sol Penhale");
        (await _shop.Client.GetAsync("/api/reminders/calendar")).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task Forces_that_do_not_prove_it_hold_the_brake_until_they_are_tried_anew_and_stand_in_the_record()
    {
        var hand = await Hand.Open(_shop, "GNT 077", "pads", EverydayJobsTests.Cable, null);
        for (var i = 0; i < 300 && hand.Sheet["now"]!["step"]!["stepId"]!.ToString() != "brake-held"; i++) await hand.Step(null);
        var path = $"/api/jobs/{hand.Id}/parking-hold";
        async Task<HttpStatusCode> Try(JsonObject facts) =>
            (await _shop.Client.PostAsJsonAsync(path, MeasuringTests.Free(("facts", facts)))).StatusCode;
        (await Try(Hold(null, null))).ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Try(Hold(2400, 1500))).ShouldBe(HttpStatusCode.OK);
        await hand.Refresh();
        (await Record.ExceptionAsync(() => hand.Step(null)))!.Message.ShouldContain("Say so at the step, or try it again on the bench");
        (await Try(Hold(2400, 2300))).ShouldBe(HttpStatusCode.OK);
        await hand.Refresh();
        await hand.Step(null);
        hand.Sheet["now"]!["step"]!["stepId"]!.ToString().ShouldNotBe("brake-held");
        var proofs = (await Get($"jobs/{hand.Id}/record"))["proofs"]!.AsArray().Select(p => p!.ToString()).ToArray();
        proofs.ShouldContain(p => p.Contains("32") && p.Contains("at least 16 %") && p.Contains("inside"));
    }
}

using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace PatientPawl.Web.Tests;

/// <summary>Findings, steps out of order, nights, schedules, routes and the stand-in scan tool over HTTP.</summary>
public sealed class SurprisesTests(DemoShop demo) : IClassFixture<DemoShop>
{
    private readonly Workshop _shop = demo.Shop;

    private async Task<JsonNode> Post(string path, JsonNode body, HttpStatusCode wanted = HttpStatusCode.OK)
    {
        var answer = await _shop.Client.PostAsJsonAsync(path, body);
        var text = await answer.Content.ReadAsStringAsync();
        answer.StatusCode.ShouldBe(wanted, $"{path}: {text}");
        return JsonNode.Parse(text)!;
    }

    private async Task<(string Id, int Version)> InHand(int bay)
    {
        await _shop.SignIn();
        var id = await _shop.JobInBay(bay);
        return (id, (int)(await _shop.Job(id))["version"]!);
    }

    [Fact]
    public async Task A_finding_changes_plan_and_parts_and_says_how()
    {
        var (id, version) = await InHand(2);
        var before = await _shop.Job(id);
        before["sheet"]!["canFind"]!.AsArray().Count.ShouldBe(3);
        // What it would change is asked first, and asking changes nothing.
        var foretold = await Post($"/api/jobs/{id}/findings/preview", new JsonObject { ["kind"] = "stuck-piston", ["side"] = "right" });
        ((int)foretold["minutes"]!).ShouldBeGreaterThan(10);
        foretold["steps"]!.AsArray().Select(a => a!.ToString()).ShouldContain("Caliper away, right");
        foretold["parts"]!.AsArray().Select(a => a!.ToString()).ShouldContain("Right rear caliper with sealing washers");
        ((int)(await _shop.Job(id))["version"]!).ShouldBe(version);
        await Post($"/api/jobs/{id}/findings", Workshop.Command(version, ("kind", "stuck-piston"), ("side", "right"), ("note", "will not turn")));
        var sheet = (await _shop.Job(id))["sheet"]!;
        sheet["changes"]!.AsArray().Last()!["added"]!.AsArray().Select(a => a!.ToString()).ShouldContain("Caliper away, right");
        sheet["partsList"]!.AsArray().Select(a => a!.ToString()).ShouldContain("Right rear caliper with sealing washers");
        sheet["ahead"]!.AsArray().ShouldContain(a => (bool)a!["cameIn"]!);
        sheet["layOut"]!["tools"]!.AsArray().Select(a => a!.ToString()).ShouldContain("hose plug");
        (await Post($"/api/jobs/{id}/findings", Workshop.Command(version + 1, ("kind", "stuck-piston"), ("side", null), ("note", null)), HttpStatusCode.UnprocessableEntity))["errors"]![0]!["field"]!.ToString().ShouldBe("side");
        await Post($"/api/jobs/{id}/findings", Workshop.Command(version + 1, ("kind", "bad-shoes"), ("side", "left"), ("note", null)), HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_step_out_of_order_needs_its_reason_and_brings_a_look_at_what_it_may_have_done()
    {
        var (id, version) = await InHand(3);
        JsonObject Mark(string note) => Workshop.Command(version, ("stepId", "pedal-proved"), ("side", null), ("readings", new JsonArray(new JsonObject { ["kind"] = "pedal-strokes", ["value"] = 4, ["instrumentId"] = null })), ("note", note));
        (await Post($"/api/jobs/{id}/out-of-order", Mark(""), HttpStatusCode.UnprocessableEntity))["errors"]![0]!["field"]!.ToString().ShouldBe("note");
        await Post($"/api/jobs/{id}/out-of-order", Mark("someone leaned on it"));
        var sheet = (await _shop.Job(id))["sheet"]!;
        sheet["ahead"]!.AsArray().Select(a => a!["step"]!["stepId"]!.ToString()).Append(sheet["now"]!["step"]!["stepId"]!.ToString()).ShouldContain("circuit-looked");
    }

    [Fact]
    public async Task Left_overnight_nothing_is_clicked_until_someone_comes_back()
    {
        await _shop.SignIn();
        var id = await _shop.NewJob(bay: 51);
        var stop = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/overnight"))!;
        stop["steps"]!.AsArray().ShouldBeEmpty("nothing has been opened");
        await Post($"/api/jobs/{id}/overnight", Workshop.Command(1));
        (await _shop.Job(id))["sheet"]!["night"]!["tags"]!.AsArray().Count.ShouldBeGreaterThan(0);
        await Post($"/api/jobs/{id}/looks", Workshop.Command(2, ("side", "left"), ("look", "caliper-lever"), ("seen", "yes")), HttpStatusCode.Conflict);
        await Post($"/api/jobs/{id}/come-back", Workshop.Command(2));
        (await _shop.Job(id))["sheet"]!["night"].ShouldBeNull();
        var (busy, version) = await InHand(5);
        // The demo's bay 5 stands before the pedal: there is more to do than to leave it.
        var way = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{busy}/overnight"))!;
        if (way["steps"]!.AsArray().Count > 0)
            (await Post($"/api/jobs/{busy}/overnight", Workshop.Command(version), HttpStatusCode.Conflict))["because"]!.AsArray().Count.ShouldBe(way["steps"]!.AsArray().Count);
    }

    [Fact]
    public async Task Schedule_torque_card_and_routes_are_read_without_changing_anything()
    {
        var (id, version) = await InHand(2);
        var one = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/schedule?people=1"))!;
        var two = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/schedule?people=2"))!;
        ((int)two["minutes"]!).ShouldBeLessThan((int)one["minutes"]!);
        ((int)two["minutes"]!).ShouldBeGreaterThanOrEqualTo((int)two["lowerBound"]!);
        (await _shop.Client.GetAsync($"/api/jobs/{id}/schedule?people=9")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var card = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/torque-card"))!;
        var wheel = card["card"]!["lines"]!.AsArray().Last()!;
        wheel["line"]!["order"]!.AsArray().Select(o => (int)o!).ShouldBe([1, 3, 5, 2, 4]);
        ((double)wheel["seatAtNm"]!).ShouldBe(80);
        // Who has signed what stands beside it: the left bracket's first bolt, and nothing twice.
        var signed = card["signed"]!.AsArray().Select(x => (Role: x!["role"]!.ToString(), Side: x["side"]!.ToString(), Index: (int)x["index"]!, By: x["by"]!.ToString())).ToList();
        signed.ShouldBeUnique();
        signed.ShouldContain(("bracket", "left", 1, "Ines Marrow"));
        signed.ShouldNotContain(x => x.Role == "wheel");
        var routes = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/routes"))!;
        routes["routes"]![0]!["route"]!.ToString().ShouldBe("scan-tool");
        routes["never"]!.ToString().ShouldContain("Battery straight to the motor");
        ((int)(await _shop.Job(id))["version"]!).ShouldBe(version);
    }

    [Fact]
    public async Task A_job_opens_with_a_new_caliper_on_one_side_and_for_every_scope()
    {
        await _shop.SignIn();
        foreach (var scope in new[] { "inspect", "pads", "pads-and-rotors", "shoes", "pads-and-shoes", "pads-rotors-and-shoes" })
        {
            var id = Guid.NewGuid().ToString();
            var body = Workshop.Command(0, ("jobId", id), ("bay", 60), ("sheetCode", "NH-5"), ("odometerKm", 1000), ("complaint", "test"), ("scope", scope), ("newCalipers", new JsonArray("left", "left")), ("anyway", true),
                ("vehicle", new JsonObject { ["plate"] = "GNT 999", ["make"] = "Norrin", ["model"] = "Yole", ["use"] = "test", ["vin"] = null }));
            await Post("/api/jobs", body);
            var opened = (await _shop.Job(id))["opened"]!;
            opened["scope"]!.ToString().ShouldBe(scope);
            opened["newCalipers"]!.AsArray().Select(c => c!.ToString()).ShouldBe(["left"]);
        }
    }
}

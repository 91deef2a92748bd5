using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Web.Tests;

/// <summary>The quick benches as anyone may call them: pure, with no job and no sign-in.</summary>
public sealed class BenchTests(DemoShop demo) : IClassFixture<DemoShop>
{
    private readonly Workshop _shop = demo.Shop;

    private async Task<JsonNode> Ask(string bench, object body)
    {
        var answer = await _shop.Client.PostAsJsonAsync($"/api/bench/{bench}", body);
        var text = await answer.Content.ReadAsStringAsync();
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, text);
        return JsonNode.Parse(text)!;
    }

    private static object Torque(double value, string unit, object? crowfoot = null, string? wrenchId = null) => new
    {
        role = "bracket",
        value,
        unit,
        highValue = (double?)null,
        threadDiameterMm = (double?)null,
        threadPitchMm = (double?)null,
        @class = "not-known",
        wrenchId,
        crowfoot,
    };

    [Fact]
    public async Task Torque_in_both_units_with_the_crowfoot_and_the_smallest_wrench_that_serves()
    {
        // 100 x 400 / 450 = 88.9 N m, worked by hand; W4's scale goes in steps of 0.2.
        var answer = await Ask("torque", Torque(100, "N m", new { extensionMm = 50, angleFromInLineDeg = 0 }, "W4"));
        ((double)answer["set"]!["settingNm"]!).ShouldBe(88.888889, 1e-6);
        ((double)answer["set"]!["onTheScaleNm"]!).ShouldBe(88.8, 1e-9);
        answer["wrenchesThatServe"]!.AsArray().Select(w => w!.ToString()).ShouldBe(["W4", "W5"]);
        (await Ask("torque", Torque(35, "lbf ft")))["wrench"]!["id"]!.ToString().ShouldBe("W2");
        // 35 lbf ft = 47.45 N m (NIST SP 811, from memory).
        ((double)(await Ask("torque", Torque(35, "lbf ft")))["set"]!["atTheBoltNm"]!).ShouldBe(47.4536, 0.0001);
    }

    [Fact]
    public async Task Retraction_says_which_way_and_when_measured_how_far()
    {
        object Body(string architecture, object? howFar) => new { architecture, methodUndecided = false, side = "right", piston = (object?)null, howFar, depth = "all-the-way-home", reservoir = (object?)null };
        var bare = await Ask("retract", Body("motor-push", null));
        bare["ruling"]!["headline"]!.ToString().ShouldBe("Spindle back, then push straight");
        bare["travel"].ShouldBeNull();
        var stack = new { innerMm = 8, outerMm = 8, rotorMm = 10 };
        var thicker = new { innerMm = 12, outerMm = 12, rotorMm = 10 };
        var far = new { old = stack, @new = thicker, protrusionMm = 12, homeProtrusionMm = 0, leadMm = 0.8, pistonDiameterMm = 38, pistonsPerCaliper = 1, marginMm = (double?)null };
        var turned = await Ask("retract", Body("cable-screw", far));
        ((double)turned["travel"]!["turns"]!).ShouldBe(15, 1e-9);
        // pi/4 x 38^2 x 12 = 13.609 mL, worked by hand.
        ((double)turned["travel"]!["displacedMl"]!).ShouldBe(13.609, 0.001);
        // A lead means nothing where the piston is pushed.
        (await Ask("retract", Body("hat-shoes", far)))["travel"]!["turns"].ShouldBeNull();
    }

    [Fact]
    public async Task Shoes_with_the_stamping_read_and_the_verdict_reasoned_line_by_line()
    {
        var readings = new[] { "open-edge", "near-floor" }.SelectMany(p => new[] { 0, 45, 90, 135 }.Select(d => MeasuringTests.Reading("drum-diameter", p, d, 190.84, "bore-micrometer")))
            .Append(MeasuringTests.Reading("over-shoes", "now", null, 190.12, "bore-micrometer", outside: true)).ToArray();
        var answer = await Ask("shoes", new JsonObject { ["readings"] = new JsonArray(readings), ["facts"] = MeasuringTests.ShoeFacts("MAX 7.52 IN"), ["spec"] = MeasuringTests.DrumSpec(), ["newDrum"] = false, ["tryClicks"] = null });
        answer["stamp"]!["understood"]!.ToString().ShouldContain("191.01 mm");
        answer["drum"]!["maximum"]!["verdict"]!.ToString().ShouldBe("inside");
        ((int)answer["clearance"]!["clicks"]!).ShouldBe(11);
        answer["clearance"]!["reasons"]!["lines"]!.AsArray().Count.ShouldBeGreaterThan(6);
        answer["clearance"]!["curveMm"]!.AsArray().Count.ShouldBe(29);
    }

    [Fact]
    public async Task Looks_are_judged_and_a_vin_is_checked()
    {
        var found = await Ask("identify", new { observations = new[] { new { look = "brake-hose", seen = "no" } }, mechanismRelaxed = false });
        found["standing"]!.AsArray().Single()!.ToString().ShouldBe("electric-only");
        found["brakeByWireUnsettled"]!.GetValue<bool>().ShouldBeTrue();
        ((bool)(await Ask("vin", new { vin = "11111111111111111" }))["matches"]!).ShouldBeTrue();
    }

    [Fact]
    public async Task A_house_rule_is_shown_in_a_sample_plan_before_it_is_set()
    {
        var rules = new { holding = "released-from-start", retractDepth = "all-the-way-home", sides = "one-then-other" };
        var preview = JsonNode.Parse(await (await _shop.Client.PostAsJsonAsync("/api/workshop/house-rules/preview", rules)).Content.ReadAsStringAsync())!;
        preview["samplePlan"]!.AsArray().Select(s => s!.ToString()).ShouldContain("Crack screws, bar, left");
        var now = (await _shop.Client.GetFromJsonAsync<JsonNode>("/api/workshop/house-rules"))!;
        now["samplePlan"]!.AsArray().Select(s => s!.ToString()).ShouldContain("Crack rotor screws, left");
        now["cards"]!.AsArray().Count.ShouldBe(HouseRuleCatalogue.All.Count);
    }

    [Fact]
    public async Task A_spec_sheet_goes_out_and_comes_in_unchanged()
    {
        await _shop.SignIn();
        var sheets = (await _shop.Client.GetFromJsonAsync<JsonNode>("/api/spec-sheets"))!.AsArray();
        foreach (var sheet in sheets)
        {
            var copy = sheet!.DeepClone();
            copy["code"] = copy["code"] + "-C";
            var answer = await _shop.Client.PostAsJsonAsync("/api/spec-sheets", copy);
            answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
            JsonNode.DeepEquals(JsonNode.Parse(await answer.Content.ReadAsStringAsync()), copy).ShouldBeTrue(copy.ToJsonString());
        }
    }

    [Fact]
    public async Task Why_not_takes_the_corner_as_the_formats_write_it()
    {
        await _shop.SignIn();
        var id = await _shop.JobInBay(2);
        var why = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/why-not?stepId=pads-in&side=left"))!;
        ((bool)why["allowed"]!).ShouldBeFalse();
        why["lacking"]!.AsArray().ShouldContain(l => l!.ToString().Contains("left bracket bolts"));
        ((int)(await _shop.Client.GetAsync($"/api/jobs/{id}/why-not?stepId=pads-in&side=middle")).StatusCode).ShouldBe(422);
    }

    [Fact]
    public async Task A_vehicle_needs_a_sheet_that_exists()
    {
        await _shop.SignIn();
        var vehicle = new { plate = "GNT 900", make = "Brae", model = "Ruff", use = "spare car", vin = (string?)null };
        var refused = await _shop.Client.PostAsJsonAsync("/api/vehicles", new { vehicle, sheetCode = "NO-1" });
        (await Workshop.Problem(refused))["errors"]![0]!["field"]!.ToString().ShouldBe("sheetCode");
        (await _shop.Client.PostAsJsonAsync("/api/vehicles", new { vehicle, sheetCode = "CT-1" })).EnsureSuccessStatusCode();
        (await _shop.Client.GetStringAsync("/api/vehicles")).ShouldContain("Ruff");
    }
}

using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;

namespace PatientPawl.Web.Tests;

/// <summary>The retract and fluid benches over HTTP: pure with no job, as events in one.</summary>
public sealed class RetractionTests(DemoShop demo) : IClassFixture<DemoShop>
{
    private readonly Workshop _shop = demo.Shop;

    public static JsonObject Point(double turns, double mm, int stage = 1) => new() { ["id"] = Guid.NewGuid().ToString(), ["turns"] = turns, ["protrusionMm"] = mm, ["stage"] = stage, ["released"] = false, ["effortNm"] = null };

    public static JsonObject Log(params JsonObject[] points) => new()
    {
        ["points"] = new JsonArray([.. points]),
        ["turned"] = true,
        ["homeProtrusionMm"] = 1.5,
        ["leadMm"] = 0.8,
        ["travelMm"] = null,
        ["boresMm"] = new JsonArray(38),
        ["instrumentId"] = "depth-gauge",
        ["twoStage"] = false,
        ["otherWayAllowed"] = false,
        ["checks"] = new JsonObject { ["methodRight"] = "yes", ["directionRight"] = "yes", ["mechanismRelaxed"] = "yes", ["roomForFluid"] = "yes", ["pressedHarder"] = false, ["otherWayTried"] = false },
        ["otherEffortNm"] = null,
        ["turnsNow"] = null,
    };

    public static JsonObject Facts(double? slot = null) => new() { ["slotAtDeg"] = slot, ["slotAtTurns"] = null, ["wantedDeg"] = null, ["place"] = "behind-axle", ["boot"] = "free", ["pressedHarder"] = false, ["otherWayTried"] = false, ["roomForFluid"] = "not-known" };

    public static JsonObject Fluid() => new()
    {
        ["reservoir"] = new JsonObject { ["reservoir"] = new JsonObject { ["bandMl"] = 75, ["headspaceMl"] = 10 }, ["sides"] = null, ["levelPercent"] = 95, ["room"] = "draw-off", ["corners"] = new JsonArray(Corner("left"), Corner("right")) },
        ["fluid"] = new JsonObject { ["cap"] = "dot4", ["bottle"] = "dot5", ["waterPercent"] = 3.1, ["hottestCelsius"] = 120 },
        ["strokes"] = new JsonObject { ["masterDiameterMm"] = 20.6, ["masterStrokeMm"] = 16, ["split"] = "by-axle", ["rule"] = "half-strokes", ["corners"] = new JsonArray(Corner("left"), Corner("right")), ["simulated"] = false, ["counted"] = 20, ["firm"] = false },
    };

    private static JsonObject Corner(string side) => new() { ["side"] = side, ["boresMm"] = new JsonArray(38), ["travelMm"] = 12, ["needMm"] = 9, ["marginMm"] = null };

    private async Task<JsonNode> Post(string path, JsonNode body, HttpStatusCode wanted = HttpStatusCode.OK)
    {
        var answer = await _shop.Client.PostAsJsonAsync(path, body);
        var text = await answer.Content.ReadAsStringAsync();
        answer.StatusCode.ShouldBe(wanted, $"{path}: {text}");
        return JsonNode.Parse(text)!;
    }

    [Fact]
    public async Task A_log_is_followed_with_no_job_and_a_figure_that_cannot_be_names_its_field()
    {
        var a = await Post("/api/bench/retraction-log", Log(Point(0, 8.7), Point(4, 5.5)));
        ((double)a["fit"]!["leadMm"]!).ShouldBe(0.8, 1e-9);
        ((double)a["turnsToGo"]!).ShouldBe(5, 1e-9);
        a["reasons"]!["lines"]!.AsArray().ShouldNotBeEmpty();
        (await Post("/api/bench/retraction-log", Log(Point(0, 8.7), Point(1, 8.7), Point(2, 8.7))))["stuck"]!.GetValue<bool>().ShouldBeTrue();
        var wrong = await Post("/api/bench/retraction-log", Log(Point(0, 870)), HttpStatusCode.UnprocessableEntity);
        wrong["errors"]![0]!["field"]!.ToString().ShouldBe("protrusionMm");
        wrong["errors"]![0]!["allowed"]!.ToString().ShouldBe("0 to 100 mm");
        var unknown = Log(Point(0, 8.7));
        unknown["instrumentId"] = "thumb";
        (await Post("/api/bench/retraction-log", unknown, HttpStatusCode.UnprocessableEntity))["errors"]![0]!["field"]!.ToString().ShouldBe("instrumentId");
    }

    [Fact]
    public async Task Slot_boot_opposed_pistons_and_an_opposed_way_answer_by_themselves()
    {
        // Worked by hand: slot at 35, wanted at 90, two slots: onward 55.
        var slot = new JsonObject { ["slots"] = 2, ["presentDeg"] = 35, ["wantedDeg"] = 90, ["direction"] = "clockwise", ["turnsFreelyAtHome"] = "not-known", ["turnsHome"] = null, ["leadMm"] = 0.8, ["needMm"] = null, ["bottomed"] = false, ["rule"] = "onward-only", ["backOffLimitDeg"] = null };
        var seen = await Post("/api/bench/alignment", new JsonObject { ["slot"] = slot, ["side"] = "right", ["place"] = "ahead-of-axle" });
        ((double)seen["alignment"]!["onwardDeg"]!).ShouldBe(55, 1e-9);
        ((double)seen["view"]!["awayDeg"]!).ShouldBe(90);
        (await Post("/api/bench/boot", new JsonObject { ["state"] = "wet", ["resealAllowed"] = "no", ["rule"] = "greased" }))["condemns"]!.GetValue<bool>().ShouldBeTrue();
        JsonObject P(string bank, double now) => new() { ["bank"] = bank, ["number"] = 1, ["beforeMm"] = 8, ["nowMm"] = now };
        (await Post("/api/bench/creep", new JsonObject { ["pistons"] = new JsonArray(P("inner", 2), P("outer", 2.1)), ["homeProtrusionMm"] = 2, ["protrusionLimitMm"] = null }))["allHome"]!.GetValue<bool>().ShouldBeTrue();
        JsonObject Stack(double pad, double rotor) => new() { ["innerMm"] = pad, ["outerMm"] = pad, ["rotorMm"] = rotor };
        var opposed = await Post("/api/bench/retract", new JsonObject
        {
            ["architecture"] = "fixed-hat",
            ["methodUndecided"] = false,
            ["side"] = "left",
            ["piston"] = null,
            ["depth"] = "as-far-as-needed",
            ["reservoir"] = null,
            ["howFar"] = new JsonObject { ["old"] = Stack(8, 10), ["new"] = Stack(15, 11), ["protrusionMm"] = 14, ["homeProtrusionMm"] = 2, ["leadMm"] = null, ["pistonDiameterMm"] = 28, ["pistonsPerCaliper"] = 4, ["marginMm"] = null, ["protrusionOuterMm"] = 14 },
        });
        // 15 - 8 + (11 - 10) / 2 + 1 = 8.5 on each side.
        ((double)opposed["opposed"]!["inner"]!["needMm"]!).ShouldBe(8.5, 1e-9);
    }

    [Fact]
    public async Task The_fluid_bench_answers_what_it_is_asked()
    {
        var a = await Post("/api/bench/fluid", Fluid());
        ((double)a["reservoir"]!["room"]!["drawOffMl"]!).ShouldBe(27.218 - 3.75, 0.001);
        a["fluid"]!["mix"]!.ToString().ShouldBe("never");
        a["fluid"]!["water"]!.ToString().ShouldBe("change");
        a["strokes"]!["verdict"]!.ToString().ShouldBe("not-firm");
        var bled = await Post("/api/bench/bleeding", new JsonObject { ["openings"] = new JsonArray(new JsonObject { ["what"] = "reservoir-dry", ["side"] = null }), ["order"] = null, ["rule"] = "when-opened", ["bleed"] = null });
        bled["decision"]!["scope"]!.ToString().ShouldBe("all");
        (await Post("/api/bench/leaks", new JsonObject { ["heldSeconds"] = 31, ["sank"] = false, ["screwDry"] = "yes", ["banjoDry"] = "not-known", ["pipes"] = "yes" }))["passed"]!.GetValue<bool>().ShouldBeTrue();
    }

    [Fact]
    public async Task In_a_job_lines_append_whatever_the_version_count_once_and_travel_with_the_file()
    {
        await _shop.SignIn();
        // The demo's right corner is five turns on its way.
        var id = await _shop.JobInBay(3);
        JsonNode View(JsonNode v) => v["bench"]!["log"]!;
        var before = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/retraction?side=right&turnsNow=7"))!;
        ((double)View(before)["turnsToGo"]!).ShouldBe(2, 0.1);
        before["lines"]!.AsArray().Count.ShouldBe(6);
        var note = MeasuringTests.Free(("side", "right"), ("point", Point(7, 3.1)), ("instrumentId", "depth-gauge"));
        var first = await Post($"/api/jobs/{id}/retraction/points", note);
        JsonNode.DeepEquals(await Post($"/api/jobs/{id}/retraction/points", note), first).ShouldBeTrue();
        (await Post($"/api/jobs/{id}/retraction/points", MeasuringTests.Free(("side", "right"), ("point", Point(8, 250)), ("instrumentId", "depth-gauge")), HttpStatusCode.UnprocessableEntity))["errors"]![0]!["field"]!.ToString().ShouldBe("protrusionMm");
        await Post($"/api/jobs/{id}/retraction/points/strike", MeasuringTests.Free(("side", "right"), ("pointId", note["point"]!["id"]!.ToString()), ("reason", "on the boot")));
        await Post($"/api/jobs/{id}/retraction/looked", MeasuringTests.Free(("side", "right"), ("facts", Facts(40))));
        await Post($"/api/jobs/{id}/fluid/looked", MeasuringTests.Free(("facts", new JsonObject { ["cap"] = null, ["sides"] = new JsonObject { ["lengthMm"] = 65, ["widthMm"] = 45, ["minToMaxMm"] = 30, ["maxToBrimMm"] = 10, ["wallMm"] = null }, ["bottle"] = "dot51", ["waterPercent"] = 1.2, ["hottestCelsius"] = null, ["method"] = "vacuum" })));
        // Nothing is open yet: there is nothing to bleed.
        await Post($"/api/jobs/{id}/fluid/draws", MeasuringTests.Free(("side", "right"), ("draw", new JsonObject { ["id"] = Guid.NewGuid().ToString(), ["volumeMl"] = 15, ["bubbles"] = false, ["colourChanged"] = false, ["clear"] = true, ["filled"] = false })), HttpStatusCode.Conflict);

        var view = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/retraction?side=right"))!;
        view["lines"]!.AsArray().Select(l => l!["struckBecause"]?.ToString()).ShouldBe([null, null, null, null, null, null, "on the boot"]);
        ((double)view["bench"]!["slotNowDeg"]!).ShouldBe(40, 1e-6);
        var fluid = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/fluid?strokes=3&firm=true"))!["bench"]!;
        // Measured sides outrank the sheet: (65 - 5)(45 - 5) x 30 mm.
        ((double)fluid["reservoir"]!["spec"]!["bandMl"]!).ShouldBe(72, 1e-6);
        fluid["fluid"]!["mix"]!.ToString().ShouldBe("mixes");
        fluid["strokes"]!["verdict"]!.ToString().ShouldBe("firm");

        var file = await _shop.Client.GetStringAsync($"/api/jobs/{id}/file");
        await using var other = await Workshop.Open(demo: false);
        (await other.Client.PostAsJsonAsync("/api/workshop/first-lead", new { workshop = "Elsewhere", name = "Una Pike", pin = "4711" })).EnsureSuccessStatusCode();
        (await other.Client.PostAsync("/api/jobs/import", new StringContent(file, Encoding.UTF8, "application/json"))).EnsureSuccessStatusCode();
        var again = (await other.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/retraction?side=right"))!;
        JsonNode.DeepEquals(again["bench"], view["bench"]).ShouldBeTrue();
    }

    [Fact]
    public async Task Rounds_draws_and_leaks_are_stored_only_where_they_belong_and_say_why_not()
    {
        await _shop.SignIn();
        var id = await _shop.JobInBay(3);
        JsonObject Proud(string bank, double mm) => new() { ["bank"] = bank, ["number"] = 1, ["proudMm"] = mm };
        var round = MeasuringTests.Free(("side", "left"), ("pistons", new JsonArray(Proud("inner", 10), Proud("outer", 10))));
        // Bay 3 is a sliding caliper.
        (await Post($"/api/jobs/{id}/retraction/pistons", round, HttpStatusCode.Conflict))["title"]!.ToString().ShouldContain("one side only");
        await Post($"/api/jobs/{id}/fluid/draws/strike", MeasuringTests.Free(("side", "left"), ("drawId", Guid.NewGuid().ToString()), ("reason", "x")), HttpStatusCode.Conflict);
        await Post($"/api/jobs/{id}/fluid/leaks", MeasuringTests.Free(("seen", new JsonObject { ["heldSeconds"] = 30, ["sank"] = false, ["screwDry"] = "yes", ["banjoDry"] = "yes", ["pipes"] = "yes" })), HttpStatusCode.Conflict);
        var view = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/retraction?side=left"))!;
        view["rounds"]!.AsArray().ShouldBeEmpty();
        view["bench"]!["creep"].ShouldBeNull();
        var fluid = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/fluid"))!;
        (fluid["left"]!.AsArray().Count, (bool)fluid["banjoUndone"]!).ShouldBe((0, false));
        fluid["leaks"].ShouldBeNull();
    }

    [Fact]
    public async Task A_side_or_a_count_that_is_none_is_refused_in_words()
    {
        await _shop.SignIn();
        var id = await _shop.JobInBay(3);
        (await _shop.Client.GetAsync($"/api/jobs/{id}/retraction?side=middle")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await _shop.Client.GetAsync($"/api/jobs/{id}/retraction?side=left&turnsNow=900")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await _shop.Client.GetAsync($"/api/jobs/{id}/retraction?side=left&turnsNow=many")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await _shop.Client.GetAsync($"/api/jobs/{Guid.NewGuid()}/fluid")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var limit = (await _shop.Client.GetFromJsonAsync<JsonNode>("/api/workshop/house-rules"))!["rules"]!.AsObject();
        limit["backOffLimitDeg"] = 900;
        (await Post("/api/workshop/house-rules/preview", limit, HttpStatusCode.UnprocessableEntity))["errors"]![0]!["field"]!.ToString().ShouldBe("backOffLimitDeg");
    }
}

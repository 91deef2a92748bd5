using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Xunit.Abstractions;

namespace PatientPawl.Web.Tests;

public class HostileInputTests(ITestOutputHelper output)
{
    // PAWL_REQUESTS sends as many as is asked: a hundred thousand by hand, five thousand in the usual run.
    private static readonly int Requests = int.TryParse(Environment.GetEnvironmentVariable("PAWL_REQUESTS"), out var asked) ? asked : 5000;

    [Fact]
    public async Task Seeded_nonsense_never_brings_a_500_a_trace_or_a_half_stored_event()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.NewJob();
        var random = new Random(20261125);
        (string Path, JsonNode Body)[] valid = [.. Valid(id), ("/api/jobs/import", JsonNode.Parse(await shop.Client.GetStringAsync($"/api/jobs/{id}/file"))!)];
        var statuses = new Dictionary<int, int>();
        for (var i = 0; i < Requests; i++)
        {
            var (path, body) = valid[random.Next(valid.Length)];
            var text = Spoil(random, body.DeepClone().AsObject());
            using var request = new HttpRequestMessage(random.Next(12) == 0 ? HttpMethod.Put : HttpMethod.Post, random.Next(15) == 0 ? path.Replace(id, Garble(random)) : path)
            {
                Content = new StringContent(text, Encoding.UTF8, random.Next(25) == 0 ? "text/plain" : "application/json"),
            };
            using var answer = await shop.Client.SendAsync(request);
            var status = (int)answer.StatusCode;
            statuses[status] = statuses.GetValueOrDefault(status) + 1;
            var said = await answer.Content.ReadAsStringAsync();
            status.ShouldBeLessThan(500, $"request {i}: {path} {text}\n{said}");
            said.ShouldNotContain("   at ");
            if (status >= 400) answer.Content.Headers.ContentType?.MediaType.ShouldBe("application/problem+json", $"{path} {text} {status}");
        }

        output.WriteLine($"{Requests} requests: {string.Join(", ", statuses.OrderBy(s => s.Key).Select(s => $"{s.Value} x {s.Key}"))}");
        statuses.Keys.Count(k => k >= 400).ShouldBeGreaterThanOrEqualTo(4);
        // Whatever did get through is whole: the job opens, and its file can be read back elsewhere.
        (await shop.Client.GetAsync($"/api/jobs/{id}")).StatusCode.ShouldBe(HttpStatusCode.OK);
        var file = await shop.Client.GetStringAsync($"/api/jobs/{id}/file");
        await using var other = await Workshop.Open();
        await other.SignIn();
        (await other.Client.PostAsync("/api/jobs/import", new StringContent(file, Encoding.UTF8, "application/json"))).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Theory]
    [InlineData("application/json; charset=klingon", """{"vin":"11111111111111111"}""", HttpStatusCode.UnsupportedMediaType)]
    [InlineData("application/json", """{"thicknessMm":0.05,"hubRadiusMm":1e400,"rotorRadiusMm":125}""", HttpStatusCode.BadRequest)]
    [InlineData("application/json", """{"pistons":[null],"homeProtrusionMm":2,"protrusionLimitMm":12}""", HttpStatusCode.BadRequest)]
    public async Task A_charset_nobody_knows_a_number_without_end_and_nothing_in_a_list_are_told_and_not_stumbled_over(string type, string body, HttpStatusCode wanted)
    {
        await using var shop = await Workshop.Open();
        var path = body.Contains("vin", StringComparison.Ordinal) ? "/api/bench/vin" : body.Contains("pistons", StringComparison.Ordinal) ? "/api/bench/creep" : "/api/bench/speck";
        using var content = new ByteArrayContent(Encoding.UTF8.GetBytes(body));
        content.Headers.TryAddWithoutValidation("Content-Type", type);
        var answer = await shop.Client.PostAsync(path, content);
        answer.StatusCode.ShouldBe(wanted, await answer.Content.ReadAsStringAsync());
    }

    [Theory]
    [InlineData("..")]
    [InlineData("a/b")]
    [InlineData("-x")]
    public async Task A_code_that_no_address_can_carry_is_refused(string code)
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var sheet = (await shop.Client.GetFromJsonAsync<JsonNode>("/api/spec-sheets"))![0]!.DeepClone();
        sheet["code"] = code;
        (await Workshop.Problem(await shop.Client.PostAsJsonAsync("/api/spec-sheets", sheet)))["errors"]![0]!["field"]!.ToString().ShouldBe("code");
    }

    private static (string Path, JsonNode Body)[] Valid(string id)
    {
        JsonObject C(params (string, JsonNode?)[] more) => Workshop.Command(1, more);
        var torque = new JsonObject { ["role"] = "bracket", ["value"] = 94, ["unit"] = "N m", ["highValue"] = null, ["threadDiameterMm"] = 12, ["threadPitchMm"] = 1.5, ["class"] = "c109", ["wrenchId"] = "W4", ["crowfoot"] = new JsonObject { ["extensionMm"] = 50, ["angleFromInLineDeg"] = 0 } };
        var stack = new JsonObject { ["innerMm"] = 10, ["outerMm"] = 10, ["rotorMm"] = 10 };
        var retract = new JsonObject
        {
            ["architecture"] = "cable-screw",
            ["methodUndecided"] = false,
            ["side"] = "left",
            ["piston"] = null,
            ["depth"] = "all-the-way-home",
            ["reservoir"] = null,
            ["howFar"] = new JsonObject { ["old"] = stack.DeepClone(), ["new"] = stack.DeepClone(), ["protrusionMm"] = 5, ["homeProtrusionMm"] = 1, ["leadMm"] = 0.8, ["pistonDiameterMm"] = 38, ["pistonsPerCaliper"] = 1, ["marginMm"] = null },
        };
        return
        [
            ("/api/bench/torque", torque),
            ("/api/bench/retract", retract),
            ("/api/bench/identify", new JsonObject { ["observations"] = new JsonArray(new JsonObject { ["look"] = "brake-hose", ["seen"] = "yes" }), ["mechanismRelaxed"] = true }),
            ("/api/bench/shoes", new JsonObject { ["readings"] = new JsonArray(MeasuringTests.Reading("drum-diameter", "open-edge", 0, 190, "drum-gauge"), MeasuringTests.Reading("drum-diameter", "open-edge", 90, 190.1, "drum-gauge")), ["facts"] = MeasuringTests.ShoeFacts("MAX 191"), ["spec"] = MeasuringTests.DrumSpec(), ["newDrum"] = false, ["tryClicks"] = 3 }),
            ("/api/bench/rotor", new JsonObject { ["side"] = "left", ["readings"] = new JsonArray(MeasuringTests.Reading("rotor-thickness", "ring", 0, 9, "micrometer"), MeasuringTests.Reading("rotor-runout", "run-1", 30, 0.02, "dial")), ["facts"] = MeasuringTests.RotorFacts("MIN TH 8"), ["spec"] = null }),
            ("/api/bench/pads", new JsonObject { ["left"] = new JsonArray(MeasuringTests.Reading("pad-lining", "inner-leading", null, 6, "depth-gauge")), ["right"] = new JsonArray(), ["facts"] = MeasuringTests.PadFacts(), ["spec"] = null }),
            ("/api/bench/speck", new JsonObject { ["thicknessMm"] = 0.05, ["hubRadiusMm"] = 70, ["rotorRadiusMm"] = 125 }),
            ("/api/readings/csv/read", new JsonObject { ["text"] = "measurand,value_mm\nridge,0.4" }),
            ($"/api/gauge/{Guid.NewGuid()}/press", new JsonObject { ["instrumentId"] = "caliper", ["sizeMm"] = 10, ["noiseMm"] = 0.01, ["unit"] = "mm" }),
            ($"/api/jobs/{id}/readings", MeasuringTests.Free(("side", "left"), ("readings", new JsonArray(MeasuringTests.Reading("rotor-thickness", "ring", 0, 9, "micrometer"))))),
            ($"/api/jobs/{id}/readings/strike", MeasuringTests.Free(("readingId", Guid.NewGuid().ToString()), ("reason", "x"))),
            ($"/api/jobs/{id}/shoes-looked", MeasuringTests.Free(("side", "left"), ("facts", MeasuringTests.ShoeFacts("MAX 191")))),
            ($"/api/jobs/{id}/rotor-looked", MeasuringTests.Free(("side", "left"), ("facts", MeasuringTests.RotorFacts("MIN 8")))),
            ($"/api/jobs/{id}/pads-looked", MeasuringTests.Free(("facts", MeasuringTests.PadFacts()))),
            ($"/api/jobs/{id}/parking-hold", MeasuringTests.Free(("facts", FleetTests.Hold(2400, 1500)))),
            ($"/api/jobs/{id}/bed-in", MeasuringTests.Free(("driven", 2), ("facts", FleetTests.BedIn()))),
            ("/api/bench/parking-hold", FleetTests.Hold(2400, 1500)),
            ("/api/bench/bed-in", FleetTests.BedIn()),
            ("/api/torques/csv/read", new JsonObject { ["text"] = "side,fastener,index,wanted_nm,then_angle_deg,set_nm,applied_low_nm,applied_high_nm,wrench,verified,hand_tight,signed_by,signed_at\nleft,wheel,1,110,,110,105,115,W4,yes,no,Kit,2026-11-03" }),
            ("/api/workshop/wrenches", WrenchTests.Wrench()),
            ("/api/workshop/wrenches/W1/certificates", WrenchTests.Certificate(3, 100, 100)),
            ("/api/reminders/done", new JsonObject { ["id"] = "pads" }),
            ($"/api/jobs/{id}/retraction/tries", MeasuringTests.Free(("side", "left"), ("turns", 3), ("passes", false))),
            ($"/api/jobs/{id}/star-wheel", MeasuringTests.Free(("side", "left"), ("loosens", "up"), ("holeAt", 6))),
            ("/api/bench/retraction-log", RetractionTests.Log(RetractionTests.Point(0, 8.7), RetractionTests.Point(1, 7.9))),
            ("/api/bench/alignment", new JsonObject { ["slot"] = new JsonObject { ["slots"] = 4, ["presentDeg"] = 18, ["wantedDeg"] = 0, ["direction"] = "clockwise", ["turnsFreelyAtHome"] = "no", ["turnsHome"] = 4, ["leadMm"] = 0.8, ["needMm"] = 2, ["bottomed"] = false, ["rule"] = "onward-only", ["backOffLimitDeg"] = null }, ["side"] = "left", ["place"] = "behind-axle" }),
            ("/api/bench/creep", new JsonObject { ["pistons"] = new JsonArray(new JsonObject { ["bank"] = "inner", ["number"] = 1, ["beforeMm"] = 8, ["nowMm"] = 4 }, new JsonObject { ["bank"] = "outer", ["number"] = 1, ["beforeMm"] = 8, ["nowMm"] = 9 }), ["homeProtrusionMm"] = 2, ["protrusionLimitMm"] = 12 }),
            ("/api/bench/boot", new JsonObject { ["state"] = "torn", ["resealAllowed"] = "no", ["rule"] = "dry" }),
            ("/api/bench/fluid", RetractionTests.Fluid()),
            ("/api/bench/bleeding", new JsonObject { ["openings"] = new JsonArray(new JsonObject { ["what"] = "hose-off", ["side"] = "left" }), ["order"] = null, ["rule"] = "always", ["bleed"] = new JsonObject { ["method"] = "vacuum", ["draws"] = new JsonArray(), ["reservoir"] = new JsonObject { ["bandMl"] = 75, ["headspaceMl"] = 10 }, ["levelPercent"] = 60, ["drawVolumeMl"] = null } }),
            ("/api/bench/leaks", new JsonObject { ["heldSeconds"] = 10, ["sank"] = false, ["screwDry"] = "yes", ["banjoDry"] = "no", ["pipes"] = "yes" }),
            ($"/api/jobs/{id}/retraction/points", MeasuringTests.Free(("side", "left"), ("point", RetractionTests.Point(0, 8.7)), ("instrumentId", "depth-gauge"))),
            ($"/api/jobs/{id}/retraction/points/strike", MeasuringTests.Free(("side", "left"), ("pointId", Guid.NewGuid().ToString()), ("reason", "x"))),
            ($"/api/jobs/{id}/retraction/looked", MeasuringTests.Free(("side", "left"), ("facts", RetractionTests.Facts(18)))),
            ($"/api/jobs/{id}/fluid/looked", MeasuringTests.Free(("facts", new JsonObject { ["cap"] = "dot4", ["sides"] = null, ["bottle"] = null, ["waterPercent"] = 1, ["hottestCelsius"] = 90, ["method"] = "gravity" }))),
            ($"/api/jobs/{id}/fluid/draws", MeasuringTests.Free(("side", "left"), ("draw", new JsonObject { ["id"] = Guid.NewGuid().ToString(), ["volumeMl"] = 15, ["bubbles"] = false, ["colourChanged"] = false, ["clear"] = true, ["filled"] = false }))),
            ($"/api/jobs/{id}/fluid/draws/strike", MeasuringTests.Free(("side", "left"), ("drawId", Guid.NewGuid().ToString()), ("reason", "x"))),
            ($"/api/jobs/{id}/fluid/leaks", MeasuringTests.Free(("seen", new JsonObject { ["heldSeconds"] = 30, ["sank"] = false, ["screwDry"] = "yes", ["banjoDry"] = "yes", ["pipes"] = "yes" }))),
            ($"/api/jobs/{id}/retraction/pistons", MeasuringTests.Free(("side", "left"), ("pistons", new JsonArray(new JsonObject { ["bank"] = "inner", ["number"] = 1, ["proudMm"] = 10 }, new JsonObject { ["bank"] = "outer", ["number"] = 1, ["proudMm"] = 10 })))),
            ("/api/bench/vin", new JsonObject { ["vin"] = "11111111111111111" }),
            ($"/api/jobs/{id}/looks", C(("side", "left"), ("look", "brake-hose"), ("seen", "yes"))),
            ($"/api/jobs/{id}/rulings", C(("side", "left"))),
            ($"/api/jobs/{id}/route", C(("route", "scan-tool"))),
            ($"/api/jobs/{id}/look-over", C(("answers", new JsonArray(new JsonObject { ["id"] = "roll", ["answer"] = "yes" })))),
            ($"/api/jobs/{id}/steps", C(("stepId", "chocks-in"), ("side", null), ("readings", new JsonArray(new JsonObject { ["kind"] = "inner-pad", ["value"] = 12, ["instrumentId"] = "caliper" })), ("acknowledged", new JsonArray("stands")), ("foundOtherwise", false), ("report", null), ("note", null))),
            ($"/api/jobs/{id}/torques", C(("stepId", "wheel-torqued"), ("side", "left"), ("index", 1), ("wrenchId", "W4"), ("crowfoot", null), ("unit", "nm"), ("enteredValue", null), ("enteredPerCorner", null), ("unverifiedReason", null))),
            ($"/api/jobs/{id}/stop-signs", C(("side", "left"), ("sign", "stops-short"), ("note", null))),
            ($"/api/jobs/{id}/lifts", C(("target", Guid.NewGuid().ToString()), ("reason", "x"))),
            ($"/api/jobs/{id}/notes", C(("text", "hello"))),
            ("/api/jobs", C(("jobId", Guid.NewGuid().ToString()), ("bay", 3), ("sheetCode", "CT-1"), ("odometerKm", 10), ("complaint", "x"), ("scope", "pads"), ("vehicle", new JsonObject { ["plate"] = "X 1", ["make"] = "Brae", ["model"] = "X", ["use"] = "x", ["vin"] = null }))),
            ("/api/jobs/import", new JsonObject { ["format"] = "patient-pawl-job", ["formatVersion"] = 1, ["jobId"] = Guid.NewGuid().ToString(), ["events"] = new JsonArray(new JsonObject { ["content"] = new JsonObject { ["eventId"] = "x" }, ["hash"] = "x" }) }),
            ("/api/workshop/house-rules", new JsonObject { ["holding"] = "hold-until-cracked", ["retractDepth"] = "all-the-way-home", ["sides"] = "in-step" }),
            ("/api/session", new JsonObject { ["technicianId"] = Guid.NewGuid().ToString(), ["pin"] = "0000" }),
            ("/api/vehicles", new JsonObject { ["vehicle"] = new JsonObject { ["plate"] = "X 1", ["make"] = "Brae", ["model"] = "X", ["use"] = "x", ["vin"] = null }, ["sheetCode"] = "CT-1" }),
        ];
    }

    private static string Spoil(Random random, JsonObject body)
    {
        for (var n = random.Next(1, 4); n > 0; n--)
        {
            var at = body;
            while (random.Next(2) == 0 && at.Select(p => p.Value).OfType<JsonObject>().ToArray() is { Length: > 0 } inner) at = inner[random.Next(inner.Length)];
            var keys = at.Select(p => p.Key).ToArray();
            if (keys.Length == 0) continue;
            var key = keys[random.Next(keys.Length)];
            switch (random.Next(6))
            {
                case 0:
                    at.Remove(key);
                    break;
                case 1:
                    // The wrong unit in the name.
                    at[key.Replace("Mm", "Inch").Replace("Nm", "LbfFt") + (random.Next(2) == 0 ? "" : "X")] = 7.52;
                    break;
                default:
                    at[key] = Odd(random);
                    break;
            }
        }

        var text = body.ToJsonString();
        return random.Next(10) switch
        {
            0 => text[..random.Next(text.Length)],
            1 => text.Replace(":", random.Next(2) == 0 ? "::" : ":1e999,\"z\":"),
            2 => new string('[', random.Next(2000)) + text,
            _ => text,
        };
    }

    private static JsonNode? Odd(Random random) => random.Next(16) switch
    {
        0 => null,
        1 => -1,
        2 => 1e300,
        3 => long.MaxValue,
        4 => "",
        5 => "'; drop table job_event; --",
        6 => new string('x', 5000),
        7 => "\u0000\u202e\ud83d",
        8 => new JsonArray(),
        9 => new JsonObject(),
        10 => true,
        11 => "NaN",
        12 => 0.1,
        13 => Guid.Empty.ToString(),
        14 => "0001-01-01T00:00:00+14:00",
        _ => "<script>alert(1)</script>",
    };

    private static string Garble(Random random) => random.Next(3) switch { 0 => Guid.NewGuid().ToString(), 1 => "../../etc/passwd", _ => "%00" };

    [Theory]
    [InlineData("{\"role\":\"bracket\",\"value\":94,\"unit\":\"psi\",\"highValue\":null,\"threadDiameterMm\":null,\"threadPitchMm\":null,\"class\":\"not-known\",\"wrenchId\":null,\"crowfoot\":null}", "unit", "pressure")]
    [InlineData("{\"role\":\"bracket\",\"value\":94000,\"unit\":\"N m\",\"highValue\":null,\"threadDiameterMm\":null,\"threadPitchMm\":null,\"class\":\"not-known\",\"wrenchId\":null,\"crowfoot\":null}", "value", "1 to 500 N m")]
    [InlineData("{\"role\":\"bracket\",\"value\":94,\"unit\":\"N m\",\"highValue\":null,\"threadDiameterMm\":null,\"threadPitchMm\":null,\"class\":\"not-known\",\"wrenchId\":\"W99\",\"crowfoot\":null}", "wrenchId", "no such wrench")]
    [InlineData("{\"role\":\"bracket\",\"value\":94,\"unit\":\"N m\",\"highValue\":null,\"threadDiameterInch\":0.5,\"threadPitchMm\":null,\"class\":\"not-known\",\"wrenchId\":null,\"crowfoot\":null}", "$.threadDiameterInch", "units stand in the name")]
    [InlineData("{\"role\":\"bracket\",\"value\":\"94\",\"unit\":\"N m\"}", "$.value", "cannot be read")]
    public async Task Bad_input_names_the_field_the_value_and_what_is_allowed(string body, string field, string says)
    {
        await using var shop = await Workshop.Open(demo: false);
        var answer = await shop.Client.PostAsync("/api/bench/torque", new StringContent(body, Encoding.UTF8, "application/json"));
        ((int)answer.StatusCode).ShouldBeInRange(400, 422);
        var problem = await Workshop.Problem(answer);
        problem["errors"]![0]!["field"]!.ToString().ShouldBe(field);
        problem.ToJsonString().ShouldContain(says);
        problem["errors"]![0]!["allowed"]!.ToString().ShouldNotBeEmpty();
    }

    [Theory]
    [InlineData("/api/jobs/0190a000-0000-7000-8000-000000000000", 404)]
    [InlineData("/api/jobs/not-a-guid", 404)]
    [InlineData("/api/nothing/here", 404)]
    public async Task Unknown_addresses_are_problems_and_never_the_page(string path, int status)
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var answer = await shop.Client.GetAsync(path);
        ((int)answer.StatusCode).ShouldBe(status);
        await Workshop.Problem(answer);
    }
}

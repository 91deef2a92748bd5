using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;

namespace PatientPawl.Web.Tests;

/// <summary>Readings over HTTP: in a job, on a bench, as CSV and from the gauge.</summary>
public sealed class MeasuringTests(DemoShop demo) : IClassFixture<DemoShop>
{
    private readonly Workshop _shop = demo.Shop;

    public static JsonObject Reading(string measurand, string place, double? degrees, double mm, string instrument, bool outside = false) => new()
    {
        ["id"] = Guid.NewGuid().ToString(),
        ["measurand"] = measurand,
        ["place"] = place,
        ["directionDeg"] = degrees,
        ["valueMm"] = mm,
        ["instrumentId"] = outside ? "micrometer" : instrument,
        ["celsius"] = null,
        ["at"] = "2026-11-25T09:00:00+00:00",
    };

    public static JsonObject ShoeFacts(string? stamp) => new()
    {
        ["stamp"] = stamp,
        ["drumCelsius"] = null,
        ["gaugeCelsius"] = null,
        ["differenceDoubtKelvin"] = 0,
        ["condition"] = new JsonObject { ["bondLifted"] = "no", ["contaminated"] = "no", ["springsSound"] = "yes" },
        ["clicksBetween"] = null,
        ["clicksLeft"] = null,
    };

    public static JsonObject RotorFacts(string? stamp) => new()
    {
        ["stamp"] = stamp,
        ["condition"] = new JsonObject { ["cracks"] = "none", ["scoringDepthMm"] = null, ["heatSpots"] = false, ["shook"] = false, ["vanes"] = "none", ["neverMachine"] = false },
        ["movedByDeg"] = null,
        ["studs"] = 5,
        ["possible"] = null,
    };

    public static JsonObject PadFacts() => new()
    {
        ["parts"] = new JsonObject { ["caliper"] = "ahead-of-axle", ["indicator"] = true, ["pistonSpring"] = false, ["pistonPin"] = false, ["electricSensor"] = false, ["sensorWornThrough"] = "not-known" },
        ["frontLeastMm"] = null,
        ["answers"] = new JsonArray(),
        ["history"] = new JsonArray(new JsonObject { ["odometerKm"] = 0, ["liningMm"] = 10 }),
        ["odometerKm"] = 20_000,
        ["nextInspectionKm"] = 15_000,
    };

    public static JsonObject DrumSpec() => new()
    {
        ["nominalMm"] = 190,
        ["maximumMm"] = null,
        ["outOfRoundLimitMm"] = null,
        ["machineToMm"] = null,
        ["minimumLiningMm"] = null,
        ["targetLowMm"] = null,
        ["targetHighMm"] = null,
        ["lockAndBackOff"] = 6,
        ["anchorDistanceMm"] = 80,
        ["adjusterDistanceMm"] = 80,
        ["pitchMm"] = 1.25,
        ["teeth"] = 25,
        ["leftRightPair"] = false,
    };

    /// <summary>A command that never waits for a version.</summary>
    public static JsonObject Free(params (string Key, JsonNode? Value)[] more)
    {
        var body = Workshop.Command(0, more);
        body.Remove("expectedVersion");
        return body;
    }

    private async Task<JsonNode> Post(string path, JsonNode body, HttpStatusCode wanted = HttpStatusCode.OK)
    {
        var answer = await _shop.Client.PostAsJsonAsync(path, body);
        var text = await answer.Content.ReadAsStringAsync();
        answer.StatusCode.ShouldBe(wanted, $"{path}: {text}");
        return JsonNode.Parse(text)!;
    }

    [Fact]
    public async Task Rotor_and_pads_answer_with_verdicts_drawn_from_readings_with_units_in_their_names()
    {
        var ring = new JsonArray([.. Enumerable.Range(0, 8).Select(i => Reading("rotor-thickness", "ring", 45 * i, 9.2, "fine-micrometer"))]);
        var rotor = await Post("/api/bench/rotor", new JsonObject { ["side"] = "left", ["readings"] = ring, ["facts"] = RotorFacts("MIN TH .330 IN"), ["spec"] = null });
        ((double)rotor["minimumMm"]!).ShouldBe(8.382, 1e-9);
        rotor["ruling"]!["fate"]!.ToString().ShouldBe("keep");
        rotor["thickness"]!["variationMm"].ShouldNotBeNull();
        var pads = await Post("/api/bench/pads", new JsonObject
        {
            ["left"] = new JsonArray(Reading("pad-lining", "inner-leading", null, 8, "depth-gauge")),
            ["right"] = new JsonArray(Reading("pad-lining", "outer-leading", null, 8.2, "depth-gauge")),
            ["facts"] = PadFacts(),
            ["spec"] = null,
        });
        // 2 mm in 20 000 km leaves 6 mm for 60 000.
        ((int)pads["forecast"]!["toMinimumKm"]!).ShouldBe(60_000);
        pads["placement"]!["leadingEndAtBottom"]!.GetValue<bool>().ShouldBeFalse();
        ((double)(await Post("/api/bench/speck", new JsonObject { ["thicknessMm"] = 0.05, ["hubRadiusMm"] = 70, ["rotorRadiusMm"] = 125 }))["totalAtRotorMm"]!).ShouldBe(0.0893, 0.0001);
    }

    [Fact]
    public async Task A_quick_bench_goes_into_a_job_whole_or_not_at_all_and_sent_again_it_counts_once()
    {
        await _shop.SignIn();
        // A job whose piston is on its way home.
        var id = await _shop.JobInBay(3);
        JsonObject Whole(JsonObject last) => Free(("side", "right"), ("readings", new JsonArray(
                new JsonObject { ["side"] = "left", ["readings"] = new JsonArray(Reading("pad-lining", "inner-leading", null, 8, "depth-gauge")) },
                new JsonObject { ["side"] = "right", ["readings"] = new JsonArray(Reading("pad-lining", "outer-leading", null, 8.2, "depth-gauge")) })),
            ("shoes", null), ("rotor", null), ("pads", PadFacts()),
            ("points", new JsonArray(Point(8, 3.0), last)));
        var before = (int)(await _shop.Job(id))["version"]!;
        var (readings, lines) = (await Count("benches", "readings"), await Count("retraction?side=right", "lines"));

        // The last line is none that a log takes: what came before it is not stored either.
        using var refused = await _shop.Client.PostAsJsonAsync($"/api/jobs/{id}/attached", Whole(Point(9, 250)));
        (await Workshop.Problem(refused))["errors"]![0]!["field"]!.ToString().ShouldBe("protrusionMm");
        ((int)(await _shop.Job(id))["version"]!).ShouldBe(before);

        var command = Whole(Point(9, 2.2));
        var first = await Post($"/api/jobs/{id}/attached", command);
        ((int)first["version"]!).ShouldBe(before + 5);
        first["eventId"]!.ToString().ShouldBe(command["eventId"]!.ToString());
        JsonNode.DeepEquals(await Post($"/api/jobs/{id}/attached", command), first).ShouldBeTrue();
        ((int)(await _shop.Job(id))["version"]!).ShouldBe(before + 5);
        (await Count("benches", "readings")).ShouldBe(readings + 2);
        (await Count("retraction?side=right", "lines")).ShouldBe(lines + 2);
        // What is told of it is what any log is told: each event sound, in the chain and sealed.
        _shop.Services.GetRequiredService<Data.EventStore>().Verify(Guid.Parse(id)).Verified.ShouldBeTrue();

        var nothing = await _shop.Client.PostAsJsonAsync($"/api/jobs/{id}/attached", Free(("side", "left"), ("readings", new JsonArray()), ("shoes", null), ("rotor", null), ("pads", null), ("points", new JsonArray())));
        (await Workshop.Problem(nothing))["title"]!.ToString().ShouldBe("From 1 to 200 entries are attached at once; 0 were sent.");

        async Task<int> Count(string where, string list) => (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/{where}"))![list]!.AsArray().Count;

        static JsonObject Point(double turns, double mm) => new() { ["point"] = RetractionTests.Point(turns, mm), ["instrumentId"] = "depth-gauge" };
    }

    [Fact]
    public async Task Readings_append_whatever_the_version_are_listed_and_are_struck_out_with_a_reason()
    {
        await _shop.SignIn();
        var id = await _shop.NewJob();
        var one = Reading("rotor-thickness", "ring", 0, 9.1, "micrometer");
        var take = Free(("side", "left"), ("readings", new JsonArray(one, Reading("rotor-thickness", "ring", 90, 9.2, "micrometer"))));
        var first = await Post($"/api/jobs/{id}/readings", take);
        // A note in between makes no version stale for a reading, and the same command twice adds once.
        await Post($"/api/jobs/{id}/notes", Workshop.Command((int)first["version"]!, ("text", "between")));
        JsonNode.DeepEquals(await Post($"/api/jobs/{id}/readings", take), first).ShouldBeTrue();
        await Post($"/api/jobs/{id}/readings/strike", Free(("readingId", one["id"]!.ToString()), ("reason", "slipped")));
        var view = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/benches"))!;
        view["readings"]!.AsArray().Select(r => r!["struckBecause"]?.ToString()).ShouldBe(["slipped", null]);
        // The export holds what stands, and comes back as it went.
        var csv = await _shop.Client.GetStringAsync($"/api/jobs/{id}/readings.csv");
        csv.Split("\r\n")[1].ShouldBe("rotor-thickness,ring,90,9.2,micrometer,,2026-11-25T09:00:00+00:00");
        var back = await Post("/api/readings/csv/read", new JsonObject { ["text"] = csv });
        ((double)back["readings"]![0]!["valueMm"]!).ShouldBe(9.2);
        // The file carries the readings, and the job reads back elsewhere with them.
        var file = await _shop.Client.GetStringAsync($"/api/jobs/{id}/file");
        await using var other = await Workshop.Open();
        await other.SignIn();
        (await other.Client.PostAsync("/api/jobs/import", new StringContent(file, System.Text.Encoding.UTF8, "application/json"))).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await other.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/benches"))!["readings"]!.AsArray().Count.ShouldBe(2);
    }

    [Fact]
    public async Task A_job_refuses_what_cannot_be_and_says_which_field()
    {
        await _shop.SignIn();
        var id = await _shop.NewJob();
        async Task<string> Refused(JsonObject reading)
        {
            var answer = await _shop.Client.PostAsJsonAsync($"/api/jobs/{id}/readings", Free(("side", "left"), ("readings", new JsonArray(reading))));
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            return (await Workshop.Problem(answer))["errors"]![0]!["message"]!.ToString();
        }

        (await Refused(Reading("drum-diameter", "open-edge", 0, 1e9, "drum-gauge"))).ShouldContain("cannot be");
        (await Refused(Reading("drum-diameter", "open-edge", 0, 190, "thumb"))).ShouldContain("No such instrument");
        (await Refused(Reading("drum-diameter", "open-edge", 0, 190, "vernier"))).ShouldContain("ran out on");
        (await Refused(Reading("drum-diameter", "open-edge", 0, 190, "micrometer"))).ShouldContain("does not get at this");
    }

    [Fact]
    public async Task Pasted_readings_are_reported_line_by_line()
    {
        var read = await Post("/api/readings/csv/read", new JsonObject
        {
            ["text"] = "measurand;place;direction_deg;value_mm;instrument\r\ndrum-diameter;open-edge;45;190,96;drum-gauge\r\ndrum-diameter;open-edge;90;wide;drum-gauge\r\nwheel;x;;1;\r\n\"shoe-lining\";front-middle;;2,4;",
        });
        var lines = read["lines"]!.AsArray();
        lines.Select(l => (bool)l!["taken"]!).ShouldBe([true, false, false, true]);
        lines.Select(l => (int)l!["line"]!).ShouldBe([2, 3, 4, 5]);
        ((double)read["readings"]![0]!["valueMm"]!).ShouldBe(190.96);
        read["readings"]![1]!["instrumentId"]!.ToString().ShouldNotBeEmpty("the first instrument that gets at it");
        lines[1]!["says"]!.ToString().ShouldContain("\"wide\" is not a plain figure");
        lines[2]!["says"]!.ToString().ShouldContain("\"wheel\"");
        await Post("/api/readings/csv/read", new JsonObject { ["text"] = "a,b\n1,2" }, HttpStatusCode.UnprocessableEntity);
        await Post("/api/readings/csv/read", new JsonObject { ["text"] = "" }, HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task The_stand_in_gauge_sends_what_its_display_shows_to_its_own_bench_only()
    {
        var (mine, other) = (Guid.NewGuid(), Guid.NewGuid());
        using var stream = await _shop.Client.GetStreamAsync($"/api/gauge/{mine}/readings?instrumentId=drum-gauge");
        using var reader = new StreamReader(stream);
        var line = NextReading(reader);
        JsonObject Press(double size, double noise, string unit) => new() { ["instrumentId"] = "drum-gauge", ["sizeMm"] = size, ["noiseMm"] = noise, ["unit"] = unit };
        await Post($"/api/gauge/{other}/press", Press(100, 0, "mm"));
        JsonNode? sent = null;
        // The stream may still be opening: press until it has arrived.
        for (var i = 0; i < 50 && !line.IsCompleted; i++)
        {
            sent = await Post($"/api/gauge/{mine}/press", Press(190.96, 0, "mm"));
            await Task.WhenAny(line, Task.Delay(100));
        }

        sent!["digits"]!.ToString().ShouldBe("190.95", "its display goes in steps of 0.05");
        (await line).ShouldContain("\"digits\":\"190.95\"");
        (await Post($"/api/gauge/{mine}/press", Press(190.96, 0, "inch")))["digits"]!.ToString().ShouldBe("7.518");
        var noisy = new List<string>();
        for (var i = 0; i < 20; i++) noisy.Add((await Post($"/api/gauge/{mine}/press", Press(190, 0.2, "mm")))["digits"]!.ToString());
        noisy.Distinct().Count().ShouldBeGreaterThan(4);
        await Post($"/api/gauge/{mine}/press", Press(9999, 0, "mm"), HttpStatusCode.UnprocessableEntity);
        await Post($"/api/gauge/{mine}/press", Press(10, -1, "mm"), HttpStatusCode.UnprocessableEntity);
    }

    private static async Task<string> NextReading(StreamReader reader)
    {
        while (await reader.ReadLineAsync() is { } line)
            if (line.StartsWith("data:", StringComparison.Ordinal)) return line;
        return "";
    }

    [Fact]
    public async Task The_lead_keeps_the_list_of_instruments_and_a_lapsed_calibration_shows()
    {
        var list = (await _shop.Client.GetFromJsonAsync<JsonNode>("/api/workshop/instruments"))!.AsArray();
        list.Single(i => !(bool)i!["inDate"]!)!["instrument"]!["id"]!.ToString().ShouldBe("vernier");
        var keep = new JsonArray([.. list.Select(i => i!["instrument"]!.DeepClone()).Where(i => i["id"]!.ToString() != "vernier")]);
        using var client = _shop.Another();
        var put = (JsonNode body) => client.PutAsJsonAsync("/api/workshop/instruments", body);
        (await put(keep)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        await _shop.SignIn("Tor Aske", client);
        (await put(keep)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        await _shop.SignIn(client: client);
        (await put(keep)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await _shop.Client.GetFromJsonAsync<JsonNode>("/api/workshop/instruments"))!.AsArray().Count.ShouldBe(list.Count - 1);
        (await put(new JsonArray())).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await put(new JsonArray(keep[0]!.DeepClone(), keep[0]!.DeepClone()))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var odd = keep[0]!.DeepClone();
        odd["resolutionMm"] = 0;
        (await Workshop.Problem(await put(new JsonArray(odd))))["errors"]![0]!["field"]!.ToString().ShouldBe("resolutionMm");
        (await put(new JsonArray([.. list.Select(i => i!["instrument"]!.DeepClone())]))).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task The_demo_shows_each_verdict_and_what_the_vehicle_remembers()
    {
        await _shop.SignIn();
        var coble = await _shop.Job((await _shop.Client.GetFromJsonAsync<JsonNode>("/api/board"))!.AsArray().Last(b => (int)b!["bay"]! == 1 && b["status"]!.ToString() == "waits")!["jobId"]!.ToString());
        coble["sheet"]!["now"]!["step"]!["stepId"]!.ToString().ShouldBe("verdict-settled");
        var verdicts = new List<string>();
        foreach (var bay in new[] { 1, 2, 6 })
        {
            foreach (var card in (await _shop.Client.GetFromJsonAsync<JsonNode>("/api/board"))!.AsArray().Where(b => (int)b!["bay"]! == bay))
                verdicts.AddRange((await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{card!["jobId"]}/record"))!["verdicts"]!.AsArray().Select(v => v!["verdict"]!.ToString()));
        }

        verdicts.Distinct().Order().ShouldBe(["inside", "outside", "too-close-to-call"]);
        var benches = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{coble["id"]}/benches"))!;
        benches["leftWheel"]!["loosens"]!.ToString().ShouldBe("up");
        // New pads two years ago, and two looks at them since.
        benches["pads"]!["history"]!.AsArray().Count.ShouldBe(3);
    }
}

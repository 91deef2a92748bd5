using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace PatientPawl.Web.Tests;

/// <summary>Nothing that is known is handed over: what was found stands in the way until it is put right, or the lead leaves it open by name.</summary>
public sealed class HandOverTests(DemoShop demo) : IClassFixture<DemoShop>
{
    private readonly Workshop _shop = demo.Shop;

    // What is only recorded, or changes what is wanted and not what is fit.
    private static readonly string[] Recorded =
    [
        "screw-rounded", "hub-stepped", "no-sensor", "studs-lubricated", "anti-seize-on-screw", "part-missing", "turns-at-bottom", "two-stages", "other-way", "bolt-first", "bolts-left-alone",
        "parts-left-over",
    ];

    private static async Task ToTheEnd(Hand hand)
    {
        for (var acts = 0; acts < 400 && !(bool)hand.Job["handedOver"]!; acts++) await hand.Step(null);
        ((bool)hand.Job["handedOver"]!).ShouldBeTrue();
    }

    private async Task<JsonNode> HandOver(Hand hand, HttpStatusCode wanted)
    {
        await hand.Refresh();
        var answer = await _shop.Client.PostAsJsonAsync($"/api/jobs/{hand.Id}/steps", Workshop.Command((int)hand.Job["version"]!, ("stepId", "handed-over"), ("side", null),
            ("readings", new JsonArray()), ("acknowledged", new JsonArray()), ("outcome", null), ("report", null), ("note", null)));
        var text = await answer.Content.ReadAsStringAsync();
        answer.StatusCode.ShouldBe(wanted, text);
        return JsonNode.Parse(text)!;
    }

    private static List<(string Kind, string? Side, string? Note)> CanFind(Hand hand) =>
    [
        .. hand.Sheet["canFind"]!.AsArray().SelectMany((at, i) => at!.AsArray().Select(c => (c!["kind"]!.ToString(), i == 0 ? "left" : i == 2 ? "right" : null,
            c["noteWanted"] is null ? null : "as it was seen"))),
    ];

    public static TheoryData<string, string, string?> Jobs() => new()
    {
        { "GNT 164", "pads-and-rotors", null }, { "GNT 207", "pads", "scan-tool" }, { "GNT 140", "shoes", null }, { "GNT 266", "pads", "puller-release" },
    };

    [Theory]
    [MemberData(nameof(Jobs))]
    public async Task Whatever_is_found_after_the_keys_were_given_back_takes_the_hand_over_back(string plate, string scope, string? route)
    {
        await _shop.SignIn();
        var looks = plate switch { "GNT 207" => EverydayJobsTests.Motor, "GNT 140" => EverydayJobsTests.Hat, "GNT 266" => EverydayJobsTests.Puller, _ => EverydayJobsTests.Cable };
        var hand = await Hand.Open(_shop, plate, scope, looks, route);
        await ToTheEnd(hand);
        var asked = 0;
        foreach (var (kind, side, note) in CanFind(hand))
        {
            await hand.Report(kind, side, note);
            if (!Recorded.Contains(kind))
            {
                asked++;
                ((bool)hand.Job["handedOver"]!).ShouldBeFalse(kind);
                hand.Sheet["now"].ShouldNotBeNull(kind);
                (await HandOver(hand, HttpStatusCode.Conflict))["reason"]!.ToString().ShouldBe("not-allowed", kind);
            }

            // Taken back: it was not so after all, and what was proved stands as it did.
            await hand.Undo("it was another car");
            await ToTheEnd(hand);
        }

        asked.ShouldBeGreaterThan(25);
    }

    [Fact]
    public async Task What_was_put_right_and_undone_again_stands_in_the_way_again()
    {
        await _shop.SignIn();
        var hand = await Hand.Open(_shop, "GNT 077", "pads", EverydayJobsTests.Cable, null);
        await ToTheEnd(hand);
        await hand.Report("speed-sensor", "left", null);
        while (hand.Sheet["now"]!["step"]!["stepId"]!.ToString() != "handed-over") await hand.Step(null);
        var mended = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{hand.Id}/file"))!["events"]!.AsArray()
            .Single(e => e!["content"]!["event"]!["step"]?["stepId"]?.ToString() == "speed-sensor-mended")!["content"]!["eventId"]!.ToString();
        await hand.Lift(mended, "it was the other corner's");
        (await HandOver(hand, HttpStatusCode.Conflict))["because"]!.AsArray().ShouldNotBeEmpty();
        await ToTheEnd(hand);
    }

    [Fact]
    public async Task Closing_up_with_a_seized_pin_waits_for_the_leads_word_which_the_customer_reads_and_the_car_is_not_driven()
    {
        await _shop.SignIn();
        var hand = await Hand.Open(_shop, "GNT 077", "pads", EverydayJobsTests.Cable, null);
        while (hand.Sheet["now"]!["step"]!["stepId"]!.ToString() != "pads-in") await hand.Step(null);
        await hand.Report("seized-pin", "left", null);
        await hand.Aim("close-up", "the customer needs the bay");
        var done = new List<string>();
        for (var acts = 0; acts < 200 && !(bool)hand.Job["handedOver"]!; acts++)
        {
            done.Add(hand.Sheet["now"]!["step"]!["stepId"]!.ToString());
            await hand.Step(null);
        }

        done.ShouldContain("left-open-slide-pins");
        done.ShouldContain("tagged-off-road");
        done.ShouldNotContain("test-driven");
        done.ShouldNotContain("bed-in");
        var told = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{hand.Id}/customer-sheet"))!["forYou"]!.AsArray().Select(a => a!.ToString()).ToArray();
        told.ShouldContain(t => t.StartsWith("This car is not to be driven on the road."));
        told.ShouldContain("Left as it is, left: slide pins. Kit Ransome: seen to and put right");
        told.ShouldNotContain(t => t.Contains("pedal is firm"));
        (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{hand.Id}/record"))!["openPoints"]!.AsArray().ShouldNotBeEmpty();
    }

    [Fact]
    public async Task Only_the_lead_leaves_something_open()
    {
        await _shop.SignIn();
        var hand = await Hand.Open(_shop, "GNT 077", "inspect", EverydayJobsTests.Cable, null);
        while (hand.Sheet["now"]!["step"]!["stepId"]!.ToString() != "inspected") await hand.Step(null);
        await hand.Report("hose-unsound", "left", null);
        using var ines = _shop.Another();
        await _shop.SignIn("Ines Marrow", ines);
        var refused = await ines.PostAsJsonAsync($"/api/jobs/{hand.Id}/steps", Workshop.Command((int)hand.Job["version"]!, ("stepId", "left-open-brake-hose"), ("side", "left"),
            ("readings", new JsonArray()), ("acknowledged", new JsonArray()), ("outcome", null), ("report", null), ("note", "it will do")));
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await Workshop.Problem(refused))["title"]!.ToString().ShouldBe("The lead does this.");
        // The inspection ends with what it found: no pedal is pressed over a cracked hose, and nobody drives it.
        var done = new List<string>();
        for (var acts = 0; acts < 200 && !(bool)hand.Job["handedOver"]!; acts++)
        {
            done.Add(hand.Sheet["now"]!["step"]!["stepId"]!.ToString());
            await hand.Step(null);
        }

        done.ShouldContain("left-open-brake-hose");
        done.ShouldNotContain("pedal-proved");
        done.ShouldNotContain("test-driven");
        done.ShouldNotContain("hose-renewed");
    }

    [Fact]
    public async Task Undoing_a_signature_asks_what_was_done_all_the_same_and_leaves_the_car_where_it_stands()
    {
        await _shop.SignIn();
        var hand = await Hand.Open(_shop, "GNT 077", "pads", EverydayJobsTests.Cable, null);
        await ToTheEnd(hand);
        var events = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{hand.Id}/file"))!["events"]!.AsArray().Select(e => e!["content"]!).ToList();
        var pin = events.First(e => e["event"]!["type"]!.ToString() == "torque-signed" && e["event"]!["step"]!["stepId"]!.ToString() == "slide-pins-torqued")["eventId"]!.ToString();
        var preview = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{hand.Id}/lifts/{pin}"))!;
        preview["asked"]!.AsArray().Select(a => a!["says"]!.ToString()).ShouldContain("Wheel on, by hand, left");
        preview["asked"]!.AsArray().ShouldAllBe(a => !a!["says"]!.ToString().StartsWith("Lower"));
        preview["undoes"]!.AsArray().Select(a => a!.ToString()).ShouldNotContain("New pads in, right");
        await hand.Lift(pin, "the wrench had not clicked");
        ((bool)hand.Job["handedOver"]!).ShouldBeFalse();
        var strip = hand.Sheet["strip"]!.ToJsonString();
        strip.ShouldNotContain("stands");
        await ToTheEnd(hand);
    }

    [Fact]
    public async Task A_step_that_later_work_could_not_have_been_done_without_is_not_undone()
    {
        await _shop.SignIn();
        var hand = await Hand.Open(_shop, "GNT 077", "pads", EverydayJobsTests.Cable, null);
        while (hand.Sheet["now"]!["step"]!["stepId"]!.ToString() != "pedal-proved") await hand.Step(null);
        var on = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{hand.Id}/file"))!["events"]!.AsArray().Select(e => e!["content"]!)
            .First(e => e["event"]!["step"]?["stepId"]?.ToString() == "caliper-on")["eventId"]!.ToString();
        var answer = await _shop.Client.PostAsJsonAsync($"/api/jobs/{hand.Id}/lifts", Workshop.Command((int)hand.Job["version"]!, ("target", on), ("reason", "it was not on"), ("notDone", new JsonArray())));
        answer.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var problem = await Workshop.Problem(answer);
        problem["title"]!.ToString().ShouldBe("Then this was done too: there is nothing to undo.");
        problem["because"]!.AsArray().Select(b => b!.ToString()).ShouldContain(b => b.StartsWith("Slide pins") && b.EndsWith("could not have been done without it."));
    }

    [Fact]
    public async Task A_second_job_on_a_car_or_in_a_bay_is_asked_about_whatever_the_plates_spelling()
    {
        await _shop.SignIn();
        var first = await _shop.NewJob("GNT 251", 77);
        var known = (await _shop.Client.GetFromJsonAsync<JsonNode>("/api/vehicles"))!.AsArray().First(v => v!["vehicle"]!["plate"]!.ToString() == "GNT 251")!;
        JsonObject Body(string plate, int bay, bool anyway)
        {
            var body = Workshop.Command(0, ("jobId", Guid.NewGuid().ToString()), ("bay", bay), ("sheetCode", known["sheetCode"]!.ToString()), ("odometerKm", 10), ("complaint", "test"), ("scope", "pads"), ("anyway", anyway));
            body["vehicle"] = known["vehicle"]!.DeepClone();
            body["vehicle"]!["plate"] = plate;
            return body;
        }

        foreach (var (plate, bay) in new[] { ("gnt-251", 78), ("GNT251", 78), ("GNT 999", 77) })
        {
            var answer = await _shop.Client.PostAsJsonAsync("/api/jobs", Body(plate, bay, false));
            answer.StatusCode.ShouldBe(HttpStatusCode.Conflict, plate);
            var problem = await Workshop.Problem(answer);
            problem["reason"]!.ToString().ShouldBe("already-open");
            problem["open"]!.AsArray().Single()!["jobId"]!.ToString().ShouldBe(first);
        }

        (await _shop.Client.PostAsJsonAsync("/api/jobs", Body("GNT 251", 78, true))).StatusCode.ShouldBe(HttpStatusCode.OK);
    }
}

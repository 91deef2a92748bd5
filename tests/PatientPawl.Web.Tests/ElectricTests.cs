using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using PatientPawl.Core;
using PatientPawl.Core.Electric;
using PatientPawl.Core.Electric.Link;
using PatientPawl.Core.Jobs;
using PatientPawl.Data;
using PatientPawl.StandIns.Car;
using PatientPawl.StandIns.Link;
using PatientPawl.Web.Electric;
using UnitsNet;

namespace PatientPawl.Web.Tests;

/// <summary>The electric bench of a practice job on the stand-in car, over a real socket: every end that a routine can have comes into the plan.</summary>
public sealed class ElectricTests : IAsyncLifetime
{
    private Workshop _shop = null!;

    public async Task InitializeAsync()
    {
        _shop = await Workshop.Open(options: o => o with { CarSpeed = 60 });
        await _shop.SignIn();
    }

    public async Task DisposeAsync() => await _shop.DisposeAsync();

    private Task<Hand> Practice(string scope = "pads", (string, string)[]? looks = null, string plate = "GNT 207", string route = "scan-tool", Workshop? shop = null) =>
        Hand.Open(shop ?? _shop, plate, scope, looks ?? EverydayJobsTests.Motor, route, purpose: "practice");

    private static async Task<JsonNode> Bench(Hand hand) => (await hand.Shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{hand.Id}/electric"))!;

    private static JsonNode? Offered(JsonNode bench, string step) => bench["actions"]!.AsArray().FirstOrDefault(a => (bool)a!["allowed"]! && a["step"]!["stepId"]!.ToString() == step);

    private static async Task<HttpResponseMessage> Post(Hand hand, JsonNode action, string[]? clear = null) => await hand.Shop.Client.PostAsJsonAsync($"/api/jobs/{hand.Id}/electric/act", Workshop.Command((int)(await hand.Shop.Job(hand.Id))["version"]!,
        ("act", action["act"]!.ToString()), ("clear", new JsonArray([.. (clear ?? ["Kit Ransome"]).Select(n => (JsonNode)n!)])), ("acknowledged", new JsonArray([.. action["cautions"]!.AsArray().Select(c => (JsonNode)c!["id"]!.ToString()!)]))));

    /// <summary>Does an act and waits until its end is recorded.</summary>
    private static async Task<JsonNode> Act(Hand hand, JsonNode action)
    {
        var answer = await Post(hand, action);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        return await Ended(hand);
    }

    private static async Task<JsonNode> Ended(Hand hand)
    {
        for (var k = 0; k < 400; k++)
        {
            var running = (await Runs(hand).LiveAsync(Guid.Parse(hand.Id), default)).Running;
            var bench = await Bench(hand);
            if (bench["pending"] is null && running is null)
            {
                await hand.Refresh();
                return bench;
            }

            await Task.Delay(50);
        }

        throw new TimeoutException($"The routine did not end: {string.Join(" / ", await Log(hand))}");
    }

    private static ElectricRuns Runs(Hand hand) => hand.Shop.Services.GetRequiredService<ElectricRuns>();

    /// <summary>Works the job to a step, by the bench where it offers one.</summary>
    private static async Task<JsonNode> To(Hand hand, string step, Func<string, bool>? byHand = null)
    {
        for (var acts = 0; acts < 300; acts++)
        {
            var now = hand.Sheet["now"];
            if (now is null || now["step"]!["stepId"]!.ToString() == step) return hand.Job;
            var bench = await Bench(hand);
            if (byHand?.Invoke(now["step"]!["stepId"]!.ToString()) != true && Offered(bench, now["step"]!["stepId"]!.ToString()) is { } action) await Act(hand, action);
            else await hand.Step(null);
        }

        throw new TimeoutException($"{step} was not reached.");
    }

    private static async Task<string[]> Log(Hand hand) =>
        [.. (await hand.Shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{hand.Id}/record"))!["log"]!.AsArray().Select(l => $"{l!["what"]}: {l["detail"]}")];

    private void Fault(CarFault fault, bool on = true) => _shop.Services.GetRequiredService<CarHost>().Set(fault, on);

    [Theory]
    [InlineData("motor", "scan-tool")]
    [InlineData("puller", "scan-tool")]
    public async Task A_whole_job_by_the_link_is_handed_over_with_its_traces_and_its_codes_clear(string brake, string route)
    {
        var hand = await Practice(looks: brake == "motor" ? null : EverydayJobsTests.Puller, route: route);
        await To(hand, "none");
        ((bool)hand.Job["handedOver"]!).ShouldBeTrue($"stands at {hand.Sheet["now"]?["step"]}");
        var log = await Log(hand);
        log.ShouldContain(l => l.Contains("at the back stop", StringComparison.Ordinal));
        log.ShouldContain(l => l.Contains("Cycles took", StringComparison.Ordinal));
        var bench = await Bench(hand);
        bench["traces"]!.AsArray().Count.ShouldBe(brake == "motor" ? 2 : 1);
        if (brake == "motor") ((bool)bench["compared"]!["alike"]!).ShouldBeTrue(bench["compared"]!.ToJsonString());
        var exchange = await _shop.Client.GetFromJsonAsync<JsonArray>($"/api/jobs/{hand.Id}/electric/exchange");
        exchange!.Select(e => e!["words"]!.ToString()).ShouldContain("Start: into service");
        // The traces travel in the job's file, found by their hashes.
        var file = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{hand.Id}/file"))!;
        file["attachments"]!.AsArray().ShouldContain(a => a!["type"]!.ToString() == "text/csv");
        var sha = bench["traces"]![0]!["sha256"]!.ToString();
        (await _shop.Client.GetStringAsync($"/api/jobs/{hand.Id}/traces/{sha}")).ShouldStartWith("time_s,current_a\n0,");
    }

    [Theory]
    [InlineData("motor", "in-car")]
    [InlineData("motor", "spindle-by-hand")]
    [InlineData("puller", "puller-release")]
    public async Task By_the_cars_own_sequence_by_hand_and_by_the_pullers_release_the_motors_end_where_the_plan_has_them(string brake, string route)
    {
        var hand = await Practice(looks: brake == "motor" ? null : EverydayJobsTests.Puller, route: route);
        await To(hand, "none");
        ((bool)hand.Job["handedOver"]!).ShouldBeTrue($"stands at {hand.Sheet["now"]?["step"]}");
        (await Log(hand)).ShouldContain(l => l.Contains("Cycles took", StringComparison.Ordinal));
        (await Runs(hand).LiveAsync(Guid.Parse(hand.Id), default)).State.ShouldBe(UnitState.Applied);
    }

    [Fact]
    public async Task The_link_serves_no_real_car()
    {
        var real = await Hand.Open(_shop, "GNT 207", "pads", EverydayJobsTests.Motor, "scan-tool");
        var bench = await Bench(real);
        ((bool)bench["servesLink"]!).ShouldBeFalse();
        var action = bench["actions"]!.AsArray().First(a => a!["step"] is not null)!;
        (await Post(real, action)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await _shop.Client.GetAsync($"/api/jobs/{real.Id}/electric/live")).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task One_job_has_the_link_at_a_time()
    {
        var (hand, other) = (await Practice(), await Practice(plate: "GNT 512"));
        await To(hand, "service-entered", byHand: _ => true);
        await To(other, "service-entered", byHand: _ => true);
        var runs = _shop.Services.GetRequiredService<ElectricRuns>();
        (await runs.LiveAsync(Guid.Parse(hand.Id), default)).Linked.ShouldBeTrue();
        (await runs.LiveAsync(Guid.Parse(other.Id), default)).Says.ShouldBe("Another job has the link.");
        var action = Offered(await Bench(other), "service-entered")!;
        (await runs.LiveAsync(Guid.Parse(hand.Id), default)).Linked.ShouldBeTrue("Looked at again.");
        var refused = await Post(other, action);
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await Workshop.Problem(refused)).ToJsonString().ShouldContain("Its electric bench is open");
        await Task.Delay(3200);
        (await runs.LiveAsync(Guid.Parse(other.Id), default)).Linked.ShouldBeTrue("Nobody looked at the other for a moment.");
    }

    [Fact]
    public async Task A_bench_that_is_closed_gives_the_link_back_at_once()
    {
        var (hand, other) = (await Practice(), await Practice(plate: "GNT 512"));
        var runs = _shop.Services.GetRequiredService<ElectricRuns>();
        async Task<bool> Linked(Hand of) => (await runs.LiveAsync(Guid.Parse(of.Id), default)).Linked;
        var (first, second) = (runs.Open(Guid.Parse(hand.Id)), runs.Open(Guid.Parse(hand.Id)));
        (await Linked(hand)).ShouldBeTrue();
        first.Dispose();
        (await Linked(other)).ShouldBeFalse("another page still has the bench open");
        second.Dispose();
        (await Linked(other)).ShouldBeTrue();
    }

    [Fact]
    public async Task What_the_plan_does_not_offer_the_bench_does_not_either_and_says_why()
    {
        var hand = await Practice();
        await To(hand, "service-entered");
        var bench = await Bench(hand);
        var offered = bench["actions"]!.AsArray().Where(a => (bool)a!["allowed"]!).Select(a => a!["act"]!.ToString());
        offered.ShouldBe(["into-service"]);
        bench["actions"]!.AsArray().Where(a => !(bool)a!["allowed"]!).ShouldAllBe(a => a!["because"]!.AsArray().Count > 0);
        (await Post(hand, bench["actions"]!.AsArray().First(a => a!["act"]!.ToString() == "close")!)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task Each_person_on_the_job_says_that_their_hands_are_clear()
    {
        var hand = await Practice();
        await To(hand, "service-entered");
        using var other = _shop.Another();
        await _shop.SignIn("Sol Penhale", other);
        (await other.PostAsJsonAsync($"/api/jobs/{hand.Id}/notes", Workshop.Command((int)hand.Job["version"]!, ("text", "I hold the lamp")))).EnsureSuccessStatusCode();
        await hand.Refresh();
        var bench = await Bench(hand);
        bench["people"]!.AsArray().Select(p => p!.ToString()).ShouldBe(["Kit Ransome", "Sol Penhale"]);
        var action = Offered(bench, "service-entered")!;
        var refused = await Post(hand, action);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Workshop.Problem(refused)).ToJsonString().ShouldContain("Sol Penhale is on this job");
        (await Post(hand, action, ["Kit Ransome", "Sol Penhale"])).StatusCode.ShouldBe(HttpStatusCode.OK);
        await Ended(hand);
        (await Log(hand)).ShouldContain(l => l.Contains("hands clear: Kit Ransome, Sol Penhale", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_weak_battery_is_refused_and_goes_on_with_a_charger_that_works()
    {
        var hand = await Practice();
        await To(hand, "service-entered");
        Fault(CarFault.ChargerOff);
        Fault(CarFault.WeakBattery);
        var bench = await Act(hand, Offered(await Bench(hand), "service-entered")!);
        hand.Sheet["now"]!["step"]!["stepId"]!.ToString().ShouldBe("service-entered");
        (await Log(hand)).ShouldContain(l => l.StartsWith("Tool refused", StringComparison.Ordinal) && l.Contains("voltage is too low", StringComparison.Ordinal));
        Fault(CarFault.ChargerOff, false);
        await Act(hand, Offered(bench, "service-entered")!);
        hand.Sheet["now"]!["step"]!["stepId"]!.ToString().ShouldNotBe("service-entered");
    }

    [Fact]
    public async Task An_unplugged_actuator_is_refused_with_its_code()
    {
        var hand = await Practice();
        await To(hand, "service-entered");
        Fault(CarFault.UnpluggedRight);
        await Act(hand, Offered(await Bench(hand), "service-entered")!);
        var bench = await Bench(hand);
        bench["ended"]!["codes"]!.AsArray().Single()!["letters"]!.ToString().ShouldBe("C1A02");
        bench["ended"]!["codes"]![0]!["known"]!["remedy"]!.ToString().ShouldStartWith("Plug home");
        (await Log(hand)).ShouldContain(l => l.Contains("C1A02", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData(CarFault.PadsMissing, "C1A22", "nothing-to-clamp", "right")]
    [InlineData(CarFault.Seized, "C1A11", "seized", "left")]
    public async Task A_close_that_finds_nothing_or_does_not_turn_leaves_the_brake_unknown_with_its_code_and_its_trace(CarFault fault, string code, string kind, string side)
    {
        var hand = await Practice();
        await To(hand, "service-closed");
        Fault(fault);
        var bench = await Act(hand, Offered(await Bench(hand), "service-closed")!);
        (await Log(hand)).ShouldContain(l => l.StartsWith("Ended, not as asked", StringComparison.Ordinal) && l.Contains(code, StringComparison.Ordinal));
        bench["traces"]!.AsArray().First(t => t!["side"]!.ToString() == side)!["reading"]!["kind"]!.ToString().ShouldBe(kind);
        ((bool)bench["compared"]!["alike"]!).ShouldBeFalse();
        hand.Sheet.ToJsonString().ShouldContain("service-verified");
    }

    [Fact]
    public async Task A_pedal_that_was_not_pumped_shows_in_the_trace()
    {
        var hand = await Practice();
        await To(hand, "service-closed");
        Fault(CarFault.NotPumped);
        var bench = await Act(hand, Offered(await Bench(hand), "service-closed")!);
        bench["traces"]!.AsArray().ShouldAllBe(t => t!["reading"]!["kind"]!.ToString() == "drags-piston");
    }

    [Fact]
    public async Task Service_that_fails_on_one_side_goes_on_by_hand_there()
    {
        var hand = await Practice();
        await To(hand, "service-entered");
        Fault(CarFault.ServiceFailsRight);
        await Act(hand, Offered(await Bench(hand), "service-entered")!);
        (await Log(hand)).ShouldContain(l => l.Contains("the right one did not go back", StringComparison.OrdinalIgnoreCase));
    }

    [Fact]
    public async Task A_link_that_is_lost_while_closing_is_asked_again_by_its_result_and_nothing_starts_twice()
    {
        var hand = await Practice();
        await To(hand, "service-closed");
        Fault(CarFault.LinkLost);
        await Act(hand, Offered(await Bench(hand), "service-closed")!);
        var exchange = (await _shop.Client.GetFromJsonAsync<JsonArray>($"/api/jobs/{hand.Id}/electric/exchange"))!;
        exchange.Count(e => e!["words"]!.ToString() == "Start: close" && (bool)e["sent"]!).ShouldBe(1);
        exchange.Count(e => e!["words"]!.ToString() == "May I speak?").ShouldBeGreaterThan(1, "The link was opened anew.");
        hand.Sheet["now"]!["step"]!["stepId"]!.ToString().ShouldNotBe("service-closed");
        (await Log(hand)).ShouldContain(l => l.StartsWith("Ended: Both released", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Stopped_by_hand_nobody_knows_how_it_stands_and_it_is_looked_at()
    {
        await using var slow = await Workshop.Open(options: o => o with { CarSpeed = 1 });
        await slow.SignIn();
        var hand = await Practice(shop: slow);
        await To(hand, "service-entered", byHand: s => s != "service-entered");
        (await Post(hand, Offered(await Bench(hand), "service-entered")!)).EnsureSuccessStatusCode();
        await Task.Delay(600);
        // While it runs nothing else is done at this car.
        (await Bench(hand))["pending"]!["says"]!.ToString().ShouldContain("Hands out");
        (await slow.Client.PostAsync($"/api/jobs/{hand.Id}/electric/stop", null)).EnsureSuccessStatusCode();
        var bench = await Ended(hand);
        bench["ended"]!["says"]!.ToString().ShouldStartWith("Stopped by hand");
        hand.Sheet.ToJsonString().ShouldContain("service-verified");
    }

    [Fact]
    public async Task A_server_that_was_killed_while_it_ran_asks_the_car_how_it_ended()
    {
        // The car goes on in a process of its own; here it is a server beside this one.
        await using var link = new CarServer(new StandInCar(), new(Speed: 60, Announce: false), TimeProvider.System);
        link.Start();
        link.With(c =>
        {
            c.Leave(UnitState.Released);
            c.Charge(true);
            return 0;
        });
        await using var shop = await Workshop.Open(options: o => o with { Car = ("127.0.0.1", link.Port) });
        await shop.SignIn();
        var hand = await Practice(shop: shop);
        await To(hand, "service-entered", byHand: s => s != "service-entered");
        var action = Offered(await Bench(hand), "service-entered")!;
        // What a killed server leaves behind: it was asked, it was begun, and nobody wrote down how it ended.
        link.With(c => c.Start(Routine.ServiceIn)).ShouldBeNull();
        Append(hand, s => JobRules.Ask(s, ElectricAct.IntoService, ["Kit Ransome"], ["actuators"], "Kit Ransome", DateTimeOffset.UtcNow));
        (await Post(hand, action)).StatusCode.ShouldBe(HttpStatusCode.Conflict, "Never a second start.");
        (await shop.Client.PostAsync($"/api/jobs/{hand.Id}/electric/settle", null)).EnsureSuccessStatusCode();
        await Ended(hand);
        hand.Sheet["now"]!["step"]!["stepId"]!.ToString().ShouldNotBe("service-entered");
        (await Log(hand)).ShouldContain(l => l.StartsWith("Ended: Both at the back stop", StringComparison.Ordinal));
    }

    private static void Append(Hand hand, Func<JobState, JobEvent> decide) => hand.Shop.Services.GetRequiredService<EventStore>()
        .Append(Guid.Parse(hand.Id), Guid.NewGuid(), null, Guid.NewGuid().ToString(), new(Guid.NewGuid(), "Kit Ransome", DateTimeOffset.Now), decide);

    [Fact]
    public async Task A_job_that_has_no_room_for_another_trace_records_all_the_same_how_it_ended()
    {
        var hand = await Practice();
        await To(hand, "service-entered");
        var reading = TraceReader.Read(CurrentTrace.From([.. Enumerable.Repeat(ElectricCurrent.Zero, 20)], Frequency.FromHertz(100)));
        for (var k = (await Bench(hand))["traces"]!.AsArray().Count; k < JobRules.MostTraces; k++)
            Append(hand, s => s.Standing.Count(e => e.Event is TraceKept) < JobRules.MostTraces ? JobRules.KeepTrace(s, new(new string('0', 64), Side.Left, "a test", null, reading)) : new NoteAdded("full"));
        await hand.Refresh();
        await Act(hand, Offered(await Bench(hand), "service-entered")!);
        hand.Sheet["now"]!["step"]!["stepId"]!.ToString().ShouldNotBe("service-entered");
    }

    [Fact]
    public async Task A_car_that_reports_another_brake_is_not_moved()
    {
        var hand = await Practice();
        await To(hand, "service-entered");
        Fault(CarFault.WrongBrake);
        (await Runs(hand).LiveAsync(Guid.Parse(hand.Id), default)).Warns!.ShouldContain("1 motor, and this job's brake has 2");
        var bench = await Act(hand, Offered(await Bench(hand), "service-entered")!);
        bench["ended"]!["says"]!.ToString().ShouldContain("Nothing is moved");
        hand.Sheet["now"]!["step"]!["stepId"]!.ToString().ShouldBe("service-entered");
    }

    [Fact]
    public async Task A_spindle_that_came_out_again_in_service_is_told_before_anything_is_pressed_onto_it()
    {
        var hand = await Practice();
        await To(hand, "service-entered");
        await Act(hand, Offered(await Bench(hand), "service-entered")!);
        (await Runs(hand).LiveAsync(Guid.Parse(hand.Id), default)).Warns.ShouldBeNull();
        Fault(CarFault.OnTheSpindle);
        (await Runs(hand).LiveAsync(Guid.Parse(hand.Id), default)).Warns!.ShouldContain("left spindle stands 4 mm from its stop: it is not back");
    }

    [Fact]
    public async Task A_trace_from_a_clamp_meter_is_read_with_no_job_and_kept_with_one()
    {
        var points = string.Join('\n', Enumerable.Range(0, 900).Select(k => k / 500.0).Select(t => FormattableString.Invariant($"{(t is < 0.2 or > 1.6 ? 0.01 : 1.8 + 10 * Math.Exp(-(t - 0.2) / 0.02) + (t > 0.8 ? 12 * (t - 0.8) : 0)):0.###};{t * 1000:0}")));
        var answer = await _shop.Client.PostAsJsonAsync("/api/bench/current", new { text = "current_A;time_ms\n" + points });
        answer.EnsureSuccessStatusCode();
        var read = (await answer.Content.ReadFromJsonAsync<JsonNode>())!;
        read["reading"]!["kind"]!.ToString().ShouldBe("later-apply");
        ((double)read["reading"]!["contactS"]!).ShouldBe(0.6, 0.05);
        read["drawn"]!.AsArray().Count.ShouldBeLessThanOrEqualTo(600);
        foreach (var (text, says) in new[] { ("a;b\n1;2", "The first line names the columns"), ("time_s,current_a\n0,x", "Line 2: current_a is x"), ("time_s,current_a\n0,1", "at least 10 points") })
        {
            var bad = await _shop.Client.PostAsJsonAsync("/api/bench/current", new { text });
            bad.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            (await Workshop.Problem(bad)).ToJsonString().ShouldContain(says);
        }

        var hand = await Hand.Open(_shop, "GNT 207", "pads", EverydayJobsTests.Motor, "scan-tool");
        var keep = await _shop.Client.PostAsJsonAsync($"/api/jobs/{hand.Id}/traces", new { eventId = Guid.NewGuid(), occurredAt = DateTimeOffset.Now, side = "left", text = "current_A;time_ms\n" + points, direction = "apply", motor = (object?)null });
        keep.StatusCode.ShouldBe(HttpStatusCode.OK, await keep.Content.ReadAsStringAsync());
        (await Bench(hand))["traces"]!.AsArray().Single()!["from"]!.ToString().ShouldBe("a clamp meter");
        // And they stay with the vehicle.
        var plate = (await _shop.Job(hand.Id))["opened"]!["vehicle"]!["plate"]!.ToString();
        var kept = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/vehicles/{plate}/story"))!["traces"]!.AsArray().Single(t => t!["jobId"]!.ToString() == hand.Id)!;
        kept["from"]!.ToString().ShouldBe("a clamp meter");
        (await _shop.Client.GetStringAsync($"/api/jobs/{hand.Id}/traces/{kept["sha256"]}")).ShouldStartWith("time_s,current_a\n0,");
    }

    [Fact]
    public async Task Only_the_lead_sets_faults()
    {
        (await _shop.Client.PostAsJsonAsync("/api/car/faults", new { fault = "seized", on = true })).StatusCode.ShouldBe(HttpStatusCode.OK);
        await _shop.SignIn("Ines Marrow");
        (await _shop.Client.PostAsJsonAsync("/api/car/faults", new { fault = "seized", on = false })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }
}

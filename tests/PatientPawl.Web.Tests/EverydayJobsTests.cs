using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace PatientPawl.Web.Tests;

/// <summary>
/// Twelve everyday jobs over HTTP, from opening to hand-over, each with surprises of at least four kinds on its way. What happens in them is
/// common practice, no source; cars and figures are the demo's.
/// </summary>
public sealed class EverydayJobsTests(DemoShop demo) : IClassFixture<DemoShop>
{
    private readonly Workshop _shop = demo.Shop;

    private static readonly (string, string)[] Cable = [("cabin-control", "hand-lever"), ("caliper-lever", "yes"), ("caliper-motor", "no"), ("plate-cable", "no"), ("rear-hex-plug", "no")];
    private static readonly (string, string)[] Motor = [("cabin-control", "switch"), ("caliper-lever", "no"), ("caliper-motor", "yes"), ("plate-cable", "no"), ("piston-face", "plain-cup")];
    private static readonly (string, string)[] Hat = [("cabin-control", "hand-lever"), ("caliper-lever", "no"), ("caliper-motor", "no"), ("plate-cable", "yes"), ("hat-hole", "yes")];
    private static readonly (string, string)[] Spot = [("cabin-control", "hand-lever"), ("second-caliper", "yes")];
    private static readonly (string, string)[] RearHex = [("cabin-control", "hand-lever"), ("caliper-lever", "no"), ("rear-hex-plug", "yes"), ("piston-face", "plain-cup")];
    private static readonly (string, string)[] Plain = [("cabin-control", "hand-lever"), ("caliper-lever", "no"), ("caliper-motor", "no"), ("plate-cable", "no"), ("hat-hole", "no"), ("rear-hex-plug", "no")];
    private static readonly (string, string)[] Puller = [("cabin-control", "switch"), ("puller-box", "yes"), ("caliper-lever", "yes"), ("piston-face", "cross")];
    private static readonly (string, string)[] FixedHat = [("cabin-control", "hand-lever"), ("opposed-pistons", "yes"), ("plate-cable", "yes")];

    /// <summary>Something unforeseen at a step: which step, which kind of surprise, and what is done.</summary>
    private sealed record Surprise(string At, string? Side, string Kind, Func<Hand, Task> Do);

    private static Surprise Found(string at, string? side, string kind, string? corner, string? note = null) => new(at, side, kind, h => h.Report(kind, corner, note));
    private static Surprise Outcome(string at, string? side, string outcome) => new(at, side, outcome, h => h.Step(outcome));
    private static Surprise Undone(string at, string? side) => new(at, side, "undone", h => h.Undo("the wrong side was touched"));
    private static Surprise Night(string at, string? side) => new(at, side, "night", h => h.Night());
    private static Surprise CloseUp(string at, string? side) => new(at, side, "goal", async h => { await h.Aim("close-up", "the customer needs it today"); await h.Aim("finish", "the customer can wait after all"); });
    private static Surprise OutOfOrder(string at, string? side, string step) => new(at, side, "out-of-order", h => h.Mark(step, "somebody was quicker"));
    private static Surprise Parts(string at, string? side) => new(at, side, "waits", async h => { await h.Await("rear rotors", "the mainland store"); await h.Came(); });
    private static Surprise Stop(string side, string sign) => new("piston-home", side, sign, async h => { await h.StopSign(side, sign); await h.Settle(side, "freed and looked at"); });

    private sealed record Everyday(string Plate, string Scope, (string, string)[] Looks, string? Route, Surprise[] Surprises, string[]? NewCalipers = null);

    private static readonly Dictionary<string, Everyday> Jobs = new(StringComparer.Ordinal)
    {
        ["pads of a small car, a boot that winds up and a night"] = new("GNT 077", "pads", Cable, null,
            [Stop("left", "boot-twists"), Found("pads-in", "left", "pad-tight", "left"), Night("measured", "right"), Undone("pads-in", "right"), Found("caliper-on", "right", "pin-air", "right")]),
        ["rotors of a small car that has stood by the sea"] = new("GNT 164", "pads-and-rotors", Cable, null,
            [Outcome("screws-cracked-brake", "left", "not-yet"), Found("rotor-off", "left", "stuck-rotor", "left"), Outcome("rotor-freed", "left", "not-yet"), Found("hub-clean", "left", "hub-stepped", "left"),
             Found("rotor-on", "left", "wrong-part", null), Found("wheel-torqued", "right", "stud-damaged", "right")]),
        ["a minibus by the scan tool, one side of which stays"] = new("GNT 207", "pads-and-rotors", Motor, "scan-tool",
            [Outcome("service-entered", null, "right-stays"), Found("hub-clean", "left", "hub-pitted", "left"), Found("caliper-on", "left", "grease-on-lining", "left"), Found("level-looked", null, "pedal-sinks", null), Found("measured", "right", "pin-worn", "right")]),
        ["a library bus by hand, whose actuator has had enough"] = new("GNT 301", "pads", Motor, "spindle-by-hand",
            [Found("spindle-back", "left", "actuator-dead", "left"), Night("measured", "right"), Found("wheel-on", "left", "studs-lubricated", "left"), Found("pads-in", "right", "frozen-pads", "right"), Undone("caliper-on", "right")]),
        ["a bus by its own sequence, lost half-way"] = new("GNT 233", "pads", Motor, "in-car",
            [Outcome("service-entered-car", null, "lost-half-way"), Parts("measured", "left"), CloseUp("pads-in", "left"), Found("measured", "right", "hose-unsound", "right"), Found("caliper-on", "left", "hung-by-hose", "left")]),
        ["weak parking shoes of a meals van"] = new("GNT 140", "shoes", Hat, null,
            [Found("rotor-off", "left", "ridge", "left"), Found("hub-clean", "left", "bearing-play", "left"), Night("shoes-off", "left"), Found("wheel-torqued", "left", "wheel-not-flat", "left"), Found("wheel-off", "right", "stuck-wheel", "right")]),
        ["pads over shoes that hold well, and a pull on the drive"] = new("GNT 118", "pads", Hat, null,
            [Found("wheel-off", "left", "key-missing", "left"), Found("pads-in", "left", "clip-touches", "left"), Found("handed-over", null, "pulls", null), Undone("measured", "right"), Found("pins-greased", "right", "bushing-swollen", "right")]),
        ["opposed pistons over shoes"] = new("GNT 372", "pads", FixedHat, null,
            [Found("measured", "left", "fluid-shows", "left"), Found("pads-in", "left", "new-part-spoiled", "left"), Night("pads-in", "right"), CloseUp("parts-compared", null), Found("handed-over", null, "noise-on-drive", null)]),
        ["a second small caliper in the way of the rotor"] = new("GNT 388", "pads-and-rotors", Spot, null,
            [Found("rotor-off", "left", "stuck-rotor", "left"), Outcome("rotor-freed", "left", "not-yet"), Found("handed-over", null, "parts-left-over", null, "one set of clips, to the shelf"), Night("bracket-on", "left"), Found("bracket-torqued", "right", "thread-stripped", "right"), Undone("pads-in", "left")]),
        ["a van with a box that pulls its cables"] = new("GNT 266", "pads", Puller, "puller-release",
            [Found("measured", "left", "cable-frayed", "left"), Outcome("puller-released", null, "lost-half-way"), Found("lever-on-stop", "right", "lever-sticks", "right"), Found("caliper-on", "left", "seized-pin", "left"), Night("measured", "right")]),
        ["an older caliper with its hex at the back, renewed"] = new("GNT 019", "pads", RearHex, null,
            [Found("new-caliper-hung", "left", "brings-bracket", "left"), Found("caliper-on", "left", "bleed-screw-broken", "left"), Parts("pads-in", "left"), Found("leaks-looked", null, "pipe-unsound", null), Found("piston-home", "right", "turns-at-bottom", "right")], ["left"]),
        ["a lorry with no parking brake at this axle"] = new("GNT 390", "pads-and-rotors", Plain, null,
            [Found("rotor-off", "left", "screw-came-broken", "left"), Found("caliper-on", "right", "speed-sensor", "right"), OutOfOrder("measured", "left", "pads-in"), Found("handed-over", null, "lamp-stays", null), Night("pads-in", "left")]),
    };

    public static TheoryData<string> Names() => [.. Jobs.Keys];

    [Fact]
    public void There_are_twelve_and_each_meets_at_least_four_kinds_of_surprise()
    {
        Jobs.Count.ShouldBe(12);
        Jobs.Values.ShouldAllBe(j => j.Surprises.Select(s => s.Kind).Distinct().Count() >= 4);
        Jobs.Values.SelectMany(j => j.Surprises).Select(s => s.Kind).Distinct().Count().ShouldBeGreaterThan(30);
    }

    [Theory]
    [MemberData(nameof(Names))]
    public async Task From_opening_to_hand_over(string name)
    {
        var job = Jobs[name];
        await _shop.SignIn();
        var hand = await Hand.Open(_shop, job);
        var left = job.Surprises.ToList();
        for (var acts = 0; acts < 400; acts++)
        {
            var now = hand.Sheet["now"];
            if ((bool)hand.Job["handedOver"]!) break;
            now.ShouldNotBeNull($"{name}: {hand.Sheet["cannotBeMet"]}");
            var (step, side) = (now["step"]!["stepId"]!.ToString(), now["step"]!["side"]?.ToString());
            if (left.Find(s => s.At == step && (s.Side is null || s.Side == side)) is { } surprise)
            {
                left.Remove(surprise);
                await surprise.Do(hand);
            }
            else await hand.Step(null);
        }

        ((bool)hand.Job["handedOver"]!).ShouldBeTrue($"{name} stands at {hand.Sheet["now"]?["step"]}");
        left.Select(s => $"{s.Kind} at {s.At} {s.Side}").ShouldBeEmpty($"{name}: every surprise came");
        var record = (await _shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{hand.Id}/record"))!;
        ((bool)record["finished"]!).ShouldBeTrue();
        record["openPoints"]!.AsArray().ShouldBeEmpty();
        // The next job on this car knows what was learnt at it.
        if (job.Surprises.Any(s => s.Kind == "turns-at-bottom"))
        {
            var next = await Hand.Open(_shop, job with { NewCalipers = null });
            next.Job["opened"]!["learnt"]!.AsArray().Single()!["kind"]!.ToString().ShouldBe("turns-at-bottom");
            while (next.Sheet["now"]!["step"]!["stepId"]!.ToString() != "piston-home" || next.Sheet["now"]!["step"]!["side"]!.ToString() != "right") await next.Step(null);
            next.Sheet["now"]!["how"]!.ToString().ShouldContain("Measured here on");
        }
    }

    /// <summary>A technician's hand at one job.</summary>
    private sealed class Hand(Workshop shop, string id)
    {
        public string Id => id;
        public JsonNode Job { get; private set; } = null!;
        public JsonNode Sheet => Job["sheet"]!;
        private int Version => (int)Job["version"]!;

        public static async Task<Hand> Open(Workshop shop, Everyday job)
        {
            var known = (await shop.Client.GetFromJsonAsync<JsonNode>("/api/vehicles"))!.AsArray().First(v => v!["vehicle"]!["plate"]!.ToString() == job.Plate)!;
            var hand = new Hand(shop, Guid.NewGuid().ToString());
            var body = Workshop.Command(0, ("jobId", hand.Id), ("bay", 30), ("sheetCode", known["sheetCode"]!.ToString()), ("odometerKm", 70_000), ("complaint", "an everyday job"), ("scope", job.Scope));
            body["vehicle"] = known["vehicle"]!.DeepClone();
            body["newCalipers"] = job.NewCalipers is { } sides ? new JsonArray([.. sides.Select(s => (JsonNode)s!)]) : null;
            await hand.Post("/api/jobs", body);
            await hand.LookOver();
            foreach (var side in new[] { "left", "right" })
            {
                (string, string)[] looks = [.. job.Looks, .. new[] { ("brake-by-wire", "no"), ("plate-motor", "no"), ("second-caliper", "no"), ("brake-hose", "yes"), ("opposed-pistons", "no") }.Where(l => job.Looks.All(j => j.Item1 != l.Item1))];
                foreach (var (look, seen) in looks) await hand.Send("looks", ("side", side), ("look", look), ("seen", seen));
                await hand.Send("rulings", ("side", side));
            }

            if (job.Route is { } route) await hand.Send("route", ("route", route));
            return hand;
        }

        private async Task LookOver()
        {
            var asked = (await shop.Client.GetFromJsonAsync<JsonNode>("/api/catalogue"))!["lookOver"]!.AsArray();
            string[] no = ["roll", "lamps", "twin-wheels", "wheel-bolts", "simulated-pedal", "self-pressurising"];
            await Send("look-over", ("answers", new JsonArray([.. asked.Select(q => (JsonNode)new JsonObject { ["id"] = q!["id"]!.ToString(), ["answer"] = no.Contains(q["id"]!.ToString()) ? "no" : "yes" })])));
        }

        public async Task Step(string? outcome)
        {
            var now = Sheet["now"]!;
            var (step, side) = (now["step"]!["stepId"]!.ToString(), now["step"]!["side"]?.ToString());
            if (now["role"] is { } role)
            {
                var wanted = (double?)now["torque"]?["wantedNm"] ?? role.ToString() switch { "banjo" => 30, "bleed-screw" => 10, "actuator-screw" => 9, "rotor-screw" => 10, "slide-pin" => 33, "wheel" => 120, _ => 90 };
                var wrench = wanted switch { <= 25 => "W1", <= 60 => "W2", <= 200 => "W4", _ => "W5" };
                await Send("torques", ("stepId", step), ("side", side), ("index", (int)now["nextIndex"]!), ("wrenchId", wrench), ("crowfoot", null), ("unit", "nm"),
                    ("enteredValue", now["torque"] is null ? wanted : null), ("enteredPerCorner", now["torque"] is null ? 1 : null), ("unverifiedReason", null), ("reason", "as the maker has it"));
                return;
            }

            if (step == "shoes-measured") await DrumAndShoes(side!);
            outcome ??= step == "verdict-settled" ? "renewed" : null;
            var readings = now["readings"]!.AsArray().Select(r => (JsonNode)new JsonObject { ["kind"] = r!["kind"]!.ToString(), ["value"] = Value(r["kind"]!.ToString()), ["instrumentId"] = r["instrument"]?.ToString() });
            await Send("steps", ("stepId", step), ("side", side), ("readings", new JsonArray([.. readings])), ("acknowledged", new JsonArray([.. now["cautions"]!.AsArray().Where(c => (bool)c!["mustAcknowledge"]!).Select(c => (JsonNode)c!["id"]!.ToString()!)])),
                ("outcome", outcome), ("report", (bool)now["needsReport"]! && outcome is null ? new JsonObject { ["succeeded"] = true, ["words"] = "Routine finished", ["codes"] = "" } : null), ("note", now["noteWanted"] is null ? null : "seen to and put right"));
        }

        /// <summary>A drum well inside its maximum, and linings well over their minimum.</summary>
        private async Task DrumAndShoes(string side)
        {
            string[] places = ["front-anchor-end", "front-middle", "front-adjuster-end", "rear-anchor-end", "rear-middle", "rear-adjuster-end"];
            JsonNode[] readings =
            [
                .. Enumerable.Range(0, 8).Select(i => MeasuringTests.Reading("drum-diameter", i < 4 ? "open-edge" : "near-floor", 45 * (i % 4), 190.2 + 0.01 * (i % 3), "drum-gauge")),
                .. places.Select((p, i) => MeasuringTests.Reading("shoe-lining", p, null, 3 + 0.1 * i, "depth-gauge")), MeasuringTests.Reading("over-shoes", "now", null, 189.7, "caliper"),
            ];
            await Post($"/api/jobs/{id}/shoes-looked", MeasuringTests.Free(("side", side), ("facts", MeasuringTests.ShoeFacts("MAX DIA 191.00 MM"))));
            await Post($"/api/jobs/{id}/readings", MeasuringTests.Free(("side", side), ("readings", new JsonArray(readings))));
        }

        private double Value(string kind) => kind switch
        {
            "inner-pad" or "outer-pad" => 11.5,
            "rotor-thickness" => Math.Round((double)Job["opened"]!["sheet"]!["rotor"]!["newThicknessMm"]! - 0.2, 2),
            "piston-protrusion" or "outer-protrusion" => 14,
            "battery-voltage" => 13.1,
            "reservoir-level" => 55,
            "clicks-back" => 24,
            "clicks-out" => 14,
            "fluid-drawn" => 60,
            _ => 4,
        };

        public Task Report(string kind, string? side, string? note) => Send("findings", ("kind", kind), ("side", side), ("note", note));
        public Task Undo(string reason) => Send("lifts", ("target", Sheet["done"]!.AsArray().Last(d => (bool)d!["canBeUndone"]!)!["eventId"]!.ToString()), ("reason", reason));
        public Task Aim(string goal, string reason) => Send("goal", ("goal", goal), ("reason", reason));
        public Task Await(string what, string from) => Send("parts/awaited", ("what", what), ("from", from), ("expected", null));
        public Task Came() => Send("parts/came");
        public Task StopSign(string side, string sign) => Send("stop-signs", ("side", side), ("sign", sign), ("note", null));
        public Task Settle(string side, string what) => Send("stop-signs/settled", ("side", side), ("what", what));

        public Task Mark(string step, string note) =>
            Send("out-of-order", ("stepId", step), ("side", Sheet["now"]!["step"]!["side"]?.ToString()), ("readings", new JsonArray()), ("note", note));

        /// <summary>To the shortest safe stop, left, and back in the morning.</summary>
        public async Task Night()
        {
            await Aim("night-on-stands", "it is late");
            for (var i = 0; i < 60 && !(bool)Sheet["goal"]!["reached"]!; i++) await Step(null);
            await Send("overnight");
            await Send("come-back");
        }

        private async Task Send(string what, params (string, JsonNode?)[] more) => await Post($"/api/jobs/{id}/{what}", Workshop.Command(Job is null ? 0 : Version, more));

        private async Task Post(string path, JsonNode body)
        {
            var answer = await shop.Client.PostAsJsonAsync(path, body);
            answer.StatusCode.ShouldBe(HttpStatusCode.OK, $"{path} {body}: {await answer.Content.ReadAsStringAsync()}");
            Job = await shop.Job(id);
        }
    }
}

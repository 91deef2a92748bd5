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

    internal static readonly (string, string)[] Cable = [("cabin-control", "hand-lever"), ("caliper-lever", "yes"), ("caliper-motor", "no"), ("plate-cable", "no"), ("rear-hex-plug", "no")];
    internal static readonly (string, string)[] Motor = [("cabin-control", "switch"), ("caliper-lever", "no"), ("caliper-motor", "yes"), ("plate-cable", "no"), ("piston-face", "plain-cup")];
    internal static readonly (string, string)[] Hat = [("cabin-control", "hand-lever"), ("caliper-lever", "no"), ("caliper-motor", "no"), ("plate-cable", "yes"), ("hat-hole", "yes")];
    private static readonly (string, string)[] Spot = [("cabin-control", "hand-lever"), ("second-caliper", "yes")];
    private static readonly (string, string)[] RearHex = [("cabin-control", "hand-lever"), ("caliper-lever", "no"), ("rear-hex-plug", "yes"), ("piston-face", "plain-cup")];
    private static readonly (string, string)[] Plain = [("cabin-control", "hand-lever"), ("caliper-lever", "no"), ("caliper-motor", "no"), ("plate-cable", "no"), ("hat-hole", "no"), ("rear-hex-plug", "no")];
    internal static readonly (string, string)[] Puller = [("cabin-control", "switch"), ("puller-box", "yes"), ("caliper-lever", "yes"), ("piston-face", "cross")];
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
        var hand = await Hand.Open(_shop, job.Plate, job.Scope, job.Looks, job.Route, job.NewCalipers);
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
            var next = await Hand.Open(_shop, job.Plate, job.Scope, job.Looks, job.Route);
            next.Job["opened"]!["learnt"]!.AsArray().Single()!["kind"]!.ToString().ShouldBe("turns-at-bottom");
            while (next.Sheet["now"]!["step"]!["stepId"]!.ToString() != "piston-home" || next.Sheet["now"]!["step"]!["side"]!.ToString() != "right") await next.Step(null);
            next.Sheet["now"]!["how"]!.ToString().ShouldContain("Measured here on");
        }
    }
}

using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace PatientPawl.Web.Tests;

/// <summary>A technician's hand at one job.</summary>
internal sealed class Hand(Workshop shop, string id)
{
    public string Id => id;
    public Workshop Shop => shop;
    public JsonNode Job { get; private set; } = null!;
    public JsonNode Sheet => Job["sheet"]!;
    private int Version => (int)Job["version"]!;

    public static async Task<Hand> Open(Workshop shop, string plate, string scope, (string, string)[] seen, string? route, string[]? newCalipers = null, string purpose = "real", int bay = 30)
    {
        var known = (await shop.Client.GetFromJsonAsync<JsonNode>("/api/vehicles"))!.AsArray().First(v => v!["vehicle"]!["plate"]!.ToString() == plate)!;
        var hand = new Hand(shop, Guid.NewGuid().ToString());
        var body = Workshop.Command(0, ("jobId", hand.Id), ("bay", bay), ("sheetCode", known["sheetCode"]!.ToString()), ("odometerKm", 70_000), ("complaint", "an everyday job"), ("scope", scope), ("purpose", purpose), ("anyway", true));
        body["vehicle"] = known["vehicle"]!.DeepClone();
        body["newCalipers"] = newCalipers is { } sides ? new JsonArray([.. sides.Select(s => (JsonNode)s!)]) : null;
        await hand.Post("/api/jobs", body);
        await hand.LookOver();
        foreach (var side in new[] { "left", "right" })
        {
            (string, string)[] looks = [.. seen, .. new[] { ("brake-by-wire", "no"), ("plate-motor", "no"), ("second-caliper", "no"), ("brake-hose", "yes"), ("opposed-pistons", "no") }.Where(l => seen.All(j => j.Item1 != l.Item1))];
            foreach (var (look, answer) in looks) await hand.Send("looks", ("side", side), ("look", look), ("seen", answer));
            await hand.Send("rulings", ("side", side));
        }

        if (route is not null) await hand.Send("route", ("route", route));
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
    public Task Lift(string eventId, string reason) => Send("lifts", ("target", eventId), ("reason", reason));
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

    public async Task Refresh() => Job = await shop.Job(id);

    private async Task Send(string what, params (string, JsonNode?)[] more) => await Post($"/api/jobs/{id}/{what}", Workshop.Command(Job is null ? 0 : Version, more));

    private async Task Post(string path, JsonNode body)
    {
        var answer = await shop.Client.PostAsJsonAsync(path, body);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, $"{path} {body}: {await answer.Content.ReadAsStringAsync()}");
        Job = await shop.Job(id);
    }
}

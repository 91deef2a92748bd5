using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using PatientPawl.Core;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Data;

namespace PatientPawl.Web.Tests;

/// <summary>
/// Jobs as earlier formats stored them, by the last build that wrote each. Those of format 1 were walked by seeded technicians and chosen so
/// that between them they hold every event, every step id and every enumeration value that could get into a log; those of format 2 come from
/// the everyday jobs and the tests of the web, chosen for what they add. They are never written again: whatever later versions do, these go on
/// being read, folded and shown, and what was handed over stays handed over.
/// </summary>
public class FrozenPastTests
{
    private static readonly string Folder = Path.Combine(Workshop.Repository, "tests", "PatientPawl.Web.Tests", "Samples");

    private static IEnumerable<string> Files(string format) =>
        Directory.GetFiles(Path.Combine(Folder, format), "??-*.json").Order(StringComparer.Ordinal).Select(f => $"{format}/{Path.GetFileName(f)}");

    public static TheoryData<string> Samples() => [.. Files("format-1"), .. Files("format-2")];

    private static JsonNode Json(string name) => JsonNode.Parse(File.ReadAllText(Path.Combine(Folder, name)))!;

    private static List<byte[]> Contents(string name)
    {
        using var document = JsonDocument.Parse(File.ReadAllText(Path.Combine(Folder, name)));
        return [.. document.RootElement.GetProperty("events").EnumerateArray().Select(e => Encoding.UTF8.GetBytes(e.GetProperty("content").GetRawText()))];
    }

    [Theory]
    [MemberData(nameof(Samples))]
    public void A_stored_job_folds_to_what_it_was_and_every_screen_of_it_opens(string name)
    {
        var state = JobState.Fold(Contents(name).Select(c => EventStore.Stored(c).Recorded()));
        var was = Json($"{Path.GetDirectoryName(name)}/folded.json")[Path.GetFileName(name)]!;
        state.Version.ShouldBe((int)was["version"]!);
        state.HandedOver.ShouldBe((bool)was["handedOver"]!, "what was handed over stays handed over, and nothing else becomes so");
        state.Voided.Count.ShouldBe((int)was["voided"]!);
        var record = JobRecord.Of(state);
        record.Finished.ShouldBe(state.HandedOver);
        record.Log.Count.ShouldBe(state.Version);
        record.Torques.Count.ShouldBe((int)was["torques"]!);
        Core.Sides.Both.Select(s => state.Corner(s).Ruled?.Ruling.Architecture.ToString() ?? "").ShouldBe(was["brakes"]!.AsArray().Select(b => b!.ToString()));
        foreach (var side in Core.Sides.Both)
        {
            state.Car.Get(Corner.Pads, side).ToString().ShouldBe(was["pads"]![side.Word()]!.ToString());
            state.Car.Get(Corner.Rotor, side).ToString().ShouldBe(was["rotor"]![side.Word()]!.ToString());
            RunSheets.Corner(state, side).Side.ShouldBe(side);
            JobBenches.Retraction(state, side, null).ShouldNotBeNull();
        }

        if (state.Setup.Identified) RunSheets.Of(state).Done.Count.ShouldBePositive();
        JobBenches.Fluid(state, null, false).ShouldNotBeNull();
        // What waited because no order was found may have one by now; nothing that went on waits.
        var (status, before) = (BoardCard.Of(Guid.NewGuid(), state).Status, Enum.Parse<BoardStatus>(was["status"]!.ToString()));
        if (before != BoardStatus.Waits || status != BoardStatus.InHand) status.ShouldBe(before);
    }

    [Theory]
    [MemberData(nameof(Samples))]
    public void A_stored_job_keeps_its_chain(string name)
    {
        var previous = "";
        var hashes = Json(name)["events"]!.AsArray().Select(e => e!["hash"]!.ToString()).ToList();
        foreach (var (content, hash) in Contents(name).Zip(hashes))
        {
            previous = EventStore.Chain(previous, content);
            previous.ShouldBe(hash);
        }
    }

    [Fact]
    public void Those_of_format_2_hold_what_they_were_chosen_for()
    {
        var names = Json("format-2/names.json");
        var bodies = Files("format-2").SelectMany(f => Json(f)["events"]!.AsArray().Select(e => e!["content"]!["event"]!)).ToList();
        string[] Held(Func<JsonNode, JsonNode?> of) => [.. bodies.Select(of).OfType<JsonNode>().Select(n => n.ToString()).Distinct().Order(StringComparer.Ordinal)];
        Held(b => b["type"]).ShouldBe(names["events"]!.AsArray().Select(n => n!.ToString()));
        Held(b => b["step"]?["stepId"]).ShouldBe(names["steps"]!.AsArray().Select(n => n!.ToString()));
        Held(b => b["type"]!.ToString() == "finding-reported" ? b["kind"] : null).ShouldBe(names["findings"]!.AsArray().Select(n => n!.ToString()));
    }

    [Fact]
    public void Between_them_they_hold_every_event_step_and_enumeration_value_of_format_1()
    {
        var names = Json("format-1/names.json");
        var (events, steps, words) = (new HashSet<string>(StringComparer.Ordinal), new HashSet<string>(StringComparer.Ordinal), new HashSet<string>(StringComparer.Ordinal));
        foreach (var name in Files("format-1"))
            foreach (var body in Json(name)["events"]!.AsArray().Select(e => e!["content"]!["event"]!))
            {
                events.Add(body["type"]!.ToString());
                if (body["step"]?["stepId"] is { } id) steps.Add(id.ToString());
                Words(body, words);
            }

        names["events"]!.AsArray().Select(n => n!.ToString()).Except(events).ShouldBeEmpty();
        // The first three and the push are finished by events of their own; rule 7 has no clause that a step can break.
        names["steps"]!.AsArray().Select(n => n!.ToString()).Except(steps).ShouldBe(["look-over", "identify", "choose-route", "push-tried", "remedy-7"], ignoreOrder: true);
        foreach (var (type, values) in names["enums"]!.AsObject())
            values!.AsArray().Select(v => v!.ToString()).Except(words).ShouldBeEmpty(type);
    }

    private static void Words(JsonNode? node, HashSet<string> into)
    {
        switch (node)
        {
            case JsonObject o:
                foreach (var (_, value) in o) Words(value, into);
                break;
            case JsonArray a:
                foreach (var value in a) Words(value, into);
                break;
            case JsonValue v when v.GetValueKind() == JsonValueKind.String:
                into.Add(v.ToString());
                break;
        }
    }
}

using PatientPawl.Core.Fleet;
using System.Text;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Tests.Jobs;

/// <summary>A house rule that changes nothing anyone can see is not a rule.</summary>
public class HouseRuleReaderTests
{
    public static TheoryData<string> Keys() => [.. HouseRuleCatalogue.All.Select(r => r.Key)];

    private static readonly string Usual = Shown(HouseRules.Default);

    [Theory]
    [MemberData(nameof(Keys))]
    public void Every_school_of_every_rule_can_be_seen_in_a_job(string key)
    {
        var rule = HouseRuleCatalogue.All.Single(r => r.Key == key);
        for (var school = 1; school < rule.Schools.Count; school++) Shown(rule.Choose(HouseRules.Default, school)).ShouldNotBe(Usual, rule.Schools[school].Says);
        rule.Choose(HouseRules.Default, 0).ShouldBe(HouseRules.Default, "the first school is the default");
    }

    [Fact]
    public void The_same_rules_show_the_same_job() => Shown(HouseRules.Default).ShouldBe(Usual);

    /// <summary>What the technician, the driver and the board are shown in two whole jobs: a cable caliper with one caliper stuck, and shoes in a hat.</summary>
    private static string Shown(HouseRules rules)
    {
        var seen = new StringBuilder();
        var banjo = Bench.Sheet() with { Torques = [.. Bench.Sheet().Torques.Where(t => t.Role != FastenerRole.Banjo), new(FastenerRole.Banjo, 1, null, null, PropertyClass.NotKnown, "hex 14", UnitsNet.Torque.FromNewtonMeters(28), null, false, true, false, null)] };
        var cable = Follow(seen, new Bench().Do(_ => JobRules.Open(7, 1, new("T 1", "Brae", "Test", "test car", null), 1000, "noise", JobScope.PadsAndRotors, banjo, rules)).LookOver().Identify(), "piston-home");
        // Home by its log, with the slot ten degrees past the pin.
        foreach (var (turns, proud) in new[] { (0.0, 10.5), (6, 5.7), (11.25, 1.5) })
            cable.Do(s => JobRules.NotePoint(s, Side.Left, new(Guid.NewGuid(), turns, Length.FromMillimeters(proud)), "depth-gauge", Bench.Board));
        cable.Do(s => JobRules.LookAtRetraction(s, Side.Left, RetractionFacts.None with { SlotAt = Angle.FromDegrees(10), SlotAtTurns = 11.25 }));
        seen.AppendLine(JobBenches.Retraction(cable.State, Side.Left, null).Alignment!.Says);
        cable.Do(s => JobRules.Report(s, FindingKind.StuckPiston, Side.Left, null));
        Follow(seen, cable, "");
        Follow(seen, BenchJobTests.HatJob(JobScope.PadsAndRotors, rules), "");
        return seen.ToString();
    }

    private static Bench Follow(StringBuilder seen, Bench job, string until)
    {
        for (var sheet = RunSheets.Of(job.State); sheet.Now is { } now && now.Step.StepId != until; sheet = RunSheets.Of(job.State))
        {
            seen.AppendLine($"{now.Step}: {now.Name} | {now.How} | {string.Join(", ", now.Tools)} | {string.Join(", ", now.Parts)} | {now.BackFromLock}");
            if (now.Step is { StepId: "shoes-measured", Side: { } side }) BenchJobTests.MeasureDrum(job, side);
            if (job.State.Corner(Side.Left).Travel is { } travel && now.Step.StepId == "parts-compared") seen.AppendLine($"{travel.Travel} {travel.Turns}");
            job.Step(now);
        }

        seen.AppendLine(string.Join(" | ", JobRecord.Of(job.State).Advice)).AppendLine($"{WheelNutsDue.Of(Guid.Empty, job.State)?.FromKm}");
        return job;
    }
}

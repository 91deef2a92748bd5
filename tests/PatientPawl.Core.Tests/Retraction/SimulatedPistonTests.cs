using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using MathNet.Numerics.Distributions;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;
using Xunit.Abstractions;

namespace PatientPawl.Core.Tests.Retraction;

/// <summary>
/// Pistons that never were, read with a gauge that scatters as its budget says: a good one must not be condemned, a bad one must not be missed.
/// Seeded, so that a failure comes again.
/// </summary>
public class SimulatedPistonTests(ITestOutputHelper output)
{
    private static readonly Instrument Gauge = InstrumentCatalogue.Find("depth-gauge")!;
    private static readonly StuckChecks AllRight = new(Known.Yes, Known.Yes, Known.Yes, Known.Yes, true, true);

    private static Length Mm(double v) => Length.FromMillimeters(v);
    private static LogPoint At(double turns, double mm, bool released = false) => new(Guid.NewGuid(), turns, Mm(Math.Max(mm, 0)), 1, released);

    private static LogInput Log(IReadOnlyList<LogPoint> points, double? lead, bool turned = true) => new(points, turned, Mm(1.5), lead is { } l ? Mm(l) : null, null, [Mm(38)], Gauge, false, false, AllRight, null, null);

    /// <summary>What the gauge's display would show: the truth with its scatter, rounded to its step.</summary>
    private static double Read(double truth, Normal noise) => Math.Round((truth + noise.Sample()) / 0.01) * 0.01;

    [Fact]
    public void A_piston_that_goes_home_is_never_stopped_on_the_way_and_its_end_is_foretold()
    {
        var random = new Random(1125);
        var noise = new Normal(0, 0.02, random);
        var (stopped, far, runs, near) = (0, 0, 0, 0);
        for (var n = 0; n < 1500; n++)
        {
            var lead = 0.5 + random.NextDouble() * 1.5;
            var start = 8 + random.NextDouble() * 12;
            var step = random.Next(2) == 0 ? 0.5 : 1;
            List<LogPoint> points = [];
            LogAnswer? last = null;
            for (var turn = 0.0; start - lead * turn > 1.5; turn += step)
            {
                points.Add(At(turn, Read(start - lead * turn, noise)));
                last = RetractionLog.Follow(Log(points, n % 2 == 0 ? lead : null));
                if (last.Findings.Any(f => f.Stop && f.Kind != LogFindingKind.Home) || last.Stuck) stopped++;
                if (points.Count < 4 || last.TurnsToGo is not { } go || last.Home) continue;
                runs++;
                // The truth lies within three standard errors nearly always; Student's tails allow a few with so few readings.
                if (Math.Abs(turn + go - (start - 1.5) / lead) > 3 * last.TurnsToGoError!.Value) far++;
                if (Math.Abs(turn + go - (start - 1.5) / lead) < 0.25) near++;
            }

            points.Add(At((start - 1.5) / lead, Read(1.5, noise)));
            RetractionLog.Follow(Log(points, lead)).Home.ShouldBeTrue($"seed run {n}: lead {lead}, start {start}");
        }

        output.WriteLine($"{runs} foretellings of 1500 pistons: {far} beyond three standard errors, {near} within a quarter turn, {stopped} stopped for nothing");
        stopped.ShouldBe(0);
        ((double)far / runs).ShouldBeLessThan(0.05);
        ((double)near / runs).ShouldBeGreaterThan(0.9);
    }

    [Fact]
    public void A_piston_that_seizes_on_the_way_is_told_within_three_readings()
    {
        var random = new Random(77);
        var late = 0;
        for (var n = 0; n < 800; n++)
        {
            var lead = 0.6 + random.NextDouble();
            var start = 10 + random.NextDouble() * 8;
            var seizes = random.Next(0, 6);
            List<LogPoint> points = [];
            for (var turn = 0; turn <= seizes + 2; turn++) points.Add(At(turn, Math.Round(start - lead * Math.Min(turn, seizes), 2)));
            var answer = RetractionLog.Follow(Log(points, lead));
            // Two further readings at the same place make three alike: stopped, and with everything right stuck.
            if (!answer.Stuck) late++;
        }

        late.ShouldBe(0);
    }

    [Fact]
    public void A_piston_that_only_spins_is_told_after_a_whole_turn()
    {
        var random = new Random(5);
        for (var n = 0; n < 500; n++)
        {
            var lead = 0.6 + random.NextDouble();
            var slip = random.NextDouble() * 0.2 * lead;
            var points = new[] { At(0, 14), At(1, 14 - lead), At(2, 14 - lead - slip) };
            RetractionLog.Follow(Log(points, lead)).Findings.ShouldContain(f => f.Kind == LogFindingKind.SpinningFree, $"lead {lead}, moved {slip}");
        }
    }

    [Fact]
    public void One_turned_the_wrong_way_is_told_in_the_first_half_turn()
    {
        // Common practice, no source: with no direction on the sheet the face must move inward in the first half turn.
        foreach (var lead in new[] { 0.5, 0.8, 1.2, 2.0 })
            RetractionLog.Follow(Log([At(0, 9), At(0.5, 9 + lead / 2)], lead)).Findings[0].Kind.ShouldBe(LogFindingKind.ComingOut, $"lead {lead}");
    }

    [Fact]
    public void A_pushed_piston_is_followed_stroke_by_stroke_the_same_way()
    {
        var answer = RetractionLog.Follow(Log([At(0, 12), At(1, 9), At(2, 6)], null, turned: false));
        answer.TurnsToGo!.Value.ShouldBe(1.5, 1e-9);
        answer.Reasons.Lines[^1].Result.ShouldContain("strokes");
        // The sheet's lead means nothing where nothing is turned.
        RetractionLog.Follow(Log([At(0, 12)], 0.8, turned: false)).TurnsToGo.ShouldBeNull();
        RetractionLog.Follow(Log([At(0, 12), At(1, 9), At(1, 11, released: true)], null, turned: false)).Findings[0].Kind.ShouldBe(LogFindingKind.SpringsBack);
    }

    [Property(MaxTest = 300)]
    public Property Whatever_is_read_the_answer_is_whole() => Prop.ForAll(
        (from ys in Gen.Choose(0, 2000).ListOf() from turns in Gen.Choose(1, 8) from two in Gen.Elements(true, false) from turned in Gen.Elements(true, false) select (ys.Take(30).ToArray(), turns, two, turned)).ToArbitrary(), x =>
        {
            var (ys, turns, two, turned) = x;
            var points = ys.Select((y, i) => new LogPoint(Guid.NewGuid(), i / (double)turns, Mm(y / 100.0), i > 12 ? 2 : 1, i % 7 == 6)).ToArray();
            var a = RetractionLog.Follow(Log(points, 0.8, turned) with { TwoStage = two });
            return a.TurnsToGo is null or >= 0 && a.TravelToGo is null or { Millimeters: >= 0 } && a.FluidToCome is null or { Milliliters: >= 0 }
                && a.Findings.All(f => f.Says.Length > 0 && f.Do.Length > 0) && a.Reasons.Lines.Count > 0
                && a.Stuck == a.Findings.Any(f => f.Kind == LogFindingKind.Stuck) && (!a.Home || a.Findings.All(f => f.Kind != LogFindingKind.Stuck));
        });

    [Fact]
    public void Forcing_is_never_the_advice()
    {
        // Every sentence the retract bench can say about a piston that does not move, and every ruling's own.
        LogInput[] troubled =
        [
            Log([At(0, 9), At(1, 9), At(2, 9)], 0.8), Log([At(0, 9), At(1, 9), At(2, 9)], 0.8) with { Checks = StuckChecks.None },
            Log([At(0, 9), At(1, 8.9)], 0.8), Log([At(8, 2), At(9, 2), At(10, 2)], 0.8), Log([At(0, 9), At(1, 9.5)], 0.8), Log([At(9, 1.5)], 0.8),
        ];
        foreach (var says in troubled.SelectMany(t => RetractionLog.Follow(t).Findings).Select(f => f.Do))
            if (says.Contains("orc", StringComparison.OrdinalIgnoreCase)) says.ShouldMatch("[Nn]ever");
        foreach (var architecture in Enum.GetValues<Architecture>())
            RetractionRuling.Decide(architecture, Side.Right, null).Never.ShouldNotBeEmpty();
    }

    [Theory]
    [InlineData(Architecture.CableScrew)]
    [InlineData(Architecture.LeverPush)]
    [InlineData(Architecture.MotorPush)]
    [InlineData(Architecture.MotorTurn)]
    [InlineData(Architecture.HatShoes)]
    [InlineData(Architecture.FixedHat)]
    [InlineData(Architecture.RearHex)]
    [InlineData(Architecture.SpotCaliper)]
    [InlineData(Architecture.Plain)]
    public void Every_procedure_begins_with_what_is_in_the_way_and_ends_with_letting_go(Architecture architecture)
    {
        var sheet = new PistonSpec(Mm(38), 1, Mm(0.8), Mm(1.5), TurnDirection.Clockwise, TurnDirection.Anticlockwise, false, 2);
        foreach (var side in Sides.Both)
        {
            var ruling = RetractionRuling.Decide(architecture, side, sheet);
            ruling.Procedure.ShouldContain(p => p.Contains("boot"));
            ruling.Procedure[^1].ShouldContain("Release the tool");
            // A spindle that stands behind the piston comes before everything else.
            if (architecture is Architecture.MotorPush or Architecture.MotorTurn) ruling.Procedure[0].ShouldContain("actuator off");
            // A left-hand thread is left-handed on its own side only.
            if (architecture is Architecture.CableScrew or Architecture.MotorTurn)
                ruling.Procedure.Any(p => p.Contains("left-handed")).ShouldBe(side == Side.Right);
        }
    }

    [Fact]
    public void What_is_not_covered_has_no_procedure() => RetractionRuling.Decide(Architecture.ElectricOnly, Side.Left, null).Procedure.ShouldBeEmpty();

    [Fact]
    public void The_house_rule_of_the_boots_lip_is_kept()
    {
        BootLook.Judge(BootState.Free, Known.No, BootRule.Greased).Do.ShouldContain("grease");
        BootLook.Judge(BootState.Free, Known.No, BootRule.Dry).Do.ShouldNotContain("grease");
        // Petroleum grease never comes near a boot.
        foreach (var state in BootLook.States)
            foreach (var rule in Enum.GetValues<BootRule>())
                if (BootLook.Judge(state, Known.NotKnown, rule).Do is var says && says.Contains("grease")) says.ShouldContain("rubber-safe");
    }
}

using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Tests.Jobs;

/// <summary>The retraction log and the fluid inside a whole job: what they let through, what they stop, what they change in the plan.</summary>
public class RetractionJobTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);
    private static readonly Instrument Gauge = InstrumentCatalogue.Find("depth-gauge")!;
    private static Bench AtPiston() => new Bench().Open(rules: Bench.BothMeasured).LookOver().Identify().Until("piston-home", Side.Left);
    private static LogPoint Line(double turns, double mm, bool released = false, int stage = 1) => new(Guid.NewGuid(), turns, Length.FromMillimeters(mm), stage, released);
    private static Bench Note(Bench job, params LogPoint[] points) => points.Aggregate(job, (b, p) => b.Do(s => JobRules.NotePoint(s, Side.Left, p, "depth-gauge", Bench.Board)));
    private static Bench Seeing(Bench job, Func<RetractionFacts, RetractionFacts> change) => job.Do(s => JobRules.LookAtRetraction(s, Side.Left, change(s.Corner(Side.Left).Retraction)));
    private static StepDone Home(Bench job) => (StepDone)JobRules.Click(job.State, Bench.Click(RunSheets.Of(job.State).Now!), true, Bench.Board);
    private static RetractionBenchAnswer Judge(Bench job) => JobBenches.Retraction(job.State, Side.Left, null);

    [Fact]
    public void A_log_that_ends_at_home_lets_the_step_through_and_stands_in_the_record()
    {
        // 10.5 mm proud, home 1.5: nine millimetres, eleven turns and a quarter of 0.8 mm.
        var job = Note(AtPiston(), Line(0, 10.5), Line(4, 7.3), Line(8, 4.1));
        Judge(job).Log.TurnsToGo!.Value.ShouldBe(3.25, 1e-9);
        Judge(job).Log.Fit!.Lead.Millimeters.ShouldBe(0.8, 1e-9);
        Note(job, Line(11.25, 1.5));
        Judge(job).Log.Home.ShouldBeTrue();
        Home(job).Step.StepId.ShouldBe("piston-home");
        JobRecord.Of(job.State).Log.Count(l => l.What == "Piston followed" && l.Where == "left").ShouldBe(4);
    }

    [Fact]
    public void A_log_short_of_what_the_new_parts_need_refuses_home_until_the_wrong_line_is_struck()
    {
        var wrong = Line(11, 4.0);
        var job = Note(AtPiston(), Line(0, 10.5), Line(5, 6.5), wrong);
        // The new parts need 15 + 15 - 11 - 12 + 1 = 8 mm.
        Should.Throw<InputException>(() => Home(job)).Errors.Single().Allowed.ShouldBe("8 mm");
        job.Do(s => JobRules.StrikePoint(s, Side.Left, wrong.Id, "read the scale wrong"));
        Note(job, Line(11, 1.7));
        Home(job);
        Should.Throw<NotAllowedException>(() => JobRules.StrikePoint(job.State, Side.Left, wrong.Id, "again"));
    }

    [Fact]
    public void A_piston_that_springs_back_is_not_home()
    {
        var job = Note(AtPiston(), Line(0, 10.5), Line(9, 1.7), Line(9, 4, released: true));
        Judge(job).Log.Findings[0].Kind.ShouldBe(LogFindingKind.SpringsBack);
        Should.Throw<InputException>(() => Home(job)).Message.ShouldContain("hose");
    }

    [Fact]
    public void A_stuck_ruling_needs_everything_right_and_brings_a_caliper_its_washers_and_bleeding()
    {
        var job = Note(AtPiston(), Line(0, 10.5), Line(1, 10.5), Line(2, 10.5));
        // The sheet gives no direction: it is not proved while nothing has moved inward.
        Judge(job).Log.Stuck.ShouldBeFalse();
        Judge(job).Log.Findings[0].Do.ShouldContain("direction");
        Seeing(job, f => f with { OtherWayTried = true });
        Judge(job).Log.Stuck.ShouldBeTrue();
        Should.Throw<InputException>(() => Home(job)).Message.ShouldContain("condemned");

        job.Do(s => JobRules.Report(s, FindingKind.StuckPiston, Side.Left, Judge(job).Log.Findings[0].Says));
        job.State.Remaining.Select(k => k.ToString()).ShouldContain("old-caliper-away, left");
        RunSheets.Of(job.State).LayOut.Parts.ShouldContain(l => l.Contains("caliper", StringComparison.OrdinalIgnoreCase));
        job.Until("corner-bled", Side.Left);
        JobBenches.Fluid(job.State, null, false).Decision.Corner.ShouldBe(Side.Left);
        // The new caliper is not the old one's log.
        job.State.Corner(Side.Left).LogPoints().ShouldBeEmpty();
    }

    [Fact]
    public void Draws_that_were_noted_have_to_meet_the_stop_test_before_bleeding_is_done()
    {
        var job = AtPiston();
        job.Do(s => JobRules.Report(s, FindingKind.StuckPiston, Side.Left, null)).Until("corner-bled", Side.Left, 100);
        Bench Draw(bool bubbles) => job.Do(s => JobRules.Draw(s, Side.Left, new(Guid.NewGuid(), Volume.FromMilliliters(15), bubbles, false, !bubbles)));
        var before = job.State.LevelPercent!.Value;
        Draw(true);
        job.State.LevelPercent!.Value.ShouldBe(before - 20, 1e-9);
        Draw(false);
        Should.Throw<InputException>(() => Home(job)).Message.ShouldContain("not bled yet");
        Draw(false);
        Home(job).Step.StepId.ShouldBe("corner-bled");
        Should.Throw<NotAllowedException>(() => JobRules.Draw(job.State, Side.Right, new(Guid.NewGuid(), Volume.FromMilliliters(15), false, false, true)), "nothing was opened there");
        Should.Throw<InputException>(() => JobRules.Draw(job.State, Side.Left, new(Guid.Empty, Volume.FromMilliliters(0), false, false, true))).Errors.Select(e => e.Field).ShouldBe(["volumeMl", "id"]);
    }

    [Fact]
    public void A_slot_turns_with_the_count_and_its_end_is_planned_from_the_log()
    {
        var job = Seeing(Note(AtPiston(), Line(0, 10.5)), f => f with { SlotAt = Angle.FromDegrees(18) });
        Note(job, Line(4, 7.3), Line(7.25, 4.7));
        var bench = Judge(job);
        bench.SlotNow!.Value.Degrees.ShouldBe(18 + 90, 1e-9);
        // Four turns to go: 72 + 90 x floor((1440 - 72) / 90) = 1422 degrees.
        bench.Alignment!.Act.ShouldBe(AlignAct.StopShort);
        bench.Alignment.Turn.Degrees.ShouldBe(1422, 1e-6);
        JobBenches.Retraction(job.State, Side.Left, 8.25).Log.TurnsToGo!.Value.ShouldBe(3, 1e-9);
    }

    [Fact]
    public void Lines_append_in_their_stage_with_a_gauge_that_serves_and_only_where_a_piston_goes_back()
    {
        var job = AtPiston();
        Should.Throw<InputException>(() => JobRules.NotePoint(job.State, Side.Left, Line(0, 10, stage: 3), "depth-gauge", Bench.Board)).Errors.Single().Field.ShouldBe("stage");
        Should.Throw<InputException>(() => JobRules.NotePoint(job.State, Side.Left, Line(0, 10), "micrometer", Bench.Board)).Message.ShouldContain("does not get at this");
        Should.Throw<InputException>(() => JobRules.NotePoint(job.State, Side.Left, Line(0, 10), "depth-gauge", new([Gauge with { CalibratedUntil = Today.AddDays(-1) }], Today))).Message.ShouldContain("ran out");
        Note(job, Line(0, 10.5), Line(1, 10.2, stage: 2));
        Should.Throw<InputException>(() => JobRules.NotePoint(job.State, Side.Left, Line(2, 10), "depth-gauge", Bench.Board)).Errors.Single().Field.ShouldBe("stage");
        Should.Throw<NotAllowedException>(() => JobRules.NotePoint(new Bench().Open().State, Side.Left, Line(0, 10), "depth-gauge", Bench.Board));
        Should.Throw<InputException>(() => JobRules.LookAtRetraction(job.State, Side.Left, RetractionFacts.None with { SlotAt = Angle.FromDegrees(2000) })).Errors.Single().Field.ShouldBe("slotAtDeg");
    }

    [Fact]
    public void The_fluid_bench_carries_the_level_from_first_look_to_pedal()
    {
        var job = AtPiston();
        var first = JobBenches.Fluid(job.State, null, false);
        first.Reservoir!.Back.Milliliters.ShouldBe(2 * Math.PI / 4 * 38 * 38 * 9 / 1000, 0.001);
        job.Until("pedal-proved");
        // Nothing goes back any more; the end predicted is the same as before.
        var last = JobBenches.Fluid(job.State, null, false);
        last.Reservoir!.Back.Milliliters.ShouldBe(0);
        last.Decision.Scope.ShouldBe(BleedScope.Nothing);
        job.Do(s => JobRules.LookAtFluid(s, FluidFacts.None with { Cap = FluidGrade.Dot4, Bottle = FluidGrade.Dot5 }));
        JobBenches.Fluid(job.State, null, false).Fluid!.Mix.ShouldBe(MixVerdict.Never);
        last.Lacks.ShouldContain(l => l.Contains("cap"));
        Should.Throw<InputException>(() => JobRules.LookAtFluid(job.State, FluidFacts.None with { WaterPercent = 50 }));
    }

    [Fact]
    public void A_step_offers_the_jobs_own_instruments_that_get_at_it_and_no_others()
    {
        var cards = RunSheets.Of(new Bench().Open().LookOver().Identify().Until("measured", Side.Left).State).Now!.Readings.ToDictionary(r => r.Kind);
        cards[ReadingKind.RotorThickness].Serving.ShouldBe(["caliper", "micrometer", "fine-micrometer", "vernier", "pad-gauge", "steel-rule"]);
        cards[ReadingKind.PistonProtrusion].Serving.ShouldBe(["caliper", "depth-gauge", "vernier", "pad-gauge", "steel-rule"]);
    }

    [Fact]
    public void A_job_has_one_answer_for_its_reservoir_whichever_bench_or_step_asks()
    {
        var job = AtPiston();
        Sides.Both.Count(s => job.State.Corner(s).Travel is not null).ShouldBe(2, "both sides are measured in this school");
        Same();
        // Another reservoir than the sheet's: measured from outside, about 50 mL from MIN to MAX.
        job.Do(s => JobRules.LookAtFluid(s, FluidFacts.None with { Sides = new(Length.FromMillimeters(85), Length.FromMillimeters(45), Length.FromMillimeters(15.6), Length.FromMillimeters(5)) }));
        JobBenches.Fluid(job.State, null, false).Reservoir!.Spec.Band.Milliliters.ShouldBe(49.92, 0.01);
        Same();
        job.Until("piston-home", Side.Right);
        Same();

        void Same()
        {
            var bench = JobBenches.Fluid(job.State, null, false).Reservoir!;
            foreach (var side in Sides.Both)
            {
                var corner = RunSheets.Corner(job.State, side).Reservoir!;
                (corner.LevelPercent, corner.LevelHome, corner.LevelFinal, corner.Room.Verdict).ShouldBe((bench.LevelPercent, bench.LevelHome, bench.LevelFinal, bench.Room.Verdict));
            }
        }
    }

    [Fact]
    public void What_is_drawn_off_makes_room_for_every_piston_that_is_measured()
    {
        // 95 % of 75 mL leaves 3.75 mL; each piston sends back 10.21. One alone would be watched in the headspace of 20, both together are not.
        var job = new Bench().Open(rules: Bench.BothMeasured).LookOver().Identify().Until("measured", Side.Right, level: 95);
        job.State.Car.Get(Corner.Room, Side.Left).ShouldBe(Room.Enough);
        var measured = (StepDone)JobRules.Click(job.State, Bench.Click(RunSheets.Of(job.State).Now!), true, Bench.Board);
        (measured.Outcome, measured.Room!.Verdict).ShouldBe(("no-room", RoomVerdict.DrawOffFirst));
        measured.Room.DrawOff.Milliliters.ShouldBe(2 * 10.207 - 3.75, 0.01);
    }

    [Fact]
    public void With_the_open_screw_school_the_corner_that_was_pushed_is_bled()
    {
        var job = new Bench().Do(_ => JobRules.Open(7, 1, new("T 1", "Brae", "Test", "test car", null), 1000, "noise", JobScope.Pads, Bench.Sheet(), HouseRules.Default with { FluidRoom = FluidRoomRule.OpenBleeder }))
            .LookOver().Identify().Until("piston-home", Side.Left);
        JobBenches.Fluid(job.State, null, false).Reservoir!.Back.Milliliters.ShouldBe(0);
        job.Until("corner-bled", Side.Left);
        JobBenches.Fluid(job.State, null, false).Decision.Scope.ShouldBe(BleedScope.All);
        // It ran into the bottle, not into the reservoir.
        job.State.LevelPercent!.Value.ShouldBeLessThanOrEqualTo(60);
    }

    [Fact]
    public void Lifting_the_pawl_on_home_keeps_the_log_and_it_can_be_followed_on()
    {
        var job = Note(AtPiston(), Line(0, 10.5), Line(11.2, 1.6));
        job.Do(s => JobRules.Click(s, Bench.Click(RunSheets.Of(s).Now!), true, Bench.Board));
        Should.Throw<NotAllowedException>(() => Note(job, Line(12, 1.5))).Message.ShouldContain("home");
        var home = job.State.Standing.Last(e => e.Event is StepDone { Step.StepId: "piston-home" }).Id;
        job.Do(s => JobRules.Lift(s, home, "it was the boot I measured", true, job.Who));
        job.State.Corner(Side.Left).LogPoints().Count.ShouldBe(2);
        // After the lift nobody knows whether the circuit is shut: that is looked at before the piston goes on.
        Note(job, Line(12, 1.5));
        Judge(job).Log.Home.ShouldBeTrue();
    }

    [Fact]
    public void The_run_sheet_fills_in_what_the_log_counted_and_names_the_fluid_bench_where_it_serves()
    {
        var job = Note(AtPiston(), Line(0, 10.5), Line(11.2, 1.6));
        RunSheets.Of(job.State).Now!.Prefilled.Single().ShouldBe(new Prefilled(ReadingKind.TurnsMade, 11.2, "the log", null));
        var fluid = new List<string>();
        while (RunSheets.Of(job.State).Now is { } now)
        {
            if (now.Benches.Contains(BenchKind.Fluid)) fluid.Add(now.Step.StepId);
            job.Until(job.State.Remaining.Skip(1).FirstOrDefault()?.StepId ?? "", job.State.Remaining.Skip(1).FirstOrDefault()?.Side);
        }

        fluid.ShouldContain("pedal-proved");
        fluid.ShouldContain("leaks-looked");
    }

    [Fact]
    public void Only_as_far_as_needed_ends_where_the_new_parts_go_in()
    {
        var job = new Bench().Do(_ => JobRules.Open(7, 1, new("T 1", "Brae", "Test", "test car", null), 1000, "noise", JobScope.Pads, Bench.Sheet(), HouseRules.Default with { RetractDepth = RetractDepthRule.AsFarAsNeeded }))
            .LookOver().Identify().Until("piston-home", Side.Left);
        // 8 mm of 9: ten turns of 0.8 mm, and the step is let through there.
        Note(job, Line(0, 10.5), Line(5, 6.5));
        Judge(job).Log.TurnsToGo!.Value.ShouldBe(5, 1e-9);
        Note(job, Line(10, 2.5));
        Judge(job).Log.TurnsToGo!.Value.ShouldBe(0, 1e-9);
        Home(job).Step.StepId.ShouldBe("piston-home");
    }

    [Fact]
    public void A_caliper_is_tried_over_its_pads_a_little_at_a_time_and_what_passes_is_far_enough()
    {
        var job = new Bench().Do(_ => JobRules.Open(7, 1, new("T 1", "Brae", "Test", "test car", null), 1000, "noise", JobScope.Pads, Bench.Sheet(), HouseRules.Default with { RetractDepth = RetractDepthRule.AsFarAsNeeded }))
            .LookOver().Identify().Until("piston-home", Side.Left);
        Note(job, Line(0, 10.5), Line(5, 6.5));
        job.Do(s => JobRules.TryCaliper(s, Side.Left, 6, false));
        Should.Throw<InputException>(() => Home(job)).Errors.Single().Message.ShouldContain("did not pass over its pads");
        Should.Throw<InputException>(() => JobRules.TryCaliper(job.State, Side.Left, 5, true)).Errors.Single().Field.ShouldBe("turns");

        // By reckoning it would take ten turns; a pad that is thinner than its sheet lets it pass at eight.
        job.Do(s => JobRules.TryCaliper(s, Side.Left, 8, true));
        JobBenches.Retraction(job.State, Side.Left, 8).Log.TurnsToGo!.Value.ShouldBe(2, 1e-9);
        Home(job).Step.StepId.ShouldBe("piston-home");
        JobRecord.Of(job.State).Log.Select(l => l.What).Where(w => w.StartsWith("Caliper tried", StringComparison.Ordinal)).ShouldBe(["Caliper tried: does not pass", "Caliper tried: passes over"]);

        var home = AtPiston();
        Should.Throw<NotAllowedException>(() => JobRules.TryCaliper(home.State, Side.Left, 6, true)).Message.ShouldContain("all the way home");
    }

    [Fact]
    public void Left_and_right_are_compared_once_both_are_followed()
    {
        var job = AtPiston();
        Bench Felt(Side side, double effort, double lead)
        {
            for (var i = 0; i < 3; i++)
                job.Do(s => JobRules.NotePoint(s, side, Line(i, 10.5 - lead * i) with { Effort = UnitsNet.Torque.FromNewtonMeters(effort) }, "depth-gauge", Bench.Board));
            return job;
        }

        Felt(Side.Left, 14, 0.8);
        Judge(job).Sides.ShouldBeNull();
        Felt(Side.Right, 6, 0.8);
        var sides = Judge(job).Sides!;
        (sides.Harder, sides.LeadsAlike).ShouldBe((Side.Left, true));
        Judge(job).Log.Findings.ShouldContain(f => f.Kind == LogFindingKind.HarderThanOther);
        JobBenches.Retraction(job.State, Side.Right, null).Log.Findings.ShouldNotContain(f => f.Kind == LogFindingKind.HarderThanOther);
    }

    [Fact]
    public void An_opposed_caliper_goes_back_by_its_own_sum_and_sends_the_fluid_of_all_its_pistons()
    {
        var job = AtOpposed();
        var travel = job.State.Corner(Side.Left).Travel!;
        // Inner 15 - 11 + 1 = 5, outer 15 - 12 + 1 = 4; all the way home is 9 mm for all four.
        travel.Need.Millimeters.ShouldBe(5, 1e-9);
        travel.Displaced.Milliliters.ShouldBe(4 * Math.PI / 4 * 28 * 28 * 9 / 1000, 1e-6);
        JobBenches.Fluid(job.State, null, false).Reservoir!.Back.Milliliters.ShouldBe(2 * travel.Displaced.Milliliters, 1e-6);
    }

    private static Bench AtOpposed()
    {
        var sheet = Bench.Sheet() with { Piston = new(Length.FromMillimeters(28), 4, null, Length.FromMillimeters(1.5), null, null, false, 0, ProtrusionLimit: Length.FromMillimeters(16)), Architecture = Architecture.FixedHat };
        var job = new Bench().Do(_ => JobRules.Open(7, 1, new("T 1", "Brae", "Test", "test car", null), 1000, "noise", JobScope.Pads, sheet, Bench.BothMeasured)).LookOver();
        foreach (var side in Core.Sides.Both)
        {
            foreach (var (look, seen) in new[] { (Look.CabinControl, Seen.HandLever), (Look.CaliperLever, Seen.No), (Look.CaliperMotor, Seen.No), (Look.PlateCable, Seen.Yes), (Look.BrakeHose, Seen.Yes), (Look.OpposedPistons, Seen.Yes) })
                job.Do(s => JobRules.Record(s, side, look, seen));
            job.Do(s => JobRules.Rule(s, side));
        }

        return job.Until("piston-home", Side.Left);
    }

    private static IReadOnlyList<PistonProud> Round(params double[] inner1Outer1Inner2Outer2) =>
        [.. inner1Outer1Inner2Outer2.Select((mm, i) => new PistonProud(i % 2 == 0 ? PistonBank.Inner : PistonBank.Outer, i / 2 + 1, Length.FromMillimeters(mm)))];

    private static Bench Measure(Bench job, params double[] mm) => job.Do(s => JobRules.MeasurePistons(s, Side.Left, Round(mm)));

    [Fact]
    public void Both_sides_of_an_opposed_caliper_are_measured_at_the_step_and_each_goes_its_own_way()
    {
        var at = AtOpposed();
        var click = (StepDone)at.State.Standing.Last(e => e.Event is StepDone { Step: { StepId: "measured", Side: Side.Left } }).Event;
        click.Readings.Select(r => r.Kind).ShouldContain(ReadingKind.OuterProtrusion);
        // Inner 10.5 and outer 13.5 proud, home 1.5: 9 and 12 mm for two pistons of 28 mm each.
        var uneven = JobMeasuring.Travel(at.State, Side.Left, [.. click.Readings.Select(r => r.Kind == ReadingKind.OuterProtrusion ? r with { Value = 13.5 } : r)]);
        uneven.Displaced.Milliliters.ShouldBe(2 * Math.PI / 4 * 28 * 28 * (9 + 12) / 1000, 1e-6);
        uneven.HomeTravel!.Value.Millimeters.ShouldBe(9, 1e-9);
        // A job of an older version has no such reading, and is still shown.
        JobMeasuring.Travel(at.State, Side.Left, [.. click.Readings.Where(r => r.Kind != ReadingKind.OuterProtrusion)]).Displaced.Milliliters.ShouldBe(4 * Math.PI / 4 * 28 * 28 * 9 / 1000, 1e-6);
        // A sliding caliper is not asked.
        var sliding = new Bench().Open().LookOver().Identify().Until("measured", Side.Left);
        RunSheets.Of(sliding.State).Now!.Readings.Select(r => r.Kind).ShouldNotContain(ReadingKind.OuterProtrusion);
    }

    [Fact]
    public void Rounds_of_opposed_pistons_are_kept_say_which_pair_goes_next_and_catch_one_that_creeps()
    {
        var job = AtOpposed();
        Judge(job).Creep.ShouldBeNull();
        Measure(job, 10.5, 10.4, 11.5, 11.4);
        Judge(job).Creep!.NextPair.ShouldBe(2);
        // Pair 2 was pushed and inner 1 was not held.
        Measure(job, 12.0, 10.4, 6.0, 6.0);
        var creep = Judge(job).Creep!;
        creep.Pistons.Where(p => p.Crept).Select(p => (p.Piston.Bank, p.Piston.Number)).ShouldBe([(PistonBank.Inner, 1)]);
        creep.NextPair.ShouldBe(1);
        creep.Says.ShouldContain("Inner 1 crept out by 1.5 mm");
        job.State.Corner(Side.Left).Pistons.Count.ShouldBe(2);
        job.State.Corner(Side.Right).Pistons.ShouldBeEmpty();
        JobRecord.Of(job.State).Log.Last(l => l.What == "Pistons measured").Detail.ShouldContain("inner 1 12 mm");
    }

    [Fact]
    public void Pistons_short_of_the_new_parts_or_beyond_their_limit_keep_home_from_being_clicked()
    {
        var job = Measure(AtOpposed(), 10.5, 10.4, 11.5, 11.4);
        // They stood 10.5 mm proud and the new parts need 5: 5.5 mm is enough, whenever the first round was taken.
        Measure(job, 5.4, 5.3, 7, 6);
        Should.Throw<InputException>(() => Home(job)).Message.ShouldContain("Inner 2 stands 7 mm proud; for the new parts it has to be 5.5 mm or less");
        // The outer pads are thicker: theirs need 4 mm.
        Measure(job, 5.4, 6.3, 5.5, 6.5);
        Home(job).Step.StepId.ShouldBe("piston-home");
        Measure(job, 5.4, 6.3, 5.5, 6.7);
        Should.Throw<InputException>(() => Home(job)).Message.ShouldContain("Outer 2 stands 6.7 mm proud; for the new parts it has to be 6.5 mm or less");
        Measure(job, 5.4, 17, 6, 6);
        Should.Throw<InputException>(() => Home(job)).Message.ShouldContain("Outer 1 stands beyond its limit of 16 mm");
        Measure(job, 1.5, 1.6, 1.5, 1.7);
        Judge(job).Creep!.AllHome.ShouldBeTrue();
        // Where the sheet does not say where home is, none is called home by guess.
        CreepWatch.Watch([.. Judge(job).Creep!.Pistons.Select(m => m.Piston)], null, null).AllHome.ShouldBeFalse();
        Home(job).Step.StepId.ShouldBe("piston-home");
    }

    [Fact]
    public void A_round_takes_every_piston_once_and_only_where_they_are_opposed()
    {
        var job = AtOpposed();
        Should.Throw<InputException>(() => Measure(job, 10, 10)).Message.ShouldContain("The caliper has 4 pistons and 2 are measured");
        Should.Throw<InputException>(() => Measure(job, 10, 10, 10, 150)).Errors.ShouldContain(e => e.Field == "nowMm");
        Should.Throw<InputException>(() => job.Do(s => JobRules.MeasurePistons(s, Side.Left, [.. Round(10, 10).Concat(Round(10, 10))])));
        Should.Throw<NotAllowedException>(() => Note(job, Line(0, 10))).Because.Single().ShouldContain("Measure every piston");
        Should.Throw<NotAllowedException>(() => Measure(AtPiston(), 10, 10)).Message.ShouldContain("one side only");
        job.State.Corner(Side.Left).Pistons.ShouldBeEmpty();
    }

    [Fact]
    public void A_draw_noted_wrongly_is_struck_out_and_the_level_goes_back_to_where_it_was()
    {
        var job = AtPiston();
        job.Do(s => JobRules.Report(s, FindingKind.StuckPiston, Side.Left, null)).Until("corner-bled", Side.Left, 100);
        BleedDraw Made(double ml, bool filled = false) => new(Guid.NewGuid(), Volume.FromMilliliters(ml), false, false, true) { Filled = filled };
        var (good, wrong, last) = (Made(15), Made(45), Made(15));
        var before = job.State.LevelPercent!.Value;
        foreach (var d in new[] { good, wrong }) job.Do(s => JobRules.Draw(s, Side.Left, d));
        // More than there was: the level ends at nothing, and comes back all the same.
        job.State.LevelPercent!.Value.ShouldBe(Math.Max(before - 80, 0), 1e-9);
        Should.Throw<InputException>(() => JobRules.StrikeDraw(job.State, Side.Left, wrong.Id, " ")).Errors.Single().Field.ShouldBe("reason");
        Should.Throw<InputException>(() => JobRules.StrikeDraw(job.State, Side.Left, Guid.NewGuid(), "it was 15")).Errors.Single().Field.ShouldBe("drawId");
        job.Do(s => JobRules.StrikeDraw(s, Side.Left, wrong.Id, "it was 15"));
        job.State.LevelPercent!.Value.ShouldBe(before - 20, 1e-9);
        job.State.Corner(Side.Left).Draws.ShouldBe([good]);
        Should.Throw<NotAllowedException>(() => JobRules.StrikeDraw(job.State, Side.Left, wrong.Id, "again"));
        // One clear draw is not two: the struck one counts for nothing.
        Should.Throw<InputException>(() => Home(job)).Message.ShouldContain("not bled yet");
        job.Do(s => JobRules.Draw(s, Side.Left, last));
        Home(job).Step.StepId.ShouldBe("corner-bled");
        JobRecord.Of(job.State).Log.ShouldContain(l => l.What == "Draw struck out" && l.Detail == "it was 15");
    }

    [Fact]
    public void Filled_since_full_is_full_whatever_is_struck()
    {
        var job = AtPiston();
        job.Do(s => JobRules.Report(s, FindingKind.StuckPiston, Side.Left, null)).Until("corner-bled", Side.Left, 100);
        var (wrong, filled) = (new BleedDraw(Guid.NewGuid(), Volume.FromMilliliters(15), false, false, true), new BleedDraw(Guid.NewGuid(), Volume.FromMilliliters(15), false, false, true) { Filled = true });
        foreach (var d in new[] { wrong, filled }) job.Do(s => JobRules.Draw(s, Side.Left, d));
        job.Do(s => JobRules.StrikeDraw(s, Side.Left, wrong.Id, "other corner"));
        job.State.LevelPercent.ShouldBe(100);
    }

    [Fact]
    public void A_leak_check_that_was_noted_has_to_be_passed_and_asks_for_the_banjo_that_was_undone()
    {
        var job = AtPiston();
        job.Do(s => JobRules.Report(s, FindingKind.StuckPiston, Side.Left, null)).Until("leaks-looked", level: 100);
        LeakInput Seen(int seconds, Known banjo) => new(seconds, false, Known.Yes, banjo, Known.Yes);
        job.Do(s => JobRules.LookForLeaks(s, Seen(12, Known.Yes)));
        Should.Throw<InputException>(() => Home(job)).Message.ShouldContain("Hold it hard for 18 s more.");
        job.Do(s => JobRules.LookForLeaks(s, Seen(31, Known.NotKnown)));
        Should.Throw<InputException>(() => Home(job)).Message.ShouldContain("The banjo was undone");
        job.Do(s => JobRules.LookForLeaks(s, Seen(31, Known.Yes)));
        job.Do(s => JobRules.Click(s, Bench.Click(RunSheets.Of(s).Now!), true, Bench.Board));
        job.State.Leaks.ShouldBeNull();
        JobRecord.Of(job.State).Log.Last(l => l.What == "Leaks looked for").Detail.ShouldBe("held 31 s; pipes sound; screws dry; banjos dry");
        Should.Throw<NotAllowedException>(() => JobRules.LookForLeaks(job.State, Seen(31, Known.Yes)));
        // Where nothing was undone the banjo is nobody's question.
        LeakCheck.Judge(Seen(31, Known.NotKnown)).Passed.ShouldBeTrue();
    }

    [Fact]
    public void The_back_off_limit_of_the_house_rules_is_kept_within_its_range()
    {
        (HouseRules.Default with { BackOffLimit = Angle.FromDegrees(45) }).Checked().BackOffLimit!.Value.Degrees.ShouldBe(45);
        Should.Throw<InputException>(() => (HouseRules.Default with { BackOffLimit = Angle.FromDegrees(0) }).Checked()).Errors.Single().Field.ShouldBe("backOffLimitDeg");
    }

    [Fact]
    public void Turning_the_other_way_turns_the_slot_back_and_the_drawing_with_it()
    {
        var job = Seeing(Note(AtPiston(), Line(0, 10.5)), f => f with { SlotAt = Angle.FromDegrees(18) });
        Note(job, Line(1, 10.9));
        Judge(job).Direction.ShouldBe(TurnDirection.Clockwise);
        Judge(job).SlotNow!.Value.Degrees.ShouldBe(18, 1e-6);
        // Half a turn back: 18 + 360 - 180.
        Note(job, Line(1.5, 10.5, stage: 2));
        Judge(job).Direction.ShouldBe(TurnDirection.Anticlockwise);
        Judge(job).SlotNow!.Value.Degrees.ShouldBe(198, 1e-6);
        JobBenches.Retraction(job.State, Side.Left, 1.75).SlotNow!.Value.Degrees.ShouldBe(108, 1e-6);
        // The new line has one reading: the sheet's lead says how far.
        Judge(job).Log.FromSheet.ShouldBeTrue();
    }

    [Fact]
    public void The_level_rises_as_the_pistons_go_home_and_falls_as_the_pedal_comes_up()
    {
        var job = AtPiston();
        var first = job.State.LevelPercent!.Value;
        var predicted = JobBenches.Fluid(job.State, null, false).Reservoir!.LevelFinal;
        var each = Math.PI / 4 * 38 * 38 * 9 / 1000 / 75 * 100;
        job.Do(s => JobRules.Click(s, Bench.Click(RunSheets.Of(s).Now!), true, Bench.Board));
        job.State.LevelPercent!.Value.ShouldBe(first + each, 1e-6);
        var at = first;
        while (RunSheets.Of(job.State).Now is { } now && now.Step.StepId != "level-looked")
        {
            if (now.Step.StepId == "pedal-proved") at = job.State.LevelPercent!.Value;
            job.Until(job.State.Remaining.First(k => k != now.Step).StepId, job.State.Remaining.First(k => k != now.Step).Side);
        }

        // area x (9 - 8 + 1) of both pistons is what the pedal takes.
        job.State.LevelPercent!.Value.ShouldBeLessThan(at);
        (at - job.State.LevelPercent!.Value).ShouldBe(2 * Math.PI / 4 * 38 * 38 * 2 / 1000 / 75 * 100, 1e-6);
        predicted.ShouldBeGreaterThan(first);
        JobBenches.Fluid(job.State, null, false).Reservoir!.LevelFinal.ShouldBe(job.State.LevelPercent!.Value, 1e-6);
    }

    [Fact]
    public void The_corner_shows_what_its_log_says_and_nothing_without_one()
    {
        var job = AtPiston();
        RunSheets.Corner(job.State, Side.Left).Log.ShouldBeNull();
        Note(job, Line(0, 10.5), Line(4, 7.3));
        RunSheets.Corner(job.State, Side.Left).Log!.TurnsToGo!.Value.ShouldBe(7.25, 1e-9);
        RunSheets.Corner(job.State, Side.Right).Log.ShouldBeNull();
    }

    [Theory]
    [InlineData(BootState.Torn, true)]
    [InlineData(BootState.Wet, true)]
    [InlineData(BootState.Bulged, false)]
    [InlineData(BootState.Free, false)]
    public void A_boot_that_condemns_the_caliper_keeps_its_piston_from_being_clicked_home(BootState boot, bool refused)
    {
        var job = Seeing(AtPiston(), f => f with { Boot = boot });
        if (refused) Should.Throw<InputException>(() => Home(job)).Errors.Single().Field.ShouldBe("boot");
        else Home(job).Step.StepId.ShouldBe("piston-home");
    }

    [Theory]
    [InlineData(Known.Yes, AlignAct.HomeThenOnward)]
    [InlineData(Known.NotKnown, AlignAct.NoWay)]
    public void At_home_a_slot_goes_on_only_where_the_sheet_says_that_it_turns_freely(Known free, AlignAct act)
    {
        var sheet = Bench.Sheet() with { Piston = Bench.Sheet().Piston with { TurnsFreelyAtHome = free } };
        var job = new Bench().Do(_ => JobRules.Open(7, 1, new("T 1", "Brae", "Test", "test car", null), 1000, "noise", JobScope.Pads, sheet, HouseRules.Default))
            .LookOver().Identify().Until("piston-home", Side.Left);
        Note(job, Line(0, 10.5), Line(11.25, 1.5));
        Seeing(job, f => f with { SlotAt = Angle.FromDegrees(18), SlotAtTurns = 11.25 });
        Judge(job).Alignment!.Act.ShouldBe(act);
    }
}

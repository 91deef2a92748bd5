using PatientPawl.Core.Fleet;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Core.Tests.Jobs;

/// <summary>A job worked through its own rules, with a clock that is given.</summary>
internal sealed class Bench
{
    private static readonly DateTimeOffset Start = new(2026, 11, 25, 8, 0, 0, TimeSpan.Zero);
    public JobState State { get; private set; } = JobState.Fold([]);
    public Guid Who { get; } = Guid.NewGuid();

    public static SpecSheet Sheet(bool bracketTorque = true) => new("T-1", "Test sheet", "Made up for tests", Architecture.CableScrew,
        new(Mm(38), 1, Mm(0.8), Mm(1.5), null, null, false, 4), new(Mm(15), Mm(15), Mm(5.5), null), new(Mm(10), Mm(8), true, false),
        new(Volume.FromMilliliters(75), Volume.FromMilliliters(20)), null,
        [.. new[] { Line(FastenerRole.SlidePin, 2, 31), Line(FastenerRole.Wheel, 4, 110), Line(FastenerRole.RotorScrew, 1, 8) }, .. bracketTorque ? [Line(FastenerRole.Bracket, 2, 90)] : Array.Empty<TorqueLine>()]);

    // Where the sheet is silent: the middle of what is usual for the role.
    private static TorqueQuantity Usual(FastenerRole role) => TorqueQuantity.FromNewtonMeters((TorqueSetting.RoleBands[role].Low + TorqueSetting.RoleBands[role].High) / 2);

    public static Wrench Wrench(double max = 200) => new("W", "Test", TorqueQuantity.FromNewtonMeters(max), TorqueQuantity.FromNewtonMeters(0.5), Mm(400), WrenchType.Setting, new(2027, 1, 1));

    public static ToolBoard Board { get; } = new(InstrumentCatalogue.Defaults, new(2026, 11, 25));

    public Bench Do(Func<JobState, JobEvent> decide)
    {
        var e = decide(State);
        State = State.With(new(Guid.NewGuid(), State.Version + 1, e, Who, "Ada Bell", Start.AddMinutes(State.Version), Start.AddMinutes(State.Version)));
        return this;
    }

    /// <summary>The school in which both sides are measured before anything is built.</summary>
    public static readonly HouseRules BothMeasured = HouseRules.Default with { Sides = SidesRule.OneThenOther };

    public Bench Open(JobScope scope = JobScope.Pads, HouseRules? rules = null) =>
        Do(_ => JobRules.Open(7, 1, new("T 1", "Brae", "Test", "test car", null), 1000, "noise", scope, Sheet(), rules ?? HouseRules.Default));

    public Bench LookOver() => Do(s => JobRules.LookOver(s, Answers()));

    public static List<LookOverItem> Answers(string? id = null, LookOverAnswer answer = LookOverAnswer.No) =>
        [.. LookOverQuestions.All.Select(q => new LookOverItem(q.Id, q.Id == id ? answer : q.Settles[0] == LookOverAnswer.Yes && q.Id is not (LookOverQuestions.SimulatedPedal) ? LookOverAnswer.Yes : LookOverAnswer.No))];

    public Bench Identify()
    {
        foreach (var side in Core.Sides.Both)
        {
            foreach (var (look, seen) in new[] { (Look.CabinControl, Seen.HandLever), (Look.CaliperLever, Seen.Yes), (Look.BrakeHose, Seen.Yes), (Look.RearHexPlug, Seen.No), (Look.CaliperMotor, Seen.No) })
                Do(s => JobRules.Record(s, side, look, seen));
            Do(s => JobRules.Rule(s, side));
        }

        return this;
    }

    public Bench Until(string stepId, Side? side = null, double level = 60)
    {
        while (RunSheets.Of(State).Now is { } now && now.Step != new StepKey(stepId, side)) Step(now, level);
        return this;
    }

    /// <summary>Clicks a step on, or signs the next of its bolts.</summary>
    public Bench Step(StepBench now, double level = 60) =>
            now.Role is null ? Do(s => JobRules.Click(s, Click(now, level), true, Bench.Board))
            : Do(s => JobRules.Sign(s, new(now.Step, now.NextIndex, Wrench(now.Role switch { FastenerRole.SlidePin or FastenerRole.Banjo => 60, FastenerRole.RotorScrew or FastenerRole.ActuatorScrew or FastenerRole.BleedScrew => 20, _ => 200 }), null, TorqueUnit.Nm, now.Torque is null ? Usual(now.Role!.Value) : null, now.Torque is null ? 1 : null, null), new(2026, 11, 25)));

    public static ClickOn Click(StepBench bench, double level = 60) => new(bench.Step, [.. bench.Readings.Select(r => new Reading(r.Kind, r.Kind switch
    {
        ReadingKind.ReservoirLevel => level,
        ReadingKind.InnerPad => 11,
        ReadingKind.OuterPad => 12,
        ReadingKind.RotorThickness => 9.5,
        ReadingKind.PistonProtrusion or ReadingKind.OuterProtrusion => 10.5,
        ReadingKind.FluidDrawn => 60,
        ReadingKind.BatteryVoltage => 13,
        _ => 4,
    }, r.Instrument))], [.. bench.Cautions.Where(c => c.MustAcknowledge).Select(c => c.Id)], null, null, bench.NoteWanted is null ? null : "seen to and put right");

    private static Length Mm(double v) => Length.FromMillimeters(v);
    private static TorqueLine Line(FastenerRole role, int n, double nm) => new(role, n, Mm(8), Mm(1.25), PropertyClass.NotKnown, "hex", TorqueQuantity.FromNewtonMeters(nm), null, false, true, false, null);
}

public class JobTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);

    [Fact]
    public void A_whole_job_ends_handed_over_and_its_record_holds_everything()
    {
        var job = new Bench().Open().LookOver().Identify().Until("");
        job.State.HandedOver.ShouldBeTrue();
        var record = JobRecord.Of(job.State);
        record.Finished.ShouldBeTrue();
        record.OpenPoints.ShouldBeEmpty();
        record.Torques.Count.ShouldBe(2 * 2 + 2 * 4);
        record.Verdicts.Count.ShouldBe(6);
        record.Log.Count.ShouldBe(job.State.Version);
        record.Fitted.ShouldContain("New pads, right.");
        WheelNutsDue.Of(Guid.Empty, job.State)!.ShouldSatisfyAllConditions(n => n.FromKm.ShouldBe(1050), n => n.ToKm.ShouldBe(1080));
    }

    [Fact]
    public void Folding_all_at_once_equals_folding_one_by_one()
    {
        var job = new Bench().Open().LookOver().Identify().Until("pads-in", Side.Right);
        var folded = JobState.Fold(job.State.Log);
        folded.Car.ShouldBe(job.State.Car);
        folded.Remaining.ShouldBe(job.State.Remaining);
        folded.LevelPercent.ShouldBe(job.State.LevelPercent);
        folded.HoldsMet.Keys.Order().ShouldBe(job.State.HoldsMet.Keys.Order());
    }

    [Fact]
    public void Folding_never_fails_on_a_step_that_no_longer_exists()
    {
        var job = new Bench().Open().LookOver();
        var odd = new StepDone(new("a-step-of-another-version", Side.Left), false, [], [], [], null, null, null, null);
        var state = job.State.With(new(Guid.NewGuid(), 3, odd, job.Who, "Ada Bell", default, default));
        state.Version.ShouldBe(3);
        RunSheets.Of(state).Now.ShouldNotBeNull();
    }

    [Fact]
    public void The_simulated_pedal_must_be_settled_and_changes_the_proof()
    {
        var job = new Bench().Open();
        var e = Should.Throw<InputException>(() => JobRules.LookOver(job.State, Bench.Answers(LookOverQuestions.SimulatedPedal, LookOverAnswer.NotKnown)));
        e.Errors.ShouldHaveSingleItem().Field.ShouldBe(LookOverQuestions.SimulatedPedal);
        job.Do(s => JobRules.LookOver(s, Bench.Answers(LookOverQuestions.SimulatedPedal, LookOverAnswer.Yes))).Identify();
        job.State.Remaining.ShouldContain(new StepKey("pedal-proved-routine", null));
        job.State.Remaining.ShouldNotContain(new StepKey("pedal-proved", null));
    }

    [Fact]
    public void A_question_left_out_or_unknown_is_named()
    {
        var job = new Bench().Open();
        var answers = Bench.Answers()[1..];
        answers.Add(new("shoe-size", LookOverAnswer.Yes));
        Should.Throw<InputException>(() => JobRules.LookOver(job.State, answers)).Errors.Select(x => x.Field).ShouldBe(["roll", "answers"]);
    }

    [Fact]
    public void A_step_not_allowed_yet_is_refused_with_why_and_recorded_nowhere()
    {
        var job = new Bench().Open().LookOver().Identify();
        var e = Should.Throw<NotAllowedException>(() => JobRules.Click(job.State, new(new("lifted", null), [], ["stands"], null, null, null), true, Bench.Board));
        e.Interlocks.ShouldContain(1);
        e.Because.ShouldNotBeEmpty();
    }

    [Fact]
    public void Cautions_that_can_hurt_are_acknowledged_and_the_acknowledgement_is_recorded()
    {
        var job = new Bench().Open().LookOver().Identify().Until("lifted");
        var bench = RunSheets.Of(job.State).Now!;
        Should.Throw<InputException>(() => JobRules.Click(job.State, Bench.Click(bench) with { Acknowledged = [] }, true, Bench.Board)).Errors[0].Field.ShouldBe("acknowledged");
        job.Do(s => JobRules.Click(s, Bench.Click(bench), true, Bench.Board));
        ((StepDone)job.State.Log[^1].Event).Acknowledged.ShouldBe(["stands"]);
    }

    [Fact]
    public void Readings_missing_twice_or_foreign_are_refused_by_name()
    {
        var job = new Bench().Open().LookOver().Identify().Until("measured", Side.Left);
        var good = Bench.Click(RunSheets.Of(job.State).Now!);
        Should.Throw<InputException>(() => JobRules.Click(job.State, good with { Readings = [.. good.Readings.Skip(1)] }, true, Bench.Board)).Errors[0].Field.ShouldBe("InnerPad");
        Should.Throw<InputException>(() => JobRules.Click(job.State, good with { Readings = [.. good.Readings, good.Readings[0]] }, true, Bench.Board)).Errors[0].Field.ShouldBe("InnerPad");
        Should.Throw<InputException>(() => JobRules.Click(job.State, good with { Readings = [.. good.Readings, new(ReadingKind.BatteryVoltage, 12, null)] }, true, Bench.Board)).Errors[0].Field.ShouldBe("BatteryVoltage");
    }

    [Fact]
    public void Measuring_judges_and_says_how_far()
    {
        var job = new Bench().Open().LookOver().Identify().Until("measured", Side.Right);
        var corner = job.State.Corner(Side.Left);
        // 10.5 proud, 1.5 proud when home: 9 mm, 9 / 0.8 = 11.25 turns. Lining 11 - 5.5 = 5.5 mm. Worked by hand.
        corner.Travel!.Turns!.Value.ShouldBe(11.25, 1e-9);
        corner.Verdicts[0].Value.Millimeters.ShouldBe(5.5, 1e-9);
        corner.Verdicts.ShouldAllBe(v => v.Verdict == Verdict.Inside);
        corner.Verdicts[0].Reasons.UsesDefaults.ShouldBeTrue("the sheet gives no least lining");
    }

    [Fact]
    public void A_full_reservoir_asks_for_drawing_off_before_the_piston_moves()
    {
        // Band 75 mL, 20 above MAX; at 100 % the 10.2 mL of one piston fit under the brim, at 130 % they do not.
        var job = new Bench().Open(rules: Bench.BothMeasured).LookOver().Identify().Until("measured", Side.Right, level: 130);
        job.State.Remaining.ShouldContain(new StepKey("fluid-drawn", Side.Left));
        job.Until("fluid-drawn", Side.Left, 130);
        var bench = RunSheets.Of(job.State).Now!;
        var little = Bench.Click(bench) with { Readings = [new(ReadingKind.FluidDrawn, 1, null)] };
        Should.Throw<InputException>(() => JobRules.Click(job.State, little, true, Bench.Board)).Errors[0].Message.ShouldContain("more");
        job.Do(s => JobRules.Click(s, Bench.Click(bench), true, Bench.Board)).Until("piston-home", Side.Left);
        job.State.LevelPercent!.Value.ShouldBe(130 - 80, 1e-9);
    }

    [Fact]
    public void The_level_rises_by_what_each_piston_sends_back()
    {
        var job = new Bench().Open().LookOver().Identify().Until("piston-home", Side.Left);
        job.Until("pads-in", Side.Left);
        // pi/4 x 38^2 x 9 = 10.207 mL of 75 is 13.61 %.
        job.State.LevelPercent!.Value.ShouldBe(60 + 13.61, 0.01);
    }

    [Fact]
    public void A_torque_step_ends_when_every_bolt_is_signed_and_each_only_once()
    {
        var job = new Bench().Open().LookOver().Identify().Until("slide-pins-torqued", Side.Left);
        var step = new StepKey("slide-pins-torqued", Side.Left);
        SignTorque Sign(int i) => new(step, i, Bench.Wrench(60), null, TorqueUnit.Nm, null, null, null);
        job.Do(s => JobRules.Sign(s, Sign(2), Today));
        job.State.Car.Get(Corner.SlidePins, Side.Left).ShouldBe(Bolts.Snug);
        Should.Throw<NotAllowedException>(() => JobRules.Sign(job.State, Sign(2), Today));
        Should.Throw<InputException>(() => JobRules.Sign(job.State, Sign(3), Today)).Errors[0].Field.ShouldBe("index");
        job.Do(s => JobRules.Sign(s, Sign(1), Today));
        job.State.Car.Get(Corner.SlidePins, Side.Left).ShouldBe(Bolts.Torqued);
    }

    [Fact]
    public void After_lifting_one_signature_its_bolt_is_the_next_to_sign()
    {
        var job = new Bench().Open().LookOver().Identify().Until("slide-pins-torqued", Side.Left);
        var step = new StepKey("slide-pins-torqued", Side.Left);
        foreach (var i in new[] { 1, 2 }) job.Do(s => JobRules.Sign(s, new(step, i, Bench.Wrench(60), null, TorqueUnit.Nm, null, null, null), Today));
        var first = job.State.Log.First(e => e.Event is TorqueSigned { Index: 1 });
        job.Do(s => JobRules.Lift(s, first.Id, "it was the other bolt", true, job.Who));
        job.State.Car.Get(Corner.SlidePins, Side.Left).ShouldBe(Bolts.Snug);
        RunSheets.Bench(job.State, step).NextIndex.ShouldBe(1);
    }

    [Fact]
    public void A_wrench_that_does_not_serve_is_refused()
    {
        var job = new Bench().Open().LookOver().Identify().Until("slide-pins-torqued", Side.Left);
        Should.Throw<InputException>(() => JobRules.Sign(job.State, new(new("slide-pins-torqued", Side.Left), 1, Bench.Wrench(200), null, TorqueUnit.Nm, null, null, null), Today))
            .Errors[0].Field.ShouldBe("wrenchId");
    }

    [Fact]
    public void An_unverified_torque_holds_the_hand_over_until_the_lead_accepts_it_with_a_reason()
    {
        var job = new Bench().Open().LookOver().Identify().Until("slide-pins-torqued", Side.Left);
        foreach (var i in new[] { 1, 2 }) job.Do(s => JobRules.Sign(s, new(new("slide-pins-torqued", Side.Left), i, null, null, TorqueUnit.Nm, null, null, "no room for the wrench"), Today));
        job.State.Car.Get(Car.Acceptance).ShouldBe(Acceptance.Waiting);
        job.Until("torques-accepted");
        var bench = RunSheets.Of(job.State).Now!;
        Should.Throw<NotAllowedException>(() => JobRules.Click(job.State, Bench.Click(bench), isLead: false, Bench.Board));
        Should.Throw<InputException>(() => JobRules.Click(job.State, Bench.Click(bench) with { Note = null }, isLead: true, Bench.Board)).Errors[0].Field.ShouldBe("note");
        job.Do(s => JobRules.Click(s, Bench.Click(bench) with { Note = "checked by hand, marked" }, true, Bench.Board)).Until("");
        job.State.HandedOver.ShouldBeTrue();
        JobRecord.Of(job.State).Torques.Count(t => !t.Verified).ShouldBe(2);
    }

    [Fact]
    public void Undoing_a_step_takes_back_nothing_that_was_done_all_the_same()
    {
        var job = new Bench().Open().LookOver().Identify().Until("caliper-off", Side.Left);
        var chocks = job.State.Log.First(e => e.Event is StepDone { Step.StepId: "chocks-in" });
        var lift = JobRules.Lift(job.State, chocks.Id, "were not in", false, job.Who);
        var names = job.State.Log.Where(e => lift.Voided.Contains(e.Id)).Select(e => ((StepDone)e.Event).Step.StepId).ToArray();
        names.ShouldBe(["chocks-in"], "the rest was done without them");
        job.Do(_ => lift);
        job.State.Car.Get(Car.Position).ShouldBe(CarPosition.Stands);
        job.State.Car.Get(Corner.Wheel, Side.Left).ShouldBe(Wheel.Off);
        job.State.Car.Get(Car.Chocks).ShouldBe(Chocks.Out);
        job.State.Remaining[0].StepId.ShouldBe("chocks-in");
        job.Until("");
        job.State.HandedOver.ShouldBeTrue();
        JobRecord.Of(job.State).Log.Count(l => l.Voided).ShouldBe(names.Length);
    }

    [Fact]
    public void After_lifting_a_piston_the_hydraulics_are_in_doubt_until_looked_at()
    {
        var job = new Bench().Open().LookOver().Identify().Until("pads-in", Side.Left);
        var piston = job.State.Log.Last(e => e.Event is StepDone { Step.StepId: "piston-home" });
        job.Do(s => JobRules.Lift(s, piston.Id, "wrong corner", true, Guid.NewGuid()));
        Core.Sides.Both.ShouldAllBe(s => job.State.Car.Get(Corner.Hydraulics, s) == HydraulicsState.Closed, "nothing was opened by it");
        job.State.Remaining.ShouldContain(new StepKey("piston-home", Side.Left));
        Should.Throw<NotAllowedException>(() => JobRules.Lift(job.State, piston.Id, "again", true, Guid.NewGuid()));
    }

    [Fact]
    public void Only_the_lead_lifts_what_another_clicked()
    {
        var job = new Bench().Open().LookOver();
        var target = job.State.Log[^1].Id;
        Should.Throw<NotAllowedException>(() => JobRules.Lift(job.State, target, "no", isLead: false, Guid.NewGuid()));
        JobRules.Lift(job.State, target, "no", isLead: true, Guid.NewGuid()).Voided.ShouldContain(target);
        Should.Throw<InputException>(() => JobRules.Lift(job.State, target, " ", true, job.Who)).Errors[0].Field.ShouldBe("reason");
        Should.Throw<InputException>(() => JobRules.Lift(job.State, Guid.NewGuid(), "x", true, job.Who)).Errors[0].Field.ShouldBe("target");
    }

    [Fact]
    public void Random_lifts_at_random_points_never_strand_the_job()
    {
        for (var seed = 0; seed < 25; seed++)
        {
            var random = new Random(seed);
            var job = new Bench().Open().LookOver().Identify();
            for (var lifts = 0; lifts < 3; lifts++)
            {
                for (var i = random.Next(25); i > 0 && RunSheets.Of(job.State).Now is { } now && !job.State.HandedOver; i--) job.Until(Next(job.State, now.Step).StepId, Next(job.State, now.Step).Side);
                var liftable = job.State.Standing.Where(e => e.Event is StepDone or TorqueSigned).ToArray();
                if (liftable.Length == 0) continue;
                job.Do(s => JobRules.Lift(s, liftable[random.Next(liftable.Length)].Id, "seeded", true, job.Who));
                job.State.CannotBeMet.ShouldBeEmpty($"seed {seed}");
            }

            job.Until("");
            job.State.HandedOver.ShouldBeTrue($"seed {seed}: {string.Join(',', job.State.Remaining)}");
        }

        static StepKey Next(JobState s, StepKey now) => s.Remaining.FirstOrDefault(k => k != now) ?? new("", null);
    }

    [Fact]
    public void A_stop_sign_holds_its_corner_and_lifting_it_lets_go()
    {
        var job = new Bench().Open().LookOver().Identify().Until("piston-home", Side.Left);
        job.Do(s => JobRules.Stop(s, Side.Left, StopSign.ComesOut, null));
        job.State.CannotBeMet.ShouldBeEmpty("reversing is enough");
        job.Do(s => JobRules.Stop(s, Side.Left, StopSign.StopsShort, "no movement"));
        job.State.CannotBeMet.ShouldContain("left piston home");
        BoardCard.Of(Guid.NewGuid(), job.State).Headline.ShouldBe("a left caliper");
        RunSheets.Of(job.State).Now!.Step.StepId.ShouldNotBe("piston-home");
        job.State.Remaining.ShouldContain(new StepKey("piston-home", Side.Right), "the other side goes on");
        var sign = job.State.Log[^1].Id;
        job.Do(s => JobRules.Lift(s, sign, "tool was slipping", true, job.Who));
        job.State.CannotBeMet.ShouldBeEmpty();
        job.State.Corner(Side.Left).Stop.ShouldBeNull();
    }

    [Fact]
    public void The_push_test_waits_for_a_relaxed_mechanism()
    {
        var job = new Bench().Open().LookOver();
        Should.Throw<NotAllowedException>(() => JobRules.Record(job.State, Side.Left, Look.PushMoves, Seen.Yes)).Interlocks.ShouldContain(5);
    }

    [Fact]
    public void A_look_can_be_taken_back_until_the_corner_is_ruled_on()
    {
        var job = new Bench().Open().Do(s => JobRules.Record(s, Side.Left, Look.BrakeHose, Seen.No)).Do(s => JobRules.Record(s, Side.Left, Look.BrakeHose, null));
        job.State.Observations(Side.Left).ShouldBeEmpty();
        job.LookOver().Identify();
        Should.Throw<NotAllowedException>(() => JobRules.Record(job.State, Side.Left, Look.BrakeHose, Seen.No));
        Should.Throw<NotAllowedException>(() => JobRules.Rule(job.State, Side.Left));
    }

    [Fact]
    public void A_closed_record_takes_no_more_steps()
    {
        var job = new Bench().Open().LookOver().Identify().Until("");
        Should.Throw<NotAllowedException>(() => JobRules.Click(job.State, new(new("chocks-in", null), [], [], null, null, null), true, Bench.Board)).Message.ShouldContain("handed over");
    }

    [Fact]
    public void Holds_are_met_in_order_and_say_what_each_side_lacks()
    {
        var job = new Bench().Open(rules: Bench.BothMeasured).LookOver().Identify().Until("piston-home", Side.Left);
        var bars = RunSheets.Of(job.State).Holds;
        bars.Select(b => b.State).ShouldBe([HoldState.Met, HoldState.Met, HoldState.Holding, HoldState.ToCome]);
        bars[2].Says.ShouldContain("Left lacks");
        bars[2].LeftMet.ShouldBeFalse();
    }

    [Fact]
    public void The_spine_shows_where_the_job_stands()
    {
        var job = new Bench().Open(rules: Bench.BothMeasured).LookOver().Identify().Until("piston-home", Side.Left);
        var sheet = RunSheets.Of(job.State);
        sheet.Stage.ShouldBe(Stage.Retract);
        sheet.Spine.Single(t => t.Stage == Stage.MakeSafe).Finished.ShouldBeTrue();
        sheet.Spine.Single(t => t.Stage == Stage.Clean).StepsLeft.ShouldBe(2);
        sheet.Strip.Single(f => f.Label == "Pedal").DoNot.ShouldBeTrue();
    }

    [Fact]
    public void A_job_needs_sound_particulars()
    {
        var e = Should.Throw<InputException>(() => JobRules.Open(1, 0, new("T", "B", "M", "u", null), -1, " ", JobScope.Pads, Bench.Sheet(), HouseRules.Default));
        e.Errors.Select(x => x.Field).ShouldBe(["bay", "odometerKm", "complaint"]);
    }
}

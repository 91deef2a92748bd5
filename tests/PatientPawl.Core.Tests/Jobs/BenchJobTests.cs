using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Shoes;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Tests.Jobs;

/// <summary>The benches inside a job: readings as events, verdicts as findings, and what they do to the plan.</summary>
public class BenchJobTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);
    private static readonly string[] Places = ["front-anchor-end", "front-middle", "front-adjuster-end", "rear-anchor-end", "rear-middle", "rear-adjuster-end"];

    private static Length Mm(double v) => Length.FromMillimeters(v);
    private static PointReading At(Measurand m, string place, double? deg, double mm, string tool) =>
        new(Guid.NewGuid(), m, place, deg is { } d ? Angle.FromDegrees(d) : null, Mm(mm), InstrumentCatalogue.Find(tool)!, null, default);

    private static SpecSheet HatSheet() => Bench.Sheet() with { Architecture = Architecture.HatShoes, Drum = new(Mm(190), Mm(191), Mm(0.15), null, Mm(1.5), Mm(0.35), Mm(0.55), 6, Mm(80), Mm(80), Mm(1.25), 25, false) };

    internal static Bench HatJob(JobScope scope, HouseRules? rules = null) => Hat(scope, rules);

    private static Bench Hat(JobScope scope, HouseRules? rules = null)
    {
        var job = new Bench().Do(_ => JobRules.Open(7, 1, new("T 1", "Norrin", "Test", "test van", null), 45_000, "weak brake", scope, HatSheet(), rules ?? Bench.BothMeasured)).LookOver();
        foreach (var side in Core.Sides.Both)
        {
            foreach (var (look, seen) in new[] { (Look.CabinControl, Seen.HandLever), (Look.CaliperLever, Seen.No), (Look.CaliperMotor, Seen.No), (Look.PlateCable, Seen.Yes), (Look.HatHole, Seen.Yes), (Look.BrakeByWire, Seen.No), (Look.PlateMotor, Seen.No), (Look.SecondCaliper, Seen.No), (Look.BrakeHose, Seen.Yes), (Look.OpposedPistons, Seen.No) })
                job.Do(s => JobRules.Record(s, side, look, seen));
            job.Do(s => JobRules.Rule(s, side));
        }

        return job;
    }

    private static Bench Drum(Bench job, Side side, double mm, double lining = 3) => job
        .Do(s => JobRules.LookAtShoes(s, side, ShoeFacts.None with { Condition = new(Known.No, Known.No, Known.Yes) }))
        .Do(s => JobRules.Take(s, side, [.. new[] { "open-edge", "near-floor" }.SelectMany(p => new[] { 0, 45, 90, 135 }.Select(d => At(Measurand.DrumDiameter, p, d, mm, "drum-gauge"))), .. Places.Select(p => At(Measurand.ShoeLining, p, null, lining, "depth-gauge"))], Today));

    /// <summary>A sound drum with sound linings.</summary>
    internal static void MeasureDrum(Bench job, Side side) => Drum(job, side, 190.4);

    private static List<string> Left(Bench job) => [.. job.State.Remaining.Select(k => k.ToString())];

    [Fact]
    public void A_shoes_job_measures_both_drums_renews_the_shoes_and_puts_the_old_rotors_and_pads_back()
    {
        var job = Hat(JobScope.Shoes).Until("shoes-measured", Side.Left);
        job.State.Car.Get(Corner.Rotor, Side.Left).ShouldBe(Rotor.Off);
        Should.Throw<InputException>(() => JobRules.Click(job.State, Bench.Click(RunSheets.Of(job.State).Now!), true, Bench.Board)).Errors.Select(e => e.Field).ShouldBe(["linings", "drum"]);
        Drum(job, Side.Left, 190.5).Until("shoes-measured", Side.Right);
        Drum(job, Side.Right, 190.4).Do(s => JobRules.Take(s, Side.Right, [At(Measurand.OverShoes, "now", null, 189.9, "caliper")], Today)).Until("new-shoes-set", Side.Right);
        RunSheets.Of(job.State).Now!.Clearance!.Clicks.ShouldBe(2, "0.5 now, aim 0.45, 0.025 a click");
        job.Until("");
        job.State.HandedOver.ShouldBeTrue();
        job.State.Car.Get(Corner.Rotor, Side.Right).ShouldBe(Rotor.Old);
        job.State.Car.Get(Corner.Pads, Side.Right).ShouldBe(PadState.Old);
        var record = JobRecord.Of(job.State);
        record.Fitted.ShouldBe(["New parking shoes, left.", "New parking shoes, right."]);
        record.Verdicts.Select(v => v.What).ShouldContain("Drum, left");
        job.State.Standing.Select(e => e.Event).OfType<StepDone>().Single(s => s.Step == new StepKey("new-shoes-set", Side.Right)).Clearance!.Clicks.ShouldBe(2);
    }

    [Fact]
    public void A_drum_too_close_to_call_holds_the_job_until_it_is_measured_better()
    {
        var job = Drum(Hat(JobScope.Shoes).Until("shoes-measured", Side.Left), Side.Left, 190.96);
        job.Do(s => JobRules.Click(s, Bench.Click(RunSheets.Of(s).Now!), true, Bench.Board));
        job.State.Car.Get(Corner.Doubt, Side.Left).ShouldBe(Doubt.Open);
        Planner.Why(job.State.Setup, job.State.Car, new("shoes-on", Side.Left)).Lacking.ShouldContain(l => l.Contains("nothing in doubt"));
        var bench = RunSheets.Of(job.State).Now!;
        (bench.Step.StepId, bench.Outcomes.Single()).ShouldBe(("verdict-settled", new OutcomeCard("renewed", "Renew the part")));
        bench.Judged.Single().SettledBy.ShouldContain(s => s.WouldSettle && s.Says.Contains("bore micrometer"));
        bench.Benches.ShouldBe([BenchKind.Shoes]);
        Should.Throw<InputException>(() => JobRules.Click(job.State, Bench.Click(bench), true, Bench.Board)).Errors[0].Message.ShouldContain("bore micrometer will");
        // Followed: every place read with the bore micrometer, and it is settled.
        job.Do(s => JobRules.Take(s, Side.Left, [.. new[] { "open-edge", "near-floor" }.SelectMany(p => new[] { 0, 45, 90, 135 }.Select(d => At(Measurand.DrumDiameter, p, d, 190.955, "bore-micrometer")))], Today));
        job.Do(s => JobRules.Click(s, Bench.Click(RunSheets.Of(s).Now!), true, Bench.Board));
        job.State.Car.Get(Corner.Doubt, Side.Left).ShouldBe(Doubt.None);
        job.State.Setup.Rotors.ShouldBeFalse();
        job.State.Corner(Side.Left).ShoeVerdicts[0].Verdict.ShouldBe(Verdict.Inside);
    }

    [Fact]
    public void Or_it_is_renewed_and_the_axle_gets_rotors_and_pads()
    {
        var job = Drum(Hat(JobScope.Shoes).Until("shoes-measured", Side.Left), Side.Left, 190.96);
        job.Do(s => JobRules.Click(s, Bench.Click(RunSheets.Of(s).Now!), true, Bench.Board));
        job.Do(s => JobRules.Click(s, Bench.Click(RunSheets.Of(s).Now!) with { Outcome = "renewed" }, true, Bench.Board));
        job.State.Setup.RotorFound.ShouldBeTrue();
        RunSheets.Of(job.State).PartsList.ShouldBe(["Rear pad set, with the new rotors", "Two rear rotors, added by a finding", "Parking shoe set with springs and pins"]);
        Left(job).ShouldContain("rotor-on, right");
        Left(job).ShouldNotContain("pads-back, left");
        Drum(job.Until("shoes-measured", Side.Right), Side.Right, 190.4).Until("");
        job.State.HandedOver.ShouldBeTrue();
        JobRecord.Of(job.State).Fitted.ShouldContain("New rotor, right.");
        JobRecord.Of(job.State).Advice.ShouldContain(a => a.Contains("Renewed by choice"));
    }

    [Fact]
    public void A_rotor_under_its_minimum_brings_new_rotors_into_a_pads_job_whatever_is_done_stays_done()
    {
        var job = new Bench().Open().LookOver().Identify().Until("measured", Side.Left);
        var done = RunSheets.Of(job.State).Done.Count;
        var click = Bench.Click(RunSheets.Of(job.State).Now!);
        job.Do(s => JobRules.Click(s, click with { Readings = [.. click.Readings.Select(r => r.Kind == ReadingKind.RotorThickness ? r with { Value = 7.9 } : r)] }, true, Bench.Board));
        RunSheets.Of(job.State).Done.Count.ShouldBe(done + 1);
        job.State.Findings.Single().Finding.Part.ShouldBe(Part.Rotor);
        Left(job).ShouldContain("rotor-on, left");
        // The brake is released and the caliper hung by now: a bar holds the hub, not the brake.
        Left(job).ShouldContain("screws-cracked-bar, left");
        JobState.Fold(job.State.Log).Remaining.ShouldBe(job.State.Remaining);
        job.Until("");
        job.State.HandedOver.ShouldBeTrue();
        job.State.Car.Get(Corner.Rotor, Side.Right).ShouldBe(Rotor.New);
        // Lifting the measuring takes the finding back with it.
        var other = new Bench().Open().LookOver().Identify().Until("measured", Side.Left);
        other.Do(s => JobRules.Click(s, click with { Readings = [.. click.Readings.Select(r => r.Kind == ReadingKind.RotorThickness ? r with { Value = 7.9 } : r)] }, true, Bench.Board));
        var measured = other.State.Log[^1].Id;
        other.Do(s => JobRules.Lift(s, measured, "wrong rotor read", true, other.Who));
        other.State.Setup.RotorFound.ShouldBeFalse();
        Left(other).ShouldNotContain("rotor-on, left");
    }

    [Fact]
    public void The_benches_fill_in_the_measuring_step_and_their_verdict_stands()
    {
        var job = new Bench().Open().LookOver().Identify().Until("measured", Side.Left);
        job.Do(s => JobRules.Take(s, Side.Left,
            [.. Enumerable.Range(0, 8).Select(i => At(Measurand.RotorThickness, "ring", 45 * i, i == 3 ? 9.213 : 9.22, "fine-micrometer")), At(Measurand.PadLining, "inner-leading", null, 5.2, "depth-gauge"), At(Measurand.PadLining, "outer-trailing", null, 6.1, "depth-gauge")], Today));
        job.Do(s => JobRules.LookAtRotor(s, Side.Left, RotorFacts.None with { Condition = RotorCondition.NotLooked with { Cracks = Cracks.None } }));
        var bench = RunSheets.Of(job.State).Now!;
        bench.Prefilled.Select(p => (p.Kind, p.Value)).ShouldBe([(ReadingKind.RotorThickness, 9.213), (ReadingKind.InnerPad, 10.7), (ReadingKind.OuterPad, 11.6)]);
        var click = Bench.Click(bench);
        job.Do(s => JobRules.Click(s, click with { Readings = [.. click.Readings.Select(r => bench.Prefilled.FirstOrDefault(p => p.Kind == r.Kind) is { } p ? r with { Value = p.Value, InstrumentId = p.InstrumentId } : r)] }, true, Bench.Board));
        var rotor = job.State.Corner(Side.Left).Verdicts.Single(v => v.What == "Rotor, left");
        rotor.Value.Millimeters.ShouldBe(9.213, 1e-9);
        rotor.Reasons.Lines[0].Result.ShouldContain("Digital micrometer");
    }

    [Fact]
    public void A_hub_that_wobbles_brings_the_rotor_off_and_back_on()
    {
        var job = new Bench().Open().LookOver().Identify().Until("measured", Side.Left);
        double Dial(int i, double a) => Math.Round(a * Math.Cos(i * Math.PI / 6), 3);
        job.Do(s => JobRules.Take(s, Side.Left,
            [
                .. Enumerable.Range(0, 4).Select(i => At(Measurand.RotorThickness, "ring", 90 * i, 9.6, "fine-micrometer")),
                .. Enumerable.Range(0, 12).SelectMany(i => new[] { At(Measurand.RotorRunout, "run-1", 30 * i, Dial(i, 0.12), "dial"), At(Measurand.RotorRunout, "run-2", 30 * i, Dial(i, 0.11), "dial") }),
            ], Today));
        job.Do(s => JobRules.LookAtRotor(s, Side.Left, RotorFacts.None with { MovedBy = Angle.FromDegrees(180), Condition = RotorCondition.NotLooked with { Cracks = Cracks.None } }));
        job.Do(s => JobRules.Click(s, Bench.Click(RunSheets.Of(s).Now!), true, Bench.Board));
        job.State.Findings.Single().Finding.Part.ShouldBe(Part.HubFace);
        Left(job).ShouldContain("hub-clean, left");
        Left(job).ShouldContain("rotor-back, left");
        job.Until("");
        job.State.HandedOver.ShouldBeTrue();
        job.State.Car.Get(Corner.Rotor, Side.Left).ShouldBe(Rotor.Old);
    }

    [Fact]
    public void A_reading_is_never_overwritten_and_a_struck_one_judges_nothing()
    {
        var job = Drum(Hat(JobScope.Shoes), Side.Left, 190.5);
        var wrong = At(Measurand.DrumDiameter, "open-edge", 0, 191.9, "drum-gauge");
        job.Do(s => JobRules.Take(s, Side.Left, [wrong], Today));
        Verdict Judge() => JobBenches.Shoes(job.State, Side.Left, false, null, job.State.Instruments).Drum!.Maximum.Verdict;
        var before = job.State.Corner(Side.Left).Readings.Count;
        Judge().ShouldNotBe(Verdict.Inside);
        Should.Throw<InputException>(() => JobRules.Strike(job.State, wrong.Id, " ")).Errors[0].Field.ShouldBe("reason");
        job.Do(s => JobRules.Strike(s, wrong.Id, "gauge sat on the ridge"));
        Judge().ShouldBe(Verdict.Inside);
        job.State.Corner(Side.Left).Readings.Count.ShouldBe(before);
        Should.Throw<NotAllowedException>(() => JobRules.Strike(job.State, wrong.Id, "again"));
        Should.Throw<InputException>(() => JobRules.Strike(job.State, Guid.NewGuid(), "none")).Errors[0].Field.ShouldBe("readingId");
        Should.Throw<InputException>(() => JobRules.Take(job.State, Side.Left, [wrong], Today)).Errors[0].Message.ShouldContain("taken before");
        JobState.Fold(job.State.Log).Corner(Side.Left).Struck.Keys.ShouldBe([wrong.Id]);
        JobRecord.Of(job.State).Log.Single(l => l.What == "Reading struck out").Detail.ShouldBe("gauge sat on the ridge");
    }

    [Fact]
    public void What_cannot_be_judged_or_was_taken_out_of_calibration_is_refused_and_nothing_is_recorded()
    {
        var job = Drum(Hat(JobScope.Shoes), Side.Left, 190.5);
        var version = job.State.Version;
        Should.Throw<InputException>(() => JobRules.Take(job.State, Side.Left, [At(Measurand.OverShoes, "now", null, 190.9, "caliper")], Today)).Errors[0].Message.ShouldContain("drum is smaller than the shoes");
        var stale = At(Measurand.OverShoes, "now", null, 190.0, "caliper");
        stale = stale with { Instrument = stale.Instrument with { CalibratedUntil = Today.AddDays(-1) } };
        Should.Throw<InputException>(() => JobRules.Take(job.State, Side.Left, [stale], Today)).Errors[0].Message.ShouldContain("ran out on 2026-11-24");
        Should.Throw<InputException>(() => JobRules.Take(job.State, Side.Left, [], Today)).Errors[0].Field.ShouldBe("readings");
        Should.Throw<InputException>(() => JobRules.LookAtShoes(job.State, Side.Left, ShoeFacts.None with { Stamp = "MAX DIA" })).Errors[0].Field.ShouldBe("stamp");
        Should.Throw<InputException>(() => JobRules.LookAtRotor(job.State, Side.Left, RotorFacts.None with { Studs = 2 })).Errors[0].Field.ShouldBe("studs");
        Should.Throw<InputException>(() => JobRules.NoteStarWheel(job.State, Side.Left, WheelWay.Up, 13)).Errors[0].Field.ShouldBe("holeAt");
        job.State.Version.ShouldBe(version);
    }

    [Fact]
    public void The_vehicle_remembers_its_star_wheels_and_its_wear()
    {
        var first = Hat(JobScope.Pads).Do(s => JobRules.NoteStarWheel(s, Side.Left, WheelWay.Up, 6)).Do(s => JobRules.NoteStarWheel(s, Side.Left, WheelWay.Down, 5)).Until("");
        VehicleHistory.StarWheel([first.State], Side.Left)!.Loosens.ShouldBe(WheelWay.Down);
        VehicleHistory.StarWheel([first.State], Side.Right).ShouldBeNull();
        // New pads at 45 000 km: 15 - 5.5 = 9.5 mm of lining is the first point of a new history.
        var wear = VehicleHistory.PadWear([first.State]);
        wear.Single().ShouldBe(new(45_000, Mm(9.5)));
        var shoes = Hat(JobScope.Shoes).Until("measured", Side.Left);
        shoes.Do(s => JobRules.Click(s, Bench.Click(RunSheets.Of(s).Now!), true, Bench.Board));
        VehicleHistory.PadWear([first.State, shoes.State]).Count.ShouldBe(2);
        var bench = JobBenches.Pads(Hat(JobScope.Shoes).Do(s => JobRules.LookAtPads(s, PadFacts.None with { History = wear, OdometerKm = 60_000 }))
            .Do(s => JobRules.Take(s, Side.Left, [At(Measurand.PadLining, "inner-leading", null, 8, "depth-gauge")], Today)).State, InstrumentCatalogue.Defaults);
        bench.Forecast!.ToMinimumKm.ShouldBe(60_000, "1.5 mm in 15 000 km leaves 6 mm for 60 000");
    }
}

using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Tests.Jobs;

/// <summary>Faults that could have hurt somebody, each as it was measured.</summary>
public class WhatBitesTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);

    private static Bench Sign(Bench job, string step, Side side, int index, double max = 200) =>
        job.Do(s => JobRules.Sign(s, new(new(step, side), index, Bench.Wrench(max), null, TorqueUnit.Nm, null, null, null), Today));

    [Fact]
    public void Wheel_nuts_that_were_half_signed_and_loosened_again_are_all_asked_for()
    {
        var job = new Bench().Open().LookOver().Identify().Until("wheel-torqued", Side.Left);
        for (var i = 1; i <= 3; i++) Sign(job, "wheel-torqued", Side.Left, i);
        job.State.Signatures(new("wheel-torqued", Side.Left)).Count.ShouldBe(3);
        job.Do(s => JobRules.Report(s, FindingKind.BadRotor, Side.Left, null)).Until("wheel-torqued", Side.Left);
        job.State.Signatures(new("wheel-torqued", Side.Left)).ShouldBeEmpty("the wheel has been off since");
        RunSheets.Of(job.State).Now!.NextIndex.ShouldBe(1);
        for (var i = 1; i <= 3; i++) Sign(job, "wheel-torqued", Side.Left, i);
        job.State.Car.Get(Corner.Nuts, Side.Left).ShouldNotBe(Bolts.Torqued, "four nuts, three signed");
        Sign(job, "wheel-torqued", Side.Left, 4);
        job.State.Car.Get(Corner.Nuts, Side.Left).ShouldBe(Bolts.Torqued);
        // What was signed the first time stays in the record.
        JobRecord.Of(job.State).Torques.Count(t => t.Fastener.StartsWith("Wheel", StringComparison.Ordinal) && t.Where == "left").ShouldBe(7);
    }

    [Theory]
    [InlineData("slide-pins-torqued", FindingKind.BadRotor, 60)]
    [InlineData("bracket-torqued", FindingKind.BadShoes, 200)]
    public void Half_signed_slide_pins_and_bracket_bolts_that_come_out_again_are_all_asked_for(string step, FindingKind found, double wrench)
    {
        // The bracket of a cable job comes off with its rotor: shoes cannot be found there, a stuck piston takes the caliper off again.
        var kind = found == FindingKind.BadShoes ? FindingKind.StuckPiston : found;
        var job = new Bench().Open(found == FindingKind.BadShoes ? JobScope.PadsAndRotors : JobScope.Pads).LookOver().Identify().Until(step, Side.Left);
        Sign(job, step, Side.Left, 1, wrench);
        if (kind == FindingKind.BadRotor)
        {
            job.Do(s => JobRules.Report(s, kind, Side.Left, null)).Until(step, Side.Left);
            job.State.Signatures(new(step, Side.Left)).ShouldBeEmpty("the caliper has been off since");
        }
        else
        {
            job.State.Car.Get(Corner.BracketBolts, Side.Left).ShouldBe(Bolts.Snug, "one of two");
            job.Do(s => JobRules.OutOfOrder(s, new(new("bracket-off", Side.Left), [], [], null, null, "it sat crooked"), Bench.Board));
            job.State.Signatures(new(step, Side.Left)).ShouldBeEmpty("the bracket has been off since");
        }
    }

    [Fact]
    public void Nobody_drives_or_beds_in_before_a_torque_that_could_not_be_measured_is_accepted()
    {
        var job = new Bench().Open(JobScope.PadsAndRotors).LookOver().Identify().Until("bracket-torqued", Side.Left);
        job.Do(s => JobRules.Sign(s, new(new("bracket-torqued", Side.Left), 1, null, null, TorqueUnit.Nm, null, null, "no room for a wrench"), Today));
        job.Until("torques-accepted");
        job.State.Car.Get(Car.TestDrive).ShouldBe(Done.No);
        Planner.Why(job.State.Setup, job.State.Car, new("test-driven", null)).Interlocks.ShouldContain(13);
        job.Do(s => JobRules.Click(s, Bench.Click(RunSheets.Of(s).Now!) with { Note = "looked at, marked, tight" }, true, Bench.Board)).Until("test-driven");
        Planner.Why(job.State.Setup, job.State.Car, new("test-driven", null)).Interlocks.ShouldNotContain(13);
    }

    [Theory]
    [InlineData(105)]
    [InlineData(140)]
    public void A_level_over_the_mark_is_not_clicked_on(double level)
    {
        var job = new Bench().Open().LookOver().Identify().Until("level-looked");
        var e = Should.Throw<InputException>(() => JobRules.Click(job.State, Bench.Click(RunSheets.Of(job.State).Now!, level), true, Bench.Board));
        e.Errors[0].Field.ShouldBe(nameof(ReadingKind.ReservoirLevel));
        e.Errors[0].Message.ShouldContain("over MAX");
    }

    [Fact]
    public void A_thicker_reading_on_a_bench_never_hides_a_figure_of_the_run_sheet_that_condemns()
    {
        // Shoes are renewed, pads and rotors are to stay; inner lining 1.0 under 2, rotor 7.9 under 8. Elsewhere somebody reads them thicker.
        foreach (var bench in new[] { false, true })
        {
            var job = BenchJobTests.HatJob(JobScope.Shoes).Until("measured", Side.Left);
            if (bench)
            {
                job.Do(s => JobRules.Take(s, Side.Left, [.. Enumerable.Range(0, 8).Select(i => new PointReading(Guid.NewGuid(), Measurand.RotorThickness, "ring", Angle.FromDegrees(i * 45), Length.FromMillimeters(9.5), InstrumentCatalogue.Find("micrometer")!, null, default))], Today));
                foreach (var side in Core.Sides.Both)
                    job.Do(s => JobRules.Take(s, side, [.. Measurand.PadLining.Card().Places.Select(p => new PointReading(Guid.NewGuid(), Measurand.PadLining, p, null, Length.FromMillimeters(6), InstrumentCatalogue.Find("depth-gauge")!, null, default))], Today));
            }

            var click = Bench.Click(RunSheets.Of(job.State).Now!);
            job.Do(s => JobRules.Click(s, click with
            {
                Readings = [.. click.Readings.Select(r => r.Kind switch { ReadingKind.InnerPad => r with { Value = 6.5 }, ReadingKind.RotorThickness => r with { Value = 7.9 }, _ => r })],
            }, true, Bench.Board));
            job.State.Findings.Where(f => f.Finding.Verdict == Verdict.Outside).Select(f => f.Finding.Part).ShouldBe([Part.Rotor, Part.Pads], ignoreOrder: true, bench ? "with the benches read thicker" : "by the step alone");
            job.State.Setup.Rotors.ShouldBeTrue();
            job.State.Corner(Side.Left).Verdicts.ShouldContain(v => v.What == "Rotor, left" && v.Verdict == Verdict.Outside);
        }
    }
}

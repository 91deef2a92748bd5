using PatientPawl.Core.Workshop;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Torque;
using UnitsNet;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Core.Tests.Jobs;

/// <summary>In a job the figures of the steps and the readings of the benches are one list, and the worst of them decides.</summary>
public class WorstDecidesTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);

    private static PointReading At(Measurand m, string place, double? degrees, double mm, string tool) =>
        new(Guid.NewGuid(), m, place, degrees is { } d ? Angle.FromDegrees(d) : null, Length.FromMillimeters(mm), InstrumentCatalogue.Find(tool)!, null, default);

    private static ClickOn Measured(Bench job, params (ReadingKind Kind, double Value)[] figures)
    {
        var click = Bench.Click(RunSheets.Of(job.State).Now!);
        return click with { Readings = [.. click.Readings.Select(r => figures.Where(f => f.Kind == r.Kind).Select(f => r with { Value = f.Value }).FirstOrDefault() ?? r)] };
    }

    [Fact]
    public void What_the_step_found_too_thin_is_not_made_good_by_a_thicker_reading_elsewhere()
    {
        // Inner lining 1.0 of least 2, rotor 7.9 of least 8.4: both are renewed, whatever the benches read in other places.
        var job = BenchJobTests.HatJob(JobScope.Shoes).Until("measured", Side.Left);
        job.Do(s => JobRules.Take(s, Side.Left, [.. Enumerable.Range(0, 8).Select(i => At(Measurand.RotorThickness, "ring", 45 * i, 9.2, "fine-micrometer")), At(Measurand.PadLining, "outer-leading", null, 6, "caliper")], Today));
        var backing = job.State.Opened!.Sheet.Pads.Backing.Millimeters;
        job.Do(s => JobRules.Click(s, Measured(job, (ReadingKind.InnerPad, backing + 1.0), (ReadingKind.RotorThickness, 7.9)), true, Bench.Board));
        (job.State.Setup.Rotors, job.State.Setup.PadsNew).ShouldBe((true, true));
        job.State.Findings.Select(f => f.Finding.Part).ShouldBe([Part.Rotor, Part.Pads], ignoreOrder: true);
    }

    [Fact]
    public void A_bench_that_was_begun_and_not_finished_holds_the_corner_until_the_places_are_read()
    {
        var job = BenchJobTests.HatJob(JobScope.Shoes).Until("measured", Side.Left);
        job.Do(s => JobRules.LookAtRotor(s, Side.Left, Core.Rotors.RotorFacts.None with { Condition = Core.Rotors.RotorCondition.NotLooked with { Cracks = Core.Rotors.Cracks.None } }));
        job.Do(s => JobRules.Take(s, Side.Left, [.. new[] { 0, 90, 180, 270 }.Select(d => At(Measurand.RotorThickness, "ring", d, 9.2, "fine-micrometer"))], Today));
        job.Do(s => JobRules.Click(s, Measured(job), true, Bench.Board));
        job.State.Car.Get(Corner.Doubt, Side.Left).ShouldBe(Doubt.Open);
        job.State.Findings.ShouldContain(f => f.Finding.Verdict == Verdict.NotYetEnough && f.Finding.Says.Contains("eight angles"));
        JobRecord.Of(job.State).Advice.ShouldContain(a => a.Contains("eight angles"));
        job.Do(s => JobRules.Take(s, Side.Left, [.. new[] { 45, 135, 225, 315 }.Select(d => At(Measurand.RotorThickness, "ring", d, 9.2, "fine-micrometer"))], Today));
        job.Until("verdict-settled", Side.Left).Do(s => JobRules.Click(s, Bench.Click(RunSheets.Of(s).Now!), true, Bench.Board));
        job.State.Car.Get(Corner.Doubt, Side.Left).ShouldBe(Doubt.None);
        JobRecord.Of(job.State).Advice.ShouldNotContain(a => a.Contains("eight angles"), "what was settled is no advice any more");
    }

    [Fact]
    public void New_parts_that_will_not_go_in_are_not_fitted_on_the_quiet()
    {
        var job = new Bench().Open().LookOver().Identify().Until("measured", Side.Left);
        var thin = Measured(job, (ReadingKind.InnerPad, 7), (ReadingKind.OuterPad, 7), (ReadingKind.PistonProtrusion, 5));
        Should.Throw<InputException>(() => JobRules.Click(job.State, thin, true, Bench.Board)).Errors.Single().Message.ShouldContain("report a wrong part");
        JobRules.Click(job.State, thin with { Note = "the maker's thicker pads, seen on the car before" }, true, Bench.Board).ShouldBeOfType<StepDone>();
    }

    [Fact]
    public void A_piston_is_not_home_under_a_boot_that_is_wound_up()
    {
        var job = new Bench().Open().LookOver().Identify().Until("piston-home", Side.Left);
        job.Do(s => JobRules.LookAtRetraction(s, Side.Left, RetractionFacts.None with { Boot = BootState.Wound }));
        Should.Throw<InputException>(() => JobRules.Click(job.State, Bench.Click(RunSheets.Of(job.State).Now!), true, Bench.Board)).Errors.Single().Field.ShouldBe("boot");
    }

    [Fact]
    public void A_signature_is_for_what_stood_on_the_screen()
    {
        var job = new Bench().Open().LookOver().Identify().Until("slide-pins-torqued", Side.Left);
        var now = RunSheets.Of(job.State).Now!;
        var sign = new SignTorque(now.Step, 1, Bench.Wrench(60), null, TorqueUnit.Nm, null, null, null);
        var set = TorqueSetting.Compute(now.Torque!, Bench.Wrench(60), null, Today);
        Should.Throw<InputException>(() => JobRules.Sign(job.State, sign with { Shown = set.OnTheScale + TorqueQuantity.FromNewtonMeters(2) }, Today)).Errors.Single().Field.ShouldBe("shownNm");
        JobRules.Sign(job.State, sign with { Shown = set.OnTheScale }, Today).Verified.ShouldBeTrue();
    }

    [Fact]
    public void A_doubtful_figure_wants_a_word_once_and_why_one_bolt_could_not_be_verified_is_not_that_word()
    {
        // 122 N m is far over what a slide pin takes.
        var doubtful = Bench.Sheet().Torques.Select(t => t.Role == FastenerRole.SlidePin ? t with { Low = TorqueQuantity.FromNewtonMeters(122), High = null } : t);
        var job = new Bench().Do(_ => JobRules.Open(7, 1, new("T 1", "Brae", "Test", "test car", null), 1000, "noise", JobScope.Pads, Bench.Sheet() with { Torques = [.. doubtful] }, HouseRules.Default))
            .LookOver().Identify().Until("slide-pins-torqued", Side.Left);
        SignTorque Sign(int index) => new(RunSheets.Of(job.State).Now!.Step, index, Bench.Wrench(200), null, TorqueUnit.Nm, null, null, null);
        job.Do(s => JobRules.Sign(s, Sign(1) with { Wrench = null, UnverifiedReason = "no room for a wrench" }, Today));
        Should.Throw<InputException>(() => JobRules.Sign(job.State, Sign(2), Today)).Errors.Single().Field.ShouldBe("reason");
        JobRules.Sign(job.State, Sign(2) with { Reason = "the maker's bulletin says so" }, Today).Verified.ShouldBeTrue();
    }
}

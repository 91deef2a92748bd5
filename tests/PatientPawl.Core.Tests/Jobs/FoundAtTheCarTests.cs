using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Tests.Jobs;

/// <summary>What is found beside the job: it can be said, it brings its step and its part, and the job still ends. Common practice, no source.</summary>
public class FoundAtTheCarTests
{
    private static Bench Job(string at = "") =>
        new Bench().Open(at is "bracket-torqued" or "hub-clean" or "rotor-off" or "rotor-on" or "screws-cracked-bar" or "rotor-screws-torqued" ? JobScope.PadsAndRotors : JobScope.Pads).LookOver().Identify();
    private static Bench Find(Bench job, FindingKind kind, Side? side) => job.Do(s => JobRules.Report(s, kind, side, null));
    private static List<string> Ahead(Bench job) => [.. job.State.Remaining.Select(k => k.ToString())];

    [Theory]
    [InlineData(FindingKind.HoseUnsound, "measured", "hose-renewed, left", "brake hose", "New brake hose, left.")]
    [InlineData(FindingKind.HoseUnsound, "wheel-torqued", "hose-renewed, left", "brake hose", "New brake hose, left.")]
    [InlineData(FindingKind.BleedScrewBroken, "caliper-on", "bleed-screw-renewed, left", "bleed screw", "New bleed screw, left.")]
    [InlineData(FindingKind.CableFrayed, "pads-in", "cable-renewed, left", "parking brake cable", "New parking cable, left.")]
    [InlineData(FindingKind.ThreadStripped, "bracket-torqued", "hub-mended, left", "Thread insert, or the part that carries the thread, left, added by a finding", null)]
    [InlineData(FindingKind.StudDamaged, "wheel-torqued", "hub-mended, left", "Wheel stud and nut, left, added by a finding", null)]
    [InlineData(FindingKind.BearingPlay, "wheel-on", "hub-mended, left", "Wheel bearing, left, added by a finding", null)]
    [InlineData(FindingKind.BackingPlate, "measured", "hub-mended, left", "Backing plate, where it does not come straight, left, added by a finding", null)]
    [InlineData(FindingKind.SpeedSensor, "measured", "speed-sensor-mended, left", "Wheel-speed sensor, left, added by a finding", null)]
    [InlineData(FindingKind.NewPartSpoiled, "caliper-on", "right-part", null, null)]
    [InlineData(FindingKind.GreaseOnLining, "caliper-on", "right-part", null, null)]
    [InlineData(FindingKind.PadTight, "pads-in", "pads-eased, left", null, null)]
    [InlineData(FindingKind.PadLoose, "wheel-on", "pads-eased, left", null, null)]
    [InlineData(FindingKind.ClipTouches, "turns-free", "pads-eased, left", null, null)]
    [InlineData(FindingKind.SeizedPin, "measured", "pin-kit, left", "Slide-pin kit, or a bracket, added by a finding", "New slide pins, left.")]
    [InlineData(FindingKind.PinWorn, "measured", "pin-kit, left", "Slide-pin kit, or a bracket, added by a finding", "New slide pins, left.")]
    [InlineData(FindingKind.BushingSwollen, "pins-greased", "pin-kit, left", "Slide-pin kit, or a bracket, added by a finding", "New slide pins, left.")]
    [InlineData(FindingKind.PinAir, "caliper-on", "pins-seated, left", null, null)]
    [InlineData(FindingKind.PinOverGreased, "turns-free", "pins-seated, left", null, null)]
    [InlineData(FindingKind.HubPitted, "hub-clean", "pitted-hub-judged, left", null, null)]
    [InlineData(FindingKind.StuckRotor, "rotor-off", "rotor-freed, left", null, null)]
    [InlineData(FindingKind.KeyMissing, "wheel-off", "nut-key-found, left", "Locking-nut key, or a remover and plain nuts, left, added by a finding", null)]
    [InlineData(FindingKind.WheelNotFlat, "wheel-torqued", "wheel-seated, left", null, null)]
    [InlineData(FindingKind.HungByHose, "measured", "hose-looked, left", null, null)]
    [InlineData(FindingKind.LeverSticks, "lever-on-stop", "lever-mended, left", "Lever spring and boot, or the caliper, left, added by a finding", null)]
    [InlineData(FindingKind.BrokenScrew, "rotor-screws-torqued", "screw-decided, left", null, null)]
    [InlineData(FindingKind.ScrewCameBroken, "rotor-off", "screw-decided, left", null, null)]
    public void At_a_corner_it_brings_its_step_and_part_and_the_job_ends(FindingKind kind, string at, string step, string? part, string? fitted)
    {
        var job = Job(at).Until(at, Side.Left);
        var foretold = FindingRules.Preview(job.State, kind, Side.Left);
        var minutes = job.State.Remaining.Sum(k => StepCatalogue.Find(k.StepId)!.Minutes);
        Find(job, kind, Side.Left);
        job.State.Remaining.Sum(k => StepCatalogue.Find(k.StepId)!.Minutes).ShouldBe(minutes + foretold.Minutes, "what was foretold is what it costs");
        foretold.Minutes.ShouldBeGreaterThan(0);
        Ahead(job).ShouldContain(step);
        if (part is not null)
        {
            foretold.Parts.ShouldContain(part);
            RunSheets.Of(job.State).LayOut.Parts.ShouldContain(part);
        }

        FindingRules.At(job.State, Side.Left).ShouldNotContain(c => c.Kind == kind);
        Should.Throw<NotAllowedException>(() => JobRules.Report(job.State, kind, Side.Left, null));
        job.Until("", level: 80);
        job.State.HandedOver.ShouldBeTrue();
        if (fitted is not null) JobRecord.Of(job.State).Fitted.ShouldContain(fitted);
    }

    [Theory]
    [InlineData(FindingKind.PipeUnsound, "pedal-proved", "pipes-sound")]
    [InlineData(FindingKind.PedalSinks, "level-looked", "pedal-traced")]
    [InlineData(FindingKind.Pulls, "handed-over", "trouble-settled")]
    [InlineData(FindingKind.NoiseOnDrive, "handed-over", "trouble-settled")]
    public void On_the_car_it_brings_its_step_and_what_it_makes_doubtful_is_proved_again(FindingKind kind, string at, string step)
    {
        var job = Job().Until(at, level: 80);
        Find(job, kind, null);
        Ahead(job).ShouldContain(step);
        var proof = kind switch { FindingKind.PipeUnsound or FindingKind.PedalSinks => "pedal-proved", _ => "test-driven" };
        Ahead(job).IndexOf(step).ShouldBeLessThan(Ahead(job).IndexOf(proof), $"{proof} comes after it");
        job.Until("", level: 80);
        job.State.HandedOver.ShouldBeTrue();
    }

    [Fact]
    public void The_pedal_is_not_pressed_on_a_hose_that_is_to_be_renewed_and_its_corner_alone_is_bled()
    {
        var job = Job().Until("pedal-proved");
        Find(job, FindingKind.HoseUnsound, Side.Right);
        Planner.Why(job.State.Setup, job.State.Car, new("pedal-proved", null)).Interlocks.ShouldContain(3);
        Ahead(job).ShouldContain("corner-bled, right");
        Ahead(job).ShouldNotContain("corner-bled, left");
        Ahead(job).IndexOf("banjo-torqued, right").ShouldBeLessThan(Ahead(job).IndexOf("corner-bled, right"));
    }

    [Fact]
    public void Two_things_at_one_hub_are_two_findings_and_the_step_that_puts_them_right_says_how_for_both()
    {
        var job = Job("bracket-torqued").Until("bracket-torqued", Side.Left);
        Find(job, FindingKind.ThreadStripped, Side.Left);
        Find(job, FindingKind.StudDamaged, Side.Left);
        Should.Throw<NotAllowedException>(() => JobRules.Report(job.State, FindingKind.ThreadStripped, Side.Left, null));
        Ahead(job).IndexOf("hub-mended, left").ShouldBeLessThan(Ahead(job).IndexOf("bracket-torqued, left"), "no torque on a stripped thread");
        job.Until("hub-mended", Side.Left);
        var bench = RunSheets.Of(job.State).Now!;
        bench.How.ShouldContain("Thread stripped: drilled square");
        bench.How.ShouldContain("Wheel stud or nut damaged: stud drawn home");
        Should.Throw<InputException>(() => JobRules.Click(job.State, Bench.Click(bench) with { Note = null }, true, Bench.Board)).Errors.Single().Field.ShouldBe("note");
        job.Step(bench);
        // Put right, it can happen again.
        FindingRules.At(job.State, Side.Left).Select(c => c.Kind).ShouldContain(FindingKind.ThreadStripped);
    }

    [Fact]
    public void A_bleed_screw_that_stays_in_takes_its_caliper_with_it()
    {
        var job = Job().Until("caliper-on", Side.Left);
        Find(job, FindingKind.BleedScrewBroken, Side.Left).Until("bleed-screw-renewed", Side.Left);
        job.Do(s => JobRules.Click(s, Bench.Click(RunSheets.Of(s).Now!) with { Outcome = "stays" }, true, Bench.Board));
        job.State.Setup.Left.CaliperNew.ShouldBeTrue();
        Ahead(job).ShouldNotContain("bleed-screw-renewed, left", "the new caliper brings its own");
        job.Until("new-caliper-hung", Side.Left).Step(RunSheets.Of(job.State).Now!);
        FindingRules.At(job.State, Side.Left).ShouldContain(c => c.Kind == FindingKind.BleedScrewBroken, "and that one can break too");
        job.Until("", level: 80);
        job.State.HandedOver.ShouldBeTrue();
    }
}

using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Jobs;

/// <summary>What the car and the people do that no plan foresaw: findings, steps out of order, a night.</summary>
public class SurpriseTests
{
    private static Bench Job(JobScope scope = JobScope.Pads) => new Bench().Open(scope).LookOver().Identify();
    private static List<string> Ahead(Bench job) => [.. job.State.Remaining.Select(k => k.ToString())];
    private static Bench Find(Bench job, FindingKind kind, Side? side) => job.Do(s => JobRules.Report(s, kind, side, null));

    [Fact]
    public void A_stuck_piston_brings_a_caliper_with_its_hose_and_bleeding_and_the_job_ends_handed_over()
    {
        var job = Job().Until("piston-home", Side.Left);
        var done = RunSheets.Of(job.State).Done.Count;
        Find(job, FindingKind.StuckPiston, Side.Left);
        RunSheets.Of(job.State).Done.Count.ShouldBe(done + 1, "what is done stays done");
        Ahead(job).ShouldContain("old-caliper-away, left");
        Ahead(job).ShouldContain("corner-bled, left");
        Ahead(job).ShouldContain("banjo-torqued, left");
        Ahead(job).ShouldNotContain("old-caliper-away, right");
        Ahead(job).ShouldNotContain("piston-home, left");
        // The hose stays shut until the new caliper lies beside the old one.
        Ahead(job).IndexOf("parts-compared").ShouldBeInRange(0, Ahead(job).IndexOf("old-caliper-away, left"));
        Ahead(job).IndexOf("banjo-torqued, left").ShouldBeLessThan(Ahead(job).IndexOf("corner-bled, left"));
        Ahead(job).IndexOf("corner-bled, left").ShouldBeLessThan(Ahead(job).IndexOf("pedal-proved"));
        RunSheets.Of(job.State).PartsList.ShouldContain("Left rear caliper with sealing washers");
        var change = RunSheets.Of(job.State).Changes.Single();
        change.Because.ShouldStartWith("Left: piston stuck or boot torn");
        change.Added.ShouldContain("Caliper away, left");
        change.Gone.ShouldContain("Piston home, left");
        change.Again.ShouldContain("Compare new parts with old");
        RunSheets.Of(job.State).Ahead.Count(a => a.CameIn).ShouldBe(change.Added.Count);
        JobState.Fold(job.State.Log).Remaining.ShouldBe(job.State.Remaining);
        Finish(job);
        job.State.Car.Get(Corner.CaliperPart, Side.Left).ShouldBe(CaliperPart.New);
        job.State.Car.Get(Corner.Hydraulics, Side.Left).ShouldBe(HydraulicsState.Closed);
        job.State.Car.Get(Corner.Bled, Side.Left).ShouldBe(Done.Yes);
    }

    [Fact]
    public void The_other_school_renews_calipers_in_pairs()
    {
        var job = new Bench().Do(_ => JobRules.Open(7, 1, new("T 1", "Brae", "Test", "test car", null), 1000, "noise", JobScope.Pads, Bench.Sheet(), HouseRules.Default with { Pairs = PairsRule.BothSides })).LookOver().Identify().Until("piston-home", Side.Left);
        Find(job, FindingKind.StuckPiston, Side.Left);
        Ahead(job).ShouldContain("old-caliper-away, right");
        RunSheets.Of(job.State).PartsList.ShouldContain("Right rear caliper with sealing washers");
    }

    [Fact]
    public void A_stop_sign_holds_the_corner_until_a_new_caliper_is_reported()
    {
        var job = Job().Until("piston-home", Side.Left).Do(s => JobRules.Stop(s, Side.Left, Core.Retraction.StopSign.StopsShort, null));
        job.State.CannotBeMet.ShouldNotBeEmpty();
        Find(job, FindingKind.StuckPiston, Side.Left);
        job.State.CannotBeMet.ShouldBeEmpty();
        job.State.Corner(Side.Left).Stop.ShouldBeNull();
        Finish(job);
    }

    [Theory]
    [InlineData(FindingKind.FrozenPads, "measured", "hardware-new, left", "Hardware kit: clips and springs, added by a finding")]
    [InlineData(FindingKind.SeizedPin, "measured", "pin-kit, left", "Slide-pin kit, or a bracket, added by a finding")]
    [InlineData(FindingKind.BadRotor, "pads-in", "rotor-on, right", "Two rear rotors, added by a finding")]
    [InlineData(FindingKind.StuckWheel, "lifted", "wheel-freed, left", null)]
    public void Each_finding_brings_its_steps_and_parts_and_can_be_followed_to_the_end(FindingKind kind, string at, string step, string? part)
    {
        var job = Job().Until(at, StepCatalogue.Find(at)!.Lane == Lane.Car ? null : Side.Left);
        Find(job, kind, Side.Left);
        Ahead(job).ShouldContain(step);
        if (part is not null) RunSheets.Of(job.State).PartsList.ShouldContain(part);
        Should.Throw<NotAllowedException>(() => JobRules.Report(job.State, kind, Side.Left, null)).Because.ShouldContain(b => b.Contains("known already"));
        Finish(job);
    }

    [Fact]
    public void A_rotor_found_after_the_left_side_is_complete_opens_it_again_and_says_so()
    {
        var job = Job().Until("wheel-on", Side.Left);
        Find(job, FindingKind.BadRotor, Side.Right);
        var change = RunSheets.Of(job.State).Changes.Single();
        change.Again.ShouldContain("Caliper off, hung, left");
        change.Added.ShouldContain("Fitted pads out, left");
        Ahead(job).IndexOf("pads-kept-out, left").ShouldBeLessThan(Ahead(job).IndexOf("rotor-on, left"));
        Finish(job);
        Core.Sides.Both.ShouldAllBe(s => job.State.Car.Get(Corner.Rotor, s) == Rotor.New);
    }

    [Fact]
    public void A_broken_screw_is_decided_with_a_note_and_the_wrong_part_stops_new_parts()
    {
        var job = Job(JobScope.PadsAndRotors).Until("rotor-off", Side.Left);
        Find(job, FindingKind.BrokenScrew, Side.Left);
        Find(job, FindingKind.WrongPart, null);
        Ahead(job).IndexOf("right-part").ShouldBeInRange(0, Ahead(job).IndexOf("rotor-on, left"));
        job.Until("screw-decided", Side.Left);
        Should.Throw<InputException>(() => JobRules.Click(job.State, Bench.Click(RunSheets.Of(job.State).Now!) with { Note = null }, true, Bench.Board)).Errors.Single().Field.ShouldBe("note");
        job.Do(s => JobRules.Click(s, Bench.Click(RunSheets.Of(s).Now!) with { Note = "flush, run without" }, true, Bench.Board));
        Finish(job);
        job.State.Car.Get(Corner.RotorScrews, Side.Left).ShouldBe(Bolts.None);
        job.State.Car.Get(Corner.RotorScrews, Side.Right).ShouldBe(Bolts.Torqued);
    }

    [Fact]
    public void Fluid_that_shows_is_bled_and_a_finding_lifted_goes_out_again()
    {
        var job = Job().Until("pads-in", Side.Left);
        Find(job, FindingKind.FluidShows, Side.Left);
        Ahead(job).ShouldContain("corner-bled, left");
        var found = job.State.Log[^1].Id;
        job.Do(s => JobRules.Lift(s, found, "rain water", true, job.Who));
        Ahead(job).ShouldNotContain("corner-bled, left");
        RunSheets.Of(job.State).Changes.ShouldBeEmpty();
    }

    [Fact]
    public void What_cannot_be_found_here_is_refused_with_the_reason()
    {
        var job = Job();
        Should.Throw<NotAllowedException>(() => JobRules.Report(job.State, FindingKind.BadShoes, Side.Left, null));
        Should.Throw<InputException>(() => JobRules.Report(job.State, FindingKind.StuckPiston, null, null)).Errors.Single().Field.ShouldBe("side");
        Should.Throw<InputException>(() => JobRules.Report(job.State, FindingKind.WrongPart, Side.Left, null)).Errors.Single().Field.ShouldBe("side");
        Should.Throw<InputException>(() => JobRules.Report(job.State, (FindingKind)99, null, null)).Errors.Single().Field.ShouldBe("kind");
        FindingCatalogue.All.ShouldAllBe(c => c.Does.EndsWith('.') && c.Name.Length < 32);
        FindingCatalogue.All.Count.ShouldBe(Enum.GetValues<FindingKind>().Length);
        // An inspection finds and advises; it renews nothing.
        var inspect = new Bench().Open(JobScope.Inspect).LookOver().Identify();
        FindingRules.At(inspect.State, Side.Left).ShouldContain(c => c.Kind == FindingKind.SeizedPin);
        inspect.Until("");
        inspect.State.HandedOver.ShouldBeTrue();
        inspect.State.Car.Get(Corner.Pads, Side.Left).ShouldBe(PadState.Old);
    }

    [Fact]
    public void A_pedal_pressed_with_a_caliper_off_is_put_right_looked_at_and_proved_again()
    {
        var job = Job().Until("pads-in", Side.Left);
        var pedal = new StepKey("pedal-proved", null);
        var command = new ClickOn(pedal, [new(Core.Measuring.ReadingKind.PedalStrokes, 3, null)], [], null, null, "a helper pressed it");
        Should.Throw<InputException>(() => JobRules.OutOfOrder(job.State, command with { Note = " " }, Bench.Board)).Errors.Single().Field.ShouldBe("note");
        job.Do(s => JobRules.OutOfOrder(s, command, Bench.Board));
        ((StepDone)job.State.Log[^1].Event).Broken!.ShouldContain(3);
        job.State.Car.Get(Corner.Hydraulics, Side.Left).ShouldBe(HydraulicsState.Unknown);
        Ahead(job).ShouldContain("piston-looked, left");
        Ahead(job).ShouldContain("circuit-looked, left");
        Ahead(job).ShouldContain("circuit-looked, right", "one pedal presses both");
        Ahead(job).ShouldContain("pedal-proved");
        RunSheets.Of(job.State).Now!.Step.StepId.ShouldBe("piston-looked", "looking at what it may have done comes first");
        RunSheets.Of(job.State).Changes.Single().Because.ShouldContain("out of order");
        Finish(job);
        JobRecord.Of(job.State).Log.ShouldContain(l => l.Detail.Contains("out of order"));
    }

    [Fact]
    public void A_caliper_put_on_before_its_lands_are_clean_comes_off_again()
    {
        var job = Job().Until("lands-clean", Side.Left);
        job.Do(s => JobRules.OutOfOrder(s, new(new("caliper-on", Side.Left), [], [], null, null, "put on in a hurry"), Bench.Board));
        var ahead = Ahead(job);
        ahead.ShouldContain("caliper-off, left");
        ahead.IndexOf("caliper-off, left").ShouldBeLessThan(ahead.IndexOf("lands-clean, left"));
        Finish(job);
    }

    [Fact]
    public void What_judges_signs_or_may_be_done_now_is_not_marked_out_of_order()
    {
        var job = Job();
        StepDone Mark(string id, Side? side) => JobRules.OutOfOrder(job.State, new(new(id, side), [], [], null, null, "done"), Bench.Board);
        Should.Throw<NotAllowedException>(() => Mark("measured", Side.Left));
        Should.Throw<NotAllowedException>(() => Mark("slide-pins-torqued", Side.Left));
        Should.Throw<NotAllowedException>(() => Mark("handed-over", null));
        Should.Throw<NotAllowedException>(() => Mark("chocks-in", null)).Message.ShouldContain("may be done now");
        Should.Throw<InputException>(() => Mark("service-entered", null)).Errors.Single().Message.ShouldContain("does not exist on this car");
        Should.Throw<InputException>(() => Mark("no-such-step", null));
    }

    [Fact]
    public void A_job_is_left_only_at_a_safe_stop_and_what_could_have_changed_is_looked_at_again()
    {
        var job = Job().Until("piston-home", Side.Left);
        var ahead = Ahead(job);
        job.Do(JobRules.Leave);
        RunSheets.Of(job.State).Now.ShouldBeNull();
        RunSheets.Of(job.State).Night!.Tags.ShouldContain("Key: do not drive");
        BoardCard.Of(Guid.NewGuid(), job.State).Headline.ShouldBe("the morning");
        Should.Throw<NotAllowedException>(() => JobRules.Click(job.State, new(new("piston-home", Side.Left), [], [], null, null, null), true, Bench.Board)).Because.ShouldContain(b => b.Contains("Come back"));
        job.Do(JobRules.ComeBack);
        Ahead(job).IndexOf("lever-on-stop, left").ShouldBeInRange(0, Ahead(job).IndexOf("piston-home, left"));
        ahead.IndexOf("lever-on-stop, left").ShouldBeGreaterThan(ahead.IndexOf("lever-cycled"), "it was seen already, and only asked again after cycling");
        Should.Throw<NotAllowedException>(() => JobRules.ComeBack(job.State));
        Finish(job);
        job.State.Log.Count(e => e.Event is LeftOvernight or CameBack).ShouldBe(2);
    }

    [Fact]
    public void With_a_caliper_away_and_its_hose_plugged_it_is_left_on_stands_and_nobody_presses_the_pedal()
    {
        var job = Job().Until("piston-home", Side.Left);
        Find(job, FindingKind.StuckPiston, Side.Left).Until("new-caliper-hung", Side.Left);
        var stop = Overnight.Shortest(job.State.Setup, job.State.Car);
        stop.Kind.ShouldBe(NightKind.OnStands);
        stop.Tags.ShouldContain("Brake pedal: do not press");
    }

    private static void Finish(Bench job)
    {
        job.Until("");
        job.State.HandedOver.ShouldBeTrue(string.Join("; ", job.State.CannotBeMet));
    }
}

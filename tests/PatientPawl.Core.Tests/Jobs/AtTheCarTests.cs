using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;

namespace PatientPawl.Core.Tests.Jobs;

/// <summary>What people decide, discover and do differently at a car, said without a false click. Common practice, no source.</summary>
public class AtTheCarTests
{
    private static Bench Job(JobScope scope = JobScope.Pads, Func<SpecSheet, SpecSheet>? sheet = null) => new Bench()
        .Do(_ => JobRules.Open(7, 1, new("T 1", "Brae", "Test", "test car", null), 1000, "noise", scope, (sheet ?? (s => s))(Bench.Sheet()), Workshop.HouseRules.Default)).LookOver().Identify();

    private static Bench Find(Bench job, FindingKind kind, Side? side, string? note = null) => job.Do(s => JobRules.Report(s, kind, side, note));
    private static StepBench Now(Bench job) => RunSheets.Of(job.State).Now!;
    private static Bench As(Bench job, string? outcome, bool lead = true) => job.Do(s => JobRules.Click(s, Bench.Click(Now(job)) with { Outcome = outcome }, lead, Bench.Board));
    private static SpecSheet TwoScrews(SpecSheet sheet) => sheet with { Torques = [.. sheet.Torques.Select(t => t.Role == FastenerRole.RotorScrew ? t with { PerCorner = 2 } : t)] };

    [Fact]
    public void A_screw_that_will_not_crack_is_worked_on_one_way_after_the_other_and_a_rounded_head_is_not_turned_any_more()
    {
        var job = Job(JobScope.PadsAndRotors).Until("screws-cracked-brake", Side.Left);
        Now(job).How.ShouldBe("Impact driver square in the head, or the bar. Crack them, leave them in. Way 1 of 4.");
        As(job, "not-yet");
        Now(job).Step.ShouldBe(new("screws-cracked-brake", Side.Left), "a way that did not do it changes nothing on the car");
        Now(job).How.ShouldStartWith("Penetrating oil, and time");
        Find(job, FindingKind.ScrewRounded, Side.Left);
        Now(job).How.ShouldBe("A punch at the edge of the head, turning it out. Way 3 of 4.");
        job.Until("rotor-screws-torqued", Side.Left);
        Now(job).How.ShouldContain("The head of one is rounded: a new screw.");
        LayingOut.Of(job.State).Parts.ShouldContain("Rotor screw, left, added by a finding");
    }

    [Fact]
    public void A_broken_screw_is_left_out_by_the_lead_and_no_one_else_and_the_others_keep_their_steps()
    {
        var job = Job(JobScope.PadsAndRotors, TwoScrews).Until("rotor-off", Side.Left);
        Find(job, FindingKind.BrokenScrew, Side.Left).Until("screw-decided", Side.Left);
        Should.Throw<NotAllowedException>(() => As(job, null, lead: false)).Because.ShouldBe(["Needs the lead's sign-in."]);
        As(job, null);
        job.State.Car.Get(Corner.RotorScrews, Side.Left).ShouldBe(Bolts.Cracked, "the other one holds the rotor");
        job.Until("rotor-screws-torqued", Side.Left);
        Now(job).Torque!.PerCorner.ShouldBe(1, "what was left out is not signed for");
        job.Until("rotor-screws-torqued", Side.Right);
        Now(job).Torque!.PerCorner.ShouldBe(2);
        job.Until("", level: 80);
        JobRecord.Of(job.State).Advice.ShouldContain(a => a.StartsWith("A rotor screw was left out, left", StringComparison.Ordinal));
        var decided = JobRecord.Of(job.State).Log.Single(l => l.What == "Broken rotor screw");
        decided.By.ShouldBe("Ada Bell");
        decided.Detail.ShouldContain("seen to and put right");
    }

    [Fact]
    public void Anyone_may_drill_a_broken_screw_out_and_one_that_came_broken_is_recorded_as_found()
    {
        var job = Job(JobScope.PadsAndRotors).Until("rotor-off", Side.Left);
        Find(job, FindingKind.ScrewCameBroken, Side.Left).Until("screw-decided", Side.Left);
        As(job, "drilled", lead: false);
        job.Until("", level: 80);
        job.State.Car.Get(Corner.RotorScrews, Side.Left).ShouldBe(Bolts.Torqued);
        JobRecord.Of(job.State).Log.ShouldContain(l => l.What == "Rotor screw came broken");
    }

    [Fact]
    public void A_stuck_rotor_that_goes_away_is_struck_only_after_oil_and_a_struck_hub_has_its_ring_looked_at_and_its_lamp_asked()
    {
        var job = Job(JobScope.PadsAndRotors).Until("rotor-off", Side.Left);
        Find(job, FindingKind.StuckRotor, Side.Left);
        Now(job).How.ShouldStartWith("Penetrating oil");
        As(job, "not-yet");
        Now(job).How.ShouldStartWith("Blows between the studs");
        As(job, null);
        job.State.Car.Get(Corner.RingLook, Side.Left).ShouldBe(Asked.Due);
        job.Until("ring-looked", Side.Left);
        As(job, "hurt");
        job.State.Remaining.ShouldContain(new StepKey("speed-sensor-mended", Side.Left));
        job.Until("lamp-seen-off", level: 80);
        As(job, null);
        job.Until("", level: 80).State.HandedOver.ShouldBeTrue();
    }

    [Fact]
    public void A_rotor_that_stays_is_never_struck_and_heat_is_offered_nowhere()
    {
        // Its shoes are renewed; the rotor goes back on.
        var setup = PlanSetup.For(Architecture.HatShoes, JobScope.Shoes);
        var freed = CompiledCatalogue.For(setup).Find(new("rotor-freed", Side.Left))!.Type;
        freed.ToolsIn(setup).ShouldNotContain("hammer and drift");
        freed.ToolsIn(PlanSetup.For(Architecture.HatShoes, JobScope.PadsAndRotors)).ShouldContain("hammer and drift");
        var job = Job(JobScope.PadsAndRotors).Until("rotor-off", Side.Left);
        Find(job, FindingKind.StuckRotor, Side.Left);
        List<string> ways = [];
        for (var i = 0; i < 4; i++)
        {
            ways.Add(Now(job).How);
            As(job, "not-yet");
        }

        ways.ShouldAllBe(w => !w.Contains("torch", StringComparison.OrdinalIgnoreCase) && (!w.Contains("heat", StringComparison.OrdinalIgnoreCase) || w.Contains("Never heat", StringComparison.Ordinal)));
        Now(job).How.ShouldStartWith("The heavier hammer", Case.Sensitive, "the last way stays the last");
    }

    [Fact]
    public void A_stepped_hub_says_so_where_it_is_cleaned_and_where_the_rotor_goes_on()
    {
        var job = Job(JobScope.PadsAndRotors).Until("hub-clean", Side.Left);
        Find(job, FindingKind.HubStepped, Side.Left);
        Now(job).How.ShouldEndWith("Stepped hub: each step clean by itself, none proud.");
        job.Until("rotor-on", Side.Left);
        Now(job).How.ShouldContain("none proud");
        job.Until("rotor-on", Side.Right);
        Now(job).How.ShouldNotContain("Stepped hub");
    }

    [Fact]
    public void A_pad_that_stays_tight_gets_its_ways_and_each_try_is_a_line_of_the_log()
    {
        var job = Job().Until("pads-in", Side.Left);
        Find(job, FindingKind.PadTight, Side.Left).Until("pads-eased", Side.Left);
        Now(job).How.ShouldContain("lands again to bare metal");
        As(job, "not-yet");
        Now(job).How.ShouldContain("coating of its ears dressed with a file, never a lining");
        As(job, null);
        JobRecord.Of(job.State).Log.Count(l => l.What == "Ease pads, clips").ShouldBe(2);
    }

    [Fact]
    public void Who_signed_stands_for_what_holds_and_not_for_what_has_come_out_since()
    {
        var job = Job().Until("pedal-proved", null);
        List<Side?> Pins() => [.. SignedFastener.Of(job.State).Where(s => s.Role == FastenerRole.SlidePin).Select(s => s.Side)];
        Pins().ShouldBe([Side.Left, Side.Left, Side.Right, Side.Right]);
        // The left caliper comes off again: its pins are signed by nobody until they are signed anew.
        Find(job, FindingKind.StuckPiston, Side.Left);
        Pins().ShouldBe([Side.Right, Side.Right]);
    }

    [Fact]
    public void Where_the_caliper_sits_is_told_as_taken_until_somebody_has_said_it()
    {
        var job = Job().Until("pads-in", Side.Left);
        Now(job).Pads!.Assumes.ShouldBe("Taken as behind the axle: nobody has said. Ahead of it all this is upside down; say so at the pad bench.");
        job.Do(s => JobRules.LookAtPads(s, JobPads.Facts(s) with { Parts = JobPads.Facts(s).Parts with { Caliper = Core.Pads.CaliperPlace.AheadOfAxle } }));
        Now(job).Pads!.Assumes.ShouldBeNull();
        Now(job).Pads!.Placement.LeadingEndAtBottom.ShouldBeFalse();
    }

    [Fact]
    public void A_sensor_that_is_not_at_this_corner_has_no_step_and_one_worn_through_is_renewed_on_its_side_with_its_lamp_asked()
    {
        var job = Job(sheet: s => s with { Fittings = [Fitting.WearSensor] }).Until("sensor-off", Side.Left);
        Find(job, FindingKind.NoSensor, Side.Right);
        job.State.Remaining.ShouldNotContain(new StepKey("sensor-off", Side.Right));
        Find(job, FindingKind.SensorWorn, Side.Left);
        job.State.Remaining.ShouldContain(new StepKey("sensor-renewed", Side.Left));
        FindingRules.At(job.State, Side.Right).ShouldNotContain(c => c.Kind == FindingKind.SensorWorn);
        job.Until("pads-in", Side.Left);
        Now(job).Pads!.Placement.Lines.ShouldContain("Wear sensor: a new one; its contact is worn through. Reset its light.");
        job.Until("pads-in", Side.Right);
        Now(job).Pads!.Placement.Lines.ShouldNotContain(l => l.Contains("sensor", StringComparison.OrdinalIgnoreCase));
        job.Until("lamp-seen-off", level: 80);
        As(job, "tool-needed");
        job.Until("", level: 80);
        JobRecord.Of(job.State).Advice.ShouldContain(a => a.Contains("stays lit until a tool resets it", StringComparison.Ordinal));
        JobRecord.Of(job.State).Fitted.ShouldContain("New wear sensor, left.");
    }

    [Fact]
    public void A_sheet_that_names_the_sensors_side_asks_at_that_side_only()
    {
        var job = Job(sheet: s => s with { Fittings = [Fitting.WearSensor], PadSet = new(Core.Pads.PadEnd.Leading, SensorAt: SensorSide.Right) });
        job.State.Remaining.ShouldNotContain(new StepKey("sensor-off", Side.Left));
        job.State.Remaining.ShouldContain(new StepKey("sensor-off", Side.Right));
    }

    [Fact]
    public void A_job_that_waits_for_parts_says_on_the_board_for_what_from_where_and_since_when()
    {
        var job = Job().Until("measured", Side.Left).Do(s => JobRules.Await(s, "Rear pad set", "the mainland store", new(2026, 12, 1)));
        var card = BoardCard.Of(Guid.NewGuid(), job.State);
        card.Status.ShouldBe(BoardStatus.Waits);
        card.Headline.ShouldBe("rear pad set");
        card.Next.ShouldBe("From the mainland store, since 2026-11-25, expected 2026-12-01.");
        Should.Throw<NotAllowedException>(() => JobRules.Await(job.State, "bolts", "here", null));
        Should.Throw<InputException>(() => JobRules.Await(Job().State, " ", "here", null)).Errors.Single().Field.ShouldBe("what");
        RunSheets.Of(job.State).Now.ShouldNotBeNull("what can be done without them is still offered");
        job.Do(JobRules.Came);
        RunSheets.Of(job.State).Awaits.ShouldBeNull();
        Should.Throw<NotAllowedException>(() => JobRules.Came(job.State));
    }

    [Fact]
    public void A_new_caliper_that_brings_its_bracket_has_the_old_one_off_and_needs_no_lands_cleaned()
    {
        var job = Job().Until("measured", Side.Left);
        Find(job, FindingKind.StuckPiston, Side.Left).Until("new-caliper-hung", Side.Left);
        Find(job, FindingKind.BringsBracket, Side.Left);
        job.State.Remaining.ShouldContain(new StepKey("bracket-off", Side.Left));
        job.State.Remaining.ShouldNotContain(new StepKey("lands-clean", Side.Left));
        job.Until("bracket-torqued", Side.Left).Until("", level: 80);
        JobRecord.Of(job.State).Fitted.ShouldContain("New bracket, left.");
        string Hung(Known pin) => Now(Find(Job(sheet: s => s with { PadSet = new(null, pin) }).Until("measured", Side.Left), FindingKind.StuckPiston, Side.Left).Until("new-caliper-hung", Side.Left)).How;
        Hung(Known.No).ShouldEndWith("A cable goes through its mount first.");
        Hung(Known.Yes).ShouldEndWith("Its piston's slot is turned to the pad's pin now, before anything covers it.");
    }

    [Fact]
    public void Clips_and_pins_that_were_wanted_on_the_old_bracket_are_not_asked_on_the_one_of_the_set()
    {
        var job = Job().Until("measured", Side.Left);
        foreach (var found in new[] { FindingKind.StuckPiston, FindingKind.FrozenPads, FindingKind.SeizedPin }) Find(job, found, Side.Left);
        Find(job.Until("new-caliper-hung", Side.Left), FindingKind.BringsBracket, Side.Left).Until("bracket-torqued", Side.Left);
        job.State.Standing.Select(e => e.Event).OfType<StepDone>().ShouldContain(e => e.Step.StepId == "bracket-swapped");
        job.State.Remaining.ShouldNotContain(k => k.StepId == "hardware-new" || k.StepId == "pin-kit");
        JobRecord.Of(job.Until("", level: 80).State).Fitted.ShouldNotContain(line => line.Contains("hardware") || line.Contains("slide pins"));
    }

    [Fact]
    public void What_was_learnt_at_a_vehicle_stands_in_its_next_job_with_its_day_and_is_not_asked_twice()
    {
        var first = Job().Until("piston-home", Side.Left);
        Find(first, FindingKind.TwoStages, Side.Left);
        Find(first, FindingKind.BoltFirst, Side.Right, "upper slide-pin bolt");
        Should.Throw<InputException>(() => Find(first, FindingKind.BoltsLeftAlone, Side.Left)).Errors.Single().Allowed.ShouldBe("which bolts, and why");
        var learnt = VehicleHistory.Learnt([first.State]);
        learnt.Count.ShouldBe(2);
        var next = new Bench().Do(_ => JobRules.Open(8, 1, new("T 1", "Brae", "Test", "test car", null), 2000, "noise", JobScope.Pads, Bench.Sheet(), Workshop.HouseRules.Default, learnt: learnt)).LookOver().Identify();
        next.Until("piston-home", Side.Left);
        Now(next).How.ShouldContain("It goes in two stages: the first stop is not home. Measured here on 2026-11-25.");
        FindingRules.At(next.State, Side.Left).ShouldNotContain(c => c.Kind == FindingKind.TwoStages);
        next.Until("caliper-on", Side.Right);
        Now(next).How.ShouldContain("This bolt goes in first: upper slide-pin bolt. Measured here on 2026-11-25.");
    }

    [Fact]
    public void Effort_that_is_felt_two_grades_apart_counts_as_harder_and_one_grade_does_not()
    {
        var job = Job().Until("piston-home", Side.Left);
        void Feels(Side side, FeltEffort how) => job.Do(s => JobRules.LookAtRetraction(s, side, s.Corner(side).Retraction with { Felt = how }));
        Feels(Side.Right, FeltEffort.Easy);
        Feels(Side.Left, FeltEffort.Firm);
        JobBenches.Retraction(job.State, Side.Left, null).Log.Findings.ShouldBeEmpty();
        Feels(Side.Left, FeltEffort.Hard);
        JobBenches.Retraction(job.State, Side.Left, null).Log.Findings.Single().Says.ShouldBe("Hard here, easy on the other side.");
    }

    [Fact]
    public void What_came_wrong_is_recorded_as_found_and_said_where_it_matters_for_the_torque()
    {
        var job = Job(JobScope.PadsAndRotors).Until("rotor-screws-torqued", Side.Left);
        Find(job, FindingKind.AntiSeizeOnScrew, Side.Left);
        Now(job).How.ShouldContain("On it the figure overloads the screw.");
        Find(job, FindingKind.StudsLubricated, Side.Left);
        Find(job, FindingKind.PartMissing, Side.Right, "one pad spring");
        LayingOut.Of(job.State).Parts.ShouldContain("The part that was missing (one pad spring), right, added by a finding");
        Find(job, FindingKind.PartMissing, Side.Right, "a pin cap");
        job.Until("wheel-torqued", Side.Left);
        Now(job).How.ShouldContain("On oil a dry figure loads them by about a third more.");
        job.Until("wheel-torqued", Side.Right);
        Now(job).How.ShouldNotContain("third more");
        JobRecord.Of(job.State).Log.Count(l => l.What == "A part was missing").ShouldBe(2);
    }

    [Fact]
    public void Parts_renewed_by_choice_say_why_and_what_was_left_of_the_old_ones()
    {
        var job = Job().Until("measured", Side.Left);
        Should.Throw<InputException>(() => Find(job, FindingKind.RotorsByChoice, null)).Errors.Single().Field.ShouldBe("note");
        Find(job, FindingKind.RotorsByChoice, null, "brake dust; 1.4 mm left");
        job.State.Setup.Rotors.ShouldBeTrue();
        job.Until("", level: 80);
        JobRecord.Of(job.State).Log.Single(l => l.What == "Rotors renewed by choice").Detail.ShouldBe("brake dust; 1.4 mm left");
        JobRecord.Of(job.State).Fitted.ShouldContain("New rotor, left.");
    }

    [Theory]
    [InlineData(StopSign.BootTwists, "Freed all round: whole and dry", false)]
    [InlineData(StopSign.SpringsBack, "It stays where it was put now", true)]
    [InlineData(StopSign.StopsShort, "It moves now: relaxed, or by its second stage", true)]
    public void A_stop_sign_says_what_it_means_and_with_what_was_done_the_same_caliper_goes_on(StopSign sign, string goesOn, bool looksAgain)
    {
        var job = Job().Until("piston-home", Side.Left).Do(s => JobRules.Stop(s, Side.Left, sign, null));
        var corner = RunSheets.Corner(job.State, Side.Left);
        corner.StopMeans!.GoesOn.ShouldBe(goesOn);
        corner.StopMeans.Means.Length.ShouldBeGreaterThan(20);
        Should.Throw<InputException>(() => JobRules.SettleStop(job.State, Side.Left, "")).Errors.Single().Field.ShouldBe("what");
        job.Do(s => JobRules.SettleStop(s, Side.Left, "lip lifted, cable looked at"));
        RunSheets.Corner(job.State, Side.Left).Stop.ShouldBeNull();
        job.State.Remaining.TakeWhile(k => k != new StepKey("piston-home", Side.Left)).Contains(new("lever-on-stop", Side.Left)).ShouldBe(looksAgain, "a mechanism that may be loaded is looked at first");
        job.Until("", level: 80).State.HandedOver.ShouldBeTrue();
        Should.Throw<NotAllowedException>(() => JobRules.SettleStop(Job().State, Side.Left, "nothing"));
    }

    [Fact]
    public void Every_stop_sign_means_something_of_its_own()
    {
        var cards = Enum.GetValues<StopSign>().Select(RetractionRuling.Stop).ToArray();
        cards.Select(c => c.Means).Distinct().Count().ShouldBe(cards.Length);
        cards.ShouldAllBe(c => c.Means.Length > 20 && c.HoldsCorner == (c.GoesOn != null));
    }

    [Fact]
    public void A_caliper_that_hung_by_its_hose_is_hung_and_its_hose_looked_at_before_anything_else_at_it_and_before_the_pedal()
    {
        var job = Job().Until("measured", Side.Left);
        Find(job, FindingKind.HungByHose, Side.Left);
        Planner.Why(job.State.Setup, job.State.Car, new("measured", Side.Left)).Interlocks.ShouldContain(7);
        Now(job).Step.ShouldBe(new("hose-looked", Side.Left));
        As(job, "doubtful");
        job.State.Remaining.ShouldContain(new StepKey("hose-renewed", Side.Left), "in doubt it is renewed");
        FindingRules.At(job.State, Side.Left).ShouldContain(c => c.Kind == FindingKind.HungByHose, "it can happen again");
    }

    [Fact]
    public void A_motor_that_did_not_go_back_is_driven_back_by_hand_while_the_other_stays_in_service()
    {
        var setup = PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.ScanTool);
        var state = setup.Start();
        foreach (var step in Planner.Make(setup, state).Steps.TakeWhile(k => k.StepId != "service-entered")) state = Planner.Apply(setup, state, step, null);
        state = Planner.Apply(setup, state, new("service-entered", null), "right-stays");
        var ahead = Planner.Make(setup, state);
        ahead.CannotBeMet.ShouldBeEmpty();
        ahead.Steps.ShouldContain(new StepKey("spindle-back", Side.Right));
        ahead.Steps.ShouldNotContain(new StepKey("spindle-back", Side.Left));
        ahead.Steps.ToList().IndexOf(new("spindle-back", Side.Right)).ShouldBeLessThan(ahead.Steps.ToList().IndexOf(new("caliper-off", Side.Right)));
    }

    [Fact]
    public void A_brake_that_moved_by_itself_leaves_nobody_sure_of_spindles_and_pistons()
    {
        var setup = PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.ScanTool);
        var state = setup.Start();
        foreach (var step in Planner.Make(setup, state).Steps.TakeWhile(k => k.StepId != "pads-in")) state = Planner.Apply(setup, state, step, null);
        var moved = Planner.Moved(setup, state, FindingRules.Onto(setup, state, FindingKind.MovesByItself, null));
        moved.Get(Car.Brake).ShouldBe(ParkingBrake.Unknown);
        var ahead = Planner.Make(setup, moved);
        ahead.CannotBeMet.ShouldBeEmpty();
        foreach (var side in Core.Sides.Both.Where(s => moved.Get(Corner.Caliper, s) != Caliper.On)) moved.Get(Corner.Piston, side).ShouldNotBe(Piston.Home);
        ahead.Steps.Select(k => k.StepId).ShouldContain("service-verified");
    }

    [Fact]
    public void A_brake_that_moved_by_itself_over_calipers_nobody_opened_can_be_woken_and_let_go_again()
    {
        // On its wheels, nuts cracked, ignition off, in a house that always bleeds and lifts only a released brake.
        var setup = PlanSetup.For(Architecture.MotorPush, JobScope.PadsAndRotors, ServiceRoute.ScanTool) with
        {
            Rules = Workshop.HouseRules.Default with { Bleeding = Workshop.BleedRule.Always, Holding = Workshop.HoldingRule.ReleasedFromStart },
        };
        var found = FindingRules.Onto(setup, setup.Start(), FindingKind.PedalSinks, null);
        var moved = Planner.Moved(setup, found, FindingRules.Onto(setup, found, FindingKind.MovesByItself, null));
        Planner.Make(setup, moved.With(Car.Brake, ParkingBrake.Applied)).CannotBeMet.ShouldBeEmpty();
    }

    [Fact]
    public void An_actuator_that_does_not_move_any_more_is_renewed_before_it_goes_on()
    {
        var setup = PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.ScanTool);
        var state = setup.Start();
        foreach (var step in Planner.Make(setup, state).Steps.TakeWhile(k => k.StepId != "service-closed")) state = Planner.Apply(setup, state, step, null);
        var found = Planner.Moved(setup, state, FindingRules.Onto(setup, state, FindingKind.ActuatorDead, Side.Left));
        var ahead = Planner.Make(setup, found).Steps.Select(k => k.ToString()).ToList();
        ahead.IndexOf("actuator-renewed, left").ShouldBeInRange(0, ahead.IndexOf("actuator-on, left"));
        ahead.ShouldNotContain("actuator-off, right");
    }

    [Fact]
    public void Twin_wheels_and_wheel_bolts_are_asked_before_lifting_and_said_at_the_wheel()
    {
        var job = new Bench().Open().Do(s => JobRules.LookOver(s, [.. Bench.Answers().Select(a => a.Id is "twin-wheels" or "wheel-bolts" ? a with { Answer = LookOverAnswer.Yes } : a)])).Identify();
        job.Until("wheel-off", Side.Left);
        Now(job).How.ShouldContain("outer first, then inner");
        Now(job).How.ShouldContain("pilot pin in one hole");
        job.Until("wheel-torqued", Side.Right);
        Now(job).How.ShouldContain("torqued again after 50 to 80 km, whatever the house rule");
        job.Until("", level: 80);
        JobRecord.Of(job.State).Log.Single(l => l.What == "Looked over").Detail.ShouldContain("Twin wheels at the rear? Yes.");
        Should.Throw<InputException>(() => JobRules.LookOver(new Bench().Open().State, Bench.Answers("tail-lift"))).Errors.Single().Field.ShouldBe("tail-lift");
    }

    [Fact]
    public void The_words_of_each_bolt_its_locker_its_number_and_its_drive_come_from_the_sheet()
    {
        var job = Job(JobScope.PadsAndRotors, s => s with
        {
            Rotor = s.Rotor with { JackingThread = "M8x1.25" },
            Torques = [.. s.Torques.Select(t => t.Role == FastenerRole.Bracket
                ? t with { Drive = "hex 18", SocketReaches = false, Locker = Known.Yes, SingleUse = true, PartNumber = "B 4411", BoltNotes = ["lower", "upper: low-profile key, an arm is in the way"], Note = "not oiled" } : t)],
        }).Until("rotor-off", Side.Left);
        Find(job, FindingKind.StuckRotor, Side.Left);
        LayingOut.Of(job.State).Tools.ShouldContain("hex 18 for the bracket bolts, by crowfoot");
        LayingOut.Of(job.State).Tools.ShouldContain("two jacking screws, M8x1.25");
        LayingOut.Of(job.State).Parts.ShouldContain("4 bracket bolts, number B 4411");
        LayingOut.Of(job.State).Parts.ShouldContain("thread locker for the bracket bolts");
        job.Until("bracket-torqued", Side.Left);
        Now(job).BoltsSay.ShouldBe(["lower. Thread locker, on threads that are clean and dry. A socket does not reach it. not oiled.", "upper: low-profile key, an arm is in the way. Thread locker, on threads that are clean and dry. A socket does not reach it. not oiled."]);
    }

    [Fact]
    public void A_rotor_screw_without_a_figure_is_accepted_hand_tight_by_name_and_never_a_fastener_that_carries()
    {
        static SignTorque By(StepKey step, int index) => new(step, index, null, null, TorqueUnit.Nm, null, 1, null) { HandTight = true };
        var job = Job(JobScope.PadsAndRotors, s => s with { Torques = [.. s.Torques.Where(t => t.Role is not (FastenerRole.RotorScrew or FastenerRole.Bracket))] }).Until("rotor-screws-torqued", Side.Left);
        Now(job).MayBeHandTight.ShouldBeTrue();
        job.Do(s => JobRules.Sign(s, By(Now(job).Step, 1), new(2026, 11, 25)));
        job.State.Car.Get(Corner.RotorScrews, Side.Left).ShouldBe(Bolts.Torqued);
        job.Until("bracket-torqued", Side.Left);
        Now(job).MayBeHandTight.ShouldBeFalse();
        Should.Throw<NotAllowedException>(() => JobRules.Sign(job.State, By(Now(job).Step, 1), new(2026, 11, 25))).Because.ShouldBe(["It waits for the maker's figure, or for the lead."]);
        job.Until("", level: 80);
        var listed = JobRecord.Of(job.State).Torques.Single(t => t.Wanted.StartsWith("hand-tight", StringComparison.Ordinal));
        (listed.By, listed.Verified).ShouldBe(("Ada Bell", true));
        Job(JobScope.PadsAndRotors).Until("rotor-screws-torqued", Side.Left).State.LineAt(FastenerRole.RotorScrew, Side.Left).ShouldNotBeNull();
    }

    [Fact]
    public void The_same_figure_entered_by_hand_for_pins_and_bracket_is_asked_about()
    {
        var job = Job(JobScope.PadsAndRotors, s => s with { Torques = [.. s.Torques.Where(t => t.Role is FastenerRole.Wheel or FastenerRole.RotorScrew)] }).Until("bracket-torqued", Side.Left);
        SignTorque At(double nm) => new(Now(job).Step, 1, Bench.Wrench(100), null, TorqueUnit.Nm, UnitsNet.Torque.FromNewtonMeters(nm), 1, null) { Reason = null };
        job.Do(s => JobRules.Sign(s, At(50), new(2026, 11, 25))).Until("slide-pins-torqued", Side.Left);
        Should.Throw<InputException>(() => JobRules.Sign(job.State, At(50), new(2026, 11, 25))).Errors.Single().Message.ShouldContain("was entered for the bracket bolts too");
        JobRules.Sign(job.State, At(30), new(2026, 11, 25)).Verified.ShouldBeTrue();
        JobRules.Sign(job.State, At(50) with { Reason = "the maker's data, page 14" }, new(2026, 11, 25)).Reason.ShouldBe("the maker's data, page 14");
    }

    [Fact]
    public void The_last_level_stands_beside_what_was_reckoned_and_a_bleeding_says_which_corner()
    {
        var job = Job().Until("measured", Side.Left);
        Find(job, FindingKind.FluidShows, Side.Left).Until("corner-bled", Side.Left);
        Now(job).How.ShouldStartWith("This corner only.");
        job.Until("level-looked");
        Now(job).How.ShouldContain($"By what went and came back it stands at {Figure.Of(Math.Clamp(job.State.LevelPercent!.Value, 0, 150), 0)} %");
    }

    [Theory]
    [InlineData(LookOverAnswer.Yes, true)]
    [InlineData(LookOverAnswer.NotKnown, true)]
    [InlineData(LookOverAnswer.No, false)]
    public void Brakes_that_may_press_themselves_are_disabled_before_the_first_caliper_unless_they_were_ruled_out(LookOverAnswer answer, bool asks)
    {
        var job = new Bench().Open().Do(s => JobRules.LookOver(s, Bench.Answers(LookOverQuestions.SelfPressurising, answer))).Identify();
        job.State.Remaining.TakeWhile(k => k.StepId != "caliper-off").Any(k => k.StepId == "self-pressure-off").ShouldBe(asks);
    }

    [Fact]
    public void A_figure_measured_at_a_vehicle_stands_in_its_next_job_with_its_day()
    {
        var job = Job().Until("piston-home", Side.Left);
        foreach (var (turns, proud) in new[] { (0.0, 10.5), (1, 9.7), (2, 8.9), (3, 8.1) })
            job.Do(s => JobRules.NotePoint(s, Side.Left, new(Guid.NewGuid(), turns, UnitsNet.Length.FromMillimeters(proud)), "depth-gauge", Bench.Board));
        var lead = LearntFigures.Of([job.State]).Single(f => f.Field == "piston.leadMm");
        (lead.Side, lead.Value).ShouldBe((Side.Left, 0.8));
        var next = new Bench().Do(_ => JobRules.Open(8, 1, new("T 1", "Brae", "Test", "test car", null), 2000, "noise", JobScope.Pads, Bench.Sheet(), Workshop.HouseRules.Default, measured: LearntFigures.Of([job.State]))).LookOver().Identify();
        Now(next.Until("piston-home", Side.Left)).How.ShouldEndWith("Travel a turn: 0.8 mm, measured here on 2026-11-25.");
        Now(next.Until("piston-home", Side.Right)).How.ShouldNotContain("measured here");
        LearntFigures.All.Select(c => c.Field).ShouldBeUnique();
        LearntFigures.Of([Job().State]).ShouldBeEmpty("nothing was measured");
    }

    [Fact]
    public void The_record_says_who_decided_what_and_why()
    {
        var job = Job(JobScope.PadsAndRotors, s => s with { Torques = [.. s.Torques.Where(t => t.Role != FastenerRole.RotorScrew)] }).Until("rotor-off", Side.Left);
        Find(job, FindingKind.BrokenScrew, Side.Left).Until("screw-decided", Side.Left);
        As(job, "drilled");
        job.Until("rotor-screws-torqued", Side.Right).Do(s => JobRules.Sign(s, new(Now(job).Step, 1, null, null, TorqueUnit.Nm, null, 1, null) { HandTight = true }, new(2026, 11, 25)));
        job.Do(s => JobRules.Aim(s, JobGoal.CloseUp, "the ferry leaves at four"));
        JobRecord.Of(job.State).Decisions.ShouldBe(
        [
            "Broken rotor screw, left: drilled, new screw. Ada Bell: seen to and put right",
            "Rotor screws, right 1: hand-tight, no figure anywhere. Ada Bell.",
            "Close up with old parts. Ada Bell: the ferry leaves at four",
        ]);
    }

    [Fact]
    public void What_only_a_finding_brings_says_what_a_master_would()
    {
        static string How(string id) => StepCatalogue.Find(id)!.HowIn(PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.ScanTool));
        How("fluid-drawn").ShouldContain("Thrown away");
        How("wheel-freed").ShouldContain("through wood on the tyre");
        How("wheel-freed").ShouldContain("Never kick it on stands");
        How("spindle-verified").ShouldContain("live data");
        How("spindle-verified").ShouldContain("gentle press");
        StepCatalogue.Find("spindle-verified")!.Outcomes.Select(o => o.Says).ShouldContain("It is not back");
        StepCatalogue.Find("service-verified")!.Outcomes.Select(o => o.Says).ShouldContain("It is applied");
    }

    [Fact]
    public void A_part_that_is_waited_for_is_not_fitted_and_everything_else_goes_on()
    {
        var job = Job(JobScope.Pads).Until("pads-in", Side.Left).Do(s => JobRules.Await(s, "rear pads", "the mainland store", null));
        var sheet = RunSheets.Of(job.State);
        new[] { sheet.Now }.OfType<StepBench>().Concat(sheet.Also).ShouldNotContain(b => b.Step.StepId == "pads-in");
        Should.Throw<NotAllowedException>(() => JobRules.Click(job.State, new(new("pads-in", Side.Left), [], [], null, null, null), true, Bench.Board)).Because.Single()
            .ShouldBe("rear pads, from the mainland store. Say that it came, then fit it.");
        job.Do(JobRules.Came).Until("");
        job.State.HandedOver.ShouldBeTrue();
    }

    [Fact]
    public void A_push_that_a_stop_sign_ended_with_the_bleed_screw_open_leaves_a_circuit_to_bleed()
    {
        var job = new Bench().Open(JobScope.Pads, Bench.BothMeasured with { FluidRoom = Core.Workshop.FluidRoomRule.OpenBleeder }).LookOver().Identify().Until("piston-home", Side.Left);
        job.Do(s => JobRules.Stop(s, Side.Left, StopSign.BootTwists, null));
        job.State.Car.Get(Corner.Hydraulics, Side.Left).ShouldBe(HydraulicsState.Open);
        job.State.Car.Get(Corner.BleedScrew, Side.Left).ShouldBe(Bolts.Snug);
    }
}

using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Tests.Jobs;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>Hazards that were once offered after something unexpected, one by one. The twin's walks cover them too; here each stands by its name.</summary>
public class AfterASurpriseTests
{
    private static readonly PlanSetup Cable = PlanSetup.For(Architecture.CableScrew, JobScope.Pads);
    private static readonly PlanSetup Tool = PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.ScanTool);

    private static CarState Until(PlanSetup setup, string stepId, Side? side = null) =>
        Planner.Make(setup, setup.Start()).Steps.TakeWhile(k => k.StepId != stepId || k.Side != side).Aggregate(setup.Start(), (s, k) => Planner.Apply(setup, s, k, null));

    private static CarState After(PlanSetup setup, CarState state, string stepId, Side? side = null, string? outcome = null) => Planner.Apply(setup, state, new(stepId, side), outcome);

    private static List<string> Plan(PlanSetup setup, CarState state) => [.. Planner.Make(setup, state).Steps.Select(k => k.ToString())];

    [Fact]
    public void Nuts_cracked_after_the_drive_take_the_drive_and_the_leads_signature_with_them_and_nobody_beds_in()
    {
        var setup = Cable with { Rules = HouseRules.Default with { SignOff = SignOffRule.LeadAlso } };
        var state = After(setup, Until(setup, "handed-over"), "nuts-cracked", Side.Left);
        state.Get(Car.TestDrive).ShouldBe(Done.No);
        state.Get(Car.WheelsSigned).ShouldBe(Done.No);
        Planner.Why(setup, state.With(Car.BedIn, Done.No), new("bed-in", null)).Allowed.ShouldBeFalse();
        Planner.Moved(setup, state, state.With(Corner.Pads, Side.Left, PadState.None)).Get(Car.BedIn).ShouldBe(Done.No, "the bed of pads that came out is gone");
        Planner.Why(setup, state, new("handed-over", null)).Allowed.ShouldBeFalse();
    }

    [Fact]
    public void An_open_circuit_stays_open_in_doubt_and_only_bleeding_closes_it()
    {
        Corner.Hydraulics.Doubt((byte)HydraulicsState.Open).ShouldBe((byte)HydraulicsState.Open);
        foreach (var step in CompiledCatalogue.For(Cable with { Left = Cable.Left with { CaliperNew = true } }).Steps.Where(s => s.Key.StepId is not ("corner-bled" or "bleed")))
        {
            var slot = Corner.Hydraulics.Slot(Side.Left);
            if (step.Makes.Any(m => m.Slot == slot && m.Value == (byte)HydraulicsState.Closed))
                step.Needs.ShouldContain(n => n.AnyOf.All(a => a.Any(r => r.Slot == slot && (r.Mask & 1u << (byte)HydraulicsState.Open) == 0)), step.Key.ToString());
        }
    }

    [Fact]
    public void Fluid_that_shows_after_the_leak_check_asks_for_bleeding_and_another_check()
    {
        var state = Until(Cable, "handed-over");
        state.Get(Car.Leaks).ShouldBe(Done.Yes);
        state = Planner.Moved(Cable, state, state.With(Corner.Hydraulics, Side.Left, HydraulicsState.Open));
        state.Get(Car.Leaks).ShouldBe(Done.No);
        state.Get(Car.Pedal).ShouldNotBe(Pedal.Proved);
        Plan(Cable, state).ShouldContain("corner-bled, left");
        Plan(Cable, state).ShouldContain("leaks-looked");
    }

    [Fact]
    public void A_rotor_stays_under_a_caliper_that_is_only_swung_up_and_a_spindle_waits_for_its_wheel_off()
    {
        // The rotor passes its bracket: only the caliper, still on one pin, is over it.
        Waits(PlanSetup.For(Architecture.CableScrew, JobScope.PadsAndRotors) with { RotorComesOffWithBracketOn = true }, "rotor-off", Corner.Caliper, Caliper.Swung);
        Waits(PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.SpindleByHand), "spindle-back", Corner.Wheel, Wheel.On);

        static void Waits<T>(PlanSetup setup, string step, StateVariable<T> of, T value) where T : struct, Enum
        {
            var state = Until(setup, step, Side.Left);
            Planner.Why(setup, state, new(step, Side.Left)).Allowed.ShouldBeTrue();
            Planner.Why(setup, state.With(of, Side.Left, value), new(step, Side.Left)).Allowed.ShouldBeFalse();
        }
    }

    [Fact]
    public void A_wheel_that_does_not_turn_shows_that_the_brake_applied_again_and_it_is_let_go_before_it_is_turned()
    {
        var setup = PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.ScanTool);
        var state = Until(setup, "turns-free", Side.Left);
        var held = After(setup, state, "turns-free", Side.Left, "held");
        held.Get(Car.Brake).ShouldBe(ParkingBrake.Applied);
        held.Get(Corner.TurnsFree, Side.Left).ShouldBe(Done.No);
        Planner.Why(setup, held, new("turns-free", Side.Left)).Allowed.ShouldBeFalse();
        Planner.Make(setup, held).CannotBeMet.ShouldBeEmpty();
    }

    [Fact]
    public void Single_use_bolts_are_laid_out_for_one_fitting()
    {
        var setup = Cable with { SingleUse = [FastenerRole.SlidePin] };
        var state = Until(setup, "pedal-proved");
        state.Get(Corner.NewPinBolts, Side.Left).ShouldNotBe(NewBolts.LaidOut, "they are in the caliper");
        Plan(setup, state.With(Corner.SlidePins, Side.Left, Bolts.Out).With(Corner.Caliper, Side.Left, Caliper.Hung)).ShouldContain("bolts-laid-out, left");
    }

    [Fact]
    public void A_part_that_may_be_the_wrong_one_is_not_driven_and_not_handed_over()
    {
        var state = Until(Cable, "handed-over").With(Corner.WrongFitted, Side.Left, Asked.Due);
        Planner.Why(Cable, state, new("handed-over", null)).Interlocks.ShouldContain(13);
        Planner.Why(Cable, state.With(Car.TestDrive, Done.No), new("test-driven", null)).Interlocks.ShouldContain(13);
        Plan(Cable, state).ShouldContain("wrong-parts-out, left");
    }

    [Theory]
    [InlineData(Architecture.MotorHat, JobScope.Shoes, "shoes-off")]
    [InlineData(Architecture.PullerHat, JobScope.Shoes, "shoes-off")]
    public void No_hand_in_electric_shoes_with_the_ignition_on_or_the_key_near(Architecture architecture, JobScope scope, string stepId)
    {
        var setup = PlanSetup.For(architecture, scope, ServiceRoute.ScanTool) with { SheetElectric = true };
        var state = Until(setup, stepId, Side.Left);
        Planner.Why(setup, state, new(stepId, Side.Left)).Allowed.ShouldBeTrue();
        Planner.Why(setup, state.With(Car.Ignition, Ignition.On), new(stepId, Side.Left)).Interlocks.ShouldContain(2);
        Planner.Why(setup, state.With(Car.Key, Key.Near), new(stepId, Side.Left)).Interlocks.ShouldContain(2);
    }

    [Theory]
    [InlineData(Actuation.Puller)]
    [InlineData(Actuation.PlateMotor)]
    public void Opposed_pistons_over_electric_shoes_get_service_tags_and_sleep(Actuation worked)
    {
        var bare = PlanSetup.For(Architecture.FixedHat, JobScope.Shoes, ServiceRoute.ScanTool);
        var setup = bare with { SheetElectric = true, Left = bare.Left with { Worked = worked }, Right = bare.Right with { Worked = worked } };
        var plan = Plan(setup, setup.Start());
        foreach (var step in new[] { "auto-inhibited", "service-entered", "switch-tagged", "key-away" }) plan.IndexOf(step).ShouldBeInRange(0, plan.IndexOf("shoes-off, left"), step);
    }

    [Fact]
    public void Pipes_that_are_not_sound_are_made_sound_before_the_pedal()
    {
        var state = Cable.Start().With(Car.Pipes, Asked.Due);
        var plan = Plan(Cable, state);
        plan.IndexOf("pipes-sound").ShouldBeInRange(0, plan.IndexOf("pedal-proved"));
        plan.ShouldContain("corner-bled, left");
        plan.ShouldContain("corner-bled, right");
    }

    [Fact]
    public void There_is_no_remedy_that_is_a_bare_click()
    {
        StepCatalogue.All.ShouldAllBe(s => !s.Id.StartsWith("remedy-"));
        // What an interlock guards is in doubt once it was broken, and what is in doubt has a step that sees it.
        var state = Planner.OutOfOrder(Tool, Until(Tool, "pads-in", Side.Left), new("ignition-on-again", null), [4]);
        state.Get(Car.Ignition).ShouldBe(Ignition.On);
        Plan(Tool, state)[..2].ShouldBe(["service-looked", "ignition-off"]);
        Plan(Tool, state).ShouldContain("spindle-verified, left");
    }

    [Fact]
    public void A_tool_lost_while_closing_leaves_the_brake_unknown()
    {
        var state = After(Tool, Until(Tool, "service-closed"), "service-closed", outcome: "lost-half-way");
        state.Get(Car.Brake).ShouldBe(ParkingBrake.Unknown);
        var plan = Plan(Tool, state);
        plan.IndexOf("service-verified").ShouldBeInRange(0, plan.IndexOf("brake-cycled"));
    }

    [Fact]
    public void A_brake_that_is_seen_in_service_leaves_its_spindles_in_doubt_and_the_car_is_not_woken_before_the_pedal_is_proved()
    {
        var seen = After(Tool, Tool.Start().With(Car.Brake, ParkingBrake.Unknown), "service-verified", outcome: "in-service");
        Sides.Both.Select(s => seen.Get(Corner.Spindle, s)).ShouldAllBe(s => s == Spindle.Unknown);
        var asleep = seen.With(Car.Key, Key.Away).With(Car.Pedal, Pedal.NotPumped);
        Planner.Why(Tool, asleep, new("key-near", null)).Interlocks.ShouldContain(4);
        Planner.Make(Tool, seen).CannotBeMet.ShouldBeEmpty();
    }

    [Fact]
    public void An_actuator_that_does_not_move_may_have_stopped_half_way_and_the_car_is_not_woken_over_an_open_circuit()
    {
        var hand = PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.SpindleByHand);
        var dead = FindingRules.Onto(hand, hand.Start(), FindingKind.ActuatorDead, Side.Right);
        dead.Get(Corner.Spindle, Side.Right).ShouldBe(Spindle.Unknown);
        var asleep = dead.With(Car.Key, Key.Away);
        Planner.Why(hand, asleep, new("key-near", null)).Interlocks.ShouldNotContain(4);
        Planner.Why(hand, asleep.With(Car.Pedal, Pedal.NotPumped), new("key-near", null)).Interlocks.ShouldContain(4);
        Planner.Make(hand, dead).CannotBeMet.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("service-closed")]
    [InlineData("first-apply")]
    public void A_close_that_was_lost_half_way_leaves_a_pulled_cable_in_doubt_and_nobody_takes_its_end_off(string closing)
    {
        var puller = PlanSetup.For(Architecture.PullerScrew, JobScope.Pads, ServiceRoute.InCar);
        var before = Until(puller, "service-closed").With(Car.Brake, closing == "first-apply" ? ParkingBrake.Released : ParkingBrake.Service);
        var state = After(puller, After(puller, before, closing, outcome: "lost-half-way"), "service-verified");
        state.Get(Car.Cable).ShouldBe(CableRun.Unknown);
        Planner.Why(puller, state, new("cable-end-off", Side.Right)).Allowed.ShouldBeFalse();
        Planner.Make(puller, state).CannotBeMet.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("key-near")]
    [InlineData("ignition-on")]
    [InlineData("tag-off")]
    [InlineData("gear-neutral")]
    [InlineData("service-entered")]
    [InlineData("pedal-proved")]
    public void Two_people_keep_hands_out_while_the_car_wakes_moves_or_leaves_P(string stepId)
    {
        var work = Scheduling.Make(Tool, Tool.Start(), Planner.Make(Tool, Tool.Start()).Steps, 2).Assignments;
        var waking = work.Single(a => a.Step.StepId == stepId);
        work.Where(a => StepCatalogue.Find(a.Step.StepId)!.Place == Place.Corner && a.Start < waking.End && waking.Start < a.End).ShouldBeEmpty();
    }

    [Fact]
    public void A_route_that_the_brake_does_not_have_is_refused()
    {
        var job = new Bench().Open().LookOver().Identify();
        Should.Throw<NotAllowedException>(() => JobRules.Choose(job.State, ServiceRoute.PullerRelease), "a cable is let go by hand: nothing to choose");
        ServiceRoutes.Rank(Tool, Bench.Sheet()).Routes.ShouldNotContain(r => r.Route == ServiceRoute.PullerRelease, "a motor has no puller");
    }

    [Theory]
    [InlineData(0)]
    [InlineData(5)]
    [InlineData(140)]
    public void A_level_outside_the_marks_is_not_clicked_on(double percent)
    {
        var job = new Bench().Open().LookOver().Identify().Until("level-looked");
        Should.Throw<InputException>(() => JobRules.Click(job.State, Bench.Click(RunSheets.Of(job.State).Now!, percent), true, Bench.Board));
        job.Do(s => JobRules.Click(s, Bench.Click(RunSheets.Of(s).Now!, 80), true, Bench.Board));
    }

    [Fact]
    public void Two_setups_that_differ_in_anything_are_not_one()
    {
        // Equal setups share their steps: one property forgotten there, and a car gets another one's plan.
        foreach (var property in typeof(PlanSetup).GetProperties().Where(p => p.CanWrite))
        {
            var other = Tool with { };
            var was = property.GetValue(other);
            property.SetValue(other, was switch
            {
                null when property.PropertyType == typeof(bool?) => true,
                null when Nullable.GetUnderlyingType(property.PropertyType) is { IsEnum: true } of => Enum.GetValues(of).GetValue(0),
                bool b => !b,
                CornerSetup c => c with { CaliperNew = !c.CaliperNew },
                HouseRules r => r with { Sides = SidesRule.InStep },
                IReadOnlyList<FastenerRole> => (FastenerRole[])[FastenerRole.Bracket],
                IReadOnlyList<Fitting> => (Fitting[])[Fitting.HatPlug],
                Enum e => Enum.GetValues(e.GetType()).Cast<Enum>().Last(v => !v.Equals(e)),
                _ => throw new InvalidOperationException($"{property.Name} of another kind: say here how it differs"),
            });
            other.ShouldNotBe(Tool, property.Name);
        }

        (Tool with { }).ShouldBe(Tool);
    }

    [Fact]
    public void A_brake_that_is_found_applied_before_the_house_has_bled_it_is_bled_and_pumped_firm_before_it_is_woken()
    {
        var setup = Tool with { Rules = HouseRules.Default with { Bleeding = BleedRule.Always, Holding = HoldingRule.ReleasedFromStart } };
        var state = Until(setup, "nuts-cracked", Side.Left).With(Car.Brake, ParkingBrake.Applied).With(Car.Ignition, Ignition.Off).With(Car.Chocks, Chocks.In)
            .With(Car.Closing, Closing.Open).With(Car.Pedal, Pedal.NotPumped).With(Corner.Spindle, Side.Left, Spindle.Unknown).With(Corner.Spindle, Side.Right, Spindle.Unknown);
        var plan = Planner.Make(setup, state);
        plan.CannotBeMet.ShouldBeEmpty();
        var steps = plan.Steps.Select(k => k.ToString()).ToList();
        // It is lifted with its brake on, bled, pumped firm, and only then woken.
        steps.IndexOf("pedal-proved").ShouldBeLessThan(steps.IndexOf("ignition-on-again"));
        steps.IndexOf("corner-bled, right").ShouldBeLessThan(steps.LastIndexOf("pedal-proved"));
    }

    [Fact]
    public void Two_calipers_that_hang_on_their_plugs_with_their_spindles_not_back_in_the_morning_are_wound_back_by_hand()
    {
        var setup = PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.InCar) with { Rules = HouseRules.Default with { Sides = SidesRule.InStep } };
        setup = setup.With(Side.Right, c => c with { CaliperNew = true });
        var state = Until(setup, "caliper-on", Side.Left).With(Car.Brake, ParkingBrake.ServiceInDoubt);
        foreach (var side in Sides.Both)
            state = state.With(Corner.Caliper, side, Caliper.Hung).With(Corner.Actuator, side, Actuator.Plugged).With(Corner.Spindle, side, Spindle.Out);
        Planner.Make(setup, state).CannotBeMet.ShouldBeEmpty();
    }

    [Fact]
    public void A_wear_sensor_that_was_to_be_renewed_and_is_not_there_is_not_waited_for()
    {
        var setup = Cable with { Fittings = [Fitting.WearSensor] };
        var state = FindingRules.Onto(setup, setup.Start(), FindingKind.SensorWorn, Side.Right);
        Plan(setup, state).ShouldContain("sensor-renewed, right");
        state = FindingRules.Onto(setup, state, FindingKind.NoSensor, Side.Right);
        Plan(setup, state).ShouldNotContain("sensor-renewed, right");
        Planner.Make(setup, state).CannotBeMet.ShouldBeEmpty();
    }
}

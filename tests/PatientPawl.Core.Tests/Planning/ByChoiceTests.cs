using PatientPawl.Core.Electric;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>What good hands choose where the plan does not ask for it: offered where it is right, refused where it is not. Common practice, no source.</summary>
public class ByChoiceTests
{
    private static readonly PlanSetup PlainRotors = PlanSetup.For(Architecture.Plain, JobScope.PadsAndRotors);
    private static readonly PlanSetup CablePads = PlanSetup.For(Architecture.CableScrew, JobScope.Pads);
    private static readonly PlanSetup ToolPads = PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.ScanTool);

    private static (CarState State, IReadOnlyList<StepKey> Left) Before(PlanSetup setup, string stepId, Side? side)
    {
        var steps = Planner.Make(setup, setup.Start()).Steps;
        var done = steps.TakeWhile(k => k.StepId != stepId || k.Side != side).ToArray();
        return (done.Aggregate(setup.Start(), (s, k) => Planner.Apply(setup, s, k, null)), [.. steps.Skip(done.Length)]);
    }

    private static Plan? Chosen(PlanSetup setup, string before, string choice, Side side = Side.Left)
    {
        var (state, left) = Before(setup, before, side);
        return Planner.Choices(setup, state, left).Where(c => c.Step == new StepKey(choice, side)).Select(c => c.After).FirstOrDefault();
    }

    private static void ShouldStandBefore(Plan plan, string first, string then, Side side = Side.Left)
    {
        var steps = plan.Steps.ToList();
        var (a, b) = (steps.FindIndex(k => k == new StepKey(first, side)), steps.FindIndex(k => k == new StepKey(then, side)));
        a.ShouldBeGreaterThanOrEqualTo(0, first);
        b.ShouldBeGreaterThan(a, $"{first} before {then}");
    }

    [Fact]
    public void No_plan_asks_for_what_is_only_chosen()
    {
        foreach (var (_, plan) in Setups.Planned)
            plan.Steps.Where(k => StepCatalogue.Find(k.StepId)!.ByChoice == ByChoice.Only).ShouldBeEmpty();
    }

    [Fact]
    public void A_caliper_that_is_swung_up_counts_as_off_and_both_its_bolts_are_torqued_after_its_pins_were_greased()
    {
        var plan = Chosen(CablePads, "caliper-off", "caliper-swung").ShouldNotBeNull();
        ShouldStandBefore(plan, "pads-out", "piston-home");
        ShouldStandBefore(plan, "pins-greased", "caliper-down");
        ShouldStandBefore(plan, "caliper-down", "slide-pins-torqued");
        plan.Steps.ShouldNotContain(new StepKey("caliper-off", Side.Left));
        plan.Steps.ShouldContain(new StepKey("caliper-off", Side.Right), "each side is chosen by itself");

        var (state, _) = Before(CablePads, "caliper-off", Side.Left);
        var swung = Planner.Apply(CablePads, state, new("caliper-swung", Side.Left), null);
        swung.Get(Corner.SlidePins, Side.Left).ShouldBe(Bolts.Out);
        Planner.Why(CablePads, swung, new("pedal-proved", null)).Interlocks.ShouldContain(3);
        Planner.Why(CablePads, swung, new("lever-cycled", null)).Interlocks.ShouldContain(2);
    }

    [Fact]
    public void Nothing_is_swung_up_where_the_rotor_comes_off_and_a_rotor_found_bad_takes_it_off_its_last_pin()
    {
        Chosen(PlanSetup.For(Architecture.CableScrew, JobScope.PadsAndRotors), "caliper-off", "caliper-swung").ShouldBeNull();
        var (state, _) = Before(CablePads, "caliper-off", Side.Left);
        var swung = Planner.Apply(CablePads, state, new("caliper-swung", Side.Left), null);
        var plan = Planner.Make(CablePads with { RotorFound = true }, swung);
        plan.CannotBeMet.ShouldBeEmpty();
        ShouldStandBefore(plan, "swung-caliper-off", "bracket-off");
    }

    [Fact]
    public void A_pushed_piston_is_levered_behind_a_rotor_that_goes_away_and_judged_once_the_caliper_is_off()
    {
        var (state, _) = Before(PlainRotors, "caliper-off", Side.Left);
        var unseen = state.With(Car.Reservoir, Done.No);
        Planner.Choices(PlainRotors, unseen, Planner.Make(PlainRotors, unseen).Steps).ShouldNotContain(c => c.Step.StepId == "piston-levered", "nobody has looked at the reservoir");
        var plan = Planner.Choices(PlainRotors, state, Planner.Make(PlainRotors, state).Steps).Single(c => c.Step == new StepKey("piston-levered", Side.Left)).After;
        ShouldStandBefore(plan, "caliper-off", "piston-judged");
        ShouldStandBefore(plan, "piston-judged", "pads-in");
        plan.Steps.ShouldNotContain(new StepKey("piston-home", Side.Left));
        plan.Steps.ShouldContain(new StepKey("reservoir-looked", null), "the level went up where nobody measured");
    }

    [Fact]
    public void Nothing_is_levered_against_a_rotor_that_stays_on_a_screw_or_before_the_way_is_known_or_against_a_mechanism()
    {
        Chosen(PlanSetup.For(Architecture.Plain, JobScope.Pads), "caliper-off", "piston-levered").ShouldBeNull("the rotor stays");
        Chosen(PlanSetup.For(Architecture.CableScrew, JobScope.PadsAndRotors), "caliper-off", "piston-levered").ShouldBeNull("a screw is turned");
        Chosen(PlainRotors with { Left = PlainRotors.Left with { Opposed = true }, Right = PlainRotors.Right with { Opposed = true } }, "fixed-caliper-off", "piston-levered").ShouldBeNull("opposed");
        var undecided = PlanSetup.For(Architecture.MotorPush, JobScope.PadsAndRotors, ServiceRoute.ScanTool);
        undecided = undecided.With(Side.Left, c => c with { MethodUndecided = true }).With(Side.Right, c => c with { MethodUndecided = true });
        Chosen(undecided, "caliper-off", "piston-levered").ShouldBeNull("nobody knows yet whether it is pushed");

        var motor = undecided.With(Side.Left, c => c with { MethodUndecided = false }).With(Side.Right, c => c with { MethodUndecided = false });
        var (state, _) = Before(motor, "caliper-off", Side.Left);
        Planner.Why(motor, state.With(Corner.Spindle, Side.Left, Spindle.Unknown), new("piston-levered", Side.Left)).Interlocks.ShouldContain(5);
    }

    [Fact]
    public void A_suspected_piston_is_tried_before_new_parts_are_there_but_not_against_a_mechanism_or_without_room()
    {
        var at = Planner.Make(CablePads, CablePads.Start()).Steps.TakeWhile(k => k.StepId != "piston-home").Aggregate(CablePads.Start(), (s, k) => Planner.Apply(CablePads, s, k, null));
        var before = at.With(Car.NewParts, Done.No);
        Planner.Why(CablePads, before, new("piston-home", Side.Left)).Allowed.ShouldBeFalse();
        Planner.Choices(CablePads, before, Planner.Make(CablePads, before).Steps).Select(c => c.Step).ShouldContain(new StepKey("piston-tried", Side.Left));
        Planner.Why(CablePads, before.With(Corner.Lever, Side.Left, Lever.NotSeen), new("piston-tried", Side.Left)).Interlocks.ShouldContain(5);
        Planner.Why(CablePads, before.With(Corner.Room, Side.Left, Room.Short), new("piston-tried", Side.Left)).Interlocks.ShouldContain(6);
    }

    [Fact]
    public void A_stiff_cable_comes_off_by_choice_and_goes_back_on_before_it_is_taken_up()
    {
        var plan = Chosen(CablePads, "caliper-off", "cable-end-off").ShouldNotBeNull();
        var steps = plan.Steps.ToList();
        steps.IndexOf(new("cable-end-on", Side.Left)).ShouldBeLessThan(steps.IndexOf(new("cable-taken-up", null)));
        steps.ShouldContain(new StepKey("lever-on-stop", Side.Left));
    }

    [Fact]
    public void A_corner_is_bled_by_choice_and_its_wheel_waits_for_it()
    {
        var (state, left) = Before(CablePads, "self-pressure-on", null);
        var plan = Planner.Choices(CablePads, state, left).Single(c => c.Step.StepId == "circuit-opened" && c.Step.Side == Side.Left).After;
        ShouldStandBefore(plan, "corner-bled", "bleed-screw-torqued");
        ShouldStandBefore(plan, "bleed-screw-torqued", "wheel-on");
        plan.Steps.ShouldNotContain(new StepKey("corner-bled", Side.Right));
    }

    [Theory]
    [InlineData(Architecture.MotorPush)]
    [InlineData(Architecture.PullerScrew)]
    [InlineData(Architecture.MotorHat)]
    public void The_ignition_is_left_on_by_the_tools_word_with_charger_and_tags_and_nothing_is_unplugged(Architecture architecture)
    {
        var setup = PlanSetup.For(architecture, architecture == Architecture.MotorHat ? JobScope.Shoes : JobScope.Pads, ServiceRoute.ScanTool);
        var steps = Planner.Make(setup, setup.Start()).Steps.ToList();
        var until = steps.FindIndex(k => k.StepId == "ignition-off");
        var state = steps.Take(until).Aggregate(setup.Start(), (s, k) => Planner.Apply(setup, s, k, null))
            .With(Car.Tag, Done.Yes).With(Car.SelfPressure, SelfPressure.RuledOut);
        var plan = Planner.Choices(setup, state, Planner.Make(setup, state).Steps).Single(c => c.Step.StepId == "ignition-left-on").After;
        plan.Steps.Select(k => k.StepId).ShouldNotContain("key-away");
        plan.Steps.Count(k => k.StepId is "ignition-off" or "ignition-on-again" or "actuator-unplugged" or "car-asleep").ShouldBe(0);
        plan.Steps.Select(k => k.StepId).ShouldContain("ignition-off-after");

        var kept = Planner.Apply(setup, state, new("ignition-left-on", null), null);
        Planner.Why(setup, kept, new("actuator-unplugged", Side.Left)).Allowed.ShouldBeFalse();
        // What it rests on: the tag, the charger, the tool's session.
        foreach (var gone in new[] { kept.With(Car.Tag, Done.No), kept.With(Car.Battery, Battery.Alone), kept.With(Car.Brake, ParkingBrake.ServiceInDoubt) })
            Planner.Make(setup, Transition.Settle(CompiledCatalogue.For(setup).Proofs, kept, gone)).Steps.Select(k => k.StepId).ShouldContain("ignition-off");
    }

    [Theory]
    [InlineData(ParkingBrake.Service, false)]
    [InlineData(ParkingBrake.ServiceInDoubt, false)]
    [InlineData(ParkingBrake.ServiceInDoubt, true, Spindle.Out)]
    [InlineData(ParkingBrake.ProvedReleased, true)]
    public void A_plug_stays_home_while_the_other_caliper_hangs_on_its_own_in_service_or_where_nobody_knows(ParkingBrake brake, bool comesOff, Spindle other = Spindle.Back)
    {
        var state = Planner.Make(ToolPads, ToolPads.Start()).Steps.TakeWhile(k => k.StepId != "caliper-off").Aggregate(ToolPads.Start(), (s, k) => Planner.Apply(ToolPads, s, k, null))
            .With(Corner.Actuator, Side.Left, Actuator.Plugged).With(Corner.Actuator, Side.Right, Actuator.Plugged)
            .With(Corner.Caliper, Side.Left, Caliper.Hung).With(Corner.Caliper, Side.Right, Caliper.Hung).With(Corner.Spindle, Side.Right, other)
            .With(Car.Brake, brake).With(Car.Sleep, CarSleep.Asleep);
        var why = Planner.Why(ToolPads, state, new("actuator-unplugged", Side.Left));
        why.Allowed.ShouldBe(comesOff, string.Join("; ", why.Lacking));
        if (!comesOff) why.Interlocks.ShouldBe([4]);
    }

    [Fact]
    public void It_is_not_left_on_in_a_car_that_may_press_its_own_brakes_or_without_a_charger_or_on_another_route()
    {
        var state = Planner.Make(ToolPads, ToolPads.Start()).Steps.TakeWhile(k => k.StepId != "ignition-off").Aggregate(ToolPads.Start(), (s, k) => Planner.Apply(ToolPads, s, k, null))
            .With(Car.Tag, Done.Yes).With(Car.SelfPressure, SelfPressure.RuledOut);
        var choice = new StepKey("ignition-left-on", null);
        Planner.Why(ToolPads, state, choice).Allowed.ShouldBeTrue();
        Planner.Why(ToolPads, state.With(Car.SelfPressure, SelfPressure.NotRuledOut), choice).Allowed.ShouldBeFalse();
        Planner.Why(ToolPads, state.With(Car.Battery, Battery.Alone), choice).Allowed.ShouldBeFalse();
        Planner.Why(ToolPads, state.With(Car.Tag, Done.No), choice).Allowed.ShouldBeFalse();
        CompiledCatalogue.For(PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.SpindleByHand)).OnlyByChoice.Select(s => s.Key).ShouldNotContain(choice);
    }

    // 45 A h with 8 A taken and 0.03 ohm: 0.7 of the charge is 12.4375 V at rest, and 12.0 V under load comes after 1.27 h, at rest after 2.8 h.
    [Fact]
    public void How_long_a_battery_carries_the_ignition_is_reckoned_from_its_voltage_at_rest()
    {
        static double? Minutes(double rest, double floor) => IgnitionTime.From(ElectricPotential.FromVolts(rest), ElectricPotential.FromVolts(floor)).Lasts?.Minutes;
        (Minutes(12.4375, 12.0)!.Value / 60).ShouldBe(1.27, 0.005);
        // With nothing lost inside it, the floor at rest: 0.24 V lower.
        (Minutes(12.4375, 12.0 - 8 * 0.03)!.Value / 60).ShouldBe(2.8, 0.02);
        Minutes(12.1, 12.0).ShouldBe(0);
        Minutes(13.1, 12.0).ShouldBeNull("that was read with a charger on it");
        IgnitionTime.From(ElectricPotential.FromVolts(12.1), ElectricPotential.FromVolts(12.0)).Says.ShouldContain("no time");
    }

    [Fact]
    public void In_service_the_actuator_stays_plugged_and_the_other_one_is_not_unplugged_while_a_caliper_hangs_on_it()
    {
        var plan = Planner.Make(ToolPads, ToolPads.Start());
        plan.Steps.Select(k => k.StepId).ShouldNotContain("actuator-unplugged");
        StepCatalogue.Find("caliper-off")!.HowIn(ToolPads).ShouldContain("the lead hangs slack");
        StepCatalogue.Find("caliper-off")!.HowIn(CablePads).ShouldNotContain("lead");
        var (state, _) = Before(ToolPads, "pads-out", Side.Left);
        state.Get(Corner.Caliper, Side.Left).ShouldBe(Caliper.Hung);
        var asleep = state.With(Car.Sleep, CarSleep.Asleep).With(Corner.Wheel, Side.Right, Wheel.Off);
        Planner.Why(ToolPads, asleep, new("actuator-unplugged", Side.Right)).Interlocks.ShouldBe([4]);
        Planner.Why(ToolPads, asleep, new("actuator-unplugged", Side.Left)).Allowed.ShouldBeTrue("what hangs on it may be unplugged first");
    }
}

using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>What must hold between the first bolt and the keys, written from the trade. Common practice, no source.</summary>
public class SafeToTheEndTests
{
    private static readonly PlanSetup Cable = PlanSetup.For(Architecture.CableScrew, JobScope.Pads);
    private static readonly PlanSetup Tool = PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.ScanTool);
    private static readonly PlanSetup Puller = PlanSetup.For(Architecture.PullerScrew, JobScope.Pads, ServiceRoute.PullerRelease);

    private static CarState Until(PlanSetup setup, string step, Side? side = null) =>
        Planner.Make(setup, setup.Start()).Steps.TakeWhile(k => k.StepId != step || (side is not null && k.Side != side)).Aggregate(setup.Start(), (s, k) => Planner.Apply(setup, s, k, null));

    private static CarState Found(PlanSetup setup, CarState state, FindingKind kind, Side? side) => Planner.Moved(setup, state, FindingRules.Onto(setup, state, kind, side));

    private static List<string> Ahead(PlanSetup setup, CarState state)
    {
        var plan = Planner.Make(setup, state);
        plan.CannotBeMet.ShouldBeEmpty();
        return [.. plan.Steps.Select(k => k.ToString())];
    }

    public static TheoryData<Architecture, FindingKind> Everything()
    {
        var all = new TheoryData<Architecture, FindingKind>();
        foreach (var architecture in new[] { Architecture.CableScrew, Architecture.MotorPush, Architecture.HatShoes, Architecture.PullerScrew, Architecture.FixedHat, Architecture.SpotCaliper, Architecture.MotorHat, Architecture.Plain })
            foreach (var card in FindingCatalogue.All.Where(c => c.Leaves.Any(d => d.Forbids != Forbidden.Nothing))) all.Add(architecture, card.Kind);
        return all;
    }

    [Theory]
    [MemberData(nameof(Everything))]
    public void No_stop_no_drive_and_no_hand_over_rests_on_what_was_found_and_not_put_right(Architecture architecture, FindingKind kind)
    {
        var setup = PlanSetup.For(architecture, architecture == Architecture.HatShoes ? JobScope.PadsRotorsAndShoes : JobScope.PadsAndRotors);
        setup = setup with { Route = setup.NeedsRoute ? setup.Routes[0] : null, Fittings = Enum.GetValues<Fitting>() };
        var driven = Until(setup, "handed-over");
        var card = kind.Card();
        if (!card.CanBe(setup, driven, Side.Left)) return;
        Side? side = card.PerCorner ? Side.Left : null;
        var wanted = FindingRules.Onto(setup, kind, side);
        var found = Found(wanted, driven, kind, side);
        Planner.Why(wanted, found, new("handed-over", null)).Interlocks.ShouldContain(13, "the keys");
        foreach (var (step, what) in new[] { ("test-driven", Forbidden.Road), ("bed-in", Forbidden.FirmStops), ("brake-held", Forbidden.Move), ("pedal-proved", Forbidden.Pedal) })
        {
            // What it really leaves on this car: a wrong part that is not fitted is on the shelf.
            if (!card.Leaves.Any(d => (d.Forbids & what) != 0 && (d.Asked.PerCorner ? found.Get(d.Asked, Side.Left) : found.Get(d.Asked)) == Asked.Due)) continue;
            Planner.Why(wanted, found, new(step, null)).Allowed.ShouldBeFalse($"{step} with {kind}");
        }

        Planner.Make(wanted, found).CannotBeMet.ShouldBeEmpty();
    }

    [Fact]
    public void Every_finding_names_what_it_leaves_and_every_defect_is_left_by_some_finding_or_outcome()
    {
        FindingCatalogue.All.ShouldAllBe(c => c.Leaves != null);
        Defects.All.Except(FindingCatalogue.All.SelectMany(c => c.Leaves)).Select(d => d.Id).ShouldBe(["speed-ring", "creeping-brake", "loose-actuator"], ignoreOrder: true);
        Defects.All.Select(d => d.Id).ShouldBeUnique();
    }

    [Fact]
    public void A_self_pressurising_brake_that_was_switched_off_is_on_again_before_the_pedal_is_proved_and_before_it_is_driven()
    {
        var ahead = Ahead(Cable, Until(Cable, "pedal-proved").With(Car.SelfPressure, SelfPressure.Disabled));
        ahead.IndexOf("self-pressure-on").ShouldBeLessThan(ahead.IndexOf("pedal-proved"));
        var driven = Until(Cable, "test-driven").With(Car.SelfPressure, SelfPressure.Disabled);
        Planner.Why(Cable, driven, new("test-driven", null)).Allowed.ShouldBeFalse();
        CompiledCatalogue.For(Cable).Find(new("self-pressure-on", null))!.Type.Concerns.ShouldBe(Concern.Pedal | Concern.HandsOut, "it may press at once: hands out, both sides together");
    }

    [Fact]
    public void A_new_caliper_that_is_wrong_comes_off_again_and_the_right_one_is_waited_for()
    {
        var setup = Cable.With(Side.Left, c => c with { CaliperNew = true });
        foreach (var kind in new[] { FindingKind.WrongPart, FindingKind.NewPartSpoiled, FindingKind.StuckPiston })
        {
            Side? side = kind.Card().PerCorner ? Side.Left : null;
            var ahead = Ahead(setup, Found(setup, Until(setup, "pedal-proved"), kind, side));
            ahead.IndexOf("wrong-caliper-away, left").ShouldBeInRange(0, ahead.IndexOf("new-caliper-hung, left"), kind.ToString());
            ahead.IndexOf("right-part").ShouldBeInRange(0, ahead.IndexOf("new-caliper-hung, left"), kind.ToString());
        }
    }

    [Fact]
    public void Rotors_mixed_up_left_for_right_change_places_and_nothing_is_ordered()
    {
        var setup = PlanSetup.For(Architecture.CableScrew, JobScope.PadsAndRotors);
        var ahead = Ahead(setup, Found(setup, Until(setup, "pedal-proved"), FindingKind.SidesMixedUp, null));
        ahead.ShouldContain("rotor-off, left");
        ahead.ShouldContain("rotor-on, right");
        ahead.ShouldNotContain("right-part");
    }

    [Fact]
    public void A_brake_that_has_applied_again_leaves_no_spindle_known_back_and_no_lever_seen()
    {
        var state = Until(Tool, "turns-free");
        state.Get(Corner.Spindle, Side.Left).ShouldBe(Spindle.Back);
        foreach (var side in Core.Sides.Both) Planner.Apply(Tool, state, new("turns-free", Side.Left), "held").Get(Corner.Spindle, side).ShouldBe(Spindle.Unknown);
        var levers = Until(Puller, "turns-free");
        foreach (var side in Core.Sides.Both) Planner.Apply(Puller, levers, new("turns-free", Side.Left), "held").Get(Corner.Lever, side).ShouldBe(Lever.NotSeen);
    }

    [Fact]
    public void The_levers_of_a_puller_are_seen_again_after_a_night_and_no_pads_go_back_in_only_to_let_go()
    {
        var night = Until(Puller, "pads-in");
        var morning = Overnight.InTheMorning(Puller, night.With(Corner.Lever, Side.Left, Lever.OnStop));
        morning.Get(Corner.Lever, Side.Left).ShouldBe(Lever.NotSeen);
        var tight = morning.With(Car.Cable, CableRun.Tight).With(Car.Brake, ParkingBrake.Released).With(Car.Tag, Done.No);
        var ahead = Ahead(Puller, tight);
        ahead.ShouldContain("puller-released");
        ahead.ShouldNotContain("pads-back, left");
    }

    [Fact]
    public void A_soft_pedal_is_traced_before_it_is_proved_and_a_creeping_brake_before_it_is_cycled()
    {
        var soft = Ahead(Cable, Found(Cable, Until(Cable, "level-looked"), FindingKind.PedalSinks, null));
        soft.IndexOf("pedal-traced").ShouldBeInRange(0, soft.IndexOf("pedal-proved"));
        var creeps = Ahead(Cable, Planner.Apply(Cable, Until(Cable, "brake-held"), new("brake-held", null), "creeps"));
        creeps.IndexOf("brake-traced").ShouldBeInRange(0, creeps.IndexOf("lever-cycled"));
        var lamp = Ahead(Tool, Found(Tool, Until(Tool, "handed-over"), FindingKind.LampStays, null));
        lamp.IndexOf("trouble-settled").ShouldBeInRange(0, lamp.IndexOf("codes-cleared"));
        lamp.ShouldContain("lamp-seen-off");
    }

    [Fact]
    public void Behind_a_clamped_hose_nothing_is_pressed_or_proved_and_its_hose_is_looked_at()
    {
        var state = Found(Cable, Until(Cable, "leaks-looked"), FindingKind.HosePinched, Side.Left);
        state.Get(Car.Pedal).ShouldBe(Pedal.NotPumped);
        foreach (var step in new[] { "pedal-proved", "leaks-looked", "test-driven" }) Planner.Why(Cable, state, new(step, null)).Allowed.ShouldBeFalse(step);
        var ahead = Ahead(Cable, state);
        ahead.IndexOf("hose-clamp-off, left").ShouldBeInRange(0, ahead.IndexOf("hose-looked, left"));
        ahead.IndexOf("hose-looked, left").ShouldBeInRange(0, ahead.IndexOf("pedal-proved"));
    }

    [Fact]
    public void A_house_that_shuts_a_hose_with_a_clamp_takes_it_off_again_before_the_pedal()
    {
        var setup = Cable.With(Side.Left, c => c with { CaliperNew = true }) with { Rules = HouseRules.Default with { Hose = HoseRule.Clamp } };
        var ahead = Ahead(setup, setup.Start());
        ahead.IndexOf("banjo-torqued, left").ShouldBeInRange(0, ahead.IndexOf("hose-clamp-off, left"));
        ahead.IndexOf("hose-clamp-off, left").ShouldBeInRange(0, ahead.IndexOf("corner-bled, left"));
    }

    [Fact]
    public void No_banjo_is_left_hand_tight_for_a_night()
    {
        var setup = Cable.With(Side.Left, c => c with { CaliperNew = true });
        var hung = Planner.Apply(setup, Until(setup, "new-caliper-hung", Side.Left), new("new-caliper-hung", Side.Left), null);
        Overnight.To(setup, hung, NightKind.OnStands).Steps.ShouldNotBeEmpty();
    }

    [Fact]
    public void The_other_side_stays_the_pattern_until_this_one_is_together()
    {
        List<string> opened = [];
        foreach (var (setup, plan) in Setups.Planned.Where(p => p.Setup is { Identified: true, InspectOnly: false } s && s.Rules.Sides == SidesRule.OtherKept && (s.PadsNew || s.ShoesNew)))
        {
            // No way was found where the fluid goes into the bottle: its circuit stays open until both are closed.
            if (setup.Rules.FluidRoom == FluidRoomRule.OpenBleeder) continue;
            var order = plan.Steps.ToList();
            var opening = order.FindIndex(k => k.StepId is "caliper-off" or "pads-out");
            var first = order[opening].Side!.Value;
            var other = order.FindIndex(k => k.Side == first.Other() && k.StepId is "caliper-off" or "pads-out" && k.Side == first.Other());
            if (other < 0) continue;
            var state = order.Take(other).Aggregate(setup.Start(), (s, k) => Planner.Apply(setup, s, k, null));
            if (state.Get(Corner.Caliper, first) != Caliper.On) opened.Add($"{setup.Left.Architecture} {setup.Scope} {setup.Route} {setup.Rules}: {string.Join(" > ", order)}");
        }

        opened.ShouldBeEmpty();
    }

    [Fact]
    public void Nuts_are_cracked_in_P_with_chocks_in_and_the_wheels_are_turned_once_more_after_the_last_release()
    {
        foreach (var (setup, plan) in Setups.Planned.Where(p => p.Setup.Identified))
        {
            var order = plan.Steps.Select(k => k.StepId).ToList();
            if (order.Contains("gear-neutral") && order.Contains("nuts-cracked")) order.LastIndexOf("nuts-cracked").ShouldBeLessThan(order.IndexOf("gear-neutral"), setup.ToString());
            if (order.FindIndex(s => s is "lever-cycled" or "shoe-brake-cycled" or "brake-cycled") is >= 0 and var cycled) order.LastIndexOf("turns-free").ShouldBeGreaterThan(cycled, setup.ToString());
        }
    }
}

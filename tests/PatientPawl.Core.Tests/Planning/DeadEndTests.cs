using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>Where a stranger's walks found that nothing went on: each place has a way on now, or says what is waited for.</summary>
public class DeadEndTests
{
    private static CarState Until(PlanSetup setup, Func<StepKey, bool> step) =>
        Planner.Make(setup, setup.Start()).Steps.TakeWhile(k => !step(k)).Aggregate(setup.Start(), (s, k) => Planner.Apply(setup, s, k, null));

    private static CarState Found(PlanSetup setup, CarState state, FindingKind kind, Side? side) => Planner.Moved(setup, state, FindingRules.Onto(setup, state, kind, side));

    [Theory]
    [InlineData("lifted")]
    [InlineData("pads-in")]
    [InlineData("lowered")]
    [InlineData("level-looked")]
    [InlineData("handed-over")]
    public void A_rotor_screw_that_broke_on_a_puller_released_from_the_start_leads_on_wherever_it_is_told(string at)
    {
        var setup = PlanSetup.For(Architecture.PullerScrew, JobScope.PadsAndRotors, ServiceRoute.ScanTool) with { Rules = HouseRules.Default with { Holding = HoldingRule.ReleasedFromStart } };
        Planner.Make(setup, Found(setup, Until(setup, k => k.StepId == at), FindingKind.BrokenScrew, Side.Right)).CannotBeMet.ShouldBeEmpty();
    }

    [Theory]
    [InlineData(Architecture.CableScrew, JobScope.PadsAndRotors, null)]
    [InlineData(Architecture.HatShoes, JobScope.PadsRotorsAndShoes, null)]
    [InlineData(Architecture.MotorPush, JobScope.PadsAndRotors, ServiceRoute.ScanTool)]
    [InlineData(Architecture.FixedHat, JobScope.PadsAndRotors, null)]
    [InlineData(Architecture.SpotCaliper, JobScope.PadsAndRotors, null)]
    [InlineData(Architecture.PullerHat, JobScope.PadsAndRotors, ServiceRoute.ScanTool)]
    public void A_stop_sign_at_one_corner_never_ends_the_other(Architecture architecture, JobScope scope, ServiceRoute? route)
    {
        foreach (var sides in Enum.GetValues<SidesRule>())
        {
            var setup = PlanSetup.For(architecture, scope, route) with { Rules = HouseRules.Default with { Sides = sides } };
            foreach (var side in Core.Sides.Both)
            {
                var state = Until(setup, k => k == new StepKey("piston-home", side));
                var plan = Planner.Make(setup, Planner.Moved(setup, state, state.With(Corner.Piston, side, Piston.Stuck)));
                plan.CannotBeMet.ShouldNotBeEmpty();
                if (state.Get(Corner.Pads, side.Other()) == PadState.New) continue;
                plan.Steps.ShouldContain(new StepKey("pads-in", side.Other()), $"{architecture} {scope} {sides} stuck {side}: {string.Join("; ", plan.CannotBeMet)}");
            }
        }
    }

    [Theory]
    [InlineData(Architecture.MotorPush)]
    [InlineData(Architecture.PullerScrew)]
    [InlineData(Architecture.MotorHat)]
    public void A_car_with_no_route_and_a_loose_pad_can_be_made_safe_to_move_in_the_yard(Architecture architecture)
    {
        var setup = PlanSetup.For(architecture, JobScope.Pads);
        var plan = Planner.Make(setup with { Goal = JobGoal.Yard }, Found(setup, Until(setup, k => k.StepId == "choose-route"), FindingKind.PadLoose, Side.Left));
        plan.CannotBeMet.ShouldBeEmpty();
        plan.Steps.Select(k => k.StepId).ShouldContain("left-open-pads-seat", "by the lead's word, with a tag");
    }

    [Fact]
    public void A_brake_that_applied_over_an_open_hat_can_be_told_so()
    {
        var setup = PlanSetup.For(Architecture.MotorHat, JobScope.PadsAndShoes, ServiceRoute.ScanTool);
        var state = Until(setup, k => k.StepId == "star-wheel-backed").With(Car.Brake, ParkingBrake.Unknown);
        CompiledCatalogue.For(setup).Find(new("service-verified", null))!.Outcomes.Single(o => o.Type.Id == "applied").Needs.Count(n => !n.Holds(state.Raw)).ShouldBe(0);
    }

    [Fact]
    public void Screws_behind_a_wheel_are_not_marked_cracked()
    {
        var setup = PlanSetup.For(Architecture.CableScrew, JobScope.PadsAndRotors);
        Planner.CanHaveBeenDone(setup, Until(setup, k => k.StepId == "lifted"), new("screws-cracked-bar", Side.Left)).ShouldBeFalse();
    }

    [Fact]
    public void Wheel_nuts_wait_for_the_key_of_their_locking_nut()
    {
        var setup = PlanSetup.For(Architecture.CableScrew, JobScope.Pads);
        foreach (var step in new[] { "wheel-off", "wheel-torqued" })
        {
            var state = Found(setup, Until(setup, k => k == new StepKey(step, Side.Left)), FindingKind.KeyMissing, Side.Left);
            Planner.Why(setup, state, new(step, Side.Left)).Allowed.ShouldBeFalse(step);
            Planner.Make(setup, state).Steps.ShouldContain(new StepKey("nut-key-found", Side.Left));
        }
    }

    [Fact]
    public void A_screw_that_came_broken_leaves_the_sound_one_its_own_step()
    {
        var setup = PlanSetup.For(Architecture.CableScrew, JobScope.PadsAndRotors);
        var state = Found(setup, Until(setup, k => k.StepId == "screws-cracked-brake"), FindingKind.ScrewCameBroken, Side.Left);
        state.Get(Corner.RotorScrews, Side.Left).ShouldBe(Bolts.Tight);
        var steps = Planner.Make(setup, Planner.Apply(setup, state, new("screw-decided", Side.Left), "others-hold")).Steps;
        steps.ShouldContain(new StepKey("screws-cracked-brake", Side.Left));
        steps.ShouldContain(new StepKey("rotor-screws-torqued", Side.Left));
    }

    [Fact]
    public void A_seized_pin_can_take_a_bracket_with_its_own_bolts_and_torques()
    {
        var setup = PlanSetup.For(Architecture.CableScrew, JobScope.Pads) with { SingleUse = [Core.Torque.FastenerRole.Bracket] };
        var state = Found(setup, Until(setup, k => k == new StepKey("pads-in", Side.Left)), FindingKind.SeizedPin, Side.Left);
        var steps = Planner.Make(setup, Planner.Apply(setup, state, new("pin-kit", Side.Left), "bracket")).Steps.Where(k => k.Side == Side.Left).Select(k => k.StepId).ToList();
        foreach (var step in new[] { "bracket-off", "bracket-swapped", "bolts-laid-out", "bracket-on", "bracket-torqued" }) steps.ShouldContain(step);
    }
}

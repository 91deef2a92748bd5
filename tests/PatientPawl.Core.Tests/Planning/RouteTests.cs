using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Tests.Jobs;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>Routes into the service position, house rules as data. Common practice, no source.</summary>
public class RouteTests
{
    private static SpecSheet With(ElectricSpec? electric) => Bench.Sheet() with { Electric = electric };
    private static readonly ElectricSpec Sequence = new(false, null, "hex", [new("Switch down", 5)]);

    [Fact]
    public void A_tool_comes_first_then_the_cars_own_sequence_then_spindles_by_hand_and_a_battery_never()
    {
        var ranked = ServiceRoutes.Rank(PlanSetup.For(Architecture.MotorPush, JobScope.Pads), With(Sequence));
        ranked.Routes.Select(r => r.Route).ShouldBe([ServiceRoute.ScanTool, ServiceRoute.InCar, ServiceRoute.SpindleByHand]);
        ranked.Routes.ShouldAllBe(r => r.Offered && r.Minutes > 30);
        ranked.Routes[2].Minutes!.Value.ShouldBeGreaterThan(ranked.Routes[0].Minutes!.Value, "the slowest");
        ranked.Never.ShouldContain("not offered");
        // Without a sequence on the sheet it stands last, with its reason.
        var silent = ServiceRoutes.Rank(PlanSetup.For(Architecture.MotorPush, JobScope.Pads), With(null));
        silent.Routes[^1].Route.ShouldBe(ServiceRoute.InCar);
        silent.Routes[^1].Offered.ShouldBeFalse();
        silent.Routes[^1].Because.ShouldContain("no sequence");
    }

    [Theory]
    [InlineData(Architecture.PullerScrew, JobScope.Pads, "ScanTool,InCar,PullerRelease")]
    [InlineData(Architecture.PullerHat, JobScope.PadsAndRotors, "ScanTool,InCar,PullerRelease")]
    [InlineData(Architecture.MotorHat, JobScope.Shoes, "ScanTool,InCar")]
    // They are there where the job does not need one: a finding may.
    [InlineData(Architecture.PullerHat, JobScope.Pads, "ScanTool,InCar,PullerRelease")]
    [InlineData(Architecture.MotorPush, JobScope.Inspect, "ScanTool,InCar,SpindleByHand")]
    [InlineData(Architecture.CableScrew, JobScope.Pads, "")]
    [InlineData(Architecture.Plain, JobScope.PadsAndRotors, "")]
    public void Each_brake_has_its_routes(Architecture architecture, JobScope scope, string routes) =>
        string.Join(',', PlanSetup.For(architecture, scope).Routes).ShouldBe(routes);

    [Fact]
    public void A_hats_parking_brake_is_left_alone_where_the_rotor_stays_on_and_an_inspection_opens_nothing()
    {
        PlanSetup.For(Architecture.PullerHat, JobScope.Pads).NeedsRoute.ShouldBeFalse();
        PlanSetup.For(Architecture.MotorPush, JobScope.Inspect).NeedsRoute.ShouldBeFalse();
        PlanSetup.For(Architecture.PullerHat, JobScope.PadsAndRotors).NeedsRoute.ShouldBeTrue();
    }

    [Fact]
    public void A_box_without_manual_release_does_not_offer_it() =>
        ServiceRoutes.Rank(PlanSetup.For(Architecture.PullerScrew, JobScope.Pads), With(Sequence with { NoManualRelease = true })).Routes.Single(r => r.Route == ServiceRoute.PullerRelease).Offered.ShouldBeFalse();

    [Fact]
    public void Every_route_closes_once_after_both_sides_with_the_pedal_firm_and_cycles_the_brake()
    {
        foreach (var (setup, plan) in Setups.Planned.Where(p => p.Setup.NeedsRoute))
        {
            var order = plan.Steps.Select(s => s.StepId).ToList();
            var close = setup.ByHand ? "first-apply" : "service-closed";
            order.Count(s => s == close).ShouldBe(1, $"{string.Join(" > ", order)} in {setup}");
            order.IndexOf("turns-free").ShouldBeLessThan(order.IndexOf(close));
            order.LastIndexOf("turns-free").ShouldBeGreaterThan(order.IndexOf("brake-cycled"), "and once more after the last release");
            order.FindIndex(s => s.StartsWith("pedal-proved")).ShouldBeInRange(0, order.IndexOf(close));
            order.IndexOf(close).ShouldBeLessThan(order.IndexOf("brake-cycled"));
            order.IndexOf("brake-cycled").ShouldBeLessThan(order.IndexOf("lowered"));
            // An unplugged actuator cannot move either.
            if (setup.InService && !order.Contains("actuator-unplugged")) order.IndexOf("switch-tagged").ShouldBeInRange(order.FindIndex(s => s.StartsWith("service-entered") || s == "puller-released"), order.Count, setup.ToString());
        }
    }

    [Fact]
    public void Twenty_one_house_rules_each_with_its_schools_and_its_reason_eight_of_them_change_the_plan()
    {
        HouseRuleCatalogue.All.Count.ShouldBe(21);
        HouseRuleCatalogue.All.ShouldAllBe(r => r.Schools.Count == (r.Key == "sides" ? 3 : 2) && r.WhyDefault.EndsWith('.') && r.Schools.All(s => s.Says.EndsWith('.') && s.Changes.EndsWith('.')));
        HouseRuleCatalogue.All.Where(r => r.ChangesPlan).Select(r => r.Key).ShouldBe(["holding", "sides", "cap", "fluidRoom", "bleeding", "bedIn", "pairs", "signOff"]);
        foreach (var rule in HouseRuleCatalogue.All)
        {
            rule.InForce(HouseRules.Default).ShouldBe(rule.Schools[0]);
            rule.InForce(rule.Choose(HouseRules.Default, 1)).ShouldBe(rule.Schools[1]);
            rule.Choose(rule.Choose(HouseRules.Default, 1), 0).ShouldBe(HouseRules.Default);
        }
    }

    [Theory]
    [InlineData("holding", true)]
    [InlineData("sides", true)]
    [InlineData("cap", true)]
    [InlineData("fluidRoom", true)]
    [InlineData("bleeding", true)]
    [InlineData("bedIn", true)]
    [InlineData("signOff", true)]
    [InlineData("boot", false)]
    [InlineData("retorque", false)]
    [InlineData("pumpUp", false)]
    public void A_rule_that_says_it_changes_the_plan_does_and_another_does_not(string key, bool changes)
    {
        var setup = PlanSetup.For(Architecture.CableScrew, JobScope.PadsAndRotors);
        var rule = HouseRuleCatalogue.All.Single(r => r.Key == key);
        var other = setup with { Rules = rule.Choose(setup.Rules, 1) };
        (!Planner.Make(setup, setup.Start()).Steps.SequenceEqual(Planner.Make(other, other.Start()).Steps)).ShouldBe(changes);
    }

    [Fact]
    public void Small_parts_come_off_before_the_caliper_and_are_on_before_the_wheel()
    {
        var setup = PlanSetup.For(Architecture.HatShoes, JobScope.PadsRotorsAndShoes) with { Fittings = Enum.GetValues<Fitting>() };
        var order = Planner.Make(setup, setup.Start()).Steps.Select(s => s.ToString()).ToList();
        foreach (var part in new[] { "sensor", "rattle-spring", "hose-bracket", "pin-caps" })
        {
            order.IndexOf($"{part}-off, left").ShouldBeInRange(0, order.IndexOf("caliper-off, left"));
            order.IndexOf($"{part}-on, left").ShouldBeInRange(order.IndexOf("slide-pins-torqued, left"), order.IndexOf("wheel-on, left"));
        }

        order.IndexOf("hat-plug-out, right").ShouldBeInRange(0, order.IndexOf("star-wheel-backed, right"));
        order.IndexOf("hat-plug-in, right").ShouldBeInRange(order.IndexOf("new-shoes-set, right"), order.IndexOf("wheel-on, right"));
        Planner.Make(setup with { Fittings = [] }, (setup with { Fittings = [] }).Start()).Steps.ShouldNotContain(s => s.StepId == "sensor-off");
    }
}

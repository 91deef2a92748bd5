using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>Order facts of the brake with shoes in the hat. Common practice, no source.</summary>
public class HatPlanTests
{
    private static readonly PlanSetup Shoes = PlanSetup.For(Architecture.HatShoes, JobScope.Shoes);
    private static readonly PlanSetup Rotors = PlanSetup.For(Architecture.HatShoes, JobScope.PadsAndRotors);

    private static List<string> Order(PlanSetup setup) => [.. Planner.Make(setup, setup.Start()).Steps.Select(s => s.ToString())];

    private static void Before(List<string> order, string a, string b)
    {
        order.ShouldContain(a);
        order.ShouldContain(b);
        order.IndexOf(a).ShouldBeLessThan(order.IndexOf(b), $"{a} before {b}");
    }

    public static TheoryData<JobScope, bool, SidesRule> Hats()
    {
        TheoryData<JobScope, bool, SidesRule> data = [];
        foreach (var scope in new[] { JobScope.Shoes, JobScope.PadsAndRotors })
            foreach (var bracketStays in new[] { false, true })
                foreach (var sides in Enum.GetValues<SidesRule>()) data.Add(scope, bracketStays, sides);
        return data;
    }

    private static PlanSetup Of(JobScope scope, bool bracketStays, SidesRule sides) =>
        PlanSetup.For(Architecture.HatShoes, scope) with { RotorComesOffWithBracketOn = bracketStays, Rules = HouseRules.Default with { Sides = sides } };

    [Theory]
    [MemberData(nameof(Hats))]
    public void The_shoes_are_let_go_before_the_hat_comes_off(JobScope scope, bool bracketStays, SidesRule sides)
    {
        var order = Order(Of(scope, bracketStays, sides));
        foreach (var side in new[] { "left", "right" })
        {
            Before(order, "brake-released", "shoe-cable-slack");
            Before(order, "shoe-cable-slack", $"star-wheel-backed, {side}");
            Before(order, $"star-wheel-backed, {side}", $"rotor-off, {side}");
        }
    }

    [Theory]
    [MemberData(nameof(Hats))]
    public void The_shoes_are_set_on_a_rotor_that_turns_free_before_bracket_and_caliper(JobScope scope, bool bracketStays, SidesRule sides)
    {
        var order = Order(Of(scope, bracketStays, sides));
        var (set, on) = scope == JobScope.Shoes ? ("new-shoes-set", "rotor-back") : ("shoes-set", "rotor-on");
        foreach (var side in new[] { "left", "right" })
        {
            Before(order, $"{on}, {side}", $"{set}, {side}");
            Before(order, $"{set}, {side}", $"caliper-on, {side}");
            if (!bracketStays)
            {
                Before(order, $"{set}, {side}", $"bracket-on, {side}");
                Before(order, $"bracket-torqued, {side}", $"caliper-on, {side}");
            }
            else
            {
                order.ShouldNotContain($"bracket-off, {side}");
            }

            Before(order, $"{set}, {side}", "shoe-cable-taken-up");
        }

        Before(order, "shoe-cable-taken-up", "shoe-brake-cycled");
        Before(order, "shoe-brake-cycled", "brake-applied");
        Before(order, "brake-applied", "lowered");
    }

    [Theory]
    [MemberData(nameof(Hats))]
    public void Nothing_new_goes_on_before_both_drums_and_all_shoes_are_judged(JobScope scope, bool bracketStays, SidesRule sides)
    {
        var order = Order(Of(scope, bracketStays, sides));
        foreach (var judged in new[] { "left", "right" })
            foreach (var side in new[] { "left", "right" })
            {
                // The other side is kept assembled as the pattern: it is measured once it is opened itself.
                if (sides == SidesRule.OtherKept && judged != side) continue;
                Before(order, $"shoes-measured, {judged}", scope == JobScope.Shoes ? $"shoes-on, {side}" : $"rotor-on, {side}");
                Before(order, $"measured, {judged}", scope == JobScope.Shoes ? $"shoes-on, {side}" : $"rotor-on, {side}");
            }
    }

    [Fact]
    public void New_shoes_go_on_a_clean_plate_and_the_old_rotor_and_pads_go_back()
    {
        var order = Order(Shoes);
        Before(order, "shoes-off, left", "plate-clean, left");
        Before(order, "plate-clean, left", "shoes-on, left");
        Before(order, "shoes-on, left", "rotor-back, left");
        Before(order, "hub-clean, left", "rotor-back, left");
        order.ShouldContain("pads-back, right");
        order.ShouldNotContain(s => s.StartsWith("rotor-on") || s.StartsWith("pads-in") || s.StartsWith("piston-home") || s.StartsWith("rotor-degreased"));
    }

    [Fact]
    public void New_rotors_get_new_pads_and_the_old_shoes_stay_where_they_pass()
    {
        var order = Order(Rotors);
        Before(order, "rotor-degreased, left", "pads-in, left");
        Before(order, "piston-home, left", "caliper-on, left");
        order.ShouldNotContain(s => s.StartsWith("shoes-off") || s.StartsWith("shoes-on"));
    }

    [Fact]
    public void The_brake_still_holds_the_hubs_while_the_screws_are_cracked()
    {
        var order = Order(Rotors);
        Before(order, "screws-cracked-brake, left", "brake-released");
        Before(order, "screws-cracked-brake, right", "brake-released");
        Order(Rotors with { Rules = HouseRules.Default with { Holding = HoldingRule.ReleasedFromStart } }).ShouldContain("screws-cracked-bar, left");
        Order(Rotors with { RotorHasScrews = false }).ShouldNotContain(s => s.StartsWith("screws-cracked"));
    }

    [Theory]
    [InlineData("shoe-cable-slack", null, 2)]
    [InlineData("rotor-off", Side.Left, 8)]
    [InlineData("caliper-on", Side.Left, 10)]
    [InlineData("shoe-brake-cycled", null, 2)]
    public void The_hats_interlocks_stand_in_the_way_by_themselves(string stepId, Side? side, int number)
    {
        var state = Shoes.Start();
        foreach (var step in Planner.Make(Shoes, state).Steps.TakeWhile(s => s != new StepKey(stepId, side))) state = Planner.Apply(Shoes, state, step, null);
        Planner.Why(Shoes, state, new(stepId, side)).Allowed.ShouldBeTrue();
        var broken = number switch
        {
            2 when stepId == "shoe-cable-slack" => state.With(Car.Brake, ParkingBrake.Applied),
            2 => state.With(Corner.Shoes, Side.Right, ShoesState.NewLoose),
            8 => state.With(Corner.Shoes, Side.Left, ShoesState.Set),
            _ => state.With(Corner.Shoes, Side.Left, ShoesState.NewLoose),
        };
        var why = Planner.Why(Shoes, broken, new(stepId, side));
        why.Allowed.ShouldBeFalse();
        why.Interlocks.ShouldContain(number);
    }

    [Fact]
    public void The_holds_of_a_shoes_job_are_met_in_their_order_and_parts_are_settled_before_anything_new_goes_on()
    {
        var state = Shoes.Start();
        List<string> met = [];
        foreach (var step in Planner.Make(Shoes, state).Steps)
        {
            if (step.StepId is "shoes-on") met.ShouldContain("parts-settled");
            if (step.StepId is "lowered") met.ShouldContain("assembled");
            state = Planner.Apply(Shoes, state, step, null);
            met.AddRange(Core.Jobs.Holds.All.Where(h => h.Applies(Shoes) && h.Met(Shoes, state) && !met.Contains(h.Id)).Select(h => h.Id));
        }

        met.Count.ShouldBe(Core.Jobs.Holds.All.Count(h => h.Applies(Shoes)));
        Planner.GoalReached(Shoes, state).ShouldBeTrue();
    }

    [Fact]
    public void Single_use_bracket_bolts_are_wanted_only_where_the_bracket_comes_off()
    {
        var setup = Shoes with { SingleUse = [FastenerRole.Bracket] };
        Order(setup).ShouldContain("bolts-laid-out, left");
        Order(setup with { RotorComesOffWithBracketOn = true }).ShouldNotContain("bolts-laid-out, left");
        Order(setup with { Scope = JobScope.Pads }).ShouldNotContain("bolts-laid-out, left");
    }
}

using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;
using Xunit.Abstractions;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>How short the ways are, against the exact optimum of cases small enough to be solved whole.</summary>
public class PlanQualityTests(ITestOutputHelper output)
{
    public static TheoryData<Architecture, JobScope, ServiceRoute?, SidesRule> Cases() => new()
    {
        { Architecture.CableScrew, JobScope.Pads, null, SidesRule.OneThenOther },
        { Architecture.CableScrew, JobScope.PadsAndRotors, null, SidesRule.InStep },
        { Architecture.MotorPush, JobScope.PadsAndRotors, ServiceRoute.ScanTool, SidesRule.OneThenOther },
        { Architecture.MotorPush, JobScope.Pads, ServiceRoute.SpindleByHand, SidesRule.InStep },
        { Architecture.HatShoes, JobScope.PadsRotorsAndShoes, null, SidesRule.OneThenOther },
        { Architecture.FixedHat, JobScope.PadsAndRotors, null, SidesRule.OneThenOther },
        { Architecture.PullerScrew, JobScope.Pads, ServiceRoute.InCar, SidesRule.OneThenOther },
        { Architecture.SpotCaliper, JobScope.PadsAndRotors, null, SidesRule.InStep },
    };

    [Theory]
    [MemberData(nameof(Cases))]
    public void Walking_and_tool_changes_are_within_15_percent_and_one_change_of_the_exact_optimum(Architecture architecture, JobScope scope, ServiceRoute? route, SidesRule sides)
    {
        var setup = PlanSetup.For(architecture, scope, route) with { Rules = HouseRules.Default with { Sides = sides } };
        var state = setup.Start();
        var plan = Planner.Make(setup, state).Steps;
        // The last fourteen steps, and fourteen from the middle of the work as a goal of their own.
        foreach (var from in new[] { plan.Count - 14, plan.Count / 2 - 7, plan.Count / 4 })
        {
            var start = plan.Take(from).Aggregate(setup.Start(), (s, k) => Planner.Apply(setup, s, k, null));
            var steps = plan.Skip(from).Take(14).Select(k => CompiledCatalogue.For(setup).Find(k)!).ToList();
            var goal = Planner.ReachedBy(start, steps);
            var ours = Walking.Improve(setup, start, Planner.Order(setup, start, steps, goal));
            var best = Exact(setup, start, ours, goal);
            output.WriteLine($"{architecture} {scope}, from step {from}: {Walking.Cost(ours)} against {best}");
            ((double)Walking.Cost(ours)).ShouldBeLessThanOrEqualTo(best * 1.15 + 1, $"{string.Join(" > ", ours.Select(s => s.Key))}");
        }
    }

    [Fact]
    public void Looking_comes_before_everything_in_every_kind_of_job()
    {
        foreach (var (setup, plan) in Setups.Planned)
        {
            // A look at the other side belongs to the work at the corners: its wheel comes off first.
            var stages = plan.Steps.Where(k => k.Side is null).Select(k => StepCatalogue.Find(k.StepId)!.Stage).ToList();
            stages.LastIndexOf(Stage.Look).ShouldBeLessThan(stages.FindIndex(s => s != Stage.Look), setup.ToString());
        }
    }

    [Fact]
    public void The_cost_counts_changes_of_place_and_tools_picked_up()
    {
        var setup = PlanSetup.For(Architecture.CableScrew, JobScope.Pads);
        var catalogue = CompiledCatalogue.For(setup);
        BoundStep At(string id, Side? side = null) => catalogue.Find(new(id, side))!;
        Walking.Cost([At("wheel-off", Side.Left), At("wheel-off", Side.Right)]).ShouldBe(1, "one walk");
        Walking.Cost([At("slide-pins-torqued", Side.Left), At("wheel-torqued", Side.Left)]).ShouldBe(1, "the torque wrench stays in the hand");
        Walking.Cost([At("wheel-torqued", Side.Left), At("slide-pins-torqued", Side.Left)]).ShouldBe(2, "the holding spanner is picked up beside it");
        Walking.Cost([At("nuts-cracked", Side.Left), At("level-looked"), At("nuts-cracked", Side.Right)]).ShouldBe(3, "two walks; the bar is still in the hand");
    }

    /// <summary>The least cost of any order that is valid, reaches the goal and goes no more against the house rule: every one of them is tried.</summary>
    private static int Exact(PlanSetup setup, CarState start, List<BoundStep> steps, List<BoundCondition> goal)
    {
        var first = Walking.FirstSide(start);
        var most = Walking.Against(setup, first, steps);
        var best = int.MaxValue;
        Dictionary<(int Mask, int Last, int LastBuilt, int Against), int> seen = [];
        void Go(int mask, CarState state, List<BoundStep> order)
        {
            var against = Walking.Against(setup, first, order);
            if (Walking.Cost(order) >= best || against > most) return;
            if (order.Count == steps.Count)
            {
                if (goal.All(g => g.Holds(state.Raw))) best = Walking.Cost(order);
                return;
            }

            var key = (mask, order.Count == 0 ? -1 : steps.IndexOf(order[^1]), order.FindLastIndex(s => Walking.Builds(setup, s)) is >= 0 and var b ? steps.IndexOf(order[b]) : -1, against);
            // The tools in the hand are those of the last step that used any: within one mask and last step they may differ, so cost is compared with a margin of one.
            if (seen.TryGetValue(key, out var before) && before + 1 <= Walking.Cost(order)) return;
            seen[key] = Walking.Cost(order);
            for (var i = 0; i < steps.Count; i++)
            {
                if ((mask & 1 << i) != 0 || !steps[i].Allowed(state.Raw) || !steps[i].Changes(state.Raw)) continue;
                order.Add(steps[i]);
                Go(mask | 1 << i, steps[i].Do(state), order);
                order.RemoveAt(order.Count - 1);
            }
        }

        Go(0, start, []);
        return best;
    }
}

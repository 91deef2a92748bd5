using PatientPawl.Core.Planning;
using Xunit.Abstractions;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>
/// A part that was to stay is found not to pass, at whatever point of the work: the plan made anew keeps what is done, can be followed
/// to its goal and harms no one on the way.
/// </summary>
public class LateFindingTests(ITestOutputHelper output)
{
    private static PlanSetup With(PlanSetup setup, int which) => which switch
    {
        0 => setup with { RotorFound = true },
        1 => setup with { PadsFound = true },
        2 => setup with { HubFound = true },
        3 => setup with { ShoesFound = true },
        _ => setup with { RotorFound = true, ShoesFound = true, PadsFound = true },
    };

    // Measuring finds parts while nothing new is on yet: later the part in question is not there any more.
    private static bool CanBeFound(CarState state) => Core.Sides.Both.Any(s => state.Get(Corner.Judged, s) == Done.Yes)
        && Core.Sides.Both.All(s => state.Get(Corner.Rotor, s) == Rotor.Old && state.Get(Corner.Pads, s) != PadState.New && state.Get(Corner.Shoes, s) is ShoesState.None or ShoesState.Set or ShoesState.BackedOff)
        && Core.Sides.Both.All(s => state.Get(Corner.Caliper, s) == Caliper.Hung || state.Get(Corner.Judged, s) == Done.No);

    [Fact]
    public void A_finding_at_any_point_leaves_a_plan_that_reaches_the_goal_and_harms_no_one()
    {
        var (found, kept) = (0, 0);
        foreach (var (setup, n) in Walk.EverySetup().Select((s, i) => (s, i)))
        {
            var walk = new Walk(setup, 104729 * n);
            List<CarState> visited = [];
            walk.ToTheEnd((_, _, after) => visited.Add(after), surprise: 0);
            var open = visited.Where(CanBeFound).ToList();
            open.ShouldNotBeEmpty(setup.ToString());
            var state = open[n % open.Count];
            for (var which = 0; which < 5; which++)
            {
                var changed = With(setup, which);
                if (which == 3 && !setup.IsHat) continue;
                var now = changed.Onto(state, setup);
                foreach (var side in Core.Sides.Both)
                {
                    // What was done stays done.
                    now.Get(Corner.Judged, side).ShouldBe(state.Get(Corner.Judged, side));
                    now.Get(Corner.Caliper, side).ShouldBe(state.Get(Corner.Caliper, side));
                    now.Get(Corner.Wheel, side).ShouldBe(state.Get(Corner.Wheel, side));
                }

                var plan = Planner.Make(changed, now);
                plan.CannotBeMet.ShouldBeEmpty($"{which} in {setup}");
                foreach (var step in plan.Steps)
                {
                    Planner.Why(changed, now, step).Allowed.ShouldBeTrue($"{step} in {changed}");
                    var before = now;
                    now = Planner.Apply(changed, now, step, false);
                    HazardMonitors.Watch(changed, before, step, now);
                }

                Planner.GoalReached(changed, now).ShouldBeTrue(changed.ToString());
                if (changed.Rotors) Core.Sides.Both.ShouldAllBe(s => now.Get(Corner.Rotor, s) == Rotor.New);
                if (changed.PadsNew) Core.Sides.Both.ShouldAllBe(s => now.Get(Corner.Pads, s) == PadState.New);
                if (changed.ShoesNew) Core.Sides.Both.ShouldAllBe(s => now.Get(Corner.Shoes, s) == ShoesState.NewSet);
                found++;
                kept += plan.Steps.Count;
            }
        }

        found.ShouldBeGreaterThan(600);
        output.WriteLine($"{found} setups planned anew after a late finding, {kept} steps followed");
    }

    [Fact]
    public void Random_walks_go_on_after_a_finding_and_end_at_the_goal()
    {
        var walks = 0;
        foreach (var (setup, n) in Walk.EverySetup().Select((s, i) => (s, i)))
        {
            var walk = new Walk(setup, 15485863 + n);
            var injected = false;
            walk.Change = (now, state) =>
            {
                if (injected || !CanBeFound(state) || (state.GetHashCode() & 3) != 0) return null;
                injected = true;
                return With(now, n % (setup.IsHat ? 5 : 3));
            };
            walk.ToTheEnd((before, step, after) => HazardMonitors.Watch(walk.Setup, before, step, after));
            Planner.GoalReached(walk.Setup, walk.State).ShouldBeTrue(walk.Setup.ToString());
            if (injected) walks++;
        }

        walks.ShouldBeGreaterThan(60);
        output.WriteLine($"{walks} walks, each with a finding on the way");
    }

    [Fact]
    public void A_verdict_in_doubt_holds_the_new_parts_until_it_is_settled()
    {
        foreach (var setup in Walk.EverySetup().Where((_, i) => i % 5 == 0))
        {
            var state = setup.Start();
            var plan = Planner.Make(setup, state).Steps;
            foreach (var step in plan.TakeWhile(s => s.StepId is not ("measured"))) state = Planner.Apply(setup, state, step, false);
            state = Planner.Apply(setup, state, plan.First(s => s.StepId == "measured"), false).With(Corner.Doubt, Side.Left, Doubt.Open);
            var order = Planner.Make(setup, state).Steps.Select(s => s.ToString()).ToList();
            order.ShouldContain("verdict-settled, left");
            foreach (var held in order.Where(s => s.StartsWith("pads-in") || s.StartsWith("rotor-on") || s.StartsWith("shoes-on") || s.StartsWith("pads-back")))
                order.IndexOf("verdict-settled, left").ShouldBeLessThan(order.IndexOf(held), $"{held} in {setup}");
        }
    }
}

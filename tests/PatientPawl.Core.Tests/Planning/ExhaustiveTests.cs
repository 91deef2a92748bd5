using System.Collections.Concurrent;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;
using Xunit.Abstractions;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>Every architecture, scope, route, number of technicians and pair of house rules.</summary>
public class ExhaustiveTests(ITestOutputHelper output)
{
    [Fact]
    public void Every_pair_of_settings_of_the_house_rules_is_covered()
    {
        var rules = Setups.PlanRules;
        rules.Count.ShouldBe(8);
        for (var a = 0; a < rules.Count; a++)
            for (var b = a + 1; b < rules.Count; b++)
                Setups.Pairs.Select(r => (rules[a].InForce(r).Key, rules[b].InForce(r).Key)).Distinct().Count().ShouldBe(rules[a].Schools.Count * rules[b].Schools.Count, $"{rules[a].Title} with {rules[b].Title}");
    }

    [Fact]
    public void Every_kind_of_job_plans_reaches_its_goal_and_can_be_shared_by_two()
    {
        var (count, schedules, steps) = (0, 0, 0);
        ConcurrentBag<string> wrong = [];
        ConcurrentDictionary<Architecture, int> met = [];
        ConcurrentDictionary<HouseRules, int> settings = [];
        Parallel.ForEach(Setups.Everything().Select((s, n) => (s, n)), Setups.Processors, item =>
        {
            var (setup, n) = item;
            var plan = Planner.Make(setup, setup.Start());
            if (plan.CannotBeMet.Count > 0 || !Follow(setup, plan.Steps)) wrong.Add($"{string.Join("; ", plan.CannotBeMet)} in {setup}");
            else if (Scheduling.Make(setup, setup.Start(), plan.Steps, 1 + n % 2) is var schedule && schedule.Assignments.Count != plan.Steps.Count) wrong.Add($"schedule drops steps in {setup}");
            Interlocked.Increment(ref count);
            Interlocked.Add(ref schedules, 1);
            Interlocked.Add(ref steps, plan.Steps.Count);
            met.AddOrUpdate(setup.Left.Architecture!.Value, 1, (_, c) => c + 1);
            settings.AddOrUpdate(setup.Rules, 1, (_, c) => c + 1);
        });
        output.WriteLine($"{count} setups planned: {met.Count} architectures, every scope with and without new calipers, every route, "
            + $"{settings.Count} settings that hold every pair of {Setups.PlanRules.Count} house rules; {schedules} schedules for one or two; {steps} steps");
        wrong.Take(5).ShouldBeEmpty($"{wrong.Count} of {count}");
        met.Count.ShouldBe(12);
        settings.Count.ShouldBe(Setups.Pairs.Count);
        count.ShouldBeGreaterThan(900);
    }

    [Fact]
    public void What_cannot_be_sequenced_says_why()
    {
        PlanSetup.For(Architecture.ElectricOnly, JobScope.Pads).NotCovered!.ShouldContain("hydraulics");
        PlanSetup.For(Architecture.MotorPush, JobScope.PadsAndShoes).NotCovered!.ShouldContain("no shoes");
        (PlanSetup.For(Architecture.CableScrew, JobScope.Pads) with { Right = new(Architecture.MotorPush, false) }).NotCovered!.ShouldContain("look again at both corners");
        PlanSetup.For(Architecture.MotorHat, JobScope.Shoes, ServiceRoute.PullerRelease).NotCovered!.ShouldContain("does not exist");
        // A corner repaired with its near relation is one parking brake still.
        (PlanSetup.For(Architecture.CableScrew, JobScope.Pads) with { Right = new(Architecture.LeverPush, false) }).NotCovered.ShouldBeNull();
        (PlanSetup.For(Architecture.MotorPush, JobScope.Pads) with { Right = new(Architecture.MotorTurn, false) }).NotCovered.ShouldBeNull();
    }

    private static bool Follow(PlanSetup setup, IReadOnlyList<StepKey> steps)
    {
        var state = setup.Start();
        foreach (var step in steps)
        {
            if (!Planner.Why(setup, state, step).Allowed) return false;
            state = Planner.Apply(setup, state, step, null);
        }

        return Planner.GoalReached(setup, state);
    }
}

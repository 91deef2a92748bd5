using System.Collections.Concurrent;
using System.Diagnostics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;
using Xunit.Abstractions;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>Every architecture, scope, route, number of technicians and pair of house rules; and thousands of walks through them.</summary>
public class ExhaustiveTests(ITestOutputHelper output)
{
    [Fact]
    public void Every_pair_of_settings_of_the_house_rules_is_covered()
    {
        var rules = Setups.PlanRules;
        rules.Count.ShouldBe(8);
        for (var a = 0; a < rules.Count; a++)
            for (var b = a + 1; b < rules.Count; b++)
                Setups.Pairs.Select(r => (rules[a].InForce(r).Key, rules[b].InForce(r).Key)).Distinct().Count().ShouldBe(4, $"{rules[a].Title} with {rules[b].Title}");
    }

    [Fact]
    public void Every_kind_of_job_plans_reaches_its_goal_and_can_be_shared_by_two()
    {
        var (count, schedules, steps) = (0, 0, 0);
        ConcurrentBag<string> wrong = [];
        ConcurrentDictionary<Architecture, int> met = [];
        Parallel.ForEach(Setups.Everything().Select((s, n) => (s, n)), new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, item =>
        {
            var (setup, n) = item;
            var plan = Planner.Make(setup, setup.Start());
            if (plan.CannotBeMet.Count > 0 || !Follow(setup, plan.Steps)) wrong.Add($"{string.Join("; ", plan.CannotBeMet)} in {setup}");
            else if (Scheduling.Make(setup, setup.Start(), plan.Steps, 1 + n % 2) is var schedule && schedule.Assignments.Count != plan.Steps.Count) wrong.Add($"schedule drops steps in {setup}");
            Interlocked.Increment(ref count);
            Interlocked.Add(ref schedules, 1);
            Interlocked.Add(ref steps, plan.Steps.Count);
            met.AddOrUpdate(setup.Left.Architecture!.Value, 1, (_, c) => c + 1);
        });
        output.WriteLine($"{count} setups planned: {met.Count} architectures, every scope with and without new calipers, every route, {Setups.Pairs.Count} settings that hold every pair of {Setups.PlanRules.Count} house rules; {schedules} schedules for one or two; {steps} steps");
        wrong.Take(5).ShouldBeEmpty($"{wrong.Count} of {count}");
        met.Count.ShouldBe(12);
        count.ShouldBeGreaterThan(2000);
    }

    [Fact]
    public void Tens_of_thousands_of_walks_end_at_the_goal_break_no_interlock_and_harm_no_one()
    {
        // PAWL_SEEDS walks each of some 310 setups as often as is asked; more than the usual run has time for.
        var seeds = int.TryParse(Environment.GetEnvironmentVariable("PAWL_SEEDS"), out var asked) ? Math.Max(asked, 40) : 40;
        var (walks, steps, findings) = (0, 0, 0);
        var clock = Stopwatch.StartNew();
        ConcurrentBag<string> wrong = [];
        Parallel.ForEach(Setups.Spread().Select((s, n) => (s, n)), new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, item =>
        {
            var (setup, n) = item;
            for (var seed = 0; seed < seeds; seed++)
            {
                var walk = new Walk(setup, seed * 7919 + n);
                var injected = false;
                // Every other walk meets a finding on the way, at a point and of a kind chosen by its seed.
                if (seed % 2 == 1) walk.Change = (now, state) => injected || walk.Done.Count < seed % 37 ? null : Inject(now, state, seed + n) is { } found ? Noted(found, out injected) : null;
                try
                {
                    walk.ToTheEnd((before, step, after) => HazardMonitors.Watch(walk.Setup, before, step, after), 0.15);
                    if (!Planner.GoalReached(walk.Setup, walk.State) && walk.CannotBeMet.Count == 0) wrong.Add($"short of the goal, seed {seed}: {walk.Setup}");
                }
                catch (ShouldAssertException e)
                {
                    wrong.Add($"{e.Message} seed {seed} in {walk.Setup}");
                }

                Interlocked.Increment(ref walks);
                Interlocked.Add(ref steps, walk.Done.Count);
                if (injected) Interlocked.Increment(ref findings);
            }
        });
        output.WriteLine($"{walks} walks, {steps} steps, {findings} findings on the way, {clock.Elapsed.TotalSeconds:0} s");
        wrong.Take(3).ShouldBeEmpty($"{wrong.Count} of {walks}");
        walks.ShouldBeGreaterThan(10_000);
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

    private static PlanSetup Noted(PlanSetup found, out bool injected)
    {
        injected = true;
        return found;
    }

    /// <summary>A finding that can be made in this state, or null when this one cannot any more.</summary>
    private static PlanSetup? Inject(PlanSetup setup, CarState state, int which)
    {
        if (setup.InspectOnly) return null;
        var side = which % 2 == 0 ? Side.Left : Side.Right;
        var wheelOff = state.Get(Corner.Wheel, side) == Wheel.Off;
        return (which % 9) switch
        {
            0 when state.Get(Corner.Rotor, side) != Rotor.New => setup with { RotorFound = true },
            1 => setup with { PadsFound = true },
            2 when setup.IsHat => setup with { ShoesFound = true },
            3 when state.Get(Corner.Rotor, side) == Rotor.Old => setup with { HubFound = true },
            4 when wheelOff => setup.With(side, c => c with { Found = c.Found | CornerFinding.FrozenPads }),
            5 when wheelOff && !setup.IsFixed => setup.With(side, c => c with { Found = c.Found | CornerFinding.SeizedPin }),
            6 when state.Get(Corner.CaliperPart, side) == CaliperPart.Stays && state.Get(Corner.Caliper, side) == Caliper.Hung => setup.With(side, c => c with { CaliperNew = true }),
            7 when state.Get(Corner.Rotor, side) == Rotor.Old && setup.RotorOff => setup.With(side, c => c with { Found = c.Found | CornerFinding.StuckRotor }),
            8 when wheelOff => setup with { WrongPart = true },
            _ => null,
        };
    }

    private static bool Follow(PlanSetup setup, IReadOnlyList<StepKey> steps)
    {
        var state = setup.Start();
        foreach (var step in steps)
        {
            if (!Planner.Why(setup, state, step).Allowed) return false;
            var before = state;
            state = Planner.Apply(setup, state, step, false);
            HazardMonitors.Watch(setup, before, step, state);
        }

        return Planner.GoalReached(setup, state);
    }
}

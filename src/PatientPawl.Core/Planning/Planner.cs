using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Planning;

/// <summary>What is left to do, in the order it should be done.</summary>
/// <param name="Steps">The remaining steps; the first is next.</param>
/// <param name="Minutes">Their minutes together, for one technician.</param>
/// <param name="CannotBeMet">Goal conditions that no order can reach, in words; the plan then covers what can still be done.</param>
/// <param name="Reasons">Why each step stands where it does.</param>
public sealed record Plan(IReadOnlyList<StepKey> Steps, int Minutes, IReadOnlyList<string> CannotBeMet, Reasons Reasons) : IReasoned;

/// <summary>Whether a step may be done now, and why not.</summary>
/// <param name="Step">The step.</param>
/// <param name="Allowed">True when it may be done now.</param>
/// <param name="Lacking">What is lacking, in words; empty when allowed.</param>
/// <param name="Interlocks">The interlocks that stand in the way, by number.</param>
/// <param name="Reasons">The interlocks' messages and why.</param>
public sealed record WhyNot(StepKey Step, bool Allowed, IReadOnlyList<string> Lacking, IReadOnlyList<int> Interlocks, Reasons Reasons) : IReasoned;

/// <summary>
/// Plans the job from preconditions and effects. The remaining steps are a set with a preferred order: a step is offered
/// when its conditions and interlocks hold now and all the others can still be finished after it. So every offered step
/// leaves one fewer, and no walk over offered steps goes round for ever or ends short of the goal.
/// </summary>
[Engine]
public static class Planner
{
    /// <summary>Finds the remaining steps from a state. The same input gives the same plan.</summary>
    public static Plan Make(PlanSetup setup, CarState state)
    {
        ArgumentNullException.ThrowIfNull(setup);
        ArgumentNullException.ThrowIfNull(state);
        if (setup.NotCovered is { } no) return Result([], [no]);

        var catalogue = CompiledCatalogue.For(setup);
        var search = new Search(catalogue);
        var goal = Goal.For(setup);
        var unreachable = search.Unreachable(state, goal);
        var roots = unreachable.Count > 0 ? search.Roots(state, unreachable) : [];
        List<string> cannot = [.. (roots.Count > 0 ? roots : unreachable).Select(Facts.Words)];
        if (unreachable.Count > 0) goal = [.. goal.Except(unreachable).Where(IsCornerOnly)];

        var steps = search.Find(state, goal);
        if (steps is null) return Result([], [.. cannot, "No order was found from here. Undo the last step, or follow the maker's order."]);
        return Result([.. InOrder(setup, state, steps, goal).Select(s => s.Key)], cannot);
    }

    /// <summary>The way to another goal than the job's own: steps in order, or what cannot be met.</summary>
    internal static (List<StepKey> Steps, List<string> CannotBeMet) Toward(PlanSetup setup, CarState state, IReadOnlyList<BoundCondition> goal)
    {
        if (setup.NotCovered is { } no) return ([], [no]);
        var search = new Search(CompiledCatalogue.For(setup));
        var unreachable = search.Unreachable(state, goal);
        if (unreachable.Count > 0) return ([], [.. unreachable.Select(Facts.Words)]);
        return search.Find(state, goal) is { } steps ? ([.. InOrder(setup, state, steps, goal).Select(s => s.Key)], []) : ([], ["No order was found from here."]);
    }

    private static List<BoundStep> InOrder(PlanSetup setup, CarState state, List<BoundStep> steps, IReadOnlyList<BoundCondition> goal)
    {
        // Putting steps in the preferred order can leave another one needless: again, until none is.
        for (var (count, more) = (int.MaxValue, true); more; count = steps.Count)
        {
            steps = Order(setup, state, WithoutNeedless(state, steps, goal), goal);
            more = steps.Count < count;
        }

        return Walking.Improve(setup, state, steps);
    }

    /// <summary>Says whether a step may be done in this state, and names every condition and interlock that it lacks.</summary>
    public static WhyNot Why(PlanSetup setup, CarState state, StepKey step)
    {
        ArgumentNullException.ThrowIfNull(setup);
        ArgumentNullException.ThrowIfNull(state);
        ArgumentNullException.ThrowIfNull(step);
        var trail = new Trail("Planner.Why");
        if (CompiledCatalogue.For(setup).Find(step) is not { } bound)
        {
            trail.Conclude("This step does not exist on this car.", "practice-steps");
            return new(step, false, ["This step does not exist on this car."], [], trail.Done());
        }

        var lacking = bound.Needs.Where(n => !n.Holds(state.Raw)).ToArray();
        foreach (var need in lacking)
        {
            if (need.Interlock is { } interlock) trail.Evidence($"Interlock {interlock.Number}, {interlock.Name}", $"{interlock.Message} {interlock.Why}", "practice-steps");
            trail.Evidence("Lacking", Facts.Lacks(need, state), "practice-steps");
        }

        var done = !bound.Changes(state.Raw);
        if (lacking.Length == 0 && done) trail.Evidence("Lacking", "nothing: it is done already", "practice-steps");
        trail.Conclude(lacking.Length > 0 ? "Not yet." : done ? "Done already." : "Allowed now.");
        return new(step, lacking.Length == 0, [.. lacking.Select(n => Facts.Lacks(n, state)).Distinct()],
            [.. lacking.Select(n => n.Interlock?.Number).OfType<int>().Distinct().Order()], trail.Done());
    }

    /// <summary>The steps of the plan that are offered now, in the plan's order.</summary>
    internal static List<StepKey> Offered(PlanSetup setup, CarState state, IReadOnlyList<StepKey> remaining)
    {
        var catalogue = CompiledCatalogue.For(setup);
        var steps = remaining.Select(catalogue.Find).OfType<BoundStep>().ToList();
        var goal = ReachedBy(state, steps);
        // A step can stand in the plan twice (a lever is looked at again after cycling): it is offered once.
        return [.. steps.Distinct().Where(s => s.Allowed(state.Raw) && CanFinish(state, steps, s, goal) is not null).Select(s => s.Key)];
    }

    /// <summary>The remaining steps in a valid order once <paramref name="step"/> has been done as expected; null when they could no longer be finished.</summary>
    internal static List<StepKey>? After(PlanSetup setup, CarState before, IReadOnlyList<StepKey> remaining, StepKey step)
    {
        var catalogue = CompiledCatalogue.For(setup);
        var steps = remaining.Select(catalogue.Find).OfType<BoundStep>().ToList();
        var taken = steps.FirstOrDefault(s => s.Key == step);
        if (taken is null) return null;
        if (CanFinish(before, steps, taken, ReachedBy(before, steps)) is not { } rest) return null;
        return [.. rest.Select(s => s.Key)];
    }

    /// <summary>The state after a step. Unknown steps change nothing: old events never fail.</summary>
    internal static CarState Apply(PlanSetup setup, CarState state, StepKey step, bool otherwise)
    {
        var bound = CompiledCatalogue.For(setup).Find(step);
        return bound is null ? state : state.Apply(otherwise && bound.Otherwise.Length > 0 ? bound.Otherwise : bound.Makes);
    }

    /// <summary>What breaking these interlocks leaves: facts that are no longer known or no longer so, and a remedy due for each.</summary>
    internal static (PlanSetup Setup, CarState State) Broken(PlanSetup setup, CarState state, StepKey step, IReadOnlyList<int> interlocks)
    {
        var changed = setup with { Broken = [.. setup.Broken.Union(interlocks).Order()] };
        state = changed.Onto(state, setup);
        foreach (var interlock in Interlocks.All.Where(i => interlocks.Contains(i.Number)))
        {
            state = state.With(Remedies.All[interlock.Number - 1], Asked.Due);
            foreach (var effect in interlock.Leaves.Where(e => e.Applies?.Invoke(changed) != false))
                state = state.Set(effect.Variable.Slot(effect.Where switch { Where.Left => Side.Left, Where.Right => Side.Right, Where.This => step.Side, _ => null }), effect.Value);
        }

        return (changed, state);
    }

    internal static bool GoalReached(PlanSetup setup, CarState state) =>
        setup.NotCovered is null && Goal.For(setup).All(g => g.Holds(state.Raw));

    // Corner facts stay worth doing on the side that is not blocked, and what was broken is put right; the car's own goals wait for both.
    private static bool IsCornerOnly(BoundCondition goal) => goal.AnyOf.All(a => a.All(r => StateLayout.At(r.Slot) is var (variable, side) && (side is not null || Remedies.All.Any(v => v == variable))));

    private static Plan Result(IReadOnlyList<StepKey> steps, IReadOnlyList<string> cannot)
    {
        var trail = new Trail("Planner.Make");
        var minutes = 0;
        foreach (var key in steps)
        {
            var type = StepCatalogue.Find(key.StepId)!;
            minutes += type.Minutes;
            trail.Evidence(key.Side is { } side ? $"{type.Name}, {side.Word()}" : type.Name, type.Because, "practice-steps");
        }

        foreach (var c in cannot) trail.Evidence("Cannot be met", c);
        trail.Conclude(steps.Count == 0 ? "Nothing left that can be planned." : $"{Figure.Count(steps.Count, "step")}, {Figure.Count(minutes, "minute")} for one technician.")
            .WouldChange("House rules, the route, the scope, or a finding.");
        return new(steps, minutes, cannot, trail.Done());
    }

    /// <summary>Takes out every step (with those that only it made possible) without which the goal is still reached.</summary>
    internal static List<BoundStep> WithoutNeedless(CarState start, List<BoundStep> steps, IReadOnlyList<BoundCondition> goal)
    {
        Span<byte> before = stackalloc byte[StateLayout.Slots], now = stackalloc byte[StateLayout.Slots];
        start.Raw.CopyTo(before);
        List<BoundStep> kept = [];
        for (var i = 0; i < steps.Count;)
        {
            // What stands before the step left out was kept already: only what follows is done anew.
            before.CopyTo(now);
            kept.Clear();
            for (var j = i + 1; j < steps.Count; j++)
            {
                if (!steps[j].Allowed(now) || !steps[j].Changes(now)) continue;
                foreach (var (slot, value) in steps[j].Makes) now[slot] = value;
                kept.Add(steps[j]);
            }

            if (Holds(goal, now)) steps = [.. steps.Take(i), .. kept];
            else if (steps[i].Allowed(before) && steps[i].Changes(before))
            {
                foreach (var (slot, value) in steps[i].Makes) before[slot] = value;
                i++;
            }
            else steps = [.. steps.Take(i), .. steps.Skip(i + 1)];
        }

        return steps;
    }

    private static bool Holds(IReadOnlyList<BoundCondition> goal, ReadOnlySpan<byte> state)
    {
        foreach (var g in goal)
        {
            if (!g.Holds(state)) return false;
        }

        return true;
    }

    /// <summary>Puts the steps into the preferred order, never giving up a valid finish.</summary>
    internal static List<BoundStep> Order(PlanSetup setup, CarState state, List<BoundStep> steps, IReadOnlyList<BoundCondition> goal)
    {
        List<BoundStep> ordered = [];
        var rest = steps;
        while (rest.Count > 0)
        {
            List<BoundStep>? next = null;
            var here = ordered.Count > 0 ? Walking.PlaceOf(ordered[^1]) : -1;
            foreach (var candidate in rest.OrderBy(s => Preference(setup, s, here, rest)).ToArray())
            {
                if (!candidate.Allowed(state.Raw) || CanFinish(state, rest, candidate, goal) is not { } after) continue;
                ordered.Add(candidate);
                state = state.Apply(candidate.Makes);
                next = after;
                break;
            }

            // The first of a valid order is always allowed and leaves a valid order, so this does not happen.
            if (next is null) throw new InvalidOperationException("A valid order has no allowed first step.");
            rest = next;
        }

        return ordered;
    }

    /// <summary>
    /// Up to judging, both corners go step by step; from cleaning to torque the house rule "sides" decides; closing and
    /// proving belong to the car.
    /// </summary>
    private static (int Phase, int Side, int Turn, int Walk, int Rank, int Tie) Preference(PlanSetup setup, BoundStep step, int here, List<BoundStep> rest)
    {
        var build = step.Key.Side is not null && step.Type.Stage is >= Stage.Clean and <= Stage.Torque && step.Type.Torques != Torque.FastenerRole.Wheel;
        var phase = Walking.ComesFirst(step) ? -1 : step.Type.Stage <= Stage.Judge || step.Type.Id == "rotor-degreased" ? 0 : build ? 1 : 2;
        var side = build && setup.Rules.Sides == SidesRule.OneThenOther ? (int)step.Key.Side! : 0;
        // In step, the other corner's same step comes before the next one here.
        var walk = build && setup.Rules.Sides == SidesRule.InStep ? 0 : Walking.PlaceOf(step) == here ? 0 : 1;
        // The left corner has its turn first.
        var turn = !(build && setup.Rules.Sides == SidesRule.InStep) && step.Key.Side == Side.Right && rest.Exists(s => s.Rank == step.Rank && s.Key.Side == Side.Left) ? 1 : 0;
        return (phase, side, turn, walk, step.Rank, step.Key.Side is { } s ? (int)s : 0);
    }

    private static readonly Condition Nothing = new([]);

    /// <summary>What the steps reach together: the facts that finishing must reach again.</summary>
    internal static List<BoundCondition> ReachedBy(CarState state, List<BoundStep> steps)
    {
        var end = steps.Aggregate(state, (s, step) => s.Apply(step.Makes));
        List<BoundCondition> goal = [];
        Span<bool> touched = stackalloc bool[StateLayout.Slots];
        foreach (var step in steps)
            foreach (var (slot, _) in step.Makes) touched[slot] = true;
        for (var slot = 0; slot < touched.Length; slot++)
        {
            if (touched[slot]) goal.Add(new([[(slot, 1u << end[slot])]], Nothing, null));
        }

        return goal;
    }

    /// <summary>Does <paramref name="first"/>, then again and again the first of the others that is allowed. Null when some are left over or the goal is missed.</summary>
    internal static List<BoundStep>? CanFinish(CarState state, List<BoundStep> steps, BoundStep first, IReadOnlyList<BoundCondition> goal)
    {
        var now = state.Raw.ToArray();
        foreach (var (slot, value) in first.Makes) now[slot] = value;
        List<BoundStep> left = [.. steps];
        left.Remove(first);
        List<BoundStep> order = [];
        while (left.Count > 0)
        {
            var i = left.FindIndex(s => s.Allowed(now));
            if (i < 0) return null;
            foreach (var (slot, value) in left[i].Makes) now[slot] = value;
            order.Add(left[i]);
            left.RemoveAt(i);
        }

        foreach (var g in goal)
        {
            if (!g.Holds(now)) return null;
        }

        return order;
    }
}

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
        if (LookFirst(setup, state) is { } look) goal.Add(look);
        var unreachable = search.Unreachable(state, goal);
        var roots = unreachable.Count > 0 ? search.Roots(state, unreachable) : [];
        List<string> cannot = [.. (roots.Count > 0 ? roots : unreachable).Select(Facts.Words)];
        // Corner facts stay worth doing on the side that is not blocked; the car's own goals wait for both.
        if (unreachable.Count > 0) goal = [.. goal.Except(unreachable).Where(IsCornerOnly)];

        var steps = Way(search, setup, state, goal);
        // What stops one corner does not end the other: it goes on by itself, and what is open at the stopped one stays as it is.
        if (steps is null && unreachable.Count > 0)
        {
            foreach (var side in Core.Sides.Both.OrderBy(s => (roots.Count > 0 ? roots : unreachable).Any(r => Touches(r, s))))
            {
                if (Way(search, setup, state, [.. goal.Where(g => !Touches(g, side.Other()))]) is not { Count: > 0 } alone) continue;
                (steps, goal) = (alone, [.. goal.Where(g => !Touches(g, side.Other()))]);
                break;
            }
        }

        if (steps is null) return Result([], [.. cannot, "No order was found from here. Undo the last step, or follow the maker's order."]);
        return Result([.. InOrder(setup, state, steps, goal).Select(s => s.Key)], cannot);
    }

    /// <summary>Where the other side stays together, it is looked at before the first new part goes in here.</summary>
    private static BoundCondition? LookFirst(PlanSetup setup, CarState state)
    {
        if (setup.Rules.Sides != SidesRule.OtherKept || setup.ClosesUp || !setup.Identified || !(setup.PadsNew || setup.Rotors || setup.ShoesNew)) return null;
        var first = Walking.FirstSide(state);
        var second = first.Other();
        var finished = state.Get(Corner.Judged, first) == Done.Yes
            && CompiledCatalogue.Bind(Condition.All(Assembled.At(first == Side.Left ? Where.Left : Where.Right)), null).Holds(state.Raw);
        return finished || state.Get(Corner.Judged, second) == Done.Yes ? null
            : CompiledCatalogue.Bind(Corner.Looked.At(second == Side.Left ? Where.Left : Where.Right, Done.Yes), null);
    }

    /// <summary>
    /// The quick search; and where it gives up, back by the ways there are to places from which everything is known to be open: both sides
    /// apart on the stands, together there, or together on the ground. By way of one of them, and only then by way of two.
    /// </summary>
    private static List<BoundStep>? Way(Search search, PlanSetup setup, CarState state, IReadOnlyList<BoundCondition> goal)
    {
        if (search.Find(state, goal) is { } direct) return direct;
        var refuges = Refuges(setup).ToList();
        var reached = refuges.Select(r => search.Find(state, r)).OfType<List<BoundStep>>().Where(back => back.Count > 0).ToList();
        foreach (var back in reached)
        {
            if (search.Find(After(state, back), goal) is { } on) return [.. back, .. on];
        }

        foreach (var back in reached)
        {
            foreach (var refuge in refuges)
            {
                if (search.Find(After(state, back), refuge) is not { Count: > 0 } further) continue;
                List<BoundStep> way = [.. back, .. further];
                if (search.Find(After(state, way), goal) is { } on) return [.. way, .. on];
            }
        }

        return null;
    }

    private static CarState After(CarState state, IEnumerable<BoundStep> steps) => steps.Aggregate(state, (s, step) => step.Do(s));

    // Places to start again from, the cheapest first.
    private static IEnumerable<List<BoundCondition>> Refuges(PlanSetup setup)
    {
        Condition[] apart = [Car.Position.Is(CarPosition.Stands), .. Corner.Wheel.Both(Wheel.Off).Select(r => (Condition)r), .. Corner.Pads.Both(PadState.None).Select(r => (Condition)r)];
        Condition[] together = [Assembled.Both, Car.Position.Is(CarPosition.Stands), .. Corner.Hydraulics.Both(HydraulicsState.Closed).Select(r => (Condition)r)];
        Condition[] standing = [Assembled.Both, Car.Position.Is(CarPosition.Ground), Car.Pedal.Is(Pedal.Proved)];
        foreach (var place in new[] { apart, together, standing }) yield return [.. place.Select(c => CompiledCatalogue.Bind(c, null))];
    }

    private static List<BoundStep> InOrder(PlanSetup setup, CarState state, List<BoundStep> steps, IReadOnlyList<BoundCondition> goal)
    {
        // Which look at the other side is needless shows only once they stand in order; and putting them in order can leave another one needless.
        steps = Order(setup, state, WithoutNeedless(state, WithoutLoops(state, steps), goal, s => s.Type is not { Stage: Stage.Look, Lane: Lane.Corner }), goal);
        for (var (count, more) = (steps.Count, true); more; count = steps.Count)
        {
            steps = WithoutNeedless(state, WithoutLoops(state, steps), goal);
            more = steps.Count < count;
            if (more) steps = Order(setup, state, steps, goal);
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

    /// <summary>
    /// Steps that the plan does not ask for and that may be chosen all the same: they may be done now, and from there the goal is reached. Each
    /// with the plan that follows it.
    /// </summary>
    internal static List<(StepKey Step, Plan After)> Choices(PlanSetup setup, CarState state, IReadOnlyList<StepKey> remaining) =>
        [.. MayChoose(setup, state, remaining).Select(step => Choice(setup, state, step)).OfType<(StepKey, Plan)>()];

    /// <summary>A step that may be chosen with the plan that follows it; null where the goal is not reached from there.</summary>
    internal static (StepKey Step, Plan After)? Choice(PlanSetup setup, CarState state, BoundStep step) =>
        Make(setup, step.Do(state)) is { CannotBeMet.Count: 0 } after ? (step.Key, after) : null;

    /// <summary>Those that may be chosen as the car stands, whatever comes after them.</summary>
    internal static IEnumerable<BoundStep> MayChoose(PlanSetup setup, CarState state, IReadOnlyList<StepKey> remaining)
    {
        var catalogue = CompiledCatalogue.For(setup);
        return catalogue.OnlyByChoice.Concat(catalogue.Steps.Where(s => s.Type.ByChoice == ByChoice.Too && !remaining.Contains(s.Key)))
            .Where(s => s.Allowed(state.Raw) && s.Changes(state.Raw) && s.Type.ChosenWhile.All(c => CompiledCatalogue.Bind(c, s.Key.Side).Holds(state.Raw)));
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

    /// <summary>The state after a step, with what was expected or another outcome of it. Unknown steps change nothing: old events never fail.</summary>
    internal static CarState Apply(PlanSetup setup, CarState state, StepKey step, string? outcome)
    {
        if (CompiledCatalogue.For(setup).Find(step) is not { } bound) return state;
        return outcome is not null && Array.Find(bound.Outcomes, o => o.Type.Id == outcome) is { } found ? bound.Do(state, found) : bound.Do(state);
    }

    /// <summary>The state after a step that was done although one before it was not: all that it makes but its proofs.</summary>
    internal static CarState Kept(PlanSetup setup, CarState state, StepKey step, string? outcome)
    {
        var catalogue = CompiledCatalogue.For(setup);
        if (catalogue.Find(step) is not { } bound) return state;
        var makes = outcome is not null && Array.Find(bound.Outcomes, o => o.Type.Id == outcome) is { } found ? found.MakesOf(state) : bound.Makes;
        var after = makes.Where(m => StateLayout.At(m.Slot).Variable.Kind != VariableKind.Proof).Aggregate(state, (s, m) => s.Set(m.Slot, m.Value));
        return Transition.Settle(catalogue.Proofs, state, after);
    }

    /// <summary>
    /// The state after a step that was done before its turn: what anyone can see of it is so, what it would have proved is not, what it wrote is
    /// in doubt, and so is what the interlocks it broke guard.
    /// </summary>
    internal static CarState OutOfOrder(PlanSetup setup, CarState state, StepKey step, IReadOnlyList<int> broken)
    {
        var catalogue = CompiledCatalogue.For(setup);
        if (catalogue.Find(step) is not { } bound) return state;
        var after = state;
        foreach (var (slot, value) in bound.Makes)
        {
            // A fastener's state can be seen; what else is proved is not proved by a mark.
            if (StateLayout.At(slot).Variable is not StateVariable<Bolts> && Array.Exists(catalogue.Proofs, p => p.Slot == slot && (p.Stands & 1u << value) != 0)) continue;
            after = after.Set(slot, StateLayout.At(slot).Variable.Doubt(value));
        }

        foreach (var interlock in Interlocks.All.Where(i => broken.Contains(i.Number)))
            foreach (var variable in interlock.Doubts(setup))
                foreach (var side in !variable.PerCorner ? [null] : step.Side is { } s && !interlock.ReachesBoth ? [s] : Core.Sides.Both.Select(s => (Side?)s))
                    after = Doubted(after, variable.Slot(side));

        return Transition.Settle(catalogue.Proofs, state, after);
    }

    /// <summary>Whether a step can have been done at all: what it changes must stand where it starts from, whatever else was lacking; and nobody is in a hat that this job does not open.</summary>
    internal static bool CanHaveBeenDone(PlanSetup setup, CarState state, StepKey step) => CompiledCatalogue.For(setup).Find(step) is { Retired: false } bound && bound.Changes(state.Raw)
        && (setup.HatOpen || (bound.Type.Concerns & (Concern.HatOff | Concern.HandsInHat)) == 0)
        // Behind a wheel that is on nobody does anything.
        && Array.TrueForAll(bound.Needs, n => n.Interlock is not null || n.AnyOf.Any(a => a.All(r => StateLayout.At(r.Slot).Variable != Corner.Wheel || (r.Mask & 1u << state[r.Slot]) != 0)))
        && Array.TrueForAll(bound.Needs, n => n.Interlock is not null || n.AnyOf.Any(a => a.All(r => (r.Mask & 1u << state[r.Slot]) != 0 || Array.TrueForAll(bound.Makes, m => m.Slot != r.Slot))));

    /// <summary>The state with these variables doubted, and every proof that rested on them fallen.</summary>
    internal static CarState Doubted(PlanSetup setup, CarState state, IEnumerable<int> slots) =>
        Transition.Settle(CompiledCatalogue.For(setup).Proofs, state, slots.Aggregate(state, Doubted));

    /// <summary>Everything a step, as expected or otherwise, can write.</summary>
    internal static IEnumerable<int> Written(PlanSetup setup, StepKey step) => CompiledCatalogue.For(setup).Find(step) is { } bound
        ? bound.Makes.Concat(bound.Outcomes.SelectMany(o => o.Makes)).Select(m => m.Slot).Concat(bound.Outcomes.SelectMany(o => o.Doubts)).Distinct() : [];

    /// <summary>The state with a fact of the car or a corner changed, and every proof that rested on it fallen.</summary>
    internal static CarState Moved(PlanSetup setup, CarState before, CarState after) => Transition.Settle(CompiledCatalogue.For(setup).Proofs, before, after);

    private static CarState Doubted(CarState state, int slot) => state.Set(slot, StateLayout.At(slot).Variable.Doubt(state[slot]));

    internal static bool GoalReached(PlanSetup setup, CarState state) =>
        setup.NotCovered is null && Goal.For(setup).All(g => g.Holds(state.Raw));

    private static bool Touches(BoundCondition goal, Side side) => goal.AnyOf.Any(a => a.Any(r => StateLayout.At(r.Slot).Side == side));

    private static bool IsCornerOnly(BoundCondition goal) => goal.AnyOf.All(a => a.All(r => StateLayout.At(r.Slot).Side is not null));

    private static Plan Result(IReadOnlyList<StepKey> steps, IReadOnlyList<string> cannot)
    {
        var trail = new Trail("Planner.Make");
        var minutes = 0;
        foreach (var key in steps)
        {
            var type = StepCatalogue.Find(key.StepId)!;
            minutes += type.Minutes;
            trail.Evidence(StepCatalogue.Words(key), type.Because, "practice-steps");
        }

        foreach (var c in cannot) trail.Evidence("Cannot be met", c);
        trail.Conclude(steps.Count == 0 ? "Nothing left that can be planned." : $"{Figure.Count(steps.Count, "step")}, {Figure.Count(minutes, "minute")} for one technician.")
            .WouldChange("House rules, the route, the scope, or a finding.");
        return new(steps, minutes, cannot, trail.Done());
    }

    /// <summary>Takes out what only leads back to where one was.</summary>
    private static List<BoundStep> WithoutLoops(CarState start, List<BoundStep> steps)
    {
        Dictionary<CarState, int> been = new() { [start] = 0 };
        List<BoundStep> kept = [];
        var state = start;
        foreach (var step in steps)
        {
            state = step.Do(state);
            kept.Add(step);
            if (been.TryGetValue(state, out var count))
            {
                foreach (var later in been.Where(b => b.Value > count).Select(b => b.Key).ToArray()) been.Remove(later);
                kept.RemoveRange(count, kept.Count - count);
            }

            been[state] = kept.Count;
        }

        return kept;
    }

    /// <summary>Takes out every step (with those that only it made possible) without which the goal is still reached.</summary>
    internal static List<BoundStep> WithoutNeedless(CarState start, List<BoundStep> steps, IReadOnlyList<BoundCondition> goal, Func<BoundStep, bool>? asked = null)
    {
        Span<byte> before = stackalloc byte[StateLayout.Slots], now = stackalloc byte[StateLayout.Slots];
        start.Raw.CopyTo(before);
        List<BoundStep> kept = [];
        for (var i = 0; i < steps.Count;)
        {
            if (asked?.Invoke(steps[i]) == false && steps[i].Allowed(before) && steps[i].Changes(before))
            {
                steps[i].Do(before);
                i++;
                continue;
            }

            // What stands before the step left out was kept already: only what follows is done anew.
            before.CopyTo(now);
            kept.Clear();
            for (var j = i + 1; j < steps.Count; j++)
            {
                if (!steps[j].Allowed(now) || !steps[j].Changes(now)) continue;
                steps[j].Do(now);
                kept.Add(steps[j]);
            }

            if (Holds(goal, now)) steps = [.. steps.Take(i), .. kept];
            else if (steps[i].Allowed(before) && steps[i].Changes(before))
            {
                steps[i].Do(before);
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
            var first = Walking.FirstSide(state);
            List<BoundStep> preferred = [.. rest.OrderBy(s => Preference(setup, s, here, first, rest))];
            // Where the other side is the pattern, it stays so as long as there is any way to finish.
            var patient = setup.Rules.Sides == SidesRule.OtherKept;
            foreach (var candidate in preferred)
            {
                if (!candidate.Allowed(state.Raw) || (CanFinish(state, rest, candidate, goal) ?? (patient ? CanFinish(state, preferred, candidate, goal) : null)) is not { } after) continue;
                ordered.Add(candidate);
                state = candidate.Do(state);
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
    /// Looking and making safe come first. Then the house rule "sides" decides: one side from the first bolt to the last while the other stays
    /// together; both judged and then built one by one; or both in step. Closing and proving belong to the car, and wheels go on last. One goes
    /// on at the side that is open.
    /// </summary>
    private static (int Phase, int Side, int Turn, int Walk, int Rank, int Tie) Preference(PlanSetup setup, BoundStep step, int here, Side first, List<BoundStep> rest)
    {
        var build = Walking.Builds(setup, step);
        // What a corner's building waits for elsewhere, such as a look at the reservoir, belongs to it.
        var phase = step.Type.Soon ? -1 : build ? 1 : step.Type.Stage <= Stage.Judge || step.Type is { Lane: Lane.Corner, Place: Place.Bench } ? 0
            : step.Key.Side is not null && step.Type is { Stage: <= Stage.Torque, OnWheels: false, Lasts: false } ? 1 : 2;
        var inStep = phase == 1 && setup.Rules.Sides == SidesRule.InStep;
        var mine = step.Key.Side is not { } at || at == first ? 0 : 1;
        var side = build && !inStep ? mine : 0;
        // In step, the other corner's same step comes before the next one here.
        var walk = inStep || Walking.PlaceOf(step) == here ? 0 : 1;
        var turn = !inStep && mine == 1 && rest.Exists(s => s.Rank == step.Rank && s.Key.Side == first) ? 1 : 0;
        return (phase, side, turn, inStep ? 0 : walk, step.Rank, mine);
    }

    private static readonly Condition Nothing = new([]);

    /// <summary>What the steps reach together: the facts that finishing must reach again.</summary>
    internal static List<BoundCondition> ReachedBy(CarState state, List<BoundStep> steps)
    {
        var end = steps.Aggregate(state, (s, step) => step.Do(s));
        List<BoundCondition> goal = [];
        Span<bool> touched = stackalloc bool[StateLayout.Slots];
        foreach (var step in steps)
        {
            foreach (var (slot, _) in step.Makes) touched[slot] = true;
            foreach (var proof in step.Proofs) touched[proof.Slot] = true;
        }

        for (var slot = 0; slot < touched.Length; slot++)
        {
            if (touched[slot]) goal.Add(new([[(slot, 1u << end[slot])]], Nothing, null));
        }

        return goal;
    }

    /// <summary>Does <paramref name="first"/>, then again and again the first of the others that is allowed. Null when the goal is missed.</summary>
    internal static List<BoundStep>? CanFinish(CarState state, List<BoundStep> steps, BoundStep first, IReadOnlyList<BoundCondition> goal)
    {
        List<BoundStep> left = [.. steps];
        left.Remove(first);
        return Finish(first.Do(state), left, goal);
    }

    /// <summary>Does again and again the first of the steps that is allowed. Null when the goal is missed; the list given is used up.</summary>
    internal static List<BoundStep>? Finish(CarState state, List<BoundStep> left, IReadOnlyList<BoundCondition> goal)
    {
        var now = state.Raw.ToArray();
        List<BoundStep> order = [];
        while (left.Count > 0)
        {
            var i = left.FindIndex(s => s.Allowed(now));
            // What another order made needless falls away, as long as everything is reached.
            if (i < 0) break;
            left[i].Do(now);
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

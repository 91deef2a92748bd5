namespace PatientPawl.Core.Planning;

/// <summary>
/// Finds an order that reaches the goal: best-first search over states, led by the minutes of a relaxed plan (one that
/// forgets what steps undo), with look-ahead along that relaxed plan. Deterministic: ties fall to the catalogue's order.
/// </summary>
internal sealed class Search(CompiledCatalogue catalogue)
{
    private const int Unreached = int.MaxValue / 4;
    private const int MostNodes = 4000;
    private readonly int[] _cost = new int[catalogue.Facts];
    private readonly BoundStep?[] _by = new BoundStep?[catalogue.Facts];

    /// <summary>The order, or null when none was found within the node limit.</summary>
    public List<BoundStep>? Find(CarState start, IReadOnlyList<BoundCondition> goal)
    {
        var open = new PriorityQueue<(CarState State, Node? Node), (int Estimate, int Sequence)>();
        var seen = new HashSet<CarState> { start };
        var sequence = 0;
        open.Enqueue((start, null), (0, sequence++));
        for (var nodes = 0; open.Count > 0 && nodes < MostNodes; nodes++)
        {
            var (state, node) = open.Dequeue();
            if (Met(goal, state)) return Unwind(node);
            if (Relaxed(state, goal) is not { } relaxed) continue;
            var estimate = relaxed.Sum(s => s.Type.Minutes);

            var (ahead, aheadNode) = LookAhead(state, node, relaxed);
            if (aheadNode != node && seen.Add(ahead)) open.Enqueue((ahead, aheadNode), (Estimate(ahead, goal), sequence++));
            foreach (var step in catalogue.Steps)
            {
                if (!step.Allowed(state.Raw) || !step.Changes(state.Raw)) continue;
                var next = state.Apply(step.Makes);
                // Its own estimate waits until it is taken up: the look-ahead is nearly always better, and estimates are dear.
                if (seen.Add(next)) open.Enqueue((next, new(step, node)), (estimate, sequence++));
            }
        }

        return null;
    }

    /// <summary>Goal conditions that no sequence of steps can reach, even if nothing were ever undone.</summary>
    public List<BoundCondition> Unreachable(CarState start, IReadOnlyList<BoundCondition> goal)
    {
        Costs(start);
        return [.. goal.Where(g => Best(g).Cost >= Unreached)];
    }

    /// <summary>Those of them that stay out of reach even when all the others are granted: what really stands in the way.</summary>
    public List<BoundCondition> Roots(CarState start, IReadOnlyList<BoundCondition> unreachable) =>
    [
        .. unreachable.Where(g =>
        {
            Costs(start, [.. unreachable.Where(u => u != g).SelectMany(u => u.AnyOf[0])]);
            return Best(g).Cost >= Unreached;
        }),
    ];

    private static bool Met(IReadOnlyList<BoundCondition> goal, CarState state)
    {
        foreach (var g in goal)
        {
            if (!g.Holds(state.Raw)) return false;
        }

        return true;
    }

    private int Estimate(CarState state, IReadOnlyList<BoundCondition> goal) => Relaxed(state, goal)?.Sum(s => s.Type.Minutes) ?? Unreached;

    private static (CarState, Node?) LookAhead(CarState state, Node? node, List<BoundStep> relaxed)
    {
        var left = relaxed.OrderBy(s => s.Rank).ThenBy(s => s.Key.Side).ToList();
        for (var moved = true; moved;)
        {
            moved = false;
            for (var i = 0; i < left.Count; i++)
            {
                if (!left[i].Allowed(state.Raw) || !left[i].Changes(state.Raw)) continue;
                state = state.Apply(left[i].Makes);
                node = new(left[i], node);
                left.RemoveAt(i);
                moved = true;
                break;
            }
        }

        return (state, node);
    }

    internal List<BoundStep>? Relaxed(CarState state, IReadOnlyList<BoundCondition> goal)
    {
        Costs(state);
        var chosen = new HashSet<BoundStep>();
        var stack = new Stack<BoundCondition>();
        foreach (var g in goal)
        {
            if (Best(g).Cost >= Unreached) return null;
            stack.Push(g);
        }

        while (stack.TryPop(out var condition))
        {
            foreach (var fact in Best(condition).Facts)
            {
                if (_cost[fact] == 0 || _by[fact] is not { } step || !chosen.Add(step)) continue;
                foreach (var need in step.Needs) stack.Push(need);
            }
        }

        return [.. chosen];
    }

    private void Costs(CarState state, params (int Slot, uint Mask)[] granted)
    {
        Array.Fill(_cost, Unreached);
        Array.Clear(_by);
        for (var slot = 0; slot < StateLayout.Slots; slot++) _cost[catalogue.FactOffset[slot] + state[slot]] = 0;
        foreach (var (slot, mask) in granted) _cost[catalogue.FactOffset[slot] + System.Numerics.BitOperations.TrailingZeroCount(mask)] = 0;
        for (var changed = true; changed;)
        {
            changed = false;
            foreach (var step in catalogue.Steps)
            {
                var cost = step.Type.Minutes;
                foreach (var need in step.Needs)
                {
                    cost += CostOf(need);
                    if (cost < Unreached) continue;
                    cost = Unreached;
                    break;
                }

                if (cost >= Unreached) continue;
                foreach (var (slot, value) in step.Makes)
                {
                    var fact = catalogue.FactOffset[slot] + value;
                    if (cost >= _cost[fact]) continue;
                    _cost[fact] = cost;
                    _by[fact] = step;
                    changed = true;
                }
            }
        }
    }

    private int CostOf(BoundCondition condition)
    {
        var best = condition.AnyOf.Length == 0 ? 0 : Unreached;
        foreach (var alternative in condition.AnyOf)
        {
            var sum = 0;
            foreach (var (slot, mask) in alternative) sum = Math.Min(Unreached, sum + Cheapest(slot, mask).Cost);
            best = Math.Min(best, sum);
        }

        return best;
    }

    private (int Cost, List<int> Facts) Best(BoundCondition condition)
    {
        (int Cost, List<int> Facts) best = (condition.AnyOf.Length == 0 ? 0 : Unreached, []);
        foreach (var alternative in condition.AnyOf)
        {
            var facts = alternative.Select(r => Cheapest(r.Slot, r.Mask)).ToList();
            var sum = (int)Math.Min(Unreached, facts.Sum(f => (long)f.Cost));
            if (sum < best.Cost) best = (sum, [.. facts.Select(f => f.Fact)]);
        }

        return best;
    }

    private (int Cost, int Fact) Cheapest(int slot, uint mask)
    {
        var (cost, fact) = (Unreached, catalogue.FactOffset[slot]);
        for (var value = 0; mask >> value != 0; value++)
        {
            if ((mask & 1u << value) == 0) continue;
            var at = catalogue.FactOffset[slot] + value;
            if (_cost[at] < cost) (cost, fact) = (_cost[at], at);
        }

        return (cost, fact);
    }

    private static List<BoundStep> Unwind(Node? node)
    {
        List<BoundStep> steps = [];
        for (var n = node; n is not null; n = n.Before) steps.Add(n.Step);
        steps.Reverse();
        return steps;
    }

    private sealed record Node(BoundStep Step, Node? Before);
}

namespace PatientPawl.Core.Planning;

/// <summary>
/// Finds an order that reaches the goal: best-first search over states, led by the minutes of a relaxed plan (one that
/// forgets what steps undo), with look-ahead along that relaxed plan. Deterministic: bounds are counts, ties fall to the catalogue's order.
/// </summary>
internal sealed class Search(CompiledCatalogue catalogue)
{
    private const int Unreached = int.MaxValue / 4;
    private const int MostNodes = 400;
    private const int MostRounds = 24;
    private readonly int[] _cost = new int[catalogue.Facts];
    private readonly int[] _by = new int[catalogue.Facts];
    private readonly bool[] _chosen = new bool[catalogue.Steps.Length];
    private readonly int[] _given = new int[catalogue.Facts];
    private readonly Queue<(BoundCondition Condition, int For)> _open = new();
    private readonly List<int>?[] _suppliers = new List<int>?[catalogue.Steps.Length];
    private readonly (int Slot, uint Mask)[][]?[] _facts = new (int, uint)[catalogue.Steps.Length][][];
    private bool _suppliersFirst = true, _preferGiven = true;
    private readonly int[] _turn = new int[catalogue.Steps.Length];
    private readonly Stack<int> _ways = new();
    private readonly Bits _asked = new(catalogue.Steps.Length);
    private readonly Bits _passed = new(catalogue.Steps.Length);
    private readonly Bits[] _after = [.. catalogue.Steps.Select(_ => new Bits(catalogue.Steps.Length))];

    /// <summary>The order, or null when none was found within the node limit.</summary>
    public List<BoundStep>? Find(CarState start, IReadOnlyList<BoundCondition> goal)
    {
        // What the relaxed plan would do comes before anything else that is allowed; the rest waits until that is exhausted.
        var open = new PriorityQueue<(CarState State, Node? Node), (int Estimate, int Sequence)>();
        var rest = new PriorityQueue<(CarState State, Node? Node), (int Estimate, int Sequence)>();
        var seen = new HashSet<CarState>();
        var sequence = 0;
        // Straight on first: nearly always that is all there is to it. Each way of looking ahead has its own blind spots.
        foreach (var (suppliersFirst, given) in new[] { (true, true), (false, true), (true, false), (false, false) })
        {
            (_suppliersFirst, _preferGiven) = (suppliersFirst, given);
            var (far, way) = (start, (Node?)null);
            HashSet<CarState> passed = [start];
            for (var round = 0; round < MostRounds; round++)
            {
                if (Met(goal, far)) return Unwind(way);
                if (Relaxed(far, goal) is not { } relaxed) break;
                if (seen.Add(far)) open.Enqueue((far, way), (relaxed.Sum(s => s.Type.Minutes), sequence++));
                var (ahead, aheadWay) = LookAhead(far, way, relaxed);
                if (!passed.Add(ahead)) break;
                (far, way) = (ahead, aheadWay);
            }
        }

        (_suppliersFirst, _preferGiven) = (true, true);
        for (var nodes = 0; open.Count + rest.Count > 0 && nodes < MostNodes; nodes++)
        {
            var (state, node) = open.Count > 0 ? open.Dequeue() : rest.Dequeue();
            if (Met(goal, state)) return Unwind(node);
            if (Relaxed(state, goal) is not { } relaxed) continue;
            var estimate = relaxed.Sum(s => s.Type.Minutes);

            var (ahead, aheadNode) = LookAhead(state, node, relaxed);
            if (aheadNode != node && seen.Add(ahead)) open.Enqueue((ahead, aheadNode), (Estimate(ahead, goal), sequence++));
            foreach (var step in catalogue.Steps)
            {
                if (!step.Allowed(state.Raw) || !step.Changes(state.Raw)) continue;
                var next = step.Do(state);
                if (!seen.Add(next)) continue;
                // Its own estimate waits until it is taken up: the look-ahead is nearly always better, and estimates are dear.
                (relaxed.Contains(step) ? open : rest).Enqueue((next, new(step, node)), (estimate, sequence++));
            }
        }

        return null;
    }

    /// <summary>Goal conditions that no sequence of steps can reach, even if nothing were ever undone.</summary>
    public List<BoundCondition> Unreachable(CarState start, IReadOnlyList<BoundCondition> goal)
    {
        Costs(start.Raw);
        return [.. goal.Where(g => CostOf(g) >= Unreached)];
    }

    /// <summary>Those of them that stay out of reach even when all the others are granted: what really stands in the way.</summary>
    public List<BoundCondition> Roots(CarState start, IReadOnlyList<BoundCondition> unreachable) =>
    [
        .. unreachable.Where(g =>
        {
            Costs(start.Raw, [.. unreachable.Where(u => u != g).SelectMany(u => u.AnyOf[0])]);
            return CostOf(g) >= Unreached;
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

    /// <summary>
    /// Follows the relaxed plan as far as it goes: always the first step that is allowed, that no other one of them undoes again, and that takes
    /// nothing away which another one still needs and which only comes back once that other one is done.
    /// </summary>
    private (CarState, Node?) LookAhead(CarState start, Node? node, List<BoundStep> relaxed)
    {
        var state = start.Raw.ToArray();
        var after = new byte[state.Length];
        // A step is wanted as early as the first that waits for it.
        foreach (var step in relaxed)
            _turn[step.Index] = _suppliersFirst ? relaxed.Where(s => _after[s.Index][step.Index]).Select(s => s.Rank).Append(step.Rank).Min() : step.Rank;
        var left = relaxed.OrderBy(s => _turn[s.Index]).ThenBy(s => s.Rank).ThenBy(s => s.Key.Side).ToList();
        while (true)
        {
            // Where every one of them stands in another's way: the one whose earliest victim is the latest.
            var (take, latest) = (-1, -1);
            for (var i = 0; i < left.Count && latest < int.MaxValue; i++)
            {
                if (!left[i].Allowed(state) || !left[i].Changes(state)) continue;
                var victim = IsUndone(left, left[i]) ? 0 : FirstBlocked(left, left[i], state, after);
                if (victim > latest) (take, latest) = (i, victim);
            }

            if (take < 0) return (new(state), node);
            left[take].Do(state);
            node = new(left[take], node);
            left.RemoveAt(take);
        }
    }

    // By something that comes earlier in the usual order: what comes later takes it away in its own time.
    private bool IsUndone(List<BoundStep> left, BoundStep step)
    {
        foreach (var other in left)
        {
            if (_turn[other.Index] < _turn[step.Index] && catalogue.Undoes[other.Index][step.Index] && !_after[other.Index][step.Index]) return true;
        }

        return false;
    }

    /// <summary>The turn of the first step that could not be done any more; none: the greatest there is.</summary>
    private int FirstBlocked(List<BoundStep> left, BoundStep step, byte[] before, byte[] after)
    {
        var (known, first) = (false, int.MaxValue);
        foreach (var other in left)
        {
            if (other == step || !catalogue.MayBlock[step.Index][other.Index] || _after[other.Index][step.Index] || _turn[other.Index] >= first) continue;
            if (!known)
            {
                before.CopyTo(after, 0);
                step.Do(after);
                known = true;
            }

            for (var i = 0; i < other.Needs.Length && _turn[other.Index] < first; i++)
            {
                if (other.Needs[i].Holds(after)) continue;
                foreach (var fact in Ways(other)[i])
                {
                    if ((fact.Mask & 1u << before[fact.Slot]) == 0 || (fact.Mask & 1u << after[fact.Slot]) != 0) continue;
                    if (!left.Exists(k => k != step && k != other && Makes(k, fact) && !_after[k.Index][other.Index])) first = _turn[other.Index];
                }
            }
        }

        return first;
    }

    private static bool Makes(BoundStep step, (int Slot, uint Mask) fact)
    {
        foreach (var (slot, value) in step.Makes)
        {
            if (slot == fact.Slot && (fact.Mask & 1u << value) != 0) return true;
        }

        return false;
    }

    /// <summary>The cheapest way to each condition of a step, as the relaxed plan saw them.</summary>
    private (int Slot, uint Mask)[][] Ways(BoundStep step) => _facts[step.Index] ??= [.. step.Needs.Select(n => Best(n) ?? [])];

    /// <summary>The steps of a plan that forgets what steps undo; null when even that finds no way.</summary>
    private List<BoundStep>? Relaxed(CarState state, IReadOnlyList<BoundCondition> goal)
    {
        Costs(state.Raw);
        List<BoundStep> chosen = [];
        Array.Clear(_chosen);
        Array.Fill(_given, -1);
        Array.Clear(_suppliers);
        Array.Clear(_facts);
        _open.Clear();
        foreach (var g in goal)
        {
            if (CostOf(g) >= Unreached) return null;
            _open.Enqueue((g, -1));
        }

        // The goal's own facts first: what they bring serves those who would have been content with something else.
        while (_open.TryDequeue(out var open))
        {
            if (Choose(state, open.Condition, open.For) is not { } facts) continue;
            foreach (var (slot, mask) in facts)
            {
                if ((mask & 1u << state[slot]) != 0) continue;
                var (by, known) = Given(state, slot, mask, open.For) is >= 0 and var given ? (given, true) : (_by[Cheapest(slot, mask).Fact], false);
                if (by < 0) continue;
                if (open.For >= 0) _after[open.For].Add(by);
                if (known || _chosen[by]) continue;
                _chosen[by] = true;
                _after[by].Clear();
                var step = catalogue.Steps[by];
                chosen.Add(step);
                foreach (var (made, value) in step.Makes)
                    if (_given[catalogue.FactOffset[made] + value] < 0) _given[catalogue.FactOffset[made] + value] = by;
                foreach (var need in step.Needs) _open.Enqueue((need, by));
            }
        }

        // What a step waits for waits for something itself.
        for (var grown = true; grown;)
        {
            grown = false;
            foreach (var step in chosen)
                foreach (var other in chosen)
                    if (_after[step.Index][other.Index]) grown |= _after[step.Index].UnionWith(_after[other.Index]);
        }

        return chosen;
    }

    /// <summary>The alternative that asks for least beyond what is there, or given already.</summary>
    private (int Slot, uint Mask)[]? Choose(CarState state, BoundCondition condition, int asker)
    {
        if (condition.AnyOf.Length < 2) return Best(condition);
        var (best, least) = (((int, uint)[]?)null, Unreached);
        foreach (var alternative in condition.AnyOf)
        {
            var sum = 0;
            foreach (var (slot, mask) in alternative)
                if ((mask & 1u << state[slot]) == 0 && Given(state, slot, mask, asker) < 0) sum = Math.Min(Unreached, sum + Cheapest(slot, mask).Cost);
            if (sum < least) (best, least) = (alternative, sum);
        }

        return best;
    }

    // Never by something that waits itself for what asks for it.
    private int Given(CarState state, int slot, uint mask, int asker)
    {
        if (!_preferGiven) return -1;
        for (var value = 0; mask >> value != 0; value++)
        {
            if ((mask & 1u << value) != 0 && _given[catalogue.FactOffset[slot] + value] is >= 0 and var by && (asker < 0 || !WaitsFor(state, by, asker))) return by;
        }

        return -1;
    }

    /// <summary>Whether a step waits for another one, through what it asked for already or would ask for at the cheapest.</summary>
    private bool WaitsFor(CarState state, int step, int other)
    {
        if (step == other) return true;
        _passed.Clear();
        _ways.Clear();
        _passed.Add(step);
        _ways.Push(step);
        while (_ways.TryPop(out var at))
        {
            foreach (var supplier in Suppliers(state, at))
                if (Comes(supplier)) return true;
            if (!_chosen[at]) continue;
            for (var before = _after[at].From(0); before >= 0; before = _after[at].From(before + 1))
                if (Comes(before)) return true;
        }

        return false;

        bool Comes(int to)
        {
            if (to == other) return true;
            if (_passed[to]) return false;
            _passed.Add(to);
            _ways.Push(to);
            return false;
        }
    }

    private List<int> Suppliers(CarState state, int step)
    {
        if (_suppliers[step] is { } known) return known;
        List<int> suppliers = [];
        foreach (var facts in Ways(catalogue.Steps[step]))
        {
            foreach (var (slot, mask) in facts)
                if ((mask & 1u << state[slot]) == 0 && _by[Cheapest(slot, mask).Fact] is >= 0 and var by) suppliers.Add(by);
        }

        return _suppliers[step] = suppliers;
    }

    private void Costs(ReadOnlySpan<byte> state, params (int Slot, uint Mask)[] granted)
    {
        Array.Fill(_cost, Unreached);
        Array.Fill(_by, -1);
        for (var slot = 0; slot < StateLayout.Slots; slot++) _cost[catalogue.FactOffset[slot] + state[slot]] = 0;
        foreach (var (slot, mask) in granted) _cost[catalogue.FactOffset[slot] + System.Numerics.BitOperations.TrailingZeroCount(mask)] = 0;
        // Round after round in the catalogue's order; but only those of which something they need has become cheaper.
        _asked.Fill(catalogue.Steps.Length);
        for (var first = 0; first >= 0; first = _asked.From(0))
        {
            for (var i = first; i >= 0; i = _asked.From(i + 1))
            {
                _asked.Remove(i);
                var step = catalogue.Steps[i];
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
                    _by[fact] = i;
                    _asked.UnionWith(catalogue.NeededBy[slot]);
                }
            }
        }
    }

    private int CostOf(BoundCondition condition)
    {
        if (condition.AnyOf.Length == 0) return 0;
        var best = Unreached;
        foreach (var alternative in condition.AnyOf)
        {
            var sum = 0;
            foreach (var (slot, mask) in alternative)
            {
                sum += Cheapest(slot, mask).Cost;
                if (sum < best) continue;
                sum = best;
                break;
            }

            best = Math.Min(best, sum);
        }

        return best;
    }

    private (int Slot, uint Mask)[]? Best(BoundCondition condition)
    {
        var (best, least) = (((int, uint)[]?)null, Unreached);
        foreach (var alternative in condition.AnyOf)
        {
            var sum = 0;
            foreach (var (slot, mask) in alternative) sum = Math.Min(Unreached, sum + Cheapest(slot, mask).Cost);
            if (sum < least) (best, least) = (alternative, sum);
        }

        return best;
    }

    private (int Cost, int Fact) Cheapest(int slot, uint mask)
    {
        var offset = catalogue.FactOffset[slot];
        var (cost, fact) = (Unreached, offset);
        for (var value = 0; mask >> value != 0; value++)
        {
            if ((mask & 1u << value) == 0) continue;
            if (_cost[offset + value] < cost) (cost, fact) = (_cost[offset + value], offset + value);
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

using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Planning;

/// <summary>What an order of steps costs in walking and changing tools: one for each change of place, one for each time other tools are picked up.</summary>
internal static class Walking
{
    /// <summary>Where one stands, as a number: 0 left corner, 1 right corner, then the places of the car.</summary>
    public static int PlaceOf(BoundStep step) => step.Type.Place == Place.Corner || (step.Key.Side is not null && step.Type.Place == Place.Corner)
        ? step.Key.Side is { } s ? (int)s : 0 : 2 + (int)step.Type.Place;

    /// <summary>The cost of an order, for someone who stands nowhere yet with empty hands.</summary>
    public static int Cost(IReadOnlyList<BoundStep> order)
    {
        var (cost, place) = (0, -1);
        IReadOnlyList<string> held = [];
        foreach (var step in order)
        {
            var here = PlaceOf(step);
            if (place >= 0 && here != place) cost++;
            place = here;
            if (step.Tools.Count == 0) continue;
            if (!step.Tools.All(held.Contains)) cost++;
            held = step.Tools;
        }

        return cost;
    }

    /// <summary>True for the steps that are done at one corner after another, as the house rule "sides" orders them: from the first bolt where the other side stays together, from cleaning elsewhere; the wheel is not among them.</summary>
    public static bool Builds(PlanSetup setup, BoundStep step) => step.Key.Side is not null && step.Type is { OnWheels: false, Place: Place.Corner, Lasts: false } type
        && type.Stage >= (setup.Rules.Sides == SidesRule.OtherKept ? Stage.Free : Stage.Clean) && type.Stage <= Stage.Torque;

    /// <summary>The side one goes on at: the one that is open while the other is not, or else the left.</summary>
    public static Side FirstSide(CarState state) => Open(state, Side.Right) && !Open(state, Side.Left) ? Side.Right : Side.Left;

    private static bool Open(CarState state, Side side)
    {
        foreach (var r in Assembled.At(side == Side.Left ? Where.Left : Where.Right))
        {
            if ((r.Mask & 1u << state[r.Variable.Slot(side)]) == 0) return true;
        }

        return false;
    }

    /// <summary>
    /// How often an order goes against how people work: a corner built up while the other waits half built, or the two not in step (the house rule
    /// "sides"); the right corner's turn before the left one's same step; a corner
    /// closed (bled, turned) before all is built; something done before the looking is over.
    /// </summary>
    public static int Against(PlanSetup setup, Side firstSide, IReadOnlyList<BoundStep> order)
    {
        var against = 0;
        BoundStep? last = null;
        var (working, first, closing) = (false, -1, false);
        Span<bool> second = stackalloc bool[StepCatalogue.All.Count];
        foreach (var step in order)
        {
            if (!step.Type.Soon) working = true;
            else if (working || step.Rank < first) against += 1000; // never traded for a shorter way
            else first = step.Rank;
            if (step.Key.Side == firstSide.Other()) second[step.Rank] = true;
            else if (step.Key.Side == firstSide && second[step.Rank]) against++;
            if (step.Type is { Stage: Stage.Close, Lane: Lane.Corner }) closing = true;
            if (!Builds(setup, step)) continue;
            if (closing) against++;
            if (last is not null)
            {
                if (setup.Rules.Sides == SidesRule.InStep ? step.Rank < last.Rank : step.Key.Side == firstSide && last.Key.Side != firstSide) against++;
            }

            last = step;
        }

        return against;
    }

    /// <summary>
    /// Moves single steps, and whole runs at one place, to where they cost less, as long as the order stays valid and no more against the house
    /// rule. Deterministic: the first move that helps is taken, until none does.
    /// </summary>
    public static List<BoundStep> Improve(PlanSetup setup, CarState start, List<BoundStep> order)
    {
        var n = order.Count;
        if (n < 3) return order;
        var tools = order.SelectMany(s => s.Tools).Distinct(StringComparer.Ordinal).Select((name, i) => (name, i)).ToDictionary(t => t.name, t => 1L << (t.i % 63), StringComparer.Ordinal);
        var place = order.Select(PlaceOf).ToArray();
        var tool = order.Select(s => s.Tools.Aggregate(0L, (mask, t) => mask | tools[t])).ToArray();
        var now = Enumerable.Range(0, n).ToArray();
        // The same order, but for the part in which a move is tried.
        var next = now.ToArray();
        var steps = order.ToArray();
        var candidate = new List<BoundStep>(n);
        var slots = StateLayout.Slots;
        var first = FirstSide(start);
        // What stands before each step of the present order: a moved run is tried from where the two orders part to where they meet again.
        var before = new byte[(n + 1) * slots];
        var spent = new (int Cost, long Held)[n + 1];
        Span<byte> state = stackalloc byte[slots];
        var against = Against(setup, first, order);
        start.Raw.CopyTo(before);
        Follow(0, n);
        Count(0);
        for (var (sweep, moved) = (0, true); moved && sweep < 3; sweep++)
        {
            moved = false;
            for (var from = 0; from < n; from++)
            {
                var run = 1;
                while (from + run < n && place[now[from + run]] == place[now[from]]) run++;
                for (var length = run; length >= 1; length = length == 1 ? 0 : 1)
                {
                    // Beside a step at the same place, or with the same tool, there is something to gain; elsewhere there is not.
                    for (var to = 0; to <= n - length; to++)
                    {
                        if (to == from) continue;
                        var (left, right) = (to <= from ? to - 1 : to + length - 1, to <= from ? to : to + length);
                        if (!(left >= 0 && Alike(now[left], now[from])) && !(right < n && Alike(now[right], now[from + length - 1]))) continue;
                        if (MoreWalks(from, length, left, right) >= 2) continue;
                        var (part, meet) = (Math.Min(from, to), Math.Max(from, to) + length);
                        if (to < from) Array.Copy(now, to, next, to + length, from - to);
                        else Array.Copy(now, from + length, next, from, to - from);
                        Array.Copy(now, from, next, to, length);
                        if (CostOfMove(part, meet) < spent[n].Cost && Meets(next, part, meet, state))
                        {
                            candidate.Clear();
                            foreach (var i in next) candidate.Add(steps[i]);
                            if (Against(setup, first, candidate) is var more && more <= against)
                            {
                                (against, moved) = (more, true);
                                Array.Copy(next, part, now, part, meet - part);
                                Follow(part, meet);
                                Count(part);
                                break;
                            }
                        }

                        Array.Copy(now, part, next, part, meet - part);
                    }
                }
            }
        }

        return [.. now.Select(i => steps[i])];

        void Follow(int begin, int end)
        {
            for (var i = begin; i < end; i++)
            {
                var after = before.AsSpan((i + 1) * slots, slots);
                before.AsSpan(i * slots, slots).CopyTo(after);
                steps[now[i]].Do(after);
            }
        }

        // What is spent before each step from here on: one for each change of place, one for each time other tools are picked up.
        void Count(int begin)
        {
            for (var i = begin; i < n; i++) spent[i + 1] = Spend(spent[i], i == 0 ? now[0] : now[i - 1], now[i]);
        }

        (int Cost, long Held) Spend((int Cost, long Held) so, int last, int step)
        {
            var cost = so.Cost + (place[last] != place[step] ? 1 : 0);
            if (tool[step] == 0) return (cost, so.Held);
            return (cost + ((tool[step] & ~so.Held) != 0 ? 1 : 0), tool[step]);
        }

        // From where the two orders have the same tools in the hand again, they cost the same.
        int CostOfMove(int part, int meet)
        {
            var so = spent[part];
            for (var i = part; i < n; i++)
            {
                so = Spend(so, i == 0 ? next[0] : next[i - 1], next[i]);
                if (so.Cost >= spent[n].Cost) return so.Cost;
                if (i >= meet && so.Held == spent[i + 1].Held) return so.Cost + spent[n].Cost - spent[i + 1].Cost;
            }

            return so.Cost;
        }

        // Every step between is allowed and changes something, and the state is then what it was: whatever follows stays valid.
        bool Meets(int[] indices, int begin, int end, Span<byte> at)
        {
            before.AsSpan(begin * slots, slots).CopyTo(at);
            for (var i = begin; i < end; i++)
            {
                var step = steps[indices[i]];
                if (!step.Allowed(at) || !step.Changes(at)) return false;
                step.Do(at);
            }

            return at.SequenceEqual(before.AsSpan(end * slots, slots));
        }

        // What the move adds in walks alone; more than tools kept in the hand could win back is not looked at any further.
        int MoreWalks(int from, int length, int left, int right)
        {
            int Walk(int a, int b) => a >= 0 && b < n && place[now[a]] != place[now[b]] ? 1 : 0;
            var (last, after) = (from + length - 1, from + length);
            return Walk(left, from) + Walk(last, right) - Walk(left, right) - Walk(from - 1, from) - Walk(last, after) + Walk(from - 1, after);
        }

        bool Alike(int a, int b) => place[a] == place[b] || (tool[a] & tool[b]) != 0;
    }
}

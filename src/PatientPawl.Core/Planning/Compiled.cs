using System.Collections.Concurrent;

namespace PatientPawl.Core.Planning;

/// <summary>A condition bound to slots: any of the alternatives, each a set of (slot, mask).</summary>
internal sealed record BoundCondition((int Slot, uint Mask)[][] AnyOf, Condition Origin, Interlock? Interlock)
{
    public bool Holds(ReadOnlySpan<byte> state)
    {
        foreach (var alternative in AnyOf)
        {
            var all = true;
            foreach (var (slot, mask) in alternative)
            {
                if ((mask & 1u << state[slot]) != 0) continue;
                all = false;
                break;
            }

            if (all) return true;
        }

        return AnyOf.Length == 0;
    }
}

/// <summary>A proof bound to slots.</summary>
internal sealed record BoundProof(int Slot, uint Stands, byte FallsTo, (int Slot, uint Mask)[] While, int[] Untouched)
{
    /// <summary>True when its ground moved, or does not hold.</summary>
    public bool Falls(ReadOnlySpan<byte> before, ReadOnlySpan<byte> now)
    {
        foreach (var slot in Untouched)
        {
            if (before[slot] != now[slot]) return true;
        }

        foreach (var (slot, mask) in While)
        {
            if ((mask & 1u << now[slot]) == 0) return true;
        }

        return false;
    }
}

/// <summary>An outcome bound to a place.</summary>
internal sealed record BoundOutcome(Outcome Type, BoundCondition[] Needs, (int Slot, byte Value)[] Makes, int[] Doubts)
{
    /// <summary>What it makes of a car: its effects, and what nobody knows any more.</summary>
    public (int Slot, byte Value)[] MakesOf(CarState state) =>
        Doubts.Length == 0 ? Makes : [.. Makes, .. Doubts.Select(slot => (slot, StateLayout.At(slot).Variable.Doubt(state[slot])))];
}

/// <summary>A step type bound to a place, with its interlocks' conditions among its own.</summary>
internal sealed class BoundStep
{
    public required StepKey Key { get; init; }
    public required StepType Type { get; init; }
    public required int Rank { get; init; }

    /// <summary>Its place among the steps of its catalogue; -1 for one of an earlier version.</summary>
    public int Index { get; set; } = -1;
    public required IReadOnlyList<string> Tools { get; init; }
    public required BoundCondition[] Needs { get; init; }
    public required (int Slot, byte Value)[] Makes { get; init; }
    public required BoundOutcome[] Outcomes { get; init; }
    public required BoundProof[] Proofs { get; init; }

    /// <summary>True for a step of an earlier version, which nothing plans any more.</summary>
    public bool Retired => Rank == int.MaxValue;

    public bool Allowed(ReadOnlySpan<byte> state)
    {
        foreach (var need in Needs)
        {
            if (!need.Holds(state)) return false;
        }

        return true;
    }

    public bool Changes(ReadOnlySpan<byte> state)
    {
        foreach (var (slot, value) in Makes)
        {
            if (state[slot] != value) return true;
        }

        return false;
    }

    /// <summary>Does it as expected: what it makes, and every proof that falls by it.</summary>
    public void Do(Span<byte> state) => Transition.Apply(state, Makes, Proofs);

    /// <summary>The state after it, done as expected.</summary>
    public CarState Do(CarState state)
    {
        var next = state.Raw.ToArray();
        Do(next);
        return new(next);
    }

    /// <summary>The state after it, with another thing found than what was expected.</summary>
    public CarState Do(CarState state, BoundOutcome outcome)
    {
        var next = state.Raw.ToArray();
        Transition.Apply(next, outcome.MakesOf(state), Proofs);
        return new(next);
    }
}

/// <summary>A set of steps, by their index.</summary>
internal sealed class Bits(int count)
{
    private readonly ulong[] _words = new ulong[(count + 63) / 64];

    public bool this[int i] => (_words[i >> 6] & 1UL << i) != 0;

    public void Add(int i) => _words[i >> 6] |= 1UL << i;

    public void Remove(int i) => _words[i >> 6] &= ~(1UL << i);

    public void Fill(int members)
    {
        for (var i = 0; i < members; i++) Add(i);
    }

    public void Clear() => Array.Clear(_words);

    /// <summary>The first member from <paramref name="i"/> on; -1 where there is none.</summary>
    public int From(int i)
    {
        for (var w = i >> 6; w < _words.Length; w++)
        {
            // In the word that it begins in, what stands before does not count.
            var left = w == i >> 6 ? _words[w] & ulong.MaxValue << i : _words[w];
            if (left != 0) return (w << 6) + System.Numerics.BitOperations.TrailingZeroCount(left);
        }

        return -1;
    }

    /// <summary>Takes the members of another one in; true when that made it greater.</summary>
    public bool UnionWith(Bits other)
    {
        var grown = false;
        for (var w = 0; w < _words.Length; w++)
        {
            grown |= (other._words[w] & ~_words[w]) != 0;
            _words[w] |= other._words[w];
        }

        return grown;
    }
}

/// <summary>How a state moves on; the only way it does. What is made is set, then every proof falls whose ground moved, unless it is what was made.</summary>
internal static class Transition
{
    public static void Apply(Span<byte> state, (int Slot, byte Value)[] makes, BoundProof[] proofs)
    {
        Span<byte> before = stackalloc byte[StateLayout.Slots];
        state.CopyTo(before);
        foreach (var (slot, value) in makes) state[slot] = value;
        foreach (var proof in proofs)
        {
            if ((proof.Stands & 1u << state[proof.Slot]) == 0 || Makes(makes, proof.Slot) || !proof.Falls(before, state)) continue;
            state[proof.Slot] = proof.FallsTo;
        }
    }

    /// <summary>Lets every proof fall that does not stand after a change that no step made.</summary>
    public static CarState Settle(BoundProof[] proofs, CarState before, CarState after)
    {
        var state = after.Raw.ToArray();
        foreach (var proof in proofs)
        {
            if ((proof.Stands & 1u << state[proof.Slot]) != 0 && proof.Falls(before.Raw, state)) state[proof.Slot] = proof.FallsTo;
        }

        return new(state);
    }

    private static bool Makes((int Slot, byte Value)[] makes, int slot)
    {
        foreach (var (made, _) in makes)
        {
            if (made == slot) return true;
        }

        return false;
    }
}

/// <summary>The catalogue bound for one setup: what the planner searches.</summary>
internal sealed class CompiledCatalogue
{
    // Setups are equal by value. A shop has a few hundred at most; a cache that grew past that starts anew.
    private const int Most = 1000;
    private static readonly ConcurrentDictionary<PlanSetup, CompiledCatalogue> Cache = new();
    private static int _added;

    private readonly Dictionary<StepKey, BoundStep> _byKey;

    private CompiledCatalogue(PlanSetup setup)
    {
        Setup = setup;
        Proofs = [.. Planning.Proofs.All.SelectMany(p => p.Of.PerCorner ? Core.Sides.Both.Select(s => Bind(p, s)) : [Bind(p, null)])];
        var existing = Existing(setup).ToArray();
        Steps = Array.FindAll(existing, s => s.Type.ByChoice != ByChoice.Only);
        OnlyByChoice = Array.FindAll(existing, s => s.Type.ByChoice == ByChoice.Only);
        _byKey = existing.Concat(StepCatalogue.Retired.SelectMany(t => Places(t).Select(s => Bind(t, int.MaxValue, s)))).ToDictionary(s => s.Key);
        for (var i = 0; i < Steps.Length; i++) Steps[i].Index = i;
        var made = Array.ConvertAll(Steps, s => Array.ConvertAll(s.Makes, m => (m.Slot, Mask: 1u << m.Value)));
        var needed = Array.ConvertAll(Steps, s => s.Needs.SelectMany(n => n.AnyOf).SelectMany(a => a).Distinct().ToArray());
        Undoes = Array.ConvertAll(Steps, s => DisturbedBy(s, made));
        MayBlock = Array.ConvertAll(Steps, s => DisturbedBy(s, needed));
        NeededBy = [.. Enumerable.Range(0, StateLayout.Slots).Select(_ => new Bits(Steps.Length))];
        foreach (var step in Steps)
            foreach (var (slot, _) in needed[step.Index]) NeededBy[slot].Add(step.Index);
        FactOffset = new int[StateLayout.Slots];
        for (var slot = 0; slot < StateLayout.Slots; slot++)
        {
            FactOffset[slot] = Facts;
            Facts += StateLayout.At(slot).Variable.Values;
        }
    }

    public PlanSetup Setup { get; }

    /// <summary>The steps that exist here, and that a plan may ask for.</summary>
    public BoundStep[] Steps { get; }

    /// <summary>The steps that exist here, and that no plan asks for.</summary>
    public BoundStep[] OnlyByChoice { get; }

    /// <summary>For each step the steps of which it can take away what they make.</summary>
    public Bits[] Undoes { get; }

    /// <summary>For each step the steps of which it can take away what they need.</summary>
    public Bits[] MayBlock { get; }

    /// <summary>For each slot the steps that need something of it.</summary>
    public Bits[] NeededBy { get; }

    /// <summary>Every proof, a proof that rests on another after it.</summary>
    public BoundProof[] Proofs { get; }

    /// <summary>Things worked out once for a setup by those who show its plan.</summary>
    public ConcurrentDictionary<string, object> Derived { get; } = new(StringComparer.Ordinal);

    public int[] FactOffset { get; }
    public int Facts { get; }

    public static CompiledCatalogue For(PlanSetup setup)
    {
        if (Cache.TryGetValue(setup, out var known)) return known;
        // Counted here: to be asked how many it has, the dictionary takes every lock of its own.
        if (Interlocked.Increment(ref _added) % Most == 0) Cache.Clear();
        return Cache.GetOrAdd(setup, s => new(s));
    }

    /// <summary>The step at its place; null when it does not exist on this car. Steps of earlier versions are found, and never planned.</summary>
    public BoundStep? Find(StepKey key) => _byKey.GetValueOrDefault(key);

    public static BoundCondition Bind(Condition condition, Side? side, Interlock? interlock = null) =>
        new([.. condition.AnyOf.Select(a => a.Select(r => (SlotOf(r.Variable, r.Where, side), r.Mask)).ToArray())], condition, interlock);

    private IEnumerable<BoundStep> Existing(PlanSetup setup) => StepCatalogue.All.Select((type, rank) => (type, rank)).Where(t => t.type.Applies(setup))
        .SelectMany(t => Places(t.type).Where(s => s is not { } at || t.type.AppliesAt(setup, at)).Select(s => Bind(t.type, t.rank, s)));

    private static IEnumerable<Side?> Places(StepType type) => type.Lane == Lane.Car ? [null] : Core.Sides.Both.Select(s => (Side?)s);

    private BoundStep Bind(StepType type, int rank, Side? side)
    {
        var makes = Bind(type.Makes, side);
        return new()
        {
            Key = new(type.Id, side),
            Type = type,
            Rank = rank,
            Tools = type.ToolsIn(Setup),
            Needs =
            [
                .. Interlocks.All.SelectMany(i => i.Clauses.Where(c => (c.Concerns & type.AllConcerns) != 0 && Here(c.Needs) && Kept(type, c.Needs)).Select(c => Bind(c.Needs, side, i))),
                .. Bind(type.Needs.Where(n => Kept(type, n)), side),
                .. type.EndsTheJob ? Goal.BeforeTheEnd(Setup).Where(Here).Select(c => Bind(c, side, Interlocks.HandOver)) : [],
            ],
            Makes = makes,
            Outcomes = [.. type.Outcomes.Where(o => o.Applies(Setup)).Select(o => new BoundOutcome(o, Bind(o.Needs, side), Bind(o.Makes, side), Slots(o.Doubts)))],
            Proofs = Reached(makes.Concat(type.Outcomes.SelectMany(o => Bind(o.Makes, side))).Select(m => m.Slot).Concat(type.Outcomes.SelectMany(o => Slots(o.Doubts)))),
        };
    }

    private static int[] Slots(IEnumerable<StateVariable> variables) => [.. variables.SelectMany(v => v.PerCorner ? Core.Sides.Both.Select(s => v.Slot(s)) : [v.Slot(null)])];

    // The steps of which one of these facts can be taken away by another step.
    private Bits DisturbedBy(BoundStep by, (int Slot, uint Mask)[][] factsOf)
    {
        Span<bool> touched = stackalloc bool[StateLayout.Slots];
        foreach (var (slot, _) in by.Makes) touched[slot] = true;
        foreach (var proof in by.Proofs) touched[proof.Slot] = true;
        var disturbed = new Bits(Steps.Length);
        for (var i = 0; i < Steps.Length; i++)
        {
            if (i == by.Index) continue;
            foreach (var (slot, mask) in factsOf[i])
            {
                if (!touched[slot] || !Disturbs(by, slot, mask)) continue;
                disturbed.Add(i);
                break;
            }
        }

        return disturbed;
    }

    private static bool Disturbs(BoundStep step, int slot, uint mask)
    {
        foreach (var (made, value) in step.Makes)
        {
            if (made == slot) return (mask & 1u << value) == 0;
        }

        return Array.Exists(step.Proofs, p => p.Slot == slot && (mask & p.Stands) != 0 && (mask & 1u << p.FallsTo) == 0);
    }

    // The proofs that a change of these can bring down, by themselves or through one another: the others need not be looked at.
    private BoundProof[] Reached(IEnumerable<int> changed)
    {
        Span<bool> touched = stackalloc bool[StateLayout.Slots];
        foreach (var slot in changed) touched[slot] = true;
        List<BoundProof> reached = [];
        foreach (var proof in Proofs)
        {
            if (!RestsOn(proof, touched)) continue;
            reached.Add(proof);
            touched[proof.Slot] = true;
        }

        return [.. reached];
    }

    private static bool RestsOn(BoundProof proof, ReadOnlySpan<bool> slots)
    {
        foreach (var slot in proof.Untouched)
        {
            if (slots[slot]) return true;
        }

        foreach (var (slot, _) in proof.While)
        {
            if (slots[slot]) return true;
        }

        return false;
    }

    private BoundProof Bind(Proof proof, Side? side) => new(proof.Of.Slot(side), proof.Stands, proof.FallsTo,
        [.. proof.While(Setup).Select(r => (SlotOf(r.Variable, r.Where, side), r.Mask))], [.. proof.Untouched(Setup).Select(g => SlotOf(g.Variable, g.Where, side))]);

    private BoundCondition[] Bind(IEnumerable<Condition> needs, Side? side) => [.. needs.Where(Here).Select(n => Bind(n, side))];

    private (int Slot, byte Value)[] Bind(IEnumerable<Effect> effects, Side? side) =>
        [.. effects.Where(e => e.Applies?.Invoke(Setup) != false).Select(e => (SlotOf(e.Variable, e.Where, side), e.Value))];

    /// <summary>A state with what these make of the car; what follows from it is the caller's.</summary>
    public CarState With(CarState car, IReadOnlyList<Effect> effects)
    {
        var slots = car.Raw.ToArray();
        foreach (var (slot, value) in Bind(effects, null)) slots[slot] = value;
        return new(slots);
    }

    private bool Kept(StepType type, Condition condition) => Setup.Without is not { } w || w.StepId != type.Id || !ReferenceEquals(w.Condition, condition);

    private bool Here(Condition condition) => condition.Applies?.Invoke(Setup) != false;

    private static int SlotOf(StateVariable variable, Where where, Side? side) => variable.Slot(where switch
    {
        Where.Car => null,
        Where.Left => Side.Left,
        Where.Right => Side.Right,
        Where.This => side,
        Where.Other => side?.Other(),
        _ => throw new ArgumentOutOfRangeException(nameof(where), where, "No such place."),
    });
}

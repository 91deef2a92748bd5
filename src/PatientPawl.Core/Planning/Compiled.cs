using System.Collections.Concurrent;
using System.Runtime.CompilerServices;

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

/// <summary>A step type bound to a place, with its interlocks' conditions among its own.</summary>
internal sealed class BoundStep
{
    public required StepKey Key { get; init; }
    public required StepType Type { get; init; }
    public required int Rank { get; init; }
    public required IReadOnlyList<string> Tools { get; init; }
    public required BoundCondition[] Needs { get; init; }
    public required (int Slot, byte Value)[] Makes { get; init; }
    public required (int Slot, byte Value)[] Otherwise { get; init; }

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
}

/// <summary>The catalogue bound for one setup: what the planner searches.</summary>
internal sealed class CompiledCatalogue
{
    private static readonly ConcurrentDictionary<string, CompiledCatalogue> Cache = new(StringComparer.Ordinal);

    // Setups are immutable and asked for again and again: by reference first, by contents second.
    private static readonly ConditionalWeakTable<PlanSetup, CompiledCatalogue> ByReference = [];

    private readonly Dictionary<StepKey, BoundStep> _byKey;

    private CompiledCatalogue(PlanSetup setup)
    {
        Setup = setup;
        Steps =
        [
            .. StepCatalogue.All.Select((type, rank) => (type, rank)).Where(t => t.type.Applies(setup))
                .SelectMany(t => t.type.Lane == Lane.Car ? [Bind(t.type, t.rank, null)] : Core.Sides.Both.Select(s => Bind(t.type, t.rank, s))),
        ];
        _byKey = Steps.ToDictionary(s => s.Key);
        FactOffset = new int[StateLayout.Slots];
        for (var slot = 0; slot < StateLayout.Slots; slot++)
        {
            FactOffset[slot] = Facts;
            Facts += StateLayout.At(slot).Variable.Values;
        }
    }

    public PlanSetup Setup { get; }
    public BoundStep[] Steps { get; }

    /// <summary>Things worked out once for a setup by those who show its plan.</summary>
    public ConcurrentDictionary<string, object> Derived { get; } = new(StringComparer.Ordinal);

    public int[] FactOffset { get; }
    public int Facts { get; }

    public static CompiledCatalogue For(PlanSetup setup) =>
        ByReference.GetValue(setup, s => Cache.GetOrAdd(KeyOf(s), _ => new(s)));

    public BoundStep? Find(StepKey key) => _byKey.GetValueOrDefault(key);

    public static BoundCondition Bind(Condition condition, Side? side, Interlock? interlock = null) =>
        new([.. condition.AnyOf.Select(a => a.Select(r => (SlotOf(r.Variable, r.Where, side), r.Mask)).ToArray())], condition, interlock);

    private BoundStep Bind(StepType type, int rank, Side? side) => new()
    {
        Key = new(type.Id, side),
        Type = type,
        Rank = rank,
        Tools = type.ToolsIn(Setup),
        Needs =
        [
            .. Interlocks.All.SelectMany(i => i.Clauses.Where(c => (c.Concerns & type.Concerns) != 0 && c.Needs.Applies?.Invoke(Setup) != false).Select(c => Bind(c.Needs, side, i))),
            .. type.Needs.Where(n => n.Applies?.Invoke(Setup) != false).Select(n => Bind(n, side)),
        ],
        Makes = [.. type.Makes.Where(Holds).Select(e => (SlotOf(e.Variable, e.Where, side), e.Value))],
        Otherwise = [.. type.Otherwise.Where(Holds).Select(e => (SlotOf(e.Variable, e.Where, side), e.Value))],
    };

    private bool Holds(Effect effect) => effect.Applies?.Invoke(Setup) != false;

    private static int SlotOf(StateVariable variable, Where where, Side? side) => variable.Slot(where switch
    {
        Where.Car => null,
        Where.Left => Side.Left,
        Where.Right => Side.Right,
        Where.This => side,
        _ => side?.Other(),
    });

    // Everything a predicate of the catalogue may look at, and nothing else: two setups with one key bind alike.
    private static string KeyOf(PlanSetup s) =>
        $"{s.Left}|{s.Right}|{s.Scope}|{s.Route}|{s.Rules}|{s.RotorHasScrews}|{s.RotorComesOffWithBracketOn}|{s.ServiceOnGround}|{string.Join(',', s.SingleUse)}|{s.SimulatedPedal}|{s.RotorFound}|{s.ShoesFound}|{s.PadsFound}|{s.HubFound}|{s.WrongPart}|{string.Join(',', s.Fittings)}|{s.SheetElectric}|{string.Join(',', s.Broken)}";
}

using System.ComponentModel;
using System.Reflection;

namespace PatientPawl.Core.Planning;

/// <summary>Where a fact holds, relative to the step that needs or makes it.</summary>
public enum Where
{
    /// <summary>The car.</summary>
    Car,
    /// <summary>The corner the step is done at.</summary>
    This,
    /// <summary>The other corner.</summary>
    Other,
    /// <summary>The left corner.</summary>
    Left,
    /// <summary>The right corner.</summary>
    Right,
}

/// <summary>What sort of fact a variable holds. It decides what is left of a step that was done although the step before it was not.</summary>
public enum VariableKind
{
    /// <summary>Where metal is and how a thing is set: anyone can see it, and it stays as it was done.</summary>
    Placement,
    /// <summary>How a fastener stands. What was tightened stays tightened; its signatures stand with it.</summary>
    Fastening,
    /// <summary>Something that was proved, and rests on what was so then.</summary>
    Proof,
    /// <summary>Something that was looked at, judged, cleaned or asked for.</summary>
    Knowledge,
}

/// <summary>One thing about the car or a corner that the plan keeps track of. It has a handful of values.</summary>
public abstract class StateVariable
{
    private protected StateVariable(string noun, bool perCorner, VariableKind kind, int values)
    {
        Noun = noun;
        PerCorner = perCorner;
        Kind = kind;
        Values = values;
    }

    /// <summary>What it is called, for example <c>parking brake</c>.</summary>
    public string Noun { get; }

    /// <summary>True when each corner has its own.</summary>
    public bool PerCorner { get; }

    /// <summary>What sort of fact it is.</summary>
    public VariableKind Kind { get; }

    /// <summary>How many values it can have, at most 32.</summary>
    public int Values { get; }

    internal int Index { get; set; }

    internal int Slot(Side? side) => StateLayout.Slot(this, side);

    /// <summary>The value in words, for example <c>proved released</c>.</summary>
    public abstract string Words(byte value);

    /// <summary>
    /// What is left of a value once it is doubted: after a step was undone, or done before its turn. What anyone can see stays; what nobody
    /// can see is no longer known. Never better than it was.
    /// </summary>
    internal abstract byte Doubt(byte value);
}

/// <summary>A variable whose values are an enumeration.</summary>
public sealed class StateVariable<T> : StateVariable where T : struct, Enum
{
    private static readonly T[] All = Enum.GetValues<T>();

    private static readonly string[] Said = [.. All.Select(Say)];

    private readonly Func<T, T>? _doubted;

    internal StateVariable(string noun, bool perCorner, VariableKind kind, Func<T, T>? doubted = null) : base(noun, perCorner, kind, All.Length) => _doubted = doubted;

    internal override byte Doubt(byte value) => _doubted is null ? value : Byte(_doubted(All[value]));

    internal static byte Byte(T value) => (byte)Array.IndexOf(All, value);

    internal static T Value(byte value) => All[value];

    /// <inheritdoc/>
    public override string Words(byte value) => Said[value];

    // As its description says; without one, the member's name in words.
    private static string Say(T value) =>
        typeof(T).GetField(value.ToString())!.GetCustomAttribute<DescriptionAttribute>()?.Description
        ?? string.Concat(value.ToString().Select((c, i) => char.IsUpper(c) ? $"{(i > 0 ? " " : "")}{char.ToLowerInvariant(c)}" : $"{c}"));

    /// <summary>It must be one of these: on the car, or at this corner.</summary>
    public Requirement Is(params T[] values) => At(PerCorner ? Where.This : Where.Car, values);

    /// <summary>It must be one of these at a given place.</summary>
    public Requirement At(Where where, params T[] values) => new(this, where, values.Aggregate(0u, (mask, v) => mask | 1u << Byte(v)));

    /// <summary>It must be one of these at both corners.</summary>
    public Requirement[] Both(params T[] values) => [At(Where.Left, values), At(Where.Right, values)];

    /// <summary>The step makes it this: on the car, or at this corner.</summary>
    public Effect To(T value) => new(this, PerCorner ? Where.This : Where.Car, Byte(value));

    /// <summary>The step makes it this at the other corner.</summary>
    public Effect OtherTo(T value) => new(this, Where.Other, Byte(value));

    /// <summary>The step makes it this at one corner, whichever it is done at.</summary>
    public Effect OnlyTo(Side side, T value) => new(this, side == Side.Left ? Where.Left : Where.Right, Byte(value));

    /// <summary>The step makes it this at both corners.</summary>
    public Effect[] BothTo(T value) => [new(this, Where.Left, Byte(value)), new(this, Where.Right, Byte(value))];
}

/// <summary>A fact that must hold: the variable has one of the values in the mask.</summary>
/// <param name="Variable">The variable.</param>
/// <param name="Where">Where.</param>
/// <param name="Mask">Bit n set: value n will do.</param>
public sealed record Requirement(StateVariable Variable, Where Where, uint Mask)
{
    /// <summary>What is wanted, in words, for example <c>parking brake released or service</c>.</summary>
    public string Wanted => string.Join(" or ", Enumerable.Range(0, Variable.Values).Where(v => (Mask & 1u << v) != 0).Select(v => Variable.Words((byte)v)));
}

/// <summary>A fact that a step makes true.</summary>
/// <param name="Variable">The variable.</param>
/// <param name="Where">Where.</param>
/// <param name="Value">The value it gets.</param>
/// <param name="Applies">For which plans; null means all.</param>
public sealed record Effect(StateVariable Variable, Where Where, byte Value, Func<PlanSetup, bool>? Applies = null)
{
    /// <summary>The same effect, only for plans of this kind.</summary>
    public Effect When(Func<PlanSetup, bool> applies) => this with { Applies = applies };
}

/// <summary>A condition: any one of the alternatives, each a set of facts that must hold together.</summary>
/// <param name="AnyOf">The alternatives.</param>
/// <param name="Says">The condition in words, or null to let the facts speak.</param>
/// <param name="Applies">When it applies; null means always.</param>
public sealed record Condition(IReadOnlyList<IReadOnlyList<Requirement>> AnyOf, string? Says = null, Func<PlanSetup, bool>? Applies = null)
{
    /// <summary>A single fact is a condition.</summary>
    public static implicit operator Condition(Requirement requirement) => new([[requirement]]);

    /// <summary>Facts that must hold together.</summary>
    public static Condition All(params IEnumerable<Requirement> facts) => new([[.. facts]]);

    /// <summary>Any of these sets of facts.</summary>
    public static Condition Any(params Requirement[][] alternatives) => new(alternatives);

    /// <summary>The same condition, in these words.</summary>
    public Condition Saying(string words) => this with { Says = words };

    /// <summary>The same condition, only for plans of this kind.</summary>
    public Condition When(Func<PlanSetup, bool> applies) => this with { Applies = applies };
}

/// <summary>The state of the car and its two rear corners. Immutable; equal when every fact is equal.</summary>
public sealed class CarState : IEquatable<CarState>
{
    private readonly byte[] _slots;

    internal CarState(byte[] slots) => _slots = slots;

    /// <summary>Every variable at its first value.</summary>
    public static CarState Blank { get; } = new(new byte[StateLayout.Slots]);

    internal ReadOnlySpan<byte> Raw => _slots;

    internal byte this[int slot] => _slots[slot];

    /// <summary>The car's value of a variable.</summary>
    public T Get<T>(StateVariable<T> variable) where T : struct, Enum
    {
        ArgumentNullException.ThrowIfNull(variable);
        return StateVariable<T>.Value(_slots[variable.Slot(null)]);
    }

    /// <summary>A corner's value of a variable.</summary>
    public T Get<T>(StateVariable<T> variable, Side side) where T : struct, Enum
    {
        ArgumentNullException.ThrowIfNull(variable);
        return StateVariable<T>.Value(_slots[variable.Slot(side)]);
    }

    /// <summary>The state with the car's value changed.</summary>
    public CarState With<T>(StateVariable<T> variable, T value) where T : struct, Enum
    {
        ArgumentNullException.ThrowIfNull(variable);
        return Set(variable.Slot(null), StateVariable<T>.Byte(value));
    }

    /// <summary>The state with a corner's value changed.</summary>
    public CarState With<T>(StateVariable<T> variable, Side side, T value) where T : struct, Enum
    {
        ArgumentNullException.ThrowIfNull(variable);
        return Set(variable.Slot(side), StateVariable<T>.Byte(value));
    }

    internal CarState Set(int slot, byte value)
    {
        if (_slots[slot] == value) return this;
        var copy = (byte[])_slots.Clone();
        copy[slot] = value;
        return new(copy);
    }

    /// <inheritdoc/>
    public bool Equals(CarState? other) => other is not null && _slots.AsSpan().SequenceEqual(other._slots);

    /// <inheritdoc/>
    public override bool Equals(object? obj) => Equals(obj as CarState);

    /// <inheritdoc/>
    public override int GetHashCode()
    {
        var hash = new HashCode();
        hash.AddBytes(_slots);
        return hash.ToHashCode();
    }
}

/// <summary>Where each variable lives in a state.</summary>
internal static class StateLayout
{
    private static readonly StateVariable[] CarVars = [.. typeof(Car).GetFields().Select(f => f.GetValue(null)).OfType<StateVariable>()];
    private static readonly StateVariable[] CornerVars = [.. typeof(Corner).GetFields().Select(f => f.GetValue(null)).OfType<StateVariable>()];

    static StateLayout()
    {
        for (var i = 0; i < CarVars.Length; i++) CarVars[i].Index = i;
        for (var i = 0; i < CornerVars.Length; i++) CornerVars[i].Index = i;
    }

    public static int Slots => CarVars.Length + 2 * CornerVars.Length;

    public static int Slot(StateVariable variable, Side? side) => variable.PerCorner
        ? CarVars.Length + (side ?? throw new ArgumentException($"{variable.Noun} belongs to a corner.")) switch { Side.Left => 0, _ => CornerVars.Length } + variable.Index
        : variable.Index;

    public static (StateVariable Variable, Side? Side) At(int slot) => slot < CarVars.Length ? (CarVars[slot], null)
        : slot < CarVars.Length + CornerVars.Length ? (CornerVars[slot - CarVars.Length], Side.Left)
        : (CornerVars[slot - CarVars.Length - CornerVars.Length], Side.Right);
}

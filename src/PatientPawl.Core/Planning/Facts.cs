namespace PatientPawl.Core.Planning;

/// <summary>Facts and conditions in words.</summary>
internal static class Facts
{
    /// <summary>A condition in words, for example <c>left piston home</c>.</summary>
    public static string Words(BoundCondition condition) => condition.Origin.Says is { } says
        ? says
        : string.Join(", or ", condition.AnyOf.Select(a => string.Join(", ", a.Select(r => Wanted(r.Slot, r.Mask)))));

    /// <summary>What a condition lacks in this state, for example <c>The pedal is firm, and has to be proved first.</c></summary>
    public static string Lacks(BoundCondition condition, CarState state)
    {
        if (condition.AnyOf.Length == 1)
        {
            var missing = condition.AnyOf[0].Where(r => (r.Mask & 1u << state[r.Slot]) == 0).ToArray();
            if (missing.Length == 1 && condition.Origin.Says is null)
                return Lacks(missing[0].Slot, missing[0].Mask, state);
            return $"Needs {Words(condition)}. {string.Join(" ", missing.Take(3).Select(m => Lacks(m.Slot, m.Mask, state)))}";
        }

        return $"Needs {Words(condition)}.";
    }

    private static string Lacks(int slot, uint mask, CarState state)
    {
        if (StateLayout.At(slot).Variable is StateVariable<Done>)
            return (mask & 1u << StateVariable<Done>.Byte(Done.Yes)) != 0 ? $"Not done yet: {Name(slot)}." : $"Still there: {Name(slot)}.";
        // Nouns of things that come in numbers end in an s: pads, chocks, hydraulics.
        var (are, have) = StateLayout.At(slot).Variable.Noun.EndsWith('s') ? ("are", "have") : ("is", "has");
        return $"The {Name(slot)} {are} {Now(state, slot)}, and {have} to be {Wants(slot, mask)} first.";
    }

    private static string Wanted(int slot, uint mask) => $"{Name(slot)} {Wants(slot, mask)}";

    private static string Wants(int slot, uint mask) => new Requirement(StateLayout.At(slot).Variable, Where.Car, mask).Wanted;

    private static string Now(CarState state, int slot) => StateLayout.At(slot).Variable.Words(state[slot]);

    private static string Name(int slot)
    {
        var (variable, side) = StateLayout.At(slot);
        return side is { } s ? $"{s.Word()} {variable.Noun}" : variable.Noun;
    }
}

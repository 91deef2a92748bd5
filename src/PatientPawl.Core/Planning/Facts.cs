namespace PatientPawl.Core.Planning;

/// <summary>Facts and conditions in words.</summary>
internal static class Facts
{
    /// <summary>A condition in words, for example <c>left piston home</c>.</summary>
    public static string Words(BoundCondition condition) => condition.Origin.Says is { } says
        ? says
        : string.Join(", or ", condition.AnyOf.Select(a => string.Join(", ", a.Select(r => Wanted(r.Slot, r.Mask)))));

    /// <summary>What a condition lacks in this state, for example <c>Needs parking brake released: it is applied.</c></summary>
    public static string Lacks(BoundCondition condition, CarState state)
    {
        if (condition.AnyOf.Length == 1)
        {
            var missing = condition.AnyOf[0].Where(r => (r.Mask & 1u << state[r.Slot]) == 0).ToArray();
            if (missing.Length == 1 && condition.Origin.Says is null)
                return $"Needs {Wanted(missing[0].Slot, missing[0].Mask)}: it is {Now(state, missing[0].Slot)}.";
            var now = string.Join(", ", missing.Take(3).Select(m => $"{Name(m.Slot)} is {Now(state, m.Slot)}"));
            return $"Needs {Words(condition)}: {now}.";
        }

        return $"Needs {Words(condition)}.";
    }

    private static string Wanted(int slot, uint mask) => $"{Name(slot)} {new Requirement(StateLayout.At(slot).Variable, Where.Car, mask).Wanted}";

    private static string Now(CarState state, int slot) => StateLayout.At(slot).Variable.Words(state[slot]);

    private static string Name(int slot)
    {
        var (variable, side) = StateLayout.At(slot);
        return side is { } s ? $"{s.Word()} {variable.Noun}" : variable.Noun;
    }
}

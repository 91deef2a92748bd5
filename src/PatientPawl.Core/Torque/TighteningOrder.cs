namespace PatientPawl.Core.Torque;

/// <summary>In which order the bolts of a circle are tightened. Common practice, no source.</summary>
public static class TighteningOrder
{
    /// <summary>
    /// Star order for bolts numbered round the circle from 1: an odd number steps by (n-1)/2; an even number takes each of the star of its half and then
    /// the one across. 1 to 10 bolts.
    /// </summary>
    /// <exception cref="InputException">Outside 1 to 10.</exception>
    public static IReadOnlyList<int> Star(int bolts)
    {
        new Checks().Range("bolts", bolts, 1, 10, "").ThrowIfAny();
        return bolts % 2 == 0 && bolts > 2
            ? [.. Star(bolts / 2).SelectMany(j => new[] { j, j + bolts / 2 })]
            : [.. Enumerable.Range(0, bolts).Select(i => i * Math.Max(1, (bolts - 1) / 2) % bolts + 1)];
    }
}

namespace PatientPawl.Core.Measuring;

/// <summary>The middle of many values.</summary>
internal static class Middle
{
    /// <summary>The median: half of the values lie on either side of it, so that a single wild one moves it hardly at all.</summary>
    /// <param name="values">At least one.</param>
    public static double Median(ReadOnlySpan<double> values)
    {
        var sorted = values.ToArray();
        Array.Sort(sorted);
        return (sorted[(sorted.Length - 1) / 2] + sorted[sorted.Length / 2]) / 2;
    }
}

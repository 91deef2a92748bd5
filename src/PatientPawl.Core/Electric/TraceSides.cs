using PatientPawl.Core.Reasoning;

namespace PatientPawl.Core.Electric;

/// <summary>A difference between two traces, with the check that settles it.</summary>
/// <param name="Says">What differs, with its figures.</param>
/// <param name="Check">What would settle it.</param>
public sealed record TraceDifference(string Says, string Check);

/// <summary>Two traces side by side.</summary>
/// <param name="Alike">True where nothing differs that matters.</param>
/// <param name="Says">In a sentence.</param>
/// <param name="Differences">What differs.</param>
/// <param name="Reasons">Why.</param>
public sealed record TraceComparison(bool Alike, string Says, IReadOnlyList<TraceDifference> Differences, Reasons Reasons) : IReasoned;

/// <summary>Compares the traces of two sides, or of one side then and now. Common practice, no source.</summary>
[Engine]
public static class TraceSides
{
    private const double FreeRatio = 1.4, ApartSeconds = 0.3, EndShare = 0.2;

    /// <summary>
    /// Free current more than 1.4 apart, contact more than 0.3 s apart, end force a fifth apart, or another kind of end. Meant for later cycles:
    /// the first close after service depends on where each piston stood.
    /// </summary>
    /// <param name="one">One trace.</param>
    /// <param name="other">The other.</param>
    /// <param name="oneName">What the one is called: <c>left</c>, <c>now</c>.</param>
    /// <param name="otherName">What the other is called.</param>
    public static TraceComparison Compare(TraceReading one, TraceReading other, string oneName = "left", string otherName = "right")
    {
        ArgumentNullException.ThrowIfNull(one);
        ArgumentNullException.ThrowIfNull(other);
        var trail = new Trail("TraceSides.Compare");
        List<TraceDifference> found = [];
        string Of(bool first) => first ? oneName : otherName;
        if (Ending(one.Kind) != Ending(other.Kind))
            found.Add(new($"They end in another way: {oneName} {Lower(one.Name)}, {otherName} {Lower(other.Name)}.", "What stands by that side's trace comes first."));
        if ((one.Free?.Amperes, other.Free?.Amperes) is ({ } a, { } b) && Math.Max(a, b) / Math.Max(Math.Min(a, b), 0.05) is > FreeRatio and var ratio)
        {
            found.Add(new($"Free current {Figure.Of(a, 2)} A {oneName}, {Figure.Of(b, 2)} A {otherName}: {Figure.Of(ratio, 1)} times.", $"{Capital(Of(a > b))}: gears and spindle, dry or stiff; turn the wheel by hand to leave the pads out of it."));
            trail.Formula("Free current", "larger / smaller", $"{Figure.Of(Math.Max(a, b), 2)} / {Figure.Of(Math.Min(a, b), 2)}", Figure.Of(ratio, 2), "practice-trace");
        }

        if ((one.Contact?.Seconds, other.Contact?.Seconds) is ({ } s, { } t) && Math.Abs(s - t) > ApartSeconds)
            found.Add(new($"Contact after {Figure.Of(s, 2)} s {oneName}, {Figure.Of(t, 2)} s {otherName}.", $"{Capital(Of(s > t))} has further to go: pads seated, bracket tight, both pads in, pedal pumped."));
        if (Strength(one) is { } f && Strength(other) is { } g && Math.Abs(f - g) > EndShare * Math.Max(f, g))
            found.Add(new($"End force apart by {Figure.Of(100 * Math.Abs(f - g) / Math.Max(f, g), 0)} %, less {Of(f < g)}.", $"{Capital(Of(f < g))}: supply and earth of that motor, then its spindle."));
        if ((one.Rise?.AmperesPerSecond, other.Rise?.AmperesPerSecond) is ({ } p, { } q) && Math.Min(p, q) < 0.7 * Math.Max(p, q) && one.Kind != TraceKind.WeakSupply && other.Kind != TraceKind.WeakSupply)
            found.Add(new($"Rises with {Figure.Of(p, 1)} A/s {oneName}, {Figure.Of(q, 1)} A/s {otherName}: softer {Of(p < q)}.", "Not air: that circuit is the pedal's. Pads not seated, bracket loose, or one pad missing."));
        foreach (var d in found) trail.Evidence("Differs", d.Says, "practice-trace");
        var says = found.Count == 0 ? $"{Capital(oneName)} and {otherName} are alike." : found.Count == 1 ? found[0].Says : $"{Capital(oneName)} and {otherName} differ in {found.Count} ways.";
        trail.Conclude(says, "practice-trace").WouldChange("Another cycle: the second and later ones are compared, not the first.");
        return new(found.Count == 0, says, found, trail.Done());
    }

    /// <summary>Clamp where both have it, or the rise of the current over its free run, which goes with it.</summary>
    private static double? Strength(TraceReading r) => r.Contact is null ? null : r.Clamp?.Newtons ?? (r.End - r.Free)?.Amperes;

    private static int Ending(TraceKind kind) => kind switch
    {
        TraceKind.Clamps or TraceKind.LaterApply or TraceKind.RunsHeavy or TraceKind.DragsPiston => 0,
        TraceKind.Releases or TraceKind.IntoService => 1,
        TraceKind.NoCurrent => 2,
        TraceKind.Seized => 3,
        TraceKind.NothingToClamp => 4,
        _ => 5,
    };

    private static string Lower(string s) => char.ToLowerInvariant(s[0]) + s[1..];
    private static string Capital(string s) => char.ToUpperInvariant(s[0]) + s[1..];
}

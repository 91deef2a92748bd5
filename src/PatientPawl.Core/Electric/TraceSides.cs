using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Electric;

/// <summary>A difference between two traces, with the check that settles it.</summary>
/// <param name="Says">What differs, with its figures.</param>
/// <param name="Check">What would settle it.</param>
public sealed record TraceDifference(string Says, string Check);

/// <summary>Two traces side by side.</summary>
/// <param name="Alike">True where nothing differs that matters.</param>
/// <param name="Says">In a sentence.</param>
/// <param name="Apart">How far apart in time: to contact, or to their ends where nothing is clamped; null where one of them has neither.</param>
/// <param name="ToContact">True where it is the contact that is apart.</param>
/// <param name="Differences">What differs.</param>
/// <param name="Reasons">Why.</param>
public sealed record TraceComparison(
    bool Alike,
    string Says,
    Duration? Apart,
    bool ToContact,
    IReadOnlyList<TraceDifference> Differences,
    Reasons Reasons) : IReasoned;

/// <summary>Compares the traces of two sides, or of one side then and now. Common practice, no source.</summary>
[Engine]
public static class TraceSides
{
    private const double FreeRatio = 1.4, ApartSeconds = 0.3, EndShare = 0.2, SofterShare = 0.3;

    /// <summary>
    /// Free current more than 1.4 apart, contact more than 0.3 s apart, end force a fifth apart, a rise less steep by three tenths, or another
    /// kind of end. Meant for later cycles: the first close after service depends on where each piston stood.
    /// </summary>
    /// <param name="one">One trace.</param>
    /// <param name="other">The other.</param>
    /// <param name="oneName">What the one is called: <c>left</c>, <c>now</c>.</param>
    /// <param name="otherName">What the other is called.</param>
    public static TraceComparison Compare(TraceReading one, TraceReading other, string oneName = "left", string otherName = "right")
    {
        ArgumentNullException.ThrowIfNull(one);
        ArgumentNullException.ThrowIfNull(other);
        var pair = new Pair(one, other, oneName, otherName);
        TraceDifference[] found = [.. new[] { pair.Ends(), pair.Free(), pair.Contact(), pair.Force(), pair.Rise() }.OfType<TraceDifference>()];
        var trail = new Trail("TraceSides.Compare");
        foreach (var d in found) trail.Evidence("Differs", d.Says, "practice-trace");
        var says = found.Length switch
        {
            0 => $"{Phrase.Capital(oneName)} and {otherName} are alike.",
            1 => found[0].Says,
            _ => $"{Phrase.Capital(oneName)} and {otherName} differ in {found.Length} ways.",
        };
        trail.Conclude(says, "practice-trace").WouldChange("Another cycle: the second and later ones are compared, not the first.");
        var toContact = one.Contact is not null && other.Contact is not null;
        var apart = toContact ? one.Contact - other.Contact : one.Ended - other.Ended;
        return new(found.Length == 0, says, apart is { } by ? Duration.FromSeconds(Math.Abs(by.Seconds)) : null, toContact, found, trail.Done());
    }

    private sealed record Pair(TraceReading One, TraceReading Other, string OneName, string OtherName)
    {
        public TraceDifference? Ends() => Ending(One.Kind) == Ending(Other.Kind) ? null : new(
            $"They end in another way: {OneName} {Phrase.Small(One.Name)}, {OtherName} {Phrase.Small(Other.Name)}.",
            "What stands by that side's trace comes first.");

        public TraceDifference? Free()
        {
            // A current that is hardly there makes no ratio.
            if ((One.Free?.Amperes, Other.Free?.Amperes) is not ({ } a, { } b) || Math.Min(a, b) <= 0 || Ratio(a, b) <= FreeRatio) return null;
            return new(
                $"Free current {Figure.Of(a, 2)} A {OneName}, {Figure.Of(b, 2)} A {OtherName}: {Figure.Of(Ratio(a, b), 1)} times.",
                $"{Named(a > b)}: gears and spindle, dry or stiff; turn the wheel by hand to leave the pads out of it.");
        }

        public TraceDifference? Contact()
        {
            if ((One.Contact?.Seconds, Other.Contact?.Seconds) is not ({ } a, { } b) || Math.Abs(a - b) <= ApartSeconds) return null;
            return new(
                $"Contact after {Figure.Of(a, 2)} s {OneName}, {Figure.Of(b, 2)} s {OtherName}.",
                $"{Named(a > b)} has further to go: pads seated, bracket tight, both pads in, pedal pumped.");
        }

        public TraceDifference? Force()
        {
            if ((Strength(One), Strength(Other)) is not ({ } a, { } b) || Math.Abs(a - b) <= EndShare * Math.Max(a, b)) return null;
            return new(
                $"End force apart by {Figure.Of(100 * Math.Abs(a - b) / Math.Max(a, b), 0)} %, less {(a < b ? OneName : OtherName)}.",
                $"{Named(a < b)}: supply and earth of that motor, then its spindle.");
        }

        public TraceDifference? Rise()
        {
            if ((One.Rise?.AmperesPerSecond, Other.Rise?.AmperesPerSecond) is not ({ } a, { } b)) return null;
            // A supply that gives out bends the rise of its own accord.
            if (Math.Min(a, b) >= (1 - SofterShare) * Math.Max(a, b) || One.Kind == TraceKind.WeakSupply || Other.Kind == TraceKind.WeakSupply) return null;
            return new(
                $"Rises with {Figure.Of(a, 1)} A/s {OneName}, {Figure.Of(b, 1)} A/s {OtherName}: softer {(a < b ? OneName : OtherName)}.",
                "Not air: that circuit is the pedal's. Pads not seated, bracket loose, or one pad missing.");
        }

        private string Named(bool first) => Phrase.Capital(first ? OneName : OtherName);

        private static double Ratio(double a, double b) => Math.Max(a, b) / Math.Min(a, b);

        /// <summary>Clamp where there is one, or the rise of the current over its free run, which goes with it.</summary>
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
    }
}

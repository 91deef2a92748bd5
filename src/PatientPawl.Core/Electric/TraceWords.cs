namespace PatientPawl.Core.Electric;

/// <summary>The figures that a reading's sentences are made from: A, s, mm, N.</summary>
internal sealed record TraceFigures(
    double? Free, double? Contact, double? TravelMm, double End, double Seconds, double? ClampNewton, double? ClampDoubt, double Step, double HeavyAmps, bool IsShort);

/// <summary>What a kind of trace is called, what it means, and what to do about it.</summary>
/// <param name="Name">In a few words.</param>
/// <param name="Says">With its figures.</param>
/// <param name="Do">What to do; empty where there is nothing.</param>
internal sealed record TraceWords(string Name, string Says, string Do)
{
    public static TraceWords Of(TraceKind kind, TraceFigures f)
    {
        var run = f.Free is { } free ? $"{Figure.Of(free, 2)} A" : "";
        var travel = f.TravelMm is { } mm ? $" and {Figure.Of(mm, 2)} mm" : "";
        var meets = f.Contact is { } contact ? $"meets its pads after {Figure.Of(contact, 2)} s{travel}" : "";
        var ends = $"{Figure.Of(f.End, 1)} A after {Figure.Of(f.Seconds, 2)} s";
        var force = f.ClampNewton is { } n
            ? $" It clamps with about {Figure.Of(n / 1000, 0)} kN, in doubt by {Figure.Of(Math.Max(1, f.ClampDoubt!.Value / 1000), 0)}."
            : "";
        return kind switch
        {
            TraceKind.Seized => new(
                "Nothing turns",
                $"The inrush stays, to {ends}: the motor or its spindle is seized, or the brake was applied already.",
                "Read the state first. Released and still so: the actuator or its spindle is renewed."),
            TraceKind.NothingToClamp => new(
                "Nothing to clamp",
                $"It runs free at {run} for {Figure.Of(f.Seconds, 2)} s and meets nothing{(f.IsShort ? ", or it was let go of a brake that was not clamped" : "")}.",
                "Pads in on both sides of the rotor? Caliper on? Never closed again before that is seen."),
            TraceKind.Clamps => new(
                "Clamps",
                $"It runs at {run}, {meets} and ends at {ends}.{force} The first close after service is long; the next ones are short.",
                ""),
            TraceKind.LaterApply => new(
                "Clamps, a later apply",
                $"It runs at {run}, {meets} and ends at {ends}.{force} A short run is usual once it has been closed.",
                ""),
            TraceKind.RunsHeavy => new(
                "Runs heavily",
                $"Its free run takes {run}, more than {Figure.Of(f.HeavyAmps, 1)}: a dry spindle or dry gears. It {meets} and ends at {ends}.{force}",
                "Compare with the other side. Dry: the actuator off, the spindle cleaned and greased as its maker says, or renewed."),
            TraceKind.DragsPiston => new(
                "Drags the piston along",
                $"A step of {Figure.Of(f.Step, 2)} A before the knee: the nut pushed the piston and its caliper before the pads. The pedal was not pumped.",
                "Release, pump the pedal firm, and close again."),
            TraceKind.WeakSupply => new(
                "Weak supply",
                $"It {meets} and stands still at {ends}, short of its cut-off.{force}",
                "Charger on, posts and earth clean, then again."),
            TraceKind.Releases => new(
                "Lets go",
                $"The current falls from its start to {run} and ends after {Figure.Of(f.Seconds, 2)} s: it was clamped and lets go.",
                ""),
            TraceKind.IntoService => new(
                "Back to its stop",
                $"It runs back at {run} and rises at its end, after {Figure.Of(f.Seconds, 2)} s: the spindle has reached its stop.",
                ""),
            _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, "No such kind."),
        };
    }
}

using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Electric;

/// <summary>Reads current traces of brake motors.</summary>
[Engine]
public static class TraceReader
{
    /// <summary>
    /// Start, inrush, free run, knee and end of one stroke, and what they mean. The knee is found by least squares; the travel is the integral
    /// of (V - i R)/Ke times the nut's travel a radian; the clamp is Kt (i_end - i_free) eta/r.
    /// </summary>
    /// <param name="trace">The trace.</param>
    /// <param name="motor">The motor's constants; null gives times and currents only.</param>
    /// <param name="direction">What the motor did, where somebody knows; null lets the shape say it.</param>
    /// <param name="stroke">Which stroke of the trace, from 1.</param>
    /// <exception cref="InputException">A trace whose start is cut off, a stroke that is not there, or constants no motor has.</exception>
    public static TraceReading Read(CurrentTrace trace, MotorConstants? motor = null, TraceDirection? direction = null, int stroke = 1)
    {
        ArgumentNullException.ThrowIfNull(trace);
        motor?.Checked();
        var trail = new Trail("TraceReader.Read")
            .Input("Trace", $"{trace.Count} points, {Figure.Of(trace.Rate.Hertz, 0)} a second, {Figure.Of(trace.Lasts.Seconds, 2)} s");
        return TraceShape.Of(trace, stroke) is { } shape ? new StrokeReader(shape, motor, direction, Notes(shape, stroke), trail).Read() : NoCurrent(trail);
    }

    private static List<string> Notes(TraceShape shape, int stroke)
    {
        List<string> notes = [];
        if (Math.Abs(shape.Offset) > 0.05) notes.Add($"The meter's zero stood at {Figure.Of(shape.Offset, 2)} A and was taken off.");
        if (shape.Turned) notes.Add("The currents were negative: the clamp was read the other way round.");
        if (shape.Strokes > 1) notes.Add($"The trace has {shape.Strokes} strokes; this is number {stroke}.");
        if (shape.CutShort) notes.Add("The current still flows at the last point: the end is cut off.");
        return notes;
    }

    private static TraceReading NoCurrent(Trail trail)
    {
        const string Says = "No current flows: the circuit is open, or its fuse is blown.";
        trail.Conclude(Says, "practice-trace").WouldChange("The clamp round one conductor of one side, and the switch pressed while it records.");
        return new(
            TraceKind.NoCurrent, "No current", Says, "Look at the plug, the fuse and the lead; measure again on the other side.",
            null, null, null, null, null, null, null, null, null, null, null, null, null, 0, [], trail.Done());
    }
}

/// <summary>
/// One stroke with what is found in it. Its bounds are common practice and ours, set so that traces of every kind with a known truth are told
/// apart through noise (source <c>practice-trace</c>).
/// </summary>
internal sealed class StrokeReader(TraceShape shape, MotorConstants? motor, TraceDirection? direction, List<string> notes, Trail trail)
{
    // The efficiency of a train that nobody gives, and by how much it is in doubt; with it given, what the other constants leave.
    private const double DefaultEfficiency = 0.30, EfficiencyDoubt = 0.30, ConstantsDoubt = 0.05;

    // A free run over this is heavy; a rise under this is none; contact sooner than this, or after less travel, is a later apply.
    private const double HeavyAmps = 3.5, LeastRiseAmps = 0.6, ShortRunSeconds = 0.7, ShortTravelMm = 1.2;

    // Off so soon, and over so much current, nothing turned; the inrush stays where it never falls under this share of its peak.
    private const double AtOnceSeconds = 0.25, StalledAmps = 6, StaysShare = 0.6, LeastPeakAmps = 8;

    // A run that meets nothing for this long is no release of a brake that was not clamped.
    private const double LongRunSeconds = 2;

    // Flat at its end and so far short of the cut-off: the supply gave no more.
    private const double FlatAmpsPerSecond = 2, LeastClampAmps = 2, LeastClampSeconds = 0.5, ShortOfCutOffAmps = 0.7;

    // A release falls by this much from where it starts; against a back stop the current jumps by so much within hundredths of a second.
    private const double FallAmps = 0.8, EarlySeconds = 0.06, StopAmps = 1.5, StopSeconds = 0.16, LastSeconds = 0.08;

    private readonly double _end = shape.End();
    private readonly double _seconds = shape.Seconds;

    public TraceReading Read()
    {
        trail.Formula("Zero", "mean before the start", "", $"{Figure.Of(shape.Offset, 2)} A", "practice-trace");
        if (IsSeized()) return Make(TraceKind.Seized, null, null);
        var knee = shape.FindKnee();
        var low = Lowest() ?? _end;
        if (direction == TraceDirection.Release || Falls(knee, low)) return Make(ReachesItsStop(low) ? TraceKind.IntoService : TraceKind.Releases, low, null);
        if (knee is null || knee.Gain <= 0 || _end - knee.Level <= Math.Max(LeastRiseAmps, 4 * shape.Noise))
            return Make(TraceKind.NothingToClamp, knee?.Level ?? low, null);
        var jumps = _seconds - knee.At < StopSeconds && _end - knee.Level > StopAmps && knee.At > ShortRunSeconds;
        return direction is null && jumps ? Make(TraceKind.IntoService, knee.Level, null) : Make(Clamping(knee), knee.Level, knee);
    }

    // A motor that turns falls to its free run once, however high it ends.
    private bool IsSeized() =>
        (_seconds < AtOnceSeconds && shape.Level(_seconds / 2, _seconds) > StalledAmps) || Lowest() > StaysShare * Math.Max(shape.Peak, LeastPeakAmps);

    /// <summary>A clamp only ever rises; what falls from its start lets go, and a knee behind the low belongs to its end.</summary>
    private bool Falls(Knee? knee, double low)
    {
        var fall = (shape.Level(TraceShape.Blanking, TraceShape.Blanking + EarlySeconds) ?? 0) - low;
        var scatter = shape.Noise / Math.Sqrt(Math.Max(1, EarlySeconds / shape.Step));
        return fall > Math.Max(FallAmps, 6 * scatter) && (knee is null || fall > (_end - low) / 2 || knee.At > _seconds / 2);
    }

    /// <summary>The lowest of twelve equal parts after the inrush; null where nothing is left after it.</summary>
    private double? Lowest()
    {
        var part = (_seconds - TraceShape.Blanking) / 12;
        return Enumerable.Range(0, 12).Select(k => shape.Level(TraceShape.Blanking + k * part, TraceShape.Blanking + (k + 1) * part)).Min();
    }

    private bool ReachesItsStop(double low)
    {
        var last = shape.Stroke.TakeLast(1 + Math.Max(3, (int)(LastSeconds / shape.Step))).Max();
        return last - low > Math.Max(StopAmps, 5 * shape.Noise);
    }

    private TraceKind Clamping(Knee knee)
    {
        var clamps = _end - knee.Level > LeastClampAmps && _seconds - knee.At > LeastClampSeconds;
        var notReached = motor?.CutOff is not { } cutOff || _end < cutOff.Amperes - ShortOfCutOffAmps;
        if (!shape.CutShort && clamps && notReached && shape.EndSlope(0.3) < FlatAmpsPerSecond) return TraceKind.WeakSupply;
        if (knee.Level > HeavyAmps) return TraceKind.RunsHeavy;
        if (StepBefore(knee) > 0) return TraceKind.DragsPiston;
        var isShort = TravelMm(knee.At) is { } mm ? mm <= ShortTravelMm : knee.At <= ShortRunSeconds;
        return isShort ? TraceKind.LaterApply : TraceKind.Clamps;
    }

    private double StepBefore(Knee knee) => shape.StepWithin(knee.At - knee.Doubt);

    private double? TravelMm(double until)
    {
        if (motor is null) return null;
        var radians = 0.0;
        for (var k = 0; k < shape.Stroke.Length && (k + 1) * shape.Step <= until; k++)
            radians += (motor.Supply.Volts - shape.Stroke[k] * motor.Resistance.Ohms) / motor.TorqueConstant * shape.Step;
        return Math.Max(0, radians * motor.MetresPerRadian * 1000);
    }

    /// <summary>The reading: what was found, with its doubt and its words.</summary>
    /// <param name="kind">The kind.</param>
    /// <param name="free">Level of the free run; null where there is none.</param>
    /// <param name="knee">The contact; null where nothing is clamped.</param>
    private TraceReading Make(TraceKind kind, double? free, Knee? knee)
    {
        // The level rests on so many points; a clamp meter is read to hundredths.
        var points = Math.Max(1, ((knee?.At ?? _seconds) - TraceShape.Blanking) / shape.Step);
        double? freeDoubt = free is null ? null : 2 * shape.Noise / Math.Sqrt(points) + 0.02;
        if (free is { } level)
            trail.Formula("Free run", "level before the knee, least squares", "", $"{Figure.Of(level, 2)} ± {Figure.Of(freeDoubt!.Value, 2)} A", "practice-trace");
        double? travel = null, travelDoubt = null, clamp = null, clampDoubt = null, rise = null;
        if (knee is not null)
        {
            trail.Formula(
                "Contact",
                "knee of least squares: a level, then i0 + A (1 - exp(-t/tau))",
                $"A {Figure.Of(knee.Gain, 1)} A, tau {Figure.Of(knee.Tau, 2)} s",
                $"{Figure.Of(knee.At, 3)} ± {Figure.Of(knee.Doubt, 3)} s",
                "motor-equations");
            rise = (_end - knee.Level) / Math.Max(shape.Step, _seconds - knee.At);
            (travel, travelDoubt) = Travel(knee);
            (clamp, clampDoubt) = Clamp(knee.Level);
        }

        var words = TraceWords.Of(kind, new(free, knee?.At, travel, _end, _seconds, clamp, clampDoubt, knee is null ? 0 : StepBefore(knee), HeavyAmps, _seconds < LongRunSeconds));
        trail.Conclude(words.Says, "practice-trace")
            .WouldChange(motor is null ? "The motor's constants would give travel and clamping force." : "A finer clamp meter, or another efficiency.");
        return new(
            kind, words.Name, words.Says, words.Do, S(shape.Start), A(shape.Peak), A(free), A(freeDoubt), S(knee?.At), S(knee?.Doubt), Mm(travel), Mm(travelDoubt),
            rise is { } r ? ElectricCurrentGradient.FromAmperesPerSecond(r) : null, A(_end), S(_seconds), N(clamp), N(clampDoubt), shape.Strokes, notes, trail.Done());
    }

    private (double? Mm, double? Doubt) Travel(Knee knee)
    {
        if (TravelMm(knee.At) is not { } mm) return (null, null);
        trail.Formula(
            "Travel to contact",
            "integral of (V - i R)/Ke × lead/(2 pi G)",
            $"{Figure.Of(motor!.Supply.Volts, 1)} V, {Figure.Of(motor.Resistance.Ohms, 2)} ohm",
            $"{Figure.Of(mm, 2)} mm",
            "motor-equations");
        // In doubt by what the constants leave, and by what it runs while the knee is in doubt.
        return (mm, ConstantsDoubt * mm + knee.Doubt * mm / Math.Max(knee.At, shape.Step));
    }

    private (double? Newton, double? Doubt) Clamp(double free)
    {
        if (motor is null) return (null, null);
        var eta = motor.Efficiency ?? DefaultEfficiency;
        var force = motor.TorqueConstant * (_end - free) * eta / motor.MetresPerRadian;
        if (motor.Efficiency is null)
            trail.Default("Efficiency of the train", $"{Figure.Of(DefaultEfficiency, 2)}, in doubt by {Figure.Of(EfficiencyDoubt * 100, 0)} %", "practice-trace");
        trail.Formula(
            "Clamp",
            "Kt (i_end - i_free) eta × 2 pi G/lead",
            $"{Figure.Of(motor.TorqueConstant, 4)} × ({Figure.Of(_end, 1)} - {Figure.Of(free, 2)}) × {Figure.Of(eta, 2)} × {Figure.Of(1 / motor.MetresPerRadian, 0)}",
            $"{Figure.Of(force / 1000, 1)} kN",
            "motor-equations");
        return (force, force * (motor.Efficiency is null ? EfficiencyDoubt : ConstantsDoubt));
    }

    private static Duration? S(double? s) => s is { } v ? Duration.FromSeconds(v) : null;
    private static ElectricCurrent? A(double? a) => a is { } v ? ElectricCurrent.FromAmperes(v) : null;
    private static Length? Mm(double? mm) => mm is { } v ? Length.FromMillimeters(v) : null;
    private static Force? N(double? n) => n is { } v ? Force.FromNewtons(v) : null;
}

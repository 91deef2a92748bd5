using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Electric;

/// <summary>A motor, its gears and its spindle, as the maker or the sheet gives them.</summary>
/// <param name="Supply">Voltage with nothing drawn, 6 to 16 V.</param>
/// <param name="Resistance">From the battery through the motor, 0.05 to 10 ohm.</param>
/// <param name="TorqueConstant">N m/A, the same number as V s/rad; 0.001 to 1.</param>
/// <param name="GearRatio">From motor to spindle, 1 to 2000.</param>
/// <param name="Lead">Of the spindle, 0.3 to 10 mm a turn.</param>
/// <param name="Efficiency">Of the whole train, 0.05 to 0.95; null takes the flagged default.</param>
/// <param name="CutOff">Current at which the unit ends an apply, 1 to 60 A; null when not known.</param>
public sealed record MotorConstants(
    ElectricPotential Supply,
    ElectricResistance Resistance,
    double TorqueConstant,
    double GearRatio,
    Length Lead,
    double? Efficiency = null,
    ElectricCurrent? CutOff = null)
{
    /// <summary>Refuses figures no motor has.</summary>
    /// <exception cref="InputException">Naming each field, value and range.</exception>
    public MotorConstants Checked()
    {
        new Checks().Range("motor.supplyV", Supply.Volts, 6, 16, "V").Range("motor.resistanceOhm", Resistance.Ohms, 0.05, 10, "ohm")
            .Range("motor.torqueConstant", TorqueConstant, 0.001, 1, "N m/A").Range("motor.gearRatio", GearRatio, 1, 2000, "")
            .Millimetres("motor.leadMm", Lead, 0.3, 10).Range("motor.efficiency", Efficiency, 0.05, 0.95, "").Range("motor.cutOffA", CutOff?.Amperes, 1, 60, "A").ThrowIfAny();
        return this;
    }
}

/// <summary>What a trace shows.</summary>
public enum TraceKind
{
    /// <summary>No current.</summary>
    NoCurrent,
    /// <summary>The inrush stays: nothing turns.</summary>
    Seized,
    /// <summary>It runs and meets nothing.</summary>
    NothingToClamp,
    /// <summary>It runs, meets its pads and clamps.</summary>
    Clamps,
    /// <summary>It clamps after a short run: a later apply.</summary>
    LaterApply,
    /// <summary>It runs with too much current.</summary>
    RunsHeavy,
    /// <summary>It drags a piston along before it clamps.</summary>
    DragsPiston,
    /// <summary>It clamps and does not reach its end.</summary>
    WeakSupply,
    /// <summary>It lets go.</summary>
    Releases,
    /// <summary>It goes back to its stop.</summary>
    IntoService,
}

/// <summary>A current trace, read.</summary>
/// <param name="Kind">What it shows.</param>
/// <param name="Name">In a few words.</param>
/// <param name="Says">What it means, with its figures.</param>
/// <param name="Do">What to do about it; empty where there is nothing.</param>
/// <param name="Start">When the current starts; null where none flows.</param>
/// <param name="Inrush">Its first peak.</param>
/// <param name="Free">Current of the free run.</param>
/// <param name="FreeDoubt">Its doubt, 95 %.</param>
/// <param name="Contact">From the start to the knee.</param>
/// <param name="ContactDoubt">Its doubt, 95 %.</param>
/// <param name="Travel">What the nut travels until then; null without the motor's constants.</param>
/// <param name="TravelDoubt">Its doubt.</param>
/// <param name="Rise">How fast the current rises after contact.</param>
/// <param name="End">Current at its end.</param>
/// <param name="Ended">From the start to its end.</param>
/// <param name="Clamp">Clamping force; null without the motor's constants or without a clamp.</param>
/// <param name="ClampDoubt">Its doubt.</param>
/// <param name="Strokes">Strokes in the trace.</param>
/// <param name="Notes">How it was read: zero, sign, what is cut.</param>
/// <param name="Reasons">Why.</param>
public sealed record TraceReading(
    TraceKind Kind,
    string Name,
    string Says,
    string Do,
    Duration? Start,
    ElectricCurrent? Inrush,
    ElectricCurrent? Free,
    ElectricCurrent? FreeDoubt,
    Duration? Contact,
    Duration? ContactDoubt,
    Length? Travel,
    Length? TravelDoubt,
    ElectricCurrentGradient? Rise,
    ElectricCurrent? End,
    Duration? Ended,
    Force? Clamp,
    Force? ClampDoubt,
    int Strokes,
    IReadOnlyList<string> Notes,
    Reasons Reasons) : IReasoned;

/// <summary>Reads current traces of brake motors.</summary>
[Engine]
public static class TraceReader
{
    private const double DefaultEfficiency = 0.30, EfficiencyDoubt = 0.30;
    private const double HeavyAmps = 3.5, LeastRise = 0.6, ShortRun = 0.7, ShortTravelMm = 1.2, AtOnce = 0.25, LongRun = 2.0, FlatSlope = 2.0;

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
        var trail = new Trail("TraceReader.Read").Input("Trace", $"{trace.Count} points, {Figure.Of(trace.Rate.Hertz, 0)} a second, {Figure.Of(trace.Lasts.Seconds, 2)} s");
        if (TraceShape.Of(trace, stroke) is not { } shape) return NoCurrent(trail);
        List<string> notes = [];
        trail.Formula("Zero", "mean before the start", "", $"{Figure.Of(shape.Offset, 2)} A", "practice-trace");
        if (Math.Abs(shape.Offset) > 0.05) notes.Add($"The meter's zero stood at {Figure.Of(shape.Offset, 2)} A and was taken off.");
        if (shape.Turned) notes.Add("The currents were negative: the clamp was read the other way round.");
        if (shape.Strokes > 1) notes.Add($"The trace has {shape.Strokes} strokes; this is number {stroke}.");
        if (shape.CutShort) notes.Add("The current still flows at the last point: the end is cut off.");
        return new Found(shape, motor, direction, notes, trail).Read();
    }

    private static TraceReading NoCurrent(Trail trail)
    {
        const string Says = "No current flows: the circuit is open, or its fuse is blown.";
        trail.Conclude(Says, "practice-trace").WouldChange("The clamp round one conductor of one side, and the switch pressed while it records.");
        return new(TraceKind.NoCurrent, "No current", Says, "Look at the plug, the fuse and the lead; measure again on the other side.",
            null, null, null, null, null, null, null, null, null, null, null, null, null, 0, [], trail.Done());
    }

    /// <summary>One stroke with what is found in it.</summary>
    private sealed class Found(TraceShape shape, MotorConstants? motor, TraceDirection? direction, List<string> notes, Trail trail)
    {
        private readonly double _end = shape.End();
        private readonly double _seconds = shape.Seconds;

        public TraceReading Read()
        {
            if (IsSeized()) return Make(TraceKind.Seized, null, null);
            var knee = shape.FindKnee();
            var (falls, low) = Falling(knee);
            if (falls || direction == TraceDirection.Release) return Backwards(low);
            var free = knee?.Level ?? shape.Level(0.12, _seconds) ?? _end;
            var rises = knee is not null && _end - knee.Level > Math.Max(LeastRise, 4 * shape.Noise) && knee.Gain > 0;
            // Against a back stop the current jumps within hundredths of a second; pads and calipers give way over tenths.
            if (direction is null && rises && _seconds - knee!.At < 0.16 && _end - knee.Level > 1.5 && knee.At > ShortRun) return Make(TraceKind.IntoService, free, null);
            if (!rises) return Make(TraceKind.NothingToClamp, free, null);
            return Make(Clamping(free, knee!), free, knee);
        }

        private bool IsSeized()
        {
            // A motor that turns falls to its free run once, however high it ends.
            var settled = shape.Level(Math.Min(0.08, _seconds / 2), _seconds);
            return (_seconds < AtOnce && settled > 6) || Lowest() > 0.6 * Math.Max(shape.Peak, 8);
        }

        private (bool Falls, double Low) Falling(Knee? knee)
        {
            var early = shape.Level(0.12, 0.18) ?? 0;
            var low = Lowest() ?? early;
            var margin = Math.Max(0.8, 6 * shape.Noise / Math.Sqrt(Math.Max(1, 0.06 / shape.Step)));
            // A knee that lies behind the low belongs to the end of a release; a clamp only ever rises.
            return (early - low > margin && (knee is null || early - low > 0.5 * (_end - low) || knee.At > _seconds / 2), low);
        }

        private double? Lowest() =>
            Enumerable.Range(0, 12).Select(k => shape.Level(0.12 + k * (_seconds - 0.12) / 12, 0.12 + (k + 1) * (_seconds - 0.12) / 12)).Min();

        private TraceReading Backwards(double low)
        {
            var last = shape.Stroke.Skip(Math.Max(0, shape.Stroke.Length - 1 - Math.Max(3, (int)(0.08 / shape.Step)))).Max();
            var toTheStop = last - low > Math.Max(1.5, 5 * shape.Noise);
            return Make(toTheStop ? TraceKind.IntoService : TraceKind.Releases, low, null);
        }

        private TraceKind Clamping(double free, Knee knee)
        {
            var cutOff = motor?.CutOff?.Amperes;
            if (!shape.CutShort && shape.EndSlope(0.3) < FlatSlope && _end - free > 2 && _seconds - knee.At > 0.5 && (cutOff is null || _end < cutOff - 0.7)) return TraceKind.WeakSupply;
            if (free > HeavyAmps) return TraceKind.RunsHeavy;
            if (shape.StepWithin(knee.At - knee.Doubt) > 0) return TraceKind.DragsPiston;
            return TravelMm(knee.At) is { } mm ? mm <= ShortTravelMm ? TraceKind.LaterApply : TraceKind.Clamps : knee.At <= ShortRun ? TraceKind.LaterApply : TraceKind.Clamps;
        }

        private double? TravelMm(double until)
        {
            if (motor is null) return null;
            var metres = 0.0;
            for (var k = 0; k < shape.Stroke.Length && (k + 1) * shape.Step <= until; k++)
                metres += (motor.Supply.Volts - shape.Stroke[k] * motor.Resistance.Ohms) / motor.TorqueConstant * PerRadian(motor) * shape.Step;
            return Math.Max(0, metres * 1000);
        }

        private static double PerRadian(MotorConstants m) => m.Lead.Meters / (2 * Math.PI * m.GearRatio);

        private TraceReading Make(TraceKind kind, double? free, Knee? knee)
        {
            var clamps = knee is not null;
            // The level rests on so many points, and on the knee being where it is.
            double? freeDoubt = free is null ? null : 2 * shape.Noise / Math.Sqrt(Math.Max(1, ((knee?.At ?? _seconds) - 0.12) / shape.Step)) + 0.02;
            var travel = clamps ? TravelMm(knee!.At) : null;
            double? rise = clamps ? (_end - knee!.Level) / Math.Max(shape.Step, _seconds - knee.At) : null;
            var (clamp, clampDoubt) = clamps && motor is not null ? Clamp(free!.Value) : (null, null);
            if (free is { } level) trail.Formula("Free run", "level before the knee, least squares", "", $"{Figure.Of(level, 2)} ± {Figure.Of(freeDoubt!.Value, 2)} A", "practice-trace");
            if (clamps) trail.Formula("Contact", "knee of least squares: a level, then i0 + A (1 - exp(-t/tau))", $"A {Figure.Of(knee!.Gain, 1)} A, tau {Figure.Of(knee.Tau, 2)} s", $"{Figure.Of(knee.At, 3)} ± {Figure.Of(knee.Doubt, 3)} s", "motor-equations");
            if (travel is { } mm)
                trail.Formula("Travel to contact", "integral of (V - i R)/Ke × lead/(2 pi G)", $"{Figure.Of(motor!.Supply.Volts, 1)} V, {Figure.Of(motor.Resistance.Ohms, 2)} ohm", $"{Figure.Of(mm, 2)} mm", "motor-equations");
            var (name, says, does) = Words(kind, free, knee, travel, clamp, clampDoubt);
            trail.Conclude(says, "practice-trace").WouldChange(motor is null ? "The motor's constants would give travel and clamping force." : "A finer clamp meter, or another efficiency.");
            return new(kind, name, says, does, S(shape.Start), A(shape.Peak), A(free), A(freeDoubt), S(knee?.At), S(knee?.Doubt), Mm(travel),
                Mm(travel is { } t ? Math.Max(0.05, 0.04 * t) + (knee!.Doubt * (travel / Math.Max(knee.At, 0.01))) : null),
                rise is { } r ? ElectricCurrentGradient.FromAmperesPerSecond(r) : null, A(_end), S(_seconds), N(clamp), N(clampDoubt), shape.Strokes, notes, trail.Done());
        }

        private (double? Clamp, double? Doubt) Clamp(double free)
        {
            var eta = motor!.Efficiency ?? DefaultEfficiency;
            var force = motor.TorqueConstant * (_end - free) * eta / PerRadian(motor);
            if (motor.Efficiency is null) trail.Default("Efficiency of the train", $"{Figure.Of(DefaultEfficiency, 2)}, in doubt by {Figure.Of(EfficiencyDoubt * 100, 0)} %", "practice-trace");
            trail.Formula("Clamp", "Kt (i_end - i_free) eta × 2 pi G/lead", $"{Figure.Of(motor.TorqueConstant, 4)} × ({Figure.Of(_end, 1)} - {Figure.Of(free, 2)}) × {Figure.Of(eta, 2)} × {Figure.Of(1 / PerRadian(motor), 0)}", $"{Figure.Of(force / 1000, 1)} kN", "motor-equations");
            return (force, force * (motor.Efficiency is null ? EfficiencyDoubt : 0.05));
        }

        private (string Name, string Says, string Do) Words(TraceKind kind, double? free, Knee? knee, double? travel, double? clamp, double? clampDoubt)
        {
            var run = free is { } f ? $"{Figure.Of(f, 2)} A" : "";
            var meets = knee is null ? "" : $"after {Figure.Of(knee.At, 2)} s{(travel is { } mm ? $" and {Figure.Of(mm, 2)} mm" : "")}";
            var ends = $"{Figure.Of(_end, 1)} A after {Figure.Of(_seconds, 2)} s";
            var force = clamp is { } n ? $" It clamps with about {Figure.Of(n / 1000, 0)} kN, in doubt by {Figure.Of(Math.Max(1, clampDoubt!.Value / 1000), 0)}." : "";
            return kind switch
            {
                TraceKind.Seized => ("Nothing turns", $"The inrush stays, to {ends}: the motor or its spindle is seized, or the brake was applied already.",
                    "Read the state first. Released and still so: the actuator or its spindle is renewed."),
                TraceKind.NothingToClamp => ("Nothing to clamp", $"It runs free at {run} for {Figure.Of(_seconds, 2)} s and meets nothing{(_seconds < LongRun ? ", or it was let go of a brake that was not clamped" : "")}.",
                    "Pads in on both sides of the rotor? Caliper on? Never closed again before that is seen."),
                TraceKind.Clamps => ("Clamps", $"It runs at {run}, meets its pads {meets} and ends at {ends}.{force} The first close after service is long; the next ones are short.", ""),
                TraceKind.LaterApply => ("Clamps, a later apply", $"It runs at {run}, meets its pads {meets} and ends at {ends}.{force} A short run is usual once it has been closed.", ""),
                TraceKind.RunsHeavy => ("Runs heavily", $"Its free run takes {run}, more than {Figure.Of(HeavyAmps, 1)}: a dry spindle or dry gears. It meets its pads {meets} and ends at {ends}.{force}",
                    "Compare with the other side. Dry: the actuator off, the spindle cleaned and greased as its maker says, or renewed."),
                TraceKind.DragsPiston => ("Drags the piston along", $"A step of {Figure.Of(shape.StepWithin(knee!.At - knee.Doubt), 2)} A before the knee: the nut pushed the piston and its caliper before the pads. The pedal was not pumped.",
                    "Release, pump the pedal firm, and close again."),
                TraceKind.WeakSupply => ("Weak supply", $"It meets its pads {meets} and stands still at {ends}, short of its cut-off.{force}", "Charger on, posts and earth clean, then again."),
                TraceKind.Releases => ("Lets go", $"The current falls from its start to {run} and ends after {Figure.Of(_seconds, 2)} s: it was clamped and lets go.", ""),
                TraceKind.IntoService => ("Back to its stop", $"It runs back at {run} and rises at its end, after {Figure.Of(_seconds, 2)} s: the spindle has reached its stop.", ""),
                _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, "No such kind."),
            };
        }

        private static Duration? S(double? s) => s is { } v ? Duration.FromSeconds(v) : null;
        private static ElectricCurrent? A(double? a) => a is { } v ? ElectricCurrent.FromAmperes(v) : null;
        private static Length? Mm(double? mm) => mm is { } v ? Length.FromMillimeters(v) : null;
        private static Force? N(double? n) => n is { } v ? Force.FromNewtons(v) : null;
    }
}

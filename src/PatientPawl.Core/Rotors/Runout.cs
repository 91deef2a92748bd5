using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Rotors;

/// <summary>What the dial showed at one angle.</summary>
/// <param name="Angle">From stud 1 on the hub, in the sense the rotor is turned, 0 up to 360 degrees.</param>
/// <param name="Deflection">The dial, -5 to 5 mm.</param>
public sealed record RunoutReading(Angle Angle, Length Deflection);

/// <summary>A run of the dial round the rotor.</summary>
/// <param name="Readings">At least 3 angles, 12 are usual.</param>
/// <param name="Instrument">The dial.</param>
/// <param name="MovedBy">How far the rotor stands turned on the hub from its first position, in the sense the angles are counted.</param>
public sealed record RunoutRun(IReadOnlyList<RunoutReading> Readings, Instrument Instrument, Angle MovedBy);

/// <summary>A point of the fitted curve.</summary>
/// <param name="Angle">Angle.</param>
/// <param name="Deflection">Deflection there.</param>
public sealed record CurvePoint(Angle Angle, Length Deflection);

/// <summary>Runout judged and its once-per-turn part fitted.</summary>
/// <param name="Total">Total indicated: largest minus smallest.</param>
/// <param name="TotalVerdict">Its verdict.</param>
/// <param name="Offset">c of the fit.</param>
/// <param name="CosinePart">a of the fit.</param>
/// <param name="SinePart">b of the fit.</param>
/// <param name="OncePerTurn">2 A, A = hypot(a, b).</param>
/// <param name="HighAt">Where the once-per-turn part stands highest.</param>
/// <param name="VectorDoubt">Standard uncertainty of a and b, the larger.</param>
/// <param name="Residual">What the fit leaves, largest minus smallest: the rotor's own shape. Not judged under five angles.</param>
/// <param name="ResidualJudged">False under five angles.</param>
/// <param name="Curve">The fitted curve.</param>
/// <param name="SettledBy">What would settle the total.</param>
/// <param name="Notes">What else to know.</param>
/// <param name="Reasons">Why.</param>
public sealed record RunoutVerdict(
    Length Total, LimitVerdict TotalVerdict, Length Offset, Length CosinePart, Length SinePart, Length OncePerTurn, Angle HighAt, Length VectorDoubt, Length Residual, bool ResidualJudged,
    IReadOnlyList<CurvePoint> Curve, IReadOnlyList<SettledBy> SettledBy, IReadOnlyList<string> Notes, Reasons Reasons) : IReasoned;

/// <summary>Fits the once-per-turn part of a runout.</summary>
[Engine]
public static class Runout
{
    /// <summary>Lateral runout when the sheet is silent: 0.08 mm (from memory, flagged).</summary>
    public static Length DefaultLimit { get; } = Length.FromMillimeters(0.08);

    /// <summary>
    /// Least squares of r = c + a cos theta + b sin theta; once-per-turn runout is 2 A with A = hypot(a, b); what is left is shape. The total is a
    /// difference of two readings.
    /// </summary>
    /// <param name="run">The run.</param>
    /// <param name="limit">Limit of the total, 0.005 to 1 mm; null uses the flagged default.</param>
    /// <param name="onHand">Instruments in date.</param>
    /// <exception cref="InputException">Fewer than three angles, the same angle twice, or a dial that cannot show it.</exception>
    public static RunoutVerdict Fit(RunoutRun run, Length? limit, IReadOnlyList<Instrument> onHand)
    {
        ArgumentNullException.ThrowIfNull(run);
        ArgumentNullException.ThrowIfNull(onHand);
        Check(run, limit);
        var n = run.Readings.Count;
        var (c, a, b, inverse) = Solve(run.Readings);
        var fitted = run.Readings.Select(r => c + a * Math.Cos(r.Angle.Radians) + b * Math.Sin(r.Angle.Radians)).ToArray();
        var left = run.Readings.Select((r, i) => r.Deflection.Millimeters - fitted[i]).ToArray();
        double total = run.Readings.Max(r => r.Deflection.Millimeters) - run.Readings.Min(r => r.Deflection.Millimeters), amplitude = Math.Sqrt(a * a + b * b);
        var budget = UncertaintyBudget.Of(run.Instrument);
        var u = budget.Combined.Millimeters * Math.Sqrt(Math.Max(inverse[1, 1], inverse[2, 2]));
        var verdict = LimitJudgement.Against(new(Judged.TotalRunout), L(total), budget.OfDifference(), limit ?? DefaultLimit, LimitKind.Maximum, run.Instrument, limit is null ? "practice-rotor" : null,
            Verdicts.SpreadRound(run.Readings.Select(r => r.Angle.Degrees), 8) ? [] : ["runout at eight angles spread round the turn"]);
        var high = Angle.FromDegrees((Math.Atan2(b, a) * 180 / Math.PI + 360) % 360);
        var residual = left.Max() - left.Min();
        List<string> notes = ["All wheel nuts on with flat washers, gear in neutral, bearing play checked first, stylus 10 mm in from the edge."];
        if (n < 5) notes.Insert(0, $"{n} angles only: what is left after the fit cannot be judged.");

        var trail = new Trail("Runout.Fit").Input("Readings", $"{n} angles, {run.Instrument.Name}")
            .Formula("Total", "largest - smallest", $"{Figure.Of(run.Readings.Max(r => r.Deflection.Millimeters))} - {Figure.Of(run.Readings.Min(r => r.Deflection.Millimeters))}", $"{Figure.Of(total)} mm", "geometry")
            .Formula("Fit", "c + a cos theta + b sin theta, least squares", $"c {Figure.Of(c, 4)}, a {Figure.Of(a, 4)}, b {Figure.Of(b, 4)}", $"A {Figure.Of(amplitude, 4)} mm, high at {Figure.Of(high.Degrees, 0)}°", "geometry")
            .Formula("Once per turn", "2 A", $"2 × {Figure.Of(amplitude, 4)}", $"{Figure.Of(2 * amplitude)} mm", "geometry")
            .Formula("Left over", "largest - smallest residual", "", $"{Figure.Of(residual)} mm{(n < 5 ? ", not judged" : "")}", "geometry")
            .Formula("Doubt of a and b", "u × root of the fit's own term", $"{Figure.Of(budget.Combined.Millimeters, 4)} × {Figure.Of(Math.Sqrt(Math.Max(inverse[1, 1], inverse[2, 2])), 3)}", $"{Figure.Of(u, 4)} mm", "gum");
        if (limit is null) trail.Default("Runout limit", $"{Figure.Of(DefaultLimit.Millimeters)} mm", "practice-rotor");
        trail.Conclude(verdict.Reasons.Lines[^1].Result, "iso-14253-1").WouldChange("A cleaned hub face, another position on the studs, or a finer dial.");
        var point = new MeasuredPoint<int>(0, total, run.Instrument, 1, 0);
        return new(L(total), verdict, L(c), L(a), L(b), L(2 * amplitude), high, L(u), L(residual), n >= 5,
            [.. Enumerable.Range(0, 73).Select(i => Angle.FromDegrees(5 * i)).Select(t => new CurvePoint(t, L(c + a * Math.Cos(t.Radians) + b * Math.Sin(t.Radians))))],
            Settling.Of(verdict, point, InstrumentUse.Deflection, onHand, difference: true), notes, trail.Done());
    }

    /// <summary>The three normal equations, and the inverse of their matrix for the doubts.</summary>
    private static (double C, double A, double B, double[,] Inverse) Solve(IReadOnlyList<RunoutReading> readings)
    {
        var m = new double[3, 3];
        var v = new double[3];
        foreach (var r in readings)
        {
            double[] x = [1, Math.Cos(r.Angle.Radians), Math.Sin(r.Angle.Radians)];
            for (var i = 0; i < 3; i++)
            {
                v[i] += x[i] * r.Deflection.Millimeters;
                for (var j = 0; j < 3; j++) m[i, j] += x[i] * x[j];
            }
        }

        double Minor(int i, int j)
        {
            var (p, q, s, t) = ((i + 1) % 3, (i + 2) % 3, (j + 1) % 3, (j + 2) % 3);
            return m[p, s] * m[q, t] - m[p, t] * m[q, s];
        }

        var det = m[0, 0] * Minor(0, 0) + m[0, 1] * Minor(0, 1) + m[0, 2] * Minor(0, 2);
        // Angles a few degrees apart say next to nothing about a whole turn.
        if (det < 1e-3) throw new InputException(new InputError("angleDeg", "close together", "angles spread round the turn", "The angles lie too close together to fit a turn: spread them round."));
        var inverse = new double[3, 3];
        for (var i = 0; i < 3; i++)
            for (var j = 0; j < 3; j++)
                inverse[i, j] = Minor(j, i) / det;
        double Row(int i) => inverse[i, 0] * v[0] + inverse[i, 1] * v[1] + inverse[i, 2] * v[2];
        return (Row(0), Row(1), Row(2), inverse);
    }

    private static void Check(RunoutRun run, Length? limit)
    {
        var checks = new Checks().Millimetres("runoutLimitMm", limit, 0.005, 1).Range("movedByDeg", run.MovedBy.Degrees, -360, 360, "degrees");
        if (run.Readings.Count is < 3 or > 200) checks.Add("runout", Figure.Of(run.Readings.Count), "3 to 200", "At least three angles are needed, better twelve.");
        foreach (var r in run.Readings)
            checks.Range("angleDeg", r.Angle.Degrees, -360, 720, "degrees").Millimetres("deflectionMm", r.Deflection, -5, 5);
        if (run.Readings.Select(r => Math.Round((r.Angle.Degrees % 360 + 360) % 360, 3)).Distinct().Count() < run.Readings.Count)
            checks.Add("angleDeg", "an angle twice", "each angle once", "An angle stands there twice: read each once, or strike one out.");
        checks.ThrowIfAny();
    }

    private static Length L(double mm) => Length.FromMillimeters(mm);
}

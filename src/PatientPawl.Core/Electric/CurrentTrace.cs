using UnitsNet;

namespace PatientPawl.Core.Electric;

/// <summary>One point of a current trace.</summary>
/// <param name="At">When, from the first point.</param>
/// <param name="Current">The current.</param>
public sealed record TracePoint(Duration At, ElectricCurrent Current);

/// <summary>What a motor did while its current was recorded, where somebody knows it.</summary>
public enum TraceDirection
{
    /// <summary>It applied.</summary>
    Apply,
    /// <summary>It released, or went into service.</summary>
    Release,
}

/// <summary>A current over time: from a unit that keeps samples, or from a clamp meter. Immutable; its points stand at equal times.</summary>
public sealed class CurrentTrace
{
    // Fewer miss the inrush and the knee; more than this no clamp meter follows.
    private const double SlowestHz = 50, FastestHz = 10_000, LongestSeconds = 60, MostAmps = 1000;
    private const int FewestPoints = 10;

    private CurrentTrace(double[] amps, double step) => (Amps, Step) = (amps, step);

    /// <summary>The currents, A, as they were given.</summary>
    internal double[] Amps { get; }

    /// <summary>Time between two points, s.</summary>
    internal double Step { get; }

    /// <summary>How many points.</summary>
    public int Count => Amps.Length;

    /// <summary>How long it is.</summary>
    public Duration Lasts => Duration.FromSeconds((Amps.Length - 1) * Step);

    /// <summary>Points a second, 50 to 10 000 Hz.</summary>
    public Frequency Rate => Frequency.FromHertz(1 / Step);

    /// <summary>
    /// A trace from points with their times. Times that are not equally far apart are put on equal ones, straight between two points.
    /// </summary>
    /// <param name="points">At least 10, in order of time, at most 60 s long, 50 to 10 000 a second.</param>
    /// <exception cref="InputException">Naming the field, the value and the range.</exception>
    public static CurrentTrace From(IReadOnlyList<TracePoint> points)
    {
        ArgumentNullException.ThrowIfNull(points);
        if (points.Count < FewestPoints)
            throw Wrong("points", Figure.Of(points.Count), $"at least {FewestPoints}", $"A trace has at least {FewestPoints} points; here are {points.Count}.");
        double first = points[0].At.Seconds, last = points[^1].At.Seconds;
        for (var i = 0; i < points.Count; i++)
        {
            double before = i > 0 ? points[i - 1].At.Seconds : double.NegativeInfinity, t = points[i].At.Seconds, a = points[i].Current.Amperes;
            if (t <= before)
                throw Wrong("time_s", Figure.Of(t, 6), "later than the point before", $"Point {i + 1}: {Figure.Of(t, 6)} s does not come after {Figure.Of(before, 6)} s.");
            if (Math.Abs(a) > MostAmps)
                throw Wrong("current_a", Figure.Of(a), $"at most {Figure.Of(MostAmps)} A", $"Point {i + 1}: {Figure.Of(a)} A is no current of a brake motor.");
        }

        var step = (last - first) / (points.Count - 1);
        new Checks()
            .Range("rateHz", 1 / step, SlowestHz, FastestHz, "Hz")
            .Range("lengthS", last - first, 0, LongestSeconds, "s")
            .ThrowIfAny();
        return new(OnEqualTimes(points, first, step), step);
    }

    /// <summary>A trace from samples at equal times.</summary>
    /// <param name="samples">The currents in order.</param>
    /// <param name="rate">How many a second, 50 to 10 000 Hz.</param>
    /// <exception cref="InputException">Naming the field, the value and the range.</exception>
    public static CurrentTrace From(IReadOnlyList<ElectricCurrent> samples, Frequency rate)
    {
        ArgumentNullException.ThrowIfNull(samples);
        return From([.. samples.Select((s, i) => new TracePoint(Duration.FromSeconds(i / rate.Hertz), s))]);
    }

    /// <summary>Every point.</summary>
    public IReadOnlyList<TracePoint> Points => [.. Enumerable.Range(0, Amps.Length).Select(At)];

    /// <summary>Few enough points to draw, in which no peak is lost: of each stretch its lowest and its highest.</summary>
    /// <param name="most">At most so many, 20 or more.</param>
    public IReadOnlyList<TracePoint> Drawn(int most)
    {
        if (Amps.Length <= most) return Points;
        var stretch = (int)Math.Ceiling(2.0 * Amps.Length / most);
        List<TracePoint> drawn = [];
        for (var from = 0; from < Amps.Length; from += stretch)
        {
            var to = Math.Min(from + stretch, Amps.Length);
            int low = from, high = from;
            for (var i = from; i < to; i++)
            {
                if (Amps[i] < Amps[low]) low = i;
                if (Amps[i] > Amps[high]) high = i;
            }

            foreach (var i in new SortedSet<int> { low, high }) drawn.Add(At(i));
        }

        return drawn;
    }

    private TracePoint At(int i) => new(Duration.FromSeconds(i * Step), ElectricCurrent.FromAmperes(Amps[i]));

    private static InputException Wrong(string field, string value, string allowed, string says) => new(new InputError(field, value, allowed, says));

    private static double[] OnEqualTimes(IReadOnlyList<TracePoint> points, double first, double step)
    {
        var amps = new double[points.Count];
        for (int i = 0, k = 0; i < amps.Length; i++)
        {
            var t = first + i * step;
            while (k < points.Count - 2 && points[k + 1].At.Seconds < t) k++;
            var (a, b) = (points[k], points[k + 1]);
            var share = Math.Clamp((t - a.At.Seconds) / (b.At.Seconds - a.At.Seconds), 0, 1);
            amps[i] = a.Current.Amperes + share * (b.Current.Amperes - a.Current.Amperes);
        }

        return amps;
    }
}

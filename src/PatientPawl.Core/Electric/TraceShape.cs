using PatientPawl.Core.Measuring;

namespace PatientPawl.Core.Electric;

/// <summary>
/// The numbers behind a reading: where a stroke begins and ends, its level, and where it leaves its level. Plain seconds and amps.
/// </summary>
internal sealed class TraceShape
{
    // The blanking of the inrush: by then a motor of this size runs at its speed.
    internal const double Blanking = 0.12;

    // A slow one has run up by then; its level is taken from there on, where the stroke is long enough.
    private const double Settled = 0.18;

    // A stroke is over when nothing flows for this long; two samples at the slowest rate.
    private const double GapSeconds = 0.04;

    // Over this it flows; a meter whose zero is further off than the other is no meter at rest.
    private const double FlowsAmps = 0.6, MostOffsetAmps = 1.2;

    private static readonly double[] Taus = [0.08, 0.15, 0.3, 0.5, 0.75, 1.0, 1.5, 3, 8];

    private TraceShape(double step, double offset, double noise, bool turned)
    {
        (Step, Offset, Noise, Turned) = (step, offset, noise, turned);
    }

    public double Step { get; }
    /// <summary>Zero of the meter, taken from the quiet part.</summary>
    public double Offset { get; }
    /// <summary>Scatter of one point.</summary>
    public double Noise { get; }
    /// <summary>True where every sign was turned round.</summary>
    public bool Turned { get; }
    /// <summary>Strokes in the trace.</summary>
    public int Strokes { get; private init; }
    /// <summary>True where the current still flows at the end of the trace.</summary>
    public bool CutShort { get; private init; }
    /// <summary>The stroke's currents from its start on, zero taken off, forwards positive.</summary>
    public double[] Stroke { get; private init; } = [];
    /// <summary>Where the stroke starts in the trace, s.</summary>
    public double Start { get; private init; }

    public double Seconds => Stroke.Length * Step;
    public double Peak => Stroke.Take(Math.Max(2, (int)(Blanking / Step))).DefaultIfEmpty(0).Max();

    /// <summary>Finds the strokes and takes one; null where no current flows at all.</summary>
    /// <exception cref="InputException">The current flows already at the first point, or there is no such stroke.</exception>
    public static TraceShape? Of(CurrentTrace trace, int stroke)
    {
        var (amps, step) = (trace.Amps, trace.Step);
        var noise = Math.Max(Scatter(amps), 0.01);
        var quiet = Math.Clamp((int)(0.03 / step), 3, amps.Length / 3);
        var zero = Middle.Median(amps.AsSpan(0, quiet));
        var on = Math.Max(FlowsAmps, 5 * noise);
        if (Math.Abs(zero) > MostOffsetAmps)
        {
            var says = $"The current flows already at the first point ({Figure.Of(zero, 1)} A): the start is cut off. Record from before the switch is pressed.";
            throw new InputException(new InputError("current_a", Figure.Of(zero, 2), "no current at first", says));
        }

        List<(int From, int To)> strokes = [];
        var gap = Math.Max(2, (int)Math.Ceiling(GapSeconds / step));
        for (var i = 0; i < amps.Length; i++)
        {
            if (Math.Abs(amps[i] - zero) <= on || (i + 1 < amps.Length && Math.Abs(amps[i + 1] - zero) <= on)) continue;
            var (from, last) = (i, i);
            for (; i < amps.Length && i - last <= gap; i++) if (Math.Abs(amps[i] - zero) > on) last = i;
            strokes.Add((from, last));
        }

        if (strokes.Count == 0) return null;
        if (stroke < 1 || stroke > strokes.Count)
        {
            var says = $"The trace has {Figure.Count(strokes.Count, "stroke")}: there is no number {stroke}.";
            throw new InputException(new InputError("stroke", Figure.Of(stroke), $"1 to {strokes.Count}", says));
        }

        // The zero is taken from all that is quiet before the first stroke, not from its first moment only.
        if (strokes[0].From > 2) zero = Mean(amps.AsSpan(0, Math.Max(1, strokes[0].From - 1)));
        var (a, b) = strokes[stroke - 1];
        var taken = amps[a..(b + 1)];
        var turned = taken.Sum(x => x - zero) < 0;
        for (var k = 0; k < taken.Length; k++) taken[k] = (turned ? -1 : 1) * (taken[k] - zero);
        return new(step, zero, noise, turned)
        {
            Strokes = strokes.Count,
            CutShort = b >= amps.Length - gap && stroke == strokes.Count,
            Stroke = taken,
            Start = a * step,
        };
    }

    /// <summary>Mean between two times after the start; null where nothing lies between.</summary>
    public double? Level(double from, double to)
    {
        var (a, b) = (Index(from), Index(to));
        return b > a ? Mean(Stroke.AsSpan(a, b - a)) : null;
    }

    /// <summary>The current at its end: a line through the last moments, without the point at which it is switched off.</summary>
    public double End()
    {
        var n = Math.Max(4, (int)(0.06 / Step));
        var to = Math.Max(1, Stroke.Length - 1);
        var from = Math.Max(0, to - n);
        var (slope, middle) = Line(from, to);
        return middle + slope * ((to - from) / 2.0 + 0.5) * Step;
    }

    /// <summary>Slope over the last part, A/s.</summary>
    public double EndSlope(double seconds)
    {
        var to = Math.Max(1, Stroke.Length - 1);
        return Line(Math.Clamp(to - (int)(seconds / Step), Math.Min(Index(Blanking), to - 1), to - 1), to).Slope;
    }

    /// <summary>
    /// The knee: a level, and from the knee on a rise that bends over by one time constant. Least squares over every knee and every time
    /// constant; after contact a motor's current is such a curve.
    /// </summary>
    public Knee? FindKnee()
    {
        var from = Index(Seconds > 0.6 ? Settled : Blanking);
        var n = Stroke.Length - 1 - from;
        if (n < 6) return null;
        var width = Math.Max(1, (int)Math.Ceiling(n / 300.0));
        var bins = new double[n / width];
        for (var k = 0; k < bins.Length; k++) bins[k] = Mean(Stroke.AsSpan(from + k * width, width));
        var dt = width * Step;
        Knee? best = null;
        var errors = new double[bins.Length];
        Array.Fill(errors, double.PositiveInfinity);
        void Try(double tau)
        {
            var rise = new double[bins.Length + 1];
            for (var j = 0; j < rise.Length; j++) rise[j] = 1 - Math.Exp(-j * dt / tau);
            for (var k = 0; k < bins.Length - 2; k++)
            {
                if (Fit(bins, rise, k) is not { } fit) continue;
                errors[k] = Math.Min(errors[k], fit.Error);
                if (best is null || fit.Error < best.Error)
                    best = new((from + (k + 0.5) * width) * Step, fit.Level, fit.Gain, tau, fit.Error, 0);
            }
        }

        foreach (var tau in Taus) Try(tau);
        // Between two of the grid the best one is found by halving the way.
        for (var step = 1.25; best is not null && step > 1.03; step = Math.Sqrt(step))
        {
            var middle = best.Tau;
            Try(middle * step);
            Try(middle / step);
        }

        if (best is null) return null;
        // 95 %: knees whose error is within four variances of a bin of the best.
        var bound = best.Error + 4 * Noise * Noise / width;
        var within = Enumerable.Range(0, errors.Length).Where(k => errors[k] <= bound).ToArray();
        return best with { Doubt = Math.Max(dt, (within[^1] - within[0] + 1) * dt / 2) };
    }

    /// <summary>Least squares of a level and a rise that begins at one bin.</summary>
    private static (double Level, double Gain, double Error)? Fit(double[] bins, double[] rise, int knee)
    {
        double sx = 0, sxx = 0, sy = 0, sxy = 0, syy = 0;
        for (var j = 0; j < bins.Length; j++)
        {
            var (x, y) = (j > knee ? rise[j - knee] : 0, bins[j]);
            sx += x;
            sxx += x * x;
            sy += y;
            sxy += x * y;
            syy += y * y;
        }

        var det = bins.Length * sxx - sx * sx;
        if (det <= 1e-12) return null;
        var gain = (bins.Length * sxy - sx * sy) / det;
        var level = (sy - gain * sx) / bins.Length;
        return (level, gain, syy - gain * sxy - level * sy);
    }

    /// <summary>A step up within a level: how high, and how sure; 0 where there is none.</summary>
    public double StepWithin(double to)
    {
        var (a, b) = (Index(Blanking + 0.04), Index(to));
        var least = Math.Max(3, (int)(0.08 / Step));
        if (b - a < 2 * least) return 0;
        double total = Stroke.AsSpan(a, b - a).ToArray().Sum(), left = 0, best = 0, height = 0;
        for (var k = a; k < b - least; k++)
        {
            left += Stroke[k];
            if (k - a + 1 < least) continue;
            double n1 = k - a + 1, n2 = b - k - 1;
            var jump = (total - left) / n2 - left / n1;
            var sure = jump / (Noise * Math.Sqrt(1 / n1 + 1 / n2));
            if (sure > best) (best, height) = (sure, jump);
        }

        return best > 4.5 && height is > 0.05 and < 0.5 ? height : 0;
    }

    private (double Slope, double Middle) Line(int from, int to)
    {
        double n = to - from, mt = (n - 1) / 2, my = Mean(Stroke.AsSpan(from, to - from)), top = 0, bottom = 0;
        for (var k = 0; k < n; k++)
        {
            top += (k - mt) * (Stroke[from + k] - my);
            bottom += (k - mt) * (k - mt);
        }

        return (bottom > 0 ? top / bottom / Step : 0, my);
    }

    private int Index(double seconds) => Math.Clamp((int)(seconds / Step), 0, Stroke.Length);

    // From neighbour to neighbour the current hardly changes, so what is between them is scatter; the median lets no jump in.
    private static double Scatter(double[] amps)
    {
        var jumps = new double[amps.Length - 1];
        for (var i = 0; i < jumps.Length; i++) jumps[i] = Math.Abs(amps[i + 1] - amps[i]);
        return Middle.Median(jumps) * 1.4826 / Math.Sqrt(2);
    }

    private static double Mean(ReadOnlySpan<double> values)
    {
        var sum = 0.0;
        foreach (var v in values) sum += v;
        return sum / values.Length;
    }
}

/// <summary>Where a current leaves its level. Seconds from the start of the stroke, amps.</summary>
/// <param name="At">When.</param>
/// <param name="Level">The level before.</param>
/// <param name="Gain">How far it would rise in the end.</param>
/// <param name="Tau">The time constant of the rise.</param>
/// <param name="Error">Sum of squares that the fit leaves.</param>
/// <param name="Doubt">Half-width within which the knee lies, 95 %.</param>
internal sealed record Knee(double At, double Level, double Gain, double Tau, double Error, double Doubt);

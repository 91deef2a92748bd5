namespace PatientPawl.Core.Measuring;

/// <summary>
/// Student's t, by the continued fraction of the regularised incomplete beta function. A few lines of our own rather than a numerical library
/// in Core; the tests hold it against such a library.
/// </summary>
internal static class StudentT
{
    /// <summary>Chance of a value at most <paramref name="t"/> with <paramref name="freedom"/> degrees of freedom.</summary>
    public static double Cumulative(double t, int freedom)
    {
        if (double.IsPositiveInfinity(t)) return 1;
        if (double.IsNegativeInfinity(t)) return 0;
        var tail = Beta(freedom / (freedom + t * t), freedom / 2.0, 0.5) / 2;
        return t >= 0 ? 1 - tail : tail;
    }

    /// <summary>The value that is not exceeded with chance <paramref name="p"/>, 0.5 to 0.9999.</summary>
    public static double Quantile(double p, int freedom)
    {
        double low = 0, high = 1;
        while (Cumulative(high, freedom) < p) high *= 2;
        for (var i = 0; i < 54; i++)
        {
            var mid = (low + high) / 2;
            if (Cumulative(mid, freedom) < p) low = mid;
            else high = mid;
        }

        return (low + high) / 2;
    }

    private static double Beta(double x, double a, double b)
    {
        if (x <= 0) return 0;
        if (x >= 1) return 1;
        var front = Math.Exp(LogGamma(a + b) - LogGamma(a) - LogGamma(b) + a * Math.Log(x) + b * Math.Log(1 - x));
        // The fraction converges fast on the near side of the mean only.
        return x < (a + 1) / (a + b + 2) ? front * Fraction(x, a, b) / a : 1 - front * Fraction(1 - x, b, a) / b;
    }

    private static double Fraction(double x, double a, double b)
    {
        const double tiny = 1e-300;
        double c = 1, d = 1 / Nudge(1 - (a + b) * x / (a + 1)), h = d;
        for (var m = 1; m <= 300; m++)
        {
            Step(m * (b - m) * x / ((a + 2 * m - 1) * (a + 2 * m)));
            var by = Step(-(a + m) * (a + b + m) * x / ((a + 2 * m) * (a + 2 * m + 1)));
            if (Math.Abs(by - 1) < 1e-15) break;
        }

        return h;

        double Step(double term)
        {
            d = 1 / Nudge(1 + term * d);
            c = Nudge(1 + term / c);
            h *= d * c;
            return d * c;
        }

        static double Nudge(double v) => Math.Abs(v) < tiny ? tiny : v;
    }

    /// <summary>Lanczos' series.</summary>
    private static double LogGamma(double x)
    {
        ReadOnlySpan<double> p = [0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7];
        x -= 1;
        var sum = p[0];
        for (var i = 1; i < p.Length; i++) sum += p[i] / (x + i);
        var t = x + 7.5;
        return 0.5 * Math.Log(2 * Math.PI) + (x + 0.5) * Math.Log(t) - t + Math.Log(sum);
    }
}

using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Pads;

/// <summary>Lining at an odometer reading, since these pads were fitted.</summary>
/// <param name="OdometerKm">0 to 2 000 000 km.</param>
/// <param name="Lining">The thinnest position then, 0 to 40 mm.</param>
public sealed record WearPoint(int OdometerKm, Length Lining);

/// <summary>How long the pads last.</summary>
/// <param name="ToMinimumKm">Distance from the last point to the minimum; 0 when it is there already, null when it does not wear.</param>
/// <param name="LowKm">Low end of the 90 % band; null when there is none.</param>
/// <param name="HighKm">High end; null when there is none, or it has no end.</param>
/// <param name="WearPerThousandKm">Wear a 1000 km.</param>
/// <param name="LastsToNext">Chance that it lasts to the next inspection, 0 to 1; null when that cannot be said.</param>
/// <param name="FromDefault">True when the class default was used.</param>
/// <param name="Says">In words.</param>
/// <param name="Line">The line: lining now and at the minimum, for drawing.</param>
/// <param name="Reasons">Why.</param>
public sealed record ForecastVerdict(int? ToMinimumKm, int? LowKm, int? HighKm, Length WearPerThousandKm, double? LastsToNext, bool FromDefault, string Says, IReadOnlyList<WearPoint> Line, Reasons Reasons) : IReasoned;

/// <summary>Forecasts pad wear from the vehicle's own history.</summary>
[Engine]
public static class PadForecast
{
    private const double DefaultWear = 0.10, DefaultHalf = 0.5;

    /// <summary>The furthest that is looked ahead, km.</summary>
    internal const int FurthestKm = 200_000;

    /// <summary>A lining that is thicker than before by this much belongs to new pads: 1.0 mm, ours.</summary>
    public static Length PadChange { get; } = Length.FromMillimeters(1.0);

    /// <summary>
    /// Least-squares line of lining against distance; distance to the minimum with a 90 % band by Fieller's theorem (Student t, n - 2 degrees of
    /// freedom); the chance of lasting from the same t. Two points give a line and no band. One point uses the class default of 0.10 mm a 1000 km,
    /// half as much either way, flagged.
    /// </summary>
    /// <param name="history">Points since these pads were fitted; the new thickness counts as one.</param>
    /// <param name="minimum">Least lining.</param>
    /// <param name="nextInspectionKm">Distance from the last point to the next inspection, 1 to 200 000 km; null when none is planned.</param>
    /// <exception cref="InputException">No point, points out of range, or two at one distance only.</exception>
    public static ForecastVerdict Compute(IReadOnlyList<WearPoint> history, Length minimum, int? nextInspectionKm)
    {
        ArgumentNullException.ThrowIfNull(history);
        Check(history, minimum, nextInspectionKm);
        var all = history.OrderBy(p => p.OdometerKm).ToArray();
        // Linings do not grow: where they did, new pads went in, and the history starts again.
        var since = Enumerable.Range(0, all.Length).LastOrDefault(i => i > 0 && all[i].Lining - all[i - 1].Lining >= PadChange);
        var points = all[since..];
        var last = points[^1];
        return points.Select(p => p.OdometerKm).Distinct().Count() == 1 ? Default(last, minimum, nextInspectionKm) : Fitted(points, minimum, nextInspectionKm);
    }

    private static ForecastVerdict Default(WearPoint last, Length minimum, int? next)
    {
        var left = last.Lining.Millimeters - minimum.Millimeters;
        int Km(double wear) => (int)Math.Round(Math.Max(0, left) / wear * 1000);
        int mid = Km(DefaultWear), low = Km(DefaultWear * (1 + DefaultHalf)), high = Km(DefaultWear * (1 - DefaultHalf));
        double? lasts = next is { } x ? Math.Clamp((Math.Max(0, left) / x * 1000 - DefaultWear * (1 - DefaultHalf)) / (2 * DefaultHalf * DefaultWear), 0, 1) : null;
        var says = left <= 0 ? "At its minimum already." : $"About {Round(mid)} km, from {Round(low)} to {Round(high)}, by the class default: no history yet.";
        return new(mid, low, high, Length.FromMillimeters(DefaultWear), lasts, true, says, Line(last, mid, minimum), new Trail("PadForecast.Compute")
            .Input("Lining", $"{Figure.Of(last.Lining.Millimeters)} mm at {last.OdometerKm} km").Default("Wear", "0.10 mm a 1000 km, half as much either way", "practice-wear")
            .Formula("To the minimum", "(lining - minimum) / wear", $"({Figure.Of(last.Lining.Millimeters)} - {Figure.Of(minimum.Millimeters)}) / 0.10", $"{mid} km", "geometry").Conclude(says).WouldChange("A second reading after some distance.").Done());
    }

    private static ForecastVerdict Fitted(WearPoint[] points, Length minimum, int? next)
    {
        var n = points.Length;
        var last = points[^1];
        double x0 = points.Average(p => p.OdometerKm / 1000.0), y0 = points.Average(p => p.Lining.Millimeters);
        var sxx = points.Sum(p => Math.Pow(p.OdometerKm / 1000.0 - x0, 2));
        var slope = points.Sum(p => (p.OdometerKm / 1000.0 - x0) * (p.Lining.Millimeters - y0)) / sxx;
        double At(double x) => y0 + slope * (x - x0);
        var rest = points.Sum(p => Math.Pow(p.Lining.Millimeters - At(p.OdometerKm / 1000.0), 2));
        // The fit is exact with two points: nothing says how far it may be off.
        double? s = n > 2 ? Math.Sqrt(rest / (n - 2)) : null;
        double now = last.OdometerKm / 1000.0, m = minimum.Millimeters;
        int? to = slope < 0 ? (int)Math.Round(Math.Max(0, x0 + (m - y0) / slope - now) * 1000) : null;
        var (low, high) = s is { } spread ? Fieller(n, x0, y0, slope, sxx, spread, m, now) : (null, null);
        double? lasts = null;
        if (next is { } distance && s is { } sd && slope < 0)
        {
            var x = now + distance / 1000.0;
            var se = sd * Math.Sqrt(1.0 / n + (x - x0) * (x - x0) / sxx);
            // An exact fit leaves no doubt.
            lasts = se < 1e-12 ? (At(x) > m ? 1 : 0) : StudentT.Cumulative((At(x) - m) / se, n - 2);
        }

        var says = to is not { } km ? "It does not get thinner with distance: look at the readings."
            : km == 0 ? "At its minimum already."
            : low is { } l && high is { } h ? $"About {Round(km)} km, 90 % between {Round(l)} and {Round(h)}."
            : n == 2 ? $"About {Round(km)} km by two points, with no band: two points always lie on a line."
            : $"About {Round(km)} km, at least {Round(low ?? 0)}: the points scatter too much to say how long at most.";
        var trail = new Trail("PadForecast.Compute").Input("History", string.Join(", ", points.Select(p => $"{Figure.Of(p.Lining.Millimeters)} mm at {p.OdometerKm} km")))
            .Formula("Wear", "least-squares slope", Figure.Count(n, "point"), $"{Figure.Of(-slope)} mm a 1000 km", "geometry")
            .Formula("To the minimum", "where the line meets it", $"{Figure.Of(m)} mm", to is { } t ? $"{t} km on" : "never", "geometry");
        if (s is { } sigma) trail.Formula("Band, 90 %", "Fieller, Student t with n - 2", $"t {Figure.Of(StudentT.Quantile(0.95, n - 2))}, s {Figure.Of(sigma)}", low is null ? "none" : $"{low} to {(high is { } k ? k.ToString(System.Globalization.CultureInfo.InvariantCulture) : "no end")} km", "student-t");
        return new(to, low, high, Length.FromMillimeters(-slope), lasts, false, says, Line(last with { Lining = Length.FromMillimeters(At(now)) }, to ?? 0, minimum), trail.Conclude(says).WouldChange("Another reading, or new pads: then it starts again.").Done());
    }

    /// <summary>All distances whose line value does not differ from the minimum at 90 %: (y0 + b (x - x0) - m)² = t² s² (1/n + (x - x0)² / sxx).</summary>
    private static (int? Low, int? High) Fieller(int n, double x0, double y0, double b, double sxx, double s, double m, double now)
    {
        var t = StudentT.Quantile(0.95, n - 2);
        double g = t * t * s * s, a2 = b * b - g / sxx, a1 = b * (y0 - m), a0 = (y0 - m) * (y0 - m) - g / n;
        var root = a1 * a1 - a2 * a0;
        int Km(double x) => (int)Math.Round(Math.Clamp(x + x0 - now, 0, 2000) * 1000);
        // An exact line has no band: its rounding must not make one vanish.
        if (root < 0 && root > -1e-9 * a1 * a1) root = 0;
        if (b >= 0 || root < 0) return (null, null);
        // When the slope itself could be flat there is no far end.
        if (a2 <= 0) return (a2 == 0 ? null : Km((-a1 + Math.Sqrt(root)) / a2 > (-a1 - Math.Sqrt(root)) / a2 ? (-a1 + Math.Sqrt(root)) / a2 : (-a1 - Math.Sqrt(root)) / a2), null);
        return (Km((-a1 - Math.Sqrt(root)) / a2), Km((-a1 + Math.Sqrt(root)) / a2));
    }

    private static WearPoint[] Line(WearPoint last, int to, Length minimum) => [last, new(last.OdometerKm + to, minimum)];

    private static string Round(int km) => Figure.Of(Math.Round(km / 100.0) * 100);

    private static void Check(IReadOnlyList<WearPoint> history, Length minimum, int? next)
    {
        var checks = new Checks().Millimetres("minimumMm", minimum, 0.5, 20).Range("nextInspectionKm", next, 1, FurthestKm, "km");
        if (history.Count is 0 or > 200) checks.Add("history", Figure.Of(history.Count), "1 to 200", "At least one lining with its odometer reading is needed.");
        foreach (var p in history) checks.Range("odometerKm", p.OdometerKm, 0, 2_000_000, "km").Millimetres("liningMm", p.Lining, 0, 40);
        checks.ThrowIfAny();
    }
}

using System.Globalization;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;

namespace PatientPawl.Core.Fleet;

/// <summary>An odometer reading on a day.</summary>
/// <param name="On">The day.</param>
/// <param name="OdometerKm">The reading.</param>
public sealed record OdometerVisit(DateOnly On, int OdometerKm);

/// <summary>How far a vehicle is driven.</summary>
/// <param name="KmPerDay">Kilometres a day.</param>
/// <param name="FromDefault">True where its visits do not tell.</param>
/// <param name="ExpectedKm">What its odometer is thought to show today.</param>
/// <param name="Reasons">Why.</param>
public sealed record DrivenAnswer(double KmPerDay, bool FromDefault, int ExpectedKm, Reasons Reasons) : IReasoned
{
    /// <summary>The day on which the odometer is thought to show a reading: never before the last visit.</summary>
    internal DateOnly DayOf(OdometerVisit last, int odometerKm) =>
        last.On.AddDays((int)Math.Min(Math.Ceiling(Math.Max(0, odometerKm - last.OdometerKm) / KmPerDay), 36_500));
}

/// <summary>How far a vehicle is driven, learnt from its visits.</summary>
[Engine]
public static class DrivenRate
{
    // Two visits of the same week say more about the week than about the vehicle.
    private const int LeastDays = 14;
    private const double DefaultKmPerDay = 40, LeastKmPerDay = 1;

    /// <summary>
    /// The median of what was driven a day between visits at least 14 days apart, so that one odometer typed wrongly does not decide; with no
    /// such pair a default of 40 km a day, flagged.
    /// </summary>
    /// <param name="visits">Its visits, in any order; at least one.</param>
    /// <param name="today">Today.</param>
    /// <exception cref="InputException">No visit.</exception>
    public static DrivenAnswer Of(IReadOnlyList<OdometerVisit> visits, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(visits);
        if (visits.Count == 0) throw new InputException(new InputError("visits", "0", "at least one",
            "A vehicle with no visit tells nothing of its driving."));
        var all = visits.OrderBy(v => v.On).ThenBy(v => v.OdometerKm).ToArray();
        double[] rates = [.. all.Skip(1)
            .Select((v, i) => (Days: v.On.DayNumber - all[i].On.DayNumber, Km: v.OdometerKm - all[i].OdometerKm))
            .Where(p => p.Days >= LeastDays && p.Km >= 0).Select(p => p.Km / (double)p.Days)];
        var trail = new Trail("DrivenRate.Of")
            .Input("Visits", string.Join(", ", all.Select(v => $"{Figure.Of(v.OdometerKm)} km on {Figure.Date(v.On)}")));
        var rate = rates.Length > 0 ? Math.Max(Middle.Median(rates), LeastKmPerDay) : DefaultKmPerDay;
        if (rates.Length > 0) trail.Formula("Driven", "median between visits", Figure.Count(rates.Length, "stretch", "stretches"),
            $"{Figure.Of(rate, 0)} km a day", "geometry");
        else trail.Default("Driven", $"{Figure.Of(DefaultKmPerDay)} km a day", "practice-driven");
        var expected = (int)Math.Min(all[^1].OdometerKm + rate * Math.Max(0, today.DayNumber - all[^1].On.DayNumber), 2_000_000);
        return new(rate, rates.Length == 0, expected,
            trail.Conclude(string.Create(CultureInfo.InvariantCulture, $"About {expected} km today.")).WouldChange("Another visit.")
            .Done());
    }
}

using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;

namespace PatientPawl.Core.Fleet;

/// <summary>What is to be done again.</summary>
public enum ReminderKind
{
    /// <summary>Wheel nuts after their wheels were off.</summary>
    WheelNuts,
    /// <summary>Pads that may be at their minimum.</summary>
    Pads,
    /// <summary>A wrench's or gauge's calibration.</summary>
    Calibration,
    /// <summary>Brake fluid: tested again, or changed.</summary>
    Fluid,
    /// <summary>A wear lamp that a tool must reset.</summary>
    WearLamp,
    /// <summary>Single-use fasteners to order before the next pads.</summary>
    SingleUseParts,
}

/// <summary>Something that comes due.</summary>
/// <param name="Id">What it is ticked off by; the next visit, or the next certificate, makes another.</param>
/// <param name="Kind">What.</param>
/// <param name="About">The vehicle, or the tool, in words.</param>
/// <param name="Plate">The vehicle's plate; null of a tool.</param>
/// <param name="Due">The day.</param>
/// <param name="DueKm">From this odometer reading; null of a tool.</param>
/// <param name="Overdue">True once the day is past.</param>
/// <param name="Says">In a sentence.</param>
public sealed record Reminder(string Id, ReminderKind Kind, string About, string? Plate, DateOnly Due, int? DueKm, bool Overdue,
    string Says)
{
    /// <summary>A calibration that runs out, or has.</summary>
    /// <param name="tool">The tool.</param>
    /// <param name="today">Today.</param>
    public static Reminder OfCalibration(Calibrated tool, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(tool);
        var (id, name, until) = tool;
        var says = until < today
            ? $"Its calibration ended on {Figure.Date(until)}: it decides nothing until it is renewed."
            : $"Calibrated until {Figure.Date(until)}.";
        return new($"calibration:{id}:{Figure.Date(until)}", ReminderKind.Calibration, name, null, until, null, until < today, says);
    }
}

/// <summary>A tool whose calibration runs out.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Until">Its last day.</param>
public sealed record Calibrated(string Id, string Name, DateOnly Until);

/// <summary>What stands of the reminders.</summary>
public static class Reminders
{
    // What is further away than this is no reminder yet; a vehicle that has not come for so long goes elsewhere.
    private const int DaysAhead = 90, DaysBehind = 365;

    /// <summary>The days that reminders are asked for.</summary>
    /// <param name="today">Today.</param>
    public static (DateOnly From, DateOnly To) Window(DateOnly today) => (today.AddDays(-DaysBehind), today.AddDays(DaysAhead));

    /// <summary>
    /// What comes due within 90 days, the soonest first, without what was ticked off; of a vehicle nothing that has been due for more than a
    /// year.
    /// </summary>
    /// <param name="fleet">The vehicles.</param>
    /// <param name="tools">Tools that keep a calibration.</param>
    /// <param name="done">Ids that were ticked off.</param>
    /// <param name="today">Today.</param>
    public static IReadOnlyList<Reminder> Standing(IEnumerable<VehicleOutlook> fleet, IEnumerable<Calibrated> tools,
        IReadOnlySet<string> done, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(done);
        var (from, to) = Window(today);
        return
        [
            .. fleet.SelectMany(o => o.Reminders).Concat(tools.Select(t => Reminder.OfCalibration(t, today)))
                .Where(r => r.Due <= to && (r.Plate is null || r.Due >= from) && !done.Contains(r.Id)).OrderBy(r => r.Due),
        ];
    }
}

/// <summary>What a vehicle comes to.</summary>
/// <param name="Vehicle">The vehicle.</param>
/// <param name="Last">Its last visit.</param>
/// <param name="Driven">How far it is driven.</param>
/// <param name="Pads">Its forecast; null where no lining was ever read.</param>
/// <param name="PadsDue">The day from which its pads may be at their minimum, the low end of the band; null where that cannot be said.</param>
/// <param name="Within30">Chance that they are there within 30 days, 0 to 1; null where that cannot be said.</param>
/// <param name="Within60">Within 60.</param>
/// <param name="Within90">Within 90.</param>
/// <param name="Reminders">What comes due, the soonest first.</param>
/// <param name="Reasons">Why.</param>
public sealed record VehicleOutlook(
    Vehicle Vehicle, OdometerVisit Last, DrivenAnswer Driven, ForecastVerdict? Pads, DateOnly? PadsDue, double? Within30, double? Within60,
        double? Within90, IReadOnlyList<Reminder> Reminders, Reasons Reasons)
    : IReasoned;

/// <summary>What comes due, and when, for the day that asks.</summary>
[Engine]
public static class Outlook
{
    /// <summary>What a vehicle comes to.</summary>
    /// <param name="card">What is known of it.</param>
    /// <param name="today">Today.</param>
    public static VehicleOutlook Of(FleetCard card, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(card);
        var driven = DrivenRate.Of(card.Visits, today);
        var last = card.Visits.MaxBy(v => (v.On, v.OdometerKm))!;
        var trail = new Trail("Outlook.Of").Take(driven.Reasons);
        ForecastVerdict? pads = null;
        DateOnly? padsDue = null;
        double?[] within = [null, null, null];
        if (card.Wear.Count > 0)
        {
            pads = PadForecast.Compute(card.Wear, card.MinimumLining, null);
            trail.Take(pads.Reasons);
            var point = card.Wear.MaxBy(w => w.OdometerKm)!;
            var since = Math.Max(0, driven.ExpectedKm - point.OdometerKm);
            if ((pads.LowKm ?? pads.ToMinimumKm) is { } low) padsDue = driven.DayOf(last, point.OdometerKm + low);
            within = [.. new[] { 30, 60, 90 }.Select(days => GoneBy(card, (int)Math.Round(since + days * driven.KmPerDay)))];
        }

        if (card.Fluid is { } fluid)
            trail.Input("Brake fluid", $"{Figure.Of(fluid.WaterPercent, 1)} % water on {Figure.Date(fluid.On)}").Default("Fluid again",
                $"after {FluidGoodDays} days, {FluidPlanDays} once a change is planned", "practice-due");
        var reminders = RemindersOf(card, driven, last, padsDue, today).OrderBy(r => r.Due).ToArray();
        trail.Conclude(reminders.Length > 0 ? reminders[0].Says : "Nothing comes due that is known of.");
        return new(card.Vehicle, last, driven, pads, padsDue, within[0], within[1], within[2], reminders,
            trail.WouldChange("Another reading of its linings.").Done());
    }

    // Chance that the minimum is met within a distance of the last reading.
    private static double? GoneBy(FleetCard card, int km) =>
        km < 1 ? null : 1 - PadForecast.Compute(card.Wear, card.MinimumLining, Math.Min(km, PadForecast.FurthestKm)).LastsToNext;

    // A year between tests, half of it once a change is planned; parts a fortnight ahead.
    private const int FluidGoodDays = 365, FluidPlanDays = 182, OrderDaysAhead = 14;

    private static Reminder OfFluid(FluidTested tested, string about, string plate, DateOnly today)
    {
        var (due, what) = tested.Water switch
        {
            WaterVerdict.Good => (tested.On.AddDays(FluidGoodDays), "tested again by"),
            WaterVerdict.PlanChange => (tested.On.AddDays(FluidPlanDays), "changed by"),
            WaterVerdict.Change => (tested.On, "changed since"),
            _ => throw new ArgumentOutOfRangeException(nameof(tested), tested.Water, "No such verdict."),
        };
        var was = $"{Figure.Of(tested.WaterPercent, 1)} % water on {Figure.Date(tested.On)}";
        return new($"fluid:{plate}:{Figure.Date(tested.On)}", ReminderKind.Fluid, about, plate, due, null, due < today,
            $"Brake fluid to be {what} {Figure.Date(due)}: {was}.");
    }

    private static IEnumerable<Reminder> RemindersOf(FleetCard card, DrivenAnswer driven, OdometerVisit last, DateOnly? padsDue,
        DateOnly today)
    {
        var about = $"{card.Vehicle.Model}, {card.Vehicle.Plate}";
        if (card.Nuts is { } nuts)
        {
            var (from, to) = (driven.DayOf(last, nuts.FromKm), driven.DayOf(last, nuts.ToKm));
            yield return new($"wheel-nuts:{nuts.JobId:N}", ReminderKind.WheelNuts, about, card.Vehicle.Plate, from, nuts.FromKm,
                to < today, $"Wheel nuts again between {Figure.Of(nuts.FromKm)} and {Figure.Of(nuts.ToKm)} km, about {Figure.Date(from)}.");
        }

        var plate = card.Vehicle.Plate;
        if (card.Fluid is { } fluid) yield return OfFluid(fluid, about, plate, today);
        if (card.LampWaits is { } job)
            yield return new($"wear-lamp:{job:N}", ReminderKind.WearLamp, about, plate, last.On, null, last.On < today,
                "The wear lamp waits for the tool that resets it.");
        if (padsDue is not { } due) yield break;
        yield return new($"pads:{plate}:{Figure.Of(last.OdometerKm)}", ReminderKind.Pads, about, plate, due,
            null, due < today, $"Pads looked at by {Figure.Date(due)}: from then on they may be at their minimum.");
        if (card.SingleUse.Count == 0) yield break;
        var order = due.AddDays(-OrderDaysAhead);
        yield return new($"single-use:{plate}:{Figure.Of(last.OdometerKm)}", ReminderKind.SingleUseParts, about, plate, order, null,
            order < today, $"Ordered by {Figure.Date(order)}, for the next pads: {string.Join("; ", card.SingleUse)}.");
    }
}

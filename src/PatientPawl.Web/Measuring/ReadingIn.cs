using PatientPawl.Core;
using PatientPawl.Core.Measuring;
using PatientPawl.Data;
using UnitsNet;

namespace PatientPawl.Web.Measuring;

/// <summary>A reading as it comes in: the instrument by its name on the tool board.</summary>
/// <param name="Id">Made where it was taken.</param>
/// <param name="Measurand">What was measured.</param>
/// <param name="Place">Where.</param>
/// <param name="Direction">At which angle.</param>
/// <param name="Value">The reading.</param>
/// <param name="InstrumentId">The instrument.</param>
/// <param name="Celsius">Temperature of the part; null counts as 20.</param>
/// <param name="At">When.</param>
public sealed record ReadingIn(Guid Id, Measurand Measurand, string Place, Angle? Direction, Length Value, string InstrumentId, double? Celsius, DateTimeOffset At)
{
    /// <summary>The reading with its instrument, refused when that is unknown or out of calibration.</summary>
    public static IReadOnlyList<PointReading> Resolve(IReadOnlyList<ReadingIn> readings, Library library, TimeProvider clock)
    {
        ArgumentNullException.ThrowIfNull(readings);
        ArgumentNullException.ThrowIfNull(library);
        var instruments = library.Instruments();
        var today = Today(clock);
        var checks = new Checks();
        List<PointReading> list = [];
        foreach (var r in readings)
        {
            if (InstrumentCatalogue.Find(instruments, r.InstrumentId) is not { } instrument)
            {
                checks.Add("instrumentId", Figure.Shorten(r.InstrumentId), string.Join(", ", instruments.Select(i => i.Id)), "No such instrument in the workshop.");
                continue;
            }

            if (!instrument.InDate(today)) checks.Add("instrumentId", instrument.Id, "an instrument in calibration", $"The calibration of the {instrument.Name.ToLowerInvariant()} ran out on {instrument.CalibratedUntil:yyyy-MM-dd}: use another.");
            list.Add(new(r.Id, r.Measurand, r.Place, r.Direction, r.Value, instrument, r.Celsius, r.At));
        }

        checks.ThrowIfAny();
        MeasurandCatalogue.Check(list);
        return list;
    }

    /// <summary>Instruments whose calibration still runs.</summary>
    public static IReadOnlyList<Instrument> OnHand(Library library, TimeProvider clock)
    {
        ArgumentNullException.ThrowIfNull(library);
        return [.. library.Instruments().Where(i => i.InDate(Today(clock)))];
    }

    public static DateOnly Today(TimeProvider clock)
    {
        ArgumentNullException.ThrowIfNull(clock);
        return DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
    }
}

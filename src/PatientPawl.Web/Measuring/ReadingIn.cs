using PatientPawl.Core;
using PatientPawl.Core.Measuring;
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
    public static IReadOnlyList<PointReading> Resolve(IReadOnlyList<ReadingIn> readings, ToolBoard board)
    {
        ArgumentNullException.ThrowIfNull(readings);
        ArgumentNullException.ThrowIfNull(board);
        var checks = new Checks();
        List<PointReading> list = [];
        foreach (var r in readings)
        {
            if (ReadingRules.Instrument(checks, board, r.InstrumentId, [], "") is { } instrument)
                list.Add(new(r.Id, r.Measurand, r.Place, r.Direction, r.Value, instrument, r.Celsius, r.At));
        }

        checks.ThrowIfAny();
        ReadingRules.Check(list, board.Today);
        return list;
    }
}

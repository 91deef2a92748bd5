using PatientPawl.Core;
using PatientPawl.Core.Fleet;
using PatientPawl.Web.Hosting;

namespace PatientPawl.Web.Vehicles;

/// <summary>The fleet as CSV (RFC 4180), a vehicle a line, for a spreadsheet.</summary>
internal static class FleetCsv
{
    private static readonly string[] Columns = ["plate", "make", "model", "use", "last_visit", "last_km", "km_per_day", "expected_km",
        "pads_due", "within_30_days", "within_60_days", "within_90_days"];

    public static string Write(IEnumerable<VehicleOutlook> fleet) => Csv.Write(Columns, fleet.Select(o => (string[])
    [
        Csv.Harmless(o.Vehicle.Plate), Csv.Harmless(o.Vehicle.Make), Csv.Harmless(o.Vehicle.Model), Csv.Harmless(o.Vehicle.Use),
        Figure.Date(o.Last.On), Figure.Of(o.Last.OdometerKm), Figure.Of(o.Driven.KmPerDay, 1), Figure.Of(o.Driven.ExpectedKm),
        o.PadsDue is { } due ? Figure.Date(due) : "", Chance(o.Within30), Chance(o.Within60), Chance(o.Within90),
    ]));

    private static string Chance(double? chance) => chance is { } c ? Figure.Of(c, 3) : "";
}

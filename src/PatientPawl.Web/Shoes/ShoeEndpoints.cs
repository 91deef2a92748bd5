using PatientPawl.Core.Shoes;
using UnitsNet;

namespace PatientPawl.Web.Shoes;

/// <summary>A quick bench for drum and shoes. The maximum comes as stamped, or in mm.</summary>
/// <param name="Drum">The drum as measured.</param>
/// <param name="Stamp">The stamping as typed; null when the maximum is given in mm.</param>
/// <param name="Maximum">The maximum diameter; null when the stamping is given.</param>
/// <param name="OutOfRoundLimit">The sheet's limit; null uses the flagged default.</param>
/// <param name="Shoes">The shoes; null judges the drum alone.</param>
/// <param name="Sheet">What the sheet says of the clearance.</param>
public sealed record ShoesRequest(Drum Drum, string? Stamp, Length? Maximum, Length? OutOfRoundLimit, ShoeSet? Shoes, ClearanceSheet? Sheet);

/// <summary>The bench's answer.</summary>
public sealed record ShoesAnswer(StampRead? Stamp, DrumVerdict Drum, ClearanceVerdict? Clearance);

internal static class ShoeEndpoints
{
    public static void MapShoes(this RouteGroupBuilder api) =>
        api.MapPost("/bench/shoes", (ShoesRequest r) =>
        {
            var stamp = r.Maximum is null ? MaximumStamp.Read(r.Stamp) : null;
            var drum = DrumJudgement.Judge(r.Drum, r.Maximum ?? stamp!.Diameter, r.OutOfRoundLimit);
            return TypedResults.Ok(new ShoesAnswer(stamp, drum, r.Shoes is { } shoes ? ShoeClearance.Judge(drum, shoes, r.Sheet ?? new(null, null, null)) : null));
        });
}

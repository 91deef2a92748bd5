using PatientPawl.Core;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Vehicles;
using PatientPawl.Data;
using PatientPawl.Web.Measuring;

namespace PatientPawl.Web.Pads;

/// <summary>A bench for the axle's pads.</summary>
/// <param name="Left">Readings of the left corner.</param>
/// <param name="Right">Readings of the right corner.</param>
/// <param name="Facts">What is known beside them.</param>
/// <param name="Spec">The sheet's figures; null when there is no sheet.</param>
public sealed record PadsRequest(IReadOnlyList<ReadingIn> Left, IReadOnlyList<ReadingIn> Right, PadFacts Facts, PadSpec? Spec);

internal static class PadEndpoints
{
    public static void MapPads(this RouteGroupBuilder api) =>
        api.MapPost("/bench/pads", (PadsRequest r, ToolBoard board) => TypedResults.Ok(PadBench.Judge(
            [.. ReadingIn.Resolve(r.Left, board).Select(x => new SidedReading(Side.Left, x)), .. ReadingIn.Resolve(r.Right, board).Select(x => new SidedReading(Side.Right, x))],
            r.Facts, r.Spec, board.OnHand)));
}

using PatientPawl.Core.Measuring;
using PatientPawl.Core.Shoes;
using PatientPawl.Core.Vehicles;
using PatientPawl.Data;
using PatientPawl.Web.Measuring;

namespace PatientPawl.Web.Shoes;

/// <summary>A bench for drum and shoes.</summary>
/// <param name="Readings">Readings at points.</param>
/// <param name="Facts">What is known beside them.</param>
/// <param name="Spec">The sheet's figures; null when there is no sheet.</param>
/// <param name="NewDrum">True to judge the drum that goes on.</param>
/// <param name="TryClicks">Clicks outward to draw the gap for; null draws the clicks advised.</param>
public sealed record ShoesRequest(IReadOnlyList<ReadingIn> Readings, ShoeFacts Facts, DrumSpec? Spec, bool NewDrum, int? TryClicks);

internal static class ShoeEndpoints
{
    public static void MapShoes(this RouteGroupBuilder api) =>
        api.MapPost("/bench/shoes", (ShoesRequest r, ToolBoard board) =>
            TypedResults.Ok(ShoeBench.Judge(ReadingIn.Resolve(r.Readings, board), r.Facts, r.Spec, r.NewDrum, r.TryClicks, board.OnHand)));
}

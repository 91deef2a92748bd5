using PatientPawl.Core;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Vehicles;
using PatientPawl.Data;
using PatientPawl.Web.Measuring;
using UnitsNet;

namespace PatientPawl.Web.Rotors;

/// <summary>A bench for a rotor.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Readings">Readings at points.</param>
/// <param name="Facts">What is known beside them.</param>
/// <param name="Spec">The sheet's figures; null when there is no sheet.</param>
public sealed record RotorRequest(Side Side, IReadOnlyList<ReadingIn> Readings, RotorFacts Facts, RotorSpec? Spec);

/// <summary>A speck under a rotor.</summary>
public sealed record SpeckRequest(Length Thickness, Length HubRadius, Length RotorRadius);

internal static class RotorEndpoints
{
    public static void MapRotors(this RouteGroupBuilder api)
    {
        api.MapPost("/bench/rotor", (RotorRequest r, ToolBoard board) =>
            TypedResults.Ok(RotorBench.Judge(ReadingIn.Resolve(r.Readings, board), r.Facts, r.Spec, r.Side, board.OnHand)));
        api.MapPost("/bench/speck", (SpeckRequest r) => TypedResults.Ok(HubAndRotor.Speck(r.Thickness, r.HubRadius, r.RotorRadius)));
    }
}

using PatientPawl.Core;
using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Web.Retraction;

/// <summary>The reservoir, for a quick bench.</summary>
public sealed record ReservoirNow(ReservoirSpec Spec, double LevelPercent);

/// <summary>A quick bench for retraction: which way, and, when the measurements are there, how far.</summary>
public sealed record RetractRequest(Architecture Architecture, bool MethodUndecided, Side Side, PistonSpec? Piston, HowFarInput? HowFar, RetractDepthRule Depth, ReservoirNow? Reservoir);

/// <summary>The bench's answer.</summary>
public sealed record RetractAnswer(Ruling Ruling, TravelResult? Travel, RoomResult? Room);

internal static class RetractionEndpoints
{
    public static void MapRetraction(this RouteGroupBuilder api) =>
        api.MapPost("/bench/retract", (RetractRequest r) =>
        {
            var ruling = RetractionRuling.Decide(r.Architecture, r.Side, r.Piston, r.MethodUndecided);
            var turned = ruling.Method is RetractMethod.TurnAndPush or RetractMethod.SpindleThenTurn or RetractMethod.RearHexAndPush;
            // A lead only means something where the piston is turned.
            var travel = r.HowFar is { } far ? HowFar.Compute(turned ? far : far with { Lead = null }, r.Depth) : null;
            var room = travel is not null && r.Reservoir is { } res ? ReservoirRoom.Judge(res.Spec, res.LevelPercent, travel.Displaced) : null;
            return TypedResults.Ok(new RetractAnswer(ruling, travel, room));
        });
}

using PatientPawl.Core.Jobs;
using PatientPawl.Core.Proving;
using PatientPawl.Data;
using PatientPawl.Web.Jobs;

namespace PatientPawl.Web.Proving;

public sealed record DriveBedIn(Guid EventId, DateTimeOffset OccurredAt, BedInFacts Facts, int Driven) : ICommand;
public sealed record TryHold(Guid EventId, DateTimeOffset OccurredAt, ParkingHoldFacts Facts) : ICommand;

internal static class ProvingEndpoints
{
    public static void MapProving(this RouteGroupBuilder api)
    {
        api.MapGet("/bench/bed-in", () => TypedResults.Ok(BedInSeries.Usual));
        api.MapPost("/bench/bed-in", (BedInFacts facts) => TypedResults.Ok(BedIn.Reckon(facts)));
        api.MapPost("/bench/parking-hold", (ParkingHoldFacts facts) => TypedResults.Ok(ParkingHold.Judge(facts)));
        var jobs = api.MapGroup("/jobs/{id:guid}").RequireAuthorization();
        jobs.MapGet("/proof", (Guid id, EventStore events) => TypedResults.Ok(JobProof.Of(events.State(id))));
        jobs.MapPost("/bed-in", async (Guid id, DriveBedIn c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.DriveBedIn(s, c.Facts, c.Driven))));
        jobs.MapPost("/parking-hold", async (Guid id, TryHold c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.TryHold(s, c.Facts))));
    }
}

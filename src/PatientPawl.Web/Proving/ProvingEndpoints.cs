using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Proving;
using PatientPawl.Core.Workshop;
using PatientPawl.Data;
using PatientPawl.Web.Jobs;

namespace PatientPawl.Web.Proving;

public sealed record DriveBedIn(Guid EventId, DateTimeOffset OccurredAt, BedInFacts Facts, int Driven) : ICommand;
public sealed record TryHold(Guid EventId, DateTimeOffset OccurredAt, ParkingHoldFacts Facts) : ICommand;

/// <summary>What a job knows of its own proof.</summary>
/// <param name="Usual">The series where the pad maker's sheet says nothing.</param>
/// <param name="BedIn">The bed-in that was noted; null when none was.</param>
/// <param name="Hold">What the parking brake was tried by; null when it was not.</param>
/// <param name="HatShoes">True where parking shoes run in the hat.</param>
/// <param name="SeriesAsked">True where the house rule asks for a series, false where it asks to be gentle instead.</param>
public sealed record JobProofView(BedInSeries Usual, BedInDriven? BedIn, ParkingHoldFacts? Hold, bool HatShoes, bool SeriesAsked);

internal static class ProvingEndpoints
{
    public static void MapProving(this RouteGroupBuilder api)
    {
        api.MapGet("/bench/bed-in", () => TypedResults.Ok(BedInSeries.Usual));
        api.MapPost("/bench/bed-in", (BedInFacts facts) => TypedResults.Ok(BedIn.Reckon(facts)));
        api.MapPost("/bench/parking-hold", (ParkingHoldFacts facts) => TypedResults.Ok(ParkingHold.Judge(facts)));
        var jobs = api.MapGroup("/jobs/{id:guid}").RequireAuthorization();
        jobs.MapGet("/proof", (Guid id, EventStore events) =>
        {
            var state = events.State(id);
            return TypedResults.Ok(new JobProofView(BedInSeries.Usual, state.BedIn, state.Hold, state.Setup.IsHat,
                state.Setup.Rules.BedIn == BedInRule.Series));
        });
        jobs.MapPost("/bed-in", (Guid id, DriveBedIn c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(commands.Append(http, id, c, (s, _) => JobRules.DriveBedIn(s, c.Facts, c.Driven))));
        jobs.MapPost("/parking-hold", (Guid id, TryHold c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(commands.Append(http, id, c, (s, _) => JobRules.TryHold(s, c.Facts))));
    }
}

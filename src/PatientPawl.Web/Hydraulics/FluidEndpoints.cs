using PatientPawl.Core;
using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Workshop;
using PatientPawl.Data;
using PatientPawl.Web.Jobs;

namespace PatientPawl.Web.Hydraulics;

/// <summary>A fluid bench with no job: whichever of the three is wanted.</summary>
public sealed record FluidRequest(ReservoirInput? Reservoir, FluidInput? Fluid, StrokesInput? Strokes);

/// <summary>Its answers.</summary>
public sealed record FluidBenchSeen(ReservoirAnswer? Reservoir, FluidAnswer? Fluid, StrokesAnswer? Strokes);

/// <summary>Whether to bleed, and where the bleeding stands.</summary>
public sealed record BleedRequest(IReadOnlyList<Opening> Openings, string? Order, BleedRule Rule, BleedInput? Bleed);

/// <summary>The answer.</summary>
public sealed record BleedSeen(BleedDecision Decision, BleedAnswer? Bleed);

public sealed record LookAtFluid(Guid EventId, DateTimeOffset OccurredAt, FluidFacts Facts) : ICommand;
public sealed record DrawAtScrew(Guid EventId, DateTimeOffset OccurredAt, Side Side, BleedDraw Draw) : ICommand;
public sealed record StrikeDraw(Guid EventId, DateTimeOffset OccurredAt, Side Side, Guid DrawId, string Reason) : ICommand;

public sealed record LookForLeaks(Guid EventId, DateTimeOffset OccurredAt, LeakInput Seen) : ICommand;

/// <summary>A draw of a job; struck ones say why.</summary>
public sealed record DrawLine(BleedDraw Draw, string? StruckBecause);

/// <summary>The fluid bench of a job.</summary>
public sealed record JobFluidView(FluidBenchAnswer Bench, FluidFacts Facts, IReadOnlyList<DrawLine> Left, IReadOnlyList<DrawLine> Right, double? LevelPercent, LeakInput? Leaks, bool BanjoUndone);

internal static class FluidEndpoints
{
    public static void MapFluid(this RouteGroupBuilder api)
    {
        api.MapPost("/bench/fluid", (FluidRequest r) => TypedResults.Ok(new FluidBenchSeen(
            r.Reservoir is null ? null : FluidBench.Predict(r.Reservoir), r.Fluid is null ? null : BrakeFluid.Judge(r.Fluid), r.Strokes is null ? null : PedalStrokes.Predict(r.Strokes))));
        api.MapPost("/bench/bleeding", (BleedRequest r) => TypedResults.Ok(new BleedSeen(Bleeding.Decide(r.Openings, r.Order, r.Rule), r.Bleed is null ? null : Bleeding.Follow(r.Bleed))));
        api.MapPost("/bench/leaks", (LeakInput r) => TypedResults.Ok(LeakCheck.Judge(r)));

        var jobs = api.MapGroup("/jobs/{id:guid}").RequireAuthorization();
        jobs.MapGet("/fluid", (Guid id, int? strokes, bool? firm, EventStore events) =>
        {
            var state = events.State(id);
            if (state.Opened is null) throw new NotAllowedException("This job was never opened.", [], []);
            return TypedResults.Ok(new JobFluidView(JobBenches.Fluid(state, strokes, firm == true), state.Fluid, Lines(state, Side.Left), Lines(state, Side.Right), state.LevelPercent, state.Leaks, state.BanjoUndone));
        });
        jobs.MapPost("/fluid/looked", async (Guid id, LookAtFluid c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.LookAtFluid(s, c.Facts))));
        jobs.MapPost("/fluid/leaks", async (Guid id, LookForLeaks c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.LookForLeaks(s, c.Seen))));
        jobs.MapPost("/fluid/draws/strike", async (Guid id, StrikeDraw c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.StrikeDraw(s, c.Side, c.DrawId, c.Reason))));
        jobs.MapPost("/fluid/draws", async (Guid id, DrawAtScrew c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.Draw(s, c.Side, c.Draw))));
    }

    private static IReadOnlyList<DrawLine> Lines(JobState state, Side side) =>
        [.. state.Corner(side).AllDraws.Select(d => new DrawLine(d, state.Corner(side).Struck.GetValueOrDefault(d.Id)))];
}

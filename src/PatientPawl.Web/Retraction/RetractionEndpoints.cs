using PatientPawl.Core;
using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using PatientPawl.Data;
using PatientPawl.Web.Jobs;
using PatientPawl.Web.Measuring;
using UnitsNet;
using Effort = UnitsNet.Torque;

namespace PatientPawl.Web.Retraction;

/// <summary>The reservoir, for a quick bench.</summary>
public sealed record ReservoirNow(ReservoirSpec Spec, double LevelPercent);

/// <summary>A quick bench for retraction: which way, and, when the measurements are there, how far.</summary>
public sealed record RetractRequest(Architecture Architecture, bool MethodUndecided, Side Side, PistonSpec? Piston, HowFarInput? HowFar, RetractDepthRule Depth, ReservoirNow? Reservoir, bool Opposed = false);

/// <summary>The bench's answer. An opposed caliper has its two sides beside the whole.</summary>
public sealed record RetractAnswer(Ruling Ruling, TravelResult? Travel, RoomResult? Room, OpposedTravel? Opposed);

/// <summary>A log with no job: as the core takes it, the gauge by its name on the tool board.</summary>
public sealed record LogRequest(
    IReadOnlyList<LogPoint> Points, bool Turned, Length? HomeProtrusion, Length? Lead, Length? Travel, IReadOnlyList<Length> Bores, string InstrumentId, bool TwoStage, bool OtherWayAllowed,
    StuckChecks Checks, Effort? OtherEffort, double? TurnsNow);

/// <summary>A slot to line up, and where the caliper sits.</summary>
public sealed record AlignmentRequest(AlignmentInput Slot, Side Side, CaliperPlace Place);

/// <summary>How it is lined up, and how the caliper is seen.</summary>
public sealed record AlignmentSeen(AlignmentAnswer Alignment, CaliperView View);

/// <summary>Opposed pistons before and after a push.</summary>
public sealed record CreepRequest(IReadOnlyList<OpposedPiston> Pistons, Length HomeProtrusion, Length? ProtrusionLimit);

/// <summary>A boot as it is found.</summary>
public sealed record BootRequest(BootState State, Known ResealAllowed, BootRule Rule);

public sealed record NotePoint(Guid EventId, DateTimeOffset OccurredAt, Side Side, LogPoint Point, string InstrumentId) : ICommand;
public sealed record StrikePoint(Guid EventId, DateTimeOffset OccurredAt, Side Side, Guid PointId, string Reason) : ICommand;
public sealed record TryCaliper(Guid EventId, DateTimeOffset OccurredAt, Side Side, double Turns, bool Passes) : ICommand;
public sealed record LookAtRetraction(Guid EventId, DateTimeOffset OccurredAt, Side Side, RetractionFacts Facts) : ICommand;

public sealed record MeasurePistons(Guid EventId, DateTimeOffset OccurredAt, Side Side, IReadOnlyList<PistonProud> Pistons) : ICommand;

/// <summary>A line of a job's log; struck ones say why.</summary>
public sealed record LogLine(LogPoint Point, string Gauge, string? StruckBecause);

/// <summary>A try of the caliper over its new pads.</summary>
public sealed record TryLine(double Turns, bool Passes);

/// <summary>The retract bench of a corner in a job. An opposed caliper has rounds in place of lines.</summary>
public sealed record JobRetractionView(RetractionBenchAnswer Bench, IReadOnlyList<LogLine> Lines, bool TriesOffered, IReadOnlyList<TryLine> Tries, IReadOnlyList<IReadOnlyList<PistonProud>> Rounds, RetractionFacts Facts, PistonSpec Piston, IReadOnlyList<BootAnswer> Boots);

internal static class RetractionEndpoints
{
    public static void MapRetraction(this RouteGroupBuilder api)
    {
        api.MapPost("/bench/retract", (RetractRequest r) =>
        {
            var ruling = RetractionRuling.Decide(r.Architecture, r.Side, r.Piston, r.MethodUndecided, r.Opposed);
            var turned = ruling.Turned;
            var opposed = r.HowFar is { } both && ruling.Method == RetractMethod.OpposedPush ? HowFar.Opposed(both, r.Depth) : null;
            // A lead only means something where the piston is turned.
            var travel = opposed?.Whole ?? (r.HowFar is { } far ? HowFar.Compute(turned ? far : far with { Lead = null }, r.Depth) : null);
            var room = travel is not null && r.Reservoir is { } res ? ReservoirRoom.Judge(res.Spec, res.LevelPercent, travel.Displaced) : null;
            return TypedResults.Ok(new RetractAnswer(ruling, travel, room, opposed));
        });
        api.MapPost("/bench/retraction-log", (LogRequest r, ToolBoard board) => TypedResults.Ok(RetractionLog.Follow(new(
            r.Points, r.Turned, r.HomeProtrusion, r.Lead, r.Travel, r.Bores, board.Take(r.InstrumentId, InstrumentUse.Depth, "how far the piston stands proud"), r.TwoStage, r.OtherWayAllowed, r.Checks, r.OtherEffort, r.TurnsNow))));
        api.MapPost("/bench/alignment", (AlignmentRequest r) => TypedResults.Ok(new AlignmentSeen(PistonAlignment.Plan(r.Slot), PistonAlignment.Facing(r.Side, r.Place))));
        api.MapPost("/bench/creep", (CreepRequest r) => TypedResults.Ok(CreepWatch.Watch(r.Pistons, r.HomeProtrusion, r.ProtrusionLimit)));
        api.MapPost("/bench/boot", (BootRequest r) => TypedResults.Ok(BootLook.Judge(r.State, r.ResealAllowed, r.Rule)));

        var jobs = api.MapGroup("/jobs/{id:guid}").RequireAuthorization();
        jobs.MapGet("/retraction", (Guid id, string side, double? turnsNow, EventStore events) => TypedResults.Ok(View(events.State(id), JobEndpoints.SideOf(side)!.Value, turnsNow)));
        jobs.MapPost("/retraction/points", async (Guid id, NotePoint c, HttpContext http, JobCommands commands, ToolBoard board) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.NotePoint(s, c.Side, c.Point, c.InstrumentId, board))));
        jobs.MapPost("/retraction/points/strike", async (Guid id, StrikePoint c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.StrikePoint(s, c.Side, c.PointId, c.Reason))));
        jobs.MapPost("/retraction/pistons", async (Guid id, MeasurePistons c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.MeasurePistons(s, c.Side, c.Pistons))));
        jobs.MapPost("/retraction/tries", async (Guid id, TryCaliper c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.TryCaliper(s, c.Side, c.Turns, c.Passes))));
        jobs.MapPost("/retraction/looked", async (Guid id, LookAtRetraction c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.LookAtRetraction(s, c.Side, c.Facts))));
    }

    private static JobRetractionView View(JobState state, Side side, double? turnsNow)
    {
        if (state.Opened is null) throw new NotAllowedException("This job was never opened.", [], []);
        var (file, piston) = (state.Corner(side), state.Opened.Sheet.Piston);
        return new(JobBenches.Retraction(state, side, turnsNow), [.. file.Log.Select(p => new LogLine(p.Point, p.Gauge.Name, file.Struck.GetValueOrDefault(p.Point.Id)))],
            JobRules.TriesAreOffered(state, side), [.. file.Tries.Select(t => new TryLine(t.Turns, t.Passes))], file.Pistons, file.Retraction, piston,
            [.. BootLook.States.Select(b => BootLook.Judge(b, piston.ResealAllowed, state.Setup.Rules.Boot))]);
    }
}

using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Microsoft.AspNetCore.Mvc;
using PatientPawl.Core;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Practice;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using PatientPawl.Data;
using PatientPawl.Web.Torque;
using PatientPawl.Web.Workshop;
using UnitsNet;

namespace PatientPawl.Web.Jobs;

public sealed record OpenJob(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, Guid JobId, int Bay, Vehicle Vehicle, string SheetCode, int OdometerKm, string Complaint, JobScope Scope, IReadOnlyList<Side>? NewCalipers = null, JobPurpose Purpose = JobPurpose.Real, bool Anyway = false) : IVersioned;

/// <summary>A car or a bay that has an open job already: it is asked whether another one is meant.</summary>
internal sealed class AlreadyOpenException(IReadOnlyList<OpenJobHere> open) : Exception("There is an open job here already.")
{
    public IReadOnlyList<OpenJobHere> Open { get; } = open;

    public IReadOnlyList<string> Because { get; } =
        [.. open.Select(o => o.SameCar ? $"{o.Plate} has job {o.Number} open, in bay {o.Bay}." : $"Bay {o.Bay} has {o.Plate} in it, with job {o.Number}.")];
}

/// <summary>A finding whose consequences are asked for before it is reported.</summary>
public sealed record FindingWanted(FindingKind Kind, Side? Side);

public sealed record FindingCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, FindingKind Kind, Side? Side, string? Note) : IVersioned;
public sealed record OutOfOrderCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, string StepId, Side? Side, IReadOnlyList<Reading> Readings, string Note) : IVersioned;
public sealed record NightCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt) : IVersioned;
public sealed record LookOverCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, IReadOnlyList<LookOverItem> Answers) : IVersioned;
public sealed record LookCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, Side Side, Look Look, Seen? Seen) : IVersioned;
public sealed record RuleCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, Side Side) : IVersioned;
public sealed record RouteCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, ServiceRoute Route) : IVersioned;
public sealed record ClickCommand(
    Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, string StepId, Side? Side, IReadOnlyList<Reading> Readings, IReadOnlyList<string> Acknowledged,
    string? Outcome, ToolReport? Report, string? Note, Guid? After = null) : IFollows;
public sealed record BesideCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, Guid TechnicianId) : IVersioned;
public sealed record GoalCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, JobGoal Goal, string Reason) : IVersioned;
public sealed record TorqueCommand(
    Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, string StepId, Side? Side, int Index, string? WrenchId, Crowfoot? Crowfoot, TorqueUnit Unit,
    double? EnteredValue, int? EnteredPerCorner, string? UnverifiedReason, string? Reason = null, double? ShownNm = null, bool HandTight = false, Guid? After = null) : IFollows, ISignature;
public sealed record StopCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, Side Side, StopSign Sign, string? Note) : IVersioned;
public sealed record SettleStopCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, Side Side, string What) : IVersioned;
public sealed record AwaitCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, string What, string From, DateOnly? Expected) : IVersioned;
/// <summary>Undoes a step. <c>NotDone</c> names those of the later steps asked about that were not done either; the others were.</summary>
public sealed record LiftCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, Guid Target, string Reason, IReadOnlyList<Guid>? NotDone = null) : IVersioned;
public sealed record NoteCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, string Text) : IVersioned;

/// <summary>The torque card of a job, with who has signed what.</summary>
public sealed record JobTorqueCard(IReadOnlyList<SignedFastener> Signed, TorqueCard Card);

/// <summary>What undoing a step would take with it, before it is confirmed: what is gone, and the later steps of which it is asked whether they were done.</summary>
public sealed record LiftPreview(Guid Target, IReadOnlyList<string> Undoes, IReadOnlyList<UndoneBeside> Asked);

/// <summary>A job as its screens need it.</summary>
public sealed record JobView(Guid Id, int Number, int Version, JobOpened Opened, RunSheet Sheet, CornerView Left, CornerView Right, ServiceRoute? Route, bool RouteNeeded, bool HandedOver, string? NotCovered, ImportedCopy? Imported,
    IReadOnlyList<string>? Beside);

internal static class JobEndpoints
{
    // A job's most photos, as letters, and its log.
    private const int MostFileBytes = 80 * 1024 * 1024;

    public static void MapJobs(this RouteGroupBuilder api)
    {
        api.MapGet("/board", (EventStore events) => TypedResults.Ok(events.Board())).RequireAuthorization();
        // Which job has moved on, as it does; a line with nothing in it shows that the connection stands.
        api.MapGet("/changes", (JobChanges changes, IHostApplicationLifetime life, CancellationToken gone) =>
            TypedResults.ServerSentEvents(Told(changes, life.ApplicationStopping, gone))).RequireAuthorization();

        var jobs = api.MapGroup("/jobs").RequireAuthorization();
        jobs.MapPost("/", async (OpenJob c, HttpContext http, JobCommands commands, EventStore events, Library library) =>
        {
            var sheet = library.Sheet(c.SheetCode) ?? throw new InputException(new InputError("sheetCode", Figure.Shorten(c.SheetCode), "a spec sheet of this workshop", "Choose a spec sheet: limits and torques come from it."));
            if (c.JobId == Guid.Empty) throw new InputException(new InputError("jobId", c.JobId.ToString(), "a new id", "The job id is empty."));
            var before = events.OnVehicle(c.Vehicle.Plate);
            var opened = await commands.Append(http, c.JobId, c, (state, _) => state.Opened is null
                // Two jobs of one car would be two truths of it: nobody gets a second one without being asked.
                ? !c.Anyway && events.OpenAt(c.Purpose == JobPurpose.Practice ? "" : c.Vehicle.Plate, c.Bay) is { Count: > 0 } here ? throw new AlreadyOpenException(here) : JobRules.Open(0, c.Bay, c.Vehicle, c.OdometerKm, c.Complaint, c.Scope, sheet, library.HouseRules, library.Instruments(), c.NewCalipers, VehicleHistory.Learnt(before), LearntFigures.Of(before), events.Lessons().Minutes) with { Purpose = c.Purpose }
                : throw new NotAllowedException("That job is open already.", [], []));
            library.Save(new KnownVehicle(c.Vehicle.Checked(), c.SheetCode));
            return TypedResults.Ok(opened);
        });
        jobs.MapGet("/past", (string? search, int? before, EventStore events) => TypedResults.Ok(events.Past(search ?? "", before)));
        // Asked for again and again: as long as nothing has happened to the job, a few bytes say so.
        jobs.MapGet("/{id:guid}", (Guid id, HttpContext http, JobViews views) => views.Answer(http, id)).Produces<JobView>();
        jobs.MapGet("/{id:guid}/why-not", (Guid id, string stepId, string? side, EventStore events) =>
        {
            var state = events.State(id);
            return TypedResults.Ok(Planner.Why(state.Setup, state.Car, new(stepId, SideOf(side))));
        });
        jobs.MapPost("/{id:guid}/look-over", async (Guid id, LookOverCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.LookOver(s, c.Answers))));
        jobs.MapPost("/{id:guid}/looks", async (Guid id, LookCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.Record(s, c.Side, c.Look, c.Seen))));
        jobs.MapPost("/{id:guid}/rulings", async (Guid id, RuleCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.Rule(s, c.Side))));
        jobs.MapPost("/{id:guid}/route", async (Guid id, RouteCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.Choose(s, c.Route))));
        jobs.MapPost("/{id:guid}/steps", async (Guid id, ClickCommand c, HttpContext http, JobCommands commands, ToolBoard board) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, me) => JobRules.Click(s, new(new(c.StepId, c.Side), c.Readings, c.Acknowledged, c.Outcome, c.Report, c.Note), me.IsLead, board))));
        jobs.MapPost("/{id:guid}/torques", async (Guid id, TorqueCommand c, HttpContext http, JobCommands commands, Library library, TimeProvider clock) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.Sign(s, new(new(c.StepId, c.Side), c.Index,
                c.WrenchId is null ? null : TorqueEndpoints.Find(library.Wrenches(), c.WrenchId), c.Crowfoot, c.Unit,
                c.EnteredValue is { } v ? TorqueReading.From(v, c.Unit, "enteredValue") : null, c.EnteredPerCorner, c.UnverifiedReason)
            { Reason = c.Reason, HandTight = c.HandTight, Shown = c.ShownNm is { } shown ? UnitsNet.Torque.FromNewtonMeters(shown) : null }, DateOnly.FromDateTime(clock.GetLocalNow().DateTime)))));
        jobs.MapPost("/{id:guid}/findings", async (Guid id, FindingCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.Report(s, c.Kind, c.Side, c.Note))));
        // What a finding would change, before it is reported.
        jobs.MapPost("/{id:guid}/findings/preview", (Guid id, FindingWanted w, EventStore events) => TypedResults.Ok(FindingRules.Preview(events.State(id), w.Kind, w.Side)));
        jobs.MapPost("/{id:guid}/out-of-order", async (Guid id, OutOfOrderCommand c, HttpContext http, JobCommands commands, ToolBoard board) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.OutOfOrder(s, new(new(c.StepId, c.Side), c.Readings, [], null, null, c.Note), board))));
        // Where the job could go instead, and what that would take; then the change itself.
        jobs.MapGet("/{id:guid}/choices", (Guid id, EventStore events) => TypedResults.Ok(RunSheets.Choices(events.State(id))));
        jobs.MapGet("/{id:guid}/goals", (Guid id, EventStore events) => TypedResults.Ok(GoalChoices.Of(events.State(id))));
        jobs.MapPost("/{id:guid}/goal", async (Guid id, GoalCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.Aim(s, c.Goal, c.Reason))));
        jobs.MapPost("/{id:guid}/beside", async (Guid id, BesideCommand c, HttpContext http, JobCommands commands, Library library) =>
        {
            var who = library.Technicians().FirstOrDefault(t => t.Id == c.TechnicianId && t.LeftAt is null)
                ?? throw new InputException(new InputError("technicianId", c.TechnicianId.ToString(), "somebody who works here", "Nobody here has that id."));
            return TypedResults.Ok(await commands.Append(http, id, c, (s, me) => ShownBeforeAlone.Put(s, who.Id, who.Name, me.IsLead)));
        });
        // The shortest safe stopping point; leaving is refused until it is reached.
        jobs.MapGet("/{id:guid}/overnight", (Guid id, EventStore events) =>
        {
            var state = events.State(id);
            return TypedResults.Ok(Overnight.Shortest(state.Setup, state.Car, state.Times));
        });
        jobs.MapPost("/{id:guid}/overnight", async (Guid id, NightCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.Leave(s))));
        jobs.MapPost("/{id:guid}/come-back", async (Guid id, NightCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.ComeBack(s))));
        jobs.MapGet("/{id:guid}/schedule", (Guid id, int people, EventStore events) =>
        {
            var state = events.State(id);
            return TypedResults.Ok(Scheduling.Make(state.Setup, state.Car, state.Remaining, people, state.Times));
        });
        jobs.MapGet("/{id:guid}/torque-card", (Guid id, EventStore events, Library library, TimeProvider clock) =>
        {
            var state = events.State(id);
            // The whole job's fasteners, those signed already too: the card is for the wall beside the car.
            var whole = Planner.Make(state.Setup, state.Setup.Start()).Steps;
            return TypedResults.Ok(new JobTorqueCard(SignedFastener.Of(state), TorqueCards.Make(state.Setup, state.Opened!.Sheet, [.. whole, .. state.Remaining.Except(whole)], library.Wrenches(), DateOnly.FromDateTime(clock.GetLocalNow().DateTime))));
        });
        jobs.MapPost("/{id:guid}/stop-signs", async (Guid id, StopCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.Stop(s, c.Side, c.Sign, c.Note))));
        jobs.MapPost("/{id:guid}/stop-signs/settled", async (Guid id, SettleStopCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.SettleStop(s, c.Side, c.What))));
        jobs.MapPost("/{id:guid}/parts/awaited", async (Guid id, AwaitCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.Await(s, c.What, c.From, c.Expected))));
        jobs.MapPost("/{id:guid}/parts/came", async (Guid id, NightCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.Came(s))));
        jobs.MapGet("/{id:guid}/lifts/{target:guid}", (Guid id, Guid target, Guid[]? notDone, HttpContext http, EventStore events, JobCommands commands) =>
        {
            var (state, me) = (events.State(id), commands.Me(http));
            var undoing = JobRules.Undo(state, target, me.IsLead, me.Id, notDone ?? []);
            return TypedResults.Ok(new LiftPreview(target, [.. state.Log.Where(e => undoing.Voided.Contains(e.Id)).Select(e => e.Event.Words())], undoing.Asked));
        });
        jobs.MapPost("/{id:guid}/lifts", async (Guid id, LiftCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, me) => JobRules.Lift(s, c.Target, c.Reason, me.IsLead, me.Id, c.NotDone))));
        jobs.MapPost("/{id:guid}/notes", async (Guid id, NoteCommand c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) =>
            {
                new Checks().Text("text", c.Text, 500).ThrowIfAny();
                return s.Opened is null ? throw new UnknownJobException(id) : new NoteAdded(c.Text.Trim());
            })));
        jobs.MapGet("/{id:guid}/customer-sheet", (Guid id, EventStore events) => TypedResults.Ok(CustomerSheet.Of(events.State(id)) with { Number = events.Number(id) }));
        jobs.MapGet("/{id:guid}/record", (Guid id, EventStore events) => TypedResults.Ok(JobRecord.Of(events.State(id))));
        // Whether the log is what was stored: every hash and every seal, read again.
        jobs.MapGet("/{id:guid}/verified", (Guid id, EventStore events) => TypedResults.Ok(events.Verify(id)));
        jobs.MapGet("/{id:guid}/file", (Guid id, EventStore events, JobFiles files) =>
        {
            events.State(id);
            return TypedResults.File(files.Write(id), "application/json", $"job-{id}.json");
        });
        // Whoever can make a chain could put words into another's mouth: only the lead brings a job in.
        jobs.MapPost("/import", (JobFile file, HttpContext http, JobFiles files) =>
        {
            http.RequireLead();
            return TypedResults.Ok(files.Read(file, http.User.Identity?.Name ?? ""));
        }).WithMetadata(new RequestSizeLimitAttribute(MostFileBytes));
    }

    private static async IAsyncEnumerable<SseItem<JobChanged?>> Told(JobChanges changes, CancellationToken stopping, [EnumeratorCancellation] CancellationToken gone)
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(stopping, gone);
        await foreach (var change in changes.Listen(TimeSpan.FromSeconds(20), either.Token))
            yield return new(change, change is null ? "still" : "job");
    }

    // The framework reads enumerations in an address by their C# names; the open formats write them small.
    internal static Side? SideOf(string? word) => word switch
    {
        null => null,
        "left" => Side.Left,
        "right" => Side.Right,
        _ => throw new InputException(new InputError("side", Figure.Shorten(word), "left or right", "A corner is left or right.")),
    };

    /// <summary>What is true of a practised car is not shown to who practises.</summary>
    private static JobOpened Shown(JobOpened opened) => opened.Practice is { Own: not null } run ? opened with { Practice = run with { Own = null } } : opened;

    internal static JobView View(Guid id, JobState state, EventStore events)
    {
        return new(id, events.Number(id), state.Version, Shown(state.Opened!), RunSheets.Of(state), RunSheets.Corner(state, Side.Left), RunSheets.Corner(state, Side.Right),
            state.Route, state.Setup.NeedsRoute, state.HandedOver, state.Setup.NotCovered, events.Imported(id),
            ShownBeforeAlone.Asks(state) ? [.. ShownBeforeAlone.Beside(state).Select(b => b.Name)] : null);
    }
}

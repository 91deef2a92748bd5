using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using PatientPawl.Core;
using PatientPawl.Core.Electric;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Data;
using PatientPawl.StandIns.Car;
using PatientPawl.Web.Jobs;
using PatientPawl.Web.Workshop;

namespace PatientPawl.Web.Electric;

/// <summary>Something asked of the car over the link.</summary>
public sealed record ActCommand(Guid EventId, int ExpectedVersion, DateTimeOffset OccurredAt, ElectricAct Act, IReadOnlyList<string> Clear, IReadOnlyList<string> Acknowledged) : IVersioned;

/// <summary>A trace taken with a clamp meter, for a job.</summary>
public sealed record TraceCommand(Guid EventId, DateTimeOffset OccurredAt, Side Side, string Text, TraceDirection? Direction, MotorConstants? Motor) : ICommand;

/// <summary>A trace to be read, and another to put beside it.</summary>
public sealed record TraceRequest(string Text, MotorConstants? Motor = null, TraceDirection? Direction = null, int Stroke = 1, string? Other = null);

/// <summary>A trace as it was read, with enough of it to draw.</summary>
public sealed record TraceAnswer(TraceReading Reading, IReadOnlyList<TracePoint> Drawn, TraceReading? Other, IReadOnlyList<TracePoint>? OtherDrawn, TraceComparison? Compared);

/// <summary>Faults of the stand-in car.</summary>
public sealed record CarFaults(bool IsOwn, IReadOnlyList<CarFault> Set, IReadOnlyList<CarFault> All);

/// <summary>A fault set or lifted.</summary>
public sealed record FaultCommand(CarFault Fault, bool On);

internal static class ElectricEndpoints
{
    private const int DrawnPoints = 600;
    private static readonly TimeSpan Running = TimeSpan.FromMilliseconds(50), Resting = TimeSpan.FromMilliseconds(250);

    public static void MapElectric(this RouteGroupBuilder api)
    {
        api.MapPost("/bench/current", (TraceRequest r) =>
        {
            var trace = TraceCsv.Read(r.Text);
            var read = TraceReader.Read(trace, r.Motor, r.Direction, r.Stroke);
            var beside = r.Other is null ? null : TraceCsv.Read(r.Other);
            var other = beside is null ? null : TraceReader.Read(beside, r.Motor, r.Direction, 1);
            return TypedResults.Ok(new TraceAnswer(read, trace.Drawn(DrawnPoints), other, beside?.Drawn(DrawnPoints), other is null ? null : TraceSides.Compare(read, other)));
        });
        api.MapGet("/car/faults", (CarHost cars) => TypedResults.Ok(new CarFaults(cars.IsOwn, cars.Faults, Enum.GetValues<CarFault>()))).RequireAuthorization();
        api.MapPost("/car/faults", (FaultCommand c, HttpContext http, CarHost cars) =>
        {
            http.RequireLead();
            cars.Set(c.Fault, c.On);
            return TypedResults.Ok(new CarFaults(cars.IsOwn, cars.Faults, Enum.GetValues<CarFault>()));
        }).RequireAuthorization();

        var jobs = api.MapGroup("/jobs/{id:guid}").RequireAuthorization();
        jobs.MapGet("/routes", (Guid id, EventStore events) =>
        {
            var state = events.State(id);
            return TypedResults.Ok(ServiceRoutes.Rank(state.Setup, state.Opened?.Sheet, state.Times));
        });
        jobs.MapGet("/electric", (Guid id, HttpContext http, EventStore events, JobCommands commands, TimeProvider clock) =>
            TypedResults.Ok(JobElectric.View(events.State(id), clock.GetUtcNow(), commands.Me(http).Name)));
        jobs.MapPost("/electric/act", async (Guid id, ActCommand c, HttpContext http, EventStore events, JobCommands commands, ElectricRuns runs, TimeProvider clock) =>
        {
            runs.RequireFree(id);
            // What was recorded before is answered as it was then, and moves nothing again.
            var known = events.State(id).Log.Any(e => e.Id == c.EventId);
            var appended = await commands.Append(http, id, c, (s, me) => JobRules.Ask(s, c.Act, c.Clear, c.Acknowledged, me.Name, clock.GetUtcNow()));
            var by = commands.Me(http);
            if (!known) runs.Begin(id, c.EventId, c.Act, new(by.Id, by.Name, c.OccurredAt), by.IsLead);
            return TypedResults.Ok(appended);
        });
        jobs.MapPost("/electric/stop", async (Guid id, ElectricRuns runs, CancellationToken gone) =>
        {
            await runs.StopAsync(id, gone);
            return TypedResults.Ok(await runs.LiveAsync(id, gone));
        });
        jobs.MapPost("/electric/settle", (Guid id, HttpContext http, JobCommands commands, ElectricRuns runs, TimeProvider clock) =>
        {
            var by = commands.Me(http);
            runs.Settle(id, new(by.Id, by.Name, clock.GetLocalNow()), by.IsLead);
            return TypedResults.NoContent();
        });
        jobs.MapGet("/electric/live", (Guid id, EventStore events, ElectricRuns runs, IHostApplicationLifetime life, CancellationToken gone) =>
        {
            if (!JobElectric.Serves(events.State(id))) throw new NotAllowedException("The link does not serve this job.", ["A simulated car never stands in for a real one."], []);
            return TypedResults.ServerSentEvents(Live(id, runs, life.ApplicationStopping, gone));
        });
        jobs.MapGet("/electric/exchange", (Guid id, EventStore events, CarSession session) =>
        {
            events.State(id);
            return TypedResults.Ok(session.Exchanges(id));
        });
        jobs.MapPost("/traces", async (Guid id, TraceCommand c, HttpContext http, JobCommands commands) =>
        {
            var trace = TraceCsv.Read(c.Text);
            var reading = TraceReader.Read(trace, c.Motor, c.Direction);
            var bytes = Picture.Of(TraceCsv.Write(trace));
            new Checks().Range("text", bytes.Content.Length, 0, Picture.MostBytes, "bytes").ThrowIfAny();
            return TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.KeepTrace(s, new TraceKept(bytes.Sha256, c.Side, "a clamp meter", c.Direction, reading)), bytes));
        });
        jobs.MapGet("/traces/{sha256}", (Guid id, string sha256, EventStore events, Data.Photos kept) =>
            events.State(id).Log.Any(e => e.Event is TraceKept t && t.Sha256 == sha256) && kept.Find(sha256) is { } content
                ? Results.File(content, "text/csv", $"trace-{sha256[..8]}.csv") : throw new UnknownJobException(id)).Produces(StatusCodes.Status200OK, contentType: "text/csv");
        jobs.MapGet("/traces/{sha256}/drawn", (Guid id, string sha256, EventStore events, Data.Photos kept) =>
            events.State(id).Log.Any(e => e.Event is TraceKept t && t.Sha256 == sha256) && kept.Find(sha256) is { } content
                ? TypedResults.Ok(TraceCsv.Read(System.Text.Encoding.ASCII.GetString(content)).Drawn(DrawnPoints)) : throw new UnknownJobException(id));
    }

    private static async IAsyncEnumerable<SseItem<ElectricLive>> Live(Guid job, ElectricRuns runs, CancellationToken stopping, [EnumeratorCancellation] CancellationToken gone)
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(stopping, gone);
        using var open = runs.Open(job);
        while (!either.IsCancellationRequested)
        {
            var live = await runs.LiveAsync(job, either.Token);
            yield return new(live, "live");
            await Task.Delay(live.Running is null ? Resting : Running, either.Token);
        }
    }
}

using System.Text;
using System.Text.Json;
using PatientPawl.Core;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Shoes;
using PatientPawl.Core.Vehicles;
using PatientPawl.Data;
using PatientPawl.StandIns;
using PatientPawl.Web.Jobs;
using PatientPawl.Web.Workshop;
using UnitsNet;

namespace PatientPawl.Web.Measuring;

/// <summary>An instrument with whether its calibration still runs.</summary>
public sealed record InstrumentInUse(Instrument Instrument, bool InDate);

/// <summary>Pasted readings.</summary>
public sealed record CsvText(string Text);

/// <summary>Readings to write out.</summary>
public sealed record ReadingsOut(IReadOnlyList<ReadingIn> Readings);

/// <summary>A press of the stand-in gauge's data button.</summary>
public sealed record GaugePress(string InstrumentId, Length Size, Length Noise, GaugeUnit Unit);

public sealed record TakeReadings(Guid EventId, DateTimeOffset OccurredAt, Side Side, IReadOnlyList<ReadingIn> Readings) : ICommand;
public sealed record StrikeReading(Guid EventId, DateTimeOffset OccurredAt, Guid ReadingId, string Reason) : ICommand;
public sealed record LookAtShoes(Guid EventId, DateTimeOffset OccurredAt, Side Side, ShoeFacts Facts) : ICommand;
public sealed record LookAtRotor(Guid EventId, DateTimeOffset OccurredAt, Side Side, RotorFacts Facts) : ICommand;
public sealed record LookAtPads(Guid EventId, DateTimeOffset OccurredAt, PadFacts Facts) : ICommand;
public sealed record NoteStarWheel(Guid EventId, DateTimeOffset OccurredAt, Side Side, WheelWay Loosens, int HoleAt) : ICommand;

/// <summary>The shoe bench asked of a job: what is not stored yet goes along; sheet, instruments, rules and stored readings are the job's own.</summary>
public sealed record JobShoesRequest(Side Side, IReadOnlyList<ReadingIn> Unsaved, ShoeFacts? Facts, bool NewDrum, int? TryClicks);

/// <summary>The rotor bench asked of a job.</summary>
public sealed record JobRotorRequest(Side Side, IReadOnlyList<ReadingIn> Unsaved, RotorFacts? Facts);

/// <summary>The pad bench asked of a job: both corners.</summary>
public sealed record JobPadsRequest(IReadOnlyList<ReadingIn> Left, IReadOnlyList<ReadingIn> Right, PadFacts? Facts);

/// <summary>A reading of a job; struck ones say why.</summary>
public sealed record JobReading(Side Side, PointReading Reading, string? StruckBecause);

/// <summary>The benches of a job: its readings, what is known beside them, and what the vehicle remembers.</summary>
public sealed record JobBenchView(
    IReadOnlyList<JobReading> Readings, ShoeFacts LeftShoes, ShoeFacts RightShoes, RotorFacts LeftRotor, RotorFacts RightRotor, PadFacts Pads, SidesVerdict? Sides, bool NewRotors,
    StarWheelNoted? LeftWheel, StarWheelNoted? RightWheel, DrumSpec? Drum, RotorSpec Rotor, PadSpec PadSpec);

internal static class MeasuringEndpoints
{
    public static void MapMeasuring(this RouteGroupBuilder api)
    {
        Instruments(api);
        Csv(api);
        Gauge(api);
        var jobs = api.MapGroup("/jobs/{id:guid}").RequireAuthorization();
        jobs.MapGet("/benches", (Guid id, EventStore events) => TypedResults.Ok(View(events.State(id), events)));
        jobs.MapPost("/bench/shoes", (Guid id, JobShoesRequest r, EventStore events, ToolBoard board) => TypedResults.Ok(
            JobBenches.Shoes(events.State(id), r.Side, r.NewDrum, r.TryClicks, events.State(id).Own(board).OnHand, At(r.Side, r.Facts, ReadingIn.Resolve(r.Unsaved, board)))));
        jobs.MapPost("/bench/rotor", (Guid id, JobRotorRequest r, EventStore events, ToolBoard board) => TypedResults.Ok(
            JobBenches.Rotor(events.State(id), r.Side, events.State(id).Own(board).OnHand, At(r.Side, r.Facts, ReadingIn.Resolve(r.Unsaved, board)))));
        jobs.MapPost("/bench/pads", (Guid id, JobPadsRequest r, EventStore events, ToolBoard board) => TypedResults.Ok(
            JobBenches.Pads(events.State(id), events.State(id).Own(board).OnHand, new(r.Facts, ReadingIn.Resolve(r.Left, board), ReadingIn.Resolve(r.Right, board)))));
        jobs.MapGet("/readings.csv", (Guid id, EventStore events) =>
        {
            var state = events.State(id);
            return TypedResults.File(Encoding.UTF8.GetBytes(ReadingsCsv.Write(Core.Sides.Both.SelectMany(s => state.Corner(s).Standing()))), "text/csv", $"readings-{id}.csv");
        });
        jobs.MapPost("/readings", async (Guid id, TakeReadings c, HttpContext http, JobCommands commands, ToolBoard board) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.Take(s, c.Side, ReadingIn.Resolve(c.Readings, board), board.Today))));
        jobs.MapPost("/attached", async (Guid id, AttachBench c, HttpContext http, JobCommands commands, ToolBoard board) =>
            TypedResults.Ok(await commands.Append(http, id, c, c.Each(board))));
        jobs.MapPost("/readings/strike", async (Guid id, StrikeReading c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.Strike(s, c.ReadingId, c.Reason))));
        jobs.MapPost("/shoes-looked", async (Guid id, LookAtShoes c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.LookAtShoes(s, c.Side, c.Facts))));
        jobs.MapPost("/rotor-looked", async (Guid id, LookAtRotor c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.LookAtRotor(s, c.Side, c.Facts))));
        jobs.MapPost("/pads-looked", async (Guid id, LookAtPads c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.LookAtPads(s, c.Facts))));
        jobs.MapPost("/star-wheel", async (Guid id, NoteStarWheel c, HttpContext http, JobCommands commands) =>
            TypedResults.Ok(await commands.Append(http, id, c, (s, _) => JobRules.NoteStarWheel(s, c.Side, c.Loosens, c.HoleAt))));
    }

    private static Unsaved<T> At<T>(Side side, T? facts, IReadOnlyList<PointReading> readings) where T : class => side == Side.Left ? new(facts, readings, []) : new(facts, [], readings);

    private static void Instruments(RouteGroupBuilder api)
    {
        api.MapGet("/workshop/instruments", (ToolBoard board) => TypedResults.Ok(List(board)));
        api.MapPut("/workshop/instruments", (IReadOnlyList<Instrument> instruments, HttpContext http, Library library, ToolBoard board) =>
        {
            http.RequireLead();
            if (instruments.Count is 0 or > 200) throw new InputException(new InputError("instruments", Figure.Of(instruments.Count), "1 to 200", "A workshop keeps from 1 to 200 instruments."));
            foreach (var i in instruments) i.Checked();
            if (instruments.GroupBy(i => i.Id, StringComparer.Ordinal).FirstOrDefault(g => g.Count() > 1) is { } twice)
                throw new InputException(new InputError("id", twice.Key, "each name once", $"Two instruments are called {twice.Key}."));
            library.SetInstruments(instruments);
            return TypedResults.Ok(List(board with { Instruments = library.Instruments() }));
        }).RequireAuthorization();
    }

    private static List<InstrumentInUse> List(ToolBoard board) => [.. board.Instruments.Select(i => new InstrumentInUse(i, i.InDate(board.Today)))];

    private static void Csv(RouteGroupBuilder api)
    {
        api.MapPost("/readings/csv/read", (CsvText c, ToolBoard board, TimeProvider clock) => TypedResults.Ok(ReadingsCsv.Read(c.Text, board, clock.GetLocalNow())));
        api.MapPost("/readings/csv/write", (ReadingsOut r, ToolBoard board) => TypedResults.Text(ReadingsCsv.Write(ReadingIn.Resolve(r.Readings, board)), "text/csv"));
    }

    private static void Gauge(RouteGroupBuilder api)
    {
        api.MapPost("/gauge/{bench:guid}/press", (Guid bench, GaugePress p, Gauges gauges, Library library) =>
            TypedResults.Ok(gauges.For(bench, InstrumentCatalogue.Get(library.Instruments(), p.InstrumentId)).Press(new(p.Size, p.Noise, p.Unit))));
        // Server-sent events: the page listens as it would to a gauge with a cable.
        api.MapGet("/gauge/{bench:guid}/readings", async (Guid bench, string instrumentId, Gauges gauges, Library library, HttpResponse response, IHostApplicationLifetime host, CancellationToken gone) =>
        {
            var gauge = gauges.For(bench, InstrumentCatalogue.Get(library.Instruments(), instrumentId));
            // A listener must not keep the server from stopping.
            using var over = CancellationTokenSource.CreateLinkedTokenSource(gone, host.ApplicationStopping);
            response.ContentType = "text/event-stream";
            response.Headers.CacheControl = "no-store";
            try
            {
                var readings = gauge.ReadingsAsync(over.Token);
                await response.WriteAsync(": listening\n\n", over.Token);
                await response.Body.FlushAsync(over.Token);
                await foreach (var reading in readings)
                {
                    await response.WriteAsync($"event: reading\ndata: {JsonSerializer.Serialize(reading, PawlJson.Options)}\n\n", over.Token);
                    await response.Body.FlushAsync(over.Token);
                }
            }
            catch (OperationCanceledException)
            {
                // The page was closed, or the server stops.
            }
        }).Produces<GaugeReading>(StatusCodes.Status200OK, "text/event-stream");
    }

    private static JobBenchView View(JobState state, EventStore events)
    {
        var opened = state.Opened!;
        var earlier = events.OnVehicle(opened.Vehicle.Plate);
        ClearanceVerdict? Clearance(Side side)
        {
            try
            {
                return JobBenches.Shoes(state, side, state.Setup.Rotors, null, state.Instruments).Clearance;
            }
            catch (InputException)
            {
                // The bench of that side says which figure is wrong.
                return null;
            }
        }

        var history = VehicleHistory.PadWear(earlier.Where(j => j.Opened!.OdometerKm < opened.OdometerKm));
        var pads = JobPads.Facts(state);
        return new(
            [.. Core.Sides.Both.SelectMany(s => state.Corner(s).Readings.Select(r => new JobReading(s, r, state.Corner(s).Struck.GetValueOrDefault(r.Id))))],
            state.Corner(Side.Left).Shoes ?? ShoeFacts.None, state.Corner(Side.Right).Shoes ?? ShoeFacts.None, state.RotorFacts(Side.Left), state.RotorFacts(Side.Right),
            pads.History.Count > 0 ? pads : pads with { History = history },
            Clearance(Side.Left) is { } left && Clearance(Side.Right) is { } right ? SidesCompared.Judge(left, right) : null, state.Setup.Rotors,
            VehicleHistory.StarWheel(earlier, Side.Left), VehicleHistory.StarWheel(earlier, Side.Right), opened.Sheet.Drum, opened.Sheet.Rotor, opened.Sheet.Pads);
    }
}

using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using PatientPawl.Core;
using PatientPawl.Core.Electric;
using PatientPawl.Core.Electric.Link;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Data;
using PatientPawl.StandIns.Car;
using PatientPawl.Web.Hosting;
using UnitsNet;

namespace PatientPawl.Web.Electric;

/// <summary>What the electric bench shows while it stands there.</summary>
/// <param name="Linked">True while the car answers.</param>
/// <param name="Says">How the link and the brake stand, in words.</param>
/// <param name="State">The brake; null where nobody knows.</param>
/// <param name="Running">What runs; null where nothing does.</param>
/// <param name="StopAsked">True from the asking to the end.</param>
/// <param name="MayRun">True while a motor may be running and nobody knows: hands out.</param>
/// <param name="Elapsed">Since the motion that runs began.</param>
/// <param name="Voltage">At the battery.</param>
/// <param name="LeftAt">Left spindle, from its back stop.</param>
/// <param name="RightAt">Right spindle; null where one motor pulls both.</param>
/// <param name="LeftCurrent">Left current.</param>
/// <param name="RightCurrent">Right current.</param>
public sealed record ElectricLive(
    bool Linked, string Says, UnitState? State, ElectricAct? Running, bool StopAsked, bool MayRun, Duration? Elapsed, ElectricPotential? Voltage,
    Length? LeftAt, Length? RightAt, ElectricCurrent? LeftCurrent, ElectricCurrent? RightCurrent);

/// <summary>
/// Runs what was asked over the link to its end, whoever looks on, and records how it ended under the name of who asked. One job has the link at a
/// time. A lost answer is asked for again by its result; nothing is started twice.
/// </summary>
public sealed partial class ElectricRuns(CarHost cars, EventStore events, Library library, TimeProvider clock, ILogger<ElectricRuns> logger) : IAsyncDisposable
{
    private static readonly TimeSpan Every = TimeSpan.FromMilliseconds(50), Again = TimeSpan.FromMilliseconds(500), GivesUp = TimeSpan.FromSeconds(30), Holds = TimeSpan.FromSeconds(3);
    private const int MostExchanges = 400;

    private readonly ConcurrentDictionary<Guid, Queue<Exchange>> _exchanges = new();
    private readonly SemaphoreSlim _tooling = new(1, 1);
    private readonly CancellationTokenSource _stopping = new();
    private readonly Lock _lock = new();
    private IScanTool? _tool;
    private Run? _run;
    private (Guid Job, long Seen)? _holder;

    /// <summary>What went over the link for a job, the newest last.</summary>
    public IReadOnlyList<Exchange> Exchanges(Guid job)
    {
        if (!_exchanges.TryGetValue(job, out var queue)) return [];
        lock (queue) return [.. queue];
    }

    /// <summary>Refuses where another job has the link.</summary>
    /// <exception cref="NotAllowedException">Another job's routine runs.</exception>
    public void RequireFree(Guid job)
    {
        if (_run is { Ended: false } run && run.Job != job) throw new NotAllowedException("Another job has the link.", ["Its motors are moving: wait for their end."], []);
        if (HeldByAnother(job)) throw new NotAllowedException("Another job has the link.", ["Its electric bench is open: close it there first."], []);
    }

    /// <summary>True while another job's bench is looked at: it has the link until nobody has looked for a moment.</summary>
    private bool HeldByAnother(Guid job)
    {
        lock (_lock)
        {
            if (_holder is { } holder && holder.Job != job && clock.GetElapsedTime(holder.Seen) < Holds) return true;
            _holder = (job, clock.GetTimestamp());
            return false;
        }
    }

    /// <summary>Begins what was just asked, and returns at once.</summary>
    public void Begin(Guid job, Guid asked, ElectricAct act, Sender by, bool isLead)
    {
        var run = new Run(job, asked, act, by, isLead, clock.GetTimestamp());
        lock (_lock)
        {
            RequireFree(job);
            _run = run;
        }

        run.Task = Task.Run(() => Drive(run));
    }

    /// <summary>Asks how something stands that was asked before this server started, or before the link was lost for good.</summary>
    public void Settle(Guid job, Sender by, bool isLead)
    {
        if (_run is { Ended: false }) return;
        var state = events.State(job);
        if (JobElectric.View(state, clock.GetUtcNow(), by.Technician).Pending is not { } pending) return;
        var run = new Run(job, pending.EventId, pending.Act, by, isLead, clock.GetTimestamp()) { OnlyAsks = true };
        lock (_lock) _run = run;
        run.Task = Task.Run(() => Drive(run));
    }

    /// <summary>Asks the unit to stop. It can always be asked; it is not a safety device.</summary>
    public async Task StopAsync(Guid job, CancellationToken cancellation)
    {
        if (_run is not { Ended: false } run || run.Job != job) return;
        run.StopAsked = true;
        if (run.Routine is not { } routine) return;
        try
        {
            await (await Tool(job, cancellation)).StopAsync(routine, cancellation);
        }
        catch (LinkLostException)
        {
            await Drop();
        }
    }

    /// <summary>How it stands now.</summary>
    public async Task<ElectricLive> LiveAsync(Guid job, CancellationToken cancellation)
    {
        if (_run is { Ended: false } run)
            return run.Job == job ? run.Live ?? new(true, "Asked.", null, run.Act, run.StopAsked, false, null, null, null, null, null, null)
                : new(false, "Another job has the link.", null, null, false, false, null, null, null, null, null, null);
        if (HeldByAnother(job)) return new(false, "Another job has the link.", null, null, false, false, null, null, null, null, null, null);
        try
        {
            cars.Put(job, events.State(job));
            return Seen(null, await (await Tool(job, cancellation)).LiveAsync(cancellation));
        }
        catch (LinkLostException e)
        {
            await Drop();
            return new(false, e.Message, null, null, false, false, null, null, null, null, null, null);
        }
    }

    private ElectricLive Seen(Run? run, LiveState s)
    {
        var one = s.Motors == 1;
        return new(true, Words.Of(s.State), s.State, run?.Act, run?.StopAsked ?? false, false, run is null ? null : Duration.FromSeconds(clock.GetElapsedTime(run.StrokeSince).TotalSeconds * cars.Speed),
            ElectricPotential.FromVolts(s.MilliVolts / 1000.0), Length.FromMillimeters(s.LeftHundredthsMm / 100.0), one ? null : Length.FromMillimeters(s.RightHundredthsMm / 100.0),
            ElectricCurrent.FromAmperes(s.LeftCentiAmps / 100.0), one ? null : ElectricCurrent.FromAmperes(s.RightCentiAmps / 100.0));
    }

    private async Task<IScanTool> Tool(Guid job, CancellationToken cancellation)
    {
        await _tooling.WaitAsync(cancellation);
        try
        {
            var (host, port) = cars.Address;
            return _tool ??= await DoipScanTool.ConnectAsync(host, port, e => Note(_run is { Ended: false } run ? run.Job : job, e), clock, cancellation);
        }
        finally
        {
            _tooling.Release();
        }
    }

    private async Task Drop()
    {
        IScanTool? gone;
        await _tooling.WaitAsync();
        try
        {
            (gone, _tool) = (_tool, null);
        }
        finally
        {
            _tooling.Release();
        }

        if (gone is not null) await gone.DisposeAsync();
    }

    private void Note(Guid job, Exchange e)
    {
        var queue = _exchanges.GetOrAdd(job, _ => new());
        lock (queue)
        {
            // What is asked twenty times a second says nothing new: one line stands for all of them.
            if (e.Words.StartsWith("State", StringComparison.Ordinal) && queue.TakeLast(2).Any(x => x.Sent == e.Sent && x.Words == e.Words)) return;
            queue.Enqueue(e);
            while (queue.Count > MostExchanges) queue.Dequeue();
        }
    }

    private async Task Drive(Run run)
    {
        try
        {
            var state = events.State(run.Job);
            cars.Put(run.Job, state);
            var ended = run.Act is ElectricAct.ReadCodes or ElectricAct.ClearCodes ? await Codes(run) : await Motors(run);
            // The traces first: when the end is there, everything is that belongs to it.
            foreach (var (side, trace) in run.Traces) Keep(run, side, trace);
            Record(run, "ended", s => JobRules.End(s, ended));
            if (JobRules.Follows(events.State(run.Job), run.Asked, run.IsLead, Board()) is not null) Record(run, "step", s => JobRules.Follows(s, run.Asked, run.IsLead, Board())!);
        }
        catch (Exception e) when (e is NotAllowedException or InputException)
        {
            // The job moved on in a way that the end does not fit any more: what is recorded stands, and the step waits to be clicked on.
            Told(logger, run.Job, e.Message);
        }
        catch (OperationCanceledException)
        {
            // The server stops: the log says that it was asked, and the next start asks how it stands.
        }
        finally
        {
            run.Ended = true;
        }
    }

    private async Task<RoutineEnded> Codes(Run run)
    {
        try
        {
            var tool = await Tool(run.Job, _stopping.Token);
            var before = await tool.CodesAsync(_stopping.Token);
            if (run.Act == ElectricAct.ReadCodes)
                return new(run.Asked, RoutineStatus.Done, SideEnd.None, SideEnd.None, null, before.Count == 0 ? "No codes stored." : $"{before.Count} stored.", List(before), null);
            await tool.ClearCodesAsync(_stopping.Token);
            var after = await tool.CodesAsync(_stopping.Token);
            return new(run.Asked, RoutineStatus.Done, SideEnd.None, SideEnd.None, null, $"{Figure.Count(before.Count, "code")} read and cleared; {(after.Count == 0 ? "none" : Figure.Of(after.Count))} left.", List(after), null);
        }
        catch (LinkLostException e)
        {
            await Drop();
            // No motor was asked to move: nothing is in doubt but the codes.
            return new(run.Asked, null, SideEnd.None, SideEnd.None, 0x10, e.Message, "", null);
        }
    }

    private async Task<RoutineEnded> Motors(Run run)
    {
        Routine[] strokes = run.Act switch
        {
            ElectricAct.IntoService => [Routine.ServiceIn],
            ElectricAct.Close => [Routine.ServiceOut],
            ElectricAct.Release => [Routine.Release],
            ElectricAct.Apply => [Routine.Apply],
            _ => [.. Enumerable.Range(0, 2 * JobElectric.Cycles - 1).Select(k => k % 2 == 0 ? Routine.Apply : Routine.Release)],
        };
        RoutineAnswer end = RoutineAnswer.No(0x10);
        List<double> seconds = [];
        foreach (var routine in strokes)
        {
            // Stop was asked while one stroke had ended and the next had not begun: it does not begin.
            if (run.StopAsked)
            {
                end = end with { Status = RoutineStatus.Stopped };
                break;
            }

            (run.Routine, run.StrokeSince) = (routine, clock.GetTimestamp());
            if (await Stroke(run, routine) is not { } answer)
                return new(run.Asked, null, SideEnd.None, SideEnd.None, null, "The link was lost, and how it ended is not known.", "", null);
            end = answer;
            if (end.Refused is { } why) return new(run.Asked, null, SideEnd.None, SideEnd.None, why, $"Refused: {CarLink.Refused(why)}.", await CodesNow(run), await VoltsNow(run));
            if (routine == Routine.Apply) seconds.Add(clock.GetElapsedTime(run.StrokeSince).TotalSeconds * cars.Speed);
            if (end.Status != RoutineStatus.Done) break;
            // Of cycles the last one is kept: the first belongs to where the pads stood.
            if (routine != Routine.Release || strokes.Length == 1) await Samples(run, routine);
        }

        if (end.Status != RoutineStatus.Done) await Samples(run, run.Routine!.Value);
        var cycled = run.Act == ElectricAct.Cycle && seconds.Count == JobElectric.Cycles ? $" Cycles took {string.Join(", ", seconds.Select(s => Figure.Of(s, 1)))} s." : "";
        return new(run.Asked, end.Status, end.Left, end.Right, null, Sentence(end) + cycled, await CodesNow(run), await VoltsNow(run));
    }

    private static string Sentence(RoutineAnswer end)
    {
        var stopped = end.Status == RoutineStatus.Stopped ? "Stopped by hand. " : "";
        return stopped + (end.Left == end.Right ? $"Both {Words.Of(end.Left)}." : $"Left {Words.Of(end.Left)}, right {Words.Of(end.Right)}.");
    }

    /// <summary>Starts one routine, or only asks about it, and follows it to its end; null where nobody can know.</summary>
    private async Task<RoutineAnswer?> Stroke(Run run, Routine routine)
    {
        var started = run.OnlyAsks;
        DateTimeOffset? silentSince = null;
        while (true)
        {
            try
            {
                var tool = await Tool(run.Job, _stopping.Token);
                if (!started)
                {
                    // From here on it may run, whether the answer comes or not: it is never started again.
                    started = true;
                    var answer = await tool.StartAsync(routine, _stopping.Token);
                    if (answer.Refused is not null) return answer;
                }

                var live = await tool.LiveAsync(_stopping.Token);
                run.Live = Seen(run, live);
                silentSince = null;
                if (live.Status != RoutineStatus.Running)
                {
                    var result = await tool.ResultAsync(routine, _stopping.Token);
                    // It knows of no such routine: it never began, or the unit was without power meanwhile. Nobody knows.
                    if (result.Refused is not null) return null;
                    if (result.Status != RoutineStatus.Running) return result;
                }
                else if (run.StopAsked) await tool.StopAsync(routine, _stopping.Token);
            }
            catch (LinkLostException e)
            {
                await Drop();
                silentSince ??= clock.GetUtcNow();
                run.Live = new(false, $"{e.Message} The motor may still be running. Hands out.", null, run.Act, run.StopAsked, true, null, null, null, null, null, null);
                if (clock.GetUtcNow() - silentSince > GivesUp) return null;
                await Task.Delay(Again, clock, _stopping.Token);
            }

            await Task.Delay(Every, clock, _stopping.Token);
        }
    }

    private async Task Samples(Run run, Routine routine)
    {
        try
        {
            var tool = await Tool(run.Job, _stopping.Token);
            var one = (await tool.LiveAsync(_stopping.Token)).Motors == 1;
            var samples = await tool.SamplesAsync(_stopping.Token);
            if (samples.Count < 20) return;
            run.Traces.Clear();
            var rate = Frequency.FromHertz(CarLink.SamplesPerSecond);
            foreach (var side in one ? [Side.Left] : Sides.Both)
                run.Traces.Add((side, CurrentTrace.From([.. samples.Select(s => ElectricCurrent.FromAmperes((side == Side.Left ? s.Left : s.Right) / 100.0))], rate)));
            run.Direction = routine is Routine.Release or Routine.ServiceIn ? TraceDirection.Release : TraceDirection.Apply;
        }
        catch (LinkLostException)
        {
            // The traces are lost with the link; how it ended is known all the same.
            await Drop();
        }
    }

    private async Task<string> CodesNow(Run run)
    {
        try
        {
            return List(await (await Tool(run.Job, _stopping.Token)).CodesAsync(_stopping.Token));
        }
        catch (LinkLostException)
        {
            await Drop();
            return "";
        }
    }

    private async Task<ElectricPotential?> VoltsNow(Run run)
    {
        try
        {
            return ElectricPotential.FromVolts((await (await Tool(run.Job, _stopping.Token)).LiveAsync(_stopping.Token)).MilliVolts / 1000.0);
        }
        catch (LinkLostException)
        {
            await Drop();
            return null;
        }
    }

    private void Keep(Run run, Side side, CurrentTrace trace)
    {
        TraceReading reading;
        try
        {
            reading = TraceReader.Read(trace, cars.IsOwn ? StandInMotor(events.State(run.Job), run.Live?.Voltage) : null, run.Direction);
        }
        catch (InputException)
        {
            return;
        }

        var bytes = Picture.Of(TraceCsv.Write(trace));
        Record(run, $"trace-{side}", s => JobRules.KeepTrace(s, new TraceKept(bytes.Sha256, side, "the link", run.Direction, reading)), bytes);
    }

    /// <summary>The constants of the stand-in's motor, as docs/car-link.md gives them.</summary>
    internal static MotorConstants StandInMotor(JobState? state, ElectricPotential? volts)
    {
        var f = state?.Setup.PullsCables == true ? DriveFigures.Puller : new DriveFigures();
        return new(volts ?? ElectricPotential.FromVolts(12.6), ElectricResistance.FromOhms(f.ResistanceOhm + f.HarnessOhm + new BatteryFigures().InternalOhm), f.TorqueConstant, f.GearRatio,
            Length.FromMeters(f.LeadMetres), null, ElectricCurrent.FromAmperes(f.CutOffAmps));
    }

    private void Record(Run run, string what, Func<JobState, JobEvent> decide, Picture? bytes = null)
    {
        var id = new Guid(SHA256.HashData(Encoding.UTF8.GetBytes($"{run.Asked}/{what}"))[..16]);
        if (events.State(run.Job).Log.Any(e => e.Id == id)) return;
        events.Append(run.Job, id, null, $"electric/{run.Asked}/{what}", run.By with { OccurredAt = clock.GetLocalNow() }, decide, bytes);
    }

    private ToolBoard Board() => new(library.Instruments(), DateOnly.FromDateTime(clock.GetLocalNow().DateTime));

    private static string List(IReadOnlyList<int> codes) => string.Join("; ", codes.Select(Words.Code));

    [LoggerMessage(Level = LogLevel.Warning, Message = "Electric bench, job {Job}: {Says}")]
    private static partial void Told(ILogger logger, Guid job, string says);

    /// <summary>Lets go of the car. A motor that runs goes to its end.</summary>
    public async ValueTask DisposeAsync()
    {
        await _stopping.CancelAsync();
        if (_run is { } run) await run.Task;
        if (_tool is not null) await _tool.DisposeAsync();
        _stopping.Dispose();
    }

    private sealed class Run(Guid job, Guid asked, ElectricAct act, Sender by, bool isLead, long since)
    {
        public Guid Job { get; } = job;
        public Guid Asked { get; } = asked;
        public ElectricAct Act { get; } = act;
        public Sender By { get; } = by;
        public bool IsLead { get; } = isLead;
        public bool OnlyAsks { get; init; }
        public long StrokeSince { get; set; } = since;
        public Routine? Routine { get; set; }
        public bool StopAsked { get; set; }
        public bool Ended { get; set; }
        public ElectricLive? Live { get; set; }
        public TraceDirection Direction { get; set; }
        public List<(Side Side, CurrentTrace Trace)> Traces { get; } = [];
        public Task Task { get; set; } = Task.CompletedTask;
    }
}

using System.Security.Cryptography;
using System.Text;
using PatientPawl.Core;
using PatientPawl.Core.Electric;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Data;
using PatientPawl.StandIns.Car;
using UnitsNet;

namespace PatientPawl.Web.Electric;

/// <summary>
/// Runs what was asked over the link to its end, whoever looks on, and records how it ended under the name of who asked. One job has the link at a
/// time.
/// </summary>
public sealed partial class ElectricRuns(
    CarHost cars, CarSession session, EventStore events, Library library, TimeProvider clock, ILogger<ElectricRuns> logger) : IAsyncDisposable
{
    // Whoever looked at a bench so lately, and has not closed it, still has the link.
    private static readonly TimeSpan Holds = TimeSpan.FromSeconds(3);

    private readonly CancellationTokenSource _stopping = new();
    private readonly Lock _lock = new();
    private ElectricRun? _run;
    private (Guid Job, long Seen)? _holder;
    private readonly Dictionary<Guid, int> _open = [];

    /// <summary>Refuses where another job has the link.</summary>
    /// <exception cref="NotAllowedException">Another job's motors move, or its bench is open.</exception>
    public void RequireFree(Guid job)
    {
        if (_run is { Ended: false } run && run.Asked.Job != job)
            throw new NotAllowedException("Another job has the link.", ["Its motors are moving: wait for their end."], []);
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

    /// <summary>A job's bench is open somewhere until this is disposed of. When the last one of a job closes, the link is free for another job at once.</summary>
    public IDisposable Open(Guid job)
    {
        lock (_lock) _open[job] = _open.GetValueOrDefault(job) + 1;
        return new OpenBench(this, job);
    }

    private sealed class OpenBench(ElectricRuns runs, Guid job) : IDisposable
    {
        public void Dispose()
        {
            lock (runs._lock)
            {
                if (--runs._open[job] > 0) return;
                runs._open.Remove(job);
                if (runs._holder?.Job == job) runs._holder = null;
            }
        }
    }

    /// <summary>Begins what was just asked, and returns at once.</summary>
    public void Begin(Guid job, Guid asked, ElectricAct act, Sender by, bool isLead)
    {
        RequireFree(job);
        Run(new(job, asked, act, by, isLead, OnlyAbout: false));
    }

    /// <summary>Asks how something stands that was asked before this server started, or before the link was lost for good.</summary>
    public void Settle(Guid job, Sender by, bool isLead)
    {
        ArgumentNullException.ThrowIfNull(by);
        if (_run is { Ended: false }) return;
        if (JobElectric.View(events.State(job), clock.GetUtcNow(), by.Technician).Pending is { } pending)
            Run(new(job, pending.EventId, pending.Act, by, isLead, OnlyAbout: true));
    }

    private void Run(RunAsked asked)
    {
        var run = new ElectricRun(asked, session, cars.Speed, clock, _stopping.Token);
        lock (_lock) _run = run;
        run.Task = Task.Run(() => Follow(run));
    }

    /// <summary>Asks the unit to stop. It can always be asked; it is not a safety device.</summary>
    public Task StopAsync(Guid job, CancellationToken cancellation) =>
        _run is { Ended: false } run && run.Asked.Job == job ? run.StopAsync(cancellation) : Task.CompletedTask;

    /// <summary>How it stands now.</summary>
    public async Task<ElectricLive> LiveAsync(Guid job, CancellationToken cancellation)
    {
        const string Another = "Another job has the link.";
        if (_run is { Ended: false } run) return run.Asked.Job == job ? run.Live : ElectricLive.Without(Another);
        if (HeldByAnother(job)) return ElectricLive.Without(Another);
        try
        {
            var state = events.State(job);
            cars.Put(job, state);
            return ElectricLive.Of(state, await session.AskAsync(job, t => t.LiveAsync(cancellation), cancellation));
        }
        catch (LinkLostException e)
        {
            return ElectricLive.Without(e.Message);
        }
    }

    private async Task Follow(ElectricRun run)
    {
        var (job, asked) = (run.Asked.Job, run.Asked.Asked);
        try
        {
            var state = events.State(job);
            cars.Put(job, state);
            var ended = await run.GoAsync(state);
            // The traces first: when the end is there, everything is that belongs to it.
            foreach (var (side, trace) in run.Traces) await Keep(run, side, trace);
            await Record(run, "ended", s => JobRules.End(s, ended));
            await Try(job, async () =>
            {
                if (Next(events.State(job)) is not null) await Record(run, "step", s => Next(s)!);
            });
        }
        catch (OperationCanceledException)
        {
            // The server stops: the log says that it was asked, and the next start asks how it stands.
        }
        finally
        {
            run.End();
        }

        JobEvent? Next(JobState s) => JobRules.Follows(s, asked, run.Asked.IsLead, new(library.Instruments(), DateOnly.FromDateTime(clock.GetLocalNow().DateTime)));
    }

    /// <summary>Keeps a trace; one that the job has no room for, or that cannot be read, is told and changes nothing of how it ended.</summary>
    private Task Keep(ElectricRun run, Side side, CurrentTrace trace) => Try(run.Asked.Job, async () =>
    {
        var motor = cars.IsOwn ? StandInMotor(events.State(run.Asked.Job), run.Live.Voltage) : null;
        var reading = TraceReader.Read(trace, motor, run.Direction);
        var bytes = Picture.Of(TraceCsv.Write(trace));
        await Record(run, $"trace-{side}", s => JobRules.KeepTrace(s, new TraceKept(bytes.Sha256, side, "the link", run.Direction, reading)), bytes);
    });

    /// <summary>What may be refused without the end going unrecorded: the job moved on, or has no room.</summary>
    private async Task Try(Guid job, Func<Task> what)
    {
        try
        {
            await what();
        }
        catch (Exception e) when (e is NotAllowedException or InputException)
        {
            Told(logger, job, e.Message);
        }
    }

    /// <summary>The constants of the stand-in's motor, as docs/car-link.md gives them; its efficiency is left to the flagged default.</summary>
    private static MotorConstants StandInMotor(JobState state, ElectricPotential? volts)
    {
        var (f, battery) = (state.Setup.PullsCables ? DriveFigures.Puller : new DriveFigures(), new BatteryFigures());
        return new(
            volts ?? ElectricPotential.FromVolts(battery.ChargerVolts),
            ElectricResistance.FromOhms(f.ResistanceOhm + f.HarnessOhm + battery.InternalOhm),
            f.TorqueConstant,
            f.GearRatio,
            Length.FromMeters(f.LeadMetres),
            CutOff: ElectricCurrent.FromAmperes(f.CutOffAmps));
    }

    /// <summary>Appends under the name of who asked. Its id is made from what asked for it: recorded twice it is one.</summary>
    private async Task Record(ElectricRun run, string what, Func<JobState, JobEvent> decide, Picture? bytes = null)
    {
        var request = $"electric/{run.Asked.Asked}/{what}";
        var id = new Guid(SHA256.HashData(Encoding.UTF8.GetBytes(request))[..16]);
        if (events.State(run.Asked.Job).Log.Any(e => e.Id == id)) return;
        await events.Append(run.Asked.Job, id, null, request, run.Asked.By with { OccurredAt = clock.GetLocalNow() }, decide, bytes);
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "Electric bench, job {Job}: {Says}")]
    private static partial void Told(ILogger logger, Guid job, string says);

    /// <summary>Lets go of the car. A motor that runs goes to its end.</summary>
    public async ValueTask DisposeAsync()
    {
        await _stopping.CancelAsync();
        if (_run is { } run) await run.Task.ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        _stopping.Dispose();
    }
}

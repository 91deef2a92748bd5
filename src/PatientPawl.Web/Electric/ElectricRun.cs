using PatientPawl.Core;
using PatientPawl.Core.Electric;
using PatientPawl.Core.Electric.Link;
using PatientPawl.Core.Jobs;
using PatientPawl.Data;
using UnitsNet;

namespace PatientPawl.Web.Electric;

/// <summary>What was asked, by whom, and whether it is only asked about.</summary>
/// <param name="Job">The job.</param>
/// <param name="Asked">The event that asked.</param>
/// <param name="Act">What.</param>
/// <param name="By">Who asked.</param>
/// <param name="IsLead">True where the lead asked.</param>
/// <param name="OnlyAbout">True where it was begun before: nothing is started, its result is asked for.</param>
internal sealed record RunAsked(Guid Job, Guid Asked, ElectricAct Act, Sender By, bool IsLead, bool OnlyAbout);

/// <summary>One thing asked over the link, followed to its end. A lost answer is asked for again by its result; nothing is started twice.</summary>
internal sealed class ElectricRun(RunAsked asked, CarSession session, double speed, TimeProvider clock, CancellationToken stopping)
{
    private static readonly TimeSpan Every = TimeSpan.FromMilliseconds(50), Again = TimeSpan.FromMilliseconds(500);

    // Longer than the unit drives any motor: whoever is silent for so long is not waited for.
    private static readonly TimeSpan GivesUp = TimeSpan.FromSeconds(30);

    private const int FewestSamples = 20;

    private long _since = clock.GetTimestamp();
    private Routine? _routine;
    private volatile bool _stopAsked, _ended;

    public RunAsked Asked => asked;
    public bool Ended => _ended;

    /// <summary>How it stands, as last heard.</summary>
    public ElectricLive Live { get; private set; } = ElectricLive.Without("Asked.") with { Running = asked.Act };

    /// <summary>Traces of the last stroke that is kept: each side's.</summary>
    public List<(Side Side, CurrentTrace Trace)> Traces { get; } = [];

    /// <summary>Which way the motors went in them.</summary>
    public TraceDirection Direction { get; private set; }

    /// <summary>Its task, so that whoever stops can wait for it.</summary>
    public Task Task { get; set; } = Task.CompletedTask;

    public void End() => _ended = true;

    /// <summary>Asks the unit to stop; what has not begun yet does not begin.</summary>
    public async Task StopAsync(CancellationToken cancellation)
    {
        _stopAsked = true;
        if (_routine is not { } routine) return;
        try
        {
            await session.AskAsync(asked.Job, t => t.StopAsync(routine, cancellation), cancellation);
        }
        catch (LinkLostException)
        {
            // It is asked again with every question, until it is answered.
        }
    }

    /// <summary>To its end.</summary>
    /// <param name="state">The job.</param>
    public Task<RoutineEnded> GoAsync(JobState state) => asked.Act is ElectricAct.ReadCodes or ElectricAct.ClearCodes ? Codes() : Motors(state);

    private Task<T> Ask<T>(Func<IScanTool, Task<T>> ask) => session.AskAsync(asked.Job, ask, stopping);

    private RoutineEnded Ends(RoutineAnswer end, string words, IReadOnlyList<string> codes, ElectricPotential? volts = null) =>
        new(asked.Asked, end.Status, end.Left, end.Right, end.Refused, words, codes, volts);

    private async Task<RoutineEnded> Codes()
    {
        var done = new RoutineAnswer(RoutineStatus.Done, SideEnd.None, SideEnd.None, null);
        try
        {
            var before = await Ask(t => t.CodesAsync(stopping));
            if (asked.Act == ElectricAct.ReadCodes) return Ends(done, before.Count == 0 ? "No codes stored." : $"{before.Count} stored.", before);
            await Ask(async t =>
            {
                await t.ClearCodesAsync(stopping);
                return 0;
            });
            var after = await Ask(t => t.CodesAsync(stopping));
            return Ends(done, $"{Figure.Count(before.Count, "code")} read and cleared; {(after.Count == 0 ? "none" : Figure.Of(after.Count))} left.", after);
        }
        catch (LinkLostException e)
        {
            // No motor was asked to move: nothing is in doubt but the codes.
            return Ends(RoutineAnswer.No(CarLink.NoReason), e.Message, []);
        }
    }

    private static IEnumerable<Routine> Strokes(ElectricAct act) => act switch
    {
        ElectricAct.IntoService => [Routine.ServiceIn],
        ElectricAct.Close => [Routine.ServiceOut],
        ElectricAct.Release => [Routine.Release],
        ElectricAct.Apply => [Routine.Apply],
        _ => Enumerable.Range(0, 2 * JobElectric.Cycles - 1).Select(k => k % 2 == 0 ? Routine.Apply : Routine.Release),
    };

    private async Task<RoutineEnded> Motors(JobState state)
    {
        var end = RoutineAnswer.No(CarLink.NoReason);
        List<double> applies = [];
        foreach (var routine in Strokes(asked.Act))
        {
            // Stop was asked while one stroke had ended and the next had not begun: it does not begin.
            if (_stopAsked)
            {
                end = end with { Status = RoutineStatus.Stopped, Refused = null };
                break;
            }

            (_routine, _since) = (routine, clock.GetTimestamp());
            if (await Stroke(state, routine) is not { } answer)
                return Ends(new(null, SideEnd.None, SideEnd.None, null), "The link was lost, and how it ended is not known.", []);
            end = answer.End;
            if (end.Refused is not null) return Ends(end, answer.Words ?? Words.Ended(end), await CodesNow(), await VoltsNow());
            // Of cycles the last stroke is kept: the first belongs to where the pads stood.
            await Samples(routine);
            if (end.Status != RoutineStatus.Done) break;
            if (routine == Routine.Apply) applies.Add(clock.GetElapsedTime(_since).TotalSeconds * speed);
        }

        var cycled = applies.Count > 1 ? $" Cycles took {string.Join(", ", applies.Select(s => Figure.Of(s, 1)))} s." : "";
        return Ends(end, Words.Ended(end) + cycled, await CodesNow(), await VoltsNow());
    }

    /// <summary>Starts one routine, or only asks about it, and follows it to its end; null where nobody can know.</summary>
    private async Task<(RoutineAnswer End, string? Words)?> Stroke(JobState state, Routine routine)
    {
        var started = asked.OnlyAbout;
        long? silentSince = null;
        while (true)
        {
            try
            {
                if (!started)
                {
                    if (JobElectric.WrongBrake(state, await Ask(t => t.LiveAsync(stopping))) is { } wrong) return (RoutineAnswer.No(CarLink.ConditionsNotCorrect), wrong);
                    // From here on it may run, whether the answer comes or not: it is never started again.
                    started = true;
                    var answer = await Ask(t => t.StartAsync(routine, stopping));
                    if (answer.Refused is not null) return (answer, null);
                }

                if (await Follow(state, routine) is { } end) return end.Refused is null ? (end, null) : null;
                silentSince = null;
            }
            catch (LinkLostException e)
            {
                silentSince ??= clock.GetTimestamp();
                Live = ElectricLive.Without($"{e.Message} The motor may still be running. Hands out.") with { Running = asked.Act, StopAsked = _stopAsked, MayRun = true };
                if (clock.GetElapsedTime(silentSince.Value) > GivesUp) return null;
                await Task.Delay(Again, clock, stopping);
            }

            await Task.Delay(Every, clock, stopping);
        }
    }

    /// <summary>One look: null while it runs. A result that is refused means that the unit knows of no such routine, and nobody does.</summary>
    private async Task<RoutineAnswer?> Follow(JobState state, Routine routine)
    {
        var car = await Ask(t => t.LiveAsync(stopping));
        Live = ElectricLive.Of(state, car) with { Running = asked.Act, StopAsked = _stopAsked, Elapsed = Duration.FromSeconds(clock.GetElapsedTime(_since).TotalSeconds * speed) };
        if (car.Status == RoutineStatus.Running)
        {
            if (_stopAsked) await Ask(t => t.StopAsync(routine, stopping));
            return null;
        }

        var result = await Ask(t => t.ResultAsync(routine, stopping));
        return result.Status == RoutineStatus.Running ? null : result;
    }

    private async Task Samples(Routine routine)
    {
        if (await Heard(t => t.SamplesAsync(stopping)) is not { Count: >= FewestSamples } samples) return;
        var one = Live.RightAt is null;
        Direction = routine is Routine.Release or Routine.ServiceIn ? TraceDirection.Release : TraceDirection.Apply;
        Traces.Clear();
        foreach (var side in one ? [Side.Left] : Sides.Both)
        {
            ElectricCurrent[] currents = [.. samples.Select(s => ElectricCurrent.FromAmperes((side == Side.Left ? s.Left : s.Right) / 100.0))];
            Traces.Add((side, CurrentTrace.From(currents, Frequency.FromHertz(CarLink.SamplesPerSecond))));
        }
    }

    private async Task<IReadOnlyList<string>> CodesNow() => await Heard(t => t.CodesAsync(stopping)) ?? [];

    private async Task<ElectricPotential?> VoltsNow() =>
        await Heard(t => t.LiveAsync(stopping)) is { } car ? ElectricPotential.FromVolts(car.MilliVolts / 1000.0) : null;

    /// <summary>What is good to know and changes nothing: null where the link is lost meanwhile.</summary>
    private async Task<T?> Heard<T>(Func<IScanTool, Task<T>> ask) where T : class
    {
        try
        {
            return await Ask(ask);
        }
        catch (LinkLostException)
        {
            return null;
        }
    }
}

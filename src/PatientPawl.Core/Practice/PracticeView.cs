using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Practice;

/// <summary>A thing that can be touched now.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Thing">What.</param>
/// <param name="Says">What it is called.</param>
/// <param name="Seen">What was seen there last; null before it was touched.</param>
public sealed record TouchRow(Side Side, PracticeThing Thing, string Says, string? Seen);

/// <summary>A step that can be picked by who works alone: all there are, in no order that tells anything.</summary>
/// <param name="Step">The step.</param>
/// <param name="Says">Its name.</param>
public sealed record PickRow(StepKey Step, string Says);

/// <summary>Something that happened, with the way back where there is one.</summary>
/// <param name="Happening">What happened.</param>
/// <param name="Lesson">What to take from it; null where it is none of the known mistakes.</param>
/// <param name="ReturnTo">The event to go back before; null where something was done since.</param>
public sealed record HappenedRow(Happening Happening, string? Lesson, Guid? ReturnTo);

/// <summary>A practised job as its screens need it, beside the run sheet.</summary>
/// <param name="Title">The scenario's title.</param>
/// <param name="DriverSays">What the driver says.</param>
/// <param name="Way">How it is practised.</param>
/// <param name="Minutes">Minutes since the car came in.</param>
/// <param name="IsEnded">True once it was ended.</param>
/// <param name="Question">What the step at hand asks; null where it asks nothing, or was answered.</param>
/// <param name="Felt">What was felt at the last choice; null where nothing was.</param>
/// <param name="Tells">What shows at the step at hand; null where nothing does.</param>
/// <param name="Things">What can be touched.</param>
/// <param name="Happened">What happened so far, the latest first.</param>
/// <param name="Picks">Steps to pick from; empty where the plan is shown.</param>
/// <param name="Read">What the gauges showed at the step at hand, the latest last.</param>
public sealed record PracticeView(
    string Title, string DriverSays, PracticeWay Way, int Minutes, bool IsEnded, PracticeQuestion? Question, string? Felt,
        string? Tells,
    IReadOnlyList<TouchRow> Things, IReadOnlyList<HappenedRow> Happened, IReadOnlyList<PickRow> Picks, IReadOnlyList<PracticeRead> Read)
{
    /// <summary>Of a job.</summary>
    /// <param name="state">The job.</param>
    /// <param name="step">The step at hand; null takes the plan's next.</param>
    /// <exception cref="NotAllowedException">It is no practice.</exception>
    public static PracticeView Of(JobState state, StepKey? step = null)
    {
        ArgumentNullException.ThrowIfNull(state);
        var (scenario, run) = PracticeRules.RunOf(state);
        var world = PracticeRules.WorldOf(state);
        var now = step ?? (state.Remaining is [var next, ..] ? next : null);
        var last = state.Log.FindLast(e => e.Event is PracticeAnswered);
        var felt = last is null ? null : world.Feelings.LastOrDefault(f => f.Seq == last.Seq)?.Says;
        return new(scenario.Title, scenario.DriverSays, run.Way, world.Minutes, PracticeRules.IsEnded(state),
            now is null ? null : PracticeRules.Open(state, now), felt, now is null ? null
                : world.Tells(now),
            [.. Sides.Both.SelectMany(side => PracticeThings.Reached(world, scenario, side)
                .Select(thing => new TouchRow(side, thing, Phrase.Capital(thing.Words()), Seen(state, side, thing))))],
            [.. world.Happenings.Reverse().Select(h => new HappenedRow(h, h.Trap is { } trap ? TrapCatalogue.Of(trap).Lesson : null,
                Back(state, h)))],
            run.Way == PracticeWay.Guided ? [] : [.. CompiledCatalogue.For(state.Setup).Steps.Select(s => new PickRow(s.Key, StepCatalogue.Words(s.Key)))
                .DistinctBy(p => p.Says).OrderBy(p => p.Says, StringComparer.Ordinal)],
            now is null ? [] : [.. state.Log.Select(e => e.Event).OfType<PracticeRead>().Where(r => r.Side == now.Side).TakeLast(8)]);
    }

    private static string? Seen(JobState state, Side side, PracticeThing thing) =>
        state.Log.Select(e => e.Event).OfType<PracticeLooked>().LastOrDefault(l => l.Side == side && l.Thing == thing)?.Seen;

    private static Guid? Back(JobState state, Happening happening)
    {
        var at = state.Log.FirstOrDefault(e => e.Seq == happening.Seq);
        var back = at?.Event is PracticeAnswered && !state.Log.Any(e => e.Seq > happening.Seq
            && e.Event is StepDone or TorqueSigned or PracticeReturned);
        return back ? at!.Id : null;
    }
}

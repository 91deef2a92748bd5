using PatientPawl.Core.Electric;
using PatientPawl.Core.Electric.Link;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Jobs;

/// <summary>Motors asked to move over a link, how that ended, and the traces that came of it.</summary>
public static partial class JobRules
{
    /// <summary>How many traces a job keeps: they travel in its file.</summary>
    public const int MostTraces = 60;

    /// <summary>Asks for something over the link. Recorded before anything moves: if nobody hears of it again, the log knows that it was asked.</summary>
    /// <param name="state">The job.</param>
    /// <param name="act">What.</param>
    /// <param name="clear">Who said that their hands are clear.</param>
    /// <param name="acknowledged">Cautions that were acknowledged.</param>
    /// <param name="me">Who asks.</param>
    /// <param name="now">The time.</param>
    /// <exception cref="InputException">Somebody on the job whose hands were not said to be clear, or a caution that was not acknowledged.</exception>
    /// <exception cref="NotAllowedException">The link does not serve this job, or the plan does not offer it now.</exception>
    public static RoutineAsked Ask(
        JobState state, ElectricAct act, IReadOnlyList<string> clear, IReadOnlyList<string> acknowledged, string me, DateTimeOffset now)
    {
        ArgumentNullException.ThrowIfNull(clear);
        ArgumentNullException.ThrowIfNull(acknowledged);
        RequireOpen(state);
        var bench = JobElectric.View(state, now, me);
        if (!bench.ServesLink) throw new NotAllowedException("The link does not serve this job.", [bench.LinkSays], []);
        var action = bench.Actions.FirstOrDefault(a => a.Act == act)
            ?? throw new InputException(new InputError("act", act.ToString(), "one that the bench has", "The bench does not know that."));
        if (!action.Allowed) throw new NotAllowedException($"Not yet: {Phrase.Small(action.Name)}.", action.Because, []);
        var checks = new Checks();
        foreach (var name in action.Moves ? bench.People.Except(clear, StringComparer.Ordinal) : [])
            checks.Add("clear", "not said", name, $"{name} is on this job and has not said that their hands are clear.");
        foreach (var caution in action.Cautions.Where(c => c.MustAcknowledge && !acknowledged.Contains(c.Id)))
            checks.Add("acknowledged", "not acknowledged", caution.Id, $"Acknowledge first: {caution.Says}");
        checks.ThrowIfAny();
        return new(act, action.Step!, action.Moves ? bench.People : []);
    }

    /// <summary>Records how it ended.</summary>
    /// <exception cref="NotAllowedException">It has ended already.</exception>
    public static RoutineEnded End(JobState state, RoutineEnded ended)
    {
        ArgumentNullException.ThrowIfNull(state);
        ArgumentNullException.ThrowIfNull(ended);
        return state.Running?.Id == ended.Asked ? ended : throw new NotAllowedException("That has ended already.", [], []);
    }

    /// <summary>Keeps a trace with the job.</summary>
    /// <exception cref="InputException">Too many traces.</exception>
    public static TraceKept KeepTrace(JobState state, TraceKept kept)
    {
        ArgumentNullException.ThrowIfNull(state);
        RequireOpen(state);
        new Checks().Range("traces", state.Standing.Count(e => e.Event is TraceKept) + 1, 1, MostTraces, "").ThrowIfAny();
        return kept;
    }

    /// <summary>The end of a routine as a step clicked on, refused, or with what was found instead.</summary>
    /// <param name="state">The job.</param>
    /// <param name="asked">The event that asked.</param>
    /// <param name="isLead">True where the lead asked.</param>
    /// <param name="board">The tool board.</param>
    /// <returns>Null where nobody knows how the brake stands: the plan asks to look.</returns>
    public static JobEvent? Follows(JobState state, Guid asked, bool isLead, ToolBoard board)
    {
        ArgumentNullException.ThrowIfNull(state);
        var ask = state.Standing.FirstOrDefault(e => e.Id == asked)?.Event as RoutineAsked;
        var end = state.Standing.Select(e => e.Event).OfType<RoutineEnded>().LastOrDefault(e => e.Asked == asked);
        return ask is null || end is null || ClickFor(ask, end) is not { } click ? null : Click(state, click, isLead, board);
    }

    private static ClickOn? ClickFor(RoutineAsked asked, RoutineEnded ended)
    {
        if (ended.Lost) return null;
        // One motor at its back stop and one that stays: the plan has a way on for both.
        var outcome = ended.Stays is { } side ? $"{side.Word()}-stays" : null;
        var cautions = StepCatalogue.Find(asked.Step.StepId)!.Cautions.Where(c => c.MustAcknowledge).Select(c => c.Id);
        Reading[] readings = asked.Act == ElectricAct.Cycle ? [new(ReadingKind.Cycles, JobElectric.Cycles, null)] : [];
        return new(asked.Step, readings, [.. cautions], outcome, new(ended.Refused is null, ended.Words, ended.CodesSay), null);
    }
}

using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Practice;

/// <summary>Checks what somebody who practises does, and makes its event. Pure: the caller appends it.</summary>
public static class PracticeRules
{
    /// <summary>The scenario of a practised job.</summary>
    /// <exception cref="NotAllowedException">It is no practice, or its scenario is not known here.</exception>
    public static (Scenario Scenario, PracticeRun Run) RunOf(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        if (state.Opened?.Practice is not { } run) throw new NotAllowedException("This job is no practice.",
            ["Open one from the practice page."], []);
        return (run.Scenario ?? throw new NotAllowedException("Its scenario is not known here.",
            ["It came from another workshop, or another version."], []), run);
    }

    /// <summary>The car as it is by now.</summary>
    public static PracticeWorld WorldOf(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        return PracticeWorld.Of(RunOf(state).Scenario, state.Log, k => state.Times.Minutes([k]));
    }

    /// <summary>Opens a run.</summary>
    /// <param name="scenario">The scenario.</param>
    /// <param name="way">How it is practised.</param>
    /// <param name="seed">Whatever is chance in it follows from this.</param>
    /// <param name="rules">The house rules.</param>
    /// <param name="instruments">The tool board.</param>
    public static JobOpened Start(Scenario scenario, PracticeWay way, int seed, Workshop.HouseRules rules,
        IReadOnlyList<Instrument> instruments)
    {
        ArgumentNullException.ThrowIfNull(scenario);
        // A number is given where it is stored; a bay it has none.
        return JobRules.Open(0, 1, scenario.Vehicle, scenario.OdometerKm, scenario.DriverSays, scenario.Scope, scenario.Sheet, rules,
            instruments) with
        {
            Purpose = JobPurpose.Practice,
            Practice = new(scenario.Id, seed, way) { Own = ScenarioSet.Find(scenario.Id) is null ? scenario : null },
        };
    }

    /// <summary>What a look of the identification shows.</summary>
    /// <exception cref="NotAllowedException">It is no practice, or was ended.</exception>
    public static Identification.Seen Sight(JobState state, Side side, Identification.Look look) =>
        PracticeThings.Seen(Running(state).Scenario.Truth.At(side), look);

    /// <summary>What a step still asks before it may be done; null where it asks nothing, or was answered.</summary>
    public static PracticeQuestion? Open(JobState state, StepKey step)
    {
        ArgumentNullException.ThrowIfNull(state);
        if (state.Opened?.Practice is not { Scenario: { } scenario } run) return null;
        return PracticeQuestions.Of(scenario, run.Seed, step) is { } question && !Answered(state, step) ? question : null;
    }

    /// <summary>Refuses a step of a practised job before it was said how it is meant to be done.</summary>
    /// <exception cref="NotAllowedException">It was not said yet.</exception>
    internal static void RequireAnswer(JobState state, StepKey step)
    {
        if (Open(state, step) is { } question) throw new NotAllowedException("Not yet: say first how.", [question.Asks], []);
    }

    /// <summary>Says how a step is meant to be done.</summary>
    /// <exception cref="InputException">No such choice.</exception>
    /// <exception cref="NotAllowedException">The step asks nothing, or is not to be done now.</exception>
    public static PracticeAnswered Answer(JobState state, StepKey step, string option)
    {
        var (scenario, run) = Running(state);
        if (PracticeQuestions.Of(scenario, run.Seed, step) is not { } question) throw new NotAllowedException("That step asks nothing.",
            [], []);
        if (Planner.Why(state.Setup, state.Car, step) is { Allowed: false } why) throw new NotAllowedException("Not yet.", why.Lacking,
            why.Interlocks);
        var chosen = question.Options.FirstOrDefault(o => o.Id == option)
            ?? throw new InputException(new InputError("option", Figure.Shorten(option),
                string.Join(", ", question.Options.Select(o => o.Id)), "That is none of the choices."));
        return new(step, chosen.Id, chosen.Says, chosen.Set);
    }

    /// <summary>Picks a step as the next one. Null where the rules allow it: then it is done at its own bench. Else the try, with what it
    /// lacks.</summary>
    /// <exception cref="InputException">No such step in this job.</exception>
    public static PracticeTried? Pick(JobState state, StepKey step)
    {
        _ = Running(state);
        ArgumentNullException.ThrowIfNull(step);
        if (!CompiledCatalogue.For(state.Setup).Steps.Any(s => s.Key == step))
            throw new InputException(new InputError("stepId", Figure.Shorten(step.StepId), "a step of this job",
                "There is no such step in this job."));
        var why = Planner.Why(state.Setup, state.Car, step);
        if (why.Allowed && Planner.Offered(state.Setup, state.Car, state.Remaining).Contains(step)) return null;
        return new(step, why.Allowed ? ["It is done already, or nothing asks for it here."] : why.Lacking, why.Interlocks);
    }

    /// <summary>Touches a thing and looks at it.</summary>
    /// <exception cref="NotAllowedException">It cannot be got at yet.</exception>
    public static PracticeLooked LookAt(JobState state, Side side, PracticeThing thing)
    {
        var (scenario, _) = Running(state);
        var world = WorldOf(state);
        if (!PracticeThings.Reached(world, scenario, side).Contains(thing))
            throw new NotAllowedException($"Not yet: nobody gets at the {thing.Words()} there.", ["More has to come off first."], []);
        return new(side, thing, PracticeThings.Seen(world, scenario, side, thing));
    }

    /// <summary>Reads a gauge that is not there.</summary>
    /// <exception cref="InputException">An instrument that the job does not have, or that does not get at it.</exception>
    public static PracticeRead Read(JobState state, Side? side, ReadingKind kind, string? instrumentId)
    {
        var (scenario, run) = Running(state);
        if (!Enum.IsDefined(kind)) throw new InputException(new InputError("kind", kind.ToString(), "a known reading",
            "That reading is not known."));
        var card = ReadingCatalogue.Card(kind);
        Instrument? instrument = null;
        if (card.Uses.Count > 0)
        {
            instrument = InstrumentCatalogue.Find(state.Instruments, instrumentId ?? card.Instrument ?? "");
            if (instrument is null || !card.Uses.Any(instrument.Serves))
            {
                throw new InputException(new InputError("instrumentId", Figure.Shorten(instrumentId),
                    string.Join(", ", state.Instruments.Where(i => card.Uses.Any(i.Serves)).Select(i => i.Id)),
                        $"{card.Name} is not read with that."));
            }
        }

        var before = state.Log.Count(e => e.Event is PracticeRead r && r.Side == side && r.Kind == kind);
        return new(side, kind, instrument?.Id, PracticeGauge.Read(scenario, WorldOf(state), run.Seed, side, kind, instrument, before));
    }

    /// <summary>What a gauge that is not there shows at a point, for a bench: mm. It is recorded when the reading is.</summary>
    /// <exception cref="InputException">An instrument that the job does not have.</exception>
    public static double ReadPoint(JobState state, Side side, Measurand measurand, string place, string instrumentId)
    {
        var (scenario, run) = Running(state);
        var instrument = InstrumentCatalogue.Find(state.Instruments, instrumentId)
            ?? throw new InputException(new InputError("instrumentId", Figure.Shorten(instrumentId),
                string.Join(", ", state.Instruments.Select(i => i.Id)), "That gauge is not on the job's tool board."));
        var before = state.Corner(side).Readings.Count(r => r.Measurand == measurand);
        return PracticeGauge.ReadPoint(scenario, WorldOf(state), run.Seed, side, measurand, place, instrument, before);
    }

    /// <summary>Asks what is next. It counts.</summary>
    public static PracticeHelped Help(JobState state)
    {
        _ = Running(state);
        return new(state.Remaining is [var next, ..] ? next : null);
    }

    /// <summary>Goes back to before a harm.</summary>
    /// <exception cref="InputException">Nothing happened there, or something was done since that stands on it.</exception>
    public static PracticeReturned Return(JobState state, Guid target)
    {
        _ = Running(state);
        var at = state.Log.FirstOrDefault(e => e.Id == target);
        if (at?.Event is not PracticeAnswered || WorldOf(state).Happenings.All(h => h.Seq != at.Seq)
            || state.Log.Any(e => e.Seq > at.Seq && e.Event is StepDone or TorqueSigned))
            throw new InputException(new InputError("target", target.ToString(), "a choice that did harm, with nothing done since",
                "There is no way back to there."));
        return new(target);
    }

    /// <summary>Ends the run: it is talked over from here.</summary>
    /// <exception cref="NotAllowedException">It was ended before.</exception>
    public static PracticeEnded End(JobState state)
    {
        _ = Running(state);
        return new();
    }

    /// <summary>True once a run was ended: then it is talked over, and takes nothing more.</summary>
    public static bool IsEnded(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        return state.Opened?.Practice is not null && state.Log.Any(e => e.Event is PracticeEnded);
    }

    private static bool Answered(JobState state, StepKey step)
    {
        // A step that comes round again is asked anew: what was said before its last doing counts for that one. So is one that was gone
        // back on.
        var last = state.Log.FindLastIndex(e => e.Event is PracticeAnswered a && a.Step == step);
        if (last < 0) return false;
        var answer = state.Log[last];
        return !state.Log.Skip(last + 1).Any(e => e.Event switch
        {
            StepDone d => d.Step == step,
            PracticeReturned r => r.Target == answer.Id,
            TorqueSigned t => t.Step == step && !state.Signatures(step).Contains(t),
            _ => false,
        });
    }

    private static (Scenario Scenario, PracticeRun Run) Running(JobState state)
    {
        var known = RunOf(state);
        return IsEnded(state) ? throw new NotAllowedException("This run was ended.", ["Start another one."], []) : known;
    }
}

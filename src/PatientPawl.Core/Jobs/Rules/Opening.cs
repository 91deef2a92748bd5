using PatientPawl.Core.Electric;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Practice;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Jobs;

/// <summary>Checks a command against the state and makes its event. Pure: the caller appends it. A job opened, looked over, ruled on, sent to another end, left and come back to.</summary>
public static partial class JobRules
{
    /// <summary>Opens a job.</summary>
    /// <exception cref="InputException">Naming every field that is wrong.</exception>
    public static JobOpened Open(int number, int bay, Vehicle vehicle, int odometerKm, string complaint, JobScope scope, SpecSheet sheet, HouseRules rules, IReadOnlyList<Instrument>? instruments = null,
        IReadOnlyList<Side>? newCalipers = null, IReadOnlyList<LearntFact>? learnt = null, IReadOnlyList<LearntFigure>? measured = null,
        IReadOnlyList<LearntMinutes>? minutes = null)
    {
        ArgumentNullException.ThrowIfNull(vehicle);
        ArgumentNullException.ThrowIfNull(sheet);
        Place(bay, odometerKm).Text("complaint", complaint, 500).ThrowIfAny();
        return new(number, bay, vehicle.Checked(), odometerKm, complaint.Trim(), scope, sheet.Checked(), rules, instruments, newCalipers is { Count: > 0 } ? [.. newCalipers.Distinct().Order()] : null,
            learnt is { Count: > 0 } ? learnt : null, measured is { Count: > 0 } ? measured : null)
        {
            Minutes = minutes is { Count: > 0 } ? minutes : null,
        };
    }

    /// <summary>The highest number that a bay can have. The range is ours.</summary>
    public const int LastBay = 99;

    /// <summary>Where a job stands and how far its car was driven: bay 1 to 99, odometer 0 to 2 000 000 km. Ranges are ours.</summary>
    public static Checks Place(int bay, int odometerKm) => new Checks().Range("bay", bay, 1, LastBay, "").Range("odometerKm", odometerKm, 0, 2_000_000, "km");

    /// <summary>Settles the questions before lifting.</summary>
    /// <exception cref="InputException">A question missing, unknown, or answered in a way that holds the job.</exception>
    public static LookOverDone LookOver(JobState state, IReadOnlyList<LookOverItem> answers)
    {
        ArgumentNullException.ThrowIfNull(answers);
        RequireOpen(state);
        if (state.Car.Get(Car.LookedOver) == Done.Yes) throw new NotAllowedException("The car has been looked over.", ["Undo that step first."], []);
        var checks = new Checks();
        foreach (var q in LookOverQuestions.All)
        {
            var given = answers.Where(a => a.Id == q.Id).ToArray();
            var allowed = string.Join(" or ", q.Settles.Select(s => s == LookOverAnswer.NotKnown ? "not known" : s.ToString().ToLowerInvariant()));
            if (given.Length != 1) checks.Add(q.Id, given.Length == 0 ? "nothing" : "several answers", allowed, $"\"{q.Question}\" has no single answer yet.");
            else if (!q.Settles.Contains(given[0].Answer)) checks.Add(q.Id, given[0].Answer.ToString(), allowed, q.Otherwise);
        }

        foreach (var a in answers.Where(a => LookOverQuestions.All.All(q => q.Id != a.Id)))
            checks.Add("answers", Figure.Shorten(a.Id), string.Join(", ", LookOverQuestions.All.Select(q => q.Id)), "That question is not one of those asked before lifting.");
        checks.ThrowIfAny();
        return new(answers);
    }

    /// <summary>Records a look.</summary>
    /// <exception cref="InputException">An answer the look cannot have.</exception>
    /// <exception cref="NotAllowedException">A push test on a mechanism not known to be relaxed, or after the corner was ruled on.</exception>
    public static LookRecorded Record(JobState state, Side side, Look look, Seen? seen)
    {
        RequireOpen(state);
        if (seen is { } s) LookCatalogue.Check(new(look, s));
        else if (!Enum.IsDefined(look)) throw new InputException(new InputError("look", look.ToString(), "a known look", "That look is not one this product knows."));
        var relaxed = state.MechanismRelaxed(side);
        if (look == Look.PushMoves && seen is not null && !relaxed)
            throw new NotAllowedException("Not yet: a push proves nothing while the mechanism may be loaded.", ["Needs the spindle back, or the cable slack and the lever on its stop."], [5]);
        if (state.Corner(side).Ruled is { MethodUndecided: false })
            throw new NotAllowedException($"The {side.Word()} corner has been ruled on.", ["Undo its identification first."], []);
        return new(side, look, seen, relaxed);
    }

    /// <summary>Rules on a corner from its looks.</summary>
    /// <exception cref="NotAllowedException">While nothing can be ruled.</exception>
    public static BrakeRuled Rule(JobState state, Side side)
    {
        RequireOpen(state);
        if (state.Corner(side).Ruled is { MethodUndecided: false })
            throw new NotAllowedException($"The {side.Word()} corner has been ruled on.", ["Undo its identification first."], []);
        var found = Identify.Corner(state.Observations(side), state.Corner(side).Looks.TryGetValue(Look.PushMoves, out var push) && push.MechanismRelaxed);
        if (found.Ruled is not { } architecture)
        {
            throw new NotAllowedException("Not yet: the looks do not settle it.",
                [found.Contradictions.Count > 0 ? "Look again: " + string.Join(" and ", found.Contradictions.Select(LookCatalogue.Words)) : $"{found.Standing.Count} are still possible. Next: {found.Next?.Look.Card().Question}"], []);
        }

        if (state.Corner(side).Ruled is { MethodUndecided: true } && found.MethodUndecided)
            throw new NotAllowedException("Both motor designs are still possible.", ["Needs the gentle push, with the spindle back."], []);
        return new(side, found.Standing, RetractionRuling.Decide(architecture, side, state.Opened!.Sheet.Piston, found.MethodUndecided, state.SeenOpposed(side)), found.MethodUndecided);
    }

    /// <summary>Chooses the route into the service position.</summary>
    /// <exception cref="NotAllowedException">When none is to be chosen now.</exception>
    public static RouteChosen Choose(JobState state, ServiceRoute route)
    {
        RequireOpen(state);
        RequireAllowed(state, new("choose-route", null));
        if (state.Route is not null) throw new NotAllowedException("The route has been chosen.", ["Undo that step first."], []);
        var ranked = ServiceRoutes.Rank(state.Setup, state.Opened!.Sheet, state.Times).Routes;
        if (ranked.FirstOrDefault(r => r.Route == route) is not { Offered: true })
        {
            throw new InputException(new InputError("route", ServiceRoutes.Name(route).ToLowerInvariant(), string.Join(", ", ranked.Where(r => r.Offered).Select(r => r.Says.ToLowerInvariant())),
                ranked.FirstOrDefault(r => r.Route == route)?.Because ?? "This brake has no such route."));
        }

        return new(route);
    }

    /// <summary>Changes what the job is to end in. The plan goes there from wherever it stands.</summary>
    /// <exception cref="InputException">No such goal, or no reason.</exception>
    /// <exception cref="NotAllowedException">It is the goal already.</exception>
    public static GoalChanged Aim(JobState state, JobGoal goal, string reason)
    {
        RequireOpen(state);
        if (!Enum.IsDefined(goal)) throw new InputException(new InputError("goal", goal.ToString(), "a known goal", "That goal is not known."));
        new Checks().Text("reason", reason, 200).ThrowIfAny();
        if (state.Setup.Goal == goal) throw new NotAllowedException("That is where the job goes already.", [], []);
        return new(goal, reason.Trim());
    }

    /// <summary>The job waits for parts from here; what can be done without them is still offered.</summary>
    /// <exception cref="InputException">Not said for what, or from where.</exception>
    /// <exception cref="NotAllowedException">It waits already.</exception>
    public static PartsAwaited Await(JobState state, string what, string from, DateOnly? expected)
    {
        RequireOpen(state);
        new Checks().Text("what", what, 120).Text("from", from, 80).ThrowIfAny();
        return state.Awaits is null ? new(what.Trim(), from.Trim(), expected) : throw new NotAllowedException("It waits for parts already.", [$"{state.Awaits.What}, from {state.Awaits.From}."], []);
    }

    /// <summary>The parts have come.</summary>
    /// <exception cref="NotAllowedException">None were waited for.</exception>
    public static PartsCame Came(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        return state.Awaits is null ? throw new NotAllowedException("This job waits for no parts.", [], []) : new();
    }

    /// <summary>Leaves the job overnight.</summary>
    /// <exception cref="NotAllowedException">No safe stopping point has been reached: every step to it is named.</exception>
    public static LeftOvernight Leave(JobState state)
    {
        RequireOpen(state);
        var stop = Overnight.Shortest(state.Setup, state.Car, state.Times);
        if (stop.CannotBeMet.Count > 0) throw new NotAllowedException("There is no safe stopping point from here.", stop.CannotBeMet, []);
        if (stop.Steps.Count > 0) throw new NotAllowedException("Not yet: it cannot be left like this.", [.. stop.Names.Select(n => $"First: {n.ToLowerInvariant()}.")], []);
        return new(stop.Kind, stop.Tags);
    }

    /// <summary>Comes back to a job that was left.</summary>
    /// <exception cref="NotAllowedException">It was not left.</exception>
    public static CameBack ComeBack(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        return state.Night is null ? throw new NotAllowedException("This job was not left.", [], []) : new();
    }

    private static void RequireAllowed(JobState state, StepKey step)
    {
        if (JobElectric.Pending(state) is { } running) throw new NotAllowedException("Not yet.", [running.Says], []);
        if (WaitedFor.Holds(state, step)) throw new NotAllowedException("Its part is waited for.", [$"{state.Awaits!.What}, from {state.Awaits.From}. Say that it came, then fit it."], []);
        var why = Planner.Why(state.Setup, state.Car, step);
        if (!why.Allowed) throw new NotAllowedException("Not yet.", why.Lacking, why.Interlocks);
        if (!Planner.Offered(state.Setup, state.Car, state.Remaining).Contains(step) && Planner.Choices(state.Setup, state.Car, state.Remaining).All(c => c.Step != step))
            throw new NotAllowedException("Not needed now.", ["It is done already, or what is left does not ask for it here."], []);
    }

    internal static void RequireOpen(JobState state, bool evenHandedOver = false)
    {
        ArgumentNullException.ThrowIfNull(state);
        if (state.Opened is null) throw new NotAllowedException("This job was never opened.", [], []);
        if (PracticeRules.IsEnded(state)) throw new NotAllowedException("This run was ended.", ["Start another one."], []);
        if (state.Night is not null) throw new NotAllowedException("The job was left overnight.", ["Come back to it first: what could have changed is looked at again."], []);
        if (state.HandedOver && !evenHandedOver) throw new NotAllowedException("The car was handed over: the record is closed.", ["Correcting adds to it: lift the hand-over with a reason."], []);
    }
}

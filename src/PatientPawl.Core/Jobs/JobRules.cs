using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Shoes;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Core.Jobs;

/// <summary>The job does not allow this now. Nothing was recorded.</summary>
public sealed class NotAllowedException(string message, IReadOnlyList<string> because, IReadOnlyList<int> interlocks) : Exception(message)
{
    /// <summary>What is lacking, in words.</summary>
    public IReadOnlyList<string> Because { get; } = because;

    /// <summary>The interlocks that stand in the way.</summary>
    public IReadOnlyList<int> Interlocks { get; } = interlocks;
}

/// <summary>What comes with clicking on a step.</summary>
/// <param name="Step">The step.</param>
/// <param name="Readings">Readings.</param>
/// <param name="Acknowledged">Cautions acknowledged.</param>
/// <param name="Outcome">What was found instead of what was expected, by its id; null when it was as expected.</param>
/// <param name="Report">What a scan tool said.</param>
/// <param name="Note">A note.</param>
public sealed record ClickOn(StepKey Step, IReadOnlyList<Reading> Readings, IReadOnlyList<string> Acknowledged, string? Outcome, ToolReport? Report, string? Note);

/// <summary>What comes with signing a torque.</summary>
/// <param name="Step">The torque step.</param>
/// <param name="Index">Which of them, from 1.</param>
/// <param name="Wrench">The wrench; null when it cannot be verified.</param>
/// <param name="Crowfoot">The crowfoot, if one is used.</param>
/// <param name="Unit">The unit shown on the wrench.</param>
/// <param name="EnteredTorque">A figure entered by hand; only where the sheet has none.</param>
/// <param name="EnteredPerCorner">How many of them, with a figure entered by hand.</param>
/// <param name="UnverifiedReason">Why it cannot be verified; null when it is.</param>
public sealed record SignTorque(StepKey Step, int Index, Wrench? Wrench, Crowfoot? Crowfoot, TorqueUnit Unit, TorqueQuantity? EnteredTorque, int? EnteredPerCorner, string? UnverifiedReason);

/// <summary>Checks a command against the state and makes its event. Pure: the caller appends it.</summary>
public static class JobRules
{
    /// <summary>Opens a job.</summary>
    /// <exception cref="InputException">Naming every field that is wrong.</exception>
    public static JobOpened Open(int number, int bay, Vehicle vehicle, int odometerKm, string complaint, JobScope scope, SpecSheet sheet, HouseRules rules, IReadOnlyList<Instrument>? instruments = null, IReadOnlyList<Side>? newCalipers = null)
    {
        ArgumentNullException.ThrowIfNull(vehicle);
        ArgumentNullException.ThrowIfNull(sheet);
        new Checks().Range("bay", bay, 1, 99, "").Range("odometerKm", odometerKm, 0, 2_000_000, "km").Text("complaint", complaint, 500).ThrowIfAny();
        return new(number, bay, vehicle.Checked(), odometerKm, complaint.Trim(), scope, sheet.Checked(), rules, instruments, newCalipers is { Count: > 0 } ? [.. newCalipers.Distinct().Order()] : null);
    }

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
        return new(side, found.Standing, RetractionRuling.Decide(architecture, side, state.Opened!.Sheet.Piston, found.MethodUndecided), found.MethodUndecided);
    }

    /// <summary>Chooses the route into the service position.</summary>
    /// <exception cref="NotAllowedException">When none is to be chosen now.</exception>
    public static RouteChosen Choose(JobState state, ServiceRoute route)
    {
        RequireOpen(state);
        RequireAllowed(state, new("choose-route", null));
        if (state.Route is not null) throw new NotAllowedException("The route has been chosen.", ["Undo that step first."], []);
        var ranked = ServiceRoutes.Rank(state.Setup, state.Opened!.Sheet).Routes;
        if (ranked.FirstOrDefault(r => r.Route == route) is not { Offered: true })
        {
            throw new InputException(new InputError("route", ServiceRoutes.Name(route).ToLowerInvariant(), string.Join(", ", ranked.Where(r => r.Offered).Select(r => r.Says.ToLowerInvariant())),
                ranked.FirstOrDefault(r => r.Route == route)?.Because ?? "This brake has no such route."));
        }

        return new(route);
    }

    /// <summary>Clicks a step on.</summary>
    /// <exception cref="InputException">A reading missing, impossible, or a caution not acknowledged.</exception>
    /// <exception cref="NotAllowedException">The step is not allowed now; every condition and interlock is named.</exception>
    public static JobEvent Click(JobState state, ClickOn command, bool isLead)
    {
        ArgumentNullException.ThrowIfNull(command);
        RequireOpen(state);
        var type = StepCatalogue.Find(command.Step.StepId)
            ?? throw new InputException(new InputError("stepId", Figure.Shorten(command.Step.StepId), "a step of the run sheet", "There is no such step."));
        if (type.Lane == Lane.Corner != command.Step.Side is not null)
            throw new InputException(new InputError("side", command.Step.Side?.Word() ?? "none", type.Lane == Lane.Corner ? "left or right" : "none", $"{type.Name} belongs to {(type.Lane == Lane.Corner ? "a corner" : "the car")}."));
        if (type.Id is "look-over" or "identify" or "choose-route" or "push-tried")
            throw new NotAllowedException($"{type.Name} is finished on its own bench.", ["Answer it there."], []);
        if (type.Torques is not null) throw new NotAllowedException($"{type.Name} is finished by signing every one of them.", ["Sign the torque."], []);
        if (type.LeadOnly && !isLead) throw new NotAllowedException("The lead does this.", ["Needs the lead's sign-in."], []);
        RequireAllowed(state, command.Step);
        var outcome = OutcomeOf(state, type, command);
        CheckReadings(state, type, command);

        var note = string.IsNullOrWhiteSpace(command.Note) ? null : command.Note.Trim();
        if (type.Id == "torques-accepted" && note is null) throw new InputException(new InputError("note", "nothing", "a reason", "Say why it is accepted: the reason stands in the record."));
        if (type.Id == "screw-decided" && note is null) throw new InputException(new InputError("note", "nothing", "who decided and why", "Say who decided and why: it stands in the record."));
        if (state.Setup.ByTool && type.Id is "service-entered" or "service-closed" && outcome is null && command.Report is null)
            throw new InputException(new InputError("report", "nothing", "what the tool said", "Say what the scan tool said: finished, or refused."));
        if (outcome is null && command.Report is { Succeeded: false } refused) return new ToolRefused(command.Step, refused);
        if (type.Id == "battery-held") RequireVoltage(state, command);
        if (type.Id == "piston-home") RequireHome(state, command.Step.Side!.Value);
        if (type.Id == "corner-bled") RequireBled(state, command.Step.Side!.Value);
        if (type.Id == "leaks-looked") RequireDry(state);
        if (type.Id == "level-looked") RequireBetweenMarks(command);

        return Judged(state, type, command, outcome, note);
    }

    /// <summary>The outcome that was chosen, when the step has it, nobody has to reckon it, and the car is such that it can be.</summary>
    private static string? OutcomeOf(JobState state, StepType type, ClickOn command)
    {
        if (command.Outcome is not { } id) return null;
        var known = CompiledCatalogue.For(state.Setup).Find(command.Step)?.Outcomes.Where(o => !o.Type.Reckoned).ToArray() ?? [];
        var found = known.FirstOrDefault(o => o.Type.Id == id)
            ?? throw new InputException(new InputError("outcome", Figure.Shorten(id), known.Length == 0 ? "none" : string.Join(", ", known.Select(o => o.Type.Id)), $"{type.Name} cannot be found to be that."));
        if (found.Needs.FirstOrDefault(n => !n.Holds(state.Car.Raw)) is { } lacking) throw new NotAllowedException($"\"{found.Type.Says}\" cannot be.", [Facts.Lacks(lacking, state.Car)], []);
        return id;
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

    /// <summary>Marks a step that was done before its turn. What it broke comes into the plan with its remedy.</summary>
    /// <exception cref="InputException">No reason given, a reading missing, or a step that has its own bench.</exception>
    /// <exception cref="NotAllowedException">The step is allowed now: it is clicked on in the usual way.</exception>
    public static StepDone OutOfOrder(JobState state, ClickOn command)
    {
        ArgumentNullException.ThrowIfNull(command);
        RequireOpen(state);
        var type = StepCatalogue.Find(command.Step.StepId)
            ?? throw new InputException(new InputError("stepId", Figure.Shorten(command.Step.StepId), "a step of the run sheet", "There is no such step."));
        if (type.Lane == Lane.Corner != command.Step.Side is not null || CompiledCatalogue.For(state.Setup).Find(command.Step) is not { Retired: false })
            throw new InputException(new InputError("stepId", command.Step.ToString(), "a step of this car", "That step does not exist on this car."));
        if (!CanBeMarked(type)) throw new NotAllowedException($"{type.Name} is not marked by itself.", ["It is finished on its own bench, by its signatures, or with the readings it judges."], []);
        new Checks().Text("note", command.Note ?? "", 200).ThrowIfAny();
        var why = Planner.Why(state.Setup, state.Car, command.Step);
        if (why.Allowed && Planner.Offered(state.Setup, state.Car, state.Remaining).Contains(command.Step)) throw new NotAllowedException("It may be done now.", ["Click it on in the usual way."], []);
        if (!CompiledCatalogue.For(state.Setup).Find(command.Step)!.Changes(state.Car.Raw)) throw new NotAllowedException("It is done already.", ["It would change nothing on this car."], []);
        if (!Planner.CanHaveBeenDone(state.Setup, state.Car, command.Step)) throw new NotAllowedException("That cannot have been done.", why.Lacking, []);
        CheckReadings(state, type, command with { Acknowledged = [.. type.Cautions.Where(c => c.MustAcknowledge).Select(c => c.Id)] });
        return new(command.Step, false, command.Readings, [], [], null, null, null, command.Note!.Trim(), Broken: why.Interlocks);
    }

    /// <summary>True when a step can be marked as done before its turn: it judges nothing, signs nothing and has no bench of its own.</summary>
    internal static bool CanBeMarked(StepType type) => type is { Torques: null, LeadOnly: false, Stage: not (Stage.Look or Stage.Record) } && type.Readings.All(r => r.Card().Optional || r is ReadingKind.TurnsMade or ReadingKind.Cycles or ReadingKind.PedalStrokes or ReadingKind.ClicksBack or ReadingKind.ClicksOut or ReadingKind.FluidDrawn or ReadingKind.BatteryVoltage or ReadingKind.ReservoirLevel)
        && type.Id is not ("push-tried" or "verdict-settled" or "shoes-measured" or "measured" or "inspected" or "screw-decided" or "shoes-set" or "new-shoes-set");

    /// <summary>Reports a finding.</summary>
    /// <exception cref="InputException">A finding that belongs to a corner without one, or the other way round.</exception>
    /// <exception cref="NotAllowedException">It cannot be found in this job as it stands.</exception>
    public static FindingReported Report(JobState state, FindingKind kind, Side? side, string? note)
    {
        RequireOpen(state);
        if (!Enum.IsDefined(kind)) throw new InputException(new InputError("kind", kind.ToString(), "a known finding", "That finding is not known."));
        var card = kind.Card();
        if (card.PerCorner != side is not null) throw new InputException(new InputError("side", side?.Word() ?? "none", card.PerCorner ? "left or right" : "none", $"{card.Name} belongs to {(card.PerCorner ? "a corner" : "the car")}."));
        if (note is { Length: > 500 }) throw new InputException(new InputError("note", Figure.Shorten(note), "at most 500 characters", "The note is longer than 500 characters."));
        if (!FindingCatalogue.At(state, side).Contains(card))
            throw new NotAllowedException("That changes nothing here.", [state.Setup.InspectOnly ? "An inspection only finds; a new job renews." : "It is in the plan already, or this brake has no such part."], []);
        return new(kind, side, string.IsNullOrWhiteSpace(note) ? null : note.Trim());
    }

    /// <summary>Leaves the job overnight.</summary>
    /// <exception cref="NotAllowedException">No safe stopping point has been reached: every step to it is named.</exception>
    public static LeftOvernight Leave(JobState state)
    {
        RequireOpen(state);
        var stop = Overnight.Shortest(state.Setup, state.Car);
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

    /// <summary>Signs one torque.</summary>
    /// <exception cref="InputException">A figure that cannot be, or a wrench that does not serve.</exception>
    /// <exception cref="NotAllowedException">The step is not allowed now.</exception>
    public static TorqueSigned Sign(JobState state, SignTorque command, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(command);
        RequireOpen(state);
        if (StepCatalogue.Find(command.Step.StepId) is not { Torques: { } role })
            throw new InputException(new InputError("stepId", Figure.Shorten(command.Step.StepId), "a torque step", "That step carries no torque."));
        if (command.Step.Side is null) throw new InputException(new InputError("side", "none", "left or right", "A torque belongs to a corner."));
        RequireAllowed(state, command.Step);
        var line = LineFor(state, role, command);
        new Checks().Range("index", command.Index, 1, line.PerCorner, "").ThrowIfAny();
        if (state.Signatures(command.Step).Any(s => s.Index == command.Index))
            throw new NotAllowedException($"Number {command.Index} is signed.", ["Take the next one."], []);
        if (command.UnverifiedReason is { } why)
        {
            new Checks().Text("unverifiedReason", why, 200).ThrowIfAny();
            return new(command.Step, command.Index, line, null, null, null, command.Unit, false, why.Trim());
        }

        var wrench = command.Wrench ?? throw new InputException(new InputError("wrenchId", "none", "a wrench of the workshop", "Choose the wrench: the record carries it."));
        var set = TorqueSetting.Compute(line, wrench, command.Crowfoot, today);
        if (!set.WrenchServes)
            throw new InputException(new InputError("wrenchId", wrench.Id, "a wrench that reaches the figure and is in date", set.Questions.First(q => q.Kind == TorqueQuestionKind.Wrench).Says));
        return new(command.Step, command.Index, line, set, wrench, command.Crowfoot, command.Unit, true, null);
    }

    /// <summary>The fastener line of a torque step: the sheet's, or the one entered by hand where the sheet has none.</summary>
    private static TorqueLine LineFor(JobState state, FastenerRole role, SignTorque command)
    {
        if (state.Opened!.Sheet.Line(role) is { } line) return line;
        if (state.Signatures(command.Step).FirstOrDefault() is { } earlier) return earlier.Line;
        if (command.EnteredTorque is not { } torque)
            throw new InputException(new InputError("enteredTorqueNm", "nothing", "1 to 500 N m", $"The sheet has no figure for a {Fasteners.Words(role)}: enter the maker's, with its unit."));
        var entered = new TorqueLine(role, command.EnteredPerCorner ?? 0, null, null, PropertyClass.NotKnown, "as found", torque, null, false, true, false, "Entered by hand");
        var checks = new Checks();
        entered.CheckInto(checks);
        checks.ThrowIfAny();
        return entered;
    }

    /// <summary>Records a stop sign. Those that hold the corner take its piston out of the plan until they are undone.</summary>
    /// <exception cref="NotAllowedException">When that piston is not being retracted.</exception>
    public static StopSignSeen Stop(JobState state, Side side, StopSign sign, string? note)
    {
        RequireOpen(state);
        if (!Enum.IsDefined(sign)) throw new InputException(new InputError("sign", sign.ToString(), "a known stop sign", "That stop sign is not known."));
        RequireAllowed(state, new("piston-home", side));
        var card = RetractionRuling.Stop(sign);
        return new(side, sign, card.HoldsCorner, string.IsNullOrWhiteSpace(note) ? null : note.Trim());
    }

    /// <summary>Takes readings at a corner. Readings always append: they never wait for a version.</summary>
    /// <exception cref="InputException">A reading that cannot be, contradicts the others, or was taken with an instrument out of calibration.</exception>
    public static ReadingsTaken Take(JobState state, Side side, IReadOnlyList<PointReading> readings, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(readings);
        RequireOpen(state);
        if (readings.Count == 0) throw new InputException(new InputError("readings", "none", "1 to 500", "There is no reading to take."));
        MeasurandCatalogue.Check(readings);
        var checks = new Checks();
        var known = Core.Sides.Both.SelectMany(s => state.Corner(s).Readings).Select(r => r.Id).ToHashSet();
        foreach (var r in readings)
        {
            if (r.Id == Guid.Empty || !known.Add(r.Id)) checks.Add("id", r.Id.ToString(), "a new id each", "That reading was taken before.");
            if (!r.Instrument.InDate(today)) checks.Add("instrumentId", r.Instrument.Id, "an instrument in calibration", $"The calibration of the {r.Instrument.Name.ToLowerInvariant()} ran out on {r.Instrument.CalibratedUntil:yyyy-MM-dd}: use another.");
        }

        checks.ThrowIfAny();
        var taken = new ReadingsTaken(side, readings);
        RequireJudgeable(state, taken);
        return taken;
    }

    /// <summary>Strikes a reading out. It stays in the log.</summary>
    /// <exception cref="InputException">No such reading, or no reason.</exception>
    public static ReadingStruck Strike(JobState state, Guid readingId, string reason)
    {
        RequireOpen(state);
        new Checks().Text("reason", reason, 200).ThrowIfAny();
        foreach (var side in Core.Sides.Both)
        {
            if (state.Corner(side).Readings.All(r => r.Id != readingId)) continue;
            return state.Corner(side).Struck.ContainsKey(readingId) ? throw new NotAllowedException("That reading is struck out already.", [], []) : new(side, readingId, reason.Trim());
        }

        throw new InputException(new InputError("readingId", readingId.ToString(), "a reading of this job", "There is no such reading in this job."));
    }

    /// <summary>Notes what is seen of drum and shoes.</summary>
    /// <exception cref="InputException">A figure that cannot be.</exception>
    public static ShoesLookedAt LookAtShoes(JobState state, Side side, ShoeFacts facts) => Judgeable(state, new ShoesLookedAt(side, facts));

    /// <summary>Notes what is seen of a rotor.</summary>
    /// <exception cref="InputException">A figure that cannot be.</exception>
    public static RotorLookedAt LookAtRotor(JobState state, Side side, RotorFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        new Checks().Range("studs", facts.Studs, 3, 10, "").Range("movedByDeg", facts.MovedBy?.Degrees, -360, 360, "degrees").Millimetres("scoringDepthMm", facts.Condition.ScoringDepth, 0, 5).ThrowIfAny();
        return Judgeable(state, new RotorLookedAt(side, facts));
    }

    /// <summary>Notes what is seen of the pads.</summary>
    /// <exception cref="InputException">A figure that cannot be.</exception>
    public static PadsLookedAt LookAtPads(JobState state, PadFacts facts) => Judgeable(state, new PadsLookedAt(facts));

    /// <summary>Notes which way loosened a star wheel.</summary>
    /// <exception cref="InputException">An hour that no clock has.</exception>
    public static StarWheelNoted NoteStarWheel(JobState state, Side side, WheelWay loosens, int holeAt)
    {
        RequireOpen(state);
        new Checks().Range("holeAt", holeAt, 1, 12, "o'clock").ThrowIfAny();
        return new(side, loosens, holeAt);
    }

    /// <summary>Notes a line of a retraction log. Lines always append: they never wait for a version.</summary>
    /// <exception cref="InputException">A line that cannot be, or a gauge out of calibration.</exception>
    /// <exception cref="NotAllowedException">The corner is not ruled on, or its piston is home.</exception>
    public static RetractionPointNoted NotePoint(JobState state, Side side, LogPoint point, Instrument gauge, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(point);
        ArgumentNullException.ThrowIfNull(gauge);
        RequireRetracting(state, side);
        if (Opposed(state, side)) throw new NotAllowedException("Opposed pistons are not followed by one log.", ["Measure every piston after each push."], []);
        var checks = new Checks();
        RetractionLog.CheckInto(checks, point);
        if (point.Id == Guid.Empty || Core.Sides.Both.Any(s => state.Corner(s).Log.Any(p => p.Point.Id == point.Id))) checks.Add("id", point.Id.ToString(), "a new id each", "That line was noted before.");
        if (!gauge.InDate(today)) checks.Add("instrumentId", gauge.Id, "an instrument in calibration", $"The calibration of the {gauge.Name.ToLowerInvariant()} ran out on {gauge.CalibratedUntil:yyyy-MM-dd}: use another.");
        if (!gauge.Serves(InstrumentUse.Depth)) checks.Add("instrumentId", gauge.Id, "depth", $"The {gauge.Name.ToLowerInvariant()} does not get at this: how far the piston stands proud.");
        var stage = state.Corner(side).LogPoints().Select(p => p.Stage).DefaultIfEmpty(1).Max();
        if (point.Stage > stage + 1 || point.Stage < stage) checks.Add("stage", Figure.Of(point.Stage), $"{stage} or {stage + 1}", $"Stage {point.Stage} does not follow stage {stage}.");
        checks.Range("points", state.Corner(side).LogPoints().Count + 1, 1, 200, "").ThrowIfAny();
        return new(side, point, gauge);
    }

    /// <summary>Strikes a line of a retraction log out. It stays in the log.</summary>
    /// <exception cref="InputException">No such line, or no reason.</exception>
    public static RetractionPointStruck StrikePoint(JobState state, Side side, Guid pointId, string reason)
    {
        RequireOpen(state);
        new Checks().Text("reason", reason, 200).ThrowIfAny();
        if (state.Corner(side).Log.All(p => p.Point.Id != pointId)) throw new InputException(new InputError("pointId", pointId.ToString(), "a line of this log", "There is no such line in this log."));
        return state.Corner(side).Struck.ContainsKey(pointId) ? throw new NotAllowedException("That line is struck out already.", [], []) : new(side, pointId, reason.Trim());
    }

    /// <summary>Notes slot, boot and what was tried at a corner.</summary>
    /// <exception cref="InputException">A figure that cannot be.</exception>
    public static RetractionLookedAt LookAtRetraction(JobState state, Side side, RetractionFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        RequireRetracting(state, side);
        facts.Check();
        return new(side, facts);
    }

    /// <summary>Notes what is known of the fluid.</summary>
    /// <exception cref="InputException">A figure that cannot be.</exception>
    public static FluidLookedAt LookAtFluid(JobState state, FluidFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        RequireOpen(state);
        BrakeFluid.Judge(new(facts.Cap ?? state.Opened!.Sheet.Hydraulics?.Fluid ?? FluidGrade.Dot4, facts.Bottle, facts.WaterPercent, facts.HottestCelsius));
        if (facts.Sides is { } sides) FluidBench.Measure(sides);
        return new(facts);
    }

    /// <summary>Notes a draw at a corner's bleed screw.</summary>
    /// <exception cref="InputException">A draw that cannot be.</exception>
    /// <exception cref="NotAllowedException">Nothing is to be bled now.</exception>
    public static BleedDrawn Draw(JobState state, Side side, BleedDraw draw)
    {
        ArgumentNullException.ThrowIfNull(draw);
        RequireOpen(state);
        RequireAllowed(state, new("corner-bled", side));
        var checks = new Checks();
        Bleeding.CheckInto(checks, draw);
        if (draw.Id == Guid.Empty || Core.Sides.Both.Any(s => state.Corner(s).Draws.Any(d => d.Id == draw.Id))) checks.Add("id", draw.Id.ToString(), "a new id each", "That draw was noted before.");
        checks.Range("draws", state.Corner(side).Draws.Count + 1, 1, 200, "").ThrowIfAny();
        return new(side, draw);
    }

    /// <summary>Notes what was seen at the leak check. Whether a banjo was undone is the job's to say.</summary>
    /// <exception cref="InputException">A time that cannot be.</exception>
    /// <exception cref="NotAllowedException">Leaks are not looked for now.</exception>
    public static LeaksLookedAt LookForLeaks(JobState state, LeakInput seen)
    {
        ArgumentNullException.ThrowIfNull(seen);
        RequireOpen(state);
        RequireAllowed(state, new("leaks-looked", null));
        var held = seen with { BanjoUndone = state.BanjoUndone };
        LeakCheck.Judge(held);
        return new(held);
    }

    /// <summary>Strikes a draw out that was noted wrongly. It stays in the log.</summary>
    /// <exception cref="InputException">No such draw, or no reason.</exception>
    /// <exception cref="NotAllowedException">It is struck out already, or the car is bled.</exception>
    public static BleedDrawStruck StrikeDraw(JobState state, Side side, Guid drawId, string reason)
    {
        RequireOpen(state);
        RequireAllowed(state, new("corner-bled", side));
        new Checks().Text("reason", reason, 200).ThrowIfAny();
        if (state.Corner(side).AllDraws.All(d => d.Id != drawId)) throw new InputException(new InputError("drawId", drawId.ToString(), "a draw at this corner", "There is no such draw at this corner."));
        return state.Corner(side).Struck.ContainsKey(drawId) ? throw new NotAllowedException("That draw is struck out already.", [], []) : new(side, drawId, reason.Trim());
    }

    /// <summary>Notes a round of measuring every piston of an opposed caliper: the first before the push, the next after each.</summary>
    /// <exception cref="InputException">A piston left out or measured twice, or a figure that cannot be.</exception>
    /// <exception cref="NotAllowedException">The corner is not ruled on, its caliper is not opposed, or its pistons are home.</exception>
    public static PistonsMeasured MeasurePistons(JobState state, Side side, IReadOnlyList<PistonProud> pistons)
    {
        ArgumentNullException.ThrowIfNull(pistons);
        RequireRetracting(state, side);
        if (!Opposed(state, side)) throw new NotAllowedException("This caliper has pistons on one side only.", ["Its piston is followed in the log."], []);
        var wanted = state.Opened!.Sheet.Piston.PistonsPerCaliper;
        if (pistons.Count != wanted) throw new InputException(new InputError("pistons", Figure.Of(pistons.Count), Figure.Of(wanted), $"The caliper has {Figure.Count(wanted, "piston")} and {Figure.Count(pistons.Count, "is", "are")} measured: measure every one, each time."));
        JobBenches.Creep(state, [pistons]);
        new Checks().Range("rounds", state.Corner(side).Pistons.Count + 1, 1, 100, "").ThrowIfAny();
        return new(side, pistons);
    }

    private static bool Opposed(JobState state, Side side) => state.Corner(side).Ruled?.Ruling.Method == RetractMethod.OpposedPush;

    private static void RequireRetracting(JobState state, Side side)
    {
        RequireOpen(state);
        if (state.Corner(side).Ruled is null) throw new NotAllowedException("Not yet: nobody knows which way it goes back.", [$"Identify the brake of the {side.Word()} corner first."], []);
        if (state.Car.Get(Corner.Piston, side) == Piston.Home) throw new NotAllowedException("That piston is home.", ["Undo that step first."], []);
    }

    private static T Judgeable<T>(JobState state, T e) where T : JobEvent
    {
        RequireOpen(state);
        RequireJudgeable(state, e);
        return e;
    }

    /// <summary>What the benches could not judge is not recorded: the sentence says which figure is wrong.</summary>
    private static void RequireJudgeable(JobState state, JobEvent e)
    {
        var next = state.With(new(Guid.Empty, state.Version + 1, e, Guid.Empty, "", default, default));
        foreach (var side in Core.Sides.Both)
        {
            JobBenches.Shoes(next, side, false, null, next.Instruments);
            JobBenches.Shoes(next, side, true, null, next.Instruments);
            JobBenches.Rotor(next, side, next.Instruments);
        }

        JobBenches.Pads(next, next.Instruments);
    }

    /// <summary>What lifting an event would void: itself, and every later step that could not have been done without it.</summary>
    /// <exception cref="InputException">No such event, or one that cannot be lifted.</exception>
    public static PawlLifted Lift(JobState state, Guid target, string reason, bool isLead, Guid technicianId)
    {
        RequireOpen(state, evenHandedOver: true);
        new Checks().Text("reason", reason, 200).ThrowIfAny();
        var recorded = state.Log.FirstOrDefault(e => e.Id == target)
            ?? throw new InputException(new InputError("target", target.ToString(), "an event of this job", "There is no such step in this job."));
        if (state.Voided.Contains(target)) throw new NotAllowedException("That was undone already.", [], []);
        if (!recorded.Event.Card().CanBeUndone)
            throw new InputException(new InputError("target", recorded.Event.Card().Name(recorded.Event), "a finished step, a signature, a ruling or a stop sign", "That cannot be undone: it stays as it is."));
        if (!isLead && recorded.TechnicianId != technicianId)
            throw new NotAllowedException("Only the lead undoes what someone else did.", [$"{recorded.Technician} did this step."], []);
        return new(target, DependsOn(state, target), reason.Trim());
    }

    /// <summary>Replays the job without the target; whatever is then no longer allowed depended on it.</summary>
    private static List<Guid> DependsOn(JobState state, Guid target)
    {
        List<Guid> voided = [target];
        var standing = state.Standing.Where(e => e.Event is not PawlLifted).ToList();
        var replay = JobState.Fold(standing.TakeWhile(e => e.Id != target));
        foreach (var e in standing.SkipWhile(e => e.Id != target).Skip(1))
        {
            var step = e.Event switch { StepDone s => s.Step, TorqueSigned t => t.Step, StopSignSeen s => new("piston-home", s.Side), RouteChosen => new("choose-route", null), _ => null };
            if (e.Event is StepDone { Broken: not null })
            {
                // Done before its turn it depends on nothing; it only needs to exist.
                replay = replay.With(e);
                continue;
            }

            if (step is not null && !Planner.Why(replay.Setup, replay.Car, step).Allowed) voided.Add(e.Id);
            else replay = replay.With(e);
        }

        return voided;
    }

    private static StepDone Judged(JobState state, StepType type, ClickOn command, string? outcome, string? note)
    {
        List<LimitVerdict> verdicts = [];
        TravelResult? travel = null;
        RoomResult? room = null;
        List<Finding> findings = [];
        ClearanceVerdict? clearance = null;
        if (type.Id == "measured")
        {
            var side = command.Step.Side!.Value;
            verdicts = JobMeasuring.Verdicts(state, side, command.Readings);
            travel = JobMeasuring.Travel(state, side, command.Readings);
            room = ReservoirRoom.Judge(state.Opened!.Sheet.Reservoir, Math.Clamp(state.LevelPercent ?? 100, 0, 150), travel.Displaced);
            outcome = room.Verdict == RoomVerdict.DrawOffFirst ? "no-room" : null;
            findings = JobParts.Findings(JobParts.PadsAndRotor(state, side, verdicts));
        }
        else if (type.Id == "inspected")
        {
            verdicts = JobMeasuring.Verdicts(state, command.Step.Side!.Value, command.Readings);
            findings = JobParts.Findings(JobParts.PadsAndRotor(state, command.Step.Side!.Value, verdicts));
        }
        else if (type.Id == "shoes-measured")
        {
            (verdicts, findings) = JobMeasuring.DrumAndShoes(state, command.Step.Side!.Value);
        }
        else if (type.Id == "verdict-settled")
        {
            (verdicts, findings) = JobMeasuring.Settled(state, command.Step.Side!.Value, outcome is not null);
        }
        else if (type.Id is "shoes-set" or "new-shoes-set")
        {
            clearance = JobParts.Try(() => JobBenches.Shoes(state, command.Step.Side!.Value, state.Setup.Rotors, null, state.Instruments))?.Clearance;
        }
        else if (type.Id == "reservoir-again" && state.Corner(command.Step.Side!.Value).Travel is { } known)
        {
            room = ReservoirRoom.Judge(state.Opened!.Sheet.Reservoir, command.Readings[0].Value, known.Displaced);
            outcome = room.Verdict == RoomVerdict.DrawOffFirst ? "no-room" : null;
        }
        else if (type.Id == "fluid-drawn" && state.Corner(command.Step.Side!.Value).Travel is { } expected)
        {
            var drawn = command.Readings[0].Value / state.Opened!.Sheet.Reservoir.Band.Milliliters * 100;
            room = ReservoirRoom.Judge(state.Opened.Sheet.Reservoir, Math.Clamp((state.LevelPercent ?? 100) - drawn, 0, 150), expected.Displaced);
            if (room.Verdict == RoomVerdict.DrawOffFirst)
                throw new InputException(new InputError(nameof(ReadingKind.FluidDrawn), Figure.Of(command.Readings[0].Value), $"at least {Figure.Of(command.Readings[0].Value + room.DrawOff.Milliliters, 1)} mL", $"Not enough yet: draw off {Figure.Of(room.DrawOff.Milliliters, 1)} mL more."));
        }

        return new(command.Step, outcome is not null, command.Readings, command.Acknowledged, verdicts, travel, room, command.Report, note, findings.Count > 0 ? findings : null, clearance, Outcome: outcome);
    }

    private static void CheckReadings(JobState state, StepType type, ClickOn command)
    {
        var checks = new Checks();
        var wanted = type.ReadingsIn(state.Setup);
        foreach (var reading in command.Readings) ReadingCatalogue.Check(reading, checks, state.Instruments);
        foreach (var kind in wanted.Where(k => !k.Card().Optional && command.Readings.All(r => r.Kind != k)))
        {
            var card = kind.Card();
            checks.Add(kind.ToString(), "nothing", $"{Figure.Of(card.Low)} to {Figure.Of(card.High)} {card.Unit}", $"{card.Name} is missing: {Figure.Of(card.Low)} to {Figure.Of(card.High)} {card.Unit}.");
        }

        foreach (var reading in command.Readings.Where(r => !wanted.Contains(r.Kind) || command.Readings.Count(x => x.Kind == r.Kind) > 1))
            checks.Add(reading.Kind.ToString(), Figure.Of(reading.Value), "the readings of this step, once each", $"{type.Name} does not take that reading, or has it twice.");
        foreach (var caution in type.Cautions.Where(c => c.MustAcknowledge && !command.Acknowledged.Contains(c.Id)))
            checks.Add("acknowledged", "not acknowledged", caution.Id, $"Acknowledge first: {caution.Says}");
        foreach (var id in command.Acknowledged.Where(a => type.Cautions.All(c => c.Id != a)))
            checks.Add("acknowledged", Figure.Shorten(id), string.Join(", ", type.Cautions.Select(c => c.Id)), "That caution does not stand at this step.");
        if (command.Note is { Length: > 500 } note) checks.Add("note", Figure.Shorten(note), "at most 500 characters", "The note is longer than 500 characters.");
        if (command.Report is { } report && (report.Words.Length > 500 || report.Codes.Length > 500))
            checks.Add("report", Figure.Shorten(report.Words), "at most 500 characters", "What the tool said is longer than 500 characters.");
        checks.ThrowIfAny();
    }

    /// <summary>Where a log was kept, it has the last word: a piston that is short of what the new parts need is not home.</summary>
    private static void RequireHome(JobState state, Side side)
    {
        if (state.Corner(side).Retraction.Boot is { } boot && BootLook.Judge(boot, state.Opened!.Sheet.Piston.ResealAllowed, state.Setup.Rules.Boot) is { Condemns: true } torn)
            throw new InputException(new InputError("boot", torn.Name.ToLowerInvariant(), "a sound boot, or a reseal that the maker allows", $"The boot was seen {torn.Name.ToLowerInvariant()}. {torn.Do}"));
        if (JobBenches.Creep(state, state.Corner(side).Pistons) is { } creep) RequireAllBack(state, side, creep);
        if (state.Corner(side).LogPoints().Count == 0) return;
        var log = JobBenches.Retraction(state, side, null).Log;
        if (log.Findings.FirstOrDefault(f => f.Stop && f.Kind != LogFindingKind.Home) is { } f)
            throw new InputException(new InputError("log", f.Name.ToLowerInvariant(), "a log that ends at home", $"The log says: {f.Says} {f.Do}"));
        var first = state.Corner(side).LogPoints().OrderBy(p => p.Stage).ThenBy(p => p.Turns).First().Protrusion;
        if (!log.Home && log.Protrusion is { } now && state.Corner(side).Travel is { } travel && first - now < travel.Need - Length.FromMillimeters(0.05))
            throw new InputException(new InputError("log", $"{Figure.Of((first - now).Millimeters, 2)} mm in", $"{Figure.Of(travel.Need.Millimeters, 2)} mm", $"By the log it is {Figure.Of((first - now).Millimeters, 2)} mm in and the new parts need {Figure.Of(travel.Need.Millimeters, 2)} mm. Go on, or strike the reading that is wrong."));
    }

    private static void RequireAllBack(JobState state, Side side, CreepAnswer creep)
    {
        if (creep.Stop) throw new InputException(new InputError("pistons", "one beyond its limit", "every piston inside its bore", creep.Says));
        foreach (var m in creep.Pistons.Where(m => !m.Home))
        {
            // Where they stood under the old pads, less what the new parts need: wherever the first round was taken.
            if (JobMeasuring.Enough(state, side, m.Piston.Bank) is not { } most || m.Piston.Now <= most + Length.FromMillimeters(0.05)) continue;
            var (name, stands, wanted) = (CreepWatch.Name(m.Piston), $"{Figure.Of(m.Piston.Now.Millimeters, 2)} mm", $"{Figure.Of(most.Millimeters, 2)} mm");
            throw new InputException(new InputError("pistons", $"{name} at {stands}", $"{wanted} or less", $"By the last round {name} stands {stands} proud; for the new parts it has to be {wanted} or less. Go on, or measure again."));
        }
    }

    /// <summary>Where draws were noted, the stop test has to be met.</summary>
    private static void RequireBled(JobState state, Side side)
    {
        if (state.Corner(side).Draws.Count == 0) return;
        var bled = JobBenches.Fluid(state, null, false).Corners.First(c => c.Side == side).Bled;
        if (!bled.Done) throw new InputException(new InputError("draws", $"{bled.ClearInARow} clear in a row, {side.Word()}", "2 clear in a row, without bubbles or change of colour", $"The {side.Word()} corner is not bled yet. {bled.Says}"));
    }

    /// <summary>Where a leak check was noted, it has to be passed.</summary>
    private static void RequireDry(JobState state)
    {
        if (state.Leaks is { } seen && LeakCheck.Judge(seen) is { Passed: false } answer)
            throw new InputException(new InputError("leaks", $"held {seen.HeldSeconds} s, not passed", "held hard for 30 s, sound and dry", $"The leak check is not passed. {answer.Says}"));
    }

    /// <summary>The level with the pedal up is where it will stay: under MIN it draws air, over MAX it overflows when it warms.</summary>
    // Between the marks, and clear of the lower one by a tenth of the band: what leaves the workshop at MIN is under it at the first stop.
    // Common practice, no source for the tenth.
    private const double LeastLevel = 10;

    private static void RequireBetweenMarks(ClickOn command)
    {
        var level = command.Readings.First(r => r.Kind == ReadingKind.ReservoirLevel).Value;
        if (level is >= LeastLevel and <= 100) return;
        throw new InputException(new InputError(nameof(ReadingKind.ReservoirLevel), $"{Figure.Of(level)} %", $"{Figure.Of(LeastLevel)} to 100 %, clear of MIN and not over MAX", level > 100
            ? $"{Figure.Of(level)} % is over MAX: draw off what is too much with a clean syringe, throw it away, and read again."
            : $"{Figure.Of(level)} % is down at MIN: find where it went, fill up with the fluid that the cap names, and read again."));
    }

    private static void RequireVoltage(JobState state, ClickOn command)
    {
        var floor = state.Opened!.Sheet.Electric?.BatteryFloor ?? JobMeasuring.DefaultBatteryFloor;
        var volts = command.Readings.First(r => r.Kind == ReadingKind.BatteryVoltage).Value;
        if (volts < floor.Volts)
            throw new InputException(new InputError(nameof(ReadingKind.BatteryVoltage), Figure.Of(volts), $"at least {Figure.Of(floor.Volts)} V", $"{Figure.Of(volts)} V is under the floor of {Figure.Of(floor.Volts)} V: charge it first, or the tool refuses."));
    }

    private static void RequireAllowed(JobState state, StepKey step)
    {
        var why = Planner.Why(state.Setup, state.Car, step);
        if (!why.Allowed) throw new NotAllowedException("Not yet.", why.Lacking, why.Interlocks);
        if (!Planner.Offered(state.Setup, state.Car, state.Remaining).Contains(step))
            throw new NotAllowedException("Not needed now.", ["It is done already, or what is left does not ask for it here."], []);
    }

    private static void RequireOpen(JobState state, bool evenHandedOver = false)
    {
        ArgumentNullException.ThrowIfNull(state);
        if (state.Opened is null) throw new NotAllowedException("This job was never opened.", [], []);
        if (state.Night is not null) throw new NotAllowedException("The job was left overnight.", ["Come back to it first: what could have changed is looked at again."], []);
        if (state.HandedOver && !evenHandedOver) throw new NotAllowedException("The car was handed over: the record is closed.", ["Correcting adds to it: lift the hand-over with a reason."], []);
    }
}

/// <summary>What a job's readings say.</summary>
internal static class JobMeasuring
{
    /// <summary>The usual floor for a service routine. Common practice, no source.</summary>
    public static readonly ElectricPotential DefaultBatteryFloor = ElectricPotential.FromVolts(12.0);

    private static readonly Length DefaultMinimumLining = Length.FromMillimeters(2.0);

    public static TravelResult Travel(JobState state, Side side, IReadOnlyList<Reading> readings) =>
        Opposed(state, side, readings)?.Whole ?? HowFar.Compute(Input(state, side, readings), state.Setup.Rules.RetractDepth);

    /// <summary>Each side of an opposed caliper; null where the pistons are on one side.</summary>
    public static OpposedTravel? Opposed(JobState state, Side side, IReadOnlyList<Reading> readings) =>
        state.Corner(side).Ruled?.Ruling.Method == RetractMethod.OpposedPush && state.Opened!.Sheet.Piston.PistonsPerCaliper % 2 == 0
            ? HowFar.Opposed(Input(state, side, readings) with { ProtrusionOuter = Mm(readings, Outer(readings)) }, state.Setup.Rules.RetractDepth)
            : null;

    /// <summary>Each side of an opposed caliper by the measuring step as it was clicked on; null before it.</summary>
    public static OpposedTravel? Opposed(JobState state, Side side) => Measured(state, side) is { } m ? Opposed(state, side, m.Readings) : null;

    /// <summary>How far an opposed piston may stand proud for the new parts to go in; null before it is measured.</summary>
    public static Length? Enough(JobState state, Side side, PistonBank bank) =>
        Measured(state, side) is { } m && Opposed(state, side, m.Readings) is { } travel
            ? bank == PistonBank.Inner ? Mm(m.Readings, ReadingKind.PistonProtrusion) - travel.Inner.Need : Mm(m.Readings, Outer(m.Readings)) - travel.Outer.Need
            : null;

    private static StepDone? Measured(JobState state, Side side) => state.Standing.Select(e => e.Event).OfType<StepDone>().LastOrDefault(s => s.Step.StepId == "measured" && s.Step.Side == side);

    // A job of an older version measured one side: the other was taken to stand like it.
    private static ReadingKind Outer(IReadOnlyList<Reading> readings) => readings.Any(r => r.Kind == ReadingKind.OuterProtrusion) ? ReadingKind.OuterProtrusion : ReadingKind.PistonProtrusion;

    private static HowFarInput Input(JobState state, Side side, IReadOnlyList<Reading> readings)
    {
        var sheet = state.Opened!.Sheet;
        var rotor = Mm(readings, ReadingKind.RotorThickness);
        var method = state.Corner(side).Ruled?.Ruling.Method;
        var lead = method is RetractMethod.TurnAndPush or RetractMethod.SpindleThenTurn ? sheet.Piston.Lead : null;
        return new(
            new(Mm(readings, ReadingKind.InnerPad), Mm(readings, ReadingKind.OuterPad), rotor),
            new(sheet.Pads.NewInnerTotal, sheet.Pads.NewOuterTotal, state.Setup.Rotors ? sheet.Rotor.NewThickness : rotor),
            Mm(readings, ReadingKind.PistonProtrusion), sheet.Piston.HomeProtrusion, lead, sheet.Piston.Diameter, sheet.Piston.PistonsPerCaliper, null, ProtrusionLimit: sheet.Piston.ProtrusionLimit);
    }

    public static List<LimitVerdict> Verdicts(JobState state, Side side, IReadOnlyList<Reading> readings)
    {
        var sheet = state.Opened!.Sheet;
        var least = sheet.Pads.MinimumLining ?? DefaultMinimumLining;
        List<LimitVerdict> verdicts = [];
        foreach (var (kind, name) in new[] { (ReadingKind.InnerPad, "Inner lining"), (ReadingKind.OuterPad, "Outer lining") })
        {
            // A worn-through pad reads thinner than its backing plate: that is no lining, not a negative one.
            var lining = Length.FromMillimeters(Math.Max(0, Mm(readings, kind).Millimeters - sheet.Pads.Backing.Millimeters));
            verdicts.Add(LimitJudgement.Judge($"{name}, {side.Word()}", lining, least, LimitKind.Minimum, Instrument(state, readings, kind), sheet.Pads.MinimumLining is null));
        }

        // The step's own figure and the rotor bench's are one list: the worse decides, and nobody's thin reading disappears.
        LimitVerdict? step = sheet.Rotor.MinimumThickness is { } minimum
            ? LimitJudgement.Judge($"Rotor, {side.Word()}", Mm(readings, ReadingKind.RotorThickness), minimum, LimitKind.Minimum, Instrument(state, readings, ReadingKind.RotorThickness), false) : null;
        var bench = JobParts.Try(() => JobBenches.Rotor(state, side, state.Instruments))?.Thickness is { } t ? t.Minimum with { What = $"Rotor, {side.Word()}" } : null;
        if (step is not null && (bench is null || (step.Verdict == Verdict.Outside && bench.Verdict != Verdict.Outside))) verdicts.Add(step);
        else if (bench is not null) verdicts.Add(bench);
        return verdicts;
    }

    /// <summary>What the shoe bench says of a corner, once enough of it has been read.</summary>
    public static (List<LimitVerdict>, List<Finding>) DrumAndShoes(JobState state, Side side)
    {
        var bench = JobBenches.Shoes(state, side, false, null, state.Instruments);
        var checks = new Checks();
        if (bench.Shoes is null) checks.Add("linings", "nothing", "one lining at least, better six", "No shoe lining has been read: both ends and the middle of each shoe.");
        if (bench.Drum is null && !state.Setup.Rotors) checks.Add("drum", "nothing", "two diameters at least, better eight", $"The drum has not been judged. {string.Join(" ", bench.Lacks)}");
        checks.ThrowIfAny();
        return (ShoeVerdicts(bench, side), JobParts.Findings(JobParts.DrumAndShoes(state, side)));
    }

    /// <summary>Settles what was in doubt: by what is measured now, or by renewing the part.</summary>
    public static (List<LimitVerdict>, List<Finding>) Settled(JobState state, Side side, bool renew)
    {
        var parts = JobParts.Known(state, side);
        var open = parts.Where(p => p.Verdict == Verdict.TooCloseToCall).ToArray();
        if (open.Length > 0 && !renew)
        {
            throw new InputException([.. open.Select(p => new InputError("verdict", "too close to call", "inside, outside, or renewed",
                $"{p.Says} {(p.SettledBy.Any(s => s.WouldSettle) ? string.Join(" ", p.SettledBy.Where(s => s.WouldSettle).Select(s => s.Says)) : "Nothing on hand settles it: renew the part.")}"))]);
        }

        List<LimitVerdict> verdicts = [];
        if (JobParts.Try(() => JobBenches.Rotor(state, side, state.Instruments))?.Thickness is { } t) verdicts.Add(t.Minimum with { What = $"Rotor, {side.Word()}" });
        if (JobParts.Try(() => JobBenches.Pads(state, state.Instruments))?.Pads is { } pads) verdicts.AddRange(pads.Pads.Where(p => p.Side == side).Select(p => p.Minimum));
        if (JobParts.Try(() => JobBenches.Shoes(state, side, false, null, state.Instruments)) is { } shoes) verdicts.AddRange(ShoeVerdicts(shoes, side));
        return (verdicts, JobParts.Findings(renew ? open.Select(p => p with { Verdict = Verdict.Outside, Says = p.Says + " Renewed by choice." }) : parts));
    }

    private static List<LimitVerdict> ShoeVerdicts(ShoeBenchAnswer bench, Side side) =>
    [
        .. bench.Drum is { } d ? new[] { d.Maximum with { What = $"Drum, {side.Word()}" }, d.OutOfRoundVerdict with { What = $"Drum out of round, {side.Word()}" } } : [],
        .. bench.Shoes is { } s ? new[] { s.Lining with { What = $"Shoe lining, {side.Word()}" } } : [],
    ];

    private static Length Mm(IReadOnlyList<Reading> readings, ReadingKind kind) => Length.FromMillimeters(readings.First(r => r.Kind == kind).Value);

    private static Instrument Instrument(JobState state, IReadOnlyList<Reading> readings, ReadingKind kind)
    {
        var id = readings.First(r => r.Kind == kind).InstrumentId ?? kind.Card().Instrument!;
        return InstrumentCatalogue.Find(state.Instruments, id) ?? InstrumentCatalogue.Get(InstrumentCatalogue.Defaults, id);
    }
}

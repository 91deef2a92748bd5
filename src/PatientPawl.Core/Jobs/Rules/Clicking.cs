using PatientPawl.Core.Identification;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Practice;
using UnitsNet;

namespace PatientPawl.Core.Jobs;

/// <summary>Steps clicked on, marked out of order, and findings reported.</summary>
public static partial class JobRules
{
    /// <summary>Clicks a step on.</summary>
    /// <exception cref="InputException">A reading missing, impossible, or a caution not acknowledged.</exception>
    /// <exception cref="NotAllowedException">The step is not allowed now; every condition and interlock is named.</exception>
    public static JobEvent Click(JobState state, ClickOn command, bool isLead, ToolBoard board)
    {
        ArgumentNullException.ThrowIfNull(command);
        RequireOpen(state);
        var type = StepCatalogue.Find(command.Step.StepId)
            ?? throw new InputException(new InputError("stepId", Figure.Shorten(command.Step.StepId), "a step of the run sheet", "There is no such step."));
        if (type.Lane == Lane.Corner != command.Step.Side is not null)
            throw new InputException(new InputError("side", command.Step.Side?.Word() ?? "none", type.Lane == Lane.Corner ? "left or right" : "none", $"{type.Name} belongs to {(type.Lane == Lane.Corner ? "a corner" : "the car")}."));
        var behaviour = StepBehaviour.Of(type.Id);
        if (behaviour.HasItsOwnBench) throw new NotAllowedException($"{type.Name} is finished on its own bench.", ["Answer it there."], []);
        if (type.Torques is not null) throw new NotAllowedException($"{type.Name} is finished by signing every one of them.", ["Sign the torque."], []);
        if (type.LeadOnly && !isLead) throw new NotAllowedException("The lead does this.", ["Needs the lead's sign-in."], []);
        RequireAllowed(state, command.Step);
        PracticeRules.RequireAnswer(state, command.Step);
        var outcome = OutcomeOf(state, type, command);
        if (!isLead && behaviour.LeadDecides(outcome)) throw new NotAllowedException($"{type.Name}: the lead decides that.", ["Needs the lead's sign-in."], []);
        CheckReadings(state, type, command, board);

        var note = string.IsNullOrWhiteSpace(command.Note) ? null : command.Note.Trim();
        if (behaviour.NoteWanted is { } wanted && note is null) throw new InputException(new InputError("note", "nothing", wanted.What, wanted.Says));
        if (state.Setup.ByTool && behaviour.AsksTheTool && outcome is null && command.Report is null)
            throw new InputException(new InputError("report", "nothing", "what the tool said", "Say what the scan tool said: finished, or refused."));
        if (outcome is null && command.Report is { Succeeded: false } refused) return new ToolRefused(command.Step, refused);
        behaviour.Check(state, command, outcome);
        var found = behaviour.Judge(state, command, outcome);
        return new StepDone(command.Step, found.Outcome is not null, command.Readings, command.Acknowledged, found.Verdicts, found.Travel, found.Room, command.Report, note,
            found.Findings.Count > 0 ? found.Findings : null, found.Clearance, Outcome: found.Outcome);
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

    /// <summary>Marks a step that was done before its turn. What it broke comes into the plan with its remedy.</summary>
    /// <exception cref="InputException">No reason given, a reading missing, or a step that has its own bench.</exception>
    /// <exception cref="NotAllowedException">The step is allowed now: it is clicked on in the usual way.</exception>
    public static StepDone OutOfOrder(JobState state, ClickOn command, ToolBoard board)
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
        CheckReadings(state, type, command with { Acknowledged = [.. type.Cautions.Where(c => c.MustAcknowledge).Select(c => c.Id)] }, board);
        return new(command.Step, false, command.Readings, [], [], null, null, null, command.Note!.Trim(), Broken: why.Interlocks);
    }

    /// <summary>True when a step can be marked as done before its turn: it judges nothing, signs nothing and has no bench of its own.</summary>
    internal static bool CanBeMarked(StepType type) => type is { Torques: null, LeadOnly: false, ByChoice: not ByChoice.Only, Stage: not (Stage.Look or Stage.Record) } && type.Readings.All(r => r.Card().Optional || r is ReadingKind.TurnsMade or ReadingKind.Cycles or ReadingKind.PedalStrokes or ReadingKind.ClicksBack or ReadingKind.ClicksOut or ReadingKind.FluidDrawn or ReadingKind.BatteryVoltage or ReadingKind.ReservoirLevel)
        && StepBehaviour.Of(type.Id) is { CanBeMarked: true, HasItsOwnBench: false };

    /// <summary>Reports a finding.</summary>
    /// <exception cref="InputException">A finding that belongs to a corner without one, or the other way round.</exception>
    /// <exception cref="NotAllowedException">It cannot be found in this job as it stands.</exception>
    public static FindingReported Report(JobState state, FindingKind kind, Side? side, string? note)
    {
        RequireOpen(state, evenHandedOver: true);
        if (!Enum.IsDefined(kind)) throw new InputException(new InputError("kind", kind.ToString(), "a known finding", "That finding is not known."));
        var card = kind.Card();
        if (card.PerCorner != side is not null) throw new InputException(new InputError("side", side?.Word() ?? "none", card.PerCorner ? "left or right" : "none", $"{card.Name} belongs to {(card.PerCorner ? "a corner" : "the car")}."));
        if (note is { Length: > 500 }) throw new InputException(new InputError("note", Figure.Shorten(note), "at most 500 characters", "The note is longer than 500 characters."));
        if (card.NoteWanted is { } wanted && string.IsNullOrWhiteSpace(note)) throw new InputException(new InputError("note", "nothing", wanted, $"{card.Name}: say {wanted}. It stands in the record."));
        if (!FindingRules.At(state, side).Contains(card))
            throw new NotAllowedException("That changes nothing here.", ["It is known already, or this brake has no such part."], []);
        return new(kind, side, string.IsNullOrWhiteSpace(note) ? null : note.Trim());
    }

    private static void CheckReadings(JobState state, StepType type, ClickOn command, ToolBoard board)
    {
        var checks = new Checks();
        var wanted = type.ReadingsIn(state.Setup);
        var own = state.Own(board);
        foreach (var reading in command.Readings) ReadingRules.Check(checks, reading, own);
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
}

using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Jobs;

/// <summary>Steps undone, with what they take with them.</summary>
public static partial class JobRules
{
    /// <summary>Undoes an event: it was not done after all.</summary>
    /// <param name="state">The job.</param>
    /// <param name="target">The event.</param>
    /// <param name="reason">Why, at most 200 characters.</param>
    /// <param name="isLead">True where the lead does it.</param>
    /// <param name="technicianId">Who does it.</param>
    /// <param name="notDone">
    /// Which of the later steps that are asked about were not done either: the others were. Null where nobody was asked: then those that could not
    /// have been done without it go with it, and the others stay.
    /// </param>
    /// <exception cref="InputException">No such event, or one that cannot be undone.</exception>
    /// <exception cref="NotAllowedException">Somebody else's work, or a later step that could not have been done without it is said to have been done.</exception>
    public static PawlLifted Lift(JobState state, Guid target, string reason, bool isLead, Guid technicianId, IReadOnlyList<Guid>? notDone = null)
    {
        var undoing = Undo(state, target, isLead, technicianId, notDone ?? []);
        new Checks().Text("reason", reason, 200).ThrowIfAny();
        if (notDone is not null && undoing.Asked.Where(a => a.FallsWithIt && !notDone.Contains(a.EventId)).Select(a => a.Says).ToArray() is { Length: > 0 } without)
            throw new NotAllowedException("Then this was done too: there is nothing to undo.", [.. without.Select(w => $"{w} could not have been done without it.")], []);
        return new(target, undoing.Voided, reason.Trim(), undoing.Done);
    }

    /// <summary>What undoing an event would take with it, before it is undone.</summary>
    /// <exception cref="InputException">No such event, or one that cannot be undone.</exception>
    /// <exception cref="NotAllowedException">Somebody else's work.</exception>
    public static Undoing Undo(JobState state, Guid target, bool isLead, Guid technicianId, IReadOnlyList<Guid> notDone)
    {
        RequireOpen(state, evenHandedOver: true);
        var recorded = state.Log.FirstOrDefault(e => e.Id == target)
            ?? throw new InputException(new InputError("target", target.ToString(), "an event of this job", "There is no such step in this job."));
        if (state.Voided.Contains(target)) throw new NotAllowedException("That was undone already.", [], []);
        if (!recorded.Event.Card().CanBeUndone)
            throw new InputException(new InputError("target", recorded.Event.Card().Name(recorded.Event), "a finished step, a signature, a ruling or a stop sign", "That cannot be undone: it stays as it is."));
        if (!isLead && recorded.TechnicianId != technicianId)
            throw new NotAllowedException("Only the lead undoes what someone else did.", [$"{recorded.Technician} did this step."], []);
        var undoing = Undoing.Of(state, target, notDone);
        // Another's signature goes only by the lead's hand, also where it goes with something else.
        if (!isLead && state.Log.FirstOrDefault(e => undoing.Voided.Contains(e.Id) && e.Event is TorqueSigned && e.TechnicianId != technicianId) is { } theirs)
            throw new NotAllowedException("Only the lead undoes what someone else signed.", [$"{theirs.Event.Words()} goes with it, signed by {theirs.Technician}."], []);
        return undoing;
    }
}

using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;

namespace PatientPawl.Core.Jobs;

/// <summary>Steps undone, with what depended on them.</summary>
public static partial class JobRules
{
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
}

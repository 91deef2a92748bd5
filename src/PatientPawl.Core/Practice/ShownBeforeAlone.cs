using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Practice;

/// <summary>
/// The house rule <em>Shown before alone</em>: on a real car, a step that needs a competence is done by who has shown it in practice, by the
/// lead, or by somebody whom the lead has put beside another on this job.
/// </summary>
public static class ShownBeforeAlone
{
    /// <summary>The competence that a step needs; null where anybody may do it.</summary>
    public static Competence? Of(StepType type, PlanSetup setup)
    {
        ArgumentNullException.ThrowIfNull(type);
        ArgumentNullException.ThrowIfNull(setup);
        bool Concerns(Concern concern) => (type.Concerns & concern) != 0;
        return type switch
        {
            { Torques: not null } => Competence.Torque,
            _ when Concerns(Concern.Retracts) => Competence.Retract,
            _ when Concerns(Concern.ReleasesBrake | Concern.AppliesBrake) && setup.IsElectric =>
                Competence.Electric,
            _ when Concerns(Concern.Bleeds) => Competence.Fluid,
            _ when Concerns(Concern.HandsInHat) => Competence.Shoes,
            _ when Concerns(Concern.Pedal) => Competence.Prove,
            { Stage: Stage.Judge } => Competence.Measure,
            { Stage: Stage.Prove } => Competence.Prove,
            _ => null,
        };
    }

    /// <summary>What stands at a step while the rule asks; nothing where it asks nothing of it.</summary>
    internal static IEnumerable<string> Remarks(JobState state, StepType type)
    {
        if (Asks(state) && Of(type, state.Setup) is { } needed)
            yield return $"Alone only by who has shown in practice: {Phrase.Small(needed.Words())}.";
    }

    /// <summary>True while the rule asks anything on a job.</summary>
    public static bool Asks(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        return state.Opened is { Practice: null, Rules.ShownBeforeAlone: ShownRule.Asked };
    }

    /// <summary>People whom the lead has put beside another on a job.</summary>
    public static IReadOnlyList<WorksBeside> Beside(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        return [.. state.Log.Select(e => e.Event).OfType<WorksBeside>()];
    }

    /// <summary>Refuses work by somebody who has not shown what it needs and is beside nobody.</summary>
    /// <param name="state">The job.</param>
    /// <param name="work">What was done.</param>
    /// <param name="who">Who did it.</param>
    /// <param name="isLead">True for a lead.</param>
    /// <param name="shown">What they have shown; asked only where it matters.</param>
    /// <exception cref="NotAllowedException">They have not shown it.</exception>
    public static void Require(JobState state, JobEvent work, Guid who, bool isLead, Func<IReadOnlyList<CompetenceCard>> shown)
    {
        ArgumentNullException.ThrowIfNull(state);
        ArgumentNullException.ThrowIfNull(shown);
        var step = work switch
        {
            StepDone done => done.Step,
            TorqueSigned signed => signed.Step,
            RoutineAsked asked => asked.Step,
            _ => null,
        };
        if (isLead || step is null || !Asks(state) || StepCatalogue.Find(step.StepId) is not { } type) return;
        if (Of(type, state.Setup) is not { } needed || Beside(state).Any(b => b.TechnicianId == who)) return;
        if (shown().Any(c => c.Competence == needed && c.IsShown)) return;
        throw new NotAllowedException(
            $"Not alone yet: “{Phrase.Small(needed.Words())}” is not shown in practice.",
            ["Show it in two scenarios alone, or have the lead put you beside somebody, on the plan."], []);
    }

    /// <summary>Puts somebody beside another on a job.</summary>
    /// <exception cref="NotAllowedException">Only a lead does; the rule asks nothing here; or they are beside somebody already.</exception>
    public static WorksBeside Put(JobState state, Guid technicianId, string name, bool isLead)
    {
        ArgumentNullException.ThrowIfNull(state);
        JobRules.RequireOpen(state);
        if (!isLead) throw new NotAllowedException("Only the lead says who works beside whom.", ["Ask the lead."], []);
        if (!Asks(state)) throw new NotAllowedException("Nobody is asked for what they have shown on this job.", [], []);
        return Beside(state).All(b => b.TechnicianId != technicianId) ? new(technicianId, name)
            : throw new NotAllowedException($"{name} works beside somebody already.", [], []);
    }
}

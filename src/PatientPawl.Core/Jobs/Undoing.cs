using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Jobs;

/// <summary>A later step that is asked about when an earlier one is undone: was it done?</summary>
/// <param name="EventId">Its event.</param>
/// <param name="Says">What it was, with its corner.</param>
/// <param name="FallsWithIt">True where it could not have been done without the one that is undone: if it was done, so was that one.</param>
public sealed record UndoneBeside(Guid EventId, string Says, bool FallsWithIt);

/// <summary>
/// What undoing an event takes with it. The job is replayed without it; only later steps whose needs then fail are touched. One that was done
/// keeps what it did to the metal and loses what it proved; one that was not done is gone; and a car does not go back onto stands that it has
/// left.
/// </summary>
/// <param name="Target">The event.</param>
/// <param name="Voided">It, and what is gone with it.</param>
/// <param name="Done">Later steps that were done all the same: their proofs are gone.</param>
/// <param name="Asked">What is asked about, in order.</param>
public sealed record Undoing(Guid Target, IReadOnlyList<Guid> Voided, IReadOnlyList<Guid> Done, IReadOnlyList<UndoneBeside> Asked)
{
    /// <summary>What undoing an event would take with it.</summary>
    /// <param name="state">The job.</param>
    /// <param name="target">The event to undo.</param>
    /// <param name="notDone">Later steps that were not done either.</param>
    internal static Undoing Of(JobState state, Guid target, IReadOnlyCollection<Guid> notDone)
    {
        List<Guid> voided = [target], done = [];
        List<UndoneBeside> asked = [];
        HashSet<int> moved = [.. Placed(state, state.Log.First(e => e.Id == target).Event)];
        var standing = state.Standing.Where(e => e.Event is not PawlLifted).ToList();
        var replay = state.Before(standing.TakeWhile(e => e.Id != target));
        foreach (var e in standing.SkipWhile(e => e.Id != target).Skip(1))
        {
            // Done before its turn it depends on nothing; what is no step goes on as it was.
            if (e.Event is StepDone { Broken: not null } || StepOf(e.Event) is not { } step || Planner.Why(replay.Setup, replay.Car, step).Allowed)
            {
                replay = replay.With(e);
                continue;
            }

            var bound = CompiledCatalogue.For(replay.Setup).Find(step);
            var falls = bound is null || FallsWith(replay, bound, moved);
            if (bound is null || bound.Type.EndsTheJob || !LeavesSomething(bound)) voided.Add(e.Id);
            else
            {
                // What the car has come down from stays below it.
                var certain = bound.Makes.Any(m => m == (Car.Position.Slot(null), StateVariable<CarPosition>.Byte(CarPosition.Ground)));
                if (!certain) asked.Add(new(e.Id, e.Event.Words(), falls));
                if (!certain && (falls || notDone.Contains(e.Id)))
                {
                    voided.Add(e.Id);
                    moved.UnionWith(Placed(replay, e.Event));
                }
                else
                {
                    done.Add(e.Id);
                    replay = replay.With(e, kept: true);
                }
            }
        }

        return new(target, voided, done, asked);
    }

    /// <summary>The step that an event clicks on; null where it clicks none.</summary>
    internal static StepKey? StepOf(JobEvent e) => e switch
    {
        StepDone s => s.Step,
        TorqueSigned t => t.Step,
        StopSignSeen s => new("piston-home", s.Side),
        RouteChosen => new("choose-route", null),
        _ => null,
    };

    // It starts from where the undone one had brought a part; or it is work on a raised car that was never raised.
    private static bool FallsWith(JobState replay, BoundStep bound, HashSet<int> moved)
    {
        var catalogue = CompiledCatalogue.For(replay.Setup);
        bool Lacks(BoundCondition need, Func<int, bool> slot) => !need.Holds(replay.Car.Raw) && need.AnyOf.All(a => a.Any(r => (r.Mask & 1u << replay.Car[r.Slot]) == 0 && slot(r.Slot)));
        var raised = Car.Position.Slot(null);
        return Array.Exists(bound.Needs, n => Lacks(n, slot => moved.Contains(slot) && (slot == raised || Array.Exists(bound.Makes, m => m.Slot == slot)
            || (n.Interlock is null && HoldsIn(catalogue, bound, slot)))));
    }

    // A fastener is tightened in the part that it holds: without the part there is nothing to tighten.
    private static bool HoldsIn(CompiledCatalogue catalogue, BoundStep bound, int slot) => bound.Makes.Any(m => StateLayout.At(m.Slot).Variable.Kind == VariableKind.Fastening
        && Array.Exists(catalogue.Proofs, p => p.Slot == m.Slot && Array.Exists(p.While, w => w.Slot == slot)));

    private static bool LeavesSomething(BoundStep bound) => Array.Exists(bound.Makes, m => StateLayout.At(m.Slot).Variable.Kind != VariableKind.Proof);

    private static IEnumerable<int> Placed(JobState state, JobEvent e) => StepOf(e) is { } step
        ? Planner.Written(state.Setup, step).Where(slot => StateLayout.At(slot).Variable.Kind == VariableKind.Placement) : [];
}

using PatientPawl.Core.Reasoning;

namespace PatientPawl.Core.Planning;

/// <summary>A step given to a person.</summary>
/// <param name="Step">The step.</param>
/// <param name="Person">Who, from 1.</param>
/// <param name="Start">Minutes from now.</param>
/// <param name="End">Minutes from now.</param>
public sealed record Assignment(StepKey Step, int Person, int Start, int End);

/// <summary>A person who waits.</summary>
/// <param name="Person">Who, from 1.</param>
/// <param name="Start">Minutes from now.</param>
/// <param name="End">Minutes from now.</param>
/// <param name="For">What for, in words.</param>
public sealed record Waiting(int Person, int Start, int End, string For);

/// <summary>Who does what and when.</summary>
/// <param name="People">How many, 1 or 2.</param>
/// <param name="Assignments">In order of start.</param>
/// <param name="Waits">Who waits for what.</param>
/// <param name="Minutes">When the last step ends, from now.</param>
/// <param name="LowerBound">No schedule ends sooner than this.</param>
/// <param name="BoundBy">What makes the lower bound, in words.</param>
/// <param name="Reasons">The reasoning.</param>
public sealed record Schedule(int People, IReadOnlyList<Assignment> Assignments, IReadOnlyList<Waiting> Waits, int Minutes, int LowerBound, string BoundBy, Reasons Reasons) : IReasoned;

/// <summary>
/// Gives the remaining steps to one or two people: whoever is free takes the allowed step with the longest tail. One person at a corner, in the
/// cabin and under the bonnet; one retraction tool, one scan tool; nobody has a hand in a brake while the mechanism or the pedal moves, and
/// nobody works at the car while it is lifted, lowered or driven.
/// </summary>
[Engine]
public static class Scheduling
{
    private static readonly string[] SingleTools = ["retraction tool", "scan tool"];
    private const Concern HandsOut = Concern.AppliesBrake | Concern.ReleasesBrake | Concern.LeavesService | Concern.Pedal | Concern.Lifts | Concern.Lowers | Concern.MovesCar | Concern.WakesCar | Concern.LeavesPark | Concern.Bleeds | Concern.HandsOut;

    /// <summary>The schedule for the steps of a plan.</summary>
    /// <exception cref="InputException">People outside 1 to 2.</exception>
    public static Schedule Make(PlanSetup setup, CarState state, IReadOnlyList<StepKey> remaining, int people, StepTimes? times = null)
    {
        ArgumentNullException.ThrowIfNull(setup);
        ArgumentNullException.ThrowIfNull(state);
        ArgumentNullException.ThrowIfNull(remaining);
        new Checks().Range("people", people, 1, 2, "technicians").ThrowIfAny();
        var take = times ?? StepTimes.Usual;
        var catalogue = CompiledCatalogue.For(setup);
        var left = remaining.Select(catalogue.Find).OfType<BoundStep>().ToList();
        var goal = Planner.ReachedBy(state, left);
        var tails = Tails(state, left, take);
        var (bound, boundBy) = Bound(state, left, people, take);

        List<Assignment> done = [];
        List<Waiting> waits = [];
        List<(BoundStep Step, int Person, int End)> running = [];
        var now = 0;
        while (left.Count > 0 || running.Count > 0)
        {
            for (var given = true; given;)
            {
                given = false;
                for (var person = 1; person <= people; person++)
                {
                    if (running.Any(r => r.Person == person)) continue;
                    var next = left.Distinct().OrderByDescending(s => tails[s]).ThenBy(s => left.IndexOf(s)).FirstOrDefault(s => Fits(state, now, take, running, left, s, goal));
                    if (next is null) continue;
                    left.Remove(next);
                    running.Add((next, person, now + take.Minutes(next.Type)));
                    done.Add(new(next.Key, person, now, now + take.Minutes(next.Type)));
                    given = true;
                }
            }

            if (running.Count == 0) throw new InvalidOperationException("Nobody can go on.");
            var end = running.Min(r => r.End);
            for (var person = 1; person <= people; person++)
            {
                if (running.Any(r => r.Person == person)) continue;
                var what = $"{Say(running[0].Step.Key)}{(left.Count > 0 ? "" : ", and nothing else is left")}";
                // One wait is one line, whatever the other does meanwhile.
                if (waits.LastOrDefault(w => w.Person == person) is { } w && w.End == now) waits[waits.IndexOf(w)] = w with { End = end, For = what };
                else waits.Add(new(person, now, end, what));
            }

            now = end;
            foreach (var r in running.Where(r => r.End == now).OrderBy(r => r.Person).ToArray())
            {
                state = r.Step.Do(state);
                running.Remove(r);
            }
        }

        var trail = new Trail("Scheduling.Make");
        trail.Formula("Lower bound", boundBy, $"{bound} min", $"{bound} min", "practice-people");
        foreach (var w in waits.Where(w => w.End - w.Start >= 5)) trail.Evidence($"Technician {w.Person} waits {w.End - w.Start} min", w.For, "practice-people");
        trail.Conclude($"{people} {(people == 1 ? "technician" : "technicians")}: {now} minutes; nothing ends before {bound}.").WouldChange("Another retraction tool, editable minutes, or a step done out of order.");
        return new(people, done, waits, now, bound, boundBy, trail.Done());
    }

    // Allowed now and after whatever is under way has ended, without taking away what is under way, and with every one of the rest still to be done.
    private static bool Fits(CarState state, int now, StepTimes take, List<(BoundStep Step, int Person, int End)> running, List<BoundStep> left, BoundStep step, IReadOnlyList<BoundCondition> goal)
    {
        if (!step.Allowed(state.Raw)) return false;
        foreach (var (other, _, _) in running)
        {
            if (Clash(step, other)) return false;
            if (!other.Allowed(step.Do(state).Raw)) return false;
        }

        // What ends first is done first: a look that ends before the other's work does is no look at that work.
        var after = state;
        foreach (var ended in running.Append((Step: step, Person: 0, End: now + take.Minutes(step.Type))).OrderBy(r => r.End).ThenBy(r => r.Person).Select(r => r.Step))
        {
            if (!ended.Allowed(after.Raw)) return false;
            after = ended.Do(after);
        }

        List<BoundStep> rest = [.. left];
        rest.Remove(step);
        var count = rest.Count;
        return Planner.Finish(after, rest, goal) is { } order && order.Count == count;
    }

    private static bool Clash(BoundStep a, BoundStep b)
    {
        // One axle: who turns a hub turns the other, where somebody's hands may be.
        if (((a.Type.Concerns | b.Type.Concerns) & Concern.TurnsHub) != 0 && a.Type is { Lane: Lane.Corner, Place: Place.Corner } && b.Type is { Lane: Lane.Corner, Place: Place.Corner }) return true;
        if (AtTheCar(a) && (b.Type.AllConcerns & HandsOut) != 0 || AtTheCar(b) && (a.Type.AllConcerns & HandsOut) != 0) return true;
        if (a.Type.Place != Place.Bench && Walking.PlaceOf(a) == Walking.PlaceOf(b)) return true;
        return a.Tools.Any(t => SingleTools.Contains(t) && b.Tools.Contains(t));
    }

    private static bool AtTheCar(BoundStep step) => step.Type.Place is Place.Corner or Place.RoundCar || (step.Type.Concerns & (Concern.Lifts | Concern.Lowers | Concern.MovesCar)) != 0;

    /// <summary>The longest chain of steps that must follow each step, its own minutes included.</summary>
    private static Dictionary<BoundStep, int> Tails(CarState state, List<BoundStep> steps, StepTimes take)
    {
        var after = MustFollow(state, steps);
        Dictionary<BoundStep, int> tails = [];
        int Tail(BoundStep s)
        {
            if (tails.TryGetValue(s, out var known)) return known;
            // A step that stands twice in the plan could follow itself: its own minutes end the chain.
            tails[s] = take.Minutes(s.Type);
            return tails[s] = take.Minutes(s.Type) + (after.TryGetValue(s, out var next) && next.Count > 0 ? next.Max(Tail) : 0);
        }

        foreach (var s in steps) Tail(s);
        return tails;
    }

    /// <summary>What must come after each step whatever the order: steps that need what only it makes, or whose need it takes away for good.</summary>
    private static Dictionary<BoundStep, List<BoundStep>> MustFollow(CarState state, List<BoundStep> steps)
    {
        Dictionary<BoundStep, List<BoundStep>> after = [];
        var all = steps.Distinct().Where(s => steps.Count(x => x == s) == 1).ToArray();
        foreach (var b in all)
        {
            foreach (var need in b.Needs.Where(n => n.AnyOf.Length == 1).SelectMany(n => n.AnyOf[0]))
            {
                var holdsNow = (need.Mask & 1u << state[need.Slot]) != 0;
                var makers = steps.Where(s => s != b && s.Makes.Any(m => m.Slot == need.Slot && (need.Mask & 1u << m.Value) != 0)).ToArray();
                if (!holdsNow && makers.Length == 1 && all.Contains(makers[0])) Add(makers[0], b);
                if (!holdsNow || makers.Length > 0) continue;
                foreach (var breaker in all.Where(s => s != b && s.Makes.Any(m => m.Slot == need.Slot && (need.Mask & 1u << m.Value) == 0))) Add(b, breaker);
            }
        }

        return after;

        void Add(BoundStep first, BoundStep then)
        {
            if (!after.TryGetValue(first, out var list)) after[first] = list = [];
            if (!list.Contains(then)) list.Add(then);
        }
    }

    private static (int Minutes, string By) Bound(CarState state, List<BoundStep> steps, int people, StepTimes take)
    {
        var total = steps.Sum(s => take.Minutes(s.Type));
        var tails = Tails(state, steps, take);
        var alone = steps.Where(s => (s.Type.Concerns & HandsOut) != 0).Sum(s => take.Minutes(s.Type));
        var atCar = steps.Where(s => (s.Type.Concerns & HandsOut) == 0 && AtTheCar(s)).ToArray();
        int At(int place) => atCar.Where(s => Walking.PlaceOf(s) == place).Sum(s => take.Minutes(s.Type));
        (int, string)[] bounds =
        [
            ((total + people - 1) / people, $"{total} min of work shared by {people}"),
            (tails.Count == 0 ? 0 : tails.Values.Max(), "the longest chain of steps that wait for one another"),
            (alone + (atCar.Sum(s => take.Minutes(s.Type)) + people - 1) / people, $"{alone} min with hands out of the brakes, and the work at the car between them"),
            (alone + Math.Max(At(0), At(1)), $"{alone} min with hands out of the brakes, and one person at a corner"),
        ];
        return bounds.MaxBy(b => b.Item1);
    }

    private static string Say(StepKey key) => StepCatalogue.Words(key).ToLowerInvariant();
}

using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>A person who takes any offered step, chosen by seed, and meets surprises.</summary>
internal sealed class Walk(PlanSetup setup, int seed)
{
    // Many walks start at the same car.
    private static readonly System.Collections.Concurrent.ConcurrentDictionary<PlanSetup, Plan> First = new(ReferenceEqualityComparer.Instance as IEqualityComparer<PlanSetup>);
    private readonly Random _random = new(seed);

    public CarState State { get; private set; } = setup.Start();
    public List<StepKey> Done { get; } = [];
    public IReadOnlyList<string> CannotBeMet { get; private set; } = [];

    /// <summary>The setup as it stands now.</summary>
    public PlanSetup Setup { get; private set; } = setup;

    /// <summary>A finding on the way: another setup, or null for none.</summary>
    public Func<PlanSetup, CarState, PlanSetup?>? Change { get; set; }

    public void ToTheEnd(Action<CarState, StepKey, CarState>? watch = null, double surprise = 0.2)
    {
        var plan = First.GetOrAdd(Setup, static s => Planner.Make(s, s.Start()));
        CannotBeMet = plan.CannotBeMet;
        var remaining = plan.Steps;
        while (remaining.Count > 0)
        {
            Done.Count.ShouldBeLessThan(400, "the walk goes round");
            // Any of the offered ones, chosen without asking after all of them: a shuffled remaining set, and the first that is offered.
            var shuffled = remaining.Distinct().ToArray();
            _random.Shuffle(shuffled);
            StepKey? step = null;
            List<StepKey>? rest = null;
            foreach (var candidate in shuffled)
            {
                if (!CompiledCatalogue.For(Setup).Find(candidate)!.Allowed(State.Raw) || (rest = Planner.After(Setup, State, remaining, candidate)) is null) continue;
                step = candidate;
                break;
            }

            if (step is null) throw new ShouldAssertException($"dead end after {string.Join(" > ", Done)}; left {string.Join(" > ", remaining)}");
            var type = StepCatalogue.Find(step.StepId)!;
            var otherwise = type.Otherwise.Count > 0 && _random.NextDouble() < surprise;
            var before = State;
            State = Planner.Apply(Setup, State, step, otherwise);
            Done.Add(step);
            watch?.Invoke(before, step, State);
            if (Change?.Invoke(Setup, State) is { } changed)
            {
                State = changed.Onto(State, Setup);
                Setup = changed;
                remaining = Planner.Make(Setup, State).Steps;
                continue;
            }

            remaining = otherwise ? Planner.Make(Setup, State).Steps : rest!;
        }
    }

    public static IEnumerable<PlanSetup> EverySetup()
    {
        (Architecture A, JobScope S, ServiceRoute? R)[] jobs =
        [
            (Architecture.CableScrew, JobScope.Pads, null), (Architecture.CableScrew, JobScope.PadsAndRotors, null), (Architecture.LeverPush, JobScope.Pads, null),
            (Architecture.MotorPush, JobScope.Pads, ServiceRoute.ScanTool), (Architecture.MotorPush, JobScope.PadsAndRotors, ServiceRoute.ScanTool),
            (Architecture.MotorPush, JobScope.Pads, ServiceRoute.SpindleByHand), (Architecture.MotorPush, JobScope.PadsAndRotors, ServiceRoute.SpindleByHand),
            (Architecture.MotorTurn, JobScope.Pads, ServiceRoute.ScanTool), (Architecture.HatShoes, JobScope.Pads, null),
            (Architecture.HatShoes, JobScope.PadsAndRotors, null), (Architecture.HatShoes, JobScope.Shoes, null),
        ];
        foreach (var (a, s, r) in jobs)
            foreach (var holding in Enum.GetValues<HoldingRule>())
                foreach (var sides in Enum.GetValues<SidesRule>())
                    foreach (var screws in new[] { true, false })
                        foreach (var ground in new[] { false, true })
                            yield return PlanSetup.For(a, s, r) with
                            {
                                Rules = HouseRules.Default with { Holding = holding, Sides = sides },
                                RotorHasScrews = screws,
                                ServiceOnGround = ground,
                                SingleUse = screws ? [Core.Torque.FastenerRole.Bracket, Core.Torque.FastenerRole.SlidePin] : [],
                                Left = new(a, a == Architecture.MotorTurn),
                            };
    }
}

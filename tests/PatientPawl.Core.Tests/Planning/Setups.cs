using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>Every kind of job that can be opened.</summary>
internal static class Setups
{
    private static readonly Architecture[] Covered = [.. Enum.GetValues<Architecture>().Where(a => a != Architecture.ElectricOnly)];

    /// <summary>As many at once as there are processors: left to itself, a loop over long walks begins another one every half second.</summary>
    public static ParallelOptions Processors { get; } = new() { MaxDegreeOfParallelism = Environment.ProcessorCount };

    /// <summary>The house rules that change the plan, each with its two schools.</summary>
    public static IReadOnlyList<HouseRuleCard> PlanRules { get; } = [.. HouseRuleCatalogue.All.Where(r => r.ChangesPlan)];

    /// <summary>Settings of the rules that change the plan, such that every pair of settings of any two rules is among them.</summary>
    public static IReadOnlyList<HouseRules> Pairs { get; } = PairsOf(PlanRules);

    /// <summary>
    /// Architecture by scope by new calipers by route by the pairs of house rules; the other circumstances vary along. The usual run takes every
    /// third setting for each kind of job, in turn, and PAWL_LONG=1 all of them.
    /// </summary>
    public static IEnumerable<PlanSetup> Everything()
    {
        var all = Environment.GetEnvironmentVariable("PAWL_LONG") == "1";
        var n = 0;
        foreach (var (setup, kind) in Kinds())
            for (var i = 0; i < Pairs.Count; i++, n++)
                if (all || (i + kind) % 3 == 0) yield return Vary(setup with { Rules = Pairs[i] }, n);
    }

    /// <summary>A spread of them for long walks: every kind of job, one setting of the rules each, in turn.</summary>
    public static IReadOnlyList<PlanSetup> Spread { get; } = [.. Kinds().Select((k, n) => Vary(k.Setup with { Rules = Pairs[n % Pairs.Count] }, n))];

    /// <summary>The spread with the plan of each from its start, made once for all who ask what holds in every plan.</summary>
    public static IReadOnlyList<(PlanSetup Setup, Plan Plan)> Planned => PlannedOnce.Value;

    private static readonly Lazy<IReadOnlyList<(PlanSetup, Plan)>> PlannedOnce =
        new(() => [.. Spread.AsParallel().AsOrdered().WithDegreeOfParallelism(Environment.ProcessorCount).Select(s => (s, Planner.Make(s, s.Start())))]);

    private static IEnumerable<(PlanSetup Setup, int Kind)> Kinds()
    {
        var kind = 0;
        foreach (var architecture in Covered)
            foreach (var scope in Enum.GetValues<JobScope>())
                foreach (var (left, right) in new[] { (false, false), (true, false), (false, true), (true, true) })
                {
                    var setup = PlanSetup.For(architecture, scope) with { SheetElectric = kind % 2 == 0 };
                    setup = setup.With(Side.Left, c => c with { CaliperNew = left }).With(Side.Right, c => c with { CaliperNew = right });
                    if (setup.NotCovered is not null) continue;
                    // How it is built and worked takes turns where the architecture leaves it open.
                    var (opposed, worked) = (kind % 3 == 1 && architecture is Architecture.HatShoes or Architecture.PullerHat or Architecture.MotorHat or Architecture.SpotCaliper or Architecture.Plain,
                        architecture is Architecture.FixedHat or Architecture.SpotCaliper ? new Actuation?[] { null, Actuation.Cable, Actuation.Puller, Actuation.PlateMotor, Actuation.CaliperMotor }[kind % 5] : null);
                    setup = setup.With(Side.Left, c => c with { Opposed = opposed, Worked = worked }).With(Side.Right, c => c with { Opposed = opposed, Worked = worked });
                    foreach (var route in setup.NeedsRoute ? setup.Routes.Select(r => (ServiceRoute?)r) : [null])
                        yield return (setup with { Route = route }, kind++);
                }
    }

    // Circumstances that are not crossed with everything: they take turns, so that each meets many of the others.
    private static PlanSetup Vary(PlanSetup setup, int n) => setup with
    {
        RotorHasScrews = n % 3 != 0,
        RotorComesOffWithBracketOn = n % 5 == 0,
        ServiceOnGround = n % 7 == 0,
        SimulatedPedal = n % 11 == 0,
        SingleUse = n % 4 == 0 ? [FastenerRole.Bracket, FastenerRole.SlidePin] : [],
        Fittings = n % 2 == 0 ? Enum.GetValues<Fitting>() : [],
        Left = setup.Left with { MethodUndecided = setup.Left.Architecture == Architecture.MotorTurn },
    };

    /// <summary>Settings such that every pair of settings of any two of these rules is among them.</summary>
    public static IReadOnlyList<HouseRules> PairsOf(IReadOnlyList<HouseRuleCard> rules)
    {
        // Greedy covering array: take the setting that covers most pairs not yet seen, until all are. Where there are too many settings to
        // look at, the best of some drawn by a fixed seed, each with one pair that is still wanted.
        HashSet<(int, int, int, int)> open = [];
        for (var a = 0; a < rules.Count; a++)
            for (var b = a + 1; b < rules.Count; b++)
                for (var s = 0; s < rules[a].Schools.Count; s++)
                    for (var t = 0; t < rules[b].Schools.Count; t++) open.Add((a, s, b, t));
        var settings = rules.Aggregate(1L, (n, r) => n * r.Schools.Count);
        var all = settings <= 10_000 ? Enumerable.Range(0, (int)settings).Select(Setting).ToArray() : null;
        var random = new Random(18);
        List<HouseRules> chosen = [];
        while (open.Count > 0)
        {
            var best = (all ?? Drawn()).MaxBy(setting => Covers(setting).Count(open.Contains))!;
            foreach (var pair in Covers(best)) open.Remove(pair);
            chosen.Add(Enumerable.Range(0, rules.Count).Aggregate(HouseRules.Default, (r, i) => rules[i].Choose(r, best[i])));
        }

        return chosen;

        int[][] Drawn() => [.. Enumerable.Range(0, 100).Select(_ =>
        {
            int[] setting = [.. rules.Select(r => random.Next(r.Schools.Count))];
            var (a, s, b, t) = open.First();
            (setting[a], setting[b]) = (s, t);
            return setting;
        })];

        int[] Setting(int n) => [.. rules.Select(r => { var school = n % r.Schools.Count; n /= r.Schools.Count; return school; })];

        IEnumerable<(int, int, int, int)> Covers(int[] setting)
        {
            for (var a = 0; a < rules.Count; a++)
                for (var b = a + 1; b < rules.Count; b++) yield return (a, setting[a], b, setting[b]);
        }
    }
}

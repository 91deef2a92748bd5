using System.Diagnostics;
using PatientPawl.Core;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;

namespace PatientPawl.Bench;

/// <summary>How long a new plan takes midway: as the job goes, after each finding, and toward each goal.</summary>
internal static class Replanning
{
    public static void Run()
    {
        List<double> all = [];
        var (worst, where) = (0.0, "");
        foreach (var warm in new[] { true, false })
        {
            foreach (var architecture in Enum.GetValues<Architecture>())
                foreach (var scope in Enum.GetValues<JobScope>())
                {
                    var bare = PlanSetup.For(architecture, scope);
                    if (bare.NotCovered is not null) continue;
                    var setup = bare with { Route = bare.NeedsRoute ? bare.Routes[0] : null, SheetElectric = bare.NeedsRoute };
                    var state = setup.Start();
                    foreach (var (step, i) in Planner.Make(setup, state).Steps.Select((s, i) => (s, i)))
                    {
                        if (i % 4 == 0)
                            foreach (var (what, changed) in Changes(setup))
                            {
                                var clock = Stopwatch.StartNew();
                                Planner.Make(changed, state);
                                if (warm) continue;
                                all.Add(clock.Elapsed.TotalMilliseconds);
                                if (all[^1] > worst) (worst, where) = (all[^1], $"{architecture}, {scope}, before {step}, {what}");
                            }

                        state = Planner.Apply(setup, state, step, null);
                    }

                    if (warm) break;
                }
        }

        all.Sort();
        Console.WriteLine($"{all.Count} plans: median {all[all.Count / 2]:F1} ms, 99th of a hundred {all[(int)(all.Count * 0.99)]:F1} ms, worst {worst:F1} ms ({where})");
    }

    private static IEnumerable<(string, PlanSetup)> Changes(PlanSetup setup)
    {
        yield return ("as it goes", setup);
        yield return ("a left caliper to renew", setup with { Left = setup.Left with { CaliperNew = true } });
        yield return ("a rotor that is not fit", setup with { RotorFound = true });
        foreach (var goal in Enum.GetValues<JobGoal>().Where(g => g != JobGoal.Finish)) yield return (goal.Words(), setup with { Goal = goal });
    }
}

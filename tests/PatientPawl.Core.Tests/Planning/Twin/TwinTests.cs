using System.Collections.Concurrent;
using System.Globalization;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using Xunit.Abstractions;

namespace PatientPawl.Core.Tests.Planning.Twin;

/// <summary>Walks through every kind of job at a physical twin of the car, with every kind of surprise: nobody is hurt, and every walk ends.</summary>
public class TwinTests(ITestOutputHelper output)
{
    // The usual run walks each setup once, by a seed that is the commit's: other walks after every change, the same ones for the same commit.
    // PAWL_SEEDS walks each as often as is asked; as 13-26 it walks only those seeds, so that a long run can be made in parts.
    private static readonly int Commit = int.TryParse(Environment.GetEnvironmentVariable("PAWL_COMMIT") ?? "", NumberStyles.HexNumber, CultureInfo.InvariantCulture, out var hash) ? hash % 1_000_000 + 2 : 2;

    private static readonly (int From, int To) Seeds = Environment.GetEnvironmentVariable("PAWL_SEEDS")?.Split('-') switch
    {
        [var from, var to] => (int.Parse(from, CultureInfo.InvariantCulture), int.Parse(to, CultureInfo.InvariantCulture)),
        [var to] when int.TryParse(to, out var asked) => (0, Math.Max(asked, 10)),
        _ => (Commit, Commit + 1),
    };

    [Fact]
    public void Whatever_is_found_lifted_half_done_or_done_out_of_order_nobody_is_hurt_and_every_job_ends()
    {
        var (walks, steps, met) = (0, 0, 0);
        var chances = new int[Monitors.All.Count];
        ConcurrentBag<string> wrong = [];
        var setups = Setups.Spread;
        Parallel.For(0, setups.Count, Setups.Processors, n =>
        {
            Dictionary<CarState, Plan> beginnings = [];
            for (var seed = Seeds.From; seed < Seeds.To; seed++)
            {
                var walk = new TwinWalk(setups[n], seed * 7919 + n, seed == 0 ? Surprises.None : seed == 1 ? Surprises.Outcomes : Surprises.All) { Beginnings = beginnings };
                walk.ToTheEnd();
                Interlocked.Increment(ref walks);
                Interlocked.Add(ref steps, walk.Steps);
                Interlocked.Add(ref met, walk.Met);
                for (var i = 0; i < chances.Length; i++) Interlocked.Add(ref chances[i], walk.Chances[i]);
                if (walk.Harms.Count > 0) wrong.Add($"{string.Join("; ", walk.Harms)}\n  seed {seed}, setup {n}: {Short(setups[n])}\n  after {string.Join(" > ", walk.Trail.TakeLast(60))}");
            }
        });
        output.WriteLine($"{walks} walks over {setups.Count} setups, {steps} steps, {met} surprises, seeds {Seeds.From} to {Seeds.To - 1}; {Monitors.All.Count} monitors");
        for (var i = 0; i < chances.Length; i++) output.WriteLine($"{chances[i],8}  {Monitors.All[i].Name}");
        output.WriteLine(string.Join("\n", wrong.GroupBy(w => w.Split('\n')[0].Replace(", left", "", StringComparison.Ordinal).Replace(", right", "", StringComparison.Ordinal)).OrderByDescending(g => g.Count()).Take(40).Select(g => $"{g.Count(),6} {g.Key}")));
        wrong.OrderBy(w => w.StartsWith("no way", StringComparison.Ordinal) ? 0 : w.Length).DistinctBy(w => w.Split('\n')[0]).Take(4).ShouldBeEmpty($"{wrong.Count} of {walks}");
        Monitors.All.Count.ShouldBeGreaterThanOrEqualTo(80);
        if (Seeds.To - Seeds.From >= 10) chances.ShouldAllBe(c => c >= 100);
    }

    [Fact]
    public void A_wrong_part_found_with_everything_fitted_and_driven_leads_on()
    {
        foreach (var (setup, plan) in Setups.Planned.Where((p, n) => n % 4 == 0 && p.Setup is { Identified: true, InspectOnly: false }))
        {
            var driven = plan.Steps.TakeWhile(k => k.StepId != "handed-over").Aggregate(setup.Start(), (s, k) => Planner.Apply(setup, s, k, null));
            var found = Planner.Moved(setup, driven, FindingRules.Onto(setup, driven, FindingKind.WrongPart, null));
            Planner.Make(setup, found).CannotBeMet.ShouldBeEmpty(Short(setup));
        }
    }

    [Fact]
    public void Every_monitor_fires_on_a_planted_fault()
    {
        // Every step is come to on cars of which some things are otherwise than they are, and every monitor gets its chance to see it.
        var fired = new bool[Monitors.All.Count];
        var random = new Random(5);
        (PlanSetup Setup, StepKey Step)[] at =
        [
            .. from setup in Setups.Spread.Where((s, i) => i % 5 == 1 || s.IsSpot && s.IsElectric)
               from step in CompiledCatalogue.For(setup).Steps.Concat(CompiledCatalogue.For(setup).OnlyByChoice)
               where Acts.Has(step.Key.StepId)
               select (setup, step.Key),
        ];
        // Some need several things wrong at once: again, until none is left.
        for (var round = 0; round < 240 && fired.Contains(false); round++)
        {
            foreach (var (setup, step) in at)
            {
                var (car, doing) = (Spoilt(setup, random), Acts.Of(step.StepId));
                for (var i = 0; i < fired.Length; i++)
                    fired[i] = fired[i] || (Monitors.All[i].Chance(car, step, doing) && Monitors.All[i].Harm(car, car.At(step.Side ?? Side.Left), step));
            }
        }

        Monitors.All.Where((_, i) => !fired[i]).Select(m => m.Name).ShouldBeEmpty();
    }

    private static readonly System.Reflection.FieldInfo[] OfCar = [.. typeof(PhysicalCar).GetFields().Where(f => f.FieldType == typeof(bool) || f.FieldType == typeof(int))];
    private static readonly System.Reflection.FieldInfo[] OfCorner = [.. typeof(PhysicalCorner).GetFields().Where(f => f.FieldType == typeof(bool) || f.FieldType == typeof(Nut))];

    /// <summary>A car with up to five things planted that are not as they should be.</summary>
    private static PhysicalCar Spoilt(PlanSetup setup, Random random)
    {
        var car = PhysicalCar.For(setup);
        for (var faults = random.Next(1, 6); faults > 0; faults--)
        {
            var corner = random.Next(2) == 0 ? car.Left : car.Right;
            if (random.Next(6) == 0) (car.OnStands, car.Applied, car.Touched, car.Mechanism) = (true, false, 2, 1);
            if (random.Next(6) == 0) car.LeftOpen.Add(random.Next(2) == 0 ? "slide-pins Left" : "wear-sensor Right");
            if (random.Next(2) == 0) Plant(OfCorner[random.Next(OfCorner.Length)], corner);
            else Plant(OfCar[random.Next(OfCar.Length)], car);
            if (random.Next(6) == 0) corner.Off.Add((Fitting)random.Next(5));
            if (random.Next(6) == 0) corner.Wrong.Add(Acts.ByName[random.Next(Acts.ByName.Count)]);
        }

        return car;

        void Plant(System.Reflection.FieldInfo field, object on) => field.SetValue(on,
            field.FieldType == typeof(bool) ? !(bool)field.GetValue(on)! : field.FieldType == typeof(int) ? random.Next(3) : (object)(Nut)random.Next(4));
    }

    private static string Short(PlanSetup s) =>
        $"{s.Left.Architecture} {s.Scope} {s.Route} {s.Rules.Sides} {s.Rules.Holding} {s.Rules.FluidRoom} {s.Rules.Bleeding} screws {s.RotorHasScrews} bracket stays {s.RotorComesOffWithBracketOn} ground {s.ServiceOnGround} new {s.Left.CaliperNew}/{s.Right.CaliperNew} opposed {s.Left.Opposed} worked {s.Left.Worked}";
}

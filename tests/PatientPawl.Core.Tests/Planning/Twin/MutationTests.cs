using System.Collections.Concurrent;
using PatientPawl.Core.Planning;
using Xunit.Abstractions;

namespace PatientPawl.Core.Tests.Planning.Twin;

/// <summary>
/// What if a condition were forgotten? The planner plans without it, and either a plan that was read changes, or a walk at the physical twin
/// hurts someone, asks for what cannot be done, or comes to no end. A condition that nobody misses does not matter, and should not be there.
/// </summary>
public class MutationTests(ITestOutputHelper output)
{
    // PAWL_MUTANTS=n tries every n-th, 1 every one; steps' names with commas between them those of these steps; the usual run tries a dozen that
    // change with the day.
    private static readonly string Asked = Environment.GetEnvironmentVariable("PAWL_MUTANTS") ?? "";
    private const int AtATime = 12;

    // Walks at each; one that was the only one lacking a few times only is given more.
    private const int Seeds = 24;
    private const int MoreSeeds = 96;
    private const int FewTries = 6;

    private sealed record Mutant(StepType Step, Condition Dropped, int Interlock)
    {
        public override string ToString() => $"{Step.Id}: {(Interlock > 0 ? $"interlock {Interlock}, " : "")}{Facts.Words(CompiledCatalogue.Bind(Dropped, Step.Lane == Lane.Corner ? Side.Left : null))}";
    }

    private static IEnumerable<Mutant> Mutants() => StepCatalogue.All.SelectMany(type => type.Needs.Select(n => new Mutant(type, n, 0))
        .Concat(Interlocks.All.SelectMany(i => i.Clauses.Where(c => (c.Concerns & type.AllConcerns) != 0).Select(c => new Mutant(type, c.Needs, i.Number)))));

    [Fact]
    public void A_condition_that_is_forgotten_is_missed()
    {
        var all = Mutants().ToArray();
        var turn = DateTime.UtcNow.DayOfYear * AtATime;
        Mutant[] tried = int.TryParse(Asked, out var every) ? [.. all.Where((_, i) => i % Math.Max(every, 1) == 0)]
            : Asked.Length > 0 ? Array.FindAll(all, m => Asked.Split(',').Contains(m.Step.Id))
            : [.. Enumerable.Range(turn, AtATime).Select(i => all[i * 37 % all.Length])];
        tried.ShouldNotBeEmpty($"no step has a condition and is called \"{Asked}\"");
        var setups = Setups.Spread.ToArray();
        ConcurrentBag<string> missed = [];
        ConcurrentDictionary<string, int> by = [];
        var (nowhere, alone) = (0, 0);
        Parallel.ForEach(tried, Setups.Processors, mutant =>
        {
            var (caught, tries) = Caught(mutant, setups);
            if (caught == "") Interlocked.Increment(ref nowhere);
            else if (caught is null && tries == 0) Interlocked.Increment(ref alone);
            else if (caught is null) missed.Add($"{mutant}, {tries} times");
            else by.AddOrUpdate(caught, 1, (_, n) => n + 1);
        });
        var counted = tried.Length - nowhere - alone;
        output.WriteLine($"{all.Length} conditions of steps and interlocks; {tried.Length} forgotten one by one, {nowhere} of them never asked for in these setups and {alone} never the only one lacking; {counted - missed.Count} of {counted} missed, {100.0 * (counted - missed.Count) / counted:F1} %");
        foreach (var (how, n) in by.OrderByDescending(b => b.Value)) output.WriteLine($"{n,6}  {how}");
        foreach (var name in missed.Order(StringComparer.Ordinal)) output.WriteLine($"nobody missed  {name}");
        // What nobody missed stands in the output by name.
        (counted - missed.Count).ShouldBeGreaterThanOrEqualTo(counted * 4 / 5);
    }

    /// <summary>What gives it away, null when nothing does and empty when no setup asks for it; and how often it was the only one lacking.</summary>
    private static (string? How, int Tries) Caught(Mutant mutant, PlanSetup[] setups)
    {
        var without = (mutant.Step.Id, mutant.Dropped);
        if (Array.Exists(GoldenPlanTests.Golden, g => Asks(mutant, g.Setup) && Differs(g.Setup, g.Setup with { Without = without }))) return ("a plan that was read", 0);
        if (RefusedTests.All.Any(r => Asks(mutant, r.Setup) && Planner.Why(r.Setup with { Without = without }, RefusedTests.At(r.Setup, r.Forgotten, r.Until), r.Step).Allowed))
            return ("a step that is refused", 0);
        var at = Array.FindAll(setups, s => Asks(mutant, s));
        if (at.Length == 0) return ("", 0);
        var tries = 0;
        for (var seed = 0; seed < Seeds || (tries is > 0 and < FewTries && seed < MoreSeeds); seed++)
        {
            var (setup, surprises) = (at[seed * 13 % at.Length], seed % 5 == 0 ? Surprises.None : Surprises.All);
            // Where it is the only thing lacking, the step is done all the same; and a plan is made and walked that never asks for it.
            if (Tried(mutant, setup, seed, surprises, ref tries) is { } harm) return (How(harm), tries);
            var walk = new TwinWalk(setup with { Without = without }, seed * 7919 + 5, surprises);
            try
            {
                walk.ToTheEnd();
            }
            catch (InvalidOperationException e)
            {
                return (e.Message, tries);
            }

            if (walk.Harms.Count > 0) return (How(walk.Harms[0]), tries);
        }

        return (null, tries);
    }

    private static string? Tried(Mutant mutant, PlanSetup setup, int seed, Surprises surprises, ref int tries)
    {
        string? harm = null;
        var tried = 0;
        var walk = new TwinWalk(setup, seed * 7919 + 5, surprises)
        {
            Before = w =>
            {
                if (harm is not null || tried >= 6) return;
                var catalogue = CompiledCatalogue.For(w.Setup);
                foreach (Side? side in mutant.Step.Lane == Lane.Car ? [null] : Sides.Both.Select(x => (Side?)x))
                {
                    if (catalogue.Find(new(mutant.Step.Id, side)) is not { Retired: false } step || !step.Changes(w.State.Raw)) continue;
                    var lacking = step.Needs.Where(n => !n.Holds(w.State.Raw)).ToArray();
                    if (lacking is not [{ } only] || !ReferenceEquals(only.Origin, mutant.Dropped)) continue;
                    tried++;
                    harm ??= w.Branch(step.Key, seed).Harms.FirstOrDefault();
                }
            },
        };
        walk.ToTheEnd();
        tries += tried;
        return harm;
    }

    private static string How(string harm) => harm.Contains(", at ", StringComparison.Ordinal) ? "someone or something hurt" : harm.Contains(" cannot be done", StringComparison.Ordinal) ? "what cannot be done" : "no end";

    private static bool Asks(Mutant mutant, PlanSetup setup) => mutant.Step.Applies(setup) && mutant.Dropped.Applies?.Invoke(setup) != false;

    private static bool Differs(PlanSetup whole, PlanSetup without) => !Planner.Make(whole, whole.Start()).Steps.SequenceEqual(Planner.Make(without, without.Start()).Steps);
}

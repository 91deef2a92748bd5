using System.Collections.Concurrent;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;
using PatientPawl.Core.Tests.Planning;
using Xunit.Abstractions;

namespace PatientPawl.Core.Tests.Jobs;

/// <summary>Jobs walked through their own rules, with everything in between that a workshop brings: they all end, and fold to what they were.</summary>
public class SurpriseWalkTests(ITestOutputHelper output)
{
    // PAWL_SEEDS walks as many as is asked; a job replans at every command, so it is more here than it looks: about 15 000 commands.
    private static readonly int Seeds = int.TryParse(Environment.GetEnvironmentVariable("PAWL_SEEDS"), out var asked) ? Math.Max(asked, 160) : 160;

    [Fact]
    public void Whatever_comes_between_a_job_ends_handed_over_and_folds_to_what_it_was()
    {
        ConcurrentBag<string> wrong = [];
        var (commands, surprises) = (0, 0);
        Parallel.For(0, Seeds, Setups.Processors, seed =>
        {
            var random = new Random(seed);
            var rules = HouseRules.Default with { Sides = (SidesRule)(seed % 3), Bleeding = (BleedRule)(seed / 3 % 2) };
            var job = new Bench().Open((JobScope)(seed % 2), rules).LookOver().Identify();
            List<string> trail = [];
            try
            {
                for (var i = 0; i < 260 && !job.State.HandedOver; i++)
                {
                    Interlocked.Increment(ref commands);
                    if (i < 90 && random.Next(9) == 0 && Surprise(job, random) is { } what)
                    {
                        Interlocked.Increment(ref surprises);
                        trail.Add($"({what})");
                        continue;
                    }

                    if (job.State.Night is not null) job.Do(JobRules.ComeBack);
                    else if (RunSheets.Of(job.State).Now is { } now)
                    {
                        trail.Add(now.Step.ToString());
                        if (now.Role is null) job.Do(s => JobRules.Click(s, Bench.Click(now) with { Note = "seeded" }, true, Bench.Board));
                        else job.Step(now);
                    }
                    else if (job.State.Setup.Goal != JobGoal.Finish) job.Do(s => JobRules.Aim(s, JobGoal.Finish, "go on"));
                    else break;
                }
            }
            catch (Exception e) when (e is InputException or NotAllowedException)
            {
                wrong.Add($"seed {seed}: {e.Message} {string.Join(" ", (e as NotAllowedException)?.Because ?? [])} after {string.Join(" > ", trail)}");
                return;
            }

            if (!job.State.HandedOver) wrong.Add($"seed {seed} did not end: {string.Join("; ", job.State.CannotBeMet)} after {string.Join(" > ", trail)}");
            var folded = JobState.Fold(job.State.Log);
            if (!folded.Car.Equals(job.State.Car)) wrong.Add($"seed {seed} folds to another car after {string.Join(" > ", trail)}");
            else if (!folded.Remaining.SequenceEqual(job.State.Remaining)) wrong.Add($"seed {seed} folds to another plan: {string.Join(" > ", folded.Remaining)} for {string.Join(" > ", job.State.Remaining)}");
            // What the lead left open by name stays an open point; nothing else does.
            var open = JobRecord.Of(job.State).OpenPoints.Where(p => !p.StartsWith("Left as it is", StringComparison.Ordinal)).ToArray();
            if (open.Length > 0 && job.State.HandedOver) wrong.Add($"seed {seed} ends with open points: {string.Join("; ", open)}");
        });
        output.WriteLine($"{Seeds} jobs, {commands} commands, {surprises} surprises");
        wrong.ShouldBeEmpty();
        surprises.ShouldBeGreaterThan(Seeds);
    }

    // Null where it cannot be just now: then the next step is taken instead.
    private static string? Surprise(Bench job, Random random)
    {
        var side = random.Next(2) == 0 ? Side.Left : Side.Right;
        try
        {
            switch (random.Next(7))
            {
                case 0 when FindingRules.At(job.State, side) is { Count: > 0 } cards:
                    var card = cards[random.Next(cards.Count)];
                    job.Do(s => JobRules.Report(s, card.Kind, side, "seeded"));
                    return $"{card.Kind} {side}";
                case 1 when job.State.Standing.Where(e => e.Event is StepDone { Step.StepId: not "handed-over" } or TorqueSigned).ToArray() is { Length: > 0 } liftable:
                    var lifted = liftable[^random.Next(1, Math.Min(6, liftable.Length + 1))];
                    job.Do(s => JobRules.Lift(s, lifted.Id, "seeded", true, job.Who));
                    return $"lifted {lifted.Event}";
                case 2 when job.State.Remaining is { Length: > 1 } ahead:
                    var step = ahead[random.Next(1, Math.Min(12, ahead.Length))];
                    job.Do(s => JobRules.OutOfOrder(s, new(step, [.. StepCatalogue.Find(step.StepId)!.Readings.Select(r => new Reading(r, 4, null))], [], null, null, "seeded"), Bench.Board));
                    return $"out of order {step}";
                case 3:
                    job.Do(JobRules.Leave);
                    return "left overnight";
                case 4 when job.State.Setup.Goal == JobGoal.Finish:
                    var goal = random.Next(2) == 0 ? JobGoal.CloseUp : JobGoal.Yard;
                    job.Do(s => JobRules.Aim(s, goal, "seeded"));
                    return goal.ToString();
                case 5 when RunSheets.Of(job.State).Now is { Outcomes.Count: > 0 } now && now.Step.StepId is not ("measured" or "verdict-settled"):
                    var outcome = now.Outcomes[random.Next(now.Outcomes.Count)];
                    job.Do(s => JobRules.Click(s, Bench.Click(now) with { Outcome = outcome.Id, Note = "seeded" }, true, Bench.Board));
                    return $"{now.Step} [{outcome.Id}]";
                case 6 when RunSheets.Choices(job.State) is { Count: > 0 } choices:
                    var choice = choices[random.Next(choices.Count)].Bench;
                    job.Do(s => JobRules.Click(s, Bench.Click(choice) with { Note = "seeded" }, true, Bench.Board));
                    return $"by choice {choice.Step}";
                default:
                    return null;
            }
        }
        catch (Exception e) when (e is InputException or NotAllowedException)
        {
            return null;
        }
    }
}

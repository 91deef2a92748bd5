using PatientPawl.Core.Fleet;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Tests.Jobs;
using UnitsNet;

namespace PatientPawl.Core.Tests.Fleet;

/// <summary>What finished jobs teach the workshop.</summary>
public class LessonTests
{
    private static JobLesson Took(params double[] minutes) => new("Brae Sanderling",
        [.. minutes.Select(m => new StepSpan("leaks-looked", Duration.FromMinutes(m)))], []);

    private static StepType Step(string id) => StepCatalogue.Find(id)!;

    // The same job with each event so many minutes after the one before it; of these people in turn.
    private static JobState Paced(JobState job, Func<int, double> minutes, params Guid[] people)
    {
        var at = new DateTimeOffset(2026, 11, 3, 8, 0, 0, TimeSpan.Zero);
        return JobState.Fold(job.Log.Select((e, i) => e with
        {
            RecordedAt = at = at.AddMinutes(minutes(i)),
            TechnicianId = people.Length == 0 ? e.TechnicianId : people[i % people.Length]
        }));
    }

    private static JobState Finished() => new Bench().Open().LookOver().Identify().Until("the end").State;

    [Fact]
    public void A_steps_time_runs_from_the_same_persons_step_before_it_and_bolts_signed_one_by_one_are_one_step()
    {
        var job = Paced(Finished(), _ => 2);
        var spans = JobLesson.Of(job)!.Spans;
        var torqued = job.Standing.Where(e => e.Event is TorqueSigned).GroupBy(e => ((TorqueSigned)e.Event).Step).ToArray();
        torqued.ShouldNotBeEmpty();
        foreach (var step in torqued)
            spans.ShouldContain(s => s.StepId == step.Key.StepId && Math.Abs(s.Took.Minutes - 2 * step.Count()) < 1e-9);
        // Two who take turns have each twice as long.
        var (one, other) = (Guid.NewGuid(), Guid.NewGuid());
        var first = JobLesson.Of(Paced(Finished(), _ => 2, one, other))!.Spans;
        first.Where(s => Step(s.StepId).Torques is null).ShouldAllBe(s => Math.Abs(s.Took.Minutes - 4) < 1e-9);
    }

    [Fact]
    public void What_was_clicked_on_in_a_row_and_what_was_left_for_lunch_is_no_time_of_a_step()
    {
        JobLesson.Of(Paced(Finished(), _ => 0.1))!.Spans.Where(s => Step(s.StepId).Torques is null).ShouldBeEmpty();
        JobLesson.Of(Paced(Finished(), _ => 91))!.Spans.ShouldBeEmpty();
        JobLesson.Of(new Bench().Open().LookOver().State).ShouldBeNull("it is not handed over");
    }

    [Fact]
    public void The_median_of_five_or_more_is_learnt_and_one_slow_day_does_not_decide()
    {
        var usual = Step("leaks-looked").Minutes;
        Lessons.Of([Took(7, 7, 7, 7)]).Minutes.ShouldBeEmpty();
        Lessons.Of([Took(6, 7, 7), Took(8, 85)]).Minutes.Single().ShouldBe(new("leaks-looked", 7, 5));
        // A leak check holds the pedal and then looks: nobody is quicker than that takes.
        Step("leaks-looked").Waits.ShouldBeTrue();
        Lessons.Of([Took(0.5, 0.5, 0.5, 0.5, 0.5)]).Minutes.Single().Minutes.ShouldBe(usual);
    }

    [Fact]
    public void A_finding_is_frequent_from_two_jobs_on_a_type_of_vehicle()
    {
        JobLesson Found(string type, params FindingKind[] kinds) => new(type, [], kinds);
        var lessons = Lessons.Of([Found("Brae Sanderling", FindingKind.StuckPiston, FindingKind.NoiseOnDrive), Found("Brae Sanderling",
            FindingKind.StuckPiston), Found("Norrin Coble", FindingKind.StuckPiston)]);
        lessons.Jobs.ShouldBe(3);
        var often = lessons.Findings.Single();
        (often.VehicleType, often.Kind, often.Count, often.Of).ShouldBe(("Brae Sanderling", FindingKind.StuckPiston, 2, 2));
        often.Name.ShouldBe(FindingKind.StuckPiston.Card().Name);
    }

    [Fact]
    public void Learnt_minutes_are_told_and_scheduled_by_and_the_order_of_the_work_stays()
    {
        var setup = PlanSetup.For(Architecture.CableScrew, JobScope.Pads);
        var plan = Planner.Make(setup, setup.Start());
        var slow = StepTimes.Of([new("test-driven", 40, 9), new("no-such-step", 5, 9)]);
        slow.Minutes(plan.Steps).ShouldBe(plan.Minutes + 40 - Step("test-driven").Minutes);
        StepTimes.Of(null).Minutes(plan.Steps).ShouldBe(plan.Minutes);
        var schedule = Scheduling.Make(setup, setup.Start(), plan.Steps, 1, slow);
        schedule.Minutes.ShouldBe(plan.Minutes + 40 - Step("test-driven").Minutes);
        var usual = new Bench().Open().LookOver().Identify().State;
        var learnt = JobState.Fold(usual.Log.Select(e => e.Event is JobOpened o ? e with
        {
            Event = o with
            {
                Minutes = [new("test-driven",
            40, 9)]
            }
        } : e));
        learnt.Remaining.ShouldBe(usual.Remaining);
        RunSheets.Of(learnt).MinutesLeft.ShouldBe(RunSheets.Of(usual).MinutesLeft + 40 - Step("test-driven").Minutes);
    }
}

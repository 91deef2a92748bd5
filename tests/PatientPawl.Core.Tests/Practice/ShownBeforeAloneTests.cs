using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Practice;
using PatientPawl.Core.Tests.Jobs;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Practice;

public class ShownBeforeAloneTests
{
    private static readonly Guid Oona = Guid.NewGuid();

    private static JobState Job(ShownRule rule) => new Bench().Do(_ => JobRules.Open(7, 1, new("T 1", "Brae", "Test", "test car", null), 1000,
        "noise", JobScope.PadsAndRotors, Bench.Sheet(), HouseRules.Default with { ShownBeforeAlone = rule })).State;

    private static StepDone Done(string step) => new(new(step, Side.Left), false, [], [], [], null, null, null, null);

    private static void Try(JobState job, string step, bool isLead = false, params Competence[] shown) =>
        ShownBeforeAlone.Require(job, Done(step), Oona, isLead, () => Competences.Of(
            shown.SelectMany(c => new[] { "one", "two" }.Select(s => new ShownOnce(Oona, c, s, new(2026, 11, 1)))), new(2026, 11, 29)));

    [Fact]
    public void A_step_is_refused_to_who_has_not_shown_its_competence_and_to_nobody_else()
    {
        var job = Job(ShownRule.Asked);
        Should.Throw<NotAllowedException>(() => Try(job, "piston-home")).Message.ShouldContain("piston home");
        Should.Throw<NotAllowedException>(() => Try(job, "piston-home", shown: Competence.Torque));
        Try(job, "piston-home", shown: Competence.Retract);
        Try(job, "piston-home", isLead: true);
        Try(job, "wheel-off");
        Try(Job(ShownRule.NotAsked), "piston-home");
    }

    [Fact]
    public void Only_the_lead_puts_somebody_beside_another_and_then_they_may()
    {
        var job = Job(ShownRule.Asked);
        Should.Throw<NotAllowedException>(() => ShownBeforeAlone.Put(job, Oona, "Oona Firth", isLead: false));
        var put = ShownBeforeAlone.Put(job, Oona, "Oona Firth", isLead: true);
        job = job.With(new(Guid.NewGuid(), job.Version + 1, put, Guid.NewGuid(), "Kit", DateTimeOffset.UnixEpoch, DateTimeOffset.UnixEpoch));
        Try(job, "piston-home");
        Should.Throw<NotAllowedException>(() => ShownBeforeAlone.Put(job, Oona, "Oona Firth", isLead: true));
        Should.Throw<NotAllowedException>(() => ShownBeforeAlone.Put(Job(ShownRule.NotAsked), Oona, "Oona Firth", isLead: true));
    }

    [Fact]
    public void Every_torque_and_every_way_home_needs_its_competence_and_an_electric_brake_its_own()
    {
        var cable = PlanSetup.For(Architecture.CableScrew, JobScope.PadsAndRotors, null);
        var motor = PlanSetup.For(Architecture.MotorPush, JobScope.PadsAndRotors, ServiceRoute.ScanTool);
        foreach (var type in StepCatalogue.All.Where(t => t.Torques is not null)) ShownBeforeAlone.Of(type, cable).ShouldBe(Competence.Torque);
        ShownBeforeAlone.Of(StepCatalogue.Find("piston-home")!, cable).ShouldBe(Competence.Retract);
        foreach (var type in StepCatalogue.All.Where(t => (t.Concerns & (Concern.ReleasesBrake | Concern.AppliesBrake)) != 0
            && (t.Concerns & Concern.Retracts) == 0 && t.Torques is null))
        {
            ShownBeforeAlone.Of(type, motor).ShouldBe(Competence.Electric, type.Id);
            ShownBeforeAlone.Of(type, cable).ShouldNotBe(Competence.Electric, type.Id);
        }
    }
}

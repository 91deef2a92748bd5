using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>What no plan would ask for there, and what is refused all the same when somebody does. Order facts, common practice, no source.</summary>
public class RefusedTests
{
    private static readonly PlanSetup Tool =
        PlanSetup.For(Architecture.MotorPush, JobScope.PadsAndRotors, ServiceRoute.ScanTool) with { RotorHasScrews = true, Rules = HouseRules.Default };

    private static readonly PlanSetup FromTheStart = Tool with { Rules = HouseRules.Default with { Holding = HoldingRule.ReleasedFromStart } };

    /// <summary>A fact, and the step that it keeps from being done before another of the plan is.</summary>
    internal static IReadOnlyList<(string Fact, PlanSetup Setup, string Before, StepKey Step)> All { get; } =
    [
        ("the brake holds both hubs until their screws are cracked", Tool, "screws-cracked-brake", new("brake-released", null)),
        ("a house that releases before lifting does so", FromTheStart, "brake-released", new("lifted", null)),
    ];

    [Fact]
    public void What_no_plan_asks_for_is_refused_all_the_same()
    {
        foreach (var (fact, setup, before, step) in All) Planner.Why(setup, At(setup, before), step).Allowed.ShouldBeFalse(fact);
    }

    /// <summary>The state of the car when the plan comes to a step.</summary>
    internal static CarState At(PlanSetup setup, string before)
    {
        var steps = Planner.Make(setup, setup.Start()).Steps;
        steps.ShouldContain(s => s.StepId == before);
        return steps.TakeWhile(s => s.StepId != before).Aggregate(setup.Start(), (state, s) => Planner.Apply(setup, state, s, null));
    }
}

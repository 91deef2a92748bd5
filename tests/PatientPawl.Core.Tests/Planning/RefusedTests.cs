using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>What no plan would ask for there, and what is refused all the same when somebody does. Order facts, common practice, no source.</summary>
public class RefusedTests
{
    private static readonly PlanSetup Tool =
        PlanSetup.For(Architecture.MotorPush, JobScope.PadsAndRotors, ServiceRoute.ScanTool) with { RotorHasScrews = true, Rules = HouseRules.Default };

    private static readonly PlanSetup FromTheStart =
        PlanSetup.For(Architecture.CableScrew, JobScope.Pads) with { Rules = HouseRules.Default with { Holding = HoldingRule.ReleasedFromStart } };

    /// <summary>A fact, and the step that it refuses to whoever goes by the plan and forgets another.</summary>
    internal static IReadOnlyList<(string Fact, PlanSetup Setup, string Forgotten, StepKey Step)> All { get; } =
    [
        ("the brake holds both hubs until their screws are cracked", Tool, "screws-cracked-brake", new("brake-released", null)),
        ("a house that releases before lifting does so", FromTheStart, "brake-released", new("lifted", null)),
    ];

    [Fact]
    public void What_no_plan_asks_for_is_refused_all_the_same()
    {
        // For this one reason: without it the step would be done.
        foreach (var (fact, setup, forgotten, step) in All)
            CompiledCatalogue.For(setup).Find(step)!.Needs.Where(n => !n.Holds(At(setup, forgotten, step).Raw)).Select(n => Facts.Words(n)).ShouldHaveSingleItem(fact);
    }

    /// <summary>The state of the car when the plan comes to a step and another was left out.</summary>
    internal static CarState At(PlanSetup setup, string forgotten, StepKey step)
    {
        var before = Planner.Make(setup, setup.Start()).Steps.TakeWhile(s => s != step).ToArray();
        before.ShouldContain(s => s.StepId == forgotten);
        return before.Where(s => s.StepId != forgotten).Aggregate(setup.Start(), (state, s) => Planner.Apply(setup, state, s, null));
    }
}

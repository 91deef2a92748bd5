using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>What no plan would ask for there, and what is refused all the same when somebody does. Order facts, common practice, no source.</summary>
public class RefusedTests
{
    private static readonly PlanSetup Tool =
        PlanSetup.For(Architecture.MotorPush, JobScope.PadsAndRotors, ServiceRoute.ScanTool) with { RotorHasScrews = true, Rules = HouseRules.Default };

    private static readonly PlanSetup ByHand =
        PlanSetup.For(Architecture.MotorPush, JobScope.Pads, ServiceRoute.SpindleByHand) with { Rules = HouseRules.Default };

    private static readonly PlanSetup FromTheStart =
        PlanSetup.For(Architecture.CableScrew, JobScope.Pads) with { Rules = HouseRules.Default with { Holding = HoldingRule.ReleasedFromStart } };

    private static readonly PlanSetup SmallCaliper =
        PlanSetup.For(Architecture.SpotCaliper, JobScope.PadsAndRotors) with { RotorHasScrews = true, Rules = HouseRules.Default };

    private static readonly PlanSetup Pads = PlanSetup.For(Architecture.CableScrew, JobScope.Pads) with { Rules = HouseRules.Default };

    private static readonly PlanSetup AlwaysBled = Pads with { Rules = HouseRules.Default with { Bleeding = BleedRule.Always } };

    private static readonly StepKey Pedal = new("pedal-proved", null), Routine = new("pedal-proved-routine", null),
        Released = new("brake-released", null), SmallOff = new("spot-off", Side.Left), Closed = new("service-closed", null),
        Cycled = new("brake-cycled", null), Held = new("brake-held", null);

    /// <summary>A fact; where somebody stands who goes by the plan as far as a step, and maybe forgets another; and what is refused there.</summary>
    internal static IReadOnlyList<(string Fact, PlanSetup Setup, string? Forgotten, StepKey Until, StepKey Step)> All { get; } =
    [
        ("the brake holds both hubs until their screws are cracked", Tool, "screws-cracked-brake", Released, Released),
        ("a small caliper stays on until the screws of both rotors are cracked", SmallCaliper, "screws-cracked-brake", SmallOff, SmallOff),
        ("a house that releases before lifting does so", FromTheStart, "brake-released", new("lifted", null), new("lifted", null)),
        ("a house that always bleeds proves no pedal before", AlwaysBled, "corner-bled", Pedal, Pedal),
        ("nor does the maker's routine", AlwaysBled with { SimulatedPedal = true }, "corner-bled", Routine, Routine),
        ("what is not in service is not brought out of it", Tool, "service-entered", Closed, Closed),
        ("a car is not left asleep before its brake is closed", Tool, null, Closed, new("ignition-off-after", null)),
        ("auto-apply is given back to a brake that was cycled", ByHand, null, Cycled, new("auto-restored", null)),
        ("a lever is not judged under a tight cable", Pads, null, new("cable-slack", null), new("lever-on-stop", Side.Left)),
        ("no hold is tried before the pedal is proved", Pads, "pedal-proved", Held, Held),
        ("no hold is tried on a lever that was not cycled", Pads, "lever-cycled", Held, Held),
        ("what was bled is not bled again", AlwaysBled, null, Pedal, new("corner-bled", Side.Left)),
        ("what nobody opened is not bled", Pads, null, Pedal, new("corner-bled", Side.Left)),
    ];

    [Fact]
    public void What_no_plan_asks_for_is_refused_all_the_same()
    {
        // For this one reason: without it the step would be done.
        foreach (var (fact, setup, forgotten, until, step) in All)
        {
            var at = At(setup, forgotten, until);
            CompiledCatalogue.For(setup).Find(step)!.Needs.Where(n => !n.Holds(at.Raw)).Select(n => Facts.Words(n)).ShouldHaveSingleItem(fact);
        }
    }

    [Fact]
    public void What_the_tool_has_closed_is_not_applied_for_a_first_time() =>
        CompiledCatalogue.For(Tool).Find(new("first-apply", null))!.Needs.Where(n => !n.Holds(At(Tool, null, Cycled).Raw)).Select(n => Facts.Words(n)).ShouldContain("closing of the brake open");

    /// <summary>The state of the car when the plan comes to a step, with another one left out.</summary>
    internal static CarState At(PlanSetup setup, string? forgotten, StepKey until)
    {
        var plan = Planner.Make(setup, setup.Start()).Steps;
        plan.ShouldContain(until);
        var before = plan.TakeWhile(s => s != until).ToArray();
        if (forgotten is not null) before.ShouldContain(s => s.StepId == forgotten);
        return before.Where(s => s.StepId != forgotten).Aggregate(setup.Start(), (state, s) => Planner.Apply(setup, state, s, null));
    }
}

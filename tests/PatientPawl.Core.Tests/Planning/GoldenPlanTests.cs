using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning;

/// <summary>
/// Whole plans as text, read line by line as a mechanic would; a change of one is looked at before it is taken over (PAWL_UPDATE=1 writes them
/// anew). What must come before what is asserted beside them. Common practice, no source.
/// </summary>
public class GoldenPlanTests
{
    private static readonly string Folder = Path.Combine(AppContext.BaseDirectory, "Planning", "Golden");

    private static PlanSetup Of(Architecture architecture, JobScope scope, ServiceRoute? route = null) => PlanSetup.For(architecture, scope, route) with { SheetElectric = route is not null };

    private static PlanSetup By(PlanSetup setup, Func<HouseRules, HouseRules> rules) => setup with { Rules = rules(setup.Rules) };

    internal static readonly (string Name, PlanSetup Setup)[] Golden =
    [
        ("cable-screw pads", Of(Architecture.CableScrew, JobScope.Pads)),
        ("cable-screw pads one side then the other", By(Of(Architecture.CableScrew, JobScope.Pads), r => r with { Sides = SidesRule.OneThenOther })),
        ("cable-screw pads in step", By(Of(Architecture.CableScrew, JobScope.Pads), r => r with { Sides = SidesRule.InStep })),
        ("cable-screw pads and rotors always bled", By(Of(Architecture.CableScrew, JobScope.PadsAndRotors), r => r with { Bleeding = BleedRule.Always })),
        ("cable-screw left caliper new", Of(Architecture.CableScrew, JobScope.Pads) with { Left = Of(Architecture.CableScrew, JobScope.Pads).Left with { CaliperNew = true } }),
        ("lever-push pads", Of(Architecture.LeverPush, JobScope.Pads)),
        ("plain pads and rotors", Of(Architecture.Plain, JobScope.PadsAndRotors)),
        ("hat-shoes pads", Of(Architecture.HatShoes, JobScope.Pads)),
        ("hat-shoes pads rotors and shoes", Of(Architecture.HatShoes, JobScope.PadsRotorsAndShoes)),
        ("fixed-hat shoes", Of(Architecture.FixedHat, JobScope.Shoes)),
        ("motor-push pads scan tool", Of(Architecture.MotorPush, JobScope.Pads, ServiceRoute.ScanTool)),
        ("motor-push pads and rotors scan tool, released from the start", By(Of(Architecture.MotorPush, JobScope.PadsAndRotors, ServiceRoute.ScanTool), r => r with { Holding = HoldingRule.ReleasedFromStart })),
        ("motor-push pads spindle by hand", Of(Architecture.MotorPush, JobScope.Pads, ServiceRoute.SpindleByHand)),
        ("motor-turn pads in car on the ground", Of(Architecture.MotorTurn, JobScope.Pads, ServiceRoute.InCar) with { ServiceOnGround = true }),
        ("motor-hat pads rotors and shoes scan tool", Of(Architecture.MotorHat, JobScope.PadsRotorsAndShoes, ServiceRoute.ScanTool)),
        ("puller-screw pads puller release", Of(Architecture.PullerScrew, JobScope.Pads, ServiceRoute.PullerRelease)),
        ("puller-hat shoes scan tool", Of(Architecture.PullerHat, JobScope.Shoes, ServiceRoute.ScanTool)),
        ("spot-caliper pads and rotors", Of(Architecture.SpotCaliper, JobScope.PadsAndRotors)),
        ("cable-screw inspect", Of(Architecture.CableScrew, JobScope.Inspect)),
        ("cable-screw pads closing up", Of(Architecture.CableScrew, JobScope.Pads) with { Goal = JobGoal.CloseUp }),
    ];

    public static TheoryData<string> Names => [.. Golden.Select(g => g.Name)];

    private static List<string> Order(PlanSetup setup) => [.. Planner.Make(setup, setup.Start()).Steps.Select(s => s.ToString())];

    [Theory]
    [MemberData(nameof(Names))]
    public void The_plan_is_the_one_that_was_read(string name)
    {
        var setup = Golden.Single(g => g.Name == name).Setup;
        var text = string.Concat(Order(setup).Select(s => s + "\n"));
        var file = name.Replace(' ', '-').Replace(",", "", StringComparison.Ordinal) + ".txt";
        if (Environment.GetEnvironmentVariable("PAWL_UPDATE") == "1")
        {
            var source = Path.GetFullPath(Path.Combine(AppContext.BaseDirectory, "../../../Planning/Golden"));
            Directory.CreateDirectory(source);
            File.WriteAllText(Path.Combine(source, file), text);
            return;
        }

        text.ShouldBe(File.ReadAllText(Path.Combine(Folder, file)));
    }

    // What a mechanic checks first, in every one of them where both steps stand.
    private static readonly (string First, string Then)[] Before =
    [
        ("look-over", "chocks-in"),
        ("self-pressure-off", "caliper-off"),
        ("chocks-in", "brake-released"),
        ("chocks-in", "gear-neutral"),
        ("chocks-in", "lifted"),
        ("gear-neutral", "ignition-off"),
        ("nuts-cracked", "lifted"),
        ("lifted", "wheel-off"),
        ("auto-inhibited", "service-entered"),
        ("battery-held", "service-entered"),
        ("service-entered", "switch-tagged"),
        ("switch-tagged", "key-away"),
        ("key-away", "rotor-off"),
        ("brake-released", "cable-slack"),
        ("brake-released", "shoe-cable-slack"),
        ("cable-slack", "caliper-off"),
        ("release-proved", "actuator-unplugged"),
        ("car-asleep", "actuator-unplugged"),
        ("spindle-back", "caliper-off"),
        ("reservoir-looked", "piston-home"),
        ("parts-compared", "piston-home"),
        ("measured", "pads-in"),
        ("shoe-cable-slack", "rotor-off"),
        ("star-wheel-backed", "rotor-off"),
        ("rotor-off", "hub-clean"),
        ("hub-clean", "rotor-on"),
        ("rotor-degreased", "pads-in"),
        ("plate-clean", "shoes-on"),
        ("rotor-on", "new-shoes-set"),
        ("rotor-back", "new-shoes-set"),
        ("new-shoes-set", "bracket-on"),
        ("bracket-on", "pads-in"),
        ("bracket-torqued", "caliper-on"),
        ("piston-home", "pads-in"),
        ("pads-in", "caliper-on"),
        ("caliper-on", "slide-pins-torqued"),
        ("slide-pins-torqued", "pedal-proved"),
        ("banjo-torqued", "corner-bled"),
        ("corner-bled", "bleed-screw-torqued"),
        ("bleed-screw-torqued", "pedal-proved"),
        ("corner-bled", "wheel-on"),
        ("pedal-proved", "leaks-looked"),
        ("pedal-proved", "ignition-on-again"),
        ("pedal-proved", "cable-taken-up"),
        ("turns-free", "service-closed"),
        ("tag-off", "service-closed"),
        ("service-closed", "brake-cycled"),
        ("brake-cycled", "codes-cleared"),
        ("cable-taken-up", "lever-cycled"),
        ("gear-park", "lowered"),
        ("wheel-on", "lowered"),
        ("lowered", "wheel-torqued"),
        ("wheel-torqued", "chocks-out"),
        ("lowered", "level-looked"),
        ("chocks-out", "brake-held"),
        ("brake-held", "test-driven"),
        ("level-looked", "test-driven"),
        ("test-driven", "bed-in"),
        ("test-driven", "handed-over"),
        ("bed-in", "handed-over"),
    ];

    [Fact]
    public void What_comes_before_what_holds_in_every_plan_at_the_same_corner()
    {
        var seen = new HashSet<(string, string)>();
        List<string> wrong = [];
        var plans = Golden.Select(g => (g.Name, g.Setup, Planner.Make(g.Setup, g.Setup.Start()))).Concat(Setups.Planned.Select(p => ("spread", p.Setup, p.Plan)));
        foreach (var (name, setup, plan) in plans)
        {
            var steps = plan.Steps.ToList();
            // Where the caliper holds the parking brake, nobody pulls it from a car that can wake; and what was opened is looked at before it is covered.
            (string, string)[] own = [.. setup.IsCaliperType ? [("key-away", "caliper-off")] : Array.Empty<(string, string)>(), .. setup.InspectOnly ? Array.Empty<(string, string)>() : [("leaks-looked", "wheel-on")]];
            foreach (var (first, then) in Before.Concat(own))
            {
                foreach (var side in Core.Sides.Both)
                {
                    bool Here(StepKey k, string id) => k.StepId == id && (k.Side is null || k.Side == side);
                    var (a, b) = (steps.FindIndex(k => Here(k, first)), steps.FindIndex(k => Here(k, then)));
                    if (a < 0 || b < 0) continue;
                    if (a >= b) wrong.Add($"{first} before {then}, {side}, in {name}: {string.Join(" > ", steps)}");
                    seen.Add((first, then));
                }
            }
        }

        wrong.ShouldBeEmpty();
        Before.Where(f => !seen.Contains(f)).ShouldBeEmpty("each of them is met somewhere");
    }
}

using PatientPawl.Core.Identification;
using PatientPawl.Core.Retraction;
using static PatientPawl.Core.Identification.Architecture;
using static PatientPawl.Core.Identification.Look;

namespace PatientPawl.Core.Tests.Identification;

/// <summary>
/// A thorough look at each of the thirteen, as a mechanic would find it. Trade facts, common practice, no source: each row says
/// which architectures a complete look leaves standing.
/// </summary>
public class ArchitectureSightings
{
    private static readonly Observation[] Usual =
    [
        new(BrakeByWire, Seen.No), new(PullerBox, Seen.No), new(CaliperLever, Seen.No), new(CaliperMotor, Seen.No), new(PlateCable, Seen.No), new(PlateMotor, Seen.No),
        new(SecondCaliper, Seen.No), new(BrakeHose, Seen.Yes), new(HatHole, Seen.No), new(OpposedPistons, Seen.No), new(RearHexPlug, Seen.No),
    ];

    public static TheoryData<string, Architecture[], Observation[]> Sightings() => new()
    {
        { "hand lever, lever and spring on the caliper, cross in the piston", [CableScrew, LeverPush], [new(CabinControl, Seen.HandLever), new(CaliperLever, Seen.Yes), new(PistonFace, Seen.Cross)] },
        { "the same, and it will not be pushed with the lever on its stop", [CableScrew], [new(CabinControl, Seen.HandLever), new(CaliperLever, Seen.Yes), new(PistonFace, Seen.Cross), new(PushMoves, Seen.No)] },
        { "the same, and it slides", [LeverPush], [new(CabinControl, Seen.HandLever), new(CaliperLever, Seen.Yes), new(PistonFace, Seen.TwoNotches), new(PushMoves, Seen.Yes)] },
        { "foot pedal instead of a lever", [CableScrew, LeverPush], [new(CabinControl, Seen.FootPedal), new(CaliperLever, Seen.Yes), new(PistonFace, Seen.ThreeLobes)] },
        { "switch, puller box and levers on the calipers", [PullerScrew, LeverPush], [new(CabinControl, Seen.Switch), new(PullerBox, Seen.Yes), new(CaliperLever, Seen.Yes), new(PistonFace, Seen.Cross)] },
        { "switch, motor on the caliper, plain cup", [MotorPush], [new(CabinControl, Seen.Switch), new(CaliperMotor, Seen.Yes), new(PistonFace, Seen.PlainCup)] },
        { "switch, motor on the caliper, notches: not proof of a screw", [MotorPush, MotorTurn], [new(CabinControl, Seen.Switch), new(CaliperMotor, Seen.Yes), new(PistonFace, Seen.TwoNotches)] },
        { "the same with the spindle back, and it stays put", [MotorTurn], [new(CabinControl, Seen.Switch), new(CaliperMotor, Seen.Yes), new(PistonFace, Seen.TwoNotches), new(PushMoves, Seen.No)] },
        { "hand lever and a cable into the plate", [HatShoes], [new(CabinControl, Seen.HandLever), new(PlateCable, Seen.Yes), new(HatHole, Seen.Yes)] },
        { "hand lever and only the plug in the hat seen", [HatShoes], [new(CabinControl, Seen.HandLever), new(HatHole, Seen.Yes)] },
        { "switch with cables into the plates", [PullerHat], [new(CabinControl, Seen.Switch), new(PullerBox, Seen.Yes), new(PlateCable, Seen.Yes)] },
        { "switch and a motor at the plate", [MotorHat], [new(CabinControl, Seen.Switch), new(PlateMotor, Seen.Yes)] },
        { "pistons on both sides and a cable into the plate", [FixedHat], [new(CabinControl, Seen.HandLever), new(OpposedPistons, Seen.Yes), new(PlateCable, Seen.Yes)] },
        { "pistons on both sides and a motor at the plate", [MotorHat, FixedHat], [new(CabinControl, Seen.Switch), new(OpposedPistons, Seen.Yes), new(PlateMotor, Seen.Yes)] },
        { "a second small caliper", [SpotCaliper], [new(CabinControl, Seen.Switch), new(SecondCaliper, Seen.Yes)] },
        { "a hex under a cap at the back", [RearHex], [new(CabinControl, Seen.HandLever), new(RearHexPlug, Seen.Yes), new(PistonFace, Seen.PlainCup)] },
        { "nothing at all on a slider with a hose", [Plain], [new(CabinControl, Seen.HandLever)] },
        { "no hose", [ElectricOnly], [new(CabinControl, Seen.Switch), new(BrakeHose, Seen.No)] },
    };

    [Theory]
    [MemberData(nameof(Sightings))]
    public void A_thorough_look_leaves(string sight, Architecture[] standing, Observation[] seen)
    {
        var looks = Usual.Where(u => seen.All(s => s.Look != u.Look)).Concat(seen).ToArray();
        var found = Identify.Corner(looks, mechanismRelaxed: true);
        found.Standing.ShouldBe(standing, sight);
        found.Contradictions.ShouldBeEmpty(sight);
        found.BrakeByWireUnsettled.ShouldBeFalse();
        if (standing.Length == 1)
        {
            found.Ruled.ShouldBe(standing[0]);
            RetractionRuling.Decide(standing[0], Side.Left, null).Headline.ShouldNotBeEmpty();
        }
    }

    [Fact]
    public void Every_architecture_is_reached_by_some_sighting() =>
        Sightings().Select(s => ((Architecture[])s[1])).Where(a => a.Length == 1).Select(a => a[0]).Distinct().Count().ShouldBe(12, "all but puller-screw, which a lever-push always stands beside");

    [Theory]
    [InlineData(Architecture.CableScrew, Seen.Switch)]
    [InlineData(Architecture.HatShoes, Seen.Switch)]
    [InlineData(Architecture.RearHex, Seen.Switch)]
    [InlineData(Architecture.PullerScrew, Seen.HandLever)]
    [InlineData(Architecture.PullerHat, Seen.FootPedal)]
    [InlineData(Architecture.MotorPush, Seen.HandLever)]
    [InlineData(Architecture.MotorTurn, Seen.FootPedal)]
    [InlineData(Architecture.MotorHat, Seen.HandLever)]
    public void The_cabin_control_alone_fells(Architecture architecture, Seen control) =>
        Identify.Corner([new(CabinControl, control)], false).Fallen.ShouldContain(f => f.Architecture == architecture);

    [Fact]
    public void The_record_of_evidence_names_each_observation_and_what_it_felled()
    {
        var found = Identify.Corner([new(CaliperMotor, Seen.Yes), new(PadPin, Seen.Yes)], false);
        found.Reasons.Lines.Single(l => l.Label == "Motor, plug").Result.ShouldStartWith("rules out ");
        found.Reasons.Lines.Single(l => l.Label == "Pad pin").Result.ShouldBe("rules out nothing");
        found.Reasons.WouldChange.ShouldNotBeEmpty();
    }

    [Fact]
    public void Every_look_has_a_card_and_every_architecture_a_row()
    {
        LookCatalogue.All.Select(c => c.Look).ShouldBe(Enum.GetValues<Look>(), ignoreOrder: true);
        EvidenceTable.Rows.Select(r => r.Architecture).ShouldBe(Enum.GetValues<Architecture>());
        ArchitectureCatalogue.All.Select(c => c.Architecture).ShouldBe(Enum.GetValues<Architecture>());
        LookCatalogue.All.ShouldAllBe(c => c.Name.Length <= 17 && c.Question.EndsWith('?'));
        // Dismantling only ever grows along the catalogue, so that ties fall to the nearer look.
        LookCatalogue.All.Select(c => c.Reach).ShouldBe(LookCatalogue.All.Select(c => c.Reach).Order());
    }
}

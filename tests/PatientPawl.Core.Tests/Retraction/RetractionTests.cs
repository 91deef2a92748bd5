using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Tests.Retraction;

public class RetractionTests
{
    private static Length Mm(double v) => Length.FromMillimeters(v);

    private static HowFarInput Far(double oldEach, double newEach, double protrusion, double home = 0, double d = 38, double? lead = 0.8, double? margin = null) =>
        new(new(Mm(oldEach), Mm(oldEach), Mm(10)), new(Mm(newEach), Mm(newEach), Mm(10)), Mm(protrusion), Mm(home), lead is { } l ? Mm(l) : null, Mm(d), 1, margin is { } m ? Mm(m) : null);

    private static PistonSpec Piston(TurnDirection? left, TurnDirection? right, bool twoStage = false) => new(Mm(38), 1, Mm(0.8), Mm(1.5), left, right, twoStage, 4);

    [Theory]
    // Common practice, no source: what goes back by turning and what by pushing.
    [InlineData(Architecture.CableScrew, RetractMethod.TurnAndPush)]
    [InlineData(Architecture.PullerScrew, RetractMethod.TurnAndPush)]
    [InlineData(Architecture.LeverPush, RetractMethod.StraightPush)]
    [InlineData(Architecture.MotorPush, RetractMethod.SpindleThenPush)]
    [InlineData(Architecture.MotorTurn, RetractMethod.SpindleThenTurn)]
    [InlineData(Architecture.HatShoes, RetractMethod.StraightPush)]
    [InlineData(Architecture.PullerHat, RetractMethod.StraightPush)]
    [InlineData(Architecture.MotorHat, RetractMethod.StraightPush)]
    [InlineData(Architecture.FixedHat, RetractMethod.OpposedPush)]
    [InlineData(Architecture.SpotCaliper, RetractMethod.StraightPush)]
    [InlineData(Architecture.RearHex, RetractMethod.RearHexAndPush)]
    [InlineData(Architecture.Plain, RetractMethod.StraightPush)]
    [InlineData(Architecture.ElectricOnly, RetractMethod.MakersProcedure)]
    public void Each_architecture_has_its_way_back(Architecture architecture, RetractMethod method)
    {
        var ruling = RetractionRuling.Decide(architecture, Side.Left, null);
        ruling.Method.ShouldBe(method);
        ruling.Never.ShouldNotBeEmpty();
        (ruling.Direction is not null).ShouldBe(method is RetractMethod.TurnAndPush or RetractMethod.SpindleThenTurn or RetractMethod.RearHexAndPush);
    }

    [Fact]
    public void The_sheets_direction_wins_per_side_and_a_missing_one_is_a_flagged_default()
    {
        var sheet = Piston(TurnDirection.Anticlockwise, null);
        var left = RetractionRuling.Decide(Architecture.CableScrew, Side.Left, sheet);
        left.Direction.ShouldBe(TurnDirection.Anticlockwise);
        left.DirectionIsDefault.ShouldBeFalse();
        left.Tool.ShouldContain("left-hand");
        var right = RetractionRuling.Decide(Architecture.CableScrew, Side.Right, sheet);
        right.Direction.ShouldBe(TurnDirection.Clockwise);
        right.DirectionIsDefault.ShouldBeTrue();
        right.Reasons.UsesDefaults.ShouldBeTrue();
        right.WatchFor.ShouldContain(w => w.Contains("first half turn"));
    }

    [Fact]
    public void A_motor_caliper_needs_its_spindle_back_and_never_a_battery()
    {
        var ruling = RetractionRuling.Decide(Architecture.MotorPush, Side.Left, null);
        ruling.Preconditions.ShouldContain(RetractPrecondition.SpindleBack);
        ruling.Never.ShouldContain(n => n.Contains("battery"));
        RetractionRuling.Decide(Architecture.MotorPush, Side.Left, null, methodUndecided: true).Method.ShouldBe(RetractMethod.SpindleThenDecide);
    }

    [Fact]
    public void A_straight_push_has_no_sign_of_spinning_free() =>
        RetractionRuling.Decide(Architecture.HatShoes, Side.Left, null).Stops.ShouldNotContain(s => s.Sign == StopSign.SpinsFree);

    [Fact]
    public void Worked_example_38_mm_through_12_mm_displaces_13_6_mL()
    {
        // pi/4 x 38^2 x 12 = 13 609 mm^3, worked by hand.
        var travel = HowFar.Compute(Far(8, 12, 12, d: 38), RetractDepthRule.AllTheWayHome);
        travel.Displaced.Milliliters.ShouldBe(13.609, 0.0005);
        // Common practice, no source: a worn axle sends "a few ounces" back; 27.2 mL is 0.92 US fl oz of 29.5735 mL.
        (2 * travel.Displaced.Milliliters / 29.5735).ShouldBe(0.92, 0.005);
        var big = HowFar.Compute(Far(8, 12, 16, d: 43), RetractDepthRule.AllTheWayHome);
        (2 * big.Displaced.Milliliters / 29.5735).ShouldBe(1.57, 0.005);
    }

    [Fact]
    public void Need_is_new_less_old_plus_margin_and_the_margin_is_a_flagged_default()
    {
        var r = HowFar.Compute(Far(8, 12, 13.5, home: 1.5), RetractDepthRule.AsFarAsNeeded);
        r.Need.Millimeters.ShouldBe(9, 1e-9);
        r.Travel.Millimeters.ShouldBe(9, 1e-9);
        r.HomeTravel!.Value.Millimeters.ShouldBe(12, 1e-9);
        r.Reasons.Lines.ShouldContain(l => l.Kind == ReasonKind.Default && l.Label == "Running margin");
        HowFar.Compute(Far(8, 12, 13.5, 1.5, margin: 0), RetractDepthRule.AsFarAsNeeded).Need.Millimeters.ShouldBe(8, 1e-9);
    }

    [Fact]
    public void The_house_rule_decides_between_home_and_needed()
    {
        HowFar.Compute(Far(8, 12, 13.5, 1.5), RetractDepthRule.AllTheWayHome).Turns!.Value.ShouldBe(15, 1e-9);
        HowFar.Compute(Far(8, 12, 13.5, 1.5), RetractDepthRule.AsFarAsNeeded).Turns!.Value.ShouldBe(11.25, 1e-9);
    }

    [Fact]
    public void Parts_that_need_more_than_there_is_are_the_wrong_parts()
    {
        HowFar.Compute(Far(8, 12, 5), RetractDepthRule.AllTheWayHome).WillNotGoIn.ShouldBeTrue();
        // Exactly enough goes in.
        HowFar.Compute(Far(8, 12, 9), RetractDepthRule.AllTheWayHome).WillNotGoIn.ShouldBeFalse();
    }

    [Fact]
    public void Without_a_protrusion_the_volume_is_a_lower_bound()
    {
        var r = HowFar.Compute(Far(8, 12, 0) with { Protrusion = null }, RetractDepthRule.AllTheWayHome);
        r.DisplacedIsLowerBound.ShouldBeTrue();
        r.HomeTravel.ShouldBeNull();
        r.Travel.Millimeters.ShouldBe(9, 1e-9);
        r.Warnings.ShouldContain(w => w.Contains("lower bound"));
    }

    [Fact]
    public void Thinner_new_parts_never_ask_for_negative_travel() =>
        HowFar.Compute(Far(12, 8, 5), RetractDepthRule.AsFarAsNeeded).Travel.Millimeters.ShouldBe(0);

    [Property(MaxTest = 300)]
    public Property Volume_scales_with_the_square_of_the_bore() => Prop.ForAll(Gen.Choose(100, 490).ToArbitrary(), tenth =>
    {
        var one = HowFar.Compute(Far(8, 9, 6, d: tenth / 10.0), RetractDepthRule.AllTheWayHome).Displaced.Milliliters;
        var two = HowFar.Compute(Far(8, 9, 6, d: tenth / 5.0), RetractDepthRule.AllTheWayHome).Displaced.Milliliters;
        return Math.Abs(two - 4 * one) < 1e-9;
    });

    [Property(MaxTest = 300)]
    public Property Splitting_the_travel_changes_nothing() => Prop.ForAll(Gen.Choose(1, 199).ToArbitrary(), tenth =>
    {
        double Vol(double travel) => HowFar.Compute(Far(10, 10, travel), RetractDepthRule.AllTheWayHome).Displaced.Milliliters;
        return Math.Abs(Vol(20) - Vol(tenth / 10.0) - Vol(20 - tenth / 10.0)) < 1e-9;
    });

    [Theory]
    [InlineData(0.5, 12, "old.innerMm")]
    [InlineData(8, 400, "new.innerMm")]
    public void Impossible_thicknesses_are_refused_by_field(double oldEach, double newEach, string field)
    {
        var e = Should.Throw<InputException>(() => HowFar.Compute(Far(oldEach, newEach, 10), RetractDepthRule.AllTheWayHome));
        e.Errors.ShouldContain(x => x.Field == field && x.Allowed == "1 to 60 mm");
    }

    [Theory]
    // room = band x (1 - level): 100 mL at 70 % leaves 30.
    [InlineData(70, 30, RoomVerdict.FitsUnderMax, 0)]
    [InlineData(70, 50, RoomVerdict.OverMaxUnderBrim, 0)]
    [InlineData(70, 55, RoomVerdict.DrawOffFirst, 25)]
    [InlineData(70, 80, RoomVerdict.DrawOffFirst, 50)]
    [InlineData(110, 5, RoomVerdict.DrawOffFirst, 15)]
    [InlineData(122, 0, RoomVerdict.DrawOffFirst, 22)]
    [InlineData(20, 130, RoomVerdict.DrawOffFirst, 20)]
    [InlineData(0, 130, RoomVerdict.DrawWhileRetracting, 0)]
    public void The_rise_is_predicted_before_the_piston_moves(double level, double displaced, RoomVerdict verdict, double draw)
    {
        var r = ReservoirRoom.Judge(new(Volume.FromMilliliters(100), Volume.FromMilliliters(40)), level, Volume.FromMilliliters(displaced));
        r.Verdict.ShouldBe(verdict);
        r.DrawOff.Milliliters.ShouldBe(draw, 1e-9);
        r.LevelAfter.ShouldBe(level + displaced, 1e-9);
    }

    [Fact]
    public void A_level_that_cannot_be_is_refused() =>
        Should.Throw<InputException>(() => ReservoirRoom.Judge(new(Volume.FromMilliliters(100), Volume.FromMilliliters(40)), -1, Volume.Zero)).Errors[0].Field.ShouldBe("levelPercent");

    // Opposed pistons are a form of the service caliper; one with a screw or spindle of its own has its pistons on one side. Common practice, no source.
    [Fact]
    public void Pistons_stand_on_both_sides_only_where_the_parking_brake_is_not_in_the_caliper()
    {
        ArchitectureCatalogue.All.Where(c => c.MayBeOpposed).Select(c => c.Architecture).ShouldBe(
            [Architecture.HatShoes, Architecture.PullerHat, Architecture.MotorHat, Architecture.FixedHat, Architecture.SpotCaliper, Architecture.Plain], ignoreOrder: true);
        ArchitectureCatalogue.All.Where(c => c.IsOpposed).Select(c => c.Architecture).ShouldBe([Architecture.FixedHat]);
    }
}

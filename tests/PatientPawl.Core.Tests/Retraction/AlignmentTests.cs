using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Tests.Retraction;

public class AlignmentTests
{
    private static Angle Deg(double v) => Angle.FromDegrees(v);
    private static Length Mm(double v) => Length.FromMillimeters(v);
    private static AlignmentInput Slot(int n, double present, double wanted, TurnDirection way = TurnDirection.Clockwise, Known free = Known.NotKnown, double? turnsHome = null, double? lead = 0.8, double? need = null, bool bottomed = false, AlignmentRule rule = AlignmentRule.OnwardOnly, double? limit = null) =>
        new(n, Deg(present), Deg(wanted), way, free, turnsHome, lead is { } l ? Mm(l) : null, need is { } d ? Mm(d) : null, bottomed, rule, limit is { } m ? Deg(m) : null);

    [Fact]
    public void Worked_example_two_slots_at_35_wanted_at_90()
    {
        // Worked by hand: onward 55, back-off 125 degrees; lead 0.8 mm brings it out 0.8 x 125 / 360 = 0.28 mm.
        var a = PistonAlignment.Plan(Slot(2, 35, 90));
        a.Onward.Degrees.ShouldBe(55, 1e-9);
        a.BackOff.Degrees.ShouldBe(125, 1e-9);
        a.BackOffComesOut!.Value.Millimeters.ShouldBe(0.8 * 125 / 360, 1e-9);
        var left = PistonAlignment.Plan(Slot(2, 35, 90, TurnDirection.Anticlockwise));
        left.Onward.Degrees.ShouldBe(125, 1e-9);
        left.BackOff.Degrees.ShouldBe(55, 1e-9);
    }

    [Property(MaxTest = 500)]
    public Property Onward_and_back_off_make_up_the_spacing_and_end_on_the_axis() => Prop.ForAll(
        (from n in Gen.Choose(1, 12) from a in Gen.Choose(-360, 720) from t in Gen.Choose(-360, 720) from left in Gen.Elements(true, false) select (n, a, t, left)).ToArbitrary(), x =>
        {
            var (n, a, t, left) = x;
            var way = left ? TurnDirection.Anticlockwise : TurnDirection.Clockwise;
            var r = PistonAlignment.Plan(Slot(n, a, t, way));
            var p = 360.0 / n;
            var sum = r.Onward.Degrees + r.BackOff.Degrees;
            var end = a + (left ? -1 : 1) * r.Onward.Degrees;
            var off = Math.Abs(((end - t) % p + p) % p);
            return r.Onward.Degrees >= 0 && r.Onward.Degrees < p && (r.Onward.Degrees == 0 ? r.BackOff.Degrees == 0 : Math.Abs(sum - p) < 1e-9) && Math.Min(off, p - off) <= (r.Onward.Degrees == 0 ? 2.001 : 0.002);
        });

    [Property(MaxTest = 500)]
    public Property It_ends_aligned_at_or_short_of_home_by_less_than_the_lead_over_the_slots() => Prop.ForAll(
        (from n in Gen.Choose(1, 6) from a in Gen.Choose(0, 359) from turns in Gen.Choose(0, 120) select (n, a, turns / 10.0)).ToArbitrary(), x =>
        {
            var (n, a, turns) = x;
            var r = PistonAlignment.Plan(Slot(n, a, 0, turnsHome: turns));
            if (r.Act is AlignAct.NoWay) return 360 * turns < r.Onward.Degrees + 1e-6;
            var slot = ((a + r.Turn.Degrees) % (360.0 / n) + 360.0 / n) % (360.0 / n);
            return r.Turn.Degrees >= 0 && r.Turn.Degrees <= 360 * turns + 1e-6 && Math.Min(slot, 360.0 / n - slot) <= 2.01 && r.ShortOfHome!.Value.Millimeters < 0.8 / n + 1e-9;
        });

    [Fact]
    public void Four_slots_18_degrees_past_with_four_turns_to_go_stop_18_degrees_early()
    {
        // 72 + 90 x floor((1440 - 72) / 90) = 1422 degrees: 18 short of home, 0.8 x 18 / 360 = 0.04 mm.
        var r = PistonAlignment.Plan(Slot(4, 18, 0, turnsHome: 4));
        r.Act.ShouldBe(AlignAct.StopShort);
        r.Turn.Degrees.ShouldBe(1422, 1e-9);
        r.ShortOfHome!.Value.Millimeters.ShouldBe(0.04, 1e-9);
        r.Says.ShouldContain("never force");
    }

    [Fact]
    public void One_that_turns_freely_at_home_goes_home_first_and_then_on()
    {
        var r = PistonAlignment.Plan(Slot(4, 18, 0, turnsHome: 4, free: Known.Yes, need: 3.2));
        r.Act.ShouldBe(AlignAct.HomeThenOnward);
        r.Turn.Degrees.ShouldBe(1512, 1e-9);
        r.LeavesRoom.ShouldBeTrue();
    }

    [Fact]
    public void Bottomed_and_resisting_is_backed_off_within_the_limit_and_never_forced_on()
    {
        PistonAlignment.Plan(Slot(2, 35, 90, bottomed: true)).Act.ShouldBe(AlignAct.NoWay);
        PistonAlignment.Plan(Slot(2, 35, 90, bottomed: true, rule: AlignmentRule.BackOffAllowed)).Act.ShouldBe(AlignAct.NoWay);
        var allowed = PistonAlignment.Plan(Slot(2, 35, 90, bottomed: true, rule: AlignmentRule.BackOffAllowed, limit: 130));
        allowed.Act.ShouldBe(AlignAct.BackOff);
        allowed.Turn.Degrees.ShouldBe(-125, 1e-9);
        allowed.Says.ShouldContain("0.28 mm");
        PistonAlignment.Plan(Slot(4, 65, 0, bottomed: true, rule: AlignmentRule.BackOffAllowed)).Act.ShouldBe(AlignAct.NoWay, "65 degrees back is over the 30 that a hand is let do where no rule says more");
        PistonAlignment.Plan(Slot(4, 25, 0, bottomed: true, rule: AlignmentRule.BackOffAllowed)).Turn.Degrees.ShouldBe(-25, 1e-9);
        foreach (var free in Enum.GetValues<Known>()) PistonAlignment.Plan(Slot(2, 35, 90, bottomed: true, free: free)).Turn.Degrees.ShouldBeLessThanOrEqualTo(0);
    }

    [Fact]
    public void Stopping_short_must_still_leave_what_the_new_parts_need()
    {
        PistonAlignment.Plan(Slot(4, 18, 0, turnsHome: 4, need: 3.16)).LeavesRoom.ShouldBeTrue();
        var tight = PistonAlignment.Plan(Slot(4, 18, 0, turnsHome: 4, need: 3.18));
        tight.LeavesRoom.ShouldBeFalse();
        tight.Says.ShouldContain("less room");
    }

    [Theory]
    [InlineData(0)]
    [InlineData(90.0005)]
    [InlineData(-0.0005)]
    public void Within_a_thousandth_of_a_degree_it_stands_right(double present) => PistonAlignment.Plan(Slot(4, present, 0, turnsHome: 0)).Act.ShouldBe(AlignAct.Aligned);

    [Theory]
    // Plain geometry: standing at the left side the front of the car is on the left hand.
    [InlineData(Side.Left, CaliperPlace.AheadOfAxle, 270, TurnDirection.Anticlockwise)]
    [InlineData(Side.Left, CaliperPlace.BehindAxle, 90, TurnDirection.Anticlockwise)]
    [InlineData(Side.Right, CaliperPlace.AheadOfAxle, 90, TurnDirection.Clockwise)]
    [InlineData(Side.Right, CaliperPlace.BehindAxle, 270, TurnDirection.Clockwise)]
    public void The_caliper_is_mirrored_from_side_to_side(Side side, CaliperPlace place, double away, TurnDirection wheel)
    {
        var v = PistonAlignment.Facing(side, place);
        v.Away.Degrees.ShouldBe(away);
        v.WheelTurns.ShouldBe(wheel);
    }

    [Fact]
    public void Slots_and_angles_that_cannot_be_are_named() =>
        Should.Throw<InputException>(() => PistonAlignment.Plan(Slot(0, 1000, 0, turnsHome: -1))).Errors.Select(e => e.Field).ShouldBe(["slots", "presentDeg", "turnsHome"]);
}

public class BootAndOpposedTests
{
    private static Length Mm(double v) => Length.FromMillimeters(v);
    private static OpposedPiston P(PistonBank bank, int n, double before, double now) => new(bank, n, Mm(before), Mm(now));

    [Theory]
    // Common practice, no source.
    [InlineData(BootState.Free, false, false)]
    [InlineData(BootState.Wound, true, false)]
    [InlineData(BootState.Torn, true, true)]
    [InlineData(BootState.Wet, true, true)]
    [InlineData(BootState.Bulged, false, false)]
    public void Each_state_of_the_boot_has_its_answer(BootState state, bool stop, bool condemns)
    {
        var a = BootLook.Judge(state, Known.NotKnown, BootRule.Greased);
        (a.Stop, a.Condemns).ShouldBe((stop, condemns));
        BootLook.Judge(state, Known.Yes, BootRule.Greased).Condemns.ShouldBeFalse();
        a.Do.ShouldNotBeEmpty();
    }

    [Fact]
    public void A_piston_that_crept_out_is_held_and_the_furthest_pair_goes_next()
    {
        var a = CreepWatch.Watch([P(PistonBank.Inner, 1, 8, 4), P(PistonBank.Outer, 1, 8, 4), P(PistonBank.Inner, 2, 8, 8.6), P(PistonBank.Outer, 2, 8, 8.1)], Mm(2), Mm(12));
        a.Pistons.Single(p => p.Crept).Piston.ShouldBe(P(PistonBank.Inner, 2, 8, 8.6));
        a.NextPair.ShouldBe(2);
        a.Hold.Select(h => h.Number).ShouldBe([1, 1]);
        a.Says.ShouldContain("Inner 2 crept out by 0.6 mm");
    }

    [Theory]
    [InlineData(8.2, false)]
    [InlineData(8.21, true)]
    public void Creep_is_over_two_tenths(double now, bool crept) =>
        CreepWatch.Watch([P(PistonBank.Inner, 1, 8, now), P(PistonBank.Outer, 1, 8, 6)], Mm(2), null).Pistons.Any(p => p.Crept).ShouldBe(crept);

    [Fact]
    public void One_beyond_its_limit_stops_the_work_and_all_home_ends_it()
    {
        var out_ = CreepWatch.Watch([P(PistonBank.Inner, 1, 11, 12.5), P(PistonBank.Outer, 1, 8, 4)], Mm(2), Mm(12));
        (out_.Stop, out_.NextPair).ShouldBe((true, null));
        CreepWatch.Watch([P(PistonBank.Inner, 1, 8, 2.3), P(PistonBank.Outer, 1, 8, 1.9)], Mm(2), Mm(12)).AllHome.ShouldBeTrue();
    }

    [Fact]
    public void A_piston_without_its_opposite_is_refused() =>
        Should.Throw<InputException>(() => CreepWatch.Watch([P(PistonBank.Inner, 1, 8, 4), P(PistonBank.Inner, 2, 8, 4)], Mm(2), null)).Errors.Count.ShouldBe(2);

    private static HowFarInput Opposed(double oldInner, double oldOuter, double newPad, double oldRotor, double newRotor) =>
        new(new(Mm(oldInner), Mm(oldOuter), Mm(oldRotor)), new(Mm(newPad), Mm(newPad), Mm(newRotor)), Mm(14), Mm(2), null, Mm(28), 4, null, ProtrusionOuter: Mm(13));

    [Fact]
    public void Opposed_sides_each_take_half_the_rotor_and_all_pistons_send_their_fluid()
    {
        // By hand: inner 15 - 8 + (11 - 10) / 2 + 1 = 8.5; outer 15 - 9 + 0.5 + 1 = 7.5.
        var r = HowFar.Opposed(Opposed(8, 9, 15, 10, 11), RetractDepthRule.AsFarAsNeeded);
        r.Inner.Need.Millimeters.ShouldBe(8.5, 1e-9);
        r.Outer.Need.Millimeters.ShouldBe(7.5, 1e-9);
        r.Whole.Displaced.Milliliters.ShouldBe(2 * Math.PI / 4 * 28 * 28 * (8.5 + 7.5) / 1000, 1e-9);
        // All the way home each side has its own way: 12 and 11 mm.
        HowFar.Opposed(Opposed(8, 9, 15, 10, 11), RetractDepthRule.AllTheWayHome).Whole.Displaced.Milliliters.ShouldBe(2 * Math.PI / 4 * 28 * 28 * 23 / 1000, 1e-9);
        Should.Throw<InputException>(() => HowFar.Opposed(Opposed(8, 9, 15, 10, 11) with { PistonsPerCaliper = 3 }, RetractDepthRule.AllTheWayHome)).Message.ShouldContain("pairs");
    }

    [Fact]
    public void Linings_with_their_backing_are_totals()
    {
        var totals = Opposed(8, 9, 15, 10, 11);
        var linings = totals with { Old = new(Mm(2.5), Mm(3.5), Mm(10), LiningOnly: true), Backing = Mm(5.5) };
        HowFar.Opposed(linings, RetractDepthRule.AsFarAsNeeded).Whole.Need.ShouldBe(HowFar.Opposed(totals, RetractDepthRule.AsFarAsNeeded).Whole.Need);
        var sliding = HowFar.Compute(linings with { PistonsPerCaliper = 1 }, RetractDepthRule.AsFarAsNeeded);
        sliding.Need.Millimeters.ShouldBe(HowFar.Compute(totals with { PistonsPerCaliper = 1 }, RetractDepthRule.AsFarAsNeeded).Need.Millimeters, 1e-9);
        Should.Throw<InputException>(() => HowFar.Compute(linings with { Backing = null }, RetractDepthRule.AsFarAsNeeded)).Errors.ShouldContain(e => e.Field == "backingMm");
    }

    [Fact]
    public void Bores_that_differ_add_up_and_a_piston_past_its_limit_is_said()
    {
        var r = HowFar.Compute(Opposed(8, 9, 15, 10, 10) with { PistonsPerCaliper = 2, Diameters = [Mm(30), Mm(40)], ProtrusionLimit = Mm(13.5) }, RetractDepthRule.AllTheWayHome);
        r.Displaced.Milliliters.ShouldBe(Math.PI / 4 * (900 + 1600) * 12 / 1000, 1e-9);
        r.Warnings.ShouldContain(w => w.Contains("13.5 mm"));
        Should.Throw<InputException>(() => HowFar.Compute(Opposed(8, 9, 15, 10, 10) with { Diameters = [Mm(30)] }, RetractDepthRule.AllTheWayHome)).Errors.ShouldContain(e => e.Field == "diametersMm");
    }

    [Theory]
    [InlineData(PatientPawl.Core.Identification.Architecture.RearHex, "rear hex")]
    [InlineData(PatientPawl.Core.Identification.Architecture.MotorPush, "ring seal")]
    [InlineData(PatientPawl.Core.Identification.Architecture.FixedHat, "Spreader")]
    [InlineData(PatientPawl.Core.Identification.Architecture.CableScrew, "left-handed")]
    public void The_procedure_names_what_this_way_back_wants(PatientPawl.Core.Identification.Architecture architecture, string says)
    {
        var ruling = RetractionRuling.Decide(architecture, Side.Left, new(Mm(38), 1, Mm(0.8), Mm(1.5), TurnDirection.Anticlockwise, null, true, 2));
        ruling.Procedure.ShouldContain(p => p.Contains(says));
        if (ruling.Direction is not null) ruling.Procedure.ShouldContain(p => p.Contains("Two stages: anticlockwise until it stops, then clockwise"));
    }
}

using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Shoes;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Core.Tests.Measuring;

/// <summary>Judgement at the edges, with the figures that once were ruled wrongly.</summary>
public class EdgeJudgementTests
{
    private static readonly IReadOnlyList<Instrument> All = InstrumentCatalogue.Defaults;
    private static readonly DateOnly Today = new(2026, 11, 28);

    private static Length Mm(double mm) => Length.FromMillimeters(mm);

    private static Instrument Tool(string id) => InstrumentCatalogue.Get(All, id);

    private static ThicknessVerdict Rotor(double minimum, double? scored, params double[] mm) => RotorThickness.Judge(
        [.. mm.Select((v, i) => new ThicknessReading(Angle.FromDegrees(360.0 / mm.Length * i), Mm(v), Tool("fine-micrometer")))], new(Mm(minimum)) { Scored = scored is { } s ? Mm(s) : null }, All);

    private static readonly double[] Even = [9.2, 9.2, 9.2, 9.2, 9.2, 9.2, 9.2, 9.2];
    private static readonly RotorCondition Looked = RotorCondition.NotLooked with { Cracks = Cracks.None };

    [Theory]
    [InlineData(Look.PullerBox, Seen.Yes)]
    [InlineData(Look.PistonFace, Seen.PlainCup)]
    public void A_lever_car_is_never_ruled_to_be_pushed_by_elimination(Look look, Seen seen)
    {
        Observation[] looks = [new(Look.CabinControl, Seen.HandLever), new(Look.CaliperLever, Seen.Yes), new(Look.RearHexPlug, Seen.No), new(Look.BrakeHose, Seen.Yes), new(Look.PullerBox, Seen.Yes), new(look, seen), new(Look.PistonFace, Seen.TwoNotches)];
        var found = Identify.Corner([.. looks.DistinctBy(o => o.Look).Where(o => look == Look.PullerBox || o.Look != Look.PullerBox)], true);
        found.Ruled.ShouldBeNull();
        found.Contradictions.ShouldNotBeEmpty("look again, with the looks that conflict");
        Identify.Corner([new(Look.CaliperLever, Seen.Yes), new(Look.PistonFace, Seen.PlainCup), new(Look.RearHexPlug, Seen.No), new(Look.BrakeHose, Seen.Yes), new(Look.PushMoves, Seen.Yes)], true).Ruled.ShouldBe(Architecture.LeverPush, "a push that moves says so");
    }

    [Fact]
    public void A_switch_a_plate_motor_and_opposed_pistons_are_one_ruling()
    {
        var found = Identify.Corner([new(Look.CabinControl, Seen.Switch), new(Look.PlateMotor, Seen.Yes), new(Look.OpposedPistons, Seen.Yes)], false);
        found.Next.ShouldNotBeNull().Look.ShouldBe(Look.BrakeHose);
        found = Identify.Corner([new(Look.CabinControl, Seen.Switch), new(Look.PlateMotor, Seen.Yes), new(Look.OpposedPistons, Seen.Yes), new(Look.BrakeHose, Seen.Yes)], false);
        found.Ruled.ShouldBe(Architecture.FixedHat);
    }

    [Fact]
    public void One_pad_place_of_eight_one_shoe_place_of_six_and_two_repeats_at_one_angle_are_not_yet_enough()
    {
        var sheet = new PadSheet(Mm(11), Mm(11), Mm(2));
        PadReading Pad(Side side, PadPosition pad, PadEnd end, double mm) => new(side, pad, end, Mm(mm), Tool("caliper"));
        var one = PadWear.Judge([Pad(Side.Left, PadPosition.Inner, PadEnd.Leading, 8)], sheet, [], All);
        one.Verdict.ShouldBe(Verdict.NotYetEnough);
        one.Wanted.Count.ShouldBe(7);
        one.Wanted.ShouldContain("right outer pad, trailing end");
        var all = (from side in Sides.Both from pad in Enum.GetValues<PadPosition>() from end in Enum.GetValues<PadEnd>() select Pad(side, pad, end, 8)).ToArray();
        PadWear.Judge(all, sheet, [], All).Verdict.ShouldBe(Verdict.Inside);
        PadWear.Judge([Pad(Side.Left, PadPosition.Inner, PadEnd.Leading, 1)], sheet, [], All).Verdict.ShouldBe(Verdict.Outside, "one place is enough to condemn");

        var twice = RotorThickness.Judge([.. new[] { 9.2, 9.2 }.Select(mm => new ThicknessReading(Angle.Zero, Mm(mm), Tool("fine-micrometer")))], new(Mm(8.4)), All);
        twice.VariationVerdict.Verdict.ShouldBe(Verdict.NotYetEnough, "two repeats at one angle vary by nothing");
        twice.Minimum.Verdict.ShouldBe(Verdict.NotYetEnough);
    }

    [Fact]
    public void One_drum_direction_says_nothing_of_out_of_round_and_two_at_each_depth_pass_the_maximum_alone()
    {
        DrumVerdict Drum(params (double At, DrumDepth Depth)[] at) => DrumJudgement.Judge(
            new([.. at.Select(a => new DrumReading(Angle.FromDegrees(a.At), a.Depth, Mm(190.2), Tool("bore-micrometer")))], null, null, 0), new(Mm(191)), All);
        var one = Drum((0, DrumDepth.OpenEdge), (0, DrumDepth.NearFloor));
        one.OutOfRoundVerdict.Verdict.ShouldBe(Verdict.NotYetEnough);
        one.Maximum.Verdict.ShouldBe(Verdict.NotYetEnough);
        var two = Drum((0, DrumDepth.OpenEdge), (90, DrumDepth.OpenEdge), (0, DrumDepth.NearFloor), (90, DrumDepth.NearFloor));
        two.Maximum.Verdict.ShouldBe(Verdict.Inside);
        two.OutOfRoundVerdict.Verdict.ShouldBe(Verdict.NotYetEnough);
        Drum((0, DrumDepth.OpenEdge), (45, DrumDepth.OpenEdge), (90, DrumDepth.OpenEdge), (135, DrumDepth.OpenEdge), (0, DrumDepth.NearFloor), (90, DrumDepth.NearFloor)).OutOfRoundVerdict.Verdict.ShouldBe(Verdict.Inside);
    }

    [Fact]
    public void A_variation_too_close_to_call_or_a_rotor_that_shook_with_no_runout_taken_is_not_kept()
    {
        var close = Rotor(8.4, null, 9.2, 9.2, 9.214, 9.2, 9.2, 9.2, 9.2, 9.2);
        close.VariationVerdict.Verdict.ShouldBe(Verdict.TooCloseToCall);
        RotorRuling.Decide(close, null, null, Looked, Side.Left).Verdict.ShouldBe(Verdict.TooCloseToCall);
        var even = Rotor(8.4, null, Even);
        RotorRuling.Decide(even, null, null, Looked, Side.Left).Verdict.ShouldBe(Verdict.Inside);
        var shook = RotorRuling.Decide(even, null, null, Looked with { Shook = true }, Side.Left);
        shook.Verdict.ShouldBe(Verdict.NotYetEnough);
        shook.Because.ShouldContain("It shook: measure its runout.");
        RotorRuling.Decide(even, null, null, RotorCondition.NotLooked, Side.Left).Because.ShouldBe(["Look for cracks."], "looking settles it, and nothing is renewed for it");
        RotorRuling.Decide(even, null, null, Looked with { Cracks = Cracks.Crazing }, Side.Left).Because[0].ShouldNotContain("no crack");
    }

    [Fact]
    public void A_cut_goes_down_to_the_bottom_of_the_deepest_groove()
    {
        // 8.75 less 2 x 1.2 is 6.35, and 8.4 is wanted.
        var scored = Rotor(8, 1.2, 8.75, 8.75, 8.75, 8.75, 8.75, 8.75, 8.75, 8.75);
        scored.Machine.After.Millimeters.ShouldBe(6.35, 1e-9);
        RotorRuling.Decide(scored, null, null, Looked with { ScoringDepth = Mm(1.2) }, Side.Left).Fate.ShouldBe(RotorFate.Replace);
    }

    [Fact]
    public void A_full_stop_that_ends_an_abbreviation_is_no_decimal_point()
    {
        MinimumStamp.Read("MIN TH.22").Limit.Millimeters.ShouldBe(22);
        MinimumStamp.Read("MIN TH .330 IN").Limit.Millimeters.ShouldBe(8.382, 1e-9);
    }

    [Fact]
    public void Opposed_pistons_on_a_plain_or_spot_brake_go_in_pairs()
    {
        foreach (var architecture in new[] { Architecture.Plain, Architecture.SpotCaliper, Architecture.HatShoes })
            RetractionRuling.Decide(architecture, Side.Left, null, opposed: true).Method.ShouldBe(RetractMethod.OpposedPush);
        RetractionRuling.Decide(Architecture.CableScrew, Side.Left, null, opposed: true).Method.ShouldBe(RetractMethod.TurnAndPush);
        // 8 mm worn off each pad: one side needs 8 + 1, not the 17 of both.
        var each = HowFar.Opposed(new(new(Mm(7), Mm(7), Mm(20)), new(Mm(15), Mm(15), Mm(20)), Mm(13), Mm(3), null, Mm(38), 4, null, ProtrusionOuter: Mm(13)), RetractDepthRule.AsFarAsNeeded);
        each.Inner.Need.Millimeters.ShouldBe(9, 1e-9);
        each.Whole.WillNotGoIn.ShouldBeFalse();
    }

    [Fact]
    public void No_figure_is_set_on_a_wrench_that_cannot_show_it_and_the_one_that_would_do_is_named()
    {
        var line = new TorqueLine(FastenerRole.ActuatorScrew, 2, null, null, PropertyClass.NotKnown, "Torx T30", TorqueQuantity.FromNewtonMeters(6), null, false, false, false, null);
        var big = new Wrench("W9", "to 200", TorqueQuantity.FromNewtonMeters(200), TorqueQuantity.FromNewtonMeters(1), Mm(500), WrenchType.Setting, new(2027, 1, 1));
        var set = TorqueSetting.Compute(line, big, new(Mm(50), Angle.Zero), Today);
        set.WrenchServes.ShouldBeFalse();
        // 6 x 500 / 550 = 5.5: a wrench of 5.5 to 27.3 N m.
        set.Refusal.ShouldNotBeNull().ShouldContain("between 5.5 and 27.3 N m");
        set.Reasons.Lines[^1].Result.ShouldBe(set.Refusal);
    }

    [Theory]
    [InlineData(FastenerRole.SlidePin, 122, true)]
    [InlineData(FastenerRole.SlidePin, 30, false)]
    [InlineData(FastenerRole.RotorScrew, 70, true)]
    public void A_figure_that_is_asked_about_wants_a_reason(FastenerRole role, double nm, bool asked)
    {
        var line = new TorqueLine(role, 2, Mm(8), Mm(1.25), PropertyClass.C88, "hex 13", TorqueQuantity.FromNewtonMeters(nm), null, false, true, false, null);
        var questions = TorqueSetting.Compute(line, null, null, Today).Questions;
        questions.Any(q => q.WantsReason).ShouldBe(asked);
        // 70 lbf in are 7.9 N m, what a rotor screw takes.
        if (role == FastenerRole.RotorScrew) questions.ShouldContain(q => q.Says.Contains("lbf in, it is 7.9 N m"));
    }

    [Fact]
    public void Pipes_are_looked_at_before_anything_is_held_hard()
    {
        foreach (var seconds in new[] { 0, 5, 30 })
            LeakCheck.Judge(new(seconds, false, Known.NotKnown, Known.NotKnown, Known.NotKnown)).Says.ShouldStartWith("Look at pipes and hoses first");
    }

    [Fact]
    public void Standing_still_condemns_nothing_with_home_unknown_near_home_in_a_first_stage_or_over_no_way_at_all()
    {
        var right = new StuckChecks(Known.Yes, Known.Yes, Known.Yes, Known.Yes, true, true);
        LogAnswer Follow(double? home, bool turned, bool twoStage, string gauge, params (double Turns, double Mm)[] at) => RetractionLog.Follow(new(
            [.. at.Select(p => new LogPoint(Guid.NewGuid(), p.Turns, Mm(p.Mm)))], turned, home is { } h ? Mm(h) : null, null, null, [], Tool(gauge), twoStage, false, right, null, null));
        Follow(null, true, false, "depth-gauge", (0, 14), (2, 12.4), (4, 10.8), (5, 10.8), (6, 10.8), (7, 10.8)).Stuck.ShouldBeFalse("home is not known");
        Follow(2, false, false, "steel-rule", (0, 14), (1, 14), (2, 13.5)).Stuck.ShouldBeFalse("it moves by what the rule can tell");
        Follow(2, true, false, "depth-gauge", (0, 14), (0.02, 14), (0.04, 14)).Findings.ShouldNotContain(f => f.Kind == LogFindingKind.StoppedShort, "nothing was turned");
        Follow(2, true, true, "depth-gauge", (0, 14), (1, 14), (2, 14), (3, 14)).Stuck.ShouldBeFalse("the first of two stages ends there");
        Follow(2, true, false, "depth-gauge", (0, 4), (1, 3.2), (2, 2.4), (3, 2.4), (4, 2.4), (5, 2.4), (6, 2.4)).Stuck.ShouldBeFalse("0.4 mm from home");
        Follow(2, true, false, "depth-gauge", (0, 14), (1, 14), (2, 14), (3, 14)).Stuck.ShouldBeTrue("everything is right and it does not move");
    }

    [Fact]
    public void Direction_is_judged_from_loaded_readings_and_across_the_stages()
    {
        LogAnswer Follow(params LogPoint[] points) => RetractionLog.Follow(new(points, true, Mm(2), Mm(0.8), null, [], Tool("depth-gauge"), true, false, StuckChecks.None, null, null));
        LogPoint At(double turns, double mm, int stage = 1, bool released = false) => new(Guid.NewGuid(), turns, Mm(mm), stage, released);
        Follow(At(0, 14), At(1, 13.2), At(1, 13.5, released: true), At(2, 13.42)).Findings.ShouldNotContain(f => f.Kind == LogFindingKind.ComingOut, "it was let go in between");
        Follow(At(0, 14), At(1, 13.2), At(2, 13.6)).Findings.ShouldContain(f => f.Kind == LogFindingKind.ComingOut);
        Follow(At(0, 14), At(1, 13.2), At(1, 16.2, stage: 2)).Findings.ShouldContain(f => f.Kind == LogFindingKind.ComingOut, "3 mm out at the first reading of the second stage");
    }

    [Fact]
    public void A_click_read_by_less_than_the_gauge_can_tell_is_not_counted_by()
    {
        // Anchor and adjuster 70 mm, pitch 1.25, 25 teeth: 0.025 mm of diameter a click.
        var drum = DrumJudgement.Judge(new([.. Enumerable.Range(0, 8).Select(i => new DrumReading(Angle.FromDegrees(i % 4 * 45), i < 4 ? DrumDepth.OpenEdge : DrumDepth.NearFloor, Mm(190.96), Tool("drum-gauge")))], null, null, 0), new(Mm(192)), All);
        var shoes = new ShoeSet(Mm(190), Mm(70), Mm(70), Mm(1.25), 25, false, null, new(Mm(190.01), 1));
        var c = ShoeClearance.Judge(drum, shoes, new(null, null, null));
        c.PerClick.Millimeters.ShouldBe(0.025, 1e-12);
        c.Notes.ShouldContain(n => n.Contains("less than the gauge can tell"));
        // Band 0.30 to 0.35 at 0.05 a click from 0.96: only 13 clicks land in it.
        var pair = ShoeClearance.Judge(drum, shoes with { After = null, LeftRightPair = true }, new(Mm(0.30), Mm(0.35), null));
        (pair.Clicks, pair.InBand).ShouldBe((13, true));
    }

    [Fact]
    public void Within_a_hands_two_degrees_a_slot_stands_right()
    {
        AlignmentAnswer Plan(double now) => PistonAlignment.Plan(new(2, Angle.FromDegrees(now), Angle.FromDegrees(90), TurnDirection.Clockwise, Known.NotKnown, null, Mm(0.8), null, true, AlignmentRule.OnwardOnly));
        Plan(89).Act.ShouldBe(AlignAct.Aligned);
        Plan(91.9).Act.ShouldBe(AlignAct.Aligned);
        Plan(89).Reasons.UsesDefaults.ShouldBeTrue("two degrees are ours, and flagged");
        Plan(95).Act.ShouldBe(AlignAct.NoWay);
    }

    [Fact]
    public void No_pattern_is_read_from_linings_that_are_gone_and_causes_fit_the_brake()
    {
        PadReading[] Pads(double inner, double outer) => [.. from side in Sides.Both from pad in Enum.GetValues<PadPosition>() from end in Enum.GetValues<PadEnd>()
            select new PadReading(side, pad, end, Mm(pad == PadPosition.Inner ? inner : outer), Tool("caliper"))];
        var sheet = new PadSheet(Mm(11), Mm(11), Mm(2));
        PadWear.Judge(Pads(0.1, 0.2), sheet, [], All).Findings.ShouldHaveSingleItem().Pattern.ShouldBe(PadPattern.WornThrough);
        PadWear.Judge(Pads(0.1, 0.2), sheet, [], All).Findings[0].Causes.ShouldBeEmpty();
        string[] Causes(ParkingMechanism parking, Actuation worked) =>
            [.. PadWear.Judge(Pads(3, 8), sheet, [], All, new(ServiceCaliper.Sliding, parking, worked)).Findings.First(f => f.Pattern == PadPattern.InnerThin).Causes.Select(c => c.Id)];
        Causes(ParkingMechanism.ShoesInHat, Actuation.Cable).ShouldNotContain("brake-not-releasing", "shoes in a hat wear no pads");
        Causes(ParkingMechanism.Spindle, Actuation.CaliperMotor).ShouldContain("brake-not-releasing");
    }

    [Fact]
    public void A_forecast_starts_again_at_every_pad_change()
    {
        var over = PadForecast.Compute([new(0, Mm(11)), new(30_000, Mm(5)), new(40_000, Mm(11)), new(60_000, Mm(7))], Mm(2), null);
        // Only the new pads: 4 mm in 20 000 km, 5 mm left.
        over.ToMinimumKm!.Value.ShouldBe(25_000);
        over.WearPerThousandKm.Millimeters.ShouldBe(0.2, 1e-9);
    }

    [Fact]
    public void The_doubt_of_another_stud_position_weighs_both_measured_vectors()
    {
        // Monte Carlo over the two measured vectors: the guard band is no smaller than 1.645 standard deviations of what is predicted. JCGM 101, from memory.
        var random = new Random(3);
        double Gauss() => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
        System.Numerics.Complex hub = new(0.03, 0.01), rotor = new(-0.02, 0.04), moved = System.Numerics.Complex.FromPolarCoordinates(1, 2 * Math.PI / 5), there = System.Numerics.Complex.FromPolarCoordinates(1, 4 * 2 * Math.PI / 5);
        var (weight, u) = ((there - 1) / (1 - moved), 0.004);
        var predicted = Enumerable.Range(0, 20_000).Select(_ =>
        {
            var (m1, m2) = (hub + rotor + new System.Numerics.Complex(u * Gauss(), u * Gauss()), hub + rotor * moved + new System.Numerics.Complex(u * Gauss(), u * Gauss()));
            var r = (m1 - m2) / (1 - moved);
            return 2 * (m1 - r + r * there).Magnitude;
        }).ToArray();
        var spread = Math.Sqrt(predicted.Select(p => Math.Pow(p - predicted.Average(), 2)).Average());
        (2 * u * Math.Sqrt(Math.Pow((1 + weight).Magnitude, 2) + Math.Pow(weight.Magnitude, 2))).ShouldBe(spread, spread * 0.03);
    }
}

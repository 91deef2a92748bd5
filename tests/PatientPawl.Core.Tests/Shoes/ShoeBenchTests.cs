using FsCheck.Xunit;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Shoes;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Tests.Shoes;

public class ShoeBenchTests
{
    private static readonly IReadOnlyList<Instrument> All = InstrumentCatalogue.Defaults;
    private static readonly Instrument Drum = InstrumentCatalogue.Find("drum-gauge")!;
    private static readonly Instrument Bore = InstrumentCatalogue.Find("bore-micrometer")!;
    private static readonly Instrument Depth = InstrumentCatalogue.Find("depth-gauge")!;
    private static readonly Instrument Caliper = InstrumentCatalogue.Find("caliper")!;
    private static readonly ShoeCondition Sound = new(Known.No, Known.No, Known.Yes);
    private static readonly DrumSpec Spec = new(Mm(190), Mm(191), Mm(0.15), null, Mm(1.5), Mm(0.35), Mm(0.55), 6, Mm(80), Mm(80), Mm(1.25), 25, false);

    private static Length Mm(double v) => Length.FromMillimeters(v);
    private static PointReading At(Measurand m, string place, double? deg, double mm, Instrument tool, double? celsius = null) =>
        new(Guid.NewGuid(), m, place, deg is { } d ? Angle.FromDegrees(d) : null, Mm(mm), tool, celsius, default);
    private static List<PointReading> Round(double mm, Instrument? tool = null) =>
        [.. new[] { "open-edge", "near-floor" }.SelectMany(p => new[] { 0, 45, 90, 135 }.Select(d => At(Measurand.DrumDiameter, p, d, mm, tool ?? Drum)))];
    private static LiningReading[] Linings(params double[] mm) => [.. mm.Select((v, i) => new LiningReading((ShoePosition)(i / 3 % 2), (LiningPoint)(i % 3), Mm(v), Depth))];
    private static ShoeBenchAnswer Bench(IReadOnlyList<PointReading> readings, ShoeFacts? facts = null, DrumSpec? spec = null, int? clicks = null) => ShoeBench.Judge(readings, facts ?? ShoeFacts.None, spec, false, clicks, All);

    [Fact]
    public void Only_the_place_in_doubt_needs_the_better_instrument()
    {
        var readings = Round(190.6);
        readings[2] = At(Measurand.DrumDiameter, "open-edge", 90, 190.96, Drum);
        Bench(readings, null, Spec).Drum!.Maximum.Verdict.ShouldBe(Verdict.TooCloseToCall);
        readings.Add(At(Measurand.DrumDiameter, "open-edge", 90, 190.955, Bore));
        var settled = Bench(readings, null, Spec).Drum!;
        settled.Maximum.Verdict.ShouldBe(Verdict.Inside);
        settled.Largest.Millimeters.ShouldBe(190.955, 1e-9);
        settled.Budget.Parts.ShouldNotContain(p => p.FromRepeats);
        // Half a turn round it is the same diameter: a repeat.
        readings.Add(At(Measurand.DrumDiameter, "open-edge", 270, 190.957, Bore));
        Bench(readings, null, Spec).Drum!.Budget.Parts.ShouldContain(p => p.FromRepeats);
        Bench([.. readings, At(Measurand.DrumDiameter, "near-floor", 0, 191.2, Bore)], null, Spec).Drum!.Maximum.Verdict.ShouldBe(Verdict.Outside);
    }

    [Fact]
    public void Waiting_to_cool_settles_what_temperature_left_in_doubt()
    {
        // Drum growth 190 mm x 11e-6 x 40 = 0.0836 mm, worked example; 18 K of doubt is 0.022 mm.
        var facts = ShoeFacts.None with { DrumCelsius = 60, GaugeCelsius = 20, DifferenceDoubtKelvin = 18 };
        var hot = Bench(Round(191.05, Bore), facts, Spec).Drum!;
        hot.Correction.Millimeters.ShouldBe(0.084, 0.001);
        hot.Maximum.Verdict.ShouldBe(Verdict.TooCloseToCall);
        hot.SettledBy.ShouldContain(s => s.Kind == SettleKind.Cooling && s.WouldSettle);
        Bench(Round(190.966, Bore), null, Spec).Drum!.Maximum.Verdict.ShouldBe(Verdict.Inside);
        // A reading carries its own temperature.
        Bench([.. Round(191.05, Bore).Select(r => r with { Celsius = 60 })], null, Spec).Drum!.Largest.Millimeters.ShouldBe(190.966, 0.001);
    }

    [Fact]
    public void Room_to_machine_is_kept_under_the_discard_size()
    {
        // Common practice, from memory: 0.75 mm under discard; 189.6 + 2 x 0.25 = 190.1 < 190.25.
        Bench(Round(189.6), null, Spec with { Nominal = Mm(189) }).Drum!.Machine.Possible.ShouldBeTrue();
        Bench(Round(189.75), null, Spec with { Nominal = Mm(189) }).Drum!.Machine.Possible.ShouldBeFalse();
        Bench(Round(189.75), null, Spec with { Nominal = Mm(189), MachineTo = Mm(190.5) }).Drum!.Machine.Possible.ShouldBeTrue();
    }

    [Theory]
    // Depth gauge 0.01 / 0.03: guard 1.645 x root((0.01/3.464)^2 + (0.03/1.732)^2) = 0.0289 mm, worked by hand.
    [InlineData(1.53, Verdict.Inside)]
    [InlineData(1.51, Verdict.TooCloseToCall)]
    [InlineData(1.47, Verdict.Outside)]
    public void The_thinnest_lining_decides(double thinnest, Verdict verdict)
    {
        var v = ShoeWear.Judge(Linings(2, 2, 2, 2, thinnest, 2), Sound, Mm(1.5), All);
        v.Verdict.ShouldBe(verdict);
        (v.ThinnestAt.Shoe, v.ThinnestAt.Point).ShouldBe((ShoePosition.Rear, LiningPoint.Middle));
        v.Lining.GuardBand.Millimeters.ShouldBe(0.0289, 0.0001);
    }

    [Fact]
    public void A_lifted_bond_or_oil_condemns_and_what_was_not_looked_at_is_not_passed()
    {
        Verdict With(ShoeCondition c) => ShoeWear.Judge(Linings(3, 3, 3, 3, 3, 3), c, null, All).Verdict;
        With(Sound).ShouldBe(Verdict.Inside);
        With(Sound with { BondLifted = Known.Yes }).ShouldBe(Verdict.Outside);
        With(Sound with { Contaminated = Known.Yes }).ShouldBe(Verdict.Outside);
        With(Sound with { BondLifted = Known.NotKnown }).ShouldBe(Verdict.NotYetEnough);
        With(Sound with { SpringsSound = Known.No }).ShouldBe(Verdict.Inside);
        ShoeWear.Judge(Linings(3), Sound, null, All).Notes.ShouldContain(n => n.StartsWith("1 of 6 points", StringComparison.Ordinal));
        ShoeWear.Judge(Linings(3), Sound, null, All).Verdict.ShouldBe(Verdict.NotYetEnough);
        ShoeWear.Judge(Linings(3), Sound, null, All).Reasons.UsesDefaults.ShouldBeTrue("1.0 mm is a flagged default");
    }

    [Fact]
    public void The_lengthening_that_reaches_a_radius_is_exact()
    {
        var geometry = new ShoeGeometry(Mm(95), Mm(80), Mm(70));
        foreach (var e in new[] { -1.5, -0.2, 0, 0.05, 1, 3 })
            geometry.LengtheningFor(geometry.Radius(Angle.Zero, Mm(e))).Millimeters.ShouldBe(e, 1e-9);
    }

    [Property(MaxTest = 60)]
    public void The_first_order_form_differs_from_the_exact_one_by_a_term_in_e_squared(byte theta, byte size)
    {
        var geometry = new ShoeGeometry(Mm(70 + size % 60), Mm(60 + size % 30), Mm(70));
        var angle = Angle.FromDegrees(theta % 121 - 60);
        double Off(double e) => Math.Abs(geometry.Radius(angle, Mm(e)).Millimeters - geometry.FirstOrder(angle, Mm(e)).Millimeters);
        // Bound: e^2 Ra / (8 (Ra + Rb)^2) (Ra / Rs + 1), from the second-order terms; under 3 micrometres at 1 mm on ordinary sizes.
        double ra = geometry.AnchorDistance.Millimeters, sum = ra + 70, bound = ra / (8 * sum * sum) * (ra / geometry.ShoeRadius.Millimeters + 1) * 1.1;
        foreach (var e in new[] { 0.1, 0.5, 1 }) Off(e).ShouldBeLessThanOrEqualTo(bound * e * e + 1e-12);
        bound.ShouldBeLessThan(0.003);
    }

    [Fact]
    public void The_gap_is_least_in_the_middle_once_the_shoes_are_out_and_clicks_there_and_back_return()
    {
        var shoes = new ShoeSet(Mm(190.1), Mm(80), Mm(80), Mm(1.25), 25, false, null, null, Caliper, Mm(190.1));
        var still = GapProfile.AfterClicks(Mm(190.8), shoes, 0);
        still.Points.ShouldAllBe(p => Math.Abs(p.Gap.Millimeters - 0.35) < 1e-9, "at rest on their own circle the gap is the same everywhere");
        var outward = GapProfile.AfterClicks(Mm(190.8), shoes, 14);
        Math.Abs(outward.LeastAt.Degrees).ShouldBeLessThan(3);
        // 14 clicks of 0.05 mm lengthen by 0.7: the middle goes out by e k / 2 = 0.175, the ends at 60 degrees by half of it.
        outward.Least.Millimeters.ShouldBe(0.175, 0.002);
        outward.Points[0].Gap.Millimeters.ShouldBe(0.35 - 0.0875, 0.002);
        var there = shoes with { OverShoes = Mm(190.8) - outward.Least * 2 };
        GapProfile.AfterClicks(Mm(190.8), there, -14).Least.Millimeters.ShouldBe(0.35, 1e-6);
    }

    [Fact]
    public void Contact_of_new_shoes_in_a_worn_drum()
    {
        // Worked example: c = 0.5, t = 0.05 gives 25.84 degrees, 43 % of a 60 degree half-lining.
        var shoes = new ShoeSet(Mm(189.5), Mm(80), Mm(80), Mm(1.25), 25, false, null, null, null, Mm(190));
        var gap = GapProfile.AfterClicks(Mm(191), shoes, 0);
        gap.Contact!.Value.Degrees.ShouldBe(25.84, 0.01);
        gap.ContactShare.ShouldBe(0.43, 0.005);
        gap.Says.ShouldContain("weak parking brake");
        GapProfile.AfterClicks(Mm(190), shoes, 0).ContactShare.ShouldBe(1);
        GapProfile.AfterClicks(Mm(189.9), shoes, 0).Says.ShouldContain("ends touch first");
        GapProfile.AfterClicks(Mm(191), shoes with { ArcDiameter = null }, 0).Contact.ShouldBeNull("nothing is known of the linings' arc");
    }

    [Theory]
    [InlineData(0.3, 0.5, 12)]
    // (2 x 0.3 + 0.2 - 0.5) / 0.025 = 12, worked by hand.
    [InlineData(0.3, 0.51, 12)]
    [InlineData(0.05, 0.5, 0)]
    [InlineData(0.3, null, 33)]
    // From lock: (0.6 + 0.2) / 0.025 = 32, and one click of preload.
    public void Back_off_before_a_ridged_drum_comes_off(double ridge, double? clearance, int clicks)
    {
        var v = RidgeBackOff.Compute(Mm(ridge), clearance is { } c ? Mm(c) : null, Mm(0.025), null);
        v.Clicks.ShouldBe(clicks);
        v.FromLock.ShouldBe(clearance is null);
        v.Reasons.UsesDefaults.ShouldBeTrue();
    }

    [Fact]
    public void Left_and_right_are_alike_within_two_clicks_or_the_doubt()
    {
        ClearanceVerdict At(double over, Instrument tool) => ShoeClearance.Judge(
            DrumJudgement.Judge(new([new(Angle.Zero, DrumDepth.OpenEdge, Mm(190.8), tool), new(Angle.FromDegrees(90), DrumDepth.OpenEdge, Mm(190.8), tool)], null, null, 0), new(Mm(192)), All),
            new(Mm(over), Mm(80), Mm(80), Mm(1.25), 25, false, null, null, tool), new(null, null, null));
        SidesCompared.Judge(At(190.3, Bore), At(190.33, Bore)).Alike.ShouldBeTrue();
        var apart = SidesCompared.Judge(At(190.2, Bore), At(190.3, Bore));
        apart.Alike.ShouldBeFalse();
        // Two clicks of 0.025; the bore micrometer's doubt in four readings, 1.645 x 2 x 0.00913 = 0.030, is less.
        apart.Allowed.Millimeters.ShouldBe(0.05, 1e-9);
        apart.Says.ShouldContain("left side stands 0.1 mm looser");
        // A drum gauge cannot tell these sides apart.
        SidesCompared.Judge(At(190.2, Drum), At(190.3, Drum)).Alike.ShouldBeTrue();
    }

    [Fact]
    public void The_bench_takes_the_safer_of_stamping_and_sheet_and_says_what_it_lacks()
    {
        var empty = Bench([]);
        empty.Drum.ShouldBeNull();
        empty.Lacks.Count.ShouldBe(2);
        var both = Bench(Round(190.5), ShoeFacts.None with { Stamp = "MAX DIA 190.9" }, Spec);
        both.Maximum!.Value.Millimeters.ShouldBe(190.9);
        both.Lacks.ShouldContain(l => l.Contains("differ"));
        // 190.5 drum, 190.0 over the shoes: 0.5 now, aim 0.45, 0.025 a click: 2 clicks, worked by hand.
        var all = Bench([.. Round(190.5), At(Measurand.OverShoes, "now", null, 190.0, Caliper), At(Measurand.Ridge, "open-edge", null, 0.4, Depth)], null, Spec);
        all.Clearance!.Clicks.ShouldBe(2);
        all.Gap!.Least.Millimeters.ShouldBe(0.225, 0.001);
        all.Ridge!.Clicks.ShouldBe(20);
        Bench([.. Round(190.5), At(Measurand.OverShoes, "now", null, 190.0, Caliper)], null, Spec, 0).Gap!.Least.Millimeters.ShouldBe(0.25, 1e-6);
    }

    [Property(MaxTest = 60)]
    public void Striking_a_reading_and_adding_it_back_changes_nothing(byte which, byte seed)
    {
        var random = new Random(seed);
        var readings = Round(190.5).Select(r => r with { Value = Mm(190.5 + Math.Round(0.6 * random.NextDouble(), 2)) }).ToList();
        var (before, one) = (Bench(readings, null, Spec), readings[which % 8]);
        readings.Remove(one);
        readings.Add(one);
        var after = Bench(readings, null, Spec);
        after.Drum!.Largest.ShouldBe(before.Drum!.Largest);
        after.Drum.Maximum.Verdict.ShouldBe(before.Drum.Maximum.Verdict);
        after.Drum.OutOfRound.Millimeters.ShouldBe(before.Drum.OutOfRound.Millimeters, 1e-9);
    }

    [Property(MaxTest = 100)]
    public void More_uncertainty_never_decides_what_was_too_close(byte tenths, byte doubt)
    {
        var drum = Round(190.8 + tenths % 40 / 100.0, Bore);
        var facts = ShoeFacts.None with { DifferenceDoubtKelvin = doubt % 50 };
        var (sure, unsure) = (Bench(drum, null, Spec).Drum!.Maximum.Verdict, Bench(drum, facts, Spec).Drum!.Maximum.Verdict);
        if (sure == Verdict.TooCloseToCall) unsure.ShouldBe(Verdict.TooCloseToCall);
        else unsure.ShouldBeOneOf(sure, Verdict.TooCloseToCall);
    }

    [Fact]
    public void Bad_input_names_field_value_and_range()
    {
        string Field(Action act) => Should.Throw<InputException>(act).Errors[0].Field;
        Field(() => Bench(Round(190), null, Spec with { Nominal = Mm(191.5) })).ShouldBe("maximumMm");
        Field(() => Bench([.. Round(190.5), At(Measurand.OverShoes, "now", null, 190.7, Caliper)], null, Spec)).ShouldBe("overShoesMm");
        Should.Throw<InputException>(() => Bench(Round(7.52), null, Spec)).Errors[0].Message.ShouldContain("191.01");
        Field(() => Bench(Round(190), ShoeFacts.None with { DrumCelsius = 900 }, Spec)).ShouldBe("drumCelsius");
        Field(() => Bench([], null, null, 9999)).ShouldBe("tryClicks");
        Field(() => ShoeWear.Judge([], Sound, null, All)).ShouldBe("linings");
        Field(() => ShoeWear.Judge(Linings(-1), Sound, null, All)).ShouldBe("thicknessMm");
        Field(() => RidgeBackOff.Compute(Mm(9), null, Mm(0.025), null)).ShouldBe("ridgeMm");
        Field(() => ReadingRules.Check([At(Measurand.DrumDiameter, "roof", 0, 190, Drum)], Jobs.Bench.Board.Today)).ShouldBe("place");
        Field(() => ReadingRules.Check([At(Measurand.DrumDiameter, "open-edge", null, 190, Drum)], Jobs.Bench.Board.Today)).ShouldBe("directionDeg");
        Field(() => ReadingRules.Check([At(Measurand.ShoeLining, "front-middle", 45, 2, Depth)], Jobs.Bench.Board.Today)).ShouldBe("directionDeg");
        Field(() => ReadingRules.Check([At(Measurand.DrumDiameter, "open-edge", 0, 1e9, Drum)], Jobs.Bench.Board.Today)).ShouldBe("valueMm");
        Should.Throw<InputException>(() => ReadingRules.Check([At(Measurand.DrumDiameter, "open-edge", 0, 190, Depth)], Jobs.Bench.Board.Today)).Errors[0].Message.ShouldContain("does not get at this");
        Field(() => new Instrument("a b", "x", Mm(0), Mm(9), false, Uses: []).Checked()).ShouldBe("resolutionMm");
    }
}

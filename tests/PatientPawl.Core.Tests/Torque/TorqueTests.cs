using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using PatientPawl.Core.Torque;
using UnitsNet;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Core.Tests.Torque;

public class TorqueTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);

    private static Wrench Wrench(double max = 200, double step = 0.1, double grip = 400, WrenchType type = WrenchType.Setting) =>
        new("W", "Test", TorqueQuantity.FromNewtonMeters(max), TorqueQuantity.FromNewtonMeters(step), Length.FromMillimeters(grip), type, new(2027, 1, 1));

    private static TorqueLine Line(FastenerRole role, double nm, double? high = null, double d = 12, double p = 1.5, PropertyClass c = PropertyClass.NotKnown) =>
        new(role, 2, Length.FromMillimeters(d), Length.FromMillimeters(p), c, "hex", TorqueQuantity.FromNewtonMeters(nm), high is { } h ? TorqueQuantity.FromNewtonMeters(h) : null, false, true, false, null);

    private static Crowfoot Foot(double e, double angle = 0) => new(Length.FromMillimeters(e), Angle.FromDegrees(angle));

    [Theory]
    // NIST SP 811, from memory: exact by the definitions of pound, foot and standard gravity.
    [InlineData(TorqueUnit.LbfFt, 1.3558179483)]
    [InlineData(TorqueUnit.LbfIn, 0.1129848290)]
    [InlineData(TorqueUnit.KgfM, 9.80665)]
    [InlineData(TorqueUnit.Nm, 1)]
    public void Units_convert_as_NIST_says(TorqueUnit unit, double inNm) =>
        TorqueReading.From(20, unit).NewtonMeters.ShouldBe(20 * inNm, 1e-8);

    [Fact]
    public void A_foot_pound_is_built_from_the_definitions() =>
        // 0.3048 m x 0.45359237 kg x 9.80665 m/s^2
        TorqueReading.From(1, TorqueUnit.LbfFt).NewtonMeters.ShouldBe(0.3048 * 0.45359237 * 9.80665, 1e-12);

    [Theory]
    [InlineData("psi", "pressure")]
    [InlineData("pounds", "lbf ft or lbf in")]
    [InlineData("lbs", "lbf ft or lbf in")]
    [InlineData("kg", "kgf m")]
    [InlineData("", "N m, lbf ft")]
    [InlineData(null, "N m, lbf ft")]
    public void A_word_that_is_no_torque_is_refused_with_the_likely_meaning(string? word, string hint)
    {
        var e = Should.Throw<InputException>(() => TorqueReading.Unit(word)).Errors[0];
        e.Field.ShouldBe("unit");
        e.Message.ShouldContain(hint);
    }

    [Theory]
    [InlineData("N m", TorqueUnit.Nm)]
    [InlineData("lbf ft", TorqueUnit.LbfFt)]
    [InlineData("lb-ft", TorqueUnit.LbfFt)]
    [InlineData("N·m", TorqueUnit.Nm)]
    [InlineData("kgf m", TorqueUnit.KgfM)]
    public void Usual_spellings_are_read(string word, TorqueUnit unit) => TorqueReading.Unit(word).ShouldBe(unit);

    [Theory]
    [InlineData(0)]
    [InlineData(-5)]
    [InlineData(double.NaN)]
    [InlineData(1e9)]
    public void A_torque_that_cannot_be_is_refused(double value) =>
        Should.Throw<InputException>(() => TorqueReading.From(value, TorqueUnit.Nm)).Errors[0].Allowed.ShouldBe("1 to 500 N m");

    [Fact]
    public void Crowfoot_worked_example() =>
        // 100 x 400 / 450 = 88.9, worked by hand.
        TorqueSetting.Compute(Line(FastenerRole.Bracket, 100), Wrench(), Foot(50), Today).OnTheScale.NewtonMeters.ShouldBe(88.9, 1e-9);

    [Theory]
    [InlineData(90, 100)]
    [InlineData(0, 88.888889)]
    [InlineData(180, 114.285714)]
    public void The_crowfoots_angle_matters(double angle, double setting) =>
        TorqueSetting.Compute(Line(FastenerRole.Bracket, 100), Wrench(), Foot(50, angle), Today).Setting.NewtonMeters.ShouldBe(setting, 1e-6);

    [Property(MaxTest = 300)]
    public Property A_crowfoot_in_line_always_lowers_and_folded_back_always_raises() => Prop.ForAll(Gen.Choose(1, 390).ToArbitrary(), e =>
        TorqueSetting.Compute(Line(FastenerRole.Bracket, 100), Wrench(), Foot(e), Today).Setting.NewtonMeters < 100
        && TorqueSetting.Compute(Line(FastenerRole.Bracket, 100), Wrench(), Foot(e, 180), Today).Setting.NewtonMeters > 100);

    [Fact]
    public void A_crowfoot_needs_a_wrench_and_one_shorter_than_it()
    {
        Should.Throw<InputException>(() => TorqueSetting.Compute(Line(FastenerRole.Bracket, 100), null, Foot(50), Today)).Errors[0].Field.ShouldBe("wrench");
        Should.Throw<InputException>(() => TorqueSetting.Compute(Line(FastenerRole.Bracket, 100), Wrench(grip: 100), Foot(120), Today)).Errors[0].Field.ShouldBe("crowfoot.extensionMm");
    }

    [Fact]
    public void A_range_keeps_both_ends_and_sets_the_middle()
    {
        // 23 to 28 lbf ft: the middle is 25.5 lbf ft = 34.57 N m.
        var line = Line(FastenerRole.SlidePin, 0, d: 8, p: 1.25) with { Low = TorqueQuantity.FromPoundForceFeet(23), High = TorqueQuantity.FromPoundForceFeet(28) };
        TorqueSetting.Compute(line, null, null, Today).AtTheBoltLbfFt.ShouldBe(25.5, 1e-9);
    }

    [Theory]
    // ISO 898-1 stress areas, from memory: M8x1.25 36.6, M10x1.5 58.0, M10x1.25 61.2, M12x1.75 84.3, M12x1.25 92.1, M12x1.5 88.1, M14x1.5 125 mm^2.
    [InlineData(8, 1.25, 36.6)]
    [InlineData(10, 1.5, 58.0)]
    [InlineData(10, 1.25, 61.2)]
    [InlineData(12, 1.75, 84.3)]
    [InlineData(12, 1.25, 92.1)]
    [InlineData(12, 1.5, 88.1)]
    [InlineData(14, 1.5, 125)]
    public void Stress_areas_of_ISO_898_1(double d, double p, double area) =>
        TorqueSetting.StressAreaMm2(d, p).ShouldBe(area, 0.5 * (area >= 100 ? 1 : 0.12));

    [Theory]
    // ISO 898-1 proof stresses, from memory.
    [InlineData(PropertyClass.C48, 8, 310)]
    [InlineData(PropertyClass.C58, 8, 380)]
    [InlineData(PropertyClass.C88, 16, 580)]
    [InlineData(PropertyClass.C88, 18, 600)]
    [InlineData(PropertyClass.C98, 8, 650)]
    [InlineData(PropertyClass.C109, 8, 830)]
    [InlineData(PropertyClass.C129, 8, 970)]
    public void Proof_stresses_of_ISO_898_1(PropertyClass c, double d, double mpa) => TorqueSetting.ProofStressMPa(c, d).ShouldBe(mpa);

    [Fact]
    public void Strength_worked_example_M8_8_8()
    {
        // 25 N m: 427 MPa dry and 569 lubricated, both under 580; 68 N m (50 lbf ft): 1160. Worked by hand.
        TorqueSetting.Compute(Line(FastenerRole.SlidePin, 25, d: 8, p: 1.25, c: PropertyClass.C88), null, null, Today).Questions.ShouldBeEmpty();
        var over = TorqueSetting.Compute(Line(FastenerRole.SlidePin, 68, d: 8, p: 1.25, c: PropertyClass.C88), null, null, Today);
        over.Questions.ShouldContain(q => q.Kind == TorqueQuestionKind.Strength && q.Says.Contains("116"));
        TorqueSetting.Compute(Line(FastenerRole.SlidePin, 28, d: 8, p: 1.25, c: PropertyClass.C88), null, null, Today).Questions.ShouldContain(q => q.Says.StartsWith("Dry threads only"));
        TorqueSetting.Compute(Line(FastenerRole.Bracket, 2, d: 12, p: 1.5, c: PropertyClass.C109), null, null, Today).Questions.ShouldContain(q => q.Says.StartsWith("Very low"));
    }

    [Fact]
    public void Hollow_bolts_get_no_strength_check() =>
        TorqueSetting.Compute(Line(FastenerRole.Banjo, 45, d: 6, p: 1, c: PropertyClass.C48), null, null, Today).Questions.ShouldBeEmpty();

    [Theory]
    // Common practice, no source: slide pins 16 to 28 lbf ft, brackets 48 to 90, rotor screw 8 N m, wheels 70 to 140 lbf ft all fall inside the bands.
    [InlineData(FastenerRole.SlidePin, 16, TorqueUnit.LbfFt)]
    [InlineData(FastenerRole.SlidePin, 28, TorqueUnit.LbfFt)]
    [InlineData(FastenerRole.Bracket, 48, TorqueUnit.LbfFt)]
    [InlineData(FastenerRole.Bracket, 90, TorqueUnit.LbfFt)]
    [InlineData(FastenerRole.RotorScrew, 8, TorqueUnit.Nm)]
    [InlineData(FastenerRole.Wheel, 70, TorqueUnit.LbfFt)]
    [InlineData(FastenerRole.Wheel, 140, TorqueUnit.LbfFt)]
    public void Usual_figures_raise_no_question(FastenerRole role, double value, TorqueUnit unit) =>
        TorqueSetting.Compute(Line(role, TorqueReading.From(value, unit).NewtonMeters), null, null, Today).Questions.ShouldBeEmpty();

    [Fact]
    public void An_unusual_figure_is_a_question_with_the_other_reading_offered_and_never_a_refusal()
    {
        var high = TorqueSetting.Compute(Line(FastenerRole.SlidePin, 108.5), null, null, Today).Questions.ShouldHaveSingleItem().Says;
        high.ShouldContain("bracket bolt");
        TorqueSetting.Compute(Line(FastenerRole.Wheel, 75), null, null, Today).Questions.ShouldContain(q => q.Says.Contains("If the sheet says lbf ft, it is 101.7 N m"));
    }

    [Fact]
    public void The_wrench_window_is_20_to_100_per_cent_of_its_maximum()
    {
        bool Serves(double nm) => TorqueSetting.Compute(Line(FastenerRole.Bracket, nm), Wrench(max: 200), null, Today).WrenchServes;
        Serves(39.9).ShouldBeFalse();
        Serves(40).ShouldBeTrue();
        Serves(200).ShouldBeTrue();
        Serves(200.1).ShouldBeFalse();
    }

    [Theory]
    // ISO 6789-1:2017, from memory.
    [InlineData(10, WrenchType.Setting, 0.06)]
    [InlineData(10.1, WrenchType.Setting, 0.04)]
    [InlineData(200, WrenchType.BendingBeam, 0.06)]
    public void Permissible_deviation_of_ISO_6789_1(double max, WrenchType type, double share) => Wrench(max, type: type).PermissibleDeviation.ShouldBe(share);

    [Fact]
    public void The_applied_interval_is_at_the_bolt_not_at_the_drive()
    {
        var set = TorqueSetting.Compute(Line(FastenerRole.Bracket, 100), Wrench(), Foot(50), Today);
        set.AppliedLow!.Value.NewtonMeters.ShouldBe(88.9 * 450 / 400 * 0.96, 1e-6);
        set.AppliedHigh!.Value.NewtonMeters.ShouldBe(88.9 * 450 / 400 * 1.04, 1e-6);
    }

    [Fact]
    public void A_wrench_out_of_calibration_does_not_serve()
    {
        var set = TorqueSetting.Compute(Line(FastenerRole.Bracket, 100), Wrench(), null, new(2027, 1, 2));
        set.WrenchServes.ShouldBeFalse();
        TorqueSetting.Compute(Line(FastenerRole.Bracket, 100), Wrench(), null, new(2027, 1, 1)).WrenchServes.ShouldBeTrue();
    }

    [Fact]
    public void A_band_narrower_than_the_wrench_holds_is_said() =>
        TorqueSetting.Compute(Line(FastenerRole.Bracket, 100, 102), Wrench(), null, Today).Questions.ShouldContain(q => q.Says.Contains("narrower"));

    [Fact]
    public void The_smallest_wrench_that_serves_is_taken_and_where_none_does_the_nearest_that_is_in_date_says_why()
    {
        Wrench[] wrenches = [Wrench(200) with { Id = "large" }, Wrench(60) with { Id = "middle" }, Wrench(20) with { Id = "small" }, Wrench(14) with { Id = "old", CalibratedUntil = new(2025, 1, 1) }];
        var suits = WrenchChoice.For(Line(FastenerRole.SlidePin, 45), wrenches, null, Today);
        suits.Take!.Id.ShouldBe("middle");
        suits.Serving.Select(w => w.Id).ShouldBe(["middle", "large"]);
        WrenchChoice.For(Line(FastenerRole.RotorScrew, 12), wrenches[3..], null, Today).Serving.ShouldBeEmpty();
        WrenchChoice.For(Line(FastenerRole.RotorScrew, 3), wrenches, null, Today).Take!.Id.ShouldBe("small");
        // A crowfoot longer than the grip suits no wrench, and is never quietly left out.
        Should.Throw<InputException>(() => WrenchChoice.For(Line(FastenerRole.SlidePin, 45), wrenches, Foot(500), Today)).Errors.Single().Field.ShouldBe("crowfoot.extensionMm");
    }
}

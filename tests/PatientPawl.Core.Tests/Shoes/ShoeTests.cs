using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Shoes;
using UnitsNet;

namespace PatientPawl.Core.Tests.Shoes;

public class ShoeTests
{
    private static readonly double[] Directions = [0, 45, 90, 135];

    private static Length Mm(double v) => Length.FromMillimeters(v);

    private static Instrument Tool(string id) => InstrumentCatalogue.Find(id)!;

    private static DrumVerdict Judge(Drum drum, Length maximum) => DrumJudgement.Judge(drum, new(maximum), InstrumentCatalogue.Defaults);

    private static Drum Drum(double[] open, double[] floor, string tool = "drum-gauge", double? td = null, double? tg = null, double doubt = 0) => new(
        [.. Directions.Zip(open, (d, v) => new DrumReading(Angle.FromDegrees(d), DrumDepth.OpenEdge, Mm(v), Tool(tool))), .. Directions.Zip(floor, (d, v) => new DrumReading(Angle.FromDegrees(d), DrumDepth.NearFloor, Mm(v), Tool(tool)))],
        td, tg, doubt);

    private static Drum Round(double d, string tool = "drum-gauge", double? td = null, double? tg = null) => Drum([d, d, d, d], [d, d, d, d], tool, td, tg);

    private static ShoeSet Shoes(double over, double ra = 80, double rb = 80, int teeth = 25, bool pair = false, int? left = null, SecondReading? after = null) =>
        new(Mm(over), Mm(ra), Mm(rb), Mm(1.25), teeth, pair, left, after);

    private static ClearanceVerdict Clear(double drum, ShoeSet shoes, ClearanceSheet? sheet = null) => ShoeClearance.Judge(Judge(Round(drum), Mm(drum + 2)), shoes, sheet ?? new(null, null, null));

    [Theory]
    // Guard of the drum gauge 0.05 / 0.1: 1.645 x root((0.05/3.464)^2 + (0.1/1.732)^2) = 0.0979 mm, worked by hand.
    [InlineData(190.90, Verdict.Inside)]
    [InlineData(190.95, Verdict.TooCloseToCall)]
    [InlineData(191.00, Verdict.TooCloseToCall)]
    [InlineData(191.09, Verdict.TooCloseToCall)]
    [InlineData(191.10, Verdict.Outside)]
    public void The_largest_reading_decides_against_the_maximum(double largest, Verdict verdict)
    {
        var v = Judge(Drum([190.6, 190.7, largest, 190.7], [190.6, 190.6, 190.6, 190.6]), Mm(191));
        v.Maximum.Verdict.ShouldBe(verdict);
        v.LargestAt.Direction.Degrees.ShouldBe(90);
        v.Maximum.GuardBand.Millimeters.ShouldBe(0.0979, 0.0001);
        (v.SettledBy.Count > 0).ShouldBe(verdict == Verdict.TooCloseToCall);
    }

    [Fact]
    public void What_would_settle_it_is_followed_until_it_is_settled()
    {
        var close = Judge(Drum([190.9, 190.94, 190.96, 190.92], [190.84, 190.88, 190.92, 190.86]), Mm(191));
        close.Maximum.Verdict.ShouldBe(Verdict.TooCloseToCall);
        close.SettledBy.ShouldContain(s => s.Kind == SettleKind.MoreReadings && !s.WouldSettle);
        var better = close.SettledBy.Single(s => s.WouldSettle && s.Says.Contains("bore micrometer"));
        // Bore micrometer 0.01 / 0.015: guard 1.645 x root((0.01/3.464)^2 + (0.015/1.732)^2) = 0.0150, worked by hand.
        better.GuardBand.Millimeters.ShouldBe(0.0150, 0.0001);
        Judge(Drum([190.9, 190.94, 190.96, 190.92], [190.84, 190.88, 190.92, 190.86], "bore-micrometer"), Mm(191)).Maximum.Verdict.ShouldBe(Verdict.Inside);
    }

    [Fact]
    public void Nothing_on_hand_settles_a_reading_on_the_limit() =>
        Judge(Round(191), Mm(191)).SettledBy.ShouldAllBe(s => !s.WouldSettle);

    [Fact]
    public void More_readings_at_one_point_shrink_only_the_part_they_made()
    {
        DrumReading At(double v) => new(Angle.FromDegrees(0), DrumDepth.OpenEdge, Mm(v), Tool("bore-micrometer"));
        // Spread 0.02 at a bore micrometer; n = ceil(s^2 / ((margin/1.645)^2 - u_fixed^2)), worked by hand below.
        var three = new Drum([At(190.96), At(190.98), At(191.00), new(Angle.FromDegrees(90), DrumDepth.OpenEdge, Mm(190.9), Tool("bore-micrometer"))], null, null, 0);
        var v = Judge(three, Mm(191));
        v.Largest.Millimeters.ShouldBe(190.98, 1e-9);
        v.Maximum.Verdict.ShouldBe(Verdict.TooCloseToCall);
        var more = v.SettledBy.Single(s => s.Kind == SettleKind.MoreReadings);
        more.WouldSettle.ShouldBeTrue();
        var (margin, u) = (0.02, Math.Sqrt(Math.Pow(0.01 / (2 * Math.Sqrt(3)), 2) + Math.Pow(0.015 / Math.Sqrt(3), 2)));
        var n = (int)Math.Ceiling(0.0004 / (Math.Pow(margin / 1.645, 2) - u * u));
        more.Says.ShouldBe($"{n - 3} more at the same point would settle it.");
    }

    [Fact]
    public void Drum_growth_worked_example()
    {
        // 190 mm x 11e-6 x 40 K = 0.0836 mm, worked by hand.
        var hot = Judge(Round(190, td: 60), Mm(192));
        hot.Correction.Millimeters.ShouldBe(0.0836, 0.0001);
        // Gauge and drum equally cold: next to no correction.
        Judge(Round(190, td: 5, tg: 5), Mm(192)).Correction.Millimeters.ShouldBe(0, 0.002);
        hot.Reasons.Lines.ShouldContain(l => l.Label == "At 20 °C");
    }

    [Fact]
    public void Shape_is_out_of_round_and_taper_and_never_doubt()
    {
        var v = Judge(Drum([190.90, 190.94, 190.98, 190.92], [190.84, 190.88, 190.92, 190.86]), Mm(192));
        v.OutOfRound.Millimeters.ShouldBe(0.08, 1e-9);
        v.Taper!.Value.Millimeters.ShouldBe(0.06, 1e-9);
        v.Budget.Combined.ShouldBe(Judge(Round(190.9), Mm(192)).Budget.Combined);
        v.Reasons.UsesDefaults.ShouldBeTrue("the out-of-round limit is a default");
    }

    [Property(MaxTest = 200)]
    public Property The_order_of_readings_and_a_striking_out_and_adding_back_change_nothing() => Prop.ForAll(Gen.Choose(0, 7).ToArbitrary(), Gen.Choose(0, int.MaxValue).ToArbitrary(), (strike, seed) =>
    {
        var drum = Drum([190.90, 190.94, 190.98, 190.92], [190.84, 190.88, 190.92, 190.86]);
        var back = drum.Readings.Where((_, i) => i != strike).Append(drum.Readings[strike]).ToArray();
        new Random(seed).Shuffle(back);
        var (a, b) = (Judge(drum, Mm(191)), Judge(drum with { Readings = back }, Mm(191)));
        return Math.Abs((a.Largest - b.Largest).Millimeters) < 1e-9 && Math.Abs((a.Mean - b.Mean).Millimeters) < 1e-9 && a.Maximum.Verdict == b.Maximum.Verdict && Math.Abs((a.OutOfRound - b.OutOfRound).Millimeters) < 1e-9;
    });

    [Fact]
    public void Star_wheel_worked_example()
    {
        // Pitch 1.25, 25 teeth, Ra = Rb: 0.050 mm of length, 0.025 mm of diameter a click. Clearance 0.72, aim 0.45: 10.8, so 11 lands nearest, leaving 0.445.
        var c = Clear(190.84, Shoes(190.12));
        c.PerClick.Millimeters.ShouldBe(0.025, 1e-12);
        c.Clearance.Millimeters.ShouldBe(0.72, 1e-9);
        c.Clicks.ShouldBe(11);
        c.After.Millimeters.ShouldBe(0.445, 1e-9);
        c.InBand.ShouldBeTrue();
        c.Curve.Count.ShouldBe(29);
        c.Reasons.UsesDefaults.ShouldBeTrue();
    }

    [Fact]
    public void A_left_and_right_hand_pair_counts_double_and_a_longer_anchor_arm_more()
    {
        Clear(190.84, Shoes(190.12, pair: true)).PerClick.Millimeters.ShouldBe(0.05, 1e-12);
        Clear(190.84, Shoes(190.12, ra: 90, rb: 60)).PerClick.Millimeters.ShouldBe(0.6 * 0.05, 1e-12);
    }

    [Fact]
    public void Too_tight_backs_off_and_the_rounding_is_to_the_looser_side()
    {
        var tight = Clear(190.84, Shoes(190.74));
        tight.Clicks.ShouldBe(-14);
        tight.After.Millimeters.ShouldBe(0.45, 1e-9);
        tight.Reasons.Lines[^1].Result.ShouldStartWith("Turn 14 clicks back");
        tight.Verdict.ShouldBe(Verdict.Outside);
    }

    [Property(MaxTest = 300)]
    public Property The_clearance_left_lies_in_the_band_and_no_more_than_half_a_click_from_its_middle() => Prop.ForAll(Gen.Choose(0, 2000).ToArbitrary(), hundredth =>
    {
        var c = Clear(192, Shoes(192 - hundredth / 1000.0));
        return c.InBand && Math.Abs(c.After.Millimeters - 0.45) <= c.PerClick.Millimeters / 2 + 1e-9;
    });

    [Property(MaxTest = 200)]
    public Property Clicks_there_and_back_return() => Prop.ForAll(Gen.Choose(100, 1900).ToArbitrary(), thousandth =>
    {
        var first = Clear(192, Shoes(192 - thousandth / 1000.0));
        // The shoes set where the clicks bring them need none.
        return Clear(192, Shoes(192 - first.After.Millimeters)).Clicks == 0;
    });

    [Fact]
    public void Two_readings_beat_geometry_and_a_disagreement_is_said()
    {
        var agree = Clear(190.84, Shoes(190.12, after: new(Mm(190.37), 10)));
        agree.PerClickFromReadings!.Value.Millimeters.ShouldBe(0.025, 1e-9);
        agree.Notes.ShouldBeEmpty();
        var worn = Clear(190.84, Shoes(190.12, after: new(Mm(190.42), 30)));
        worn.PerClick.Millimeters.ShouldBe(0.01, 1e-9);
        worn.Notes.ShouldContain(n => n.Contains("slipping wheel"));
        Should.Throw<InputException>(() => Clear(190.84, Shoes(190.12, after: new(Mm(189.82), 30)))).Errors[0].Field.ShouldBe("after.overShoesMm");
    }

    [Fact]
    public void The_count_school_stands_beside_and_is_not_judged_by_the_gauges_band()
    {
        // Common practice, no source: lock, then five to eight clicks back. Six back, one of preload: 5 x 0.025.
        var c = Clear(190.84, Shoes(190.12), new(null, null, 6));
        c.CountSchool!.Value.Millimeters.ShouldBe(0.125, 1e-12);
        Clear(190.84, Shoes(190.12), new(null, null, 1)).CountSchool!.Value.Millimeters.ShouldBe(0);
        Clear(190.84, Shoes(190.12)).CountSchool.ShouldBeNull();
    }

    [Fact]
    public void More_clicks_than_the_adjuster_has_is_a_drum_too_large_or_shoes_too_thin() =>
        Clear(191.5, Shoes(190.12, left: 20)).Notes.ShouldContain(n => n.Contains("drum too large, or shoes too thin"));

    [Theory]
    [InlineData("MAX DIA 191.00 MM", 191)]
    [InlineData("MAX 7.52 IN", 191.008)]
    [InlineData("Ø 191", 191)]
    [InlineData("191,5", 191.5)]
    [InlineData("7.52\"", 191.008)]
    [InlineData("max dia 191.00mm", 191)]
    [InlineData("7.52", 191.008)]
    public void Stampings_are_read_and_what_was_understood_is_said(string typed, double mm)
    {
        var read = MaximumStamp.Read(typed);
        read.Limit.Millimeters.ShouldBe(mm, 1e-6);
        read.Understood.ShouldNotBeEmpty();
    }

    [Theory]
    [InlineData("")]
    [InlineData(null)]
    [InlineData("MAX")]
    [InlineData("191 / 192")]
    [InlineData("MAX DIA 0.5 MM")]
    [InlineData("1e9")]
    [InlineData("191 mm 7.52 in")]
    public void What_is_no_stamping_is_refused(string? typed) => Should.Throw<InputException>(() => MaximumStamp.Read(typed)).Errors[0].Field.ShouldBe("stamp");

    [Fact]
    public void Bad_input_is_named()
    {
        Should.Throw<InputException>(() => Judge(new([], null, null, 0), Mm(191))).Errors[0].Field.ShouldBe("readings");
        Should.Throw<InputException>(() => Judge(Round(7.52), Mm(191))).Errors[0].Message.ShouldContain("in inches it would be 191.01 mm");
        Should.Throw<InputException>(() => InstrumentCatalogue.Get(InstrumentCatalogue.Defaults, "thumb")).Errors[0].Field.ShouldBe("instrumentId");
        Should.Throw<InputException>(() => Judge(Round(191, td: 400), Mm(191))).Errors[0].Field.ShouldBe("drumCelsius");
        Should.Throw<InputException>(() => Clear(190, Shoes(190.5))).Errors[0].Message.ShouldContain("drum is smaller than the shoes");
        Should.Throw<InputException>(() => Clear(190.84, Shoes(190.12), new(Mm(0.6), Mm(0.3), null))).Errors[0].Field.ShouldBe("targetHighMm");
    }

    [Fact]
    public void Exact_geometry_and_its_first_order_differ_by_less_than_a_micrometre_and_as_the_square()
    {
        var g = new ShoeGeometry(Mm(95), Mm(75), Mm(75));
        double Gap(double e) => Enumerable.Range(-12, 25).Max(i => Math.Abs(g.Radius(Angle.FromDegrees(i * 5), Mm(e)).Millimeters - g.FirstOrder(Angle.FromDegrees(i * 5), Mm(e)).Millimeters));
        Gap(1).ShouldBeLessThan(0.003);
        (Gap(1) / Gap(0.5)).ShouldBe(4, 0.05);
        g.Radius(Angle.Zero, Mm(0)).Millimeters.ShouldBe(95, 1e-12);
        // At its middle the diameter over the shoes grows by k e.
        (2 * (g.Radius(Angle.Zero, Mm(0.05)).Millimeters - 95)).ShouldBe(0.5 * 0.05, 1e-5);
    }

    [Fact]
    public void Contact_worked_example()
    {
        // c 0.5, t 0.05: arccos(0.9) = 25.84 degrees, 43 % of a +-60 degree lining; worked by hand.
        var half = ShoeGeometry.ContactHalfAngle(Mm(95), Mm(95.5), Mm(0.05), Angle.FromDegrees(60))!.Value.Degrees;
        half.ShouldBe(25.84, 0.005);
        (half / 60).ShouldBe(0.43, 0.005);
        ShoeGeometry.ContactHalfAngle(Mm(95), Mm(95), Mm(0.05), Angle.FromDegrees(60))!.Value.Degrees.ShouldBe(60);
        ShoeGeometry.ContactHalfAngle(Mm(95), Mm(94.9), Mm(0.05), Angle.FromDegrees(60)).ShouldBeNull();
    }

    [Fact]
    public void Reasoning_reads_like_a_page()
    {
        var lines = Clear(190.84, Shoes(190.12), new(null, null, 6)).Reasons.Lines;
        lines.Select(l => l.Label).ShouldBe(["Clearance", "Target", "A click, by geometry", "Clicks", "Left after them", "Preload at lock", "Count school", "Guard band", "So"]);
        lines.Where(l => l.SourceId is not null).ShouldAllBe(l => PatientPawl.Core.Workshop.Sources.Get(l.SourceId!).Id == l.SourceId);
    }
}

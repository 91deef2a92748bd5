using FsCheck.Xunit;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Vehicles;
using UnitsNet;

using Reference = MathNet.Numerics.Distributions.StudentT;

namespace PatientPawl.Core.Tests.Pads;

public class PadTests
{
    private static readonly IReadOnlyList<Instrument> All = InstrumentCatalogue.Defaults;
    private static readonly Instrument Depth = InstrumentCatalogue.Find("depth-gauge")!;
    private static readonly Instrument Coarse = InstrumentCatalogue.Find("pad-gauge")!;
    private static readonly PadSheet Sheet = new(Mm(10), Mm(10), Mm(2));

    private static Length Mm(double v) => Length.FromMillimeters(v);

    /// <summary>Left inner leading and trailing, left outer, right inner, right outer.</summary>
    private static PadReading[] Axle(params double[] mm) => Axle(Depth, mm);
    private static PadReading[] Axle(Instrument tool, double[] mm) =>
        [.. mm.Select((v, i) => new PadReading(i < 4 ? Side.Left : Side.Right, i % 4 < 2 ? PadPosition.Inner : PadPosition.Outer, i % 2 == 0 ? PadEnd.Leading : PadEnd.Trailing, Mm(v), tool))];
    private static PadsVerdict Judge(PadReading[] axle, PadSheet? sheet = null, params CauseChecked[] answers) => PadWear.Judge(axle, sheet ?? Sheet, answers, All);

    [Fact]
    public void Percent_left_counts_from_the_minimum_and_each_pad_goes_by_its_thinner_end()
    {
        var v = Judge(Axle(6, 5, 6, 6, 6, 6, 6, 6));
        // (5 - 2) / (10 - 2) = 37.5 %, worked by hand.
        v.Pads[0].PercentLeft.ShouldBe(37.5, 1e-9);
        v.Thinnest.ShouldBe(v.Pads[0]);
        v.Verdict.ShouldBe(Verdict.Inside);
        v.Findings.ShouldBeEmpty();
        // Zero wear is all of it left; at the minimum none is.
        Judge(Axle(10, 10, 10, 10, 10, 10, 10, 10)).Pads.ShouldAllBe(p => p.PercentLeft == 100);
        Judge(Axle(2, 2, 2, 2, 2, 2, 2, 2)).Pads.ShouldAllBe(p => p.PercentLeft == 0 && p.Minimum.Verdict == Verdict.TooCloseToCall);
    }

    [Theory]
    [InlineData(new[] { 3.0, 3, 7, 7, 7, 7, 7, 7 }, PadPattern.InnerThin, Side.Left, "frozen-in-bracket")]
    [InlineData(new[] { 7.0, 7, 7, 7, 7, 7, 4, 4 }, PadPattern.OuterThin, Side.Right, "pins-seized")]
    [InlineData(new[] { 7.0, 4, 7, 7, 7, 7, 7, 7 }, PadPattern.Tapered, Side.Left, "one-ear-frozen")]
    [InlineData(new[] { 4.0, 4, 4, 4, 7, 7, 7, 7 }, PadPattern.OneSideThin, Side.Left, "that-caliper")]
    public void Patterns_and_their_likeliest_cause(double[] mm, PadPattern pattern, Side side, string cause)
    {
        // The table of patterns: common practice, no source.
        var found = Judge(Axle(mm)).Findings.First(f => f.Pattern == pattern);
        found.Side.ShouldBe(side);
        found.Causes[0].Id.ShouldBe(cause);
    }

    [Fact]
    public void Much_thinner_is_more_than_the_smaller_of_two_millimetres_and_a_third_and_more_than_the_doubt()
    {
        bool Found(double inner, double outer, Instrument tool) => Judge(Axle(tool, [inner, inner, outer, outer])).Findings.Any(f => f.Pattern == PadPattern.InnerThin);
        // 9 mm: the smaller of 2.0 and 3.0 is 2.0.
        Found(7.0, 9, Depth).ShouldBeFalse();
        Found(6.99, 9, Depth).ShouldBeTrue();
        // 4.5 mm: a third is 1.5.
        Found(3.0, 4.5, Depth).ShouldBeFalse();
        Found(2.99, 4.5, Depth).ShouldBeTrue();
        // A pad gauge, 1.645 x 1.414 x root(0.144^2 + 0.173^2) = 0.524: a third of 1.5 mm is nothing it can see.
        Found(0.985, 1.5, Coarse).ShouldBeFalse();
        Found(0.985, 1.5, Depth).ShouldBeTrue();
    }

    [Fact]
    public void A_check_that_is_answered_ranks_the_causes_anew()
    {
        PadFinding With(params CauseChecked[] a) => Judge(Axle(3, 3, 7, 7, 7, 7, 7, 7), null, a).Findings[0];
        With(new CauseChecked("piston-not-back", Side.Left, CheckAnswer.Confirms)).Causes[0].Id.ShouldBe("piston-not-back");
        With(new CauseChecked("frozen-in-bracket", Side.Left, CheckAnswer.RulesOut)).Causes[^1].Id.ShouldBe("frozen-in-bracket");
        // An answer at the other corner changes nothing here.
        With(new CauseChecked("piston-not-back", Side.Right, CheckAnswer.Confirms)).Causes[0].Id.ShouldBe("frozen-in-bracket");
    }

    [Fact]
    public void Rear_against_front_plain_wear_and_metal_to_metal()
    {
        Judge(Axle(4, 4, 4, 4, 4, 4, 4, 4), Sheet with { FrontLeast = Mm(9) }).Findings.Single().Pattern.ShouldBe(PadPattern.RearThin);
        var even = Judge(Axle(1.5, 1.5, 1.5, 1.5, 1.5, 1.5, 1.5, 1.5));
        (even.Verdict, even.Findings.Single().Pattern).ShouldBe((Verdict.Outside, PadPattern.EvenThin));
        // Half the places of a pad set with most of its lining left: not passed yet, and not thin either.
        Judge([.. Axle(7, 7, 7, 7, 7, 7, 7, 7).Where(r => r.Side == Side.Left)]).Findings.ShouldBeEmpty();
        Judge(Axle(0, 0, 4, 4, 4, 4, 4, 4)).Notes.ShouldContain(n => n.Contains("rotor is judged too"));
    }

    [Theory]
    // Common practice, no source: indicator at the leading end, which is the bottom for a caliper behind the axle.
    [InlineData(CaliperPlace.BehindAxle, true)]
    [InlineData(CaliperPlace.AheadOfAxle, false)]
    public void The_leading_end_follows_from_where_the_caliper_sits(CaliperPlace place, bool bottom)
    {
        // Rolling forward, front to the left: omega points out of the page, v = omega x r. Where it points is where the pad leads.
        var x = place == CaliperPlace.BehindAxle ? 1.0 : -1.0;
        var upward = x;
        (upward > 0).ShouldBe(bottom, "a rotor that moves up enters at the bottom");
        var card = PadPlacement.Card(new(place, true, true, true, true, Known.Yes));
        card.LeadingEndAtBottom.ShouldBe(bottom);
        card.Lines.ShouldContain(l => l.Contains("indicator") && l.Contains(bottom ? "bottom" : "top"));
        card.Lines.ShouldContain(l => l.Contains("a new one"));
        card.Lines[^1].ShouldContain("never the lining");
    }

    [Fact]
    public void The_forecast_of_a_straight_line_is_exact()
    {
        // 10 mm new, 0.1 mm a 1000 km: 2 mm after 80 000 km, 50 000 km on.
        var f = PadForecast.Compute([new(0, Mm(10)), new(10_000, Mm(9)), new(20_000, Mm(8)), new(30_000, Mm(7))], Mm(2), 40_000);
        f.ToMinimumKm.ShouldBe(50_000);
        f.WearPerThousandKm.Millimeters.ShouldBe(0.1, 1e-9);
        f.LowKm!.Value.ShouldBeInRange(49_998, 50_002);
        f.HighKm!.Value.ShouldBeInRange(49_998, 50_002);
        f.LastsToNext.ShouldBe(1);
        f.FromDefault.ShouldBeFalse();
    }

    [Fact]
    public void Two_points_give_no_band_and_one_gives_the_flagged_default()
    {
        var two = PadForecast.Compute([new(0, Mm(10)), new(20_000, Mm(8))], Mm(2), 30_000);
        (two.ToMinimumKm, two.LowKm, two.LastsToNext).ShouldBe((60_000, null, null));
        two.Says.ShouldContain("two points always lie on a line");
        var one = PadForecast.Compute([new(50_000, Mm(6))], Mm(2), 40_000);
        one.FromDefault.ShouldBeTrue();
        one.Reasons.UsesDefaults.ShouldBeTrue();
        // 4 mm at 0.10, 0.15 and 0.05 a 1000 km.
        (one.ToMinimumKm, one.LowKm, one.HighKm).ShouldBe((40_000, 26_667, 80_000));
        one.LastsToNext!.Value.ShouldBe(0.5, 1e-9);
    }

    [Fact]
    public void The_band_is_where_the_line_cannot_be_told_from_the_minimum()
    {
        WearPoint[] points = [new(0, Mm(10.1)), new(8_000, Mm(9.1)), new(17_000, Mm(8.5)), new(26_000, Mm(7.4)), new(33_000, Mm(6.9))];
        var f = PadForecast.Compute(points, Mm(2), 30_000);
        // Fieller: at either end the line's t value against the minimum is the 95 % point; worked here from scratch.
        var x = points.Select(p => p.OdometerKm / 1000.0).ToArray();
        var y = points.Select(p => p.Lining.Millimeters).ToArray();
        double xm = x.Average(), ym = y.Average(), sxx = x.Sum(v => (v - xm) * (v - xm)), b = x.Zip(y, (p, q) => (p - xm) * (q - ym)).Sum() / sxx;
        var s = Math.Sqrt(x.Zip(y, (p, q) => Math.Pow(q - ym - b * (p - xm), 2)).Sum() / 3);
        double T(double at) => (ym + b * (at - xm) - 2) / (s * Math.Sqrt(1.0 / 5 + (at - xm) * (at - xm) / sxx));
        var t95 = Reference.InvCDF(0, 1, 3, 0.95);
        T(33 + f.LowKm!.Value / 1000.0).ShouldBe(t95, 0.005);
        T(33 + f.HighKm!.Value / 1000.0).ShouldBe(-t95, 0.005);
        f.LastsToNext!.Value.ShouldBe(Reference.CDF(0, 1, 3, T(63)), 1e-6);
        f.LowKm.Value.ShouldBeLessThan(f.ToMinimumKm!.Value);
        f.HighKm.Value.ShouldBeGreaterThan(f.ToMinimumKm.Value);
    }

    [Fact]
    public void Lining_that_grows_and_points_that_scatter_are_said()
    {
        var grows = PadForecast.Compute([new(0, Mm(6)), new(10_000, Mm(6.2)), new(20_000, Mm(6.4))], Mm(2), 10_000);
        grows.ToMinimumKm.ShouldBeNull();
        grows.LastsToNext.ShouldBeNull("what grows says nothing of lasting");
        var wild = PadForecast.Compute([new(0, Mm(8)), new(1_000, Mm(7.2)), new(2_000, Mm(8.1)), new(3_000, Mm(7.3))], Mm(2), 5_000);
        wild.HighKm.ShouldBeNull();
        wild.Says.ShouldContain("scatter");
        PadForecast.Compute([new(0, Mm(8)), new(10_000, Mm(2)), new(11_000, Mm(1.5))], Mm(2), null).ToMinimumKm.ShouldBe(0);
    }

    [Property(MaxTest = 80)]
    public void Student_t_agrees_with_a_general_purpose_library(byte freedom, short tenth)
    {
        var n = freedom % 60 + 1;
        var t = tenth / 1000.0;
        // MathNet.Numerics as reference.
        StudentT.Cumulative(t, n).ShouldBe(Reference.CDF(0, 1, n, t), 1e-9);
    }

    [Theory]
    // Published tables of Student's t, from memory: one-sided 95 %.
    [InlineData(1, 6.314)]
    [InlineData(2, 2.920)]
    [InlineData(3, 2.353)]
    [InlineData(10, 1.812)]
    [InlineData(30, 1.697)]
    public void Student_t_agrees_with_the_tables(int freedom, double t95) => StudentT.Quantile(0.95, freedom).ShouldBe(t95, 0.0006);

    [Fact]
    public void Bad_input_names_field_value_and_range()
    {
        string Field(Action act) => Should.Throw<InputException>(act).Errors[0].Field;
        Field(() => Judge([])).ShouldBe("pads");
        Field(() => Judge(Axle(-1, 5))).ShouldBe("liningMm");
        Should.Throw<InputException>(() => Judge(Axle(16, 5))).Errors[0].Message.ShouldContain("is the backing plate in it?");
        Field(() => Judge(Axle(5, 5), Sheet with { NewInner = Mm(2) })).ShouldBe("newInnerMm");
        Field(() => Judge(Axle(5, 5), null, new CauseChecked("gremlins", null, CheckAnswer.Confirms))).ShouldBe("causeId");
        Field(() => PadForecast.Compute([], Mm(2), null)).ShouldBe("history");
        Field(() => PadForecast.Compute([new(-5, Mm(5))], Mm(2), null)).ShouldBe("odometerKm");
        Field(() => PadForecast.Compute([new(5, Mm(5))], Mm(2), 0)).ShouldBe("nextInspectionKm");
    }

    [Fact]
    public void The_bench_counts_todays_thinnest_as_a_point_of_its_history()
    {
        PointReading At(string place, double mm) => new(Guid.NewGuid(), Measurand.PadLining, place, null, Mm(mm), Depth, null, default);
        SidedReading[] readings = [new(Side.Left, At("inner-leading", 7)), new(Side.Right, At("outer-trailing", 8))];
        var facts = PadFacts.None with { OdometerKm = 30_000, History = [new(0, Mm(10)), new(10_000, Mm(9)), new(99_000, Mm(1))] };
        var bench = PadBench.Judge(readings, facts, new(Mm(15.5), Mm(15.5), Mm(5.5), Mm(2)), All);
        // A point from beyond today's odometer is not history.
        bench.Forecast!.ToMinimumKm.ShouldBe(50_000);
        PadBench.Judge([], PadFacts.None, null, All).Pads.ShouldBeNull();
    }
}

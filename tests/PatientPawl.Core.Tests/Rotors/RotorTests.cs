using FsCheck.Xunit;
using MathNet.Numerics.LinearAlgebra;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Tests.Rotors;

public class RotorTests
{
    private static readonly IReadOnlyList<Instrument> All = InstrumentCatalogue.Defaults;
    private static readonly Instrument Micrometer = InstrumentCatalogue.Find("micrometer")!;
    private static readonly Instrument Fine = InstrumentCatalogue.Find("fine-micrometer")!;
    private static readonly Instrument Dial = InstrumentCatalogue.Find("dial")!;

    private static Length Mm(double v) => Length.FromMillimeters(v);
    private static Angle Deg(double v) => Angle.FromDegrees(v);
    private static ThicknessReading[] Ring(Instrument tool, params double[] mm) => [.. mm.Select((v, i) => new ThicknessReading(Deg(360.0 / mm.Length * i), Mm(v), tool))];
    private static ThicknessVerdict Thickness(Instrument tool, double minimum, params double[] mm) => RotorThickness.Judge(Ring(tool, mm), new(Mm(minimum)), All);

    private static RunoutRun Run(Func<double, double> mm, int n = 12, double moved = 0, double from = 0) =>
        new([.. Enumerable.Range(0, n).Select(i => from + 360.0 / n * i).Select(d => new RunoutReading(Deg(d), Mm(mm(d * Math.PI / 180))))], Dial, Deg(moved));

    [Theory]
    // Micrometer 0.01 / 0.004: guard 1.645 x root((0.01/3.464)^2 + (0.004/1.732)^2) = 0.00608 mm, worked by hand.
    [InlineData(8.41, Verdict.Inside)]
    [InlineData(8.405, Verdict.TooCloseToCall)]
    [InlineData(8.4, Verdict.TooCloseToCall)]
    [InlineData(8.395, Verdict.TooCloseToCall)]
    [InlineData(8.393, Verdict.Outside)]
    public void The_smallest_thickness_decides_against_the_minimum(double smallest, Verdict verdict)
    {
        var v = Thickness(Micrometer, 8.4, 9, 9, smallest, 9, 9, 9, 9, 9);
        v.Minimum.Verdict.ShouldBe(verdict);
        v.SmallestAt.Degrees.ShouldBe(90);
        v.Minimum.GuardBand.Millimeters.ShouldBe(0.00608, 0.00001);
        (v.SettledBy.Count > 0).ShouldBe(verdict == Verdict.TooCloseToCall);
    }

    [Fact]
    public void What_settles_it_is_taken_and_it_is_settled()
    {
        var close = Thickness(Micrometer, 8.4, 8.405, 9, 9, 9);
        close.SettledBy.Single(s => s.WouldSettle).Says.ShouldStartWith("The digital micrometer will");
        // Only the place in question is measured again: the finer reading there decides, the rest stay as they were.
        var again = RotorThickness.Judge([.. Ring(Micrometer, 8.405, 9, 9, 9), new(Deg(0), Mm(8.405), Fine)], new(Mm(8.4)), All);
        again.Minimum.Verdict.ShouldBe(Verdict.Inside);
        again.Smallest.Millimeters.ShouldBe(8.405, 1e-9);
    }

    [Fact]
    public void Equal_readings_vary_by_nothing_and_equal_their_mean()
    {
        var v = Thickness(Fine, 8.4, 9.2, 9.2, 9.2, 9.2, 9.2, 9.2, 9.2, 9.2);
        v.Variation.Millimeters.ShouldBe(0);
        v.Mean.Millimeters.ShouldBe(9.2, 1e-12);
        v.VariationVerdict.Verdict.ShouldBe(Verdict.Inside);
    }

    [Fact]
    public void Variation_is_a_difference_with_root_two_of_the_doubt_and_a_plain_micrometer_can_hardly_decide_it()
    {
        // JCGM 100:2008, from memory: two readings in a difference add in quadrature.
        var plain = Thickness(Micrometer, 8.4, 9.2, 9.21, 9.2, 9.2);
        plain.VariationVerdict.GuardBand.Millimeters.ShouldBe(plain.Minimum.GuardBand.Millimeters * Math.Sqrt(2), 1e-9);
        plain.VariationVerdict.Verdict.ShouldBe(Verdict.TooCloseToCall);
        plain.Notes.ShouldContain(n => n.Contains("can hardly decide"));
        plain.VariationSettledBy.ShouldContain(s => s.WouldSettle && s.Says.Contains("digital micrometer"));
        Thickness(Fine, 8.4, 9.2, 9.21, 9.2, 9.2, 9.2, 9.2, 9.2, 9.2).VariationVerdict.Verdict.ShouldBe(Verdict.Inside);
        Thickness(Fine, 8.4, 9.2, 9.21, 9.2, 9.2).VariationVerdict.Verdict.ShouldBe(Verdict.NotYetEnough, "four places never give a pass");
        Thickness(Fine, 8.4, 9.2, 9.23, 9.2, 9.2).VariationVerdict.Verdict.ShouldBe(Verdict.Outside);
    }

    [Fact]
    public void A_cut_must_leave_four_tenths_over_the_minimum()
    {
        // From memory: smallest - 2 x clean-up at least 0.4 over the minimum. 9.1 - 0.3 = 8.8 = 8.4 + 0.4.
        Thickness(Micrometer, 8.4, 9.1, 9.1, 9.1, 9.1).Machine.Possible.ShouldBeTrue();
        Thickness(Micrometer, 8.4, 9.09, 9.1, 9.1, 9.1).Machine.Possible.ShouldBeFalse();
    }

    [Theory]
    [InlineData("MIN TH 8.4 MM", 8.4, "8.4 mm")]
    [InlineData("MIN. TH. 8,4", 8.4, "no unit stamped, taken as mm")]
    [InlineData("MIN .330 IN", 8.382, "0.33 inch")]
    [InlineData("min thickness 0.33", 8.382, "no unit stamped, taken as inch")]
    [InlineData("22", 22, "taken as mm")]
    public void A_stamped_minimum_is_read_and_what_was_understood_is_said(string stamp, double mm, string says)
    {
        var read = MinimumStamp.Read(stamp);
        read.Limit.Millimeters.ShouldBe(mm, 1e-9);
        read.Understood.ShouldContain(says);
    }

    [Theory]
    [InlineData("")]
    [InlineData("MIN TH")]
    [InlineData("8.4 / 10")]
    [InlineData("-8.4 mm")]
    [InlineData("0.01 mm")]
    [InlineData("900 mm")]
    [InlineData("8.4 mm in")]
    public void A_stamp_that_says_nothing_is_refused(string stamp) => Should.Throw<InputException>(() => MinimumStamp.Read(stamp)).Errors[0].Field.ShouldBe("stamp");

    [Theory]
    [InlineData(12)]
    [InlineData(8)]
    [InlineData(5)]
    [InlineData(3)]
    public void A_pure_cosine_is_fitted_exactly(int n)
    {
        var fit = Runout.Fit(Run(t => 0.01 + 0.04 * Math.Cos(t) - 0.03 * Math.Sin(t), n), null, All);
        fit.CosinePart.Millimeters.ShouldBe(0.04, 1e-9);
        fit.SinePart.Millimeters.ShouldBe(-0.03, 1e-9);
        fit.Offset.Millimeters.ShouldBe(0.01, 1e-9);
        // 2 A with A = hypot(0.04, 0.03) = 0.05.
        fit.OncePerTurn.Millimeters.ShouldBe(0.1, 1e-9);
        fit.Residual.Millimeters.ShouldBe(0, 1e-9);
        fit.ResidualJudged.ShouldBe(n >= 5);
        fit.Notes.Any(x => x.Contains("cannot be judged")).ShouldBe(n < 5);
    }

    [Fact]
    public void The_fit_and_its_doubt_agree_with_a_general_purpose_least_squares()
    {
        var random = new Random(7);
        double[] angles = [0, 20, 75, 110, 160, 200, 285, 310];
        var readings = angles.Select(d => new RunoutReading(Deg(d), Mm(0.1 * random.NextDouble() - 0.05))).ToArray();
        var fit = Runout.Fit(new(readings, Dial, Angle.Zero), null, All);
        // MathNet.Numerics, normal equations of the same design.
        var x = Matrix<double>.Build.Dense(angles.Length, 3, (i, j) => j switch { 0 => 1, 1 => Math.Cos(angles[i] * Math.PI / 180), _ => Math.Sin(angles[i] * Math.PI / 180) });
        var y = Vector<double>.Build.DenseOfEnumerable(readings.Select(r => r.Deflection.Millimeters));
        var beta = x.QR().Solve(y);
        fit.Offset.Millimeters.ShouldBe(beta[0], 1e-9);
        fit.CosinePart.Millimeters.ShouldBe(beta[1], 1e-9);
        fit.SinePart.Millimeters.ShouldBe(beta[2], 1e-9);
        var covariance = (x.Transpose() * x).Inverse();
        fit.VectorDoubt.Millimeters.ShouldBe(Dial.StandardUncertainty().Millimeters * Math.Sqrt(Math.Max(covariance[1, 1], covariance[2, 2])), 1e-9);
    }

    [Property(MaxTest = 60)]
    public void Turning_the_angle_labels_turns_the_phase_only(byte turn, byte seed)
    {
        var random = new Random(seed);
        var values = Enumerable.Range(0, 12).Select(_ => 0.1 * random.NextDouble()).ToArray();
        RunoutVerdict Fit(double by) => Runout.Fit(new([.. values.Select((v, i) => new RunoutReading(Deg(30 * i + by), Mm(v)))], Dial, Angle.Zero), null, All);
        var (a, b) = (Fit(0), Fit(turn));
        b.Total.ShouldBe(a.Total);
        b.OncePerTurn.Millimeters.ShouldBe(a.OncePerTurn.Millimeters, 1e-9);
        b.Residual.Millimeters.ShouldBe(a.Residual.Millimeters, 1e-9);
        if (a.OncePerTurn.Millimeters > 1e-3) Math.Cos((b.HighAt.Degrees - a.HighAt.Degrees - turn) * Math.PI / 180).ShouldBe(1, 1e-6);
    }

    [Fact]
    public void Hub_and_rotor_are_told_apart_from_two_positions()
    {
        // Hub 0.05 at 0 deg, rotor 0.03 at 90 deg, both as amplitudes; second run with the rotor half a turn on.
        static double Hub(double t) => 0.05 * Math.Cos(t);
        static double Rotor(double t, double moved) => 0.03 * Math.Cos(t - Math.PI / 2 - moved);
        var one = Runout.Fit(Run(t => Hub(t) + Rotor(t, 0)), null, All);
        var two = Runout.Fit(Run(t => Hub(t) + Rotor(t, Math.PI), moved: 180), null, All);
        var apart = HubAndRotor.Separate(one, Angle.Zero, two, Deg(180), 4, null, Dial, null);
        apart.Hub.OncePerTurn.Millimeters.ShouldBe(0.1, 1e-9);
        apart.Rotor.OncePerTurn.Millimeters.ShouldBe(0.06, 1e-9);
        apart.Rotor.HighAt.Degrees.ShouldBe(90, 1e-6);
        // A quarter turn on, the rotor's high side lies over the hub's low one: 2 (0.05 - 0.03) = 0.04.
        apart.Positions[1].OncePerTurn.Millimeters.ShouldBe(0.04, 1e-9);
        apart.Best.Studs.ShouldBe(1);
        apart.Blame.ShouldBe(RunoutBlame.ReIndex);
        // u(m) / (root 2 |sin 90|).
        apart.Doubt.Millimeters.ShouldBe(one.VectorDoubt.Millimeters / Math.Sqrt(2), 1e-9);
        // Each position agrees with a run made there.
        foreach (var p in apart.Positions)
            Runout.Fit(Run(t => Hub(t) + Rotor(t, p.MovedBy.Radians)), null, All).OncePerTurn.Millimeters.ShouldBe(p.OncePerTurn.Millimeters, 1e-9);
    }

    [Fact]
    public void What_makes_the_most_of_it_is_cured_where_no_position_passes()
    {
        HubAndRotorVerdict Of(double hub, double rotor, IReadOnlyList<int>? possible = null) => HubAndRotor.Separate(
            Runout.Fit(Run(t => hub * Math.Cos(t) + rotor * Math.Cos(t)), null, All), Angle.Zero,
            Runout.Fit(Run(t => hub * Math.Cos(t) - rotor * Math.Cos(t), moved: 180), null, All), Deg(180), 5, possible, Dial, null);
        Of(0.15, 0.02).Blame.ShouldBe(RunoutBlame.Hub);
        Of(0.02, 0.15).Blame.ShouldBe(RunoutBlame.Rotor);
        Of(0.01, 0.01).Blame.ShouldBe(RunoutBlame.Passes);
        // A locating screw leaves the first position only.
        var held = Of(0.05, 0.045, [0]);
        held.Best.Studs.ShouldBe(0);
        held.Blame.ShouldBe(RunoutBlame.Hub);
        held.Positions.Count(p => p.Possible).ShouldBe(1);
        Of(0.05, 0.045).Blame.ShouldBe(RunoutBlame.ReIndex);
    }

    [Fact]
    public void The_same_position_twice_is_refused_and_a_close_one_is_flagged()
    {
        var run = Runout.Fit(Run(t => 0.05 * Math.Cos(t)), null, All);
        Should.Throw<InputException>(() => HubAndRotor.Separate(run, Angle.Zero, run, Deg(360), 5, null, Dial, null)).Errors[0].Field.ShouldBe("movedByDeg");
        HubAndRotor.Separate(run, Angle.Zero, Runout.Fit(Run(t => 0.04 * Math.Cos(t)), null, All), Deg(72), 5, null, Dial, null).Notes.ShouldContain(n => n.Contains("half a turn"));
        Should.Throw<InputException>(() => HubAndRotor.Separate(run, Angle.Zero, run, Deg(180), 5, [7], Dial, null)).Errors[0].Field.ShouldBe("possible");
    }

    [Fact]
    public void A_speck_of_rust_on_the_hub_grows_with_the_radius() =>
        // Worked example: 0.05 mm at diameter 140 is 0.0893 at diameter 250.
        HubAndRotor.Speck(Mm(0.05), Mm(70), Mm(125)).TotalAtRotor.Millimeters.ShouldBe(0.0893, 0.0001);

    [Theory]
    // Common practice, no source: outer ends trail. Rolling forward a left wheel turns anticlockwise seen from outside.
    [InlineData(VaneLean.Clockwise, Side.Left, true)]
    [InlineData(VaneLean.Clockwise, Side.Right, false)]
    [InlineData(VaneLean.Anticlockwise, Side.Right, true)]
    [InlineData(VaneLean.None, Side.Left, null)]
    public void Curved_vanes_pump_only_on_their_own_side(VaneLean lean, Side side, bool? suits) => RotorRuling.Vanes(lean, side).Suits.ShouldBe(suits);

    [Fact]
    public void The_ruling_puts_what_condemns_first()
    {
        var good = Thickness(Fine, 8.4, 9.2, 9.2, 9.2, 9.2, 9.2, 9.2, 9.2, 9.2);
        var seen = RotorCondition.NotLooked with { Cracks = Cracks.None };
        RotorFate Fate(ThicknessVerdict t, RotorCondition c, RunoutVerdict? r = null, HubAndRotorVerdict? a = null) => RotorRuling.Decide(t, r, a, c, Side.Left).Fate;
        Fate(good, seen).ShouldBe(RotorFate.Keep);
        Fate(good, RotorCondition.NotLooked).ShouldBe(RotorFate.NotPassed);
        Fate(good, seen with { Cracks = Cracks.ToEdgeOrHat }).ShouldBe(RotorFate.Replace);
        Fate(good, seen with { Vanes = VaneLean.Anticlockwise }).ShouldBe(RotorFate.Replace);
        Fate(Thickness(Fine, 8.4, 8.3, 9, 9, 9), seen).ShouldBe(RotorFate.Replace);
        Fate(Thickness(Micrometer, 8.4, 8.4, 8.4, 8.4, 8.4), seen).ShouldBe(RotorFate.NotPassed);
        Fate(good, seen with { ScoringDepth = Mm(0.6) }).ShouldBe(RotorFate.Machine);
        Fate(good, seen with { ScoringDepth = Mm(0.8), Shook = true, NeverMachine = true }).ShouldBe(RotorFate.Replace);
        Fate(Thickness(Fine, 8.4, 8.6, 8.6, 8.6, 8.6), seen with { ScoringDepth = Mm(0.8) }).ShouldBe(RotorFate.Replace);
        var wobbles = Runout.Fit(Run(t => 0.1 * Math.Cos(t)), null, All);
        Fate(good, seen, wobbles).ShouldBe(RotorFate.NotPassed);
        Fate(good, seen, wobbles, HubAndRotor.Separate(wobbles, Angle.Zero, Runout.Fit(Run(t => 0.09 * Math.Cos(t), moved: 180), null, All), Deg(180), 5, null, Dial, null)).ShouldBe(RotorFate.CleanHub);
        var threeLobes = Runout.Fit(Run(t => 0.1 * Math.Cos(3 * t)), null, All);
        Fate(good, seen, threeLobes).ShouldBe(RotorFate.Machine);
    }

    [Fact]
    public void Bad_input_names_field_value_and_range()
    {
        string Field(Action act) => Should.Throw<InputException>(act).Errors[0].Field;
        Field(() => Thickness(Micrometer, 8.4)).ShouldBe("thickness");
        Field(() => Thickness(Micrometer, 8.4, 9)).ShouldBe("thickness");
        Should.Throw<InputException>(() => Thickness(Micrometer, 8.4, 0.35, 9, 9, 9)).Errors[0].Message.ShouldContain("in inches it would be 8.89 mm");
        Field(() => Thickness(Micrometer, 8.4, -9, 9)).ShouldBe("thicknessMm");
        Field(() => Thickness(Micrometer, 8.4, 1e9, 9)).ShouldBe("thicknessMm");
        // A length that is no number cannot even be made.
        Should.Throw<ArgumentException>(() => Mm(double.NaN));
        Field(() => RotorThickness.Judge(Ring(Micrometer, 9, 9), new(Mm(10), New: Mm(10)), All)).ShouldBe("minimumMm");
        Field(() => Runout.Fit(Run(_ => 0, 2), null, All)).ShouldBe("runout");
        Field(() => Runout.Fit(new([new(Deg(0), Mm(0)), new(Deg(90), Mm(0)), new(Deg(360), Mm(0))], Dial, Angle.Zero), null, All)).ShouldBe("angleDeg");
        Field(() => Runout.Fit(new([new(Deg(0), Mm(0)), new(Deg(2), Mm(0)), new(Deg(4), Mm(0))], Dial, Angle.Zero), null, All)).ShouldBe("angleDeg");
        Field(() => Runout.Fit(Run(_ => 9), null, All)).ShouldBe("deflectionMm");
    }

    [Fact]
    public void The_bench_judges_what_it_has_and_says_what_it_lacks()
    {
        PointReading At(Measurand m, string place, double deg, double mm, Instrument tool) => new(Guid.NewGuid(), m, place, Deg(deg), Mm(mm), tool, null, default);
        var empty = RotorBench.Judge([], RotorFacts.None, null, Side.Left, All);
        empty.Thickness.ShouldBeNull();
        empty.Lacks.Count.ShouldBe(2);
        var spec = new RotorSpec(Mm(10), Mm(8), false, false);
        List<PointReading> ring = [.. Enumerable.Range(0, 8).Select(i => At(Measurand.RotorThickness, "ring", 45 * i, 9.2, Fine))];
        // Stamping and sheet differ: the larger minimum is the safer, and someone should ask which part this is.
        var stamped = RotorBench.Judge(ring, RotorFacts.None with { Stamp = "MIN TH 8.4 MM" }, spec, Side.Left, All);
        stamped.Minimum!.Value.Millimeters.ShouldBe(8.4);
        stamped.Lacks.ShouldContain(l => l.Contains("differ"));
        List<PointReading> runs =
        [
            .. ring, .. Enumerable.Range(0, 12).Select(i => At(Measurand.RotorRunout, "run-1", 30 * i, 0.05 * Math.Cos(i * Math.PI / 6), Dial)),
            .. Enumerable.Range(0, 12).Select(i => At(Measurand.RotorRunout, "run-2", 30 * i, 0.01 * Math.Cos(i * Math.PI / 6), Dial)),
        ];
        RotorBench.Judge(runs, RotorFacts.None, spec, Side.Left, All).Lacks.ShouldContain(l => l.Contains("turned on its studs"));
        RotorBench.Judge(runs, RotorFacts.None with { MovedBy = Deg(180) }, spec, Side.Left, All).Apart!.Rotor.OncePerTurn.Millimeters.ShouldBe(0.04, 1e-9);
    }
}

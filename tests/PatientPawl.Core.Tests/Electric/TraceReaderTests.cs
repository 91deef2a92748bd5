using PatientPawl.Core.Electric;
using UnitsNet;

namespace PatientPawl.Core.Tests.Electric;

/// <summary>
/// Current traces made from the closed forms of a DC motor, so that no simulation stands behind the figures: inrush V/R exp(-t/tm), free run
/// Tf/Kt, after contact V/R - (V/R - i_free) exp(-(t - tc)/tau). What people record is seldom that clean: mains hum, a clamp the wrong way round.
/// </summary>
public class TraceReaderTests
{
    private const double Volts = 12.6, Ohm = 0.6, Free = 1.83, Tau = 0.897, CutOff = 14;

    private static readonly MotorConstants Motor = new(ElectricPotential.FromVolts(Volts), ElectricResistance.FromOhms(Ohm), 0.012, 150, Length.FromMillimeters(1.8), 0.30, ElectricCurrent.FromAmperes(CutOff));

    /// <summary>An apply by the closed form: quiet for 0.3 s, contact at <paramref name="contact"/>, off at the cut-off, quiet again.</summary>
    private static List<TracePoint> Apply(double contact = 1.1, double hz = 500, Func<double, double>? plus = null, double sign = 1)
    {
        var end = contact + Tau * Math.Log((Volts / Ohm - Free) / (Volts / Ohm - CutOff));
        List<TracePoint> points = [];
        for (var k = 0; k / hz < end + 0.8; k++)
        {
            var t = k / hz - 0.3;
            var amps = t < 0 || t > end ? 0 : t < contact ? Free + (Volts / Ohm - Free) * Math.Exp(-t / 0.021) : Volts / Ohm - (Volts / Ohm - Free) * Math.Exp(-(t - contact) / Tau);
            points.Add(new(Duration.FromSeconds(k / hz), ElectricCurrent.FromAmperes(sign * amps + (plus?.Invoke(t) ?? 0))));
        }

        return points;
    }

    [Fact]
    public void The_figures_of_a_close_are_those_of_the_closed_form()
    {
        var read = TraceReader.Read(CurrentTrace.From(Apply()), Motor);
        read.Kind.ShouldBe(TraceKind.Clamps);
        read.Contact!.Value.Seconds.ShouldBe(1.1, 0.01);
        read.Free!.Value.Amperes.ShouldBe(Free, 0.02);
        read.End!.Value.Amperes.ShouldBe(CutOff, 0.1);
        read.Clamp!.Value.Newtons.ShouldBe((0.012 * CutOff - 0.012 * Free) * 0.30 * 2 * Math.PI * 150 / 1.8e-3, 200);
        // Free speed (V - R Tf/Kt)/Ke times lead/(2 pi G), less the time it takes to get there.
        read.Travel!.Value.Millimeters.ShouldBe((1.1 - 0.021) * (Volts - Ohm * Free) / 0.012 * 1.8 / (2 * Math.PI * 150), 0.06);
    }

    [Theory]
    [InlineData("50 Hz")]
    [InlineData("reversed")]
    [InlineData("offset")]
    [InlineData("jitter")]
    [InlineData("unsteady clock")]
    public void Trouble_as_people_record_it_is_read_all_the_same(string trouble)
    {
        var random = new Random(5);
        var points = trouble switch
        {
            // 50 Hz mains beside a sample rate of 500 Hz, a third of an ampere high.
            "50 Hz" => Apply(plus: t => 0.3 * Math.Sin(2 * Math.PI * 50 * t)),
            "reversed" => Apply(sign: -1),
            "offset" => Apply(plus: _ => 0.8),
            "jitter" => Apply(plus: _ => 0.1 * (random.NextDouble() - 0.5)),
            _ => [.. Apply().Where((_, i) => i % 7 != 3)],
        };
        var read = TraceReader.Read(CurrentTrace.From(points), Motor);
        (read.Kind, read.Strokes).ShouldBe((TraceKind.Clamps, 1));
        read.Contact!.Value.Seconds.ShouldBe(1.1, 0.04);
        read.End!.Value.Amperes.ShouldBe(CutOff, 0.35);
        (read.Notes.Count > 0).ShouldBe(trouble is "reversed" or "offset");
    }

    [Fact]
    public void A_beginning_that_is_cut_off_is_refused_with_a_sentence()
    {
        var cut = Apply().Where(p => p.At.Seconds > 0.9).ToArray();
        var error = Should.Throw<InputException>(() => TraceReader.Read(CurrentTrace.From(cut), Motor)).Errors.Single();
        error.Message.ShouldContain("the start is cut off");
    }

    [Fact]
    public void Of_two_strokes_in_one_trace_each_is_read_and_a_third_is_refused()
    {
        var first = Apply();
        var second = Apply(contact: 0.5);
        var both = CurrentTrace.From([.. first, .. second.Select(p => new TracePoint(p.At + first[^1].At + Duration.FromMilliseconds(2), p.Current))]);
        TraceReader.Read(both, Motor).Contact!.Value.Seconds.ShouldBe(1.1, 0.02);
        var later = TraceReader.Read(both, Motor, stroke: 2);
        (later.Kind, later.Strokes).ShouldBe((TraceKind.LaterApply, 2));
        later.Contact!.Value.Seconds.ShouldBe(0.5, 0.02);
        Should.Throw<InputException>(() => TraceReader.Read(both, Motor, stroke: 3)).Errors.Single().Field.ShouldBe("stroke");
    }

    [Fact]
    public void Without_the_motors_constants_there_are_times_and_currents_and_no_travel_or_force()
    {
        var read = TraceReader.Read(CurrentTrace.From(Apply()));
        (read.Kind, read.Travel, read.Clamp).ShouldBe((TraceKind.Clamps, (Length?)null, (Force?)null));
        read.Contact.ShouldNotBeNull();
        TraceReader.Read(CurrentTrace.From(Apply()), Motor with { Efficiency = null }).ClampDoubt!.Value.Newtons.ShouldBe(0.30 * 22_940, 200);
    }

    [Fact]
    public void What_is_no_trace_is_refused_naming_field_value_and_range()
    {
        TracePoint P(double t, double a) => new(Duration.FromSeconds(t), ElectricCurrent.FromAmperes(a));
        void Refuses(string field, params TracePoint[] points) => Should.Throw<InputException>(() => CurrentTrace.From(points)).Errors[0].Field.ShouldBe(field);
        var many = Enumerable.Range(0, 40).ToArray();
        Refuses("points", P(0, 1), P(0.01, 1));
        Refuses("time_s", [.. many.Select(i => P(i == 7 ? 0 : i * 0.01, 1))]);
        Refuses("current_a", [.. many.Select(i => P(i * 0.01, i == 7 ? 4000 : 1))]);
        Refuses("rateHz", [.. many.Select(i => P(i * 0.1, 1))]);
        Refuses("rateHz", [.. many.Select(i => P(i * 1e-5, 1))]);
        Refuses("lengthS", [.. Enumerable.Range(0, 6200).Select(i => P(i * 0.01, 0))]);
        Should.Throw<InputException>(() => TraceReader.Read(CurrentTrace.From(Apply()), Motor with { GearRatio = 0, Efficiency = 2 })).Errors.Select(e => e.Field).ShouldBe(["motor.gearRatio", "motor.efficiency"]);
    }

    [Fact]
    public void Two_sides_alike_differ_in_nothing_and_each_difference_names_its_side_and_its_check()
    {
        TraceReading Of(double contact = 0.5, Func<double, double>? plus = null) => TraceReader.Read(CurrentTrace.From(Apply(contact, plus: plus)), Motor);
        var alike = TraceSides.Compare(Of(), Of(0.55));
        (alike.Alike, alike.ToContact).ShouldBe((true, true));
        alike.Apart!.Value.Seconds.ShouldBe(0.05, 0.02);
        var late = TraceSides.Compare(Of(), Of(0.95));
        late.Differences.Single().Check.ShouldStartWith("Right has further to go");
        var heavy = TraceSides.Compare(Of(plus: t => t is > 0 and < 0.5 ? 1 : 0), Of());
        heavy.Differences.ShouldContain(d => d.Says.StartsWith("Free current") && d.Check.StartsWith("Left"));
        var none = TraceReader.Read(CurrentTrace.From([.. Apply().Select(p => p with { Current = ElectricCurrent.Zero })]));
        TraceSides.Compare(none, Of(), "then", "now").Says.ShouldBe("They end in another way: then no current, now clamps, a later apply.");
    }

    [Fact]
    public void What_is_drawn_has_few_points_and_loses_no_peak()
    {
        var trace = CurrentTrace.From(Apply(hz: 5000));
        var drawn = trace.Drawn(300);
        drawn.Count.ShouldBeLessThanOrEqualTo(300);
        drawn.Max(p => p.Current.Amperes).ShouldBe(trace.Points.Max(p => p.Current.Amperes));
        drawn.Zip(drawn.Skip(1)).ShouldAllBe(p => p.First.At < p.Second.At);
    }
}

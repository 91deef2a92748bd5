using PatientPawl.Core.Measuring;
using PatientPawl.Core.Torque;
using UnitsNet;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Core.Tests.Torque;

/// <summary>A torque wrench is what its certificates say. Deviation and limits: ISO 6789-1:2017, from memory.</summary>
public class WrenchCalibrationTests
{
    private static readonly DateOnly Today = new(2026, 11, 3);

    private static TorqueQuantity Nm(double nm) => TorqueQuantity.FromNewtonMeters(nm);

    private static Wrench Click { get; } = new("W4", "Half-inch click", Nm(200), Nm(0.2), Length.FromMillimeters(400), WrenchType.Setting,
        new(2025, 1, 1));

    // Three points, each as found and as left, by how much it gave.
    private static WrenchCertificate Certificate(int daysAgo, double found, double left, double uncertainty = 0.5) => new("W4", "C-1",
        Today.AddDays(-daysAgo),
        Today.AddDays(365 - daysAgo), uncertainty, [.. new[] { 40.0, 120, 200 }.Select(set => new CalibrationPoint(Nm(set),
            Nm(set / (1 + found / 100)), Nm(set / (1 + left / 100))))]);

    [Fact]
    public void Deviation_is_what_it_shows_less_what_it_gave_over_what_it_gave()
    {
        // Worked by hand: set to 100 N m it gave 96: (100 - 96) / 96 = 4.17 %, outside a 4 % class by less than the doubt of 0.5 %.
        var says = WrenchCalibration.Judge(Click, [new("W4", "C-1", Today, Today.AddDays(365), 0.5, [new(Nm(100), Nm(96), Nm(100.5))])]);
        says.AsFoundPercent.ShouldBe(4.1667, 0.0001);
        says.AsLeftPercent.ShouldBe(-0.4975, 0.0001);
        (says.AsFound, says.AsLeft).ShouldBe((Verdict.TooCloseToCall, Verdict.Inside));
        says.Says.ShouldContain("too close to call");
    }

    [Theory]
    [InlineData(3.4, 0.2, Verdict.Inside, Verdict.Inside, "it is right.")]
    [InlineData(5.0, 0.2, Verdict.Outside, Verdict.Inside, "checked again")]
    [InlineData(-5.0, 0.2, Verdict.Outside, Verdict.Inside, "checked again")]
    [InlineData(5.0, 3.8, Verdict.Outside, Verdict.TooCloseToCall, "no torque is set with it")]
    public void As_found_tells_of_the_past_and_as_left_of_what_may_be_set_from_now_on(double found, double left, Verdict was,
        Verdict stays, string says)
    {
        var answer = WrenchCalibration.Judge(Click, [Certificate(0, found, left)]);
        (answer.AsFound, answer.AsLeft).ShouldBe((was, stays));
        answer.Says.ShouldContain(says);
    }

    [Fact]
    public void One_certificate_promises_no_more_than_the_class_and_two_tell_how_far_it_drifts()
    {
        var first = Certificate(365, 0, 0.4);
        WrenchCalibration.Judge(Click, [first]).ShouldSatisfyAllConditions(a => a.InUse.ShouldBe(0.04), a => a.DriftPercentAYear
            .ShouldBeNull());
        // Left at 0.4 %, found at 1.6 % a year later: 1.2 % a year; then left at 0.2 % with a doubt of 0.5 %: 1.9 %.
        var second = WrenchCalibration.Judge(Click, [Certificate(0, 1.6, 0.2), first]);
        second.DriftPercentAYear!.Value.ShouldBe(1.2, 0.01);
        second.InUse.ShouldBe(0.019, 1e-9);
        // A wrench that drifts far is reckoned with more than its class allows, not less.
        WrenchCalibration.Judge(Click, [first, Certificate(0, 7.4, 0.2)]).InUse.ShouldBe(0.077, 1e-9);
    }

    [Fact]
    public void What_its_certificates_leave_is_what_a_torque_is_reckoned_with()
    {
        var line = Jobs.Bench.Sheet().Torques.First(t => t.Role == FastenerRole.Wheel);
        TorqueSet Set(double? certified) => TorqueSetting.Compute(line, Click with
        {
            CertifiedDeviation = certified,
            CalibratedUntil = Today.AddDays(1)
        }, null, Today);
        double Half(TorqueSet s) => (s.AppliedHigh!.Value.NewtonMeters - s.AppliedLow!.Value.NewtonMeters) / 2 / s.OnTheScale.NewtonMeters;
        Half(Set(null)).ShouldBe(0.04, 1e-9);
        Half(Set(0.019)).ShouldBe(0.019, 1e-9);
    }

    [Fact]
    public void The_tools_between_certificates_stay_within_what_they_are_reckoned_with()
    {
        // Wrenches that drift at a steady pace of their own, calibrated once a year with a doubt of their laboratory: by simulation.
        var random = new Random(5);
        const int tools = 2000;
        var within = 0;
        for (var i = 0; i < tools; i++)
        {
            double pace = 3 * (random.NextDouble() - 0.5), left0 = 0.6 * (random.NextDouble() - 0.5),
                left1 = 0.6 * (random.NextDouble() - 0.5);
            double Read(double true_) => true_ + 0.25 * Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
            var says = WrenchCalibration.Judge(Click, [Certificate(365, 0, Read(left0)), Certificate(0, Read(left0 + pace), Read(left1))]);
            // What it really is wrong by at the end of the year to come.
            if (Math.Abs(left1 + pace) / 100 <= says.InUse) within++;
        }

        (within / (double)tools).ShouldBeGreaterThan(0.95);
    }

    [Fact]
    public void A_wrench_is_used_as_its_certificates_have_it_and_not_at_all_where_it_was_not_left_right()
    {
        Click.By([]).ShouldBe(Click);
        (Click with { CertifiedDeviation = 0.01 }).By([]).CertifiedDeviation.ShouldBeNull("what certificates say is theirs to say");
        var (first, second, bad) = (Certificate(365, 0, 0.4), Certificate(0, 1.6, 0.2), Certificate(0, 5, 3.8));
        Click.By([first]).ShouldSatisfyAllConditions(w => w.CalibratedUntil.ShouldBe(first.Until), w => w.PermissibleDeviation
            .ShouldBe(0.04));
        Click.By([second, first]).ShouldSatisfyAllConditions(w => w.CalibratedUntil.ShouldBe(second.Until),
            w => w.PermissibleDeviation.ShouldBe(0.019, 1e-9));
        Click.By([first, bad]).CalibratedUntil.ShouldBe(bad.On.AddDays(-1));
        // One of the same day takes the other's place; one from before the last is none to go by.
        second.Checked(Click, [first], Today).ShouldNotBeNull();
        Should.Throw<InputException>(() => first.Checked(Click, [second], Today)).Errors.Single().Field.ShouldBe("on");
    }

    [Fact]
    public void What_no_certificate_says_is_refused_with_field_value_and_range()
    {
        var good = Certificate(10, 1, 1);
        good.Checked(Click, [], Today).ShouldNotBeNull();
        string[] Wrong(WrenchCertificate c) => [.. Should.Throw<InputException>(() => c.Checked(Click, [], Today)).Errors.Select(e =>
            e.Field)];
        Wrong(good with { On = Today.AddDays(1) }).ShouldContain("on");
        Wrong(good with { On = DateOnly.MinValue }).ShouldBe(["on"]);
        Wrong(good with { Until = good.On }).ShouldContain("until");
        Wrong(good with { Number = " " }).ShouldContain("number");
        Wrong(good with { UncertaintyPercent = double.NaN }).ShouldContain("uncertaintyPercent");
        Wrong(good with { Points = [] }).ShouldContain("points");
        Wrong(good with { Points = [new(Nm(10), Nm(10), Nm(10))] }).ShouldContain("points[0].setNm");
        Wrong(good with { Points = [new(Nm(100), Nm(0), Nm(100))] }).ShouldContain("points[0].asFoundNm");
        Should.Throw<InputException>(() => (Click with { Maximum = Nm(2), Id = "W 4" }).Checked()).Errors.Select(e => e.Field)
            .ShouldBe(["maximumNm", "id"]);
    }
}

using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using MathNet.Numerics;
using MathNet.Numerics.LinearRegression;
using MathNet.Numerics.Statistics;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Tests.Retraction;

/// <summary>The log against closed forms, a reference library, and what the trade knows a piston can do.</summary>
public class RetractionLogTests
{
    private static readonly Instrument Gauge = InstrumentCatalogue.Find("depth-gauge")!;
    private static readonly StuckChecks AllRight = new(Known.Yes, Known.Yes, Known.Yes, Known.Yes, true, true);
    private static Length Mm(double v) => Length.FromMillimeters(v);
    private static LogPoint At(double turns, double mm, int stage = 1, bool released = false, double? effort = null) =>
        new(Guid.NewGuid(), turns, Mm(mm), stage, released, effort is { } e ? UnitsNet.Torque.FromNewtonMeters(e) : null);

    private static LogInput Log(params LogPoint[] points) => new(points, true, Mm(1.5), Mm(0.8), null, [Mm(38)], Gauge, false, false, StuckChecks.None, null, null);
    private static LogInput Log(params (double T, double Y)[] points) => Log([.. points.Select(p => At(p.T, p.Y))]);
    private static List<LogFindingKind> Kinds(LogInput log) => [.. RetractionLog.Follow(log).Findings.Select(f => f.Kind)];

    [Property(MaxTest = 300)]
    public Property The_lead_of_exact_data_is_exact() => Prop.ForAll(
        (from lead in Gen.Choose(2, 60) from n in Gen.Choose(2, 12) from start in Gen.Choose(150, 400) select (lead / 20.0, n, start / 10.0)).ToArbitrary(), x =>
        {
            var (lead, n, start) = x;
            var points = Enumerable.Range(0, n).Select(i => (i * 0.5, start - lead * 0.5 * i)).Where(p => p.Item2 > 2).ToArray();
            if (points.Length < 2) return true;
            var answer = RetractionLog.Follow(Log(points) with { Lead = null });
            return Math.Abs(answer.Fit!.Lead.Millimeters - lead) < 1e-9
                // The count at home by plain geometry: (start - home) / lead.
                && Math.Abs(answer.TurnsAtTarget!.Value - (start - 1.5) / lead) < 1e-6
                && Math.Abs(answer.TurnsToGo!.Value - ((start - 1.5) / lead - points[^1].Item1)) < 1e-6
                && (points.Length == 2 || answer.Fit.LeadError.Millimeters < 1e-9);
        });

    [Fact]
    public void Lead_and_both_errors_agree_with_a_reference_library()
    {
        // MathNet.Numerics 5 (reference library): SimpleRegression and GoodnessOfFit.
        double[] x = [0, 1, 2, 3, 4, 5], y = [8.70, 7.91, 7.08, 6.32, 5.49, 4.71];
        var answer = RetractionLog.Follow(Log([.. x.Zip(y)]));
        var (a, b) = SimpleRegression.Fit(x, y);
        answer.Fit!.Lead.Millimeters.ShouldBe(-b, 1e-9);
        answer.Fit.AtZero.Millimeters.ShouldBe(a, 1e-9);
        var s = GoodnessOfFit.StandardError(x.Select(v => a + b * v), y, 2);
        var sxx = x.Sum(v => Math.Pow(v - x.Mean(), 2));
        answer.Fit.LeadError.Millimeters.ShouldBe(s / Math.Sqrt(sxx), 1e-9);
        var home = (1.5 - a) / b;
        answer.TurnsAtTarget!.Value.ShouldBe(home, 1e-9);
        answer.TurnsToGoError!.Value.ShouldBe(s / Math.Abs(b) * Math.Sqrt(1.0 / 6 + Math.Pow(home - x.Mean(), 2) / sxx), 1e-9);
    }

    [Fact]
    public void The_error_is_what_repeated_logs_scatter_by()
    {
        // Simulated with a seed: the scatter of the fitted lead over many logs is the standard error on the average.
        var random = new Random(20261125);
        var noise = new MathNet.Numerics.Distributions.Normal(0, 0.03, random);
        List<double> leads = [], errors = [];
        for (var k = 0; k < 2000; k++)
        {
            var answer = RetractionLog.Follow(Log([.. Enumerable.Range(0, 8).Select(i => ((double)i, 9 - 0.8 * i + noise.Sample()))]));
            leads.Add(answer.Fit!.Lead.Millimeters);
            errors.Add(answer.Fit.LeadError.Millimeters);
        }

        leads.Mean().ShouldBe(0.8, 0.001);
        (Math.Sqrt(errors.Select(e => e * e).Mean()) / leads.StandardDeviation()).ShouldBe(1, 0.06);
    }

    [Fact]
    public void Two_lines_have_root_two_of_the_gauges_doubt_over_the_turns_between()
    {
        var answer = RetractionLog.Follow(Log((0, 8.7), (2, 7.1)));
        answer.Fit!.LeadError.Millimeters.ShouldBe(Math.Sqrt(2) * Gauge.StandardUncertainty().Millimeters / 2, 1e-12);
        answer.TurnsToGo!.Value.ShouldBe(7, 1e-9);
        answer.TurnsToGoError!.Value.ShouldBeGreaterThan(0);
    }

    [Fact]
    public void More_noise_widens_the_error()
    {
        double[] shape = [0.3, -0.5, 0.4, -0.6, 0.5, -0.1];
        double Error(double by) => RetractionLog.Follow(Log([.. shape.Select((s, i) => ((double)i, 9 - 0.8 * i + by * s))])).TurnsToGoError!.Value;
        Error(0.02).ShouldBeGreaterThan(Error(0.01));
        Error(0.1).ShouldBe(10 * Error(0.01), 0.05 * Error(0.1));
    }

    [Fact]
    public void One_line_goes_by_the_sheets_lead_and_none_by_nothing()
    {
        var one = RetractionLog.Follow(Log((0, 8.7)));
        one.FromSheet.ShouldBeTrue();
        one.TurnsToGo!.Value.ShouldBe(9, 1e-9);
        one.TurnsToGoError.ShouldBeNull();
        RetractionLog.Follow(Log((0, 8.7)) with { Lead = null }).TurnsToGo.ShouldBeNull();
        RetractionLog.Follow(Log(Array.Empty<LogPoint>())).TurnsToGo.ShouldBeNull();
    }

    [Fact]
    public void Turns_counted_since_the_reading_come_off_with_their_fluid_and_never_go_below_zero()
    {
        var log = Log((0, 8.7), (1, 7.9), (2, 7.1));
        var now = RetractionLog.Follow(log with { TurnsNow = 5 });
        now.TurnsToGo!.Value.ShouldBe(4, 1e-9);
        now.Protrusion!.Value.Millimeters.ShouldBe(4.7, 1e-9);
        now.TravelToGo!.Value.Millimeters.ShouldBe(3.2, 1e-9);
        now.FluidToCome!.Value.Milliliters.ShouldBe(Math.PI / 4 * 38 * 38 * 3.2 / 1000, 1e-9);
        RetractionLog.Follow(log with { TurnsNow = 30 }).TurnsToGo.ShouldBe(0);
    }

    [Fact]
    public void Only_as_far_as_needed_ends_before_home()
    {
        var answer = RetractionLog.Follow(Log((0, 8.7), (1, 7.9), (2, 7.1)) with { Travel = Mm(4) });
        answer.Target!.Value.Millimeters.ShouldBe(4.7, 1e-9);
        answer.TurnsToGo!.Value.ShouldBe(3, 1e-9);
    }

    [Fact]
    public void A_new_direction_begins_a_new_line()
    {
        // Anticlockwise to its stop, then clockwise home: only the second stage leads home.
        var answer = RetractionLog.Follow(Log(At(0, 9), At(1, 8.9), At(2, 8.8), At(3, 8, 2), At(4, 7.2, 2)) with { TwoStage = true });
        answer.Stage.ShouldBe(2);
        answer.Fit!.Lead.Millimeters.ShouldBe(0.8, 1e-9);
    }

    [Theory]
    // Common practice, no source: coming out by more than 0.2 mm is the wrong direction.
    [InlineData(8.9, false)]
    [InlineData(8.91, true)]
    public void Coming_out_is_over_two_tenths(double second, bool found) => Kinds(Log((0, 8.7), (0.5, second))).Contains(LogFindingKind.ComingOut).ShouldBe(found);

    [Fact]
    public void Reversing_ends_the_coming_out()
    {
        Kinds(Log(At(0, 8.7), At(0.5, 9.1))).ShouldContain(LogFindingKind.ComingOut);
        Kinds(Log(At(0, 8.7), At(0.5, 9.1), At(1, 8.7, 2))).ShouldNotContain(LogFindingKind.ComingOut);
    }

    [Theory]
    // A quarter of 0.8 mm is 0.2 mm a turn.
    [InlineData(8.51, true)]
    [InlineData(8.49, false)]
    public void Spinning_free_is_under_a_quarter_of_the_lead_over_a_whole_turn(double second, bool found) => Kinds(Log((0, 8.7), (1, second))).Contains(LogFindingKind.SpinningFree).ShouldBe(found);

    [Fact]
    public void Spinning_free_asks_for_pressure_then_the_other_way_where_allowed_then_counts_as_stuck()
    {
        var log = Log((0, 8.7), (1, 8.65)) with { OtherWayAllowed = true, Checks = AllRight with { PressedHarder = false, OtherWayTried = false } };
        RetractionLog.Follow(log).Findings.Single().Do.ShouldContain("pressure");
        log = log with { Checks = log.Checks with { PressedHarder = true } };
        RetractionLog.Follow(log).Findings.Single().Do.ShouldContain("other direction");
        RetractionLog.Follow(log).Stuck.ShouldBeFalse();
        RetractionLog.Follow(log with { Checks = AllRight }).Stuck.ShouldBeTrue();
        RetractionLog.Follow(log with { OtherWayAllowed = false }).Stuck.ShouldBeTrue();
    }

    [Fact]
    public void Spinning_free_without_a_sheet_needs_two_earlier_lines()
    {
        Kinds(Log((0, 8.7), (1, 8.69)) with { Lead = null }).ShouldNotContain(LogFindingKind.SpinningFree);
        Kinds(Log((0, 8.7), (1, 7.9), (2, 7.88)) with { Lead = null }).ShouldContain(LogFindingKind.SpinningFree);
        // A pushed piston does not spin.
        Kinds(Log((0, 8.7), (1, 8.65)) with { Turned = false }).ShouldNotContain(LogFindingKind.SpinningFree);
    }

    [Fact]
    public void Three_readings_alike_far_from_home_have_stopped_short_and_are_stuck_only_when_all_is_right()
    {
        var log = Log((0, 8.7), (1, 7.9), (2, 7.9), (3, 7.9));
        var found = RetractionLog.Follow(log);
        found.Findings.ShouldContain(f => f.Kind == LogFindingKind.StoppedShort && f.Stop);
        found.Stuck.ShouldBeFalse();
        RetractionLog.Follow(log with { Checks = AllRight }).Stuck.ShouldBeTrue();
        RetractionLog.Follow(log with { Checks = AllRight }).Findings[0].Do.ShouldContain("condemned");
        // Each thing that is not sure is asked by name, and none of them lets it be forced.
        foreach (var (checks, asks) in new[]
        {
            (AllRight with { MethodRight = Known.NotKnown }, "method"), (AllRight with { DirectionRight = Known.No }, "direction"),
            (AllRight with { MechanismRelaxed = Known.No }, "lever"), (AllRight with { RoomForFluid = Known.NotKnown }, "fluid"),
        })
        {
            var asked = RetractionLog.Follow(log with { Checks = checks });
            asked.Stuck.ShouldBeFalse();
            asked.Findings.Single(f => f.Kind == LogFindingKind.StoppedShort).Do.ShouldContain(asks);
        }
    }

    [Fact]
    public void The_first_stop_of_a_two_stage_design_is_no_fault()
    {
        var first = RetractionLog.Follow(Log((0, 8.7), (1, 7.9), (2, 7.9), (3, 7.9)) with { TwoStage = true, Checks = AllRight });
        first.Stuck.ShouldBeFalse();
        first.Findings.Single().Do.ShouldContain("other direction");
        RetractionLog.Follow(Log(At(3, 7.9, 2), At(4, 7.9, 2), At(5, 7.9, 2)) with { TwoStage = true, Checks = AllRight }).Stuck.ShouldBeTrue();
    }

    [Fact]
    public void Readings_too_close_together_to_have_moved_are_no_stop() =>
        // A hundredth of a turn is 0.008 mm: the gauge could not show it.
        Kinds(Log((0, 8.7), (0.01, 8.7), (0.02, 8.7))).ShouldBeEmpty();

    [Theory]
    [InlineData(7.6, false)]
    [InlineData(7.61, true)]
    public void Springing_back_is_over_half_a_millimetre_once_released(double after, bool found) =>
        Kinds(Log(At(0, 8.7), At(2, 7.1), At(2, after, released: true))).Contains(LogFindingKind.SpringsBack).ShouldBe(found);

    [Fact]
    public void A_released_reading_never_bends_the_line() =>
        RetractionLog.Follow(Log(At(0, 8.7), At(1, 7.9), At(2, 7.1), At(2, 8.6, released: true))).Fit!.Lead.Millimeters.ShouldBe(0.8, 1e-9);

    [Theory]
    // Within 0.3 mm is home; three alike from 0.3 to 1.0 mm get one more turn.
    [InlineData(1.8, LogFindingKind.Home)]
    [InlineData(1.81, LogFindingKind.NearlyHome)]
    [InlineData(2.5, LogFindingKind.NearlyHome)]
    [InlineData(2.51, LogFindingKind.StoppedShort)]
    public void Home_nearly_home_and_stopped_short_meet_at_their_bounds(double at, LogFindingKind kind) =>
        Kinds(Log((8, at), (9, at), (10, at))).ShouldContain(kind);

    [Fact]
    public void Nearly_home_and_still_there_a_turn_later_has_stopped_short() => Kinds(Log((8, 2.0), (9, 2.0), (10, 2.0), (11, 2.0))).ShouldContain(LogFindingKind.StoppedShort);

    [Fact]
    public void Deeper_than_home_asks_whether_it_is_the_same_land() => RetractionLog.Follow(Log((8, 1.0), (9, 0.9))).Findings.Single().Do.ShouldContain("same land");

    [Fact]
    public void Twice_the_effort_of_the_other_side_is_suspected()
    {
        var log = Log(At(0, 8.7, effort: 12), At(1, 7.9, effort: 14)) with { OtherEffort = UnitsNet.Torque.FromNewtonMeters(6.6) };
        Kinds(log).ShouldNotContain(LogFindingKind.HarderThanOther);
        Kinds(log with { OtherEffort = UnitsNet.Torque.FromNewtonMeters(6.5) }).ShouldContain(LogFindingKind.HarderThanOther);
        var easy = RetractionLog.Follow(Log(At(0, 8.7, effort: 6), At(1, 7.9, effort: 6)));
        var sides = RetractionLog.Compare(RetractionLog.Follow(log), easy);
        sides.Harder.ShouldBe(Side.Left);
        sides.LeadsAlike.ShouldBeTrue();
        sides.EffortRatio!.Value.ShouldBe(13 / 6.0, 1e-9);
    }

    [Fact]
    public void Leads_that_differ_by_more_than_their_doubt_are_two_different_parts()
    {
        var a = RetractionLog.Follow(Log((0, 8.7), (1, 7.9), (2, 7.1), (3, 6.3)));
        var b = RetractionLog.Follow(Log((0, 8.7), (1, 7.5), (2, 6.3), (3, 5.1)));
        RetractionLog.Compare(a, b).LeadsAlike.ShouldBeFalse();
        RetractionLog.Compare(a, a).LeadsAlike.ShouldBeTrue();
    }

    [Fact]
    public void Splitting_the_travel_over_any_readings_changes_nothing()
    {
        var few = RetractionLog.Follow(Log((0, 8.7), (4, 5.5)));
        var many = RetractionLog.Follow(Log([.. Enumerable.Range(0, 17).Select(i => (i / 4.0, 8.7 - 0.2 * i))]));
        many.TurnsToGo!.Value.ShouldBe(few.TurnsToGo!.Value, 1e-9);
        many.FluidToCome!.Value.Milliliters.ShouldBe(few.FluidToCome!.Value.Milliliters, 1e-9);
    }

    [Fact]
    public void Every_wrong_figure_is_named_at_once()
    {
        var e = Should.Throw<InputException>(() => RetractionLog.Follow(Log(At(-1, 8), At(1, 250, 12)) with { Lead = Mm(40), TurnsNow = 500 }));
        e.Errors.Select(x => x.Field).ShouldBe(["leadMm", "turnsNow", "turns", "protrusionMm", "stage"], ignoreOrder: true);
        e.Errors.ShouldAllBe(x => x.Allowed.Length > 0 && x.Message.Length > 0);
    }
}

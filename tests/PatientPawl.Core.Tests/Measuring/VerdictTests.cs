using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Tests.Measuring;

public class VerdictTests
{
    private static Length Mm(double v) => Length.FromMillimeters(v);
    private static Instrument Tool(double resolution, double error) => new("t", "Tool", Mm(resolution), Mm(error), false);
    private static Verdict Of(double value, double limit, Instrument tool, LimitKind kind = LimitKind.Minimum) => LimitJudgement.Judge(new(Judged.RotorThickness), Mm(value), Mm(limit), kind, tool, false).Verdict;

    [Fact]
    public void Standard_uncertainty_by_JCGM_100()
    {
        // JCGM 100:2008, from memory: resolution d / (2 root 3), limits E / root 3, in quadrature. d 0.01, E 0.03 gives 0.017559.
        Tool(0.01, 0.03).StandardUncertainty().Millimeters.ShouldBe(Math.Sqrt(0.0001 / 12 + 0.0009 / 3), 1e-12);
        Tool(0, 0).StandardUncertainty().Millimeters.ShouldBeGreaterThan(0);
    }

    [Fact]
    public void Guard_band_by_ISO_14253_1()
    {
        // ISO 14253-1:2017 and JCGM 106:2012, from memory: 1.645 u one-sided at 95 %.
        var tool = Tool(0.01, 0.03);
        LimitJudgement.Judge(new(Judged.RotorThickness), Mm(9), Mm(8), LimitKind.Minimum, tool, false).GuardBand.Millimeters.ShouldBe(1.645 * tool.StandardUncertainty().Millimeters, 1e-12);
    }

    [Fact]
    public void On_the_limit_is_too_close_and_the_band_itself_is_inside()
    {
        var tool = Tool(0.01, 0.03);
        var guard = 1.645 * tool.StandardUncertainty().Millimeters;
        Of(8, 8, tool).ShouldBe(Verdict.TooCloseToCall);
        Of(8 + guard, 8, tool).ShouldBe(Verdict.Inside);
        Of(8 - guard, 8, tool).ShouldBe(Verdict.Outside);
        Of(8 + guard, 8, tool, LimitKind.Maximum).ShouldBe(Verdict.Outside);
    }

    [Property(MaxTest = 500)]
    public Property More_doubt_never_turns_too_close_into_a_verdict() => Prop.ForAll(Gen.Choose(7900, 8100).ToArbitrary(), Gen.Choose(1, 50).ToArbitrary(), (value, error) =>
    {
        var narrow = Of(value / 1000.0, 8, Tool(0.001, error / 1000.0));
        var wide = Of(value / 1000.0, 8, Tool(0.001, error / 500.0));
        return narrow != Verdict.TooCloseToCall || wide == Verdict.TooCloseToCall;
    });

    [Fact]
    public void A_default_limit_and_a_default_instrument_are_flagged()
    {
        var v = LimitJudgement.Judge(new(Judged.RotorThickness), Mm(3), Mm(2), LimitKind.Minimum, InstrumentCatalogue.Find("caliper")!, true);
        v.Reasons.Lines.Count(l => l.Kind == ReasonKind.Default).ShouldBe(2);
    }

    [Theory]
    [InlineData(-1)]
    [InlineData(1e9)]
    public void A_reading_that_cannot_be_is_refused(double value) =>
        Should.Throw<InputException>(() => Of(value, 8, Tool(0.01, 0.03))).Errors[0].Field.ShouldBe("valueMm");

    [Theory]
    [InlineData(ReadingKind.InnerPad, 0.2, false)]
    [InlineData(ReadingKind.InnerPad, 12, true)]
    [InlineData(ReadingKind.ReservoirLevel, 151, false)]
    [InlineData(ReadingKind.BatteryVoltage, double.NaN, false)]
    public void Readings_have_possible_ranges(ReadingKind kind, double value, bool ok)
    {
        var checks = new Checks();
        ReadingRules.Check(checks, new(kind, value, kind.Card().Instrument), Jobs.Bench.Board);
        checks.Ok.ShouldBe(ok);
    }

    [Fact]
    public void An_instrument_that_is_unknown_unnamed_out_of_calibration_or_cannot_get_at_it_is_refused()
    {
        var board = Jobs.Bench.Board;
        Refused("thumb", board).ShouldContain("No such instrument");
        Refused(null, board).ShouldContain("say what it was measured with");
        Refused("dial", board).ShouldContain("does not get at this: inner pad");
        Refused("caliper", board with { Instruments = [Caliper with { CalibratedUntil = board.Today.AddDays(-1) }] }).ShouldContain("ran out on 2026-11-24");
        Refused("caliper", board with { Instruments = [Caliper with { CalibratedUntil = board.Today }] }).ShouldBe("");

        static string Refused(string? id, ToolBoard board)
        {
            var checks = new Checks();
            ReadingRules.Check(checks, new(ReadingKind.InnerPad, 12, id), board);
            return checks.Ok ? "" : Should.Throw<InputException>(checks.ThrowIfAny).Errors.Single().Message;
        }
    }

    private static readonly Instrument Caliper = InstrumentCatalogue.Find("caliper")!;
}

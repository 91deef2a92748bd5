using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using MathNet.Numerics.Distributions;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Vehicles;
using UnitsNet;
using Xunit.Abstractions;

namespace PatientPawl.Core.Tests.Measuring;

/// <summary>Verdicts against truths that are known because they were made up. Seeded, so that a failure comes again.</summary>
public class VerdictSimulationTests(ITestOutputHelper output)
{
    private static readonly IReadOnlyList<Instrument> All = InstrumentCatalogue.Defaults;
    private static readonly StuckChecks AllRight = new(Known.Yes, Known.Yes, Known.Yes, Known.Yes, true, true);

    private static Length Mm(double mm) => Length.FromMillimeters(mm);

    public static TheoryData<string> DepthGauges => [.. All.Where(i => i.Serves(InstrumentUse.Depth)).Select(i => i.Id)];

    [Theory]
    [MemberData(nameof(DepthGauges))]
    public void Two_thousand_good_pistons_are_never_condemned_and_a_thousand_seized_ones_always(string id)
    {
        var gauge = InstrumentCatalogue.Find(id)!;
        var random = new Random(1128);
        double step = gauge.Resolution.Millimeters, most = gauge.PermissibleError.Millimeters;
        // A gauge is off by one amount for a whole log, and each reading is rounded to its step.
        double Read(double truth, double off) => Math.Max(0, Math.Round((truth + off) / step) * step);
        LogAnswer Follow(List<LogPoint> points, double? lead) => RetractionLog.Follow(new(points, true, Mm(1.5), lead is { } l ? Mm(l) : null, null, [], gauge, false, false, AllRight, null, null));
        var (condemned, missed) = (0, 0);
        for (var n = 0; n < 3000; n++)
        {
            var (lead, start, off, seized) = (0.6 + random.NextDouble() * 1.4, 9 + random.NextDouble() * 9, (random.NextDouble() * 2 - 1) * most, n >= 2000);
            var seizesAt = seized ? random.Next(0, 5) : int.MaxValue;
            List<LogPoint> points = [];
            var stuck = false;
            for (var turn = 0; turn < (seized ? seizesAt + 6 : 100) && start - lead * Math.Min(turn, seizesAt) > 1.5; turn++)
            {
                points.Add(new(Guid.NewGuid(), turn, Mm(Read(start - lead * Math.Min(turn, seizesAt), off))));
                stuck |= Follow(points, n % 2 == 0 ? lead : null).Stuck;
            }

            if (!seized && stuck) condemned++;
            if (seized && !stuck && start - lead * seizesAt > 3.5) missed++;
        }

        output.WriteLine($"{gauge.Name}: {condemned} of 2000 good ones condemned, {missed} of 1000 seized ones missed");
        condemned.ShouldBe(0);
        missed.ShouldBe(0);
    }

    [Fact]
    public void The_ninety_per_cent_band_of_a_forecast_holds_the_truth_nine_times_in_ten()
    {
        // Fieller's theorem, Student t; the share is binomial: 4 000 histories leave 0.5 % of standard error.
        var random = new Random(42);
        var noise = new Normal(0, 0.12, random);
        var (held, judged) = (0, 0);
        while (judged < 4000)
        {
            var (wear, fresh, points) = (0.1 + random.NextDouble() * 0.15, 11.0, random.Next(4, 9));
            var every = (fresh - 4) / wear / points;
            var history = Enumerable.Range(0, points).Select(i => new WearPoint((int)(i * every * 1000), Mm(fresh - wear * (int)(i * every * 1000) / 1000 + noise.Sample()))).ToArray();
            var forecast = PadForecast.Compute(history, Mm(2), null);
            if (forecast.LowKm is not { } low) continue;
            judged++;
            var truth = (fresh - 2) / wear * 1000 - history[^1].OdometerKm;
            if (truth >= low - 0.5 && (forecast.HighKm is not { } high || truth <= high + 0.5)) held++;
        }

        output.WriteLine($"{held} of {judged}");
        ((double)held / judged).ShouldBeInRange(0.88, 0.92);
    }

    [Property(MaxTest = 300)]
    public Property One_more_place_never_makes_a_verdict_better_and_one_thin_place_always_decides() => Prop.ForAll(
        (from tenths in Gen.Choose(5, 90).ListOf(8) from more in Gen.Choose(0, 7) select (tenths.ToArray(), more)).ToArbitrary(), x =>
        {
            var places = (from side in Sides.Both from pad in Enum.GetValues<PadPosition>() from end in Enum.GetValues<PadEnd>() select (side, pad, end)).ToArray();
            var readings = places.Select((p, i) => new PadReading(p.side, p.pad, p.end, Mm(x.Item1[i] / 10.0), InstrumentCatalogue.Find("caliper")!)).ToArray();
            Verdict Of(IEnumerable<PadReading> some) => PadWear.Judge([.. some], new(Mm(11), Mm(11), Mm(2)), [], All).Verdict;
            var without = Of(readings.Where((_, i) => i != x.more));
            var with = Of(readings);
            return with.Weight() >= (without == Verdict.NotYetEnough ? 0 : without.Weight())
                && (with == Verdict.Outside) == x.Item1.Any(t => t < 20 && 2 - t / 10.0 >= 1.645 * UncertaintyBudget.Of(InstrumentCatalogue.Find("caliper")!).Combined.Millimeters)
                && without != Verdict.Inside;
        });

    [Property(MaxTest = 200)]
    public Property A_rotor_is_kept_only_with_every_place_read_that_could_fail() => Prop.ForAll(
        (from n in Gen.Choose(2, 12) from from0 in Gen.Choose(0, 359) from span in Gen.Choose(60, 360) select (n, from0, span)).ToArbitrary(), x =>
        {
            var at = Enumerable.Range(0, x.n).Select(i => (x.from0 + x.span * i / (double)x.n) % 360).ToArray();
            var thickness = RotorThickness.Judge([.. at.Select(a => new ThicknessReading(Angle.FromDegrees(a), Mm(9.2), InstrumentCatalogue.Find("fine-micrometer")!))], new(Mm(8.4)), All);
            var kept = RotorRuling.Decide(thickness, null, null, RotorCondition.NotLooked with { Cracks = Cracks.None }, Side.Left).Verdict == Verdict.Inside;
            var gaps = at.Order().ToArray();
            var widest = gaps.Zip([.. gaps.Skip(1), gaps[0] + 360], (a, b) => b - a).Max();
            return kept == (x.n >= 8 && widest <= 67.5 + 1e-6);
        });
}

using UnitsNet;

namespace PatientPawl.Core.Measuring;

/// <summary>What could settle a verdict.</summary>
public enum SettleKind
{
    /// <summary>More readings at the same point.</summary>
    MoreReadings,
    /// <summary>Another instrument.</summary>
    BetterInstrument,
    /// <summary>Letting it cool.</summary>
    Cooling,
}

/// <summary>A way to settle a verdict that is too close to call.</summary>
/// <param name="Kind">What would be done.</param>
/// <param name="Says">In words.</param>
/// <param name="WouldSettle">True when it would be enough, if it reads the same.</param>
/// <param name="GuardBand">The guard band it would leave.</param>
public sealed record SettledBy(SettleKind Kind, string Says, bool WouldSettle, Length GuardBand);

/// <summary>Works out what would settle a verdict: how many more readings, which instrument on hand, or waiting to cool.</summary>
internal static class Settling
{
    /// <summary>The ways, those that would not do included when nothing would; empty unless the verdict is too close to call.</summary>
    /// <param name="verdict">The verdict.</param>
    /// <param name="point">The reading that decided it.</param>
    /// <param name="use">What the instrument must get at.</param>
    /// <param name="onHand">The workshop's instruments that are in date.</param>
    /// <param name="temperature">Doubt of the temperature, when there is any.</param>
    /// <param name="difference">True when the value is a difference of two such readings.</param>
    public static List<SettledBy> Of<T>(LimitVerdict verdict, MeasuredPoint<T> point, InstrumentUse use, IReadOnlyList<Instrument> onHand, TemperatureDoubt? temperature = null, bool difference = false)
    {
        if (verdict.Verdict != Verdict.TooCloseToCall) return [];
        var factor = LimitJudgement.GuardFactor * (difference ? Math.Sqrt(2) : 1);
        var margin = Math.Abs(verdict.Limit.Millimeters - verdict.Value.Millimeters);
        var need = margin / factor;
        var (used, count, spread) = (point.Instrument, point.Count, point.Spread);
        var fixedPart = point.Budget.Fixed.Millimeters;
        List<SettledBy> ways = [];
        if (need > fixedPart && count >= 2)
        {
            var s = count < 6 ? Math.Max(spread, (used.Repeatability ?? used.Resolution).Millimeters) : spread;
            var n = (int)Math.Min(Math.Ceiling(s * s / (need * need - fixedPart * fixedPart)), 10_000);
            ways.Add(new(SettleKind.MoreReadings, $"{Math.Max(n - count, 1)} more at the same point would settle it.", true, Guard(Math.Sqrt(fixedPart * fixedPart + s * s / Math.Max(n, count + 1)))));
        }
        else
        {
            ways.Add(new(SettleKind.MoreReadings, $"More readings with the {Phrase.Small(used.Name)} will not settle it.", false, Guard(fixedPart)));
        }

        // Those that would do, or else the finest there is: a list of what will not help is no help.
        var finer = onHand.Where(i => i.Serves(use) && i.Id != used.Id)
            .Select(i => (i.Name, Guard: Guard(UncertaintyBudget.Figure(i, 1, 0, temperature)))).Where(i => i.Guard < verdict.GuardBand).OrderBy(i => i.Guard.Millimeters).ToArray();
        var enough = finer.Where(i => i.Guard.Millimeters <= margin).ToArray();
        foreach (var (name, guard) in enough.Length > 0 ? enough : finer[..Math.Min(finer.Length, 1)])
            ways.Add(new(SettleKind.BetterInstrument, $"The {Phrase.Small(name)} {(enough.Length > 0 ? "will" : "will not")}: guard {Figure.Of(guard.Millimeters)}, room {Figure.Of(margin)}.", enough.Length > 0, guard));

        if (temperature is { HalfWidthKelvin: > 0 })
        {
            var guard = Guard(Math.Sqrt(point.Budget.Parts.Where(p => p.Name != "temperature").Sum(p => Math.Pow(p.StandardUncertainty.Millimeters, 2))));
            ways.Add(new(SettleKind.Cooling, $"Cooling to room temperature {(guard.Millimeters <= margin ? "would" : "would not")} settle it by itself.", guard.Millimeters <= margin, guard));
        }

        return ways;

        Length Guard(double u) => Length.FromMillimeters(factor * u);
    }
}

/// <summary>What was read at one point: its repeats by the finest instrument used there.</summary>
/// <param name="At">The point.</param>
/// <param name="Mm">The mean of the repeats.</param>
/// <param name="Instrument">The instrument.</param>
/// <param name="Count">How many repeats.</param>
/// <param name="Spread">Their standard deviation, mm.</param>
/// <param name="Temperature">Doubt of the temperature, when there is any.</param>
internal sealed record MeasuredPoint<T>(T At, double Mm, Instrument Instrument, int Count, double Spread, TemperatureDoubt? Temperature = null)
{
    /// <summary>The doubt, part by part: worked out where it is shown, as most points only have to be compared.</summary>
    public UncertaintyBudget Budget => field ??= UncertaintyBudget.Of(Instrument, Count >= 2 ? new(Count, Length.FromMillimeters(Spread)) : null, Temperature);

    /// <summary>The same doubt as one figure.</summary>
    public double Doubt { get; } = UncertaintyBudget.Figure(Instrument, Count, Spread, Temperature);
}

internal static class MeasuredPoints
{
    /// <summary>
    /// Groups readings by point. Where a point was read with more than one instrument, the finest one's readings count: the
    /// coarser ones stay in the record and no longer decide.
    /// </summary>
    public static List<MeasuredPoint<TPoint>> Of<TReading, TPoint>(
        IEnumerable<TReading> readings, Func<TReading, TPoint> point, Func<TReading, double> mm, Func<TReading, Instrument> instrument, Func<double, TemperatureDoubt?>? temperature = null) where TPoint : notnull
    {
        List<MeasuredPoint<TPoint>> points = [];
        foreach (var group in readings.GroupBy(point))
        {
            var finest = group.Select(instrument).MinBy(i => UncertaintyBudget.Figure(i, 1, 0, null))!;
            var values = group.Where(r => instrument(r).Id == finest.Id).Select(mm).ToArray();
            var mean = values.Average();
            var spread = values.Length < 2 ? 0 : Math.Sqrt(values.Sum(v => (v - mean) * (v - mean)) / (values.Length - 1));
            points.Add(new(group.Key, mean, finest, values.Length, spread, temperature?.Invoke(mean)));
        }

        return points;
    }

    /// <summary>The point that decides against a limit: the one that its doubt brings nearest to the bad side, or furthest over.</summary>
    public static MeasuredPoint<T> Deciding<T>(this List<MeasuredPoint<T>> points, LimitKind kind) => kind == LimitKind.Maximum
        ? points.MaxBy(p => p.Mm + LimitJudgement.GuardFactor * p.Doubt)!
        : points.MinBy(p => p.Mm - LimitJudgement.GuardFactor * p.Doubt)!;
}

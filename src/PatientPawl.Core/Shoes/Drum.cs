using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Shoes;

/// <summary>Where along the drum's depth a diameter was taken.</summary>
public enum DrumDepth
{
    /// <summary>Near the open edge, but inside any ridge.</summary>
    OpenEdge,
    /// <summary>Near the floor.</summary>
    NearFloor,
}

/// <summary>One inside diameter of the hat's drum.</summary>
/// <param name="Direction">Direction across the drum, 0 up to 180 degrees.</param>
/// <param name="Depth">Where along its depth.</param>
/// <param name="Diameter">The reading, 50 to 500 mm.</param>
public sealed record DrumReading(Angle Direction, DrumDepth Depth, Length Diameter);

/// <summary>The drum as measured.</summary>
/// <param name="Readings">At least two; the same point more than once counts as repeats.</param>
/// <param name="InstrumentId">The instrument they were taken with.</param>
/// <param name="DrumCelsius">The drum's temperature, -30 to 150 degrees C; null means 20.</param>
/// <param name="GaugeCelsius">The gauge's temperature, -30 to 60 degrees C; null means 20.</param>
/// <param name="DifferenceDoubtKelvin">Half-width of the doubt of their difference, 0 to 50 K.</param>
public sealed record Drum(IReadOnlyList<DrumReading> Readings, string InstrumentId, double? DrumCelsius, double? GaugeCelsius, double DifferenceDoubtKelvin);

/// <summary>A way to settle a verdict that is too close to call.</summary>
/// <param name="Kind">What would be done.</param>
/// <param name="Says">In words.</param>
/// <param name="WouldSettle">True when it would be enough, if it reads the same.</param>
/// <param name="GuardBand">The guard band it would leave.</param>
public sealed record SettledBy(SettleKind Kind, string Says, bool WouldSettle, Length GuardBand);

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

/// <summary>The drum judged against its maximum diameter.</summary>
/// <param name="Largest">Largest reading, corrected to 20 degrees C.</param>
/// <param name="LargestAt">Where it was found.</param>
/// <param name="Smallest">Smallest reading, corrected.</param>
/// <param name="Mean">Mean of all, corrected.</param>
/// <param name="OutOfRound">Largest minus smallest in one plane, the worse plane.</param>
/// <param name="OutOfRoundLimit">Its limit.</param>
/// <param name="OutOfRoundVerdict">Its verdict.</param>
/// <param name="Taper">Mean at the open edge minus mean near the floor; null with one plane.</param>
/// <param name="Correction">What the temperature correction took off the largest reading.</param>
/// <param name="Maximum">The verdict against the maximum diameter.</param>
/// <param name="Budget">The doubt, part by part.</param>
/// <param name="SettledBy">What would settle it, when it is too close to call; empty otherwise.</param>
/// <param name="Notes">What else to know.</param>
/// <param name="Reasons">Why.</param>
public sealed record DrumVerdict(
    Length Largest, DrumReading LargestAt, Length Smallest, Length Mean, Length OutOfRound, Length OutOfRoundLimit, LimitVerdict OutOfRoundVerdict, Length? Taper, Length Correction,
    LimitVerdict Maximum, UncertaintyBudget Budget, IReadOnlyList<SettledBy> SettledBy, IReadOnlyList<string> Notes, Reasons Reasons) : IReasoned;

/// <summary>Judges the drum in the hat against its maximum diameter.</summary>
[Engine]
public static class DrumJudgement
{
    /// <summary>Expansion of grey iron, per kelvin (from memory).</summary>
    public const double IronExpansion = 11e-6;

    /// <summary>Expansion of a steel gauge, per kelvin (from memory).</summary>
    public const double GaugeExpansion = 11.5e-6;

    /// <summary>Out-of-round limit when the sheet is silent: 0.15 mm (from memory, flagged).</summary>
    public static Length DefaultOutOfRound { get; } = Length.FromMillimeters(0.15);

    /// <summary>How near the maximum a note speaks of weak contact: 0.3 mm of diameter, our own choice. It judges nothing.</summary>
    public static Length NearMaximum { get; } = Length.FromMillimeters(0.3);

    /// <summary>
    /// The largest reading decides, corrected to 20 degrees C: D20 = D (1 + ag (Tg - 20)) / (1 + ad (Td - 20)). Repeats at one
    /// point are averaged and their spread enters the doubt; differences between points are shape and do not.
    /// </summary>
    /// <param name="drum">The drum.</param>
    /// <param name="maximum">The maximum (discard) diameter, 50 to 500 mm.</param>
    /// <param name="outOfRoundLimit">The sheet's limit; null uses the flagged default.</param>
    /// <exception cref="InputException">Fewer than two readings, an impossible one, or an unknown instrument.</exception>
    public static DrumVerdict Judge(Drum drum, Length maximum, Length? outOfRoundLimit = null)
    {
        ArgumentNullException.ThrowIfNull(drum);
        var instrument = Check(drum, maximum, outOfRoundLimit);
        double td = drum.DrumCelsius ?? 20, tg = drum.GaugeCelsius ?? 20;
        var factor = (1 + GaugeExpansion * (tg - 20)) / (1 + IronExpansion * (td - 20));
        var points = drum.Readings.GroupBy(r => (Direction: Math.Round(r.Direction.Degrees % 180, 3), r.Depth))
            .Select(g => (At: g.First(), Mm: g.Average(r => r.Diameter.Millimeters) * factor, Raw: g.Average(r => r.Diameter.Millimeters), Count: g.Count(), Spread: Spread([.. g.Select(r => r.Diameter.Millimeters)]))).ToArray();
        var largest = points.MaxBy(p => p.Mm);
        var smallest = points.Min(p => p.Mm);
        var repeats = largest.Count >= 2 ? new Repeats(largest.Count, Length.FromMillimeters(largest.Spread)) : null;
        var doubt = new TemperatureDoubt(IronExpansion, Length.FromMillimeters(largest.Mm), drum.DifferenceDoubtKelvin);
        var budget = UncertaintyBudget.Of(instrument, repeats, doubt);
        var verdict = LimitJudgement.Against("Largest drum diameter", Length.FromMillimeters(largest.Mm), budget, maximum, LimitKind.Maximum, instrument, false);

        var planes = points.GroupBy(p => p.At.Depth).ToDictionary(g => g.Key, g => g.ToArray());
        var outOfRound = planes.Values.Max(g => g.Max(p => p.Mm) - g.Min(p => p.Mm));
        double? taper = planes.Count == 2 ? planes[DrumDepth.OpenEdge].Average(p => p.Mm) - planes[DrumDepth.NearFloor].Average(p => p.Mm) : null;
        // A difference of two readings has root 2 times the doubt of one.
        var difference = new UncertaintyBudget([.. budget.Parts.Select(p => p with { Name = p.Name + ", twice", StandardUncertainty = p.StandardUncertainty * Math.Sqrt(2) })], budget.Combined * Math.Sqrt(2));
        var round = LimitJudgement.Against("Out of round", Length.FromMillimeters(outOfRound), difference, outOfRoundLimit ?? DefaultOutOfRound, LimitKind.Maximum, instrument, outOfRoundLimit is null);

        List<string> notes = [];
        if (points.Select(p => p.At.Direction.Degrees).Distinct().Count() < 4) notes.Add("Fewer than four directions: an oval can hide between them.");
        if (planes.Count < 2) notes.Add("One depth only: taper is not known.");
        notes.Add("Diameters miss odd lobes and a bore off centre; a dial run round the surface shows both.");
        if (verdict.Verdict == Verdict.Inside && maximum.Millimeters - largest.Mm < NearMaximum.Millimeters) notes.Add("Near its maximum new shoes touch in the middle only: a weak parking brake until they bed.");

        var trail = new Trail("DrumJudgement.Judge")
            .Input("Readings", $"{drum.Readings.Count}, {instrument.Name}")
            .Input("Largest", $"{Figure.Of(largest.Raw)} mm at {Figure.Of(largest.At.Direction.Degrees)}°, {(largest.At.Depth == DrumDepth.OpenEdge ? "open edge" : "near the floor")}");
        if (td != 20 || tg != 20)
            trail.Formula("At 20 °C", "D (1 + ag (Tg - 20)) / (1 + ad (Td - 20))", $"{Figure.Of(largest.Raw)} (1 + 11.5e-6 × {Figure.Of(tg - 20)}) / (1 + 11e-6 × {Figure.Of(td - 20)})", $"{Figure.Of(largest.Mm)} mm", "geometry");
        trail.Formula("Out of round", "largest - smallest in one plane", "the worse plane", $"{Figure.Of(outOfRound)} mm", "geometry");
        if (outOfRoundLimit is null) trail.Default("Out-of-round limit", $"{Figure.Of(DefaultOutOfRound.Millimeters)} mm", "practice-out-of-round");
        if (taper is { } t) trail.Formula("Taper", "mean at the open edge - mean near the floor", "", $"{Figure.Of(t)} mm", "geometry");
        trail.Conclude(verdict.Reasons.Lines[^1].Result, "iso-14253-1").WouldChange("A larger reading found elsewhere, a finer instrument, or a drum at room temperature.");

        return new(Length.FromMillimeters(largest.Mm), largest.At, Length.FromMillimeters(smallest), Length.FromMillimeters(points.Average(p => p.Mm)),
            Length.FromMillimeters(outOfRound), outOfRoundLimit ?? DefaultOutOfRound, round, taper is { } x ? Length.FromMillimeters(x) : null, Length.FromMillimeters(largest.Raw - largest.Mm),
            verdict, budget, verdict.Verdict == Verdict.TooCloseToCall ? Settle(verdict, budget, instrument, doubt, largest.Count, largest.Spread) : [], notes, trail.Done());
    }

    /// <summary>Instruments that reach the inside of a drum.</summary>
    private static readonly string[] Inside = ["drum-gauge", "bore-micrometer", "caliper", "vernier"];

    private static List<SettledBy> Settle(LimitVerdict verdict, UncertaintyBudget budget, Instrument instrument, TemperatureDoubt doubt, int count, double spread)
    {
        var margin = Math.Abs(verdict.Limit.Millimeters - verdict.Value.Millimeters);
        var need = margin / LimitJudgement.GuardFactor;
        var fixedPart = budget.Fixed.Millimeters;
        List<SettledBy> ways = [];
        if (need > fixedPart && count >= 2)
        {
            var s = count < 6 ? Math.Max(spread, instrument.Resolution.Millimeters) : spread;
            var n = (int)Math.Ceiling(s * s / (need * need - fixedPart * fixedPart));
            ways.Add(new(SettleKind.MoreReadings, $"{Math.Max(n - count, 1)} more at the same point would settle it.", true, Guard(Math.Sqrt(fixedPart * fixedPart + s * s / Math.Max(n, count + 1)))));
        }
        else
        {
            ways.Add(new(SettleKind.MoreReadings, $"More readings with the {instrument.Name.ToLowerInvariant()} will not settle it.", false, Guard(fixedPart)));
        }

        // Those that would do, or else the finest there is: a list of what will not help is no help.
        var finer = InstrumentCatalogue.Defaults.Where(i => Inside.Contains(i.Id) && i.Id != instrument.Id)
            .Select(i => (i.Name, Guard: Guard(UncertaintyBudget.Of(i, null, doubt).Combined.Millimeters))).Where(i => i.Guard < verdict.GuardBand).OrderBy(i => i.Guard.Millimeters).ToArray();
        var enough = finer.Where(i => i.Guard.Millimeters <= margin).ToArray();
        foreach (var (name, guard) in enough.Length > 0 ? enough : finer[..Math.Min(finer.Length, 1)])
            ways.Add(new(SettleKind.BetterInstrument, $"The {name.ToLowerInvariant()} {(enough.Length > 0 ? "will" : "will not")}: guard {Figure.Of(guard.Millimeters)}, room {Figure.Of(margin)}.", enough.Length > 0, guard));

        if (doubt.HalfWidthKelvin > 0)
        {
            var guard = Guard(Math.Sqrt(budget.Parts.Where(p => p.Name != "temperature").Sum(p => Math.Pow(p.StandardUncertainty.Millimeters, 2))));
            ways.Add(new(SettleKind.Cooling, $"Cooling to room temperature {(guard.Millimeters <= margin ? "would" : "would not")} settle it by itself.", guard.Millimeters <= margin, guard));
        }

        return ways;

        static Length Guard(double u) => Length.FromMillimeters(LimitJudgement.GuardFactor * u);
    }

    private static Instrument Check(Drum drum, Length maximum, Length? outOfRoundLimit)
    {
        var checks = new Checks().Millimetres("maximumMm", maximum, 50, 500).Millimetres("outOfRoundLimitMm", outOfRoundLimit, 0.01, 2)
            .Range("drumCelsius", drum.DrumCelsius, -30, 150, "°C").Range("gaugeCelsius", drum.GaugeCelsius, -30, 60, "°C").Range("differenceDoubtKelvin", drum.DifferenceDoubtKelvin, 0, 50, "K");
        if (drum.Readings.Count is < 2 or > 200)
            checks.Add("readings", Figure.Of(drum.Readings.Count), "2 to 200", "At least two diameters are needed, better four directions at two depths.");
        foreach (var r in drum.Readings)
        {
            checks.Range("directionDeg", r.Direction.Degrees, 0, 180, "degrees");
            if (r.Diameter.Millimeters is >= 1 and < 50)
            {
                var asInch = Length.FromInches(r.Diameter.Millimeters).Millimeters;
                checks.Add("diameterMm", Figure.Of(r.Diameter.Millimeters), "50 to 500 mm", $"{Figure.Of(r.Diameter.Millimeters)} mm is no drum: in inches it would be {Figure.Of(asInch, 2)} mm.");
            }
            else
            {
                checks.Millimetres("diameterMm", r.Diameter, 50, 500);
            }
        }

        var instrument = InstrumentCatalogue.Find(drum.InstrumentId);
        if (instrument is null) checks.Add("instrumentId", Figure.Shorten(drum.InstrumentId), string.Join(", ", InstrumentCatalogue.Defaults.Select(i => i.Id)), "No such instrument in the workshop.");
        checks.ThrowIfAny();
        return instrument!;
    }

    private static double Spread(double[] values)
    {
        if (values.Length < 2) return 0;
        var mean = values.Average();
        return Math.Sqrt(values.Sum(v => (v - mean) * (v - mean)) / (values.Length - 1));
    }
}

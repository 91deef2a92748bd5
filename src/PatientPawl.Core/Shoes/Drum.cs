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
/// <param name="Instrument">What it was taken with.</param>
/// <param name="Celsius">The drum's temperature at this reading; null counts as the drum's own.</param>
public sealed record DrumReading(Angle Direction, DrumDepth Depth, Length Diameter, Instrument Instrument, double? Celsius = null);

/// <summary>The drum as measured.</summary>
/// <param name="Readings">At least two; the same point more than once counts as repeats.</param>
/// <param name="DrumCelsius">The drum's temperature, -30 to 150 degrees C; null means 20.</param>
/// <param name="GaugeCelsius">The gauge's temperature, -30 to 60 degrees C; null means 20.</param>
/// <param name="DifferenceDoubtKelvin">Half-width of the doubt of their difference, 0 to 50 K.</param>
/// <param name="Ridge">Height of the ridge at the open edge, radial, 0 to 5 mm; null when there is none.</param>
public sealed record Drum(IReadOnlyList<DrumReading> Readings, double? DrumCelsius, double? GaugeCelsius, double DifferenceDoubtKelvin, Length? Ridge = null);

/// <summary>What is stamped on the hat or listed for it.</summary>
/// <param name="Maximum">The maximum (discard) diameter, 50 to 500 mm.</param>
/// <param name="OutOfRoundLimit">0.01 to 2 mm; null uses the flagged default 0.15 mm.</param>
/// <param name="Nominal">Diameter when new; null when not known.</param>
/// <param name="MachineTo">Largest diameter it may be machined to; null uses the flagged default, 0.75 mm under the maximum.</param>
/// <param name="CleanUp">Depth of the cut that would clean it up, radial, 0.05 to 2 mm; null uses 0.25 mm, our own assumption.</param>
public sealed record DrumSheet(Length Maximum, Length? OutOfRoundLimit = null, Length? Nominal = null, Length? MachineTo = null, Length? CleanUp = null)
{
    /// <summary>Where the maximum comes from; null means the spec sheet.</summary>
    public string? MaximumFrom { get; init; }
}

/// <summary>Whether a cut would leave it within its machine-to limit.</summary>
/// <param name="Possible">True when it would.</param>
/// <param name="MachineTo">The limit.</param>
/// <param name="After">The size after the cut.</param>
public sealed record RoomToMachine(bool Possible, Length MachineTo, Length After);

/// <summary>The drum judged against its maximum diameter.</summary>
/// <param name="Largest">The diameter that decides, corrected to 20 degrees C.</param>
/// <param name="LargestAt">Where it was found.</param>
/// <param name="Smallest">Smallest reading, corrected.</param>
/// <param name="Mean">Mean of all, corrected.</param>
/// <param name="OutOfRound">Largest minus smallest in one plane, the worse plane.</param>
/// <param name="OutOfRoundLimit">Its limit.</param>
/// <param name="OutOfRoundVerdict">Its verdict.</param>
/// <param name="Taper">Mean at the open edge minus mean near the floor; null with one plane.</param>
/// <param name="Ridge">Height of the ridge, radial; null when there is none.</param>
/// <param name="Correction">What the temperature correction took off the largest reading.</param>
/// <param name="Maximum">The verdict against the maximum diameter.</param>
/// <param name="Machine">Whether it could be machined.</param>
/// <param name="Budget">The doubt, part by part.</param>
/// <param name="SettledBy">What would settle the maximum, when it is too close to call; empty otherwise.</param>
/// <param name="OutOfRoundSettledBy">What would settle the out-of-round.</param>
/// <param name="Notes">What else to know.</param>
/// <param name="Reasons">Why.</param>
public sealed record DrumVerdict(
    Length Largest, DrumReading LargestAt, Length Smallest, Length Mean, Length OutOfRound, Length OutOfRoundLimit, LimitVerdict OutOfRoundVerdict, Length? Taper, Length? Ridge, Length Correction,
    LimitVerdict Maximum, RoomToMachine Machine, UncertaintyBudget Budget, IReadOnlyList<SettledBy> SettledBy, IReadOnlyList<SettledBy> OutOfRoundSettledBy, IReadOnlyList<string> Notes, Reasons Reasons) : IReasoned;

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

    /// <summary>Machine-to limit under the discard diameter when the sheet is silent: 0.75 mm (common practice, from memory).</summary>
    public static Length DefaultMachiningReserve { get; } = Length.FromMillimeters(0.75);

    /// <summary>Radial depth of a cleaning cut when none is given: 0.25 mm, our own assumption.</summary>
    public static Length DefaultCleanUp { get; } = Length.FromMillimeters(0.25);

    /// <summary>How near the maximum a note speaks of weak contact: 0.3 mm of diameter, our own choice. It judges nothing.</summary>
    public static Length NearMaximum { get; } = Length.FromMillimeters(0.3);

    /// <summary>
    /// The largest reading decides, corrected to 20 degrees C: D20 = D (1 + ag (Tg - 20)) / (1 + ad (Td - 20)). Repeats at one
    /// point are averaged and their spread enters the doubt; differences between points are shape and do not.
    /// </summary>
    /// <param name="drum">The drum.</param>
    /// <param name="sheet">Its limits.</param>
    /// <param name="onHand">The workshop's instruments in date, for what would settle a close verdict.</param>
    /// <exception cref="InputException">Fewer than two readings, an impossible one, or a limit under the nominal diameter.</exception>
    public static DrumVerdict Judge(Drum drum, DrumSheet sheet, IReadOnlyList<Instrument> onHand)
    {
        ArgumentNullException.ThrowIfNull(drum);
        ArgumentNullException.ThrowIfNull(sheet);
        ArgumentNullException.ThrowIfNull(onHand);
        Check(drum, sheet);
        var tg = drum.GaugeCelsius ?? 20;
        double Of(DrumReading r) => r.Celsius ?? drum.DrumCelsius ?? 20;
        double Factor(double td) => (1 + GaugeExpansion * (tg - 20)) / (1 + IronExpansion * (td - 20));
        TemperatureDoubt Temperature(double mm) => new(IronExpansion, L(mm), drum.DifferenceDoubtKelvin);
        var points = MeasuredPoints.Of(drum.Readings, r => (Direction: Math.Round(r.Direction.Degrees % 180, 3), r.Depth), r => r.Diameter.Millimeters * Factor(Of(r)), r => r.Instrument, Temperature);
        var largest = points.Deciding(LimitKind.Maximum);
        var largestAt = drum.Readings.First(r => Math.Abs(Math.Round(r.Direction.Degrees % 180, 3) - largest.At.Direction) < 1e-9 && r.Depth == largest.At.Depth && r.Instrument.Id == largest.Instrument.Id);
        var td = Of(largestAt);
        var factor = Factor(td);
        var smallest = points.Min(p => p.Mm);
        var planes = points.GroupBy(p => p.At.Depth).ToDictionary(g => g.Key, g => g.ToArray());
        string[] depths = [.. Enum.GetValues<DrumDepth>().Where(d => !planes.TryGetValue(d, out var at) || at.Length < 2).Select(d => $"two directions {(d == DrumDepth.OpenEdge ? "at the open edge" : "near the floor")}")];
        string[] directions = planes.Values.Any(at => at.Length >= 4) ? [] : ["four directions in one plane"];
        var verdict = LimitJudgement.Against(new(Judged.DrumDiameter), L(largest.Mm), largest.Budget, sheet.Maximum, LimitKind.Maximum, largest.Instrument, null, depths, sheet.MaximumFrom);
        var outOfRound = planes.Values.Max(g => g.Max(p => p.Mm) - g.Min(p => p.Mm));
        double? taper = planes.Count == 2 ? planes[DrumDepth.OpenEdge].Average(p => p.Mm) - planes[DrumDepth.NearFloor].Average(p => p.Mm) : null;
        // A difference is no better known than by the coarser of its two readings.
        var coarsest = points.MaxBy(p => p.Doubt)!;
        var round = LimitJudgement.Against(new(Judged.DrumOutOfRound), L(outOfRound), coarsest.Budget.OfDifference(), sheet.OutOfRoundLimit ?? DefaultOutOfRound, LimitKind.Maximum, coarsest.Instrument, sheet.OutOfRoundLimit is null ? "practice-out-of-round" : null, directions);
        var machine = Machining(largest.Mm, sheet);

        List<string> notes = [];
        if (points.Select(p => p.At.Direction).Distinct().Count() < 4) notes.Add("Fewer than four directions: an oval can hide between them.");
        if (planes.Count < 2) notes.Add("One depth only: taper is not known.");
        notes.Add("Diameters miss odd lobes and a bore off centre; a dial run round the surface shows both.");
        if (round.Verdict == Verdict.Outside) notes.Add($"Out of round: {(machine.Possible && verdict.Verdict == Verdict.Inside ? "machine it, or replace it" : "replace it; there is no room to machine")}.");
        if (verdict.Verdict == Verdict.Inside && sheet.Maximum.Millimeters - largest.Mm < NearMaximum.Millimeters)
            notes.Add("Near its maximum new shoes touch in the middle only: a weak parking brake until they bed. Offer the gentle parking-brake bed-in that the maker allows.");

        var trail = new Trail("DrumJudgement.Judge")
            .Input("Readings", $"{drum.Readings.Count}, {string.Join(", ", drum.Readings.Select(r => r.Instrument.Name).Distinct())}")
            .Input("Largest", $"{Figure.Of(largest.Mm / factor)} mm at {Figure.Of(largest.At.Direction)}°, {(largest.At.Depth == DrumDepth.OpenEdge ? "open edge" : "near the floor")}");
        if (td != 20 || tg != 20)
            trail.Formula("At 20 °C", "D (1 + ag (Tg - 20)) / (1 + ad (Td - 20))", $"{Figure.Of(largest.Mm / factor)} (1 + 11.5e-6 × {Figure.Of(tg - 20)}) / (1 + 11e-6 × {Figure.Of(td - 20)})", $"{Figure.Of(largest.Mm)} mm", "geometry");
        trail.Formula("Out of round", "largest - smallest in one plane", "the worse plane", $"{Figure.Of(outOfRound)} mm", "geometry");
        if (sheet.OutOfRoundLimit is null) trail.Default("Out-of-round limit", $"{Figure.Of(DefaultOutOfRound.Millimeters)} mm", "practice-out-of-round");
        if (taper is { } t) trail.Formula("Taper", "mean at the open edge - mean near the floor", "", $"{Figure.Of(t)} mm", "geometry");
        _ = sheet.MachineTo is null ? trail.Default("Machine to", $"{Figure.Of(machine.MachineTo.Millimeters)} mm, 0.75 mm under the maximum", "practice-machining") : trail.Input("Machine to", $"{Figure.Of(machine.MachineTo.Millimeters)} mm", "spec-sheet");
        trail.Formula("After a cut", "largest + 2 × clean-up", $"{Figure.Of(largest.Mm)} + 2 × {Figure.Of((sheet.CleanUp ?? DefaultCleanUp).Millimeters)}", $"{Figure.Of(machine.After.Millimeters)} mm: {(machine.Possible ? "room" : "no room")} to machine", "practice-machining")
            .Conclude(verdict.Reasons.Lines[^1].Result, "iso-14253-1").WouldChange("A larger reading found elsewhere, a finer instrument, or a drum at room temperature.");

        return new(L(largest.Mm), largestAt, L(smallest), L(points.Average(p => p.Mm)),
            L(outOfRound), sheet.OutOfRoundLimit ?? DefaultOutOfRound, round, taper is { } x ? L(x) : null, drum.Ridge, L(largest.Mm / factor - largest.Mm),
            verdict, machine, largest.Budget, Settling.Of(verdict, largest, InstrumentUse.Inside, onHand, Temperature(largest.Mm)), Settling.Of(round, coarsest, InstrumentUse.Inside, onHand, difference: true), notes, trail.Done());
    }

    private static RoomToMachine Machining(double largest, DrumSheet sheet)
    {
        var to = sheet.MachineTo ?? sheet.Maximum - DefaultMachiningReserve;
        var after = L(largest + 2 * (sheet.CleanUp ?? DefaultCleanUp).Millimeters);
        return new(after < to, to, after);
    }

    private static void Check(Drum drum, DrumSheet sheet)
    {
        var checks = new Checks().Millimetres("maximumMm", sheet.Maximum, 50, 500).Millimetres("outOfRoundLimitMm", sheet.OutOfRoundLimit, 0.01, 2)
            .Millimetres("nominalMm", sheet.Nominal, 50, 500).Millimetres("machineToMm", sheet.MachineTo, 50, 500).Millimetres("cleanUpMm", sheet.CleanUp, 0.05, 2).Millimetres("ridgeMm", drum.Ridge, 0, 5)
            .Range("drumCelsius", drum.DrumCelsius, -30, 150, "°C").Range("gaugeCelsius", drum.GaugeCelsius, -30, 60, "°C").Range("differenceDoubtKelvin", drum.DifferenceDoubtKelvin, 0, 50, "K");
        if (sheet.Nominal is { } nominal && nominal >= sheet.Maximum)
            checks.Add("maximumMm", Figure.Of(sheet.Maximum.Millimeters), $"over the nominal {Figure.Of(nominal.Millimeters)} mm", $"The maximum, {Figure.Of(sheet.Maximum.Millimeters)} mm, is not over the diameter when new, {Figure.Of(nominal.Millimeters)} mm: one of them is wrong.");
        if (sheet.MachineTo is { } to && to > sheet.Maximum)
            checks.Add("machineToMm", Figure.Of(to.Millimeters), $"at most {Figure.Of(sheet.Maximum.Millimeters)} mm", "The machine-to limit is over the maximum.");
        if (drum.Readings.Count is < 2 or > 200)
            checks.Add("readings", Figure.Of(drum.Readings.Count), "2 to 200", "At least two diameters are needed, better four directions at two depths.");
        foreach (var r in drum.Readings)
        {
            checks.Range("directionDeg", r.Direction.Degrees, 0, 180, "degrees").Range("celsius", r.Celsius, -30, 150, "°C");
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

        checks.ThrowIfAny();
    }

    private static Length L(double mm) => Length.FromMillimeters(mm);
}

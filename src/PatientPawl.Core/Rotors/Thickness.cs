using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Shoes;
using UnitsNet;

namespace PatientPawl.Core.Rotors;

/// <summary>Rotor thickness at one place of the ring.</summary>
/// <param name="Angle">From stud 1, 0 up to 360 degrees.</param>
/// <param name="Thickness">The reading, 2 to 80 mm.</param>
/// <param name="Instrument">What it was taken with.</param>
public sealed record ThicknessReading(Angle Angle, Length Thickness, Instrument Instrument);

/// <summary>The rotor's limits.</summary>
/// <param name="Minimum">Minimum thickness, stamped or listed, 2 to 80 mm.</param>
/// <param name="New">Thickness when new; null when not known.</param>
/// <param name="VariationLimit">Thickness variation, 0.001 to 0.5 mm; null uses the flagged default 0.015 mm.</param>
/// <param name="CleanUp">Depth of a cleaning cut, each face, 0.02 to 2 mm; null uses 0.15 mm, our own assumption.</param>
public sealed record RotorSheet(Length Minimum, Length? New = null, Length? VariationLimit = null, Length? CleanUp = null)
{
    /// <summary>Where the minimum comes from; null means the spec sheet.</summary>
    public string? MinimumFrom { get; init; }

    /// <summary>Deepest groove, 0 to 5 mm; null when not measured.</summary>
    public Length? Scored { get; init; }
}

/// <summary>Rotor thickness judged.</summary>
/// <param name="Smallest">The thickness that decides.</param>
/// <param name="SmallestAt">Where.</param>
/// <param name="Mean">Mean of all points.</param>
/// <param name="Variation">Largest minus smallest.</param>
/// <param name="Minimum">The verdict against the minimum.</param>
/// <param name="VariationVerdict">The verdict on the variation.</param>
/// <param name="Machine">Whether it could be machined.</param>
/// <param name="SettledBy">What would settle the minimum, when it is too close to call.</param>
/// <param name="VariationSettledBy">What would settle the variation.</param>
/// <param name="Notes">What else to know.</param>
/// <param name="Reasons">Why.</param>
public sealed record ThicknessVerdict(
    Length Smallest, Angle SmallestAt, Length Mean, Length Variation, LimitVerdict Minimum, LimitVerdict VariationVerdict, RoomToMachine Machine,
    IReadOnlyList<SettledBy> SettledBy, IReadOnlyList<SettledBy> VariationSettledBy, IReadOnlyList<string> Notes, Reasons Reasons) : IReasoned;

/// <summary>Judges rotor thickness and its variation.</summary>
[Engine]
public static class RotorThickness
{
    /// <summary>Thickness variation when the sheet is silent: 0.015 mm (from memory, flagged).</summary>
    public static Length DefaultVariation { get; } = Length.FromMillimeters(0.015);

    /// <summary>What must be left over the minimum after machining: 0.4 mm (from memory).</summary>
    public static Length MachiningReserve { get; } = Length.FromMillimeters(0.4);

    /// <summary>Depth of a cleaning cut a face when none is given: 0.15 mm, our own assumption.</summary>
    public static Length DefaultCleanUp { get; } = Length.FromMillimeters(0.15);

    /// <summary>
    /// The smallest thickness decides against the minimum. Variation is largest minus smallest, a difference of two readings with root 2
    /// times their doubt. Repeats at one angle are averaged. 4, 8 or 12 points about 10 mm in from the edge.
    /// </summary>
    /// <exception cref="InputException">Fewer than two points, an impossible reading, or a minimum that is not under the thickness when new.</exception>
    public static ThicknessVerdict Judge(IReadOnlyList<ThicknessReading> readings, RotorSheet sheet, IReadOnlyList<Instrument> onHand)
    {
        ArgumentNullException.ThrowIfNull(readings);
        ArgumentNullException.ThrowIfNull(sheet);
        ArgumentNullException.ThrowIfNull(onHand);
        Check(readings, sheet);
        var points = MeasuredPoints.Of(readings, r => Math.Round((r.Angle.Degrees % 360 + 360) % 360, 3), r => r.Thickness.Millimeters, r => r.Instrument);
        var smallest = points.Deciding(LimitKind.Minimum);
        var angles = points.Select(p => p.At).ToArray();
        var verdict = LimitJudgement.Against(new(Judged.RotorThickness), L(smallest.Mm), smallest.Budget, sheet.Minimum, LimitKind.Minimum, smallest.Instrument, null,
            Verdicts.SpreadRound(angles, 4) ? [] : ["thickness at four angles spread round the turn"], sheet.MinimumFrom);
        var coarsest = points.MaxBy(p => p.Doubt)!;
        var variation = points.Max(p => p.Mm) - points.Min(p => p.Mm);
        var limit = sheet.VariationLimit ?? DefaultVariation;
        var varied = LimitJudgement.Against(new(Judged.ThicknessVariation), L(variation), coarsest.Budget.OfDifference(), limit, LimitKind.Maximum, coarsest.Instrument, sheet.VariationLimit is null ? "practice-rotor" : null,
            Verdicts.SpreadRound(angles, 8) ? [] : ["thickness at eight angles spread round the turn"]);
        // A cut goes down to the bottom of the deepest groove.
        var cut = Math.Max((sheet.CleanUp ?? DefaultCleanUp).Millimeters, sheet.Scored?.Millimeters ?? 0);
        var after = smallest.Mm - 2 * cut;
        var machineTo = sheet.Minimum + MachiningReserve;
        var machine = new RoomToMachine(after >= machineTo.Millimeters - 1e-9, machineTo, L(after));

        List<string> notes = [];
        if (points.Count is not (4 or 8 or 12)) notes.Add($"{Figure.Count(points.Count, "point")}: 4, 8 or 12 round the ring are usual.");
        // When the guard band alone is as wide as the limit, no reading but a bad one can be decided.
        if (varied.GuardBand.Millimeters > limit.Millimeters / 2 && varied.Verdict == Verdict.TooCloseToCall)
            notes.Add($"The {Phrase.Small(coarsest.Instrument.Name)} can hardly decide a variation of {Figure.Of(limit.Millimeters)} mm: its guard band is {Figure.Of(varied.GuardBand.Millimeters)}.");

        var trail = new Trail("RotorThickness.Judge").Input("Readings", $"{readings.Count} at {Figure.Count(points.Count, "point")}, {string.Join(", ", readings.Select(r => r.Instrument.Name).Distinct())}")
            .Input("Smallest", $"{Figure.Of(smallest.Mm)} mm at {Figure.Of(smallest.At)}°")
            .Formula("Variation", "largest - smallest", $"{Figure.Of(points.Max(p => p.Mm))} - {Figure.Of(points.Min(p => p.Mm))}", $"{Figure.Of(variation, 4)} mm", "geometry");
        if (sheet.VariationLimit is null) trail.Default("Variation limit", $"{Figure.Of(limit.Millimeters)} mm", "practice-rotor");
        trail.Formula("After machining", "smallest - 2 × the deeper of clean-up and scoring, at least 0.4 over the minimum", $"{Figure.Of(smallest.Mm)} - 2 × {Figure.Of(cut)}", $"{Figure.Of(after)} mm: {(machine.Possible ? "room" : "no room")} to machine", "practice-machining")
            .Conclude(verdict.Reasons.Lines[^1].Result, "iso-14253-1").WouldChange("A thinner place found elsewhere, or a finer micrometer.");
        return new(L(smallest.Mm), Angle.FromDegrees(smallest.At), L(points.Average(p => p.Mm)), L(variation), verdict, varied, machine,
            Settling.Of(verdict, smallest, InstrumentUse.Outside, onHand), Settling.Of(varied, coarsest, InstrumentUse.Outside, onHand, difference: true), notes, trail.Done());
    }

    private static void Check(IReadOnlyList<ThicknessReading> readings, RotorSheet sheet)
    {
        var checks = new Checks().Millimetres("minimumMm", sheet.Minimum, 2, 80).Millimetres("newMm", sheet.New, 2, 80).Millimetres("variationLimitMm", sheet.VariationLimit, 0.001, 0.5).Millimetres("cleanUpMm", sheet.CleanUp, 0.02, 2);
        if (sheet.New is { } fresh && sheet.Minimum >= fresh)
            checks.Add("minimumMm", Figure.Of(sheet.Minimum.Millimeters), $"under {Figure.Of(fresh.Millimeters)} mm", "The rotor's minimum is not under its thickness when new.");
        if (readings.Count is < 2 or > 200) checks.Add("thickness", Figure.Of(readings.Count), "2 to 200", "At least two thicknesses are needed, better eight round the ring.");
        foreach (var r in readings)
        {
            checks.Range("angleDeg", r.Angle.Degrees, -360, 720, "degrees");
            if (r.Thickness.Millimeters is >= 0.1 and < 2)
                checks.Add("thicknessMm", Figure.Of(r.Thickness.Millimeters), "2 to 80 mm", $"{Figure.Of(r.Thickness.Millimeters)} mm is no rotor: in inches it would be {Figure.Of(r.Thickness.Millimeters * 25.4, 2)} mm.");
            else
                checks.Millimetres("thicknessMm", r.Thickness, 2, 80);
        }

        checks.ThrowIfAny();
    }

    private static Length L(double mm) => Length.FromMillimeters(mm);
}

/// <summary>Reads the minimum thickness stamped on a rotor.</summary>
[Engine]
public static class MinimumStamp
{
    /// <summary>
    /// Reads stampings such as "MIN TH 8.4 MM", "MIN .330 IN" and decimal commas. Without a unit, 2 and over is millimetres and less is
    /// inches, and that is said.
    /// </summary>
    /// <exception cref="InputException">No figure, more than one, or no rotor's thickness.</exception>
    public static StampRead Read(string? typed) => Stamp.Read("MinimumStamp.Read", typed, 2, 80, 2, "rotor", "MIN TH 8.4 MM");
}

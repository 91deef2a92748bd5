using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Shoes;

/// <summary>What is known of drum and shoes beside the readings.</summary>
/// <param name="Stamp">The stamping on the hat as typed; null or empty when none was read.</param>
/// <param name="DrumCelsius">The drum's temperature; null means 20.</param>
/// <param name="GaugeCelsius">The gauge's temperature; null means 20.</param>
/// <param name="DifferenceDoubtKelvin">Half-width of the doubt of their difference.</param>
/// <param name="Condition">Bond, contamination and springs.</param>
/// <param name="ClicksBetween">Clicks outward between the two readings over the shoes; null when there was one.</param>
/// <param name="ClicksLeft">Clicks the adjuster has left; null when not known.</param>
public sealed record ShoeFacts(string? Stamp, double? DrumCelsius, double? GaugeCelsius, double DifferenceDoubtKelvin, ShoeCondition Condition, int? ClicksBetween, int? ClicksLeft)
{
    /// <summary>Nothing known.</summary>
    public static ShoeFacts None { get; } = new(null, null, null, 0, ShoeCondition.NotLooked, null, null);
}

/// <summary>The shoe bench's answer: whatever can be judged from what there is.</summary>
/// <param name="Stamp">The stamping as understood.</param>
/// <param name="Maximum">The maximum used: the smaller of stamping and sheet; null while neither is known.</param>
/// <param name="Drum">The drum.</param>
/// <param name="Shoes">The linings.</param>
/// <param name="Clearance">Clearance and clicks.</param>
/// <param name="Gap">The gap along the lining, after the clicks asked for.</param>
/// <param name="Ridge">Clicks back before the rotor comes off.</param>
/// <param name="Lacks">What is still wanted, in words.</param>
/// <param name="Reasons">The verdicts together.</param>
public sealed record ShoeBenchAnswer(
    StampRead? Stamp, Length? Maximum, DrumVerdict? Drum, ShoesVerdict? Shoes, ClearanceVerdict? Clearance, GapVerdict? Gap, RidgeVerdict? Ridge, IReadOnlyList<string> Lacks, Reasons Reasons) : IReasoned;

/// <summary>The shoe bench: drum, linings, clearance, gap and ridge from one set of readings.</summary>
[Engine]
public static class ShoeBench
{
    /// <summary>Judges whatever the readings allow and says what is still wanted.</summary>
    /// <param name="readings">Readings at points; others than drum and shoes are left alone.</param>
    /// <param name="facts">What is known beside them.</param>
    /// <param name="spec">The sheet's figures; null when there is no sheet.</param>
    /// <param name="newDrum">True to judge the drum that goes on instead of the one that came.</param>
    /// <param name="tryClicks">Clicks outward to draw the gap for; null draws the clicks advised.</param>
    /// <param name="onHand">Instruments in date.</param>
    /// <exception cref="InputException">A reading or a figure that cannot be.</exception>
    public static ShoeBenchAnswer Judge(IReadOnlyList<PointReading> readings, ShoeFacts facts, DrumSpec? spec, bool newDrum, int? tryClicks, IReadOnlyList<Instrument> onHand)
    {
        ArgumentNullException.ThrowIfNull(readings);
        ArgumentNullException.ThrowIfNull(facts);
        ArgumentNullException.ThrowIfNull(onHand);
        new Checks().Range("tryClicks", tryClicks, -500, 500, "").ThrowIfAny();
        var stamp = string.IsNullOrWhiteSpace(facts.Stamp) ? null : MaximumStamp.Read(facts.Stamp);
        List<string> lacks = [];
        // Where stamping and sheet differ the smaller one is the safer.
        Length? maximum = (stamp?.Limit, spec?.Maximum) switch { ({ } a, { } b) => a < b ? a : b, var (a, b) => a ?? b };
        if (stamp is not null && spec?.Maximum is { } listed && Math.Abs(stamp.Limit.Millimeters - listed.Millimeters) > 0.005)
            lacks.Add($"Stamping {Figure.Of(stamp.Limit.Millimeters, 2)} and sheet {Figure.Of(listed.Millimeters, 2)} differ: the smaller one is used. Which part is this?");
        var diameters = readings.Where(r => r.Measurand == (newDrum ? Measurand.NewDrumDiameter : Measurand.DrumDiameter))
            .Select(r => new DrumReading(Half(r.Direction!.Value), r.Place == "open-edge" ? DrumDepth.OpenEdge : DrumDepth.NearFloor, r.Value, r.Instrument, r.Celsius)).ToList();
        var ridge = readings.LastOrDefault(r => r.Measurand == Measurand.Ridge)?.Value;

        DrumVerdict? drum = null;
        if (maximum is null) lacks.Add("The maximum diameter: stamped on the hat, or from the sheet.");
        if (diameters.Count < 2) lacks.Add("Two diameters at least, better four directions at two depths.");
        else if (maximum is { } most)
            drum = DrumJudgement.Judge(new(diameters, facts.DrumCelsius, facts.GaugeCelsius, facts.DifferenceDoubtKelvin, ridge), new(most, spec?.OutOfRoundLimit, spec?.Nominal, spec?.MachineTo)
            {
                MaximumFrom = stamp is not null && (spec?.Maximum is not { } onSheet || stamp.Limit < onSheet) ? "stamping" : null,
            }, onHand);

        var linings = readings.Where(r => r.Measurand == Measurand.ShoeLining).Select(Lining).ToList();
        var shoes = linings.Count > 0 ? ShoeWear.Judge(linings, facts.Condition, spec?.MinimumLining, onHand) : null;
        var set = Shoes(readings, facts, spec);
        var clearance = drum is not null && set is not null ? ShoeClearance.Judge(drum, set, new(spec?.TargetLow, spec?.TargetHigh, spec?.LockAndBackOff)) : null;
        var gap = clearance is not null ? GapProfile.AfterClicks(drum!.Smallest, set!, tryClicks ?? clearance.Clicks) : null;
        var perClick = clearance?.PerClick ?? (spec is { AnchorDistance: { } ra, AdjusterDistance: { } rb, Pitch: { } p, Teeth: { } t } ? p / t * (spec.LeftRightPair ? 2 : 1) * (ra / (ra + rb)) : null);
        var backOff = ridge is { } height && height > Length.Zero && perClick is { } click ? RidgeBackOff.Compute(height, clearance?.Clearance, click, null) : null;
        if (set is null && readings.Any(r => r.Measurand == Measurand.OverShoes)) lacks.Add("Anchor and adjuster distance, pitch and teeth: then the clicks can be counted.");

        var trail = new Trail("ShoeBench.Judge");
        if (drum is not null) trail.Evidence("Drum", drum.Reasons.Lines[^1].Result);
        if (shoes is not null) trail.Evidence("Linings", shoes.Reasons.Lines[^1].Result);
        if (clearance is not null) trail.Evidence("Clearance", clearance.Reasons.Lines[^1].Result);
        foreach (var l in lacks) trail.Evidence("Wanted", l);
        return new(stamp, maximum, drum, shoes, clearance, gap, backOff, lacks, trail.Conclude(drum is null ? "Not judged yet." : drum.Reasons.Lines[^1].Result).WouldChange("Another reading.").Done());
    }

    /// <summary>A diameter is the same seen from either end.</summary>
    private static Angle Half(Angle direction) => Angle.FromDegrees((direction.Degrees % 180 + 180) % 180);

    private static ShoeSet? Shoes(IReadOnlyList<PointReading> readings, ShoeFacts facts, DrumSpec? spec)
    {
        var now = readings.Where(r => r is { Measurand: Measurand.OverShoes, Place: "now" }).ToArray();
        if (now.Length == 0 || spec is not { AnchorDistance: { } ra, AdjusterDistance: { } rb, Pitch: { } pitch, Teeth: { } teeth }) return null;
        var after = readings.Where(r => r is { Measurand: Measurand.OverShoes, Place: "after" }).ToArray();
        // The largest over the shoes is what meets the drum.
        return new(now.MaxBy(r => r.Value)!.Value, ra, rb, pitch, teeth, spec.LeftRightPair, facts.ClicksLeft,
            after.Length > 0 && facts.ClicksBetween is { } n ? new(after.MaxBy(r => r.Value)!.Value, n) : null, now[^1].Instrument, spec.Nominal);
    }

    private static LiningReading Lining(PointReading r) => new(
        r.Place.StartsWith("front", StringComparison.Ordinal) ? ShoePosition.Front : ShoePosition.Rear,
        r.Place.EndsWith("anchor-end", StringComparison.Ordinal) ? LiningPoint.AnchorEnd : r.Place.EndsWith("middle", StringComparison.Ordinal) ? LiningPoint.Middle : LiningPoint.AdjusterEnd, r.Value, r.Instrument);
}

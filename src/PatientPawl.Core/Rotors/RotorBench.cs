using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Rotors;

/// <summary>What is known of a rotor beside the readings.</summary>
/// <param name="Stamp">The stamping as typed; null or empty when none was read.</param>
/// <param name="Condition">Cracks, scoring, heat and vanes.</param>
/// <param name="MovedBy">How far the rotor stood turned on the hub for the second run; null while there is none.</param>
/// <param name="Studs">Wheel studs, 3 to 10.</param>
/// <param name="Possible">Positions a locating screw allows, as studs on; null when all.</param>
public sealed record RotorFacts(string? Stamp, RotorCondition Condition, Angle? MovedBy, int Studs, IReadOnlyList<int>? Possible)
{
    /// <summary>Nothing known, five studs.</summary>
    public static RotorFacts None { get; } = new(null, RotorCondition.NotLooked, null, 5, null);
}

/// <summary>The rotor bench's answer: whatever can be judged from what there is.</summary>
/// <param name="Stamp">The stamping as understood.</param>
/// <param name="Minimum">The minimum used: the larger of stamping and sheet; null while neither is known.</param>
/// <param name="Thickness">Thickness and variation.</param>
/// <param name="First">The first run of the dial.</param>
/// <param name="Second">The second, with the rotor turned on its studs.</param>
/// <param name="Apart">Hub and rotor told apart.</param>
/// <param name="Ruling">What becomes of the rotor.</param>
/// <param name="Vanes">Whether its vanes suit the side.</param>
/// <param name="Lacks">What is still wanted, in words.</param>
/// <param name="Reasons">The verdicts together.</param>
public sealed record RotorBenchAnswer(
    StampRead? Stamp, Length? Minimum, ThicknessVerdict? Thickness, RunoutVerdict? First, RunoutVerdict? Second, HubAndRotorVerdict? Apart, RotorRuled? Ruling, VanesVerdict Vanes, IReadOnlyList<string> Lacks, Reasons Reasons) : IReasoned;

/// <summary>The rotor bench: thickness, variation, runout, hub or rotor, and what becomes of it.</summary>
[Engine]
public static class RotorBench
{
    /// <summary>Judges whatever the readings allow and says what is still wanted.</summary>
    /// <param name="readings">Readings at points; others than the rotor's are left alone.</param>
    /// <param name="facts">What is known beside them.</param>
    /// <param name="spec">The sheet's figures; null when there is no sheet.</param>
    /// <param name="side">The corner.</param>
    /// <param name="onHand">Instruments in date.</param>
    /// <exception cref="InputException">A reading or a figure that cannot be.</exception>
    public static RotorBenchAnswer Judge(IReadOnlyList<PointReading> readings, RotorFacts facts, RotorSpec? spec, Side side, IReadOnlyList<Instrument> onHand)
    {
        ArgumentNullException.ThrowIfNull(readings);
        ArgumentNullException.ThrowIfNull(facts);
        var stamp = string.IsNullOrWhiteSpace(facts.Stamp) ? null : MinimumStamp.Read(facts.Stamp);
        List<string> lacks = [];
        // Where stamping and sheet differ the larger minimum is the safer.
        Length? minimum = (stamp?.Limit, spec?.MinimumThickness) switch { ({ } a, { } b) => a > b ? a : b, var (a, b) => a ?? b };
        if (stamp is not null && spec?.MinimumThickness is { } listed && Math.Abs(stamp.Limit.Millimeters - listed.Millimeters) > 0.005)
            lacks.Add($"Stamping {Figure.Of(stamp.Limit.Millimeters, 2)} and sheet {Figure.Of(listed.Millimeters, 2)} differ: the larger one is used. Which part is this?");
        var thicknesses = readings.Where(r => r.Measurand == Measurand.RotorThickness).Select(r => new ThicknessReading(r.Direction!.Value, r.Value, r.Instrument)).ToList();
        ThicknessVerdict? thickness = null;
        if (minimum is null) lacks.Add("The minimum thickness: stamped on the rotor, or from the sheet.");
        if (thicknesses.Count < 2) lacks.Add("Two thicknesses at least, better eight round the ring.");
        else if (minimum is { } least) thickness = RotorThickness.Judge(thicknesses, new(least, spec?.NewThickness, spec?.VariationLimit)
        {
            MinimumFrom = stamp is not null && (spec?.MinimumThickness is not { } onSheet || stamp.Limit > onSheet) ? "stamping" : null,
            Scored = facts.Condition.ScoringDepth,
        }, onHand);

        var first = Run(readings, "run-1", Angle.Zero);
        var second = facts.MovedBy is { } moved ? Run(readings, "run-2", moved) : null;
        if (readings.Any(r => r.Place == "run-2") && facts.MovedBy is null) lacks.Add("How far the rotor was turned on its studs for the second run.");
        var one = first is null ? null : Runout.Fit(first, spec?.RunoutLimit, onHand);
        var two = second is null ? null : Runout.Fit(second, spec?.RunoutLimit, onHand);
        var apart = one is not null && two is not null ? HubAndRotor.Separate(one, first!.MovedBy, two, second!.MovedBy, facts.Studs, facts.Possible, first.Instrument, spec?.RunoutLimit) : null;
        var ruling = thickness is null ? null : RotorRuling.Decide(thickness, one, apart, facts.Condition, side);

        var trail = new Trail("RotorBench.Judge");
        if (thickness is not null) trail.Evidence("Thickness", thickness.Reasons.Lines[^1].Result);
        if (one is not null) trail.Evidence("Runout", one.Reasons.Lines[^1].Result);
        if (apart is not null) trail.Evidence("Hub or rotor", apart.Says);
        foreach (var l in lacks) trail.Evidence("Wanted", l);
        return new(stamp, minimum, thickness, one, two, apart, ruling, RotorRuling.Vanes(facts.Condition.Vanes, side), lacks, trail.Conclude(ruling?.Says ?? "Not judged yet.").WouldChange("Another reading.").Done());
    }

    private static RunoutRun? Run(IReadOnlyList<PointReading> readings, string place, Angle moved)
    {
        var run = readings.Where(r => r.Measurand == Measurand.RotorRunout && r.Place == place).ToArray();
        // Until there are three a fit is not asked for: someone is still turning the hub.
        return run.Length < 3 ? null : new([.. run.Select(r => new RunoutReading(r.Direction!.Value, r.Value))], run[0].Instrument, moved);
    }
}

using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Pads;

/// <summary>A reading with its corner: the pad bench looks at the whole axle.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Reading">The reading.</param>
public sealed record SidedReading(Side Side, PointReading Reading);

/// <summary>What is known of the pads beside the readings.</summary>
/// <param name="Parts">Where the caliper sits and what the pads carry.</param>
/// <param name="FrontLeast">Thinnest front lining; null when not measured.</param>
/// <param name="Answers">Answers to the causes' checks.</param>
/// <param name="History">Earlier linings of these pads with their odometer readings.</param>
/// <param name="OdometerKm">Odometer now; null when not known.</param>
/// <param name="NextInspectionKm">Distance to the next inspection; null when none is planned.</param>
public sealed record PadFacts(PadParts Parts, Length? FrontLeast, IReadOnlyList<CauseChecked> Answers, IReadOnlyList<WearPoint> History, int? OdometerKm, int? NextInspectionKm)
{
    /// <summary>A caliper behind the axle and an indicator; nothing else known.</summary>
    public static PadFacts None { get; } = new(new(CaliperPlace.BehindAxle, true, false, false, false, Known.NotKnown), null, [], [], null, null);
}

/// <summary>The pad bench's answer: whatever can be judged from what there is.</summary>
/// <param name="Pads">The pads; null while none is read.</param>
/// <param name="Placement">How new pads go in.</param>
/// <param name="Forecast">How long these last; null while nothing is known of distance.</param>
/// <param name="Lacks">What is still wanted, in words.</param>
/// <param name="Reasons">The verdicts together.</param>
public sealed record PadBenchAnswer(PadsVerdict? Pads, PlacementVerdict Placement, ForecastVerdict? Forecast, IReadOnlyList<string> Lacks, Reasons Reasons) : IReasoned;

/// <summary>The pad bench: the axle's four pads, their wear, where new ones go and how long these last.</summary>
[Engine]
public static class PadBench
{
    /// <summary>Judges whatever the readings allow and says what is still wanted.</summary>
    /// <param name="readings">Readings of both corners; others than pads are left alone.</param>
    /// <param name="facts">What is known beside them.</param>
    /// <param name="spec">The sheet's figures; null when there is no sheet, and then a new lining of 11 mm is assumed and said.</param>
    /// <param name="onHand">Instruments in date.</param>
    /// <param name="build">What the brake is made of; null when nobody knows, and then every cause is named.</param>
    /// <exception cref="InputException">A reading or a figure that cannot be.</exception>
    public static PadBenchAnswer Judge(IReadOnlyList<SidedReading> readings, PadFacts facts, PadSpec? spec, IReadOnlyList<Instrument> onHand, BrakeBuild? build = null)
    {
        ArgumentNullException.ThrowIfNull(readings);
        ArgumentNullException.ThrowIfNull(facts);
        List<string> lacks = [];
        if (spec is null) lacks.Add("A new lining's thickness from the sheet: 11 mm is assumed.");
        var assumed = Length.FromMillimeters(11);
        var sheet = new PadSheet(spec is null ? assumed : spec.NewInnerTotal - spec.Backing, spec is null ? assumed : spec.NewOuterTotal - spec.Backing, spec?.MinimumLining, facts.FrontLeast);
        var linings = readings.Where(r => r.Reading.Measurand == Measurand.PadLining).Select(r => new PadReading(r.Side,
            r.Reading.Place.StartsWith("inner", StringComparison.Ordinal) ? PadPosition.Inner : PadPosition.Outer, r.Reading.Place.EndsWith("leading", StringComparison.Ordinal) ? PadEnd.Leading : PadEnd.Trailing,
            r.Reading.Value, r.Reading.Instrument)).ToList();
        if (linings.Count == 0) lacks.Add("Both ends of all four pads.");
        var pads = linings.Count > 0 ? PadWear.Judge(linings, sheet, facts.Answers, onHand, build) : null;
        var placement = PadPlacement.Card(facts.Parts);
        IReadOnlyList<WearPoint> history = pads is not null && facts.OdometerKm is { } km ? [.. facts.History.Where(p => p.OdometerKm < km), new(km, pads.Thinnest.Thinnest)] : facts.History;
        var forecast = history.Count > 0 ? PadForecast.Compute(history, sheet.Minimum ?? PadWear.DefaultMinimum, facts.NextInspectionKm) : null;

        var trail = new Trail("PadBench.Judge");
        if (pads is not null) trail.Evidence("Pads", pads.Reasons.Lines[^1].Result);
        if (forecast is not null) trail.Evidence("Forecast", forecast.Says);
        foreach (var l in lacks) trail.Evidence("Wanted", l);
        return new(pads, placement, forecast, lacks, trail.Conclude(pads?.Reasons.Lines[^1].Result ?? "Not judged yet.").WouldChange("Another reading, or a check answered.").Done());
    }
}

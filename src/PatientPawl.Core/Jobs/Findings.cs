using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Shoes;

namespace PatientPawl.Core.Jobs;

/// <summary>A part that stays only when it passes.</summary>
public enum Part
{
    /// <summary>The rotor.</summary>
    Rotor,
    /// <summary>The drum in its hat.</summary>
    Drum,
    /// <summary>The parking shoes.</summary>
    Shoes,
    /// <summary>The pads.</summary>
    Pads,
    /// <summary>The hub's face, or the rotor's place on it.</summary>
    HubFace,
}

/// <summary>A part that was to stay, as it is judged now.</summary>
/// <param name="Part">The part.</param>
/// <param name="Verdict">Its verdict.</param>
/// <param name="Says">In words.</param>
/// <param name="SettledBy">What would settle it, when it is too close to call.</param>
public sealed record PartVerdict(Part Part, Verdict Verdict, string Says, IReadOnlyList<SettledBy> SettledBy);

/// <summary>Something found that changes the job.</summary>
/// <param name="Part">The part.</param>
/// <param name="Verdict">Outside: it is renewed on both sides. Too close to call: it waits to be settled.</param>
/// <param name="Says">In words.</param>
public sealed record Finding(Part Part, Verdict Verdict, string Says);

/// <summary>A finding with its corner.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Finding">The finding.</param>
public sealed record SidedFinding(Side Side, Finding Finding);

/// <summary>What stands on a bench and is not stored yet: it is judged with what is, on the job's own sheet.</summary>
/// <param name="Facts">What is known beside the readings; null takes the stored ones.</param>
/// <param name="Left">Readings of the left corner.</param>
/// <param name="Right">Readings of the right corner.</param>
public sealed record Unsaved<TFacts>(TFacts? Facts, IReadOnlyList<PointReading> Left, IReadOnlyList<PointReading> Right) where TFacts : class
{
    internal IReadOnlyList<PointReading> Of(Side side) => side == Side.Left ? Left : Right;
}

/// <summary>The benches as the readings of a job fill them.</summary>
[Engine]
public static partial class JobBenches
{
    /// <summary>The shoe bench of a corner.</summary>
    /// <exception cref="InputException">Readings that contradict each other.</exception>
    public static ShoeBenchAnswer Shoes(JobState state, Side side, bool newDrum, int? tryClicks, IReadOnlyList<Instrument> onHand, Unsaved<ShoeFacts>? unsaved = null)
    {
        ArgumentNullException.ThrowIfNull(state);
        var file = state.Corner(side);
        return ShoeBench.Judge([.. file.Standing(), .. unsaved?.Of(side) ?? []], unsaved?.Facts ?? file.Shoes ?? ShoeFacts.None, state.Opened!.Sheet.Drum, newDrum, tryClicks, onHand);
    }

    /// <summary>The rotor bench of a corner.</summary>
    /// <exception cref="InputException">Readings that contradict each other.</exception>
    public static RotorBenchAnswer Rotor(JobState state, Side side, IReadOnlyList<Instrument> onHand, Unsaved<RotorFacts>? unsaved = null)
    {
        ArgumentNullException.ThrowIfNull(state);
        var file = state.Corner(side);
        return RotorBench.Judge([.. file.Standing(), .. unsaved?.Of(side) ?? []], unsaved?.Facts ?? state.RotorFacts(side), state.Opened!.Sheet.Rotor, side, onHand);
    }

    /// <summary>The pad bench of the axle.</summary>
    /// <exception cref="InputException">Readings that contradict each other.</exception>
    public static PadBenchAnswer Pads(JobState state, IReadOnlyList<Instrument> onHand, Unsaved<PadFacts>? unsaved = null)
    {
        ArgumentNullException.ThrowIfNull(state);
        return PadBench.Judge([.. Sides.Both.SelectMany(s => state.Corner(s).Standing().Concat(unsaved?.Of(s) ?? []).Select(r => new SidedReading(s, r)))], unsaved?.Facts ?? state.PadFacts ?? PadFacts.None with { OdometerKm = state.Opened!.OdometerKm }, state.Opened!.Sheet.Pads, onHand, state.Setup.Build);
    }
}

/// <summary>The parts of a corner that stay only when they pass.</summary>
internal static class JobParts
{
    /// <summary>
    /// Pads and rotor: the figure of the measuring step and the bench's readings are one list, and the worst of them decides. What one person
    /// found too thin is not made good by what another found elsewhere; only striking it out takes it away.
    /// </summary>
    public static List<PartVerdict> PadsAndRotor(JobState state, Side side, IReadOnlyList<LimitVerdict> measured)
    {
        List<PartVerdict> parts = [];
        if (!state.Setup.Rotors)
        {
            var bench = Try(() => JobBenches.Rotor(state, side, state.Instruments));
            IEnumerable<PartVerdict> rotor =
            [
                .. bench is { Thickness: { } t, Ruling: { } ruling } ? [OfRuling(ruling, t)] : Array.Empty<PartVerdict>(),
                .. measured.Where(v => v.What.StartsWith("Rotor", StringComparison.Ordinal)).Select(v => Of(Part.Rotor, v, state, InstrumentUse.Outside)),
            ];
            if (Worst(rotor) is { } worst) parts.Add(worst);
        }

        if (!state.Setup.PadsNew)
        {
            var bench = Try(() => JobBenches.Pads(state, state.Instruments))?.Pads;
            IEnumerable<PartVerdict> pads =
            [
                .. bench is null ? [] : bench.Pads.Where(p => p.Side == side).Select(p => new PartVerdict(Part.Pads, p.Minimum.Verdict, Say("Pads", p.Minimum), bench.Thinnest == p ? bench.SettledBy : [])),
                .. measured.Where(v => v.What.Contains("lining", StringComparison.Ordinal)).Select(v => Of(Part.Pads, v, state, InstrumentUse.Outside)),
            ];
            if (Worst(pads) is { } worst) parts.Add(worst);
        }

        return parts;
    }

    private static PartVerdict? Worst(IEnumerable<PartVerdict> all) => all.MaxBy(p => p.Verdict.Weight());

    private static PartVerdict OfRuling(RotorRuled ruling, ThicknessVerdict thickness)
    {
        var because = string.Join(" ", ruling.Because);
        return ruling.Fate is RotorFate.CleanHub or RotorFate.ReIndex
            ? new(Part.HubFace, Verdict.Outside, $"{ruling.Says} {because}", [])
            : new(Part.Rotor, ruling.Verdict, $"Rotor: {ruling.Says} {because}", [.. thickness.SettledBy, .. thickness.VariationSettledBy]);
    }

    /// <summary>Drum and shoes, from the shoe bench.</summary>
    public static List<PartVerdict> DrumAndShoes(JobState state, Side side)
    {
        List<PartVerdict> parts = [];
        if (Try(() => JobBenches.Shoes(state, side, false, null, state.Instruments)) is not { } bench) return parts;
        if (!state.Setup.Rotors && bench.Drum is { } drum)
        {
            parts.Add(drum.OutOfRoundVerdict.Verdict.Weight() > drum.Maximum.Verdict.Weight()
                ? new(Part.Drum, drum.OutOfRoundVerdict.Verdict, Say("Drum out of round", drum.OutOfRoundVerdict), drum.OutOfRoundSettledBy)
                : new(Part.Drum, drum.Maximum.Verdict, Say("Drum", drum.Maximum), drum.SettledBy));
        }

        if (!state.Setup.ShoesNew && bench.Shoes is { } shoes)
            parts.Add(new(Part.Shoes, shoes.Verdict, $"Shoes: {shoes.Reasons.Lines[^1].Result}", shoes.SettledBy));
        return parts;
    }

    public static List<PartVerdict> Known(JobState state, Side side) =>
    [
        .. state.Car.Get(Corner.Judged, side) == Done.Yes ? PadsAndRotor(state, side, state.Corner(side).Verdicts) : [],
        .. state.Car.Get(Corner.ShoesJudged, side) == Done.Yes ? DrumAndShoes(state, side) : [],
    ];

    /// <summary>Findings of these verdicts: what did not pass, and what is in doubt.</summary>
    public static List<Finding> Findings(IEnumerable<PartVerdict> parts) => [.. parts.Where(p => p.Verdict != Verdict.Inside).Select(p => new Finding(p.Part, p.Verdict, p.Says))];

    public static T? Try<T>(Func<T> judge) where T : class
    {
        try
        {
            return judge();
        }
        catch (InputException)
        {
            // Stored readings that contradict each other judge nothing; the bench itself says which.
            return null;
        }
    }

    private static PartVerdict Of(Part part, LimitVerdict v, JobState state, InstrumentUse use)
    {
        var name = v.Reasons.Lines[0].Result;
        var used = state.Instruments.FirstOrDefault(i => name.EndsWith(i.Name, StringComparison.Ordinal)) ?? InstrumentCatalogue.Defaults[0];
        var point = new MeasuredPoint<int>(0, v.Value.Millimeters, used, 1, 0);
        return new(part, v.Verdict, Say(part == Part.Rotor ? "Rotor" : "Pads", v), Settling.Of(v, point, use, state.Instruments));
    }

    private static string Say(string part, LimitVerdict v)
    {
        var figures = $"{Figure.Of(v.Value.Millimeters)} mm, {(v.Kind == LimitKind.Minimum ? "least" : "most")} {Figure.Of(v.Limit.Millimeters)}";
        return $"{part} {figures}: {v.Verdict switch
        {
            Verdict.Inside => "inside",
            Verdict.Outside => "outside, renewed on both sides",
            Verdict.NotYetEnough => $"not yet enough: {string.Join("; ", v.Wanted)}",
            _ => "too close to call, not passed",
        }}.";
    }
}

/// <summary>What earlier jobs on the same vehicle remember.</summary>
public static class VehicleHistory
{
    /// <summary>Which way loosened the star wheel of a corner, from the latest job that noted it; null when none did.</summary>
    public static StarWheelNoted? StarWheel(IEnumerable<JobState> jobs, Side side) =>
        jobs.SelectMany(j => j.Standing).Where(e => e.Event is StarWheelNoted n && n.Side == side).OrderBy(e => e.RecordedAt).LastOrDefault()?.Event as StarWheelNoted;

    /// <summary>Lining against distance since the last new pads, oldest first. The new thickness counts as a point.</summary>
    public static IReadOnlyList<WearPoint> PadWear(IEnumerable<JobState> jobs)
    {
        List<WearPoint> points = [];
        foreach (var job in jobs.Where(j => j.Opened is not null).OrderBy(j => j.Opened!.OdometerKm))
        {
            var sheet = job.Opened!.Sheet.Pads;
            if (Sides.Both.All(s => job.Car.Get(Corner.Pads, s) == PadState.New))
            {
                var fresh = UnitsNet.Length.FromMillimeters(Math.Min(sheet.NewInnerTotal.Millimeters, sheet.NewOuterTotal.Millimeters)) - sheet.Backing;
                points = [new(job.Opened.OdometerKm, fresh)];
            }
            else if (Sides.Both.SelectMany(s => job.Corner(s).Verdicts).Where(v => v.What.Contains("lining", StringComparison.Ordinal)).MinBy(v => v.Value.Millimeters) is { } thin)
            {
                points.Add(new(job.Opened.OdometerKm, thin.Value));
            }
        }

        return points;
    }
}

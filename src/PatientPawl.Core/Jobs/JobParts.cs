using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Rotors;

namespace PatientPawl.Core.Jobs;

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
                .. measured.Where(v => v.Subject?.Judged == Judged.RotorThickness).Select(v => Of(Part.Rotor, v, state, InstrumentUse.Outside)),
            ];
            if (Worst(rotor) is { } worst) parts.Add(worst);
        }

        if (!state.Setup.PadsNew)
        {
            var bench = Try(() => JobBenches.Pads(state, state.Instruments))?.Pads;
            IEnumerable<PartVerdict> pads =
            [
                .. bench is null ? [] : bench.Pads.Where(p => p.Side == side).Select(p => new PartVerdict(Part.Pads, p.Minimum.Verdict, Say("Pads", p.Minimum), bench.Thinnest == p ? bench.SettledBy : [])),
                .. measured.Where(v => v.Subject?.Judged is Judged.InnerLining or Judged.OuterLining).Select(v => Of(Part.Pads, v, state, InstrumentUse.Outside)),
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
        // A job of an older version does not say what it was measured with: nothing is advised from a guess.
        if (InstrumentCatalogue.Find(state.Instruments, v.InstrumentId ?? "") is not { } used) return new(part, v.Verdict, Say(part == Part.Rotor ? "Rotor" : "Pads", v), []);
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

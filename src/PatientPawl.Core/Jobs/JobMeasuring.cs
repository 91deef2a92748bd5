using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Shoes;
using UnitsNet;

namespace PatientPawl.Core.Jobs;

/// <summary>What a job's readings say.</summary>
internal static class JobMeasuring
{
    /// <summary>The usual floor for a service routine. Common practice, no source.</summary>
    public static readonly ElectricPotential DefaultBatteryFloor = ElectricPotential.FromVolts(12.0);

    public static TravelResult Travel(JobState state, Side side, IReadOnlyList<Reading> readings) =>
        Opposed(state, side, readings)?.Whole ?? HowFar.Compute(Input(state, side, readings), state.Setup.Rules.RetractDepth);

    /// <summary>Each side of an opposed caliper; null where the pistons are on one side.</summary>
    public static OpposedTravel? Opposed(JobState state, Side side, IReadOnlyList<Reading> readings) =>
        state.Corner(side).Ruled?.Ruling.Method == RetractMethod.OpposedPush && state.Opened!.Sheet.Piston.PistonsPerCaliper % 2 == 0
            ? HowFar.Opposed(Input(state, side, readings) with { ProtrusionOuter = Mm(readings, Outer(readings)) }, state.Setup.Rules.RetractDepth)
            : null;

    /// <summary>Each side of an opposed caliper by the measuring step as it was clicked on; null before it.</summary>
    public static OpposedTravel? Opposed(JobState state, Side side) => Measured(state, side) is { } m ? Opposed(state, side, m.Readings) : null;

    /// <summary>How far an opposed piston may stand proud for the new parts to go in; null before it is measured.</summary>
    public static Length? Enough(JobState state, Side side, PistonBank bank) =>
        Measured(state, side) is { } m && Opposed(state, side, m.Readings) is { } travel
            ? bank == PistonBank.Inner ? Mm(m.Readings, ReadingKind.PistonProtrusion) - travel.Inner.Need : Mm(m.Readings, Outer(m.Readings)) - travel.Outer.Need
            : null;

    /// <summary>How far the piston stood proud at the measuring step; null before it.</summary>
    public static Length? Protrusion(JobState state, Side side) => Measured(state, side) is { } m ? Mm(m.Readings, ReadingKind.PistonProtrusion) : null;

    private static StepDone? Measured(JobState state, Side side) => state.Standing.Select(e => e.Event).OfType<StepDone>().LastOrDefault(s => s.Step.StepId == "measured" && s.Step.Side == side);

    // A job of an older version measured one side: the other was taken to stand like it.
    private static ReadingKind Outer(IReadOnlyList<Reading> readings) => readings.Any(r => r.Kind == ReadingKind.OuterProtrusion) ? ReadingKind.OuterProtrusion : ReadingKind.PistonProtrusion;

    private static HowFarInput Input(JobState state, Side side, IReadOnlyList<Reading> readings)
    {
        var sheet = state.Opened!.Sheet;
        var rotor = Mm(readings, ReadingKind.RotorThickness);
        var method = state.Corner(side).Ruled?.Ruling.Method;
        var lead = method is RetractMethod.TurnAndPush or RetractMethod.SpindleThenTurn ? sheet.Piston.Lead : null;
        return new(
            new(Mm(readings, ReadingKind.InnerPad), Mm(readings, ReadingKind.OuterPad), rotor),
            new(sheet.Pads.NewInnerTotal, sheet.Pads.NewOuterTotal, state.Setup.Rotors ? sheet.Rotor.NewThickness : rotor),
            Mm(readings, ReadingKind.PistonProtrusion), sheet.Piston.HomeProtrusion, lead, sheet.Piston.Diameter, sheet.Piston.PistonsPerCaliper, null, ProtrusionLimit: sheet.Piston.ProtrusionLimit);
    }

    public static List<LimitVerdict> Verdicts(JobState state, Side side, IReadOnlyList<Reading> readings)
    {
        var sheet = state.Opened!.Sheet;
        var least = sheet.Pads.MinimumLining ?? PadWear.DefaultMinimum;
        List<LimitVerdict> verdicts = [];
        foreach (var (kind, judged) in new[] { (ReadingKind.InnerPad, Judged.InnerLining), (ReadingKind.OuterPad, Judged.OuterLining) })
        {
            // A worn-through pad reads thinner than its backing plate: that is no lining, not a negative one.
            var lining = Length.FromMillimeters(Math.Max(0, Mm(readings, kind).Millimeters - sheet.Pads.Backing.Millimeters));
            verdicts.Add(LimitJudgement.Judge(new(judged, side), lining, least, LimitKind.Minimum, Instrument(state, readings, kind), sheet.Pads.MinimumLining is null));
        }

        // The step's own figure and the rotor bench's are one list: the worse decides, and nobody's thin reading disappears.
        LimitVerdict? step = sheet.Rotor.MinimumThickness is { } minimum
            ? LimitJudgement.Judge(new(Judged.RotorThickness, side), Mm(readings, ReadingKind.RotorThickness), minimum, LimitKind.Minimum, Instrument(state, readings, ReadingKind.RotorThickness), false) : null;
        var bench = JobParts.Try(() => JobBenches.Rotor(state, side, state.Instruments))?.Thickness is { } t ? t.Minimum.On(side) : null;
        if (new[] { step, bench }.OfType<LimitVerdict>().MaxBy(v => v.Verdict.Weight()) is { } worse) verdicts.Add(worse);
        return verdicts;
    }

    /// <summary>What the shoe bench says of a corner, once enough of it has been read.</summary>
    public static (List<LimitVerdict>, List<Finding>) DrumAndShoes(JobState state, Side side)
    {
        var bench = JobBenches.Shoes(state, side, false, null, state.Instruments);
        var checks = new Checks();
        if (bench.Shoes is null) checks.Add("linings", "nothing", "one lining at least, better six", "No shoe lining has been read: both ends and the middle of each shoe.");
        if (bench.Drum is null && !state.Setup.Rotors) checks.Add("drum", "nothing", "two diameters at least, better eight", $"The drum has not been judged. {string.Join(" ", bench.Lacks)}");
        checks.ThrowIfAny();
        return (ShoeVerdicts(bench, side), JobParts.Findings(JobParts.DrumAndShoes(state, side)));
    }

    /// <summary>Settles what was in doubt: by what is measured now, or by renewing the part.</summary>
    public static (List<LimitVerdict>, List<Finding>) Settled(JobState state, Side side, bool renew)
    {
        var parts = JobParts.Known(state, side);
        var open = parts.Where(p => p.Verdict is Verdict.TooCloseToCall or Verdict.NotYetEnough).ToArray();
        if (open.Length > 0 && !renew)
        {
            throw new InputException([.. open.Select(p => new InputError("verdict", p.Verdict.Words(), "inside, outside, or renewed", $"{p.Says}{WhatSettles(p)}"))]);
        }

        List<LimitVerdict> verdicts = [];
        if (JobParts.Try(() => JobBenches.Rotor(state, side, state.Instruments))?.Thickness is { } t) verdicts.Add(t.Minimum.On(side));
        if (JobParts.Try(() => JobBenches.Pads(state, state.Instruments))?.Pads is { } pads) verdicts.AddRange(pads.Pads.Where(p => p.Side == side).Select(p => p.Minimum));
        if (JobParts.Try(() => JobBenches.Shoes(state, side, false, null, state.Instruments)) is { } shoes) verdicts.AddRange(ShoeVerdicts(shoes, side));
        return (verdicts, JobParts.Findings(renew ? open.Select(p => p with { Verdict = Verdict.Outside, Says = p.Says + " Renewed by choice." }) : parts));
    }

    // What looking or one more place settles is looked at or read, and nothing is renewed for it.
    private static string WhatSettles(PartVerdict part) => part.Verdict == Verdict.NotYetEnough ? ""
        : part.SettledBy.Any(s => s.WouldSettle) ? " " + string.Join(" ", part.SettledBy.Where(s => s.WouldSettle).Select(s => s.Says)) : " Nothing on hand settles it: renew the part.";

    private static List<LimitVerdict> ShoeVerdicts(ShoeBenchAnswer bench, Side side) =>
    [
        .. bench.Drum is { } d ? new[] { d.Maximum.On(side), d.OutOfRoundVerdict.On(side) } : [],
        .. bench.Shoes is { } s ? new[] { s.Lining.On(side) } : [],
    ];

    private static Length Mm(IReadOnlyList<Reading> readings, ReadingKind kind) => Length.FromMillimeters(readings.First(r => r.Kind == kind).Value);

    private static Instrument Instrument(JobState state, IReadOnlyList<Reading> readings, ReadingKind kind)
    {
        var id = readings.First(r => r.Kind == kind).InstrumentId ?? kind.Card().Instrument!;
        return InstrumentCatalogue.Find(state.Instruments, id) ?? InstrumentCatalogue.Get(InstrumentCatalogue.Defaults, id);
    }
}

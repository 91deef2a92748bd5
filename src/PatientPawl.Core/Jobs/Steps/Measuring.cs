using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Jobs;

/// <summary>What an inspection sees with nothing disturbed.</summary>
internal class Inspected : StepBehaviour
{
    public override bool CanBeMarked => false;

    public override Judgement Judge(JobState state, ClickOn command, string? outcome)
    {
        var side = command.Step.Side!.Value;
        var verdicts = JobMeasuring.Verdicts(state, side, command.Readings);
        return new(outcome) { Verdicts = verdicts, Findings = JobParts.Findings(JobParts.PadsAndRotor(state, side, verdicts)) };
    }

    public override JobFile Fold(JobFile file, StepDone done) => done.Step.Side is { } side ? file.WithCorner(side, c => c with { Travel = done.Travel, Verdicts = done.Verdicts }) : file;
}

/// <summary>Pads, rotor and piston measured: what passes, how far the piston goes and whether its fluid finds room.</summary>
internal sealed class Measured : Inspected
{
    /// <summary>New parts that will not go in are not fitted on the quiet.</summary>
    public override void Check(JobState state, ClickOn command, string? outcome)
    {
        var side = command.Step.Side!.Value;
        if (!string.IsNullOrWhiteSpace(command.Note) || state.Setup.InspectOnly || !state.Setup.PadsNew || state.Car.Get(Corner.Piston, side) == Piston.Levered) return;
        if (JobMeasuring.Travel(state, side, command.Readings) is { WillNotGoIn: true, HomeTravel: { } there } t)
        {
            var (need, room) = (Figure.Of(t.Need.Millimeters, 1), Figure.Of(Math.Max(there.Millimeters, 0), 1));
            throw new InputException(new InputError("note", "nothing", "a word on why they go in all the same",
                $"The new parts need {need} mm and only {room} mm is there: measure again, or report a wrong part. If they are right, say so in the note."));
        }
    }

    public override Judgement Judge(JobState state, ClickOn command, string? outcome)
    {
        var side = command.Step.Side!.Value;
        var verdicts = JobMeasuring.Verdicts(state, side, command.Readings);
        var findings = JobParts.Findings(JobParts.PadsAndRotor(state, side, verdicts));
        // Of a piston that was levered back the pads say no more how far it has to go.
        if (state.Car.Get(Corner.Piston, side) == Piston.Levered) return new(null as string) { Verdicts = verdicts, Findings = findings };
        var travel = JobMeasuring.Travel(state, side, command.Readings);
        var room = JobBenches.Reservoir(state, state.LevelPercent ?? 100, (side, travel)).Room;
        return new(room.Verdict == RoomVerdict.DrawOffFirst ? "no-room" : null) { Verdicts = verdicts, Findings = findings, Travel = travel, Room = room };
    }

    public override IReadOnlyList<BenchKind> Benches(JobState state, Side? side) => [BenchKind.Rotor, BenchKind.Pads];

    public override IReadOnlyList<Prefilled> Prefilled(JobState state, Side side)
    {
        List<Prefilled> list = [];
        if (JobParts.Try(() => JobBenches.Rotor(state, side, state.Instruments))?.Thickness is { } t)
        {
            var reading = state.Corner(side).Standing().Last(r => r.Measurand == Measurand.RotorThickness);
            list.Add(new(ReadingKind.RotorThickness, Math.Round(t.Smallest.Millimeters, 4), "rotor bench", reading.Instrument.Id));
        }

        if (JobParts.Try(() => JobBenches.Pads(state, state.Instruments))?.Pads is { } pads)
        {
            // The step asks for totals: the backing plate goes on top of the lining.
            var backing = state.Opened!.Sheet.Pads.Backing.Millimeters;
            foreach (var pad in pads.Pads.Where(p => p.Side == side))
            {
                var reading = state.Corner(side).Standing().Last(r => r.Measurand == Measurand.PadLining);
                list.Add(new(pad.Pad == Core.Pads.PadPosition.Inner ? ReadingKind.InnerPad : ReadingKind.OuterPad, Math.Round(pad.Thinnest.Millimeters + backing, 3), "pad bench, with backing", reading.Instrument.Id));
            }
        }

        return list;
    }
}

/// <summary>Drum and shoes, by the shoe bench.</summary>
internal sealed class ShoesMeasured : StepBehaviour
{
    public override bool CanBeMarked => false;

    public override Judgement Judge(JobState state, ClickOn command, string? outcome)
    {
        var (verdicts, findings) = JobMeasuring.DrumAndShoes(state, command.Step.Side!.Value);
        return new(outcome) { Verdicts = verdicts, Findings = findings };
    }

    public override JobFile Fold(JobFile file, StepDone done) => done.Step.Side is { } side ? file.WithCorner(side, c => c with { ShoeVerdicts = done.Verdicts }) : file;

    public override IReadOnlyList<BenchKind> Benches(JobState state, Side? side) => [BenchKind.Shoes];

    public override IReadOnlyList<PartVerdict> Judged(JobState state, Side side) => JobParts.DrumAndShoes(state, side);
}

/// <summary>A verdict that was too close to call, settled: measured again, or the part renewed.</summary>
internal sealed class VerdictSettled : StepBehaviour
{
    public override bool CanBeMarked => false;

    public override Judgement Judge(JobState state, ClickOn command, string? outcome)
    {
        var (verdicts, findings) = JobMeasuring.Settled(state, command.Step.Side!.Value, outcome is not null);
        return new(outcome) { Verdicts = verdicts, Findings = findings };
    }

    /// <summary>What settled a verdict stands in the place of the one that was in doubt.</summary>
    public override JobFile Fold(JobFile file, StepDone done) => done.Step.Side is { } side
        ? file.WithCorner(side, c => c with { Verdicts = Instead(c.Verdicts, done.Verdicts), ShoeVerdicts = Instead(c.ShoeVerdicts, done.Verdicts) }) : file;

    public override IReadOnlyList<BenchKind> Benches(JobState state, Side? side) => side is not { } s ? [] :
        [.. Judged(state, s).Select(p => p.Part switch { Part.Drum or Part.Shoes => BenchKind.Shoes, Part.Pads => BenchKind.Pads, _ => BenchKind.Rotor }).Distinct()];

    public override IReadOnlyList<PartVerdict> Judged(JobState state, Side side) => [.. JobParts.Known(state, side).Where(p => p.Verdict != Verdict.Inside)];

    private static List<LimitVerdict> Instead(IReadOnlyList<LimitVerdict> old, IReadOnlyList<LimitVerdict> by) => [.. old.Select(v => by.FirstOrDefault(n => n.Subject is { } about && about == v.Subject) ?? v)];
}

/// <summary>New parts laid beside the old: the list stands at the step.</summary>
internal sealed class PartsCompared : StepBehaviour
{
    public override StepPage Page(JobState state) => StepPage.PartsList;
}

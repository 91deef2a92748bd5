using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Measuring;

namespace PatientPawl.Core.Jobs;

/// <summary>A step that the fluid bench serves.</summary>
internal class FluidLooked : StepBehaviour
{
    public override IReadOnlyList<BenchKind> Benches(JobState state, Side? side) => [BenchKind.Fluid];
}

/// <summary>Room for the second piston's fluid.</summary>
internal sealed class ReservoirAgain : FluidLooked
{
    public override Judgement Judge(JobState state, ClickOn command, string? outcome)
    {
        if (state.Corner(command.Step.Side!.Value).Travel is null) return new(outcome);
        var room = JobBenches.Reservoir(state, command.Readings[0].Value).Room;
        return new(room.Verdict == RoomVerdict.DrawOffFirst ? "no-room" : null) { Room = room };
    }
}

/// <summary>Fluid drawn off, until there is room.</summary>
internal sealed class FluidDrawn : FluidLooked
{
    public override Judgement Judge(JobState state, ClickOn command, string? outcome)
    {
        if (state.Corner(command.Step.Side!.Value).Travel is null) return new(outcome);
        var drawn = command.Readings[0].Value;
        var room = JobBenches.Reservoir(state, (state.LevelPercent ?? 100) - drawn / state.Reservoir.Band.Milliliters * 100).Room;
        if (room.Verdict != RoomVerdict.DrawOffFirst) return new(outcome) { Room = room };
        throw new InputException(new InputError(nameof(ReadingKind.FluidDrawn), Figure.Of(drawn), $"at least {Figure.Of(drawn + room.DrawOff.Milliliters, 1)} mL", $"Not enough yet: draw off {Figure.Of(room.DrawOff.Milliliters, 1)} mL more."));
    }
}

/// <summary>The level with the pedal up is where it will stay: under MIN it draws air, over MAX it overflows when it warms.</summary>
internal sealed class LevelLooked : FluidLooked
{
    public override string? How(JobState state, Side? side) =>
        $"Between the marks. Top up only now.{(state.LevelPercent is { } level ? $" By what went and came back it stands at {Figure.Of(Math.Clamp(level, 0, 150), 0)} %: another figure is asked after." : "")}";

    // Clear of the lower mark by a tenth of the band: what leaves the workshop at MIN is under it at the first stop.
    // Common practice, no source for the tenth.
    private const double Least = 10;

    public override void Check(JobState state, ClickOn command, string? outcome)
    {
        var level = command.Readings.First(r => r.Kind == ReadingKind.ReservoirLevel).Value;
        if (level is >= Least and <= 100) return;
        throw new InputException(new InputError(nameof(ReadingKind.ReservoirLevel), $"{Figure.Of(level)} %", $"{Figure.Of(Least)} to 100 %, clear of MIN and not over MAX", level > 100
            ? $"{Figure.Of(level)} % is over MAX: draw off what is too much with a clean syringe, throw it away, and read again."
            : $"{Figure.Of(level)} % is down at MIN: find where it went, fill up with the fluid that the cap names, and read again."));
    }
}

/// <summary>A corner bled; with its draws, where they were noted.</summary>
internal sealed class BleedStep : FluidLooked
{
    /// <summary>Which corner, and in which order where more than one is bled.</summary>
    public override string? How(JobState state, Side? side)
    {
        if (side is not { } at) return null;
        var other = state.Remaining.Contains(new("corner-bled", at.Other()));
        var which = state.Setup.Rules.Bleeding == Workshop.BleedRule.Always
            ? $"All four, in the sheet's order{(state.Opened?.Sheet.Hydraulics?.BleedOrder is { } order ? $": {order}" : "; where it is silent the corner furthest from the master cylinder first")}."
            : other ? "Both rear corners, one after the other." : "This corner only.";
        return $"{which} Screw uppermost, tube in the bottle. Open, down, close before the pedal rises. Two clear draws without bubbles. The level never under MIN. Then its torque, and its cap on.";
    }

    /// <summary>Where draws were noted, the stop test has to be met.</summary>
    public override void Check(JobState state, ClickOn command, string? outcome)
    {
        var side = command.Step.Side!.Value;
        if (state.Corner(side).Draws.Count == 0) return;
        var bled = JobBenches.Fluid(state, null, false).Corners.First(c => c.Side == side).Bled;
        if (!bled.Done) throw new InputException(new InputError("draws", $"{bled.ClearInARow} clear in a row, {side.Word()}", "2 clear in a row, without bubbles or change of colour", $"The {side.Word()} corner is not bled yet. {bled.Says}"));
    }

    public override JobFile Fold(JobFile file, StepDone done) => file with { Leaks = null };
}

/// <summary>The pedal pumped up.</summary>
internal sealed class PedalProved : FluidLooked
{
    /// <summary>What the pedal brings up again leaves the reservoir; what was seen of leaks holds for the pedal it was seen under.</summary>
    public override JobFile Fold(JobFile file, StepDone done)
    {
        file = file with { Leaks = null };
        if (file.Opened is not { } opened) return file;
        foreach (var side in Core.Sides.Both.Where(s => file.Corner(s).StandsOff))
        {
            var gap = JobBenches.FluidOf(opened.Sheet, side, file.Corner(side).Travel!).Gap;
            file = file.WithCorner(side, c => c with { StandsOff = false }) with { LevelPercent = file.LevelPercent is { } level ? Math.Max(level - file.PercentOf(gap), 0) : null };
        }

        return file;
    }
}

/// <summary>The leak check; with what was seen, where it was noted.</summary>
internal sealed class LeaksLooked : FluidLooked
{
    /// <summary>Where a leak check was noted, it has to be passed.</summary>
    public override void Check(JobState state, ClickOn command, string? outcome)
    {
        if (state.Leaks is { } seen && LeakCheck.Judge(seen) is { Passed: false } answer)
            throw new InputException(new InputError("leaks", $"held {seen.HeldSeconds} s, not passed", "held hard for 30 s, sound and dry", $"The leak check is not passed. {answer.Says}"));
    }

    public override JobFile Fold(JobFile file, StepDone done) => file with { Leaks = null };
}

using PatientPawl.Core.Shoes;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Jobs;

/// <summary>Shoes set in their hat: the clearance that the bench knows goes into the record.</summary>
internal sealed class ShoesSet : StepBehaviour
{
    public override bool CanBeMarked => false;

    public override Judgement Judge(JobState state, ClickOn command, string? outcome) => new(outcome) { Clearance = Clearance(state, command.Step.Side!.Value) };

    public override IReadOnlyList<BenchKind> Benches(JobState state, Side? side) => [BenchKind.Shoes];

    public override ClearanceVerdict? Clearance(JobState state, Side side) => JobParts.Try(() => JobBenches.Shoes(state, side, state.Setup.Rotors, null, state.Instruments))?.Clearance;

    /// <summary>The house's way, with its figure, and where the hole stands.</summary>
    public override string? How(JobState state, Side? side)
    {
        if (side is not { } at) return null;
        var hole = state.Corner(at).StarWheel?.HoleAt ?? state.Opened?.Sheet.Drum?.HoleAt;
        var way = BackFromLock(state) is { } back
            ? $"Out until the hub cannot be turned by hand, then {Figure.Count(back, "click")} back."
            : Clearance(state, at) is { } c ? $"{Figure.Count(Math.Abs(c.Clicks), "click")} {(c.Clicks >= 0 ? "out" : "back")}, by the shoe bench." : "Clicks by the shoe bench, on the looser side.";
        return $"In neutral, the rotor held on its hub.{(hole is { } hour ? $" The hole at {hour} o'clock faces the star wheel." : "")} {way} It turns with no audible rub.";
    }

    public override int? BackFromLock(JobState state) =>
        state.Setup.Rules.StarWheel == StarWheelRule.ByCount ? state.Opened!.Sheet.Drum?.LockAndBackOff ?? ClearanceSheet.UsualClicksBack : null;
}

/// <summary>A star wheel backed off: which way loosened it is noted on the shoe bench.</summary>
internal sealed class StarWheelBacked : StepBehaviour
{
    public override IReadOnlyList<BenchKind> Benches(JobState state, Side? side) => [BenchKind.Shoes];
}

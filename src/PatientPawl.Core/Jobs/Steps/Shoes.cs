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

    public override int? BackFromLock(JobState state) =>
        state.Setup.Rules.StarWheel == StarWheelRule.ByCount ? state.Opened!.Sheet.Drum?.LockAndBackOff ?? ClearanceSheet.UsualClicksBack : null;
}

/// <summary>A star wheel backed off: which way loosened it is noted on the shoe bench.</summary>
internal sealed class StarWheelBacked : StepBehaviour
{
    public override IReadOnlyList<BenchKind> Benches(JobState state, Side? side) => [BenchKind.Shoes];
}

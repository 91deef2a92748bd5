using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Jobs;

/// <summary>The parking brake holds, in the yard or on the drive: not against figures that say it does not.</summary>
internal sealed class BrakeProved : StepBehaviour
{
    public override IReadOnlyList<BenchKind> Benches(JobState state, Side? side) => state.Setup.IsPlain ? [] : [BenchKind.Prove];

    public override void Check(JobState state, ClickOn command, string? outcome)
    {
        if (outcome is not null || state.Hold is not { Verdict: Verdict.Outside } tried) return;
        throw new NotAllowedException($"{tried.Says} Say so at the step, or try it again on the bench.",
            [.. tried.Proofs.Select(p => p.Check).OfType<string>()], [13]);
    }

    // What was tried belongs to the brake as it was: once it is said not to hold, it is tried anew.
    public override JobFile Fold(JobFile file, StepDone done) => done.Found is null ? file : file with { Hold = null };
}

/// <summary>The bed-in series, which has a bench to count it on.</summary>
internal sealed class BedInSeriesDriven : StepBehaviour
{
    public override IReadOnlyList<BenchKind> Benches(JobState state, Side? side) => [BenchKind.BedIn];
}

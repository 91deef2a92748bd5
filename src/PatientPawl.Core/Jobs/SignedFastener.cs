using PatientPawl.Core.Torque;

namespace PatientPawl.Core.Jobs;

/// <summary>A fastener that stands signed: who it was, when, with what.</summary>
/// <param name="Role">Which kind.</param>
/// <param name="Side">The corner; null for the car.</param>
/// <param name="Index">Which of them, from 1.</param>
/// <param name="By">Who signed.</param>
/// <param name="At">The server's clock.</param>
/// <param name="WrenchId">The wrench; null where none was used.</param>
/// <param name="Verified">False where it could not be measured, and waits for the lead.</param>
public sealed record SignedFastener(FastenerRole Role, Side? Side, int Index, string By, DateTimeOffset At, string? WrenchId, bool Verified)
{
    /// <summary>Those of a job that hold, in order: of one that was signed anew the last, and none that has come out since.</summary>
    public static IReadOnlyList<SignedFastener> Of(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        return
        [
            .. state.Standing.Where(e => e.Event is TorqueSigned signed && Holds(state, signed)).Select(e => (Recorded: e, Signed: (TorqueSigned)e.Event))
                .GroupBy(e => (e.Signed.Line.Role, e.Signed.Step.Side, e.Signed.Index)).Select(g => g.Last()).OrderBy(e => e.Recorded.Seq)
                .Select(e => new SignedFastener(e.Signed.Line.Role, e.Signed.Step.Side, e.Signed.Index, e.Recorded.Technician, e.Recorded.At, e.Signed.Wrench?.Id, e.Signed.Verified)),
        ];
    }

    // A set that is signed in part holds what it has; one that is still to be done, or to be done once more, holds nothing.
    private static bool Holds(JobState state, TorqueSigned signed) =>
        state.Signatures(signed.Step) is { Count: > 0 } part ? part.Contains(signed) : !state.Remaining.Contains(signed.Step);
}

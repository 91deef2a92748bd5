using PatientPawl.Core.Proving;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Jobs;

/// <summary>What a job knows of its own proof.</summary>
/// <param name="Usual">The series where the pad maker's sheet says nothing.</param>
/// <param name="BedIn">The bed-in that was noted; null when none was.</param>
/// <param name="Hold">What the parking brake was tried by; null when it was not.</param>
/// <param name="HatShoes">True where parking shoes run in the hat.</param>
/// <param name="Instead">What the house rule asks for instead of a series; null where it asks for one.</param>
public sealed record JobProof(BedInSeries Usual, BedInDriven? BedIn, ParkingHoldTried? Hold, bool HatShoes, string? Instead)
{
    /// <summary>Of a job.</summary>
    public static JobProof Of(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        var instead = state.Setup.Rules.BedIn == BedInRule.Gentle ? $"House rule: {Phrase.Small(HouseWords.Gentle)}, instead of a series."
            : null;
        return new(BedInSeries.Usual, state.BedIn, state.Hold, state.Setup.IsHat, instead);
    }
}

using PatientPawl.Core.Proving;

namespace PatientPawl.Core.Jobs;

/// <summary>What proves the work.</summary>
public static partial class JobRules
{
    /// <summary>Notes a bed-in that was driven.</summary>
    /// <exception cref="InputException">A figure that cannot be, or more stops than the series has.</exception>
    /// <exception cref="NotAllowedException">The job is closed, or no new linings are in it.</exception>
    public static BedInDriven DriveBedIn(JobState state, BedInFacts facts, int driven)
    {
        ArgumentNullException.ThrowIfNull(facts);
        RequireOpen(state);
        if (!state.Setup.HasNewLinings) throw new NotAllowedException("Nothing new is to be bedded in.", [], []);
        BedIn.Reckon(facts);
        new Checks().Range("driven", driven, 0, facts.Series.Stops, "").ThrowIfAny();
        return new(facts, driven, driven == 0 ? "None of its stops was driven."
            : BedIn.Reckon(facts with { Series = facts.Series with { Stops = driven } }).Says);
    }

    /// <summary>Notes what the parking brake was tried by.</summary>
    /// <exception cref="InputException">A figure that cannot be, or nothing that was tried.</exception>
    /// <exception cref="NotAllowedException">The job is closed, or the brake has no parking mechanism.</exception>
    public static ParkingHoldTried TryHold(JobState state, ParkingHoldFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        RequireOpen(state);
        if (state.Setup.IsPlain) throw new NotAllowedException("This axle has no parking brake.", [], []);
        var judged = ParkingHold.Judge(facts);
        if (judged.Proofs.Count == 0)
            throw new InputException(new InputError("hillPercent", "nothing", "a hill, roller forces or rotor temperatures",
                "Nothing was entered that was tried: a hill, the forces of a roller bench or the rotors' temperatures."));
        return new(facts, judged.Proofs, judged.Verdict, judged.Says);
    }
}

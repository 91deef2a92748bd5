namespace PatientPawl.Core.Jobs;

/// <summary>Commands that have waited on a device while others worked.</summary>
public static partial class JobRules
{
    /// <summary>
    /// True when an event leaves alone what a command at a corner is about, so that the command still means what it meant when it was given:
    /// notes and photos, and ordinary work and readings at the other corner. What was found, undone, left or aimed at anew touches
    /// everything; so does whatever happens to the car.
    /// </summary>
    /// <param name="happened">What has happened since.</param>
    /// <param name="side">The corner of the command; null for the car.</param>
    public static bool LeavesAlone(JobEvent happened, Side? side) => happened switch
    {
        NoteAdded or PhotoTaken or WorksBeside => true,
        StepDone { Found: null, Broken: null } or TorqueSigned or ReadingsTaken or ReadingStruck or ShoesLookedAt or RotorLookedAt or RetractionPointNoted or RetractionPointStruck
            or RetractionLookedAt or CaliperTried or PistonsMeasured or BleedDrawn or BleedDrawStruck => side is not null && happened.Card().Side(happened) is { } at && at != side,
        _ => false,
    };
}

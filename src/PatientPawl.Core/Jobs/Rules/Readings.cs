using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Shoes;

namespace PatientPawl.Core.Jobs;

/// <summary>Readings taken and struck out, and what is seen of the parts.</summary>
public static partial class JobRules
{
    /// <summary>Takes readings at a corner. Readings always append: they never wait for a version.</summary>
    /// <exception cref="InputException">A reading that cannot be, contradicts the others, or was taken with an instrument out of calibration.</exception>
    public static ReadingsTaken Take(JobState state, Side side, IReadOnlyList<PointReading> readings, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(readings);
        RequireOpen(state);
        if (readings.Count == 0) throw new InputException(new InputError("readings", "none", "1 to 500", "There is no reading to take."));
        ReadingRules.Check(readings, today);
        var checks = new Checks();
        var known = Core.Sides.Both.SelectMany(s => state.Corner(s).Readings).Select(r => r.Id).ToHashSet();
        foreach (var r in readings)
        {
            if (r.Id == Guid.Empty || !known.Add(r.Id)) checks.Add("id", r.Id.ToString(), "a new id each", "That reading was taken before.");
        }

        checks.ThrowIfAny();
        var taken = new ReadingsTaken(side, readings);
        RequireJudgeable(state, taken);
        return taken;
    }

    /// <summary>Strikes a reading out. It stays in the log.</summary>
    /// <exception cref="InputException">No such reading, or no reason.</exception>
    public static ReadingStruck Strike(JobState state, Guid readingId, string reason)
    {
        RequireOpen(state);
        new Checks().Text("reason", reason, 200).ThrowIfAny();
        foreach (var side in Core.Sides.Both)
        {
            if (state.Corner(side).Readings.All(r => r.Id != readingId)) continue;
            return state.Corner(side).Struck.ContainsKey(readingId) ? throw new NotAllowedException("That reading is struck out already.", [], []) : new(side, readingId, reason.Trim());
        }

        throw new InputException(new InputError("readingId", readingId.ToString(), "a reading of this job", "There is no such reading in this job."));
    }

    /// <summary>Notes what is seen of drum and shoes.</summary>
    /// <exception cref="InputException">A figure that cannot be.</exception>
    public static ShoesLookedAt LookAtShoes(JobState state, Side side, ShoeFacts facts) => Judgeable(state, new ShoesLookedAt(side, facts));

    /// <summary>Notes what is seen of a rotor.</summary>
    /// <exception cref="InputException">A figure that cannot be.</exception>
    public static RotorLookedAt LookAtRotor(JobState state, Side side, RotorFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        new Checks().Range("studs", facts.Studs, 3, 10, "").Range("movedByDeg", facts.MovedBy?.Degrees, -360, 360, "degrees").Millimetres("scoringDepthMm", facts.Condition.ScoringDepth, 0, 5).ThrowIfAny();
        return Judgeable(state, new RotorLookedAt(side, facts));
    }

    /// <summary>Notes what is seen of the pads.</summary>
    /// <exception cref="InputException">A figure that cannot be.</exception>
    public static PadsLookedAt LookAtPads(JobState state, PadFacts facts) => Judgeable(state, new PadsLookedAt(facts));

    /// <summary>Notes which way loosened a star wheel.</summary>
    /// <exception cref="InputException">An hour that no clock has.</exception>
    public static StarWheelNoted NoteStarWheel(JobState state, Side side, WheelWay loosens, int holeAt)
    {
        RequireOpen(state);
        new Checks().Range("holeAt", holeAt, 1, 12, "o'clock").ThrowIfAny();
        return new(side, loosens, holeAt);
    }

    private static T Judgeable<T>(JobState state, T e) where T : JobEvent
    {
        RequireOpen(state);
        RequireJudgeable(state, e);
        return e;
    }

    /// <summary>What the benches could not judge is not recorded: the sentence says which figure is wrong.</summary>
    private static void RequireJudgeable(JobState state, JobEvent e)
    {
        var next = state.With(new(Guid.Empty, state.Version + 1, e, Guid.Empty, "", default, default));
        foreach (var side in Core.Sides.Both)
        {
            JobBenches.Shoes(next, side, false, null, next.Instruments);
            JobBenches.Shoes(next, side, true, null, next.Instruments);
            JobBenches.Rotor(next, side, next.Instruments);
        }

        JobBenches.Pads(next, next.Instruments);
    }
}

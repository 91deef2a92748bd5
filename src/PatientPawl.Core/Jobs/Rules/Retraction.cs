using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Jobs;

/// <summary>A piston followed home.</summary>
public static partial class JobRules
{
    /// <summary>Records a stop sign. Those that hold the corner take its piston out of the plan until they are undone.</summary>
    /// <exception cref="NotAllowedException">When that piston is not being retracted.</exception>
    public static StopSignSeen Stop(JobState state, Side side, StopSign sign, string? note)
    {
        RequireOpen(state);
        if (!Enum.IsDefined(sign)) throw new InputException(new InputError("sign", sign.ToString(), "a known stop sign", "That stop sign is not known."));
        RequireAllowed(state, new("piston-home", side));
        var card = RetractionRuling.Stop(sign);
        return new(side, sign, card.HoldsCorner, string.IsNullOrWhiteSpace(note) ? null : note.Trim());
    }

    /// <summary>Settles a stop sign that holds a corner: with what was done the same caliper goes on.</summary>
    /// <exception cref="InputException">Not said what was done.</exception>
    /// <exception cref="NotAllowedException">Nothing holds that corner.</exception>
    public static StopSignSettled SettleStop(JobState state, Side side, string what)
    {
        RequireOpen(state);
        new Checks().Text("what", what, 200).ThrowIfAny();
        if (state.Corner(side).Stop is not { } stop) throw new NotAllowedException("No stop sign holds that corner.", [], []);
        return new(side, stop.Sign, what.Trim());
    }

    /// <summary>Notes a line of a retraction log. Lines always append: they never wait for a version.</summary>
    /// <exception cref="InputException">A line that cannot be, or a gauge out of calibration.</exception>
    /// <exception cref="NotAllowedException">The corner is not ruled on, or its piston is home.</exception>
    public static RetractionPointNoted NotePoint(JobState state, Side side, LogPoint point, string instrumentId, ToolBoard board)
    {
        ArgumentNullException.ThrowIfNull(point);
        ArgumentNullException.ThrowIfNull(board);
        RequireRetracting(state, side);
        if (Opposed(state, side)) throw new NotAllowedException("Opposed pistons are not followed by one log.", ["Measure every piston after each push."], []);
        var checks = new Checks();
        RetractionLog.CheckInto(checks, point);
        if (point.Id == Guid.Empty || Core.Sides.Both.Any(s => state.Corner(s).Log.Any(p => p.Point.Id == point.Id))) checks.Add("id", point.Id.ToString(), "a new id each", "That line was noted before.");
        var gauge = ReadingRules.Instrument(checks, board, instrumentId, [InstrumentUse.Depth], "how far the piston stands proud");
        var stage = state.Corner(side).LogPoints().Select(p => p.Stage).DefaultIfEmpty(1).Max();
        if (point.Stage > stage + 1 || point.Stage < stage) checks.Add("stage", Figure.Of(point.Stage), $"{stage} or {stage + 1}", $"Stage {point.Stage} does not follow stage {stage}.");
        checks.Range("points", state.Corner(side).LogPoints().Count + 1, 1, 200, "").ThrowIfAny();
        return new(side, point, gauge!);
    }

    /// <summary>Strikes a line of a retraction log out. It stays in the log.</summary>
    /// <exception cref="InputException">No such line, or no reason.</exception>
    public static RetractionPointStruck StrikePoint(JobState state, Side side, Guid pointId, string reason)
    {
        RequireOpen(state);
        new Checks().Text("reason", reason, 200).ThrowIfAny();
        if (state.Corner(side).Log.All(p => p.Point.Id != pointId)) throw new InputException(new InputError("pointId", pointId.ToString(), "a line of this log", "There is no such line in this log."));
        return state.Corner(side).Struck.ContainsKey(pointId) ? throw new NotAllowedException("That line is struck out already.", [], []) : new(side, pointId, reason.Trim());
    }

    /// <summary>Notes a try of the caliper over its new pads: only where the house sends pistons as far as they need and no further.</summary>
    /// <exception cref="InputException">A count that cannot be, or one that goes back.</exception>
    /// <exception cref="NotAllowedException">The house sends pistons home, the pistons are opposed, or the piston cannot be moved yet.</exception>
    public static CaliperTried TryCaliper(JobState state, Side side, double turns, bool passes)
    {
        RequireRetracting(state, side);
        RequireAllowed(state, new("piston-home", side));
        if (!TriesAreOffered(state, side)) throw new NotAllowedException("Not here: this house sends a piston all the way home.", ["Its log ends at home."], []);
        var least = state.Corner(side).Tries.Select(t => t.Turns).DefaultIfEmpty(0).Max();
        new Checks().Range("turns", turns, least, 200, "").Range("tries", state.Corner(side).Tries.Count + 1, 1, 50, "").ThrowIfAny();
        return new(side, turns, passes);
    }

    /// <summary>True where a caliper is tried over its pads a little at a time.</summary>
    public static bool TriesAreOffered(JobState state, Side side) => state.Setup.Rules.RetractDepth == RetractDepthRule.AsFarAsNeeded && !Opposed(state, side);

    /// <summary>Notes slot, boot and what was tried at a corner.</summary>
    /// <exception cref="InputException">A figure that cannot be.</exception>
    public static RetractionLookedAt LookAtRetraction(JobState state, Side side, RetractionFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        RequireRetracting(state, side);
        facts.Check();
        return new(side, facts);
    }

    /// <summary>Notes a round of measuring every piston of an opposed caliper: the first before the push, the next after each.</summary>
    /// <exception cref="InputException">A piston left out or measured twice, or a figure that cannot be.</exception>
    /// <exception cref="NotAllowedException">The corner is not ruled on, its caliper is not opposed, or its pistons are home.</exception>
    public static PistonsMeasured MeasurePistons(JobState state, Side side, IReadOnlyList<PistonProud> pistons)
    {
        ArgumentNullException.ThrowIfNull(pistons);
        RequireRetracting(state, side);
        if (!Opposed(state, side)) throw new NotAllowedException("This caliper has pistons on one side only.", ["Its piston is followed in the log."], []);
        var wanted = state.Opened!.Sheet.Piston.PistonsPerCaliper;
        if (pistons.Count != wanted) throw new InputException(new InputError("pistons", Figure.Of(pistons.Count), Figure.Of(wanted), $"The caliper has {Figure.Count(wanted, "piston")} and {Figure.Count(pistons.Count, "is", "are")} measured: measure every one, each time."));
        JobBenches.Creep(state, [pistons]);
        new Checks().Range("rounds", state.Corner(side).Pistons.Count + 1, 1, 100, "").ThrowIfAny();
        return new(side, pistons);
    }

    private static bool Opposed(JobState state, Side side) => state.Corner(side).Ruled?.Ruling.Method == RetractMethod.OpposedPush;

    private static void RequireRetracting(JobState state, Side side)
    {
        RequireOpen(state);
        if (state.Corner(side).Ruled is null) throw new NotAllowedException("Not yet: nobody knows which way it goes back.", [$"Identify the brake of the {side.Word()} corner first."], []);
        if (state.Car.Get(Corner.Piston, side) == Piston.Home) throw new NotAllowedException("That piston is home.", ["Undo that step first."], []);
    }
}

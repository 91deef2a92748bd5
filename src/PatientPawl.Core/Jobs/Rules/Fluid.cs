using PatientPawl.Core.Hydraulics;

namespace PatientPawl.Core.Jobs;

/// <summary>Fluid, bleeding and leaks.</summary>
public static partial class JobRules
{
    /// <summary>Notes what is known of the fluid.</summary>
    /// <exception cref="InputException">A figure that cannot be.</exception>
    public static FluidLookedAt LookAtFluid(JobState state, FluidFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        RequireOpen(state);
        Judged(state, facts);
        if (facts.Sides is { } sides) FluidBench.Measure(sides);
        return new(facts);
    }

    /// <summary>What the fluid of a job says, by what is known of it.</summary>
    internal static FluidAnswer FluidIn(JobState state) => Judged(state, state.Fluid);

    private static FluidAnswer Judged(JobState state, FluidFacts facts) =>
        BrakeFluid.Judge(new(facts.Cap ?? state.Opened!.Sheet.Hydraulics?.Fluid ?? FluidGrade.Dot4, facts.Bottle, facts.WaterPercent, facts.HottestCelsius));

    /// <summary>Notes a draw at a corner's bleed screw.</summary>
    /// <exception cref="InputException">A draw that cannot be.</exception>
    /// <exception cref="NotAllowedException">Nothing is to be bled now.</exception>
    public static BleedDrawn Draw(JobState state, Side side, BleedDraw draw)
    {
        ArgumentNullException.ThrowIfNull(draw);
        RequireOpen(state);
        RequireAllowed(state, new("corner-bled", side));
        var checks = new Checks();
        Bleeding.CheckInto(checks, draw);
        if (draw.Id == Guid.Empty || Core.Sides.Both.Any(s => state.Corner(s).Draws.Any(d => d.Id == draw.Id))) checks.Add("id", draw.Id.ToString(), "a new id each", "That draw was noted before.");
        checks.Range("draws", state.Corner(side).Draws.Count + 1, 1, 200, "").ThrowIfAny();
        return new(side, draw);
    }

    /// <summary>Strikes a draw out that was noted wrongly. It stays in the log.</summary>
    /// <exception cref="InputException">No such draw, or no reason.</exception>
    /// <exception cref="NotAllowedException">It is struck out already, or the car is bled.</exception>
    public static BleedDrawStruck StrikeDraw(JobState state, Side side, Guid drawId, string reason)
    {
        RequireOpen(state);
        RequireAllowed(state, new("corner-bled", side));
        new Checks().Text("reason", reason, 200).ThrowIfAny();
        if (state.Corner(side).AllDraws.All(d => d.Id != drawId)) throw new InputException(new InputError("drawId", drawId.ToString(), "a draw at this corner", "There is no such draw at this corner."));
        return state.Corner(side).Struck.ContainsKey(drawId) ? throw new NotAllowedException("That draw is struck out already.", [], []) : new(side, drawId, reason.Trim());
    }

    /// <summary>Notes what was seen at the leak check. Whether a banjo was undone is the job's to say.</summary>
    /// <exception cref="InputException">A time that cannot be.</exception>
    /// <exception cref="NotAllowedException">Leaks are not looked for now.</exception>
    public static LeaksLookedAt LookForLeaks(JobState state, LeakInput seen)
    {
        ArgumentNullException.ThrowIfNull(seen);
        RequireOpen(state);
        RequireAllowed(state, new("leaks-looked", null));
        var held = seen with { BanjoUndone = state.BanjoUndone };
        LeakCheck.Judge(held);
        return new(held);
    }
}

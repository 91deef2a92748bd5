using PatientPawl.Core.Reasoning;

namespace PatientPawl.Core.Identification;

/// <summary>An architecture that fell, and what felled it.</summary>
/// <param name="Architecture">The architecture.</param>
/// <param name="FelledBy">The observations, in the catalogue's order; never empty.</param>
public sealed record Fallen(Architecture Architecture, IReadOnlyList<Observation> FelledBy);

/// <summary>The look that would split what still stands best.</summary>
/// <param name="Look">The look.</param>
/// <param name="LeavesAtMost">How many would still stand after its least helpful answer.</param>
/// <param name="WaitsForRelaxed">True when it is the push test and the mechanism is not known to be relaxed yet.</param>
public sealed record NextLook(Look Look, int LeavesAtMost, bool WaitsForRelaxed);

/// <summary>What the observations leave standing at one corner.</summary>
/// <param name="Standing">Architectures still standing.</param>
/// <param name="Fallen">Those that fell, and by what.</param>
/// <param name="Contradictions">Observations that cannot all be true together; empty when there is none.</param>
/// <param name="Next">The next look, or null when no look would part what stands.</param>
/// <param name="Ruled">The architecture the ruling is made for; null while the ruling must wait.</param>
/// <param name="Joint">True when more than one stands and one ruling serves them all for now.</param>
/// <param name="MethodUndecided">True while motor-push and motor-turn both stand: it is settled once the spindle is back.</param>
/// <param name="BrakeByWireUnsettled">True while "is the pedal simulated" has not been answered yes or no.</param>
/// <param name="Reasons">Why.</param>
public sealed record Identified(
    IReadOnlyList<Architecture> Standing, IReadOnlyList<Fallen> Fallen, IReadOnlyList<Observation> Contradictions, NextLook? Next,
    Architecture? Ruled, bool Joint, bool MethodUndecided, bool BrakeByWireUnsettled, Reasons Reasons) : IReasoned;

/// <summary>Decides which parking-brake architecture a corner has, by elimination.</summary>
[Engine]
public static class Identify
{
    /// <summary>
    /// Judges the observations of one corner against <see cref="EvidenceTable"/>. The order of the observations does not
    /// matter; a later answer to the same look replaces the earlier one before this is called. A push test answered with
    /// the mechanism not known to be relaxed proves nothing and is left out.
    /// </summary>
    /// <exception cref="InputException">An answer the look cannot have, or a look answered twice.</exception>
    public static Identified Corner(IReadOnlyCollection<Observation> observations, bool mechanismRelaxed)
    {
        ArgumentNullException.ThrowIfNull(observations);
        foreach (var o in observations) LookCatalogue.Check(o);
        var twice = observations.GroupBy(o => o.Look).FirstOrDefault(g => g.Count() > 1);
        if (twice is not null)
            throw new InputException(new InputError("look", twice.Key.Card().Name, "each look once", $"{twice.Key.Card().Name} is answered twice. Each look has one answer."));

        var known = observations
            .Where(o => mechanismRelaxed || o.Look != Look.PushMoves)
            .OrderBy(o => o.Look).ToArray();

        var standing = Standing(known);
        var fallen = EvidenceTable.Rows.Select(r => new Fallen(r.Architecture, FelledBy(r, known))).Where(f => f.FelledBy.Count > 0).ToArray();
        var contradictions = Contradictions(known, standing);
        var byWire = observations.FirstOrDefault(o => o.Look == Look.BrakeByWire)?.Seen;
        var undecided = standing.Contains(Architecture.MotorPush) && standing.Contains(Architecture.MotorTurn);
        // A lever car that is pushed is never ruled by elimination: where nothing else is left and no push moved it, some look is wrong.
        var ruled = contradictions.Count > 0 ? null : Rule(standing, known);
        var next = contradictions.Count > 0 ? null : Next(known, standing, mechanismRelaxed);

        var trail = new Trail("Identify.Corner");
        foreach (var o in known)
        {
            var felled = fallen.Where(f => f.FelledBy.Contains(o)).Select(f => f.Architecture.Words()).ToArray();
            trail.Evidence(LookCatalogue.Words(o), felled.Length == 0 ? "rules out nothing" : "rules out " + string.Join("; ", felled), "evidence-table");
        }
        if (observations.Count != known.Length)
            trail.Evidence("Push test", "left out: the mechanism was not known to be relaxed", "evidence-table");
        trail.Conclude(contradictions.Count > 0 ? $"Look again: {string.Join(" and ", contradictions.Select(LookCatalogue.Words))} cannot all be true."
            : standing.Count == 1 ? standing[0].Words() + "."
            : $"{standing.Count} possible: {string.Join("; ", standing.Select(a => a.Words()))}.");
        if (next is not null) trail.WouldChange($"{next.Look.Card().Question}");

        return new(standing, fallen, contradictions, next, ruled, ruled is not null && standing.Count > 1, undecided,
            byWire is not (Seen.Yes or Seen.No), trail.Done());
    }

    private static List<Architecture> Standing(IReadOnlyCollection<Observation> known) =>
        [.. EvidenceTable.Rows.Where(r => FelledBy(r, known).Count == 0).Select(r => r.Architecture)];

    private static List<Observation> FelledBy(EvidenceRow row, IReadOnlyCollection<Observation> known)
    {
        List<Observation> by = [.. known.Where(row.ExcludedBy.Contains)];
        var denied = row.Requires.Select(r => known.FirstOrDefault(o => o.Look == r.Look && o.Seen != r.Seen)).ToArray();
        if (denied.Length > 0 && denied.All(d => d is not null)) by.AddRange(denied!);
        return [.. by.Distinct().OrderBy(o => o.Look)];
    }

    /// <summary>
    /// With nothing standing, the smallest set found by leaving out every observation that is not needed for the conflict.
    /// A lever and a motor on one caliper are a conflict even while something outlandish still stands.
    /// </summary>
    private static List<Observation> Contradictions(Observation[] known, List<Architecture> standing)
    {
        var both = known.Where(o => o is { Look: Look.CaliperLever or Look.CaliperMotor, Seen: Seen.Yes }).ToList();
        if (both.Count == 2) return both;
        if (!NothingLeft(standing, known)) return [];
        var core = known.ToList();
        // Again until nothing more goes: without the push that moved, a look can be left out that was needed beside it.
        while (core.Find(o => core.Where(x => x != o).ToList() is var rest && NothingLeft(Standing(rest), rest)) is { } spare) core.Remove(spare);
        return core;
    }

    // Lever-push alone, with no push that moved, is as good as nothing: only the sheet or a push can say so.
    private static bool NothingLeft(List<Architecture> standing, IReadOnlyCollection<Observation> known) =>
        standing.Count == 0 || (standing is [Architecture.LeverPush] && !known.Contains(new(Look.PushMoves, Seen.Yes)));

    /// <summary>
    /// One ruling when one stands, or when all that stand share method and preconditions: the two motor kinds until the
    /// spindle is back; lever-push beside a screw, which never blocks the screw's ruling; and opposed pistons beside a
    /// motor on the plate: how the shoes are worked is a fact of its own.
    /// </summary>
    private static Architecture? Rule(List<Architecture> standing, IReadOnlyCollection<Observation> known)
    {
        if (standing.Count == 1) return standing[0];
        if (standing.Count == 0) return null;
        if (known.Contains(new(Look.OpposedPistons, Seen.Yes)) && standing.All(a => a is Architecture.MotorHat or Architecture.FixedHat)) return Architecture.FixedHat;
        var without = standing.Count > 1 ? standing.Where(a => a != Architecture.LeverPush).ToList() : standing;
        if (without.Count == 1) return without[0];
        return without.All(a => a is Architecture.MotorPush or Architecture.MotorTurn) ? Architecture.MotorPush : null;
    }

    private static NextLook? Next(Observation[] known, List<Architecture> standing, bool relaxed)
    {
        if (standing.Count < 2) return null;
        NextLook? best = null;
        var bestSpread = int.MaxValue;
        foreach (var card in LookCatalogue.All)
        {
            if (card.Look == Look.BrakeByWire || known.Any(o => o.Look == card.Look)) continue;
            var groups = card.Answers.Select(a => Standing([.. known, new Observation(card.Look, a)]).Count).ToArray();
            if (groups.All(g => g == standing.Count)) continue;
            // The most even split: the least helpful answer leaves fewest; then the smallest sum of squares; then the
            // catalogue's order, which is least dismantling first.
            var most = groups.Max();
            var spread = groups.Sum(g => g * g) * 2 / groups.Length;
            if (best is not null && (most > best.LeavesAtMost || (most == best.LeavesAtMost && spread >= bestSpread))) continue;
            best = new(card.Look, most, card.Look == Look.PushMoves && !relaxed);
            bestSpread = spread;
        }
        return best;
    }
}

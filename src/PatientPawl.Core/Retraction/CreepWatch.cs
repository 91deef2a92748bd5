using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Retraction;

/// <summary>Which side of the rotor a piston of an opposed caliper sits on.</summary>
public enum PistonBank
{
    /// <summary>Inner.</summary>
    Inner,
    /// <summary>Outer.</summary>
    Outer,
}

/// <summary>How far one piston of an opposed caliper stands proud.</summary>
/// <param name="Bank">Inner or outer.</param>
/// <param name="Number">Which of them, from 1 at the leading end; opposite pistons share their number.</param>
/// <param name="Proud">How far, 0 to 100 mm.</param>
public sealed record PistonProud(PistonBank Bank, int Number, Length Proud);

/// <summary>One piston of an opposed caliper, before the push and after it.</summary>
/// <param name="Bank">Inner or outer.</param>
/// <param name="Number">Which of them, from 1 at the leading end; opposite pistons share their number.</param>
/// <param name="Before">How far it stood proud, 0 to 100 mm.</param>
/// <param name="Now">How far it stands proud, 0 to 100 mm.</param>
public sealed record OpposedPiston(PistonBank Bank, int Number, Length Before, Length Now);

/// <summary>One piston as it is judged.</summary>
/// <param name="Piston">The piston.</param>
/// <param name="Moved">How far it moved; above 0 is inward.</param>
/// <param name="Crept">True when it came out by more than 0.2 mm.</param>
/// <param name="Home">True when it is within 0.3 mm of home.</param>
/// <param name="Leaving">True when it stands further out than its limit.</param>
public sealed record PistonMove(OpposedPiston Piston, Length Moved, bool Crept, bool Home, bool Leaving);

/// <summary>What the creep watch says.</summary>
/// <param name="Pistons">Every piston.</param>
/// <param name="NextPair">The number of the pair to push next; null when all are home or the work stops.</param>
/// <param name="Hold">Pistons to hold meanwhile.</param>
/// <param name="Stop">True when nothing more is pushed until it is settled.</param>
/// <param name="AllHome">True when every piston is home.</param>
/// <param name="Says">What to do.</param>
/// <param name="Reasons">Why.</param>
public sealed record CreepAnswer(IReadOnlyList<PistonMove> Pistons, int? NextPair, IReadOnlyList<OpposedPiston> Hold, bool Stop, bool AllHome, string Says, Reasons Reasons) : IReasoned;

/// <summary>Orders the pushing of opposed pistons and watches that none creeps out. Common practice, no source.</summary>
[Engine]
public static class CreepWatch
{
    private const double Out = 0.2, Hair = 1e-9;

    /// <summary>
    /// Opposite pistons go together, the pair that stands furthest out first, with every other piston held. A piston that came out by more than 0.2 mm
    /// was not held; one beyond its limit stops the work, for the circuit may be open.
    /// </summary>
    /// <param name="pistons">Every piston of the caliper: 1 to 6 pairs.</param>
    /// <param name="home">How far they stand proud when home, 0 to 50 mm; null when the sheet does not say: then none is called home.</param>
    /// <param name="limit">The furthest they may stand proud, 1 to 100 mm; null when the sheet does not say.</param>
    /// <exception cref="InputException">A piston without its opposite, or a figure that cannot be.</exception>
    public static CreepAnswer Watch(IReadOnlyList<OpposedPiston> pistons, Length? home, Length? limit)
    {
        ArgumentNullException.ThrowIfNull(pistons);
        var checks = new Checks().Millimetres("homeProtrusionMm", home, 0, 50).Millimetres("protrusionLimitMm", limit, 1, 100).Range("pistons", pistons.Count, 2, 12, "");
        foreach (var p in pistons) checks.Range("number", p.Number, 1, 6, "").Millimetres("beforeMm", p.Before, 0, 100).Millimetres("nowMm", p.Now, 0, 100);
        foreach (var g in pistons.GroupBy(p => p.Number).Where(g => g.Count() != 2 || g.DistinctBy(p => p.Bank).Count() != 2))
            checks.Add("pistons", $"pair {g.Key}", "one inner and one outer piston a pair", $"Pair {g.Key} is not one inner and one outer piston: measure both.");
        checks.ThrowIfAny();

        var moves = pistons.OrderBy(p => p.Number).ThenBy(p => p.Bank).Select(p => new PistonMove(p, p.Before - p.Now, (p.Now - p.Before).Millimeters > Out + Hair,
            home is { } h && (p.Now - h).Millimeters <= RetractionLog.HomeWithin + Hair, limit is { } most && p.Now > most)).ToArray();
        var trail = new Trail("CreepWatch.Watch");
        foreach (var m in moves) trail.Formula(Name(m.Piston), "before - now", $"{Figure.Of(m.Piston.Before.Millimeters)} - {Figure.Of(m.Piston.Now.Millimeters)}", $"{Figure.Of(m.Moved.Millimeters, 2)} mm inward", "geometry");

        var crept = moves.Where(m => m.Crept).ToArray();
        var leaving = moves.Where(m => m.Leaving).ToArray();
        var open = moves.Where(m => !m.Home).Select(m => m.Piston.Number).Distinct().ToArray();
        // The pair that stands furthest out gives the others the least room.
        int? next = leaving.Length > 0 || open.Length == 0 ? null : open.MaxBy(n => pistons.Where(p => p.Number == n).Sum(p => p.Now.Millimeters));
        var hold = next is { } pair ? pistons.Where(p => p.Number != pair).OrderBy(p => p.Number).ThenBy(p => p.Bank).ToArray() : [];
        var says = leaving.Length > 0 ? $"Stop: {Names(leaving)} stands beyond its limit of {Figure.Of(limit!.Value.Millimeters, 1)} mm. Push it back by hand, and look for fluid: a piston that left its bore opens the circuit."
            : open.Length == 0 ? "All home. Leave the spreader in until the pads are at hand."
            : (crept.Length > 0 ? $"{Names(crept)} crept out by {string.Join(" and ", crept.Select(c => Figure.Of(-c.Moved.Millimeters, 1)))} mm: {(crept.Length == 1 ? "it was" : "they were")} not held. " : "")
                + $"Push pair {next} together{(hold.Length > 0 ? ", the others held" : "")}.";
        return new(moves, next, hold, leaving.Length > 0, open.Length == 0, says, trail.Conclude(says, "practice-opposed").WouldChange("Measuring again after the push.").Done());
    }

    internal static string Name(PistonBank bank, int number) => $"{(bank == PistonBank.Inner ? "Inner" : "Outer")} {number}";
    internal static string Name(OpposedPiston p) => Name(p.Bank, p.Number);
    private static string Names(IEnumerable<PistonMove> moves) => string.Join(" and ", moves.Select(m => Name(m.Piston)));
}

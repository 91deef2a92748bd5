using System.Numerics;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Rotors;

/// <summary>A vector of the once-per-turn runout.</summary>
/// <param name="OncePerTurn">Twice its length: the runout it makes.</param>
/// <param name="HighAt">Where it stands highest, from stud 1.</param>
public sealed record RunoutVector(Length OncePerTurn, Angle HighAt);

/// <summary>What a position of the rotor on the studs would give.</summary>
/// <param name="Studs">How many studs on from the first position.</param>
/// <param name="MovedBy">The same as an angle.</param>
/// <param name="OncePerTurn">The once-per-turn runout there.</param>
/// <param name="Verdict">Against the limit.</param>
/// <param name="Possible">False when a locating screw or dowel does not allow it.</param>
public sealed record StudPosition(int Studs, Angle MovedBy, Length OncePerTurn, Verdict Verdict, bool Possible);

/// <summary>Whose fault a runout is.</summary>
public enum RunoutBlame
{
    /// <summary>It passes where it stands.</summary>
    Passes,
    /// <summary>Another position on the studs passes.</summary>
    ReIndex,
    /// <summary>The hub face makes most of it.</summary>
    Hub,
    /// <summary>The rotor makes most of it.</summary>
    Rotor,
}

/// <summary>Hub and rotor told apart.</summary>
/// <param name="Hub">The hub face's part.</param>
/// <param name="Rotor">The rotor's part, as it stood in run 1.</param>
/// <param name="Doubt">Standard uncertainty of either vector.</param>
/// <param name="Positions">What each position would give.</param>
/// <param name="Best">The best of those possible.</param>
/// <param name="Blame">Whose fault it is.</param>
/// <param name="Says">What to do.</param>
/// <param name="Notes">What else to know.</param>
/// <param name="Reasons">Why.</param>
public sealed record HubAndRotorVerdict(
    RunoutVector Hub, RunoutVector Rotor, Length Doubt, IReadOnlyList<StudPosition> Positions, StudPosition Best, RunoutBlame Blame, string Says, IReadOnlyList<string> Notes, Reasons Reasons) : IReasoned;

/// <summary>A speck under the rotor, and what it makes at the rim.</summary>
/// <param name="TotalAtRotor">Total runout at the rotor's radius.</param>
/// <param name="Says">In words.</param>
/// <param name="Reasons">Why.</param>
public sealed record SpeckVerdict(Length TotalAtRotor, string Says, Reasons Reasons) : IReasoned;

/// <summary>Tells the hub's runout from the rotor's, from two positions on the studs.</summary>
[Engine]
public static class HubAndRotor
{
    /// <summary>
    /// The once-per-turn part is the sum of hub and rotor: m = H + R exp(i phi). From two positions, R = (m1 - m2) / (exp(i phi1) - exp(i phi2)) and
    /// H = m1 - R exp(i phi1); the doubt of R is u(m) / (root 2 |sin(dphi / 2)|), least at half a turn.
    /// </summary>
    /// <param name="first">The fit of the first run.</param>
    /// <param name="firstMoved">How far the rotor stood turned on the hub then.</param>
    /// <param name="second">The fit of the second run.</param>
    /// <param name="secondMoved">How far then.</param>
    /// <param name="studs">Wheel studs, 3 to 10.</param>
    /// <param name="possible">Positions that a screw or dowel allows, as studs on; null when all.</param>
    /// <param name="instrument">The dial.</param>
    /// <param name="limit">Runout limit; null uses the flagged default.</param>
    /// <exception cref="InputException">The same position twice, or no such stud.</exception>
    public static HubAndRotorVerdict Separate(RunoutVerdict first, Angle firstMoved, RunoutVerdict second, Angle secondMoved, int studs, IReadOnlyList<int>? possible, Instrument instrument, Length? limit)
    {
        ArgumentNullException.ThrowIfNull(first);
        ArgumentNullException.ThrowIfNull(second);
        ArgumentNullException.ThrowIfNull(instrument);
        var turn = Complex.FromPolarCoordinates(1, firstMoved.Radians) - Complex.FromPolarCoordinates(1, secondMoved.Radians);
        var checks = new Checks().Range("studs", studs, 3, 10, "").Millimetres("runoutLimitMm", limit, 0.005, 1);
        if (turn.Magnitude < 0.02) checks.Add("movedByDeg", Figure.Of(secondMoved.Degrees), "another position", "Both runs stand at the same position: turn the rotor on the studs, best by half a turn.");
        if (possible is not null && (possible.Count == 0 || possible.Any(p => p < 0 || p >= studs))) checks.Add("possible", string.Join(", ", possible), $"0 to {studs - 1}", $"Positions are counted in studs on, 0 to {studs - 1}.");
        checks.ThrowIfAny();

        Complex m1 = Vector(first), m2 = Vector(second);
        var r = (m1 - m2) / turn;
        var h = m1 - r * Complex.FromPolarCoordinates(1, firstMoved.Radians);
        var um = Math.Max(first.VectorDoubt.Millimeters, second.VectorDoubt.Millimeters);
        var half = Math.Abs(Math.Sin((firstMoved.Radians - secondMoved.Radians) / 2));
        var doubt = um / (Math.Sqrt(2) * half);
        var most = limit ?? Runout.DefaultLimit;
        var atFirst = Complex.FromPolarCoordinates(1, firstMoved.Radians);
        // What a position would give is twice the length of a sum of the two measured vectors, each with its weight and its doubt.
        double Guard(Complex a, Complex b) => LimitJudgement.GuardFactor * 2 * um * Math.Sqrt(a.Magnitude * a.Magnitude + b.Magnitude * b.Magnitude);
        Verdict Against(double twice, double guard) => Verdicts.Of(most.Millimeters - twice, guard);
        StudPosition At(int j)
        {
            var there = Complex.FromPolarCoordinates(1, 2 * Math.PI * j / studs);
            var twice = 2 * (h + r * there).Magnitude;
            var weight = (there - Complex.FromPolarCoordinates(1, firstMoved.Radians)) / turn;
            return new(j, Angle.FromDegrees(360.0 * j / studs), L(twice), Against(twice, Guard(1 + weight, weight)), possible is null || possible.Contains(j));
        }

        StudPosition[] positions = [.. Enumerable.Range(0, studs).Select(At)];
        var best = positions.Where(p => p.Possible).MinBy(p => p.OncePerTurn.Millimeters)!;
        double hub = 2 * h.Magnitude, rotor = 2 * r.Magnitude;
        var blame = positions[0].Verdict == Verdict.Inside ? RunoutBlame.Passes : best.Verdict == Verdict.Inside ? RunoutBlame.ReIndex : hub >= rotor ? RunoutBlame.Hub : RunoutBlame.Rotor;
        var says = blame switch
        {
            RunoutBlame.Passes => "It passes where it stands.",
            RunoutBlame.ReIndex => $"Turn the rotor {best.Studs} {(best.Studs == 1 ? "stud" : "studs")} on: {Figure.Of(best.OncePerTurn.Millimeters)} mm.",
            RunoutBlame.Hub => $"Clean the hub face: it makes {Figure.Of(hub)} mm. The rotor alone would leave {Figure.Of(rotor)}, {Against(rotor, Guard(1 / turn, 1 / turn)).Words()}.",
            _ => $"Change the rotor: it makes {Figure.Of(rotor)} mm. The hub alone would leave {Figure.Of(hub)}, {Against(hub, Guard(1 - atFirst / turn, atFirst / turn)).Words()}.",
        };
        List<string> notes = [];
        if (half < 0.7) notes.Add("The two positions lie close together: the second is best taken nearest half a turn.");
        if (positions.Any(p => !p.Possible)) notes.Add("A locating screw or dowel leaves only the positions it allows.");
        if (best.Verdict == Verdict.TooCloseToCall) notes.Add("Even the best position is too close to call: measure there before it is passed.");

        var trail = new Trail("HubAndRotor.Separate")
            .Input("Run 1", $"a {Figure.Of(m1.Real, 4)}, b {Figure.Of(m1.Imaginary, 4)}, turned {Figure.Of(firstMoved.Degrees)}°")
            .Input("Run 2", $"a {Figure.Of(m2.Real, 4)}, b {Figure.Of(m2.Imaginary, 4)}, turned {Figure.Of(secondMoved.Degrees)}°")
            .Formula("Rotor", "2 |m1 - m2| / |exp(i phi1) - exp(i phi2)|", $"2 × {Figure.Of((m1 - m2).Magnitude, 4)} / {Figure.Of(turn.Magnitude, 3)}", $"{Figure.Of(rotor)} mm", "geometry")
            .Formula("Hub", "2 |m1 - R exp(i phi1)|", "", $"{Figure.Of(hub)} mm", "geometry")
            .Formula("Doubt", "u(m) / (root 2 |sin(dphi / 2)|)", $"{Figure.Of(um, 4)} / (1.414 × {Figure.Of(half, 3)})", $"{Figure.Of(doubt, 4)} mm", "gum");
        if (limit is null) trail.Default("Runout limit", $"{Figure.Of(most.Millimeters)} mm", "practice-rotor");
        foreach (var p in positions) trail.Evidence($"{p.Studs} on", $"{Figure.Of(p.OncePerTurn.Millimeters)} mm, {p.Verdict.Words()}{(p.Possible ? "" : ", not possible")}", "geometry");
        return new(Of(h), Of(r), L(doubt), positions, best, blame, says, notes, trail.Conclude(says).WouldChange("A cleaned hub face, or a second position nearer half a turn.").Done());
    }

    /// <summary>A speck of thickness t at the hub's radius tilts the rotor: total runout t × rotor radius / hub radius.</summary>
    /// <exception cref="InputException">A figure that cannot be.</exception>
    public static SpeckVerdict Speck(Length thickness, Length hubRadius, Length rotorRadius)
    {
        new Checks().Millimetres("thicknessMm", thickness, 0, 2).Millimetres("hubRadiusMm", hubRadius, 10, 200).Millimetres("rotorRadiusMm", rotorRadius, 20, 300).ThrowIfAny();
        var total = thickness.Millimeters * rotorRadius.Millimeters / hubRadius.Millimeters;
        var says = $"A speck {Figure.Of(thickness.Millimeters)} mm thick on the hub is {Figure.Of(total)} mm of runout at the rotor.";
        return new(L(total), says, new Trail("HubAndRotor.Speck").Formula("At the rotor", "speck × rotor radius / hub radius", $"{Figure.Of(thickness.Millimeters)} × {Figure.Of(rotorRadius.Millimeters)} / {Figure.Of(hubRadius.Millimeters)}", $"{Figure.Of(total, 4)} mm", "geometry").Conclude(says).Done());
    }

    private static Complex Vector(RunoutVerdict v) => new(v.CosinePart.Millimeters, v.SinePart.Millimeters);
    private static RunoutVector Of(Complex c) => new(L(2 * c.Magnitude), Angle.FromDegrees((c.Phase * 180 / Math.PI + 360) % 360));
    private static Length L(double mm) => Length.FromMillimeters(mm);
}

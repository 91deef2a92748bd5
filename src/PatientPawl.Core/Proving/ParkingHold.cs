using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Proving;

/// <summary>
/// Whether the parking brake is proved: by a hill, by a roller bench against the ratio of the periodic inspection, left against right; and by
/// the rotors' temperatures whether a side drags.
/// </summary>
[Engine]
public static class ParkingHold
{
    private const double CarGrade = 20, VanGrade = 18, LeastRatio = 16, DefaultSides = 30;

    // A roller bench reads within 3 % of its reading, from memory; a side drags where its rotor is 20 K and a quarter of its rise hotter: ours.
    private const double RollerError = 0.03, DragKelvin = 20, DragShare = 0.25;

    /// <summary>The force along a grade: m g sin(atan(percent / 100)), with g = 9.80665 m/s².</summary>
    /// <param name="mass">Mass.</param>
    /// <param name="percent">Grade, rise over run.</param>
    internal static Force Along(Mass mass, double percent) =>
        Force.FromNewtons(mass.Kilograms * Gravity * Math.Sin(Math.Atan(percent / 100)));

    private const double Gravity = 9.80665;

    /// <summary>Judges what was tried.</summary>
    /// <param name="facts">What it is judged by.</param>
    /// <exception cref="InputException">A figure out of its range, or one of a pair alone.</exception>
    public static ParkingHoldAnswer Judge(ParkingHoldFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        Check(facts);
        var trail = new Trail("ParkingHold.Judge");
        var grade = facts.Approved == ApprovedAs.Car ? CarGrade : VanGrade;
        var asked = Along(facts.MaximumMass, grade);
        trail.Formula("Force that the type's rule asks for", "m g sin(atan(grade))",
            $"{Figure.Of(facts.MaximumMass.Kilograms)} x 9.80665 x sin(atan({Figure.Of(grade / 100, 2)}))",
            $"{Figure.Of(asked.Newtons, 1)} N", facts.Approved == ApprovedAs.Car ? "grade-20" : "grade-18");
        Force? onHill = facts.HillPercent is { } hill ? Along(facts.MassOnHill ?? facts.MaximumMass, hill) : null;
        var (ratio, apart) = Roller(facts);
        HoldProof[] proofs = [.. new[] { Hill(facts, grade, onHill, trail), Ratio(facts, ratio, trail), Sides(facts, apart, trail),
            Drag(facts, trail) }.OfType<HoldProof>()];
        // The hill, or the bench, proves it; drag alone says nothing of the hold.
        var holds = proofs.Any(p => p.What is HillName or RatioName);
        var verdict = holds ? Verdicts.Worst(proofs.Select(p => p.Verdict))
            : Verdicts.Worst([Verdict.NotYetEnough, .. proofs.Select(p => p.Verdict)]);
        var says = verdict switch
        {
            Verdict.Inside => "It holds.",
            Verdict.Outside => $"Not proved. {string.Join(" ", proofs.Where(p => p.Verdict == Verdict.Outside).Select(p => p.Says))}",
            Verdict.TooCloseToCall => "Too close to call: not passed. Measure it again, or on another bench.",
            _ => holds ? string.Join(" ", proofs.Where(p => p.Verdict == Verdict.NotYetEnough).Select(p => p.Says))
                : "Nothing that was entered shows that it holds: a hill both ways, or a roller bench.",
        };
        return new(grade, asked, onHill, ratio, apart, proofs, verdict, says, trail.Conclude(says)
            .WouldChange("A steeper hill, or the forces of a roller bench.").Done());
    }

    private const string HillName = "On the hill", RatioName = "Roller bench, both wheels";

    private static HoldProof? Hill(ParkingHoldFacts f, double grade, Force? onHill, Trail trail)
    {
        if (f.HillPercent is not { } hill || (f.HeldUp, f.HeldDown) == (null, null)) return null;
        var at = $"{Figure.Of(hill)} %, {Figure.Of(onHill!.Value.Newtons, 0)} N along it";
        trail.Input("Hill", $"{at}; nose up {Word(f.HeldUp)}, nose down {Word(f.HeldDown)}");
        if (f.HeldUp == false || f.HeldDown == false)
            return new(HillName, Verdict.Outside, $"It does not hold on {at}, nose {(f.HeldUp == false ? "up" : "down")}.",
                "Adjustment first, then lining and drum or pads, then what moves them: back to the corner.");
        if (f.HeldUp is null || f.HeldDown is null) return new(HillName, Verdict.NotYetEnough,
            $"It held one way on {at}: both ways are asked for.", null);
        return new(HillName, Verdict.Inside,
            $"It held both ways on {at}{(hill < grade ? $"; the type's rule asks for {Figure.Of(grade)} %, laden" : "")}.", null);
    }

    private static (double? Ratio, double? Apart) Roller(ParkingHoldFacts f)
    {
        if (f.Left is not { } left || f.Right is not { } right) return (null, null);
        var strong = Math.Max(left.Newtons, right.Newtons);
        return ((left.Newtons + right.Newtons) / (f.MaximumMass.Kilograms * Gravity) * 100, strong > 0
            ? (strong - Math.Min(left.Newtons, right.Newtons)) / strong * 100 : 0);
    }

    private static HoldProof? Ratio(ParkingHoldFacts f, double? ratio, Trail trail)
    {
        if (ratio is not { } percent) return null;
        double l = f.Left!.Value.Newtons, r = f.Right!.Value.Newtons, weight = f.MaximumMass.Kilograms * Gravity;
        var guard = LimitJudgement.GuardFactor * RollerError / Math.Sqrt(3) * Math.Sqrt(l * l + r * r) / weight * 100;
        trail.Formula("Ratio", "(left + right) / (m g)", $"({Figure.Of(l)} + {Figure.Of(r)}) / {Figure.Of(weight, 0)}",
            $"{Figure.Of(percent, 1)} %", "periodic-16")
            .Default("Doubt of a roller bench", "3 % of each reading", "practice-roller")
            .Formula("Safety margin", "1.645 u", "from both wheels", $"{Figure.Of(guard, 2)} %", "iso-14253-1");
        var verdict = Verdicts.Of(percent - LeastRatio, guard);
        return new(RatioName, verdict,
            $"{Figure.Of(percent, 1)} % of the weight of the maximum mass, at least {Figure.Of(LeastRatio)} % is asked: {verdict.Words()}.",
            verdict == Verdict.Inside ? null : "Adjustment, linings, cable or actuator of both sides.");
    }

    private static HoldProof? Sides(ParkingHoldFacts f, double? apart, Trail trail)
    {
        if (apart is not { } percent) return null;
        var limit = f.SidesPercent ?? DefaultSides;
        if (f.SidesPercent is null) trail.Default("Left against right", $"{Figure.Of(DefaultSides)} %", "practice-roller");
        // Of the weaker by the stronger, each with its own doubt.
        var share = 1 - percent / 100;
        var guard = LimitJudgement.GuardFactor * RollerError / Math.Sqrt(3) * Math.Sqrt(2) * share * 100;
        var verdict = Verdicts.Of(limit - percent, guard);
        trail.Formula("Left against right", "(stronger - weaker) / stronger", "", $"{Figure.Of(percent, 1)} %", "geometry");
        var weak = f.Left < f.Right ? "left" : "right";
        return new("Roller bench, left against right", verdict,
            $"The {weak} wheel is {Figure.Of(percent, 1)} % under the other, at most {Figure.Of(limit)} % is allowed: {verdict.Words()}.",
            verdict == Verdict.Inside ? null : $"The {weak} corner: adjustment, lining, lever or spindle.");
    }

    private static HoldProof? Drag(ParkingHoldFacts f, Trail trail)
    {
        if (f.LeftCelsius is not { } left || f.RightCelsius is not { } right || f.AirCelsius is not { } air) return null;
        var (apart, hot) = (Math.Abs(left - right), left > right ? "left" : "right");
        var limit = Math.Max(DragKelvin, DragShare * (Math.Max(left, right) - air));
        trail.Input("Rotors after the drive", $"left {Figure.Of(left, 0)} °C, right {Figure.Of(right, 0)} °C, air {Figure.Of(air, 0)} °C")
            .Default("A side drags", "20 K and a quarter of its rise hotter than the other", "practice-drag");
        return apart > limit
            ? new("Drag", Verdict.Outside, $"The {hot} rotor is {Figure.Of(apart, 0)} K hotter than the other: it drags.",
                $"The {hot} corner: lever on its stop or spindle back, piston, pins, hose.")
            : new("Drag", Verdict.Inside, $"The rotors are {Figure.Of(apart, 0)} K apart: even.", null);
    }

    private static string Word(bool? held) => held switch { true => "held", false => "did not hold", null => "not tried" };

    private static void Check(ParkingHoldFacts f)
    {
        var checks = new Checks().Range("maximumMassKg", f.MaximumMass.Kilograms, 300, 12_000, "kg")
            .Range("hillPercent", f.HillPercent, 1, 40, "%").Range("massOnHillKg", f.MassOnHill?.Kilograms, 300, 12_000, "kg")
            .Range("leftN", f.Left?.Newtons, 0, 50_000, "N").Range("rightN", f.Right?.Newtons, 0, 50_000, "N")
            .Range("sidesPercent", f.SidesPercent, 5, 60, "%")
            .Range("leftCelsius", f.LeftCelsius, -30, 700, "°C").Range("rightCelsius", f.RightCelsius, -30, 700, "°C")
            .Range("airCelsius", f.AirCelsius, -30, 50, "°C");
        if (f.Left is null != f.Right is null) checks.Add(f.Left is null ? "leftN" : "rightN", "nothing", "0 to 50000 N",
            "A roller bench gives both wheels: the other force is wanted too.");
        if (f.LeftCelsius is null != f.RightCelsius is null) checks.Add(f.LeftCelsius is null ? "leftCelsius" : "rightCelsius", "nothing",
            "-30 to 700 °C", "Both rotors are read, or neither.");
        if (f.LeftCelsius is not null && f.AirCelsius is null) checks.Add("airCelsius", "nothing", "-30 to 50 °C",
            "Beside the rotors the air's temperature is wanted.");
        if ((f.HeldUp ?? f.HeldDown) is not null && f.HillPercent is null) checks.Add("hillPercent", "nothing", "1 to 40 %",
            "The hill's grade is wanted.");
        checks.ThrowIfAny();
    }
}

using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Hydraulics;

/// <summary>What the strokes are predicted from.</summary>
/// <param name="MasterDiameter">Master cylinder bore, 10 to 50 mm.</param>
/// <param name="MasterStroke">Full stroke of its piston, per chamber, 5 to 60 mm.</param>
/// <param name="Split">How the circuits are split.</param>
/// <param name="Rule">Half strokes or full ones.</param>
/// <param name="Corners">Corners whose pistons went back.</param>
/// <param name="Simulated">True when the pedal's feel is simulated.</param>
/// <param name="Counted">Strokes made so far, 0 to 500; null before the first.</param>
/// <param name="Firm">True once the pedal is firm and high.</param>
public sealed record StrokesInput(Length MasterDiameter, Length MasterStroke, CircuitSplit Split, PumpRule Rule, IReadOnlyList<CornerFluid> Corners, bool Simulated, int? Counted, bool Firm);

/// <summary>How the count stands against the prediction.</summary>
public enum StrokesVerdict
{
    /// <summary>Nothing counted yet.</summary>
    Predicted,
    /// <summary>Go on.</summary>
    GoOn,
    /// <summary>Firm, as predicted.</summary>
    Firm,
    /// <summary>Firm, and late: worth a look.</summary>
    FirmLate,
    /// <summary>Still not firm after far more than predicted.</summary>
    NotFirm,
    /// <summary>Does not apply: the pedal's feel is simulated.</summary>
    MakersRoutine,
}

/// <summary>Strokes until the pedal is firm.</summary>
/// <param name="Gap">The largest gap of one circuit.</param>
/// <param name="Expected">Strokes expected; null when the pedal is simulated.</param>
/// <param name="AdvisoryAfter">Strokes after which a soft pedal means something else, 2 N + 5; null when the pedal is simulated.</param>
/// <param name="Verdict">How the count stands.</param>
/// <param name="Says">In words.</param>
/// <param name="Reasons">Why.</param>
public sealed record StrokesAnswer(Volume Gap, int? Expected, int? AdvisoryAfter, StrokesVerdict Verdict, string Says, Reasons Reasons) : IReasoned;

/// <summary>Predicts the strokes that bring the pistons up, and judges the count.</summary>
[Engine]
public static class PedalStrokes
{
    /// <summary>N = ceil(gap / (A × stroke × fraction)), A = (pi/4) d² of the master cylinder, the gap that of the fuller circuit, fraction 0.5 for half strokes. Advisory when it is not firm after 2 N + 5.</summary>
    /// <exception cref="InputException">Naming each figure outside its range.</exception>
    public static StrokesAnswer Predict(StrokesInput input)
    {
        ArgumentNullException.ThrowIfNull(input);
        var checks = new Checks().Millimetres("masterDiameterMm", input.MasterDiameter, 10, 50).Millimetres("masterStrokeMm", input.MasterStroke, 5, 60).Range("counted", input.Counted, 0, 500, "strokes");
        CornerFluid.CheckInto(checks, input.Corners);
        checks.ThrowIfAny();
        var trail = new Trail("PedalStrokes.Predict");
        var gaps = input.Corners.Select(c => c.Gap.Milliliters).ToArray();
        // A circuit split across the car serves one rear corner each: the larger gap decides.
        var gap = Volume.FromMilliliters(input.Split == CircuitSplit.Diagonal ? gaps.DefaultIfEmpty(0).Max() : gaps.Sum());
        foreach (var c in input.Corners)
            trail.Formula($"Gap, {c.Side.Word()}", "sum of (pi/4) d² × (travel - need + margin)", $"{string.Join(" + ", c.Bores.Select(b => Figure.Of(b.Millimeters) + "²"))}, × 0.7854 × ({Figure.Of(c.Travel.Millimeters)} - {Figure.Of(c.Need.Millimeters)} + {Figure.Of((c.Margin ?? Retraction.HowFar.DefaultMargin).Millimeters)})", DisplacedFluid.Words(c.Gap), "geometry");
        if (input.Simulated)
        {
            const string routine = "The pedal's feel is simulated: it is firm with nothing behind it. The maker's routine proves the brakes, or the job holds.";
            return new(gap, null, null, StrokesVerdict.MakersRoutine, routine, trail.Conclude(routine, "practice-strokes").Done());
        }

        var area = Math.PI / 4 * Math.Pow(input.MasterDiameter.Millimeters, 2);
        var fraction = input.Rule == PumpRule.HalfStrokes ? 0.5 : 1;
        var each = area * input.MasterStroke.Millimeters * fraction / 1000;
        // A millionth of a stroke is rounding, not another stroke.
        var n = Math.Max((int)Math.Ceiling(gap.Milliliters / each - 1e-6), gap.Milliliters > 0 ? 1 : 0);
        var late = 2 * n + 5;
        trail.Input("Circuits", input.Split == CircuitSplit.Diagonal ? "one rear brake each: the larger gap" : "both rear brakes on one: the sum")
            .Formula("A stroke moves", "(pi/4) d² × stroke × fraction", $"0.7854 × {Figure.Of(input.MasterDiameter.Millimeters)}² × {Figure.Of(input.MasterStroke.Millimeters)} × {Figure.Of(fraction)}", $"{Figure.Of(each, 2)} mL", "geometry")
            .Formula("Strokes", "ceil(gap / a stroke)", $"ceil({Figure.Of(gap.Milliliters, 2)} / {Figure.Of(each, 2)})", Figure.Of(n), "practice-strokes")
            .Formula("Advisory after", "2 N + 5", $"2 × {n} + 5", Figure.Of(late), "practice-strokes");
        var kind = input.Rule == PumpRule.HalfStrokes ? "slow half stroke" : "full stroke";
        var verdict = input.Counted is not { } counted ? StrokesVerdict.Predicted
            : input.Firm ? counted > late ? StrokesVerdict.FirmLate : StrokesVerdict.Firm
            : counted > late ? StrokesVerdict.NotFirm : StrokesVerdict.GoOn;
        var says = verdict switch
        {
            StrokesVerdict.Predicted => $"About {Figure.Count(n, kind)} until it is firm.",
            StrokesVerdict.GoOn => $"{input.Counted} made of about {n}: go on, slowly.",
            StrokesVerdict.Firm => $"Firm after {input.Counted}, about {n} expected.",
            StrokesVerdict.FirmLate => $"Firm only after {input.Counted}, where about {n} {(n == 1 ? "was" : "were")} expected: look for a leak, and bleed if it goes soft again.",
            _ => $"Still not firm after {input.Counted}, where about {n} {(n == 1 ? "was" : "were")} expected: air, a leak, or a piston that went back too far. Stop pumping and look.",
        };
        return new(gap, n, late, verdict, says, trail.Conclude(says).WouldChange("A pedal that goes firm.").Done());
    }
}

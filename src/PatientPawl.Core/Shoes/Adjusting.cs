using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Shoes;

/// <summary>How far to back off so that the ridge of a worn drum clears the shoes.</summary>
/// <param name="Clicks">Whole clicks back, 0 or more.</param>
/// <param name="FromLock">True when they count from lock, because the clearance is not known with the rotor on.</param>
/// <param name="Says">In words.</param>
/// <param name="Reasons">Why.</param>
public sealed record RidgeVerdict(int Clicks, bool FromLock, string Says, Reasons Reasons) : IReasoned;

/// <summary>Works out the clicks back before a ridged drum comes off.</summary>
[Engine]
public static class RidgeBackOff
{
    /// <summary>Margin over the ridge when none is given: 0.2 mm of diameter (flagged).</summary>
    public static Length DefaultMargin { get; } = Length.FromMillimeters(0.2);

    /// <summary>
    /// ceil((2 × ridge + margin - clearance) / per click), at least 0. With the rotor still on the clearance is not known: count back from
    /// lock, where it is 0, and add the one click of preload.
    /// </summary>
    /// <param name="ridge">Height of the ridge, radial, 0 to 5 mm.</param>
    /// <param name="clearance">Diametral clearance, 0 to 20 mm; null when not known.</param>
    /// <param name="perClick">Diametral clearance a click, 0.001 to 1 mm.</param>
    /// <param name="margin">0 to 2 mm of diameter; null uses the flagged default.</param>
    /// <exception cref="InputException">A figure that cannot be.</exception>
    public static RidgeVerdict Compute(Length ridge, Length? clearance, Length perClick, Length? margin)
    {
        new Checks().Millimetres("ridgeMm", ridge, 0, 5).Millimetres("clearanceMm", clearance, 0, 20).Millimetres("perClickMm", perClick, 0.001, 1).Millimetres("marginMm", margin, 0, 2).ThrowIfAny();
        var over = (margin ?? DefaultMargin).Millimeters;
        var known = clearance?.Millimeters ?? 0;
        var raw = (2 * ridge.Millimeters + over - known) / perClick.Millimeters;
        // Whole numbers within a billionth count as whole.
        var clicks = Math.Max(0, (int)Math.Ceiling(raw - 1e-9)) + (clearance is null ? 1 : 0);
        var says = clicks == 0 ? "The ridge clears the shoes as they stand." : $"{clicks} {(clicks == 1 ? "click" : "clicks")} back{(clearance is null ? " from lock" : "")} before the rotor comes off.";
        var trail = new Trail("RidgeBackOff.Compute").Input("Ridge, radial", $"{Figure.Of(ridge.Millimeters)} mm");
        _ = margin is null ? trail.Default("Margin", $"{Figure.Of(over)} mm of diameter", "practice-ridge") : trail.Input("Margin", $"{Figure.Of(over)} mm of diameter");
        if (clearance is null) trail.Default("Clearance", "not known with the rotor on: 0 at lock, and 1 click of preload", "practice-lock");
        return new(clicks, clearance is null, says, trail
            .Formula("Clicks back", "ceil((2 × ridge + margin - clearance) / a click)", $"(2 × {Figure.Of(ridge.Millimeters)} + {Figure.Of(over)} - {Figure.Of(known)}) / {Figure.Of(perClick.Millimeters, 4)} = {Figure.Of(raw, 2)}", clicks.ToString(), "geometry")
            .Conclude(says).WouldChange("The ridge measured, or the clearance known.").Done());
    }
}

/// <summary>Left and right compared after setting.</summary>
/// <param name="Difference">Left minus right, of diameter.</param>
/// <param name="Allowed">The larger of two clicks' worth and 1.645 u of the difference.</param>
/// <param name="Alike">True when they are.</param>
/// <param name="Says">In words.</param>
/// <param name="Reasons">Why.</param>
public sealed record SidesVerdict(Length Difference, Length Allowed, bool Alike, string Says, Reasons Reasons) : IReasoned;

/// <summary>Compares the two sides of the axle.</summary>
[Engine]
public static class SidesCompared
{
    /// <summary>Final clearances lie within the larger of two clicks' worth and 1.645 u of their difference; else the parking brake pulls to one side and someone says why.</summary>
    public static SidesVerdict Judge(ClearanceVerdict left, ClearanceVerdict right)
    {
        ArgumentNullException.ThrowIfNull(left);
        ArgumentNullException.ThrowIfNull(right);
        var difference = left.Clearance.Millimeters - right.Clearance.Millimeters;
        var u = Math.Sqrt(Math.Pow(left.Doubt.Millimeters, 2) + Math.Pow(right.Doubt.Millimeters, 2));
        var clicks = 2 * Math.Max(left.PerClick.Millimeters, right.PerClick.Millimeters);
        var allowed = Math.Max(clicks, LimitJudgement.GuardFactor * u);
        var alike = Math.Abs(difference) <= allowed + 1e-9;
        var says = alike ? "Left and right are alike." : $"The {(difference > 0 ? "left" : "right")} side stands {Figure.Of(Math.Abs(difference))} mm looser: set it again, or say why.";
        return new(Length.FromMillimeters(difference), Length.FromMillimeters(allowed), alike, says, new Trail("SidesCompared.Judge")
            .Formula("Difference", "left - right", $"{Figure.Of(left.Clearance.Millimeters)} - {Figure.Of(right.Clearance.Millimeters)}", $"{Figure.Of(difference)} mm", "geometry")
            .Formula("Allowed", "the larger of 2 clicks and 1.645 u", $"{Figure.Of(clicks)}, 1.645 × {Figure.Of(u, 4)}", $"{Figure.Of(allowed)} mm", "iso-14253-1")
            .Conclude(says).WouldChange("A click more or less on one side.").Done());
    }
}

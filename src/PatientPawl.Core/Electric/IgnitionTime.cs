using UnitsNet;

namespace PatientPawl.Core.Electric;

/// <summary>How long a battery carries the ignition with no charger on it.</summary>
/// <param name="Lasts">Time until it shows the floor under load, 0 where it is there already; null where what was read is no voltage at rest.</param>
/// <param name="Says">In a sentence.</param>
internal sealed record IgnitionTimeResult(Duration? Lasts, string Says);

/// <summary>
/// How long the ignition may stay on if the charger falls out. The voltage at rest tells the charge, the ignition's current takes it away, and
/// the end is the floor that a tool asks for, read while the current flows. Figures of a small lead battery: default <c>practice-battery</c>.
/// </summary>
internal static class IgnitionTime
{
    private const double CapacityAh = 45;
    private const double CurrentA = 8;
    private const double ResistanceOhm = 0.03;

    // At rest 12.0 V is a fifth of the charge and 12.7 V is all of it, with a straight line between.
    private const double LowVolts = 12.0;
    private const double LowShare = 0.2;
    private const double FullVolts = 12.7;

    // More than this is read only with a charger on, or just after one.
    private const double MostAtRest = 12.9;

    /// <summary>The time from a voltage read at rest.</summary>
    /// <param name="atRest">The voltage, before the charger; from 6 to 18 V.</param>
    /// <param name="floor">The least that the routine asks for, from 9 to 16 V.</param>
    public static IgnitionTimeResult From(ElectricPotential atRest, ElectricPotential floor)
    {
        if (atRest.Volts > MostAtRest) return new(null, $"How long the battery would carry it is not known: {Figure.Fixed(atRest.Volts, 1)} V was not read at rest.");
        var left = Share(Math.Min(atRest.Volts, FullVolts)) - Math.Max(Share(floor.Volts + CurrentA * ResistanceOhm), 0);
        var minutes = Math.Max(left, 0) * CapacityAh / CurrentA * 60;
        return new(Duration.FromMinutes(minutes), minutes < 1
            ? $"Without its charger a battery as low as this carries it no time: {Figure.Fixed(floor.Volts, 1)} V is reached at once."
            : $"If the charger falls out, a battery of {Figure.Of(CapacityAh)} A h as full as this carries it about {Figure.Of(minutes, 0)} minutes to {Figure.Fixed(floor.Volts, 1)} V.");
    }

    private static double Share(double volts) => LowShare + (volts - LowVolts) / (FullVolts - LowVolts) * (1 - LowShare);
}

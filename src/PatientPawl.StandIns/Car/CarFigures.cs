namespace PatientPawl.StandIns.Car;

/// <summary>
/// A motor with its gears, its spindle and what the spindle presses on, in SI units. The numbers are invented and plausible; a published motor or
/// caliper stands behind none of them.
/// </summary>
public sealed record DriveFigures
{
    /// <summary>Resistance of the motor, ohm.</summary>
    public double ResistanceOhm { get; init; } = 0.45;

    /// <summary>Resistance of the harness to it, ohm.</summary>
    public double HarnessOhm { get; init; } = 0.12;

    /// <summary>Inductance of the motor, H; 0 leaves it out.</summary>
    public double InductanceHenry { get; init; } = 0.3e-3;

    /// <summary>Torque a current, N m/A, and volts a speed, V s/rad: the same number.</summary>
    public double TorqueConstant { get; init; } = 0.012;

    /// <summary>Inertia of everything that turns, seen from the motor, kg m².</summary>
    public double Inertia { get; init; } = 5e-6;

    /// <summary>Dry friction, seen from the motor, N m.</summary>
    public double FrictionNm { get; init; } = 0.022;

    /// <summary>Gear ratio from the motor to the spindle.</summary>
    public double GearRatio { get; init; } = 150;

    /// <summary>Efficiency of the whole train; under 0.5 it locks itself.</summary>
    public double Efficiency { get; init; } = 0.30;

    /// <summary>Lead of the spindle, m a turn.</summary>
    public double LeadMetres { get; init; } = 1.8e-3;

    /// <summary>Stiffness of what it presses together, N/m.</summary>
    public double Stiffness { get; init; } = 2.2e7;

    /// <summary>Force that drags an unpumped piston and its caliper along, N.</summary>
    public double DragNewton { get; init; } = 300;

    /// <summary>How far the spindle can go from its back stop, m.</summary>
    public double RangeMetres { get; init; } = 22e-3;

    /// <summary>Current at which the unit ends an apply, A.</summary>
    public double CutOffAmps { get; init; } = 14;

    /// <summary>Current at which the unit takes the back stop as reached, A.</summary>
    public double BackStopAmps { get; init; } = 6;

    /// <summary>How far past contact a normal release stops, m.</summary>
    public double ReleaseGapMetres { get; init; } = 0.8e-3;

    /// <summary>Travel of the nut for each radian of the motor, m.</summary>
    public double MetresPerRadian => LeadMetres / (2 * Math.PI * GearRatio);

    /// <summary>How far it presses together what it clamps until the cut-off ends it, without inertia, m.</summary>
    public double SqueezedMetres => (TorqueConstant * CutOffAmps - FrictionNm) * Efficiency / MetresPerRadian / Stiffness;

    /// <summary>A motor that pulls both cables: fewer gears for its longer way, and cables in place of pads.</summary>
    public static DriveFigures Puller { get; } = new() { GearRatio = 40, LeadMetres = 2.5e-3, Stiffness = 120e3, CutOffAmps = 9, DragNewton = 0, RangeMetres = 60e-3, ReleaseGapMetres = 4e-3 };

    /// <summary>A motor on the backing plate that spreads shoes.</summary>
    public static DriveFigures Plate { get; } = new() { Stiffness = 4e6, DragNewton = 0, ReleaseGapMetres = 1.2e-3 };
}

/// <summary>What a stand-in car has for a rear brake.</summary>
public enum CarVariant
{
    /// <summary>A motor on each caliper whose piston is pushed back.</summary>
    MotorPush,
    /// <summary>A motor on each caliper whose piston is turned back.</summary>
    MotorTurn,
    /// <summary>One motor that pulls the cables of two calipers.</summary>
    PullerCaliper,
    /// <summary>One motor that pulls the cables of shoes in the hats.</summary>
    PullerHat,
    /// <summary>A motor on each backing plate that spreads shoes in the hat.</summary>
    MotorPlate,
}

/// <summary>A battery and what draws on it. The numbers are invented and plausible.</summary>
public sealed record BatteryFigures
{
    /// <summary>Capacity, A h.</summary>
    public double CapacityAh { get; init; } = 45;

    /// <summary>Internal resistance, ohm.</summary>
    public double InternalOhm { get; init; } = 0.03;

    /// <summary>What the ignition draws, A.</summary>
    public double IgnitionAmps { get; init; } = 8;

    /// <summary>What a sleeping car draws, A.</summary>
    public double SleepingAmps { get; init; } = 0.03;

    /// <summary>What a charger holds, V.</summary>
    public double ChargerVolts { get; init; } = 13.4;
}

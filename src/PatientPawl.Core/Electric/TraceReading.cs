using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Electric;

/// <summary>A motor, its gears and its spindle, as the maker or the sheet gives them.</summary>
/// <param name="Supply">Voltage with nothing drawn, 6 to 16 V.</param>
/// <param name="Resistance">From the battery through the motor, 0.05 to 10 ohm.</param>
/// <param name="TorqueConstant">N m/A, the same number as V s/rad; 0.001 to 1.</param>
/// <param name="GearRatio">From motor to spindle, 1 to 2000.</param>
/// <param name="Lead">Of the spindle, 0.3 to 10 mm a turn.</param>
/// <param name="Efficiency">Of the whole train, 0.05 to 0.95; null takes the flagged default.</param>
/// <param name="CutOff">Current at which the unit ends an apply, 1 to 60 A; null when not known.</param>
public sealed record MotorConstants(
    ElectricPotential Supply,
    ElectricResistance Resistance,
    double TorqueConstant,
    double GearRatio,
    Length Lead,
    double? Efficiency = null,
    ElectricCurrent? CutOff = null)
{
    /// <summary>Refuses figures no motor has.</summary>
    /// <exception cref="InputException">Naming each field, value and range.</exception>
    public MotorConstants Checked()
    {
        new Checks()
            .Range("motor.supplyV", Supply.Volts, 6, 16, "V")
            .Range("motor.resistanceOhm", Resistance.Ohms, 0.05, 10, "ohm")
            .Range("motor.torqueConstant", TorqueConstant, 0.001, 1, "N m/A")
            .Range("motor.gearRatio", GearRatio, 1, 2000, "")
            .Millimetres("motor.leadMm", Lead, 0.3, 10)
            .Range("motor.efficiency", Efficiency, 0.05, 0.95, "")
            .Range("motor.cutOffA", CutOff?.Amperes, 1, 60, "A")
            .ThrowIfAny();
        return this;
    }

    /// <summary>Travel of the nut for each radian of the motor: lead/(2 pi G), m.</summary>
    internal double MetresPerRadian => Lead.Meters / (2 * Math.PI * GearRatio);
}

/// <summary>What a trace shows.</summary>
public enum TraceKind
{
    /// <summary>No current.</summary>
    NoCurrent,
    /// <summary>The inrush stays: nothing turns.</summary>
    Seized,
    /// <summary>It runs and meets nothing.</summary>
    NothingToClamp,
    /// <summary>It runs, meets its pads and clamps.</summary>
    Clamps,
    /// <summary>It clamps after a short run: a later apply.</summary>
    LaterApply,
    /// <summary>It runs with too much current.</summary>
    RunsHeavy,
    /// <summary>It drags a piston along before it clamps.</summary>
    DragsPiston,
    /// <summary>It clamps and does not reach its end.</summary>
    WeakSupply,
    /// <summary>It lets go.</summary>
    Releases,
    /// <summary>It goes back to its stop.</summary>
    IntoService,
}

/// <summary>A current trace, read.</summary>
/// <param name="Kind">What it shows.</param>
/// <param name="Name">In a few words.</param>
/// <param name="Says">What it means, with its figures.</param>
/// <param name="Do">What to do about it; empty where there is nothing.</param>
/// <param name="Start">When the current starts; null where none flows.</param>
/// <param name="Inrush">Its first peak.</param>
/// <param name="Free">Current of the free run.</param>
/// <param name="FreeDoubt">Its doubt, 95 %.</param>
/// <param name="Contact">From the start to the knee.</param>
/// <param name="ContactDoubt">Its doubt, 95 %.</param>
/// <param name="Travel">What the nut travels until then; null without the motor's constants.</param>
/// <param name="TravelDoubt">Its doubt.</param>
/// <param name="Rise">How fast the current rises after contact.</param>
/// <param name="End">Current at its end.</param>
/// <param name="Ended">From the start to its end.</param>
/// <param name="Clamp">Clamping force; null without the motor's constants or without a clamp.</param>
/// <param name="ClampDoubt">Its doubt.</param>
/// <param name="Strokes">Strokes in the trace.</param>
/// <param name="Notes">How it was read: zero, sign, what is cut.</param>
/// <param name="Reasons">Why.</param>
public sealed record TraceReading(
    TraceKind Kind,
    string Name,
    string Says,
    string Do,
    Duration? Start,
    ElectricCurrent? Inrush,
    ElectricCurrent? Free,
    ElectricCurrent? FreeDoubt,
    Duration? Contact,
    Duration? ContactDoubt,
    Length? Travel,
    Length? TravelDoubt,
    ElectricCurrentGradient? Rise,
    ElectricCurrent? End,
    Duration? Ended,
    Force? Clamp,
    Force? ClampDoubt,
    int Strokes,
    IReadOnlyList<string> Notes,
    Reasons Reasons) : IReasoned;

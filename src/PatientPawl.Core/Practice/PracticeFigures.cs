using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Torque;

namespace PatientPawl.Core.Practice;

/// <summary>Figures of the car that is not there. All are ours: they are plausible, and no real part promises them.</summary>
internal static class PracticeFigures
{
    /// <summary>What a charger holds, V.</summary>
    public const double ChargerVolts = 13.4;

    /// <summary>Time constant of a drum in its hat that cools in still air, minutes.</summary>
    public const double CoolsInMinutes = 45;

    /// <summary>How far a piston stands proud at home where the sheet is silent, mm.</summary>
    public const double HomeMm = 1.5;

    /// <summary>A bolt that was pulled to less than this share of its figure comes loose on the road.</summary>
    public const double LooseBelow = 0.6;

    /// <summary>More than this share of the figure is too tight.</summary>
    public const double TightAbove = 1.12;

    /// <summary>Lining of parking shoes, mm.</summary>
    public const double ShoeLiningMm = 3.2;

    /// <summary>How much less the shoes measure across than their drum, mm.</summary>
    public const double ShoesClearMm = 0.9;

    /// <summary>How far a rotor runs out to either side, mm.</summary>
    public const double RunoutMm = 0.02;

    /// <summary>Linear expansion of cast iron, per kelvin (common engineering tables, from memory).</summary>
    public const double IronPerKelvin = 11e-6;
}

/// <summary>
/// How much torque a bolt takes: T = K d F with K = 0.2 (dry, common practice), F from stress area, proof stress and nominal tensile strength of ISO 898-1
/// (from memory). The car that is not there breaks bolts by it.
/// </summary>
/// <param name="StretchesAt">Torque at proof load, N m.</param>
/// <param name="BreaksAt">Torque at the nominal tensile strength, N m.</param>
internal sealed record BoltStrength(double StretchesAt, double BreaksAt)
{
    private const double NutFactor = 0.2;

    /// <summary>Strength of a fastener line; null where its thread or class is not known.</summary>
    public static BoltStrength? Of(TorqueLine line)
    {
        if (line is not { ThreadDiameter: { } d, ThreadPitch: { } p } || TorqueSetting.ProofStressMPa(line.Class, d.Millimeters) is not { } proof
            || TensileMPa(line.Class) is not { } tensile) return null;
        var area = TorqueSetting.StressAreaMm2(d.Millimeters, p.Millimeters);
        double Torque(double megapascals) => NutFactor * d.Meters * megapascals * area;
        return new(Torque(proof), Torque(tensile));
    }

    private static double? TensileMPa(PropertyClass of) => of switch
    {
        PropertyClass.C48 => 400,
        PropertyClass.C58 => 500,
        PropertyClass.C88 => 800,
        PropertyClass.C98 => 900,
        PropertyClass.C109 => 1040,
        PropertyClass.C129 => 1220,
        _ => null,
    };
}

/// <summary>What tells of a fault, and what comes of one that nobody told of.</summary>
internal static class PracticeFaults
{
    /// <summary>True for what has to be found: notches in a motor's piston are only there to mislead.</summary>
    public static bool ToBeFound(CornerFault fault) => fault is not (CornerFault.NotchedFace or CornerFault.BootSticks);

    /// <summary>Faults that a report tells of.</summary>
    public static IEnumerable<CornerFault> Of(FindingKind kind) => kind switch
    {
        FindingKind.StuckPiston => [CornerFault.PistonStuck, CornerFault.BootTorn],
        FindingKind.FrozenPads or FindingKind.PadTight => [CornerFault.PadsFrozen],
        FindingKind.SeizedPin or FindingKind.PinWorn => [CornerFault.PinSeized],
        FindingKind.HoseUnsound => [CornerFault.HoseCollapsed],
        FindingKind.BrokenScrew or FindingKind.ScrewCameBroken or FindingKind.ScrewRounded => [CornerFault.ScrewBroken],
        FindingKind.WrongPart or FindingKind.PartMissing => [CornerFault.WrongPart],
        FindingKind.NoSensor => [CornerFault.SensorMissing],
        _ => [],
    };

    /// <summary>Faults that a stop sign tells of.</summary>
    public static IEnumerable<CornerFault> Of(StopSign sign) => sign switch
    {
        StopSign.StopsShort => [CornerFault.PistonStuck],
        StopSign.SpringsBack => [CornerFault.HoseCollapsed],
        StopSign.BootTwists => [CornerFault.BootTorn],
        _ => [],
    };

    /// <summary>Faults that an outcome of a step tells of.</summary>
    public static IEnumerable<CornerFault> Of(string stepId, string? outcome) => (stepId, outcome) switch
    {
        (_, null) => [],
        ("piston-home" or "piston-tried" or "piston-judged", "seized" or "short" or "stuck") => [CornerFault.PistonStuck],
        ("screws-cracked-brake" or "screws-cracked-bar", "broke") => [CornerFault.ScrewBroken],
        ("hose-looked", _) => [CornerFault.HoseCollapsed],
        _ => [],
    };

    /// <summary>The trap that a fault sets.</summary>
    public static TrapId TrapOf(CornerFault fault) => fault switch
    {
        CornerFault.NotchedFace => TrapId.NotchedMotor,
        CornerFault.PistonStuck => TrapId.StuckForced,
        CornerFault.BootSticks or CornerFault.BootTorn => TrapId.TornBoot,
        CornerFault.PadsFrozen or CornerFault.PinSeized => TrapId.PadsOrPins,
        CornerFault.HoseCollapsed => TrapId.CollapsedHose,
        CornerFault.ScrewBroken => TrapId.BrokenScrew,
        CornerFault.WrongPart => TrapId.WrongPart,
        _ => TrapId.SensorOneSide,
    };

    /// <summary>Whom it hurts when it leaves with the car.</summary>
    public static HarmTo Harms(CornerFault fault) => fault is CornerFault.HoseCollapsed or CornerFault.PistonStuck or CornerFault.BootTorn
        ? HarmTo.Car : HarmTo.Part;

    /// <summary>What comes of it when nobody told.</summary>
    public static string Missed(CornerFault fault) => fault switch
    {
        CornerFault.PistonStuck => "the piston is stuck: this side does not brake, and nobody wrote it down.",
        CornerFault.BootTorn => "the boot is torn: the piston seizes within a winter.",
        CornerFault.PadsFrozen => "the pads were rusted in: the new ones will drag on the same rust.",
        CornerFault.PinSeized => "a slide pin is seized: only the inner pad brakes, and is gone in months.",
        CornerFault.HoseCollapsed => "the hose keeps its fluid: this brake stays on after the first hard stop.",
        CornerFault.ScrewBroken => "the rotor screw is broken off, and nobody wrote it down.",
        CornerFault.WrongPart => "the new pads are another shape than the old ones.",
        CornerFault.SensorMissing => "the wear sensor is gone from this side: the lamp will stay on.",
        _ => "nobody told of it.",
    };
}

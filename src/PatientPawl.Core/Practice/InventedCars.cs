using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using UnitsNet;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Core.Practice;

/// <summary>Spec sheets and vehicles that are nobody's: made up for practice and for the demo. No figure of theirs serves a real car.</summary>
public static class InventedCars
{
    /// <summary>The sheets.</summary>
    public static IReadOnlyList<SpecSheet> Sheets { get; } =
    [
        new("CT-1", "Brae small cars, cable caliper", "Brae workshop leaflet 14 (invented)", Architecture.CableScrew,
            new(Mm(38), 1, Mm(0.8), Mm(1.5), TurnDirection.Clockwise, TurnDirection.Clockwise, false, 4),
            new(Mm(15), Mm(15), Mm(5.5), Mm(2)), new(Mm(10), Mm(8), true, false), new(Volume.FromMilliliters(75), Volume.FromMilliliters(60)), null,
            [Line(FastenerRole.SlidePin, 2, 8, 1.25, "hex 13", 31, null, true, true, true) with { PartNumber = "BR 31-08" }, Line(FastenerRole.Bracket, 2, 12, 1.5, "hex 17", 88, null, false, true, false),
                Line(FastenerRole.RotorScrew, 1, 6, 1, "Torx T30", 8, null, false, true, false), Line(FastenerRole.Banjo, 1, 10, 1, "hex 14", 30, null, false, true, false), Line(FastenerRole.BleedScrew, 1, 10, 1, "hex 11", 11, null, false, true, false), Line(FastenerRole.Wheel, 4, 12, 1.5, "hex 19", 110, null, false, true, false)], Fittings: [Fitting.PinCaps, Fitting.WearSensor], Hydraulics: new(FluidGrade.Dot4, Mm(20.6), Mm(16), CircuitSplit.Diagonal, "rear right, front left, rear left, front right"))
            {
                PadSet = new(PadEnd.Leading, Pin: Known.Yes, SpringClip: Known.No, Notch: Known.Yes),
            },
        new("BT-3", "Brae minibuses, motor caliper", "Brae workshop leaflet 31 (invented)", Architecture.MotorPush,
            new(Mm(43), 1, null, Mm(2), null, null, false, 2),
            new(Mm(16.5), Mm(16.5), Mm(6), null), new(Mm(12), Mm(10), true, false), new(Volume.FromMilliliters(110), Volume.FromMilliliters(70)),
            new(false, ElectricPotential.FromVolts(12.2), "Torx T30",
                [new("Ignition on, engine off, foot on the pedal", 0), new("Hold the switch down", 5), new("Let go, then lift it", 2), new("Wait until the display says SERVICE", 20)],
                [new("Ignition on, foot on the pedal", 0), new("Lift the switch and hold it", 5), new("Wait until the lamp is on and still", 15)]),
            [Line(FastenerRole.SlidePin, 2, 8, 1.25, "hex 13", 31, 35, true, true, true), Line(FastenerRole.Bracket, 2, 12, 1.5, "hex 18", 94, null, false, false, false),
                Line(FastenerRole.RotorScrew, 1, 6, 1, "Torx T30", 8, null, false, true, false), Line(FastenerRole.ActuatorScrew, 2, 6, 1, "Torx T30", 8.5, null, false, true, false),
                Line(FastenerRole.Banjo, 1, 10, 1, "hex 14", 28, null, false, true, false), Line(FastenerRole.BleedScrew, 1, 10, 1, "hex 11", 11, null, false, true, false), Line(FastenerRole.Wheel, 5, 14, 1.5, "hex 21", 160, null, false, true, false)], Fittings: [Fitting.HoseBracket], Hydraulics: new(FluidGrade.Dot51, Mm(25.4), Mm(18), CircuitSplit.ByAxle, null))
            {
                PadSet = new(PadEnd.Leading, Pin: Known.No, SpringClip: Known.Yes, Notch: Known.No),
            },
        new("NM-2", "Norrin vans and buses, motor caliper", "Norrin service sheet 7 (invented)", Architecture.MotorPush,
            new(Mm(41), 1, null, Mm(1.8), null, null, false, 4),
            new(Mm(16), Mm(16), Mm(6), Mm(2.5)), new(Mm(12), Mm(10.5), false, false), new(Volume.FromMilliliters(95), Volume.FromMilliliters(60)),
            new(false, null, "hex 12"),
            [Line(FastenerRole.SlidePin, 2, 8, 1.25, "hex 13", 28, null, true, true, true), Line(FastenerRole.Bracket, 2, 12, 1.25, "hex 18", 105, null, false, true, false),
                Line(FastenerRole.ActuatorScrew, 2, 6, 1, "Torx T30", 9, null, false, true, false), Line(FastenerRole.BleedScrew, 1, 10, 1, "hex 11", 11, null, false, true, false), Line(FastenerRole.Wheel, 5, 12, 1.5, "hex 19", 120, null, false, true, false)])
            {
                PadSet = new(PadEnd.Trailing, Pin: Known.No, SpringClip: Known.No, Notch: Known.Yes),
            },
        new("NH-5", "Norrin vans, shoes in the hat", "Norrin service sheet 22 (invented)", Architecture.HatShoes,
            new(Mm(40), 1, null, Mm(1.2), null, null, false, 0),
            new(Mm(15.5), Mm(15.5), Mm(5.5), Mm(2)), new(Mm(10), Mm(8.4), true, false, Mm(0.02), Mm(0.08)), new(Volume.FromMilliliters(90), Volume.FromMilliliters(60)), null,
            [Line(FastenerRole.SlidePin, 2, 10, 1.5, "hex 15", 36, null, false, true, false), Line(FastenerRole.Bracket, 2, 12, 1.5, "hex 18", 110, null, false, true, false),
                Line(FastenerRole.RotorScrew, 1, 6, 1, "Torx T30", 8, null, false, true, false), Line(FastenerRole.BleedScrew, 1, 10, 1, "hex 11", 11, null, false, true, false), Line(FastenerRole.Wheel, 5, 14, 1.5, "hex 19", 140, null, false, true, false)],
            Drum, [Fitting.HatPlug], new(FluidGrade.Dot4, Mm(23.8), Mm(17), CircuitSplit.ByAxle, "rear left, rear right, front left, front right"))
            {
                PadSet = new(null, Pin: Known.No, SpringClip: Known.Yes, Notch: Known.Yes),
            },
        Short("BL-6", "Brae vans, lever and push", Architecture.LeverPush, null, null),
        Short("BX-8", "Brae old estates, hex at the back", Architecture.RearHex, null, null),
        Short("NP-1", "Norrin pick-ups, cable puller", Architecture.PullerScrew, Switch, null),
        Short("ND-4", "Norrin buses, motor and turn", Architecture.MotorTurn, Switch, null),
        Short("NH-6", "Norrin coaches, puller and shoes", Architecture.PullerHat, Switch, Drum),
        Short("NH-7", "Norrin vans, motor and shoes", Architecture.MotorHat, Switch, Drum),
        Short("BF-2", "Brae coaches, fixed caliper and shoes", Architecture.FixedHat, null, Drum),
        Short("BS-9", "Brae estates, spot caliper", Architecture.SpotCaliper, null, null),
        Short("NL-3", "Norrin lorries, driveline brake", Architecture.Plain, null, null),
        Short("NE-1", "Norrin shuttle, electric corners", Architecture.ElectricOnly, Switch, null),
    ];

    /// <summary>The vehicles, each with the code of its sheet.</summary>
    public static IReadOnlyList<(Vehicle Vehicle, string Code)> Vehicles { get; } =
    [
        (new("GNT 118", "Norrin", "Coble", "meals van, van 3", null), "NH-5"),
        (new("GNT 207", "Brae", "Turnstone", "12-seat minibus, bus 7", null), "BT-3"),
        (new("GNT 164", "Brae", "Dunlin", "vet's estate car", null), "CT-1"),
        (new("GNT 301", "Norrin", "Lugger", "mobile library", null), "NM-2"),
        (new("GNT 512", "Norrin", "Whimbrel", "door-to-door bus 5", null), "NM-2"),
        (new("GNT 420", "Brae", "Sanderling", "meals car", "11111111111111111"), "CT-1"),
        (new("GNT 077", "Brae", "Avocet", "door-to-door car 2", null), "CT-1"),
        (new("GNT 233", "Brae", "Knot", "12-seat minibus, bus 9", null), "BT-3"),
        (new("GNT 140", "Norrin", "Yole", "meals van, van 1", null), "NH-5"),
        (new("GNT 251", "Brae", "Redshank", "parcels van", null), "BL-6"),
        (new("GNT 019", "Brae", "Plover", "nurse's estate car", null), "BX-8"),
        (new("GNT 266", "Norrin", "Skiff", "pier pick-up", null), "NP-1"),
        (new("GNT 340", "Norrin", "Drifter", "airfield bus", null), "ND-4"),
        (new("GNT 355", "Norrin", "Smack", "school coach", null), "NH-6"),
        (new("GNT 361", "Norrin", "Ketch", "tool van", null), "NH-7"),
        (new("GNT 372", "Brae", "Curlew", "hotel coach", null), "BF-2"),
        (new("GNT 388", "Brae", "Knot Long", "doctor's estate car", null), "BS-9"),
        (new("GNT 390", "Norrin", "Punt", "peat lorry", null), "NL-3"),
        (new("GNT 401", "Norrin", "Dory", "pier shuttle", null), "NE-1"),
    ];

    private static DrumSpec Drum => new(Mm(190), Mm(191), Mm(0.15), null, Mm(1.5), Mm(0.35), Mm(0.55), 6, Mm(80), Mm(80), Mm(1.25), 25, false);
    private static ElectricSpec Switch => new(false, null, "hex 10", [new("Ignition on, engine off", 0), new("Switch down and held", 10), new("Wait until the display says SERVICE", 15)]);

    /// <summary>A sheet that differs from its neighbours only in what the parking brake is.</summary>
    private static SpecSheet Short(string code, string title, Architecture architecture, ElectricSpec? electric, DrumSpec? drum) => new(
        code, title, "Depot copy (invented)", architecture, new(architecture == Architecture.FixedHat ? Mm(28) : Mm(40), architecture == Architecture.FixedHat ? 4 : 1, architecture is Architecture.PullerScrew or Architecture.MotorTurn or Architecture.RearHex ? Mm(0.9) : null, Mm(1.5), null, null, false, 2),
        new(Mm(15.5), Mm(15.5), Mm(5.5), Mm(2)), new(Mm(11), Mm(9), true, false), new(Volume.FromMilliliters(95), Volume.FromMilliliters(60)), electric,
        [
            Line(FastenerRole.SlidePin, 2, 8, 1.25, "hex 13", 30, null, false, true, true), Line(FastenerRole.Bracket, 2, 12, 1.5, "hex 17", 95, null, false, true, false), Line(FastenerRole.RotorScrew, 1, 6, 1, "Torx T30", 8, null, false, true, false),
            Line(FastenerRole.ActuatorScrew, 2, 6, 1, "Torx T30", 9, null, false, true, false), Line(FastenerRole.Banjo, 1, 10, 1, "hex 14", 28, null, false, true, false), Line(FastenerRole.SpotCaliper, 2, 10, 1.5, "hex 15", 50, null, false, true, false) with { ThenAngle = Angle.FromDegrees(60) },
            Line(FastenerRole.BleedScrew, 1, 10, 1, "hex 11", 11, null, false, true, false), Line(FastenerRole.Wheel, 5, 12, 1.5, "hex 19", 120, null, false, true, false),
        ], drum);

    private static Length Mm(double value) => Length.FromMillimeters(value);

    private static TorqueLine Line(FastenerRole role, int count, double d, double p, string drive, double low, double? high, bool singleUse, bool socket, bool hold) =>
        new(role, count, Mm(d), Mm(p), role is FastenerRole.Wheel or FastenerRole.Bracket ? PropertyClass.C109 : PropertyClass.C88, drive,
            TorqueQuantity.FromNewtonMeters(low), high is { } h ? TorqueQuantity.FromNewtonMeters(h) : null, singleUse, socket, hold, null);
}

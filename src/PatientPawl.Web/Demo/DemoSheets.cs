using PatientPawl.Core.Identification;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using UnitsNet;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Web.Demo;

/// <summary>Invented spec sheets and vehicles.</summary>
internal static class DemoSheets
{
    public static IReadOnlyList<SpecSheet> All { get; } =
    [
        new("CT-1", "Brae small cars, cable caliper", "Brae workshop leaflet 14 (invented)", Architecture.CableScrew,
            new(Mm(38), 1, Mm(0.8), Mm(1.5), TurnDirection.Clockwise, TurnDirection.Clockwise, false, 4),
            new(Mm(15), Mm(15), Mm(5.5), Mm(2)), new(Mm(10), Mm(8), true, false), new(Volume.FromMilliliters(75), Volume.FromMilliliters(60)), null,
            [Line(FastenerRole.SlidePin, 2, 8, 1.25, "hex 13", 31, null, true, true, true), Line(FastenerRole.Bracket, 2, 12, 1.5, "hex 17", 88, null, false, true, false),
                Line(FastenerRole.RotorScrew, 1, 6, 1, "Torx T30", 8, null, false, true, false), Line(FastenerRole.Wheel, 4, 12, 1.5, "hex 19", 110, null, false, true, false)]),
        new("BT-3", "Brae minibuses, motor caliper", "Brae workshop leaflet 31 (invented)", Architecture.MotorPush,
            new(Mm(43), 1, null, Mm(2), null, null, false, 2),
            new(Mm(16.5), Mm(16.5), Mm(6), null), new(Mm(12), Mm(10), true, false), new(Volume.FromMilliliters(110), Volume.FromMilliliters(70)),
            new(false, ElectricPotential.FromVolts(12.2), "Torx T30"),
            [Line(FastenerRole.SlidePin, 2, 8, 1.25, "hex 13", 31, 35, true, true, true), Line(FastenerRole.Bracket, 2, 12, 1.5, "hex 18", 94, null, false, false, false),
                Line(FastenerRole.RotorScrew, 1, 6, 1, "Torx T30", 8, null, false, true, false), Line(FastenerRole.ActuatorScrew, 2, 6, 1, "Torx T30", 8.5, null, false, true, false),
                Line(FastenerRole.Wheel, 5, 14, 1.5, "hex 21", 160, null, false, true, false)]),
        new("NM-2", "Norrin vans and buses, motor caliper", "Norrin service sheet 7 (invented)", Architecture.MotorPush,
            new(Mm(41), 1, null, Mm(1.8), null, null, false, 4),
            new(Mm(16), Mm(16), Mm(6), Mm(2.5)), new(Mm(12), Mm(10.5), false, false), new(Volume.FromMilliliters(95), Volume.FromMilliliters(60)),
            new(false, null, "hex 12"),
            [Line(FastenerRole.SlidePin, 2, 8, 1.25, "hex 13", 28, null, true, true, true), Line(FastenerRole.Bracket, 2, 12, 1.25, "hex 18", 105, null, false, true, false),
                Line(FastenerRole.ActuatorScrew, 2, 6, 1, "Torx T30", 9, null, false, true, false), Line(FastenerRole.Wheel, 5, 12, 1.5, "hex 19", 120, null, false, true, false)]),
        new("NH-5", "Norrin vans, shoes in the hat", "Norrin service sheet 22 (invented)", Architecture.HatShoes,
            new(Mm(40), 1, null, Mm(1.2), null, null, false, 0),
            new(Mm(15.5), Mm(15.5), Mm(5.5), Mm(2)), new(Mm(10), Mm(8.4), true, false, Mm(0.02), Mm(0.08)), new(Volume.FromMilliliters(90), Volume.FromMilliliters(60)), null,
            [Line(FastenerRole.SlidePin, 2, 10, 1.5, "hex 15", 36, null, false, true, false), Line(FastenerRole.Bracket, 2, 12, 1.5, "hex 18", 110, null, false, true, false),
                Line(FastenerRole.RotorScrew, 1, 6, 1, "Torx T30", 8, null, false, true, false), Line(FastenerRole.Wheel, 5, 14, 1.5, "hex 19", 140, null, false, true, false)],
            new(Mm(190), Mm(191), Mm(0.15), null, Mm(1.5), Mm(0.35), Mm(0.55), 6, Mm(80), Mm(80), Mm(1.25), 25, false)),
    ];

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
    ];

    private static Length Mm(double value) => Length.FromMillimeters(value);

    private static TorqueLine Line(FastenerRole role, int count, double d, double p, string drive, double low, double? high, bool singleUse, bool socket, bool hold) =>
        new(role, count, Mm(d), Mm(p), role is FastenerRole.Wheel or FastenerRole.Bracket ? PropertyClass.C109 : PropertyClass.C88, drive,
            TorqueQuantity.FromNewtonMeters(low), high is { } h ? TorqueQuantity.FromNewtonMeters(h) : null, singleUse, socket, hold, null);
}

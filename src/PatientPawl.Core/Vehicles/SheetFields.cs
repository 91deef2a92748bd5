using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using UnitsNet;

namespace PatientPawl.Core.Vehicles;

/// <summary>What a field of a spec sheet holds.</summary>
public enum SheetFieldKind
{
    /// <summary>Words.</summary>
    Words,
    /// <summary>Several words or sentences.</summary>
    List,
    /// <summary>A figure.</summary>
    Figure,
    /// <summary>Yes or no.</summary>
    YesNo,
    /// <summary>One of several.</summary>
    Choice,
}

/// <summary>One answer of a field that takes one of several.</summary>
/// <param name="Value">The value.</param>
/// <param name="Says">What it is called.</param>
public sealed record SheetChoice(Enum Value, string Says);

/// <summary>A field of a spec sheet. What the form shows and what the check allows are both made from it.</summary>
/// <param name="Key">Its name in the open formats, unit included; in a fastener's line, its name there.</param>
/// <param name="Says">What it is called.</param>
/// <param name="Kind">What it holds.</param>
public sealed record SheetField(string Key, string Says, SheetFieldKind Kind)
{
    /// <summary>Unit of a figure; empty where it has none.</summary>
    public string Unit { get; init; } = "";

    /// <summary>True where the person who types it chooses the unit: it is never assumed.</summary>
    public bool UnitIsChosen { get; init; }

    /// <summary>Least figure; null where it is none.</summary>
    public double? Least { get; init; }

    /// <summary>Largest figure, or most characters of words; null where it is neither.</summary>
    public double? Most { get; init; }

    /// <summary>True where a silent sheet has nothing there at all.</summary>
    public bool MayBeMissing { get; init; }

    /// <summary>Its answers; empty where it is no choice.</summary>
    public IReadOnlyList<SheetChoice> Choices { get; init; } = [];
}

/// <summary>Fields that stand together.</summary>
/// <param name="Says">What they are about.</param>
/// <param name="Fields">The fields.</param>
/// <param name="MayBeMissing">True where a vehicle may have none of it.</param>
public sealed record SheetGroup(string Says, IReadOnlyList<SheetField> Fields, bool MayBeMissing = false);

/// <summary>Every field of a spec sheet and of its fasteners' lines: one table for the form and for the check.</summary>
public static class SheetFields
{
    // A field with its check, for a sheet or for a fastener's line; the check is told the field's whole name.
    private sealed record Row<T>(SheetField Field, Action<T, Checks, string> Check);

    // Characters of a word on one bolt.
    private const int MostOfABolt = 80;

    private static readonly (string Says, bool MayBeMissing, IReadOnlyList<Row<SpecSheet>> Rows)[] Sheet =
    [
        ("The sheet", false,
        [
            Words<SpecSheet>("code", "Code", 20, s => s.Code),
            Words<SpecSheet>("title", "What it covers", 80, s => s.Title),
            Words<SpecSheet>("source", "Where the figures come from", 200, s => s.Source),
            Choice<SpecSheet, Architecture>("architecture", "Parking brake", a => a.Words(), mayBeMissing: true),
        ]),
        ("Piston", false,
        [
            Mm("piston.diameterMm", "Bore", 10, 100, s => s.Piston.Diameter),
            Number<SpecSheet>("piston.pistonsPerCaliper", "Pistons a caliper", "", 1, 12, s => s.Piston.PistonsPerCaliper),
            Mm("piston.leadMm", "Travel a turn", 0.1, 10, s => s.Piston.Lead),
            Mm("piston.homeProtrusionMm", "Proud when home", 0, 50, s => s.Piston.HomeProtrusion),
            Choice<SpecSheet, TurnDirection>("piston.directionLeft", "Turns home, left", Plain, mayBeMissing: true),
            Choice<SpecSheet, TurnDirection>("piston.directionRight", "Turns home, right", Plain, mayBeMissing: true),
            Number<SpecSheet>("piston.slots", "Slots in the face", "", 0, 12, s => s.Piston.Slots),
            Mm("piston.protrusionLimitMm", "Furthest proud", 1, 100, s => s.Piston.ProtrusionLimit),
            Choice<SpecSheet, Known>("piston.turnsFreelyAtHome", "Turns freely at home", Plain),
            Choice<SpecSheet, Known>("piston.resealAllowed", "Reseal allowed", Plain),
            YesNo<SpecSheet>("piston.twoStage", "Two stages"),
            YesNo<SpecSheet>("piston.otherWayAllowed", "Other direction may be tried"),
        ]),
        ("Pads", false,
        [
            Mm("pads.newInnerTotalMm", "New inner, total", 3, 60, s => s.Pads.NewInnerTotal),
            Mm("pads.newOuterTotalMm", "New outer, total", 3, 60, s => s.Pads.NewOuterTotal),
            Mm("pads.backingMm", "Backing with shims", 1, 20, s => s.Pads.Backing),
            Mm("pads.minimumLiningMm", "Least lining", 0.5, 20, s => s.Pads.MinimumLining),
        ]),
        ("What the pad set carries", true,
        [
            Choice<SpecSheet, PadEnd>("padSet.indicator", "Wear indicator at the", Plain, mayBeMissing: true),
            Choice<SpecSheet, Known>("padSet.pin", "Inner pad has a pin", Plain),
            Choice<SpecSheet, Known>("padSet.springClip", "Spring into the piston", Plain),
            Choice<SpecSheet, Known>("padSet.notch", "Notch or arrow", Plain),
            Choice<SpecSheet, SensorSide>("padSet.sensorAt", "Wear sensor at", Plain, mayBeMissing: true),
        ]),
        ("Rotor", false,
        [
            Mm("rotor.newThicknessMm", "New", 3, 80, s => s.Rotor.NewThickness),
            Mm("rotor.minimumThicknessMm", "Minimum", 2, 80, s => s.Rotor.MinimumThickness),
            Mm("rotor.variationLimitMm", "Variation limit", 0.001, 0.5, s => s.Rotor.VariationLimit),
            Mm("rotor.runoutLimitMm", "Runout limit", 0.005, 1, s => s.Rotor.RunoutLimit),
            Words<SpecSheet>("rotor.jackingThread", "Jacking thread", 20, s => s.Rotor.JackingThread, mayBeMissing: true),
            YesNo<SpecSheet>("rotor.hasScrews", "Held by screws"),
            YesNo<SpecSheet>("rotor.comesOffWithBracketOn", "Off with bracket on"),
        ]),
        ("Reservoir", false,
        [
            Number<SpecSheet>("reservoir.bandMl", "MIN to MAX", "mL", 10, 2000, s => s.Reservoir.Band.Milliliters),
            Number<SpecSheet>("reservoir.headspaceMl", "MAX to brim", "mL", 0, 2000, s => s.Reservoir.Headspace.Milliliters),
        ]),
        ("Fluid and master cylinder", true,
        [
            Choice<SpecSheet, FluidGrade>("hydraulics.fluid", "Fluid, by the cap", BrakeFluid.Name, mayBeMissing: true),
            Mm("hydraulics.masterDiameterMm", "Master cylinder bore", 10, 50, s => s.Hydraulics?.MasterDiameter),
            Mm("hydraulics.masterStrokeMm", "Its piston's stroke", 5, 60, s => s.Hydraulics?.MasterStroke),
            Choice<SpecSheet, CircuitSplit>("hydraulics.split", "Circuits", Plain, mayBeMissing: true),
            Words<SpecSheet>("hydraulics.bleedOrder", "Order of bleeding", 80, s => s.Hydraulics?.BleedOrder, mayBeMissing: true),
        ]),
        ("Electric parking brake", true,
        [
            Words<SpecSheet>("electric.spindleTool", "Spindle drive", 60, s => s.Electric?.SpindleTool, mayBeEmpty: true),
            Number<SpecSheet>("electric.batteryFloorV", "Battery floor", "V", 9, 16, s => s.Electric?.BatteryFloor?.Volts),
            YesNo<SpecSheet>("electric.serviceOnGround", "Service on its wheels"),
            YesNo<SpecSheet>("electric.noManualRelease", "No manual release"),
        ]),
        ("Drum in the hat", true,
        [
            Mm("drum.nominalMm", "New", 50, 500, s => s.Drum?.Nominal),
            Mm("drum.maximumMm", "Maximum", 50, 500, s => s.Drum?.Maximum),
            Mm("drum.outOfRoundLimitMm", "Out of round", 0.01, 2, s => s.Drum?.OutOfRoundLimit),
            Mm("drum.machineToMm", "Machine to", 50, 500, s => s.Drum?.MachineTo),
            Mm("drum.minimumLiningMm", "Least shoe lining", 0.3, 10, s => s.Drum?.MinimumLining),
            Mm("drum.targetLowMm", "Clearance from", 0.05, 5, s => s.Drum?.TargetLow),
            Mm("drum.targetHighMm", "Clearance to", 0.05, 5, s => s.Drum?.TargetHigh),
            Number<SpecSheet>("drum.lockAndBackOff", "Clicks from lock", "", 1, 60, s => s.Drum?.LockAndBackOff),
            Mm("drum.anchorDistanceMm", "Centre to anchor", 20, 250, s => s.Drum?.AnchorDistance),
            Mm("drum.adjusterDistanceMm", "Centre to adjuster", 20, 250, s => s.Drum?.AdjusterDistance),
            Mm("drum.pitchMm", "Adjuster pitch", 0.5, 3, s => s.Drum?.Pitch),
            Number<SpecSheet>("drum.teeth", "Star wheel teeth", "", 5, 60, s => s.Drum?.Teeth),
            Number<SpecSheet>("drum.holeAt", "Hole at, o'clock", "", 1, 12, s => s.Drum?.HoleAt),
            YesNo<SpecSheet>("drum.leftRightPair", "Left and right thread"),
        ]),
    ];

    private static readonly IReadOnlyList<Row<TorqueLine>> Line =
    [
        Choice<TorqueLine, FastenerRole>("role", "Fastener", Fasteners.Words),
        Number<TorqueLine>("perCorner", "A corner", "", 1, 10, l => l.PerCorner),
        Torque("lowNm", "Torque, or from", l => l.Low.NewtonMeters),
        Torque("highNm", "To", l => l.High?.NewtonMeters),
        Words<TorqueLine>("drive", "Drive", 30, l => l.Drive),
        Length<TorqueLine>("threadDiameterMm", "Thread", 4, 24, l => l.ThreadDiameter),
        Length<TorqueLine>("threadPitchMm", "Pitch", 0.5, 3, l => l.ThreadPitch),
        Choice<TorqueLine, PropertyClass>("class", "Class", Fasteners.Words),
        YesNo<TorqueLine>("singleUse", "New each time"),
        YesNo<TorqueLine>("socketReaches", "A socket reaches it"),
        YesNo<TorqueLine>("holdingSpanner", "Pin is held"),
        Choice<TorqueLine, Known>("locker", "Thread locker", Plain),
        Words<TorqueLine>("partNumber", "Part number", 40, l => l.PartNumber, mayBeMissing: true),
        Words<TorqueLine>("note", "Note", 120, l => l.Note, mayBeMissing: true),
        new(new("boltNotes", "Each bolt", SheetFieldKind.List) { Most = MostOfABolt, MayBeMissing = true }, (l, checks, key) =>
        {
            foreach (var word in l.BoltNotes ?? []) checks.Text(key, word, MostOfABolt);
        }),
        Number<TorqueLine>("thenAngleDeg", "Then", "degrees", 5, 270, l => l.ThenAngle?.Degrees),
        YesNo<TorqueLine>("reuseAllowed", "May be reused"),
    ];

    /// <summary>The fields of a sheet, in the order in which they are asked.</summary>
    public static IReadOnlyList<SheetGroup> Groups { get; } = [.. Sheet.Select(g => new SheetGroup(g.Says, [.. g.Rows.Select(r => r.Field)], g.MayBeMissing))];

    /// <summary>The fields of a fastener's line.</summary>
    public static IReadOnlyList<SheetField> Fastener { get; } = [.. Line.Select(r => r.Field)];

    /// <summary>The small parts that a vehicle may have.</summary>
    public static IReadOnlyList<SheetChoice> SmallParts { get; } = Answers<Fitting>(Plain);

    /// <summary>Names each figure and word of a sheet that lies outside its field's range.</summary>
    internal static Checks CheckInto(this SpecSheet sheet, Checks checks)
    {
        foreach (var row in Sheet.SelectMany(g => g.Rows)) row.Check(sheet, checks, row.Field.Key);
        return checks;
    }

    /// <summary>The same for a fastener's line.</summary>
    /// <param name="line">The line.</param>
    /// <param name="checks">Takes what is wrong.</param>
    /// <param name="prefix">What stands before the fields' names.</param>
    internal static void CheckInto(this TorqueLine line, Checks checks, string prefix)
    {
        foreach (var row in Line) row.Check(line, checks, prefix + row.Field.Key);
    }

    private static Row<SpecSheet> Mm(string key, string says, double least, double most, Func<SpecSheet, Length?> of) => Length(key, says, least, most, of);

    private static Row<T> Length<T>(string key, string says, double least, double most, Func<T, Length?> of) =>
        new(Figure(key, says, "mm", least, most), (t, checks, name) => checks.Millimetres(name, of(t), least, most));

    private static Row<T> Number<T>(string key, string says, string unit, double least, double most, Func<T, double?> of) =>
        new(Figure(key, says, unit, least, most), (t, checks, name) => checks.Range(name, of(t), least, most, unit));

    private static Row<TorqueLine> Torque(string key, string says, Func<TorqueLine, double?> of)
    {
        var row = Number(key, says, "N m", 1, 500, of);
        return row with { Field = row.Field with { UnitIsChosen = true } };
    }

    private static SheetField Figure(string key, string says, string unit, double least, double most) =>
        new(key, says, SheetFieldKind.Figure) { Unit = unit, Least = least, Most = most, MayBeMissing = true };

    private static Row<T> Words<T>(string key, string says, int most, Func<T, string?> of, bool mayBeMissing = false, bool mayBeEmpty = false) => new(
        new(key, says, SheetFieldKind.Words) { Most = most, MayBeMissing = mayBeMissing },
        (t, checks, name) =>
        {
            var words = of(t);
            if (!(mayBeMissing && words is null) && !(mayBeEmpty && string.IsNullOrEmpty(words))) checks.Text(name, words, most);
        });

    private static Row<T> YesNo<T>(string key, string says) => new(new(key, says, SheetFieldKind.YesNo), (_, _, _) => { });

    private static Row<T> Choice<T, TAnswer>(string key, string says, Func<TAnswer, string> words, bool mayBeMissing = false)
        where TAnswer : struct, Enum => new(
        new(key, says, SheetFieldKind.Choice) { MayBeMissing = mayBeMissing, Choices = Answers(words) },
        (_, _, _) => { });

    private static IReadOnlyList<SheetChoice> Answers<TAnswer>(Func<TAnswer, string> words)
        where TAnswer : struct, Enum => [.. Enum.GetValues<TAnswer>().Select(a => new SheetChoice(a, words(a)))];

    private static string Plain<TAnswer>(TAnswer answer)
        where TAnswer : struct, Enum => string.Concat(answer.ToString().Select((c, i) => char.IsUpper(c) && i > 0 ? $" {char.ToLowerInvariant(c)}" : $"{char.ToLowerInvariant(c)}"));
}

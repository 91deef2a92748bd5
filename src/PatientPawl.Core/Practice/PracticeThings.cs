using PatientPawl.Core.Identification;

namespace PatientPawl.Core.Practice;

/// <summary>Something at the car that can be touched and looked at.</summary>
public enum PracticeThing
{
    /// <summary>The boot round the piston.</summary>
    Boot,
    /// <summary>The pads in their bracket.</summary>
    Pads,
    /// <summary>How the caliper slides on its pins.</summary>
    SlidePins,
    /// <summary>The brake hose.</summary>
    Hose,
    /// <summary>The rotor screw.</summary>
    RotorScrew,
    /// <summary>The new parts in the box, beside the old ones.</summary>
    NewParts,
    /// <summary>The piston's face.</summary>
    PistonFace,
    /// <summary>The star wheel through its hole.</summary>
    StarWheel,
}

/// <summary>What touching a thing shows.</summary>
public static class PracticeThings
{
    /// <summary>The thing in a word or two.</summary>
    public static string Words(this PracticeThing thing) => thing switch
    {
        PracticeThing.Boot => "boot",
        PracticeThing.Pads => "pads in the bracket",
        PracticeThing.SlidePins => "slide pins",
        PracticeThing.Hose => "hose",
        PracticeThing.RotorScrew => "rotor screw",
        PracticeThing.NewParts => "new parts beside old",
        PracticeThing.PistonFace => "piston's face",
        _ => "star wheel",
    };

    /// <summary>Things that can be got at in a corner just now.</summary>
    public static IReadOnlyList<PracticeThing> Reached(PracticeWorld world, Scenario scenario, Side side)
    {
        ArgumentNullException.ThrowIfNull(world);
        ArgumentNullException.ThrowIfNull(scenario);
        List<PracticeThing> things = [PracticeThing.NewParts];
        if (world.WheelOn(side)) return things;
        things.AddRange([PracticeThing.Hose, PracticeThing.RotorScrew]);
        if (scenario.Truth.At(side).Drum is not null) things.Add(PracticeThing.StarWheel);
        if (scenario.Truth.At(side).Architecture != Architecture.ElectricOnly) things.AddRange([PracticeThing.Boot, PracticeThing.Pads,
            PracticeThing.SlidePins]);
        if (!world.CaliperOn(side)) things.Add(PracticeThing.PistonFace);
        return things;
    }

    /// <summary>What is seen there. Some looks mislead, and some say nothing before more is apart.</summary>
    public static string Seen(PracticeWorld world, Scenario scenario, Side side, PracticeThing thing)
    {
        ArgumentNullException.ThrowIfNull(world);
        ArgumentNullException.ThrowIfNull(scenario);
        var corner = scenario.Truth.At(side);
        bool Has(CornerFault fault) => corner.Faults.Contains(fault);
        return thing switch
        {
            PracticeThing.Boot => Has(CornerFault.BootTorn) ? "Torn at its lower lip, and wet behind."
                : Has(CornerFault.BootSticks) ? "Whole and dry; its lip sticks to the piston all round until it is freed."
                    : "Whole, dry, its lip in the groove all round.",
            PracticeThing.Pads or PracticeThing.SlidePins when world.CaliperOn(side)
                && (Has(CornerFault.PadsFrozen) || Has(CornerFault.PinSeized)) =>
                "The caliper does not slide. Pads or pins: it does not show which.",
            PracticeThing.Pads => Has(CornerFault.PadsFrozen) ? "Rusted into the bracket: they do not move by hand."
                : "They slide in their bracket by hand.",
            PracticeThing.SlidePins => Has(CornerFault.PinSeized) ? "The lower pin does not move in its bore."
                : "Both pins slide and turn by hand.",
            PracticeThing.Hose => Has(CornerFault.HoseCollapsed)
                ? "Sound outside. With the screw shut the piston creeps back; with it open it goes: "
                    + "fluid does not come back through the hose."
                : "Sound, and fluid passes both ways.",
            PracticeThing.RotorScrew => Has(CornerFault.ScrewBroken) ? "Its head is gone: it is broken off in the hub."
                : "Its cross is clean.",
            PracticeThing.NewParts => Has(CornerFault.WrongPart) ? "The ears of the new pads are 3 mm longer than those of the old ones."
                : Has(CornerFault.SensorMissing) ? "Same shape. The old inner pad has a wear sensor, the new one has none."
                    : "Same shape, same ears, same pin and sensor.",
            PracticeThing.PistonFace => Has(CornerFault.NotchedFace) ? "Four notches in the face."
                : corner.Architecture is Architecture.CableScrew or Architecture.PullerScrew or Architecture.MotorTurn
                ? "Four notches in the face." : "A plain cup.",
            _ => $"A paint mark of the last visit beside the hole: {(corner.StarLoosensUp ? "up" : "down")} loosens.",
        };
    }

    /// <summary>What a look of the identification shows. Common practice, no source; a motor's notched piston misleads.</summary>
    public static Seen Seen(CornerTruth corner, Look look)
    {
        ArgumentNullException.ThrowIfNull(corner);
        var of = corner.Architecture;
        Seen Is(params Architecture[] those) => those.Contains(of) ? Identification.Seen.Yes : Identification.Seen.No;
        return look switch
        {
            Look.CabinControl => IsElectric(of) ? Identification.Seen.Switch : Identification.Seen.HandLever,
            Look.PullerBox => Is(Architecture.PullerScrew, Architecture.PullerHat),
            Look.CaliperLever => Is(Architecture.CableScrew, Architecture.PullerScrew, Architecture.LeverPush),
            Look.CaliperMotor => Is(Architecture.MotorPush, Architecture.MotorTurn),
            Look.PlateCable => Is(Architecture.HatShoes, Architecture.PullerHat, Architecture.FixedHat),
            Look.PlateMotor => Is(Architecture.MotorHat),
            Look.SecondCaliper => Is(Architecture.SpotCaliper),
            Look.HatHole => Is(Architecture.HatShoes, Architecture.PullerHat, Architecture.MotorHat, Architecture.FixedHat),
            Look.BrakeHose => of == Architecture.ElectricOnly ? Identification.Seen.No : Identification.Seen.Yes,
            Look.OpposedPistons => Is(Architecture.FixedHat),
            Look.RearHexPlug => Is(Architecture.RearHex),
            Look.PistonFace => of is Architecture.CableScrew or Architecture.PullerScrew ? Identification.Seen.Cross
                : of is Architecture.MotorTurn or Architecture.LeverPush || corner.Faults.Contains(CornerFault.NotchedFace)
                    ? Identification.Seen.TwoNotches : Identification.Seen.PlainCup,
            Look.PushMoves => Is(Architecture.CableScrew, Architecture.PullerScrew, Architecture.MotorTurn,
                Architecture.RearHex) == Identification.Seen.Yes
                ? Identification.Seen.No : Identification.Seen.Yes,
            _ => Identification.Seen.No,
        };
    }

    /// <summary>True where a switch works it. The practice car's own table: it would share a planner's error.</summary>
    internal static bool IsElectric(Architecture architecture) =>
        architecture is Architecture.MotorPush or Architecture.MotorTurn or Architecture.PullerScrew
        or Architecture.PullerHat or Architecture.MotorHat or Architecture.ElectricOnly;
}

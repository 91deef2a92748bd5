namespace PatientPawl.Core.Practice;

/// <summary>A classic mistake.</summary>
public enum TrapId
{
    /// <summary>A clamp on a piston that runs on a screw.</summary>
    ClampOnScrew,
    /// <summary>A piston wound against a tight cable.</summary>
    TightCable,
    /// <summary>A notched face taken for a piston that is wound.</summary>
    NotchedMotor,
    /// <summary>The brake closed with a caliper off.</summary>
    ClosedCaliperOff,
    /// <summary>A car that wakes with a caliper off.</summary>
    WokenByKey,
    /// <summary>The star wheel turned the wrong way.</summary>
    StarWheelWrongWay,
    /// <summary>A limit within the gauge's doubt.</summary>
    WithinDoubt,
    /// <summary>A hot drum.</summary>
    HotDrum,
    /// <summary>A torque in the wrong unit.</summary>
    UnitSlip,
    /// <summary>Another fastener's torque.</summary>
    OthersFigure,
    /// <summary>A crowfoot forgotten.</summary>
    CrowfootForgotten,
    /// <summary>A reservoir that overflows.</summary>
    Overflows,
    /// <summary>A pedal that was not pumped.</summary>
    PedalNotPumped,
    /// <summary>The bracket before the shoes.</summary>
    BracketBeforeShoes,
    /// <summary>The rotor screw left until the hub spins.</summary>
    ScrewForgotten,
    /// <summary>Frozen pads taken for a seized pin, or the other way round.</summary>
    PadsOrPins,
    /// <summary>A broken screw passed over.</summary>
    BrokenScrew,
    /// <summary>A boot that winds up, or is torn.</summary>
    TornBoot,
    /// <summary>A hose that keeps the fluid.</summary>
    CollapsedHose,
    /// <summary>A wrong part in the box.</summary>
    WrongPart,
    /// <summary>A wear sensor on one side only.</summary>
    SensorOneSide,
    /// <summary>A weak battery in service.</summary>
    WeakBattery,
    /// <summary>A tool lost while the brake closes.</summary>
    ToolLostClosing,
    /// <summary>A car that pressurises its brakes by itself.</summary>
    PressurisesItself,
    /// <summary>A stuck piston that is forced.</summary>
    StuckForced,
    /// <summary>Nothing written down.</summary>
    NothingRecorded,
}

/// <summary>A mistake that people make, and what comes of it.</summary>
/// <param name="Id">Which.</param>
/// <param name="State">What the car is like.</param>
/// <param name="WrongAction">What is done.</param>
/// <param name="Consequence">What happens then.</param>
/// <param name="Lesson">What to take from it.</param>
/// <param name="Trains">The competence that it belongs to.</param>
public sealed record Trap(TrapId Id, string State, string WrongAction, string Consequence, string Lesson, Competence Trains);

/// <summary>Every trap. Common practice, no source.</summary>
public static class TrapCatalogue
{
    /// <summary>In the order of <see cref="TrapId"/>.</summary>
    public static IReadOnlyList<Trap> All { get; } =
    [
        new(TrapId.ClampOnScrew, "The piston runs on a screw", "It is pressed straight in",
            "It holds, then the screw strips: the caliper is scrap",
            "A lever and a cable on the caliper: it is turned while it is pressed.", Competence.Retract),
        new(TrapId.TightCable, "The cable still pulls the lever", "The piston is wound back", "It springs out again as the tool lets go",
            "Cable slack and lever on its stop come before the piston.", Competence.Retract),
        new(TrapId.NotchedMotor, "A motor on the caliper, and notches in the piston's face", "It is wound like a screw piston",
            "The boot winds up with it and tears",
            "A notched face proves nothing on a motor caliper: spindle back, then a gentle push.", Competence.Identify),
        new(TrapId.ClosedCaliperOff, "A caliper is off its rotor", "The brake is closed or applied",
            "The spindle drives the piston out until its travel ends: a code, and fingers in between",
            "The brake closes after both sides are assembled.", Competence.Electric),
        new(TrapId.WokenByKey, "A caliper is off, and the brake is neither in service nor unplugged", "Key or ignition wakes the car",
            "The motor moves by itself, with hands in its way",
            "In service and tagged, or asleep with the key away, before hands.", Competence.Electric),
        new(TrapId.StarWheelWrongWay, "The shoes hold the hat", "The star wheel is turned the wrong way",
            "The shoes bind on the drum and the hub will not turn",
            "Feel the hub after the first clicks; the way that loosens it is written down.", Competence.Shoes),
        new(TrapId.WithinDoubt, "A part is nearer to its limit than the gauge can tell", "It is passed, or scrapped, on that reading",
            "A worn part stays on, or a good one goes into the bin",
            "Too close to call is an answer: take the finer gauge.", Competence.Measure),
        new(TrapId.HotDrum, "The drum is hot from the road", "It is measured and judged",
            "It reads larger than it is: a good one is scrapped",
            "A drum is measured cold: 60 K are 0.13 mm on 190 mm.", Competence.Measure),
        new(TrapId.UnitSlip, "The figure is in newton metres and the scale in pound-force feet", "The number is set as it is read",
            "A third too tight: the bolt is stretched",
            "The unit belongs to the number: 1 lbf ft is 1.356 N m.", Competence.Torque),
        new(TrapId.OthersFigure, "Pins and bracket have figures of their own", "One is tightened to the other's",
            "A pin breaks, or a bracket comes loose",
            "The figure goes with the fastener's part, not with its spanner.", Competence.Torque),
        new(TrapId.CrowfootForgotten, "A bolt is reached with a crowfoot only", "The sheet's figure is set on the scale",
            "The longer arm over-tightens it",
            "Set less by the wrench's length over wrench and crowfoot.", Competence.Torque),
        new(TrapId.Overflows, "Worn pads, and a reservoir that somebody topped up", "The pistons go home with the fluid still in it",
            "It runs over the brim, and takes the paint off",
            "Reckon the rise before the piston moves; draw off what does not fit.", Competence.Fluid),
        new(TrapId.PedalNotPumped, "A piston stands off its pads", "The car is moved", "The first stop has no brakes",
            "The pedal is pumped firm before the gear leaves P.", Competence.Prove),
        new(TrapId.BracketBeforeShoes, "Shoes off or not set, in a hat", "Bracket or caliper goes on first",
            "The hat has to come off again",
            "What the hat covers is finished before anything goes over it.", Competence.Sequence),
        new(TrapId.ScrewForgotten, "The brake still holds the hub", "It is let go with the rotor screws still tight",
            "The hub spins under the bit",
            "Both sides' screws are cracked while the brake holds.", Competence.Sequence),
        new(TrapId.PadsOrPins, "The caliper does not slide", "Pads that are rusted in are taken for a pin, or passed over",
            "One pad drags until it is gone",
            "Push the caliper by hand with the pads out: what is free then was held by the pads.", Competence.Measure),
        new(TrapId.BrokenScrew, "A rotor screw is broken off", "It is passed over",
            "The rotor sits skew under the wheel, or nobody gets the next screw out",
            "Drill it, or agree with the lead that the wheel holds the rotor.", Competence.Sequence),
        new(TrapId.TornBoot, "The boot is torn, or sticks to its piston", "The piston is sent home all the same",
            "Water behind it seizes the piston within a winter",
            "Look at the boot all round before the piston moves.", Competence.Retract),
        new(TrapId.CollapsedHose, "A hose whose inner wall has let go", "It is passed over", "The brake stays on after the first hard stop",
            "A piston that goes home only with the screw open has a hose behind it.", Competence.Fluid),
        new(TrapId.WrongPart, "The new pads are another shape", "They are fitted", "They jam in the bracket, or hang over the rotor",
            "Old and new side by side before anything is fitted.", Competence.Sequence),
        new(TrapId.SensorOneSide, "The old pad has a wear sensor and the new one has none", "It is fitted there",
            "The lamp stays on, or the wear is never told",
            "Sensors go where the old ones were.", Competence.Sequence),
        new(TrapId.WeakBattery, "The battery sags when the motors run", "The routine is started without a charger",
            "The motors stop half-way, and nobody knows where",
            "Volts at rest, then a charger, then the routine.", Competence.Electric),
        new(TrapId.ToolLostClosing, "The tool is lost while the brake closes", "It is taken as closed", "One side may still stand open",
            "Lost is unknown: verify before anything leans on it.", Competence.Electric),
        new(TrapId.PressurisesItself, "The car pressurises its brakes by itself", "A caliper comes off before that is off",
            "The pump pushes the piston out",
            "The maker's procedure comes before the first caliper.", Competence.Sequence),
        new(TrapId.StuckForced, "The piston is stuck in its bore", "It is forced",
            "It scores its bore: what might have been freed is scrap",
            "Stops short with the mechanism relaxed and room for fluid: it is stuck. Never force it.", Competence.Retract),
        new(TrapId.NothingRecorded, "The work is done", "Nothing of it is written down", "The same surprise next time, and no proof",
            "Readings, torques and findings go in as they are made.", Competence.Record),
    ];

    /// <summary>A trap.</summary>
    public static Trap Of(TrapId id) => All[(int)id];
}

using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Practice;

/// <summary>The scenarios that ship: invented cars, every brake once, and the classic mistakes.</summary>
public static class ScenarioSet
{
    /// <summary>All of them, the easy ones first.</summary>
    public static IReadOnlyList<Scenario> All { get; } =
    [
        Make("lever-and-screw", "Lever and cable on the caliper", "Squeals when it brakes, worse when wet.", "GNT 164", JobScope.Pads,
            [TrapId.ClampOnScrew, TrapId.TightCable, TrapId.NothingRecorded], [Competence.Identify, Competence.Retract, Competence.Record]),
        Make("notched-face", "Notches in a motor caliper's piston", "The pad lamp came on last week.", "GNT 207", JobScope.Pads,
            [TrapId.NotchedMotor, TrapId.ClosedCaliperOff], [Competence.Identify, Competence.Retract], c =>
                c.BothHave(CornerFault.NotchedFace)),
        Make("early-close", "One side done, the switch so near", "Nothing; the pads are due.", "GNT 301", JobScope.Pads,
            [TrapId.ClosedCaliperOff, TrapId.WokenByKey], [Competence.Electric, Competence.Sequence]),
        Make("motor-and-turn", "A motor, and a piston on a thread", "Grinds on the left.", "GNT 340", JobScope.Pads,
            [TrapId.ClampOnScrew, TrapId.WokenByKey], [Competence.Identify, Competence.Retract, Competence.Electric]),
        Make("star-wheel", "New shoes in the hat", "The hand lever comes up to the roof.", "GNT 140", JobScope.PadsRotorsAndShoes,
            [TrapId.StarWheelWrongWay, TrapId.BracketBeforeShoes], [Competence.Shoes, Competence.Sequence], c =>
                c with { Left = c.Left with { StarLoosensUp = true } }),
        Make("drum-in-doubt", "A drum three hundredths from its limit", "Holds badly on the pier's slope.", "GNT 118", JobScope.Shoes,
            [TrapId.WithinDoubt], [Competence.Shoes, Competence.Measure], c => c.Drums(190.97)),
        Make("hot-drum", "Straight off the hill road", "Smells after the hill.", "GNT 140", JobScope.Shoes,
            [TrapId.HotDrum], [Competence.Shoes, Competence.Measure], c =>
                c.Drums(190.975) with { BrakesAt = Temperature.FromDegreesCelsius(380) }),
        Make("two-units", "The other wrench", "A clonk over bumps since the last pads.", "GNT 077", JobScope.Pads,
            [TrapId.UnitSlip, TrapId.OthersFigure], [Competence.Torque]),
        Make("crowfoot", "A bracket bolt round the corner", "Nothing; rotors and pads are due.", "GNT 233", JobScope.PadsAndRotors,
            [TrapId.CrowfootForgotten, TrapId.UnitSlip], [Competence.Torque, Competence.Electric],
            c => c with { Crowfoot = new(FastenerRole.Bracket, Length.FromMillimeters(60), Length.FromMillimeters(400)) }),
        Make("topped-up", "Somebody topped it up", "The fluid lamp came on; I filled it up.", "GNT 390", JobScope.Pads,
            [TrapId.Overflows], [Competence.Fluid], c => c with { LevelPercent = 112 }, s =>
                s with { Reservoir = new(s.Reservoir.Band, Volume.FromMilliliters(14)) }),
        Make("long-pedal", "The pistons stand off", "Nothing; the pads are due.", "GNT 512", JobScope.Pads, [TrapId.PedalNotPumped],
            [Competence.Prove, Competence.Sequence]),
        Make("spinning-hub", "Two rotor screws", "Shakes when it brakes.", "GNT 420", JobScope.PadsAndRotors, [TrapId.ScrewForgotten],
            [Competence.Sequence]),
        Make("frozen-pads", "It does not slide", "Pulls to the right.", "GNT 251", JobScope.Pads, [TrapId.PadsOrPins],
            [Competence.Measure, Competence.Retract],
            c => c.Has(Side.Left, CornerFault.PadsFrozen)),
        Make("broken-screw", "A head that is gone", "Shakes when it brakes.", "GNT 019", JobScope.PadsAndRotors,
            [TrapId.BrokenScrew, TrapId.ClampOnScrew], [Competence.Sequence, Competence.Retract], c =>
                c.Has(Side.Right, CornerFault.ScrewBroken)),
        Make("torn-boot", "Wet behind the lip", "One wheel is hot after the pier.", "GNT 266", JobScope.Pads,
            [TrapId.TornBoot, TrapId.ClampOnScrew],
            [Competence.Retract, Competence.Electric], c => c.Has(Side.Left, CornerFault.BootTorn)),
        Make("collapsed-hose", "It creeps back", "Stays on after a hard stop.", "GNT 390", JobScope.Pads, [TrapId.CollapsedHose],
            [Competence.Fluid],
            c => c.Has(Side.Right, CornerFault.HoseCollapsed)),
        Make("wrong-box", "Ears that are too long", "Nothing; the pads are due.", "GNT 388", JobScope.Pads, [TrapId.WrongPart],
            [Competence.Sequence, Competence.Identify],
            c => c.Has(Side.Left, CornerFault.WrongPart)),
        Make("one-sensor", "A lead with no end", "The pad lamp came on.", "GNT 164", JobScope.Pads,
            [TrapId.SensorOneSide, TrapId.TightCable],
            [Competence.Record, Competence.Sequence], c => c.Has(Side.Right, CornerFault.SensorMissing)),
        Make("weak-battery", "It cranks slowly", "It cranks slowly in the mornings.", "GNT 207", JobScope.Pads, [TrapId.WeakBattery],
            [Competence.Electric],
            c => c with { Battery = ElectricPotential.FromVolts(11.4), Faults = [CarFault.WeakBattery] }),
        Make("lost-tool", "No answer any more", "Nothing; the pads are due.", "GNT 512", JobScope.Pads, [TrapId.ToolLostClosing],
            [Competence.Electric, Competence.Prove],
            c => c with { Faults = [CarFault.ToolLostClosing] }),
        Make("by-itself", "A pump that wakes", "A hybrid; whirrs when a door opens.", "GNT 361", JobScope.PadsAndShoes,
            [TrapId.PressurisesItself],
            [Competence.Sequence, Competence.Electric], c => c with { Faults = [CarFault.PressurisesItself] }),
        Make("puller-and-shoes", "A box that pulls cables", "The lamp blinks when it parks.", "GNT 355", JobScope.Shoes,
            [TrapId.BracketBeforeShoes],
            [Competence.Electric, Competence.Shoes]),
        Make("four-pistons", "Two pistons a side", "Nothing; pads and shoes are due.", "GNT 372", JobScope.PadsAndShoes,
            [TrapId.BracketBeforeShoes], [Competence.Identify, Competence.Retract]),
        Make("stuck-piston", "It stands where it stood", "Pulls to the left.", "GNT 251", JobScope.Pads, [TrapId.StuckForced],
            [Competence.Retract, Competence.Record],
            c => c.Has(Side.Right, CornerFault.PistonStuck)),
        Make("no-piston", "A corner without a hose", "Nothing; it is due for a look.", "GNT 401", JobScope.Inspect, [],
            [Competence.Identify]),
    ];

    /// <summary>A scenario by its id; null where there is none.</summary>
    public static Scenario? Find(string id) => All.FirstOrDefault(s => s.Id == id);

    /// <summary>Refuses a scenario of a workshop's own that no car could be, or that takes the id of one that ships.</summary>
    /// <exception cref="InputException">Naming each field, value and range.</exception>
    public static Scenario Own(Scenario scenario)
    {
        ArgumentNullException.ThrowIfNull(scenario);
        if (Find(scenario.Id) is not null) throw new InputException(new InputError("id", scenario.Id, "another id",
            "A scenario that ships has that id."));
        return scenario.Checked();
    }

    private static Scenario Make(string id, string title, string driver, string plate, JobScope scope, TrapId[] traps, Competence[] trains,
        Func<CarTruth, CarTruth>? truth = null, Func<SpecSheet, SpecSheet>? sheet = null)
    {
        var (vehicle, code) = InventedCars.Vehicles.First(v => v.Vehicle.Plate == plate);
        var spec = InventedCars.Sheets.First(s => s.Code == code);
        spec = sheet?.Invoke(spec) ?? spec;
        var car = new CarTruth(Corner(spec, 2.8, 3.9), Corner(spec, 3.1, 3.6), 55, ElectricPotential.FromVolts(12.5),
            Temperature.FromDegreesCelsius(20), null, []);
        return new Scenario(id, title, driver, vehicle, 61_000 + id.Length * 1_300, scope, spec, truth?.Invoke(car) ?? car, traps, trains)
            .Checked();
    }

    /// <summary>A corner whose pads are worn so far and whose other parts are well inside their limits.</summary>
    private static CornerTruth Corner(SpecSheet sheet, double innerLining, double outerLining)
    {
        Length Over(double mm) => sheet.Pads.Backing + Length.FromMillimeters(mm);
        var worn = sheet.Pads.NewInnerTotal + sheet.Pads.NewOuterTotal - Over(innerLining) - Over(outerLining);
        var home = sheet.Piston.HomeProtrusion ?? Length.FromMillimeters(PracticeFigures.HomeMm);
        var rotor = (sheet.Rotor.MinimumThickness ?? sheet.Rotor.NewThickness) + Length.FromMillimeters(0.9);
        // One piston follows both pads and the rotor, and stands off by its running clearance; opposed ones share it.
        var followed = (worn + sheet.Rotor.NewThickness - rotor) / (sheet.Architecture == Architecture.FixedHat ? 2
            : 1) + Length.FromMillimeters(1.2);
        return new(sheet.Architecture ?? Architecture.Plain, Over(innerLining), Over(outerLining), rotor, home + followed,
            sheet.Drum?.Nominal + Length.FromMillimeters(0.3), StarLoosensUp: false, []);
    }

    private static CarTruth BothHave(this CarTruth car, CornerFault fault) => car.Has(Side.Left, fault).Has(Side.Right, fault);

    private static CarTruth Has(this CarTruth car, Side side, CornerFault fault) => side == Side.Left
        ? car with { Left = car.Left with { Faults = [.. car.Left.Faults, fault] } }
            : car with { Right = car.Right with { Faults = [.. car.Right.Faults, fault] } };

    private static CarTruth Drums(this CarTruth car, double mm) =>
        car with
        {
            Left = car.Left with { Drum = Length.FromMillimeters(mm) },
            Right = car.Right with { Drum = Length.FromMillimeters(mm) }
        };
}

using PatientPawl.Core.Measuring;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Workshop;
using static PatientPawl.Core.Planning.Given;
using static PatientPawl.Core.Planning.Place;

namespace PatientPawl.Core.Planning.Steps;

/// <summary>Bled, pumped firm, and the parking brake closed once, after both sides.</summary>
internal static class Close
{
    private static readonly Condition Closed = Car.Closing.Is(Closing.AsItCame, Closing.Cycled);

    // More cycles do not hold what a cable, a star wheel or a motor does not pull.
    private static readonly Requirement CauseOfCreepingFound = Car.BrakeTrouble.Is(Asked.Nothing, Asked.Done);

    private static readonly Outcome LostHalfWay = new("lost-half-way", "Lost half-way: nobody knows",
        [.. MakeSafe.NobodyKnows, Car.Closing.To(Closing.Open)]);

    public static IReadOnlyList<StepType> All { get; } =
    [
        new("corner-bled", "Bleed", Stage.Close, Lane.Corner, Place.Corner, 10, "An opened circuit holds air.")
        {
            Needs =
            [
                Lifted, WheelOff,
                Condition.Any([Corner.Hydraulics.Is(HydraulicsState.Open)], [Corner.Hydraulics.Is(HydraulicsState.Closed), Corner.Bled.Is(Done.No)]).Saying("a circuit to bleed"),
                ((Condition)Corner.Hydraulics.Is(HydraulicsState.Open)).When(s => s.Rules.Bleeding != BleedRule.Always),
            ],
            Makes = [Corner.Hydraulics.To(HydraulicsState.Closed), Corner.BleedScrew.To(Bolts.Snug), Corner.Bled.To(Done.Yes)],
            Concerns = Concern.Bleeds | Concern.UnderCar,
            Cautions = [Cautions.Fluid],
            Tools = ["bleed hose and bottle"],
            Parts = ["brake fluid, a closed bottle"],
            How = "Screw uppermost, tube in the bottle. Open, down, close before the pedal rises. Two clear draws without bubbles. The level never under MIN.",
        },
        new("circuit-opened", "Open bleed screw", Stage.Close, Lane.Corner, Place.Corner, 1, "Old fluid goes out, and what was in the caliper with it.")
        {
            ByChoice = ByChoice.Only,
            ChosenWhile = [Corner.Bled.Is(Done.No)],
            RightWhere = _ => "Fluid that is old or dark: then every corner in the sheet's order. It is bled from then on, and the wheel waits for it.",
            Applies = s => s.Rules.Bleeding != BleedRule.Always && !s.InspectOnly,
            Needs = [WheelOff, Corner.Hydraulics.Is(HydraulicsState.Closed), Corner.BleedScrew.Is(Bolts.Tight, Bolts.Torqued), Corner.Caliper.Is(Caliper.On)],
            Makes = [Corner.Hydraulics.To(HydraulicsState.Open), Corner.BleedScrew.To(Bolts.Snug)],
            Concerns = Concern.OpensBrake | Concern.HandsIn,
            Tools = ["six-point spanner", "bleed hose and bottle"],
            Cautions = [Cautions.Fluid, Cautions.Eyes],
            How = "Oil and a six-point spanner; never round it. A screw that will not turn is left, and told.",
        },
        new("bleed-screw-torqued", "Bleed screw", Stage.Torque, Lane.Corner, Place.Corner, 1, "A screw that was only nipped up weeps.")
        {
            Needs = [WheelOff, Corner.BleedScrew.Is(Bolts.Snug), Corner.Hydraulics.Is(HydraulicsState.Closed)],
            Makes = [Corner.BleedScrew.To(Bolts.Torqued)],
            Torques = FastenerRole.BleedScrew,
            Tools = ["torque wrench"],
            How = "Then its cap.",
        },
        new("pedal-proved", "Pump pedal firm", Stage.Close, Lane.Car, Cabin, 2, "The pistons stand away from the pads until the pedal has brought them up.")
        {
            Applies = s => !s.SimulatedPedal,
            Needs = [Assembled.BothUnderPedal, AlwaysBled],
            Makes = [Car.Pedal.To(Pedal.Proved)],
            Concerns = Concern.Pedal | Concern.ProvesPedal | Concern.HandsOut,
            Readings = [ReadingKind.PedalStrokes],
            HowFor = s => (s.Rules.PumpUp == PumpRule.HalfStrokes ? "Slow half strokes" : "Full strokes, slowly,") + " until firm and high, engine off. It must not sink.",
        },
        new("pedal-proved-routine", "Maker's pedal proof", Stage.Close, Lane.Car, Cabin, 10, "A simulated pedal feels firm with nothing behind it: only the maker's routine proves the brakes.")
        {
            Applies = s => s.SimulatedPedal,
            Needs = [Assembled.BothUnderPedal, AlwaysBled],
            Makes = [Car.Pedal.To(Pedal.Proved)],
            Concerns = Concern.Pedal | Concern.ProvesPedal | Concern.HandsOut,
            Cautions = [Cautions.SelfPressurising],
            How = "The maker's routine for this car, to its end.",
        },
        new("self-pressure-on", "Self-pressurising on", Stage.Close, Lane.Car, Cabin, 3, "The driver gets the brakes that the car came with, and the pedal is proved as it will be driven.")
        {
            Needs = [Car.SelfPressure.Is(SelfPressure.Disabled), Assembled.BothUnderPedal, Condition.All(Corner.Hydraulics.Both(HydraulicsState.Closed)).Saying("both circuits closed or bled")],
            Makes = [Car.SelfPressure.To(SelfPressure.NotRuledOut)],
            Concerns = Concern.Pedal | Concern.HandsOut,
            Cautions = [Cautions.SelfPressurising],
            How = "The maker's procedure the other way, to its end. Everyone's hands are out: the brakes may press at once.",
        },
        new("turns-free", "Wheel turns, caliper slides", Stage.Close, Lane.Corner, Place.Corner, 1, "A pad that binds shows now, by hand.")
        {
            Needs = [Lifted, PedalProved, Assembled.This, ((Condition)BrakeOff).When(s => !s.IsPlain), RotorHeld],
            Makes = [Corner.TurnsFree.To(Done.Yes)],
            // Many cars apply again by themselves at ignition off; a wheel that does not turn shows it.
            Outcomes = [new("held", "It is held: the brake has applied", [Car.Brake.To(ParkingBrake.Applied)]) { Applies = s => s.IsElectric, Doubts = MakeSafe.Moved }],
            Concerns = Concern.TurnsHub,
            HowFor = s => "In neutral. Light, even drag; a light even hiss of pads is normal." + (s.IsFixed ? "" : " The caliper slides on its pins."),
        },
        new("leaks-looked", "Leak check", Stage.Close, Lane.Car, RoundCar, 3, "Pedal held hard for 30 seconds, then look.")
        {
            Waits = true,
            Needs = [Lifted, PedalProved],
            Makes = [Car.Leaks.To(Done.Yes)],
            Concerns = Concern.Pedal | Concern.UnderCar,
            Cautions = [Cautions.Stands],
            HowFor = s => s.SimulatedPedal
                ? "As the maker's routine holds the pressure: a simulated pedal proves nothing by feel. Then look at screw, hose and boot."
                : "Pipes and hoses sound, then hold the pedal hard for 30 seconds: no sink. Then look at screw, hose and boot.",
        },
        new("cap-on", "Cap on", Stage.Close, Lane.Car, Bonnet, 1, "An open reservoir drinks water from the air.")
        {
            Applies = s => s.Rules.Cap == CapRule.OffWithRag,
            Needs =
            [
                Car.Cap.Is(CapState.Off),
                // Not before the last piston has sent its fluid back.
                Condition.Any([.. Corner.Piston.Both(Piston.Home)], [.. Corner.Caliper.Both(Caliper.On), .. Corner.Pads.Both(PadState.Old, PadState.New)])
                    .Saying("both pistons home, or both brakes together").When(s => s.PadsNew && !s.ClosesUp),
            ],
            Makes = [Car.Cap.To(CapState.On)],
            How = "Seal seated, rag away, paint wiped.",
        },
        new("key-near", "Key back in", Stage.Close, Lane.Car, Cabin, 1, "The car wakes only when nothing can move into a gap.")
        {
            Applies = s => s.IsElectric,
            Needs = [Car.Key.Is(Key.Away)],
            Makes = [Car.Key.To(Key.Near)],
            Concerns = Concern.WakesCar | Concern.HandsOut,
            How = "Bring it back only now.",
        },
        new("ignition-on-again", "Ignition on again", Stage.Close, Lane.Car, Cabin, 1, "The pedal is firm, so the brake may move again.")
        {
            Applies = s => s.IsElectric,
            Needs = [Car.Key.Is(Key.Near), IgnitionOff, PedalProved],
            Makes = [Car.Ignition.To(Ignition.On)],
            Concerns = Concern.WakesCar | Concern.HandsOut,
            Cautions = [Cautions.SelfPressurising],
            How = "On, engine off.",
        },
        new("tag-off", "Tags off", Stage.Close, Lane.Car, Cabin, 1, "Nothing is open any more.")
        {
            Applies = s => s.IsElectric,
            Needs =
            [
                Car.Tag.Is(Done.Yes),
                Condition.Any(
                    [.. Assembled.At(Where.Left), .. Assembled.At(Where.Right), PedalProved, .. Corner.TurnsFree.Both(Done.Yes)],
                    [Car.Brake.Is(ParkingBrake.Applied, ParkingBrake.Released, ParkingBrake.ProvedReleased), .. Corner.Caliper.Both(Caliper.On), .. Corner.Pads.Both(PadState.Old, PadState.New)])
                    .Saying("both sides assembled, the pedal proved and both turning free; or a brake that is not in service, over parts that are together").When(s => s.IsCaliperType),
                Condition.Any(
                    [.. Assembled.At(Where.Left), .. Assembled.At(Where.Right), PedalProved, .. Corner.TurnsFree.Both(Done.Yes)],
                    [Car.Brake.Is(ParkingBrake.Applied, ParkingBrake.Released, ParkingBrake.ProvedReleased)])
                    .Saying("both sides assembled, the pedal proved and both turning free; or a brake that is not in service").When(s => !s.IsCaliperType),
            ],
            Makes = [Car.Tag.To(Done.No)],
            Concerns = Concern.HandsOut,
            How = "Only the one who closes the brake takes them off.",
        },
        new("service-closed", "Close the brake", Stage.Close, Lane.Car, Cabin, 3, "The mechanism now meets pistons and shoes that are already there.")
        {
            Applies = s => s.InService,
            Needs =
            [
                IgnitionOn, ((Condition)Car.Battery.Is(Battery.Supported)).When(s => !s.ByPuller), Car.Brake.Is(ParkingBrake.Service), Car.Tag.Is(Done.No), BothTurnFree,
                // A motor that stayed out has nothing to close.
                Condition.Any(Corner.Spindle.Both(Spindle.Back, Spindle.Unknown), [Car.Brake.Is(ParkingBrake.Applied, ParkingBrake.Released, ParkingBrake.ProvedReleased)])
                    .Saying("no spindle that stayed out").When(s => s.IsMotor),
            ],
            Makes =
            [
                Car.Brake.To(ParkingBrake.Released),
                Car.Closing.To(Closing.Closed),
                .. Corner.Spindle.BothTo(Spindle.Out).Select(e => e.When(s => s.IsMotor)),
                Car.Cable.To(CableRun.TakenUp).When(s => s.PullsCables),
                .. Corner.Lever.BothTo(Lever.NotSeen).Select(e => e.When(s => s.IsPuller)),
            ],
            Outcomes = [LostHalfWay],
            Concerns = Concern.AppliesBrake | Concern.LeavesService | Concern.HandsOut,
            Cautions = [Cautions.Actuators],
            ToolsFor = s => s.ByTool ? ["scan tool"] : [],
            HowFor = s => s.ByTool ? "By the tool's close function. Once, after both sides." : s.ByInCar ? "By the car's own sequence, or its switch. Once, after both sides." : "Let the box take the cables up again, by its switch. Once, after both sides.",
        },
        new("first-apply", "First apply", Stage.Close, Lane.Car, Cabin, 2, "The mechanism now meets what is already there.")
        {
            Applies = s => s.IsElectric,
            Needs = [IgnitionOn, Car.Closing.Is(Closing.Open), Car.Tag.Is(Done.No), BrakeReleased, BothTurnFree],
            Makes =
            [
                Car.Brake.To(ParkingBrake.Applied),
                Car.Closing.To(Closing.Closed),
                .. Corner.Spindle.BothTo(Spindle.Out).Select(e => e.When(s => s.IsMotor)),
                Car.Cable.To(CableRun.TakenUp).When(s => s.PullsCables),
            ],
            Outcomes = [LostHalfWay],
            Concerns = Concern.AppliesBrake | Concern.LeavesService | Concern.HandsOut,
            Cautions = [Cautions.Actuators],
            How = "From the switch, once. Listen: both sides alike.",
        },
        new("brake-cycled", "Cycle the brake", Stage.Close, Lane.Car, Cabin, 2, "Three to five times: same time and sound left and right.")
        {
            Applies = s => s.IsElectric,
            Needs = [CauseOfCreepingFound, IgnitionOn, Car.Closing.Is(Closing.Closed), Car.Tag.Is(Done.No), Car.Brake.Is(ParkingBrake.Released, ParkingBrake.ProvedReleased, ParkingBrake.Applied)],
            // It ends released: the wheels are turned by hand once more before it holds the car.
            Makes = [Car.Closing.To(Closing.Cycled), Car.Brake.To(ParkingBrake.Released)],
            Concerns = Concern.AppliesBrake | Concern.LeavesService | Concern.HandsOut,
            Readings = [ReadingKind.Cycles],
            Cautions = [Cautions.Actuators],
            How = "Count them. Listen for the same sound each side. Released at the end.",
        },
        new("cable-taken-up", "Take up cable", Stage.Close, Lane.Car, RoundCar, 4, "After the pedal, so that the cable is not set against a gap.")
        {
            Applies = s => s.IsCable,
            Needs = [Lifted, Car.Cable.Is(CableRun.Slack), PedalProved, Assembled.Both, BrakeReleased],
            Makes = [Car.Cable.To(CableRun.TakenUp), .. Corner.Lever.BothTo(Lever.NotSeen)],
            Concerns = Concern.UnderCar,
            Cautions = [Cautions.Stands],
            How = "Until the levers are about to leave their stops, and no further.",
        },
        new("lever-cycled", "Cycle the lever", Stage.Close, Lane.Car, Cabin, 2, "Three to five full pulls let the screw find its place.")
        {
            Applies = s => s.IsCable || (s.IsSpot && !s.IsElectric),
            Needs = [CauseOfCreepingFound, Car.Cable.Is(CableRun.TakenUp, CableRun.None, CableRun.Tight), Car.Closing.Is(Closing.Open), BrakeReleased, BothTurnFree],
            Makes = [Car.Closing.To(Closing.Cycled), .. Corner.Lever.BothTo(Lever.NotSeen).Select(e => e.When(s => s.HasLever))],
            Concerns = Concern.AppliesBrake | Concern.LeavesService | Concern.HandsOut,
            Readings = [ReadingKind.Cycles],
            How = "Full pulls, full releases.",
        },
        new("shoe-cable-taken-up", "Take up cable", Stage.Close, Lane.Car, RoundCar, 4, "After the star wheels, so that the cable is not set against a gap.")
        {
            Applies = s => s.HatCable,
            Needs = [Lifted, Car.Cable.Is(CableRun.Slack), Condition.All([.. Corner.Shoes.Both(ShoesState.Set, ShoesState.NewSet), .. Corner.Rotor.Both(Rotor.Old, Rotor.New)]).Saying("the shoes of both sides set with the rotors on"), BrakeOff],
            Makes = [Car.Cable.To(CableRun.TakenUp)],
            Concerns = Concern.UnderCar,
            Cautions = [Cautions.Stands],
            How = "Until the shoe levers are about to leave their stops, both sides alike, and no further.",
        },
        new("shoe-brake-cycled", "Cycle the lever", Stage.Close, Lane.Car, Cabin, 2, "Three to five full pulls centre the shoes; then count the notches.")
        {
            Applies = s => s.HatCable,
            Needs = [CauseOfCreepingFound, Car.Cable.Is(CableRun.TakenUp, CableRun.Tight), Car.Closing.Is(Closing.Open), BrakeOff, BothTurnFree],
            Makes = [Car.Closing.To(Closing.Cycled)],
            Concerns = Concern.AppliesBrake | Concern.LeavesService | Concern.HandsOut,
            Readings = [ReadingKind.Cycles],
            How = "Full pulls, full releases. 5 to 8 notches to hold is usual for a hand lever, where the sheet is silent.",
        },
        new("gear-park", "Gear to P", Stage.Close, Lane.Car, Cabin, 1, "It holds the car with the brake.")
        {
            Needs = [Car.Gear.Is(Gear.Neutral), SelectorHasPower],
            Makes = [Car.Gear.To(Gear.Park)],
            Concerns = Concern.HandsOut,
            How = "P, or in gear.",
        },
        new("brake-applied", "Brake applied", Stage.Close, Lane.Car, Cabin, 1, "It holds the car as it comes down.")
        {
            Applies = s => !s.IsPlain,
            Needs =
            [
                BrakeReleased, IgnitionForTheSwitch, Closed, Car.Tag.Is(Done.No),
                Condition.Any(Corner.Lever.Both(Lever.OnStop), [Car.Closing.Is(Closing.AsItCame)]).Saying("both levers seen on their stops, or a cable that nobody touched").When(s => s.IsCable),
                BothTurnFree,
            ],
            Makes = [Car.Brake.To(ParkingBrake.Applied)],
            Concerns = Concern.AppliesBrake | Concern.LeavesService | Concern.HandsOut,
            HowFor = s => s.IsElectric ? "By the switch; it holds the car as it comes down." : "Pull it on; it holds the car as it comes down.",
        },
        new("auto-restored", "Auto-apply back on", Stage.Close, Lane.Car, Cabin, 1, "The driver expects what the car had.")
        {
            Applies = s => s.IsElectric,
            Needs = [IgnitionOn, Car.AutoApply.Is(AutoApply.Inhibited), Closed, Car.Brake.Is(ParkingBrake.Applied)],
            Makes = [Car.AutoApply.To(AutoApply.Active)],
            How = "As the car had it.",
        },
        new("codes-cleared", "Codes clear", Stage.Close, Lane.Car, Cabin, 3, "Read, cleared, read again: nothing left from the job.")
        {
            Applies = s => s.ByTool,
            Needs = [IgnitionOn, Car.Codes.Is(Codes.Read), Closed, Car.Trouble.Is(Asked.Nothing, Asked.Done, Asked.LeftOpen)],
            Makes = [Car.Codes.To(Codes.Cleared)],
            Tools = ["scan tool"],
            How = "Read, clear, read again. Write down what stays.",
        },
        new("lamps-looked", "Lamps off", Stage.Close, Lane.Car, Cabin, 1, "No tool at hand: the lamps must at least be out.")
        {
            Applies = s => s.IsElectric && !s.ByTool,
            Needs = [IgnitionOn, Car.Codes.Is(Codes.Unread), Closed, Car.Trouble.Is(Asked.Nothing, Asked.Done, Asked.LeftOpen)],
            Makes = [Car.Codes.To(Codes.LampsSeen)],
            How = "Ignition on: brake and warning lamps go out.",
        },
        new("ignition-off-after", "Ignition off again", Stage.Close, Lane.Car, Cabin, 1, "The car is left asleep.")
        {
            Applies = s => s.IsElectric,
            Needs = [IgnitionOn, Car.Closing.Is(Closing.Closed, Closing.Cycled)],
            Makes = [Car.Ignition.To(Ignition.Off)],
            How = "Off.",
        },
        new("battery-alone", "Charger off", Stage.Close, Lane.Car, Bonnet, 1, "Nothing draws on it any more.")
        {
            Applies = s => s.IsElectric,
            Needs = [Car.Battery.Is(Battery.Supported), Closed],
            Makes = [Car.Battery.To(Battery.Alone)],
            How = "Charger off, terminals covered.",
        },
        new("lowered", "Lower the car", Stage.Close, Lane.Car, RoundCar, 4, "Everything that is reached from below is done.")
        {
            Needs = [Lifted],
            Makes = [Car.Position.To(CarPosition.Ground)],
            Concerns = Concern.Lowers,
            Cautions = [Cautions.Stands],
            How = "Everyone clear, slowly, off the stands.",
        },
        new("wheel-torqued", "Wheel nuts", Stage.Torque, Lane.Corner, Place.Corner, 3, "Full torque with the wheel's weight on the ground, in star order.")
        {
            OnWheels = true,
            Needs = [Corner.Wheel.Is(Wheel.On), Corner.Nuts.Is(Bolts.Snug, Bolts.Cracked), Corner.NutKey.Is(Asked.Nothing, Asked.Done)],
            Makes = [Corner.Nuts.To(Bolts.Torqued)],
            Torques = FastenerRole.Wheel,
            Concerns = Concern.WheelTorque,
            Tools = ["torque wrench"],
            HowFor = s => "Star order, a locking nut by hand with its key. " + (s.Rules.Studs == StudsRule.Dry ? "Threads dry." : "Threads lightly lubricated, and then only to a figure the sheet gives for lubricated threads: a dry figure overloads the studs by about a third."),
        },
    ];
}

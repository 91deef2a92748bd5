using PatientPawl.Core.Measuring;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Workshop;
using static PatientPawl.Core.Planning.Lane;
using static PatientPawl.Core.Planning.Place;

namespace PatientPawl.Core.Planning;

/// <summary>
/// Every step type, in the usual order of the work. The order here is a preference between steps that are allowed at the
/// same time; what is allowed follows from the preconditions and the interlocks alone. Minutes are estimates; common
/// practice, no source.
/// </summary>
public static class StepCatalogue
{
    // Facts that many rows share.
    private static readonly Requirement Lifted = Car.Position.Is(CarPosition.Stands);
    private static readonly Requirement OnGround = Car.Position.Is(CarPosition.Ground);
    private static readonly Requirement Chocked = Car.Chocks.Is(Chocks.In);
    private static readonly Requirement IgnitionOn = Car.Ignition.Is(Ignition.On);
    private static readonly Requirement BrakeOff = Car.Brake.Is(ParkingBrake.Released, ParkingBrake.ProvedReleased, ParkingBrake.Service);
    private static readonly Requirement WheelOff = Corner.Wheel.Is(Wheel.Off);
    private static readonly Requirement CaliperHung = Corner.Caliper.Is(Caliper.Hung);
    // A sliding caliper hangs aside; a fixed one stays on, and its pads come out past it.
    private static readonly Condition CaliperClear = ((Condition)CaliperHung).When(s => !s.IsFixed);
    private static readonly Condition CaliperThere = ((Condition)Corner.Caliper.Is(Caliper.On, Caliper.Hung)).When(s => s.IsFixed);
    private static readonly Condition SmallPartsOff = Condition.All(
        Corner.Sensor.Is(Fitted.None, Fitted.Off), Corner.RattleSpring.Is(Fitted.None, Fitted.Off), Corner.HoseBracket.Is(Fitted.None, Fitted.Off), Corner.PinCaps.Is(Fitted.None, Fitted.Off))
        .Saying("sensor, springs, caps and hose bracket out of the way").When(s => s.Fittings.Count > 0);
    private static readonly Condition SmallPartsOn = Condition.All(
        Corner.Sensor.Is(Fitted.None, Fitted.On), Corner.RattleSpring.Is(Fitted.None, Fitted.On), Corner.HoseBracket.Is(Fitted.None, Fitted.On), Corner.PinCaps.Is(Fitted.None, Fitted.On),
        Corner.HatPlug.Is(Fitted.None, Fitted.On), Corner.CableEnd.Is(Fitted.None, Fitted.On)).Saying("caps, clips, springs, sensor and plug counted and on");
    private static readonly Condition CaliperBolted = Condition.Any([Corner.Caliper.Is(Caliper.On), Corner.SlidePins.Is(Bolts.Torqued)], [Corner.Caliper.Is(Caliper.On), Corner.SlidePins.Is(Bolts.None), Corner.BracketBolts.Is(Bolts.Tight, Bolts.Torqued)]).Saying("the caliper on and its bolts torqued");
    private static readonly Condition IgnitionForTheSwitch = ((Condition)Car.Ignition.Is(Ignition.On)).When(s => s.IsElectric);
    private static readonly Condition FreeToTurn = Condition.All(Corner.TurnsFree.Both(Done.Yes)).Saying("both sides turn free by hand");
    // What taking a brake apart again takes back.
    private static readonly Effect[] Opens = [Car.Pedal.To(Pedal.NotPumped), Car.Leaks.To(Done.No), Corner.TurnsFree.To(Done.No), Corner.LeadSigned.To(Done.No)];
    private static readonly Requirement PadsOut = Corner.Pads.Is(PadState.None);
    private static readonly Condition PartsSettled = Condition.All(
        [Car.RightPart.Is(Asked.Nothing, Asked.Done), .. Corner.Judged.Both(Done.Yes), .. Corner.Doubt.Both(Doubt.None), Car.NewParts.Is(Done.Yes)]).Saying("both sides measured and judged with nothing in doubt, and new parts compared with old");

    private static readonly Condition ShoesJudged = Condition.All(Corner.ShoesJudged.Both(Done.Yes)).Saying("drum and shoes of both sides measured and judged").When(s => s.HatOpen);
    private static readonly Requirement RotorIsOn = Corner.Rotor.Is(Rotor.Old, Rotor.New);
    private static readonly Condition ShoesBackedOff = ((Condition)Corner.Shoes.Is(ShoesState.BackedOff, ShoesState.NewLoose)).When(s => s.HatOpen);
    private static readonly Condition ShoesSet = ((Condition)Corner.Shoes.Is(ShoesState.Set, ShoesState.NewSet)).When(s => s.HatOpen);

    private static readonly Condition AlwaysBled = ((Condition)Car.Hydraulics.Is(HydraulicsState.Bled)).When(s => s.Rules.Bleeding == BleedRule.Always && !s.InspectOnly);

    private static readonly Condition ScrewsCracked =
        Condition.All(Corner.RotorScrews.Both(Bolts.Cracked, Bolts.Out, Bolts.Torqued, Bolts.None)).Saying("rotor screws of both sides cracked");

    /// <summary>The catalogue.</summary>
    public static IReadOnlyList<StepType> All { get; } =
    [
        .. Interlocks.All.Select(i => new StepType($"remedy-{i.Number}", $"Put right, rule {i.Number}", Stage.MakeSafe, Lane.Car, RoundCar, 3, i.Why)
        {
            Applies = s => s.Broken.Contains(i.Number), Needs = [Remedies.All[i.Number - 1].Is(Asked.Due), ((Condition)Condition.All(Corner.NewBolts.Both(NewBolts.NotNeeded, NewBolts.LaidOut))).When(_ => i.Number == 14)],
            Makes =
            [
                Remedies.All[i.Number - 1].To(Asked.Done),
                // Where the brake was moved when it must not be, putting right brings it back to where the work needs it.
                .. i.Number is 2 or 11 ? [Car.Brake.To(ParkingBrake.Service).When(s => s.InService), Car.Brake.To(ParkingBrake.Released).When(s => !s.InService && !s.IsPlain)] : Array.Empty<Effect>(),
            ],
            How = i.Remedy,
        }),

        // Look
        new("look-over", "Look the car over", Stage.Look, Lane.Car, RoundCar, 6, "What came in decides what must be asked of it.")
        {
            Makes = [Car.LookedOver.To(Done.Yes)],
            How = "Short roll, warning lamps, jacking points, locking-nut key. The questions stand beside.",
        },
        new("identify", "Identify brake", Stage.Look, Lane.Corner, Place.Corner, 4, "The piston's way back differs by type, and a repaired corner can differ from its twin.")
        {
            Makes = [Corner.Identified.To(Done.Yes)],
            How = "Touch what you see until one way back is left.",
        },
        new("choose-route", "Choose the route", Stage.Look, Lane.Car, Bench, 1, "The route into the service position decides the order of everything after it.")
        {
            Applies = s => s.NeedsRoute,
            Needs = [Condition.All(Corner.Identified.Both(Done.Yes))],
            Makes = [Car.Route.To(Route.Chosen)],
        },

        // Make safe
        new("chocks-in", "Chock both ways", Stage.MakeSafe, Lane.Car, RoundCar, 2, "The rear brake is about to stop holding the car.")
        {
            Needs = [OnGround], Makes = [Car.Chocks.To(Chocks.In)], Tools = ["wheel chocks"],
            How = "Chocks at the other axle, both ways.",
        },
        new("nuts-cracked", "Crack wheel nuts", Stage.MakeSafe, Lane.Corner, Place.Corner, 2, "On the ground the tyre holds against the wrench.")
        {
            Needs = [OnGround, Corner.Nuts.Is(Bolts.Tight, Bolts.Torqued), Condition.Any([Car.Brake.Is(ParkingBrake.Applied)], [Chocked])], Makes = [Corner.Nuts.To(Bolts.Cracked)], Tools = ["wheel-nut bar"],
            How = "A quarter turn each, no more.",
        },
        new("battery-held", "Battery held up", Stage.MakeSafe, Lane.Car, Bonnet, 2, "The service function refuses a weak battery, and the actuators must not stop halfway.")
        {
            Applies = s => s.ByTool || s.ByInCar, Makes = [Car.Battery.To(Battery.Supported)], Tools = ["battery charger"], Readings = [ReadingKind.BatteryVoltage],
            How = "Charger on. 12.0 V is the usual floor.",
        },
        new("ignition-on", "Ignition on", Stage.MakeSafe, Lane.Car, Cabin, 1, "Switch and scan tool work only with the ignition on.")
        {
            Applies = s => s.IsElectric, Needs = [Car.Key.Is(Key.Near), Car.Ignition.Is(Ignition.Off), Car.Pedal.Is(Pedal.Firm, Pedal.NotPumped)], Makes = [Car.Ignition.To(Ignition.On), Car.Sleep.To(CarSleep.Awake)], Concerns = Concern.WakesCar,
            Cautions = [Cautions.SelfPressurising],
            How = "On, engine off.",
        },
        new("codes-read", "Read codes", Stage.MakeSafe, Lane.Car, Cabin, 3, "Codes that were there before are told apart from those the job makes.")
        {
            Applies = s => s.ByTool, Needs = [IgnitionOn, Car.Codes.Is(Codes.Unread)], Makes = [Car.Codes.To(Codes.Read)], Tools = ["scan tool"],
            How = "Write what the tool says in the note.",
        },
        new("auto-inhibited", "Auto-apply off", Stage.MakeSafe, Lane.Car, Cabin, 1, "Auto-hold or auto-apply would close the brake on an open caliper.")
        {
            Applies = s => s.IsElectric, Needs = [IgnitionOn, Car.AutoApply.Is(AutoApply.Active)], Makes = [Car.AutoApply.To(AutoApply.Inhibited)],
            How = "Auto-hold and auto-apply off, as the sheet says.",
        },
        new("brake-released", "Brake released", Stage.MakeSafe, Lane.Car, Cabin, 1, "A loaded mechanism cannot be opened.")
        {
            Applies = s => !s.IsPlain,
            Needs = [Car.Brake.Is(ParkingBrake.Applied), ScrewsCracked.When(s => s.BrakeHoldsHub), IgnitionForTheSwitch, ((Condition)Car.AutoApply.Is(AutoApply.Inhibited)).When(s => s.IsElectric)],
            Makes = [Car.Brake.To(ParkingBrake.Released)], Concerns = Concern.ReleasesBrake,
            How = "By its own lever, pedal or switch. Watch the lamp go out.",
        },
        new("service-verified", "Verify the brake", Stage.MakeSafe, Lane.Car, Cabin, 3, "A step was undone: nobody knows where the brake stands.")
        {
            Applies = s => !s.IsPlain, Needs = [Car.Brake.Is(ParkingBrake.Unknown)], Makes = [Car.Brake.To(ParkingBrake.Released)], Concerns = Concern.ReleasesBrake,
            How = "Look at the lamp, the display and both levers or spindles. Click on only when it is seen released.",
        },
        new("lifted", "Lift, on stands", Stage.MakeSafe, Lane.Car, RoundCar, 6, "Nothing comes off a car that can come down.")
        {
            Needs =
            [
                OnGround, Condition.All(Corner.Nuts.Both(Bolts.Cracked, Bolts.Out, Bolts.Snug)).Saying("the nuts of both wheels cracked"),
                ((Condition)BrakeOff).When(s => s.IsCaliperType && !s.BrakeHoldsHub && !s.InspectOnly),
                ((Condition)Car.Brake.Is(ParkingBrake.Service)).When(s => s.InService && s.ServiceOnGround),
            ],
            Makes = [Car.Position.To(CarPosition.Stands), Car.BrakeProved.To(Done.No), Car.TestDrive.To(Done.No)], Concerns = Concern.Lifts, Tools = ["jack", "axle stands"], Cautions = [Cautions.Stands],
            How = "Jack under a sound point, stands under the axle, then rock it.",
        },
        new("wheel-off", "Wheel off", Stage.MakeSafe, Lane.Corner, Place.Corner, 2, "The brake is behind it.")
        {
            Needs = [Lifted, Corner.Wheel.Is(Wheel.On), Corner.Nuts.Is(Bolts.Cracked, Bolts.Snug), Corner.StuckWheel.Is(Asked.Nothing, Asked.Done)], Makes = [Corner.Wheel.To(Wheel.Off), Corner.Nuts.To(Bolts.Out)], Concerns = Concern.WheelOff,
            Cautions = [Cautions.Hot],
            How = "Keep the nuts together. A pilot pin in one hole where there are bolts.",
        },
        new("wheel-freed", "Free the wheel", Stage.MakeSafe, Lane.Corner, Place.Corner, 8, "A wheel rusted to its pilot does not come off by pulling.")
        {
            Applies = s => s.Found(CornerFinding.StuckWheel), Needs = [Lifted, Corner.StuckWheel.Is(Asked.Due)], Makes = [Corner.StuckWheel.To(Asked.Done)], Tools = ["rubber mallet", "penetrating oil"], Cautions = [Cautions.Stands],
            How = "Nuts a turn loose, oil on the pilot, heel and mallet low and high by turns. Never lie under it.",
        },
        new("screws-cracked-brake", "Crack rotor screws", Stage.Free, Lane.Corner, Place.Corner, 3, "The parking brake still holds the hub, for free.")
        {
            Applies = s => s.BrakeHoldsHub, Needs = [WheelOff, Corner.RotorScrews.Is(Bolts.Tight)], Makes = [Corner.RotorScrews.To(Bolts.Cracked)], Concerns = Concern.HubHeldByBrake,
            Tools = ["impact driver"], How = "Brake on. Crack them, leave them in.",
        },
        new("screws-cracked-bar", "Crack screws, bar", Stage.Free, Lane.Corner, Place.Corner, 7, "With the brake off, a bar across two studs holds the hub.")
        {
            Applies = s => s.Screws, Needs = [WheelOff, Corner.RotorScrews.Is(Bolts.Tight, Bolts.Torqued)], Makes = [Corner.RotorScrews.To(Bolts.Cracked)],
            Tools = ["bar across two studs", "impact driver"],
            How = "A bar across two studs against the floor. Crack them, leave them in.",
        },
        .. new[]
        {
            ("service-entered", (Func<PlanSetup, bool>)(s => s.ByTool), "The tool drives the mechanism back; only then can a piston slide.", "scan tool", "Select the service function for the rear brake and wait until it stops. Say what the tool said."),
            ("service-entered-car", s => s.ByInCar, "The car drives the mechanism back itself; only then can a piston slide.", "", "The sheet's sequence, step by step, with the clock beside it. The display confirms."),
            ("puller-released", s => s.ByPuller, "The box lets both cables go; only then do the levers lie on their stops.", "release key or pull", "The manual release, as the sheet says. Watch both levers come back."),
        }.Select(r => new StepType(r.Item1, "Service position", Stage.MakeSafe, Lane.Car, Cabin, 4, r.Item3)
        {
            Applies = r.Item2,
            Needs =
            [
                ((Condition)IgnitionOn).When(s => !s.ByPuller), ((Condition)Car.Battery.Is(Battery.Supported)).When(s => !s.ByPuller), Car.AutoApply.Is(AutoApply.Inhibited),
                Car.Brake.Is(ParkingBrake.Released, ParkingBrake.ProvedReleased), Car.Tag.Is(Done.No),
                Condition.All([.. Corner.Caliper.Both(Caliper.On), .. Corner.Actuator.Both(Actuator.None, Actuator.Plugged)]).Saying("both calipers on and every actuator plugged in"),
                ((Condition)OnGround).When(s => s.ServiceOnGround),
            ],
            Makes =
            [
                Car.Brake.To(ParkingBrake.Service), Car.Closing.To(Closing.Open), .. Corner.Spindle.BothTo(Spindle.Back).Select(e => e.When(s => s.IsMotor)),
                Car.Cable.To(CableRun.Slack).When(s => s.PullsCables), .. Corner.Lever.BothTo(Lever.NotSeen).Select(e => e.When(s => s.IsPuller)),
            ],
            Concerns = Concern.ReleasesBrake, Tools = r.Item4.Length > 0 ? [r.Item4] : [], Cautions = [Cautions.Actuators], How = r.Item5,
        }),
        new("switch-tagged", "Tag the switch", Stage.MakeSafe, Lane.Car, Cabin, 1, "One press would drive the mechanism into open calipers.")
        {
            Applies = s => s.InService, Needs = [Car.Brake.Is(ParkingBrake.Service), Car.Tag.Is(Done.No)], Makes = [Car.Tag.To(Done.Yes)], Parts = ["do-not-touch tag"],
            How = "Tag on the switch: do not touch.",
        },
        new("gear-neutral", "Gear to neutral", Stage.MakeSafe, Lane.Car, Cabin, 1, "A wheel turned by hand proves the release only in neutral.")
        {
            Applies = s => s.ByHand, Needs = [Lifted, Car.Gear.Is(Gear.Park), Car.Brake.Is(ParkingBrake.Released)], Makes = [Car.Gear.To(Gear.Neutral)], Concerns = Concern.LeavesPark,
            How = "Chocks in first: nothing else holds it now.",
        },
        new("ignition-off", "Ignition off", Stage.MakeSafe, Lane.Car, Cabin, 1, "A sleeping car does not move its brakes.")
        {
            Applies = s => s.IsElectric, Needs = [IgnitionOn, Car.Closing.Is(Closing.Open, Closing.NotNeeded), Car.Brake.Is(ParkingBrake.Released, ParkingBrake.ProvedReleased, ParkingBrake.Service)], Makes = [Car.Ignition.To(Ignition.Off)],
            How = "Off, doors left on the latch where a door wakes the car.",
        },
        new("release-proved", "Prove it released", Stage.MakeSafe, Lane.Car, Place.RoundCar, 2, "Many cars apply again by themselves at ignition off; only a wheel that turns proves it.")
        {
            Applies = s => s.ByHand, Needs = [Lifted, Car.Brake.Is(ParkingBrake.Released), Car.Gear.Is(Gear.Neutral), Car.Ignition.Is(Ignition.Off)], Makes = [Car.Brake.To(ParkingBrake.ProvedReleased)],
            How = "Ignition off, neutral: both hubs turn by hand.",
        },
        new("key-away", "Key out of range", Stage.MakeSafe, Lane.Car, Bench, 1, "A near key wakes the car.")
        {
            Applies = s => s.IsElectric, Needs = [Car.Ignition.Is(Ignition.Off), Car.Key.Is(Key.Near)], Makes = [Car.Key.To(Key.Away)],
            How = "On the bench or in the office, out of range.",
        },
        new("car-asleep", "Wait for sleep", Stage.MakeSafe, Lane.Car, Bench, 5, "An actuator is unplugged only from a car that sleeps.")
        {
            Applies = s => s.Unplugs, Needs = [Car.Key.Is(Key.Away), Car.Ignition.Is(Ignition.Off), Car.Sleep.Is(CarSleep.Awake)], Makes = [Car.Sleep.To(CarSleep.Asleep)],
            How = "Until every lamp and relay is quiet; the sheet says how long.",
        },
        new("actuator-unplugged", "Unplug actuator", Stage.Free, Lane.Corner, Place.Corner, 1, "With no plug nothing moves.")
        {
            Applies = s => s.Unplugs, Needs = [WheelOff, Corner.Actuator.Is(Actuator.Plugged), ((Condition)Car.Brake.Is(ParkingBrake.ProvedReleased)).When(s => s.ByHand), ((Condition)Car.Brake.Is(ParkingBrake.Service)).When(s => !s.ByHand)], Makes = [Corner.Actuator.To(Actuator.Unplugged)], Concerns = Concern.Unplugs,
            Cautions = [Cautions.Actuators],
            How = "Press the catch, pull by the plug, never by its wires.",
        },
        new("actuator-off", "Actuator off", Stage.Free, Lane.Corner, Place.Corner, 4, "The spindle is behind it.")
        {
            Applies = s => s.ByHand, Needs = [Corner.Actuator.Is(Actuator.Unplugged), Corner.ActuatorScrews.Is(Bolts.Tight), Corner.Caliper.Is(Caliper.On)], Makes = [Corner.Actuator.To(Actuator.Off), Corner.ActuatorScrews.To(Bolts.Out)],
            How = "Two small screws. Wriggle it off square. Wipe the O-ring.",
        },
        new("spindle-back", "Spindle back", Stage.Free, Lane.Corner, Place.Corner, 4, "A piston pushed onto its spindle breaks one of them.")
        {
            Applies = s => s.ByHand, Needs = [Corner.Actuator.Is(Actuator.Off), Corner.Spindle.Is(Spindle.Out, Spindle.Unknown)], Makes = [Corner.Spindle.To(Spindle.Back), Car.Closing.To(Closing.Open)],
            Tools = ["spindle driver, by hand"], How = "Usually clockwise facing it. Light effort only, until it stops. Never a powered driver.",
        },
        new("spindle-verified", "Verify spindle", Stage.Free, Lane.Corner, Place.Corner, 3, "Nobody knows where this spindle stands.")
        {
            Applies = s => s.IsMotor && s.InService, Needs = [Corner.Spindle.Is(Spindle.Unknown), Car.Brake.Is(ParkingBrake.Service)], Makes = [Corner.Spindle.To(Spindle.Back)],
            How = "Look through the tool's live data, or at the piston: it must give to a thumb.",
        },
        new("cable-slack", "Cable slack", Stage.Free, Lane.Car, RoundCar, 4, "A tight cable holds the lever off its stop, and the screw will not wind home.")
        {
            Applies = s => s.IsCable && !s.InspectOnly, Needs = [Car.Cable.Is(CableRun.Tight, CableRun.TakenUp), Corner.Wheel.At(Where.Left, Wheel.Off), Corner.Wheel.At(Where.Right, Wheel.Off)],
            Makes = [Car.Cable.To(CableRun.Slack), Car.Closing.To(Closing.Open), .. Corner.Lever.BothTo(Lever.NotSeen)], Concerns = Concern.SlackensCable | Concern.UnderCar,
            How = "At the adjuster, until both levers come back by their own springs.",
        },
        new("shoe-cable-slack", "Cable slack", Stage.Free, Lane.Car, RoundCar, 4, "A tight cable holds the shoes out, and mimics a tight adjuster.")
        {
            Applies = s => s.HatOpen && s.HatCable, Needs = [Lifted, Car.Cable.Is(CableRun.Tight, CableRun.TakenUp), BrakeOff], Makes = [Car.Cable.To(CableRun.Slack), Car.Closing.To(Closing.Open)], Concerns = Concern.SlackensCable | Concern.UnderCar,
            How = "At the adjuster, until both shoe levers lie on their stops.",
        },
        new("hat-plug-out", "Hat plug out", Stage.Free, Lane.Corner, Place.Corner, 1, "The star wheel is behind it.")
        {
            Applies = s => s.Disturbs(Fitting.HatPlug), Needs = [WheelOff, Corner.HatPlug.Is(Fitted.On), Corner.Shoes.Is(ShoesState.Set, ShoesState.NewSet)], Makes = [Corner.HatPlug.To(Fitted.Off)],
            How = "Keep it: it goes back when the shoes are set.",
        },
        new("star-wheel-backed", "Back off star wheel", Stage.Free, Lane.Corner, Place.Corner, 4, "The ridge of a worn drum catches the shoes and drags them off their pins.")
        {
            Applies = s => s.HatOpen, Needs = [WheelOff, Corner.Shoes.Is(ShoesState.Set), Corner.Rotor.Is(Rotor.Old, Rotor.New), Car.Cable.Is(CableRun.Slack, CableRun.None), BrakeOff, Corner.HatPlug.Is(Fitted.None, Fitted.Off),
                ((Condition)Car.Brake.Is(ParkingBrake.Service)).When(s => s.IsElectric), ((Condition)Car.Tag.Is(Done.Yes)).When(s => s.InService)],
            Makes = [Corner.Shoes.To(ShoesState.BackedOff)],
            Tools = ["star-wheel spoon", "torch"], Readings = [ReadingKind.ClicksBack],
            How = "Hub turned so that the hole faces the star wheel. If the drag grows within ten clicks, go the other way, and note it on the shoe bench.",
        },
        new("star-wheel-again", "Back off star wheel", Stage.Free, Lane.Corner, Place.Corner, 4, "New shoes that were set hold the hat as firmly as old ones.")
        {
            Applies = s => s.ShoesNew, Needs = [WheelOff, Corner.Shoes.Is(ShoesState.NewSet), Car.Cable.Is(CableRun.Slack, CableRun.None), BrakeOff, Corner.HatPlug.Is(Fitted.None, Fitted.Off)], Makes = [Corner.Shoes.To(ShoesState.NewLoose)],
            Tools = ["star-wheel spoon", "torch"], How = "Back the way it was set, by the same count.",
        },
        new("ridge-backed", "Back off further", Stage.Free, Lane.Corner, Place.Corner, 3, "The hat still catches: the ridge stands further in than the shoes.")
        {
            Applies = s => s.Found(CornerFinding.Ridge), Needs = [Corner.Ridge.Is(Asked.Due), Corner.Shoes.Is(ShoesState.BackedOff, ShoesState.NewLoose, ShoesState.None)], Makes = [Corner.Ridge.To(Asked.Done)], Tools = ["star-wheel spoon", "torch"],
            How = "Push the hat back on, ten clicks more the same way, and try again. The shoe bench says how many the ridge needs.",
        },
        new("reservoir-looked", "Look at reservoir", Stage.Free, Lane.Car, Bonnet, 2, "Fluid comes back as the pistons go in; the level says whether it fits.")
        {
            Makes = [Car.Reservoir.To(Done.Yes)], Readings = [ReadingKind.ReservoirLevel], Cautions = [Cautions.Fluid],
            Needs = [Car.Reservoir.Is(Done.No)],
            HowFor = s => s.Rules.Cap == CapRule.StaysOn ? "Cap stays on. Read the level between the marks." : "Read the level between the marks. The cap comes off, a rag round the neck, only before the first piston moves.",
        },
        new("fluid-looked", "Look for fluid", Stage.Free, Lane.Car, RoundCar, 3, "A step was undone: nobody knows whether a piston left its bore.")
        {
            Needs = [Car.Hydraulics.Is(HydraulicsState.Unknown)], Makes = [Car.Hydraulics.To(HydraulicsState.Closed)], Otherwise = [Car.Hydraulics.To(HydraulicsState.Open)],
            How = "Wet boot, wet floor, a piston out of its bore?",
        },

        // Free
        .. SmallParts(true),
        new("spot-off", "Spot caliper off", Stage.Free, Lane.Corner, Place.Corner, 5, "The rotor does not pass it.")
        {
            Applies = s => s.SpotOff, Needs = [WheelOff, Corner.Spot.Is(SpotCaliper.On), BrakeOff, ScrewsCracked.When(s => s.Screws), ((Condition)Car.Brake.Is(ParkingBrake.Service)).When(s => s.NeedsRoute), ((Condition)Car.Tag.Is(Done.Yes)).When(s => s.NeedsRoute)],
            Makes = [Corner.Spot.To(SpotCaliper.Hung), Corner.SpotBolts.To(Bolts.Out)], Tools = ["caliper hook"], Cautions = [Cautions.Dust],
            How = "Two bolts, cable or plug left on. Hang it on a hook. Its own pads are their own job.",
        },
        new("fixed-caliper-off", "Caliper off, hung", Stage.Free, Lane.Corner, Place.Corner, 5, "The rotor does not pass it.")
        {
            Applies = s => s.IsFixed && s.CaliperComesOff, Needs = [WheelOff, Corner.Caliper.Is(Caliper.On), PadsOut, ScrewsCracked.When(s => s.Screws)],
            Makes = [Corner.Caliper.To(Caliper.Hung), Corner.BracketBolts.To(Bolts.Out), .. Opens], Concerns = Concern.CaliperOff, Tools = ["caliper hook", "breaker bar"], Cautions = [Cautions.Dust, Cautions.Hot],
            How = "Two mounting bolts. Hang it on a hook, never on its hose. A block between the pistons.",
        },
        new("caliper-off", "Caliper off, hung", Stage.Free, Lane.Corner, Place.Corner, 5, "The pads come out behind it.")
        {
            Applies = s => !s.IsFixed && s.CaliperComesOff,
            Needs = [WheelOff, Corner.Caliper.Is(Caliper.On), ((Condition)Corner.Spindle.Is(Spindle.Back)).When(s => s.IsMotor), SmallPartsOff, ScrewsCracked.When(s => s.Screws)],
            Makes = [Corner.Caliper.To(Caliper.Hung), Corner.SlidePins.To(Bolts.Out), .. Opens], Concerns = Concern.CaliperOff, Tools = ["caliper hook", "holding spanner"],
            Cautions = [Cautions.Dust, Cautions.Hot], How = "Hold the pin, undo its bolt. Hang the caliper on a hook, never on its hose.",
        },
        new("pads-out", "Pads out", Stage.Free, Lane.Corner, Place.Corner, 2, "Old pads are measured in the hand and laid beside the new ones.")
        {
            Applies = s => !s.InspectOnly,
            Needs = [CaliperClear, CaliperThere, ((Condition)WheelOff).When(s => s.IsFixed), SmallPartsOff.When(s => s.IsFixed && s.Fittings.Count > 0), Corner.Pads.Is(PadState.Old)], Makes = [Corner.Pads.To(PadState.None), .. Opens], Cautions = [Cautions.Springs],
            How = "Note how springs, clips and the wear indicator lay.",
        },
        new("pads-kept-out", "Fitted pads out", Stage.Free, Lane.Corner, Place.Corner, 2, "They come out again for what is behind them, and are kept clean.")
        {
            Applies = s => s.PadsNew, Needs = [CaliperClear, CaliperThere, ((Condition)WheelOff).When(s => s.IsFixed), Corner.Pads.Is(PadState.New)], Makes = [Corner.Pads.To(PadState.None), .. Opens], Cautions = [Cautions.Springs],
            How = "Lay them face up, marked inner and outer. No grease near them.",
        },
        // Judge
        new("inspected", "Measure, judge", Stage.Judge, Lane.Corner, Place.Corner, 6, "What can be seen with nothing disturbed; shoes and drum are not seen, for the rotor stays on.")
        {
            Applies = s => s.InspectOnly, Needs = [WheelOff, Corner.Judged.Is(Done.No)], Makes = [Corner.Judged.To(Done.Yes)], Readings = [ReadingKind.InnerPad, ReadingKind.OuterPad, ReadingKind.RotorThickness],
            Tools = ["pad gauge", "caliper", "torch"], Cautions = [Cautions.Dust], How = "Both pads through the window, the rotor at its thinnest, boot, hose and pipe all round.",
        },
        new("measured", "Measure, judge", Stage.Judge, Lane.Corner, Place.Corner, 5, "What is fitted follows from what is measured, and how far the piston goes back too.")
        {
            Applies = s => !s.InspectOnly,
            Needs = [PadsOut, CaliperClear, CaliperThere, Corner.Rotor.Is(Rotor.Old), Corner.Judged.Is(Done.No), Car.Reservoir.Is(Done.Yes)],
            Makes = [Corner.Judged.To(Done.Yes), Corner.Room.To(Room.Enough)], Otherwise = [Corner.Judged.To(Done.Yes), Corner.Room.To(Room.Short)],
            Readings = [ReadingKind.InnerPad, ReadingKind.OuterPad, ReadingKind.RotorThickness, ReadingKind.PistonProtrusion], MoreReadings = s => s.IsFixed ? [ReadingKind.OuterProtrusion] : [],
            Tools = ["caliper", "micrometer", "depth gauge"],
            How = "Thinnest place of each. The piston from the land the sheet measures from; of several on a side the one furthest out.",
        },
        new("verdict-settled", "Measure again or renew", Stage.Judge, Lane.Corner, Place.Corner, 4, "Too close to call is not passed: either a better measurement decides, or the part is renewed.")
        {
            Needs = [Corner.Doubt.Is(Doubt.Open)], Makes = [Corner.Doubt.To(Doubt.None)], Otherwise = [Corner.Doubt.To(Doubt.None)],
            How = "Measure again on its bench with what would settle it. Or renew the part.",
        },
        new("right-part", "The right part", Stage.Judge, Lane.Car, Bench, 5, "A wrong part stops the work until the right one lies here.")
        {
            Applies = s => s.WrongPart, Needs = [Car.RightPart.Is(Asked.Due)], Makes = [Car.RightPart.To(Asked.Done)], Parts = ["the right part, ordered"],
            How = "Order by the vehicle's identification. Click on when it has come.",
        },
        new("parts-compared", "Compare new parts with old", Stage.Judge, Lane.Car, Bench, 3, "A wrong part is found before anything is retracted for it.")
        {
            Needs = [Condition.Any([Corner.Pads.At(Where.Left, PadState.None)], [Corner.Pads.At(Where.Right, PadState.None)]), Car.RightPart.Is(Asked.Nothing, Asked.Done)], Makes = [Car.NewParts.To(Done.Yes)], Applies = s => !s.InspectOnly,
            Parts = ["new parts"], How = "Shape, thickness, ears, indicator and pin side. Rotor: diameter, hat depth, bore.",
        },
        new("bolts-laid-out", "New bolts at hand", Stage.Judge, Lane.Corner, Bench, 1, "Single-use bolts are not refitted.")
        {
            Applies = s => s.NeedsNewBolts, Makes = [Corner.NewBolts.To(NewBolts.LaidOut)], Needs = [Corner.NewBolts.Is(NewBolts.Missing)], Parts = ["new single-use bolts"],
            How = "Count them against the sheet.",
        },
        new("bracket-off", "Bracket off", Stage.Free, Lane.Corner, Place.Corner, 4, "The rotor does not pass it.")
        {
            Applies = s => s.BracketOff, Needs = [PadsOut, CaliperHung, Corner.Bracket.Is(Bracket.On), Corner.Rotor.Is(Rotor.Old, Rotor.New)], Makes = [Corner.Bracket.To(Bracket.Off), Corner.BracketBolts.To(Bolts.Out)], Tools = ["breaker bar"],
            How = "Two bolts. Support it as the second comes out.",
        },
        new("rotor-freed", "Free the rotor", Stage.Free, Lane.Corner, Place.Corner, 8, "A rotor rusted to its hub bends before it comes.")
        {
            Applies = s => s.Found(CornerFinding.StuckRotor), Needs = [PadsOut, Corner.StuckRotor.Is(Asked.Due)], Makes = [Corner.StuckRotor.To(Asked.Done)], Tools = ["jacking screws", "penetrating oil", "mallet"], Cautions = [Cautions.Eyes],
            How = "Jacking screws where it is threaded. Blows between the studs only on a part that is renewed, never on the speed-sensor ring.",
        },
        new("screw-decided", "Broken rotor screw", Stage.Free, Lane.Corner, Place.Corner, 6, "The wheel holds the rotor on the road; the screw only holds it while you work. What was decided stands in the record.")
        {
            Applies = s => s.Found(CornerFinding.BrokenScrew), Needs = [WheelOff, Corner.BrokenScrew.Is(Asked.Due)], Makes = [Corner.BrokenScrew.To(Asked.Done), Corner.RotorScrews.To(Bolts.None)],
            Otherwise = [Corner.BrokenScrew.To(Asked.Done), Corner.RotorScrews.To(Bolts.Out)], Tools = ["file", "drill"], Cautions = [Cautions.Eyes],
            How = "Flush with the hub, and run without it. Or drill it out and fit a new one. Say which in the note.",
        },
        new("rotor-off", "Rotor off", Stage.Free, Lane.Corner, Place.Corner, 4, "Out with the old before its hub can be cleaned.")
        {
            Applies = s => s.RotorOff,
            Needs = [PadsOut, ((Condition)CaliperHung).When(s => s.IsFixed), Corner.Rotor.Is(Rotor.Old), Corner.HubClean.Is(Done.No), Corner.Judged.Is(Done.Yes), Corner.Spot.Is(SpotCaliper.None, SpotCaliper.Hung), Corner.StuckRotor.Is(Asked.Nothing, Asked.Done), Corner.Ridge.Is(Asked.Nothing, Asked.Done),
                Corner.BrokenScrew.Is(Asked.Nothing, Asked.Done), ((Condition)Corner.Bracket.Is(Bracket.Off)).When(s => s.BracketOff), Corner.RotorScrews.Is(Bolts.Cracked, Bolts.Out, Bolts.None)],
            Makes = [Corner.Rotor.To(Rotor.Off)], Concerns = Concern.HatOff, Cautions = [Cautions.Eyes], How = "Screws out, then the rotor. Never a blow on the speed-sensor ring.",
        },
        new("rotor-off-again", "Rotor off again", Stage.Free, Lane.Corner, Place.Corner, 4, "What is behind it was not finished.")
        {
            Applies = s => s.RotorOff,
            Needs = [PadsOut, ((Condition)CaliperHung).When(s => s.IsFixed), Corner.Rotor.Is(Rotor.Old, Rotor.New), Corner.HubClean.Is(Done.Yes), Corner.Spot.Is(SpotCaliper.None, SpotCaliper.Hung), ((Condition)Corner.Bracket.Is(Bracket.Off)).When(s => s.BracketOff), Corner.RotorScrews.Is(Bolts.Cracked, Bolts.Out, Bolts.None)],
            Makes = [Corner.Rotor.To(Rotor.Off)], Concerns = Concern.HatOff, How = "Keep its faces clean.",
        },

        new("shoes-measured", "Drum and shoes", Stage.Judge, Lane.Corner, Place.Corner, 8, "The drum against its maximum, the linings against their minimum, and the clearance to set.")
        {
            Applies = s => s.HatOpen, Needs = [Corner.Rotor.Is(Rotor.Off), Corner.Shoes.Is(ShoesState.BackedOff), Corner.ShoesJudged.Is(Done.No)], Makes = [Corner.ShoesJudged.To(Done.Yes)],
            Tools = ["drum gauge", "depth gauge", "pick"], Cautions = [Cautions.Dust, Cautions.Springs],
            How = "Four directions at two depths; each lining at both ends and its middle. On the shoe bench.",
        },
        new("shoes-off", "Shoes off", Stage.Free, Lane.Corner, Place.Corner, 8, "Old shoes come off once both sides are judged, so that one side stays as the pattern.")
        {
            Applies = s => s.ShoesNew, Needs = [Corner.Rotor.Is(Rotor.Off), Corner.Shoes.Is(ShoesState.BackedOff), Corner.ShoesJudged.Is(Done.Yes)], Makes = [Corner.Shoes.To(ShoesState.Off)],
            Tools = ["spring hook", "phone for a picture"], Cautions = [Cautions.Springs, Cautions.Eyes, Cautions.Dust],
            How = "A picture first. Hold-down pins, upper spring, shoes, adjuster. Left and right adjusters never change sides.",
        },

        // Clean
        new("plate-clean", "Plate clean", Stage.Clean, Lane.Corner, Place.Corner, 4, "Shoes that drag on their rests leave the drum crooked.")
        {
            Applies = s => s.ShoesNew, Needs = [Corner.Shoes.Is(ShoesState.Off)], Makes = [Corner.PlateClean.To(Done.Yes)], Cautions = [Cautions.Dust], Parts = ["high-temperature grease"],
            How = "Wet, never blown. A trace of grease on the rests and the adjuster's thread, none near a lining.",
        },
        new("hub-clean", "Hub face clean", Stage.Clean, Lane.Corner, Place.Corner, 6, "A speck of rust here is runout at the rim.")
        {
            Applies = s => s.RotorOff, Needs = [Corner.Rotor.Is(Rotor.Off)], Makes = [Corner.HubClean.To(Done.Yes)], Cautions = [Cautions.Eyes, Cautions.Dust],
            PartsFor = s => s.Rules.HubPilot == PilotRule.Smear ? ["anti-seize for the pilot lip only"] : [],
            HowFor = s => "Bright and flat. " + (s.Rules.HubPilot == PilotRule.Smear ? "A smear of anti-seize on the pilot lip only, none on face or studs." : "The pilot lip stays clean and dry."),
        },
        new("lands-clean", "Clean bracket abutments", Stage.Clean, Lane.Corner, Place.Corner, 5, "Pads must slide by hand in the bracket.")
        {
            Applies = s => !s.InspectOnly, Needs = [PadsOut, CaliperClear, CaliperThere], Makes = [Corner.LandsClean.To(Done.Yes)], Cautions = [Cautions.Dust, Cautions.Eyes],
            PartsFor = s => ["new clips", .. s.Rules.UnderClips == ClipsRule.Film ? ["protective film for under the clips"] : Array.Empty<string>(), .. s.Rules.PadEars == PadEarsRule.Greased ? ["ceramic or silicone brake grease for the pad ears"] : Array.Empty<string>()],
            HowFor = s => $"To bare metal; {(s.Rules.UnderClips == ClipsRule.Film ? "a thin film under the new clips" : "the new clips go on bare metal")}. "
                + (s.Rules.PadEars == PadEarsRule.Greased ? "A trace of ceramic or silicone grease where the ears slide." : "The ears slide dry on coated hardware."),
        },
        new("hardware-new", "New hardware", Stage.Clean, Lane.Corner, Place.Corner, 5, "Pads that froze once freeze again on old clips.")
        {
            Applies = s => s.Found(CornerFinding.FrozenPads), Needs = [PadsOut, Corner.LandsClean.Is(Done.Yes), Corner.Hardware.Is(Asked.Due)], Makes = [Corner.Hardware.To(Asked.Done)], Parts = ["hardware kit: clips and springs"],
            How = "Old clips off, lands to bare metal under them, new clips home. A new pad slides by hand.",
        },
        new("pin-kit", "New slide pins", Stage.Clean, Lane.Corner, Place.Corner, 10, "A pin that seized is scored, or its bore is: the caliper would hang up again.")
        {
            Applies = s => s.Found(CornerFinding.SeizedPin), Needs = [CaliperHung, Corner.PinKit.Is(Asked.Due)], Makes = [Corner.PinKit.To(Asked.Done)], Parts = ["slide-pin kit, or a bracket"], Tools = ["bore brush"],
            How = "Pin out with heat from the tool only, bore brushed clean. A pin that still drags: a bracket.",
        },
        new("pins-greased", "Pins greased", Stage.Clean, Lane.Corner, Place.Corner, 4, "A dry pin wears the outer pad.")
        {
            Applies = s => !s.IsFixed && !s.InspectOnly, Needs = [CaliperHung, Corner.PinKit.Is(Asked.Nothing, Asked.Done)], Makes = [Corner.PinsGreased.To(Done.Yes)], Parts = ["synthetic or silicone rubber-safe grease"],
            How = "One pin at a time, thin, each back in its own bore. Never petroleum grease or anti-seize.",
        },
        new("rotor-degreased", "Degrease rotor", Stage.Clean, Lane.Corner, Bench, 2, "Shipping oil would go into the new pads.")
        {
            Applies = s => s.Rotors, Needs = [Corner.RotorClean.Is(Done.No)], Makes = [Corner.RotorClean.To(Done.Yes)], Parts = ["brake cleaner"],
            How = "Both faces, until the cloth stays clean.",
        },

        // Retract
        new("push-tried", "Try a gentle push", Stage.Retract, Lane.Corner, Place.Corner, 2, "With the spindle back, one gentle push parts the two motor designs.")
        {
            Applies = s => s.IsMotor, Needs = [CaliperHung, Corner.Method.Is(MethodState.Undecided), Corner.Spindle.Is(Spindle.Back), ((Condition)Corner.Room.Is(Room.Enough)).When(s => s.Rules.FluidRoom == FluidRoomRule.DrawOff)], Makes = [Corner.Method.To(MethodState.Known)],
            How = "Thumbs or a light press. Answer it under Look.",
        },
        new("lever-on-stop", "Lever on its stop", Stage.Retract, Lane.Corner, Place.Corner, 1, "A lever off its stop keeps the screw loaded.")
        {
            Applies = s => s.HasLever && !s.InspectOnly, Needs = [Lifted, Corner.Lever.Is(Lever.NotSeen), Car.Cable.Is(CableRun.Slack, CableRun.TakenUp), BrakeOff], Makes = [Corner.Lever.To(Lever.OnStop)],
            How = "Look and push it with a thumb: it must not move further.",
        },
        new("cap-off", "Cap off, rag round", Stage.Retract, Lane.Car, Bonnet, 1, "Displaced fluid rises without a bubble, and the rag keeps it off the paint.")
        {
            Applies = s => s.PadsNew && s.Rules.Cap == CapRule.OffWithRag, Needs = [Car.Cap.Is(CapState.On), Car.Reservoir.Is(Done.Yes)], Makes = [Car.Cap.To(CapState.Off)], Parts = ["rag"], Cautions = [Cautions.Fluid],
            How = "Wipe it first. Cap off, a clean rag round the neck.",
        },
        new("reservoir-again", "Reservoir again", Stage.Retract, Lane.Corner, Bonnet, 1, "The other piston has sent its fluid back: the room is judged again.")
        {
            Needs = [Car.Reservoir.Is(Done.Yes), Corner.Judged.Is(Done.Yes), Corner.Room.Is(Room.NotJudged), Corner.Piston.Is(Piston.Out)],
            Makes = [Corner.Room.To(Room.Enough)], Otherwise = [Corner.Room.To(Room.Short)], Readings = [ReadingKind.ReservoirLevel],
            How = "Read the level as it stands now.",
        },
        new("fluid-drawn", "Draw off fluid", Stage.Retract, Lane.Corner, Bonnet, 4, "More comes back than there is room for.")
        {
            Applies = s => !s.InspectOnly && s.Rules.FluidRoom == FluidRoomRule.DrawOff, Needs = [Corner.Room.Is(Room.Short)], Makes = [Corner.Room.To(Room.Enough)], Readings = [ReadingKind.FluidDrawn], Tools = ["clean syringe"], Cautions = [Cautions.Fluid],
            How = "With a clean syringe, from the top. Never back into the bottle.",
        },
        new("piston-home", "Piston home", Stage.Retract, Lane.Corner, Place.Corner, 6, "New pads need the room that the old ones gave up.")
        {
            Applies = s => s.PadsNew,
            Needs = [CaliperClear, CaliperThere, PadsOut, Corner.Piston.Is(Piston.Out), Corner.Method.Is(MethodState.Known), ((Condition)Car.Cap.Is(CapState.Off)).When(s => s.Rules.Cap == CapRule.OffWithRag)],
            Makes =
            [
                Corner.Piston.To(Piston.Home), Corner.Room.OtherTo(Room.NotJudged), Car.Pedal.To(Pedal.NotPumped),
                Car.Hydraulics.To(HydraulicsState.Open).When(s => s.Rules.FluidRoom == FluidRoomRule.OpenBleeder),
            ],
            Concerns = Concern.Retracts, Tools = ["retraction tool"],
            Readings = [ReadingKind.TurnsMade], Cautions = [Cautions.Fluid], How = "By the ruling on the bench. Watch the boot and the level.",
            PartsFor = s => s.Rules.Boot == BootRule.Greased ? ["silicone or rubber-safe grease for the boot lip"] : [],
        },

        // A new caliper
        new("cable-end-off", "Cable end off", Stage.Free, Lane.Corner, Place.Corner, 3, "The old caliper leaves without it.")
        {
            Applies = s => s.HasLever && s.AnyCaliperNew, Needs = [WheelOff, Car.Cable.Is(CableRun.Slack), Corner.CableEnd.Is(Fitted.On)], Makes = [Corner.CableEnd.To(Fitted.Off)],
            How = "Clip out and kept on the cable.",
        },
        new("old-caliper-away", "Old caliper away", Stage.Free, Lane.Corner, Place.Corner, 8, "The hose is opened only once the new caliper lies beside it.")
        {
            Applies = s => s.AnyCaliperNew,
            Needs = [CaliperHung, PadsOut, Corner.CaliperPart.Is(CaliperPart.Due), Car.NewParts.Is(Done.Yes), Car.RightPart.Is(Asked.Nothing, Asked.Done), Corner.CableEnd.Is(Fitted.None, Fitted.Off), Corner.Actuator.Is(Actuator.None, Actuator.Unplugged, Actuator.Off)],
            Makes = [Corner.Caliper.To(Caliper.Away), Corner.Hose.To(HoseState.Off), Car.Hydraulics.To(HydraulicsState.Open), Corner.LeadSigned.To(Done.No)], Cautions = [Cautions.Fluid, Cautions.Eyes],
            ToolsFor = s => s.Rules.Hose == HoseRule.Clamp ? ["smooth-jawed hose clamp", "tray"] : ["hose plug", "tray"],
            HowFor = s => (s.Rules.Hose == HoseRule.Clamp ? "The purpose-made clamp on the hose; banjo bolt out, both washers with it." : "Banjo bolt out, both washers with it; the hose end plugged at once, never pinched.") + " The reservoir never under MIN.",
        },
        new("new-caliper-hung", "New caliper on hose", Stage.Fit, Lane.Corner, Place.Corner, 6, "Right side, bleed screw up, before anything covers it.")
        {
            Applies = s => s.AnyCaliperNew, Needs = [Corner.Caliper.Is(Caliper.Away), Car.NewParts.Is(Done.Yes)],
            Makes = [Corner.Caliper.To(Caliper.Hung), Corner.CaliperPart.To(CaliperPart.New), Corner.Hose.To(HoseState.Snug), Corner.Piston.To(Piston.Home), Corner.Spindle.To(Spindle.Unknown).When(s => s.IsMotor)],
            Parts = ["new caliper", "new sealing washers"], Tools = ["caliper hook"], Cautions = [Cautions.Fluid], How = "New washers, banjo by hand, hose free of twist. Hang it on its hook.",
        },

        // Fit and torque
        new("shoes-on", "New shoes on", Stage.Fit, Lane.Corner, Place.Corner, 10, "They go on while the plate is open.")
        {
            Applies = s => s.ShoesNew, Needs = [Corner.Shoes.Is(ShoesState.Off), Corner.Rotor.Is(Rotor.Off), Corner.PlateClean.Is(Done.Yes), PartsSettled, ShoesJudged], Makes = [Corner.Shoes.To(ShoesState.NewLoose)], Concerns = Concern.FitsFriction,
            Parts = ["new parking shoes", "new springs and pins"], Tools = ["spring hook"], Cautions = [Cautions.Springs, Cautions.Eyes],
            How = "As on the picture: lever under its shoe, adjuster screwed in, springs hooked. Clean hands on the linings.",
        },
        new("rotor-on", "New rotor on", Stage.Fit, Lane.Corner, Place.Corner, 3, "Nothing else fits before it.")
        {
            Applies = s => s.Rotors, Needs = [Corner.Rotor.Is(Rotor.Off), Corner.HubClean.Is(Done.Yes), PartsSettled, ShoesJudged, ShoesBackedOff], Makes = [Corner.Rotor.To(Rotor.New)], Concerns = Concern.FitsFriction, Parts = ["new rotor"],
            How = "Flat on the hub, no rock. Handed rotors on their own side.",
        },
        new("rotor-back", "Rotor back on", Stage.Fit, Lane.Corner, Place.Corner, 3, "Nothing else fits before it.")
        {
            Applies = s => s.RotorOff && !s.Rotors, Needs = [Corner.Rotor.Is(Rotor.Off), Corner.HubClean.Is(Done.Yes), PartsSettled, ShoesJudged, ShoesBackedOff, ((Condition)Corner.Shoes.Is(ShoesState.NewLoose)).When(s => s.ShoesNew)], Makes = [Corner.Rotor.To(Rotor.Old)],
            How = "Flat on the hub, no rock, in the position the rotor bench advised.",
        },
        new("shoes-set", "Set the shoes", Stage.Fit, Lane.Corner, Place.Corner, 6, "The clearance needs a rotor that turns free: before bracket and caliper.")
        {
            Applies = s => s.HatOpen && !s.ShoesNew, Needs = [RotorIsOn, Corner.HubClean.Is(Done.Yes), Corner.Caliper.Is(Caliper.Hung, Caliper.Away), Corner.Shoes.Is(ShoesState.BackedOff), Car.Cable.Is(CableRun.Slack, CableRun.None), BrakeOff, ShoesJudged], Makes = [Corner.Shoes.To(ShoesState.Set)],
            Tools = ["star-wheel spoon"], Readings = [ReadingKind.ClicksOut],
            HowFor = SetBy,
        },
        new("new-shoes-set", "Set the shoes", Stage.Fit, Lane.Corner, Place.Corner, 6, "The clearance needs a rotor that turns free: before bracket and caliper.")
        {
            Applies = s => s.ShoesNew, Needs = [RotorIsOn, Corner.HubClean.Is(Done.Yes), Corner.Caliper.Is(Caliper.Hung, Caliper.Away), Corner.Shoes.Is(ShoesState.NewLoose), Car.Cable.Is(CableRun.Slack, CableRun.None), BrakeOff], Makes = [Corner.Shoes.To(ShoesState.NewSet)],
            Tools = ["star-wheel spoon"], Readings = [ReadingKind.ClicksOut],
            HowFor = SetBy,
        },
        new("rotor-screws-torqued", "Rotor screws", Stage.Torque, Lane.Corner, Place.Corner, 2, "The rotor must not rock while the rest goes on.")
        {
            Applies = s => s.Screws, Needs = [RotorIsOn, Corner.HubClean.Is(Done.Yes), Corner.RotorScrews.Is(Bolts.Cracked, Bolts.Out), Corner.BrokenScrew.Is(Asked.Nothing, Asked.Done)], Makes = [Corner.RotorScrews.To(Bolts.Torqued)], Torques = FastenerRole.RotorScrew,
            How = "By hand first.",
        },
        new("bracket-on", "Bracket on", Stage.Fit, Lane.Corner, Place.Corner, 3, "By hand first, to catch a crossed thread.")
        {
            Applies = s => s.BracketOff, Needs = [Corner.Bracket.Is(Bracket.Off), RotorIsOn, Corner.HubClean.Is(Done.Yes), Corner.LandsClean.Is(Done.Yes), Corner.RotorScrews.Is(Bolts.Torqued, Bolts.None), ShoesSet],
            Makes = [Corner.Bracket.To(Bracket.On), Corner.BracketBolts.To(Bolts.Snug)], Concerns = Concern.RefitsBolts,
            How = "Both bolts by hand, four full turns.",
        },
        new("bracket-torqued", "Bracket bolts", Stage.Torque, Lane.Corner, Place.Corner, 4, "The caliper is about to cover them.")
        {
            Applies = s => s.BracketOff, Needs = [Corner.Bracket.Is(Bracket.On), Corner.BracketBolts.Is(Bolts.Snug), Corner.Caliper.Is(Caliper.Hung, Caliper.Away)], Makes = [Corner.BracketBolts.To(Bolts.Torqued)], Torques = FastenerRole.Bracket, Tools = ["torque wrench"],
            PartsFor = s => s.LocksBracket ? ["thread locker, medium, for the bracket bolts"] : [],
            HowFor = s => s.SingleUse.Contains(FastenerRole.Bracket) ? "New bolts, as they come." : s.LocksBracket ? "Threads clean and dry, then thread locker, medium." : "Thread locker only where the sheet's note calls for it.",
        },
        new("spot-on", "Spot caliper on", Stage.Fit, Lane.Corner, Place.Corner, 4, "It goes back over the rotor before the wheel.")
        {
            Applies = s => s.SpotOff, Needs = [Corner.Spot.Is(SpotCaliper.Hung), RotorIsOn, Corner.HubClean.Is(Done.Yes), Corner.RotorScrews.Is(Bolts.Torqued, Bolts.None)], Makes = [Corner.Spot.To(SpotCaliper.On), Corner.SpotBolts.To(Bolts.Snug)],
            How = "Both bolts by hand. Its pads clear the rotor.",
        },
        new("spot-torqued", "Spot caliper bolts", Stage.Torque, Lane.Corner, Place.Corner, 3, "Reachable now, and the brake is applied on it later.")
        {
            Applies = s => s.SpotOff, Needs = [Corner.SpotBolts.Is(Bolts.Snug)], Makes = [Corner.SpotBolts.To(Bolts.Torqued)], Torques = FastenerRole.SpotCaliper, Tools = ["torque wrench"],
        },
        new("fixed-caliper-on", "Caliper on", Stage.Fit, Lane.Corner, Place.Corner, 4, "Over the rotor; the pads follow it.")
        {
            Applies = s => s.IsFixed && s.CaliperComesOff, Needs = [CaliperHung, RotorIsOn, ((Condition)Corner.HubClean.Is(Done.Yes)).When(s => s.RotorOff), ShoesSet, Corner.RotorScrews.Is(Bolts.Torqued, Bolts.None)],
            Makes = [Corner.Caliper.To(Caliper.On), Corner.BracketBolts.To(Bolts.Snug)], Concerns = Concern.CaliperOn | Concern.RefitsBolts, How = "Both mounting bolts by hand, hose free of twist, bleed screws up.",
        },
        new("mounting-torqued", "Mounting bolts", Stage.Torque, Lane.Corner, Place.Corner, 4, "Nothing goes into a caliper that can move.")
        {
            Applies = s => s.IsFixed && s.CaliperComesOff, Needs = [Corner.Caliper.Is(Caliper.On), Corner.BracketBolts.Is(Bolts.Snug)], Makes = [Corner.BracketBolts.To(Bolts.Torqued)], Torques = FastenerRole.Bracket, Tools = ["torque wrench"],
        },
        new("pads-back", "Old pads back", Stage.Fit, Lane.Corner, Place.Corner, 4, "They passed and go back where they were, each in its own place.")
        {
            Applies = s => !s.PadsNew && !s.InspectOnly,
            Needs = [PadsOut, Corner.Hardware.Is(Asked.Nothing, Asked.Done), ((Condition)Corner.Caliper.Is(Caliper.On)).When(s => s.IsFixed), RotorIsOn, ((Condition)Corner.HubClean.Is(Done.Yes)).When(s => s.RotorOff), Corner.LandsClean.Is(Done.Yes), Corner.Bracket.Is(Bracket.On), Corner.BracketBolts.Is(Bolts.Tight, Bolts.Torqued), PartsSettled],
            Makes = [Corner.Pads.To(PadState.Old)],
            How = "Inner to inner, leading end to leading end. They slide by hand.",
        },
        new("pads-in", "New pads in", Stage.Fit, Lane.Corner, Place.Corner, 4, "They slide by hand, indicator at the leading end.")
        {
            Needs =
            [
                PadsOut, Corner.LandsClean.Is(Done.Yes), Corner.Hardware.Is(Asked.Nothing, Asked.Done), RotorIsOn, ((Condition)Corner.Caliper.Is(Caliper.On)).When(s => s.IsFixed), Corner.Piston.Is(Piston.Home), ShoesSet, Corner.Bracket.Is(Bracket.On), Corner.BracketBolts.Is(Bolts.Tight, Bolts.Torqued), PartsSettled,
                ((Condition)Corner.Rotor.Is(Rotor.New)).When(s => s.Rotors),
            ],
            Applies = s => s.PadsNew,
            Makes = [Corner.Pads.To(PadState.New)], Concerns = Concern.FitsFriction, Parts = ["new pads"],
            How = "They slide by hand. Indicator at the leading end: below for a caliper behind the axle, above for one ahead of it.",
        },
        new("actuator-on", "Actuator on", Stage.Fit, Lane.Corner, Place.Corner, 3, "It goes home flush by its splines, never by its screws.")
        {
            Applies = s => s.ByHand, Needs = [Corner.Actuator.Is(Actuator.Off), ((Condition)Corner.Piston.Is(Piston.Home)).When(s => s.PadsNew), Corner.Spindle.Is(Spindle.Back)], Makes = [Corner.Actuator.To(Actuator.Unplugged), Corner.ActuatorScrews.To(Bolts.Snug)],
            Parts = ["rubber-safe grease for the O-ring"],
            How = "O-ring wiped, a trace of rubber-safe grease. Turn it until the splines drop in.",
        },
        new("actuator-torqued", "Actuator screws", Stage.Torque, Lane.Corner, Place.Corner, 2, "Small screws in soft metal.")
        {
            Applies = s => s.ByHand, Needs = [Corner.ActuatorScrews.Is(Bolts.Snug)], Makes = [Corner.ActuatorScrews.To(Bolts.Torqued)], Torques = FastenerRole.ActuatorScrew,
        },
        new("caliper-on", "Caliper on", Stage.Fit, Lane.Corner, Place.Corner, 4, "Over the pads, hose free of twist.")
        {
            Applies = s => !s.IsFixed && s.CaliperComesOff,
            Needs = [CaliperHung, Corner.Pads.Is(PadState.New, PadState.Old), Corner.PinsGreased.Is(Done.Yes), ((Condition)Corner.Piston.Is(Piston.Home)).When(s => s.PadsNew)],
            Makes = [Corner.Caliper.To(Caliper.On), Corner.SlidePins.To(Bolts.Snug)], Concerns = Concern.CaliperOn | Concern.RefitsBolts,
            How = "Hose free of twist, boot lying right, bleed screw up.",
        },
        new("slide-pins-torqued", "Slide pins", Stage.Torque, Lane.Corner, Place.Corner, 3, "Reachable now, and the pedal waits for them.")
        {
            Applies = s => !s.IsFixed && s.CaliperComesOff, Needs = [Corner.Caliper.Is(Caliper.On), Corner.SlidePins.Is(Bolts.Snug)], Makes = [Corner.SlidePins.To(Bolts.Torqued)], Torques = FastenerRole.SlidePin, Tools = ["torque wrench", "holding spanner"],
        },
        new("actuator-plugged", "Plug in actuator", Stage.Fit, Lane.Corner, Place.Corner, 1, "No ignition with a plug off.")
        {
            Applies = s => s.Unplugs, Needs = [Corner.Actuator.Is(Actuator.Unplugged), Corner.ActuatorScrews.Is(Bolts.Torqued, Bolts.Tight), Corner.Caliper.Is(Caliper.On), Corner.SlidePins.Is(Bolts.Torqued)], Makes = [Corner.Actuator.To(Actuator.Plugged)],
            How = "Until it clicks.",
        },
        new("banjo-torqued", "Banjo bolt", Stage.Torque, Lane.Corner, Place.Corner, 2, "The hose lies as it will lie, and the bleeding waits for it.")
        {
            Applies = s => s.AnyCaliperNew, Needs = [Corner.Hose.Is(HoseState.Snug), CaliperBolted], Makes = [Corner.Hose.To(HoseState.Torqued)], Torques = FastenerRole.Banjo, Tools = ["torque wrench"],
        },
        new("cable-end-on", "Cable end on", Stage.Fit, Lane.Corner, Place.Corner, 3, "Before the cable is taken up.")
        {
            Applies = s => s.HasLever && s.AnyCaliperNew, Needs = [Corner.CaliperPart.Is(CaliperPart.New), Corner.Caliper.Is(Caliper.On), Corner.CableEnd.Is(Fitted.Off)], Makes = [Corner.CableEnd.To(Fitted.On)],
            How = "End in the lever, clip home until it snaps.",
        },
        .. SmallParts(false),
        new("lead-signs", "Lead looks, signs", Stage.Torque, Lane.Corner, Place.Corner, 2, "A second pair of eyes before the wheel covers bracket and caliper.")
        {
            Applies = s => s.Rules.SignOff == SignOffRule.LeadAlso && !s.InspectOnly, Needs = [WheelOff, Condition.All(Assembled.At(Where.This)).Saying("this side assembled"), CaliperBolted], Makes = [Corner.LeadSigned.To(Done.Yes)], LeadOnly = true,
            How = "Bracket, caliper, hose and clips, by eye and by hand.",
        },
        new("wheel-on", "Wheel on, by hand", Stage.Fit, Lane.Corner, Place.Corner, 3, "Count caps, clips and springs first.")
        {
            Needs = [Lifted, WheelOff, Condition.All(Assembled.At(Where.This)).Saying("this side assembled"), SmallPartsOn.When(s => s.Fittings.Count > 0 || s.AnyCaliperNew), ((Condition)Corner.LeadSigned.Is(Done.Yes)).When(s => s.Rules.SignOff == SignOffRule.LeadAlso && !s.InspectOnly), ((Condition)Corner.Judged.Is(Done.Yes)).When(s => s.InspectOnly)], Makes = [Corner.Wheel.To(Wheel.On), Corner.Nuts.To(Bolts.Snug)],
            How = "Nuts in by hand, in star order, until snug.",
        },

        // Close
        new("bleed", "Bleed", Stage.Close, Lane.Car, RoundCar, 20, "An opened circuit holds air.")
        {
            Applies = s => !s.InspectOnly,
            Needs = [((Condition)Car.Hydraulics.Is(HydraulicsState.Open)).When(s => s.Rules.Bleeding == BleedRule.WhenOpened), ((Condition)Car.Hydraulics.Is(HydraulicsState.Open, HydraulicsState.Closed)).When(s => s.Rules.Bleeding == BleedRule.Always), Assembled.Both],
            Makes = [Car.Hydraulics.To(HydraulicsState.Bled)], Concerns = Concern.Pedal, Cautions = [Cautions.Fluid], Tools = ["bleed hose and bottle"],
            How = "Two clear draws without bubbles. The level never under MIN.",
        },
        new("pedal-proved", "Pump pedal firm", Stage.Close, Lane.Car, Cabin, 2, "The pistons stand away from the pads until the pedal has brought them up.")
        {
            Applies = s => !s.SimulatedPedal,
            Needs = [Assembled.Both, AlwaysBled], Makes = [Car.Pedal.To(Pedal.Proved)], Concerns = Concern.Pedal | Concern.ProvesPedal, Readings = [ReadingKind.PedalStrokes],
            HowFor = s => (s.Rules.PumpUp == PumpRule.HalfStrokes ? "Slow half strokes" : "Full strokes, slowly,") + " until firm and high. It must not sink.",
        },
        new("pedal-proved-routine", "Maker's pedal proof", Stage.Close, Lane.Car, Cabin, 10, "A simulated pedal feels firm with nothing behind it: only the maker's routine proves the brakes.")
        {
            Applies = s => s.SimulatedPedal,
            Needs = [Assembled.Both, AlwaysBled], Makes = [Car.Pedal.To(Pedal.Proved)], Concerns = Concern.Pedal | Concern.ProvesPedal, Cautions = [Cautions.SelfPressurising],
            How = "The maker's routine for this car, to its end.",
        },
        new("turns-free", "Wheel turns, caliper slides", Stage.Close, Lane.Corner, Place.Corner, 1, "A pad that binds shows now, by hand.")
        {
            Needs = [Lifted, Car.Pedal.Is(Pedal.Proved), Condition.All(Assembled.At(Where.This)).Saying("this side assembled"), ((Condition)BrakeOff).When(s => !s.IsPlain), ShoesSet], Makes = [Corner.TurnsFree.To(Done.Yes)],
            How = "Light, even drag. The caliper slides on its pins.",
        },
        new("leaks-looked", "Leak check", Stage.Close, Lane.Car, RoundCar, 3, "Pedal held hard for 30 seconds, then look.")
        {
            Needs = [Lifted, Car.Pedal.Is(Pedal.Proved)], Makes = [Car.Leaks.To(Done.Yes)], Concerns = Concern.Pedal | Concern.UnderCar,
            How = "Hold the pedal hard for 30 seconds: no sink. Then look at screw, hose and boot.",
        },
        new("level-looked", "Fluid level", Stage.Close, Lane.Car, Bonnet, 1, "With the pedal up the level is where it will stay.")
        {
            Needs = [Car.Pedal.Is(Pedal.Proved), Car.Cap.Is(CapState.On)], Makes = [Car.Level.To(Done.Yes)], Readings = [ReadingKind.ReservoirLevel], How = "Between the marks. Top up only now.",
        },
        new("cap-on", "Cap on", Stage.Close, Lane.Car, Bonnet, 1, "An open reservoir drinks water from the air.")
        {
            Applies = s => s.PadsNew && s.Rules.Cap == CapRule.OffWithRag, Needs = [Car.Cap.Is(CapState.Off), Car.Pedal.Is(Pedal.Proved)], Makes = [Car.Cap.To(CapState.On)], How = "Seal seated, rag away, paint wiped.",
        },
        new("key-near", "Key back in", Stage.Close, Lane.Car, Cabin, 1, "The car wakes only when nothing can move into a gap.")
        {
            Applies = s => s.IsElectric, Needs = [Car.Key.Is(Key.Away)], Makes = [Car.Key.To(Key.Near), Car.Sleep.To(CarSleep.Awake)], Concerns = Concern.WakesCar,
            How = "Bring it back only now.",
        },
        new("ignition-on-again", "Ignition on again", Stage.Close, Lane.Car, Cabin, 1, "The pedal is firm, so the brake may move again.")
        {
            Applies = s => s.IsElectric, Needs = [Car.Key.Is(Key.Near), Car.Ignition.Is(Ignition.Off), Car.Pedal.Is(Pedal.Proved)], Makes = [Car.Ignition.To(Ignition.On), Car.Sleep.To(CarSleep.Awake)], Concerns = Concern.WakesCar,
            Cautions = [Cautions.SelfPressurising],
            How = "On, engine off.",
        },
        new("tag-off", "Tag off", Stage.Close, Lane.Car, Cabin, 1, "Nothing is open any more.")
        {
            Applies = s => s.InService, Needs = [Car.Tag.Is(Done.Yes), Assembled.Both, Car.Pedal.Is(Pedal.Proved), Condition.All(Corner.TurnsFree.Both(Done.Yes)).Saying("both sides turn free by hand")], Makes = [Car.Tag.To(Done.No)],
            How = "Only the one who closes the brake takes it off.",
        },
        new("service-closed", "Close the brake", Stage.Close, Lane.Car, Cabin, 3, "The mechanism now meets pistons and shoes that are already there.")
        {
            Applies = s => s.InService,
            Needs = [IgnitionOn, ((Condition)Car.Battery.Is(Battery.Supported)).When(s => !s.ByPuller), Car.Brake.Is(ParkingBrake.Service), Car.Tag.Is(Done.No), FreeToTurn],
            Makes =
            [
                Car.Brake.To(ParkingBrake.Released), Car.Closing.To(Closing.Closed), .. Corner.Spindle.BothTo(Spindle.Out).Select(e => e.When(s => s.IsMotor)),
                Car.Cable.To(CableRun.TakenUp).When(s => s.PullsCables), .. Corner.Lever.BothTo(Lever.NotSeen).Select(e => e.When(s => s.IsPuller)),
            ],
            Concerns = Concern.AppliesBrake | Concern.LeavesService,
            Cautions = [Cautions.Actuators], Tools = ["scan tool"], How = "By the tool's close function, or the car's own sequence, or its switch. Once, after both sides.",
        },
        new("first-apply", "First apply", Stage.Close, Lane.Car, Cabin, 2, "The spindles now meet pistons that are already there.")
        {
            Applies = s => s.ByHand,
            Needs = [IgnitionOn, Car.Closing.Is(Closing.Open), Car.Brake.Is(ParkingBrake.Released, ParkingBrake.ProvedReleased), Condition.All(Corner.TurnsFree.Both(Done.Yes)).Saying("both sides turn free by hand")],
            Makes = [Car.Brake.To(ParkingBrake.Applied), Car.Closing.To(Closing.Closed), .. Corner.Spindle.BothTo(Spindle.Out)], Concerns = Concern.AppliesBrake | Concern.LeavesService,
            Cautions = [Cautions.Actuators],
            How = "From the switch, once. Listen: both sides alike.",
        },
        new("brake-cycled", "Cycle the brake", Stage.Close, Lane.Car, Cabin, 2, "Three to five times: same time and sound left and right.")
        {
            Applies = s => s.NeedsRoute, Needs = [IgnitionOn, Car.Closing.Is(Closing.Closed), Car.Brake.Is(ParkingBrake.Released, ParkingBrake.ProvedReleased, ParkingBrake.Applied)],
            Makes = [Car.Closing.To(Closing.Cycled), Car.Brake.To(ParkingBrake.Applied)], Concerns = Concern.AppliesBrake | Concern.LeavesService, Readings = [ReadingKind.Cycles], Cautions = [Cautions.Actuators],
            How = "Count them. Listen for the same sound each side.",
        },
        new("cable-taken-up", "Take up cable", Stage.Close, Lane.Car, RoundCar, 4, "After the pedal, so that the cable is not set against a gap.")
        {
            Applies = s => s.IsCable && !s.InspectOnly, Needs = [Lifted, Car.Cable.Is(CableRun.Slack), Condition.All(Corner.CableEnd.Both(Fitted.None, Fitted.On)).Saying("both cable ends on"), Car.Pedal.Is(Pedal.Proved), Assembled.Both, Car.Brake.Is(ParkingBrake.Released, ParkingBrake.ProvedReleased)],
            Makes = [Car.Cable.To(CableRun.TakenUp), .. Corner.Lever.BothTo(Lever.NotSeen)], Concerns = Concern.UnderCar,
            How = "Until the levers are about to leave their stops, and no further.",
        },
        new("lever-cycled", "Cycle the lever", Stage.Close, Lane.Car, Cabin, 2, "Three to five full pulls let the screw find its place.")
        {
            Applies = s => s.IsCable && !s.InspectOnly, Needs = [Car.Cable.Is(CableRun.TakenUp), Car.Closing.Is(Closing.Open), Car.Brake.Is(ParkingBrake.Released, ParkingBrake.ProvedReleased), Condition.All(Corner.TurnsFree.Both(Done.Yes)).Saying("both sides turn free by hand")],
            Makes = [Car.Closing.To(Closing.Cycled), .. Corner.Lever.BothTo(Lever.NotSeen)], Concerns = Concern.AppliesBrake | Concern.LeavesService, Readings = [ReadingKind.Cycles],
            How = "Full pulls, full releases.",
        },
        new("shoe-cable-taken-up", "Take up cable", Stage.Close, Lane.Car, RoundCar, 4, "After the star wheels, so that the cable is not set against a gap.")
        {
            Applies = s => s.HatOpen && s.HatCable, Needs = [Lifted, Car.Cable.Is(CableRun.Slack), Condition.All([.. Corner.Shoes.Both(ShoesState.Set, ShoesState.NewSet), .. Corner.Rotor.Both(Rotor.Old, Rotor.New), .. Corner.HubClean.Both(Done.Yes)]).Saying("the shoes of both sides set with the rotors on"), BrakeOff],
            Makes = [Car.Cable.To(CableRun.TakenUp)], Concerns = Concern.UnderCar,
            How = "Until the shoe levers are about to leave their stops, both sides alike, and no further.",
        },
        new("shoe-brake-cycled", "Cycle the lever", Stage.Close, Lane.Car, Cabin, 2, "Three to five full pulls centre the shoes; then count the notches.")
        {
            Applies = s => s.HatOpen && s.HatCable, Needs = [Car.Cable.Is(CableRun.TakenUp), Car.Closing.Is(Closing.Open), BrakeOff, Condition.All(Corner.TurnsFree.Both(Done.Yes)).Saying("both sides turn free by hand")],
            Makes = [Car.Closing.To(Closing.Cycled)], Concerns = Concern.AppliesBrake | Concern.LeavesService, Readings = [ReadingKind.Cycles],
            How = "Full pulls, full releases. 5 to 8 notches to hold is usual for a hand lever, where the sheet is silent.",
        },
        new("brake-applied", "Brake applied", Stage.Close, Lane.Car, Cabin, 1, "It holds the car as it comes down.")
        {
            Applies = s => !s.NeedsRoute && !s.IsPlain,
            Needs = [BrakeOff, IgnitionForTheSwitch, Car.Closing.Is(Closing.Cycled, Closing.NotNeeded), Condition.All(Corner.Lever.Both(Lever.OnStop)).Saying("both levers seen on their stops").When(s => s.IsCable && !s.InspectOnly), Condition.All(Corner.TurnsFree.Both(Done.Yes)).Saying("both sides turn free by hand"), Car.Brake.Is(ParkingBrake.Released, ParkingBrake.ProvedReleased)],
            Makes = [Car.Brake.To(ParkingBrake.Applied)], Concerns = Concern.AppliesBrake | Concern.LeavesService,
            How = "Pull it on; it holds the car as it comes down.",
        },
        new("auto-restored", "Auto-apply back on", Stage.Close, Lane.Car, Cabin, 1, "The driver expects what the car had.")
        {
            Applies = s => s.IsElectric, Needs = [IgnitionOn, Car.AutoApply.Is(AutoApply.Inhibited), Car.Closing.Is(Closing.Cycled, Closing.NotNeeded), Car.Brake.Is(ParkingBrake.Applied)], Makes = [Car.AutoApply.To(AutoApply.Active)],
            How = "As the car had it.",
        },
        new("codes-cleared", "Codes clear", Stage.Close, Lane.Car, Cabin, 3, "Read, cleared, read again: nothing left from the job.")
        {
            Applies = s => s.ByTool, Needs = [IgnitionOn, Car.Codes.Is(Codes.Read), Car.Closing.Is(Closing.Cycled)], Makes = [Car.Codes.To(Codes.Cleared)], Tools = ["scan tool"],
            How = "Read, clear, read again. Write down what stays.",
        },
        new("lamps-looked", "Lamps off", Stage.Close, Lane.Car, Cabin, 1, "No tool at hand: the lamps must at least be out.")
        {
            Applies = s => s.NeedsRoute && s.Route is not null && !s.ByTool, Needs = [IgnitionOn, Car.Codes.Is(Codes.Unread), Car.Closing.Is(Closing.Cycled)], Makes = [Car.Codes.To(Codes.LampsSeen)],
            How = "Ignition on: brake and warning lamps go out.",
        },
        new("ignition-off-after", "Ignition off again", Stage.Close, Lane.Car, Cabin, 1, "The car comes down asleep.")
        {
            Applies = s => s.IsElectric, Needs = [IgnitionOn, Car.Closing.Is(Closing.Cycled, Closing.NotNeeded), Car.Brake.Is(ParkingBrake.Applied), Car.AutoApply.Is(AutoApply.Active)], Makes = [Car.Ignition.To(Ignition.Off)],
            How = "Off.",
        },
        new("battery-alone", "Charger off", Stage.Close, Lane.Car, Bonnet, 1, "Nothing draws on it any more.")
        {
            Applies = s => s.ByTool || s.ByInCar, Needs = [Car.Battery.Is(Battery.Supported), Car.Closing.Is(Closing.Cycled), Car.Codes.Is(Codes.Cleared, Codes.LampsSeen), Car.AutoApply.Is(AutoApply.Active)], Makes = [Car.Battery.To(Battery.Alone)],
            How = "Charger off, terminals covered.",
        },
        new("gear-park", "Gear to P", Stage.Close, Lane.Car, Cabin, 1, "It holds the car with the brake.")
        {
            Needs = [Car.Gear.Is(Gear.Neutral)], Makes = [Car.Gear.To(Gear.Park)],
            How = "P, or in gear.",
        },
        new("lowered", "Lower the car", Stage.Close, Lane.Car, RoundCar, 4, "Everything that is reached from below is done.")
        {
            Needs = [Lifted, Condition.All(Corner.TurnsFree.Both(Done.Yes)).Saying("both sides turn free by hand"), Car.Leaks.Is(Done.Yes), Car.Closing.Is(Closing.NotNeeded, Closing.Cycled)],
            Makes = [Car.Position.To(CarPosition.Ground)], Concerns = Concern.Lowers, Cautions = [Cautions.Stands],
            How = "Everyone clear, slowly, off the stands.",
        },

        // Prove
        new("wheel-torqued", "Wheel nuts", Stage.Torque, Lane.Corner, Place.Corner, 3, "Full torque with the wheel's weight on the ground, in star order.")
        {
            Needs = [Corner.Wheel.Is(Wheel.On), Corner.Nuts.Is(Bolts.Snug, Bolts.Cracked)], Makes = [Corner.Nuts.To(Bolts.Torqued)], Torques = FastenerRole.Wheel, Concerns = Concern.WheelTorque, Tools = ["torque wrench"],
            HowFor = s => "Star order. " + (s.Rules.Studs == StudsRule.Dry ? "Threads dry." : "Threads lightly lubricated, and then only to a figure the sheet gives for lubricated threads: a dry figure overloads the studs by about a third."),
        },
        new("chocks-out", "Chocks out", Stage.Prove, Lane.Car, RoundCar, 1, "They leave last, with the brake applied.")
        {
            Needs = [Chocked, Condition.All(Corner.Nuts.Both(Bolts.Torqued, Bolts.Tight)).Saying("wheels torqued")], Makes = [Car.Chocks.To(Chocks.Out)], Concerns = Concern.ChocksOut,
            How = "Brake on, then the chocks.",
        },
        new("brake-held", "Parking brake holds", Stage.Prove, Lane.Car, Cabin, 3, "On a slope, or against a gentle pull in gear.")
        {
            Needs = [OnGround, Car.Chocks.Is(Chocks.Out), Car.Brake.Is(ParkingBrake.Applied), Car.Pedal.Is(Pedal.Proved), Condition.All(Corner.Nuts.Both(Bolts.Torqued)).Saying("wheels torqued")], Makes = [Car.BrakeProved.To(Done.Yes)],
            How = "Five minutes on a slope, or a gentle pull in gear: it must not creep.",
        },
        new("test-driven", "Test drive", Stage.Prove, Lane.Car, Cabin, 10, "Low speed first: straight stop, no pull, no noise, no shake.")
        {
            Needs = [OnGround, Car.Chocks.Is(Chocks.Out), Condition.All(Corner.Nuts.Both(Bolts.Torqued)).Saying("wheels torqued"), Car.Level.Is(Done.Yes), Car.Leaks.Is(Done.Yes), Car.BrakeProved.Is(Done.Yes)],
            Makes = [Car.TestDrive.To(Done.Yes)], Concerns = Concern.MovesCar,
            How = "Walking pace first, pedal in mind. Straight stop, no pull, no noise.",
        },
        new("bed-in", "Bed-in series", Stage.Prove, Lane.Car, Cabin, 15, "Firm stops with cooling between lay the first film evenly; the pad maker's sheet wins.")
        {
            Applies = s => s.PadsNew && s.Rules.BedIn == BedInRule.Series, Needs = [Car.TestDrive.Is(Done.Yes)], Makes = [Car.BedIn.To(Done.Yes)], Concerns = Concern.MovesCar,
            How = "Three to six firm stops from about 50 km/h, never to a standstill, a minute of cooling between.",
        },
        new("wheels-lead-signs", "Lead signs wheels", Stage.Torque, Lane.Car, RoundCar, 2, "A second pair of eyes where a wheel can come off.")
        {
            Applies = s => s.Rules.SignOff == SignOffRule.LeadAlso, Needs = [OnGround, Condition.All(Corner.Nuts.Both(Bolts.Torqued)).Saying("wheels torqued")], Makes = [Car.WheelsSigned.To(Done.Yes)], LeadOnly = true,
            How = "Every nut of both wheels, by the wrench.",
        },
        new("torques-accepted", "Lead accepts", Stage.Record, Lane.Car, Bench, 2, "A torque that could not be verified is accepted by name and reason, or done again.")
        {
            Needs = [Car.Acceptance.Is(Acceptance.Waiting)], Makes = [Car.Acceptance.To(Acceptance.Accepted)], LeadOnly = true,
            How = "Look at it yourself. Give the reason, or have it done again.",
        },
        new("handed-over", "Hand over", Stage.Record, Lane.Car, Bench, 3, "Everything is proved and signed.")
        {
            Needs =
            [
                ((Condition)Car.BedIn.Is(Done.Yes)).When(s => s.PadsNew && s.Rules.BedIn == BedInRule.Series), ((Condition)Car.WheelsSigned.Is(Done.Yes)).When(s => s.Rules.SignOff == SignOffRule.LeadAlso), Car.Cap.Is(CapState.On),
                Car.TestDrive.Is(Done.Yes), Car.LookedOver.Is(Done.Yes), Car.Closing.Is(Closing.NotNeeded, Closing.Cycled), Car.Tag.Is(Done.No), Car.AutoApply.Is(AutoApply.None, AutoApply.Active),
                Car.Codes.Is(Codes.NotAsked, Codes.Cleared, Codes.LampsSeen), Car.Battery.Is(Battery.Alone), Car.Ignition.Is(Ignition.Off), Car.Key.Is(Key.Near), Car.Gear.Is(Gear.Park), Car.Brake.Is(ParkingBrake.Applied),
            ],
            Makes = [Car.HandedOver.To(Done.Yes)], Concerns = Concern.HandsOver,
            HowFor = s => "Keys and record." + (s.Rules.Retorque == RetorqueRule.Recheck ? " Wheel nuts again after 50 to 80 km." : "") + (s.PadsNew && s.Rules.BedIn == BedInRule.Gentle ? " Gentle for the first 150 to 300 km, no heavy stops." : ""),
        },
    ];

    private static string SetBy(PlanSetup setup) => setup.Rules.StarWheel == StarWheelRule.ByClearance
        ? "Clicks by the shoe bench, on the looser side. The rotor turns with no audible rub."
        : "Out until the wheel cannot be turned by hand, then the counted clicks back. The rotor turns with no audible rub.";

    /// <summary>Small parts, off before the caliper and on again after it: one row each.</summary>
    private static IEnumerable<StepType> SmallParts(bool off)
    {
        (Fitting Fitting, StateVariable<Fitted> Variable, string Id, string Name, string Because, string How)[] parts =
        [
            (Fitting.WearSensor, Corner.Sensor, "sensor", "Wear sensor", "Its lead tears when the caliper comes off with it plugged.", "The spring clip is kept. A worn-through one is new. It is not the wheel-speed plug; the lamp is reset at the end."),
            (Fitting.RattleSpring, Corner.RattleSpring, "rattle-spring", "Rattle spring", "It lies over the caliper.", "Note the way it lies; it is under load."),
            (Fitting.HoseBracket, Corner.HoseBracket, "hose-bracket", "Hose bracket", "A hose held by its bracket is pulled when the caliper hangs.", "One small bolt; the hose is free of twist when it is back."),
            (Fitting.PinCaps, Corner.PinCaps, "pin-caps", "Pin caps", "The slide-pin bolts are behind them.", "Count them."),
        ];
        foreach (var (fitting, variable, id, name, because, how) in parts)
        {
            yield return off
                ? new($"{id}-off", $"{name} off", Stage.Free, Lane.Corner, Place.Corner, 1, because)
                {
                    Applies = s => s.Disturbs(fitting),
                    Needs = [WheelOff, Corner.Caliper.Is(Caliper.On), variable.Is(Fitted.On)],
                    Makes = [variable.To(Fitted.Off)],
                    How = how,
                    Cautions = fitting == Fitting.RattleSpring ? [Cautions.Springs] : [],
                }
                : new($"{id}-on", $"{name} on", Stage.Fit, Lane.Corner, Place.Corner, 1, "Small parts are counted before the wheel covers them.")
                {
                    Applies = s => s.Disturbs(fitting),
                    Needs = [CaliperBolted, Corner.Pads.Is(PadState.Old, PadState.New), variable.Is(Fitted.Off)],
                    Makes = [variable.To(Fitted.On)],
                    How = how,
                    Cautions = fitting == Fitting.RattleSpring ? [Cautions.Springs] : [],
                };
        }

        if (off) yield break;
        yield return new("hat-plug-in", "Hat plug in", Stage.Fit, Lane.Corner, Place.Corner, 1, "Water through the hole rusts the star wheel.")
        {
            Applies = s => s.Disturbs(Fitting.HatPlug),
            Needs = [Corner.HatPlug.Is(Fitted.Off), Corner.Shoes.Is(ShoesState.Set, ShoesState.NewSet), RotorIsOn],
            Makes = [Corner.HatPlug.To(Fitted.On)],
            How = "Press it home all round.",
        };
    }

    private static readonly Dictionary<string, StepType> ById = All.ToDictionary(s => s.Id);

    /// <summary>The step type with this id, or null.</summary>
    public static StepType? Find(string id) => ById.GetValueOrDefault(id);
}

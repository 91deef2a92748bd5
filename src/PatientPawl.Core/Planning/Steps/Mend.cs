using static PatientPawl.Core.Planning.Given;
using static PatientPawl.Core.Planning.Place;

namespace PatientPawl.Core.Planning.Steps;

/// <summary>What was found and is put right beside the job itself. Each step stands in a plan only once it was found.</summary>
internal static class Mend
{
    /// <summary>A way that did not do it: the step shows the next.</summary>
    public static readonly Outcome NotYet = new(Jobs.Ladder.NotYet, "Not yet: the next way", []);

    public static IReadOnlyList<StepType> All { get; } =
    [
        new("hub-mended", "Put hub or thread right", Stage.Clean, Lane.Corner, Place.Corner, 30, "What carries the brake or the wheel is sound before it carries them again.")
        {
            Needs = [WheelOff, PadsOut, CaliperClear, Corner.HubMend.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.HubMend.To(Asked.Done)],
            Concerns = Concern.HandsIn,
            How = "By the maker's data, with what has to come off for it. Note what was done.",
        },
        new("speed-sensor-mended", "Put speed sensor right", Stage.Clean, Lane.Corner, Place.Corner, 15, "A sensor that was struck or torn lights the warning lamp at the first drive.")
        {
            Needs = [WheelOff, Corner.SpeedSensorMend.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.SpeedSensorMend.To(Asked.Done)],
            Concerns = Concern.HandsIn,
            How = "Sensor, ring and lead, clipped as it lay. The lamp is asked at the end.",
        },
        new("cable-renewed", "New parking cable", Stage.Fit, Lane.Corner, Place.Corner, 30, "A frayed cable drags, and one day it parts.")
        {
            Applies = s => s.HasCable,
            Needs = [WheelOff, Lifted, Car.Cable.Is(CableRun.Slack), Corner.CableMend.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.CableMend.To(Asked.Done)],
            Concerns = Concern.HandsIn | Concern.UnderCar,
            Parts = ["parking brake cable"],
            Cautions = [Cautions.Stands],
            How = "Laid and clipped as the old one lay, nothing rubbing. The lever returns to its stop by itself.",
        },
        new("hose-renewed", "New brake hose", Stage.Fit, Lane.Corner, Place.Corner, 20, "A hose that is cracked bursts; one whose inner wall has let go holds the brake on.")
        {
            Needs = [WheelOff, CaliperOnItsHose, Corner.HoseBracket.Is(Fitted.None, Fitted.Off), Corner.HoseMend.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.HoseMend.To(Asked.Done), Corner.Hose.To(HoseState.Snug), Corner.Hydraulics.To(HydraulicsState.Open)],
            Concerns = Concern.HandsIn | Concern.OpensBrake,
            Tools = ["flare-nut spanner", "hose plug"],
            Parts = ["brake hose", "new sealing washers"],
            Cautions = [Cautions.Fluid, Cautions.Eyes],
            How = "Plug the pipe, new hose with new washers, banjo by hand, free of twist with the wheel turned either way. Its corner is bled.",
        },
        new("bleed-screw-renewed", "New bleed screw", Stage.Close, Lane.Corner, Place.Corner, 15, "A corner that cannot be bled cannot be proved.")
        {
            Needs = [WheelOff, CaliperOnItsHose, Corner.ScrewMend.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.ScrewMend.To(Asked.Done), Corner.BleedScrew.To(Bolts.Snug), Corner.Hydraulics.To(HydraulicsState.Open)],
            Outcomes = [new("stays", "It does not come out", [Corner.ScrewMend.To(Asked.Due)]) { Reports = Jobs.FindingKind.StuckPiston }],
            Concerns = Concern.HandsIn | Concern.OpensBrake,
            Tools = ["six-point spanner", "penetrating oil"],
            Parts = ["bleed screw"],
            Cautions = [Cautions.Fluid, Cautions.Eyes],
            How = "Oil and time, a six-point spanner, light blows on its head. One that stays in takes its caliper with it.",
        },
        new("pads-eased", "Ease pads, clips", Stage.Clean, Lane.Corner, Place.Corner, 5, "A pad that sticks wears crooked and runs hot; one that is loose knocks.")
        {
            Needs = [WheelOff, PadsOut, CaliperClear, CaliperThere, Corner.PadEase.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.PadEase.To(Asked.Done)],
            Outcomes = [NotYet],
            Concerns = Concern.HandsIn,
            Tools = ["fine flat file"],
            Cautions = [Cautions.Dust],
            How = "A pad slides by hand, nothing proud, nothing on the rotor.",
        },
        new("pins-seated", "Seat slide pins", Stage.Clean, Lane.Corner, Place.Corner, 3, "A pin that does not seat holds its pad off, or on.")
        {
            Applies = s => !s.IsFixed,
            Needs = [WheelOff, Corner.Caliper.Is(Caliper.Hung, Caliper.Swung, Caliper.Away), Corner.PinSeat.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.PinSeat.To(Asked.Done), Corner.PinsGreased.To(Done.No)],
            Concerns = Concern.HandsIn,
            How = "It goes home by hand and stays.",
        },
        new("pitted-hub-judged", "Judge pitted hub", Stage.Judge, Lane.Corner, Place.Corner, 6, "Pits do no harm under a face that still runs true.")
        {
            Needs = [WheelOff, RotorIsOn, RotorHeld, Corner.HubPit.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.HubPit.To(Asked.Done)],
            Concerns = Concern.HandsIn,
            Tools = ["dial gauge"],
            How = "Clean, rotor on and held, runout on the rotor bench. Inside its limit the hub stays; outside, the lead decides.",
        },
        new("ring-looked", "Look at speed ring", Stage.Clean, Lane.Corner, Place.Corner, 2, "A blow that freed a part can have moved ring, sensor or bearing.")
        {
            Needs = [WheelOff, Corner.RingLook.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.RingLook.To(Asked.Done)],
            Outcomes =
            [
                new("hurt", "Ring or sensor hurt", [Corner.RingLook.To(Asked.Done)]) { Reports = Jobs.FindingKind.SpeedSensor },
                new("play", "The bearing has play", [Corner.RingLook.To(Asked.Done)]) { Reports = Jobs.FindingKind.BearingPlay },
            ],
            Tools = ["torch"],
            How = "Ring whole and straight, sensor's gap even, bearing without play. The lamp is asked at the end.",
        },
        new("sensor-renewed", "New wear sensor", Stage.Fit, Lane.Corner, Place.Corner, 4, "One that is worn through keeps its lamp lit for ever.")
        {
            Applies = s => s.Has(Fitting.WearSensor),
            Needs = [WheelOff, Corner.Sensor.Is(Fitted.Off), Corner.SensorMend.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.SensorMend.To(Asked.Done)],
            How = "Routed and clipped as the old one lay.",
        },
        new("lever-mended", "Put lever right", Stage.Free, Lane.Corner, Place.Corner, 15, "A lever off its stop keeps the screw loaded and the brake dragging.")
        {
            Applies = s => s.HasLever,
            Needs = [WheelOff, Corner.CableEnd.Is(Fitted.Off), Corner.LeverMend.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.LeverMend.To(Asked.Done), Corner.Lever.To(Lever.NotSeen)],
            Concerns = Concern.HandsIn,
            How = "Boot, shaft and spring clean and free. It comes back to its stop by itself, or its caliper is renewed.",
        },
        new("nut-key-found", "Key or remover", Stage.MakeSafe, Lane.Corner, Bench, 10, "Without its key the wheel stays on.")
        {
            Needs = [Corner.NutKey.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.NutKey.To(Asked.Done)],
            How = "In the car, by its number from the maker, or a remover and four plain nuts. By hand, never the impact tool.",
        },
        new("wheel-seated", "Wheel's seat clean", Stage.Fit, Lane.Corner, Place.Corner, 4, "A wheel that is not flat on its hub shakes, and its nuts come loose.")
        {
            Needs = [WheelOff, Corner.WheelSeat.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.WheelSeat.To(Asked.Done)],
            How = "Both faces and the pilot to bare metal, the nuts' seats too. Nothing between them, no screw proud.",
        },
        new("bracket-swapped", "Another bracket", Stage.Clean, Lane.Corner, Bench, 3, "A bracket that comes new, with its caliper or for its pins, brings pins and lands that fit.")
        {
            Applies = s => !s.IsFixed,
            Needs = [Corner.Bracket.Is(Bracket.Off), Corner.BracketSwap.Is(Asked.Due, Asked.LeftOpen), RightPart],
            Makes =
            [
                Corner.BracketSwap.To(Asked.Done),
                Corner.LandsClean.To(Done.Yes),
                Corner.PinsGreased.To(Done.Yes),
                // What the old bracket wanted goes out with it.
                Corner.Hardware.To(Asked.Nothing),
                Corner.PinKit.To(Asked.Nothing),
                Corner.PinSeat.To(Asked.Nothing),
            ],
            How = "Left is left: bleed screw up once it hangs. New clips on its lands, its pins home by hand. "
                + "Pins greased as they came? Look, and add what is missing.",
        },
        new("actuator-renewed", "New actuator", Stage.Fit, Lane.Corner, Bench, 5, "A motor that stops in one direction stops in the other.")
        {
            Applies = s => s.IsMotor,
            Needs = [Corner.Actuator.Is(Actuator.Off), Corner.ActuatorMend.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.ActuatorMend.To(Asked.Done)],
            How = "Plug, lead and voltage looked at first. The same part for this side, with its new seal.",
        },
        new("actuator-seen-flush", "Actuator still flush", Stage.Close, Lane.Corner, RoundCar, 1, "Its screws take the motor's reaction, and nobody has a figure for them.")
        {
            Applies = s => s.IsMotor,
            Needs = [Lifted, Corner.FlushLook.Is(Asked.Due, Asked.LeftOpen), Car.Closing.Is(Closing.Closed, Closing.Cycled), Corner.ActuatorScrews.Is(Bolts.Tight, Bolts.Torqued)],
            Makes = [Corner.FlushLook.To(Asked.Done)],
            Concerns = Concern.UnderCar,
            Tools = ["torch"],
            How = "Flush all round, as before the first apply. Low-strength locker, no anti-seize.",
        },
        new("hose-clamp-off", "Hose clamp off", Stage.Fit, Lane.Corner, Place.Corner, 1, "Behind a clamp the caliper is cut off, and a firm pedal proves nothing.")
        {
            Needs = [WheelOff, Corner.HoseClamp.Is(Fitted.On), Corner.Hose.Is(HoseState.On, HoseState.Torqued)],
            Makes = [Corner.HoseClamp.To(Fitted.Off), Corner.HoseLook.To(Asked.Due)],
            How = "Bleed screw shut first, then the clamp off. What it pinched is looked at before the pedal is pressed.",
        },
        new("hose-looked", "Hang it, look at hose", Stage.Free, Lane.Corner, Place.Corner, 3, "The hose's inner wall tears where no one sees it.")
        {
            Soon = true,
            Needs = [WheelOff, Corner.HoseLook.Is(Asked.Due, Asked.LeftOpen), Corner.HoseClamp.Is(Fitted.None, Fitted.Off)],
            Makes = [Corner.HoseLook.To(Asked.Done)],
            Outcomes = [new("doubtful", "Not sure it is sound", [Corner.HoseLook.To(Asked.Done)]) { Reports = Jobs.FindingKind.HoseUnsound }],
            Tools = ["caliper hook", "torch"],
            How = "On its hook first. Then along the whole hose: no kink, bulge, crack or stretched crimp. In doubt it is renewed.",
        },
        new("lamp-seen-off", "Lamp seen off", Stage.Prove, Lane.Car, Cabin, 1, "A lamp that the job can have lit is asked before the keys go back.")
        {
            Needs = [Car.TestDrive.Is(Done.Yes), Car.Lamp.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Car.Lamp.To(Asked.Done)],
            Outcomes =
            [
                new("tool-needed", "Lit until a tool resets it", [Car.Lamp.To(Asked.Done)]),
                new("stays", "It stays, and nobody knows why", [Car.Lamp.To(Asked.Due)]) { Reports = Jobs.FindingKind.LampStays },
            ],
            How = "Ignition on: wear, brake and stability lamps go out. A wear lamp may want its reset.",
        },
        new("pedal-traced", "Find why it is soft", Stage.Close, Lane.Car, Place.RoundCar, 15, "A pedal that is proved over its fault is soft again at the first stop.")
        {
            Needs = [Car.PedalTrouble.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Car.PedalTrouble.To(Asked.Done)],
            How = "Air, a pin beside its slot, a pad that does not seat, a hose that swells; then the master cylinder. What is wrong at a corner is reported there. Note what it was.",
        },
        new("brake-traced", "Find why it creeps", Stage.Close, Lane.Car, Place.RoundCar, 15, "More cycles do not hold what a cable, a star wheel or a motor does not pull.")
        {
            Applies = s => !s.IsPlain,
            Needs = [Car.BrakeTrouble.Is(Asked.Due, Asked.LeftOpen), Lifted],
            Makes = [Car.BrakeTrouble.To(Asked.Done)],
            HowFor = s => (s.HasCable ? "The cable's run and its adjuster. " : "") + (s.IsHat ? "The star wheels, and grease on the linings. " : "")
                + (s.IsElectric ? "The motors, one against the other. " : "") + "What is wrong at a corner is reported there. Note what it was.",
        },
        new("star-wheel-freed", "Free star wheel", Stage.Clean, Lane.Corner, Place.Corner, 10, "An adjuster that does not turn sets no clearance, and keeps none.")
        {
            Applies = s => s.IsHat,
            Needs = [Corner.Rotor.Is(Rotor.Off), Corner.StarWheelMend.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.StarWheelMend.To(Asked.Done)],
            Concerns = Concern.HandsInHat,
            Cautions = [Cautions.Springs, Cautions.Dust],
            How = "Out, thread clean, a trace of high-temperature grease, turned from end to end by hand. Left and right never change sides.",
        },
        new("plate-motor-renewed", "New plate motor", Stage.Fit, Lane.Corner, Place.Corner, 15, "A motor that stops in one direction stops in the other.")
        {
            Applies = s => s.IsHat && s.IsPlateMotor,
            Needs = [WheelOff, Corner.PlateMotorMend.Is(Asked.Due, Asked.LeftOpen), Corner.Shoes.Is(ShoesState.BackedOff, ShoesState.NewLoose, ShoesState.Off)],
            Makes = [Corner.PlateMotorMend.To(Asked.Done)],
            Concerns = Concern.HandsInHat,
            How = "Plug, lead and voltage looked at first. The same part for this side, its seal new, plugged until it clicks.",
        },
        new("trouble-settled", "Find the cause", Stage.Prove, Lane.Car, Place.RoundCar, 15, "What the car shows has a cause, and the car stays until it is found.")
        {
            Needs = [Car.Trouble.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Car.Trouble.To(Asked.Done)],
            How = "What is wrong at a corner is reported there, and the plan goes back to it. Note what it was.",
        },
    ];
}

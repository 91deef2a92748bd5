using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning.Twin;

/// <summary>Someone or something could be hurt.</summary>
/// <param name="Name">What would happen.</param>
/// <param name="Chance">When it could: the act in question is being done.</param>
/// <param name="Harm">When it would. The car is as it stands before the act.</param>
internal sealed record Monitor(string Name, Func<PhysicalCar, StepKey, Doing, bool> Chance, Func<PhysicalCar, PhysicalCorner, StepKey, bool> Harm);

/// <summary>The hazards, from what can hurt and not from any table of the product. Common practice, no source.</summary>
internal static class Monitors
{
    private static Monitor When(Doing doing, string name, Func<PhysicalCar, PhysicalCorner, bool> harm, Func<PlanSetup, bool>? at = null) =>
        new(name, (car, _, now) => (now & doing) != 0 && at?.Invoke(car.Made) != false, (car, corner, _) => harm(car, corner));

    private static Monitor Any(Doing doing, string name, Func<PhysicalCar, PhysicalCorner, bool> harm, Func<PlanSetup, bool>? at = null) =>
        new(name, (car, _, now) => (now & doing) != 0 && at?.Invoke(car.Made) != false, (car, _, _) => car.Both.Any(c => harm(car, c)));

    private static Monitor Step(string ids, string name, Func<PhysicalCar, PhysicalCorner, bool> harm, Func<PlanSetup, bool>? at = null) =>
        new(name, (car, step, _) => ids.Split(' ').Contains(step.StepId) && at?.Invoke(car.Made) != false, (car, corner, _) => harm(car, corner));

    // From the moment that the tool alone keeps it.
    private static Monitor LeftOn(string name, Func<PhysicalCar, bool> harm) =>
        new(name, (car, step, now) => step.StepId == "ignition-left-on" || (car is { ToolHolds: true, Made.IsCaliperType: true } && (now & Doing.HandsAtCaliper) != 0), (car, _, _) => harm(car));

    private static bool Held(PhysicalCorner c) => c.WheelOn || c.TwoNuts || (c.HasScrews && c.Screws == Nut.Tight);

    private static bool Together(PhysicalCar car, PhysicalCorner c) =>
        c is { CaliperOn: true, PadsIn: true, RotorOn: true, BracketBolts: Nut.Tight } && (car.Made.IsFixed || c.PinBolts == Nut.Tight);

    private static bool CanMove(PhysicalCar car, PhysicalCorner c) => car.Made.IsElectric && !(car is { InService: true, Tagged: true } || (car.Made.IsMotor && !c.ActuatorPlugged) || car is { Tagged: true, Asleep: true });

    // The tool's word that it may stay on, and what that rests on: its session in service, tags, a charger, brakes that do not press themselves.
    private static bool HeldAwake(PhysicalCar car) => car is { ToolHolds: true, IgnitionOn: true, InService: true, Tagged: true, Charger: true, SelfPressing: false };

    private static readonly string[] RoadAllows = ["wear-sensor", "warning-lamp", "missing-part"];

    private static bool KeepsOffTheRoad(string fault) => !RoadAllows.Any(r => fault.StartsWith(r, StringComparison.Ordinal));

    private static IEnumerable<string> Unfit(PhysicalCar car)
    {
        if (car.UnfitPads && car.Both.Any(c => !c.PadsNew)) yield return "unfit-pads";
        if (car.UnfitRotors && car.Both.Any(c => !c.RotorNew)) yield return "unfit-rotors";
        if (car.UnfitShoes && car.Both.Any(c => !c.ShoesNew)) yield return "unfit-shoes";
    }

    private static bool Left(PhysicalCar car, PhysicalCorner c, string fault) => car.LeftOpen.Contains($"{fault} {(c == car.Left ? Side.Left : Side.Right)}");

    // Every fault that stands, by the name that the lead's word has for it.
    private static IEnumerable<string> Standing(PhysicalCar car) =>
    [
        .. Unfit(car), .. Core.Sides.Both.SelectMany(s => Faults(car.At(s)).Select(f => $"{f} {s}")),
        .. car.PedalSoft ? ["soft-pedal"] : Array.Empty<string>(), .. car.Creeps ? ["creeping-brake"] : Array.Empty<string>(),
        .. car.PipesUnsound ? ["pipes-and-hoses"] : Array.Empty<string>(), .. car.Trouble ? ["what-it-showed"] : Array.Empty<string>(), .. car.LampLit ? ["warning-lamp"] : Array.Empty<string>(),
    ];

    // By the names that the lead's word has for them.
    private static IEnumerable<string> Faults(PhysicalCorner c)
    {
        if (c.Wet) yield return "fluid-shows";
        if (c.HoseBad) yield return "brake-hose";
        if (c.BleedScrewBad) yield return "bleed-screw";
        if (c.CableBad) yield return "parking-cable";
        if (c.HubBad) yield return "hub-or-thread";
        if (c.SpeedSensorBad) yield return "speed-sensor";
        if (c.ClipsBad) yield return "frozen-pads";
        if (c.PinsBad) yield return "slide-pins";
        if (c.ScrewBroken) yield return "rotor-screw";
        if (c.WrongParts) yield return "wrong-parts";
        if (c.WrongCaliper) yield return "wrong-caliper";
        if (c.UnfitCaliper && !c.CaliperNew) yield return "unfit-caliper";
        foreach (var wrong in c.Wrong)
        {
            yield return wrong switch
            {
                "star-wheel-freed" => "star-wheel",
                "plate-motor-renewed" => "plate-motor",
                "actuator-seen-flush" => "loose-actuator",
                "pads-eased" => "pads-seat",
                "pins-seated" => "pins-seat",
                "pitted-hub-judged" => "pitted-hub",
                "sensor-renewed" => "wear-sensor",
                "lever-mended" => "caliper-lever",
                "nut-key-found" => "nut-key",
                "wheel-seated" => "wheels-seat",
                "bracket-swapped" => "sets-bracket",
                "actuator-renewed" => "actuator",
                "hose-looked" => "strained-hose",
                "ring-looked" => "speed-ring",
                _ => throw new ArgumentOutOfRangeException(nameof(c), wrong, "No such fault."),
            };
        }
    }

    private static bool MechanismAsItCame(PhysicalCar car) => car.Mechanism == 0;

    private static readonly Func<PlanSetup, bool> Electric = s => s.IsElectric, Caliper = s => s.IsCaliperType, Hat = s => s.IsHat, Spot = s => s.IsSpot, Sliding = s => !s.IsFixed, Parks = s => !s.IsPlain;

    public static IReadOnlyList<Monitor> All { get; } =
    [
        // The pedal.
        Any(Doing.Pedal, "the pedal pressed with a caliper off", (_, c) => !c.CaliperOn),
        Any(Doing.Pedal, "the pedal pressed with pads out", (_, c) => !c.PadsIn),
        Any(Doing.Pedal, "the pedal pressed on loose slide pins", (_, c) => c.PinBolts != Nut.Tight, Sliding),
        Any(Doing.Pedal, "the pedal pressed on a loose bracket", (_, c) => c.BracketBolts != Nut.Tight),
        Any(Doing.Pedal, "the pedal pressed with a rotor off", (_, c) => !c.RotorOn),
        Any(Doing.Pedal, "the pedal pressed on a rotor that nothing holds", (_, c) => !Held(c)),
        Any(Doing.Pedal, "the pedal pressed on an open hose", (_, c) => c.HoseOff),
        Any(Doing.Pedal, "the pedal pressed on a loose banjo", (_, c) => c.Banjo != Nut.Tight),
        Any(Doing.Pedal, "the pedal pressed with an actuator off", (_, c) => !c.ActuatorOn, s => s.IsMotor),
        Any(Doing.Pedal, "the pedal pressed on a spot caliper that hangs", (_, c) => !c.SpotOn, Spot),
        When(Doing.Pedal, "the pedal pressed on pipes that are not sound", (car, _) => car.PipesUnsound),
        Any(Doing.Pedal, "the pedal pressed on a hose that is to be renewed", (_, c) => c.HoseBad),
        Any(Doing.Pedal, "the pedal pressed on a bleed screw that is to be renewed", (_, c) => c.BleedScrewBad),
        Any(Doing.Drives, "driven on a hub or thread that is not fit", (_, c) => c.HubBad),
        Any(Doing.Drives, "driven with a speed sensor that is torn", (_, c) => c.SpeedSensorBad),
        Any(Doing.Drives, "driven with a parking cable that is frayed", (_, c) => c.CableBad, s => s.HasCable),
        When(Doing.Drives, "driven on what the car showed and nobody explained", (car, _) => car.Trouble),
        Any(Doing.Drives, "driven with pads, pins, wheel or bracket as they should not be", (_, c) => c.Wrong.Overlaps(["pads-eased", "pins-seated", "pitted-hub-judged", "ring-looked", "wheel-seated", "bracket-swapped"])),
        Any(Doing.Drives, "driven with an actuator that does not move", (_, c) => c.Wrong.Contains("actuator-renewed"), s => s.IsMotor),
        Any(Doing.Pedal, "the pedal pressed on a hose that carried its caliper and nobody looked at", (_, c) => c.Wrong.Contains("hose-looked")),
        new("work at a caliper that hangs by its hose", (_, _, now) => (now & Doing.HandsAtCaliper) != 0, (_, c, _) => c.Wrong.Contains("hose-looked") && !c.CaliperOn),
        Step("nuts-cracked nuts-cracked-raised", "a locking nut without its key", (_, c) => c.Wrong.Contains("nut-key-found")),
        Step("caliper-on caliper-down", "a caliper over a pin that does not seat", (car, c) => c.Wrong.Contains("pins-seated") && !Left(car, c, "pins-seat"), Sliding),
        Step("pads-in pads-back", "pads into a bracket where they stick", (car, c) => c.Wrong.Contains("pads-eased") && !Left(car, c, "pads-seat")),
        Step("bracket-torqued mounting-torqued", "a torque on a thread that is stripped", (_, c) => c.HubBad),
        Any(Doing.ProvesPedal, "a pedal counts as firm on air", (_, c) => c.HasAir),
        Any(Doing.ProvesPedal, "a pedal counts as firm over a bleed screw that is not torqued", (_, c) => c.BleedScrew != Nut.Tight),
        new("one corner bled while the other's hose is open", (_, _, now) => (now & Doing.Bleeds) != 0, (car, corner, _) => car.Both.Any(c => c != corner && (c.HoseOff || c.Banjo != Nut.Tight))),
        When(Doing.Bleeds, "bled with the car free to roll", (car, _) => !car.Chocked),
        When(Doing.Bleeds, "bled with nobody having looked at the reservoir", (car, _) => !car.ReservoirSeen),

        // The mechanism.
        Any(Doing.MovesMechanism, "the mechanism driven into a gap: a caliper is off", (_, c) => !c.CaliperOn, Caliper),
        Any(Doing.MovesMechanism, "the mechanism driven into a gap: pads are out", (_, c) => !c.PadsIn, Caliper),
        Any(Doing.MovesMechanism, "the brake worked with a rotor off its shoes", (_, c) => !c.RotorOn, Hat),
        Any(Doing.MovesMechanism, "the brake worked on shoes that are not set", (_, c) => !c.ShoesOn || c.ShoesBackedOff, Hat),
        Any(Doing.MovesMechanism, "the brake worked with a spot caliper or its rotor off", (_, c) => !c.SpotOn || !c.RotorOn, Spot),
        When(Doing.MovesMechanism, "a tagged switch is pressed", (car, _) => car.Tagged && car.Made.IsElectric),
        Step("service-closed first-apply lever-cycled brake-cycled", "the brake closed before the pedal has brought the pistons up", (car, _) => !car.PedalUp && !(car.Touched == 0)),
        Step("service-closed first-apply", "the brake closed on a loose bracket or pin", (car, _) => car.Both.Any(c => c.BracketBolts != Nut.Tight || (!car.Made.IsFixed && c.PinBolts != Nut.Tight))),
        Any(Doing.Wakes, "woken with an actuator unplugged", (_, c) => !c.ActuatorPlugged, s => s.IsMotor),
        Any(Doing.Wakes, "woken with an actuator off", (_, c) => !c.ActuatorOn, s => s.IsMotor),
        Any(Doing.Wakes, "woken with a caliper off", (_, c) => !c.CaliperOn, s => s.IsCaliperType && s.IsElectric),
        Any(Doing.Wakes, "woken with pads out", (_, c) => !c.PadsIn, s => s.IsCaliperType && s.IsElectric),
        Any(Doing.Wakes, "woken with a hat open and auto-apply on", (car, c) => (!c.RotorOn || !c.ShoesOn) && !car.AutoApplyOff, s => s.IsHat && s.IsElectric),
        Any(Doing.Wakes, "woken with a spot caliper off and auto-apply on", (car, c) => !c.SpotOn && !car.AutoApplyOff, s => s.IsSpot && s.IsElectric),
        When(Doing.Wakes, "woken with spindles back and no pedal", (car, _) => car.Both.Any(c => c.SpindleBack) && !car.PedalUp && car.Touched > 0, s => s.IsMotor),

        Step("ignition-on-again", "the ignition on again before the pedal stands", (car, _) => !car.PedalUp && car.Touched > 0),
        When(Doing.Wakes, "a box woken over calipers that no pedal has brought up", (car, _) => !MechanismAsItCame(car) && car.Touched > 0 && !car.PedalUp, s => s.IsPuller),

        // Hands.
        When(Doing.HandsAtCaliper, "hands at a caliper that can close", CanMove, s => s.IsCaliperType && s.IsElectric),
        When(Doing.HandsAtCaliper, "hands at a caliper with the ignition on", (car, _) => car.IgnitionOn && !HeldAwake(car), s => s.IsCaliperType && s.IsElectric),
        When(Doing.HandsAtCaliper, "hands at a caliper with the key near", (car, _) => !car.KeyAway && !HeldAwake(car), s => s.IsCaliperType && s.IsElectric),
        When(Doing.HandsInHat, "hands among shoes that can close", CanMove, s => s.IsHat && s.IsElectric),
        When(Doing.HandsInHat, "hands among shoes with the ignition on", (car, _) => car.IgnitionOn && !HeldAwake(car), s => s.IsHat && s.IsElectric),
        When(Doing.HandsInHat, "hands among shoes with the key near", (car, _) => !car.KeyAway && !HeldAwake(car), s => s.IsHat && s.IsElectric),
        When(Doing.HandsAtSpot, "hands at a spot caliper that can close", CanMove, s => s.IsSpot && s.IsElectric),
        When(Doing.HandsAtSpot, "hands at a spot caliper with the ignition on", (car, _) => car.IgnitionOn && !HeldAwake(car), s => s.IsSpot && s.IsElectric),
        When(Doing.HandsAtSpot, "hands at a spot caliper with the key near", (car, _) => !car.KeyAway && !HeldAwake(car), s => s.IsSpot && s.IsElectric),
        Step("caliper-off caliper-swung", "a caliper pulled off an applied brake", (car, _) => car.Applied, Caliper),
        Step("caliper-off caliper-swung", "a caliper pulled off a tight cable", (car, _) => !car.CableSlack, s => s.HasLever),
        Step("caliper-off caliper-swung", "a caliper pulled off a spindle that is out", (_, c) => !c.SpindleBack, s => s.IsMotor),
        Step("self-pressure-off", "the maker's procedure begun before anybody asked whether this car presses its brakes", (car, _) => !car.LookedOver),
        LeftOn("the ignition left on in a car that presses its brakes", car => car.SelfPressing),
        LeftOn("the ignition left on with a switch that nobody tagged", car => !car.Tagged),
        Step("caliper-off caliper-swung fixed-caliper-off pads-out circuit-opened pipes-sound", "a brake opened that can press itself", (car, _) => car.SelfPressing),
        Step("caliper-off caliper-swung", "a caliper pulled off by its wear sensor's lead", (_, c) => !c.NoSensor && !c.Off.Contains(Fitting.WearSensor), s => s.Has(Fitting.WearSensor)),
        Step("pads-out pads-kept-out", "pads drawn out of a fixed caliper by the sensor's lead", (_, c) => !c.NoSensor && !c.Off.Contains(Fitting.WearSensor), s => s.IsFixed && s.Has(Fitting.WearSensor)),
        Step("bracket-off fixed-caliper-off old-caliper-away hose-renewed", "a hose pulled by its bracket", (_, c) => !c.Off.Contains(Fitting.HoseBracket), s => s.Has(Fitting.HoseBracket)),
        Step("cable-slack shoe-cable-slack", "a cable slackened against an applied brake", (car, _) => car.Applied),
        Step("star-wheel-backed star-wheel-again", "a star wheel backed off against a tight cable", (car, _) => !car.CableSlack, s => s.HasCable),
        Step("actuator-unplugged", "unplugged from a car that is awake", (car, _) => !car.Asleep),
        Step("actuator-unplugged", "unplugged with the ignition on", (car, _) => car.IgnitionOn),
        Step("actuator-unplugged", "unplugged in service with the other caliper hung on its plug", (car, c) => car.InService && car.Both.Single(o => o != c) is { CaliperOn: false, ActuatorOn: true, ActuatorPlugged: true }),
        Step("actuator-on", "an actuator over a spindle that is still out", (_, c) => !c.SpindleBack),
        Step("actuator-unplugged actuator-off", "unplugged or taken off a brake that nobody proved released", (car, c) => c.CaliperOn && car is { InService: false, ReleaseSeen: false }),
        // An actuator whose caliper is off holds nothing.
        Step("actuator-unplugged", "unplugged from an applied brake", (car, c) => car.Applied && c.CaliperOn),
        Step("actuator-off", "an actuator taken off an applied brake", (car, c) => car.Applied && c.CaliperOn),

        // The piston.
        Step("piston-levered", "levered against a rotor that stays", (car, _) => !car.RotorsGo),
        Step("piston-levered", "a piston levered that has to be turned", (_, c) => c.TurnsHome),
        Step("piston-levered piston-tried", "a piston moved that nobody knows the way of", (_, c) => !c.MethodKnown),
        Step("piston-levered piston-tried", "a piston moved against its own mechanism", (car, c) => car.Made.IsMotor ? !c.SpindleBack : car.Made.HasLever && (car.CableSlack is false || !c.LeverOnStop)),
        Step("piston-levered piston-tried", "a piston moved with nobody having looked at the reservoir", (car, _) => !car.ReservoirSeen),
        Step("lever-on-stop", "a lever judged while the brake is on", (car, _) => car.Applied),
        Step("lever-on-stop", "a lever judged anew that nobody has put right", (_, c) => c.Wrong.Contains("lever-mended")),
        Step("piston-levered", "a piston levered against an applied brake", (car, _) => car.Applied, Parks),
        Step("rotor-off bracket-off", "a rotor or bracket taken from under a caliper that is only swung up", (_, c) => c.Swung),
        Step("caliper-down", "a swung caliper comes down on a pin that nobody greased", (_, c) => !c.PinsGreased),
        Step("caliper-down", "a swung caliper comes down on new pads with its piston out", (_, c) => c.PadsNew && !c.PistonIn),
        Step("piston-home", "wound against a tight cable", (car, _) => !car.CableSlack, s => s.HasLever),
        Step("piston-home", "wound with the lever off its stop", (_, c) => !c.LeverOnStop, s => s.HasLever),
        Step("piston-home", "pushed onto its spindle", (_, c) => !c.SpindleBack, s => s.IsMotor),
        Step("piston-home", "sent home with nobody having looked at the reservoir", (car, _) => !car.ReservoirSeen),
        Step("piston-home", "sent home for parts nobody compared", (car, _) => !car.Compared),
        Step("piston-home", "sent home by a way that nobody knows", (_, c) => !c.MethodKnown),
        Step("caliper-on caliper-down", "a caliper put on over a spindle that is out and a piston that is home", (_, c) => !c.SpindleBack && c.PistonIn, s => s.IsMotor),

        // A push needs its measuring only where the house draws off for what comes back.
        new("a piston judged, tried or pushed before this side is measured", (_, step, _) => step.StepId is "piston-judged" or "piston-tried" or "push-tried",
            (car, corner, step) => !corner.Judged && (step.StepId != "push-tried" || car.Made.Rules.FluidRoom == FluidRoomRule.DrawOff)),
        Step("push-tried", "a piston tried against a spindle that is out", (_, c) => !c.SpindleBack, s => s.IsMotor),
        Step("piston-home piston-tried push-tried", "fluid over the brim", (_, c) => c.NoRoom, s => s.Rules.FluidRoom == FluidRoomRule.DrawOff),
        Step("piston-home", "sent home unmeasured", (_, c) => !c.Judged),
        Step("piston-home piston-levered piston-tried", "moved home under a cap that the house wants off", (car, _) => !car.CapOff, s => s.Rules.Cap == CapRule.OffWithRag),
        Step("cap-off", "the cap off before anybody looked at the level", (car, _) => !car.ReservoirSeen),

        // The car.
        new("work behind a wheel that is on", (_, step, now) => (now & Doing.AtCorner) != 0 && (now & Doing.OnItsWheels) == 0 && step.StepId is not ("wheel-off" or "wheel-freed" or "nuts-cracked-raised" or "turns-free" or "lever-on-stop"),
            (_, corner, _) => corner.WheelOn),
        new("a wheel taken off on the ground", (_, step, _) => step.StepId == "wheel-off", (car, _, _) => !car.OnStands),
        new("work at a corner on the ground", (_, _, now) => (now & Doing.AtCorner) != 0 && (now & Doing.OnItsWheels) == 0, (car, _, _) => !car.OnStands),
        new("work at a corner of a car that can roll", (_, _, now) => (now & Doing.AtCorner) != 0 && (now & Doing.OnItsWheels) == 0, (car, _, _) => !car.Chocked),
        When(Doing.UnderCar, "someone under a car on the ground", (car, _) => !car.OnStands),
        When(Doing.LetsGo, "the brake or P let go with no chocks", (car, _) => !car.Chocked),
        When(Doing.Raises, "lifted with no chocks", (car, _) => !car.Chocked),
        Any(Doing.Lowers, "lowered with a caliper off", (_, c) => !c.CaliperOn),
        Any(Doing.Lowers, "lowered with pads out", (_, c) => !c.PadsIn),
        Any(Doing.Lowers, "lowered on loose pins", (_, c) => c.PinBolts != Nut.Tight, Sliding),
        Any(Doing.Lowers, "lowered on a loose bracket", (_, c) => c.BracketBolts != Nut.Tight),
        Any(Doing.Lowers, "lowered with a wheel off", (_, c) => !c.WheelOn),
        Any(Doing.Lowers, "lowered on loose nuts", (_, c) => c.Nuts is Nut.Loose or Nut.Out),
        When(Doing.Lowers, "lowered with the cable slack", (car, _) => car.CableSlack && !car.Made.IsElectric, s => s.HasCable),
        When(Doing.Lowers, "lowered with no pedal", (car, _) => !car.PedalUp && car.Touched > 0),
        When(Doing.Lowers, "lowered out of P", (car, _) => car.Neutral),
        When(Doing.Lowers, "lowered with nothing to hold it", (car, _) => !car.Applied && !car.Chocked),
        Any(Doing.Lowers, "lowered on two nuts with washers", (_, c) => c.TwoNuts),
        Step("wheel-torqued", "final wheel torque in the air", (car, _) => car.OnStands),
        When(Doing.TakesChocks, "chocks taken out of P", (car, _) => car.Neutral),
        When(Doing.TakesChocks, "chocks taken with the brake off", (car, _) => !car.Applied, Parks),
        When(Doing.TakesChocks, "chocks taken from a raised car", (car, _) => car.OnStands),
        When(Doing.TurnsHub, "a hub turned by hand in P", (car, _) => !car.Neutral),
        // Whether it stayed released is what one turns the hub to find out.
        new("a hub turned by hand against the brake", (car, step, now) => (now & Doing.TurnsHub) != 0 && step.StepId != "release-proved" && !(step.StepId == "turns-free" && car.Made.IsElectric) && !car.Made.IsPlain, (car, _, _) => car.Applied),

        Step("chocks-out", "chocks taken from wheels that are not torqued", (car, _) => car.Both.Any(c => c.Nuts != Nut.Tight)),
        Step("service-entered service-entered-car", "the battery left alone with the motors", (car, _) => !car.Charger),
        Step("service-entered service-entered-car puller-released", "a tagged switch is used", (car, _) => car.Tagged),
        Step("service-entered service-entered-car puller-released", "service entered in the air where the car wants its wheels", (car, _) => car.OnStands, s => s.ServiceOnGround),
        Step("brake-released", "released with auto-apply on", (car, _) => !car.AutoApplyOff, Electric),
        Step("release-proved", "proved released with the ignition on", (car, _) => car.IgnitionOn),

        // Fitting.
        Step("rotor-on", "a new rotor goes on with its oil", (_, c) => c.RotorOily),
        Step("rotor-on rotor-back", "a hat with no shoes under it", (_, c) => !c.ShoesOn, Hat),
        Step("rotor-on shoes-on shoes-off", "shoes covered or taken off that nobody measured", (_, c) => !c.ShoesJudged, Hat),
        Step("shoes-on shoes-back", "shoes onto a plate that is not clean", (_, c) => !c.PlateClean),
        Step("bracket-on", "a bracket over shoes that are not set", (car, c) => c.ShoesBackedOff && (car.CableSlack || !car.Made.PullsCables), Hat),
        Step("bracket-on", "a bracket over a rotor whose screws are loose", (_, c) => c is { HasScrews: true, ScrewLeftOut: false } && c.Screws != Nut.Tight),
        Step("fixed-caliper-on spot-on", "a caliper over a rotor that nothing holds", (_, c) => !Held(c)),
        Step("pads-in pads-back", "pads into a bracket that is loose", (_, c) => c.BracketBolts != Nut.Tight),
        Step("pads-in pads-back", "pads in over shoes that are not set", (car, c) => c.ShoesBackedOff && (car.CableSlack || !car.Made.PullsCables), Hat),
        Step("bracket-on", "a bracket in the way of a rotor that is still to go on", (_, c) => !c.RotorOn, s => !s.RotorComesOffWithBracketOn),
        Step("rotor-screws-torqued", "screws torqued with one broken off in its hole", (_, c) => c.ScrewBroken),
        Step("pads-in", "new pads on a rotor that is still to go", (car, c) => car.RotorsGo && !c.RotorNew),
        Step("pads-back", "old pads on a new rotor", (_, c) => c.RotorNew),
        Step("pads-in", "new pads in with the piston out", (_, c) => !c.PistonIn),
        Step("caliper-on caliper-down", "a caliper put on over dry pins", (_, c) => !c.PinsGreased),
        Step("hat-plug-in", "the plug over a star wheel that is still to be turned", (car, c) => c.ShoesBackedOff && (car.CableSlack || !car.Made.PullsCables), Hat),
        Step("actuator-plugged", "a plug on an actuator whose screws are not torqued", (_, c) => c.ActuatorScrews != Nut.Tight),
        Step("actuator-plugged", "a plug on a caliper that is not bolted", (_, c) => !c.CaliperOn || c.PinBolts != Nut.Tight),
        Step("circuit-opened", "a bleed screw opened on a caliper that hangs", (_, c) => !c.CaliperOn),
        Step("circuit-opened", "a bleed screw opened that is open", (_, c) => c.BleedScrew != Nut.Tight),
        Step("banjo-torqued", "a banjo torqued on a caliper that hangs", (car, c) => !c.CaliperOn || (!car.Made.IsFixed && c.PinBolts != Nut.Tight) || c.BracketBolts != Nut.Tight),
        Step("bleed-screw-torqued", "a bleed screw torqued over air", (_, c) => c.HasAir),
        Step("sensor-on rattle-spring-on hose-bracket-on pin-caps-on", "a small part hung on what is not bolted", (car, c) => !c.CaliperOn || !c.PadsIn || (!car.Made.IsFixed && c.PinBolts != Nut.Tight)),
        Step("sensor-on", "a worn-through sensor hung on again", (car, c) => c.Wrong.Contains("sensor-renewed") && !Left(car, c, "wear-sensor"), s => s.Has(Fitting.WearSensor)),
        Step("rotor-off", "the hat drags its shoes off: not backed off", (_, c) => c.ShoesOn && !c.ShoesBackedOff, Hat),
        Step("rotor-off", "the hat drags its shoes off: its ridge catches", (_, c) => c.Ridge, Hat),
        Step("rotor-off", "the hat drags its shoes off: the cable is tight", (car, _) => !car.CableSlack, s => s.IsHat && s.HasCable),
        Step("rotor-off", "the hat drags its shoes off: the brake is on", (car, _) => car.Applied, Hat),
        Step("shoes-set new-shoes-set", "shoes set against a pad that drags", (_, c) => c.CaliperOn),
        Step("shoes-set new-shoes-set", "shoes set with the rotor loose on its hub", (_, c) => !Held(c)),
        Step("shoes-set new-shoes-set", "shoes set against a tight cable", (car, _) => !car.CableSlack, s => s.HasCable),
        Step("pads-in", "pads meet an oily rotor", (_, c) => c is { RotorNew: true, RotorOily: true }),
        Step("pads-in pads-back", "pads over dirty lands", (_, c) => !c.LandsClean),
        Step("pads-in rotor-on shoes-on", "new parts in with the other side a surprise", (car, c) => car.Both.Any(o => o != c && !o.LookedAt && !o.Judged)),
        Step("pads-in rotor-on", "new parts in before this side is judged", (_, c) => !c.Judged),
        Step("pads-in rotor-on shoes-on", "new parts in that nobody compared", (car, _) => !car.Compared),
        Step("rotor-on rotor-back", "a rotor on a dirty hub", (_, c) => !c.HubClean),
        Step("rotor-on rotor-back", "a hat pushed over shoes that stand out", (_, c) => c is { ShoesOn: true, ShoesBackedOff: false }, Hat),
        Step("caliper-on caliper-down", "a caliper covers loose bracket bolts", (_, c) => c.BracketBolts != Nut.Tight, Sliding),
        Step("caliper-on", "a caliper put on over shoes that are not set", (car, c) => c.ShoesBackedOff && (car.CableSlack || !car.Made.PullsCables), s => s.IsHat && !s.IsFixed),
        Step("bracket-on fixed-caliper-on", "single-use bracket bolts go in again", (_, c) => c is { OldBracketBolts: true, SpareBracketBolts: false }, s => s.NewBracketBolts),
        Step("caliper-on caliper-down", "single-use pin bolts go in again", (_, c) => c is { OldPinBolts: true, SparePinBolts: false }, s => s.NewPinBolts),
        Step("old-caliper-away", "a hose opened with no new caliper in hand", (car, _) => !car.Compared || car.RightPartMissing),
        Step("screws-cracked-brake", "the hub spins under the screwdriver", (car, c) => !car.Applied || (!car.Made.IsHat && (!c.CaliperOn || !c.PadsIn))),
        Step("wheel-on", "a wheel put on before what is behind it was bled", (_, c) => c.HasAir),
        Step("wheel-on", "a wheel put on before anybody looked for leaks", (car, _) => car.Touched > 0 && car.LeaksAt != car.Touched),
        Step("wheel-on", "a wheel put on with a small part on the bench", (car, c) => c.Off.Count > 0),
        Step("wheel-on", "a wheel put on where the lead has not looked", (_, c) => !c.LeadLooked, s => s.Rules.SignOff == SignOffRule.LeadAlso && !s.InspectOnly),

        // Closing.
        Step("cable-taken-up", "the cable set against a gap", (car, _) => !car.PedalUp && car.Touched > 0),
        Step("cable-taken-up", "the cable set over a caliper that is not together", (car, _) => car.Both.Any(c => !Together(car, c) || !c.CableEndOn)),
        Step("cable-taken-up shoe-cable-taken-up", "a cable set against an applied brake", (car, _) => car.Applied),
        Step("lever-cycled", "a lever cycled that is up", (car, _) => car.Applied),
        Step("cable-taken-up shoe-cable-taken-up", "a cable set that is tight", (car, _) => !car.CableSlack),
        Step("shoe-cable-taken-up", "the cable set over shoes that are not", (car, _) => car.Both.Any(c => c.ShoesBackedOff || !c.ShoesOn)),
        Step("lever-cycled shoe-brake-cycled", "the lever pulled on a slack cable", (car, _) => car.CableSlack, s => s.HasCable),
        Step("service-closed first-apply lever-cycled shoe-brake-cycled brake-applied", "the brake worked before both hubs were turned by hand", (car, _) => car.Touched > 0 && car.Both.Any(c => c.TurnedAt != car.Touched)),
        Step("brake-applied", "the brake applied with a lever off its stop", (car, _) => !MechanismAsItCame(car) && car.Both.Any(c => !c.LeverOnStop), s => s.IsCable),
        Step("measured reservoir-again", "room judged by a level that nobody looked at", (car, _) => !car.ReservoirSeen),
        Step("brake-applied brake-cycled", "the brake applied that was opened and never closed", (car, _) => !MechanismAsItCame(car) && car.ClosedAt != car.Mechanism),
        Step("battery-alone", "the charger off before the brake is closed", (car, _) => !MechanismAsItCame(car) && car.ClosedAt != car.Mechanism),
        Step("codes-cleared lamps-looked", "codes cleared before the brake is closed", (car, _) => !MechanismAsItCame(car) && car.ClosedAt != car.Mechanism),
        Step("auto-restored", "auto-apply given back to a brake that is off", (car, _) => !car.Applied),
        Step("tag-off", "the tag off a brake in service with a side open", (car, _) => car.InService && car.Both.Any(c => !c.CaliperOn || !c.PadsIn || c.TurnedAt != car.Touched)),
        Step("turns-free", "turned by hand before the pads are up", (car, _) => !car.PedalUp && car.Touched > 0),
        Step("turns-free", "a rotor turned that nothing holds", (_, c) => !Held(c)),
        Step("leaks-looked", "leaks looked for under a pedal that is not up", (car, _) => !car.PedalUp && car.Touched > 0),
        Step("lead-signs", "the lead signs a corner that is not together", (car, c) => !c.CaliperOn || !c.PadsIn || c.BracketBolts != Nut.Tight || (!car.Made.IsFixed && c.PinBolts != Nut.Tight) || c.Banjo != Nut.Tight || !c.ActuatorPlugged || c.SpotBolts != Nut.Tight),
        Step("wheels-lead-signs", "the lead signs wheels in the air", (car, _) => car.OnStands),
        Step("wheels-lead-signs", "the lead signs wheels that are not torqued", (car, _) => car.Both.Any(c => c.Nuts != Nut.Tight)),

        // Proofs.
        Step("brake-held", "the hold tried on a pedal that is not up or on loose wheels", (car, _) => (!car.PedalUp && car.Touched > 0) || car.Both.Any(c => c.Nuts != Nut.Tight)),
        Step("lamp-seen-off", "a lamp judged before the drive that would light it", (car, _) => car.DrivenAt != car.Touched),
        Step("bed-in", "bedded in before the first slow drive", (car, _) => car.DrivenAt != car.Touched),
        Step("level-looked", "the level read with the tail up", (car, _) => car.OnStands),
        Step("level-looked", "the level read with the pistons back", (car, _) => !car.PedalUp),
        Step("level-looked", "the level read with the cap off", (car, _) => car.CapOff),
        Step("brake-held", "the hold tried on stands or chocks", (car, _) => car.OnStands || car.Chocked),
        When(Doing.Drives, "driven on an unproved pedal", (car, _) => !car.PedalUp),
        Any(Doing.Drives, "driven on loose wheel nuts", (_, c) => !c.WheelOn || c.Nuts != Nut.Tight),
        Any(Doing.Drives, "driven on a loose bracket", (_, c) => c.BracketBolts != Nut.Tight),
        Any(Doing.Drives, "driven on loose slide pins", (_, c) => c.PinBolts != Nut.Tight, Sliding),
        Any(Doing.Drives, "driven on a loose banjo or bleed screw", (_, c) => c.Banjo != Nut.Tight || c.BleedScrew != Nut.Tight),
        Any(Doing.Drives, "driven with air in it", (_, c) => c.HasAir),
        When(Doing.Drives, "driven before anybody looked for leaks", (car, _) => car.LeaksAt != car.Touched),
        When(Doing.Drives, "driven before the level was read", (car, _) => car.LevelAt != car.Touched),
        When(Doing.Drives, "driven on a parking brake that nobody proved", (car, _) => car.HeldAt != car.Mechanism, Parks),
        When(Doing.Drives, "driven from stands or over chocks", (car, _) => car.OnStands || car.Chocked),
        Any(Doing.Drives, "driven with the wrong part in", (_, c) => c.WrongParts),
        When(Doing.Drives, "driven in service", (car, _) => car.InService || (!MechanismAsItCame(car) && car.ClosedAt != car.Mechanism && car.Made.IsElectric), Parks),
        When(Doing.GivesAway, "handed over untested since it was opened", (car, _) => car.DrivenAt != car.Touched && !car.TaggedOffRoad),
        When(Doing.GivesAway, "handed over with what keeps it off the road, and no tag", (car, _) => Standing(car).Any(f => car.LeftOpen.Contains(f) && KeepsOffTheRoad(f)) && !car.TaggedOffRoad),
        When(Doing.GivesAway, "handed over with a tag that says it may not be driven, and it may", (car, _) => car.TaggedOffRoad && !Standing(car).Any(KeepsOffTheRoad)),
        Step("nuts-cracked", "nuts cracked in neutral, or with no chocks", (car, _) => car.Neutral || !car.Chocked),
        new("the pedal pumped with the cap off", (_, _, now) => (now & Doing.Pedal) != 0 && (now & Doing.Bleeds) == 0, (car, _, _) => car.CapOff),
        Step("leaks-looked", "under a car whose chocks are out", (car, _) => !car.Chocked),
        When(Doing.Wakes, "a brake in service woken over hubs that nobody turned and leaks that nobody looked for", (car, _) =>
            car is { OnStands: true, Applied: false } && (car.CableSlack || !car.Made.PullsCables) && (car.Neutral || car.Both.Any(c => !c.WheelOn)) && !MechanismAsItCame(car) && car.Touched > 0 && (car.LeaksAt != car.Touched || car.Both.Any(c => c.TurnedAt != car.Touched))),
        Step("brake-applied", "hubs not turned by hand since the brake was cycled", (car, _) => car.Both.Any(c => c.TurnedCycle != car.Cycles)),
        Step("pads-in rotor-on shoes-on", "new parts in beside the wrong ones", (_, c) => c.WrongParts),
        Step("rotor-degreased", "degreased before anybody compared it", (car, _) => !car.Compared),
        When(Doing.GivesAway, "handed over with self-pressurising brakes switched off", (car, _) => car.SelfPressureWasOff),
        When(Doing.GivesAway, "handed over with a soft pedal or a creeping parking brake", (car, _) =>
            (car.PedalSoft && !car.LeftOpen.Contains("soft-pedal")) || (car.Creeps && !car.LeftOpen.Contains("creeping-brake"))),
        When(Doing.GivesAway, "handed over with pads, rotors or shoes that are not fit", (car, _) => Unfit(car).Any(u => !car.LeftOpen.Contains(u))),
        When(Doing.GivesAway, "handed over with a fault at a corner that nobody put right or left open", (car, _) => Core.Sides.Both.Any(s => Faults(car.At(s)).Any(f => !car.LeftOpen.Contains($"{f} {s}")))),
        When(Doing.GivesAway, "handed over with pipes that are not sound, a lamp lit or trouble on the drive", (car, _) =>
            (car.PipesUnsound && !car.LeftOpen.Contains("pipes-and-hoses")) || (car.LampLit && !car.LeftOpen.Contains("warning-lamp")) || (car.Trouble && !car.LeftOpen.Contains("what-it-showed"))),
        When(Doing.Drives, "driven with what keeps it off the road", (car, _) => Standing(car).Any(KeepsOffTheRoad)),
        When(Doing.Drives, "driven with pads, rotors or shoes that are not fit", (car, _) => Unfit(car).Any()),
        Any(Doing.Drives, "driven with a fault at a corner", (_, c) => Faults(c).Any(KeepsOffTheRoad)),
        When(Doing.Drives, "driven with self-pressurising brakes switched off", (car, _) => car.SelfPressureWasOff),
        When(Doing.Drives, "driven with a soft pedal or a creeping parking brake", (car, _) => car.PedalSoft || car.Creeps),
        Any(Doing.Drives | Doing.Pedal, "the pedal pressed, or driven, with a hose clamped off", (_, c) => c.HoseClamped),
        When(Doing.ProvesPedal, "the pedal proved over a fault that nobody traced", (car, _) => car.PedalSoft),
        When(Doing.ProvesPedal, "the pedal proved with self-pressurising brakes switched off", (car, _) => car.SelfPressureWasOff),
        Step("lever-cycled shoe-brake-cycled brake-cycled", "cycled again what creeps and nobody traced", (car, _) => car.Creeps),
        Step("new-shoes-set shoes-set", "shoes set with a star wheel that is seized or a motor that is dead", (_, c) => c.Wrong.Contains("star-wheel-freed") || c.Wrong.Contains("plate-motor-renewed")),
        Step("caliper-on caliper-down fixed-caliper-on", "a new caliper put on that is not the right one", (_, c) => c.WrongCaliper),
        Step("wheel-off wheel-torqued", "locking nuts turned with no key", (_, c) => c.Wrong.Contains("nut-key-found")),
        Any(Doing.GivesAway, "handed over on wheels that are not torqued", (_, c) => c.Nuts != Nut.Tight),
        When(Doing.GivesAway, "handed over with pads unlike", (car, _) => car.Left.PadsNew != car.Right.PadsNew),
        When(Doing.GivesAway, "handed over with rotors unlike", (car, _) => car.Left.RotorNew != car.Right.RotorNew),
        When(Doing.GivesAway, "handed over with shoes unlike", (car, _) => car.Left.ShoesNew != car.Right.ShoesNew, Hat),
        When(Doing.GivesAway, "handed over tagged, on the charger or with auto-apply off", (car, _) => car.Tagged || car.Charger || car.AutoApplyOff, Electric),
        When(Doing.GivesAway, "handed over with codes unread since the brake was closed", (car, _) => car.CodesAt != car.Mechanism && !MechanismAsItCame(car), s => s.NeedsRoute),
        When(Doing.GivesAway, "handed over with new pads that were never bedded", (car, _) => !car.BedDone && car.Left.PadsNew && !car.TaggedOffRoad, s => s.Rules.BedIn == BedInRule.Series),
        When(Doing.GivesAway, "handed over with chocks in", (car, _) => car.Chocked),
        When(Doing.GivesAway, "handed over with the ignition on", (car, _) => car.IgnitionOn),
        When(Doing.GivesAway, "handed over on wheels that the lead has not seen", (car, _) => !car.WheelsSigned, s => s.Rules.SignOff == SignOffRule.LeadAlso),
        When(Doing.GivesAway, "handed over with the cap off", (car, _) => car.CapOff),
        When(Doing.GivesAway, "handed over with the brake off or out of P", (car, _) => car.Neutral || (!car.Applied && !car.Made.IsPlain)),
    ];
}

using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning.Twin;

/// <summary>What the person at the car does with body and hands.</summary>
[Flags]
internal enum Doing
{
    Nothing = 0, Pedal = 1, HandsAtCaliper = 2, HandsInHat = 4, HandsAtSpot = 8, UnderCar = 16, TurnsHub = 32, MovesMechanism = 64, Wakes = 128, Drives = 256, Raises = 512, Lowers = 1024, AtCorner = 2048,
    Bleeds = 4096, LetsGo = 8192, TakesChocks = 16384, GivesAway = 32768, ProvesPedal = 65536, OnItsWheels = 131072,
}

/// <summary>
/// The physical action of every step and outcome. A step with none cannot honestly be clicked; one whose action cannot be done on the car as it
/// stands cannot either.
/// </summary>
internal static class Acts
{
    private sealed record Act(Doing Doing, Action<PhysicalCar, PhysicalCorner> Do);

    public static Doing Of(string stepId) => stepId.StartsWith(Leaves, StringComparison.Ordinal) ? Doing.Nothing : All[stepId].Doing;

    /// <summary>What can be wrong at a corner and is kept by the name of the step that puts it right.</summary>
    public static IReadOnlyList<string> ByName { get; } =
        ["actuator-seen-flush", "star-wheel-freed", "plate-motor-renewed", "pads-eased", "pins-seated", "pitted-hub-judged", "sensor-renewed", "lever-mended", "nut-key-found", "wheel-seated", "bracket-swapped", "actuator-renewed", "hose-looked"];

    private const string Leaves = "left-open-";

    public static bool Has(string stepId) => All.ContainsKey(stepId) || stepId.StartsWith(Leaves, StringComparison.Ordinal);

    public static void Do(PhysicalCar car, StepKey step)
    {
        // The lead's word changes no metal: what is wrong is known to be.
        if (step.StepId.StartsWith(Leaves, StringComparison.Ordinal)) car.LeftOpen.Add($"{step.StepId[Leaves.Length..]} {step.Side}".TrimEnd());
        else All[step.StepId].Do(car, car.At(step.Side ?? Side.Left));
    }

    /// <summary>What a person would find at this step: null when it is as expected.</summary>
    public static string? Found(PhysicalCar car, StepKey step, Random random, bool surprised = true)
    {
        var corner = car.At(step.Side ?? Side.Left);
        return step.StepId switch
        {
            "spindle-verified" => corner.SpindleBack ? null : "not-back",
            // Who opened it wiped it down: air behind a dry hose is seen by nobody.
            "circuit-looked" => corner is { HasAir: true, Wiped: false } ? "fluid-shows" : null,
            "service-verified" => car.InService ? "in-service" : car.Applied ? "applied" : null,
            "service-looked" => car.InService ? null : "lost",
            "cable-looked" => car.CableSlack ? null : "tight",
            "lever-on-stop" => car.Made.IsPuller ? corner.LeverOnStop && !(surprised && random.Next(20) == 0) ? null : "stays-off" : corner.LeverOnStop ? null : "off-its-stop",
            "piston-looked" => corner.PistonIn ? null : "short",
            "piston-judged" => !corner.PistonIn || random.Next(4) == 0 ? "short" : null,
            "piston-tried" => random.Next(3) == 0 ? "seized" : null,
            "bleed-screw-renewed" => random.Next(4) == 0 ? "stays" : null,
            "self-pressure-off" => random.Next(4) == 0 ? "ruled-out" : null,
            "service-entered" or "service-entered-car" when random.Next(14) == 0 => random.Next(2) == 0 ? "left-stays" : "right-stays",
            "service-entered" or "service-entered-car" or "puller-released" or "service-closed" or "first-apply" => random.Next(14) == 0 ? "lost-half-way" : null,
            "screws-cracked-brake" or "screws-cracked-bar" => random.Next(6) switch { 0 => "not-yet", 1 => "broke", _ => null },
            "pin-kit" => random.Next(5) == 0 ? "bracket" : null,
            "rotor-freed" => random.Next(3) switch { 0 => "not-yet", 1 => "by-blows", _ => null },
            "pads-eased" => random.Next(3) == 0 ? "not-yet" : null,
            "ring-looked" => random.Next(4) switch { 0 => "hurt", 1 => "play", _ => null },
            "hose-looked" => random.Next(3) == 0 ? "doubtful" : null,
            "lamp-seen-off" => random.Next(4) switch { 0 => "tool-needed", 1 => "stays", _ => null },
            "release-proved" => car.Applied && car.Both.All(c => c.CaliperOn) ? "applied" : null,
            "turns-free" => car.Applied ? "held" : null,
            "measured" => random.Next(5) == 0 ? "no-room" : null,
            "reservoir-again" => random.Next(5) == 0 ? "no-room" : null,
            "verdict-settled" => random.Next(2) == 0 ? "renewed" : null,
            "screw-decided" => random.Next(3) switch { 0 => "drilled", 1 => "others-hold", _ => null },
            "brake-held" => car.WontHold ? "creeps" : null,
            "test-driven" => random.Next(20) == 0 && !car.Made.IsPlain ? "does-not-hold" : null,
            _ => null,
        };
    }

    /// <summary>What really happens when it is found otherwise.</summary>
    public static void Otherwise(PhysicalCar car, StepKey step, string outcome, Random random)
    {
        var corner = car.At(step.Side ?? Side.Left);
        switch (outcome)
        {
            case "lost-half-way":
                car.InService = random.Next(2) == 0 && step.StepId is "service-entered" or "service-entered-car" or "puller-released";
                car.Applied = !car.InService && random.Next(2) == 0 && car.Both.All(c => c is { CaliperOn: true });
                foreach (var c in car.Both) (c.SpindleBack, c.LeverOnStop) = (car.InService && car.Made.IsMotor, car.InService && car.Made.IsPuller);
                (car.CableSlack, car.ReleaseSeen) = (car.InService && car.Made.PullsCables, false);
                car.Moved();
                break;
            case "applied" when step.StepId == "release-proved":
            case "held":
                car.Applied = true;
                // What a brake that applied by itself drives has moved, on every plug that is home; one that nobody had opened only clamps again.
                if (car.Both.Any(c => c.SpindleBack) || (car.CableSlack && car.Made.PullsCables)) car.Moved();
                foreach (var c in car.Both) (c.SpindleBack, c.LeverOnStop) = (c.SpindleBack && !(car.Made.IsMotor && c.ActuatorPlugged), c.LeverOnStop && !car.Made.IsPuller);
                car.CableSlack &= !car.Made.PullsCables;
                car.InService = false;
                break;
            case "no-room":
                (corner.Judged, corner.NoRoom) = (corner.Judged || step.StepId == "measured", true);
                break;
            case "short" when step.StepId == "piston-judged":
                corner.PistonIn = false;
                break;
            case "left-stays" or "right-stays":
                (car.InService, car.Applied) = (true, false);
                (car.Left.SpindleBack, car.Right.SpindleBack) = (outcome != "left-stays", outcome != "right-stays");
                car.Moved();
                break;
            case "by-blows":
                (corner.RotorStuck, car.LampLit) = (false, true);
                corner.Wrong.Add("ring-looked");
                break;
            case "hurt" or "play":
                corner.Wrong.Remove("ring-looked");
                (corner.SpeedSensorBad, corner.HubBad) = (corner.SpeedSensorBad || outcome == "hurt", corner.HubBad || outcome == "play");
                car.LampLit |= outcome == "hurt";
                break;
            case "stays-off":
                corner.LeverOnStop = false;
                corner.Wrong.Add("lever-mended");
                break;
            case "broke":
                (corner.Screws, corner.ScrewBroken) = (Nut.Loose, true);
                break;
            case "doubtful":
                corner.Wrong.Remove("hose-looked");
                corner.HoseBad = true;
                break;
            case "tool-needed":
                car.LampLit = false;
                break;
            case "stays" when step.StepId == "lamp-seen-off":
                (car.Trouble, car.CodesAt, car.LampLit) = (true, -1, true);
                break;
            case "others-hold":
            case "drilled":
                (corner.ScrewBroken, corner.ScrewLeftOut) = (false, false);
                break;
            case "bracket":
                corner.PinsBad = false;
                corner.Wrong.Add("bracket-swapped");
                break;
            case "does-not-hold":
                car.Moved();
                (car.FailedAt, car.Creeps) = (car.Mechanism, true);
                break;
            case "tight":
            case "off-its-stop":
                car.CableSlack = false;
                break;
            case "creeps":
                car.Creeps = true;
                break;
            case "ruled-out":
                (car.SelfPressing, car.SelfPressureWasOff) = (false, false);
                break;
        }
    }

    private static void Can(bool possible, string why)
    {
        if (!possible) throw new ImpossibleException(why);
    }

    private static bool HoleOpen(PhysicalCar car, PhysicalCorner c) => !car.Made.Has(Fitting.HatPlug) || c.Off.Contains(Fitting.HatPlug);

    private static Act Corner(Action<PhysicalCar, PhysicalCorner> act, Doing doing = Doing.Nothing) => new(doing | Doing.AtCorner, act);

    private static Act Car(Action<PhysicalCar> act, Doing doing = Doing.Nothing) => new(doing, (car, _) => act(car));

    private static Act Mends(string stepId, Func<PhysicalCar, PhysicalCorner, bool> reached, Action<PhysicalCorner>? besides = null, bool onTheGround = false) => Corner((car, c) =>
    {
        Can(c.Wrong.Contains(stepId), "nothing is wrong there");
        Can((onTheGround || !c.WheelOn) && reached(car, c), "nobody gets at it");
        c.Wrong.Remove(stepId);
        besides?.Invoke(c);
    }, onTheGround ? Doing.OnItsWheels : Doing.Nothing);

    private static Act Part(Fitting fitting, bool off) => Corner((_, c) =>
    {
        Can(c.Off.Contains(fitting) != off, "it is there already");
        Can(fitting != Fitting.WearSensor || !c.NoSensor, "there is none");
        if (off) c.Off.Add(fitting);
        else c.Off.Remove(fitting);
    });

    private static readonly Action<PhysicalCar> IntoService = car =>
    {
        (car.InService, car.Applied, car.CableSlack) = (true, false, car.Made.PullsCables || car.CableSlack);
        foreach (var c in car.Both) (c.SpindleBack, c.LeverOnStop) = (car.Made.IsMotor || c.SpindleBack, car.Made.IsPuller || c.LeverOnStop);
        car.Moved();
    };

    private static readonly Action<PhysicalCar> Woken = car =>
    {
        Can(!car.KeyAway, "no key");
        (car.IgnitionOn, car.Asleep) = (true, false);
        // Some run out what hangs on its plug.
        if (car is not { Reapplies: true, Made.IsMotor: true }) return;
        foreach (var c in car.Both.Where(c => c is { CaliperOn: false, CaliperAway: false, ActuatorOn: true, ActuatorPlugged: true }))
        {
            c.SpindleBack = false;
            car.Moved();
        }
    };

    private static readonly Action<PhysicalCar> Close = car =>
    {
        (car.InService, car.CableSlack) = (false, !car.Made.PullsCables && car.CableSlack);
        foreach (var c in car.Both) (c.SpindleBack, c.LeverOnStop) = (false, false);
        (car.ClosedAt, car.HeldAt) = (car.Mechanism, -1);
    };

    private static readonly Dictionary<string, Act> All = new(StringComparer.Ordinal)
    {
        ["look-over"] = Car(car => car.LookedOver = true),
        ["identify"] = Corner((_, _) => { }, Doing.OnItsWheels),
        ["choose-route"] = Car(_ => { }),
        ["side-looked"] = Corner((_, c) => { Can(!c.WheelOn, "the wheel hides it"); c.LookedAt = true; }),
        ["chocks-in"] = Car(car => car.Chocked = true),
        ["battery-held"] = Car(car => car.Charger = true),
        ["ignition-on"] = Car(Woken, Doing.Wakes),
        ["ignition-on-again"] = Car(Woken, Doing.Wakes),
        ["self-pressure-off"] = Car(car => (car.SelfPressing, car.SelfPressureWasOff) = (false, true)),
        ["self-pressure-on"] = Car(car => { Can(car.SelfPressureWasOff, "it was never off"); (car.SelfPressing, car.SelfPressureWasOff) = (true, false); }, Doing.Pedal),
        ["pedal-traced"] = Car(car => { Can(car.PedalSoft, "it is firm"); car.PedalSoft = false; }),
        ["brake-traced"] = Car(car => { Can(car.Creeps, "it holds"); car.Creeps = false; }),
        ["hose-clamp-off"] = Corner((_, c) => { Can(c is { HoseClamped: true, HoseOff: false, WheelOn: false }, "nothing is clamped, or the hose would run out"); c.HoseClamped = false; c.Wrong.Add("hose-looked"); }),
        ["wrong-caliper-away"] = Corner((car, c) =>
        {
            Can(c is { CaliperOn: false, CaliperAway: false, Swung: false, PadsIn: false, CaliperNew: true, WrongCaliper: true } && (!c.ActuatorPlugged || !car.Made.IsMotor) && (!c.CableEndOn || !car.Made.HasLever), "cable or bolts hold it, or it is the right one");
            (c.CaliperAway, c.CaliperNew, c.WrongCaliper, c.HoseOff, c.HasAir, c.Wiped) = (true, false, false, true, true, true);
            c.HoseClamped |= car.Made.Rules.Hose == HoseRule.Clamp;
            car.Touch();
        }, Doing.HandsAtCaliper),
        ["actuator-seen-flush"] = Mends("actuator-seen-flush", (_, c) => c.ActuatorOn, onTheGround: true),
        ["star-wheel-freed"] = Mends("star-wheel-freed", (_, c) => !c.RotorOn),
        ["plate-motor-renewed"] = Mends("plate-motor-renewed", (_, c) => c.ShoesBackedOff || !c.ShoesOn),
        ["tagged-off-road"] = Car(car => { Can(car.LeftOpen.Count > 0, "nothing keeps it off the road"); car.TaggedOffRoad = true; }),
        ["off-road-tag-off"] = Car(car => { Can(car.TaggedOffRoad, "no tag on it"); car.TaggedOffRoad = false; }),
        ["codes-read"] = Car(car => Can(car.IgnitionOn, "no power")),
        ["auto-inhibited"] = Car(car => { Can(car.IgnitionOn, "no power"); car.AutoApplyOff = true; }),
        ["gear-neutral"] = Car(car => { Can(car.IgnitionOn || !car.Made.IsElectric, "the selector has no power"); car.Neutral = true; }, Doing.LetsGo),
        ["gear-park"] = Car(car => { Can(car.IgnitionOn || !car.Made.IsElectric, "the selector has no power"); car.Neutral = false; }),
        ["nuts-cracked"] = Corner((car, c) => { Can(c.WheelOn && c.Nuts != Nut.Out && (!car.OnStands || car.Applied), "the wheel turns with the bar"); (c.Nuts, car.DrivenAt, car.WheelsSigned) = (Nut.Loose, -1, false); }, Doing.OnItsWheels),
        ["nuts-cracked-raised"] = Corner((car, c) => { Can(c.WheelOn && c.Nuts == Nut.Tight, "nothing to crack"); (c.Nuts, car.DrivenAt, car.WheelsSigned) = (Nut.Loose, -1, false); }),
        ["nuts-snugged"] = Corner((_, c) => { Can(c is { WheelOn: true, Nuts: Nut.Loose }, "nothing to snug"); c.Nuts = Nut.ByHand; }, Doing.OnItsWheels),
        ["brake-released"] = Car(car => { Can(car.IgnitionOn || !car.Made.IsElectric, "the switch has no power"); car.Applied = false; car.ReleaseSeen = false; }, Doing.LetsGo),
        ["service-verified"] = Car(_ => { }),
        ["service-looked"] = Car(_ => { }),
        ["lifted"] = Car(car => car.OnStands = true, Doing.Raises),
        ["wheel-off"] = Corner((_, c) => { Can(c is { WheelOn: true, WheelStuck: false } && c.Nuts is Nut.Loose or Nut.ByHand, "the nuts or the pilot hold it"); (c.WheelOn, c.Nuts) = (false, Nut.Out); }),
        ["wheel-freed"] = Corner((_, c) => { Can(c is { WheelOn: true, WheelStuck: true }, "nothing is stuck"); c.WheelStuck = false; }),
        ["pipes-sound"] = Car(car => { Can(car.PipesUnsound, "they are sound"); car.PipesUnsound = false; foreach (var c in car.Both) (c.HasAir, c.Wiped, c.BleedScrew) = (true, true, Nut.ByHand); car.Touch(); }, Doing.UnderCar),
        ["service-entered"] = Car(car => { Can(car.IgnitionOn, "no power"); IntoService(car); }, Doing.LetsGo),
        ["service-entered-car"] = Car(car => { Can(car.IgnitionOn, "no power"); IntoService(car); }, Doing.LetsGo),
        ["puller-released"] = Car(IntoService, Doing.LetsGo),
        ["switch-tagged"] = Car(car => car.Tagged = true),
        ["ignition-left-on"] = Car(car => { Can(car is { IgnitionOn: true, InService: true }, "it is off, or the tool holds nothing"); car.ToolHolds = true; }),
        ["ignition-off"] = Car(car =>
        {
            (car.IgnitionOn, car.ToolHolds) = (false, false);
            // Some apply again by themselves when they are switched off.
            if (car is not { Reapplies: true, InService: false, Applied: false } || !car.Made.IsMotor || car.Both.Any(c => !c.CaliperOn || !c.ActuatorPlugged)) return;
            (car.Applied, car.Reapplies) = (true, false);
        }),
        ["ignition-off-after"] = Car(car => (car.IgnitionOn, car.ToolHolds) = (false, false)),
        ["release-proved"] = Car(car => { Can(!car.Applied, "the hubs do not turn"); car.ReleaseSeen = true; }, Doing.UnderCar | Doing.TurnsHub),
        ["key-away"] = Car(car => { Can(!car.IgnitionOn, "it is in the lock"); car.KeyAway = true; }),
        ["key-near"] = Car(car => (car.KeyAway, car.Asleep) = (false, false), Doing.Wakes),
        ["car-asleep"] = Car(car => { Can(car is { IgnitionOn: false, KeyAway: true }, "it does not sleep"); car.Asleep = true; }),
        ["screws-cracked-brake"] = Corner((_, c) => { Can(c is { HasScrews: true, RotorOn: true, WheelOn: false } && c.Screws != Nut.Out, "no screw there"); c.Screws = Nut.Loose; }),
        ["screws-cracked-bar"] = Corner((_, c) => { Can(c is { HasScrews: true, RotorOn: true, WheelOn: false, TwoNuts: false } && c.Screws != Nut.Out, "no screw there"); c.Screws = Nut.Loose; }),
        ["reservoir-looked"] = Car(car => car.ReservoirSeen = true),
        ["actuator-unplugged"] = Corner((_, c) => { Can(c is { ActuatorOn: true, WheelOn: false }, "it is not there"); c.ActuatorPlugged = false; }),
        ["actuator-off"] = Corner((_, c) => { Can(c is { ActuatorPlugged: false, CaliperAway: false }, "still plugged"); (c.ActuatorOn, c.ActuatorScrews) = (false, Nut.Out); }),
        ["spindle-back"] = Corner((car, c) => { Can(!c.ActuatorOn && !car.Applied || !c.ActuatorOn, "the actuator covers it"); c.SpindleBack = true; car.Moved(); }),
        ["spindle-verified"] = Corner((car, c) => Can(car.InService || !c.CaliperOn, "the caliper covers it"), Doing.HandsAtCaliper),
        ["cable-slack"] = Car(car => { Can(!car.CableSlack, "it is slack"); car.CableSlack = true; foreach (var c in car.Both) c.LeverOnStop = true; car.Moved(); }, Doing.UnderCar),
        ["shoe-cable-slack"] = Car(car => { Can(!car.CableSlack, "it is slack"); car.CableSlack = true; car.Moved(); }, Doing.UnderCar),
        ["cable-looked"] = Car(_ => { }, Doing.UnderCar),
        ["hat-plug-out"] = Part(Fitting.HatPlug, true),
        ["hat-plug-in"] = Part(Fitting.HatPlug, false),
        ["star-wheel-backed"] = Corner((car, c) => { Can(c is { ShoesOn: true, ShoesNew: false } && HoleOpen(car, c), "no star wheel to reach"); c.ShoesBackedOff = true; car.Moved(); }, Doing.HandsInHat | Doing.TurnsHub),
        ["star-wheel-again"] = Corner((car, c) => { Can(c is { ShoesOn: true, ShoesNew: true } && HoleOpen(car, c), "no star wheel to reach"); c.ShoesBackedOff = true; car.Moved(); }, Doing.HandsInHat | Doing.TurnsHub),
        ["ridge-backed"] = Corner((_, c) => { Can(c.Ridge, "nothing catches"); c.Ridge = false; }, Doing.HandsInHat | Doing.TurnsHub),
        ["circuit-looked"] = Corner((_, c) => Can(!c.WheelOn, "the wheel hides it")),
        ["sensor-off"] = Part(Fitting.WearSensor, true),
        ["sensor-on"] = Part(Fitting.WearSensor, false),
        ["rattle-spring-off"] = Part(Fitting.RattleSpring, true),
        ["rattle-spring-on"] = Part(Fitting.RattleSpring, false),
        ["hose-bracket-off"] = Part(Fitting.HoseBracket, true),
        ["hose-bracket-on"] = Part(Fitting.HoseBracket, false),
        ["pin-caps-off"] = Part(Fitting.PinCaps, true),
        ["pin-caps-on"] = Part(Fitting.PinCaps, false),
        ["spot-off"] = Corner((car, c) => { Can(c is { SpotOn: true, WheelOn: false }, "it is off"); (c.SpotOn, c.SpotBolts) = (false, Nut.Out); car.Moved(); }, Doing.HandsAtSpot),
        ["cable-end-off"] = Corner((car, c) => { Can(car.CableSlack && c.CableEndOn, "a tight cable holds it"); c.CableEndOn = false; }, Doing.HandsAtCaliper),
        ["cable-end-on"] = Corner((car, c) => { Can(car.CableSlack && c is { CaliperOn: true, CableEndOn: false }, "a tight cable does not reach"); c.CableEndOn = true; }),
        ["fixed-caliper-off"] = Corner((car, c) => { Can(c is { CaliperOn: true, WheelOn: false, PadsIn: false }, "pads hold it"); (c.CaliperOn, c.BracketBolts, c.OldBracketBolts) = (false, Nut.Out, true); c.LeadLooked = false; car.Touch(); }, Doing.HandsAtCaliper),
        ["caliper-off"] = Corner((car, c) => { Can(c is { CaliperOn: true, WheelOn: false, CaliperAway: false }, "it is off"); (c.CaliperOn, c.PinBolts, c.OldPinBolts) = (false, Nut.Out, true); c.LeadLooked = false; car.Touch(); car.MovedCaliper(); }, Doing.HandsAtCaliper),
        ["caliper-swung"] = Corner((car, c) => { Can(c is { CaliperOn: true, WheelOn: false, CaliperAway: false }, "it is off"); (c.CaliperOn, c.Swung, c.PinBolts, c.OldPinBolts) = (false, true, Nut.Out, true); c.LeadLooked = false; car.Touch(); car.MovedCaliper(); }, Doing.HandsAtCaliper),
        ["swung-caliper-off"] = Corner((_, c) => { Can(c.Swung, "nothing is swung"); c.Swung = false; }, Doing.HandsAtCaliper),
        ["pads-out"] = Corner((car, c) => { Can(c is { PadsIn: true, PadsNew: false } && (!c.CaliperOn || car.Made.IsFixed), "the caliper covers them"); c.PadsIn = false; c.LeadLooked = false; car.Touch(); car.MovedCaliper(); }, Doing.HandsAtCaliper),
        ["pads-kept-out"] = Corner((car, c) => { Can(c is { PadsIn: true, PadsNew: true } && (!c.CaliperOn || car.Made.IsFixed), "the caliper covers them"); (c.PadsIn, c.PadsNew) = (false, false); c.LeadLooked = false; car.Touch(); car.MovedCaliper(); }, Doing.HandsAtCaliper),
        ["bracket-off"] = Corner((car, c) => { Can(c is { BracketOn: true, CaliperOn: false, Swung: false, PadsIn: false }, "the caliper covers its bolts"); (c.BracketOn, c.BracketBolts, c.OldBracketBolts) = (false, Nut.Out, true); c.LeadLooked = false; car.Touch(); }, Doing.HandsAtCaliper),
        ["rotor-freed"] = Corner((_, c) => { Can(c is { RotorOn: true, RotorStuck: true, PadsIn: false }, "nothing is stuck"); c.RotorStuck = false; }, Doing.HandsAtCaliper),
        ["screw-decided"] = Corner((_, c) => { Can(c.ScrewBroken, "none is broken"); (c.Screws, c.ScrewBroken, c.ScrewLeftOut) = (Nut.Out, false, true); }),
        ["rotor-off"] = Corner((car, c) =>
        {
            Can(c is { RotorOn: true, WheelOn: false, TwoNuts: false, PadsIn: false }, "it is held");
            Can(car.Made.IsFixed ? !c.CaliperOn : !c.BracketOn || car.Made.RotorComesOffWithBracketOn, "it does not pass what is in front of it");
            Can(!c.HasScrews || c.Screws != Nut.Tight, "its screws hold it");
            (c.RotorOn, c.RotorNew, c.LeadLooked) = (false, false, false);
            car.Touch();
            car.MovedRotor();
        }, Doing.HandsAtCaliper),
        ["shoes-off"] = Corner((car, c) => { Can(c is { RotorOn: false, ShoesOn: true, ShoesNew: false }, "the hat covers them"); c.ShoesOn = false; car.Moved(); }, Doing.HandsInHat),
        ["new-shoes-off"] = Corner((car, c) => { Can(c is { RotorOn: false, ShoesOn: true, ShoesNew: true }, "the hat covers them"); (c.ShoesOn, c.ShoesNew) = (false, false); car.Moved(); }, Doing.HandsInHat),
        ["old-caliper-away"] = Corner((car, c) => { Can(c is { CaliperOn: false, CaliperAway: false, Swung: false, PadsIn: false } && (!c.ActuatorPlugged || !car.Made.IsMotor) && (c.CableEndOn is false || !car.Made.HasLever), "cable or bolts hold it"); (c.CaliperAway, c.HoseOff, c.HasAir, c.Wiped, c.Banjo) = (true, true, true, true, Nut.Out); c.HoseClamped |= car.Made.Rules.Hose == HoseRule.Clamp; c.LeadLooked = false; car.Touch(); }, Doing.HandsAtCaliper),
        ["old-caliper-back"] = Corner((car, c) => { Can(c.CaliperAway, "it is there"); (c.CaliperAway, c.HoseOff, c.Banjo) = (false, false, Nut.ByHand); car.Touch(); }),
        ["holding-nuts-on"] = Corner((_, c) => { Can(c is { RotorOn: true, WheelOn: false }, "nothing to hold"); c.TwoNuts = true; }),
        ["holding-nuts-off"] = Corner((_, c) => { Can(c.TwoNuts, "none there"); c.TwoNuts = false; }),
        ["inspected"] = Corner((_, c) => { Can(!c.WheelOn, "the wheel hides it"); c.Judged = true; }),
        ["measured"] = Corner((car, c) => { Can(c is { PadsIn: false, CaliperAway: false } && (!c.CaliperOn || car.Made.IsFixed), "the pads are in"); c.Judged = true; }, Doing.HandsAtCaliper),
        ["verdict-settled"] = Corner((_, _) => { }, Doing.OnItsWheels),
        ["right-part"] = Car(car => { Can(car.RightPartMissing, "nothing is missing"); car.RightPartMissing = false; }),
        ["parts-compared"] = Car(car => { Can(!car.RightPartMissing && car.Both.Any(c => !c.PadsIn), "nothing to compare, or nothing to compare it with"); car.Compared = true; }),
        ["wrong-parts-out"] = Corner((_, c) => { Can(c.WrongParts && !c.PadsNew && !(c.RotorOn && c.RotorNew) && !c.ShoesNew, "a new part is still on"); c.WrongParts = false; }, Doing.OnItsWheels),
        ["bolts-laid-out"] = Corner((_, c) => (c.SpareBracketBolts, c.SparePinBolts) = (true, true), Doing.OnItsWheels),
        ["shoes-measured"] = Corner((_, c) => { Can(!c.RotorOn, "the hat covers them"); c.ShoesJudged = true; }, Doing.HandsInHat),
        ["plate-clean"] = Corner((_, c) => { Can(!c.ShoesOn, "the shoes are on"); c.PlateClean = true; }, Doing.HandsInHat),
        ["hub-clean"] = Corner((_, c) => { Can(!c.RotorOn, "the rotor covers it"); c.HubClean = true; }),
        ["lands-clean"] = Corner((car, c) => { Can(!c.PadsIn && (car.Made.IsFixed ? !c.CaliperAway : !c.CaliperOn), "pads or caliper are in the way, or it is away"); c.LandsClean = true; }, Doing.HandsAtCaliper),
        ["hardware-new"] = Corner((_, c) => { Can(c is { PadsIn: false, ClipsBad: true, LandsClean: true }, "the pads are in, or the clips are new"); c.ClipsBad = false; }, Doing.HandsAtCaliper),
        ["pin-kit"] = Corner((_, c) => { Can(c is { CaliperOn: false, PinsBad: true }, "the caliper is on, or the pins are new"); (c.PinsBad, c.PinsGreased) = (false, false); }, Doing.HandsAtCaliper),
        ["pins-greased"] = Corner((car, c) => { Can(!c.CaliperOn && (!c.PinsBad || car.LeftOpen.Any(l => l.StartsWith("slide-pins", StringComparison.Ordinal))), "the caliper is on, or the pins are seized"); c.PinsGreased = true; }, Doing.HandsAtCaliper),
        ["rotor-degreased"] = Corner((_, c) => c.RotorOily = false, Doing.OnItsWheels),
        ["push-tried"] = Corner((_, c) => { Can(!c.CaliperOn, "the caliper is on"); c.MethodKnown = true; }, Doing.HandsAtCaliper),
        ["lever-on-stop"] = Corner((_, _) => { }),
        ["cap-off"] = Car(car => car.CapOff = true),
        ["cap-on"] = Car(car => car.CapOff = false),
        ["reservoir-again"] = Corner((_, c) => c.NoRoom = false, Doing.OnItsWheels),
        ["fluid-drawn"] = Corner((_, c) => { Can(c.NoRoom, "there is room"); c.NoRoom = false; }, Doing.OnItsWheels),
        ["piston-home"] = Corner((car, c) =>
        {
            Can(c is { PadsIn: false, CaliperAway: false } && (car.Made.IsFixed || !c.CaliperOn), "the pads are before it, or it is away");
            Can(!car.Made.IsMotor || c.SpindleBack, "the spindle stands behind it");
            c.PistonIn = true;
            if (car.Made.Rules.FluidRoom == FluidRoomRule.OpenBleeder) (c.HasAir, c.Wiped, c.BleedScrew) = (true, true, Nut.ByHand);
            car.Touch();
        }, Doing.HandsAtCaliper),
        ["piston-levered"] = Corner((car, c) =>
        {
            Can(c is { CaliperOn: true, PadsIn: true, RotorOn: true, WheelOn: false } && !car.Made.IsFixed, "there is nothing to lever against");
            Can(!car.Made.IsMotor || c.SpindleBack, "the spindle stands behind it");
            c.PistonIn = true;
            if (car.Made.Rules.FluidRoom == FluidRoomRule.OpenBleeder) (c.HasAir, c.Wiped, c.BleedScrew) = (true, true, Nut.ByHand);
            car.ReservoirSeen = false;
            car.Touch();
        }, Doing.HandsAtCaliper),
        ["piston-judged"] = Corner((car, c) => Can(!c.PadsIn && (car.Made.IsFixed || !c.CaliperOn), "nobody can see it"), Doing.HandsAtCaliper),
        ["piston-tried"] = Corner((car, c) =>
        {
            Can(!c.PadsIn && (car.Made.IsFixed || !c.CaliperOn), "the pads are before it");
            Can(!car.Made.IsMotor || c.SpindleBack, "the spindle stands behind it");
            if (car.Made.Rules.FluidRoom == FluidRoomRule.OpenBleeder) (c.HasAir, c.Wiped, c.BleedScrew) = (true, true, Nut.ByHand);
            car.Touch();
        }, Doing.HandsAtCaliper),
        ["circuit-opened"] = Corner((car, c) => { Can(!c.WheelOn, "nobody reaches the screw"); (c.HasAir, c.Wiped, c.BleedScrew) = (true, true, Nut.ByHand); car.Touch(); }, Doing.HandsAtCaliper),
        ["hose-renewed"] = Corner((car, c) => { Can(c is { WheelOn: false, CaliperAway: false, HoseOff: false, HoseBad: true }, "the hose is sound, or there is nothing at its end"); (c.HoseBad, c.HasAir, c.Wiped, c.Banjo) = (false, true, true, Nut.ByHand); car.Touch(); }, Doing.HandsAtCaliper),
        ["bleed-screw-renewed"] = Corner((car, c) => { Can(c is { WheelOn: false, CaliperAway: false, BleedScrewBad: true }, "the screw is sound, or away"); (c.BleedScrewBad, c.HasAir, c.Wiped, c.BleedScrew) = (false, true, true, Nut.ByHand); car.Touch(); }, Doing.HandsAtCaliper),
        ["cable-renewed"] = Corner((car, c) => { Can(c.CableBad && car is { CableSlack: true, OnStands: true }, "the cable is sound, or tight"); c.CableBad = false; car.Moved(); }, Doing.HandsAtCaliper | Doing.UnderCar),
        ["hub-mended"] = Corner((_, c) => { Can(c is { HubBad: true, WheelOn: false, PadsIn: false }, "nothing is broken, or nobody gets at it"); c.HubBad = false; }, Doing.HandsAtCaliper),
        ["speed-sensor-mended"] = Corner((_, c) => { Can(c is { SpeedSensorBad: true, WheelOn: false }, "nothing is broken, or nobody gets at it"); c.SpeedSensorBad = false; }, Doing.HandsAtCaliper),
        ["pads-eased"] = Mends("pads-eased", (car, c) => !c.PadsIn && (car.Made.IsFixed || !c.CaliperOn)),
        ["pins-seated"] = Mends("pins-seated", (_, c) => !c.CaliperOn, c => c.PinsGreased = false),
        ["pitted-hub-judged"] = Mends("pitted-hub-judged", (_, c) => c.RotorOn),
        ["ring-looked"] = Mends("ring-looked", (_, _) => true),
        ["sensor-renewed"] = Mends("sensor-renewed", (_, c) => c.Off.Contains(Fitting.WearSensor)),
        // It comes back by itself then; a cable on it would still hold it.
        ["lever-mended"] = Mends("lever-mended", (_, c) => !c.CableEndOn, c => c.LeverOnStop = true),
        ["nut-key-found"] = Mends("nut-key-found", (_, _) => true, onTheGround: true),
        ["wheel-seated"] = Mends("wheel-seated", (_, _) => true),
        // On the bench: how the car stands is nothing to these two.
        ["bracket-swapped"] = Mends("bracket-swapped", (_, c) => !c.BracketOn, c =>
        {
            (c.LandsClean, c.ClipsBad, c.PinsGreased, c.PinsBad, c.BracketNew) = (true, false, true, false, true);
            c.Wrong.Remove("pins-seated");
        }, onTheGround: true),
        ["actuator-renewed"] = Mends("actuator-renewed", (_, c) => !c.ActuatorOn, onTheGround: true),
        ["hose-looked"] = Mends("hose-looked", (_, c) => !c.HoseClamped),
        ["lamp-seen-off"] = Car(car => { Can(car.LampLit, "no lamp is asked about"); car.LampLit = false; }),
        ["trouble-settled"] = Car(car => { Can(car.Trouble, "nothing is amiss"); car.Trouble = false; }),
        ["piston-looked"] = Corner((car, c) => Can(!c.PadsIn && (car.Made.IsFixed || !c.CaliperOn), "nobody can see it"), Doing.HandsAtCaliper),
        ["new-caliper-hung"] = Corner((car, c) =>
        {
            Can(c.CaliperAway && !car.RightPartMissing, "the old one is there");
            (c.CaliperAway, c.CaliperNew, c.HoseOff, c.Banjo, c.PistonIn, c.BleedScrew, c.BleedScrewBad) = (false, true, false, Nut.ByHand, true, Nut.Tight, false);
            if (car.Made.IsMotor) (c.ActuatorOn, c.ActuatorPlugged, c.ActuatorScrews, c.SpindleBack) = (true, false, Nut.Tight, true);
            car.Touch();
        }),
        ["shoes-back"] = Corner((car, c) => { Can(!c.RotorOn && !c.ShoesOn, "they are on"); (c.ShoesOn, c.ShoesNew, c.ShoesBackedOff) = (true, false, true); car.Moved(); }, Doing.HandsInHat),
        ["shoes-on"] = Corner((car, c) => { Can(!c.RotorOn && !c.ShoesOn, "they are on"); (c.ShoesOn, c.ShoesNew, c.ShoesBackedOff) = (true, true, true); car.Moved(); }, Doing.HandsInHat),
        ["rotor-on"] = Corner((car, c) => { Can(!c.RotorOn && !car.RightPartMissing, "one is on"); (c.RotorOn, c.RotorNew) = (true, true); car.BedDone = false; car.Touch(); car.MovedRotor(); }, Doing.HandsAtCaliper | Doing.HandsInHat),
        ["rotor-back"] = Corner((car, c) => { Can(!c.RotorOn, "one is on"); (c.RotorOn, c.RotorNew) = (true, false); car.Touch(); car.MovedRotor(); }, Doing.HandsAtCaliper | Doing.HandsInHat),
        ["shoes-set"] = Corner((car, c) => { Can(c is { RotorOn: true, ShoesOn: true, ShoesNew: false, ShoesBackedOff: true }, "nothing to set"); c.ShoesBackedOff = false; car.Moved(); }, Doing.HandsInHat | Doing.TurnsHub),
        ["new-shoes-set"] = Corner((car, c) => { Can(c is { RotorOn: true, ShoesOn: true, ShoesNew: true, ShoesBackedOff: true }, "nothing to set"); c.ShoesBackedOff = false; car.Moved(); }, Doing.HandsInHat | Doing.TurnsHub),
        ["rotor-screws-torqued"] = Corner((_, c) => { Can(c is { RotorOn: true, HasScrews: true, WheelOn: false } && c.Screws != Nut.Tight, "nothing to torque"); c.Screws = Nut.Tight; }),
        ["bracket-on"] = Corner((car, c) => { Can(c is { BracketOn: false, CaliperOn: false }, "it is on"); (c.BracketOn, c.BracketBolts) = (true, Nut.ByHand); Refitted(ref c.OldBracketBolts, ref c.SpareBracketBolts); car.Touch(); }, Doing.HandsAtCaliper),
        ["bracket-torqued"] = Corner((car, c) => { Can(c is { BracketOn: true, CaliperOn: false, BracketBolts: Nut.ByHand }, "the caliper covers its bolts"); c.BracketBolts = Nut.Tight; car.Touch(); }, Doing.HandsAtCaliper),
        ["spot-on"] = Corner((car, c) => { Can(c is { SpotOn: false, RotorOn: true }, "no rotor"); (c.SpotOn, c.SpotBolts) = (true, Nut.ByHand); car.Moved(); }, Doing.HandsAtSpot),
        ["spot-torqued"] = Corner((_, c) => { Can(c is { SpotOn: true, SpotBolts: Nut.ByHand }, "nothing to torque"); c.SpotBolts = Nut.Tight; }, Doing.HandsAtSpot),
        ["fixed-caliper-on"] = Corner((car, c) => { Can(c is { CaliperOn: false, CaliperAway: false, RotorOn: true, PadsIn: false }, "no rotor, or its pads foul it"); (c.CaliperOn, c.BracketBolts) = (true, Nut.ByHand); Refitted(ref c.OldBracketBolts, ref c.SpareBracketBolts); car.Touch(); }),
        ["mounting-torqued"] = Corner((car, c) => { Can(c is { CaliperOn: true, BracketBolts: Nut.ByHand }, "nothing to torque"); c.BracketBolts = Nut.Tight; car.Touch(); }),
        ["pads-back"] = Corner((car, c) => { Can(!c.PadsIn && (!c.CaliperOn || car.Made.IsFixed) && c.RotorOn && c.BracketOn, "nowhere to put them"); (c.PadsIn, c.PadsNew) = (true, false); car.Touch(); car.MovedCaliper(); }, Doing.HandsAtCaliper),
        ["pads-in"] = Corner((car, c) => { Can(!c.PadsIn && (!c.CaliperOn || car.Made.IsFixed) && c.RotorOn && c.BracketOn && !car.RightPartMissing, "nowhere to put them"); (c.PadsIn, c.PadsNew) = (true, true); car.BedDone = false; car.Touch(); car.MovedCaliper(); }, Doing.HandsAtCaliper),
        ["actuator-on"] = Corner((car, c) => { Can(!c.ActuatorOn && !c.CaliperAway, "it is on"); (c.ActuatorOn, c.ActuatorPlugged, c.ActuatorScrews) = (true, false, Nut.ByHand); car.Moved(); }),
        ["actuator-torqued"] = Corner((_, c) => { Can(c is { ActuatorOn: true, ActuatorScrews: Nut.ByHand }, "nothing to torque"); c.ActuatorScrews = Nut.Tight; }),
        ["caliper-on"] = Corner((car, c) => { Can(c is { CaliperOn: false, CaliperAway: false, Swung: false, PadsIn: true, BracketOn: true, RotorOn: true } && (c.PistonIn || !c.PadsNew), "it does not pass over the pads"); (c.CaliperOn, c.PinBolts) = (true, Nut.ByHand); Refitted(ref c.OldPinBolts, ref c.SparePinBolts); car.Touch(); car.MovedCaliper(); }, Doing.HandsAtCaliper),
        ["caliper-down"] = Corner((car, c) => { Can(c is { CaliperOn: false, Swung: true, PadsIn: true, BracketOn: true, RotorOn: true } && (c.PistonIn || !c.PadsNew), "it does not pass over the pads"); (c.CaliperOn, c.Swung, c.PinBolts) = (true, false, Nut.ByHand); Refitted(ref c.OldPinBolts, ref c.SparePinBolts); car.Touch(); car.MovedCaliper(); }, Doing.HandsAtCaliper),
        ["slide-pins-torqued"] = Corner((car, c) => { Can(c is { CaliperOn: true, PinBolts: Nut.ByHand }, "nothing to torque"); c.PinBolts = Nut.Tight; car.Touch(); }),
        ["actuator-plugged"] = Corner((_, c) => { Can(c.ActuatorOn, "it is off"); c.ActuatorPlugged = true; }),
        ["banjo-torqued"] = Corner((car, c) => { Can(c is { HoseOff: false, Banjo: Nut.ByHand }, "nothing to torque"); c.Banjo = Nut.Tight; car.Touch(); }),
        ["lead-signs"] = Corner((_, c) => c.LeadLooked = true),
        ["wheel-on"] = Corner((_, c) => { Can(c is { WheelOn: false, TwoNuts: false, RotorOn: true }, "something is in its way"); (c.WheelOn, c.Nuts) = (true, Nut.ByHand); }),
        ["wheel-torqued"] = Corner((_, c) => { Can(c.WheelOn && c.Nuts != Nut.Tight, "nothing to torque"); c.Nuts = Nut.Tight; }, Doing.OnItsWheels),
        ["corner-bled"] = Corner((car, c) => { Can(!c.WheelOn && !c.HoseOff, "nobody reaches the screw"); (c.HasAir, c.Wiped, c.BleedScrew) = (false, false, Nut.ByHand); car.Touch(); }, Doing.Bleeds | Doing.Pedal),
        ["bleed-screw-torqued"] = Corner((car, c) => { Can(c.BleedScrew == Nut.ByHand, "nothing to torque"); c.BleedScrew = Nut.Tight; car.Touch(); }),
        ["pedal-proved"] = Car(car => car.PedalAt = car.Touched, Doing.Pedal | Doing.ProvesPedal),
        ["pedal-proved-routine"] = Car(car => car.PedalAt = car.Touched, Doing.Pedal | Doing.ProvesPedal),
        ["turns-free"] = Corner((car, c) => (c.TurnedAt, c.TurnedCycle) = (car.Touched, car.Cycles), Doing.TurnsHub),
        ["leaks-looked"] = Car(car => car.LeaksAt = car.Touched, Doing.Pedal | Doing.UnderCar),
        ["tag-off"] = Car(car => car.Tagged = false),
        ["service-closed"] = Car(car => { Can(car.IgnitionOn, "no power"); Close(car); car.Applied = false; }, Doing.MovesMechanism),
        ["first-apply"] = Car(car => { Can(car.IgnitionOn, "no power"); Close(car); car.Applied = true; car.ReleaseSeen = false; }, Doing.MovesMechanism),
        ["brake-cycled"] = Car(car => { Can(car.IgnitionOn, "no power"); (car.Applied, car.InService) = (false, false); car.Cycles++; car.ReleaseSeen = false; }, Doing.MovesMechanism),
        ["cable-taken-up"] = Car(car => { car.CableSlack = false; car.Moved(); }, Doing.UnderCar),
        ["shoe-cable-taken-up"] = Car(car => { car.CableSlack = false; car.Moved(); }, Doing.UnderCar),
        ["lever-cycled"] = Car(car => { car.Cycles++; foreach (var c in car.Both) c.LeverOnStop = true; car.ClosedAt = car.Mechanism; }, Doing.MovesMechanism),
        ["shoe-brake-cycled"] = Car(car => (car.Cycles, car.ClosedAt) = (car.Cycles + 1, car.Mechanism), Doing.MovesMechanism),
        ["brake-applied"] = Car(car => { Can(car.IgnitionOn || !car.Made.IsElectric, "no power"); (car.Applied, car.InService) = (true, false); car.ReleaseSeen = false; }, Doing.MovesMechanism),
        ["auto-restored"] = Car(car => { Can(car.IgnitionOn, "no power"); car.AutoApplyOff = false; }),
        ["codes-cleared"] = Car(car => { Can(car.IgnitionOn, "no power"); car.CodesAt = car.Mechanism; }),
        ["lamps-looked"] = Car(car => { Can(car.IgnitionOn, "no power"); car.CodesAt = car.Mechanism; }),
        ["battery-alone"] = Car(car => car.Charger = false),
        ["lowered"] = Car(car => car.OnStands = false, Doing.Lowers),
        ["level-looked"] = Car(car => car.LevelAt = car.Touched),
        ["chocks-out"] = Car(car => car.Chocked = false, Doing.TakesChocks),
        ["brake-held"] = Car(car => { Can(!car.OnStands && !car.Chocked, "chocks hold it, not the brake"); car.HeldAt = car.Mechanism; }),
        ["torques-accepted"] = Car(_ => { }),
        ["test-driven"] = Car(car => car.DrivenAt = car.Touched, Doing.Drives),
        ["bed-in"] = Car(car => car.BedDone = true, Doing.Drives),
        ["wheels-lead-signs"] = Car(car => car.WheelsSigned = true),
        ["handed-over"] = Car(_ => { }, Doing.GivesAway),
    };

    // A laid-out set is used up when it is fitted.
    private static void Refitted(ref bool old, ref bool spare)
    {
        if (spare) old = false;
        spare = false;
    }
}

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

    private static bool Held(PhysicalCorner c) => c.WheelOn || c.TwoNuts || (c.HasScrews && c.Screws == Nut.Tight);

    private static bool CanMove(PhysicalCar car, PhysicalCorner c) => car.Made.IsElectric && !(car is { InService: true, Tagged: true } || (car.Made.IsMotor && !c.ActuatorPlugged) || car is { Tagged: true, Asleep: true });

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
        When(Doing.Wakes, "woken with spindles back and no pedal", (car, _) => car.Both.Any(c => c.SpindleBack) && !car.PedalUp && !car.InService, s => s.IsMotor),

        // Hands.
        When(Doing.HandsAtCaliper, "hands at a caliper that can close", CanMove, s => s.IsCaliperType && s.IsElectric),
        When(Doing.HandsAtCaliper, "hands at a caliper with the ignition on", (car, _) => car.IgnitionOn, s => s.IsCaliperType && s.IsElectric),
        When(Doing.HandsAtCaliper, "hands at a caliper with the key near", (car, _) => !car.KeyAway, s => s.IsCaliperType && s.IsElectric),
        When(Doing.HandsInHat, "hands among shoes that can close", CanMove, s => s.IsHat && s.IsElectric),
        When(Doing.HandsInHat, "hands among shoes with the ignition on", (car, _) => car.IgnitionOn, s => s.IsHat && s.IsElectric),
        When(Doing.HandsInHat, "hands among shoes with the key near", (car, _) => !car.KeyAway, s => s.IsHat && s.IsElectric),
        When(Doing.HandsAtSpot, "hands at a spot caliper that can close", CanMove, s => s.IsSpot && s.IsElectric),
        When(Doing.HandsAtSpot, "hands at a spot caliper with the ignition on", (car, _) => car.IgnitionOn, s => s.IsSpot && s.IsElectric),
        When(Doing.HandsAtSpot, "hands at a spot caliper with the key near", (car, _) => !car.KeyAway, s => s.IsSpot && s.IsElectric),
        Step("caliper-off", "a caliper pulled off an applied brake", (car, _) => car.Applied, Caliper),
        Step("caliper-off", "a caliper pulled off a tight cable", (car, _) => !car.CableSlack, s => s.HasLever),
        Step("caliper-off", "a caliper pulled off a spindle that is out", (_, c) => !c.SpindleBack, s => s.IsMotor),
        Step("caliper-off fixed-caliper-off pads-out", "a brake opened that can press itself", (car, _) => car.SelfPressing),
        Step("caliper-off", "a caliper pulled off by its wear sensor's lead", (_, c) => !c.Off.Contains(Fitting.WearSensor), s => s.Has(Fitting.WearSensor)),
        Step("actuator-unplugged", "unplugged from a car that is awake", (car, _) => !car.Asleep),
        Step("actuator-unplugged", "unplugged with the ignition on", (car, _) => car.IgnitionOn),
        Step("actuator-unplugged", "unplugged from an applied brake", (car, _) => car.Applied),
        Step("actuator-off", "an actuator taken off an applied brake", (car, _) => car.Applied),

        // The piston.
        Step("piston-home", "wound against a tight cable", (car, _) => !car.CableSlack, s => s.HasLever),
        Step("piston-home", "wound with the lever off its stop", (_, c) => !c.LeverOnStop, s => s.HasLever),
        Step("piston-home", "pushed onto its spindle", (_, c) => !c.SpindleBack, s => s.IsMotor),
        Step("piston-home", "sent home with nobody having looked at the reservoir", (car, _) => !car.ReservoirSeen),
        Step("piston-home", "sent home for parts nobody compared", (car, _) => !car.Compared),
        Step("piston-home", "sent home by a way that nobody knows", (_, c) => !c.MethodKnown),
        Step("caliper-on", "a caliper put on over a spindle that is out and a piston that is home", (_, c) => !c.SpindleBack && c.PistonIn, s => s.IsMotor),

        // The car.
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
        When(Doing.TurnsHub, "a hub turned by hand against the brake", (car, _) => car.Applied, Parks),

        // Fitting.
        Step("rotor-off", "the hat drags its shoes off: not backed off", (_, c) => c.ShoesOn && !c.ShoesBackedOff, Hat),
        Step("rotor-off", "the hat drags its shoes off: the cable is tight", (car, _) => !car.CableSlack, s => s.IsHat && s.HasCable),
        Step("rotor-off", "the hat drags its shoes off: the brake is on", (car, _) => car.Applied, Hat),
        Step("shoes-set new-shoes-set", "shoes set against a pad that drags", (_, c) => c.CaliperOn),
        Step("shoes-set new-shoes-set", "shoes set with the rotor loose on its hub", (_, c) => !Held(c)),
        Step("shoes-set new-shoes-set", "shoes set against a tight cable", (car, _) => !car.CableSlack, s => s.HasCable),
        Step("pads-in", "pads meet an oily rotor", (_, c) => c is { RotorNew: true, RotorOily: true }),
        Step("pads-in", "new pads over dirty lands", (_, c) => !c.LandsClean),
        Step("pads-in rotor-on shoes-on", "new parts in with the other side a surprise", (car, c) => car.Both.Any(o => o != c && !o.LookedAt && !o.Judged)),
        Step("pads-in rotor-on", "new parts in before this side is judged", (_, c) => !c.Judged),
        Step("pads-in rotor-on shoes-on", "new parts in that nobody compared", (car, _) => !car.Compared),
        Step("rotor-on rotor-back", "a rotor on a dirty hub", (_, c) => !c.HubClean),
        Step("rotor-on rotor-back", "a hat pushed over shoes that stand out", (_, c) => c is { ShoesOn: true, ShoesBackedOff: false }, Hat),
        Step("caliper-on", "a caliper covers loose bracket bolts", (_, c) => c.BracketBolts != Nut.Tight, Sliding),
        Step("caliper-on", "a caliper put on over shoes that are not set", (car, c) => c.ShoesBackedOff && (car.CableSlack || !car.Made.PullsCables), s => s.IsHat && !s.IsFixed),
        Step("bracket-on fixed-caliper-on", "single-use bracket bolts go in again", (_, c) => c is { OldBracketBolts: true, SpareBracketBolts: false }, s => s.NewBracketBolts),
        Step("caliper-on", "single-use pin bolts go in again", (_, c) => c is { OldPinBolts: true, SparePinBolts: false }, s => s.NewPinBolts),
        Step("old-caliper-away", "a hose opened with no new caliper in hand", (car, _) => !car.Compared || car.RightPartMissing),
        Step("screws-cracked-brake", "the hub spins under the screwdriver", (car, c) => !car.Applied || (!car.Made.IsHat && (!c.CaliperOn || !c.PadsIn))),
        Step("wheel-on", "a wheel put on before what is behind it was bled", (_, c) => c.HasAir),
        Step("wheel-on", "a wheel put on before anybody looked for leaks", (car, _) => car.Touched > 0 && car.LeaksAt != car.Touched),
        Step("wheel-on", "a wheel put on with a small part on the bench", (car, c) => c.Off.Count > 0),
        Step("wheel-on", "a wheel put on where the lead has not looked", (_, c) => !c.LeadLooked, s => s.Rules.SignOff == SignOffRule.LeadAlso && !s.InspectOnly),

        // Proofs.
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
        When(Doing.GivesAway, "handed over untested since it was opened", (car, _) => car.DrivenAt != car.Touched),
        Any(Doing.GivesAway, "handed over on wheels that are not torqued", (_, c) => c.Nuts != Nut.Tight),
        When(Doing.GivesAway, "handed over with pads unlike", (car, _) => car.Left.PadsNew != car.Right.PadsNew),
        When(Doing.GivesAway, "handed over with rotors unlike", (car, _) => car.Left.RotorNew != car.Right.RotorNew),
        When(Doing.GivesAway, "handed over with shoes unlike", (car, _) => car.Left.ShoesNew != car.Right.ShoesNew, Hat),
        When(Doing.GivesAway, "handed over tagged, on the charger or with auto-apply off", (car, _) => car.Tagged || car.Charger || car.AutoApplyOff, Electric),
        When(Doing.GivesAway, "handed over with codes unread since the brake was closed", (car, _) => car.CodesAt != car.Mechanism && !MechanismAsItCame(car), s => s.NeedsRoute),
        When(Doing.GivesAway, "handed over with new pads that were never bedded", (car, _) => !car.BedDone && car.Left.PadsNew, s => s.Rules.BedIn == BedInRule.Series),
        When(Doing.GivesAway, "handed over with the cap off", (car, _) => car.CapOff),
        When(Doing.GivesAway, "handed over with the brake off or out of P", (car, _) => car.Neutral || (!car.Applied && !car.Made.IsPlain)),
    ];
}

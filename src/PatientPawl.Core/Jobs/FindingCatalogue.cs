using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Jobs;

/// <summary>The findings that can be reported: a row for each. Common practice, no source.</summary>
public static class FindingCatalogue
{
    private const string HubMended = "hub-mended", TroubleSettled = "trouble-settled", PedalTraced = "pedal-traced", PadsEased = "pads-eased", PinsSeated = "pins-seated", PinKitFitted = "pin-kit";

    private static readonly Func<PlanSetup, CarState, Side, CarState> NewPartsGoBack = (_, car, side) =>
    {
        if (HasNewFriction(car, side)) car = car.With(Corner.WrongFitted, side, Asked.Due);
        if (HasNewCaliper(car, side)) car = car.With(Corner.WrongCaliper, side, Asked.Due);
        return car.Get(Corner.BracketSwap, side) == Asked.Done ? car.With(Corner.BracketSwap, side, Asked.Due) : car;
    };

    // Rotors and calipers are handed: what was fitted at the wrong corner changes places.
    private static readonly Func<PlanSetup, CarState, Side, CarState> ChangesPlaces = (_, car, side) =>
    {
        if (car.Get(Corner.Rotor, side) == Rotor.New) car = car.With(Corner.WrongFitted, side, Asked.Due);
        return HasNewCaliper(car, side) ? car.With(Corner.WrongCaliper, side, Asked.Due) : car;
    };

    private static bool HasNewFriction(CarState car, Side side) => car.Get(Corner.Pads, side) == PadState.New || car.Get(Corner.Rotor, side) == Rotor.New
        || car.Get(Corner.Shoes, side) is ShoesState.NewLoose or ShoesState.NewSet;

    private static bool HasNewCaliper(CarState car, Side side) => car.Get(Corner.CaliperPart, side) == CaliperPart.New && car.Get(Corner.Caliper, side) != Caliper.Away;

    private static readonly Func<PlanSetup, CarState, CarState> AnotherIsCompared = (_, car) => car.With(Car.NewParts, Done.No).With(Car.RightPart, Asked.Due);

    private static readonly Func<PlanSetup, CarState, CarState> LampIsAsked = (_, car) => car.With(Car.Lamp, Asked.Due);

    // A screw that is no screw any more holds nothing; its neighbours are loosened for it.
    private static readonly Func<PlanSetup, CarState, Side, CarState> ScrewGone = (_, car, side) => car.With(Corner.BrokenScrew, side, Asked.Due).With(Corner.RotorScrews, side, Bolts.Cracked);

    // One that came broken: the sound one still holds, and keeps its own step.
    private static readonly Func<PlanSetup, CarState, Side, CarState> ScrewMissing = (_, car, side) => car.With(Corner.BrokenScrew, side, Asked.Due);

    private static readonly Func<PlanSetup, CarState, Side, bool> ScrewsIn = (s, c, side) =>
        s.RotorHasScrews && c.Get(Corner.RotorScrews, side) is not (Bolts.None or Bolts.Out) && Can(c, Corner.BrokenScrew, side);

    private static readonly Func<PlanSetup, CarState, Side, CarState> PinsAgain = (_, car, side) => car.With(Corner.PinsGreased, side, Done.No);

    private static readonly Func<PlanSetup, CarState, Side, bool> Slides = (s, _, _) => !s.IsFixed;

    private static readonly Func<PlanSetup, CarState, Side, bool> SensorThere = (s, c, side) => s.Has(Fitting.WearSensor) && c.Get(Corner.Sensor, side) != Fitted.None;

    private static readonly Func<PlanSetup, CarState, Side, bool> OnItsHose = (_, c, side) => c.Get(Corner.Caliper, side) != Caliper.Away;

    private static readonly Func<PlanSetup, CarState, Side, bool> Turns = (s, _, side) => s.Identified && !s.PushesAt(side);

    private static readonly Func<PlanSetup, CarState, Side, bool> Rolls = (_, c, _) => c.Get(Car.Position) == CarPosition.Ground && c.Get(Car.Pedal) == Pedal.Proved;

    /// <summary>All of them.</summary>
    public static IReadOnlyList<FindingCard> All { get; } =
    [
        new(FindingKind.StuckPiston, "Piston stuck or boot torn", true, "A new caliper with washers, and bleeding. The hose stays shut until the new one is in hand.")
        {
            Leaves = [Defects.Caliper],
            CanBe = (s, c, side) => c.Get(Corner.Caliper, side) != Caliper.Away && c.Get(Corner.WrongCaliper, side) != Asked.Due
                && (c.Get(Corner.CaliperPart, side) == CaliperPart.New || !s.At(side).CaliperUnfit),
            Wants = (s, side) => Core.Sides.Both.Where(x => x == side || (s.Rules.Pairs == PairsRule.BothSides && !s.InspectOnly))
                .Aggregate(s, (p, x) => p.With(x, c => c with { CaliperNew = c.CaliperNew || !s.InspectOnly, CaliperUnfit = c.CaliperUnfit || x == side })),
            OnCorner = (s, car, side) =>
            {
                // A new one that sticks goes back; an old one is not fit, and the new one takes its place: its hold is lifted.
                car = HasNewCaliper(car, side) ? AnotherIsCompared(s, car.With(Corner.WrongCaliper, side, Asked.Due)) : car.With(Corner.UnfitCaliper, side, Asked.Due);
                return car.Get(Corner.Piston, side) is Piston.Stuck or Piston.NotSure or Piston.Levered ? car.With(Corner.Piston, side, Piston.Out) : car;
            },
            OnCar = (_, car) => car.With(Car.NewParts, Done.No),
        },
        new(FindingKind.FrozenPads, "Pads frozen in bracket", true, "Abutments to bare metal, and new hardware.")
        {
            Leaves = [Defects.Hardware],
            CanBe = (_, c, side) => Can(c, Corner.Hardware, side),
            OnCorner = (_, car, side) => car.With(Corner.Hardware, side, Asked.Due).With(Corner.LandsClean, side, Done.No),
        },
        new(FindingKind.PadTight, "Pad tight in its bracket", true, "Lands again, its ears' coating dressed, or other pads.")
        {
            Leaves = [Defects.PadSeat],
            Mends = (Corner.PadEase, PadsEased),
            CanBe = (_, c, side) => Can(c, Corner.PadEase, side),
        },
        new(FindingKind.PadLoose, "Pad loose in its bracket", true, "Clips and springs seated, or other pads.")
        {
            Leaves = [Defects.PadSeat],
            Mends = (Corner.PadEase, PadsEased),
            How = "Clips home and the right way up, springs hooked. Still loose: other pads, or a bracket that is worn.",
        },
        new(FindingKind.ClipTouches, "Clip or spring touches rotor", true, "It is seated clear of the rotor.")
        {
            Leaves = [Defects.PadSeat],
            Mends = (Corner.PadEase, PadsEased),
            How = "Out, straight, back until it snaps; a bent one is new. The rotor turns with nothing on it.",
        },
        new(FindingKind.SeizedPin, "Slide pin seized", true, "A pin kit or a bracket.")
        {
            Leaves = [Defects.Pins],
            Mends = (Corner.PinKit, PinKitFitted),
            How = "Pin out with heat from the tool only, bore brushed clean. A pin that still drags: a bracket.",
            CanBe = Slides,
            OnCorner = PinsAgain,
        },
        new(FindingKind.PinWorn, "Slide pin worn or scored", true, "A pin with its boot, or a bracket where the bore is worn too.")
        {
            Leaves = [Defects.Pins],
            Mends = (Corner.PinKit, PinKitFitted),
            How = "New pin and boot in its own bore. It rocks in the bore: a bracket.",
            CanBe = Slides,
            OnCorner = PinsAgain,
        },
        new(FindingKind.BushingSwollen, "Pin bushing swollen", true, "A new bushed pin, and the grease that rubber takes.")
        {
            Leaves = [Defects.Pins],
            Mends = (Corner.PinKit, PinKitFitted),
            How = "Every trace of the old grease out of bore and boot: it swells the next one too. The bushed pin goes back in the bore it came from.",
            CanBe = Slides,
            OnCorner = PinsAgain,
        },
        new(FindingKind.PinAir, "Slide pin springs back: air", true, "The air is let out under the lip of its boot.")
        {
            Leaves = [Defects.PinSeat],
            Mends = (Corner.PinSeat, PinsSeated),
            How = "Lift the boot's lip, push the pin home, let the lip seat. It stays where it was pushed.",
            CanBe = Slides,
        },
        new(FindingKind.PinOverGreased, "Slide pin does not seat: grease", true, "What is too much comes out again.")
        {
            Leaves = [Defects.PinSeat],
            Mends = (Corner.PinSeat, PinsSeated),
            How = "Pin out, bore wiped to its bottom, a thin film only.",
            CanBe = Slides,
        },
        new(FindingKind.BrokenScrew, "Rotor screw broke", true, "Left out by the lead's decision, or drilled and renewed. The others keep their steps.") { Leaves = [Defects.RotorScrew], CanBe = ScrewsIn, OnCorner = ScrewGone },
        new(FindingKind.ScrewCameBroken, "Rotor screw came broken", true, "Recorded as found. Left out by the lead's decision, or drilled and renewed.") { Leaves = [Defects.RotorScrew], CanBe = ScrewsIn, OnCorner = ScrewMissing },
        new(FindingKind.ScrewRounded, "Rotor screw's head rounded", true, "No more turning in its head: a punch at its edge, then the drill.")
        {
            Leaves = [],
            CanBe = (s, c, side) => s.RotorHasScrews && c.Get(Corner.RotorScrews, side) is Bolts.Tight or Bolts.Torqued,
            Remark = new(["rotor-screws-torqued"], "The head of one is rounded: a new screw."),
            Part = "Rotor screw",
        },
        new(FindingKind.StuckRotor, "Rotor stuck on hub", true, "Freed by one way after the other, the gentlest first.")
        {
            Leaves = [Defects.RotorStuck],
            CanBe = (s, c, side) => s.RotorOff && c.Get(Corner.Rotor, side) == Rotor.Old && Can(c, Corner.StuckRotor, side),
            OnCorner = (_, car, side) => car.With(Corner.StuckRotor, side, Asked.Due),
        },
        new(FindingKind.StuckWheel, "Wheel stuck on hub", true, "A freeing step before it comes off.")
        {
            Leaves = [Defects.WheelStuck],
            CanBe = (_, c, side) => c.Get(Corner.Wheel, side) == Wheel.On && Can(c, Corner.StuckWheel, side),
            OnCorner = (_, car, side) => car.With(Corner.StuckWheel, side, Asked.Due),
        },
        new(FindingKind.KeyMissing, "Locking-nut key missing", true, "Found, ordered by its number, or a remover: before this wheel comes off.")
        {
            Leaves = [Defects.NutKey],
            Mends = (Corner.NutKey, "nut-key-found"),
            CanBe = (_, c, side) => c.Get(Corner.NutKey, side) != Asked.Due,
            Part = "Locking-nut key, or a remover and plain nuts",
        },
        new(FindingKind.WheelNotFlat, "Wheel not flat on its hub", true, "Off again, its seat cleaned, on and torqued anew.")
        {
            Leaves = [Defects.WheelSeat],
            Mends = (Corner.WheelSeat, "wheel-seated"),
        },
        new(FindingKind.Ridge, "Hat catches on shoes", true, "The star wheel is backed off further.")
        {
            Leaves = [Defects.RidgeCatches],
            CanBe = (s, c, side) => s.HatOpen && c.Get(Corner.Rotor, side) != Rotor.Off && Can(c, Corner.Ridge, side),
            OnCorner = (_, car, side) => car.With(Corner.Ridge, side, Asked.Due),
        },
        new(FindingKind.HubStepped, "Hub face stepped", true, "Each step is cleaned by itself, and none stands proud.")
        {
            Leaves = [],
            CanBe = (_, c, side) => c.Get(Corner.Rotor, side) == Rotor.Off,
            OnCorner = (_, car, side) => car.With(Corner.HubClean, side, Done.No),
            Remark = new(["hub-clean", "rotor-on", "rotor-back"], "Stepped hub: each step clean by itself, none proud."),
        },
        new(FindingKind.HubPitted, "Hub face pitted", true, "Cleaned, and judged by its runout with the rotor on; outside it the lead decides.")
        {
            Leaves = [Defects.HubPits],
            Mends = (Corner.HubPit, "pitted-hub-judged"),
            CanBe = (_, c, side) => c.Get(Corner.Rotor, side) == Rotor.Off,
        },
        new(FindingKind.BadShoes, "Shoe lining loose or oiled", true, "New parking shoes on both sides.")
        {
            Leaves = [Defects.Shoes],
            CanBe = (s, c, _) => s.IsHat && !s.ShoesNew && c.Get(Car.UnfitShoes) != Asked.Due,
            Wants = (s, _) => s with { ShoesFound = true },
            OnCar = (_, car) => car.With(Car.UnfitShoes, Asked.Due),
        },
        new(FindingKind.BadRotor, "Rotor not fit", true, "New rotors and pads on both sides.") { Leaves = [Defects.Rotors], CanBe = (s, c, _) => !s.Rotors && c.Get(Car.UnfitRotors) != Asked.Due, Wants = (s, _) => s with { RotorFound = true }, OnCar = (_, car) => car.With(Car.UnfitRotors, Asked.Due) },
        new(FindingKind.BadPads, "Pads not fit", true, "New pads on both sides.") { Leaves = [Defects.Pads], CanBe = (s, c, _) => !s.PadsNew && c.Get(Car.UnfitPads) != Asked.Due, Wants = (s, _) => s with { PadsFound = true }, OnCar = (_, car) => car.With(Car.UnfitPads, Asked.Due) },
        new(FindingKind.NoSensor, "No wear sensor at this corner", true, "Its steps go.")
        {
            Leaves = [],
            CanBe = SensorThere,
            // One that was to be renewed is not there either.
            OnCorner = (_, car, side) => car.With(Corner.Sensor, side, Fitted.None).With(Corner.SensorMend, side, Asked.Nothing),
        },
        new(FindingKind.SensorWorn, "Wear sensor worn through", true, "A new sensor on this side; its lamp is seen off at the end.")
        {
            Leaves = [Defects.WearSensor, Defects.Lamp],
            Mends = (Corner.SensorMend, SensorRenewed),
            CanBe = SensorThere,
            OnCar = LampIsAsked,
            Part = "Wear sensor",
        },
        new(FindingKind.SensorLead, "Wear sensor's lead broken", true, "A new sensor or lead on this side; its lamp is seen off at the end.")
        {
            Leaves = [Defects.WearSensor, Defects.Lamp],
            Mends = (Corner.SensorMend, SensorRenewed),
            CanBe = SensorThere,
            OnCar = LampIsAsked,
            Part = "Wear sensor, or its lead",
        },
        new(FindingKind.HungByHose, "Caliper hung by its hose", true, "Hung on its hook now, and the hose looked at along its whole length.")
        {
            Leaves = [Defects.HoseThatCarried],
            Mends = (Corner.HoseLook, "hose-looked"),
            CanBe = (_, c, side) => c.Get(Corner.Caliper, side) is Caliper.Hung or Caliper.Swung,
        },
        new(FindingKind.HoseUnsound, "Hose cracked or collapsed", true, "A new hose with washers; its corner is bled.") { Leaves = [Defects.Hose], Mends = (Corner.HoseMend, "hose-renewed"), CanBe = OnItsHose },
        new(FindingKind.FluidShows, "Fluid shows", true, "The circuit counts as open: it is bled before the pedal counts.")
        {
            Leaves = [Defects.Wet],
            CanBe = (_, c, side) => c.Get(Corner.Hydraulics, side) != HydraulicsState.Open && c.Get(Corner.Wet, side) != Asked.Due,
            // An inspection only finds it: nothing is bled.
            OnCorner = (s, car, side) => s.InspectOnly ? car.With(Corner.Wet, side, Asked.Due) : car.With(Corner.Hydraulics, side, HydraulicsState.Open),
        },
        new(FindingKind.BleedScrewBroken, "Bleed screw broken or seized", true, "A new screw, or a caliper where it stays in; its corner is bled.")
        {
            Leaves = [Defects.BleedScrew],
            Mends = (Corner.ScrewMend, "bleed-screw-renewed"),
            CanBe = OnItsHose,
        },
        new(FindingKind.CableFrayed, "Parking cable frayed", true, "A new cable, laid with the cables slack, and the brake set again.")
        {
            Leaves = [Defects.Cable],
            Mends = (Corner.CableMend, "cable-renewed"),
            CanBe = (s, _, _) => s.HasCable && (!s.PullsCables || s.Route is not null),
        },
        new(FindingKind.LeverSticks, "Lever does not come back", true, "Freed, or its spring renewed, before the cable goes on.")
        {
            Leaves = [Defects.Lever],
            Mends = (Corner.LeverMend, "lever-mended"),
            CanBe = (s, c, side) => s.HasLever && (!s.PullsCables || s.Route is not null) && c.Get(Corner.Caliper, side) != Caliper.Away,
            OnCorner = (_, car, side) => car.With(Corner.Lever, side, Lever.NotSeen),
            Part = "Lever spring and boot, or the caliper",
        },
        new(FindingKind.ActuatorDead, "Actuator does not move", true, "A new actuator; the brake is put into service and closed anew.")
        {
            Leaves = [Defects.Actuator],
            Mends = (Corner.ActuatorMend, "actuator-renewed"),
            CanBe = (s, c, side) => s.IsMotor && s.Route is not null && c.Get(Corner.Actuator, side) != Actuator.None,
            // In service it had gone back before it died; anywhere else it may have stopped half-way.
            OnCorner = (_, car, side) => car.Get(Corner.Spindle, side) == Spindle.Back && car.Get(Car.Brake) == ParkingBrake.Service ? car : car.With(Corner.Spindle, side, Spindle.Unknown),
            Part = "Actuator with its seal",
        },
        new(FindingKind.PlateMotorDead, "Plate motor does not move", true, "A new motor on the backing plate; the brake is put into service and closed anew.")
        {
            Leaves = [Defects.PlateMotor],
            Mends = (Corner.PlateMotorMend, "plate-motor-renewed"),
            CanBe = (s, _, _) => s.IsHat && s.IsPlateMotor && s.Route is not null,
            Part = "Plate motor",
        },
        new(FindingKind.StarWheelSeized, "Star wheel seized", true, "Freed or renewed with the hat off its shoes, and the shoes set anew.")
        {
            Leaves = [Defects.StarWheel],
            Mends = (Corner.StarWheelMend, "star-wheel-freed"),
            CanBe = (s, _, _) => s.IsHat && (!s.IsElectric || s.Route is not null),
            Part = "Adjuster, where it does not come free",
        },
        new(FindingKind.HosePinched, "Hose clamped off", true, "That caliper is cut off: a firm pedal proves nothing. Screw shut, clamp off, hose looked at, before pedal, leaks and bleeding.")
        {
            Leaves = [Defects.HoseThatCarried],
            CanBe = (_, c, side) => c.Get(Corner.HoseClamp, side) != Fitted.On,
            OnCorner = (_, car, side) => car.With(Corner.HoseClamp, side, Fitted.On),
        },
        new(FindingKind.BringsBracket, "New caliper brings its bracket", true, "The old bracket comes off and the one of the set goes on, torqued.")
        {
            Leaves = [Defects.Bracket],
            Mends = (Corner.BracketSwap, "bracket-swapped"),
            CanBe = (s, c, side) => !s.IsFixed && s.At(side).CaliperNew && c.Get(Corner.BracketSwap, side) == Asked.Nothing,
        },
        new(FindingKind.ThreadStripped, "Thread stripped", true, "An insert, or the part that carries it, before its bolt is torqued.")
        {
            Leaves = [Defects.Hub],
            Mends = (Corner.HubMend, HubMended),
            Part = "Thread insert, or the part that carries the thread",
            How = "Drilled square, insert flush, or a new part. Never a longer bolt or locker in its place.",
        },
        new(FindingKind.StudDamaged, "Wheel stud or nut damaged", true, "A new stud and nut before the wheel is torqued.")
        {
            Leaves = [Defects.Hub],
            Mends = (Corner.HubMend, HubMended),
            Part = "Wheel stud and nut",
            How = "Stud drawn home with washers and an old nut, not hammered. Its neighbours are looked at too.",
        },
        new(FindingKind.BearingPlay, "Wheel bearing has play", true, "A new bearing before the car moves.")
        {
            Leaves = [Defects.Hub],
            Mends = (Corner.HubMend, HubMended),
            Part = "Wheel bearing",
            How = "Caliper, bracket and rotor off for it. Hub nut new and torqued by the maker's data.",
        },
        new(FindingKind.BackingPlate, "Backing plate bent or rusted", true, "Set right or renewed: it rubs, or lets the shoes lean.")
        {
            Leaves = [Defects.Hub],
            Mends = (Corner.HubMend, HubMended),
            Part = "Backing plate, where it does not come straight",
            How = "Straight and clear of the rotor all round, every fixing tight.",
        },
        new(FindingKind.SpeedSensor, "Speed sensor or ring damaged", true, "Put right before the car moves; its lamp is asked at the end.")
        {
            Leaves = [Defects.SpeedSensor, Defects.Lamp],
            Mends = (Corner.SpeedSensorMend, "speed-sensor-mended"),
            OnCar = LampIsAsked,
            Part = "Wheel-speed sensor",
        },
        new(FindingKind.NewPartSpoiled, "New part oily or damaged", true, "It comes out where it is fitted, and another is compared with the old.")
        {
            Leaves = [Defects.WrongFitted, Defects.WrongCaliper, Defects.RightPart],
            CanBe = (s, c, _) => !s.InspectOnly && c.Get(Car.RightPart) != Asked.Due,
            OnCorner = NewPartsGoBack,
            OnCar = AnotherIsCompared,
        },
        new(FindingKind.GreaseOnLining, "Grease on a new lining", true, "That lining is lost: the set comes out, and another is compared with the old.")
        {
            Leaves = [Defects.WrongFitted, Defects.RightPart],
            CanBe = (_, c, side) => c.Get(Car.RightPart) != Asked.Due && (c.Get(Corner.Pads, side) == PadState.New || c.Get(Corner.Shoes, side) is ShoesState.NewLoose or ShoesState.NewSet),
            OnCorner = NewPartsGoBack,
            OnCar = AnotherIsCompared,
        },
        new(FindingKind.StudsLubricated, "Studs came lubricated", true, "Recorded as found. They are cleaned dry before the wheel goes on.")
        {
            Leaves = [],
            Remark = new(["wheel-on", "wheel-torqued"], "The studs came lubricated: cleaned dry first. On oil a dry figure loads them by about a third more."),
        },
        new(FindingKind.AntiSeizeOnScrew, "Anti-seize on a screw", true, "Recorded as found. The thread is cleaned before it is torqued.")
        {
            Leaves = [],
            CanBe = (s, _, _) => s.RotorHasScrews,
            Remark = new(["rotor-screws-torqued"], "A thread came with anti-seize on it: cleaned dry first. On it the figure overloads the screw."),
        },
        new(FindingKind.PartMissing, "A part was missing", true, "Recorded as found, and laid out with the parts.") { Leaves = [], NoteWanted = "which part was missing", Part = "The part that was missing" },
        new(FindingKind.TurnsAtBottom, "Piston still turns at bottom", true, "Kept with the vehicle: the bottom is told by depth, not by the end of turning.")
        {
            Leaves = [],
            Learnt = true,
            CanBe = Turns,
            Remark = new(["piston-home"], "It still turns at the bottom: home is told by its depth."),
        },
        new(FindingKind.TwoStages, "Piston goes in two stages", true, "Kept with the vehicle: the first stop is not home.")
        {
            Leaves = [],
            Learnt = true,
            Remark = new(["piston-home"], "It goes in two stages: the first stop is not home."),
        },
        new(FindingKind.OtherWay, "Piston turns the other way", true, "Kept with the vehicle, for this side.")
        {
            Leaves = [],
            Learnt = true,
            CanBe = Turns,
            Remark = new(["piston-home", "piston-tried"], "On this side it turns the other way than the ruling says."),
        },
        new(FindingKind.BoltFirst, "A bolt has to go in first", true, "Kept with the vehicle: an arm traps it once the part is up.")
        {
            Leaves = [],
            Learnt = true,
            NoteWanted = "which bolt, and of what",
            Remark = new(["bracket-on", "caliper-on", "fixed-caliper-on"], "This bolt goes in first:"),
        },
        new(FindingKind.BoltsLeftAlone, "Bolts not to be touched", true, "Kept with the vehicle.")
        {
            Leaves = [],
            Learnt = true,
            NoteWanted = "which bolts, and why",
            Remark = new(["bracket-off", "rotor-off", "fixed-caliper-off", "caliper-off"], "Not to be touched:"),
        },
        new(FindingKind.PadsByChoice, "Pads renewed by choice", false, "New pads on both sides, with the reason and what was left of the old ones.")
        {
            Leaves = [],
            NoteWanted = "the reason, and what was left of them",
            CanBe = (s, _, _) => !s.PadsNew,
            Wants = (s, _) => s with { PadsFound = true },
        },
        new(FindingKind.RotorsByChoice, "Rotors renewed by choice", false, "New rotors and pads on both sides, with the reason and what was left of the old ones.")
        {
            Leaves = [],
            NoteWanted = "the reason, and what was left of them",
            CanBe = (s, _, _) => !s.Rotors,
            Wants = (s, _) => s with { RotorFound = true },
        },
        new(FindingKind.PipeUnsound, "Pipe corroded or rubbed", false, "It is made sound before the pedal is pressed; both corners are bled.")
        {
            Leaves = [Defects.Pipes],
            CanBe = (_, c, _) => c.Get(Car.Pipes) != Asked.Due,
            OnCar = (_, car) => car.With(Car.Pipes, Asked.Due),
        },
        new(FindingKind.MovesByItself, "The brake moved by itself", false, "Hands out. Nobody knows where the spindles stand: the brake and every piston are looked at again.")
        {
            Leaves = [],
            CanBe = (s, c, _) => s.IsElectric && s.Route is not null && c.Get(Car.Brake) != ParkingBrake.Unknown,
            OnCorner = (s, car, side) =>
            {
                if (!s.IsMotor) return car;
                // A spindle that ran out behind a piston that nothing holds may have pushed it.
                if (car.Get(Corner.Caliper, side) != Caliper.On && car.Get(Corner.Piston, side) == Piston.Home) car = car.With(Corner.Piston, side, Piston.NotSure);
                return car.Get(Corner.Actuator, side) == Actuator.Plugged ? RanOut(car, side) : car;
            },
            OnCar = (s, car) => (s.PullsCables ? car.With(Car.Cable, CableRun.Unknown) : car).With(Car.Brake, ParkingBrake.Unknown).With(Car.Sleep, CarSleep.Awake),
        },
        new(FindingKind.LampStays, "Lamp or code stays", false, "Its cause is found before the keys go back.")
        {
            Leaves = [Defects.Trouble, Defects.Lamp],
            Mends = (Car.Trouble, TroubleSettled),
            // A code is cleared once its cause is found, and its lamp is seen off after that.
            OnCar = (_, car) => car.With(Car.Codes, Codes.Unread).With(Car.Lamp, Asked.Due),
            How = "Read the code before it is cleared. Plug, voltage, tool not finished: then the lamp is looked at again.",
        },
        new(FindingKind.PedalSinks, "Pedal sinks or stays soft", false, "The pedal does not count until its cause is found and it is proved again.")
        {
            Leaves = [Defects.Pedal],
            Mends = (Car.PedalTrouble, PedalTraced),
            OnCar = (_, car) => car.With(Car.Pedal, Pedal.NotPumped),
            How = "Soft and springy: air, a pin beside its slot, a pad not seated, a part that gives. Firm and sinking: it goes somewhere; look for it, then the master cylinder.",
        },
        new(FindingKind.Pulls, "Pulls to one side", false, "Its cause is found, and it is driven again.")
        {
            Leaves = [Defects.Trouble],
            Mends = (Car.Trouble, TroubleSettled),
            CanBe = Rolls,
            OnCar = (_, car) => car.With(Car.TestDrive, Done.No),
            How = "A pad that hangs, a pin, a hose, grease on a lining, tyres. What is wrong at a corner is reported there.",
        },
        new(FindingKind.NoiseOnDrive, "Noise or shake on the drive", false, "Its cause is found, and it is driven again.")
        {
            Leaves = [Defects.Trouble],
            Mends = (Car.Trouble, TroubleSettled),
            CanBe = Rolls,
            OnCar = (_, car) => car.With(Car.TestDrive, Done.No),
            How = "Shield, clip on the rotor, pad loose, wheel not flat, bedding. Light even pad noise at first is normal. What is wrong at a corner is reported there.",
        },
        new(FindingKind.WrongPart, "Wrong part", false, "New parts that are fitted come out, and the work stops short of new ones until the right one has been compared with the old.")
        {
            Leaves = [Defects.WrongFitted, Defects.WrongCaliper, Defects.RightPart],
            CanBe = (s, c, _) => !s.InspectOnly && c.Get(Car.RightPart) != Asked.Due,
            OnCorner = NewPartsGoBack,
            OnCar = AnotherIsCompared,
        },
        new(FindingKind.SidesMixedUp, "Left and right mixed up", false, "New rotors or calipers change places; nothing is ordered.")
        {
            Leaves = [Defects.WrongFitted, Defects.WrongCaliper],
            CanBe = (s, c, _) => Core.Sides.Both.Any(x => (c.Get(Corner.Rotor, x) == Rotor.New && Can(c, Corner.WrongFitted, x)) || (HasNewCaliper(c, x) && Can(c, Corner.WrongCaliper, x))),
            OnCorner = ChangesPlaces,
            OnCar = (_, car) => car.With(Car.NewParts, Done.No),
        },
        new(FindingKind.PartsLeftOver, "Parts left over", false, "Recorded: they go back, or onto the shelf.") { Leaves = [], NoteWanted = "which parts, and where they go" },
    ];

    // Over a brake that is as it came a spindle that may have moved counts as out: nothing to be afraid of, and it goes back before anything is opened.
    private static CarState RanOut(CarState car, Side side) => car.With(Corner.Spindle, side,
        car.Get(Corner.Caliper, side) == Caliper.On && car.Get(Corner.Pads, side) != PadState.None && car.Get(Corner.Piston, side) == Piston.Out ? Spindle.Out : Spindle.Unknown);

    private const string SensorRenewed = "sensor-renewed";

    private static readonly Dictionary<FindingKind, FindingCard> ByKind = All.ToDictionary(c => c.Kind);

    /// <summary>The card of a kind.</summary>
    public static FindingCard Card(this FindingKind kind) => ByKind[kind];

    private static bool Can(CarState car, StateVariable<Asked> asked, Side side) => car.Get(asked, side) != Asked.Due;
}

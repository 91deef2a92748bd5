using PatientPawl.Core.Measuring;
using PatientPawl.Core.Workshop;
using static PatientPawl.Core.Planning.Given;
using static PatientPawl.Core.Planning.Place;

namespace PatientPawl.Core.Planning.Steps;

/// <summary>Off with what is in the way; from any state its bolts may be in.</summary>
internal static class Free
{
    private static readonly Requirement CableFree = Car.Cable.Is(CableRun.Slack, CableRun.None);
    private static readonly Requirement HatPlugOut = Corner.HatPlug.Is(Fitted.None, Fitted.Off);

    private static readonly Condition NothingApplied = Condition.Any(
        [Car.Brake.Is(ParkingBrake.ProvedReleased)], [Car.Brake.Is(ParkingBrake.Service)], [Corner.Caliper.Is(Caliper.Hung, Caliper.Swung)]).Saying("the brake proved released, or in service");

    private static StepType StarWheel(string id, string because, ShoesState from, ShoesState to, string how, IReadOnlyList<ReadingKind> readings) =>
        new(id, "Back off star wheel", Stage.Free, Lane.Corner, Place.Corner, 4, because)
        {
            Applies = s => s.IsHat,
            Needs = [WheelOff, Corner.Shoes.Is(from), CableFree, BrakeOff, HatPlugOut, ((Condition)Car.Brake.Is(ParkingBrake.Service)).When(s => s.IsElectric)],
            Makes = [Corner.Shoes.To(to)],
            Concerns = Concern.HandsInHat | Concern.TurnsHub,
            Tools = ["star-wheel spoon", "torch"],
            Readings = readings,
            How = how,
        };

    private static readonly Outcome Broke = new("broke", "One of them broke", [Corner.RotorScrews.To(Bolts.Cracked)]) { Reports = Jobs.FindingKind.BrokenScrew };

    private static readonly Condition[] ComesOff =
    [
        WheelOff, Corner.Caliper.Is(Caliper.On), SmallPartsOff,
        ((Condition)Corner.Spindle.Is(Spindle.Back)).When(s => s.IsMotor),
        ((Condition)Car.Cable.Is(CableRun.Slack)).When(s => s.HasLever),
        ((Condition)Corner.RotorScrews.Is(Bolts.Cracked, Bolts.Out, Bolts.Torqued, Bolts.None)).Saying("the rotor screws cracked while something holds the hub").When(s => s.Screws && !s.ClosesUp),
    ];

    // In service the plug stays: its lead is the second thing that must not carry the caliper.
    private static string LeadHangsSlack(PlanSetup setup) => setup is { IsMotor: true, InService: true } ? " Its actuator stays plugged: look that the lead hangs slack."
        : setup.HasLever ? " No weight on its cable either." : "";

    private static string UndoPins(PlanSetup setup) => setup.PinsTurn switch
    {
        true => "Hold the pin with a thin spanner, undo its bolt.",
        false => "Undo both bolts: these pins do not turn.",
        _ => "Hold the pin where it turns, undo its bolt.",
    };

    /// <summary>The spanner that holds a pin, unless the sheet says that it does not turn.</summary>
    public static IReadOnlyList<string> HoldingSpanner(PlanSetup setup) => setup.PinsTurn == false ? [] : ["thin holding spanner"];

    public static IReadOnlyList<StepType> All { get; } =
    [
        new("screws-cracked-brake", "Crack rotor screws", Stage.Free, Lane.Corner, Place.Corner, 3, "The parking brake still holds the hub, for free.")
        {
            Applies = s => s.RotorHasScrews && !s.IsPlain,
            Needs = [WheelOff, RotorIsOn, Corner.RotorScrews.Is(Bolts.Tight, Bolts.Torqued)],
            Makes = [Corner.RotorScrews.To(Bolts.Cracked)],
            Concerns = Concern.HubHeldByBrake,
            Tools = ["impact driver"],
            Outcomes = [Mend.NotYet, Broke],
            How = "Brake on. Crack them, leave them in.",
        },
        new("screws-cracked-bar", "Crack screws, bar", Stage.Free, Lane.Corner, Place.Corner, 7, "With the brake off, a bar across two studs holds the hub.")
        {
            Applies = s => s.RotorHasScrews,
            Needs = [WheelOff, RotorIsOn, Corner.RotorScrews.Is(Bolts.Tight, Bolts.Torqued), Corner.HoldingNuts.Is(Fitted.Off)],
            Makes = [Corner.RotorScrews.To(Bolts.Cracked)],
            Tools = ["bar across two studs", "impact driver"],
            Outcomes = [Mend.NotYet, Broke],
            How = "A bar across two studs against the floor. Crack them, leave them in.",
        },
        new("reservoir-looked", "Look at reservoir", Stage.Free, Lane.Car, Bonnet, 2, "Fluid comes back as the pistons go in; the level says whether it fits.")
        {
            // Before it is lifted, where it can be: a car with its tail up reads wrong.
            Soon = true,
            Needs = [Car.Reservoir.Is(Done.No)],
            Makes = [Car.Reservoir.To(Done.Yes)],
            Readings = [ReadingKind.ReservoirLevel],
            Cautions = [Cautions.Fluid],
            HowFor = s => s.Rules.Cap == CapRule.StaysOn
                ? "Cap stays on. Read the level between the marks."
                : "Read the level between the marks. The cap comes off, a rag round the neck, only before the first piston moves.",
        },
        new("actuator-unplugged", "Unplug actuator", Stage.Free, Lane.Corner, Place.Corner, 1, "With no plug nothing moves.")
        {
            Applies = s => s.IsMotor,
            Needs = [WheelOff, Corner.Actuator.Is(Actuator.Plugged), NothingApplied],
            Makes = [Corner.Actuator.To(Actuator.Unplugged)],
            Concerns = Concern.Unplugs,
            Cautions = [Cautions.Actuators],
            How = "Press the catch, pull by the plug, never by its wires.",
        },
        new("actuator-off", "Actuator off", Stage.Free, Lane.Corner, Place.Corner, 4, "The spindle is behind it.")
        {
            Applies = s => s.IsMotor,
            Needs = [WheelOff, Corner.Actuator.Is(Actuator.Unplugged), Corner.Caliper.Is(Caliper.On, Caliper.Hung, Caliper.Swung), NothingApplied],
            Makes = [Corner.Actuator.To(Actuator.Off), Corner.ActuatorScrews.To(Bolts.Out)],
            How = "Two small screws. Wriggle it off square. Wipe the O-ring.",
        },
        new("spindle-back", "Spindle back", Stage.Free, Lane.Corner, Place.Corner, 4, "A piston pushed onto its spindle breaks one of them.")
        {
            Applies = s => s.IsMotor,
            Needs = [WheelOff, Corner.Actuator.Is(Actuator.Off), Corner.Spindle.Is(Spindle.Out, Spindle.Unknown)],
            Makes = [Corner.Spindle.To(Spindle.Back)],
            Tools = ["spindle driver, by hand"],
            How = "Usually clockwise facing it. Light effort only, until it stops. Never a powered driver.",
        },
        new("spindle-verified", "Verify spindle", Stage.Free, Lane.Corner, Place.Corner, 3, "Nobody knows where this spindle stands.")
        {
            Applies = s => s.IsMotor,
            Needs = [WheelOff, Corner.Spindle.Is(Spindle.Unknown), Condition.Any([Car.Brake.Is(ParkingBrake.Service)], [Corner.Caliper.Is(Caliper.Hung, Caliper.Swung)]).Saying("the brake in service, or this caliper hung")],
            Makes = [Corner.Spindle.To(Spindle.Back)],
            Outcomes = [new("not-back", "It is not back", [Corner.Spindle.To(Spindle.Out)])],
            Concerns = Concern.HandsIn,
            HowFor = s => (s.ByTool ? "Through the tool's live data, or by" : "By") + " a gentle press on the piston: it must give to a thumb.",
        },
        new("cable-slack", "Cable slack", Stage.Free, Lane.Car, RoundCar, 4, "A tight cable holds the lever off its stop, and the screw will not wind home.")
        {
            Applies = s => s.IsCable,
            Needs = [Lifted, Car.Cable.Is(CableRun.Tight, CableRun.TakenUp)],
            Makes = [Car.Cable.To(CableRun.Slack), .. Corner.Lever.BothTo(Lever.NotSeen)],
            Concerns = Concern.SlackensCable | Concern.UnderCar,
            Cautions = [Cautions.Stands],
            How = "At the adjuster, until both levers come back by their own springs.",
        },
        new("shoe-cable-slack", "Cable slack", Stage.Free, Lane.Car, RoundCar, 4, "A tight cable holds the shoes out, and mimics a tight adjuster.")
        {
            Applies = s => s.HatCable,
            Needs = [Lifted, Car.Cable.Is(CableRun.Tight, CableRun.TakenUp)],
            Makes = [Car.Cable.To(CableRun.Slack)],
            Concerns = Concern.SlackensCable | Concern.UnderCar,
            Cautions = [Cautions.Stands],
            How = "At the adjuster, until both shoe levers lie on their stops.",
        },
        new("cable-looked", "Look at cable", Stage.Free, Lane.Car, RoundCar, 2, "Nobody knows whether it is slack.")
        {
            Applies = s => s.HasCable,
            Needs = [Lifted, Car.Cable.Is(CableRun.Unknown)],
            Makes = [Car.Cable.To(CableRun.Slack)],
            Outcomes = [new("tight", "It is tight", [Car.Cable.To(CableRun.Tight)])],
            Concerns = Concern.UnderCar,
            Cautions = [Cautions.Stands],
            How = "By hand along its run: slack, with both levers on their stops, or tight.",
        },
        new("hat-plug-out", "Hat plug out", Stage.Free, Lane.Corner, Place.Corner, 1, "The star wheel is behind it.")
        {
            Applies = s => s.Has(Fitting.HatPlug),
            Needs = [WheelOff, Corner.HatPlug.Is(Fitted.On)],
            Makes = [Corner.HatPlug.To(Fitted.Off)],
            How = "Keep it: it goes back when the shoes are set.",
        },
        StarWheel("star-wheel-backed", "The ridge of a worn drum catches the shoes and drags them off their pins.", ShoesState.Set, ShoesState.BackedOff,
            "In neutral, the driveline too, and two nuts on where no screw holds the rotor; the hub turned so that the hole faces the star wheel. If the drag grows within ten clicks, go the other way, and note it on the shoe bench.", [ReadingKind.ClicksBack]),
        StarWheel("star-wheel-again", "New shoes that were set hold the hat as firmly as old ones.", ShoesState.NewSet, ShoesState.NewLoose,
            "Back the way it was set, by the same count.", []),
        new("ridge-backed", "Back off further", Stage.Free, Lane.Corner, Place.Corner, 3, "The hat still catches: the ridge stands further in than the shoes.")
        {
            Applies = s => s.IsHat,
            Needs = [WheelOff, Corner.Ridge.Is(Asked.Due, Asked.LeftOpen), Corner.Shoes.Is(ShoesState.BackedOff, ShoesState.NewLoose)],
            Makes = [Corner.Ridge.To(Asked.Done)],
            Concerns = Concern.HandsInHat | Concern.TurnsHub,
            Tools = ["star-wheel spoon", "torch"],
            How = "Push the hat back on, ten clicks more the same way, and try again. The shoe bench says how many the ridge needs.",
        },
        new("circuit-looked", "Look for fluid", Stage.Free, Lane.Corner, Place.Corner, 3, "Nobody knows whether this circuit was opened.")
        {
            Needs = [WheelOff, Corner.Hydraulics.Is(HydraulicsState.Unknown)],
            Makes = [Corner.Hydraulics.To(HydraulicsState.Closed)],
            Outcomes = [new("fluid-shows", "Fluid shows", [Corner.Hydraulics.To(HydraulicsState.Open)])],
            Tools = ["torch"],
            How = "Wet boot, wet floor, a piston past its seal? Dry all round, and nothing was undone here: then it is shut.",
        },
        .. SmallParts(),
        new("spot-off", "Spot caliper off", Stage.Free, Lane.Corner, Place.Corner, 5, "The rotor does not pass it.")
        {
            Applies = s => s.IsSpot,
            Needs = [WheelOff, Corner.Spot.Is(SpotCaliper.On), BrakeOff, BothScrewsCracked.When(s => s.BrakeHoldsHub), ((Condition)Car.Brake.Is(ParkingBrake.Service)).When(s => s.IsElectric)],
            Makes = [Corner.Spot.To(SpotCaliper.Hung), Corner.SpotBolts.To(Bolts.Out)],
            Concerns = Concern.HandsInSpot,
            Tools = ["caliper hook"],
            Cautions = [Cautions.Dust],
            How = "Two bolts, cable or plug left on. Hang it on a hook. Its own pads are their own job.",
        },
        new("cable-end-off", "Cable end off", Stage.Free, Lane.Corner, Place.Corner, 3, "A caliper that leaves leaves without it; a stiff cable is out of the way.")
        {
            ByChoice = ByChoice.Too,
            ChosenWhile = [Corner.Caliper.Is(Caliper.On), Corner.Pads.Is(PadState.Old)],
            RightWhere = _ => "A stiff cable, or no room to hang the caliper. It goes back on with its clip, and the lever is seen on its stop.",
            Applies = s => s.HasLever && !s.InspectOnly,
            Needs = [WheelOff, Car.Cable.Is(CableRun.Slack), Corner.CableEnd.Is(Fitted.On)],
            Makes = [Corner.CableEnd.To(Fitted.Off)],
            Concerns = Concern.HandsIn,
            How = "Clip out and kept on the cable.",
        },
        new("fixed-caliper-off", "Caliper off, hung", Stage.Free, Lane.Corner, Place.Corner, 5, "The rotor does not pass it.")
        {
            Applies = s => s.IsFixed,
            Needs =
            [
                WheelOff, Corner.Caliper.Is(Caliper.On), PadsOut, SmallPartsOff, Corner.HoseBracket.Is(Fitted.None, Fitted.Off),
                ((Condition)Corner.RotorScrews.Is(Bolts.Cracked, Bolts.Out, Bolts.Torqued, Bolts.None)).Saying("the rotor screws cracked while something holds the hub").When(s => s.Screws && !s.ClosesUp),
            ],
            Makes = [Corner.Caliper.To(Caliper.Hung), Corner.BracketBolts.To(Bolts.Out)],
            Concerns = Concern.CaliperOff | Concern.OpensBrake,
            Tools = ["caliper hook", "breaker bar"],
            Cautions = [Cautions.Dust, Cautions.Hot],
            How = "Two mounting bolts. Hang it on a hook, never on its hose. A block between the pistons.",
        },
        new("caliper-off", "Caliper off, hung", Stage.Free, Lane.Corner, Place.Corner, 5, "The pads come out behind it.")
        {
            Applies = s => !s.IsFixed,
            Needs = ComesOff,
            Makes = [Corner.Caliper.To(Caliper.Hung), Corner.SlidePins.To(Bolts.Out)],
            Concerns = Concern.CaliperOff | Concern.OpensBrake,
            ToolsFor = s => ["caliper hook", .. HoldingSpanner(s)],
            Cautions = [Cautions.Dust, Cautions.Hot],
            HowFor = s => $"{UndoPins(s)} Hang the caliper on a hook, never on its hose." + LeadHangsSlack(s),
        },
        new("caliper-swung", "Swing caliper up", Stage.Free, Lane.Corner, Place.Corner, 3, "The pads come out under it, and its other pin carries it.")
        {
            ByChoice = ByChoice.Only,
            ChosenWhile = [Corner.Pads.Is(PadState.Old)],
            RightWhere = _ => "Pads only, and a caliper whose pin lets it turn: rotor and bracket stay. Both pins are drawn and greased and both bolts torqued all the same.",
            AppliesAt = (s, side) => !s.IsFixed && s.PadsNew && !s.RotorOff && !s.At(side).CaliperNew,
            Needs = [.. ComesOff, Corner.PinKit.Is(Asked.Nothing, Asked.Done), Corner.StuckRotor.Is(Asked.Nothing, Asked.Done)],
            Makes = [Corner.Caliper.To(Caliper.Swung), Corner.SlidePins.To(Bolts.Out)],
            Concerns = Concern.CaliperOff | Concern.OpensBrake,
            ToolsFor = s => ["wire", .. HoldingSpanner(s)],
            Cautions = [Cautions.Dust, Cautions.Hot],
            HowFor = s => (s.PinsTurn == true ? "Each pin held with a thin spanner: one" : "One") + " bolt out, the other loosened; swing it up and wire it. The hose neither twists nor pulls." + LeadHangsSlack(s),
        },
        new("swung-caliper-off", "Off its last pin, hung", Stage.Free, Lane.Corner, Place.Corner, 2, "What is wanted now does not come out under a caliper that is only swung.")
        {
            Applies = s => !s.IsFixed,
            Needs = [WheelOff, Corner.Caliper.Is(Caliper.Swung)],
            Makes = [Corner.Caliper.To(Caliper.Hung)],
            Concerns = Concern.HandsIn,
            Tools = ["caliper hook"],
            How = "Wire off, the last bolt out, the caliper on its hook, never on its hose.",
        },
        new("pads-out", "Pads out", Stage.Free, Lane.Corner, Place.Corner, 2, "Old pads are measured in the hand and laid beside the new ones.")
        {
            Needs = [WheelOff, CaliperClear, CaliperThere, SmallPartsOff.When(s => s.IsFixed && s.Fittings.Count > 0), Corner.Pads.Is(PadState.Old)],
            Makes = [Corner.Pads.To(PadState.None)],
            Concerns = Concern.HandsIn | Concern.OpensBrake,
            Cautions = [Cautions.Springs],
            How = "Note how springs, clips and the wear indicator lay.",
        },
        new("pads-kept-out", "Fitted pads out", Stage.Free, Lane.Corner, Place.Corner, 2, "They come out again for what is behind them, and are kept clean.")
        {
            Needs = [WheelOff, CaliperClear, CaliperThere, SmallPartsOff.When(s => s.IsFixed && s.Fittings.Count > 0), Corner.Pads.Is(PadState.New)],
            Makes = [Corner.Pads.To(PadState.None)],
            Concerns = Concern.HandsIn | Concern.OpensBrake,
            Cautions = [Cautions.Springs],
            How = "Lay them face up, marked inner and outer. No grease near them.",
        },
        new("bracket-off", "Bracket off", Stage.Free, Lane.Corner, Place.Corner, 4, "The rotor does not pass it.")
        {
            Applies = s => !s.IsFixed,
            Needs = [WheelOff, PadsOut, Corner.Caliper.Is(Caliper.Hung, Caliper.Away), Corner.Bracket.Is(Bracket.On), Corner.HoseBracket.Is(Fitted.None, Fitted.Off)],
            Makes = [Corner.Bracket.To(Bracket.Off), Corner.BracketBolts.To(Bolts.Out)],
            Concerns = Concern.HandsIn,
            Tools = ["breaker bar"],
            How = "Two bolts. Support it as the second comes out.",
        },
        new("rotor-freed", "Free the rotor", Stage.Free, Lane.Corner, Place.Corner, 8, "A rotor rusted to its hub bends before it comes.")
        {
            Needs = [WheelOff, PadsOut, RotorIsOn, Corner.StuckRotor.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.StuckRotor.To(Asked.Done)],
            Outcomes =
            [
                Mend.NotYet,
                new("by-blows", "It came by blows", [Corner.StuckRotor.To(Asked.Done), Corner.RingLook.To(Asked.Due), Car.Lamp.To(Asked.Due)]) { Reckoned = true },
            ],
            Concerns = Concern.HandsIn,
            Tools = ["penetrating oil", "jacking screws"],
            ToolsFor = s => s.Rotors ? ["penetrating oil", "hammer and drift", "jacking screws"] : ["penetrating oil", "jacking screws"],
            Cautions = [Cautions.Eyes],
            How = "One way after the other, the gentlest first. Never with heat.",
        },
        new("screw-decided", "Broken rotor screw", Stage.Free, Lane.Corner, Place.Corner, 6, "The wheel holds the rotor on the road; the screw only holds it while you work. What was decided stands in the record.")
        {
            Needs = [WheelOff, Corner.BrokenScrew.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.BrokenScrew.To(Asked.Done), Corner.RotorScrews.To(Bolts.None)],
            Outcomes =
            [
                // The others stand as they stood, tight or cracked: each of them keeps its own step.
                new("drilled", "Drilled, new screw", [Corner.BrokenScrew.To(Asked.Done)]),
                new("others-hold", "Left out, the others hold", [Corner.BrokenScrew.To(Asked.Done)]) { Reckoned = true },
            ],
            Tools = ["file", "drill"],
            Cautions = [Cautions.Eyes],
            How = "Flush with the hub and left out: the lead decides that. Or drilled out and a new one fitted.",
        },
        new("rotor-off", "Rotor off", Stage.Free, Lane.Corner, Place.Corner, 4, "Out with it before what is behind it can be reached.")
        {
            Needs =
            [
                WheelOff, PadsOut, RotorIsOn,
                ((Condition)CaliperHung).When(s => s.IsFixed),
                // A caliper that is only swung up still hangs on its bracket, over the rotor.
                ((Condition)Corner.Caliper.Is(Caliper.Hung, Caliper.Away)).When(s => !s.IsFixed),
                ((Condition)Corner.Bracket.Is(Bracket.Off)).When(s => s.BracketInTheWay),
                Corner.RotorScrews.Is(Bolts.Cracked, Bolts.Out, Bolts.None),
                Corner.HoldingNuts.Is(Fitted.Off),
                Corner.Spot.Is(SpotCaliper.None, SpotCaliper.Hung),
                Corner.StuckRotor.Is(Asked.Nothing, Asked.Done),
                Corner.Ridge.Is(Asked.Nothing, Asked.Done),
                Corner.BrokenScrew.Is(Asked.Nothing, Asked.Done),
            ],
            Makes = [Corner.Rotor.To(Rotor.Off)],
            Concerns = Concern.HatOff | Concern.HandsIn,
            Cautions = [Cautions.Eyes],
            How = "Screws out, then the rotor. Never a blow on the speed-sensor ring.",
        },
        new("shoes-off", "Shoes off", Stage.Free, Lane.Corner, Place.Corner, 8, "Old shoes come off once both sides are judged, so that one side stays as the pattern.")
        {
            Applies = s => s.IsHat,
            Needs = [Corner.Rotor.Is(Rotor.Off), Corner.Shoes.Is(ShoesState.BackedOff), Corner.ShoesJudged.Is(Done.Yes)],
            Makes = [Corner.Shoes.To(ShoesState.Off)],
            Concerns = Concern.HandsInHat,
            Tools = ["spring hook", "phone for a picture"],
            Cautions = [Cautions.Springs, Cautions.Eyes, Cautions.Dust],
            How = "A picture first. Hold-down pins, upper spring, shoes, adjuster. Left and right adjusters never change sides.",
        },
        new("new-shoes-off", "Fitted shoes off", Stage.Free, Lane.Corner, Place.Corner, 6, "They come off again for what is behind them, and are kept clean.")
        {
            Applies = s => s.IsHat,
            Needs = [Corner.Rotor.Is(Rotor.Off), Corner.Shoes.Is(ShoesState.NewLoose)],
            Makes = [Corner.Shoes.To(ShoesState.Off)],
            Concerns = Concern.HandsInHat,
            Tools = ["spring hook"],
            Cautions = [Cautions.Springs, Cautions.Eyes],
            How = "Linings up, marked front and rear. No grease near them.",
        },
        new("old-caliper-away", "Caliper away", Stage.Free, Lane.Corner, Place.Corner, 8, "The hose is opened only once the new caliper lies beside it.")
        {
            AppliesAt = (s, side) => s.At(side).CaliperNew,
            Needs =
            [
                WheelOff, CaliperHung, PadsOut, Corner.Judged.Is(Done.Yes), Car.NewParts.Is(Done.Yes), RightPart, Corner.CableEnd.Is(Fitted.None, Fitted.Off), Corner.Sensor.Is(Fitted.None, Fitted.Off),
                Corner.HoseBracket.Is(Fitted.None, Fitted.Off), Corner.Actuator.Is(Actuator.None, Actuator.Unplugged, Actuator.Off),
            ],
            Makes = [Corner.Caliper.To(Caliper.Away), Corner.Hose.To(HoseState.Off), Corner.Hydraulics.To(HydraulicsState.Open), Corner.HoseClamp.To(Fitted.On).When(s => s.Rules.Hose == HoseRule.Clamp)],
            Concerns = Concern.HandsIn,
            Cautions = [Cautions.Fluid, Cautions.Eyes],
            ToolsFor = s => s.Rules.Hose == HoseRule.Clamp ? ["smooth-jawed hose clamp", "tray"] : ["hose plug", "tray"],
            HowFor = s => (s.Rules.Hose == HoseRule.Clamp ? "The purpose-made clamp on the hose; banjo bolt out, both washers with it." : "Banjo bolt out, both washers with it; the hose end plugged at once, never pinched.") + " The reservoir never under MIN.",
        },
        new("wrong-caliper-away", "Wrong caliper away", Stage.Free, Lane.Corner, Place.Corner, 8, "A new caliper that is not the right one, or is spoiled, does not stay on the car.")
        {
            Needs =
            [
                WheelOff, CaliperHung, PadsOut, Corner.WrongCaliper.Is(Asked.Due, Asked.LeftOpen), Corner.CaliperPart.Is(CaliperPart.New), Corner.CableEnd.Is(Fitted.None, Fitted.Off), Corner.Sensor.Is(Fitted.None, Fitted.Off),
                Corner.HoseBracket.Is(Fitted.None, Fitted.Off), Corner.Actuator.Is(Actuator.None, Actuator.Unplugged, Actuator.Off),
            ],
            Makes =
            [
                Corner.Caliper.To(Caliper.Away), Corner.CaliperPart.To(CaliperPart.Old), Corner.Hose.To(HoseState.Off), Corner.Hydraulics.To(HydraulicsState.Open), Corner.WrongCaliper.To(Asked.Done),
                Corner.HoseClamp.To(Fitted.On).When(s => s.Rules.Hose == HoseRule.Clamp),
            ],
            Concerns = Concern.HandsIn,
            Cautions = [Cautions.Fluid, Cautions.Eyes],
            Tools = ["hose plug", "tray"],
            How = "Banjo bolt out, both washers with it, the hose shut at once. It goes back with its box and its paper.",
        },
        new("holding-nuts-off", "Two nuts off again", Stage.Free, Lane.Corner, Place.Corner, 1, "They only held the rotor while the wheel was off.")
        {
            Needs = [WheelOff, Corner.HoldingNuts.Is(Fitted.On)],
            Makes = [Corner.HoldingNuts.To(Fitted.Off)],
            How = "Nuts and washers off; the washers stay off.",
        },
    ];

    private static IEnumerable<StepType> SmallParts() => Small.Parts.Select(p => new StepType($"{p.Id}-off", $"{p.Name} off", Stage.Free, Lane.Corner, Place.Corner, 1, p.Because)
    {
        Applies = s => s.Has(p.Fitting),
        Needs = [WheelOff, p.Variable.Is(Fitted.On)],
        Makes = [p.Variable.To(Fitted.Off)],
        How = p.How,
        Cautions = p.Fitting == Fitting.RattleSpring ? [Cautions.Springs] : [],
    });
}

/// <summary>Small parts, off before the caliper and on again after it.</summary>
internal static class Small
{
    public static IReadOnlyList<(Fitting Fitting, StateVariable<Fitted> Variable, string Id, string Name, string Because, string How)> Parts { get; } =
    [
        (Fitting.WearSensor, Corner.Sensor, "sensor", "Wear sensor", "Its lead tears when the caliper comes off with it plugged.", "The spring clip is kept. A worn-through one is new. It is not the wheel-speed plug; the lamp is reset at the end."),
        (Fitting.RattleSpring, Corner.RattleSpring, "rattle-spring", "Rattle spring", "It lies over the caliper.", "Note the way it lies; it is under load."),
        (Fitting.HoseBracket, Corner.HoseBracket, "hose-bracket", "Hose bracket", "A hose held by its bracket is pulled when what carries it comes off.", "One small bolt; the hose is free of twist when it is back."),
        (Fitting.PinCaps, Corner.PinCaps, "pin-caps", "Pin caps", "The slide-pin bolts are behind them.", "Count them."),
    ];
}

using PatientPawl.Core.Measuring;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Workshop;
using static PatientPawl.Core.Planning.Given;
using static PatientPawl.Core.Planning.Place;

namespace PatientPawl.Core.Planning.Steps;

/// <summary>On again, and each bolt torqued while it can still be reached.</summary>
internal static class Fit
{
    // Pads go into a bracket that is tight, over a rotor that is on; beside a fixed caliper that is on.
    private static readonly Condition[] ReadyForPads =
    [
        WheelOff, PadsOut, RotorIsOn, ShoesSet, ShoesSetByHand, Corner.LandsClean.Is(Done.Yes),
        ((Condition)Corner.Caliper.Is(Caliper.On)).When(s => s.IsFixed),
        Corner.Bracket.Is(Bracket.On), Corner.BracketBolts.Is(Bolts.Tight, Bolts.Torqued),
    ];

    // What was found not to be fit goes back only where the lead leaves it open.
    private static readonly Requirement PadsMayGoBack = Car.UnfitPads.Is(Asked.Nothing, Asked.Done, Asked.LeftOpen);
    private static readonly Condition CaliperMayGoOn = Condition.Any(
        [Corner.UnfitCaliper.Is(Asked.Nothing, Asked.Done, Asked.LeftOpen), Corner.WrongCaliper.Is(Asked.Nothing, Asked.Done)], [Corner.CaliperPart.Is(CaliperPart.New), Corner.WrongCaliper.Is(Asked.Nothing, Asked.Done)])
        .Saying("a caliper that is fit and the right one, or left open by the lead");

    // A rotor that came off has its hub cleaned before it goes on again, and its place on the clean hub counts from then on.
    private static readonly Requirement HubIsClean = Corner.HubClean.Is(Done.Yes);

    private static string SetBy(PlanSetup setup) => "In neutral, the rotor held on its hub. " + (setup.Rules.StarWheel == StarWheelRule.ByClearance
        ? "Clicks by the shoe bench, on the looser side. It turns with no audible rub."
        : "Out until the wheel cannot be turned by hand, then the counted clicks back. It turns with no audible rub.");

    public static IReadOnlyList<StepType> All { get; } =
    [
        new("new-caliper-hung", "New caliper on hose", Stage.Fit, Lane.Corner, Place.Corner, 6, "Right side, bleed screw up, before anything covers it.")
        {
            Needs = [WheelOff, Corner.Caliper.Is(Caliper.Away), Car.NewParts.Is(Done.Yes), RightPart],
            Makes =
            [
                Corner.Caliper.To(Caliper.Hung), Corner.CaliperPart.To(CaliperPart.New), Corner.Hose.To(HoseState.Snug), Corner.Piston.To(Piston.Home), Corner.BleedScrew.To(Bolts.Tight), Corner.Trial.To(Asked.Nothing),
                Corner.ScrewMend.To(Asked.Nothing),
                .. new[] { Corner.Spindle.To(Spindle.Unknown), Corner.Actuator.To(Actuator.Unplugged), Corner.ActuatorScrews.To(Bolts.Tight) }.Select(e => e.When(s => s.IsMotor)),
            ],
            Parts = ["new caliper", "new sealing washers"],
            Tools = ["caliper hook"],
            Cautions = [Cautions.Fluid],
            How = "New washers, banjo by hand, hose free of twist. Hang it on its hook. A cable goes through its mount first.",
        },
        new("old-caliper-back", "Caliper on its hose", Stage.Fit, Lane.Corner, Place.Corner, 6, "It is fit, and goes back where it was.")
        {
            AppliesAt = (s, side) => !s.At(side).CaliperUnfit || s.ClosesUp,
            Needs = [WheelOff, Corner.Caliper.Is(Caliper.Away), Corner.CaliperPart.Is(CaliperPart.Old), Corner.UnfitCaliper.Is(Asked.Nothing, Asked.LeftOpen)],
            Makes = [Corner.Caliper.To(Caliper.Hung), Corner.Hose.To(HoseState.Snug)],
            Parts = ["new sealing washers"],
            Tools = ["caliper hook"],
            Cautions = [Cautions.Fluid],
            How = "New washers all the same, banjo by hand, hose free of twist. Hang it on its hook.",
        },
        new("shoes-back", "Old shoes back", Stage.Fit, Lane.Corner, Place.Corner, 8, "They passed, and go back where they were.")
        {
            Applies = s => s.IsHat && (!s.ShoesNew || s.ClosesUp),
            Needs = [Corner.Shoes.Is(ShoesState.Off), Corner.Rotor.Is(Rotor.Off), Corner.PlateClean.Is(Done.Yes), Car.UnfitShoes.Is(Asked.Nothing, Asked.Done, Asked.LeftOpen)],
            Makes = [Corner.Shoes.To(ShoesState.BackedOff)],
            Concerns = Concern.HandsInHat,
            Tools = ["spring hook"],
            Cautions = [Cautions.Springs, Cautions.Eyes],
            How = "As on the picture, each on its own side, adjuster screwed in.",
        },
        new("shoes-on", "New shoes on", Stage.Fit, Lane.Corner, Place.Corner, 10, "They go on while the plate is open.")
        {
            Applies = s => s.IsHat,
            Needs = [Corner.Shoes.Is(ShoesState.Off), Corner.Rotor.Is(Rotor.Off), Corner.PlateClean.Is(Done.Yes), .. PartsSettled, .. ShoesJudged],
            Makes = [Corner.Shoes.To(ShoesState.NewLoose)],
            Concerns = Concern.HandsInHat,
            Parts = ["new parking shoes", "new springs and pins"],
            Tools = ["spring hook"],
            Cautions = [Cautions.Springs, Cautions.Eyes],
            How = "As on the picture: lever under its shoe, adjuster screwed in, springs hooked. Clean hands on the linings.",
        },
        new("rotor-degreased", "Degrease rotor", Stage.Clean, Lane.Corner, Place.Corner, 2, "Shipping oil would go into the new pads.")
        {
            // When it goes on, and not before it was compared: a part that goes back to its shop goes back as it came.
            Needs = [WheelOff, Corner.RotorClean.Is(Done.No), Car.NewParts.Is(Done.Yes)],
            Makes = [Corner.RotorClean.To(Done.Yes)],
            Parts = ["brake cleaner"],
            HowFor = s => s.IsHat ? "Both faces and the drum inside the hat, until the cloth stays clean. Air the place: the vapour is heavier than air." : "Both faces, until the cloth stays clean. Air the place: the vapour is heavier than air.",
        },
        new("rotor-on", "New rotor on", Stage.Fit, Lane.Corner, Place.Corner, 3, "Nothing else fits before it.")
        {
            Needs = [WheelOff, Corner.Rotor.Is(Rotor.Off), HubIsClean, ShoesBackedOff, .. ShoesJudged, .. PartsSettled],
            Makes = [Corner.Rotor.To(Rotor.New)],
            Concerns = Concern.FitsFriction | Concern.HandsIn | Concern.HandsInHat,
            Parts = ["new rotor"],
            How = "Flat on the hub, no rock. Handed rotors on their own side. Oil film off until the cloth stays clean; a coating stays on all but the braking track.",
        },
        new("rotor-back", "Rotor back on", Stage.Fit, Lane.Corner, Place.Corner, 3, "Nothing else fits before it.")
        {
            Needs = [WheelOff, Corner.Rotor.Is(Rotor.Off), HubIsClean, ShoesBackedOff, Car.UnfitRotors.Is(Asked.Nothing, Asked.Done, Asked.LeftOpen)],
            Makes = [Corner.Rotor.To(Rotor.Old)],
            Concerns = Concern.HandsIn | Concern.HandsInHat,
            How = "Flat on the hub, no rock, in the position the rotor bench advised.",
        },
        new("holding-nuts-on", "Two nuts hold rotor", Stage.Fit, Lane.Corner, Place.Corner, 1, "A rotor that can tilt on its hub lies about every clearance, and the pedal bends it.")
        {
            Needs = [WheelOff, RotorIsOn, Corner.HoldingNuts.Is(Fitted.Off)],
            Makes = [Corner.HoldingNuts.To(Fitted.On)],
            Parts = ["two nuts with flat washers"],
            How = "Two wheel nuts with flat washers, opposite one another, hand tight.",
        },
        ShoesSetFrom("shoes-set", ShoesState.BackedOff, ShoesState.Set),
        ShoesSetFrom("new-shoes-set", ShoesState.NewLoose, ShoesState.NewSet),
        new("rotor-screws-torqued", "Rotor screws", Stage.Torque, Lane.Corner, Place.Corner, 2, "The rotor must not rock while the rest goes on.")
        {
            Applies = s => s.RotorHasScrews,
            Needs = [WheelOff, RotorIsOn, Corner.RotorScrews.Is(Bolts.Cracked, Bolts.Out), Corner.BrokenScrew.Is(Asked.Nothing, Asked.Done)],
            Makes = [Corner.RotorScrews.To(Bolts.Torqued)],
            Torques = FastenerRole.RotorScrew,
            How = "By hand first.",
        },
        new("bracket-on", "Bracket on", Stage.Fit, Lane.Corner, Place.Corner, 3, "By hand first, to catch a crossed thread.")
        {
            Applies = s => !s.IsFixed,
            Needs = [WheelOff, Corner.Bracket.Is(Bracket.Off), Corner.BracketSwap.Is(Asked.Nothing, Asked.Done), RotorIsOn, Corner.RotorScrews.Is(Bolts.Tight, Bolts.Torqued, Bolts.None), ShoesSet, ShoesSetByHand],
            Makes = [Corner.Bracket.To(Bracket.On), Corner.BracketBolts.To(Bolts.Snug), Corner.NewBracketBolts.To(NewBolts.Missing).When(s => s.NewBracketBolts)],
            Concerns = Concern.RefitsBolts | Concern.HandsIn,
            How = "Both bolts by hand, four full turns.",
        },
        new("bracket-torqued", "Bracket bolts", Stage.Torque, Lane.Corner, Place.Corner, 4, "The caliper is about to cover them.")
        {
            Applies = s => !s.IsFixed,
            Needs = [WheelOff, Corner.Bracket.Is(Bracket.On), Corner.BracketBolts.Is(Bolts.Snug), Corner.Caliper.Is(Caliper.Hung, Caliper.Away), ThreadsSound],
            Makes = [Corner.BracketBolts.To(Bolts.Torqued)],
            Torques = FastenerRole.Bracket,
            Concerns = Concern.HandsIn,
            Tools = ["torque wrench"],
            PartsFor = s => s.LocksBracket ? ["thread locker, medium, for the bracket bolts"] : [],
            HowFor = s => s.NewBracketBolts ? "New bolts, as they come." : s.LocksBracket ? "Threads clean and dry, then thread locker, medium." : "Thread locker only where the sheet's note calls for it.",
        },
        new("spot-on", "Spot caliper on", Stage.Fit, Lane.Corner, Place.Corner, 4, "It goes back over the rotor before the wheel.")
        {
            Applies = s => s.IsSpot,
            Needs = [WheelOff, Corner.Spot.Is(SpotCaliper.Hung), RotorIsOn, RotorHeld],
            Makes = [Corner.Spot.To(SpotCaliper.On), Corner.SpotBolts.To(Bolts.Snug)],
            Concerns = Concern.HandsInSpot,
            How = "Both bolts by hand. Its pads clear the rotor.",
        },
        new("spot-torqued", "Spot caliper bolts", Stage.Torque, Lane.Corner, Place.Corner, 3, "Reachable now, and the brake is applied on it later.")
        {
            Applies = s => s.IsSpot,
            Needs = [WheelOff, Corner.Spot.Is(SpotCaliper.On), Corner.SpotBolts.Is(Bolts.Snug)],
            Makes = [Corner.SpotBolts.To(Bolts.Torqued)],
            Torques = FastenerRole.SpotCaliper,
            Concerns = Concern.HandsInSpot,
            Tools = ["torque wrench"],
        },
        new("fixed-caliper-on", "Caliper on", Stage.Fit, Lane.Corner, Place.Corner, 4, "Over the rotor; the pads follow it.")
        {
            Applies = s => s.IsFixed,
            Needs = [WheelOff, CaliperHung, PadsOut, RotorIsOn, RotorHeld, ShoesSet, ShoesSetByHand, CaliperMayGoOn],
            Makes = [Corner.Caliper.To(Caliper.On), Corner.BracketBolts.To(Bolts.Snug), Corner.NewBracketBolts.To(NewBolts.Missing).When(s => s.NewBracketBolts)],
            Concerns = Concern.CaliperOn | Concern.RefitsBolts,
            How = "Both mounting bolts by hand, hose free of twist, bleed screws up.",
        },
        new("mounting-torqued", "Mounting bolts", Stage.Torque, Lane.Corner, Place.Corner, 4, "Nothing goes into a caliper that can move.")
        {
            Applies = s => s.IsFixed,
            Needs = [WheelOff, Corner.Caliper.Is(Caliper.On), Corner.BracketBolts.Is(Bolts.Snug), ThreadsSound],
            Makes = [Corner.BracketBolts.To(Bolts.Torqued)],
            Torques = FastenerRole.Bracket,
            Tools = ["torque wrench"],
            HowFor = s => s.NewBracketBolts ? "New bolts, as they come." : "Thread locker only where the sheet's note calls for it.",
        },
        new("pads-back", "Old pads back", Stage.Fit, Lane.Corner, Place.Corner, 4, "They passed and go back where they were, each in its own place.")
        {
            // What the lead leaves open goes back as it is.
            Needs = [.. ReadyForPads, Corner.Rotor.Is(Rotor.Old), Corner.Hardware.Is(Asked.Nothing, Asked.Done, Asked.LeftOpen), Corner.PadEase.Is(Asked.Nothing, Asked.Done, Asked.LeftOpen), PadsMayGoBack],
            Makes = [Corner.Pads.To(PadState.Old)],
            Concerns = Concern.HandsIn,
            How = "Inner to inner, leading end to leading end. Clips that stay are whole, springy and the right way round. They slide by hand.",
        },
        new("pads-in", "New pads in", Stage.Fit, Lane.Corner, Place.Corner, 4, "A pad in the wrong place, or the wrong way round, squeals and wears crooked.")
        {
            Applies = s => s.PadsNew,
            Needs = [.. ReadyForPads, Corner.Hardware.Is(Asked.Nothing, Asked.Done), Corner.PadEase.Is(Asked.Nothing, Asked.Done), Corner.Piston.Is(Piston.Home), .. PartsSettled, ((Condition)Corner.Rotor.Is(Rotor.New)).When(s => s.Rotors)],
            Makes = [Corner.Pads.To(PadState.New)],
            Concerns = Concern.FitsFriction | Concern.HandsIn,
            Parts = ["new pads"],
            How = "They slide by hand, the spring pressed down as the first one starts. Film or paste on pad backs only where maker or kit says, never on a lining.",
        },
        new("actuator-on", "Actuator on", Stage.Fit, Lane.Corner, Place.Corner, 3, "It goes home flush by its splines, never by its screws.")
        {
            Applies = s => s.IsMotor,
            Needs = [WheelOff, CaliperOnItsHose, Corner.Actuator.Is(Actuator.Off), Corner.Spindle.Is(Spindle.Back), Corner.ActuatorMend.Is(Asked.Nothing, Asked.Done)],
            Makes = [Corner.Actuator.To(Actuator.Unplugged), Corner.ActuatorScrews.To(Bolts.Snug)],
            Parts = ["rubber-safe grease for the O-ring"],
            How = "O-ring wiped, a trace of rubber-safe grease. Turn it until the splines drop in.",
        },
        new("actuator-torqued", "Actuator screws", Stage.Torque, Lane.Corner, Place.Corner, 2, "Small screws in soft metal.")
        {
            Applies = s => s.IsMotor,
            Needs = [WheelOff, Corner.ActuatorScrews.Is(Bolts.Snug)],
            Makes = [Corner.ActuatorScrews.To(Bolts.Torqued)],
            Torques = FastenerRole.ActuatorScrew,
        },
        OverThePads("caliper-on", "Caliper on", Caliper.Hung, "Hose free of twist, boot lying right, bleed screw up. Both bolts started by hand before either is tightened. It does not pass over? Piston not home, pad not seated, clip proud, wrong pad: never drawn on with its bolts."),
        OverThePads("caliper-down", "Caliper down", Caliper.Swung, "Wire off, swing it down. Hose free of twist, boot lying right. Both bolts started by hand, the pivot's too. Never drawn on with them."),
        new("slide-pins-torqued", "Slide pins", Stage.Torque, Lane.Corner, Place.Corner, 3, "Reachable now, and the pedal waits for them.")
        {
            Applies = s => !s.IsFixed,
            Needs = [WheelOff, Corner.Caliper.Is(Caliper.On), Corner.SlidePins.Is(Bolts.Snug)],
            Makes = [Corner.SlidePins.To(Bolts.Torqued)],
            Torques = FastenerRole.SlidePin,
            ToolsFor = s => ["torque wrench", .. Free.HoldingSpanner(s)],
            HowFor = s => s.PinsTurn switch
            {
                true => "Hold the pin with a thin spanner while its bolt is tightened.",
                false => "These pins do not turn with their bolts: nothing to hold.",
                _ => "Hold the pin only where it turns, with a thin spanner.",
            },
        },
        new("actuator-plugged", "Plug in actuator", Stage.Fit, Lane.Corner, Place.Corner, 1, "No ignition with a plug off.")
        {
            Applies = s => s.IsMotor,
            Needs = [WheelOff, Corner.Actuator.Is(Actuator.Unplugged), Corner.ActuatorScrews.Is(Bolts.Torqued, Bolts.Tight), Corner.Caliper.Is(Caliper.On), Corner.SlidePins.Is(Bolts.Torqued, Bolts.Tight), IgnitionOff],
            Makes = [Corner.Actuator.To(Actuator.Plugged)],
            How = "Until it clicks.",
        },
        new("banjo-torqued", "Banjo bolt", Stage.Torque, Lane.Corner, Place.Corner, 2, "The hose lies as it will lie, and the bleeding waits for it.")
        {
            Needs = [WheelOff, Corner.Hose.Is(HoseState.Snug), CaliperBolted],
            Makes = [Corner.Hose.To(HoseState.Torqued)],
            Torques = FastenerRole.Banjo,
            Tools = ["torque wrench"],
        },
        new("cable-end-on", "Cable end on", Stage.Fit, Lane.Corner, Place.Corner, 3, "Before the cable is taken up.")
        {
            Applies = s => s.HasLever,
            Needs = [WheelOff, Corner.Caliper.Is(Caliper.On), Corner.CableEnd.Is(Fitted.Off), Car.Cable.Is(CableRun.Slack)],
            Makes = [Corner.CableEnd.To(Fitted.On), Corner.Lever.To(Lever.NotSeen)],
            How = "End in the lever, clip home until it snaps.",
        },
        .. Small.Parts.Select(p => new StepType($"{p.Id}-on", $"{p.Name} on", Stage.Fit, Lane.Corner, Place.Corner, 1, "Small parts are counted before the wheel covers them.")
        {
            Applies = s => s.Has(p.Fitting),
            Needs =
            [
                WheelOff, CaliperBolted, Corner.Pads.Is(PadState.Old, PadState.New), p.Variable.Is(Fitted.Off),
                .. p.Fitting == Fitting.WearSensor ? new Condition[] { Corner.SensorMend.Is(Asked.Nothing, Asked.Done, Asked.LeftOpen) } : [],
            ],
            Makes = [p.Variable.To(Fitted.On)],
            How = p.How,
            Cautions = p.Fitting == Fitting.RattleSpring ? [Cautions.Springs] : [],
        }),
        new("hat-plug-in", "Hat plug in", Stage.Fit, Lane.Corner, Place.Corner, 1, "Water through the hole rusts the star wheel.")
        {
            Applies = s => s.Has(Fitting.HatPlug),
            Needs = [WheelOff, Corner.HatPlug.Is(Fitted.Off), ShoesSet, ShoesSetByHand, RotorIsOn],
            Makes = [Corner.HatPlug.To(Fitted.On)],
            How = "Press it home all round.",
        },
        new("lead-signs", "Lead looks, signs", Stage.Torque, Lane.Corner, Place.Corner, 2, "A second pair of eyes before the wheel covers bracket and caliper.")
        {
            Applies = s => s.Rules.SignOff == SignOffRule.LeadAlso,
            Needs = [WheelOff, Assembled.ThisButCable, CaliperBolted],
            Makes = [Corner.LeadSigned.To(Done.Yes)],
            LeadOnly = true,
            How = "Bracket, caliper, hose and clips, by eye and by hand.",
        },
        new("wheel-on", "Wheel on, by hand", Stage.Fit, Lane.Corner, Place.Corner, 3, "It goes on last: nothing behind it is to be bled or looked at any more. Count caps, clips and springs first.")
        {
            Lasts = true,
            Needs =
            [
                Lifted, WheelOff, Assembled.ThisButCable, SmallPartsOn, Corner.HoldingNuts.Is(Fitted.Off), Corner.WheelSeat.Is(Asked.Nothing, Asked.Done), Corner.Hydraulics.Is(HydraulicsState.Closed), Corner.BleedScrew.Is(Bolts.Tight, Bolts.Torqued),
                Condition.Any([Car.Leaks.Is(Done.Yes)], [Car.Pedal.Is(Pedal.Firm)]).Saying("leaks looked for under the pedal, or a brake that nobody opened"),
                ((Condition)Corner.LeadSigned.Is(Done.Yes)).When(s => s.Rules.SignOff == SignOffRule.LeadAlso && !s.InspectOnly),
            ],
            Makes = [Corner.Wheel.To(Wheel.On), Corner.Nuts.To(Bolts.Snug)],
            HowFor = s => "Nuts in by hand, in star order, until snug. " + (s.Rules.HubPilot == PilotRule.Smear ? "A smear of anti-seize on the wheel's pilot only." : "The wheel's pilot stays clean and dry."),
        },
    ];

    private static StepType OverThePads(string id, string name, Caliper from, string how) =>
        new(id, name, Stage.Fit, Lane.Corner, Place.Corner, 4, "Over the pads, hose free of twist.")
        {
            Applies = s => !s.IsFixed,
            Needs =
            [
                WheelOff, Corner.Caliper.Is(from), Corner.Pads.Is(PadState.New, PadState.Old), Corner.PinsGreased.Is(Done.Yes), Corner.PinKit.Is(Asked.Nothing, Asked.Done, Asked.LeftOpen),
                Corner.PinSeat.Is(Asked.Nothing, Asked.Done, Asked.LeftOpen), CaliperMayGoOn,
                Condition.Any([Corner.Pads.Is(PadState.Old)], [Corner.Piston.Is(Piston.Home)]).Saying("the piston home for new pads"),
            ],
            Makes = [Corner.Caliper.To(Caliper.On), Corner.SlidePins.To(Bolts.Snug), Corner.NewPinBolts.To(NewBolts.Missing).When(s => s.NewPinBolts)],
            Concerns = Concern.CaliperOn | Concern.RefitsPins | Concern.HandsIn,
            How = how,
        };

    private static StepType ShoesSetFrom(string id, ShoesState from, ShoesState to) =>
        new(id, "Set the shoes", Stage.Fit, Lane.Corner, Place.Corner, 6, "The clearance needs a rotor that turns free: before bracket and caliper.")
        {
            Applies = s => s.IsHat,
            Needs = [WheelOff, RotorIsOn, RotorHeld, Corner.Caliper.Is(Caliper.Hung, Caliper.Away), Corner.Shoes.Is(from), Corner.StarWheelMend.Is(Asked.Nothing, Asked.Done), Corner.PlateMotorMend.Is(Asked.Nothing, Asked.Done), Car.Cable.Is(CableRun.Slack, CableRun.None), BrakeOff],
            Makes = [Corner.Shoes.To(to)],
            Concerns = Concern.TurnsHub | Concern.HandsInHat,
            Tools = ["star-wheel spoon"],
            Readings = [ReadingKind.ClicksOut],
            HowFor = SetBy,
        };
}

using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Workshop;
using static PatientPawl.Core.Planning.Given;
using static PatientPawl.Core.Planning.Place;

namespace PatientPawl.Core.Planning.Steps;

/// <summary>The piston back, and room for its fluid.</summary>
internal static class Retract
{
    // With the bleed screw open it runs into the bottle, and the circuit is bled after it.
    internal static readonly Effect[] IntoTheBottle =
        [.. new[] { Corner.Hydraulics.To(HydraulicsState.Open), Corner.BleedScrew.To(Bolts.Snug) }.Select(e => e.When(s => s.Rules.FluidRoom == FluidRoomRule.OpenBleeder))];

    public static IReadOnlyList<StepType> All { get; } =
    [
        new("push-tried", "Try a gentle push", Stage.Retract, Lane.Corner, Place.Corner, 2, "With the spindle back, one gentle push parts the two motor designs.")
        {
            Applies = s => s.IsMotor,
            Needs =
            [
                WheelOff, PistonInReach, Corner.Method.Is(MethodState.Undecided), Corner.Spindle.Is(Spindle.Back),
                ((Condition)Corner.Room.Is(Room.Enough)).When(s => s.Rules.FluidRoom == FluidRoomRule.DrawOff),
            ],
            Makes = [Corner.Method.To(MethodState.Known)],
            Concerns = Concern.HandsIn,
            How = "Thumbs or a light press. Answer it under Look.",
        },
        new("lever-on-stop", "Lever on its stop", Stage.Retract, Lane.Corner, Place.Corner, 1, "A lever off its stop keeps the screw loaded.")
        {
            Applies = s => s.HasLever,
            Needs = [Lifted, Corner.Lever.Is(Lever.NotSeen), Corner.LeverMend.Is(Asked.Nothing, Asked.Done), Car.Cable.Is(CableRun.Slack, CableRun.TakenUp), BrakeOff],
            Makes = [Corner.Lever.To(Lever.OnStop)],
            Outcomes =
            [
                new("off-its-stop", "It stands off its stop", [Car.Cable.To(CableRun.Tight)]) { Applies = s => s.IsCable },
                // A released puller leaves the cable slack: what keeps the lever off its stop then is the lever.
                new("stays-off", "It does not come back to its stop", [Corner.Lever.To(Lever.NotSeen)]) { Applies = s => s.IsPuller, Reports = FindingKind.LeverSticks },
            ],
            Concerns = Concern.UnderCar,
            How = "Look, and press the lever with a thumb: it must not move further.",
        },
        new("cap-off", "Cap off, rag round", Stage.Retract, Lane.Car, Bonnet, 1, "Displaced fluid rises without a bubble, and the rag keeps it off the paint.")
        {
            Applies = s => s.Rules.Cap == CapRule.OffWithRag,
            Needs = [Car.Cap.Is(CapState.On), Car.Reservoir.Is(Done.Yes)],
            Makes = [Car.Cap.To(CapState.Off)],
            Parts = ["rag"],
            Cautions = [Cautions.Fluid],
            How = "Wipe it first. Cap off, a clean rag round the neck.",
        },
        new("reservoir-again", "Reservoir again", Stage.Retract, Lane.Corner, Bonnet, 1, "The other piston has sent its fluid back: the room is judged again.")
        {
            Needs = [Car.Reservoir.Is(Done.Yes), Corner.Judged.Is(Done.Yes), Corner.Room.Is(Room.NotJudged)],
            Makes = [Corner.Room.To(Room.Enough)],
            Outcomes = [new("no-room", "No room for its fluid", [Corner.Room.To(Room.Short)]) { Reckoned = true }],
            Readings = [ReadingKind.ReservoirLevel],
            How = "Read the level as it stands now.",
        },
        new("fluid-drawn", "Draw off fluid", Stage.Retract, Lane.Corner, Bonnet, 4, "More comes back than there is room for.")
        {
            Applies = s => s.Rules.FluidRoom == FluidRoomRule.DrawOff,
            Needs = [Corner.Room.Is(Room.Short)],
            Makes = [Corner.Room.To(Room.Enough)],
            Readings = [ReadingKind.FluidDrawn],
            Tools = ["clean syringe"],
            Cautions = [Cautions.Fluid],
            How = "With a clean syringe, from the top. Thrown away, never back into the bottle.",
        },
        new("piston-home", "Piston home", Stage.Retract, Lane.Corner, Place.Corner, 6, "New pads need the room that the old ones gave up.")
        {
            Needs =
            [
                WheelOff, PistonInReach, CaliperThere, PadsOut, Corner.Piston.Is(Piston.Out), Corner.Judged.Is(Done.Yes), Corner.Method.Is(MethodState.Known),
                CapOffWhereTheHouseWantsIt,
            ],
            Makes = [Corner.Piston.To(Piston.Home), Corner.Room.OtherTo(Room.NotJudged), .. IntoTheBottle],
            Concerns = Concern.Retracts | Concern.Displaces | Concern.SendsHome | Concern.HandsIn,
            Tools = ["retraction tool"],
            Readings = [ReadingKind.TurnsMade],
            Cautions = [Cautions.Fluid],
            PartsFor = s => s.Rules.Boot == BootRule.Greased ? ["silicone or rubber-safe grease for the boot lip"] : [],
            HowFor = s => "By the ruling on the bench. Watch the boot and the level."
                + (s.Rules.FluidRoom == FluidRoomRule.OpenBleeder ? " Bleed screw open before each push, closed before letting go." : ""),
        },
        new("piston-levered", "Lever piston back", Stage.Retract, Lane.Corner, Place.Corner, 3, "The old pad spreads the force, and the caliper still guides the piston.")
        {
            ByChoice = ByChoice.Only,
            RightWhere = _ => "A piston that is pushed, behind a rotor that goes away. Whether it is home is judged once the caliper is off.",
            AppliesAt = (s, side) => s.Rotors && !s.IsFixed && !s.At(side).CaliperNew && s.PushesAt(side),
            Needs =
            [
                WheelOff, Corner.Caliper.Is(Caliper.On), Corner.Pads.Is(PadState.Old), Corner.Rotor.Is(Rotor.Old), Corner.Piston.Is(Piston.Out), Corner.Method.Is(MethodState.Known),
                ((Condition)BrakeOff).When(s => !s.IsPlain), CapOffWhereTheHouseWantsIt,
            ],
            Makes = [Corner.Piston.To(Piston.Levered), Corner.Room.OtherTo(Room.NotJudged), Car.Reservoir.To(Done.No), .. IntoTheBottle],
            Concerns = Concern.Retracts | Concern.HandsIn,
            Tools = ["broad flat lever"],
            Readings = [ReadingKind.ReservoirLevel],
            Cautions = [Cautions.Fluid],
            HowFor = s => "Level first. Then slowly, the lever flat on the old pad, never on the piston, and never against a rotor that stays. Watch the level."
                + (s.Rules.FluidRoom == FluidRoomRule.OpenBleeder ? " Bleed screw open before each push, closed before letting go." : ""),
        },
        new("piston-judged", "Is it home?", Stage.Retract, Lane.Corner, Place.Corner, 2, "It was levered back where nobody could see it.")
        {
            Needs = [WheelOff, PistonInReach, CaliperThere, PadsOut, Corner.Piston.Is(Piston.Levered), Corner.Judged.Is(Done.Yes)],
            Makes = [Corner.Piston.To(Piston.Home)],
            Outcomes = [new("short", "It stands out", [Corner.Piston.To(Piston.Out)])],
            Concerns = Concern.HandsIn,
            Tools = ["depth gauge", "torch"],
            How = "As far in as the sheet's home figure, or until a firm press moves it no more. Boot flat and dry.",
        },
        new("piston-tried", "Try whether it moves", Stage.Retract, Lane.Corner, Place.Corner, 2, "A seized piston is cheaper to know of before parts are bought for it.")
        {
            ByChoice = ByChoice.Only,
            RightWhere = _ => "A piston that is suspected. A few turns or strokes, before new parts are there to compare.",
            AppliesAt = (s, side) => s.PadsNew && !s.At(side).CaliperNew,
            Needs = [WheelOff, PistonInReach, CaliperThere, PadsOut, Corner.Piston.Is(Piston.Out), Corner.Judged.Is(Done.Yes), Corner.Trial.Is(Asked.Nothing), Corner.Method.Is(MethodState.Known), CapOffWhereTheHouseWantsIt],
            Makes = [Corner.Trial.To(Asked.Done), Corner.Room.OtherTo(Room.NotJudged), .. IntoTheBottle],
            Outcomes = [new("seized", "It does not move", [Corner.Trial.To(Asked.Done), .. IntoTheBottle]) { Reports = FindingKind.StuckPiston }],
            Concerns = Concern.Retracts | Concern.Displaces | Concern.HandsIn,
            Tools = ["retraction tool"],
            Cautions = [Cautions.Fluid],
            HowFor = s => "By the ruling on the bench, each reading on its log. It turns or gives evenly, or it does not: never by more force."
                + (s.Rules.FluidRoom == FluidRoomRule.OpenBleeder ? " Bleed screw open before each push, closed before letting go." : ""),
        },
        new("piston-looked", "Look at piston", Stage.Retract, Lane.Corner, Place.Corner, 3, "Nobody knows how it stands, or whether what is behind it was hurt.")
        {
            Needs = [WheelOff, PistonInReach, CaliperThere, PadsOut, Corner.Piston.Is(Piston.NotSure)],
            Makes = [Corner.Piston.To(Piston.Home)],
            Outcomes = [new("short", "It stands out", [Corner.Piston.To(Piston.Out)])],
            Concerns = Concern.HandsIn,
            Tools = ["depth gauge", "torch"],
            How = "Home, boot flat and dry, and it stays when pressed. Grinding, a loose feel or a wet boot is reported: the caliper is condemned.",
        },
    ];
}

using PatientPawl.Core.Measuring;
using PatientPawl.Core.Workshop;
using static PatientPawl.Core.Planning.Given;
using static PatientPawl.Core.Planning.Place;

namespace PatientPawl.Core.Planning.Steps;

/// <summary>The piston back, and room for its fluid.</summary>
internal static class Retract
{
    public static IReadOnlyList<StepType> All { get; } =
    [
        new("push-tried", "Try a gentle push", Stage.Retract, Lane.Corner, Place.Corner, 2, "With the spindle back, one gentle push parts the two motor designs.")
        {
            Applies = s => s.IsMotor,
            Needs =
            [
                WheelOff, CaliperHung, Corner.Method.Is(MethodState.Undecided), Corner.Spindle.Is(Spindle.Back),
                ((Condition)Corner.Room.Is(Room.Enough)).When(s => s.Rules.FluidRoom == FluidRoomRule.DrawOff),
            ],
            Makes = [Corner.Method.To(MethodState.Known)],
            Concerns = Concern.HandsIn,
            How = "Thumbs or a light press. Answer it under Look.",
        },
        new("lever-on-stop", "Lever on its stop", Stage.Retract, Lane.Corner, Place.Corner, 1, "A lever off its stop keeps the screw loaded.")
        {
            Applies = s => s.HasLever,
            Needs = [Lifted, Corner.Lever.Is(Lever.NotSeen), Car.Cable.Is(CableRun.Slack, CableRun.TakenUp), BrakeOff],
            Makes = [Corner.Lever.To(Lever.OnStop)],
            Outcomes = [new("off-its-stop", "It stands off its stop", [Car.Cable.To(CableRun.Tight)]) { Applies = s => s.IsCable }],
            Concerns = Concern.UnderCar,
            How = "Look and push it with a thumb: it must not move further.",
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
                ((Condition)Car.Cap.Is(CapState.Off)).When(s => s.Rules.Cap == CapRule.OffWithRag),
            ],
            Makes =
            [
                Corner.Piston.To(Piston.Home),
                Corner.Room.OtherTo(Room.NotJudged),
                .. new[] { Corner.Hydraulics.To(HydraulicsState.Open), Corner.BleedScrew.To(Bolts.Snug) }.Select(e => e.When(s => s.Rules.FluidRoom == FluidRoomRule.OpenBleeder)),
            ],
            Concerns = Concern.Retracts | Concern.HandsIn,
            Tools = ["retraction tool"],
            Readings = [ReadingKind.TurnsMade],
            Cautions = [Cautions.Fluid],
            PartsFor = s => s.Rules.Boot == BootRule.Greased ? ["silicone or rubber-safe grease for the boot lip"] : [],
            HowFor = s => "By the ruling on the bench. Watch the boot and the level."
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

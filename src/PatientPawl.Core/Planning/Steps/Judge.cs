using PatientPawl.Core.Measuring;
using static PatientPawl.Core.Planning.Given;
using static PatientPawl.Core.Planning.Place;

namespace PatientPawl.Core.Planning.Steps;

/// <summary>Measured, compared and judged.</summary>
internal static class Judge
{
    public static IReadOnlyList<StepType> All { get; } =
    [
        new("inspected", "Measure, judge", Stage.Judge, Lane.Corner, Place.Corner, 6, "What can be seen with nothing disturbed; shoes and drum are not seen, for the rotor stays on.")
        {
            Applies = s => s.InspectOnly,
            Needs = [WheelOff, Corner.Judged.Is(Done.No)],
            Makes = [Corner.Judged.To(Done.Yes)],
            Readings = [ReadingKind.InnerPad, ReadingKind.OuterPad, ReadingKind.RotorThickness],
            Tools = ["pad gauge", "caliper", "torch"],
            Cautions = [Cautions.Dust],
            How = "Both pads through the window, the rotor at its thinnest, boot, hose and pipe all round.",
        },
        new("parts-compared", "Compare new parts with old", Stage.Judge, Lane.Car, Bench, 3, "A wrong part is found before anything is retracted for it.")
        {
            Applies = s => !s.InspectOnly,
            Needs = [Condition.Any([Corner.Pads.At(Where.Left, PadState.None)], [Corner.Pads.At(Where.Right, PadState.None)]).Saying("an old part in the hand"), RightPart],
            Makes = [Car.NewParts.To(Done.Yes)],
            Parts = ["new parts"],
            How = "Shape, thickness, ears, indicator and pin side. Rotor: diameter, hat depth, bore.",
        },
        new("measured", "Measure, judge", Stage.Judge, Lane.Corner, Place.Corner, 5, "What is fitted follows from what is measured, and how far the piston goes back too.")
        {
            Applies = s => !s.InspectOnly,
            Needs = [WheelOff, PadsOut, PistonInReach, CaliperThere, Corner.Judged.Is(Done.No), Car.Reservoir.Is(Done.Yes)],
            Makes = [Corner.Judged.To(Done.Yes), Corner.Room.To(Room.Enough)],
            Outcomes = [new("no-room", "No room for its fluid", [Corner.Judged.To(Done.Yes), Corner.Room.To(Room.Short)]) { Reckoned = true }],
            Concerns = Concern.HandsIn,
            Readings = [ReadingKind.InnerPad, ReadingKind.OuterPad, ReadingKind.RotorThickness, ReadingKind.PistonProtrusion],
            MoreReadings = s => s.IsFixed ? [ReadingKind.OuterProtrusion] : [],
            Tools = ["caliper", "micrometer", "depth gauge"],
            How = "Thinnest place of each. The piston from the land the sheet measures from; of several on a side the one furthest out.",
        },
        new("verdict-settled", "Measure again or renew", Stage.Judge, Lane.Corner, Place.Corner, 4, "Too close to call is not passed: either a better measurement decides, or the part is renewed.")
        {
            Soon = true,
            Needs = [WheelOff, Corner.Doubt.Is(Doubt.Open)],
            Makes = [Corner.Doubt.To(Doubt.None)],
            Outcomes = [new("renewed", "Renew the part", [Corner.Doubt.To(Doubt.None)])],
            How = "Measure again on its bench with what would settle it. Or renew the part.",
        },
        new("right-part", "The right part", Stage.Judge, Lane.Car, Bench, 5, "A wrong part stops the work until the right one lies here.")
        {
            Needs = [Car.RightPart.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Car.RightPart.To(Asked.Done)],
            Parts = ["the right part, ordered"],
            How = "Order by the vehicle's identification. Click on when it has come.",
        },
        new("wrong-parts-out", "Wrong parts aside", Stage.Judge, Lane.Corner, Bench, 1, "A part that is not the right one does not stay on the car.")
        {
            Needs =
            [
                Corner.WrongFitted.Is(Asked.Due, Asked.LeftOpen), Corner.Pads.Is(PadState.Old, PadState.None), Corner.Rotor.Is(Rotor.Old, Rotor.Off),
                Corner.Shoes.Is(ShoesState.None, ShoesState.Set, ShoesState.BackedOff, ShoesState.Off),
            ],
            Makes = [Corner.WrongFitted.To(Asked.Done)],
            How = "Every new part of this corner lies on the bench, to be compared again before any of them goes back.",
        },
        new("bolts-laid-out", "New bolts at hand", Stage.Judge, Lane.Corner, Bench, 1, "Single-use bolts are not refitted.")
        {
            Applies = s => s.NewPinBolts || s.NewBracketBolts,
            Needs = [Condition.Any([Corner.NewPinBolts.Is(NewBolts.Missing)], [Corner.NewBracketBolts.Is(NewBolts.Missing)]).Saying("bolts that went in and came out again")],
            Makes = [Corner.NewPinBolts.To(NewBolts.LaidOut).When(s => s.NewPinBolts), Corner.NewBracketBolts.To(NewBolts.LaidOut).When(s => s.NewBracketBolts)],
            Parts = ["new single-use bolts"],
            How = "Count them against the sheet.",
        },
        new("shoes-measured", "Drum and shoes", Stage.Judge, Lane.Corner, Place.Corner, 8, "The drum against its maximum, the linings against their minimum, and the clearance to set.")
        {
            Applies = s => s.IsHat,
            // Shoes that somebody took off before their turn are measured on the bench.
            Needs = [Corner.Rotor.Is(Rotor.Off), Corner.Shoes.Is(ShoesState.BackedOff, ShoesState.Off), Corner.ShoesJudged.Is(Done.No)],
            Makes = [Corner.ShoesJudged.To(Done.Yes)],
            Concerns = Concern.HandsInHat,
            Tools = ["drum gauge", "depth gauge", "pick"],
            Cautions = [Cautions.Dust, Cautions.Springs],
            How = "Four directions at two depths; each lining at both ends and its middle. On the shoe bench.",
        },
    ];
}

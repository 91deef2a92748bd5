using PatientPawl.Core.Workshop;
using static PatientPawl.Core.Planning.Given;
using static PatientPawl.Core.Planning.Place;

namespace PatientPawl.Core.Planning.Steps;

/// <summary>What came in.</summary>
internal static class Look
{
    public static IReadOnlyList<StepType> All { get; } =
    [
        new("look-over", "Look the car over", Stage.Look, Lane.Car, RoundCar, 6, "What came in decides what must be asked of it.")
        {
            Soon = true,
            Makes = [Car.LookedOver.To(Done.Yes)],
            How = "Short roll, warning lamps, jacking points, locking-nut key. The questions stand beside.",
        },
        new("identify", "Identify brake", Stage.Look, Lane.Corner, Place.Corner, 4, "The piston's way back differs by type, and a repaired corner can differ from its twin.")
        {
            OnWheels = true,
            Soon = true,
            Makes = [Corner.Identified.To(Done.Yes)],
            How = "Touch what you see until one way back is left.",
        },
        new("choose-route", "Choose the route", Stage.Look, Lane.Car, Bench, 1, "The route into the service position decides the order of everything after it.")
        {
            Applies = s => s.NeedsRoute,
            Soon = true,
            Needs = [Condition.All(Corner.Identified.Both(Done.Yes)).Saying("both brakes identified")],
            Makes = [Car.Route.To(Route.Chosen)],
        },
        new("side-looked", "Look at this side", Stage.Look, Lane.Corner, Place.Corner, 4, "A surprise on the other side is cheap before the first new part, and dear after it.")
        {
            Applies = s => s.Rules.Sides == SidesRule.OtherKept && !s.InspectOnly,
            Needs = [WheelOff, Corner.Looked.Is(Done.No)],
            Makes = [Corner.Looked.To(Done.Yes)],
            Tools = ["torch"],
            Cautions = [Cautions.Dust],
            How = "Pad edges, both rotor faces and its edge, boot, hose. It stays together: it is the pattern.",
        },
    ];
}

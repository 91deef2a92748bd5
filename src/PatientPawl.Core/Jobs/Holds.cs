using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Jobs;

/// <summary>A place where both sides must meet before the job goes on.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Title">Its name while to come or holding.</param>
/// <param name="MetTitle">Its name once met.</param>
/// <param name="Applies">When it exists.</param>
/// <param name="Side">What each side owes.</param>
/// <param name="OnCar">What the car owes.</param>
internal sealed record Hold(string Id, string Title, string MetTitle, Func<PlanSetup, bool> Applies, Func<PlanSetup, Condition[]> Side, Func<PlanSetup, Condition[]> OnCar)
{
    public bool SideMet(PlanSetup setup, CarState car, Side side) => Holds(setup, car, side);
    public bool CarMet(PlanSetup setup, CarState car) => Holds(setup, car, null);
    public bool Met(PlanSetup setup, CarState car) => SideMet(setup, car, Core.Side.Left) && SideMet(setup, car, Core.Side.Right) && CarMet(setup, car);

    private bool Holds(PlanSetup setup, CarState car, Side? side)
    {
        var bound = (BoundCondition[])CompiledCatalogue.For(setup).Derived.GetOrAdd($"hold {Id} {side}",
            _ => (side is null ? OnCar(setup) : Side(setup)).Select(c => CompiledCatalogue.Bind(c, side)).ToArray());
        foreach (var condition in bound)
        {
            if (!condition.Holds(car.Raw)) return false;
        }

        return true;
    }
}

/// <summary>The holds of a job, in order.</summary>
internal static class Holds
{
    public static IReadOnlyList<Hold> All { get; } =
    [
        new("screws-cracked", "Brake held until rotor screws are cracked, both sides", "Rotor screws cracked", s => s.BrakeHoldsHub && !s.ClosesUp, _ => [Corner.RotorScrews.Is(Bolts.Cracked, Bolts.Out, Bolts.Torqued, Bolts.None)], _ => []),
        new("relaxed-tool", "Calipers stay on until the service position", "Service position entered", s => s.InService, s => s.IsMotor ? [Corner.Spindle.Is(Spindle.Back)] : [], _ => [Car.Brake.Is(ParkingBrake.Service)]),
        new("relaxed-hand", "Calipers stay on until the spindles are back", "Spindles back by hand", s => s.ByHand, _ => [Corner.Spindle.Is(Spindle.Back)], _ => []),
        new("relaxed-cable", "Pistons wait for a slack cable", "Cable slack", s => s.IsCable && !s.InspectOnly, _ => [], _ => [Car.Cable.Is(CableRun.Slack)]),
        new("parts-settled", "No new part goes in until both sides are judged", "Parts settled", s => s.Identified && !s.InspectOnly, Settled, _ => [Car.NewParts.Is(Done.Yes)]),
        new("assembled", "Keep off the pedal until both sides are assembled", "Both sides assembled", s => s.Identified && !s.InspectOnly,
            s => [Renewed(s), Condition.All(Assembled.At(Where.This))], _ => []),
        new("wheels-down", "Wheels down", "Wheels down", s => s.Identified, s => [Corner.Wheel.Is(Wheel.On), Renewed(s)], _ => [Car.Position.Is(CarPosition.Ground), Car.Pedal.Is(Pedal.Proved)]),
    ];

    // Where the other side stays together as the pattern, a look at it will do until its own turn.
    private static Condition[] Settled(PlanSetup setup) => setup.Rules.Sides == SidesRule.OtherKept
        ? [Condition.Any([Corner.Judged.Is(Done.Yes)], [Corner.Looked.Is(Done.Yes)]), Corner.Doubt.Is(Doubt.None)]
        : [Corner.Judged.Is(Done.Yes), Corner.Doubt.Is(Doubt.None), .. setup.HatOpen ? new Condition[] { Corner.ShoesJudged.Is(Done.Yes) } : []];

    // What a corner has only once the work is done there: pads or, where they stay, shoes.
    private static Condition Renewed(PlanSetup setup) => setup.PadsNew ? Corner.Pads.Is(PadState.New) : setup.ShoesNew ? Corner.Shoes.Is(ShoesState.NewSet)
        : setup.AnyCaliperNew ? Condition.All(Corner.CaliperPart.Is(CaliperPart.New), Corner.Judged.Is(Done.Yes)) : Corner.Judged.Is(Done.Yes);

    /// <summary>The words on the bar, where the setup changes them.</summary>
    public static string Title(Hold hold, PlanSetup setup) =>
        hold.Id == "parts-settled" && setup.Rules.Sides == SidesRule.OtherKept ? "No new part goes in until this side is judged and the other looked at"
        : hold.Id == "assembled" && setup.InService ? "Service position held until both sides are assembled" : hold.Title;
}

using PatientPawl.Core.Measuring;
using PatientPawl.Core.Proving;
using PatientPawl.Core.Workshop;
using static PatientPawl.Core.Planning.Given;
using static PatientPawl.Core.Planning.Place;

namespace PatientPawl.Core.Planning.Steps;

/// <summary>Proved on its wheels, signed, handed over.</summary>
internal static class Prove
{
    private static readonly Condition WheelsTorqued = Condition.All(Corner.Nuts.Both(Bolts.Tight, Bolts.Torqued)).Saying("wheels torqued");

    /// <summary>What a driver is told at the hand-over, at the step and on the customer's sheet.</summary>
    internal static IEnumerable<string> TellTheDriver(PlanSetup s)
    {
        yield return s.PadsNew ? "The brakes bite less until bedded, and a light even hiss is normal; but the pedal itself is firm: a soft pedal comes back." : "The pedal is firm: a soft pedal comes back.";
        if (s.Rules.Retorque == RetorqueRule.Recheck) yield return $"Wheel nuts again after {HouseWords.NutsAgain}.";
        if (s.PadsNew && s.Rules.BedIn == BedInRule.Gentle) yield return $"{HouseWords.Gentle}, unless the pad maker's sheet says otherwise.";
    }

    public static IReadOnlyList<StepType> All { get; } =
    [
        new("level-looked", "Fluid level", Stage.Prove, Lane.Car, Bonnet, 1, "On its wheels and with the pedal up the level is where it will stay.")
        {
            Needs = [OnGround, PedalProved, Car.Cap.Is(CapState.On)],
            Makes = [Car.Level.To(Done.Yes)],
            Readings = [ReadingKind.ReservoirLevel],
            How = "Between the marks. Top up only now.",
        },
        new("chocks-out", "Chocks out", Stage.Prove, Lane.Car, RoundCar, 1, "They leave last, with the brake applied.")
        {
            Needs = [Chocked, WheelsTorqued],
            Makes = [Car.Chocks.To(Chocks.Out)],
            Concerns = Concern.ChocksOut,
            How = "Brake on, then the chocks.",
        },
        new("brake-held", "Parking brake holds", Stage.Prove, Lane.Car, Cabin, 3, "Against a gentle pull in gear in the yard; the hold on a grade belongs to the drive.")
        {
            Needs = [OnGround, Car.Chocks.Is(Chocks.Out), Car.Brake.Is(ParkingBrake.Applied), PedalProved, WheelsTorqued, Car.Closing.Is(Closing.AsItCame, Closing.Cycled), Assembled.Both],
            Makes = [Car.BrakeProved.To(Done.Yes)],
            Outcomes = [new("creeps", "It creeps", [Car.BrakeProved.To(Done.No), Car.Closing.To(Closing.Open).When(s => !s.InspectOnly), Car.BrakeTrouble.To(Asked.Due)]) { Applies = s => !s.IsPlain }],
            Concerns = Concern.HandsOut | Concern.MovesInYard,
            How = "A gentle pull in gear: both wheels are held, it does not creep, and the lamp is as it should be.",
        },
        new("torques-accepted", "Lead accepts", Stage.Prove, Lane.Car, Bench, 2, "A torque that could not be verified is accepted by name and reason, or done again, before the car moves.")
        {
            Needs = [Car.Acceptance.Is(Acceptance.Waiting)],
            Makes = [Car.Acceptance.To(Acceptance.Accepted)],
            LeadOnly = true,
            How = "Look at it yourself. Give the reason, or have it done again.",
        },
        new("test-driven", "Test drive", Stage.Prove, Lane.Car, Cabin, 10, "Low speed first: straight stop, no pull, no noise, no shake.")
        {
            Needs = [OnGround, WheelsTorqued],
            Makes = [Car.TestDrive.To(Done.Yes)],
            Outcomes = [new("does-not-hold", "It does not hold on the grade", [Car.BrakeProved.To(Done.No), Car.Closing.To(Closing.Open).When(s => !s.InspectOnly), Car.BrakeTrouble.To(Asked.Due)]) { Applies = s => !s.IsPlain }],
            Concerns = Concern.MovesCar,
            HowFor = s => "Engine on, one slow press: the first small drop is the servo, then firm. Walking pace first, pedal in mind. Straight stop, no pull, no noise." + (s.IsPlain ? "" : " The parking brake holds on a grade, both ways."),
        },
        new("bed-in", "Bed-in series", Stage.Prove, Lane.Car, Cabin, 15, "Firm stops with cooling between lay the first film evenly; the pad maker's sheet wins.")
        {
            Waits = true,
            Applies = s => s.BedsIn,
            Needs = [Car.TestDrive.Is(Done.Yes), Car.BedIn.Is(Done.No)],
            Makes = [Car.BedIn.To(Done.Yes)],
            Concerns = Concern.MovesCar | Concern.StopsFirmly,
            How = $"{BedInSeries.Usual.Says}; the pad maker's series wins. An empty road, never over the local limit.",
        },
        new("wheels-lead-signs", "Lead signs wheels", Stage.Torque, Lane.Car, RoundCar, 2, "A second pair of eyes where a wheel can come off.")
        {
            Applies = s => s.Rules.SignOff == SignOffRule.LeadAlso,
            Needs = [OnGround, WheelsTorqued],
            Makes = [Car.WheelsSigned.To(Done.Yes)],
            LeadOnly = true,
            How = "Every nut of both wheels, by the wrench.",
        },
        new("handed-over", "Hand over", Stage.Record, Lane.Car, Bench, 3, "Everything is proved and signed.")
        {
            // What it needs is all the rest of the goal.
            EndsTheJob = true,
            Needs = [((Condition)Car.WheelsSigned.Is(Done.Yes)).When(s => s.Rules.SignOff == SignOffRule.LeadAlso)],
            Makes = [Car.HandedOver.To(Done.Yes)],
            Concerns = Concern.HandsOver,
            HowFor = s => $"Keys and record. {string.Join(" ", TellTheDriver(s))}",
        },
    ];
}

using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Planning;

/// <summary>One clause of an interlock: steps of these concerns need this.</summary>
/// <param name="Concerns">The concerns it applies to.</param>
/// <param name="Needs">What must hold.</param>
public sealed record InterlockClause(Concern Concerns, Condition Needs);

/// <summary>A rule that no step may break.</summary>
/// <param name="Number">1 to 17.</param>
/// <param name="Name">Its name.</param>
/// <param name="Message">What the technician reads when a step would break it.</param>
/// <param name="Why">What would happen.</param>
/// <param name="Remedy">What to do when it was broken out of order.</param>
/// <param name="Clauses">The clauses.</param>
public sealed record Interlock(int Number, string Name, string Message, string Why, string Remedy, IReadOnlyList<InterlockClause> Clauses)
{
    /// <summary>Variables of which nobody knows any more how they stand, once it was broken.</summary>
    internal Func<PlanSetup, IReadOnlyList<StateVariable>> Doubts { get; init; } = _ => [];

    /// <summary>True when it reaches both corners, wherever it was broken.</summary>
    internal bool ReachesBoth { get; init; }
}

/// <summary>The interlocks. Common practice, no source.</summary>
public static class Interlocks
{
    private static readonly Requirement Stands = Car.Position.Is(CarPosition.Stands);
    private static readonly Requirement Chocked = Car.Chocks.Is(Chocks.In);
    private static readonly Requirement IgnitionOff = Car.Ignition.Is(Ignition.Off);
    private static readonly Requirement LeftOn = Car.LeftOn.Is(Done.Yes);
    private static readonly Requirement KeyAway = Car.Key.Is(Key.Away);
    private static readonly Requirement Tagged = Car.Tag.Is(Done.Yes);
    private static readonly Requirement Asleep = Car.Sleep.Is(CarSleep.Asleep);
    private static readonly Requirement Inhibited = Car.AutoApply.Is(AutoApply.None, AutoApply.Inhibited);
    private static readonly Requirement InService = Car.Brake.Is(ParkingBrake.Service);
    private static readonly Requirement Unplugged = Corner.Actuator.Is(Actuator.Unplugged, Actuator.Off);
    private static readonly Requirement BrakeReleased = Car.Brake.Is(ParkingBrake.Released, ParkingBrake.ProvedReleased, ParkingBrake.Service);
    private static readonly Requirement[] CalipersOnPadsIn = [.. Corner.Caliper.Both(Caliper.On), .. Corner.Pads.Both(PadState.Old, PadState.New)];
    private static readonly Requirement[] HatsTogether = [.. Corner.Rotor.Both(Rotor.Old, Rotor.New), .. Corner.Shoes.Both(ShoesState.None, ShoesState.Set, ShoesState.NewSet)];
    private static readonly Requirement[] HatsOverShoes = [.. Corner.Rotor.Both(Rotor.Old, Rotor.New), .. Corner.Shoes.Both(ShoesState.None, ShoesState.Set, ShoesState.BackedOff, ShoesState.NewLoose, ShoesState.NewSet)];
    private static readonly Requirement[] SpotsTogether = [.. Corner.Spot.Both(SpotCaliper.None, SpotCaliper.On), .. Corner.Rotor.Both(Rotor.Old, Rotor.New)];

    // A hand goes into an electric brake only while nothing can move it.
    private static readonly Condition CannotMove = Condition.Any(
        [Inhibited, InService, Tagged, IgnitionOff, KeyAway],
        // Left on is safe only while the car cannot press its brakes by itself: that is switched on again before the road, and hands may come back.
        [Inhibited, InService, Tagged, LeftOn, Car.SelfPressure.Is(SelfPressure.RuledOut, SelfPressure.Disabled)],
        [Inhibited, Unplugged, IgnitionOff, KeyAway]).Saying("the brake in service with switch and tool tagged, or this actuator unplugged; ignition off, key away, auto-apply off");

    // Once it is open, a car that sleeps with its switch tagged will do too: nobody wakes it to make it safer.
    private static readonly Condition HandsSafe = Condition.Any(
        [Inhibited, InService, Tagged, IgnitionOff, KeyAway],
        // Left on is safe only while the car cannot press its brakes by itself: that is switched on again before the road, and hands may come back.
        [Inhibited, InService, Tagged, LeftOn, Car.SelfPressure.Is(SelfPressure.RuledOut, SelfPressure.Disabled)],
        [Inhibited, Unplugged, IgnitionOff, KeyAway],
        [Tagged, Asleep, IgnitionOff, KeyAway]).Saying("nothing able to move this brake: in service and tagged, unplugged, or asleep and tagged; ignition off, key away");

    private static readonly Condition Relaxed = Condition.Any([Corner.Spindle.Is(Spindle.Back)], [Corner.Spindle.Is(Spindle.Out), Corner.Piston.Is(Piston.Out), Corner.CaliperPart.Is(CaliperPart.Old)]);

    // What was found forbids its own things until it is put right: every finding says which.
    private static IEnumerable<InterlockClause> Until(Concern concern, Forbidden what) =>
        Defects.All.Where(d => (d.Forbids & what) != 0).SelectMany(d => d.PutRight(orLeftOpen: false)).Select(c => new InterlockClause(concern, c));

    // All the rest of a job's goal is what its hand-over waits for.
    internal static Interlock HandOver => All.First(i => i.Number == 13);

    /// <summary>All of them, by number.</summary>
    public static IReadOnlyList<Interlock> All { get; } =
    [
        new(1, "On stands, chocked", "On stands first, and chocked at the other axle before the brake lets go.", "The car can roll or come down on someone.",
            "Everyone clear. Chock, then stands, then look at what was disturbed.",
            [
                new(Concern.UnderCar | Concern.WheelOff, Stands),
                new(Concern.UnderCar, Chocked),
                new(Concern.ReleasesBrake | Concern.LeavesPark | Concern.Lifts | Concern.Bleeds, Chocked),
                new(Concern.ChocksOut, Condition.All(Car.Position.Is(CarPosition.Ground), Car.Gear.Is(Gear.Park), Car.Brake.Is(ParkingBrake.Applied)).Saying("on the ground, in P, with the brake applied")),
            ]),
        new(2, "No parking brake into a gap", "Not while a caliper is off or pads are out: the mechanism would run into a gap. And no caliper comes off a brake that can still close.",
            "The spindle or screw over-travels, or a hand is caught.", "Look at both pistons. Read codes. Verify the spindles before going on.",
            [
                new(Concern.AppliesBrake, Condition.All(CalipersOnPadsIn).Saying("both calipers on and all pads in").When(s => s.IsCaliperType)),
                new(Concern.AppliesBrake, Condition.All(HatsTogether).Saying("both rotors on over shoes that are set").When(s => s.IsHat)),
                new(Concern.AppliesBrake, Condition.All(SpotsTogether).Saying("both spot calipers and rotors on").When(s => s.IsSpot)),
                new(Concern.CaliperOff, ((Condition)BrakeReleased).When(s => s.IsCaliperType)),
                new(Concern.CaliperOff, CannotMove.When(s => s.IsCaliperType && s.IsElectric)),
                new(Concern.HatOff, CannotMove.When(s => s.IsHat && s.IsElectric)),
                new(Concern.HandsIn, HandsSafe.When(s => s.IsCaliperType && s.IsElectric)),
                new(Concern.HandsInHat, HandsSafe.When(s => s.IsHat && s.IsElectric)),
                new(Concern.HandsInSpot, HandsSafe.When(s => s.IsSpot && s.IsElectric)),
                new(Concern.SlackensCable, BrakeReleased),
                new(Concern.OpensBrake, ((Condition)Car.SelfPressure.Is(SelfPressure.RuledOut, SelfPressure.Disabled)).Saying("self-pressurising brakes ruled out, or disabled by the maker's procedure")),
            ])
        { Doubts = s => s.IsMotor ? [Corner.Spindle] : s.HasLever ? [Corner.Lever] : [] },
        new(3, "Keep off the pedal", "Keep off the pedal: a caliper is off, pads are out, a rotor is loose, or a bolt or screw behind it is not torqued.", "The piston leaves its bore.",
            "Look whether the piston went past its seal. The circuit counts as open only if it did, or fluid shows.",
            [
                new(Concern.Pedal, Assembled.BothUnderPedal),
                new(Concern.Pedal, Assembled.Held(Where.Left)),
                new(Concern.Pedal, Assembled.Held(Where.Right)),
                new(Concern.Pedal, Condition.All(Corner.BleedScrew.Both(Bolts.Tight, Bolts.Torqued)).Saying("both bleed screws torqued")),
                .. Until(Concern.Pedal | Concern.Bleeds, Forbidden.Pedal),
                new(Concern.Pedal | Concern.Bleeds, Condition.All(Corner.HoseClamp.Both(Fitted.None, Fitted.Off)).Saying("no hose clamped off")),
                .. Until(Concern.ProvesPedal, Forbidden.PedalProof),
                new(Concern.Pedal, ((Condition)Car.Cap.Is(CapState.On)).Saying("the reservoir's cap on: a pedal throws fluid")),
                new(Concern.Bleeds, Assembled.BothUnderPedal),
                new(Concern.Bleeds, Assembled.Held(Where.Left)),
                new(Concern.Bleeds, Assembled.Held(Where.Right)),
            ])
        { Doubts = _ => [Car.Pedal, Corner.Hydraulics, Corner.Piston], ReachesBoth = true },
        new(4, "Asleep while unplugged", "The ignition stays off and the key away until every plug is home, both sides are assembled and the pedal is proved.", "Fault codes, and a brake that wakes and moves.",
            "Ignition off. Read and clear codes at the end.",
            [
                new(Concern.WakesCar, Condition.All(Corner.Actuator.Both(Actuator.None, Actuator.Plugged)).Saying("every actuator on and plugged in")),
                new(Concern.WakesCar, Condition.Any(
                    [.. Corner.Spindle.Both(Spindle.Out, Spindle.None)],
                    [.. Corner.Spindle.Both(Spindle.Out, Spindle.None, Spindle.Unknown), Car.Pedal.Is(Pedal.Firm)],
                    [.. Assembled.At(Where.Left), .. Assembled.At(Where.Right), Car.Pedal.Is(Pedal.Proved)])
                    .Saying("spindles untouched, a brake that nobody opened, or both sides assembled and the pedal proved").When(s => s.IsMotor)),
                // Over brakes that were opened it is woken once leaks are looked for and both hubs turned, with nobody under it.
                new(Concern.WakesCar, Condition.Any(
                    // A box that has its cables up pulls no further.
                    [Car.Cable.Is(CableRun.Tight, CableRun.TakenUp)],
                    // In P, with its wheels on, no hub is turned and no hand is behind one.
                    [Car.Gear.Is(Gear.Park), .. Corner.Wheel.Both(Wheel.On)],
                    [Car.Closing.Is(Closing.AsItCame)], [Car.Brake.Is(ParkingBrake.Applied)], [Car.Pedal.Is(Pedal.Firm)], [Car.Position.Is(CarPosition.Ground)], [Car.Leaks.Is(Done.Yes), .. Corner.TurnsFree.Both(Done.Yes)])
                    .Saying("leaks looked for and both hubs turned by hand before a brake that was opened is woken").When(s => s.NeedsRoute)),
                new(Concern.WakesCar, Condition.Any([Car.Closing.Is(Closing.AsItCame)], [Car.Pedal.Is(Pedal.Firm, Pedal.Proved)])
                    .Saying("a brake that nobody opened, or the pedal proved").When(s => s.IsPuller)),
                new(Concern.WakesCar, Condition.All(CalipersOnPadsIn).Saying("both calipers on and all pads in").When(s => s.IsCaliperType)),
                new(Concern.WakesCar, Condition.Any([Inhibited], HatsOverShoes).Saying("auto-apply off, or both rotors on over their shoes").When(s => s.IsHat)),
                new(Concern.WakesCar, Condition.Any([Inhibited], SpotsTogether).Saying("auto-apply off, or both spot calipers on").When(s => s.IsSpot)),
                new(Concern.Unplugs, Condition.All(IgnitionOff, Asleep, KeyAway).Saying("ignition off, key away, car asleep")),
                // In service a control unit may answer a plug that goes by moving what it still holds.
                new(Concern.Unplugs, Condition.Any(
                    [Corner.Actuator.At(Where.Other, Actuator.None, Actuator.Unplugged, Actuator.Off)],
                    [Corner.Caliper.At(Where.Other, Caliper.On)],
                    [Car.Brake.Is(ParkingBrake.Applied, ParkingBrake.Released, ParkingBrake.ProvedReleased, ParkingBrake.Unknown)],
                    // Seen not to be back: whatever held it there has let go.
                    [Car.Brake.Is(ParkingBrake.ServiceInDoubt), Corner.Spindle.At(Where.Other, Spindle.Out)])
                    .Saying("the other caliper on, or unplugged too: a brake in service with one caliper hung on its plug is left alone").When(s => s.IsMotor)),
            ])
        {
            // A car that woke may have moved what it drives.
            Doubts = s => s.IsMotor ? [Car.Sleep, Car.Brake, Corner.Spindle] : [Car.Sleep, Car.Brake],
            ReachesBoth = true,
        },
        new(5, "Mechanism relaxed", "Not against a loaded mechanism: spindle back, or cable slack and lever on its stop.", "A stripped screw or a broken spindle.",
            "Stop. Relax the mechanism and look at the piston again.",
            [
                new(Concern.Retracts, ((Condition)Corner.Spindle.Is(Spindle.Back)).When(s => s.IsMotor)),
                new(Concern.Retracts, Condition.All(Car.Cable.Is(CableRun.Slack), Corner.Lever.Is(Lever.OnStop)).Saying("cable slack and lever on its stop").When(s => s.HasLever)),
                new(Concern.CaliperOn, Relaxed.Saying("the spindle back, or caliper and piston as they came").When(s => s.IsMotor)),
            ])
        { Doubts = s => s.IsMotor ? [Corner.Piston, Corner.Spindle] : [Corner.Piston] },
        new(6, "Room for the fluid", "Not before the reservoir is looked at, there is room, and new parts are compared with old.", "Fluid over the paint, or a piston sent home for the wrong part.",
            "Wash down with water. Look at the level, draw off, then go on.",
            [
                new(Concern.Retracts, Car.Reservoir.Is(Done.Yes)),
                new(Concern.Displaces, ((Condition)Corner.Room.Is(Room.Enough)).Saying("room in the reservoir for this piston's fluid").When(s => s.Rules.FluidRoom == FluidRoomRule.DrawOff)),
                new(Concern.SendsHome, Car.NewParts.Is(Done.Yes)),
                new(Concern.Bleeds, Car.Reservoir.Is(Done.Yes)),
            ])
        { Doubts = _ => [Car.Reservoir, Corner.Room] },
        new(7, "Hung, never by the hose", "A caliper that comes off hangs on a hook.", "The hose's inner wall tears where no one sees it.",
            "Hang it now, look at the hose along its whole length, and replace it if in doubt.",
            [
                new(Concern.HandsIn | Concern.CaliperOn, ((Condition)Corner.HoseLook.Is(Asked.Nothing, Asked.Done)).Saying("the caliper on its hook, and the hose that carried it looked at")),
            ]),
        new(8, "Shoes let go first", "Brake released, cable slack, star wheel backed off; then the hat comes over the shoes.", "The hat drags the shoes off their pins.",
            "Push the hat back, slacken, and try again.",
            [
                new(Concern.HatOff, Condition.All(BrakeReleased, Car.Cable.Is(CableRun.Slack, CableRun.None), Corner.Shoes.Is(ShoesState.BackedOff, ShoesState.NewLoose, ShoesState.Off))
                    .Saying("brake released, cable slack and star wheel backed off").When(s => s.IsHat)),
            ]),
        new(9, "Something holds the hub", "The parking brake holds the hub only while it is applied, with this caliper on and its pads in.", "The hub spins and the screw head rounds.",
            "A bar across two studs, or an impact driver.",
            [
                new(Concern.HubHeldByBrake, Condition.All(Car.Brake.Is(ParkingBrake.Applied), Corner.Caliper.Is(Caliper.On), Corner.Pads.Is(PadState.Old, PadState.New)).When(s => !s.IsHat)),
                new(Concern.HubHeldByBrake, Condition.All(Car.Brake.Is(ParkingBrake.Applied), Corner.Shoes.Is(ShoesState.Set, ShoesState.NewSet), Corner.Rotor.Is(Rotor.Old, Rotor.New))
                    .Saying("the brake applied, its shoes set and the rotor on").When(s => s.IsHat)),
            ]),
        new(10, "Bracket before caliper", "The bracket is torqued before the caliper covers its bolts, and shoes are set before either.", "A loose bracket that no one can reach again, or a clearance set against pads that drag.",
            "Caliper off, set the shoes, torque the bracket, caliper on.",
            [
                new(Concern.CaliperOn, Condition.All(Corner.Shoes.Is(ShoesState.Set, ShoesState.NewSet), Corner.Rotor.Is(Rotor.Old, Rotor.New)).Saying("the shoes set with the rotor on").When(s => s.IsHat && !s.PullsCables)),
                // A box that took its cables up again can be put back into service only over brakes that are together: then the shoes wait.
                new(Concern.CaliperOn, Condition.Any(
                    [Corner.Shoes.Is(ShoesState.Set, ShoesState.NewSet), Corner.Rotor.Is(Rotor.Old, Rotor.New)],
                    [Car.Cable.Is(CableRun.Tight, CableRun.TakenUp), Corner.Rotor.Is(Rotor.Old, Rotor.New)]).Saying("the shoes set with the rotor on, or the cables still to be let go").When(s => s.IsHat && s.PullsCables)),
                new(Concern.CaliperOn, Condition.All(Corner.Bracket.Is(Bracket.On), Corner.BracketBolts.Is(Bolts.Tight, Bolts.Torqued)).Saying("the bracket on and torqued").When(s => !s.IsFixed)),
            ]),
        new(11, "Closed once, after both", "Both sides assembled and the pedal proved first.", "The motors would push the pistons out.", "Back into service, verify both spindles, and read codes.",
            [
                new(Concern.LeavesService, Assembled.Both),
                new(Concern.LeavesService, Car.Pedal.Is(Pedal.Proved)),
            ])
        { Doubts = s => s.IsMotor ? [Corner.Spindle, Car.Closing, Corner.Piston] : [Car.Closing] },
        new(12, "Fit to stand on its wheels", "The car comes down only with both sides assembled, wheels on and snug, cable taken up, pedal proved, gear in P and something holding it.", "It rolls, or a wheel comes off.",
            "Lift it again, on stands.",
            [
                new(Concern.Lowers, Assembled.BothUnderPedal),
                new(Concern.Lowers, Condition.All([.. Corner.Wheel.Both(Wheel.On), .. Corner.Nuts.Both(Bolts.Snug, Bolts.Torqued, Bolts.Tight)]).Saying("both wheels on, every nut snug")),
                new(Concern.Lowers, Condition.All(Car.Cable.Is(CableRun.None, CableRun.Tight, CableRun.TakenUp), Car.Gear.Is(Gear.Park)).Saying("the cable taken up, in P")),
                // An inspection opens nothing: a pedal that it found soft keeps the car off the road and not off its wheels.
                new(Concern.Lowers, ((Condition)Car.Pedal.Is(Pedal.Firm, Pedal.Proved)).Saying("the pedal firm and proved").When(s => !s.InspectOnly)),
                new(Concern.Lowers, Condition.Any([Car.Brake.Is(ParkingBrake.Applied)], [Chocked]).Saying("the brake applied or chocks in")),
                new(Concern.WheelTorque, Car.Position.Is(CarPosition.Ground)),
            ]),
        new(13, "Proved before it moves", "No moving on an unproved pedal or an unsigned torque; no hand-over before the parking brake is proved and every torque is signed or accepted.", "No brakes at the first stop.",
            "Stop where you are. Pump until firm.",
            [
                new(Concern.MovesCar, Car.Pedal.Is(Pedal.Proved)),
                new(Concern.MovesCar, Assembled.Both),
                .. Until(Concern.MovesInYard, Forbidden.Move),
                .. Until(Concern.MovesCar, Forbidden.Road),
                .. Until(Concern.StopsFirmly, Forbidden.FirmStops),
                new(Concern.MovesCar | Concern.MovesInYard, Condition.All([.. Corner.HoseClamp.Both(Fitted.None, Fitted.Off), Car.Cap.Is(CapState.On)]).Saying("no hose clamped off, and the cap on")),
                new(Concern.MovesCar, Condition.All(Car.Position.Is(CarPosition.Ground), Car.Chocks.Is(Chocks.Out)).Saying("on its wheels, chocks out")),
                new(Concern.MovesCar, Condition.All([.. Corner.Wheel.Both(Wheel.On), .. Corner.Nuts.Both(Bolts.Tight, Bolts.Torqued), Car.Acceptance.Is(Acceptance.NotNeeded, Acceptance.Accepted)])
                    .Saying("every torque signed, or accepted by the lead")),
                new(Concern.MovesCar, Condition.All(Car.Leaks.Is(Done.Yes), Car.Level.Is(Done.Yes), Car.BrakeProved.Is(Done.Yes), Car.Closing.Is(Closing.AsItCame, Closing.Cycled))
                    .Saying("leaks, level and parking brake seen to be right")),
                new(Concern.HandsOver, Condition.All([Car.BrakeProved.Is(Done.Yes), Car.Pedal.Is(Pedal.Proved), .. Corner.Nuts.Both(Bolts.Tight, Bolts.Torqued)]).Saying("parking brake and pedal proved, wheels signed")
                    .When(s => !s.InspectOnly)),
                new(Concern.HandsOver, Assembled.Both),
                new(Concern.HandsOver, Car.Acceptance.Is(Acceptance.NotNeeded, Acceptance.Accepted)),
            ]),
        new(14, "Single-use bolts are new", "These bolts are single-use: new ones first.", "A stretched bolt lets go later.", "Out with it, a new one in.",
            [
                new(Concern.RefitsBolts, Corner.NewBracketBolts.Is(NewBolts.NotNeeded, NewBolts.LaidOut)),
                new(Concern.RefitsPins, Corner.NewPinBolts.Is(NewBolts.NotNeeded, NewBolts.LaidOut)),
            ]),
        new(15, "Bled before it counts", "The circuit was opened, or nobody knows: it is bled before the pedal counts as firm.", "A pedal on air.", "Bleed, then pump again.",
            [
                new(Concern.ProvesPedal, Condition.All(Corner.Hydraulics.Both(HydraulicsState.Closed)).Saying("both circuits closed or bled")),
                new(Concern.ProvesPedal | Concern.MovesCar, ((Condition)Car.SelfPressure.Is(SelfPressure.RuledOut, SelfPressure.NotRuledOut)).Saying("self-pressurising brakes on again")),
            ])
        { Doubts = _ => [Car.Pedal] },
        new(16, "Clean parts", "Clean hands and clean parts: the new rotor is degreased before pads meet it.", "Oil in the lining, and a brake that pulls.", "Clean the rotor. Oiled pads are replaced.",
            [
                new(Concern.FitsFriction, Condition.Any([Corner.Rotor.Is(Rotor.Old)], [Corner.RotorClean.Is(Done.Yes)]).Saying("the new rotor degreased")),
            ]),
        new(17, "Corner work on stands", "Work at a corner needs the car on its stands, chocked.", "A car that moves comes down on hands.", "Everyone clear. Chocks in, then stands.",
            [
                new(Concern.AtCorner, Condition.All(Stands, Chocked).Saying("on stands with the chocks in")),
                new(Concern.TurnsHub, Car.Gear.Is(Gear.Neutral)),
            ]),
    ];
}

using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Planning;

/// <summary>One clause of an interlock: steps of these concerns need this.</summary>
/// <param name="Concerns">The concerns it applies to.</param>
/// <param name="Needs">What must hold.</param>
public sealed record InterlockClause(Concern Concerns, Condition Needs);

/// <summary>A rule that no step may break.</summary>
/// <param name="Number">1 to 16.</param>
/// <param name="Name">Its name.</param>
/// <param name="Message">What the technician reads when a step would break it.</param>
/// <param name="Why">What would happen.</param>
/// <param name="Remedy">What to do when it was broken out of order.</param>
/// <param name="Clauses">The clauses. An interlock with none is kept by the catalogue itself; a test says so.</param>
public sealed record Interlock(int Number, string Name, string Message, string Why, string Remedy, IReadOnlyList<InterlockClause> Clauses)
{
    /// <summary>What is no longer known, or no longer so, once it was broken.</summary>
    public IReadOnlyList<Effect> Leaves { get; init; } = [];
}

/// <summary>The sixteen interlocks. Common practice, no source.</summary>
public static class Interlocks
{
    private static readonly Requirement[] CalipersOnPadsIn = [.. Corner.Caliper.Both(Caliper.On), .. Corner.Pads.Both(PadState.Old, PadState.New)];
    private static readonly Requirement BrakeReleased = Car.Brake.Is(ParkingBrake.Released, ParkingBrake.ProvedReleased, ParkingBrake.Service);

    /// <summary>All of them, by number.</summary>
    public static IReadOnlyList<Interlock> All { get; } =
    [
        new(1, "On stands, chocked", "On stands first, and chocked at the other axle before the brake lets go.", "The car can roll or come down on someone.", "Everyone clear. Chock, then stands, then look at what was disturbed.",
            [
                new(Concern.UnderCar | Concern.WheelOff, Car.Position.Is(CarPosition.Stands)),
                new(Concern.ReleasesBrake | Concern.LeavesPark | Concern.Lifts, Car.Chocks.Is(Chocks.In)),
                new(Concern.ChocksOut, Condition.All(Car.Position.Is(CarPosition.Ground), Car.Brake.Is(ParkingBrake.Applied)).Saying("on the ground with the brake applied")),
            ]),
        new(2, "No parking brake into a gap", "Not while a caliper is off or pads are out: the mechanism would run into a gap. And no caliper comes off a brake that can still close.", "The spindle or screw over-travels, or a hand is caught.", "Look at both pistons. Read codes. Verify the spindles before going on.",
            [
                new(Concern.AppliesBrake, Condition.All(CalipersOnPadsIn).Saying("both calipers on and all pads in").When(s => s.IsCaliperType)),
                new(Concern.AppliesBrake, Condition.All(Corner.Rotor.Both(Rotor.Old, Rotor.New)).Saying("both rotors on").When(s => s.IsHat)),
                new(Concern.AppliesBrake, Condition.All(Corner.Shoes.Both(ShoesState.Set, ShoesState.NewSet)).Saying("the shoes of both sides set").When(s => s.HatOpen)),
                new(Concern.AppliesBrake, Condition.All(Corner.Spot.Both(SpotCaliper.None, SpotCaliper.On)).Saying("both spot calipers on").When(s => s.SpotOff)),
                new(Concern.CaliperOff, ((Condition)BrakeReleased).When(s => s.IsCaliperType)),
                new(Concern.CaliperOff, Condition.Any(
                    [Car.Brake.Is(ParkingBrake.Service), Car.Tag.Is(Done.Yes)],
                    [Corner.Actuator.Is(Actuator.Unplugged, Actuator.Off)]).Saying("the brake in service and its switch tagged, or this actuator unplugged after the release was proved").When(s => s.IsMotor || s.IsPuller)),
                new(Concern.CaliperOff, ((Condition)Car.Tag.Is(Done.Yes)).When(s => s.InService)),
                new(Concern.CaliperOff, Condition.All(Car.AutoApply.Is(AutoApply.Inhibited), Car.Ignition.Is(Ignition.Off), Car.Key.Is(Key.Away)).Saying("auto-apply off, ignition off and the key out of range").When(s => s.IsMotor || s.IsPuller)),
                new(Concern.SlackensCable, BrakeReleased),
            ])
        {
            Leaves = [.. Corner.Spindle.BothTo(Spindle.Unknown).Select(e => e.When(s => s.IsMotor && !s.InspectOnly)), .. Corner.Lever.BothTo(Lever.NotSeen).Select(e => e.When(s => s.HasLever && !s.InspectOnly))],
        },
        new(3, "Keep off the pedal", "Keep off the pedal: a caliper is off, pads are out, or slide pins are not torqued.", "The piston leaves its bore.", "Look whether the piston left its bore. Only then, or with fluid showing, does the circuit count as open.",
            [
                new(Concern.Pedal, Condition.All([.. CalipersOnPadsIn, .. Corner.SlidePins.Both(Bolts.None, Bolts.Tight, Bolts.Torqued)]).Saying("both calipers on, pads in, slide pins torqued")),
            ])
        {
            Leaves = [Car.Pedal.To(Pedal.NotPumped), Car.Hydraulics.To(HydraulicsState.Unknown)],
        },
        new(4, "Asleep while unplugged", "The ignition stays off and the key away until every plug is home, both sides are assembled and the pedal is proved.", "Fault codes, and a brake that wakes and moves.", "Ignition off. Read and clear codes at the end.",
            [
                new(Concern.WakesCar, Condition.All(Corner.Actuator.Both(Actuator.None, Actuator.Plugged)).Saying("every actuator plugged in")),
                new(Concern.WakesCar, Condition.Any(
                    [.. Corner.Spindle.Both(Spindle.Out, Spindle.None)],
                    [.. Assembled.At(Where.Left), .. Assembled.At(Where.Right), Car.Pedal.Is(Pedal.Proved)]).Saying("spindles untouched, or both sides assembled and the pedal proved").When(s => s.ByHand)),
                new(Concern.WakesCar, Condition.All(Corner.Caliper.Both(Caliper.On)).Saying("both calipers on")),
                new(Concern.Unplugs, Condition.All(Car.Ignition.Is(Ignition.Off), Car.Sleep.Is(CarSleep.Asleep), Car.Key.Is(Key.Away)).Saying("ignition off, key away, car asleep")),
            ]),
        new(5, "Mechanism relaxed", "Not against a loaded mechanism: spindle back, or cable slack and lever on its stop.", "A stripped screw or a broken spindle.", "Stop. Relax the mechanism and look at the piston's travel again.",
            [
                new(Concern.Retracts, ((Condition)Corner.Spindle.Is(Spindle.Back)).When(s => s.IsMotor)),
                new(Concern.Retracts, Condition.All(Car.Cable.Is(CableRun.Slack), Corner.Lever.Is(Lever.OnStop)).Saying("cable slack and lever on its stop").When(s => s.HasLever)),
                new(Concern.CaliperOn, ((Condition)Corner.Spindle.Is(Spindle.Back)).When(s => s.IsMotor)),
            ]),
        new(6, "Room for the fluid", "Not before the reservoir is looked at, there is room, and new parts lie beside old.", "Fluid over the paint, or a piston sent home for the wrong part.", "Wash down with water. Draw off, then go on.",
            [
                new(Concern.Retracts, Car.Reservoir.Is(Done.Yes)),
                new(Concern.Retracts, ((Condition)Corner.Room.Is(Room.Enough)).Saying("room in the reservoir for this piston's fluid").When(s => s.Rules.FluidRoom == FluidRoomRule.DrawOff)),
                new(Concern.Retracts, Car.NewParts.Is(Done.Yes)),
            ])
        {
            Leaves = [Car.Reservoir.To(Done.No)],
        },
        new(7, "Hung, never by the hose", "A caliper that comes off hangs on a hook.", "The hose's inner wall tears where no one sees it.", "Hang it now, look at the hose along its whole length, and replace it if in doubt.", []),
        new(8, "Shoes let go first", "Brake released, cable slack, star wheel backed off; then the hat comes over the shoes.", "The hat drags the shoes off their pins.", "Push the hat back, slacken, and try again.",
            [
                new(Concern.HatOff, Condition.All(BrakeReleased, Car.Cable.Is(CableRun.Slack, CableRun.None), Corner.Shoes.Is(ShoesState.BackedOff, ShoesState.NewLoose)).Saying("brake released, cable slack and star wheel backed off").When(s => s.IsHat)),
            ]),
        new(9, "Something holds the hub", "The parking brake holds the hub only while it is applied, with this caliper on and its pads in.", "The hub spins and the screw head rounds.", "A bar across two studs, or an impact driver.",
            [
                new(Concern.HubHeldByBrake, Condition.All(Car.Brake.Is(ParkingBrake.Applied), Corner.Caliper.Is(Caliper.On), Corner.Pads.Is(PadState.Old, PadState.New)).When(s => !s.IsHat)),
                new(Concern.HubHeldByBrake, Condition.All(Car.Brake.Is(ParkingBrake.Applied), Corner.Shoes.Is(ShoesState.Set, ShoesState.NewSet), Corner.Rotor.Is(Rotor.Old, Rotor.New)).Saying("the brake applied, its shoes set and the rotor on").When(s => s.IsHat)),
            ]),
        new(10, "Bracket before caliper", "The bracket is torqued before the caliper covers its bolts, and shoes are set before either.", "A loose bracket that no one can reach again, or a clearance set against pads that drag.", "Caliper off, set the shoes, torque the bracket, caliper on.",
            [
                new(Concern.CaliperOn, Condition.All(Corner.Shoes.Is(ShoesState.Set, ShoesState.NewSet), Corner.Rotor.Is(Rotor.Old, Rotor.New)).Saying("the shoes set with the rotor on").When(s => s.HatOpen)),
                new(Concern.CaliperOn, Condition.All(Corner.Bracket.Is(Bracket.On), Corner.BracketBolts.Is(Bolts.Tight, Bolts.Torqued)).When(s => !s.IsFixed)),
            ]),
        new(11, "Closed once, after both", "Both sides assembled and the pedal proved first.", "The motors would push the pistons out.", "Back into service, verify both spindles, and read codes.",
            [
                new(Concern.LeavesService, Assembled.Both),
                new(Concern.LeavesService, Car.Pedal.Is(Pedal.Proved)),
            ])
        {
            Leaves =
            [
                .. Corner.Spindle.BothTo(Spindle.Unknown).Select(e => e.When(s => s.IsMotor && !s.InspectOnly)),
                Car.Closing.To(Closing.Open).When(s => s.OpensMechanism),
            ],
        },
        new(12, "Fit to stand on its wheels", "The car comes down only with both sides assembled, wheels on and snug, cable taken up, pedal proved, gear in P and something holding it.", "It rolls, or a wheel comes off.", "Lift it again, on stands.",
            [
                new(Concern.Lowers, Assembled.Both),
                new(Concern.Lowers, Condition.All([.. Corner.Wheel.Both(Wheel.On), .. Corner.Nuts.Both(Bolts.Snug, Bolts.Torqued, Bolts.Tight)]).Saying("both wheels on, every nut snug")),
                new(Concern.Lowers, Condition.All(Car.Cable.Is(CableRun.None, CableRun.Tight, CableRun.TakenUp), Car.Pedal.Is(Pedal.Proved), Car.Gear.Is(Gear.Park))),
                new(Concern.Lowers, Condition.Any([Car.Brake.Is(ParkingBrake.Applied)], [Car.Chocks.Is(Chocks.In)]).Saying("the brake applied or chocks in")),
                new(Concern.WheelTorque, Car.Position.Is(CarPosition.Ground)),
            ]),
        new(13, "Proved before it moves", "No moving on an unproved pedal or an unsigned torque; no hand-over before the parking brake is proved and every torque is signed or accepted.", "No brakes at the first stop.", "Stop where you are. Pump until firm.",
            [
                new(Concern.MovesCar, Car.Pedal.Is(Pedal.Proved)),
                new(Concern.MovesCar, Assembled.Both),
                new(Concern.MovesCar, Condition.All([.. Corner.Wheel.Both(Wheel.On), .. Corner.Nuts.Both(Bolts.Torqued), Car.Acceptance.Is(Acceptance.NotNeeded, Acceptance.Accepted)]).Saying("every torque signed, or accepted by the lead")),
                new(Concern.HandsOver, Condition.All([Car.BrakeProved.Is(Done.Yes), Car.Pedal.Is(Pedal.Proved), .. Corner.Nuts.Both(Bolts.Torqued)]).Saying("parking brake and pedal proved, wheels signed")),
                new(Concern.HandsOver, Car.Acceptance.Is(Acceptance.NotNeeded, Acceptance.Accepted)),
            ])
        {
            Leaves = [Car.TestDrive.To(Done.No), Car.HandedOver.To(Done.No)],
        },
        new(14, "Single-use bolts are new", "These bolts are single-use: new ones first.", "A stretched bolt lets go later.", "Out with it, a new one in.",
            [
                new(Concern.RefitsBolts, Corner.NewBolts.Is(NewBolts.NotNeeded, NewBolts.LaidOut)),
            ]),
        new(15, "Bled before it counts", "The circuit was opened, or nobody knows: it is bled before the pedal counts as firm.", "A pedal on air.", "Bleed, then pump again.",
            [
                new(Concern.ProvesPedal, Car.Hydraulics.Is(HydraulicsState.Closed, HydraulicsState.Bled)),
            ])
        {
            Leaves = [Car.Pedal.To(Pedal.NotPumped)],
        },
        new(16, "Clean parts", "Clean hands and clean parts: the new rotor is degreased before pads meet it.", "Oil in the lining, and a brake that pulls.", "Clean the rotor. Oiled pads are replaced.",
            [
                new(Concern.FitsFriction, Condition.All(Corner.RotorClean.Is(Done.Yes)).When(s => s.Rotors)),
            ]),
    ];
}

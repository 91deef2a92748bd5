namespace PatientPawl.Core.Planning;

/// <summary>
/// Something that was proved, and what it rests on. It is declared once; whatever moves its ground makes it fall, in the fold, the planner
/// and the schedule alike.
/// </summary>
/// <param name="Of">The variable that carries it; of a corner, one at each.</param>
/// <param name="Stands">Bit n set: with value n it stands.</param>
/// <param name="FallsTo">What it falls to.</param>
internal sealed record Proof(StateVariable Of, uint Stands, byte FallsTo)
{
    /// <summary>What must hold while it stands.</summary>
    public Func<PlanSetup, IEnumerable<Requirement>> While { get; init; } = _ => [];

    /// <summary>What must stay as it was: any change of it makes the proof fall.</summary>
    public Func<PlanSetup, IEnumerable<Ground>> Untouched { get; init; } = _ => [];

    public static Proof For<T>(StateVariable<T> of, T fallsTo, params T[] stands) where T : struct, Enum =>
        new(of, stands.Aggregate(0u, (mask, v) => mask | 1u << StateVariable<T>.Byte(v)), StateVariable<T>.Byte(fallsTo));
}

/// <summary>A variable that a proof rests on, and where.</summary>
internal readonly record struct Ground(StateVariable Variable, Where Where);

/// <summary>The proofs of a job, in order: a proof that rests on another stands after it.</summary>
internal static class Proofs
{
    // What the pedal presses through: any of it moved, and the pedal has to be pumped and proved again.
    private static readonly StateVariable[] UnderThePedal =
        [Corner.Piston, Corner.Pads, Corner.Caliper, Corner.SlidePins, Corner.Bracket, Corner.BracketBolts, Corner.Rotor, Corner.Hose, Corner.Hydraulics, Corner.BleedScrew];

    public static IReadOnlyList<Proof> All { get; } =
    [
        // A signature holds for its round: a part that is off carries none.
        Proof.For(Corner.BracketBolts, Bolts.Out, Bolts.Tight, Bolts.Torqued, Bolts.Snug) with { While = s => [s.IsFixed ? Corner.Caliper.Is(Caliper.On) : Corner.Bracket.Is(Bracket.On)] },
        Proof.For(Corner.SlidePins, Bolts.Out, Bolts.Tight, Bolts.Torqued, Bolts.Snug) with { While = _ => [Corner.Caliper.Is(Caliper.On)] },
        Proof.For(Corner.RotorScrews, Bolts.Cracked, Bolts.Tight, Bolts.Torqued) with { While = _ => [Corner.Rotor.Is(Rotor.Old, Rotor.New)] },
        Proof.For(Corner.SpotBolts, Bolts.Out, Bolts.Tight, Bolts.Torqued, Bolts.Snug) with { While = _ => [Corner.Spot.Is(SpotCaliper.On)] },
        Proof.For(Corner.Nuts, Bolts.Out, Bolts.Tight, Bolts.Cracked, Bolts.Torqued, Bolts.Snug) with { While = _ => [Corner.Wheel.Is(Wheel.On)] },

        // A circuit is closed once it was bled, or never opened; nothing but that makes it so.
        Proof.For(Corner.Hydraulics, HydraulicsState.Unknown, HydraulicsState.Closed),

        // The car.
        Proof.For(Car.Sleep, CarSleep.Awake, CarSleep.Asleep) with { While = _ => [Car.Ignition.Is(Ignition.Off), Car.Key.Is(Key.Away)] },
        Proof.For(Car.Brake, ParkingBrake.Released, ParkingBrake.ProvedReleased) with { While = _ => [Car.Ignition.Is(Ignition.Off)] },
        Proof.For(Car.LeftOn, Done.No, Done.Yes) with
        {
            While = _ => [Car.Ignition.Is(Ignition.On), Car.Brake.Is(ParkingBrake.Service), Car.Tag.Is(Done.Yes), Car.Battery.Is(Battery.Supported)],
        },
        Proof.For(Car.Closing, Closing.Open, Closing.AsItCame, Closing.Closed, Closing.Cycled) with
        {
            While = s => s.IsPlain ? [] : [Car.Brake.Is(ParkingBrake.Applied, ParkingBrake.Released, ParkingBrake.ProvedReleased)],
            Untouched = s => s.IsPlain ? [] : Parking(s),
        },

        // What the pedal proves, and what is seen under it.
        Proof.For(Car.Pedal, Pedal.NotPumped, Pedal.Firm, Pedal.Proved) with
        {
            While = _ =>
            [
                .. Assembled.UnderPedal(Where.Left), .. Assembled.UnderPedal(Where.Right), .. Corner.Hydraulics.Both(HydraulicsState.Closed),
                // Behind a clamped hose nothing is pressed, and nothing is proved.
                .. Corner.HoseClamp.Both(Fitted.None, Fitted.Off),
            ],
            Untouched = _ => Both(UnderThePedal),
        },
        Proof.For(Car.Leaks, Done.No, Done.Yes) with { While = _ => [Car.Pedal.Is(Pedal.Proved)], Untouched = _ => Both(Corner.Hose, Corner.BleedScrew, Corner.Hydraulics) },
        Proof.For(Corner.TurnsFree, Done.No, Done.Yes) with { While = _ => [Car.Pedal.Is(Pedal.Proved)], Untouched = _ => [.. Here(Corner.Shoes, Corner.Spot), new(Car.Closing, Where.Car)] },
        Proof.For(Corner.LeadSigned, Done.No, Done.Yes) with
        {
            While = _ => Assembled.At(Where.This),
            Untouched = _ => Here(Corner.BracketBolts, Corner.SlidePins, Corner.Caliper, Corner.Bracket, Corner.Hose, Corner.Pads, Corner.Rotor, Corner.SpotBolts, Corner.BleedScrew),
        },
        Proof.For(Car.Level, Done.No, Done.Yes) with
        {
            While = _ => [Car.Pedal.Is(Pedal.Proved), Car.Cap.Is(CapState.On)],
            Untouched = _ => [.. Both(Corner.Piston, Corner.Hydraulics, Corner.BleedScrew, Corner.Bled, Corner.Hose), new(Car.Pedal, Where.Car)],
        },
        Proof.For(Car.Codes, Codes.Unread, Codes.Cleared, Codes.LampsSeen) with { While = _ => [Car.Closing.Is(Closing.AsItCame, Closing.Cycled)], Untouched = _ => [new(Car.Closing, Where.Car)] },

        // What the wheels carry.
        Proof.For(Car.WheelsSigned, Done.No, Done.Yes) with { While = _ => Corner.Nuts.Both(Bolts.Tight, Bolts.Torqued), Untouched = _ => Both(Corner.Nuts) },
        Proof.For(Car.BrakeProved, Done.No, Done.Yes) with
        {
            While = _ => [Car.Closing.Is(Closing.AsItCame, Closing.Cycled), Car.Pedal.Is(Pedal.Proved), .. Corner.Nuts.Both(Bolts.Tight, Bolts.Torqued)],
            Untouched = _ => [new(Car.Closing, Where.Car), new(Car.Position, Where.Car)],
        },
        Proof.For(Car.TestDrive, Done.No, Done.Yes) with
        {
            While = _ => [Car.Pedal.Is(Pedal.Proved), Car.Leaks.Is(Done.Yes), Car.Level.Is(Done.Yes), Car.BrakeProved.Is(Done.Yes), .. Corner.Nuts.Both(Bolts.Tight, Bolts.Torqued)],
            Untouched = _ => [new(Car.Pedal, Where.Car), .. Both(Corner.Nuts)],
        },
        Proof.For(Car.BedIn, Done.No, Done.Yes) with { Untouched = _ => Both(Corner.Pads, Corner.Rotor) },
    ];

    // What the parking brake acts through, by what the brake is made of.
    private static IEnumerable<Ground> Parking(PlanSetup s)
    {
        if (s.IsCaliperType) foreach (var g in Both(Corner.Caliper, Corner.Pads, Corner.Piston, Corner.Spindle, Corner.Actuator)) yield return g;
        if (s.IsHat) foreach (var g in Both(Corner.Shoes, Corner.Rotor)) yield return g;
        if (s.IsSpot) foreach (var g in Both(Corner.Spot, Corner.Rotor)) yield return g;
        if (s.HasCable) yield return new(Car.Cable, Where.Car);
    }

    private static Ground[] Here(params StateVariable[] variables) => [.. variables.Select(v => new Ground(v, Where.This))];

    private static Ground[] Both(params StateVariable[] variables) => [.. variables.SelectMany(v => new[] { new Ground(v, Where.Left), new Ground(v, Where.Right) })];
}

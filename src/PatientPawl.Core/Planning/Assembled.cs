namespace PatientPawl.Core.Planning;

/// <summary>When a corner counts as assembled, and its rotor as held. Interlocks, proofs and steps all lean on it, and it on none of them.</summary>
internal static class Assembled
{
    private static readonly Requirement[] AtLeft = List(Where.Left), AtRight = List(Where.Right);

    /// <summary>
    /// Rotor on, bracket tight, pads in, caliper on and tight, hose on, actuator on and plugged, cable end on, shoes set, spot caliper on. The
    /// wheel is not part of it.
    /// </summary>
    public static Requirement[] At(Where where) => where switch { Where.Left => AtLeft, Where.Right => AtRight, _ => List(where) };

    private static Requirement[] List(Where where) =>
        [.. UnderPedal(where), Corner.CableEnd.At(where, Fitted.None, Fitted.On), Corner.Shoes.At(where, ShoesState.None, ShoesState.Set, ShoesState.NewSet)];

    /// <summary>The same but for the cable's end and how the shoes in the hat are set: neither the pedal nor a car that comes down on its wheels leans on them.</summary>
    public static Requirement[] UnderPedal(Where where) =>
    [
        Corner.Rotor.At(where, Rotor.Old, Rotor.New),
        Corner.RotorScrews.At(where, Bolts.None, Bolts.Tight, Bolts.Torqued),
        Corner.Bracket.At(where, Bracket.On),
        Corner.BracketBolts.At(where, Bolts.Tight, Bolts.Torqued),
        Corner.Pads.At(where, PadState.Old, PadState.New),
        Corner.Caliper.At(where, Caliper.On),
        Corner.SlidePins.At(where, Bolts.None, Bolts.Tight, Bolts.Torqued),
        Corner.Hose.At(where, HoseState.On, HoseState.Torqued),
        Corner.Spot.At(where, SpotCaliper.None, SpotCaliper.On),
        Corner.SpotBolts.At(where, Bolts.None, Bolts.Tight, Bolts.Torqued),
        Corner.Actuator.At(where, Actuator.None, Actuator.Plugged),
        Corner.ActuatorScrews.At(where, Bolts.None, Bolts.Tight, Bolts.Torqued),
        Corner.Shoes.At(where, ShoesState.None, ShoesState.Set, ShoesState.NewSet, ShoesState.BackedOff, ShoesState.NewLoose),
    ];

    /// <summary>This corner is assembled.</summary>
    public static readonly Condition This = Condition.All(At(Where.This)).Saying("this side assembled");

    /// <summary>This corner is assembled, but for a cable end that cannot go on, or shoes that cannot be set, while the cable is tight: the car comes down first to have it let go.</summary>
    public static readonly Condition ThisButCable = Condition.Any(At(Where.This),
        [.. UnderPedal(Where.This), Car.Cable.Is(CableRun.Tight, CableRun.TakenUp)]).Saying("this side assembled");

    /// <summary>Both corners are assembled.</summary>
    public static readonly Condition Both = Condition.All([.. At(Where.Left), .. At(Where.Right)]).Saying("both sides assembled");

    /// <summary>Both corners are fit for the pedal.</summary>
    public static readonly Condition BothUnderPedal = Condition.All([.. UnderPedal(Where.Left), .. UnderPedal(Where.Right)]).Saying("both sides assembled");

    /// <summary>The rotor cannot tilt or turn on its hub: its screws hold it, or two nuts with washers, or the wheel.</summary>
    public static Condition Held(Where where) => Condition.Any(
        [Corner.RotorScrews.At(where, Bolts.Tight, Bolts.Torqued)], [Corner.HoldingNuts.At(where, Fitted.On)], [Corner.Wheel.At(where, Wheel.On)])
        .Saying(where switch { Where.Left => "the left rotor held", Where.Right => "the right rotor held", _ => "the rotor held by its screws, two nuts with washers, or the wheel" });
}

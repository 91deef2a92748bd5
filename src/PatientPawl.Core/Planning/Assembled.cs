namespace PatientPawl.Core.Planning;

/// <summary>When a corner counts as assembled. It stands by itself: interlocks and steps both lean on it, and neither on the other for it.</summary>
internal static class Assembled
{
    /// <summary>A corner is assembled: rotor on, bracket tight, pads in, caliper on and tight, actuator on and plugged. The wheel is not part of it.</summary>
    public static Requirement[] At(Where where) =>
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
    ];

    /// <summary>Both corners are assembled.</summary>
    public static readonly Condition Both =
        Condition.All([.. At(Where.Left), .. At(Where.Right)]).Saying("both sides assembled");
}

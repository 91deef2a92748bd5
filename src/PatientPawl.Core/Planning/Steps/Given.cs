using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Planning;

/// <summary>Facts that many steps share.</summary>
internal static class Given
{
    public static readonly Requirement Lifted = Car.Position.Is(CarPosition.Stands);
    public static readonly Requirement OnGround = Car.Position.Is(CarPosition.Ground);
    public static readonly Requirement Chocked = Car.Chocks.Is(Chocks.In);
    public static readonly Requirement IgnitionOn = Car.Ignition.Is(Ignition.On);
    public static readonly Requirement IgnitionOff = Car.Ignition.Is(Ignition.Off);
    public static readonly Requirement BrakeOff = Car.Brake.Is(ParkingBrake.Released, ParkingBrake.ProvedReleased, ParkingBrake.Service);
    public static readonly Requirement BrakeReleased = Car.Brake.Is(ParkingBrake.Released, ParkingBrake.ProvedReleased);
    public static readonly Requirement Inhibited = Car.AutoApply.Is(AutoApply.None, AutoApply.Inhibited);
    public static readonly Requirement PedalProved = Car.Pedal.Is(Pedal.Proved);
    public static readonly Requirement WheelOff = Corner.Wheel.Is(Wheel.Off);
    public static readonly Requirement PadsOut = Corner.Pads.Is(PadState.None);
    public static readonly Requirement CaliperHung = Corner.Caliper.Is(Caliper.Hung);
    public static readonly Requirement RotorIsOn = Corner.Rotor.Is(Rotor.Old, Rotor.New);
    public static readonly Requirement ThreadsSound = Corner.HubMend.Is(Asked.Nothing, Asked.Done);
    public static readonly Requirement RightPart = Car.RightPart.Is(Asked.Nothing, Asked.Done);

    // A sliding caliper hangs aside; a fixed one stays on, and its pads come out past it.
    public static readonly Condition CaliperClear = ((Condition)Corner.Caliper.Is(Caliper.Hung, Caliper.Swung, Caliper.Away)).When(s => !s.IsFixed);
    public static readonly Condition PistonInReach = ((Condition)Corner.Caliper.Is(Caliper.Hung, Caliper.Swung)).When(s => !s.IsFixed);
    public static readonly Condition CaliperThere = ((Condition)Corner.Caliper.Is(Caliper.On, Caliper.Hung)).When(s => s.IsFixed);

    // On, or off and still on its hose: not away, with the new one still to come.
    public static readonly Requirement CaliperOnItsHose = Corner.Caliper.Is(Caliper.On, Caliper.Hung, Caliper.Swung);

    public static readonly Condition CapOffWhereTheHouseWantsIt = ((Condition)Car.Cap.Is(CapState.Off)).When(s => s.Rules.Cap == CapRule.OffWithRag);

    public static readonly Condition SmallPartsOff = Condition.All(
        Corner.Sensor.Is(Fitted.None, Fitted.Off), Corner.RattleSpring.Is(Fitted.None, Fitted.Off), Corner.PinCaps.Is(Fitted.None, Fitted.Off))
        .Saying("sensor, springs and caps out of the way").When(s => s.Fittings.Count > 0);

    public static readonly Condition SmallPartsOn = Condition.All(
        Corner.Sensor.Is(Fitted.None, Fitted.On), Corner.RattleSpring.Is(Fitted.None, Fitted.On), Corner.HoseBracket.Is(Fitted.None, Fitted.On), Corner.PinCaps.Is(Fitted.None, Fitted.On),
        Corner.HatPlug.Is(Fitted.None, Fitted.On)).Saying("caps, clips, springs, sensor and plug counted and on").When(s => s.Fittings.Count > 0);

    public static readonly Condition CaliperBolted = Condition.Any(
        [Corner.Caliper.Is(Caliper.On), Corner.SlidePins.Is(Bolts.Torqued)],
        [Corner.Caliper.Is(Caliper.On), Corner.SlidePins.Is(Bolts.None, Bolts.Tight), Corner.BracketBolts.Is(Bolts.Tight, Bolts.Torqued)]).Saying("the caliper on and its bolts torqued");

    public static readonly Condition IgnitionForTheSwitch = ((Condition)IgnitionOn).When(s => s.IsElectric);

    // A selector without power cannot be moved.
    public static readonly Condition SelectorHasPower = ((Condition)IgnitionOn).When(s => s.IsElectric);

    public static readonly Condition BothTurnFree = Condition.All(Corner.TurnsFree.Both(Done.Yes)).Saying("both sides turn free by hand");

    public static readonly Condition RotorHeld = Assembled.Held(Where.This);

    // Shoes are set against a free rotor that is held on its hub.
    public static readonly Condition ShoesSet = Condition.Any([Corner.Shoes.Is(ShoesState.None, ShoesState.Set, ShoesState.NewSet)], [Car.Cable.Is(CableRun.Tight, CableRun.TakenUp), Corner.Shoes.Is(ShoesState.BackedOff, ShoesState.NewLoose)])
        .Saying("the shoes set, or the cables still to be let go").When(s => s.IsHat && s.PullsCables);

    public static readonly Condition ShoesSetByHand = ((Condition)Corner.Shoes.Is(ShoesState.Set, ShoesState.NewSet)).When(s => s.IsHat && !s.PullsCables);
    public static readonly Condition ShoesBackedOff = ((Condition)Corner.Shoes.Is(ShoesState.BackedOff, ShoesState.NewLoose)).When(s => s.IsHat);
    // Where the other side is kept assembled, only this one is open to be measured.
    public static readonly Condition[] ShoesJudged =
    [
        ((Condition)Corner.ShoesJudged.Is(Done.Yes)).Saying("drum and shoes of this side measured and judged").When(s => s.IsHat),
        ((Condition)Corner.ShoesJudged.At(Where.Other, Done.Yes)).Saying("drum and shoes of the other side measured and judged").When(s => s.IsHat && s.Rules.Sides != SidesRule.OtherKept),
    ];

    public static readonly Condition BothScrewsCracked =
        Condition.All(Corner.RotorScrews.Both(Bolts.Cracked, Bolts.Out, Bolts.Torqued, Bolts.None)).Saying("rotor screws of both sides cracked");

    // Nothing new goes in before it is known what is wanted: on both sides, or here with a look at the other side that stays assembled meanwhile.
    public static readonly Condition[] PartsSettled =
    [
        Condition.All([RightPart, Car.NewParts.Is(Done.Yes), Corner.Judged.Is(Done.Yes), Corner.WrongFitted.Is(Asked.Nothing, Asked.Done), .. Corner.Doubt.Both(Doubt.None)])
            .Saying("this side measured and judged with nothing in doubt, and new parts compared with old"),
        Condition.All(Corner.Judged.At(Where.Other, Done.Yes)).Saying("the other side measured and judged").When(s => s.Rules.Sides != SidesRule.OtherKept),
        Condition.Any([Corner.Looked.At(Where.Other, Done.Yes)], [Corner.Judged.At(Where.Other, Done.Yes), .. Assembled.At(Where.Other)]).Saying("the other side looked at, or finished").When(s => s.Rules.Sides == SidesRule.OtherKept),
    ];

    // On stands nothing is proved before it was bled. On its wheels it may be: a brake that has applied there lets go only once the car is woken,
    // and that waits for a firm pedal. Bleeding comes all the same, and the pedal once more after it.
    public static readonly Condition AlwaysBled = Condition.Any([.. Corner.Bled.Both(Done.Yes)], [OnGround])
        .Saying("both corners bled, as the house rule asks, or the car on its wheels").When(s => s.Rules.Bleeding == BleedRule.Always && !s.InspectOnly && !s.ClosesUp);
}

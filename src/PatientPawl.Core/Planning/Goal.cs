using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Planning;

/// <summary>What a finished job has reached: data, made from the setup, and searched for by the one engine there is.</summary>
internal static class Goal
{
    public static List<BoundCondition> For(PlanSetup setup) => [.. Facts(setup).Where(f => f.Applies?.Invoke(setup) != false).Select(f => CompiledCatalogue.Bind(f, null))];

    /// <summary>All that the hand-over waits for: everything that a finished job has reached but the hand-over itself.</summary>
    public static IEnumerable<Condition> BeforeTheEnd(PlanSetup setup) =>
        setup.NotCovered is null ? ToHandOver(setup with { Goal = setup.Goal is JobGoal.CloseUp ? JobGoal.CloseUp : JobGoal.Finish }) : [];

    private static IEnumerable<Condition> Facts(PlanSetup s) => s.Goal switch
    {
        JobGoal.Finish or JobGoal.CloseUp => [.. ToHandOver(s), .. s.ClosesUp || (s.Identified && !(s.NeedsRoute && s.Route is null)) ? [Car.HandedOver.Is(Done.Yes)] : (Condition[])[]],
        JobGoal.Yard => [.. OnItsWheels(s), .. Corner.Nuts.Both(Bolts.Tight, Bolts.Torqued), Car.Pedal.Is(Pedal.Proved), .. Corner.Hydraulics.Both(HydraulicsState.Closed), Car.Cap.Is(CapState.On), .. Sound(s)],
        JobGoal.NightAssembled => [.. OnItsWheels(s), .. Corner.Nuts.Both(Bolts.Tight, Bolts.Torqued), Car.Pedal.Is(Pedal.Firm, Pedal.Proved), .. Corner.Hydraulics.Both(HydraulicsState.Closed), .. Quiet, ServiceTagged.When(x => x.IsElectric)],
        JobGoal.NightOnStands => OnStands(s),
        _ => throw new ArgumentOutOfRangeException(nameof(s), s.Goal, "No such goal."),
    };

    private static readonly Condition ServiceTagged = Condition.Any([Car.Brake.Is(ParkingBrake.Applied, ParkingBrake.Released, ParkingBrake.ProvedReleased)], [Car.Tag.Is(Done.Yes)])
        .Saying("a brake in service tagged at switch and tool");

    // Put right, or left open by the lead's word; and a hose that nothing pinches.
    private static IEnumerable<Condition> Sound(PlanSetup s) => [.. Defects.Settled(s), .. Corner.HoseClamp.Both(Fitted.None, Fitted.Off).Select(r => (Condition)r)];

    // A car that is not to be driven, with what keeps it off the road left open by the lead: the tag stands in for these.
    private static Condition OrOffTheRoad(PlanSetup s, Requirement fact, bool also = true) => also && (s.ClosesUp || s.InspectOnly)
        ? Condition.Any([[fact], .. Steps.LeftOpen.SomethingOffTheRoad([Car.NoRoad.Is(Done.Yes)]).AnyOf.Select(a => a.ToArray())]).Saying($"{fact.Variable.Noun}, or a car tagged that is not to be driven")
        : fact;

    private static readonly Condition[] Quiet = [Car.Ignition.Is(Ignition.Off), Car.Cap.Is(CapState.On)];

    private static IEnumerable<Condition> OnItsWheels(PlanSetup s)
    {
        yield return Assembled.Both;
        foreach (var r in Corner.Wheel.Both(Wheel.On)) yield return r;
        yield return Car.Position.Is(CarPosition.Ground);
        yield return Car.Gear.Is(Gear.Park);
        yield return Condition.Any([Car.Brake.Is(ParkingBrake.Applied)], [Car.Chocks.Is(Chocks.In)]).Saying(s.IsPlain ? "chocked both ways" : "the brake applied, or chocked both ways");
    }

    // Calipers on or hung, hoses on or shut; nothing that can wake.
    private static IEnumerable<Condition> OnStands(PlanSetup s)
    {
        yield return Car.Position.Is(CarPosition.Stands);
        yield return Car.Chocks.Is(Chocks.In);
        // No banjo is left hand-tight for a night.
        foreach (var r in Corner.Hose.Both(HoseState.On, HoseState.Off, HoseState.Torqued)) yield return r;
        foreach (var c in Quiet) yield return c;
        if (!s.IsElectric) yield break;
        yield return Car.Key.Is(Key.Away);
        // A brake that somebody could close on an open corner is tagged.
        yield return Condition.Any([Car.Tag.Is(Done.Yes)], [Car.Brake.Is(ParkingBrake.Applied), .. Assembled.At(Where.Left), .. Assembled.At(Where.Right)]).Saying("switch and tool tagged, or the brake applied and both sides assembled");
    }

    private static IEnumerable<Condition> ToHandOver(PlanSetup s)
    {
        yield return Car.LookedOver.Is(Done.Yes);
        foreach (var r in Corner.Identified.Both(Done.Yes)) yield return r;
        if (!s.Identified && !s.ClosesUp)
        {
            // The further looks are behind the wheels.
            foreach (var r in Corner.Wheel.Both(Wheel.Off)) yield return r;
            yield break;
        }

        if (s.NeedsRoute && !s.ClosesUp)
        {
            yield return Car.Route.Is(Route.Chosen);
            if (s.Route is null) yield break;
        }

        foreach (var c in s.ClosesUp ? Alike(s) : Renewed(s)) yield return c;
        foreach (var c in AtCorners(s)) yield return c;
        foreach (var c in OnCar(s)) yield return c;
    }

    // What the scope and the findings ask for.
    private static IEnumerable<Condition> Renewed(PlanSetup s)
    {
        foreach (var r in Corner.Pads.Both(s.PadsNew ? PadState.New : PadState.Old)) yield return r;
        if (s.PadsNew)
            foreach (var r in Corner.Piston.Both(Piston.Home)) yield return r;
        foreach (var r in Corner.Rotor.Both(s.Rotors ? Rotor.New : Rotor.Old)) yield return r;
        foreach (var r in Corner.Judged.Both(Done.Yes)) yield return r;
        if (s.HatOpen)
        {
            foreach (var r in Corner.ShoesJudged.Both(Done.Yes)) yield return r;
            foreach (var r in Corner.Shoes.Both(s.ShoesNew ? ShoesState.NewSet : ShoesState.Set)) yield return r;
        }

        foreach (var side in Core.Sides.Both.Where(side => s.At(side).CaliperNew)) yield return Corner.CaliperPart.At(At(side), CaliperPart.New);
        if (s.RotorOff)
            foreach (var r in Corner.HubClean.Both(Done.Yes)) yield return r;
        if (s.Screws)
            foreach (var r in Corner.RotorScrews.Both(Bolts.Torqued, Bolts.None)) yield return r;
        foreach (var v in new[] { Corner.StuckRotor, Corner.StuckWheel, Corner.Ridge })
            foreach (var r in v.Both(Asked.Nothing, Asked.Done)) yield return r;
        if (s.Rules.Bleeding == BleedRule.Always && !s.InspectOnly)
            foreach (var r in Corner.Bled.Both(Done.Yes)) yield return r;
        if (s.BedsIn) yield return Car.BedIn.Is(Done.Yes);
    }

    // Old parts back, or new ones in, alike on the axle. A part that is not fit goes back only by the lead's word, which the settled defects ask for.
    private static IEnumerable<Condition> Alike(PlanSetup s)
    {
        var (oldPads, newPads) = (Corner.Pads.Both(PadState.Old), Corner.Pads.Both(PadState.New));
        var (oldRotors, newRotors) = (Corner.Rotor.Both(Rotor.Old), Corner.Rotor.Both(Rotor.New));
        Requirement[] beddedIn = s.BedsIn ? [Car.BedIn.Is(Done.Yes)] : [];
        Requirement[][] ways = [[.. oldPads, .. oldRotors], [.. newPads, .. oldRotors, .. beddedIn], [.. newPads, .. newRotors, .. beddedIn]];
        // New linings on a car that is not to be driven are bedded in by whoever drives it first.
        if (s.BedsIn)
            ways = [.. ways, .. Steps.LeftOpen.SomethingOffTheRoad([Car.NoRoad.Is(Done.Yes), .. newPads]).AnyOf.SelectMany(a => new Requirement[][] { [.. a, .. oldRotors], [.. a, .. newRotors] })];
        yield return Condition.Any(ways).Saying("pads and rotors alike on both sides");
        if (s.IsHat) yield return Condition.Any(Corner.Shoes.Both(ShoesState.Set), Corner.Shoes.Both(ShoesState.NewSet)).Saying("shoes alike on both sides");
    }

    private static IEnumerable<Condition> AtCorners(PlanSetup s)
    {
        // Each corner is worth closing up by itself, even while the other waits for a part.
        foreach (var where in new[] { Where.Left, Where.Right })
            foreach (var r in Assembled.At(where)) yield return r;
        foreach (var r in Corner.Doubt.Both(Doubt.None)) yield return r;
        foreach (var r in Corner.Piston.Both(Piston.Out, Piston.Levered, Piston.Home)) yield return r;
        foreach (var v in new[] { Corner.Sensor, Corner.RattleSpring, Corner.HoseBracket, Corner.PinCaps, Corner.HatPlug })
            foreach (var r in v.Both(Fitted.None, Fitted.On)) yield return r;
        foreach (var r in Sound(s)) yield return r;
        foreach (var r in Corner.HoldingNuts.Both(Fitted.Off)) yield return r;
        foreach (var r in Corner.Hydraulics.Both(HydraulicsState.Closed)) yield return r;
        foreach (var r in Corner.BleedScrew.Both(Bolts.Tight, Bolts.Torqued)) yield return r;
        foreach (var r in Corner.Wheel.Both(Wheel.On)) yield return r;
        foreach (var r in Corner.Nuts.Both(Bolts.Tight, Bolts.Torqued)) yield return r;
        if (s.Identified)
            foreach (var r in Corner.TurnsFree.Both(Done.Yes)) yield return OrOffTheRoad(s, r, s.InspectOnly);
    }

    private static IEnumerable<Condition> OnCar(PlanSetup s)
    {
        yield return Car.Cap.Is(CapState.On);
        // A tag that says so stays only on a car that is not to be driven.
        yield return Condition.Any([[Car.NoRoad.Is(Done.No)], .. Steps.LeftOpen.SomethingOffTheRoad([]).AnyOf.Select(a => a.ToArray())]).Saying("no tag on a car that may be driven");
        if (!s.IsPlain) yield return Car.Brake.Is(ParkingBrake.Applied);
        yield return OrOffTheRoad(s, Car.Pedal.Is(Pedal.Proved), s.InspectOnly);
        yield return Car.Closing.Is(Closing.AsItCame, Closing.Cycled);
        yield return Car.Tag.Is(Done.No);
        yield return Car.AutoApply.Is(AutoApply.None, AutoApply.Active);
        if (s.NeedsRoute) yield return Condition.Any([Car.Closing.Is(Closing.AsItCame)], [Car.Codes.Is(Codes.Cleared, Codes.LampsSeen)]).Saying("codes cleared, or lamps seen off");
        yield return Car.Battery.Is(Battery.Alone);
        yield return Car.Cable.Is(CableRun.None, CableRun.Tight, CableRun.TakenUp);
        yield return Car.Ignition.Is(Ignition.Off);
        yield return Car.Key.Is(Key.Near);
        yield return Car.Gear.Is(Gear.Park);
        yield return Car.Position.Is(CarPosition.Ground);
        yield return Car.Chocks.Is(Chocks.Out);
        yield return Car.SelfPressure.Is(SelfPressure.RuledOut, SelfPressure.NotRuledOut);
        yield return OrOffTheRoad(s, Car.Level.Is(Done.Yes), s.InspectOnly);
        yield return OrOffTheRoad(s, Car.Leaks.Is(Done.Yes), s.InspectOnly);
        yield return OrOffTheRoad(s, Car.BrakeProved.Is(Done.Yes), s.InspectOnly);
        yield return OrOffTheRoad(s, Car.TestDrive.Is(Done.Yes));
        yield return Car.Acceptance.Is(Acceptance.NotNeeded, Acceptance.Accepted);
    }

    private static Where At(Side side) => side == Side.Left ? Where.Left : Where.Right;
}

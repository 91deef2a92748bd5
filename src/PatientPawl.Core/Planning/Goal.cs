using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Planning;

/// <summary>What a finished job has reached: data, made from the setup, and searched for by the one engine there is.</summary>
internal static class Goal
{
    public static List<BoundCondition> For(PlanSetup setup) => [.. Facts(setup).Select(f => CompiledCatalogue.Bind(f, null))];

    private static IEnumerable<Condition> Facts(PlanSetup s) => s.Goal switch
    {
        JobGoal.Finish or JobGoal.CloseUp => HandedOver(s),
        JobGoal.Yard => [.. OnItsWheels(s), .. Corner.Nuts.Both(Bolts.Tight, Bolts.Torqued), Car.Pedal.Is(Pedal.Proved), .. Corner.Hydraulics.Both(HydraulicsState.Closed), .. Mended],
        JobGoal.NightAssembled => [.. OnItsWheels(s), .. Corner.Nuts.Both(Bolts.Tight, Bolts.Torqued), Car.Pedal.Is(Pedal.Firm, Pedal.Proved), .. Corner.Hydraulics.Both(HydraulicsState.Closed), .. Quiet, ServiceTagged.When(x => x.IsElectric)],
        JobGoal.NightOnStands => OnStands(s),
        _ => throw new ArgumentOutOfRangeException(nameof(s), s.Goal, "No such goal."),
    };

    private static readonly Condition ServiceTagged = Condition.Any([Car.Brake.Is(ParkingBrake.Applied, ParkingBrake.Released, ParkingBrake.ProvedReleased)], [Car.Tag.Is(Done.Yes)])
        .Saying("a brake in service tagged at switch and tool");

    // What was found at a corner beside the job, put right.
    private static readonly Condition[] Mended =
        [.. Corner.MendedUnderThePedal.Concat(Corner.MendedToMove).SelectMany(v => v.Both(Asked.Nothing, Asked.Done)).Select(r => (Condition)r)];

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
        foreach (var c in Quiet) yield return c;
        if (!s.IsElectric) yield break;
        yield return Car.Key.Is(Key.Away);
        // A brake that somebody could close on an open corner is tagged.
        yield return Condition.Any([Car.Tag.Is(Done.Yes)], [Car.Brake.Is(ParkingBrake.Applied), .. Assembled.At(Where.Left), .. Assembled.At(Where.Right)]).Saying("switch and tool tagged, or the brake applied and both sides assembled");
    }

    private static IEnumerable<Condition> HandedOver(PlanSetup s)
    {
        yield return Car.LookedOver.Is(Done.Yes);
        foreach (var r in Corner.Identified.Both(Done.Yes)) yield return r;
        if (!s.Identified && !s.ClosesUp)
        {
            // The further looks are behind the wheels.
            foreach (var r in Corner.Wheel.Both(Wheel.Off)) yield return r;
            yield break;
        }

        // Closing up needs the way into service only where something that is not fit has to be reached.
        if (s.NeedsRoute && (!s.ClosesUp || (s.Route is null && (s.RotorFound || s.ShoesFound))))
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
        foreach (var v in new[] { Corner.Hardware, Corner.PinKit, Corner.StuckRotor, Corner.StuckWheel, Corner.Ridge })
            foreach (var r in v.Both(Asked.Nothing, Asked.Done)) yield return r;
        yield return Car.RightPart.Is(Asked.Nothing, Asked.Done);
        if (s.Rules.Bleeding == BleedRule.Always && !s.InspectOnly)
            foreach (var r in Corner.Bled.Both(Done.Yes)) yield return r;
        if (s.BedsIn) yield return Car.BedIn.Is(Done.Yes);
    }

    // Old parts back, or new ones in, alike on the axle. A part that is not fit stays out.
    private static IEnumerable<Condition> Alike(PlanSetup s)
    {
        var (oldPads, newPads) = (Corner.Pads.Both(PadState.Old), Corner.Pads.Both(PadState.New));
        var (oldRotors, newRotors) = (Corner.Rotor.Both(Rotor.Old), Corner.Rotor.Both(Rotor.New));
        Requirement[] beddedIn = s.BedsIn ? [Car.BedIn.Is(Done.Yes)] : [];
        Requirement[][] ways = [[.. oldPads, .. oldRotors], [.. newPads, .. oldRotors, .. beddedIn], [.. newPads, .. newRotors, .. beddedIn]];
        yield return Condition.Any([.. ways.Skip(s.RotorFound ? 2 : s.PadsFound ? 1 : 0)])
            .Saying(s.RotorFound ? "new rotors and pads on both sides: the old ones are not fit" : s.PadsFound ? "new pads on both sides: the old ones are not fit" : "pads and rotors alike on both sides");
        if (s.IsHat)
        {
            yield return (s.ShoesFound ? Condition.All(Corner.Shoes.Both(ShoesState.NewSet)) : Condition.Any(Corner.Shoes.Both(ShoesState.Set), Corner.Shoes.Both(ShoesState.NewSet)))
                .Saying(s.ShoesFound ? "new shoes on both sides: the old ones are not fit" : "shoes alike on both sides");
        }

        foreach (var side in Core.Sides.Both.Where(side => s.At(side).CaliperUnfit)) yield return Corner.CaliperPart.At(At(side), CaliperPart.New);
    }

    private static IEnumerable<Condition> AtCorners(PlanSetup s)
    {
        // Each corner is worth closing up by itself, even while the other waits for a part.
        foreach (var where in new[] { Where.Left, Where.Right })
            foreach (var r in Assembled.At(where)) yield return r;
        foreach (var r in Corner.Doubt.Both(Doubt.None)) yield return r;
        foreach (var r in Corner.WrongFitted.Both(Asked.Nothing, Asked.Done)) yield return r;
        foreach (var r in Corner.Piston.Both(Piston.Out, Piston.Levered, Piston.Home)) yield return r;
        foreach (var v in new[] { Corner.Sensor, Corner.RattleSpring, Corner.HoseBracket, Corner.PinCaps, Corner.HatPlug })
            foreach (var r in v.Both(Fitted.None, Fitted.On)) yield return r;
        foreach (var r in Corner.BrokenScrew.Both(Asked.Nothing, Asked.Done)) yield return r;
        foreach (var r in Mended) yield return r;
        foreach (var r in Corner.HoldingNuts.Both(Fitted.Off)) yield return r;
        foreach (var r in Corner.Hydraulics.Both(HydraulicsState.Closed)) yield return r;
        foreach (var r in Corner.BleedScrew.Both(Bolts.Tight, Bolts.Torqued)) yield return r;
        foreach (var r in Corner.Wheel.Both(Wheel.On)) yield return r;
        foreach (var r in Corner.Nuts.Both(Bolts.Tight, Bolts.Torqued)) yield return r;
        if (s.Identified)
            foreach (var r in Corner.TurnsFree.Both(Done.Yes)) yield return r;
    }

    private static IEnumerable<Condition> OnCar(PlanSetup s)
    {
        yield return Car.Cap.Is(CapState.On);
        yield return Car.Pipes.Is(Asked.Nothing, Asked.Done);
        yield return Car.Trouble.Is(Asked.Nothing, Asked.Done);
        yield return Car.Lamp.Is(Asked.Nothing, Asked.Done);
        if (!s.IsPlain) yield return Car.Brake.Is(ParkingBrake.Applied);
        yield return Car.Pedal.Is(Pedal.Proved);
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
        yield return Car.Level.Is(Done.Yes);
        yield return Car.Leaks.Is(Done.Yes);
        yield return Car.BrakeProved.Is(Done.Yes);
        yield return Car.TestDrive.Is(Done.Yes);
        yield return Car.Acceptance.Is(Acceptance.NotNeeded, Acceptance.Accepted);
        yield return Car.HandedOver.Is(Done.Yes);
    }

    private static Where At(Side side) => side == Side.Left ? Where.Left : Where.Right;
}

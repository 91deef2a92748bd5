using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Planning;

/// <summary>What a finished job has reached.</summary>
internal static class Goal
{
    public static List<BoundCondition> For(PlanSetup setup) => [.. Facts(setup).Select(f => CompiledCatalogue.Bind(f, null))];

    private static IEnumerable<Condition> Facts(PlanSetup s)
    {
        yield return Car.LookedOver.Is(Done.Yes);
        foreach (var r in Corner.Identified.Both(Done.Yes)) yield return r;
        yield return Car.Route.Is(Route.NotNeeded, Route.Chosen);
        if (!s.Identified)
        {
            // The further looks are behind the wheels.
            foreach (var r in Corner.Wheel.Both(Wheel.Off)) yield return r;
            yield break;
        }

        if (s.NeedsRoute && s.Route is null) yield break;

        foreach (var r in s.PadsNew ? Corner.Pads.Both(PadState.New) : Corner.Pads.Both(PadState.Old)) yield return r;
        if (s.PadsNew)
            foreach (var r in Corner.Piston.Both(Piston.Home)) yield return r;
        foreach (var r in Corner.Judged.Both(Done.Yes)) yield return r;
        foreach (var r in Corner.Doubt.Both(Doubt.None)) yield return r;
        if (s.HatOpen)
        {
            foreach (var r in Corner.ShoesJudged.Both(Done.Yes)) yield return r;
            foreach (var r in Corner.Shoes.Both(s.ShoesNew ? ShoesState.NewSet : ShoesState.Set)) yield return r;
        }

        // Each corner is worth closing up by itself, even while the other waits for a part.
        foreach (var r in Corner.Caliper.Both(Caliper.On)) yield return r;
        if (s.CaliperComesOff)
            foreach (var r in s.IsFixed ? Corner.BracketBolts.Both(Bolts.Torqued) : Corner.SlidePins.Both(Bolts.Torqued)) yield return r;
        foreach (var r in Corner.CaliperPart.Both(CaliperPart.Stays, CaliperPart.New)) yield return r;
        foreach (var r in Corner.Hose.Both(HoseState.On, HoseState.Torqued)) yield return r;
        foreach (var r in Corner.Spot.Both(SpotCaliper.None, SpotCaliper.On)) yield return r;
        foreach (var v in new[] { Corner.Sensor, Corner.RattleSpring, Corner.HoseBracket, Corner.PinCaps, Corner.HatPlug, Corner.CableEnd })
            foreach (var r in v.Both(Fitted.None, Fitted.On)) yield return r;
        foreach (var v in new[] { Corner.Hardware, Corner.PinKit, Corner.BrokenScrew, Corner.StuckRotor, Corner.StuckWheel, Corner.Ridge })
            foreach (var r in v.Both(Asked.Nothing, Asked.Done)) yield return r;
        foreach (var number in s.Broken) yield return Remedies.All[number - 1].Is(Asked.Done);
        yield return Car.RightPart.Is(Asked.Nothing, Asked.Done);
        yield return Car.Cap.Is(CapState.On);
        foreach (var r in Corner.Wheel.Both(Wheel.On)) yield return r;
        foreach (var r in Corner.TurnsFree.Both(Done.Yes)) yield return r;
        foreach (var r in Corner.Rotor.Both(s.Rotors ? Rotor.New : Rotor.Old)) yield return r;
        if (s.RotorOff)
            foreach (var r in Corner.HubClean.Both(Done.Yes)) yield return r;
        if (s.Screws)
            foreach (var r in Corner.RotorScrews.Both(Bolts.Torqued, Bolts.None)) yield return r;
        if (!s.IsPlain) yield return Car.Brake.Is(ParkingBrake.Applied);
        foreach (var r in Corner.Nuts.Both(Bolts.Torqued)) yield return r;
        yield return s.Rules.Bleeding == BleedRule.Always && !s.InspectOnly ? Car.Hydraulics.Is(HydraulicsState.Bled) : Car.Hydraulics.Is(HydraulicsState.Closed, HydraulicsState.Bled);
        yield return Car.Pedal.Is(Pedal.Proved);
        yield return Car.Closing.Is(Closing.NotNeeded, Closing.Cycled);
        yield return Car.Tag.Is(Done.No);
        yield return Car.AutoApply.Is(AutoApply.None, AutoApply.Active);
        yield return Car.Codes.Is(Codes.NotAsked, Codes.Cleared, Codes.LampsSeen);
        yield return Car.Battery.Is(Battery.Alone);
        yield return Car.Cable.Is(CableRun.None, CableRun.TakenUp);
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
}

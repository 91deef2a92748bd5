using PatientPawl.Core.Reasoning;

namespace PatientPawl.Core.Planning;

/// <summary>How a job can be left overnight.</summary>
public enum NightKind
{
    /// <summary>Both sides assembled, pedal proved, wheels on: it could stand outside, but is not to be driven.</summary>
    Assembled,
    /// <summary>On stands, calipers hung or on, brake in service or released, key locked away.</summary>
    OnStands,
}

/// <summary>One way to leave the job.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Steps">What is done before, in order.</param>
/// <param name="Minutes">Their minutes.</param>
/// <param name="Tags">What is tagged, and how.</param>
/// <param name="OnReturn">What is looked at again on return.</param>
/// <param name="CannotBeMet">What stands in the way, in words; empty when it can be reached.</param>
/// <param name="Reasons">Why.</param>
public sealed record NightStop(NightKind Kind, IReadOnlyList<StepKey> Steps, int Minutes, IReadOnlyList<string> Tags, IReadOnlyList<string> OnReturn, IReadOnlyList<string> CannotBeMet, Reasons Reasons) : IReasoned;

/// <summary>The safe stopping points of a job. Common practice, no source.</summary>
[Engine]
public static class Overnight
{
    /// <summary>The shortest of the safe stopping points from a state.</summary>
    public static NightStop Shortest(PlanSetup setup, CarState state)
    {
        var options = new[] { To(setup, state, NightKind.Assembled), To(setup, state, NightKind.OnStands) };
        return options.Where(o => o.CannotBeMet.Count == 0).MinBy(o => o.Minutes) ?? options[1];
    }

    /// <summary>One stopping point.</summary>
    public static NightStop To(PlanSetup setup, CarState state, NightKind kind)
    {
        ArgumentNullException.ThrowIfNull(setup);
        ArgumentNullException.ThrowIfNull(state);
        var (steps, cannot) = Planner.Toward(setup, state, [.. Goals(setup, kind).Select(c => CompiledCatalogue.Bind(c, null))]);
        var trail = new Trail("Overnight.To");
        foreach (var step in steps) trail.Evidence(StepCatalogue.Find(step.StepId)!.Name, StepCatalogue.Find(step.StepId)!.Because, "practice-night");
        var minutes = steps.Sum(s => StepCatalogue.Find(s.StepId)!.Minutes);
        var end = steps.Aggregate(state, (s, k) => Planner.Apply(setup, s, k, false));
        List<string> tags = ["Key: do not drive"];
        if (end.Get(Car.Brake) == ParkingBrake.Service || Core.Sides.Both.Any(s => end.Get(Corner.Caliper, s) != Caliper.On)) tags.Add("Brake pedal: do not press");
        if (end.Get(Car.Brake) == ParkingBrake.Service || (setup.IsElectric && kind == NightKind.OnStands)) tags.Add("Parking brake switch: do not touch");
        if (end.Get(Car.Battery) == Battery.Supported) tags.Add("Charger: leave on, or let the car sleep as the sheet says");
        List<string> back = [];
        if (end.Get(Car.Brake) == ParkingBrake.Service) back.Add("Service position: seen again; a battery that was disconnected loses it");
        if (setup.IsMotor && kind == NightKind.OnStands) back.Add("Both spindles: verified again before a piston is touched");
        if (setup.HasLever && end.Get(Car.Cable) == CableRun.Slack) back.Add("Both levers: seen on their stops again");
        back.Add("Stands, chocks and tags: as they were left");
        trail.Conclude(cannot.Count > 0 ? "This cannot be reached from here." : steps.Count == 0 ? "It can be left as it stands." : $"{Figure.Count(steps.Count, "step")}, {Figure.Count(minutes, "minute")}.", "practice-night");
        return new(kind, steps, minutes, tags, back, cannot, trail.Done());
    }

    private static IEnumerable<Condition> Goals(PlanSetup s, NightKind kind)
    {
        yield return Car.Hydraulics.Is(HydraulicsState.Closed, HydraulicsState.Bled);
        yield return Car.Ignition.Is(Ignition.Off);
        if (kind == NightKind.Assembled)
        {
            yield return Assembled.Both;
            yield return Car.Pedal.Is(Pedal.Firm, Pedal.Proved);
            foreach (var r in Corner.Wheel.Both(Wheel.On)) yield return r;
            foreach (var r in Corner.Nuts.Both(Bolts.Tight, Bolts.Torqued)) yield return r;
            yield return Car.Position.Is(CarPosition.Ground);
            yield return Condition.Any([Car.Brake.Is(ParkingBrake.Applied)], [Car.Chocks.Is(Chocks.In)]);
            yield break;
        }

        yield return Car.Position.Is(CarPosition.Stands);
        yield return Car.Chocks.Is(Chocks.In);
        foreach (var r in Corner.Caliper.Both(Caliper.On, Caliper.Hung)) yield return r;
        foreach (var r in Corner.Hose.Both(HoseState.On, HoseState.Torqued)) yield return r;
        if (s.IsElectric)
        {
            yield return Car.Key.Is(Key.Away);
            if (s.InService) yield return Condition.Any([Car.Brake.Is(ParkingBrake.Service), Car.Tag.Is(Done.Yes)], [Car.Brake.Is(ParkingBrake.Applied, ParkingBrake.Released, ParkingBrake.ProvedReleased)]);
        }
    }
}

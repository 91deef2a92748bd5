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
/// <param name="Names">The same, as they are called.</param>
/// <param name="Minutes">Their minutes.</param>
/// <param name="Tags">What is tagged, and how.</param>
/// <param name="OnReturn">What is looked at again on return.</param>
/// <param name="CannotBeMet">What stands in the way, in words; empty when it can be reached.</param>
/// <param name="Reasons">Why.</param>
public sealed record NightStop(NightKind Kind, IReadOnlyList<StepKey> Steps, IReadOnlyList<string> Names, int Minutes, IReadOnlyList<string> Tags, IReadOnlyList<string> OnReturn, IReadOnlyList<string> CannotBeMet, Reasons Reasons) : IReasoned;

/// <summary>Kinds of safe stopping points as goals.</summary>
internal static class NightKinds
{
    /// <summary>The goal that ends there.</summary>
    public static JobGoal Goal(this NightKind kind) => kind switch
    {
        NightKind.Assembled => JobGoal.NightAssembled,
        NightKind.OnStands => JobGoal.NightOnStands,
        _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, "No such stopping point."),
    };
}

/// <summary>The safe stopping points of a job. Common practice, no source.</summary>
[Engine]
public static class Overnight
{
    /// <summary>The shortest of the safe stopping points from a state.</summary>
    /// <param name="setup">The job.</param>
    /// <param name="state">Where it stands.</param>
    /// <param name="times">How long steps take; null for the usual minutes.</param>
    public static NightStop Shortest(PlanSetup setup, CarState state, StepTimes? times = null)
    {
        var options = new[] { To(setup, state, NightKind.Assembled, times), To(setup, state, NightKind.OnStands, times) };
        return options.Where(o => o.CannotBeMet.Count == 0).MinBy(o => o.Minutes) ?? options[1];
    }

    /// <summary>After a night nobody knows what a battery or a colleague did: service position, spindles and levers are looked at again.</summary>
    internal static CarState InTheMorning(PlanSetup setup, CarState left)
    {
        var car = left;
        if (car.Get(Car.Brake) == ParkingBrake.Service)
        {
            car = car.With(Car.Brake, ParkingBrake.ServiceInDoubt);
            // A box that pulled again by itself has both cables tight.
            if (setup.PullsCables && car.Get(Car.Cable) == CableRun.Slack) car = car.With(Car.Cable, CableRun.Unknown);
        }

        foreach (var side in Core.Sides.Both)
        {
            if (car.Get(Corner.Spindle, side) == Spindle.Back) car = car.With(Corner.Spindle, side, Spindle.Unknown);
            if (car.Get(Corner.Lever, side) == Lever.OnStop && left.Get(Car.Cable) == CableRun.Slack) car = car.With(Corner.Lever, side, Lever.NotSeen);
        }

        return Planner.Moved(setup, left, car);
    }

    /// <summary>One stopping point.</summary>
    public static NightStop To(PlanSetup setup, CarState state, NightKind kind, StepTimes? times = null)
    {
        ArgumentNullException.ThrowIfNull(setup);
        ArgumentNullException.ThrowIfNull(state);
        var toward = setup with { Goal = kind.Goal() };
        var plan = Planner.Make(toward, state);
        // Half a way to a safe stop is none.
        var cannot = plan.CannotBeMet;
        IReadOnlyList<StepKey> steps = cannot.Count > 0 ? [] : plan.Steps;
        var trail = new Trail("Overnight.To");
        foreach (var step in steps) trail.Evidence(StepCatalogue.Words(step), StepCatalogue.Find(step.StepId)!.Because, "practice-night");
        var minutes = (times ?? StepTimes.Usual).Minutes(steps);
        var end = steps.Aggregate(state, (s, k) => Planner.Apply(toward, s, k, null));
        List<string> tags = ["Key: do not drive"];
        if (end.Get(Car.Brake) == ParkingBrake.Service || Core.Sides.Both.Any(s => end.Get(Corner.Caliper, s) != Caliper.On)) tags.Add("Brake pedal: do not press");
        if (end.Get(Car.Tag) == Done.Yes) tags.Add("Parking brake switch: do not touch");
        if (end.Get(Car.Battery) == Battery.Supported) tags.Add("Charger: leave on, or let the car sleep as the sheet says");
        List<string> back = [];
        if (end.Get(Car.Brake) == ParkingBrake.Service) back.Add("Service position: seen again; a battery that was disconnected loses it");
        if (setup.IsMotor && kind == NightKind.OnStands) back.Add("Both spindles: verified again before a piston is touched");
        if (setup.HasLever && end.Get(Car.Cable) == CableRun.Slack) back.Add("Both levers: seen on their stops again");
        back.Add("Stands, chocks and tags: as they were left");
        trail.Conclude(cannot.Count > 0 ? "This cannot be reached from here." : steps.Count == 0 ? "It can be left as it stands." : $"{Figure.Count(steps.Count, "step")}, {Figure.Count(minutes, "minute")}.", "practice-night");
        return new(kind, steps, [.. steps.Select(StepCatalogue.Words)], minutes, tags, back, cannot, trail.Done());
    }
}

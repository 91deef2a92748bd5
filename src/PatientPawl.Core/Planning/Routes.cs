using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;

namespace PatientPawl.Core.Planning;

/// <summary>A route into the service position, weighed.</summary>
/// <param name="Route">The route.</param>
/// <param name="Offered">True when this vehicle has it.</param>
/// <param name="Says">What it is, short.</param>
/// <param name="Because">Why it stands where it does, or why it is not offered.</param>
/// <param name="Minutes">Minutes for the whole job by this route; null when it is not offered.</param>
public sealed record RankedRoute(ServiceRoute Route, bool Offered, string Says, string Because, int? Minutes);

/// <summary>The routes of a vehicle, best first.</summary>
/// <param name="Routes">The routes; those not offered come last.</param>
/// <param name="Never">What is never offered, and why.</param>
/// <param name="Reasons">The reasoning.</param>
public sealed record RouteRanking(IReadOnlyList<RankedRoute> Routes, string Never, Reasons Reasons) : IReasoned;

/// <summary>Ranks the routes into the service position. The technician picks. Common practice, no source.</summary>
[Engine]
public static class ServiceRoutes
{
    /// <summary>Why a battery is never fed straight to a motor.</summary>
    public const string Never = "Battery straight to the motor: not offered. The polarity is a guess, and nothing stops the spindle at the end of its travel.";

    /// <summary>A route's name.</summary>
    internal static string Name(ServiceRoute route) => route switch
    {
        ServiceRoute.ScanTool => "Scan tool",
        ServiceRoute.InCar => "The car's own sequence",
        ServiceRoute.PullerRelease => "Release the puller by hand",
        ServiceRoute.SpindleByHand => "Spindles by hand",
        _ => throw new ArgumentOutOfRangeException(nameof(route), route, "No such route."),
    };

    /// <summary>The routes, best first.</summary>
    /// <param name="setup">The job.</param>
    /// <param name="sheet">The sheet; null where there is none.</param>
    /// <param name="times">How long steps take; null for the usual minutes.</param>
    public static RouteRanking Rank(PlanSetup setup, SpecSheet? sheet, StepTimes? times = null)
    {
        ArgumentNullException.ThrowIfNull(setup);
        var trail = new Trail("ServiceRoutes.Rank");
        List<RankedRoute> ranked = [];
        foreach (var route in setup.Routes)
        {
            var (because, no) = route switch
            {
                ServiceRoute.ScanTool => ("The tool drives both sides, says what it did, and reads and clears the codes. Battery held up.", (string?)null),
                ServiceRoute.InCar => ("No tool needed; the display confirms. Codes stay unread.", sheet?.Electric?.InCar is { Count: > 0 } ? null : "The sheet gives no sequence for this car."),
                ServiceRoute.PullerRelease => ("No tool needed; both levers are seen to come back. Codes stay unread.", sheet?.Electric?.NoManualRelease == true ? "The sheet says that this box has no manual release." : null),
                _ => ("Neither tool nor sequence: actuators off, spindles turned back with light effort. The slowest, with the most to put back.", null),
            };
            int? minutes = no is not null ? null : setup.Identified && Planner.Make(setup with { Route = route }, (setup with { Route = route }).Start()) is { CannotBeMet.Count: 0 } plan ? (times ?? StepTimes.Usual).Minutes(plan.Steps) : null;
            var says = Name(route);
            ranked.Add(new(route, no is null, says, no ?? because, minutes));
            trail.Evidence(says, no ?? because, "practice-routes");
        }

        trail.Evidence("Never", Never, "practice-routes").Conclude(ranked.FirstOrDefault(r => r.Offered) is { } best ? $"{best.Says}, where it is at hand." : "None is needed.");
        return new([.. ranked.OrderByDescending(r => r.Offered)], Never, trail.Done());
    }
}

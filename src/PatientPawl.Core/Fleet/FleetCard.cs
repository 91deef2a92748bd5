using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Fleet;

/// <summary>A job with what the workshop calls it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Number">Its number.</param>
/// <param name="State">Its state.</param>
public sealed record VehicleJob(Guid Id, int Number, JobState State);

/// <summary>Wheel nuts that are to be checked again.</summary>
/// <param name="JobId">The job that had the wheels off.</param>
/// <param name="FromKm">From here.</param>
/// <param name="ToKm">Up to here.</param>
public sealed record WheelNutsDue(Guid JobId, int FromKm, int ToKm)
{
    /// <summary>
    /// What a job leaves due; null until it is handed over, and where neither the house rule asks for it nor twin wheels do, whatever the rule.
    /// </summary>
    /// <param name="jobId">The job.</param>
    /// <param name="job">Its state.</param>
    public static WheelNutsDue? Of(Guid jobId, JobState job)
    {
        ArgumentNullException.ThrowIfNull(job);
        if (!job.HandedOver || (job.Setup.Rules.Retorque != RetorqueRule.Recheck && !HasTwins(job))) return null;
        var km = job.Opened!.OdometerKm;
        return new(jobId, km + HouseWords.NutsFromKm, km + HouseWords.NutsToKm);
    }

    private static bool HasTwins(JobState job) => job.Standing.Select(e => e.Event).OfType<LookOverDone>()
        .Any(d => d.Answers.Any(a => a is { Id: LookOverQuestions.TwinWheels, Answer: LookOverAnswer.Yes }));
}

/// <summary>Its brake fluid, when it was last tested.</summary>
/// <param name="On">The day.</param>
/// <param name="WaterPercent">Water by test pen, 0 to 10 %.</param>
/// <param name="Water">What that says.</param>
public sealed record FluidTested(DateOnly On, double WaterPercent, WaterVerdict Water);

/// <summary>What a workshop's lists must know of a vehicle, kept beside its jobs: what comes due is reckoned from it for the day that asks.</summary>
/// <param name="Vehicle">The vehicle, as its last job knew it.</param>
/// <param name="Visits">Its visits, oldest first.</param>
/// <param name="Wear">Linings since its last new pads, oldest first.</param>
/// <param name="MinimumLining">Their least.</param>
/// <param name="Nuts">Wheel nuts to check again; null where none are.</param>
public sealed record FleetCard(Vehicle Vehicle, IReadOnlyList<OdometerVisit> Visits, IReadOnlyList<WearPoint> Wear, Length MinimumLining,
    WheelNutsDue? Nuts)
{
    /// <summary>Its fluid, as it was last tested; null where it never was.</summary>
    public FluidTested? Fluid { get; init; }

    /// <summary>The job after which the wear lamp waits for a tool to reset it; null where none does.</summary>
    public Guid? LampWaits { get; init; }

    /// <summary>Fasteners that go in new with its next pads, in words, with their numbers where the sheet has them.</summary>
    public IReadOnlyList<string> SingleUse { get; init; } = [];

    /// <summary>The card of a vehicle; null where it had none but practice jobs.</summary>
    /// <param name="jobs">Its jobs, in any order.</param>
    public static FleetCard? Of(IReadOnlyList<VehicleJob> jobs)
    {
        var real = Told(jobs);
        if (real is not [.., { State: { Opened: { } opened } last } latest]) return null;
        return new(opened.Vehicle, [.. real.Select(j => Visit(j.State))], VehicleHistory.PadWear(real.Select(j => j.State)),
            opened.Sheet.Pads.MinimumLining ?? PadWear.DefaultMinimum, WheelNutsDue.Of(latest.Id, last))
        {
            Fluid = real.Select(j => Tested(j.State)).LastOrDefault(f => f is not null),
            LampWaits = JobRecord.LampWaits(last) ? latest.Id : null,
            SingleUse = [.. opened.Sheet.Torques.Where(l => l.RenewedEveryTime && l.Role is FastenerRole.SlidePin or FastenerRole.Bracket)
                .Select(LayingOut.BothSides)],
        };
    }

    private static FluidTested? Tested(JobState job) =>
        JobRules.FluidIn(job) is { Water: { } water } ? new(Visit(job).On, job.Fluid.WaterPercent!.Value, water) : null;

    /// <summary>The jobs that tell something of a vehicle, in their order: practice and tests do not.</summary>
    internal static VehicleJob[] Told(IReadOnlyList<VehicleJob> jobs)
    {
        ArgumentNullException.ThrowIfNull(jobs);
        return [.. jobs.Where(j => j.State.Opened?.Purpose.Tells() == true).OrderBy(j => j.Number)];
    }

    internal static OdometerVisit Visit(JobState job) =>
        new(DateOnly.FromDateTime(job.Log[0].RecordedAt.UtcDateTime), job.Opened!.OdometerKm);
}

using System.Collections.Immutable;
using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Proving;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Jobs;

/// <summary>Everything a job's events have left behind: what its state is read from.</summary>
internal sealed record JobFile(
    JobOpened? Opened, ImmutableList<RecordedEvent> Log, ImmutableHashSet<Guid> Voided, PlanSetup Setup, CarState Car, CornerFile Left, CornerFile Right,
    double? LevelPercent, double? BatteryVolts, ImmutableDictionary<string, HoldMet> HoldsMet, int Steps, PadFacts? PadFacts, ImmutableList<SidedFinding> Findings, ImmutableList<PlanChange> Changes, LeftOvernight? Night, ImmutableDictionary<StepKey, ImmutableList<TorqueSigned>> Signed, FluidFacts Fluid)
{
    /// <summary>Events of steps that were done although one before them was not: they keep what they did to the metal and prove nothing.</summary>
    public ImmutableHashSet<Guid> Kept { get; init; } = [];

    public LeakInput? Leaks { get; init; }

    public BedInDriven? BedIn { get; init; }

    public ParkingHoldTried? Hold { get; init; }

    /// <summary>Parts that are waited for, with the event that says so.</summary>
    public (PartsAwaited What, RecordedEvent At)? Awaits { get; init; }

    /// <summary>What was asked over a link and has not ended.</summary>
    public RecordedEvent? Running { get; init; }

    /// <summary>What the job goes on to after a night.</summary>
    public JobGoal Wanted { get; init; }

    public static readonly JobFile Empty = new(null, [], [], PlanSetup.For(null, JobScope.Pads), PlanSetup.For(null, JobScope.Pads).Start(),
        CornerFile.Empty, CornerFile.Empty, null, null, ImmutableDictionary<string, HoldMet>.Empty, 0, null, [], [], null, ImmutableDictionary<StepKey, ImmutableList<TorqueSigned>>.Empty, FluidFacts.None);

    public CornerFile Corner(Side side) => side == Side.Left ? Left : Right;
    public JobFile WithCorner(Side side, Func<CornerFile, CornerFile> change) => side == Side.Left ? this with { Left = change(Left) } : this with { Right = change(Right) };

    /// <summary>A volume as per cent of the reservoir's band.</summary>
    public double PercentOf(Volume volume) => Reservoir is { } r ? volume.Milliliters / r.Band.Milliliters * 100 : 0;

    /// <summary>The reservoir: by its sides where somebody measured them, or else by the sheet; null before the job is opened.</summary>
    public ReservoirSpec? Reservoir => Opened is not { } o ? null : Fluid.Sides is { } sides ? FluidBench.Measure(sides).Spec : o.Sheet.Reservoir;
}

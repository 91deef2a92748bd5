using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Vehicles;

namespace PatientPawl.Core.Jobs;

/// <summary>What the new pads of a job carry, and how they go in at a corner.</summary>
public static class JobPads
{
    /// <summary>What is known of the pads: what somebody looked at, or else what the sheet says of the set.</summary>
    public static PadFacts Facts(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        var opened = state.Opened!;
        return state.PadFacts ?? PadFacts.None with { Parts = opened.Sheet.PadSet is { } set ? FromSheet(set) : PadFacts.None.Parts, OdometerKm = opened.OdometerKm };
    }

    /// <summary>True once somebody has kept what stands beside the caliper's place: the looks of the pad bench, or a slot that was lined up.</summary>
    internal static bool PlaceSaid(JobState state, Side side) => state.PadFacts is not null || state.Corner(side).Retraction.SlotAt is not null;

    /// <summary>What the pads of one corner carry: a sensor only where this corner has it.</summary>
    internal static PadParts PartsAt(JobState state, Side side)
    {
        var parts = Facts(state).Parts;
        var sensor = state.Setup.Has(Fitting.WearSensor) && state.Car.Get(Corner.Sensor, side) != Fitted.None;
        var worn = FindingRules.Told(state, side, FindingKind.SensorWorn) || FindingRules.Told(state, side, FindingKind.SensorLead);
        return parts with
        {
            Caliper = state.Corner(side).Retraction.Place == CaliperPlace.AheadOfAxle ? CaliperPlace.AheadOfAxle : parts.Caliper,
            ElectricSensor = sensor || (!state.Setup.Has(Fitting.WearSensor) && parts.ElectricSensor),
            SensorWornThrough = worn ? Known.Yes : parts.SensorWornThrough,
        };
    }

    private static PadParts FromSheet(PadSetSpec set) => PadFacts.None.Parts with
    {
        Indicator = set.Indicator is not null,
        IndicatorTrails = set.Indicator == PadEnd.Trailing,
        PistonSpring = set.SpringClip == Known.Yes,
        PistonPin = set.Pin == Known.Yes,
        Notch = set.Notch == Known.Yes,
        ElectricSensor = set.SensorAt is not null,
    };
}

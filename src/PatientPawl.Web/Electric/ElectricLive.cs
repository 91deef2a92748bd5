using PatientPawl.Core.Electric;
using PatientPawl.Core.Electric.Link;
using PatientPawl.Core.Jobs;
using UnitsNet;

namespace PatientPawl.Web.Electric;

/// <summary>What the electric bench shows while it stands there.</summary>
/// <param name="Linked">True while the car answers.</param>
/// <param name="Says">How the link and the brake stand, in words.</param>
/// <param name="Warns">What of it does not fit this job, or must not be relied on; null where nothing does.</param>
/// <param name="State">The brake; null where nobody knows.</param>
/// <param name="Running">What runs; null where nothing does.</param>
/// <param name="StopAsked">True from the asking to the end.</param>
/// <param name="MayRun">True while a motor may be running and nobody knows: hands out.</param>
/// <param name="Elapsed">Since the motion that runs began.</param>
/// <param name="Voltage">At the battery.</param>
/// <param name="LeftAt">Left spindle, from its back stop.</param>
/// <param name="RightAt">Right spindle; null where one motor pulls both.</param>
/// <param name="LeftCurrent">Left current.</param>
/// <param name="RightCurrent">Right current.</param>
public sealed record ElectricLive(
    bool Linked,
    string Says,
    string? Warns,
    UnitState? State,
    ElectricAct? Running,
    bool StopAsked,
    bool MayRun,
    Duration? Elapsed,
    ElectricPotential? Voltage,
    Length? LeftAt,
    Length? RightAt,
    ElectricCurrent? LeftCurrent,
    ElectricCurrent? RightCurrent)
{
    /// <summary>No car answers, and why.</summary>
    public static ElectricLive Without(string says) => new(false, says, null, null, null, false, false, null, null, null, null, null, null);

    /// <summary>What the car says, in a job.</summary>
    public static ElectricLive Of(JobState state, LiveState car)
    {
        ArgumentNullException.ThrowIfNull(car);
        var one = car.Motors == 1;
        return Without(Words.Of(car.State)) with
        {
            Linked = true,
            Warns = JobElectric.Contradicts(state, car),
            State = car.State,
            Voltage = ElectricPotential.FromVolts(car.MilliVolts / 1000.0),
            LeftAt = Length.FromMillimeters(car.LeftHundredthsMm / 100.0),
            RightAt = one ? null : Length.FromMillimeters(car.RightHundredthsMm / 100.0),
            LeftCurrent = ElectricCurrent.FromAmperes(car.LeftCentiAmps / 100.0),
            RightCurrent = one ? null : ElectricCurrent.FromAmperes(car.RightCentiAmps / 100.0),
        };
    }
}

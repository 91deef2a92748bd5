namespace PatientPawl.Core.Hydraulics;

/// <summary>What is known of a car's fluid beside its level.</summary>
/// <param name="Cap">What the reservoir's cap says; null takes the sheet's.</param>
/// <param name="Sides">The reservoir measured from outside; null takes the sheet's volumes.</param>
/// <param name="Bottle">What is about to go in.</param>
/// <param name="WaterPercent">Water by test pen, 0 to 10 %.</param>
/// <param name="HottestCelsius">The hottest the fluid gets, 20 to 300 degrees C.</param>
/// <param name="Method">How it is bled.</param>
public sealed record FluidFacts(FluidGrade? Cap, ReservoirSides? Sides, FluidGrade? Bottle, double? WaterPercent, double? HottestCelsius, BleedMethod Method)
{
    /// <summary>Nothing known.</summary>
    public static FluidFacts None { get; } = new(null, null, null, null, null, BleedMethod.TwoPerson);
}

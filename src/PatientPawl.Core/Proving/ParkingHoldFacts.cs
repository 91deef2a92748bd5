using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Proving;

/// <summary>By which rule a vehicle type's parking brake was approved.</summary>
public enum ApprovedAs
{
    /// <summary>A car: 20 % grade.</summary>
    Car,
    /// <summary>A minibus or van approved as a commercial vehicle: 18 % grade.</summary>
    VanOrMinibus,
}

/// <summary>What proved the parking brake, and what the drive showed of drag.</summary>
/// <param name="Approved">By which rule.</param>
/// <param name="MaximumMass">Maximum authorised mass, 300 to 12 000 kg.</param>
/// <param name="HillPercent">The grade that it stood on, 1 to 40 %; null when no hill was tried.</param>
/// <param name="MassOnHill">As it stood there, 300 to 12 000 kg; null means the maximum.</param>
/// <param name="HeldUp">True when it held with its nose uphill; null when not tried.</param>
/// <param name="HeldDown">True when it held with its nose downhill; null when not tried.</param>
/// <param name="Left">Parking-brake force of the left wheel on a roller bench, 0 to 50 000 N; null without one.</param>
/// <param name="Right">Of the right wheel.</param>
/// <param name="SidesPercent">How far left and right may differ by the local rule, 5 to 60 %; null takes the default 30, flagged.</param>
/// <param name="LeftCelsius">Left rotor after the drive, -30 to 700 degrees C; null when not read.</param>
/// <param name="RightCelsius">Right rotor.</param>
/// <param name="AirCelsius">Air, -30 to 50 degrees C; asked for with the rotors.</param>
public sealed record ParkingHoldFacts(
    ApprovedAs Approved, Mass MaximumMass, double? HillPercent, Mass? MassOnHill, bool? HeldUp, bool? HeldDown, Force? Left, Force? Right,
        double? SidesPercent, double? LeftCelsius, double? RightCelsius,
    double? AirCelsius);

/// <summary>One thing that was proved, or was not.</summary>
/// <param name="What">What it is called.</param>
/// <param name="Verdict">The verdict.</param>
/// <param name="Says">In a sentence.</param>
/// <param name="Check">What a failure asks to look at; null when it passes.</param>
public sealed record HoldProof(string What, Verdict Verdict, string Says, string? Check);

/// <summary>What the figures prove.</summary>
/// <param name="AskedGradePercent">The grade that the type's rule asks for.</param>
/// <param name="Asked">The force along that grade, at the maximum mass.</param>
/// <param name="OnHill">The force along the hill that was tried; null when none was.</param>
/// <param name="RatioPercent">Both wheels' force by the weight of the maximum mass; null without a roller bench.</param>
/// <param name="ApartPercent">How far the weaker wheel is under the stronger; null without a roller bench.</param>
/// <param name="Proofs">Each thing that was tried.</param>
/// <param name="Verdict">The worst of them; not yet enough where nothing was tried.</param>
/// <param name="Says">The answer in a sentence.</param>
/// <param name="Reasons">Why.</param>
public sealed record ParkingHoldAnswer(
    double AskedGradePercent, Force Asked, Force? OnHill, double? RatioPercent, double? ApartPercent, IReadOnlyList<HoldProof> Proofs,
        Verdict Verdict, string Says, Reasons Reasons) : IReasoned;

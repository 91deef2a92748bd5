using UnitsNet;

namespace PatientPawl.Core.Proving;

/// <summary>A bed-in series: so many stops from one speed to another, each after a stretch of cooling.</summary>
/// <param name="Stops">How many, 1 to 30.</param>
/// <param name="From">Where a stop begins, 10 to 130 km/h.</param>
/// <param name="To">Where it ends, 0 to 120 km/h and under <paramref name="From"/>: never a standstill on the pedal.</param>
/// <param name="Gap">From one stop to the next, 5 to 600 s.</param>
public sealed record BedInSeries(int Stops, Speed From, Speed To, Duration Gap)
{
    /// <summary>What is driven where the pad maker's sheet says nothing: common practice, no source.</summary>
    public static BedInSeries Usual { get; } = new(5, Speed.FromKilometersPerHour(50), Speed.FromKilometersPerHour(10),
        Duration.FromSeconds(45));

    /// <summary>In a sentence, for the step and the record.</summary>
    public string Says =>
        $"{Figure.Count(Stops, "firm stop")} from {Figure.Of(From.KilometersPerHour)} to {Figure.Of(To.KilometersPerHour)} km/h, never to a standstill, {Figure.Of(Gap.Seconds)} s apart";
}

/// <summary>What a bed-in is reckoned from.</summary>
/// <param name="Series">The series; the pad maker's where there is one.</param>
/// <param name="FromMaker">True when the series is the pad maker's.</param>
/// <param name="Vehicle">Mass as driven, 300 to 12 000 kg.</param>
/// <param name="Rotor">Mass of one rear rotor, 1 to 40 kg.</param>
/// <param name="AmbientCelsius">Air, -30 to 50 degrees C.</param>
/// <param name="RearPercent">Share of the braking that the rear axle does, 5 to 80 %; null takes the default 30, flagged.</param>
/// <param name="CoolingTime">Time constant of the cooling at that speed, 30 to 3 600 s; null takes the default 300, flagged.</param>
/// <param name="LocalLimit">The road's limit, 10 to 130 km/h; null when not given.</param>
/// <param name="Regenerates">True where the car brakes with its motor first.</param>
/// <param name="HatShoes">True where parking shoes run in the hat.</param>
public sealed record BedInFacts(
    BedInSeries Series, bool FromMaker, Mass Vehicle, Mass Rotor, double AmbientCelsius, double? RearPercent, Duration? CoolingTime,
        Speed? LocalLimit, bool Regenerates, bool HatShoes);

/// <summary>How hot a rear rotor is about a stop.</summary>
/// <param name="Stop">Which stop, from 1.</param>
/// <param name="At">Since the first began.</param>
/// <param name="BeforeCelsius">As it begins.</param>
/// <param name="AfterCelsius">As it ends.</param>
public sealed record StopHeat(int Stop, Duration At, double BeforeCelsius, double AfterCelsius);

/// <summary>Where a series ends beside the usual band of <see cref="BedIn"/>.</summary>
public enum BedInBand
{
    /// <summary>Under it, however many stops are driven.</summary>
    OutOfReach,
    /// <summary>Under it with these stops; more of them would reach it.</summary>
    NotReached,
    /// <summary>In it.</summary>
    Reached,
    /// <summary>Over it: too hot.</summary>
    TooHot,
}

/// <summary>A bed-in, reckoned.</summary>
/// <param name="RiseKelvin">What one stop adds.</param>
/// <param name="CeilingCelsius">Where endless stops would end.</param>
/// <param name="Stops">Each stop.</param>
/// <param name="Band">Beside the usual band.</param>
/// <param name="LowCelsius">Where the usual band begins.</param>
/// <param name="HighCelsius">Where it ends.</param>
/// <param name="Total">All of it, the cool-down drive included.</param>
/// <param name="DistanceMetres">Road that it takes, the cool-down drive included.</param>
/// <param name="Says">The answer in a sentence.</param>
/// <param name="Cautions">What holds while it is driven.</param>
/// <param name="Reasons">Why.</param>
public sealed record BedInAnswer(
    double RiseKelvin, double CeilingCelsius, IReadOnlyList<StopHeat> Stops, BedInBand Band, double LowCelsius, double HighCelsius,
        Duration Total, int DistanceMetres,
        string Says, IReadOnlyList<string> Cautions, Reasoning.Reasons Reasons)
    : Reasoning.IReasoned;

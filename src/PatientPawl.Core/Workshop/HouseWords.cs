namespace PatientPawl.Core.Workshop;

/// <summary>Figures of the house rules that are said in several places: common practice, no source.</summary>
public static class HouseWords
{
    /// <summary>Wheel nuts are checked again from so many km after their wheels were off.</summary>
    public const int NutsFromKm = 50;

    /// <summary>Up to so many km.</summary>
    public const int NutsToKm = 80;

    /// <summary>How new pads are driven where no series is asked for; the beginning of a sentence.</summary>
    public const string Gentle = "Gentle for the first 150 to 300 km, no heavy stops";

    /// <summary>The window of the wheel nuts in words.</summary>
    public static string NutsAgain => $"{NutsFromKm} to {NutsToKm} km";
}

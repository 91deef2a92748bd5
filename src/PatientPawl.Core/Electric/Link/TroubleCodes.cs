namespace PatientPawl.Core.Electric.Link;

/// <summary>A trouble code of the stand-in car. Letters and digits as SAE J2012 writes them (from memory); numbers and words are ours.</summary>
/// <param name="Number">The two bytes behind the letters.</param>
/// <param name="Text">What it says.</param>
/// <param name="Cause">What stores it.</param>
/// <param name="Remedy">What ends it.</param>
public sealed record TroubleCode(int Number, string Text, string Cause, string Remedy)
{
    /// <summary>As it is read out.</summary>
    public string Letters => CarLink.Letters(Number);
}

/// <summary>Every code of the stand-in car.</summary>
public static class TroubleCodes
{
    private static TroubleCode Of(string letters, string text, string cause, string remedy) =>
        new(("PCBU".IndexOf(letters[0], StringComparison.Ordinal) << 14) | Convert.ToInt32(letters[1..], 16), text, cause, remedy);

    /// <summary>Circuit open, left and right.</summary>
    public static IReadOnlyList<TroubleCode> Open { get; } =
    [
        Of("C1A01", "rear brake actuator left, circuit open", "No current flows when the left motor is fed.", "Plug home, fuse whole, then clear and cycle."),
        Of("C1A02", "rear brake actuator right, circuit open", "No current flows when the right motor is fed.", "Plug home, fuse whole, then clear and cycle."),
    ];

    /// <summary>Seized, left and right.</summary>
    public static IReadOnlyList<TroubleCode> Seized { get; } =
    [
        Of("C1A11", "rear brake actuator left, seized", "The left motor drew its cut-off current and did not move.", "Free or renew the actuator or its spindle."),
        Of("C1A12", "rear brake actuator right, seized", "The right motor drew its cut-off current and did not move.", "Free or renew the actuator or its spindle."),
    ];

    /// <summary>Travel limit without clamping, left and right.</summary>
    public static IReadOnlyList<TroubleCode> NoClamp { get; } =
    [
        Of("C1A21", "rear brake left, travel limit without clamp", "The left spindle ran out of travel with nothing between.", "Pads in, caliper on, then into service and closed again."),
        Of("C1A22", "rear brake right, travel limit without clamp", "The right spindle ran out of travel with nothing between.", "Pads in, caliper on, then into service and closed again."),
    ];

    /// <summary>End position not found in service.</summary>
    public static TroubleCode NoEnd { get; } = Of("C1A31", "rear brake service, end position not found", "A side did not reach its back stop.", "That side by hand, the other held in service; then its cause.");

    /// <summary>Voltage low during actuation.</summary>
    public static TroubleCode LowVolts { get; } = Of("C1A41", "rear brake, voltage low during actuation", "Under 9.0 V for 0.2 s while a motor ran, or a motor that stood still short of its cut-off current.", "Charge the battery, clean its posts and earth.");

    /// <summary>Left and right differ.</summary>
    public static TroubleCode Differ { get; } = Of("C1A51", "rear brake, left and right differ", "One side took over 0.4 s longer than the other.", "Compare the currents: harness, gears, guides.");

    /// <summary>Assembly check not done.</summary>
    public static TroubleCode CheckDue { get; } = Of("C1A61", "rear brake, assembly check not done", "An actuator or caliper is new to the unit.", "Run the assembly check.");

    /// <summary>Lost communication.</summary>
    public static TroubleCode Lost { get; } = Of("U1A01", "lost communication with the brake switch", "The switch was not heard.", "Look at its plug; then clear and cycle.");

    /// <summary>The code with these letters; null where it is not one of these.</summary>
    public static TroubleCode? Find(string letters) => All.FirstOrDefault(c => c.Letters == letters);

    /// <summary>All of them.</summary>
    public static IReadOnlyList<TroubleCode> All { get; } = [.. Open, .. Seized, .. NoClamp, NoEnd, LowVolts, Differ, CheckDue, Lost];
}

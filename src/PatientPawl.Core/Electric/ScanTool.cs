using UnitsNet;

namespace PatientPawl.Core.Electric;

/// <summary>What a scan tool can be asked.</summary>
public enum ToolFunction
{
    /// <summary>Read stored codes.</summary>
    ReadCodes,
    /// <summary>Clear stored codes.</summary>
    ClearCodes,
    /// <summary>Put the rear brake into its service position.</summary>
    EnterService,
    /// <summary>Close the rear brake again.</summary>
    CloseService,
}

/// <summary>What a scan tool answered.</summary>
/// <param name="Function">What it was asked.</param>
/// <param name="Succeeded">True when it did it.</param>
/// <param name="Words">What it says, with the reason when it refused.</param>
/// <param name="Codes">Stored codes as they stand.</param>
/// <param name="Battery">Battery voltage it sees.</param>
public sealed record ToolAnswer(ToolFunction Function, bool Succeeded, string Words, IReadOnlyList<string> Codes, ElectricPotential Battery);

/// <summary>A scan tool on the car. A real one and the stand-in answer alike.</summary>
public interface IScanTool
{
    /// <summary>Asks it for a function.</summary>
    ToolAnswer Ask(ToolFunction function);
}

using PatientPawl.Core.Pads;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Retraction;

/// <summary>How hard a piston goes, by feel.</summary>
public enum FeltEffort
{
    /// <summary>By two fingers at the tool.</summary>
    Easy,
    /// <summary>By the whole hand.</summary>
    Firm,
    /// <summary>By the arm: no more than that.</summary>
    Hard,
}

/// <summary>What is known of a corner's retraction beside its log.</summary>
/// <param name="SlotAt">Where a slot stood, clockwise facing the piston, -360 to 720 degrees; null when it was not looked at.</param>
/// <param name="SlotAtTurns">The count at which it stood there, 0 to 200; null is the start.</param>
/// <param name="Wanted">Where a slot must end; null is the middle of the caliper's window.</param>
/// <param name="Place">Where the caliper sits.</param>
/// <param name="Boot">How the boot was found; null when it was not looked at.</param>
/// <param name="PressedHarder">More axial pressure has been tried.</param>
/// <param name="OtherWayTried">The other direction has been tried where the sheet allows it.</param>
/// <param name="RoomForFluid">Whether the fluid can leave.</param>
public sealed record RetractionFacts(Angle? SlotAt, double? SlotAtTurns, Angle? Wanted, CaliperPlace Place, BootState? Boot, bool PressedHarder, bool OtherWayTried, Known RoomForFluid)
{
    /// <summary>How hard it goes, by feel where no wrench tells; null when nobody said.</summary>
    public FeltEffort? Felt { get; init; }

    /// <summary>Nothing known.</summary>
    public static RetractionFacts None { get; } = new(null, null, null, CaliperPlace.BehindAxle, null, false, false, Known.NotKnown);

    /// <summary>Refuses what cannot be.</summary>
    /// <exception cref="InputException">Naming each figure outside its range.</exception>
    internal void Check() => new Checks().Range("slotAtDeg", SlotAt?.Degrees, -360, 720, "degrees").Range("slotAtTurns", SlotAtTurns, 0, 200, "turns").Range("wantedDeg", Wanted?.Degrees, -360, 720, "degrees").ThrowIfAny();
}

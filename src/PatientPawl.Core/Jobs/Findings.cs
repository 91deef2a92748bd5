using PatientPawl.Core.Measuring;

namespace PatientPawl.Core.Jobs;

/// <summary>A part that stays only when it passes.</summary>
public enum Part
{
    /// <summary>The rotor.</summary>
    Rotor,
    /// <summary>The drum in its hat.</summary>
    Drum,
    /// <summary>The parking shoes.</summary>
    Shoes,
    /// <summary>The pads.</summary>
    Pads,
    /// <summary>The hub's face, or the rotor's place on it.</summary>
    HubFace,
}

/// <summary>A part that was to stay, as it is judged now.</summary>
/// <param name="Part">The part.</param>
/// <param name="Verdict">Its verdict.</param>
/// <param name="Says">In words.</param>
/// <param name="SettledBy">What would settle it, when it is too close to call.</param>
public sealed record PartVerdict(Part Part, Verdict Verdict, string Says, IReadOnlyList<SettledBy> SettledBy);

/// <summary>Something found that changes the job.</summary>
/// <param name="Part">The part.</param>
/// <param name="Verdict">Outside: it is renewed on both sides. Too close to call: it waits to be settled.</param>
/// <param name="Says">In words.</param>
public sealed record Finding(Part Part, Verdict Verdict, string Says);

/// <summary>A finding with its corner.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Finding">The finding.</param>
public sealed record SidedFinding(Side Side, Finding Finding);

using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Jobs;

/// <summary>How the pads of one corner go in, for its step to draw.</summary>
/// <param name="Parts">What they carry.</param>
/// <param name="Placement">What goes where.</param>
/// <param name="Assumes">What nobody has said and it is taken for, and where it is said; null once it was said.</param>
public sealed record PadsThere(PadParts Parts, PlacementVerdict Placement, string? Assumes);

/// <summary>Pads into their places, new ones or the old ones again.</summary>
internal sealed class PadsGoIn : StepBehaviour
{
    public override PadsThere? Pads(JobState state, Side side)
    {
        var parts = JobPads.PartsAt(state, side);
        return new(parts, PadPlacement.Card(parts), JobPads.PlaceSaid(state, side) ? null
            : "Taken as behind the axle: nobody has said. Ahead of it all this is upside down; say so at the pad bench.");
    }
}

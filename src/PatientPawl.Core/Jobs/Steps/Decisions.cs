namespace PatientPawl.Core.Jobs;

/// <summary>Unverified torques accepted by the lead, with the reason.</summary>
internal sealed class TorquesAccepted : StepBehaviour
{
    public override NoteWanted NoteWanted { get; } = new("a reason", "Say why it is accepted: the reason stands in the record.");
}

/// <summary>What is done about a broken rotor screw, with who decided.</summary>
internal sealed class ScrewDecided : StepBehaviour
{
    public override bool CanBeMarked => false;

    public override NoteWanted NoteWanted { get; } = new("who decided and why", "Say who decided and why: it stands in the record.");
}

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

/// <summary>What was found is put right: the step says how for each of them.</summary>
internal sealed class PutRight : StepBehaviour
{
    public override NoteWanted NoteWanted { get; } = new("what it was and what was done", "Say what it was and what was done: it stands in the record.");

    public override string? How(JobState state, Side? side)
    {
        var open = FindingCatalogue.Open(state, side).Where(c => c.How is not null).ToArray();
        return open.Length == 0 ? null : string.Join(" ", open.Select(c => $"{c.Name}: {char.ToLowerInvariant(c.How![0])}{c.How[1..]}"));
    }
}

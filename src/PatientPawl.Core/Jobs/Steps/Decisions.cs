namespace PatientPawl.Core.Jobs;

/// <summary>Unverified torques accepted by the lead, with the reason.</summary>
internal sealed class TorquesAccepted : StepBehaviour
{
    public override NoteWanted NoteWanted { get; } = new("a reason", "Say why it is accepted: the reason stands in the record.");

    public override string Decides => "accepted as they are";
}

/// <summary>A defect that stays as it is: the lead says why, and the driver reads it.</summary>
internal sealed class LeftByTheLead : StepBehaviour
{
    public override bool CanBeMarked => false;

    public override NoteWanted NoteWanted { get; } = new("why it is left, and who was told", "Say why it is left as it is, and who was told: both stand in the record.");

    public override string Decides => "left as it is";
}

/// <summary>A car that is not to be driven: the lead tagged it and told its driver.</summary>
internal sealed class TaggedOffRoad : StepBehaviour
{
    public override bool CanBeMarked => false;

    public override NoteWanted NoteWanted { get; } = new("who was told", "Say who was told that it is not to be driven: it stands in the record.");

    public override string Decides => "the driver was told";
}

/// <summary>The keys go back, with what the driver has to know.</summary>
internal sealed class KeysGoBack : StepBehaviour
{
    public override string? How(JobState state, Side? side) => $"Keys and record. {string.Join(" ", JobRecord.ToldToTheDriver(state))}";
}

/// <summary>What is done about a broken rotor screw: it is left out by the lead's decision, or drilled and renewed.</summary>
internal sealed class ScrewDecided : StepBehaviour
{
    public override bool CanBeMarked => false;

    public override NoteWanted NoteWanted { get; } = new("who decided and why", "Say who decided and why: it stands in the record.");

    public override bool LeadDecides(string? outcome) => outcome is null;

    public override string Decides => "left out";

    /// <summary>Where the rotor has others, they hold it, and each of them is torqued.</summary>
    public override Judgement Judge(JobState state, ClickOn command, string? outcome) =>
        new(outcome ?? (state.ScrewsLeftOut(command.Step.Side!.Value) + 1 < (state.Opened?.Sheet.Line(Torque.FastenerRole.RotorScrew)?.PerCorner ?? 1) ? "others-hold" : null));
}

/// <summary>A hub whose pits the runout decides about, or the lead.</summary>
internal sealed class PittedHubJudged : StepBehaviour
{
    public override bool CanBeMarked => false;

    public override NoteWanted NoteWanted { get; } = new("the runout, and who decided", "Say the runout that was read, and who decided: it stands in the record.");

    public override string Decides => "it stays";

    public override IReadOnlyList<BenchKind> Benches(JobState state, Side? side) => [BenchKind.Rotor];
}

/// <summary>What was found is put right: the step says how for each of them.</summary>
/// <param name="noted">True where the note has to say what it was.</param>
internal sealed class PutRight(bool noted) : StepBehaviour
{
    public override NoteWanted? NoteWanted { get; } = noted ? new("what it was and what was done", "Say what it was and what was done: it stands in the record.") : null;

    public override string? How(JobState state, Side? side)
    {
        var open = FindingRules.Open(state, side).Where(c => c.How is not null && ReferenceEquals(Of(c.Mends!.Value.StepId), this)).ToArray();
        return open.Length == 0 ? null : string.Join(" ", open.Select(c => Said(c, c.How!)));
    }

    /// <summary>What was found, and how it is put right.</summary>
    public static string Said(FindingCard card, string how) => $"{card.Name}: {Phrase.Small(how)}";
}

using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Jobs;

/// <summary>Ways of doing one thing, the gentlest first: one is shown at a time, and <i>not yet</i> shows the next.</summary>
internal abstract class Ladder : StepBehaviour
{
    /// <summary>The outcome that asks for the next way.</summary>
    public const string NotYet = "not-yet";

    /// <summary>The ways, the gentlest first.</summary>
    protected abstract IReadOnlyList<string> Ways(PlanSetup setup);

    /// <summary>How many ways were tried at this corner and did not do it, since it was last done.</summary>
    protected virtual int Tried(JobState state, Side side) => TriedAt(state, side);

    public sealed override string? How(JobState state, Side? side)
    {
        if (side is not { } at) return null;
        var ways = Ways(state.Setup);
        var way = Math.Min(Tried(state, at), ways.Count - 1);
        return $"{ways[way]} Way {way + 1} of {ways.Count}.";
    }

    /// <summary>Tries at the steps of this ladder that came to nothing, since one of them did it.</summary>
    protected int TriedAt(JobState state, Side side)
    {
        var tried = 0;
        foreach (var done in state.Standing.Select(e => e.Event).OfType<StepDone>().Where(d => d.Step.Side == side && Of(d.Step.StepId).GetType() == GetType()))
            tried = done.Found == NotYet ? tried + 1 : 0;
        return tried;
    }
}

/// <summary>A rotor freed from its hub. Blows only on a part that goes away, and a hub that was struck has its speed ring looked at.</summary>
internal sealed class RotorFreed : Ladder
{
    protected override IReadOnlyList<string> Ways(PlanSetup setup) => setup.Rotors
        ?
        [
            "Penetrating oil at pilot and studs, and time.",
            "Blows between the studs, through a drift: it goes away. Never at the speed ring, never at the rim.",
            "Jacking screws by even turns, thread from the sheet or measured.",
            "The heavier hammer, between the studs and by turns. Never heat.",
        ]
        : ["Penetrating oil at pilot and studs, and time. It stays: no blows.", "Jacking screws by even turns, thread from the sheet or measured. Where there are none the lead decides whether it is renewed."];

    public override Judgement Judge(JobState state, ClickOn command, string? outcome) =>
        new(outcome ?? (state.Setup.Rotors && TriedAt(state, command.Step.Side!.Value) > 0 ? "by-blows" : null));
}

/// <summary>Rotor screws cracked. A head that is rounded is not turned any more.</summary>
internal sealed class ScrewsCracked : Ladder
{
    // The third way is the first that does not turn in the head.
    private const int NotInTheHead = 2;

    protected override IReadOnlyList<string> Ways(PlanSetup setup) =>
    [
        "Impact driver square in the head, or the bar. Crack them, leave them in.",
        "Penetrating oil, and time; then the impact driver again.",
        "A punch at the edge of the head, turning it out.",
        "The head drilled off; the rotor comes over the rest. It counts as broken: report it.",
    ];

    protected override int Tried(JobState state, Side side) =>
        state.Standing.Any(e => e.Event is FindingReported { Kind: FindingKind.ScrewRounded } f && f.Side == side) ? Math.Max(TriedAt(state, side), NotInTheHead) : TriedAt(state, side);
}

/// <summary>Pads, clips and springs that do not lie as they should: what was reported says how; a tight pad has its ways.</summary>
internal sealed class PadsEased : StepBehaviour
{
    private static readonly string[] Ways = ["Lands again to bare metal, clips flat.", "The coating of its ears dressed with a file, never a lining; clean hands.", "Other pads: report a wrong part."];

    public override string? How(JobState state, Side? side)
    {
        var open = FindingRules.Open(state, side).Where(c => c.Mends?.StepId == "pads-eased").ToArray();
        if (open.Length == 0) return null;
        var tried = state.Standing.Select(e => e.Event).OfType<StepDone>().Where(d => d.Step.Side == side && d.Step.StepId == "pads-eased").Reverse().TakeWhile(d => d.Found == Ladder.NotYet).Count();
        return string.Join(" ", open.Select(c => c.How is { } how ? PutRight.Said(c, how) : PutRight.Said(c, Ways[Math.Min(tried, Ways.Length - 1)])));
    }
}

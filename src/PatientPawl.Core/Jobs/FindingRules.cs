using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Jobs;

/// <summary>What can be found as a job stands, what it would change, and what it leaves on the car.</summary>
public static class FindingRules
{
    /// <summary>What can be reported at a corner as the job stands; with no corner, of the car.</summary>
    public static IReadOnlyList<FindingCard> At(JobState state, Side? side)
    {
        ArgumentNullException.ThrowIfNull(state);
        if (!state.Setup.Identified || state.Setup.NotCovered is not null) return [];
        var open = Open(state, side);
        var told = Reported(state, side).Select(f => f.Card).Concat((state.Opened?.Learnt ?? []).Where(l => l.Side == side).Select(l => l.Kind.Card())).Where(c => c.Once).ToHashSet();
        return
        [
            .. FindingCatalogue.All.Where(c => c.PerCorner == side is not null && c.CanBe(state.Setup, state.Car, side ?? Side.Left) && !open.Contains(c) && !told.Contains(c)),
        ];
    }

    /// <summary>What reporting it would change, before it is.</summary>
    /// <exception cref="InputException">A finding that belongs to a corner without one, or the other way round.</exception>
    /// <exception cref="NotAllowedException">It cannot be found in this job as it stands.</exception>
    public static FindingPreview Preview(JobState state, FindingKind kind, Side? side)
    {
        ArgumentNullException.ThrowIfNull(state);
        var reported = JobRules.Report(state, kind, side, kind.Card().NoteWanted);
        var next = state.With(new(Guid.NewGuid(), state.Version + 1, reported, Guid.Empty, "", default, default));
        return new(next.MinutesLeft - state.MinutesLeft, [.. next.Remaining.Except(state.Remaining).Select(StepCatalogue.Words)], [.. LayingOut.PartsOf(next).Except(LayingOut.PartsOf(state))]);
    }

    /// <summary>What was reported at a corner, or of the car, and has not been put right since.</summary>
    internal static IReadOnlyList<FindingCard> Open(JobState state, Side? side)
    {
        List<FindingCard> open = [];
        foreach (var e in state.Standing.Select(e => e.Event))
        {
            if (e is FindingReported found && found.Side == side && found.Kind.Card() is { Mends: not null } card && !open.Contains(card)) open.Add(card);
            if (e is StepDone done && done.Step.Side == side && done.Found is null) open.RemoveAll(c => c.Mends?.StepId == done.Step.StepId);
        }

        // What another step settled, as a new caliper brings its own screw, is not asked for any more.
        return [.. open.Where(c => (side is { } at ? state.Car.Get(c.Mends!.Value.Asked, at) : state.Car.Get(c.Mends!.Value.Asked)) == Asked.Due)];
    }

    /// <summary>Parts that findings asked for, put right or not.</summary>
    internal static IEnumerable<string> Parts(JobState state) =>
        state.Standing.Select(e => e.Event).OfType<FindingReported>().Select(f => (f.Side, f.Kind.Card().Part, Note: f.Kind.Card().NoteWanted is null ? null : f.Note)).Where(f => f.Part is not null).Distinct()
            .Select(f => $"{f.Part}{(f.Note is { } note ? $" ({note})" : "")}{(f.Side is { } side ? $", {side.Word()}" : "")}, added by a finding");

    /// <summary>What was answered before lifting, known of this vehicle from before, or found in this job, and has something to say at a step.</summary>
    internal static IReadOnlyList<string> Remarks(JobState state, StepKey step)
    {
        List<string> says = [];
        foreach (var answer in state.Standing.Select(e => e.Event).OfType<LookOverDone>().SelectMany(e => e.Answers).Where(a => a.Answer == LookOverAnswer.Yes))
            says.AddRange(LookOverQuestions.All.Where(q => q.Id == answer.Id).SelectMany(q => q.IfYes).Where(r => r.StepIds.Contains(step.StepId)).Select(r => r.Says));
        foreach (var known in state.Opened?.Learnt ?? [])
        {
            if (known.Side == step.Side && known.Kind.Card().Remark is { } remark && remark.StepIds.Contains(step.StepId))
                says.Add($"{Said(remark, known.Note)} Measured here on {Figure.Date(known.On)}.");
        }

        says.AddRange(LearntFigures.At(state, step));
        foreach (var (card, note) in Reported(state, step.Side))
            if (card.Remark is { } remark && remark.StepIds.Contains(step.StepId)) says.Add(Said(remark, note));
        return [.. says.Distinct()];

        static string Said(Remark remark, string? note) => remark.Says.EndsWith(':') ? $"{remark.Says} {note?.TrimEnd('.')}." : remark.Says;
    }

    /// <summary>True where it was reported at a corner in this job.</summary>
    internal static bool Told(JobState state, Side side, FindingKind kind) => Reported(state, side).Any(f => f.Card.Kind == kind);

    /// <summary>What is wanted once this was found.</summary>
    internal static PlanSetup Onto(PlanSetup setup, FindingKind kind, Side? side) => kind.Card().Wants?.Invoke(setup, side ?? Side.Left) ?? setup;

    /// <summary>What is so on the car once this was found. Proofs that rested on it fall by themselves.</summary>
    /// <param name="setup">What the plan is made for.</param>
    /// <param name="car">The car before.</param>
    /// <param name="kind">What was found.</param>
    /// <param name="side">The corner; null means both, where an event of the first format named none.</param>
    internal static CarState Onto(PlanSetup setup, CarState car, FindingKind kind, Side? side)
    {
        var card = kind.Card();
        foreach (var at in side is { } one ? [one] : Core.Sides.Both)
        {
            if (card is { PerCorner: true, Mends: { } mends }) car = car.With(mends.Asked, at, Asked.Due);
            car = card.OnCorner?.Invoke(setup, car, at) ?? car;
        }

        if (card is { PerCorner: false, Mends: { } asks }) car = car.With(asks.Asked, Asked.Due);
        return card.OnCar?.Invoke(setup, car) ?? car;
    }

    /// <summary>What was reported at a corner, or of the car, put right or not.</summary>
    private static IEnumerable<(FindingCard Card, string? Note)> Reported(JobState state, Side? side) =>
        state.Standing.Select(e => e.Event).OfType<FindingReported>().Where(f => f.Side == side).Select(f => (f.Kind.Card(), f.Note));
}

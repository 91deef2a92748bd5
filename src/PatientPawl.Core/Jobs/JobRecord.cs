using PatientPawl.Core.Identification;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;

namespace PatientPawl.Core.Jobs;

/// <summary>A line of the record's log.</summary>
/// <param name="Seq">Place in the order.</param>
/// <param name="At">The server's clock.</param>
/// <param name="ClientAt">The client's, where it is more than 5 minutes away; null otherwise.</param>
/// <param name="By">Who.</param>
/// <param name="What">What was done.</param>
/// <param name="Where">Left, right or car.</param>
/// <param name="Detail">Figures and words.</param>
/// <param name="Voided">True when it was undone later.</param>
public sealed record RecordLine(int Seq, DateTimeOffset At, DateTimeOffset? ClientAt, string By, string What, string Where, string Detail, bool Voided);

/// <summary>A torque as recorded.</summary>
/// <param name="Where">Corner.</param>
/// <param name="Fastener">What, and which of them.</param>
/// <param name="Wanted">At the bolt, N m and lbf ft, or a note that it is unverified.</param>
/// <param name="Setting">What the wrench was set to; null where none was.</param>
/// <param name="Applied">The interval applied, by the wrench's permissible deviation.</param>
/// <param name="Wrench">The wrench.</param>
/// <param name="By">Who signed.</param>
/// <param name="Verified">False when the lead had to accept it.</param>
public sealed record RecordTorque(string Where, string Fastener, string Wanted, string? Setting, string Applied, string Wrench, string By, bool Verified);

/// <summary>A photo of the record.</summary>
/// <param name="Sha256">What it is found by.</param>
/// <param name="WidthPx">How wide, in pixels.</param>
/// <param name="HeightPx">How high, in pixels.</param>
/// <param name="Where">Left, right or car.</param>
/// <param name="Caption">What it shows.</param>
/// <param name="Report">The report that it belongs to; null when it stands by itself.</param>
/// <param name="By">Who took it.</param>
/// <param name="At">The server's clock.</param>
public sealed record RecordPhoto(string Sha256, int WidthPx, int HeightPx, string Where, string Caption, string? Report, string By, DateTimeOffset At);

/// <summary>The record of a job, as data for the printable page. It prints what was shown at the time.</summary>
/// <param name="Opened">What came in, with its limits and their source.</param>
/// <param name="VinSays">What the check digit says; null without a VIN.</param>
/// <param name="Brakes">Per corner: architecture and why.</param>
/// <param name="Verdicts">Every verdict with its reasoning.</param>
/// <param name="Torques">Every torque.</param>
/// <param name="Log">Every event in order, lifted ones too.</param>
/// <param name="Fitted">What was fitted.</param>
/// <param name="Decisions">Who decided what, and why.</param>
/// <param name="Proofs">What proved it: parking brake, drag, bed-in.</param>
/// <param name="Advice">What the driver should know.</param>
/// <param name="Finished">True once handed over.</param>
/// <param name="OpenPoints">What is still open.</param>
/// <param name="Photos">The photos that stand, in order.</param>
public sealed record JobRecord(
    JobOpened Opened, string? VinSays, IReadOnlyList<string> Brakes, IReadOnlyList<LimitVerdict> Verdicts, IReadOnlyList<RecordTorque> Torques,
    IReadOnlyList<RecordLine> Log, IReadOnlyList<string> Fitted, IReadOnlyList<string> Decisions, IReadOnlyList<string> Proofs, IReadOnlyList<string> Advice, bool Finished, IReadOnlyList<string> OpenPoints, IReadOnlyList<RecordPhoto> Photos)
{
    /// <summary>The record of a job.</summary>
    public static JobRecord Of(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        var opened = state.Opened ?? throw new ArgumentException("The job was never opened.", nameof(state));
        var verdicts = VerdictsOf(state);
        return new(opened, opened.Vehicle.Vin is { } vin ? Vehicles.Vin.Check(vin).Reasons.Lines[^1].Result : null,
            [.. Core.Sides.Both.Select(s => Brake(state, s))], verdicts,
            [.. state.Standing.Where(e => e.Event is TorqueSigned).Select(e => Torque((TorqueSigned)e.Event, e.Technician))],
            [.. state.Log.Select(e => Line(e, state.Voided.Contains(e.Id)))], FittedIn(state), [.. state.Standing.Select(Decision).OfType<string>()], [.. ProvedBy(state)], [.. ToldToTheDriver(state), .. LeftOpen(verdicts, state)], state.HandedOver,
            state.HandedOver ? [.. ByTheLeadsWord(state)] : [$"{Figure.Count(state.Remaining.Length, "step is", "steps are")} still open.", .. state.CannotBeMet],
            [.. state.Standing.Where(e => e.Event is PhotoTaken).Select(e => Photo(state, e, (PhotoTaken)e.Event))]);
    }

    internal static LimitVerdict[] VerdictsOf(JobState state) => [.. Core.Sides.Both.SelectMany(s => state.Corner(s).Verdicts.Concat(state.Corner(s).ShoeVerdicts))];

    private static RecordPhoto Photo(JobState state, RecordedEvent e, PhotoTaken p) =>
        new(p.Sha256, p.WidthPx, p.HeightPx, p.Side?.Word() ?? "car", p.Caption, state.Log.FirstOrDefault(x => x.Id == p.Of)?.Event is { } report ? report.Card().Name(report) : null, e.Technician, e.At);

    private static string Brake(JobState state, Side side)
    {
        var word = side == Side.Left ? "Left" : "Right";
        if (state.Corner(side).Ruled is not { } ruled) return $"{word}: not identified.";
        var by = state.Observations(side).Select(LookCatalogue.Words);
        return $"{word}: {ruled.Ruling.Architecture.Words()}. {ruled.Ruling.Headline}. Seen: {string.Join(", ", by).ToLowerInvariant()}.";
    }

    private static RecordTorque Torque(TorqueSigned t, string by)
    {
        var name = $"{Phrase.Capital(Fasteners.Words(t.Line.Role))} {t.Index} of {t.Line.PerCorner}";
        var wanted = $"{Figure.Of(t.Line.Wanted.NewtonMeters, 1)} N m ({Figure.Of(t.Line.Wanted.PoundForceFeet, 1)} lbf ft){(t.Line.ThenAngle is { } turn ? $", then {Figure.Of(turn.Degrees)}°" : "")}";
        if (t.NoFigure) return new(t.Step.Side?.Word() ?? "car", name, "no figure anywhere", null, t.Reason ?? "", "spanner, marked", by, false);
        if (t.HandTight) return new(t.Step.Side?.Word() ?? "car", name, "hand-tight, no figure anywhere", null, "", "by hand", by, true);
        return new(t.Step.Side?.Word() ?? "car", name, wanted, t.Set is { } s ? $"{Figure.Of(s.OnTheScale.NewtonMeters, 1)} N m" : null,
            t.Set is { AppliedLow: { } low, AppliedHigh: { } high } ? $"{Figure.Of(low.NewtonMeters, 1)} to {Figure.Of(high.NewtonMeters, 1)} N m" : t.Reason ?? "",
            t.Wrench?.Id ?? "spanner, marked", by, t.Verified);
    }

    private static RecordLine Line(RecordedEvent e, bool voided)
    {
        var card = e.Event.Card();
        // What was noted and acknowledged at a step belongs in the file; the run sheet has no room for it.
        var detail = e.Event switch
        {
            StepDone s => EventCatalogue.Join(card.Detail(s), s.Note, s.Acknowledged.Count > 0 ? "acknowledged: " + string.Join(", ", s.Acknowledged) : null),
            LookOverDone looked => string.Join(" ", looked.Answers.Select(Answered)),
            _ => card.Detail(e.Event),
        };
        return new(e.Seq, e.At, e.ClientAt, e.Technician, card.Name(e.Event), card.Side(e.Event)?.Word() ?? "car", detail, voided);
    }

    /// <summary>A decision as it stands in the record; null where nothing was decided.</summary>
    private static string? Decision(RecordedEvent e) => e.Event switch
    {
        StepDone { Note: { } why } done when StepBehaviour.Of(done.Step.StepId).Decides is { } decides =>
            $"{StepCatalogue.Words(done.Step)}: {(done.Found is { } found && StepCatalogue.Find(done.Step.StepId)!.Outcomes.FirstOrDefault(o => o.Id == found) is { } outcome ? outcome.Says.ToLowerInvariant() : decides)}. {e.Technician}: {why}",
        StepDone { Step.StepId: "verdict-settled", Found: "renewed" } done => $"{StepCatalogue.Words(done.Step)}: renewed. {e.Technician}.",
        FindingReported { Kind: FindingKind.PadsByChoice or FindingKind.RotorsByChoice } found => $"{found.Kind.Card().Name}. {e.Technician}: {found.Note}",
        StopSignSettled settled => $"Stop sign, {settled.Side.Word()}: the same caliper goes on. {e.Technician}: {settled.What}",
        TorqueSigned { HandTight: true } t => $"{StepCatalogue.Words(t.Step)} {t.Index}: hand-tight, no figure anywhere. {e.Technician}.",
        GoalChanged goal => $"{goal.Goal.Words()}. {e.Technician}: {goal.Reason}",
        _ => null,
    };

    private static string Answered(LookOverItem item) =>
        $"{LookOverQuestions.All.FirstOrDefault(q => q.Id == item.Id)?.Question ?? item.Id} {item.Answer switch { LookOverAnswer.Yes => "Yes", LookOverAnswer.No => "No", _ => "Not known" }}.";

    private static IEnumerable<string> ProvedBy(JobState state)
    {
        // A step done again stands for the time before: pedal, cycles, level, codes, each with its figures.
        var figured =
            from e in state.Standing
            let done = e.Event as StepDone
            where done is { Readings.Count: > 0 } && StepCatalogue.Find(done.Step.StepId) is { Stage: Stage.Close or Stage.Prove }
            group (done, e.Technician) by done.Step into times
            let last = times.Last()
            select $"{StepCatalogue.Words(times.Key)}: {last.done.Card().Detail(last.done)}. {last.Technician}.";
        foreach (var line in figured) yield return line;
        foreach (var proof in state.Hold?.Proofs ?? []) yield return $"{proof.What}: {proof.Says}";
        if (state.BedIn is { } bedIn) yield return $"Bed-in: {bedIn.Driven} of {bedIn.Facts.Series.Says}. {bedIn.Says}";
    }

    internal static List<string> FittedIn(JobState state)
    {
        List<string> list = [];
        foreach (var side in Core.Sides.Both)
        {
            if (state.Car.Get(Corner.Pads, side) == PadState.New) list.Add($"New pads, {side.Word()}.");
            if (state.Car.Get(Corner.Rotor, side) == Rotor.New) list.Add($"New rotor, {side.Word()}.");
            if (state.Car.Get(Corner.Shoes, side) is ShoesState.NewLoose or ShoesState.NewSet) list.Add($"New parking shoes, {side.Word()}.");
            if (state.Car.Get(Corner.CaliperPart, side) == CaliperPart.New) list.Add($"New caliper, {side.Word()}.");
            foreach (var (mended, part) in new[] { (Corner.HoseMend, "brake hose"), (Corner.ScrewMend, "bleed screw"), (Corner.CableMend, "parking cable"), (Corner.SensorMend, "wear sensor"), (Corner.ActuatorMend, "actuator"), (Corner.BracketSwap, "bracket") })
                if (state.Car.Get(mended, side) == Asked.Done) list.Add($"New {part}, {side.Word()}.");
            if (state.Car.Get(Corner.Hardware, side) == Asked.Done) list.Add($"New hardware, {side.Word()}.");
            if (state.Car.Get(Corner.PinKit, side) == Asked.Done) list.Add($"New slide pins, {side.Word()}.");
            var sets = state.Standing.Count(e => e.Event is StepDone { Step: { StepId: "bolts-laid-out" } step } && step.Side == side);
            if (sets > 0) list.Add($"New single-use bolts, {side.Word()}{(sets > 1 ? $", {sets} sets" : "")}.");
        }

        return list;
    }

    /// <summary>What a driver is told: of a car that is not to be driven, that, and nothing of brakes that nobody proved.</summary>
    internal static IEnumerable<string> ToldToTheDriver(JobState state) => state.Car.Get(Car.NoRoad) == Planning.Done.Yes
        ? ["This car is not to be driven on the road. It leaves on a trailer, or is put right first."] : Planning.Steps.Prove.TellTheDriver(state.Setup);

    /// <summary>What was left as it is, each by the lead's word.</summary>
    private static IEnumerable<string> ByTheLeadsWord(JobState state) =>
        from e in state.Standing
        let done = e.Event as StepDone
        where done is not null
        from defect in Defects.All
        where defect.LeftOpenId == done.Step.StepId && Left(state, defect, done.Step.Side)
        select $"Left as it is{(done.Step.Side is { } side ? $", {side.Word()}" : "")}: {Phrase.Small(defect.Name)}. {e.Technician}: {done.Note}";

    private static bool Left(JobState state, Defect defect, Side? side) =>
        (side is { } at ? state.Car.Get(defect.Asked, at) : state.Car.Get(defect.Asked)) == Asked.LeftOpen;

    /// <summary>True where a lamp stays lit until a tool resets it.</summary>
    internal static bool LampWaits(JobState state) => state.Standing.Any(e => e.Event is StepDone { Step.StepId: "lamp-seen-off", Outcome: "tool-needed" });

    /// <summary>What was left as it is and the driver should know of.</summary>
    internal static List<string> LeftOpen(LimitVerdict[] verdicts, JobState state)
    {
        List<string> list = [];
        // What was in doubt and has been settled since is no advice any more.
        var standing = state.Findings.Where(f => f.Finding.Verdict == Verdict.Outside || state.Car.Get(Corner.Doubt, f.Side) == Doubt.Open);
        list.AddRange(standing.Select(f => $"Found, {f.Side.Word()}: {f.Finding.Says}"));
        if (verdicts.Any(v => v.Subject?.Judged == Judged.DrumDiameter && v.Verdict == Verdict.Inside && v.Limit.Millimeters - v.Value.Millimeters < Shoes.DrumJudgement.NearMaximum.Millimeters) && !state.Setup.Rotors)
            list.Add("The drum is near its maximum: the parking brake is weak until the shoes have bedded. Bed it in gently, as the maker allows.");
        list.AddRange(Core.Sides.Both.Where(s => state.ScrewsLeftOut(s) > 0).Select(s => $"A rotor screw was left out, {s.Word()}: the wheel holds the rotor on the road. Take care that it does not tilt when the wheel is off."));
        list.AddRange(ByTheLeadsWord(state));
        if (LampWaits(state)) list.Add("A warning lamp stays lit until a tool resets it: have it reset.");
        return list;
    }
}

using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Shoes;
using PatientPawl.Core.Torque;

namespace PatientPawl.Core.Jobs;

/// <summary>A lane of the run sheet.</summary>
public enum SheetLane
{
    /// <summary>Left corner.</summary>
    Left,
    /// <summary>The car.</summary>
    Car,
    /// <summary>Right corner.</summary>
    Right,
}

/// <summary>A finished row.</summary>
/// <param name="EventId">The event, for undoing.</param>
/// <param name="Lane">Its lane.</param>
/// <param name="Name">What was done.</param>
/// <param name="Detail">Figures that came of it.</param>
/// <param name="By">Initials.</param>
/// <param name="At">The server's clock.</param>
/// <param name="CanBeUndone">True when it can be undone with a reason.</param>
public sealed record DoneRow(Guid EventId, SheetLane Lane, string Name, string Detail, string By, DateTimeOffset At, bool CanBeUndone);

/// <summary>A row still to come.</summary>
/// <param name="Step">The step.</param>
/// <param name="Lane">Its lane.</param>
/// <param name="Name">Its name.</param>
/// <param name="Minutes">Usual minutes.</param>
/// <param name="Stage">Its stage.</param>
/// <param name="Offered">True when it may be done now.</param>
/// <param name="Hold">The hold it waits behind; null when none.</param>
/// <param name="CameIn">True when the latest change of the plan brought it in.</param>
/// <param name="CanBeMarked">True when it can be marked as done before its turn.</param>
public sealed record AheadRow(StepKey Step, SheetLane Lane, string Name, int Minutes, Stage Stage, bool Offered, string? Hold, bool CameIn, bool CanBeMarked);

/// <summary>How the plan changed, for people to read.</summary>
/// <param name="EventId">The event that changed it.</param>
/// <param name="Because">Why.</param>
/// <param name="Added">What came in.</param>
/// <param name="Gone">What went out.</param>
/// <param name="Again">What was done and stands in the plan once more.</param>
public sealed record ChangeRow(Guid EventId, string Because, IReadOnlyList<string> Added, IReadOnlyList<string> Gone, IReadOnlyList<string> Again);

/// <summary>Whether a hold is met.</summary>
public enum HoldState
{
    /// <summary>Met.</summary>
    Met,
    /// <summary>Holding now.</summary>
    Holding,
    /// <summary>Still to come.</summary>
    ToCome,
}

/// <summary>A hold as a bar across the lanes.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Title">Its name.</param>
/// <param name="Says">What each side lacks, or when it was met.</param>
/// <param name="State">Met, holding or to come.</param>
/// <param name="LeftMet">True when the left side has met it.</param>
/// <param name="RightMet">True when the right side has met it.</param>
/// <param name="Met">When it was met.</param>
public sealed record HoldBar(string Id, string Title, string Says, HoldState State, bool LeftMet, bool RightMet, HoldMet? Met);

/// <summary>A tooth of the spine.</summary>
/// <param name="Stage">The stage.</param>
/// <param name="StepsLeft">Steps of this stage still in the plan.</param>
/// <param name="Finished">True when none is left and some were done, or the job is past it.</param>
public sealed record SpineTooth(Stage Stage, int StepsLeft, bool Finished);

/// <summary>A fact of the car strip.</summary>
/// <param name="Label">What.</param>
/// <param name="Value">How it stands.</param>
/// <param name="DoNot">True when it says "do not".</param>
public sealed record StripFact(string Label, string Value, bool DoNot);

/// <summary>Another thing that can be found at a step than what is expected.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Says">Its button.</param>
public sealed record OutcomeCard(string Id, string Says);

/// <summary>What the bench needs for the present step.</summary>
/// <param name="Step">The step.</param>
/// <param name="Name">Its name.</param>
/// <param name="Stage">Its stage.</param>
/// <param name="Because">Why it stands here.</param>
/// <param name="How">How to do it.</param>
/// <param name="Tools">Tools.</param>
/// <param name="Parts">Parts and consumables.</param>
/// <param name="Cautions">Cautions at this step.</param>
/// <param name="Readings">Readings it carries.</param>
/// <param name="Torque">The fastener line, when it is a torque step and the sheet has one.</param>
/// <param name="Role">The fastener role, when it is a torque step.</param>
/// <param name="Signed">Signatures so far.</param>
/// <param name="NextIndex">The number of the next fastener to sign, from 1.</param>
/// <param name="NeedsReport">True when a scan tool's words are asked for.</param>
/// <param name="Outcomes">What can be found here instead of what is expected.</param>
/// <param name="LeadOnly">True when only the lead may click it on.</param>
/// <param name="Benches">Benches that serve this step.</param>
/// <param name="Prefilled">Readings that a bench has taken already.</param>
/// <param name="Judged">Parts of this corner that stay only when they pass, as they are judged now.</param>
/// <param name="Clearance">Shoe clearance and clicks, where the step sets shoes and the bench knows them.</param>
/// <param name="StarWheel">Which way loosened this star wheel in this job; null when nobody noted it.</param>
/// <param name="BackFromLock">Clicks back from lock, where the house sets shoes by count; null where it does not.</param>
/// <param name="Page">What the page shows beside what all steps have.</param>
public sealed record StepBench(
    StepKey Step, string Name, Stage Stage, string Because, string How, IReadOnlyList<string> Tools, IReadOnlyList<string> Parts, IReadOnlyList<Caution> Cautions,
    IReadOnlyList<ReadingCard> Readings, TorqueLine? Torque, FastenerRole? Role, IReadOnlyList<TorqueSigned> Signed, int NextIndex, bool NeedsReport, IReadOnlyList<OutcomeCard> Outcomes, bool LeadOnly,
    IReadOnlyList<BenchKind> Benches, IReadOnlyList<Prefilled> Prefilled, IReadOnlyList<PartVerdict> Judged, ClearanceVerdict? Clearance, StarWheelNoted? StarWheel, int? BackFromLock, StepPage Page)
{
    /// <summary>What its note has to say; null where it may be silent.</summary>
    public string? NoteWanted { get; init; }

    /// <summary>How the pads of this corner go in, where the step is about pads.</summary>
    public PadsThere? Pads { get; init; }

    /// <summary>What the sheet says of each bolt of a torque step beside its figure, in order; empty where it is silent.</summary>
    public IReadOnlyList<string> BoltsSay { get; init; } = [];

    /// <summary>True where a screw without a figure may be accepted hand-tight, by name.</summary>
    public bool MayBeHandTight { get; init; }
}

/// <summary>A bench.</summary>
public enum BenchKind
{
    /// <summary>Drum and shoes.</summary>
    Shoes,
    /// <summary>Rotor.</summary>
    Rotor,
    /// <summary>Pads.</summary>
    Pads,
    /// <summary>Reservoir, pedal, bleeding, leaks.</summary>
    Fluid,
    /// <summary>Which way the piston goes and how far, its log, its slot.</summary>
    Retract,
    /// <summary>Which brake it is.</summary>
    Look,
    /// <summary>Every fastener's figure and setting.</summary>
    Torques,
    /// <summary>Motors, their currents and their codes.</summary>
    Electric,
    /// <summary>What proves the parking brake, and that no side drags.</summary>
    Prove,
    /// <summary>The bed-in series.</summary>
    BedIn,
}

/// <summary>A bench of a job, reached from every step of it.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Lane">Whose it is.</param>
public sealed record JobBench(BenchKind Kind, SheetLane Lane);

/// <summary>A reading that a bench has taken already.</summary>
/// <param name="Kind">The reading.</param>
/// <param name="Value">Its value.</param>
/// <param name="From">Which bench, and of how many readings.</param>
/// <param name="InstrumentId">The instrument; null where it was counted.</param>
public sealed record Prefilled(ReadingKind Kind, double Value, string From, string? InstrumentId);

/// <summary>A corner as its bench shows it.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Looks">The observations that stand.</param>
/// <param name="Found">What they leave standing.</param>
/// <param name="PushAllowed">True when a push test would prove something now.</param>
/// <param name="Ruling">The ruling, once made.</param>
/// <param name="Provisional">The ruling as it would be made now; null while nothing can be ruled.</param>
/// <param name="RulingEventId">Its event, for lifting.</param>
/// <param name="MethodUndecided">True while both motor designs stand.</param>
/// <param name="Travel">How far, once measured.</param>
/// <param name="Verdicts">Verdicts, once judged.</param>
/// <param name="PistonHome">True once the piston is home.</param>
/// <param name="RetractOffered">True when the piston may go home now.</param>
/// <param name="RetractWhyNot">Why it may not.</param>
/// <param name="Stop">The stop sign that holds the corner.</param>
/// <param name="StopEventId">Its event, for lifting.</param>
/// <param name="StopMeans">What that sign means and what may follow.</param>
/// <param name="Reservoir">The reservoir through the job, the same as on the fluid bench; null until measured.</param>
/// <param name="Log">What the retraction log says; null while there is none.</param>
public sealed record CornerView(
    Side Side, IReadOnlyList<Observation> Looks, Identified Found, bool PushAllowed, Ruling? Ruling, Ruling? Provisional, Guid? RulingEventId, bool MethodUndecided, TravelResult? Travel,
    IReadOnlyList<LimitVerdict> Verdicts, bool PistonHome, bool RetractOffered, IReadOnlyList<string> RetractWhyNot, StopSignSeen? Stop, Guid? StopEventId, StopCard? StopMeans, ReservoirAnswer? Reservoir, LogAnswer? Log);

/// <summary>The run sheet: what is next, what else is allowed, what holds.</summary>
/// <param name="Now">The bench of the next step; null when nothing is left.</param>
/// <param name="Also">What else may be done now.</param>
/// <param name="Done">Finished rows, oldest first.</param>
/// <param name="Ahead">Rows to come, in order.</param>
/// <param name="Holds">The holds, in order.</param>
/// <param name="Spine">The stages.</param>
/// <param name="Stage">The present stage.</param>
/// <param name="Strip">The state of the car.</param>
/// <param name="MinutesLeft">Minutes left for one technician.</param>
/// <param name="CannotBeMet">What no order can reach, in words.</param>
/// <param name="NotYet">A telling step that is not allowed, and why.</param>
/// <param name="Findings">What was found that changed the job.</param>
/// <param name="PartsList">What is renewed, and why where a finding added it.</param>
/// <param name="Changes">How the plan changed on the way, the latest last.</param>
/// <param name="LayOut">What to fetch for what is left.</param>
/// <param name="CanFind">What can be reported now: left corner, car, right corner.</param>
/// <param name="Night">How the job was left, while it is left.</param>
/// <param name="Goal">What the job is to end in, and whether it is there.</param>
/// <param name="MayChoose">True when something may be chosen now that the plan does not ask for.</param>
/// <param name="Awaits">Parts that are waited for; null when none are.</param>
/// <param name="Benches">The benches that this job has, lane by lane.</param>
public sealed record RunSheet(
    StepBench? Now, IReadOnlyList<StepBench> Also, IReadOnlyList<DoneRow> Done, IReadOnlyList<AheadRow> Ahead, IReadOnlyList<HoldBar> Holds, IReadOnlyList<SpineTooth> Spine,
    Stage Stage, IReadOnlyList<StripFact> Strip, int MinutesLeft, IReadOnlyList<string> CannotBeMet, NotYet? NotYet,
    IReadOnlyList<SidedFinding> Findings, IReadOnlyList<string> PartsList, IReadOnlyList<ChangeRow> Changes, LayOut LayOut, IReadOnlyList<IReadOnlyList<FindingCard>> CanFind, LeftOvernight? Night, GoalCard Goal, bool MayChoose, AwaitedParts? Awaits, IReadOnlyList<JobBench> Benches);

/// <summary>A step that may be chosen now where the plan does not ask for it.</summary>
/// <param name="Bench">Its bench.</param>
/// <param name="Where">Where it is right, and what it brings.</param>
/// <param name="Minutes">Minutes more that the whole job takes with it; fewer where it is negative.</param>
public sealed record ChoiceCard(StepBench Bench, string Where, int Minutes);

/// <summary>A step that is not allowed yet, and why.</summary>
/// <param name="Step">The step.</param>
/// <param name="Name">Its name.</param>
/// <param name="Why">Why not.</param>
public sealed record NotYet(StepKey Step, string Name, string Why);

/// <summary>Composes what the screens show from the state. No rule is decided here.</summary>
public static class RunSheets
{
    private static readonly string[] Telling = ["service-closed", "first-apply", "lever-cycled", "pedal-proved", "caliper-off", "lifted"];

    /// <summary>The run sheet of a job.</summary>
    public static RunSheet Of(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        var offered = Planner.Offered(state.Setup, state.Car, state.Remaining);
        // One goes on with what one is at: a half-signed bolt set, or the next way of what would not come, before anything else that is offered.
        var next = offered.FirstOrDefault(s => state.Signatures(s).Count > 0) ?? offered.FirstOrDefault(s => s == TriedLast(state)) ?? state.Remaining.FirstOrDefault(offered.Contains);
        var holds = Bars(state, out var boundaries);
        List<AheadRow> ahead = [];
        for (var i = 0; i < state.Remaining.Length; i++)
        {
            var key = state.Remaining[i];
            var type = StepCatalogue.Find(key.StepId)!;
            ahead.Add(new(key, LaneOf(key), type.Name, state.Times.Minutes(type), type.Stage, offered.Contains(key) && ahead.TrueForAll(a => a.Step != key), boundaries.FirstOrDefault(b => i < b.Index).Id,
                state.Changes.Count > 0 && state.Changes[^1].Added.Contains(key), JobRules.CanBeMarked(type)));
        }

        // Where nothing is next, the pawl stays where the last step left it: a job that is left, moved or stuck is not done.
        var at = next ?? state.Standing.Select(e => e.Event).OfType<StepDone>().LastOrDefault()?.Step;
        var stage = state.HandedOver ? Stage.Record : at is null ? Stage.Look : StepCatalogue.Find(at.StepId)?.Stage ?? Stage.Look;
        var telling = Telling.Select(id => ahead.FirstOrDefault(a => a.Step.StepId == id && !a.Offered)).FirstOrDefault(a => a is not null);
        return new(
            next is null || state.Night is not null ? null : Bench(state, next), [.. offered.Where(o => o != next).Select(o => Bench(state, o))], DoneRows(state), ahead, holds,
            [.. Enum.GetValues<Stage>().Select(s => Tooth(state, ahead, s, stage))], stage, Strip(state), ahead.Sum(a => a.Minutes), state.CannotBeMet,
            telling is null ? null : new(telling.Step, telling.Name, WhyShort(state, telling.Step)), state.Findings, [.. LayingOut.Parts(state.Setup, state.Car), .. FindingRules.Parts(state)],
            [.. state.Changes.Where(c => !state.Voided.Contains(c.EventId)).Select(c => new ChangeRow(c.EventId, c.Because, Names(c.Added), Names(c.Gone), Names(c.Again)))],
            LayingOut.Of(state),
            [FindingRules.At(state, Side.Left), FindingRules.At(state, null), FindingRules.At(state, Side.Right)], state.Night,
            GoalCard.Of(state), CanChoose(state) && Planner.MayChoose(state.Setup, state.Car, state.Remaining).Any(), state.Awaits,
            [.. BenchesAt(state, Side.Left), .. CarBenches(state), .. BenchesAt(state, Side.Right)]);
    }

    // A piston is followed where it is known which way it goes, and there are shoes where the brake has them.
    private static IEnumerable<JobBench> BenchesAt(JobState state, Side side)
    {
        var lane = LaneOf(side);
        yield return new(BenchKind.Look, lane);
        if (state.Corner(side).Ruled is not null) yield return new(BenchKind.Retract, lane);
        yield return new(BenchKind.Rotor, lane);
        if (state.Car.Get(Planning.Corner.Shoes, side) != ShoesState.None) yield return new(BenchKind.Shoes, lane);
    }

    private static IEnumerable<JobBench> CarBenches(JobState state)
    {
        List<BenchKind> kinds = [BenchKind.Pads, BenchKind.Fluid, BenchKind.Torques];
        if (state.Setup.IsElectric) kinds.Add(BenchKind.Electric);
        if (!state.Setup.IsPlain) kinds.Add(BenchKind.Prove);
        if (state.Setup.HasNewLinings) kinds.Add(BenchKind.BedIn);
        return kinds.Select(k => new JobBench(k, SheetLane.Car));
    }

    // A way that did not do it: the next way is at the same place.
    private static StepKey? TriedLast(JobState state) => state.Standing.Select(e => e.Event).OfType<StepDone>().LastOrDefault() is { Outcome: Ladder.NotYet } tried ? tried.Step : null;

    private static bool CanChoose(JobState state) => !state.HandedOver && state.Night is null && state.Setup.Identified && state.CannotBeMet.Count == 0;

    /// <summary>What may be chosen now where the plan does not ask for it, with what it costs.</summary>
    public static IReadOnlyList<ChoiceCard> Choices(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        if (!CanChoose(state)) return [];
        var planned = state.MinutesLeft;
        return
        [
            .. Planner.Choices(state.Setup, state.Car, state.Remaining).Select(c => (c.Step, Type: StepCatalogue.Find(c.Step.StepId)!, c.After))
                .Select(c => new ChoiceCard(Bench(state, c.Step), c.Type.RightWhere?.Invoke(state.Setup) ?? "", state.Times.Minutes(c.Type) + state.Times.Minutes(c.After.Steps) - planned)),
        ];
    }

    private static List<string> Names(IReadOnlyList<StepKey> steps) => [.. steps.Select(StepCatalogue.Words)];

    /// <summary>A corner's bench.</summary>
    public static CornerView Corner(JobState state, Side side)
    {
        ArgumentNullException.ThrowIfNull(state);
        var file = state.Corner(side);
        var step = new StepKey("piston-home", side);
        var why = Planner.Why(state.Setup, state.Car, step);
        var pushKnown = file.Looks.TryGetValue(Look.PushMoves, out var push) && push.MechanismRelaxed;
        var reservoir = file.Travel is not null && state.LevelPercent is { } level ? JobBenches.Reservoir(state, level) : null;
        var found = Identify.Corner(state.Observations(side), pushKnown);
        var provisional = found.Ruled is { } a ? RetractionRuling.Decide(a, side, state.Opened!.Sheet.Piston, found.MethodUndecided, state.SeenOpposed(side)) : null;
        return new(side, state.Observations(side), found, state.MechanismRelaxed(side), file.Ruled?.Ruling, provisional,
            EventOf(state, e => e is BrakeRuled r && r.Side == side), file.Ruled?.MethodUndecided == true, file.Travel, file.Verdicts,
            state.Car.Get(Planning.Corner.Piston, side) == Piston.Home, why.Allowed && state.Remaining.Contains(step), why.Allowed ? [] : why.Lacking,
            file.Stop, EventOf(state, e => e is StopSignSeen { Holds: true } s && s.Side == side), file.Stop is { } held ? RetractionRuling.Stop(held.Sign) : null, reservoir,
            file.LogPoints().Count > 0 ? JobBenches.Retraction(state, side, null).Log : null);
    }

    /// <summary>The bench of any step of the plan.</summary>
    public static StepBench Bench(JobState state, StepKey step)
    {
        ArgumentNullException.ThrowIfNull(state);
        ArgumentNullException.ThrowIfNull(step);
        var type = StepCatalogue.Find(step.StepId) ?? throw new InputException(new InputError("stepId", Figure.Shorten(step.StepId), "a step of the run sheet", "There is no such step."));
        var signed = state.Signatures(step);
        var behaviour = StepBehaviour.Of(type.Id);
        return new(step, type.Name, type.Stage, type.Because, string.Join(" ", [behaviour.How(state, step.Side) ?? type.HowIn(state.Setup), .. FindingRules.Remarks(state, step), .. Practice.ShownBeforeAlone.Remarks(state, type)]), type.ToolsIn(state.Setup), type.PartsIn(state.Setup), type.Cautions, [.. type.ReadingsIn(state.Setup).Select(r => CardIn(state, r))],
            type.Torques is { } role ? state.LineAt(role, step.Side) ?? signed.FirstOrDefault()?.Line : null, type.Torques, signed, Enumerable.Range(1, signed.Count + 1).First(i => signed.All(s => s.Index != i)),
            state.Setup.ByTool && behaviour.AsksTheTool,
            [.. CompiledCatalogue.For(state.Setup).Find(step)?.Outcomes.Where(o => !o.Type.Reckoned && o.Needs.All(n => n.Holds(state.Car.Raw))).Select(o => new OutcomeCard(o.Type.Id, o.Type.Says)) ?? []], type.LeadOnly,
            behaviour.Benches(state, step.Side), step.Side is { } side ? behaviour.Prefilled(state, side) : [], step.Side is { } corner ? behaviour.Judged(state, corner) : [],
            step.Side is { } at ? behaviour.Clearance(state, at) : null, step.Side is { } wheel ? state.Corner(wheel).StarWheel : null, behaviour.BackFromLock(state), behaviour.Page(state))
        {
            NoteWanted = behaviour.NoteWanted?.What,
            Pads = step.Side is { } pads ? behaviour.Pads(state, pads) : null,
            BoltsSay = type.Torques is { } of && state.LineAt(of, step.Side) is { } line ? [.. Enumerable.Range(1, line.PerCorner).Select(line.SaysOf)] : [],
            MayBeHandTight = type.Torques is { } screw && JobRules.MayBeHandTight(state, screw),
        };
    }

    private static ReadingCard CardIn(JobState state, ReadingKind kind)
    {
        var card = kind.Card();
        if (kind == ReadingKind.PistonProtrusion && state.Setup.IsFixed) card = card with { Name = "Inner piston stands proud" };
        return card.Instrument is null ? card : card with { Serving = [.. state.Instruments.Where(i => card.Uses.Any(i.Serves)).Select(i => i.Id)] };
    }

    internal static string Initials(string name)
    {
        var initials = string.Concat(name.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(w => char.ToUpperInvariant(w[0])));
        return initials.Length > 3 ? initials[..3] : initials;
    }

    private static Guid? EventOf(JobState state, Func<JobEvent, bool> test) => state.Standing.LastOrDefault(e => test(e.Event))?.Id;

    private static List<DoneRow> DoneRows(JobState state) =>
        [.. state.Standing.Where(e => e.Event.Card().OnSheet).Select(e => DoneRowOf(e, e.Event.Card()))];

    private static DoneRow DoneRowOf(RecordedEvent e, EventCard card) =>
        new(e.Id, card.Side(e.Event) is { } side ? LaneOf(side) : SheetLane.Car, card.Name(e.Event), card.Detail(e.Event), Initials(e.Technician), e.At, card.CanBeUndone);

    private static SpineTooth Tooth(JobState state, List<AheadRow> ahead, Stage stage, Stage present)
    {
        var left = ahead.Count(a => a.Stage == stage);
        return new(stage, left, left == 0 && (stage < present || state.HandedOver));
    }

    private static string WhyShort(JobState state, StepKey step)
    {
        var why = Planner.Why(state.Setup, state.Car, step);
        return why.Interlocks.Count > 0 ? Interlocks.All[why.Interlocks[^1] - 1].Message : why.Lacking.Count > 0 ? why.Lacking[0] : "Something else comes first.";
    }

    private static List<HoldBar> Bars(JobState state, out List<(int Index, string Id)> boundaries)
    {
        boundaries = [];
        List<HoldBar> bars = [];
        var holding = false;
        foreach (var hold in Holds.All.Where(h => h.Applies(state.Setup)))
        {
            if (state.HoldsMet.TryGetValue(hold.Id, out var met))
            {
                bars.Add(new(hold.Id, hold.MetTitle, $"after {Figure.Count(met.Steps, "step")}", HoldState.Met, true, true, met));
                continue;
            }

            var until = IndexWhenMet(state, hold);
            boundaries.Add((until, hold.Id));
            bars.Add(new(hold.Id, Holds.Title(hold, state.Setup), Lacks(state, hold, until), holding ? HoldState.ToCome : HoldState.Holding,
                hold.SideMet(state.Setup, state.Car, Side.Left), hold.SideMet(state.Setup, state.Car, Side.Right), null));
            holding = true;
        }

        return bars;
    }

    private static int IndexWhenMet(JobState state, Hold hold)
    {
        var car = state.Car;
        for (var i = 0; i < state.Remaining.Length; i++)
        {
            car = Planner.Apply(state.Setup, car, state.Remaining[i], null);
            if (hold.Met(state.Setup, car)) return i + 1;
        }

        return state.Remaining.Length + 1;
    }

    private static string Lacks(JobState state, Hold hold, int until)
    {
        List<string> says = [];
        foreach (var side in Core.Sides.Both.Where(s => !hold.SideMet(state.Setup, state.Car, s)))
        {
            var names = state.Remaining.Take(until).Where(k => k.Side == side).Select(k => StepCatalogue.Find(k.StepId)!.Name.ToLowerInvariant()).ToArray();
            var word = Phrase.Capital(side.Word());
            if (names.Length > 0) says.Add($"{word} lacks {(names.Length <= 3 ? string.Join(", ", names) : $"{names.Length} steps")}.");
        }

        var car = state.Remaining.Take(until).Count(k => k.Side is null);
        return says.Count > 0 ? string.Join(" ", says) : car > 0 ? $"The car lacks {car} {(car == 1 ? "step" : "steps")}." : "";
    }

    private static List<StripFact> Strip(JobState state)
    {
        var car = state.Car;
        var pedalOff = !Planner.Why(state.Setup, car, new(state.Setup.SimulatedPedal ? "pedal-proved-routine" : "pedal-proved", null)).Allowed
            && Core.Sides.Both.Any(s => car.Get(Planning.Corner.Caliper, s) != Caliper.On || car.Get(Planning.Corner.Pads, s) == PadState.None || car.Get(Planning.Corner.SlidePins, s) is Bolts.Snug or Bolts.Out);
        List<StripFact> strip =
        [
            new("Pedal", pedalOff ? "Keep off" : car.Get(Planning.Car.Pedal) switch { Pedal.Proved => "Proved", Pedal.NotPumped => "Not pumped", _ => "As it came" }, pedalOff),
        ];
        if (state.Setup.NeedsRoute)
        {
            var keepOff = car.Get(Planning.Car.Tag) == Done.Yes || Core.Sides.Both.Any(s => car.Get(Planning.Corner.Actuator, s) is Actuator.Unplugged or Actuator.Off);
            strip.Add(new("Brake switch", car.Get(Planning.Car.Tag) == Done.Yes ? "Tagged" : keepOff ? "Do not touch" : "Free", keepOff));
        }

        strip.Add(new("Parking brake", Words(Planning.Car.Brake, car), false));
        strip.Add(new("Standing", (car.Get(Planning.Car.Position) == CarPosition.Stands ? "Stands" : "Ground") + (car.Get(Planning.Car.Chocks) == Chocks.In ? ", chocked" : ""), false));
        if (state.Setup.IsElectric)
        {
            strip.Add(new("Ignition", car.Get(Planning.Car.Ignition) == Ignition.On ? car.Get(Planning.Car.LeftOn) == Done.Yes ? "Left on" : "On" : car.Get(Planning.Car.Key) == Key.Away ? "Off, key away" : "Off", false));
            strip.Add(new("Battery", state.BatteryVolts is { } v ? $"{Figure.Fixed(v, 1)} V" : Words(Planning.Car.Battery, car), false));
        }

        if (state.Setup.HasLever) strip.Add(new("Cable", Words(Planning.Car.Cable, car), false));
        strip.Add(new("Hydraulics", Hydraulics(car), false));
        strip.Add(new("Reservoir", state.LevelPercent is { } level && state.Opened is not null ? $"Room {Figure.Of(state.Reservoir.Band.Milliliters * (1 - level / 100), 0)} mL" : "Not looked at", false));
        strip.Add(new("Wheels off", Core.Sides.Both.Count(s => car.Get(Planning.Corner.Wheel, s) == Wheel.Off).ToString(), false));
        return strip;
    }

    private static string Hydraulics(CarState car)
    {
        var (left, right) = (car.Get(Planning.Corner.Hydraulics, Side.Left), car.Get(Planning.Corner.Hydraulics, Side.Right));
        static string Word(HydraulicsState state) => Planning.Corner.Hydraulics.Words(StateVariable<HydraulicsState>.Byte(state));
        if (left == right) return Phrase.Capital(Word(left));
        return left == HydraulicsState.Closed ? $"Right {Word(right)}" : right == HydraulicsState.Closed ? $"Left {Word(left)}" : $"Left {Word(left)}, right {Word(right)}";
    }

    private static string Words<T>(StateVariable<T> variable, CarState car) where T : struct, Enum
    {
        var words = variable.Words(StateVariable<T>.Byte(car.Get(variable)));
        return Phrase.Capital(words);
    }

    private static SheetLane LaneOf(StepKey key) => key.Side is { } s ? LaneOf(s) : SheetLane.Car;
    private static SheetLane LaneOf(Side side) => side == Side.Left ? SheetLane.Left : SheetLane.Right;
}

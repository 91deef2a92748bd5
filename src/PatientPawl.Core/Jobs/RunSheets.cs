using PatientPawl.Core.Identification;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;

namespace PatientPawl.Core.Jobs;

/// <summary>Composes what the screens show from the state. No rule is decided here.</summary>
public static class RunSheets
{
    private static readonly string[] Telling = ["service-closed", "first-apply", "lever-cycled", "pedal-proved", "caliper-off", "lifted"];

    /// <summary>The run sheet of a job.</summary>
    public static RunSheet Of(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        var offered = Planner.Offered(state.Setup, state.Car, state.Remaining).Where(k => !WaitedFor.Holds(state, k)).ToList();
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

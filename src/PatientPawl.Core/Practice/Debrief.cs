using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Retraction;

namespace PatientPawl.Core.Practice;

/// <summary>How something that was done or said is judged.</summary>
public enum DebriefMark
{
    /// <summary>Done, and nothing to say of it.</summary>
    Done,
    /// <summary>Right.</summary>
    Right,
    /// <summary>It matches the truth, while the engine said too close or not yet enough.</summary>
    RightByLuck,
    /// <summary>The engine decided so too, and the truth differs.</summary>
    HonestError,
    /// <summary>Against the engine.</summary>
    Wrong,
    /// <summary>Somebody or something was hurt.</summary>
    Harm,
    /// <summary>Refused by the rules; it would have hurt somebody or something.</summary>
    Refused,
    /// <summary>Never found.</summary>
    Missed,
    /// <summary>Help was asked for.</summary>
    Helped,
}

/// <summary>A line of a debrief.</summary>
/// <param name="Seq">Its event; 0 for what never happened.</param>
/// <param name="Step">The step; null where it was at none.</param>
/// <param name="What">What was done or said.</param>
/// <param name="Mark">How it is judged.</param>
/// <param name="Says">What came of it.</param>
/// <param name="Better">What the engines would have done, and why; null where it was that.</param>
/// <param name="Trap">The trap behind it; null where there is none.</param>
public sealed record DebriefLine(int Seq, StepKey? Step, string What, DebriefMark Mark, string Says, string? Better, TrapId? Trap)
{
    /// <summary>The engines' reasoning that it was judged by; empty where no engine was asked.</summary>
    public IReadOnlyList<Reasons> Why { get; init; } = [];
}

/// <summary>A competence that a run showed.</summary>
/// <param name="Competence">Which.</param>
/// <param name="Says">Its name.</param>
public sealed record ShownHere(Competence Competence, string Says);

/// <summary>How a run stands, as its list shows it: told by the car and the record alone, so that it costs no plan.</summary>
/// <param name="Finished">True when the car was handed over, or the work stops rightly at the maker's procedure.</param>
/// <param name="Harms">Harms that were done.</param>
/// <param name="Minutes">Minutes since the car came in.</param>
public sealed record RunSummary(bool Finished, int Harms, int Minutes)
{
    /// <summary>Of a run.</summary>
    /// <exception cref="NotAllowedException">The job is no practice.</exception>
    public static RunSummary Of(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        var world = PracticeRules.WorldOf(state);
        var handedOver = state.Log.Where(e => e.Event is StepDone { Step.StepId: "handed-over" }).Select(e => e.Seq).ToHashSet();
        // What the product does not cover is handed to the maker's procedure: then to stop is the end.
        var stops = Sides.Both.All(s => state.Corner(s).Ruled?.Ruling.Method == RetractMethod.MakersProcedure);
        return new(state.HandedOver || stops, world.Happenings.Count(h => h.Carried && !handedOver.Contains(h.Seq)), world.Minutes);
    }
}

/// <summary>What came of a run, judged by the engines that judge real work; what did harm is told by the car alone.</summary>
/// <param name="Lines">What was done and said, in order.</param>
/// <param name="Harms">Harms that were done.</param>
/// <param name="Refused">Harms that the rules kept from happening.</param>
/// <param name="Missed">Things that were there to be found and were not.</param>
/// <param name="Minutes">Minutes it took.</param>
/// <param name="PlanMinutes">Minutes of its steps, each once.</param>
/// <param name="Helped">How often help was asked for.</param>
/// <param name="Finished">True when the car was handed over, or the work stops rightly at the maker's procedure.</param>
/// <param name="Shown">Competences that it showed.</param>
/// <param name="Traps">Traps that were fallen into.</param>
public sealed record Debrief(
    IReadOnlyList<DebriefLine> Lines, int Harms, int Refused, int Missed, int Minutes, int PlanMinutes, int Helped, bool Finished,
        IReadOnlyList<ShownHere> Shown,
    IReadOnlyList<TrapId> Traps)
{
    /// <summary>Talks a run over.</summary>
    /// <exception cref="NotAllowedException">The job is no practice.</exception>
    public static Debrief Of(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        var (scenario, run) = PracticeRules.RunOf(state);
        var world = PracticeRules.WorldOf(state);
        List<DebriefLine> lines = [];
        var at = JobState.Fold([]);
        var steps = new HashSet<StepKey>();
        foreach (var e in state.Log)
        {
            var happened = world.Happenings.Where(h => h.Seq == e.Seq).ToArray();
            foreach (var line in Judged(scenario, at, state, e, happened)) lines.Add(line);
            foreach (var h in happened)
            {
                var lesson = h.Trap is { } trap ? TrapCatalogue.Of(trap).Lesson : null;
                lines.Add(new(e.Seq, h.Step, h.Step is { } where ? StepCatalogue.Words(where) : "", !h.Carried ? DebriefMark.Refused
                    : e.Event is StepDone { Step.StepId: "handed-over" } ? DebriefMark.Missed : DebriefMark.Harm,
                    h.Says, lesson, h.Trap));
            }

            if (e.Event is StepDone d) steps.Add(d.Step);
            if (e.Event is TorqueSigned t) steps.Add(t.Step);
            at = at.With(e);
        }

        var ended = PracticeRules.IsEnded(state);
        var summary = RunSummary.Of(state);
        if (ended && !summary.Finished)
        {
            var trap = TrapCatalogue.Of(TrapId.NothingRecorded);
            lines.Add(new(0, null, "The record", DebriefMark.Missed, "The car was never handed over: nobody signed for what was done.",
                trap.Lesson, trap.Id));
        }

        return new(lines, summary.Harms, lines.Count(l => l.Mark == DebriefMark.Refused), lines.Count(l => l.Mark == DebriefMark.Missed),
            summary.Minutes, steps.Sum(k => state.Times.Minutes([k])), lines.Count(l => l.Mark == DebriefMark.Helped), summary.Finished,
            Competences(scenario, run, state, summary.Finished, lines), [.. lines.Select(l => l.Trap).OfType<TrapId>().Distinct().Order()]);
    }

    /// <summary>How a verdict is judged.</summary>
    /// <param name="said">What was said: <c>inside</c>, <c>outside</c> or <c>too-close</c>.</param>
    /// <param name="engine">What the engine said of the same readings.</param>
    /// <param name="truth">True where everything truly passes.</param>
    public static DebriefMark Judge(string said, Verdict engine, bool truth)
    {
        if (engine is Verdict.TooCloseToCall or Verdict.NotYetEnough)
            return said == "too-close" ? DebriefMark.Right : said == "inside" == truth ? DebriefMark.RightByLuck : DebriefMark.Wrong;
        var agrees = said == (engine == Verdict.Inside ? "inside" : "outside");
        return !agrees ? DebriefMark.Wrong : engine == Verdict.Inside == truth ? DebriefMark.Right : DebriefMark.HonestError;
    }

    private static IEnumerable<DebriefLine> Judged(Scenario scenario, JobState before, JobState whole, RecordedEvent e,
        Happening[] happened)
    {
        switch (e.Event)
        {
            case PracticeAnswered a:
                if (OfAnswer(scenario, before, whole, e.Seq, a, happened) is { } line) yield return line;
                break;
            case PracticeTried t when happened.Length == 0:
                yield return new(e.Seq, t.Step, StepCatalogue.Words(t.Step), DebriefMark.Wrong, $"Refused. {t.Says()}", Plan(before),
                    null);
                break;
            case PracticeHelped h:
                yield return new(e.Seq, h.Next, "Asked what is next", DebriefMark.Helped, h.Next is { } next ? StepCatalogue.Words(next)
                    : "Nothing was left.", null, null);
                break;
            case FindingReported f:
                var faults = Sides.Both.Where(s => f.Side is null || f.Side == s)
                    .Any(s => PracticeFaults.Of(f.Kind).Any(scenario.Truth.At(s).Faults.Contains));
                var none = !PracticeFaults.Of(f.Kind).Any();
                yield return new(e.Seq, null,
                    $"Reported: {f.Kind.Card().Name.ToLowerInvariant()}{(f.Side is { } side ? $", {side.Word()}" : "")}",
                    faults ? DebriefMark.Right : none ? DebriefMark.Done : DebriefMark.Wrong, faults ? "It is so." : none ? ""
                        : "Nothing of the kind is there.", null,
                    !faults && f.Kind is FindingKind.SeizedPin or FindingKind.FrozenPads && Held(scenario, f.Side) ? TrapId.PadsOrPins
                        : null);
                break;
            case StepDone d:
                yield return new(e.Seq, d.Step, StepCatalogue.Words(d.Step), d.Broken is null ? DebriefMark.Done : DebriefMark.Wrong, d.Broken is null
                    ? "" : "Out of order.",
                    d.Broken is null ? null : Plan(before), null);
                break;
            case TorqueSigned { Index: 1 } t:
                yield return new(e.Seq, t.Step, StepCatalogue.Words(t.Step), DebriefMark.Done, "", null, null);
                break;
        }
    }

    private static bool Held(Scenario scenario, Side? side) =>
        Sides.Both.Where(s => side is null || side == s).Any(s =>
            scenario.Truth.At(s).Faults.Any(f => f is CornerFault.PadsFrozen or CornerFault.PinSeized));

    private static string? Plan(JobState before) => before.Remaining is [var next, ..] && StepCatalogue.Find(next.StepId) is { } type
        ? $"Next was: {StepCatalogue.Words(next)}. {type.Because}" : null;

    private static DebriefLine? OfAnswer(Scenario scenario, JobState before, JobState whole, int seq, PracticeAnswered a,
        Happening[] happened)
    {
        var what = $"{StepCatalogue.Words(a.Step)}: {Phrase.Small(a.Says)}";
        if (a.Step.Side is not { } side) return null;
        if (a.Set is not null)
        {
            var right = a.Option == "right";
            var trap = PracticeQuestions.TrapOf(a.Option);
            return new(seq, a.Step, what, right ? DebriefMark.Right : DebriefMark.Wrong, "",
                right ? null : trap is { } t ? TrapCatalogue.Of(t).Lesson : null, trap)
            {
                Why = PracticeQuestions.Setting(scenario, a.Step) is { } setting ? [setting.Reasons] : [],
            };
        }

        switch (a.Step.StepId)
        {
            case "piston-home" when before.Corner(side).Ruled?.Ruling is { } ruling:
                var fits = Fits(a.Option, ruling);
                return new(seq, a.Step, what, fits ? DebriefMark.Right : DebriefMark.Wrong, "", fits ? null
                    : $"{ruling.Headline}. {ruling.Because}", null)
                { Why = [ruling.Reasons] };
            case "star-wheel-backed":
                return new(seq, a.Step, what, happened.Length == 0 ? DebriefMark.Right : DebriefMark.Wrong, "", null, null);
            default:
                var judged = whole.Log.Where(e => e.Seq > seq).Select(e => e.Event).OfType<StepDone>()
                    .FirstOrDefault(d => d.Step == a.Step);
                if (judged is not { Verdicts: [_, ..] verdicts }) return new(seq, a.Step, what, DebriefMark.Done, "", null, null);
                var engine = verdicts.Select(v => v.Verdict).MaxBy(Verdicts.Weight);
                var mark = Judge(a.Option, engine, TrulyPasses(scenario, side, a.Step.StepId));
                var hot = scenario.Truth.BrakesAt.DegreesCelsius > 35 && a.Step.StepId == "shoes-measured";
                return new(seq, a.Step, what, mark,
                    "The engine: " + string.Join("; ",
                        verdicts.Where(v => v.Verdict == engine).Select(v => $"{v.What} {v.Verdict.Words()}").Take(2)),
                    mark is DebriefMark.Wrong or DebriefMark.RightByLuck
                        ? TrapCatalogue.Of(hot ? TrapId.HotDrum : TrapId.WithinDoubt).Lesson : null,
                    mark is DebriefMark.RightByLuck or DebriefMark.Wrong && engine is Verdict.TooCloseToCall or Verdict.NotYetEnough
                        ? TrapId.WithinDoubt
                    : mark is DebriefMark.HonestError or DebriefMark.Wrong && hot ? TrapId.HotDrum : null)
                {
                    Why = [.. verdicts.Where(v => v.Verdict == engine).Select(v => v.Reasons).Take(2)],
                };
        }
    }

    /// <summary>True where a choice is what a ruling asks for.</summary>
    internal static bool Fits(string option, Ruling ruling) => option == OptionOf(ruling);

    /// <summary>The choice that a ruling asks for.</summary>
    internal static string OptionOf(Ruling ruling)
    {
        var way = ruling.Direction == Vehicles.TurnDirection.Anticlockwise ? "anticlockwise" : "clockwise";
        return ruling.Method switch
        {
            RetractMethod.TurnAndPush or RetractMethod.SpindleThenTurn => $"turn-{way}",
            RetractMethod.RearHexAndPush => $"hex-{way}",
            RetractMethod.OpposedPush => "push-pairs",
            RetractMethod.MakersProcedure => "leave",
            _ => "push",
        };
    }

    private static bool TrulyPasses(Scenario scenario, Side side, string stepId)
    {
        var (truth, sheet) = (scenario.Truth.At(side), scenario.Sheet);
        if (stepId == "shoes-measured") return truth.Drum is not { } drum || sheet.Drum?.Maximum is not { } most || drum <= most;
        var lining = sheet.Pads.MinimumLining ?? Pads.PadWear.DefaultMinimum;
        return Math.Min(truth.InnerPad.Millimeters, truth.OuterPad.Millimeters) - sheet.Pads.Backing.Millimeters >= lining.Millimeters
            && (sheet.Rotor.MinimumThickness is not { } least || truth.Rotor >= least);
    }

    private static List<ShownHere> Competences(Scenario scenario, PracticeRun run, JobState state, bool finished, List<DebriefLine> lines)
    {
        if (run.Way != PracticeWay.Alone || !finished || lines.Any(l => l.Mark is DebriefMark.Harm or DebriefMark.RightByLuck)) return [];
        // A hand that was lent shows what the lender can do.
        if (state.Log.Any(e => e.TechnicianId != state.Log[0].TechnicianId)) return [];
        var spoiled = lines.Select(l => l.Trap).OfType<TrapId>().Select(t => TrapCatalogue.Of(t).Trains).ToHashSet();
        return [.. scenario.Trains.Where(c => !spoiled.Contains(c)).Select(c => new ShownHere(c, c.Words()))];
    }
}

using PatientPawl.Core.Identification;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Practice;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Vehicles;

namespace PatientPawl.Core.Jobs;

/// <summary>
/// What an event is called, where it stands and what it says: one row for each type, read by the run sheet, the record, notices and
/// undoing alike.
/// </summary>
/// <param name="Event">The event's type.</param>
/// <param name="Wire">Its name in files and in the store, kept for ever.</param>
/// <param name="OnSheet">True when it stands among the finished rows of the run sheet.</param>
/// <param name="CanBeUndone">True when it can be undone with a reason: a step, a signature, a ruling, a stop sign, a report.</param>
public sealed record EventCard(Type Event, string Wire, bool OnSheet, bool CanBeUndone)
{
    private Func<JobEvent, string> Named { get; init; } = _ => "";
    private Func<JobEvent, Side?> At { get; init; } = _ => null;
    private Func<JobEvent, string> Said { get; init; } = _ => "";

    /// <summary>What was done, in a few words.</summary>
    public string Name(JobEvent e) => Named(e);

    /// <summary>The corner it belongs to; null for the car.</summary>
    public Side? Side(JobEvent e) => At(e);

    /// <summary>Figures and words that came of it; empty when there are none.</summary>
    public string Detail(JobEvent e) => Said(e);

    internal static EventCard For<T>(string wire, Func<T, string> name, Func<T, Side?> side, Func<T, string>? detail = null, bool onSheet = false, bool undo = false) where T : JobEvent =>
        new(typeof(T), wire, onSheet, undo) { Named = e => name((T)e), At = e => side((T)e), Said = e => detail?.Invoke((T)e) ?? "" };
}

/// <summary>The card of every event type.</summary>
public static class EventCatalogue
{
    /// <summary>All of them.</summary>
    public static IReadOnlyList<EventCard> All { get; } =
    [
        Card<JobOpened>("job-opened", _ => "Job opened", Car, e => e.Complaint),
        Card<LookOverDone>("look-over-done", _ => "Looked over", Car, onSheet: true, undo: true),
        Card<LookRecorded>("look-recorded", e => e.Seen is { } s ? LookCatalogue.Words(new Observation(e.Look, s)) : $"{e.Look.Card().Name}: taken back", e => e.Side),
        Card<BrakeRuled>("brake-ruled", _ => "Brake identified", e => e.Side, e => e.Ruling.Architecture.Words(), onSheet: true, undo: true),
        Card<RouteChosen>("route-chosen", _ => "Route chosen", Car, e => ServiceRoutes.Name(e.Route).ToLowerInvariant(), onSheet: true, undo: true),
        Card<StepDone>("step-done", e => StepName(e.Step), e => e.Step.Side, Figures, onSheet: true, undo: true),
        Card<TorqueSigned>("torque-signed", e => $"{StepName(e.Step)} {e.Index}", e => e.Step.Side, e => e.HandTight ? "hand-tight" : e.Verified ? $"{Figure.Of(e.Line.Wanted.NewtonMeters, 1)} N m" : "unverified", onSheet: true, undo: true),
        Card<ToolRefused>("tool-refused", _ => "Tool refused", e => e.Step.Side, e => e.Report.Words, onSheet: true),
        Card<StopSignSeen>("stop-sign-seen", _ => "Stop sign", e => e.Side, e => Join(RetractionRuling.Stop(e.Sign).Name.ToLowerInvariant(), e.Note), onSheet: true, undo: true),
        Card<StopSignSettled>("stop-sign-settled", e => $"{RetractionRuling.Stop(e.Sign).Name}: settled", e => e.Side, e => e.What, onSheet: true, undo: true),
        Card<PartsAwaited>("parts-awaited", _ => "Waits for parts", Car, e => Join(e.What, $"from {e.From}", e.Expected is { } day ? $"expected {Figure.Date(day)}" : null), onSheet: true, undo: true),
        Card<PartsCame>("parts-came", _ => "Parts came", Car, onSheet: true, undo: true),
        Card<FindingReported>("finding-reported", e => e.Kind.Card().Name, e => e.Side, e => e.Note ?? "", onSheet: true, undo: true),
        Card<GoalChanged>("goal-changed", e => e.Goal.Words(), Car, e => e.Reason, onSheet: true),
        Card<LeftOvernight>("left-overnight", _ => "Left overnight", Car, e => e.Kind == NightKind.Assembled ? "assembled" : "on stands", onSheet: true),
        Card<CameBack>("came-back", _ => "Came back", Car, onSheet: true),
        Card<PawlLifted>("pawl-lifted", _ => "Undone", Car, e => $"{e.Reason}; {e.Voided.Count} undone"),
        Card<WorksBeside>("works-beside", e => $"{e.Name} works beside somebody", Car),
        Card<NoteAdded>("note-added", _ => "Note", Car, e => e.Text),
        Card<PhotoTaken>("photo-taken", _ => "Photo", e => e.Side, e => e.Caption, onSheet: true, undo: true),
        Card<RoutineAsked>("routine-asked", e => $"Asked over the link: {StepName(e.Step).ToLowerInvariant()}", Car, e => e.Clear.Count > 0 ? $"hands clear: {string.Join(", ", e.Clear)}" : ""),
        Card<RoutineEnded>("routine-ended", e => e.Lost ? "Ended, not as asked" : e.Refused is null ? "Ended" : "Refused by the car", Car, e => Join(e.Words, e.CodesSay)),
        Card<TraceKept>("trace-kept", e => $"Current trace, {e.From}", e => e.Side, e => e.Reading.Name.ToLowerInvariant()),
        Card<PracticeAnswered>("practice-answered", e => $"Chosen: {StepName(e.Step).ToLowerInvariant()}", e => e.Step.Side, e => e.Says),
        Card<PracticeTried>("practice-tried", e => $"Picked: {StepName(e.Step).ToLowerInvariant()}", e => e.Step.Side, e => string.Join(" ", e.Because)),
        Card<PracticeLooked>("practice-looked", e => $"Touched: {e.Thing.Words()}", e => e.Side, e => e.Seen),
        Card<PracticeRead>("practice-read", e => $"Read: {ReadingCatalogue.Card(e.Kind).Name.ToLowerInvariant()}", e => e.Side, e => $"{Figure.Of(e.Value, 2)} {ReadingCatalogue.Card(e.Kind).Unit}".Trim()),
        Card<PracticeHelped>("practice-helped", _ => "Asked what is next", Car, e => e.Next is { } next ? StepName(next) : ""),
        Card<PracticeReturned>("practice-returned", _ => "Back to before", Car),
        Card<PracticeEnded>("practice-ended", _ => "Practice ended", Car),
        Card<ReadingsTaken>("readings-taken", _ => "Readings taken", e => e.Side, Readings),
        Card<ReadingStruck>("reading-struck", _ => "Reading struck out", e => e.Side, e => e.Reason),
        Card<ShoesLookedAt>("shoes-looked-at", _ => "Drum and shoes looked at", e => e.Side),
        Card<RotorLookedAt>("rotor-looked-at", _ => "Rotor looked at", e => e.Side),
        Card<PadsLookedAt>("pads-looked-at", _ => "Pads looked at", Car),
        Card<StarWheelNoted>("star-wheel-noted", _ => "Star wheel noted", e => e.Side, e => $"{Small(e.Loosens)} loosens it, hole at {e.HoleAt} o'clock"),
        Card<RetractionPointNoted>("retraction-point-noted", e => e.Point.Released ? "Piston, tool released" : "Piston followed", e => e.Side, Point),
        Card<RetractionPointStruck>("retraction-point-struck", _ => "Line of the log struck out", e => e.Side, e => e.Reason),
        Card<CaliperTried>("caliper-tried", e => e.Passes ? "Caliper tried: passes over" : "Caliper tried: does not pass", e => e.Side, e => $"{Figure.Of(e.Turns, 2)} made"),
        Card<RetractionLookedAt>("retraction-looked-at", _ => "Piston looked at", e => e.Side, Piston),
        Card<PistonsMeasured>("pistons-measured", _ => "Pistons measured", e => e.Side,
            e => string.Join(", ", e.Pistons.Select(x => $"{CreepWatch.Name(x.Bank, x.Number).ToLowerInvariant()} {Figure.Of(x.Proud.Millimeters, 2)} mm"))),
        Card<FluidLookedAt>("fluid-looked-at", _ => "Fluid looked at", Car, e => e.Facts.WaterPercent is { } water ? $"{Figure.Of(water, 1)} % water" : ""),
        Card<BleedDrawn>("bleed-drawn", _ => "Fluid drawn at the screw", e => e.Side, Draw),
        Card<BleedDrawStruck>("bleed-draw-struck", _ => "Draw struck out", e => e.Side, e => e.Reason),
        Card<LeaksLookedAt>("leaks-looked-at", _ => "Leaks looked for", Car, Leaks),
        Card<BedInDriven>("bed-in-driven", _ => "Bed-in driven", Car, e => $"{e.Driven} of {Figure.Count(e.Facts.Series.Stops, "stop")}"),
        Card<ParkingHoldTried>("parking-hold-tried", _ => "Parking brake tried", Car, e => e.Verdict.Words()),
    ];

    private static readonly Dictionary<Type, EventCard> ByType = All.ToDictionary(c => c.Event);

    /// <summary>The card of an event.</summary>
    public static EventCard Card(this JobEvent e)
    {
        ArgumentNullException.ThrowIfNull(e);
        return ByType[e.GetType()];
    }

    /// <summary>An event in a few words, with its corner.</summary>
    public static string Words(this JobEvent e)
    {
        var card = e.Card();
        return card.Side(e) is { } side ? $"{card.Name(e)}, {side.Word()}" : card.Name(e);
    }

    private static EventCard Card<T>(string wire, Func<T, string> name, Func<T, Side?> side, Func<T, string>? detail = null, bool onSheet = false, bool undo = false) where T : JobEvent =>
        EventCard.For(wire, name, side, detail, onSheet, undo);

    private static Side? Car(JobEvent e) => null;

    private static string StepName(StepKey step) => StepCatalogue.Find(step.StepId)?.Name ?? step.StepId;

    private static string Figures(StepDone e) => e switch
    {
        { Broken: not null } => "out of order",
        { Outcome: { } outcome, Findings: not { Count: > 0 } } when StepCatalogue.Find(e.Step.StepId)?.Outcomes.FirstOrDefault(o => o.Id == outcome) is { Reckoned: false } found => found.Says.ToLowerInvariant(),
        { Findings: { Count: > 0 } f } => string.Join(" ", f.Select(x => x.Says)),
        { Clearance: { } c } => $"{Figure.Of(c.After.Millimeters, 2)} mm left",
        { Travel: { } t } => $"{Figure.Of(t.Travel.Millimeters, 1)} mm to go",
        { Readings: { Count: > 0 } r } => string.Join(", ", r.Select(x => $"{Figure.Of(x.Value)} {x.Kind.Card().Unit}")),
        { Verdicts: { Count: > 0 } v } => string.Join(", ", v.Select(x => $"{(x.Subject?.Short ?? x.What).ToLowerInvariant()} {Figure.Of(x.Value.Millimeters, 2)}")),
        { Report: { } r } => r.Words,
        _ => "",
    };

    private static string Readings(ReadingsTaken e) => string.Join("; ", e.Readings.GroupBy(r => (r.Measurand, r.Instrument.Name))
        .Select(g => $"{g.Key.Measurand.Card().Name.ToLowerInvariant()} {string.Join(", ", g.Select(r => Figure.Of(r.Value.Millimeters)))} mm, {g.Key.Name.ToLowerInvariant()}"));

    private static string Point(RetractionPointNoted e) =>
        $"{Figure.Of(e.Point.Turns, 2)} made, {Figure.Of(e.Point.Protrusion.Millimeters, 2)} mm proud{(e.Point.Effort is { } effort ? $", {Figure.Of(effort.NewtonMeters, 1)} N m" : "")}, {e.Gauge.Name.ToLowerInvariant()}";

    private static string Piston(RetractionLookedAt e) => Join(e.Facts.SlotAt is { } slot ? $"slot at {Figure.Of(slot.Degrees)}°" : null, e.Facts.Boot is { } boot ? $"boot {Small(boot)}" : null,
        e.Facts.PressedHarder ? "pressed harder" : null, e.Facts.OtherWayTried ? "other direction tried" : null);

    private static string Draw(BleedDrawn e) => Join($"{Figure.Of(e.Draw.Volume.Milliliters, 1)} mL", e.Draw.Bubbles ? "bubbles" : null, e.Draw.ColourChanged ? "colour changed" : null, e.Draw.Clear ? "clear" : null, e.Draw.Filled ? "filled" : null);

    private static string Leaks(LeaksLookedAt e) =>
        Join($"held {e.Seen.HeldSeconds} s", e.Seen.Sank ? "sank" : null, Dry("pipes", "sound", e.Seen.Pipes), Dry("screws", "dry", e.Seen.ScrewDry), Dry("banjos", "dry", e.Seen.BanjoDry));

    private static string? Dry(string what, string good, Known seen) => seen == Known.NotKnown ? null : $"{what} {(seen == Known.Yes ? "" : "not ")}{good}";

    private static string Small<T>(T value) where T : struct, Enum => value.ToString().ToLowerInvariant();

    internal static string Join(params string?[] parts) => string.Join("; ", parts.Where(p => !string.IsNullOrEmpty(p)));
}

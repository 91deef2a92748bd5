using System.Collections.Immutable;
using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Proving;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Shoes;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Jobs;

/// <summary>What is known of one corner.</summary>
/// <param name="Looks">The observations that stand.</param>
/// <param name="Ruled">The ruling, once made.</param>
/// <param name="Travel">How far, once measured.</param>
/// <param name="Verdicts">Verdicts, once judged.</param>
/// <param name="Stop">The stop sign that holds this corner, if any.</param>
/// <param name="Readings">Every reading at points, struck ones too.</param>
/// <param name="Struck">Readings struck out, with the reason.</param>
/// <param name="Shoes">What is known of drum and shoes.</param>
/// <param name="Rotor">What is known of the rotor.</param>
/// <param name="StarWheel">Which way loosened the star wheel.</param>
/// <param name="ShoeVerdicts">Verdicts on drum and linings, once clicked on.</param>
public sealed record CornerFile(
    ImmutableSortedDictionary<Look, LookRecorded> Looks, BrakeRuled? Ruled, TravelResult? Travel, IReadOnlyList<LimitVerdict> Verdicts, StopSignSeen? Stop,
    ImmutableList<PointReading> Readings, ImmutableDictionary<Guid, string> Struck, ShoeFacts? Shoes, RotorFacts? Rotor, StarWheelNoted? StarWheel, IReadOnlyList<LimitVerdict> ShoeVerdicts)
{
    /// <summary>Every line of the retraction log with its gauge, struck ones too.</summary>
    public ImmutableList<RetractionPointNoted> Log { get; init; } = [];

    /// <summary>Every try of the caliper over its new pads, in order.</summary>
    public ImmutableList<CaliperTried> Tries { get; init; } = [];

    /// <summary>What is known of the retraction beside its log.</summary>
    public RetractionFacts Retraction { get; init; } = RetractionFacts.None;

    /// <summary>Draws at the bleed screw, in order, struck ones too.</summary>
    public ImmutableList<BleedDraw> AllDraws { get; init; } = [];

    /// <summary>The draws that stand.</summary>
    public IReadOnlyList<BleedDraw> Draws => Struck.IsEmpty ? AllDraws : [.. AllDraws.Where(d => !Struck.ContainsKey(d.Id))];

    /// <summary>Rounds of measuring every piston of an opposed caliper, in order.</summary>
    public ImmutableList<IReadOnlyList<PistonProud>> Pistons { get; init; } = [];

    /// <summary>True from the piston going back until the pedal has brought it up again.</summary>
    public bool StandsOff { get; init; }

    /// <summary>The reservoir's level at the first draw, per cent; null before it.</summary>
    public double? LevelPercent { get; init; }

    /// <summary>The lines of the retraction log that stand.</summary>
    public IReadOnlyList<LogPoint> LogPoints() => [.. Log.Where(p => !Struck.ContainsKey(p.Point.Id)).Select(p => p.Point)];

    /// <summary>The readings that stand.</summary>
    public IReadOnlyList<PointReading> Standing() => Struck.IsEmpty ? Readings : [.. Readings.Where(r => !Struck.ContainsKey(r.Id))];

    /// <summary>Nothing known.</summary>
    public static CornerFile Empty { get; } = new(ImmutableSortedDictionary<Look, LookRecorded>.Empty, null, null, [], null, [], ImmutableDictionary<Guid, string>.Empty, null, null, null, []);
}

/// <summary>When a hold was met.</summary>
/// <param name="At">The server's clock.</param>
/// <param name="Steps">How many steps had been done by then.</param>
public sealed record HoldMet(DateTimeOffset At, int Steps);

/// <summary>Parts that a job waits for.</summary>
/// <param name="What">For what.</param>
/// <param name="From">From where.</param>
/// <param name="Expected">When they are expected; null when nobody knows.</param>
/// <param name="Since">Since when, by the client's clock.</param>
/// <param name="EventId">The event that says so.</param>
public sealed record AwaitedParts(string What, string From, DateOnly? Expected, DateTimeOffset Since, Guid EventId);

/// <summary>The state of a job: everything shown is computed from this, and this from the events alone. Immutable.</summary>
public sealed class JobState
{
    private readonly Lazy<(ImmutableArray<StepKey> Steps, IReadOnlyList<string> Cannot)> _plan;

    private JobState(JobFile parts, ImmutableArray<StepKey>? remaining)
    {
        Now = parts;
        _plan = remaining is { } known
            ? new((known, []))
            : new(() =>
            {
                // The hand-over ends it: whatever is found out afterwards is another job, or lifts the hand-over.
                if (parts.Car.Get(Planning.Car.HandedOver) == Done.Yes) return ([], []);
                var plan = Planner.Make(parts.Setup, parts.Car);
                return ([.. plan.Steps], plan.CannotBeMet);
            });
    }

    private JobFile Now { get; }

    /// <summary>The opening event; null in an empty state.</summary>
    public JobOpened? Opened => Now.Opened;
    /// <summary>Version: the seq of the last event.</summary>
    public int Version => Now.Log.IsEmpty ? 0 : Now.Log[^1].Seq;
    /// <summary>Every event, voided ones too.</summary>
    public ImmutableList<RecordedEvent> Log => Now.Log;
    /// <summary>Ids of voided events.</summary>
    public ImmutableHashSet<Guid> Voided => Now.Voided;
    /// <summary>Events that stand.</summary>
    public IEnumerable<RecordedEvent> Standing => Now.Log.Where(e => !Now.Voided.Contains(e.Id));
    /// <summary>What the plan is made for.</summary>
    public PlanSetup Setup => Now.Setup;
    /// <summary>The state of the car.</summary>
    public CarState Car => Now.Car;
    /// <summary>The route, once chosen.</summary>
    public ServiceRoute? Route => Now.Setup.Route;
    /// <summary>The reservoir: by its sides where somebody measured them, or else by the sheet.</summary>
    internal Vehicles.ReservoirSpec Reservoir => Now.Reservoir!;

    /// <summary>Reservoir level in per cent of the band, as last read and carried forward; null before the first look.</summary>
    public double? LevelPercent => Now.LevelPercent is { } level ? Math.Max(level, 0) : null;
    /// <summary>What was seen at the leak check, until its step is clicked on; null before.</summary>
    public LeakInput? Leaks => Now.Leaks;

    /// <summary>The bed-in that was driven last; null when none was noted.</summary>
    public BedInDriven? BedIn => Now.BedIn;

    /// <summary>What the parking brake was last tried by; null when it was not.</summary>
    public ParkingHoldTried? Hold => Now.Hold;
    /// <summary>True where a banjo was undone in this job.</summary>
    public bool BanjoUndone => Core.Sides.Both.Any(s => Car.Get(Planning.Corner.Hose, s) != HoseState.On);
    /// <summary>Battery voltage as last read.</summary>
    public double? BatteryVolts => Now.BatteryVolts;
    /// <summary>The workshop's instruments as they were copied into the job.</summary>
    public IReadOnlyList<Instrument> Instruments => Now.Opened?.Instruments ?? InstrumentCatalogue.Defaults;
    /// <summary>What is known of the pads beside their readings.</summary>
    public PadFacts? PadFacts => Now.PadFacts;
    /// <summary>What is known of the fluid beside its level.</summary>
    public FluidFacts Fluid => Now.Fluid;
    /// <summary>What was found that changes the job, in order.</summary>
    public ImmutableList<SidedFinding> Findings => Now.Findings;
    /// <summary>How the plan changed on the way, in order.</summary>
    public ImmutableList<PlanChange> Changes => Now.Changes;
    /// <summary>How the job was left, while it is left.</summary>
    public LeftOvernight? Night => Now.Night;
    /// <summary>Parts that are waited for; null when none are.</summary>
    public AwaitedParts? Awaits => Now.Awaits is var (what, at) ? new(what.What, what.From, what.Expected, at.At, at.Id) : null;
    /// <summary>What was asked over a link and has not ended; null where nothing is under way.</summary>
    internal RecordedEvent? Running => Now.Running;
    /// <summary>Holds met so far.</summary>
    public ImmutableDictionary<string, HoldMet> HoldsMet => Now.HoldsMet;
    /// <summary>The remaining steps in order.</summary>
    public ImmutableArray<StepKey> Remaining => _plan.Value.Steps;
    /// <summary>What no order can reach from here, in words.</summary>
    public IReadOnlyList<string> CannotBeMet => _plan.Value.Cannot;
    /// <summary>True once the car was handed over.</summary>
    public bool HandedOver => Car.Get(Planning.Car.HandedOver) == Done.Yes;

    /// <summary>A corner's file.</summary>
    public CornerFile Corner(Side side) => side == Side.Left ? Now.Left : Now.Right;

    /// <summary>The signatures a torque step has so far; none once it is finished, so that a step that comes round again starts anew.</summary>
    public IReadOnlyList<TorqueSigned> Signatures(StepKey step) => Now.Signed.TryGetValue(step, out var signed) ? signed : [];

    /// <summary>True when a straight push proves something: the mechanism is known to be relaxed.</summary>
    public bool MechanismRelaxed(Side side) => Setup.IsMotor ? Car.Get(Planning.Corner.Spindle, side) == Spindle.Back
        : Setup.HasLever ? Car.Get(Planning.Car.Cable) == CableRun.Slack && Car.Get(Planning.Corner.Lever, side) == Lever.OnStop
        : Setup.Identified;

    /// <summary>Minutes of the plan that is left, for one technician.</summary>
    internal int MinutesLeft => Times.Minutes(Remaining);

    /// <summary>How long steps take, as the workshop knew it when the job was opened.</summary>
    public StepTimes Times => field ??= StepTimes.Of(Opened?.Minutes);

    /// <summary>The job's own instruments, by their figures as it was opened, with the calibration that they have on the tool board now.</summary>
    public ToolBoard Own(ToolBoard board)
    {
        ArgumentNullException.ThrowIfNull(board);
        return board with { Instruments = [.. Instruments.Select(i => InstrumentCatalogue.Find(board.Instruments, i.Id) is { } now ? i with { CalibratedUntil = now.CalibratedUntil } : i)] };
    }

    /// <summary>What is known of a corner's rotor beside its readings; before anyone wrote any, as many studs as the sheet has wheel nuts.</summary>
    public RotorFacts RotorFacts(Side side) => Corner(side).Rotor
        ?? Rotors.RotorFacts.None with { Studs = Math.Clamp(Opened!.Sheet.Line(Torque.FastenerRole.Wheel)?.PerCorner ?? 5, 3, 10) };

    /// <summary>True where pistons were seen on both sides of the rotor.</summary>
    internal bool SeenOpposed(Side side) => Observations(side).Contains(new(Look.OpposedPistons, Seen.Yes));

    /// <summary>How many rotor screws of a corner were left out in this job.</summary>
    internal int ScrewsLeftOut(Side side) => Standing.Count(e => e.Event is StepDone { Step.StepId: "screw-decided" } d && d.Step.Side == side && d.Found is null or "others-hold");

    /// <summary>The sheet's fastener line at a corner; of rotor screws those that were left out are not among them. Null where the sheet has none.</summary>
    internal Torque.TorqueLine? LineAt(Torque.FastenerRole role, Side? side) =>
        Opened?.Sheet.Line(role) is { } line
            ? role == Torque.FastenerRole.RotorScrew && side is { } at && ScrewsLeftOut(at) is > 0 and var left ? line with { PerCorner = Math.Max(line.PerCorner - left, 1) } : line
            : null;

    /// <summary>The photos that stand, in order.</summary>
    public IReadOnlyList<PhotoTaken> Photos => [.. Standing.Select(e => e.Event).OfType<PhotoTaken>()];

    /// <summary>The observations that stand at a corner.</summary>
    public IReadOnlyList<Observation> Observations(Side side) => [.. Corner(side).Looks.Values.Select(l => new Observation(l.Look, l.Seen!.Value))];

    /// <summary>Folds events, in order of seq. Never re-checks rules and never fails on an event it can read.</summary>
    public static JobState Fold(IEnumerable<RecordedEvent> events)
    {
        var log = events.ToImmutableList();
        var lifts = log.Select(e => e.Event).OfType<PawlLifted>().ToArray();
        var state = new JobState(JobFile.Empty with { Voided = [.. lifts.SelectMany(l => l.Voided)], Kept = [.. lifts.SelectMany(l => l.Done ?? [])] }, []);
        return log.Aggregate(state, (s, e) => s.Step(e));
    }

    /// <summary>The state with one more event.</summary>
    public JobState With(RecordedEvent recorded)
    {
        ArgumentNullException.ThrowIfNull(recorded);
        return recorded.Event is PawlLifted ? Fold(Log.Add(recorded)) : Step(recorded);
    }

    /// <summary>The state with one more event, a step that was done although one before it was not where <paramref name="kept"/> says so.</summary>
    internal JobState With(RecordedEvent recorded, bool kept) => kept ? new JobState(Now with { Kept = Now.Kept.Add(recorded.Id) }, null).With(recorded) : With(recorded);

    /// <summary>What these of the job's own events make, without the others.</summary>
    internal JobState Before(IEnumerable<RecordedEvent> standing) => standing.Aggregate(new JobState(JobFile.Empty with { Kept = Now.Kept }, []), (s, e) => s.Step(e));

    private JobState Step(RecordedEvent recorded)
    {
        var next = Now with { Log = Now.Log.Add(recorded) };
        return Now.Voided.Contains(recorded.Id) ? Same(next) : recorded.Event switch
        {
            JobOpened e => Replan(next with { Opened = e, Setup = StartSetup(e), Car = StartSetup(e).Start() }),
            LookOverDone e => LookedOver(next, e),
            LookRecorded e => Same(next.WithCorner(e.Side, c => c with { Looks = e.Seen is null ? c.Looks.Remove(e.Look) : c.Looks.SetItem(e.Look, e) })),
            BrakeRuled e => Ruled(next, e),
            RouteChosen e => Chosen(next, e),
            GoalChanged e => Changed(Replan(next with { Setup = next.Setup with { Goal = e.Goal }, Wanted = e.Goal is JobGoal.Finish or JobGoal.CloseUp ? e.Goal : next.Wanted }), recorded.Id, $"{e.Goal.Words()}: {e.Reason}.", null),
            StepDone e when Now.Kept.Contains(recorded.Id) => Replan(Kept(Measured(next, e), e.Step, e.Found)),
            TorqueSigned e when Now.Kept.Contains(recorded.Id) => Replan(KeptSignature(next, e)),
            StepDone { Broken: { } broken } e => OutOfOrder(Measured(next, e), e, broken, recorded.Id),
            StepDone e => Told(Found(Clicked(Measured(next, e), e.Step, e.Found, recorded), e, recorded.Id), e, recorded.Id),
            TorqueSigned e => Signed(next, e, recorded),
            ReadingsTaken e => Same(next.WithCorner(e.Side, c => c with { Readings = c.Readings.AddRange(e.Readings) })),
            ReadingStruck e => Same(next.WithCorner(e.Side, c => c with { Struck = c.Struck.SetItem(e.ReadingId, e.Reason) })),
            ShoesLookedAt e => Same(next.WithCorner(e.Side, c => c with { Shoes = e.Facts })),
            RotorLookedAt e => Same(next.WithCorner(e.Side, c => c with { Rotor = e.Facts })),
            StarWheelNoted e => Same(next.WithCorner(e.Side, c => c with { StarWheel = e })),
            PadsLookedAt e => Same(next with { PadFacts = e.Facts }),
            RetractionPointNoted e => Same(next.WithCorner(e.Side, c => c with { Log = c.Log.Add(e) })),
            RetractionPointStruck e => Same(next.WithCorner(e.Side, c => c with { Struck = c.Struck.SetItem(e.PointId, e.Reason) })),
            CaliperTried e => Same(next.WithCorner(e.Side, c => c with { Tries = c.Tries.Add(e) })),
            RetractionLookedAt e => Same(next.WithCorner(e.Side, c => c with { Retraction = e.Facts })),
            FluidLookedAt e => Same(next with { Fluid = e.Facts }),
            BleedDrawn e => Same(Drawn(next, e)),
            BleedDrawStruck e => Same(DrawStruck(next, e)),
            LeaksLookedAt e => Same(next with { Leaks = e.Seen }),
            BedInDriven e => Same(next with { BedIn = e }),
            ParkingHoldTried e => Same(next with { Hold = e }),
            PistonsMeasured e => Same(next.WithCorner(e.Side, c => c with { Pistons = c.Pistons.Add(e.Pistons) })),
            StopSignSeen { Holds: true } e => Replan(Moved(next, CircuitOf(next, e.Side).With(Planning.Corner.Piston, e.Side, Piston.Stuck)).WithCorner(e.Side, c => c with { Stop = e })),
            StopSignSeen e when next.Setup.Rules.FluidRoom == FluidRoomRule.OpenBleeder => Replan(Moved(next, CircuitOf(next, e.Side))),
            StopSignSettled e => Replan(Moved(next, Settled(next.Car, e)).WithCorner(e.Side, c => c with { Stop = null })),
            PartsAwaited e => Same(next with { Awaits = (e, recorded) }),
            PartsCame => Same(next with { Awaits = null }),
            FindingReported e => Reported(next, e, recorded.Id),
            RoutineAsked => Same(next with { Running = recorded }),
            RoutineEnded { Lost: true } e => Lost(next with { Running = null }, e, recorded.Id),
            RoutineEnded => Same(next with { Running = null }),
            LeftOvernight e => Same(next with { Night = e }),
            CameBack => Replan(Doubtful(next with { Night = null })),
            PawlLifted e => Replan(Doubted(next, e)),
            _ => Same(next),
        };
    }

    /// <summary>Where the house pushes with the bleed screw open, a push that stopped half-way leaves its circuit open.</summary>
    private static CarState CircuitOf(JobFile now, Side side) => now.Setup.Rules.FluidRoom != FluidRoomRule.OpenBleeder ? now.Car
        : now.Car.With(Planning.Corner.Hydraulics, side, HydraulicsState.Open).With(Planning.Corner.BleedScrew, side, Bolts.Snug);

    /// <summary>The piston goes on; what may have been loaded behind it is looked at first.</summary>
    private static CarState Settled(CarState car, StopSignSettled e)
    {
        car = car.With(Planning.Corner.Piston, e.Side, Piston.Out);
        if (e.Sign == StopSign.BootTwists) return car;
        if (car.Get(Planning.Corner.Lever, e.Side) == Lever.OnStop) car = car.With(Planning.Corner.Lever, e.Side, Lever.NotSeen);
        return car.Get(Planning.Corner.Spindle, e.Side) == Spindle.Back ? car.With(Planning.Corner.Spindle, e.Side, Spindle.Unknown) : car;
    }

    private JobState Same(JobFile parts) => new(parts, _plan.IsValueCreated && CannotBeMet.Count == 0 ? Remaining : null);

    private static JobState Replan(JobFile parts) => new(parts, null);

    private static PlanSetup StartSetup(JobOpened e) =>
        (e.NewCalipers ?? []).Aggregate((PlanSetup.For(null, e.Scope) with { Rules = e.Rules }).WithSheet(e.Sheet), (setup, side) => setup.With(side, c => c with { CaliperNew = true }));

    private static JobFile Resetup(JobFile parts, PlanSetup setup) => parts with { Setup = setup, Car = setup.Reveal(parts.Car, parts.Setup) };

    /// <summary>The car with something changed that no step did: proofs that rested on it fall, and half-signed rounds with them.</summary>
    private static JobFile Moved(JobFile parts, CarState car) => Unsigned(parts with { Car = Planner.Moved(parts.Setup, parts.Car, car) }, parts.Car);

    private static JobState LookedOver(JobFile next, LookOverDone e)
    {
        var simulated = e.Answers.Any(a => a is { Id: LookOverQuestions.SimulatedPedal, Answer: LookOverAnswer.Yes });
        var parts = Resetup(next, next.Setup with { SimulatedPedal = simulated });
        // Nothing but a plain no rules it out; an older job was not asked.
        var ruledOut = e.Answers.Any(a => a is { Id: LookOverQuestions.SelfPressurising, Answer: LookOverAnswer.No });
        var unsound = e.Answers.Any(a => a is { Id: LookOverQuestions.Pipes, Answer: LookOverAnswer.No });
        return Replan(parts with
        {
            Car = parts.Car.With(Planning.Car.LookedOver, Done.Yes)
                .With(Planning.Car.SelfPressure, ruledOut ? SelfPressure.RuledOut : SelfPressure.NotRuledOut)
                .With(Planning.Car.Pipes, unsound ? Asked.Due : Asked.Nothing),
        });
    }

    private static JobState Ruled(JobFile next, BrakeRuled e)
    {
        var looks = next.Corner(e.Side).Looks;
        bool Saw(Look look, params Seen[] seen) => looks.TryGetValue(look, out var l) && l.Seen is { } s && seen.Contains(s);
        Actuation? worked = Saw(Look.PlateMotor, Seen.Yes) ? Actuation.PlateMotor : Saw(Look.PullerBox, Seen.Yes) ? Actuation.Puller
            : Saw(Look.CabinControl, Seen.Switch) ? Actuation.CaliperMotor : Saw(Look.CabinControl, Seen.HandLever, Seen.FootPedal) ? Actuation.Cable : null;
        var setup = next.Setup.With(e.Side, c => c with { Architecture = e.Ruling.Architecture, MethodUndecided = e.MethodUndecided, Opposed = Saw(Look.OpposedPistons, Seen.Yes), Worked = worked });
        var parts = Resetup(next, setup).WithCorner(e.Side, c => c with { Ruled = e });
        return Replan(parts with { Car = parts.Car.With(Planning.Corner.Identified, e.Side, Done.Yes) });
    }

    private static JobState Chosen(JobFile next, RouteChosen e)
    {
        var parts = Resetup(next, next.Setup with { Route = e.Route });
        return Replan(parts with { Car = parts.Car.With(Planning.Car.Route, Planning.Route.Chosen) });
    }

    private JobState Clicked(JobFile next, StepKey step, string? outcome, RecordedEvent recorded)
    {
        ImmutableArray<StepKey>? rest = null;
        if (outcome is null && CannotBeMet.Count == 0 && Planner.After(Now.Setup, Now.Car, Remaining, step) is { } after) rest = [.. after];
        var car = Planner.Apply(Now.Setup, Now.Car, step, outcome);
        var done = Unsigned(next with { Car = car, Steps = next.Steps + 1 }, Now.Car);
        foreach (var hold in Holds.All)
        {
            if (!done.HoldsMet.ContainsKey(hold.Id) && hold.Applies(done.Setup) && hold.Met(done.Setup, car))
                done = done with { HoldsMet = done.HoldsMet.Add(hold.Id, new(recorded.At, done.Steps)) };
        }

        return new(done, rest);
    }

    /// <summary>A step that was done although one before it was not: what it did to the metal and what was seen at it is so, and it proves nothing.</summary>
    private JobFile Kept(JobFile next, StepKey step, string? outcome) =>
        Unsigned(next with { Car = Planner.Kept(Now.Setup, Now.Car, step, outcome), Steps = next.Steps + 1 }, Now.Car);

    private JobFile KeptSignature(JobFile next, TorqueSigned e)
    {
        var signed = Signatures(e.Step).Append(e).Select(t => t.Index).Distinct().Count() >= e.Line.PerCorner;
        next = next with { Signed = signed ? next.Signed.Remove(e.Step) : next.Signed.SetItem(e.Step, [.. Signatures(e.Step), e]) };
        if (!e.Verified) next = Moved(next, next.Car.With(Planning.Car.Acceptance, Acceptance.Waiting));
        return signed ? Kept(next, e.Step, null) : next;
    }

    /// <summary>
    /// A fastener that is loosened, or whose part comes off, has no signature left: not of some of its bolts either. What was signed stays
    /// in the record; the next round asks for every one of them.
    /// </summary>
    private static JobFile Unsigned(JobFile now, CarState before)
    {
        var catalogue = CompiledCatalogue.For(now.Setup);
        foreach (var half in now.Signed.Keys)
        {
            if (catalogue.Find(half) is not { Makes: [var (bolts, _), ..] }) continue;
            var off = catalogue.Proofs.Where(p => p.Slot == bolts).SelectMany(p => p.While).Any(w => (w.Mask & 1u << now.Car[w.Slot]) == 0);
            if (off || before[bolts] != now.Car[bolts]) now = now with { Signed = now.Signed.Remove(half) };
        }

        return now;
    }

    /// <summary>What did not pass is renewed on both sides; what is in doubt holds its corner until it is settled.</summary>
    private JobState Found(JobState clicked, StepDone e, Guid id)
    {
        if (e.Findings is not { Count: > 0 } findings || e.Step.Side is not { } side) return clicked;
        var parts = clicked.Now with { Findings = clicked.Findings.AddRange(findings.Select(f => new SidedFinding(side, f))) };
        bool Renew(params Part[] which) => findings.Any(f => f.Verdict == Verdict.Outside && which.Contains(f.Part));
        var setup = parts.Setup;
        foreach (var (unfit, found) in new[]
        {
            (Planning.Car.UnfitRotors, Renew(Part.Rotor, Part.Drum)), (Planning.Car.UnfitShoes, Renew(Part.Shoes)), (Planning.Car.UnfitPads, Renew(Part.Pads)),
        })
        {
            if (found && parts.Car.Get(unfit) == Asked.Nothing) parts = parts with { Car = parts.Car.With(unfit, Asked.Due) };
        }

        // An inspection finds and advises; nothing is renewed in it.
        if (setup.InspectOnly) return Changed(Replan(parts), id, Said(side, findings), e.Step);
        parts = Resetup(parts, setup with
        {
            RotorFound = setup.RotorFound || Renew(Part.Rotor, Part.Drum),
            ShoesFound = setup.ShoesFound || Renew(Part.Shoes),
            PadsFound = setup.PadsFound || Renew(Part.Pads),
            HubFound = setup.HubFound || Renew(Part.HubFace),
        });
        if (findings.Any(f => f.Verdict is Verdict.TooCloseToCall or Verdict.NotYetEnough)) parts = Moved(parts, parts.Car.With(Planning.Corner.Doubt, side, Doubt.Open));
        return Changed(Replan(parts), id, Said(side, findings), e.Step);
    }

    private static string Said(Side side, IReadOnlyList<Finding> findings) => $"{Phrase.Capital(side.Word())}: {string.Join(" ", findings.Select(f => f.Says))}";

    /// <summary>An outcome that is a finding changes what is wanted; a step that nobody had planned shows what it changed.</summary>
    private JobState Told(JobState done, StepDone e, Guid id)
    {
        if (CompiledCatalogue.For(Now.Setup).Find(e.Step) is not { } bound) return done;
        if (e.Found is { } found && Array.Find(bound.Outcomes, o => o.Type.Id == found)?.Type.Reports is { } kind) return Reported(done.Now, new(kind, e.Step.Side, null), id);
        return bound.Type.ByChoice != ByChoice.Never && !Remaining.Contains(e.Step) ? Changed(Replan(done.Now), id, $"{StepCatalogue.Words(e.Step)}: by choice.", e.Step) : done;
    }

    /// <summary>What was done stays done; what is behind it may have to be opened again.</summary>
    private JobState Reported(JobFile next, FindingReported e, Guid id)
    {
        var parts = Resetup(next, FindingRules.Onto(next.Setup, e.Kind, e.Side));
        // What is found late undoes the hand-over.
        parts = parts with { Car = parts.Car.With(Planning.Car.HandedOver, Done.No) };
        parts = Moved(parts, FindingRules.Onto(parts.Setup, parts.Car, e.Kind, e.Side));
        if (e is { Kind: FindingKind.StuckPiston, Side: { } side }) parts = parts.WithCorner(side, c => c with { Stop = null });
        return Changed(Replan(parts), id, $"{(e.Side is { } s ? $"{(s == Side.Left ? "Left" : "Right")}: {e.Kind.Card().Name.ToLowerInvariant()}" : e.Kind.Card().Name)}. {e.Kind.Card().Does}", null);
    }

    /// <summary>
    /// A motor that did not end as it was asked to: nobody knows where the spindles stand, and the plan asks to look. Where only one stayed in
    /// service, the step that follows says so.
    /// </summary>
    private JobState Lost(JobFile next, RoutineEnded e, Guid id)
    {
        var car = CompiledCatalogue.For(next.Setup).With(next.Car, Planning.Steps.MakeSafe.NobodyKnows);
        if (car.Get(Planning.Car.Closing) != Closing.AsItCame) car = car.With(Planning.Car.Closing, Closing.Open);
        return Changed(Replan(Moved(next, car)), id, $"{e.Words} Nobody knows how the brake stands: it is looked at.", null);
    }

    /// <summary>A step done before its turn: what anyone can see of it is so, the rest is in doubt and looked at.</summary>
    private JobState OutOfOrder(JobFile next, StepDone e, IReadOnlyList<int> broken, Guid id)
    {
        var car = Planner.OutOfOrder(Now.Setup, Now.Car, e.Step, broken);
        var says = broken.Count == 0 ? "Done before its turn." : string.Join(" ", Interlocks.All.Where(i => broken.Contains(i.Number)).Select(i => i.Remedy));
        return Changed(Replan(Unsigned(next with { Car = car, Steps = next.Steps + 1 }, Now.Car)), id, $"{StepCatalogue.Find(e.Step.StepId)?.Name ?? e.Step.StepId} out of order. {says}", e.Step);
    }

    /// <summary>Notes how the plan differs from the one before.</summary>
    private JobState Changed(JobState after, Guid id, string because, StepKey? just)
    {
        var before = Remaining.ToList();
        if (just is not null) before.Remove(just);
        var now = after.Remaining;
        var done = Standing.Select(r => r.Event switch { StepDone s => s.Step, TorqueSigned t => t.Step, _ => null }).OfType<StepKey>().ToHashSet();
        if (just is not null) done.Add(just);
        var added = now.Where(k => !before.Contains(k)).Distinct().ToArray();
        var change = new PlanChange(id, because, added, [.. before.Where(k => !now.Contains(k)).Distinct()], [.. added.Where(done.Contains)]);
        return new(after.Now with { Changes = after.Changes.Add(change) }, after.CannotBeMet.Count == 0 ? after.Remaining : null);
    }

    /// <summary>In the morning the job goes on to where it was going, with what a night can change looked at again.</summary>
    private static JobFile Doubtful(JobFile parts)
    {
        var goal = parts.Setup.Goal.IsNight() ? parts.Wanted : parts.Setup.Goal;
        return Unsigned(parts with { Setup = parts.Setup with { Goal = goal }, Car = Overnight.InTheMorning(parts.Setup, parts.Car) }, parts.Car);
    }

    private JobState Signed(JobFile next, TorqueSigned e, RecordedEvent recorded)
    {
        var signed = Signatures(e.Step).Append(e).Select(t => t.Index).Distinct().Count();
        next = next with { Signed = signed < e.Line.PerCorner ? next.Signed.SetItem(e.Step, [.. Signatures(e.Step), e]) : next.Signed.Remove(e.Step) };
        if (!e.Verified) next = Moved(next, next.Car.With(Planning.Car.Acceptance, Acceptance.Waiting));
        if (e is { NoFigure: true, Step.Side: { } at }) next = next with { Car = next.Car.With(Planning.Corner.FlushLook, at, Asked.Due) };
        if (signed < e.Line.PerCorner) return e.Verified ? Same(next) : Replan(next);
        var clicked = Clicked(next, e.Step, null, recorded);
        return e.Verified ? clicked : Replan(clicked.Now with { Car = clicked.Car.With(Planning.Car.Acceptance, Acceptance.Waiting) });
    }

    private static JobFile Measured(JobFile next, StepDone e)
    {
        foreach (var reading in e.Readings)
        {
            next = reading.Kind switch
            {
                ReadingKind.ReservoirLevel => next with { LevelPercent = reading.Value },
                ReadingKind.BatteryVoltage => next with { BatteryVolts = reading.Value },
                ReadingKind.FluidDrawn => next with { LevelPercent = next.LevelPercent - next.PercentOf(Volume.FromMilliliters(reading.Value)) },
                _ => next,
            };
        }

        return StepBehaviour.Of(e.Step.StepId).Fold(next, e);
    }

    private static JobFile Drawn(JobFile next, BleedDrawn e)
    {
        var level = next.LevelPercent ?? 100;
        var after = e.Draw.Filled ? 100 : level - next.PercentOf(e.Draw.Volume);
        return next.WithCorner(e.Side, c => c with { AllDraws = c.AllDraws.Add(e.Draw), LevelPercent = c.LevelPercent ?? level }) with { LevelPercent = after };
    }

    private static JobFile DrawStruck(JobFile next, BleedDrawStruck e)
    {
        var corner = next.Corner(e.Side);
        var wrong = corner.AllDraws.First(d => d.Id == e.DrawId);
        // The sum may go under MIN and further: a draw that is struck out again has to find its way back. What was never drawn is still in the reservoir, unless it was filled since: full is full.
        var filled = corner.AllDraws.SkipWhile(d => d.Id != e.DrawId).Any(d => d.Filled);
        var level = filled || next.LevelPercent is not { } now ? next.LevelPercent : Math.Min(now + next.PercentOf(wrong.Volume), 150);
        return next.WithCorner(e.Side, c => c with { Struck = c.Struck.SetItem(e.DrawId, e.Reason) }) with { LevelPercent = level };
    }

    /// <summary>After a lift nobody can be sure of what the steps that fell with it had written: what can be seen stays, the rest is looked at.</summary>
    private static JobFile Doubted(JobFile parts, PawlLifted lift)
    {
        var steps = parts.Log.Where(e => lift.Voided.Contains(e.Id)).Select(e => e.Event switch { StepDone s => s.Step, TorqueSigned t => t.Step, _ => null }).OfType<StepKey>();
        return Unsigned(parts with { Car = Planner.Doubted(parts.Setup, parts.Car, steps.SelectMany(k => Planner.Written(parts.Setup, k)).Distinct()) }, parts.Car);
    }
}

using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Practice;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Workshop;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Core.Tests.Practice;

/// <summary>Somebody who practises. As written, the perfect one: follows the plan, looks at everything, measures what it asks for, and
/// tells what is there.</summary>
internal sealed class Player
{
    private static readonly DateTimeOffset Start = new(2026, 11, 25, 8, 0, 0, TimeSpan.Zero);
    private static readonly DateOnly Today = new(2026, 11, 25);
    private static readonly ToolBoard Board = new(InstrumentCatalogue.Defaults, Today);
    private readonly HashSet<(Side, PracticeThing)> _looked = [];

    public Player(Scenario scenario, int seed, PracticeWay way = PracticeWay.Alone)
    {
        Scenario = scenario;
        Do(_ => PracticeRules.Start(scenario, way, seed, HouseRules.Default, InstrumentCatalogue.Defaults));
    }

    public Scenario Scenario { get; }
    public JobState State { get; private set; } = JobState.Fold([]);
    public PracticeWorld World => PracticeRules.WorldOf(State);

    /// <summary>Another answer than the right one, for a step; null says the right one.</summary>
    public Func<StepKey, PracticeQuestion, string?>? Says { get; init; }

    /// <summary>Steps done otherwise, before they are done rightly; true where it did something.</summary>
    public Func<Player, StepBench, bool>? Instead { get; init; }

    /// <summary>What a drum is read with.</summary>
    public string DrumGauge { get; init; } = "bore-micrometer";

    /// <summary>True for who takes every part as cold.</summary>
    public bool Cold { get; init; }

    /// <summary>False for who tells of nothing that was found.</summary>
    public bool Tells { get; init; } = true;

    public Player Do(Func<JobState, JobEvent> decide)
    {
        var e = decide(State);
        State = State.With(new(Guid.NewGuid(), State.Version + 1, e, Guid.Empty, "Ada Bell", Start.AddMinutes(State.Version),
            Start.AddMinutes(State.Version)));
        return this;
    }

    public bool Can(Func<JobState, JobEvent> decide)
    {
        try
        {
            Do(decide);
            return true;
        }
        catch (Exception e) when (e is InputException or NotAllowedException)
        {
            return false;
        }
    }

    /// <summary>Works until a step is next, or to the end.</summary>
    public Player Until(string stepId, Side? side = null, Func<bool>? unless = null)
    {
        for (var i = 0; i < 400; i++)
        {
            LookRound();
            if (RunSheets.Of(State).Now is not { } now || now.Step == new StepKey(stepId, side) || unless?.Invoke() == true) return this;
            if (Instead?.Invoke(this, now) != true) Step(now);
        }

        throw new InvalidOperationException($"{Scenario.Id} does not end: {string.Join(" > ", State.Remaining.Take(8))}");
    }

    public Player ToTheEnd(Func<bool>? unless = null)
    {
        Until("", unless: unless);
        return Do(PracticeRules.End);
    }

    /// <summary>Takes a step as far as the rules let it.</summary>
    public void Try(StepBench now)
    {
        try
        {
            Step(now);
        }
        catch (Exception e) when (e is InputException or NotAllowedException)
        {
            // What is refused is refused: the next pick is another.
        }
    }

    public void Step(StepBench now)
    {
        switch (now.Step.StepId)
        {
            case "look-over":
                Do(s => JobRules.LookOver(s, LookedOver()));
                return;
            case "identify":
                Identify(now.Step.Side!.Value);
                return;
            case "choose-route":
                var routes = ServiceRoutes.Rank(State.Setup, Scenario.Sheet, State.Times).Routes.Where(r => r.Offered).ToArray();
                Do(s => JobRules.Choose(s, (routes.FirstOrDefault(r => r.Route == ServiceRoute.ScanTool) ?? routes[0]).Route));
                return;
        }

        if (now.Step is { StepId: "push-tried", Side: { } pushed })
        {
            Do(s => JobRules.Record(s, pushed, Look.PushMoves, PracticeThings.Seen(Scenario.Truth.At(pushed), Look.PushMoves)));
            Do(s => JobRules.Rule(s, pushed));
            return;
        }

        if (now.Readings.Count > 0) Read(now);
        if (now.Step is { StepId: "shoes-measured", Side: { } side } && State.Corner(side).Readings.IsEmpty) Drum(side);
        if (PracticeRules.Open(State, now.Step) is { } question) Do(s =>
            PracticeRules.Answer(s, now.Step, Says?.Invoke(now.Step, question) ?? Right(now, question)));
        if (now.Role is { } role) Sign(now, role);
        else if (Stuck(now) && Can(s => JobRules.Report(s, FindingKind.StuckPiston, now.Step.Side, "does not move"))) return;
        else Do(s => JobRules.Click(s, Click(now), true, Board));
    }

    private List<LookOverItem> LookedOver() => [.. LookOverQuestions.All.Select(q => new LookOverItem(q.Id,
        q.Id == LookOverQuestions.SelfPressurising && Scenario.Truth.Faults.Contains(CarFault.PressurisesItself) && Tells
            ? LookOverAnswer.Yes
        : q.Settles[0] == LookOverAnswer.Yes && q.Id is not (LookOverQuestions.SimulatedPedal or LookOverQuestions.SelfPressurising)
            ? LookOverAnswer.Yes : LookOverAnswer.No))];

    private bool Stuck(StepBench now) => now.Step is { StepId: "piston-home", Side: { } side } && Tells
        && Scenario.Truth.At(side).Faults.Contains(CornerFault.PistonStuck);

    private void LookRound()
    {
        if (!Tells) return;
        foreach (var side in Core.Sides.Both)
        {
            foreach (var thing in PracticeThings.Reached(World, Scenario, side))
            {
                var seen = PracticeThings.Seen(World, Scenario, side, thing);
                if (seen.Contains("does not show which", StringComparison.Ordinal)) continue;
                if (_looked.Add((side, thing))) Do(s => PracticeRules.LookAt(s, side, thing));
                // What cannot be told just yet is told as soon as it can.
                foreach (var fault in Scenario.Truth.At(side).Faults.Where(f => Shows(thing, f) && !World.Told(side, f)))
                    _ = Can(s => JobRules.Report(s, Kind(fault), side, "seen")) || Can(s => JobRules.Report(s, Kind(fault), null, "seen"));
            }
        }
    }

    private static bool Shows(PracticeThing thing, CornerFault fault) =>
        (thing, fault) is (PracticeThing.Boot, CornerFault.BootTorn) or (PracticeThing.Pads, CornerFault.PadsFrozen)
        or (PracticeThing.SlidePins, CornerFault.PinSeized) or (PracticeThing.Hose,
            CornerFault.HoseCollapsed) or (PracticeThing.RotorScrew, CornerFault.ScrewBroken)
        or (PracticeThing.NewParts, CornerFault.WrongPart or CornerFault.SensorMissing);

    private static FindingKind Kind(CornerFault fault) => fault switch
    {
        CornerFault.BootTorn or CornerFault.PistonStuck => FindingKind.StuckPiston,
        CornerFault.PadsFrozen => FindingKind.FrozenPads,
        CornerFault.PinSeized => FindingKind.SeizedPin,
        CornerFault.HoseCollapsed => FindingKind.HoseUnsound,
        CornerFault.ScrewBroken => FindingKind.BrokenScrew,
        CornerFault.WrongPart => FindingKind.WrongPart,
        _ => FindingKind.NoSensor,
    };

    private void Identify(Side side)
    {
        foreach (var card in LookCatalogue.All.Where(c => c.Reach <= LookReach.WheelOff))
            Do(s => JobRules.Record(s, side, card.Look, PracticeThings.Seen(Scenario.Truth.At(side), card.Look)));
        if (!Can(s =>
            JobRules.Rule(s,
            side))) throw new InvalidOperationException($"{Scenario.Id}: {side} cannot be ruled: {string.Join(", ", State.Observations(side))}");
    }

    private void Read(StepBench now)
    {
        foreach (var card in now.Readings) Do(s => PracticeRules.Read(s, now.Step.Side, card.Kind, card.Instrument));
        // Under the charge that a routine wants, the charger is hung on and it is read again.
        if (now.Readings.Any(r => r.Kind == ReadingKind.BatteryVoltage)) Do(s =>
            PracticeRules.Read(s, now.Step.Side, ReadingKind.BatteryVoltage, null));
    }

    private void Drum(Side side)
    {
        foreach (var (measurand, gauge) in new[] { (Measurand.DrumDiameter, DrumGauge), (Measurand.ShoeLining, "depth-gauge") })
        {
            var card = MeasurandCatalogue.All.First(m => m.Measurand == measurand);
            foreach (var place in card.Places)
            {
                foreach (var degrees in card.HasDirection ? new double?[] { 0, 45, 90, 135 } : [null])
                {
                    var shown = PracticeRules.ReadPoint(State, side, measurand, place, gauge);
                    Do(s => JobRules.Take(s, side, [new(Guid.NewGuid(), measurand, place, degrees is { } d ? UnitsNet.Angle.FromDegrees(d)
                        : null, UnitsNet.Length.FromMillimeters(shown),
                        InstrumentCatalogue.Get(State.Instruments, gauge), Cold ? null : World.BrakesAt.DegreesCelsius, Start)], Today));
                }
            }
        }
    }

    private double Value(StepBench now, ReadingKind kind) => State.Log.Select(e => e.Event).OfType<PracticeRead>()
        .Last(r => r.Kind == kind && r.Side == now.Step.Side).Value;

    private ClickOn Click(StepBench now)
    {
        var report = now.NeedsReport ? new ToolReport(true, "Finished", "") : null;
        var lost = now.Step.StepId is "service-closed" or "first-apply" && Tells
            && Scenario.Truth.Faults.Contains(CarFault.ToolLostClosing) && now.Outcomes.Any(o => o.Id == "lost-half-way")
            && !State.Log.Any(e => e.Event is StepDone { Outcome: "lost-half-way" });
        return new(now.Step, [.. now.Readings.Select(r => new Reading(r.Kind, Value(now, r.Kind), r.Instrument))],
            [.. now.Cautions.Where(c => c.MustAcknowledge).Select(c => c.Id)],
            null, lost ? null : report, now.NoteWanted is null ? null : "seen to and put right")
        { Outcome = lost ? "lost-half-way" : now.Step.StepId == "verdict-settled" ? "renewed" : null };
    }

    private void Sign(StepBench now, FastenerRole role)
    {
        var usual = (TorqueSetting.RoleBands[role].Low + TorqueSetting.RoleBands[role].High) / 2;
        var wanted = now.Torque?.Wanted.NewtonMeters ?? usual;
        var wrench = new Wrench("W", "Test", TorqueQuantity.FromNewtonMeters(wanted < 25 ? 25 : wanted < 60 ? 60 : 250),
            TorqueQuantity.FromNewtonMeters(0.5), UnitsNet.Length.FromMillimeters(400), WrenchType.Setting, new(2027, 1, 1));
        Do(s => JobRules.Sign(s, new(now.Step, now.NextIndex, wrench, null, TorqueUnit.Nm, now.Torque is null
            ? TorqueQuantity.FromNewtonMeters(usual) : null, now.Torque is null ? 1 : null, null), Today));
    }

    private string Right(StepBench now, PracticeQuestion question) => now.Step.StepId switch
    {
        "piston-home" => Debrief.OptionOf(State.Corner(now.Step.Side!.Value).Ruled!.Ruling),
        "star-wheel-backed" => Scenario.Truth.At(now.Step.Side!.Value).StarLoosensUp ? "up" : "down",
        "measured" or "inspected" or "shoes-measured" => Verdict(now),
        _ => question.Options.Any(o => o.Id == "right") ? "right" : question.Options[0].Id,
    };

    // What the engine would say of the readings just taken: the click is tried on a copy.
    private string Verdict(StepBench now)
    {
        var probe = State.With(new(Guid.NewGuid(), State.Version + 1, new PracticeAnswered(now.Step, "inside", "", null), Guid.Empty,
            "Ada Bell", Start, Start));
        var done = JobRules.Click(probe, Click(now), true, Board) as StepDone;
        return done?.Verdicts is not { Count: > 0 } verdicts ? "too-close"
            : verdicts.Select(v => v.Verdict).MaxBy(Verdicts.Weight) switch
            {
                Core.Measuring.Verdict.Inside => "inside",
                Core.Measuring.Verdict.Outside => "outside",
                _ => "too-close"
            };
    }
}

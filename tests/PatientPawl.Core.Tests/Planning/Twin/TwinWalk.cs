using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning.Twin;

/// <summary>What a walk may meet on its way.</summary>
[Flags]
internal enum Surprises
{
    None = 0, Outcomes = 1, Findings = 2, Lifts = 4, OutOfOrder = 8, Nights = 16, Goals = 32,
    All = Outcomes | Findings | Lifts | OutOfOrder | Nights | Goals,
}

/// <summary>
/// Someone who takes any offered step, chosen by seed, at a real car: every step is done there too, and what is found there is what is clicked.
/// Between steps the car, the people and the customer do what no plan foresaw.
/// </summary>
internal sealed class TwinWalk(PlanSetup setup, int seed, Surprises surprises)
{
    private readonly Random _random = new(seed);
    private int _chose;
    private PhysicalCar _car = PhysicalCar.For(setup, PipesUnsound(seed), seed % 4 == 1);
    private (CarState State, PhysicalCar Car, StepKey Step)? _last;

    public PlanSetup Setup { get; private set; } = setup;
    public CarState State { get; private set; } = setup.Start().With(Core.Planning.Car.Pipes, PipesUnsound(seed) ? Asked.Due : Asked.Nothing);
    public List<string> Trail { get; } = [];
    public int Steps { get; private set; }
    public int Met { get; private set; }

    /// <summary>How often each monitor had its chance.</summary>
    public int[] Chances { get; } = new int[Monitors.All.Count];

    public List<string> Harms { get; } = [];

    // Some cars come in with a pipe that was seen at the look-over not to be sound.
    private static bool PipesUnsound(int seed) => seed % 6 == 3;

    /// <summary>Called before every step.</summary>
    public Action<TwinWalk>? Before { get; init; }

    /// <summary>Called around every step with the car as it stands: before it is done, and once it was done as expected.</summary>
    public Action<PhysicalCar, StepKey, bool>? AtTheCar { get; init; }

    /// <summary>Another walk from where this one stands, that begins with a step which nobody would offer and has no surprise after it.</summary>
    public TwinWalk Branch(StepKey step, int number)
    {
        var branch = new TwinWalk(Setup, number, Surprises.None) { _car = _car.Copy(), State = State };
        branch.Take(step);
        if (branch.Harms.Count == 0) branch.ToTheEnd(250);
        return branch;
    }

    /// <summary>How it begins, where another walk of the same setup has planned that already.</summary>
    public Dictionary<CarState, Plan> Beginnings { get; init; } = [];

    public void ToTheEnd(int most = 900)
    {
        if (!Beginnings.TryGetValue(State, out var plan)) Beginnings[State] = plan = Planner.Make(Setup, State);
        IReadOnlyList<StepKey> remaining = plan.Steps;
        while (true)
        {
            if (Harms.Count > 0) return;
            if (plan.CannotBeMet.Count > 0)
            {
                Harms.Add($"no way on: {string.Join("; ", plan.CannotBeMet)}");
                return;
            }

            if (State.Get(Core.Planning.Car.HandedOver) == Done.Yes)
            {
                // Now and then something is found with the keys in the hand: it undoes the hand-over.
                if ((surprises & Surprises.Findings) == 0 || Met >= 12 || _random.Next(3) != 0 || Finding() is not { } late) return;
                (Met, _) = (Met + 1, 0);
                Trail.Add($"({late}, late)");
                (plan, remaining) = Anew();
                continue;
            }

            if (remaining.Count == 0)
            {
                // Left overnight or moved in the yard: in the morning it goes on.
                if (Setup.Goal is JobGoal.Finish or JobGoal.CloseUp) Harms.Add("nothing left and not handed over");
                if (Setup.Goal != JobGoal.Yard) Morning();
                Setup = Setup with { Goal = JobGoal.Finish };
                (plan, remaining) = Anew();
                continue;
            }

            if (Steps >= most)
            {
                Harms.Add("the walk goes round");
                return;
            }

            if (Surprise() is { } what)
            {
                Trail.Add($"({what})");
                Met++;
                (plan, remaining) = Anew();
                continue;
            }

            Before?.Invoke(this);
            if (Chosen(remaining) is { } choice)
            {
                (plan, remaining) = Take(choice.Step) ? Anew() : (choice.After, choice.After.Steps);
                continue;
            }

            var shuffled = remaining.Distinct().ToArray();
            _random.Shuffle(shuffled);
            StepKey? step = null;
            List<StepKey>? rest = null;
            foreach (var candidate in shuffled)
            {
                if (!CompiledCatalogue.For(Setup).Find(candidate)!.Allowed(State.Raw) || (rest = Planner.After(Setup, State, remaining, candidate)) is null) continue;
                step = candidate;
                break;
            }

            if (step is null)
            {
                Harms.Add($"dead end; left {string.Join(" > ", remaining)}");
                return;
            }

            if (step.StepId == "choose-route" && Setup.Route is null)
            {
                Setup = Setup with { Route = Setup.Routes[_random.Next(Setup.Routes.Count)] };
                Take(step);
                (plan, remaining) = Anew();
                continue;
            }

            if (Take(step)) (plan, remaining) = Anew();
            else remaining = rest!;
        }
    }

    /// <summary>Now and then what good hands choose where the plan does not ask for it.</summary>
    private (StepKey Step, Plan After)? Chosen(IReadOnlyList<StepKey> remaining)
    {
        if (surprises == Surprises.None || _chose >= 4 || _random.Next(4) != 0) return null;
        var can = Planner.MayChoose(Setup, State, remaining).ToArray();
        _random.Shuffle(can);
        // Of those that the sheet would offer any one: only as many plans are made as it takes to come to one.
        foreach (var step in can)
        {
            if (Planner.Choice(Setup, State, step) is not { } choice) continue;
            _chose++;
            return choice;
        }

        return null;
    }

    private (Plan, IReadOnlyList<StepKey>) Anew()
    {
        var plan = Planner.Make(Setup, State);
        return (plan, plan.Steps);
    }

    /// <summary>Does a step at the car and clicks it on. True when something else was found than expected.</summary>
    private bool Take(StepKey step)
    {
        Steps++;
        Trail.Add(step.ToString());
        if (!Acts.Has(step.StepId))
        {
            Harms.Add($"{step} has no physical action");
            return false;
        }

        if (Looks.Needless(State, step)) Harms.Add($"sent to look at what is known, at {step}");
        Watch(step);
        _last = (State, _car.Copy(), step);
        var bound = CompiledCatalogue.For(Setup).Find(step)!;
        var outcome = (surprises & Surprises.Outcomes) != 0 || step.StepId is "spindle-verified" or "circuit-looked" or "service-verified" or "service-looked" or "cable-looked" or "lever-on-stop" or "piston-looked" or "piston-judged" or "release-proved" or "turns-free"
            ? Acts.Found(_car, step, _random, surprises != Surprises.None) : null;
        if (outcome is not null && Array.TrueForAll(bound.Outcomes, o => o.Type.Id != outcome)) outcome = null;
        AtTheCar?.Invoke(_car, step, false);
        try
        {
            if (outcome is null) Acts.Do(_car, step);
            else
            {
                Acts.Otherwise(_car, step, outcome, _random);
                if (step.StepId is "test-driven" or "verdict-settled") Acts.Do(_car, step);
            }
        }
        catch (ImpossibleException e)
        {
            Harms.Add($"{step} cannot be done: {e.Message}");
        }

        if (outcome is null) AtTheCar?.Invoke(_car, step, true);
        else Trail[^1] += $" [{outcome}]";
        State = Planner.Apply(Setup, State, step, outcome);
        if (outcome is not null && Array.Find(bound.Outcomes, o => o.Type.Id == outcome)!.Type.Reports is { } kind)
        {
            if (kind == FindingKind.StuckPiston)
            {
                var stuck = _car.At(step.Side!.Value);
                _car.Compared = false;
                _car.RightPartMissing |= stuck.CaliperNew;
                (stuck.WrongCaliper, stuck.UnfitCaliper) = (stuck.CaliperNew || stuck.WrongCaliper, !stuck.CaliperNew || stuck.UnfitCaliper);
            }

            var changed = FindingRules.Onto(Setup, kind, step.Side);
            State = Planner.Moved(changed, State, FindingRules.Onto(changed, State, kind, step.Side));
            (Setup, _last) = (changed, null);
        }

        return outcome is not null;
    }

    private void Watch(StepKey step)
    {
        var doing = Acts.Of(step.StepId);
        var corner = _car.At(step.Side ?? Side.Left);
        for (var i = 0; i < Monitors.All.Count; i++)
        {
            var monitor = Monitors.All[i];
            if (!monitor.Chance(_car, step, doing)) continue;
            Chances[i]++;
            if (monitor.Harm(_car, corner, step)) Harms.Add($"{monitor.Name}, at {step}");
        }
    }

    private string? Surprise()
    {
        if (surprises == Surprises.None || Met >= 12 || _random.Next(28) != 0) return null;
        return _random.Next(6) switch
        {
            0 or 1 when Has(Surprises.Findings) => Finding(),
            2 when Has(Surprises.Lifts) => Lift(),
            3 when Has(Surprises.OutOfOrder) => OutOfOrder(),
            4 when Has(Surprises.Nights) => Night(),
            5 when Has(Surprises.Goals) => Goal(),
            _ => null,
        };
    }

    private bool Has(Surprises one) => (surprises & one) != 0;

    private string? Finding()
    {
        if (!Setup.Identified) return null;
        var side = _random.Next(2) == 0 ? Side.Left : Side.Right;
        var can = FindingCatalogue.All.Where(c => c.CanBe(Setup, State, side) && Physically(c.Kind, _car.At(side), Setup.InspectOnly)).ToArray();
        if (can.Length == 0) return null;
        // What was found stays found: only what comes after it is lifted from here on.
        _last = null;
        var card = can[_random.Next(can.Length)];
        Side? at = card.PerCorner ? side : null;
        var before = State;
        var changed = FindingRules.Onto(Setup, card.Kind, at);
        State = Planner.Moved(changed, before, FindingRules.Onto(changed, State.With(Core.Planning.Car.HandedOver, Done.No), card.Kind, at));
        Setup = changed;
        foreach (var corner in at is { } s ? [_car.At(s)] : _car.Both)
        {
            switch (card.Kind)
            {
                case FindingKind.FluidShows when Setup.InspectOnly:
                    corner.Wet = true;
                    break;
                case FindingKind.FluidShows:
                    (corner.HasAir, corner.Wiped) = (true, false);
                    _car.Touch();
                    break;
                case FindingKind.StuckRotor:
                    corner.RotorStuck = true;
                    break;
                case FindingKind.StuckWheel:
                    corner.WheelStuck = true;
                    break;
                case FindingKind.Ridge:
                    corner.Ridge = true;
                    break;
                case FindingKind.ScrewCameBroken:
                    corner.ScrewBroken = true;
                    break;
                case FindingKind.BrokenScrew:
                    (corner.Screws, corner.ScrewBroken) = (Nut.Loose, true);
                    break;
                case FindingKind.FrozenPads:
                    (corner.LandsClean, corner.ClipsBad) = (false, true);
                    break;
                case FindingKind.SeizedPin or FindingKind.PinWorn or FindingKind.BushingSwollen:
                    (corner.PinsGreased, corner.PinsBad) = (false, true);
                    break;
                case FindingKind.WrongPart:
                    (_car.RightPartMissing, _car.Compared) = (true, false);
                    NewPartsAreWrong(corner);
                    break;
                case FindingKind.SidesMixedUp:
                    _car.Compared = false;
                    corner.WrongParts |= corner is { RotorOn: true, RotorNew: true };
                    corner.WrongCaliper |= corner is { CaliperNew: true, CaliperAway: false };
                    break;
                case FindingKind.HosePinched:
                    corner.HoseClamped = true;
                    break;
                case FindingKind.HoseUnsound:
                    corner.HoseBad = true;
                    break;
                case FindingKind.BleedScrewBroken:
                    corner.BleedScrewBad = true;
                    break;
                case FindingKind.CableFrayed:
                    corner.CableBad = true;
                    break;
                case FindingKind.ThreadStripped or FindingKind.StudDamaged or FindingKind.BearingPlay or FindingKind.BackingPlate:
                    corner.HubBad = true;
                    break;
                case FindingKind.SpeedSensor:
                    (corner.SpeedSensorBad, _car.LampLit) = (true, true);
                    break;
                case FindingKind.NewPartSpoiled or FindingKind.GreaseOnLining:
                    (_car.RightPartMissing, _car.Compared) = (true, false);
                    NewPartsAreWrong(corner);
                    break;
                case FindingKind.PipeUnsound:
                    _car.PipesUnsound = true;
                    break;
                case FindingKind.LampStays:
                    (_car.Trouble, _car.CodesAt, _car.LampLit) = (true, -1, true);
                    break;
                case FindingKind.PedalSinks:
                    (_car.PedalSoft, _car.PedalAt) = (true, -1);
                    break;
                case FindingKind.Pulls or FindingKind.NoiseOnDrive:
                    (_car.Trouble, _car.DrivenAt) = (true, -1);
                    break;
                case FindingKind.BadRotor or FindingKind.RotorsByChoice:
                    _car.RotorsGo |= !Setup.InspectOnly;
                    _car.UnfitRotors |= card.Kind == FindingKind.BadRotor;
                    break;
                case FindingKind.BadPads:
                    _car.UnfitPads = true;
                    break;
                case FindingKind.BadShoes:
                    _car.UnfitShoes = true;
                    break;
                case FindingKind.StuckPiston:
                    _car.Compared = false;
                    _car.RightPartMissing |= corner is { CaliperNew: true, CaliperAway: false };
                    if (corner is { CaliperNew: true, CaliperAway: false }) corner.WrongCaliper = true;
                    else corner.UnfitCaliper = true;
                    break;
                case FindingKind.HubStepped:
                    corner.HubClean = false;
                    break;
                case FindingKind.NoSensor:
                    corner.Off.Remove(Fitting.WearSensor);
                    corner.NoSensor = true;
                    corner.Wrong.Remove("sensor-renewed");
                    break;
                case FindingKind.MovesByItself:
                    (_car.InService, _car.Applied, _car.Asleep) = (false, _car.Both.All(c => c.CaliperOn) && _random.Next(2) == 0, false);
                    if (_car.Made.PullsCables) _car.CableSlack = false;
                    if (corner.ActuatorPlugged) corner.SpindleBack = false;
                    // Over pads that are in, it only presses them; behind an open caliper it pushes the piston out.
                    if (corner is { CaliperOn: false, ActuatorPlugged: true, PistonIn: true } && _car.Made.IsMotor)
                    {
                        corner.PistonIn = false;
                        _car.Touch();
                    }

                    _car.Moved();
                    break;
                case FindingKind.ActuatorDead when !_car.InService:
                    corner.SpindleBack = _random.Next(2) == 0;
                    _car.Moved();
                    break;
            }

            if (card is { PerCorner: true, Mends: { } mends } && Acts.ByName.Contains(mends.StepId))
            {
                corner.Wrong.Add(mends.StepId);
                _car.LampLit |= card.Kind is FindingKind.SensorWorn or FindingKind.SensorLead;
                if (card.Kind == FindingKind.LeverSticks) corner.LeverOnStop = false;
            }
        }

        return $"{card.Kind} {at}";
    }

    private static bool Physically(FindingKind kind, PhysicalCorner corner, bool inspected) => kind switch
    {
        FindingKind.StuckPiston => !corner.WheelOn && (!corner.PadsIn || inspected),
        FindingKind.StuckWheel or FindingKind.KeyMissing => corner.WheelOn,
        FindingKind.PadsByChoice or FindingKind.RotorsByChoice or FindingKind.MovesByItself or FindingKind.PartsLeftOver => true,
        FindingKind.BrokenScrew => corner.RotorOn && !corner.WheelOn,
        FindingKind.WrongPart or FindingKind.PipeUnsound or FindingKind.LampStays or FindingKind.PedalSinks or FindingKind.Pulls or FindingKind.NoiseOnDrive => true,
        _ => !corner.WheelOn,
    };

    private static void NewPartsAreWrong(PhysicalCorner corner)
    {
        corner.WrongParts |= corner.PadsNew || corner is { RotorOn: true, RotorNew: true } || corner.ShoesNew;
        corner.WrongCaliper |= corner is { CaliperNew: true, CaliperAway: false };
        if (corner.BracketNew) corner.Wrong.Add("bracket-swapped");
    }

    /// <summary>The last step is taken back. What can be seen is as it was; of what cannot, either may be so.</summary>
    private string? Lift()
    {
        if (_last is not var (state, car, step) || step.StepId is "handed-over" || StepCatalogue.Find(step.StepId)!.Torques is not null) return null;
        _last = null;
        var done = _car;
        _car = car;
        if (_random.Next(2) == 0)
        {
            (_car.InService, _car.Applied, _car.CableSlack, _car.Mechanism, _car.FailedAt) = (done.InService, done.Applied, done.CableSlack, done.Mechanism, done.FailedAt);
            foreach (var side in Core.Sides.Both)
                (_car.At(side).SpindleBack, _car.At(side).HasAir, _car.At(side).LeverOnStop) = (done.At(side).SpindleBack, _car.At(side).HasAir || done.At(side).HasAir, done.At(side).LeverOnStop);
        }

        if (_car.Both.Any(c => c.HasAir)) _car.Touch();
        State = Planner.Doubted(Setup, state, Planner.Written(Setup, step));
        return $"lifted {step}";
    }

    /// <summary>Somebody does something before its turn, if it can be done at all.</summary>
    private string? OutOfOrder()
    {
        var steps = CompiledCatalogue.For(Setup).Steps.Where(s => JobRules.CanBeMarked(s.Type) && !s.Allowed(State.Raw) && Planner.CanHaveBeenDone(Setup, State, s.Key) && Acts.Has(s.Key.StepId)).ToArray();
        if (steps.Length == 0) return null;
        var step = steps[_random.Next(steps.Length)].Key;
        var tried = _car.Copy();
        var open = tried.Both.Any(c => c.Opened);
        try
        {
            Acts.Do(tried, step);
        }
        catch (ImpossibleException)
        {
            return null;
        }

        // The pedal pressed on an open brake sends a piston out, and may open the circuit.
        if ((Acts.Of(step.StepId) & Doing.Pedal) != 0 && open)
            foreach (var c in tried.Both.Where(c => c.Opened)) (c.PistonIn, c.HasAir) = (false, c.HasAir || _random.Next(2) == 0);
        var why = Planner.Why(Setup, State, step);
        _car = tried;
        _last = null;
        State = Planner.OutOfOrder(Setup, State, step, why.Interlocks);
        return $"out of order {step}";
    }

    // A battery may have been flat, and with it the service position gone.
    private void Morning()
    {
        State = Overnight.InTheMorning(Setup, State);
        // A step of the day before is lifted with the night still in between: what the night made doubtful stays so.
        _last = null;
        Trail.Add("(morning)");
        if (!_car.InService || _random.Next(4) != 0) return;
        (_car.InService, _car.CableSlack) = (false, !Setup.PullsCables && _car.CableSlack);
        foreach (var c in _car.Both) c.SpindleBack = false;
        _car.Moved();
    }

    private string Night()
    {
        var kind = _random.Next(2) == 0 ? JobGoal.NightAssembled : JobGoal.NightOnStands;
        Setup = Setup with { Goal = kind };
        _last = null;
        return kind.ToString();
    }

    private string Goal()
    {
        Setup = Setup with { Goal = Setup.Goal == JobGoal.CloseUp ? JobGoal.Finish : _random.Next(3) == 0 ? JobGoal.Yard : JobGoal.CloseUp };
        _last = null;
        return Setup.Goal.ToString();
    }
}

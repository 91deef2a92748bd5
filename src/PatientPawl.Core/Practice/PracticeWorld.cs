using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Practice;

/// <summary>Who or what is hurt.</summary>
public enum HarmTo
{
    /// <summary>Somebody.</summary>
    Person,
    /// <summary>The car, or who drives it.</summary>
    Car,
    /// <summary>A part.</summary>
    Part,
    /// <summary>Nothing but the day.</summary>
    Time,
}

/// <summary>Something that happened at the car that is not there.</summary>
/// <param name="Seq">The event that brought it; of a step that was only tried, the try.</param>
/// <param name="Step">The step, where it was at one.</param>
/// <param name="To">Who or what is hurt.</param>
/// <param name="Says">What happened, or would have.</param>
/// <param name="Trap">The trap behind it; null where it is none of the list.</param>
/// <param name="Carried">False where the rules refused the step and it only would have happened.</param>
public sealed record Happening(int Seq, StepKey? Step, HarmTo To, string Says, TrapId? Trap, bool Carried);

/// <summary>What was felt or seen at something that was done.</summary>
/// <param name="Seq">The event.</param>
/// <param name="Says">In words.</param>
public sealed record Felt(int Seq, string Says);

/// <summary>
/// The car that is not there: what is so after everything that was done to it. It follows from scenario and log alone, knows how parts
/// behave and no plan, no rule and no ruling.
/// </summary>
public sealed partial class PracticeWorld
{
    private sealed record CornerNow(CornerTruth Truth, double ProudMm)
    {
        public bool CaliperOn { get; init; } = true;
        public bool WheelOn { get; init; } = true;
        public bool RotorOn { get; init; } = true;
        public bool SpindleBack { get; init; }
        public bool LeverFree { get; init; }
        public bool Unplugged { get; init; }
        public bool Stripped { get; init; }
        public bool BootFreed { get; init; }
        public bool ShoesReady { get; init; } = true;
        public bool StandsOff { get; init; }
        public bool Wound { get; init; }
        /// <summary>Torque at the bolt over what the sheet wants, the last pull of each role.</summary>
        public IReadOnlyDictionary<FastenerRole, double> Pulled { get; init; } = new Dictionary<FastenerRole, double>();

        public bool Has(CornerFault fault) => Truth.Faults.Contains(fault);
    }

    private sealed record Now(CornerNow Left, CornerNow Right, double LevelMl, double Minutes)
    {
        public bool Applied { get; init; } = true;
        public bool InService { get; init; }
        public bool Chocked { get; init; }
        public bool BatteryHeld { get; init; }
        public bool SelfPressureOff { get; init; }
        public bool ToolWasLost { get; init; }

        public CornerNow At(Side side) => side == Side.Left ? Left : Right;

        public Now With(Side side, Func<CornerNow, CornerNow> change) => side == Side.Left ? this with { Left = change(Left) }
            : this with { Right = change(Right) };

        public bool AnyCaliperOff => !Left.CaliperOn || !Right.CaliperOn;
    }

    private readonly Scenario _scenario;
    private readonly List<Happening> _happenings = [];
    private readonly List<Felt> _felt = [];
    private readonly Dictionary<Guid, Now> _before = [];
    private readonly Dictionary<StepKey, PracticeAnswered> _answers = [];
    private readonly HashSet<(Side, CornerFault)> _told = [];
    private Now _now;
    private int _seq;
    private StepKey? _step;
    private bool _carried = true;

    private PracticeWorld(Scenario scenario)
    {
        _scenario = scenario;
        CornerNow Start(CornerTruth truth) => new(truth, truth.PistonProud.Millimeters);
        _now = new(Start(scenario.Truth.Left), Start(scenario.Truth.Right),
            scenario.Sheet.Reservoir.Band.Milliliters * scenario.Truth.LevelPercent / 100, 0);
    }

    /// <summary>What happened, in order.</summary>
    public IReadOnlyList<Happening> Happenings => _happenings;

    /// <summary>What was felt, in order.</summary>
    public IReadOnlyList<Felt> Feelings => _felt;

    /// <summary>Minutes since the car came in.</summary>
    public int Minutes => (int)Math.Round(_now.Minutes);

    /// <summary>Level of the reservoir, in per cent of its band.</summary>
    public double LevelPercent => _now.LevelMl / _scenario.Sheet.Reservoir.Band.Milliliters * 100;

    /// <summary>Voltage that a meter shows: the charger's while one is on.</summary>
    public double BatteryVolts => _now.BatteryHeld ? PracticeFigures.ChargerVolts : _scenario.Truth.Battery.Volts;

    /// <summary>How warm the brakes are by now: they cool towards 20 °C by Newton's law.</summary>
    public Temperature BrakesAt =>
        Temperature.FromDegreesCelsius(20 + (_scenario.Truth.BrakesAt.DegreesCelsius - 20)
            * Math.Exp(-_now.Minutes / PracticeFigures.CoolsInMinutes));

    /// <summary>How far a piston stands proud, mm.</summary>
    public double ProudMm(Side side) => _now.At(side).ProudMm;

    /// <summary>True while a caliper is on its rotor, or hung beside it with pads between.</summary>
    internal bool CaliperOn(Side side) => _now.At(side).CaliperOn;

    internal bool WheelOn(Side side) => _now.At(side).WheelOn;

    internal bool Told(Side side, CornerFault fault) => _told.Contains((side, fault));

    /// <summary>The answer that stands at a step; null before it was given.</summary>
    public PracticeAnswered? Answer(StepKey step) => _answers.GetValueOrDefault(step);

    /// <summary>What shows at a step: what a tool says, a screw does, a meter reads. Null where nothing shows.</summary>
    public string? Tells(StepKey step)
    {
        ArgumentNullException.ThrowIfNull(step);
        return step.StepId switch
        {
            "battery-held" => $"The meter: {Figure.Of(_scenario.Truth.Battery.Volts, 1)} V at rest.",
            "service-closed" or "first-apply" when _scenario.Truth.Has(CarFault.ToolLostClosing) && !_now.ToolWasLost =>
                "The tool: no answer any more, at 40 %.",
            "service-entered" or "service-entered-car" or "service-closed" or "first-apply" => "The tool: finished.",
            "screws-cracked-brake" or "screws-cracked-bar" when step.Side is { } side && _now.At(side).Has(CornerFault.ScrewBroken) =>
                "The screw: its head is gone.",
            "piston-home" when step.Side is { } side => $"The piston stands {Figure.Of(_now.At(side).ProudMm, 1)} mm proud.",
            _ => null,
        };
    }

    /// <summary>The car after everything in a log.</summary>
    /// <param name="scenario">What is true.</param>
    /// <param name="log">Everything that was done, in order; what was undone in the books was done to the car all the same.</param>
    /// <param name="minutes">How long a step takes.</param>
    public static PracticeWorld Of(Scenario scenario, IEnumerable<RecordedEvent> log, Func<StepKey, int> minutes)
    {
        ArgumentNullException.ThrowIfNull(scenario);
        ArgumentNullException.ThrowIfNull(log);
        ArgumentNullException.ThrowIfNull(minutes);
        var world = new PracticeWorld(scenario);
        foreach (var e in log) world.Take(e, minutes);
        return world;
    }

    private void Take(RecordedEvent recorded, Func<StepKey, int> minutes)
    {
        (_seq, _step, _carried) = (recorded.Seq, null, true);
        _before[recorded.Id] = _now;
        switch (recorded.Event)
        {
            case StepDone e:
                _step = e.Step;
                Pass(minutes(e.Step));
                Do(e.Step.StepId, e.Step.Side, e);
                foreach (var side in Sides.Both.Where(s => e.Step.Side is null || e.Step.Side == s)) TellOutcome(side, e);
                break;
            case TorqueSigned e:
                _step = e.Step;
                if (e.Index == 1) Pass(minutes(e.Step));
                Pull(e);
                break;
            case RoutineEnded { Status: Electric.Link.RoutineStatus.Done } e:
                Routine(e);
                break;
            case PracticeAnswered e:
                _step = e.Step;
                _answers[e.Step] = e;
                Answered(e);
                break;
            case PracticeTried e:
                Try(e);
                break;
            case PracticeRead:
                Pass(1);
                break;
            case PracticeLooked { Thing: PracticeThing.Boot, Side: { } at } when !_now.At(at).WheelOn:
                // Who has looked at the lip frees it as a matter of course.
                _now = _now.With(at, c => c with { BootFreed = true });
                break;
            case PracticeReturned e when _before.TryGetValue(e.Target, out var earlier):
                _now = earlier with { Minutes = _now.Minutes };
                break;
            case FindingReported e:
                foreach (var side in Sides.Both.Where(s => e.Side is null || e.Side == s)) Tell(side, e.Kind);
                break;
            case StopSignSeen e:
                foreach (var fault in PracticeFaults.Of(e.Sign)) _told.Add((e.Side, fault));
                break;
            case CaliperTried or LookRecorded or ReadingsTaken:
                Pass(1);
                break;
        }
    }

    private void Pass(double minutes) => _now = _now with { Minutes = _now.Minutes + minutes };

    private void Tell(Side side, FindingKind kind)
    {
        foreach (var fault in PracticeFaults.Of(kind)) _told.Add((side, fault));
    }

    private void TellOutcome(Side side, StepDone e)
    {
        foreach (var fault in PracticeFaults.Of(e.Step.StepId, e.Found)) _told.Add((side, fault));
    }

    private void Happens(HarmTo to, string says, TrapId? trap) => _happenings.Add(new(_seq, _step, to, says, trap, _carried));

    private void Feels(string says) => _felt.Add(new(_seq, says));

    /// <summary>A step that the rules refused: what would have happened is told, and the car stays as it is.</summary>
    private void Try(PracticeTried e)
    {
        (_step, _carried) = (e.Step, false);
        var before = _now;
        // Who goes at a piston before its time is taken to go at it the right way: what is wrong is the moment.
        if (e.Step is { StepId: "piston-home", Side: { } side }) MovePiston(side, WayOf(side));
        else Do(e.Step.StepId, e.Step.Side, null);
        _now = before with { Minutes = before.Minutes + 1 };
    }

    private bool OnCaliper(Side side) =>
        _scenario.Truth.At(side).Architecture is Architecture.CableScrew or Architecture.PullerScrew or Architecture.LeverPush
        or Architecture.MotorPush or Architecture.MotorTurn or Architecture.RearHex;

    private bool InHat(Side side) =>
        _scenario.Truth.At(side).Architecture is Architecture.HatShoes or Architecture.PullerHat or Architecture.MotorHat
            or Architecture.FixedHat;

    private bool IsElectric => PracticeThings.IsElectric(_scenario.Truth.Left.Architecture);

    private bool HasMotorAtCaliper => _scenario.Truth.Left.Architecture is Architecture.MotorPush or Architecture.MotorTurn;

    private void Do(string step, Side? at, StepDone? done)
    {
        switch (step)
        {
            case "chocks-in": _now = _now with { Chocked = true }; break;
            case "chocks-out": _now = _now with { Chocked = false }; break;
            case "battery-held": _now = _now with { BatteryHeld = true }; break;
            case "battery-alone": _now = _now with { BatteryHeld = false }; break;
            case "self-pressure-off": _now = _now with { SelfPressureOff = true }; break;
            case "lifted":
                if (!_now.Chocked) Happens(HarmTo.Person, "The car rolls off the jack: nothing held the wheels on the ground.", null);
                break;
            case "ignition-on" or "ignition-on-again" or "key-near": Wake(); break;
            case "brake-released":
                _now = _now with { Applied = false };
                break;
            case "service-entered" or "service-entered-car" or "puller-released": IntoService(done); break;
            case "service-closed" or "first-apply" or "brake-applied" or "brake-cycled" or "lever-cycled" or "shoe-brake-cycled":
                Close(step, done);
                break;
            case "test-driven" or "bed-in": Drive(); break;
            case "pedal-proved" or "pedal-proved-routine":
                if (_now.AnyCaliperOff) Happens(HarmTo.Part, "The pedal pushes the piston out of the caliper that is off.", null);
                else foreach (var side in Sides.Both) _now = _now.With(side, c => c with { StandsOff = false });
                break;
            case "fluid-drawn":
                var drawn = done?.Readings.FirstOrDefault(r => r.Kind == ReadingKind.FluidDrawn)?.Value ?? 0;
                _now = _now with { LevelMl = Math.Max(_now.LevelMl - drawn, 0) };
                break;
            case "handed-over": HandOver(); break;
            default:
                if (at is { } corner) DoAt(step, corner, done);
                break;
        }
    }

    private void DoAt(string step, Side side, StepDone? done)
    {
        var now = _now.At(side);
        switch (step)
        {
            case "wheel-off": _now = _now.With(side, c => c with { WheelOn = false }); break;
            case "wheel-on": _now = _now.With(side, c => c with { WheelOn = true }); break;
            case "screws-cracked-brake":
                if (!_now.Applied) Happens(HarmTo.Time, "The hub spins under the bit: the brake that held it has been let go.",
                    TrapId.ScrewForgotten);
                break;
            case "caliper-off" or "fixed-caliper-off" or "caliper-swung" or "swung-caliper-off":
                if (_scenario.Truth.Has(CarFault.PressurisesItself) && !_now.SelfPressureOff)
                    Happens(HarmTo.Person, "The pump starts by itself and pushes the piston out past your fingers.",
                        TrapId.PressurisesItself);
                _now = _now.With(side, c => c with { CaliperOn = false });
                break;
            case "fixed-caliper-on": PutCaliperOn(side); break;
            case "rotor-off": _now = _now.With(side, c => c with { RotorOn = false }); break;
            case "rotor-on" or "rotor-back": _now = _now.With(side, c => c with { RotorOn = true }); break;
            case "actuator-unplugged" or "actuator-off": _now = _now.With(side, c => c with { Unplugged = true }); break;
            case "actuator-plugged": _now = _now.With(side, c => c with { Unplugged = false }); break;
            case "spindle-back": _now = _now.With(side, c => c with { SpindleBack = true }); break;
            case "cable-slack" or "lever-on-stop" or "cable-end-off": _now = _now.With(side, c => c with { LeverFree = true }); break;
            case "cable-taken-up": _now = _now.With(side, c => c with { LeverFree = false }); break;
            case "shoes-off" or "shoes-on" or "star-wheel-backed" or "star-wheel-again":
                _now = _now.With(side, c => c with { ShoesReady = false });
                break;
            case "shoes-set" or "new-shoes-set" or "shoes-back": _now = _now.With(side, c => c with { ShoesReady = true }); break;
            case "bracket-on": OverShoes(side, "The bracket"); break;
            case "pads-in":
                if (now.Has(CornerFault.WrongPart) && !Told(side, CornerFault.WrongPart))
                    Happens(HarmTo.Part, "The new pads jam in the bracket: they are another shape.", TrapId.WrongPart);
                break;
            case "piston-home" when done is { Found: null }: ClaimHome(side); break;
        }
    }

    private void OverShoes(Side side, string what)
    {
        if (InHat(side) && !_now.At(side).ShoesReady)
            Happens(HarmTo.Time, $"{what} goes on over shoes that are not set: the hat has to come off again.", TrapId.BracketBeforeShoes);
    }

    private void PutCaliperOn(Side side)
    {
        OverShoes(side, "The caliper");
        _now = _now.With(side, c => c with { CaliperOn = true });
    }

    private void Drive()
    {
        foreach (var side in Sides.Both.Where(s => _now.At(s).StandsOff))
            Happens(HarmTo.Person, $"The pedal goes to the floor at the first stop: the {side.Word()} piston stood off its pads.",
                TrapId.PedalNotPumped);
        foreach (var side in Sides.Both)
        {
            foreach (var (role, share) in _now.At(side).Pulled.Where(p => p.Value < PracticeFigures.LooseBelow))
                Happens(HarmTo.Car,
                    $"A {Fasteners.Words(role)}, {side.Word()}, comes loose on the road: "
                    + $"it was pulled to {Figure.Of(share * 100, 0)} % of its figure.", null);
        }
    }

    private void HandOver()
    {
        foreach (var side in Sides.Both)
        {
            foreach (var fault in _now.At(side).Truth.Faults.Where(f => PracticeFaults.ToBeFound(f) && !Told(side, f)))
                Happens(PracticeFaults.Harms(fault), $"{Phrase.Capital(side.Word())}: {PracticeFaults.Missed(fault)}",
                    PracticeFaults.TrapOf(fault));
        }
    }

    private void Pull(TorqueSigned e)
    {
        if (e.Step.Side is not { } side) return;
        if (e.Line.Role == FastenerRole.SlidePin) PutCaliperOn(side);
        if (e.Line.Role == FastenerRole.Bracket && e.Index == 1) OverShoes(side, "The bracket");
        if (e.Index != 1 || Answer(e.Step) is not { Set: { } set } answer) return;
        var needed = _scenario.Truth.Crowfoot is { } c && c.Role == e.Line.Role ? c : null;
        var atTheBolt = needed?.AtTheBolt(set.NewtonMeters) ?? set.NewtonMeters;
        var share = atTheBolt / e.Line.Wanted.NewtonMeters;
        _now = _now.With(side, at => at with { Pulled = new Dictionary<FastenerRole, double>(at.Pulled) { [e.Line.Role] = share } });
        if (share <= PracticeFigures.TightAbove) return;
        var ends = BoltStrength.Of(e.Line) is not { } strength ? "tightened past its figure"
            : atTheBolt > strength.BreaksAt ? "breaks off" : atTheBolt > strength.StretchesAt ? "is stretched and will not hold its load"
                : "is tightened past its figure";
        Happens(HarmTo.Part,
            $"{Figure.Of(atTheBolt, 1)} N m where {Figure.Of(e.Line.Wanted.NewtonMeters, 1)} are wanted: "
            + $"the {Fasteners.Words(e.Line.Role)} {ends}.",
            PracticeQuestions.TrapOf(answer.Option));
    }
}

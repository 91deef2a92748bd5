using PatientPawl.Core.Electric.Link;

namespace PatientPawl.StandIns.Car;

/// <summary>A fault that can be put into the stand-in car.</summary>
public enum CarFault
{
    /// <summary>The battery is nearly empty and its resistance has risen.</summary>
    WeakBattery,
    /// <summary>The charger gives nothing.</summary>
    ChargerOff,
    /// <summary>The left actuator is unplugged.</summary>
    UnpluggedLeft,
    /// <summary>The right actuator is unplugged.</summary>
    UnpluggedRight,
    /// <summary>The left spindle is seized.</summary>
    Seized,
    /// <summary>The left spindle is dry.</summary>
    Dry,
    /// <summary>The pads drag on the rotor: almost no free run.</summary>
    PadsDrag,
    /// <summary>The right motor is slow: its harness resists and its gears are stiff.</summary>
    OneSlow,
    /// <summary>The fuse of both motors is blown.</summary>
    FuseBlown,
    /// <summary>The right pads are missing.</summary>
    PadsMissing,
    /// <summary>The pedal was not pumped: both pistons stand at home.</summary>
    NotPumped,
    /// <summary>The left spindle came out again, and its piston lies on it: pressed, it does not move.</summary>
    OnTheSpindle,
    /// <summary>A door opens and wakes the car.</summary>
    DoorOpened,
    /// <summary>It clamps again by itself a few minutes after an apply.</summary>
    ClampsAgain,
    /// <summary>Service fails on the right side.</summary>
    ServiceFailsRight,
    /// <summary>The link is lost in the middle of a routine.</summary>
    LinkLost,
    /// <summary>The unit is another car's: it reports one motor that pulls cables.</summary>
    WrongBrake,
    /// <summary>A code that comes back after it was cleared.</summary>
    CodeStays,
}

/// <summary>How the mechanics of one rear brake stand, as hands left them.</summary>
/// <param name="SomethingToClamp">True with pads in and the caliper on, or the shoes in their drum.</param>
/// <param name="ContactMetres">Where the mechanism meets it, from the back stop.</param>
/// <param name="PistonMetres">Where the piston stands; null where it touches its pads.</param>
/// <param name="Plugged">True with the actuator's plug home.</param>
public sealed record CornerMechanics(bool SomethingToClamp, double ContactMetres, double? PistonMetres, bool Plugged);

/// <summary>One sample of both currents, A; a car with one motor has no right.</summary>
/// <param name="Left">Left, or the only one.</param>
/// <param name="Right">Right.</param>
public readonly record struct CurrentPair(double Left, double Right);

/// <summary>
/// A car that is not there: battery, motors, spindles, pistons and the unit that drives them, in fixed steps under a clock that is handed in. Two
/// cars with one seed and the same things done to them are alike to the last digit. It knows nothing of jobs.
/// </summary>
public sealed class StandInCar
{
    /// <summary>The step of the physics, s.</summary>
    public const double StepSeconds = 1e-4;

    /// <summary>Samples of the current that the unit keeps, a second.</summary>
    public const int SamplesPerSecond = CarLink.SamplesPerSecond;

    private const int StepsPerSample = (int)(1 / StepSeconds / SamplesPerSecond);

    // Where a piston stands when it is home, a spindle that came out again, and next to no way. Invented, for practice.
    private const double PistonHome = 1e-3, SpindleOut = 4e-3, HardlyAny = 0.05e-3;

    private const double QuietBefore = 0.1, QuietAfter = 0.1, SleepAfter = 300, ClampsAgainAfter = 240;

    private readonly Drive[] _drives;
    private readonly Random _random;
    private readonly List<CurrentPair> _samples = [];
    private readonly HashSet<CarFault> _faults = [];
    private double _owed, _quiet, _quietRun;
    private int _sinceSample;

    /// <summary>A car of a kind.</summary>
    /// <param name="variant">What it has for a rear brake.</param>
    /// <param name="seed">What its noise starts from.</param>
    public StandInCar(CarVariant variant = CarVariant.MotorPush, int seed = 1)
    {
        Variant = variant;
        _random = new(seed);
        var figures = Healthy(variant);
        _drives = HasOneMotor ? [new(figures)] : [new(figures), new(Unlike(figures))];
        Unit = new(_drives);
        foreach (var d in _drives) (d.Contact, d.Piston, d.Nut) = (8.0e-3, 8.0e-3, 7.2e-3);
        if (HasOneMotor) foreach (var d in _drives) (d.Contact, d.Piston, d.Nut) = (10e-3, 10e-3, 6e-3);
    }

    /// <summary>What it has for a rear brake.</summary>
    public CarVariant Variant { get; }

    /// <summary>True where one motor works both sides.</summary>
    public bool HasOneMotor => Variant is CarVariant.PullerCaliper or CarVariant.PullerHat;

    /// <summary>The motors: left and right, or one.</summary>
    public IReadOnlyList<Drive> Drives => _drives;

    /// <summary>The battery.</summary>
    public Battery Battery { get; } = new(new());

    /// <summary>The control unit.</summary>
    public Unit Unit { get; }

    /// <summary>True with the ignition on. Use <see cref="Ignite"/> to turn it.</summary>
    public bool Ignition { get; private set; } = true;

    /// <summary>True when the unit sleeps.</summary>
    public bool Asleep { get; private set; }

    /// <summary>True where it applies by itself at ignition off.</summary>
    public bool AutoApply { get; set; } = true;

    /// <summary>Speed of the car, km/h.</summary>
    public double KilometresPerHour { get; set; }

    /// <summary>Voltage at the battery's posts, V.</summary>
    public double Volts { get; private set; } = 12.6;

    /// <summary>Time since it was made, s.</summary>
    public double Seconds { get; private set; }

    /// <summary>Currents of the last actuation, from a tenth of a second before it.</summary>
    public IReadOnlyList<CurrentPair> Samples => _samples;

    /// <summary>Faults that are set.</summary>
    public IReadOnlyCollection<CarFault> Faults => _faults;

    /// <summary>Goes on by a time.</summary>
    public void Advance(TimeSpan time)
    {
        _owed += time.TotalSeconds;
        while (_owed >= StepSeconds / 2)
        {
            if (Unit.Runs || _drives.Any(d => d.Speed != 0))
            {
                Motion();
                _owed -= StepSeconds;
            }
            else
            {
                // Nothing turns: only charge and clocks go on, in strides that miss no moment at which something begins.
                var stride = Math.Min(_owed, 1);
                Rest(stride);
                _owed -= stride;
            }
        }
    }

    /// <summary>Turns the ignition. A brake that is in service stays there.</summary>
    public void Ignite(bool on)
    {
        if (on) Wake();
        var was = Ignition;
        Ignition = on;
        _quiet = 0;
        if (was && !on && AutoApply && Unit.State == UnitState.Released && !Unit.Runs) Begin(Routine.Apply);
    }

    /// <summary>A door, a key nearby, or anything else that wakes it. A car that wakes released, with the ignition off, applies.</summary>
    public void Wake()
    {
        _quiet = 0;
        if (!Asleep) return;
        Asleep = false;
        if (!Ignition && AutoApply && Unit.State == UnitState.Released) Begin(Routine.Apply);
    }

    /// <summary>The switch in the cabin. It does nothing in service.</summary>
    public Refusal? Switch(bool apply)
    {
        Wake();
        return Start(apply ? Routine.Apply : Routine.Release);
    }

    /// <summary>Starts a routine, or says why not.</summary>
    public Refusal? Start(Routine routine)
    {
        _quiet = 0;
        var refused = Unit.Start(routine, Ignition, Volts, KilometresPerHour);
        if (refused is null) Begin(null);
        return refused;
    }

    /// <summary>Stops what runs.</summary>
    public Refusal? Stop() => Unit.Stop();

    /// <summary>Clears the codes.</summary>
    public void ClearCodes() => Unit.Clear();

    /// <summary>Puts the mechanics of a side as hands left them. The spindle stays where its motor left it.</summary>
    /// <param name="side">0 is left.</param>
    /// <param name="mechanics">How they stand.</param>
    public void Put(int side, CornerMechanics mechanics)
    {
        ArgumentNullException.ThrowIfNull(mechanics);
        if (HasOneMotor && side > 0) return;
        var d = _drives[side];
        var last = side == _drives.Length - 1;
        d.Open = !mechanics.Plugged || Interrupted(side);
        d.Contact = mechanics.SomethingToClamp && !(last && Has(CarFault.PadsMissing)) ? mechanics.ContactMetres : double.PositiveInfinity;
        var unpumped = Has(CarFault.NotPumped) && mechanics.PistonMetres is null;
        var piston = unpumped ? Math.Min(PistonHome, mechanics.ContactMetres) : mechanics.PistonMetres ?? mechanics.ContactMetres;
        if (side == 0 && double.IsFinite(d.Contact))
        {
            // Pads that drag are met at once; over a piston that lies on its spindle the caliper goes no further than that lets it.
            if (Has(CarFault.PadsDrag)) d.Contact = Math.Max(d.Nut, 0) + HardlyAny;
            if (Has(CarFault.OnTheSpindle)) d.Contact = Math.Max(d.Contact, d.Nut + HardlyAny);
        }

        // Parts that would not go on over a spindle that far out are on: so somebody turned it back.
        if (double.IsFinite(d.Contact) && d.Nut > d.Contact + 2 * d.Figures.SqueezedMetres) d.Nut = 0;
        // A piston is never behind the nut: it lies on it.
        d.Piston = Math.Max(piston, d.Nut);
    }

    /// <summary>Puts the brake as it was left: spindles and unit together.</summary>
    /// <param name="state">Released, applied, in service, or not known.</param>
    public void Leave(UnitState state)
    {
        foreach (var d in _drives)
        {
            var at = double.IsFinite(d.Contact) ? d.Contact : d.Piston;
            d.Nut = state switch { UnitState.Applied => at + d.Figures.SqueezedMetres, UnitState.Service => 0, _ => Math.Max(0, at - d.Figures.ReleaseGapMetres) };
            if (d.Nut > d.Piston) d.Piston = d.Nut;
        }

        Unit.State = state;
    }

    /// <summary>Turns a spindle back by hand; the plug must be off.</summary>
    /// <param name="side">0 is left.</param>
    public void TurnBack(int side)
    {
        var d = _drives[HasOneMotor ? 0 : side];
        if (d.Open) d.Nut = 0;
    }

    /// <summary>Sets or lifts a fault.</summary>
    public void Set(CarFault fault, bool on)
    {
        if (on) _faults.Add(fault);
        else _faults.Remove(fault);
        var (left, right) = (_drives[0], _drives[^1]);
        switch (fault)
        {
            case CarFault.Seized or CarFault.Dry or CarFault.OneSlow:
                Rebuild();
                break;
            case CarFault.WeakBattery:
                Battery.Figures = on ? Battery.Figures with { InternalOhm = 0.06 } : new();
                Battery.Share = on ? 0.15 : Battery.Usual;
                break;
            case CarFault.ChargerOff when on:
                Battery.Charger = false;
                break;
            case CarFault.UnpluggedLeft or CarFault.UnpluggedRight or CarFault.FuseBlown:
                for (var k = 0; k < _drives.Length; k++) _drives[k].Open = Interrupted(k);
                break;
            case CarFault.PadsMissing when on:
                right.Contact = double.PositiveInfinity;
                break;
            case CarFault.NotPumped when on:
                foreach (var d in _drives.Where(d => d.Nut < PistonHome)) d.Piston = PistonHome;
                break;
            case CarFault.PadsDrag when on:
                left.Contact = Math.Max(left.Nut, 0) + HardlyAny;
                break;
            case CarFault.OnTheSpindle when on:
                // It came out again, as after a battery that was disconnected, and the unit does not know.
                left.Nut = Math.Max(left.Nut, SpindleOut);
                left.Piston = Math.Max(left.Piston, left.Nut);
                break;
            case CarFault.DoorOpened when on:
                Wake();
                break;
            case CarFault.ServiceFailsRight:
                Unit.FailsInService = on ? _drives.Length - 1 : null;
                break;
            case CarFault.CodeStays:
                Unit.Standing = on ? TroubleCodes.Lost : null;
                if (on) Unit.Store(TroubleCodes.Lost);
                break;
            default:
                break;
        }
    }

    private bool Has(CarFault fault) => _faults.Contains(fault);

    private bool Interrupted(int side) => Has(CarFault.FuseBlown) || Has(side == 0 ? CarFault.UnpluggedLeft : CarFault.UnpluggedRight);

    /// <summary>The motors with what faults make of them.</summary>
    private void Rebuild()
    {
        var f = Healthy(Variant);
        _drives[0].Figures = f with { FrictionNm = Has(CarFault.Seized) ? 10 : Has(CarFault.Dry) ? 0.060 : f.FrictionNm };
        if (_drives.Length > 1) _drives[1].Figures = Has(CarFault.OneSlow) ? f with { FrictionNm = 2 * f.FrictionNm, HarnessOhm = 0.30 } : Unlike(f);
    }

    private static DriveFigures Healthy(CarVariant variant) => variant switch
    {
        CarVariant.PullerCaliper or CarVariant.PullerHat => DriveFigures.Puller,
        CarVariant.MotorPlate => DriveFigures.Plate,
        _ => new DriveFigures(),
    };

    // No two sides are alike to the last hundredth.
    private static DriveFigures Unlike(DriveFigures figures) => figures with { FrictionNm = figures.FrictionNm * 1.05 };

    /// <summary>Puts a charger on, or takes it off.</summary>
    public void Charge(bool on)
    {
        Battery.Charger = on && !Has(CarFault.ChargerOff);
        if (!Unit.Runs) Volts = AtRest;
    }

    private void Begin(Routine? routine)
    {
        if (routine is { } r) Unit.Begin(r);
        if (!Unit.Runs) return;
        _samples.Clear();
        (_sinceSample, _quietRun) = (0, 0);
        // What the meter saw while nothing ran belongs to a trace: its zero is taken from there.
        for (var k = 0; k < QuietBefore * SamplesPerSecond; k++) Sample();
    }

    private void Motion()
    {
        Volts = Circuit.Step(_drives, Battery.OpenVolts, Battery.Figures.InternalOhm, Idle, StepSeconds);
        Battery.Draw(Idle + _drives.Sum(d => Math.Abs(d.Amps)), StepSeconds);
        Unit.Watch(Volts, StepSeconds);
        Seconds += StepSeconds;
        _sinceSample++;
        if (_sinceSample < StepsPerSample) return;
        _sinceSample = 0;
        Sample();
    }

    private void Rest(double seconds)
    {
        Battery.Draw(Idle, seconds);
        Volts = AtRest;
        Seconds += seconds;
        if (_quietRun < QuietAfter && _samples.Count > 0)
        {
            for (var k = 0; k < Math.Min(seconds, QuietAfter - _quietRun) * SamplesPerSecond; k++) Sample();
            _quietRun += seconds;
        }

        _quiet += seconds;
        if (!Ignition && !Asleep && _quiet >= SleepAfter) Asleep = true;
        if (Has(CarFault.ClampsAgain) && Unit.State == UnitState.Applied && _quiet >= ClampsAgainAfter)
        {
            // Discs that cool shrink away from their pads.
            foreach (var d in _drives) d.Contact += 0.08e-3;
            _quiet = 0;
            Unit.State = UnitState.Released;
            Begin(Routine.Apply);
        }
    }

    private double AtRest => Battery.OpenVolts - Battery.Figures.InternalOhm * Idle;

    private double Idle => Ignition ? Battery.Figures.IgnitionAmps : Asleep ? Battery.Figures.SleepingAmps : 0.5;

    private void Sample()
    {
        if (_samples.Count >= 60 * SamplesPerSecond) return;
        _samples.Add(new(Noisy(_drives[0].Amps), _drives.Length > 1 ? Noisy(_drives[1].Amps) : 0));
    }

    private double Noisy(double amps) => amps + 0.02 * Math.Sqrt(-2 * Math.Log(1 - _random.NextDouble())) * Math.Cos(2 * Math.PI * _random.NextDouble());
}

using PatientPawl.Core.Electric.Link;

namespace PatientPawl.StandIns.Car;

/// <summary>The control unit of the parking brake: what it does, when it refuses, what it remembers.</summary>
public sealed class Unit
{
    private const double Blanking = 0.12, StillSpeed = 0.02e-3, StillFor = 0.3, TimeLimit = 25, LowVolts = 9.0, LowFor = 0.2, Apart = 0.4, BetweenStrokes = 0.4, NoCurrentFor = 0.25;

    // Less than this since the start is no motion: play in the gears.
    private const double Play = 0.05e-3;

    private readonly Drive[] _drives;
    private readonly double[] _from, _still, _ran;
    private readonly double?[] _contact;
    private readonly SideEnd[] _ends;
    private readonly HashSet<int> _codes = [];
    private double _ranFor, _lowFor, _pause;
    private Phase _phase;

    private enum Phase
    {
        Idle,
        Out,
        Pause,
        Back,
    }

    internal Unit(Drive[] drives)
    {
        _drives = drives;
        (_from, _still, _ran, _ends) = (new double[drives.Length], new double[drives.Length], new double[drives.Length], new SideEnd[drives.Length]);
        _contact = new double?[drives.Length];
    }

    /// <summary>What it says of the brake.</summary>
    public UnitState State { get; internal set; } = UnitState.Released;

    /// <summary>The last routine; null before the first.</summary>
    public Routine? Last { get; private set; }

    /// <summary>How the last routine stands.</summary>
    public RoutineStatus Status { get; private set; }

    /// <summary>How each side ended, left first; a puller has one.</summary>
    public IReadOnlyList<SideEnd> Ends => _ends;

    /// <summary>Numbers of the stored codes.</summary>
    public IReadOnlyCollection<int> Stored => _codes;

    /// <summary>True until the assembly check has been run with a new actuator.</summary>
    public bool CheckDue { get; set; }

    /// <summary>Least voltage at which it starts, V.</summary>
    public double FloorVolts { get; set; } = 12.0;

    /// <summary>A code that comes back at every test: nobody put its cause right.</summary>
    public TroubleCode? Standing { get; set; }

    /// <summary>A side that does not reach its back stop; null where both do.</summary>
    public int? FailsInService { get; set; }

    /// <summary>True while a motor is fed or waits for its second stroke.</summary>
    public bool Runs => _phase != Phase.Idle;

    /// <summary>Starts a routine, or says why not. A refusal moves nothing.</summary>
    internal Refusal? Start(Routine routine, bool ignition, double volts, double kilometresPerHour)
    {
        if (Runs) return Refusal.Busy;
        if (!ignition) return Refusal.ConditionsNotCorrect;
        if (kilometresPerHour > 1) return Refusal.SpeedTooHigh;
        if (volts < FloorVolts) return Refusal.VoltsTooLow;
        var wrongState = routine switch
        {
            Routine.ServiceIn => State == UnitState.Service,
            Routine.ServiceOut => State is not (UnitState.Service or UnitState.Fault),
            _ => State == UnitState.Service,
        };
        if (wrongState) return Refusal.ConditionsNotCorrect;
        if (_drives.Any(d => d.Open))
        {
            for (var k = 0; k < _drives.Length; k++) if (_drives[k].Open) _codes.Add(TroubleCodes.Open[k].Number);
            return Refusal.FailurePrevents;
        }

        Begin(routine);
        return null;
    }

    /// <summary>Begins without asking: what the unit does by itself, and what a switch makes it do.</summary>
    internal void Begin(Routine routine)
    {
        (Last, Status) = (routine, RoutineStatus.Running);
        if ((routine == Routine.Apply && State == UnitState.Applied) || (routine == Routine.Release && State == UnitState.Released))
        {
            Array.Fill(_ends, SideEnd.Already);
            Status = RoutineStatus.Done;
            return;
        }

        State = routine switch { Routine.ServiceIn or Routine.Release => UnitState.Releasing, Routine.ServiceOut => UnitState.Closing, _ => UnitState.Applying };
        Stroke(routine is Routine.ServiceIn or Routine.Release ? Phase.Back : Phase.Out);
    }

    /// <summary>Stops on request; says why not where there is nothing to stop.</summary>
    internal Refusal? Stop()
    {
        if (!Runs) return Refusal.Sequence;
        for (var k = 0; k < _drives.Length; k++) if (_ends[k] == SideEnd.Moving) End(k, SideEnd.Stopped);
        Finish(RoutineStatus.Stopped, UnitState.Fault);
        return null;
    }

    internal void Clear()
    {
        _codes.Clear();
        // A cause that needs no motion to be seen is seen at once; the others at the next actuation.
        if (CheckDue) _codes.Add(TroubleCodes.CheckDue.Number);
    }

    internal void Store(TroubleCode code) => _codes.Add(code.Number);

    /// <summary>Forgets how the last routine ended, as a unit does that was without power.</summary>
    internal void Forget() => (Last, Status) = (null, RoutineStatus.NeverStarted);

    private void Stroke(Phase phase)
    {
        (_phase, _ranFor, _lowFor) = (phase, 0, 0);
        for (var k = 0; k < _drives.Length; k++)
        {
            (_from[k], _still[k], _ran[k]) = (_drives[k].Nut, 0, 0);
            _ends[k] = SideEnd.Moving;
            _drives[k].Fed = phase == Phase.Out ? 1 : -1;
        }
    }

    private void End(int k, SideEnd end)
    {
        _ends[k] = end;
        _ran[k] = _ranFor;
        _drives[k].Fed = 0;
        _drives[k].Cut();
        if (end == SideEnd.Clamped) _contact[k] = _drives[k].Nut - _drives[k].Figures.SqueezedMetres;
        var code = end switch
        {
            SideEnd.NoMotion => TroubleCodes.Seized[k],
            SideEnd.TravelLimit => TroubleCodes.NoClamp[k],
            SideEnd.Open => TroubleCodes.Open[k],
            SideEnd.LowVolts => TroubleCodes.LowVolts,
            SideEnd.OutOfTime => TroubleCodes.NoEnd,
            _ => null,
        };
        if (code is not null) _codes.Add(code.Number);
    }

    private void Finish(RoutineStatus status, UnitState state)
    {
        (_phase, Status, State) = (Phase.Idle, status, state);
        foreach (var d in _drives) d.Fed = 0;
    }

    /// <summary>Looks at the motors after each step of the physics and ends what has reached its end.</summary>
    internal void Watch(double volts, double dt)
    {
        if (_phase == Phase.Idle) return;
        if (_phase == Phase.Pause)
        {
            _pause -= dt;
            if (_pause <= 0) Stroke(Phase.Back);
            return;
        }

        _ranFor += dt;
        _lowFor = volts < LowVolts ? _lowFor + dt : 0;
        for (var k = 0; k < _drives.Length; k++) if (_ends[k] == SideEnd.Moving && EndOf(k, dt) is { } end) End(k, end);
        if (!_ends.Contains(SideEnd.Moving)) StrokeOver();
    }

    private SideEnd? EndOf(int k, double dt)
    {
        var (d, f) = (_drives[k], _drives[k].Figures);
        var moved = Math.Abs(d.Nut - _from[k]);
        _still[k] = Math.Abs(d.NutSpeed) < StillSpeed ? _still[k] + dt : 0;
        if (_lowFor >= LowFor) return SideEnd.LowVolts;
        if (d.Open) return _ranFor >= NoCurrentFor ? SideEnd.Open : null;
        if (_ranFor >= TimeLimit) return SideEnd.OutOfTime;
        if (_phase == Phase.Out)
        {
            if (_ranFor >= Blanking && d.Amps >= f.CutOffAmps) return moved < Play ? SideEnd.NoMotion : SideEnd.Clamped;
            if (d.Nut >= f.RangeMetres - 1e-6) return SideEnd.TravelLimit;
            // Out of breath against its pads: it clamps what the supply allows, and did not reach its cut-off.
            if (_still[k] >= StillFor) return moved < Play ? SideEnd.NoMotion : SideEnd.LowVolts;
            return null;
        }

        var service = Last == Routine.ServiceIn;
        if (!service && d.Nut <= Believed(k) - f.ReleaseGapMetres) return SideEnd.Released;
        if (_ranFor >= Blanking && -d.Amps >= f.BackStopAmps && d.Nut <= 0) return FailsInService == k && service ? SideEnd.OutOfTime : service ? SideEnd.AtBackStop : SideEnd.Released;
        if (_ranFor >= Blanking && -d.Amps >= f.CutOffAmps && moved < Play) return d.Nut <= Play ? SideEnd.Already : SideEnd.NoMotion;
        if (FailsInService == k && service && moved > 2e-3) return SideEnd.OutOfTime;
        return _still[k] >= StillFor ? SideEnd.NoMotion : null;
    }

    // It does not see its pads: it counts back from where it clamped, by what its cut-off current presses together.
    private double Believed(int k) => _contact[k] ?? (double.IsFinite(_drives[k].Contact) ? _drives[k].Contact : 0);

    private void StrokeOver()
    {
        if (Standing is { } standing) _codes.Add(standing.Number);
        var good = _ends.All(e => e is SideEnd.Clamped or SideEnd.Released or SideEnd.AtBackStop or SideEnd.Already);
        if (good && _ran.Length > 1 && Math.Abs(_ran[0] - _ran[1]) > Apart) _codes.Add(TroubleCodes.Differ.Number);
        if (Last == Routine.ServiceIn)
        {
            // One side that stays out keeps the other in service: a unit that drove it out again would close it on somebody.
            var inService = _ends.Any(e => e is SideEnd.AtBackStop or SideEnd.Already);
            Finish(good ? RoutineStatus.Done : RoutineStatus.Failed, inService ? UnitState.Service : UnitState.Fault);
        }
        else if (!good) Finish(RoutineStatus.Failed, UnitState.Fault);
        else if (_phase == Phase.Out && Last is Routine.ServiceOut or Routine.AssemblyCheck) (_phase, _pause) = (Phase.Pause, BetweenStrokes);
        else
        {
            if (Last == Routine.AssemblyCheck)
            {
                CheckDue = false;
                _codes.Remove(TroubleCodes.CheckDue.Number);
            }

            Finish(RoutineStatus.Done, Last == Routine.Apply ? UnitState.Applied : UnitState.Released);
        }
    }
}

using PatientPawl.Core;
using PatientPawl.Core.Electric;
using PatientPawl.Core.Electric.Link;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.StandIns.Car;
using PatientPawl.StandIns.Link;
using PatientPawl.Web.Hosting;
using Battery = PatientPawl.Core.Planning.Battery;

namespace PatientPawl.Web.Electric;

/// <summary>
/// Where the car on the link is. With no other named it is the stand-in, on a loopback socket of this process: the tool talks to it as it would to
/// any. What hands did to a practice car - pads in, plug home, pedal pumped - is told it from the job; where its spindles stand it knows itself.
/// </summary>
public sealed class CarHost(StartOptions options, TimeProvider clock) : IAsyncDisposable
{
    private const int UsualPort = 13400;

    private readonly Lock _lock = new();
    private readonly HashSet<CarFault> _faults = [];
    private CarServer? _own;
    private Guid? _job;

    /// <summary>True where the car is the stand-in of this process.</summary>
    public bool IsOwn => options.Car is null;

    /// <summary>How much faster than real its time goes.</summary>
    public double Speed => IsOwn ? options.CarSpeed : 1;

    /// <summary>Where it is reached; starts the stand-in where it is not there yet.</summary>
    public (string Host, int Port) Address => options.Car ?? ("127.0.0.1", Own().Port);

    /// <summary>Faults that are set.</summary>
    public IReadOnlyList<CarFault> Faults
    {
        get { lock (_lock) return [.. _faults.Order()]; }
    }

    /// <summary>Starts the stand-in, so that it is heard of from the start.</summary>
    public void Start()
    {
        if (IsOwn) Own();
    }

    private CarServer Own()
    {
        lock (_lock)
        {
            if (_own is not null) return _own;
            _own = new(new StandInCar(), new(UsualPort, options.CarSpeed), clock);
            _own.Start();
            return _own;
        }
    }

    /// <summary>Sets or lifts a fault of the stand-in car.</summary>
    /// <exception cref="NotAllowedException">The car on the link is not this process's.</exception>
    public void Set(CarFault fault, bool on)
    {
        if (!IsOwn) throw new NotAllowedException("That car is not the stand-in of this server.", ["Faults never reach another link."], []);
        var own = Own();
        lock (_lock)
        {
            if (on) _faults.Add(fault);
            else _faults.Remove(fault);
        }

        own.With(c =>
        {
            c.Set(fault, on);
            return 0;
        });
    }

    /// <summary>Puts the car of a job there, as its hands have left it.</summary>
    public void Put(Guid job, JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        if (!IsOwn) return;
        var own = Own();
        lock (_lock)
        {
            if (_job != job)
            {
                var car = new StandInCar(Variant(state), seed: job.GetHashCode());
                Hands(car, state);
                car.Leave(Left(state.Car.Get(Car.Brake)));
                foreach (var fault in _faults) car.Set(fault, true);
                own.Replace(car);
                _job = job;
            }
        }

        own.With(c =>
        {
            Hands(c, state);
            return 0;
        });
    }

    private static CarVariant Variant(JobState state) => state.Setup.Left.Architecture switch
    {
        Architecture.MotorTurn => CarVariant.MotorTurn,
        Architecture.PullerScrew => CarVariant.PullerCaliper,
        Architecture.PullerHat => CarVariant.PullerHat,
        Architecture.MotorHat => CarVariant.MotorPlate,
        _ => CarVariant.MotorPush,
    };

    private static UnitState Left(ParkingBrake brake) => brake switch
    {
        ParkingBrake.Applied => UnitState.Applied,
        ParkingBrake.Service or ParkingBrake.ServiceInDoubt => UnitState.Service,
        ParkingBrake.Unknown => UnitState.Fault,
        _ => UnitState.Released,
    };

    /// <summary>What hands did, as the job has it.</summary>
    private static void Hands(StandInCar car, JobState state)
    {
        car.Charge(state.Car.Get(Car.Battery) == Battery.Supported);
        car.AutoApply = state.Car.Get(Car.AutoApply) == AutoApply.Active;
        var ignition = state.Car.Get(Car.Ignition) == Ignition.On;
        if (ignition != car.Ignition) car.Ignite(ignition);
        // Let go by its key, by the car's own sequence or by another tool that somebody reported: it is in service as far as its unit can tell.
        if (state.Car.Get(Car.Brake) == ParkingBrake.Service && car.Unit is { Runs: false, State: UnitState.Released or UnitState.Applied }) car.Leave(UnitState.Service);
        foreach (var side in Sides.Both)
        {
            var (hat, spot) = (state.Setup.IsHat, state.Setup.IsSpot);
            var rotor = state.Car.Get(Corner.Rotor, side) != Rotor.Off;
            var there = rotor && (hat ? state.Car.Get(Corner.Shoes, side) is not ShoesState.Off
                : spot ? state.Car.Get(Corner.Spot, side) == SpotCaliper.On
                : state.Car.Get(Corner.Caliper, side) == Caliper.On && state.Car.Get(Corner.Pads, side) != PadState.None);
            // New pads leave the piston a little to go; worn ones far more. The two sides are never quite alike. Invented, for practice.
            var contact = (car.HasOneMotor ? 10e-3 : state.Car.Get(Corner.Pads, side) == PadState.New ? 2.06e-3 : 8.0e-3) + (side == Side.Right ? 0.05e-3 : 0);
            var atHome = !hat && state.Car.Get(Corner.Piston, side) == Piston.Home && state.Car.Get(Car.Pedal) == Pedal.NotPumped;
            var plugged = state.Car.Get(Corner.Actuator, side) is Actuator.None or Actuator.Plugged;
            car.Put((int)side, new(there, contact, atHome ? 1e-3 : null, plugged));
            // What was turned back by hand, with its plug off, stands at its stop.
            if (!plugged && state.Car.Get(Corner.Spindle, side) == Spindle.Back) car.TurnBack((int)side);
        }
    }

    /// <summary>Stops the stand-in.</summary>
    public async ValueTask DisposeAsync()
    {
        if (_own is not null) await _own.DisposeAsync();
    }
}

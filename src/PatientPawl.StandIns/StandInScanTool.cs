using PatientPawl.Core;
using PatientPawl.Core.Electric;
using UnitsNet;

namespace PatientPawl.StandIns;

/// <summary>How the stand-in car stands under its scan tool.</summary>
/// <param name="Battery">Battery voltage, 6 to 16 V.</param>
/// <param name="Floor">Voltage under which it refuses to drive the brake.</param>
/// <param name="CalipersOn">True when both calipers are on with pads in.</param>
/// <param name="InService">True when the brake is known to be in service.</param>
public sealed record StubCar(ElectricPotential Battery, ElectricPotential Floor, bool CalipersOn, bool InService);

/// <summary>
/// A scan tool that is not there: it refuses under the battery floor and where the brake already is, keeps codes, and stores one when it is told to
/// close a brake that has nothing between its pistons. Simulated; for rehearsal and for tests.
/// </summary>
public sealed class StandInScanTool : IScanTool
{
    private const string Overtravel = "C1B21 rear brake actuator, end position not found";
    private readonly Lock _lock = new();
    private readonly List<string> _codes = ["C1A07 rear brake switch, history"];
    private bool _inService;

    /// <summary>The car under it.</summary>
    public StubCar Car { get; private set; } = new(ElectricPotential.FromVolts(12.6), ElectricPotential.FromVolts(12.0), true, false);

    /// <summary>Puts the car as the job knows it.</summary>
    /// <exception cref="InputException">A voltage no car has.</exception>
    public void Put(StubCar car)
    {
        ArgumentNullException.ThrowIfNull(car);
        new Checks().Range("batteryV", car.Battery.Volts, 6, 16, "V").ThrowIfAny();
        lock (_lock)
        {
            Car = car;
            _inService |= car.InService;
        }

    }

    /// <inheritdoc/>
    public ToolAnswer Ask(ToolFunction function)
    {
        lock (_lock)
        {
            var (done, words) = function switch
            {
                ToolFunction.ReadCodes => (true, _codes.Count == 0 ? "No codes stored." : $"{_codes.Count} stored."),
                ToolFunction.ClearCodes => (true, "Codes cleared."),
                _ when Car.Battery < Car.Floor => (false, $"Refused: {Figure.Of(Car.Battery.Volts, 1)} V, at least {Figure.Of(Car.Floor.Volts, 1)} V wanted."),
                ToolFunction.EnterService when _inService => (false, "Refused: the brake is in service already."),
                ToolFunction.EnterService => (true, "Both actuators stopped. Brake in service position."),
                ToolFunction.CloseService when !_inService => (false, "Refused: the brake is not in service."),
                ToolFunction.CloseService when !Car.CalipersOn => (false, "Stopped: no end position found. Code stored."),
                ToolFunction.CloseService => (true, "Both actuators stopped. Brake closed."),
                _ => throw new InputException(new InputError("function", function.ToString(), "a known function", "The tool does not know that function.")),
            };
            switch (function)
            {
                case ToolFunction.ClearCodes:
                    _codes.Clear();
                    break;
                case ToolFunction.EnterService when done:
                    _inService = true;
                    break;
                case ToolFunction.CloseService when done:
                    _inService = false;
                    break;
                case ToolFunction.CloseService when _inService && Car.Battery >= Car.Floor:
                    if (!_codes.Contains(Overtravel)) _codes.Add(Overtravel);
                    break;
                default:
                    break;
            }

            return new(function, done, words, [.. _codes], Car.Battery);
        }
    }
}

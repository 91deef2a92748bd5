using System.Globalization;
using PatientPawl.StandIns.Car;
using PatientPawl.StandIns.Link;

// dotnet PatientPawl.StandIns.dll car [--port N] [--speed X] [--variant NAME] [--fault NAME]...: the stand-in car by itself, until Ctrl+C.
const string Usage = "stand-ins: use  car [--port N] [--speed 0.1..100] [--variant motor-push|motor-turn|puller-caliper|puller-hat|motor-plate] [--fault NAME]...";
if (args is not ["car", .. var rest] || rest.Length % 2 != 0) return Wrong(Usage);
var (port, speed, variant, faults) = (13400, 1.0, CarVariant.MotorPush, new List<CarFault>());
for (var i = 0; i < rest.Length; i += 2)
{
    var value = rest[i + 1];
    switch (rest[i])
    {
        case "--port" when int.TryParse(value, NumberStyles.None, CultureInfo.InvariantCulture, out var p) && p is >= 0 and <= 65535:
            port = p;
            break;
        case "--speed" when double.TryParse(value, NumberStyles.Float, CultureInfo.InvariantCulture, out var s) && s is >= 0.1 and <= 100:
            speed = s;
            break;
        case "--variant" when Named<CarVariant>(value) is { } v:
            variant = v;
            break;
        case "--fault" when Named<CarFault>(value) is { } f:
            faults.Add(f);
            break;
        default:
            return Wrong($"stand-ins: {rest[i]} {value} is not understood. {Usage}");
    }
}

var car = new StandInCar(variant);
foreach (var fault in faults) car.Set(fault, true);
await using var server = new CarServer(car, new(port, speed), TimeProvider.System);
server.Start();
Console.WriteLine($"The stand-in car ({variant}) listens on 127.0.0.1:{server.Port}, TCP and UDP. Ctrl+C stops it.");
using var stop = new ManualResetEventSlim();
Console.CancelKeyPress += (_, e) =>
{
    e.Cancel = true;
    stop.Set();
};
stop.Wait();
return 0;

static int Wrong(string says)
{
    Console.Error.WriteLine(says);
    return 2;
}

static T? Named<T>(string name) where T : struct, Enum => Enum.TryParse<T>(name.Replace("-", "", StringComparison.Ordinal), ignoreCase: true, out var v) && !char.IsDigit(name[0]) ? v : null;

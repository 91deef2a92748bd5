using System.Diagnostics;
using System.Globalization;
using PatientPawl.Bench.Workshop;

// What the product costs beside a bare Kestrel that does the least for the same bytes, and what ten thousand jobs behind it cost.
//   all                   everything, 100 and 10 000 jobs, in one run on one machine
//   ratios                only what is read and written beside the bare Kestrel, on the demo's jobs
//   crowd SECONDS         50 people on one job without a pause, against the same load on a bare Kestrel
//   bare PORT FOLDER FILE the bare Kestrel itself
var root = AppContext.BaseDirectory;
while (!File.Exists(Path.Combine(root, "PatientPawl.slnx"))) root = Path.GetDirectoryName(root.TrimEnd('/'))!;
var product = Path.Combine(root, ".build", "app", "PatientPawl.Web.dll");
switch (args)
{
    case ["bare", var port, var folder, var file]:
        await Bare.Run(int.Parse(port, CultureInfo.InvariantCulture), folder, file);
        break;
    case ["all"]:
        await Measured.All(product);
        break;
    case ["ratios"]:
        await Measured.Beside(product);
        break;
    case ["crowd", var seconds]:
        await Measured.Crowd(product, int.Parse(seconds, CultureInfo.InvariantCulture));
        break;
    default:
        Console.Error.WriteLine("all | ratios | crowd SECONDS");
        break;
}

using System.Diagnostics;
using PatientPawl.Core.Planning;
using Xunit.Abstractions;
namespace PatientPawl.Core.Tests.Planning.Twin;
public class ZzDebug(ITestOutputHelper output)
{
    [Fact]
    public void T()
    {
        var (a, b, c, d) = (new Stopwatch(), new Stopwatch(), new Stopwatch(), new Stopwatch());
        var n = 0;
        foreach (var setup in Setups.Everything().Where((_, i) => i % 12 == 5))
        {
            a.Start(); var cat = CompiledCatalogue.For(setup); a.Stop();
            b.Start(); var plan = Planner.Make(setup, setup.Start()); b.Stop();
            c.Start(); Scheduling.Make(setup, setup.Start(), plan.Steps, 1 + n++ % 2); c.Stop();
            d.Start(); var s = setup.Start(); foreach (var k in plan.Steps) { _ = Planner.Why(setup, s, k).Allowed; s = Planner.Apply(setup, s, k, null); } d.Stop();
        }
        output.WriteLine($"{n} setups: compile {a.ElapsedMilliseconds}, plan {b.ElapsedMilliseconds}, schedule {c.ElapsedMilliseconds}, follow {d.ElapsedMilliseconds}");
    }
}

using BenchmarkDotNet.Attributes;
using BenchmarkDotNet.Running;
using PatientPawl.Core.Electric;
using PatientPawl.Core.Electric.Link;
using PatientPawl.StandIns.Car;
using PatientPawl.Core;
using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Shoes;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Bench;

internal static class Program
{
    private static void Main(string[] args)
    {
        if (args is ["replanning"]) Replanning.Run();
        else BenchmarkSwitcher.FromAssembly(typeof(Judges).Assembly).Run(args);
    }
}

/// <summary>Every judge of the measuring benches, with the sets of readings a technician takes. Wanted: under 100 microseconds each, the gap profile under 1 ms.</summary>
[MemoryDiagnoser]
[ShortRunJob]
public class Judges
{
    private static readonly IReadOnlyList<Instrument> All = InstrumentCatalogue.Defaults;
    private static readonly Instrument Gauge = InstrumentCatalogue.Find("drum-gauge")!, Depth = InstrumentCatalogue.Find("depth-gauge")!, Micrometer = InstrumentCatalogue.Find("micrometer")!, Dial = InstrumentCatalogue.Find("dial")!;
    private static readonly double[] Around = [0, 45, 90, 135];

    private readonly Drum _drum = new([.. Enum.GetValues<DrumDepth>().SelectMany(p => Around.Select(d => new DrumReading(Angle.FromDegrees(d), p, Mm(190.9 + d / 3000), Gauge)))], 35, 18, 4);
    private readonly ShoeSet _shoes = new(Mm(190.1), Mm(80), Mm(80), Mm(1.25), 25, false, 40, null, null, Mm(190));
    private readonly LiningReading[] _linings = [.. Enum.GetValues<ShoePosition>().SelectMany(s => Enum.GetValues<LiningPoint>().Select(p => new LiningReading(s, p, Mm(2.4), Depth)))];
    private readonly ThicknessReading[] _ring = [.. Enumerable.Range(0, 12).Select(i => new ThicknessReading(Angle.FromDegrees(30 * i), Mm(9.2 + i % 3 / 100.0), Micrometer))];
    private readonly RunoutRun _run = new([.. Enumerable.Range(0, 12).Select(i => new RunoutReading(Angle.FromDegrees(30 * i), Mm(0.06 * Math.Cos(i * Math.PI / 6))))], Dial, Angle.Zero);
    private readonly PadReading[] _pads = [.. Sides.Both.SelectMany(s => Enum.GetValues<PadPosition>().SelectMany(p => Enum.GetValues<PadEnd>().Select(e => new PadReading(s, p, e, Mm(s == Side.Left && p == PadPosition.Inner ? 3 : 7), Depth))))];
    private readonly WearPoint[] _history = [new(0, Mm(10.1)), new(8_000, Mm(9.1)), new(17_000, Mm(8.5)), new(26_000, Mm(7.4)), new(33_000, Mm(6.9))];
    private DrumVerdict _drumVerdict = null!;
    private RunoutVerdict _first = null!, _second = null!;
    private ThicknessVerdict _thickness = null!;

    [GlobalSetup]
    public void Setup()
    {
        _drumVerdict = Drum();
        _first = OncePerTurn();
        _second = Runout.Fit(_run with { Readings = [.. _run.Readings.Select(r => r with { Deflection = r.Deflection * 0.4 })], MovedBy = Angle.FromDegrees(180) }, null, All);
        _thickness = Thickness();
    }

    [Benchmark] public DrumVerdict Drum() => DrumJudgement.Judge(_drum, new(Mm(191)), All);
    [Benchmark] public ClearanceVerdict Clearance() => ShoeClearance.Judge(_drumVerdict, _shoes, new(null, null, 6));
    [Benchmark] public ShoesVerdict Linings() => ShoeWear.Judge(_linings, new(Known.No, Known.No, Known.Yes), null, All);
    [Benchmark] public GapVerdict ExactGapProfile() => GapProfile.AfterClicks(Mm(190.9), _shoes, 9);
    [Benchmark] public ThicknessVerdict Thickness() => RotorThickness.Judge(_ring, new(Mm(8.4)), All);
    [Benchmark] public RunoutVerdict OncePerTurn() => Runout.Fit(_run, null, All);
    [Benchmark] public HubAndRotorVerdict HubOrRotor() => HubAndRotor.Separate(_first, Angle.Zero, _second, Angle.FromDegrees(180), 5, null, Dial, null);
    [Benchmark] public RotorRuled Ruling() => RotorRuling.Decide(_thickness, _first, null, RotorCondition.NotLooked, Side.Left);
    [Benchmark] public PadsVerdict Pads() => PadWear.Judge(_pads, new(Mm(10), Mm(10), null), [], All);
    [Benchmark] public ForecastVerdict Forecast() => PadForecast.Compute(_history, Mm(2), 20_000);

    private static Length Mm(double v) => Length.FromMillimeters(v);
}

/// <summary>The retract and fluid benches, asked at every turn and every keystroke. Wanted: under 100 microseconds each.</summary>
[MemoryDiagnoser]
[ShortRunJob]
public class Retracting
{
    private static readonly Instrument Depth = InstrumentCatalogue.Find("depth-gauge")!;
    private readonly LogInput _log = new([.. Enumerable.Range(0, 14).Select(i => new LogPoint(Guid.NewGuid(), i, Mm(12.4 - 0.8 * i + i % 3 / 100.0), Effort: UnitsNet.Torque.FromNewtonMeters(6 + i % 2)))], true, Mm(1.5), Mm(0.8), null, [Mm(38)], Depth, false, false, StuckChecks.None, UnitsNet.Torque.FromNewtonMeters(6), 13.5);
    private readonly AlignmentInput _slot = new(4, Angle.FromDegrees(18), Angle.Zero, TurnDirection.Clockwise, Known.NotKnown, 4, Mm(0.8), Mm(2), false, AlignmentRule.OnwardOnly);
    private readonly HowFarInput _far = new(new(Mm(8), Mm(9), Mm(10)), new(Mm(15), Mm(15), Mm(11)), Mm(14), Mm(2), null, Mm(28), 4, null, ProtrusionOuter: Mm(13));
    private static readonly CornerFluid[] Corners = [.. Sides.Both.Select(s => new CornerFluid(s, [Mm(38)], Mm(12), Mm(9), null))];
    private readonly ReservoirInput _tank = new(new(Volume.FromMilliliters(75), Volume.FromMilliliters(10)), null, 95, Corners, FluidRoomRule.DrawOff);
    private readonly StrokesInput _pedal = new(Mm(20.6), Mm(16), CircuitSplit.ByAxle, PumpRule.HalfStrokes, Corners, false, 3, false);
    private readonly BleedInput _bleed = new(BleedMethod.TwoPerson, [.. Enumerable.Range(0, 12).Select(i => new BleedDraw(Guid.NewGuid(), Volume.FromMilliliters(15), i < 9, false, i > 8, i % 4 == 3))], new(Volume.FromMilliliters(75), Volume.FromMilliliters(10)), 100, null);

    [Benchmark] public LogAnswer Log() => RetractionLog.Follow(_log);
    [Benchmark] public AlignmentAnswer Slot() => PistonAlignment.Plan(_slot);
    [Benchmark] public OpposedTravel Opposed() => HowFar.Opposed(_far, RetractDepthRule.AllTheWayHome);
    [Benchmark] public ReservoirAnswer Reservoir() => FluidBench.Predict(_tank);
    [Benchmark] public StrokesAnswer Strokes() => PedalStrokes.Predict(_pedal);
    [Benchmark] public BleedAnswer Bleed() => Bleeding.Follow(_bleed);

    private static Length Mm(double v) => Length.FromMillimeters(v);
}

/// <summary>A plan from the start of a job, and the question why not.</summary>
[ShortRunJob]
public class Plans
{
    private readonly PlanSetup _hat = PlanSetup.For(Architecture.HatShoes, JobScope.Shoes), _tool = PlanSetup.For(Architecture.MotorPush, JobScope.PadsAndRotors, ServiceRoute.ScanTool);

    private readonly IReadOnlyList<StepKey> _steps;

    public Plans() => _steps = Planner.Make(_tool, _tool.Start()).Steps;

    [Benchmark] public Plan ShoesInTheHat() => Planner.Make(_hat, _hat.Start());
    [Benchmark] public Plan PadsAndRotorsByTool() => Planner.Make(_tool, _tool.Start());
    [Benchmark] public Schedule ForTwo() => Scheduling.Make(_tool, _tool.Start(), _steps, 2);
    [Benchmark] public NightStop ForTheNight() => Overnight.Shortest(_tool, _tool.Start());
    [Benchmark] public WhyNot WhyNotTheCaliper() => Planner.Why(_tool, _tool.Start(), new("caliper-off", Side.Left));
}

/// <summary>The stand-in car and the reader of its currents. Wanted: ten seconds of car under 100 ms, a trace of 30 000 points under 20 ms.</summary>
[ShortRunJob]
public class Electric
{
    private readonly CurrentTrace _trace = Made(30_000);
    private readonly TimeSpan _run = TimeSpan.FromSeconds(10);

    [Benchmark]
    public double TenSecondsOfCar()
    {
        var car = new StandInCar();
        // Nothing to clamp: both motors turn all the while.
        foreach (var side in new[] { 0, 1 }) car.Put(side, new(false, 2e-3, null, true));
        car.Leave(UnitState.Service);
        car.Start(Routine.ServiceOut);
        car.Advance(_run);
        return car.Drives[0].Nut;
    }

    [Benchmark] public TraceReading Trace() => TraceReader.Read(_trace);

    private static CurrentTrace Made(int points)
    {
        var random = new Random(3);
        double At(double t) => t is < 0.3 or > 3 ? 0 : 1.8 + 18 * Math.Exp(-(t - 0.3) / 0.02) + (t > 1.5 ? 20 * (1 - Math.Exp(-(t - 1.5) / 0.9)) : 0);
        return CurrentTrace.From([.. Enumerable.Range(0, points).Select(k => ElectricCurrent.FromAmperes(At(k / 9000.0) + 0.05 * random.NextDouble()))], Frequency.FromHertz(9000));
    }
}

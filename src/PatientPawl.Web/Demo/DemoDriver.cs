using PatientPawl.Core;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using PatientPawl.Data;
using UnitsNet;

namespace PatientPawl.Web.Demo;

/// <summary>Works a demo job as a technician would, through the job's own rules: whatever the rules refuse, it cannot do.</summary>
internal sealed class DemoDriver(EventStore events, Library library, Technician who, DateTimeOffset start, DemoReadings left, DemoReadings right, double level)
{
    private readonly Guid _job = Guid.NewGuid();
    private DateTimeOffset _time = start;

    private DateOnly Today => DateOnly.FromDateTime(_time.DateTime);

    private ToolBoard Board => new(library.Instruments(), Today);


    private JobState State => events.State(_job);

    public DemoDriver Open(int bay, Vehicle vehicle, SpecSheet sheet, int km, string complaint, JobScope scope) =>
        Do(0, _ => JobRules.Open(0, bay, vehicle, km, complaint, scope, sheet, HouseRules.Default, library.Instruments()) with { Purpose = JobPurpose.Demo }, 0);

    public DemoDriver LookOver() => Do(6, s => JobRules.LookOver(s, LookedOver()));

    /// <summary>The answers before lifting of a car with nothing about it.</summary>
    public static IReadOnlyList<LookOverItem> LookedOver() => [.. LookOverQuestions.All.Select(q => new LookOverItem(q.Id,
        q.Id is "lamps" or "twin-wheels" or "wheel-bolts" or LookOverQuestions.SimulatedPedal or LookOverQuestions.SelfPressurising or "roll" ? LookOverAnswer.No : LookOverAnswer.Yes))];

    public DemoDriver Looks(Side side, IEnumerable<Observation> looks)
    {
        foreach (var o in looks) Do(0, s => JobRules.Record(s, side, o.Look, o.Seen));
        return this;
    }

    /// <summary>Looks the car over, looks at both corners and rules on them.</summary>
    public DemoDriver Look(Observation[] looks)
    {
        LookOver();
        foreach (var side in Core.Sides.Both)
        {
            Looks(side, looks);
            Do(4, s => JobRules.Rule(s, side));
        }

        return this;
    }

    /// <summary>Tests the fluid by its pen.</summary>
    public DemoDriver Water(double percent) => Do(2, s => JobRules.LookAtFluid(s, s.Fluid with { WaterPercent = percent }));

    public DemoDriver Route(ServiceRoute route) => Do(1, s => JobRules.Choose(s, route));

    public DemoDriver StopSign(Side side, StopSign sign, string note) => Do(3, s => JobRules.Stop(s, side, sign, note));

    /// <summary>Follows a piston: how far it stood proud after each turn, and the torque felt.</summary>
    public DemoDriver Follow(Side side, double effort, params double[] protrusions)
    {
        for (var i = 0; i < protrusions.Length; i++)
        {
            var point = new LogPoint(Guid.NewGuid(), i, Length.FromMillimeters(protrusions[i]), Effort: i == 0 ? null : UnitsNet.Torque.FromNewtonMeters(effort));
            Do(1, s => JobRules.NotePoint(s, side, point, "depth-gauge", Board));
        }

        return this;
    }

    public DemoDriver Piston(Side side, RetractionFacts facts) => Do(1, s => JobRules.LookAtRetraction(s, side, facts));

    /// <summary>Reads drum and linings of a corner: eight diameters, six linings, and what is seen.</summary>
    public DemoDriver Drum(Side side, double[] diameters, double[] linings, double overShoes)
    {
        string[] places = ["front-anchor-end", "front-middle", "front-adjuster-end", "rear-anchor-end", "rear-middle", "rear-adjuster-end"];
        List<PointReading> readings =
        [
            .. diameters.Select((d, i) => At(Measurand.DrumDiameter, i < 4 ? "open-edge" : "near-floor", 45 * (i % 4), d, "drum-gauge")),
            .. linings.Select((l, i) => At(Measurand.ShoeLining, places[i], null, l, "depth-gauge")), At(Measurand.OverShoes, "now", null, overShoes, "caliper"),
        ];
        return Do(6, s => JobRules.LookAtShoes(s, side, new("MAX DIA 191.00 MM", null, null, 0, new(Known.No, Known.No, Known.Yes), null, 40)))
            .Do(2, s => JobRules.Take(s, side, readings, Today));
    }

    /// <summary>Reads a rotor: thickness round the ring, and one run of the dial.</summary>
    public DemoDriver Rotor(Side side, double[] thickness, double[] dial) => Do(5, s => JobRules.Take(s, side,
        [
            .. thickness.Select((t, i) => At(Measurand.RotorThickness, "ring", 360.0 / thickness.Length * i, t, "micrometer")),
            .. dial.Select((d, i) => At(Measurand.RotorRunout, "run-1", 360.0 / dial.Length * i, d, "dial")),
        ], Today)).Do(1, s => JobRules.LookAtRotor(s, side, RotorFacts.None with { Stamp = "MIN TH 8.4 MM", Condition = new(Cracks.None, null, false, false, VaneLean.None, false) }));

    /// <summary>Reads the linings of a corner: inner leading and trailing, outer leading and trailing.</summary>
    public DemoDriver Pads(Side side, params double[] linings)
    {
        string[] places = ["inner-leading", "inner-trailing", "outer-leading", "outer-trailing"];
        return Do(3, s => JobRules.Take(s, side, [.. linings.Select((l, i) => At(Measurand.PadLining, places[i], null, l, "depth-gauge"))], Today));
    }

    public DemoDriver StarWheel(Side side, WheelWay way) => Do(1, s => JobRules.NoteStarWheel(s, side, way, 6));

    private PointReading At(Measurand measurand, string place, double? degrees, double mm, string instrument) => new(
        Guid.NewGuid(), measurand, place, degrees is { } d ? Angle.FromDegrees(d) : null, Length.FromMillimeters(mm), InstrumentCatalogue.Get(library.Instruments(), instrument), null, _time);

    public DemoDriver ToTheEnd() => Until("", null);

    /// <summary>Clicks on until the given step is next.</summary>
    public DemoDriver Until(string stepId, Side? side)
    {
        while (RunSheets.Of(State).Now is { } now && now.Step != new StepKey(stepId, side))
        {
            if (now.Role is not null) SignOne(null);
            else Do(StepCatalogue.Find(now.Step.StepId)!.Minutes, s => JobRules.Click(s, Click(now), isLead: true, Board));
        }

        return this;
    }

    /// <summary>Signs the next fastener of the present step.</summary>
    public DemoDriver SignOne(Crowfoot? crowfoot) => Do(1, s =>
    {
        var bench = RunSheets.Of(s).Now!;
        var today = Today;
        var wrench = library.Wrenches().Where(w => TorqueSetting.Compute(bench.Torque!, w, crowfoot, today).WrenchServes).OrderBy(w => w.Maximum.NewtonMeters).First();
        return JobRules.Sign(s, new(bench.Step, bench.NextIndex, wrench, crowfoot, TorqueUnit.Nm, null, null, null), today);
    });

    private ClickOn Click(StepBench bench)
    {
        var corner = bench.Step.Side == Side.Right ? right : left;
        var readings = bench.Readings.Select(r => new Reading(r.Kind, r.Kind switch
        {
            ReadingKind.InnerPad => corner.Inner,
            ReadingKind.OuterPad => corner.Outer,
            ReadingKind.RotorThickness => corner.Rotor,
            ReadingKind.PistonProtrusion or ReadingKind.OuterProtrusion => corner.Protrusion,
            ReadingKind.BatteryVoltage => 13.1,
            ReadingKind.ReservoirLevel => Math.Round(Math.Min(State.LevelPercent ?? level, 100)),
            ReadingKind.Cycles => 4,
            ReadingKind.PedalStrokes => 7,
            ReadingKind.ClicksBack => 24,
            ReadingKind.ClicksOut => 14,
            ReadingKind.TurnsMade => Math.Round(State.Corner(bench.Step.Side!.Value).Travel?.Turns ?? 1, 1),
            _ => 20,
        }, r.Instrument)).ToList();
        var report = bench.NeedsReport ? new ToolReport(true, "Routine finished", "") : null;
        return new(bench.Step, readings, [.. bench.Cautions.Where(c => c.MustAcknowledge).Select(c => c.Id)], null, report, null);
    }

    private DemoDriver Do(int minutes, Func<JobState, JobEvent> decide, int? version = null)
    {
        _time = _time.AddMinutes(minutes);
        events.Append(_job, Guid.NewGuid(), version ?? State.Version, "demo", new(who.Id, who.Name, _time) { RecordedAt = _time }, decide).GetAwaiter().GetResult();
        return this;
    }
}

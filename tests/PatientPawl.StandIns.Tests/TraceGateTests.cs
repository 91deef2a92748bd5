using PatientPawl.Core.Electric;
using PatientPawl.Core.Electric.Link;
using PatientPawl.StandIns.Car;
using UnitsNet;

namespace PatientPawl.StandIns.Tests;

/// <summary>
/// The reader of current traces against traces whose truth is known: made by the stand-in motors, recorded as a clamp meter would, with its
/// noise, its zero and its rate. The gate: every kind right, contact within 40 ms, free current 0.15 A, end 0.3 A, clamp 5 % with the true constants.
/// </summary>
public class TraceGateTests
{
    private sealed record Recorded(CurrentTrace Trace, double? Contact, double Free, double End, double? Clamp);

    private sealed record Made(TraceKind Kind, DriveFigures Figures, double Contact, double Piston, double Nut, int Fed, double Open = 12.6, double InternalOhm = 0.03);

    private static readonly DriveFigures Usual = new();

    private static readonly Made[] Makes =
    [
        new(TraceKind.NoCurrent, Usual, 2e-3, 2e-3, 0, 0),
        new(TraceKind.Seized, Usual with { FrictionNm = 10 }, 2e-3, 2e-3, 0, 1),
        new(TraceKind.NothingToClamp, Usual, double.PositiveInfinity, 30e-3, 0, 1),
        new(TraceKind.Clamps, Usual, 2.06e-3, 2.06e-3, 0, 1),
        new(TraceKind.LaterApply, Usual, 0.8e-3, 0.8e-3, 0, 1),
        new(TraceKind.RunsHeavy, Usual with { FrictionNm = 0.060 }, 2.06e-3, 2.06e-3, 0, 1),
        new(TraceKind.DragsPiston, Usual, 2.6e-3, 1.2e-3, 0, 1),
        new(TraceKind.WeakSupply, Usual, 1.6e-3, 1.6e-3, 0, 1, 10.9, 0.30),
        new(TraceKind.Releases, Usual, 2e-3, 2e-3, 3.04e-3, -1),
        new(TraceKind.IntoService, Usual, 6e-3, 6e-3, 7.04e-3, -1),
    ];

    private static MotorConstants Constants(Made made) => new(
        ElectricPotential.FromVolts(made.Open), ElectricResistance.FromOhms(made.Figures.ResistanceOhm + made.Figures.HarnessOhm + made.InternalOhm),
        made.Figures.TorqueConstant, made.Figures.GearRatio, Length.FromMeters(made.Figures.LeadMetres), made.Figures.Efficiency, ElectricCurrent.FromAmperes(made.Figures.CutOffAmps));

    private static Recorded Record(Made made, double rate, double noise, double offset, bool turned, int seed)
    {
        const double Dt = 1e-4, Quiet = 0.25;
        var random = new Random(seed);
        double Meter(double amps) => (turned ? -1 : 1) * amps + offset + noise * Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
        var drive = new Drive(made.Figures) { Contact = made.Contact, Piston = made.Piston, Nut = made.Nut, Fed = made.Fed };
        Span<Drive> one = [drive];
        List<double> currents = [];
        double? contact = null;
        double free = 0, end = 0, still = 0, frees = 0;
        for (var t = 0.0; made.Fed != 0 && t < 25; t += Dt)
        {
            Circuit.Step(one, made.Open, made.InternalOhm, 0, Dt);
            currents.Add(Math.Abs(drive.Amps));
            end = Math.Abs(drive.Amps);
            if (made.Fed > 0 && drive.Nut >= drive.Contact && drive.Nut > made.Nut) contact ??= t;
            if (t > 0.15 && contact is null) (free, frees) = (free + end, frees + 1);
            still = Math.Abs(drive.NutSpeed) < 0.02e-3 ? still + Dt : 0;
            if (made.Fed > 0 ? (t > 0.12 && end >= made.Figures.CutOffAmps) || drive.Nut >= made.Figures.RangeMetres - 1e-6 || still >= 0.3 : made.Kind == TraceKind.Releases ? drive.Nut <= made.Contact - 0.8e-3 : t > 0.12 && drive.Nut <= 0 && end >= made.Figures.BackStopAmps) break;
        }

        List<TracePoint> points = [];
        var total = 2 * Quiet + currents.Count * Dt;
        for (var k = 0; k / rate < total; k++)
        {
            var at = (int)Math.Round((k / rate - Quiet) / Dt);
            points.Add(new(Duration.FromSeconds(k / rate), ElectricCurrent.FromAmperes(Meter(at >= 0 && at < currents.Count ? currents[at] : 0))));
        }

        return new(CurrentTrace.From(points), contact, frees > 0 ? free / frees : 0, end, contact is null ? null : drive.Force);
    }

    public static TheoryData<TraceKind> Kinds => [.. Makes.Select(m => m.Kind)];

    [Theory]
    [MemberData(nameof(Kinds))]
    public void Every_kind_is_told_through_noise_and_its_figures_lie_within_the_gate(TraceKind kind)
    {
        var made = Makes.Single(m => m.Kind == kind);
        var seed = 0;
        foreach (var rate in new[] { 100.0, 250, 1000 })
            foreach (var noise in new[] { 0.02, 0.08, 0.15 })
                foreach (var (offset, turned) in new[] { (0.0, false), (0.35, false), (-0.25, true) })
                {
                    var recorded = Record(made, rate, noise, offset, turned, ++seed);
                    var read = TraceReader.Read(recorded.Trace, Constants(made));
                    var where = $"{kind}, {rate} Hz, {noise} A, zero {offset}, turned {turned}: {read.Name}";
                    read.Kind.ShouldBe(kind, where);
                    if (recorded.Contact is not { } contact || kind == TraceKind.Seized) continue;
                    read.Contact!.Value.Seconds.ShouldBe(contact, 0.040, where);
                    Math.Abs(read.Contact.Value.Seconds - contact).ShouldBeLessThan(read.ContactDoubt!.Value.Seconds + 0.04, where);
                    read.End!.Value.Amperes.ShouldBe(recorded.End, 0.3, where);
                    // Where a piston is dragged the level before the knee is its drag, not the free run.
                    if (kind == TraceKind.DragsPiston) continue;
                    read.Free!.Value.Amperes.ShouldBe(recorded.Free, 0.15, where);
                    read.Clamp!.Value.Newtons.ShouldBe(recorded.Clamp!.Value, 0.05 * recorded.Clamp.Value, where);
                    read.Travel!.Value.Millimeters.ShouldBe(1e3 * (made.Contact - made.Nut), read.TravelDoubt!.Value.Millimeters, where);
                }
    }

    [Fact]
    public void What_the_unit_keeps_of_a_close_is_read_to_the_travel_that_the_nut_made()
    {
        var car = new StandInCar();
        car.Charge(true);
        car.Start(Routine.ServiceIn).ShouldBeNull();
        car.Advance(TimeSpan.FromSeconds(30));
        foreach (var side in new[] { 0, 1 }) car.Put(side, new(true, 2.06e-3 + side * 0.05e-3, null, true));
        var nuts = car.Drives.Select(d => d.Nut * 1e3).ToArray();
        car.Start(Routine.ServiceOut).ShouldBeNull();
        car.Advance(TimeSpan.FromSeconds(30));
        foreach (var side in new[] { 0, 1 })
        {
            var trace = CurrentTrace.From([.. car.Samples.Select(s => ElectricCurrent.FromAmperes(side == 0 ? s.Left : s.Right))], Frequency.FromHertz(StandInCar.SamplesPerSecond));
            var read = TraceReader.Read(trace, Constants(Makes[3]) with { Supply = ElectricPotential.FromVolts(car.Volts) });
            (read.Kind, read.Strokes).ShouldBe((TraceKind.Clamps, 2));
            read.Travel!.Value.Millimeters.ShouldBe(2.06 + side * 0.05 - nuts[side], 0.12);
            TraceReader.Read(trace, stroke: 2).Kind.ShouldBe(TraceKind.Releases);
        }
    }
}

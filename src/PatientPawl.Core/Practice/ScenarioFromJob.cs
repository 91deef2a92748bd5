using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using UnitsNet;

namespace PatientPawl.Core.Practice;

/// <summary>
/// A scenario from a finished job: its readings are the truth, moved within each gauge's doubt; what was reported is there to be found.
/// Plate, names, VIN, notes and pictures stay behind. What nobody read is as the sheet has it when worn a little.
/// </summary>
public static class ScenarioFromJob
{
    /// <summary>Makes it.</summary>
    /// <param name="state">The job.</param>
    /// <param name="id">The new scenario's id: small letters, digits and hyphens.</param>
    /// <param name="title">Its title, 1 to 80 characters.</param>
    /// <param name="driverSays">What the driver says, in other words than the job's: 1 to 300 characters.</param>
    /// <param name="seed">Whatever is chance in it follows from this.</param>
    /// <exception cref="InputException">A word that cannot be.</exception>
    /// <exception cref="NotAllowedException">The job is not handed over, or not both of its corners were identified.</exception>
    public static Scenario Of(JobState state, string id, string title, string driverSays, int seed)
    {
        ArgumentNullException.ThrowIfNull(state);
        if (!state.HandedOver || state.Opened is not { } opened || opened.Practice is not null)
            throw new NotAllowedException("Only a finished job becomes a scenario.", ["Hand the car over first."], []);
        if (Sides.Both.Any(s => state.Corner(s).Ruled is null)) throw new NotAllowedException("Nobody identified both of its brakes.",
            ["A scenario has to know what they are."], []);
        var level = First(state, null, ReadingKind.ReservoirLevel) ?? 55;
        var volts = First(state, null, ReadingKind.BatteryVoltage) ?? 12.5;
        var truth = new CarTruth(Corner(state, Side.Left, seed), Corner(state, Side.Right, seed), Math.Clamp(level, 0, 150),
            ElectricPotential.FromVolts(Math.Clamp(volts, 8, 15)),
            Temperature.FromDegreesCelsius(20), null, []);
        var traps = Sides.Both.SelectMany(s => truth.At(s).Faults).Select(PracticeFaults.TrapOf).Distinct().Order().ToArray();
        Competence[] trains = [.. traps.Select(t => TrapCatalogue.Of(t).Trains).Append(Competence.Retract).Distinct().Order()];
        // The sheet is its own workshop's; what it was copied from is nobody's to practise with.
        return new Scenario(id, title, driverSays, new("PRACTICE", opened.Vehicle.Make, opened.Vehicle.Model, "practice", null),
            opened.OdometerKm / 1000 * 1000,
            opened.Scope, opened.Sheet, truth, traps, trains).Checked();
    }

    private static CornerTruth Corner(JobState state, Side side, int seed)
    {
        var sheet = state.Opened!.Sheet;
        Length Read(ReadingKind kind, double otherwiseMm) =>
            Length.FromMillimeters(First(state, side, kind) is { } value ? Moved(state, side, kind, value, seed) : otherwiseMm);
        var inner = Read(ReadingKind.InnerPad, sheet.Pads.Backing.Millimeters + 3);
        var outer = Read(ReadingKind.OuterPad, sheet.Pads.Backing.Millimeters + 3.5);
        var rotor = Read(ReadingKind.RotorThickness, (sheet.Rotor.MinimumThickness ?? sheet.Rotor.NewThickness).Millimeters + 0.9);
        var worn = (sheet.Pads.NewInnerTotal + sheet.Pads.NewOuterTotal - inner - outer + sheet.Rotor.NewThickness - rotor).Millimeters;
        var proud = Read(ReadingKind.PistonProtrusion, (sheet.Piston.HomeProtrusion?.Millimeters
            ?? PracticeFigures.HomeMm) + Math.Max(worn, 0) + 1.2);
        var drum = state.Corner(side).Standing().Where(r => r.Measurand == Measurand.DrumDiameter).Select(r => (Length?)r.Value).Max()
            ?? sheet.Drum?.Nominal;
        var loosensUp = state.Corner(side).StarWheel?.Loosens == WheelWay.Up;
        CornerFault[] faults = [.. state.Standing.Select(e => e.Event switch
        {
            FindingReported f when f.Side is null || f.Side == side => PracticeFaults.Of(f.Kind),
            StopSignSeen s when s.Side == side => PracticeFaults.Of(s.Sign),
            StepDone d when d.Step.Side == side => PracticeFaults.Of(d.Step.StepId, d.Found),
            _ => [],
        }).SelectMany(f => f.Take(1)).Distinct().Order()];
        return new(state.Corner(side).Ruled!.Ruling.Architecture, inner, outer, rotor, proud, drum, loosensUp, faults);
    }

    private static double? First(JobState state, Side? side, ReadingKind kind) => state.Standing.Select(e => e.Event).OfType<StepDone>()
        .Where(d => d.Step.Side == side || kind is ReadingKind.ReservoirLevel or ReadingKind.BatteryVoltage)
        .SelectMany(d => d.Readings).Where(r => r.Kind == kind).Select(r => (double?)r.Value).FirstOrDefault();

    /// <summary>Another figure that the same gauge could have shown.</summary>
    private static double Moved(JobState state, Side side, ReadingKind kind, double value, int seed)
    {
        var used = state.Standing.Select(e => e.Event).OfType<StepDone>().Where(d => d.Step.Side == side).SelectMany(d => d.Readings)
            .First(r => r.Kind == kind).InstrumentId;
        var gauge = InstrumentCatalogue.Find(state.Instruments, used ?? "");
        return gauge is null ? value : Math.Max(value + PracticeGauge.Off(gauge,
            unchecked(seed * 7 + (int)kind)) * gauge.StandardUncertainty().Millimeters, 0);
    }
}

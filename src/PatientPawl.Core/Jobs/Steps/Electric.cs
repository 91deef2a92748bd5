using PatientPawl.Core.Electric;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using UnitsNet;

namespace PatientPawl.Core.Jobs;

/// <summary>The battery held up: not under the floor that the sheet gives.</summary>
internal sealed class BatteryHeld : StepBehaviour
{
    /// <summary>The least voltage for the routine.</summary>
    public static ElectricPotential Floor(JobState state) => state.Opened!.Sheet.Electric?.BatteryFloor ?? JobMeasuring.DefaultBatteryFloor;

    public override void Check(JobState state, ClickOn command, string? outcome)
    {
        var floor = Floor(state);
        var volts = command.Readings.First(r => r.Kind == ReadingKind.BatteryVoltage).Value;
        if (volts < floor.Volts)
            throw new InputException(new InputError(nameof(ReadingKind.BatteryVoltage), Figure.Of(volts), $"at least {Figure.Of(floor.Volts)} V", $"{Figure.Of(volts)} V is under the floor of {Figure.Of(floor.Volts)} V: charge it first, or the tool refuses."));
    }
}

/// <summary>The ignition left on: how long the battery would carry it if the charger fell out.</summary>
internal sealed class IgnitionLeftOn : StepBehaviour
{
    public override string? How(JobState state, Side? side) =>
        StepCatalogue.Find("ignition-left-on")!.HowIn(state.Setup) + (state.BatteryVolts is { } volts ? " " + IgnitionTime.From(ElectricPotential.FromVolts(volts), BatteryHeld.Floor(state)).Says : "");
}

/// <summary>Done by motors, or asked of their unit: the electric bench serves it.</summary>
internal class OnTheElectricBench : StepBehaviour
{
    public override IReadOnlyList<BenchKind> Benches(JobState state, Side? side) => state.Setup.IsElectric ? [BenchKind.Electric] : [];
}

/// <summary>Done by the scan tool, which has the last word.</summary>
internal class AsksTheScanTool : OnTheElectricBench
{
    public override bool AsksTheTool => true;
}

/// <summary>Into service by the car's own sequence.</summary>
internal sealed class InCarService : OnTheElectricBench
{
    public override StepPage Page(JobState state) => StepPage.InCarSequence;
}

/// <summary>Out of service, by the tool or by the car's own sequence.</summary>
internal sealed class ServiceClosed : AsksTheScanTool
{
    public override StepPage Page(JobState state) => state.Setup.ByInCar ? StepPage.InCarClosing : StepPage.Plain;
}

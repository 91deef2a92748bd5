using PatientPawl.Core.Measuring;

namespace PatientPawl.Core.Jobs;

/// <summary>The battery held up: not under the floor that the sheet gives.</summary>
internal sealed class BatteryHeld : StepBehaviour
{
    public override void Check(JobState state, ClickOn command, string? outcome)
    {
        var floor = state.Opened!.Sheet.Electric?.BatteryFloor ?? JobMeasuring.DefaultBatteryFloor;
        var volts = command.Readings.First(r => r.Kind == ReadingKind.BatteryVoltage).Value;
        if (volts < floor.Volts)
            throw new InputException(new InputError(nameof(ReadingKind.BatteryVoltage), Figure.Of(volts), $"at least {Figure.Of(floor.Volts)} V", $"{Figure.Of(volts)} V is under the floor of {Figure.Of(floor.Volts)} V: charge it first, or the tool refuses."));
    }
}

/// <summary>Done by the scan tool, which has the last word.</summary>
internal class AsksTheScanTool : StepBehaviour
{
    public override bool AsksTheTool => true;
}

/// <summary>Into service by the car's own sequence.</summary>
internal sealed class InCarService : StepBehaviour
{
    public override StepPage Page(JobState state) => StepPage.InCarSequence;
}

/// <summary>Out of service, by the tool or by the car's own sequence.</summary>
internal sealed class ServiceClosed : AsksTheScanTool
{
    public override StepPage Page(JobState state) => state.Setup.ByInCar ? StepPage.InCarClosing : StepPage.Plain;
}

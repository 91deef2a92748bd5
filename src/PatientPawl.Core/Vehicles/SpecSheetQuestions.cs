using PatientPawl.Core.Torque;

namespace PatientPawl.Core.Vehicles;

/// <summary>Something odd about a figure of a spec sheet, or a default that will stand in for it. A question, never a refusal.</summary>
/// <param name="Field">The field, as the open formats name it.</param>
/// <param name="Says">The question, or what stands in.</param>
/// <param name="IsDefault">True when the sheet is silent and a default stands in.</param>
public sealed record SheetQuestion(string Field, string Says, bool IsDefault);

/// <summary>Asks after unit slips, figures of the wrong fastener, and what the sheet leaves open. Common practice, no source.</summary>
public static class SpecSheetQuestions
{
    /// <summary>The questions a checked sheet raises.</summary>
    public static IReadOnlyList<SheetQuestion> Ask(SpecSheet sheet, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        List<SheetQuestion> questions = [];
        foreach (var line in sheet.Torques)
            questions.AddRange(TorqueSetting.Compute(line, null, null, today).Questions.Select(q => new SheetQuestion($"torques.{line.Role}", q.Says, false)));
        if (sheet.Line(FastenerRole.SlidePin) is { } pin && sheet.Line(FastenerRole.Bracket) is { } bracket && Math.Abs(pin.Wanted.NewtonMeters - bracket.Wanted.NewtonMeters) < 0.05)
            questions.Add(new("torques.SlidePin", "Slide pin and bracket have the same figure: was one copied for the other?", false));
        foreach (var twice in sheet.Torques.GroupBy(t => t.Role).Where(g => g.Count() > 1))
            questions.Add(new($"torques.{twice.Key}", $"Two lines for the {Fasteners.Words(twice.Key)}: the first is used.", false));
        void Default(bool silent, string field, string says)
        {
            if (silent) questions.Add(new(field, says, true));
        }

        Default(sheet.Pads.MinimumLining is null, "pads.minimumLiningMm", "Not given: 2.0 mm of lining stands in.");
        Default(sheet.Rotor.MinimumThickness is null, "rotor.minimumThicknessMm", "Not given: a rotor cannot be passed until its stamping is read.");
        Default(sheet.Rotor.VariationLimit is null, "rotor.variationLimitMm", "Not given: 0.015 mm stands in.");
        Default(sheet.Rotor.RunoutLimit is null, "rotor.runoutLimitMm", "Not given: 0.08 mm stands in.");
        Default(sheet.Piston.HomeProtrusion is null, "piston.homeProtrusionMm", "Not given: home is felt and not counted.");
        Default(sheet.Electric is { BatteryFloor: null }, "electric.batteryFloorV", "Not given: 12.0 V, the usual floor, stands in.");
        Default(sheet.Drum is { Maximum: null }, "drum.maximumMm", "Not given: the drum is judged by its stamping only.");
        foreach (var role in new[] { FastenerRole.SlidePin, FastenerRole.Bracket, FastenerRole.Wheel }.Where(r => sheet.Line(r) is null))
            questions.Add(new($"torques.{role}", $"No line for the {Fasteners.Words(role)}: the maker's figure is asked when it is signed.", true));
        return questions;
    }
}

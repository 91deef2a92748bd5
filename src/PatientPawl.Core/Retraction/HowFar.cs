using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Retraction;

/// <summary>Thicknesses between the piston and the far side of the caliper. Pads are totals with backing plate and shims.</summary>
/// <param name="Inner">Inner pad, 1 to 60 mm.</param>
/// <param name="Outer">Outer pad, 1 to 60 mm.</param>
/// <param name="Rotor">Rotor, 2 to 80 mm.</param>
public sealed record Thicknesses(Length Inner, Length Outer, Length Rotor)
{
    /// <summary>The sum, mm.</summary>
    internal double Mm => Inner.Millimeters + Outer.Millimeters + Rotor.Millimeters;

    internal void CheckInto(Checks checks, string name) => checks
        .Millimetres($"{name}.innerMm", Inner, 1, 60).Millimetres($"{name}.outerMm", Outer, 1, 60).Millimetres($"{name}.rotorMm", Rotor, 2, 80);
}

/// <summary>What "how far" is computed from, single-piston or twin-piston sliding caliper.</summary>
/// <param name="Old">What was in.</param>
/// <param name="New">What goes in.</param>
/// <param name="Protrusion">How far the piston stands proud now, 0 to 100 mm; null when not measured.</param>
/// <param name="HomeProtrusion">How far it stands proud when home, 0 to 50 mm; null when the sheet does not say.</param>
/// <param name="Lead">Travel a turn, 0.1 to 10 mm; null for a push or when not known.</param>
/// <param name="PistonDiameter">Bore, 10 to 100 mm.</param>
/// <param name="PistonsPerCaliper">1 to 12.</param>
/// <param name="Margin">Running margin, 0 to 5 mm; null uses the flagged default of 1.0 mm.</param>
public sealed record HowFarInput(
    Thicknesses Old, Thicknesses New, Length? Protrusion, Length? HomeProtrusion, Length? Lead, Length PistonDiameter, int PistonsPerCaliper, Length? Margin);

/// <summary>How far the piston goes back.</summary>
/// <param name="Need">Travel the new parts need, margin included; can be negative when they are thinner.</param>
/// <param name="HomeTravel">Travel left to home; null when the protrusion or the home figure is not known.</param>
/// <param name="Travel">Travel to make under the house rule.</param>
/// <param name="Turns">Turns to make; null when the lead is not known or the piston is pushed.</param>
/// <param name="Displaced">Fluid pushed back to the reservoir by this corner.</param>
/// <param name="DisplacedIsLowerBound">True when the protrusion was not measured.</param>
/// <param name="WillNotGoIn">True when the new parts need more than there is: wrong parts, or not seated.</param>
/// <param name="Warnings">What to know before starting.</param>
/// <param name="Reasons">Why.</param>
public sealed record TravelResult(
    Length Need, Length? HomeTravel, Length Travel, double? Turns, Volume Displaced, bool DisplacedIsLowerBound, bool WillNotGoIn,
    IReadOnlyList<string> Warnings, Reasons Reasons) : IReasoned;

/// <summary>Says how far, how many turns and how much fluid.</summary>
[Engine]
public static class HowFar
{
    /// <summary>The running margin when the rule does not say: 1.0 mm.</summary>
    public static Length DefaultMargin { get; } = Length.FromMillimeters(1.0);

    /// <summary>
    /// need = (new inner + outer + rotor) - (old inner + outer + rotor) + margin; homeTravel = protrusion - home protrusion;
    /// travel by the house rule; turns = travel / lead; volume = pistons × (pi/4) d² × travel.
    /// </summary>
    /// <exception cref="InputException">Naming each figure outside its range.</exception>
    public static TravelResult Compute(HowFarInput input, RetractDepthRule rule)
    {
        ArgumentNullException.ThrowIfNull(input);
        var checks = new Checks();
        input.Old.CheckInto(checks, "old");
        input.New.CheckInto(checks, "new");
        checks.Millimetres("protrusionMm", input.Protrusion, 0, 100).Millimetres("homeProtrusionMm", input.HomeProtrusion, 0, 50)
            .Millimetres("leadMm", input.Lead, 0.1, 10).Millimetres("pistonDiameterMm", input.PistonDiameter, 10, 100)
            .Range("pistonsPerCaliper", input.PistonsPerCaliper, 1, 12, "").Millimetres("marginMm", input.Margin, 0, 5).ThrowIfAny();

        var trail = new Trail("HowFar.Compute");
        var margin = (input.Margin ?? DefaultMargin).Millimeters;
        if (input.Margin is null) trail.Default("Running margin", "1 mm", "practice-margin");
        else trail.Input("Running margin", Mm(margin));
        var need = input.New.Mm - input.Old.Mm + margin;
        trail.Formula("Need", "new pads and rotor - old pads and rotor + margin",
            $"({Of(input.New)}) - ({Of(input.Old)}) + {Figure.Of(margin)}", Mm(need), "geometry");

        double? home = input.Protrusion is { } p && input.HomeProtrusion is { } h ? p.Millimeters - h.Millimeters : null;
        List<string> warnings = [];
        if (home is { } toHome)
        {
            trail.Formula("To home", "protrusion - home protrusion", $"{Figure.Of(input.Protrusion!.Value.Millimeters)} - {Figure.Of(input.HomeProtrusion!.Value.Millimeters)}", Mm(toHome), "spec-sheet");
            if (toHome < -0.3) warnings.Add("The piston is measured deeper than home. Measure again, from the same land the sheet measures from.");
        }
        else
        {
            warnings.Add(input.Protrusion is null ? "Protrusion not measured: the volume is a lower bound." : "No home figure on the sheet: the volume is a lower bound.");
        }

        // A thousandth of a millimetre over is rounding of the figures, not a wrong part.
        var wrong = home is { } room && need > Math.Max(room, 0) + 0.001;
        if (wrong) warnings.Add($"The new parts need {Figure.Of(need, 1)} mm and only {Figure.Of(Math.Max(home!.Value, 0), 1)} mm is there: wrong parts, or not seated.");

        var asFarAsNeeded = rule == RetractDepthRule.AsFarAsNeeded;
        var travel = Math.Max(asFarAsNeeded || home is null ? need : home.Value, 0);
        if (home is { } most && asFarAsNeeded) travel = Math.Min(travel, Math.Max(most, 0));
        trail.Formula("Travel", asFarAsNeeded ? "as far as needed, by the house rule" : home is null ? "at least what the new parts need" : "all the way home, by the house rule",
            asFarAsNeeded || home is null ? Mm(need) : Mm(home.Value), Mm(travel));

        double? turns = input.Lead is { } lead ? travel / lead.Millimeters : null;
        if (turns is { } t) trail.Formula("Turns", "travel / lead", $"{Figure.Of(travel)} / {Figure.Of(input.Lead!.Value.Millimeters)}", Figure.Of(t, 2), "geometry");

        var d = input.PistonDiameter.Millimeters;
        var volume = Volume.FromMilliliters(input.PistonsPerCaliper * Math.PI / 4 * d * d * travel / 1000);
        trail.Formula("Fluid pushed back", "pistons × (pi/4) d² × travel", $"{input.PistonsPerCaliper} × 0.7854 × {Figure.Of(d)}² × {Figure.Of(travel)}", $"{Figure.Of(volume.Milliliters, 1)} mL", "geometry");
        trail.Conclude(turns is { } n ? $"{Figure.Of(n, 1)} turns, {Figure.Of(travel, 1)} mm, {Figure.Of(volume.Milliliters, 1)} mL." : $"{Figure.Of(travel, 1)} mm, {Figure.Of(volume.Milliliters, 1)} mL.")
            .WouldChange(asFarAsNeeded ? "The house rule \"all the way home\"." : "The house rule \"only as far as needed\".");
        return new(Length.FromMillimeters(need), home is { } x ? Length.FromMillimeters(x) : null, Length.FromMillimeters(travel), turns, volume, home is null, wrong, warnings, trail.Done());
    }

    private static string Mm(double value) => Figure.Of(value, 2) + " mm";
    private static string Of(Thicknesses s) => $"{Figure.Of(s.Inner.Millimeters)} + {Figure.Of(s.Outer.Millimeters)} + {Figure.Of(s.Rotor.Millimeters)}";
}

using UnitsNet;

namespace PatientPawl.Core.Measuring;

/// <summary>One part of a reading's doubt.</summary>
/// <param name="Name">What it comes from.</param>
/// <param name="Formula">How it is worked out.</param>
/// <param name="Substituted">The numbers filled in.</param>
/// <param name="StandardUncertainty">One standard uncertainty.</param>
/// <param name="FromRepeats">True for the part that more readings at the same point would shrink.</param>
public sealed record UncertaintyPart(string Name, string Formula, string Substituted, Length StandardUncertainty, bool FromRepeats);

/// <summary>Repeated readings at one and the same point.</summary>
/// <param name="Count">How many, at least 2.</param>
/// <param name="Spread">Their standard deviation.</param>
public sealed record Repeats(int Count, Length Spread);

/// <summary>How far part and gauge may differ in temperature.</summary>
/// <param name="ExpansionPerKelvin">Coefficient of expansion of the part, 0 to 50e-6 per kelvin.</param>
/// <param name="Size">The size measured.</param>
/// <param name="HalfWidthKelvin">Half-width of the doubt of the temperature difference, 0 to 100 K.</param>
public sealed record TemperatureDoubt(double ExpansionPerKelvin, Length Size, double HalfWidthKelvin);

/// <summary>
/// The doubt of a value, part by part (JCGM 100:2008): resolution d / (2 root 3), permissible error E / root 3, repeats at the
/// same point s / root n, temperature alpha L half-width / root 3, in quadrature. Differences between points are shape and
/// never enter.
/// </summary>
/// <param name="Parts">The parts.</param>
/// <param name="Combined">Root of the sum of squares; always above 0.</param>
public sealed record UncertaintyBudget(IReadOnlyList<UncertaintyPart> Parts, Length Combined)
{
    /// <summary>The budget of a reading. With fewer than 6 repeats the larger of their spread and the instrument's repeatability is used (its resolution where none is stated).</summary>
    public static UncertaintyBudget Of(Instrument instrument, Repeats? repeats = null, TemperatureDoubt? temperature = null)
    {
        ArgumentNullException.ThrowIfNull(instrument);
        double d = instrument.Resolution.Millimeters, e = instrument.PermissibleError.Millimeters;
        List<UncertaintyPart> parts =
        [
            Part("resolution", "d / (2 root 3)", $"{Core.Figure.Of(d)} / 3.464", d / (2 * Math.Sqrt(3))),
            Part("permissible error", "E / root 3", $"{Core.Figure.Of(e)} / 1.732", e / Math.Sqrt(3)),
        ];
        if (repeats is { Count: >= 2 })
        {
            var s = repeats.Count < 6 ? Math.Max(repeats.Spread.Millimeters, (instrument.Repeatability ?? instrument.Resolution).Millimeters) : repeats.Spread.Millimeters;
            parts.Add(Part("repeats", "s / root n", $"{Core.Figure.Of(s, 4)} / root {repeats.Count}", s / Math.Sqrt(repeats.Count), fromRepeats: true));
        }

        if (temperature is { HalfWidthKelvin: > 0 } t)
            parts.Add(Part("temperature", "alpha × L × half-width / root 3", $"{Core.Figure.Of(t.ExpansionPerKelvin * 1e6, 1)}e-6 × {Core.Figure.Of(t.Size.Millimeters, 1)} × {Core.Figure.Of(t.HalfWidthKelvin, 1)} / 1.732",
                t.ExpansionPerKelvin * t.Size.Millimeters * t.HalfWidthKelvin / Math.Sqrt(3)));
        var sum = Math.Sqrt(parts.Sum(p => Math.Pow(p.StandardUncertainty.Millimeters, 2)));
        return new(parts, Length.FromMillimeters(Math.Max(sum, 1e-9)));
    }

    /// <summary>The doubt that no number of further readings at the same point would take away.</summary>
    public Length Fixed => Length.FromMillimeters(Math.Sqrt(Parts.Where(p => !p.FromRepeats).Sum(p => Math.Pow(p.StandardUncertainty.Millimeters, 2))));

    /// <summary>The combined doubt alone, mm: the same rule as <see cref="Of"/>, without its lines. A test holds the two together.</summary>
    internal static double Figure(Instrument instrument, int count, double spread, TemperatureDoubt? temperature)
    {
        double d = instrument.Resolution.Millimeters, e = instrument.PermissibleError.Millimeters, sum = d * d / 12 + e * e / 3;
        if (count >= 2)
        {
            var s = count < 6 ? Math.Max(spread, (instrument.Repeatability ?? instrument.Resolution).Millimeters) : spread;
            sum += s * s / count;
        }

        if (temperature is { HalfWidthKelvin: > 0 } t) sum += Math.Pow(t.ExpansionPerKelvin * t.Size.Millimeters * t.HalfWidthKelvin, 2) / 3;
        return Math.Max(Math.Sqrt(sum), 1e-9);
    }

    /// <summary>The doubt of a difference of two such readings: root 2 times each part.</summary>
    public UncertaintyBudget OfDifference() =>
        new([.. Parts.Select(p => p with { Name = p.Name + ", twice", Formula = "root 2 × " + p.Formula, Substituted = "1.414 × " + p.Substituted, StandardUncertainty = p.StandardUncertainty * Math.Sqrt(2) })], Combined * Math.Sqrt(2));

    private static UncertaintyPart Part(string name, string formula, string substituted, double u, bool fromRepeats = false) =>
        new(name, formula, substituted, Length.FromMillimeters(u), fromRepeats);
}

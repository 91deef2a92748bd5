using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Measuring;

/// <summary>The three verdicts on a limit.</summary>
public enum Verdict
{
    /// <summary>On the good side by at least the guard band.</summary>
    Inside,
    /// <summary>Within the guard band: not passed.</summary>
    TooCloseToCall,
    /// <summary>On the bad side by at least the guard band.</summary>
    Outside,
}

/// <summary>Which side of a limit is good.</summary>
public enum LimitKind
{
    /// <summary>The value must not be under the limit.</summary>
    Minimum,
    /// <summary>The value must not be over the limit.</summary>
    Maximum,
}

/// <summary>A measuring instrument of the workshop.</summary>
/// <param name="Id">Its short name on the tool board.</param>
/// <param name="Name">What it is.</param>
/// <param name="Resolution">Smallest step it shows.</param>
/// <param name="PermissibleError">Largest error its class or certificate allows, either way.</param>
/// <param name="IsDefault">True when the figures are from memory and not from a certificate.</param>
public sealed record Instrument(string Id, string Name, Length Resolution, Length PermissibleError, bool IsDefault)
{
    /// <summary>Standard uncertainty of one reading from resolution and permissible error (JCGM 100:2008, rectangular limits). Always above 0.</summary>
    public Length StandardUncertainty() => UncertaintyBudget.Of(this).Combined;
}

/// <summary>The instruments a workshop starts with; their figures are from memory and flagged as defaults.</summary>
public static class InstrumentCatalogue
{
    /// <summary>Ordinary instruments for pads, rotors and piston depth.</summary>
    public static IReadOnlyList<Instrument> Defaults { get; } =
    [
        Make("caliper", "Digital caliper", 0.01, 0.03),
        Make("micrometer", "Plain micrometer", 0.01, 0.004),
        Make("depth-gauge", "Depth gauge", 0.01, 0.03),
        Make("vernier", "Vernier caliper", 0.05, 0.05),
        Make("pad-gauge", "Pad gauge", 0.5, 0.3),
        Make("drum-gauge", "Drum gauge", 0.05, 0.1),
        Make("bore-micrometer", "Bore micrometer", 0.01, 0.015),
        Make("steel-rule", "Steel rule", 0.5, 0.3),
    ];

    /// <summary>The instrument with this id, or null.</summary>
    public static Instrument? Find(string id) => Defaults.FirstOrDefault(i => i.Id == id);

    private static Instrument Make(string id, string name, double resolution, double error) =>
        new(id, name, Length.FromMillimeters(resolution), Length.FromMillimeters(error), true);
}

/// <summary>A value judged against a one-sided limit.</summary>
/// <param name="What">What was judged, for example <c>Rotor thickness, left</c>.</param>
/// <param name="Value">The reading.</param>
/// <param name="Limit">The limit.</param>
/// <param name="Kind">Which side is good.</param>
/// <param name="GuardBand">1.645 times the standard uncertainty.</param>
/// <param name="Verdict">The verdict.</param>
/// <param name="Reasons">Why.</param>
public sealed record LimitVerdict(string What, Length Value, Length Limit, LimitKind Kind, Length GuardBand, Verdict Verdict, Reasons Reasons) : IReasoned;

/// <summary>Judges readings against limits, with the doubt of the instrument.</summary>
[Engine]
public static class LimitJudgement
{
    /// <summary>The one-sided 95 % factor of ISO 14253-1 and JCGM 106.</summary>
    public const double GuardFactor = 1.645;

    /// <summary>
    /// Judges a single reading of <paramref name="instrument"/> against <paramref name="limit"/>. Inside or outside only when
    /// the value clears the limit by the guard band 1.645 u; otherwise too close to call, and the part is not passed.
    /// </summary>
    /// <exception cref="InputException">Value or limit not within 0 to 1000 mm.</exception>
    public static LimitVerdict Judge(string what, Length value, Length limit, LimitKind kind, Instrument instrument, bool limitIsDefault)
    {
        ArgumentNullException.ThrowIfNull(instrument);
        return Against(what, value, UncertaintyBudget.Of(instrument), limit, kind, instrument, limitIsDefault);
    }

    /// <summary>Judges a value whose doubt has been budgeted line by line.</summary>
    /// <exception cref="InputException">Value or limit not within 0 to 1000 mm.</exception>
    public static LimitVerdict Against(string what, Length value, UncertaintyBudget budget, Length limit, LimitKind kind, Instrument instrument, bool limitIsDefault)
    {
        ArgumentNullException.ThrowIfNull(budget);
        ArgumentNullException.ThrowIfNull(instrument);
        new Checks().Millimetres("valueMm", value, 0, 1000).Millimetres("limitMm", limit, 0, 1000).ThrowIfAny();
        var u = budget.Combined;
        var guard = Length.FromMillimeters(GuardFactor * u.Millimeters);
        var margin = kind == LimitKind.Minimum ? value.Millimeters - limit.Millimeters : limit.Millimeters - value.Millimeters;
        // A margin that equals the guard band to within a nanometre is the band, not a rounding accident.
        var verdict = margin >= guard.Millimeters - 1e-6 ? Verdict.Inside : margin <= -guard.Millimeters + 1e-6 ? Verdict.Outside : Verdict.TooCloseToCall;

        var trail = new Trail("LimitJudgement.Judge")
            .Input(what, $"{Figure.Of(value.Millimeters)} mm, {instrument.Name}");
        _ = limitIsDefault
            ? trail.Default(LimitName(kind), $"{Figure.Of(limit.Millimeters)} mm", "practice-minimum-lining")
            : trail.Input(LimitName(kind), $"{Figure.Of(limit.Millimeters)} mm", "spec-sheet");
        if (instrument.IsDefault)
            trail.Default(instrument.Name, $"reads to {Figure.Of(instrument.Resolution.Millimeters)} mm, error up to {Figure.Of(instrument.PermissibleError.Millimeters)} mm", "practice-instruments");
        foreach (var part in budget.Parts)
            trail.Formula($"Doubt: {part.Name}", part.Formula, part.Substituted, $"{Figure.Of(part.StandardUncertainty.Millimeters, 4)} mm", "gum");
        trail.Formula("Doubt of the value", "root of the sum of squares", string.Join(", ", budget.Parts.Select(x => Figure.Of(x.StandardUncertainty.Millimeters, 4))), $"{Figure.Of(u.Millimeters, 4)} mm", "gum")
            .Formula("Guard band", "1.645 u", $"1.645 × {Figure.Of(u.Millimeters, 4)}", $"{Figure.Of(guard.Millimeters, 4)} mm", "iso-14253-1")
            .Formula("Margin to the limit", kind == LimitKind.Minimum ? "value - limit" : "limit - value",
                kind == LimitKind.Minimum ? $"{Figure.Of(value.Millimeters)} - {Figure.Of(limit.Millimeters)}" : $"{Figure.Of(limit.Millimeters)} - {Figure.Of(value.Millimeters)}",
                $"{Figure.Of(margin)} mm")
            .Conclude(verdict switch
            {
                Verdict.Inside => "Inside: the margin is at least the guard band.",
                Verdict.Outside => "Outside: past the limit by at least the guard band.",
                _ => "Too close to call: the margin is smaller than the guard band. Not passed.",
            }, "iso-14253-1")
            .WouldChange("A finer instrument narrows the guard band.");
        return new(what, value, limit, kind, guard, verdict, trail.Done());
    }

    private static string LimitName(LimitKind kind) => kind == LimitKind.Minimum ? "Minimum" : "Maximum";
}

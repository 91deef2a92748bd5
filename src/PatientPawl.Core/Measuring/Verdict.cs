using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Measuring;

/// <summary>The verdicts on a limit.</summary>
public enum Verdict
{
    /// <summary>On the good side by at least the guard band.</summary>
    Inside,
    /// <summary>Within the guard band: not passed.</summary>
    TooCloseToCall,
    /// <summary>On the bad side by at least the guard band.</summary>
    Outside,
    /// <summary>What was read is on the good side, and places that could fail were not read.</summary>
    NotYetEnough,
}

/// <summary>Verdicts by how much they weigh.</summary>
internal static class Verdicts
{
    /// <summary>How much it weighs: what is outside outweighs what is too close to call, that what lacks places, and that what is inside.</summary>
    public static int Weight(this Verdict verdict) => verdict switch
    {
        Verdict.Inside => 0,
        Verdict.NotYetEnough => 1,
        Verdict.TooCloseToCall => 2,
        Verdict.Outside => 3,
        _ => throw new ArgumentOutOfRangeException(nameof(verdict), verdict, "No such verdict."),
    };

    /// <summary>The one that decides.</summary>
    public static Verdict Worst(params IEnumerable<Verdict> verdicts) => verdicts.MaxBy(Weight);

    /// <summary>
    /// What a margin on the good side says: inside or outside where it clears the guard band, too close to call between. A margin that equals the
    /// band to within a millionth is the band, not a rounding accident.
    /// </summary>
    /// <param name="margin">Positive on the good side, in any unit.</param>
    /// <param name="guard">The guard band, in the same.</param>
    public static Verdict Of(double margin, double guard) =>
        margin >= guard - 1e-6 ? Verdict.Inside : margin <= -guard + 1e-6 ? Verdict.Outside : Verdict.TooCloseToCall;

    /// <summary>In the words of a sentence.</summary>
    public static string Words(this Verdict verdict) => verdict switch
    {
        Verdict.Inside => "inside",
        Verdict.NotYetEnough => "not yet enough",
        Verdict.TooCloseToCall => "too close to call",
        Verdict.Outside => "outside",
        _ => throw new ArgumentOutOfRangeException(nameof(verdict), verdict, "No such verdict."),
    };

    /// <summary>True where places spread round a turn leave no gap that could hide something: none wider than one and a half times an even share.</summary>
    /// <param name="degrees">The places.</param>
    /// <param name="wanted">How many at least.</param>
    public static bool SpreadRound(IEnumerable<double> degrees, int wanted)
    {
        var at = degrees.Select(d => (d % 360 + 360) % 360).Distinct().Order().ToArray();
        return at.Length >= wanted && Enumerable.Range(0, at.Length).All(i => (i + 1 < at.Length ? at[i + 1] - at[i] : at[0] + 360 - at[i]) <= 1.5 * 360 / wanted + 1e-9);
    }
}

/// <summary>Which side of a limit is good.</summary>
public enum LimitKind
{
    /// <summary>The value must not be under the limit.</summary>
    Minimum,
    /// <summary>The value must not be over the limit.</summary>
    Maximum,
}

/// <summary>A value judged against a one-sided limit.</summary>
/// <param name="What">What was judged, in words, for example <c>Rotor, left</c>.</param>
/// <param name="Value">The reading.</param>
/// <param name="Limit">The limit.</param>
/// <param name="Kind">Which side is good.</param>
/// <param name="GuardBand">1.645 times the standard uncertainty.</param>
/// <param name="Verdict">The verdict.</param>
/// <param name="Reasons">Why.</param>
public sealed record LimitVerdict(string What, Length Value, Length Limit, LimitKind Kind, Length GuardBand, Verdict Verdict, Reasons Reasons) : IReasoned
{
    /// <summary>Places still to be read before it can pass; empty where all were, or where it does not pass anyway.</summary>
    public IReadOnlyList<string> Wanted { get; init; } = [];

    /// <summary>What was judged; null only in a job of an older version, which stored the words alone.</summary>
    public Subject? About { get; init; }

    /// <summary>The instrument that decided it; null in a job of an older version.</summary>
    public string? InstrumentId { get; init; }

    internal Subject? Subject => About ?? Subject.OfOldSentence(What);

    internal LimitVerdict On(Side side)
    {
        var there = About! with { Side = side };
        return this with { What = there.Says, About = there };
    }
}

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
    public static LimitVerdict Judge(Subject about, Length value, Length limit, LimitKind kind, Instrument instrument, bool limitIsDefault)
    {
        ArgumentNullException.ThrowIfNull(instrument);
        return Against(about, value, UncertaintyBudget.Of(instrument), limit, kind, instrument, limitIsDefault ? "practice-minimum-lining" : null);
    }

    /// <summary>Judges a value whose doubt has been budgeted line by line.</summary>
    /// <param name="about">What is judged.</param>
    /// <param name="value">The value, 0 to 1000 mm.</param>
    /// <param name="budget">Its doubt.</param>
    /// <param name="limit">The limit, 0 to 1000 mm.</param>
    /// <param name="kind">Which side is good.</param>
    /// <param name="instrument">What it was measured with.</param>
    /// <param name="defaultSource">The source of a limit that the sheet did not give; null when it did.</param>
    /// <param name="wanted">Places that were not read and could fail: with any of them it does not pass.</param>
    /// <param name="limitFrom">Where a limit that is no default comes from; null means the spec sheet.</param>
    /// <exception cref="InputException">Value or limit not within 0 to 1000 mm.</exception>
    public static LimitVerdict Against(Subject about, Length value, UncertaintyBudget budget, Length limit, LimitKind kind, Instrument instrument, string? defaultSource, IReadOnlyList<string>? wanted = null, string? limitFrom = null)
    {
        ArgumentNullException.ThrowIfNull(about);
        ArgumentNullException.ThrowIfNull(budget);
        ArgumentNullException.ThrowIfNull(instrument);
        new Checks().Millimetres("valueMm", value, 0, 1000).Millimetres("limitMm", limit, 0, 1000).ThrowIfAny();
        var u = budget.Combined;
        var guard = Length.FromMillimeters(GuardFactor * u.Millimeters);
        var margin = kind == LimitKind.Minimum ? value.Millimeters - limit.Millimeters : limit.Millimeters - value.Millimeters;
        var verdict = Verdicts.Of(margin, guard.Millimeters);
        IReadOnlyList<string> lacking = verdict == Verdict.Inside ? wanted ?? [] : [];
        if (lacking.Count > 0) verdict = Verdict.NotYetEnough;

        var trail = new Trail("LimitJudgement.Judge")
            .Input(about.Says, $"{Figure.Of(value.Millimeters)} mm, {instrument.Name}");
        _ = defaultSource is not null
            ? trail.Default(LimitName(kind), $"{Figure.Of(limit.Millimeters)} mm", defaultSource)
            : trail.Input(LimitName(kind), $"{Figure.Of(limit.Millimeters)} mm", limitFrom ?? "spec-sheet");
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
                Verdict.NotYetEnough => $"Not yet enough: {string.Join("; ", lacking)}.",
                _ => "Too close to call: the margin is smaller than the guard band. Not passed.",
            }, "iso-14253-1")
            .WouldChange("A finer instrument narrows the guard band.");
        return new(about.Says, value, limit, kind, guard, verdict, trail.Done()) { Wanted = lacking, About = about, InstrumentId = instrument.Id };
    }

    internal static string LimitName(LimitKind kind) => kind == LimitKind.Minimum ? "Minimum" : "Maximum";
}

using System.Collections.Frozen;

namespace PatientPawl.Core.Planning;

/// <summary>A step's minutes as this workshop takes them.</summary>
/// <param name="StepId">The step.</param>
/// <param name="Minutes">The median of its times, whole minutes.</param>
/// <param name="Count">Out of so many.</param>
public sealed record LearntMinutes(string StepId, int Minutes, int Count);

/// <summary>
/// How long steps take: learnt where the workshop has done them often enough, the usual minutes elsewhere. They are told and scheduled by; the order
/// of the work is found by the usual ones, so that a slow week changes no plan.
/// </summary>
public sealed class StepTimes
{
    private readonly FrozenDictionary<string, int> _learnt;

    private StepTimes(FrozenDictionary<string, int> learnt) => _learnt = learnt;

    /// <summary>Nothing was learnt.</summary>
    public static StepTimes Usual { get; } = new(FrozenDictionary<string, int>.Empty);

    /// <summary>As they were learnt.</summary>
    /// <param name="learnt">Steps and their minutes; null where nothing was.</param>
    public static StepTimes Of(IReadOnlyList<LearntMinutes>? learnt) => learnt is not { Count: > 0 } ? Usual
        : new(learnt.ToFrozenDictionary(l => l.StepId, l => l.Minutes, StringComparer.Ordinal));

    /// <summary>Minutes of a step.</summary>
    /// <param name="type">The step.</param>
    public int Minutes(StepType type)
    {
        ArgumentNullException.ThrowIfNull(type);
        return _learnt.GetValueOrDefault(type.Id, type.Minutes);
    }

    /// <summary>Minutes of several steps, one after the other.</summary>
    /// <param name="steps">The steps.</param>
    public int Minutes(IEnumerable<StepKey> steps) => steps.Sum(s => Minutes(StepCatalogue.Find(s.StepId)!));
}

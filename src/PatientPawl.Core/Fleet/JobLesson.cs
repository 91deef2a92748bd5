using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using UnitsNet;

namespace PatientPawl.Core.Fleet;

/// <summary>How long a step took in one job.</summary>
/// <param name="StepId">The step.</param>
/// <param name="Took">From the same person's step before it to its own end.</param>
public sealed record StepSpan(string StepId, Duration Took);

/// <summary>What a finished job teaches the workshop, kept beside it.</summary>
/// <param name="VehicleType">Make and model.</param>
/// <param name="Spans">How long its steps took.</param>
/// <param name="Findings">What was found at it, each kind once.</param>
public sealed record JobLesson(string VehicleType, IReadOnlyList<StepSpan> Spans, IReadOnlyList<FindingKind> Findings)
{
    // Clicked on in a row at the end, or left for lunch: neither is the time of a step. Our own limits.
    private const double LeastMinutes = 1.0 / 3, MostMinutes = 90;

    /// <summary>What a job teaches; null until it is handed over, and of practice and tests always.</summary>
    /// <param name="state">The job.</param>
    public static JobLesson? Of(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        if (!state.HandedOver || state.Opened is not { } opened || !opened.Purpose.Tells()) return null;
        var findings = state.Standing.Select(e => e.Event).OfType<FindingReported>().Select(f => f.Kind).Distinct().Order();
        return new($"{opened.Vehicle.Make} {opened.Vehicle.Model}", [.. SpansOf(state)], [.. findings]);
    }

    private static IEnumerable<StepSpan> SpansOf(JobState state)
    {
        Dictionary<Guid, DateTimeOffset> free = [];
        Dictionary<StepKey, Duration> bolts = [];
        List<StepSpan> spans = [];
        foreach (var e in state.Standing)
        {
            if (free.TryGetValue(e.TechnicianId, out var from))
            {
                var took = Duration.FromMinutes((e.RecordedAt - from).TotalMinutes);
                if (e.Event is StepDone done) spans.Add(new(done.Step.StepId, took));
                // Bolts of one step are signed one by one: together they are its time.
                if (e.Event is TorqueSigned signed) bolts[signed.Step] = bolts.GetValueOrDefault(signed.Step) + took;
            }

            free[e.TechnicianId] = e.RecordedAt;
        }

        return spans.Concat(bolts.Select(b => new StepSpan(b.Key.StepId, b.Value)))
            .Where(s => s.Took.Minutes is >= LeastMinutes and <= MostMinutes);
    }
}

/// <summary>A finding that comes up again and again at a type of vehicle.</summary>
/// <param name="VehicleType">Make and model.</param>
/// <param name="Kind">What.</param>
/// <param name="Name">In words.</param>
/// <param name="Count">In so many jobs.</param>
/// <param name="Of">Of so many.</param>
public sealed record FrequentFinding(string VehicleType, FindingKind Kind, string Name, int Count, int Of);

/// <summary>What finished jobs taught a workshop.</summary>
/// <param name="Jobs">How many there were.</param>
/// <param name="Minutes">Steps whose time is known from enough of them.</param>
/// <param name="Findings">What comes up again and again, the most frequent first.</param>
public sealed record Lessons(int Jobs, IReadOnlyList<LearntMinutes> Minutes, IReadOnlyList<FrequentFinding> Findings)
{
    // Fewer say more about a day than about a step. Our own limits.
    private const int EnoughSpans = 5, OftenEnough = 2;

    /// <summary>
    /// Minutes are the median of what each step took, at least five times, and never under what the car or the fluid takes by itself. A finding
    /// is frequent from two jobs on a type of vehicle.
    /// </summary>
    /// <param name="jobs">What finished jobs taught.</param>
    public static Lessons Of(IReadOnlyCollection<JobLesson> jobs)
    {
        ArgumentNullException.ThrowIfNull(jobs);
        var minutes =
            from span in jobs.SelectMany(j => j.Spans)
            group span.Took.Minutes by span.StepId into of
            let type = StepCatalogue.Find(of.Key)
            where type is not null && of.Count() >= EnoughSpans
            let median = (int)Math.Max(Math.Round(Middle.Median([.. of])), type.Waits ? type.Minutes : 1)
            orderby type.Stage, type.Name
            select new LearntMinutes(type.Id, median, of.Count());
        var findings =
            from type in jobs.GroupBy(j => j.VehicleType)
            from kind in type.SelectMany(j => j.Findings).GroupBy(k => k)
            where kind.Count() >= OftenEnough
            orderby kind.Count() descending, type.Key, kind.Key
            select new FrequentFinding(type.Key, kind.Key, kind.Key.Card().Name, kind.Count(), type.Count());
        return new(jobs.Count, [.. minutes], [.. findings]);
    }
}

using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Jobs;

/// <summary>A figure that a job measured and its vehicle's sheet may lack.</summary>
/// <param name="Field">The sheet's field, unit included (<c>piston.leadMm</c>).</param>
/// <param name="Side">The corner; null for the car.</param>
/// <param name="Value">The figure, in the field's unit.</param>
/// <param name="On">The day.</param>
public sealed record LearntFigure(string Field, Side? Side, double Value, DateOnly On);

/// <summary>A kind of figure that is learnt at a car.</summary>
/// <param name="Field">The sheet's field.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Unit">Its unit; empty where it has none.</param>
/// <param name="Decimals">How many decimals it is worth.</param>
public sealed record LearntCard(string Field, string Name, string Unit, int Decimals)
{
    internal IReadOnlyList<string> StepIds { get; init; } = [];

    // From a job, what it measured; for the car, the same at either corner.
    internal Func<JobState, Side, double?> Of { get; init; } = (_, _) => null;

    internal bool PerCorner { get; init; }

    /// <summary>The figure as it stands in the next job.</summary>
    internal string Says(LearntFigure figure) => $"{Name}: {Figure.Of(figure.Value, Decimals)}{(Unit.Length > 0 ? " " + Unit : "")}, measured here on {Figure.Date(figure.On)}.";
}

/// <summary>The figures that a vehicle remembers from job to job, and its sheet is offered.</summary>
public static class LearntFigures
{
    // A line through three readings or more is worth keeping; two give it no error of its own.
    private const int Readings = 3;

    /// <summary>Every kind.</summary>
    public static IReadOnlyList<LearntCard> All { get; } =
    [
        new("piston.leadMm", "Travel a turn", "mm", 2)
        {
            StepIds = ["piston-home", "piston-tried"],
            PerCorner = true,
            Of = (job, side) => job.Corner(side) is { Ruled.Ruling.Turned: true } corner && corner.LogPoints().Count >= Readings
                && JobBenches.Retraction(job, side, null).Log.Fit is { Readings: >= Readings, Lead.Millimeters: > 0 } fit ? fit.Lead.Millimeters : null,
        },
        new("piston.homeProtrusionMm", "Proud when home", "mm", 1)
        {
            StepIds = ["piston-home"],
            PerCorner = true,
            Of = (job, side) => job.Car.Get(Corner.Piston, side) == Piston.Home && job.Opened!.Sheet.Piston.HomeProtrusion is null && job.Corner(side).LogPoints() is { Count: > 0 } points
                ? points.OrderBy(p => p.Stage).ThenBy(p => p.Turns).Last().Protrusion.Millimeters : null,
        },
        new("reservoir.bandMl", "Reservoir between its marks", "mL", 0)
        {
            StepIds = ["reservoir-looked"],
            Of = (job, _) => job.Fluid.Sides is { } sides ? FluidBench.Measure(sides).Spec?.Band.Milliliters : null,
        },
        new("drum.holeAt", "The star wheel's hole", "o'clock", 0)
        {
            StepIds = ["star-wheel-backed", "shoes-set", "new-shoes-set"],
            PerCorner = true,
            Of = (job, side) => job.Corner(side).StarWheel?.HoleAt,
        },
    ];

    /// <summary>The latest of each figure that these jobs measured.</summary>
    public static IReadOnlyList<LearntFigure> Of(IEnumerable<JobState> jobs)
    {
        ArgumentNullException.ThrowIfNull(jobs);
        List<LearntFigure> list = [];
        foreach (var job in jobs.Where(j => j.Opened is not null).OrderBy(j => j.Log[^1].RecordedAt))
        {
            foreach (var card in All)
            {
                foreach (var side in card.PerCorner ? Sides.Both : [Side.Left])
                {
                    if (card.Of(job, side) is not { } value) continue;
                    var figure = new LearntFigure(card.Field, card.PerCorner ? side : null, Math.Round(value, card.Decimals), DateOnly.FromDateTime(job.Log[^1].RecordedAt.UtcDateTime));
                    list.RemoveAll(f => f.Field == figure.Field && f.Side == figure.Side);
                    list.Add(figure);
                }
            }
        }

        return list;
    }

    /// <summary>What was measured at this vehicle before and belongs at a step.</summary>
    internal static IEnumerable<string> At(JobState state, StepKey step) =>
        (state.Opened?.Measured ?? []).Where(f => f.Side is null || f.Side == step.Side).Select(f => (Figure: f, Card: All.FirstOrDefault(c => c.Field == f.Field)))
            .Where(f => f.Card?.StepIds.Contains(step.StepId) == true).Select(f => f.Card!.Says(f.Figure));
}

using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Jobs;

/// <summary>What earlier jobs on the same vehicle remember.</summary>
public static class VehicleHistory
{
    /// <summary>Which way loosened the star wheel of a corner, from the latest job that noted it; null when none did.</summary>
    public static StarWheelNoted? StarWheel(IEnumerable<JobState> jobs, Side side) =>
        jobs.SelectMany(j => j.Standing).Where(e => e.Event is StarWheelNoted n && n.Side == side).OrderBy(e => e.RecordedAt).LastOrDefault()?.Event as StarWheelNoted;

    /// <summary>What was learnt at a vehicle and its next job should know, the latest of each kind and corner; of those with a note, each.</summary>
    public static IReadOnlyList<LearntFact> Learnt(IEnumerable<JobState> jobs)
    {
        ArgumentNullException.ThrowIfNull(jobs);
        return
        [
            .. jobs.SelectMany(j => j.Standing).Where(e => e.Event is FindingReported f && f.Kind.Card().Learnt).OrderBy(e => e.RecordedAt)
                .Select(e => (Found: (FindingReported)e.Event, On: DateOnly.FromDateTime(e.RecordedAt.UtcDateTime)))
                .GroupBy(e => (e.Found.Kind, e.Found.Side, e.Found.Note)).Select(g => new LearntFact(g.Key.Kind, g.Key.Side, g.Key.Note, g.Last().On)),
        ];
    }

    /// <summary>Lining against distance since the last new pads, oldest first. The new thickness counts as a point.</summary>
    public static IReadOnlyList<WearPoint> PadWear(IEnumerable<JobState> jobs)
    {
        List<WearPoint> points = [];
        foreach (var job in jobs.Where(j => j.Opened is not null).OrderBy(j => j.Opened!.OdometerKm))
        {
            var sheet = job.Opened!.Sheet.Pads;
            if (Sides.Both.All(s => job.Car.Get(Corner.Pads, s) == PadState.New))
            {
                var fresh = UnitsNet.Length.FromMillimeters(Math.Min(sheet.NewInnerTotal.Millimeters, sheet.NewOuterTotal.Millimeters)) - sheet.Backing;
                points = [new(job.Opened.OdometerKm, fresh)];
            }
            else if (Sides.Both.SelectMany(s => job.Corner(s).Verdicts).Where(v => v.Subject?.Judged is Judged.InnerLining or Judged.OuterLining).MinBy(v => v.Value.Millimeters) is { } thin)
            {
                points.Add(new(job.Opened.OdometerKm, thin.Value));
            }
        }

        return points;
    }
}

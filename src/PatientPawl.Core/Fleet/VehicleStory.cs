using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Shoes;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Fleet;

/// <summary>A job in a vehicle's story.</summary>
/// <param name="JobId">The job.</param>
/// <param name="Number">Its number.</param>
/// <param name="On">The day it came.</param>
/// <param name="OdometerKm">Its odometer then.</param>
/// <param name="Complaint">What the driver said.</param>
/// <param name="Fitted">What was fitted.</param>
/// <param name="HandedOver">False while it stands here.</param>
public sealed record VehicleVisit(Guid JobId, int Number, DateOnly On, int OdometerKm, string Complaint, IReadOnlyList<string> Fitted,
    bool HandedOver);

/// <summary>A figure at a distance.</summary>
/// <param name="OdometerKm">Where.</param>
/// <param name="Value">The figure.</param>
/// <param name="IsNew">True of a new part, by its sheet.</param>
public sealed record StoryPoint(int OdometerKm, Length Value, bool IsNew);

/// <summary>One thing at one corner, over the years.</summary>
/// <param name="About">What, and where.</param>
/// <param name="Says">In words.</param>
/// <param name="Limit">What it was last judged against.</param>
/// <param name="Kind">Which side of it is good.</param>
/// <param name="Points">Its figures, oldest first.</param>
public sealed record StorySeries(Subject About, string Says, Length Limit, LimitKind Kind, IReadOnlyList<StoryPoint> Points);

/// <summary>A current trace of one of its motors.</summary>
/// <param name="JobId">The job that keeps it.</param>
/// <param name="On">The day of that job.</param>
/// <param name="OdometerKm">Its odometer then.</param>
/// <param name="Side">The corner; of a motor that pulls both cables, left.</param>
/// <param name="Sha256">What it is found by.</param>
/// <param name="From">Where it comes from: the link, or a clamp meter.</param>
/// <param name="Name">What it was read as.</param>
/// <param name="End">Current at its end; null where that could not be read.</param>
/// <param name="Clamp">Clamping force; null without the motor's constants or without a clamp.</param>
public sealed record VehicleTrace(Guid JobId, DateOnly On, int OdometerKm, Side Side, string Sha256, string From, string Name,
    ElectricCurrent? End, Force? Clamp);

/// <summary>Everything the workshop knows of a vehicle.</summary>
/// <param name="Vehicle">The vehicle, as its last job knew it.</param>
/// <param name="Outlook">What it comes to.</param>
/// <param name="Visits">Its jobs, the newest first.</param>
/// <param name="Series">Its figures over distance.</param>
/// <param name="Learnt">What was learnt at it, in sentences.</param>
/// <param name="Traces">Current traces of its motors, the newest job's first; 40 at most.</param>
public sealed record VehicleStory(Vehicle Vehicle, VehicleOutlook Outlook, IReadOnlyList<VehicleVisit> Visits,
    IReadOnlyList<StorySeries> Series, IReadOnlyList<string> Learnt, IReadOnlyList<VehicleTrace> Traces)
{
    // Three years of looks; older ones are in their jobs.
    private const int MostTraces = 40;

    /// <summary>The story of a vehicle; null where it had none but practice jobs.</summary>
    /// <param name="jobs">Its jobs, in any order.</param>
    /// <param name="today">Today.</param>
    public static VehicleStory? Of(IReadOnlyList<VehicleJob> jobs, DateOnly today)
    {
        if (FleetCard.Of(jobs) is not { } card) return null;
        var told = FleetCard.Told(jobs);
        return new(card.Vehicle, Fleet.Outlook.Of(card, today), [.. told.Reverse().Select(Visit)], [.. SeriesOf(told)],
            [.. LearntAt([.. told.Select(j => j.State)])], [.. told.Reverse().SelectMany(TracesOf).Take(MostTraces)]);
    }

    private static VehicleVisit Visit(VehicleJob job)
    {
        var visit = FleetCard.Visit(job.State);
        return new(job.Id, job.Number, visit.On, visit.OdometerKm, job.State.Opened!.Complaint, JobRecord.FittedIn(job.State),
            job.State.HandedOver);
    }

    private static IEnumerable<VehicleTrace> TracesOf(VehicleJob job)
    {
        var visit = FleetCard.Visit(job.State);
        return from e in job.State.Standing
               let t = e.Event as TraceKept
               where t is not null
               select new VehicleTrace(job.Id, visit.On, visit.OdometerKm, t.Side, t.Sha256, t.From, t.Reading.Name, t.Reading.End,
                   t.Reading.Clamp);
    }

    private static IEnumerable<StorySeries> SeriesOf(VehicleJob[] jobs) =>
        from side in Sides.Both
        from judged in Enum.GetValues<Judged>()
        let of = jobs.SelectMany(j => Points(j.State, side, judged)).ToArray()
        let last = of.LastOrDefault(p => p.By is not null).By
        where last is not null
        let about = new Subject(judged, side)
        select new StorySeries(about, about.Says, last.Limit, last.Kind, [.. of.Select(p => p.Point)]);

    // What a job found of it, the worst of several; and after it the new part that went in.
    private static IEnumerable<(StoryPoint Point, LimitVerdict? By)> Points(JobState job, Side side, Judged judged)
    {
        var km = job.Opened!.OdometerKm;
        var verdicts = job.Corner(side).Verdicts.Concat(job.Corner(side).ShoeVerdicts).Where(v => v.Subject?.Judged == judged).ToArray();
        var worst = verdicts.Length == 0 ? null : verdicts[0].Kind == LimitKind.Minimum ? verdicts.MinBy(v => v.Value)
            : verdicts.MaxBy(v => v.Value);
        if (worst is not null) yield return (new(km, worst.Value, false), worst);
        if (New(job, side, judged) is { } fresh) yield return (new(km, fresh, true), null);
    }

    private static Length? New(JobState job, Side side, Judged judged)
    {
        var sheet = job.Opened!.Sheet;
        var pads = job.Car.Get(Planning.Corner.Pads, side) == PadState.New;
        return judged switch
        {
            Judged.InnerLining when pads => sheet.Pads.NewInnerTotal - sheet.Pads.Backing,
            Judged.OuterLining when pads => sheet.Pads.NewOuterTotal - sheet.Pads.Backing,
            Judged.RotorThickness when job.Car.Get(Planning.Corner.Rotor, side) == Rotor.New => sheet.Rotor.NewThickness,
            _ => null,
        };
    }

    private static IEnumerable<string> LearntAt(JobState[] jobs)
    {
        foreach (var figure in LearntFigures.Of(jobs))
            yield return At(figure.Side, LearntFigures.All.First(c => c.Field == figure.Field).Says(figure));
        foreach (var side in Sides.Both)
        {
            if (VehicleHistory.StarWheel(jobs, side) is not { } wheel) continue;
            var way = wheel.Loosens == WheelWay.Up ? "upwards" : "downwards";
            yield return At(side, $"the star wheel loosens {way}.");
        }

        foreach (var fact in VehicleHistory.Learnt(jobs))
        {
            var note = fact.Note is { Length: > 0 } words ? $", {words}" : "";
            yield return At(fact.Side, $"{fact.Kind.Card().Name}{note}, {Figure.Date(fact.On)}.");
        }
    }

    private static string At(Side? side, string says) => side is { } s ? $"{Phrase.Capital(s.Word())}: {says}" : says;
}

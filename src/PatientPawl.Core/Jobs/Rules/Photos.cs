using PatientPawl.Core.Measuring;

namespace PatientPawl.Core.Jobs;

/// <summary>Photos of what was found.</summary>
public static partial class JobRules
{
    /// <summary>How many photos a job keeps: they travel in its file.</summary>
    public const int MostPhotos = 24;

    /// <summary>Keeps a photo. One that belongs to a report shows that report's corner.</summary>
    /// <param name="state">The job.</param>
    /// <param name="taken">The picture, what it shows, and what it belongs to.</param>
    /// <exception cref="InputException">No caption of 1 to 200 letters, a report that does not stand, or <see cref="MostPhotos"/> photos there.</exception>
    /// <exception cref="NotAllowedException">The job is not open.</exception>
    public static PhotoTaken Keep(JobState state, PhotoTaken taken)
    {
        ArgumentNullException.ThrowIfNull(taken);
        RequireOpen(state);
        var checks = new Checks();
        checks.Text("caption", taken.Caption, 200).Range("photos", state.Photos.Count + 1, 1, MostPhotos, "");
        var report = taken.Of is { } of ? state.Standing.FirstOrDefault(e => e.Id == of && e.Event is FindingReported)?.Event as FindingReported : null;
        if (taken.Of is { } wanted && report is null) checks.Add("of", wanted.ToString(), "a report of this job that stands", "There is no such report in this job.");
        checks.ThrowIfAny();
        return taken with { Caption = taken.Caption.Trim(), Side = report is null ? taken.Side : report.Side };
    }
}

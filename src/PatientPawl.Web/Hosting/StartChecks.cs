using PatientPawl.Data;

namespace PatientPawl.Web.Hosting;

/// <summary>A job that differs from what was stored.</summary>
/// <param name="JobId">The job.</param>
/// <param name="Number">Its number; null where it is gone.</param>
/// <param name="Says">What differs.</param>
public sealed record WrongLog(Guid JobId, int? Number, string Says);

/// <summary>What the last reading of every log found.</summary>
/// <param name="At">When it was finished; null while the first is still going on.</param>
/// <param name="Wrong">Jobs that differ from what was stored.</param>
public sealed record LogsChecked(DateTimeOffset? At, IReadOnlyList<WrongLog> Wrong);

/// <summary>
/// After the start, with the server already listening: brings the index up to this engine, reads the vehicles that have moved on, then every log, hash by hash and seal by
/// seal.
/// </summary>
public sealed partial class StartChecks(EventStore events, TimeProvider clock, ILogger<StartChecks> log) : BackgroundService
{
    /// <summary>What was found.</summary>
    public LogsChecked Found { get; private set; } = new(null, []);

    /// <inheritdoc/>
    protected override Task ExecuteAsync(CancellationToken stoppingToken) => Task.Run(() => Check(stoppingToken), stoppingToken);

    private void Check(CancellationToken stopping)
    {
        try
        {
            events.RebuildStaleProjections(stopping);
            events.ReadVehicles(stopping);
            var wrong = events.VerifyAll(stopping);
            if (stopping.IsCancellationRequested) return;
            Found = new(clock.GetUtcNow(), [.. wrong.Select(c => new WrongLog(c.JobId, c.Events > 0 ? events.Number(c.JobId) : null, c.Says))]);
            foreach (var check in wrong) Differs(log, check.JobId, check.Says);
        }
        catch (Exception e) when (StorageTrouble.Says(e) is not null || e is ObjectDisposedException)
        {
            if (!stopping.IsCancellationRequested) NotRead(log, StorageTrouble.Says(e) ?? e.Message);
        }
    }

    [LoggerMessage(EventId = 502, Level = LogLevel.Error, Message = "Job {Job} is not what was stored. {How}")]
    private static partial void Differs(ILogger logger, Guid job, string how);

    [LoggerMessage(EventId = 503, Level = LogLevel.Error, Message = "The logs could not be read through: {Why}")]
    private static partial void NotRead(ILogger logger, string why);
}

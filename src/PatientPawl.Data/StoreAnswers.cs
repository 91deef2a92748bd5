using PatientPawl.Core.Jobs;

namespace PatientPawl.Data;

/// <summary>Who sends a command, and when by their clock.</summary>
public sealed record Sender(Guid TechnicianId, string Technician, DateTimeOffset OccurredAt)
{
    /// <summary>When it counts as recorded; null, as for everyone who works here, takes the server's clock. The demo's jobs have been worked on before it is filled.</summary>
    public DateTimeOffset? RecordedAt { get; init; }
}

/// <summary>The answer to a command that was appended, now or before.</summary>
public sealed record Appended(Guid JobId, Guid EventId, int Version);

/// <summary>The job has moved on since the client last looked.</summary>
public sealed class StaleVersionException(int current, IReadOnlyList<RecordedEvent> since, bool mayFollow = false) : Exception("The job has moved on.")
{
    /// <summary>True when nothing of what has happened since touches what the command is about.</summary>
    public bool MayFollow { get; } = mayFollow;

    public int Current { get; } = current;
    public IReadOnlyList<RecordedEvent> Since { get; } = since;
}

/// <summary>The id was used before for something else.</summary>
public sealed class ReusedIdException() : Exception("That event id was used before, with other contents.");

/// <summary>A job of this id lives here, and a file says something else of it.</summary>
public sealed class JobIsHereException(Guid id)
    : Exception("This job lives here, and the file goes on differently: a file never adds to a job of this workshop. Nothing was stored; keep the file beside the record.")
{
    /// <summary>The job.</summary>
    public Guid JobId { get; } = id;
}

/// <summary>A job that was read in from a file.</summary>
/// <param name="By">Who read it in.</param>
/// <param name="At">When, by this server's clock.</param>
public sealed record ImportedCopy(string By, DateTimeOffset At);

/// <summary>The job was read in from a file: it is looked at here, and goes on where it lives.</summary>
public sealed class CopyException(ImportedCopy copy) : Exception($"This is a copy, read in by {copy.By}: it takes nothing more here, and goes on where it lives.");

/// <summary>No such job.</summary>
public sealed class UnknownJobException(Guid id) : Exception($"There is no job {id}.");

/// <summary>An event as stored: <c>content</c> is what was hashed.</summary>
public sealed record StoredEvent(Guid EventId, Guid JobId, int Seq, int FormatVersion, Guid TechnicianId, string Technician, DateTimeOffset OccurredAt, DateTimeOffset RecordedAt, JobEvent Event)
{
    /// <summary>The event as the job folds it.</summary>
    public RecordedEvent Recorded() => new(EventId, Seq, Event, TechnicianId, Technician, OccurredAt, RecordedAt);
}

using System.Security.Claims;
using System.Text.Json;
using PatientPawl.Core;
using PatientPawl.Core.Jobs;
using PatientPawl.Data;

namespace PatientPawl.Web.Jobs;

/// <summary>What every command carries.</summary>
public interface ICommand
{
    /// <summary>Made by the client; sending the same command twice adds it once.</summary>
    Guid EventId { get; }
    /// <summary>The client's clock with its offset; for display only.</summary>
    DateTimeOffset OccurredAt { get; }
}

/// <summary>A command that is refused when the job has moved on since. Readings are not: they always append.</summary>
public interface IVersioned : ICommand
{
    /// <summary>The version the client last saw.</summary>
    int ExpectedVersion { get; }
}

/// <summary>Appends commands for the technician who is signed in.</summary>
public sealed class JobCommands(EventStore events, Library library)
{
    public Appended Append<T>(HttpContext http, Guid jobId, T command, Func<JobState, Technician, JobEvent> decide, Picture? picture = null) where T : ICommand
    {
        ArgumentNullException.ThrowIfNull(http);
        ArgumentNullException.ThrowIfNull(decide);
        var me = Me(http);
        if (command.EventId == Guid.Empty)
            throw new InputException(new InputError("eventId", command.EventId.ToString(), "a new id", "The event id is empty."));
        if (command.OccurredAt.Year is < 2000 or > 2200)
            throw new InputException(new InputError("occurredAt", command.OccurredAt.ToString("O"), "2000 to 2200", "The client's clock is far off."));
        var request = typeof(T).Name + JsonSerializer.Serialize(command, PawlJson.Options);
        return events.Append(jobId, command.EventId, (command as IVersioned)?.ExpectedVersion, request, new(me.Id, me.Name, command.OccurredAt), s => decide(s, me), picture);
    }

    public Technician Me(HttpContext http)
    {
        ArgumentNullException.ThrowIfNull(http);
        var id = http.User.FindFirstValue(ClaimTypes.NameIdentifier);
        return library.Technicians().FirstOrDefault(t => t.Id.ToString() == id) ?? throw new NotAllowedException("Sign in again.", ["That sign-in belongs to another workshop."], []);
    }
}

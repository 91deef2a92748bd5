using System.Security.Claims;
using System.Text.Json;
using PatientPawl.Core;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Practice;
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

/// <summary>A command that may be given with no network, after another that the server has not had yet: then it names that one in place of a version.</summary>
public interface IFollows : IVersioned
{
    /// <summary>The event that it was given after; null when the version says it.</summary>
    Guid? After { get; }
    /// <summary>The corner it is about; null for the car.</summary>
    Side? Side { get; }
}

/// <summary>Appends commands for the technician who is signed in.</summary>
public sealed class JobCommands(EventStore events, Library library, TimeProvider clock)
{
    // Who gave a command, where it may have waited on a device that others sign in on meanwhile.
    private const string GivenBy = "Pawl-Technician";

    public Appended Append<T>(HttpContext http, Guid jobId, T command, Func<JobState, Technician, JobEvent> decide, Picture? picture = null) where T : ICommand
    {
        ArgumentNullException.ThrowIfNull(http);
        ArgumentNullException.ThrowIfNull(decide);
        var me = Me(http);
        if (command.EventId == Guid.Empty)
            throw new InputException(new InputError("eventId", command.EventId.ToString(), "a new id", "The event id is empty."));
        if (command.OccurredAt.Year is < 2000 or > 2200)
            throw new InputException(new InputError("occurredAt", command.OccurredAt.ToString("O"), "2000 to 2200", "The client's clock is far off."));
        if (http.Request.Headers[GivenBy].ToString() is { Length: > 0 } by && by != me.Id.ToString()) throw new AnotherPersonException(me.Name);
        var request = typeof(T).Name + JsonSerializer.Serialize(command, PawlJson.Options);
        try
        {
            return events.Append(jobId, command.EventId, Expected(jobId, command), request, new(me.Id, me.Name, command.OccurredAt), s => Allowed(s, decide(s, me), me), picture);
        }
        catch (StaleVersionException stale) when (command is IFollows or NoteCommand)
        {
            // A note says what somebody saw: nothing that happens makes it mean something else.
            throw new StaleVersionException(stale.Current, stale.Since, command is not IFollows follows || stale.Since.All(e => JobRules.LeavesAlone(e.Event, follows.Side)));
        }
    }

    private JobEvent Allowed(JobState state, JobEvent work, Technician me)
    {
        ShownBeforeAlone.Require(state, work, me.Id, me.IsLead, () =>
            Competences.Of(library.Shown().Where(s => s.TechnicianId == me.Id), DateOnly.FromDateTime(clock.GetLocalNow().DateTime)));
        return work;
    }

    // Undone or not, it has its place; that it was undone since is among what has happened.
    private int? Expected(Guid jobId, ICommand command) =>
        command is IFollows { After: { } after } ? events.State(jobId).Log.FirstOrDefault(e => e.Id == after)?.Seq ?? throw new NotAllowedException("What came before it was not recorded.", ["Look at the job, and do it again where it is still wanted."], [])
            : (command as IVersioned)?.ExpectedVersion;

    public Technician Me(HttpContext http)
    {
        ArgumentNullException.ThrowIfNull(http);
        var id = http.User.FindFirstValue(ClaimTypes.NameIdentifier);
        return library.Technicians().FirstOrDefault(t => t.Id.ToString() == id) ?? throw new NotAllowedException("Sign in again.", ["That sign-in belongs to another workshop."], []);
    }
}

/// <summary>The command was given by one person and sent while another is signed in: it is recorded under nobody else's name.</summary>
public sealed class AnotherPersonException(string here) : Exception($"That was done by somebody else, and {here} is signed in: it waits for whoever did it.");

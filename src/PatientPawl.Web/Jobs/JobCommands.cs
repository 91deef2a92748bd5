using System.Text.Json;
using PatientPawl.Core;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Practice;
using PatientPawl.Data;
using PatientPawl.Web.Workshop;

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

/// <summary>Somebody's signature under a figure: where two share a device, it is asked whose.</summary>
public interface ISignature : IVersioned;

/// <summary>Appends commands for the technician who gives them.</summary>
public sealed class JobCommands(EventStore events, Library library, DevicePeople people, TimeProvider clock)
{
    public Task<Appended> Append<T>(HttpContext http, Guid jobId, T command, Func<JobState, Technician, JobEvent> decide, Picture? picture = null) where T : ICommand =>
        Append(http, jobId, command, [decide], picture);

    /// <summary>A command that is several events: all are stored, or none.</summary>
    public async Task<Appended> Append<T>(HttpContext http, Guid jobId, T command, IReadOnlyList<Func<JobState, Technician, JobEvent>> decide, Picture? picture = null) where T : ICommand
    {
        ArgumentNullException.ThrowIfNull(http);
        ArgumentNullException.ThrowIfNull(decide);
        var me = people.Giving(http);
        if (command.EventId == Guid.Empty)
            throw new InputException(new InputError("eventId", command.EventId.ToString(), "a new id", "The event id is empty."));
        if (command.OccurredAt.Year is < 2000 or > 2200)
            throw new InputException(new InputError("occurredAt", command.OccurredAt.ToString("O"), "2000 to 2200", "The client's clock is far off."));
        if (command is ISignature) people.RequireAtHand(http, me);
        var request = typeof(T).Name + JsonSerializer.Serialize(command, PawlJson.Options);
        try
        {
            var appended = await events.Append(jobId, command.EventId, Expected(jobId, command), request, new(me.Id, me.Name, command.OccurredAt),
                [.. decide.Select(d => (Func<JobState, JobEvent>)(s => Allowed(s, d(s, me), me)))], picture);
            people.Worked(http, me.Id);
            return appended;
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

    /// <summary>Who gives this command, or asks this.</summary>
    public Technician Me(HttpContext http) => people.Giving(http);
}

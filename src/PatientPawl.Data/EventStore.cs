using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Dapper;
using Microsoft.Data.Sqlite;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Reasoning;

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
public sealed class StaleVersionException(int current, IReadOnlyList<RecordedEvent> since) : Exception("The job has moved on.")
{
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

/// <summary>The append-only log of all jobs. The server orders; the hash chain shows accidents and edits.</summary>
public sealed class EventStore(Database database, TimeProvider clock, Seals seals, Heads heads, JobChanges? changes = null)
{
    private readonly JobIndex _index = new(database);

    /// <summary>The format that events are written in. Every format from the first on is read.</summary>
    public const int FormatVersion = 2;

    /// <summary>The oldest format that is read.</summary>
    public const int OldestFormat = 1;

    // Folding a job takes tens of milliseconds: those asked for last are kept folded. A board has far fewer cars in hand.
    private readonly LatestStates _states = new(200);

    public JobState State(Guid jobId)
    {
        if (_states.Find(jobId) is { } known) return known;
        return database.Read(c => Load(c, null, jobId) is { } s ? _states.Keep(jobId, s) : throw new UnknownJobException(jobId));
    }

    public IReadOnlyList<Guid> JobIds() => database.Read(c => c.Query<string>("select id from job order by number").Select(Guid.Parse).ToList());

    public int NextNumber() => database.Read(c => JobIndex.NextNumber(c, null));

    /// <summary>
    /// One command, one transaction: looks up the event id, then the version, then lets <paramref name="decide"/> check the
    /// rules, then appends and brings the projection along. Without an expected version it appends whatever the version is: readings are
    /// facts, and a fact does not grow stale.
    /// </summary>
    public Appended Append(Guid jobId, Guid eventId, int? expectedVersion, string request, Sender sender, Func<JobState, JobEvent> decide)
    {
        ArgumentNullException.ThrowIfNull(decide);
        ArgumentNullException.ThrowIfNull(sender);
        var requestHash = Hash(Encoding.UTF8.GetBytes(request));
        return database.Write<(Appended Answer, JobState? State)>((c, t) =>
        {
            var seen = c.QueryFirstOrDefault<(string JobId, long Seq, string RequestHash)?>("select job_id, seq, request_hash from job_event where event_id = @id", new { id = eventId.ToString() }, t);
            if (seen is { } s)
                return s.RequestHash == requestHash && s.JobId == jobId.ToString() ? (new(jobId, eventId, (int)s.Seq), null) : throw new ReusedIdException();

            if (Copy(c, jobId, t) is { } copy) throw new CopyException(copy);
            var before = _states.Find(jobId) ?? Load(c, t, jobId) ?? (expectedVersion == 0 ? JobState.Fold([]) : throw new UnknownJobException(jobId));
            if (expectedVersion is { } expected && before.Version != expected)
                throw new StaleVersionException(before.Version, [.. before.Log.Where(e => e.Seq > expected)]);
            var body = decide(before);
            if (body is JobOpened opened) body = opened with { Number = JobIndex.NextNumber(c, t) };
            var content = Content(jobId, new(eventId, before.Version + 1, body, sender.TechnicianId, sender.Technician, sender.OccurredAt, (sender.RecordedAt ?? clock.GetUtcNow()).ToUniversalTime()));
            // What is shown now is folded from the stored bytes, as it will be after every restart.
            var recorded = Read(content);
            var after = before.With(recorded);
            JobIndex.Save(c, t, jobId, after);
            Seal(c, t, jobId, recorded.Seq, Insert(c, t, jobId, content, requestHash, eventId, recorded.Seq), asFound: false);
            return (new(jobId, eventId, recorded.Seq), after);
        }, done => Committed(jobId, done.State)).Answer;
    }

    /// <summary>The board: what is open, what came last in its bay, and the newest whose wheel nuts are due.</summary>
    public IReadOnlyList<BoardCard> Board() => _index.Board(Card);

    /// <summary>A page of jobs that are behind the workshop, and of copies; found by how their words begin.</summary>
    public PastJobs Past(string search, int? before) => _index.Past(search, before, Card);

    /// <summary>Every job on a vehicle, by its plate.</summary>
    public IReadOnlyList<JobState> OnVehicle(string plate) => [.. _index.OnPlate(plate).Select(State)];

    /// <summary>The number that this workshop gave a job.</summary>
    /// <exception cref="UnknownJobException">There is no such job.</exception>
    public int Number(Guid jobId) => _index.Number(jobId) ?? throw new UnknownJobException(jobId);

    /// <summary>The version that a job stands at; 0 where there is none.</summary>
    public int Version(Guid jobId) => _states.Find(jobId)?.Version ?? _index.Version(jobId);

    private BoardCard Card(Guid jobId) => BoardCard.Of(jobId, State(jobId)) with { Number = Number(jobId) };

    private void Committed(Guid jobId, JobState? state)
    {
        if (state is null) return;
        _states.Publish(jobId, state);
        heads.Note(jobId, state.Version);
        changes?.Publish(new(jobId, state.Version));
    }

    /// <summary>Rebuilds every row of the index that another engine version wrote, those on the board first. Others read and write meanwhile.</summary>
    /// <returns>How many.</returns>
    public int RebuildStaleProjections(CancellationToken stopping = default)
    {
        var rebuilt = 0;
        foreach (var id in _index.Stale())
        {
            if (stopping.IsCancellationRequested) break;
            try
            {
                var state = State(id);
                _index.Rebuild(id, state, BoardCard.Of(id, state) with { Number = Number(id) });
                rebuilt++;
            }
            catch (DamagedJobException)
            {
                // It keeps the card it had, and says what is wrong when it is opened.
            }
        }

        return rebuilt;
    }

    /// <summary>Verifies every job, and notes how far the sound ones go; gives back what differs from what was stored, and jobs that are gone.</summary>
    public IReadOnlyList<LogCheck> VerifyAll(CancellationToken stopping = default)
    {
        List<LogCheck> wrong = [];
        var here = JobIds().ToHashSet();
        foreach (var id in here)
        {
            if (stopping.IsCancellationRequested) return wrong;
            var check = Verify(id);
            if (!check.Verified) wrong.Add(check);
            else heads.Note(id, check.Events);
        }

        wrong.AddRange(heads.Jobs().Where(id => !here.Contains(id)).Select(id => new LogCheck(id, 0, 1, $"All {heads.Of(id)} events of a job are missing: it was taken out past this program.")));
        return wrong;
    }

    /// <summary>Contents and hashes, in order, byte for byte as stored.</summary>
    public IReadOnlyList<(byte[] Content, string Hash)> Stored(Guid jobId) =>
        database.Read(c => c.Query<(byte[], string)>("select content, hash from job_event where job_id = @id order by seq", new { id = jobId.ToString() }).ToList());

    /// <summary>
    /// Stores a job whose chain has been verified, and says how many events that was: all of them, or none when the very same job is here.
    /// A job that lives here is never extended by a file. The number is this workshop's to give: the log keeps the file's, the projection
    /// carries ours.
    /// </summary>
    /// <exception cref="JobIsHereException">A job of this id lives here, and the file is not a copy of it.</exception>
    /// <exception cref="ReusedIdException">An event of it is here already, in another job.</exception>
    /// <param name="jobId">The job.</param>
    /// <param name="events">Its events, verified.</param>
    /// <param name="by">Who reads it in.</param>
    public int Import(Guid jobId, IReadOnlyList<(byte[] Content, string Hash, RecordedEvent Event)> events, string by)
    {
        ArgumentNullException.ThrowIfNull(events);
        var id = jobId.ToString();
        return database.Write<(int Added, JobState? State)>((c, t) =>
        {
            var here = c.Query<string>("select hash from job_event where job_id = @id order by seq", new { id }, t).ToList();
            // Each hash holds all before it: a copy, or an earlier copy, agrees at its end.
            if (here.Count > 0) return events.Count <= here.Count && here[events.Count - 1] == events[^1].Hash ? (0, null) : throw new JobIsHereException(jobId);
            var folded = JobState.Fold(events.Select(e => e.Event));
            JobIndex.Save(c, t, jobId, folded);
            foreach (var (content, _, e) in events)
            {
                if (c.ExecuteScalar<long>("select count(*) from job_event where event_id = @event", new { @event = e.Id.ToString() }, t) > 0) throw new ReusedIdException();
                Seal(c, t, jobId, e.Seq, Insert(c, t, jobId, content, "import", e.Id, e.Seq), asFound: true);
            }

            c.Execute("insert into imported(job_id, by_name, at) values(@id, @by, @at)", new { id, by, at = clock.GetUtcNow().ToString("O") }, t);
            return (events.Count, folded);
        }, done => Committed(jobId, done.State)).Added;
    }

    /// <summary>By whom and when a job was read in; null of one that lives here.</summary>
    public ImportedCopy? Imported(Guid jobId) => database.Read(c => Copy(c, jobId, null));

    private static ImportedCopy? Copy(SqliteConnection c, Guid jobId, SqliteTransaction? t) =>
        c.QueryFirstOrDefault<(string By, string At)?>("select by_name, at from imported where job_id = @id", new { id = jobId.ToString() }, t) is { } row
            ? new(row.By, DateTimeOffset.Parse(row.At, System.Globalization.CultureInfo.InvariantCulture)) : null;

    /// <summary>The chain's next hash: SHA-256 over the hash before and the stored bytes.</summary>
    public static string Chain(string previous, byte[] content)
    {
        ArgumentNullException.ThrowIfNull(content);
        return Hash([.. Encoding.ASCII.GetBytes(previous), .. content]);
    }

    /// <summary>An event as its stored bytes tell it.</summary>
    /// <exception cref="JsonException">They cannot be read.</exception>
    public static StoredEvent Stored(byte[] content) =>
        JsonSerializer.Deserialize<StoredEvent>(content, PawlJson.Options) ?? throw new JsonException("an event is null");

    private static RecordedEvent Read(byte[] content) => Stored(content).Recorded();

    private static byte[] Content(Guid jobId, RecordedEvent e) =>
        JsonSerializer.SerializeToUtf8Bytes(new StoredEvent(e.Id, jobId, e.Seq, FormatVersion, e.TechnicianId, e.Technician, e.OccurredAt, e.RecordedAt, e.Event), PawlJson.Options);

    /// <summary>
    /// Reads every event of a job again: each hash over the bytes before it, each seal by this workshop's key. Says which event differs first.
    /// </summary>
    public LogCheck Verify(Guid jobId)
    {
        // Events are only added: a log that is shorter than the board or the file of heads knew before was cut.
        var known = Math.Max(_index.Version(jobId), heads.Of(jobId));
        var stored = database.Read(c => c.Query<(long Seq, byte[] Content, string Hash, byte[]? Seal)>(
            "select e.seq, e.content, e.hash, s.seal from job_event e left join event_seal s on s.job_id = e.job_id and s.seq = e.seq where e.job_id = @id order by e.seq", new { id = jobId.ToString() }).ToList());
        var previous = "";
        for (var i = 0; i < stored.Count; i++)
        {
            var (seq, content, hash, seal) = stored[i];
            if (seq != i + 1) return Wrong(i + 1, "is missing");
            if (Chain(previous, content) != hash) return Wrong(i + 1, "is not what was stored: its bytes do not match its hash");
            if (seal is null) return Wrong(i + 1, "has no seal: it was added past this program");
            if (!seals.Fits(jobId, i + 1, hash, seal)) return Wrong(i + 1, "does not match its seal: it was changed past this program");
            previous = hash;
        }

        return known > stored.Count ? Wrong(stored.Count + 1, $"and all after it, up to {known}, are missing: the log was cut") : new(jobId, stored.Count, null, $"Verified: {stored.Count} events, each as it was stored.");

        LogCheck Wrong(int seq, string how) => new(jobId, stored.Count, seq, $"Event {seq} {how}.");
    }

    /// <summary>Seals events that are older than seals, as they are found.</summary>
    public void SealWhatIsOlder()
    {
        // A seal that is missing where others stand is no older event: it stays missing, and is told.
        foreach (var job in database.Read(c => c.Query<string>("select id from job where not exists(select 1 from event_seal s where s.job_id = job.id)").ToList()))
        {
            database.Write((c, t) =>
            {
                foreach (var (seq, hash) in c.Query<(long, string)>("select seq, hash from job_event where job_id = @job", new { job }, t).ToList())
                    Seal(c, t, Guid.Parse(job), (int)seq, hash, asFound: true);
                return 0;
            });
        }
    }

    private void Seal(SqliteConnection c, SqliteTransaction t, Guid jobId, int seq, string hash, bool asFound) =>
        c.Execute("insert into event_seal(job_id, seq, seal, as_found) values(@id, @seq, @seal, @asFound)", new { id = jobId.ToString(), seq, seal = seals.Of(jobId, seq, hash), asFound = asFound ? 1 : 0 }, t);

    private static string Insert(SqliteConnection c, SqliteTransaction t, Guid jobId, byte[] content, string requestHash, Guid eventId, int seq)
    {
        var previous = seq == 1 ? "" : c.ExecuteScalar<string>("select hash from job_event where job_id = @id and seq = @seq", new { id = jobId.ToString(), seq = seq - 1 }, t)!;
        var hash = Chain(previous, content);
        c.Execute("insert into job_event(job_id, seq, event_id, request_hash, content, hash) values(@jobId, @seq, @eventId, @requestHash, @content, @hash)",
            new { jobId = jobId.ToString(), seq, eventId = eventId.ToString(), requestHash, content, hash }, t);
        return hash;
    }

    private static JobState? Load(SqliteConnection c, SqliteTransaction? t, Guid jobId)
    {
        List<RecordedEvent> events = [];
        foreach (var content in c.Query<byte[]>("select content from job_event where job_id = @id order by seq", new { id = jobId.ToString() }, t))
        {
            try
            {
                events.Add(Read(content));
            }
            catch (Exception e) when (e is JsonException or NotSupportedException)
            {
                throw new DamagedJobException(jobId, events.Count + 1, "cannot be read", e);
            }
        }

        return events.Count == 0 ? null : JobState.Fold(events);
    }

    private static string Hash(byte[] bytes) => Convert.ToHexStringLower(SHA256.HashData(bytes));
}

/// <summary>The folded states asked for last. Publishing is done by the one writer; a reader's older fold never takes its place.</summary>
internal sealed class LatestStates(int most)
{
    private readonly Lock _lock = new();
    private readonly Dictionary<Guid, LinkedListNode<(Guid Id, JobState State)>> _byId = [];
    private readonly LinkedList<(Guid Id, JobState State)> _order = [];

    public JobState? Find(Guid id)
    {
        lock (_lock)
        {
            if (!_byId.TryGetValue(id, out var node)) return null;
            _order.Remove(node);
            _order.AddFirst(node);
            return node.Value.State;
        }
    }

    /// <summary>Keeps a state that was read, unless a later one is there; gives back the one that is kept.</summary>
    public JobState Keep(Guid id, JobState state)
    {
        lock (_lock)
        {
            if (_byId.TryGetValue(id, out var node))
            {
                if (node.Value.State.Version >= state.Version) return node.Value.State;
                _order.Remove(node);
            }

            _byId[id] = _order.AddFirst((id, state));
            if (_order.Count > most)
            {
                _byId.Remove(_order.Last!.Value.Id);
                _order.RemoveLast();
            }

            return state;
        }
    }

    public void Publish(Guid id, JobState state) => Keep(id, state);
}

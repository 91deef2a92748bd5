using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Dapper;
using Microsoft.Data.Sqlite;
using PatientPawl.Core.Fleet;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Reasoning;

namespace PatientPawl.Data;

/// <summary>The append-only log of all jobs. The server orders; the hash chain shows accidents and edits.</summary>
public sealed class EventStore(Database database, TimeProvider clock, Seals seals, Heads heads, JobChanges? changes = null)
{
    // SQLite's primary result code: https://www.sqlite.org/rescode.html
    private const int Constraint = 19;

    private readonly JobIndex _index = new(database);
    private readonly VehicleIndex _vehicles = new(database);
    private readonly Photos _photos = new(database);

    // Folding a job takes tens of milliseconds, and a folded one some hundred kilobytes: those asked for last are kept, with the hash their
    // chains end in. A board has far fewer cars in hand.
    private const int Kept = 64;
    private readonly Latest<JobState> _states = new(Kept);
    private readonly Latest<string> _tails = new(Kept);

    // Which jobs are copies: asked for with every append.
    private volatile HashSet<Guid>? _copies;

    // Who decides on a job holds it until it is stored, so that nobody appends in between; two jobs that share a turn only wait for each
    // other. Whoever waits longest is next, and holds no thread meanwhile.
    private readonly SemaphoreSlim[] _jobs = [.. Enumerable.Range(0, 256).Select(_ => new SemaphoreSlim(1, 1))];

    /// <summary>The format that events are written in. Every format from the first on is read.</summary>
    public const int FormatVersion = 3;

    /// <summary>The oldest format that is read.</summary>
    public const int OldestFormat = 1;

    public JobState State(Guid jobId)
    {
        if (_states.Find(jobId) is { } known) return known.Value;
        return database.Read(c => Load(c, null, jobId)) is { } s ? _states.Keep(jobId, s.Version, s).Value : throw new UnknownJobException(jobId);
    }

    /// <summary>Every job by its number, practice after them.</summary>
    public IReadOnlyList<Guid> JobIds() => database.Read(c => c.Query<string>("select id from job order by learner is not null, number").Select(Guid.Parse).ToList());

    public int NextNumber() => database.Read(c => JobIndex.NextNumber(c, null));

    /// <summary>
    /// One command, one transaction: looks up the event id, then the version, then lets <paramref name="decide"/> check the
    /// rules, then appends and brings the projection along. Without an expected version it appends whatever the version is: readings are
    /// facts, and a fact does not grow stale. What is looked up and decided holds the job and not the writer: other jobs go on meanwhile.
    /// A picture that the event names is kept with it, or neither is.
    /// </summary>
    public Task<Appended> Append(Guid jobId, Guid eventId, int? expectedVersion, string request, Sender sender, Func<JobState, JobEvent> decide, Picture? picture = null) =>
        Append(jobId, eventId, expectedVersion, request, sender, [decide], picture);

    /// <summary>
    /// One command that is several events, each decided on the job as the one before leaves it: all of them are stored, or none. The last
    /// carries the command's id, those before it ids made from it.
    /// </summary>
    public async Task<Appended> Append(Guid jobId, Guid eventId, int? expectedVersion, string request, Sender sender, IReadOnlyList<Func<JobState, JobEvent>> decide, Picture? picture = null)
    {
        ArgumentNullException.ThrowIfNull(decide);
        ArgumentOutOfRangeException.ThrowIfZero(decide.Count);
        ArgumentNullException.ThrowIfNull(sender);
        var requestHash = Hash(Encoding.UTF8.GetBytes(request));
        using (await HoldAsync(jobId).ConfigureAwait(false))
        {
            if (Copies().Contains(jobId)) throw new CopyException(database.Read(c => Copy(c, jobId, null))!);
            var before = _states.Find(jobId)?.Value ?? database.Read(c => Load(c, null, jobId)) ?? (expectedVersion == 0 ? JobState.Fold([]) : throw new UnknownJobException(jobId));
            // Whatever stands against it: what was stored before under this id is answered as it was then.
            if (expectedVersion is { } expected && before.Version != expected)
                return Stored(jobId, eventId, requestHash) ?? throw new StaleVersionException(before.Version, [.. before.Log.Where(e => e.Seq > expected)]);
            List<ReadyEvent> ready = [];
            JobOpened? opening = null;
            try
            {
                for (var i = 0; i < decide.Count; i++)
                {
                    var (state, previous) = ready.Count > 0 ? (ready[^1].After, ready[^1].Hash) : (before, Tail(jobId, before.Version));
                    var body = decide[i](state);
                    // A number is given by the one writer; everything else is ready before it is taken.
                    if (body is JobOpened opened) opening = decide.Count == 1 ? opened : throw new InvalidOperationException("A job is opened by a command of its own.");
                    else ready.Add(Ready(state, previous, i == decide.Count - 1 ? eventId : Before(eventId, i), body));
                }
            }
            catch (Exception)
            {
                if (Stored(jobId, eventId, requestHash) is { } known) return known;
                throw;
            }

            try
            {
                var stored = await database.WriteAsync((c, t) =>
                {
                    IReadOnlyList<ReadyEvent> made = opening is null ? ready : [Ready(before, "", eventId, Numbered(opening, c, t))];
                    var after = made[^1].After;
                    if (JobIndex.OnlyMovedOn(before, after)) database.Execute(t, "update job set version = @version where id = @id", ("@version", after.Version), ("@id", jobId.ToString()));
                    else JobIndex.Save(c, t, jobId, after);
                    foreach (var e in made) Insert(t, jobId, e.Content, requestHash, e.Id, e.After.Version, e.Hash, asFound: false);
                    if (picture is not null) Photos.Keep(database, t, picture);
                    return made[^1];
                }, made =>
                {
                    _tails.Keep(jobId, made.After.Version, made.Hash);
                    Committed(jobId, made.After);
                }).ConfigureAwait(false);
                return stored.Answer(jobId);
            }
            catch (SqliteException e) when (e.SqliteErrorCode == Constraint)
            {
                // The id is here already: the job is held, so that nothing else can be in the way.
                return Stored(jobId, eventId, requestHash) ?? throw new ReusedIdException();
            }

            ReadyEvent Ready(JobState state, string previous, Guid id, JobEvent happened)
            {
                var content = Content(jobId, new(id, state.Version + 1, happened, sender.TechnicianId, sender.Technician, sender.OccurredAt, (sender.RecordedAt ?? clock.GetUtcNow()).ToUniversalTime()));
                // What is shown now is folded from the stored bytes, as it will be after every restart.
                var recorded = Read(content);
                return new(id, content, state.With(recorded), Chain(previous, content));
            }
        }
    }

    /// <summary>The id of an event that goes before the one that carries its command's id: the same, however often the command is sent.</summary>
    private static Guid Before(Guid commandId, int place) => new(SHA256.HashData(Encoding.ASCII.GetBytes($"{commandId:D} {place}")).AsSpan(0, 16));

    private static JobOpened Numbered(JobOpened opened, SqliteConnection c, SqliteTransaction t) =>
        opened with { Number = opened.Practice is null ? JobIndex.NextNumber(c, t) : JobIndex.NextPracticeNumber(c, t) };

    /// <summary>Somebody's practice, the newest first.</summary>
    public IReadOnlyList<Guid> Practised(Guid technicianId) => _index.Practised(technicianId);

    /// <summary>Deletes somebody's own practice; real jobs are never deleted.</summary>
    /// <exception cref="UnknownJobException">It is none of theirs.</exception>
    public void DeletePractice(Guid jobId, Guid technicianId)
    {
        using (Hold(jobId))
        {
            if (!database.Write((c, t) => JobIndex.Forget(c, t, jobId, technicianId))) throw new UnknownJobException(jobId);
            heads.Forget(jobId);
            _states.Forget(jobId);
            _tails.Forget(jobId);
        }
    }

    /// <summary>The answer that was given to a command under this id; null where there was none.</summary>
    /// <exception cref="ReusedIdException">It was another command.</exception>
    private Appended? Stored(Guid jobId, Guid eventId, string requestHash)
    {
        var seen = database.Read(c => c.QueryFirstOrDefault<(string JobId, long Seq, string RequestHash)?>("select job_id, seq, request_hash from job_event where event_id = @id", new { id = eventId.ToString() }));
        if (seen is not { } s) return null;
        return s.RequestHash == requestHash && s.JobId == jobId.ToString() ? new(jobId, eventId, (int)s.Seq) : throw new ReusedIdException();
    }

    /// <summary>The hash that a job's chain ends in.</summary>
    private string Tail(Guid jobId, int version) =>
        version == 0 ? "" : _tails.Find(jobId) is { } tail && tail.Version == version ? tail.Value
            : database.Read(c => c.ExecuteScalar<string>("select hash from job_event where job_id = @id and seq = @version", new { id = jobId.ToString(), version }))!;

    private HashSet<Guid> Copies() => _copies ??= [.. database.Read(c => c.Query<string>("select job_id from imported").ToList()).Select(Guid.Parse)];

    /// <summary>An event that is ready to be stored: its bytes, the job after it, and the hash its chain ends in then.</summary>
    private sealed record ReadyEvent(Guid Id, byte[] Content, JobState After, string Hash)
    {
        public Appended Answer(Guid jobId) => new(jobId, Id, After.Version);
    }

    private SemaphoreSlim OfJob(Guid jobId) => _jobs[(jobId.GetHashCode() & int.MaxValue) % _jobs.Length];

    private async Task<Held> HoldAsync(Guid jobId)
    {
        var turn = OfJob(jobId);
        await turn.WaitAsync().ConfigureAwait(false);
        return new(turn);
    }

    private Held Hold(Guid jobId)
    {
        var turn = OfJob(jobId);
        turn.Wait();
        return new(turn);
    }

    /// <summary>A job that is held; let go when it is disposed.</summary>
    private readonly struct Held(SemaphoreSlim turn) : IDisposable
    {
        public void Dispose() => turn.Release();
    }

    /// <summary>The board: what is open, what came last in its bay, and the newest whose wheel nuts are due.</summary>
    public IReadOnlyList<BoardCard> Board() => _index.Board(Card);

    /// <summary>A page of jobs that are behind the workshop, and of copies; found by how their words begin.</summary>
    public PastJobs Past(string search, int? before) => _index.Past(search, before, Card);

    /// <summary>Jobs that are open on a vehicle or in a bay.</summary>
    public IReadOnlyList<OpenJobHere> OpenAt(string plate, int bay) => _index.OpenAt(plate, bay);

    /// <summary>Every job on a vehicle, by its plate.</summary>
    public IReadOnlyList<JobState> OnVehicle(string plate) => [.. _index.OnPlate(plate).Select(State)];

    /// <summary>This workshop's own jobs on a vehicle; one whose log is damaged is alone with it.</summary>
    public IReadOnlyList<VehicleJob> VehicleJobs(string plate) => [.. _index.Numbered(plate).Select(j => Whole(j.Id) is { } state ? new VehicleJob(j.Id, j.Number, state) : null).OfType<VehicleJob>()];

    /// <summary>A page of what is known of the vehicles that were here, those whose pads are soonest at their minimum first.</summary>
    /// <param name="search">Words, each found anywhere in plate, VIN, make, model or use; empty finds all.</param>
    /// <param name="skip">How many come before the page, 0 or more.</param>
    public FleetPage Fleet(string search, int skip) => _vehicles.Page(search, Math.Max(skip, 0), CardOf);

    /// <summary>What is known of every vehicle that was here, in the same order.</summary>
    public IReadOnlyList<FleetCard> WholeFleet() => _vehicles.All(CardOf);

    /// <summary>Vehicles of which something comes due that was not ticked off, and whether there are more.</summary>
    /// <param name="from">The first day.</param>
    /// <param name="to">The last.</param>
    public (IReadOnlyList<FleetCard> Vehicles, bool More) Due(DateOnly from, DateOnly to) => _vehicles.Due(from, to, CardOf);

    /// <summary>Reads the vehicles that have moved on and that no list has read yet.</summary>
    public void ReadVehicles(CancellationToken stopping = default) => _vehicles.RenewAll(CardOf, stopping);

    private FleetCard? CardOf(string plate) => FleetCard.Of(VehicleJobs(plate));

    // Older ones tell of another workshop: other people, other tools.
    private const int LessonsKept = 200;

    /// <summary>What finished jobs taught this workshop.</summary>
    public Lessons Lessons() => Core.Fleet.Lessons.Of(_index.Lessons(LessonsKept));

    private JobState? Whole(Guid jobId)
    {
        try
        {
            return State(jobId);
        }
        catch (DamagedJobException)
        {
            return null;
        }
    }

    /// <summary>The number that this workshop gave a job.</summary>
    /// <exception cref="UnknownJobException">There is no such job.</exception>
    public int Number(Guid jobId) => _index.Number(jobId) ?? throw new UnknownJobException(jobId);

    /// <summary>The version that a job stands at; 0 where there is none.</summary>
    public int Version(Guid jobId) => _states.Find(jobId)?.Version ?? _index.Version(jobId);

    private BoardCard Card(Guid jobId) => BoardCard.Of(jobId, State(jobId)) with { Number = Number(jobId) };

    private void Committed(Guid jobId, JobState? state)
    {
        if (state is null) return;
        _states.Keep(jobId, state.Version, state);
        heads.Note(jobId, state.Version);
        changes?.Publish(new(jobId, state.Version));
    }

    /// <summary>Rebuilds every row of the index that another engine version wrote, those on the board first. Others read and write meanwhile.</summary>
    public void RebuildStaleProjections(CancellationToken stopping = default)
    {
        foreach (var id in _index.Stale())
        {
            if (stopping.IsCancellationRequested) break;
            try
            {
                var state = State(id);
                _index.Rebuild(id, state, BoardCard.Of(id, state) with { Number = Number(id) });
            }
            catch (DamagedJobException)
            {
                // It keeps the card it had, and says what is wrong when it is opened.
            }
        }
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

        wrong.AddRange(heads.Jobs().Where(id => !here.Contains(id)).Select(id => new LogCheck(id, 0, 1, $"A job is gone with its {Core.Figure.Count(heads.Of(id), "event")}: it was taken out past this program.")));
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
    /// <param name="pictures">The pictures that they name.</param>
    /// <param name="by">Who reads it in.</param>
    public int Import(Guid jobId, IReadOnlyList<(byte[] Content, string Hash, RecordedEvent Event)> events, IReadOnlyList<Picture> pictures, string by)
    {
        ArgumentNullException.ThrowIfNull(events);
        ArgumentNullException.ThrowIfNull(pictures);
        var id = jobId.ToString();
        using (Hold(jobId))
        {
            return database.Write<(int Added, JobState? State)>((c, t) =>
            {
                var here = c.Query<string>("select hash from job_event where job_id = @id order by seq", new { id }, t).ToList();
                // Each hash holds all before it: a copy, or an earlier copy, agrees at its end.
                if (here.Count > 0) return events.Count <= here.Count && here[events.Count - 1] == events[^1].Hash ? (0, null) : throw new JobIsHereException(jobId);
                var folded = JobState.Fold(events.Select(e => e.Event));
                JobIndex.Save(c, t, jobId, folded);
                foreach (var (content, hash, e) in events)
                {
                    if (c.ExecuteScalar<long>("select count(*) from job_event where event_id = @event", new { @event = e.Id.ToString() }, t) > 0) throw new ReusedIdException();
                    Insert(t, jobId, content, "import", e.Id, e.Seq, hash, asFound: true);
                }

                foreach (var picture in pictures) Photos.Keep(database, t, picture);
                c.Execute("insert into imported(job_id, by_name, at) values(@id, @by, @at)", new { id, by, at = clock.GetUtcNow().ToString("O") }, t);
                return (events.Count, folded);
            }, done =>
            {
                _copies = null;
                Committed(jobId, done.State);
            }).Added;
        }
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
            if (BytesOf(content) is { } named && WrongBytes(named) is { } trouble) return Wrong(i + 1, trouble);
        }

        return known > stored.Count ? Wrong(stored.Count + 1, $"and all after it, up to {known}, are missing: the log was cut") : new(jobId, stored.Count, null, $"Verified: {Core.Figure.Count(stored.Count, "event")}, each as it was stored.");

        LogCheck Wrong(int seq, string how) => new(jobId, stored.Count, seq, $"Event {seq} {how}.");
    }

    // What names no bytes is not read for them: the type's name stands in the bytes of an event that does.
    private static INamesBytes? BytesOf(byte[] content) =>
        content.AsSpan().IndexOf("\"photo-taken\""u8) >= 0 || content.AsSpan().IndexOf("\"trace-kept\""u8) >= 0 ? Stored(content).Event as INamesBytes : null;

    private string? WrongBytes(INamesBytes named) => _photos.Find(named.Sha256) is not { } bytes ? $"names a {named.Kind} that is gone"
        : Picture.Of(bytes).Sha256 == named.Sha256 ? null : $"names a {named.Kind} that is not the one that was taken";

    /// <summary>Seals events that are older than seals, as they are found.</summary>
    public void SealWhatIsOlder()
    {
        // A seal that is missing where others stand is no older event: it stays missing, and is told.
        foreach (var job in database.Read(c => c.Query<string>("select id from job where not exists(select 1 from event_seal s where s.job_id = job.id)").ToList()))
        {
            database.Write((c, t) =>
            {
                foreach (var (seq, hash) in c.Query<(long, string)>("select seq, hash from job_event where job_id = @job", new { job }, t).ToList())
                    Seal(t, Guid.Parse(job), (int)seq, hash, asFound: true);
                return 0;
            });
        }
    }

    private void Insert(SqliteTransaction t, Guid jobId, byte[] content, string requestHash, Guid eventId, int seq, string hash, bool asFound)
    {
        database.Execute(t, "insert into job_event(job_id, seq, event_id, request_hash, content, hash) values(@job, @seq, @event, @request, @content, @hash)",
            ("@job", jobId.ToString()), ("@seq", seq), ("@event", eventId.ToString()), ("@request", requestHash), ("@content", content), ("@hash", hash));
        Seal(t, jobId, seq, hash, asFound);
    }

    private void Seal(SqliteTransaction t, Guid jobId, int seq, string hash, bool asFound) =>
        database.Execute(t, "insert into event_seal(job_id, seq, seal, as_found) values(@job, @seq, @seal, @asFound)",
            ("@job", jobId.ToString()), ("@seq", seq), ("@seal", seals.Of(jobId, seq, hash)), ("@asFound", asFound ? 1 : 0));

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

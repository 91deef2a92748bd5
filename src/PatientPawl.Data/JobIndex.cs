using System.Text.Json;
using Dapper;
using Microsoft.Data.Sqlite;
using PatientPawl.Core.Fleet;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Reasoning;

namespace PatientPawl.Data;

/// <summary>A page of the jobs that are behind the workshop, the newest first.</summary>
/// <param name="Jobs">Their cards.</param>
/// <param name="Before">The next page holds jobs with a number under this; null on the last.</param>
public sealed record PastJobs(IReadOnlyList<BoardCard> Jobs, int? Before);

/// <summary>A job that is open where another one is to be opened.</summary>
/// <param name="JobId">The job.</param>
/// <param name="Number">Its number.</param>
/// <param name="Bay">Its bay.</param>
/// <param name="Plate">Its car's plate.</param>
/// <param name="SameCar">True where it is the same car; false where it only stands in that bay.</param>
public sealed record OpenJobHere(Guid JobId, int Number, int Bay, string Plate, bool SameCar);

/// <summary>
/// What the workshop's lists read: one row a job, written in the same transaction as its events. Each list asks for what it shows, so that
/// ten thousand jobs behind it cost the board nothing.
/// </summary>
public sealed class JobIndex(Database database)
{
    private const int PageLength = 25;
    private const int MostWords = 6;

    // Each part goes by its own index, and nothing is left to how SQLite would rather walk: with ten thousand jobs it chose to read them all.
    private const string OnBoard = """
        with recursive bays(bay) as (values(1) union all select bay + 1 from bays where bay < @LastBay),
        shown(id) as materialized (
          select id from job indexed by job_open where finished = 0 and learner is null
          union all select (select id from job j where j.bay = bays.bay and j.learner is null order by number desc limit 1) from bays)
        select j.id, j.number, c.card_json, c.version, j.version
        from (select distinct id from shown) s cross join job j on j.id = s.id left join job_card c on c.job_id = j.id
        where not exists(select 1 from imported i where i.job_id = j.id) order by j.bay, j.number desc
        """;

    /// <summary>The board: what is open, and what came last in its bay. Copies are not on it.</summary>
    /// <param name="anew">Makes the card of a job from its log.</param>
    public IReadOnlyList<BoardCard> Board(Func<Guid, BoardCard> anew) =>
        [.. Rows(OnBoard, new { JobRules.LastBay }).Select(row => Card(row, anew)).OfType<BoardCard>()];

    /// <summary>Finished jobs, and copies that were read in; found by how their words begin: plate, number, make, model, use.</summary>
    /// <param name="search">Words, any number of them; empty finds all.</param>
    /// <param name="before">Only jobs with a number under this; null begins with the newest.</param>
    /// <param name="anew">Makes the card of a job from its log.</param>
    public PastJobs Past(string search, int? before, Func<Guid, BoardCard> anew)
    {
        ArgumentNullException.ThrowIfNull(search);
        // Words as the index parts them: letters and digits, whatever stands between.
        string[] words = [.. new string([.. search.Select(c => char.IsLetterOrDigit(c) ? c : ' ')]).Split(' ', StringSplitOptions.RemoveEmptyEntries).Take(MostWords)];
        if (words.Length == 0 && search.Trim().Length > 0) return new([], null);
        var below = before ?? int.MaxValue;
        var match = string.Join(' ', words.Select(w => $"\"{w}\"*"));
        var (from, by) = words.Length > 0 ? ("job_search s cross join job j on j.number = s.rowid", "s.rowid") : ("job j", "j.number");
        var rows = Rows($"""
            select j.id, j.number, c.card_json, c.version, j.version from {from} left join job_card c on c.job_id = j.id
            where {(words.Length > 0 ? "s.words match @match and " : "")}{by} < @below and j.learner is null and (j.finished = 1 or exists(select 1 from imported i where i.job_id = j.id)) order by {by} desc limit @limit
            """, new { match, below, limit = PageLength + 1 });
        return new([.. rows.Take(PageLength).Select(r => Card(r, anew)).OfType<BoardCard>()], rows.Count > PageLength ? rows[PageLength - 1].Number : null);
    }

    /// <summary>Jobs that are open on a vehicle, by its plate whatever its case, spaces and dashes, or in a bay.</summary>
    public IReadOnlyList<OpenJobHere> OpenAt(string plate, int bay) => database.Read(c => c.Query<(string Id, long Number, long Bay, string Plate)>("""
        select id, number, bay, plate from job where finished = 0 and learner is null and not exists(select 1 from imported i where i.job_id = id)
          and (bay = @bay or upper(replace(replace(plate, ' ', ''), '-', '')) = @plate) order by number
        """, new { bay, plate = Same(plate) }).Select(r => new OpenJobHere(Guid.Parse(r.Id), (int)r.Number, (int)r.Bay, r.Plate, Same(r.Plate) == Same(plate))).ToList());

    private static string Same(string plate) => plate.Replace(" ", "", StringComparison.Ordinal).Replace("-", "", StringComparison.Ordinal).ToUpperInvariant();

    /// <summary>Every job on a vehicle, oldest first.</summary>
    public IReadOnlyList<Guid> OnPlate(string plate) => database.Read(c => c.Query<string>("select id from job where plate = @plate and learner is null order by number", new { plate }).Select(Guid.Parse).ToList());

    /// <summary>Every job on a vehicle with the number it was given, oldest first; copies that were read in are another workshop's.</summary>
    public IReadOnlyList<(Guid Id, int Number)> Numbered(string plate) => database.Read(c => c.Query<(string Id, long Number)>(
        "select id, number from job where plate = @plate and learner is null and not exists(select 1 from imported i where i.job_id = id) order by number", new { plate }).Select(r => (Guid.Parse(r.Id), (int)r.Number)).ToList());

    /// <summary>What the last finished jobs of this workshop taught, the newest first; copies that were read in are another workshop's.</summary>
    /// <param name="most">At most so many.</param>
    public IReadOnlyList<JobLesson> Lessons(int most) => database.Read(c => c.Query<string>("""
        select lesson_json from job_lesson l where not exists(select 1 from imported i where i.job_id = l.job_id) order by number desc limit @most
        """, new { most }).Select(json => JsonSerializer.Deserialize<JobLesson>(json, PawlJson.Options)).OfType<JobLesson>().ToList());

    /// <summary>The number that this workshop gave a job; null where there is none.</summary>
    public int? Number(Guid jobId) => (int?)database.Read(c => c.ExecuteScalar<long?>("select number from job where id = @id", new { id = jobId.ToString() }));

    /// <summary>The version that a job has in the index; 0 where it has none.</summary>
    public int Version(Guid jobId) => (int)database.Read(c => c.ExecuteScalar<long>("select coalesce(max(version), 0) from job where id = @id", new { id = jobId.ToString() }));

    /// <summary>Jobs whose card another engine wrote.</summary>
    internal IReadOnlyList<Guid> Stale() => database.Read(c => c.Query<string>("select id from job where engine_version <> @v order by finished, number desc", new { v = EngineVersion.Current }).Select(Guid.Parse).ToList());

    internal static int NextNumber(SqliteConnection c, SqliteTransaction? t) => (int)c.ExecuteScalar<long>("select coalesce(max(number), 400) + 1 from job where number > 0", transaction: t);

    /// <summary>Practice has numbers of its own, below nought: the workshop's have no gaps by it.</summary>
    internal static int NextPracticeNumber(SqliteConnection c, SqliteTransaction? t) => (int)c.ExecuteScalar<long>("select min(coalesce(min(number), 0), 0) - 1 from job", transaction: t);

    /// <summary>Somebody's practice, the newest first.</summary>
    public IReadOnlyList<Guid> Practised(Guid technicianId) => database.Read(c => c.Query<string>(
        "select id from job where learner = @id order by number", new { id = technicianId.ToString() }).Select(Guid.Parse).ToList());

    /// <summary>Takes somebody's practice out; false where it is none of theirs.</summary>
    internal static bool Forget(SqliteConnection c, SqliteTransaction t, Guid jobId, Guid technicianId)
    {
        var of = new { id = jobId.ToString(), learner = technicianId.ToString() };
        if (c.ExecuteScalar<long>("select count(*) from job where id = @id and learner = @learner", of, t) == 0) return false;
        c.Execute("""
            delete from event_seal where job_id = @id; delete from job_event where job_id = @id; delete from job_card where job_id = @id;
            delete from imported where job_id = @id; delete from job where id = @id
            """, of, t);
        return true;
    }

    /// <summary>True where a job's row differs from one state to the next in nothing but its version.</summary>
    internal static bool OnlyMovedOn(JobState before, JobState after) =>
        before.Opened is not null && before.HandedOver == after.HandedOver && before.Opened.Bay == after.Opened?.Bay;

    /// <summary>
    /// Brings a job's row along with its events. The card is not made here: it takes longer than all the rest, and is made once when a list
    /// shows it.
    /// </summary>
    internal static void Save(SqliteConnection c, SqliteTransaction t, Guid jobId, JobState state)
    {
        SaveRow(c, t, jobId, state);
        var id = jobId.ToString();
        if (JobLesson.Of(state) is { } lesson)
            c.Execute("""
                insert into job_lesson(number, job_id, lesson_json) select number, id, @json from job where id = @id
                on conflict(number) do update set lesson_json = excluded.lesson_json
                """, new { id, json = JsonSerializer.Serialize(lesson, PawlJson.Options) }, t);
        else c.Execute("delete from job_lesson where job_id = @id", new { id }, t);
    }

    private static void SaveRow(SqliteConnection c, SqliteTransaction t, Guid jobId, JobState state)
    {
        var opened = state.Opened ?? throw new ArgumentException("The job was never opened.", nameof(state));
        var row = new
        {
            id = jobId.ToString(),
            bay = opened.Bay,
            version = state.Version,
            finished = state.HandedOver ? 1 : 0,
            engine = EngineVersion.Current,
            plate = opened.Vehicle.Plate,
        };
        if (c.Execute("update job set bay = @bay, version = @version, finished = @finished, engine_version = @engine, plate = @plate where id = @id", row, t) == 1) return;
        // Practice is found by nobody's search.
        if (opened.Practice is not null)
        {
            c.Execute("""
                insert into job(id, number, bay, version, finished, engine_version, plate, learner) values(@id, @number, @bay, @version, @finished, @engine, @plate, @learner)
                """, new { row.id, number = NextPracticeNumber(c, t), row.bay, row.version, row.finished, row.engine, row.plate, learner = state.Log[0].TechnicianId.ToString() }, t);
            return;
        }

        // A number is this workshop's to give: a file's could be any, and every later one would have to be above it.
        var number = NextNumber(c, t);
        c.Execute("""
            insert into job(id, number, bay, version, finished, engine_version, plate) values(@id, @number, @bay, @version, @finished, @engine, @plate);
            insert into job_search(rowid, words) values(@number, @words)
            """,
            new { row.id, number, row.bay, row.version, row.finished, row.engine, row.plate, words = $"{number} {opened.Vehicle.Plate} {opened.Vehicle.Make} {opened.Vehicle.Model} {opened.Vehicle.Use} {opened.Vehicle.Vin}" }, t);
    }

    /// <summary>Makes the card of a job anew, and its row.</summary>
    internal void Rebuild(Guid jobId, JobState state, BoardCard card) => database.Write((c, t) =>
    {
        // Somebody may have appended since: then that is newer, and the card is made when it is asked for.
        if (c.ExecuteScalar<long>("select version from job where id = @id", new { id = jobId.ToString() }, t) != state.Version) return 0;
        Save(c, t, jobId, state);
        return Keep(c, t, jobId, state.Version, card);
    });

    private static int Keep(SqliteConnection c, SqliteTransaction t, Guid jobId, int version, BoardCard card) =>
        c.Execute("""
            insert into job_card(job_id, version, card_json) values(@id, @version, @json)
            on conflict(job_id) do update set version = @version, card_json = @json where excluded.version >= job_card.version
            """, new { id = jobId.ToString(), version, json = JsonSerializer.Serialize(card, PawlJson.Options) }, t);

    private List<Row> Rows(string sql, object of) => database.Read(c => c.Query<(string Id, long Number, string? Card, long? Made, long Version)>(sql, of)
        .Select(r => new Row(Guid.Parse(r.Id), (int)r.Number, Read(r.Card), r.Made == r.Version, (int)r.Version)).ToList());

    /// <summary>The card of a row, made anew where the job has moved on; as it was last where its log is damaged, and null where there never was one.</summary>
    private BoardCard? Card(Row row, Func<Guid, BoardCard> anew)
    {
        if (row is { IsMade: true, Card: { } card }) return card;
        try
        {
            var made = anew(row.Id);
            database.Write((c, t) => Keep(c, t, row.Id, row.Version, made));
            return made;
        }
        catch (DamagedJobException)
        {
            // It is alone with its damage: what is wrong is said when it is opened, and after the start.
            return row.Card;
        }
    }

    // What another version wrote may not be readable any more.
    private static BoardCard? Read(string? json)
    {
        try
        {
            return json is null ? null : JsonSerializer.Deserialize<BoardCard>(json, PawlJson.Options);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private sealed record Row(Guid Id, int Number, BoardCard? Card, bool IsMade, int Version);
}

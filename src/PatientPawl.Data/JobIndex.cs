using System.Text.Json;
using Dapper;
using Microsoft.Data.Sqlite;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Reasoning;

namespace PatientPawl.Data;

/// <summary>A page of the jobs that are behind the workshop, the newest first.</summary>
/// <param name="Jobs">Their cards.</param>
/// <param name="Before">The next page holds jobs with a number under this; null on the last.</param>
public sealed record PastJobs(IReadOnlyList<BoardCard> Jobs, int? Before);

/// <summary>
/// What the workshop's lists read: one row a job, written in the same transaction as its events. Each list asks for what it shows, so that
/// ten thousand jobs behind it cost the board nothing.
/// </summary>
public sealed class JobIndex(Database database)
{
    private const int PageLength = 25;
    private const int MostDue = 40;

    /// <summary>
    /// The board: what is open, what came last in its bay, and the newest whose wheel nuts are due. Copies are not on it. A card that this
    /// version cannot read is made anew.
    /// </summary>
    /// <param name="anew">Makes the card of a job from its log.</param>
    public IReadOnlyList<BoardCard> Board(Func<Guid, BoardCard> anew) => database.Read(c => c.Query<(string Id, string Card, long Later)>("""
        with recursive bays(bay) as (values(1) union all select bay + 1 from bays where bay < 99),
        shown(id) as (
          select id from job where finished = 0
          union select (select id from job j where j.bay = bays.bay order by number desc limit 1) from bays
          union select id from (select id from job j where retorque_km is not null and not exists(select 1 from job o where o.plate = j.plate and o.number > j.number) order by number desc limit @MostDue))
        select j.id, j.card_json, exists(select 1 from job o where o.plate = j.plate and o.number > j.number)
        from shown join job j on j.id = shown.id where j.id not in (select job_id from imported) order by j.bay, j.number desc
        """, new { MostDue })
        // A later job on the same vehicle has had its wheels off again: only its own nuts are due.
        .Select(row => Card(row.Id, row.Card, anew) is var card && row.Later == 1 ? card with { RetorqueFromKm = null } : card).ToList());

    /// <summary>Finished jobs, and copies that were read in; found by how their words begin: plate, number, maker, model, use.</summary>
    /// <param name="search">Words, any number of them; empty finds all.</param>
    /// <param name="before">Only jobs with a number under this; null begins with the newest.</param>
    /// <param name="anew">Makes the card of a job from its log.</param>
    public PastJobs Past(string search, int? before, Func<Guid, BoardCard> anew)
    {
        ArgumentNullException.ThrowIfNull(search);
        string[] words = [.. search.Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Select(w => new string([.. w.Where(char.IsLetterOrDigit)])).Where(w => w.Length > 0).Take(6)];
        if (words.Length == 0 && search.Trim().Length > 0) return new([], null);
        var below = before ?? int.MaxValue;
        var match = string.Join(' ', words.Select(w => $"\"{w}\"*"));
        var rows = database.Read(c => c.Query<(string Id, string Card)>($"""
            select j.id, j.card_json from {(words.Length > 0 ? "job_search s join job j on j.number = s.rowid where s.words match @match and s.rowid < @below" : "job j where j.number < @below")}
            and (j.finished = 1 or j.id in (select job_id from imported)) order by {(words.Length > 0 ? "s.rowid" : "j.number")} desc limit @limit
            """, new { match, below, limit = PageLength + 1 }).ToList());
        BoardCard[] cards = [.. rows.Take(PageLength).Select(r => Card(r.Id, r.Card, anew))];
        return new(cards, rows.Count > PageLength ? cards[^1].Number : null);
    }

    /// <summary>Every job on a vehicle, oldest first.</summary>
    public IReadOnlyList<Guid> OnPlate(string plate) => database.Read(c => c.Query<string>("select id from job where plate = @plate order by number", new { plate }).Select(Guid.Parse).ToList());

    /// <summary>The number that this workshop gave a job; null where there is none.</summary>
    public int? Number(Guid jobId) => (int?)database.Read(c => c.ExecuteScalar<long?>("select number from job where id = @id", new { id = jobId.ToString() }));

    /// <summary>The version that a job has in the index; 0 where it has none.</summary>
    public int Version(Guid jobId) => (int)database.Read(c => c.ExecuteScalar<long>("select coalesce(max(version), 0) from job where id = @id", new { id = jobId.ToString() }));

    /// <summary>Every job's version.</summary>
    public IReadOnlyList<(Guid Id, int Version)> Versions() => database.Read(c => c.Query<(string Id, long Version)>("select id, version from job").Select(r => (Guid.Parse(r.Id), (int)r.Version)).ToList());

    /// <summary>Jobs whose card another engine wrote.</summary>
    internal IReadOnlyList<Guid> Stale() => database.Read(c => c.Query<string>("select id from job where engine_version <> @v order by finished, number desc", new { v = EngineVersion.Current }).Select(Guid.Parse).ToList());

    internal static int NextNumber(SqliteConnection c, SqliteTransaction? t) => (int)c.ExecuteScalar<long>("select coalesce(max(number), 400) + 1 from job", transaction: t);

    internal static void Save(SqliteConnection c, SqliteTransaction t, Guid jobId, JobState state)
    {
        var known = c.ExecuteScalar<long?>("select number from job where id = @id", new { id = jobId.ToString() }, t);
        // A number is this workshop's to give: a file's could be any, and every later one would have to be above it.
        var number = known ?? NextNumber(c, t);
        var card = BoardCard.Of(jobId, state) with { Number = (int)number };
        c.Execute("""
            insert into job(id, number, bay, version, finished, engine_version, card_json, plate, retorque_km) values(@id, @number, @bay, @version, @finished, @engine, @card, @plate, @due)
            on conflict(id) do update set bay = @bay, version = @version, finished = @finished, engine_version = @engine, card_json = @card, plate = @plate, retorque_km = @due
            """,
            new
            {
                id = jobId.ToString(),
                number,
                bay = card.Bay,
                version = state.Version,
                finished = state.HandedOver ? 1 : 0,
                engine = EngineVersion.Current,
                card = JsonSerializer.Serialize(card, PawlJson.Options),
                plate = card.Vehicle.Plate,
                due = card.RetorqueFromKm,
            }, t);
        if (known is null)
            c.Execute("insert into job_search(rowid, words) values(@number, @words)", new { number, words = $"{number} {card.Vehicle.Plate} {card.Vehicle.Make} {card.Vehicle.Model} {card.Vehicle.Use}" }, t);
    }

    private static BoardCard Card(string id, string json, Func<Guid, BoardCard> anew)
    {
        try
        {
            return JsonSerializer.Deserialize<BoardCard>(json, PawlJson.Options) ?? anew(Guid.Parse(id));
        }
        catch (JsonException)
        {
            return anew(Guid.Parse(id));
        }
    }
}

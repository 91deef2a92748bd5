using System.Text;
using System.Text.Json.Nodes;
using Dapper;
using Microsoft.Data.Sqlite;
using PatientPawl.Data;

namespace PatientPawl.Bench.Workshop;

/// <summary>Years of work: the finished job of a demo folder again and again, each with ids, a plate and a log of its own, chained and sealed.</summary>
internal static class Filling
{
    public static void To(string folder, int jobs)
    {
        var seals = new Seals(folder);
        using var c = new SqliteConnection($"Data Source={Path.Combine(folder, "patient-pawl.db")};Pooling=False");
        c.Open();
        c.Execute("pragma synchronous = off");
        var (id, card, engine) = c.QueryFirst<(string, string, string)>("select j.id, c.card_json, j.engine_version from job j join job_card c on c.job_id = j.id where finished = 1 order by number desc");
        var plate = JsonNode.Parse(card)!["vehicle"]!["plate"]!.ToString();
        var contents = c.Query<byte[]>("select content from job_event where job_id = @id order by seq", new { id }).Select(Encoding.UTF8.GetString).ToArray();
        var eventIds = c.Query<string>("select event_id from job_event where job_id = @id order by seq", new { id }).ToArray();
        var here = (int)c.ExecuteScalar<long>("select count(*) from job");
        var number = c.ExecuteScalar<long>("select max(number) from job");
        using var t = c.BeginTransaction();
        for (var n = here; n < jobs; n++)
        {
            var (job, mine) = (Guid.NewGuid(), $"OLD {n}");
            number++;
            c.Execute("""
                insert into job(id, number, bay, version, finished, engine_version, plate) values(@job, @number, @bay, @version, 1, @engine, @mine);
                insert into job_card(job_id, version, card_json) values(@job, @version, @card);
                insert into job_search(rowid, words) values(@number, @words);
                """,
                new { job = job.ToString(), number, bay = 1 + n % 9, version = contents.Length, engine, card = card.Replace(id, job.ToString(), StringComparison.Ordinal).Replace(plate, mine, StringComparison.Ordinal), mine, words = $"{number} {mine} Brae Sanderling meals car" }, t);
            var previous = "";
            for (var i = 0; i < contents.Length; i++)
            {
                var eventId = Guid.NewGuid().ToString();
                var content = Encoding.UTF8.GetBytes(contents[i].Replace(id, job.ToString(), StringComparison.Ordinal).Replace(eventIds[i], eventId, StringComparison.Ordinal).Replace(plate, mine, StringComparison.Ordinal));
                previous = EventStore.Chain(previous, content);
                c.Execute("""
                    insert into job_event(job_id, seq, event_id, request_hash, content, hash) values(@job, @seq, @eventId, 'bench', @content, @previous);
                    insert into event_seal(job_id, seq, seal, as_found) values(@job, @seq, @seal, 0)
                    """, new { job = job.ToString(), seq = i + 1, eventId, content, previous, seal = seals.Of(job, i + 1, previous) }, t);
            }
        }

        t.Commit();
    }
}

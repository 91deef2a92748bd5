using Dapper;
using Microsoft.Data.Sqlite;
using PatientPawl.Data;
using Shouldly;
using Xunit;

namespace PatientPawl.Web.Tests;

/// <summary>Who waits for the disk waits together, and answers for nobody else.</summary>
public sealed class WriterTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("pawl-writer").FullName;
    private readonly Database _database;
    private readonly List<string> _happened = [];

    public WriterTests()
    {
        _database = new(_folder);
        _database.Write((c, t) => c.Execute("create table thing(name text primary key, bytes blob) strict", transaction: t));
    }

    [Fact]
    public async Task Those_who_come_while_the_writer_is_at_work_are_stored_in_one_commit_and_answered_after_it()
    {
        await Together("a", "b", "c");
        // Every one has written before the first is made known: there was one commit for all.
        _happened.ShouldBe(["wrote first", "known first", "wrote a", "wrote b", "wrote c", "known a", "known b", "known c"]);
        Things().ShouldBe(["a", "b", "c", "first"]);
    }

    [Fact]
    public async Task What_one_may_not_do_is_undone_alone()
    {
        var refused = await Together("a", "first", "!b", "c");
        refused.Keys.ShouldBe(["first", "!b"]);
        refused["first"].ShouldBeOfType<SqliteException>();
        refused["!b"].ShouldBeOfType<InvalidOperationException>();
        Things().ShouldBe(["a", "c", "first"]);
        _happened.ShouldNotContain("known !b");
        _database.Write((c, t) => Write(c, t, "later"));
        Things().ShouldContain("later");
    }

    [Fact]
    public async Task Where_the_disk_is_full_nobody_of_those_who_waited_is_told_that_it_is_stored()
    {
        var refused = await Together("a", "full", "c");
        refused.Keys.ShouldBe(["a", "full", "c"]);
        refused.Values.Select(StorageTrouble.Says).ShouldAllBe(s => s!.StartsWith("The disk is full"));
        Things().ShouldBe(["first"]);
        _happened.ShouldNotContain("known a");
        _database.Write((c, t) => Write(c, t, "later"));
        Things().ShouldBe(["first", "later"]);
    }

    [Fact]
    public async Task Who_closes_it_waits_for_the_write_at_hand_and_whoever_comes_after_is_told()
    {
        using var database = new Database(Directory.CreateTempSubdirectory("pawl-writer").FullName);
        using var written = new ManualResetEventSlim();
        var begun = new TaskCompletionSource();
        var write = Task.Run(() => database.Write((c, t) =>
        {
            c.Execute("create table thing(name text primary key) strict", transaction: t);
            begun.SetResult();
            written.Wait();
            return c.Execute("insert into thing values('a')", transaction: t);
        }));
        await begun.Task;
        var closed = Task.Run(database.Dispose);
        await Task.WhenAny(closed, Task.Delay(200));
        closed.IsCompleted.ShouldBeFalse();
        written.Set();
        (await write).ShouldBe(1);
        await closed;
        Should.Throw<ObjectDisposedException>(() => database.Write((c, t) => c.Execute("insert into thing values('b')", transaction: t)));
    }

    [Fact]
    public async Task What_goes_wrong_after_the_commit_is_told_to_nobody_who_was_only_stored_with_it()
    {
        var refused = await Together("a", "?b", "c");
        refused.Keys.ShouldBe(["?b"]);
        Things().ShouldBe(["?b", "a", "c", "first"]);
    }

    [Fact]
    public async Task Hundreds_at_once_are_each_stored_once_whoever_of_them_is_refused()
    {
        var all = await Task.WhenAll(Enumerable.Range(0, 400).Select(i => Task.Run(async () =>
        {
            try
            {
                return await _database.WriteAsync((c, t) => Write(c, t, i % 7 == 3 ? $"!{i}" : $"{i}"));
            }
            catch (InvalidOperationException)
            {
                return 0;
            }
        })));
        all.Sum().ShouldBe(400 - Enumerable.Range(0, 400).Count(i => i % 7 == 3));
        Things().Count.ShouldBe(all.Sum());
    }

    /// <summary>Holds the writer until all of these wait, and gives back those who were refused.</summary>
    private async Task<Dictionary<string, Exception>> Together(params string[] names)
    {
        using var busy = new ManualResetEventSlim();
        using var go = new ManualResetEventSlim();
        var first = Task.Run(() => _database.Write((c, t) =>
        {
            busy.Set();
            go.Wait();
            return Write(c, t, "first");
        }, _ => Known("first")));
        busy.Wait();
        var waiting = names.Select(n => (Name: n, Task: _database.WriteAsync((c, t) => Write(c, t, n), _ => Known(n)))).ToArray();
        go.Set();
        await first;
        Dictionary<string, Exception> refused = [];
        foreach (var (name, task) in waiting)
        {
            try
            {
                await task;
            }
            catch (Exception e) when (e is SqliteException or InvalidOperationException)
            {
                refused[name] = e;
            }
        }

        return refused;
    }

    private int Write(SqliteConnection c, SqliteTransaction t, string name)
    {
        _happened.Add($"wrote {name}");
        // A file that may not grow is a full disk, to SQLite.
        if (name == "full") c.Execute("pragma max_page_count = 1", transaction: t);
        var rows = c.Execute("insert into thing(name, bytes) values(@name, @bytes)", new { name, bytes = new byte[name == "full" ? 2_000_000 : 1] }, t);
        return name.StartsWith('!') ? throw new InvalidOperationException("Not allowed.") : rows;
    }

    private void Known(string name)
    {
        // Others see it by now.
        Things().ShouldContain(name);
        if (name.StartsWith('?')) throw new InvalidOperationException("Nobody listens.");
        _happened.Add($"known {name}");
    }

    private List<string> Things() => _database.Read(c => c.Query<string>("select name from thing order by name").ToList());

    public void Dispose()
    {
        _database.Dispose();
        Directory.Delete(_folder, recursive: true);
    }
}

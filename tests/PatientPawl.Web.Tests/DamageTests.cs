using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Dapper;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;
using PatientPawl.Data;
using PatientPawl.Web.Hosting;

namespace PatientPawl.Web.Tests;

/// <summary>What a disk, a curious hand or a second server can do to a workshop's folder: it is seen, said in one sentence, and nothing else stops.</summary>
public class DamageTests
{
    private static async Task<string> Folder()
    {
        await using var shop = await Workshop.Open();
        var folder = Directory.CreateTempSubdirectory("pawl").FullName;
        Backups.Make(shop.Folder, Path.Combine(folder, "b"));
        Backups.Restore(folder, Path.Combine(folder, "b"), DateTimeOffset.UtcNow);
        return folder;
    }

    private static (Guid Id, EventStore Store, Database Database) Open(string folder)
    {
        var database = new Database(folder);
        var store = new EventStore(database, TimeProvider.System, new(folder), new(folder));
        return (store.JobIds()[0], store, database);
    }

    [Theory]
    [InlineData("update job_event set content = cast(replace(cast(content as text), 'orn', 'ine') as blob) where job_id = 'JOB' and seq = 1", "Event 1 is not what was stored: its bytes do not match its hash.")]
    [InlineData("delete from job_event where job_id = 'JOB' and seq > 60", "are missing: the log was cut")]
    [InlineData("delete from job_event where job_id = 'JOB' and seq = 5", "Event 5 is missing.")]
    [InlineData("delete from event_seal where job_id = 'JOB' and seq = 7", "Event 7 has no seal: it was added past this program.")]
    [InlineData("update event_seal set seal = zeroblob(32) where job_id = 'JOB' and seq = 9", "Event 9 does not match its seal: it was changed past this program.")]
    public async Task What_was_changed_past_the_program_is_seen_and_the_event_named(string sql, string says)
    {
        var folder = await Folder();
        var (id, _, first) = Open(folder);
        first.Dispose();
        Workshop.PastTheProgram(folder, sql.Replace("JOB", id.ToString(), StringComparison.Ordinal));
        var (_, store, database) = Open(folder);
        using var held = database;
        store.Verify(id).Says.ShouldContain(says);
        store.JobIds().Where(j => j != id).ShouldAllBe(j => store.Verify(j).Verified);
    }

    [Fact]
    public async Task A_chain_made_anew_with_events_in_the_leads_name_does_not_fit_its_seals()
    {
        var folder = await Folder();
        var (id, store, database) = Open(folder);
        var stored = store.Stored(id);
        database.Dispose();
        // The last event said again in other words, its hash right: only the key is lacking.
        var words = System.Text.Encoding.UTF8.GetString(stored[^1].Content).Replace("Sol Penhale", "Kit Ransome", StringComparison.Ordinal);
        var content = System.Text.Encoding.UTF8.GetBytes(words);
        var hash = EventStore.Chain(stored[^2].Hash, content);
        Workshop.PastTheProgram(folder, $"update job_event set content = x'{Convert.ToHexString(content)}', hash = '{hash}' where job_id = '{id}' and seq = {stored.Count}");
        var (_, again, held) = Open(folder);
        using var closing = held;
        again.Verify(id).FirstWrong.ShouldBe(stored.Count);
        using var said = new StringWriter();
        held.Dispose();
        Maintenance.Run(new(0, folder, false) { Verify = true }, said, said, TimeProvider.System).ShouldBe(1);
        said.ToString().ShouldContain("1 job differs from what was stored.");
    }

    [Fact]
    public async Task A_job_that_cannot_be_read_is_alone_with_it_and_the_workshop_opens()
    {
        var folder = await Folder();
        var (id, _, first) = Open(folder);
        first.Dispose();
        Workshop.PastTheProgram(folder, $"update job_event set content = x'7b22' where job_id = '{id}' and seq = 3", $"update job set engine_version = 'older' where id = '{id}'");
        await using var shop = await Workshop.Open(folder: folder, copied: false);
        await shop.SignIn();
        var answer = await shop.Client.GetAsync($"/api/jobs/{id}");
        answer.StatusCode.ShouldBe(HttpStatusCode.InternalServerError);
        var problem = await Workshop.Problem(answer);
        problem["title"]!.ToString().ShouldBe("This job cannot be shown: event 3 of its log cannot be read. Every other job goes on; restore this one from a backup.");
        problem["reason"]!.ToString().ShouldBe("damaged");
        (await shop.Client.GetFromJsonAsync<JsonNode>("/api/board"))!.AsArray().Count.ShouldBeGreaterThan(3);
        (await shop.Client.GetAsync($"/api/jobs/{await shop.JobInBay(2)}")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await shop.Client.GetFromJsonAsync<JsonNode>($"/api/jobs/{id}/verified"))!["firstWrong"]!.GetValue<int>().ShouldBe(3);
    }

    [Fact]
    public async Task A_second_server_a_newer_folder_and_a_damaged_header_are_one_sentence_each()
    {
        var folder = await Folder();
        using (var first = new Database(folder)) Should.Throw<FolderException>(() => new Database(folder)).Message.ShouldStartWith("Another Patient Pawl works in ");
        Workshop.PastTheProgram(folder, "insert into SchemaVersions(ScriptName, Applied) values('PatientPawl.Data.Migrations.0999-later.sql', '2031-01-01')");
        Should.Throw<FolderException>(() => new Database(folder)).Message.ShouldBe("A newer Patient Pawl wrote this folder (PatientPawl.Data.Migrations.0999-later.sql): start that one. Nothing was changed.");
        Workshop.PastTheProgram(folder, "delete from SchemaVersions where ScriptName like '%0999%'");
        foreach (var log in Directory.GetFiles(folder, "patient-pawl.db-*")) File.Delete(log);
        await using (var file = File.OpenWrite(Path.Combine(folder, "patient-pawl.db"))) await file.WriteAsync(new byte[64]);
        Should.Throw<FolderException>(() => new Database(folder)).Message.ShouldBe("The file patient-pawl.db is not a database any more: its header is damaged. Keep a copy of the folder, and restore the last backup.");
        StorageTrouble.Says(new SqliteException("full", 13)).ShouldBe("The disk is full: nothing was stored. Make room, then send it again.");
        StorageTrouble.Says(new SqliteException("readonly", 8))!.ShouldContain("cannot be written to");
        StorageTrouble.Says(new InvalidOperationException()).ShouldBeNull();
    }

    [Fact]
    public async Task The_folder_its_database_and_its_key_are_read_by_nobody_else()
    {
        if (OperatingSystem.IsWindows()) return;
        await using var shop = await Workshop.Open();
        File.GetUnixFileMode(shop.Folder).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        foreach (var name in new[] { "patient-pawl.db", "seal.key" }) File.GetUnixFileMode(Path.Combine(shop.Folder, name)).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite, name);
    }

    [Fact]
    public async Task A_backup_made_while_people_write_has_every_acknowledged_event_up_to_some_moment_and_is_put_back_whole()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.NewJob();
        var written = new List<int>();
        using var stop = new CancellationTokenSource();
        var writing = Task.Run(async () =>
        {
            for (var version = 1; !stop.IsCancellationRequested; version++)
            {
                (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/notes", Workshop.Command(version, ("text", $"note {version}")))).EnsureSuccessStatusCode();
                lock (written) written.Add(version);
            }
        });
        var file = Path.Combine(Directory.CreateTempSubdirectory("pawl").FullName, "now.pawl-backup");
        while (written.Count < 5) await Task.Delay(20);
        int before;
        lock (written) before = written.Count;
        Backups.Make(shop.Folder, file);
        await stop.CancelAsync();
        await writing;
        var folder = Directory.CreateTempSubdirectory("pawl").FullName;
        Backups.Restore(folder, file, DateTimeOffset.UtcNow).ShouldBeNull();
        var (_, store, database) = Open(folder);
        using var held = database;
        store.State(Guid.Parse(id)).Version.ShouldBeGreaterThanOrEqualTo(before + 1);
        store.JobIds().ShouldAllBe(j => store.Verify(j).Verified);
        Should.Throw<FolderException>(() => Backups.Restore(folder, file, DateTimeOffset.UtcNow)).Message.ShouldStartWith("Another Patient Pawl works in ");
        (await shop.Client.GetAsync("/api/workshop/backup")).Content.Headers.ContentType!.MediaType.ShouldBe("application/zip");
    }

    [Fact]
    public async Task A_backup_that_has_no_place_to_go_is_one_sentence_and_one_that_has_is_read_by_its_owner_alone()
    {
        var folder = await Folder();
        Should.Throw<FolderException>(() => Backups.Make(folder, Path.Combine(folder, "no such folder", "b"))).Message.ShouldStartWith("The backup could not be made: ");
        if (!OperatingSystem.IsWindows()) File.GetUnixFileMode(Path.Combine(folder, "b")).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite);
        Directory.Exists(Path.Combine(folder, "restoring")).ShouldBeFalse();
    }

    [Fact]
    public async Task What_is_no_backup_changes_nothing_and_what_was_there_is_moved_aside()
    {
        var folder = await Folder();
        var wrong = Path.Combine(folder, "holiday.zip");
        await File.WriteAllTextAsync(wrong, "no zip");
        Should.Throw<FolderException>(() => Backups.Restore(folder, wrong, DateTimeOffset.UtcNow)).Message.ShouldContain("Nothing was changed");
        var aside = Backups.Restore(folder, Path.Combine(folder, "b"), new(2031, 4, 9, 8, 0, 0, TimeSpan.Zero))!;
        aside.ShouldEndWith("before-restore-20310409-080000");
        File.Exists(Path.Combine(aside, "patient-pawl.db")).ShouldBeTrue();
        for (var day = 1; day <= 20; day++) DailyBackup.Make(folder, new(2031, 4, day));
        Directory.GetFiles(Path.Combine(folder, "backups")).Length.ShouldBe(DailyBackup.Kept);
    }

    [Fact]
    public async Task The_lead_lays_a_backup_ready_on_the_page_and_the_next_start_puts_it_back()
    {
        await using var shop = await Workshop.Open();
        await shop.SignIn();
        var id = await shop.JobInBay(6);
        var before = (int)(await shop.Job(id))["version"]!;
        var day = new DateOnly(2031, 4, 9);
        DailyBackup.Make(shop.Folder, day);
        (await shop.Client.PostAsJsonAsync($"/api/jobs/{id}/notes", Workshop.Command(before, ("text", "after the backup")))).EnsureSuccessStatusCode();

        async Task<JsonNode> Lay(string how, HttpContent content, HttpStatusCode status)
        {
            var answer = await shop.Client.PostAsync($"/api/workshop/restore/{how}", content);
            answer.StatusCode.ShouldBe(status, await answer.Content.ReadAsStringAsync());
            return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
        }

        (await Lay("file", new ByteArrayContent("no zip"u8.ToArray()) { Headers = { ContentType = new("application/octet-stream") } }, HttpStatusCode.Conflict))["title"]!.ToString().ShouldStartWith("This is no backup of this product");
        (await Lay("kept", JsonContent.Create(new { day = "2031-04-10" }), HttpStatusCode.UnprocessableEntity))["title"]!.ToString().ShouldBe("There is no backup of that day here.");
        (await shop.Client.GetFromJsonAsync<JsonNode>("/api/workshop/backups"))!["waiting"].ShouldBeNull();
        var laid = await Lay("kept", JsonContent.Create(new { day = "2031-04-09" }), HttpStatusCode.OK);
        ((int)laid["waiting"]!["jobs"]!).ShouldBe(shop.Services.GetRequiredService<EventStore>().JobIds().Count);
        (await shop.Client.DeleteAsync("/api/workshop/restore")).EnsureSuccessStatusCode();
        (await shop.Client.GetFromJsonAsync<JsonNode>("/api/workshop/backups"))!["waiting"].ShouldBeNull();

        // The very bytes, as a browser sends them; whoever is no lead does neither.
        await Lay("file", new ByteArrayContent(await File.ReadAllBytesAsync(DailyBackup.FileOf(shop.Folder, day))) { Headers = { ContentType = new("application/octet-stream") } }, HttpStatusCode.OK);
        await shop.SignIn("Ines Marrow");
        (await Workshop.Problem(await shop.Client.DeleteAsync("/api/workshop/restore")))["title"]!.ToString().ShouldContain("lead");

        // Another folder stands for this one, whose server holds it.
        var folder = await Folder();
        Backups.Lay(folder, Path.Combine(shop.Folder, "restore-at-start.pawl-backup"));
        Backups.PutBack(folder, DateTimeOffset.UtcNow)!.ShouldStartWith("The backup that was laid ready was put back. What was there lies in ");
        Backups.PutBack(folder, DateTimeOffset.UtcNow).ShouldBeNull();
        var (_, store, database) = Open(folder);
        using var held = database;
        store.State(Guid.Parse(id)).Version.ShouldBe(before);
    }
}
